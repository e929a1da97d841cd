"""Lights in their places: sides, groups, bounce, aim, stands; and several lights that add up."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import dblquad

from jumpstop.core.kit.table import table_of
from jumpstop.core.physics import beam, falloff, group, placing, sides, stand
from jumpstop.core.physics.daylight import shadow_m
from jumpstop.core.plan.light.levels import ratio_of
from jumpstop.core.plan.light.placing import placing_of
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.setup import Setup
from scenes import STRONG, at, lit, scene


@pytest.mark.parametrize(
    ("bearing", "near", "far", "edge"),
    [(0, 1, 1, 0), (20, 1, math.tan(math.radians(25)), 0), (45, 1, 0, 0), (75, math.cos(math.radians(30)), 0, 0),
     (90, math.sqrt(0.5), 0, 1), (-135, 0, 0, 1), (180, 0, 0, 1), (-75, math.cos(math.radians(30)), 0, 0),
     (405, 1, 0, 0)],
)  # fmt: skip
def test_shares_of_the_sides(bearing: float, near: float, far: float, edge: float) -> None:
    """physics 11, from memory: nearer side 1 to 45 deg, then cos(b - 45), 0 from 135; farther tan(45 - b)."""
    assert float(sides.near_share(bearing)) == pytest.approx(near, abs=1e-9)
    assert float(sides.far_share(bearing)) == pytest.approx(far, abs=1e-9)
    assert float(sides.edge_share(bearing)) == edge


def test_a_thing_turns_its_sides_to_the_side() -> None:
    """From memory: a face's cheek has half a stop less of a light at 90 degrees (cos 45), a bottle's edge has not."""
    assert sides.near_share(90, sides.THING_TURN_DEG) == pytest.approx(1)
    assert sides.near_share(135, sides.THING_TURN_DEG) == pytest.approx(math.sqrt(0.5))
    lights = [
        {"role": role, "distance_m": 1, "target_stops": 0, "position": {"bearing_deg": bearing, "height_m": 1.2}}
        for role, bearing in (("key", 90), ("fill", -90))
    ]
    dark: dict[str, Any] = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": lights}
    spare = {
        kind: [
            float(
                solve(Setup.model_validate(dark | {"stage": {"kind": kind}}), table_of([STRONG]))
                .reach("sync", at)
                .spare[0]
            )
            for at in (0, 1)
        ]
        for kind in ("object", "person")
    }
    assert np.subtract(spare["object"], spare["person"]) == pytest.approx([0.5, 0.5], abs=0.01)


def test_faces_close_up_against_integration() -> None:
    """D, Lambert: 1.1 m disc at 1 m -0.38; 0.9 x 1.2 m at 1 m -0.45; by numerical integration of cos^2 / r^2."""

    def integrated(inside: Any, x: float, y: float, metres: float) -> float:
        def lit(b: float, a: float) -> float:
            square = a * a + b * b + metres * metres
            return (metres * metres) / square**2 if inside(a, b) else 0.0

        area = dblquad(lambda b, a: float(inside(a, b)), -x, x, -y, y, epsabs=1e-3)[0]
        return math.log2(dblquad(lit, -x, x, -y, y, epsabs=1e-4)[0] * metres**2 / area)

    box = integrated(lambda a, b: True, 0.45, 0.6, 1.0)
    assert box == pytest.approx(-0.45, abs=0.005)
    assert float(falloff.rectangle_close_up(0.9, 1.2, 1.0)) == pytest.approx(box, abs=1e-3)
    rings = np.linspace(0, 0.55, 20001)
    disc = np.log2(np.trapezoid(2 * math.pi * rings / (rings**2 + 1) ** 2, rings) / (math.pi * 0.55**2))
    assert disc == pytest.approx(-0.38, abs=0.005)
    assert float(falloff.disc_close_up(0.55, 1.0)) == pytest.approx(disc, abs=1e-4)
    assert 2 ** float(falloff.disc_close_up(0.5, 5.0)) == pytest.approx(1, abs=0.01)
    diagonal = math.hypot(0.9, 1.2)
    assert 2 ** float(falloff.rectangle_close_up(0.9, 1.2, 5 * diagonal)) == pytest.approx(1, abs=0.01)
    assert 2 ** float(falloff.rectangle_close_up(0.9, 1.2, 4 * diagonal)) < 0.99


def test_a_row_of_faces() -> None:
    """D, physics 12: 6 m from 4 m: 73.7 deg, ends -0.64, flat -0.97; a third from 5.88, 7.35 m; depth 1.17, 16.3 m."""
    assert float(group.across_deg(6, 4)) == pytest.approx(73.7, abs=0.05)
    assert float(group.ends_fall(6, 4)) == pytest.approx(-0.64, abs=0.005)
    assert float(group.ends_fall(6, 4, group.FLAT)) == pytest.approx(-0.97, abs=0.005)
    assert group.distance_for_ends(6, 1 / 3) == pytest.approx(5.88, abs=0.01)
    assert group.distance_for_ends(6, 1 / 3, group.FLAT) == pytest.approx(7.35, abs=0.01)
    assert group.distance_for_depth(2, 1 / 3) == pytest.approx(16.3, abs=0.05)


def test_crossed_lights_even_a_group_out() -> None:
    """D: the sum of inverse squares, worked out here by hand for a row of 6 m and two lights 4 m out, 4 m apart."""
    row = np.array([[-3.0, 0], [0, 0], [3, 0]])
    lights = np.array([[-2.0, -4.0], [2.0, -4.0]])
    found = group.row_levels(row, lights, np.array([[3.0, 0], [-3.0, 0]]), 1e6)
    ends, middle = 1 / (1 + 16) + 1 / (25 + 16), 2 / (4 + 16)
    assert found - found[1] == pytest.approx([math.log2(ends / middle), 0, math.log2(ends / middle)])
    one = group.row_levels(row, np.array([[0.0, -4.0]]), np.array([[0.0, 0]]), 1e6)
    assert one - one[1] == pytest.approx([-0.64, 0, -0.64], abs=0.005)
    narrow = group.row_levels(row, np.array([[0.0, -4.0]]), np.array([[0.0, 0]]), 2 * math.degrees(math.atan(3 / 4)))
    assert narrow[0] - narrow[1] == pytest.approx(-1.64, abs=0.005)  # a stop more at the beam's very edge


def test_aim_bounce_shadow_boom_and_wind() -> None:
    """D and P (Hoerner; ISO 2533): the handbook's figures."""
    assert float(placing.aim_error_m(2, 12)) == pytest.approx(0.42, abs=0.002)
    assert float(group.off_axis(2, 12.3)) == pytest.approx(-0.11, abs=0.005)
    assert float(group.off_axis(2, 4)) == pytest.approx(-1.0)
    assert float(placing.flash_to_lens_deg(0.075, 3)) == pytest.approx(1.43, abs=0.01)
    assert shadow_m(2, 30) == pytest.approx(3.46, abs=0.005)
    assert float(placing.bounce_path_m(1.0, 1.0, 2.5)) == pytest.approx(3.2, abs=0.005)
    for flash, face, apart, ceiling, lost in (
        (1.6, 1.6, 2.5, 2.6, -0.71),
        (1.9, 1.6275, 2, 2.7, -0.894),
        (0.5, 1.6275, 2, 2.4, -1.303),
        (2.2, 1.2, 2.236, 3, -1.106),
    ):  # physics 13
        path = float(placing.bounce_path_m(ceiling - flash, ceiling - face, apart))
        assert 2 * math.log2(apart / path) == pytest.approx(lost, abs=0.005)
    assert stand.counterweight_kg(3, 1.5, 0.5) == 9
    area = math.pi * 0.25
    assert float(stand.wind_force_n(5.5, area)) == pytest.approx(21, abs=0.5)
    assert float(stand.wind_force_n(8, area)) == pytest.approx(44, abs=0.5)
    assert stand.ballast_kg(21, 2, 0.5, 4) == pytest.approx(21 * 2 / (9.80665 * 0.25) - 4)
    assert stand.ballast_kg(1, 2, 0.5, 4) == 0
    assert [float(beam.horizontal_deg(mm)) for mm in (24, 35, 50, 105, 200)] == pytest.approx(
        [73.7, 54.4, 39.6, 19.5, 10.3], abs=0.06
    )


