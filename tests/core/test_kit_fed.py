"""Which kit, with its batteries and chargers: against every way to man every light, each played through its days."""

import itertools
import math
import os
from typing import Any

import numpy as np
import pytest

from jumpstop import service
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.choice.assignment import Kit, Post, needs_of
from jumpstop.core.plan.choice.feeding import as_well_fed
from jumpstop.core.plan.job.board import Landings
from jumpstop.core.plan.job.endurance import DayPlan
from jumpstop.core.plan.job.packing import pack_of
from jumpstop.core.scene.job import JobFile, Least
from jumpstop.service.kit import with_kit
from jumpstop.words.board import board_text
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.kit_choice import kit_text
from scenes import covered

SHELVES = int(os.environ.get("KITS", "12"))  # as many as are tried here; KITS=200 tries as many


def shelf_of(dice: np.random.Generator, count: int) -> Shelf:
    """Units made up, some of which share their sort of battery, some on mains; some that do not reach everywhere."""
    units = list[Unit]()
    for at in range(count):
        holding, number = str(dice.choice(["owned", "hire", "wanted"])), int(dice.integers(1, 4))
        supply: dict[str, Any] = {
            "kind": "lithium",
            "recycle_full_s": 1,
            "full_flashes": int(dice.integers(40, 300)),
            "weight_g": int(dice.integers(80, 900)),
            "price": int(dice.integers(10, 200)),
            "charger_g": int(dice.integers(50, 400)),
            "charger_price": int(dice.integers(10, 90)),
        }
        if dice.random() < 0.15:
            supply = {"kind": "mains", "recycle_full_s": 1}
        elif dice.random() < 0.4:
            supply |= {"name": "Rook pack", "weight_g": 250, "price": 60, "charger_g": 120, "charger_price": 30}
        doc = {
            "name": f"U{at}", "kind": "shoe", "weight_g": int(dice.integers(200, 1500)),
            "claims": [{"guide_number": int(dice.integers(30, 90)), "unit": "m", "zoom_mm": 35}],
            "price": int(dice.integers(210, 900)), "holding": holding, "count": number, "power_supplies": [supply],
            "standby_w": 0 if dice.random() < 0.5 else 2,
        }  # fmt: skip
        units.append(Unit.model_validate(doc))
    return Shelf(units)


def file_of(dice: np.random.Generator) -> JobFile:
    """Up to two setups of up to two lights, one or two days; chargers and nights of every kind."""
    setups, sessions = [], list[dict[str, Any]]()
    for at in range(int(dice.integers(1, 3))):
        lights: list[dict[str, Any]] = [
            {"role": role, "distance_m": float(dice.uniform(1.5, 5)), "heads": int(dice.choice([1, 1, 1, 2]))}
            for role in ("key", "fill")[: int(dice.integers(1, 3))]
        ]
        aim = {"f_number": 8, "iso": 200}
        setup: dict[str, Any] = {
            "name": f"S{at}",
            "ambient": {"condition": "dark"},
            "aim": aim,
            "lights": lights,
            "method": "sync",
        }
        if dice.random() < 0.5:  # in the sun: by HSS, or with a filter on at sync
            sun = {"condition": "distinct_shadows", "subject": "back"}
            setup |= {"ambient": sun, "aim": {"f_number": 4, "iso": 100}, "method": None}
            setup["filters"] = [{"name": "ND 3 stops", "stops": 3}]
            setup["lights"] = [light | {"distance_m": light["distance_m"] / 2} for light in lights]
        setups.append({"id": f"s{at}", "setup": setup})
        for day in range(1, int(dice.integers(2, 4))):
            people = int(dice.integers(4, 40))
            sessions.append(
                {"setup": f"s{at}", "day": f"2026-06-2{day}", "people": people, "frames_each": 20, "minutes_each": 3}
            )
    sessions.sort(key=lambda one: one["day"])
    job = {
        "name": "J", "day": "2026-06-21", "begins": "08:00", "ends": "20:00", "sessions": sessions,
        "chargers": int(dice.integers(0, 2)), "charge_h": 2, "night_charges": [None, 0, 2][int(dice.integers(3))],
        "swap_min": 0,
    }  # fmt: skip
    return JobFile.model_validate({"job": job, "setups": setups})


