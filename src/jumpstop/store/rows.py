"""Rows of documents: by kind, as undo remembers them, read and taken away many at a time."""

from collections.abc import Iterator, Sequence
from typing import Any, Literal

from pydantic_core import to_json
from sqlalchemy import JSON, Connection, Row, Select, Table, bindparam, delete, func, select, type_coerce, update
from sqlalchemy.dialects.sqlite import insert

from . import tables

Kind = Literal[
    "units", "modifiers", "bodies", "lenses", "filters", "triggers", "batteries", "stands", "jobs", "setups", "log"
]
TABLES: dict[str, Table] = {
    table.name: table
    for table in (
        tables.jobs,
        tables.units,
        tables.modifiers,
        tables.bodies,
        tables.lenses,
        tables.filters,
        tables.triggers,
        tables.batteries,
        tables.stands,
        tables.setups,
        tables.log,
    )
}
"""By kind; jobs first, since setups belong to them."""
KIT: tuple[Kind, ...] = ("units", "modifiers", "bodies", "lenses", "filters", "triggers", "batteries", "stands")
COUNTED: tuple[Kind, ...] = (*KIT, "jobs", "log")
"""Kinds of which every change is counted."""
CHUNK = 500  # ids in one statement

Kept = dict[str, Any]
"""A row as undo remembers it: doc, position, revision, job_id."""


def columns(table: Table) -> list[Any]:
    """What every kind of document has, and the job of a setup."""
    names = ("id", "revision", "doc", "position", "job_id")
    return [table.c[name] for name in names if name in table.c]


def _one(table: Table) -> Select[Any]:
    return select(*columns(table)).where(table.c.id == bindparam("id"))


ONE = {kind: _one(table) for kind, table in TABLES.items()}
CHANGE = {
    kind: update(table)
    .where(table.c.id == bindparam("key"))
    .values(name=bindparam("name"), doc=bindparam("doc"), revision=bindparam("revision"))
    for kind, table in TABLES.items()
}
META = select(tables.meta)
_all_meta = select(func.json_group_object(tables.meta.c.key, func.json(tables.meta.c.value))).scalar_subquery()
ONE_AND_META = {kind: one.add_columns(type_coerce(_all_meta, JSON).label("meta")) for kind, one in ONE.items()}
META_OF = select(tables.meta.c.value).where(tables.meta.c.key == bindparam("key"))
_meta = insert(tables.meta)
SET_META = _meta.on_conflict_do_update(index_elements=["key"], set_={"value": _meta.excluded.value})


def job_of(row: Row[Any]) -> str | None:
    """The job a row belongs to; None for what belongs to none."""
    found: str | None = getattr(row, "job_id", None)
    return found


def kept(row: Row[Any]) -> Kept:
    """A row as undo remembers it."""
    return {"doc": row.doc, "position": row.position, "revision": row.revision, "job_id": job_of(row)}


def kept_values(row: dict[str, Any]) -> Kept:
    """The same of a row that is not written yet."""
    return {name: row.get(name) for name in ("doc", "position", "revision", "job_id")}


def rows_with(connection: Connection, kind: str, ids: Sequence[str]) -> dict[str, Kept]:
    """The rows with these ids that are there."""
    table, found = TABLES[kind], {}
    ids = known_of(connection, kind, ids) if len(ids) > CHUNK else ids
    for some in chunks(ids):
        for row in connection.execute(select(*columns(table)).where(table.c.id.in_(some))):
            found[row.id] = kept(row)
    return found


def known_of(connection: Connection, kind: str, ids: Sequence[str]) -> list[str]:
    """Which of very many ids are there, in one statement."""
    wanted = to_json(list(ids)).decode()
    query = f"SELECT id FROM {TABLES[kind].name} WHERE id IN (SELECT value FROM json_each(?))"
    found = connection.exec_driver_sql(query, (wanted,))
    return [row[0] for row in found]


def delete_rows(connection: Connection, kind: str, ids: Sequence[str]) -> None:
    """Take rows away."""
    table = TABLES[kind]
    for some in chunks(ids):
        connection.execute(delete(table).where(table.c.id.in_(some)))


def chunks(ids: Sequence[str]) -> Iterator[Sequence[str]]:
    """Ids in as many at a time as one statement takes."""
    for start in range(0, len(ids), CHUNK):
        yield ids[start : start + CHUNK]


def changed(kind: Kind) -> str:
    """Key of the number that every change of this kind raises, in whichever process it was made."""
    return f"changes of {kind}"


LOG_ALTERED = "log altered"
"""Key of the number that every change of the log raises but one that puts entries behind all that are there."""


def touch(connection: Connection, kinds: set[str], altered: bool = True) -> None:
    """Count a change of these kinds. altered: whether documents that were there are others now, gone, or back."""
    keys = [changed(kind) for kind in COUNTED if kind in kinds]
    for key in [*keys, *([LOG_ALTERED] if altered and "log" in kinds else [])]:
        count = connection.execute(META_OF, {"key": key}).scalar() or 0
        connection.execute(SET_META, {"key": key, "value": count + 1})
