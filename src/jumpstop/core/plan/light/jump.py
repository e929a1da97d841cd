"""The one shape: every effect on the light is a jump in stops, with an owner, a size, an uncertainty and a source.

Jumps broadcast over four axes, (methods, lights, receivers, units); an effect absent in one of them is a jump of 0
there, so that everything is one array and no loop.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal, NamedTuple

import numpy as np

from ...physics.arrays import Figure

Mark = Literal["P", "D", "CP", "M", "U"]
"""P published, D definition or plain mathematics, CP common practice, M from memory, U the user's own figure."""

AXES = 4  # methods, lights, receivers, units


class Of(NamedTuple):
    """The thing whose figure a jump is: what kind of thing, which one (its id, or its name where it has none; empty
    for the unit that the units' axis names), and which part of it."""

    kind: str
    id: str = ""
    part: str = ""


@dataclass(frozen=True, eq=False)
class Jump:
    """One effect on the light.

    effect  one of `chain.EFFECTS`
    stops   size [stops], negative for a loss; a number, or an array that broadcasts over the four axes
    sd      its standard deviation [stops], likewise
    of      what it belongs to, for each light
    facts   figures that its sentence speaks of: numbers, arrays over the axes, or tuples with one entry a light
    mark    where the relation or value comes from; source names it
    thing   places of what it belongs to among the things that readings have taught; -1 where they have not
    shared  twice its covariance with the jumps before it in its chain [stops²], where readings have tied them together
    """

    effect: str
    stops: Figure
    sd: Figure = 0.0
    of: tuple[Of, ...] = ()
    facts: Mapping[str, object] = field(default_factory=dict)
    mark: Mark | tuple[Mark, ...] = "D"
    source: str = ""
    shared: Figure = 0.0
    thing: Figure = -1.0

    def at(self, method: int, light: int, receiver: int, unit: int) -> "JumpAt":
        """This jump at one place of the four axes."""
        return JumpAt(self, (method, light, receiver, unit))


Chain = tuple[Jump, ...]


class Size(NamedTuple):
    """A jump's size without the rest of it: see `Jump`."""

    effect: str
    stops: Figure
    sd: Figure
    shared: Figure


Sizes = Sequence[Jump] | Sequence[Size]


def pick(figure: Figure, where: tuple[int, ...]) -> float:
    """One number of an array that broadcasts over the axes; one it does not have, or of length 1, does not count."""
    if not isinstance(figure, np.ndarray) or not figure.ndim:
        return float(figure)
    ends = where[len(where) - figure.ndim :]
    return float(figure[tuple([at if size > 1 else 0 for at, size in zip(ends, figure.shape, strict=True)])])


def differs_by_receiver(figure: Figure) -> bool:
    """Whether an array that broadcasts over the axes has one of its own for each receiver."""
    return isinstance(figure, np.ndarray) and figure.ndim > 1 and figure.shape[-2] > 1


@dataclass(frozen=True, slots=True)
class JumpAt:
    """A jump at one place of the axes: plain numbers and plain facts, each looked up when it is asked for."""

    jump: Jump
    where: tuple[int, int, int, int]

    @property
    def effect(self) -> str:
        """Its code."""
        return self.jump.effect

    @property
    def stops(self) -> float:
        """Its size [stops]."""
        return pick(self.jump.stops, self.where)

    @property
    def sd(self) -> float:
        """Its standard deviation [stops]."""
        return pick(self.jump.sd, self.where)

    @property
    def thing(self) -> int:
        """Place of what it belongs to among the things that readings have taught; -1 where they have not."""
        return int(pick(self.jump.thing, self.where))

    @property
    def of(self) -> Of | None:
        """What it belongs to."""
        return self._lights(self.jump.of) if self.jump.of else None

    @property
    def mark(self) -> Mark:
        """Where it comes from; what readings have moved is the user's own."""
        mark = "U" if self.thing >= 0 else self.jump.mark
        return mark if isinstance(mark, str) else self._lights(mark)

    def __getitem__(self, name: str) -> Any:
        """One of its facts."""
        fact = self.jump.facts[name]
        if isinstance(fact, np.ndarray):
            return pick(fact, self.where)
        return self._lights(fact) if isinstance(fact, tuple) else fact

    def _lights(self, each: tuple[Any, ...]) -> Any:
        """What is the light's own, where lights differ."""
        return each[self.where[1] if len(each) > 1 else 0]


def total(chain: Sizes) -> Figure:
    """Sum of a chain [stops]."""
    out: Figure = 0.0
    for jump in chain:
        out = out + jump.stops
    return out


def spread(chain: Sizes) -> Figure:
    """Standard deviation of a chain's sum [stops]; jumps are independent but for what readings have tied together."""
    square: Figure = 0.0
    for jump in chain:
        square = square + (jump.sd * jump.sd + jump.shared)
    return np.sqrt(np.maximum(square, 0.0))


def row(figure: Figure, method: int, light: int, receiver: int) -> Figure:
    """One lane of the units' axis: a number where all units agree, else of shape (units,)."""
    if not isinstance(figure, np.ndarray) or not figure.shape:
        return figure
    lead = (method, light, receiver)[AXES - figure.ndim :]
    lane = figure[tuple([at if size > 1 else 0 for at, size in zip(lead, figure.shape, strict=False)])]
    return float(lane[0]) if len(lane) == 1 else lane
