"""Colour of light."""

import numpy as np

from .arrays import Figure, outside

FLASH_K = 5500.0  # colour temperature of flash light [K], common practice


def mired_shift(from_k: Figure, to_k: Figure) -> Figure:
    """Mired shift: 1e6 / T2 - 1e6 / T1.

    Parameters
    ----------
    from_k, to_k : colour temperatures, above nothing [K]; shapes that broadcast

    Returns
    -------
    [mired], of the broadcast shape.

    Raises
    ------
    ValueError : for no temperature at all

    Examples
    --------
    >>> round(float(mired_shift(5500, 3200)))
    131
    """
    outside((np.asarray(from_k) <= 0) | (np.asarray(to_k) <= 0), "a temperature above nothing")
    return 1e6 / np.asarray(to_k) - 1e6 / np.asarray(from_k)
