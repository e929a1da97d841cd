"""Daylight: where the sun stands, and what it and the sky give the ground, a face, and the shade.

Sources: sun position and times by the package astral (checked in the tests against the solar position algorithm of
Reda and Andreas 2004); illuminance by IES RP-21, Calculation of Daylight Availability; air mass by Kasten and Young
1989.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from typing import NamedTuple
from zoneinfo import ZoneInfo

import numpy as np

from .arrays import Figure, outside
from .exposure import METER_C_FLAT, ev_of_lux

ALBEDO = 0.2  # share of the light that the ground throws back, grass and stone, from memory
GOLDEN_DEG = (-4.0, 6.0)  # sun's elevation in the golden hours, common practice
SOLAR_KLX = 127.5  # normal illuminance of the sun outside the air, IES RP-21
LOW_SUN_DEG = 1.0  # as low as this it throws no shadow that is drawn or shaded; a matter of computing
HEAD_M = 1.75  # top of a standing person's head


class SkyModel(NamedTuple):
    """IES RP-21: extinction c, and the sky's light A + B sin(h)^C [klx]; doubt of clouds [stops] from memory."""

    c: float  # infinite: no beam
    a: float
    b: float
    power: float
    sd: float


SKIES: dict[str, SkyModel] = {
    "clear": SkyModel(0.21, 0.8, 15.5, 0.5, 0.25),
    "partly": SkyModel(0.80, 0.3, 45.0, 1.0, 0.7),
    "overcast": SkyModel(math.inf, 0.3, 21.0, 1.0, 0.7),
}
"""By sky: extinction, zenith part, sky's slope and power, doubt; IES RP-21, doubts from memory."""

# Clear-sky light on level ground once the sun is down, elevation [degrees] against log10(lx); after the tables of
# US Naval Observatory Circular 171 (Janiczek and DeYoung 1987), values from memory.
TWILIGHT_DEG = (-18.0, -12.0, -6.0, -0.8, 0.0)
TWILIGHT_LOG_LX = tuple(math.log10(lux) for lux in (0.002, 0.0083, 3.4, 453.0, 759.0))
"""Log lux at those elevations of the sun; US Naval Observatory Circular 171, from memory."""


class Sun(NamedTuple):
    """Where the sun stands [degrees]: its elevation above the horizon as it is seen, its bearing from north eastwards,
    and its true elevation, which the air does not lift: lower by half a degree at the horizon."""

    elevation: float
    bearing: float
    true_elevation: float


def sun_position(latitude: float, longitude: float, instant: datetime) -> Sun:
    """Where the sun stands, seen from a place.

    Parameters
    ----------
    latitude, longitude : of the one place [degrees north, east]
    instant : one moment, with its zone

    Returns
    -------
    Its elevation, bearing and true elevation [degrees].

    References
    ----------
    by the package astral; against Reda and Andreas 2004 in the tests

    Examples
    --------
    >>> round(sun_position(51.0, 0.0, datetime(2026, 6, 24, 12, tzinfo=UTC)).elevation, 1)
    62.4
    """
    import astral.sun  # late: only who asks for the sun needs it

    place = astral.Observer(latitude, longitude)
    zenith, azimuth = astral.sun.zenith_and_azimuth(place, instant)
    return Sun(90.0 - float(zenith), float(azimuth), 90.0 - float(astral.sun.zenith(place, instant, False)))


def sunrises_and_sunsets(latitude: float, longitude: float, day: date, zone: ZoneInfo) -> list[tuple[datetime, bool]]:
    """Instants on a local day at which the sun's edge is on the horizon.

    Parameters
    ----------
    latitude, longitude : of the one place [degrees north, east]
    day, zone : the day as it is counted there

    Returns
    -------
    (instant in UTC, whether the sun rises), in their order; none on some polar days.

    Examples
    --------
    >>> times = sunrises_and_sunsets(51.0, 0.0, date(2026, 6, 24), ZoneInfo("Europe/London"))
    >>> [(when.hour, rises) for when, rises in times]
    [(3, True), (20, False)]
    """
    import astral.sun

    place = astral.Observer(latitude, longitude)
    rises = _on_day(lambda at: astral.sun.sunrise(place, at), day, zone)
    sets = _on_day(lambda at: astral.sun.sunset(place, at), day, zone)
    return sorted([(when, True) for when in rises] + [(when, False) for when in sets])


