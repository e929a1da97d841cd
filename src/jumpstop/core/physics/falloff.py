"""Light over distance: inverse square, large faces close up, spill on what stands behind."""

import math

import numpy as np

from .arrays import Figure


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
