"""One day's light at a place, as a document: the course of the EVs, golden hours, and marks on the clock."""

from datetime import datetime, timedelta

import numpy as np
from pydantic import BaseModel

from ..core.physics.arrays import Floats
from ..core.plan.camera.day import Day


class DayMark(BaseModel):
    """An instant of the day: its place along the day (0..1), the clock, and what happens."""

    at: float
    clock: str
    words: str


class DaySpan(BaseModel):
    """A stretch of the day (0..1)."""

    start: float
    end: float
    words: str


class DayText(BaseModel):
    """The day from local midnight to the next; samples at equal steps of time."""

    clocks: list[str]
    hours: list[DayMark]
    ground_ev: list[float]
    subject_ev: list[float]
    shade_ev: list[float]
    elevation_deg: list[float]
    now: DayMark
    marks: list[DayMark]
    golden: list[DaySpan]
    words: str
    shift: float


def day_text(day: Day) -> DayText:
    """The document of a day."""
    instants = day.track.instants
    start, whole = instants[0], instants[-1] - instants[0]

    def clock(when: datetime) -> str:
        return f"{when.astimezone(day.zone):%H:%M}"

    def mark(when: datetime, words: str = "") -> DayMark:
        return DayMark(at=round((when - start) / whole, 4), clock=clock(when), words=words)

    def course(values: Floats, digits: int = 2) -> list[float]:
        rounded: list[float] = np.round(values, digits).tolist()
        return rounded

    marks = [mark(when, "sunrise" if rises else "sunset") for when, rises in day.horizon]
    if day.shade_lost is not None:
        marks.append(mark(day.shade_lost, "open shade lost"))
    return DayText(
        clocks=[clock(when) for when in instants],
        hours=[mark(start + timedelta(hours=hour)) for hour in range(0, round(whole / timedelta(hours=1)) + 1, 3)],
        ground_ev=course(day.ground_ev),
        subject_ev=course(day.subject_ev),
        shade_ev=course(day.shade_ev),
        elevation_deg=course(day.track.elevation, 1),
        now=mark(day.now, "now"),
        marks=sorted(marks, key=lambda one: one.at),
        golden=[
            DaySpan(start=(a - start) / whole, end=(b - start) / whole, words=f"{clock(a)} to {clock(b)}")
            for a, b in day.golden
        ],
        words=_words(day, marks, [f"{clock(a)} to {clock(b)}" for a, b in day.golden]),
        shift=round(day.shift, 2),
    )


def _words(day: Day, marks: list[DayMark], golden: list[str]) -> str:
    """The day in a sentence; polar days and nights say so."""
    high = float(day.track.elevation.max())
    sun = [f"{one.words} {one.clock}" for one in marks if one.words in ("sunrise", "sunset")]
    if not sun:
        said = "The sun does not set" if high > 0 else "The sun does not rise"
        sun = [f"{said} on this day; at its highest it stands {high:.0f}° up" if high > 0 else f"{said} on this day"]
    first = ", ".join(sun)
    return f"{first[0].upper()}{first[1:]}. " + (f"Golden hours {', '.join(golden)}." if golden else "No golden hour.")
