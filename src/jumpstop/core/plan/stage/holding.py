"""What holds a light where it is: its load and arm, the counterweight of a boom, the weight that wind asks for."""

import math
from typing import NamedTuple

from ...physics import stand
from ...scene.light import Light
from ...scene.setup import Setup
from ..light.reach import Solved

STAND_FOOT_M, STAND_KG = 0.5, 4.0  # of a usual stand, from memory
GUSTY_M_S = 5.5  # wind from which a modifier wants weight: a moderate breeze, Beaufort 4 (WMO)
COUNTER_M = 0.5  # the short arm of a boom where it is not said, from memory


class Holding(NamedTuple):
    """Of one head at one light. height_m: where it stands; load_kg: head and what is in front of it, NaN where it is
    not weighed; arm_m: of its boom, 0 without one; counter_kg at counter_m: what balances it; force_n: of the wind;
    ballast_kg: what keeps the stand upright in it."""

    height_m: float
    load_kg: float
    arm_m: float
    counter_kg: float
    counter_m: float
    force_n: float
    ballast_kg: float


def holding(solved: Solved, light: int, unit: int | None) -> Holding:
    """What holds a head of a light."""
    setup, spot = solved.setup, solved.setup.lights[light]
    mod, place = spot.modifier, spot.position
    height = place.height_m if place else setup.stage.face_m
    load = math.nan
    if unit is not None:
        own = solved.table.units[unit]
        head = own.head_g if own.head_g is not None else float(solved.table.weight_g[unit])
        load = (float(head) + (mod.weight_g or 0.0 if mod else 0.0)) / 1000
    arm = place.boom_m if place else 0.0
    short = COUNTER_M if place is None or place.counter_m is None else place.counter_m
    counter = float(stand.counterweight_kg(load, arm, short)) if arm and not math.isnan(load) else math.nan
    force, ballast = _wind(setup, spot, height)
    return Holding(height, load, arm, counter, short, force, ballast)


def _wind(setup: Setup, spot: Light, height_m: float) -> tuple[float, float]:
    """(force [N], weight on the stand [kg]) of the wind on what is in front of a light."""
    wind, mod = setup.stage.wind_m_s, spot.modifier
    if wind is None or wind < GUSTY_M_S or mod is None or mod.face is None:
        return 0.0, 0.0
    face = mod.face
    area = face.area_m2
    hollow = mod.kind in ("umbrella", "shoot_through")
    force = float(stand.wind_force_n(wind, area, stand.CD_HOLLOW if hollow else stand.CD_FLAT))
    return force, float(stand.ballast_kg(force, height_m, STAND_FOOT_M, STAND_KG))
