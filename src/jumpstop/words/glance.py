"""The shelf at a glance, in words: a column a measure, each with its figures and how they are said."""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..core.kit.table import UnitTable
from ..core.physics.arrays import Floats
from ..core.physics.guide_number import guide_number_of_stops
from ..core.physics.scales import APERTURES
from ..core.plan.need.glance import MORE_IS_BETTER, Glance, Measure, best_of
from .figures import DisplayUnits, decimal, duration, f_number, grouped, guide_number, listed, plain, shutter, stops

NONE = "–"
TITLES: dict[Measure, str] = {
    "light": "Light",
    "ws": "Energy",
    "hss": "Left in HSS",
    "recycle": "Recycles, full",
    "recycle_dial": "Recycles, at the dial",
    "flashes": "Flashes a charge",
    "t01": "t.1",
    "weight": "Weight",
    "price": "Price",
}


@dataclass(slots=True)
class GlanceColumn:
    """One measure of every unit: figures (null where not known) and their words; bar: 0 to 1 on the column's scale."""

    key: Measure
    title: str
    more_is_better: bool
    figures: list[float | None]
    words: list[str]
    bars: list[float]


@dataclass(slots=True)
class GlanceText:
    """The shelf on one basis. sd: doubt of the light [stops]; taught: what readings say against the claim."""

    basis: str
    ids: list[str]
    names: list[str]
    holdings: list[str]
    known: list[str]
    taught: list[str]
    sd: list[float]
    columns: list[GlanceColumn]


@dataclass(slots=True)
class MapPoint:
    """One unit on the map of two measures. low, high: its doubt along the measure that has one; else its own figure."""

    id: str
    name: str
    x: float
    y: float
    x_words: str
    y_words: str
    x_low: float
    x_high: float
    y_low: float
    y_high: float
    holding: str
    typical: bool
    best: bool


@dataclass(slots=True)
class MapText:
    """Two measures against each other; `line`: the best trade-offs in order, by their ids."""

    says: str
    x_title: str
    y_title: str
    points: list[MapPoint]
    line: list[str]


KNOWN = {
    "measured": "measured by you",
    "claimed": "maker's figure",
    "no_coverage": "maker's figure, coverage not said",
    "watt_seconds": "guess from Ws",
    "typical": "typical",
}


def glance_text(table: UnitTable, found: Glance, basis: str, picture: bool, units: DisplayUnits) -> GlanceText:
    """The document. picture: light is stops in hand; else it is what reaches that place."""
    measures = found.measures
    columns = [_column(key, measures[key], picture, basis, units) for key in TITLES if key in measures]
    return GlanceText(
        basis=basis,
        ids=list(table.ids),
        names=[unit.name for unit in table.units],
        holdings=[unit.holding for unit in table.units],
        known=[KNOWN[one] for one in table.basis],
        taught=[_taught(table, key) for key in table.ids],
        sd=np.nan_to_num(found.sd).round(2).tolist(),
        columns=columns,
    )


def _taught(table: UnitTable, key: str) -> str:
    found = None if table.learned is None else table.learned.light_of(key)
    return "" if found is None else f"readings: {stops(found[0])} ± {decimal(found[1], '.1f')}"


def said_of(key: Measure, picture: bool, basis: str, units: DisplayUnits) -> Callable[[float], str]:
    """How a figure of a measure is said."""
    if key in ("light", "hss"):
        if picture:
            return stops
        if basis == BARE:
            return lambda value: guide_number(float(guide_number_of_stops(value)), units)
        return _aperture
    says: dict[Measure, Callable[[float], str]] = {
        "ws": lambda value: f"{plain(round(value))} Ws",
        "recycle": duration,
        "recycle_dial": duration,
        "flashes": lambda value: "mains" if math.isinf(value) else grouped(float(f"{value:.3g}")),
        "t01": shutter,
        "weight": lambda value: f"{grouped(value)} g",
        "price": lambda value: f"{units.currency}{grouped(value)}",
    }
    return says[key]


BARE = "bare, at one metre"


def _title(key: Measure, picture: bool) -> str:
    in_hand: dict[Measure, str] = {"light": "In hand", "hss": "In hand by HSS"}
    return in_hand.get(key, TITLES[key]) if picture else TITLES[key]


def _aperture(value: float) -> str:
    """Light as the aperture that is right there at ISO 100."""
    exact = 2 ** (value / 2)
    mark = APERTURES.near_mark(exact)
    return f_number(exact if mark is None else mark)


def _column(key: Measure, figures: Floats, picture: bool, basis: str, units: DisplayUnits) -> GlanceColumn:
    say = said_of(key, picture, basis, units)
    values = figures.tolist()
    known = figures[np.isfinite(figures)]
    return GlanceColumn(
        key=key,
        title=_title(key, picture),
        more_is_better=key in MORE_IS_BETTER,
        figures=[None if math.isnan(one) else 1e9 if math.isinf(one) else float(f"{one:.6g}") for one in values],
        words=[NONE if math.isnan(one) else say(one) for one in values],
        bars=_bars(figures, known, key).round(3).tolist(),
    )


LOGARITHMIC: tuple[Measure, ...] = ("ws", "recycle", "recycle_dial", "flashes", "t01", "weight", "price")
LEAST_BAR = 0.04  # so that what is known is seen


def _bars(figures: Floats, known: Floats, key: Measure) -> Floats:
    """Lengths of bars: stops straight, all else by its logarithm, from the least to the most of the shelf."""
    if not len(known):
        return np.zeros(len(figures))
    most = float(known.max())
    finite = np.where(np.isposinf(figures), most, figures)
    if key in LOGARITHMIC:
        least = max(1e-6, float(known[known > 0].min(initial=most)))
        values, low, high = np.log(np.maximum(finite, least)), math.log(least), math.log(max(most, least))
    else:
        values, low, high = finite, float(known.min()), most
    span = high - low
    share = (values - low) / span if span > 0 else np.ones(len(figures))
    return np.nan_to_num(LEAST_BAR + (1 - LEAST_BAR) * share)


def map_text(
    table: UnitTable, found: Glance, measures: tuple[Measure, Measure], basis: str, picture: bool, units: DisplayUnits
) -> MapText:
    """Two measures of every unit that has both."""
    nothing = np.full(len(table), np.nan)
    figures = [found.measures.get(one, nothing) for one in measures]
    x, y = (np.where(np.isinf(one), np.nan, one) for one in figures)
    says = [said_of(one, picture, basis, units) for one in measures]
    titles = [_title(one, picture) for one in measures]
    best = best_of(x, y, measures)
    points = []
    for at in np.flatnonzero(~np.isnan(x) & ~np.isnan(y)).tolist():
        off = [float(np.nan_to_num(found.sd[at])) if one in ("light", "hss") else 0.0 for one in measures]
        a, b = float(x[at]), float(y[at])
        points.append(
            MapPoint(
                id=table.ids[at], name=table.units[at].name, x=a, y=b, x_words=says[0](a), y_words=says[1](b),
                x_low=a - off[0], x_high=a + off[0], y_low=b - off[1], y_high=b + off[1],
                holding=table.units[at].holding, typical=table.units[at].typical, best=at in best,
            )
        )  # fmt: skip
    named = [table.units[at].name for at in best]
    told = listed([*named[:6], f"{len(named) - 6} more"] if len(named) > 6 else named, "and")
    kept = f"None gives more for less than these: {told}." if named else "No unit has both figures."
    return MapText(kept, titles[0], titles[1], points, [table.ids[at] for at in best])
