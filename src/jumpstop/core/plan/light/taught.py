"""A chain with what readings have taught of the things that its jumps belong to."""

from dataclasses import replace

import numpy as np

from ...kit.learned import Learned
from ...kit.table import UnitTable
from ...physics.arrays import Figure
from .jump import Chain, Jump

SAME_SD = 1e-6  # doubts nearer than this are one; a matter of computing
MOVED = "moved"  # part of a unit: its light at a coverage that it is not quoted at


def taught(table: UnitTable, chain: Chain, settled: Chain | None = None) -> Chain:
    """A chain's jumps as readings have moved them, with smaller doubts, tied together by their covariance.

    settled: the same jumps without the doubts that a standing reading settles, where one does.
    """
    learned = table.learned
    if learned is None or not len(learned):
        return chain if settled is None else settled
    prior, mean, covariance = learned.ended
    out: list[Jump] = []
    before: list[tuple[np.ndarray, Figure]] = []
    for jump, left in zip(chain, chain if settled is None else settled, strict=True):
        at = _things(table, jump)
        if at is None or not np.any(at >= 0):
            out.append(left)
            continue
        share = np.asarray(left.sd) / prior[at]
        tied = np.asarray(2 * sum((share * other * covariance[at, place] for place, other in before), np.zeros(())))
        size = jump.stops + np.asarray(jump.sd) / prior[at] * mean[at]
        sd = np.where(at >= 0, share * np.sqrt(covariance[at, at]), left.sd)
        out.append(replace(left, stops=size, sd=sd, shared=tied, thing=at.astype(float)))
        before.append((at, share))
    return tuple(out)


def _things(table: UnitTable, jump: Jump) -> np.ndarray | None:
    """Places among the things learned that a jump belongs to, broadcasting over the axes; -1 where nothing is known."""
    learned = table.learned
    if learned is None or not jump.of:
        return None
    kind = jump.of[0].kind
    if kind == "unit":
        return _unit_things(table, jump, learned)
    rows = [learned.places.get((of.kind, of.id, of.part), -1) for of in jump.of]
    return np.array(rows).reshape(-1, 1, 1)


def _unit_things(table: UnitTable, jump: Jump, learned: Learned) -> np.ndarray | None:
    part = jump.of[0].part
    lanes = np.full(len(table), -1)
    parts = [name for name in learned.units if name.split(" ")[0] == part or (part, name) == ("rating", MOVED)]
    if not parts:
        return None
    found = np.broadcast_to(lanes, np.broadcast_shapes(np.shape(jump.sd), np.shape(jump.stops), lanes.shape)).copy()
    for name in parts:
        here = lanes.copy()
        for key, at in learned.units[name].items():
            place = table.place_of(key)
            if place is not None:
                here[place] = at
        if part == "rating":
            moved = np.asarray(jump.sd) > table.quoted_sd + SAME_SD
            found = np.where((here >= 0) & (moved == (name == MOVED)), here, found)
        elif part == "zoom":
            zoomed = np.asarray(jump.facts["zoom_mm"])
            found = np.where((here >= 0) & (np.round(zoomed) == float(name.split(" ")[1])), here, found)
        else:
            found = np.where(here >= 0, here, found)
    return found
