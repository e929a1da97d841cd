"""Cards that cannot contradict: one answer in headline, table, ladder, checks and hours; and drawings to send along."""

import itertools
import re
from datetime import datetime
from typing import Any
from xml.etree import ElementTree

import pytest

from jumpstop import service
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.scene.job import JobFile
from jumpstop.core.scene.log import LogEntry
from jumpstop.formats.cards_page import cards_page
from jumpstop.formats.drawing import above, frame
from jumpstop.words.cards import Card, cards_of
from jumpstop.words.figures import DisplayUnits

FLASH = {
    "name": "Flash", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}], "hss": {},
    "power_supplies": [{"kind": "aa", "recycle_full_s": 3, "full_flashes": 200}],
}  # fmt: skip
OFFICE = {"ambient": {"condition": "office"}, "aim": {"f_number": 4, "iso": 400, "background_stops": -1}}
SUN = {
    "ambient": {"by": "sun", "place": {"name": "Downs", "latitude": 51, "longitude": -1, "zone": "Europe/London"},
                "day": "2026-06-24", "clock": "12:00", "sky": "clear", "subject": "back"},
    "aim": {"f_number": 4, "background_stops": -1},
}  # fmt: skip


def cards(*setups: dict[str, Any], **job: Any) -> list[Card]:
    docs = [{"id": f"s{at}", "setup": {"name": f"S{at}"} | setup} for at, setup in enumerate(setups)]
    file = JobFile.model_validate({"job": {"name": "J"} | job, "setups": docs})
    plans = service.cards(file, Shelf([Unit.model_validate(FLASH)]))
    return cards_of(plans, "j", file.job, DisplayUnits(), LogEntry(at=datetime(2026, 6, 24, 9)))


@pytest.mark.parametrize("own", [None, -0.3])
def test_an_automatic_light_has_one_compensation_everywhere(own: float | None) -> None:
    dark = OFFICE | {"ambient": {"condition": "dark"}}
    (card,) = cards(dark | {"lights": [{"role": "key", "automatic": True, "compensation_stops": own}]})
    told = re.findall(r"compensation ([+−]?\d\.\d)", card.says)
    assert len(told) == 1
    assert card.lights[0].dial == f"automatic, {told[0]}"
    number = float(told[0].replace("−", "-"))
    for said, more in ((card.under, 1), (card.over, -1)):
        (then,) = re.findall(r"compensation ([+−]?\d\.\d)", said)
        assert float(then.replace("−", "-")) == pytest.approx(number + more)
    assert card.ladder is None  # it has no dial
    assert not card.pocket.lights
    assert any(line.startswith("Automatic through the lens") for line in card.preflight)
    assert "Units on manual power" not in card.preflight


def test_checks_do_not_contradict_each_other() -> None:
    two = [{"sends": True, "automatic": True}, {"role": "fill", "target_stops": -1}]
    (mixed,) = cards(OFFICE | {"trigger": "optical", "lights": two})
    assert not any(line.startswith("No pre-flash") for line in mixed.preflight)
    assert any("pass over the pre-flash" in line for line in mixed.preflight)
    assert "The other units on manual power" in mixed.preflight
    (plain,) = cards(OFFICE | {"trigger": "optical", "lights": [{"sends": True}, two[1]]})
    assert any(line.startswith("No pre-flash") for line in plain.preflight)
    assert plain.lights[-1].fired.startswith("on the camera")
    trails = {"ambient": {"condition": "interior_night"}, "motion": {"kind": "trails", "trail_s": 0.5}}
    (drawn,) = cards(trails | {"aim": {"f_number": 8}, "lights": [{}]})
    assert "Rear curtain, for trails" in drawn.preflight
    assert "First curtain" not in drawn.preflight
    assert "First curtain" in plain.preflight


def test_a_light_at_the_camera_is_not_towards_the_camera_and_colour_is_on_every_card() -> None:
    for card in cards(
        OFFICE | {"lights": [{"position": {"bearing_deg": 0, "height_m": 1.7}, "gel": "half_orange"}]},
        SUN | {"lights": [{}]},
    ):
        assert "White balance" in card.balance
        assert "towards the camera" not in card.lights[0].place
    (gelled, _) = cards(OFFICE | {"lights": [{"gel": "half_orange"}]}, SUN)
    assert "half orange" in gelled.lights[0].through


