"""Opening the data file: SQLite in WAL mode, every commit on disk, migrated to this version with a copy kept."""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event

HEAD = "0001"  # newest migration; a test holds it against the folder
FILE = "jumpstop.sqlite3"


def open_engine(folder: Path) -> Engine:
    """The data file in this folder, made or brought up to date if need be."""
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / FILE
    at = _version(path)
    if at != HEAD:
        if at is not None:
            backup(path, path.with_name(f"before-{HEAD}.{FILE}"))
        _migrate(path)
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 10, "check_same_thread": False})

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")

    return engine


def backup(path: Path, target: Path) -> None:
    """A whole copy of a data file, taken safely while it is in use."""
    with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(target)) as copy:
        source.backup(copy)


def _version(path: Path) -> str | None:
    if not path.exists():
        return None
    with closing(sqlite3.connect(path)) as connection:
        try:
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
        except sqlite3.OperationalError:
            return None
        except sqlite3.DatabaseError:
            raise ValueError(f"{path} is not a data file of Jump Stop. Name another folder, or move it away.") from None
    return None if row is None else str(row[0])


def _migrate(path: Path) -> None:
    from alembic import command  # here, not above: an up-to-date file opens faster without it
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{path}".replace("%", "%%"))
    command.upgrade(config, "head")
