"""A shelf of units as a file: CSV for spreadsheets, JSON for exact copies. What one writes, it reads back whole."""

import csv
import io
import json
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from pydantic import ValidationError

from ..core.kit.unit import Claim, Unit
from ..core.scene.versions import UNIT_V1, unit_of_any_version
from ..words.kit import printed
from ..words.problems import Problem, problems_of
from ..words.refusals import sentence
from .documents import MAX_FILE_BYTES, MAX_UNITS, json_of
from .errors import UnreadableFile
from .guide_number import parse_guide_number
from .quantities import Asked, Kind, Sign, read

MAX_BYTES = MAX_FILE_BYTES  # three times what all units of a shelf may take: JSON in cells doubles its quotes
MAX_COLUMNS = 200
MAX_LINE = 500_000  # characters between two line ends
MAX_CELL = 200_000
LISTED = 200  # so many bad rows are listed with their problems; the rest are counted

PLAIN = ("name", "kind", "watt_seconds", "zoom_min_mm", "zoom_max_mm", "shoe", "takes_modifiers", "weight_g", "head_g",
         "price", "holding", "count", "note")  # fmt: skip
SCALE = {
    "power_scale": "kind",
    "power_lowest": "lowest",
    "power_step_stops": "step_stops",
    "power_top_number": "top_number",
}
NESTED = ("claims", "power_supplies", "hss", "flash_duration", "heat")
SEPARATE = ("gn", "gn_unit", "gn_iso", "gn_zoom_mm", "gn_coverage_deg")
SIMPLE_SUPPLY = ("power_supply", "power_source", "recycle_full_s", "full_flashes")
READ_COLUMNS = (*PLAIN, *SCALE, "guide_number", *SEPARATE, *SIMPLE_SUPPLY, "hss_extra_stops", *NESTED, *UNIT_V1)
WRITTEN_COLUMNS = (*PLAIN, *SCALE, "guide_number", *NESTED)
KINDS: dict[str, Kind] = {
    "watt_seconds": "energy", "zoom_min_mm": "focal", "zoom_max_mm": "focal", "weight_g": "weight", "head_g": "weight",
    "price": "money", "count": "count", "gn": "number", "gn_iso": "iso", "gn_zoom_mm": "focal",
    "gn_coverage_deg": "degrees", "hss_extra_stops": "level", "recycle_full_s": "seconds", "full_flashes": "count",
    "power_lowest": "power", "power_step_stops": "level", "power_top_number": "number",
}  # fmt: skip
"""What kind of quantity a column holds, by which a cell is read that is no plain number."""
PLAIN_NUMBER = re.compile(r"-?\d+(\.\d+)?([eE][+-]?\d+)?")
YES, NO = {"yes", "true", "1", "y"}, {"no", "false", "0", "n"}

# Where a spreadsheet would begin a cell (at the start, or behind a separator of some locale) and run it as a formula;
# an apostrophe goes there, and an apostrophe that stands there already is doubled, so that reading takes off just one.
SEPARATORS = ";\t\r\n"
STARTS = r"'=+\-@＝＋－＠\t\r"  # what a spreadsheet takes for the start of a formula, full-width signs too
FORMULA = re.compile(rf"(^|[;\t\r\n])([ \"]*)(?=[{STARTS}])")
GUARDED = re.compile(rf"(^|[;\t\r\n])([ \"]*)'(?=[{STARTS}])")


@dataclass(frozen=True)
class RowProblem:
    """What is wrong with one row: its number in the file (the header is row 1), the column, the reason."""

    row: int
    column: str
    reason: str


@dataclass
class ShelfRead:
    """What a file holds: the good units, how many rows are bad and what is wrong with the first of them, and columns
    that were not known and so not read."""

    units: list[Unit] = field(default_factory=list)
    bad: int = 0
    problems: list[RowProblem] = field(default_factory=list)
    unknown_columns: list[str] = field(default_factory=list)

    def refuse(self, row: int, problems: Iterable[tuple[str, str]]) -> None:
        """Count a bad row, and list what is wrong with it while there is room: (column, reason)."""
        self.bad += 1
        if self.bad <= LISTED:
            self.problems += [RowProblem(row, column, reason) for column, reason in problems]


