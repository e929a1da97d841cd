"""The command line: serve, demo, solve, import, export, backup."""

import json
import os
import socket
import sys
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

if TYPE_CHECKING:
    from .core.flash import Unit
    from .core.reach import Solved
    from .core.setup import Setup
    from .core.table import Table

app = typer.Typer(
    help="Plan flash in stops.", no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False
)

Data = Annotated[Path, typer.Option("--data", envvar="JUMPSTOP_DATA", help="Folder that holds the data.")]
HOME = Path.home() / ".local" / "share" / "jumpstop"
DEMO = Path("demo-data")


def _refuse(error: Exception) -> typer.Exit:
    typer.echo(f"jumpstop: {error}", err=True)
    return typer.Exit(2)


def _listen(host: str, port: int) -> socket.socket:
    """A socket that takes callers from now on, so that the address said is good at once; port 0 is any free one."""
    listening = socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
    except OSError as error:
        raise _refuse(ValueError(f"port {port} on {host} cannot be had ({error.strerror}).")) from None
    listening.listen(128)
    return listening


def _serve(folder: Path, host: str, port: int, allow: tuple[str, ...] = ()) -> None:
    import uvicorn

    from .api.app import LOCAL_HOSTS, create_app

    try:
        application = create_app(folder, LOCAL_HOSTS | frozenset(allow) | {host})
    except ValueError as error:
        raise _refuse(error) from None
    listening = _listen(host, port)
    shown = f"[{host}]" if ":" in host else host
    address = f"http://{shown}:{listening.getsockname()[1]}/"
    typer.echo(f"Jump Stop is at {address}  (data in {folder}; stop with Ctrl+C)")
    uvicorn.Server(uvicorn.Config(application, log_level="warning")).run(sockets=[listening])


