"""Guide numbers: N x d for a correct exposure [ISO 1230:2007], as metres at ISO 100 and as stops.

A guide number scales with the square root of ISO, of power and of the number of equal heads; as stops, 2 log2 GN, all
of these add. It means nothing without its ISO, its unit of length and its coverage.
"""

import numpy as np

from .arrays import Figure
from .beam import solid_angle_sr
from .exposure import METER_C_FLAT
from .units import FEET_PER_METRE

EFFICACY_LM_W = 35.0  # luminous efficacy of stored energy, reflector included; 30 to 45, from memory
WS_COVERAGE_DEG = 65.0  # the reflector assumed where only watt-seconds are known


def in_metres(guide_number: Figure, iso: Figure = 100.0, feet: bool = False) -> Figure:
    """Guide number [m] at ISO 100 of one stated at another ISO, in metres or feet. 190 ft at ISO 200 is 40.9 m."""
    return guide_number / (FEET_PER_METRE if feet else 1.0) / np.sqrt(np.asarray(iso) / 100)


def stops_of_guide_number(guide_number_m: Figure) -> Figure:
    """Light [stops] at one metre, ISO 100, against what f/1 needs: 2 log2 GN."""
    return 2 * np.log2(guide_number_m)


def guide_number_of_stops(stops: Figure) -> Figure:
    """Guide number [m, ISO 100] of a light of so many stops; the inverse of `stops_of_guide_number`."""
    return np.exp2(np.asarray(stops) / 2)


def beam_candela_seconds(guide_number_m: Figure, iso: float = 100, c: float = METER_C_FLAT) -> Figure:
    """Beam candela-seconds of a guide number: GN^2 = BCPS x S / C. GN 36 m is 3,240 BCPS at C = 250."""
    return np.square(guide_number_m) * c / iso


def guide_number_of_bcps(bcps: Figure, iso: float = 100, c: float = METER_C_FLAT) -> Figure:
    """Guide number [m] of so many beam candela-seconds."""
    return np.sqrt(np.asarray(bcps) * iso / c)


def guide_number_of_ws(
    watt_seconds: Figure,
    angle_deg: float = WS_COVERAGE_DEG,
    lm_w: float = EFFICACY_LM_W,
    c: float = METER_C_FLAT,
) -> Figure:
    """Guide number [m, ISO 100] guessed from stored energy: 400 Ws at 35 lm/W into 65 degrees is about GN 75."""
    return guide_number_of_bcps(np.asarray(watt_seconds) * lm_w / solid_angle_sr(angle_deg), c=c)


def ws_of_guide_number(guide_number_m: Figure, c: float = METER_C_FLAT) -> Figure:
    """Stored energy [Ws] guessed from a guide number through a standard reflector: the inverse of `guide_number_of_ws`;
    GN 75 is about 400 Ws."""
    return np.square(guide_number_m / guide_number_of_ws(1.0, c=c))


def guide_number_of_lux_seconds(lux_s: Figure, distance_m: Figure, c: float = METER_C_FLAT) -> Figure:
    """Guide number [m, ISO 100] of so much light at a distance: H = C N^2 / S [ISO 2720:1974].

    2,250 lx s at 2 m is GN 60.
    """
    return distance_m * np.sqrt(np.asarray(lux_s) * 100 / c)
