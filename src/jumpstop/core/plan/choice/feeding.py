"""What a job's days take from the batteries of every unit, at every light that it could stand at; and what those weigh
and cost, charge by charge, charger by charger."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ...kit.power import PowerSupply, SupplyKind
from ...kit.table import UnitTable, standby_of
from ...kit.unit import Unit
from ...physics import battery
from ...physics.arrays import Floats
from ...scene.job import Job, JobFile, Least
from ..job.batteries import BatterySort, Fed, sorts_of, supply_of
from ..job.board import Landings
from ..job.endurance import SPARE_CHARGES, capacity_of, chargers_of
from ..job.schedule import Stretch, Turn
from .assignment import LightNeed


class ChargeCosts(NamedTuple):
    """What counts, of shape (sorts,): of each charge, and of the chargers of a sort that is used; how many charges are
    there already. comes: units that bring a charge along, which then costs nothing more; shape (units,)."""

    charge: Floats
    charger: Floats
    there: np.ndarray
    comes: np.ndarray


@dataclass(frozen=True, eq=False)
class Feeding:
    """The batteries of a job, unit by unit.

    shares: charges that a light takes of a unit in all its heads; shape (days, needs, units). sort_of: each unit's sort
    by its place, -1 where it has no battery (mains), or nobody knows how long one lasts. sorts: those that there are;
    owned: charges of each that are there, those in what is owned among them. brings: units of which each that is taken
    brings a charge along: not owned, and nothing else is said; shape (units,). filled: charges that the chargers can
    fill in a day's time; shape (days,). night: charges filled over night; None: all. chargers: as many are taken of
    each sort. fed: what each unit is fed by.
    """

    shares: Floats
    sort_of: np.ndarray
    sorts: tuple[BatterySort, ...]
    owned: np.ndarray
    brings: np.ndarray
    filled: np.ndarray
    night: int | None = None
    chargers: int = 0
    fed: tuple[PowerSupply | None, ...] = ()

    def costs(self, least: Least) -> ChargeCosts:
        """What charges and chargers count for. What is not known counts as much as the most that is known."""
        charge = _known([one.weight_g if least == "weight" else one.price for one in self.sorts])
        charger = _known([one.charger_g if least == "weight" else one.charger_price for one in self.sorts])
        there, comes = np.zeros(len(self.sorts), dtype=int), np.zeros(len(self.sort_of), dtype=bool)
        if least == "buy":  # who has batteries has what charges them
            there = self.owned
            charger = np.where(there > 0, 0.0, charger)
        if least != "weight":
            comes = self.brings if least == "buy" else np.ones(len(self.sort_of), dtype=bool)
        return ChargeCosts(charge, self.chargers * charger, there, comes)

    def taken(self, charges: Mapping[int, int]) -> dict[int, int]:
        """How many charges go along of each sort, by its place: those that the units want, and the spares."""
        out: dict[int, int] = {}
        for unit, count in charges.items():
            sort = int(self.sort_of[unit])
            if sort >= 0 and count:
                out[sort] = out.get(sort, SPARE_CHARGES) + count
        return out

    def total(self, counts: Mapping[int, int], charges: Mapping[int, int], least: Least) -> float:
        """What the charges of a kit, the spares and the chargers come to. counts: its units; charges: of each."""
        costs, out = self.costs(least), 0.0
        for sort, count in self.taken(charges).items():
            brought = sum(number for unit, number in counts.items() if costs.comes[unit] and self.sort_of[unit] == sort)
            more = max(0, count - int(costs.there[sort]) - brought)
            out += float(costs.charge[sort]) * more + float(costs.charger[sort])
        return out


def as_well_fed(feeding: Feeding, needs: Sequence[LightNeed], leasts: Sequence[Least]) -> np.ndarray:
    """Of each unit (a row), those that ask for no more in batteries wherever it could stand; shape (units, units)."""
    holds = np.zeros((len(needs), len(feeding.sort_of)), dtype=bool)
    for at, need in enumerate(needs):
        holds[at, need.units] = True
    users = np.bincount(feeding.sort_of[feeding.sort_of >= 0], minlength=len(feeding.sorts))
    all_costs, out = [feeding.costs(least) for least in leasts], np.zeros((len(feeding.sort_of),) * 2, dtype=bool)
    for unit, sort in enumerate(feeding.sort_of.tolist()):
        own = feeding.shares[:, holds[:, unit]]
        good = np.all(own <= own[:, :, [unit]] + 1e-12, axis=(0, 1))
        same, none = feeding.sort_of == sort, feeding.sort_of < 0
        alone = np.zeros(len(same), dtype=bool)
        if sort >= 0 and users[sort] == 1:  # its own sort goes with it
            alone = ~none
            for costs in all_costs:
                no_more = (costs.charge <= costs.charge[sort]) & (costs.charger <= costs.charger[sort])
                alone &= no_more[feeding.sort_of] & (costs.there[sort] == 0)
        for costs in all_costs:
            good &= none | costs.comes | (not costs.comes[unit])
        out[unit] = good & (same | none | alone)
    return out


def _known(figures: Sequence[float | None]) -> Floats:
    known = [figure for figure in figures if figure is not None]
    return np.array([max(known, default=0.0) if figure is None else figure for figure in figures], dtype=float)


def feeding_of(
    file: JobFile, landings: Sequence[Landings], needs: Sequence[LightNeed], turns: Sequence[Turn]
) -> Feeding:
    """The batteries of a job. turns: its days, with all units of the landings to draw on."""
    table, job = landings[0].solved.table, file.job
    places = {one.id: at for at, one in enumerate(file.setups)}
    days = sorted({turn.midnight for turn in turns}) or [0.0]
    asked = [_asked(landings[need.setup], need) for need in needs]
    fed = [_fed(unit, asked, job) for unit in table.units]
    capacity = np.array([capacity_of(unit, supply, job) for unit, supply in zip(table.units, fed, strict=True)])
    works = np.isfinite(capacity)
    standby = np.array([0.0 if s is None else standby_of(u, s) for u, s in zip(table.units, fed, strict=True)])
    drawn = {
        kind: works & [math.isfinite(capacity_of(unit, supply_of(unit, kind), job)) for unit in table.units]
        for kind in set(asked)
    }
    shares = np.zeros((len(days), len(needs), len(table)))
    of_setup: dict[int, list[int]] = {}
    for at, need in enumerate(needs):
        of_setup.setdefault(need.setup, []).append(at)
    for turn in turns:
        day, setup = days.index(turn.midnight), places[turn.session.setup]
        for stretch in turn.stretches:
            for at in of_setup.get(setup, ()):
                need = needs[at]
                full = _full(turn, stretch, landings[need.setup], need)
                idle = standby * (stretch.end - stretch.start) / 60
                draws = drawn[asked[at]]
                shares[day, at, draws] += (need.heads * (full + idle) / np.where(works, capacity, 1.0))[draws]
    sorts = sorts_of((Fed(at, supply) for at, supply in enumerate(fed) if works[at]), table)
    sort_of, owned, brings = _there(file, table, sorts)
    night = None if job.chargers else job.night_charges  # what stands in a charger is full by the morning, too
    hours = [_hours(turns, midnight) for midnight in days]
    each = [job.chargers * math.floor(long / job.charge_h) for long in hours]
    return Feeding(shares, sort_of, sorts, owned, brings, np.array(each), night, chargers_of(job), tuple(fed))


def _asked(landings: Landings, need: LightNeed) -> SupplyKind | None:
    """The kind of supply that a light asks for."""
    setup = landings.solved.setup
    return setup.fed_by(setup.lights[landings.lights[need.light]])


def _fed(unit: Unit, asked: Sequence[SupplyKind | None], job: Job) -> PowerSupply | None:
    """The battery that a unit takes along: its usual one where any light leaves it that, else the first that
    is asked for; what feeds it where all is mains. What several would feed is counted on the one."""
    supplies = [supply_of(unit, kind) for kind in sorted(asked, key=lambda kind: kind is not None)]
    batteries = (one for one in supplies if math.isfinite(capacity_of(unit, one, job)))
    return next(batteries, supplies[0] if supplies else supply_of(unit, None))


def _full(turn: Turn, stretch: Stretch, landings: Landings, need: LightNeed) -> Floats:
    """What a light's flashes take from one head in a stretch, by unit [full flashes]."""
    own = landings.solved.setup.lights[landings.lights[need.light]]
    light = next((at for at, one in enumerate(turn.setup.lights) if one.id == own.id and one.on), None)
    if light is None:  # this variant goes without
        return np.zeros(len(landings.solved.table))
    kind = landings.kinds[need.kind]
    kind = kind if kind in stretch.solved.kinds else stretch.kind
    power = np.nan_to_num(stretch.solved.reach(kind, light).power, nan=1.0)
    flashes = stretch.frames * turn.setup.lights[light].pops
    return np.asarray(flashes * battery.drained(np.clip(power, 0.0, 1.0)), dtype=float)


