"""Rows of documents: by kind, as undo remembers them, read and taken away many at a time."""

from collections.abc import Iterator, Sequence
from typing import Any, Literal

from sqlalchemy import Select, bindparam, delete, select
from sqlalchemy.orm import Session

from .models import BodyRow, Document, FilterRow, JobRow, MetaRow, ModifierRow, SetupRow, UnitRow

Kind = Literal["units", "modifiers", "bodies", "filters", "jobs", "setups"]
ROWS: dict[str, type[Document]] = {
    "jobs": JobRow,  # first, since setups belong to them
    "units": UnitRow,
    "modifiers": ModifierRow,
    "bodies": BodyRow,
    "filters": FilterRow,
    "setups": SetupRow,
}
KIT: tuple[Kind, ...] = ("units", "modifiers", "bodies", "filters")
CHUNK = 500  # ids in one statement

Kept = dict[str, Any]
"""A row as undo remembers it: doc, position, revision, job_id."""


def kept(row: Document) -> Kept:
    """A row as undo remembers it."""
    return {
        "doc": row.doc,
        "position": row.position,
        "revision": row.revision,
        "job_id": row.job_id if isinstance(row, SetupRow) else None,
    }


def kept_values(row: dict[str, Any]) -> Kept:
    """The same of a row that is not written yet."""
    return {name: row.get(name) for name in ("doc", "position", "revision", "job_id")}


def rows_with(session: Session, kind: str, ids: Sequence[str]) -> dict[str, Kept]:
    """The rows with these ids that are there."""
    table, found = ROWS[kind], {}
    for some in _chunks(ids):
        for row in session.scalars(select(table).where(table.id.in_(some))):
            found[row.id] = kept(row)
    session.expunge_all()
    return found


def delete_rows(session: Session, kind: str, ids: Sequence[str]) -> None:
    """Take rows away."""
    for some in _chunks(ids):
        session.execute(delete(ROWS[kind]).where(ROWS[kind].id.in_(some)))


def _chunks(ids: Sequence[str]) -> Iterator[Sequence[str]]:
    for start in range(0, len(ids), CHUNK):
        yield ids[start : start + CHUNK]


def changed(kind: Kind) -> str:
    """Key of the number that every change of this kind of kit raises, in whichever process it was made."""
    return f"changes of {kind}"


def touch(session: Session, kinds: set[str]) -> None:
    """Count a change of these kinds of kit."""
    for kind in KIT:
        if kind in kinds:
            key = changed(kind)
            row = session.get(MetaRow, key) or MetaRow(key=key, value=0)
            row.value = row.value + 1
            session.add(row)


def _one(table: Any) -> Select[Any]:
    """The columns of `Item`, of one document of a kind."""
    columns = [table.id, table.revision, table.doc]
    if table is SetupRow:
        columns.append(table.job_id)
    return select(*columns).where(table.id == bindparam("id"))


ONE = {kind: _one(table) for kind, table in ROWS.items()}
META = select(MetaRow.key, MetaRow.value)
