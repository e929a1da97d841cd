"""The light that is there: conditions, readings, lux, turned into EV at ISO 100 for background, subject and shade."""

from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from . import exposure
from .values import Ev, FNumber, Iso, ShutterS, Value

Condition = Literal[
    "sand_or_snow", "distinct_shadows", "hazy_sun", "cloudy_bright", "heavy_overcast", "open_shade", "after_sunset",
    "gallery", "office", "interior_night", "floodlit", "dark",
]  # fmt: skip


@dataclass(frozen=True)
class ConditionFigures:
    """One line of the light-value table: EV at ISO 100, half its spread, and how far shade and back lie below."""

    name: str
    ev: float
    spread: float
    shade: float
    back: float


# Light values: ANSI PH2.7 exposure guide. Shade: the table's own "open shade 12" under each sky; the side of a person
# turned away from the sun lies about a stop above open shade in sun (from memory).
CONDITIONS: dict[Condition, ConditionFigures] = {
    "sand_or_snow": ConditionFigures("sun on sand or snow", 16, 0.5, -3, -2),
    "distinct_shadows": ConditionFigures("sun, distinct shadows", 15, 0.5, -3, -2),
    "hazy_sun": ConditionFigures("hazy sun, soft shadows", 14, 0.5, -2, -1.3),
    "cloudy_bright": ConditionFigures("cloudy bright, no shadows", 13, 0.5, -1, -0.5),
    "heavy_overcast": ConditionFigures("heavy overcast", 12, 0.5, -1, -0.3),
    "open_shade": ConditionFigures("open shade", 12, 0.5, 0, 0),
    "after_sunset": ConditionFigures("just after sunset", 10, 1.0, -0.5, -0.5),
    "gallery": ConditionFigures("a gallery", 9.5, 1.5, 0, 0),
    "office": ConditionFigures("an office", 7.5, 0.5, 0, 0),
    "interior_night": ConditionFigures("a room at night", 6, 1.0, 0, 0),
    "floodlit": ConditionFigures("floodlit buildings", 4, 1.0, 0, 0),
    "dark": ConditionFigures("dark, all lamps off", -3, 2.0, 0, 0),
}


class Reading(Value):
    """A meter or camera reading, and what it was pointed at."""

    f_number: FNumber
    shutter_s: ShutterS
    iso: Iso = 100
    of: Literal["background", "subject", "shade"] = Field("background", title="Pointed at")

    @property
    def ev(self) -> float:
        """EV at ISO 100."""
        return exposure.marked_ev100(self.f_number, self.shutter_s, self.iso)


class There(Value):
    """The light that is there, as the photographer says it."""

    by: Literal["condition", "reading", "lux"] = Field("condition", title="Light said by")
    condition: Condition = Field("distinct_shadows", title="Condition")
    readings: tuple[Reading, ...] = Field((), max_length=3, title="Readings")
    lux: float | None = Field(None, gt=0, le=200_000, title="Illuminance (lx)")
    subject: Literal["sun", "back", "shade"] = Field("shade", title="Where the subject stands")


@dataclass(frozen=True)
class Ambient:
    """EV at ISO 100 of what the picture shows, with the spread of how it was found and how it was said."""

    background_ev: Ev
    subject_ev: Ev
    shade_ev: Ev
    sd: float
    how: str


def ambient_of(there: There) -> Ambient:
    """EV of background, subject and shade. A reading always wins over a figure from a table."""
    figures = CONDITIONS[there.condition]
    if there.by == "lux":
        if there.lux is None:
            raise ValueError("Say how many lux there are.")
        background = float(exposure.ev_of_lux(there.lux))
        sd, how = 0.2, f"{there.lux:,.0f} lx on a flat meter is EV {background:.1f} at ISO 100 (C = 250)."
    else:
        background, sd = float(figures.ev), figures.spread
        how = f"Light-value table: {figures.name}, EV {figures.ev:g} ± {figures.spread:g}."
    subject = background + {"sun": 0.0, "back": figures.back, "shade": figures.shade}[there.subject]
    shade = background + figures.shade
    if there.by == "reading":
        if not there.readings:
            raise ValueError("Say what the meter read: aperture, shutter time and ISO.")
        found: dict[str, float] = {reading.of: reading.ev for reading in there.readings}
        table = {"background": background, "subject": subject, "shade": shade}
        shift = sum(found[name] - table[name] for name in found) / len(found)
        background, subject, shade = (found.get(name, table[name] + shift) for name in table)
        sd, how = 0.15, "As metered; what was not metered is shifted with it."
    return Ambient(background, subject, shade, sd, how)
