"""Which kit, in words: what to take, who stands where, how sure; and what must be given up where nothing covers all."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..core.kit.power import PowerSupply
from ..core.kit.table import full_flashes
from ..core.kit.unit import Unit
from ..core.plan.choice.assignment import picks_of, price_of, unknown_of
from ..core.plan.job.board import Landings, whole_chance
from ..core.plan.job.endurance import SPARE_CHARGES
from ..core.scene.job import Least
from ..service.kit import GivenUp, KitChoice
from .board import post_text
from .figures import DisplayUnits, amount, count, grouped, kilograms, listed, share, stops
from .kit import ROLES
from .levers import said

MOST_UNKNOWN = 5
LEASTS: dict[Least, str] = {"weight": "The lightest", "price": "The cheapest", "buy": "The least to buy or hire"}


@dataclass(slots=True)
class TakenText:
    """So many of one unit."""

    unit: str
    name: str
    count: int
    holding: str


@dataclass(slots=True)
class StandsText:
    """A light of a setup and the unit that stands there, by their ids: as a job keeps it."""

    setup: str
    light: str
    unit: str
    name: str


@dataclass(slots=True)
class KitText:
    """One choice: what is taken, who stands where, what it comes to, and whether that is proven to be the best."""

    says: str
    proven: bool
    taken: list[TakenText]
    posts: list[str]
    stands: list[StandsText]
    grams: float
    price: float
    outlay: float
    chance: float | None
    sure: str
    batteries: str
    unknown: str
    given_up: list[str]


def kit_text(found: KitChoice, words: DisplayUnits) -> KitText:
    """The document."""
    kit, table = found.kit, found.table
    grams, price, outlay = (_sum(found, least) for least in ("weight", "price", "buy"))
    picks = picks_of(found.landings, kit.posts)
    chance = whole_chance(picks) if picks else None
    keeps = any(one.keeps for one in found.landings)
    return KitText(
        says=_says(found, grams, price, outlay, keeps, words),
        proven=kit.proven,
        taken=[
            TakenText(table.ids[at], table.units[at].name, number, table.units[at].holding)
            for at, number in sorted(kit.counts.items())
        ],
        posts=[post_text(reach, unit) for reach, unit, _ in picks],
        stands=[StandsText(one.setup, one.light, one.unit, one.name) for one in found.posted],
        grams=grams,
        price=price,
        outlay=outlay,
        chance=None if chance is None else round(chance, 4),
        sure="" if chance is None else share(chance),
        batteries=batteries_text(found),
        unknown=_unknown(found),
        given_up=_all_given_up(found, words) if kit.status == "none" else [],
    )


def _unknown(found: KitChoice) -> str:
    """Units that say nothing of what counts, or whose batteries do not: they count as the most that is known, or are
    left out."""
    table, job = found.table, found.job
    what = "weight" if job.least == "weight" else "price"
    most = "left out" if job.known_only else f"counted as the {'heaviest' if what == 'weight' else 'dearest'}"
    units = [table.units[at].name for at in np.flatnonzero(unknown_of(table, job.least)).tolist()]
    out = [f"Without a {what}, {most}: {_some(units)}."] if units else []
    feeding, used = found.feeding, set(found.kit.charges)
    if feeding is None:
        return " ".join(out)
    sorts = [feeding.sorts[at] for at in feeding.taken(found.kit.charges)]
    known = [one.weight_g if job.least == "weight" else one.price for one in sorts]
    batteries = [one.name for one, figure in zip(sorts, known, strict=True) if figure is None]
    if batteries:
        out.append(f"Batteries without a {what}, counted as the most that is known: {_some(batteries)}.")
    endless = [
        table.units[at].name
        for at in sorted(found.kit.counts)
        if at not in used and _unsaid(table.units[at], feeding.fed[at])
    ]
    if endless:
        out.append(f"Nobody knows how long a charge of these lasts, so that none is counted: {_some(endless)}.")
    return " ".join(out)


def _unsaid(unit: Unit, supply: PowerSupply | None) -> bool:
    """Whether it has a battery of which is not said how long it lasts."""
    return supply is None or math.isnan(full_flashes(supply, unit.watt_seconds))


def _some(names: Sequence[str]) -> str:
    if len(names) <= MOST_UNKNOWN:
        return listed(list(names), "and")
    return f"{', '.join(names[:MOST_UNKNOWN])} …"


def batteries_text(found: KitChoice) -> str:
    """What the days want of batteries and chargers beside a kit's units, the spares among them."""
    feeding, charges = found.feeding, found.kit.charges
    if feeding is None or not charges:
        return ""
    taken = feeding.taken(charges)
    wanted = sum(taken.values())
    said = f"{count(wanted, 'battery', 'batteries')} ({len(taken) * SPARE_CHARGES} to spare)"
    if feeding.chargers:
        said += f" and {count(len(taken) * feeding.chargers, 'charger')}"
    return f"With it {said} for the days, counted in."


