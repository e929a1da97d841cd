"""The command line, what kit is: a maker's specification read."""

import sys
from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer

from .cli_solve import dump, plainly
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
            raise JumpStopError("Nothing in it was understood.")
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
