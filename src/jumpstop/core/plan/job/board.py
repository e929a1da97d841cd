"""The board: every unit against every light of every setup, each in the best method that the setup allows."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...physics.gaussian import root_of
from ...physics.stops import p_reach
from ...scene.seen import MethodKind
from ..learn.parameters import known_of, load_of, matrix_of
from ..light.advice import holds_background, preferred, serves
from ..light.reach import BLOCKED, ON_THE_LINE, REACHES, SHORT, TOO_BRIGHT, Reach, Solved

RANK = {REACHES: 3, ON_THE_LINE: 2, TOO_BRIGHT: 1, SHORT: 0, BLOCKED: -1}
"""How good a verdict is."""


@dataclass(frozen=True, eq=False)
class Landings:
    """What every unit does for the lights of one setup that are on, in the methods that serve it.

    Arrays of shape (methods, lights, units). chance: that a light lands within the dial's range; 0 where the unit is
    unfed: fed by the mains, and there is none; shape (lights, units), None: not asked.
    """

    solved: Solved
    kinds: tuple[MethodKind, ...]  # those that give up least first
    lights: tuple[int, ...]
    chance: Floats
    heads: tuple[int, ...]  # equal heads that each light asks for
    taken: tuple[int | None, ...] = ()  # the unit that a light has already, by its place
    unfed: np.ndarray | None = None

    def holding(self, kind: int, light: int, chance: float) -> np.ndarray:
        """The units that hold a light in a method with a chance: of a light that has one already, no other."""
        units = np.flatnonzero(self.chance[kind, light] >= chance)
        taken = self.taken[light] if self.taken else None
        return units if taken is None else units[units == taken]

    @property
    def keeps(self) -> bool:
        """Whether a light has a unit already."""
        return any(one is not None for one in self.taken)

    def reach(self, kind: int, light: int) -> Reach:
        """One light in one method, both by their places here."""
        return self.solved.reach(self.kinds[kind], self.lights[light])


def kinds_of(solved: Solved, avoid: Sequence[MethodKind] = ()) -> list[MethodKind]:
    """The methods that a setup's fixed figures leave and its picture wants, where there are any; one that is fixed is
    the only one."""
    fixed = solved.setup.method
    order = [kind for kind in preferred(solved) if kind in solved.kinds]
    if fixed is not None and fixed in solved.kinds:
        return [fixed]
    good = [kind for kind in order if serves(solved, solved.method(kind))]
    held = [kind for kind in good if holds_background(solved, solved.method(kind))]
    return sorted(held or good or order, key=lambda kind: kind in avoid)


def landings_of(solved: Solved, avoid: Sequence[MethodKind] = (), unfed: np.ndarray | None = None) -> Landings:
    """The landings of a setup, in its methods (see `kinds_of`). unfed: the units that nothing feeds at each of its
    lights, off ones too; shape (lights, units)."""
    order = kinds_of(solved, avoid)
    lights = tuple(at for at, light in enumerate(solved.setup.lights) if light.on)
    chance = np.zeros((len(order), len(lights), len(solved.table)))
    for row, kind in enumerate(order):
        for column, light in enumerate(lights):
            chance[row, column] = chance_of(solved.reach(kind, light))
    if unfed is not None:
        unfed = unfed[list(lights)]
        chance[:, unfed] = 0.0
    heads = tuple(solved.setup.lights[at].heads for at in lights)
    taken = tuple(solved.reach(order[0], at).taken if order else None for at in lights)
    return Landings(solved, tuple(order), lights, chance, heads, taken, unfed)


def chance_of(reach: Reach) -> Floats:
    """Chance that each unit lands within its dial's range: neither short nor too bright at its lowest setting."""
    over = 1 - p_reach(most_of(reach) - reach.spare, reach.sd)
    return np.where(reach.able, np.maximum(0.0, p_reach(reach.spare, reach.sd) - over), 0.0)


def most_of(reach: Reach) -> Floats:
    """Stops in hand at which each unit is just not too bright at its lowest setting, to half a step of its dial."""
    table = reach.solved.table
    room = np.where(reach.too_bright > 0, reach.spare - reach.too_bright, table.dial_range)
    return np.asarray(room + table.step / 2)


@dataclass(frozen=True)
class Column:
    """One light of one setup, by its places."""

    setup: int
    light: int  # place among the lights of the setup that are on


