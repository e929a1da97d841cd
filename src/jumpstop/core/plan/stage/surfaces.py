"""The tones on a subject, each by its own reflectance: how they come out, and which of them clip."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ...kit.modifier import source_of
from ...physics.tone import CLIP, srgb
from ...scene.light import Light
from ...scene.setup import Setup
from ...scene.stage import Stage, SubjectTone
from ..light.levels import Level
from .covering import key_of


@dataclass(frozen=True)
class Rendered:
    """One tone where the light is: its sRGB value (0 to 1), and the stops by which it clips, under 0 where it has room.

    mirrored: it shows the light itself, not how much of it there is.
    """

    tone: SubjectTone
    value: float
    over: float
    mirrored: bool


def skin_clips(stage: Stage) -> float:
    """Stops over correct at which the subject's skin clips: log2(1 / reflectance)."""
    return math.log2(CLIP / stage.skin)


def rendered(setup: Setup, found: Sequence[Level]) -> list[Rendered]:
    """Every tone of a subject on the side that is lit; what mirrors shows the key."""
    stage, key = setup.stage, key_of(setup)
    lit, out = next(level.total for level in found if level.receiver == "lit"), list[Rendered]()
    for tone in stage.tones:
        reflects = tone.reflectance
        if tone.mirrors and key is not None:
            reflects /= seen_share(key)
        over = lit + math.log2(reflects / CLIP)
        out.append(Rendered(tone, float(srgb(2.0 ** min(over, 0.0))), over, tone.mirrors))
    return out


def seen_share(light: Light) -> float:
    """How much of the light a matt white gives back in one direction against the face of the light seen in a mirror: a
    face of half-angle a lights with pi L sin^2 a, of which white returns L sin^2 a (Lambert)."""
    squared = source_of(light.modifier).area_m2 / math.pi  # of the radius of as large a disc
    return squared / (squared + light.distance_m**2)
