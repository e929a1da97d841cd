"""What hands change, what the frame shows of stands and shadows, changes and their prices, measured claims: the small
figures that larger tests pass over."""

import math
from datetime import time
from itertools import pairwise
from typing import Any

import numpy as np
import pytest

from jumpstop.core.kit.rating import rating_of
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.physics.beam import coverage_deg
from jumpstop.core.physics.scales import APERTURES
from jumpstop.core.plan.change.ladder import FEET, METRES, ladder
from jumpstop.core.plan.change.levers import levers
from jumpstop.core.plan.change.moves import Bag, moves_of
from jumpstop.core.plan.change.pocket import pocket_of, share_table
from jumpstop.core.plan.change.ranking import WORK, ChangeCosts, curing
from jumpstop.core.plan.job.changeover import Standing, changes_between
from jumpstop.core.plan.learn.next_reading import candidates_of, landing_of, propose
from jumpstop.core.plan.light.one_unit import with_light
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.plan.stage.above import in_frame, shadow_of
from jumpstop.core.scene.ambient import AmbientSpec
from jumpstop.core.scene.setup import SMALLEST, WIDEST, Setup
from jumpstop.demo import setups
from scenes import BAG, NAMES, NOON, TABLE, at, found, named, scene, unit
from scenes import lit_through as lit

DOWNS = {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"}


def standing(setup: Setup, *units: int) -> Standing:
    solved = solve(setup, TABLE)
    return Standing(solved, solved.kinds[0], units or (NAMES.index("Curlew 400"),) * len(setup.lights))


def codes(before: Setup, after: Setup) -> list[str]:
    return [one.code for one in changes_between(standing(before), standing(after))]


def test_a_zoom_is_told_where_it_changes_and_only_there() -> None:
    near, tele = (with_light(NOON, 0, modifier=None, zoom_mm=zoom) for zoom in (35.0, 105.0))
    assert "zoom" in codes(near, tele)
    assert "zoom" not in codes(tele, tele)
    assert "zoom" not in codes(tele, with_light(tele, 0, zoom_mm=None))


def test_a_light_that_is_off_in_both_does_not_hide_the_next_one() -> None:
    key = NOON.lights[0]
    off, rim = key.model_copy(update={"on": False}), key.model_copy(update={"role": "rim"})
    before = NOON.model_copy(update={"lights": (off, rim)})
    after = NOON.model_copy(update={"lights": (off, rim.model_copy(update={"distance_m": 3.0}))})
    assert "distance" in codes(before, after)


def test_a_shadow_falls_away_from_the_sun_by_its_height() -> None:
    """height / tan(elevation): 2 m under a sun of 45 degrees from the right falls 2 m to the left."""
    setup = scene(at(30)).setup
    shadow = shadow_of(setup, (0.0, 0.0, 2.0), (90.0, 45.0))
    assert shadow is not None
    assert shadow.tip == (pytest.approx(-2.0, abs=0.01), pytest.approx(0.0, abs=0.01))
    long = shadow_of(setup, (0.0, 0.0, 2.0), (90.0, 20.0))
    assert long is not None
    assert long.tip[0] == pytest.approx(-2.0 / math.tan(math.radians(20)), rel=0.01)
    assert shadow_of(setup, (0.0, 0.0, 2.0), None) is None
    # 24 mm from 4 m shows 6 m across, and the ground under the subject: a stand 8 m to the right is out of it
    lens = {"focal_mm": 24, "subject_m": 4, "background_m": 20}
    wide = scene(at(30), aim={"f_number": 8, "lens": lens}).setup
    for metres, shown in ((0.0, True), (4.0, True), (8.0, False)):
        shadow = shadow_of(wide, (metres, 0.0, 2.0), (90.0, 45.0))
        assert shadow is not None
        assert shadow.in_frame is shown


def test_the_frame_shows_what_is_in_it() -> None:
    """85 mm at 2.5 m shows 1.06 m across: half a metre to the side is in, a metre is out, as is what stands behind."""
    lens = {"focal_mm": 85, "subject_m": 2.5, "background_m": 20}
    setup = scene({}, aim={"f_number": 8, "lens": lens}, stage={"camera_height_m": 1.6}).setup
    face = setup.stage.face_m
    assert in_frame(setup, 0.0, 0.0, face)
    assert in_frame(setup, 0.4, 0.0, face)
    assert not in_frame(setup, 1.0, 0.0, face)
    assert not in_frame(setup, -1.0, 0.0, face)
    assert in_frame(setup, -0.4, 0.0, face)
    assert not in_frame(setup, 0.0, 0.0, face - 3)
    assert not in_frame(setup, 0.0, 0.0, face + 3)
    assert not in_frame(setup, 0.0, 0.0, face - 3)


def test_too_bright_is_cured_by_as_many_stops_of_iso_as_it_takes() -> None:
    """2.4 too bright wants three stops: ISO 800 to 100."""
    body = {"name": "B", "iso_min": 50}
    doc = {
        "lights": [{"distance_m": 2}],
        "ambient": {"condition": "dark"},
        "aim": {"f_number": 5.6, "iso": 800},
        "body": body,
    }
    strong = Unit(name="S", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),))
    setup, table = Setup.model_validate(doc), table_of([strong])
    over = float(solve(setup, table).reach("sync").too_bright[0])
    setup = with_light(setup, 0, distance_m=float(f"{2 * 2 ** ((over - 2.4) / 2):.3g}"))
    down = [one.moves[0] for one in curing(levers(setup, 0, "sync", table, 0, Bag(), pairs=False))]
    assert [one.facts["iso"] for one in down if one.code == "iso_down"] == [100]


