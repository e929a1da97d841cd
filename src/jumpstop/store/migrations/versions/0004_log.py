"""The log: what was read, fired and swapped on location."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """One more kind of document; nothing that is there changes."""
    op.create_table(
        "log",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("position", sa.Float, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("doc", sa.JSON, nullable=False),
    )
