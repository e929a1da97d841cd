"""The frame as it would come out: tones from the computed levels, where things fall in it, and what is clipped."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ...physics import tone
from ...physics.arrays import Floats
from ...physics.tone import GREY
from ...scene.receivers import RECEIVERS
from ...scene.setup import Setup
from ..camera import colour
from ..camera.framing import on_frame
from ..camera.look import NOTHING_SEEN_STOPS, blur_of
from ..camera.methods import Method
from ..light.levels import Level, by_receiver
from ..light.reach import Solved


@dataclass(frozen=True)
class Tone:
    """One part of the picture: its colour (sRGB, 0 to 1), by the ambient alone and with flash; and whether it clips."""

    receiver: str
    ambient: tuple[float, float, float]
    total: tuple[float, float, float]
    clipped: bool


@dataclass(frozen=True)
class Framing:
    """Where things fall in the frame, as shares of its width and height from the left and the top.

    head, feet: heights of the top and the foot of the subject. width: of the subject or group. horizon: its height.
    upright: the frame is taller than wide. said: whether lens and distances were said.
    """

    upright: bool
    head: float
    feet: float
    width: float
    horizon: float
    blur: float
    said: bool


def framing_of(setup: Setup, method: Method) -> Framing:
    """Where the subject and the horizon fall."""
    stage, blur = setup.stage, blur_of(setup, method.camera.f_number)
    head, feet = on_frame(setup, 0, 0, stage.height_m), on_frame(setup, 0, 0, 0)
    side, far = on_frame(setup, stage.width_m / 2, 0, stage.face_m), on_frame(setup, 0, 1e5, stage.camera_height_m)
    return Framing(
        upright=setup.aim.orientation != "landscape",
        head=head[1] if head else 0.0,
        feet=feet[1] if feet else 1.0,
        width=2 * (side[0] - 0.5) if side else 1.0,
        horizon=far[1] if far else 0.5,
        blur=blur.share if blur else 0.0,
        said=setup.aim.lens is not None,
    )


DEPTHS_M = np.geomspace(0.1, 50, 120)


def dark_from_m(solved: Solved, found: tuple[Level, ...]) -> float | None:
    """How far behind the subject it goes dark [m]: where ambient and the lights that stand before it, falling off with
    the square of their distance, leave NOTHING_SEEN_STOPS of correct; None where it does not as far as is looked at."""
    levels = by_receiver(found)
    face, light = solved.setup.stage.face_m, np.full(len(DEPTHS_M), 2.0 ** levels["background"].ambient)
    for at, (x, y, z) in enumerate(solved.placing.at):
        there = levels["lit"].lights[at]
        if y <= 0 and np.isfinite(there):
            metres = np.sqrt(x**2 + (DEPTHS_M - y) ** 2 + (face - z) ** 2)
            light += np.exp2(there + 2 * np.log2(solved.setup.lights[at].distance_m / metres))
    dark = np.flatnonzero(np.log2(light) < NOTHING_SEEN_STOPS)
    return float(DEPTHS_M[dark[0]]) if len(dark) else None


LENSES_MM = (24.0, 35.0, 50.0, 85.0, 135.0, 200.0)  # other lenses that are told; from memory


@dataclass(frozen=True)
class SameSize:
    """Another lens at the same size of the subject: where camera and background then are [m], and how many times as
    large the background looks."""

    focal_mm: float
    subject_m: float
    background_m: float
    grows: float


def same_size(setup: Setup) -> list[SameSize]:
    """Other lenses from where the subject is as large; none where no lens is said."""
    lens, out = setup.aim.lens, []
    for focal in LENSES_MM if lens else ():
        assert lens is not None
        subject = lens.subject_m * focal / lens.focal_mm
        background = subject + lens.background_m - lens.subject_m
        grows = (focal / background) / (lens.focal_mm / lens.background_m)
        if focal != lens.focal_mm:
            out.append(SameSize(focal, round(subject, 3), round(background, 3), grows))
    return out


def tones_of(solved: Solved, found: tuple[Level, ...]) -> tuple[Tone, ...]:
    """The tone of every receiver: each light in its own colour, added as light, balanced as the camera is set."""
    setup = solved.setup
    kelvin = colour.ambient_kelvin(setup.ambient, solved.ambient)
    camera = colour.camera_kelvin(setup.lights)
    gelled = [colour.gelled_kelvin(light.filtered) for light in setup.lights]
    colours = [balanced(kelvin, camera), *(balanced(one, camera) for one in gelled)]
    light = np.exp2(np.array([(level.ambient, *level.lights) for level in found]))
    reflectance = np.array([[setup.stage.skin if RECEIVERS[level.receiver].skin else GREY] for level in found])
    both = np.stack([light[:, :1] * colours[0] * reflectance, light @ np.array(colours) * reflectance])
    clipped = np.max(both[1], axis=1) > tone.CLIP
    seen = [[(red, green, blue) for red, green, blue in one] for one in tone.srgb(both).tolist()]
    return tuple(Tone(level.receiver, seen[0][at], seen[1][at], bool(clipped[at])) for at, level in enumerate(found))


@lru_cache(maxsize=64)
def balanced(kelvin: float, camera_k: float) -> Floats:
    """Linear colour of a light in a picture balanced for another; kept, as there are few."""
    return tone.balanced_rgb(kelvin, camera_k)
