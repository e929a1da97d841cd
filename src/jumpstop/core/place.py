"""Where things stand: inverse square, large faces close up, spill, evenness."""

import math
from typing import Literal

import numpy as np
from pydantic import Field

from .stops import Jump
from .values import DistanceM, Figure, Value


class Face(Value):
    """The bright face of a modifier: a disc (width = diameter) or a rectangle, in metres."""

    shape: Literal["disc", "rectangle"] = Field("disc", title="Face shape")
    width_m: float = Field(ge=0.01, le=20, title="Face width (m)")
    height_m: float | None = Field(None, ge=0.01, le=20, title="Face height (m)")


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


def face_close_up(face: Face, distance_m: Figure) -> Figure:
    """Stops against inverse square for a face of either shape."""
    if face.shape == "disc":
        return disc_close_up(face.width_m / 2, distance_m)
    return rectangle_close_up(face.width_m, face.height_m or face.width_m, distance_m)


def distance_jump(distance_m: DistanceM) -> Jump:
    """The way from one metre to the subject."""
    return Jump(
        "distance",
        "{distance:length}",
        inverse_square(distance_m),
        0.05,
        "Inverse square: −2 log2(distance in metres), from one metre out to {distance:length}. "
        "The ± stands for a distance paced out rather than taped.",
        "D",
        "inverse-square law",
        {"distance": distance_m},
    )


def face_jump(face: Face, distance_m: DistanceM) -> Jump:
    """What a large face loses against inverse square close up."""
    return Jump(
        "face",
        "big face, close",
        face_close_up(face, distance_m),
        0.05,
        "At {distance:length} a face {width:length} wide is no point: light from its rim comes from farther off and "
        "at a slant, so less arrives than inverse square says. Under 1 % from five widths on.",
        "P",
        "Lambert's disc and rectangle formulas (Walsh, Photometry); five-times rule (IES Lighting Handbook)",
        {"distance": distance_m, "width": face.width_m},
    )
