"""Lenses as kit of their own; a field's width that nobody set is told by the lens, where one is said."""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"

UNSET_M = 0.6  # what stood in every setup whose width nobody had said


def upgrade() -> None:
    """One more kind of document; setups keep all that was said in them."""
    op.create_table(
        "lenses",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("position", sa.Float, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("doc", sa.JSON, nullable=False),
    )
    connection = op.get_bind()
    rows = connection.execute(sa.text("SELECT id, doc FROM setups")).all()
    changed = [{"id": key, "doc": json.dumps(doc)} for key, text in rows if _unset(doc := json.loads(text))]
    if changed:
        connection.execute(sa.text("UPDATE setups SET doc = :doc WHERE id = :id"), changed)


def _unset(doc: Any) -> bool:
    """Whether the width was never said in a setup whose lens says it; it is taken out then."""
    motion, aim = doc.get("motion") or {}, doc.get("aim") or {}
    if motion.get("field_width_m") != UNSET_M or not aim.get("lens"):
        return False
    motion["field_width_m"] = None
    return True
