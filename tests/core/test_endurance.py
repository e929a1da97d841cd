"""Will it last the day: bursts, charge, cold, heat, swaps and chargers; the day by the plain sums; hour by hour."""

import math
import random
from dataclasses import replace
from datetime import date, time
from typing import Any

import numpy as np
import pandas as pd
import pvlib
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jumpstop import service
from jumpstop.core.kit.errors import CannotSolve
from jumpstop.core.kit.power import PowerSupply
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import STANDBY_SHARE, UnitTable, table_of
from jumpstop.core.kit.unit import Claim, Heat, Hss, Unit
from jumpstop.core.physics import battery
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.job import endurance
from jumpstop.core.plan.job.changeover import Standing, changes_between
from jumpstop.core.plan.job.charges import Charging, Draw, drained, first_outs
from jumpstop.core.plan.job.endurance import DayPlan, Way, lasting, spread_of
from jumpstop.core.plan.job.helps import day_plan, differences, helped
from jumpstop.core.plan.job.hours import (
    Hour,
    InMethod,
    at_minutes,
    at_time,
    clock_of,
    clocks,
    first_lost,
    hours_of,
    skies_beside,
    sunset,
)
from jumpstop.core.plan.job.packing import pack_of
from jumpstop.core.plan.job.schedule import TURNOVER_MIN, picked_of, posted_of, units_at, with_iso
from jumpstop.core.plan.light.reach import CADENCE_S, solve
from jumpstop.core.scene.ambient import AmbientSpec, Reading
from jumpstop.core.scene.job import Job, JobFile, Session, in_job
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from jumpstop.words.day_plan import day_plan_text
from jumpstop.words.figures import DisplayUnits

DOWNS = {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"}
SHOP = Shelf([Unit.model_validate(doc) for doc in kit()["units"]])
SHELF = SHOP.table
NAMES = [unit.name for unit in SHELF.units]


@pytest.mark.parametrize(
    ("full", "least", "rate", "powers", "lit"),
    [
        (2.5, 0.0, 8, (1, 1 / 2, 1 / 4, 1 / 8, 1 / 16), (1, 2, 4, 12, 76)),
        (2.5, 0.05, 8, (1 / 8, 1 / 16), (10, 30)),
        (2.0, 0.0, 10, (1 / 2, 1 / 4, 1 / 8, 1 / 16), (2, 4, 12, 76)),
    ],
)
def test_bursts(full: float, least: float, rate: float, powers: tuple[float, ...], lit: tuple[int, ...]) -> None:
    """D, physics 9: unbroken flashed frames; common practice: three to five in a fast burst, which is about 1/4."""
    found = [battery.burst(power, full, least, rate, 200) for power in powers]
    assert tuple(battery.unbroken(one) for one in found) == lit
    every = battery.burst(1 / 2, 2.0, 0.0, 10, 40)
    gaps = np.diff(np.flatnonzero(every))
    assert set(gaps[1:].tolist()) <= {9, 10}  # a half charge takes 1 s to come back: every tenth frame
    assert battery.burst(1.0, 1.0, 0.4, 1.0, 5) == [True] * 5  # recycled in just the time between two
    assert not all(battery.burst(1.0, 1.01, 0.4, 1.0, 5))


def test_charge_cold_and_heat() -> None:
    """M, physics 9: four AA of 2.0 Ah are 250 flashes of 76 Ws, 1,000 at a quarter; cold by its table."""
    full = battery.full_flashes_of(9.6, 76)
    assert full == pytest.approx(250, rel=0.01)
    assert float(battery.flashes_per_charge(np.array(0.25), full)) == pytest.approx(4 * full)
    table = {"lithium": (0.8, 0.7), "nimh": (0.85, 0.7), "alkaline": (0.6, 0.3)}
    for cells, (freezing, colder) in table.items():
        assert battery.cold_share(cells, 0) == freezing  # type: ignore[arg-type]
        assert battery.cold_share(cells, -10) == colder  # type: ignore[arg-type]
        assert battery.cold_share(cells, 25) == 1  # type: ignore[arg-type]
    assert battery.cold_share("lithium", 10) == pytest.approx(0.9)
    assert battery.heat_wait_s(30, 2, 1, 30, 300) == 0  # so many in a row are borne
    # Forty in 80 s: 40 put in, 8 leaked, 30 held, so 2 too many, and a rest of 2 x 300 / 30 = 20 s.
    assert battery.heat_wait_s(40, 2, 1, 30, 300) == pytest.approx(20)
    assert battery.heat_wait_s(40, 2, 2, 30, 300) == pytest.approx(420)


def test_iso_buys_recycle_time_and_charge() -> None:
    """D: ISO 100 to 400 is two stops less power: a quarter of the charge, and of what recycling adds."""
    unit = Unit(
        name="U", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),), standby_w=0,
        power_supplies=(PowerSupply(recycle_full_s=3.0, recycle_least_s=0.2, full_flashes=200),),
    )  # fmt: skip
    reaches = []
    for iso in (100, 400):
        doc = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8, "iso": iso}, "lights": [{"distance_m": 4}]}
        solved = solve(Setup.model_validate(doc), table_of([unit]))
        reaches.append(solved.reach(solved.kinds[0]))
    low, high = reaches
    assert float(low.below_full[0]) + 2 == pytest.approx(float(high.below_full[0]), abs=1e-6)
    assert float(high.recycle_s[0]) - 0.2 == pytest.approx((float(low.recycle_s[0]) - 0.2) / 4)
    assert float(high.flashes[0]) == pytest.approx(4 * float(low.flashes[0]))


DARK: dict[str, Any] = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": [{"distance_m": 3}]}
ONE = Unit(
    name="One", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),), weight_g=500,
    power_supplies=(PowerSupply(kind="lithium", recycle_full_s=2.0, recycle_least_s=0.1, full_flashes=100),),
)  # fmt: skip