def test_marked_distances_are_a_stop_apart_as_apertures_are() -> None:
    assert [APERTURES.marked(2 ** (at / 2), "full") for at in range(11)] == list(METRES[2:])
    assert METRES[:2] == (0.5, 0.7)
    steps = [far / near for near, far in pairwise(FEET)]
    assert all(1.3 <= step <= 1.5 for step in steps)  # rounded to what is painted on lenses: 1.41, more or less


def test_the_ladder_has_a_rung_beyond_each_end() -> None:
    """From the nearest distance at which the dial goes low enough to the farthest it reaches, and one more each way."""
    plain = Unit(name="P", claims=(Claim(guide_number=40, unit="m", zoom_mm=35),), scale={"lowest": 1 / 16})
    setup = Setup.model_validate({"lights": [{}], "ambient": {"condition": "dark"}, "aim": {"f_number": 8}})
    table = table_of([plain])
    _, rungs = ladder(setup, table, "sync", 0, "third", feet=False)
    marks = [rung.mark for rung in rungs]
    holds = [
        rung.landings[0] is not None and rung.landings[0].spare >= 0 and rung.landings[0].too_bright <= 0
        for rung in rungs
    ]
    assert holds == [False, *[True] * (len(holds) - 2), False]
    first = METRES.index(marks[0])
    assert marks == list(METRES[first : first + len(marks)])
    # GN 40 at f/8 is 5 m; at 1/16 it is 1.25 m (marked f/8 is exact).
    assert marks[1] == 1.4
    assert marks[-2] == 4.0


def test_a_measured_claim_moves_the_makers_curve_at_its_own_coverage() -> None:
    """Read 0.5 stop under the maker's figure at 105 mm: so much is taken at 35 mm too."""
    claims = [Claim(guide_number=40, unit="m", zoom_mm=35), Claim(guide_number=60, unit="m", zoom_mm=105)]
    read = Claim(guide_number=60 * 2**-0.25, unit="m", zoom_mm=105, measured=True)
    said, known = rating_of(Unit(name="U", claims=tuple(claims))), rating_of(Unit(name="U", claims=(*claims, read)))
    for zoom in (35, 105):
        angle = float(coverage_deg(zoom))
        assert known.at(angle)[0] - said.at(angle)[0] == pytest.approx(-0.5, abs=1e-6)
    assert known.at(float(coverage_deg(35)))[1] == pytest.approx(0.1)


def test_the_price_of_a_change() -> None:
    """Noise counts where there is more of it; what it weighs and costs by the kilogram and by five hundred."""
    free = ChangeCosts(0, 0, 0, 0, 0, 0, 0, 0, 0, 0)
    assert free.look == 0
    assert ChangeCosts(0, 0, 0, 1, 0, 0, 0, 0, 0, 0).look == pytest.approx(0.4)
    assert ChangeCosts(0, 0, 0, -2, 0, 0, 0, 0, 0, 0).look == 0
    assert ChangeCosts(-1, 0, 0, 0, 0, 0, 0, 0, 0, 0).look == pytest.approx(1.0)
    assert ChangeCosts(1, 0.5, -1, 0, 0, 0, 0, 0, 0, 0.3).look == pytest.approx(0.2 + 0.5 + 0.5 + 0.3)
    assert min(WORK.values()) > 0
    one, two = ChangeCosts(0.5, 1, 2, 3, 4, 0.5, 100, 50, 1, 0.3), ChangeCosts(0.25, 1, 2, 3, 6, 0.25, 200, 70, 2, 0.3)
    assert one.with_more(two) == ChangeCosts(
        0.75, 1, 2, 3, 6, 0.5, 300, 120, 3, 0.3
    )  # what the setup gives up counts once
    heavy = ChangeCosts(0, 0, 0, 0, 0, 0, 2000, 500, 1, 0)
    assert [heavy.price(keep) for keep in ("look", "light", "quick")] == [4, 10, 6]


