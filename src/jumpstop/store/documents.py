"""The documents: listing, reading, and edits that are durable, checked against a revision, and can be undone."""

import uuid
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Literal, cast

from sqlalchemy import delete, func, insert, select
from sqlalchemy.orm import Session

from .database import FILE, open_engine
from .models import BodyRow, Document, EditRow, FilterRow, JobRow, MetaRow, ModifierRow, SetupRow, UnitRow

Kind = Literal["units", "modifiers", "bodies", "filters", "jobs", "setups"]
ROWS: dict[str, type[Document]] = {
    "units": UnitRow,
    "modifiers": ModifierRow,
    "bodies": BodyRow,
    "filters": FilterRow,
    "jobs": JobRow,
    "setups": SetupRow,
}
KIT: tuple[Kind, ...] = ("units", "modifiers", "bodies", "filters")
PREFERENCES = "preferences"
MERGE_S = 1.2  # edits of one document with one label, closer together than this, are undone as one
KEEP_BATCHES = 1000


@dataclass(frozen=True)
class Item:
    """A stored document."""

    id: str
    revision: int
    doc: dict[str, Any]
    job_id: str | None = None


class MissingError(LookupError):
    """There is no such document (any more)."""


class ConflictError(Exception):
    """Somebody else changed the document first; `current` is what it is now."""

    def __init__(self, current: Item) -> None:
        super().__init__("This was changed elsewhere in the meantime.")
        self.current = current


@dataclass(frozen=True)
class Undone:
    """What an undo or redo did."""

    label: str
    kind: str
    ids: list[str]


def _item(row: Document) -> Item:
    return Item(row.id, row.revision, row.doc, row.job_id if isinstance(row, SetupRow) else None)


