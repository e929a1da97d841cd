"""Light over distance: inverse square, large faces close up, spill on what stands behind."""

import math

import numpy as np

from .arrays import Figure, Floats, outside


def inverse_square(distance_m: Figure) -> Figure:
    """Light of a small source over distance: -2 log2 d.

    Parameters
    ----------
    distance_m : above nothing [m], any shape

    Returns
    -------
    [stops against the light at one metre], of the same shape.

    Raises
    ------
    ValueError : at the source itself

    Examples
    --------
    >>> float(inverse_square(4.0))
    -4.0
    """
    outside(np.asarray(distance_m) <= 0, "a distance from the source")
    return -2 * np.log2(distance_m)


def spill(subject_m: Figure, background_m: Figure) -> Figure:
    """What falls on the background, from the same small source: 2 log2(d_subject / d_background).

    Parameters
    ----------
    subject_m, background_m : from the source, above nothing [m]; shapes that broadcast

    Returns
    -------
    [stops against the subject], of the broadcast shape.

    Raises
    ------
    ValueError : at the source itself

    Examples
    --------
    >>> float(spill(2.0, 4.0))
    -2.0
    """
    outside((np.asarray(subject_m) <= 0) | (np.asarray(background_m) <= 0), "a distance from the source")
    return 2 * np.log2(np.asarray(subject_m) / background_m)


def disc_close_up(radius_m: Figure, distance_m: Figure) -> Figure:
    """What a Lambertian disc gives less than a small source, on its axis: log2(d^2 / (d^2 + r^2)).

    Parameters
    ----------
    radius_m, distance_m : of the disc, and from it, above nothing [m]; shapes that broadcast

    Returns
    -------
    [stops, negative], of the broadcast shape.

    Raises
    ------
    ValueError : against the disc

    References
    ----------
    Walsh, Photometry, 3rd ed., chapter 5.

    Examples
    --------
    >>> float(disc_close_up(1.0, 1.0))
    -1.0
    """
    outside(np.asarray(distance_m) <= 0, "a distance from the face")
    square = np.square(distance_m)
    return np.log2(square / (square + np.square(radius_m)))


def rectangle_close_up(width_m: Figure, height_m: Figure, distance_m: Figure) -> Figure:
    """What a Lambertian rectangle gives less than a small source, on its axis, in closed form.

    Parameters
    ----------
    width_m, height_m, distance_m : of the rectangle, and from it, above nothing [m]; shapes that broadcast

    Returns
    -------
    [stops, negative], of the broadcast shape.

    Raises
    ------
    ValueError : against the rectangle

    References
    ----------
    Walsh, Photometry, 3rd ed., chapter 5.

    Examples
    --------
    >>> round(float(rectangle_close_up(0.9, 1.2, 1.0)), 2)
    -0.45
    """
    outside(np.asarray(distance_m) <= 0, "a distance from the face")
    a = np.asarray(width_m) / 2 / np.asarray(distance_m, dtype=float)
    b = np.asarray(height_m) / 2 / np.asarray(distance_m, dtype=float)
    root_a, root_b = np.sqrt(1 + a * a), np.sqrt(1 + b * b)
    corner = (a / root_a * np.arctan(b / root_a) + b / root_b * np.arctan(a / root_b)) / (2 * math.pi)
    return np.log2(4 * corner / (4 * a * b / math.pi))


def close_up(width_m: float, height_m: float | None, distance_m: Figure) -> Figure:
    """What a bright face gives less than a small source, on its axis: a disc where it has no height.

    Parameters
    ----------
    width_m, height_m : of the face [m]; a disc's diameter, and None
    distance_m : from it, above nothing [m], any shape

    Returns
    -------
    [stops, negative], of the same shape.

    Raises
    ------
    ValueError : against the face

    Examples
    --------
    >>> round(float(close_up(1.1, None, 1.0)), 2)
    -0.38
    """
    if height_m is None:
        return disc_close_up(width_m / 2, distance_m)
    return rectangle_close_up(width_m, height_m, distance_m)


def distance_where(more: Figure, distance_m: Figure, width_m: float = 0.0, height_m: float | None = None) -> Floats:
    """Where a light gives so much more than where it stands, on the axis of its face: `inverse_square` and `close_up`
    backwards.

    Parameters
    ----------
    more, distance_m : [stops], and from where it stands, above nothing [m]; shapes that broadcast
    width_m, height_m : of its face [m], as in `close_up`; a width of 0 is a point

    Returns
    -------
    [m], of the broadcast shape; NaN where it is not that bright even against the face.

    Raises
    ------
    ValueError : for a light that stands nowhere off

    Examples
    --------
    >>> [round(float(distance_where(1.0, 2.0, width)), 3) for width in (0.0, 1.5)]  # d^2 + r^2 is halved
    [1.414, 1.311]
    """
    outside(np.asarray(distance_m) <= 0, "a distance from the source")
    metres, wanted = np.broadcast_arrays(np.asarray(distance_m, dtype=float), np.asarray(more, dtype=float))
    if not width_m:
        return np.asarray(metres * np.exp2(-wanted / 2))
    if height_m is None:
        square = (metres**2 + (width_m / 2) ** 2) * np.exp2(-wanted) - (width_m / 2) ** 2
        return np.where(square > 0, np.sqrt(np.maximum(square, 0.0)), np.nan)

    def level(at: Figure) -> Figure:
        return inverse_square(at) + rectangle_close_up(width_m, height_m, at)

    # The light falls with distance, and no faster than by inverse square: twice the stops are more than far enough.
    low, high = np.full(metres.shape, AGAINST_FACE_M), np.maximum(metres, width_m + height_m) * np.exp2(np.abs(wanted))
    goal = level(metres) + wanted
    reached = goal <= level(low)
    for _ in range(HALVINGS):
        middle = np.sqrt(low * high)
        brighter = level(middle) > goal
        low, high = np.where(brighter, middle, low), np.where(brighter, high, middle)
    return np.where(reached, np.sqrt(low * high), np.nan)


AGAINST_FACE_M = 1e-3  # as near to a face as is asked
HALVINGS = 60  # halvings of the range in which a distance is looked for; a matter of computing
