"""The pack list: all that a job's plan uses, once, with how many, spares by a stated rule, and what is missing."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from ...kit.trigger import Battery
from ...physics.scales import Step
from ...scene.job import JobFile
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..light.advice import chosen_method
from ..light.reach import Solved
from .endurance import DayPlan
from .schedule import picked_of, supply_of, units_at
from .worked_out import solved_on

SPARE_CHARGES = 1  # beyond what the day wants, for each kind of unit; common practice
SPARE_TRIGGERS = 1  # where any is used; common practice
CABIN_WH, LEAVE_WH = 100.0, 160.0  # lithium by air (IATA DGR; from memory: check the current edition)
LONG_DAY_H = 14.0  # hours that count as one day of hire

What = Literal["body", "lens", "unit", "battery", "charger", "trigger", "modifier", "gel", "filter", "stand", "own"]


@dataclass(frozen=True)
class Item:
    """One line of the list. count: so many go along, spares among them; owned: so many are there (None: not asked).

    key: by which a tick is kept. of: what it belongs to. wh: of each, where it is lithium. label: of one battery.
    """

    key: str
    what: What
    name: str
    count: int
    spare: int = 0
    owned: int | None = None
    weight_g: float | None = None
    of: str = ""
    wh: float | None = None
    setups: tuple[str, ...] = ()
    hire: float | None = None

    @property
    def missing(self) -> int:
        """How many are not owned."""
        return 0 if self.owned is None else max(0, self.count - self.owned)


class Use(NamedTuple):
    """What one setup uses at a time: units by their places, each so many, and filters by name."""

    setup: Setup
    units: Mapping[int, int]
    filters: tuple[str, ...]


def use_of(solved: Solved, kind: MethodKind, units: Sequence[int | None]) -> Use:
    """What a setup uses in a method."""
    wanted: dict[int, int] = {}
    for light, unit in zip(solved.setup.lights, units, strict=True):
        if unit is not None and light.on:
            wanted[unit] = wanted.get(unit, 0) + light.heads
    return Use(solved.setup, wanted, solved.method(kind).camera.nd_names)


def pack_of(
    file: JobFile,
    plan: DayPlan,
    known: Mapping[str, frozenset[str]],
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
) -> list[Item]:
    """The list of a job. plan: its day; setups without a turn in it are packed for too, but for their batteries.

    known: ids of what is on the shelf, by kind.
    """
    uses = _uses(file, plan, step, avoid)
    items = [
        *_bodies(uses, known),
        *_lenses(uses, known),
        *_units(file, plan, uses),
        *_batteries(file, plan),
        *_triggers(uses, known),
    ]
    items += [*_front(uses, known), *_filters(uses, known), *_stands(uses)]
    items += [Item(f"own:{one.name}", "own", one.name, one.count, weight_g=one.weight_g) for one in file.job.own_items]
    return items


def _uses(file: JobFile, plan: DayPlan, step: Step, avoid: Sequence[MethodKind]) -> list[Use]:
    out = []
    for turn in plan.turns:
        for stretch in turn.stretches:
            stands = {work.light: work.unit for work in stretch.work}
            units = [stands.get(at) for at in range(len(turn.setup.lights))]
            out.append(use_of(stretch.solved, stretch.kind, units))
    planned = {session.setup for session in file.job.sessions}
    for one in file.setups:
        if one.id in planned or not planned:
            continue
        solved = solved_on(one.setup, plan.shelf, step, avoid)
        if solved.kinds:
            kind = chosen_method(solved, avoid)
            out.append(use_of(solved, kind, units_at(solved, kind, file.job)))
    return out


def hire_days(file: JobFile) -> int:
    """Days that hired kit is wanted."""
    return max(1, len(file.job.days), math.ceil((file.job.brief.hours or 1) / LONG_DAY_H))


def cabin_of(wh: float | None) -> Literal["cabin", "leave", "not", "unknown"]:
    """How lithium of this size goes by air: in the cabin, two of them with the airline's leave, or not at all."""
    if wh is None:
        return "unknown"
    return "cabin" if wh <= CABIN_WH else "leave" if wh <= LEAVE_WH else "not"


def _owned(known: Mapping[str, frozenset[str]], kind: str, key: str | None) -> int:
    """1 where the shelf has it, else 0."""
    return int((key or "") in known.get(kind, frozenset()))


def _most(uses: Sequence[Mapping[str, int]]) -> dict[str, int]:
    """How many of each are wanted at once, over the setups."""
    out: dict[str, int] = {}
    for one in uses:
        for key, count in one.items():
            out[key] = max(out.get(key, 0), count)
    return out