@app.command()
def serve(
    data: Data = HOME,
    host: Annotated[str, typer.Option(help="Address to listen on; only this machine by default.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="Port; 0 takes a free one.")] = 8614,
    allow_host: Annotated[list[str] | None, typer.Option(help="Another host name this server answers to.")] = None,
) -> None:
    """Run the application on your own data."""
    _serve(data, host, port, tuple(allow_host or ()))


@app.command()
def demo(
    data: Data = DEMO,
    port: Annotated[int, typer.Option(help="Port; 0 takes a free one.")] = 0,
    reset: Annotated[bool, typer.Option("--reset", help="Start afresh; what was changed is lost.")] = False,
) -> None:
    """Run the application on the invented kite week; what you change is kept for the next time."""
    from .demo import fill
    from .store.database import FILE
    from .store.documents import Store

    if reset:
        for name in (FILE, f"{FILE}-wal", f"{FILE}-shm"):
            (data / name).unlink(missing_ok=True)
    try:
        store = Store(data)
        fill(store)
        store.close()
    except (ValueError, OSError) as error:
        raise _refuse(error) from None
    _serve(data, "127.0.0.1", port)


@app.command()
def solve(
    setup: Annotated[Path, typer.Argument(help="A setup document (JSON); - reads standard input.")],
    shelf: Annotated[Path | None, typer.Option(help="A shelf (CSV or JSON); without it, the demo's.")] = None,
    light: Annotated[int, typer.Option(help="Which light of the setup, from 0.")] = 0,
    table: Annotated[bool, typer.Option("--table", help="Print a table instead of JSON.")] = False,
) -> None:
    """Solve one setup for every unit of a shelf in every way."""
    from .core.reach import solve as solve_all
    from .core.table import table_of
    from .formats.documents import read_setup

    try:
        document = read_setup(sys.stdin.buffer.read() if str(setup) == "-" else setup.read_bytes())
        units = _read_shelf(shelf)
        arrays = table_of(units, document.meter_c)
        solved = solve_all(document, arrays, light)
    except (ValueError, OSError) as error:
        raise _refuse(error) from None
    if table:
        _print_table(document, solved, arrays)
    else:
        _print_json(document, solved, arrays)


def _read_shelf(path: Path | None) -> "list[Unit]":
    from .demo import SHELF
    from .formats.shelf import read_shelf

    reading = read_shelf((path or SHELF).read_bytes())
    for problem in reading.problems:
        typer.echo(f"jumpstop: row {problem.row}, column {problem.column or '-'}: {problem.reason}", err=True)
    if not reading.units:
        raise ValueError("The shelf holds no unit that can be read.")
    return reading.units


def _print_json(document: "Setup", solved: "Solved", arrays: "Table") -> None:
    from .core.wording import Manner
    from .formats.answer import answer_of
    from .formats.lanes import lanes_of, steps_of

    names = [unit.name for unit in arrays.units]
    answer = answer_of(document, solved, arrays, names, Manner())
    ways = [
        card.model_dump()
        | {
            "units": [
                {name: value for name, value in asdict(lane).items() if name != "id"}
                | {"chain": [asdict(step) for step in steps_of(reach, i, Manner())]}
                for reach in [solved.reaches[card.kind]]
                for i, lane in enumerate(lanes_of(reach, arrays, names, Manner()))
            ]
            if card.possible
            else []
        }
        for card in answer.ways
    ]
    out = {
        "setup": document.name,
        "headline": answer.headline,
        "chosen": answer.chosen,
        "advised": answer.advised,
        "ambient": answer.ambient.model_dump(),
        "ways": ways,
    }
    json.dump(out, sys.stdout, indent=1, ensure_ascii=False, allow_nan=False)
    sys.stdout.write("\n")


def _print_table(document: "Setup", solved: "Solved", arrays: "Table") -> None:
    from .core.wording import Manner
    from .formats.answer import answer_of
    from .formats.lanes import lanes_of

    names = [unit.name for unit in arrays.units]
    answer = answer_of(document, solved, arrays, names, Manner())
    typer.echo(answer.headline)
    for card in answer.ways:
        camera = card.camera
        typer.echo(f"\n{card.title}: {camera.aperture}  {camera.shutter}  {camera.iso}  {camera.nd}".rstrip())
        if not card.possible:
            typer.echo(f"  cannot be: {card.reason}")
            continue
        reach = solved.reaches[card.kind]
        lanes = lanes_of(reach, arrays, names, Manner())
        for i in reach.best_first():
            lane = lanes[i]
            flashes = "mains" if lane.mains else "-" if lane.flashes is None else f"{lane.flashes} a charge"
            typer.echo(
                f"  {lane.name:24.24} {lane.verdict:28} ±{lane.sd:.1f}  {lane.dial:12} {lane.ready:10} {flashes}"
            )


@app.command("import")
def import_(
    file: Annotated[Path, typer.Argument(help="A shelf, CSV or JSON.")],
    data: Data = HOME,
    yes: Annotated[bool, typer.Option("--yes", help="Write the good rows even if others are bad.")] = False,
) -> None:
    """Add units from a file; bad rows are named, and nothing is written unless all are good or --yes is given."""
    from .formats.shelf import read_shelf
    from .store.documents import Store

    try:
        reading = read_shelf(file.read_bytes())
        for problem in reading.problems:
            typer.echo(f"row {problem.row}, column {problem.column or '-'}: {problem.reason}", err=True)
        if reading.unknown_columns:
            typer.echo(f"not read: columns {', '.join(reading.unknown_columns)}", err=True)
        if not reading.units or (reading.problems and not yes):
            raise ValueError(f"{len(reading.units)} rows are good; nothing was written. Add --yes to take those.")
        store = Store(data)
        docs = [unit.model_dump(mode="json") for unit in reading.units]
        store.add("units", docs, f"Import {len(docs):,} units")
        store.close()
    except (ValueError, OSError) as error:
        raise _refuse(error) from None
    typer.echo(f"{len(reading.units)} units added.")


@app.command()
def export(
    file: Annotated[Path, typer.Argument(help="File to write; its ending says CSV or JSON.")], data: Data = HOME
) -> None:
    """Write the shelf to a file."""
    from .core.flash import Unit
    from .formats.shelf import write_csv, write_json
    from .store.documents import Store

    try:
        if file.suffix.lower() not in (".csv", ".json"):
            raise ValueError("The file must end in .csv or .json.")
        store = Store(data)
        units = [Unit.model_validate(item.doc) for item in store.items("units")]
        store.close()
        text = write_json(units) if file.suffix.lower() == ".json" else write_csv(units)
        file.write_text(text, encoding="utf-8", newline="")
    except (ValueError, OSError) as error:
        raise _refuse(error) from None
    typer.echo(f"{len(units)} units written to {file}.")


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="File to write.")], data: Data = HOME) -> None:
    """Copy the data file whole, safely while the application runs."""
    from .store.database import FILE
    from .store.database import backup as copy

    if not (data / FILE).exists():
        raise _refuse(ValueError(f"There is no data in {data}."))
    if file.exists():
        raise _refuse(ValueError(f"{file} is there already; name another."))
    part = file.with_name(f"{file.name}.part")
    copy(data / FILE, part)
    os.replace(part, file)
    typer.echo(f"Copied to {file}.")


if __name__ == "__main__":
    app()