def read_shelf(data: bytes, kind: Literal["csv", "json"] | None = None, sign: Sign = "") -> ShelfRead:
    """Units from a file's bytes. sign: the decimal sign of who wrote it, where it is known. Raises Unreadable with a
    sentence where the file as a whole cannot be read."""
    if len(data) > MAX_BYTES:
        raise UnreadableFile("shelf_large", most=MAX_BYTES)
    if b"\x00" in data[:65536]:
        raise UnreadableFile("shelf_not_text")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise UnreadableFile("shelf_not_utf8", byte=error.start + 1) from None
    if not text.strip():
        raise UnreadableFile("file_empty")
    if kind is None:
        kind = "json" if text.lstrip()[0] in "{[" else "csv"
    return _read_json(text) if kind == "json" else _read_csv(text, sign)


def _read_json(text: str) -> ShelfRead:
    document = json_of(text)
    rows = document.get("units") if isinstance(document, dict) else document
    if isinstance(document, dict) and document.get("format") != "jumpstop-shelf":
        raise UnreadableFile("shelf_of_another_format")
    if isinstance(document, dict) and document.get("version") not in (1, 2):
        raise UnreadableFile("shelf_of_another_version")
    if not isinstance(rows, list):
        raise UnreadableFile("shelf_without_units")
    _count(len(rows))
    reading = ShelfRead()
    for number, row in enumerate(rows, 1):
        _take(reading, number, row)
    return reading


def _read_csv(text: str, sign: Sign) -> ShelfRead:
    csv.field_size_limit(MAX_CELL)
    if max(map(len, text.split("\n"))) > MAX_LINE:
        raise UnreadableFile("shelf_line_long", most=MAX_LINE)
    header_line = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=header_line.count)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    reading, header = ShelfRead(), None
    try:
        for rows, cells in enumerate(reader):
            if header is None:
                header = _header(cells)
                reading.unknown_columns = [column for column in header if column and column not in READ_COLUMNS]
                continue
            _count(rows)
            _take_cells(reading, reader.line_num, header, cells, sign)
    except csv.Error as error:
        raise UnreadableFile("shelf_not_csv", line=reader.line_num, why=str(error)) from None
    return reading


def _header(cells: list[str]) -> list[str]:
    """The columns' names. Raises Unreadable where they cannot be those of a shelf."""
    if len(cells) > MAX_COLUMNS:
        raise UnreadableFile("shelf_wide", columns=len(cells), most=MAX_COLUMNS)
    header = [cell.strip().lower().replace(" ", "_") for cell in cells]
    if "name" not in header:
        raise UnreadableFile("shelf_columns", known=READ_COLUMNS)
    doubled = sorted(column for column in set(header) if column and header.count(column) > 1)
    if doubled:
        raise UnreadableFile("shelf_column_twice", column=doubled[0])
    return header


def _take_cells(reading: ShelfRead, number: int, header: list[str], cells: list[str], sign: Sign) -> None:
    if not any(cell.strip() for cell in cells):
        return
    if any(cell.strip() for cell in cells[len(header) :]):
        return reading.refuse(number, [("", sentence("row_wide"))])
    row = {column: unguarded(cell) for column, cell in zip(header, cells, strict=False) if column in READ_COLUMNS}
    try:
        document = _document({column: _read(column, cell, sign) for column, cell in row.items() if cell != ""}, sign)
    except _BadCellError as error:
        return reading.refuse(number, [(error.column, sentence(error.code, error.facts))])
    _take(reading, number, document)


def _count(rows: int) -> None:
    if rows > MAX_UNITS:
        raise UnreadableFile("shelf_long", most=MAX_UNITS)


def _take(reading: ShelfRead, number: int, row: Any) -> None:
    try:
        reading.units.append(Unit.model_validate(unit_of_any_version(row)))
    except ValidationError as error:
        reading.refuse(number, [(_column(problem), problem.sentence) for problem in problems_of(error, Unit)])


def _column(problem: Problem) -> str:
    """The column of a problem: the document's own path where it has no column."""
    parts = problem.where.split(".")
    if parts[0] == "scale" and len(parts) > 1:
        return {inner: outer for outer, inner in SCALE.items()}.get(parts[1], "power_scale")
    return parts[0] if parts[0] else "name"


class _BadCellError(Exception):
    def __init__(self, column: str, code: str, **facts: object) -> None:
        super().__init__(code)
        self.column, self.code, self.facts = column, code, facts


def _read(column: str, cell: str, sign: Sign) -> Any:
    """What a cell holds: text, or a figure: a plain number as an export writes it, else as a person writes such a
    quantity."""
    if column not in KINDS:
        return cell
    if PLAIN_NUMBER.fullmatch(cell):
        return float(cell)
    found = read(cell, Asked(KINDS[column], decimal=sign))
    if found.value is not None:
        return found.value
    if found.values:
        raise _BadCellError(column, "cell_can_be", cell=cell, values=found.values)
    raise _BadCellError(column, "cell_no_number", cell=cell)


