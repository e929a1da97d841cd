"""The set from above: lights with rings of equal exposure, camera, sun, shadows; and what goes wrong there."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ..physics import daylight, group, placing, stand
from ..physics.sides import wrapped_deg
from ..scene.light import Light
from ..scene.seen import MethodKind
from ..scene.setup import Setup
from .levels import Level
from .picture import camera_m, on_frame
from .placing import EDGE, LIT, SHADOW, beam_of, behind_m
from .reach import Solved
from .remark import Remark, remark

RINGS = (1.0, 0.0, -1.0, -2.0)  # stops on faces
EVEN_STOPS = 1 / 3
RED_EYE_DEG = 2.5  # an angle of flash to lens under which eyes shine, from memory
SHOE_M = 0.12  # of a flash on the shoe from the lens, from memory
NARROW_DEG = 15.0  # a beam that has to be aimed with care
AIM_OFF_DEG = 2.0  # what a head is off without being noticed, from memory
SKIN_CLIPS = math.log2(1 / 0.36)  # over correct; reflectance of light skin from memory
NOSE_STOPS = -2.0  # an edge light this much under the key, or more, is seen on the nose; from memory
STAND_FOOT_M, STAND_KG = 0.5, 4.0  # of a usual stand, from memory
GUSTY_M_S = 5.5  # wind from which a modifier wants weight: a moderate breeze, Beaufort 4 (WMO)
COUNTER_M = 0.5  # the short arm of a boom, from memory
FRONTAL_DEG = 30.0  # a light this near to the camera's axis is to light all that the lens sees
SUN_BURNS_DEG = 5.0  # a sun as high as this burns through a lens


@dataclass(frozen=True)
class Placed:
    """One light from above: its place and where it points [degrees from away from the camera to its right], its beam
    [degrees; 0 for a bright face, None all round], and the radius [m] of each of RINGS (None where it is dark)."""

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
class Stage:
    """All of it, in metres; the subject at 0, x to the camera's right, y away from it."""

    camera_m: float
    view_deg: float | None  # half the angle of the lens; None where no lens is said
    background_m: float | None
    sun: tuple[float, float] | None  # (bearing as seen from the subject, elevation) [degrees]
    lights: tuple[Placed, ...]
    shadows: tuple[Shadow | None, ...]


def sun_of(solved: Solved) -> tuple[float, float] | None:
    """(bearing seen from the subject, elevation) of the sun [degrees], where both are known and it is up."""
    sun, looks = solved.ambient.sun, solved.setup.stage.camera_looks_deg
    if sun is None or looks is None or sun[0] <= 1:
        return None
    return placing.sun_bearing_deg(sun[1], looks), sun[0]


def stage_of(solved: Solved, kind: MethodKind, units: tuple[int | None, ...]) -> Stage:
    """The set from above; `units` names the unit of each light, set at its dial."""
    setup, lens = solved.setup, solved.setup.aim.lens
    width = setup.body.frame_width_mm if setup.aim.orientation == "landscape" else setup.body.frame_height_mm
    back, sun = behind_m(setup), sun_of(solved)
    return Stage(
        camera_m=camera_m(setup),
        view_deg=math.degrees(math.atan(width / 2 / lens.focal_mm)) if lens else None,
        background_m=None if math.isinf(back) else back,
        sun=sun,
        lights=tuple(_placed(solved, kind, at, unit) for at, unit in enumerate(units)),
        shadows=tuple(_shadow(setup, solved.placing.at[at], sun) for at in range(len(units))),
    )


def _placed(solved: Solved, kind: MethodKind, light: int, unit: int | None) -> Placed:
    spot, at = solved.setup.lights[light], solved.placing.at[light]
    start = min(behind_m(solved.setup), 1e6) if spot.role == "background" else 0.0
    turn = spot.position.turn_deg if spot.position else 0.0
    points = math.degrees(math.atan2(-at.x, start - at.y)) + turn
    beam = beam_of(spot)
    rings: tuple[float, ...] = ()
    if unit is not None and spot.on:
        level = float(solved.reach(kind, light).flash_at_dial[unit])
        rings = tuple(spot.distance_m * 2 ** ((level - ring) / 2) for ring in RINGS)
    return Placed((at.x, at.y, at.z), float(wrapped_deg(points)), None if math.isinf(beam) else beam, rings)


