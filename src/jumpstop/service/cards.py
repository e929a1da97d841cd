"""What goes on the cards of a job: each setup worked out once, for all that its card says."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import time

from ..core.kit.shelf import Shelf
from ..core.kit.table import UnitTable
from ..core.physics.scales import Step
from ..core.plan.camera.remark import Remark
from ..core.plan.change.ladder import LadderColumn, RightSpan, Rung, ladder, span_of
from ..core.plan.change.pocket import Pocket, pocket_of
from ..core.plan.job.endurance import DayPlan
from ..core.plan.job.helps import day_plan
from ..core.plan.job.hours import WHOLE_DAY_MIN, Hour, clock_of, clocks, follows_sun, hours_of, skies_beside
from ..core.plan.job.schedule import AsShot
from ..core.plan.light.levels import Level, levels
from ..core.plan.light.one_unit import only
from ..core.plan.light.reach import Reach, Solved
from ..core.plan.stage.comes_out import fails
from ..core.plan.stage.set_warnings import stage_warnings
from ..core.plan.stage.steps import order_of
from ..core.plan.stage.warnings import warnings_of
from ..core.scene.job import Job, JobFile, planned
from ..core.scene.seen import MethodKind
from .job import shot_setups

MOST_RUNGS = 7
HOUR_MIN = 60


@dataclass(frozen=True, eq=False)
class CardLadder:
    """The distance ladder of the first light's unit: table of it alone, columns, rungs nearest to where it stands; and
    where its dial as it is set is right."""

    table: UnitTable
    columns: tuple[LadderColumn, ...]
    rungs: tuple[Rung, ...]
    span: RightSpan

    @property
    def parts(self) -> tuple[UnitTable, tuple[LadderColumn, ...], tuple[Rung, ...]]:
        """Its three parts."""
        return self.table, self.columns, self.rungs


@dataclass(frozen=True, eq=False)
class CardPlan:
    """One setup as its card tells it.

    first: the light that the card's headline is of, None where no unit stands; unit: its unit. hours: through its
    sessions, or the job's day where it has none; skies: sun and cloud at its own time; both empty without the sun.
    """

    id: str
    solved: Solved
    kind: MethodKind
    units: tuple[int | None, ...]
    first: int | None
    unit: int | None
    levels: tuple[Level, ...]
    failing: tuple[Remark, ...]
    pocket: Pocket
    ladder: CardLadder | None
    hours: tuple[Hour, ...]
    skies: tuple[Hour, ...]
    warnings: tuple[Remark, ...]
    stage: tuple[Remark, ...]

    @property
    def reach(self) -> Reach:
        """Of the light that the headline is of."""
        return self.solved.reach(self.kind, self.first or 0)


def cards(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = (), feet: bool = False
) -> list[CardPlan]:
    """The cards of a job's setups that have a method. feet: its ladders are marked in feet."""
    shot = shot_setups(file, shelf, step, avoid)
    day = day_plan(planned(file), shelf, step, avoid, ways=False) if file.job.sessions else None
    return [_card(one, file.job, day, step, avoid, feet) for one in shot]


def _card(shot: AsShot, job: Job, day: DayPlan | None, step: Step, avoid: Sequence[MethodKind], feet: bool) -> CardPlan:
    setup_id, solved, kind, units = shot.id, shot.solved, shot.kind, shot.units
    setup = solved.setup
    found = levels(solved, kind, units)
    first = next((at for at in order_of(setup, "key") if units[at] is not None and setup.lights[at].on), None)
    unit = None if first is None else units[first]
    hours, skies = (), ()  # type: tuple[Hour, ...], tuple[Hour, ...]
    if first is not None and unit is not None and follows_sun(setup.ambient):
        times, clock = _times(setup_id, job, day), setup.ambient.clock
        own = hours_of(setup, solved.table, unit, sorted({*times, clock}), first, step, avoid)
        hours = tuple(row for row in own if row.clock in times)
        others = [sky for sky in skies_beside(setup.ambient) if sky != setup.ambient.sky]
        beside = hours_of(setup, solved.table, unit, [clock], first, step, avoid, others) if others else []
        skies = (*(row for row in own if row.clock == clock), *beside)
    return CardPlan(
        id=setup_id,
        solved=solved,
        kind=kind,
        units=units,
        first=first,
        unit=unit,
        levels=found,
        failing=tuple(fails(solved, kind, units, found)),
        pocket=pocket_of(solved, kind, units, step, feet),
        ladder=None if first is None or unit is None else _ladder(solved, kind, first, unit, step, feet),
        hours=hours,
        skies=skies,
        warnings=tuple(warnings_of(solved, kind, units[first or 0], first or 0)),
        stage=tuple(stage_warnings(solved, kind, units, found)),
    )


def _times(setup_id: str, job: Job, day: DayPlan | None) -> list[time]:
    """When its light is looked at: as its sessions run, and at their full hours; through the job's day where it has
    none."""
    turns = [turn for turn in day.turns if turn.session.setup == setup_id and turn.stretches] if day else []
    if not turns:
        return clocks(job.begins, job.ends)
    out = set[float]()
    for turn in turns:
        first = math.ceil(turn.ready / HOUR_MIN) * HOUR_MIN
        out |= {turn.ready, *(float(at) for at in range(first, math.ceil(turn.end), HOUR_MIN))}
    return sorted({clock_of(at) for at in out if at < WHOLE_DAY_MIN}) or clocks(job.begins, job.ends)


def _ladder(solved: Solved, kind: MethodKind, light: int, unit: int, step: Step, feet: bool) -> CardLadder | None:
    """None for a light that dials itself: it has no dial to be told by distance."""
    here = solved.setup.lights[light]
    if here.automatic:
        return None
    table = only(solved, unit)
    columns, rungs = ladder(solved.setup, table, kind, light, step, feet)
    near = sorted(rungs, key=lambda rung: abs(math.log(rung.metres / here.distance_m)))[:MOST_RUNGS]
    kept = tuple(rung for rung in rungs if rung in near)
    return CardLadder(table, columns, kept, span_of(solved.reach(kind, light), unit))
