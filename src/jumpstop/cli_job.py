"""The command line for jobs: coverage, which kit, the day, each as JSON from a job document."""

from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, Literal

import typer

from .cli_solve import ShelfFile, dump, plainly, read_units
from .core.kit.errors import CannotSolve, JumpStopError

if TYPE_CHECKING:
    from .core.kit.table import UnitTable
    from .core.plan.board import Landings
    from .core.scene.job import JobFile

app = typer.Typer()
JobPath = Annotated[Path, typer.Argument(metavar="JOB.json", help="A job document; - reads from standard input.")]


@app.command()
def board(job: JobPath, shelf: ShelfFile = None) -> None:
    """The coverage: every unit against every light of every setup, and what the picked ones come to, as JSON."""
    from .core.plan.board import board_of
    from .words.board import board_text
    from .words.figures import DisplayUnits

    with plainly():
        file, landings, table = _landings(job, shelf)
        found = board_of(landings, table)
        dump(asdict(board_text(found, [one.id for one in file.setups], file.job, DisplayUnits())))


@app.command()
def kit(
    job: JobPath,
    shelf: ShelfFile = None,
    least: Annotated[Literal["weight", "price", "buy"] | None, typer.Option(help="What is to be least.")] = None,
) -> None:
    """The kit that covers all of it with the least weight, price or outlay, as JSON."""
    from .core.plan.kit_choice import choose_kit
    from .core.plan.moves import Bag
    from .words.figures import DisplayUnits
    from .words.kit_choice import given_up_text, kit_text

    with plainly():
        file, landings, table = _landings(job, shelf)
        wanted = file.job if least is None else file.job.model_copy(update={"least": least})
        chosen = choose_kit(landings, table, wanted.least, wanted.chance, wanted.spares)
        given_up = []
        if chosen.status == "none":
            given_up = given_up_text(landings, table, wanted, Bag(), DisplayUnits())
        dump(asdict(kit_text(chosen, landings, table, wanted, given_up, DisplayUnits())))


@app.command()
def day(
    job: JobPath,
    shelf: ShelfFile = None,
    runs: Annotated[int, typer.Option(min=0, max=100_000, help="Days that are tried; 0 for none.")] = 0,
    seed: Annotated[int, typer.Option(min=0, help="The same seed gives the same days.")] = 20260624,
) -> None:
    """The day: when what is shot, what gives out, what would help; with --runs how sure that is, as JSON."""
    from .core.plan.endurance import day_plan, spread_of
    from .words.day_plan import day_plan_text
    from .words.figures import DisplayUnits

    with plainly():
        file, _, table = _landings(job, shelf)
        plan = day_plan(file, table)
        spread = spread_of(plan, runs, seed) if runs else None
        out: dict[str, Any] = asdict(day_plan_text(plan, spread, DisplayUnits()))
        if spread is not None:
            out["spread"] = asdict(spread) | {"seed": seed}
        dump(out)


def _landings(job: Path, shelf: Path | None) -> "tuple[JobFile, list[Landings], UnitTable]":
    """A job's setups from a file solved for a shelf from a file. Raises JumpStopError with a sentence."""
    import sys

    from .core.kit.table import table_of
    from .core.plan.board import landings_of
    from .core.plan.reach import solve
    from .core.plan.worked_out import with_distances, with_units
    from .core.scene.job import in_wind
    from .formats.documents import read_job
    from .words.problems import cannot_solve

    file = read_job(sys.stdin.buffer.read() if str(job) == "-" else job.read_bytes())
    table = table_of(read_units(shelf))
    try:
        if not file.setups:
            raise CannotSolve("no_setups")
        for one in file.setups:
            table = with_units(table, one.setup)
        windy = [in_wind(one.setup, file.job.brief.wind_m_s) for one in file.setups]
        solved = [solve(with_distances(setup, table, "third"), table) for setup in windy]
    except CannotSolve as error:
        raise JumpStopError(cannot_solve(error)) from None
    return file, [landings_of(one) for one in solved], table
