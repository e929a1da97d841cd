"""Find a stop: every single change, and every pair, with what each brings the unit in hand and what it costs.

One solve for each state of the camera and the ambient holds all variants of the light side by side on the lights'
axis, for all units at once; so a pair is looked up, not solved anew, and is exactly what the changed setup comes to.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from ..kit.errors import CannotSolve
from ..kit.table import UnitTable
from ..physics.scales import Step
from ..scene.light import Light
from ..scene.seen import MethodKind
from ..scene.setup import Setup
from .ambient import Ambient, ambient_of
from .chain import Scene, Variants, chain_of
from .fixed import method_of
from .methods import Method
from .moves import Bag, Move, enough_of, moves_of, together
from .reach import Landed, landed, scene_of
from .stage import BARE_M

SAME = 0.02  # stops: a change that brings less than this brings nothing
LEAST_PRICE = 0.3  # so that what costs nothing is not ranked by nothing
FEW = 3  # other units tried beside another change
ENOUGH = -0.05  # stops: this little short is enough
Keep = Literal["look", "light", "quick"]
KEEPS: dict[Keep, tuple[float, float, float]] = {"look": (3, 1, 1), "light": (1, 3, 1), "quick": (1, 1, 3)}
"""How much a change of the look, what it weighs and costs, and the work it makes count, by what is to be kept."""

# The work a change makes, where letting go of the dial is 0 and moving a stand 1. From memory.
WORK: dict[str, float] = {
    "iso_up": 0.1, "iso_down": 0.1, "iso_and_shutter": 0.2, "wider": 0.1, "stop_down": 0.1, "background_up": 0.1,
    "background_down": 0.1, "zoom": 0.3, "straight": 0.3, "method": 0.6, "nd_on": 0.6, "layer_off": 0.6,
    "layer_on": 0.6, "layers_off": 0.8, "gel_off": 0.4, "closer": 1.0, "farther": 1.0, "bare": 1.2, "modifier": 1.6,
    "heads": 3.0, "unit": 3.0, "into_shade": 3.0, "hour": 6.0,
}  # fmt: skip
HIRED_WORK = 4.0  # more, for what has to be got first
LOOK_OF_METHOD = {"hss": 0.3, "nd": 0.2, "stop_down": 0.0, "past_sync": 2.0, "slow": 1.0, "freeze": 2.0}  # from memory
NOISE = 0.4  # of a stop's weight that a stop of ISO counts


@dataclass(frozen=True)
class Costs:
    """What a change costs, each against what is there now.

    softer: stops by which the source looks larger (width over distance). background: stops brighter. depth: stops of
    aperture closed. noise: stops of ISO. recycle_s, charge: ready again in [s], and share of a full flash's charge;
    grams, money: more to carry and to pay. work: see WORK.
    """

    softer: float
    background: float
    depth: float
    noise: float
    recycle_s: float
    charge: float
    grams: float
    money: float
    work: float
    method: float

    @property
    def look(self) -> float:
        """How much the picture changes."""
        hard, open_ = max(0.0, -self.softer) + 0.2 * max(0.0, self.softer), abs(self.depth)
        return hard + abs(self.background) + 0.5 * open_ + NOISE * max(0.0, self.noise) + self.method

    def price(self, keep: Keep) -> float:
        """One figure to rank by."""
        look, light, work = KEEPS[keep]
        return look * self.look + light * (max(0.0, self.grams) / 1000 + max(0.0, self.money) / 500) + work * self.work


@dataclass(frozen=True)
class Lever:
    """One change, or a pair: what it brings [stops], where it lands, and what it costs."""

    moves: tuple[Move, ...]
    gain: float
    spare: float
    sd: float
    too_bright: float
    below_full: float
    costs: Costs


@dataclass(frozen=True)
class Levers:
    """All of them, for one light and unit in one method. now: stops in hand, and too much at the lowest setting."""

    unit: int
    kind: MethodKind
    spare: float
    too_bright: float
    singles: tuple[Lever, ...]
    pairs: tuple[Lever, ...]
    unfixing: tuple[Lever, ...] = ()  # what moves a figure that is fixed


Tried = tuple[Move, ...]


class Variant(NamedTuple):
    """The light as some moves leave it."""

    moves: Tried
    light: Light


class State(NamedTuple):
    """The rest of the setup as some moves leave it, in one method."""

    moves: Tried
    setup: Setup
    method: Method


@dataclass(frozen=True, eq=False)
class _Grid:
    """States of the camera against variants of the light, in one ambient; arrays of shape (states, variants, units)."""

    states: Sequence[State]
    variants: Sequence[Variant]
    scene: Scene
    landed: Landed


def _grid(
    setup: Setup, at: int, states: Sequence[State], variants: Sequence[Variant], table: UnitTable, ambient: Ambient
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
    start = State((), setup, method_of(setup, ambient, step, kind))
    if not start.method.possible:
        raise CannotSolve("method_blocked", method=kind)
    here = _grid(setup, at, [start], [Variant((), base)], table, ambient)
    now, bright = float(here.landed.spare[0, 0, unit]), float(here.landed.too_bright[0, 0, unit])
    if base.distance_free or here.landed.blocker[0, 0, unit]:
        return Levers(unit, kind, now, bright, (), ())
    tried = moves_of(setup, at, kind, start.method, table.units[unit], bag)
    singles = [move for move in tried if not move.breaks]
    if now < 0:
        singles += [move for move in enough_of(base, -now, table.units[unit]) if not _known(move, singles)]
    ones = [Variant((), base), *(Variant((move,), move.light(base)) for move in singles if move.light)]
    beside = ones if pairs else ones[:1]
    at_hand = [*ones, *_twice(ones[1:], pairs)]
    found = list(_levers(_grid(setup, at, [start], at_hand, table, ambient), here, unit, pairs))
    of_camera = [move for move in singles if move.setup and move.touches != "ambient"]
    both = [(a, b) for i, a in enumerate(of_camera) for b in of_camera[i + 1 :] if together(a, b)] if pairs else []
    once = _states(setup, ambient, step, kind, [(move,) for move in of_camera])
    for states, variants in ((once, beside), (_states(setup, ambient, step, kind, both), ones[:1])):
        if states:
            found += _levers(_grid(setup, at, states, variants, table, ambient), here, unit, pairs)
    for move in singles:
        if move.setup is None or move.touches != "ambient":
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
    return Levers(unit, kind, now, bright, singly, tuple(one for one in found if len(one.moves) == 2), tuple(more))


def _known(move: Move, moves: Sequence[Move]) -> bool:
    return any(_named(move) == _named(one) for one in moves)


def _twice(ones: Sequence[Variant], pairs: bool) -> list[Variant]:
    """Every two of the light's moves that can be made at once."""
    out = []
    for i, one in enumerate(ones if pairs else ()):
        for other in ones[i + 1 :]:
            change = other.moves[0].light
            if change is not None and together(one.moves[0], other.moves[0]):
                out.append(Variant(one.moves + other.moves, change(one.light)))
    return out


