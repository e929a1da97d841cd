"""The tables. A document is one JSON value with a name, a place in its list, and a revision that every edit raises."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, ForeignKey, Index, String
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """All tables."""


class Document(Base):
    """What every kind of document has."""

    __abstract__ = True
    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    position: Mapped[float]
    revision: Mapped[int]
    doc: Mapped[dict[str, Any]] = mapped_column(JSON)


class UnitRow(Document):
    """A flash unit on the shelf."""

    __tablename__ = "units"


class ModifierRow(Document):
    """A modifier on the shelf."""

    __tablename__ = "modifiers"


class BodyRow(Document):
    """A camera body on the shelf."""

    __tablename__ = "bodies"


class FilterRow(Document):
    """An ND filter on the shelf."""

    __tablename__ = "filters"


class JobRow(Document):
    """A job: several setups."""

    __tablename__ = "jobs"


class SetupRow(Document):
    """A setup of a job."""

    __tablename__ = "setups"
    job_id: Mapped[str | None] = mapped_column(ForeignKey("jobs.id", ondelete="SET NULL"), index=True)


class EditRow(Base):
    """One change of one document, so that it can be undone: the document before and after (null: not there)."""

    __tablename__ = "edits"
    id: Mapped[int] = mapped_column(primary_key=True)
    batch: Mapped[int]
    at: Mapped[datetime]
    label: Mapped[str] = mapped_column(String(200))
    kind: Mapped[str] = mapped_column(String(20))
    item_id: Mapped[str] = mapped_column(String(32))
    before: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    after: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    undone: Mapped[bool] = mapped_column(default=False)
    page: Mapped[str] = mapped_column(String(40), default="")
    __table_args__ = (Index("ix_edits_page_undone_batch", "page", "undone", "batch"),)


class MetaRow(Base):
    """Single values: the preferences, and a count that every change of the shelf raises."""

    __tablename__ = "meta"
    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[Any] = mapped_column(JSON)
