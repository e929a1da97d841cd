"""What is needed without a unit: against the handbook's figures, and against what coverage says of every unit."""

import math
import random
from typing import Any

import numpy as np
import pytest

from jumpstop import service
from jumpstop.core.kit.kinds import KIT_MODELS
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.learn.printed import efficacy_lm_w
from jumpstop.core.plan.need.of_job import AskedUnit, request_of, wanted_of
from jumpstop.core.plan.need.of_light import need_of, solved_need
from jumpstop.core.scene.job import JobFile
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from jumpstop.typical import typical, typical_shelf
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.need import needs_text, request_text
from scenes import setup_of

SHELF = Shelf([Unit.model_validate(one) for one in kit()["units"]])
DARK: dict[str, Any] = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8, "iso": 100}}


def need(doc: dict[str, Any], kind: Any = "sync") -> Any:
    return need_of(solved_need(Setup.model_validate(DARK | doc)), kind, 0)


@pytest.mark.parametrize(
    ("iso", "layers", "guide", "energy", "beam"),
    [(100, None, 24, None, 1440), (400, None, 12, None, 360), (100, -1.3, 37.66, 100, 3546)],
)
def test_the_need_is_n_times_d_with_what_stands_between(
    iso: float, layers: float | None, guide: float, energy: float | None, beam: float
) -> None:
    """D, physics 19: f/8 at 3 m; 1.3 stops of layers; energy by 35 lm/W into 65 degrees."""
    light: dict[str, Any] = {"distance_m": 3}
    if layers is not None:
        light["modifier"] = {"name": "Cloth", "stops": layers}
    found = need({"aim": {"f_number": 8, "iso": iso}, "lights": [light]})
    assert found.guide_number == pytest.approx(guide, rel=2e-3)
    assert found.candela_seconds == pytest.approx(beam, rel=4e-3)
    if energy is not None:
        assert found.watt_seconds == pytest.approx(energy, rel=0.02)


def test_all_that_stands_between_is_asked_for() -> None:
    """D: three stops of ND in daylight are three more; HSS is said with what is left there."""
    sun = {"ambient": {"condition": "distinct_shadows", "subject": "back"},
    "aim": {"f_number": 2.8, "background_stops": -1},
           "lights": [{"distance_m": 1.8}]}  # fmt: skip
    solved = solved_need(Setup.model_validate(sun))
    hss = need_of(solved, "hss", 0)
    assert hss is not None
    assert hss.hss_shutter_s is not None
    travel, shutter = 1 / 250, hss.hss_shutter_s  # as marked: P, physics 5
    assert hss.hss_stops == pytest.approx(math.log2((travel + shutter) / shutter) + 0.5, abs=0.05)
    assert hss.guide_number_in_hss == pytest.approx(hss.guide_number * 2 ** (-hss.hss_stops / 2))
    assert set(np.flatnonzero(hss.usable(SHELF.table))) == set(np.flatnonzero(SHELF.table.has_hss))


def drawn(seed: int) -> Setup:
    """A picture of some kind; its lights through what may stand before them, bare, or zoomed, of one head or two."""
    dice, doc = random.Random(seed), setup_of(seed).model_dump(mode="json")
    for light in doc["lights"]:
        light |= {
            "unit": None,
            "modifier": dice.choice([None, None, *kit()["modifiers"]]),
            "heads": dice.choice([1, 1, 2]),
            "fits_anyway": dice.random() < 0.2,
        }
        light["zoom_mm"] = dice.choice([None, 24, 70, 200])
    return Setup.model_validate(doc)


@pytest.mark.parametrize("setup", [*setups(), *map(drawn, range(40))], ids=lambda setup: setup.name)
def test_a_unit_fulfils_a_need_just_where_coverage_says_that_it_reaches(setup: Setup) -> None:
    """On the mean, for every method, light and unit of the demo; what is in hand is the same figure."""
    asked, real = solved_need(setup), solved_on(setup, SHELF)
    seen = 0
    for kind in real.kinds:
        for light in range(len(setup.lights)):
            found, reach = need_of(asked, kind, light), real.reach(kind, light)
            if found is None:
                assert not reach.able.any()
                continue
            able = reach.able
            assert found.in_hand(real.table)[able] == pytest.approx(reach.spare[able], abs=1e-6)
            assert list(found.fulfilled_by(real.table)) == list(able & (reach.spare >= 0))
            seen += 1
    assert seen


