"""Parts that many documents hold alike, kept once: in a document stands what the part is known by.

A part is known by what it is (its hash), so that the same is never kept twice and none is ever changed.
"""

import hashlib
import json
from collections.abc import Mapping, Set
from typing import Any

from sqlalchemy import Connection, select, text
from sqlalchemy.dialects.sqlite import insert

from . import tables

PART = "part"
CHUNK = 500  # parts in one statement
PLACES = (("was",), ("seen", "was"), ("filter", "filter"), ("curtain", "body"))
"""Where in an entry of the log a part stands, outermost first."""


def packed(doc: dict[str, Any], parts: dict[str, Any]) -> dict[str, Any]:
    """A document with its parts named, which are added to `parts`; one that is packed already as it is."""
    for *way, last in PLACES:
        holder = doc
        for name in way:
            holder = holder.get(name) or {}
        part = holder.get(last)
        if isinstance(part, dict) and PART not in part:
            text = json.dumps(part, sort_keys=True, separators=(",", ":"))
            key = hashlib.sha256(text.encode()).hexdigest()[:32]
            parts[key] = part
            doc = _with(doc, [*way, last], {PART: key})
    return doc


def named(doc: Mapping[str, Any]) -> set[str]:
    """The parts that a packed document names."""
    found = set()
    for *way, last in PLACES:
        holder: Any = doc
        for name in way:
            holder = holder.get(name) or {}
        part = holder.get(last)
        if isinstance(part, dict) and PART in part:
            found.add(part[PART])
    return found


def unpacked(doc: dict[str, Any], parts: Mapping[str, Any]) -> dict[str, Any]:
    """A document with its parts in their places."""
    for *way, last in PLACES:
        holder: Any = doc
        for name in way:
            holder = holder.get(name) or {}
        part = holder.get(last)
        if isinstance(part, dict) and PART in part:
            doc = _with(doc, [*way, last], parts[part[PART]])
    return doc


def keep_parts(connection: Connection, parts: Mapping[str, Any]) -> None:
    """Keep parts; those that are there already are the same."""
    if parts:
        rows = [{"id": key, "doc": doc} for key, doc in parts.items()]
        connection.execute(insert(tables.parts).on_conflict_do_nothing(), rows)


def parts_of(connection: Connection, keys: Set[str]) -> dict[str, Any]:
    """Parts by their names."""
    found, wanted, table = dict[str, Any](), sorted(keys), tables.parts
    for start in range(0, len(wanted), CHUNK):
        some = table.c.id.in_(wanted[start : start + CHUNK])
        found |= {row.id: row.doc for row in connection.execute(select(table.c.id, table.c.doc).where(some))}
    return found


def forget_unnamed(connection: Connection) -> None:
    """Take away the parts that neither the log nor what undo remembers names any more."""
    named_by = ["SELECT json_extract({0}, '$.{1}.part') AS p FROM {2}"]
    ways = [".".join(way) for way in PLACES]
    log = [named_by[0].format("doc", way, "log") for way in ways]
    edits = [
        named_by[0].format(f'"{side}"', f"doc.{way}", "edits WHERE kind = 'log'")
        for way in ways
        for side in ("before", "after")
    ]
    known = " UNION ".join(log + edits)
    connection.execute(text(f"DELETE FROM parts WHERE id NOT IN (SELECT p FROM ({known}) WHERE p IS NOT NULL)"))


def _with(doc: dict[str, Any], way: list[str], value: Any) -> dict[str, Any]:
    """A copy of a document with one value set, copied along the way to it only."""
    first, *rest = way
    return doc | {first: _with(doc[first], rest, value) if rest else value}
