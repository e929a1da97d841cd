"""Stops: ratios of light as powers of two, sums of lights, and the chance that a light suffices."""

import math

import numpy as np

from .arrays import Figure, Floats

CERTAIN_SD = 1e-9  # no doubt is smaller than this [stops], so that a chance can always be formed


def stops_of(ratio: Figure) -> Figure:
    """Stops of a ratio of light: log2."""
    return np.log2(ratio)


def add_light(*levels: Figure) -> Figure:
    """Level [stops] of several lights together: they add linearly, not in stops. -inf is no light."""
    total: Figure = 0.0
    for level in levels:
        total = total + np.exp2(level)
    with np.errstate(divide="ignore"):
        return np.log2(total)


def flash_share(ambient: Figure, target: Figure = 0.0) -> Figure:
    """Level [stops] the flash must give so that with the ambient the subject comes to `target`.

    2^flash + 2^ambient = 2^target. Where the ambient alone gives the target, -inf.
    """
    left = np.exp2(target) - np.exp2(ambient)
    return np.log2(np.maximum(left, 0.0), out=np.full(np.shape(left), -np.inf), where=np.asarray(left) > 0)


def p_reach(spare_stops: Floats, sd: Floats) -> Floats:
    """Probability that the light suffices: Phi(spare / sd), same shape as `spare_stops`."""
    z = np.asarray(spare_stops / np.maximum(sd, CERTAIN_SD))
    return np.array([0.5 * math.erfc(-value / math.sqrt(2)) for value in z.ravel().tolist()]).reshape(z.shape)
