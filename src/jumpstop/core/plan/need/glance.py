"""The shelf at a glance: every unit on one basis, measure by measure; and which of two measures trade off best."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np

from ...kit.compare import TRAVEL_S
from ...kit.modifier import Modifier, layers_on
from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...physics.falloff import close_up, inverse_square
from ...scene.seen import MethodKind
from ..job.board import Board
from ..light.reach import BLOCKED, Solved

Measure = Literal["light", "ws", "hss", "recycle", "recycle_dial", "flashes", "t01", "weight", "price"]
MEASURES: tuple[Measure, ...] = get_args(Measure)
MORE_IS_BETTER = {"light", "ws", "hss", "flashes"}


@dataclass(frozen=True, eq=False)
class Glance:
    """Every unit on one basis; arrays of shape (units,), NaN where a figure is not known or a unit cannot be used so.

    light: stops over f/1 at ISO 100 where the light is looked at, or, for a picture, stops in hand. sd: its doubt.
    measures: the figures of each measure; `hss` is what HSS leaves of `light`. able: whether it can be used so.
    """

    light: Floats
    sd: Floats
    measures: dict[Measure, Floats]
    able: np.ndarray


def bare(table: UnitTable, hss_s: float, modifier: Modifier | None = None, distance_m: float = 1.0) -> Glance:
    """Every unit at full power, through a modifier (its usual layers on) or bare at 35 mm coverage, at a distance [m];
    what HSS leaves is for a time [s] on a body that syncs at 1/250."""
    size, sd = 0.0, 0.0
    able = np.ones(len(table), dtype=bool)
    if modifier is not None:
        layers = layers_on(modifier, None)
        size = modifier.stops + sum(layer.stops for layer in layers)
        sd = math.hypot(modifier.sd, *(layer.sd for layer in layers))
        if modifier.face is not None:
            face = modifier.face
            size += float(close_up(face.width_m, face.rectangle_height_m, distance_m))
        able &= table.takes_modifiers
        if modifier.fits:
            able &= np.isin(table.kind, modifier.fits)
        if modifier.needs_zoom_head:
            able &= table.can_zoom
    light = np.where(able, table.rated + size + float(inverse_square(distance_m)), np.nan)
    return _glance(table, light, np.hypot(table.rated_sd, sd), able, hss_s, None)


def in_picture(solved: Solved, kind: MethodKind, light: int) -> Glance:
    """Every unit at one light of a setup: stops in hand, in HSS too, and recycle time, flashes and duration at its
    dial."""
    reach = solved.reach(kind, light)
    spare = np.where(reach.able, reach.spare, np.nan)
    at_dial = {"recycle_dial": reach.recycle_s, "flashes": reach.flashes, "t01": reach.t01_s}
    found = _glance(solved.table, spare, reach.sd, reach.able, TRAVEL_S, at_dial)
    hss = solved.reach("hss", light) if "hss" in solved.kinds else None
    found.measures["hss"] = np.full(len(spare), np.nan) if hss is None else np.where(hss.able, hss.spare, np.nan)
    return found


def worst_of_job(board: Board, table: UnitTable) -> Glance:
    """Every unit at the light of a job that asks most of it; of those that it can be used for."""
    usable = (board.verdict != BLOCKED) & np.isfinite(board.spare)
    least = np.min(np.where(usable, board.spare, np.inf), axis=0, initial=np.inf)
    spare = np.where(np.isfinite(least), least, np.nan)
    found = _glance(table, spare, np.zeros(len(table)), ~np.isnan(spare), TRAVEL_S, None)
    del found.measures["hss"]
    return found


def _glance(
    table: UnitTable,
    light: Floats,
    sd: Floats,
    able: np.ndarray,
    hss_s: float,
    at_dial: dict[str, Floats] | None,
) -> Glance:
    supply = table.fed_by(None)
    loss = table.hss_loss_at(hss_s, TRAVEL_S)
    units = table.units
    measures: dict[Measure, Floats] = {
        "light": light,
        "ws": np.array([np.nan if one.watt_seconds is None else one.watt_seconds for one in units], dtype=float),
        "hss": np.where(table.has_hss & able, light - loss, np.nan),
        "recycle": supply.full_s,
        "recycle_dial": supply.full_s,
        "flashes": supply.full_flashes,
        "t01": table.t01_s[:, 0],
        "weight": table.weight_g,
        "price": np.array([np.nan if one.price is None else one.price for one in units], dtype=float),
    }
    if at_dial is not None:
        for name in MEASURES:
            if name in at_dial:
                measures[name] = np.where(able, at_dial[name], np.nan)
    return Glance(light, np.asarray(sd, dtype=float), measures, able)


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
