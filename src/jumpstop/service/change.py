"""What could be changed: findings of one light or of a whole set, and cures, by the answers that they lead to."""

from collections.abc import Mapping, Sequence
from functools import partial

from ..core.kit.shelf import Shelf
from ..core.physics.scales import Step
from ..core.plan.change.findings import Finding, Findings, Looked, cures, findings
from ..core.plan.change.levers import levers
from ..core.plan.change.moves import Bag
from ..core.plan.change.ranking import Keep, Levers
from ..core.plan.change.whole_set import set_levers
from ..core.plan.job.worked_out import solved_on
from ..core.plan.light.advice import units_for
from ..core.plan.light.one_unit import only
from ..core.plan.light.reach import Reach, Solved
from ..core.scene.light import OwnUnit, own_unit
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup

CURES = 3  # told at once


def find_a_stop(
    reach: Reach,
    unit: int,
    shelf: Shelf,
    written: Setup,
    bag: Bag,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    keep: Keep = "look",
    whole: bool = False,
) -> Findings:
    """Every change for a unit in hand, or for the whole set, as the whole answer then is. written: the setup as it
    stands, without its job's day. Raises CannotSolve."""
    solved, kind, light = reach.solved, reach.method.kind, reach.at[1]
    of = (
        set_levers(solved.setup, kind, solved.table, units_for(solved, kind), bag, step)
        if whole
        else levers(solved.setup, light, kind, solved.table, unit, bag, step)
    )
    return findings(_looked(solved, of, shelf, written, light, step, avoid), keep)


def cures_of(
    reach: Reach, unit: int, shelf: Shelf, written: Setup, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> list[Finding]:
    """The first few changes that make the unit in hand land right; none where it does. Raises CannotSolve."""
    if reach.spare[unit] >= 0 and reach.too_bright[unit] <= 0:
        return []
    solved, light = reach.solved, reach.at[1]
    alone = only(solved, unit)
    found = levers(solved.setup, light, reach.method.kind, alone, 0, Bag(), step, pairs=False)
    of = Levers(unit, found.kind, found.spare, found.too_bright, found.singles, (), found.unfixing, light)
    return cures(_looked(solved, of, shelf, written, light, step, avoid), CURES)


def _looked(
    solved: Solved,
    of: Levers,
    shelf: Shelf,
    written: Setup,
    light: int,
    step: Step,
    avoid: Sequence[MethodKind],
) -> Looked:
    solve = partial(solved_on, shelf=shelf, step=step, avoid=avoid)
    return Looked(solved, of, solve, written, light, avoid, own_units(solved))


def own_units(solved: Solved) -> Mapping[str, OwnUnit]:
    """The units of a shelf by id, as a setup holds them."""
    pairs = zip(solved.table.ids, solved.table.units, strict=True)
    return {key: own_unit(unit, key) for key, unit in pairs}
