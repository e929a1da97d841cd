"""Will it last the day: charge by charge for every unit, swaps and chargers; and how sure that is."""

import math
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import time
from functools import cached_property
from typing import Literal

import numpy as np

from ...kit.power import PowerSupply
from ...kit.shelf import Shelf
from ...kit.table import UnitTable, full_flashes
from ...kit.trigger import Battery
from ...kit.unit import Unit
from ...physics import battery
from ...physics.arrays import Floats
from ...physics.scales import Step
from ...scene.job import Job, JobFile
from ...scene.seen import MethodKind
from .batteries import Fed, supply_of
from .charges import Charging, Draw, Night, Swap, drained, first_outs
from .hours import clocks, follows_sun, hours_of, minutes_of
from .schedule import Stretch, Turn, Work, turns_of

SD_FRAME_COUNT, SD_POWER, SD_CELLS = (
    0.15,
    0.3,
    0.1,
)  # of frames, of the light [stops] and of cells from day to day; from memory
SAME_CHARGE = 1e-6  # of a charge: less is rounding
RUNS, SEED = 1000, 20260624
"""Days drawn for how sure a day is; a matter of computing; their seed, so that the same day has the same answer."""
SURE = 0.9  # "nine days in ten"
NO_CHARGER = Charging(0, 0.0)
SPARE_CHARGES = 1  # beyond what the days want, of each sort of battery; common practice


@dataclass(frozen=True)
class Lasting:
    """The charges of a unit on one of its supplies through the day; where several heads of it work, those of all.

    capacity: full flashes that one charge gives, cold and age counted; inf on mains, NaN where that is not known.
    used: full flashes in all. course: (minute, charge left as a share) at each turn of its line, of the head that does
    most. sizes: what each charge holds [share of capacity]. draws, charging: what takes from them, and fills them.
    """

    fed: Fed
    heads: int
    capacity: float
    charges: int
    used: float
    flashes: float
    swaps: tuple[Swap, ...]
    gives_out: float | None
    course: tuple[tuple[float, float], ...]
    sizes: tuple[float, ...] = ()
    draws: tuple[Draw | Night, ...] = ()
    charging: Charging = NO_CHARGER

    @property
    def unit(self) -> int:
        """Its place."""
        return self.fed.unit

    @cached_property
    def wanted(self) -> int:
        """The fewest charges that last without charging but over night."""
        if not math.isfinite(self.capacity):
            return 0
        works = [draw for draw in self.draws if isinstance(draw, Draw)]
        nights = len(works) < len(self.draws)
        least = 1 if nights else max(1, math.ceil(self.used / self.capacity - SAME_CHARGE))
        of_heads = [[draw.full[head] for draw in works if head < len(draw.full)] for head in range(self.heads)]
        most = sum(math.ceil(sum(full) / self.capacity) for full in of_heads)
        return _fewest(self, least, most + self.heads, NO_CHARGER)

    @cached_property
    def charged(self) -> int:
        """The same with the chargers that there are."""
        return _fewest(self, 1, self.wanted, self.charging) if self.charging.chargers else self.wanted


def capacity_of(unit: Unit, supply: PowerSupply | None, job: Job) -> float:
    """Full flashes in one charge of a supply, less what cold and age take; inf on mains, NaN where it is not known."""
    if supply is None:
        return math.nan
    cold = 1.0 if job.celsius is None else float(battery.cold_share(supply.made_of, job.celsius))
    return full_flashes(supply, unit.watt_seconds) * cold * job.cells


def _idle(work: Work, stretch: Stretch) -> float:
    """What a head takes in a stretch by standing by [full flashes]."""
    return work.standby * (stretch.end - stretch.start) / 60


def _draws(turns: Sequence[Turn], fed: Fed, job: Job) -> list[Draw | Night]:
    """What a unit takes of a supply, stretch by stretch, and the nights between."""
    out, midnight = list[Draw | Night](), None
    for turn in turns:
        for stretch in turn.stretches:
            works = [work for work in stretch.work if work.fed == fed]
            full = [work.drain + _idle(work, stretch) for work in works for _ in range(work.heads)]
            if not full:
                continue
            if midnight is not None and turn.midnight != midnight:
                out.append(Night(turn.midnight, job.night_charges))
            midnight = turn.midnight
            out.append(Draw(stretch.start, stretch.end, tuple(sorted(full, reverse=True))))
    return out


