"""A flash in time: one pulse, cut or left to its tail, or the train of pulses of high-speed sync."""

import math
from dataclasses import dataclass

import numpy as np

from .arrays import Figure, outside

DROOP_STOPS = 0.4  # how far the light of a pulsed train falls over its length [stops], from memory
T01_OF_T05 = {"tail": math.log(10) / math.log(2), "cut": 2.25}
"""t.1 of a t.5: 3.32 for an uncut exponential tail [definition]; 2 to 2.5 for a pulse that is cut, from memory."""


@dataclass(frozen=True)
class FlashPulse:
    """One flash: an exponential of time constant tau [s], cut off at cut [s] (infinite: left to its tail).

    t.5 = tau ln 2 and t.1 = tau ln 10 where it is not cut [definition].
    """

    tau_s: float
    cut_s: float = math.inf

    @property
    def length_s(self) -> float:
        """When it is as good as over [s]."""
        return min(self.cut_s, 7 * self.tau_s)

    def level(self, seconds: Figure) -> Figure:
        """Light at a time after the trigger, of a whole of 1 [1/s]."""
        time = np.asarray(seconds, dtype=float)
        burning = (time >= 0) & (time < self.cut_s)
        whole = self.tau_s * -math.expm1(-self.cut_s / self.tau_s)
        return np.where(burning, np.exp(-np.maximum(time, 0) / self.tau_s) / whole, 0.0)

    def given(self, seconds: Figure) -> Figure:
        """Share of its light given by this time after the trigger: the integral of `level`."""
        time = np.clip(seconds, 0.0, self.cut_s)
        return np.expm1(-time / self.tau_s) / math.expm1(-self.cut_s / self.tau_s)


@dataclass(frozen=True)
class HssPulseTrain:
    """High-speed sync: a train of small pulses, falling by `droop` stops over its length; a whole of 1.

    The pulses come far faster than the slit passes, so their mean is what a row sees.
    """

    length_s: float
    droop_stops: float = DROOP_STOPS

    def _rate(self) -> float:
        return max(self.droop_stops * math.log(2) / self.length_s, 1e-9)

    def level(self, seconds: Figure) -> Figure:
        """Light at a time after its start [1/s]."""
        time = np.asarray(seconds, dtype=float)
        rate = self._rate()
        whole = -math.expm1(-rate * self.length_s) / rate
        return np.where((time >= 0) & (time <= self.length_s), np.exp(-rate * np.maximum(time, 0)) / whole, 0.0)

    def given(self, seconds: Figure) -> Figure:
        """Share of its light given by this time."""
        rate = self._rate()
        return np.expm1(-rate * np.clip(seconds, 0.0, self.length_s)) / math.expm1(-rate * self.length_s)


Burn = FlashPulse | HssPulseTrain


def cut_pulse(t01_s: float, full_t01_s: float) -> FlashPulse:
    """A pulse that is cut: it starts down the curve of full power and is stopped at about its t.1.

    Parameters
    ----------
    t01_s, full_t01_s : its t.1, and that of full power, above nothing [s]

    Returns
    -------
    The one flash.

    Raises
    ------
    ValueError : for a flash of no length

    Examples
    --------
    >>> cut_pulse(1 / 4000, 1 / 400).length_s
    0.00025
    """
    outside(t01_s <= 0 or full_t01_s <= 0, "a flash")
    return FlashPulse(full_t01_s / math.log(10), t01_s)


def tail_pulse(t01_s: float) -> FlashPulse:
    """A flash left to its tail.

    Parameters
    ----------
    t01_s : its t.1, above nothing [s]

    Returns
    -------
    The one flash.

    Raises
    ------
    ValueError : for a flash of no length

    Examples
    --------
    >>> round(float(tail_pulse(1 / 400).given(1 / 400)), 3)
    0.9
    """
    outside(t01_s <= 0, "a flash")
    return FlashPulse(t01_s / math.log(10))
