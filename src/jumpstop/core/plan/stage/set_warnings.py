"""What goes wrong with lights in their places: in the frame, uneven, badly aimed, badly held; and what can hurt."""

import math
from collections.abc import Iterator

import numpy as np

from ...physics import group, placing
from ...physics.sides import wrapped_deg
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.framing import camera_m, frame_mm
from ..camera.remark import Remark, remark
from ..light.levels import Level, by_receiver, totals_of
from ..light.link import breaks_of
from ..light.placing import beam_of
from ..light.reach import Solved
from .above import in_frame, shadow_of, sun_of
from .commands import SUNNY_EV, commands
from .covering import ends_of, frontal, key_of, outdoors, row_of, uncovered
from .holding import holding
from .surfaces import skin_clips

EVEN_STOPS = 1 / 3  # unevenness that is worth a word; common practice
RED_EYE_DEG = 2.5  # an angle of flash to lens under which eyes shine, from memory
NEAR_EYES_M = 0.6  # a flash this near to eyes is too near, from memory
SHOE_M = 0.12  # of a flash on the shoe from the lens, from memory
NARROW_DEG = 15.0  # a beam that has to be aimed with care
AIM_OFF_DEG = 2.0  # what a head is off without being noticed, from memory
IN_FRONT_DEG = 70.0  # a sun this near to where the face looks is not behind it, nor the other way round
NOSE_STOPS = -2.0  # an edge light this much under the key, or more, is seen on the nose; from memory
TALL_M = 1.75  # how tall who photographs is, from memory
USUAL_CEILING_M = 2.6  # a room's ceiling, from memory
SIDE_HIDDEN_DEG = 20.0  # a face turned so far hides the cheek on the side it turns to, from memory
OTHER_SIDE_DEG = 15.0  # a key this far to one side is not the one for the other end of a group, from memory
ONE_DIAL = 0.2  # stops: powers nearer than this are one
SUN_BURNS_DEG = 5.0  # a sun as high as this burns through a lens


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
            if spot.role != "background" and in_frame(setup, *at):
                yield remark("light_in_frame", light=light)
            shadow = shadow_of(setup, at, sun)
            if shadow is not None and shadow.in_frame:
                yield remark("shadow_in_frame", light=light, metres=math.dist(shadow.foot, shadow.tip))
        unit = units[light]
        for broken in breaks_of(setup, light, solved.table.units[unit or 0], kind):
            if unit is not None or broken.at:  # a link that stops it, whichever unit it is
                yield remark("link_broken", light=light, wanted=broken.wanted, at=broken.at)
        yield from _against_lens(setup, light, spot)
        yield from _bounced(setup, light, spot)
        yield from _edge(solved, light, found)
        yield from _aimed(setup, light, spot)
        yield from _held(solved, light, spot, units[light])
        if sun is not None and sun[1] > SUN_BURNS_DEG and spot.modifier and spot.modifier.kind == "extender":
            yield remark("lens_in_sun", name=spot.modifier.name)
        yield from _eyes(setup, spot, at)
    yield from _own_shadow(setup, sun)
    yield from _cautions(solved)
    yield from _favoured(setup)
    yield from commands(solved, units)
    yield from radio(solved, kind, units)
    if setup.stage.kind == "group":
        yield from _group(solved, found)
    elif setup.stage.kind == "object":
        yield from _flat(setup)


def _own_shadow(setup: Setup, sun: tuple[float, float] | None) -> Iterator[Remark]:
    """The photographer's own shadow, where the sun stands behind the camera and the frame shows where it falls."""
    if setup.aim.lens is None:
        return
    shadow = shadow_of(setup, (0.0, -camera_m(setup), TALL_M), sun)
    if shadow is not None and shadow.in_frame:
        yield remark("own_shadow", metres=math.dist(shadow.foot, shadow.tip))


