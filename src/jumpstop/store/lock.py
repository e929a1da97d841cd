"""One lock a data folder: a server holds it while it runs; a second server, a reset or a restore is refused."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from filelock import FileLock, Timeout

from .errors import InUse, StorageFault

LOCK, HOLDER = "jumpstop.lock", "jumpstop.holder"


@contextmanager
def held(folder: Path, what: str) -> Iterator[None]:
    """Hold the folder for `what` (a word or two for the sentence). Raises InUse where somebody else does."""
    make_folder(folder)
    lock = FileLock(folder / LOCK, mode=0o600)
    try:
        lock.acquire(timeout=0)
    except Timeout:
        raise InUse("in_use", folder=folder, by=holder(folder)) from None
    except OSError as error:
        raise StorageFault("cannot_use", path=folder, why=error.strerror) from None
    try:
        (folder / HOLDER).unlink(missing_ok=True)  # what a killed one left, with rights of its own
        (folder / HOLDER).touch(mode=0o600)
        (folder / HOLDER).write_text(f"{what}, process {os.getpid()}", encoding="utf-8")
        yield
    finally:
        (folder / HOLDER).unlink(missing_ok=True)
        lock.release()


def holder(folder: Path) -> str:
    """Who holds the folder, as far as is known."""
    try:
        return (folder / HOLDER).read_text(encoding="utf-8") or "another program"
    except OSError:
        return "another program"


def make_folder(folder: Path) -> None:
    """Make the folder, for its owner only. Raises StorageFault where that cannot be."""
    try:
        if not folder.is_dir():
            folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError as error:
        raise StorageFault("cannot_make", path=folder, why=error.strerror) from None
