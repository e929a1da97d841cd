"""A shelf of units as arrays, so that one setup is solved for all of them at once."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple, get_args

import numpy as np

from .exposure import APERTURES, METER_C_FLAT, av
from .flash import (
    HSS_EXTRA,
    REFERENCE_ZOOM_MM,
    T01_OF_T05,
    Beam,
    Hss,
    PowerSource,
    Pulse,
    Unit,
    beam_of,
    coverage_deg,
    settable_stops,
)  # fmt: skip
from .stamina import full_flashes_of
from .stops import Jump
from .values import Floats

ZOOMS_MM = np.array([14.0, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200])
HSS_TV = np.arange(5, 16, 1 / 3)  # time values at which HSS tables are sampled
POWER_STOPS = np.arange(0, 37) / 3  # stops below full at which flash durations are sampled
SOURCE_KINDS = get_args(PowerSource.model_fields["kind"].annotation)

REFERENCE_DEG = float(coverage_deg(REFERENCE_ZOOM_MM))


class Feed(NamedTuple):
    """The power behind every unit; arrays of shape (units,), NaN where it is not stated."""

    full_s: Floats
    least_s: Floats
    full_flashes: Floats


@dataclass(frozen=True, eq=False)
class Table:
    """Arrays over units, each of shape (units,) unless said otherwise; NaN where a unit has no such figure."""

    units: tuple[Unit, ...]
    light: Floats  # 2 log2 GN at ISO 100, 35 mm coverage [stops]
    light_sd: Floats
    light_why: tuple[str, ...]
    zoom_gain: Floats  # (units, zooms): stops against 35 mm coverage
    zoom_sd: Floats  # (units, zooms)
    zoom_min: Floats  # [mm], NaN without a zoom head
    zoom_max: Floats
    can_zoom: np.ndarray
    takes_modifiers: np.ndarray
    has_hss: np.ndarray
    hss_extra: Floats
    hss_sd: Floats
    hss_table: Floats  # (units, HSS_TV): loss from the unit's own table [stops], NaN without one
    depth: Floats  # stops the dial goes below full
    step: Floats
    t01_s: Floats  # (units, POWER_STOPS): flash duration t.1 by power, NaN where it is not known
    tailed: np.ndarray  # whether the pulse is left to its tail
    recycle_full: Floats  # (units, source kinds) [s]
    recycle_least: Floats
    full_flashes: Floats
    fitted: np.ndarray  # column of the power source it usually has, -1 without any

    def __len__(self) -> int:
        return len(self.units)

    def fed_by(self, source: str | None) -> Feed:
        """Recycle times and charge from the source asked for where a unit has it, else from its usual one."""
        column, rows = self.fitted, np.arange(len(self))
        if source is not None:
            asked = SOURCE_KINDS.index(source)
            column = np.where(np.isnan(self.recycle_full[:, asked]), column, asked)
        known = column >= 0
        return Feed(
            *(
                np.where(known, of[rows, column], np.nan)
                for of in (self.recycle_full, self.recycle_least, self.full_flashes)
            )
        )

    def burns(self, below_full: Floats) -> Floats:
        """How long every unit burns (t.1) [s] at so many stops below full; NaN where that is not known."""
        place = np.clip(below_full * 3, 0, len(POWER_STOPS) - 1.001)
        low, rows = place.astype(int), np.arange(len(self))
        share = place - low
        return self.t01_s[rows, low] * (1 - share) + self.t01_s[rows, low + 1] * share

    def take_off(self, f_number: float) -> Jump:
        """What a unit gives at one metre, at full power, at ISO 100 and the aperture wanted."""
        return Jump(
            "take_off",
            "at 1 m, {aperture:f}",
            self.light - av(APERTURES.exact(f_number)),
            self.light_sd,
            "{basis} At one metre and {aperture:f}, at ISO 100 and full power, that is 2 log2(GN / N) stops over a "
            "correct exposure.",
            "P",
            "ISO 1230:2007",
            {"aperture": f_number, "basis": self.light_why},
        )

    def zoomed(self, zoom_mm: float) -> Jump:
        """Gain of a zoom head against 35 mm coverage; heads that do not go so far stop at their end."""
        low_end = np.where(self.can_zoom, self.zoom_min, 35)
        here = np.clip(zoom_mm, low_end, np.where(self.can_zoom, self.zoom_max, 35))
        here = np.where(np.isnan(here), np.minimum(zoom_mm, np.nan_to_num(self.zoom_max, nan=35)), here)
        place = np.interp(np.log(here), np.log(ZOOMS_MM), np.arange(len(ZOOMS_MM)))
        low = np.minimum(place.astype(int), len(ZOOMS_MM) - 2)
        share, rows = place - low, np.arange(len(self))
        gain = self.zoom_gain[rows, low] * (1 - share) + self.zoom_gain[rows, low + 1] * share
        sd = self.zoom_sd[rows, low] * (1 - share) + self.zoom_sd[rows, low + 1] * share
        return Jump(
            "zoom",
            "zoom {at:.0f} mm",
            np.where(self.can_zoom, gain, 0.0),
            np.where(self.can_zoom, np.maximum(sd, 0.0), 0.0),
            "Zoomed to {at:.0f} mm against the 35 mm coverage that all are compared at: from the positions quoted, "
            "straight against log(zoom); beyond them estimated from the beam. Without a zoom head: no change.",
            "M",
            "interpolated from the claims; estimate from memory",
            {"at": here},
        )


def table_of(units: Sequence[Unit], meter_c: float = METER_C_FLAT) -> Table:
    """Arrays of a shelf. Slow (Python, a unit at a time): keep it while the shelf does not change."""
    beams = [beam_of(unit, meter_c) for unit in units]
    at_reference = [beam.at(REFERENCE_DEG) for beam in beams]
    gains, gain_sds = _zoom_gains(units, beams)
    scales = [unit.scale for unit in units]
    recycle_full, recycle_least, full_flashes = (np.full((len(units), len(SOURCE_KINDS)), np.nan) for _ in range(3))
    for row, unit in enumerate(units):
        for source in reversed(unit.sources):
            column = SOURCE_KINDS.index(source.kind)
            recycle_full[row, column] = source.recycle_full_s
            recycle_least[row, column] = min(source.recycle_least_s, source.recycle_full_s)
            full_flashes[row, column] = full_flashes_of(source, unit.watt_seconds)
    return Table(
        units=tuple(units),
        light=np.array([stops for stops, _ in at_reference]),
        light_sd=np.array([sd for _, sd in at_reference]),
        light_why=tuple(_why(unit, beam, sd) for unit, beam, (_, sd) in zip(units, beams, at_reference, strict=True)),
        zoom_gain=gains,
        zoom_sd=gain_sds,
        zoom_min=np.array([unit.zoom_min_mm or np.nan for unit in units]),
        zoom_max=np.array([unit.zoom_max_mm or np.nan for unit in units]),
        can_zoom=np.array([unit.zoom_max_mm is not None for unit in units], dtype=bool),
        takes_modifiers=np.array([unit.takes_modifiers for unit in units], dtype=bool),
        has_hss=np.array([unit.hss is not None for unit in units], dtype=bool),
        hss_extra=np.array([unit.hss.extra_stops if unit.hss else HSS_EXTRA for unit in units]),
        hss_sd=np.array([0.15 if unit.hss and (unit.hss.measured or unit.hss.table) else 0.4 for unit in units]),
        hss_table=np.array([_hss_row(unit.hss) for unit in units]).reshape(len(units), len(HSS_TV)),
        depth=np.array([settable_stops(scale) for scale in scales]),
        step=np.array([scale.step_stops for scale in scales]),
        t01_s=np.array([_durations(unit.pulse) for unit in units]).reshape(len(units), len(POWER_STOPS)),
        tailed=np.array([unit.pulse is not None and unit.pulse.shape == "tail" for unit in units], dtype=bool),
        recycle_full=recycle_full,
        recycle_least=recycle_least,
        full_flashes=full_flashes,
        fitted=np.array([SOURCE_KINDS.index(u.sources[0].kind) if u.sources else -1 for u in units], dtype=int),
    )


def _zoom_gains(units: Sequence[Unit], beams: Sequence[Beam]) -> tuple[Floats, Floats]:
    gains = np.zeros((len(units), len(ZOOMS_MM)))
    sds = np.zeros_like(gains)
    angles = [float(coverage_deg(zoom)) for zoom in ZOOMS_MM]
    for row, (unit, beam) in enumerate(zip(units, beams, strict=True)):
        if unit.zoom_max_mm is None:
            continue
        base, base_sd = beam.at(REFERENCE_DEG)
        for column, angle in enumerate(angles):
            stops, sd = beam.at(angle)
            gains[row, column] = stops - base
            # Moving back to the coverage that was quoted takes the doubt of the move away again.
            sds[row, column] = math.copysign(math.sqrt(abs(sd**2 - base_sd**2)), sd - base_sd)
    return gains, sds


def _hss_row(hss: Hss | None) -> Floats:
    if hss is None or not hss.table:
        return np.full(len(HSS_TV), np.nan)
    entries = sorted((-math.log2(entry.shutter_s), entry.loss_stops) for entry in hss.table)
    times, losses = zip(*entries, strict=True)
    last = len(times) - 1
    # Past the table's ends it goes on at the slope of geometry: a stop a stop on the fast side, flat on the slow.
    return np.interp(HSS_TV, times, losses) + np.maximum(0, HSS_TV - times[last])


def _durations(pulse: Pulse | None) -> Floats:
    """t.1 [s] by power: straight in stops between the table's entries, held beyond its ends."""
    if pulse is None:
        return np.full(len(POWER_STOPS), np.nan)
    entries = sorted((-math.log2(entry.power), math.log2(entry.seconds)) for entry in pulse.table)
    powers, durations = zip(*entries, strict=True)
    times = np.exp2(np.interp(POWER_STOPS, powers, durations))
    return times * T01_OF_T05[pulse.shape] if pulse.measure == "t.5" else times


def _why(unit: Unit, beam: Beam, sd: float) -> str:
    """Where the take-off comes from, in a sentence."""
    guide = f"GN {2 ** (beam.at(REFERENCE_DEG)[0] / 2):.0f} m at ISO 100 and 35 mm coverage"
    if beam.soft == "ws":
        return (
            f"Only {unit.watt_seconds:g} Ws is known, which says nothing about the reflector. At 35 lm/W into a 65° "
            f"cone that would be {guide}: soft, ± {sd:.1f} stop."
        )
    own = [claim for claim in unit.claims if claim.measured]
    if own:
        return f"By your own reading ({own[0].printed}): {guide}."
    printed = "; ".join(claim.printed for claim in unit.claims[:3]) + ("; …" if len(unit.claims) > 3 else "")
    if beam.soft == "coverage":
        return f"Printed as {printed}, without its coverage; taken as {guide}, ± {sd:.1f} stop."
    if sd > 0.4:
        return f"Printed as {printed}. Moved from that coverage by its beam: about {guide}, ± {sd:.1f} stop."
    return f"Printed as {printed}: {guide}."
