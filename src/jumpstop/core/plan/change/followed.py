"""A reading followed to what is set now: what the dial of then would come to, and what to dial instead."""

from dataclasses import dataclass

import numpy as np

from ...physics.scales import Step
from ...physics.stops import add_light, flash_share
from ...scene.seen import Seen
from ..light.one_unit import landings, only
from ..light.reach import Reach


@dataclass(frozen=True)
class Followed:
    """off: how far the light comes out now at the dial of the reading [stops from what is wanted]. dial_stops: what to
    dial now [stops below full]. spare: stops in hand; too_bright: stops too much at the lowest setting, else 0."""

    off: float
    dial_stops: float
    spare: float
    too_bright: float


def moved_on(reach: Reach, seen: Seen) -> bool:
    """Whether camera, method or light are set otherwise than when the reading was taken."""
    camera, then, light, was = reach.method.camera, seen.camera, reach.light, seen.was
    same_camera = (camera.f_number, camera.iso, round(camera.nd_stops, 2)) == (
        then.f_number,
        then.iso,
        round(then.nd_stops, 2),
    )
    time_counts = "hss" in (reach.method.kind, seen.method) and camera.shutter_s != then.shutter_s
    layers, before = ((one.modifier.name if one.modifier else "", one.layers, one.gel_name, one.zoom_mm, one.heads,
                       one.wide_panel) for one in (light, was))  # fmt: skip
    wanted = abs(reach.wanted_stops - seen.wanted_stops) > 0.01
    return not same_camera or time_counts or light.distance_m != was.distance_m or layers != before or wanted


def followed(reach: Reach, unit: int, seen: Seen, step: Step) -> Followed | None:
    """What a reading comes to at the settings as they are now: the light counts from it, and all that has changed since
    is worked out from there. None where the unit cannot be used so, or the ambient alone is enough."""
    setup, at = reach.solved.setup, reach.at[1]
    others = tuple(one.model_copy(update={"stands": False}) if one.light == at else one for one in setup.seen)
    setup = setup.model_copy(update={"seen": (*others, seen.model_copy(update={"stands": True}))})
    free = reach.light.model_copy(update={"dial_stops": None, "distance_free": False, "unit": seen.was.unit})
    then = free.model_copy(update={"dial_stops": seen.dial_stops})
    setup = setup.model_copy(update={"lights": (*setup.lights[:at], free, *setup.lights[at + 1 :])})
    now, as_then = landings(setup, only(reach.solved, unit), reach.method.kind, at, step, [free, then])
    if now is None or as_then is None:
        return None
    off = as_then.left
    if reach.light.role == "key":
        needed = float(flash_share(reach.ambient_stops, reach.wanted_stops))
        if np.isinf(needed):
            return None
        off = float(add_light(reach.ambient_stops, needed + off)) - reach.wanted_stops
    return Followed(off, now.below_full, now.spare, now.too_bright)