def money_of(file: JobFile, unit: Unit, grams: bool, buy: bool) -> float:
    return (unit.weight_g if grams else 0.0 if buy and unit.holding == "owned" else unit.price) or 0.0


def brought(shelf: Shelf, of_sort: list[int], counts: dict[int, int], least: Least) -> int:
    """Charges that cost nothing more: one in each unit taken, and where what is owned is free, in all that is owned."""
    if least == "price":
        return sum(counts[unit] for unit in of_sort)
    hired = sum(counts[unit] for unit in of_sort if shelf.units[unit].holding != "owned")
    return hired + owned(shelf, of_sort[0])


def owned(shelf: Shelf, one: int) -> int:
    """Charges in what is owned of all units that take the same."""
    name = shelf.units[one].power_supplies[0].name or shelf.units[one].name
    fits = [unit for unit in shelf.units if (unit.power_supplies[0].name or unit.name) == name]
    return sum(unit.count for unit in fits if unit.holding == "owned")


def cost_of(file: JobFile, shelf: Shelf, counts: dict[int, int], charges: dict[int, int], least: Least) -> float:
    """Units, charges, one to spare of each sort, chargers: one by one. A unit brings one charge along, which weighs."""
    grams, out = least == "weight", 0.0
    out += sum(money_of(file, shelf.units[unit], grams, least == "buy") * count for unit, count in counts.items())
    sorts: dict[tuple[str, float | None], list[int]] = {}
    for unit in charges:
        supply = shelf.units[unit].power_supplies[0]
        sorts.setdefault((supply.name or shelf.units[unit].name, supply.weight_g), []).append(unit)
    nights = len({one.day for one in file.job.sessions}) > 1 and file.job.night_charges != 0
    for units in sorts.values():
        supply = shelf.units[units[0]].power_supplies[0]
        wanted = sum(charges[unit] for unit in units) + 1
        if not grams:
            of_sort = [u for u in counts if shelf.units[u].power_supplies[0].name == supply.name != ""] or units
            wanted = max(0, wanted - brought(shelf, of_sort, counts, least))
        out += wanted * float((supply.weight_g if grams else supply.price) or 0)
        if least != "buy" or not owned(shelf, units[0]):  # who owns a unit has what charges it
            charger = float((supply.charger_g if grams else supply.charger_price) or 0)
            out += max(file.job.chargers, int(nights)) * charger
    return out


def best_of(file: JobFile, shelf: Shelf, least: Least) -> float:
    """The least that any way to man every light comes to, its days played."""
    landings = list(service.coverage(file, shelf).landings)
    ways = itertools.product(*(range(len(one.kinds)) for one in landings))
    return min((best_in(file, shelf, least, landings, kinds) for kinds in ways), default=math.inf)


