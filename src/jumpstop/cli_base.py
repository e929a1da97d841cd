"""What all of the command line has in common: files in, JSON out, trouble in a sentence, a file whole or not at all."""

import json
import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from .core.kit.errors import JumpStopError

if TYPE_CHECKING:
    from .core.kit.unit import Unit
    from .formats.quantities import Kind

ShelfFile = Annotated[Path | None, typer.Option("--shelf", help="A shelf (CSV or JSON); without it, the demo's.")]


def quantity(text: str, kind: "Kind", name: str) -> float:
    """What a person wrote for an option. Raises JumpStopError with a sentence where it cannot be read as one figure."""
    from .formats.quantities import Asked, read
    from .words.figures import DisplayUnits
    from .words.quantities import refusal, said

    units = DisplayUnits()
    found = read(text, Asked(kind))
    if found.value is not None:
        return found.value
    if found.values:
        raise JumpStopError("option_can_be", name=name, text=text, may_be=[said(v, kind, units) for v in found.values])
    raise JumpStopError("said", sentence=refusal(found.why or "unknown", text, name, kind, units, (None, None), ""))


@contextmanager
def plainly() -> Iterator[None]:
    """What is the world's trouble is said in a sentence, with exit code 2; a bug keeps its traceback."""
    try:
        yield
    except JumpStopError as error:
        from .words.refusals import said

        typer.echo(f"jumpstop: {said(error)}", err=True)
        raise typer.Exit(2) from None
    except OSError as error:
        words = f"{error.filename}: {error.strerror}" if error.filename else str(error)
        typer.echo(f"jumpstop: {words}", err=True)
        raise typer.Exit(2) from None


def dump(out: Any) -> None:
    """An answer as JSON."""
    json.dump(out, sys.stdout, indent=1, ensure_ascii=False, allow_nan=False)
    sys.stdout.write("\n")


def read_units(path: Path | None) -> "list[Unit]":
    """The units of a shelf from a file, or the demo's. Raises JumpStopError."""
    from .demo import SHELF
    from .formats.shelf import read_shelf

    reading = read_shelf((path or SHELF).read_bytes())
    for problem in reading.problems:
        typer.echo(f"jumpstop: row {problem.row}, column {problem.column or '-'}: {problem.reason}", err=True)
    if not reading.units:
        raise JumpStopError("shelf_unreadable")
    return reading.units


def written_whole(path: Path, text: str) -> None:
    """A file, whole or not at all: written beside its place, and put there once the disk has it."""
    part = path.with_name(f".{path.name}.part")
    try:
        with part.open("w", encoding="utf-8", newline="") as out:
            out.write(text)
            out.flush()
            os.fsync(out.fileno())
        os.replace(part, path)
    finally:
        part.unlink(missing_ok=True)
