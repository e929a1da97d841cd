"""The need: what a light of a picture asks of whatever unit stands there, and which units give it.

It is read off units that are made up for it (one of each kind, of a known guide number and no doubt; a shoe flash
zooms): what is in hand of such a one, taken from what it gives, is what the picture needs.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache, cached_property
from typing import get_args

import numpy as np

from ...kit.modifier import UnitKind
from ...kit.rating import REFERENCE_DEG
from ...kit.table import UnitTable, table_of
from ...kit.unit import HSS_EXTRA, Claim, DurationEntry, FlashDuration, Hss, Unit
from ...physics.arrays import Floats
from ...physics.guide_number import (
    beam_candela_seconds,
    guide_number_of_stops,
    ws_of_guide_number,
)
from ...physics.scales import Step
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.freeze import settings_for
from ..camera.look import needed_s
from ..light.chain import clipped, clipping_window_s
from ..light.reach import Solved, solve

GUIDE_NUMBER = 300.0  # of the units made up: more than any picture needs
ZOOM_MM = (8.0, 800.0)  # how far one that zooms goes: as far as any setup asks
NOTHING_S = 1e-6  # their flash is over at once, so that no shutter clips it and any motion is frozen


@dataclass(frozen=True, eq=False)
class Need:
    """What one light of a picture asks in one method.

    stops: 2 log2 GN at ISO 100, at the coverage named by `zoom_mm`, or, where that is None, of a head's own reflector
    (35 mm coverage), from which a modifier's loss is counted; all that HSS takes is counted with a unit's usual extra
    loss. sd: its doubt [stops]. hss_stops: what of it HSS takes. window_s: how long the shutter is open to it, where
    that clips a slow flash. t01_s: how short its flash must be, where motion is to be frozen by the flash.
    ambient_enough: no flash is needed.
    """

    setup: Setup
    light: int
    kind: MethodKind
    stops: float
    sd: float
    zoom_mm: float | None
    hss_stops: float
    hss_shutter_s: float | None
    window_s: float | None
    t01_s: float | None
    ambient_enough: bool
    fits: tuple[UnitKind, ...]
    takes_modifiers: bool

    @property
    def asks(self) -> Light:
        """The light as it is asked for."""
        return self.setup.lights[self.light]

    @cached_property
    def guide_number(self) -> float:
        """Guide number [m, ISO 100] at full power, at the coverage named."""
        return float(guide_number_of_stops(self.stops))

    @property
    def guide_number_in_hss(self) -> float:
        """Guide number [m, ISO 100] left in HSS at its shutter time."""
        return float(guide_number_of_stops(self.stops - self.hss_stops))

    @property
    def watt_seconds(self) -> float:
        """Energy [Ws] that gives it through a standard reflector, as guessed from energy alone."""
        return float(ws_of_guide_number(self.guide_number, c=self.setup.meter_c))

    @property
    def candela_seconds(self) -> float:
        """Beam candela-seconds at full power."""
        return float(beam_candela_seconds(self.guide_number, c=self.setup.meter_c))

    def fulfilled_by(self, table: UnitTable) -> np.ndarray:
        """Which units of a table give it, on the mean; shape (units,)."""
        return (self.in_hand(table) >= 0) & self.usable(table)

    def in_hand(self, table: UnitTable) -> Floats:
        """What each unit gives over the need [stops], by its rating, its zoom, its loss in HSS, and how long its flash
        lasts; shape (units,)."""
        given = table.rated + table.output_at(self.zoom_mm).gain
        if self.hss_shutter_s is not None:
            given = given - (table.hss_extra_at(self.hss_shutter_s) - HSS_EXTRA)
        if self.window_s is not None:
            given = given + np.where(np.isnan(table.t01_s[:, 0]), 0.0, clipped(table, self.window_s))
        if self.t01_s is not None:
            given = given - settings_for(table, self.t01_s).least
        return np.asarray(given - self.stops)

    def usable(self, table: UnitTable) -> np.ndarray:
        """Which units can be used so at all; shape (units,)."""
        good = np.ones(len(table), dtype=bool)
        if self.hss_shutter_s is not None:
            good &= table.has_hss
        if self.asks.modifier is not None:
            good &= table.takes(self.asks.modifier, self.asks.fits_anyway)
        elif self.takes_modifiers:
            good &= table.takes_modifiers
        if self.t01_s is not None:
            frozen = settings_for(table, self.t01_s)
            good &= frozen.known & frozen.can
        return good


@cache
def made_up(meter_c: float) -> UnitTable:
    """A unit of each kind at a meter's constant [lx s]."""
    return table_of([_unit(kind) for kind in get_args(UnitKind)], meter_c)


def _unit(kind: UnitKind) -> Unit:
    claim = Claim(guide_number=GUIDE_NUMBER, unit="m", coverage_deg=REFERENCE_DEG, sd=0.0)
    least, most = ZOOM_MM if kind == "shoe" else (None, None)
    return Unit(
        name=kind,
        kind=kind,
        claims=(claim,),
        zoom_min_mm=least,
        zoom_max_mm=most,
        hss=Hss(),
        flash_duration=FlashDuration(table=(DurationEntry(power=1, seconds=NOTHING_S),)),
    )


def solved_need(setup: Setup, step: Step = "third") -> Solved:
    """A setup solved for the units made up. Raises CannotSolve."""
    free = [light.model_copy(update={"unit": None}) for light in setup.lights]
    return solve(setup.model_copy(update={"lights": tuple(free)}), made_up(setup.meter_c), step)


def need_of(solved: Solved, kind: MethodKind, light: int) -> Need | None:
    """What a light asks in a method (see `solved_need`); None where nothing made could give it.

    A bare head that is zoomed is asked for at its zoom position, of a shoe flash; any other at its own reflector.
    """
    reach = solved.reach(kind, light)
    one = reach.light
    zoomed = one.zoomed and one.zoom_mm is not None
    able = np.flatnonzero(reach.able).tolist()
    if not able:
        return None
    unit = max(able, key=lambda at: solved.table.can_zoom[at] == zoomed)
    zoom = one.zoom_mm if zoomed else None
    given = float(solved.table.rated[unit] + solved.table.output_at(zoom).gain[unit])
    hss = reach.method.kind == "hss"
    loss = -sum(jump.stops for jump in reach.jumps_of(unit) if jump.effect == "hss")
    frozen = reach.method.kind == "freeze"
    modifier = one.modifier
    return Need(
        setup=solved.setup,
        light=light,
        kind=kind,
        stops=given - float(reach.spare[unit]) if math.isfinite(reach.spare[unit]) else -math.inf,
        sd=float(reach.sd[unit]),
        zoom_mm=zoom,
        hss_stops=loss if hss else 0.0,
        hss_shutter_s=reach.method.camera.shutter_s if hss else None,
        window_s=clipping_window_s(solved.setup, reach.method),
        t01_s=needed_s(solved.setup) if frozen else None,
        ambient_enough=reach.ambient_alone is not None,
        fits=() if modifier is None or one.fits_anyway else modifier.fits,
        takes_modifiers=modifier is not None or one.heads > 1,
    )


def needs_of(solved: Solved, kind: MethodKind) -> Iterator[Need]:
    """What each light that is on asks in a method."""
    for light, one in enumerate(solved.setup.lights):
        found = need_of(solved, kind, light) if one.on else None
        if found is not None:
            yield found
