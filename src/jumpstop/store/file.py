"""The data file: its name and version, what it says plainly, and files beside it."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from sqlalchemy.exc import DatabaseError

from ..core.kit.errors import JumpStopError
from .errors import Busy, StorageFault

HEAD = "0008"  # newest migration; a test holds it against the folder
KNOWN = ("0001", "0002", "0003", "0004", "0005", "0006", HEAD)
APPLICATION_ID = 0x4A53544F  # marks our files in their header, so that no other program's is taken for one
TABLES = frozenset({"units", "modifiers", "bodies", "filters", "jobs", "setups", "edits", "meta"})
LATER = frozenset({"triggers", "batteries", "log", "parts", "lenses", "stands"})  # the first version had them not
FILE = "jumpstop.sqlite3"
WAIT_S = 5  # how long a write waits for another one
MOST_WAL = 8 * 2**20  # bytes that the write-ahead log keeps once it is folded in

FAULTS: dict[str, tuple[type[JumpStopError], str]] = {
    "database is locked": (Busy, "data_busy"),
    "database is busy": (Busy, "data_busy"),
    "readonly": (StorageFault, "data_read_only"),
    "disk is full": (StorageFault, "disk_full"),
    "unable to open": (StorageFault, "data_closed"),
    "disk i/o": (StorageFault, "disk_error"),
    "malformed": (StorageFault, "data_damaged"),
    "not a database": (StorageFault, "data_damaged"),
}


@contextmanager
def said_plainly() -> Iterator[None]:
    """Turns what the database says into codes of our own: Busy where trying again helps, else StorageFault."""
    try:
        yield
    except (DatabaseError, sqlite3.DatabaseError) as error:
        words = str(getattr(error, "orig", None) or error).lower()
        for part, (kind, code) in FAULTS.items():
            if part in words:
                raise kind(code) from None
        raise


def make_empty(path: Path) -> None:
    """An empty file for its owner only; SQLite gives its -wal and -shm the same rights. Raises StorageFault."""
    try:
        os.close(os.open(path, os.O_CREAT | os.O_EXCL | os.O_RDWR, 0o600))
    except OSError as error:
        raise StorageFault("cannot_make", path=path, why=error.strerror) from None


def version_of(path: Path) -> str | None:
    """Version of a data file that is whole, None for one that holds nothing, be it that its first start was cut off.

    Raises StorageFault where it is damaged, another program's, or of a version that this program does not know.
    """
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True, timeout=WAIT_S)) as connection:
            marked = connection.execute("PRAGMA application_id").fetchone()[0]
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if marked in (0, APPLICATION_ID) and _never_made(connection, tables):
                return None
            if marked not in (0, APPLICATION_ID) or not tables >= TABLES | {"alembic_version"}:
                raise StorageFault("foreign_file", path=path)
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
            if row is None or row[0] not in KNOWN:
                raise StorageFault("file_of_another_version", path=path)
            if connection.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
                raise StorageFault("damaged_file", path=path)
            return str(row[0])
    except sqlite3.DatabaseError as error:
        words = str(error)
        if "not a database" in words:
            raise StorageFault("foreign_file", path=path) from None
        if "malformed" in words:
            raise StorageFault("damaged_file", path=path) from None
        raise


def _never_made(connection: sqlite3.Connection, tables: set[str]) -> bool:
    """Whether no first start ever came to its end here: some of our tables, none of them with anything in it."""
    stamped = "alembic_version" in tables and connection.execute("SELECT count(*) FROM alembic_version").fetchone()[0]
    if (stamped and tables >= TABLES) or not tables <= TABLES | LATER | {"alembic_version"}:
        return False
    ours = tables - {"alembic_version"}
    return not any(connection.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() for table in ours)


def aside(path: Path, why: str) -> Path:
    """A name beside the data file that is not taken yet."""
    name, number = path.with_name(f"{why}.{path.name}"), 1
    while name.exists():
        number += 1
        name = path.with_name(f"{why}-{number}.{path.name}")
    return name


def beside(path: Path) -> tuple[Path, ...]:
    return tuple(path.with_name(f"{path.name}-{end}") for end in ("wal", "shm", "journal"))


def flush(path: Path) -> None:
    """What was written to this file or folder is on the disk."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
