"""Which kit, in words: what to take, who stands where, how sure; and what must be given up where nothing covers all."""

import math
from dataclasses import dataclass

import numpy as np

from ..core.kit.table import UnitTable
from ..core.plan.job.assignment import Kit, picks_of, price_of, unknown_of
from ..core.plan.job.board import Landings, whole_chance
from ..core.plan.job.endurance import DayPlan
from ..core.plan.job.schedule import supply_of
from ..core.scene.job import Job, Least
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
class KitText:
    """One choice: what is taken, who stands where, what it comes to, and whether that is proven to be the best."""

    says: str
    proven: bool
    taken: list[TakenText]
    posts: list[str]
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
    grams, price, outlay = (_sum(kit, table, least) for least in ("weight", "price", "buy"))
    picks = picks_of(found.landings, kit.posts)
    chance = whole_chance(picks) if picks else None
    keeps = any(one.keeps for one in found.landings)
    return KitText(
        says=_says(kit, found.job, grams, price, outlay, keeps, words),
        proven=kit.proven,
        taken=[
            TakenText(table.ids[at], table.units[at].name, number, table.units[at].holding)
            for at, number in sorted(kit.counts.items())
        ],
        posts=[post_text(reach, unit) for reach, unit, _ in picks],
        grams=grams,
        price=price,
        outlay=outlay,
        chance=None if chance is None else round(chance, 4),
        sure="" if chance is None else share(chance),
        batteries="" if found.day is None else batteries_text(found.day),
        unknown=_unknown(found),
        given_up=_all_given_up(found, words) if kit.status == "none" else [],
    )


def _unknown(found: KitChoice) -> str:
    """Units that say nothing of what counts: they count as the most that is known, or are left out."""
    table, job = found.table, found.job
    names = [table.units[at].name for at in np.flatnonzero(unknown_of(table, job.least)).tolist()]
    if not names:
        return ""
    what = "weight" if job.least == "weight" else "price"
    how = "left out" if job.known_only else f"counted as the {'heaviest' if what == 'weight' else 'dearest'}"
    shown = (
        listed(names[:MOST_UNKNOWN], "and") if len(names) <= MOST_UNKNOWN else f"{', '.join(names[:MOST_UNKNOWN])} …"
    )
    return f"Without a {what}, {how}: {shown}."


def batteries_text(plan: DayPlan) -> str:
    """How many charges a day wants of its units, and what they weigh where that is known."""
    limited = [one for one in plan.units if math.isfinite(one.capacity)]
    wanted = sum(one.wanted for one in limited)
    if not wanted:
        return ""
    each = [(one.wanted, supply_of(plan.table.units[one.unit], None)) for one in limited]
    grams = [number * supply.weight_g for number, supply in each if supply is not None and supply.weight_g is not None]
    weighs = f", {kilograms(sum(grams))}" if len(grams) == len(each) else ""
    return f"With it {count(wanted, 'battery', 'batteries')} for the day{weighs}."


def _sum(kit: Kit, table: UnitTable, least: Least) -> float:
    known = np.nan_to_num([np.nan if unit.price is None else unit.price for unit in table.units], nan=0.0)
    figures = np.nan_to_num(table.weight_g, nan=0.0) if least == "weight" else known
    if least == "buy":
        figures = np.where(price_of(table, "buy") > 0, known, 0.0)
    return float(sum(figures[at] * number for at, number in kit.counts.items()))


def _says(kit: Kit, job: Job, grams: float, price: float, outlay: float, keeps: bool, words: DisplayUnits) -> str:
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
    lead += f"is too bright by {amount(one.lacks)}" if one.too_bright else f"wants {amount(one.lacks)} more"
    if found.change is None:
        return f"{lead}; no single change brings it."
    return f"{lead}: {said(found.change.moves, words)} ({stops(found.change.gain)})."
