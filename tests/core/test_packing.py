"""The pack list and the channel sheet: counts by hand, spares by their stated rule, clashes caught."""

from dataclasses import replace
from typing import Any

import pytest

from jumpstop import service
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.stand import Stand
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.job.cautions import cabin_of
from jumpstop.core.plan.job.channels import sheet_of
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.job.packing import PackItem, hire_days, pack_of
from jumpstop.core.plan.job.schedule import AsShot, day_shelf, units_at
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.light.advice import chosen_method
from jumpstop.core.plan.stage.set_warnings import stage_warnings
from jumpstop.core.scene.job import JobFile
from jumpstop.words.board import board_text
from jumpstop.words.channels import sheet_text
from jumpstop.words.day_plan import day_plan_text
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.pack import pack_text

BIRD = {
    "name": "Bird", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}], "weight_g": 500, "hss": {},
    "power_supplies": [{"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100, "capacity_wh": 120,
    "weight_g": 90}],
}  # fmt: skip
OCTA = {"id": "octa", "name": "Octa", "kind": "octa", "stops": -1.3, "weight_g": 800}
DARK = {"condition": "dark"}


def file(*setups: dict[str, Any], **job: Any) -> JobFile:
    docs = [{"id": f"s{at}", "setup": {"name": f"S{at}"} | setup} for at, setup in enumerate(setups)]
    return JobFile.model_validate({"job": {"name": "J"} | job, "setups": docs})


def packed(
    found: JobFile, *units: dict[str, Any], known: dict[str, frozenset[str]] | None = None
) -> dict[str, PackItem]:
    shelf = Shelf([Unit.model_validate(unit) for unit in units or (BIRD,)])
    return {item.key: item for item in pack_of(found, day_plan(found, shelf), known or {})}


def test_everything_is_packed_once_with_as_many_as_are_used_at_a_time() -> None:
    two = {"lights": [{"modifier": OCTA, "gel": "half_orange"}, {"role": "fill", "modifier": OCTA}], "ambient": DARK}
    one = {
        "lights": [{"modifier": OCTA}],
        "ambient": DARK,
        "triggers": [{"name": "R", "kind": "receiver"}, {"name": "T"}],
    }
    ceiling = {"lights": [{"modifier": {"name": "Ceiling", "kind": "bounce", "stops": -1}}], "ambient": DARK}
    found = packed(
        file(two, one, ceiling, picked=[{"unit": "Bird", "count": 3}]), known={"modifiers": frozenset({"octa"})}
    )
    assert (found["modifier:octa"].count, found["modifier:octa"].missing) == (2, 1)
    assert found["modifier:octa"].setups == ("S0", "S1")
    assert (found["unit:Bird"].count, found["unit:Bird"].spare, found["unit:Bird"].owned) == (3, 1, 1)
    assert (found["gel:half_orange"].count, found["gel:half_orange"].spare) == (1, 0)
    assert found["stand"].spare == 0
    assert [(found[key].count, found[key].spare) for key in ("trigger:R", "trigger:T")] == [(2, 1), (2, 1)]
    assert (found["trigger:R"].owned, found["trigger:R"].missing) == (0, 2)  # on no shelf
    shelf = {"triggers": frozenset({"r"})}
    there = packed(file({"ambient": DARK, "triggers": [{"name": "R", "id": "r"}]}), known=shelf)["trigger:r"]
    assert (there.owned, there.missing) == (None, 0)  # how many of it there are is not known
    assert (found["stand"].count, found["stand"].owned, found["stand"].missing) == (2, None, 0)
    assert not any("Ceiling" in item.name for item in found.values())
    dim = {
        "lights": [{"on": False, "gel": "full_orange"}, {"role": "fill", "modifier": OCTA, "heads": 2}],
        "ambient": DARK,
    }
    lit = packed(file(dim))
    assert "gel:full_orange" not in lit
    assert lit["modifier:octa"].count == lit["unit:Bird"].count == 2  # one for each head


