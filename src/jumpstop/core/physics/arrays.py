"""What every relation takes and gives: one number, or an array of them; and what is outside of its domain."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Figure = float | Floats
Whole = NDArray[np.int64]
"""An array of whole numbers: places in another."""


def outside(where: bool | NDArray[np.bool_], wants: str) -> None:
    """Raises ValueError, which says what is wanted, where a relation is asked outside of its domain: by a fault of the
    program. What is unknown (NaN) lies outside of none, and what comes of it is unknown."""
    if where.any() if isinstance(where, np.ndarray) else where:
        raise ValueError(f"domain: {wants}")
