"""The day of a job in words: when what is shot, what gives out and when, and what to do about it."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from ..core.plan.camera.day import day_of
from ..core.plan.camera.remark import Remark
from ..core.plan.job.cautions import of_day, of_mains
from ..core.plan.job.endurance import DayPlan, Lasting, Spread, Way
from ..core.plan.job.helps import differences, failing_of
from ..core.plan.job.hours import (
    WHOLE_DAY_MIN,
    at_minutes,
    at_time,
    clock_of,
    follows_sun,
    minutes_of,
    sunset,
)
from ..core.plan.job.schedule import Stretch, Turn
from ..core.scene.job import Job
from .camera import settings_line
from .cautions import caution_text
from .comes_out import clause, put_right
from .figures import DisplayUnits, count, dial, duration, grouped, listed, recycling, share
from .hands import hands_between, hands_of_stretches
from .kit import SUPPLIES
from .methods import TITLES, title

LATE_MIN = 1.0


@dataclass(slots=True)
class StretchText:
    """A part of a session under one light."""

    start: float
    end: float
    clock: str
    method: str
    settings: str
    units: list[str]
    hands: list[str]
    short: bool


@dataclass(slots=True)
class TurnText:
    """A session: its place along the day [minutes from midnight], what to change by hand before it, what is wrong."""

    session: int
    setup: str
    name: str
    start: float
    ready: float
    end: float
    clocks: str
    flashes: str
    hands: list[str]
    stretches: list[StretchText]
    wrong: list[str]


@dataclass(slots=True)
class LastingText:
    """One unit's charges on one of its supplies (of several in the day the battery is named): (minute, share left)
    along its line; swaps; and when it gives out. said: whether charges that are said of the unit are these."""

    unit: str
    name: str
    supply: str
    said: bool
    says: str
    course: list[list[float]]
    swaps: list[float]
    swapped: list[str]
    gives_out: float | None
    charges: int
    wanted: int


@dataclass(slots=True)
class WayText:
    """Something that would help, and what it moves beside; code, unit, count and sessions name it (see `POST help`)."""

    says: str
    code: str
    unit: str
    count: float
    sessions: list[int]


@dataclass(slots=True)
class DateText:
    """One of the job's days: its date, and where it lies [minutes from the midnight before the first of them]."""

    date: str
    says: str
    begins: float
    ends: float


@dataclass(slots=True)
class DayPlanText:
    """The day, or several. light: (minute, EV of the open in sun, EV in cloud) through it; empty where the sun is not
    known. dates: the days, where they are dated."""

    says: str
    lasts: bool
    begins: float
    ends: float
    over: float
    light: list[list[float]]
    turns: list[TurnText]
    units: list[LastingText]
    ways: list[WayText]
    sure: str
    wrong: list[str]
    dates: list[DateText]