def lasting(
    turns: Sequence[Turn], fed: Fed, capacity: float, sizes: Sequence[float], job: Job, there: int = 0
) -> Lasting:
    """A unit on one supply through the day, charge by charge, which its heads share.

    sizes: what each charge still holds [share of capacity], the best first; none: a whole one for each head, and for
    each of the unit that is `there`.
    """
    draws = _draws(turns, fed, job)
    full = [draw.full for draw in draws if isinstance(draw, Draw)]
    heads = max(map(len, full), default=1)
    sizes = tuple(sizes) or (1.0,) * max(heads, there)
    used = sum(map(sum, full))
    works = [work for turn in turns for s in turn.stretches for work in s.work if work.fed == fed]
    flashes = sum(work.flashes * work.heads for work in works)
    if not math.isfinite(capacity):
        return Lasting(fed, heads, capacity, len(sizes), used, flashes, (), None, (), sizes)
    charging = _charging(job)
    swaps, course = drained(draws, capacity, sizes, charging)
    out = next((swap.at for swap in swaps if swap.waits), None)
    return Lasting(
        fed,
        heads,
        capacity,
        len(sizes),
        used,
        flashes,
        tuple(swaps),
        out,
        tuple(course),
        sizes,
        tuple(draws),
        charging,
    )


def _fewest(one: Lasting, least: int, most: int, charging: Charging) -> int:
    """The fewest charges with which the day lasts; with one more it never lasts less long."""

    def lasts(charges: int) -> bool:
        swaps, _ = drained(one.draws, one.capacity, [1.0] * charges, charging)
        return not any(swap.waits for swap in swaps)

    return least + bisect_left(range(least, most), True, key=lasts)


def charges_of(one: Lasting, job: Job) -> int:
    """How many charges go along for a unit, spares aside: with the chargers that are at work."""
    return one.charged if job.chargers else one.wanted


def chargers_of(job: Job) -> int:
    """How many chargers go along for each sort of battery: those at work in the day, one where there are nights."""
    return max(job.chargers, int(len(job.days) > 1 and job.night_charges != 0))


def _charging(job: Job) -> Charging:
    return Charging(job.chargers, job.charge_h * 60)


@dataclass(frozen=True)
class Spread:
    """How sure it is: the share of days on which all lasts, and the minute until which it does on nine of ten."""

    lasts: float
    until: float
    runs: int


@dataclass(frozen=True, eq=False)
class DayPlan:
    """The day: its turns, every unit's charges, what gives out first, and what would help (see `helps`).

    undisturbed: the turns as they would run if no battery had to be changed.
    """

    job: Job
    shelf: Shelf
    turns: tuple[Turn, ...]
    units: tuple[Lasting, ...]
    undisturbed: tuple[Turn, ...]
    step: Step = "third"
    avoid: tuple[MethodKind, ...] = ()
    ways: tuple["Way", ...] = ()

    @property
    def table(self) -> UnitTable:
        """Its units as arrays, at the usual meter's constant."""
        return self.shelf.table

    def holds_at(self, turn: Turn, light: int, unit: int) -> list[time] | None:
        """The full hours of the day at which a unit holds a light of a turn; None where the light is not known by the
        sun."""
        if not follows_sun(turn.setup.ambient):
            return None
        times = clocks(self.job.begins, self.job.ends)
        rows = hours_of(turn.on_its_day, self.table, unit, times, light, self.step, self.avoid)
        return [row.clock for row in rows if row.reaches]

    def lasting_of(self, unit: int) -> Lasting:
        """A unit that works in it: on its batteries, where it is fed by any; those of which charges are said."""
        return next(one for one in self.units if one.unit == unit)

    @property
    def gives_out(self) -> float | None:
        """When the first unit gives out [minutes from midnight]; None where all last."""
        return min((one.gives_out for one in self.units if one.gives_out is not None), default=None)

    @property
    def ends(self) -> float:
        """When the last turn is over."""
        return max((turn.end for turn in self.turns), default=minutes_of(self.job.begins))


@dataclass(frozen=True, eq=False)
class Way:
    """One way out where something gives out: what is done, and the day with it done.

    sessions: of another order, the places of the two that change.
    """

    code: Literal["charges", "charger", "iso", "second", "order"]
    unit: int | None
    count: float
    there: DayPlan
    sessions: tuple[int, ...] = ()

    @property
    def gives_out(self) -> float | None:
        """What then gives out first; None: nothing."""
        return self.there.gives_out


def day_run(
    file: JobFile,
    shelf: Shelf,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    undisturbed: Sequence[Turn] | None = None,
) -> DayPlan:
    """A job's day as it would run without surprises. shelf: the units of the day (see `day_shelf`); undisturbed: its
    turns (see `DayPlan`), where they are known."""
    first = turns = list(undisturbed or turns_of(file, shelf, step, avoid))
    units = tuple(_lastings(turns, shelf, file))
    pauses = _pauses(turns, units, file.job)
    if any(pauses):
        turns = turns_of(file, shelf, step, avoid, pauses)
        units = tuple(_lastings(turns, shelf, file))
    return DayPlan(file.job, shelf, tuple(turns), units, tuple(first), step, tuple(avoid))


