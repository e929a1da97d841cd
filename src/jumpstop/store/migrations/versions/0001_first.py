"""The first tables: documents of six kinds, edits, single values."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Make the tables."""
    for table in ("units", "modifiers", "bodies", "filters", "jobs", "setups"):
        job = [sa.Column("job_id", sa.String(32), sa.ForeignKey("jobs.id", ondelete="SET NULL"), index=True)]
        op.create_table(
            table,
            sa.Column("id", sa.String(32), primary_key=True),
            sa.Column("name", sa.String(80), nullable=False),
            sa.Column("position", sa.Float, nullable=False),
            sa.Column("revision", sa.Integer, nullable=False),
            sa.Column("doc", sa.JSON, nullable=False),
            *(job if table == "setups" else []),
        )
    op.create_table(
        "edits",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("batch", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("item_id", sa.String(32), nullable=False),
        sa.Column("before", sa.JSON),
        sa.Column("after", sa.JSON),
        sa.Column("undone", sa.Boolean, nullable=False),
    )
    op.create_index("ix_edits_undone_batch", "edits", ["undone", "batch"])
    op.create_table(
        "meta", sa.Column("key", sa.String(40), primary_key=True), sa.Column("value", sa.JSON, nullable=False)
    )
