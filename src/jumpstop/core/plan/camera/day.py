"""One day's light at a place: the sun's course, the EVs through the hours, and the marks on the clock."""

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from functools import lru_cache
from itertools import pairwise
from zoneinfo import ZoneInfo

import numpy as np

from ...kit.errors import CannotSolve
from ...physics import daylight
from ...physics.arrays import Figure, Floats
from ...physics.exposure import METER_C_FLAT
from ...scene.ambient import AmbientSpec
from ...scene.place import Place, moment
from .ambient import on_subject, reading_shift, with_lamps

STEP = timedelta(minutes=10)


@dataclass(frozen=True, eq=False)
class Track:
    """The sun over one local day: instants (UTC); elevation as seen, bearing, and true elevation [degrees], each of
    shape (samples,)."""

    instants: tuple[datetime, ...]
    elevation: Floats
    bearing: Floats
    true_elevation: Floats


@lru_cache(maxsize=64)
def track_of(place: Place, day: date) -> Track:
    """The sun's way from local midnight to the next (23 or 25 hours where clocks change), every ten minutes."""
    zone = ZoneInfo(place.zone)
    start = datetime.combine(day, time(), zone).astimezone(UTC)
    end = datetime.combine(day + timedelta(days=1), time(), zone).astimezone(UTC)
    instants = tuple(start + STEP * i for i in range(round((end - start) / STEP) + 1))
    found = np.array([daylight.sun_position(place.latitude, place.longitude, instant) for instant in instants])
    return Track(instants, found[:, 0], found[:, 1], found[:, 2])


@lru_cache(maxsize=64)
def horizon(place: Place, day: date) -> tuple[tuple[datetime, bool], ...]:
    """When the sun rises and sets on this local day, and which it is."""
    return tuple(daylight.sunrises_and_sunsets(place.latitude, place.longitude, day, ZoneInfo(place.zone)))


@lru_cache(maxsize=64)
def golden_hours(place: Place, day: date) -> tuple[tuple[datetime, datetime], ...]:
    """Stretches of the day in which the sun stands between the two heights of the golden hours."""
    low, high = daylight.GOLDEN_DEG
    zone = ZoneInfo(place.zone)
    edges = [
        edge
        for height in (low, high)
        for edge in daylight.times_at_elevation(place.latitude, place.longitude, day, zone, height)
    ]
    start = datetime.combine(day, time(), zone).astimezone(UTC)
    end = datetime.combine(day + timedelta(days=1), time(), zone).astimezone(UTC)
    out = []
    for one, two in pairwise(sorted([start, *edges, end])):
        height = daylight.sun_position(place.latitude, place.longitude, one + (two - one) / 2).elevation
        if low < height < high and two > one:
            out.append((one, two))
    return tuple(out)


def sun_reaches(track: Track, bearing_deg: float) -> datetime | None:
    """When the sun first comes to a bearing while it is up: open shade that lies open to that side is lost then."""
    off = (track.bearing - bearing_deg + 180) % 360 - 180
    for i in np.flatnonzero(np.sign(off[1:]) != np.sign(off[:-1])):
        if abs(off[i + 1] - off[i]) > 180:  # the jump on the far side of the circle
            continue
        share = float(off[i] / (off[i] - off[i + 1])) if off[i] != off[i + 1] else 0.0
        if track.elevation[i] + share * (track.elevation[i + 1] - track.elevation[i]) > 0:
            return track.instants[i] + STEP * share
    return None


def shade_lost(spec: AmbientSpec) -> datetime | None:
    """When the sun reaches the open shade; None where that is not known, or it does not on that day."""
    bearing = open_deg(spec)
    if spec.by != "sun" or spec.place is None or spec.day is None or bearing is None:
        return None
    return sun_reaches(track_of(spec.place, spec.day), bearing)


def open_deg(spec: AmbientSpec) -> float | None:
    """The bearing to which the shade lies open: where the sun stood when it was seen to come in, else as said."""
    seen = spec.sun_came_in
    if seen is None or spec.place is None:
        return spec.shade_open_deg
    at = moment(spec.place, seen.day, seen.clock)
    return daylight.sun_position(spec.place.latitude, spec.place.longitude, at).bearing


@dataclass(frozen=True, eq=False)
class Day:
    """The day from local midnight to the next; EVs of shape (samples,). Instants are UTC."""

    zone: ZoneInfo
    track: Track
    ground_ev: Floats
    subject_ev: Floats
    shade_ev: Floats
    now: datetime
    horizon: tuple[tuple[datetime, bool], ...]
    golden: tuple[tuple[datetime, datetime], ...]
    shade_lost: datetime | None
    shift: float


def day_of(spec: AmbientSpec, c: float = METER_C_FLAT) -> Day:
    """The day of an ambient that is known by the sun. Raises CannotSolve for any other."""
    if spec.by != "sun" or spec.place is None or spec.day is None:
        raise CannotSolve("day_without_sun")
    track = track_of(spec.place, spec.day)
    found = daylight.receivers(
        track.elevation, spec.day.timetuple().tm_yday, daylight.SKIES[spec.sky], c, track.true_elevation
    )
    shift = reading_shift(spec, c)

    def course(ev: Figure) -> Floats:
        return np.asarray(with_lamps(spec, ev + shift, c))

    return Day(
        zone=ZoneInfo(spec.place.zone),
        track=track,
        ground_ev=course(found.ground),
        subject_ev=course(on_subject(found, spec.subject, spec.panel)),
        shade_ev=course(found.shade),
        now=moment(spec.place, spec.day, spec.clock),
        horizon=horizon(spec.place, spec.day),
        golden=golden_hours(spec.place, spec.day),
        shade_lost=shade_lost(spec),
        shift=shift,
    )
