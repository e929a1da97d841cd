"""One day's light at a place, as a document: the course of the EVs, golden hours, and marks on the clock."""

from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
from pydantic import BaseModel

from ..core import daylight
from ..core.light import There, reading_shift, with_lamps
from ..core.values import Figure


class Mark(BaseModel):
    """An instant of the day: its place along the day (0..1), the clock, and what happens."""

    at: float
    clock: str
    words: str


class Span(BaseModel):
    """A stretch of the day (0..1)."""

    start: float
    end: float
    words: str


class Day(BaseModel):
    """The day from local midnight to the next; samples at equal steps of time."""

    clocks: list[str]
    hours: list[Mark]
    ground_ev: list[float]
    subject_ev: list[float]
    shade_ev: list[float]
    elevation_deg: list[float]
    now: Mark
    marks: list[Mark]
    golden: list[Span]
    words: str
    shift: float


def day_of(there: There) -> Day:
    """The day of a setup whose light is said by the sun. Raises ValueError for any other."""
    if there.by != "sun" or there.place is None or there.day is None:
        raise ValueError("The day's course needs a place and a date: say the light by the sun.")
    zone = ZoneInfo(there.place.zone)
    track = daylight.track_of(there.place, there.day)
    start, whole = track.instants[0], track.instants[-1] - track.instants[0]

    def mark(when: datetime, words: str) -> Mark:
        return Mark(at=round((when - start) / whole, 4), clock=_clock(when, zone), words=words)

    lit = daylight.receivers(track.elevation, there.day.timetuple().tm_yday, there.sky)
    shift = reading_shift(there) if there.readings else 0.0

    def course(ev: Figure) -> list[float]:
        return [round(float(value), 2) for value in np.asarray(with_lamps(there, ev + shift))]

    marks = [
        mark(when, "sunrise" if rises else "sunset") for when, rises in daylight.crossings(track, track.elevation, -0.3)
    ]
    if there.shade_open_deg is not None:
        lost = daylight.sun_reaches(track, there.shade_open_deg)
        marks += [] if lost is None else [mark(lost, "open shade lost")]
    golden = daylight.spans(track, *daylight.GOLDEN_DEG)
    return Day(
        clocks=[_clock(when, zone) for when in track.instants],
        hours=[mark(start + timedelta(hours=hour), "") for hour in range(0, round(whole / timedelta(hours=1)) + 1, 3)],
        ground_ev=course(lit.ground),
        subject_ev=course(lit.at(there.subject, there.panel)),
        shade_ev=course(lit.shade),
        elevation_deg=[round(float(value), 1) for value in track.elevation],
        now=mark(daylight.moment(there.place, there.day, there.clock), "now"),
        marks=sorted(marks, key=lambda one: one.at),
        golden=[
            Span(start=(a - start) / whole, end=(b - start) / whole, words=f"{_clock(a, zone)} to {_clock(b, zone)}")
            for a, b in golden
        ],
        words=_words(track, marks, golden, zone),
        shift=round(shift, 2),
    )


def _clock(when: datetime, zone: ZoneInfo) -> str:
    return f"{when.astimezone(zone):%H:%M}"


def _words(track: daylight.Track, marks: list[Mark], golden: list[tuple[datetime, datetime]], zone: ZoneInfo) -> str:
    """The day in a sentence; polar days and nights say so."""
    high = float(track.elevation.max())
    sun = [f"{one.words} {one.clock}" for one in marks if one.words in ("sunrise", "sunset")]
    if not sun:
        said = "The sun does not set" if high > 0 else "The sun does not rise"
        sun = [f"{said} on this day; at its highest it stands {high:.0f}° up" if high > 0 else f"{said} on this day"]
    hours = ", ".join(f"{_clock(a, zone)} to {_clock(b, zone)}" for a, b in golden)
    return f"{', '.join(sun).capitalize()}. " + (f"Golden hours {hours}." if golden else "No golden hour.")
