"""Figures of a light that are worked out before it is solved: the distance at which a fixed dial is right."""

from collections.abc import Sequence
from functools import lru_cache

from ..kit.table import UnitTable, table_of
from ..kit.unit import Unit
from ..physics.scales import Step
from ..scene.seen import MethodKind
from ..scene.setup import Setup
from .advice import chosen_method
from .one_unit import landing, only, with_light
from .reach import solve

NEAREST_M, FARTHEST_M = 0.05, 500.0
ROUNDS = 12
RIGHT = 0.005  # stops


@lru_cache(maxsize=8)
def _wider(table: UnitTable, units: tuple[tuple[str, Unit], ...], meter_c: float) -> UnitTable:
    ids, more = zip(*units, strict=True)
    return table_of([*table.units, *more], meter_c, [*table.ids, *ids], table.learned)


def with_units(table: UnitTable, setup: Setup) -> UnitTable:
    """The shelf with the units that the setup's lights have taken and that are no longer on it: their copies."""
    gone: dict[str, Unit] = {}
    for light in setup.lights:
        unit = light.unit
        if unit is not None and table.place_of(unit.id, unit.name) is None:
            gone[unit.id or unit.name] = unit
    return _wider(table, tuple(gone.items()), setup.meter_c) if gone else table


def with_distances(setup: Setup, table: UnitTable, step: Step, avoid: Sequence[MethodKind] = ()) -> Setup:
    """The setup with each distance that is free worked out from the light's fixed dial, to three digits.

    Inverse square does the most of it; large faces close up make it a few rounds. Raises CannotSolve.
    """
    if not any(light.distance_free and light.dial_stops is not None for light in setup.lights):
        return setup
    for at, light in enumerate(setup.lights):
        if not light.distance_free or light.dial_stops is None or light.unit is None:
            continue
        solved = solve(setup, table, step)
        unit = solved.taken[at]
        if unit is None or not solved.kinds:
            continue
        kind = chosen_method(solved, avoid, at)
        alone, metres = only(solved, unit), light.distance_m
        for _ in range(ROUNDS):
            found = landing(with_light(setup, at, distance_m=metres), alone, kind, at, step)
            if found is None or abs(found.left) < RIGHT:
                break
            metres = min(FARTHEST_M, max(NEAREST_M, metres * 2 ** (found.left / 2)))
        setup = with_light(setup, at, distance_m=float(f"{metres:.3g}"))
    return setup
