"""Motion: how far the picture of something moving blurs, and how short a flash or shutter freezes it."""

import numpy as np

from .arrays import Figure, outside

G = 9.80665  # standard gravity [m/s2], ISO 80000-3


def fall_speed(height_m: Figure) -> Figure:
    """Speed after a fall from rest: sqrt(2 g h).

    Parameters
    ----------
    height_m : fallen [m], not negative, any shape

    Returns
    -------
    Speed [m/s], of the same shape.

    Raises
    ------
    ValueError : for a height below nothing

    Examples
    --------
    >>> round(float(fall_speed(0.2)), 2)
    1.98
    """
    outside(np.asarray(height_m) < 0, "a height that is fallen")
    return np.sqrt(2 * G * np.asarray(height_m))


def blur_mm(speed_m_s: Figure, seconds: Figure, frame_width_mm: Figure, field_width_m: Figure) -> Figure:
    """Blur on the sensor: speed x duration x magnification.

    Parameters
    ----------
    speed_m_s, seconds : across the frame [m/s], and how long it is lit [s]
    frame_width_mm, field_width_m : of the sensor [mm], and of what it shows there [m]; shapes that broadcast

    Returns
    -------
    Length [mm], of the broadcast shape.

    Raises
    ------
    ValueError : where the frame shows nothing

    Examples
    --------
    >>> round(float(blur_mm(2, 1 / 1000, 36, 0.6)), 2)
    0.12
    """
    outside(np.asarray(field_width_m) <= 0, "a field that has a width")
    return speed_m_s * seconds * frame_width_mm / field_width_m


def longest_s(speed_m_s: Figure, tolerable_mm: Figure, frame_width_mm: Figure, field_width_m: Figure) -> Figure:
    """Longest exposure that keeps the blur tolerable: `blur_mm` backwards.

    Parameters
    ----------
    speed_m_s, frame_width_mm, field_width_m : as there; a speed above nothing
    tolerable_mm : blur that may be [mm]; shapes that broadcast

    Returns
    -------
    Time [s], of the broadcast shape.

    Raises
    ------
    ValueError : where nothing moves, so that any time would do, or the frame shows nothing

    Examples
    --------
    >>> round(float(1 / longest_s(1.98, 0.03, 36, 0.6)))
    3960
    """
    outside(np.asarray(speed_m_s) <= 0, "something that moves")
    return tolerable_mm / blur_mm(speed_m_s, 1.0, frame_width_mm, field_width_m)
