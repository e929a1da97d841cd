"""How long it lasts: recycle time, flashes per charge, batteries for a number of frames."""

import numpy as np

from .arrays import Figure, Floats

LEAST_SHARE = 0.01  # share of a full flash's charge that any flash costs (trigger, display, idling), from memory
YIELD = 0.55  # share of a battery's energy that reaches the tube, from memory


def recycle_s(power: Floats, full_s: Figure, least_s: Figure) -> Floats:
    """Recycle time [s] after a flash at this share of full power: r0 + p (r_full - r0)."""
    return least_s + power * (np.asarray(full_s) - least_s)


def flashes_per_charge(power: Floats, full_flashes: Figure) -> Floats:
    """Flashes in one charge at this share of full power, with a floor for what every flash costs."""
    return full_flashes / np.maximum(power, LEAST_SHARE)


def charges_for(frames: float, flashes: Floats) -> Floats:
    """Charges for so many frames; mains (infinite flashes) needs none."""
    return np.where(np.isfinite(flashes), np.ceil(frames / flashes), 0.0)


def full_flashes_of(capacity_wh: float, watt_seconds: float) -> float:
    """Full-power flashes in one charge: Wh x 3600 x 0.55 / Ws. 9.6 Wh and 76 Ws: 250."""
    return capacity_wh * 3600 * YIELD / watt_seconds