def _shadow(setup: Setup, at: tuple[float, float, float], sun: tuple[float, float] | None) -> Shadow | None:
    if sun is None:
        return None
    away, long = math.radians(sun[0]), daylight.shadow_m(at[2], sun[1])
    tip = (at[0] - long * math.sin(away), at[1] + long * math.cos(away))
    line = np.linspace((at[0], at[1]), tip, 12)
    return Shadow((at[0], at[1]), tip, any(_in_frame(setup, x, y, 0.0) for x, y in line))


def _in_frame(setup: Setup, x: float, y: float, z: float) -> bool:
    found = on_frame(setup, x, y, z)
    return found is not None and 0 <= found[0] <= 1 and 0 <= found[1] <= 1


def stage_warnings(
    solved: Solved, kind: MethodKind, units: tuple[int | None, ...], found: tuple[Level, ...]
) -> Iterator[Remark]:
    """What goes wrong with lights in such places, the gravest first; each once, where it can happen."""
    setup, sun = solved.setup, sun_of(solved)
    for light, spot in enumerate(setup.lights):
        if not spot.on:
            continue
        at = solved.placing.at[light]
        if spot.position is not None and setup.aim.lens is not None:
            if spot.role != "background" and _in_frame(setup, *at):
                yield remark("light_in_frame", light=light)
            shadow = _shadow(setup, at, sun)
            if shadow is not None and shadow.in_frame:
                yield remark("shadow_in_frame", light=light, metres=math.dist(shadow.foot, shadow.tip))
        yield from _against_lens(setup, light, spot)
        yield from _edge(solved, light, found)
        yield from _aimed(setup, light, spot)
        yield from _held(solved, light, spot, units[light])
        if sun is not None and sun[1] > SUN_BURNS_DEG and spot.modifier and spot.modifier.kind == "extender":
            yield remark("lens_in_sun", name=spot.modifier.name)
        yield from _eyes(setup, spot, at)
    if setup.stage.kind == "group":
        yield from _group(solved, found)
    elif setup.stage.kind == "object":
        yield from _flat(setup)


def _against_lens(setup: Setup, light: int, spot: Light) -> Iterator[Remark]:
    """A beam from about the camera's side that is narrower than what the lens sees of the subject's plane."""
    lens, beam = setup.aim.lens, beam_of(spot)
    if lens is None or spot.position is None or spot.role != "key" or abs(spot.position.bearing_deg) > FRONTAL_DEG:
        return
    across = setup.body.frame_width_mm if setup.aim.orientation == "landscape" else setup.body.frame_height_mm
    field_m = across / lens.focal_mm * lens.subject_m
    wanted = float(group.across_deg(field_m, spot.distance_m))
    if 0 < beam < wanted and setup.stage.kind != "group":
        yield remark("beam_in_frame", light=light, beam=beam, wanted=wanted)


def _eyes(setup: Setup, spot: Light, at: tuple[float, float, float]) -> Iterator[Remark]:
    """A light so near the lens that eyes shine red, or like steel."""
    bounced = spot.modifier is not None and spot.modifier.kind == "bounce"
    if setup.stage.kind == "object" or spot.role == "background" or bounced:
        return
    if spot.position is not None:
        apart = _lens_angle(setup, at)
    elif setup.trigger == "shoe":
        apart = float(placing.flash_to_lens_deg(SHOE_M, camera_m(setup)))
    else:
        return
    if apart < RED_EYE_DEG:
        yield remark("red_eye", deg=apart, apart_m=math.tan(math.radians(RED_EYE_DEG)) * camera_m(setup))


def _lens_angle(setup: Setup, at: tuple[float, float, float]) -> float:
    """Angle at the subject between a light and the lens [degrees]."""
    face = setup.stage.face_m
    lens = np.array([0.0, -camera_m(setup), setup.stage.camera_height_m - face])
    way = np.array([at[0], at[1], at[2] - face])
    cosine = float(lens @ way / np.linalg.norm(lens) / max(1e-9, float(np.linalg.norm(way))))
    return math.degrees(math.acos(min(1.0, max(-1.0, cosine))))


def _edge(solved: Solved, light: int, found: tuple[Level, ...]) -> Iterator[Remark]:
    spot = solved.setup.lights[light]
    if spot.role != "rim":
        return
    edge, key = found[EDGE], max(found[LIT].total, found[SHADOW].total)
    nose = max(found[LIT].lights[light], found[SHADOW].lights[light])
    if spot.position is not None and nose > key + NOSE_STOPS:
        yield remark("edge_on_nose", light=light, stops=nose)
    if edge.total > SKIN_CLIPS:
        yield remark("edge_clips", over=edge.total - SKIN_CLIPS)


