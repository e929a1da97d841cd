"""The command line, what kit is: a maker's specification read."""

import sys
from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer

from .cli_base import dump, plainly
from .core.kit.errors import JumpStopError

app = typer.Typer()
STDIN = Path("-")


@app.command("read-spec")
def read_spec(
    file: Annotated[Path, typer.Argument(help="A text file of what a maker prints; - reads what is piped in.")],
) -> None:
    """Read a pasted specification; prints each unit as JSON, what is wrong with it, and the lines not understood."""
    from .formats.spec import read_spec as read
    from .words.figures import DisplayUnits
    from .words.printed import spec_unit

    with plainly():
        text = sys.stdin.read() if file == STDIN else file.read_text(encoding="utf-8", errors="replace")
        found = [spec_unit(one, {}, (), "", DisplayUnits()) for one in read(text)]
        if not any(one.rows for one in found):
            raise JumpStopError("nothing_understood")
        dump(
            [
                {
                    "unit": one.doc,
                    "fields": [
                        {key: row[key] for key in ("name", "says", "line", "choices")} for row in map(asdict, one.rows)
                    ],
                    "judged": one.judged,
                    "wants": one.wants,
                    "not_understood": one.unread,
                }
                for one in found
            ]
        )


@app.command()
def need(
    file: Annotated[Path, typer.Argument(metavar="SETUP|JOB.json", help="A setup or a job; - reads what is piped in.")],
    light: Annotated[int, typer.Option(min=1, help="Which light of a setup.")] = 1,
    as_text: Annotated[bool, typer.Option("--text", help="A job's request as plain text, to be sent.")] = False,
) -> None:
    """What a picture needs, or a whole job asks for, without any unit: as JSON, or a request as text."""
    from . import service
    from .formats.documents import is_job, read_job, read_setup
    from .typical import typical_shelf
    from .words.figures import DisplayUnits
    from .words.need import needs_text, request_text

    with plainly():
        data = sys.stdin.buffer.read() if file == STDIN else file.read_bytes()
        units, classes = DisplayUnits(), typical_shelf()
        if is_job(data):
            job = read_job(data)
            found = request_text(job.job.name, service.request(job, classes), classes.table, units)
            if as_text:
                typer.echo(found.text, nl=False)
            else:
                dump(asdict(found))
        else:
            setup = read_setup(data)
            solved, chosen = service.need(setup, light - 1)
            dump(asdict(needs_text(solved, light - 1, chosen, classes.at(setup.meter_c), units)))
