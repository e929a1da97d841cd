"""Shutter and pulse: what of a flash gets through, by one integral.

Row y of the frame (0..1, in the order in which the curtains pass) is open from y T to y T + t, T the curtains' travel
and t the shutter time. Its exposure is the integral of the flash over that time. The dark part past sync, the HSS
loss, unevenness across the frame and the clipped tail of a slow flash all come out of it (`Meeting.rows`); closed
forms are given where there are any. A leaf or global shutter is the case T = 0.

Times here are as marked on the camera: a curtain's travel is only known as a marked sync speed, and the ratio of two
marked times is as near to the truth as that of two exact ones (1/250 to 1/500 is 2 either way).
"""

import math
from dataclasses import dataclass

import numpy as np

from .stops import Jump, Pick
from .table import HSS_TV, Table
from .values import Figure, Floats

DROOP_STOPS = 0.4  # how far the light of a pulsed train falls over its length [stops], from memory
ROWS = 33
LIT = 0.02  # share of the brightest row's light from which a row counts as lit


@dataclass(frozen=True)
class Pop:
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
class Train:
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


Burn = Pop | Train


def cut_pop(t01_s: float, full_t01_s: float) -> Pop:
    """A pulse that is cut: it starts down the curve of full power and is stopped at about its t.1."""
    return Pop(full_t01_s / math.log(10), t01_s)


def tail_pop(t01_s: float) -> Pop:
    """A flash left to its tail, of this t.1 [s]."""
    return Pop(t01_s / math.log(10))


@dataclass(frozen=True)
class Meeting:
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
    """Stops lost when the light is spread over the whole travel: log2((T_c + t) / t); without the unit's own extra.

    Against a full-power pop through an open frame; 1/250 body: 1/500 1.58, 1/1000 2.32, 1/8000 5.04.
    """
    return np.log2((np.asarray(travel_s) + shutter_s) / shutter_s)


def lit_fraction(shutter_s: Figure, travel_s: Figure) -> Figure:
    """Share of the frame that a short pop reaches past sync: t / T_c, at most all of it."""
    return np.minimum(1.0, np.asarray(shutter_s) / travel_s)


def caught(t01_s: Figure, window_s: Figure) -> Figure:
    """Share of an uncut flash of this t.1 that a window [s] from its start on catches: 1 - 10^(-window / t.1)."""
    return -np.expm1(-math.log(10) * np.asarray(window_s) / t01_s)


def tail_jump(table: Table, shutter_s: float, window_s: float) -> Jump:
    """What of a flash at full power still burns when the shutter closes on the middle of the lit frame.

    window_s: how long that middle stays open once the flash is fired. Units whose duration is not known get a doubt
    of what a usual flash (1/600 s) would lose, a third of a stop at most.
    """
    t01 = table.t01_s[:, 0]
    window = max(window_s, 1e-6)
    loss = np.log2(caught(np.where(np.isnan(t01), 1 / 600, t01), window))
    known = ~np.isnan(t01)
    words = (
        "How long this unit burns is not known; at {time:shutter} a slow one would lose some of its tail.",
        "At full power this unit burns for {t01:shutter} (t.1); at {time:shutter} the middle of the frame sees "
        "{window:shutter} of it, and so {share:.0%} of its light.",
    )
    return Jump(
        "tail",
        "tail clipped",
        np.where(known, loss, 0.0),
        np.where(known, np.abs(loss) / 4, np.minimum(0.33, np.abs(loss))),
        "{which}",
        "D",
        "exponential tail: 1 − 10^(−window / t.1)",
        {
            "time": shutter_s,
            "window": window,
            "t01": np.where(known, t01, 1.0),
            "share": np.exp2(loss),
            "which": Pick(known.astype(int), words),
        },
    )


def hss_jump(table: Table, shutter_s: float, travel_s: float) -> Jump:
    """HSS: the unit's own table where it has one, else geometry and the unit's extra."""
    geometry = float(hss_loss(shutter_s, travel_s))
    place = float(np.clip((-math.log2(shutter_s) - HSS_TV[0]) * 3, 0, len(HSS_TV) - 1.001))
    low = int(place)
    listed = table.hss_table[:, low] * (1 - (place - low)) + table.hss_table[:, low + 1] * (place - low)
    loss = np.where(np.isnan(listed), geometry + table.hss_extra, listed)
    tabled = "By this unit's own HSS table, −{loss:.1f} at {time:shutter}."
    reckoned = (
        "At {time:shutter} the light is spread over the curtains' travel of {travel:shutter} and the opening: "
        "log2((travel + time) / time) = {geometry:.2f} stops, and {extra:.1f} more for the unit itself."
    )
    return Jump(
        "hss",
        "HSS {time:shutter}",
        -loss,
        table.hss_sd,
        "{which}",
        "M",
        "geometry of the slit; the unit's extra from memory until measured",
        {
            "time": shutter_s,
            "travel": travel_s,
            "geometry": geometry,
            "extra": table.hss_extra,
            "loss": loss,
            "which": Pick(np.isnan(listed).astype(int), (tabled, reckoned)),
        },
    )
