"""The pack list: all that a job's plan uses, once, with how many, spares by a stated rule, and what is missing."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from ...kit.power import PowerSupply
from ...kit.stand import Stand
from ...kit.trigger import Battery
from ...physics.scales import Step
from ...scene.job import JobFile
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.framing import camera_m
from ..light.advice import chosen_method
from ..light.link import on_camera
from ..light.reach import Solved
from ..stage.holding import Holding, holding
from .endurance import SPARE_CHARGES, DayPlan, Lasting, chargers_of, charges_of
from .schedule import BatterySort, battery_sort, picked_of, units_at
from .worked_out import solved_on

SPARE_TRIGGERS = 1  # where any is used; common practice
CABIN_WH, LEAVE_WH = 100.0, 160.0  # lithium by air (IATA DGR; from memory: check the current edition)
LONG_DAY_H = 14.0  # hours that count as one day of hire

What = Literal[
    "body",
    "lens",
    "unit",
    "battery",
    "charger",
    "trigger",
    "modifier",
    "gel",
    "filter",
    "stand",
    "boom",
    "weight",
    "transmitter",
    "receiver",
    "cord",
    "own",
]


@dataclass(frozen=True)
class PackItem:
    """One line of the list. count: so many go along, spares among them; owned: so many are there (None: not asked).

    key: by which a tick is kept. of: what it belongs to. wh: of each, where it is lithium. label: of one battery.
    metres: how high a stand, how long a cord must be. load_kg: what a stand bears, what weights come to in all.
    """

    key: str
    what: What
    name: str
    count: int = 1
    spare: int = 0
    owned: int | None = None
    weight_g: float | None = None
    of: str = ""
    wh: float | None = None
    setups: tuple[str, ...] = ()
    hire: float | None = None
    metres: float | None = None
    load_kg: float | None = None

    @property
    def missing(self) -> int:
        """How many are not owned."""
        return 0 if self.owned is None else max(0, self.count - self.owned)


class Held(NamedTuple):
    """A light off the camera: how many heads, and what holds each."""

    light: Light
    by: Holding


class Use(NamedTuple):
    """What one setup uses at a time: units by their places, each so many, filters by name, what holds its lights."""

    setup: Setup
    units: Mapping[int, int]
    filters: tuple[str, ...]
    held: tuple[Held, ...] = ()


def use_of(solved: Solved, kind: MethodKind, units: Sequence[int | None]) -> Use:
    """What a setup uses in a method."""
    wanted: dict[int, int] = {}
    for light, unit in zip(solved.setup.lights, units, strict=True):
        if unit is not None and light.on:
            wanted[unit] = wanted.get(unit, 0) + light.heads
    lights = zip(solved.setup.lights, units, strict=True)
    held = [
        Held(light, holding(solved, at, unit))
        for at, (light, unit) in enumerate(lights)
        if light.on and unit is not None and not on_camera(solved.setup, light)
    ]
    return Use(solved.setup, wanted, solved.method(kind).camera.nd_names, tuple(held))


def pack_of(
    file: JobFile,
    plan: DayPlan,
    known: Mapping[str, frozenset[str]],
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    stands: Sequence[Stand] = (),
) -> list[PackItem]:
    """The list of a job. plan: its day; setups without a turn in it are packed for too, but for their batteries.

    known: ids of what is on the shelf, by kind. stands: those on the shelf.
    """
    uses = _uses(file, plan, step, avoid)
    items = [
        *_bodies(uses, known),
        *_lenses(uses, known),
        *_units(file, plan, uses),
        *_batteries(file, plan),
        *_triggers(uses, known),
    ]
    items += [*_front(uses, known), *_filters(uses, known)]
    items += [*_stands(uses, stands), *_weights(uses)]
    items += [
        PackItem(f"own:{one.name}", "own", one.name, one.count, weight_g=one.weight_g) for one in file.job.own_items
    ]
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
            out.append(use_of(solved, kind, units_at(solved, kind, file.job, one.id)))
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


def _lenses(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[PackItem]:
    out: dict[str, PackItem] = {}
    for setup, *_ in uses:
        lens = setup.lens
        if lens is None:
            continue
        key = f"lens:{lens.id or lens.name}"
        names = (*out[key].setups, setup.name) if key in out else (setup.name,)
        owned = _owned(known, "lenses", lens.id)
        out[key] = PackItem(key, "lens", lens.name, owned=owned, weight_g=lens.weight_g, setups=_once(names))
    return list(out.values())


def _once(names: Sequence[str]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(names))


def _bodies(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[PackItem]:
    out: dict[str, PackItem] = {}
    for setup, *_ in uses:
        body = setup.body
        key = f"body:{body.id or body.name}"
        names = (*out[key].setups, setup.name) if key in out else (setup.name,)
        owned = _owned(known, "bodies", body.id)
        out[key] = PackItem(key, "body", body.name, owned=owned, weight_g=body.weight_g, setups=_once(names))
    return list(out.values())


def _units(file: JobFile, plan: DayPlan, uses: Sequence[Use]) -> list[PackItem]:
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
            PackItem(
                f"unit:{table.ids[at]}",
                "unit",
                unit.name,
                count,
                count - wanted,
                owned,
                unit.weight_g,
                setups=_once(where.get(at, ())),
                hire=hired,
            )
        )
    return out


def _batteries(file: JobFile, plan: DayPlan) -> list[PackItem]:
    """Of each sort of battery the charges that the days want and one more, by the names of those on the shelf; and its
    chargers, where any work or there are nights."""
    sorts: dict[BatterySort, list[tuple[Lasting, PowerSupply]]] = {}
    for one in plan.units:
        supply = one.fed.supply
        if supply is not None and math.isfinite(one.capacity):
            sorts.setdefault(battery_sort(plan.table.units[one.unit], supply), []).append((one, supply))
    out, given = list[PackItem](), set[str]()
    for users in sorts.values():
        wanted = sum(charges_of(one, file.job) for one, _ in users)
        if wanted:
            out += _of_sort(file, plan, users, wanted, given)
    if file.job.chargers and not any(one.what == "charger" for one in out):  # for batteries of which nothing is known
        out.append(PackItem("charger", "charger", "", file.job.chargers))
    return out


def _of_sort(
    file: JobFile, plan: DayPlan, users: Sequence[tuple[Lasting, PowerSupply]], wanted: int, given: set[str]
) -> Iterator[PackItem]:
    """The batteries and chargers of one sort. users: the units that it feeds. given: names that go along already."""
    supply, first = users[0][1], plan.table.units[users[0][0].unit]
    names = [plan.table.units[one.unit].name for one, _ in users]
    of, want = "\n".join(names), wanted + SPARE_CHARGES
    wh = supply.capacity_wh if supply.made_of == "lithium" else None
    fitting = {b.name: b for name in names for b in file.batteries_for(name, supply.name) if b.name not in given}
    named = sorted(fitting.values(), key=lambda battery: -battery.holds)
    for number, battery in enumerate(named[:want]):
        given.add(battery.name)
        yield _labelled(battery, of, wh, number >= wanted)
    left = want - len(named[:want])
    if left > 0:
        there = max(0, sum(one.charges for one, _ in users) - len(named))
        one, name = users[0][0], supply.name or supply.kind
        key = plan.table.ids[one.unit] + ("" if one is plan.lasting_of(one.unit) else f":{supply.kind}")
        spare = min(left, SPARE_CHARGES) if len(named) <= wanted else 0
        yield PackItem(
            f"battery:{key}", "battery", name, left, spare, min(left, there), supply.weight_g, of, wh
        )  # fmt: skip
    if chargers_of(file.job):
        grams = next((one.charger_g for _, one in users if one.charger_g is not None), None)
        name = battery_sort(first, supply).name
        yield PackItem(f"charger:{name}", "charger", "", chargers_of(file.job), weight_g=grams, of=of)


def _labelled(battery: Battery, unit: str, wh: float | None, spare: bool) -> PackItem:
    return PackItem(
        f"battery:{battery.name}", "battery", battery.name, 1, int(spare), 1, battery.weight_g, unit, wh
    )  # fmt: skip


def _triggers(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[PackItem]:
    """What fires the lights: the links that are packed, a receiver or cell for each head off the camera; and where a
    setup fires by radio and nothing is packed, what it then wants."""
    counts, kept = list[dict[str, int]](), dict[str, PackItem]()
    where: dict[str, list[str]] = {}
    for use in uses:
        setup, here = use.setup, dict[str, int]()
        heads = sum(one.light.heads for one in use.held)
        far = max((_cord_m(setup, one.light) for one in use.held), default=0.0)
        for one in setup.triggers:
            key = f"trigger:{one.id or one.name}"
            here[key] = heads if one.kind in ("receiver", "optical") else 1
            owned = None if _owned(known, "triggers", one.id) else 0
            here_m = far if one.kind == "cord" and setup.trigger == "shoe" else None
            before_m = kept[key].metres if key in kept else None
            metres = max((length for length in (here_m, before_m) if length is not None), default=None)
            kept[key] = PackItem(
                key, "trigger", one.name, spare=SPARE_TRIGGERS, owned=owned, weight_g=one.weight_g, metres=metres
            )
            where.setdefault(key, []).append(setup.name)
        if setup.trigger == "radio" and not setup.triggers and heads:
            for what, count in (("transmitter", 1), ("receiver", heads)):
                here[what] = count
                kept[what] = PackItem(what, what, "")  # type: ignore[arg-type]
                where.setdefault(what, []).append(setup.name)
        counts.append(here)
    return [
        replace(kept[key], count=count + kept[key].spare, setups=_once(where[key]))
        for key, count in _most(counts).items()
    ]


def _cord_m(setup: Setup, light: Light) -> float:
    """How long a cord must be from the camera to a light [m]: straight, by way of the floor on a stand."""
    if light.position is None:
        return light.distance_m
    bearing = math.radians(light.position.bearing_deg)
    across = light.distance_m * math.sin(bearing)
    along = camera_m(setup) - light.distance_m * math.cos(bearing)
    return math.hypot(across, along) + setup.stage.camera_height_m + light.position.height_m


def _front(used: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[PackItem]:
    """What stands in front of the flash: modifiers with their layers, gels. A ceiling is not packed."""
    counts, kept = list[dict[str, int]](), dict[str, PackItem]()
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
                kept[key] = PackItem(
                    key, "modifier", mod.name, owned=owned, weight_g=mod.weight_g, of="\n".join(layers)
                )
                where.setdefault(key, []).append(setup.name)
            if light.gel != "none":
                key = f"gel:{light.gel_name}"
                here[key] = here.get(key, 0) + light.heads
                kept[key] = PackItem(key, "gel", light.gel_name)
                where.setdefault(key, []).append(setup.name)
        counts.append(here)
    return [replace(kept[key], count=count, setups=_once(where[key])) for key, count in _most(counts).items()]


def _filters(uses: Sequence[Use], known: Mapping[str, frozenset[str]]) -> list[PackItem]:
    """The neutral density that the methods put on."""
    out: dict[str, PackItem] = {}
    for use in uses:
        for name in use.filters:
            found = next((one for one in use.setup.filters if one.name == name), None)
            key = f"filter:{(found and found.id) or name}"
            names = (*out[key].setups, use.setup.name) if key in out else (use.setup.name,)
            owned = _owned(known, "filters", found.id if found else None)
            weight = found.weight_g if found else None
            out[key] = PackItem(key, "filter", name, owned=owned, weight_g=weight, setups=_once(names))
    return list(out.values())


def _stands(uses: Sequence[Use], stands: Sequence[Stand]) -> list[PackItem]:
    """What holds the lights: of the shelf the lightest stand and boom that will do for each, the most demanding first,
    those that go along already before others; where none is left, one as it has to be."""
    out: dict[str, PackItem] = {}
    where: dict[str, list[str]] = {}
    counts = list[dict[str, int]]()
    for use in sorted(uses, key=lambda use: -sum(one.light.heads for one in use.held)):
        here: dict[str, int] = {}
        left = sorted(stands, key=lambda one: (f"{one.kind}:{one.name}" not in out, one.weight_g or math.inf))
        wants = [one for one in use.held for _ in range(one.light.heads)]
        wants.sort(key=lambda one: (one.by.arm_m, _load(one.by), one.by.height_m), reverse=True)
        for one in wants:
            for what in ("boom", "stand") if one.by.arm_m else ("stand",):
                found = _holds(left, one.by, what)
                if found is not None:
                    left.remove(found)
                item = _holder(found, one.by, what)
                here[item.key] = here.get(item.key, 0) + 1
                before = out.get(item.key)
                out[item.key] = item if before is None else _stronger(before, item)
                where.setdefault(item.key, []).append(use.setup.name)
        counts.append(here)
    return [
        replace(out[key], count=count, owned=_owned_stands(out[key], stands), setups=_once(where[key]))
        for key, count in _most(counts).items()
    ]


def _load(held: Holding) -> float:
    """What a stand bears [kg]; 0 where that is not known."""
    return 0.0 if math.isnan(held.load_kg) else held.load_kg + (held.counter_kg if held.arm_m else 0.0)


def _holds(left: Sequence[Stand], held: Holding, what: str) -> Stand | None:
    """The first of the stands (or booms) that are left which is high and strong (or long) enough."""
    if what == "boom":
        good = [one for one in left if one.kind == "boom" and one.reach_m >= held.arm_m]
        good = [one for one in good if math.isnan(held.load_kg) or one.load_kg >= held.load_kg]
    else:
        good = [
            one for one in left if one.kind == "stand" and one.height_m >= held.height_m and one.load_kg >= _load(held)
        ]
    return next(iter(good), None)


def _holder(found: Stand | None, held: Holding, what: What) -> PackItem:
    """One line for a stand of the shelf, or for one that is as it must be."""
    if found is not None:
        return PackItem(f"{what}:{found.name}", what, found.name, owned=0, weight_g=found.weight_g)
    metres = held.arm_m if what == "boom" else held.height_m
    load = held.load_kg if what == "boom" else _load(held)
    return PackItem(what, what, "", metres=metres, load_kg=None if math.isnan(load) else load)


def _stronger(one: PackItem, other: PackItem) -> PackItem:
    """A line that does for both."""
    if one.metres is None or other.metres is None:
        return one
    return replace(
        one, metres=max(one.metres, other.metres), load_kg=max(one.load_kg or 0.0, other.load_kg or 0.0) or None
    )


def _owned_stands(item: PackItem, stands: Sequence[Stand]) -> int | None:
    """How many of a stand are on the shelf; where there are stands, and none does, none."""
    if item.name:
        return sum(one.name == item.name for one in stands)
    return 0 if stands else None


def _weights(uses: Sequence[Use]) -> list[PackItem]:
    """Sandbags for the wind and counterweights for booms, as many kilograms as the setup wants that asks most."""
    out = []
    for key in ("ballast", "counter"):
        sums = [(sum(_kilos(one, key) for one in use.held), use.setup.name) for use in uses]
        most = max((kilos for kilos, _ in sums), default=0.0)
        if most > 0:
            names = _once([name for kilos, name in sums if kilos > 0])
            out.append(PackItem(key, "weight", key, load_kg=most, setups=names))
    return out


def _kilos(held: Held, key: str) -> float:
    """Of one light, for all its heads [kg]."""
    kilos = held.by.ballast_kg if key == "ballast" else held.by.counter_kg if held.by.arm_m else 0.0
    return 0.0 if math.isnan(kilos) else kilos * held.light.heads
