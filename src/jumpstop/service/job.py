"""A job solved: its setups, its coverage, its day. Each brings its documents together (`core.scene.job.planned`)."""

from collections.abc import Sequence

from ..core.kit.errors import CannotSolve
from ..core.kit.shelf import Shelf
from ..core.physics.scales import Step
from ..core.plan.job.board import Board, Landings, board_of, landings_of
from ..core.plan.job.endurance import DayPlan, Way
from ..core.plan.job.helps import day_plan, helped
from ..core.plan.job.schedule import day_shelf
from ..core.plan.job.worked_out import solved_on, with_copies
from ..core.plan.light.reach import Solved
from ..core.scene.job import JobFile, JobSetup, planned
from ..core.scene.seen import MethodKind


def solve_job(file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> list[Solved]:
    """A job's setups, each solved for the whole shelf and all copies that they hold; units stand in one order in all.

    Raises CannotSolve where there is none.
    """
    if not file.setups:
        raise CannotSolve("no_setups")
    setups = [one.setup for one in planned(file).setups]
    wide = with_copies(shelf, setups)
    return [solved_on(setup, wide, step, avoid) for setup in setups]


def landings_in(file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> list[Landings]:
    """The landings of a job's setups. Raises CannotSolve where there is none."""
    return [landings_of(one, avoid) for one in solve_job(file, shelf, step, avoid)]


def coverage(file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> Board:
    """What every unit does for every light of every setup of a job. Raises CannotSolve where there is no setup."""
    landings = landings_in(file, shelf, step, avoid)
    return board_of(landings, landings[0].solved.table)


def solve_for_day(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> list[tuple[JobSetup, Solved]]:
    """A job's setups, as it has them, that have a method; each solved for the units that its day can draw on."""
    file = planned(file)
    narrow = day_shelf(file, shelf)
    found = [(one, solved_on(one.setup, narrow, step, avoid)) for one in file.setups]
    return [(one, solved) for one, solved in found if solved.kinds]


def day(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = (), ways: bool = True
) -> DayPlan:
    """A job's day as it would run without surprises; with ways out where something gives out. Raises CannotSolve where
    there is no setup."""
    if not file.setups:
        raise CannotSolve("no_setups")
    return day_plan(planned(file), shelf, step, avoid, ways)


def with_help(file: JobFile, plan: DayPlan, way: Way) -> JobFile:
    """A job, as it is written, with one of the ways done that its day has. plan: the day."""
    return helped(file, plan, way)