def test_three_units_on_one_sort_of_cell_want_their_sets_and_one_to_spare() -> None:
    """Three kinds that take the same pack, one full flash a person each: three packs and one more, not six; a charger
    for each sort where there are nights."""
    pack = {"kind": "lithium", "name": "Rook pack", "recycle_full_s": 1, "full_flashes": 100, "charger_g": 90}
    birds = [BIRD | {"name": name, "power_supplies": [pack]} for name in ("Dunlin", "Knot", "Ruff")]
    other = BIRD | {"name": "Teal", "power_supplies": [pack | {"name": ""}]}
    lights = [{"role": "rim", "distance_m": 3, "unit": unit} for unit in (*birds, other)]
    day = {"setup": "s0", "people": 5, "frames_each": 2, "day": "2026-06-24"}
    found = packed(file({"lights": lights}, sessions=[day, day | {"day": "2026-06-25"}]))
    lines = [(one.what, one.count, one.spare, one.of) for one in found.values() if one.what in ("battery", "charger")]
    three = "Dunlin\nKnot\nRuff"
    assert lines == [
        ("battery", 4, 1, three),
        ("charger", 1, 0, three),
        ("battery", 2, 1, "Teal"),
        ("charger", 1, 0, "Teal"),
    ]
    assert {one.weight_g for one in found.values() if one.what == "charger"} == {90}


def test_what_feeds_a_unit_in_each_setup_is_counted_and_packed() -> None:
    """The mains indoors, its own battery outside, a light that asks for cells: of each what it feeds, and a charge to
    spare; the mains first or last. A charge of the battery gives 100, of the cells 40 full flashes."""
    own = {"kind": "lithium", "name": "Own", "recycle_full_s": 1, "full_flashes": 100}
    cells = {"kind": "aa", "name": "Cells", "recycle_full_s": 1, "full_flashes": 40}
    bird = BIRD | {"power_supplies": [own, cells, {"kind": "mains", "recycle_full_s": 1}]}
    full: dict[str, Any] = {"ambient": DARK, "lights": [{"dial_stops": 0.0}]}
    asked = [full | {"power_supply": "mains"}, full, full | {"lights": [{"dial_stops": 0.0, "power_supply": "aa"}]}]
    for order in ((0, 1, 2), (2, 1, 0)):
        found = file(*asked, sessions=[{"setup": f"s{at}", "frames_each": 110, "tests": 0} for at in order])
        day = day_plan(found, Shelf([Unit.model_validate(bird)]), ways=False)
        told = [(one.name, one.supply, one.said, one.wanted) for one in day_plan_text(day, None, DisplayUnits()).units]
        assert told == [
            ("Bird", "lithium batteries", True, 2),
            ("Bird", "AA cells", False, 3),
            ("Bird", "", False, 0),
        ]
        assert [one.flashes for one in day.units] == [110, 110, 110]
        # Both batteries give out; charges are said of one.
        ways = day_plan(found, Shelf([Unit.model_validate(bird)])).ways
        assert [(way.code, way.unit) for way in ways if way.unit is not None] == [("charges", 0), ("second", 0)]
        batteries = [(one.name, one.count) for one in packed(found, bird).values() if one.what == "battery"]
        assert batteries == [("Own", 3), ("Cells", 4)]
        lit = [
            one | {"lights": [light | {"dial_stops": None, "distance_m": 4} for light in one["lights"]]}
            for one in asked
        ]
        chosen = service.kit(file(*lit, sessions=found.job.sessions), Shelf([Unit.model_validate(bird)]))
        assert chosen.day is not None
        assert chosen.kit.charges == {0: sum(one.wanted for one in chosen.day.units)}
        assert [one.wanted > 0 for one in chosen.day.units] == [True, True, False]
    indoors = file(asked[0], sessions=[{"setup": "s0", "frames_each": 110}])
    assert [one for one in packed(indoors, bird).values() if one.what == "battery"] == []


