"""Guide numbers: N x d for a correct exposure [ISO 1230:2007], as metres at ISO 100 and as stops.

A guide number scales with the square root of ISO, of power and of the number of equal heads; as stops, 2 log2 GN, all
of these add. It means nothing without its ISO, its unit of length and its coverage.
"""

import numpy as np

from .arrays import Figure, outside
from .beam import solid_angle_sr
from .exposure import METER_C_FLAT
from .stops import stops_of
from .units import FEET_PER_METRE

EFFICACY_LM_W = 35.0  # luminous efficacy of stored energy, reflector included; 30 to 45, from memory
WS_COVERAGE_DEG = 65.0  # the reflector assumed where only watt-seconds are known


def in_metres(guide_number: Figure, iso: Figure = 100.0, feet: bool = False) -> Figure:
    """Guide number at ISO 100 of one stated at another ISO, in metres or feet.

    Parameters
    ----------
    guide_number : as stated [m, or ft], any shape
    iso : it is stated at, above nothing; shapes that broadcast
    feet : whether it counts feet

    Returns
    -------
    [m, ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for no speed at all

    Examples
    --------
    >>> round(float(in_metres(190, 200, feet=True)), 2)
    40.95
    """
    outside(np.asarray(iso) <= 0, "a speed")
    return guide_number / (FEET_PER_METRE if feet else 1.0) / np.sqrt(np.asarray(iso) / 100)


def stops_of_guide_number(guide_number_m: Figure) -> Figure:
    """Light at one metre, ISO 100, against what f/1 needs: 2 log2 GN.

    Parameters
    ----------
    guide_number_m : above nothing [m, ISO 100], any shape

    Returns
    -------
    [stops], of the same shape.

    Raises
    ------
    ValueError : for no light at all

    Examples
    --------
    >>> float(stops_of_guide_number(32))
    10.0
    """
    return 2 * stops_of(guide_number_m)


def guide_number_of_stops(stops: Figure) -> Figure:
    """Guide number of a light of so many stops; the inverse of `stops_of_guide_number`.

    Parameters
    ----------
    stops : against what f/1 needs at one metre, ISO 100, any shape

    Returns
    -------
    [m, ISO 100], of the same shape.

    Examples
    --------
    >>> float(guide_number_of_stops(10))
    32.0
    """
    return np.exp2(np.asarray(stops) / 2)


def beam_candela_seconds(guide_number_m: Figure, iso: Figure = 100, c: Figure = METER_C_FLAT) -> Figure:
    """Beam candela-seconds of a guide number: GN^2 = BCPS x S / C.

    Parameters
    ----------
    guide_number_m : [m], any shape
    iso : it is stated at, above nothing
    c : of the meter [lx s]; shapes that broadcast

    Returns
    -------
    [cd s], of the broadcast shape.

    Raises
    ------
    ValueError : for no speed at all

    References
    ----------
    ISO 1230:2007; ISO 2720:1974 for C

    Examples
    --------
    >>> float(beam_candela_seconds(36))
    3240.0
    """
    outside(np.asarray(iso) <= 0, "a speed")
    return np.square(guide_number_m) * c / iso


def guide_number_of_bcps(bcps: Figure, iso: Figure = 100, c: Figure = METER_C_FLAT) -> Figure:
    """Guide number of so many beam candela-seconds; the inverse of `beam_candela_seconds`.

    Parameters
    ----------
    bcps : at least 0 [cd s], any shape
    iso : for which it is wanted
    c : of the meter, above nothing [lx s]; shapes that broadcast

    Returns
    -------
    [m at that ISO], of the broadcast shape.

    Raises
    ------
    ValueError : for less than no light, or no meter constant

    Examples
    --------
    >>> float(guide_number_of_bcps(3240))
    36.0
    """
    outside((np.asarray(bcps) < 0) | (np.asarray(c) <= 0), "light, and a meter's constant")
    return np.sqrt(np.asarray(bcps) * iso / c)


def guide_number_of_ws(
    watt_seconds: Figure,
    angle_deg: Figure = WS_COVERAGE_DEG,
    lm_w: Figure = EFFICACY_LM_W,
    c: Figure = METER_C_FLAT,
) -> Figure:
    """Guide number guessed from stored energy: so much light, evenly into a round beam.

    Parameters
    ----------
    watt_seconds : at least 0 [Ws], any shape
    angle_deg : of the beam, above nothing [degrees]
    lm_w : light for the energy [lm / W]
    c : of the meter [lx s]; shapes that broadcast

    Returns
    -------
    [m, ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for a beam without any angle

    Examples
    --------
    >>> round(float(guide_number_of_ws(400)), 1)
    75.4
    """
    outside(np.asarray(angle_deg) <= 0, "a beam that is open")
    return guide_number_of_bcps(np.asarray(watt_seconds) * lm_w / solid_angle_sr(angle_deg), c=c)


def ws_of_guide_number(guide_number_m: Figure, c: Figure = METER_C_FLAT) -> Figure:
    """Stored energy guessed from a guide number through a standard reflector; the inverse of `guide_number_of_ws`.

    Parameters
    ----------
    guide_number_m : [m, ISO 100], any shape
    c : of the meter, above nothing [lx s]; shapes that broadcast

    Returns
    -------
    [Ws], of the broadcast shape.

    Raises
    ------
    ValueError : for no meter constant

    Examples
    --------
    >>> round(float(ws_of_guide_number(guide_number_of_ws(400))))
    400
    """
    return np.square(guide_number_m / guide_number_of_ws(1.0, c=c))


def guide_number_of_lux_seconds(lux_s: Figure, distance_m: Figure, c: Figure = METER_C_FLAT) -> Figure:
    """Guide number of so much light at a distance: H = C N^2 / S.

    Parameters
    ----------
    lux_s : at least 0 [lx s], any shape
    distance_m : at which it falls [m]
    c : of the meter, above nothing [lx s]; shapes that broadcast

    Returns
    -------
    [m, ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for less than no light, or no meter constant

    References
    ----------
    ISO 2720:1974

    Examples
    --------
    >>> float(guide_number_of_lux_seconds(2250, 2))
    60.0
    """
    return distance_m * np.asarray(guide_number_of_bcps(lux_s, c=c))
