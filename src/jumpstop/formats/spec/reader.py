"""A pasted specification: its lines, whatever their layout, one unit or several side by side."""

import re
from dataclasses import dataclass

from ...core.plan.learn.sheet import SaidField, SpecifiedUnit, Topic
from ..quantities.asked import Sign
from .lines import fields_of, parts
from .tokens import Token, tokens

LONGEST = 60_000  # characters of a sheet that are read; a page of a maker has some 20,000
MOST_LINES, MOST_UNITS = 1500, 12
NAME = 80
_CELLS = re.compile(r"\t+|\s*\|\s*|\s{3,}|\s*;\s+")
_LEADER = re.compile(r"\s*\.{3,}\s*|\s*…+\s*|\s*_{3,}\s*")
_BULLET = re.compile(r"^\s*(?:[•·*▪◦‣–-]\s+|\d+\)\s+)")
WORDS: dict[str, Topic] = {"name": "name", "mount": "mount"}


@dataclass(frozen=True)
class Line:
    """A line as it is read: its number in what was pasted, its text, and its cells."""

    number: int
    text: str
    cells: tuple[str, ...]


def read_spec(text: str, sign: Sign = "") -> list[SpecifiedUnit]:
    """The units of a specification, each with what its lines say and those that were not understood. Never raises."""
    lines = _lines(text)
    table = _table(lines)
    if table is not None:
        return [_read(one, sign) for one in table]
    return [_read(_joined(lines, sign), sign)] if lines else []


def _lines(text: str) -> list[Line]:
    out = []
    for number, raw in enumerate(text[:LONGEST].splitlines()[:MOST_LINES], 1):
        bare = _LEADER.sub(": ", _BULLET.sub("", raw)).strip().strip("|").strip()
        if any(sign.isalnum() for sign in bare):
            cells = tuple(one.strip() for one in _CELLS.split(bare) if one.strip(" :"))
            out.append(Line(number, bare, cells))
    return out


def _joined(lines: list[Line], sign: Sign) -> list[Line]:
    """Two columns as one line; and a label that stands on a line by itself with the value on the next."""
    out: list[Line] = []
    held: Line | None = None
    for line in lines:
        text = ": ".join((line.cells[0].rstrip(": "), ", ".join(line.cells[1:]))) if len(line.cells) > 1 else line.text
        found = tokens(text, sign)
        alone = _is_label(found)
        if held is not None:
            if not alone and not any(one.kind == "label" for one in found[:1]):
                text = f"{held.text.rstrip(': ')}: {text}"
            else:
                out.append(held)
            held = None
        if alone and out is not None:
            held = Line(line.number, text, (text,))
            continue
        out.append(Line(line.number, text, (text,)))
    return out if held is None else [*out, held]


def _is_label(found: list[Token]) -> bool:
    """Whether a line is a label and nothing else."""
    rest = [one for one in found if not (one.kind == "break" and one.text in "():")]
    if not rest or rest[0].kind != "label" or any(one.kind == "figure" for one in rest):
        return False
    return all(one.kind in ("label", "aside") for one in rest) and rest[0].code != "hss"


def _table(lines: list[Line]) -> list[list[Line]] | None:
    """Several units side by side, or one below the other, as the lines of each; None where it is no such table."""
    counts = [len(line.cells) for line in lines if len(line.cells) >= 3]
    if len(counts) < 2:
        return None
    most = max(set(counts), key=counts.count)
    rows = [line for line in lines if len(line.cells) in (most, most - 1) and len(line.cells) >= 2]
    full = [line for line in rows if len(line.cells) == most]
    if len(full) < 2 or most - 1 > MOST_UNITS:
        return None
    head = rows[0]
    if len(head.cells) == most and sum(_labelled(cell) for cell in head.cells[1:]) > (most - 1) / 2:
        return _down(head, [line for line in full if line is not head])
    if sum(_labelled(line.cells[0]) for line in full) * 2 < len(full):
        return None
    return _across(rows, most)


def _labelled(cell: str) -> bool:
    return any(one.kind == "label" for one in tokens(cell)[:2])


def _down(head: Line, rows: list[Line]) -> list[list[Line]]:
    """A unit a line, what its cells are about above them."""
    out = []
    for row in rows:
        lines = [Line(row.number, row.cells[0], ())] if not _labelled(head.cells[0]) else []
        start = 1 if lines else 0
        lines += [
            Line(row.number, f"{label}: {cell}", ())
            for label, cell in zip(head.cells[start:], row.cells[start:], strict=True)
        ]
        out.append(lines)
    return out


def _across(rows: list[Line], most: int) -> list[list[Line]]:
    """A unit a column, labels in the first; the first row names them."""
    units: list[list[Line]] = [[] for _ in range(most - 1)]
    for at, row in enumerate(rows):
        cells = row.cells
        if len(cells) == most - 1:  # the corner is empty
            if at == 0:
                for unit, cell in zip(units, cells, strict=True):
                    unit.append(Line(row.number, cell, ()))
            continue
        naming = at == 0 and not _labelled(cells[0])
        for unit, cell in zip(units, cells[1:], strict=True):
            if cell not in ("-", "–", "—"):
                unit.append(Line(row.number, cell if naming else f"{cells[0].rstrip(': ')}: {cell}", ()))
    return units


def _read(lines: list[Line], sign: Sign) -> SpecifiedUnit:
    out = SpecifiedUnit()
    for at, line in enumerate(lines):
        said = list(_said(line, tokens(line.text, sign), at == 0))
        if said:
            out.said += said
        else:
            out.unread.append((line.number, line.text[:200]))
    return out


def _said(line: Line, found: list[Token], first: bool) -> list[SaidField]:
    out: list[SaidField] = []

    def add(topic: Topic, value: object) -> None:
        out.append(SaidField(topic, value, line.number, line.text[:200]))

    lead = next((one for one in found if one.kind != "break"), None)
    if lead is None:
        return out
    if lead.kind == "label" and lead.code in WORDS:
        words = _after_label(line.text)
        if words:
            add(WORDS[lead.code], words)
        return out
    for one in found:
        if one.kind == "type" and (lead.code == "kind" or first or not any(t.kind == "figure" for t in found)):
            add("kind", one.code)
            break
    for part in parts(found):
        for topic, value in fields_of(part):
            add(topic, value)
    if first and (name := _name(line.text, found)) and not any(one.topic == "name" for one in out):
        add("name", name)
    return out


def _after_label(text: str) -> str:
    """What stands behind a label's colon, or behind its first word."""
    _, colon, rest = text.partition(":")
    if not colon:
        _, _, rest = text.partition(" ")
    return rest.strip()[:NAME]


def _known(one: Token) -> bool:
    return one.kind in ("label", "aside") or (one.kind == "figure" and bool(one.unit or one.over))


def _name(text: str, found: list[Token]) -> str:
    """A sheet's first line as a name: what stands before the first label, or all of it where it has none."""
    if found[0].kind not in ("other", "figure"):
        return ""
    if not any(one.kind == "figure" and (one.unit or one.over) for one in found):
        return text.strip(" :")[:NAME] if len(text) <= NAME and not text.endswith(".") else ""
    words: list[str] = []
    for word in re.split(r"(?<=\S)[\s:,]+", text):
        if any(
            one.kind in ("label", "aside") or (one.kind == "figure" and (one.unit or one.over)) for one in tokens(word)
        ):
            break
        words.append(word)
    name = " ".join(words).strip(" :,-")
    return name[:NAME] if any(sign.isalpha() for sign in name) else ""
