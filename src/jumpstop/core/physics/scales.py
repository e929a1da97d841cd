"""The series of marked apertures, shutter times and ISOs, and the exact values behind the marks.

Marked (nominal) values are not the exact ones: f/5.6 is 2 ** 2.5 = 5.657, 1/60 is 1/64, 1/250 is 1/256
[ISO 517, ISO 516]. Exposure is computed with exact values; people read and type marked ones.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, overload

import numpy as np

from . import exposure
from .arrays import Figure, Floats, outside

Step = Literal["full", "half", "third"]
Toward = Literal["near", "up", "down"]
AS_GOOD_AS = 0.02  # stops: a value this near to an exact one behind a mark is that mark
SAME_MARK = 1.01  # a setting that is rounded: two figures this near are the same
STOP_OF: dict[Step, float] = {"full": 1.0, "half": 0.5, "third": 1 / 3}  # stops of a step of each scale; ISO 516, 517


def at_least(figure: Figure, least: Figure) -> bool | np.ndarray:
    """Whether a setting is as large as another, of which one may be rounded.

    Parameters
    ----------
    figure, least : two apertures, times or speeds, both exact or both marked, above nothing; shapes that broadcast

    Returns
    -------
    Yes or no, of the broadcast shape.

    Examples
    --------
    >>> at_least(0.0039, 1 / 256), at_least(1 / 320, 1 / 256)
    (True, False)
    """
    return figure * SAME_MARK >= least


@dataclass(frozen=True, eq=False)
class Series:
    """One scale of a camera: marked values and the exact ones behind them.

    marks maps a count of twelfths of a stop (so that thirds and halves are whole) to the marked value.
    exact = base * ratio ** stops.
    """

    base: float
    ratio: float
    marks: dict[int, float]
    steps: dict[Step, tuple[float, ...]]

    def _place(self, value: float) -> float:
        outside(value <= 0, "a setting")
        return math.log(value / self.base) / math.log(self.ratio)

    def exact(self, marked: Figure) -> Figure:
        """Exact value(s) behind marked one(s), of the same shape; one that is as good as none on the scale
        stays as it is (see AS_GOOD_AS). Raises ValueError for what is not above nothing."""
        if isinstance(marked, float | int):
            return self._exact(float(marked))
        return np.array([self._exact(float(value)) for value in np.ravel(marked)]).reshape(np.shape(marked))

    @lru_cache(maxsize=4096)  # noqa: B019 (the three scales live as long as the module)
    def _exact(self, marked: float) -> float:
        place = self._place(marked)
        same = [twelfths for twelfths, mark in self.marks.items() if abs(mark - marked) <= 2e-3 * mark]
        if same:  # a few marks stand both in thirds and in halves: the nearer is meant
            twelfths = min(same, key=lambda t: abs(t / 12 - place))
            return float(self.base * self.ratio ** (twelfths / 12))
        nearest = min(self.marks, key=lambda twelfths: abs(twelfths / 12 - place))
        if abs(nearest / 12 - place) <= AS_GOOD_AS:
            return float(self.base * self.ratio ** (nearest / 12))
        return marked

    @overload
    def moved(self, marked: float, stops: float) -> float: ...
    @overload
    def moved(self, marked: Figure, stops: Figure) -> Figure: ...
    def moved(self, marked: Figure, stops: Figure) -> Figure:
        """The exact value so many stops up the scale from a marked one; shapes that broadcast."""
        return self.exact(marked) * self.ratio**stops

    def near_mark(self, value: float) -> float | None:
        """The mark, in thirds or halves, that a value as good as is, whether exact or marked itself; None for one that
        lies between: 1/180 is a mark, f/0.95 is none."""
        place = self._place(float(self.exact(value)))
        nearest = min(self.marks, key=lambda twelfths: abs(twelfths / 12 - place))
        return self.marks[nearest] if abs(nearest / 12 - place) <= AS_GOOD_AS else None

    @overload
    def marked(self, exact: float, step: Step = "third", toward: Toward = "near") -> float: ...
    @overload
    def marked(self, exact: Floats, step: Step = "third", toward: Toward = "near") -> Floats: ...
    def marked(self, exact: Figure, step: Step = "third", toward: Toward = "near") -> Figure:
        """Marked value(s) nearest to exact one(s), of the same shape, or the next up or down the scale (up: larger
        value); beyond the scale its end. Raises ValueError for what is not above nothing."""
        if isinstance(exact, np.ndarray):
            return np.array([self.marked(one, step, toward) for one in exact.ravel().tolist()]).reshape(exact.shape)
        size = round(STOP_OF[step] * 12)
        place = self._place(exact) * 12 / size
        if toward == "near":
            best = round(place)
        elif (toward == "up") == (self.ratio > 1):
            best = math.ceil(place - 0.24 / size)
        else:
            best = math.floor(place + 0.24 / size)
        first, last = self._ends(size)
        return self.marks[min(max(best * size, first), last)]

    @lru_cache(maxsize=8)  # noqa: B019 (the three scales live as long as the module)
    def _ends(self, size: int) -> tuple[int, int]:
        """First and last mark [twelfths] of the steps of this size; between them there is one at every step."""
        allowed = [twelfths for twelfths in self.marks if twelfths % size == 0]
        return min(allowed), max(allowed)


def _series(
    base: float,
    ratio: float,
    thirds: tuple[float, ...],
    first_third: int,
    halves: tuple[float, ...],
    first_stop: int,
) -> Series:
    """A scale from its marked values in thirds, and those half way between full stops, from the first full stop on."""
    marks: dict[int, float] = {}
    for index, mark in enumerate(halves):
        marks[(first_stop + index) * 12 + 6] = mark
    for index, mark in enumerate(thirds):
        marks[(first_third + index) * 4] = mark
    marks = dict(sorted(marks.items()))
    steps: dict[Step, tuple[float, ...]] = {
        name: tuple(mark for t, mark in marks.items() if t % round(STOP_OF[name] * 12) == 0) for name in STOP_OF
    }
    return Series(base, ratio, marks, steps)


def _fractions(*denominators: float) -> tuple[float, ...]:
    return tuple(1 / denominator for denominator in denominators)


# Marked values as cameras engrave them: ISO 517 (apertures), ISO 516 (shutter times), ISO 12232 (speeds) for full
# stops; the intermediate marks are common practice.
# fmt: off
APERTURES = _series(
    1.0, math.sqrt(2),
    (0.9, 1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11, 13, 14, 16,
     18, 20, 22, 25, 29, 32, 36, 40, 45, 51, 57, 64), -1,
    (1.2, 1.7, 2.4, 3.3, 4.8, 6.7, 9.5, 13, 19, 27, 38, 54), 0,
)
SHUTTERS = _series(
    1.0, 0.5,
    (30, 25, 20, 15, 13, 10, 8, 6, 5, 4, 3.2, 2.5, 2, 1.6, 1.3, 1, 0.8, 0.6, 0.5, 0.4, 0.3)
    + _fractions(4, 5, 6, 8, 10, 13, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800,
                 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000, 10000, 12800, 16000, 20000, 25600, 32000),
    -15,
    (20, 10, 6, 3, 1.5, 0.7, 1 / 3)
    + _fractions(6, 10, 20, 45, 90, 180, 350, 750, 1500, 3000, 6000, 12000, 24000), -5,
)
ISOS = _series(
    100.0, 2.0,
    (25, 32, 40, 50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200,
     4000, 5000, 6400, 8000, 10000, 12800, 16000, 20000, 25600, 32000, 40000, 51200, 64000, 80000, 102400), -6,
    (35, 70, 140, 280, 560, 1100, 2200, 4500, 9000, 18000), -2,
)
# fmt: on


def marked_ev100(f_number: Figure, shutter_s: Figure, iso: Figure) -> Figure:
    """Light value of settings given as marked values.

    Parameters
    ----------
    f_number, shutter_s, iso : as they are marked, above nothing; time in seconds; shapes that broadcast

    Returns
    -------
    [EV at ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for what is no setting

    Examples
    --------
    >>> round(float(marked_ev100(5.6, 1 / 60, 100)), 6)
    11.0
    """
    return exposure.ev100(APERTURES.exact(f_number), SHUTTERS.exact(shutter_s), ISOS.exact(iso))