def test_where_the_sun_stands_and_what_falls_on_the_frame() -> None:
    """D: a camera looking north has a western sun at its left, a southern one behind it."""
    assert placing.sun_bearing_deg(180, 0) == pytest.approx(0)
    assert placing.sun_bearing_deg(270, 0) == pytest.approx(-90)
    assert placing.sun_bearing_deg(90, 0) == pytest.approx(90)
    assert placing.sun_bearing_deg(0, 0) == 180
    assert placing.sun_bearing_deg(10, 350) == pytest.approx(160)
    # level camera: a point 1 m to the right in the subject's plane, 4 m off, through 50 mm, falls 12.5 mm to the right
    assert placing.on_frame(1, 0, 1.5, 4, 1.5, 1.5, 50) == pytest.approx((12.5, 0))
    assert placing.on_frame(0, 4, 2.5, 4, 1.5, 1.5, 50) == pytest.approx((0, 6.25))
    assert all(map(np.isnan, placing.on_frame(0, -5, 1.5, 4, 1.5, 1.5, 50)))
    # aimed down at the subject's feet, the feet are in the middle of the picture
    assert placing.on_frame(0, 0, 0, 4, 1.5, 0.0, 50) == pytest.approx((0, 0), abs=1e-9)


def test_a_key_at_forty_five_and_its_shadow_side() -> None:
    found = scene({"distance_m": 2} | at(45))
    assert found.placing.lit_right
    assert lit(found)["lit"].lights[0] == pytest.approx(0, abs=0.17)  # a third-stop dial
    assert math.isinf(lit(found)["shadow"].lights[0])
    other = scene({"distance_m": 2} | at(-45))
    assert not other.placing.lit_right
    assert other.placing.own == (0,)
    assert lit(other)["lit"].lights[0] == pytest.approx(0, abs=0.17)


