"""The link from camera to flash, and batteries each by its name."""

from typing import Any

import pytest

from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.trigger import Battery
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.light.advice import chosen_method
from jumpstop.core.plan.light.link import Break, breaks_of
from jumpstop.core.plan.light.reach import BLOCKERS
from jumpstop.core.plan.stage.commands import commands
from jumpstop.core.scene.job import JobFile
from jumpstop.core.scene.setup import Setup

PLAIN = Unit(name="Plain", watt_seconds=60, shoe="plain")
RADIO = {"name": "Radio", "kind": "transmitter", "passes": ["fire", "power", "hss"]}
DEAF = {"name": "Old receiver", "kind": "receiver", "passes": ["fire"]}
CORD = {"name": "Cord", "kind": "cord", "passes": ["fire", "automatic", "hss"]}


def setup(*links: dict[str, Any], shoe: str = "", automatic: bool = False) -> Setup:
    lights = [{"automatic": automatic}]
    return Setup.model_validate({"body": {"name": "B", "shoe": shoe}, "triggers": links, "lights": lights})


@pytest.mark.parametrize(
    ("links", "shoe", "automatic", "kind", "broken"),
    [
        ((), "", True, "hss", []),  # nothing packed: nothing is known
        ((RADIO,), "", False, "hss", []),
        ((RADIO, DEAF), "", False, "hss", [Break("hss", "Old receiver")]),
        ((RADIO, DEAF), "", False, "nd", []),  # at sync it only has to fire
        ((RADIO,), "", True, "sync", [Break("automatic", "Radio")]),
        ((CORD,), "plain", True, "hss", []),
        ((CORD,), "Plain", True, "hss", []),  # the same shoe however it is written
        ((CORD,), "other", True, "hss", [Break("automatic", ""), Break("hss", "")]),  # foreign shoes: it fires, no more
        ((CORD | {"from_shoe": "other", "to_shoe": "plain"},), "other", True, "hss", []),  # an adapter between them
        ((CORD | {"from_shoe": "third"},), "other", False, "hss", [Break("hss", "")]),
        ((CORD | {"passes": []},), "plain", False, "sync", [Break("fire", "Cord")]),
        ((RADIO,), "other", False, "hss", []),  # by radio the flash's own shoe does not matter
    ],
)
def test_what_gets_through(links: Any, shoe: str, automatic: bool, kind: Any, broken: list[Break]) -> None:
    assert breaks_of(setup(*links, shoe=shoe, automatic=automatic), 0, PLAIN, kind) == broken


def test_batteries_by_name_hold_what_they_hold() -> None:
    """D: 100 full flashes a charge, one every 36 s: the good set lasts an hour, the old one 0.6 of it (less 1 % an hour
    for idling); a number said outright counts before those that are on the shelf."""
    unit = Unit.model_validate(
        {"name": "One", "claims": [Claim(guide_number=60, unit="m", zoom_mm=35)],
         "power_supplies": [{"kind": "aa", "name": "four cells", "recycle_full_s": 2, "full_flashes": 100}]}
    )  # fmt: skip
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": [{"distance_m": 3, "dial_stops": 0.0}]}
    session = {"setup": "s", "people": 4, "frames_each": 100, "minutes_each": 60, "tests": 0, "change_min": 0}
    job = {"name": "A", "sessions": [session]}
    old = Battery(name="old", fits="Four Cells", holds=0.6)
    mine = [old, Battery(name="new", fits="One"), Battery(name="foreign", fits="Another")]

    def lasts(**more: Any) -> Any:
        doc = {"job": job | more, "setups": [{"id": "s", "setup": dark}], "batteries": [b.model_dump() for b in mine]}
        return day_plan(JobFile.model_validate(doc), Shelf([unit]), ways=False).units[0]

    one = lasts()
    assert one.sizes == (1.0, 0.6)
    assert one.swaps[0].at == pytest.approx(540 + 60 / 1.01, abs=0.01)
    assert one.gives_out == pytest.approx(540 + 96 / 1.01, abs=0.01)
    assert lasts(batteries=[{"unit": "One", "charges": 3}]).sizes == (1.0, 1.0, 1.0)
    # A charger brings the old one back no fuller than it can be: 0.6 of a charge each second time.
    charged = lasts(chargers=1, charge_h=0.2)
    assert charged.gives_out is None
    gaps = [round(b.at - a.at) for a, b in zip(charged.swaps, charged.swaps[1:], strict=False)]
    assert gaps[:3] == [36, 59, 36]