def test_another_unit_costs_what_it_costs_more() -> None:
    """With a price of 300 and 900 g against 100 and 400 g; what has no price costs nothing, for each of two heads."""
    weak, strong = ((Claim(guide_number=guide, unit="m", zoom_mm=35),) for guide in (40, 60))
    units = [
        Unit(name="Own", claims=weak, price=100, weight_g=400),
        Unit(name="Dear", claims=strong, price=300, weight_g=900, holding="hire"),
        Unit(name="Given", claims=strong, holding="hire"),
    ]
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 4}}
    for heads in (1, 2):
        setup = Setup.model_validate(dark | {"lights": [{"distance_m": 2, "heads": heads, "role": "rim"}]})
        singles = levers(setup, 0, "sync", table_of(units), 0, BAG).singles
        costs = {one.moves[0].facts["name"]: one.costs for one in singles if one.moves[0].code == "unit"}
        assert [costs[name].money for name in ("Dear", "Given")] == [200 * heads, -100 * heads]
        assert costs["Dear"].grams == 500 * heads


def test_an_aperture_is_offered_by_a_third_a_stop_and_two_each_way() -> None:
    any_lens = NOON.model_copy(update={"lens": None})
    singles = found(any_lens, "Curlew 400").singles
    wide = sorted(one.moves[0].facts["f_number"] for one in named(singles, "wider"))
    small = sorted(one.moves[0].facts["f_number"] for one in named(singles, "stop_down"))
    assert wide == [1.4, 2.0, 2.5]  # from f/2.8
    assert small == [3.2, 4.0, 5.6]
    on = sorted(one.moves[0].facts["f_number"] for one in named(found(NOON, "Curlew 400").singles, "wider"))
    assert on == [2.0, 2.5]  # the 85 mm that is on opens to f/1.8


def test_no_background_is_offered_that_a_setup_could_not_hold() -> None:
    """By half a stop and a stop each way, but not beyond eight stops under or four over."""
    for now, offered in ((-1.0, [-2.0, -1.5, -0.5, 0.0]), (3.5, [2.5, 3.0, 4.0]), (-7.5, [-8.0, -7.0, -6.5])):
        setup = NOON.model_copy(update={"aim": NOON.aim.model_copy(update={"background_stops": now})})
        method = solve(setup, TABLE).methods[0]
        moves = moves_of(setup, 0, method.kind, method, TABLE.units[0], BAG)
        wanted = [move.facts["stops"] for move in moves if move.code in ("background_up", "background_down")]
        assert sorted(wanted) == offered
        isos = [move for move in moves if move.code in ("iso_up", "iso_down")]
        assert isos
        assert all((move.facts["iso"] > method.camera.iso) == (move.code == "iso_up") for move in isos)


@pytest.mark.parametrize(
    ("clock", "offered"),
    [(time(11, 40), [(9, 40), (10, 40), (12, 40), (13, 40)]), (time(22, 30), [(20, 30), (21, 30), (23, 30)])],
)
def test_hours_are_offered_within_the_day_and_to_the_minute(clock: time, offered: list[tuple[int, int]]) -> None:
    spec = AmbientSpec.model_validate({"by": "sun", "clock": clock, "day": "2026-06-24", "place": DOWNS})
    setup = NOON.model_copy(update={"ambient": spec})
    method = solve(NOON, TABLE).methods[0]
    moves = moves_of(setup, 0, method.kind, method, TABLE.units[0], BAG)
    assert [(at.hour, at.minute) for at in (m.facts["clock"] for m in moves if m.code == "hour")] == offered


@pytest.mark.parametrize(("now", "offered"), [(1.0, [1.1, 1.4, 2.0]), (22.0, [11.0, 16.0, 20.0])])
def test_no_aperture_is_offered_that_no_lens_has(now: float, offered: list[float]) -> None:
    aim = NOON.aim.model_copy(update={"f_number": now, "by": "aperture"})
    setup = NOON.model_copy(update={"aim": aim, "lens": None})
    method = solve(setup, TABLE).methods[0]
    moves = moves_of(setup, 0, method.kind, method, TABLE.units[0], BAG)
    found = sorted(move.facts["f_number"] for move in moves if move.code in ("wider", "stop_down"))
    assert [one for one in found if one in offered] == offered
    assert now not in found
    assert all(WIDEST <= one <= SMALLEST for one in found)


