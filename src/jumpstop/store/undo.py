"""Undo and redo: edits written down by page, merged while a figure is being turned, taken back in bulk."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import ColumnElement, bindparam, delete, func, insert, select, update
from sqlalchemy.orm import Session

from .models import EditRow, JobRow
from .rows import ROWS, Kept, Kind, delete_rows, rows_with, touch

MERGE_S = 1.2  # edits of one document with one label, closer together than this, are undone as one
KEEP_BATCHES = 1000

Change = tuple[Kind, str, Kept | None, Kept | None]
"""Kind, id, and the row before and after (None: not there)."""


@dataclass(frozen=True)
class UndoResult:
    """What an undo or redo did; where it was overtaken by an edit made elsewhere, nothing."""

    label: str
    kind: str
    ids: list[str]
    overtaken: bool = False


def note(session: Session, label: str, page: str, changes: Sequence[Change]) -> None:
    """Write an edit down, merged with the page's one before where a person is still turning the same figure."""
    now = datetime.now(UTC).replace(tzinfo=None)
    session.execute(delete(EditRow).where(EditRow.undone, EditRow.page == page))
    own = session.scalar(select(EditRow).where(EditRow.page == page).order_by(EditRow.id.desc()).limit(1))
    if len(changes) == 1 and own is not None:
        kind, item_id, before, after = changes[0]
        same = (own.kind, own.item_id, own.label) == (kind, item_id, label) and own.before and before and after
        latest = session.scalar(select(func.max(EditRow.id)).where(EditRow.item_id == item_id))
        if same and latest == own.id and (now - own.at).total_seconds() < MERGE_S:
            own.after, own.at = after, now
            touch(session, {kind})
            return
    batch = 1 + (session.scalar(select(func.max(EditRow.batch))) or 0)
    shared = {"batch": batch, "at": now, "label": label, "undone": False, "page": page}
    rows = [
        shared | {"kind": kind, "item_id": item_id, "before": before, "after": after}
        for kind, item_id, before, after in changes
    ]
    if rows:
        session.execute(insert(EditRow), rows)
    session.execute(delete(EditRow).where(EditRow.batch < batch - KEEP_BATCHES))
    touch(session, {kind for kind, *_ in changes})


def turn(session: Session, page: str, back: bool) -> UndoResult | None:
    """Take a page's last edit back, or do it again; None where there is none.

    An edit whose rows were changed elsewhere since is not taken back over that: it is forgotten, and said to
    be overtaken.
    """
    pick = func.max(EditRow.batch) if back else func.min(EditRow.batch)
    batch = session.scalar(select(pick).where(EditRow.undone.is_(not back), EditRow.page == page))
    if batch is None:
        return None
    columns = (EditRow.kind, EditRow.item_id, EditRow.before, EditRow.after, EditRow.label)
    edits = session.execute(select(*columns).where(EditRow.batch == batch).order_by(EditRow.id)).all()
    label, kinds = edits[0].label, {edit.kind for edit in edits}
    wanted = {(edit.kind, edit.item_id): edit.before if back else edit.after for edit in edits}
    expected = {(edit.kind, edit.item_id): edit.after if back else edit.before for edit in edits}
    now = {
        (kind, item_id): row
        for kind in kinds
        for item_id, row in rows_with(session, kind, [e.item_id for e in edits if e.kind == kind]).items()
    }
    if any(not _same(now.get(key), row) for key, row in expected.items()):
        session.execute(delete(EditRow).where(EditRow.batch == batch))
        return UndoResult(label, edits[-1].kind, [], overtaken=True)
    _bring(session, wanted, now)
    session.execute(update(EditRow).where(EditRow.batch == batch).values(undone=back))
    touch(session, kinds)
    return UndoResult(label, edits[-1].kind, [edit.item_id for edit in edits])


def labels(session: Session, page: str) -> tuple[str | None, str | None]:
    """(what undo would take back, what redo would do again) for a page."""
    label = select(EditRow.label).where(EditRow.page == page).limit(1)
    last = session.scalar(label.where(~EditRow.undone).order_by(EditRow.id.desc()))
    return last, session.scalar(label.where(EditRow.undone).order_by(EditRow.id))


def _same(here: Kept | None, then: Kept | None) -> bool:
    """Whether a row is still as an edit left it."""
    if here is None or then is None:
        return here is then
    return bool(here["doc"] == then["doc"] and here["job_id"] == then.get("job_id"))


def _bring(
    session: Session, wanted: Mapping[tuple[str, str], Kept | None], now: Mapping[tuple[str, str], Kept]
) -> None:
    """Bring rows to what undo remembers of them, in bulk: those to add, to change, to take away."""
    jobs = set(session.scalars(select(JobRow.id)))
    jobs |= {item_id for (kind, item_id), row in wanted.items() if kind == "jobs" and row}
    for kind, table in ROWS.items():
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
            session.execute(insert(table), add)
        if change:
            columns: dict[str, Any] = {name: bindparam(name) for name in change[0] if name != "key"}
            where: ColumnElement[bool] = table.__table__.c.id == bindparam("key")
            session.connection().execute(update(table.__table__).where(where).values(columns), change)  # type: ignore[arg-type]
    for kind in reversed(ROWS):
        delete_rows(session, kind, [i for (of, i), row in wanted.items() if of == kind and row is None])
