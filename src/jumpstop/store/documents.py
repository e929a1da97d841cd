"""The documents: listing, reading, and edits that are durable, checked against a revision, and can be undone."""

import os
import re
import uuid
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from threading import Lock
from typing import Any

from sqlalchemy import Connection, Row, Select, delete, func, insert, select, update
from sqlalchemy.exc import OperationalError

from ..core.scene.job import MOST_SETUPS
from ..core.scene.log import MOST_ENTRIES as MOST_LOG
from ..core.scene.parts import named, packed, unpacked
from . import undo
from .database import open_engine
from .errors import Busy, Conflict, NotFound, Overtaken, StorageFault, TooMuch
from .file import FILE, WAIT_S, said_plainly
from .parts import keep_parts, parts_of, parts_of_log
from .rows import (
    CHANGE,
    META,
    ONE,
    ONE_AND_META,
    SET_META,
    TABLES,
    Kind,
    chunks,
    columns,
    delete_rows,
    job_of,
    kept,
    kept_values,
    rows_with,
)
from .tables import edits
from .unchanged import Unchanged
from .undo import PRUNED, Change, UndoResult

PREFERENCES = "preferences"
MOST_UNITS = 20_000
MOST_UNIT_BYTES = 16 * 2**20  # so that what is exported can be imported again
UNITS_SIZE = "SELECT count(*), coalesce(sum(length(doc)), 0) FROM units"


@dataclass(frozen=True)
class Item:
    """A stored document."""

    id: str
    revision: int
    doc: dict[str, Any]
    job_id: str | None = None


def _item(row: Row[Any]) -> Item:
    return Item(row.id, row.revision, row.doc, job_of(row))


def _found(connection: Connection, kind: Kind, item_id: str, looked_for: Mapping[str, Select[Any]] = ONE) -> Row[Any]:
    row = connection.execute(looked_for[kind], {"id": item_id}).first()
    if row is None:
        raise NotFound("gone", kind=kind)
    return row


def _holds(connection: Connection, job_id: str | None) -> None:
    """Raises TooMuch where a job has more setups than its file holds."""
    if job_id is None:
        return
    setups = TABLES["setups"]
    count = connection.scalar(select(func.count()).select_from(setups).where(setups.c.job_id == job_id)) or 0
    if count > MOST_SETUPS:
        raise TooMuch("job_full", most=MOST_SETUPS)


def _meta(connection: Connection) -> dict[str, Any]:
    return {row.key: row.value for row in connection.execute(META)}


