"""The ways to get the camera there: each a set of camera settings, with what it gives up, or why it cannot be."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from . import exposure
from .camera import Camera, nd_for
from .exposure import APERTURES, ISOS, SHUTTERS
from .light import Ambient
from .motion import GHOST_STOPS
from .setup import SMALLEST, Setup, WayKind
from .shutter import lit_fraction
from .wording import amount, f_number, shutter

NEAR = 0.2  # stops: nearer than this the background counts as right
HOLD_S = 1 / 60  # slowest time held by hand where the lens is not known, common practice
LONGEST_S = 35.0  # longest time that bodies set by themselves, 30 s as marked
LEAST_LIT = 0.3  # share of the frame that must still get flash for past sync to be of use, common practice


@dataclass(frozen=True)
class Way:
    """One way: its camera settings, how far the background then lies from what was asked, and what it costs.

    off_stops: background against what was asked (positive: brighter). lit: share of the frame that the flash reaches.
    dark_edge: where the rest is, in the picture as held. reason: why it cannot be, empty if it can.
    """

    kind: WayKind
    title: str
    camera: Camera
    off_stops: float = 0.0
    gives_up: str = ""
    reason: str = ""
    lit: float = 1.0
    dark_edge: str = ""

    @property
    def possible(self) -> bool:
        """Whether the camera can get there."""
        return not self.reason


@dataclass(frozen=True)
class Ask:
    """What every way starts from: exact time and ISO that the wanted aperture asks for, and the limits."""

    setup: Setup
    ambient: Ambient
    ev: float  # light value the camera must be set for, ND included
    f_number: float
    iso: float
    shutter_s: float
    sync_s: float
    hold_s: float

    @property
    def exact_sync_s(self) -> float:
        """The sync time behind its mark [s]."""
        return float(SHUTTERS.exact(self.sync_s))

    @property
    def over(self) -> float:
        """Stops by which the background would be too bright at the wanted aperture, at sync."""
        return float(exposure.stops_between(self.shutter_s, self.exact_sync_s))

    def camera(self, shutter_s: float, **changed: object) -> Camera:
        """Settings at this time, all else as asked."""
        settings = {"f_number": self.f_number, "iso": self.iso, "shutter_s": shutter_s} | changed
        return Camera.model_validate(settings)

    def marked(self, seconds: float) -> float:
        """The camera's own mark for a time, never past its top speed."""
        return SHUTTERS.marked(min(max(seconds, self.setup.body.top_speed_s * 0.98), 30.0), "third")


def ask_of(setup: Setup, ambient: Ambient) -> Ask:
    """The start of all ways. ISO goes down to its floor for the sun and up to its ceiling for the dark, if allowed."""
    look, wanted = setup.look, setup.f_number
    ev = ambient.background_ev - look.background_stops
    sync = setup.fastest_flash_s(wanted)
    hold = max(1 / look.blur.focal_mm if look.blur else HOLD_S, sync)

    def time_at(iso: float) -> float:
        return float(exposure.shutter_for(ev, APERTURES.exact(wanted), ISOS.exact(iso)))

    lowest, highest = setup.body.iso_min, setup.body.iso_max
    iso = min(max(look.iso, lowest), highest)
    over = float(exposure.stops_between(time_at(iso), SHUTTERS.exact(sync)))
    under = float(exposure.stops_between(SHUTTERS.exact(hold), time_at(iso)))
    if over > NEAR and look.iso_floor is not None:
        iso = max(look.iso_floor, lowest, ISOS.marked(float(ISOS.exact(iso)) / 2**over, "third", "down"))
    elif under > NEAR and look.iso_ceiling is not None:
        iso = min(look.iso_ceiling, highest, ISOS.marked(float(ISOS.exact(iso)) * 2**under, "third", "near"))
    return Ask(setup, ambient, ev, wanted, iso, time_at(iso), sync, hold)


def ways_of(setup: Setup, ambient: Ambient) -> list[Way]:
    """All ways, in the order of the trade; the impossible ones with their reason."""
    ask = ask_of(setup, ambient)
    ways = [way(ask) for way in WAYS.values()]
    if setup.silent and setup.body.silent_sync_s is None and setup.body.shutter == "focal_plane":
        deaf = f"{setup.body.name} takes no flash with its silent shutter: switch it off."
        ways = [replace(way, reason=deaf) for way in ways]
    return [replace(way, off_stops=ask.ev - way.camera.ev) for way in ways]


