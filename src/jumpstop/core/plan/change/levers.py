"""Find a stop: every single change, and every pair, with what each brings the unit in hand and what it costs.

One solve for each state of the camera and the ambient holds all variants of the light side by side on the lights'
axis, for all units at once; so a pair is looked up, not solved anew, and is exactly what the changed setup comes to.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import NamedTuple

import numpy as np

from ...kit.errors import CannotSolve
from ...kit.modifier import source_of
from ...kit.table import UnitTable
from ...physics import battery
from ...physics.scales import APERTURES, ISOS, Step
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.ambient import Ambient, ambient_of
from ..camera.fixed import method_of
from ..camera.look import NOTHING_SEEN_STOPS
from ..camera.methods import Method
from ..light.chain import chain_of
from ..light.reach import BLOCKERS, Landed, landed, scene_of
from ..light.scene import Scene, Variants
from .enough import less_by, longer_by, more_by
from .moves import Bag, Move, moves_of, together
from .ranking import ENOUGH, HIRED_WORK, LOOK_OF_METHOD, SAME, WORK, ChangeCosts, Lever, Levers, named

FEW = 3  # other units tried beside another change
ELSEWHERE = ("ambient", "motion")  # what a move of these touches is another scene, solved by itself


Tried = tuple[Move, ...]


class MovedLight(NamedTuple):
    """The light as some moves leave it."""

    moves: Tried
    light: Light


class MovedSetup(NamedTuple):
    """The rest of the setup as some moves leave it, in one method."""

    moves: Tried
    setup: Setup
    method: Method


@dataclass(frozen=True, eq=False)
class _Grid:
    """States of the camera against variants of the light, in one ambient; arrays of shape (states, variants, units)."""

    states: Sequence[MovedSetup]
    variants: Sequence[MovedLight]
    scene: Scene
    landed: Landed


def _grid(
    setup: Setup,
    at: int,
    states: Sequence[MovedSetup],
    variants: Sequence[MovedLight],
    table: UnitTable,
    ambient: Ambient,
) -> _Grid:
    lights = tuple(variant.light for variant in variants)
    among = setup.model_copy(update={"lights": lights})
    scene = scene_of(among, table, ambient, [state.method for state in states], Variants(setup, at))
    return _Grid(states, variants, scene, landed(scene, chain_of(scene)))


def levers(
    setup: Setup,
    at: int,
    kind: MethodKind,
    table: UnitTable,
    unit: int,
    bag: Bag,
    step: Step = "third",
    pairs: bool = True,
) -> Levers:
    """Every change for one light of a setup and one unit of a shelf, in a method that can be had.

    A light whose distance is worked out from its dial has none: any change moves the light instead. Raises CannotSolve.
    """
    base, ambient = setup.lights[at], ambient_of(setup.ambient, setup.meter_c)
    start = MovedSetup((), setup, method_of(setup, ambient, step, kind))
    if not start.method.possible:
        raise CannotSolve("method_blocked", method=kind)
    here = _grid(setup, at, [start], [MovedLight((), base)], table, ambient)
    now, bright = float(here.landed.spare[0, 0, unit]), float(here.landed.too_bright[0, 0, unit])
    blocked = BLOCKERS[int(here.landed.blocker[0, 0, unit])]
    longer = list(longer_by(setup, table, unit, max(0.0, -now))) if kind == "freeze" else []
    if base.distance_free or blocked not in ("", "never_short_enough"):
        return Levers(unit, kind, now, bright, (), (), light=at)
    tried = longer if blocked else [*moves_of(setup, at, kind, start.method, table.units[unit], bag), *longer]
    just = more_by(setup, at, start.method, table.units[unit], -now) if now < 0 and not blocked else iter(())
    just = less_by(setup, at, start.method, bright) if bright > 0 else just
    tried += [move for move in just if not _known(move, tried)]
    singles = [move for move in tried if not move.breaks]
    ones = [MovedLight((), base), *(MovedLight((move,), move.light(base)) for move in singles if move.light)]
    beside = ones if pairs else ones[:1]
    at_hand = [*ones, *_twice(ones[1:], pairs)]
    found = list(_levers(_grid(setup, at, [start], at_hand, table, ambient), here, unit, pairs))
    of_camera = [move for move in singles if move.setup and move.touches not in ELSEWHERE]
    both = [two for two in combinations(of_camera, 2) if together(*two)] if pairs else []
    once = _states(setup, ambient, step, kind, [(move,) for move in of_camera])
    for states, variants in ((once, beside), (_states(setup, ambient, step, kind, both), ones[:1])):
        if states:
            found += _levers(_grid(setup, at, states, variants, table, ambient), here, unit, pairs)
    for move in singles:
        if move.setup is None or move.touches not in ELSEWHERE:
            continue
        there = move.setup(setup)
        light = ambient_of(there.ambient, setup.meter_c)
        alone = _states(setup, light, step, kind, [(move,)])
        twice = _states(setup, light, step, kind, [(move, other) for other in of_camera] if pairs else [])
        for states, variants in ((alone, beside), (twice, ones[:1])):
            if states:
                found += _levers(_grid(there, at, states, variants, table, light), here, unit, pairs)
    breaking = _states(setup, ambient, step, kind, [(move,) for move in tried if move.breaks])
    more = _levers(_grid(setup, at, breaking, ones[:1], table, ambient), here, unit, pairs=False) if breaking else ()
    singly = tuple(one for one in found if len(one.moves) == 1)
    return Levers(unit, kind, now, bright, singly, tuple(one for one in found if len(one.moves) == 2), tuple(more), at)


def _known(move: Move, moves: Sequence[Move]) -> bool:
    return any(named(move) == named(one) for one in moves)


def _twice(ones: Sequence[MovedLight], pairs: bool) -> list[MovedLight]:
    """Every two of the light's moves that can be made at once."""
    out = []
    for one, other in combinations(ones if pairs else (), 2):
        change = other.moves[0].light
        if change is not None and together(one.moves[0], other.moves[0]):
            out.append(MovedLight(one.moves + other.moves, change(one.light)))
    return out


