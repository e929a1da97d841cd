"""What helps a day that something gives out in: each as the job with it done, and the day that it then has."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import combinations, islice

from ...kit.shelf import Shelf
from ...physics.scales import Step
from ...scene.job import Batteries, Job, JobFile
from ...scene.light import MOST_HEADS
from ...scene.seen import MethodKind
from ..camera.remark import Remark, remark
from .endurance import DayPlan, Way, day_run
from .schedule import Stretch, Turn, day_shelf, with_iso

MOST_ORDERS = 10  # orders of sessions that are tried
LATE_MIN = 1.0  # a day that ends so much later is told


def day_plan(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = (), ways: bool = True
) -> DayPlan:
    """A job's day as it would run without surprises; with what would help, where something gives out."""
    plan = day_run(file, day_shelf(file, shelf), step, avoid)
    return replace(plan, ways=tuple(_ways(file, plan))) if ways and plan.gives_out is not None else plan


def _ways(file: JobFile, plan: DayPlan) -> Iterator[Way]:
    """More charges, a charger, a higher ISO, a second unit, another order."""
    short = [one for one in plan.units if one.gives_out is not None]
    said = [one for one in short if one is plan.lasting_of(one.unit)]
    tried: list[tuple[str, int | None, float]] = [("charges", one.unit, one.wanted - one.charges) for one in said]
    tried += [] if plan.job.chargers else [("charger", None, 1.0)]
    tried += [
        ("iso", None, 2.0),
        ("iso", None, 4.0),
        *(("second", unit, 1.0) for unit in dict.fromkeys(one.unit for one in short)),
    ]
    for code, unit, count in tried:
        yield _way(file, plan, Way(code, unit, count, plan))  # type: ignore[arg-type]
    yield from _orders(file, plan)


def _way(file: JobFile, plan: DayPlan, way: Way) -> Way:
    """A way with the day that comes of it."""
    same_light = plan.undisturbed if way.code in ("charges", "charger") else None
    return replace(way, there=day_run(helped(file, plan, way), plan.shelf, plan.step, plan.avoid, same_light))


def helped(file: JobFile, plan: DayPlan, way: Way) -> JobFile:
    """The job with a way done. plan: its day as it is without."""
    job = file.job
    if way.code == "iso":
        return with_iso(file, way.count)
    if way.code == "second":
        assert way.unit is not None
        return _with_second(file, plan, way.unit)
    if way.code == "order":
        turned = list(job.sessions)
        a, b = way.sessions
        first, second = turned[a], turned[b]  # a date that stands at one of them stays at its place
        turned[a], turned[b] = (
            second.model_copy(update={"day": first.day}),
            first.model_copy(update={"day": second.day}),
        )
        return _with(file, job.model_copy(update={"sessions": tuple(turned)}))
    if way.code == "charger":
        return _with(file, job.model_copy(update={"chargers": 1}))
    assert way.unit is not None
    there = plan.lasting_of(way.unit).charges
    return _with(file, _charged(job, plan, way.unit, there + int(way.count)))


def _with(file: JobFile, job: Job) -> JobFile:
    return file.model_copy(update={"job": job})


def _charged(job: Job, plan: DayPlan, unit: int, charges: int) -> Job:
    """The job with so many charges said for a unit."""
    key, name = plan.table.ids[unit], plan.table.units[unit].name
    said = Batteries.model_construct(unit=key, name=name, charges=charges)
    others = tuple(one for one in job.batteries if key != one.unit and one.name != name)
    return job.model_copy(update={"batteries": (*others, said)})


def _with_second(file: JobFile, plan: DayPlan, unit: int) -> JobFile:
    """The job with one more of a unit, fed alike, at every light where it stands: each then gives so much less."""
    stands = {
        (turn.session.setup, work.light)
        for turn in plan.turns
        for stretch in turn.stretches
        for work in stretch.work
        if work.unit == unit
    }
    setups = []
    for one in file.setups:
        lights = list(one.setup.lights)
        for at, light in enumerate(lights):
            if (one.id, at) in stands and light.heads < MOST_HEADS:
                lights[at] = light.model_copy(update={"heads": light.heads + 1})
        setups.append(one.model_copy(update={"setup": one.setup.model_copy(update={"lights": tuple(lights)})}))
    key, own = plan.table.ids[unit], plan.lasting_of(unit)
    picked = tuple(
        one.model_copy(update={"count": one.count + 1}) if one.unit == key else one for one in file.job.picked
    )
    more = own.charges + max(1, own.charges // own.heads)  # as many as each head has
    job = _charged(file.job.model_copy(update={"picked": picked}), plan, unit, more)
    return file.model_copy(update={"setups": tuple(setups), "job": job})


def _orders(file: JobFile, plan: DayPlan) -> Iterator[Way]:
    """The best of the orders in which two sessions, neither at a time of its own, change places; none where the order
    helps nothing."""
    days = file.job.session_days
    movable = [at for at, session in enumerate(file.job.sessions) if session.start is None]
    pairs = islice((one for one in combinations(movable, 2) if days[one[0]] == days[one[1]]), MOST_ORDERS)
    tried = [_way(file, plan, Way("order", None, 1, plan, pair)) for pair in pairs]
    best = max(tried, key=lambda way: way.gives_out or math.inf, default=None)
    if best is not None and plan.gives_out is not None and (best.gives_out or math.inf) > plan.gives_out:
        yield best


def differences(plan: DayPlan, way: Way) -> Iterator[Remark]:
    """What a way moves beside what gives out: sessions that are shot by another method, lights that are then not right
    or right at last, and an end that is later."""
    there = way.there
    by_place = {turn.at: turn for turn in there.turns}
    for turn in plan.turns:
        other = by_place[_place(turn.at, way)]
        was, now = (_kind(one) for one in (turn, other))
        if was is not None and now is not None and was != now:
            yield remark("method", setup=turn.setup.name, before=was, after=now)
        old, new = (failing_of(one) for one in (turn, other))
        for name, (_, found) in new.items():
            if name not in old:
                yield remark("not_right", setup=turn.setup.name, found=found)
        for name, (_, found) in old.items():
            if name not in new:
                yield remark("right", setup=turn.setup.name, found=found)
    if there.ends > plan.ends + LATE_MIN:
        yield remark("over", at=there.ends, before=plan.ends)


def _place(at: int, way: Way) -> int:
    """Where a session stands after a way is done."""
    if way.code != "order" or at not in way.sessions:
        return at
    a, b = way.sessions
    return b if at == a else a


def _kind(turn: Turn) -> MethodKind | None:
    return turn.stretches[0].kind if turn.stretches else None


def failing_of(turn: Turn) -> dict[tuple[str, int | None], tuple[Stretch, Remark]]:
    """What of a session's picture does not come out, by what it is and its light: from when on, and as it is then."""
    out = dict[tuple[str, int | None], tuple[Stretch, Remark]]()
    for stretch in turn.stretches:
        for found in stretch.failing:
            out.setdefault((found.code, found.facts.get("light")), (stretch, found))
    return out
