"""Which power settings of every unit are short enough to freeze what moves."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..kit.table import POWER_STOPS, UnitTable
from ..physics.arrays import Floats

NEAR_ENOUGH = 1.02  # a duration within 2 % of what is needed is short enough


@dataclass(frozen=True, eq=False)
class Frozen:
    """Power settings that are short enough: least and most stops below full, and whether there are any; (units,)."""

    least: Floats
    most: Floats
    known: np.ndarray
    can: np.ndarray


@lru_cache(maxsize=16)  # a table is known by itself: it never changes
def settings_for(table: UnitTable, needed_s: float) -> Frozen:
    """Which of every unit's power settings last no longer than this (t.1, within 2 %).

    Pulses that are cut get shorter as power drops, those with a slow tail longer: the stretch of settings that begins
    with the brightest one short enough is what counts.
    """
    known = ~np.isnan(table.t01_s[:, 0])
    on_dial = POWER_STOPS[None, :] <= table.dial_range[:, None] + 1e-6
    ok = (table.t01_s <= needed_s * NEAR_ENOUGH) & on_dial & known[:, None]
    can = ok.any(axis=1)
    first = ok.argmax(axis=1)
    ends = ~ok & (np.arange(len(POWER_STOPS))[None, :] > first[:, None])
    last = np.where(ends.any(axis=1), ends.argmax(axis=1) - 1, len(POWER_STOPS) - 1)
    least = np.ceil(POWER_STOPS[first] / table.step - 1e-6) * table.step
    most = np.floor(np.minimum(POWER_STOPS[last], table.dial_range) / table.step + 1e-6) * table.step
    return Frozen(least, np.maximum(most, least), known, np.asarray(can))
