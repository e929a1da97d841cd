"""What is wrong with a file as a whole, in a sentence."""

from ..core.kit.errors import JumpStopError


class Unreadable(JumpStopError):  # noqa: N818 (said so on the screen)
    """A file that cannot be read; the message is a sentence for the person."""


class TooMany(JumpStopError):  # noqa: N818
    """As many of these are under way as there may be; trying again helps."""