def _sum(found: KitChoice, least: Least) -> float:
    """What a kit comes to, with its batteries, of what is known."""
    kit, table = found.kit, found.table
    known = np.nan_to_num([np.nan if unit.price is None else unit.price for unit in table.units], nan=0.0)
    figures = np.nan_to_num(table.weight_g, nan=0.0) if least == "weight" else known
    if least == "buy":
        figures = np.where(price_of(table, "buy") > 0, known, 0.0)
    units = float(sum(figures[at] * number for at, number in kit.counts.items()))
    return units + (0.0 if found.feeding is None else found.feeding.total(kit.counts, kit.charges, least))


def _says(found: KitChoice, grams: float, price: float, outlay: float, keeps: bool, words: DisplayUnits) -> str:
    kit, job = found.kit, found.job
    if kit.status == "none":
        return f"No set of units covers all of it with {share(job.chance)} for every light."
    if kit.status == "time":
        return "No set was found in the time there is; ask for less, or take fewer units."
    units = count(sum(kit.counts.values()), "unit")
    money = f"{words.currency}{grouped(price)} in all, {words.currency}{grouped(outlay)} of it to buy or hire"
    sure = "proven" if kit.proven else f"the best found in time; none can come under {grouped(kit.bound)}"
    spares = ", one of which may fail" if job.spares else ""
    kept = " Lights that have a unit already keep it." if keeps else ""
    return f"{LEASTS[job.least]}: {units}{spares}, {kilograms(grams)}, {money} ({sure}).{kept}"


def _all_given_up(found: KitChoice, words: DisplayUnits) -> list[str]:
    """What must be given up first: light by light what it lacks, with which unit, and the change that brings it; and
    setups that want more units at once than there are."""
    out = [_given_up(one, found.landings[one.of.setup], words) for one in found.given_up]
    for at in found.crowded:
        setup, heads = found.landings[at].solved.setup, sum(found.landings[at].heads)
        out.append(f"{setup.name} wants {heads} units at once that hold, and there are not as many: own or hire more.")
    if not out and found.job.spares:
        out.append("All of it is covered, but not with a unit that may fail: hire a spare, or go without.")
    return out


def _given_up(found: GivenUp, landings: Landings, words: DisplayUnits) -> str:
    one, solved, light = found.of, landings.solved, landings.lights[found.of.light]
    name = solved.table.units[one.unit].name
    lead = f"{solved.setup.name}, {ROLES[solved.setup.lights[light].role]}: the nearest, {name}, "
    if one.unfed:
        return f"{lead}wants mains, and there is none."
    lead += f"is too bright by {amount(one.lacks)}" if one.too_bright else f"wants {amount(one.lacks)} more"
    if found.change is None:
        return f"{lead}; no single change brings it."
    return f"{lead}: {said(found.change.moves, words)} ({stops(found.change.gain)})."
