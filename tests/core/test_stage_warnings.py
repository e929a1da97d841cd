"""Warnings about where things stand: each where it can happen and not elsewhere, its figures from outside."""

import math
from typing import Any

import pytest

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.camera.methods import Method
from jumpstop.core.plan.change.enough import less_by, more_by
from jumpstop.core.plan.change.moves import moves_of
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.camera import CameraSettings
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import setups
from scenes import BAG, NAMES, NOON, SHELF, TABLE, at, comes_to, found, named, scene, told

DISC = {"name": "D", "kind": "softbox", "stops": 0, "face": {"shape": "disc", "width_m": 1.0}}


def test_wind_takes_what_stands_in_it_by_its_area() -> None:
    """ISO 2533 and Hoerner: an umbrella of 1 m, hollow to the wind, takes 44 N at 8 m/s; a flat disc 1.17 / 1.42."""
    hollow = scene({"modifier": DISC | {"kind": "umbrella"}} | at(30), stage={"wind_m_s": 8})
    assert told(hollow)["wind"]["force_n"] == pytest.approx(44, abs=0.5)
    flat = told(scene({"modifier": DISC} | at(30), stage={"wind_m_s": 8}))["wind"]["force_n"]
    assert flat == pytest.approx(44 * 1.17 / 1.42, abs=0.5)
    small = told(
        scene({"modifier": DISC | {"face": {"shape": "disc", "width_m": 0.8}}} | at(30), stage={"wind_m_s": 8})
    )
    assert small["wind"]["force_n"] == pytest.approx(0.64 * flat, abs=0.01)
    square = {"shape": "rectangle", "width_m": 0.5, "height_m": 1.0}
    assert told(scene({"modifier": DISC | {"face": square}} | at(30), stage={"wind_m_s": 8}))["wind"][
        "force_n"
    ] == pytest.approx(flat * 0.5 / (math.pi / 4))
    assert "wind" not in told(scene({"modifier": DISC} | at(30), stage={"wind_m_s": 5}))


