"""A picture said in a line: sixty lines as photographers write them, and every setup said back as it was said."""

import json
import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from jumpstop.core.scene.light import OwnModifier, OwnUnit
from jumpstop.core.scene.said import with_parts
from jumpstop.core.scene.setup import OwnBody, OwnFilter, OwnLens, Setup
from jumpstop.demo import kit, setups
from jumpstop.formats.quantities import Sign
from jumpstop.formats.saying import SaidPicture, Sayable, read_picture
from jumpstop.service.saying import blank_like, places_of, said_setup
from jumpstop.words.figures import DecimalSign, DisplayUnits, speaking
from jumpstop.words.saying import part_words, said_of
from tables import rows

WORDS = DisplayUnits()
DOCS = kit()


def own(model: Any, kind: Any) -> list[Any]:
    return [model.model_validate(doc | {"id": f"{kind[0]}{at}"}) for at, doc in enumerate(DOCS[kind])]


KNOWN = Sayable(own(OwnUnit, "units"), own(OwnModifier, "modifiers"), own(OwnBody, "bodies"), own(OwnLens, "lenses"),
              own(OwnFilter, "filters"))  # fmt: skip
LINES = rows("said")


def understood(text: str, said: SaidPicture) -> list[str]:
    return [part_words(part, WORDS) for part in said.parts]


@pytest.mark.parametrize(("text", "means", "asks", "unread"), LINES)
def test_a_line_as_photographers_write_it(text: str, means: str, asks: str, unread: str) -> None:
    """Common practice, no source. What is asked and what is not understood is told by its words."""
    said = read_picture(text, Setup(), KNOWN)
    assert understood(text, said) == json.loads(means)
    assert [text[one.start : one.end] for one in said.questions] == json.loads(asks)
    assert [text[start:end] for start, end in said.unread] == json.loads(unread)


def test_sixty_lines_are_tried() -> None:
    assert len(LINES) >= 60


def told(setup: Setup) -> dict[str, Any]:
    """The figures of a setup that its own words tell."""
    aim, stage, lens = setup.aim, setup.stage, setup.aim.lens
    by_sun = setup.ambient.by == "sun"
    return {
        "light": (setup.ambient.clock, setup.ambient.sky) if by_sun else setup.ambient.condition,
        "subject": setup.ambient.subject,
        "look": (aim.f_number, aim.iso, round(aim.background_stops, 2), aim.orientation, aim.ratio),
        "lens": lens and (lens.focal_mm, round(lens.subject_m, 2), round(lens.background_m, 1)),
        "stage": (stage.kind, round(stage.height_m, 2), round(stage.camera_height_m, 2), stage.ceiling_m,
                  stage.wind_m_s and round(stage.wind_m_s, 1)),
        "group": stage.kind == "group" and (stage.people, round(stage.width_m, 2), round(stage.depth_m, 2)),
        "motion": (setup.motion.kind, setup.motion.mover if setup.motion.kind == "freeze" else "",
                   setup.motion.trail_s if setup.motion.kind == "trails" else 0),
        "shutter": setup.fixed.shutter_s,
        "frames": setup.frames,
        "lights": [(one.role, one.modifier and one.modifier.name, one.unit and one.unit.name, one.heads,
                    round(one.distance_m, 2), one.position and (one.position.bearing_deg,
                    round(one.position.height_m, 2)), round(one.target_stops, 2), one.gel, one.zoom_mm, one.dial_stops)
                   for one in setup.lights],
    }  # fmt: skip


def blank_for(setup: Setup) -> Setup:
    """A setup of which nothing is said but where it is, on which day: a line does not say these."""
    blank = blank_like(setup)
    if setup.ambient.by != "sun":
        return blank
    known = {"by": "sun", "place": setup.ambient.place, "day": setup.ambient.day}
    return blank.model_copy(update={"ambient": blank.ambient.model_copy(update=known)})


@pytest.mark.parametrize("setup", setups(), ids=lambda one: one.name)
def test_every_setup_of_the_demo_can_be_said(setup: Setup) -> None:
    text = said_of(setup, WORDS)
    said = read_picture(text, blank_for(setup), KNOWN)
    assert not said.questions, text
    assert not said.unread, [text[start:end] for start, end in said.unread]
    assert told(said_setup(blank_for(setup), said.parts)) == told(setup)


