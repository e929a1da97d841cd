"""The log's order, found without its entries being read: a device that logs makes a page ask for it often."""

from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    """One index that holds all of it."""
    op.create_index("ix_log_order", "log", ["position", "id", "revision"])