def test_travel_and_the_place_are_asked_about_what_feeds_each_light() -> None:
    """Not about a unit's usual supply: mains or a pack of 130 Wh, asked for by setup or light. 1,200 Ws in 1 s, 70 % of
    it stored, at 230 V, draw 7.45 A: two heads that work together are more than a circuit of 10 A bears."""
    mains, pack = {"kind": "mains", "recycle_full_s": 1}, {"kind": "lithium", "recycle_full_s": 1, "capacity_wh": 130}
    by_air = "Bird by air, 130 Wh: in the cabin with the airline's leave, two at the most."
    no_mains, circuit = "Bird wants mains, and there is none.", "On the mains they take about 15 A together"
    lit = {"ambient": DARK, "lights": [{"distance_m": 4}]}
    lithium, two = {"lights": [{"distance_m": 4, "power_supply": "lithium"}]}, {"lights": [{"heads": 2}]}
    for setups, told in (
        ([{"power_supply": "mains"}], [no_mains]),
        ([{"power_supply": "lithium"}], [by_air]),
        ([{"power_supply": "mains"} | lithium], [by_air]),
        ([{"power_supply": "mains"}, {"power_supply": "lithium"}], [by_air, no_mains]),
        ([{"power_supply": "mains"} | two], [no_mains]),
        ([{"power_supply": "lithium"} | two], [by_air]),
    ):
        for supplies in ([mains, pack], [pack, mains]):
            bird = BIRD | {"watt_seconds": 1200, "count": 2, "power_supplies": supplies}
            brief = {"carriage": "air", "power_on_site": False}
            sessions = [{"setup": f"s{at}", "frames_each": 10} for at in range(len(setups))]
            job = file(
                *[lit | one for one in setups], brief=brief, sessions=sessions, picked=[{"unit": "Bird", "count": 2}]
            )
            shelf = Shelf([Unit.model_validate(bird)])
            kit = board_text(service.coverage(job, shelf), [one.id for one in job.setups], job.job, DisplayUnits())
            assert len(kit.picked.cautions) == len(told), setups
            assert all(one.startswith(way) for one, way in zip(kit.picked.cautions, told, strict=True))
            day = day_plan_text(day_plan(job, shelf), None, DisplayUnits())
            assert day.lasts == (no_mains not in told)
            assert day.says.startswith("It lasts" if day.lasts else no_mains)
            wrong = [one for one in day.wrong if not one.startswith("It is over")]
            assert wrong == [one for one in kit.picked.cautions if one not in (by_air, no_mains)]
    weak = BIRD | {"power_supplies": [mains, pack | {"full_flashes": 40}]}
    dialled = {"ambient": DARK, "lights": [{"dial_stops": 0.0}]}
    both = [dialled | {"power_supply": kind} for kind in ("mains", "lithium")]
    long = [{"setup": f"s{at}", "frames_each": 300} for at in range(2)]
    job = file(*both, brief={"power_on_site": False}, sessions=long)
    day = day_plan_text(day_plan(job, Shelf([Unit.model_validate(weak)])), None, DisplayUnits())
    assert day.says.startswith("Bird gives out at")
    assert no_mains in day.wrong
    bird = BIRD | {"watt_seconds": 1200, "count": 2, "power_supplies": [mains, pack]}
    for heads in (1, 2):
        lamps = {"lights": [{"distance_m": 4, "heads": heads}]}
        job = file(lit | lamps, sessions=[{"setup": "s0"}], picked=[{"unit": "Bird", "count": 2}])
        shelf = Shelf([Unit.model_validate(bird)])
        told = board_text(service.coverage(job, shelf), ["s0"], job.job, DisplayUnits()).picked.cautions
        wrong = [one for one in day_plan_text(day_plan(job, shelf), None, DisplayUnits()).wrong if "over at" not in one]
        assert told == wrong
        assert [one.startswith(circuit) for one in told] == [True] * (heads - 1)
    unknown = {"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100}
    idle = BIRD | {"name": "Idle", "watt_seconds": 1200, "count": 2, "power_supplies": [unknown, mains]}
    shelf = Shelf([Unit.model_validate(BIRD | {"power_supplies": [mains]}), Unit.model_validate(idle)])
    job = file(lit, brief={"carriage": "air"}, picked=[{"unit": "Bird"}, {"unit": "Idle", "count": 2}])
    kit = board_text(service.coverage(job, shelf), ["s0"], job.job, DisplayUnits())
    says = "to 100 Wh in the cabin, to 160 Wh two with the airline's leave"
    assert kit.picked.cautions == [f"Idle by air, its capacity not known: {says}."]


def test_filters_chargers_and_setups_that_have_no_session_go_along() -> None:
    sun = {"aim": {"f_number": 2.8, "background_stops": -1}, "body": {"name": "B", "hss": False}}
    nds = {"filters": [{"id": "six", "name": "Six", "stops": 6, "weight_g": 40}, {"name": "Three", "stops": 3}]}
    found = packed(file(sun | nds, sun | nds, chargers=2), known={"filters": frozenset({"six"})})
    used = {key: item for key, item in found.items() if item.what == "filter"}
    assert used  # the background in the sun is brought down by one of them
    for key, item in used.items():
        own = key == "filter:six"
        assert (item.count, item.setups, item.weight_g) == (1, ("S0", "S1"), 40 if own else None)
        assert item.missing == (0 if own else 1)
    assert [one.count for one in found.values() if one.what == "charger"] == [2]
    assert found["stand"].count == 1
    shoe = packed(file(sun | nds | {"trigger": "shoe"}))
    assert "stand" not in shoe
    assert "charger" not in shoe
    planned = file(sun | nds, {"lights": [{"gel": "quarter_orange"}], "ambient": DARK}, sessions=[{"setup": "s0"}])
    assert packed(planned)["gel:quarter_orange"].setups == ("S1",)


def test_batteries_are_what_the_day_wants_and_one_more_by_their_names() -> None:
    """100 full flashes a charge; 240 frames at full power want three, so four go along."""
    setup = {"lights": [{"dial_stops": 0.0}], "ambient": DARK, "frames": 240}
    job = file(setup, batteries=[{"unit": "Bird", "charges": 2}])
    job = job.model_copy(update={"batteries": ()})
    found = packed(job)
    item = found["battery:Bird"]
    assert (item.count, item.spare, item.missing) == (4, 1, 2)
    assert item.wh == 120
    named = JobFile.model_validate(
        job.model_dump()
        | {"batteries": [{"name": "Old", "fits": "Bird", "holds": 0.5}, {"name": "Red", "fits": "Bird"}]}
    )
    found = packed(named)
    assert [key for key in found if key.startswith("battery:")][:2] == ["battery:Red", "battery:Old"]
    assert [(found[f"battery:{name}"].count, found[f"battery:{name}"].owned) for name in ("Red", "Old")] == [(1, 1)] * 2
    assert found["battery:Red"].spare == 0
    assert sum(item.count for key, item in found.items() if key.startswith("battery:")) >= 4


@pytest.mark.parametrize(
    ("wh", "way"), [(99, "cabin"), (100, "cabin"), (101, "leave"), (160, "leave"), (161, "not"), (None, "unknown")]
)
def test_lithium_travels_by_its_size(wh: float | None, way: str) -> None:
    """IATA DGR: to 100 Wh in the cabin, 100 to 160 Wh two spares with the airline's leave."""
    assert cabin_of(wh) == way


def test_hired_kit_has_its_days_and_the_list_says_what_is_missing() -> None:
    hired = BIRD | {"name": "Hired", "holding": "hire", "price": 40}
    job = file({"lights": [{}], "ambient": DARK}, picked=[{"unit": "Hired"}], brief={"hours": 20, "carriage": "air"})
    assert hire_days(job) == 2
    items = list(packed(job, hired).values())
    ticked = job.job.model_copy(update={"ticked": ("unit:Hired",)})
    said = pack_text(service.PackList(ticked, items, hire_days(job), 0.0), "£", DisplayUnits())
    assert said.hire == ["Hired × 1, 2 days: £80"]
    assert said.sums.startswith(
        "As planned now there go along: 1 unit; 2 batteries with spares, 1 of them not owned; 0."
    )
    assert said.says == f"1 of {len(items)} lines packed."
    assert "airline" in said.cautions[0]
    lithium = next(item for bag in said.bags for item in bag.items if item.travel)
    assert lithium.travel == "120 Wh: in the cabin with the airline's leave, two at the most"
    assert next(bag for bag in said.bags if bag.name == "Light bag").grams == 500


def test_the_list_speaks_of_the_wind_that_the_setups_stand_in() -> None:
    """The brief's outdoors, a setup's own where it has one; indoors there is none."""
    shelf, outside = Shelf([Unit.model_validate(BIRD)]), {"condition": "hazy_sun"}
    for setups, brief, told in (
        ([{"ambient": outside}], 9, "9.0 m/s"), ([{"ambient": DARK}], 9, ""), ([{"ambient": outside}], None, ""),
        ([{"ambient": outside, "stage": {"wind_m_s": 12}}, {"ambient": outside}], 9, "12.0 m/s"),
        ([{"ambient": outside, "stage": {"wind_m_s": 4}}], 9, "4.0 m/s"),
    ):  # fmt: skip
        found = service.pack(file(*setups, brief={"wind_m_s": brief}), shelf, {})
        said = pack_text(found, "£", DisplayUnits()).cautions
        assert [one.partition(":")[0] for one in said if one.startswith("Wind")] == [f"Wind of {told}"] * bool(told)
    feet = pack_text(replace(found, wind_m_s=3.5), "£", DisplayUnits(length="ft")).cautions
    assert feet[-1].startswith("Wind of 11.5 ft/s: a weight for every stand")


TWO = [
    {"role": "key", "channel": 1, "group": "A", "position": {"bearing_deg": 40}},
    {"role": "rim", "channel": 1, "group": "B", "position": {"bearing_deg": 150}},
]


@pytest.mark.parametrize(
    ("more", "lights", "codes"),
    [
        ({"triggers": [{"name": "T", "passes": ["fire"]}]}, TWO, []),
        ({}, [TWO[0] | {"sends": True}, TWO[1] | {"sends": True}], ["two_masters"]),
        ({"triggers": [{"name": "T"}]}, [TWO[0] | {"sends": True}, TWO[1]], ["slave_as_master"]),
        ({"trigger": "optical"}, TWO, ["no_master", "no_sight"]),
        ({"trigger": "optical"}, [TWO[0] | {"sends": True}, TWO[1]], ["no_sight"]),
        ({"trigger": "optical", "ambient": {"condition": "distinct_shadows", "subject": "back"}},
        [TWO[0] | {"sends": True}, TWO[1]], ["drowned"]),
        ({"trigger": "optical"}, [TWO[0] | {"sends": True}, {"role": "background", "distance_m": 12}], ["too_far"]),
        ({}, [TWO[0], TWO[1] | {"on": False}], ["group_off"]),
        ({}, [TWO[0], TWO[1] | {"channel": 2}], ["other_channel"]),
        ({}, [TWO[0], TWO[1] | {"group": "A", "target_stops": -3}], ["one_group"]),
    ],
)  # fmt: skip
def test_the_sheet_catches_what_would_not_fire(
    more: dict[str, Any], lights: list[dict[str, Any]], codes: list[str]
) -> None:
    found = file({"lights": lights, "ambient": DARK} | more)
    solved = solved_on(found.setups[0].setup, day_shelf(found, Shelf([Unit.model_validate(BIRD | {"count": 9})])))
    kind = chosen_method(solved)
    units = units_at(solved, kind, found.job, "s0")
    _, wrong = sheet_of(solved, kind, units)
    assert [one.code for one in wrong] == codes
    text = sheet_text(AsShot(solved, kind, units, "s0"), DisplayUnits())
    assert len(text.wrong) == len(codes)
    assert all("light" in line.lower() for line in text.wrong)


def held(found: JobFile, *stands: dict[str, Any], unit: dict[str, Any] = BIRD) -> dict[str, PackItem]:
    shelf = Shelf([Unit.model_validate(unit)])
    own = [Stand.model_validate(one) for one in stands]
    return {item.key: item for item in pack_of(found, day_plan(found, shelf), {}, stands=own)}


def test_stands_booms_and_weights_are_what_the_set_asks() -> None:
    """D, physics 18: 1.3 kg at 1.5 m asks 3.9 kg at .5 m, 1.95 at 1 m; the stand under the boom bears both."""
    above = {"bearing_deg": 0, "height_m": 2.4, "boom_m": 1.5}
    boomed = {"lights": [{"modifier": OCTA, "position": above}, {"role": "fill"}], "ambient": DARK}
    found = held(file(boomed))
    assert (found["boom"].count, found["boom"].metres, found["boom"].load_kg) == (1, 1.5, 1.3)
    assert (found["counter"].load_kg, found["counter"].setups) == (pytest.approx(3.9), ("S0",))
    assert (found["stand"].count, found["stand"].metres) == (2, 2.4)
    assert found["stand"].load_kg == pytest.approx(1.3 + 3.9)
    long = {"lights": [{"modifier": OCTA, "position": above | {"counter_m": 1.0}}], "ambient": DARK}
    assert held(file(long))["counter"].load_kg == pytest.approx(1.95)
    # Of the shelf: the lightest that is high and strong enough for each, and no stand twice.
    light, strong, tall = (
        {"name": name, "height_m": height, "load_kg": load, "weight_g": grams}
        for name, height, load, grams in (("Light", 2.0, 2, 900), ("Strong", 2.6, 6, 2000), ("Tall", 4.0, 9, 3000))
    )
    arm = {"name": "Arm", "kind": "boom", "height_m": 0, "load_kg": 4, "reach_m": 1.5, "weight_g": 2500}
    there = held(file(boomed), tall, light, strong, arm)
    named = {item.name: (item.count, item.owned) for item in there.values() if item.what in ("stand", "boom")}
    assert named == {"Arm": (1, 1), "Strong": (1, 1), "Light": (1, 1)}
    short = held(file(boomed), light, arm)
    assert (short["stand:Light"].count, short["stand"].count, short["stand"].missing) == (1, 1, 1)


def test_wind_asks_for_sandbags_as_the_setup_does() -> None:
    """The same kilograms as the warning at the light (physics 14: an octa of .9 m at 8 m/s), for each of two heads."""
    face = OCTA | {"face": {"shape": "disc", "width_m": 0.9}}
    windy = {
        "lights": [{"modifier": face, "heads": 2, "position": {"height_m": 2.2}}],
        "stage": {"wind_m_s": 8},
        "ambient": {"condition": "distinct_shadows"},
    }
    found = file(windy)
    solved = solved_on(found.setups[0].setup, Shelf([Unit.model_validate(BIRD)]))
    told = next(one for one in stage_warnings(solved, solved.kinds[0], (0,), ()) if one.code == "wind")
    assert held(found)["ballast"].load_kg == pytest.approx(2 * told.facts["ballast_kg"])
    assert told.facts["ballast_kg"] > 1
    assert "ballast" not in held(file(windy | {"stage": {"wind_m_s": 3}}))


def test_a_light_on_the_camera_has_no_stand_and_a_cord_its_length() -> None:
    """D: camera at 3 m and 1.5 m up, light at 2 m, 60 degrees aside, 2 m up: 1.73 across, 2 along: 2.65 by the floor,
    and 3.5 down and up."""
    shoe = {"trigger": "shoe", "ambient": DARK, "lights": [{"modifier": None}]}
    assert "stand" not in held(file(shoe))
    cord = {"name": "Long cord", "kind": "cord", "passes": ["fire", "automatic", "hss"]}
    aside = {"distance_m": 2, "position": {"bearing_deg": 60, "height_m": 2}}
    off = shoe | {"lights": [aside], "triggers": [cord], "aim": {"lens": {"subject_m": 3}}}
    found = held(file(off))
    assert found["stand"].count == 1
    assert found["trigger:Long cord"].metres == pytest.approx(2.646 + 3.5, abs=0.01)
    master = {"trigger": "optical", "ambient": DARK, "lights": [{"sends": True}, {"role": "fill"}]}
    assert held(file(master))["stand"].count == 1
    by_radio = held(file({"ambient": DARK, "lights": [{"heads": 2}]}))
    assert [(by_radio[key].count, by_radio[key].what) for key in ("transmitter", "receiver")] == [
        (1, "transmitter"),
        (2, "receiver"),
    ]


def test_the_list_says_how_high_how_strong_how_long() -> None:
    above = {"bearing_deg": 0, "height_m": 2.4, "boom_m": 1.5}
    found = file({"lights": [{"modifier": OCTA, "position": above}], "ambient": DARK})
    whole = pack_text(service.PackList(found.job, [*held(found).values()], 1, 0.0), "£", DisplayUnits())
    lines = {item.name: item.detail for bag in whole.bags for item in bag.items}
    assert lines["Light stand"] == "at least 2.4 m high, for 5.2 kg"
    assert lines["Boom"] == "at least 1.5 m of arm, for 1.3 kg"
    assert lines["Counterweight"] == "4 kg in all"
    assert lines["Radio receivers"] == "for heads without a radio of their own"
