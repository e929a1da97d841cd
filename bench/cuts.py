"""Starts that are cut off: for the tests and `make soak`."""

import json
import os
import signal
import sqlite3
import sys
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import Any

from jumpstop.demo import begin
from jumpstop.store.documents import Store
from jumpstop.store.file import FILE, KNOWN
from jumpstop.store.making import migrate

STARTS = (*KNOWN[:-1], "none", "demo")
"""What there is as the program starts: a file of an older version; nothing; nothing, and the demo asked for."""
FILTERS = {"none": 0, "demo": 3}
OLD_FILTERS = 20


def old_file(folder: Path, version: str) -> None:
    """A data file of an older version, with something in it, of which some lies in its write-ahead log."""
    folder.mkdir()
    migrate(folder / FILE, version)
    with closing(sqlite3.connect(folder / FILE)) as connection, connection:
        connection.execute("PRAGMA journal_mode=WAL")
        for number in range(OLD_FILTERS):
            doc = json.dumps({"name": f"ND {number}", "stops": 1, "note": "z" * 200})
            connection.execute(
                "INSERT INTO filters VALUES (?, ?, ?, 1, ?)", (f"f{number}", f"ND {number}", number, doc)
            )


def cut_off(what: Callable[[], Any], at: int) -> bool:
    """Do something in a process that is killed before its at-th step (a statement, or a change of a file's name);
    whether it came so far."""
    child = os.fork()
    if child == 0:
        left = at

        def step(*_: object) -> None:
            nonlocal left
            left -= 1
            if left < 0:
                os.kill(os.getpid(), signal.SIGKILL)

        class Counted(sqlite3.Connection):
            def __init__(self, *args: Any, **named: Any) -> None:
                super().__init__(*args, **named)
                self.set_trace_callback(step)

        connect = sqlite3.connect

        def counted(*args: Any, **named: Any) -> sqlite3.Connection:
            return connect(*args, factory=Counted, **{k: v for k, v in named.items() if k != "factory"})

        sqlite3.connect = sqlite3.dbapi2.connect = counted  # type: ignore[assignment]
        sys.addaudithook(
            lambda event, _: step() if event in ("os.rename", "os.link", "os.remove", "os.mkdir") else None
        )
        try:
            what()
        finally:
            os._exit(0)
    _, status = os.waitpid(child, 0)
    return os.WIFSIGNALED(status)


def steps_of(parent: Path, kind: str) -> int:
    """How many steps a start takes, to the nearest twenty."""
    for at in range(20, 2000, 20):
        folder = parent / f"{kind}-count{at}"
        prepared(folder, kind)
        if not cut_off(lambda folder=folder: started(folder, kind), at):  # type: ignore[misc]
            return at
    raise AssertionError("it never ends")


def prepared(folder: Path, kind: str) -> None:
    """A folder as it is before a start."""
    folder.mkdir() if kind in FILTERS else old_file(folder, kind)


def started(folder: Path, kind: str) -> None:
    """What a start does with the data."""
    begin(folder) if kind == "demo" and not (folder / FILE).exists() else Store(folder).close()


def sound(folder: Path, kind: str) -> bool:
    """Whether a folder opens, and all that was in it is there."""
    store = Store(folder)
    found = len(store.items("filters"))
    store.close()
    return found == FILTERS.get(kind, OLD_FILTERS)
