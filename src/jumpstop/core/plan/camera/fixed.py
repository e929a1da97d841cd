"""The methods of a setup, free or with figures fixed: a fixed figure stays as it is, the free ones are worked out.

In this order: shutter, ND, ISO, aperture. What a method then cannot hold, the background shows.
"""

from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from typing import Any

from ...physics.scales import APERTURES, ISOS, SHUTTERS, Step, at_least
from ...scene.camera import CameraSettings
from ...scene.seen import MethodKind
from ...scene.setup import Fixed, Setup
from .ambient import Ambient
from .methods import METHODS, NEAR, CameraTarget, Method, eased, names_of, target_of
from .remark import Remark, remark

MISSED = 0.34  # stops: a background farther than this from what was asked is missed
GONE = -4.0  # stops: a background this far under what was asked is as good as black, from memory
COMES_OUT = frozenset({"too_bright_at", "too_bright_at_aperture"})
"""Blockers of methods that give a picture all the same, with another background."""
NO_FIXED_PART: dict[str, Any] = {
    "lights": (), "name": "", "note": "", "method": None, "power_supply": None, "frames": 1, "seen": (), "stage": None,
    "variants": (), "triggers": (),
}  # fmt: skip


def method_of(setup: Setup, ambient: Ambient, step: Step, kind: MethodKind) -> Method:
    """One of the methods; by itself where no figure is fixed, for with one they depend on each other."""
    if setup.fixed != Fixed() or setup.silent:
        return next(method for method in methods_of(setup, ambient, step) if method.kind == kind)
    target = target_of(setup, ambient, step)
    method = METHODS[kind](target)
    return replace(method, off_stops=target.ev - method.camera.ev) if method.possible else method


def methods_of(setup: Setup, ambient: Ambient, step: Step = "third") -> tuple[Method, ...]:
    """All methods, in the order of the trade; those that cannot be had with what blocks them.

    Lights and names have no part in them: moving a light asks for nothing anew.
    """
    return _methods_of(setup.model_copy(update=NO_FIXED_PART), ambient, step)


@lru_cache(maxsize=64)
def _methods_of(setup: Setup, ambient: Ambient, step: Step) -> tuple[Method, ...]:
    target = target_of(setup, ambient, step)
    make = METHODS if setup.fixed.shutter_s is None else AT_FIXED_TIME
    methods = [method(target) for method in make.values()]
    if setup.fixed != Fixed():
        methods = _allowed(target, methods)
    if setup.silent and setup.body.silent_sync_s is None and setup.body.shutter == "focal_plane":
        deaf = remark("silent_takes_no_flash", body=setup.body.name)
        methods = [replace(method, blocker=deaf) for method in methods]
    return tuple(replace(m, off_stops=target.ev - m.camera.ev) if m.possible else m for m in methods)


def _allowed(target: CameraTarget, methods: list[Method]) -> list[Method]:
    """The methods where figures are fixed: none that they forbid, and where nothing holds the background, what comes
    out all the same."""
    wrong = _impossible(target.setup)
    if wrong is not None:
        return [replace(method, blocker=wrong) for method in methods]
    if not any(method.possible for method in methods):
        methods = [
            replace(m, blocker=None, costs=(remark("as_fixed"),)) if m.blocker and m.blocker.code in COMES_OUT else m
            for m in methods
        ]
    if target.setup.fixed.background:
        methods = [
            replace(m, blocker=remark("background_missed", off=target.ev - m.camera.ev))
            if m.possible and m.kind != "freeze" and abs(target.ev - m.camera.ev) > MISSED
            else m
            for m in methods
        ]
    return methods


def _impossible(setup: Setup) -> Remark | None:
    """A fixed figure that this camera or bag does not have."""
    body, fixed = setup.body, setup.fixed
    if fixed.shutter_s is not None and not at_least(fixed.shutter_s, body.top_speed_s):
        return remark("shutter_beyond", shutter_s=fixed.shutter_s, limit_s=body.top_speed_s, body=body.name)
    if fixed.iso and not body.iso_min <= setup.aim.iso <= body.iso_max:
        return remark("iso_beyond", iso=setup.aim.iso, low=body.iso_min, high=body.iso_max, body=body.name)
    if fixed.nd is not None and fixed.nd.stops:
        packed = {one.name: one for one in setup.filters}
        gone = next((name for name in fixed.nd.filters if name not in packed), None)
        if gone is not None:
            return remark("nd_not_packed", name=gone)
        on = [packed[name] for name in fixed.nd.filters]
        least, most = sum(one.stops for one in on), sum(one.most_stops or one.stops for one in on)
        if on and not least - NEAR <= fixed.nd.stops <= most + NEAR:
            return remark("nd_turn_beyond", stops=fixed.nd.stops, least=least, most=most)
    return None


def _at_time(target: CameraTarget) -> tuple[CameraTarget, float, bool]:
    """(the target as it stands at the fixed time, that time, whether it is synced)."""
    time = target.setup.fixed.shutter_s or target.sync_s
    exact = float(SHUTTERS.exact(time))
    fixed = replace(target, sync_s=time, exact_sync_s=exact, hold_s=max(time, target.hold_s))
    return fixed, time, bool(at_least(exact, target.exact_sync_s))