def _bounced(setup: Setup, light: int, spot: Light) -> Iterator[Remark]:
    """A bounce off a ceiling or wall of which nothing is said: what is taken for it."""
    if spot.modifier is None or spot.modifier.kind != "bounce" or outdoors(setup):
        return
    surface = spot.position.bounces_off if spot.position else "ceiling"
    if setup.stage.wall_m(surface) is None:
        over = USUAL_CEILING_M - setup.stage.face_m
        path = float(placing.bounce_path_m(over, over, spot.distance_m)) if over > 0 else spot.distance_m
        yield remark("bounce_assumed", light=light, surface=surface, metres=spot.distance_m, usual_m=USUAL_CEILING_M,
                     loss=2 * math.log2(path / spot.distance_m))  # fmt: skip


def _against_lens(setup: Setup, light: int, spot: Light) -> Iterator[Remark]:
    """A beam from about the camera's side that is narrower than what the lens sees of the subject's plane."""
    lens = setup.aim.lens
    if lens is None or spot.role != "key" or not frontal(spot) or setup.stage.kind == "group":
        return
    short = uncovered(spot, frame_mm(setup)[0] / lens.focal_mm * lens.subject_m)
    if short is not None:
        yield remark("beam_in_frame", light=light, beam=short[1], wanted=short[0])


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
    face, (x, y, z) = setup.stage.face_m, at
    away, up = -camera_m(setup), setup.stage.camera_height_m - face
    apart = math.hypot(away, up) * max(1e-9, math.hypot(x, y, z - face))
    return math.degrees(math.acos(min(1.0, max(-1.0, (away * y + up * (z - face)) / apart))))


def _edge(solved: Solved, light: int, found: tuple[Level, ...]) -> Iterator[Remark]:
    spot = solved.setup.lights[light]
    if spot.role != "rim":
        return
    levels = by_receiver(found)
    edge, face = levels["edge"], (levels["lit"], levels["shadow"])
    key, nose = max(side.total for side in face), max(side.lights[light] for side in face)
    if spot.position is not None and nose > key + NOSE_STOPS:
        yield remark("edge_on_nose", light=light, stops=nose)
    clips = skin_clips(solved.setup.stage)
    if edge.total > clips:
        yield remark("edge_clips", over=edge.total - clips)


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
    found = holding(solved, light, unit)
    if found.ballast_kg > 0 and spot.modifier is not None:
        wind = solved.setup.stage.wind_m_s
        yield remark(
            "wind", name=spot.modifier.name, force_n=found.force_n, ballast_kg=found.ballast_kg, wind=wind
        )  # fmt: skip
    if not math.isnan(found.counter_kg):  # there is an arm
        yield remark(
            "boom", load_kg=found.load_kg, arm_m=found.arm_m, counter_kg=found.counter_kg, counter_m=found.counter_m
        )


def _cautions(solved: Solved) -> Iterator[Remark]:
    """What can hurt, and what triggers do not see."""
    setup = solved.setup
    lights, sun = [light for light in setup.lights if light.on], sun_of(solved)
    if sun is not None and setup.ambient.subject in ("sun", "back"):
        off = abs(float(wrapped_deg(sun[0] - setup.stage.facing_deg)))
        if off < IN_FRONT_DEG if setup.ambient.subject == "back" else off > 180 - IN_FRONT_DEG:
            yield remark("sun_elsewhere", deg=sun[0], front=setup.ambient.subject == "back")
    nearest = min((light.distance_m for light in lights if light.role != "background"), default=math.inf)
    if setup.stage.kind == "animal":
        yield remark("wildlife")
    elif setup.stage.kind != "object" and nearest < NEAR_EYES_M:
        yield remark("near_eyes", metres=nearest)
    if any(light.pops > 3 for light in lights):
        yield remark("repeating")
    if setup.trigger == "optical":
        yield remark(
            "optical", sun=setup.ambient.subject in ("sun", "back") and solved.ambient.background_ev > SUNNY_EV
        )
    panel = setup.ambient.panel
    if setup.ambient.subject == "panel" and setup.aim.lens is not None:
        corners = [(x, y) for x in (-panel.size_m / 2, panel.size_m / 2) for y in (-panel.size_m / 2, panel.size_m / 2)]
        if any(in_frame(setup, x, y, panel.height_m) for x, y in corners):
            yield remark("panel_in_frame", metres=panel.height_m)


