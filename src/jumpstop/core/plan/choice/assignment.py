"""Who could stand where: what each light of a job needs, which units hold it, and whether a set of units covers all."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from statistics import NormalDist
from typing import Literal, NamedTuple

import numpy as np

from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...scene.job import Least
from ..job.board import Landings
from ..light.reach import Reach

MOST_OF_ONE = 16  # of one unit in a kit, at the most
CENT = 0.005  # money smaller than this is none


@dataclass(frozen=True)
class Post:
    """A light of a setup with the unit that stands there, in the setup's method; all by their places."""

    setup: int
    kind: int
    light: int
    unit: int


@dataclass(frozen=True)
class Kit:
    """A choice: how many of each unit (by place), who stands where, what it comes to.

    proven: no better one exists. bound: the objective cannot come below it. status: what the solver came to. charges:
    that the job's days want of each unit, where they were asked for; spares are not among them.
    """

    counts: dict[int, int]
    posts: tuple[Post, ...]
    objective: float
    bound: float
    proven: bool
    status: Literal["found", "none", "time"]
    charges: Mapping[int, int] = field(default_factory=dict)


class LightNeed(NamedTuple):
    """One light in one method, and the units that hold it with the chance asked."""

    setup: int
    kind: int
    light: int
    units: np.ndarray
    heads: int


def price_of(table: UnitTable, least: Least) -> Floats:
    """What one of each unit counts for: its weight [g], its price, or its price where it is not owned.

    What is not known counts as much as the dearest that is, so that it is not taken for being unknown.
    """
    if least == "weight":
        figures = np.array(table.weight_g)
    else:
        figures = np.array([np.nan if unit.price is None else unit.price for unit in table.units], dtype=float)
        if least == "buy":
            figures = np.where([unit.holding == "owned" for unit in table.units], 0.0, figures)
    known = figures[~np.isnan(figures)]
    return np.where(np.isnan(figures), known.max() if len(known) else 1.0, figures)


def unknown_of(table: UnitTable, least: Least) -> np.ndarray:
    """Which units say nothing of what counts; shape (units,). What is owned costs nothing to get."""
    if least == "weight":
        return np.isnan(table.weight_g)
    priced = np.array([unit.price is not None for unit in table.units], dtype=bool)
    owned = np.array([unit.holding == "owned" for unit in table.units], dtype=bool)
    return ~(priced | owned) if least == "buy" else ~priced


def most_of(table: UnitTable, landings: Sequence[Landings], spares: int) -> np.ndarray:
    """How many of each there can be: as many as are owned; of what is hired or bought, as many as a setup could use."""
    wanted = max((sum(one.heads) for one in landings), default=1) + spares
    return np.array([unit.count if unit.holding == "owned" else min(wanted, MOST_OF_ONE) for unit in table.units])


def needs_of(landings: Sequence[Landings], chance: float) -> list[LightNeed]:
    """Every light in every method of its setup, with the units that hold it."""
    return [
        LightNeed(at, kind, light, one.holding(kind, light, chance), one.heads[light])
        for at, one in enumerate(landings)
        for kind in range(len(one.kinds))
        for light in range(len(one.lights))
    ]


def worth_taking(
    landings: Sequence[Landings],
    needs: Sequence[LightNeed],
    most: np.ndarray,
    figures: Floats,
    spares: int,
    as_well_fed: np.ndarray | None = None,
) -> np.ndarray:
    """How many of each unit there can be, none of those that others replace: they hold all that it does and count for
    no more. figures: what each counts for, of shape (figures, units).

    For a light of several heads, and where batteries count, that takes one other unit of which there are enough for any
    setup; else as many of them all. The best kit is not lost so: each unit of it that goes has another in its place.
    as_well_fed: of each unit, those that ask for no more in batteries (see `feeding.as_well_fed`).
    """
    holds = np.zeros((len(most), len(needs)), dtype=bool)
    for at, need in enumerate(needs):
        holds[need.units, at] = True
    many: np.ndarray = np.any(holds[:, [need.heads > 1 for need in needs]], axis=1)
    enough = max((sum(one.heads) for one in landings), default=0) + spares
    places, out = np.arange(len(most)), most.copy()
    for unit in places:
        better = np.all(figures <= figures[:, [unit]], axis=0) & ~np.any(holds[unit] & ~holds, axis=1)
        alike = better & np.all(figures == figures[:, [unit]], axis=0) & np.equal(holds, holds[unit]).all(axis=1)
        if as_well_fed is not None:
            better &= as_well_fed[unit]
            alike &= as_well_fed[unit] & as_well_fed[:, unit]
        there = most[better & (~alike | (places < unit))]
        one = bool(many[unit]) or as_well_fed is not None
        if len(there) and (there.max() if one else there.sum()) >= enough:
            out[unit] = 0
    return out


