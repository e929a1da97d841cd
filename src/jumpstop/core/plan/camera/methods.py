"""The methods to get the camera there: each a set of camera settings, with what it costs, or what blocks it."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from ...kit.filter import Filter, NdChoice, nd_for
from ...physics import exposure
from ...physics.scales import APERTURES, ISOS, SHUTTERS, Step, at_least
from ...physics.shutter import lit_fraction
from ...scene.camera import CameraSettings
from ...scene.seen import MethodKind
from ...scene.setup import FixedNd, Setup
from . import look
from .ambient import Ambient
from .remark import Remark, remark

NEAR = 0.2  # stops: nearer than this the background counts as right
HOLD_S = 1 / 60  # slowest time held by hand where the lens is not known, common practice
LONGEST_BY_BODY_S = 35.0  # longest time that bodies set by themselves, 30 s as marked
LEAST_LIT = 0.3  # share of the frame that must still get flash for past sync to be of use, common practice
GHOST_STOPS = -5.0  # the ambient must lie this far under, or it ghosts; common practice, no source
SMALL_ISO_STOPS = 1.0  # ISO is taken down so far before HSS or a filter is thought of; common practice, no source
SMALL_APERTURE_STOPS = 0.4  # the same of the aperture: a third of a stop, as marked
NEAREST_MARK = 2 ** (1 / 12)  # of an aperture: within a sixth of a stop the mark is the nearest
FAR_END_STOPS = 0.7  # a variable ND turned to within so much of its far end is uneven, from memory


@dataclass(frozen=True)
class Method:
    """One method: its camera settings, how far the background then lies from what was asked, and what it costs.

    off_stops: background against what was asked (positive: brighter; 0 where it cannot be had). lit: share of the frame
    that the flash reaches. dark_edge: where the rest is, in the picture as held. blocker: why it cannot be had.
    """

    kind: MethodKind
    camera: CameraSettings
    costs: tuple[Remark, ...] = ()
    blocker: Remark | None = None
    off_stops: float = 0.0
    lit: float = 1.0
    dark_edge: str = ""

    @property
    def possible(self) -> bool:
        """Whether the camera can get there."""
        return self.blocker is None


@dataclass(frozen=True)
class CameraTarget:
    """What every method starts from: exact time and ISO that the wanted aperture asks for, and the limits."""

    setup: Setup
    ambient: Ambient
    ev: float  # light value the camera must be set for, ND included
    f_number: float
    iso: float
    shutter_s: float
    sync_s: float
    exact_sync_s: float
    hold_s: float
    step: Step
    nd: NdChoice | None = None  # neutral density that is fixed on, if any

    @property
    def smallest(self) -> float:
        """The smallest aperture of the lens, as marked."""
        return self.setup.apertures[1]

    @property
    def closed(self) -> float:
        """The same, exact."""
        return float(APERTURES.exact(self.smallest))

    @property
    def nd_stops(self) -> float:
        """Stops that filters fixed on take."""
        return 0.0 if self.nd is None else self.nd.stops

    @cached_property
    def over(self) -> float:
        """Stops by which the background would be too bright at the wanted aperture, at sync."""
        return float(exposure.stops_between(self.shutter_s, self.exact_sync_s))

    def camera(self, shutter_s: float, **changed: Any) -> CameraSettings:
        """Settings at this time, all else as asked."""
        asked: dict[str, Any] = {"f_number": self.f_number, "shutter_s": shutter_s, "iso": self.iso}
        if self.nd is not None:
            asked |= {"nd_stops": self.nd.stops, "nd_names": names_of(self.nd)}
        return CameraSettings(**asked | changed)

    def marked(self, seconds: float) -> float:
        """The camera's own mark for a time, in the person's steps, never past its top speed."""
        top = self.setup.body.top_speed_s
        mark = SHUTTERS.marked(min(max(seconds, float(SHUTTERS.exact(top))), 30.0), self.step)
        return mark if at_least(float(SHUTTERS.exact(mark)), float(SHUTTERS.exact(top))) else top

    def synced(self, seconds: float) -> float:
        """The mark for a time at which the whole frame gets the flash: never shorter than sync."""
        return self.sync_s if at_least(self.exact_sync_s, seconds) else max(self.marked(seconds), self.sync_s)

    def aperture(self, exact: float) -> float:
        """The lens's own mark for an f-number, in the person's steps."""
        return APERTURES.marked(exact, self.step)


def target_of(setup: Setup, ambient: Ambient, step: Step = "third") -> CameraTarget:
    """The start of all methods. ISO goes down to its floor for the sun and up to its ceiling for the dark, if any."""
    aim, wanted = setup.aim, setup.f_number
    ev = ambient.background_ev - aim.background_stops
    on = nd_fixed(setup)
    taken = on.stops if on else 0.0
    sync = setup.fastest_flash_s(wanted)
    hold = max(look.by_hand_s(setup) or HOLD_S, sync)

    def time_at(iso: float) -> float:
        return float(exposure.shutter_for(ev - taken, APERTURES.exact(wanted), ISOS.exact(iso)))

    lowest, highest = setup.body.iso_min, setup.body.iso_max
    iso = aim.iso if setup.fixed.iso else min(max(aim.iso, lowest), highest)
    over = float(exposure.stops_between(time_at(iso), SHUTTERS.exact(sync)))
    under = float(exposure.stops_between(SHUTTERS.exact(hold), time_at(iso)))
    if setup.fixed.iso:
        pass
    elif over > NEAR and aim.iso_floor is not None:
        iso = max(aim.iso_floor, lowest, ISOS.marked(float(ISOS.exact(iso)) / 2**over, "third", "down"))
    elif under > NEAR and aim.iso_ceiling is not None:
        iso = min(aim.iso_ceiling, highest, ISOS.marked(float(ISOS.exact(iso)) * 2**under, "third", "near"))
    exact_sync = float(SHUTTERS.exact(sync))
    return CameraTarget(setup, ambient, ev, wanted, iso, time_at(iso), sync, exact_sync, hold, step, on)


def nd_more(setup: Setup, kind: MethodKind, camera: CameraSettings, by: float) -> FixedNd | None:
    """Filters of the bag that take so many stops more than are on; None where none do, where what is on is fixed, or
    where the method is fixed to sync, which has none."""
    if not setup.filters or setup.fixed.nd is not None or (kind == "sync" and setup.method is not None):
        return None
    nd = nd_for(camera.nd_stops + by, setup.filters)
    return None if nd is None else FixedNd(filters=names_of(nd), stops=nd.stops)


def with_nd(kind: MethodKind) -> MethodKind:
    """What a method is called once a filter is on: sync is then the method with ND."""
    return "nd" if kind == "sync" else kind


def nd_fixed(setup: Setup) -> NdChoice | None:
    """The filters that are fixed on, with what they take as turned; None where none is."""
    fixed = setup.fixed.nd
    if fixed is None or not fixed.stops:
        return None
    known = {one.name: one for one in setup.filters}
    return NdChoice(fixed.stops, tuple(known.get(name) or Filter(name=name, stops=0.1) for name in fixed.filters))


def _sync(target: CameraTarget) -> Method:
    body = target.setup.body
    if body.shutter != "focal_plane":
        blocker = remark("syncs_at_any_speed", body=body.name, sync_s=target.sync_s, shutter=body.shutter)
        return Method("sync", target.camera(target.sync_s), blocker=blocker)
    if target.nd is not None:
        return Method("sync", target.camera(target.sync_s), blocker=remark("nd_fixed_on"))
    if target.over > NEAR:
        small = eased(target)
        if small is not None:
            return small
        blocker = remark("too_bright_at", over=target.over, limit_s=target.sync_s)
        return Method("sync", target.camera(target.sync_s), blocker=blocker)
    camera, costs = _held(target)
    return Method("sync", camera, costs or (remark("costs_nothing"),))


def eased(target: CameraTarget) -> Method | None:
    """Sync by the smallest change: ISO a little down within the body, then a third of a stop of aperture."""
    over, fixed, (floor, _) = target.over, target.setup.fixed, target.setup.iso_range
    iso, f_number = target.iso, target.f_number
    costs: list[Remark] = []
    if over <= SMALL_ISO_STOPS + SMALL_APERTURE_STOPS and not fixed.iso:
        down = min(over, SMALL_ISO_STOPS)
        iso = min(target.iso, max(floor, ISOS.marked(float(ISOS.exact(target.iso)) / 2**down, "third")))
        if iso < target.iso:
            costs.append(remark("iso_instead", iso=iso, asked=target.iso))
    left = over - float(exposure.stops_between(ISOS.exact(iso), ISOS.exact(target.iso)))
    if NEAR < left <= SMALL_APERTURE_STOPS and not fixed.aperture:
        f_number = APERTURES.marked(APERTURES.moved(target.f_number, left), "third", "up")
        if f_number > target.smallest:
            return None
        costs.append(remark("aperture_instead", f_number=f_number, asked=target.f_number))
    elif left > NEAR:
        return None
    return Method("sync", target.camera(target.sync_s, iso=iso, f_number=f_number), tuple(costs))


def _held(target: CameraTarget) -> tuple[CameraSettings, tuple[Remark, ...]]:
    """Settings at a synced time that can be held by hand, and how much darker that leaves the background."""
    camera = target.camera(target.synced(min(target.shutter_s, float(SHUTTERS.exact(target.hold_s)))))
    dark = float(exposure.stops_between(SHUTTERS.exact(camera.shutter_s), target.shutter_s))
    return camera, (remark("darker_when_held", dark=dark, shutter_s=camera.shutter_s),) if dark > NEAR else ()


def _nd(target: CameraTarget) -> Method:
    bare = target.camera(target.sync_s)
    if target.nd is not None:
        if target.over > NEAR:
            return Method("nd", bare, blocker=remark("too_bright_at", over=target.over, limit_s=target.sync_s))
        camera, dark = _held(target)
        return Method("nd", camera, (remark("nd_takes", names=names_of(target.nd), stops=target.nd.stops), *dark))
    if target.over <= NEAR:
        return Method("nd", bare, blocker=remark("nd_not_needed"))
    if target.setup.fixed.nd is not None:
        return Method("nd", bare, blocker=remark("nd_fixed_off"))
    if not target.setup.filters:
        return Method("nd", bare, blocker=remark("nd_none_packed", over=target.over))
    found = nd_for(target.over, target.setup.filters)
    if found is None:
        most = max((f.most_stops or f.stops) for f in target.setup.filters)
        return Method("nd", bare, blocker=remark("nd_too_weak", over=target.over, most=most))
    slower = target.synced(max(target.exact_sync_s, target.shutter_s * 2**found.stops))
    costs = [remark("nd_takes", names=names_of(found), stops=found.stops)]
    if found.stops - target.over > NEAR:
        costs.append(remark("nd_slower_shutter", more=found.stops - target.over))
    if _turned_far(found):
        costs.append(remark("nd_uneven"))
    return Method("nd", target.camera(slower, nd_stops=found.stops, nd_names=names_of(found)), tuple(costs))


def names_of(found: NdChoice) -> tuple[str, ...]:
    """The filters of a choice, by name."""
    return tuple(one.name for one in found.filters)


def _turned_far(found: NdChoice) -> bool:
    """Whether a variable filter, alone, is turned near to its far end."""
    most = found.filters[0].most_stops
    return len(found.filters) == 1 and most is not None and found.stops >= most - FAR_END_STOPS


def _hss(target: CameraTarget) -> Method:
    body = target.setup.body
    camera = target.camera(target.marked(target.shutter_s))
    if target.over <= NEAR:
        return Method("hss", camera, blocker=remark("hss_not_needed"))
    if body.shutter != "focal_plane" or not body.hss:
        return Method("hss", camera, blocker=remark("no_hss", body=body.name))
    too_fast = float(exposure.stops_between(target.shutter_s, SHUTTERS.exact(body.top_speed_s)))
    if too_fast > NEAR:
        return Method("hss", camera, blocker=remark("too_bright_at", over=too_fast, limit_s=body.top_speed_s))
    return Method("hss", camera, (remark("hss_costs"),))


def _leaf(target: CameraTarget) -> Method:
    body = target.setup.body
    camera, costs = _held(target)
    if body.shutter == "focal_plane":
        return Method("leaf", camera, blocker=remark("focal_plane", body=body.name))
    if exposure.stops_between(target.shutter_s, target.exact_sync_s) > NEAR:
        blocker = remark("too_bright_at_aperture", over=target.over, limit_s=target.sync_s, f_number=target.f_number)
        return Method("leaf", camera, blocker=blocker)
    return Method("leaf", camera, costs or (remark("leaf_costs"),))


def _stop_down(target: CameraTarget) -> Method:
    if target.over <= NEAR:
        return Method("stop_down", target.camera(target.sync_s), blocker=remark("stop_down_not_needed"))
    if target.setup.fixed.aperture:
        return Method("stop_down", target.camera(target.sync_s), blocker=remark("aperture_fixed"))
    exact = exposure.aperture_for(target.ev - target.nd_stops, target.exact_sync_s, ISOS.exact(target.iso))
    if exact > target.closed * NEAREST_MARK:
        blocker = remark("closes_no_further", f_number=float(exact))
        return Method("stop_down", target.camera(target.sync_s), blocker=blocker)
    camera = target.camera(target.sync_s, f_number=target.aperture(float(exact)))
    return Method("stop_down", camera, (remark("blur_given_up", f_number=camera.f_number, asked=target.f_number),))


def _freeze(target: CameraTarget) -> Method:
    camera = target.camera(target.sync_s)
    if target.setup.motion.kind != "freeze":
        return Method("freeze", camera, blocker=remark("nothing_to_freeze"))
    level = target.ambient.lit_ev - camera.ev
    if level > GHOST_STOPS:
        return Method("freeze", camera, (remark("ghosts", level=level, over=level - GHOST_STOPS),))
    return Method("freeze", camera, (remark("freeze_costs"),))


def _slow(target: CameraTarget) -> Method:
    trails = target.setup.motion.kind == "trails"
    time = float(SHUTTERS.exact(target.setup.motion.trail_s)) if trails else target.shutter_s
    if not trails and time <= target.hold_s * 1.15:
        return Method("slow", target.camera(target.synced(time)), blocker=remark("slow_not_needed"))
    if time > LONGEST_BY_BODY_S:
        return Method("slow", target.camera(30.0), blocker=remark("too_long", seconds=time))
    exact = float(exposure.aperture_for(target.ev - target.nd_stops, time, ISOS.exact(target.iso)))
    if target.setup.fixed.aperture and exact > target.f_number * NEAREST_MARK:
        return Method("slow", target.camera(target.synced(time)), blocker=remark("aperture_fixed"))
    closed = max(min(exact, target.closed), target.f_number)
    f_number = target.f_number if exact <= target.f_number else target.aperture(closed)
    camera = target.camera(target.synced(time), f_number=f_number)
    too_bright = float(exposure.av(exact) - exposure.av(target.closed))
    if too_bright > NEAR:
        free = target.setup.filters if target.setup.fixed.nd is None else ()
        found = nd_for(too_bright, free) if free else None
        if found is None:
            blocker = remark("too_bright_closed", over=too_bright, limit_s=camera.shutter_s, f_number=target.smallest)
            return Method("slow", camera, blocker=blocker)
        fitted = float(exposure.aperture_for(target.ev - found.stops, time, ISOS.exact(target.iso)))
        camera = target.camera(
            camera.shutter_s, f_number=target.aperture(fitted), nd_stops=found.stops, nd_names=names_of(found)
        )
    costs = [remark("moving_draws")]
    shake = float(exposure.stops_between(target.hold_s, camera.shutter_s))
    if shake > NEAR:
        costs.append(remark("tripod", slower=shake))
    if camera.shutter_s >= HOLD_S:
        costs.append(remark("rear_curtain"))
    return Method("slow", camera, tuple(costs))


def _past_sync(target: CameraTarget) -> Method:
    body = target.setup.body
    camera = target.camera(target.marked(target.shutter_s))
    if body.shutter != "focal_plane":
        return Method("past_sync", camera, blocker=remark("no_curtains", body=body.name))
    if target.over <= NEAR:
        return Method("past_sync", camera, blocker=remark("past_sync_not_needed"))
    lit = float(lit_fraction(camera.shutter_s, body.curtain_s))
    if lit < LEAST_LIT or target.shutter_s < SHUTTERS.exact(body.top_speed_s) / 2**NEAR:
        share = min(lit, target.shutter_s / body.curtain_s)
        return Method("past_sync", camera, blocker=remark("little_lit", shutter_s=camera.shutter_s, share=share))
    edge = dark_edge(body.dark_edge, target.setup.aim.orientation)
    gain = float(exposure.stops_between(camera.shutter_s, target.sync_s))
    return Method(
        "past_sync", camera, (remark("part_dark", dark=1 - lit, edge=edge, gain=gain),), lit=lit, dark_edge=edge
    )


def dark_edge(in_landscape: str, orientation: str) -> str:
    """Where the dark part lies in the picture as held: top, bottom, left or right; empty where it is not known.

    With the grip up the camera is turned a quarter anticlockwise, seen from behind: its bottom comes to the right.
    """
    turned = {
        "landscape": {"bottom": "bottom", "top": "top"},
        "grip_up": {"bottom": "right", "top": "left"},
        "grip_down": {"bottom": "left", "top": "right"},
    }
    return turned[orientation].get(in_landscape, "")


METHODS: dict[MethodKind, Callable[[CameraTarget], Method]] = {
    "sync": _sync,
    "nd": _nd,
    "hss": _hss,
    "leaf": _leaf,
    "stop_down": _stop_down,
    "freeze": _freeze,
    "slow": _slow,
    "past_sync": _past_sync,
}
