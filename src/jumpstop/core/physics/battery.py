"""How long it lasts: recycle time, bursts, flashes per charge, cold, heat, batteries for a number of frames."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from .arrays import Figure, Floats

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


def recycle_s(power: Floats, full_s: Figure, least_s: Figure) -> Floats:
    """Recycle time [s] after a flash at this share of full power: r0 + p (r_full - r0)."""
    return least_s + power * (np.asarray(full_s) - least_s)


def flashes_per_charge(power: Floats, full_flashes: Figure, standby: Figure = 0.0) -> Floats:
    """Flashes in one charge at this share of full power, with a floor for what every flash costs.

    standby: what the unit takes by being switched on, from one flash to the next [full flashes].
    """
    drawn = drained(power) + standby
    return np.divide(full_flashes, drawn)


def standby_per_h(watts: Figure, capacity_wh: Figure, full_flashes: Figure) -> Floats:
    """What standing by takes in an hour [full flashes]: its share of the charge, W / Wh. 4 W of 97 Wh and 480 full
    flashes: 19.8."""
    return np.asarray(watts) / capacity_wh * full_flashes


def capacity_wh(full_flashes: float, watt_seconds: float) -> float:
    """The charge that so many full-power flashes ask for [Wh], the other way round of `full_flashes_of`."""
    return full_flashes * watt_seconds / (WS_PER_WH * YIELD)


def drained(power: Figure) -> Floats:
    """What a flash at this share of full power takes from the charge [full flashes], with a floor."""
    return np.maximum(power, LEAST_SHARE)


def charges_for(frames: float, flashes: Floats) -> Floats:
    """Charges for so many frames; mains (infinite flashes) needs none."""
    return np.where(np.isfinite(flashes), np.ceil(frames / flashes), 0.0)


def full_flashes_of(capacity_wh: float, watt_seconds: float) -> float:
    """Full-power flashes in one charge: Wh x 3600 x 0.55 / Ws. 9.6 Wh and 76 Ws: 250."""
    return capacity_wh * WS_PER_WH * YIELD / watt_seconds


def cold_share(cells: Cells, celsius: float) -> float:
    """What is left of a charge at this temperature, straight between the table's entries, held beyond its ends."""
    degrees, shares = zip(*COLD[cells], strict=True)
    return float(np.interp(celsius, degrees, shares))


def mains_a(watt_seconds: float, full_s: float, volts: float = MAINS_V) -> float:
    """What a head draws from the mains while it recycles after full power [A]: Ws / (s x share that is stored x V). 400
    Ws in 1.2 s at 230 V: 2.1."""
    return watt_seconds / (full_s * CHARGED_SHARE * volts)


def burst(power: float, full_s: float, least_s: float, frames_per_s: float, frames: int) -> list[bool]:
    """Which frames of a burst get flash: one for each frame.

    The capacitor begins full. A frame is lit where it holds what the flash takes; after a flash nothing charges for
    `least_s`, then it fills at 1 / (full_s - least_s), so that burst and recycle time agree.
    """
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
    """Flashed frames at the start of a burst, before the first that is dark."""
    return lit.index(False) if False in lit else len(lit)


def heat_wait_s(flashes: float, every_s: float, load: float, full_flashes: float, rest_s: float) -> float:
    """Rest that so many flashes add to the time they take [s], by a leaky bucket.

    load: what each puts in [full flashes]. full_flashes: what it holds; it runs empty in rest_s.
    """
    leak = full_flashes / rest_s
    over = flashes * load - full_flashes - flashes * every_s * leak
    return max(0.0, over / leak)
