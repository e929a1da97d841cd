"""Light from elsewhere: bounce, aim, flash near the lens, shadows on the ground, and what falls into the frame."""

import math

import numpy as np

from .arrays import Figure
from .sides import wrapped_deg


def bounce_path_m(over_flash_m: Figure, over_face_m: Figure, distance_m: Figure) -> Figure:
    """Way of the light by the mirror image of the flash in the ceiling [m], which is so far over flash and face; they
    are so far apart in a straight line: sqrt(d^2 + 4 a b), from d_h^2 + (a + b)^2 and d^2 = d_h^2 + (a - b)^2."""
    return np.sqrt(np.square(distance_m) + 4 * np.asarray(over_flash_m) * over_face_m)


def wall_path_m(light_m: Figure, subject_m: Figure, along_m: Figure) -> Figure:
    """The same off a wall [m]: both stand so far from it, and so far apart along it: sqrt((a + b)^2 + c^2)."""
    return np.hypot(np.asarray(light_m) + subject_m, along_m)


def card_gain(share: Figure, lost_stops: Figure) -> Figure:
    """What a bounce card adds to what comes off a ceiling [stops]: a share of the light goes straight forward, and the
    rest loses so much on its way [stops, positive]."""
    return np.log2((1 - np.asarray(share)) + share * np.exp2(lost_stops))


def aim_error_m(off_deg: Figure, distance_m: Figure) -> Figure:
    """How far beside the subject a beam's centre falls [m]: 2 degrees at 12 m, 0.42."""
    return np.tan(np.radians(off_deg)) * distance_m


def flash_to_lens_deg(apart_m: Figure, distance_m: Figure) -> Figure:
    """Angle at the subject between flash and lens [degrees]: 75 mm at 3 m, 1.4. Red or steel eye under 2.5 to 3."""
    return np.degrees(np.arctan(np.asarray(apart_m) / distance_m))


def aim_at_m(tilt_deg: float, height_m: float, distance_m: float) -> float:
    """Height at so far a distance that a camera at this height is aimed at when it is tilted so far up [m]."""
    return height_m + distance_m * math.tan(math.radians(tilt_deg))


def sun_bearing_deg(sun_azimuth_deg: float, camera_looks_deg: float) -> float:
    """Bearing of the sun seen from the subject, from the camera's side (0) to its right [degrees, -180 to 180].

    Both angles are compass bearings; a sun behind the camera is at 0, one behind the subject at 180.
    """
    turned = float(wrapped_deg(180.0 - (sun_azimuth_deg - camera_looks_deg)))
    return 180.0 if turned == -180.0 else turned


def on_frame(
    x_m: float, y_m: float, z_m: float, camera_m: float, height_m: float, aim_m: float, focal_mm: float
) -> tuple[float, float] | None:
    """Where a point falls on the picture [mm on the sensor from its middle: to the right, up]; None: behind the lens.

    The subject stands at 0; x to the camera's right, y away from it, z up. camera_m: how far the camera is from the
    subject; height_m: its height; aim_m: the height on the subject that it is aimed at.
    """
    tilt = math.atan2(aim_m - height_m, camera_m)
    forward, up = y_m + camera_m, z_m - height_m
    depth = forward * math.cos(tilt) + up * math.sin(tilt)
    if depth <= 0.01:
        return None
    return focal_mm * x_m / depth, focal_mm * (up * math.cos(tilt) - forward * math.sin(tilt)) / depth