def test_key_and_frontal_fill_three_to_one() -> None:
    """D, physics 11: key 0 and frontal fill -1: lit +0.58, 3 : 1."""
    found = scene({"distance_m": 2} | at(60), {"role": "fill", "target_stops": -1, "distance_m": 2} | at(0))
    cos15 = math.log2(math.cos(math.radians(15)))
    jumps = {jump.effect: jump.stops for jump in found.reach(found.kinds[0]).jumps_of(0)}
    assert jumps["side"] == pytest.approx(cos15)
    exact = [float(found.reach(found.kinds[0], i).spare[0]) for i in range(2)]
    key, fill = (float(found.reach(found.kinds[0], i).flash_at_dial[0]) for i in range(2))
    assert found.reach(found.kinds[0], 1).wanted_stops == -1
    assert exact[1] - exact[0] == pytest.approx(
        1 - cos15, abs=1e-3
    )  # the fill comes straight, and a stop less is wanted of it
    total = lit(found)
    assert total["lit"].total == pytest.approx(math.log2(2**key + 2**fill), abs=1e-3)
    assert total["shadow"].total == pytest.approx(fill, abs=1e-3)
    assert ratio_of(tuple(total.values())) == pytest.approx(1 + 2 ** (key - fill), rel=1e-3)
    assert math.log2(1 + 2**-1) == pytest.approx(0.58, abs=0.006)


def test_two_heads_on_opposite_sides_are_not_two_on_one_spot() -> None:
    apart = lit(scene({"distance_m": 2} | at(50), {"role": "fill", "target_stops": 0, "distance_m": 2} | at(-50)))
    assert apart["lit"].total == pytest.approx(apart["shadow"].total, abs=0.01)
    assert apart["lit"].total == pytest.approx(0, abs=0.17)


def test_an_edge_light_that_reaches_the_nose() -> None:
    """From 100 degrees the edge has all of it and the nearer cheek cos(55); turned face on to it, a key's light."""
    key = {"distance_m": 2} | at(30)
    rim = {"role": "rim", "target_stops": 0.5, "distance_m": 3}
    found = lit(scene(key, rim | at(100)))
    cheek = found["edge"].lights[1] - found["lit"].lights[1]
    assert cheek == pytest.approx(-math.log2(math.cos(math.radians(55))))
    behind = lit(scene(key, rim | at(150)))
    assert math.isinf(behind["lit"].lights[1])
    assert behind["edge"].lights[1] == pytest.approx(0.5, abs=0.17)
    turned = scene(key, rim | at(100), stage={"facing_deg": 60})
    assert turned.placing.receivers[1] == "shadow"
    assert turned.placing.share[1, 1] == 1  # 40 degrees off the face, on the side that the key leaves dark