def posts_of(
    setup: int, needs: Sequence[LightNeed], counts: dict[int, int], posted: Mapping[int, int] | None = None
) -> list[Post] | None:
    """Who stands where in a setup with so many of each unit; None where they do not cover it. The first method that can
    be had is taken. posted: of lights, by their places, the unit that the job has there: it stays where it holds."""
    for kind in dict.fromkeys(need.kind for need in needs if need.setup == setup):
        lights = [need for need in needs if need.setup == setup and need.kind == kind]
        stay = [need._replace(units=need.units[need.units == (posted or {}).get(need.light, -1)]) for need in lights]
        kept = [there if len(there.units) else need for there, need in zip(stay, lights, strict=True)]
        found = placed(kept, counts) or placed(lights, counts)
        if found is not None:
            return sorted(found, key=lambda post: post.light)
    return None


def placed(needs: Sequence[LightNeed], counts: dict[int, int]) -> list[Post] | None:
    """Who stands where in one method with so many of each unit; None where they do not man every light."""
    return _placed(sorted(needs, key=lambda need: len(need.units)), dict(counts))


def manned(needs: Sequence[LightNeed], counts: dict[int, int]) -> bool:
    """Whether so many of each unit man every light of one method."""
    return placed(needs, counts) is not None


def _placed(needs: list[LightNeed], left: dict[int, int]) -> list[Post] | None:
    """Every light with a unit of its own, by trying; the hardest first. Few lights, so that this is quick."""
    if not needs:
        return []
    need, rest = needs[0], needs[1:]
    for unit in need.units.tolist():
        if left.get(unit, 0) >= need.heads:
            found = _placed(rest, left | {unit: left[unit] - need.heads})
            if found is not None:
                return [Post(need.setup, need.kind, need.light, unit), *found]
    return None


def picks_of(landings: Sequence[Landings], posts: Sequence[Post]) -> list[tuple[Reach, int, int]]:
    """Each post as its light's reach in its method, the unit and the setup, by their places."""
    return [(landings[post.setup].reach(post.kind, post.light), post.unit, post.setup) for post in posts]


@dataclass(frozen=True)
class Missing:
    """A light that no unit holds with the chance asked: which, the unit that comes nearest, and how much it lacks.

    unfed: it lacks nothing but the mains, of which there is none."""

    setup: int
    kind: int
    light: int
    unit: int
    lacks: float  # stops more in hand that it would take
    too_bright: bool
    unfed: bool = False


def missing(landings: Sequence[Landings], chance: float) -> list[Missing]:
    """The lights that nothing covers in the method of their setup that lacks least; the worst first."""
    found = []
    for at, one in enumerate(landings):
        lacking = [_lacking(at, one, kind, chance) for kind in range(len(one.kinds))]
        if lacking and all(lacking):
            least = min(lacking, key=lambda lights: max(light.lacks for light in lights))
            found += [light for light in least if math.isfinite(light.lacks)]
    return sorted(found, key=lambda one: -one.lacks)


def _lacking(at: int, one: Landings, kind: int, chance: float) -> list[Missing]:
    """The lights that nothing covers in one method, each with what lacks least; no end where no unit can be used."""
    out, wanted = [], _quantile(chance)
    for light in range(len(one.lights)):
        reach = one.reach(kind, light)
        if not reach.able.any():
            out.append(Missing(at, kind, light, -1, math.inf, False))
        elif not len(one.holding(kind, light, chance)):
            bright = reach.too_bright > 0
            lacks = np.where(bright, reach.too_bright, wanted * reach.sd - reach.spare)
            taken = one.taken[light] if one.taken else None
            fed = reach.able if one.unfed is None else reach.able & ~one.unfed[light]
            from_ = fed if fed.any() else reach.able
            unit = int(np.argmin(np.where(from_, lacks, np.inf))) if taken is None else taken
            if reach.able[unit] and not fed[unit]:
                out.append(Missing(at, kind, light, unit, 0.0, False, unfed=True))
            else:
                out.append(Missing(at, kind, light, unit, max(0.0, float(lacks[unit])), bool(bright[unit])))
    return out


def crowded(landings: Sequence[Landings], table: UnitTable, chance: float, spares: int) -> list[int]:
    """Setups that no units of all there are cover together, though each light has some that hold it."""
    needs = needs_of(landings, chance)
    most = {unit: int(number) for unit, number in enumerate(most_of(table, landings, spares))}
    lacking = {one.setup for one in missing(landings, chance)}
    return [at for at in range(len(landings)) if at not in lacking and posts_of(at, needs, most) is None]


def _quantile(chance: float) -> float:
    """How many sd in hand give a chance, by the inverse of the normal distribution."""
    return NormalDist().inv_cdf(chance)
