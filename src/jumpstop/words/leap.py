"""The timing drill in words."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import mean

from ..standins.leap import DRAWN_S, Caught, Sitting
from .figures import DisplayUnits, count, decimal, duration, length

AT_PEAK_S = 1 / 60  # within a frame of the page it is the peak
FEWEST = 4  # tries before one can speak of getting better


@dataclass(slots=True)
class LeapText:
    """A sitting: how high they are [m] at every `every_s`; when each takes off and is at its peak [s]."""

    every_s: float
    course: list[float]
    takes_off_s: list[float]
    peak_s: list[float]
    highest_m: float
    says: str


@dataclass(slots=True)
class TryText:
    """One press: which leap, by how many milliseconds after its peak, how high they were [m], and in words."""

    leap: int
    off_ms: float
    height_m: float
    flash: bool
    says: str


@dataclass(slots=True)
class CaughtText:
    """All presses, and what they come to."""

    tries: list[TryText]
    says: list[str]


def leap_text(sitting: Sitting, units: DisplayUnits) -> LeapText:
    """The document."""
    return LeapText(
        every_s=DRAWN_S,
        course=list(sitting.course),
        takes_off_s=[round(one.start_s, 4) for one in sitting.leaps],
        peak_s=[round(one.peak_s, 4) for one in sitting.leaps],
        highest_m=max(one.height_m for one in sitting.leaps),
        says=f"{count(len(sitting.leaps), 'leap')}. The camera takes its picture a little after you press; the flash "
        f"is ready again {duration(sitting.again_s)} after each frame. Press so that the picture is the peak.",
    )


def caught_text(sitting: Sitting, found: Sequence[Caught], units: DisplayUnits) -> CaughtText:
    """What was caught."""
    tries = [
        TryText(one.leap + 1, round(one.off_s * 1000, 1), round(one.height_m, 3), one.flash, _try(one, units))
        for one in found
    ]
    return CaughtText(tries, list(_all(sitting, found)))


def _try(one: Caught, units: DisplayUnits) -> str:
    flash = "" if one.flash else " No flash: it was not ready."
    return f"Leap {one.leap + 1}: {_off(one.off_s)}, {length(one.height_m, units, fine=True)} up.{flash}"


def _off(seconds: float) -> str:
    ms = decimal(abs(seconds) * 1000, ".0f")
    return "at the peak" if abs(seconds) <= AT_PEAK_S else f"{ms} ms {'late' if seconds > 0 else 'early'}"


def _all(sitting: Sitting, found: Sequence[Caught]) -> list[str]:
    lit = [one for one in found if one.flash]
    at_peak = sum(abs(one.off_s) <= AT_PEAK_S for one in lit)
    out = [f"{count(at_peak, 'frame')} at the peak with flash, of {count(len(found), 'press', 'presses')}."]
    dark = len(found) - len(lit)
    if dark:
        out.append(f"{count(dark, 'press', 'presses')} came before the flash was ready: wait for the peak, then once.")
    if len(found) >= FEWEST:
        half = len(found) // 2
        first, last = (mean(abs(one.off_s) for one in part) for part in (found[:half], found[-half:]))
        word = "nearer" if last < first else "no nearer"
        figures = f"{first * 1000:.0f} ms off in the first half, {last * 1000:.0f} ms in the second"
        out.append(f"{figures}: {word}.")
        lean = mean(one.off_s for one in found)
        if abs(lean) > AT_PEAK_S:
            way = "sooner" if lean > 0 else "later"
            out.append(f"On the average {_off(lean)}: press {way}. This camera’s lag is {sitting.lag_s * 1000:.0f} ms.")
    return out
