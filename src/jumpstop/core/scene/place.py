"""Where on earth, and by which clock."""

from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import Field, field_validator

from ..kit.errors import refuse
from ..kit.values import Line, Number, Value


class Place(Value):
    """Where on earth, and by which clock."""

    name: Line = ""
    latitude: Number = Field(ge=-90, le=90)
    longitude: Number = Field(ge=-180, le=180)
    zone: Line = Field(min_length=1)

    @field_validator("zone")
    @classmethod
    def _known(cls, zone: str) -> str:
        try:
            ZoneInfo(zone)
        except (ZoneInfoNotFoundError, ValueError, OSError):
            raise refuse("unknown_zone", zone=zone) from None
        return zone


def moment(place: Place, day: date, clock: time) -> datetime:
    """The instant (UTC) at which the clocks of a place show this time.

    A time shown twice, when clocks go back, is taken the first time; for one that is skipped, when they go forward, the
    next that is shown: 02:00 for 01:30 in London on 29 March 2026.
    """
    local = datetime.combine(day, clock.replace(tzinfo=None, fold=0), ZoneInfo(place.zone))
    instant = local.astimezone(UTC)
    if instant.astimezone(local.tzinfo).replace(tzinfo=None) == local.replace(tzinfo=None):
        return instant
    # Before they went forward, reckoned by what they showed after; and the other way round.
    early, late = local.replace(fold=1).astimezone(UTC), instant
    went = early.astimezone(local.tzinfo).utcoffset()
    while late - early > SECOND:
        middle = early + (late - early) / 2
        if middle.astimezone(local.tzinfo).utcoffset() == went:
            early = middle
        else:
            late = middle
    return late.replace(microsecond=0)


SECOND = timedelta(seconds=1)


def shown(place: Place, day: date, clock: time) -> time:
    """What the clocks of a place show at a time of a day: another one where they skip it (see `moment`)."""
    return _local(place, day, clock).time()


def skipped(place: Place, day: date, clock: time) -> bool:
    """Whether the clocks of a place never show this time on a day, as they go forward."""
    return _local(place, day, clock) != datetime.combine(day, clock.replace(tzinfo=None))


def _local(place: Place, day: date, clock: time) -> datetime:
    return moment(place, day, clock).astimezone(ZoneInfo(place.zone)).replace(tzinfo=None, fold=0)