def _hours(turns: Sequence[Turn], midnight: float) -> float:
    """How long a day is, from its first frame to its last."""
    there = [turn for turn in turns if turn.midnight == midnight]
    return (max(turn.end for turn in there) - min(turn.ready for turn in there)) / 60 if there else 0.0


def _there(file: JobFile, table: UnitTable, sorts: Sequence[BatterySort]) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """(each unit's sort by its place; charges of each sort that are there; units that bring a charge along)."""
    sort_of, brings = np.full(len(table), -1), np.zeros(len(table), dtype=bool)
    owned = np.zeros(len(sorts), dtype=int)
    for number, sort in enumerate(sorts):
        units = [one.unit for one in sort.fed]
        own = [_own(file, table.ids[one.unit], table.units[one.unit], one.supply) for one in sort.fed]
        sort_of[units], brings[units] = number, [one.brings for one in own]
        owned[number] = sum(one.charges for one in own) + len(frozenset[str]().union(*(one.labelled for one in own)))
    return sort_of, owned, brings


class _Own(NamedTuple):
    """Charges that there are for a unit: so many, or those labelled; or whether each of it brings one along."""

    charges: int
    labelled: frozenset[str]
    brings: bool


def _own(file: JobFile, key: str, unit: Unit, supply: PowerSupply | None) -> _Own:
    said = file.job.charges_of(key, unit.name)
    if said is not None:
        return _Own(said, frozenset(), False)
    labelled = frozenset(one.name for one in file.batteries_for(unit.name, supply.name if supply else ""))
    if labelled:
        return _Own(0, labelled, False)
    owned = unit.holding == "owned"
    return _Own(unit.count if owned else 0, frozenset(), not owned)
