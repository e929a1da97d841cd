"""The command line for practice: a job's day that plays itself, into a log or into a server that runs."""

import json
import time
import urllib.error
import urllib.parse
import urllib.request
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from .cli_base import ShelfFile, dump, plainly, read_units, written_whole
from .cli_job import JobPath
from .core.kit.errors import JumpStopError

if TYPE_CHECKING:
    from .core.scene.log import LogEntry
    from .standins.location import Noted, PlayedDay

app = typer.Typer()
HERE = "http://127.0.0.1:8614"
TRIES, PAUSE_S, WAIT_S = 5, 0.5, 20.0


@app.command()
def simulate(
    job: JobPath,
    shelf: ShelfFile = None,
    seed: Annotated[int, typer.Option(min=0, max=2**31 - 1, help="The same seed plays the same day.")] = 1,
    speed: Annotated[
        float | None, typer.Option(min=0.1, max=1e9, help="Play live, so many times as fast, into a running server.")
    ] = None,
    to: Annotated[str, typer.Option(help="That server's address.")] = HERE,
    token: Annotated[str, typer.Option(envvar="JUMPSTOP_TOKEN", help="Its token for a script, if it asks.")] = "",
    of: Annotated[str | None, typer.Option("--job", help="The job's id there, under which the log shows it.")] = None,
    log: Annotated[Path | None, typer.Option(help="Write the log to this file (JSON).")] = None,
) -> None:
    """A made-up photographer works through a job, with hidden truths: what the log gets, what it teaches, as JSON."""
    import sys

    from .core.kit.shelf import Shelf
    from .formats.documents import read_job
    from .standins.location import play_day
    from .words.simulate import entry_of, played_text

    with plainly():
        file = read_job(sys.stdin.buffer.read() if str(job) == "-" else job.read_bytes())
        names = {one.id: one.setup.name for one in file.setups}
        played = play_day(file, Shelf(read_units(shelf)), seed)
        entries = [(one.id, entry_of(one, names, of)) for one in played.noted]
        if log is not None:
            _write(log, entries)
        if speed is not None:
            _live(played, entries, speed, to.rstrip("/"), token)
        dump(asdict(played_text(played, names)))


def _write(path: Path, entries: "list[tuple[str, LogEntry]]") -> None:
    """The log as a file that can be taken in, whole or not at all."""
    from .core.scene.parts import packed_all
    from .formats.log import write_log

    docs, parts = packed_all(entry for _, entry in entries)
    lines = zip((key for key, _ in entries), (json.dumps(doc, ensure_ascii=False) for doc in docs), strict=True)
    held = {key: json.dumps(one, ensure_ascii=False) for key, one in parts.items()}
    written_whole(path, "".join(write_log(lines, held)))


def _live(played: "PlayedDay", entries: "list[tuple[str, LogEntry]]", speed: float, to: str, token: str) -> None:
    """Each entry at its time, into a server that runs: sent until it is known to be kept, and kept once."""
    began, first = time.monotonic(), min((one.second for one in played.noted), default=0.0)
    for one, (key, entry) in zip(played.noted, entries, strict=True):
        time.sleep(max(0.0, (one.second - first) / speed - (time.monotonic() - began)))
        entry = _as_read(one, entry, to, token)
        says = post(f"{to}/api/log/keep/{key}", json.dumps(entry.model_dump(mode="json")).encode(), token)["says"]
        typer.echo(f"{entry.at:%H:%M} {entry.name}: {says}", err=True)


def _as_read(one: "Noted", entry: "LogEntry", to: str, token: str) -> "LogEntry":
    """An entry whose test frame is read by the server that it goes to, as a person's own are."""
    taken = one.shot()
    if taken is None or entry.seen is None:
        return entry
    shot, card = taken
    asked = urllib.parse.urlencode({"x": card.x, "y": card.y, "w": card.w, "h": card.h, "of": "grey"})
    found = post(f"{to}/api/frame?{asked}", shot.jpeg, token, "image/jpeg")
    level = found["level"]
    if level is None or found["patch_clipped"]:
        return entry
    seen = entry.seen.model_copy(update={"stops": round(level - entry.seen.wanted_stops, 3)})
    return entry.model_copy(update={"seen": seen})


def post(url: str, data: bytes, token: str = "", kind: str = "application/json") -> dict[str, Any]:
    """Send data; again for a while where the server is busy or away. Raises JumpStopError with a sentence."""
    if not url.startswith(("http://", "https://")):
        raise JumpStopError("no_address", url=url)
    headers = {"content-type": kind} | ({"authorization": f"Bearer {token}"} if token else {})
    for turn in range(TRIES):
        try:
            request = urllib.request.Request(url, data, headers)
            with urllib.request.urlopen(request, timeout=WAIT_S) as answer:
                found: dict[str, Any] = json.load(answer)
                return found
        except urllib.error.HTTPError as error:
            if error.code != 503 or turn == TRIES - 1:
                raise JumpStopError("server_refuses", url=url, status=error.code, why=_sentence(error)) from None
        except (urllib.error.URLError, TimeoutError) as error:
            if turn == TRIES - 1:
                raise JumpStopError("server_silent", url=url, why=getattr(error, "reason", error)) from None
        time.sleep(PAUSE_S)
    raise JumpStopError("server_silent", url=url, why="")


def _sentence(error: urllib.error.HTTPError) -> str:
    """What a server says of a refusal."""
    try:
        return " ".join(one["sentence"] for one in json.load(error)["problems"])
    except (ValueError, KeyError, TypeError):
        return error.reason
