"""The set from above: lights with rings of equal exposure, camera, sun, shadows."""

import math
from dataclasses import dataclass

import numpy as np

from ...kit.modifier import source_of
from ...physics import daylight, placing
from ...physics.sides import wrapped_deg
from ...scene.light import Light
from ...scene.receivers import NOWHERE_M, behind_m
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.framing import camera_m, frame_mm, on_frame
from ..light.placing import beam_of, bounced_off, metres_for
from ..light.reach import Solved

RINGS = (1.0, 0.0, -1.0, -2.0)  # stops on faces
TURNED_DEG = 8.0  # a face turned less than this has no short side


@dataclass(frozen=True)
class Placed:
    """One light from above: its place and where it points [degrees from away from the camera to its right], its beam
    [degrees; 0 for a bright face, None all round], and the radius [m] of each of RINGS: NaN for one that is brighter
    than its face is close up; none where it is dark, or comes off a ceiling or a wall."""

    at: tuple[float, float, float]
    points_deg: float
    beam_deg: float | None
    rings: tuple[float, ...]


@dataclass(frozen=True)
class Shadow:
    """The shadow of a light and its stand on the ground: from its foot to its tip, and whether the frame shows it."""

    foot: tuple[float, float]
    tip: tuple[float, float]
    in_frame: bool


@dataclass(frozen=True)
class StageDrawing:
    """All of it, in metres; the subject at 0, x to the camera's right, y away from it."""

    camera_m: float
    view_deg: float | None  # half the angle of the lens; None where no lens is said
    background_m: float | None
    sun: tuple[float, float] | None  # (bearing as seen from the subject, elevation) [degrees]
    lights: tuple[Placed, ...]
    shadows: tuple[Shadow | None, ...]


def softness(setup: Setup, light: Light) -> float:
    """How large a light's face is against the subject; from 1 on it is soft."""
    face = source_of(light.modifier)
    return math.sqrt(face.width_m * (face.rectangle_height_m or face.width_m)) / setup.stage.width_m


def short_side(setup: Setup) -> bool | None:
    """Whether the key comes from the short side of the face, the one turned from the camera; None: none is turned."""
    key = next((light for light in setup.lights if light.role == "key" and light.on and light.position), None)
    facing = setup.stage.facing_deg
    if key is None or key.position is None or abs(facing) < TURNED_DEG:
        return None
    return float(wrapped_deg(key.position.bearing_deg - facing)) * facing > 0


def sun_of(solved: Solved) -> tuple[float, float] | None:
    """(bearing seen from the subject, elevation) of the sun [degrees], where both are known and it is up."""
    sun, looks = solved.ambient.sun, solved.setup.stage.camera_looks_deg
    if sun is None or looks is None or sun[0] <= daylight.LOW_SUN_DEG:
        return None
    return float(placing.sun_bearing_deg(sun[1], looks)), sun[0]


def stage_of(solved: Solved, kind: MethodKind, units: tuple[int | None, ...]) -> StageDrawing:
    """The set from above; `units` names the unit of each light, set at its dial."""
    setup, lens = solved.setup, solved.setup.aim.lens
    width = frame_mm(setup)[0]
    back, sun = behind_m(setup), sun_of(solved)
    return StageDrawing(
        camera_m=camera_m(setup),
        view_deg=math.degrees(math.atan(width / 2 / lens.focal_mm)) if lens else None,
        background_m=None if math.isinf(back) else back,
        sun=sun,
        lights=tuple(_placed(solved, kind, at, unit) for at, unit in enumerate(units)),
        shadows=tuple(shadow_of(setup, solved.placing.at[at], sun) for at in range(len(units))),
    )


def _placed(solved: Solved, kind: MethodKind, light: int, unit: int | None) -> Placed:
    setup, spot, at = solved.setup, solved.setup.lights[light], solved.placing.at[light]
    start = min(behind_m(setup), NOWHERE_M) if spot.role == "background" else 0.0
    turn = spot.position.turn_deg if spot.position else 0.0
    points = math.degrees(math.atan2(-at.x, start - at.y)) + turn
    beam = beam_of(spot)
    rings: tuple[float, ...] = ()
    if unit is not None and spot.on and not bounced_off(spot, setup.stage):
        level = float(solved.reach(kind, light).flash_at_dial[unit])
        rings = tuple(metres_for(spot, setup.stage, ring - level) for ring in RINGS)
    return Placed((at.x, at.y, at.z), float(wrapped_deg(points)), None if math.isinf(beam) else beam, rings)


def shadow_of(setup: Setup, at: tuple[float, float, float], sun: tuple[float, float] | None) -> Shadow | None:
    """The shadow of what stands there, by the sun's bearing and height; None without sun."""
    if sun is None:
        return None
    away, long = math.radians(sun[0]), float(daylight.shadow_m(at[2], sun[1]))
    tip = (at[0] - long * math.sin(away), at[1] + long * math.cos(away))
    line = np.linspace((at[0], at[1]), tip, 12)
    return Shadow((at[0], at[1]), tip, any(in_frame(setup, x, y, 0.0) for x, y in line))


def in_frame(setup: Setup, x: float, y: float, z: float) -> bool:
    """Whether the frame shows a point of the stage."""
    found = on_frame(setup, x, y, z)
    return found is not None and 0 <= found[0] <= 1 and 0 <= found[1] <= 1