def test_every_two_changes_of_a_light_that_go_together_are_tried() -> None:
    """Coming closer and taking the gel off; and the layer off with either."""
    gelled = with_light(NOON, 0, gel="half_orange")
    pairs = {frozenset(move.code for move in one.moves) for one in found(gelled, "Curlew 400", pairs=True).pairs}
    assert {
        frozenset({"gel_off", "heads"}),
        frozenset({"closer", "gel_off"}),
        frozenset({"layer_off", "gel_off"}),
        frozenset({"closer", "layer_off"}),
    } <= pairs


def test_no_more_is_proposed_than_is_asked_for() -> None:
    table = table_of([unit("A", 50), unit("B", 50)])
    reaches = [lit({"name": f"Box {at}", "stops": -1.3}, table, at, 0.1) for at in (0, 1)]
    both = [(landing_of(reach, at, at, 0), reach) for at, reach in enumerate(reaches)]
    landings, candidates = [landing for landing, _ in both], candidates_of(both, [0, 1])
    assert [len(propose(landings, candidates, table, most)) for most in (0, 1, 2)] == [0, 1, 2]
    assert propose([], candidates, table) == propose(landings, [], table) == []
    assert {one.candidate.unit for one in propose(landings, candidates, table)} == {0, 1}


# The tables that answer without the program


def told(setup: Setup, name: str) -> tuple[Solved, Any]:
    solved = solve(setup, TABLE)
    kind = solved.kinds[0]
    return solved, pocket_of(solved, kind, (NAMES.index(name),) * len(setup.lights), "third", False)


def test_a_pockets_light_is_what_the_chain_says_and_moves_by_the_marks() -> None:
    """Spare = flash - need; a distance moves it by the inverse square, an aperture by its stops."""
    solved, pocket = told(next(one for one in setups() if one.name == "Prize table"), "Curlew 400")
    light, unit_at = pocket.lights[0], NAMES.index("Curlew 400")
    reach = solved.reach(pocket.kind, 0)
    need = light.wanted + share_at(pocket.lit - light.wanted)
    assert light.flash + light.clips[pocket.shutter] - need == pytest.approx(float(reach.spare[unit_at]), abs=0.01)
    assert light.dial_stops == pytest.approx(float(reach.below_full[unit_at]))
    by = {mark.value: mark.stops for mark in light.distances}
    assert by[4.0] - by[2.0] == pytest.approx(-2.0, abs=1e-9)
    assert light.distances[light.distance].stops == 0
    assert by[solved.setup.lights[0].distance_m] == 0
    assert [mark.stops for mark in pocket.nds] == [pocket.nds[pocket.nd].value - mark.value for mark in pocket.nds]
    assert light.most == pytest.approx(float(TABLE.dial_range[unit_at]))
    assert solved.method(pocket.kind).lit == 1  # the whole frame has flash
    off = with_light(solved.setup, 0, on=False)
    assert not told(off.model_copy(update={"lights": (*off.lights, *solved.setup.lights)}), "Curlew 400")[1].lights[1:]
    feet = pocket_of(solved, pocket.kind, (unit_at,), "third", True).lights[0].distances
    assert {round(mark.value, 4) for mark in feet} >= {0.4572, 2.4384}  # 1.5 and 8 feet
    ambient, ev = solved.ambient, solved.method(pocket.kind).camera.ev
    assert (pocket.lit, pocket.background) == pytest.approx((ambient.lit_ev - ev, ambient.background_ev - ev))


def share_at(level: float) -> float:
    return max(-6.0, math.log2(1 - 2**level)) if level < 0 else -6.0


def test_the_share_table_is_the_sum_of_lights() -> None:
    """2^flash + 2^ambient = 2^wanted, in steps of a 48th from eight stops under; never more help than six stops."""
    table = share_table()
    assert len(table) == 8 * 48
    for level in (-3, -1, -0.5):
        assert table[round((level + 8) * 48)] == pytest.approx(math.log2(1 - 2**level), abs=1e-4)
    assert min(table) == -6.0
    assert np.all(np.diff(table) <= 0)


def test_a_frozen_setup_keeps_to_the_dial_that_is_short_enough() -> None:
    chalk = next(one for one in setups() if one.name == "Chalk line")
    solved = solve(chalk, TABLE)
    assert "freeze" in solved.kinds
    at_unit = next(
        at for at in np.flatnonzero(solved.reach("freeze").able).tolist() if solved.reach("freeze").below_full[at] > 0
    )
    light = pocket_of(solved, "freeze", (at_unit,), "third", False).lights[0]
    assert light.least > 0
    assert light.least <= light.dial_stops <= light.most + 1e-9
    assert BAG.modifiers
