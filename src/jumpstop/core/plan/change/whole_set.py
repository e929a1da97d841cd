"""Find a stop for the whole set: what a change leaves the light that has least in hand, over all lights that are on.

A change of the camera or the ambient is one for every light; one of a light's own leaves the others as they are.
"""

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

from ...kit.errors import CannotSolve
from ...kit.table import UnitTable
from ...physics.scales import Step
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from .levers import levers
from .moves import Bag
from .ranking import SAME, Lever, Levers, named

PAIRED = 12  # changes of each of the two weakest lights that are tried together


class _One(NamedTuple):
    light: int
    found: Levers


def set_levers(
    setup: Setup,
    kind: MethodKind,
    table: UnitTable,
    units: Sequence[int | None],
    bag: Bag,
    step: Step = "third",
    pairs: bool = True,
) -> Levers:
    """Every change for a whole set in one method, and pairs; `units` names the unit of each light.

    Raises CannotSolve where the method cannot be had, or no light that is on has a unit.
    """
    ones = [
        _One(at, levers(setup, at, kind, table, unit, bag, step, pairs))
        for at, unit in enumerate(units)
        if unit is not None and setup.lights[at].on
    ]
    if not ones:
        raise CannotSolve("no_usable_unit")
    ones.sort(key=lambda one: one.found.spare)
    weakest = ones[0]
    spare, bright = weakest.found.spare, max(one.found.too_bright for one in ones)
    singles = [*_shared(ones, "singles"), *_own(ones, "singles")]
    twos = [*_shared(ones, "pairs"), *_own(ones, "pairs"), *_crossed(ones)] if pairs else []
    return Levers(
        unit=weakest.found.unit,
        kind=kind,
        spare=spare,
        too_bright=bright,
        singles=tuple(singles),
        pairs=tuple(twos),
        unfixing=tuple(_shared(ones, "unfixing")),
        light=weakest.light,
        whole=True,
    )


def _shared(ones: Sequence[_One], which: str) -> list[Lever]:
    """Changes that touch no light of its own, taken for all at once; those that some light cannot have are left out."""
    by_name: dict[tuple[tuple[str, str], ...], list[Lever]] = {}
    for one in ones:
        for lever in getattr(one.found, which):
            if all(move.where == "setup" for move in lever.moves):
                by_name.setdefault(tuple(named(move) for move in lever.moves), []).append(lever)
    spare = ones[0].found.spare
    return [_least(levers, spare) for levers in by_name.values() if len(levers) == len(ones)]


def _least(found: Sequence[Lever], spare: float) -> Lever:
    """What one change leaves the light that then has least."""
    least = min(found, key=lambda lever: lever.spare)
    return replace(least, gain=least.spare - spare, too_bright=max(lever.too_bright for lever in found))


def _own(ones: Sequence[_One], which: str) -> list[Lever]:
    """Changes of one light alone; the others stay as they are."""
    out = []
    for one in ones:
        rest = [other.found for other in ones if other is not one]
        for lever in getattr(one.found, which):
            if all(move.where != "setup" for move in lever.moves):
                out.append(_beside(_of(lever, one.light), rest, ones[0].found.spare))
    return out


def _crossed(ones: Sequence[_One]) -> list[Lever]:
    """A change of the weakest light together with one of the next: each its own, so that both count in full."""
    if len(ones) < 2:
        return []
    first, second = (
        sorted(
            (lever for lever in one.found.singles if lever.gain > SAME and lever.moves[0].where != "setup"),
            key=lambda lever: -lever.gain,
        )[:PAIRED]
        for one in ones[:2]
    )
    rest, spare = [one.found for one in ones[2:]], ones[0].found.spare
    out = []
    for a in first:
        for b in second:
            mine, theirs = _of(a, ones[0].light), _of(b, ones[1].light)
            least = mine if a.spare <= b.spare else theirs
            both = replace(
                least,
                moves=mine.moves + theirs.moves,
                too_bright=max(a.too_bright, b.too_bright),
                costs=a.costs.with_more(b.costs),
            )
            out.append(_beside(both, rest, spare))
    return out


def _of(lever: Lever, light: int) -> Lever:
    return replace(lever, moves=tuple(replace(move, at=light) for move in lever.moves))


def _beside(lever: Lever, rest: Sequence[Levers], spare: float) -> Lever:
    """A lever of some lights among others that stay as they are."""
    least = min((lever.spare, *(other.spare for other in rest)))
    bright = max((lever.too_bright, *(other.too_bright for other in rest)))
    return replace(lever, spare=least, gain=least - spare, too_bright=bright)
