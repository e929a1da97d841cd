"""Where on earth, and by which clock."""

from datetime import UTC, date, datetime, time
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import Field, field_validator

from ..kit.errors import refuse
from ..kit.values import Line, Number, Value


class Place(Value):
    """Where on earth, and by which clock."""

    name: Line = Field("", title="Place")
    latitude: Number = Field(ge=-90, le=90, title="Latitude (degrees north)")
    longitude: Number = Field(ge=-180, le=180, title="Longitude (degrees east)")
    zone: Line = Field(min_length=1, title="Time zone")

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

    A time shown twice, when clocks go back, is taken the first time. Raises a coded refusal for one that is skipped.
    """
    instant, shown = _instant(place, day, clock)
    if not shown:
        raise refuse("clock_skipped", clock=clock, day=day, zone=place.zone)
    return instant


def skipped(place: Place, day: date, clock: time) -> bool:
    """Whether the clocks of a place never show this time on a day, as they go forward."""
    return not _instant(place, day, clock)[1]


def _instant(place: Place, day: date, clock: time) -> tuple[datetime, bool]:
    """(the instant, whether the clocks of the place then show the time)."""
    local = datetime.combine(day, clock.replace(tzinfo=None), ZoneInfo(place.zone))
    instant = local.astimezone(UTC)
    return instant, instant.astimezone(local.tzinfo).replace(tzinfo=None) == local.replace(tzinfo=None)
