"""Figures that are fixed, and what is worked out from them."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.kit.values import LEAST_DISTANCE_M
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.camera.fixed import method_of, methods_of
from jumpstop.core.plan.camera.methods import Method
from jumpstop.core.plan.camera.targets import fill_for_ratio, start_compensation, wanted_levels
from jumpstop.core.plan.change.ladder import ladder, variants
from jumpstop.core.plan.change.levers import levers
from jumpstop.core.plan.change.moves import Bag, done
from jumpstop.core.plan.change.ranking import Lever, curing, gaining
from jumpstop.core.plan.job.worked_out import solved_on, with_copies, with_distances
from jumpstop.core.plan.light.advice import advised_method, costs_for
from jumpstop.core.plan.light.levels import levels, ratio_of
from jumpstop.core.plan.light.one_unit import landing, with_light
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.scene.ambient import AmbientSpec
from jumpstop.core.scene.begin import Where, begun
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup

GN36 = Unit(name="GN 36", claims=(Claim(guide_number=36, unit="m", zoom_mm=35),), hss=Hss())
ND3 = {"name": "Three", "stops": 3}
READ = {"f_number": 8, "shutter_s": 1 / 2000, "iso": 100, "needle_stops": -2}


def two_under(**more: object) -> Setup:
    """f/8, ISO 100, the needle at -2 on 1/2000; the background two under is wanted."""
    return Setup.model_validate(
        {
            "ambient": {"by": "reading", "readings": [READ], "subject": "sun"},
            "aim": {"f_number": 8, "background_stops": -2},
            "filters": [ND3],
        }
        | more
    )


def possible(of: Solved) -> dict[str, Method]:
    return {method.kind: method for method in of.methods if method.possible}


def why_not(setup: Setup, kind: str) -> str:
    method = next(one for one in solve(setup, table_of([GN36])).methods if one.kind == kind)
    return "" if method.blocker is None else method.blocker.code


def test_three_ways_to_one_background() -> None:
    """D: EV 14.97 (15 by exact values), two under: 1/2000, or 1/250 behind three stops; the picture is the same."""
    free = solve(two_under(), table_of([GN36]))
    assert {method.off_stops for method in free.methods if not method.possible} == {0.0}
    assert free.ambient.background_ev == pytest.approx(14.97, abs=0.04)
    synced = possible(solve(two_under(fixed={"shutter_s": 1 / 250}), table_of([GN36])))
    assert synced["nd"].camera.nd_stops == 3
    assert "hss" not in synced
    fast = solve(two_under(fixed={"shutter_s": 1 / 2000, "nd": {}}), table_of([GN36]))
    assert list(possible(fast)) == ["hss"]
    assert advised_method(fast) == "hss"
    for method in (possible(free)["nd"], synced["nd"], possible(fast)["hss"]):
        assert method.off_stops == pytest.approx(0, abs=0.01)


def test_all_fixed_says_what_comes_out() -> None:
    """D: f/8, 1/250, ISO 100 and no filter where 1/2000 is two under: one over, three brighter than wanted."""
    fixed = {"aperture": True, "iso": True, "shutter_s": 1 / 250, "nd": {}}
    found = possible(solve(two_under(fixed=fixed), table_of([GN36])))
    assert list(found) == ["sync"]
    assert found["sync"].off_stops == pytest.approx(3)
    dark = possible(solve(two_under(fixed=fixed | {"shutter_s": 1 / 8000}), table_of([GN36])))
    assert dark["hss"].off_stops == pytest.approx(-2)


def test_what_is_free_is_worked_out_in_order() -> None:
    """Shutter fixed: ND; no ND: ISO within the body; ISO fixed too: the aperture closes."""
    fast = {"shutter_s": 1 / 1000, "nd": {}}
    body = {"name": "B", "iso_min": 50}
    by_iso = possible(solve(two_under(fixed=fast, body=body), table_of([GN36])))["hss"].camera
    assert (by_iso.iso, by_iso.f_number) == (50, 8)
    by_aperture = possible(solve(two_under(fixed=fast | {"iso": True}), table_of([GN36])))["hss"].camera
    assert (by_aperture.iso, by_aperture.f_number) == (100, 11)
    for more, cost in (({"body": body}, "iso_worked_out"), ({}, "aperture_worked_out")):
        fixed = fast | ({} if more else {"iso": True})
        costs = possible(solve(two_under(fixed=fixed, **more), table_of([GN36])))["hss"].costs
        assert {"iso_worked_out", "aperture_worked_out"} & {one.code for one in costs} == {cost}
    four = {"name": "Four", "stops": 4}
    long = possible(solve(two_under(filters=[four], fixed={"nd": {"filters": ["Four"], "stops": 4}}), table_of([GN36])))
    assert (long["nd"].camera.shutter_s, long["nd"].camera.nd_stops) == (1 / 125, 4)  # 2000 / 16
    synced = {"shutter_s": 1 / 125, "iso": True, "nd": {"filters": ["Three"], "stops": 3}}
    nd = possible(solve(two_under(fixed=synced), table_of([GN36])))["nd"].camera
    assert (nd.nd_stops, nd.f_number) == (3, 11)  # a stop slower behind the same filter
    up = possible(solve(two_under(fixed={"shutter_s": 1 / 4000, "nd": {}}), table_of([GN36])))["hss"].camera
    assert up.iso == 200
    past = possible(solve(two_under(fixed={"shutter_s": 1 / 500, "nd": {}}), table_of([GN36])))["past_sync"].camera
    assert (past.iso, past.f_number) == (100, 16)  # two stops over past sync, too: the aperture takes them
    dim = {
        "ambient": {"condition": "office"},
        "aim": {"f_number": 8, "background_stops": 0},
        "body": {"name": "B", "iso_max": 1600},
    }
    kept = possible(solve(Setup.model_validate(dim | {"fixed": {"shutter_s": 1 / 500}}), table_of([GN36])))["past_sync"]
    assert (kept.camera.iso, kept.camera.f_number) == (1600, 8)  # too dark: the aperture is not opened
    assert kept.off_stops == pytest.approx(-3.5, abs=0.1)  # EV 7.5 against f/8, 1/500 at ISO 1600: EV 11
    off = {"ambient": {"condition": "dark"}, "body": {"name": "B", "iso_max": 51200}, "fixed": {"shutter_s": 1 / 160}}
    lamps_off = possible(solve(Setup.model_validate(dim | off), table_of([GN36])))
    assert {one.camera.iso for one in lamps_off.values()} == {100}  # EV -3: no ISO brings that back
    behind = {"shutter_s": 1 / 500, "nd": {"filters": ["Three"], "stops": 3}}
    assert possible(solve(two_under(fixed=behind), table_of([GN36])))["hss"].camera.iso == 200


@pytest.mark.parametrize(
    ("fixed", "kind", "code"),
    [
        ({"shutter_s": 1 / 8000}, "hss", "shutter_beyond"),
        ({"iso": True}, "sync", "iso_beyond"),
        ({"nd": {"filters": ["Lost"], "stops": 3}}, "nd", "nd_not_packed"),
        ({"nd": {"filters": ["Three"], "stops": 5}}, "nd", "nd_turn_beyond"),
        ({"shutter_s": 1 / 1000}, "sync", "fixed_past_sync"),
        ({"shutter_s": 1 / 1000}, "stop_down", "fixed_past_sync"),
        ({"shutter_s": 1 / 125}, "hss", "hss_not_needed"),
        ({"shutter_s": 1 / 125}, "slow", "fixed_too_fast_for_slow"),
        ({"shutter_s": 1 / 125}, "past_sync", "past_sync_not_needed"),
        ({"aperture": True}, "stop_down", "aperture_fixed"),
        ({"nd": {}}, "nd", "nd_fixed_off"),
        ({"nd": {"filters": ["Three"], "stops": 3}}, "sync", "nd_fixed_on"),
        ({"shutter_s": 1 / 125, "nd": {"filters": ["Three"], "stops": 3}}, "sync", "nd_fixed_on"),
        ({"background": True, "shutter_s": 1 / 125, "aperture": True, "iso": True, "nd": {}}, "sync",
        "background_missed"),
    ],
)  # fmt: skip
def test_a_figure_that_cannot_be_says_so(fixed: dict[str, object], kind: str, code: str) -> None:
    body = {"name": "B", "top_speed_s": 1 / 4000, "iso_min": 200 if code == "iso_beyond" else 100}
    assert why_not(two_under(fixed=fixed, body=body), kind) == code


BUILT_IN = Unit(name="Built in", kind="built_in", claims=(Claim(guide_number=7, unit="m", zoom_mm=35, sd=0),))
LEAF = {"name": "Leaf", "shutter": "leaf", "sync_s": 1 / 4000, "top_speed_s": 1 / 4000}


def test_the_weak_flash_on_a_leaf_body() -> None:
    """D: 2 log2(7 / (2 x 1.2)) + log2 6.4 - 4 = 1.77 (1.755 by the exact ISO); half the ISO, a stop less. ISO and
    shutter up together give it back, with the same background."""

    def at(shutter_s: float, iso: float) -> Setup:
        nd = {"filters": ["Four"], "stops": 4}
        fixed = {"aperture": True, "iso": True, "shutter_s": shutter_s, "nd": nd}
        light = {"role": "fill", "target_stops": 0, "distance_m": 1.2}
        return Setup.model_validate(
            {"aim": {"f_number": 2, "iso": iso}, "body": LEAF, "lights": [light], "fixed": fixed}
            | {"filters": [{"name": "Four", "stops": 4}], "ambient": {"condition": "dark"}}
        )  # fmt: skip

    table = table_of([BUILT_IN])
    assert solve(at(1 / 2000, 640), table).reach("leaf").spare[0] == pytest.approx(1.77, abs=0.02)
    slow = at(1 / 1000, 320)
    assert solve(slow, table).reach("leaf").spare[0] == pytest.approx(0.77, abs=0.02)
    offered = levers(slow, 0, "leaf", table, 0, Bag())
    (together,) = offered.unfixing
    assert together.moves[0].facts == {"iso": 640, "shutter_s": 1 / 2000}
    assert together.gain == pytest.approx(1.0, abs=0.01)
    assert "iso_and_shutter" not in {one.moves[0].code for one in offered.singles}
    now, then = (landing(s, table, "leaf", 0, "third") for s in (slow, done(slow, 0, together.moves, {})))
    assert now is not None
    assert then is not None
    assert then.off_stops == pytest.approx(now.off_stops)


def test_nd_against_hss_for_one_unit() -> None:
    """D: 1/1000 on a 1/250 body costs 2.32, with an extra of 0.5 2.82; two stops of ND 2.0: ND is ahead by 0.82."""
    setup = Setup.model_validate(
        {
            "ambient": {"by": "reading", "readings": [{"f_number": 8, "shutter_s": 1 / 1000}], "subject": "sun"},
            "aim": {"f_number": 8, "background_stops": 0}, "filters": [{"name": "Two", "stops": 2}],
            "lights": [{"role": "fill", "target_stops": 0}],
        }
    )  # fmt: skip
    costs = costs_for(solve(setup, table_of([GN36])), 0, 0)
    assert costs["hss"].difference == pytest.approx(-0.82, abs=0.01)
    assert costs["hss"].best in ("nd", "stop_down")


def test_sides_and_ratio() -> None:
    """physics 11: sun 0, shadow side -2, fill -1.5: lit +0.44, shadow -0.73, 2.24 : 1; 3 : 1 asks fill -1.0."""
    spec = {"by": "reading", "subject": "sun", "shadow_stops": -2}
    readings = [{"f_number": 8, "shutter_s": 1 / 250, "of": of} for of in ("background", "subject")]
    light = {"role": "fill", "target_stops": -1.5, "distance_m": 2}
    setup = Setup.model_validate(
        {"ambient": spec | {"readings": readings}, "aim": {"f_number": 8, "background_stops": 0}, "lights": [light]}
    )
    exact = solve(setup, table_of([GN36]))
    given = float(exact.spare[0, 0, 0]) - float(exact.below_full[0, 0, 0])  # what its dial leaves of thirds
    found = levels(exact, "sync", (0,))
    fill = -1.5 + given
    lit, shadow = math.log2(1 + 2**fill), math.log2(0.25 + 2**fill)
    assert [level.total for level in found[:2]] == pytest.approx([lit, shadow], abs=0.01)
    assert ratio_of(found) == pytest.approx(2 ** (lit - shadow), abs=0.01)
    for ratio, fill in ((2, 0), (3, -1.0), (4, -1.58), (8, -2.81)):
        assert fill_for_ratio(ratio, 0, -40) == pytest.approx(fill, abs=0.01)
    assert fill_for_ratio(2.24, 0, -2) == pytest.approx(-1.5, abs=0.02)
    assert fill_for_ratio(8, 0, -2) == -math.inf  # four to one already
    assert fill_for_ratio(2, 0, -40, both=False) == pytest.approx(-1)


def test_a_ratio_asked_for_comes_out() -> None:
    lights = [{"role": "key", "distance_m": 2}, {"role": "fill", "distance_m": 2}]
    dark = {"condition": "dark"}
    setup = Setup.model_validate({"ambient": dark, "aim": {"f_number": 4, "ratio": 3}, "lights": lights})
    reach = solve(setup, table_of([GN36])).reach("sync", 1)
    assert reach.wanted_stops == pytest.approx(-1, abs=0.01)
    for key in (0.0, -1.0):
        rim: dict[str, object] = {"role": "rim", "relative": "key", "target_stops": 0.5}
        for relative, counted in (("key", key + 0.5), ("correct", 0.5)):
            doc = {"ambient": dark, "lights": [lights[0] | {"target_stops": key}, rim | {"relative": relative}]}
            assert solve(Setup.model_validate(doc), table_of([GN36])).reach("sync", 1).wanted_stops == counted


def test_a_fill_gives_what_the_ambient_alone_leaves_to_the_ratio() -> None:
    """D: lit 0, shadow -4: (1 + f) / (1/16 + f) = 3 for f = .406, -1.30; a stop darker set both are a stop up, -0.30. A
    key wanted at 1 lies over a lit side of 0: (2 + f) / (1/16 + f) = 3 for f = .906."""
    sides = replace(ambient_of(AmbientSpec()), lit_ev=12.0, shadow_ev=8.0)
    fill = Setup.model_validate({"lights": [{"role": "fill"}], "aim": {"ratio": 3}})
    assert wanted_levels(fill, sides, (12.0, 11.0)) == pytest.approx(np.array([[-1.30], [-0.30]]), abs=0.005)
    lights = [{"role": "rim", "target_stops": 0.5}, {"role": "key", "target_stops": 1}, {"role": "fill"}]
    both = Setup.model_validate({"lights": lights, "aim": {"ratio": 3}})
    assert wanted_levels(both, sides, (12.0,)) == pytest.approx(np.array([[0.5, 1, math.log2(0.90625)]]), abs=0.005)
    related = [{"role": "rim", "relative": "key", "target_stops": -1}, {"role": "key", "target_stops": 1}]
    assert wanted_levels(Setup.model_validate({"lights": related}), sides, (12.0,)).tolist() == [[0, 1]]


def test_automatic_flash_starts_from_role_and_distance() -> None:
    """physics 11 (common practice): key 0; fill in sun -1 to -1.7; wildlife -1.7 to -3; nearer means more minus."""
    sun = AmbientSpec(condition="distinct_shadows")
    assert start_compensation(Light(role="key"), sun) == 0
    near, far = (start_compensation(Light(role="fill", distance_m=d), sun) for d in (1, 6))
    assert (near, far) == (-1.7, -1.0)
    wild = [start_compensation(Light(role="fill", distance_m=d), sun, 500) for d in (4, 10, 25)]
    assert wild == [-3.0, pytest.approx(-2.35, abs=0.05), -1.7]
    assert start_compensation(Light(role="fill"), AmbientSpec(condition="office")) == -1
    setup = Setup.model_validate({"lights": [{"role": "fill", "automatic": True, "distance_m": 1}]})
    assert solve(setup, table_of([GN36])).reach("nd" if setup.filters else "hss").wanted_stops == -1.7


LAYERED = {"name": "Box", "stops": -0.4, "layers": [{"name": "inner", "stops": -0.9}, {"name": "outer", "stops": -0.9}]}


def test_the_distance_ladder() -> None:
    """physics 14: GN 36, -2.2, f/5.6, ISO 100: 1 m 3.14 below full, 2 m 1.14, 2.8 m 0.17, 4 m short by 0.86."""
    light = {"role": "fill", "target_stops": 0, "modifier": LAYERED}
    setup = Setup.model_validate({"ambient": {"condition": "dark"}, "aim": {"f_number": 5.6}, "lights": [light]})
    table = table_of([GN36])
    columns, rungs = ladder(setup, table, "sync", 0, "third", False)
    spare = {rung.mark: [one.spare for one in rung.landings if one] for rung in rungs}
    for mark, stops in ((1, 3.14), (1.4, 2.17), (2, 1.14), (2.8, 0.17), (4, -0.86)):
        assert spare[mark][0] == pytest.approx(stops, abs=0.01)
        assert spare[mark][1] - spare[mark][0] == pytest.approx(0.9)
    assert [one.off for one in columns] == [(), ("outer",), ("outer", "inner")]
    assert (rungs[-1].mark, spare[5.6][-1]) == (5.6, pytest.approx(3.14 + 1.8 - 2 * math.log2(5.6), abs=0.01))
    assert [rung.metres for rung in ladder(setup, table, "sync", 0, "third", True)[1]][:2] == [
        pytest.approx(1.5 * 0.3048, abs=1e-4), pytest.approx(2 * 0.3048, abs=1e-4)
    ]  # fmt: skip
    assert variants(Light()) == (columns[0],)


def cures(setup: Setup, table: UnitTable) -> list[Lever]:
    return curing(levers(setup, 0, "sync", table, 0, Bag(), pairs=False))


def named(found: list[Lever], code: str) -> list[dict[str, Any]]:
    return [dict(one.moves[0].facts) for one in found if one.moves[0].code == code]


def test_cures_cure() -> None:
    """Every cure that is told is tried: the unit then reaches, or its dial goes low enough."""
    light = {"role": "fill", "target_stops": 0, "distance_m": 4, "modifier": LAYERED}
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 5.6}, "filters": [ND3]}
    table = table_of([GN36])
    short = Setup.model_validate(dark | {"lights": [light]})
    found = cures(short, table)
    assert {"layer_off", "closer", "bare"} <= {one.moves[0].code for one in found}
    assert [one.gain for one in found if one.moves[0].code == "layer_off"] == pytest.approx([0.9, 0.9])
    assert all(one.spare >= -0.05 for one in found)
    bright = Setup.model_validate(dark | {"lights": [light | {"distance_m": 0.2, "modifier": None}]})
    down = cures(bright, table)
    assert {"stop_down", "farther", "nd_on"} <= {one.moves[0].code for one in down}
    for one in down:
        kind = one.moves[0].method or "sync"
        again = landing(done(bright, 0, one.moves, {}), table, kind, 0, "third")
        assert again is not None
        assert (again.too_bright, again.spare) == (0, pytest.approx(one.spare))
    empty = LAYERED | {"layers": [*LAYERED["layers"], {"name": "empty frame", "stops": 0}]}  # type: ignore[misc]
    framed = Setup.model_validate(dark | {"lights": [light | {"modifier": empty}]})
    offered = gaining(levers(framed, 0, "sync", table, 0, Bag()))
    assert "empty frame" not in [one.moves[0].facts.get("layer") for one in offered]  # it brings nothing
    assert cures(with_light(short, 0, distance_m=1.0), table) == []
    hot = light | {"distance_m": 0.57, "layers": []}  # 2.6 stops too much at the lowest setting
    kept = Setup.model_validate(
        dark | {"lights": [hot], "fixed": {"aperture": True}, "aim": {"f_number": 5.6, "iso": 800}}
    )
    on = kept.lights[0].model_copy(update={"distance_m": 0.8, "layers": ("outer",)})
    layered = cures(kept.model_copy(update={"lights": (on,)}), table)
    assert named(layered, "layer_on") == [{"layer": "inner"}]  # the outer one is on
    tamed = cures(kept, table)
    excess = landing(kept, table, "sync", 0, "third")
    assert excess is not None
    (just,) = [one["metres"] for one in named(tamed, "farther") if one["metres"] < 2 * 0.57 * math.sqrt(2)]
    assert 0 <= 2 * math.log2(just / 0.57) - excess.too_bright < 0.1  # inverse square, to a tenth of a stop
    assert {"iso": 100, "by": -3} in named(tamed, "iso_down")  # three whole stops
    assert not named(tamed, "layer_on")  # a layer takes only .9
    assert {"stops": 3} in named(tamed, "nd_on")  # no filter is on at sync: with one it is the method with ND
    assert not named(cures(kept.model_copy(update={"method": "sync"}), table), "nd_on")
    stopped = {"aim": {"f_number": 64}, "fixed": {"iso": True}, "lights": [light | {"distance_m": 2}]}
    far = Setup.model_validate(dark | stopped)  # 5.9 stops short: 0.26 m would do, nearer than any light is put
    nearest = cures(far, table)
    assert [one.gain for one in nearest] == sorted((one.gain for one in nearest), reverse=True)
    assert nearest[-1].gain > 0.02  # what brings nothing is not among it


def test_a_landing_is_that_of_the_first_unit() -> None:
    of = two_under(lights=[{"role": "fill", "target_stops": 0, "distance_m": 3}])
    alone = landing(of, table_of([GN36]), "nd", 0, "third")
    assert alone == landing(
        of, table_of([GN36, GN36.model_copy(update={"name": "Twice", "watt_seconds": 900})]), "nd", 0, "third"
    )
    strong = Unit(name="Strong", claims=(Claim(guide_number=120, unit="m", zoom_mm=35),))
    assert alone == landing(of, table_of([GN36, strong]), "nd", 0, "third")


def test_iso_goes_up_with_the_shutter_where_that_is_fixed() -> None:
    """A stop and a half short: two whole stops of ISO, and a time two stops shorter, so that the background stays."""
    lamps = {"condition": "dark", "lamps_lux": 1280}  # EV 9: as wanted, a stop under f/5.6, 1/30 at ISO 100
    doc = {"ambient": lamps, "aim": {"f_number": 5.6, "iso": 100}, "fixed": {"shutter_s": 1 / 30, "background": True}}
    light = {"role": "fill", "target_stops": 0, "distance_m": 36 / 5.657 * 2 ** (1.5 / 2)}
    found = cures(Setup.model_validate(doc | {"lights": [light]}), table_of([GN36]))
    assert named(found, "iso_and_shutter") == [{"iso": 400, "shutter_s": 1 / 125}]
    far = Setup.model_validate(doc | {"lights": [light | {"distance_m": 36 / 5.657 * 2 ** (3.2 / 2)}], "fixed": {}})
    assert {"count": 10} in named(cures(far, table_of([GN36])), "heads")  # 2^3.2 = 9.2
    free = Setup.model_validate(doc | {"lights": [light], "fixed": {}})
    assert named(cures(free, table_of([GN36])), "iso_up") == [{"iso": 400, "by": 2}]
    for highest, offered in ((200, []), (400, [400])):  # what the body has, to its end and no further
        kept = Setup.model_validate(doc | {"lights": [light], "fixed": {}, "body": {"name": "B", "iso_max": highest}})
        assert [one["iso"] for one in named(cures(kept, table_of([GN36])), "iso_up")] == offered


@pytest.mark.parametrize("more", [{}, {"silent": True}, {"fixed": {"iso": True}}, {"fixed": {"shutter_s": 1 / 1000}}])
def test_one_method_is_as_it_is_among_all(more: dict[str, object]) -> None:
    of = two_under(**more)
    there = ambient_of(of.ambient)
    for method in methods_of(of, there):
        assert method_of(of, there, "third", method.kind) == method


def test_a_leaf_that_is_fixed_too_fast() -> None:
    slow = {"name": "Leaf", "shutter": "leaf", "sync_s": 1 / 500, "top_speed_s": 1 / 2000}
    leaf = solve(two_under(fixed={"shutter_s": 1 / 1000}, body=slow), table_of([GN36])).method("leaf")
    assert leaf.blocker is not None
    assert (leaf.blocker.code, leaf.blocker.facts) == ("fixed_past_leaf", {"shutter_s": 1 / 1000, "limit_s": 1 / 500})
    assert solve(two_under(fixed={"shutter_s": 1 / 250, "nd": {"filters": ["Three"], "stops": 3}}, body=slow),
                 table_of([GN36])).method("leaf").possible  # fmt: skip


def taken(setup: Setup, **light: object) -> Setup:
    own = GN36.model_dump() | {"id": "mine"}
    return Setup.model_validate(setup.model_dump() | {"lights": [setup.lights[0].model_dump() | {"unit": own} | light]})


def shelf() -> UnitTable:
    strong = Unit(name="Strong", claims=(Claim(guide_number=90, unit="m", zoom_mm=35),), weight_g=1, hss=Hss())
    return table_of([strong, GN36], ids=["strong", "mine"])


def test_a_dial_that_is_fixed_and_a_distance_worked_out() -> None:
    """physics 14: with the dial at p the landing is that at full power + log2 p; the distance that makes it right."""
    light = {"role": "fill", "target_stops": 0, "distance_m": 2}
    dark = Setup.model_validate({"ambient": {"condition": "dark"}, "aim": {"f_number": 5.6}, "lights": [light]})
    reach = solve(taken(dark, dial_stops=1), shelf()).reach("sync")
    assert reach.taken == 1
    full = 2 * math.log2(36 / 2) - 5
    assert reach.left[1] == pytest.approx(full - 1, abs=0.01)
    assert reach.below_full[1] == pytest.approx(1)
    placed = with_distances(taken(dark, dial_stops=1, distance_free=True), shelf(), "third")
    metres = placed.lights[0].distance_m
    assert metres == pytest.approx(36 / 2**0.5 / 2**2.5, rel=0.01)  # D: GN / N at half power
    assert solve(placed, shelf()).reach("sync").left[1] == pytest.approx(0, abs=0.02)
    assert with_distances(taken(dark, dial_stops=1), shelf(), "third").lights[0].distance_m == 2
    still, free = (taken(dark, **more).lights[0] for more in ({}, {"dial_stops": 1, "distance_free": True}))
    both = with_distances(dark.model_copy(update={"lights": (still, free)}), shelf(), "third")
    assert both.lights[1].distance_m == pytest.approx(metres, rel=0.01)  # the second, beside one that stays
    gone = free.model_copy(update={"unit": free.unit and free.unit.model_copy(update={"id": "gone", "name": "Gone"})})
    beside = with_distances(dark.model_copy(update={"lights": (gone, free)}), shelf(), "third")
    assert beside.lights[0].distance_m == 2
    assert beside.lights[1].distance_m == pytest.approx(metres, rel=0.01)


@pytest.mark.parametrize("face", [{"width_m": 1.5}, {"width_m": 1.2, "height_m": 0.9, "shape": "rectangle"}])
@pytest.mark.parametrize(("stops", "f"), [(6, 4), (6, 5.6), (6, 8), (4, 11), (3, 11), (1, 22)])
def test_a_free_distance_beside_a_big_face(face: dict[str, Any], stops: float, f: float) -> None:
    """Solved where it is put, the light is what is wanted, near the face too; where it cannot be, it stands at once."""
    dark = Setup.model_validate({"ambient": {"condition": "dark"}, "aim": {"f_number": f}})
    soft = {"modifier": {"name": "Big", "stops": -1, "face": face}, "dial_stops": stops, "distance_free": True}
    placed = with_distances(taken(dark, **soft), shelf(), "third")
    left = float(solve(placed, shelf()).reach("sync").left[1])
    metres = placed.lights[0].distance_m
    assert left == pytest.approx(0, abs=0.03) or (metres == LEAST_DISTANCE_M and left < 0)


def test_a_unit_that_left_the_shelf_is_still_there_by_its_copy() -> None:
    alone = Shelf([Unit(name="Other", watt_seconds=100)], ids=["other"])
    setup = taken(Setup())
    wider = with_copies(alone, [setup])
    assert wider.ids == ("other", "mine")
    assert with_copies(wider, [setup]) is wider
    assert solved_on(setup, alone).taken == solve(setup, wider.table).taken == (1,)
    assert solve(setup, alone.table).taken == (None,)
    unit = setup.lights[0].unit
    assert unit is not None
    other = taken(Setup(), unit=unit.model_dump() | {"weight_g": 77.0})
    assert with_copies(wider, [other]).ids == wider.ids
    assert solved_on(other, wider).table.weight_g[1] == 77  # each is solved with its own copy


def test_the_method_is_chosen_for_the_unit_that_is_taken() -> None:
    """The strong unit would reach in HSS as in ND; the weak one that is taken only where less is lost."""
    noon = two_under(lights=[{"role": "fill", "target_stops": 0, "distance_m": 1.6}])
    found = solve(taken(noon), shelf())
    assert advised_method(found) == "nd"
    none = taken(noon, unit=GN36.model_copy(update={"hss": None}).model_dump() | {"id": "mine"})
    assert solve(none, shelf()).reach("hss").taken == 1


def test_a_modifier_fits_kinds_of_unit_unless_a_person_says_so() -> None:
    dish = {"name": "Dish", "fits": ["monobloc", "pack"]}
    for light, code in (({"modifier": dish}, "does_not_fit"), ({"modifier": dish, "fits_anyway": True}, "")):
        reach = solve(Setup.model_validate({"lights": [light]}), table_of([GN36])).reach("hss")
        from jumpstop.core.plan.light.reach import BLOCKERS

        assert BLOCKERS[int(reach.blocker[0])] == code


@settings(max_examples=60, deadline=None)
@given(
    f_number=st.sampled_from([1.4, 2.8, 4.0, 5.6, 8.0]),
    condition=st.sampled_from(["distinct_shadows", "hazy_sun", "open_shade", "office", "interior_night", "dark"]),
    background=st.sampled_from([-2.0, -1.0, -0.33, 0.0, 1.0]),
    subject=st.sampled_from(["sun", "back", "shade"]),
    iso=st.sampled_from([100.0, 200.0, 640.0]),
    distance=st.floats(0.7, 6),
)
@example(f_number=8.0, condition="distinct_shadows", background=-0.33, subject="sun", iso=100.0, distance=6.0)
def test_fixing_what_was_worked_out_changes_nothing(
    f_number: float, condition: str, background: float, subject: str, iso: float, distance: float
) -> None:
    """Whatever came out, fixed as it came out, comes out again: settings, landing, dial."""
    setup = Setup.model_validate(
        {
            "ambient": {"condition": condition, "subject": subject},
            "aim": {"f_number": f_number, "background_stops": background, "iso": iso},
            "filters": [ND3, {"name": "Turn", "stops": 2, "most_stops": 5}],
            "lights": [{"distance_m": round(distance, 2)}],
        }
    )
    free = solve(taken(setup), shelf())
    if not free.kinds:
        return
    kind = advised_method(free)
    camera, reach = free.method(kind).camera, free.reach(kind)
    nd = {"filters": list(camera.nd_names), "stops": camera.nd_stops}
    fixed = {"aperture": True, "iso": True, "shutter_s": camera.shutter_s, "nd": nd}
    aim = setup.aim.model_dump() | {"f_number": camera.f_number, "iso": camera.iso}
    again = Setup.model_validate(
        taken(setup, dial_stops=float(reach.below_full[1])).model_dump() | {"fixed": fixed, "aim": aim}
    )
    then = solve(again, shelf())
    method = then.method(advised_method(then))
    assert (method.camera.f_number, method.camera.shutter_s, method.camera.iso, method.camera.nd_stops) == (
        camera.f_number, camera.shutter_s, camera.iso, camera.nd_stops
    )  # fmt: skip
    assert method.off_stops == pytest.approx(free.method(kind).off_stops)
    landed = then.reach(method.kind)
    assert landed.spare[1] == pytest.approx(reach.spare[1])
    assert landed.below_full[1] == pytest.approx(reach.below_full[1])


CUT = FlashDuration(table=(DurationEntry(power=1, seconds=1 / 250), DurationEntry(power=1 / 128, seconds=1 / 20000)))


@pytest.mark.parametrize("frozen", [False, True])
@pytest.mark.parametrize("condition", ["dark", "office", "open_shade", "distinct_shadows"])
def test_at_the_dial_the_face_comes_to_what_was_wanted(condition: str, frozen: bool) -> None:
    """Flash and ambient together give the level asked for, within half a step of the dial, whatever a short flash or
    a slow tail takes: 2^flash + 2^ambient = 2^target (physics 6)."""
    motion = {"kind": "freeze", "field_width_m": 3} if frozen else {}
    lights = [{"role": "key", "target_stops": -0.5, "distance_m": 1.5}]
    setup = Setup.model_validate(
        {"ambient": {"condition": condition, "subject": "back"}, "filters": [ND3], "motion": motion, "lights": lights}
        | {"aim": {"f_number": 5.6, "background_stops": -2}}
    )
    unit = Unit(name="Cut", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),), hss=Hss(), flash_duration=CUT)
    found = solve(setup, table_of([unit]))
    seen = 0
    for kind in found.kinds:
        reach = found.reach(kind)
        if reach.verdict[0] != "reaches" or reach.below_full[0] == 0:
            continue
        seen += 1
        lit = levels(found, kind, (0,))[0]
        assert lit.total == pytest.approx(-0.5, abs=float(found.table.step[0]) / 2 + 0.01), kind
        assert reach.off_stops[0] == pytest.approx(lit.total + 0.5)
        assert math.log2(2 ** lit.lights[0] + 2**lit.ambient) == pytest.approx(lit.total)
    assert seen


def test_a_fixed_dial_is_judged_with_the_ambient() -> None:
    """physics 6: flash a stop over what the ambient at -1 leaves it brings the face 0.58 over, not 1."""
    lit = {"by": "reading", "readings": [{"f_number": 8, "shutter_s": 1 / 125, "of": "subject"}]}  # EV 13 on the face
    camera = {"fixed": {"aperture": True, "iso": True, "shutter_s": 1 / 250, "nd": {}}, "aim": {"f_number": 8}}
    light = {"role": "key", "distance_m": 2}
    dim = Setup.model_validate({"ambient": lit, "lights": [light]} | camera)
    free = solve(taken(dim), shelf())
    kind = advised_method(free)
    reach = free.reach(kind)
    assert reach.ambient_stops == pytest.approx(-1, abs=0.02)
    assert reach.ambient_alone is None
    flash = 2 * math.log2(36 / 2) - 6 - 1  # at half power
    there = solve(taken(dim, dial_stops=1), shelf()).reach(kind)
    assert there.off_stops[1] == pytest.approx(math.log2(2**flash + 2**-1), abs=0.02)
    bright = Setup.model_validate({"ambient": lit, "lights": [light]} | camera | {"aim": {"f_number": 5.6, "iso": 200}})
    over = solve(taken(bright), shelf())
    assert over.reach(advised_method(over)).ambient_alone == pytest.approx(1, abs=0.02)


@pytest.mark.parametrize(
    ("where", "figures"),
    [("sun", (4, -1, 100)), ("shade", (2.8, -1, 100)), ("indoors", (4, -1, 400)), ("dark", (5.6, 0, 200))],
)
def test_a_setup_begins_as_a_likely_picture(where: Where, figures: tuple[float, ...]) -> None:
    """Aperture, background, ISO of each place: common practice, no source. Body and bag are those used last."""
    aim = begun(where, None).aim
    assert (aim.f_number, aim.background_stops, aim.iso) == figures
    last = Setup.model_validate({"filters": [ND3], "body": {"name": "Slow", "iso_min": 640, "iso_max": 1600}})
    again = begun(where, last)
    assert (again.body.name, again.filters[0].name, again.aim.iso) == ("Slow", "Three", 640)


def test_the_aperture_closes_for_a_bright_background_and_never_opens_for_a_dark_one() -> None:
    """Shutter, ISO and ND fixed: a background too bright is brought down by the aperture; one too dark stays so."""
    fixed = {"fixed": {"iso": True, "shutter_s": 1 / 250, "nd": {}}}
    bright = possible(solve(two_under(**fixed, aim={"f_number": 4, "background_stops": -2}), table_of([GN36])))
    assert bright["stop_down"].camera.f_number == 22  # EV 15 two under: f/22 at 1/250 and ISO 100 (EV 17)
    dark = possible(solve(two_under(**fixed, aim={"f_number": 32, "background_stops": -2}), table_of([GN36])))
    assert all(method.camera.f_number == 32 for method in dark.values())
