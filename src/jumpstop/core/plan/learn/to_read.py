"""A reading to be filled in: all that a light is read with, before anything is read."""

import re

from ...physics.scales import APERTURES
from ...scene.light import Light, own_unit
from ...scene.seen import Seen, SeenWith
from ...scene.setup import Setup
from ..light.reach import Reach, Solved
from ..light.seen import meter_wants

KEY = re.compile(r"^[0-9A-Za-z_-]{1,64}$")


def unit_at_light(setup: Setup, solved: Solved, light: int, unit: int | None) -> Setup:
    """The setup with the unit that stands at a light taken for it."""
    if unit is None or setup.lights[light].unit is not None:
        return setup
    key = solved.table.ids[unit]
    known = key if KEY.match(key) else None  # a shelf from a file knows its units by their names
    own = own_unit(solved.table.units[unit], known)
    lights = tuple(one.model_copy(update={"unit": own}) if at == light else one for at, one in enumerate(setup.lights))
    return setup.model_copy(update={"lights": lights})


def blank_seen(solved: Solved, reach: Reach, unit: int, was: Light) -> Seen:
    """A reading to be filled in: everything but what was seen. was: the light with its unit."""
    camera, receiver = reach.method.camera, solved.placing.receivers[reach.receiver]
    wanted = meter_wants(camera.f_number, camera.nd_stops, reach.wanted_stops)
    return Seen(
        light=reach.at[1],
        f_number=APERTURES.marked(wanted),
        iso=camera.iso,
        holds_ambient=reach.light.role == "key",
        dial_stops=max(0.0, round(float(reach.below_full[unit]), 4)),
        wanted_stops=min(6.0, max(-6.0, reach.wanted_stops)),
        ambient_stops=min(30.0, max(-60.0, solved.ambient.ev(receiver) - camera.ev)),
        method=reach.method.kind,
        camera=SeenWith(f_number=camera.f_number, shutter_s=camera.shutter_s, iso=camera.iso, nd_stops=camera.nd_stops),
        was=was,
    )