def times_at_elevation(
    latitude: float, longitude: float, day: date, zone: ZoneInfo, elevation_deg: float
) -> list[datetime]:
    """Instants on a local day at which the sun's centre stands so high.

    Parameters
    ----------
    latitude, longitude : of the one place [degrees north, east]
    day, zone : the day as it is counted there
    elevation_deg : as it is seen [degrees]

    Returns
    -------
    Instants in UTC, in their order; none where it does not come to that height.

    Examples
    --------
    >>> [when.hour for when in times_at_elevation(51.0, 0.0, date(2026, 6, 24), ZoneInfo("Europe/London"), 30)]
    [7, 16]
    """
    import astral.sun

    place = astral.Observer(latitude, longitude)
    rising, setting = astral.SunDirection.RISING, astral.SunDirection.SETTING
    up = _on_day(lambda at: astral.sun.time_at_elevation(place, elevation_deg, at, rising), day, zone)
    down = _on_day(lambda at: astral.sun.time_at_elevation(place, elevation_deg, at, setting), day, zone)
    return sorted([*up, *down])


def _on_day(found: Callable[[date], datetime], day: date, zone: ZoneInfo) -> list[datetime]:
    """The instants that fall on the local day; the package counts days by UTC, so its neighbours are asked too."""
    out: set[datetime] = set()
    for shift in (-1, 0, 1):
        try:
            when = found(day + timedelta(days=shift))
        except ValueError:  # the sun does not come to that height on that day
            continue
        if when.astimezone(zone).date() == day:
            out.add(when.astimezone(UTC))
    return sorted(out)


def air_mass(elevation_deg: Figure) -> Figure:
    """Relative optical air mass: 1 overhead, about 38 at the horizon and below.

    Parameters
    ----------
    elevation_deg : of the sun as it is seen [degrees], any shape

    Returns
    -------
    Of the same shape.

    References
    ----------
    Kasten and Young 1989

    Examples
    --------
    >>> air_mass(np.array([90.0, 30, 0])).round(2).tolist()
    [1.0, 1.99, 37.92]
    """
    height = np.maximum(elevation_deg, 0.0)
    return 1 / (np.sin(np.radians(height)) + 0.50572 * (height + 6.07995) ** -1.6364)


def beam_klx(elevation_deg: Figure, day_of_year: Figure, extinction: Figure) -> Figure:
    """Light of the sun's beam on a face square to it; none where the extinction is infinite, or the sun down.

    Parameters
    ----------
    elevation_deg : of the sun as it is seen, as the air mass has it [degrees]
    day_of_year : 1 to 366
    extinction : at least 0; shapes that broadcast

    Returns
    -------
    [klx], of the broadcast shape.

    Raises
    ------
    ValueError : for air that adds light

    References
    ----------
    IES RP-21

    Examples
    --------
    >>> round(float(beam_klx(90.0, 93, 0.21)), 1)
    103.4
    """
    outside(np.asarray(extinction) < 0, "air that takes light")
    above = SOLAR_KLX * (1 + 0.034 * np.cos(2 * math.pi * (np.asarray(day_of_year) - 2) / 365))
    through = np.exp(-np.asarray(extinction) * air_mass(elevation_deg))
    return np.where(np.asarray(elevation_deg) > 0, above * through, 0.0)


def sky_klx(true_deg: Figure, sky: SkyModel) -> Figure:
    """Light of the sky on level ground; once the sun is down, by a table of twilight.

    Parameters
    ----------
    true_deg : the sun's true elevation, by which both sources go [degrees], any shape
    sky : its model

    Returns
    -------
    [klx], of the same shape.

    References
    ----------
    IES RP-21; US Naval Observatory Circular 171

    Examples
    --------
    >>> round(float(sky_klx(90.0, SKIES["clear"])), 1)
    16.3
    """
    height = np.asarray(true_deg, dtype=float)
    by_day = sky.a + sky.b * np.sin(np.radians(np.maximum(height, 0.0))) ** sky.power
    dusk = 10 ** np.interp(height, TWILIGHT_DEG, TWILIGHT_LOG_LX) / 1000
    clear = SKIES["clear"].a
    return np.where(height >= 0, by_day, np.minimum(dusk, clear) * sky.a / clear)


