"""What hands must change from one picture to the next: only that, each as a code with the figures before and after."""

from collections.abc import Iterator
from dataclasses import dataclass

from ...kit.modifier import layers_on
from ...scene.light import Light
from ...scene.seen import MethodKind
from ..camera.remark import Remark, remark
from ..light.chain import TICKS
from ..light.reach import Solved

SAME_DIAL = 0.05  # stops: a dial nearer than this stays
SAME_M = 0.02  # a distance nearer than this stays [m]


@dataclass(frozen=True)
class Standing:
    """A setup as it stands: solved, in a method, with the unit of every light."""

    solved: Solved
    kind: MethodKind
    units: tuple[int | None, ...]


def changes_between(before: Standing, after: Standing) -> list[Remark]:
    """The changes by hand, the camera's first, then light by light."""
    return [*_camera(before, after), *_lights(before, after)]


def _camera(before: Standing, after: Standing) -> Iterator[Remark]:
    was, now = before.solved.setup, after.solved.setup
    if was.body.name != now.body.name:
        yield remark("body", now=now.body.name)
    lens, other = was.aim.lens, now.aim.lens
    if other is not None and (lens is None or lens.focal_mm != other.focal_mm):
        yield remark("lens", was=lens.focal_mm if lens else None, now=other.focal_mm)
    if was.aim.orientation != now.aim.orientation:
        yield remark("held", now=now.aim.orientation)
    camera, set_to = before.solved.method(before.kind).camera, after.solved.method(after.kind).camera
    if before.kind != after.kind:
        yield remark("method", now=after.kind)
    for name in ("f_number", "shutter_s", "iso"):
        if getattr(camera, name) != getattr(set_to, name):
            yield remark(name, was=getattr(camera, name), now=getattr(set_to, name))
    if camera.nd_stops != set_to.nd_stops:
        yield remark("nd", was=camera.nd_stops, now=set_to.nd_stops)
    if was.ambient.subject != now.ambient.subject:
        yield remark("place", now=now.ambient.subject)


def _lights(before: Standing, after: Standing) -> Iterator[Remark]:
    was, now = before.solved.setup.lights, after.solved.setup.lights
    for at in range(max(len(was), len(now))):
        old = was[at] if at < len(was) and was[at].on else None
        new = now[at] if at < len(now) and now[at].on else None
        if new is None:
            if old is not None:
                yield remark("light_away", light=at)
            continue
        if old is None:
            yield remark("light_up", light=at, role=new.role, metres=new.distance_m)
        yield from _head(before, after, at, old, new)


def _head(before: Standing, after: Standing, at: int, old: Light | None, new: Light) -> Iterator[Remark]:
    """What changes on one light."""
    unit, earlier = after.units[at], before.units[at] if old is not None else None
    name = after.solved.table.units[unit].name if unit is not None else ""
    named = before.solved.table.units[earlier].name if earlier is not None else ""
    if name and name != named:
        yield remark("unit", light=at, now=name)
    if old is not None:
        if abs(old.distance_m - new.distance_m) > SAME_M:
            yield remark("distance", light=at, was=old.distance_m, now=new.distance_m)
        if new.position is not None and old.position != new.position:
            if old.position is None or old.position.bearing_deg != new.position.bearing_deg:
                yield remark("bearing", light=at, now=new.position.bearing_deg)
            if old.position is None or old.position.height_m != new.position.height_m:
                yield remark("height", light=at, now=new.position.height_m)
    yield from _front(at, old, new)
    if unit is not None:
        below = float(after.solved.reach(after.kind, at).below_full[unit])
        then = None
        if earlier is not None and name == named:
            then = float(before.solved.reach(before.kind, at).below_full[earlier])
        if then is None or abs(then - below) > SAME_DIAL:
            yield remark("dial", light=at, was=then, now=below, unit=unit)


def _front(at: int, old: Light | None, new: Light) -> Iterator[Remark]:
    """Modifier, layers, gel, ticks and zoom."""
    mod, was = new.modifier, old.modifier if old is not None else None
    if (mod.name if mod else "") != (was.name if was else ""):
        yield remark("modifier", light=at, now=mod.name if mod else "")
    elif mod is not None and old is not None:
        on, off = layers_on(mod, new.layers), layers_on(mod, old.layers)
        for layer in mod.layers:
            if layer in on and layer not in off:
                yield remark("layer_on", light=at, layer=layer.name)
            if layer in off and layer not in on:
                yield remark("layer_off", light=at, layer=layer.name)
    gel = old.gel_name if old is not None else "none"
    if gel != new.gel_name:
        yield remark("gel", light=at, now=new.gel_name)
    for field, effect in TICKS.items():
        if getattr(new, field) != (getattr(old, field) if old is not None else False):
            yield remark("tick", light=at, effect=effect, now=getattr(new, field))
    if new.zoom_mm is not None and (old is None or old.zoom_mm != new.zoom_mm):
        yield remark("zoom", light=at, now=new.zoom_mm)
