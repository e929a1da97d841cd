"""Motion: how far the picture of something moving blurs, and how short a flash or shutter freezes it."""

import math

G = 9.80665  # standard gravity [m/s2], ISO 80000-3


def fall_speed(height_m: float) -> float:
    """Speed [m/s] after a fall from rest: sqrt(2 g h). From 0.2 m: 1.98 m/s."""
    return math.sqrt(2 * G * height_m)


def blur_mm(speed_m_s: float, seconds: float, frame_width_mm: float, field_width_m: float) -> float:
    """Blur on the sensor [mm]: speed x duration x magnification."""
    return speed_m_s * seconds * frame_width_mm / field_width_m


def longest_s(speed_m_s: float, tolerable_mm: float, frame_width_mm: float, field_width_m: float) -> float:
    """Longest exposure [s] that keeps the blur tolerable. 1.98 m/s, field 0.6 m on 36 mm, 0.03 mm: 1/3,960 s."""
    return tolerable_mm / blur_mm(speed_m_s, 1.0, frame_width_mm, field_width_m)
