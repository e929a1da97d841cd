"""Light from elsewhere: bounce, aim, flash near the lens, shadows on the ground, and what falls into the frame."""

import numpy as np

from .arrays import Figure, outside
from .sides import wrapped_deg

BEFORE_LENS_M = 0.01  # a point as near to the lens as this, or behind it, is on no picture; a matter of computing


def bounce_path_m(over_flash_m: Figure, over_face_m: Figure, distance_m: Figure) -> Figure:
    """Way of the light by the mirror image of the flash in a ceiling: sqrt(d^2 + 4 a b), from d_h^2 + (a + b)^2 and
    d^2 = d_h^2 + (a - b)^2.

    Parameters
    ----------
    over_flash_m, over_face_m : how far the ceiling is over the two, at least 0 [m]
    distance_m : between them, in a straight line [m]; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for a ceiling below one of the two

    Examples
    --------
    >>> float(bounce_path_m(2, 2, 3))
    5.0
    """
    outside((np.asarray(over_flash_m) < 0) | (np.asarray(over_face_m) < 0), "a ceiling over the two")
    return np.sqrt(np.square(distance_m) + 4 * np.asarray(over_flash_m) * over_face_m)


def wall_path_m(light_m: Figure, subject_m: Figure, along_m: Figure) -> Figure:
    """The same off a wall: sqrt((a + b)^2 + c^2).

    Parameters
    ----------
    light_m, subject_m : how far the two stand from the wall, at least 0 [m]
    along_m : how far they are apart along it [m]; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for a wall between the two

    Examples
    --------
    >>> float(wall_path_m(1, 2, 4))
    5.0
    """
    outside((np.asarray(light_m) < 0) | (np.asarray(subject_m) < 0), "a wall beside the two")
    return np.hypot(np.asarray(light_m) + subject_m, along_m)


def card_gain(share: Figure, lost_stops: Figure) -> Figure:
    """What a bounce card adds to what comes off a ceiling: a share of the light goes straight forward, and the rest
    loses something on its way.

    Parameters
    ----------
    share : that goes forward, 0 to 1
    lost_stops : by way of the ceiling [stops, positive]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape.

    Raises
    ------
    ValueError : for a share that is none

    Examples
    --------
    >>> round(float(card_gain(0.2, 2)), 2)  # log2(0.8 + 0.2 x 4)
    0.68
    """
    outside((np.asarray(share) < 0) | (np.asarray(share) > 1), "a share")
    return np.log2((1 - np.asarray(share)) + share * np.exp2(lost_stops))


def aim_error_m(off_deg: Figure, distance_m: Figure) -> Figure:
    """How far beside the subject a beam's centre falls: d tan(off).

    Parameters
    ----------
    off_deg : from the line to the subject, under 90 [degrees]
    distance_m : to it [m]; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for a beam that never comes to the subject's plane

    Examples
    --------
    >>> round(float(aim_error_m(2, 12)), 2)
    0.42
    """
    return _rise(off_deg) * distance_m


def flash_to_lens_deg(apart_m: Figure, distance_m: Figure) -> Figure:
    """Angle at the subject between flash and lens: atan(apart / d). Red or steel eye under 2.5 to 3 degrees.

    Parameters
    ----------
    apart_m : flash and lens [m]
    distance_m : of the subject, above nothing [m]; shapes that broadcast

    Returns
    -------
    [degrees], of the broadcast shape.

    Raises
    ------
    ValueError : for a subject at no distance

    Examples
    --------
    >>> round(float(flash_to_lens_deg(0.075, 3)), 1)
    1.4
    """
    outside(np.asarray(distance_m) <= 0, "a subject at a distance")
    return np.degrees(np.arctan(np.asarray(apart_m) / distance_m))


def aim_at_m(tilt_deg: Figure, height_m: Figure, distance_m: Figure) -> Figure:
    """Height at a distance that a tilted camera is aimed at: h + d tan(tilt).

    Parameters
    ----------
    tilt_deg : upwards, under 90 either way [degrees]
    height_m : of the camera [m]
    distance_m : [m]; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : for a camera that looks straight up or down

    Examples
    --------
    >>> round(float(aim_at_m(-5, 1.5, 4)), 2)
    1.15
    """
    return height_m + _rise(tilt_deg) * distance_m


def sun_bearing_deg(sun_azimuth_deg: Figure, camera_looks_deg: Figure) -> Figure:
    """Bearing of the sun seen from the subject, from the camera's side to its right: 0 behind the camera, 180
    behind the subject.

    Parameters
    ----------
    sun_azimuth_deg, camera_looks_deg : compass bearings, from north eastwards [degrees]; shapes that broadcast

    Returns
    -------
    [degrees, above -180 to 180], of the broadcast shape.

    Examples
    --------
    >>> sun_bearing_deg(np.array([90.0, 180, 270]), 0).tolist()
    [90.0, 0.0, -90.0]
    """
    return 0.0 - np.asarray(wrapped_deg(180.0 + (np.asarray(sun_azimuth_deg) - camera_looks_deg)))


def on_frame(
    x_m: Figure, y_m: Figure, z_m: Figure, camera_m: Figure, height_m: Figure, aim_m: Figure, focal_mm: Figure
) -> tuple[Figure, Figure]:
    """Where a point falls on the picture. The subject stands at 0; x to the camera's right, y away from it, z up.

    Parameters
    ----------
    x_m, y_m, z_m : the point [m]
    camera_m : how far the camera is from the subject [m]
    height_m : of the camera [m]
    aim_m : height on the subject that it is aimed at [m]
    focal_mm : [mm]; all of shapes that broadcast

    Returns
    -------
    (to the right, up) from the picture's middle [mm on the sensor], each of the broadcast shape; NaN for a point that
    is not in front of the lens.

    Examples
    --------
    >>> [float(way) for way in on_frame(1, 0, 1.5, 4, 1.5, 1.5, 50)]
    [12.5, 0.0]
    """
    tilt = np.arctan2(np.asarray(aim_m) - height_m, camera_m)
    forward, up = np.asarray(y_m) + camera_m, np.asarray(z_m) - height_m
    depth = forward * np.cos(tilt) + up * np.sin(tilt)
    scale = focal_mm / np.where(depth > BEFORE_LENS_M, depth, np.nan)
    right, above = np.broadcast_arrays(scale * x_m, scale * (up * np.cos(tilt) - forward * np.sin(tilt)))
    return right, above


def _rise(off_deg: Figure) -> Figure:
    """By how much a line so far off another leaves it, on each metre along that one."""
    outside(np.abs(off_deg) >= 90, "an angle under 90 degrees")
    return np.tan(np.radians(off_deg))