def _sync(ask: Ask) -> Way:
    body = ask.setup.body
    if body.shutter != "focal_plane":
        reason = f"{body.name} syncs at any speed up to {shutter(ask.sync_s)}: see {body.shutter} shutter."
        return Way("sync", "At sync", ask.camera(ask.sync_s), reason=reason)
    if ask.over > NEAR:
        return Way(
            "sync", "At sync", ask.camera(ask.sync_s),
            reason=f"The background would be {amount(ask.over)} too bright at {shutter(ask.sync_s)}, the sync speed.",
        )  # fmt: skip
    camera, darker = _held(ask)
    return Way("sync", "At sync", camera, gives_up=darker or "Nothing: all the power, one clean pop.")


def _held(ask: Ask) -> tuple[Camera, str]:
    """Settings at a synced time that can be held by hand, and how much darker that leaves the background."""
    camera = ask.camera(ask.marked(min(max(ask.shutter_s, ask.exact_sync_s), float(SHUTTERS.exact(ask.hold_s)))))
    dark = float(exposure.stops_between(SHUTTERS.exact(camera.shutter_s), ask.shutter_s))
    words = f"The background: {amount(dark)} darker than asked at {shutter(camera.shutter_s)}, held by hand."
    return camera, words if dark > NEAR else ""


def _nd(ask: Ask) -> Way:
    title = "ND at sync"
    bare = ask.camera(ask.sync_s)
    if ask.over <= NEAR:
        return Way("nd", title, bare, reason="Not needed: the camera gets there at sync without a filter.")
    if not ask.setup.filters:
        return Way("nd", title, bare, reason=f"No filter packed; {amount(ask.over)} of ND would do it.")
    found = nd_for(ask.over, ask.setup.filters)
    if found is None:
        most = max((f.most_stops or f.stops) for f in ask.setup.filters)
        return Way(
            "nd", title, bare,
            reason=f"{amount(ask.over)} of ND needed; the filters packed give {most:g}, and stacked not enough either.",
        )  # fmt: skip
    stops, names = found
    slower = max(ask.exact_sync_s, ask.shutter_s * 2**stops)
    camera = ask.camera(ask.marked(slower), nd_stops=stops, nd_names=names)
    over = stops - ask.over
    left = f" {amount(over)} more than needed goes into a slower shutter." if over > NEAR else ""
    even = " Turned far: uneven on wide lenses." if _turned_far(ask, stops, names) else ""
    return Way(
        "nd", title, camera,
        gives_up=f"{' + '.join(names)}: {amount(stops)} from the flash too, a dark finder, nothing frozen.{left}{even}",
    )  # fmt: skip


def _turned_far(ask: Ask, stops: float, names: tuple[str, ...]) -> bool:
    return any(
        f.most_stops is not None and f.name in names and stops >= f.most_stops - 0.7 and len(names) == 1
        for f in ask.setup.filters
    )


def _hss(ask: Ask) -> Way:
    body = ask.setup.body
    camera = ask.camera(ask.marked(ask.shutter_s))
    title = "High-speed sync"
    if ask.over <= NEAR:
        reason = "Not needed: at or below sync speed HSS only costs power and recycle."
        return Way("hss", title, camera, reason=reason)
    if body.shutter != "focal_plane" or not body.hss:
        return Way("hss", title, camera, reason=f"{body.name} has no high-speed sync.")
    too_fast = float(exposure.stops_between(ask.shutter_s, SHUTTERS.exact(body.top_speed_s)))
    if too_fast > NEAR:
        return Way(
            "hss", title, camera,
            reason=f"Even the top speed, {shutter(body.top_speed_s)}, leaves it {amount(too_fast)} too bright.",
        )  # fmt: skip
    gives_up = "Two stops and more at once, and a stop for each stop of shutter."
    return Way("hss", title, camera, gives_up=gives_up)


def _leaf(ask: Ask) -> Way:
    body = ask.setup.body
    camera, darker = _held(ask)
    title = "Global shutter" if body.shutter == "global" else "Leaf shutter"
    if body.shutter == "focal_plane":
        return Way("leaf", title, camera, reason=f"{body.name} has a focal-plane shutter.")
    if exposure.stops_between(ask.shutter_s, ask.exact_sync_s) > NEAR:
        limit = f"{shutter(ask.sync_s)}, its limit at {f_number(ask.f_number)}"
        return Way("leaf", title, camera, reason=f"The background would be {amount(ask.over)} too bright at {limit}.")
    gives_up = "Nothing in light; the longest flashes lose some of their tail."
    return Way("leaf", title, camera, gives_up=darker or gives_up)


def _stop_down(ask: Ask) -> Way:
    sync = ask.camera(ask.sync_s)
    title = "Stop down"
    if ask.over <= NEAR:
        reason = "Not needed: the camera gets there at the aperture you asked for."
        return Way("stop_down", title, sync, reason=reason)
    exact = exposure.aperture_for(ask.ev, ask.exact_sync_s, ISOS.exact(ask.iso))
    if exact > SMALLEST * 1.1:
        reason = f"It would take {f_number(float(exact))}; few lenses close so far."
        return Way("stop_down", title, sync, reason=reason)
    camera = ask.camera(ask.sync_s, f_number=APERTURES.marked(float(exact)))
    gives_up = f"The blur: {f_number(camera.f_number)} instead of {f_number(ask.f_number)}."
    return Way("stop_down", title, camera, gives_up=gives_up)


