"""Motion: freezing it with a short flash, or letting it draw with a slow shutter."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np
from pydantic import Field, model_validator

from .stops import Jump, Pick
from .table import POWER_STOPS, Table
from .values import Floats, Value

G = 9.80665  # standard gravity [m/s2], ISO 80000-3
GHOST_STOPS = -5.0  # the ambient must lie this far under, or it ghosts; common practice, no source

Mover = Literal["fall", "walker", "runner", "leap", "dancer", "thrown", "splash", "small_bird", "ball", "other"]

# Speeds of what moves fastest in the picture [m/s]; typical, from memory, and the user can say another.
MOVERS: dict[Mover, tuple[str, float]] = {
    "fall": ("something falling", 2.0),
    "walker": ("somebody walking", 1.5),
    "leap": ("somebody leaping", 3.5),
    "runner": ("somebody running", 6.0),
    "dancer": ("a dancer's hands", 6.0),
    "thrown": ("powder or water thrown", 7.0),
    "splash": ("a splash", 3.0),
    "small_bird": ("a small bird's wing tips", 10.0),
    "ball": ("a ball in play", 25.0),
    "other": ("something else", 2.0),
}


class Motion(Value):
    """What moves, and what the picture should do about it."""

    kind: Literal["none", "freeze", "trails"] = Field("none", title="Motion")
    mover: Mover = Field("fall", title="What moves")
    fall_m: float = Field(0.2, ge=0.001, le=200, title="Fall height (m)")
    speed_m_s: float | None = Field(None, ge=0.01, le=1500, title="Speed (m/s)")
    field_width_m: float = Field(0.6, ge=0.005, le=200, title="Width of the field (m)")
    blur_mm: float | None = Field(None, ge=0.001, le=1, title="Tolerable blur on the sensor (mm)")
    trail_s: float = Field(0.25, ge=1 / 250, le=60, title="Shutter time for trails (s)")

    @model_validator(mode="after")
    def _said(self) -> "Motion":
        if self.mover == "other" and self.speed_m_s is None:
            raise ValueError("Say how fast it moves (Speed, in m/s).")
        return self

    @property
    def speed(self) -> float:
        """Speed [m/s]: as said, by the height it has fallen (sqrt(2 g h)), or by the list."""
        if self.mover == "fall":
            return math.sqrt(2 * G * self.fall_m)
        return self.speed_m_s if self.speed_m_s is not None else MOVERS[self.mover][1]


def blur_mm(speed_m_s: float, seconds: float, frame_width_mm: float, field_width_m: float) -> float:
    """Blur on the sensor [mm]: speed x duration x magnification."""
    return speed_m_s * seconds * frame_width_mm / field_width_m


def needed_t01_s(motion: Motion, frame_width_mm: float, coc_mm: float) -> float:
    """Longest flash (t.1) [s] that keeps the blur tolerable. Fall of 0.2 m, field 0.6 m, 36 mm: 1/3,960 s."""
    return (motion.blur_mm or coc_mm) / blur_mm(motion.speed, 1.0, frame_width_mm, motion.field_width_m)


@dataclass(frozen=True, eq=False)
class Frozen:
    """Power settings that are short enough: least and most stops below full, and whether there are any; (units,)."""

    least: Floats
    most: Floats
    known: np.ndarray
    can: np.ndarray


def settings_for(table: Table, needed_s: float) -> Frozen:
    """Which of every unit's power settings burn no longer than this (t.1, within 2 %).

    Pulses that are cut get shorter as power drops, those with a slow tail longer: the stretch of settings that begins
    with the brightest one short enough is what counts.
    """
    known = ~np.isnan(table.t01_s[:, 0])
    depth = np.round(table.depth / table.step) * table.step
    on_dial = POWER_STOPS[None, :] <= depth[:, None] + 1e-6
    ok = (table.t01_s <= needed_s * 1.02) & on_dial & known[:, None]
    can = ok.any(axis=1)
    first = ok.argmax(axis=1)
    ends = ~ok & (np.arange(len(POWER_STOPS))[None, :] > first[:, None])
    last = np.where(ends.any(axis=1), ends.argmax(axis=1) - 1, len(POWER_STOPS) - 1)
    least = np.ceil(POWER_STOPS[first] / table.step - 1e-6) * table.step
    most = np.floor(np.minimum(POWER_STOPS[last], depth) / table.step + 1e-6) * table.step
    return Frozen(least, np.maximum(most, least), known, can & (least <= depth + 1e-6))


def freeze_jump(table: Table, frozen: Frozen, needed_s: float) -> Jump:
    """What is lost by staying at a setting that is short enough."""
    words = (
        "The flash must burn no longer than {needed:shutter} (t.1). By its own table this unit does so at "
        "{least:power} and below, not above.",
        "The flash must burn no longer than {needed:shutter} (t.1), which this unit does even at full power.",
        "The flash must burn no longer than {needed:shutter} (t.1); this unit's flash durations are not known.",
        "The flash must burn no longer than {needed:shutter} (t.1), and no setting of this unit does.",
    )
    which = np.where(~frozen.known, 2, np.where(~frozen.can, 3, np.where(frozen.least > 0, 0, 1)))
    return Jump(
        "freeze",
        "short enough",
        -np.where(frozen.can, frozen.least, 0.0),
        0.0,
        "{which}",
        "D",
        "blur = speed × duration × magnification; durations from the unit's table",
        {
            "needed": needed_s,
            "least": frozen.least,
            "which": Pick(which.astype(int), words),
        },
    )
