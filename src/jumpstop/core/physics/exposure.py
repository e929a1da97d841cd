"""Exposure in APEX terms, and light as meters read it.

Sources: Exif 2.32 (CIPA DC-008) Annex C; ANSI PH2.5; ISO 2720:1974.
"""

import numpy as np

from .arrays import Figure

METER_C_FLAT = 250.0  # incident-meter constant, flat receptor [lx s], ISO 2720:1974; a dome is often given 330


def av(f_number: Figure) -> Figure:
    """Aperture value: 2 log2 N."""
    return 2 * np.log2(f_number)


def tv(shutter_s: Figure) -> Figure:
    """Time value: -log2 t, t in seconds."""
    return -np.log2(shutter_s)


def ev100(f_number: Figure, shutter_s: Figure, iso: Figure = 100.0) -> Figure:
    """Light value, as EV at ISO 100, that these exact settings expose correctly."""
    return av(f_number) + tv(shutter_s) - np.log2(np.asarray(iso) / 100)


def shutter_for(ev: Figure, f_number: Figure, iso: Figure) -> Figure:
    """Shutter time [s] that exposes the light value `ev` (EV at ISO 100) correctly."""
    return np.exp2(av(f_number) - np.log2(np.asarray(iso) / 100) - ev)


def aperture_for(ev: Figure, shutter_s: Figure, iso: Figure = 100.0) -> Figure:
    """f-number that exposes the light value `ev` (EV at ISO 100) correctly."""
    return np.exp2((ev + np.log2(np.asarray(iso) / 100) - tv(shutter_s)) / 2)


def stops_between(shorter_s: Figure, longer_s: Figure) -> Figure:
    """Stops of ambient light between two times: log2(longer / shorter)."""
    return np.log2(np.asarray(longer_s) / shorter_s)


def ev_of_lux(lux: Figure, c: float = METER_C_FLAT) -> Figure:
    """EV at ISO 100 of an illuminance [lx]: log2(E 100 / C). EV 0 is 2.5 lx, EV 15 is 81,920 lx at C = 250."""
    return np.log2(np.asarray(lux) * 100 / c)