def test_spill_on_the_background() -> None:
    """D: 2 log2(1.5 / 3): a straight light 1.5 m off, a background as far behind; turned away it is the beam's loss."""
    lens = {"focal_mm": 50, "subject_m": 3, "background_m": 4.5}
    aim = {"aim": {"f_number": 8, "lens": lens}}
    found = lit(scene({"distance_m": 1.5} | at(0), **aim))
    assert found["background"].lights[0] - found["lit"].lights[0] == pytest.approx(-2, abs=1e-6)
    turned = lit(scene({"distance_m": 1.5} | at(0, turn_deg=27.2), **aim))
    assert turned["background"].lights[0] - turned["lit"].lights[0] == pytest.approx(-2, abs=0.01)
    assert scene({"distance_m": 1.5} | at(0, turn_deg=27.2), **aim).placing.off_stops[0, 0] == pytest.approx(
        -1, abs=0.01
    )
    tilted = scene({"distance_m": 1.5} | at(0, tilt_deg=27.2), **aim)
    assert tilted.placing.off_stops[0, 0] == pytest.approx(-1, abs=0.01)
    away = lit(scene({"distance_m": 1.5, "role": "rim"} | at(180), **aim))
    assert math.isinf(away["background"].lights[0])


def test_a_bright_face_is_feathered_by_its_cosine() -> None:
    box = {"modifier": {"name": "Box", "face": {"width_m": 0.4}}}
    found = scene({"distance_m": 3} | box | at(20, turn_deg=60))
    assert found.placing.off_stops[0, 0] == pytest.approx(-1)
    dome = {"modifier": {"name": "Dome", "kind": "dome"}}
    assert scene({"distance_m": 3} | dome | at(20, turn_deg=60)).placing.off_stops[0, 0] == 0
    grid = {"modifier": {"name": "Grid", "kind": "grid"}}
    assert scene({"distance_m": 3} | grid | at(20, turn_deg=15)).placing.off_stops[0, 0] == pytest.approx(-1)


def test_members_of_a_group() -> None:
    """D, physics 12: 6 m from 4 m, the ends -0.64 and the beam's edge; 2 m deep from 4 m, the last row -1.17."""
    stage = {"kind": "group", "width_m": 6, "depth_m": 2}
    found = lit(scene({"distance_m": 4, "modifier": {"name": "Dome", "kind": "dome"}} | at(0), stage=stage))
    fall = {name: found[name].total - found["lit"].total for name in ("left", "right", "far")}
    assert fall == pytest.approx({"left": -0.64, "right": -0.64, "far": -1.17}, abs=0.005)
    wide = placing_of(scene({"distance_m": 4} | at(0), stage=stage).setup)
    assert wide.off_stops[0, 4] == pytest.approx(-((2 * 36.87 / 54.43) ** 2), abs=0.01)


@pytest.mark.parametrize(("ceiling", "stops"), [(2.6, -0.71), (3.1, -1.29)])
def test_bounce_takes_the_way_over_the_ceiling(ceiling: float, stops: float) -> None:
    """D, physics 13: ceiling 2.6 m, both at 1.6 m, 2.5 m apart: -0.71; 3.1 m: 2 sqrt(1.5² + 1.25²) is 3.9."""
    stage = {"ceiling_m": ceiling, "height_m": 1.6 / 0.93}
    bounce = {"modifier": {"name": "Ceiling", "kind": "bounce", "stops": -1.25}, "distance_m": 2.5}
    found = scene(bounce, stage=stage)
    jumps = {jump.effect: jump.stops for jump in found.reach(found.kinds[0]).jumps_of(0)}
    assert jumps["bounce"] == pytest.approx(stops, abs=0.005)
    assert jumps["modifier"] == -1.25


def test_the_key_of_a_group_is_there_for_who_matters_most() -> None:
    """D, inverse square: set for the left end, that end comes out as wanted, and the right end is darker."""
    stage = {"kind": "group", "people": 8, "width_m": 4, "height_m": 1.75, "favoured": "left"}
    dome = {"name": "Dome", "kind": "dome"}
    found = lit(scene({"distance_m": 4, "modifier": dome} | at(-40), stage=stage))
    assert found["left"].total == pytest.approx(0, abs=0.17)
    assert found["right"].total < found["lit"].total < found["left"].total
    usual = lit(scene({"distance_m": 4, "modifier": dome} | at(-40), stage=stage | {"favoured": "none"}))
    assert usual["lit"].total == pytest.approx(0, abs=0.17)


def test_a_distance_is_measured_along_the_light() -> None:
    """D, Pythagoras: 2 m from the face and half a metre under it, a light stands 1.94 m away on the floor."""
    low = scene({"distance_m": 2.0} | at(90, height_m=1.75 * 0.93 - 0.5))
    assert low.placing.at[0] == pytest.approx((math.sqrt(4 - 0.25), 0, 1.75 * 0.93 - 0.5), abs=1e-9)


