"""Exposure in APEX terms, and light as meters read it.

Sources: Exif 2.32 (CIPA DC-008) Annex C; ANSI PH2.5; ISO 2720:1974.
"""

import numpy as np

from .arrays import Figure, outside

METER_C_FLAT = 250.0  # incident-meter constant, flat receptor [lx s], ISO 2720:1974; a dome is often given 330


def av(f_number: Figure) -> Figure:
    """Aperture value: 2 log2 N.

    Parameters
    ----------
    f_number : exact, above nothing, any shape

    Returns
    -------
    [stops], of the same shape.

    Raises
    ------
    ValueError : for no aperture at all

    References
    ----------
    Exif 2.32, Annex C

    Examples
    --------
    >>> float(av(8))
    6.0
    """
    outside(np.asarray(f_number) <= 0, "an aperture")
    return 2 * np.log2(f_number)


def tv(shutter_s: Figure) -> Figure:
    """Time value: -log2 t.

    Parameters
    ----------
    shutter_s : exact, above nothing [s], any shape

    Returns
    -------
    [stops], of the same shape.

    Raises
    ------
    ValueError : for no time at all

    References
    ----------
    Exif 2.32, Annex C

    Examples
    --------
    >>> float(tv(1 / 512))
    9.0
    """
    outside(np.asarray(shutter_s) <= 0, "a time")
    return -np.log2(shutter_s)


def sv(iso: Figure) -> Figure:
    """Speed value, against ISO 100: log2(S / 100).

    Parameters
    ----------
    iso : exact, above nothing, any shape

    Returns
    -------
    [stops], of the same shape.

    Raises
    ------
    ValueError : for no speed at all

    Examples
    --------
    >>> float(sv(800))
    3.0
    """
    outside(np.asarray(iso) <= 0, "a speed")
    return np.log2(np.asarray(iso) / 100)


def ev100(f_number: Figure, shutter_s: Figure, iso: Figure = 100.0) -> Figure:
    """Light value that these exact settings expose correctly: Av + Tv - log2(S / 100).

    Parameters
    ----------
    f_number, shutter_s, iso : exact, above nothing; time in seconds; shapes that broadcast

    Returns
    -------
    [EV at ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for what is no setting

    References
    ----------
    ANSI PH2.5

    Examples
    --------
    >>> float(ev100(8, 1 / 512))
    15.0
    """
    return av(f_number) + tv(shutter_s) - sv(iso)


def shutter_for(ev: Figure, f_number: Figure, iso: Figure) -> Figure:
    """Shutter time that exposes a light correctly.

    Parameters
    ----------
    ev : light value [EV at ISO 100]
    f_number, iso : exact, above nothing; shapes that broadcast

    Returns
    -------
    [s], of the broadcast shape.

    Raises
    ------
    ValueError : for what is no setting

    Examples
    --------
    >>> 1 / float(shutter_for(15, 8, 100))
    512.0
    """
    return np.exp2(av(f_number) - sv(iso) - ev)


def aperture_for(ev: Figure, shutter_s: Figure, iso: Figure = 100.0) -> Figure:
    """f-number that exposes a light correctly.

    Parameters
    ----------
    ev : light value [EV at ISO 100]
    shutter_s, iso : exact, above nothing; time in seconds; shapes that broadcast

    Returns
    -------
    f-number, exact, of the broadcast shape.

    Raises
    ------
    ValueError : for what is no setting

    Examples
    --------
    >>> float(aperture_for(15, 1 / 512))
    8.0
    """
    return np.exp2((ev + sv(iso) - tv(shutter_s)) / 2)


def stops_between(shorter_s: Figure, longer_s: Figure) -> Figure:
    """Ambient light between two times: log2(longer / shorter).

    Parameters
    ----------
    shorter_s, longer_s : above nothing [s]; shapes that broadcast

    Returns
    -------
    [stops], of the broadcast shape.

    Raises
    ------
    ValueError : for no time at all

    Examples
    --------
    >>> float(stops_between(1 / 1000, 1 / 250))
    2.0
    """
    return tv(shorter_s) - tv(longer_s)


def ev_of_lux(lux: Figure, c: Figure = METER_C_FLAT) -> Figure:
    """Light value of an illuminance: log2(E 100 / C). No light is -inf.

    Parameters
    ----------
    lux : at least 0 [lx], any shape
    c : of the meter, above nothing [lx s]; shapes that broadcast

    Returns
    -------
    [EV at ISO 100], of the broadcast shape.

    Raises
    ------
    ValueError : for less than no light, or no meter constant

    References
    ----------
    ISO 2720:1974

    Examples
    --------
    >>> ev_of_lux(np.array([2.5, 81_920])).tolist()
    [0.0, 15.0]
    """
    outside((np.asarray(lux) < 0) | (np.asarray(c) <= 0), "light, and a meter's constant")
    with np.errstate(divide="ignore"):
        return np.log2(np.asarray(lux) * 100 / c)
