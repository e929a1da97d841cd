"""A job's sessions as iCalendar."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Calendar, Event


@dataclass(frozen=True)
class Entry:
    """One session: minutes from midnight of its day."""

    uid: str
    name: str
    start: float
    end: float
    note: str
    place: str = ""


def calendar_of(name: str, day: date, zone: str | None, entries: Sequence[Entry], made: datetime) -> bytes:
    """The schedule; in the zone's own time where it is known, else in floating time."""
    calendar = Calendar()
    calendar.add("prodid", "-//Jump Stop//EN")
    calendar.add("version", "2.0")
    calendar.add("name", name)
    for entry in entries:
        event = Event()
        event.add("uid", entry.uid)
        event.add("dtstamp", made.astimezone(UTC))
        event.add("summary", entry.name)
        event.add("dtstart", _moment(day, entry.start, zone))
        event.add("dtend", _moment(day, entry.end, zone))
        event.add("description", entry.note)
        if entry.place:
            event.add("location", entry.place)
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def _moment(day: date, minutes: float, zone: str | None) -> datetime:
    local = datetime.combine(day, datetime.min.time()) + timedelta(minutes=round(minutes))
    return local if zone is None else local.replace(tzinfo=ZoneInfo(zone)).astimezone(UTC)
