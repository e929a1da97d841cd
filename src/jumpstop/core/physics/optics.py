"""Depth of field and background blur. Source: Ray, Applied Photographic Optics, 3rd ed., chapters 22 and 23."""

import math

import numpy as np

from .arrays import Figure, outside

COC_MM = 0.03  # circle of confusion on 36 x 24 mm; other frames by their diagonal
FULL_DIAGONAL_MM = math.hypot(36, 24)  # of 36 x 24 mm, against which other frames are counted
GREEN_NM = 550.0  # wavelength that the eye sees best [nm], CIE photopic maximum near 555


def coc_mm(diagonal_mm: Figure) -> Figure:
    """Circle of confusion of a frame, as large a part of its diagonal as 0.03 mm is of that of 36 x 24 mm.

    Parameters
    ----------
    diagonal_mm : of the frame [mm], any shape

    Returns
    -------
    Diameter [mm], of the same shape.

    Examples
    --------
    >>> round(float(coc_mm(math.hypot(18, 12))), 4)
    0.015
    """
    return COC_MM * diagonal_mm / FULL_DIAGONAL_MM


def hyperfocal_m(focal_mm: Figure, f_number: Figure, coc: Figure = COC_MM) -> Figure:
    """Hyperfocal distance: f^2 / (N c) + f. Focused there, all is sharp from half of it to infinity.

    Parameters
    ----------
    focal_mm, f_number, coc : focal length [mm], f-number, circle of confusion [mm]; shapes that broadcast

    Returns
    -------
    Distance [m], of the broadcast shape.

    Examples
    --------
    >>> round(float(hyperfocal_m(35, 4)), 2)
    10.24
    """
    return (np.square(focal_mm) / (f_number * np.asarray(coc)) + focal_mm) / 1000


def depth_of_field_m(
    focal_mm: Figure, f_number: Figure, subject_m: Figure, coc: Figure = COC_MM
) -> tuple[Figure, Figure]:
    """Limits between which all is sharp.

    Parameters
    ----------
    focal_mm, f_number, coc : focal length [mm], f-number, circle of confusion [mm]; shapes that broadcast
    subject_m : distance that is focused on [m], longer than the focal length

    Returns
    -------
    (near, far) [m], of the broadcast shape; far is infinite from the hyperfocal distance on.

    Raises
    ------
    ValueError : where the lens cannot focus so near

    Examples
    --------
    >>> [round(float(one), 2) for one in depth_of_field_m(85, 2, 2.5)]
    [2.45, 2.55]
    """
    focal = np.asarray(focal_mm) / 1000
    outside(np.asarray(subject_m) <= focal, "a subject farther away than the focal length")
    hyperfocal = np.asarray(hyperfocal_m(focal_mm, f_number, coc))
    near = subject_m * (hyperfocal - focal) / (hyperfocal + subject_m - 2 * focal)
    left = hyperfocal - subject_m
    far = subject_m * (hyperfocal - focal) / np.where(left > 0, left, 1.0)
    return near, np.where(left > 0, far, math.inf)


def blur_disc_mm(focal_mm: Figure, f_number: Figure, subject_m: Figure, background_m: Figure) -> Figure:
    """Disc that a point of the background becomes: |b - s| / b x f^2 / (N (s - f)).

    Parameters
    ----------
    focal_mm, f_number : focal length [mm] and f-number
    subject_m, background_m : distances [m] that is focused on, and of the point; shapes that broadcast

    Returns
    -------
    Diameter on the sensor [mm], of the broadcast shape.

    Raises
    ------
    ValueError : where the lens cannot focus so near

    Examples
    --------
    >>> round(float(blur_disc_mm(85, 2, 2.5, 10)), 2)
    1.12
    """
    subject_mm = np.asarray(subject_m) * 1000
    outside(subject_mm <= focal_mm, "a subject farther away than the focal length")
    apart = np.abs(np.asarray(background_m) - subject_m) / background_m
    return apart * np.square(focal_mm) / (f_number * (subject_mm - focal_mm))


def f_number_for_disc(focal_mm: Figure, subject_m: Figure, background_m: Figure, disc_mm: Figure) -> Figure:
    """The f-number at which a point of the background becomes a disc of this diameter: `blur_disc_mm` backwards.

    Parameters
    ----------
    focal_mm, subject_m, background_m : as there
    disc_mm : diameter on the sensor [mm]; shapes that broadcast

    Returns
    -------
    f-number, of the broadcast shape.

    Raises
    ------
    ValueError : where the lens cannot focus so near

    Examples
    --------
    >>> round(float(f_number_for_disc(85, 2.5, 10, 1.122)), 1)
    2.0
    """
    return blur_disc_mm(focal_mm, 1.0, subject_m, background_m) / disc_mm


def airy_mm(f_number: Figure) -> Figure:
    """Airy disc: 2.44 lambda N (Rayleigh), in green.

    Parameters
    ----------
    f_number : any shape

    Returns
    -------
    Diameter on the sensor [mm], of the same shape.

    Examples
    --------
    >>> round(float(airy_mm(8)), 4)
    0.0107
    """
    return 2.44 * GREEN_NM * 1e-6 * f_number


def by_hand_s(focal_mm: Figure, crop: Figure, steadied_stops: Figure = 0.0) -> Figure:
    """The slowest time held by hand: 1 / (focal length x crop), common practice, no source; a stabiliser doubles it for
    each of its stops.

    Parameters
    ----------
    focal_mm, crop : focal length [mm], and how many times smaller than 36 x 24 mm the frame's diagonal is
    steadied_stops : of the stabiliser [stops]; shapes that broadcast

    Returns
    -------
    Time [s], of the broadcast shape.

    Examples
    --------
    >>> float(1 / by_hand_s(50, 2))
    100.0
    """
    return np.exp2(steadied_stops) / (focal_mm * np.asarray(crop))