LIGHTS = st.fixed_dictionaries(
    {
        "distance_m": st.sampled_from([0.6, 1.0, 1.8, 2.5, 5.5, 12.0]),
        "heads": st.sampled_from([1, 1, 1, 2, 3]),
        "modifier": st.sampled_from([None, *(one for one in DOCS["modifiers"])]),
        "unit": st.sampled_from([None, *(one for one in DOCS["units"])]),
        "gel": st.sampled_from(["none", "none", "half_orange", "full_blue", "quarter_green"]),
        "target_stops": st.sampled_from([None, -2.0, -0.5, 0.0, 1.0]),
        "position": st.sampled_from([None, {"bearing_deg": -45.0, "height_m": 2.1}, {"bearing_deg": 140.0},
                                     {"bearing_deg": 0.0}, {"bearing_deg": 180.0, "height_m": 2.5}]),
    }
)  # fmt: skip
PICTURES = st.fixed_dictionaries(
    {
        "ambient": st.fixed_dictionaries(
            {
                "condition": st.sampled_from(["distinct_shadows", "hazy_sun", "office", "dark", "heavy_overcast",
                                              "open_shade", "sand_or_snow", "interior_night", "gallery"]),
                "subject": st.sampled_from(["sun", "back", "shade", "panel"]),
            }
        ),
        "aim": st.fixed_dictionaries(
            {
                "f_number": st.sampled_from([1.4, 2.8, 4, 5.6, 8, 9, 11, 16]),
                "iso": st.sampled_from([50, 100, 640, 6400, 12800]),
                "background_stops": st.sampled_from([-3.0, -1.5, -1.0, 0.0, 0.5, 1.0]),
                "ratio": st.sampled_from([None, 2, 3.5, 8]),
                "orientation": st.sampled_from(["landscape", "grip_up"]),
                "lens": st.sampled_from([None, {"focal_mm": 85, "subject_m": 2.5, "background_m": 60},
                                         {"focal_mm": 24, "subject_m": 4.25, "background_m": 5}]),
            }
        ),
        "motion": st.sampled_from([{"kind": "none"}, {"kind": "freeze", "mover": "dancer"},
                                   {"kind": "freeze", "mover": "fall"}, {"kind": "trails", "trail_s": 0.5}]),
        "fixed": st.sampled_from([{}, {"shutter_s": 1 / 200}, {"shutter_s": 1 / 1000}]),
        "stage": st.sampled_from([{}, {"kind": "animal", "height_m": 0.3}, {"ceiling_m": 2.6, "wind_m_s": 6.0},
                                  {"kind": "group", "people": 12, "width_m": 4.5, "depth_m": 1.2}]),
        "lights": st.lists(LIGHTS, min_size=1, max_size=4),
    }
)  # fmt: skip
ROLES = ("key", "fill", "rim", "background")
USUAL = {"key": 0.0, "fill": -2.0, "rim": 0.5, "background": 0.0}


def test_a_group_stands_in_two_rows_where_nothing_is_said() -> None:
    """Common practice, no source: 60 cm of a row each; a metre at the least."""
    for people, wide in ((22, 6.6), (9, 2.7), (2, 1.0)):
        stage = said_setup(Setup(), read_picture(f"team of {people}", Setup(), KNOWN).parts).stage
        assert (stage.kind, stage.people, stage.width_m) == ("group", people, pytest.approx(wide))


@settings(max_examples=60, deadline=None, phases=[Phase.explicit, Phase.reuse, Phase.generate])
@given(PICTURES)
def test_a_setup_said_in_its_own_words_reads_back_as_itself(doc: dict[str, Any]) -> None:
    for role, light in zip(ROLES, doc["lights"], strict=False):
        light |= {"role": role}
        if light["target_stops"] is None:
            light["target_stops"] = USUAL[role]
    setup = Setup.model_validate(doc)
    signs: tuple[tuple[DecimalSign, Sign], ...] = (("either", ""), ("point", "."), ("comma", ","))
    for way, sign in signs:
        with speaking(way):
            text = said_of(setup, WORDS)
        said = read_picture(text, blank_like(None), KNOWN, decimal=sign)
        assert not said.questions, text
        assert not said.unread, (text, [text[start:end] for start, end in said.unread])
        assert told(said_setup(blank_like(None), said.parts)) == told(setup), text


