"""Findings: changes as they are told, each with the whole answer before it beside the whole answer after it.

`levers` finds what could be worth doing, by the light in hand; what is told of it is looked up in the answer that the
changed setup really gets: its method may be another one, its group may be lit otherwise, it may no longer freeze.
"""

from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from ...kit.errors import CannotSolve
from ...scene.light import OwnUnit
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.remark import Remark, remark
from ..light.reach import Solved
from .compared import Whole, differences, loses, lost, whole_of, won
from .moves import Move, done
from .ranking import (
    SAME,
    Keep,
    Lever,
    Levers,
    curing,
    gaining,
    gaining_pairs,
    named,
    spending,
    taming,
    taming_pairs,
)

MOST_FINDINGS = 12  # of each list that are looked up
ASKS_LESS = ("longer_flash",)  # moves that give up what the setup asks for


@dataclass(frozen=True, eq=False)
class Finding:
    """One change, or two together, as the whole answer has it. lever: what it brings, with the figures of that answer.

    differs: what else moves; lost, won: what of the picture fails only after, and only before; wanted: units that there
    are not so many of.
    """

    lever: Lever
    setup: Setup
    differs: tuple[Remark, ...]
    lost: tuple[Remark, ...]
    won: tuple[Remark, ...]
    wanted: tuple[Remark, ...]
    loses: bool

    @property
    def moves(self) -> tuple[Move, ...]:
        """What is done."""
        return self.lever.moves


@dataclass(frozen=True, eq=False)
class Findings:
    """All that is told, each list the best first. of: what they were found among; kind: the method in hand.

    gains: what brings light, or takes it away where there is too much; pairs: two together; better: what stops in hand
    could buy; unfixing: what moves a figure that is fixed; losing: what of all these loses something asked for.
    """

    of: Levers
    gains: tuple[Finding, ...]
    pairs: tuple[Finding, ...]
    better: tuple[Finding, ...]
    unfixing: tuple[Finding, ...]
    losing: tuple[Finding, ...]


class Looked:
    """What changes of one solved setup come to, each looked up once.

    solve: how a setup is solved here. written: the setup as it was written, before its job's day was put in. seen_from:
    the light that is looked at. avoid: methods that the person would rather not use. units: of the shelf by id, as a
    setup holds them.
    """

    def __init__(
        self,
        solved: Solved,
        of: Levers,
        solve: Callable[[Setup], Solved],
        written: Setup,
        seen_from: int,
        avoid: Sequence[MethodKind],
        units: Mapping[str, OwnUnit],
    ) -> None:
        self.of, self._solved, self._solve, self._written = of, solved, solve, written
        self._seen_from, self._avoid, self._units = seen_from, avoid, units
        self._before = whole_of(solved, avoid, seen_from, {of.light: of.unit})
        self._known: dict[tuple[tuple[str, str], ...], Finding | None] = {}

    def at(self, lever: Lever) -> Finding | None:
        """A change looked up; None where it leaves no answer, or a unit that cannot be used."""
        name = tuple(named(move) for move in lever.moves)
        if name not in self._known:
            self._known[name] = self._found(lever)
        return self._known[name]

    def _found(self, lever: Lever) -> Finding | None:
        of, before, moves = self.of, self._before, lever.moves
        try:
            solved = self._solve(done(self._solved.setup, of.light, moves, self._units))
        except CannotSolve:
            return None
        ids = solved.table.ids
        swapped = {of.light if one.at is None else one.at: ids.index(one.unit) for one in moves if one.unit}
        after = whole_of(solved, self._avoid, self._seen_from, {of.light: of.unit} | swapped)
        if before is None or after is None:
            return None
        counted = _landed(before, after, of, lever, swapped)
        if counted is None:
            return None
        shown = {name for move in moves for name in SAYS.get(move.code, ())}
        return Finding(
            lever=counted,
            setup=done(self._written, of.light, moves, self._units),
            differs=tuple(one for one in differences(before, after, of.light) if one.code not in shown),
            lost=tuple(one for one in lost(before, after) if not _of_light(one, of)),
            won=tuple(one for one in won(before, after) if not _of_light(one, of)),
            wanted=tuple(_wanted(before, after)),
            loses=loses(before, after) or any(move.code in ASKS_LESS for move in moves),
        )


SAYS: dict[str, tuple[str, ...]] = {
    "wider": ("aperture",), "stop_down": ("aperture",), "iso_up": ("iso",), "iso_down": ("iso",),
    "iso_and_shutter": ("iso", "shutter"), "background_up": ("background",), "background_down": ("background",),
    "nd_on": ("nd", "method"), "method": ("method",),
}  # fmt: skip
"""What a move says by itself, so that it is not told again as a difference."""


