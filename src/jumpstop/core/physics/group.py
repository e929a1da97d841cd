"""Covering a group from a small source on its middle axis: how wide, how even, and how far off it has to stand."""

import numpy as np

from .arrays import Figure, Floats, outside

FACES, FLAT = 2.0, 3.0
"""Powers of the cosine by which the ends fall: faces turned to the light, and a flat surface parallel to the row."""


def across_deg(width_m: Figure, distance_m: Figure) -> Figure:
    """Horizontal angle that a width takes up: 2 atan(W / 2D).

    Parameters
    ----------
    width_m, distance_m : of the row [m], and from where it is seen, above nothing [m]; shapes that broadcast

    Returns
    -------
    [degrees], of the broadcast shape.

    Raises
    ------
    ValueError : for a row that is seen from within

    Examples
    --------
    >>> round(float(across_deg(6.0, 4.0)), 1)
    73.7
    """
    outside(np.asarray(distance_m) <= 0, "a row that is some way off")
    return np.degrees(2 * np.arctan(np.asarray(width_m) / 2 / distance_m))


def ends_fall(width_m: Figure, distance_m: Figure, power: Figure = FACES) -> Figure:
    """What the ends of a row have less than its middle: power x log2(cos theta); beam edge apart.

    Parameters
    ----------
    width_m, distance_m : of the row [m], and of the source from its middle, above nothing [m]
    power : of the cosine, FACES or FLAT; shapes that broadcast

    Returns
    -------
    [stops, negative], of the broadcast shape.

    Raises
    ------
    ValueError : for a source within the row

    Examples
    --------
    >>> round(float(ends_fall(6.0, 4.0)), 2)
    -0.64
    """
    outside(np.asarray(distance_m) <= 0, "a row that is some way off")
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
    outside(np.asarray(stops) <= 0, "ends that fall by something")
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
    outside(np.asarray(stops) <= 0, "a row that falls by something")
    return depth_m / (np.exp2(np.asarray(stops) / 2) - 1)


def row_levels(at_m: Floats, lights_m: Floats, axes: Floats, beam_deg: Figure) -> Floats:
    """Light along a row of faces, each of which counts as turned to every light.

    Parameters
    ----------
    at_m : places of faces, of shape (points, 2) [m]
    lights_m, axes : places of equal small lights, and the points that they are aimed at, of shape (lights, 2) [m]
    beam_deg : horizontal angle of their beams [degrees], above nothing

    Returns
    -------
    [stops against one light at one metre on its axis], of shape (points,).

    Raises
    ------
    ValueError : for beams without an angle

    Examples
    --------
    >>> light, aimed = np.array([[0.0, -2.0]]), np.zeros((1, 2))
    >>> float(row_levels(np.array([[0.0, 0.0]]), light, aimed, 60.0)[0])
    -2.0
    """
    way = at_m[:, None, :] - lights_m[None]
    aim = (axes - lights_m)[None]
    distance = np.linalg.norm(way, axis=2)
    cosine = np.sum(way * aim, axis=2) / distance / np.linalg.norm(aim, axis=2)
    off = np.degrees(np.arccos(np.clip(cosine, -1, 1)))
    return np.log2(np.sum(np.exp2(off_axis(off, beam_deg)) / distance**2, axis=1))


def off_axis(off_deg: Figure, beam_deg: Figure) -> Figure:
    """What is lost off the axis of a beam: -(2 phi / theta)^2, so a stop at its edge; from memory.

    Parameters
    ----------
    off_deg, beam_deg : off the axis, and the full angle of the beam, above nothing [degrees]; shapes that broadcast

    Returns
    -------
    [stops, negative], of the broadcast shape.

    Raises
    ------
    ValueError : for a beam without an angle

    Examples
    --------
    >>> off_axis(30.0, 60.0)
    -1.0
    """
    outside(np.asarray(beam_deg) <= 0, "a beam that has an angle")
    return -((2 * off_deg / beam_deg) ** 2)
