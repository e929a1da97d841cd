"""A data file made, or brought up to date: all or nothing. It is done on a file beside, which takes its place whole.

However a start is cut off, what stands under the data file's name is as it was before or as it is to be, and the next
start does the rest.
"""

import os
import shutil
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from filelock import FileLock, Timeout

from .errors import Busy, StorageFault
from .file import FILE, HEAD, WAIT_S, aside, beside, flush, make_empty, said_plainly, version_of

LOCK = "jumpstop.making.lock"
WAIT_MAKING_S = 60  # for another start that is at it
MAKING = ".making"  # a folder beside, in which the new file grows up
LEFTOVERS = ("*.part", "*.part-*", f"{FILE}.restored*")


def made_ready(path: Path, fill: Callable[[Path], None] | None = None, anew: bool = False) -> None:
    """Make a data file of the newest version, out of the one there is or of nothing. Raises StorageFault, Busy.

    fill: puts what a new one begins with into the folder it is given, whose file only then takes its place.
    anew: what is there is thrown away.
    """
    lock = FileLock(path.with_name(LOCK), mode=0o600)
    try:
        with lock.acquire(timeout=WAIT_MAKING_S), said_plainly():
            _made(path, fill, anew)
    except Timeout:
        raise Busy("data_busy") from None
    except OSError as error:
        raise StorageFault("cannot_write", path=path, why=error.strerror) from None


def _made(path: Path, fill: Callable[[Path], None] | None, anew: bool) -> None:
    version = version_of(path) if path.exists() and not anew else None
    if version == HEAD:  # another start did it meanwhile
        return
    making = path.parent / MAKING
    fresh = making / path.name
    shutil.rmtree(making, ignore_errors=True)
    try:
        making.mkdir(mode=0o700)
        make_empty(fresh)
        if version is not None:
            _fold(path)
            with closing(sqlite3.connect(path, timeout=WAIT_S)) as source, closing(sqlite3.connect(fresh)) as copy:
                source.backup(copy)
        migrate(fresh)
        if version is None and fill is not None:
            fill(making)
        with closing(sqlite3.connect(fresh, timeout=WAIT_S)) as connection:
            connection.execute("PRAGMA journal_mode=DELETE")
            connection.execute("PRAGMA auto_vacuum=INCREMENTAL")  # so that the file shrinks when history is forgotten
            connection.execute("VACUUM")
        if version_of(fresh) != HEAD:
            raise StorageFault("not_brought_up_to_date", path=path)
        flush(fresh)
        if version is not None:
            _keep(path, f"before-{HEAD}")
        for one in beside(path):  # of a file that holds nothing, or was folded: never of this one
            one.unlink(missing_ok=True)
        os.replace(fresh, path)
        flush(path.parent)
    finally:
        shutil.rmtree(making, ignore_errors=True)


def migrate(path: Path, to: str = "head") -> None:
    """Run the migrations on a file, up to one of them."""
    from alembic import command  # late: it takes a while to load
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{path}".replace("%", "%%"))
    command.upgrade(config, to)


def tidy(folder: Path) -> None:
    """Take away what copies that were cut off left in a folder. To be called by whoever holds it."""
    shutil.rmtree(folder / MAKING, ignore_errors=True)
    for pattern in LEFTOVERS:
        for one in folder.glob(pattern):
            if one.is_file():
                one.unlink(missing_ok=True)


def _fold(path: Path) -> None:
    """All of a data file in the one file, with nothing beside. Raises Busy where another program has it open."""
    with closing(sqlite3.connect(path, timeout=WAIT_S)) as connection:
        if connection.execute("PRAGMA journal_mode=DELETE").fetchone()[0] != "delete":
            raise Busy("data_busy")


def _keep(path: Path, why: str) -> None:
    """A second name for the data as it is; the one it got from a start that was cut off, where there is one."""
    for one in path.parent.glob(f"{why}*.{path.name}"):
        if one.samefile(path):
            return
    kept = aside(path, why)
    try:
        os.link(path, kept)
    except OSError:  # a file system without a second name
        with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(kept)) as copy:
            source.backup(copy)
    flush(path.parent)