def _darkened(target: CameraTarget, camera: CameraSettings, closing: bool) -> CameraSettings:
    """Settings with what is free moved towards the background wanted: ISO, then the aperture (`closing` only)."""
    setup, fixed = target.setup, target.setup.fixed
    off = target.ev - camera.ev
    if abs(off) > NEAR and not fixed.iso:
        low, high = setup.iso_range
        iso = ISOS.marked(float(ISOS.exact(camera.iso)) / 2**off, "third")
        moved = replace(camera, iso=min(max(iso, low), high))
        if target.ev - moved.ev > GONE:  # a background that no ISO brings back stays dark, and the picture clean
            camera = moved
        off = target.ev - camera.ev
    if off > NEAR and closing and not fixed.aperture:
        exact = min(APERTURES.moved(camera.f_number, off), target.closed)
        camera = replace(camera, f_number=APERTURES.marked(exact, target.step))
    return camera


def _changed(target: CameraTarget, camera: CameraSettings) -> tuple[Remark, ...]:
    """What working a figure out has changed, as costs."""
    said = []
    if camera.iso != target.iso:
        said.append(remark("iso_worked_out", iso=camera.iso, asked=target.iso))
    if camera.f_number != target.f_number:
        said.append(remark("aperture_worked_out", f_number=camera.f_number, asked=target.f_number))
    return tuple(said)


def _timed_sync(kind: MethodKind) -> Callable[[CameraTarget], Method]:
    """At sync, or with a leaf or global shutter, at the fixed time."""

    def method(target: CameraTarget) -> Method:
        curtains = target.setup.body.shutter == "focal_plane"
        if curtains == (kind == "leaf"):
            return METHODS[kind](target)
        at, time, synced = _at_time(target)
        camera = at.camera(time)
        if not synced:
            if curtains:
                return Method(kind, camera, blocker=remark("fixed_past_sync", shutter_s=time, limit_s=target.sync_s))
            return Method(kind, camera, blocker=remark("fixed_past_leaf", shutter_s=time, limit_s=target.sync_s))
        if at.nd is not None and kind == "sync":
            return Method(kind, camera, blocker=remark("nd_fixed_on"))
        if at.over > NEAR:
            small = eased(at)
            if small is not None:
                return replace(small, kind=kind)
            return Method(kind, camera, blocker=remark("too_bright_at", over=at.over, limit_s=time))
        camera = _darkened(at, camera, closing=False)
        return Method(kind, camera, _changed(at, camera) or (remark("costs_nothing"),))

    return method


def _timed_nd(target: CameraTarget) -> Method:
    at, time, synced = _at_time(target)
    if not synced:
        blocker = remark("fixed_past_sync", shutter_s=time, limit_s=target.sync_s)
        return Method("nd", at.camera(time), blocker=blocker)
    if at.nd is not None:
        camera = _darkened(at, at.camera(time), closing=True)
        return Method("nd", camera, (remark("nd_takes", names=names_of(at.nd), stops=at.nd.stops),))
    found = METHODS["nd"](at)
    return replace(found, camera=replace(found.camera, shutter_s=time))


def _timed_hss(target: CameraTarget) -> Method:
    at, time, synced = _at_time(target)
    body = target.setup.body
    if body.shutter != "focal_plane" or not body.hss:
        return Method("hss", at.camera(time), blocker=remark("no_hss", body=body.name))
    if synced:
        return Method("hss", at.camera(time), blocker=remark("hss_not_needed"))
    camera = _darkened(at, at.camera(time), closing=True)
    return Method("hss", camera, (remark("hss_costs"), *_changed(at, camera)))


def _timed_stop_down(target: CameraTarget) -> Method:
    at, time, synced = _at_time(target)
    if not synced:
        blocker = remark("fixed_past_sync", shutter_s=time, limit_s=target.sync_s)
        return Method("stop_down", at.camera(time), blocker=blocker)
    return METHODS["stop_down"](at)


def _timed_freeze(target: CameraTarget) -> Method:
    at, time, synced = _at_time(target)
    if not synced:
        blocker = remark("fixed_past_sync", shutter_s=time, limit_s=target.sync_s)
        return Method("freeze", at.camera(time), blocker=blocker)
    return METHODS["freeze"](at)


def _timed_slow(target: CameraTarget) -> Method:
    at, time, _ = _at_time(target)
    if target.setup.motion.kind != "trails" and time <= target.hold_s * 1.15:
        return Method("slow", at.camera(time), blocker=remark("fixed_too_fast_for_slow", shutter_s=time))
    camera = _darkened(at, at.camera(time), closing=True)
    return Method("slow", camera, (remark("moving_draws"), *_changed(at, camera)))


def _timed_past_sync(target: CameraTarget) -> Method:
    at, time, synced = _at_time(target)
    if synced:
        return Method("past_sync", at.camera(time), blocker=remark("past_sync_not_needed"))
    found = METHODS["past_sync"](replace(target, shutter_s=float(SHUTTERS.exact(time))))
    camera = _darkened(at, at.camera(time), closing=True) if found.possible else found.camera
    return replace(found, camera=camera)


AT_FIXED_TIME: dict[MethodKind, Callable[[CameraTarget], Method]] = {
    "sync": _timed_sync("sync"),
    "nd": _timed_nd,
    "hss": _timed_hss,
    "leaf": _timed_sync("leaf"),
    "stop_down": _timed_stop_down,
    "freeze": _timed_freeze,
    "slow": _timed_slow,
    "past_sync": _timed_past_sync,
}
"""The methods where the shutter time is fixed."""