def test_bounce_off_a_wall_comes_from_the_wall() -> None:
    """D: a wall 2 m to the right, the light 1.5 m straight before the subject: sqrt((2 + 2)^2 + 1.5^2) = 4.27 m; it
    comes from atan(4 / 1.5) = 69.4 degrees to the right."""
    stage = {"right_wall_m": 2.0}
    bounce = {"modifier": {"name": "Wall", "kind": "bounce", "stops": -2.0}, "distance_m": 1.5}
    found = scene(bounce | at(0, bounces_off="right"), stage=stage)
    jumps = {jump.effect: jump.stops for jump in found.reach(found.kinds[0]).jumps_of(0)}
    assert jumps["bounce"] == pytest.approx(2 * math.log2(1.5 / math.hypot(4, 1.5)))
    assert jumps["side"] == pytest.approx(math.log2(math.cos(math.radians(69.44 - 45))), abs=1e-3)
    assert found.placing.lit_right
    left = scene(bounce | at(0, bounces_off="left"), stage={"left_wall_m": 2.0})
    assert not left.placing.lit_right
    beyond = scene(bounce | {"distance_m": 3.0} | at(90, bounces_off="right"), stage=stage)  # counted as on the wall
    jumps = {jump.effect: jump.stops for jump in beyond.reach(beyond.kinds[0]).jumps_of(0)}
    assert jumps["bounce"] == pytest.approx(2 * math.log2(3 / 2), abs=0.01)
    unknown = scene(bounce | at(0, bounces_off="left"), stage=stage)
    assert "bounce" not in {jump.effect for jump in unknown.reach(unknown.kinds[0]).jumps_of(0)}


LIGHTS = st.lists(
    st.fixed_dictionaries(
        {
            "role": st.sampled_from(["key", "fill", "rim", "background"]),
            "distance_m": st.floats(1, 8),
            "target_stops": st.floats(-2, 1),
            "position": st.none()
            | st.fixed_dictionaries({"bearing_deg": st.floats(-180, 180), "turn_deg": st.floats(-30, 30)}),
        }
    ),
    min_size=2,
    max_size=4,
    unique_by=lambda light: light["role"],
)


@settings(max_examples=60, deadline=None)
@given(LIGHTS, st.randoms())
def test_order_never_matters_and_off_is_as_if_not_there(lights: list[dict[str, Any]], dice: Any) -> None:
    totals = {name: one.total for name, one in lit(scene(*lights)).items()}
    shuffled = lights.copy()
    dice.shuffle(shuffled)
    assert {name: one.total for name, one in lit(scene(*shuffled)).items()} == pytest.approx(totals, abs=1e-6)
    off = [light | {"on": i > 0} for i, light in enumerate(lights)]
    assert {name: one.total for name, one in lit(scene(*off)).items()} == pytest.approx(
        {name: one.total for name, one in lit(scene(*lights[1:])).items()}, abs=1e-6
    )


def test_a_flag_keeps_its_light_off_the_background_and_an_adapter_counts_for_other_mounts_alone() -> None:
    """With or without a place; the same mount has all of the light, another the adapter's loss less."""
    flag = {"name": "Flag", "kind": "flag"}
    for place in ({}, {"position": {"bearing_deg": 30, "height_m": 1.6}}):
        bare, kept = (
            placing_of(Setup.model_validate({"lights": [{"distance_m": 2, "modifier": mod, **place}]})).share[0]
            for mod in (None, flag)
        )
        assert bare[2] == 1
        assert kept[2] == 0
        assert np.delete(bare, 2).tolist() == np.delete(kept, 2).tolist()
    box = {"name": "B", "kind": "softbox", "mount": "large bayonet", "adapters": ["shoe ring"], "adapter_stops": -0.3}
    units = [STRONG.model_copy(update={"mount": mount}) for mount in ("Large bayonet", "shoe ring", "")]
    dark = {
        "ambient": {"condition": "dark"},
        "aim": {"f_number": 8},
        "lights": [{"distance_m": 2, "modifier": box}, {}],
    }
    spare = solve(Setup.model_validate(dark), table_of(units)).reach("sync").spare
    assert spare - spare[0] == pytest.approx([0, -0.3, 0])
