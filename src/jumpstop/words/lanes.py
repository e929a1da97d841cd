"""The lanes of the jump chart, as a document in columns: every unit's verdict, dial and stamina."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..core.kit.memo import remembered
from ..core.kit.table import UnitTable
from ..core.physics.arrays import Floats
from ..core.physics.guide_number import guide_number_of_stops
from ..core.plan.change.cures import cure_of
from ..core.plan.light.jump import Mark
from ..core.plan.light.placing import farthest_m
from ..core.plan.light.reach import BLOCKED, BLOCKERS, ON_THE_LINE, SHORT, TOO_BRIGHT, Reach
from . import effects
from .figures import DisplayUnits, amount, dial, dial_kind, duration, guide_number, kept, length, power, shutter, stops
from .methods import UNIT_BLOCKERS, cures

Word = Literal["reaches", "too_bright", "on_the_line", "short", "blocked"]
OFF_DIAL = 0.15  # of a stop: light left over or missing at the dial that is worth a word


@dataclass(slots=True)
class Arc:
    """One jump of the chart for all lanes: what it is called, and its size a lane [stops]; one size where all agree."""

    effect: str
    cause: str
    stops: list[float]


@dataclass(slots=True)
class Lanes:
    """Every unit on the chart, as columns of equal length. Figures that nobody stated are null."""

    id: list[str]
    name: list[str]
    basis: list[str]
    word: list[Word]
    verdict: list[str]
    spare: list[float]
    sd: list[float]
    dial: list[str]
    dial_note: list[str]
    recycle_s: list[float | None]
    recycle: list[str]
    flashes: list[int | None]
    charges: list[int | None]
    t01: list[str]
    t01_s: list[float | None]
    below_full: list[float]
    holding: list[str]
    mains: list[bool]
    weight_g: list[float | None]
    price: list[float | None]


@dataclass(slots=True)
class LaneStep:
    """One jump of one lane, with its reason and its source."""

    effect: str
    cause: str
    stops: float
    sd: float
    why: str
    mark: Mark
    source: str


def steps_of(reach: Reach, unit: int, units: DisplayUnits) -> list[LaneStep]:
    """The whole chain of one unit, with reasons."""
    context = effects.Context(reach.solved.table, unit, units, reach.solved.setup.stage.kind)
    out = []
    for jump in reach.jumps_of(unit):
        said = effects.say(jump, context)
        out.append(
            LaneStep(
                effect=jump.effect,
                cause=said.cause,
                stops=round(jump.stops, 3),
                sd=round(jump.sd, 3),
                why=said.why,
                mark=jump.mark,
                source=jump.jump.source,
            )
        )
    return out


Places = Sequence[int] | slice
"""Which lanes: their places on the shelf, or all of it."""
ALL = slice(None)


def arcs_of(reach: Reach, units: DisplayUnits, lanes: Places = ALL) -> list[Arc]:
    """The chain's jumps, each with its size for these lanes."""
    context = effects.Context(reach.solved.table, 0, units, reach.solved.setup.stage.kind)
    sizes = [np.atleast_1d(size) for _, size in reach.shown]
    sizes = [size[lanes] if len(size) > 1 else size for size in sizes]
    rounded = np.concatenate(sizes).round(3).tolist()
    out, at = [], 0
    for jump, size in zip(reach.jumps_of(0), sizes, strict=True):
        cause = effects.say(jump, context).cause
        out.append(Arc(effect=jump.effect, cause=cause, stops=rounded[at : at + len(size)]))
        at += len(size)
    return out


@kept(4096)
def verdict_words(word: str, spare: float, blocker: int) -> str:
    """A unit's verdict in words."""
    if word == BLOCKED:
        return UNIT_BLOCKERS[BLOCKERS[blocker]]
    if word == ON_THE_LINE:
        return f"on the line ({stops(spare)})"
    if word == TOO_BRIGHT:
        return "too bright"
    return f"short by {amount(spare)}" if spare < 0 else f"{amount(spare)} in hand"


def dial_notes(reach: Reach, units: DisplayUnits, lanes: Places = ALL) -> list[str]:
    """What each dial leaves over or short; where its lowest setting is too bright, by how much, and what cures it."""
    words = reach.verdict[lanes].tolist()
    if reach.ambient_alone is not None:
        return ["" if word == BLOCKED else "no flash needed" for word in words]
    fixed = reach.light.dial_stops is not None
    places = np.arange(len(reach.solved.table))[lanes]
    lefts = (reach.off_stops if fixed else reach.left)[lanes].round(2)
    said = [""] * len(words)
    for at in np.flatnonzero((np.abs(lefts) >= OFF_DIAL) | (reach.verdict[lanes] == TOO_BRIGHT)).tolist():
        if words[at] == TOO_BRIGHT and not fixed:
            said[at] = _too_bright(reach, int(places[at]), units)
        elif abs(left := float(lefts[at])) >= OFF_DIAL and words[at] != BLOCKED and (fixed or words[at] != SHORT):
            said[at] = f"{amount(left)} {'over' if left > 0 else 'under'}"
    return said


