"""Triggers and batteries as kit of their own."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    """Two more kinds of document; nothing that is there changes."""
    for kind in ("triggers", "batteries"):
        op.create_table(
            kind,
            sa.Column("id", sa.String(32), primary_key=True),
            sa.Column("name", sa.String(80), nullable=False),
            sa.Column("position", sa.Float, nullable=False),
            sa.Column("revision", sa.Integer, nullable=False),
            sa.Column("doc", sa.JSON, nullable=False),
        )
