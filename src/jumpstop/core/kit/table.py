"""A shelf of units as arrays, so that one setup is solved for all of them at once."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, NamedTuple

import numpy as np

from ..physics.arrays import Figure, Floats
from ..physics.battery import capacity_wh, full_flashes_of, standby_per_h
from ..physics.beam import REFERENCE_ZOOM_MM, coverage_deg
from ..physics.exposure import METER_C_FLAT
from ..physics.pulse import T01_OF_T05
from ..physics.shutter import hss_loss
from .learned import Learned
from .memo import remembered
from .modifier import Modifier, UnitKind, fits_unit
from .power import SUPPLY_KINDS, PowerSupply, SupplyKind
from .rating import REFERENCE_DEG, Basis, Rating, rating_of
from .unit import HSS_EXTRA, FlashDuration, Hss, Unit

HSS_PER_STOP = 12  # steps a stop of a unit's table of HSS losses; a matter of computing
HSS_TV = (
    np.arange(5 * HSS_PER_STOP, 16 * HSS_PER_STOP + 1) / HSS_PER_STOP
)  # time values at which HSS tables are sampled: 1/32 s and shorter
STANDBY_W: dict[UnitKind, float] = {
    "built_in": 0.5, "shoe": 0.5, "ring": 0.5, "pocket": 1.0, "monobloc": 4.0, "pack": 4.0,
}  # fmt: skip
"""What a unit that is switched on draws [W], its modelling light off, where it is not said; from memory."""
STANDBY_SHARE = 0.01  # of a charge in an hour, where its energy is not known; from memory
POWER_STOPS = np.arange(0, 37) / 3  # stops below full at which flash durations are sampled
SD_HSS_MEASURED, SD_HSS_DEFAULT = 0.15, 0.4  # doubt of the HSS loss, from the unit's own figures or not; from memory


class Supply(NamedTuple):
    """The power behind every unit; arrays of shape (units,), NaN where it is not stated."""

    full_s: Floats
    least_s: Floats
    full_flashes: Floats
    standby: Floats  # what standing by takes in an hour [full flashes]


class Output(NamedTuple):
    """Light of every unit at one coverage; arrays of shape (units,).

    rated [stops]: 2 log2 GN at ISO 100 and the coverage all are compared at; gain: what the zoom adds to it. The doubt
    of the coverage used is shared out between the two, so that together they have just the doubt of that coverage.
    """

    rated_sd: Floats
    gain: Floats
    gain_sd: Floats
    zoom_mm: Floats


def place_among(units: Sequence[Unit], ids: Sequence[str], unit_id: str | None, name: str = "") -> int | None:
    """Where a unit stands: by its id, or where it has none by its name; None: not here."""
    if unit_id is not None:
        return ids.index(unit_id) if unit_id in ids else None
    return next((at for at, unit in enumerate(units) if unit.name == name), None)


@dataclass(frozen=True, eq=False)
class UnitTable:
    """Arrays over units, each of shape (units,) unless said otherwise; NaN where a unit has no such figure."""

    units: tuple[Unit, ...]
    ids: tuple[str, ...]
    rated: Floats  # 2 log2 GN at ISO 100, 35 mm coverage [stops]
    rated_sd: Floats
    basis: tuple[Basis, ...]
    ratings: tuple[Rating, ...]  # its light by coverage
    zoom_min: Floats  # [mm], the widest quoted zoom where nothing is said, NaN without a zoom head
    zoom_max: Floats
    can_zoom: np.ndarray
    takes_modifiers: np.ndarray
    kind: np.ndarray  # what kind of unit each is, as words
    has_hss: np.ndarray
    hss_extra: Floats  # (units, HSS_TV): loss beyond geometry [stops]
    hss_tabled: np.ndarray  # whether that comes from the unit's own table
    hss_sd: Floats
    dial_range: Floats  # stops the dial goes below full
    step: Floats
    t01_s: Floats  # (units, POWER_STOPS): flash duration t.1 by power, NaN where it is not known
    tailed: np.ndarray  # whether the pulse is left to its tail
    recycle_full: Floats  # (units, supply kinds) [s]
    recycle_least: Floats
    full_flashes: Floats
    standby: Floats  # (units, supply kinds): in an hour [full flashes]
    fitted: np.ndarray  # column of the power supply it usually has, -1 without any
    weight_g: Floats
    quoted_sd: Floats  # doubt of the light at the coverage it is surest at [stops]
    learned: Learned | None = None  # what readings have taught
    memo: dict[Any, Any] = field(default_factory=dict, repr=False, init=False)

    def place_of(self, unit_id: str | None, name: str = "") -> int | None:
        """Where a unit stands on the units' axis (see `place_among`)."""
        return place_among(self.units, self.ids, unit_id, name)

    def __len__(self) -> int:
        return len(self.units)

    @remembered(16)
    def fed_by(self, kind: SupplyKind | None) -> Supply:
        """Recycle times and charge from the supply asked for where a unit has it, else from its usual one."""
        column, rows = self.fitted, np.arange(len(self))
        if kind is not None:
            asked = SUPPLY_KINDS.index(kind)
            column = np.where(np.isnan(self.recycle_full[:, asked]), column, asked)
        known = column >= 0
        return Supply(
            *(
                np.where(known, of[rows, column], np.nan)
                for of in (self.recycle_full, self.recycle_least, self.full_flashes, self.standby)
            )
        )

    def takes(self, modifier: Modifier, anyway: bool = False) -> np.ndarray:
        """Which units a modifier can be used on; shape (units,). anyway: where somebody says that it fits."""
        good = self.takes_modifiers & (anyway | self.fitting(modifier))
        return good & self.can_zoom if modifier.needs_zoom_head else good

    def fitting(self, modifier: Modifier) -> np.ndarray:
        """Which units a modifier goes on, by kind, name and mount; shape (units,)."""
        if not (modifier.fits or modifier.not_on or modifier.mount):
            return np.ones(len(self), dtype=bool)
        return np.array([fits_unit(modifier, one.kind, one.name, one.mount) for one in self.units], dtype=bool)

    def t01_at(self, below_full: Floats) -> Floats:
        """Flash duration (t.1) [s] of every unit at so many stops below full; NaN where that is not known."""
        place = np.clip(below_full * 3, 0, len(POWER_STOPS) - 1.001)
        low, rows = place.astype(int), np.arange(len(self))
        share = place - low
        return self.t01_s[rows, low] ** (1 - share) * self.t01_s[rows, low + 1] ** share

    def t01_of(self, unit: int, below_full: Figure) -> Figure:
        """The same of one unit, at one or more settings."""
        found: Figure = np.exp(np.interp(below_full, POWER_STOPS, np.log(self.t01_s[unit])))
        return found

    @remembered(64)
    def hss_extra_at(self, shutter_s: float) -> Floats:
        """Loss in HSS beyond geometry [stops] of every unit at this time."""
        place = float(np.clip((-math.log2(shutter_s) - HSS_TV[0]) * HSS_PER_STOP, 0, len(HSS_TV) - 1.001))
        low = int(place)
        return self.hss_extra[:, low] * (1 - (place - low)) + self.hss_extra[:, low + 1] * (place - low)

    def hss_loss_at(self, shutter_s: float, travel_s: float) -> Floats:
        """All that HSS takes [stops] from every unit at this time, on a body whose curtains take travel_s [s]."""
        return float(hss_loss(shutter_s, travel_s)) + self.hss_extra_at(shutter_s)

    @remembered(64)
    def output_at(self, zoom_mm: float | None) -> Output:
        """Light at a zoom position; heads that do not go so far stop at their end, others do not change."""
        still = np.zeros(len(self))
        if zoom_mm is None:
            return Output(self.rated_sd, still, still, np.full(len(self), REFERENCE_ZOOM_MM))
        here = np.where(self.can_zoom, np.clip(zoom_mm, self.zoom_min, self.zoom_max), REFERENCE_ZOOM_MM)
        gain, sd = still, self.rated_sd.copy()
        for row in np.flatnonzero(self.can_zoom).tolist():
            stops, sd[row] = self.ratings[row].at(float(coverage_deg(here[row])))
            gain[row] = stops - self.rated[row]
        rated_sd = np.minimum(self.rated_sd, sd)
        return Output(rated_sd, gain, np.sqrt(sd**2 - rated_sd**2), here)