class Store:
    """One data folder."""

    def __init__(self, folder: Path) -> None:
        self.path = folder / FILE
        self.engine = open_engine(folder)
        self._unchanged = Unchanged(self.engine)
        self._file = self._identity()
        self._one_writes = Lock()

    def close(self) -> None:
        """Let go of the data file."""
        self._unchanged.close()
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
            raise StorageFault("data_moved", path=self.path)

    @contextmanager
    def _reading(self) -> Iterator[Connection]:
        with said_plainly(), self.engine.connect() as connection:
            try:
                yield connection
            except OperationalError:  # another file, or none, in its place
                self._still_there()
                raise

    @contextmanager
    def writing(self) -> Iterator[Connection]:
        """A transaction with the write lock from its start, so that what it checked still holds when it writes."""
        self._still_there()
        with self._own_turn(), said_plainly(), self.engine.connect() as connection:
            connection.exec_driver_sql("BEGIN IMMEDIATE")
            yield connection
            try:
                connection.commit()
            except BaseException:
                connection.invalidate()  # its transaction, and with it the write lock, may still be open
                raise
            if connection.info.pop(PRUNED, False):
                driver: Any = connection.connection.driver_connection
                driver.executescript("PRAGMA incremental_vacuum")  # to its end, where one call would free a page
        self._still_there()

    @contextmanager
    def _own_turn(self) -> Iterator[None]:
        """Writes of this program one after the other: SQLite would let them ask again, later and later. Raises Busy."""
        if not self._one_writes.acquire(timeout=WAIT_S):
            raise Busy("data_busy")
        try:
            yield
        finally:
            self._one_writes.release()

    def items(self, kind: Kind) -> list[Item]:
        """All documents of a kind, in their order."""
        table = TABLES[kind]
        with self._reading() as connection:
            rows = connection.execute(select(*columns(table)).order_by(table.c.position, table.c.id))
            return self._items(connection, kind, rows)

    def revisions(self, kind: Kind, behind: float | None = None) -> list[tuple[str, int, float]]:
        """(id, revision, place) of the documents of a kind, in their order; all, or those behind a place."""
        of = TABLES[kind].c
        wanted = select(of.id, of.revision, of.position).order_by(of.position, of.id)
        with self._reading() as connection:
            rows = connection.execute(wanted if behind is None else wanted.where(of.position > behind))
            return list(rows.cursor.fetchall())  # as they are: a log has thousands

    def packed(self, kind: Kind, ids: Sequence[str]) -> tuple[list[Item], dict[str, Any]]:
        """(these documents of a kind, with the parts that many hold alike named only; those parts by their names)."""
        with self._reading() as connection:
            table, items = TABLES[kind], dict[str, Item]()
            for some in chunks(ids):
                found = select(table.c.id, table.c.revision, table.c.doc).where(table.c.id.in_(some))
                items |= {key: Item(key, revision, doc) for key, revision, doc in connection.execute(found)}
            parts = parts_of(connection, {part for one in items.values() for part in named(one.doc)})
            return [items[key] for key in ids if key in items], parts

    def written_log(self) -> tuple[list[tuple[str, str]], dict[str, str]]:
        """(entries of the log as JSON by their ids, in their order, packed; their parts as JSON): nothing is read into
        values."""
        with self._reading() as connection:
            rows = connection.exec_driver_sql("SELECT id, doc FROM log ORDER BY position, id")
            return [(key, doc) for key, doc in rows], parts_of_log(connection)

    def _items(self, connection: Connection, kind: Kind, rows: Iterable[Row[Any]]) -> list[Item]:
        items = [_item(row) for row in rows]
        if kind != "log":
            return items
        parts = parts_of(connection, {part for one in items for part in named(one.doc)})
        return [replace(one, doc=unpacked(one.doc, parts)) for one in items]

    def item(self, kind: Kind, item_id: str) -> Item:
        """One document. Raises NotFound."""
        with self._reading() as connection:
            return self._items(connection, kind, [_found(connection, kind, item_id)])[0]

    def item_and_meta(self, kind: Kind, item_id: str) -> tuple[Item, dict[str, Any]]:
        """One document and the single values, in one reading; kept, and not to be changed. Raises NotFound."""

        def read(connection: Connection) -> tuple[Item, dict[str, Any]]:
            row = _found(connection, kind, item_id, ONE_AND_META)
            return _item(row), row.meta

        return self._unchanged.get((kind, item_id), read)

    def add(
        self, kind: Kind, docs: Sequence[dict[str, Any]], label: str, job_id: str | None = None, page: str = ""
    ) -> list[Item]:
        """New documents at the end of their list, as one edit. Raises TooMuch, or NotFound for the job."""
        with self.writing() as connection:
            if job_id is not None:
                _found(connection, "jobs", job_id)
            added = self._added(connection, kind, docs, label, job_id, page)
            _holds(connection, job_id)
            return added

    def add_together(self, docs: Mapping[Kind, Sequence[dict[str, Any]]], label: str, page: str = "") -> None:
        """New documents of several kinds, as one edit. Raises TooMuch; then none is added."""
        with self.writing() as connection:
            rows = [(kind, row) for kind, some in docs.items() for row in self._inserted(connection, kind, some)]
            undo.note(connection, label, page, [(kind, row["id"], None, kept_values(row)) for kind, row in rows])

    def keep(
        self,
        kind: Kind,
        docs: Sequence[tuple[str, dict[str, Any]]],
        label: str,
        page: str = "",
    ) -> tuple[list[Item], int]:
        """(documents whose ids were made elsewhere, how many of them are new), as one edit.

        One that is there already stays as it is: sent twice, it is kept once. Raises TooMuch.
        """
        docs = list(dict(docs).items())
        parts: dict[str, Any] = {}
        if kind == "log":
            docs = [(item_id, packed(doc, parts)) for item_id, doc in docs]
        with self.writing() as connection:
            found, new = self._kept(connection, kind, docs, label, page, parts)
            if kind == "log":
                parts |= parts_of(connection, {part for one in found for part in named(one.doc)} - parts.keys())
                found = [replace(one, doc=unpacked(one.doc, parts)) for one in found]
            return found, new

    def keep_many(
        self,
        kind: Kind,
        docs: Sequence[tuple[str, dict[str, Any]]],
        label: str,
        page: str,
        parts: Mapping[str, Any],
    ) -> int:
        """How many of these documents are new: as `keep` does it, of many that come packed."""
        with self.writing() as connection:
            return self._kept(connection, kind, docs, label, page, parts)[1]

    def _kept(
        self,
        connection: Connection,
        kind: Kind,
        docs: Sequence[tuple[str, dict[str, Any]]],
        label: str,
        page: str,
        parts: Mapping[str, Any],
    ) -> tuple[list[Item], int]:
        """Documents kept in a transaction that is open (see `keep`)."""
        keep_parts(connection, parts)
        there = rows_with(connection, kind, [item_id for item_id, _ in docs])
        last = connection.scalar(select(func.max(TABLES[kind].c.position))) or 0.0
        new = [(item_id, doc) for item_id, doc in docs if item_id not in there]
        rows = [
            {"id": item_id, "name": doc["name"], "position": last + at, "revision": 1, "doc": doc}
            for at, (item_id, doc) in enumerate(new, 1)
        ]
        if rows:
            connection.execute(insert(TABLES[kind]), rows)
            undo.note(connection, label, page, [(kind, row["id"], None, kept_values(row)) for row in rows])
        found = [
            Item(item_id, there[item_id]["revision"], there[item_id]["doc"])
            if item_id in there
            else Item(item_id, 1, doc)
            for item_id, doc in docs
        ]
        self._fits(connection, kind)
        return found, len(rows)

    def add_job(
        self, doc: dict[str, Any], setups: Sequence[tuple[str, dict[str, Any]]], page: str = "", label: str = ""
    ) -> Item:
        """A new job with new setups, as one edit; its sessions and posts are told the setups' new ids, each given its
        old."""
        with self.writing() as connection:
            new = {old: uuid.uuid4().hex for old, _ in setups}
            posts = [one | {"setup": new[one["setup"]]} for one in doc.get("posts", []) if one["setup"] in new]
            sessions = [one | {"setup": new[one["setup"]]} for one in doc.get("sessions", [])]
            doc = doc | {"sessions": sessions, "posts": posts}
            last = connection.scalar(select(func.max(TABLES["jobs"].c.position))) or 0.0
            row = {"id": uuid.uuid4().hex, "name": doc["name"], "position": last + 1, "revision": 1, "doc": doc}
            connection.execute(insert(TABLES["jobs"]), [row])
            first = connection.scalar(select(func.max(TABLES["setups"].c.position))) or 0.0
            rows = [
                {"id": new[old], "name": one["name"], "position": first + at, "revision": 1, "doc": one,
                 "job_id": row["id"]}
                for at, (old, one) in enumerate(setups, 1)
            ]  # fmt: skip
            if rows:
                connection.execute(insert(TABLES["setups"]), rows)
            changes: list[Change] = [("jobs", row["id"], None, kept_values(row))]
            changes += [("setups", one["id"], None, kept_values(one)) for one in rows]
            undo.note(connection, label, page, changes)
            return Item(row["id"], 1, doc)

    def copy(self, kind: Kind, item_id: str, labelled: Callable[[str], str], page: str = "") -> Item:
        """A copy of a document, named with the next free number behind its name; of a setup without what was read of
        it. labelled: what undo will call it, by the name. Raises NotFound."""
        table = TABLES[kind]
        with self.writing() as connection:  # the name is chosen under the lock: two copies at once differ
            original = _item(_found(connection, kind, item_id))
            base = re.sub(r" \(\d+\)$", "", original.doc["name"])[:74]
            taken = set(connection.scalars(select(table.c.name).where(table.c.name.startswith(base, autoescape=True))))
            number = next(n for n in range(2, len(taken) + 3) if f"{base} ({n})" not in taken)
            doc = original.doc | {"name": f"{base} ({number})"}
            if kind == "setups":
                doc["seen"] = []  # readings belong to the setup that they were taken of
            copied = self._added(connection, kind, [doc], labelled(base), original.job_id, page)[0]
            _holds(connection, original.job_id)
            return copied

    def _added(
        self,
        connection: Connection,
        kind: Kind,
        docs: Sequence[dict[str, Any]],
        label: str,
        job_id: str | None,
        page: str,
    ) -> list[Item]:
        rows = self._inserted(connection, kind, docs, job_id)
        if rows:
            undo.note(connection, label, page, [(kind, row["id"], None, kept_values(row)) for row in rows])
        return [Item(row["id"], 1, row["doc"], job_id) for row in rows]

    def _inserted(
        self, connection: Connection, kind: Kind, docs: Sequence[dict[str, Any]], job_id: str | None = None
    ) -> list[dict[str, Any]]:
        """New rows at the end of their list. Raises TooMuch."""
        last = connection.scalar(select(func.max(TABLES[kind].c.position))) or 0.0
        rows = [
            {"id": uuid.uuid4().hex, "name": doc["name"], "position": last + 1 + index, "revision": 1, "doc": doc}
            | ({"job_id": job_id} if kind == "setups" else {})
            for index, doc in enumerate(docs)
        ]
        if rows:
            connection.execute(insert(TABLES[kind]), rows)
        self._fits(connection, kind)
        return rows

    def put(
        self,
        kind: Kind,
        item_id: str,
        doc: dict[str, Any],
        revision: int,
        label: str,
        page: str = "",
        goes_on: bool | None = None,
        meanwhile: Callable[[Item, dict[str, Any]], None] | None = None,
    ) -> Item:
        """A document changed. goes_on: see `undo.note`. Raises NotFound, or Conflict where `revision` is not the
        newest.

        meanwhile: told what the document and the single values (see `meta`) are to be, before the disk has them: it
        may begin what takes as long as the disk does, but must say nothing before this returns, nor keep it where this
        raises. Not called where nothing changes."""
        with self.writing() as connection:
            row = _found(connection, kind, item_id)
            if row.revision != revision:
                raise Conflict(self._items(connection, kind, [row])[0])
            parts: dict[str, Any] = {}
            kept_doc = packed(doc, parts) if kind == "log" else doc
            if row.doc == kept_doc:
                return Item(item_id, revision, doc, job_of(row))
            keep_parts(connection, parts)
            new = {"doc": kept_doc, "name": doc["name"], "revision": revision + 1}
            connection.execute(CHANGE[kind], new | {"key": item_id})
            before = kept(row)
            after = before | {"doc": kept_doc, "revision": revision + 1}
            undo.note(connection, label, page, [(kind, item_id, before, after)], goes_on)
            self._fits(connection, kind)
            item = Item(item_id, revision + 1, doc, job_of(row))
            if meanwhile is not None:
                meanwhile(item, _meta(connection))
        return item

    def put_together(
        self, docs: Sequence[tuple[Kind, str, dict[str, Any], int]], label: str, page: str = ""
    ) -> list[Item]:
        """Several documents changed as one edit: (kind, id, document, the revision it was made from) of each; none of
        the log. Raises NotFound, or Conflict where one revision is not the newest; then none is changed."""
        with self.writing() as connection:
            changes, out = list[Change](), list[Item]()
            for kind, item_id, doc, revision in docs:
                row = _found(connection, kind, item_id)
                if row.revision != revision:
                    raise Conflict(_item(row))
                new = {"doc": doc, "name": doc["name"], "revision": revision + 1}
                connection.execute(CHANGE[kind], new | {"key": item_id})
                changes.append((kind, item_id, kept(row), kept(row) | {"doc": doc, "revision": revision + 1}))
                out.append(Item(item_id, revision + 1, doc, job_of(row)))
            undo.note(connection, label, page, changes)
            return out

    def move(self, setup_id: str, job_id: str | None, label: str, page: str = "") -> Item:
        """A setup put into a job, or into none. Raises NotFound."""
        table = TABLES["setups"]
        with self.writing() as connection:
            row = _found(connection, "setups", setup_id)
            if job_id is not None:
                _found(connection, "jobs", job_id)
            if row.job_id != job_id:
                connection.execute(update(table).where(table.c.id == setup_id).values(job_id=job_id))
                before = kept(row)
                undo.note(connection, label, page, [("setups", setup_id, before, before | {"job_id": job_id})])
                _holds(connection, job_id)
            return Item(setup_id, row.revision, row.doc, job_id)

    def remove(self, kind: Kind, ids: Sequence[str], label: str, page: str = "") -> None:
        """Documents taken away (undo brings them back, setups into their jobs). Raises NotFound."""
        ids = list(dict.fromkeys(ids))
        with self.writing() as connection:
            gone = rows_with(connection, kind, ids)
            if len(gone) < len(ids):
                raise NotFound("gone", kind=kind)
            changes: list[Change] = []
            if kind == "jobs":
                setups = TABLES["setups"]
                for row in connection.execute(select(*columns(setups)).where(setups.c.job_id.in_(ids))):
                    changes.append(("setups", row.id, kept(row), kept(row) | {"job_id": None}))
                connection.execute(update(setups).where(setups.c.job_id.in_(ids)).values(job_id=None))
            changes += [(kind, item_id, gone[item_id], None) for item_id in ids]
            undo.note(connection, label, page, changes)
            delete_rows(connection, kind, ids)

    def _fits(self, connection: Connection, kind: Kind) -> None:
        """Raises TooMuch where there are more units or entries than there may be."""
        if kind == "log" and connection.exec_driver_sql("SELECT count(*) FROM log").scalar_one() > MOST_LOG:
            raise TooMuch("log_full", most=MOST_LOG)
        if kind != "units":
            return
        number, size = connection.exec_driver_sql(UNITS_SIZE).one()
        if number > MOST_UNITS or size > MOST_UNIT_BYTES:
            raise TooMuch("shelf_full", most=MOST_UNITS, bytes=MOST_UNIT_BYTES)

    def meta(self) -> dict[str, Any]:
        """Single values by key: the preferences, and for each kind of kit how often it was changed (see `changed`).

        Kept, and not to be changed.
        """
        return self._unchanged.get("meta", _meta)

    def undo(self, page: str = "") -> UndoResult | None:
        """Take a page's last edit back; None where it has none. Raises Overtaken."""
        return self._turn(page, back=True)

    def redo(self, page: str = "") -> UndoResult | None:
        """Do a page's last edit taken back again. Raises Overtaken."""
        return self._turn(page, back=False)

    def _turn(self, page: str, back: bool) -> UndoResult | None:
        with self.writing() as connection:
            done = undo.turn(connection, page, back)
        if done is not None and done.overtaken:
            raise Overtaken("overtaken", label=done.label, back=back)
        return done

    def history(self, page: str = "") -> tuple[str | None, str | None]:
        """(what undo would take back, what redo would do again) for a page."""
        with self._reading() as connection:
            return undo.labels(connection, page)

    def forget_history(self) -> None:
        """Start the history here: what was done so far can no longer be undone."""
        with self.writing() as connection:
            connection.execute(delete(edits))

    def is_empty(self) -> bool:
        """Whether nothing was ever stored here."""
        with self._reading() as connection:
            tables: list[Any] = [*TABLES.values(), edits]
            return not any(connection.scalar(select(func.count()).select_from(table)) for table in tables)

    def change_preferences(self, fields: dict[str, Any]) -> None:
        """Remember these preferences; those that are not named stay as they are."""
        with self.writing() as connection:
            kept = _meta(connection).get(PREFERENCES, {})
            connection.execute(SET_META, {"key": PREFERENCES, "value": kept | fields})
