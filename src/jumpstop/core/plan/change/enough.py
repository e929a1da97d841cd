"""What makes up for just so much light that is missing, or takes just so much away that is too much."""

import math
from collections.abc import Callable, Iterator

import numpy as np

from ...kit.table import POWER_STOPS, UnitTable
from ...kit.unit import Unit
from ...kit.values import MOST_DISTANCE_M
from ...scene.aim import LONGEST_FLASH_S
from ...scene.light import MOST_HEADS, Light
from ...scene.setup import Setup
from ...scene.stage import Stage
from ..camera.freeze import settings_for
from ..camera.look import blur_mm, needed_s
from ..camera.methods import Method
from ..light.placing import metres_for
from .moves import NEAREST_M, Move, aperture_by, iso_and_shutter, iso_by, nd_by, of_light, of_setup

EXACT = 1e-6  # a distance is what it is rounded to within this share
STEPS_M = ((0.01, 1), (0.02, 2), (0.05, 5), (0.1, 10), (0.2, 20), (0.5, 50), (1, math.inf))  # in which it is told


def more_by(setup: Setup, at: int, method: Method, unit: Unit, missing: float) -> Iterator[Move]:
    """Moves that bring at least so many stops: so near, so many equal heads, whole stops of ISO."""
    light, whole = setup.lights[at], math.ceil(missing - 1e-9)
    heads = math.ceil(light.heads * 2**missing - 1e-9)
    if light.heads * 2 < heads <= MOST_HEADS and unit.takes_modifiers:
        yield of_light("heads", "heads", {"count": heads}, heads=heads)
    metres = nearer_m(light, setup.stage, missing)
    if NEAREST_M <= metres < light.distance_m:
        yield of_light("closer", "distance", {"metres": metres}, distance_m=metres)
    yield from iso_by(setup, method, whole)
    yield from iso_and_shutter(setup, method, whole)


def less_by(setup: Setup, at: int, method: Method, excess: float) -> Iterator[Move]:
    """Moves that take at least so many stops away: so far, so small an aperture, whole stops of ISO, a filter."""
    light, whole = setup.lights[at], math.ceil(excess - 1e-9)
    metres = farther_m(light, setup.stage, excess)
    if light.distance_m < metres <= MOST_DISTANCE_M:
        yield of_light("farther", "distance", {"metres": metres}, distance_m=metres)
    yield from aperture_by(setup, -excess, "up")
    yield from iso_by(setup, method, -whole)
    yield from iso_and_shutter(setup, method, -whole)
    yield from nd_by(setup, method, excess)


def nearer_m(light: Light, stage: Stage, missing: float) -> float:
    """Distance [m], as it is told, at which a light gives so many stops more; 0 where a large face never does."""
    exact = metres_for(light, stage, missing)
    return 0.0 if math.isnan(exact) else _told(exact * (1 + EXACT), math.floor)


def farther_m(light: Light, stage: Stage, excess: float) -> float:
    """The same of a light that is to give so many stops less."""
    return _told(metres_for(light, stage, -excess) * (1 - EXACT), math.ceil)


def _told(metres: float, rounded: Callable[[float], int]) -> float:
    """A distance in steps that make less than a tenth of a stop."""
    step = next(step for step, up_to in STEPS_M if metres < up_to)
    return round(rounded(metres / step) * step, 2)


def longer_by(setup: Setup, table: UnitTable, unit: int, missing: float) -> Iterator[Move]:
    """Where freezing holds a unit down: a flash that lasts longer, so long that what is missing is there, and that of
    full power; of one with no setting short enough, its shortest. Nothing where its durations are not known."""
    frozen = settings_for(table, needed_s(setup))
    if not frozen.known[unit]:
        return
    if not frozen.can[unit]:
        settings = POWER_STOPS[table.dial_range[unit] + 1e-6 >= POWER_STOPS]
        times = [float(np.min(table.t01_of(unit, settings)))]
    else:
        least = float(frozen.least[unit])
        wanted = [least - missing, 0.0] if 0 < missing <= least else [0.0] if least else []
        times = [float(table.t01_of(unit, below)) for below in wanted]
    for t01_s in sorted(set(times)):
        longest = float(f"{t01_s:.3g}")
        if longest > needed_s(setup) and longest <= LONGEST_FLASH_S:
            facts = {"t01_s": longest, "blur_mm": blur_mm(setup, longest)}
            yield of_setup("longer_flash", "motion", facts, _lasting(longest))


def _lasting(t01_s: float) -> Callable[[Setup], Setup]:
    def changed(setup: Setup) -> Setup:
        return setup.model_copy(update={"motion": setup.motion.model_copy(update={"wanted_t01_s": t01_s})})

    return changed
