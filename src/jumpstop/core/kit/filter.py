"""Neutral density filters, alone and on each other."""

import math
from itertools import combinations
from typing import NamedTuple

from pydantic import Field, model_validator

from .errors import refuse
from .values import Name, Note, Number, Value, Weight, example

SLACK = 0.34  # a filter may take a third of a stop less than is needed [stops]
ON_MARK = 0.05  # of a third: a need this little past a mark of a variable filter is met at that mark


class Filter(Value):
    """A neutral density filter: fixed, or variable over a range."""

    model_config = example(name="Variable ND 2–5", stops=2, most_stops=5)

    name: Name
    stops: Number = Field(ge=0.1, le=20)
    most_stops: Number | None = Field(None, ge=0.1, le=20)
    weight_g: Weight | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _rises(self) -> "Filter":
        if self.most_stops is not None and self.most_stops < self.stops:
            raise refuse("variable_nd_reversed", name=self.name)
        return self


class NdChoice(NamedTuple):
    """Filters to put on, and the stops they then take together; a variable one is turned to make up that sum."""

    stops: float
    filters: tuple[Filter, ...]


def nd_for(needed: float, filters: tuple[Filter, ...]) -> NdChoice | None:
    """The nearest to `needed` stops that one filter or two on each other can take, a third less at the least; or None.

    A variable filter is turned, in thirds, to just what is needed; two variable ones are never stacked: they cross.
    Of equally near ones the one with fewer filters.
    """
    stacks: list[tuple[Filter, ...]] = [(one,) for one in filters]
    stacks += [(a, b) for a, b in combinations(filters, 2) if a.most_stops is None or b.most_stops is None]
    found: list[NdChoice] = []
    for stack in stacks:
        least, most = sum(f.stops for f in stack), sum(f.most_stops or f.stops for f in stack)
        if most >= needed - SLACK:
            turned = math.ceil(needed * 3 - ON_MARK) / 3
            found.append(NdChoice(min(most, max(least, turned)), stack))
    return min(found, key=lambda nd: (round(abs(nd.stops - needed), 2), len(nd.filters)), default=None)
