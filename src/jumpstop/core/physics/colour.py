"""Colour of light."""

import numpy as np

from .arrays import Figure

FLASH_K = 5500.0  # colour temperature of flash light [K], common practice


def mired_shift(from_k: Figure, to_k: Figure) -> Figure:
    """Mired shift 1e6/T2 - 1e6/T1, colour temperatures in kelvin. 5500 to 3200 K: +131."""
    return 1e6 / np.asarray(to_k) - 1e6 / np.asarray(from_k)
