"""Reach: the chain of jumps from what a unit gives to what the picture needs, and what to dial."""

from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np

from . import camera as cameras
from . import exposure, flash, light, modifiers, motion, place, shutter, stamina
from .light import Ambient, ambient_of
from .motion import Frozen
from .optics import coc_mm
from .setup import Light, Setup, WayKind
from .stops import Chain, Jump, p_reach, spare, spread, verdict
from .table import Feed, Table
from .values import Figure, Floats
from .ways import Way, ways_of

SLOW_FLASH_S = 0.01  # an open window longer than this catches every flash whole

CANNOT = (
    "",
    "it has no high-speed sync",
    "it takes no modifiers",
    "it has no zoom head, which this modifier needs",
    "it stands alone: built in or on the camera, no second head",
    "how long it burns is not known",
    "no setting of it is short enough",
)


@dataclass(frozen=True, eq=False)
class Reach:
    """What every unit of a shelf does in one way; arrays of shape (units,)."""

    way: Way
    chain: Chain
    spare: Floats  # stops beyond what is needed at full power (or at the brightest setting short enough)
    sd: Floats
    below_full: Floats  # dial: stops below full, on the unit's own steps
    left: Floats  # light beyond what is needed at that dial [stops]
    too_bright: Floats  # stops too much even at the lowest setting, else 0
    ready_s: Floats
    flashes: Floats  # per charge at that dial
    packs: Floats
    cannot: np.ndarray  # index into CANNOT
    level: float  # ambient on the subject at these settings [stops from correct]

    @cached_property
    def p(self) -> Floats:
        """Probability that it reaches."""
        return p_reach(self.spare, self.sd)

    @cached_property
    def verdict(self) -> Floats:
        """1 reaches, 0 on the line, -1 short."""
        return verdict(self.spare, self.sd)

    def sum_of(self, *keys: str) -> Floats:
        """Stops of some of the chain's jumps together."""
        jumps = tuple(jump for jump in self.chain if jump.key in keys)
        return np.broadcast_to(spare(jumps), np.shape(self.spare)).astype(float)

    @cached_property
    def cost(self) -> Floats:
        """Stops that this way takes from the flash beyond plain sync at the settings asked for."""
        return -self.sum_of("aperture", "hss", "nd", "tail")

    @cached_property
    def room(self) -> Floats:
        """How far the flash at full power lies above the ambient on the subject [stops]."""
        return self.spare - self.sum_of("ambient", "level") - self.level

    def best_first(self) -> np.ndarray:
        """Indices of units: those that can, most spare first; then those that cannot."""
        return np.lexsort((-self.spare, self.cannot > 0))


@dataclass(frozen=True, eq=False)
class Solved:
    """Every way of one setup: the light there, the ways, and for each way that can be what the units do in it."""

    ambient: Ambient
    ways: tuple[Way, ...]
    reaches: dict[WayKind, Reach]

    def way(self, kind: WayKind) -> Way:
        """One of the ways."""
        return next(way for way in self.ways if way.kind == kind)


def solve(setup: Setup, table: Table, index: int = 0, only: WayKind | None = None) -> Solved:
    """Every way of one setup (or only one of them) for every unit. Raises ValueError with a plain sentence."""
    if not len(table):
        raise ValueError("The shelf is empty: add a flash unit, or import a list of them.")
    if not 0 <= index < len(setup.lights):
        raise ValueError(f"There is no light number {index + 1} in this setup.")
    ambient = ambient_of(setup.there)
    ways = tuple(way for way in ways_of(setup, ambient) if only in (None, way.kind))
    chain = common_chain(setup, table, setup.lights[index])
    common = Common(chain, spare(chain), spread(chain), table.fed_by(setup.source))
    lit = setup.lights[index]
    reaches = {way.kind: reach(setup, table, way, ambient, lit, common) for way in ways if way.possible}
    return Solved(ambient, ways, reaches)


class Common(NamedTuple):
    """What is the same in every way: the chain from the unit to the subject, its sum and spread, and the power."""

    chain: Chain
    spare: Figure
    sd: Figure
    feed: Feed


