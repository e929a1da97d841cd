"""The log: what was read, fired and swapped on location, each entry with all that it was taken with."""

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import Field, PlainSerializer, model_validator

from ..kit.errors import refuse
from ..kit.values import Flag, KitId, Line, Name, Note, Number, ShutterS, Value, Whole, example
from .seen import Seen
from .setup import OwnBody, OwnFilter, Setup

MOST_ENTRIES = 20_000  # entries of a log, and of one file
SD_FRAMES = 0.1  # two frames of one patch against each other [stops], from memory

At = Annotated[datetime, PlainSerializer(lambda at: f"{at:%Y-%m-%dT%H:%M:%S}", return_type=str)]
"""A day and time as the clocks of the place show it, without a zone of its own."""


class FilterSeen(Value):
    """The same patch with a filter and without: what the filter takes, and the cast it leaves."""

    filter: OwnFilter
    marked_stops: Number = Field(ge=0.1, le=20)
    stops: Number = Field(ge=0, le=24)
    cast_red: Number = Field(0.0, ge=-12, le=12)
    cast_blue: Number = Field(0.0, ge=-12, le=12)


class CurtainSeen(Value):
    """A plain wall past sync speed: how much of the frame the flash lit, and which edge stayed dark."""

    body: OwnBody
    shutter_s: ShutterS
    lit: Number = Field(ge=0.02, le=0.99)
    dark_edge: Literal["bottom", "top", "unknown"] = "unknown"


SD_AMBIENT = 0.15  # a needle read on location [stops], from memory


class AmbientSeen(Value):
    """The ambient alone against what was planned for it: brighter is positive."""

    stops: Number = Field(ge=-12, le=12)
    sd: Number = Field(SD_AMBIENT, ge=0.02, le=2)


class LogEntry(Value):
    """One entry of the log. Its id is made where it is written, so that sent twice it is kept once.

    was: the setup as it stood. seen, filter, curtain, ambient: what was read. aside: set aside by the person: kept, and
    learned nothing from.
    """

    model_config = example(name="Key reading", at="2026-06-12T12:20:00", flashes=40, celsius=21)

    format: Literal["jumpstop-log"] = "jumpstop-log"
    version: Literal[1] = 1
    name: Name = "An entry"
    at: At
    job: KitId | None = None
    setup: KitId | None = None
    was: Setup | None = None
    seen: Seen | None = None
    filter: FilterSeen | None = None
    curtain: CurtainSeen | None = None
    ambient: AmbientSeen | None = None
    celsius: Number | None = Field(None, ge=-60, le=70)
    flashes: Whole | None = Field(None, ge=0, le=1_000_000)
    swapped: Line = ""
    note: Note = ""
    aside: Flag = False

    @model_validator(mode="after")
    def _stood_somewhere(self) -> "LogEntry":
        if self.at.tzinfo is not None:
            raise refuse("log_with_zone")
        if self.seen is not None:
            if self.was is None:
                raise refuse("seen_without_setup")
            if self.seen.light >= len(self.was.lights):
                raise refuse("no_such_light", number=self.seen.light + 1)
        return self

    @property
    def day(self) -> date:
        """The day it was written on."""
        return self.at.date()


class LogLine(Value):
    """One entry with the id it was given where it was written."""

    id: KitId
    entry: LogEntry


class LogFile(Value):
    """A log as one open, versioned document.

    parts: from version 2 on, what many entries hold alike (setup as it stood, light, filter, body) stands here once,
    and in its place in an entry {"part": its key here}.
    """

    format: Literal["jumpstop-readings"] = "jumpstop-readings"
    version: Literal[1, 2] = 2
    parts: dict[str, Any] = Field({})
    entries: tuple[LogLine, ...] = Field((), max_length=MOST_ENTRIES)
