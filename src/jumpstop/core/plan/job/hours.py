"""A setup hour by hour: the method, the settings and the dial for its unit as the light changes, in sun and cloud."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import time, timedelta
from zoneinfo import ZoneInfo

from ...kit.errors import CannotSolve
from ...kit.table import UnitTable
from ...physics.scales import Step
from ...scene.ambient import AmbientSpec, Sky
from ...scene.camera import CameraSettings
from ...scene.place import moment, skipped
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.day import horizon, shade_lost
from ..light.advice import chosen_method
from ..light.one_unit import table_for
from ..light.reach import REACHES, Solved, solve
from .board import kinds_of

WHOLE_DAY_MIN = 1440.0  # minutes of a day


@dataclass(frozen=True)
class InMethod:
    """One method at one hour for the unit: stops in hand, and whether it reaches."""

    kind: MethodKind
    spare: float
    reaches: bool


@dataclass(frozen=True)
class Hour:
    """One setup at one time under one sky: the method to take, its settings, and what the unit then does."""

    clock: time
    sky: Sky
    background_ev: float
    kind: MethodKind | None
    camera: CameraSettings | None
    below_full: float
    spare: float
    reaches: bool
    methods: tuple[InMethod, ...]
    shade_gone: bool


def follows_sun(spec: AmbientSpec) -> bool:
    """Whether the light of a setup is known through the day."""
    return spec.by == "sun" and spec.place is not None and spec.day is not None


def skies_beside(spec: AmbientSpec) -> tuple[Sky, Sky]:
    """The setup's own sky, and the one that it might turn to."""
    return spec.sky, "clear" if spec.sky == "overcast" else "overcast"


def at_time(setup: Setup, clock: time, sky: Sky | None = None) -> Setup:
    """The setup at another time of its day, and under another sky, of which what was metered says nothing."""
    changed: dict[str, object] = {"clock": clock}
    if sky is not None and sky != setup.ambient.sky:
        changed |= {"sky": sky, "readings": ()}
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update=changed)})


def at_minutes(setup: Setup, minutes: float) -> Setup:
    """The setup so many minutes after the midnight before its day; past the next one, on the day after."""
    there, days = at_time(setup, clock_of(minutes)), int(minutes // WHOLE_DAY_MIN)
    if not days or there.ambient.day is None:
        return there
    day = there.ambient.day + timedelta(days=days)
    return there.model_copy(update={"ambient": there.ambient.model_copy(update={"day": day})})


def minutes_of(clock: time) -> float:
    """Minutes from midnight."""
    return clock.hour * 60 + clock.minute


def clock_of(minutes: float) -> time:
    """What a clock shows so many minutes after a midnight, on whatever day."""
    whole = int(minutes % WHOLE_DAY_MIN)
    return time(whole // 60, whole % 60)


def clocks(begins: time, ends: time, minutes: int = 60) -> list[time]:
    """Times from the one to the other, so many minutes apart, the last one included."""
    first, last = int(minutes_of(begins)), int(minutes_of(ends))
    return [clock_of(mark) for mark in (*range(first, last, minutes), last)]


def hours_of(
    setup: Setup,
    table: UnitTable,
    unit: int,
    times: Sequence[time],
    light: int = 0,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    skies: Sequence[Sky] = (),
) -> list[Hour]:
    """One unit at one light of a setup, at each time under each sky (its own where none is said).

    Times that the place's clocks skip are left out. Raises CannotSolve where the light is not known by the sun.
    """
    spec = setup.ambient
    if not follows_sun(spec):
        raise CannotSolve("day_without_sun")
    assert spec.place is not None
    assert spec.day is not None
    lost = shade_lost(spec)
    alone, out = table_for(table.units[unit], setup.meter_c, table.ids[unit], table.learned), []
    for sky in skies or (spec.sky,):
        for clock in times:
            if skipped(spec.place, spec.day, clock):
                continue
            gone = lost is not None and spec.subject == "shade" and moment(spec.place, spec.day, clock) >= lost
            there = at_time(setup, clock, sky)
            out.append(_hour(solve(there, alone, step), clock, sky, light, avoid, gone))
    return out


def _hour(solved: Solved, clock: time, sky: Sky, light: int, avoid: Sequence[MethodKind], gone: bool) -> Hour:
    ev = solved.ambient.background_ev
    if not solved.kinds:
        return Hour(clock, sky, ev, None, None, 0.0, 0.0, False, (), gone)
    allowed = kinds_of(solved, avoid)
    found = []
    for kind in solved.kinds:
        reach = solved.reach(kind, light)
        if kind in allowed and reach.able[0]:
            found.append(InMethod(kind, float(reach.spare[0]), bool(reach.verdict[0] == REACHES)))
    kind = chosen_method(solved, avoid, light)
    reach = solved.reach(kind, light)
    return Hour(
        clock, sky, ev, kind, solved.method(kind).camera, float(reach.below_full[0]), float(reach.spare[0]),
        bool(reach.verdict[0] == REACHES), tuple(found), gone,
    )  # fmt: skip


def first_lost(hours: Sequence[Hour], kind: MethodKind) -> time | None:
    """The first time at which a method that reached before does so no more in light as bright or brighter; None where
    it holds, never did, or is only not needed any more."""
    held = -math.inf
    for hour in hours:
        reaches = any(one.kind == kind and one.reaches for one in hour.methods)
        if reaches:
            held = max(held, hour.background_ev)
        elif hour.background_ev >= held > -math.inf:
            return hour.clock
    return None


def sunset(setup: Setup, first: float, last: float) -> float | None:
    """Minutes (see `at_minutes`) at which the sun sets on somebody who works from first to last: it has set before, and
    is not up again, or sets meanwhile. None where it stays up, or that is not known."""
    place, day = setup.ambient.place, setup.ambient.day
    if not follows_sun(setup.ambient) or place is None or day is None:
        return None
    turns = list[tuple[float, bool]]()
    for days in range(int(last // WHOLE_DAY_MIN) + 1):
        for instant, rises in horizon(place, day + timedelta(days=days)):
            local = instant.astimezone(ZoneInfo(place.zone))
            turns.append((days * WHOLE_DAY_MIN + minutes_of(local.time()), rises))
    before = [turn for turn in turns if turn[0] <= first]
    if before and not before[-1][1]:
        return before[-1][0]
    return next((at for at, rises in turns if first < at < last and not rises), None)