def reach(setup: Setup, table: Table, way: Way, ambient: Ambient, lit: Light, common: Common) -> Reach:
    """One way for every unit."""
    frozen = motion.settings_for(table, needed_s(setup)) if way.kind == "freeze" else None
    own = way_chain(setup, table, way, ambient, lit, frozen)
    total = np.asarray(common.spare + spare(own), dtype=float)
    sd = np.hypot(common.sd, spread(own))
    least, most = (0.0, table.depth) if frozen is None else (frozen.least, frozen.most)
    # A pulse that is cut is not clipped any more once it is dialled down to what is needed; a slow tail always is.
    clipped = next((jump.stops for jump in own if jump.key == "tail"), 0.0)
    at_dial = np.where((total >= 0) & ~table.tailed, total - clipped, total)
    below, left, too_bright = dialled(at_dial, table.step, least, most)
    power = np.exp2(-below)
    flashes = stamina.flashes_per_charge(power, common.feed.full_flashes)
    return Reach(
        way=way,
        chain=common.chain + own,
        spare=total,
        sd=sd,
        below_full=below,
        left=left,
        too_bright=too_bright,
        ready_s=stamina.recycle_s(power, common.feed.full_s, common.feed.least_s),
        flashes=flashes,
        packs=stamina.packs_for(setup.frames, flashes),
        cannot=_cannot(table, way, lit, frozen),
        level=ambient.subject_ev - way.camera.ev,
    )


def needed_s(setup: Setup) -> float:
    """Longest flash (t.1) [s] that freezes what moves."""
    return motion.needed_t01_s(setup.motion, setup.body.frame_width_mm, coc_mm(setup.body.diagonal_mm))


def common_chain(setup: Setup, table: Table, lit: Light) -> Chain:
    """The jumps that are the same in every way: from the unit to the subject."""
    jumps: list[Jump] = [table.take_off(setup.f_number)]
    if lit.zoom_mm is not None and (lit.modifier is None or lit.modifier.needs_zoom_head):
        jumps.append(table.zoomed(lit.zoom_mm))
    if lit.heads > 1:
        jumps.append(flash.heads_jump(lit.heads))
    jumps.append(place.distance_jump(lit.distance_m))
    if lit.modifier is not None:
        jumps.extend(modifiers.modifier_jumps(lit.modifier, lit.layers))
        if lit.modifier.face is not None:
            jumps.append(place.face_jump(lit.modifier.face, lit.distance_m))
    if lit.gel != "none":
        jumps.append(modifiers.gel_jump(lit.gel))
    return tuple(jumps)


def way_chain(
    setup: Setup, table: Table, way: Way, ambient: Ambient, lit: Light, frozen: Frozen | None = None
) -> Chain:
    """The jumps of one way: from the subject to the picture. A new effect of the trade is one more line here."""
    camera, jumps = way.camera, []
    if camera.f_number != setup.f_number:
        jumps.append(exposure.aperture_jump(setup.f_number, camera.f_number))
    if camera.iso != 100:
        jumps.append(exposure.iso_jump(camera.iso))
    if camera.nd_stops:
        jumps.append(cameras.nd_jump(camera.nd_stops, camera.nd_names))
    if way.kind == "hss":
        jumps.append(shutter.hss_jump(table, camera.shutter_s, setup.body.curtain_s))
    elif frozen is not None:
        jumps.append(motion.freeze_jump(table, frozen, needed_s(setup)))
    elif (window := open_window_s(setup, way)) < SLOW_FLASH_S:
        jumps.append(shutter.tail_jump(table, camera.shutter_s, window))
    if lit.target_stops:
        jumps.append(exposure.level_jump(lit.target_stops))
    if lit.role in ("key", "fill"):
        jumps.append(light.ambient_jump(ambient, camera.ev, lit.target_stops))
    return tuple(jumps)


def open_window_s(setup: Setup, way: Way) -> float:
    """How long the middle of the lit frame stays open once the flash is fired [s]."""
    if way.kind == "past_sync":
        return way.camera.shutter_s / 2
    return way.camera.shutter_s - setup.body.open_travel_s / 2


def dialled(spare_stops: Floats, step: Floats, least: Floats | float, most: Floats) -> tuple[Floats, Floats, Floats]:
    """(stops below full on the unit's own steps, light left over, stops too bright at the lowest setting).

    spare_stops counts from `least`, the brightest setting allowed; `most` is the lowest one [stops below full].
    """
    wanted = np.maximum(spare_stops, 0.0)
    below = np.minimum(least + np.round(wanted / step) * step, most)
    left = spare_stops - (below - least)
    return below, left, np.where(left > step / 2 + 1e-9, left, 0.0)


def _cannot(table: Table, way: Way, lit: Light, frozen: Frozen | None) -> np.ndarray:
    code = np.zeros(len(table), dtype=int)
    if way.kind == "hss":
        code = np.where(table.has_hss, code, 1)
    if lit.modifier is not None:
        code = np.where(table.takes_modifiers, code, 2)
        if lit.modifier.needs_zoom_head:
            code = np.where(table.can_zoom | (code > 0), code, 3)
    if lit.heads > 1:
        code = np.where(table.takes_modifiers | (code > 0), code, 4)
    if frozen is not None:
        code = np.where(frozen.known | (code > 0), code, 5)
        code = np.where(frozen.can | (code > 0), code, 6)
    return code