@dataclass(frozen=True, eq=False)
class Board:
    """Units down, lights of setups across; arrays of shape (columns, units). kind: place of the method taken, -1 where
    there is none."""

    table: UnitTable
    landings: tuple[Landings, ...]
    columns: tuple[Column, ...]
    kind: np.ndarray
    spare: Floats
    sd: Floats
    chance: Floats
    below_full: Floats
    too_bright: Floats
    verdict: np.ndarray

    @cached_property
    def covers(self) -> np.ndarray:
        """How many columns each unit reaches."""
        return np.sum(self.verdict == REACHES, axis=0)


def board_of(landings: Sequence[Landings], table: UnitTable) -> Board:
    """The board of a job's setups, which were all solved for the same shelf.

    Each unit takes the first method it reaches in; where it reaches in none, the one it comes nearest in.
    """
    columns = [Column(at, light) for at, one in enumerate(landings) for light in range(len(one.lights))]
    shape = (len(columns), len(table))
    kind, verdict = np.full(shape, -1), np.full(shape, BLOCKED, dtype="<U12")
    figures = [np.full(shape, np.nan) for _ in range(5)]
    for row, column in enumerate(columns):
        one, top, best = landings[column.setup], np.full(len(table), RANK[BLOCKED]), np.full(len(table), np.inf)
        for at in range(len(one.kinds)):
            reach = one.reach(at, column.light)
            rank = np.select([reach.verdict == word for word in RANK], list(RANK.values()))
            near = np.where(reach.too_bright > 0, -reach.too_bright, reach.spare)
            near = np.where(reach.verdict == REACHES, -at, near)
            better = (rank > top) | (rank == top) & (near > best)
            top, best = np.where(better, rank, top), np.where(better, near, best)
            kind[row] = np.where(better, at, kind[row])
            verdict[row] = np.where(better, reach.verdict, verdict[row])
            found = (reach.spare, reach.sd, one.chance[at, column.light], reach.below_full, reach.too_bright)
            for into, array in zip(figures, found, strict=True):
                into[row] = np.where(better, array, into[row])
    spare, sd, chance, below, bright = figures
    return Board(table, tuple(landings), tuple(columns), kind, spare, sd, chance, below, bright, verdict)


def joint_chance(spare: Floats, own_sd: Floats, shared: Floats, most: Floats | float = math.inf) -> float:
    """Chance that all landings hold together: that each lies from 0 to `most`. spare, own_sd, most: of shape
    (landings,) [stops]; shared: what each shared doubt brings to each landing, of shape (landings, doubts) [stops].

    The shared doubts are drawn (seeded, with their mirror images), the own ones summed exactly; within .005.
    Three of .3 in hand with a shared doubt .3 and own .2: .653.
    """
    if not len(spare):
        return 1.0
    draws = np.random.default_rng(DRAW_SEED).standard_normal((DRAWS, shared.shape[1]))
    draws = np.concatenate([draws, -draws])
    moved = spare + draws @ shared.T
    own = np.maximum(own_sd, LEAST_CHANCE_SD)
    inside = p_reach(moved, own) - (1 - p_reach(most - moved, own))
    return float(np.mean(np.prod(np.maximum(0.0, inside), axis=1)))


DRAWS, DRAW_SEED, LEAST_CHANCE_SD = 2048, 20260624, 1e-6
"""Draws from which a job's chance is counted; a matter of computing; their seed, so that the same job has the same
chance; no doubt is smaller than this [stops]; a matter of computing."""


def whole_chance(picks: Sequence[tuple[Reach, int, int]]) -> float:
    """Chance that a whole job holds, no light short and none too bright: each pick a light in a method, its unit's
    place, and its setup's.

    A unit's light and its HSS, a modifier and its layers are shared wherever used, the ambient within a setup; what
    readings have tied together stays so.
    """
    if not picks:
        return 1.0
    loads = [load_of(reach.jumps_of(unit), reach.solved.table, unit, str(setup)) for reach, unit, setup in picks]
    prior = {key: sd for load in loads for key, (_, sd) in load.of.items()}
    keys, sds = list(prior), np.array(list(prior.values()))
    rows = matrix_of([load.of for load in loads], keys, sds)
    _, covariance = known_of(keys, sds, picks[0][0].solved.table)
    spare = np.array([float(reach.spare[unit]) for reach, unit, _ in picks])
    most = np.array([float(most_of(reach)[unit]) for reach, unit, _ in picks])
    return joint_chance(spare, np.array([load.own for load in loads]), rows @ root_of(covariance), most)
