"""The documents: listing, reading, and edits that are durable, checked against a revision, and can be undone."""

import os
import re
import uuid
from collections.abc import Iterable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Literal, cast

from sqlalchemy import ColumnElement, Select, bindparam, delete, func, insert, select, update
from sqlalchemy.orm import Session

from .database import FILE, open_engine, said_plainly
from .errors import Conflict, NotFound, Overtaken, StorageFault, TooMuch
from .models import BodyRow, Document, EditRow, FilterRow, JobRow, MetaRow, ModifierRow, SetupRow, UnitRow

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
PREFERENCES = "preferences"
MERGE_S = 1.2  # edits of one document with one label, closer together than this, are undone as one
KEEP_BATCHES = 1000
MOST_UNITS = 20_000
UNITS_SIZE = "SELECT count(*), coalesce(sum(length(doc)), 0) FROM units"
MOST_UNIT_BYTES = 16 * 2**20  # so that what is exported can be imported again
CHUNK = 500  # ids in one statement

Kept = dict[str, Any]
"""A row as undo remembers it: doc, position, revision, job_id."""


@dataclass(frozen=True)
class Item:
    """A stored document."""

    id: str
    revision: int
    doc: dict[str, Any]
    job_id: str | None = None


@dataclass(frozen=True)
class UndoResult:
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
        self._file = self._identity()

    def close(self) -> None:
        """Let go of the data file."""
        self.engine.dispose()

    def _identity(self) -> tuple[int, int] | None:
        try:
            found = os.stat(self.path)
        except OSError:
            return None
        return found.st_dev, found.st_ino

    def _still_there(self) -> None:
        """Raises StorageFault where the data file was moved or deleted under the program."""
        if self._file is None or self._identity() != self._file:
            raise StorageFault(
                f"The data file {self.path} was moved or deleted while the program runs: nothing was stored. Stop it, "
                "put the file back or restore a backup, and start it again."
            )

    @contextmanager
    def _reading(self) -> Iterator[Session]:
        with said_plainly(), Session(self.engine) as session:
            yield session

    @contextmanager
    def _writing(self) -> Iterator[Session]:
        """A transaction with the write lock from its start, so that what it checked still holds when it writes."""
        self._still_there()
        with said_plainly(), Session(self.engine) as session:
            session.connection().exec_driver_sql("BEGIN IMMEDIATE")
            yield session
            session.commit()
        self._still_there()

    def items(self, kind: Kind) -> list[Item]:
        """All documents of a kind, in their order."""
        table = ROWS[kind]
        with self._reading() as session:
            return [_item(row) for row in session.scalars(select(table).order_by(table.position, table.id))]

    def item(self, kind: Kind, item_id: str) -> Item:
        """One document. Raises NotFound."""
        with said_plainly(), self.engine.connect() as connection:
            row = connection.execute(ONE[kind], {"id": item_id}).first()
        if row is None:
            raise NotFound(f"It is no longer among the {kind}.")
        return Item(*row)

    def _row(self, session: Session, kind: str, item_id: str) -> Document:
        row = session.get(ROWS[kind], item_id)
        if row is None:
            raise NotFound(f"It is no longer among the {kind}.")
        return row

    def add(
        self, kind: Kind, docs: Sequence[dict[str, Any]], label: str, job_id: str | None = None, page: str = ""
    ) -> list[Item]:
        """New documents at the end of their list, as one edit. Raises TooMuch, or NotFound for the job."""
        with self._writing() as session:
            if job_id is not None:
                self._row(session, "jobs", job_id)
            last = session.scalar(select(func.max(ROWS[kind].position))) or 0.0
            rows = [
                {"id": uuid.uuid4().hex, "name": doc["name"], "position": last + 1 + index, "revision": 1, "doc": doc}
                | ({"job_id": job_id} if kind == "setups" else {})
                for index, doc in enumerate(docs)
            ]
            if rows:
                session.execute(insert(ROWS[kind]), rows)
                self._note(session, label, page, [(kind, row["id"], None, _kept(row)) for row in rows])
            self._fits(session, kind)
            return [Item(row["id"], 1, row["doc"], job_id) for row in rows]

    def copy(self, kind: Kind, item_id: str, page: str = "") -> Item:
        """A copy of a document, named with the next free number behind its name. Raises NotFound."""
        original = self.item(kind, item_id)
        base = re.sub(r" \(\d+\)$", "", original.doc["name"])[:74]
        table = ROWS[kind]
        with self._reading() as session:
            taken = set(session.scalars(select(table.name).where(table.name.startswith(base, autoescape=True))))
        number = next(n for n in range(2, len(taken) + 3) if f"{base} ({n})" not in taken)
        name = f"{base} ({number})"
        return self.add(kind, [original.doc | {"name": name}], f"Copy {base}", original.job_id, page)[0]

    def put(self, kind: Kind, item_id: str, doc: dict[str, Any], revision: int, label: str, page: str = "") -> Item:
        """A document changed. Raises NotFound, or Conflict where `revision` is not the newest."""
        with self._writing() as session:
            row = self._row(session, kind, item_id)
            if row.revision != revision:
                raise Conflict(_item(row))
            if row.doc == doc:
                return _item(row)
            before = _kept_row(row)
            row.doc, row.name, row.revision = doc, doc["name"], row.revision + 1
            self._note(session, label, page, [(kind, item_id, before, _kept_row(row))])
            session.flush()
            self._fits(session, kind)
            return _item(row)

    def move(self, setup_id: str, job_id: str | None, label: str, page: str = "") -> Item:
        """A setup put into a job, or into none. Raises NotFound."""
        with self._writing() as session:
            row = cast(SetupRow, self._row(session, "setups", setup_id))
            if job_id is not None:
                self._row(session, "jobs", job_id)
            if row.job_id != job_id:
                before = _kept_row(row)
                row.job_id = job_id
                self._note(session, label, page, [("setups", setup_id, before, _kept_row(row))])
            return _item(row)

    def remove(self, kind: Kind, ids: Sequence[str], label: str, page: str = "") -> None:
        """Documents taken away (undo brings them back, setups into their jobs). Raises NotFound."""
        ids = list(dict.fromkeys(ids))
        with self._writing() as session:
            gone = self._rows(session, kind, ids)
            if len(gone) < len(ids):
                raise NotFound(f"It is no longer among the {kind}.")
            changes: list[tuple[Kind, str, Kept | None, Kept | None]] = []
            if kind == "jobs":
                members = list(session.scalars(select(SetupRow).where(SetupRow.job_id.in_(ids))))
                for member in members:
                    before = _kept_row(member)
                    member.job_id = None
                    changes.append(("setups", member.id, before, _kept_row(member)))
                session.flush()
            changes += [(kind, item_id, gone[item_id], None) for item_id in ids]
            self._note(session, label, page, changes)
            self._delete(session, kind, ids)

    def _rows(self, session: Session, kind: str, ids: Sequence[str]) -> dict[str, Kept]:
        """The rows with these ids that are there, as undo remembers them."""
        table, found = ROWS[kind], {}
        for some in _chunks(ids):
            for row in session.scalars(select(table).where(table.id.in_(some))):
                found[row.id] = _kept_row(row)
        session.expunge_all()
        return found

    def _delete(self, session: Session, kind: str, ids: Sequence[str]) -> None:
        for some in _chunks(ids):
            session.execute(delete(ROWS[kind]).where(ROWS[kind].id.in_(some)))

    def _fits(self, session: Session, kind: Kind) -> None:
        """Raises TooMuch where there are more units than a shelf may hold."""
        if kind != "units":
            return
        number, size = session.connection().exec_driver_sql(UNITS_SIZE).one()
        if number > MOST_UNITS or size > MOST_UNIT_BYTES:
            raise TooMuch(f"A shelf holds {MOST_UNITS:,} units or {MOST_UNIT_BYTES // 2**20} MB at the most.")

    def _note(
        self, session: Session, label: str, page: str, changes: Sequence[tuple[Kind, str, Kept | None, Kept | None]]
    ) -> None:
        """Write the edit down, merged with the one before where a person is still turning the same figure."""
        now = datetime.now(UTC).replace(tzinfo=None)
        session.execute(delete(EditRow).where(EditRow.undone, EditRow.page == page))
        own = session.scalar(select(EditRow).where(EditRow.page == page).order_by(EditRow.id.desc()).limit(1))
        if len(changes) == 1 and own is not None:
            kind, item_id, before, after = changes[0]
            same = (own.kind, own.item_id, own.label) == (kind, item_id, label) and own.before and before and after
            latest = session.scalar(select(func.max(EditRow.id)).where(EditRow.item_id == item_id))
            if same and latest == own.id and (now - own.at).total_seconds() < MERGE_S:
                own.after, own.at = after, now
                self._touch(session, {kind})
                return
        batch = 1 + (session.scalar(select(func.max(EditRow.batch))) or 0)
        rows = [
            {
                "batch": batch,
                "at": now,
                "label": label,
                "kind": kind,
                "item_id": item_id,
                "before": before,
                "after": after,
                "undone": False,
                "page": page,
            }
            for kind, item_id, before, after in changes
        ]
        if rows:
            session.execute(insert(EditRow), rows)
        session.execute(delete(EditRow).where(EditRow.batch < batch - KEEP_BATCHES))
        self._touch(session, {kind for kind, *_ in changes})

    def _touch(self, session: Session, kinds: Iterable[Kind]) -> None:
        for kind in kinds:
            if kind in KIT:
                key = changed(kind)
                row = session.get(MetaRow, key) or MetaRow(key=key, value=0)
                row.value = row.value + 1
                session.add(row)

    def meta(self) -> dict[str, Any]:
        """Single values by key: the preferences, and for each kind of kit how often it was changed (see `changed`)."""
        with said_plainly(), self.engine.connect() as connection:
            return {row.key: row.value for row in connection.execute(META)}

    def undo(self, page: str = "") -> UndoResult | None:
        """Take a page's last edit back; None where it has none. Raises Overtaken."""
        return self._turn(page, back=True)

    def redo(self, page: str = "") -> UndoResult | None:
        """Do a page's last edit taken back again. Raises Overtaken."""
        return self._turn(page, back=False)

    def _turn(self, page: str, back: bool) -> UndoResult | None:
        overtaken = ""
        result: UndoResult | None = None
        with self._writing() as session:
            pick = func.max(EditRow.batch) if back else func.min(EditRow.batch)
            batch = session.scalar(select(pick).where(EditRow.undone.is_(not back), EditRow.page == page))
            if batch is None:
                return None
            columns = (EditRow.kind, EditRow.item_id, EditRow.before, EditRow.after, EditRow.label)
            edits = session.execute(select(*columns).where(EditRow.batch == batch).order_by(EditRow.id)).all()
            label, kinds = edits[0].label, {edit.kind for edit in edits}
            wanted = {(e.kind, e.item_id): e.before if back else e.after for e in edits}
            expected = {(e.kind, e.item_id): e.after if back else e.before for e in edits}
            now = {
                (kind, item_id): kept
                for kind in kinds
                for item_id, kept in self._rows(session, kind, [e.item_id for e in edits if e.kind == kind]).items()
            }
            if any(not _same(now.get(key), kept) for key, kept in expected.items()):
                overtaken = label
                session.execute(delete(EditRow).where(EditRow.batch == batch))
            else:
                self._set(session, wanted, now)
                session.execute(update(EditRow).where(EditRow.batch == batch).values(undone=back))
                self._touch(session, cast(set[Kind], kinds))
                result = UndoResult(label, edits[-1].kind, [edit.item_id for edit in edits])
        if overtaken:
            verb = "undone" if back else "done again"
            raise Overtaken(f"“{overtaken}” cannot be {verb} here: it was changed elsewhere since.")
        return result

    def _set(
        self, session: Session, wanted: dict[tuple[str, str], Kept | None], now: dict[tuple[str, str], Kept]
    ) -> None:
        """Bring rows to what undo remembers of them, in bulk: those to add, to change, to take away."""
        jobs = set(session.scalars(select(JobRow.id))) | {
            i for (kind, i), kept in wanted.items() if kind == "jobs" and kept
        }
        for kind, table in ROWS.items():
            add, change = [], []
            for (of, item_id), kept in wanted.items():
                if of != kind or kept is None:
                    continue
                row = {"name": kept["doc"]["name"], "position": kept["position"], "doc": kept["doc"]}
                if kind == "setups":
                    row["job_id"] = kept.get("job_id") if kept.get("job_id") in jobs else None
                here = now.get((kind, item_id))
                if here is None:
                    add.append(row | {"id": item_id, "revision": kept["revision"] + 1})
                else:
                    new = here["doc"] != kept["doc"]
                    change.append(row | {"key": item_id, "revision": max(here["revision"], kept["revision"]) + new})
            if add:
                session.execute(insert(table), add)
            if change:
                columns: dict[str, Any] = {name: bindparam(name) for name in change[0] if name != "key"}
                where: ColumnElement[bool] = table.__table__.c.id == bindparam("key")
                session.connection().execute(update(table.__table__).where(where).values(columns), change)  # type: ignore[arg-type]
        for kind in reversed(ROWS):
            self._delete(session, kind, [i for (of, i), kept in wanted.items() if of == kind and kept is None])

    def history(self, page: str = "") -> tuple[str | None, str | None]:
        """(what undo would take back, what redo would do again) for a page."""
        with self._reading() as session:
            label = select(EditRow.label).where(EditRow.page == page).limit(1)
            last = session.scalar(label.where(~EditRow.undone).order_by(EditRow.id.desc()))
            following = session.scalar(label.where(EditRow.undone).order_by(EditRow.id))
            return last, following

    def forget_history(self) -> None:
        """Start the history here: what was done so far can no longer be undone."""
        with self._writing() as session:
            session.execute(delete(EditRow))

    def is_empty(self) -> bool:
        """Whether nothing was ever stored here."""
        with self._reading() as session:
            tables: list[Any] = [*ROWS.values(), EditRow]
            return not any(session.scalar(select(func.count()).select_from(table)) for table in tables)

    def put_preferences(self, value: dict[str, Any]) -> None:
        """Remember preferences."""
        with self._writing() as session:
            session.merge(MetaRow(key=PREFERENCES, value=value))


