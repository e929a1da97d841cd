"""The log as files: JSON, and CSV that a spreadsheet shows and that can be read back whole."""

import csv
import io
import json
from collections.abc import Iterable, Iterator, Mapping

from pydantic import ValidationError

from ..core.scene.log import MOST_ENTRIES, LogEntry, LogFile, LogLine
from ..core.scene.parts import PART, Parts
from ..words.problems import problems_of
from .documents import MAX_FILE_BYTES, json_of
from .errors import UnreadableFile
from .shelf import unguarded
from .table import csv_of

MAX_BYTES = MAX_FILE_BYTES  # more than a log of as many entries as there may be comes to
HEADS = ["id", "when", "name", "setup", "light", "stops", "temperature", "flashes", "swapped", "aside", "note", "entry"]
ROWS = 500  # that are written together
PART_ROW = "(part)"  # in place of a name: the row holds what entries hold alike, by its key

Written = Iterable[tuple[str, str]]
"""Ids, and entries as JSON, packed (see `core.scene.parts`)."""


def write_log(entries: Written, parts: Mapping[str, str]) -> Iterator[str]:
    """The log as JSON that `read_log` reads back whole, piece by piece. parts: as JSON, by their keys."""
    yield '{"format":"jumpstop-readings","version":2,\n"parts":{'
    yield ",".join(f"\n{json.dumps(key)}:{part}" for key, part in parts.items())
    yield '},\n"entries":['
    for number, (key, entry) in enumerate(entries):
        yield f'{"," if number else ""}\n{{"id":{json.dumps(key)},"entry":{entry}}}'
    yield "\n]}\n"


def write_log_csv(entries: Written, parts: Mapping[str, str]) -> Iterator[str]:
    """The log as a table, piece by piece; its last column holds each entry, rows at its end what they hold alike."""
    names = {key: json.loads(part).get("name", "") for key, part in parts.items()}
    rows = [HEADS]
    for key, text in entries:
        one = json.loads(text)
        seen, was = one["seen"], one["was"]
        rows.append(
            [
                key, one["at"], one["name"], names.get(was[PART], "") if was else "",
                str(seen["light"] + 1) if seen else "", f"{seen['stops']:g}" if seen else "",
                _said(one["celsius"]), _said(one["flashes"]), one["swapped"], "yes" if one["aside"] else "",
                one["note"], text,
            ]
        )  # fmt: skip
        if len(rows) >= ROWS:
            yield csv_of(rows)
            rows = []
    yield csv_of([*rows, *([key, "", PART_ROW, *[""] * (len(HEADS) - 4), part] for key, part in parts.items())])


def _said(figure: float | None) -> str:
    return "" if figure is None else f"{figure:g}"


def read_log(data: bytes) -> list[tuple[str, LogEntry]]:
    """Entries with their ids from a JSON or CSV file's bytes. Raises Unreadable, naming what is wrong."""
    if len(data) > MAX_BYTES:
        raise UnreadableFile("log_large", most=MAX_BYTES)
    if data.lstrip()[:1] != b"{":
        return _from_csv(data)
    file = json_of(data)
    entries, parts = file.get("entries"), file.get("parts", {})
    if isinstance(entries, list) and len(entries) > MOST_ENTRIES:
        raise UnreadableFile("log_long", most=MOST_ENTRIES)
    read = Parts()
    if isinstance(entries, list) and isinstance(parts, dict):
        whole = [
            one | {"entry": read.whole(one.get("entry"), parts)} if isinstance(one, dict) else one for one in entries
        ]
        file = file | {"entries": whole}
    try:
        found = LogFile.model_validate(file)
    except ValidationError as error:
        raise UnreadableFile("not_right", problems=problems_of(error, LogFile)[:5]) from None
    return [(line.id, line.entry) for line in found.entries]


def _from_csv(data: bytes) -> list[tuple[str, LogEntry]]:
    csv.field_size_limit(2**20)
    try:
        rows = list(csv.DictReader(io.StringIO(data.decode("utf-8-sig"), newline=""), strict=True))
    except (UnicodeDecodeError, csv.Error) as error:
        raise UnreadableFile("log_no_table", why=str(error)) from None
    if not rows or "id" not in rows[0] or "entry" not in rows[0]:
        raise UnreadableFile("log_columns")
    parts = {row["id"]: json_of(unguarded(row["entry"] or "")) for row in rows if row.get("name") == PART_ROW}
    entries = [(at, row) for at, row in enumerate(rows, 2) if row.get("name") != PART_ROW]
    if len(entries) > MOST_ENTRIES:
        raise UnreadableFile("log_long", most=MOST_ENTRIES)
    out, read = [], Parts()
    for number, row in entries:
        try:
            entry = read.whole(json_of(unguarded(row["entry"] or "")), parts)
            line = LogLine.model_validate({"id": row["id"], "entry": entry})
        except ValidationError as error:
            raise UnreadableFile("row_not_right", row=number, problem=problems_of(error, LogLine)[0]) from None
        out.append((line.id, line.entry))
    return out
