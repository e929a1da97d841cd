"""White balance and gel: the colour of the light that is there, and what brings the flash to it."""

from collections.abc import Sequence
from dataclasses import dataclass

from ...kit.gel import GEL_FIGURES, MATCHING, NO_GEL, Gel, GelFigures
from ...physics.colour import FLASH_K, mired_shift
from ...physics.light_values import LIGHT_VALUES
from ...scene.ambient import AmbientSpec
from ...scene.light import Light
from .ambient import Ambient

SHADE_K, OVERCAST_K, SUN_K = 7500.0, 6500.0, 5500.0
"""Open shade under a blue sky; from memory; under cloud; from memory; sun with its sky; from memory."""
WARM_SUN_DEG, WARM_SUN_K = 10.0, 4000.0  # a sun as low as this is this warm, from memory

MATCHED_MIRED = 20.0  # what is nearer than this matches; common practice
STEP_K = 100.0  # steps in which a camera's balance is told


@dataclass(frozen=True)
class Off:
    """A light of another colour than the balance. mired: how much warmer (positive); None: it has no temperature."""

    light: int
    mired: float | None


@dataclass(frozen=True)
class Balance:
    """The light that is there [K], the gel that brings the flash nearest to it, how much warmer it still is than that
    [mired], the gel that the balance is for, the white balance to set [K], and lights of another colour."""

    ambient_k: float
    gel: Gel
    left_mired: float
    on: Gel
    camera_k: float
    off: tuple[Off, ...]

    @property
    def matched(self) -> bool:
        """Whether the gel that is on brings the flash to the light that is there."""
        return abs(float(mired_shift(self.camera_k, self.ambient_k))) <= MATCHED_MIRED


def ambient_kelvin(spec: AmbientSpec, ambient: Ambient) -> float:
    """Colour temperature of the light on the subject [K]."""
    lamps = spec.lamps_lux is not None or (spec.by == "condition" and LIGHT_VALUES[spec.condition].lamps)
    if lamps and spec.lamps_on and (spec.by != "sun" or ambient.background_ev < 8):
        return spec.lamps_k if spec.lamps_lux is not None else LIGHT_VALUES[spec.condition].kelvin
    blue = spec.sky != "overcast" if spec.by == "sun" else LIGHT_VALUES[spec.condition].where == "sun"
    if spec.subject in ("shade", "panel") and blue:
        return SHADE_K
    if spec.by != "sun":
        return LIGHT_VALUES[spec.condition].kelvin
    if spec.sky == "overcast":
        return OVERCAST_K
    low = ambient.sun is not None and ambient.sun[0] < WARM_SUN_DEG
    return WARM_SUN_K if low else SUN_K


def gelled_kelvin(figures: GelFigures) -> float:
    """Colour temperature of flash light through a gel [K]; of one that has none, that of the flash."""
    return 1e6 / (1e6 / FLASH_K + (figures.mired or 0.0))


def _leading(lights: Sequence[Light]) -> Light | None:
    """The light that the camera is balanced for: the key, or where there is none the first that is on."""
    lit = [light for light in lights if light.on]
    return next((light for light in lit if light.role == "key"), lit[0] if lit else None)


def balance(spec: AmbientSpec, ambient: Ambient, lights: Sequence[Light]) -> Balance:
    """What to set and what to put on: the nearest gel by mired, and the balance for the flash as it is now.

    The balance is the key's, or where there is none the first light's; a gel for effect is not balanced away.
    """
    kelvin = ambient_kelvin(spec, ambient)
    wanted = float(mired_shift(FLASH_K, kelvin))
    gel = min(MATCHING, key=lambda one: abs((GEL_FIGURES[one].mired or 0.0) - wanted))
    first, camera = _leading(lights), camera_kelvin(lights)
    off = []
    for at, light in enumerate(lights):
        mired = light.filtered.mired
        shift = None if mired is None else float(mired_shift(camera, gelled_kelvin(light.filtered)))
        if light.on and (shift is None or abs(shift) > MATCHED_MIRED):
            off.append(Off(at, shift))
    on: Gel = first.gel if first is not None and first.gel_for == "match" else "none"
    return Balance(kelvin, gel, wanted - (GEL_FIGURES[gel].mired or 0.0), on, camera, tuple(off))


def camera_kelvin(lights: Sequence[Light]) -> float:
    """The white balance to set for these lights [K] (see `balance`)."""
    first = _leading(lights)
    figures = NO_GEL if first is None or first.gel_for == "effect" else first.filtered
    return round(gelled_kelvin(figures) / STEP_K) * STEP_K
