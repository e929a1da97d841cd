"""The pack list: all that a job's plan uses, once, with how many, spares by a stated rule, and what is missing."""

import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Literal, NamedTuple

from ...kit.stand import Stand
from ...kit.trigger import Battery
from ...physics.scales import Step
from ...scene.job import JobFile
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.framing import camera_m
from ..light.link import on_camera
from ..light.reach import Solved
from ..stage.holding import Holding, holding
from .batteries import BatterySort, sorts_of
from .endurance import SPARE_CHARGES, DayPlan, Lasting, chargers_of, charges_of
from .schedule import as_shot, picked_of

SPARE_TRIGGERS = 1  # where any is used; common practice
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
        *_lines(uses, partial(_body, known=known)),
        *_lines(uses, partial(_lens, known=known)),
        *_units(file, plan, uses),
        *_batteries(file, plan),
        *_lines(uses, partial(_triggers, known=known), _longer),
        *_lines(uses, partial(_front, known=known)),
        *_lines(uses, partial(_filters, known=known)),
        *_stands(uses, stands),
        *_weights(uses),
    ]
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
        shot = as_shot(one.setup, one.id, file.job, plan.shelf, step, avoid)
        if shot is not None:
            out.append(use_of(shot.solved, shot.kind, shot.units))
    return out


def wind_of(file: JobFile) -> float:
    """The most wind that any of its setups stands in [m/s]. file: the job as it is planned."""
    return max((one.setup.stage.wind_m_s or 0.0 for one in file.setups), default=0.0)


def hire_days(file: JobFile) -> int:
    """Days that hired kit is wanted."""
    return max(1, len(file.job.days), math.ceil((file.job.brief.hours or 1) / LONG_DAY_H))


def _owned(known: Mapping[str, frozenset[str]], kind: str, key: str | None) -> int:
    """1 where the shelf has it, else 0."""
    return int((key or "") in known.get(kind, frozenset()))


def _lines(
    uses: Sequence[Use],
    wanted: Callable[[Use], Iterable[PackItem]],
    joined: Callable[[PackItem, PackItem], PackItem] = lambda _, last: last,
) -> list[PackItem]:
    """One line of each key: as many as the setup wants that wants most at a time, and spares; and the names of all
    that want it. joined: of two lines of a key the one that does for both."""
    lines, most, where = dict[str, PackItem](), dict[str, int](), dict[str, list[str]]()
    for use in uses:
        here = dict[str, int]()
        for item in wanted(use):
            before = lines.get(item.key)
            lines[item.key] = item if before is None else joined(before, item)
            here[item.key] = here.get(item.key, 0) + item.count
        for key, count in here.items():
            most[key] = max(most.get(key, 0), count)
            where.setdefault(key, []).append(use.setup.name)
    return [
        replace(item, count=most[key] + item.spare, setups=tuple(dict.fromkeys(where[key])))
        for key, item in lines.items()
    ]


def _body(use: Use, known: Mapping[str, frozenset[str]]) -> Iterator[PackItem]:
    body = use.setup.body
    owned = _owned(known, "bodies", body.id)
    yield PackItem(f"body:{body.id or body.name}", "body", body.name, owned=owned, weight_g=body.weight_g)


def _lens(use: Use, known: Mapping[str, frozenset[str]]) -> Iterator[PackItem]:
    lens = use.setup.lens
    if lens is not None:
        owned = _owned(known, "lenses", lens.id)
        yield PackItem(f"lens:{lens.id or lens.name}", "lens", lens.name, owned=owned, weight_g=lens.weight_g)


def _units(file: JobFile, plan: DayPlan, uses: Sequence[Use]) -> list[PackItem]:
    """What stands at the lights, and what is picked beside."""
    table, picked = plan.table, picked_of(file.job, plan.table)

    def line(at: int, count: int) -> PackItem:
        unit = table.units[at]
        owned = unit.count if unit.holding == "owned" else 0
        hire = unit.price if unit.holding == "hire" else None
        return PackItem(f"unit:{table.ids[at]}", "unit", unit.name, count, 0, owned, unit.weight_g, hire=hire)

    lines = {one.key: one for one in _lines(uses, lambda use: [line(at, count) for at, count in use.units.items()])}
    for at, count in picked.items():
        spare = line(at, 0)
        one = lines.get(spare.key, spare)
        lines[one.key] = replace(one, count=max(one.count, count), spare=max(0, count - one.count))
    return list(lines.values())


def _batteries(file: JobFile, plan: DayPlan) -> list[PackItem]:
    """Of each sort of battery the charges that the days want and one more, by the names of those on the shelf; and its
    chargers, where any work or there are nights."""
    fed = {one.fed: one for one in plan.units if math.isfinite(one.capacity)}
    out, given = list[PackItem](), set[str]()
    for sort in sorts_of(fed, plan.table):
        users = [fed[one] for one in sort.fed]
        wanted = sum(charges_of(one, file.job) for one in users)
        if wanted:
            out += _of_sort(file, plan, sort, users, wanted, given)
    if file.job.chargers and not any(one.what == "charger" for one in out):  # for batteries of which nothing is known
        out.append(PackItem("charger", "charger", "", file.job.chargers))
    return out


