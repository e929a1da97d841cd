"""A job's day: what is shot when, what gives out, what would help, its hours and bursts, and the calendar."""

from datetime import UTC, date, datetime, time
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request, Response

from .. import service
from ..core.kit.errors import CannotSolve
from ..core.kit.values import Value
from ..core.plan.job.endurance import DayPlan, Way, spread_of
from ..core.plan.job.hours import WHOLE_DAY_MIN, clock_of, clocks, hours_of, skies_beside
from ..core.plan.job.schedule import AsShot
from ..core.scene.job import Job
from ..formats.table import csv_of
from ..store.difference import Clash, applied, difference
from ..store.documents import Item
from ..store.errors import NotFound, Overtaken
from ..store.rows import Kind
from ..words.burst import BurstText, burst_text
from ..words.day_plan import DayPlanText, day_plan_text, way_label
from ..words.hours import HoursText, hours_text
from .documents import (
    EVERYWHERE,
    REFUSED,
    IfMatch,
    LightIndex,
    Page,
    checked,
    file_answer,
    revision_of,
    stored,
    workspace_of,
)
from .jobs import CONFLICT
from .schemas import DayHelp, Preferences, Stored

router = APIRouter(prefix="/api/jobs", tags=["Jobs"], responses=EVERYWHERE)

SetupId = Annotated[str, Query(max_length=64, description="A setup of this job.")]
UnitId = Annotated[str | None, Query(max_length=64, description="A unit of the shelf; without it the one in hand.")]
DayOf = Annotated[date | None, Query(description="A day of the job; the setup's first where it is not said.")]
ClockOf = Annotated[time | None, Query(description="From when, or until when; the job's day where it is not said.")]
UNSURE_OF = 0.001  # a day that lasts, or does not, as surely as this is not told as a chance


@router.get("/{item_id}/day", responses=REFUSED)
def day(request: Request, item_id: str) -> DayPlanText:
    """The job's day: when what is shot, what gives out, what to do about it, and how sure that is."""
    plan, preferences = _day(request, item_id)
    spread = spread_of(plan) if plan.units else None
    told = spread is not None and UNSURE_OF < spread.lasts < 1 - UNSURE_OF
    return day_plan_text(plan, spread if told else None, preferences)


@router.post("/{item_id}/day/help", responses=CONFLICT)
def help_the_day(
    request: Request, item_id: str, help_: DayHelp, if_match: IfMatch = None, page: Page = ""
) -> Stored[Job]:
    """Do one of the things that would help the day, in the job and its setups, as one edit."""
    workspace = workspace_of(request)
    item = workspace.store.item("jobs", item_id)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    plan = service.day(file, workspace.shelf(), preferences.step, preferences.avoid, ways=False)
    way = _way_of(plan, help_)
    after = service.with_help(file, plan, way)
    label = way_label(plan, way)
    docs = [_changed("jobs", item, file.job, after.job, revision_of(if_match))]
    for before, now in zip(file.setups, after.setups, strict=True):
        if before.setup != now.setup:
            own = workspace.store.item("setups", before.id)
            docs.append(_changed("setups", own, before.setup, now.setup, own.revision))
    done = workspace.store.put_together(docs, label, page)
    return stored("jobs", done[0])


def _way_of(plan: DayPlan, help_: DayHelp) -> Way:
    """What is asked for as a way of this day. Raises NotFound where its unit or its sessions are no longer there."""
    places = [one.unit for one in plan.units if plan.table.ids[one.unit] == help_.unit]
    needs_unit = help_.code in ("charges", "second")
    known = range(len(plan.job.sessions))
    right = len(set(help_.sessions)) == 2 and all(at in known for at in help_.sessions)
    if (needs_unit and not places) or (help_.code == "order" and not right):
        raise NotFound("day_changed")
    return Way(help_.code, places[0] if needs_unit else None, help_.count, plan, tuple(help_.sessions))


def _changed(kind: Kind, item: Item, before: Value, after: Value, revision: int) -> tuple[Kind, str, Any, int]:
    """A stored document with what differs between two readings of it. Raises Overtaken."""
    ops = difference(before.model_dump(mode="json"), after.model_dump(mode="json"))
    try:
        return kind, item.id, checked(kind, applied(item.doc, ops)), revision
    except Clash:
        raise Overtaken("day_overtaken") from None