def table_of(
    units: Sequence[Unit],
    meter_c: float = METER_C_FLAT,
    ids: Sequence[str] = (),
    learned: Learned | None = None,
) -> UnitTable:
    """Arrays of a shelf, known by `ids` (their names where none are given).

    Slow (Python, a unit at a time): keep it while the shelf does not change.
    """
    ratings = [rating_of(unit, meter_c) for unit in units]
    at_reference = [rating.at(REFERENCE_DEG) for rating in ratings]
    full, least, flashes, standby = (np.full((len(units), len(SUPPLY_KINDS)), np.nan) for _ in range(4))
    for row, unit in enumerate(units):
        for supply in reversed(unit.power_supplies):
            column = SUPPLY_KINDS.index(supply.kind)
            full[row, column] = supply.recycle_full_s
            least[row, column] = min(supply.recycle_least_s, supply.recycle_full_s)
            flashes[row, column] = full_flashes(supply, unit.watt_seconds)
            standby[row, column] = standby_of(unit, supply)
    return UnitTable(
        units=tuple(units),
        ids=tuple(ids) or tuple(unit.name for unit in units),
        rated=_column([stops for stops, _ in at_reference]),
        rated_sd=_column([sd for _, sd in at_reference]),
        basis=tuple(rating.basis for rating in ratings),
        ratings=tuple(ratings),
        zoom_min=_column([unit.widest_mm for unit in units]),
        zoom_max=_column([unit.zoom_max_mm for unit in units]),
        can_zoom=_flags([unit.zoom_max_mm is not None for unit in units]),
        takes_modifiers=_flags([unit.takes_modifiers for unit in units]),
        kind=np.array([unit.kind for unit in units]),
        has_hss=_flags([unit.hss is not None for unit in units]),
        hss_extra=np.array([_hss_extra(unit.hss) for unit in units]).reshape(len(units), len(HSS_TV)),
        hss_tabled=_flags([unit.hss is not None and bool(unit.hss.table) for unit in units]),
        hss_sd=_column([_hss_sd(unit.hss) for unit in units]),
        dial_range=_column([unit.scale.dial_range_stops for unit in units]),
        step=_column([unit.scale.step_stops for unit in units]),
        t01_s=np.array([_durations(unit.flash_duration) for unit in units]).reshape(len(units), len(POWER_STOPS)),
        tailed=_flags([unit.flash_duration is not None and unit.flash_duration.shape == "tail" for unit in units]),
        recycle_full=full,
        recycle_least=least,
        full_flashes=flashes,
        standby=standby,
        fitted=np.array([_usual_column(unit) for unit in units], dtype=int),
        weight_g=_column([unit.weight_g for unit in units]),
        quoted_sd=_column([min(rating.sd) for rating in ratings]),
        learned=learned,
    )