def _of_sort(
    file: JobFile, plan: DayPlan, sort: BatterySort, users: Sequence[Lasting], wanted: int, given: set[str]
) -> Iterator[PackItem]:
    """The batteries and chargers of one sort. users: the units that it feeds. given: names that go along already."""
    supply = sort.supply
    names = [plan.table.units[one.unit].name for one in users]
    of, want = "\n".join(names), wanted + SPARE_CHARGES
    wh = supply.capacity_wh if supply.made_of == "lithium" else None
    fitting = {b.name: b for name in names for b in file.batteries_for(name, supply.name) if b.name not in given}
    named = sorted(fitting.values(), key=lambda battery: -battery.holds)
    for number, battery in enumerate(named[:want]):
        given.add(battery.name)
        yield _labelled(battery, of, wh, number >= wanted)
    left = want - len(named[:want])
    if left > 0:
        there = max(0, sum(one.charges for one in users) - len(named))
        one, name = users[0], supply.name or supply.kind
        key = plan.table.ids[one.unit] + ("" if one is plan.lasting_of(one.unit) else f":{supply.kind}")
        spare = min(left, SPARE_CHARGES) if len(named) <= wanted else 0
        yield PackItem(
            f"battery:{key}", "battery", name, left, spare, min(left, there), supply.weight_g, of, wh
        )  # fmt: skip
    if chargers_of(file.job):
        count = chargers_of(file.job)
        yield PackItem(f"charger:{sort.name}", "charger", "", count, weight_g=sort.charger_g, of=of)


def _labelled(battery: Battery, unit: str, wh: float | None, spare: bool) -> PackItem:
    return PackItem(
        f"battery:{battery.name}", "battery", battery.name, 1, int(spare), 1, battery.weight_g, unit, wh
    )  # fmt: skip


def _triggers(use: Use, known: Mapping[str, frozenset[str]]) -> Iterator[PackItem]:
    """What fires the lights: the links that are packed, a receiver or cell for each head off the camera; and where a
    setup fires by radio and nothing is packed, what it then wants."""
    setup, heads = use.setup, sum(one.light.heads for one in use.held)
    far = max((_cord_m(setup, one.light) for one in use.held), default=0.0)
    for key, one in {one.id or one.name: one for one in setup.triggers}.items():
        count = heads if one.kind in ("receiver", "optical") else 1
        owned = None if _owned(known, "triggers", one.id) else 0
        metres = far if one.kind == "cord" and setup.trigger == "shoe" else None
        yield PackItem(
            f"trigger:{key}", "trigger", one.name, count, SPARE_TRIGGERS, owned, one.weight_g, metres=metres
        )  # fmt: skip
    if setup.trigger == "radio" and not setup.triggers and heads:
        yield PackItem("transmitter", "transmitter", "")
        yield PackItem("receiver", "receiver", "", heads)


def _cord_m(setup: Setup, light: Light) -> float:
    """How long a cord must be from the camera to a light [m]: straight, by way of the floor on a stand."""
    if light.position is None:
        return light.distance_m
    bearing = math.radians(light.position.bearing_deg)
    across = light.distance_m * math.sin(bearing)
    along = camera_m(setup) - light.distance_m * math.cos(bearing)
    return math.hypot(across, along) + setup.stage.camera_height_m + light.position.height_m


def _front(use: Use, known: Mapping[str, frozenset[str]]) -> Iterator[PackItem]:
    """What stands in front of the flash: modifiers with their layers, gels. A ceiling is not packed."""
    for light in use.setup.lights:
        mod = light.modifier if light.on else None
        if mod is not None and mod.kind != "bounce":
            owned, layers = _owned(known, "modifiers", mod.id), "\n".join(layer.name for layer in mod.layers)
            key = f"modifier:{mod.id or mod.name}"
            yield PackItem(key, "modifier", mod.name, light.heads, 0, owned, mod.weight_g, layers)
        if light.on and light.gel != "none":
            yield PackItem(f"gel:{light.gel_name}", "gel", light.gel_name, light.heads)


def _filters(use: Use, known: Mapping[str, frozenset[str]]) -> Iterator[PackItem]:
    """The neutral density that the method puts on."""
    for name in use.filters:
        found = next((one for one in use.setup.filters if one.name == name), None)
        owned, weight = _owned(known, "filters", found.id if found else None), found.weight_g if found else None
        yield PackItem(f"filter:{(found and found.id) or name}", "filter", name, owned=owned, weight_g=weight)


def _stands(uses: Sequence[Use], stands: Sequence[Stand]) -> list[PackItem]:
    """What holds the lights: of the shelf the lightest stand and boom that will do for each, the most demanding first,
    those that go along already before others; where none is left, one as it has to be."""
    along = set[str]()

    def wanted(use: Use) -> Iterator[PackItem]:
        left = sorted(stands, key=lambda one: (f"{one.kind}:{one.name}" not in along, one.weight_g or math.inf))
        heads = [one for one in use.held for _ in range(one.light.heads)]
        heads.sort(key=lambda one: (one.by.arm_m, _load(one.by), one.by.height_m), reverse=True)
        for one in heads:
            for what in ("boom", "stand") if one.by.arm_m else ("stand",):
                found = _holds(left, one.by, what)
                if found is not None:
                    left.remove(found)
                item = _holder(found, one.by, what)
                along.add(item.key)
                yield item

    most_first = sorted(uses, key=lambda use: -sum(one.light.heads for one in use.held))
    return [replace(one, owned=_owned_stands(one, stands)) for one in _lines(most_first, wanted, _stronger)]


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


def _longer(one: PackItem, other: PackItem) -> PackItem:
    """The latter, as long as the longer of both."""
    metres = [length for length in (one.metres, other.metres) if length is not None]
    return replace(other, metres=max(metres, default=None))


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
            names = tuple(dict.fromkeys(name for kilos, name in sums if kilos > 0))
            out.append(PackItem(key, "weight", key, load_kg=most, setups=names))
    return out


def _kilos(held: Held, key: str) -> float:
    """Of one light, for all its heads [kg]."""
    kilos = held.by.ballast_kg if key == "ballast" else held.by.counter_kg if held.by.arm_m else 0.0
    return 0.0 if math.isnan(kilos) else kilos * held.light.heads