def best_in(file: JobFile, shelf: Shelf, least: Least, landings: list[Landings], kinds: tuple[int, ...]) -> float:
    """The least, with every setup in one method; kits with which a day would be shot in another do not count."""
    best = math.inf
    lights = [(at, light) for at, one in enumerate(landings) for light in range(len(one.lights))]
    able = [landings[at].holding(kinds[at], light, file.job.chance).tolist() for at, light in lights]
    most = [unit.count if unit.holding == "owned" else max(sum(one.heads) for one in landings) for unit in shelf.units]
    for chosen in itertools.product(*able):
        posts = [Post(at, kinds[at], light, unit) for (at, light), unit in zip(lights, chosen, strict=True)]
        counts: dict[int, int] = {}
        for at, one in enumerate(landings):
            here: dict[int, int] = {}
            for post in posts:
                if post.setup == at:
                    here[post.unit] = here.get(post.unit, 0) + one.heads[post.light]
            counts = {unit: max(counts.get(unit, 0), here.get(unit, 0)) for unit in counts | here}
        if any(count > most[unit] for unit, count in counts.items()):
            continue
        there = with_kit(file, landings, Kit(counts, tuple(posts), 0.0, 0.0, True, "found"))
        plan = service.day(there, shelf, ways=False)
        charges = {}
        shot = {(turn.session.setup, stretch.kind) for turn in plan.turns for stretch in turn.stretches}
        if shot != {(file.setups[at].id, one.kinds[kinds[at]]) for at, one in enumerate(landings)}:
            continue
        for used in plan.units:
            if math.isfinite(used.capacity):
                place = next(at for at, unit in enumerate(shelf.units) if unit.name == plan.table.units[used.unit].name)
                charges[place] = used.charged if file.job.chargers else used.wanted
        best = min(best, cost_of(file, shelf, counts, charges, least))
    return best


@pytest.mark.parametrize("seed", range(SHELVES))
def test_the_choice_with_batteries_is_as_good_as_the_best_of_all_ways(seed: int) -> None:
    dice = np.random.default_rng(seed)
    least: Least = ("weight", "price", "buy")[seed % 3]
    file, shelf = file_of(dice), shelf_of(dice, int(dice.integers(2, 4)))
    found = service.kit(file, shelf, least=least)
    best = best_of(file, shelf, least)
    if math.isinf(best):
        assert found.kit.status == "none"
        return
    assert found.kit.proven
    assert found.kit.objective == pytest.approx(best)
    assert cost_of(file, shelf, found.kit.counts, dict(found.kit.charges), least) == pytest.approx(best)
    assert found.day is not None
    assert sum(found.kit.charges.values()) == sum(
        one.charged if file.job.chargers else one.wanted for one in found.day.units if math.isfinite(one.capacity)
    )


@pytest.mark.parametrize("seed", range(SHELVES))
def test_a_light_takes_of_its_batteries_what_its_days_take(seed: int) -> None:
    """In each day, of one charge of the unit that stands there: by what the kit is chosen, and as it is then played."""
    dice = np.random.default_rng(seed)
    file, shelf = file_of(dice), shelf_of(dice, int(dice.integers(2, 4)))
    found = service.kit(file, shelf)
    if found.day is None or found.feeding is None:
        return
    plan, needs = found.day, needs_of(found.landings, file.job.chance)
    days = sorted({turn.midnight for turn in plan.turns})
    capacity = {plan.table.units[one.unit].name: one.capacity for one in plan.units}
    for post in found.kit.posts:
        where = (post.setup, post.kind, post.light)
        share = found.feeding.shares[:, [(one.setup, one.kind, one.light) for one in needs].index(where), post.unit]
        takes = np.zeros(len(days))
        for turn in plan.turns:
            for stretch in turn.stretches if turn.session.setup == file.setups[post.setup].id else ():
                work = next(one for one in stretch.work if one.light == post.light)
                hours = (stretch.end - stretch.start) / 60
                takes[days.index(turn.midnight)] += work.heads * (work.drain + work.standby * hours)
        assert share == pytest.approx(takes / capacity[found.table.units[post.unit].name], rel=1e-9)


