"""What every relation takes and gives: one number, or an array of them."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Figure = float | Floats
Whole = NDArray[np.int64]
"""An array of whole numbers: places in another."""
