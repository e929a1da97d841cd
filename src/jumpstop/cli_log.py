"""The command line for what comes back from location: learning from readings, test frames, cards."""

from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, Literal

import typer

from .cli_base import ShelfFile, dump, plainly, quantity, read_units, written_whole
from .cli_job import JobPath
from .core.kit.errors import JumpStopError

if TYPE_CHECKING:
    from .core.kit.learned import Learned

app = typer.Typer()


@app.command()
def learn(
    readings: Annotated[Path, typer.Argument(metavar="READINGS.json", help="A log, JSON or CSV; - reads from input.")],
    shelf: ShelfFile = None,
    covariance: Annotated[bool, typer.Option("--covariance", help="With the covariance of all things.")] = False,
) -> None:
    """What all readings together teach of units, modifiers, layers, HSS, filters and curtains, as JSON."""
    import sys

    from .core.kit.table import table_of
    from .core.plan.learn.learning import learn as learned_from
    from .formats.log import read_log
    from .words.things import names_of, thing_words

    with plainly():
        entries = dict(read_log(sys.stdin.buffer.read() if str(readings) == "-" else readings.read_bytes()))
        table = table_of(read_units(shelf))
        found = learned_from(list(entries.values()), table)
        names = names_of(entries.values(), table)
        things = [
            {
                "thing": list(key), "name": thing_words(key, names), "prior_sd": _round(found.learned.prior_sd[at]),
                "mean": _round(found.learned.mean[at]), "sd": _round(found.learned.sd[at]),
                "readings": [key_of for key_of, one in zip(entries, found.found, strict=True) if key in one.of],
            }
            for key, at in found.learned.places.items()
        ]  # fmt: skip
        lines = [
            {"id": key, "off": _round(one.off), "apart": _round(one.apart), "sds": _round(one.times), "odd": one.odd}
            for key, one in zip(entries, found.found, strict=True)
        ]
        out: dict[str, Any] = {"things": things, "readings": lines}
        if covariance:
            out["covariance"] = _matrix(found.learned)
        dump(out)


def _round(figure: float | None) -> float | None:
    return None if figure is None else round(float(figure), 4)


def _matrix(learned: "Learned") -> list[list[float]]:
    return [[round(float(one), 6) for one in row] for row in learned.covariance]


@app.command()
def frame(
    file: Annotated[Path, typer.Argument(metavar="FILE.jpg", help="A test frame; it is read, and not kept.")],
    patch: Annotated[
        str, typer.Option(help="x,y,w,h: shares of the frame (.45), per cent (45%), or pixels (2400px).")
    ] = "0.45,0.45,0.1,0.1",
    of: Annotated[Literal["grey", "white", "skin", "dark_skin"], typer.Option(help="What the patch is.")] = "grey",
    ambient: Annotated[str, typer.Option(help="The patch's stops in a frame without flash, as in -2 or 2 under.")] = "",
) -> None:
    """How many stops a patch of a frame lies from where it belongs, what is clipped, how it was taken, as JSON."""
    from .formats.frame import Patch, read_frame
    from .words.frame import frame_text

    with plainly():
        data = file.read_bytes()
        x, y, w, h = _patch(patch, data)
        dark = quantity(ambient, "level", "Ambient") if ambient else None
        found = read_frame(data, Patch(x, y, w, h))
        clipped, settings = (found.patch_clipped, found.frame_clipped), (found.f_number, found.shutter_s, found.iso)
        wall = (found.lit, found.dark_edge)
        text = frame_text(
            found.luminance, found.rgb, clipped, settings, found.flash, found.taken, of, dark, wall, found.profile
        )
        dump(asdict(text))


def _patch(text: str, data: bytes) -> list[float]:
    """Left, top, width and height as shares of a frame, from shares, per cent or pixels. Raises JumpStopError."""
    from .formats.frame import size_of

    parts = [part.strip() for part in text.split(",")]
    if len(parts) != 4:
        raise JumpStopError("patch_of_four")
    across, up = size_of(data) if any(part.endswith("px") for part in parts) else (1, 1)
    out = []
    for part, whole in zip(parts, (across, up, across, up), strict=True):
        divided = 100 if part.endswith("%") else whole if part.endswith("px") else 1
        try:
            out.append(float(part.removesuffix("%").removesuffix("px")) / divided)
        except ValueError:
            raise JumpStopError("patch_of_figures", text=part) from None
    if not all(0 <= share <= 1 for share in out):
        raise JumpStopError("patch_outside")
    return out


@app.command()
def cards(
    job: JobPath,
    html: Annotated[Path, typer.Option("--html", help="File to write.")],
    shelf: ShelfFile = None,
) -> None:
    """Write the cards of a job as one page that opens without a network."""
    import sys
    from datetime import datetime

    from . import service
    from .core.kit.shelf import Shelf
    from .core.scene.log import LogEntry
    from .formats.cards_page import cards_page
    from .formats.documents import read_job
    from .words.cards import cards_of
    from .words.figures import DisplayUnits

    with plainly():
        file = read_job(sys.stdin.buffer.read() if str(job) == "-" else job.read_bytes())
        now = datetime.now().replace(microsecond=0)
        plans = service.cards(file, Shelf(read_units(shelf)))
        found = cards_of(plans, None, file.job, DisplayUnits(), LogEntry(at=now))
        page = cards_page(file.job.name, found, f"{now:%d %b %Y, %H:%M}")
        written_whole(html, page)
        typer.echo(f"{len(found)} cards written to {html}.")
