"""A burst frame by frame, in words."""

import math
from dataclasses import dataclass

import numpy as np

from ..core.physics.battery import burst, unbroken
from ..core.plan.light.reach import Reach
from .figures import DisplayUnits, count, dial, plain, recycling

BELOW = (0.0, 1.0, 2.0, 3.0, 4.0)  # full stops below full that are told beside the dial


@dataclass(slots=True)
class BurstRow:
    """One power: which frames are lit, and how many are before the first dark one."""

    dial: str
    in_hand: bool
    lit: list[bool]
    says: str


@dataclass(slots=True)
class BurstText:
    """All powers."""

    unit: str
    says: str
    rows: list[BurstRow]


def burst_text(reach: Reach, unit: int, per_s: float, frames: int, words: DisplayUnits) -> BurstText:
    """The document."""
    one = reach.solved.table.units[unit]
    full, least = float(reach.supply.full_s[unit]), float(reach.supply.least_s[unit])
    if math.isnan(full):
        return BurstText(one.name, f"How fast {one.name} recycles is not stated: add it on the shelf.", [])
    mine = float(reach.below_full[unit])
    powers = sorted({mine, *(below for below in BELOW if below <= float(reach.solved.table.dial_range[unit]))})
    rows = []
    for below in powers:
        lit = burst(2.0**-below, full, least, per_s, frames)
        rows.append(BurstRow(dial(one.scale, below, words, one.watt_seconds), below == mine, lit, _says(lit)))
    own = next(row for row in rows if row.in_hand)
    ready = float(np.asarray(reach.recycle_s)[unit])
    says = f"{one.name} at {own.dial}: {recycling(ready)}; at {plain(per_s)} frames a second: {own.says}."
    return BurstText(one.name, says, rows)


def _says(lit: list[bool]) -> str:
    first = unbroken(lit)
    if first == len(lit):
        return f"all {first} frames lit"
    return f"{count(first, 'frame')} lit, then {sum(lit[first:])} of {len(lit) - first}: wait for the peak"
