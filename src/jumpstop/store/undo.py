"""Undo and redo: edits written down by page, merged while a figure is being turned, taken back in bulk."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import BindParameter, Connection, bindparam, delete, func, insert, select, update

from .rows import TABLES, Kept, Kind, delete_rows, rows_with, touch
from .tables import edits

MERGE_S = 1.2  # edits of one document with one label, closer together than this, are undone as one
KEEP_BATCHES = 1000
PRUNE_EVERY = 50  # batches: pruning reads all that is kept

_of: BindParameter[str] = bindparam("of")
_own = select(edits.c.id, edits.c.kind, edits.c.item_id, edits.c.label, edits.c.at, edits.c.undone)
LAST = _own.add_columns(edits.c.before.is_not(None).label("changes")).where(edits.c.page == _of)
LAST = LAST.order_by(edits.c.id.desc()).limit(1)
LATER = select(edits.c.id).where(edits.c.id > bindparam("than"), edits.c.item_id == _of).limit(1)
LAST_BATCH = select(edits.c.batch).order_by(edits.c.id.desc()).limit(1)
ADD = insert(edits)
MERGE = update(edits).where(edits.c.id == bindparam("key")).values(after=bindparam("after"), at=bindparam("at"))
FORGET_UNDONE = delete(edits).where(edits.c.undone, edits.c.page == _of)

Change = tuple[Kind, str, Kept | None, Kept | None]
"""Kind, id, and the row before and after (None: not there)."""


@dataclass(frozen=True)
class UndoResult:
    """What an undo or redo did; where it was overtaken by an edit made elsewhere, nothing."""

    label: str
    kind: str
    ids: list[str]
    overtaken: bool = False


def note(connection: Connection, label: str, page: str, changes: Sequence[Change]) -> None:
    """Write an edit down, merged with the page's one before where a person is still turning the same figure."""
    now = datetime.now(UTC).replace(tzinfo=None)
    own = connection.execute(LAST, {"of": page}).first()
    if own is not None and own.undone:  # after a new edit, what was taken back cannot be done again
        connection.execute(FORGET_UNDONE, {"of": page})
        own = connection.execute(LAST, {"of": page}).first()
    if len(changes) == 1 and own is not None:
        kind, item_id, before, after = changes[0]
        same = (own.kind, own.item_id, own.label) == (kind, item_id, label) and own.changes and before and after
        still = same and (now - own.at).total_seconds() < MERGE_S
        if still and connection.execute(LATER, {"than": own.id, "of": item_id}).first() is None:
            connection.execute(MERGE, {"key": own.id, "after": after, "at": now})
            touch(connection, {kind})
            return
    batch = 1 + (connection.execute(LAST_BATCH).scalar() or 0)
    shared = {"batch": batch, "at": now, "label": label, "undone": False, "page": page}
    rows = [
        shared | {"kind": kind, "item_id": item_id, "before": before, "after": after}
        for kind, item_id, before, after in changes
    ]
    if rows:
        connection.execute(ADD, rows)
    if batch % PRUNE_EVERY == 0:
        connection.execute(delete(edits).where(edits.c.batch < batch - KEEP_BATCHES))
    touch(connection, {kind for kind, *_ in changes})


def turn(connection: Connection, page: str, back: bool) -> UndoResult | None:
    """Take a page's last edit back, or do it again; None where there is none.

    An edit whose rows were changed elsewhere since is not taken back over that: it is forgotten, and said to
    be overtaken.
    """
    pick = func.max(edits.c.batch) if back else func.min(edits.c.batch)
    batch = connection.scalar(select(pick).where(edits.c.undone.is_(not back), edits.c.page == page))
    if batch is None:
        return None
    columns = (edits.c.kind, edits.c.item_id, edits.c.before, edits.c.after, edits.c.label)
    found = connection.execute(select(*columns).where(edits.c.batch == batch).order_by(edits.c.id)).all()
    label, kinds = found[0].label, {edit.kind for edit in found}
    wanted = {(edit.kind, edit.item_id): edit.before if back else edit.after for edit in found}
    expected = {(edit.kind, edit.item_id): edit.after if back else edit.before for edit in found}
    now = {
        (kind, item_id): row
        for kind in kinds
        for item_id, row in rows_with(connection, kind, [e.item_id for e in found if e.kind == kind]).items()
    }
    if any(not _same(now.get(key), row) for key, row in expected.items()):
        connection.execute(delete(edits).where(edits.c.batch == batch))
        return UndoResult(label, found[-1].kind, [], overtaken=True)
    _bring(connection, wanted, now)
    connection.execute(update(edits).where(edits.c.batch == batch).values(undone=back))
    touch(connection, kinds)
    return UndoResult(label, found[-1].kind, [edit.item_id for edit in found])


def labels(connection: Connection, page: str) -> tuple[str | None, str | None]:
    """(what undo would take back, what redo would do again) for a page."""
    label = select(edits.c.label).where(edits.c.page == page).limit(1)
    last = connection.scalar(label.where(~edits.c.undone).order_by(edits.c.id.desc()))
    return last, connection.scalar(label.where(edits.c.undone).order_by(edits.c.id))


def _same(here: Kept | None, then: Kept | None) -> bool:
    """Whether a row is still as an edit left it."""
    if here is None or then is None:
        return here is then
    return bool(here["doc"] == then["doc"] and here["job_id"] == then.get("job_id"))


def _bring(
    connection: Connection, wanted: Mapping[tuple[str, str], Kept | None], now: Mapping[tuple[str, str], Kept]
) -> None:
    """Bring rows to what undo remembers of them, in bulk: those to add, to change, to take away."""
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
            else:  # a revision is never used twice
                new = here["doc"] != then["doc"]
                change.append(row | {"key": item_id, "revision": max(here["revision"], then["revision"]) + new})
        if add:
            connection.execute(insert(table), add)
        if change:
            columns: dict[str, Any] = {name: bindparam(name) for name in change[0] if name != "key"}
            connection.execute(update(table).where(table.c.id == bindparam("key")).values(columns), change)
    for kind in reversed(TABLES):
        delete_rows(connection, kind, [i for (of, i), row in wanted.items() if of == kind and row is None])
