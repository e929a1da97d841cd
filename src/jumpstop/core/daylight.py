"""Daylight: where the sun stands, and what it and the sky give the ground, a face, and the shade, through the day.

Sources: sun position by the package astral (checked in the tests against the solar position algorithm of Reda and
Andreas 2004); illuminance by IES RP-21, Calculation of Daylight Availability; air mass by Kasten and Young 1989.
"""

import math
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from functools import lru_cache
from itertools import pairwise
from typing import Literal
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

import astral
import astral.sun
import numpy as np
from pydantic import Field, field_validator

from .exposure import ev_of_lux
from .values import Figure, Floats, Value

Sky = Literal["clear", "partly", "overcast"]
Stand = Literal["sun", "back", "shade", "panel"]
ALBEDO = 0.2  # share of the light that the ground throws back, grass and stone, from memory
GOLDEN_DEG = (-4.0, 6.0)  # sun's elevation in the golden hours, common practice
STEP_MIN = 10
SOLAR_KLX = 127.5  # normal illuminance of the sun outside the air, IES RP-21


@dataclass(frozen=True)
class SkyFigures:
    """IES RP-21: extinction c, and the sky's horizontal light A + B sin(h)^C [klx]; sd of clouds from memory."""

    name: str
    c: float  # infinite: no beam
    a: float
    b: float
    power: float
    sd: float


SKIES: dict[Sky, SkyFigures] = {
    "clear": SkyFigures("a clear sky", 0.21, 0.8, 15.5, 0.5, 0.25),
    "partly": SkyFigures("a partly cloudy sky", 0.80, 0.3, 45.0, 1.0, 0.7),
    "overcast": SkyFigures("an overcast sky", math.inf, 0.3, 21.0, 1.0, 0.7),
}

# Clear-sky light on level ground once the sun is down, elevation [degrees] against log10(lx); after the tables of
# US Naval Observatory Circular 171 (Janiczek and DeYoung 1987), values from memory.
TWILIGHT_DEG = (-18.0, -12.0, -6.0, -0.8, 0.0)
TWILIGHT_LOG_LX = tuple(math.log10(lux) for lux in (0.002, 0.0083, 3.4, 453.0, 759.0))


class Place(Value):
    """Where on earth, and by which clock."""

    name: str = Field("", max_length=80, title="Place")
    latitude: float = Field(ge=-90, le=90, title="Latitude (degrees north)")
    longitude: float = Field(ge=-180, le=180, title="Longitude (degrees east)")
    zone: str = Field(min_length=1, max_length=60, title="Time zone")

    @field_validator("zone")
    @classmethod
    def _known(cls, zone: str) -> str:
        try:
            ZoneInfo(zone)
        except (ZoneInfoNotFoundError, ValueError, OSError):
            raise ValueError(f"“{zone}” is no time zone; say it as in Europe/London.") from None
        return zone


def moment(place: Place, day: date, clock: time) -> datetime:
    """The instant (UTC) at which the clocks of a place show this time.

    A time shown twice, when clocks go back, is taken the first time. Raises ValueError for one that is skipped.
    """
    local = datetime.combine(day, clock.replace(tzinfo=None), ZoneInfo(place.zone))
    instant = local.astimezone(UTC)
    if instant.astimezone(local.tzinfo).replace(tzinfo=None) != local.replace(tzinfo=None):
        raise ValueError(f"{clock:%H:%M} does not exist on {day:%-d %B %Y} in {place.zone}: the clocks go forward.")
    return instant


def sun_at(place: Place, instant: datetime) -> tuple[float, float]:
    """(elevation above the horizon, bearing from north eastwards) of the sun [degrees], refraction included."""
    zenith, azimuth = astral.sun.zenith_and_azimuth(astral.Observer(place.latitude, place.longitude), instant)
    return 90.0 - float(zenith), float(azimuth)


