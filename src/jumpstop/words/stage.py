"""The stage in words and figures: the frame as it would come out, the set from above, each light in a line."""

import math
from dataclasses import dataclass

from ..core.kit.modifier import fits_unit
from ..core.plan.camera.methods import Method
from ..core.plan.light.levels import Level
from ..core.plan.light.reach import BLOCKED, Solved
from ..core.plan.stage.above import RINGS, StageDrawing, short_side, softness, stage_of
from ..core.plan.stage.picture import Tone, dark_from_m, framing_of, same_size, tones_of
from ..core.plan.stage.surfaces import Rendered, rendered
from ..core.scene.light import Light
from ..core.scene.receivers import RECEIVERS
from ..core.scene.stage import SubjectKind
from .figures import DisplayUnits, amount, decimal, dial, length, share, stops
from .kit import RECEIVER_NAMES, ROLES
from .verdict import RIGHT


@dataclass(slots=True)
class ToneText:
    """One part of the picture: its colours as #rrggbb, by the ambient alone and with flash; and its level in words."""

    receiver: str
    ambient: str
    total: str
    clipped: bool
    says: str


@dataclass(slots=True)
class LensText:
    """Another lens that shows the subject as large: where camera and background then are [m], and what it does."""

    focal_mm: float
    subject_m: float
    background_m: float
    says: str


@dataclass(slots=True)
class FrameText:
    """The frame: tones, where things fall in it (shares of width and height), blur as a share, the part flash leaves
    dark and at which edge, and all of it in words."""

    kind: SubjectKind
    people: int
    upright: bool
    head: float
    feet: float
    width: float
    horizon: float
    blur: float
    dark: float
    dark_edge: str
    lenses: list["LensText"]
    lit_right: bool
    tones: list[ToneText]
    says: str


@dataclass(slots=True)
class Ring:
    """A ring of equal exposure on faces: its level, and its radius [m]."""

    level: str
    radius_m: float


@dataclass(slots=True)
class LightText:
    """One light: its line (role, unit, dial, level, what is over or under) and its place from above [m, degrees].
    brief: its distance and height, to be written beside it."""

    role: str
    on: bool
    unit: str
    dial: str
    level: str
    off: str
    placed: bool
    x_m: float
    y_m: float
    height_m: float
    points_deg: float
    beam_deg: float | None
    rings: list[Ring]
    where: str
    brief: str
    soft: str
    fits: bool
    shadow: list[float] | None
    shadow_in_frame: bool


@dataclass(slots=True)
class StageText:
    """The set from above [m; x to the camera's right, y away from it, the subject at 0], and the frame."""

    frame: FrameText
    lights: list[LightText]
    camera_m: float
    view_deg: float | None
    background_m: float | None
    sun_bearing_deg: float | None
    face_m: float
    facing_deg: float
    width_m: float
    depth_m: float
    height_m: float
    camera_height_m: float
    ceiling_m: float | None
    left_wall_m: float | None
    right_wall_m: float | None
    panel_m: float | None


def stage_text(
    solved: Solved, method: Method, units: tuple[int | None, ...], found: tuple[Level, ...], words: DisplayUnits
) -> StageText:
    """The document, for one method and the unit of each light."""
    stage, asked = stage_of(solved, method.kind, units), solved.setup.stage
    return StageText(
        frame=_frame(solved, method, found, words),
        lights=[_light(solved, method, at, unit, stage, found, words) for at, unit in enumerate(units)],
        camera_m=round(stage.camera_m, 3),
        view_deg=None if stage.view_deg is None else round(stage.view_deg, 2),
        background_m=None if stage.background_m is None else round(stage.background_m, 3),
        sun_bearing_deg=None if stage.sun is None else round(stage.sun[0], 1),
        face_m=round(asked.face_m, 3),
        facing_deg=asked.facing_deg,
        width_m=asked.width_m,
        depth_m=asked.depth_m,
        height_m=asked.height_m,
        camera_height_m=asked.camera_height_m,
        ceiling_m=asked.ceiling_m,
        left_wall_m=asked.left_wall_m,
        right_wall_m=asked.right_wall_m,
        panel_m=solved.setup.ambient.panel.size_m if solved.setup.ambient.subject == "panel" else None,
    )


def _frame(solved: Solved, method: Method, found: tuple[Level, ...], words: DisplayUnits) -> FrameText:
    framing, tones = framing_of(solved.setup, method), tones_of(solved, found)
    texts = [_tone(tone, level) for tone, level in zip(tones, found, strict=True)]
    said = [one.says for one in texts if not (of := RECEIVERS[one.receiver]).grouped and not of.seldom]
    short = short_side(solved.setup)
    if short is not None:
        said.append(f"key on the {'short' if short else 'broad'} side")
    dark = dark_from_m(solved, found)
    if dark is not None:
        said.append(f"4 stops under from {length(dark, words)} behind")
    if method.lit < 1:
        said.append(f"{share(1 - method.lit)} of the frame gets no flash")
    said += [_surface(one) for one in rendered(solved.setup, found)]
    return FrameText(
        kind=solved.setup.stage.kind,
        people=solved.setup.stage.people,
        upright=framing.upright,
        head=round(framing.head, 4),
        feet=round(framing.feet, 4),
        width=round(framing.width, 4),
        horizon=round(framing.horizon, 4),
        blur=round(framing.blur, 5),
        dark=round(1 - method.lit, 4),
        dark_edge=method.dark_edge,
        lenses=[
            LensText(
                one.focal_mm,
                one.subject_m,
                one.background_m,
                f"{one.focal_mm:.0f} mm from {length(one.subject_m, words)}: "
                f"background {decimal(one.grows, '.2g')} times as large",
            )
            for one in same_size(solved.setup)
        ],
        lit_right=solved.placing.lit_right,
        tones=texts,
        says=", ".join(said),
    )


