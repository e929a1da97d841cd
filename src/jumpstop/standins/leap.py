"""The timing drill: leaps one after the other, the camera's lag, one flash per recharge."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..core.physics.motion import G
from .truth import Truth

LEAPS = 8  # of one sitting
RUN_UP_S = (0.2, 1.2)  # from when the flash is ready again to the next take-off, at the least, from memory
HEIGHT_M = (0.35, 0.75)  # how high a leap goes, from memory
AGAIN_S = (1.6, 2.4)  # how long the flash takes to be ready again, from memory
MOST_PRESSES = 60
DRAWN_S = 0.02  # from one point of a course to the next; a matter of drawing


@dataclass(frozen=True)
class Leap:
    """One leap: its take-off [s from the start of the sitting] and its height [m]."""

    start_s: float
    height_m: float

    @property
    def rise_s(self) -> float:
        """From the take-off to the peak [s]: sqrt(2 h / g). 0.5 m: 0.319 s."""
        return math.sqrt(2 * self.height_m / G)

    @property
    def peak_s(self) -> float:
        """The peak [s]."""
        return self.start_s + self.rise_s

    def height_at(self, seconds: float) -> float:
        """How high they are [m]: h - g (t - peak)² / 2, and never under the ground."""
        return max(0.0, self.height_m - G * (seconds - self.peak_s) ** 2 / 2)


@dataclass(frozen=True)
class Sitting:
    """All leaps of a sitting; from the press to the picture [s]; until the flash is ready again [s]."""

    seed: int
    leaps: tuple[Leap, ...]
    lag_s: float
    again_s: float

    @property
    def length_s(self) -> float:
        """Until the last one has landed [s]."""
        return self.leaps[-1].start_s + 2 * self.leaps[-1].rise_s + 0.5

    def nearest(self, seconds: float) -> int:
        """The leap whose peak is nearest."""
        return min(range(len(self.leaps)), key=lambda at: abs(self.leaps[at].peak_s - seconds))

    @cached_property
    def course(self) -> tuple[float, ...]:
        """How high they are [m] at every DRAWN_S."""
        count = math.ceil(self.length_s / DRAWN_S) + 1
        times = (at * DRAWN_S for at in range(count))
        return tuple(round(max(leap.height_at(time) for leap in self.leaps), 4) for time in times)


@dataclass(frozen=True)
class Caught:
    """What a press caught: which leap, when the frame was taken [s], by how much after its peak [s; early is
    negative], how high they were [m], and whether the flash was ready."""

    leap: int
    at_s: float
    off_s: float
    height_m: float
    flash: bool


def sitting_of(seed: int) -> Sitting:
    """A sitting by its seed."""
    rng, at, leaps = np.random.default_rng([seed, 5]), 0.0, list[Leap]()
    again = float(rng.uniform(*AGAIN_S))
    for _ in range(LEAPS):
        at += again + float(rng.uniform(*RUN_UP_S))
        leaps.append(Leap(round(at, 3), round(float(rng.uniform(*HEIGHT_M)), 3)))
        at += 2 * leaps[-1].rise_s
    return Sitting(seed, tuple(leaps), round(Truth(seed).lag_s, 4), round(again, 2))


def caught(sitting: Sitting, pressed_s: Sequence[float]) -> list[Caught]:
    """What each press caught, in their order. The flash goes off with every frame that finds it ready."""
    out, ready = list[Caught](), -math.inf
    for pressed in sorted(pressed_s):
        at = pressed + sitting.lag_s
        leap = sitting.nearest(at)
        flash = at >= ready
        if flash:
            ready = at + sitting.again_s
        one = sitting.leaps[leap]
        out.append(Caught(leap, at, at - one.peak_s, one.height_at(at), flash))
    return out