class Store:
    """One data folder."""

    def __init__(self, folder: Path) -> None:
        self.path = folder / FILE
        self.engine = open_engine(folder)

    def close(self) -> None:
        """Let go of the data file."""
        self.engine.dispose()

    @contextmanager
    def _writing(self) -> Iterator[Session]:
        """A transaction with the write lock from its start, so that what it checked still holds when it writes."""
        with Session(self.engine) as session:
            session.connection().exec_driver_sql("BEGIN IMMEDIATE")
            yield session
            session.commit()

    def items(self, kind: Kind) -> list[Item]:
        """All documents of a kind, in their order."""
        table = ROWS[kind]
        with Session(self.engine) as session:
            return [_item(row) for row in session.scalars(select(table).order_by(table.position, table.id))]

    def item(self, kind: Kind, item_id: str) -> Item:
        """One document. Raises MissingError."""
        with Session(self.engine) as session:
            return _item(self._row(session, kind, item_id))

    def _row(self, session: Session, kind: str, item_id: str) -> Document:
        row = session.get(ROWS[kind], item_id)
        if row is None:
            raise MissingError(f"It is no longer among the {kind}.")
        return row

    def add(self, kind: Kind, docs: Sequence[dict[str, Any]], label: str, job_id: str | None = None) -> list[Item]:
        """New documents at the end of their list, as one edit."""
        with self._writing() as session:
            last = session.scalar(select(func.max(ROWS[kind].position))) or 0.0
            rows = [
                {"id": uuid.uuid4().hex, "name": doc["name"], "position": last + 1 + index, "revision": 1, "doc": doc}
                | ({"job_id": job_id} if kind == "setups" else {})
                for index, doc in enumerate(docs)
            ]
            if rows:
                session.execute(insert(ROWS[kind]), rows)
                self._note(session, label, kind, [(row["id"], None, _kept(row)) for row in rows])
            return [Item(row["id"], 1, row["doc"], job_id) for row in rows]

    def put(self, kind: Kind, item_id: str, doc: dict[str, Any], revision: int, label: str) -> Item:
        """A document changed. Raises MissingError, or ConflictError where `revision` is not the newest."""
        with self._writing() as session:
            row = self._row(session, kind, item_id)
            if row.revision != revision:
                raise ConflictError(_item(row))
            if row.doc == doc:
                return _item(row)
            before = _kept_row(row)
            row.doc, row.name, row.revision = doc, doc["name"], row.revision + 1
            self._note(session, label, kind, [(item_id, before, _kept_row(row))])
            session.flush()
            return _item(row)

    def remove(self, kind: Kind, ids: Sequence[str], label: str) -> None:
        """Documents taken away (undo brings them back). Raises MissingError."""
        with self._writing() as session:
            rows = [self._row(session, kind, item_id) for item_id in ids]
            self._note(session, label, kind, [(row.id, _kept_row(row), None) for row in rows])
            for row in rows:
                session.delete(row)

    def _note(
        self, session: Session, label: str, kind: Kind, changes: list[tuple[str, dict[str, Any] | None, Any]]
    ) -> None:
        """Write the edit down, merged with the one before where a person is still turning the same figure."""
        now = datetime.now(UTC).replace(tzinfo=None)
        session.execute(delete(EditRow).where(EditRow.undone))
        last = session.scalar(select(EditRow).order_by(EditRow.id.desc()).limit(1))
        if len(changes) == 1 and last is not None:
            item_id, before, after = changes[0]
            same = (last.kind, last.item_id, last.label) == (kind, item_id, label) and last.before and before and after
            if same and (now - last.at).total_seconds() < MERGE_S:
                last.after, last.at = after, now
                self._touch(session, kind)
                return
        batch = 1 + (last.batch if last is not None else 0)
        rows = [
            {
                "batch": batch,
                "at": now,
                "label": label,
                "kind": kind,
                "item_id": i,
                "before": b,
                "after": a,
                "undone": False,
            }
            for i, b, a in changes
        ]
        if rows:
            session.execute(insert(EditRow), rows)
        session.execute(delete(EditRow).where(EditRow.batch < batch - KEEP_BATCHES))
        self._touch(session, kind)

    def _touch(self, session: Session, kind: Kind) -> None:
        if kind in KIT:
            key = changed(kind)
            row = session.get(MetaRow, key) or MetaRow(key=key, value=0)
            row.value = row.value + 1
            session.add(row)

    def meta(self) -> dict[str, Any]:
        """Single values by key: the preferences, and for each kind of kit how often it was changed (see `changed`)."""
        with self.engine.connect() as connection:
            rows = connection.execute(select(MetaRow.key, MetaRow.value))
            return {row.key: row.value for row in rows}

    def undo(self) -> Undone | None:
        """Take the last edit back; None where there is nothing to take back."""
        return self._turn(back=True)

    def redo(self) -> Undone | None:
        """Do the last edit taken back again."""
        return self._turn(back=False)

    def _turn(self, back: bool) -> Undone | None:
        with self._writing() as session:
            pick = func.max(EditRow.batch) if back else func.min(EditRow.batch)
            batch = session.scalar(select(pick).where(EditRow.undone.is_(not back)))
            if batch is None:
                return None
            edits = list(session.scalars(select(EditRow).where(EditRow.batch == batch).order_by(EditRow.id)))
            for edit in edits:
                self._set(session, edit.kind, edit.item_id, edit.before if back else edit.after)
                edit.undone = back
            self._touch(session, cast(Kind, edits[0].kind))
            return Undone(edits[0].label, edits[0].kind, [edit.item_id for edit in edits])

    def _set(self, session: Session, kind: str, item_id: str, kept: dict[str, Any] | None) -> None:
        row = session.get(ROWS[kind], item_id)
        if kept is None:
            if row is not None:
                session.delete(row)
            return
        if row is None:
            row = ROWS[kind](id=item_id, revision=kept["revision"])
            session.add(row)
        row.name, row.position, row.doc = kept["doc"]["name"], kept["position"], kept["doc"]
        row.revision = max(row.revision, kept["revision"]) + 1
        if isinstance(row, SetupRow):
            job_id = kept.get("job_id")
            row.job_id = job_id if job_id and session.get(JobRow, job_id) else None

    def history(self) -> tuple[str | None, str | None]:
        """(what undo would take back, what redo would do again)."""
        with Session(self.engine) as session:
            last = session.scalar(select(EditRow.label).where(~EditRow.undone).order_by(EditRow.id.desc()).limit(1))
            following = session.scalar(select(EditRow.label).where(EditRow.undone).order_by(EditRow.id).limit(1))
            return last, following

    def forget_history(self) -> None:
        """Start the history here: what was done so far can no longer be undone."""
        with self._writing() as session:
            session.execute(delete(EditRow))

    def put_preferences(self, value: dict[str, Any]) -> None:
        """Remember preferences."""
        with self._writing() as session:
            session.merge(MetaRow(key=PREFERENCES, value=value))


def changed(kind: Kind) -> str:
    """Key of the number that every change of this kind of kit raises, in whichever process it was made."""
    return f"changes of {kind}"


def _kept(row: dict[str, Any]) -> dict[str, Any]:
    return {name: row.get(name) for name in ("doc", "position", "revision", "job_id")}


def _kept_row(row: Document) -> dict[str, Any]:
    return {
        "doc": row.doc,
        "position": row.position,
        "revision": row.revision,
        "job_id": row.job_id if isinstance(row, SetupRow) else None,
    }