@router.get("/{item_id}/day.ics", responses=REFUSED, response_class=Response)
def day_ics(request: Request, item_id: str) -> Response:
    """The schedule as iCalendar."""
    from ..formats.calendar import Entry, calendar_of

    plan, preferences = _day(request, item_id)
    first = plan.job.first_day
    if first is None:
        raise CannotSolve("job_without_day")
    said = day_plan_text(plan, None, preferences)
    entries, zone = [], None
    for turn, text in zip(plan.turns, said.turns, strict=True):
        place = turn.setup.ambient.place
        zone = zone or (place.zone if place else None)
        note = "\n".join([*(f"{s.clock} {s.method}, {s.settings}" for s in text.stretches), *text.hands])
        uid = f"{item_id}-{text.session}@jumpstop"
        entries.append(Entry(uid, text.name, turn.start, turn.end, note, place.name if place else ""))
    body = calendar_of(plan.job.name, first, zone, entries, datetime.now(UTC))
    return file_answer(body, "text/calendar", "jumpstop-day.ics")


@router.get("/{item_id}/hours", responses=REFUSED)
def hours(
    request: Request,
    item_id: str,
    setup: SetupId,
    unit: UnitId = None,
    light: LightIndex = 0,
    begins: ClockOf = None,
    ends: ClockOf = None,
    day: DayOf = None,
) -> HoursText:
    """One setup hour by hour, in sun and in cloud: method, settings, dial and stops in hand for one unit; on a day of
    the job, else on the setup's first."""
    begins, ends = (one and one.replace(tzinfo=None) for one in (begins, ends))
    if begins is not None and ends is not None and ends <= begins:
        raise CannotSolve("day_reversed", begins=begins, ends=ends)
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    shot = workspace.shot(file, setup, on=day)
    found, table, mine = shot.solved.setup, shot.solved.table, _unit_in_hand(shot, light)
    at = table.ids.index(unit) if unit in table.ids else mine
    times = clocks(begins or file.job.begins, ends or file.job.ends)
    if begins is None and ends is None:
        plan = service.day(file, workspace.shelf(), preferences.step, preferences.avoid, ways=False)
        midnight = 0.0 if day is None or file.job.first_day is None else (day - file.job.first_day).days * WHOLE_DAY_MIN
        times = sorted({*times, *_worked_at(plan, setup, midnight)})
    skies = skies_beside(found.ambient)
    rows = hours_of(found, table, at, times, light, preferences.step, preferences.avoid, skies)
    return hours_text(rows, table.units[at], found, preferences)


def _worked_at(plan: DayPlan, setup: str, midnight: float) -> list[time]:
    """When a day takes up a setup and looks at its light anew, so that its table tells what the day does."""
    turns = [turn for turn in plan.turns if turn.session.setup == setup and not turn.session.variant]
    starts = [one.start for turn in turns if turn.midnight == midnight for one in turn.stretches]
    return [clock_of(start) for start in starts if start < midnight + WHOLE_DAY_MIN]


@router.get("/{item_id}/hours.csv", responses=REFUSED, response_class=Response)
def hours_csv(
    request: Request,
    item_id: str,
    setup: SetupId,
    unit: UnitId = None,
    light: LightIndex = 0,
    begins: ClockOf = None,
    ends: ClockOf = None,
    day: DayOf = None,
) -> Response:
    """The same as a file."""
    found = hours(request, item_id, setup, unit, light, begins, ends, day)
    rows = [["time", "sky", "method", "settings", "dial", "in hand"]]
    for sky in found.skies:
        rows += [[one.clock, sky.name, one.method, one.settings, one.dial, one.spare] for one in sky.hours]
    return file_answer(csv_of(rows), "text/csv", "jumpstop-hours.csv")


@router.get("/{item_id}/burst", responses=REFUSED)
def burst(
    request: Request,
    item_id: str,
    setup: SetupId,
    per_s: Annotated[float, Query(ge=0.5, le=120)] = 8.0,
    frames: Annotated[int, Query(ge=1, le=200)] = 24,
    light: LightIndex = 0,
) -> BurstText:
    """Frame by frame, which of a burst get flash: at the dial of the unit in hand, and at every full stop below."""
    workspace = workspace_of(request)
    shot = workspace.shot(workspace.job_file(item_id), setup)
    unit = _unit_in_hand(shot, light)
    return burst_text(shot.solved.reach(shot.kind, light), unit, per_s, frames, workspace.preferences())


def _day(request: Request, item_id: str) -> tuple[DayPlan, Preferences]:
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    return service.day(file, workspace.shelf(), preferences.step, preferences.avoid), preferences


def _unit_in_hand(shot: AsShot, light: int) -> int:
    """The unit that stands at a light. Raises CannotSolve where there is no such light, or none can stand there."""
    if light >= len(shot.units):
        raise CannotSolve("no_such_light", number=light + 1)
    unit = shot.units[light]
    if unit is None:
        raise CannotSolve("no_usable_unit")
    return unit
