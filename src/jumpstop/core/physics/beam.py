"""Beams: angle of view by focal length, solid angle, and what a change of coverage does to the light on the axis."""

import math

import numpy as np

from .arrays import Figure, outside
from .stops import stops_of

FRAME_DIAGONAL_MM = 43.267  # 36 x 24 mm
ZOOMS_MM = (
    8.0,
    10.0,
    12.0,
    14.0,
    20.0,
    24.0,
    28.0,
    35.0,
    50.0,
    70.0,
    85.0,
    105.0,
    135.0,
    200.0,
    300.0,
    400.0,
    600.0,
    800.0,
)
"""Zoom positions that are offered."""
REFERENCE_ZOOM_MM = 35.0  # every unit is compared at this coverage, 63.4 degrees across the diagonal
WIDE_FROM_MM, WIDE_PANEL_MM = 24.0, 14.0  # a wide panel over a head at its widest: makers' usual figures, from memory
CONCENTRATION = 0.4
"""How much of the gain in solid angle a real zoom head turns into light, from memory.

An ideal projector would gain every stop by which the beam's solid angle shrinks (4.7 from 35 to 200 mm). The tables
that makers of zoom heads print gain 1.2 to 1.8 over that range, and 1.5 to 2.1 from 24 to 105 mm: about 0.4 of it,
give or take half a stop."""


def coverage_deg(zoom_mm: Figure) -> Figure:
    """Diagonal angle of view of a focal length on 36 x 24 mm: 2 atan(d / (2 f)).

    Parameters
    ----------
    zoom_mm : focal length, above nothing [mm], any shape

    Returns
    -------
    Full angle [degrees], of the same shape.

    Raises
    ------
    ValueError : for no focal length at all

    Examples
    --------
    >>> coverage_deg(np.array([24, 35, 200])).round(1).tolist()
    [84.1, 63.4, 12.3]
    """
    _focal(zoom_mm)
    return np.degrees(2 * np.arctan(FRAME_DIAGONAL_MM / 2 / np.asarray(zoom_mm)))


def horizontal_deg(zoom_mm: Figure) -> Figure:
    """Horizontal angle of view of a focal length on 36 x 24 mm: 2 atan(18 / f).

    Parameters
    ----------
    zoom_mm : focal length, above nothing [mm], any shape

    Returns
    -------
    Full angle [degrees], of the same shape.

    Raises
    ------
    ValueError : for no focal length at all

    Examples
    --------
    >>> horizontal_deg(np.array([24, 35, 200])).round(1).tolist()
    [73.7, 54.4, 10.3]
    """
    _focal(zoom_mm)
    return np.degrees(2 * np.arctan(18 / np.asarray(zoom_mm)))


def solid_angle_sr(angle_deg: Figure) -> Figure:
    """Solid angle of a round beam: 2 pi (1 - cos(angle / 2)).

    Parameters
    ----------
    angle_deg : full angle of the beam, 0 to 360 [degrees], any shape

    Returns
    -------
    Solid angle [sr], of the same shape.

    Raises
    ------
    ValueError : for an angle outside of that

    Examples
    --------
    >>> round(float(solid_angle_sr(65)), 3)
    0.984
    """
    angle = np.asarray(angle_deg)
    outside((angle < 0) | (angle > 360), "a beam of 0 to 360 degrees")
    return 2 * math.pi * (1 - np.cos(np.radians(angle) / 2))


def moved_stops(from_deg: Figure, to_deg: Figure) -> Figure:
    """What a beam gains on its axis when it is moved between coverages with only one of them quoted (see
    CONCENTRATION).

    Parameters
    ----------
    from_deg, to_deg : full angles, above nothing [degrees]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape.

    Raises
    ------
    ValueError : for a beam without any angle

    Examples
    --------
    >>> round(float(moved_stops(63.4, 12.3)), 2)
    1.88
    """
    outside((np.asarray(from_deg) <= 0) | (np.asarray(to_deg) <= 0), "a beam that is open")
    return CONCENTRATION * stops_of(solid_angle_sr(from_deg) / solid_angle_sr(to_deg))


def frame_solid_angle_sr(focal_mm: Figure) -> Figure:
    """Solid angle of the 36 x 24 frame behind a focal length: 4 atan(w h / (2 f sqrt(4 f^2 + w^2 + h^2))).

    Parameters
    ----------
    focal_mm : above nothing [mm], any shape

    Returns
    -------
    Solid angle [sr], of the same shape.

    Raises
    ------
    ValueError : for no focal length at all

    Examples
    --------
    >>> round(float(frame_solid_angle_sr(24)), 3)
    1.087
    """
    _focal(focal_mm)
    f = np.asarray(focal_mm, dtype=float)
    return 4 * np.arctan(36 * 24 / (2 * f * np.sqrt(4 * f * f + 36**2 + 24**2)))


def spread_stops(from_mm: Figure, to_mm: Figure) -> Figure:
    """What is gained where all of a beam that fills one frame is spread over another.

    Parameters
    ----------
    from_mm, to_mm : focal lengths of the two frames, above nothing [mm]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape.

    Raises
    ------
    ValueError : for no focal length at all

    Examples
    --------
    >>> round(float(spread_stops(24, 14)), 2)
    -0.99
    """
    return stops_of(np.asarray(frame_solid_angle_sr(from_mm)) / frame_solid_angle_sr(to_mm))


def _focal(focal_mm: Figure) -> None:
    outside(np.asarray(focal_mm) <= 0, "a focal length")