def file_of(sessions: list[dict[str, Any]], setup: dict[str, Any] | Setup = DARK, **job: Any) -> JobFile:
    doc = setup if isinstance(setup, dict) else setup.model_dump()
    return JobFile.model_validate(
        {"job": {"name": "A day", "sessions": [{"setup": "s"} | one for one in sessions]} | job,
         "setups": [{"id": "s", "setup": doc}]}
    )  # fmt: skip


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.fixed_dictionaries(
            {"people": st.integers(1, 20), "frames_each": st.integers(1, 60), "tests": st.floats(0, 1)}
        ),
        min_size=1,
        max_size=4,
    ),
    st.integers(1, 6),
)
def test_the_day_is_the_plain_sum(sessions: list[dict[str, Any]], charges: int) -> None:
    """D, physics 9: flashes x power over the charge, and 1 % of a charge for each hour (from memory); a battery is
    changed each time a whole one is used."""
    plan = day_plan(file_of(sessions, batteries=[{"unit": "One", "charges": charges}]), Shelf([ONE]), ways=False)
    (one,) = plan.units
    work = plan.turns[0].stretches[0].work[0]
    power = 2.0**-work.below_full
    flashes = sum(s["people"] * s["frames_each"] * (1 + s["tests"]) for s in sessions)
    hours = sum(s.end - s.start for turn in plan.turns for s in turn.stretches) / 60
    used = flashes * power + STANDBY_SHARE * hours * 100
    assert one.flashes == pytest.approx(flashes)
    assert one.used == pytest.approx(used)
    if used < 100:
        assert one.course[-1] == pytest.approx((plan.turns[-1].end, 1 - used / 100))
    assert one.wanted == max(1, math.ceil(used / 100 - 1e-9))
    assert (one.gives_out is None) == (charges >= one.wanted)
    assert len(one.swaps) == min(charges, one.wanted - 1)
    each = max(CADENCE_S, 0.1 + power * 1.9)
    minutes = sum(s["people"] * (TURNOVER_MIN + s["frames_each"] * (1 + s["tests"]) * each / 60) for s in sessions)
    swapped = sum(swap.again <= swap.at for swap in one.swaps)  # each takes two minutes
    assert plan.ends == pytest.approx(9 * 60 + 15 * len(sessions) + minutes + 2 * swapped)


def test_swaps_chargers_cold_and_old_cells() -> None:
    """D: 100 full flashes a charge, full power, one every 36 s: a charge lasts an hour (less 1 % for idling)."""
    full = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    session = [{"people": 4, "frames_each": 100, "minutes_each": 60, "tests": 0, "change_min": 0}]

    def outs(**job: Any) -> Any:
        return day_plan(file_of(session, full, **job), Shelf([ONE]), ways=False).units[0]

    three = outs(batteries=[{"unit": "One", "charges": 3}])
    assert three.swaps[0].at == pytest.approx(9 * 60 + 60 / 1.01, abs=0.01)
    assert three.gives_out == pytest.approx(9 * 60 + 180 / 1.01, abs=0.01)
    assert three.wanted == 5
    cold = outs(celsius=0, batteries=[{"unit": "One", "charges": 3}])
    assert cold.gives_out == pytest.approx(9 * 60 + 180 / 1.0125, abs=180 * 0.25)
    assert cold.capacity == pytest.approx(80)
    assert outs(cells=0.5).capacity == pytest.approx(50)
    # One charger that fills one in an hour: two go round for ever, for each is full as the other is empty.
    charged = outs(chargers=1, charge_h=0.9, batteries=[{"unit": "One", "charges": 2}])
    assert charged.gives_out is None
    assert charged.charged == 2
    slow = outs(chargers=1, charge_h=2, batteries=[{"unit": "One", "charges": 2}])
    assert slow.gives_out == pytest.approx(9 * 60 + 120 / 1.01, abs=0.01)
    assert slow.swaps[-1].again == pytest.approx(9 * 60 + 60 / 1.01 + 120, abs=0.01)
    mains = ONE.model_copy(update={"power_supplies": (PowerSupply(kind="mains", recycle_full_s=1),)})
    assert day_plan(file_of(session, full), Shelf([mains])).units[0].gives_out is None
    wanting = file_of(session, full, charge_h=2, batteries=[{"unit": "One", "charges": 4}])
    way = next(way for way in day_plan(wanting, Shelf([ONE])).ways if way.code == "charger")
    assert way.gives_out == outs(chargers=1, charge_h=2, batteries=[{"unit": "One", "charges": 4}]).gives_out
    assert way.gives_out != day_plan(wanting, Shelf([ONE]), ways=False).gives_out
    unknown = ONE.model_copy(update={"power_supplies": ()})
    assert math.isnan(day_plan(file_of(session, full), Shelf([unknown])).units[0].capacity)


def test_ways_out_do_what_they_say() -> None:
    sunny = setups()[5]
    file = file_of([{"people": 44, "frames_each": 40, "minutes_each": 8}], sunny, day=date(2026, 6, 24))
    plan = day_plan(file, SHOP)
    assert plan.gives_out is not None
    charges = next(way for way in plan.ways if way.code == "charges")
    assert charges.unit is not None
    unit = SHELF.ids[charges.unit]
    more = file.model_copy(update={"job": file.job.model_copy(update={"batteries": ()})})
    more = JobFile.model_validate(
        more.model_dump()
        | {
            "job": more.job.model_dump()
            | {"batteries": [{"unit": "x", "name": unit, "charges": int(1 + charges.count)}]}
        }
    )
    assert day_plan(more, SHOP).gives_out is None
    charger = next(way for way in plan.ways if way.code == "charger")
    with_one = file.model_copy(update={"job": file.job.model_copy(update={"chargers": 1})})
    assert day_plan(with_one, SHOP).gives_out == pytest.approx(charger.gives_out)
    assert [way.count for way in plan.ways if way.code == "iso"] == [2, 4]  # a stop of ISO, and two


def test_ways_of_a_day_whose_unit_has_left_the_shelf() -> None:
    """A unit that goes along and stands at a light is drawn on as its copy, in the day and with each way done alike."""
    gone = ONE.model_copy(update={"name": "Gone", "power_supplies": ONE.power_supplies})
    lights = [{"distance_m": 3, "unit": gone.model_dump() | {"id": "gone"}}, {"role": "rim", "distance_m": 3}]
    file = file_of(
        [{"people": 20, "frames_each": 40}] * 2,
        DARK | {"lights": lights},
        picked=[{"unit": "gone", "name": "Gone", "count": 1}],
    )
    for shelf in (SHOP, Shelf([ONE])):
        plan = day_plan(file, shelf)
        assert plan.gives_out is not None
        assert {plan.table.units[one.unit].name for one in plan.units} >= {"Gone"}
        for way in plan.ways:
            anew = day_plan(helped(file, plan, way), shelf, ways=False)
            assert anew.gives_out == way.gives_out, way.code
            assert [one.unit for one in anew.units] == [one.unit for one in way.there.units]


@pytest.mark.parametrize("owned", [1, 2, 3])
def test_as_many_charges_as_are_wanted_last(owned: int) -> None:
    """100 full flashes a charge, 480 to be made: five charges, whatever one has."""
    full = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    session = [{"people": 4, "frames_each": 120, "minutes_each": 60, "tests": 0, "change_min": 0}]
    plan = day_plan(file_of(session, full, batteries=[{"unit": "One", "charges": owned}]), Shelf([ONE]))
    way = next(way for way in plan.ways if way.code == "charges")
    assert (owned + way.count, way.gives_out) == (5, None)


