"""Placing: from each light to each receiver, how far it is, how far off the head's axis, and what share reaches it.

The subject stands at 0; x to the camera's right, y away from the camera, z up [m]. The list of receivers is open: the
sides and the edge of the subject, the background, and in a group the ends of its row and the last row.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from ...kit.modifier import Modifier
from ...physics import falloff, group, placing, sides
from ...physics.arrays import Floats
from ...physics.beam import REFERENCE_ZOOM_MM, WIDE_PANEL_MM, horizontal_deg
from ...scene.light import USUAL_BEARINGS, Light
from ...scene.receivers import NOWHERE_M, RECEIVERS, Point, Shares, behind_m, receivers_of
from ...scene.setup import Setup
from ...scene.stage import Stage, Surface

BEAM_DEG = {"grid": 30.0, "reflector": 65.0, "dish": 80.0}  # full angle at which a stop is lost, from memory
EVEN = frozenset({"dome", "bounce"})  # these send their light all round
EXTENDED = 1 / 3  # of the beam of the zoomed head behind it: what an extender leaves, from memory
NO_SHARE_STOPS = -12.0  # a share smaller than this is none
GRAZING = 1e-6  # a bearing so near to along a wall never meets it; a matter of computing


@dataclass(frozen=True, eq=False)
class Placing:
    """Every light against every receiver; arrays of shape (lights, receivers)."""

    receivers: tuple[str, ...]
    metres: Floats
    off_stops: Floats  # lost off the head's axis
    share: Floats  # of the light, were it on: 0 where it does not reach
    own: tuple[int, ...]  # the receiver that each light is there for
    setup: Setup
    lit_right: bool  # whether the lit side is the one to the camera's right

    @cached_property
    def at(self) -> tuple[Point, ...]:
        """Where the lights stand."""
        return tuple(point_of(light, self.setup) for light in self.setup.lights)

    @property
    def side_stops(self) -> Floats:
        """What each receiver has of a light by the side it comes from [stops]; not less than NO_SHARE_STOPS."""
        return np.asarray(np.log2(np.maximum(self.share, 2**NO_SHARE_STOPS)))


def point_of(light: Light, setup: Setup) -> Point:
    """Where a light stands; one without a place where its role usually does, at the height of the face."""
    face = setup.stage.face_m
    height = light.position.height_m if light.position else face
    level = math.sqrt(max(0.0, light.distance_m**2 - (height - face) ** 2))
    turned = _turned(light)
    start = min(behind_m(setup), NOWHERE_M) if light.role == "background" else 0.0
    return Point(level * math.sin(turned), start - level * math.cos(turned), height)


def _turned(light: Light) -> float:
    """A light's bearing [radians]; the usual one of its role where it has no place."""
    return math.radians(light.position.bearing_deg if light.position else USUAL_BEARINGS.get(light.role, 0.0))


def farthest_m(setup: Setup, light: Light) -> float:
    """How far from the subject the room lets a light stand on its bearing [m]; inf where nothing is said of it."""
    stage, face = setup.stage, setup.stage.face_m
    across, along = math.sin(_turned(light)), math.cos(_turned(light))
    walls = [
        (across, stage.right_wall_m),
        (-across, stage.left_wall_m),
        (along, stage.back_wall_m),
        (-along, behind_m(setup)),
    ]
    level = min((away / share for share, away in walls if away is not None and share > GRAZING), default=math.inf)
    up = (light.position.height_m if light.position else face) - face
    return math.hypot(level, up)


def placing_of(setup: Setup, sun: tuple[float, float] | None = None, right: bool | None = None) -> Placing:
    """The placing of a setup. sun: (elevation, bearing) [degrees] where it is known; right: see `lit_right`."""
    right = lit_right(setup, sun) if right is None else right
    return Placing(*_figures(setup.model_copy(update=NO_PART), right), setup, right)


NO_PART = {
    name: field.get_default() for name, field in Setup.model_fields.items() if name not in ("aim", "lights", "stage")
}
"""What of a setup has no part in where its lights stand, once it is known which side is the lit one."""


