"""What a line is read against, and what it was read as."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from ...core.kit.filter import Filter
from ...core.scene.light import OwnModifier, OwnUnit
from ...core.scene.place import Place
from ...core.scene.said import Part
from ...core.scene.setup import OwnBody, OwnLens

Parts = tuple[Part, ...]
Options = Sequence[Parts]
NOT_UNDERSTOOD: Options = ((),)
"""Words that belong together and mean nothing that is there: what some of them mean alone is not meant."""


@dataclass(frozen=True)
class Sayable:
    """What a person has, by whose names it can be said; and places with a day, by which the sun is known."""

    units: Sequence[OwnUnit] = ()
    modifiers: Sequence[OwnModifier] = ()
    bodies: Sequence[OwnBody] = ()
    lenses: Sequence[OwnLens] = ()
    filters: Sequence[Filter] = ()
    places: Sequence[tuple[Place, date]] = ()


@dataclass(frozen=True)
class Piece:
    """Some of the text, and what was understood of it."""

    start: int
    end: int
    parts: Parts


@dataclass(frozen=True)
class Question:
    """Some of the text that can be several things: each as the parts that it would be. place: a time wants a place;
    again: something else was said of the same before."""

    start: int
    end: int
    options: tuple[Parts, ...]
    place: bool = False
    again: bool = False


@dataclass(frozen=True)
class SaidPicture:
    """All that was read. unread: the places of what was not understood."""

    pieces: tuple[Piece, ...]
    questions: tuple[Question, ...]
    unread: tuple[tuple[int, int], ...]

    @property
    def parts(self) -> Parts:
        """What was understood, in the order in which it was said."""
        return tuple(part for piece in self.pieces for part in piece.parts)
