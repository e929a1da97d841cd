"""The tables. A document is one JSON value with a name, a place in its list, and a revision that every edit raises.

Plain tables, not mapped classes: rows are read and written many at a time, and mapping them was most of a write.
"""

from sqlalchemy import JSON, Boolean, Column, DateTime, Float, ForeignKey, Index, Integer, MetaData, String, Table

metadata = MetaData()


def _documents(kind: str, *more: Column[str]) -> Table:
    return Table(
        kind,
        metadata,
        Column("id", String(32), primary_key=True),
        Column("name", String(80), nullable=False),
        Column("position", Float, nullable=False),
        Column("revision", Integer, nullable=False),
        Column("doc", JSON, nullable=False),
        *more,
    )


jobs = _documents("jobs")
units = _documents("units")
modifiers = _documents("modifiers")
bodies = _documents("bodies")
filters = _documents("filters")
lenses = _documents("lenses")
triggers = _documents("triggers")
batteries = _documents("batteries")
stands = _documents("stands")
log = _documents("log")
Index("ix_log_order", log.c.position, log.c.id, log.c.revision)  # which entries there are, without reading them
setups = _documents("setups", Column("job_id", String(32), ForeignKey("jobs.id", ondelete="SET NULL"), index=True))

parts = Table(  # what many entries of the log hold alike, kept once (see parts.py)
    "parts",
    metadata,
    Column("id", String(32), primary_key=True),
    Column("doc", JSON, nullable=False),
)

edits = Table(  # one change of one document, so that it can be undone: the row before and after (null: not there)
    "edits",
    metadata,
    Column("id", Integer, primary_key=True),
    Column("batch", Integer, nullable=False),
    Column("at", DateTime, nullable=False),
    Column("label", String(200), nullable=False),
    Column("kind", String(20), nullable=False),
    Column("item_id", String(32), nullable=False),
    Column("before", JSON(none_as_null=True)),
    Column("after", JSON(none_as_null=True)),
    Column("undone", Boolean, nullable=False),
    Column("page", String(40), nullable=False),
    Index("ix_edits_page_undone_batch", "page", "undone", "batch"),
    Index("ix_edits_page_newest", "page", "id"),
)

meta = Table(  # single values: the preferences, and a count that every change of the shelf raises
    "meta",
    metadata,
    Column("key", String(40), primary_key=True),
    Column("value", JSON, nullable=False),
)
