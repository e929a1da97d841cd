"""The pack list and the channel sheet: counts by hand, spares by their stated rule, clashes caught."""

from typing import Any

import pytest

from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.job.channels import sheet_of
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.job.packing import Item, cabin_of, hire_days, pack_of
from jumpstop.core.plan.job.schedule import day_shelf, units_at
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.light.advice import chosen_method
from jumpstop.core.scene.job import JobFile
from jumpstop.words.channels import sheet_text
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.pack import pack_text

BIRD = {
    "name": "Bird", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}], "weight_g": 500, "hss": {},
    "power_supplies": [{"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100, "capacity_wh": 120, "weight_g": 90}],
}  # fmt: skip
OCTA = {"id": "octa", "name": "Octa", "kind": "octa", "stops": -1.3, "weight_g": 800}
DARK = {"condition": "dark"}


def file(*setups: dict[str, Any], **job: Any) -> JobFile:
    docs = [{"id": f"s{at}", "setup": {"name": f"S{at}"} | setup} for at, setup in enumerate(setups)]
    return JobFile.model_validate({"job": {"name": "J"} | job, "setups": docs})


def packed(found: JobFile, *units: dict[str, Any], known: dict[str, frozenset[str]] | None = None) -> dict[str, Item]:
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
    assert found["charger"].count == 2
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
        | {"batteries": [{"name": "Red", "fits": "Bird"}, {"name": "Old", "fits": "Bird", "holds": 0.5}]}
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
    said = pack_text(items, job.job.model_copy(update={"ticked": ("unit:Hired",)}), hire_days(job), "£")
    assert said.hire == ["Hired × 1, 2 days: £80"]
    assert said.sums.startswith(
        "As planned now there go along: 1 unit; 2 batteries with spares, 1 of them not owned; 0."
    )
    assert said.says == f"1 of {len(items)} lines packed."
    assert "airline" in said.cautions[0]
    lithium = next(item for bag in said.bags for item in bag.items if item.travel)
    assert lithium.travel == "120 Wh: in the cabin with the airline's leave, two at the most"
    assert next(bag for bag in said.bags if bag.name == "Light bag").grams == 500


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
        ({"trigger": "optical", "ambient": {"condition": "distinct_shadows", "subject": "back"}}, [TWO[0] | {"sends": True}, TWO[1]], ["drowned"]),
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
    units = units_at(solved, kind, found.job)
    _, wrong = sheet_of(solved, kind, units)
    assert [one.code for one in wrong] == codes
    text = sheet_text(solved, kind, units, "s0", DisplayUnits())
    assert len(text.wrong) == len(codes)
    assert all("light" in line.lower() for line in text.wrong)