def job(*docs: dict[str, Any]) -> JobFile:
    made = [{"id": f"s{at}", "setup": {"name": f"S{at}"} | DARK | doc} for at, doc in enumerate(docs)]
    sessions = [{"setup": one["id"], "people": 10, "frames_each": 20, "tests": 0} for one in made]
    return JobFile.model_validate({"job": {"name": "J", "sessions": sessions}, "setups": made})


def asked(*docs: dict[str, Any]) -> list[AskedUnit]:
    return request_of(wanted_of(job(*docs)), typical_shelf().table)


def test_a_request_has_the_fewest_units_and_each_gives_all_that_it_serves() -> None:
    """The strongest light of each setup by the first unit, the next by the second; heads count apart."""
    one = {"lights": [{"distance_m": 2}]}
    two = {"lights": [{"distance_m": 3}, {"role": "rim", "distance_m": 2}]}
    heads = {"lights": [{"distance_m": 2, "heads": 3}]}
    assert [len(one.lights) for one in asked(one, two)] == [2, 1]
    assert asked(one, two)[0].stops == pytest.approx(2 * math.log2(24), abs=0.01)  # D: f/8 at 3 m
    assert len(asked(one, two, heads)) == 3
    (single,) = asked(one)
    assert (single.flashes, single.every_s) == (200, 3.0)  # 10 people, 20 frames; a frame each three seconds
    for minutes, every in ((5, 15.0), (90, 270.0), (0.02, 0.1)):
        file = job(one)
        timed = [session.model_copy(update={"minutes_each": minutes}) for session in file.job.sessions]
        file = file.model_copy(update={"job": file.job.model_copy(update={"sessions": tuple(timed)})})
        (light,) = wanted_of(file)[0]
        assert light.every_s == pytest.approx(every)


def test_what_no_one_class_can_do_is_asked_of_two() -> None:
    """An extender for a shoe flash, and 40 metres of guide number behind a dish that fits studio heads alone."""
    extender = {"name": "Ext", "kind": "extender", "stops": 2, "fits": ["shoe"], "needs_zoom_head": True}
    dish = {"name": "Dish", "kind": "dish", "stops": -1.2, "fits": ["monobloc", "pack"]}
    far = {"lights": [{"distance_m": 6, "modifier": extender, "zoom_mm": 105}]}
    near = {"lights": [{"distance_m": 3, "modifier": dish}]}
    found = asked(far, near)
    assert sorted([sorted(one.fits or ()) for one in found]) == [["monobloc", "pack"], ["shoe"]]
    for one in found:
        assert one.fulfilled_by(typical_shelf().table)


def test_a_unit_that_serves_several_lights_must_fit_all_their_modifiers() -> None:
    """Two dishes that fit kinds of their own and one in common; and two that have none in common, past any class."""

    def dish(*fits: str) -> dict[str, Any]:
        return {
            "lights": [{"distance_m": 2, "modifier": {"name": "Dish", "kind": "dish", "stops": -1, "fits": [*fits]}}]
        }

    (both,) = asked(dish("monobloc", "pack"), dish("monobloc", "shoe"), {"lights": [{"distance_m": 2}]})
    assert both.fits == {"monobloc"}
    beyond = [
        one | {"aim": {"f_number": 64, "iso": 100}} for one in (dish("monobloc", "pack"), dish("pack"), dish("shoe"))
    ]
    found = asked(*beyond)  # none of the classes gives so much: by what the modifiers fit
    assert [one.fits for one in found] == [{"pack"}, {"shoe"}]
    assert [len(one.lights) for one in found] == [2, 1]
    assert [len(one.lights) for one in asked(beyond[1], dish("pack"))] == [2]


