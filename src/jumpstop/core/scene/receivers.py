"""Receivers: the places whose light is told, an entry each, in the order in which they are told.

What a light gives a place, and what the ambient does, is read off its entry: a new receiver is its entry here, its name
in `words/kit`, and its check.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal, NamedTuple

from .light import Side
from .setup import Setup

NOWHERE_M = 1e6  # a background that is nowhere is as far as this


class Point(NamedTuple):
    """A place on the stage [m]: the subject stands at 0; x to the camera's right, y away from the camera, z up."""

    x: float
    y: float
    z: float


class Shares(NamedTuple):
    """What each side of the subject has of a light that stands somewhere, by the bearing it comes from."""

    lit: float
    shadow: float
    edge: float


@dataclass(frozen=True)
class Receiver:
    """A place whose light is told.

    at: where it is in a setup. ambient: whose share of the ambient it has. reached_by: the lights without a place of
    their own that reach it, by the side they are said to be on. share: what it has of a light that has one. skin: it
    has the subject's tone, else it is grey. grouped: it is there only where the subject is a group. shielded: a flag
    keeps a light from it. seldom: told of only where a light reaches it.
    """

    at: Callable[[Setup], Point]
    ambient: Literal["lit", "shadow", "background", "edge"]
    reached_by: frozenset[Side]
    share: Callable[[Shares], float]
    skin: bool = True
    grouped: bool = False
    shielded: bool = False
    seldom: bool = False


def behind_m(setup: Setup) -> float:
    """How far the background is behind the subject [m]; infinite where that is not said."""
    lens = setup.aim.lens
    return lens.background_m - lens.subject_m if lens else math.inf


def _subject(setup: Setup) -> Point:
    return Point(0.0, 0.0, setup.stage.face_m)


def _background(setup: Setup) -> Point:
    return Point(0.0, min(behind_m(setup), NOWHERE_M), setup.stage.face_m)


def _in_row(side: int) -> Callable[[Setup], Point]:
    return lambda setup: Point(side * setup.stage.width_m / 2, 0.0, setup.stage.face_m)


def _last_row(setup: Setup) -> Point:
    return Point(0.0, setup.stage.depth_m, setup.stage.face_m)


_FRONT = frozenset[Side]({"lit", "both"})

RECEIVERS: dict[str, Receiver] = {
    "lit": Receiver(_subject, "lit", _FRONT, lambda of: of.lit),
    "shadow": Receiver(_subject, "shadow", frozenset({"shadow", "both"}), lambda of: of.shadow),
    "background": Receiver(
        _background, "background", frozenset({"lit", "shadow", "both"}), lambda of: 1.0, skin=False, shielded=True
    ),
    "edge": Receiver(_subject, "edge", frozenset({"none"}), lambda of: of.edge, seldom=True),
    "left": Receiver(_in_row(-1), "lit", _FRONT, lambda of: of.lit, grouped=True),
    "right": Receiver(_in_row(1), "lit", _FRONT, lambda of: of.lit, grouped=True),
    "far": Receiver(_last_row, "lit", _FRONT, lambda of: of.lit, grouped=True),
}


def receivers_of(setup: Setup) -> dict[str, Point]:
    """Where the receivers of a setup are; those of a group only where there is one."""
    group = setup.stage.kind == "group"
    return {name: one.at(setup) for name, one in RECEIVERS.items() if group or not one.grouped}