def air_mass(elevation_deg: Figure) -> Figure:
    """Relative optical air mass; Kasten and Young 1989. 1 overhead, about 38 at the horizon."""
    height = np.maximum(elevation_deg, 0.0)
    return 1 / (np.sin(np.radians(height)) + 0.50572 * (height + 6.07995) ** -1.6364)


def beam_klx(elevation_deg: Figure, day_of_year: int, sky: Sky) -> Figure:
    """Light of the sun's beam on a face square to it [klx]; IES RP-21."""
    if math.isinf(SKIES[sky].c):
        return np.zeros_like(np.asarray(elevation_deg, dtype=float))
    outside = SOLAR_KLX * (1 + 0.034 * math.cos(2 * math.pi * (day_of_year - 2) / 365))
    return np.where(
        np.asarray(elevation_deg) > 0, outside * np.exp(-SKIES[sky].c * np.asarray(air_mass(elevation_deg))), 0.0
    )


def sky_klx(elevation_deg: Figure, sky: Sky) -> Figure:
    """Light of the sky on level ground [klx]; IES RP-21 by day, a table of twilight once the sun is down."""
    figures = SKIES[sky]
    height = np.asarray(elevation_deg, dtype=float)
    by_day = figures.a + figures.b * np.sin(np.radians(np.maximum(height, 0.0))) ** figures.power
    dusk = 10 ** np.interp(height, TWILIGHT_DEG, TWILIGHT_LOG_LX) / 1000
    return np.where(height >= 0, by_day, np.minimum(dusk, 0.8) * figures.a / 0.8)


class Panel(Value):
    """A panel held level over a subject against the sun."""

    kind: Literal["opaque", "diffusing"] = Field("opaque", title="Panel")
    size_m: float = Field(1.8, ge=0.2, le=12, title="Panel size towards the sun (m)")
    height_m: float = Field(2.4, ge=0.3, le=10, title="Panel height above the ground (m)")


DIFFUSING_STOPS = -1.3  # what a diffusing panel takes from the sun, from memory


@dataclass(frozen=True, eq=False)
class Receivers:
    """EV at ISO 100 of what the daylight falls on; numbers or arrays alike."""

    ground: Figure  # the open ground, and what stands about in the sun: the background
    sun: Figure  # an upright face turned to the sun
    shade: Figure  # open shade: half the sky, and the ground's bounce
    back: Figure  # an upright face turned from the sun

    def at(self, stand: Stand, panel: Panel) -> Figure:
        """What falls on the subject where it stands."""
        if stand == "panel":
            return self.shade if panel.kind == "opaque" else np.maximum(self.shade, self.sun + DIFFUSING_STOPS)
        return {"sun": self.sun, "back": self.back, "shade": self.shade}[stand]


def receivers(elevation_deg: Figure, day_of_year: int, sky: Sky) -> Receivers:
    """EV of each receiver under this sun and sky.

    A face turned from the sun sees half the sky and the sunlit ground, as open shade does: the two come out alike.
    """
    height = np.asarray(elevation_deg, dtype=float)
    beam, diffuse = beam_klx(height, day_of_year, sky), np.asarray(sky_klx(height, sky))
    ground = beam * np.sin(np.radians(np.maximum(height, 0))) + diffuse
    shade = diffuse / 2 + ALBEDO * ground / 2
    facing = beam * np.cos(np.radians(height)) + shade
    ev = [ev_of_lux(1000 * lit) for lit in (ground, facing, shade)]
    return Receivers(ev[0], ev[1], ev[2], ev[2])


@dataclass(frozen=True, eq=False)
class Track:
    """The sun over one local day: instants (UTC), elevation and bearing [degrees], each of shape (samples,)."""

    instants: tuple[datetime, ...]
    elevation: Floats
    bearing: Floats