def test_what_is_asked_of_a_bare_head_is_told_by_its_zoom_position() -> None:
    """D: f/8 at 6 and at 3 m zoomed to 105 mm, the stronger counts; at 2 m to 35 mm; nothing at its own reflector."""
    (one,) = asked(
        *({"lights": [{"distance_m": metres, "zoom_mm": zoom}]} for metres, zoom in ((6, 105), (3, 105), (2, 35)))
    )
    assert one.zoomed == {
        105: pytest.approx(2 * math.log2(48), abs=1e-3),
        35: pytest.approx(2 * math.log2(16), abs=1e-3),
    }
    assert (one.stops, one.least_stops) == (-math.inf, math.inf)


def test_the_hardest_of_what_a_unit_is_asked_is_told() -> None:
    """D: of two movers the quicker asks for the shorter flash; of two in HSS the farther for more there."""
    moving = {"lights": [{"distance_m": 2}], "method": "freeze"}
    quick, slow = (
        moving | {"motion": {"kind": "freeze", "mover": mover, "field_width_m": 2}} for mover in ("thrown", "leap")
    )
    sun = {"ambient": {"condition": "distinct_shadows", "subject": "back"}, "aim": {"f_number": 2.8}, "method": "hss"}
    near, far = (sun | {"lights": [{"distance_m": metres}]} for metres in (1, 2))
    for some in ((slow, quick, near, far), (far, near, quick, slow)):
        needs = [light.need for one in asked(*some) for light in one.lights]
        (one,) = asked(*some)
        assert one.shortest is not None
        assert one.hardest_hss is not None
        times = [need.t01_s for need in needs if need.t01_s]
        assert one.shortest.t01_s == min(times) < max(times)
        assert (one.hardest_hss.kind, one.hardest_hss.asks.distance_m) == ("hss", 2)


def test_every_class_named_for_a_request_serves_it() -> None:
    named = {unit.name: unit for unit in typical_shelf().units}
    file = job({"lights": [{"distance_m": 3}]}, {"lights": [{"distance_m": 5}, {"role": "rim", "distance_m": 2}]})
    found = request_text("J", service.request(file, typical_shelf()), typical_shelf().table, DisplayUnits())
    assert "2 units would do" in found.says
    assert all(one.typical in named for one in found.units)
    assert "S1, key" in found.text
    assert "at least GN 40 m" in found.text  # D: f/8 at 5 m


def test_no_flash_is_asked_for_where_the_ambient_is_enough() -> None:
    bright = {"ambient": {"condition": "distinct_shadows"}, "aim": {"f_number": 4, "background_stops": 0},
              "lights": [{"distance_m": 2}]}  # fmt: skip
    setup = Setup.model_validate(bright)
    solved, chosen = service.need(setup)
    says = needs_text(solved, 0, chosen, typical_shelf().table, DisplayUnits()).says
    assert ("no flash" in says) == (solved.reach(chosen, 0).ambient_alone is not None)


def test_typical_kit_lies_within_the_spread_of_the_handbook() -> None:
    """Physics 4's table of modifiers, 20's efficacy of 15 to 50 lm/W where the beam is wide; as many as asked for."""
    assert [len(typical(kind)) >= most for kind, most in zip(KIT_MODELS, (15, 30, 8, 6, 4, 5, 4, 6), strict=True)] == [
        True
    ] * 8
    table = {"umbrella_white_105": -1.7, "umbrella_silver_105": -1.2, "shoot_105": -2.0, "dish_white": -1.2,
    "dome": -1.5,
             "deep_reflector": 1.2, "extender": 2.0, "octa_90": -1.3, "box_90": -2.2, "strip_120": -2.4}  # fmt: skip
    own = {one.key: one.doc for one in typical("modifiers")}
    for key, stops in table.items():
        on = sum(layer.stops for layer in own[key].layers if layer.usually_on)
        assert own[key].stops + on == pytest.approx(stops, abs=0.11), key
    for one in typical("units"):
        assert one.doc.typical
        wide = [claim for claim in one.doc.claims if (claim.zoom_mm or 35) <= 50]
        for claim in wide:
            assert 15 <= efficacy_lm_w(claim, one.doc.watt_seconds) <= 50, one.key
    for kind in KIT_MODELS:
        keys, names = [one.key for one in typical(kind)], [one.doc.name for one in typical(kind)]
        assert len(set(keys)) == len(set(names)) == len(keys)
