"""What a set as it stands comes to: warnings about places with their figures, what hands change, a setup as found.

Figures are worked out beside each test; where a threshold is from memory in the code, only both sides of it are tried.
"""

import math
from datetime import datetime
from typing import Any

import pytest

from jumpstop.core.kit.table import table_of
from jumpstop.core.physics.tone import linear, patch_stops, srgb
from jumpstop.core.plan.job.changeover import Standing, changes_between
from jumpstop.core.plan.learn.as_found import as_found
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.stage.set_warnings import stage_warnings
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.setup import Setup
from scenes import NAMES, NOON, STRONG, TABLE, at, scene, told

WIDE = {"f_number": 8, "lens": {"focal_mm": 24, "subject_m": 4, "background_m": 20}}
ROW = {"kind": "group", "people": 9, "width_m": 6}
FLAT = {"kind": "object", "width_m": 1.2}


@pytest.mark.parametrize(
    ("light", "more", "code", "facts"),
    [
        # 24 mm from 4 m shows 6 m across: 3 m beside the subject is its edge
        ({"distance_m": 2} | at(90), {"aim": WIDE}, "light_in_frame", {"light": 0}),
        ({"distance_m": 4} | at(90), {"aim": WIDE}, "light_in_frame", None),
        ({"distance_m": 2} | at(0), {"aim": WIDE}, "light_in_frame", {"light": 0}),  # between the lens and the subject
        ({"distance_m": 6} | at(0), {"aim": WIDE}, "light_in_frame", None),
        # 6 m from 4 m: 73.7 degrees across; 35 mm shows 54.4 of them, from 5.9 m on it covers
        ({"distance_m": 4, "zoom_mm": 35} | at(0), {"stage": ROW}, "group_uncovered", {"across": 73.74, "beam": 54.43}),
        ({"distance_m": 6, "zoom_mm": 35} | at(0), {"stage": ROW}, "group_uncovered", None),
        ({"distance_m": 4, "modifier": {"name": "Dome", "kind": "dome"}} | at(0), {"stage": ROW}, "ends_fall",
         {"stops": math.log2(16 / 25), "metres": 5.88}),
        ({"distance_m": 7, "modifier": {"name": "Dome", "kind": "dome"}} | at(0), {"stage": ROW}, "ends_fall", None),
        # a table of 1.2 m from 1 m, and its ends: -3/2 log2(1 + .36), and a third of a stop from 1.47 m
        ({"distance_m": 1.0}, {"stage": FLAT}, "flat_falls", {"stops": -1.5 * math.log2(1.36), "metres": 1.47}),
        ({"distance_m": 1.5}, {"stage": FLAT}, "flat_falls", None),
        ({"distance_m": 2} | at(0), {"stage": {"favoured": "right", "facing_deg": 35}}, "favoured_hidden",
         {"right": True, "deg": 35}),
        ({"distance_m": 2} | at(0), {"stage": {"favoured": "right", "facing_deg": -35}}, "favoured_hidden", None),
        ({"distance_m": 2} | at(0), {"stage": {"favoured": "left", "facing_deg": -35}}, "favoured_hidden",
         {"right": False, "deg": 35}),
        ({"distance_m": 2} | at(0), {"stage": {"favoured": "right", "facing_deg": 12}}, "favoured_hidden", None),
        ({"distance_m": 2} | at(0), {"stage": {"favoured": "left", "facing_deg": -12}}, "favoured_hidden", None),
        # a bright face has no beam: it falls off by its cosine (physics 12)
        ({"distance_m": 1, "modifier": {"name": "Box", "kind": "softbox", "face": {"width_m": 0.9}}} | at(0),
         {"aim": WIDE}, "beam_in_frame", None),
        ({"pops": 4}, {}, "repeating", {}),
        ({"pops": 3}, {}, "repeating", None),
        ({}, {"trigger": "optical"}, "optical", {"sun": False}),
        ({}, {"trigger": "optical", "ambient": {"subject": "back"}}, "optical", {"sun": True}),
        ({}, {"trigger": "optical", "ambient": {"subject": "shade"}}, "optical", {"sun": False}),
        ({}, {"trigger": "radio"}, "optical", None),
        # a beam of 12.3 degrees 12 m out: two degrees off is .42 m, and costs .11 (physics 12)
        ({"distance_m": 12, "zoom_mm": 167}, {}, "aim", {"deg": 2, "metres": 0.42, "loss": 0.11}),
        ({"distance_m": 12, "zoom_mm": 105}, {}, "aim", None),
        ({}, {"triggers": [{"name": "Cord", "passes": []}]}, "link_broken", {"wanted": "fire", "at": "Cord"}),
    ],
)  # fmt: skip
def test_a_warning_stands_where_it_can_happen(light: Any, more: Any, code: str, facts: dict[str, Any] | None) -> None:
    found = told(scene(light, **more)).get(code)
    assert (found is None) == (facts is None)
    for name, value in (facts or {}).items():
        near = pytest.approx(value, abs=0.01) if isinstance(value, float) else value
        assert (found or {})[name] == near, name


