"""Which power settings of every unit are short enough to freeze what moves."""

from dataclasses import dataclass

import numpy as np

from ...kit.memo import remembered
from ...kit.table import UnitTable
from ...physics.arrays import Floats

SHORT_ENOUGH = 1.02  # a duration within 2 % of what is needed is short enough


@dataclass(frozen=True, eq=False)
class Frozen:
    """Power settings that are short enough: least and most stops below full, and whether there are any; (units,)."""

    least: Floats
    most: Floats
    known: np.ndarray
    can: np.ndarray


@remembered(8)
def settings_for(table: UnitTable, needed_s: float) -> Frozen:
    """Which of every unit's power settings last no longer than this (t.1, within 2 %).

    Pulses that are cut get shorter as power drops, those with a slow tail longer: the stretch of settings that begins
    with the brightest one short enough is what counts.
    """
    known = ~np.isnan(table.t01_s[:, 0])
    count = 1 + int(np.max(np.floor(table.dial_range / table.step + 1e-6), initial=0.0))
    marks = np.arange(count) * table.step[:, None]  # (units, settings): its own steps below full
    durations = np.stack([table.t01_at(marks[:, at]) for at in range(count)], axis=1)
    ok = (durations <= needed_s * SHORT_ENOUGH) & (marks <= table.dial_range[:, None] + 1e-6) & known[:, None]
    can = ok.any(axis=1)
    first = ok.argmax(axis=1)
    ends = ~ok & (np.arange(count) > first[:, None])
    last = np.where(ends.any(axis=1), ends.argmax(axis=1) - 1, count - 1)
    rows = np.arange(len(table))
    return Frozen(marks[rows, first], marks[rows, last], known, np.asarray(can))
