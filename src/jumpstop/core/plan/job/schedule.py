"""The turns of a day: when each setup is shot, by which units, at what power, hour by hour; and what it takes."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date
from functools import cached_property

import numpy as np

from ...kit.power import PowerSupply
from ...kit.shelf import Shelf
from ...kit.table import UnitTable, standby_of
from ...physics import battery
from ...physics.scales import Step
from ...scene.job import Job, JobFile, Session
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.remark import Remark, remark
from ..light.advice import chosen_method, unit_for
from ..light.levels import levels
from ..light.reach import CADENCE_S, Solved
from ..stage.comes_out import fails
from .batteries import Fed, fed_at
from .changeover import Standing
from .hours import WHOLE_DAY_MIN, at_minutes, follows_sun, minutes_of
from .worked_out import solved_on, with_copies

SLICE_MIN = 60.0  # the light is looked at anew after so long
TURNOVER_MIN = 1.0  # from one person to the next, from memory
MOST_FRAMES = 1_000_000  # in one session
MOST_MIN = 3 * WHOLE_DAY_MIN  # a day that runs on is followed for so long


@dataclass(frozen=True)
class Work:
    """One unit at one light in a stretch of a session.

    drain: what all its flashes take from the charge [full flashes]. every_s: from one flash to the next. rest_s: what
    heat adds. standby: what each of its heads takes in an hour by standing by [full flashes].
    """

    light: int
    unit: int
    heads: int
    below_full: float
    flashes: float
    drain: float
    recycle_s: float
    every_s: float
    rest_s: float
    supply: PowerSupply | None
    standby: float = 0.0

    @property
    def fed(self) -> Fed:
        """The unit on what feeds it here."""
        return Fed(self.unit, self.supply)


@dataclass(frozen=True)
class Stretch:
    """A part of a session under one light: minutes of the day, the method, the unit of every light, what each does; and
    how many frames."""

    start: float
    end: float
    solved: Solved
    kind: MethodKind
    units: tuple[int | None, ...]
    work: tuple[Work, ...]
    frames: float = 0.0

    @cached_property
    def failing(self) -> tuple[Remark, ...]:
        """What of the picture does not come out so (see `fails`); most days that are tried are never asked."""
        found = levels(self.solved, self.kind, self.units)
        return tuple(fails(self.solved, self.kind, self.units, found))


@dataclass(frozen=True)
class Turn:
    """A session as it runs, in minutes from the midnight before the job's first day; past the next one they run on.

    at: its place among the job's sessions. midnight: before its own day. setup: as on the first day. start: it is set
    up; ready: the first frame.
    """

    session: Session
    setup: Setup
    start: float
    ready: float
    end: float
    stretches: tuple[Stretch, ...]
    wrong: tuple[Remark, ...]
    at: int = 0
    midnight: float = 0.0

    @property
    def on_its_day(self) -> Setup:
        """The setup on the day that it is shot."""
        return at_minutes(self.setup, self.midnight + minutes_of(self.setup.ambient.clock))


def day_shelf(file: JobFile, shelf: Shelf) -> Shelf:
    """The units that a day can draw on: those picked, else the whole shelf; and those that lights have taken."""
    picked = sorted(picked_of(file.job, shelf))
    if picked:
        shelf = shelf.only(picked)
    return with_copies(shelf, (one.setup for one in file.setups))


def turns_of(
    file: JobFile,
    shelf: Shelf,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    pauses: Sequence[float] = (),
) -> list[Turn]:
    """The sessions one after the other, day by day: each begins when it is said to, else when the one before has ended.

    shelf: the units of the day (see `day_shelf`). pauses: minutes that each takes longer, for batteries to be changed.
    Where a day runs late, a session whose time has passed begins as soon as it can.
    """
    job, first = file.job, file.job.first_day
    turns, days = list(file.turns()), job.session_days
    midnights = [_midnight(days[at] if job.sessions else first, first) for at in range(len(turns))]
    found, now, today = list[Turn](), 0.0, -1.0
    for at in sorted(range(len(turns)), key=lambda at: midnights[at]):
        session, setup = turns[at]
        late = job.late_min if midnights[at] == _midnight(job.late_day, first) else 0.0
        if midnights[at] != today:
            today, now = midnights[at], max(now, midnights[at] + minutes_of(job.begins) + late)
        turn = _turn(job, session, _on(setup, first), now, shelf, step, avoid, today, late)
        if pauses:
            turn = replace(turn, end=turn.end + pauses[len(found)])
        found.append(replace(turn, at=at))
        now = max(now, turn.end)
    return found


def _midnight(day: date | None, first: date | None) -> float:
    """The midnight before a day [minutes from that before the first]; where a day is not said, the first one's."""
    return 0.0 if day is None or first is None else float((day - first).days * WHOLE_DAY_MIN)