def at(minutes: float, first: date | None = None) -> str:
    """A time of the day, 15:10; past midnight with the day: 01:45 the next day. first: of a job of several days, the
    first, from whose midnight minutes count; then its date stands beside each: 15:10 on Thu 25 Jun."""
    days = int(minutes // WHOLE_DAY_MIN)
    clock = f"{clock_of(minutes):%H:%M}"
    if first is not None:
        day = first + timedelta(days=days)
        return f"{clock} on {day:%a} {day.day} {day:%b}"
    return clock if not days else f"{clock} the next day" if days == 1 else f"{clock} on day {days + 1}"


def first_of(job: Job) -> date | None:
    """The first day of a job of several; None of one day, whose times need none."""
    return job.first_day if len(job.days) > 1 else None


def day_plan_text(plan: DayPlan, spread: Spread | None, words: DisplayUnits) -> DayPlanText:
    """The document. spread: None where it could change no verdict."""
    job, fed = plan.job, list(of_mains(of_day(plan.turns), plan.table, plan.job.brief))
    unfed = [caution_text(one, plan.table) for one in fed if one.code == "no_mains"]
    beside = [caution_text(one, plan.table) for one in fed if one.code != "no_mains"]
    return DayPlanText(
        says=" ".join(unfed) if unfed and plan.gives_out is None else _says(plan),
        lasts=plan.gives_out is None and not unfed,
        begins=minutes_of(job.begins),
        ends=minutes_of(job.ends),
        over=plan.ends,
        light=_light(plan),
        turns=[_turn(plan, number, turn, words) for number, turn in enumerate(plan.turns)],
        units=[_lasting(plan, one) for one in plan.units],
        ways=[_way_text(plan, way, said) for way in plan.ways if (said := way_words(plan, way, words))],
        sure="" if spread is None else _sure(plan, spread),
        wrong=_wrong(plan) + beside + (unfed if plan.gives_out is not None else []),
        dates=_dates(plan),
    )


def _dates(plan: DayPlan) -> list[DateText]:
    """The job's days, each as long as it is meant to be, or runs."""
    job, first, out = plan.job, plan.job.first_day, list[DateText]()
    for day in job.days:
        assert first is not None
        midnight = float((day - first).days * WHOLE_DAY_MIN)
        turns = [turn for turn in plan.turns if turn.midnight == midnight]
        begins = min([midnight + minutes_of(job.begins), *(turn.start for turn in turns)])
        ends = max([midnight + minutes_of(job.ends), *(turn.end for turn in turns)])
        people = sum(turn.session.people for turn in turns)
        said = (
            f"{day:%a} {day.day} {day:%b}: {count(people, 'person', 'people')}"
            if turns
            else f"{day:%a} {day.day} {day:%b}"
        )
        out.append(DateText(day.isoformat(), said, begins, ends))
    return out


def _light(plan: DayPlan) -> list[list[float]]:
    """The light of the open at the place of the first setup that knows it, every ten minutes."""
    setup = next((turn.setup for turn in plan.turns if follows_sun(turn.setup.ambient)), None)
    if setup is None:
        return []
    out = []
    for days in range(int(plan.ends // WHOLE_DAY_MIN) + 1):
        there = at_minutes(setup, days * WHOLE_DAY_MIN + minutes_of(setup.ambient.clock))
        sun, cloud = (day_of(at_time(there, there.ambient.clock, sky).ambient) for sky in ("clear", "overcast"))
        for instant, clear, dull in zip(sun.track.instants[:-1], sun.ground_ev, cloud.ground_ev, strict=False):
            minutes = days * WHOLE_DAY_MIN + minutes_of(instant.astimezone(sun.zone).time())
            out.append([minutes, round(float(clear), 2), round(float(dull), 2)])
    return out


def _says(plan: DayPlan) -> str:
    if not plan.turns:
        return "Nothing is planned for this day yet: add a session."
    first, end = plan.gives_out, at(plan.ends, first_of(plan.job))
    if first is None:
        packs = sum(one.wanted for one in plan.units if math.isfinite(one.capacity))
        unknown = [plan.table.units[one.unit].name for one in plan.units if math.isnan(one.capacity)]
        if unknown:
            return f"Over at {end}. How long {listed(unknown, 'and')} last is not known: say the flashes of a charge."
        return f"It lasts: over at {end}, {count(packs, 'battery', 'batteries')} used."
    one = next(one for one in plan.units if one.gives_out == first)
    name, more = plan.table.units[one.unit].name, one.wanted - one.charges
    when = at(first, first_of(plan.job))
    return f"{name} gives out at {when}: {count(one.charges, 'battery', 'batteries')}, and {more} more wanted."


def _turn(plan: DayPlan, number: int, turn: Turn, words: DisplayUnits) -> TurnText:
    before = plan.turns[number - 1] if number else None
    flashes = max(
        (sum(w.flashes for s in turn.stretches for w in s.work if w.light == at_) for at_ in range(8)), default=0
    )
    people = count(turn.session.people, "person", "people")
    return TurnText(
        session=turn.at,
        setup=turn.session.setup,
        name=turn.setup.name,
        start=turn.start,
        ready=turn.ready,
        end=turn.end,
        clocks=f"{_own(turn, turn.start)} set up, {_own(turn, turn.ready)} to {_own(turn, turn.end)}",
        flashes=f"{people}, {grouped(flashes)} flashes a light",
        hands=[] if before is None else hands_between(before, turn, words),
        stretches=[
            _stretch(stretch, turn.stretches[at_ - 1] if at_ else None, words, _own(turn, stretch.start))
            for at_, stretch in enumerate(turn.stretches)
        ],
        wrong=[WRONG[one.code](one) for one in turn.wrong] + _dark(turn) + _failing(plan, turn, words),
    )


def _own(turn: Turn, minutes: float) -> str:
    """A time of a turn, on its own day."""
    return at(minutes - turn.midnight)


WRONG: dict[str, Callable[[Remark], str]] = {
    "overlaps": lambda one: f"It begins {one.facts['minutes']:.0f} min before the one ahead of it has ended.",
    "too_many_frames": lambda one: (
        f"{grouped(one.facts['frames'])} frames in one session cannot be right: "
        f"{grouped(one.facts['most'])} at the most."
    ),
    "too_long": lambda one: f"It is not over after {one.facts['days']} days: plan fewer people or frames.",
    "no_method": lambda one: "At that hour no method gives this picture: open the setup to see why.",
}


def _dark(turn: Turn) -> list[str]:
    down = sunset(turn.setup, turn.ready, turn.end)
    if down is None or turn.setup.ambient.subject not in ("sun", "back"):
        return []
    if turn.ready >= down:
        return [f"The sun has set at {_own(turn, down)}, before the first frame."]
    return [f"The sun sets at {_own(turn, down)}, before it is over."]


def _failing(plan: DayPlan, turn: Turn, words: DisplayUnits) -> list[str]:
    """What of the picture does not come out, told once, from when it does not, and when a light that fails would do."""
    out = []
    for (_, light), (stretch, found) in failing_of(turn).items():
        unit = next((work.unit for work in stretch.work if work.light == light), None)
        other = "" if light is None or unit is None else _other_hour(plan, turn, light, unit)
        out.append(f"From {_own(turn, stretch.start)} {clause(found, words)}.{other}")
    return out


def _other_hour(plan: DayPlan, turn: Turn, light: int, unit: int) -> str:
    """The hours of the day at which a unit would hold a light."""
    good = plan.holds_at(turn, light, unit)
    if good is None:
        return ""
    times = listed([f"{clock:%H:%M}" for clock in good[:4]])
    return f" It is at {times}." if good else " Nor is it at another hour of this day."


def _stretch(stretch: Stretch, before: Stretch | None, words: DisplayUnits, clock: str) -> StretchText:
    solved = stretch.solved
    method = solved.method(stretch.kind)
    units = []
    for work in stretch.work:
        unit = solved.table.units[work.unit]
        ready = "" if math.isnan(work.recycle_s) else f", {recycling(work.recycle_s)}"
        slow = " (slower than the frames come)" if work.recycle_s > work.every_s + 1e-6 else ""
        rest = f", rests {duration(work.rest_s)} for heat" if work.rest_s > 1 else ""
        units.append(f"{unit.name} at {dial(unit.scale, work.below_full, words, unit.watt_seconds)}{ready}{slow}{rest}")
    return StretchText(
        start=stretch.start,
        end=stretch.end,
        clock=clock,
        method=title(method, solved.setup.body.shutter),
        settings=settings_line(method.camera),
        units=units,
        hands=[] if before is None else hands_of_stretches(before, stretch, words),
        short=bool(stretch.failing),
    )


def _lasting(plan: DayPlan, one: Lasting) -> LastingText:
    unit, swapped = plan.table.units[one.unit], [at(swap.at, first_of(plan.job)) for swap in one.swaps]
    if math.isinf(one.capacity):
        says = f"{grouped(one.flashes)} flashes on the mains"
    elif math.isnan(one.capacity):
        says = f"{grouped(one.flashes)} flashes; what a charge gives is not known"
    else:
        swaps = f", changed at {listed(swapped, 'and')}" if one.swaps else ""
        charged = f" ({one.charged} with charging)" if one.charged != one.wanted else ""
        says = f"{grouped(one.flashes)} flashes, {count(one.wanted, 'battery', 'batteries')} wanted{charged}{swaps}"
        if one.gives_out is not None:
            says = f"{says}; gives out at {at(one.gives_out, first_of(plan.job))}"
    several = sum(each.unit == one.unit for each in plan.units) > 1
    return LastingText(
        unit=plan.table.ids[one.unit],
        name=unit.name,
        supply=SUPPLIES[one.fed.supply.kind] if several and one.fed.supply and one.fed.supply.kind != "mains" else "",
        said=one is plan.lasting_of(one.unit),
        says=says,
        course=[[round(minute, 1), round(left, 4)] for minute, left in one.course],
        swaps=[swap.at for swap in one.swaps],
        swapped=swapped,
        gives_out=one.gives_out,
        charges=one.charges,
        wanted=one.wanted,
    )


def _way_text(plan: DayPlan, way: Way, says: str) -> WayText:
    unit = "" if way.unit is None else plan.table.ids[way.unit]
    return WayText(says, way.code, unit, way.count, list(way.sessions))


def way_words(plan: DayPlan, way: Way, words: DisplayUnits) -> str:
    """A way out with all that it moves; nothing where it brings less than a minute."""
    first = plan.gives_out
    if first is None or (way.gives_out is not None and way.gives_out < first + LATE_MIN and way.code != "charges"):
        return ""
    then = "it lasts" if way.gives_out is None else f"it lasts until {at(way.gives_out, first_of(plan.job))}"
    moved = [MOVED[one.code]({**one.facts, "first": first_of(plan.job)}, words) for one in differences(plan, way)]
    return f"{way_label(plan, way)}: {'; '.join([then, *moved])}."


def way_label(plan: DayPlan, way: Way) -> str:
    """What is done, in a few words."""
    name = "" if way.unit is None else plan.table.units[way.unit].name
    if way.code == "charges":
        return f"{count(int(way.count), 'battery', 'batteries')} more for {name}"
    if way.code == "second":
        return f"A second {name} beside it with as many batteries, each dialled lower"
    if way.code == "order":
        names = {turn.at: turn.setup.name for turn in plan.turns}
        a, b = (names[at] for at in way.sessions)
        return f"Swap {a} and {b}"
    if way.code == "charger":
        return "A charger at work while you shoot"
    return f"ISO {'one stop' if way.count == 2 else 'two stops'} up where it is free"


MOVED: dict[str, Callable[[Mapping[str, Any], DisplayUnits], str]] = {
    "method": lambda f, u: f"{f['setup']} by {TITLES[f['after']]} instead of {TITLES[f['before']]}",
    "not_right": lambda f, u: f"{f['setup']}: {clause(f['found'], u)}",
    "right": lambda f, u: f"{f['setup']}: {put_right(f['found'], u)}",
    "over": lambda f, u: f"over at {at(f['at'], f['first'])}, not {at(f['before'], f['first'])}",
}
"""What a way moves beside, each as the end of a sentence."""


def _sure(plan: DayPlan, spread: Spread) -> str:
    if spread.lasts >= 0.9:
        return f"Lasts on {share(spread.lasts)} of days, as frames, light and cells vary."
    whole = f"to the end on {share(spread.lasts)} of days" if spread.lasts >= 0.005 else "hardly ever to the end"
    return f"Lasts until {at(spread.until, first_of(plan.job))} nine days in ten; {whole}."


def _wrong(plan: DayPlan) -> list[str]:
    """What is impossible about a day as a whole."""
    first, out = first_of(plan.job), list[str]()
    for midnight in dict.fromkeys(turn.midnight for turn in plan.turns):
        over = max(turn.end for turn in plan.turns if turn.midnight == midnight)
        late = over - midnight - minutes_of(plan.job.ends)
        if late > LATE_MIN:
            out.append(f"It is over at {at(over, first)}, {duration(late * 60)} after the day ends.")
    return out