@lru_cache(maxsize=64)
def _figures(setup: Setup, right: bool) -> tuple[tuple[str, ...], Floats, Floats, Floats, tuple[int, ...]]:
    """(names of receivers, metres, off, share, own) of a `Placing`: the same through the day, and for every unit."""
    points = receivers_of(setup)
    names = tuple(points)
    at = tuple(point_of(light, setup) for light in setup.lights)
    shape = (len(setup.lights), len(names))
    metres, off, share = np.empty(shape), np.zeros(shape), np.empty(shape)
    for row, light in enumerate(setup.lights):
        metres[row] = _metres(light, at[row], points, setup)
        share[row] = _shares(light, names, setup.stage, right)
        if light.position is not None or setup.stage.kind == "group":
            off[row] = _off_stops(light, at[row], points)
    share[off <= NO_SHARE_STOPS] = 0.0
    by_name = [dict(zip(names, row, strict=True)) for row in share]
    own = tuple(names.index(own_receiver(light, by_name[row], setup.stage)) for row, light in enumerate(setup.lights))
    return names, _unchanging(metres), _unchanging(off), _unchanging(share), own


def _unchanging(figures: Floats) -> Floats:
    """Kept figures, that nobody may write over."""
    figures.flags.writeable = False
    return figures


def bounced_off(light: Light, stage: Stage) -> Surface | None:
    """The surface that a light is bounced off, where it is known how far that is; None for one that goes straight."""
    if light.modifier is None or light.modifier.kind != "bounce":
        return None
    surface: Surface = light.position.bounces_off if light.position else "ceiling"
    return surface if stage.wall_m(surface) is not None else None


def metres_for(light: Light, stage: Stage, more: float) -> float:
    """Distance [m] at which a light gives so many stops more than where it stands; NaN where it never does.

    Of one that is bounced, by inverse square: the way over the ceiling or wall makes it less.
    """
    face = light.modifier.face if light.modifier else None
    if face is None or bounced_off(light, stage):
        return float(falloff.distance_where(more, light.distance_m))
    return float(falloff.distance_where(more, light.distance_m, face.width_m, face.rectangle_height_m))


def _bearing_deg(light: Light, stage: Stage) -> float:
    """Where a light comes from, as seen from the subject: off a wall, from its mirror image."""
    assert light.position is not None
    surface = bounced_off(light, stage)
    if surface is None or surface == "ceiling":
        return light.position.bearing_deg
    away = stage.wall_m(surface) or 0.0
    turned = math.radians(light.position.bearing_deg)
    x, y = light.distance_m * math.sin(turned), light.distance_m * math.cos(turned)
    image = 2 * away - x if surface == "right" else -2 * away - x
    return math.degrees(math.atan2(image, y))


def lit_right(setup: Setup, sun: tuple[float, float] | None) -> bool:
    """Which side is the lit one: the key's where its place is said, else the sun's, else that of a fill; else the
    camera's right."""
    stage = setup.stage
    bearings = [
        (light.role, _bearing_deg(light, stage))
        for light in setup.lights
        if light.on and light.position and light.role in ("key", "fill")
    ]
    bearing = next((deg for role, deg in bearings if role == "key"), None)
    if bearing is None and sun is not None and stage.camera_looks_deg is not None and setup.ambient.subject == "sun":
        bearing = float(placing.sun_bearing_deg(sun[1], stage.camera_looks_deg))
    if bearing is None:
        bearing = bearings[0][1] if bearings else 0.0
    return bool(sides.wrapped_deg(bearing - stage.facing_deg) >= 0)


def own_receiver(light: Light, share: Mapping[str, float], stage: Stage) -> str:
    """The receiver that a light is there for, by its role and the shares that reach each; in a group the key is there
    for the end where the person stands who matters most."""
    if light.role == "background":
        return "background"
    if light.role == "key" and stage.kind == "group" and stage.favoured != "none":
        return stage.favoured
    if light.position is None:
        return "edge" if light.sides == "none" else "shadow" if light.sides == "shadow" else "lit"
    if light.role == "rim" and share["edge"] > 0:
        return "edge"
    return "shadow" if share["shadow"] > share["lit"] and light.role != "key" else "lit"


