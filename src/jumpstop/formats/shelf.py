"""A shelf of units as a file: CSV for spreadsheets, JSON for exact copies. What one writes, it reads back whole."""

import csv
import io
import json
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from pydantic import ValidationError

from ..core.flash import Claim, Unit
from .guide_number import parse_guide_number
from .problems import Problem, problems_of

MAX_BYTES = 8 * 1024 * 1024
MAX_ROWS = 20_000

PLAIN = ("name", "kind", "watt_seconds", "zoom_min_mm", "zoom_max_mm", "takes_modifiers", "weight_g", "price", "note")
SCALE = {
    "power_scale": "kind",
    "power_lowest": "lowest",
    "power_step_stops": "step_stops",
    "power_top_number": "top_number",
}
NESTED = ("claims", "sources", "hss", "pulse")
SEPARATE = ("gn", "gn_unit", "gn_iso", "gn_zoom_mm", "gn_coverage_deg")
SIMPLE_SOURCE = ("power_source", "recycle_full_s", "full_flashes")
READ_COLUMNS = (*PLAIN, *SCALE, "guide_number", *SEPARATE, *SIMPLE_SOURCE, "hss_extra_stops", *NESTED)
WRITTEN_COLUMNS = (*PLAIN, *SCALE, "guide_number", *NESTED)
NUMBERS = {"watt_seconds", "zoom_min_mm", "zoom_max_mm", "weight_g", "price"}
FORMULA = ("=", "+", "-", "@", "\t", "\r")
YES, NO = {"yes", "true", "1", "y"}, {"no", "false", "0", "n"}


@dataclass(frozen=True)
class RowProblem:
    """What is wrong with one row: its number in the file (the header is row 1), the column, the reason."""

    row: int
    column: str
    reason: str


@dataclass
class Reading:
    """What a file holds: the good units and the bad rows, and columns that were not known and so not read."""

    units: list[Unit] = field(default_factory=list)
    problems: list[RowProblem] = field(default_factory=list)
    unknown_columns: list[str] = field(default_factory=list)


def read_shelf(data: bytes, kind: Literal["csv", "json"] | None = None) -> Reading:
    """Units from a file's bytes. Raises ValueError with a sentence where the file as a whole cannot be read."""
    if len(data) > MAX_BYTES:
        raise ValueError(f"The file is larger than {MAX_BYTES // 2**20} MB; a shelf of 10,000 units takes about 3 MB.")
    if b"\x00" in data[:65536]:
        raise ValueError("This is not a text file. Save the table as “CSV UTF-8” and try again.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise ValueError(
            f"The file is not in UTF-8 (byte {error.start + 1:,} cannot be read). Save the table as “CSV UTF-8”."
        ) from None
    if not text.strip():
        raise ValueError("The file is empty.")
    if kind is None:
        kind = "json" if text.lstrip()[0] in "{[" else "csv"
    return _read_json(text) if kind == "json" else _read_csv(text)


def _read_json(text: str) -> Reading:
    try:
        document = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        raise ValueError(f"This is not JSON that can be read: {error}.") from None
    rows = document.get("units") if isinstance(document, dict) else document
    if isinstance(document, dict) and document.get("format") != "jumpstop-shelf":
        raise ValueError("This JSON is not a shelf: its “format” must be “jumpstop-shelf”.")
    if isinstance(document, dict) and document.get("version") != 1:
        raise ValueError(f"This shelf is of version {document.get('version')!r}; only version 1 can be read.")
    if not isinstance(rows, list):
        raise ValueError("This shelf has no list of “units”.")
    _count(len(rows))
    reading = Reading()
    for number, row in enumerate(rows, 1):
        _take(reading, number, row)
    return reading


def _read_csv(text: str) -> Reading:
    csv.field_size_limit(200_000)
    header_line = text.splitlines()[0]
    delimiter = max(",;\t", key=header_line.count)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    try:
        lines = [(reader.line_num, cells) for cells in reader]
    except csv.Error as error:
        raise ValueError(f"Line {reader.line_num} is not proper CSV: {error}.") from None
    header = [cell.strip().lower().replace(" ", "_") for cell in lines[0][1]]
    if "name" not in header:
        raise ValueError(f"No column “name” in the first row. Known columns: {', '.join(READ_COLUMNS)}.")
    doubled = {column for column in header if column and header.count(column) > 1}
    if doubled:
        raise ValueError(f"The column “{sorted(doubled)[0]}” stands twice in the first row.")
    _count(len(lines) - 1)
    reading = Reading(unknown_columns=[column for column in header if column and column not in READ_COLUMNS])
    for number, cells in lines[1:]:
        if not any(cell.strip() for cell in cells):
            continue
        if len(cells) > len(header) and any(cell.strip() for cell in cells[len(header) :]):
            reading.problems.append(RowProblem(number, "", "This row has more cells than the first row has columns."))
            continue
        row = {column: _bare(cell) for column, cell in zip(header, cells, strict=False) if column in READ_COLUMNS}
        try:
            document = _document({column: cell for column, cell in row.items() if cell != ""})
        except _BadCellError as error:
            reading.problems.append(RowProblem(number, error.column, error.reason))
            continue
        _take(reading, number, document)
    return reading


def _count(rows: int) -> None:
    if rows > MAX_ROWS:
        raise ValueError(f"{rows:,} rows are more than the {MAX_ROWS:,} that can be taken at once.")


