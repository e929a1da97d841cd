"""Light over distance: inverse square, large faces close up, spill on what stands behind."""

import math

import numpy as np

from .arrays import Figure, Floats


def inverse_square(distance_m: Figure) -> Figure:
    """Stops against the light at one metre: -2 log2 d."""
    return -2 * np.log2(distance_m)


def spill(subject_m: Figure, background_m: Figure) -> Figure:
    """Stops on the background against the subject, from the same light: 2 log2(d_subject / d_background)."""
    return 2 * np.log2(np.asarray(subject_m) / background_m)


def disc_close_up(radius_m: Figure, distance_m: Figure) -> Figure:
    """Stops against inverse square, on the axis of a Lambertian disc: log2(d^2 / (d^2 + r^2)). Source: Walsh."""
    square = np.square(distance_m)
    return np.log2(square / (square + np.square(radius_m)))


def rectangle_close_up(width_m: float, height_m: float, distance_m: Figure) -> Figure:
    """Stops against inverse square, on the axis of a Lambertian rectangle (closed form, any photometry text)."""
    a = width_m / 2 / np.asarray(distance_m, dtype=float)
    b = height_m / 2 / np.asarray(distance_m, dtype=float)
    root_a, root_b = np.sqrt(1 + a * a), np.sqrt(1 + b * b)
    corner = (a / root_a * np.arctan(b / root_a) + b / root_b * np.arctan(a / root_b)) / (2 * math.pi)
    return np.log2(4 * corner / (4 * a * b / math.pi))


def close_up(width_m: float, height_m: float | None, distance_m: Figure) -> Figure:
    """Stops against inverse square for a face: a disc of diameter `width_m` without `height_m`, else a rectangle."""
    if height_m is None:
        return disc_close_up(width_m / 2, distance_m)
    return rectangle_close_up(width_m, height_m, distance_m)


def distance_where(more: Figure, distance_m: Figure, width_m: float = 0.0, height_m: float | None = None) -> Floats:
    """Distance [m] at which a light gives so many stops more than at `distance_m`, on the axis of its face (`close_up`;
    inverse square where it is a point, of no width). NaN where it is not that bright even against the face.

    A point that is right at 2 m is a stop over at 1.414; a disc of 1.5 m at 1.311: d^2 + r^2 is halved.
    """
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
