"""What the aperture does to the background, and what the setup's motion asks of flash and shutter."""

from dataclasses import dataclass
from typing import Literal

from ...physics import motion, optics
from ...physics.scales import APERTURES
from ...scene.seen import MethodKind
from ...scene.setup import WORTH_SHARE, Setup

FAINT_SHARE = 0.004  # background disc as a share of the frame's long side: a little blur; common practice, no source
NOTHING_SEEN_STOPS = -4.0  # under correct: nothing but the brightest is seen there, common practice


@dataclass(frozen=True)
class BackgroundBlur:
    """Limits of sharpness [m], the disc of a background point as a share of the frame's long side, and the verdict."""

    near_m: float
    far_m: float
    share: float
    verdict: Literal["worth", "faint", "none"]


def blur_of(setup: Setup, f_number: float) -> BackgroundBlur | None:
    """What an aperture does to the background, where lens and distances are said."""
    lens, body = setup.aim.lens, setup.body
    if lens is None:
        return None
    near, far = optics.depth_of_field_m(lens.focal_mm, f_number, lens.subject_m, optics.coc_mm(body.diagonal_mm))
    disc = float(optics.blur_disc_mm(lens.focal_mm, f_number, lens.subject_m, lens.background_m))
    share = disc / body.frame_width_mm
    verdict: Literal["worth", "faint", "none"] = (
        "worth" if share >= WORTH_SHARE else "faint" if share >= FAINT_SHARE else "none"
    )
    return BackgroundBlur(float(near), float(far), share, verdict)


def buys_no_blur(setup: Setup, f_number: float) -> bool:
    """Whether lens and distances are said, and the aperture blurs nothing to speak of."""
    blur = blur_of(setup, f_number)
    return blur is not None and blur.verdict == "none"


def tolerable_mm(setup: Setup) -> float:
    """Blur on the sensor that may be [mm]: as said, else the circle of confusion."""
    return setup.motion.blur_mm or float(optics.coc_mm(setup.body.diagonal_mm))


USUAL_FIELD_M = 0.6  # a field's width where neither that nor a lens is said, from memory


def field_m(setup: Setup) -> float:
    """Width of what the frame shows where the subject is [m]: as said, else by the lens."""
    lens, said = setup.aim.lens, setup.motion.field_width_m
    if said is not None:
        return said
    return USUAL_FIELD_M if lens is None else setup.body.frame_width_mm / lens.focal_mm * lens.subject_m


def blur_mm(setup: Setup, seconds: float) -> float:
    """How far what moves blurs on the sensor [mm] in this time."""
    return float(motion.blur_mm(setup.motion.speed, seconds, setup.body.frame_width_mm, field_m(setup)))


def by_hand_s(setup: Setup) -> float | None:
    """The slowest time that can be held by hand [s], stabilised as it is; None where no lens is said."""
    lens = setup.aim.lens
    if lens is None:
        return None
    crop = optics.FULL_DIAGONAL_MM / setup.body.diagonal_mm
    return float(optics.by_hand_s(lens.focal_mm, crop, setup.steadied_stops))


def spread(setup: Setup, f_number: float) -> float:
    """How much of a stop's sharpness an aperture costs by diffraction: the Airy disc over the circle of confusion."""
    return float(optics.airy_mm(float(APERTURES.exact(f_number))) / optics.coc_mm(setup.body.diagonal_mm))


def needed_s(setup: Setup) -> float:
    """Longest exposure (of flash, t.1, or of shutter) [s] that freezes what moves; as said, where it is."""
    asked = setup.motion.wanted_t01_s
    return longest_s(setup) if asked is None else asked


def longest_s(setup: Setup) -> float:
    """Longest exposure [s] that blurs what moves no more than may be."""
    tolerable = tolerable_mm(setup)
    return float(motion.longest_s(setup.motion.speed, tolerable, setup.body.frame_width_mm, field_m(setup)))


LONG_MM = 200.0  # a focal length from which a filter in front costs sharpness and finding, common practice


def spoils(setup: Setup, kind: MethodKind, f_number: float) -> bool:
    """Whether a method gives up more than it is worth: it stops down to where diffraction costs sharpness everywhere,
    or puts a filter in front of a long lens for wildlife."""
    if kind == "stop_down" and spread(setup, f_number) >= 1:
        return True
    return kind == "nd" and no_filter(setup)


def no_filter(setup: Setup) -> bool:
    """Whether a filter in front of the lens is not advised."""
    lens = setup.aim.lens
    return setup.stage.kind == "animal" and lens is not None and lens.focal_mm >= LONG_MM


def trail_share(setup: Setup) -> float:
    """How far what moves draws in the trail's time, as a share of the frame's width."""
    return blur_mm(setup, setup.motion.trail_s) / setup.body.frame_width_mm
