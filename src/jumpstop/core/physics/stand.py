"""What holds a light up: wind on a modifier, when a stand tips, the counterweight of a boom."""

import math

import numpy as np

from .arrays import Figure, outside
from .motion import G

AIR = 1.225  # kg/m3, ISO 2533
CD_FLAT, CD_HOLLOW = 1.17, 1.42  # drag of a flat face, and of one hollow to the wind: Hoerner, Fluid-Dynamic Drag


def wind_force_n(speed_m_s: Figure, area_m2: Figure, drag: Figure = CD_HOLLOW) -> Figure:
    """Force of the wind on a face: 1/2 rho v^2 Cd A.

    Parameters
    ----------
    speed_m_s, area_m2 : of the wind [m/s], of the face [m2]
    drag : coefficient, CD_FLAT or CD_HOLLOW; shapes that broadcast

    Returns
    -------
    [N], of the broadcast shape.

    Examples
    --------
    >>> [round(float(wind_force_n(speed, math.pi / 4))) for speed in (5.5, 8)]  # an umbrella 1 m across
    [21, 44]
    """
    return 0.5 * AIR * np.square(speed_m_s) * drag * area_m2


def ballast_kg(force_n: Figure, height_m: Figure, foot_m: Figure, weight_kg: Figure) -> Figure:
    """Weight that has to be hung on a three-legged stand so that it does not tip. It tips over the line between two
    feet, which is foot x cos 60 from the column: statics.

    Parameters
    ----------
    force_n, height_m : of the wind [N], and where it acts [m]
    foot_m, weight_kg : how far each foot is from the column [m], and what stands there weighs [kg]; shapes that
        broadcast

    Returns
    -------
    [kg], of the broadcast shape; 0 where it stands by itself.

    Raises
    ------
    ValueError : where it stands on nothing

    Examples
    --------
    >>> round(float(ballast_kg(21, 2, 0.5, 4)), 1)
    13.1
    """
    outside(np.asarray(foot_m) <= 0, "feet that are away from the column")
    lever = foot_m * math.cos(math.radians(60))
    return np.maximum(0.0, np.asarray(force_n) * height_m / (G * lever) - weight_kg)


def counterweight_kg(load_kg: Figure, arm_m: Figure, counter_arm_m: Figure) -> Figure:
    """Counterweight of a boom: load x arm = counterweight x its arm, statics.

    Parameters
    ----------
    load_kg, arm_m : what hangs on it [kg], and how far out [m]
    counter_arm_m : how far out the counterweight is [m], on the other side; shapes that broadcast

    Returns
    -------
    [kg], of the broadcast shape.

    Raises
    ------
    ValueError : where the counterweight has no arm

    Examples
    --------
    >>> counterweight_kg(3, 1.5, 0.5)
    9.0
    """
    outside(np.asarray(counter_arm_m) <= 0, "a counterweight on the other side")
    return load_kg * arm_m / counter_arm_m
