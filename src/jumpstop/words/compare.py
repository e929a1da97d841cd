"""Units side by side, in words: rows that can be read across, curves to draw, and each against the first."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ..core.kit.compare import HSS_TIMES_S, Against, Compared, against, known, sides
from ..core.kit.modifier import Modifier
from ..core.kit.rating import Basis
from ..core.kit.table import UnitTable
from ..core.physics import battery
from ..core.physics.guide_number import guide_number_of_stops
from .figures import DisplayUnits, amount, decimal, duration, grouped, guide_number, plain, shutter, stops
from .kit import all_printed

BASES: dict[Basis, str] = {
    "measured": "measured by you",
    "claimed": "maker's figure",
    "no_coverage": "maker's figure, its coverage not said",
    "watt_seconds": "estimate from watt-seconds",
    "typical": "typical of its class",
}
HOLDINGS = {"owned": "owned", "hire": "for hire, a day's price", "wanted": "wanted"}
SAME_STOPS = 0.05  # no difference in light
NONE = "–"


@dataclass(slots=True)
class RowText:
    """One line across the units."""

    name: str
    cells: list[str]


@dataclass(slots=True)
class CurveText:
    """One unit's line in a plot: points (x, y). at: where the picture stands on it."""

    name: str
    points: list[list[float]]
    at: list[float] | None = None


@dataclass(slots=True)
class PlotText:
    """One plot: its title, what its axes are, marks along x, and a line for each unit that has one."""

    title: str
    x: str
    y: str
    marks: list[str]
    curves: list[CurveText]


@dataclass(slots=True)
class CompareText:
    """Units side by side; the first is the one that the others are compared to."""

    names: list[str]
    rows: list[RowText]
    plots: list[PlotText]
    says: list[str]


def compare_text(
    table: UnitTable,
    units: Sequence[int],
    modifier: Modifier | None,
    words: DisplayUnits,
    dials: Sequence[float] = (),
) -> CompareText:
    """The document. dials: where the picture in hand sets each unit [stops below full]; none: there is no picture."""
    found = sides(table, units, modifier)
    others = [against(table, unit, units[0]) for unit in units]
    rows = _rows(table, found, others, modifier, words)
    return CompareText(
        names=[table.units[unit].name for unit in units],
        rows=[row for row in rows if any(cell not in ("", NONE) for cell in row.cells)],
        plots=[plot for plot in _plots(table, found, dials) if plot.curves],
        says=[_says(table, units[0], unit, one) for unit, one in zip(units[1:], others[1:], strict=True)],
    )


def _rows(
    table: UnitTable,
    found: Sequence[Compared],
    others: Sequence[Against],
    modifier: Modifier | None,
    words: DisplayUnits,
) -> list[RowText]:
    def across(name: str, cell: Callable[[Compared], str]) -> RowText:
        return RowText(name, [cell(one) for one in found])

    def money(figure: float | None) -> str:
        return NONE if figure is None else f"{words.currency}{grouped(figure)}"

    def as_guide(light: float | None) -> str:
        return NONE if light is None else guide_number(float(guide_number_of_stops(light)), words, 1)

    front = modifier.name if modifier else ""
    return [
        across("on the box", lambda one: all_printed(table.units[one.unit])),
        across("comes to", lambda one: f"{guide_number(one.guide_number, words, 1)} ± {amount(one.sd, 2)}"),
        across("known from", lambda one: BASES[one.basis]),
        RowText("against the first", [f"{stops(one.stops, 2)} ({decimal(one.times, '.3g')} times)" for one in others]),
        across("beam", lambda one: f"{grouped(one.candela_seconds)} cd s"),
        across("energy", lambda one: NONE if one.watt_seconds is None else f"{plain(one.watt_seconds)} Ws"),
        across("light per Ws", lambda one: NONE if one.light_per_ws is None else f"{one.light_per_ws:.0f} cd s"),
        across(f"through {front}", lambda one: as_guide(one.through) if modifier else ""),
        across("HSS at 1/1000 s", lambda one: _hss(one, words)),
        across("flash duration, full", lambda one: _known(float(one.t01_s[0]), lambda s: f"t.1 {shutter(s)}")),
        across("recycles, full", lambda one: _known(float(one.recycle_s[0]), duration)),
        across("full flashes a charge", lambda one: _flashes(one.flashes)),
        across("weight", lambda one: _known(table.units[one.unit].weight_g, lambda grams: f"{grouped(grams)} g")),
        across("energy by weight", lambda one: NONE if one.ws_per_kg is None else f"{one.ws_per_kg:.0f} Ws/kg"),
        across("price", lambda one: money(table.units[one.unit].price)),
        RowText("price for a stop more", [money(one.price_per_stop) for one in others]),
        across("held", lambda one: HOLDINGS[table.units[one.unit].holding]),
    ]  # fmt: skip


