"""The shelf at a glance: every unit on one basis, measure by measure; and which of two measures trade off best."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ...kit.compare import TRAVEL_S
from ...kit.modifier import Modifier, layers_on, usual_stops
from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...physics.falloff import close_up, inverse_square
from ...scene.seen import MethodKind
from ..job.board import Board
from ..light.reach import BLOCKED, Solved

Measure = Literal["light", "ws", "hss", "recycle", "recycle_dial", "flashes", "t01", "weight", "price"]
MORE_IS_BETTER = {"light", "ws", "hss", "flashes"}


@dataclass(frozen=True, eq=False)
class Glance:
    """Every unit on one basis; arrays of shape (units,), NaN where a figure is not known or a unit cannot be used so.

    measures: `light` is in stops over f/1 at ISO 100 where it is looked at, or, for a picture, in hand; `hss` is what
    HSS leaves of it. sd: doubt of the light.
    """

    measures: dict[Measure, Floats]
    sd: Floats

    def first(self, units: int) -> "Glance":
        """Of so many units alone."""
        return Glance({name: figures[:units] for name, figures in self.measures.items()}, self.sd[:units])


def bare(table: UnitTable, hss_s: float, modifier: Modifier | None = None, distance_m: float = 1.0) -> Glance:
    """Every unit at full power, through a modifier (its usual layers on) or bare at 35 mm coverage, at a distance [m];
    what HSS leaves is for a time [s] on a body that syncs at 1/250."""
    light, sd = table.rated + float(inverse_square(distance_m)), table.rated_sd
    if modifier is not None:
        size = usual_stops(modifier)
        if modifier.face is not None:
            size += float(close_up(modifier.face.width_m, modifier.face.rectangle_height_m, distance_m))
        light = np.where(table.takes(modifier), light + size, np.nan)
        sd = np.hypot(sd, math.hypot(modifier.sd, *(layer.sd for layer in layers_on(modifier, None))))
    left = np.where(table.has_hss, light - table.hss_loss_at(hss_s, TRAVEL_S), np.nan)
    return Glance({**_of_itself(table), "light": light, "hss": left}, sd)


def in_picture(solved: Solved, kind: MethodKind, light: int) -> Glance:
    """Every unit at one light of a setup: stops in hand, in HSS too, and recycle time, flashes and duration at its
    dial."""
    reach = solved.reach(kind, light)
    at_dial: dict[Measure, Floats] = {
        "light": reach.spare, "recycle_dial": reach.recycle_s, "flashes": reach.flashes, "t01": reach.t01_s,
    }  # fmt: skip
    found = {name: np.where(reach.able, figures, np.nan) for name, figures in at_dial.items()}
    hss = solved.reach("hss", light) if "hss" in solved.kinds else None
    left = np.full(len(reach.spare), np.nan) if hss is None else np.where(hss.able, hss.spare, np.nan)
    return Glance(_of_itself(solved.table) | {"hss": left} | found, reach.sd)


def worst_of_job(board: Board) -> Glance:
    """Every unit at the light of a job that asks most of it; of those that it can be used for."""
    usable = (board.verdict != BLOCKED) & np.isfinite(board.spare)
    least = np.min(np.where(usable, board.spare, np.inf), axis=0, initial=np.inf)
    spare = np.where(np.isfinite(least), least, np.nan)
    return Glance({**_of_itself(board.table), "light": spare}, np.zeros(len(spare)))


def _of_itself(table: UnitTable) -> dict[Measure, Floats]:
    """What no basis changes."""
    supply, units = table.fed_by(None), table.units
    return {
        "ws": np.array([np.nan if one.watt_seconds is None else one.watt_seconds for one in units], dtype=float),
        "recycle": supply.full_s,
        "flashes": supply.full_flashes,
        "t01": table.t01_s[:, 0],
        "weight": table.weight_g,
        "price": np.array([np.nan if one.price is None else one.price for one in units], dtype=float),
    }


def best_of(x: Floats, y: Floats, measures: Sequence[Measure]) -> list[int]:
    """Places of those that none beats in both measures at once, in order of the first; ties are all best."""
    signs = [1.0 if one in MORE_IS_BETTER else -1.0 for one in measures]
    a, b = signs[0] * x, signs[1] * y
    known = np.flatnonzero(~np.isnan(a) & ~np.isnan(b))
    order = known[np.lexsort((-b[known], -a[known]))]
    out: list[int] = []
    top = -math.inf
    for at in order.tolist():
        if b[at] > top or (out and a[at] == a[out[-1]] and b[at] == b[out[-1]]):
            out.append(at)
            top = max(top, float(b[at]))
    return sorted(out, key=lambda at: float(x[at]))