@pytest.mark.parametrize("seed", range(SHELVES))
def test_what_is_as_well_fed_asks_for_no_more_wherever_the_other_could_stand(seed: int) -> None:
    """Put in its place at every light that it holds: no more of any charge; the same sort, none, or one that costs no
    more where nobody else wants the first and nothing of it is there."""
    dice = np.random.default_rng(seed)
    file, shelf = file_of(dice), shelf_of(dice, 4)
    found = service.kit(file, shelf)
    if found.feeding is None:
        return
    feeding, needs = found.feeding, needs_of(found.landings, file.job.chance)
    for least in ("weight", "price", "buy"):
        good = as_well_fed(feeding, needs, [least])
        assert np.diag(good).all()
        charge, charger, there, _ = feeding.costs(least)
        for unit, other in np.argwhere(good).tolist():
            for at, need in enumerate(needs):
                if unit in need.units:
                    assert (feeding.shares[:, at, other] <= feeding.shares[:, at, unit] + 1e-9).all()
            own, its = feeding.sort_of[[unit, other]].tolist()
            if its not in (own, -1):
                assert feeding.sort_of.tolist().count(own) == 1
                assert charge[its] <= charge[own]
                assert charger[its] <= charger[own]
                assert there[own] == 0


@pytest.mark.parametrize("seed", range(SHELVES))
def test_with_one_to_spare_any_one_unit_may_stay_at_home(seed: int) -> None:
    """In a job that is shot, too: by trying all ways to man every setup without it, in the method it is shot in."""
    dice = np.random.default_rng(seed)
    file, shelf = file_of(dice), shelf_of(dice, 4)
    file = file.model_copy(update={"job": file.job.model_copy(update={"spares": 1})})
    found = service.kit(file, shelf)
    if found.kit.status != "found":
        return
    table = found.table
    for post in found.kit.posts:
        one = found.landings[post.setup]
        for lost in (None, *found.kit.counts):
            counts = [found.kit.counts.get(unit, 0) - (unit == lost) for unit in range(len(table))]
            assert covered(one, post.kind, counts, file.job.chance), (seed, lost)


STEPS = 400  # into which a stretch is cut by the plain count


def lasts(plan: DayPlan, unit: int, capacity: float, charges: int) -> bool:
    """Whether so many charges last through a job's days, flash after flash: whoever is empty takes the fullest there
    is; who works no more gives his back; over night as many are filled as are said, the emptiest first."""
    left, held, midnight = [capacity] * charges, list[int](), None
    for turn in plan.turns:
        for stretch in turn.stretches:
            heads = [
                (work.drain + work.standby * (stretch.end - stretch.start) / 60) / STEPS
                for work in stretch.work
                if work.unit == unit
                for _ in range(work.heads)
            ]
            if not heads:
                continue
            if midnight not in (None, turn.midnight):
                held, night = [], plan.job.night_charges
                for at in sorted(range(charges), key=lambda at: left[at])[: charges if night is None else night]:
                    left[at] = capacity
            midnight = turn.midnight
            held = held[: len(heads)]
            for _ in range(STEPS):
                for head, takes in enumerate(sorted(heads, reverse=True)):
                    while head == len(held) or left[held[head]] < takes - 1e-9:
                        if head < len(held):
                            takes, left[held[head]] = takes - left[held[head]], 0.0
                        others = [at for at in range(charges) if at not in held and left[at] > 1e-9]
                        if not others:
                            return False
                        held[head : head + 1] = [max(others, key=lambda at: left[at])]
                    left[held[head]] -= takes
    return True


@pytest.mark.parametrize("seed", range(SHELVES))
def test_day_kit_and_pack_list_count_batteries_as_plainly_counted(seed: int) -> None:
    """Of generated jobs the charges of every unit: as the day wants them, as the kit was chosen by, as they are packed,
    with one more of each sort."""
    dice = np.random.default_rng(1000 + seed)
    file, shelf = file_of(dice), shelf_of(dice, int(dice.integers(2, 4)))
    file = file.model_copy(update={"job": file.job.model_copy(update={"chargers": 0})})
    found = service.kit(file, shelf)
    if found.day is None:
        return
    plan, sorts, charges = found.day, dict[str, int](), dict[str, int]()
    for one in plan.units:
        if not math.isfinite(one.capacity):
            continue
        fewest = next(count for count in range(1, 200) if lasts(plan, one.unit, one.capacity, count))
        unit = plan.table.units[one.unit]
        assert one.wanted == fewest
        charges[unit.name] = fewest
        sort = unit.power_supplies[0].name or unit.name
        sorts[sort] = sorts.get(sort, 1) + fewest
    assert {shelf.units[at].name: count for at, count in found.kit.charges.items()} == charges
    taken = with_kit(file, found.landings, found.kit)
    packed = [item for item in pack_of(taken, plan, {}) if item.what == "battery"]
    assert sum(item.count for item in packed) == sum(sorts.values())
    assert sum(item.spare for item in packed) == len(sorts)