def _lenses(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[Item]:
    out: dict[str, Item] = {}
    for setup, *_ in uses:
        lens = setup.lens
        if lens is None:
            continue
        key = f"lens:{lens.id or lens.name}"
        names = (*out[key].setups, setup.name) if key in out else (setup.name,)
        owned = _owned(known, "lenses", lens.id)
        out[key] = Item(key, "lens", lens.name, 1, owned=owned, weight_g=lens.weight_g, setups=_once(names))
    return list(out.values())


def _once(names: Sequence[str]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(names))


def _bodies(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[Item]:
    out: dict[str, Item] = {}
    for setup, *_ in uses:
        body = setup.body
        key = f"body:{body.id or body.name}"
        names = (*out[key].setups, setup.name) if key in out else (setup.name,)
        owned = _owned(known, "bodies", body.id)
        out[key] = Item(
            key, "body", body.name, 1, owned=owned, weight_g=body.weight_g, setups=tuple(dict.fromkeys(names))
        )
    return list(out.values())


def _units(file: JobFile, plan: DayPlan, uses: Sequence[Use]) -> list[Item]:
    table, picked = plan.table, picked_of(file.job, plan.table)
    used: dict[int, int] = {}
    where: dict[int, list[str]] = {}
    for use in uses:
        for at, count in use.units.items():
            used[at] = max(used.get(at, 0), count)
            where.setdefault(at, []).append(use.setup.name)
    out = []
    for at in dict.fromkeys([*used, *picked]):
        unit, wanted = table.units[at], used.get(at, 0)
        count = max(wanted, picked.get(at, 0))
        owned = unit.count if unit.holding == "owned" else 0
        hired = unit.price if unit.holding == "hire" else None
        out.append(
            Item(
                f"unit:{table.ids[at]}",
                "unit",
                unit.name,
                count,
                count - wanted,
                owned,
                unit.weight_g,
                setups=tuple(dict.fromkeys(where.get(at, ()))),
                hire=hired,
            )
        )
    return out


def _batteries(file: JobFile, plan: DayPlan) -> list[Item]:
    """Charges that the day wants and one more, by the names of those on the shelf; and a charger where one works."""
    out, given = list[Item](), set[str]()
    for one in plan.units:
        if not math.isfinite(one.capacity):
            continue
        unit, key = plan.table.units[one.unit], plan.table.ids[one.unit]
        supply = supply_of(unit, None)
        if supply is None:
            continue
        wanted = one.charged if file.job.chargers else one.wanted
        want = wanted + SPARE_CHARGES
        wh = supply.capacity_wh if supply.made_of == "lithium" else None
        named = [b for b in file.batteries_for(unit.name, supply.name) if b.name not in given]
        named.sort(key=lambda b: -b.holds)
        for number, battery in enumerate(named[:want]):
            given.add(battery.name)
            out.append(_labelled(battery, unit.name, wh, number >= wanted))
        left = want - len(named[:want])
        if left > 0:
            there = max(0, one.charges - len(named))
            name = supply.name or supply.kind
            spare = min(left, SPARE_CHARGES) if len(named) <= wanted else 0
            out.append(
                Item(
                    f"battery:{key}", "battery", name, left, spare, min(left, there), supply.weight_g, unit.name, wh
                )
            )  # fmt: skip
    if file.job.chargers:
        out.append(Item("charger", "charger", "", file.job.chargers, owned=None))
    return out


def _labelled(battery: Battery, unit: str, wh: float | None, spare: bool) -> Item:
    return Item(
        f"battery:{battery.name}", "battery", battery.name, 1, int(spare), 1, battery.weight_g, unit, wh
    )  # fmt: skip


def _triggers(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[Item]:
    counts, kept = list[dict[str, int]](), dict[str, tuple[str, float | None, bool]]()
    where: dict[str, list[str]] = {}
    for setup, *_ in uses:
        here: dict[str, int] = {}
        lit = sum(light.heads for light in setup.lights if light.on)
        for one in setup.triggers:
            key = f"trigger:{one.id or one.name}"
            here[key] = lit if one.kind in ("receiver", "optical") else 1
            kept[key] = (one.name, one.weight_g, bool(_owned(known, "triggers", one.id)))
            where.setdefault(key, []).append(setup.name)
        counts.append(here)
    return [
        Item(
            key, "trigger", kept[key][0], count + SPARE_TRIGGERS, SPARE_TRIGGERS,
            None if kept[key][2] else 0, kept[key][1], setups=tuple(dict.fromkeys(where[key])),
        )
        for key, count in _most(counts).items()
    ]  # fmt: skip


def _front(used: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[Item]:
    """What stands in front of the flash: modifiers with their layers, gels. A ceiling is not packed."""
    counts, kept = list[dict[str, int]](), dict[str, Item]()
    where: dict[str, list[str]] = {}
    for setup, *_ in used:
        here: dict[str, int] = {}
        for light in setup.lights:
            if not light.on:
                continue
            mod = light.modifier
            if mod is not None and mod.kind != "bounce":
                key = f"modifier:{mod.id or mod.name}"
                here[key] = here.get(key, 0) + light.heads
                owned = _owned(known, "modifiers", mod.id)
                layers = tuple(layer.name for layer in mod.layers)
                kept[key] = Item(key, "modifier", mod.name, 1, owned=owned, weight_g=mod.weight_g, of="\n".join(layers))
                where.setdefault(key, []).append(setup.name)
            if light.gel != "none":
                key = f"gel:{light.gel_name}"
                here[key] = here.get(key, 0) + light.heads
                kept[key] = Item(key, "gel", light.gel_name, 1)
                where.setdefault(key, []).append(setup.name)
        counts.append(here)
    return [
        Item(
            key, one.what, one.name, count, 0, one.owned, one.weight_g, one.of, setups=tuple(dict.fromkeys(where[key]))
        )
        for key, count in _most(counts).items()
        for one in (kept[key],)
    ]  # fmt: skip


def _filters(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[Item]:
    """The neutral density that the methods put on."""
    out: dict[str, Item] = {}
    for use in uses:
        for name in use.filters:
            found = next((one for one in use.setup.filters if one.name == name), None)
            key = f"filter:{(found and found.id) or name}"
            names = (*out[key].setups, use.setup.name) if key in out else (use.setup.name,)
            owned = _owned(known, "filters", found.id if found else None)
            weight = found.weight_g if found else None
            out[key] = Item(key, "filter", name, 1, owned=owned, weight_g=weight, setups=tuple(dict.fromkeys(names)))
    return list(out.values())


def _stands(uses: Sequence[Use]) -> list[Item]:
    """A stand for every light that does not sit on the camera, at the most at once."""
    most = 0
    for use in uses:
        if use.setup.trigger != "shoe":
            most = max(most, len([light for light in use.setup.lights if light.on]))
    return [Item("stand", "stand", "", most)] if most else []
