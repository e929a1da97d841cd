"""What many entries of the log hold alike (the setup as it stood, the light) is kept once, known by what it is."""

import json

import sqlalchemy as sa
from alembic import op

from jumpstop.core.scene.parts import packed

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """A table of parts; entries of the log name theirs, and so does what undo remembers of them."""
    key, doc = sa.Column("id", sa.String(32), primary_key=True), sa.Column("doc", sa.JSON, nullable=False)
    op.create_table("parts", key, doc)
    connection = op.get_bind()
    parts: dict[str, object] = {}
    rows = connection.execute(sa.text("SELECT id, doc FROM log")).all()
    changed = [{"id": item, "doc": json.dumps(packed(json.loads(text), parts))} for item, text in rows]
    if changed:
        connection.execute(sa.text("UPDATE log SET doc = :doc WHERE id = :id"), changed)
    edits = connection.execute(sa.text('SELECT id, "before", "after" FROM edits WHERE kind = \'log\'')).all()
    changed = [{"id": i, "before": _kept(before, parts), "after": _kept(after, parts)} for i, before, after in edits]
    if changed:
        connection.execute(sa.text('UPDATE edits SET "before" = :before, "after" = :after WHERE id = :id'), changed)
    if parts:
        new = [{"id": name, "doc": json.dumps(part)} for name, part in parts.items()]
        connection.execute(sa.text("INSERT INTO parts (id, doc) VALUES (:id, :doc)"), new)


def _kept(text: str | None, parts: dict[str, object]) -> str | None:
    kept = None if text is None else json.loads(text)
    return text if kept is None else json.dumps(kept | {"doc": packed(kept["doc"], parts)})