def _document(row: dict[str, Any], sign: Sign) -> dict[str, Any]:
    """A unit's document from one row's cells, all of them not empty."""
    document: dict[str, Any] = {name: row[name] for name in PLAIN if name in row}
    if "takes_modifiers" in row:
        word = row["takes_modifiers"].lower()
        if word not in YES | NO:
            raise _BadCellError("takes_modifiers", "cell_not_yes_or_no", cell=word)
        document["takes_modifiers"] = word in YES
    scale: dict[str, Any] = {}
    for column, name in SCALE.items():
        if column in row:
            scale[name] = row[column]
    if scale:
        document["scale"] = scale
    for name in (*NESTED, *UNIT_V1):
        if name in row:
            try:
                document[name] = json_of(row[name])
            except UnreadableFile:
                raise _BadCellError(name, "cell_no_json") from None
    if "claims" not in document:
        document["claims"] = [claim.model_dump() for claim in _claims(row, sign)]
    if "hss_extra_stops" in row and "hss" not in document:
        document["hss"] = {"extra_stops": row["hss_extra_stops"]}
    if "recycle_full_s" in row and not {"power_supplies", "sources"} & document.keys():
        supply: dict[str, Any] = {"recycle_full_s": row["recycle_full_s"]}
        kind = row.get("power_supply", row.get("power_source"))
        if kind is not None:
            supply["kind"] = kind.lower()
        if "full_flashes" in row:
            supply["full_flashes"] = row["full_flashes"]
        document["power_supplies"] = [supply]
    return document


def _claims(row: dict[str, Any], sign: Sign) -> Iterable[Claim]:
    """Guide numbers as printed (several with “;” between), or from the separate columns."""
    for text in row.get("guide_number", "").split(";"):
        if text.strip():
            try:
                yield parse_guide_number(text, sign)
            except ValidationError as error:
                raise _BadCellError("guide_number", "not_right", problems=problems_of(error, Claim)[:1]) from None
            except UnreadableFile as error:
                raise _BadCellError("guide_number", error.code, **error.facts) from None
    if "gn" in row:
        if "gn_unit" not in row:
            raise _BadCellError("gn_unit", "guide_number_without_unit")
        figures = {"guide_number": "gn", "iso": "gn_iso", "zoom_mm": "gn_zoom_mm", "coverage_deg": "gn_coverage_deg"}
        found: dict[str, Any] = {name: row[column] for name, column in figures.items() if column in row}
        try:
            yield Claim.model_validate(found | {"unit": row["gn_unit"].lower()})
        except ValidationError as error:
            problem = problems_of(error, Claim)[0]
            raise _BadCellError(figures.get(problem.where, "gn_unit"), "not_right", problems=[problem]) from None


def guarded(cell: str) -> str:
    """A cell that no spreadsheet runs as a formula, whichever separator its locale has."""
    if cell[:1] == "{" and not any(mark in cell for mark in SEPARATORS):  # JSON, and only its beginning could be run
        return cell
    return FORMULA.sub(r"\1\2'", cell)


def unguarded(cell: str) -> str:
    """A cell without the apostrophes that `guarded` put in."""
    return GUARDED.sub(r"\1\2", cell.strip(" "))


def write_csv(units: Sequence[Unit]) -> str:
    """A shelf as CSV. Lists stand as JSON in their cells, so that nothing is lost; the printed claims beside them."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(WRITTEN_COLUMNS)
    for unit in units:
        document = unit.model_dump(mode="json")
        cells = [_cell(document[name]) for name in PLAIN]
        cells += [_cell(document["scale"][name]) for name in SCALE.values()]
        cells.append("; ".join(printed(claim) for claim in unit.claims))
        cells += [json.dumps(document[name], ensure_ascii=False) if document[name] else "" for name in NESTED]
        writer.writerow([guarded(cell) for cell in cells])
    return out.getvalue()


def _cell(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "" if value is None else str(value)


def write_json(units: Sequence[Unit]) -> str:
    """A shelf as JSON, a unit a line (see docs/schema/shelf.json)."""
    lines = ",\n".join(unit.model_dump_json() for unit in units)
    return f'{{"format": "jumpstop-shelf", "version": 2, "units": [\n{lines}\n]}}\n'
