"""Lenses as kit, what can be held by hand, diffraction, filters on long lenses, shadows, bounces: where said."""

import math
from typing import Any

import pytest
from pydantic import ValidationError

from jumpstop.core.kit.lens import LensKit
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.physics.optics import airy_mm, by_hand_s
from jumpstop.core.plan.camera import look
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.camera.automatics import automatics
from jumpstop.core.plan.light.advice import advised_method, units_for
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.plan.stage.comes_out import fails
from jumpstop.core.plan.stage.set_warnings import stage_warnings
from jumpstop.core.plan.stage.warnings import warnings_of
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit
from jumpstop.words.answer import answer_of
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.stage_warnings import say_stage

UNITS = [Unit.model_validate(doc) for doc in kit()["units"]]
TABLE = Shelf(UNITS).table
WORDS = DisplayUnits()
LENS = {"focal_mm": 85, "subject_m": 2.5, "background_m": 10}
PLACE = {"by": "sun", "place": {"latitude": 51, "longitude": 0, "zone": "Europe/London"}, "day": "2026-06-24"}


def solved(**doc: Any) -> Solved:
    return solve(Setup.model_validate(doc), TABLE)


def said(found: Solved, kind: Any = None) -> dict[str, dict[str, Any]]:
    """All warnings by their codes, in the method that is advised unless another is said."""
    kind = kind or advised_method(found)
    units = units_for(found, kind)
    every = [*warnings_of(found, kind, units[0], 0), *stage_warnings(found, kind, units, levels(found, kind, units))]
    return {one.code: dict(one.facts) for one in every}


def test_airy_discs_and_times_by_hand() -> None:
    """physics 21: 10.7 µm at f/8, 15.2 at f/11 (marked 11.3), 21.5 at f/16, 30.4 at f/22 (22.6), 42.9 at f/32."""
    exact = {8: 8.0, 11: 8 * math.sqrt(2), 16: 16.0, 22: 16 * math.sqrt(2), 32: 32.0}
    for mark, micrometres in ((8, 10.7), (11, 15.2), (16, 21.5), (22, 30.4), (32, 42.9)):
        assert airy_mm(exact[mark]) * 1000 == pytest.approx(micrometres, abs=0.06)
    assert by_hand_s(85, 1.0) == pytest.approx(1 / 85)  # common practice: 1 / (focal length x crop)
    assert by_hand_s(50, 1.5, 3) == pytest.approx(8 / 75)


INTERIOR = {"condition": "interior_night"}


def test_a_time_that_shakes_is_told_with_what_can_be_held() -> None:
    """CP: a room at night, f/4, ISO 800, a stop under: 1/60 is too slow for 85 mm, and not with a stabiliser."""
    doc = {"ambient": INTERIOR, "aim": {"f_number": 4, "iso": 800, "lens": LENS, "background_stops": -1},
           "fixed": {"shutter_s": 1 / 30}}  # fmt: skip
    shaken = said(solved(**doc))["shake"]
    assert shaken["shutter_s"] == pytest.approx(1 / 30)
    assert shaken["slowest_s"] == pytest.approx(1 / 85)
    steady = {"lens": {"name": "L", "focal_mm": 85, "widest": 2, "stabiliser_stops": 2}}
    assert "shake" not in said(solved(**doc, **steady))
    body = {"body": {"name": "B", "stabiliser_stops": 4}}
    assert "shake" not in said(solved(**doc, **body))
    small = {"body": {"name": "B", "frame_width_mm": 24, "frame_height_mm": 16}}
    assert said(solved(**doc, **small))["shake"]["slowest_s"] == pytest.approx(1 / 127.5)  # 85 x 1.5
    no_lens = doc | {"aim": {"f_number": 4, "iso": 800, "background_stops": -1}}
    assert "shake" not in said(solved(**no_lens))
    dark = doc | {"ambient": {"condition": "dark"}}
    assert "shake" not in said(solved(**dark))  # nothing but the flash draws


@pytest.mark.parametrize(
    ("f_number", "frame", "told"),
    [(11, (36, 24), None), (13, (36, 24), None), (16, (36, 24), False), (22, (36, 24), True), (9, (24, 16), None),
     (11, (24, 16), False), (16, (24, 16), True)],
)  # fmt: skip
def test_diffraction_is_told_from_a_stop_before_it_costs(
    f_number: float, frame: tuple[float, float], told: bool | None
) -> None:
    """physics 21: equal to the circle of confusion at f/22 and f/15; worth a word a stop before, f/16 and f/11."""
    body = {"name": "B", "frame_width_mm": frame[0], "frame_height_mm": frame[1]}
    found = said(solved(ambient={"condition": "dark"}, aim={"f_number": f_number}, body=body)).get("diffraction")
    assert (found and found["everywhere"]) == told


