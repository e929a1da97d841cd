"""The ways to get the camera there: each a set of camera settings, with what it gives up, or why it cannot be."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from . import exposure
from .camera import Camera, nd_for
from .light import Ambient
from .setup import Setup, WayKind
from .wording import amount, f_number, shutter

SMALLEST = 22.0  # smallest aperture that lenses commonly have
NEAR = 0.2  # stops: nearer than this the background counts as right


@dataclass(frozen=True)
class Way:
    """One way: its camera settings, how far the background then lies from what was asked, and what it costs.

    off_stops: background against what was asked (positive: brighter). reason: why it cannot be, empty if it can.
    """

    kind: WayKind
    title: str
    camera: Camera
    off_stops: float = 0.0
    gives_up: str = ""
    reason: str = ""

    @property
    def possible(self) -> bool:
        """Whether the camera can get there."""
        return not self.reason


@dataclass(frozen=True)
class _Ask:
    """What every way starts from."""

    setup: Setup
    ev: float  # light value the camera must be set for, ND included
    shutter_s: float  # exact time that the wanted aperture and ISO ask for
    sync_s: float

    @property
    def exact_sync_s(self) -> float:
        return float(exposure.SHUTTERS.exact(self.sync_s))


def ways_of(setup: Setup, ambient: Ambient) -> list[Way]:
    """All ways, in the order of the trade; the impossible ones with their reason."""
    look = setup.look
    ev = ambient.background_ev - look.background_stops
    wanted = exposure.shutter_for(ev, exposure.APERTURES.exact(look.f_number), exposure.ISOS.exact(look.iso))
    ask = _Ask(setup, ev, float(wanted), setup.body.fastest_flash_s(look.f_number))
    return [_settle(way(ask), ask) for way in WAYS.values()]


def _settle(way: Way, ask: _Ask) -> Way:
    """How far the marked settings leave the background from what was asked."""
    return replace(way, off_stops=ask.ev - way.camera.ev)


def _camera(ask: _Ask, shutter_s: float, **changed: object) -> Camera:
    look = ask.setup.look
    settings = {"f_number": look.f_number, "iso": look.iso, "shutter_s": shutter_s} | changed
    return Camera.model_validate(settings)


def _marked(seconds: float, ask: _Ask, toward: str = "near") -> float:
    """The camera's own mark for a time, never past its top speed."""
    inside = min(max(seconds, ask.setup.body.top_speed_s * 0.98), 30.0)
    if toward == "slower":
        return exposure.SHUTTERS.marked(inside, "third", "up")
    return exposure.SHUTTERS.marked(inside, "third")


def _needed_over(ask: _Ask) -> float:
    """Stops by which the background would be too bright at the wanted aperture, at sync."""
    return float(exposure.stops_between(ask.shutter_s, ask.exact_sync_s))


def _sync(ask: _Ask) -> Way:
    over = _needed_over(ask)
    camera = _camera(ask, _marked(max(ask.shutter_s, ask.exact_sync_s), ask))
    if over > NEAR:
        return Way(
            "sync", "At sync", camera,
            reason=f"The background would be {amount(over)} too bright at {shutter(ask.sync_s)}, the sync speed.",
        )  # fmt: skip
    return Way("sync", "At sync", camera, gives_up="Nothing: all the power, one clean pop, a flash meter reads it.")


def _nd(ask: _Ask) -> Way:
    over = _needed_over(ask)
    bare = _camera(ask, ask.sync_s)
    if over <= NEAR:
        return Way("nd", "ND at sync", bare, reason="Not needed: the camera gets there at sync without a filter.")
    if not ask.setup.filters:
        return Way("nd", "ND at sync", bare, reason=f"No filter packed; {amount(over)} of ND would do it.")
    found = nd_for(over, ask.setup.filters)
    if found is None:
        most = max((f.most_stops or f.stops) for f in ask.setup.filters)
        return Way(
            "nd", "ND at sync", bare,
            reason=f"{amount(over)} of ND needed; the filters packed give {most:g} (two stacked: not enough either).",
        )  # fmt: skip
    stops, names = found
    slower = max(ask.exact_sync_s, ask.shutter_s * 2**stops)
    camera = _camera(ask, _marked(slower, ask), nd_stops=stops, nd_names=names)
    lost = f"Takes {amount(stops)} from the flash too; the finder is dark, and nothing is frozen."
    return Way("nd", "ND at sync", camera, gives_up=f"{' + '.join(names)}. {lost}")


def _hss(ask: _Ask) -> Way:
    body = ask.setup.body
    camera = _camera(ask, _marked(ask.shutter_s, ask))
    title = "High-speed sync"
    if _needed_over(ask) <= NEAR:
        return Way(
            "hss",
            title,
            camera,
            reason="Not needed: at or below sync speed HSS only costs power and recycle.",
        )
    if body.shutter != "focal_plane" or not body.hss:
        return Way("hss", title, camera, reason=f"{body.name} has no high-speed sync.")
    too_fast = float(exposure.stops_between(ask.shutter_s, exposure.SHUTTERS.exact(body.top_speed_s)))
    if too_fast > NEAR:
        return Way(
            "hss", title, camera,
            reason=f"Even the top speed, {shutter(body.top_speed_s)}, leaves it {amount(too_fast)} too bright.",
        )  # fmt: skip
    return Way(
        "hss",
        title,
        camera,
        gives_up="Two stops and more at once; no flash meter reads it; uneven down the frame.",
    )


def _leaf(ask: _Ask) -> Way:
    body = ask.setup.body
    camera = _camera(ask, _marked(ask.shutter_s, ask))
    title = "Global shutter" if body.shutter == "global" else "Leaf shutter"
    if body.shutter == "focal_plane":
        return Way("leaf", title, camera, reason=f"{body.name} has a focal-plane shutter.")
    limit = body.fastest_flash_s(ask.setup.look.f_number)
    if exposure.stops_between(ask.shutter_s, exposure.SHUTTERS.exact(limit)) > NEAR:
        return Way(
            "leaf", title, camera,
            reason=f"{shutter(camera.shutter_s)} is past {shutter(limit)}, its limit at "
            f"{f_number(ask.setup.look.f_number)}.",
        )  # fmt: skip
    return Way(
        "leaf",
        title,
        camera,
        gives_up="Nothing in light; the longest flashes may lose a little of their tail.",
    )


def _stop_down(ask: _Ask) -> Way:
    over = _needed_over(ask)
    sync = _camera(ask, ask.sync_s)
    title = "Stop down"
    if over <= NEAR:
        return Way(
            "stop_down",
            title,
            sync,
            reason="Not needed: the camera gets there at the aperture you asked for.",
        )
    exact = exposure.aperture_for(ask.ev, ask.exact_sync_s, exposure.ISOS.exact(ask.setup.look.iso))
    if exact > SMALLEST * 1.1:
        return Way(
            "stop_down",
            title,
            sync,
            reason=f"It would take {f_number(float(exact))}; few lenses close so far.",
        )
    camera = _camera(ask, ask.sync_s, f_number=exposure.APERTURES.marked(float(exact)))
    return Way(
        "stop_down", title, camera,
        gives_up=f"The blur: {f_number(camera.f_number)} instead of {f_number(ask.setup.look.f_number)}.",
    )  # fmt: skip


WAYS: dict[WayKind, Callable[[_Ask], Way]] = {
    "sync": _sync,
    "nd": _nd,
    "hss": _hss,
    "leaf": _leaf,
    "stop_down": _stop_down,
}
