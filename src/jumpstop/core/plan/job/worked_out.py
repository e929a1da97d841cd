"""Figures of a light that are worked out before it is solved: the distance at which a fixed dial is right."""

import math
from collections.abc import Iterable, Sequence

from ...kit.shelf import Shelf
from ...kit.table import UnitTable
from ...kit.unit import Unit
from ...kit.values import LEAST_DISTANCE_M, MOST_DISTANCE_M
from ...physics.scales import Step
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..light.advice import chosen_method
from ..light.one_unit import landing, only, with_light
from ..light.placing import metres_for
from ..light.reach import Solved, solve

ROUNDS = 12  # rounds in which it is found, at the most
RIGHT = 0.005  # stops


def with_copies(shelf: Shelf, setups: Iterable[Setup]) -> Shelf:
    """The shelf with the units that setups' lights have taken and that are no longer on it: their copies, of which the
    last of one unit stands."""
    own, gone = len(shelf) - shelf.copies, dict[str, Unit]()
    for setup in setups:
        for light in setup.lights:
            unit = light.unit
            if unit is None:
                continue
            place = shelf.place_of(unit.id, unit.name)
            if place is None or place >= own:
                gone[unit.id or unit.name] = unit
    return shelf.with_copies(gone) if gone else shelf


def solved_on(setup: Setup, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> Solved:
    """A setup solved for a shelf and its own copies, at its meter's constant, its free distances worked out.

    Its units stand where they stand on the shelf; copies that are not there, behind them. Raises CannotSolve.
    """
    table = with_copies(shelf, [setup]).at(setup.meter_c)
    return solve(with_distances(setup, table, step, avoid), table, step)


def with_distances(setup: Setup, table: UnitTable, step: Step, avoid: Sequence[MethodKind] = ()) -> Setup:
    """The setup with each distance that is free worked out from the light's fixed dial, to three digits.

    Inverse square and the light's face do the most of it; what else there is makes it a few rounds. Raises CannotSolve.
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
            there = metres_for(with_light(setup, at, distance_m=metres).lights[at], setup.stage, -found.left)
            metres = LEAST_DISTANCE_M if math.isnan(there) else min(MOST_DISTANCE_M, max(LEAST_DISTANCE_M, there))
        setup = with_light(setup, at, distance_m=float(f"{metres:.3g}"))
    return setup