def test_nd_or_hss_rather_than_f22_by_itself() -> None:
    """A wide view that buys no blur would stop down; not as far as f/22, where diffraction costs."""
    wide = {"focal_mm": 24, "subject_m": 4, "background_m": 6}
    aim = {"f_number": 8, "background_stops": -2, "lens": wide}
    nd = [{"name": "ND 3", "stops": 3}]
    bright = solved(ambient={"condition": "distinct_shadows"}, aim=aim, filters=nd)
    assert look.spoils(bright.setup, "stop_down", bright.method("stop_down").camera.f_number)
    assert advised_method(bright) != "stop_down"
    mild = solved(ambient={"condition": "cloudy_bright"}, aim=aim | {"f_number": 5.6}, filters=nd)
    assert not look.spoils(mild.setup, "stop_down", mild.method("stop_down").camera.f_number)


def test_no_filter_is_advised_before_a_long_lens_for_wildlife() -> None:
    long = {"focal_mm": 400, "subject_m": 12, "background_m": 40}
    doc = {"ambient": {"condition": "distinct_shadows"}, "aim": {"f_number": 5.6, "lens": long},
           "filters": [{"name": "ND 3", "stops": 3}]}  # fmt: skip
    person, hare = solved(**doc), solved(**doc, stage={"kind": "animal"})
    assert look.no_filter(hare.setup)
    assert not look.no_filter(person.setup)
    assert advised_method(person) == "nd"
    assert advised_method(hare) != "nd"
    assert "filter_on_long_lens" in said(hare, "nd")
    assert "filter_on_long_lens" not in said(person, "nd")


def test_the_photographers_own_shadow() -> None:
    """D: a sun 12 degrees high behind the camera throws 1.75 / tan 12 = 8.2 m; at noon in June 0.9 m, short of it."""
    aim = {"lens": {"focal_mm": 35, "subject_m": 4, "background_m": 60}, "background_stops": 0}
    stage = {"camera_looks_deg": 105}
    late = said(solved(ambient=PLACE | {"clock": "20:00", "subject": "sun"}, aim=aim, stage=stage))
    assert late["own_shadow"]["metres"] > 4
    noon = said(solved(ambient=PLACE | {"clock": "13:00", "subject": "sun"}, aim=aim, stage=stage))
    assert "own_shadow" not in noon
    turned = said(solved(ambient=PLACE | {"clock": "20:00"}, aim=aim, stage={"camera_looks_deg": 285}))
    assert "own_shadow" not in turned
    narrow = aim | {"lens": {"focal_mm": 70, "subject_m": 4, "background_m": 60}}
    evening = PLACE | {"clock": "20:00", "subject": "sun"}
    sun = solved(ambient=evening, aim=narrow).ambient.sun
    assert sun is not None
    for aside, falls in ((-10, True), (10, True), (-17, False), (17, False)):  # as far to either side of the sun's line
        looks = (sun[1] + 180 + aside) % 360
        assert ("own_shadow" in said(solved(ambient=evening, aim=narrow, stage={"camera_looks_deg": looks}))) == falls


CEILING = {"name": "White ceiling", "kind": "bounce", "stops": -1.2}


def test_a_bounce_says_what_it_assumes_and_has_nothing_to_come_off_outdoors() -> None:
    """physics 13: 2.6 m over head and face at 1.6275 and 2.5 m apart: .71 more than straight."""
    light = {"distance_m": 2.5, "modifier": CEILING}
    room = said(solved(ambient={"condition": "office"}, lights=[light]))
    over = 2.6 - 1.75 * 0.93
    assert room["bounce_assumed"]["loss"] == pytest.approx(math.log2(1 + 4 * over**2 / 2.5**2))
    assert "bounce_assumed" not in said(
        solved(ambient={"condition": "office"}, lights=[light], stage={"ceiling_m": 2.6})
    )
    sun = solved(ambient={"condition": "distinct_shadows"}, lights=[light])
    kind = advised_method(sun)
    units = units_for(sun, kind)
    failing = [one.code for one in fails(sun, kind, units, levels(sun, kind, units))]
    assert failing[0] == "nothing_to_bounce"
    assert "bounce_assumed" not in said(sun)
    assert not answer_of(sun, WORDS).right
    barn = solved(ambient={"condition": "open_shade"}, lights=[light], stage={"ceiling_m": 4})
    kind = advised_method(barn)
    units = units_for(barn, kind)
    assert "nothing_to_bounce" not in [one.code for one in fails(barn, kind, units, levels(barn, kind, units))]


def test_two_figures_that_print_alike_are_no_difference_and_a_light_without_bearing_is_looked_at_too() -> None:
    """The beam of 35 mm is 54.4 degrees; a field of 54.3 or 54.4 is not wider, one of 74 is."""

    def beams(subject_m: float, **light: Any) -> dict[str, dict[str, Any]]:
        aim = {"lens": {"focal_mm": 35, "subject_m": subject_m, "background_m": 60}}
        return said(solved(ambient={"condition": "dark"}, aim=aim, lights=[{"distance_m": subject_m} | light]))

    assert "beam_in_frame" not in beams(3.0)
    wide = {"focal_mm": 24, "subject_m": 3.0, "background_m": 60}
    for place in ({}, {"position": {"bearing_deg": 0, "height_m": 1.6}}):
        found = said(solved(ambient={"condition": "dark"}, aim={"lens": wide}, lights=[{"distance_m": 3.0} | place]))
        assert found["beam_in_frame"]["wanted"] == pytest.approx(73.7, abs=0.1)  # D: 24 mm sees 73.7 across