@settings(max_examples=60, deadline=None)
@given(
    st.text(max_size=60),
    st.lists(
        st.sampled_from(["octa", "45 left", "at", "1.8 m", ",", "two lights", "noon", "f/8", "rim", "x" * 40, "1/4"]),
        max_size=8,
    ),
)
def test_no_text_breaks_it_and_no_word_is_lost(text: str, more: list[str]) -> None:
    """Every word is understood, asked about, told as not understood, or says nothing by itself."""
    line = f"{text} {' '.join(more)}"
    said = read_picture(line, Setup(), KNOWN)
    spans = [(one.start, one.end) for one in said.pieces]
    spans += [*((one.start, one.end) for one in said.questions), *said.unread]
    assert all(0 <= start < end <= len(line) for start, end in spans)
    ordered = sorted(spans)
    assert all(one[1] <= other[0] for one, other in pairwise(ordered))
    Setup.model_validate(with_parts(Setup(), said.parts).model_dump())


def after(text: str, chosen: dict[int, int] | None = None) -> Setup:
    """The setup that a line makes of the usual one."""
    return said_setup(Setup(), read_picture(text, Setup(), KNOWN, chosen).parts)


TWICE = ("f/4 | f/8", "ISO 200 | ISO 400", "1/125 | 1/250", "85 mm | 50 mm", "subject 2 m | subject 3 m",
         "background 20 m | background 30 m", "1 under | 2 under", "2:1 | 3:1", "upright | landscape", "hss | at sync",
         "1.8 m tall | 1.6 m tall", "ceiling 3 m | ceiling 4 m", "wind 2 m/s | wind 5 m/s", "20 frames | 30 frames",
         "key 2 m | key 3 m", "key 45 left | key 30 right", "key 1/4 power | key 1/8 power",
         "key 2 m up | key 3 m up", "key 1 under | key 1 over", "key half cto | key full cto",
         "camera 1 m up | camera 2 m up")  # fmt: skip


@pytest.mark.parametrize("both", TWICE)
def test_a_second_figure_of_the_same_is_asked_and_never_put_in_the_place_of_the_first(both: str) -> None:
    first, second = both.split(" | ")
    text = f"{first}, {second}"
    question = read_picture(text, Setup(), KNOWN).questions[0]
    assert question.again
    assert text[question.start :] in second
    assert after(text, {question.start: 0}) == after(second)
    assert after(text, {question.start: 1}) == after(first)
    assert after(f"{first}, {first}") == after(first)


def test_of_the_light_that_is_there_one_figure_stands() -> None:
    question = read_picture("500 lx, EV 5", Setup(), KNOWN).questions[0]
    assert [after("500 lx, EV 5", {question.start: at}).ambient.by for at in range(2)] == ["reading", "lux"]


def test_filters_that_are_said_one_by_one_can_be_meant_together() -> None:
    question = read_picture("ND8, 2 stops ND", Setup(), KNOWN).questions[0]
    found = [after("ND8, 2 stops ND", {question.start: at}).fixed.nd for at in range(3)]
    assert [one and one.stops for one in found] == [2, 5, 3]


def test_an_aperture_that_is_said_of_a_fill_can_be_what_a_meter_reads_of_it() -> None:
    for text, stops in (("f/8, fill at f/5.6", -1), ("f/8, rim f/11", 1), ("f/2.8, fill at f/2", -1)):
        question = read_picture(text, Setup(), KNOWN).questions[0]
        found = after(text, {question.start: 0})
        assert [one.target_stops for one in found.lights if one.role in ("fill", "rim")] == [stops]
        assert found.aim.f_number == float(text[2:].partition(",")[0])


def test_what_counts_from_something_else_may_be_said_before_it() -> None:
    for text in ("background 8 m behind, subject 2 m", "subject 2 m, background 8 m behind the subject"):
        lens = after(text).aim.lens
        assert lens is not None
        assert (lens.subject_m, lens.background_m) == (2, 10)
    for text in ("meter 5.6 at 1/125, ISO 400", "ISO 400, meter reads f/5.6 1/125"):
        light = after(text).ambient
        assert (light.by, light.readings[0].iso, light.readings[0].of) == ("reading", 400, "background")
    rows = after("group of 30 in 3 rows").stage
    assert (rows.people, rows.width_m, round(rows.depth_m, 3)) == (30, 6, 1.6)  # 0.6 m a person, 0.8 m a row


@pytest.mark.parametrize("of", ["background", "subject", "shade"])
@pytest.mark.parametrize("seconds", [1 / 125, 2, 0.5])
def test_a_metered_light_is_said_and_read_back(of: str, seconds: float) -> None:
    read = {"f_number": 5.6, "shutter_s": seconds, "iso": 400, "of": of}
    setup = Setup.model_validate({"ambient": {"by": "reading", "readings": [read]}})
    said = read_picture(said_of(setup, WORDS), Setup(), KNOWN)
    assert not said.unread
    assert not said.questions
    assert said_setup(Setup(), said.parts).ambient.readings == setup.ambient.readings


