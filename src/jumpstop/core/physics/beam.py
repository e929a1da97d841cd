"""Beams: angle of view by focal length, solid angle, and what a change of coverage does to the light on the axis."""

import math

import numpy as np

from .arrays import Figure
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
    """Diagonal angle of view [degrees] of a focal length on 36 x 24 mm: 24 mm 84.1, 35 63.4, 200 12.3."""
    return np.degrees(2 * np.arctan(FRAME_DIAGONAL_MM / 2 / np.asarray(zoom_mm)))


def horizontal_deg(zoom_mm: Figure) -> Figure:
    """Horizontal angle of view [degrees] of a focal length on 36 x 24 mm: 24 mm 73.7, 35 54.4, 200 10.3."""
    return np.degrees(2 * np.arctan(18 / np.asarray(zoom_mm)))


def solid_angle_sr(angle_deg: Figure) -> Figure:
    """Solid angle [sr] of a round beam of this full angle: 2 pi (1 - cos(angle / 2))."""
    return 2 * math.pi * (1 - np.cos(np.radians(angle_deg) / 2))


def moved_stops(from_deg: Figure, to_deg: Figure) -> Figure:
    """Stops gained when a beam is moved between coverages with only one of them quoted (see CONCENTRATION)."""
    return CONCENTRATION * stops_of(solid_angle_sr(from_deg) / solid_angle_sr(to_deg))


def frame_solid_angle_sr(focal_mm: Figure) -> Figure:
    """Solid angle [sr] of the 36 x 24 frame behind a focal length: 4 atan(w h / (2 f sqrt(4 f^2 + w^2 + h^2)))."""
    f = np.asarray(focal_mm, dtype=float)
    return 4 * np.arctan(36 * 24 / (2 * f * np.sqrt(4 * f * f + 36**2 + 24**2)))


def spread_stops(from_mm: Figure, to_mm: Figure) -> Figure:
    """Stops gained where all of a beam that fills one frame is spread over another: 24 to 14 mm, -0.99."""
    return stops_of(np.asarray(frame_solid_angle_sr(from_mm)) / frame_solid_angle_sr(to_mm))
