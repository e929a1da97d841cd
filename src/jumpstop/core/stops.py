"""The one shape: every effect is a jump in stops, with a cause, a size, an uncertainty and a reason."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from .values import Figure, Floats

Source = Literal["P", "D", "CP", "M", "U"]
"""P published, D definition or plain mathematics, CP common practice, M from memory, U the user's own figure."""


class Pick(NamedTuple):
    """One of several sentences for each unit: `options[which[i]]`."""

    which: NDArray[np.int_]
    options: tuple[str, ...]


Fact = float | Floats | str | Sequence[str] | Pick


@dataclass(frozen=True, eq=False)
class Jump:
    """One effect on the light, for one unit or for many at once.

    key    short name of the effect ("distance", "layer", "hss" ...), the same in every chain
    cause  what a person reads on the arc; a template over `facts`
    stops  size [stops], negative for a loss; a number or an array of shape (units,)
    sd     its standard deviation [stops], same shape
    why    the relation in a sentence; a template over `facts`
    mark   where the relation or value comes from (see `Source`); source names it
    facts  the figures that `cause` and `why` speak of, each a number, a string or one of these a unit
    """

    key: str
    cause: str
    stops: Figure
    sd: Figure = 0.0
    why: str = ""
    mark: Source = "D"
    source: str = ""
    facts: Mapping[str, Fact] = field(default_factory=dict)


Chain = tuple[Jump, ...]


def spare(chain: Chain) -> Figure:
    """Sum of a chain [stops]: light beyond what is needed (negative: short of it)."""
    total: Figure = 0.0
    for jump in chain:
        total = total + jump.stops
    return total


def spread(chain: Chain) -> Figure:
    """Standard deviation of a chain's sum [stops], its jumps taken as independent."""
    square: Figure = 0.0
    for jump in chain:
        square = square + np.square(jump.sd)
    return np.sqrt(square)


def p_reach(spare_stops: Floats, sd: Floats) -> Floats:
    """Probability that the light suffices: Phi(spare / sd)."""
    z = spare_stops / np.maximum(sd, 1e-9)
    return np.array([0.5 * math.erfc(-value / math.sqrt(2)) for value in np.ravel(z)]).reshape(np.shape(z))


REACHES, ON_THE_LINE, SHORT = 1, 0, -1


def verdict(spare_stops: Floats, sd: Floats) -> Floats:
    """REACHES, ON_THE_LINE (the needed light lies within one standard deviation) or SHORT."""
    result: Floats = np.where(np.abs(spare_stops) <= sd, ON_THE_LINE, np.sign(spare_stops))
    return result


def stops_of(ratio: Figure) -> Figure:
    """Stops of a ratio of light: log2."""
    return np.log2(ratio)
