"""The roster of a job as CSV, in and out; text from a file is data, in a spreadsheet too."""

import csv
import io
import uuid
from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError

from ..core.scene.job import Sitter
from ..words.problems import problems_of
from .errors import UnreadableFile
from .shelf import unguarded
from .table import csv_of

COLUMNS = ("name", "slot", "variant", "done", "files", "picks")
MAX_BYTES = 2 * 2**20
MOST = 2000
YES = frozenset({"yes", "true", "1", "y", "done", "x"})


def write_roster(sitters: Sequence[Sitter]) -> str:
    """The roster as a table."""
    rows = [
        [one.name, "" if one.slot is None else f"{one.slot:%H:%M}", one.variant,
         "yes" if one.done else "", one.files, one.picks]
        for one in sitters
    ]  # fmt: skip
    return csv_of([list(COLUMNS), *rows])


def read_roster(data: bytes) -> list[Sitter]:
    """Sitters from a table with a heading line; only the name must be there. Raises Unreadable, naming the row."""
    if len(data) > MAX_BYTES:
        raise UnreadableFile("roster_large", most=MAX_BYTES)
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise UnreadableFile("roster_not_text") from None
    first = text.split("\n", 1)[0]
    separator = max(",;\t", key=first.count)
    try:
        rows = list(csv.reader(io.StringIO(text), delimiter=separator, strict=True))
    except csv.Error as error:
        raise UnreadableFile("roster_no_table", why=str(error)) from None
    rows = [row for row in rows if any(cell.strip() for cell in row)]
    if not rows:
        raise UnreadableFile("roster_empty")
    heads = [cell.strip().lower() for cell in rows[0]]
    if "name" not in heads:
        raise UnreadableFile("roster_columns")
    if len(rows) - 1 > MOST:
        raise UnreadableFile("roster_long", most=MOST)
    return [_sitter(number, dict(zip(heads, row, strict=False))) for number, row in enumerate(rows[1:], 2)]


def with_known_ids(sitters: Sequence[Sitter], before: Sequence[Sitter]) -> tuple[Sitter, ...]:
    """Sitters read from a table, each known by the id of the one of that name before it; a new one by an id that none
    had, so that no change meant for another is made to it."""
    known: dict[str, list[str]] = {}
    for one in before:
        known.setdefault(one.name, []).append(one.id)
    ids = [known[one.name].pop(0) if known.get(one.name) else uuid.uuid4().hex for one in sitters]
    return tuple(one.model_copy(update={"id": own}) for one, own in zip(sitters, ids, strict=True))


def _sitter(number: int, cells: dict[str, str]) -> Sitter:
    found = {name: unguarded(cells.get(name, "")).strip() for name in COLUMNS}
    doc: dict[str, Any] = {name: value for name, value in found.items() if name not in ("slot", "done")}
    doc |= {"slot": found["slot"] or None, "done": found["done"].lower() in YES}
    try:
        return Sitter.model_validate(doc)
    except ValidationError as error:
        raise UnreadableFile("row_not_right", row=number, problem=problems_of(error, Sitter)[0]) from None
