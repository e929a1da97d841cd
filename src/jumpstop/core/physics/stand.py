"""What holds a light up: wind on a modifier, when a stand tips, the counterweight of a boom."""

import math

import numpy as np

from .arrays import Figure
from .motion import G

AIR = 1.225  # kg/m3, ISO 2533
CD_FLAT, CD_HOLLOW = 1.17, 1.42  # drag of a flat face, and of one hollow to the wind: Hoerner, Fluid-Dynamic Drag


def wind_force_n(speed_m_s: Figure, area_m2: Figure, drag: float = CD_HOLLOW) -> Figure:
    """Force [N]: 1/2 rho v^2 Cd A. An umbrella 1 m across, hollow to the wind: 21 N at 5.5 m/s, 44 N at 8."""
    return 0.5 * AIR * np.square(speed_m_s) * drag * area_m2


def ballast_kg(force_n: float, height_m: float, foot_m: float, weight_kg: float) -> float:
    """Weight [kg] that has to be hung on a three-legged stand so that it does not tip; 0 where it stands by itself.

    force_n acts at height_m. foot_m: how far each foot is from the column; a stand tips over the line between two feet,
    foot x cos 60 from the column.
    """
    lever = foot_m * math.cos(math.radians(60))
    return max(0.0, force_n * height_m / (G * lever) - weight_kg)


def counterweight_kg(load_kg: float, arm_m: float, counter_arm_m: float) -> float:
    """Counterweight of a boom [kg]: load x arm = counterweight x arm. 3 kg at 1.5 m asks 9 kg at 0.5 m."""
    return load_kg * arm_m / counter_arm_m