def _on(setup: Setup, day: date | None) -> Setup:
    """The setup on a day, where its light is known by the sun."""
    if day is None or not follows_sun(setup.ambient) or setup.ambient.day == day:
        return setup
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update={"day": day})})


def _turn(
    job: Job,
    session: Session,
    setup: Setup,
    now: float,
    shelf: Shelf,
    step: Step,
    avoid: Sequence[MethodKind],
    midnight: float,
    late: float,
) -> Turn:
    start, wrong = now, list[Remark]()
    if session.start is not None:
        start = midnight + minutes_of(session.start)
        early = minutes_of(session.start) < minutes_of(job.begins)
        if early and now - start > WHOLE_DAY_MIN / 2:  # 00:30 of an evening: the next day's
            start += WHOLE_DAY_MIN
        if start < now and late:
            start = now
        elif start < now:
            wrong.append(remark("overlaps", minutes=now - start))
    ready = start + session.change_min
    if session.frames > MOST_FRAMES:
        wrong.append(remark("too_many_frames", frames=session.frames, most=MOST_FRAMES))
        return Turn(session, setup, start, ready, ready, (), tuple(wrong), midnight=midnight)
    most = midnight + MOST_MIN
    stretches = tuple(_stretches(job, session, setup, ready, most, shelf, step, avoid))
    if not stretches:
        wrong.append(remark("no_method"))
    end = stretches[-1].end if stretches else ready
    if end >= most:
        wrong.append(remark("too_long", days=int(MOST_MIN // WHOLE_DAY_MIN)))
    return Turn(session, setup, start, ready, end, stretches, tuple(wrong), midnight=midnight)


def _stretches(
    job: Job,
    session: Session,
    setup: Setup,
    ready: float,
    most: float,
    shelf: Shelf,
    step: Step,
    avoid: Sequence[MethodKind],
) -> Iterator[Stretch]:
    """The session in stretches of an hour, its people shared out by the time each takes there."""
    left, now = float(session.people), ready
    while left > 1e-9 and now < most:
        there = at_minutes(setup, now) if follows_sun(setup.ambient) else setup
        shot = as_shot(there, session.setup, job, shelf, step, avoid)
        if shot is None:
            return
        solved, kind, units = shot.solved, shot.kind, shot.units
        each = minutes_each(session, solved, kind, units)
        people = min(left, SLICE_MIN / each) if follows_sun(setup.ambient) else left
        work = tuple(_works(session, solved, kind, units, people, each))
        rest = max((one.rest_s for one in work), default=0.0) / 60
        end = now + people * each + rest
        yield Stretch(now, end, solved, kind, units, work, people * session.frames_of_one)
        left, now = left - people, end


def minutes_each(session: Session, solved: Solved, kind: MethodKind, units: Sequence[int | None]) -> float:
    """Minutes that one person takes: as said, else by cadence and the slowest unit's recycle time."""
    if session.minutes_each is not None:
        return session.minutes_each
    waits = [CADENCE_S]
    for light, unit in enumerate(units):
        if unit is not None:
            wait = float(solved.reach(kind, light).recycle_s[unit])
            waits.append(0.0 if math.isnan(wait) else wait)
    return TURNOVER_MIN + session.frames_of_one * max(waits) / 60


@dataclass(frozen=True)
class AsShot(Standing):
    """A setup of a job as it is shot, solved for the units that the day can draw on; id: by which the job knows it."""

    id: str


def as_shot(
    setup: Setup, setup_id: str, job: Job, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> AsShot | None:
    """A setup as its job shoots it; None where it has no method. shelf: the units of the day (see `day_shelf`)."""
    solved = solved_on(setup, shelf, step, avoid)
    if not solved.kinds:
        return None
    kind = chosen_method(solved, avoid)
    return AsShot(solved, kind, units_at(solved, kind, job, setup_id), setup_id)


def units_at(solved: Solved, kind: MethodKind, job: Job, setup_id: str) -> tuple[int | None, ...]:
    """The unit of every light that is on: the one taken; else the one that the job has there; else, of those that go
    along (of the shelf where none is picked), the one to compare by, each only as often as it is there. What fewest of
    them reach has its unit first."""
    table, lights = solved.table, solved.setup.lights
    left, posted = picked_of(job, table), posted_of(job, table, setup_id)
    reaches = [solved.reach(kind, at) for at in range(len(lights))]
    out: list[int | None] = [each.taken if light.on else None for each, light in zip(reaches, lights, strict=True)]

    def stands(at: int, unit: int | None) -> None:
        out[at] = unit
        if unit is not None and unit in left:
            left[unit] -= lights[at].heads

    for at, unit in enumerate(out):
        stands(at, unit)
    bare = [at for at, light in enumerate(lights) if light.on and out[at] is None]
    for at in bare:
        unit = posted.get(lights[at].id)
        if unit is not None and left.get(unit, 0) >= lights[at].heads and reaches[at].able[unit]:
            stands(at, unit)
    for at in sorted(bare, key=lambda at: sum(bool(reaches[at].reaches[unit]) for unit in left)):
        if out[at] is None:
            one = reaches[at]
            stands(at, _among(one.able, one.spare, one.reaches, table.weight_g, left) if left else unit_for(one))
    return tuple(out)


def posted_of(job: Job, shelf: Shelf | UnitTable, setup_id: str) -> dict[str, int]:
    """The units that the job has at a setup's lights, by the lights' ids; what is no longer there is left out."""
    found = ((one.light, _place(shelf, one.unit, one.name)) for one in job.posts if one.setup == setup_id)
    return {light: place for light, place in found if place is not None}


def _place(shelf: Shelf | UnitTable, unit_id: str, name: str) -> int | None:
    """Where a unit stands, by its id or else by its name."""
    place = shelf.place_of(unit_id)
    return shelf.place_of(None, name) if place is None else place


def picked_of(job: Job, shelf: Shelf | UnitTable) -> dict[int, int]:
    """How many of each unit go along, by its place on the shelf; what is no longer there is left out."""
    out: dict[int, int] = {}
    for one in job.picked:
        place = _place(shelf, one.unit, one.name)
        if place is not None:
            out[place] = out.get(place, 0) + one.count
    return out


def _among(
    able: np.ndarray, spare: np.ndarray, reaches: np.ndarray, weight: np.ndarray, left: dict[int, int]
) -> int | None:
    """Of the units that are left, the lightest that reaches; else the one with most in hand."""
    there = [unit for unit, count in left.items() if count > 0 and able[unit]]
    good = [unit for unit in there if reaches[unit]]
    if good:
        return min(good, key=lambda unit: float(np.nan_to_num(weight[unit], nan=np.inf)))
    return max(there, key=lambda unit: float(spare[unit]), default=None)


def _works(
    session: Session, solved: Solved, kind: MethodKind, units: Sequence[int | None], people: float, each: float
) -> Iterator[Work]:
    frames = people * session.frames_of_one
    every = people * each * 60 / frames
    for light, unit in enumerate(units):
        if unit is None:
            continue
        reach, own = solved.reach(kind, light), solved.setup.lights[light]
        power = float(reach.power[unit])
        flashes = frames * own.pops
        heat = solved.table.units[unit].heat
        rest = 0.0
        if heat is not None:
            load = power * (heat.hss_times if kind == "hss" else 1.0)
            rest = float(battery.heat_wait_s(flashes, every / own.pops, load, heat.full_flashes, heat.rest_s))
        fed = fed_at(solved.setup, own, unit, solved.table)
        standby = 0.0 if fed.supply is None else standby_of(solved.table.units[unit], fed.supply)
        yield Work(
            light, unit, own.heads, float(reach.below_full[unit]), flashes, flashes * float(battery.drained(power)),
            float(reach.recycle_s[unit]), every, rest, fed.supply, standby,
        )  # fmt: skip


def with_iso(file: JobFile, times: float) -> JobFile:
    """The job with every setup's ISO so many times as high, where its body and its limits allow."""
    out = []
    for one in file.setups:
        aim, (_, highest) = one.setup.aim, one.setup.iso_range
        iso = aim.iso * times
        free = not one.setup.fixed.iso and iso <= highest
        aim = aim.model_copy(update={"iso": iso if free else aim.iso})
        out.append(one.model_copy(update={"setup": one.setup.model_copy(update={"aim": aim})}))
    return file.model_copy(update={"setups": tuple(out)})
