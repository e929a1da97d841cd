"""Opening the data file: SQLite in WAL mode, every commit on disk, checked, and migrated with a copy kept."""

import os
import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path
from typing import Any

from pydantic_core import from_json, to_json
from sqlalchemy import Engine, QueuePool, create_engine, event

from .errors import StorageFault
from .file import FILE, HEAD, MOST_WAL, WAIT_S, aside, beside, flush, said_plainly, version_of
from .lock import make_folder


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

    engine = create_engine(
        "sqlite:///", creator=connected, poolclass=QueuePool, json_serializer=_written, json_deserializer=from_json
    )

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _record: Any) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute(f"PRAGMA journal_size_limit={MOST_WAL}")

    return engine


def _written(value: Any) -> str:
    return to_json(value).decode()


def backup(path: Path, target: Path) -> None:
    """A whole copy of a data file, taken safely while it is in use, checked, and only then given its name.

    Raises StorageFault where the file is damaged or the copy cannot be written; nothing is left behind then.
    """
    part = target.with_name(f"{target.name}.part")
    try:
        with said_plainly():
            if not path.exists():
                raise StorageFault("no_data", folder=path.parent)
            if version_of(path) is None:
                raise StorageFault("no_data", folder=path.parent)
            os.close(os.open(part, os.O_CREAT | os.O_TRUNC | os.O_RDWR, 0o600))
            with closing(sqlite3.connect(path, timeout=WAIT_S)) as source, closing(sqlite3.connect(part)) as copy:
                source.backup(copy)
                copy.execute("PRAGMA journal_mode=DELETE")  # one file, no -wal beside it
            version_of(part)
        flush(part)
        os.replace(part, target)
        flush(target.parent)
    except OSError as error:
        raise StorageFault("cannot_write", path=target, why=error.strerror) from None
    finally:
        for leftover in (part, *beside(part)):
            leftover.unlink(missing_ok=True)


def restore(source: Path, folder: Path) -> Path | None:
    """Put a backup in place of a folder's data, which must not be in use; the old data is kept aside.

    Returns where the old data is kept, None where there was none. Raises StorageFault, and leaves the data as it is.
    """
    if not source.is_file():
        raise StorageFault("no_file", path=source)
    path = folder / FILE
    fresh = path.with_name(f"{FILE}.restored")
    try:
        backup(source, fresh)  # a checked copy, with whatever lay in a -wal beside the source
        kept = _keep_aside(path)
        os.replace(fresh, path)
        flush(folder)
    except OSError as error:
        raise StorageFault("cannot_write", path=path, why=error.strerror) from None
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