def _pauses(turns: Sequence[Turn], units: Sequence[Lasting], job: Job) -> list[float]:
    """Minutes that changing batteries takes in each turn; those that give out and stay so are not waited for."""
    swaps = [swap.at for one in units for swap in one.swaps if not swap.waits]
    return [job.swap_min * sum(turn.ready <= at <= turn.end for at in swaps) for turn in turns]


def fed_in(turns: Sequence[Turn], shelf: Shelf, job: Job) -> list[tuple[Fed, float]]:
    """The units that work in the day, by place, each on what feeds it there, with what a charge of that gives:
    batteries before the mains, and of them the one that is its usual."""
    used = dict.fromkeys(work.fed for turn in turns for stretch in turn.stretches for work in stretch.work)
    found = [(fed, capacity_of(shelf.units[fed.unit], fed.supply, job)) for fed in used]
    usual = {fed: fed.supply == supply_of(shelf.units[fed.unit], None) for fed in used}
    return sorted(found, key=lambda one: (one[0].unit, math.isinf(one[1]), not usual[one[0]]))


def _lastings(turns: Sequence[Turn], shelf: Shelf, file: JobFile) -> list[Lasting]:
    """Every unit's day. Batteries of the shelf are given out once: each unit takes the best that fit it until its day
    is covered, and at least one. Charges that are said are of the first of a unit's supplies here."""
    out, left = list[Lasting](), list(file.batteries)
    for fed, capacity in fed_in(turns, shelf, file.job):
        unit, supply, one = fed.unit, fed.supply, shelf.units[fed.unit]
        first = all(each.unit != unit for each in out)
        said = file.job.charges_of(shelf.ids[unit], one.name) if first else None
        sizes = [1.0] * (said or 0)
        fitting = sorted(file.batteries_for(one.name, supply.name if supply else ""), key=lambda own: -own.holds)
        if said is None:
            taken: list[Battery] = []
            for fits in fitting:
                there = lasting(turns, fed, capacity, [each.holds for each in taken], file.job)
                if fits in left and (not taken or there.gives_out is not None):
                    taken.append(fits)
                    left.remove(fits)
            sizes = [each.holds for each in taken]
        own = one.count if one.holding == "owned" else 0
        out.append(lasting(turns, fed, capacity, sizes, file.job, own))
    return out


def spread_of(plan: DayPlan, runs: int = RUNS, seed: int = SEED) -> Spread:
    """The day over and over: frames a session, the light and the cells differ; the same for the same seed."""
    dice = np.random.default_rng(seed)
    frames = np.maximum(0.05, 1 + SD_FRAME_COUNT * dice.standard_normal((runs, len(plan.turns))))
    power = SD_POWER * dice.standard_normal(runs)
    cells = np.maximum(0.2, 1 + SD_CELLS * dice.standard_normal((runs, len(plan.units))))
    outs = np.full(runs, np.inf)
    charging = _charging(plan.job)
    for at, one in enumerate(plan.units):
        if math.isfinite(one.capacity) and runs:
            capacity = one.capacity * cells[:, at]
            starts, ends, full, nights = _draws_of_runs(plan, one, frames, power)
            outs = np.minimum(outs, first_outs(starts, ends, full, capacity, one.sizes, charging, nights))
    until = float(np.sort(outs)[math.floor((1 - SURE) * runs)]) if runs else math.inf
    return Spread(float(np.mean(np.isinf(outs))), min(until, plan.ends), runs)


def _draws_of_runs(
    plan: DayPlan, one: Lasting, frames: Floats, power: Floats
) -> tuple[Floats, Floats, Floats, dict[int, int | None]]:
    """(from, to [minutes] of each stretch in which a unit works; full flashes that its heads then take, of shape (runs,
    stretches, heads), the most first; nights, see `first_outs`). power (runs,); frames (runs, turns): so many times as
    many."""
    starts, ends, full = list[float](), list[float](), list[Floats]()
    nights, midnight = dict[int, int | None](), None
    for at, turn in enumerate(plan.turns):
        for stretch in turn.stretches:
            drains = [
                frames[:, at] * work.flashes * battery.drained(np.minimum(1.0, 2.0 ** (power - work.below_full)))
                + _idle(work, stretch)
                for work in stretch.work
                if work.fed == one.fed
                for _ in range(work.heads)
            ]
            if not drains:
                continue
            if midnight is not None and turn.midnight != midnight:
                nights[len(starts)] = plan.job.night_charges
            midnight = turn.midnight
            heads = np.zeros((len(power), one.heads))
            heads[:, : len(drains)] = -np.sort(-np.array(drains).T)
            starts.append(stretch.start)
            ends.append(stretch.end)
            full.append(heads)
    drawn = np.array(full).reshape(len(starts), len(power), one.heads).swapaxes(0, 1)
    return np.array(starts), np.array(ends), drawn, nights
