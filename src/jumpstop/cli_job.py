"""The command line for jobs: coverage, which kit, the day, each as JSON from a job document."""

from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, Literal

import typer

from .cli_base import ShelfFile, dump, plainly, read_units

if TYPE_CHECKING:
    from .core.kit.shelf import Shelf
    from .core.scene.job import JobFile

app = typer.Typer()
JobPath = Annotated[Path, typer.Argument(metavar="JOB.json", help="A job document; - reads from standard input.")]


@app.command()
def board(job: JobPath, shelf: ShelfFile = None) -> None:
    """The coverage: every unit against every light of every setup, and what the picked ones come to, as JSON."""
    from . import service
    from .words.board import board_text
    from .words.figures import DisplayUnits

    with plainly():
        file, units = _read(job, shelf)
        ids = [one.id for one in file.setups]
        dump(asdict(board_text(service.coverage(file, units), ids, file.job, DisplayUnits())))


@app.command()
def kit(
    job: JobPath,
    shelf: ShelfFile = None,
    least: Annotated[Literal["weight", "price", "buy"] | None, typer.Option(help="What is to be least.")] = None,
) -> None:
    """The kit that covers all of it with the least weight, price or outlay, as JSON."""
    from . import service
    from .words.figures import DisplayUnits
    from .words.kit_choice import kit_text

    with plainly():
        dump(asdict(kit_text(service.kit(*_read(job, shelf), least=least), DisplayUnits())))


@app.command()
def day(
    job: JobPath,
    shelf: ShelfFile = None,
    runs: Annotated[int, typer.Option(min=0, max=100_000, help="Days that are tried; 0 for none.")] = 0,
    seed: Annotated[int, typer.Option(min=0, help="The same seed gives the same days.")] = 20260624,
) -> None:
    """The day: when what is shot, what gives out, what would help; with --runs how sure that is, as JSON."""
    from . import service
    from .core.plan.job.endurance import spread_of
    from .words.day_plan import day_plan_text
    from .words.figures import DisplayUnits

    with plainly():
        plan = service.day(*_read(job, shelf))
        spread = spread_of(plan, runs, seed) if runs else None
        out: dict[str, Any] = asdict(day_plan_text(plan, spread, DisplayUnits()))
        if spread is not None:
            out["spread"] = asdict(spread) | {"seed": seed}
        dump(out)


def _read(job: Path, shelf: Path | None) -> "tuple[JobFile, Shelf]":
    """A job and a shelf from files. Raises JumpStopError with a sentence."""
    import sys

    from .core.kit.shelf import Shelf
    from .formats.documents import read_job

    return read_job(sys.stdin.buffer.read() if str(job) == "-" else job.read_bytes()), Shelf(read_units(shelf))