def _states(setup: Setup, ambient: Ambient, step: Step, kind: MethodKind, tried: Sequence[Tried]) -> list[State]:
    """The states that can be had; each in the method in hand, or in the one that a move takes."""
    out = []
    for moves in tried:
        changed = setup
        for move in moves:
            changed = move.setup(changed) if move.setup else changed
        method = method_of(changed, ambient, step, next((move.method for move in moves if move.method), kind))
        if method.possible:
            out.append(State(moves, changed, method))
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


def _costs(grid: _Grid, here: _Grid, at: Spot, unit: int, moves: Tried) -> Costs:
    table, (row, column, other) = grid.scene.table, at
    state, light = grid.states[row], grid.variants[column].light
    start, was = here.states[0], here.variants[0].light
    camera, before = state.method.camera, start.method.camera
    power = 2.0 ** -float(grid.landed.below_full[at])
    supply = table.fed_by(light.power_supply or grid.scene.setup.power_supply)
    weight = float(table.weight_g[other]) * light.heads - float(table.weight_g[unit]) * was.heads
    price = (table.units[other].price or 0.0) * light.heads - (table.units[unit].price or 0.0) * was.heads
    bought = light.heads > was.heads or (other != unit and table.units[other].holding != "owned")
    asked = state.setup.aim.background_stops - start.setup.aim.background_stops
    return Costs(
        softer=_size(light) - _size(was),
        background=state.method.off_stops - start.method.off_stops + asked,
        depth=2 * math.log2(camera.f_number / before.f_number),
        noise=math.log2(camera.iso / before.iso),
        recycle_s=float(supply.least_s[other] + power * (supply.full_s[other] - supply.least_s[other])),
        charge=power,
        grams=0.0 if math.isnan(weight) else weight,
        money=price if bought else 0.0,
        work=sum(WORK[move.code] + (0.0 if move.owned else HIRED_WORK) for move in moves),
        method=LOOK_OF_METHOD.get(state.method.kind, 0.0) if state.method.kind != start.method.kind else 0.0,
    )


def _size(light: Light) -> float:
    """How large a source looks from the subject [stops]: log2 of its width over its distance."""
    width = light.modifier.face.width_m if light.modifier and light.modifier.face else BARE_M
    return math.log2(width / light.distance_m)


def gaining(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Single changes that bring light: those that are enough first, then by price, or by price for what they bring."""
    return sorted((one for one in found.singles if one.gain > SAME and one.too_bright <= 0), key=_rank(keep))


def gaining_pairs(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Pairs that are worth more than either of the two, in the same order."""
    alone = {_named(one.moves[0]): one.gain for one in found.singles}
    good = [
        one
        for one in found.pairs
        if one.too_bright <= 0 and one.gain > SAME + max(0.0, *(alone.get(_named(move), 0.0) for move in one.moves))
    ]
    return sorted(good, key=_rank(keep))


def _named(move: Move) -> tuple[str, str]:
    return move.code, str(move.facts)


def _rank(keep: Keep) -> Callable[[Lever], tuple[float, float]]:
    def rank(one: Lever) -> tuple[float, float]:
        price = one.costs.price(keep)
        return (0, price) if one.spare >= ENOUGH else (1, (price + LEAST_PRICE) / one.gain)

    return rank


def taming(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Changes that bring a light that is too bright within its dial."""
    good = (one for one in found.singles if one.too_bright <= 0 <= one.spare)
    return sorted(good, key=lambda one: one.costs.price(keep))


def spending(found: Levers) -> list[Lever]:
    """What stops in hand could buy: softer, farther, a lower ISO, more depth of field; the best for its stops first."""

    def worth(one: Lever) -> float:
        costs = one.costs
        return max(0.0, costs.softer) + max(0.0, -costs.noise) + 0.5 * max(0.0, costs.depth)

    def buys(one: Lever) -> bool:
        farther = one.moves[0].code == "farther"
        return one.moves[0].code != "unit" and (worth(one) > 0.1 or farther) and one.costs.method == 0

    good = [one for one in found.singles if one.gain < -SAME and one.spare >= 0 and one.too_bright <= 0 and buys(one)]
    return sorted(good, key=lambda one: (worth(one) + LEAST_PRICE) / one.gain)
