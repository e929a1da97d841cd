"""The log as files: JSON, and CSV that a spreadsheet shows and that can be read back whole."""

import csv
import io
from collections.abc import Mapping, Sequence

from pydantic import ValidationError

from ..core.scene.log import MOST, LogEntry, LogFile, LogLine
from ..words.problems import problems_of
from .documents import json_of
from .errors import Unreadable
from .shelf import unguarded
from .table import csv_of

MAX_BYTES = 12 * 2**20
HEADS = ["id", "when", "name", "setup", "light", "stops", "temperature", "flashes", "swapped", "aside", "note", "entry"]


def write_log(entries: Mapping[str, LogEntry]) -> str:
    """The log as JSON that `read_log` reads back whole."""
    lines = tuple(LogLine.model_construct(id=key, entry=entry) for key, entry in entries.items())
    return LogFile.model_construct(entries=lines).model_dump_json(indent=1) + "\n"


def write_log_csv(entries: Mapping[str, LogEntry]) -> str:
    """The log as a table; its last column holds each entry whole."""
    rows: list[Sequence[str]] = [HEADS]
    for key, one in entries.items():
        seen, was = one.seen, one.was
        rows.append(
            [
                key, f"{one.at:%Y-%m-%dT%H:%M:%S}", one.name, "" if was is None else was.name,
                "" if seen is None else str(seen.light + 1), "" if seen is None else f"{seen.stops:g}",
                "" if one.celsius is None else f"{one.celsius:g}", "" if one.flashes is None else str(one.flashes),
                one.swapped, "yes" if one.aside else "", one.note, one.model_dump_json(),
            ]
        )  # fmt: skip
    return csv_of(rows)


def read_log(data: bytes) -> list[tuple[str, LogEntry]]:
    """Entries with their ids from a JSON or CSV file's bytes. Raises Unreadable, naming what is wrong."""
    if len(data) > MAX_BYTES:
        raise Unreadable(f"A log of more than {MAX_BYTES // 2**20} MB cannot be right.")
    if data.lstrip()[:1] == b"{":
        try:
            file = LogFile.model_validate(json_of(data))
        except ValidationError as error:
            raise Unreadable(" ".join(problem.sentence for problem in problems_of(error, LogFile)[:5])) from None
        return [(line.id, line.entry) for line in file.entries]
    return _from_csv(data)


def _from_csv(data: bytes) -> list[tuple[str, LogEntry]]:
    csv.field_size_limit(2**20)
    try:
        rows = list(csv.DictReader(io.StringIO(data.decode("utf-8-sig"), newline=""), strict=True))
    except (UnicodeDecodeError, csv.Error) as error:
        raise Unreadable(f"The log is no table that can be read: {error}.") from None
    if not rows or "id" not in rows[0] or "entry" not in rows[0]:
        raise Unreadable("The log wants the columns id and entry, as it was exported.")
    if len(rows) > MOST:
        raise Unreadable(f"A log file holds {MOST:,} entries at the most.")
    out = []
    for number, row in enumerate(rows, 2):
        try:
            line = LogLine.model_validate({"id": row["id"], "entry": json_of(unguarded(row["entry"] or ""))})
        except ValidationError as error:
            raise Unreadable(f"Row {number}: {problems_of(error, LogLine)[0].sentence}") from None
        out.append((line.id, line.entry))
    return out