def _aimed(setup: Setup, light: int, spot: Light) -> Iterator[Remark]:
    beam = beam_of(spot)
    if 0 < beam < NARROW_DEG:
        yield remark(
            "aim",
            deg=AIM_OFF_DEG,
            metres=float(placing.aim_error_m(AIM_OFF_DEG, spot.distance_m)),
            beam=beam,
            loss=-float(group.off_axis(AIM_OFF_DEG, beam)),
        )


def _held(solved: Solved, light: int, spot: Light, unit: int | None) -> Iterator[Remark]:
    """Wind on what is in front of a light, and a boom's counterweight."""
    wind, mod = solved.setup.stage.wind_m_s, spot.modifier
    height = spot.position.height_m if spot.position else solved.setup.stage.face_m
    if wind is not None and wind >= GUSTY_M_S and mod is not None and mod.face is not None:
        face = mod.face
        area = math.pi * face.width_m**2 / 4 if face.shape == "disc" else face.width_m * (face.rectangle_height_m or 0)
        hollow = mod.kind in ("umbrella", "shoot_through")
        force = float(stand.wind_force_n(wind, area, stand.CD_HOLLOW if hollow else stand.CD_FLAT))
        weight = stand.ballast_kg(force, height, STAND_FOOT_M, STAND_KG)
        if weight > 0:
            yield remark("wind", name=mod.name, force_n=force, ballast_kg=weight, wind=wind)
    arm = spot.position.boom_m if spot.position else 0.0
    if arm and unit is not None:
        grams = solved.table.weight_g[unit] + (mod.weight_g or 0 if mod else 0)
        if not math.isnan(grams):
            counter = stand.counterweight_kg(float(grams) / 1000, arm, COUNTER_M)
            yield remark("boom", load_kg=float(grams) / 1000, arm_m=arm, counter_kg=counter, counter_m=COUNTER_M)


def _flat(setup: Setup) -> Iterator[Remark]:
    """How much darker the ends of what lies flat are, a table top say, by a small key."""
    key = next((light for light in setup.lights if light.role == "key" and light.on), None)
    if key is None:
        return
    ends = float(group.ends_fall(setup.stage.width_m, key.distance_m, group.FLAT))
    if -ends > EVEN_STOPS:
        metres = group.distance_for_ends(setup.stage.width_m, EVEN_STOPS, group.FLAT)
        yield remark("flat_falls", stops=ends, metres=metres)


def _group(solved: Solved, found: tuple[Level, ...]) -> Iterator[Remark]:
    """Whether the lights cover a group, and how even it is; what would make it so."""
    setup, stage = solved.setup, solved.setup.stage
    key = next((light for light in setup.lights if light.role == "key" and light.on), None)
    if key is None:
        return
    across, beam = float(group.across_deg(stage.width_m, key.distance_m)), beam_of(key)
    if 0 < beam < across:
        yield remark("group_uncovered", across=across, beam=beam)
    totals = {level.receiver: level.total for level in found}
    ends = min(totals["left"], totals["right"]) - totals["lit"]
    if abs(ends) > EVEN_STOPS:
        yield remark("ends_fall", stops=ends, metres=group.distance_for_ends(stage.width_m, EVEN_STOPS))
    depth = totals["far"] - totals["lit"]
    if -depth > EVEN_STOPS and stage.depth_m > 0:
        yield remark("depth_falls", stops=depth, metres=group.distance_for_depth(stage.depth_m, EVEN_STOPS),
                     crossed=_crossed(setup, key.distance_m))  # fmt: skip


def _crossed(setup: Setup, distance_m: float) -> float:
    """How uneven two lights make a group that are crossed, each from beside one end and aimed at the other [stops]."""
    half, deep = setup.stage.width_m / 2, setup.stage.depth_m
    lights = np.array([[-half, -distance_m], [half, -distance_m]])
    people = np.array([[x, y] for x in np.linspace(-half, half, 9) for y in np.linspace(0, deep, 3)])
    found = group.row_levels(people, lights, np.array([[half, deep], [-half, deep]]), 1e6)
    return float(np.max(found) - np.min(found))
