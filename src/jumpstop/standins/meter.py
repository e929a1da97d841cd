"""A flash meter held where the light falls, set to the camera's ISO and time; and the camera's own needle."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..core.physics import stops
from ..core.physics.scales import APERTURES, STOP_OF, Step
from ..core.scene.seen import SD_METER
from .rig import Exposed

MeterKind = Literal["flash", "ambient", "both"]
NEEDLE_ENDS = 3.0  # stops: a camera's needle goes no farther, common practice
NEEDLE_STEP = 1 / 3


class CannotReadError(Exception):
    """The meter has nothing to read; `code` says why."""

    def __init__(self, code: Literal["hss", "no_flash", "too_dark", "too_bright"]) -> None:
        super().__init__(code)
        self.code = code


@dataclass(frozen=True)
class Metered:
    """What the meter shows: an aperture on its steps, at the camera's ISO and time; and what that is [stops], as exact
    as it was shown, filters on the lens counted."""

    kind: MeterKind
    f_number: float
    stops: float


def level_at(frame: Exposed, light: int, kind: MeterKind) -> float:
    """What there is to read at a light's own receiver [stops from correct]."""
    found = frame.levels[frame.solved.placing.own[light]]
    if kind == "ambient":
        return found.ambient
    flash = float(np.asarray(stops.add_light(*found.lights)))
    return flash if kind == "flash" else found.total


def read(frame: Exposed, light: int, kind: MeterKind, rng: np.random.Generator | None, step: Step = "third") -> Metered:
    """A reading, with its own noise where `rng` is given. Raises CannotReadError: it sees no trains of pulses."""
    if frame.kind == "hss" and kind != "ambient":
        raise CannotReadError("hss")
    level = level_at(frame, light, kind)
    if math.isinf(level):
        raise CannotReadError("no_flash")
    camera = frame.rig.camera
    noise = 0.0 if rng is None else float(rng.normal(0.0, SD_METER))
    # The meter has no filter on it: it reads what the lens would get without.
    exact = APERTURES.moved(camera.f_number, level + camera.nd_stops + noise)
    if exact < APERTURES.exact(min(APERTURES.steps[step])) / math.sqrt(2):
        raise CannotReadError("too_dark")
    if exact > APERTURES.exact(max(APERTURES.steps[step])) * 2 ** (STOP_OF[step] / 4):
        raise CannotReadError("too_bright")
    shown = APERTURES.marked(exact, step)
    seen = 2 * math.log2(float(APERTURES.exact(shown)) / float(APERTURES.exact(camera.f_number))) - camera.nd_stops
    return Metered(kind, shown, seen)


def needle(frame: Exposed) -> float:
    """The camera's needle on the background, without flash [stops], on its thirds and no farther than it goes."""
    level = frame.level("background").ambient
    shown = round(level / NEEDLE_STEP) * NEEDLE_STEP
    return min(max(shown, -NEEDLE_ENDS), NEEDLE_ENDS)
