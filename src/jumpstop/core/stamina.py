"""How long it lasts: ready again, flashes a charge, packs for a number of frames."""

import numpy as np

from .flash import PowerSource
from .values import Figure, Floats

LEAST_COST = 0.01  # share of a full flash's charge that any flash costs (trigger, display, idling), from memory
YIELD = 0.55  # share of a battery's energy that reaches the tube, from memory


def recycle_s(power: Floats, full_s: Figure, least_s: Figure) -> Floats:
    """Seconds until ready again after a flash at this share of full power: r0 + p (r_full - r0)."""
    return least_s + power * (np.asarray(full_s) - least_s)


def flashes_per_charge(power: Floats, full_flashes: Figure) -> Floats:
    """Flashes in one charge at this share of full power, with a floor for what every flash costs."""
    return full_flashes / np.maximum(power, LEAST_COST)


def packs_for(frames: float, flashes: Floats) -> Floats:
    """Charges (packs, or sets of cells) for so many frames; mains (infinite flashes) needs none beyond the one."""
    return np.where(np.isfinite(flashes), np.ceil(frames / flashes), 0.0)


def full_flashes_of(source: PowerSource, watt_seconds: float | None) -> float:
    """Full-power flashes in one charge: as stated, or Wh x 3600 x 0.55 / Ws; mains never ends; unknown is NaN."""
    if source.kind == "mains":
        return float("inf")
    if source.full_flashes is not None:
        return source.full_flashes
    if source.capacity_wh is not None and watt_seconds:
        return source.capacity_wh * 3600 * YIELD / watt_seconds
    return float("nan")