@dataclass(frozen=True, eq=False)
class Receivers:
    """EV at ISO 100 of what the daylight falls on; numbers or arrays alike."""

    ground: Figure  # the open ground, and what stands about in the sun: the background
    sun: Figure  # an upright face turned to the sun
    shade: Figure  # open shade: half the sky, and the ground's bounce
    back: Figure  # an upright face turned from the sun


def receivers(
    elevation_deg: Figure, day_of_year: Figure, sky: SkyModel, c: Figure = METER_C_FLAT, true_deg: Figure | None = None
) -> Receivers:
    """What each receiver has of this sun and sky. A face turned from the sun sees half the sky and the sunlit ground,
    as open shade does: the two come out alike.

    Parameters
    ----------
    elevation_deg : of the sun as it is seen, by which its beam goes [degrees], any shape
    day_of_year : 1 to 366
    sky : its model
    c : of the meter [lx s]
    true_deg : without the air's lift, by which the light of the sky goes; the same where it is not said

    Returns
    -------
    [EV at ISO 100] of each, of the same shape.

    Examples
    --------
    >>> round(float(receivers(60.0, 172, SKIES["clear"]).ground), 1)
    15.3
    """
    height = np.asarray(elevation_deg, dtype=float)
    beam, diffuse = (
        beam_klx(height, day_of_year, sky.c),
        np.asarray(sky_klx(height if true_deg is None else true_deg, sky)),
    )
    ground = beam * np.sin(np.radians(np.maximum(height, 0))) + diffuse
    shade = diffuse / 2 + ALBEDO * ground / 2
    facing = beam * np.cos(np.radians(height)) + shade
    ev = [ev_of_lux(1000 * lit, c) for lit in (ground, facing, shade)]
    return Receivers(ev[0], ev[1], ev[2], ev[2])


@dataclass(frozen=True, eq=False)
class PanelShade:
    """What a panel shades of a standing person: down to which height, how far it is shifted towards the sun so that
    its shadow begins at the top of the head, and where the strip of its shadow lies on the ground, away from the sun.
    """

    down_to_m: Figure
    shift_m: Figure
    strip_from_m: Figure
    strip_to_m: Figure


def panel_shade(size_m: Figure, height_m: Figure, elevation_deg: Figure) -> PanelShade:
    """What a level panel shades: a point z below its height H is met (H - z) / tan(elevation) farther off.

    Parameters
    ----------
    size_m : of the panel, above nothing [m]
    height_m : it hangs at, over the head [m]
    elevation_deg : of the sun, above a degree: lower there is nothing to shade; shapes that broadcast

    Returns
    -------
    See PanelShade; each of the broadcast shape.

    Raises
    ------
    ValueError : for a sun as low as the horizon, or a panel that is none

    Examples
    --------
    >>> round(float(panel_shade(1.2, 2.4, 45).down_to_m), 2)
    0.55
    """
    outside(
        (np.asarray(size_m) <= 0) | (np.asarray(elevation_deg) <= LOW_SUN_DEG), "a panel, and a sun above the horizon"
    )
    slope = np.tan(np.radians(np.minimum(elevation_deg, 89.5)))
    near = (height_m - HEAD_M) / slope  # the near edge stands where its shadow meets the top of the head
    return PanelShade(
        down_to_m=np.maximum(0.0, HEAD_M - size_m * slope),
        shift_m=near + np.asarray(size_m) / 2,
        strip_from_m=height_m / slope - near - size_m,
        strip_to_m=height_m / slope - near,
    )


def shadow_m(height_m: Figure, elevation_deg: Figure) -> Figure:
    """Length of the shadow that something upright throws, away from the sun: h / tan(elevation).

    Parameters
    ----------
    height_m : [m]
    elevation_deg : of the sun, above nothing [degrees]; shapes that broadcast

    Returns
    -------
    [m], of the broadcast shape.

    Raises
    ------
    ValueError : without a sun above the horizon

    Examples
    --------
    >>> round(float(shadow_m(2.0, 30)), 2)
    3.46
    """
    outside(np.asarray(elevation_deg) <= 0, "a sun above the horizon")
    return height_m / np.tan(np.radians(elevation_deg))