SUN = {
    "by": "sun", "clock": "13:00", "day": "2026-06-24",
    "place": {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"},
}  # fmt: skip


@pytest.mark.parametrize(
    ("subject", "looks", "warned"),
    [
        ("back", 180, False),
        ("back", 0, True),
        ("back", 40, True),
        ("back", 90, False),
        ("sun", 0, False),
        ("sun", 60, False),
        ("sun", 90, False),
        ("sun", 140, True),
        ("sun", 180, True),
        ("shade", 0, False),
    ],
)
def test_a_sun_that_stands_elsewhere_than_the_picture_has_it(subject: str, looks: float, warned: bool) -> None:
    """At noon by the sun (one o'clock summer time) it is in the south: behind who is photographed towards it, before
    who has the camera's back to it."""
    solved = scene(at(30), ambient=SUN | {"subject": subject}, stage={"camera_looks_deg": looks})
    facts = told(solved).get("sun_elsewhere")
    assert (facts is not None) == warned
    if facts is not None:
        assert facts["front"] == (subject == "back")
        assert abs(facts["deg"]) == pytest.approx(looks, abs=10)


@pytest.mark.parametrize(
    ("kind", "metres", "code"),
    [
        ("person", 0.5, "near_eyes"),
        ("person", 0.7, ""),
        ("group", 0.5, "near_eyes"),
        ("object", 0.5, ""),
        ("animal", 0.5, "wildlife"),
    ],
)
def test_flash_near_eyes_is_told_where_there_are_eyes(kind: str, metres: float, code: str) -> None:
    found = told(scene({"distance_m": metres}, stage={"kind": kind}))
    assert {one for one in ("near_eyes", "wildlife") if one in found} == ({code} if code else set())


@pytest.mark.parametrize(
    ("automatic", "target", "clash"),
    [
        ((False, False), 0.0, False),
        ((True, True), 0.0, False),
        ((True, False), 0.0, True),
        ((False, True), 0.0, True),
        ((False, False), -2.0, True),
    ],
)
def test_one_group_cannot_have_two_powers(automatic: tuple[bool, bool], target: float, clash: bool) -> None:
    lights = [
        {"role": "rim", "group": "A", "automatic": auto, "target_stops": wanted}
        for auto, wanted in zip(automatic, (0.0, target), strict=True)
    ]
    assert ("one_group" in told(scene(*lights))) == clash


def test_eyes_shine_where_the_flash_stands_by_the_lens() -> None:
    """0.12 m over the lens at 4 m is 1.7 degrees; at 0.5 m it is 13. 2.5 degrees are wanted."""
    for metres, shines in ((4.0, True), (0.7, False)):
        lens = {"focal_mm": 85, "subject_m": metres, "background_m": 20}
        solved = scene({"distance_m": metres}, trigger="shoe", aim={"f_number": 8, "lens": lens})
        facts = told(solved).get("red_eye")
        assert (facts is not None) == shines
        if facts is not None:
            assert facts["deg"] == pytest.approx(math.degrees(math.atan(0.12 / 4)), abs=0.05)
    # on stands: as far round as they are said to stand, from a lens at the height of the face
    level = {"camera_height_m": 1.75 * 0.93}
    for bearing, shines in ((2.0, True), (-2.0, True), (3.0, False)):
        facts = told(scene({"distance_m": 2} | at(bearing), stage=level)).get("red_eye")
        assert (facts is not None) == shines
        assert facts is None or facts["deg"] == pytest.approx(2.0, abs=0.01)

    ceiling = {"distance_m": 4, "modifier": {"name": "Ceiling", "kind": "bounce", "stops": -2}}
    far = {"f_number": 8, "lens": {"focal_mm": 85, "subject_m": 4, "background_m": 20}}
    assert "red_eye" not in told(scene(ceiling, trigger="shoe", aim=far))  # what the eyes see is the ceiling


def test_whom_the_key_favours_is_told_by_the_key_alone() -> None:
    """A key from the right lights the person at the right, wherever a fill stands; one from the left does not."""
    group = {"kind": "group", "people": 9, "width_m": 4}
    for favoured, bearing, warned in (
        ("right", 40, False), ("right", -40, True), ("right", -10, False), ("left", 40, True), ("left", -40, False),
        ("left", 14, False), ("left", 16, True), ("right", -16, True),
    ):  # fmt: skip
        fill = {"role": "fill", "distance_m": 4} | at(-bearing)
        solved = scene(fill, {"role": "key", "distance_m": 4} | at(bearing), stage=group | {"favoured": favoured})
        assert ("favoured_far" in told(solved)) is warned
        alone = scene({"role": "key", "distance_m": 4} | at(bearing), stage={"favoured": favoured})
        assert "favoured_far" not in told(alone)  # the sides of one face: its key is meant to come from one of them


# Moves that the tests of “find a stop” did not look at


def test_heads_that_make_up_for_what_is_missing() -> None:
    """1.5 stops under: three heads, as log2 3 = 1.58; a stop is two, offered anyway; nobody stands 40 heads up."""
    unit, plain = Unit(name="U", watt_seconds=100), Setup(lights=(Light(distance_m=2.0),))
    method = Method("sync", CameraSettings(8, 1 / 250, 100))

    def more(missing: float, unit: Unit = unit) -> dict[str, Any]:
        return {one.code: one.facts for one in more_by(plain, 0, method, unit, missing) if one.where == "light"}

    assert more(1.5)["heads"] == {"count": 3}
    assert list(more(1.0)) == ["closer"]
    assert more(4.0)["heads"] == {"count": 16}
    assert list(more(5.0)) == ["closer"]
    assert more(1.0)["closer"] == {"metres": 1.4}  # 2 m / sqrt 2, down to two centimetres
    assert list(more(1.5, unit.model_copy(update={"takes_modifiers": False}))) == ["closer"]
    farther = [
        [one.facts["metres"] for one in less_by(plain, 0, method, excess) if one.where == "light"] for excess in (2, 17)
    ]
    assert farther == [[4.0], []]  # 2 m x 2^(17/2) is 724 m, and nobody lights from farther than 500
    big = {"modifier": {"name": "Big", "stops": 0, "face": {"width_m": 1.5}}, "distance_m": 1.0}
    near = Setup.model_validate({"lights": [big]})  # against a disc of radius .75 at most log2(1 + 1 / .75^2) = 1.47
    assert [one.code for one in more_by(near, 0, method, unit, 1.0) if one.code == "closer"] == ["closer"]
    assert not [one for one in more_by(near, 0, method, unit, 2.0) if one.code == "closer"]


def test_a_head_turned_away_is_turned_back_to_the_subject() -> None:
    """It wins back what a beam loses off its axis: (2 x 20 / 54.4)^2 of the 35 mm coverage, .54 stop."""
    turned = NOON.model_copy(
        update={
            "lights": (
                Light.model_validate(
                    {"distance_m": 2.0}
                    | at(30)
                    | {"position": {"bearing_deg": 30, "turn_deg": 20, "height_m": 1.75 * 0.93}}
                ),
            )
        }
    )
    straight = named(found(turned, "Curlew 400").singles, "straight")
    across = 2 * math.degrees(math.atan(18 / 35))
    assert straight[0].gain == pytest.approx((2 * 20 / across) ** 2, abs=5e-4)


def test_another_hour_is_offered_where_only_the_sun_says_the_light() -> None:
    team = next(one for one in setups() if one.name == "Team of 22")
    assert named(found(team, "Gannet 600", "stop_down").singles, "hour")
    reading = {"f_number": 8, "shutter_s": 1 / 250, "iso": 100}
    read = Setup.model_validate(team.model_dump() | {"ambient": team.ambient.model_dump() | {"readings": [reading]}})
    assert not named(found(read, "Gannet 600", "stop_down").singles, "hour")
    assert not named(found(NOON, "Curlew 400").singles, "hour")


@pytest.mark.parametrize(
    ("clock", "subject", "hours", "places"),
    [
        ("13:20", "sun", {11, 12, 14, 15}, {"shade", "panel"}),
        ("13:20", "back", {11, 12, 14, 15}, {"shade", "panel"}),
        ("13:20", "shade", {11, 12, 14, 15}, set()),
        ("22:20", "shade", {20, 21, 23}, set()),  # not on the next day
    ],
)
def test_another_hour_or_place_is_offered_to_who_stands_in_the_sun(
    clock: str, subject: str, hours: set[int], places: set[str]
) -> None:
    team = next(one for one in setups() if one.name == "Team of 22")
    there = Setup.model_validate(
        team.model_dump() | {"ambient": team.ambient.model_dump() | {"clock": clock, "subject": subject}}
    )
    kind = solve(there, TABLE).kinds[0]
    moves = moves_of(there, 0, kind, solve(there, TABLE).method(kind), SHELF[NAMES.index("Gannet 600")], BAG)
    clocks = {move.facts["clock"] for move in moves if move.code == "hour"}
    assert {one.hour for one in clocks} == hours
    assert {one.minute for one in clocks} == {20}
    assert {move.facts["subject"] for move in moves if move.code == "into_shade"} == places


def test_a_pair_with_another_hour_comes_to_what_both_are_solved_anew() -> None:
    team = next(one for one in setups() if one.name == "Team of 22")
    with_hour = [one for one in found(team, "Dunlin 36", "stop_down", pairs=True).pairs if one.moves[0].code == "hour"]
    assert with_hour
    for one in with_hour[:4]:
        spare = comes_to(team, 0, one, NAMES.index("Dunlin 36"), "stop_down")
        assert one.spare == pytest.approx(spare, abs=1e-6)


def test_a_variable_filter_near_its_far_end_is_told_to_be_uneven() -> None:
    """Sun at f/2.8 wants five stops of ND: the far end of a filter to five, the middle of one to eight."""
    doc = {"ambient": {"condition": "distinct_shadows"}, "aim": {"f_number": 2.8, "iso": 100}, "lights": [{}]}
    table = table_of([Unit(name="U", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),))])
    for most, uneven in ((5, True), (8, False)):
        filters = [{"name": "Variable", "stops": 2, "most_stops": most}]
        method = solve(Setup.model_validate(doc | {"filters": filters}), table).method("nd")
        assert method.camera.nd_stops == pytest.approx(5, abs=0.4)
        assert any(cost.code == "nd_uneven" for cost in method.costs) == uneven
