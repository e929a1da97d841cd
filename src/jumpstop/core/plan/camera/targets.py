"""What each light is wanted at: as said, from the key, by the lighting ratio asked for, or by automatic flash."""

import math

import numpy as np

from ...physics.arrays import Floats
from ...physics.light_values import LIGHT_VALUES
from ...scene.ambient import AmbientSpec
from ...scene.light import Light
from ...scene.setup import Setup
from .ambient import Ambient

NO_FILL = -6.0  # stops: a fill this far down adds nothing to see; the lowest level that can be asked for
FILL_START = ((1.0, -1.7), (4.0, -1.0))  # (distance [m], compensation [stops]) of fill in sun; common practice
WILD_START = ((5.0, -3.0), (20.0, -1.7))  # the same of fill for wildlife; common practice
WILD_FOCAL_MM = 300.0  # a lens from which on the subject is taken for wildlife or sport, from memory
INDOOR_FILL = -1.0  # fill where there is no sun to fill against, from memory


def start_compensation(light: Light, ambient: AmbientSpec, focal_mm: float | None = None) -> float:
    """Flash compensation to start from with automatic flash [stops], by role and distance; common practice.

    Key 0; fill in sun -1 to -1.7, and with a long lens -1.7 to -3, more minus when near; others as they are wanted.
    """
    if light.role == "key":
        return 0.0
    if light.role != "fill":
        return light.target_stops
    if ambient.by != "sun" and LIGHT_VALUES[ambient.condition].back == 0:
        return INDOOR_FILL
    (near, more), (far, less) = WILD_START if (focal_mm or 0) >= WILD_FOCAL_MM else FILL_START
    place = math.log(light.distance_m / near) / math.log(far / near)
    return round((more + (less - more) * min(1.0, max(0.0, place))) * 10) / 10


def fill_for_ratio(ratio: float, lit: float, shadow: float, both: bool = True) -> float:
    """Level of the fill alone [stops] that brings lit side and shadow side to a ratio of light.

    lit, shadow: what they get without it [stops]. With a frontal fill (2^lit + 2^f) / (2^shadow + 2^f) = ratio; one
    that reaches the shadow side only adds there alone. -inf where the ratio is not so great without it.
    """
    over = 2.0**lit - ratio * 2.0**shadow
    light = over / (ratio - 1) if both else over / ratio
    return math.log2(light) if light > 0 else -math.inf


def wanted_levels(setup: Setup, ambient: Ambient, camera_ev: tuple[float, ...]) -> Floats:
    """What each light must give [stops from correct], of shape (methods, lights).

    The key's counts the ambient in; the others are flash alone. camera_ev: what each method's settings render.
    """
    lens = setup.aim.lens
    said = np.array([_said(light, setup.ambient, lens.focal_mm if lens else None) for light in setup.lights])
    key = next((at for at, light in enumerate(setup.lights) if light.role == "key" and light.on), None)
    if key is not None:
        for at, light in enumerate(setup.lights):
            if light.relative == "key" and at != key:
                said[at] += said[key]
    wanted = np.tile(said, (len(camera_ev), 1))
    fill = next((at for at, light in enumerate(setup.lights) if light.role == "fill" and light.on), None)
    if setup.aim.ratio is None or fill is None:
        return wanted
    both = setup.lights[fill].sides != "shadow"
    for row, ev in enumerate(camera_ev):
        lit, shadow = ambient.lit_ev - ev, ambient.shadow_ev - ev
        lit = max(lit, float(said[key])) if key is not None else lit
        wanted[row, fill] = max(NO_FILL, fill_for_ratio(setup.aim.ratio, lit, shadow, both))
    return wanted


def _said(light: Light, ambient: AmbientSpec, focal_mm: float | None) -> float:
    if not light.automatic:
        return light.target_stops
    own = light.compensation_stops
    return start_compensation(light, ambient, focal_mm) if own is None else own
