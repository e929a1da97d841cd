"""How long it lasts: recycle time, bursts, flashes per charge, cold, heat, batteries for a number of frames."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from .arrays import Figure, Floats, outside

LEAST_SHARE = 0.01  # share of a full flash's charge that any flash costs (trigger, display), from memory
YIELD = 0.55  # share of a battery's energy that reaches the tube, from memory
WS_PER_WH = 3600.0  # watt-seconds in a watt-hour [definition]
CHARGED_SHARE = 0.7  # of what a head draws from the mains, that its capacitor holds; from memory
MAINS_V = 230.0  # in most of the world [V]; IEC 60038
CIRCUIT_A = 10.0  # a circuit that is counted on where nobody knows it [A]; common practice
CHARGED = 1e-9  # a capacitor this near to what a flash takes has it

Cells = Literal["lithium", "nimh", "alkaline"]
COLD: dict[Cells, tuple[tuple[float, float], ...]] = {
    "lithium": ((-20, 0.6), (-10, 0.7), (0, 0.8), (20, 1.0)),
    "nimh": ((-20, 0.55), (-10, 0.7), (0, 0.85), (20, 1.0)),
    "alkaline": ((-20, 0.1), (-10, 0.3), (0, 0.6), (20, 1.0)),
}
"""What cells give of their charge when it is cold: degrees Celsius against a share. From memory."""


def recycle_s(power: Figure, full_s: Figure, least_s: Figure) -> Floats:
    """Recycle time after a flash: r0 + p (r_full - r0), common practice, no source.

    Parameters
    ----------
    power : share of full power
    full_s, least_s : after full power, and after the least [s]; shapes that broadcast

    Returns
    -------
    [s], of the broadcast shape.

    Examples
    --------
    >>> float(recycle_s(0.5, 2.0, 0.1))
    1.05
    """
    return np.asarray(least_s + power * (np.asarray(full_s) - least_s))


def drained(power: Figure) -> Floats:
    """What a flash takes from the charge, with a floor for what every flash costs.

    Parameters
    ----------
    power : share of full power, any shape

    Returns
    -------
    [full flashes], of the same shape.

    Examples
    --------
    >>> [float(drained(power)) for power in (0.5, 0.001)]
    [0.5, 0.01]
    """
    return np.maximum(power, LEAST_SHARE)


def flashes_per_charge(power: Figure, full_flashes: Figure, standby: Figure = 0.0) -> Floats:
    """Flashes in one charge.

    Parameters
    ----------
    power : share of full power
    full_flashes : in a charge
    standby : what the unit takes by being switched on, from one flash to the next [full flashes]; shapes that broadcast

    Returns
    -------
    Flashes, of the broadcast shape.

    Examples
    --------
    >>> float(flashes_per_charge(0.25, 250.0))
    1000.0
    """
    return np.divide(full_flashes, drained(power) + standby)


def standby_per_h(watts: Figure, capacity_wh: Figure, full_flashes: Figure) -> Floats:
    """What standing by takes in an hour: its share of the charge, W / Wh.

    Parameters
    ----------
    watts, capacity_wh : that a unit draws [W], of what a charge holds, above nothing [Wh]
    full_flashes : in a charge; shapes that broadcast

    Returns
    -------
    [full flashes], of the broadcast shape.

    Raises
    ------
    ValueError : for a charge that holds nothing

    Examples
    --------
    >>> round(float(standby_per_h(4.0, 97.0, 480.0)), 1)
    19.8
    """
    outside(np.asarray(capacity_wh) <= 0, "a charge that holds something")
    return np.asarray(watts) / capacity_wh * full_flashes


def capacity_wh(full_flashes: Figure, watt_seconds: Figure) -> Figure:
    """The charge that so many full-power flashes ask for: `full_flashes_of` backwards.

    Parameters
    ----------
    full_flashes, watt_seconds : of them, of so much energy each [Ws]; shapes that broadcast

    Returns
    -------
    [Wh], of the broadcast shape.

    Examples
    --------
    >>> round(capacity_wh(250, 76), 1)
    9.6
    """
    return full_flashes * watt_seconds / (WS_PER_WH * YIELD)


def full_flashes_of(capacity_wh: Figure, watt_seconds: Figure) -> Figure:
    """Full-power flashes in one charge: Wh x 3600 x 0.55 / Ws; the share is from memory.

    Parameters
    ----------
    capacity_wh, watt_seconds : of the charge [Wh], and of a flash, above nothing [Ws]; shapes that broadcast

    Returns
    -------
    Flashes, of the broadcast shape.

    Raises
    ------
    ValueError : for flashes that take nothing

    Examples
    --------
    >>> round(full_flashes_of(9.6, 76))
    250
    """
    outside(np.asarray(watt_seconds) <= 0, "a flash that takes something")
    return capacity_wh * WS_PER_WH * YIELD / watt_seconds


def charges_for(frames: Figure, flashes: Figure) -> Floats:
    """Charges for so many frames; the mains, with flashes without end, needs none.

    Parameters
    ----------
    frames, flashes : wanted, and in a charge, above nothing; shapes that broadcast

    Returns
    -------
    Charges, whole, of the broadcast shape.

    Examples
    --------
    >>> [float(charges_for(600, each)) for each in (480.0, np.inf)]
    [2.0, 0.0]
    """
    return np.where(np.isfinite(flashes), np.ceil(np.asarray(frames) / flashes), 0.0)


def cold_share(cells: Cells, celsius: Figure) -> Floats:
    """What is left of a charge in the cold, straight between the entries of COLD, held beyond its ends.

    Parameters
    ----------
    cells : what the battery is made of
    celsius : [degrees Celsius], any shape

    Returns
    -------
    Share from 0 to 1, of the same shape.

    Examples
    --------
    >>> float(cold_share("lithium", -5.0))
    0.75
    """
    degrees, shares = zip(*COLD[cells], strict=True)
    return np.asarray(np.interp(celsius, degrees, shares))


def mains_a(watt_seconds: Figure, full_s: Figure, volts: Figure = MAINS_V) -> Figure:
    """What a head draws from the mains while it recycles after full power: Ws / (s x share that is stored x V).

    Parameters
    ----------
    watt_seconds, full_s : that it stores [Ws], in so long, above nothing [s]
    volts : of the mains, above nothing [V]; shapes that broadcast

    Returns
    -------
    [A], of the broadcast shape.

    Raises
    ------
    ValueError : for a head that is ready at once, or mains without a voltage

    Examples
    --------
    >>> round(float(mains_a(400, 1.2)), 1)
    2.1
    """
    outside((np.asarray(full_s) <= 0) | (np.asarray(volts) <= 0), "a recycle time and a voltage")
    return watt_seconds / (full_s * CHARGED_SHARE * np.asarray(volts))


def heat_wait_s(flashes: Figure, every_s: Figure, load: Figure, full_flashes: Figure, rest_s: Figure) -> Figure:
    """Rest that so many flashes add to the time that they take, by a leaky bucket; common practice, no source.

    Parameters
    ----------
    flashes, every_s : of them, one every so long [s]
    load : what each puts in [full flashes]
    full_flashes, rest_s : what the bucket holds, and in how long it runs empty, above nothing [s]; shapes that
        broadcast

    Returns
    -------
    [s], of the broadcast shape; 0 where it never is full.

    Raises
    ------
    ValueError : for a head that is cool at once

    Examples
    --------
    >>> round(float(heat_wait_s(80, 1.0, 1.0, 50, 600.0)))  # 30 too many, at one in 12 s, less the 80 s that they take
    280
    """
    outside(np.asarray(rest_s) <= 0, "a rest that takes a while")
    leak = full_flashes / np.asarray(rest_s)
    over = flashes * np.asarray(load) - full_flashes - flashes * np.asarray(every_s) * leak
    return np.maximum(0.0, over / leak)


def burst(power: float, full_s: float, least_s: float, frames_per_s: float, frames: int) -> list[bool]:
    """Which frames of a burst get flash.

    The capacitor begins full. A frame is lit where it holds what the flash takes; after a flash nothing charges for
    `least_s`, then it fills at 1 / (full_s - least_s), so that burst and recycle time agree.

    Parameters
    ----------
    power : share of full power, one number
    full_s, least_s : recycle time after full power, and after the least [s], one number each
    frames_per_s, frames : how many in a second, above nothing, and in all

    Returns
    -------
    For each frame whether it is lit.

    Raises
    ------
    ValueError : for frames that never come

    Examples
    --------
    >>> burst(0.25, 2.0, 0.0, 8.0, 6)  # four are in it, and one more has come by then
    [True, True, True, True, True, False]
    """
    outside(frames_per_s <= 0, "frames that come one after another")
    capacitor, lit = Capacitor(full_s, least_s), []
    for _ in range(frames):
        lit.append(capacitor.holds(power))
        capacitor = (capacitor.fired(power) if lit[-1] else capacitor).waited(1 / frames_per_s)
    return lit


@dataclass(frozen=True)
class Capacitor:
    """What a unit can flash with at this moment: its charge (share of full), and for how long nothing charges yet [s].

    full_s, least_s: recycle time after full and after the least power [s].
    """

    full_s: float
    least_s: float
    charge: float = 1.0
    idle_s: float = 0.0

    def holds(self, power: float) -> bool:
        """Whether it has what a flash at this share of full power takes."""
        return self.charge >= power - CHARGED

    def fired(self, power: float) -> "Capacitor":
        """After a flash: nothing charges for `least_s`."""
        return replace(self, charge=max(0.0, self.charge - power), idle_s=self.least_s)

    def waited(self, seconds: float) -> "Capacitor":
        """After a while: it fills at 1 / (full_s - least_s), at most to 1."""
        wait = min(self.idle_s, seconds)
        more = (seconds - wait) / max(self.full_s - self.least_s, CHARGED)
        return replace(self, charge=min(1.0, self.charge + more), idle_s=self.idle_s - wait)


def unbroken(lit: list[bool]) -> int:
    """Flashed frames at the start of a burst, before the first that is dark.

    Parameters
    ----------
    lit : for each frame whether it is lit

    Returns
    -------
    How many.

    Examples
    --------
    >>> unbroken([True, True, False, True])
    2
    """
    return lit.index(False) if False in lit else len(lit)