def test_a_panel_and_a_long_lens_are_told_where_they_are_in_the_way() -> None:
    panel = {"subject": "panel", "panel": {"size_m": 1.8, "height_m": 2.4}}
    assert told(scene({}, aim=WIDE, ambient=panel))["panel_in_frame"]["metres"] == 2.4
    near = {"f_number": 8, "lens": {"focal_mm": 85, "subject_m": 2.5, "background_m": 20}}
    assert "panel_in_frame" not in told(scene({}, aim=near, ambient=panel))
    assert "panel_in_frame" not in told(scene({}, aim=WIDE))  # none stands there
    upright = {"f_number": 8, "lens": {"focal_mm": 50, "subject_m": 4.5, "background_m": 20}, "orientation": "grip_up"}
    large = panel | {"panel": {"size_m": 3.0, "height_m": 2.4}}  # 6 m off 2.88 m are seen across, and 2.4 m up
    assert "panel_in_frame" not in told(scene({}, aim=upright, ambient=large))
    small = panel | {"panel": {"size_m": 1.8, "height_m": 2.4}}
    assert "panel_in_frame" in told(scene({}, aim=upright, ambient=small))
    tube = {"name": "Reed tube", "kind": "extender", "stops": 2}
    sun = {
        "by": "sun", "clock": "13:00", "day": "2026-06-24", "subject": "back",
        "place": {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"},
    }  # fmt: skip
    looking = {"camera_looks_deg": 180}
    assert told(scene({"modifier": tube}, ambient=sun, stage=looking))["lens_in_sun"] == {"name": "Reed tube"}
    assert "lens_in_sun" not in told(scene({"modifier": tube}, ambient=sun | {"clock": "23:00"}, stage=looking))
    assert "lens_in_sun" not in told(scene({"modifier": tube | {"kind": "grid"}}, ambient=sun, stage=looking))


def test_a_beam_from_the_camera_covers_what_the_lens_sees() -> None:
    """50 mm from 3 m sees 2.16 m: 39.6 degrees from there. 200 mm on the head shows 10.3, 35 mm 54.4."""
    aim = {"f_number": 8, "lens": {"focal_mm": 50, "subject_m": 3, "background_m": 8}}
    narrow = told(scene({"distance_m": 3, "zoom_mm": 200} | at(10), aim=aim))["beam_in_frame"]
    assert (narrow["beam"], narrow["wanted"]) == (pytest.approx(10.3, abs=0.06), pytest.approx(39.6, abs=0.06))
    for light in ({"zoom_mm": 35} | at(10), {"zoom_mm": 200} | at(40), {"zoom_mm": 200, "role": "fill"} | at(10)):
        assert "beam_in_frame" not in told(scene({"distance_m": 3} | light, aim=aim))
    assert "beam_in_frame" not in told(scene({"distance_m": 3, "zoom_mm": 200} | at(10), aim=aim, stage=ROW))


def test_an_edge_light_clips_or_shines_on_the_nose() -> None:
    """Light skin of 36 % clips 1.47 stops over; a light from 95 degrees has cos 50 of itself on the nearer side."""
    key = {"role": "key", "distance_m": 2} | at(45)
    rim = {"role": "rim", "distance_m": 2, "target_stops": 2.0} | at(150)
    clips = told(scene(key, rim))["edge_clips"]
    assert clips["over"] == pytest.approx(2.0 - math.log2(1 / 0.36), abs=0.2)  # its dial goes by thirds
    assert "edge_clips" not in told(scene(key, rim | {"target_stops": 1.0}))
    nose = told(scene(key, rim | {"target_stops": 0.0} | at(95)))["edge_on_nose"]
    assert nose["light"] == 1
    assert nose["stops"] == pytest.approx(math.log2(math.cos(math.radians(50))), abs=0.2)
    assert "edge_on_nose" not in told(scene(key, rim | at(150)))
    assert "edge_clips" not in told(scene(key | {"target_stops": 3.0}))  # a key is no edge light


def test_a_boom_asks_for_its_counterweight() -> None:
    """D: 3 kg at 1.5 m against half a metre: 9 kg; a head on a cord weighs without its pack."""
    light = {
        "distance_m": 2,
        "modifier": {"name": "Box", "weight_g": 500},
        "position": {"height_m": 2.4, "boom_m": 1.5},
    }
    for unit, kilograms in (
        (STRONG.model_copy(update={"weight_g": 2500.0}), 9.0),
        (STRONG.model_copy(update={"weight_g": 9000.0, "head_g": 1500.0}), 6.0),
    ):
        setup = Setup.model_validate({"ambient": {"condition": "dark"}, "lights": [light]})
        solved = solve(setup, table_of([unit]))
        kind = solved.kinds[0]
        found = {one.code: one.facts for one in stage_warnings(solved, kind, (0,), levels(solved, kind, (0,)))}
        assert found["boom"]["counter_kg"] == pytest.approx(kilograms)
        assert (found["boom"]["load_kg"], found["boom"]["arm_m"]) == (pytest.approx(kilograms / 3), 1.5)
    assert "boom" not in told(scene({"distance_m": 2} | at(30)))


def test_two_crossed_lights_make_a_deep_group_even() -> None:
    """By hand: 2 m deep and 4 m wide from 4 m; each light beside one end, aimed at the other end of the far row."""
    deep = {"kind": "group", "people": 12, "width_m": 4, "depth_m": 2}
    facts = told(scene({"distance_m": 4, "modifier": {"name": "Dome", "kind": "dome"}} | at(0), stage=deep))[
        "depth_falls"
    ]
    assert facts["stops"] == pytest.approx(2 * math.log2(4 / 6), abs=0.02)
    assert facts["metres"] == pytest.approx(16.3, abs=0.1)
    level = [
        sum(1 / ((x - side) ** 2 + (y + 4) ** 2) for side in (-2.0, 2.0))
        for x in (-2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2)
        for y in (0, 1, 2)
    ]
    assert facts["crossed"] == pytest.approx(math.log2(max(level) / min(level)), abs=0.01)


def test_lights_on_two_channels_do_not_fire_together() -> None:
    light = {"role": "rim", "distance_m": 2}
    found = told(scene(light | {"channel": 3}, light, light | {"channel": 5}))
    assert found["other_channel"] == {"light": 2, "channel": 5, "first": 3}
    assert "other_channel" not in told(scene(light | {"channel": 3}, light | {"channel": 3}))
    assert "other_channel" not in told(scene(light | {"channel": 3}, light | {"channel": 5, "on": False}))
    assert "other_channel" not in told(scene(light | {"channel": 3}, light | {"channel": 5}, trigger="shoe"))


# What hands change


def stands(setup: Setup, unit: str = "Curlew 400") -> Standing:
    solved = solve(setup, TABLE)
    return Standing(solved, solved.kinds[0], (NAMES.index(unit),) * len(setup.lights))


def changed(**light: Any) -> Setup:
    return NOON.model_copy(update={"lights": (NOON.lights[0].model_copy(update=light), *NOON.lights[1:])})


def hands(before: Setup, after: Setup, unit: str = "Curlew 400") -> dict[str, dict[str, Any]]:
    return {one.code: dict(one.facts) for one in changes_between(stands(before), stands(after, unit))}


def test_each_change_of_hands_is_told_once_with_what_was_and_is() -> None:
    assert hands(NOON, NOON) == {}
    for other in ("Avocet 200", "Gannet 600"):  # before and after it in the alphabet
        assert hands(NOON, NOON, other)["unit"] == {"light": 0, "now": other}
    body = NOON.model_copy(update={"body": NOON.body.model_copy(update={"name": "Other"})})
    assert hands(NOON, body) == {"body": {"now": "Other"}}
    assert NOON.aim.lens is not None
    lens = NOON.aim.lens.model_copy(update={"focal_mm": NOON.aim.lens.focal_mm + 50})
    found = hands(NOON, NOON.model_copy(update={"aim": NOON.aim.model_copy(update={"lens": lens})}))
    assert found["lens"] == {"was": NOON.aim.lens.focal_mm, "now": lens.focal_mm}
    bare = NOON.model_copy(update={"aim": NOON.aim.model_copy(update={"lens": None})})
    assert hands(bare, NOON)["lens"]["was"] is None
    assert "lens" not in hands(NOON, bare)
    held = NOON.model_copy(update={"aim": NOON.aim.model_copy(update={"orientation": "grip_up"})})
    assert hands(NOON, held)["held"] == {"now": "grip_up"}
    shade = NOON.model_copy(update={"ambient": NOON.ambient.model_copy(update={"subject": "shade"})})
    assert hands(NOON, shade)["place"] == {"now": "shade"}
    stopped = NOON.model_copy(update={"aim": NOON.aim.model_copy(update={"f_number": 5.6})})
    told_of = hands(NOON, stopped)
    assert told_of["f_number"] == {"was": NOON.aim.f_number, "now": 5.6}
    assert told_of.keys() & {"nd", "shutter_s", "iso", "dial"}  # the background stays: something else gave way


def test_what_changes_on_a_head_is_told() -> None:
    one = {"light": 0}
    assert hands(NOON, changed(gel="half_orange"))["gel"] == one | {"now": "half_orange"}
    assert hands(NOON, changed(modifier=None))["modifier"] == one | {"now": ""}
    other = hands(NOON, NOON, unit="Redshank 60")
    assert other["unit"] == one | {"now": "Redshank 60"}
    assert other["dial"]["was"] is None
    farther = hands(NOON, changed(distance_m=3.6))
    assert farther["distance"] == one | {"was": NOON.lights[0].distance_m, "now": 3.6}
    assert farther["dial"]["now"] < farther["dial"]["was"]  # more power from farther away
    assert "distance" not in hands(NOON, changed(distance_m=NOON.lights[0].distance_m + 0.005))
    mod = NOON.lights[0].modifier
    assert mod is not None
    names = tuple(layer.name for layer in mod.layers)
    assert names
    none, every = changed(layers=()), changed(layers=names)
    assert hands(every, none)["layer_off"] == one | {"layer": names[-1]}
    assert hands(none, every)["layer_on"] == one | {"layer": names[-1]}
    assert not {"layer_on", "layer_off"} & hands(every, every).keys()
    off = changed(on=False)
    assert hands(NOON, off)["light_away"] == one
    assert hands(off, NOON)["light_up"] == one | {"role": "key", "metres": NOON.lights[0].distance_m}
    left, right = (
        Setup.model_validate(NOON.model_dump() | {"lights": [NOON.lights[0].model_dump() | place]})
        for place in (at(-40), {"position": {"bearing_deg": 40, "height_m": 2.0}})
    )
    moved = hands(left, right)
    assert (moved["bearing"]["now"], moved["height"]["now"]) == (40, 2.0)
    assert not {"bearing", "height"} & hands(left, left).keys()
    assert {"bearing", "height"} <= hands(changed(position=None), right).keys()


# A setup as it was found


def test_a_setup_as_found_has_what_was_set_and_counts_from_its_newest_readings() -> None:
    unit = STRONG.model_dump()
    lights = [
        {"role": "key", "distance_m": 2, "unit": unit},
        {"role": "fill", "distance_m": 3},
        {"role": "rim", "distance_m": 4},
    ]
    setup = Setup.model_validate({"name": "x" * 80, "lights": lights, "ambient": {"condition": "dark"}})

    def read(light: int, day: int, metres: float, **more: Any) -> LogEntry:
        seen = {
            "light": light, "stops": 0.1, "dial_stops": 2.0, "method": "nd",
            "camera": {"f_number": 11, "shutter_s": 1 / 125, "iso": 200, "nd_stops": 3},
            "was": setup.lights[0].model_dump() | {"distance_m": metres, "distance_free": True},
        }  # fmt: skip
        was = setup.model_copy(update={"lights": setup.lights * 2})  # it had more lights then
        return LogEntry.model_validate({"at": datetime(2026, 6, day, 12), "was": was, "seen": seen | more})

    other = LogEntry(at=datetime(2026, 6, 15, 12), was=setup, flashes=40)
    found = as_found(setup, [read(0, 12, 2.5), read(0, 13, 2.6), read(2, 14, 4.4), read(3, 14, 9.9), other])
    assert found.name == "x" * 62 + ", 15 Jun 2026"
    assert [light.distance_m for light in found.lights] == [2.6, 3, 4.4]
    assert [light.dial_stops for light in found.lights] == [2.0, None, 2.0]
    assert not any(light.distance_free for light in found.lights)
    assert [(seen.light, seen.stands, seen.was.dial_stops) for seen in found.seen] == [(0, True, None), (2, True, None)]
    assert len({seen.id for seen in found.seen}) == 2
    assert (found.method, found.aim.f_number, found.aim.iso, found.aim.by) == ("nd", 11, 200, "aperture")
    fixed = found.fixed
    assert (fixed.aperture, fixed.iso, fixed.background, fixed.shutter_s) == (True, True, False, 1 / 125)
    assert fixed.nd is not None
    assert fixed.nd.stops == 3
    plain = as_found(setup, [read(0, 12, 2.5, camera={"f_number": 8, "shutter_s": 1 / 60, "iso": 100})])
    assert plain.fixed.nd is None
    nothing = as_found(setup, [other])
    assert (nothing.lights, nothing.method, nothing.fixed, nothing.aim) == (setup.lights, None, setup.fixed, setup.aim)


def test_tones_are_those_of_the_standard() -> None:
    """IEC 61966-2-1: grey of 18 % is 118 of 255, half the light 188; below .0031308 it is a line of 12.92; and back."""
    assert [round(float(srgb(light)) * 255) for light in (0.18, 0.5, 1.0, 2.0, -1.0)] == [118, 188, 255, 255, 0]
    assert float(srgb(0.002)) == pytest.approx(0.02584)
    for light in (0.001, 0.0031308, 0.02, 0.18, 0.9):
        assert float(linear(srgb(light))) == pytest.approx(light, rel=1e-4)
    assert [float(linear(value)) for value in (-0.5, 1.5)] == [0, 1]
    assert patch_stops([0.18, 0.36, 0.045, 0.0]).tolist() == pytest.approx([0, 1, -2, -math.inf])  # type: ignore[arg-type]
    assert float(patch_stops(0.18, 0.36)) == pytest.approx(-1)
