"""Tones of a picture: linear light to sRGB, and the colour of light by its temperature."""

import numpy as np

from .arrays import Figure, Floats, outside

XYZ_TO_SRGB = np.array(
    [[3.2406, -1.5372, -0.4986], [-0.9689, 1.8758, 0.0415], [0.0557, -0.2040, 1.0570]]
)  # IEC 61966-2-1
LOCUS_X = ((0.179910, 0.8776956e3, -0.2343589e6, -0.2661239e9), (0.240390, 0.2226347e3, 2.1070379e6, -3.0258469e9))
"""x of a black body by powers of 1 / T, up to 4,000 K and above; Kang et al. 2002."""
LOCUS_Y = (
    (-0.20219683, 2.18555832, -1.34811020, -1.1063814),
    (-0.16748867, 2.09137015, -1.37418593, -0.9549476),
    (-0.37001483, 3.75112997, -5.87338670, 3.0817580),
)
"""y by powers of x, up to 2,222 K, up to 4,000 K and above; Kang et al. 2002."""
CLIP = 1.0  # linear light at which a picture has no more to give


def srgb(linear: Figure) -> Floats:
    """sRGB value of linear light, which is clipped at white.

    Parameters
    ----------
    linear : light, 0 to 1, any shape

    Returns
    -------
    0 to 1, of the same shape.

    References
    ----------
    IEC 61966-2-1

    Examples
    --------
    >>> round(255 * float(srgb(0.18)))
    118
    """
    light = np.clip(np.asarray(linear, dtype=float), 0.0, CLIP)
    return np.where(light <= 0.0031308, 12.92 * light, 1.055 * np.power(light, 1 / 2.4) - 0.055)


def linear(value: Figure) -> Floats:
    """Linear light of an sRGB value; the inverse of `srgb`.

    Parameters
    ----------
    value : 0 to 1, any shape

    Returns
    -------
    0 to 1, of the same shape.

    References
    ----------
    IEC 61966-2-1

    Examples
    --------
    >>> round(float(linear(118 / 255)), 2)
    0.18
    """
    shown = np.clip(np.asarray(value, dtype=float), 0.0, 1.0)
    return np.where(shown <= 0.04045, shown / 12.92, np.power((shown + 0.055) / 1.055, 2.4))


AS_WHITE = 254  # of 255: a value from which a picture is as good as white
GREY = 0.18  # reflectance that a correct exposure renders as middle grey (118 of 255)
WHITE, LIGHT_SKIN, MEDIUM_SKIN, DARK_SKIN = 0.9, 0.36, 0.2, 0.10
"""Reflectances of what is white, and of skin; from memory."""
BLACK_CLOTH = 0.04  # from memory
POLISHED, CHROME = 0.05, 0.6  # what polished leather and chrome mirror, head on; from memory


def patch_stops(light: Figure, reflectance: Figure = GREY) -> Floats:
    """How far a patch lies from where its reflectance belongs.

    Parameters
    ----------
    light : linear, 0 to 1
    reflectance : of the patch, above nothing; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape; -inf for black.

    Raises
    ------
    ValueError : for what reflects nothing

    Examples
    --------
    >>> float(patch_stops(0.36))
    1.0
    """
    outside(np.asarray(reflectance) <= 0, "a patch that reflects")
    with np.errstate(divide="ignore"):
        return np.log2(np.asarray(light, dtype=float) / reflectance)


def kelvin_rgb(kelvin: Figure) -> Floats:
    """Linear sRGB of a black body, green 1; temperatures beyond 1,667 to 25,000 K as their ends.

    Parameters
    ----------
    kelvin : [K], any shape

    Returns
    -------
    Red, green, blue, of shape (..., 3).

    References
    ----------
    Kang et al. 2002, its splines

    Examples
    --------
    >>> red, green, blue = kelvin_rgb(2900)
    >>> bool(red > green > blue)
    True
    """
    t = np.clip(np.asarray(kelvin, dtype=float), 1667.0, 25_000.0)
    low, high = (np.polynomial.Polynomial(one)(1 / t) for one in LOCUS_X)
    x = np.where(t <= 4000, low, high)
    coldest, cold, hot = (np.polynomial.Polynomial(one)(x) for one in LOCUS_Y)
    y = np.where(t <= 2222, coldest, np.where(t <= 4000, cold, hot))
    rgb = np.maximum(np.stack([x / y, np.ones_like(y), (1 - x - y) / y], axis=-1) @ XYZ_TO_SRGB.T, 1e-3)
    return np.asarray(rgb / rgb[..., 1:2])


def balanced_rgb(kelvin: Figure, camera_k: Figure) -> Floats:
    """Linear colour of a light in a picture balanced for another, green 1; white where the two are the same.

    Parameters
    ----------
    kelvin, camera_k : of the light, and of the picture [K]; shapes that broadcast

    Returns
    -------
    Red, green, blue, of shape (..., 3).

    Examples
    --------
    >>> balanced_rgb(3200, 3200).tolist()
    [1.0, 1.0, 1.0]
    """
    return kelvin_rgb(kelvin) / kelvin_rgb(camera_k)