TWO_HEADS = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0, "heads": 2}]}
PACK = ONE.model_copy(
    update={"power_supplies": (PowerSupply(kind="lithium", recycle_full_s=1.0, recycle_least_s=0.1, full_flashes=480),)}
)


def test_two_heads_want_batteries_for_both() -> None:
    """D: 600 full flashes of each of two heads, 480 a charge: two charges a head, four, and a fifth to spare."""
    session = [{"people": 6, "frames_each": 100, "minutes_each": 1, "tests": 0}]
    plan = day_plan(file_of(session, TWO_HEADS), Shelf([PACK]))
    (one,) = plan.units
    assert (one.charges, one.wanted, one.flashes) == (2, 4, 1200)  # one in each head
    assert one.gives_out is not None
    way = next(way for way in plan.ways if way.code == "charges")
    assert (way.count, way.gives_out) == (2, None)
    (battery,) = (item for item in pack_of(file_of(session, TWO_HEADS), plan, {}) if item.what == "battery")
    assert (battery.count, battery.spare) == (5, 1)
    single = file_of(session, TWO_HEADS, batteries=[{"unit": "One", "charges": 1}])
    short = day_plan(single, Shelf([PACK]), ways=False)
    begins = short.turns[0].stretches[0].start
    assert [(one.gives_out, one.course) for one in short.units] == [(begins, ((begins, 0.0),))]  # a line to say so on
    two = DARK | {"lights": TWO_HEADS["lights"][:1] + [{"distance_m": 3, "dial_stops": 0.0}]}
    three = day_plan(file_of(session, two), Shelf([PACK]), ways=False).units[0]
    assert three.wanted == 6  # two lights with three heads of it in all
    for charges, until in ((1, 0.0), (2, 480 / 600), (3, 480 / 600), (4, None)):
        said = [{"unit": "One", "name": PACK.name, "charges": charges}]
        (turn,), out = (
            (
                there := day_plan(file_of(session, TWO_HEADS, batteries=said, swap_min=0), Shelf([PACK]), ways=False)
            ).turns,
            there.gives_out,
        )
        assert out == (None if until is None else pytest.approx(turn.ready + until * (turn.end - turn.ready), abs=0.1))


@pytest.mark.parametrize("seed", range(6))
def test_heads_share_charges_as_hands_would(seed: int) -> None:
    """Against a clock that ticks two hundred times a minute: the fullest at hand goes into the head that is empty."""
    dice = random.Random(seed)
    sizes = sorted((dice.uniform(0.3, 1.0) for _ in range(5)), reverse=True)
    draws = [
        Draw(100.0 * at, 100.0 * at + 60, tuple(sorted((dice.uniform(10, 90) for _ in range(heads)), reverse=True)))
        for at, heads in enumerate((1, 2, 1, 3, 2))
    ]
    left, held, tick, out = [100 * size for size in sizes], list[int](), 0.005, math.inf
    for draw in draws:
        held = held[: len(draw.full)]
        for step in range(round(60 / tick)):
            for head, full in enumerate(draw.full):
                if head == len(held) or left[held[head]] < full * tick / 60:
                    others = [at for at in range(5) if at not in held or (head < len(held) and at == held[head])]
                    held[head : head + 1] = [max(others, key=lambda at: left[at])]
                    if left[held[head]] < full * tick / 60:
                        out = min(out, draw.start + step * tick)
                left[held[head]] -= full * tick / 60
    swaps, _ = drained(draws, 100.0, sizes, Charging(0, 0))
    found = next((swap.at for swap in swaps if swap.again > swap.at), math.inf)
    assert found == pytest.approx(out, abs=0.2)


def test_a_second_unit_and_another_order_do_what_they_say() -> None:
    """Two heads give a stop more, so each is dialled a stop lower: half the charge. A hard half hour at the end of a
    day runs a battery out later than one at its start."""
    long = [{"people": 12, "frames_each": 60}]
    plan = day_plan(file_of(long), Shelf([ONE]))
    alone = plan.units[0]
    second = next(way for way in plan.ways if way.code == "second")
    assert plan.gives_out is not None
    assert second.gives_out is None
    with_two = DARK | {"lights": [{"distance_m": 3, "heads": 2}]}
    beside = day_plan(file_of(long, with_two), Shelf([ONE]), ways=False).units[0]
    idle = STANDBY_SHARE * alone.capacity * (plan.turns[0].end - plan.turns[0].ready) / 60
    assert (beside.used / 2 - idle) == pytest.approx((alone.used - idle) / 2, rel=0.02)
    hard, easy = (
        {"people": 9, "frames_each": 60, "minutes_each": 3},
        {"people": 6, "frames_each": 10, "minutes_each": 60},
    )
    plan = day_plan(file_of([hard, easy]), Shelf([ONE]))
    order = next(way for way in plan.ways if way.code == "order")
    assert order.sessions == (0, 1)
    turned = day_plan(file_of([easy, hard]), Shelf([ONE]), ways=False)
    assert order.gives_out == pytest.approx(turned.gives_out)
    assert plan.gives_out is not None
    assert order.gives_out is not None
    assert order.gives_out > plan.gives_out + 120
    assert not [way for way in day_plan(file_of([easy, hard]), Shelf([ONE])).ways if way.code == "order"]
    assert not [way for way in day_plan(file_of([hard, hard]), Shelf([ONE])).ways if way.code == "order"]
    told: list[dict[str, Any]] = [{"people": 9, "frames_each": 60, "start": "09:30"}, easy]
    assert not [way for way in day_plan(file_of(told), Shelf([ONE])).ways if way.code == "order"]


