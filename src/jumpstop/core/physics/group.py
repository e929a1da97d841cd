"""Covering a group from a small source on its middle axis: how wide, how even, and how far off it has to stand."""

import numpy as np

from .arrays import Figure, domain

FACES, FLAT = 2.0, 3.0
"""Powers of the cosine by which the ends fall: faces turned to the light, and a flat surface parallel to the row."""


def across_deg(width_m: Figure, distance_m: Figure) -> Figure:
    """Horizontal angle [degrees] that a width takes up: 2 atan(W / 2D). 6 m from 4 m: 73.7."""
    return np.degrees(2 * np.arctan(np.asarray(width_m) / 2 / distance_m))


def ends_fall(width_m: Figure, distance_m: Figure, power: float = FACES) -> Figure:
    """Stops that the ends of a row get less than its middle: power x log2(cos theta); beam edge apart."""
    return power * np.log2(np.cos(np.arctan(np.asarray(width_m) / 2 / distance_m)))


def distance_for_ends(width_m: Figure, stops: Figure, power: Figure = FACES) -> Figure:
    """Distance from which the ends of a row fall by so much, or less farther off: `ends_fall` backwards.

    Parameters
    ----------
    width_m, stops : of the row [m], and what its ends may have less [stops, positive]
    power : of the cosine, FACES or FLAT; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for ends that fall by nothing, which no distance gives

    Examples
    --------
    >>> round(float(ends_fall(6.0, distance_for_ends(6.0, 1 / 3))), 3)
    -0.333
    """
    domain(np.asarray(stops) > 0, "ends that fall by something")
    return np.asarray(width_m) / 2 / np.tan(np.arccos(np.exp2(-np.asarray(stops) / power)))


def distance_for_depth(depth_m: Figure, stops: Figure) -> Figure:
    """Distance to the first row from which the last one has so much less, by the inverse square.

    Parameters
    ----------
    depth_m, stops : from the first row to the last [m], and what that may have less [stops, positive]; shapes that
        broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for a row that falls by nothing, which no distance gives

    Examples
    --------
    >>> round(float(distance_for_depth(2.0, 1 / 3)), 1)
    16.3
    """
    domain(np.asarray(stops) > 0, "a row that falls by something")
    return depth_m / (np.exp2(np.asarray(stops) / 2) - 1)


def row_levels(at_m: np.ndarray, lights_m: np.ndarray, axes: np.ndarray, beam_deg: float) -> np.ndarray:
    """Light along a row of faces [stops against one light at one metre on its axis], of shape (points,).

    at_m: places of faces, of shape (points, 2) [m]. lights_m: places of equal small lights, of shape (lights, 2). axes:
    the points they are aimed at, likewise. beam_deg: horizontal angle of their beams. Faces count as turned to each.
    """
    way = at_m[:, None, :] - lights_m[None]
    aim = (axes - lights_m)[None]
    distance = np.linalg.norm(way, axis=2)
    cosine = np.sum(way * aim, axis=2) / distance / np.linalg.norm(aim, axis=2)
    off = np.degrees(np.arccos(np.clip(cosine, -1, 1)))
    return np.log2(np.sum(np.exp2(off_axis(off, beam_deg)) / distance**2, axis=1))


def off_axis(off_deg: Figure, beam_deg: Figure) -> Figure:
    """Stops lost off the axis of a beam of this full angle: -(2 phi / theta)^2, so 1 at its edge; from memory."""
    return -((2 * off_deg / beam_deg) ** 2)
