"""The pack list in words: bags with their weights, what is missing, what is hired, and how lithium travels."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..core.plan.job.cautions import CABIN_WH, LEAVE_WH, cabin_of
from ..core.plan.job.endurance import SPARE_CHARGES
from ..core.plan.job.packing import SPARE_TRIGGERS, PackItem
from ..core.scene.job import Job
from ..service.pack import PackList
from .cautions import TRAVEL
from .figures import DisplayUnits, amount, count, decimal, grouped, kilograms, listed, speed
from .kit import gel_words

BAGS = {
    "body": "Camera bag", "filter": "Camera bag", "trigger": "Camera bag", "gel": "Camera bag", "battery": "Camera bag",
    "charger": "Camera bag", "unit": "Light bag", "modifier": "Stand bag", "stand": "Stand bag", "own": "Camera bag",
    "lens": "Camera bag", "boom": "Stand bag", "weight": "Stand bag", "transmitter": "Camera bag",
    "receiver": "Camera bag", "cord": "Camera bag",
}  # fmt: skip
RULE = (
    f"Spares: {count(SPARE_CHARGES, 'charged battery', 'charged batteries')} more than the days want of each sort, "
    f"{count(SPARE_TRIGGERS, 'trigger')} more of each kind that is used, and the units that you have picked."
)


@dataclass(slots=True)
class ItemText:
    """One line. missing: what is not owned, in words; travel: how its lithium goes by air."""

    key: str
    name: str
    detail: str
    count: int
    spare: int
    weight_g: float | None
    missing: str
    travel: str
    setups: list[str]
    ticked: bool


@dataclass(slots=True)
class BagText:
    """One bag: its lines, and what is known of its weight."""

    name: str
    items: list[ItemText]
    weighs: str
    grams: float


@dataclass(slots=True)
class PackText:
    """The pack list of a job."""

    bags: list[BagText]
    says: str
    sums: str
    missing: list[str]
    hire: list[str]
    cautions: list[str]
    rule: str
    all_bags: list[str]


def pack_text(found: PackList, money: str, words: DisplayUnits) -> PackText:
    """The document. money: the sign of the currency."""
    items, job = found.items, found.job
    ticked, bagged = set(job.ticked), {one.key: one.bag for one in job.bags}
    names = list(dict.fromkeys([*BAGS.values(), *bagged.values()]))
    bags = []
    for name in names:
        own = [item for item in items if (bagged.get(item.key) or BAGS[item.what]) == name]
        if own:
            bags.append(_bag(name, own, ticked, job))
    left = sum(item.key not in ticked for item in items)
    says = "Nothing is used yet: add a setup." if not items else f"All {len(items)} lines are packed."
    if left:
        says = f"{len(items) - left} of {len(items)} lines packed."
    hired = [item for item in items if item.hire is not None]
    hire = [
        f"{item.name} × {item.count}, {count(found.days, 'day')}: {money}{grouped(item.hire * item.count * found.days)}"
        for item in hired
        if item.hire is not None
    ]
    return PackText(
        bags=bags,
        says=says,
        sums=_sums(items),
        missing=[f"{_name(item)} × {item.missing}" for item in items if item.missing and item.hire is None],
        hire=hire,
        cautions=_cautions(found, words),
        rule=RULE,
        all_bags=names,
    )


def _sums(items: Sequence[PackItem]) -> str:
    """What goes along, in a line: units and their spares, batteries, and what all of it weighs as far as is known."""
    units = [item for item in items if item.what == "unit"]
    batteries = [item for item in items if item.what == "battery"]
    spare = sum(item.spare for item in units)
    said = [count(sum(item.count for item in units), "unit") + (f" ({spare} spare)" if spare else "")]
    if batteries:
        more = sum(item.missing for item in batteries)
        known = count(sum(item.count for item in batteries), "battery", "batteries")
        said.append(f"{known} with spares" + (f", {more} of them not owned" if more else ""))
    grams = sum((item.weight_g or 0.0) * item.count for item in items)
    return (
        f"As planned now there go along: {'; '.join(said)}; {kilograms(grams)} as far as it is weighed."
        if items
        else ""
    )


def _bag(name: str, items: Sequence[PackItem], ticked: set[str], job: Job) -> BagText:
    known = [item for item in items if item.weight_g is not None]
    grams = sum((item.weight_g or 0.0) * item.count for item in known)
    weighs = kilograms(grams) if len(known) == len(items) else f"{kilograms(grams)} and what is not weighed"
    lines = [
        ItemText(
            key=item.key,
            name=_name(item),
            detail=_detail(item),
            count=item.count,
            spare=item.spare,
            weight_g=None if item.weight_g is None else item.weight_g * item.count,
            missing="" if not item.missing else _missing(item),
            travel=_travel(item) if job.brief.carriage == "air" else "",
            setups=list(item.setups),
            ticked=item.key in ticked,
        )
        for item in items
    ]
    return BagText(name, lines, weighs if known else "not weighed", grams)


def _missing(item: PackItem) -> str:
    if item.hire is not None:
        return "to hire"
    return "not owned" if item.missing == item.count else f"{item.missing} not owned"


def _name(item: PackItem) -> str:
    if item.what == "gel":
        return gel_words(item.name)
    if item.what == "battery" and item.name[:1].isdigit():  # so many cells
        return f"set of {item.name}"
    if item.what == "weight":
        return "Sandbags" if item.name == "ballast" else "Counterweight"
    return item.name or NAMES.get(item.what, "")


def _detail(item: PackItem) -> str:
    if item.what == "battery":
        return f"for {listed(item.of.splitlines(), 'and')}, charged and labelled"
    if item.what == "charger" and item.of:
        return f"for the batteries of {listed(item.of.splitlines(), 'and')}"
    if item.what == "modifier" and item.of:
        return f"with {listed(item.of.splitlines(), 'and')}"
    if item.what == "weight" and item.load_kg is not None:
        return f"{math.ceil(item.load_kg)} kg in all" + (", filled on location" if item.name == "ballast" else "")
    if item.what in ("stand", "boom") and item.metres is not None:
        long = f"at least {decimal(item.metres, '.1f')} m {'high' if item.what == 'stand' else 'of arm'}"
        return long if item.load_kg is None else f"{long}, for {decimal(item.load_kg, '.1f')} kg"
    if item.what == "trigger" and item.metres is not None:
        return f"at least {math.ceil(item.metres)} m long"
    return DETAILS.get(item.what, "")


NAMES = {
    "stand": "Light stand", "boom": "Boom", "charger": "Charger", "transmitter": "Radio transmitter",
    "receiver": "Radio receivers",
}  # fmt: skip
DETAILS = {
    "transmitter": "for the camera; none is packed yet",
    "receiver": "for heads without a radio of their own",
}


def _travel(item: PackItem) -> str:
    return "" if item.wh is None else f"{item.wh:.0f} Wh: {TRAVEL[cabin_of(item.wh)]}"


def _cautions(found: PackList, words: DisplayUnits) -> list[str]:
    out = []
    batteries = [item for item in found.items if item.what == "battery"]
    if found.job.brief.carriage == "air" and batteries:
        out.append(
            f"Spare lithium goes in the cabin, its poles taped, never in the hold: to {CABIN_WH:.0f} Wh freely, to "
            f"{LEAVE_WH:.0f} Wh two with the airline's leave. Check the current rules and ask the airline."
        )
    if any(item.wh is not None for item in batteries):
        out.append("A lithium pack that is swollen, dented or wet stays at home.")
    if found.wind_m_s:
        wind = speed(found.wind_m_s, words)
        out.append(f"Wind of {wind}: a weight for every stand, and {amount(1)} in hand for bare heads.")
    return out