def _of_light(one: Remark, of: Levers) -> bool:
    """Whether a remark speaks of the light in hand, whose stops are told anyway."""
    return not of.whole and one.code in ("light_off", "light_blocked") and one.facts["light"] == of.light


def _landed(before: Whole, after: Whole, of: Levers, lever: Lever, swapped: Mapping[int, int]) -> Lever | None:
    """The lever with the figures of the answer after it; of a whole set those of the light that then has least. None
    where a unit cannot be used any more."""
    lights = [at for at, light in enumerate(after.solved.setup.lights) if light.on] if of.whole else [of.light]
    taken = after.solved.taken
    units = {at: swapped.get(at, before.units[at] if taken[at] is None else taken[at]) for at in lights}
    landed = [(after.solved.reach(after.kind, at), unit) for at, unit in units.items() if unit is not None]
    if not landed or not all(reach.able[unit] for reach, unit in landed):
        return None
    reach, unit = min(landed, key=lambda one: float(one[0].spare[one[1]]))
    spare = float(reach.spare[unit])
    return replace(
        lever,
        gain=spare - of.spare,
        spare=spare,
        sd=float(reach.sd[unit]),
        too_bright=max(float(reach.too_bright[unit]) for reach, unit in landed),
        below_full=float(reach.below_full[unit]),
    )


def _wanted(before: Whole, after: Whole) -> Iterator[Remark]:
    """Owned units of which more are wanted after than there are, and than before."""
    was, now = _heads(before), _heads(after)
    for unit, count in now.items():
        one = after.solved.table.units[unit]
        if one.holding == "owned" and count > max(one.count, was.get(unit, 0)):
            yield remark("not_so_many", name=one.name, wanted=count, there=one.count)


def _heads(whole: Whole) -> Counter[int]:
    """How many heads of each unit work, by its place."""
    out = Counter[int]()
    for light, unit in zip(whole.solved.setup.lights, whole.units, strict=True):
        if light.on and unit is not None:
            out[unit] += light.heads
    return out


def findings(looked: Looked, keep: Keep = "look", pairs: bool = True) -> Findings:
    """The lists as they are told, by the whole answers: what an answer does not bear out is left out."""
    of = looked.of
    bright = of.too_bright > 0
    singles = taming(of, keep) if bright else gaining(of, keep)
    better = spending(of) if of.spare > SAME and not bright else []
    twos = (taming_pairs(of, keep) if bright else gaining_pairs(of, keep)) if pairs else []
    unfixing = [one for one in of.unfixing if one.gain > SAME]
    first = [one for some in (singles, better, twos, unfixing) for one in some[:MOST_FINDINGS]]
    known = {id(found.lever): found for found in map(looked.at, first) if found is not None}

    def of_these(some: Sequence[Lever]) -> tuple[Lever, ...]:
        there = (looked.at(one) for one in some[:MOST_FINDINGS])
        return tuple(one.lever for one in there if one is not None)

    settled = replace(
        of, singles=of_these(singles) + of_these(better), pairs=of_these(twos), unfixing=of_these(unfixing)
    )
    again = (
        taming(settled, keep) if bright else gaining(settled, keep),
        taming_pairs(settled, keep) if bright else _pairs_of(of, settled, keep),
        spending(settled) if better else [],
        [one for one in settled.unfixing if one.gain > SAME],
    )
    lists = [[known[id(one)] for one in _once(some) if id(one) in known] for some in again]
    gains, two, buys, loosed = (tuple(one for one in some if not one.loses) for some in lists)
    return Findings(of, gains, two, buys, loosed, tuple(one for some in lists[:2] for one in some if one.loses))


def _pairs_of(of: Levers, settled: Levers, keep: Keep) -> list[Lever]:
    """Pairs that are worth more than either of the two alone, by what all singles bring: those that were looked up by
    their whole answers."""
    return gaining_pairs(replace(settled, singles=of.singles + settled.singles), keep)


def _once(some: Sequence[Lever]) -> list[Lever]:
    """Each change once."""
    return list({tuple(named(move) for move in one.moves): one for one in reversed(some)}.values())[::-1]


def cures(looked: Looked, most: int) -> list[Finding]:
    """What cures a light that is short or too bright, the cheapest first (see `curing`), nothing that loses what the
    setup asks for among it."""
    out = list[Finding]()
    for one in curing(looked.of)[: 3 * most]:
        found = looked.at(one)
        good = found is not None and not found.loses and (found.lever.gain > SAME or looked.of.too_bright > 0)
        if found is not None and good:
            out.append(found)
        if len(out) == most:
            break
    return out
