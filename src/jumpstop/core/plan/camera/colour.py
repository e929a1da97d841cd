"""White balance and gel: the colour of the light that is there, and what brings the flash to it."""

from dataclasses import dataclass

from ...kit.modifier import GELS, Gel
from ...physics.colour import FLASH_K, mired_shift
from ...physics.light_values import LIGHT_VALUES
from ...scene.ambient import AmbientSpec
from .ambient import Ambient

SHADE_K, OVERCAST_K, SUN_K = 7500.0, 6500.0, 5500.0
"""Open shade under a blue sky; from memory; under cloud; from memory; sun with its sky; from memory."""
LOW_SUN_DEG, LOW_SUN_K = 10.0, 4000.0  # a sun as low as this is this warm, from memory

# Mired shifts of orange correction gels; typical of filter makers' data sheets, from memory.
GEL_MIRED: dict[Gel, float] = {
    "none": 0.0,
    "eighth_orange": 20.0,
    "quarter_orange": 42.0,
    "half_orange": 81.0,
    "full_orange": 131.0,
}
MATCHED_MIRED = 15.0  # what is nearer than this looks alike, from memory
STEP_K = 100.0  # steps in which a camera's balance is told


@dataclass(frozen=True)
class Balance:
    """The light that is there [K], the gel that brings the flash nearest to it, what is left between them [mired,
    positive: the ambient is still warmer], and the white balance to set [K]."""

    ambient_k: float
    gel: Gel
    left_mired: float
    camera_k: float


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
    low = ambient.sun is not None and ambient.sun[0] < LOW_SUN_DEG
    return LOW_SUN_K if low else SUN_K


def gelled_kelvin(gel: Gel) -> float:
    """Colour temperature of flash light through a gel [K]."""
    return 1e6 / (1e6 / FLASH_K + GEL_MIRED[gel])


def balance(spec: AmbientSpec, ambient: Ambient, gel_on: Gel) -> Balance:
    """What to set and what to put on: the nearest gel by mired, and the balance for flash and gel as they are now."""
    kelvin = ambient_kelvin(spec, ambient)
    wanted = float(mired_shift(FLASH_K, kelvin))
    gel = min(GELS, key=lambda one: abs(GEL_MIRED[one] - wanted))
    return Balance(kelvin, gel, wanted - GEL_MIRED[gel], camera_kelvin(gel_on))


def camera_kelvin(gel_on: Gel) -> float:
    """The white balance to set for flash behind this gel [K]."""
    return round(gelled_kelvin(gel_on) / STEP_K) * STEP_K
