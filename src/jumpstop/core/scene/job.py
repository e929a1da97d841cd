"""The job: what the client wants, the setups in their turns, who comes, and what is to be carried."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, time
from typing import Annotated, Any, Literal

from pydantic import Field, field_validator, model_validator

from ..kit.errors import refuse
from ..kit.trigger import Battery
from ..kit.values import Clock, Flag, KitId, Line, Name, Note, Number, RowId, Value, Weight, Whole, example, with_ids
from ..physics.light_values import LIGHT_VALUES
from .light import MOST_HEADS
from .setup import Setup

Day = Annotated[date, Field(ge=date(1900, 1, 1), le=date(2199, 12, 31))]
MOST_NAME = 80  # letters of a name
MOST_SETUPS = 60  # of one job
Least = Literal["weight", "price", "buy"]


Crop = Literal["tight", "waist", "full"]
ASKED_BESIDE = frozenset({"frames_each_most", "delivered_per", "retouched_per", "frame_mb", "retouch_min"})
"""Fields of a brief that are no questions of their own."""


class Brief(Value):
    """The questions that a client should answer; None: not answered yet. frames_each_most: where a range was said.

    delivered_per, retouched_per: whether those are told for each person or in all. frame_mb: one frame on the card;
    retouch_min: what one picture takes; the usual where it is None.
    """

    crops: tuple[Crop, ...] | None = Field(None, max_length=3)
    orientation: Literal["landscape", "upright", "both"] | None = None
    context: Literal["none", "some", "much"] | None = None
    posture: Literal["standing", "sitting", "both"] | None = None
    people: Whole | None = Field(None, ge=1, le=100_000)
    frames_each: Whole | None = Field(None, ge=1, le=10_000)
    frames_each_most: Whole | None = Field(None, ge=1, le=10_000)
    delivered: Whole | None = Field(None, ge=1, le=1_000_000)
    delivered_per: Literal["all", "person"] = "all"
    picks_each: Whole | None = Field(None, ge=0, le=1000)
    retouched: Whole | None = Field(None, ge=0, le=1_000_000)
    retouched_per: Literal["all", "person"] = "all"
    retouch_min: Number | None = Field(None, ge=0.1, le=600)
    frame_mb: Number | None = Field(None, ge=0.1, le=2000)
    hours: Number | None = Field(None, ge=0.1, le=48)
    place: Line | None = None
    power_on_site: Flag | None = None
    carriage: Literal["hand", "car", "air"] | None = None
    wind_m_s: Number | None = Field(None, ge=0, le=60)
    quiet: Flag | None = None
    children: Flag | None = None

    @model_validator(mode="before")
    @classmethod
    def _one_crop(cls, doc: Any) -> Any:
        """One crop, as a brief had before it could ask for several."""
        if isinstance(doc, dict) and "crop" in doc:
            doc = dict(doc)
            crop = doc.pop("crop")
            doc.setdefault("crops", None if crop is None else [crop])
        return doc

    @property
    def open(self) -> tuple[str, ...]:
        """The questions that are not answered, in their order."""
        asked = (name for name in type(self).model_fields if name not in ASKED_BESIDE)
        return tuple(name for name in asked if getattr(self, name) is None)

    @property
    def frames(self) -> int | None:
        """Frames in all, where people and frames each are known; by the higher figure of a range."""
        if self.people is None or self.frames_each is None:
            return None
        return self.people * max(self.frames_each, self.frames_each_most or 0)


FRAME_MB = 30.0  # one frame on the card, from memory
SORTING_S = 3.0  # to look at one frame and keep it or not, from memory
RETOUCH_MIN = 15.0  # one picture, from memory


@dataclass(frozen=True)
class BriefSums:
    """What the answers to a brief come to; None where they do not say. Where frames are a range, `fewest` and
    `fewest_gb` are of its lower figure, all others of its higher. delivered: pictures in all; of_frames: frames for
    each of them."""

    fewest: int | None
    frames: int | None
    fewest_gb: float | None
    gigabytes: float | None
    sorting_h: float | None
    seconds_a_frame: float | None
    delivered: int | None
    of_frames: float | None
    retouched: int | None
    retouching_h: float | None
    picks: int | None


def sums_of(brief: Brief) -> BriefSums:
    """The sums of a brief."""
    frames, people = brief.frames, brief.people
    fewest = None if people is None or brief.frames_each is None else people * brief.frames_each
    gb = (FRAME_MB if brief.frame_mb is None else brief.frame_mb) / 1000
    picks = people * brief.picks_each if people and brief.picks_each else None
    delivered = _in_all(brief.delivered, brief.delivered_per, people)
    retouched = _in_all(brief.retouched, brief.retouched_per, people)
    retouched = picks if brief.retouched is None else retouched  # what is picked is retouched, where nothing is said
    minutes = RETOUCH_MIN if brief.retouch_min is None else brief.retouch_min
    return BriefSums(
        fewest=fewest,
        frames=frames,
        fewest_gb=None if fewest is None else fewest * gb,
        gigabytes=None if frames is None else frames * gb,
        sorting_h=None if frames is None else frames * SORTING_S / 3600,
        seconds_a_frame=brief.hours * 3600 / frames if brief.hours and frames else None,
        delivered=delivered,
        of_frames=frames / delivered if delivered and frames else None,
        retouched=retouched,
        retouching_h=retouched * minutes / 60 if retouched else None,
        picks=picks,
    )


def _in_all(count: int | None, per: str, people: int | None) -> int | None:
    """A count that was told for each person, or in all; None where it does not come to a figure."""
    if count is None or per == "all":
        return count
    return None if people is None else count * people


class Session(Value):
    """One setup's turn: who comes, how often, and when; what is None is worked out. day: that of the one before it
    where none is said, of the first the job's.

    tests: test frames beside those that count, as a share. change_min: minutes until it stands. frames_each_most: the
    higher figure where a range was said; batteries and time are planned by it.
    """

    id: RowId = ""
    setup: KitId
    variant: Line = ""
    day: Day | None = None
    start: Clock | None = None
    people: Whole = Field(1, ge=1, le=10_000)
    frames_each: Whole = Field(40, ge=1, le=10_000)
    frames_each_most: Whole | None = Field(None, ge=1, le=10_000)
    minutes_each: Number | None = Field(None, ge=0.05, le=600)
    tests: Number = Field(0.1, ge=0, le=5)
    change_min: Number = Field(15, ge=0, le=600)

    @property
    def frames_of_one(self) -> float:
        """Frames of each who comes, tests among them; by the higher figure of a range."""
        return max(self.frames_each, self.frames_each_most or 0) * (1 + self.tests)

    @property
    def frames(self) -> float:
        """Frames in all, tests among them."""
        return self.people * self.frames_of_one


class Batteries(Value):
    """How many charges there are for a unit, those in it among them, for as many of it as work at once: of its usual
    supply, or of what feeds it where that does not; its name is kept for where its id is not known."""

    unit: KitId
    name: Line = ""
    charges: Whole = Field(1, ge=1, le=99)


class Picked(Value):
    """So many of one unit are taken along; its name is kept for where its id is not known."""

    unit: KitId
    name: Line = ""
    count: Whole = Field(1, ge=1, le=MOST_HEADS)


class Posted(Value):
    """A light of a setup at which a unit stands that goes along; its name is kept for where its id is not known."""

    setup: KitId
    light: RowId
    unit: KitId
    name: Line = ""


class Bagged(Value):
    """Which bag a thing of the pack list goes into."""

    key: Line
    bag: Line


class OwnItem(Value):
    """Something of the person's own on the pack list."""

    name: Name
    count: Whole = Field(1, ge=1, le=999)
    weight_g: Weight | None = None


