"""The table of parts, which many entries of the log hold alike (see `core.scene.parts`)."""

from collections.abc import Mapping, Set
from typing import Any

from sqlalchemy import Connection, select, text
from sqlalchemy.dialects.sqlite import insert

from ..core.scene.parts import PLACES
from . import tables

CHUNK = 500  # parts in one statement


def keep_parts(connection: Connection, parts: Mapping[str, Any]) -> None:
    """Keep parts; those that are there already are the same."""
    if parts:
        rows = [{"id": key, "doc": doc} for key, doc in parts.items()]
        connection.execute(insert(tables.parts).on_conflict_do_nothing(), rows)


def parts_of(connection: Connection, keys: Set[str]) -> dict[str, Any]:
    """Parts by their keys."""
    found, wanted, table = dict[str, Any](), sorted(keys), tables.parts
    for start in range(0, len(wanted), CHUNK):
        some = table.c.id.in_(wanted[start : start + CHUNK])
        found |= {row.id: row.doc for row in connection.execute(select(table.c.id, table.c.doc).where(some))}
    return found


WAYS = tuple(f"{field}.{inner}".rstrip(".") for field, inner in PLACES)
_names = "SELECT json_extract({column}, '$.{way}.part') AS p FROM {of}"
OF_LOG = " UNION ".join(_names.format(column="doc", way=way, of="log") for way in WAYS)
OF_EDITS = " UNION ".join(
    _names.format(column=side, way=f"doc.{way}", of="edits WHERE kind = 'log'")
    for way in WAYS
    for side in ('"before"', '"after"')
)


def parts_of_log(connection: Connection) -> dict[str, str]:
    """The parts that the log names, as JSON, by their keys."""
    rows = connection.execute(text(f"SELECT id, doc FROM parts WHERE id IN ({OF_LOG}) ORDER BY id"))
    return {key: doc for key, doc in rows}


def forget_unnamed(connection: Connection) -> None:
    """Take away the parts that neither the log nor what undo remembers names any more."""
    known = f"SELECT p FROM ({OF_LOG} UNION {OF_EDITS}) WHERE p IS NOT NULL"
    connection.execute(text(f"DELETE FROM parts WHERE id NOT IN ({known})"))
