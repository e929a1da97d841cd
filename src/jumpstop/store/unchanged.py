"""What was read from the data file, kept for as long as nothing is written to it, by this program or another."""

from collections.abc import Callable, Hashable
from threading import Lock
from typing import Any, TypeVar

from sqlalchemy import Connection, Engine

from .file import said_plainly

MOST = 200  # readings that are kept

Found = TypeVar("Found")


class Unchanged:
    """Readings of one data file. Nothing that is handed out may be changed.

    It has a connection of its own, that never writes: there the version moves with every commit of any other
    (`PRAGMA data_version`, SQLite's manual).
    """

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._connection = engine.raw_connection()
        self._cursor = self._connection.cursor()
        self._lock = Lock()
        self._version = -1
        self._found: dict[Hashable, Any] = {}

    def get(self, key: Hashable, read: Callable[[Connection], Found]) -> Found:
        """What was read under this key since the last write; read now where nothing was."""
        with self._lock, said_plainly():
            version = self._cursor.execute("PRAGMA data_version").fetchone()[0]
            if version != self._version or len(self._found) >= MOST:
                self._version, self._found = version, {}
            kept = self._found  # what is read below is of this version or newer, and goes with it
        if key in kept:
            found: Found = kept[key]
            return found
        with said_plainly(), self._engine.connect() as connection:
            found = kept[key] = read(connection)
        return found

    def close(self) -> None:
        """Let go of the connection."""
        with self._lock:
            self._cursor.close()
            self._connection.close()