def test_a_battery_is_given_out_once() -> None:
    """Two units that take the same sets: the first takes what its day wants, the other what is left."""
    both = [
        Unit.model_validate(
            {"name": name, "claims": [Claim(guide_number=60, unit="m", zoom_mm=35)], "weight_g": grams,
             "power_supplies": [{"kind": "aa", "name": "four cells", "recycle_full_s": 2, "full_flashes": 100}]}
        )
        for name, grams in (("One", 300), ("Other", 400))
    ]  # fmt: skip
    lights = [{"distance_m": 3, "dial_stops": 0.0, "unit": one.model_dump()} for one in both]
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": lights}
    session = {"setup": "s", "people": 1, "frames_each": 150, "minutes_each": 60, "tests": 0, "change_min": 0}
    sets = [{"name": f"Set {at}", "fits": "four cells", "holds": holds} for at, holds in enumerate((1.0, 0.9, 0.8))]
    doc = {"job": {"name": "A", "sessions": [session]}, "setups": [{"id": "s", "setup": dark}], "batteries": sets}
    first, second = day_plan(JobFile.model_validate(doc), Shelf(both), ways=False).units
    assert first.sizes == (1.0, 0.9)
    assert second.sizes == (0.8,)
    assert first.gives_out is None
    assert second.gives_out is not None


HEAD = Unit.model_validate(
    {"name": "Head", "kind": "monobloc", "claims": [{"guide_number": 70, "unit": "m", "zoom_mm": 35}], "hss": {}}
)
FLASH = Unit.model_validate(
    {"name": "Flash", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}], "hss": {}, "own_radio": False}
)
SUN = {
    "ambient": {"condition": "distinct_shadows", "subject": "back"},
    "aim": {"f_number": 2.8, "background_stops": -1},
}


def solved_for(*units: Unit, **more: Any) -> Any:
    return solved_on(Setup.model_validate(SUN | more), Shelf(list(units)))


def test_what_passes_no_hss_is_not_advised_hss() -> None:
    """The same picture: by HSS with the radio that passes it, by another method with the receiver that does not."""
    good, bad = (solved_for(FLASH, triggers=links) for links in ([RADIO], [RADIO, DEAF]))
    assert good.reach("hss").able[0]
    assert chosen_method(good) == "hss"
    assert BLOCKERS[int(bad.reach("hss").blocker[0])] == "link_stops_hss"
    assert chosen_method(bad) != "hss"
    other = solved_for(FLASH.model_copy(update={"shoe": "other"}), triggers=[CORD], body={"name": "B", "shoe": "plain"})
    assert BLOCKERS[int(other.reach("hss").blocker[0])] == "link_stops_hss"


def test_a_shoe_holds_no_three_kilo_head() -> None:
    """On the shoe, and on a cord between shoes; a plain sync cord fires it, and so does radio."""
    for more, able in (
        ({"trigger": "shoe"}, [False, True]),
        ({"trigger": "shoe", "triggers": [CORD]}, [False, True]),
        ({"trigger": "shoe", "triggers": [{"name": "Sync cord", "kind": "cord", "passes": ["fire"]}]}, [True, True]),
        ({"trigger": "radio"}, [True, True]),
        ({"trigger": "optical", "lights": [{"sends": True}]}, [False, True]),
    ):
        found = solved_for(HEAD, FLASH, ambient={"condition": "dark"}, **more)
        assert found.reach("sync").able.tolist() == able, more


def test_who_commands_is_said_at_the_light() -> None:
    def told(*units: Unit, **more: Any) -> list[str]:
        found = solved_for(*(units or (FLASH,)), ambient={"condition": "office"}, **more)
        places = tuple(0 for _ in found.setup.lights)
        return [one.code for one in commands(found, places)]

    two = [{"sends": True}, {"role": "fill", "sends": True}]
    assert told(lights=two, trigger="optical") == ["two_masters"]
    second = solved_for(FLASH, lights=[{}, *two], trigger="optical", ambient={"condition": "office"})
    twice = next(one for one in commands(second, (0, 0, 0)) if one.code == "two_masters")
    assert (twice.facts["first"], twice.facts["light"]) == (1, 2)
    assert "slave_as_master" in told(lights=[{"sends": True}], triggers=[RADIO, {"name": "R", "kind": "receiver"}])
    assert told(trigger="optical", lights=[{}]) == ["no_master"]
    mixed = [{"sends": True, "automatic": True}, {"role": "fill"}]
    assert told(trigger="optical", lights=mixed) == ["preflash"]
    assert told(triggers=[RADIO], lights=[{}]) == ["no_receiver"]
    assert told(triggers=[RADIO, {"name": "R", "kind": "receiver"}], lights=[{}]) == []
    assert told(FLASH.model_copy(update={"own_radio": True}), triggers=[RADIO], lights=[{}]) == []
    assert told(FLASH.model_copy(update={"own_radio": None}), triggers=[RADIO], lights=[{}]) == []  # not known
    behind = [{"sends": True}, {"role": "rim", "position": {"bearing_deg": 150}}]
    assert told(trigger="optical", lights=behind) == ["no_sight"]