def _favoured(setup: Setup) -> Iterator[Remark]:
    """Whether the side, or the person, that matters most is the one that is shown, and lit."""
    stage, right = setup.stage, setup.stage.favoured == "right"
    if stage.favoured == "none":
        return
    if stage.kind != "group" and stage.facing_deg * (1 if right else -1) > SIDE_HIDDEN_DEG:
        yield remark("favoured_hidden", right=right, deg=abs(stage.facing_deg))
    key = next((light for light in setup.lights if light.role == "key" and light.on and light.position), None)
    if stage.kind == "group" and key is not None and key.position is not None:
        bearing = float(wrapped_deg(key.position.bearing_deg))
        if bearing * (1 if right else -1) < -OTHER_SIDE_DEG:
            yield remark("favoured_far", right=right)


def radio(solved: Solved, kind: MethodKind, units: tuple[int | None, ...]) -> Iterator[Remark]:
    """Lights that listen on another channel than the first, and lights of one group that want different power."""
    lights = solved.setup.lights
    on = [at for at, light in enumerate(lights) if light.on]
    said = [at for at in on if lights[at].channel is not None]
    if solved.setup.trigger == "shoe" or len(on) < 2:
        return
    for at in said[1:]:
        if lights[at].channel != lights[said[0]].channel:
            yield remark("other_channel", light=at, channel=lights[at].channel, first=lights[said[0]].channel)
    groups: dict[tuple[int | None, str], int] = {}
    for at in on:
        group_name, unit = lights[at].group.strip(), units[at]
        if not group_name or unit is None:
            continue
        first = groups.setdefault((lights[at].channel, group_name), at)
        other = units[first]
        if first == at or other is None:
            continue
        mine, theirs = solved.reach(kind, at).below_full[unit], solved.reach(kind, first).below_full[other]
        if lights[at].automatic != lights[first].automatic or abs(float(mine) - float(theirs)) > ONE_DIAL:
            yield remark("one_group", light=at, first=first, group=group_name)


def _flat(setup: Setup) -> Iterator[Remark]:
    """How much darker the ends of what lies flat are, a table top say, by a small key."""
    ends = ends_of(setup, {})
    if ends is not None and -ends > EVEN_STOPS:
        metres = float(group.distance_for_ends(setup.stage.width_m, EVEN_STOPS, group.FLAT))
        yield remark("flat_falls", stops=ends, metres=metres)


def _group(solved: Solved, found: tuple[Level, ...]) -> Iterator[Remark]:
    """Whether the lights cover a group, and how even it is; what would make it so."""
    setup, stage, key = solved.setup, solved.setup.stage, key_of(solved.setup)
    if key is None:
        return
    short = uncovered(key, stage.width_m)
    if short is not None:
        yield remark("group_uncovered", across=short[0], beam=short[1])
    totals = totals_of(found)
    ends, depth = ends_of(setup, totals), row_of(setup, totals)
    if ends is not None and abs(ends) > EVEN_STOPS:
        yield remark("ends_fall", stops=ends, metres=float(group.distance_for_ends(stage.width_m, EVEN_STOPS)))
    if depth is not None and -depth > EVEN_STOPS:
        yield remark("depth_falls", stops=depth, metres=float(group.distance_for_depth(stage.depth_m, EVEN_STOPS)),
                     crossed=_crossed(setup, key.distance_m))  # fmt: skip


def _crossed(setup: Setup, distance_m: float) -> float:
    """How uneven two lights make a group that are crossed, each from beside one end and aimed at the other [stops]."""
    half, deep = setup.stage.width_m / 2, setup.stage.depth_m
    lights = np.array([[-half, -distance_m], [half, -distance_m]])
    people = np.array([[x, y] for x in np.linspace(-half, half, 9) for y in np.linspace(0, deep, 3)])
    found = group.row_levels(people, lights, np.array([[half, deep], [-half, deep]]), 1e6)
    return float(np.max(found) - np.min(found))
