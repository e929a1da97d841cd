"""Camera bodies, their settings, and the neutral density in front of the lens."""

import math
from functools import cached_property
from itertools import combinations
from typing import Literal

from pydantic import Field, model_validator

from . import exposure
from .stops import Jump
from .values import FNumber, Iso, Name, Note, ShutterS, Value, example


class LeafLimit(Value):
    """The fastest time of a leaf shutter from this aperture on (its blades may not reach the top speed wide open)."""

    f_number: FNumber
    fastest_s: float = Field(ge=1 / 100000, le=1, title="Fastest time of the leaf shutter (s)")


class Body(Value):
    """A camera body as flash sees it."""

    model_config = example(name="Cliff 36", sync_s=0.004, top_speed_s=0.000125, dark_edge="bottom", frames_per_s=10)

    name: Name
    shutter: Literal["focal_plane", "leaf", "global"] = Field("focal_plane", title="Shutter")
    sync_s: float = Field(1 / 250, ge=1 / 64000, le=1, title="Sync speed (s)")
    top_speed_s: float = Field(1 / 8000, ge=1 / 100000, le=1, title="Top speed (s)")
    travel_s: float | None = Field(None, ge=1 / 10000, le=0.2, title="Curtain travel (s)")
    radio_sync_s: float | None = Field(None, ge=1 / 64000, le=1, title="Sync speed with the radio trigger (s)")
    silent_sync_s: float | None = Field(None, ge=1 / 64000, le=1, title="Sync speed with the silent shutter (s)")
    leaf_limits: tuple[LeafLimit, ...] = Field((), max_length=20, title="Leaf shutter limits")
    hss: bool = Field(True, title="High-speed sync")
    iso_min: Iso = Field(100, title="Lowest ISO")
    iso_max: Iso = Field(25600, title="Highest ISO")
    frame_width_mm: float = Field(36, ge=4, le=120, title="Frame width (mm)")
    frame_height_mm: float = Field(24, ge=3, le=120, title="Frame height (mm)")
    frames_per_s: float = Field(8, ge=0.1, le=240, title="Frames a second")
    dark_edge: Literal["bottom", "top", "unknown"] = Field("unknown", title="Edge that goes dark past sync")
    note: Note = ""

    @model_validator(mode="after")
    def _agrees(self) -> "Body":
        if self.sync_s < self.top_speed_s * 0.99:
            raise ValueError(f"“{self.name}”: the sync speed cannot be faster than the top speed.")
        if self.iso_min > self.iso_max:
            raise ValueError(f"“{self.name}”: the lowest ISO is above the highest.")
        return self

    @property
    def curtain_s(self) -> float:
        """Curtain travel [s]; about the sync time where it is not known."""
        return self.travel_s or self.sync_s

    @property
    def open_travel_s(self) -> float:
        """Curtain travel [s] for what a long flash loses: where it is not known, 0.7 of the sync time.

        A sync speed leaves the frame wholly open for a while, so that a flash of some length fits in (from memory).
        """
        if self.shutter != "focal_plane":
            return 0.0
        return self.travel_s or 0.7 * self.sync_s

    @property
    def diagonal_mm(self) -> float:
        """Diagonal of the frame [mm]."""
        return math.hypot(self.frame_width_mm, self.frame_height_mm)

    def flash_sync_s(self, radio: bool = True, silent: bool = False) -> float:
        """The sync time that holds [s] with the trigger and the shutter in use."""
        times = [self.sync_s]
        if radio and self.radio_sync_s:
            times.append(self.radio_sync_s)
        if silent and self.silent_sync_s:
            times.append(self.silent_sync_s)
        return max(times)

    def fastest_flash_s(self, f_number: float, radio: bool = True, silent: bool = False) -> float:
        """The shortest time at which the whole frame gets one pop of flash [s], at this aperture."""
        if self.shutter == "focal_plane":
            return self.flash_sync_s(radio, silent)
        limits = [limit.fastest_s for limit in self.leaf_limits if f_number <= limit.f_number * 1.01]
        return max([self.flash_sync_s(radio, silent), *limits])


class Filter(Value):
    """A neutral density filter: fixed, or variable over a range."""

    model_config = example(name="Variable ND 2–5", stops=2, most_stops=5)

    name: Name
    stops: float = Field(ge=0.1, le=20, title="ND (stops)")
    most_stops: float | None = Field(None, ge=0.1, le=20, title="ND at the far end (stops)")
    note: Note = ""

    @model_validator(mode="after")
    def _rises(self) -> "Filter":
        if self.most_stops is not None and self.most_stops < self.stops:
            raise ValueError(f"“{self.name}”: the far end of a variable ND must not be weaker than its near end.")
        return self


class Camera(Value):
    """Camera settings as marked on the camera, with the ND in front."""

    f_number: FNumber
    shutter_s: ShutterS
    iso: Iso
    nd_stops: float = Field(0, ge=0, le=30, title="ND (stops)")
    nd_names: tuple[str, ...] = ()

    @cached_property
    def ev(self) -> float:
        """The light value (EV at ISO 100) these settings render correctly."""
        return exposure.marked_ev100(self.f_number, self.shutter_s, self.iso) + self.nd_stops


def nd_share(stops: float) -> float:
    """Share of the light that so many stops of ND let through: 4 stops leave 6 %."""
    return float(2**-stops)


def nd_combinations(filters: tuple[Filter, ...]) -> list[tuple[float, float, tuple[str, ...]]]:
    """What the filters owned can do alone or two on each other: (least stops, most stops, names).

    Two variable filters are never stacked: they cross.
    """
    alone: list[tuple[float, float, tuple[str, ...]]] = [(f.stops, f.most_stops or f.stops, (f.name,)) for f in filters]
    pairs: list[tuple[float, float, tuple[str, ...]]] = [
        (a.stops + b.stops, (a.most_stops or a.stops) + (b.most_stops or b.stops), (a.name, b.name))
        for a, b in combinations(filters, 2)
        if a.most_stops is None or b.most_stops is None
    ]
    return alone + pairs


def nd_for(needed: float, filters: tuple[Filter, ...], slack: float = 0.34) -> tuple[float, tuple[str, ...]] | None:
    """The least ND of those owned that takes at least `needed` stops (less a third): (stops, names), or None.

    A variable filter is turned to just what is needed.
    """
    best: tuple[float, int, tuple[str, ...]] | None = None
    for least, most, names in nd_combinations(filters):
        if most < needed - slack:
            continue
        stops = least if least >= needed or most == least else min(most, math.ceil(needed * 3 - 0.05) / 3)
        found = (abs(stops - needed) if stops < needed else stops - needed, len(names), names)
        if best is None or (round(found[0], 2), found[1]) < (round(best[0], 2), best[1]):
            best = found
            chosen = stops
    return None if best is None else (chosen, best[2])


def nd_jump(stops: float, names: tuple[str, ...]) -> Jump:
    """What neutral density takes from flash and ambient alike."""
    return Jump(
        "nd",
        "ND {stops:.3g}",
        -stops,
        0.1,
        "{names}: {stops:.3g} stops of neutral density let {share:.1%} through, of flash and ambient alike.",
        "D",
        "ND: 2^−stops",
        {"stops": stops, "names": " + ".join(names) or "ND", "share": nd_share(stops)},
    )