@pytest.mark.parametrize("ev", [-3.5, 0, 5, 12, 15.3, 17])
def test_a_light_that_is_said_as_ev_is_a_reading_of_it(ev: float) -> None:
    """ISO 2720: EV at ISO 100 is log2 of N² / t, by the exact figures behind the marks."""
    read = after(f"EV {ev}").ambient.readings[0]
    assert read.ev == pytest.approx(ev, abs=0.01)
    assert math.log2(read.f_number**2 / read.shutter_s) + read.needle_stops == pytest.approx(ev, abs=0.1)
    assert abs(read.needle_stops) < 0.35  # the marks themselves are as near as they come


def test_a_time_of_day_wants_a_place_and_is_asked() -> None:
    by_sun = next(one for one in setups() if one.ambient.by == "sun")
    known = Sayable(places=places_of([by_sun.ambient.model_dump(mode="json")]))
    asked = read_picture("f/4, noon", Setup(), known)
    (question,) = asked.questions
    assert question.place
    assert [option[0].code for option in question.options] == ["at_place", "condition"]
    answered = read_picture("f/4, noon", Setup(), known, {question.start: 0})
    made = said_setup(Setup(), answered.parts)
    assert (made.ambient.by, made.ambient.place, made.ambient.clock.hour) == ("sun", by_sun.ambient.place, 12)
    eye = said_setup(Setup(), read_picture("f/4, noon", Setup(), known, {question.start: 1}).parts)
    assert (eye.ambient.by, eye.ambient.condition) == ("condition", "distinct_shadows")
    there = read_picture("f/4, noon", by_sun, known)
    assert not there.questions
    assert said_setup(by_sun, there.parts).ambient.clock.hour == 12


def test_what_is_said_changes_only_that_of_the_setup_in_hand() -> None:
    """The light in hand is meant where no role is named; others stay as they are."""
    bench = next(one for one in setups() if len(one.lights) == 3)
    made = said_setup(bench, read_picture("1/8 power, 30 right", bench, KNOWN).parts, 2)
    assert made.lights[2].dial_stops == 3
    assert made.lights[2].position is not None
    assert made.lights[2].position.bearing_deg == 30
    assert made.lights[:2] == bench.lights[:2]
    rim = said_setup(bench, read_picture("rim 1 over at 3 m", bench, KNOWN).parts)
    assert [one.target_stops for one in rim.lights] == [0.0, 1.0, -2.0]
    assert rim.lights[1].distance_m == 3
    assert (rim.lights[0], rim.lights[2], rim.aim) == (bench.lights[0], bench.lights[2], bench.aim)
    hand = said_setup(bench, read_picture("bare at 3 m", bench, KNOWN).parts, 2)
    assert hand.lights[2].modifier is None
    assert hand.lights[:2] == bench.lights[:2]
    more = said_setup(bench, read_picture("background light at 2 m", bench, KNOWN).parts)
    assert [one.role for one in more.lights] == ["key", "rim", "fill", "background"]
    assert len({one.id for one in more.lights}) == 4


def test_two_lights_ask_what_the_second_is_for_and_two_heads_are_of_one() -> None:
    two = read_picture("two lights", Setup(), KNOWN)
    (question,) = two.questions
    assert {part.facts.get("role") for option in question.options for part in option} >= {"fill", "rim"}
    fill = said_setup(Setup(), read_picture("two lights", Setup(), KNOWN, {question.start: 0}).parts)
    assert [one.role for one in fill.lights] == ["key", "fill"]
    heads = said_setup(Setup(), read_picture("two heads at 5.5 m", Setup(), KNOWN).parts)
    assert [(one.heads, one.distance_m) for one in heads.lights] == [(2, 5.5)]


def test_a_background_counts_from_the_camera_and_a_figure_that_cannot_be_is_refused() -> None:
    made = said_setup(Setup(), read_picture("85 mm, background 60 m", Setup(), KNOWN).parts)
    assert made.aim.lens is not None
    assert made.aim.lens.background_m == 60
    near = said_setup(Setup(), read_picture("85 mm, subject at 12 m", Setup(), KNOWN).parts)
    assert near.aim.lens is not None
    assert near.aim.lens.background_m > 12
    with pytest.raises(ValueError, match="near"):
        said_setup(Setup(), read_picture("400 mm, subject at 30 cm", Setup(), KNOWN).parts)
