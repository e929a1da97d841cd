"""Camera bodies as flash sees them."""

import math
from typing import Literal

from pydantic import Field, model_validator

from ..physics.scales import at_least
from .errors import refuse
from .values import Flag, FNumber, Iso, Line, Name, Note, Number, Value, Weight, example

OPEN_SHARE = 0.7  # curtain travel against the sync time, where it is not known and a long flash matters; from memory


class LeafLimit(Value):
    """The fastest time of a leaf shutter from this aperture on (its blades may not reach the top speed wide open)."""

    f_number: FNumber
    fastest_s: Number = Field(ge=1 / 100000, le=1)


class Body(Value):
    """A camera body as flash sees it."""

    model_config = example(name="Cliff 36", sync_s=0.004, top_speed_s=0.000125, dark_edge="bottom", frames_per_s=10)

    name: Name
    shutter: Literal["focal_plane", "leaf", "global"] = "focal_plane"
    sync_s: Number = Field(1 / 250, ge=1 / 64000, le=1)
    top_speed_s: Number = Field(1 / 8000, ge=1 / 100000, le=1)
    travel_s: Number | None = Field(None, ge=1 / 10000, le=0.2)
    radio_sync_s: Number | None = Field(None, ge=1 / 64000, le=1)
    silent_sync_s: Number | None = Field(None, ge=1 / 64000, le=1)
    leaf_limits: tuple[LeafLimit, ...] = Field((), max_length=20)
    hss: Flag = True
    iso_min: Iso = 100
    iso_max: Iso = 25600
    frame_width_mm: Number = Field(36, ge=4, le=120)
    frame_height_mm: Number = Field(24, ge=3, le=120)
    stabiliser_stops: Number = Field(0.0, ge=0, le=9)
    frames_per_s: Number = Field(8, ge=0.1, le=240)
    weight_g: Weight | None = None
    dark_edge: Literal["bottom", "top", "unknown"] = "unknown"
    shoe: Line = ""
    note: Note = ""

    @model_validator(mode="after")
    def _agrees(self) -> "Body":
        if not at_least(self.sync_s, self.top_speed_s):
            raise refuse("sync_over_top_speed", name=self.name)
        if self.iso_min > self.iso_max:
            raise refuse("iso_range_reversed", name=self.name)
        return self

    @property
    def curtain_s(self) -> float:
        """Curtain travel [s]; about the sync time where it is not known."""
        return self.travel_s or self.sync_s

    @property
    def open_travel_s(self) -> float:
        """Curtain travel [s] for what a long flash loses: where it is not known, 0.7 of the sync time.

        A sync speed leaves the frame wholly open for a while, so that a flash of some length fits in.
        """
        if self.shutter != "focal_plane":
            return 0.0
        return self.travel_s or OPEN_SHARE * self.sync_s

    @property
    def diagonal_mm(self) -> float:
        """Diagonal of the frame [mm]."""
        return math.hypot(self.frame_width_mm, self.frame_height_mm)

    def flash_sync_s(self, radio: bool, silent: bool) -> float:
        """The sync time that holds [s] with the trigger and the shutter in use."""
        times = [self.sync_s]
        if radio and self.radio_sync_s:
            times.append(self.radio_sync_s)
        if silent and self.silent_sync_s:
            times.append(self.silent_sync_s)
        return max(times)

    def fastest_flash_s(self, f_number: float, radio: bool, silent: bool) -> float:
        """The shortest time at which the whole frame gets one pop of flash [s], at this aperture."""
        if self.shutter == "focal_plane":
            return self.flash_sync_s(radio, silent)
        limits = [limit.fastest_s for limit in self.leaf_limits if at_least(limit.f_number, f_number)]
        return max([self.flash_sync_s(radio, silent), *limits])