def _too_bright(reach: Reach, unit: int, units: DisplayUnits) -> str:
    light, excess = reach.light, float(reach.too_bright[unit])
    setup = reach.solved.setup
    cure = cure_of(excess, reach.method.camera.f_number, light, setup.stage, setup.apertures[1])
    there = "" if cure.distance_m > farthest_m(setup, light) else length(cure.distance_m, units)  # no room for it
    said = cures(cure.f_number, there, light.modifier is not None)
    return f"even at {power(float(reach.below_full[unit]))}, by {amount(excess)}: {said}"


@remembered(4)
def _in_fractions(table: UnitTable, units: DisplayUnits) -> list[bool]:
    """Which units' dials say nothing but a fraction of full power."""
    return [dial_kind(unit.scale, units) == "fraction" for unit in table.units]


@remembered(4)
def _fixed(table: UnitTable, units: DisplayUnits) -> dict[str, list[object]]:
    """The columns that no setup changes."""
    guides = guide_number_of_stops(table.rated)
    return {
        "id": list(table.ids),
        "name": [unit.name for unit in table.units],
        "basis": [f"{guide_number(float(guide), units)} at 35 mm" for guide in np.asarray(guides)],
        "weight_g": [unit.weight_g for unit in table.units],
        "price": [unit.price for unit in table.units],
        "holding": [unit.holding for unit in table.units],
    }


def lanes_of(reach: Reach, units: DisplayUnits, lanes: Places = ALL) -> Lanes:
    """Verdict, dial and stamina of these units. Figures are rounded before they are worded: most are worded already."""
    table = reach.solved.table
    places = range(len(table))[lanes] if isinstance(lanes, slice) else lanes
    words = reach.verdict[lanes].tolist()
    tenths = reach.spare[lanes].round(1).tolist()
    below, blockers = reach.below_full[lanes].round(2).tolist(), reach.blocker[lanes].tolist()
    recycle, flashes = reach.recycle_s[lanes].round(2), reach.flashes[lanes]
    with np.errstate(invalid="ignore"):
        t01 = 1 / (1 / reach.t01_s[lanes]).round()
    plain, fixed = _in_fractions(table, units), _fixed(table, units)
    if lanes is not ALL:
        fixed = {name: [column[at] for at in places] for name, column in fixed.items()}
    return Lanes(
        **fixed,  # type: ignore[arg-type]
        word=words,
        verdict=list(map(verdict_words, words, tenths, blockers)),
        spare=reach.spare[lanes].round(3).tolist(),
        sd=reach.sd[lanes].round(3).tolist(),
        dial=list(map(power, below))
        if all(plain)
        else [
            power(one) if plain[at] else dial(table.units[at].scale, one, units, table.units[at].watt_seconds)
            for at, one in zip(places, below, strict=True)
        ],
        dial_note=dial_notes(reach, units, lanes),
        recycle_s=_known(recycle),
        recycle=list(map(_recycle_words, np.where(np.isnan(recycle), NOT_STATED, recycle).tolist())),
        flashes=_whole(flashes),
        charges=_whole(reach.charges[lanes]),
        t01_s=_known(t01),
        below_full=below,
        t01=list(map(_t01_words, np.where(np.isnan(t01), NOT_STATED, t01).tolist())),
        mains=np.isinf(flashes).tolist(),
    )


NOT_STATED = -1.0  # stands for a figure that nobody stated where it is put into words, as these are kept


@kept(4096)
def _recycle_words(seconds: float) -> str:
    return "not stated" if seconds == NOT_STATED else duration(seconds)


@kept(4096)
def _t01_words(seconds: float) -> str:
    return "" if seconds == NOT_STATED else f"t.1 {shutter(seconds)}"


def _known(figures: Floats) -> list[float | None]:
    """A column of figures; None where one is not stated."""
    column: list[float | None] = figures.tolist()
    for at in np.flatnonzero(np.isnan(figures)).tolist():
        column[at] = None
    return column


def _whole(figures: Floats) -> list[int | None]:
    """A column of whole numbers; None where one is not stated, or without end."""
    finite = np.isfinite(figures)
    column: list[int | None] = np.where(finite, figures, 0).round().astype(int).tolist()
    for at in np.flatnonzero(~finite).tolist():
        column[at] = None
    return column
