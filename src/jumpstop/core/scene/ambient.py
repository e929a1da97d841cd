"""The light that is there, as the photographer says it."""

from datetime import date, time
from typing import Literal

from pydantic import Field, model_validator

from ..kit.errors import refuse
from ..kit.values import Clock, Flag, FNumber, Iso, Number, ShutterS, Value
from ..physics import scales
from .place import Place

Condition = Literal[
    "sand_or_snow", "distinct_shadows", "hazy_sun", "cloudy_bright", "heavy_overcast", "open_shade", "after_sunset",
    "gallery", "office", "interior_night", "floodlit", "dark",
]  # fmt: skip
Sky = Literal["clear", "partly", "overcast"]
Placement = Literal["sun", "back", "shade", "panel"]
Pointed = Literal["background", "subject", "shade"]


class Panel(Value):
    """A panel held level over a subject against the sun."""

    kind: Literal["opaque", "diffusing"] = "opaque"
    size_m: Number = Field(1.8, ge=0.2, le=12)
    height_m: Number = Field(2.4, ge=0.3, le=10)


class Reading(Value):
    """A meter or camera reading, what it was pointed at, and when."""

    f_number: FNumber = 8.0
    shutter_s: ShutterS = 1 / 500
    iso: Iso = 100
    needle_stops: Number = Field(0.0, ge=-10, le=10)
    of: Pointed = "background"
    clock: Clock | None = None

    @property
    def ev(self) -> float:
        """EV at ISO 100: where the settings leave the needle under, the light is as much less than they render."""
        return float(scales.marked_ev100(self.f_number, self.shutter_s, self.iso)) + self.needle_stops


class SunCameIn(Value):
    """When the sun was seen to come into the shade: it does so at the same bearing on other days."""

    day: date = Field(ge=date(1900, 1, 1), le=date(2199, 12, 31))
    clock: Clock


class AmbientSpec(Value):
    """The light that is there: by eye, by meter, by lux, or by the sun at a place and time; and the lamps."""

    by: Literal["condition", "reading", "lux", "sun"] = "condition"
    condition: Condition = "distinct_shadows"
    readings: tuple[Reading, ...] = Field((), max_length=3)
    lux: Number | None = Field(None, ge=0.001, le=200_000)
    place: Place | None = None
    day: date | None = Field(None, ge=date(1900, 1, 1), le=date(2199, 12, 31))
    clock: Clock = time(12)
    sky: Sky = "clear"
    shade_open_deg: Number | None = Field(None, ge=0, le=360)
    sun_came_in: SunCameIn | None = None
    subject: Placement = "shade"
    panel: Panel = Panel()
    shadow_stops: Number | None = Field(None, ge=-8, le=0)
    lamps_lux: Number | None = Field(None, ge=0.001, le=100_000)
    lamps_k: Number = Field(3200, ge=1500, le=15_000)
    lamps_on: Flag = True

    @model_validator(mode="after")
    def _known(self) -> "AmbientSpec":
        if self.by == "sun":
            if self.place is None:
                raise refuse("place_missing")
            if self.day is None:
                raise refuse("date_missing")
        if self.by == "lux" and self.lux is None:
            raise refuse("lux_missing")
        if self.by == "reading" and not self.readings:
            raise refuse("reading_missing")
        return self
