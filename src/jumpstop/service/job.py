"""A job solved: its setups, its coverage, its day. Each brings its documents together (`core.scene.job.planned`)."""

from collections.abc import Sequence
from datetime import date

from ..core.kit.errors import CannotSolve
from ..core.kit.shelf import Shelf
from ..core.physics.scales import Step
from ..core.plan.job.batteries import on_mains
from ..core.plan.job.board import Board, Landings, board_of, landings_of
from ..core.plan.job.changeover import Standing
from ..core.plan.job.endurance import DayPlan, Way
from ..core.plan.job.helps import day_plan, helped
from ..core.plan.job.schedule import AsShot, as_shot, day_shelf
from ..core.plan.job.worked_out import solved_on, with_copies
from ..core.plan.light.advice import chosen_method, units_for
from ..core.plan.light.reach import Solved
from ..core.scene.job import JobFile, in_job, planned
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup


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
    no_mains = file.job.brief.power_on_site is False
    solved = solve_job(file, shelf, step, avoid)
    return [landings_of(one, avoid, on_mains(one) if no_mains else None) for one in solved]


def coverage(file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> Board:
    """What every unit does for every light of every setup of a job. Raises CannotSolve where there is no setup."""
    landings = landings_in(file, shelf, step, avoid)
    return board_of(landings, landings[0].solved.table)


def shot_setups(file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()) -> list[AsShot]:
    """A job's setups that have a method, each as it is shot: with the units that its day can draw on, all of which
    stand in one order."""
    file = planned(file)
    narrow = day_shelf(file, shelf)
    found = [as_shot(one.setup, one.id, file.job, narrow, step, avoid) for one in file.setups]
    return [one for one in found if one is not None]


def shot_setup(
    file: JobFile,
    shelf: Shelf,
    setup_id: str,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    variant: str = "",
    on: date | None = None,
) -> AsShot:
    """One of a job's setups as it is shot, in one of its variants; on another day than its own. Raises CannotSolve
    where it has no method, ValueError where the job has no such setup."""
    file = planned(file)
    written = next((one.setup for one in file.setups if one.id == setup_id), None)
    if written is None:
        raise ValueError(f"no setup {setup_id} in the job")
    setup = in_job(written.in_variant(variant), None, on)
    found = as_shot(setup, setup_id, file.job, day_shelf(file, shelf), step, avoid)
    if found is None:
        raise CannotSolve("no_usable_unit")
    return found


def stands_as(
    setup: Setup, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> list[tuple[str, Setup, Standing | None]]:
    """A setup as it stands (its name empty), and as each of its variants: each with the method and units that it is
    compared by; None where it has no method."""
    named = [("", setup), *((one.name, setup.in_variant(one.name)) for one in setup.variants)]
    wide = with_copies(shelf, [one for _, one in named])
    out = list[tuple[str, Setup, Standing | None]]()
    for name, one in named:
        solved = solved_on(one, wide, step, avoid)
        kind = chosen_method(solved, avoid) if solved.kinds else None
        out.append((name, one, kind and Standing(solved, kind, units_for(solved, kind))))
    return out


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