class Sitter(Value):
    """One person of the roster."""

    id: RowId = ""
    name: Name
    day: Day | None = None
    slot: Clock | None = None
    variant: Line = ""
    done: Flag = False
    files: Line = ""
    picks: Line = ""


class Job(Value):
    """A job: a brief, the setups' turns in the day, a roster, and what is taken along."""

    model_config = example(name="Kite week", brief={"people": 44, "frames_each": 60}, begins="09:00", ends="17:30")

    name: Name
    note: Note = ""
    brief: Brief = Brief()
    day: Day | None = None
    begins: Clock = time(9)
    ends: Clock = time(18)
    late_min: Number = Field(0.0, ge=0, le=720)
    late_day: Day | None = None
    sessions: tuple[Session, ...] = Field((), max_length=60)
    roster: tuple[Sitter, ...] = Field((), max_length=2000)
    picked: tuple[Picked, ...] = Field((), max_length=60)
    posts: tuple[Posted, ...] = Field((), max_length=1440)
    batteries: tuple[Batteries, ...] = Field((), max_length=60)
    chargers: Whole = Field(0, ge=0, le=20)
    charge_h: Number = Field(2.0, ge=0.2, le=24)
    night_charges: Whole | None = Field(None, ge=0, le=99)
    swap_min: Number = Field(2.0, ge=0, le=60)
    celsius: Number | None = Field(None, ge=-40, le=50)
    cells: Number = Field(1.0, ge=0.2, le=1)
    chance: Number = Field(0.9, ge=0.5, le=0.999)
    spares: Whole = Field(0, ge=0, le=1)
    least: Least = "weight"
    known_only: Flag = False
    own_items: tuple[OwnItem, ...] = Field((), max_length=100)
    ticked: tuple[Line, ...] = Field((), max_length=400)
    bags: tuple[Bagged, ...] = Field((), max_length=400)
    preflight: tuple[Line, ...] = Field((), max_length=30)

    _ids = field_validator("sessions", "roster")(with_ids)

    @model_validator(mode="after")
    def _runs_forward(self) -> "Job":
        if self.ends.replace(tzinfo=None) <= self.begins.replace(tzinfo=None):
            raise refuse("day_reversed", begins=self.begins, ends=self.ends)
        return self

    @property
    def session_days(self) -> tuple[date | None, ...]:
        """The day of each session; None where the job has no date at all."""
        first = self.day or min((one.day for one in self.sessions if one.day is not None), default=None)
        out, now = list[date | None](), first
        for one in self.sessions:
            now = one.day or now
            out.append(now)
        return tuple(out)

    @property
    def days(self) -> tuple[date, ...]:
        """The days of the job in their order; empty where it has no date."""
        days = {day for day in self.session_days if day is not None}
        return tuple(sorted(days)) or (() if self.day is None else (self.day,))

    @property
    def first_day(self) -> date | None:
        """The first of them, from whose midnight minutes count."""
        return min(self.days, default=None)

    def day_of(self, setup_id: str) -> date | None:
        """The day on which a setup is first shot; the job's first where it has no session."""
        found = zip(self.sessions, self.session_days, strict=True)
        own = [day for one, day in found if one.setup == setup_id and day is not None]
        return min(own, default=self.first_day)

    def charges_of(self, unit_id: str, name: str) -> int | None:
        """Charges that are said for a unit, known by its id or else by its name; None where nothing is."""
        by_id = (one.charges for one in self.batteries if one.unit == unit_id)
        by_name = (one.charges for one in self.batteries if one.name == name)
        return next(by_id, next(by_name, None))