def test_a_lens_opens_and_closes_as_far_as_it_does() -> None:
    zoom = LensKit(name="Z", focal_mm=100, focal_most_mm=400, widest=4, widest_most=5.6, smallest=32)
    assert zoom.widest_at(100) == 4
    assert zoom.widest_at(400) == pytest.approx(5.6)
    assert zoom.widest_at(200) == pytest.approx(math.sqrt(4 * 5.6))
    assert [zoom.holds(one) for one in (99, 100, 400, 401)] == [False, True, True, False]
    on = {
        "lens": zoom.model_dump(),
        "aim": {"f_number": 2.8, "lens": {"focal_mm": 400, "subject_m": 12, "background_m": 40}},
    }
    setup = Setup.model_validate(on)
    assert setup.f_number == 5.6
    assert setup.apertures == (5.6, 32)
    note = answer_of(solve(setup, TABLE), WORDS).note
    assert "f/5.6 instead of the f/2.8 set: Z opens no wider." in note
    far = Setup.model_validate(
        on | {"aim": {"f_number": 8, "lens": {"focal_mm": 500, "subject_m": 12, "background_m": 40}}}
    )
    assert "Z has no 500 mm" in answer_of(solve(far, TABLE), WORDS).note
    bare = Setup.model_validate({"aim": {"f_number": 2.8}})
    assert bare.apertures == (1.0, 22.0)
    with pytest.raises(ValidationError):
        LensKit(name="Z", focal_mm=100, focal_most_mm=50)
    with pytest.raises(ValidationError):
        LensKit(name="Z", widest=8, smallest=4)


def test_automatics_know_what_a_leaf_shutter_reaches_at_their_aperture() -> None:
    """1/1000 wide open and 1/2000 from f/4 on: a programme at f/5.6 takes the faster, and syncs there."""
    leaf = {"name": "Leaf", "shutter": "leaf", "sync_s": 1 / 2000, "top_speed_s": 1 / 2000,
            "leaf_limits": [{"f_number": 2.8, "fastest_s": 1 / 1000}]}  # fmt: skip
    setup = Setup.model_validate({"body": leaf, "ambient": {"condition": "sand_or_snow"}, "aim": {"f_number": 2.8}})
    found = {one.mode: one for one in automatics(setup, ambient_of(setup.ambient))}
    assert found["aperture_priority"].camera.shutter_s == pytest.approx(1 / 1000)
    assert found["programme"].camera.shutter_s == pytest.approx(1 / 2000)
    assert not found["programme"].past_sync
    lens = {"lens": {"name": "L", "widest": 8, "smallest": 16}}
    closed = Setup.model_validate(setup.model_dump() | lens)
    assert {one.mode: one for one in automatics(closed, ambient_of(closed.ambient))}["programme"].camera.f_number == 8


def test_what_moves_is_measured_by_the_field_that_the_lens_sees() -> None:
    """A dancer at 6 m/s for 1/24 s crosses 0.25 m; of a frame 3.75 m wide that is 7 %."""
    aim = {"lens": {"focal_mm": 24, "subject_m": 2.5, "background_m": 60}}  # 36 / 24 x 2.5 = 3.75 m
    motion = {"kind": "trails", "mover": "dancer", "trail_s": 0.25 / 6}
    setup = Setup.model_validate({"aim": aim, "motion": motion})
    assert look.field_m(setup) == pytest.approx(3.75)
    assert look.trail_share(setup) == pytest.approx(0.25 / 3.75)
    told = setup.model_copy(update={"motion": setup.motion.model_copy(update={"field_width_m": 0.5})})
    assert look.trail_share(told) == pytest.approx(0.5)  # what was said stands


def test_no_layer_comes_off_a_bare_unit_and_a_light_that_cannot_be_used_gives_no_level() -> None:
    bare = {"distance_m": 2, "unit": UNITS[0].model_dump(mode="json")}
    built_in = next(unit for unit in UNITS if not unit.takes_modifiers)
    blocked = {"distance_m": 2, "unit": built_in.model_dump(mode="json"), "modifier": {"name": "Octa", "kind": "octa"}}
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 4}}
    found = solved(**dark, lights=[blocked])
    level = levels(found, "sync", units_for(found, "sync"))
    assert all(math.isinf(one) for each in level for one in each.lights)
    assert level[0].total == pytest.approx(level[0].ambient)
    assert "cannot be used" in answer_of(found, WORDS).verdict
    assert solved(**dark, lights=[bare]).kinds


def test_every_caution_has_words() -> None:
    light = {"distance_m": 2.5, "modifier": CEILING}
    found = solved(ambient={"condition": "office"}, lights=[light])
    units = units_for(found, "sync")
    words = [say_stage(one, WORDS) for one in stage_warnings(found, "sync", units, levels(found, "sync", units))]
    assert any("the way over it" in one.says for one in words)
