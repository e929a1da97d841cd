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

from .arrays import Figure
from .exposure import METER_C_FLAT, ev_of_lux

ALBEDO = 0.2  # share of the light that the ground throws back, grass and stone, from memory
GOLDEN_DEG = (-4.0, 6.0)  # sun's elevation in the golden hours, common practice
SOLAR_KLX = 127.5  # normal illuminance of the sun outside the air, IES RP-21
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
    """Where the sun stands at an instant, seen from a place [degrees]."""
    import astral.sun  # late: only who asks for the sun needs it

    place = astral.Observer(latitude, longitude)
    zenith, azimuth = astral.sun.zenith_and_azimuth(place, instant)
    return Sun(90.0 - float(zenith), float(azimuth), 90.0 - float(astral.sun.zenith(place, instant, False)))


def sunrises_and_sunsets(latitude: float, longitude: float, day: date, zone: ZoneInfo) -> list[tuple[datetime, bool]]:
    """Instants (UTC) on this local day at which the sun's edge is on the horizon, and whether it rises."""
    import astral.sun

    place = astral.Observer(latitude, longitude)
    rises = _on_day(lambda at: astral.sun.sunrise(place, at), day, zone)
    sets = _on_day(lambda at: astral.sun.sunset(place, at), day, zone)
    return sorted([(when, True) for when in rises] + [(when, False) for when in sets])


def times_at_elevation(
    latitude: float, longitude: float, day: date, zone: ZoneInfo, elevation_deg: float
) -> list[datetime]:
    """Instants (UTC) on this local day at which the sun's centre stands so high [degrees]; none on some polar days."""
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
    """Relative optical air mass; Kasten and Young 1989. 1 overhead, about 38 at the horizon."""
    height = np.maximum(elevation_deg, 0.0)
    return 1 / (np.sin(np.radians(height)) + 0.50572 * (height + 6.07995) ** -1.6364)


def beam_klx(elevation_deg: Figure, day_of_year: int, extinction: float) -> Figure:
    """Light of the sun's beam on a face square to it [klx]; IES RP-21. An infinite extinction lets none through.

    elevation_deg: of the sun as it is seen, as the air mass has it.
    """
    if math.isinf(extinction):
        return np.zeros_like(np.asarray(elevation_deg, dtype=float))
    outside = SOLAR_KLX * (1 + 0.034 * math.cos(2 * math.pi * (day_of_year - 2) / 365))
    return np.where(
        np.asarray(elevation_deg) > 0, outside * np.exp(-extinction * np.asarray(air_mass(elevation_deg))), 0.0
    )


def sky_klx(true_deg: Figure, sky: SkyModel) -> Figure:
    """Light of the sky on level ground [klx]; IES RP-21 by day, a table of twilight once the sun is down.

    true_deg: the sun's true elevation, by which both sources go.
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
    elevation_deg: Figure, day_of_year: int, sky: SkyModel, c: float = METER_C_FLAT, true_deg: Figure | None = None
) -> Receivers:
    """EV of each receiver under this sun and sky, at the meter constant C [lx s].

    elevation_deg: of the sun as it is seen, by which its beam goes; true_deg: without the air's lift, by which the
    light of the sky does; the same where it is not said.
    A face turned from the sun sees half the sky and the sunlit ground, as open shade does: the two come out alike.
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


@dataclass(frozen=True)
class PanelShade:
    """What a panel shades of a standing person: down to which height, how far it is shifted towards the sun so that
    its shadow begins at the top of the head, and where the strip of its shadow lies on the ground, away from the sun.
    """

    down_to_m: float
    shift_m: float
    strip_from_m: float
    strip_to_m: float


def panel_shade(size_m: float, height_m: float, elevation_deg: float) -> PanelShade | None:
    """Geometry of a level panel in the sun: a point z below its height H is met (H - z) / tan(elevation) farther off.

    None where the sun is within a degree of the horizon or below it: there is nothing to shade.
    """
    if elevation_deg <= 1:
        return None
    slope = math.tan(math.radians(min(elevation_deg, 89.5)))
    near = (height_m - HEAD_M) / slope  # the near edge stands where its shadow meets the top of the head
    return PanelShade(
        down_to_m=max(0.0, HEAD_M - size_m * slope),
        shift_m=near + size_m / 2,
        strip_from_m=height_m / slope - near - size_m,
        strip_to_m=height_m / slope - near,
    )


def shadow_m(height_m: float, elevation_deg: float) -> float:
    """Length of the shadow that something upright throws, away from the sun: height / tan(elevation)."""
    return height_m / math.tan(math.radians(elevation_deg))