def test_what_a_way_moves_beside_what_gives_out_is_told() -> None:
    """A light that does not come out any more, or at last does; another method; an end that is an hour later."""
    far = DARK | {"lights": [{"distance_m": 30}]}
    sun = {"condition": "distinct_shadows", "subject": "back"}
    bright = [DARK | {"ambient": sun, "aim": {"f_number": 4}, "method": kind} for kind in ("hss", "stop_down")]
    good, short, fast, down = (
        day_plan(file_of([{"people": 2}], setup), Shelf([ONE]), ways=False) for setup in (DARK, far, *bright)
    )

    def told(plan: DayPlan, there: DayPlan, code: str = "charger", places: tuple[int, ...] = ()) -> list[str]:
        return [one.code for one in differences(plan, Way(code, None, 1, there, places))]  # type: ignore[arg-type]

    assert (told(good, good), told(good, short), told(short, good)) == ([], ["not_right"], ["right"])
    assert told(fast, down)[:1] == ["method"]
    nothing = replace(good, turns=tuple(replace(turn, stretches=()) for turn in good.turns))
    assert "method" not in told(nothing, good) + told(good, nothing)
    for minutes, over in ((60, True), (0.5, False)):
        later = replace(good, turns=tuple(replace(turn, end=turn.end + minutes) for turn in good.turns))
        assert ("over" in told(good, later)) == over
    both: list[dict[str, Any]] = [{"people": 2}, {"people": 2, "setup": "far"}]
    doc = file_of(both[:1]).model_dump(mode="json")
    doc["setups"].append({"id": "far", "setup": far})

    def shot(*sessions: dict[str, Any]) -> DayPlan:
        file = JobFile.model_validate(
            doc | {"job": doc["job"] | {"sessions": [{"setup": "s"} | one for one in sessions]}}
        )
        return day_plan(file, Shelf([ONE]), ways=False)

    assert told(shot(*both), shot(*both[::-1]), "order", (0, 1)) == []  # each is compared with itself, where it is then


def test_each_setup_has_its_own_units_at_its_lights() -> None:
    two = ONE.model_copy(update={"name": "Two"})
    posts = [
        {"setup": setup, "light": "k", "unit": "gone", "name": name} for setup, name in (("a", "One"), ("b", "Two"))
    ]
    for some in (posts, posts[::-1]):
        job = Job.model_validate({"name": "J", "posts": some})
        assert [posted_of(job, Shelf([ONE, two]), setup) for setup in ("a", "b", "c")] == [{"k": 0}, {"k": 1}, {}]


def test_of_all_orders_of_two_the_one_that_lasts_longest_is_proposed() -> None:
    hard, easy, mid = (
        {"people": 9, "frames_each": 60, "minutes_each": 3},
        {"people": 6, "frames_each": 10, "minutes_each": 60},
        {"people": 4, "frames_each": 40, "minutes_each": 20},
    )
    plan = day_plan(file_of([hard, easy, mid]), Shelf([ONE]))
    way = next(way for way in plan.ways if way.code == "order")
    outs = {}
    for places, turned in {(0, 1): [easy, hard, mid], (0, 2): [mid, easy, hard], (1, 2): [hard, mid, easy]}.items():
        outs[places] = day_plan(file_of(turned), Shelf([ONE]), ways=False).gives_out or math.inf
    assert len(set(outs.values())) == 3
    assert outs[way.sessions] == max(outs.values())  # type: ignore[index]


def test_a_second_unit_stands_where_the_first_does_and_nowhere_else() -> None:
    two = ONE.model_copy(update={"name": "Two"})
    table = Shelf([ONE, two], ids=["one", "two"])
    lights = [{"distance_m": 3, "unit": unit.model_dump() | {"id": key}} for unit, key in ((ONE, "one"), (two, "two"))]
    batteries = [{"unit": "one", "name": "One", "charges": 1}, {"unit": "two", "name": "Two", "charges": 1}]
    long = [{"people": 12, "frames_each": 60}]
    plan = day_plan(file_of(long, DARK | {"lights": lights}, batteries=batteries), table)
    ways = [way for way in plan.ways if way.code == "second"]
    assert [way.unit for way in ways] == [0, 1]
    for way, doubled in zip(ways, ([2, 1], [1, 2]), strict=True):
        heads = [light | {"heads": count} for light, count in zip(lights, doubled, strict=True)]
        more = [one | {"charges": count} for one, count in zip(batteries, doubled, strict=True)]
        there = day_plan(file_of(long, DARK | {"lights": heads}, batteries=more), table, ways=False)
        assert there.gives_out is not None  # the other one still gives out
        assert way.gives_out == there.gives_out


def test_spread_is_the_same_for_the_same_seed() -> None:
    file = file_of([{"people": 10, "frames_each": 90, "minutes_each": 6}], batteries=[{"unit": "One", "charges": 2}])
    plan = day_plan(file, Shelf([ONE]))
    assert plan.gives_out is None
    one, again, other = spread_of(plan, 400, 1), spread_of(plan, 400, 1), spread_of(plan, 400, 2)
    assert one == again
    assert one.lasts != other.lasts
    assert one.lasts == pytest.approx(other.lasts, abs=0.1)
    tight = file_of([{"people": 10, "frames_each": 90, "minutes_each": 6}], batteries=[{"unit": "One", "charges": 1}])
    assert spread_of(day_plan(tight, Shelf([ONE])), 400, 1).lasts < one.lasts
    assert one.until <= plan.ends