def _states(setup: Setup, ambient: Ambient, step: Step, kind: MethodKind, tried: Sequence[Tried]) -> list[MovedSetup]:
    """The states that can be had; each in the method in hand, or in the one that a move takes."""
    out = []
    for moves in tried:
        changed = setup
        for move in moves:
            changed = move.setup(changed) if move.setup else changed
        method = method_of(changed, ambient, step, next((move.method for move in moves if move.method), kind))
        if method.possible:
            out.append(MovedSetup(moves, changed, method))
    return out


def _levers(grid: _Grid, here: _Grid, unit: int, pairs: bool) -> Iterator[Lever]:
    """The levers of a grid: each state and variant with the unit in hand, and with other units in its stead."""
    table, now = grid.scene.table, float(here.landed.spare[0, 0, unit])
    for row, state in enumerate(grid.states):
        for column, variant in enumerate(grid.variants):
            moves = state.moves + variant.moves
            if moves and not grid.landed.blocker[row, column, unit]:
                yield _lever(grid, here, (row, column, unit), unit, moves)
            if len(moves) > (1 if pairs else 0):
                continue
            for other in _others(grid.landed, table, (row, column, unit), now, few=bool(moves)):
                one = table.units[other]
                owned = one.holding == "owned"
                facts = {"name": one.name, "owned": owned}
                swap = Move("unit", facts, "unit", "unit", unit=table.ids[other], owned=owned)
                yield _lever(grid, here, (row, column, other), unit, (*moves, swap))


Spot = tuple[int, int, int]


def _others(found: Landed, table: UnitTable, at: Spot, now: float, few: bool) -> list[int]:
    """Other units worth taking for a variant: all that make a difference; or a few, beside another change: the lightest
    that are then enough, else those that come nearest."""
    spare, bright = found.spare[at[:2]], found.too_bright[at[:2]]
    able = (found.blocker[at[:2]] == 0) & (np.abs(spare - now) > SAME)
    able[at[2]] = False
    places = np.flatnonzero(able)
    if few:
        enough = places[(spare[places] >= ENOUGH) & (bright[places] <= 0)]
        weights = np.nan_to_num(table.weight_g[enough], nan=np.inf)
        nearest = places[np.argsort(-spare[places])[:FEW]]
        places = enough[np.argsort(weights)[:FEW]] if len(enough) else nearest
    return [int(one) for one in places]


def _lever(grid: _Grid, here: _Grid, at: Spot, unit: int, moves: Tried) -> Lever:
    spare = float(grid.landed.spare[at])
    return Lever(
        moves=moves,
        gain=spare - float(here.landed.spare[0, 0, unit]),
        spare=spare,
        sd=float(grid.landed.sd[at]),
        too_bright=float(grid.landed.too_bright[at]),
        below_full=float(grid.landed.below_full[at]),
        costs=_costs(grid, here, at, unit, moves),
    )


def _costs(grid: _Grid, here: _Grid, at: Spot, unit: int, moves: Tried) -> ChangeCosts:
    table, (row, column, other) = grid.scene.table, at
    state, light = grid.states[row], grid.variants[column].light
    start, was = here.states[0], here.variants[0].light
    camera, before = state.method.camera, start.method.camera
    power = 2.0 ** -float(grid.landed.below_full[at])
    supply = table.fed_by(grid.scene.setup.fed_by(light))
    weight = float(table.weight_g[other]) * light.heads - float(table.weight_g[unit]) * was.heads
    price = (table.units[other].price or 0.0) * light.heads - (table.units[unit].price or 0.0) * was.heads
    bought = light.heads > was.heads or (other != unit and table.units[other].holding != "owned")
    return ChangeCosts(
        softer=_size(light) - _size(was),
        background=_background(state) - _background(start),
        depth=2 * math.log2(APERTURES.exact(camera.f_number) / APERTURES.exact(before.f_number)),
        noise=math.log2(ISOS.exact(camera.iso) / ISOS.exact(before.iso)),
        recycle_s=float(battery.recycle_s(np.array(power), supply.full_s[other], supply.least_s[other])),
        charge=power,
        grams=0.0 if math.isnan(weight) else weight,
        money=price if bought else 0.0,
        work=sum(WORK[move.code] + (0.0 if move.owned else HIRED_WORK) for move in moves),
        method=LOOK_OF_METHOD.get(state.method.kind, 0.0) if state.method.kind != start.method.kind else 0.0,
    )


def _background(state: MovedSetup) -> float:
    """How bright the background comes out without flash [stops]; where it is dark, darker is no change."""
    return max(NOTHING_SEEN_STOPS, state.setup.aim.background_stops + state.method.off_stops)


def _size(light: Light) -> float:
    """How large a source looks from the subject [stops]: log2 of its width over its distance."""
    return math.log2(source_of(light.modifier).width_m / light.distance_m)