class JobSetup(Value):
    """A setup of a job, with the id by which the sessions know it."""

    id: KitId
    setup: Setup


class JobFile(Value):
    """A job as one open, versioned document that carries its setups."""

    format: Literal["jumpstop-job"] = "jumpstop-job"
    version: Literal[1] = 1
    job: Job
    setups: tuple[JobSetup, ...] = Field((), max_length=MOST_SETUPS)
    batteries: tuple[Battery, ...] = Field((), max_length=200)

    @model_validator(mode="after")
    def _sessions_have_setups(self) -> "JobFile":
        known = {one.id for one in self.setups}
        if len(known) < len(self.setups):
            ids = [one.id for one in self.setups]
            raise refuse("setup_twice", setup=next(one for one in ids if ids.count(one) > 1))
        for session in self.job.sessions:
            if session.setup not in known:
                raise refuse("session_without_setup", setup=session.setup)
        return self

    def turns(self) -> Iterator[tuple[Session, Setup]]:
        """The sessions in their order, each with its setup; one for every setup where none is said."""
        setups = {one.id: one.setup for one in self.setups}
        for session in self.job.sessions or tuple(_usual(one) for one in self.setups):
            yield session, setups[session.setup].in_variant(session.variant)

    def batteries_for(self, unit: str, supply: str) -> list[Battery]:
        """The batteries of the shelf that fit a unit, by its name or by its power supply's."""
        named = {unit.casefold(), supply.casefold()} - {""}
        return [one for one in self.batteries if one.fits.casefold() in named]


def in_job(setup: Setup, wind_m_s: float | None, day: date | None) -> Setup:
    """A setup as its job has it: in the wind that the brief expects, where it says none of its own and stands in
    daylight; on its day, where its light comes by the sun's place."""
    ambient, stage = setup.ambient, setup.stage
    outdoors = ambient.by == "sun" or LIGHT_VALUES[ambient.condition].outdoors
    if wind_m_s is not None and stage.wind_m_s is None and outdoors:
        setup = setup.model_copy(update={"stage": stage.model_copy(update={"wind_m_s": wind_m_s})})
    if day is not None and ambient.by == "sun" and ambient.day != day:
        setup = setup.model_copy(update={"ambient": ambient.model_copy(update={"day": day})})
    return setup


def planned(file: JobFile) -> JobFile:
    """The job with its setups as it has them (see `in_job`)."""
    setups = []
    for one in file.setups:
        setup = in_job(one.setup, file.job.brief.wind_m_s, file.job.day_of(one.id))
        setups.append(one if setup is one.setup else one.model_copy(update={"setup": setup}))
    return file.model_copy(update={"setups": tuple(setups)})


def copied(file: JobFile, readings: bool) -> JobFile:
    """A job to be done again: nobody is done yet and nothing is packed. readings: whether what was seen goes along."""
    job = file.job
    roster = tuple(one.model_copy(update={"done": False, "files": "", "picks": ""}) for one in job.roster)
    name = f"{job.name[: MOST_NAME - 6]}, again"
    fresh = {"name": name, "roster": roster, "ticked": (), "late_min": 0.0, "late_day": None}
    setups = file.setups
    if not readings:
        setups = tuple(one.model_copy(update={"setup": one.setup.model_copy(update={"seen": ()})}) for one in setups)
    return file.model_copy(update={"job": job.model_copy(update=fresh), "setups": setups})


def _usual(one: JobSetup) -> Session:
    return Session(setup=one.id, frames_each=min(one.setup.frames, 10_000), tests=0.0)
