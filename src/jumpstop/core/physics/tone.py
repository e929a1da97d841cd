"""Tones of a picture: linear light to sRGB, and the colour of light by its temperature."""

import numpy as np

from .arrays import Figure, Floats

XYZ_TO_SRGB = np.array(
    [[3.2406, -1.5372, -0.4986], [-0.9689, 1.8758, 0.0415], [0.0557, -0.2040, 1.0570]]
)  # IEC 61966-2-1
CLIP = 1.0  # linear light at which a picture has no more to give


def srgb(linear: Figure) -> Floats:
    """sRGB value (0 to 1) of linear light (0 to 1, clipped). Grey of 0.18: 118 of 255. Source: IEC 61966-2-1."""
    light = np.clip(np.asarray(linear, dtype=float), 0.0, CLIP)
    return np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.power(light, 1 / 2.4) - 0.055)


def linear(value: Figure) -> Floats:
    """Linear light (0 to 1) of an sRGB value (0 to 1). Source: IEC 61966-2-1."""
    shown = np.clip(np.asarray(value, dtype=float), 0.0, 1.0)
    return np.where(shown <= 0.04045, shown / 12.92, np.power((shown + 0.055) / 1.055, 2.4))


AS_WHITE = 254  # of 255: a value from which a picture is as good as white
GREY = 0.18  # reflectance that a correct exposure renders as middle grey (118 of 255)
WHITE, LIGHT_SKIN, MEDIUM_SKIN, DARK_SKIN = 0.9, 0.36, 0.2, 0.10
"""Reflectances of what is white, and of skin; from memory."""
BLACK_CLOTH = 0.04  # from memory
POLISHED, CHROME = 0.05, 0.6  # what polished leather and chrome mirror, head on; from memory


def patch_stops(light: Figure, reflectance: Figure = GREY) -> Floats:
    """Stops that a patch of this linear light (0 to 1) lies from where its reflectance belongs; -inf for black."""
    with np.errstate(divide="ignore"):
        return np.log2(np.asarray(light, dtype=float) / reflectance)


def kelvin_rgb(kelvin: float) -> Floats:
    """Linear sRGB of a black body, green 1, of shape (3,); 1,667 to 25,000 K. Source: Kang et al. 2002, its splines."""
    t = min(max(kelvin, 1667.0), 25_000.0)
    a, b, c, d = (
        (-0.2661239e9, -0.2343589e6, 0.8776956e3, 0.179910)
        if t <= 4000
        else (-3.0258469e9, 2.1070379e6, 0.2226347e3, 0.240390)
    )
    x = a / t**3 + b / t**2 + c / t + d
    if t <= 2222:
        y = -1.1063814 * x**3 - 1.34811020 * x**2 + 2.18555832 * x - 0.20219683
    elif t <= 4000:
        y = -0.9549476 * x**3 - 1.37418593 * x**2 + 2.09137015 * x - 0.16748867
    else:
        y = 3.0817580 * x**3 - 5.87338670 * x**2 + 3.75112997 * x - 0.37001483
    rgb = np.maximum(XYZ_TO_SRGB @ np.array([x / y, 1.0, (1 - x - y) / y]), 1e-3)
    return np.asarray(rgb / rgb[1])


def balanced_rgb(kelvin: float, camera_k: float) -> Floats:
    """Linear colour of a light in a picture balanced for another, green 1; white where the two are the same."""
    return kelvin_rgb(kelvin) / kelvin_rgb(camera_k)
