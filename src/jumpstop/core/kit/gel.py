"""Gels in front of a flash: how much light they pass and where they take its colour, each pair of one gel."""

from typing import Literal, NamedTuple, get_args

import numpy as np
from pydantic import Field

from .values import Name, Number, Value, example

Gel = Literal[
    "none", "full_orange", "half_orange", "quarter_orange", "eighth_orange", "full_blue", "half_blue", "quarter_blue",
    "eighth_blue", "full_green", "half_green", "quarter_green", "own",
]  # fmt: skip
GELS: tuple[Gel, ...] = get_args(Gel)
GelFor = Literal["match", "effect"]


class OwnGel(Value):
    """Any colour: what it is called, what it passes, and its shift where one is printed."""

    model_config = example(name="Deep amber", transmission=0.4, mired=140)

    name: Name
    transmission: Number = Field(0.5, ge=0.003, le=1)
    mired: Number | None = Field(None, ge=-400, le=400)


class GelFigures(NamedTuple):
    """What a gel does. transmission: share of the light; mired: None where its colour is no shift of temperature."""

    transmission: float
    mired: float | None
    green_cc: float = 0.0


NO_GEL = GelFigures(1.0, 0.0)  # all light, and no shift
# Shares passed, and shifts [mired]: oranges as typical pairs of filter makers' data sheets; blues and greens (colour
# compensation, CC, for lamps with a green cast) likewise; all from memory.
GEL_FIGURES: dict[Gel, GelFigures] = {
    "none": NO_GEL,
    "full_orange": GelFigures(0.55, 159.0),
    "half_orange": GelFigures(0.71, 109.0),
    "quarter_orange": GelFigures(0.79, 64.0),
    "eighth_orange": GelFigures(0.85, 26.0),
    "full_blue": GelFigures(0.34, -137.0),
    "half_blue": GelFigures(0.52, -78.0),
    "quarter_blue": GelFigures(0.71, -35.0),
    "eighth_blue": GelFigures(0.81, -18.0),
    "full_green": GelFigures(0.76, 0.0, 30.0),
    "half_green": GelFigures(0.86, 0.0, 15.0),
    "quarter_green": GelFigures(0.92, 0.0, 8.0),
}
"""All but the person's own."""
MATCHING: tuple[Gel, ...] = tuple(gel for gel, figures in GEL_FIGURES.items() if figures.mired or gel == "none")
"""Those by which flash is brought to another colour temperature."""


def figures_of(gel: Gel, own: OwnGel | None) -> GelFigures:
    """What a gel does; the person's own by what is said of it."""
    if gel == "own":
        return NO_GEL if own is None else GelFigures(own.transmission, own.mired)
    return GEL_FIGURES[gel]


def gel_stops(figures: GelFigures) -> float:
    """Stops that a gel takes (negative)."""
    return float(np.log2(figures.transmission))
