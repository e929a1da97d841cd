"""Documents of version 2, kit known by its id in setups, edits told apart by the page they came from; our own mark."""

import json
from collections.abc import Callable
from typing import Any

import sqlalchemy as sa
from alembic import op

from jumpstop.core.scene.versions import setup_of_any_version, unit_of_any_version
from jumpstop.store.file import APPLICATION_ID

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    """Rename what the documents call things, in the tables and in what undo remembers."""
    connection = op.get_bind()
    ids = {
        kind: {
            name: item
            for item, name in connection.execute(sa.text(f"SELECT id, name FROM {kind} ORDER BY position DESC"))
        }
        for kind in ("bodies", "filters", "modifiers")
    }
    newest = {"setups": lambda doc: setup_of_any_version(doc, ids), "units": unit_of_any_version}
    for kind, brought in newest.items():
        rows = connection.execute(sa.text(f"SELECT id, doc FROM {kind}")).all()
        changed = [{"id": item, "doc": json.dumps(brought(json.loads(doc)))} for item, doc in rows]
        if changed:
            connection.execute(sa.text(f"UPDATE {kind} SET doc = :doc WHERE id = :id"), changed)
        edits = connection.execute(
            sa.text('SELECT id, "before", "after" FROM edits WHERE kind = :kind'), {"kind": kind}
        ).all()
        changed = [
            {"id": item, "before": _kept(before, brought), "after": _kept(after, brought)}
            for item, before, after in edits
        ]
        if changed:
            connection.execute(sa.text('UPDATE edits SET "before" = :before, "after" = :after WHERE id = :id'), changed)
    with op.batch_alter_table("edits") as edits_table:
        edits_table.add_column(sa.Column("page", sa.String(40), nullable=False, server_default=""))
    op.create_index("ix_edits_page_undone_batch", "edits", ["page", "undone", "batch"])
    op.drop_index("ix_edits_undone_batch", "edits")
    connection.execute(sa.text(f"PRAGMA application_id = {APPLICATION_ID}"))


def _kept(text: str | None, brought: Callable[[Any], Any]) -> str | None:
    if text is None or text == "null":
        return None
    kept = json.loads(text)
    return json.dumps(kept | {"doc": brought(kept["doc"])})