@lru_cache(maxsize=64)
def track_of(place: Place, day: date) -> Track:
    """The sun's way from local midnight to the next (23 or 25 hours where clocks change), every ten minutes."""
    zone = ZoneInfo(place.zone)
    start = datetime.combine(day, time(), zone).astimezone(UTC)
    end = datetime.combine(day + timedelta(days=1), time(), zone).astimezone(UTC)
    count = round((end - start) / timedelta(minutes=STEP_MIN)) + 1
    instants = tuple(start + timedelta(minutes=STEP_MIN * i) for i in range(count))
    found = np.array([sun_at(place, instant) for instant in instants])
    return Track(instants, found[:, 0], found[:, 1])


def crossings(track: Track, values: Floats, level: float) -> list[tuple[datetime, bool]]:
    """Instants at which a sampled course crosses a level, and whether it rises; straight between samples."""
    above = values > level
    out = []
    for i in np.flatnonzero(above[1:] != above[:-1]):
        share = (level - values[i]) / (values[i + 1] - values[i])
        out.append((track.instants[i] + timedelta(minutes=STEP_MIN * float(share)), bool(above[i + 1])))
    return out


def spans(track: Track, low: float, high: float) -> list[tuple[datetime, datetime]]:
    """Stretches of the day in which the sun's elevation lies between two heights [degrees]."""
    edges = sorted(
        [when for when, _ in crossings(track, track.elevation, low) + crossings(track, track.elevation, high)]
    )
    edges = [track.instants[0], *edges, track.instants[-1]]
    out: list[tuple[datetime, datetime]] = []
    for start, end in pairwise(edges):
        middle = (start + (end - start) / 2 - track.instants[0]) / timedelta(minutes=STEP_MIN)
        height = float(np.interp(middle, np.arange(len(track.elevation)), track.elevation))
        if low < height < high and end > start:
            out.append((start, end))
    return out


def sun_reaches(track: Track, bearing_deg: float) -> datetime | None:
    """When the sun first comes to a bearing while it is up: open shade that lies open to that side is lost then."""
    off = (track.bearing - bearing_deg + 180) % 360 - 180
    for i in np.flatnonzero(np.sign(off[1:]) != np.sign(off[:-1])):
        if abs(off[i + 1] - off[i]) > 180:  # the jump on the far side of the circle
            continue
        share = float(off[i] / (off[i] - off[i + 1])) if off[i] != off[i + 1] else 0.0
        if track.elevation[i] + share * (track.elevation[i + 1] - track.elevation[i]) > 0:
            return track.instants[i] + timedelta(minutes=STEP_MIN * share)
    return None


HEAD_M = 1.75  # top of a standing person's head


@dataclass(frozen=True)
class PanelShade:
    """What a panel shades of a standing person: down to which height, how far it is shifted towards the sun so that
    its shadow begins at the top of the head, and where the strip of its shadow lies on the ground, away from the sun.
    """

    down_to_m: float
    shift_m: float
    strip_from_m: float
    strip_to_m: float


def panel_shade(panel: Panel, elevation_deg: float) -> PanelShade:
    """Geometry of a level panel in the sun: a point z below its height H is met (H - z) / tan(elevation) farther off.

    Raises ValueError where there is no sun to shade.
    """
    if elevation_deg <= 1:
        raise ValueError("The sun is not up: a panel has nothing to shade.")
    slope = math.tan(math.radians(min(elevation_deg, 89.5)))
    near = (panel.height_m - HEAD_M) / slope  # the near edge stands where its shadow meets the top of the head
    return PanelShade(
        down_to_m=max(0.0, HEAD_M - panel.size_m * slope),
        shift_m=near + panel.size_m / 2,
        strip_from_m=panel.height_m / slope - near - panel.size_m,
        strip_to_m=panel.height_m / slope - near,
    )


def shadow_m(height_m: float, elevation_deg: float) -> float:
    """Length of the shadow that something upright throws, away from the sun: height / tan(elevation)."""
    return height_m / math.tan(math.radians(elevation_deg))
