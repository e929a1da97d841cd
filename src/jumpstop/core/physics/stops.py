"""Stops: ratios of light as powers of two, sums of lights, and the chance that a light suffices."""

import math

import numpy as np

from .arrays import Figure, Floats, outside

CERTAIN_SD = 1e-9  # no doubt is smaller than this [stops], so that a chance can always be formed


def stops_of(ratio: Figure) -> Figure:
    """Stops of a ratio of light: log2. No light is -inf.

    Parameters
    ----------
    ratio : at least 0, any shape

    Returns
    -------
    [stops], of the same shape.

    Raises
    ------
    ValueError : for less than no light

    Examples
    --------
    >>> stops_of(np.array([0.5, 1, 8])).tolist()
    [-1.0, 0.0, 3.0]
    """
    outside(np.asarray(ratio) < 0, "a ratio of light")
    with np.errstate(divide="ignore"):
        return np.log2(ratio)


def add_light(*levels: Figure) -> Figure:
    """Several lights together: they add linearly, not in stops. -inf is no light.

    Parameters
    ----------
    *levels : of each [stops]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape.

    Examples
    --------
    >>> float(add_light(0, 0))
    1.0
    """
    total: Figure = 0.0
    for level in levels:
        total = total + np.exp2(level)
    with np.errstate(divide="ignore"):
        return np.log2(total)


def flash_share(ambient: Figure, target: Figure = 0.0) -> Figure:
    """What the flash must give so that with the ambient the subject comes to the target: 2^flash + 2^ambient =
    2^target.

    Parameters
    ----------
    ambient, target : [stops]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape; -inf where the ambient alone gives the target.

    Examples
    --------
    >>> float(flash_share(-1.0))
    -1.0
    """
    left = np.exp2(target) - np.exp2(ambient)
    return np.log2(np.maximum(left, 0.0), out=np.full(np.shape(left), -np.inf), where=np.asarray(left) > 0)


def p_reach(spare_stops: Floats, sd: Floats) -> Floats:
    """Probability that the light suffices: Phi(spare / sd).

    Parameters
    ----------
    spare_stops : in hand [stops]
    sd : of it, at least 0 [stops]; shapes that broadcast

    Returns
    -------
    0 to 1, of the broadcast shape.

    Raises
    ------
    ValueError : for less than no doubt

    Examples
    --------
    >>> float(p_reach(np.array(0.0), np.array(0.5)))
    0.5
    """
    outside(np.asarray(sd) < 0, "a doubt")
    z = np.asarray(spare_stops / np.maximum(sd, CERTAIN_SD))
    return np.array([0.5 * math.erfc(-value / math.sqrt(2)) for value in z.ravel().tolist()]).reshape(z.shape)