def _one(table: Any) -> Select[Any]:
    """The columns of `Item`, of one document of a kind."""
    columns = [table.id, table.revision, table.doc]
    if table is SetupRow:
        columns.append(table.job_id)
    return select(*columns).where(table.id == bindparam("id"))


ONE = {kind: _one(table) for kind, table in ROWS.items()}
META = select(MetaRow.key, MetaRow.value)


def changed(kind: Kind) -> str:
    """Key of the number that every change of this kind of kit raises, in whichever process it was made."""
    return f"changes of {kind}"


def _chunks(ids: Sequence[str]) -> Iterator[Sequence[str]]:
    for start in range(0, len(ids), CHUNK):
        yield ids[start : start + CHUNK]


def _same(here: Kept | None, kept: Kept | None) -> bool:
    """Whether a row is still as an edit left it."""
    if here is None or kept is None:
        return here is kept
    return bool(here["doc"] == kept["doc"] and here["job_id"] == kept.get("job_id"))


def _kept(row: dict[str, Any]) -> Kept:
    return {name: row.get(name) for name in ("doc", "position", "revision", "job_id")}


def _kept_row(row: Document) -> Kept:
    return {
        "doc": row.doc,
        "position": row.position,
        "revision": row.revision,
        "job_id": row.job_id if isinstance(row, SetupRow) else None,
    }