def test_hours_are_those_of_the_sessions_and_equal_rows_are_one() -> None:
    setup = SUN | {"lights": [{}]}
    (whole,) = cards(setup, begins="08:00", ends="20:00")
    session = {"setup": "s0", "people": 10, "frames_each": 10, "minutes_each": 12, "start": "10:15", "change_min": 0}
    (turn,) = cards(setup, begins="08:00", ends="20:00", sessions=[session])
    assert whole.hours is not None
    assert turn.hours is not None

    def clocks(card: Card) -> list[str]:
        assert card.hours is not None
        return [clock for row in card.hours.skies[0].hours for clock in row.clock.split(" to ")]

    assert (clocks(whole)[0], clocks(whole)[-1]) == ("08:00", "20:00")
    assert (clocks(turn)[0], clocks(turn)[-1]) == ("10:15", "12:00")  # ten people of twelve minutes: until 12:15
    rows = whole.hours.skies[0].hours
    told = [(row.method, row.settings, row.dial, row.reaches) for row in rows]
    assert all(a != b for a, b in itertools.pairwise(told))
    assert any(" to " in row.clock for row in rows)
    assert "Sun: " in turn.sky
    assert "Cloud: " in turn.sky


def test_drawings_stand_by_themselves_and_take_text_as_text() -> None:
    lights = [
        {"distance_m": 1.8, "position": {"bearing_deg": 40, "height_m": 2.1}},
        {"role": "rim", "distance_m": 2.5, "position": {"bearing_deg": 150, "height_m": 2.4}},
        {"role": "fill", "on": False},
    ]
    stage = {"left_wall_m": 2.0, "camera_looks_deg": 0}
    (card,) = cards(OFFICE | {"name": '"><script>x</script>', "lights": lights, "stage": stage})
    drawing = ElementTree.fromstring(above(card.stage, card.name))
    written = [one.text for one in drawing.iter() if one.tag.endswith("text")]
    assert {"1", "2", "1.8 m, 2.1 m up", "2.5 m, 2.4 m up"} <= set(written)
    assert "3" not in written
    assert "script" not in {one.tag.split("}")[1] for one in drawing.iter()}
    assert [light.number for light in card.lights] == [2, 1]  # back to front, numbered as in the drawing
    picture = ElementTree.fromstring(frame(card.stage, card.name))
    assert len([one for one in picture.iter() if one.tag.endswith("path")]) == 1 + 2  # the horizon, two sides
    team = {"stage": {"kind": "group", "people": 5, "width_m": 3}, "lights": [{"distance_m": 4}]}
    (group,) = cards(OFFICE | team)
    shapes = ElementTree.fromstring(frame(group.stage, "team")).iter()
    assert len([one for one in shapes if one.tag.endswith("path")]) == 1 + 2 * 5
    page = cards_page("J", [card, group], "now", job="j1")
    assert page.count("<svg") == 4
    assert "<script>x" not in page


def test_what_is_written_on_a_drawing_lies_over_nothing_else() -> None:
    lights = [{"distance_m": 1.5 + at / 10, "position": {"bearing_deg": 30 + 4 * at, "height_m": 2}} for at in range(6)]
    (card,) = cards(OFFICE | {"lights": [light | {"role": "fill"} for light in lights]})
    boxes = []
    for one in ElementTree.fromstring(above(card.stage, "x")).iter():
        if one.tag.endswith("text") and " m" in (one.text or ""):
            left, low = float(one.attrib["x"]), float(one.attrib["y"])
            boxes.append((left, left + len(one.text or "") * 6.0, low - 9, low + 2))
    assert len(boxes) >= 4
    for at, a in enumerate(boxes):
        assert a[0] >= 0
        assert a[1] <= 340
        for b in boxes[at + 1 :]:
            assert a[1] <= b[0] or b[1] <= a[0] or a[3] <= b[2] or b[3] <= a[2]