def test_charges_that_are_there_are_what_is_said_what_is_labelled_or_what_is_in_what_is_owned() -> None:
    """Two of an owned unit hold two; a hired one brings its own, unless its batteries are labelled or said."""
    kinds: dict[str, dict[str, Any]] = {
        "Owned": {"count": 2}, "Hired": {"holding": "hire"}, "Labelled": {"holding": "hire"}, "Said": {"count": 3},
    }  # fmt: skip
    usual: dict[str, Any] = {
        "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}],
        "power_supplies": [{"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100}],
    }
    shelf = Shelf([Unit.model_validate(usual | {"name": name} | kind) for name, kind in kinds.items()])
    file = JobFile.model_validate({
        "job": {
            "name": "J", "sessions": [{"setup": "s", "frames_each": 10}],
            "batteries": [{"unit": "said", "name": "Said", "charges": 5}],
        },
        "setups": [{"id": "s", "setup": {"name": "S", "ambient": {"condition": "dark"}, "lights": [{}]}}],
        "batteries": [{"name": f"L{at}", "fits": "Labelled"} for at in range(4)],
    })  # fmt: skip
    feeding = service.kit(file, shelf).feeding
    assert feeding is not None
    assert [sort.name for sort in feeding.sorts] == ["owned", "hired", "labelled", "said"]
    assert feeding.owned.tolist() == [2, 0, 4, 5]
    assert feeding.brings.tolist() == [False, True, False, False]
    assert feeding.sort_of.tolist() == [0, 1, 2, 3]


def test_what_only_the_mains_would_feed_holds_nothing_where_there_is_none() -> None:
    """The lighter unit is taken where mains or none is not said; where there is none, the one with a battery, or the
    lighter on its battery where a light asks for that; with nothing but mains what is missing is the mains."""
    mains, pack = {"kind": "mains", "recycle_full_s": 1}, {"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100}
    usual: dict[str, Any] = {"claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}]}
    light, heavy = (usual | {"name": name, "weight_g": grams} for name, grams in (("Light", 500), ("Heavy", 900)))
    both = [light | {"power_supplies": [mains]}, heavy | {"power_supplies": [pack]}]
    own = [light | {"power_supplies": [mains, pack]}, heavy | {"power_supplies": [pack]}]
    for units, supply, site, taken in (
        (both, None, None, ["Light"]), (both, None, False, ["Heavy"]), (both, None, True, ["Light"]),
        (own, None, False, ["Heavy"]), (own, "lithium", False, ["Light"]), (both[:1], None, False, []),
    ):  # fmt: skip
        dark: dict[str, Any] = {
            "name": "S",
            "ambient": {"condition": "dark"},
            "power_supply": supply,
            "lights": [{}],
            "method": "sync",
        }
        job = {"name": "J", "brief": {"power_on_site": site}, "picked": [{"unit": "Light", "name": "Light"}]}
        file = JobFile.model_validate({"job": job, "setups": [{"id": "s", "setup": dark | {"lights": [{}]}}]})
        shelf = Shelf([Unit.model_validate(one) for one in units])
        chosen = kit_text(service.kit(file, shelf), DisplayUnits())
        assert [one.name for one in chosen.taken] == taken
        if not taken:
            assert chosen.given_up == ["S, key: the nearest, Light, wants mains, and there is none."]
        board = board_text(service.coverage(file, shelf), ["s"], file.job, DisplayUnits())
        assert board.picked.covered == [site is not False or supply == "lithium"]