def _metres(light: Light, at: Point, points: dict[str, Point], setup: Setup) -> list[float]:
    """To each receiver: what a light is set up before is as far as it is said to be."""
    aimed = points["background"] if light.role == "background" else None
    out = []
    for name, point in points.items():
        if point in (points["lit"], aimed):
            out.append(light.distance_m)
        elif name == "background" and light.position is None:
            out.append(light.distance_m + behind_m(setup))
        else:
            out.append(max(0.05, math.dist(at, point)))
    return out


def _shares(light: Light, names: tuple[str, ...], stage: Stage, right: bool) -> list[float]:
    if light.role == "background":
        return [float(name == "background") for name in names]
    flag = light.modifier is not None and light.modifier.kind == "flag"
    kept_off = {name for name in names if flag and RECEIVERS[name].shielded}
    if light.position is None:
        return [float(light.sides in RECEIVERS[name].reached_by and name not in kept_off) for name in names]
    bearing = float(sides.wrapped_deg(_bearing_deg(light, stage) - stage.facing_deg))
    turn = sides.THING_TURN_DEG if stage.kind == "object" else sides.TURN_DEG
    near, far = float(sides.near_share(bearing, turn)), float(sides.far_share(bearing))
    lit, shadow = (near, far) if (bearing >= 0) == right else (far, near)
    shares = Shares(lit, shadow, float(sides.edge_share(bearing)))
    return [0.0 if name in kept_off else RECEIVERS[name].share(shares) for name in names]


def _axis(light: Light, at: Point, target: Point) -> Point:
    """Where a light's head points: at its target, turned and tilted off it. Of length 1."""
    x, y, z = target.x - at.x, target.y - at.y, target.z - at.z
    turn, lift = math.atan2(x, y), math.atan2(z, math.hypot(x, y))
    if light.position is not None:
        turn += math.radians(light.position.turn_deg)
        lift += math.radians(light.position.tilt_deg)
    return Point(math.sin(turn) * math.cos(lift), math.cos(turn) * math.cos(lift), math.sin(lift))


def _off_stops(light: Light, at: Point, points: dict[str, Point]) -> list[float]:
    axis = _axis(light, at, points["background"] if light.role == "background" else points["lit"])
    beam, known, out = beam_of(light), dict[Point, float](), []
    for point in points.values():
        if point not in known:
            way = (point.x - at.x, point.y - at.y, point.z - at.z)
            long = math.hypot(*way)
            cosine = sum(a * b for a, b in zip(way, axis, strict=True)) / long if long else 1.0
            known[point] = off_axis_stops(beam, math.degrees(math.acos(min(1.0, max(-1.0, cosine)))))
        out.append(known[point])
    return out


def off_axis_stops(beam: float, off_deg: float) -> float:
    """Lost so far off the axis of a head [stops]: beyond a beam, or by a face's cosine; NO_SHARE_STOPS at the most."""
    if math.isinf(beam):
        return 0.0
    if off_deg >= 90:
        return NO_SHARE_STOPS
    lost = float(group.off_axis(off_deg, beam)) if beam > 0 else math.log2(math.cos(math.radians(off_deg)))
    return max(lost, NO_SHARE_STOPS)


@lru_cache(maxsize=256)
def _bare_deg(zoom_mm: float) -> float:
    return float(horizontal_deg(zoom_mm))


def beam_of(light: Light) -> float:
    """Horizontal angle of a light's beam [degrees]; 0: a bright face, by its cosine; infinite: all round."""
    mod: Modifier | None = light.modifier
    zoom_mm = WIDE_PANEL_MM if light.wide_panel else light.zoom_mm or REFERENCE_ZOOM_MM
    bare = _bare_deg(zoom_mm)
    if mod is None:
        return bare
    if mod.kind in EVEN:
        return math.inf
    if mod.kind == "extender":
        return bare * EXTENDED
    return BEAM_DEG.get(mod.kind, 0.0 if mod.face else bare)