def _take(reading: Reading, number: int, row: Any) -> None:
    try:
        reading.units.append(Unit.model_validate(row))
    except ValidationError as error:
        for problem in problems_of(error, Unit):
            reading.problems.append(RowProblem(number, _column(problem), problem.sentence))


def _column(problem: Problem) -> str:
    """The column of a problem: the document's own path where it has no column."""
    parts = problem.where.split(".")
    if parts[0] == "scale" and len(parts) > 1:
        return {inner: outer for outer, inner in SCALE.items()}.get(parts[1], "power_scale")
    return parts[0] if parts[0] else "name"


class _BadCellError(Exception):
    def __init__(self, column: str, reason: str) -> None:
        super().__init__(reason)
        self.column, self.reason = column, reason


def _number(column: str, cell: str) -> float:
    try:
        return float(cell.replace(",", ".") if cell.count(",") == 1 and "." not in cell else cell)
    except ValueError:
        raise _BadCellError(column, f"“{cell}” is not a number.") from None


def _document(row: dict[str, str]) -> dict[str, Any]:
    """A unit's document from one row's cells, all of them not empty."""
    document: dict[str, Any] = {name: row[name] for name in PLAIN if name in row}
    for name in NUMBERS & document.keys():
        document[name] = _number(name, row[name])
    if "takes_modifiers" in row:
        word = row["takes_modifiers"].lower()
        if word not in YES | NO:
            raise _BadCellError("takes_modifiers", f"“{word}” is neither yes nor no.")
        document["takes_modifiers"] = word in YES
    scale: dict[str, Any] = {}
    for column, name in SCALE.items():
        if column in row:
            scale[name] = row[column] if name == "kind" else _share(column, row[column])
    if scale:
        document["scale"] = scale
    for name in NESTED:
        if name in row:
            try:
                document[name] = json.loads(row[name])
            except (json.JSONDecodeError, RecursionError):
                raise _BadCellError(name, "This cell must hold JSON, as an export writes it.") from None
    if "claims" not in document:
        document["claims"] = [claim.model_dump() for claim in _claims(row)]
    if "hss_extra_stops" in row and "hss" not in document:
        document["hss"] = {"extra_stops": _number("hss_extra_stops", row["hss_extra_stops"])}
    if "recycle_full_s" in row and "sources" not in document:
        source: dict[str, Any] = {"recycle_full_s": _number("recycle_full_s", row["recycle_full_s"])}
        if "power_source" in row:
            source["kind"] = row["power_source"].lower()
        if "full_flashes" in row:
            source["full_flashes"] = _number("full_flashes", row["full_flashes"])
        document["sources"] = [source]
    return document


def _share(column: str, cell: str) -> float:
    """A share of full power, written 1/128 or 0.0078."""
    over = cell.split("/")
    if len(over) == 2:
        below = _number(column, over[1])
        if below == 0:
            raise _BadCellError(column, f"“{cell}” divides by nothing.")
        return _number(column, over[0]) / below
    return _number(column, cell)


def _claims(row: dict[str, str]) -> Iterable[Claim]:
    """Guide numbers as printed (several with “;” between), or from the separate columns."""
    for text in row.get("guide_number", "").split(";"):
        if text.strip():
            try:
                yield parse_guide_number(text)
            except ValidationError as error:
                raise _BadCellError("guide_number", problems_of(error, Claim)[0].sentence) from None
            except ValueError as error:
                raise _BadCellError("guide_number", str(error)) from None
    if "gn" in row:
        if "gn_unit" not in row:
            raise _BadCellError("gn_unit", "A guide number needs its unit: m or ft.")
        figures = {"guide_number": "gn", "iso": "gn_iso", "zoom_mm": "gn_zoom_mm", "coverage_deg": "gn_coverage_deg"}
        found: dict[str, Any] = {
            name: _number(column, row[column]) for name, column in figures.items() if column in row
        }
        try:
            yield Claim.model_validate(found | {"unit": row["gn_unit"].lower()})
        except ValidationError as error:
            problem = problems_of(error, Claim)[0]
            raise _BadCellError(figures.get(problem.where, "gn_unit"), problem.sentence) from None


def _bare(cell: str) -> str:
    """A cell without the apostrophe that keeps a spreadsheet from running it as a formula."""
    cell = cell.strip()
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(("'", *FORMULA)) else cell


def _guarded(cell: str) -> str:
    return f"'{cell}" if cell.startswith(("'", *FORMULA)) else cell


def write_csv(units: Sequence[Unit]) -> str:
    """A shelf as CSV. Lists stand as JSON in their cells, so that nothing is lost; the printed claims beside them."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(WRITTEN_COLUMNS)
    for unit in units:
        document = unit.model_dump(mode="json")
        cells = [_cell(document[name]) for name in PLAIN]
        cells += [_cell(document["scale"][name]) for name in SCALE.values()]
        cells.append("; ".join(claim.printed for claim in unit.claims))
        cells += [json.dumps(document[name], ensure_ascii=False) if document[name] else "" for name in NESTED]
        writer.writerow([_guarded(cell) for cell in cells])
    return out.getvalue()


def _cell(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return "" if value is None else str(value)


def write_json(units: Sequence[Unit]) -> str:
    """A shelf as JSON (see docs/schema/shelf.json)."""
    document = {"format": "jumpstop-shelf", "version": 1, "units": [unit.model_dump(mode="json") for unit in units]}
    return json.dumps(document, ensure_ascii=False, indent=1)