def _freeze(ask: Ask) -> Way:
    camera = ask.camera(ask.marked(ask.exact_sync_s))
    title = "Freeze by a short pop"
    if ask.setup.motion.kind != "freeze":
        return Way("freeze", title, camera, reason="Nothing to freeze: the ask has no motion.")
    level = ask.ambient.subject_ev - camera.ev
    if level > GHOST_STOPS:
        over = amount(level - GHOST_STOPS)
        gives_up = f"The ambient lies {amount(level)} {'over' if level > 0 else 'under'} and ghosts: {over} too bright."
    else:
        gives_up = "The background goes dark; the power it may use is small."
    return Way("freeze", title, camera, gives_up=gives_up)


def _slow(ask: Ask) -> Way:
    title = "Slow sync"
    trails = ask.setup.motion.kind == "trails"
    time = float(SHUTTERS.exact(ask.setup.motion.trail_s)) if trails else ask.shutter_s
    if not trails and time <= ask.hold_s * 1.15:
        reason = "Not needed: the background is right at a time that can be held by hand."
        return Way("slow", title, ask.camera(ask.marked(time)), reason=reason)
    if time > LONGEST_S:
        reason = f"It would take {time / 60:.0f} minutes." if time > 90 else f"It would take {time:.0f} s."
        return Way("slow", title, ask.camera(30.0), reason=reason)
    exact = float(exposure.aperture_for(ask.ev, time, ISOS.exact(ask.iso)))
    closed = max(min(exact, SMALLEST), ask.f_number)
    camera = ask.camera(ask.marked(time), f_number=ask.f_number if exact <= ask.f_number else APERTURES.marked(closed))
    too_bright = float(exposure.av(exact) - exposure.av(SMALLEST))
    if too_bright > NEAR:
        found = nd_for(too_bright, ask.setup.filters) if ask.setup.filters else None
        if found is None:
            reason = (
                f"At {shutter(camera.shutter_s)} it is {amount(too_bright)} too bright even at f/22; ND would do it."
            )
            return Way("slow", title, camera, reason=reason)
        fitted = float(exposure.aperture_for(ask.ev - found[0], time, ISOS.exact(ask.iso)))
        camera = ask.camera(camera.shutter_s, f_number=APERTURES.marked(fitted), nd_stops=found[0], nd_names=found[1])
    shake = float(exposure.stops_between(ask.hold_s, camera.shutter_s))
    braced = f"{amount(shake)} slower than can be held: a tripod. " if shake > NEAR else ""
    curtain = "Rear curtain, so that trails lie behind." if camera.shutter_s >= 1 / 60 else ""
    return Way("slow", title, camera, gives_up=f"What moves draws in the ambient. {braced}{curtain}".strip())


def _past_sync(ask: Ask) -> Way:
    body = ask.setup.body
    title = "Past sync, part dark"
    camera = ask.camera(ask.marked(ask.shutter_s))
    if body.shutter != "focal_plane":
        return Way("past_sync", title, camera, reason=f"{body.name} has no curtains to cut the frame.")
    if ask.over <= NEAR:
        return Way("past_sync", title, camera, reason="Not needed: the camera gets there at sync.")
    lit = float(lit_fraction(camera.shutter_s, body.curtain_s))
    if lit < LEAST_LIT or ask.shutter_s < SHUTTERS.exact(body.top_speed_s) / 2**NEAR:
        share = min(lit, ask.shutter_s / body.curtain_s)
        reason = f"At {shutter(camera.shutter_s)} only {share:.0%} of the frame gets flash."
        return Way("past_sync", title, camera, reason=reason)
    edge = dark_edge(body.dark_edge, ask.setup.look.orientation)
    gain = float(exposure.stops_between(camera.shutter_s, ask.sync_s))
    return Way(
        "past_sync", title, camera, lit=lit, dark_edge=edge,
        gives_up=f"{1 - lit:.0%} of the frame, {'at the ' + edge if edge else 'at an edge you do not know yet'}; "
        f"gains {amount(gain)} over sync. Turn the dark part to sky the flash never reached.",
    )  # fmt: skip


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


WAYS: dict[WayKind, Callable[[Ask], Way]] = {
    "sync": _sync,
    "nd": _nd,
    "hss": _hss,
    "leaf": _leaf,
    "stop_down": _stop_down,
    "freeze": _freeze,
    "slow": _slow,
    "past_sync": _past_sync,
}
