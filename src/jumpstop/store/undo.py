"""Undo and redo: edits written down by page, merged while a figure is being turned, taken back in bulk.

Of a document that was changed only the changes are kept; of one that was added, only what it is known by again.
"""

import hashlib
import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any

from pydantic_core import to_json
from sqlalchemy import BindParameter, Connection, Row, bindparam, delete, func, insert, select, update

from .difference import Clash, applied, difference
from .parts import forget_unnamed
from .rows import TABLES, Kept, Kind, delete_rows, rows_with, touch
from .tables import edits

MERGE_S = 1.2  # edits of one document with one label, closer together than this, are undone as one
KEEP_BATCHES = 1000
KEEP_BYTES = 32 * 2**20  # of all that is remembered; the newest edit is remembered whatever its size
PRUNE_EVERY = 50  # batches: pruning reads all that is kept
LARGE = 2**18  # bytes of one edit after which it is looked at whether all are still few enough
PRUNED = "pruned"  # of a connection: room was made in the file

_of: BindParameter[str] = bindparam("of")
_own = select(edits.c.id, edits.c.kind, edits.c.item_id, edits.c.label, edits.c.at, edits.c.undone, edits.c.before)
LAST = _own.where(edits.c.page == _of).order_by(edits.c.id.desc()).limit(1)
LATER = select(edits.c.id).where(edits.c.id > bindparam("than"), edits.c.item_id == _of).limit(1)
LAST_BATCH = select(edits.c.batch).order_by(edits.c.id.desc()).limit(1)
ADD = insert(edits)
KEEP: dict[str, Any] = {"before": bindparam("before"), "after": bindparam("after")}
MERGE = update(edits).where(edits.c.id == bindparam("key")).values(**KEEP, at=bindparam("at"))
CHANGE = update(edits).where(edits.c.id == bindparam("key")).values(**KEEP)
FORGET_UNDONE = delete(edits).where(edits.c.undone, edits.c.page == _of)
_size = func.coalesce(func.length(edits.c.before), 0) + func.coalesce(func.length(edits.c.after), 0)
SIZES = select(edits.c.batch, func.sum(_size)).group_by(edits.c.batch).order_by(edits.c.batch.desc())

Change = tuple[Kind, str, Kept | None, Kept | None]
"""Kind, id, and the row before and after (None: not there)."""


@dataclass(frozen=True)
class UndoResult:
    """What an undo or redo did; where all of it was overtaken by edits made elsewhere, nothing.

    without: names of what was overtaken, and stays as it is.
    """

    label: str
    kind: str
    ids: list[str]
    overtaken: bool = False
    without: list[str] = field(default_factory=list)


def note(connection: Connection, label: str, page: str, changes: Sequence[Change], goes_on: bool | None = None) -> None:
    """Write an edit down, merged with the page's one before where a person is still turning the same figure.

    goes_on: whether they are, as the page saw it; None: judged by how soon the edit came after that one.
    """
    now = datetime.now(UTC).replace(tzinfo=None)
    own = connection.execute(LAST, {"of": page}).first()
    if own is not None and own.undone:  # after a new edit, what was taken back cannot be done again
        connection.execute(FORGET_UNDONE, {"of": page})
        own = connection.execute(LAST, {"of": page}).first()
    if len(changes) == 1 and own is not None:
        kind, item_id, before, after = changes[0]
        same = (own.kind, own.item_id, own.label) == (kind, item_id, label) and own.before and "ops" in own.before
        soon = (now - own.at).total_seconds() < MERGE_S
        still = same and (soon if goes_on is None else goes_on)
        if before and after and still and connection.execute(LATER, {"than": own.id, "of": item_id}).first() is None:
            first = own.before | {"doc": applied(before["doc"], own.before["ops"])}
            told = _told(first, after)
            connection.execute(MERGE, {"key": own.id, "before": told[0], "after": told[1], "at": now})
            touch(connection, {kind})
            return
    batch = 1 + (connection.execute(LAST_BATCH).scalar() or 0)
    shared = {"batch": batch, "at": now, "label": label, "undone": False, "page": page}
    rows = []
    for kind, item_id, before, after in changes:
        told = _told(before, after)
        rows.append(shared | {"kind": kind, "item_id": item_id, "before": told[0], "after": told[1]})
    if rows:
        connection.execute(ADD, rows)
    large = any(before and not after for *_, before, after in changes) or len(changes) * 1000 > LARGE
    if large or batch % PRUNE_EVERY == 0:
        _prune(connection, batch)
    touch(connection, {kind for kind, *_ in changes}, altered=any(before for _, _, before, _ in changes))


def _told(before: Kept | None, after: Kept | None) -> tuple[Kept | None, Kept | None]:
    """What is remembered of a row before and after."""
    if before is None:
        return None, after and _bare(after) | {"digest": _digest(after["doc"])}
    if after is None:
        return before, None
    return (
        _bare(before) | {"ops": difference(after["doc"], before["doc"])},
        _bare(after) | {"ops": difference(before["doc"], after["doc"])},
    )


def _bare(row: Kept) -> Kept:
    return {name: row.get(name) for name in ("position", "revision", "job_id")}


AS_STORED = "stored "  # before a digest of a document in the order in which it is stored


def _digest(doc: Any) -> str:
    return AS_STORED + hashlib.sha256(to_json(doc)).hexdigest()[:32]


