"""Shutter and pulse: what of a flash gets through, by one integral.

Row y of the frame (0..1, in the order in which the curtains pass) is open from y T to y T + t, T the curtains' travel
and t the shutter time. Its exposure is the integral of the flash over that time. The dark part past sync, the HSS
loss, unevenness across the frame and the clipped tail of a slow flash all come out of it (`ShutterExposure.rows`);
closed forms are given where there are any. A leaf or global shutter is the case T = 0.

Times here are as marked on the camera: a curtain's travel is only known as a marked sync speed, and the ratio of two
marked times is as near to the truth as that of two exact ones (1/250 to 1/500 is 2 either way).
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from .arrays import Figure, Floats, outside
from .pulse import Burn

ROWS = 33  # rows of the frame that a shutter is followed over; a matter of computing
LIT = 0.02  # share of the brightest row's light from which a row counts as lit


@dataclass(frozen=True)
class ShutterExposure:
    """A flash and a shutter: the shutter time, the curtains' travel (0: leaf or global), and when the flash is fired.

    fired_s counts from the start of the first curtain [s]. A single pop is fired when that curtain has arrived
    (travel_s); a train starts with it (0).
    """

    burn: Burn
    shutter_s: float
    travel_s: float
    fired_s: float

    def rows(self, until_s: Figure = math.inf, count: int = ROWS) -> Floats:
        """Share of the flash that each row has got by a time [s]; shape (count,), or (times, count) for many times."""
        opens = np.linspace(0.0, 1.0, count) * self.travel_s
        closes = np.minimum(opens + self.shutter_s, np.expand_dims(np.asarray(until_s, dtype=float), -1))
        got = np.asarray(self.burn.given(closes - self.fired_s)) - np.asarray(self.burn.given(opens - self.fired_s))
        result: Floats = np.where(closes > opens, got, 0.0)
        return result

    @lru_cache(maxsize=512)  # noqa: B019 (known by its figures, not by itself)
    def evenness_stops(self, count: int = ROWS) -> float:
        """Brightest row against the darkest that is lit (gets a fiftieth of the brightest or more) [stops]."""
        got = self.rows(count=count)
        lit = got[got > got.max() * LIT]
        return float(np.log2(lit.max() / lit.min())) if len(lit) else 0.0

    def curtains(self, seconds: Floats) -> tuple[Floats, Floats]:
        """How far the first and the second curtain have come (0..1) at each time."""
        travel = max(self.travel_s, 1e-9)
        return np.clip(seconds / travel, 0.0, 1.0), np.clip((seconds - self.shutter_s) / travel, 0.0, 1.0)

    @property
    def length_s(self) -> float:
        """When both curtains have passed, or the flash is over where that comes first and long after [s]."""
        passed = self.travel_s + self.shutter_s
        return min(passed, self.fired_s + 3 * self.burn.length_s + self.travel_s)


def hss_loss(shutter_s: Figure, travel_s: Figure) -> Figure:
    """What is lost when the light is spread over the whole travel: log2((T_c + t) / t), against a full-power pop
    through an open frame; without the unit's own extra.

    Parameters
    ----------
    shutter_s : above nothing [s]
    travel_s : of the curtains, at least 0 [s]; shapes that broadcast

    Returns
    -------
    [stops, positive], of the broadcast shape.

    Raises
    ------
    ValueError : for no time at all

    Examples
    --------
    >>> hss_loss(1 / np.array([500, 1000, 8000]), 1 / 250).round(2).tolist()
    [1.58, 2.32, 5.04]
    """
    outside((np.asarray(shutter_s) <= 0) | (np.asarray(travel_s) < 0), "a time, and curtains")
    return np.log2((np.asarray(travel_s) + shutter_s) / shutter_s)


def lit_fraction(shutter_s: Figure, travel_s: Figure) -> Figure:
    """Share of the frame that a short pop reaches past sync: t / T_c, at most all of it.

    Parameters
    ----------
    shutter_s : at least 0 [s]
    travel_s : of the curtains, above nothing [s]; shapes that broadcast

    Returns
    -------
    0 to 1, of the broadcast shape.

    Raises
    ------
    ValueError : for curtains that do not travel

    Examples
    --------
    >>> float(lit_fraction(1 / 400, 1 / 250))
    0.625
    """
    outside((np.asarray(travel_s) <= 0) | (np.asarray(shutter_s) < 0), "curtains that travel, and a time")
    return np.minimum(1.0, np.asarray(shutter_s) / travel_s)


def caught(t01_s: Figure, window_s: Figure) -> Figure:
    """Share of an uncut flash that a window from its start on catches: 1 - 10^(-window / t.1).

    Parameters
    ----------
    t01_s : of the flash, above nothing [s]
    window_s : at least 0 [s]; shapes that broadcast

    Returns
    -------
    0 to 1, of the broadcast shape.

    Raises
    ------
    ValueError : for a flash of no length

    Examples
    --------
    >>> round(float(caught(1 / 300, 1 / 300)), 2)
    0.9
    """
    outside((np.asarray(t01_s) <= 0) | (np.asarray(window_s) < 0), "a flash, and a window")
    return -np.expm1(-math.log(10) * np.asarray(window_s) / t01_s)