def _column(figures: Sequence[float | None]) -> Floats:
    return np.array([np.nan if figure is None else figure for figure in figures], dtype=float)


def _flags(flags: Sequence[bool]) -> np.ndarray:
    return np.array(flags, dtype=bool)


def _usual_column(unit: Unit) -> int:
    return SUPPLY_KINDS.index(unit.power_supplies[0].kind) if unit.power_supplies else -1


def full_flashes(supply: PowerSupply, watt_seconds: float | None) -> float:
    """Full-power flashes in one charge: as stated, else by capacity; mains never ends; unknown is NaN."""
    if supply.kind == "mains":
        return math.inf
    if supply.full_flashes is not None:
        return supply.full_flashes
    if supply.capacity_wh is not None and watt_seconds:
        return float(full_flashes_of(supply.capacity_wh, watt_seconds))
    return math.nan


def standby_of(unit: Unit, supply: PowerSupply) -> float:
    """What a unit takes of a charge by standing by for an hour [full flashes]; 0 on mains."""
    flashes = full_flashes(supply, unit.watt_seconds)
    if math.isinf(flashes) or unit.standby_w == 0:
        return 0.0
    watts = STANDBY_W[unit.kind] if unit.standby_w is None else unit.standby_w
    held = supply.capacity_wh
    if held is None and unit.watt_seconds:
        held = float(capacity_wh(flashes, unit.watt_seconds))
    return STANDBY_SHARE * flashes if not held else float(standby_per_h(watts, held, flashes))


def _hss_sd(hss: Hss | None) -> float:
    return SD_HSS_MEASURED if hss and (hss.measured or hss.table) else SD_HSS_DEFAULT


def _hss_extra(hss: Hss | None) -> Floats:
    """What a unit loses beyond geometry, by time value: constant, or its table less the geometry of the table's body.

    Between the table's entries straight in stops, held beyond its ends.
    """
    if hss is None or not hss.table:
        return np.full(len(HSS_TV), HSS_EXTRA if hss is None else hss.extra_stops)
    entries = sorted(
        (-math.log2(e.shutter_s), e.loss_stops - float(hss_loss(e.shutter_s, hss.travel_s))) for e in hss.table
    )
    times, extras = zip(*entries, strict=True)
    return np.interp(HSS_TV, times, extras)


def _durations(duration: FlashDuration | None) -> Floats:
    """t.1 [s] by power: straight in stops between the table's entries, held beyond its ends."""
    if duration is None:
        return np.full(len(POWER_STOPS), np.nan)
    entries = sorted((-math.log2(entry.power), math.log2(entry.seconds)) for entry in duration.table)
    powers, logs = zip(*entries, strict=True)
    times = np.exp2(np.interp(POWER_STOPS, powers, logs))
    return times * T01_OF_T05[duration.shape] if duration.measure == "t.5" else times