def _surface(one: Rendered) -> str:
    """A tone on the subject: white and by how much it clips, or how bright it is shown."""
    name = one.tone.name
    if one.mirrored and one.over > 0:
        return f"{name} shows the light itself, white by {amount(one.over)}"
    if one.over > 0:
        return f"{name} clipped by {amount(one.over)}"
    return f"{name} {one.value * 255:.0f} of 255"


def _tone(tone: Tone, level: Level) -> ToneText:
    clipped = ", clipped" if tone.clipped else ""
    return ToneText(
        receiver=tone.receiver,
        ambient=_hex(tone.ambient),
        total=_hex(tone.total),
        clipped=tone.clipped,
        says=f"{RECEIVER_NAMES[tone.receiver]} {stops(level.total)}{clipped}",
    )


def _hex(rgb: tuple[float, float, float]) -> str:
    red, green, blue = rgb
    return f"#{round(red * 255):02x}{round(green * 255):02x}{round(blue * 255):02x}"


def _light(
    solved: Solved,
    method: Method,
    at: int,
    unit: int | None,
    stage: StageDrawing,
    found: tuple[Level, ...],
    words: DisplayUnits,
) -> LightText:
    """A light's line; the key's level counts the ambient and what the others add, the others' is their own."""
    light, placed, shadow = solved.setup.lights[at], stage.lights[at], stage.shadows[at]
    name, set_to, level, off = "", "", "", ""
    if unit is not None:
        reach, one = solved.reach(method.kind, at), solved.table.units[unit]
        name = one.name
        if str(reach.verdict[unit]) != BLOCKED:
            set_to = dial(one.scale, float(reach.below_full[unit]), words, one.watt_seconds)
            alone = float(reach.flash_at_dial[unit])
            size = found[reach.receiver].total if light.role == "key" else alone
            level = f"{RECEIVER_NAMES[solved.placing.receivers[reach.receiver]]} {stops(size)}"
            missed = float(reach.off_stops[unit])
            off = "" if abs(missed) < RIGHT else f"{amount(missed)} {'over' if missed > 0 else 'under'}"
    return LightText(
        role=ROLES[light.role],
        on=light.on,
        unit=name,
        dial=set_to,
        level=level,
        off=off,
        placed=light.position is not None,
        x_m=round(placed.at[0], 3),
        y_m=round(placed.at[1], 3),
        height_m=round(placed.at[2], 3),
        points_deg=round(placed.points_deg, 2),
        beam_deg=None if placed.beam_deg is None else round(placed.beam_deg, 2),
        rings=[
            Ring(stops(ring, 0), round(radius, 3))
            for ring, radius in zip(RINGS, placed.rings, strict=False)
            if not math.isnan(radius)
        ],
        where=where_words(solved.setup.lights[at], words),
        brief=_brief(solved.setup.lights[at], words),
        soft=_soft(softness(solved.setup, light)) if light.role != "background" else "",
        fits=_fits(solved, at),
        shadow=None if shadow is None else [round(one, 3) for one in (*shadow.foot, *shadow.tip)],
        shadow_in_frame=shadow is not None and shadow.in_frame,
    )


def _fits(solved: Solved, at: int) -> bool:
    """Whether what a light has in front of it is made for the unit that it has taken."""
    mod, unit = solved.setup.lights[at].modifier, solved.taken[at]
    if mod is None or unit is None:
        return True
    one = solved.table.units[unit]
    return fits_unit(mod, one.kind, one.name, one.mount)


def _soft(size: float) -> str:
    return "soft" if size >= 1 else "half soft" if size >= 0.4 else "hard"


def where_words(light: Light, words: DisplayUnits) -> str:
    """Where a light stands: its distance, to which side, how high."""
    metres = length(light.distance_m, words)
    if light.position is None:
        return metres
    bearing = light.position.bearing_deg
    side = (
        "from the camera's side" if bearing == 0 else f"{abs(bearing):.0f}° to the {'right' if bearing > 0 else 'left'}"
    )
    return f"{metres}, {side}, {length(light.position.height_m, words)} up"


def _brief(light: Light, words: DisplayUnits) -> str:
    metres = length(light.distance_m, words)
    return metres if light.position is None else f"{metres}, {length(light.position.height_m, words)} up"