def _known(figure: float | None, say: Callable[[float], str]) -> str:
    return NONE if figure is None or math.isnan(figure) else say(figure)


def _hss(one: Compared, words: DisplayUnits) -> str:
    if one.hss is None:
        return "none"
    known_by = "measured or tabled" if one.hss_measured else "estimate"
    return f"{guide_number(float(guide_number_of_stops(one.hss)), words, 1)}, {known_by}"


def _flashes(flashes: float) -> str:
    if math.isnan(flashes):
        return NONE
    return "mains" if math.isinf(flashes) else f"{flashes:.0f}"


def _plots(table: UnitTable, found: Sequence[Compared], dials: Sequence[float]) -> list[PlotText]:
    def curves(points: Callable[[Compared], list[list[float]]]) -> list[CurveText]:
        every = [CurveText(table.units[one.unit].name, points(one)) for one in found]
        return [one for one in every if one.points]

    def by_power(figures: Callable[[Compared], Sequence[float]]) -> list[CurveText]:
        out = []
        for place, one in enumerate(found):
            values = figures(one)
            points = [(float(x), y) for x, y in zip(one.powers, values, strict=True) if known(y) and math.isfinite(y)]
            if points:
                here = dials[place] if place < len(dials) and math.isfinite(dials[place]) else None
                xs, ys = [x for x, _ in points], [y for _, y in points]
                at = None if here is None else [here, float(np.interp(here, xs, ys))]
                line = [[round(x, 3), float(f"{y:.4g}")] for x, y in points]
                out.append(CurveText(table.units[one.unit].name, line, at))
        return out

    powers = [f"1/{2**at}" for at in range(10)]
    times = [shutter(time) for time in HSS_TIMES_S]
    return [
        PlotText("Flash duration by power", "power", "t.1, s", powers, by_power(lambda one: one.t01_s.tolist())),
        PlotText(
            "Flashes a charge by power", "power", "flashes", powers,
            by_power(lambda one: battery.flashes_per_charge(np.exp2(-one.powers), one.flashes).tolist()),
        ),
        PlotText("Recycle time by power", "power", "s", powers, by_power(lambda one: one.recycle_s.tolist())),
        PlotText(
            "Light in HSS, on a body that syncs at 1/250", "shutter", "stops", times,
            curves(lambda one: [[at, round(v, 3)] for at, v in enumerate(one.hss_stops.tolist()) if known(v)]),
        ),
    ]  # fmt: skip


def _says(table: UnitTable, first: int, unit: int, one: Against) -> str:
    """A unit against the first, in a sentence: light, price, and what it has not."""
    mine, base = table.units[unit], table.units[first]
    parts = []
    if one.price_times is not None:
        parts.append(f"{decimal(one.price_times, '.2g')} {'times' if one.price_times >= 1 else 'of'} the price")
    same = abs(one.stops) < SAME_STOPS
    parts.append(
        "the same light" if same else f"{decimal(one.times, '.2g')} times the light ({stops(one.stops, 2)} stops)"
    )
    if base.hss is not None and mine.hss is None:
        parts.append("no HSS")
    if base.hss is None and mine.hss is not None:
        parts.append("with HSS")
    if mine.weight_g is not None and base.weight_g:
        parts.append(f"{decimal(mine.weight_g / base.weight_g, '.2g')} times the weight")
    return f"{mine.name} against {base.name}: {', '.join(parts)}."
