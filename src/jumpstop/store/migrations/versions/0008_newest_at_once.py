"""What a device that logs asks for at every entry: the log's order without its entries, and a page's newest edit."""

from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    """An index for each."""
    op.create_index("ix_log_order", "log", ["position", "id", "revision"])
    op.create_index("ix_edits_page_newest", "edits", ["page", "id"])