def _known_by(digest: str, doc: Any) -> bool:
    """Whether a document is the one that a digest was made of; older ones were made with their fields sorted."""
    if digest.startswith(AS_STORED):
        return digest == _digest(doc)
    return digest == hashlib.sha256(json.dumps(doc, sort_keys=True).encode()).hexdigest()[:32]


def _prune(connection: Connection, newest: int) -> None:
    """Forget the oldest edits where they are too many, or too much."""
    oldest, size = newest, 0
    for batch, own in connection.execute(SIZES):
        size += own
        if batch != newest and (size > KEEP_BYTES or batch <= newest - KEEP_BATCHES):
            break
        oldest = batch
    if connection.execute(delete(edits).where(edits.c.batch < oldest)).rowcount:
        forget_unnamed(connection)
        connection.info[PRUNED] = True


def turn(connection: Connection, page: str, back: bool) -> UndoResult | None:
    """Take a page's last edit back, or do it again; None where there is none.

    What was changed elsewhere since in the same places is left as it is, and named; where that is all of it, nothing is
    done, and the edit is said to be overtaken. It is remembered all the same.
    """
    pick = func.max(edits.c.batch) if back else func.min(edits.c.batch)
    batch = connection.scalar(select(pick).where(edits.c.undone.is_(not back), edits.c.page == page))
    if batch is None:
        return None
    found = connection.execute(select(edits).where(edits.c.batch == batch).order_by(edits.c.id)).all()
    label, kinds = found[0].label, {edit.kind for edit in found}
    now = {
        (kind, item_id): row
        for kind in kinds
        for item_id, row in rows_with(connection, kind, [e.item_id for e in found if e.kind == kind]).items()
    }
    wanted: dict[tuple[str, str], Kept | None] = {}
    without, remembered = list[str](), list[dict[str, Any]]()
    for edit in found:
        key = (edit.kind, edit.item_id)
        here = now.get(key)
        try:
            wanted[key] = _wanted(edit, here, back)
        except Clash:
            without.append(here["doc"]["name"] if here else "")
            continue
        if wanted[key] is None and here is not None:  # what goes is remembered as it went, its revision too
            gone = {"before": edit.before, "after": edit.after} | {"after" if back else "before": here}
            remembered.append(gone | {"key": edit.id})
    if not wanted:
        return UndoResult(label, found[-1].kind, [], overtaken=True)
    if remembered:
        connection.execute(CHANGE, remembered)
    _bring(connection, wanted, now)
    connection.execute(update(edits).where(edits.c.batch == batch).values(undone=back))
    touch(connection, kinds)
    return UndoResult(label, found[-1].kind, [item_id for _, item_id in wanted], without=without)


def _wanted(edit: Row[Any], here: Kept | None, back: bool) -> Kept | None:
    """The row that an edit taken back, or done again, leads to. Raises Clash where its places are not as left."""
    before, after = edit.before, edit.after
    if before and after and "doc" in before:  # as version 4 kept it
        before, after = _told(before, after)
    then, left = (before, after) if back else (after, before)
    if left is None:
        if here is not None:
            raise Clash
        return None if then is None else dict(then)
    if here is None:
        raise Clash
    if then is None:
        doc = left.get("doc")
        if doc != here["doc"] and not _known_by(left.get("digest", _digest(doc)), here["doc"]):
            raise Clash
        return None
    if then["job_id"] != left["job_id"] and here["job_id"] != left["job_id"]:
        raise Clash
    job = then["job_id"] if then["job_id"] != left["job_id"] else here["job_id"]
    doc = applied(here["doc"], then["ops"])
    return {"doc": doc, "position": here["position"], "revision": then["revision"], "job_id": job}


def labels(connection: Connection, page: str) -> tuple[str | None, str | None]:
    """(what undo would take back, what redo would do again) for a page."""
    label = select(edits.c.label).where(edits.c.page == page).limit(1)
    last = connection.scalar(label.where(~edits.c.undone).order_by(edits.c.id.desc()))
    return last, connection.scalar(label.where(edits.c.undone).order_by(edits.c.id))


def _bring(
    connection: Connection, wanted: Mapping[tuple[str, str], Kept | None], now: Mapping[tuple[str, str], Kept]
) -> None:
    """Bring rows to what undo remembers of them, in bulk: those to add, to change, to take away.

    A revision is never used twice: it only rises, of a row that went and came back too.
    """
    jobs = set(connection.scalars(select(TABLES["jobs"].c.id)))
    jobs |= {item_id for (kind, item_id), row in wanted.items() if kind == "jobs" and row}
    for kind, table in TABLES.items():
        add: list[dict[str, Any]] = []
        change: list[dict[str, Any]] = []
        for (of, item_id), then in wanted.items():
            if of != kind or then is None:
                continue
            row = {"name": then["doc"]["name"], "position": then["position"], "doc": then["doc"]}
            if kind == "setups":
                row["job_id"] = then.get("job_id") if then.get("job_id") in jobs else None
            here = now.get((kind, item_id))
            if here is None:
                add.append(row | {"id": item_id, "revision": then["revision"] + 1})
            else:
                change.append(row | {"key": item_id, "revision": here["revision"] + (here["doc"] != then["doc"])})
        if add:
            connection.execute(insert(table), add)
        if change:
            columns: dict[str, Any] = {name: bindparam(name) for name in change[0] if name != "key"}
            connection.execute(update(table).where(table.c.id == bindparam("key")).values(columns), change)
    for kind in reversed(TABLES):
        delete_rows(connection, kind, [i for (of, i), row in wanted.items() if of == kind and row is None])
