"""What makes up for just so much light that is missing, or takes just so much away that is too much."""

import math
from collections.abc import Iterator

from ...kit.unit import Unit
from ...scene.setup import Setup
from ..camera.methods import Method
from ..light.placing import metres_for
from .moves import NEAREST_M, Move, aperture_by, iso_and_shutter, iso_by, nd_by, of_light

FARTHEST_M, MOST_HEADS = 500.0, 16  # as the documents have it


def more_by(setup: Setup, at: int, method: Method, unit: Unit, missing: float) -> Iterator[Move]:
    """Moves that bring at least so many stops: so near, so many equal heads, whole stops of ISO."""
    light, whole = setup.lights[at], math.ceil(missing - 1e-9)
    heads = math.ceil(light.heads * 2**missing - 1e-9)
    if light.heads * 2 < heads <= MOST_HEADS and unit.takes_modifiers:
        yield of_light("heads", "heads", {"count": heads}, heads=heads)
    near = metres_for(light, setup.stage, missing)
    metres = 0.0 if math.isnan(near) else math.floor(near * 100) / 100  # a large face may never be that bright
    if NEAREST_M <= metres < light.distance_m:
        yield of_light("closer", "distance", {"metres": metres}, distance_m=metres)
    yield from iso_by(setup, method, whole)
    yield from iso_and_shutter(setup, method, whole)


def less_by(setup: Setup, at: int, method: Method, excess: float) -> Iterator[Move]:
    """Moves that take at least so many stops away: so far, so small an aperture, whole stops of ISO, a filter."""
    light, whole = setup.lights[at], math.ceil(excess - 1e-9)
    metres = math.ceil(metres_for(light, setup.stage, -excess) * 100) / 100
    if light.distance_m < metres <= FARTHEST_M:
        yield of_light("farther", "distance", {"metres": metres}, distance_m=metres)
    yield from aperture_by(setup, -excess, "up")
    yield from iso_by(setup, method, -whole)
    yield from iso_and_shutter(setup, method, -whole)
    yield from nd_by(setup, method, excess)
