"""What is wrong with a file as a whole, as codes; the sentences are made in `words`."""

from ..core.kit.errors import JumpStopError


class UnreadableFile(JumpStopError):  # noqa: N818 (said so on the screen)
    """A file that cannot be read."""


class TooMany(JumpStopError):  # noqa: N818
    """As many of these are under way as there may be; trying again helps."""
