"""What every relation takes and gives: one number, or an array of them; and the domain in which it holds."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Figure = float | Floats
Whole = NDArray[np.int64]
"""An array of whole numbers: places in another."""


def domain(holds: bool | NDArray[np.bool_], says: str) -> None:
    """Raises ValueError, which names the domain, where a relation is asked outside of it: by a fault of the program."""
    if not np.all(holds):
        raise ValueError(f"domain: {says}")
