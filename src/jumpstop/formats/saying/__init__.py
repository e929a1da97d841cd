"""A picture said in a line, read part by part: quantities by the one reader, words of the trade, names of own kit.

Nothing is guessed: what can be two things is asked, and what is not understood is told by its place in the text.
"""

from collections.abc import Callable, Mapping

from ...core.scene.light import OwnUnit
from ...core.scene.setup import Setup
from ..quantities import Sign
from .asked import Piece, Question, SaidPicture, Sayable
from .reader import Reader

__all__ = ["Piece", "Question", "SaidPicture", "Sayable", "read_picture"]
LONGEST = 1200  # characters of a line


def read_picture(
    text: str,
    setup: Setup,
    known: Sayable,
    chosen: Mapping[int, int] | None = None,
    dial_kind: Callable[[OwnUnit], str] = lambda unit: "fraction",
    feet: bool = False,
    decimal: Sign = "",
) -> SaidPicture:
    """Read a line. chosen: of a question that begins at this place in the text, the answer that was given; feet,
    decimal: as in `Asked`."""
    return Reader(text[:LONGEST], setup, known, chosen or {}, dial_kind, feet, decimal).read()
