"""Depth of field and background blur. Source: Ray, Applied Photographic Optics."""

import math

COC_MM = 0.03  # circle of confusion on 36 x 24 mm; other frames by their diagonal
FULL_DIAGONAL_MM = math.hypot(36, 24)  # of 36 x 24 mm, against which other frames are counted
GREEN_NM = 550.0  # wavelength that the eye sees best [nm], CIE photopic maximum near 555


def coc_mm(diagonal_mm: float) -> float:
    """Circle of confusion [mm] of a frame of this diagonal: 0.03 mm on 36 x 24."""
    return COC_MM * diagonal_mm / FULL_DIAGONAL_MM


def hyperfocal_m(focal_mm: float, f_number: float, coc: float = COC_MM) -> float:
    """Hyperfocal distance [m]: f^2 / (N c) + f. 35 mm at f/4: 10.24 m."""
    return (focal_mm**2 / (f_number * coc) + focal_mm) / 1000


def depth_of_field_m(focal_mm: float, f_number: float, subject_m: float, coc: float = COC_MM) -> tuple[float, float]:
    """(near, far) limits of what is sharp [m]; far is infinite from the hyperfocal distance on."""
    hyperfocal, focal = hyperfocal_m(focal_mm, f_number, coc), focal_mm / 1000
    near = subject_m * (hyperfocal - focal) / (hyperfocal + subject_m - 2 * focal)
    if subject_m >= hyperfocal:
        return near, math.inf
    return near, subject_m * (hyperfocal - focal) / (hyperfocal - subject_m)


def blur_disc_mm(focal_mm: float, f_number: float, subject_m: float, background_m: float) -> float:
    """Diameter [mm on the sensor] of a background point: |b - s| / b x f^2 / (N (s - f))."""
    subject_mm = subject_m * 1000
    return abs(background_m - subject_m) / background_m * focal_mm**2 / (f_number * (subject_mm - focal_mm))


def f_number_for_disc(focal_mm: float, subject_m: float, background_m: float, disc_mm: float) -> float:
    """The f-number at which a background point becomes a disc of this diameter [mm on the sensor]."""
    return blur_disc_mm(focal_mm, 1.0, subject_m, background_m) / disc_mm


def airy_mm(f_number: float) -> float:
    """Diameter of the Airy disc on the sensor [mm]: 2.44 lambda N (Rayleigh), in green. f/8: 0.0107."""
    return 2.44 * GREEN_NM * 1e-6 * f_number


def by_hand_s(focal_mm: float, crop: float, steadied_stops: float = 0.0) -> float:
    """The slowest time held by hand [s]: 1 / (focal length x crop), common practice; a stabiliser doubles it for each
    of its stops."""
    return 2**steadied_stops / (focal_mm * crop)
