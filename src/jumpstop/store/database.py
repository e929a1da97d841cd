"""Opening the data file: SQLite in WAL mode, every commit on disk, checked, and migrated with a copy kept."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, QueuePool, create_engine, event
from sqlalchemy.exc import DatabaseError

from ..core.kit.errors import JumpStopError
from .errors import Busy, StorageFault
from .lock import make_folder

HEAD = "0005"  # newest migration; a test holds it against the folder
KNOWN = ("0001", "0002", "0003", "0004", HEAD)
APPLICATION_ID = 0x4A53544F  # marks our files in their header, so that no other program's is taken for one
TABLES = frozenset({"units", "modifiers", "bodies", "filters", "jobs", "setups", "edits", "meta"})
LATER = frozenset({"triggers", "batteries", "log", "parts"})  # tables that the first version did not have
FILE = "jumpstop.sqlite3"
WAIT_S = 5  # how long a write waits for another one
MOST_WAL = 8 * 2**20  # bytes that the write-ahead log keeps once it is folded in

LOCKED = "The data is being written by another just now; try again."
DAMAGED = "The data file is damaged. Stop the program and restore a backup."
FAULTS: dict[str, tuple[type[JumpStopError], str]] = {
    "database is locked": (Busy, LOCKED),
    "database is busy": (Busy, LOCKED),
    "readonly": (StorageFault, "The data file or its folder is read-only: nothing was stored."),
    "disk is full": (StorageFault, "The disk is full: nothing was stored. Make room and try again."),
    "unable to open": (StorageFault, "The data file cannot be opened: its folder is missing or read-only."),
    "disk i/o": (StorageFault, "The disk answered with an error: nothing was stored."),
    "malformed": (StorageFault, DAMAGED),
    "not a database": (StorageFault, DAMAGED),
}


@contextmanager
def said_plainly() -> Iterator[None]:
    """Turns what the database says into sentences: Busy where trying again helps, else StorageFault."""
    try:
        yield
    except (DatabaseError, sqlite3.DatabaseError) as error:
        words = str(getattr(error, "orig", None) or error).lower()
        for part, (kind, sentence) in FAULTS.items():
            if part in words:
                raise kind(sentence) from None
        raise


def open_engine(folder: Path) -> Engine:
    """The data file in this folder, made or brought up to date if need be. Raises StorageFault."""
    make_folder(folder)
    path = folder / FILE
    with said_plainly():
        if not path.exists() or version_of(path) != HEAD:
            from .making import made_ready  # late: an up-to-date file opens faster without it

            made_ready(path)
    os.chmod(path, 0o600)
    address = f"{path.resolve().as_uri()}?mode=rw"  # never makes a file where ours was moved away

    def connected() -> sqlite3.Connection:
        return sqlite3.connect(address, uri=True, timeout=WAIT_S, check_same_thread=False)

    engine = create_engine("sqlite:///", creator=connected, poolclass=QueuePool)

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute(f"PRAGMA journal_size_limit={MOST_WAL}")

    return engine


def make_empty(path: Path) -> None:
    """An empty file for its owner only; SQLite gives its -wal and -shm the same rights. Raises StorageFault."""
    try:
        os.close(os.open(path, os.O_CREAT | os.O_EXCL | os.O_RDWR, 0o600))
    except OSError as error:
        raise StorageFault(f"{path} cannot be made: {error.strerror}.") from None


def version_of(path: Path) -> str | None:
    """Version of a data file that is whole, None for one that holds nothing, be it that its first start was cut off.

    Raises StorageFault where it is damaged, another program's, or of a version that this program does not know.
    """
    foreign = f"{path} is not a data file of Jump Stop. It was left as it is: name another folder, or move it away."
    damaged = f"{path} is damaged. It was left as it is: restore a backup with `jumpstop restore`."
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True, timeout=WAIT_S)) as connection:
            marked = connection.execute("PRAGMA application_id").fetchone()[0]
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if marked in (0, APPLICATION_ID) and _never_made(connection, tables):
                return None
            if marked not in (0, APPLICATION_ID) or not tables >= TABLES | {"alembic_version"}:
                raise StorageFault(foreign)
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
            if row is None or row[0] not in KNOWN:
                raise StorageFault(
                    f"{path} was written by another version of Jump Stop, which this one cannot read. It was left."
                )
            if connection.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
                raise StorageFault(damaged)
            return str(row[0])
    except sqlite3.DatabaseError as error:
        words = str(error)
        if "not a database" in words:
            raise StorageFault(foreign) from None
        if "malformed" in words:
            raise StorageFault(damaged) from None
        raise


def _never_made(connection: sqlite3.Connection, tables: set[str]) -> bool:
    """Whether no first start ever came to its end here: some of our tables, none of them with anything in it."""
    stamped = "alembic_version" in tables and connection.execute("SELECT count(*) FROM alembic_version").fetchone()[0]
    if (stamped and tables >= TABLES) or not tables <= TABLES | LATER | {"alembic_version"}:
        return False
    ours = tables - {"alembic_version"}
    return not any(connection.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() for table in ours)


def backup(path: Path, target: Path) -> None:
    """A whole copy of a data file, taken safely while it is in use, checked, and only then given its name.

    Raises StorageFault where the file is damaged or the copy cannot be written; nothing is left behind then.
    """
    part = target.with_name(f"{target.name}.part")
    try:
        with said_plainly():
            if not path.exists():
                raise StorageFault(f"There is no data in {path.parent}.")
            if version_of(path) is None:
                raise StorageFault(f"There is no data in {path.parent}.")
            os.close(os.open(part, os.O_CREAT | os.O_TRUNC | os.O_RDWR, 0o600))
            with closing(sqlite3.connect(path, timeout=WAIT_S)) as source, closing(sqlite3.connect(part)) as copy:
                source.backup(copy)
                copy.execute("PRAGMA journal_mode=DELETE")  # one file, no -wal beside it
            version_of(part)
        flush(part)
        os.replace(part, target)
        flush(target.parent)
    except OSError as error:
        raise StorageFault(f"{target} cannot be written: {error.strerror}.") from None
    finally:
        for leftover in (part, *beside(part)):
            leftover.unlink(missing_ok=True)


def restore(source: Path, folder: Path) -> Path | None:
    """Put a backup in place of a folder's data, which must not be in use; the old data is kept aside.

    Returns where the old data is kept, None where there was none. Raises StorageFault, and leaves the data as it is.
    """
    if not source.is_file():
        raise StorageFault(f"There is no file {source}.")
    path = folder / FILE
    fresh = path.with_name(f"{FILE}.restored")
    try:
        backup(source, fresh)  # a checked copy, with whatever lay in a -wal beside the source
        kept = _keep_aside(path)
        os.replace(fresh, path)
        flush(folder)
    except OSError as error:
        raise StorageFault(f"{path} cannot be written: {error.strerror}.") from None
    finally:
        fresh.unlink(missing_ok=True)
    return kept


def _keep_aside(path: Path) -> Path | None:
    """A second name for the data as it is, with its write-ahead log folded in where it still can be read."""
    if not path.exists():
        return None
    kept = aside(path, f"replaced-{datetime.now():%Y%m%d-%H%M%S}")
    try:
        with closing(sqlite3.connect(path, timeout=WAIT_S)) as connection:
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    except sqlite3.DatabaseError:  # damaged: its log is kept beside it as it is
        for one in beside(path):
            if one.exists():
                os.replace(one, one.with_name(one.name.replace(path.name, kept.name)))
    os.link(path, kept)
    for one in beside(path):
        one.unlink(missing_ok=True)
    return kept


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