@pytest.mark.parametrize(
    ("kept", "lasts"),
    [
        ("SD_FRAME_COUNT", lambda room: phi((room - 1) / 0.15)),  # so many times as many frames
        ("SD_POWER", lambda room: phi(math.log2(room) / 0.3)),  # so many stops more
        ("SD_CELLS", lambda room: phi((1 - 1 / room) / 0.1)),  # cells that hold so much
    ],
)
def test_how_sure_a_day_is_by_one_doubt_at_a_time(kept: str, lasts: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """D: the normal distribution at the room that is left, 100 full flashes for 90, and half a hundredth for idling."""
    for name in {"SD_FRAME_COUNT", "SD_POWER", "SD_CELLS"} - {kept}:
        monkeypatch.setattr(endurance, name, 0.0)
    half = DARK | {"lights": [{"distance_m": 3, "dial_stops": 1.0}]}
    session = {"people": 3, "frames_each": 60, "minutes_each": 10, "tests": 0, "change_min": 0}
    plan = day_plan(file_of([session], half, batteries=[{"unit": "One", "charges": 1}]), Shelf([ONE]))
    room = (100 - 0.5) / 90
    spread = spread_of(plan, 2000)
    assert spread.lasts == pytest.approx(lasts(room), abs=0.03)
    if kept == "SD_FRAME_COUNT":  # nine days of ten have less than 1.28 sd more frames
        assert spread.until == pytest.approx(540 + 30 * 100 / (90 * (1 + 1.2816 * 0.15) + 0.5), abs=0.4)


@pytest.mark.parametrize("chargers", [0, 1, 3])
def test_many_days_at_once_are_each_as_one_by_itself(chargers: int) -> None:
    """D: of 200 days, with charges of different sizes, when the first is missing."""
    rng = np.random.default_rng(chargers)
    sizes, charging = (1.0, 1.0, 0.8, 0.5), Charging(chargers, 25.0)
    starts = np.array([540.0, 600.0, 700.0, 920.0, 1000.0])
    ends, full = starts + [50, 60, 200, 70, 100], rng.uniform(0, 30, (200, 5, 2)) * (1 + 1.2 * chargers)
    full = -np.sort(-full * np.array([1, 0.5, 3, 2, 2])[:, None] * [1.0, 0.4])
    full[:, [0, 2, 3], 1] = 0.0  # one head alone, then two, then one for long
    capacity = rng.uniform(20, 60, 200)
    outs = first_outs(starts, ends, full, capacity, sizes, charging)
    assert 0.1 < np.mean(np.isinf(outs)) < 0.9
    for run in range(200):
        draws = [
            Draw(start, end, tuple(x for x in own if x))
            for start, end, own in zip(starts, ends, full[run], strict=True)
        ]
        swaps, _ = drained(draws, float(capacity[run]), sizes, charging)
        assert outs[run] == pytest.approx(next((one.at for one in swaps if one.again > one.at), math.inf), abs=1e-9)


def test_the_fewest_charges_are_the_fewest() -> None:
    """Of all numbers, counted one by one."""
    supply = PowerSupply(kind="lithium", recycle_full_s=1.0, recycle_least_s=0.1, full_flashes=20)
    one = ONE.model_copy(update={"power_supplies": (supply,)})
    for chargers, hours in ((1, 0.2), (2, 0.5), (1, 2.0)):
        file = file_of([{"people": 20, "frames_each": 20}], batteries=[{"unit": "One", "charges": 99}])
        job = file.job.model_copy(update={"chargers": chargers, "charge_h": hours})
        plan = day_plan(file.model_copy(update={"job": job}), Shelf([one]), ways=False)
        (found,) = plan.units
        with_so_many = [
            lasting(plan.turns, found.fed, found.capacity, [1.0] * count, job).gives_out is None
            for count in range(1, found.wanted + 1)
        ]
        assert found.charged == 1 + with_so_many.index(True)


def phi(x: float) -> float:
    """The normal distribution."""
    return 0.5 * math.erfc(-x / math.sqrt(2))


def test_the_slowest_unit_sets_the_pace() -> None:
    """D: 2 people, a minute each to change over, six frames 10 s apart: four minutes; 3 s apart where it is ready."""
    quick = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    supply = PowerSupply(kind="lithium", recycle_full_s=10.0, recycle_least_s=0.1, full_flashes=100)
    slow = ONE.model_copy(update={"power_supplies": (supply,)})
    for unit, minutes in ((slow, 2 * (1 + 6 * 10 / 60)), (ONE, 2 * (1 + 6 * 3 / 60))):
        (turn,) = day_plan(file_of([{"people": 2, "frames_each": 6, "tests": 0}], quick), Shelf([unit])).turns
        assert turn.end - turn.ready == pytest.approx(minutes)


def test_a_light_that_is_off_works_not_and_the_next_does() -> None:
    two = DARK | {"lights": [{"distance_m": 3, "on": False}, {"distance_m": 3, "pops": 2}]}
    plan = day_plan(file_of([{"people": 2, "frames_each": 10, "tests": 0.5}], two), Shelf([ONE]))
    (work,) = plan.turns[0].stretches[0].work
    assert (work.light, work.unit, work.flashes) == (1, 0, 60)  # 2 people, 15 frames, two pops each
    assert [one.code for one in plan.turns[0].stretches[0].failing] == ["background_off"]  # it reaches; a dark room


def test_of_what_goes_along_the_lightest_that_reaches_is_taken() -> None:
    """Each only as often as it is picked; a light that is off takes none; a unit that is taken stays."""
    names, grams = ("Heavy", "Light", "Weak"), (900.0, 400.0, 100.0)
    units = [
        Unit(
            name=name, claims=(Claim(guide_number=8 if name == "Weak" else 60, unit="m", zoom_mm=35),), weight_g=weight
        )
        for name, weight in zip(names, grams, strict=True)
    ]
    table = table_of(units)
    lights: list[dict[str, Any]] = [{"role": "rim", "distance_m": 3} for _ in range(3)]

    def taken(lights: list[dict[str, Any]], *picked: tuple[str, int]) -> tuple[int | None, ...]:
        solved = solve(Setup.model_validate(DARK | {"lights": lights}), table)
        job = Job.model_validate({"name": "J", "picked": [{"unit": name, "count": count} for name, count in picked]})
        return units_at(solved, solved.kinds[0], job, "s")

    assert taken(lights) == (1, 1, 1)
    assert taken(lights, ("Heavy", 1), ("Light", 1), ("Weak", 1)) == (1, 0, 2)
    assert taken(lights, ("Heavy", 2), ("Light", 1)) == (1, 0, 0)
    assert taken(lights, ("Light", 1), ("Light", 1)) == (1, 1, None)
    assert taken([lights[0] | {"on": False}, *lights[1:]], ("Light", 2)) == (None, 1, 1)
    assert taken([lights[0] | {"unit": units[0].model_dump()}, *lights[1:]], ("Heavy", 1), ("Light", 1)) == (0, 1, None)
    assert taken([lights[0] | {"heads": 2}, *lights[1:]], ("Light", 2), ("Heavy", 1)) == (1, 0, None)
    assert picked_of(Job.model_validate({"name": "J", "picked": [{"unit": "Gone", "count": 2}]}), table) == {}
    doc = {"name": "J", "picked": [{"unit": name, "count": 2} for name in names[:2]]}
    one = solve(Setup.model_validate(DARK | {"lights": [{"id": "k", "distance_m": 3}]}), table)
    posts = [{"setup": "s", "light": "k", "unit": "Heavy", "name": "Heavy"}]
    assert units_at(one, one.kinds[0], Job.model_validate(doc), "s") == (1,)
    assert units_at(one, one.kinds[0], Job.model_validate(doc | {"posts": posts}), "s") == (0,)


def test_what_is_printed_is_solved_on_the_jobs_day_and_in_its_wind() -> None:
    sun = {
        "by": "sun", "clock": "12:00", "day": "2026-06-24", "subject": "back",
        "place": {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"},
    }  # fmt: skip
    outdoors = {"ambient": sun, "lights": [{"distance_m": 2}]}
    file = file_of([{}], outdoors, day="2026-12-21", brief={"wind_m_s": 9})
    (shot,) = service.shot_setups(file, Shelf([ONE]))
    solved = shot.solved
    assert (shot.id, shot.units) == ("s", (0,))
    assert solved.setup.ambient.day == date(2026, 12, 21)
    assert solved.setup.stage.wind_m_s == 9
    assert solved.ambient.background_ev < ambient_of(Setup.model_validate(outdoors).ambient).background_ev
    same = service.shot_setups(file_of([{}], outdoors), Shelf([ONE]))
    assert same[0].solved.setup.ambient.day == date(2026, 6, 24)


def test_a_higher_iso_is_taken_where_the_body_and_the_person_allow_it() -> None:
    free = DARK | {"aim": {"f_number": 8, "iso": 400}, "body": {"name": "B", "iso_max": 1600}}
    for more, times, iso in (
        ({}, 4, 1600),
        ({}, 8, 400),
        ({"fixed": {"iso": True}}, 2, 400),
        ({"aim": {"f_number": 8, "iso": 400, "iso_ceiling": 800}}, 2, 800),
        ({"aim": {"f_number": 8, "iso": 400, "iso_ceiling": 800}}, 4, 400),
    ):
        assert with_iso(file_of([{}], free | more), times).setups[0].setup.aim.iso == iso


def test_when_the_sun_sets_on_a_setups_day() -> None:
    """Against the solar position algorithm, within two minutes, on the day after too; before the sun is up again it has
    set; no sunset where it does not set, or is not known."""
    place = {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"}
    spec = AmbientSpec.model_validate({"by": "sun", "day": "2026-06-24", "clock": "12:00", "place": place})
    setup = Setup(ambient=spec)
    times = pd.DatetimeIndex(["2026-06-24", "2026-06-25"], tz="Europe/London")
    known = pvlib.solarposition.sun_rise_set_transit_spa(times, 51.0, 0.0)["sunset"]
    first, second = (24 * 60 * at + (one - one.normalize()).total_seconds() / 60 for at, one in enumerate(known))
    assert sunset(setup, 12 * 60, 22 * 60) == pytest.approx(first, abs=2)
    assert sunset(setup, 12 * 60, 20 * 60) is None
    assert sunset(setup, 22 * 60, 23 * 60) == pytest.approx(first, abs=2)
    assert sunset(setup, 26 * 60, 27 * 60) == pytest.approx(first, abs=2)
    assert sunset(setup, 34 * 60, 40 * 60) is None
    assert sunset(setup, 34 * 60, 46 * 60) == pytest.approx(second, abs=2)
    north = AmbientSpec.model_validate(spec.model_dump() | {"place": place | {"latitude": 72.0}})
    assert sunset(Setup(ambient=north), 0, 1440) is None
    assert sunset(Setup(), 0, 1440) is None


def test_a_day_runs_on_past_midnight() -> None:
    """By the plain sum: 22:00 and three hours of people, then as many again; the method and the dial are those of
    before, where no light changes; a clock before the day's beginning is the next day's."""
    people = {"people": 36, "frames_each": 1, "minutes_each": 5, "tests": 0}
    hours: dict[str, Any] = {"begins": "22:00", "ends": "23:30"}
    plan = day_plan(file_of([people, people], batteries=[{"unit": "One", "charges": 9}], **hours), Shelf([ONE]))
    one, two = plan.turns
    change = two.session.change_min
    assert (one.ready, one.end) == (pytest.approx(22 * 60 + change), pytest.approx(25 * 60 + change))
    assert two.end == pytest.approx(one.end + change + 180) == plan.ends
    assert two.wrong == ()
    assert [stretch.kind for stretch in two.stretches] == [one.stretches[0].kind]
    assert two.stretches[0].work[0].below_full == one.stretches[0].work[0].below_full
    text = day_plan_text(plan, None, DisplayUnits())
    assert "over at 04:" in text.says
    assert " the next day" in text.says
    late = day_plan(file_of([people, people | {"start": "03:10"}], **hours), Shelf([ONE]))
    assert (late.turns[1].start, late.turns[1].wrong) == (27 * 60 + 10, ())
    early = day_plan(file_of([people, people | {"start": "21:30"}], **hours), Shelf([ONE]))
    assert [remark.code for remark in early.turns[1].wrong] == ["overlaps"]


def test_past_midnight_the_light_is_the_next_days() -> None:
    """Against the same hour asked for on the date after: a session that runs from one noon to the next."""
    place = {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"}
    sun = {"by": "sun", "day": "2026-03-20", "clock": "09:00", "place": place, "subject": "sun"}
    setup = Setup.model_validate({"ambient": sun})
    there = at_minutes(setup, 33 * 60 + 15)
    assert (there.ambient.day, there.ambient.clock) == (date(2026, 3, 21), time(9, 15))
    assert at_minutes(setup, 15 * 60).ambient.day == date(2026, 3, 20)
    known = ambient_of(AmbientSpec.model_validate(sun | {"day": "2026-03-21", "clock": "09:15"}))
    assert ambient_of(there.ambient).background_ev == pytest.approx(known.background_ev)
    assert at_minutes(Setup(), 33 * 60).ambient.day is None


def test_an_entry_of_the_log_stands_somewhere_and_has_no_zone() -> None:
    seen = {"stops": 0.0, "was": {"unit": {"name": "One", "watt_seconds": 100}}}
    good = {"at": "2026-06-12T12:00:00", "was": Setup().model_dump()}
    assert LogEntry.model_validate(good | {"seen": seen}).day == date(2026, 6, 12)
    for wrong, code in (
        ({"at": "2026-06-12T12:00:00+02:00"}, "log_with_zone"),
        ({"seen": seen, "was": None}, "seen_without_setup"),
        ({"seen": seen | {"light": 1}}, "no_such_light"),
    ):
        with pytest.raises(ValidationError) as told:
            LogEntry.model_validate(good | wrong)
        assert told.value.errors()[0]["type"] == code


def test_impossible_days() -> None:
    overlap = day_plan(file_of([{"people": 10, "frames_each": 60}, {"start": "09:20"}]), Shelf([ONE]))
    assert [remark.code for remark in overlap.turns[1].wrong] == ["overlaps"]
    crowd = day_plan(file_of([{"people": 10_000, "frames_each": 10_000}]), Shelf([ONE]))
    assert [remark.code for remark in crowd.turns[0].wrong] == ["too_many_frames"]
    million = day_plan(file_of([{"people": 1000, "frames_each": 1000, "tests": 0}]), Shelf([ONE]), ways=False)
    assert "too_many_frames" not in [remark.code for remark in million.turns[0].wrong]
    endless = Setup.model_validate({"ambient": {"by": "sun", "day": "2026-06-24", "place": DOWNS}})
    long = day_plan(file_of([{"people": 3000, "frames_each": 60}], endless), Shelf([ONE]), ways=False)
    assert [remark.code for remark in long.turns[0].wrong] == ["too_long"]
    assert 3 * 1440 <= long.ends < 3 * 1440 + 61
    assert [clock_of(minutes) for minutes in (0, 615.5, 1439, 1440, 1545)] == [
        time(0), time(10, 15), time(23, 59), time(0), time(1, 45)
    ]  # fmt: skip
    for wrong in ({"frames_each": 0}, {"people": 0}, {"start": "25:00"}):
        with pytest.raises(ValidationError):
            file_of([wrong])
    with pytest.raises(ValidationError):
        file_of([], begins="18:00", ends="09:00")
    with pytest.raises(ValidationError):
        JobFile.model_validate({"job": {"name": "A", "sessions": [{"setup": "gone"}]}})
    empty = day_plan(JobFile.model_validate({"job": {"name": "A"}}), Shelf([ONE]))
    assert empty.turns == ()
    assert empty.gives_out is None


def test_heat_makes_a_session_longer() -> None:
    hot = ONE.model_copy(update={"heat": Heat(full_flashes=20, rest_s=600), "hss": Hss()})
    full = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    session = [{"people": 1, "frames_each": 80, "minutes_each": 8, "tests": 0, "change_min": 0}]
    cool = day_plan(file_of(session, full), Shelf([ONE]), ways=False)
    warm = day_plan(file_of(session, full), Shelf([hot]), ways=False)
    # 80 in 480 s: 80 put in, 20 held, 480 x 20 / 600 = 16 leaked: 44 too many, 44 x 600 / 20 = 1320 s of rest.
    assert warm.ends - cool.ends == pytest.approx(1320 / 60)
    # Five flashes a frame, 1.2 s apart: 400 put in, 20 held, 16 leaked: 364 too many, 364 x 30 = 10,920 s of rest.
    five = full | {"lights": [full["lights"][0] | {"pops": 5, "dial_stops": 0.0}]}
    times = [day_plan(file_of(session, five), Shelf([unit]), ways=False).ends for unit in (hot, ONE)]
    assert times[0] - times[1] == pytest.approx(10_920 / 60)


def test_hour_by_hour_hss_gives_out_before_nd() -> None:
    """At noon in June f/2.8 asks HSS for a time that costs more than a bracket of two shoe flashes has; ND holds."""
    pair, day = NAMES.index("Godwit 76 pair"), clocks(time(9), time(18))
    hours = hours_of(setups()[5], SHELF, pair, day)
    assert [hour.clock for hour in hours] == day
    assert first_lost(hours, "hss") == time(10)
    assert first_lost(hours, "nd") is None
    by_clock = {hour.clock: hour for hour in hours}
    alone = solve(
        setups()[5].model_copy(update={"ambient": setups()[5].ambient.model_copy(update={"clock": time(12)})}), SHELF
    )
    assert by_clock[time(12)].spare == pytest.approx(float(alone.reach("nd").spare[pair]))
    for hour in hours:
        solved = solve(at_time(setups()[5], hour.clock), SHELF)
        for one in hour.methods:
            assert one.reaches == (solved.reach(one.kind).verdict[pair] == "reaches")
            assert one.spare == pytest.approx(float(solved.reach(one.kind).spare[pair]))
        assert hour.kind is not None
        assert hour.reaches == (solved.reach(hour.kind).verdict[pair] == "reaches")
        assert hour.below_full == pytest.approx(float(solved.reach(hour.kind).below_full[pair]))
        assert hour.camera == solved.method(hour.kind).camera
    cloud = hours_of(setups()[5], SHELF, pair, day, skies=("clear", "overcast"))
    assert len(cloud) == 2 * len(hours)
    assert cloud[-1].background_ev < hours[-1].background_ev - 1
    assert [hour.shade_gone for hour in hours if hour.clock.hour in (15, 16)] == [False, True]  # lost at 15:10
    back = setups()[5].model_copy(update={"ambient": setups()[5].ambient.model_copy(update={"subject": "back"})})
    assert not any(hour.shade_gone for hour in hours_of(back, SHELF, pair, day))  # nobody stands in it
    with pytest.raises(CannotSolve):
        hours_of(Setup(), SHELF, pair, day)
    assert clocks(time(9, 30), time(11)) == [time(9, 30), time(10, 30), time(11)]


@pytest.mark.parametrize(
    ("day", "lost"),
    [
        ([(12, True), (13, True), (14, False)], time(11)),
        ([(12, True), (13, True), (13, False)], time(11)),  # in light as bright
        ([(13, True), (12, True), (12.5, False)], None),  # dimmer than it held in: only not needed
        ([(12, False), (13, False), (14, False)], None),  # it never did
        ([(14, False), (12, True), (15, True)], None),  # it came
    ],
)
def test_when_a_method_is_lost(day: list[tuple[float, bool]], lost: time | None) -> None:
    hours = [
        Hour(
            time(9 + at),
            "clear",
            ev,
            None,
            None,
            0,
            0,
            False,
            (InMethod("nd", 9, True), InMethod("hss", 1, holds)),
            False,
        )
        for at, (ev, holds) in enumerate(day)
    ]
    assert first_lost(hours, "hss") == lost
    assert first_lost(hours, "leaf") is None


def test_the_other_sky() -> None:
    spec = AmbientSpec()
    assert skies_beside(spec.model_copy(update={"sky": "clear"})) == ("clear", "overcast")
    assert skies_beside(spec.model_copy(update={"sky": "overcast"})) == ("overcast", "clear")
    read = spec.model_copy(update={"sky": "overcast", "readings": (Reading(f_number=8, shutter_s=1 / 125),)})
    for sky, kept in (("overcast", 1), ("clear", 0), (None, 1)):  # what was metered says nothing of another sky
        there = at_time(Setup(ambient=read), time(12), sky).ambient  # type: ignore[arg-type]
        assert (there.sky, len(there.readings)) == (sky or "overcast", kept)


def test_only_what_hands_must_change_is_told() -> None:
    setup = setups()[0]
    moved = Setup.model_validate(
        setup.model_dump()
        | {
            "lights": [setup.lights[0].model_dump() | {"distance_m": 2.4, "layers": []}],
            "aim": setup.aim.model_dump() | {"lens": {"focal_mm": 50, "subject_m": 2.5, "background_m": 60}},
        }
    )

    def standing(one: Setup, table: UnitTable = SHELF) -> Standing:
        solved = solve(one, table)
        return Standing(solved, "nd", (NAMES.index("Curlew 400"),))

    assert changes_between(standing(setup), standing(setup)) == []
    found = {one.code: one.facts for one in changes_between(standing(setup), standing(moved))}
    assert set(found) == {"lens", "distance", "layer_off", "dial"}
    assert found["lens"] == {"was": 85, "now": 50}
    assert found["distance"]["now"] == 2.4
    assert found["dial"]["now"] > -1
    two = moved.model_copy(update={"lights": (*moved.lights, moved.lights[0].model_copy(update={"role": "rim"}))})
    solved = solve(two, SHELF)
    both = Standing(solved, "nd", (NAMES.index("Curlew 400"), NAMES.index("Avocet 200")))
    placed = Setup.model_validate(setup.model_dump() | {"lights": [
        setup.lights[0].model_dump() | {"position": {"bearing_deg": 30, "height_m": 2}}]})  # fmt: skip
    bare = placed.model_copy(update={"lights": (placed.lights[0].model_copy(update={"position": None}),)})
    assert not {"bearing", "height"} & {one.code for one in changes_between(standing(placed), standing(bare))}
    codes = [one.code for one in changes_between(standing(bare), standing(placed))]
    assert codes[:2] == ["bearing", "height"]
    codes = [one.code for one in changes_between(standing(moved), both)]
    assert codes[:2] == ["light_up", "unit"]
    assert "light_away" in [one.code for one in changes_between(both, standing(moved))]


def test_a_session_under_the_sun_is_solved_hour_by_hour_with_its_light() -> None:
    """From 09:15 each stretch is an hour on, and is solved at the hour it begins; the sun rises to noon."""
    sunny = setups()[5]
    plan = day_plan(file_of([{"people": 20, "minutes_each": 12}], sunny, day=date(2026, 6, 24)), SHOP, ways=False)
    first, *more = plan.turns[0].stretches
    assert [round(one.start) for one in (first, *more)] == [555, 615, 675, 735]
    for one in (first, *more):
        there = at_time(plan.turns[0].setup, time(int(one.start) // 60, int(one.start) % 60))
        assert one.solved.ambient.background_ev == pytest.approx(ambient_of(there.ambient).background_ev, abs=0.01)
    assert more[-1].solved.ambient.background_ev > first.solved.ambient.background_ev + 0.1


def test_with_a_charger_as_many_batteries_go_along_as_go_round() -> None:
    """Two that go round for ever (a charge lasts an hour, is full again as soon), and a spare; else five."""
    full = DARK | {"lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    session = [{"people": 4, "frames_each": 100, "minutes_each": 60, "tests": 0, "change_min": 0}]
    for job, count in (({"chargers": 1, "charge_h": 0.9}, 3), ({}, 6)):
        file = file_of(session, full, batteries=[{"unit": "One", "charges": 5}], **job)
        packed = {one.what: one for one in pack_of(file, day_plan(file, Shelf([ONE])), {})}
        assert (packed["battery"].count, packed["battery"].spare) == (count, 1)
        assert ("charger" in packed) == bool(job)


def test_charges_are_counted_by_id_else_by_name() -> None:
    batteries = [{"unit": "x", "name": "Alpha", "charges": 2}, {"unit": "y", "name": "Beta", "charges": 3}]
    job = Job.model_validate({"name": "J", "batteries": batteries})
    assert (job.charges_of("y", "Alpha"), job.charges_of("gone", "Beta"), job.charges_of("gone", "Gamma")) == (
        3,
        3,
        None,
    )


def test_test_frames_are_frames_too() -> None:
    """D: 4 people, 10 frames each, a fifth more to try: 48."""
    assert Session(setup="s", people=4, frames_each=10, tests=0.2).frames == pytest.approx(48)


def test_a_brief_counts_its_frames() -> None:
    """D: 300 frames x 40 heads are 12,000 frames."""
    job = Job.model_validate({"name": "A", "brief": {"people": 40, "frames_each": 300}})
    assert job.brief.frames == 12_000
    assert "people" not in job.brief.open
    assert len(job.brief.open) == 16 - 2  # questions but those two
    range_ = Job.model_validate({"name": "A", "brief": {"people": 40, "frames_each": 150, "frames_each_most": 300}})
    assert range_.brief.frames == 12_000  # planned by the higher figure


def test_a_session_of_a_range_is_planned_by_its_higher_figure() -> None:
    one = Session.model_validate({"setup": "a", "people": 10, "frames_each": 150, "frames_each_most": 300, "tests": 0})
    assert (one.frames_of_one, one.frames) == (300, 3000)


def test_a_session_takes_a_variant_of_its_setup() -> None:
    """A variant keeps what stands where and the lens; the rest of the setup stays, and so does one that is gone."""
    tight = setups()[0]
    far = tight.lights[0].model_dump() | {"distance_m": 3.6}
    lens = {"focal_mm": 50, "subject_m": 4, "background_m": 60}
    whole = {"name": "full length", "lens": lens, "orientation": "grip_up", "stage": {"width_m": 0.8}, "lights": [far]}
    setup = Setup.model_validate(tight.model_dump() | {"variants": [whole]})
    there = setup.in_variant("full length")
    assert there.lights[0].distance_m == 3.6
    assert there.aim.lens is not None
    assert there.aim.lens.focal_mm == 50
    assert there.aim.orientation == "grip_up"
    assert there.aim.f_number == setup.aim.f_number
    assert there.stage.width_m == 0.8
    assert setup.in_variant("gone") == setup
    plan = day_plan(file_of([{"variant": ""}, {"variant": "full length"}], setup), SHOP)
    assert [turn.setup.lights[0].distance_m for turn in plan.turns] == [1.8, 3.6]


def test_running_late_shifts_the_day() -> None:
    """Sessions follow each other; one whose time has passed begins as soon as it can, one whose has not waits."""
    sessions: list[dict[str, Any]] = [{"people": 2, "minutes_each": 30}, {"start": "10:30"}, {"start": "15:00"}]
    usual = day_plan(file_of(sessions), Shelf([ONE]), ways=False)
    late = day_plan(file_of(sessions, late_min=40.0), Shelf([ONE]), ways=False)
    assert [turn.start for turn in usual.turns] == [540, 630, 900]
    assert [turn.start for turn in late.turns] == [580, 655, 900]
    assert [turn.wrong for turn in late.turns] == [(), (), ()]


def test_the_wind_of_a_brief_blows_outdoors() -> None:
    outdoors, indoors = setups()[0], setups()[3]
    assert in_job(outdoors, 8.0, None).stage.wind_m_s == 8
    assert in_job(indoors, 8.0, None).stage.wind_m_s is None
    assert in_job(outdoors, None, None) == outdoors
    own = outdoors.model_copy(update={"stage": outdoors.stage.model_copy(update={"wind_m_s": 3.0})})
    assert in_job(own, 8.0, None).stage.wind_m_s == 3
