"""What can go wrong with the data, as codes; the sentences are made in `words`."""

from typing import Any

from ..core.kit.errors import JumpStopError


class NotFound(JumpStopError):  # noqa: N818 (said so on the screen)
    """There is no such document (any more)."""


class Conflict(JumpStopError):  # noqa: N818
    """Somebody else changed the document first; `current` is what it is now."""

    def __init__(self, current: Any) -> None:
        super().__init__("changed_meanwhile")
        self.current = current


class Overtaken(JumpStopError):  # noqa: N818
    """An edit that cannot be undone, because what it changed was changed elsewhere since."""


class TooMuch(JumpStopError):  # noqa: N818
    """More than the data folder is meant to hold."""


class Busy(JumpStopError):  # noqa: N818
    """Another program is writing to the data file; trying again helps."""


class StorageFault(JumpStopError):  # noqa: N818
    """The data file or its folder cannot be used."""


class InUse(StorageFault):
    """The data folder belongs to a running program."""
