"""Units side by side on one basis: light, energy, HSS, how long the flash lasts, how fast and how often, and money."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..physics import battery
from ..physics.arrays import Floats
from ..physics.guide_number import beam_candela_seconds, guide_number_of_stops
from .modifier import Modifier, usual_stops
from .rating import Basis
from .table import UnitTable

HSS_TIMES_S = tuple(1 / (250 * 2**at) for at in range(1, 6))  # 1/500 to 1/8000, from a body that syncs at 1/250
TRAVEL_S = 1 / 250  # curtain travel that units are compared at: a body that syncs at 1/250
HSS_TOLD_S = 1 / 1000  # time at which HSS is compared
LEAST_MORE = 0.1  # stops: what is less is no more light


@dataclass(frozen=True, eq=False)
class Compared:
    """One unit. rated, through: light at one metre, ISO 100, f/1, bare at 35 mm and through the modifier asked for
    [stops]; sd: its doubt. Curves run over `powers` [stops below full] and over HSS_TIMES_S; NaN where not known.

    light_per_ws: beam candela-seconds for each watt-second. ws_per_kg: energy by weight. hss: light there in HSS
    [stops], None without it. flashes: full-power flashes of a charge, inf on mains.
    """

    unit: int
    rated: float
    sd: float
    basis: Basis
    guide_number: float
    candela_seconds: float
    watt_seconds: float | None
    light_per_ws: float | None
    through: float | None
    hss: float | None
    hss_measured: bool
    ws_per_kg: float | None
    flashes: float
    powers: Floats
    t01_s: Floats
    recycle_s: Floats
    hss_stops: Floats


@dataclass(frozen=True)
class Against:
    """One unit against another: light in stops and in times, price in times, and price for each stop more (None where
    there is no stop more, or a price is not known)."""

    stops: float
    times: float
    price_times: float | None
    price_per_stop: float | None


def compared(table: UnitTable, unit: int, modifier: Modifier | None = None) -> Compared:
    """One unit of a shelf. The modifier is taken with the layers that are usually on."""
    one, rated = table.units[unit], float(table.rated[unit])
    light = float(beam_candela_seconds(float(guide_number_of_stops(rated))))
    ws = one.watt_seconds
    powers = np.arange(0.0, float(table.dial_range[unit]) + 1e-9, 1 / 3)
    supply = table.fed_by(None)
    hss = np.full(len(HSS_TIMES_S), np.nan)
    if table.has_hss[unit]:
        lost = [float(table.hss_loss_at(time, TRAVEL_S)[unit]) for time in HSS_TIMES_S]
        hss = rated - np.array(lost)
    front = None
    if modifier is not None and one.takes(modifier):
        front = rated + usual_stops(modifier)
    kilos = None if one.weight_g is None or one.weight_g == 0 else one.weight_g / 1000
    return Compared(
        unit=unit,
        rated=rated,
        sd=float(table.rated_sd[unit]),
        basis=table.basis[unit],
        guide_number=float(guide_number_of_stops(rated)),
        candela_seconds=light,
        watt_seconds=ws,
        light_per_ws=None if ws is None else light / ws,
        through=front,
        hss=float(hss[HSS_TIMES_S.index(HSS_TOLD_S)]) if table.has_hss[unit] else None,
        hss_measured=bool(table.hss_tabled[unit]) or bool(one.hss and one.hss.measured),
        ws_per_kg=None if ws is None or kilos is None else ws / kilos,
        flashes=float(supply.full_flashes[unit]),
        powers=powers,
        t01_s=np.asarray(table.t01_of(unit, powers)),
        recycle_s=np.asarray(battery.recycle_s(np.exp2(-powers), supply.full_s[unit], supply.least_s[unit])),
        hss_stops=hss,
    )


def against(table: UnitTable, unit: int, other: int) -> Against:
    """A unit against the one that others are compared to: 200 Ws against 80 Ws of the same kind is +1.32, 2.5 times."""
    stops = float(table.rated[unit] - table.rated[other])
    price, base = table.units[unit].price, table.units[other].price
    more = times = None
    if price is not None and base:
        times = price / base
        more = (price - base) / stops if stops > LEAST_MORE else None
    return Against(stops, 2.0**stops, times, more)


def sides(table: UnitTable, units: Sequence[int], modifier: Modifier | None = None) -> list[Compared]:
    """Several units, in the order asked for."""
    return [compared(table, unit, modifier) for unit in units]


def known(figure: float | None) -> bool:
    """Whether a figure is there."""
    return figure is not None and not math.isnan(figure)
