"""What makers print, line by line and sheet by sheet; and that nothing is guessed of what is shuffled, cut or noisy."""

import json
import os
import random
from typing import Any

import pytest

from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.learn.printed import efficacy_lm_w
from jumpstop.core.plan.learn.sheet import document
from jumpstop.formats.spec import read_spec
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.printed import spec_unit
from tables import DATA, rows

FUZZED = int(os.environ.get("SHEETS", "400"))  # `SHEETS=20000` tries them all


def table(name: str) -> list[tuple[str, dict[str, Any]]]:
    return [(line, json.loads(wanted)) for line, wanted in rows(name)]


def agrees(found: Any, wanted: Any) -> bool:
    """Of an object its named parts, of a figure to its third digit."""
    if isinstance(wanted, dict):
        return isinstance(found, dict) and all(key in found and agrees(found[key], one) for key, one in wanted.items())
    if isinstance(wanted, list):
        return len(found) == len(wanted) and all(map(agrees, found, wanted))
    if isinstance(wanted, (int, float)) and not isinstance(wanted, bool):
        return found == pytest.approx(wanted, rel=3e-3)
    return bool(found == wanted)


def right(line: str, wanted: dict[str, Any]) -> bool:
    """Whether a line says all that is wanted, and nothing else."""
    said: dict[str, list[Any]] = {}
    for unit in read_spec(f"Plover\n{line}"):
        for one in unit.said:
            if one.line == 2:
                said.setdefault(one.topic, []).append(one.value)
    if set(said) != set(wanted):
        return False
    for topic, value in wanted.items():
        many = value if isinstance(value, list) else [value]
        if not agrees(said[topic], many):
            return False
    return True


@pytest.mark.parametrize(("line", "wanted"), table("spec_lines"))
def test_a_line_says_what_its_maker_means_and_nothing_else(line: str, wanted: dict[str, Any]) -> None:
    assert right(line, wanted), [(one.topic, one.value) for unit in read_spec(f"Plover\n{line}") for one in unit.said]


@pytest.mark.parametrize(("line", "wanted"), table("spec_lines_more"))
def test_lines_written_after_the_reader(line: str, wanted: dict[str, Any]) -> None:
    assert right(line, wanted), [(one.topic, one.value) for unit in read_spec(f"Plover\n{line}") for one in unit.said]


SHEETS: list[dict[str, Any]] = json.loads((DATA / "spec_sheets.json").read_text("utf-8"))


@pytest.mark.parametrize("sheet", SHEETS, ids=[sheet["text"][0][:20] for sheet in SHEETS])
def test_a_whole_sheet_becomes_its_units(sheet: dict[str, Any]) -> None:
    found = read_spec("\n".join(sheet["text"]))
    assert len(found) == len(sheet["units"])
    for one, wanted in zip(found, sheet["units"], strict=True):
        unit = Unit.model_validate(document(one.said, {})).model_dump(mode="json")
        for key, value in wanted.items():
            assert agrees(unit[key], value), (key, unit[key])
        assert unit["name"] == wanted.get("name", unit["name"])
    assert [text for _, text in found[0].unread] == sheet["unread"]


def test_nothing_is_accepted_by_itself_of_what_is_shuffled_cut_or_noisy() -> None:
    """Each field stands beside a line of the sheet; what cannot be a unit is refused, and nothing else goes wrong."""
    dice = random.Random(24)
    lines = [line for line, _ in table("spec_lines")] + [line for sheet in SHEETS for line in sheet["text"]]
    noise = "0123456789.,/|\t;:()-–°€ mftsgGNWsISOé½\u202e\x00"
    for _ in range(FUZZED):
        sheet = [dice.choice(lines) for _ in range(dice.randrange(1, 14))]
        text = dice.choice(["\n", "\n", "; ", "\t", " | "]).join(sheet)
        for _ in range(dice.randrange(8)):
            at = dice.randrange(len(text) + 1)
            text = (
                text[:at]
                + "".join(dice.choice(noise) for _ in range(dice.randrange(6)))
                + text[at + dice.randrange(9) :]
            )
        whole = text.splitlines()
        for found in read_spec(text):
            assert all(1 <= one.line <= len(whole) for one in found.said)
            chosen = {dice.randrange(12): dice.randrange(6) for _ in range(dice.randrange(4))}
            shown = spec_unit(found, chosen, [dice.randrange(12)], "", DisplayUnits())
            assert len(shown.rows) == len(found.said)
            assert (shown.doc is None) == bool(shown.wants)


@pytest.mark.parametrize(
    ("claim", "energy", "lm_w"),
    [
        ({"guide_number": 36, "unit": "m", "zoom_mm": 35}, 76, 25),
        ({"guide_number": 75, "unit": "m", "coverage_deg": 65}, 400, 34.6),
        ({"guide_number": 60, "unit": "m", "zoom_mm": 35}, 76, 70),
        ({"guide_number": 60, "unit": "m", "zoom_mm": 200}, 76, 2.5),
    ],
)
def test_what_efficacy_a_claim_asks_for(claim: dict[str, Any], energy: float, lm_w: float) -> None:
    """D, physics 20."""
    assert efficacy_lm_w(Claim(**claim), energy) == pytest.approx(lm_w, rel=0.02)


def says(text: str) -> str:
    """What is wrong with a sheet."""
    return " ".join(spec_unit(read_spec(text)[0], {}, (), "", DisplayUnits()).judged)


@pytest.mark.parametrize(
    ("text", "wrong"),
    [
        ("GN 60 (m, ISO 100, 200 mm)", "GN 60 m is at 200 mm; at 35 mm about GN 31 m (26 m to 37 m)"),  # physics 20
        (
            "GN 60 (m, ISO 100, 35 mm), energy 76 Ws",
            "would need 71 lm/W, more than any flash tube gives",
        ),  # physics 20: 70
        ("GN 20 (m, ISO 100, 35 mm), energy 76 Ws", "is little for its energy"),
        ("GN 36 m; t.5 1/300 s, t.1 1/300 s", "t.1 1/300 s cannot belong to t.5 1/300 s"),
        (
            "GN 36 m; flash duration 1/300 s",
            "most likely t.5, since it has no name; what freezes is t.1, about 1/133 s",
        ),
        (
            "Energy 500 Ws; recycle 0.1 s (mains)",
            "5,000 W from a socket: that is after a flash at less than full power. After full power reckon with "
            "0.2 s or more",
        ),
        ("Energy 76 Ws; battery 11.1 V 2000 mAh; recycle 1.5 s; 2000 full power flashes", "421 to 789 is likely"),
        ("GN 36 m / 150 ft (ISO 100)", "150 ft is 45.7 m, not 36 m"),
        ("GN 58 m (35 mm), 40 m (105 mm)", "falls from 35 to 105 mm"),
    ],
)
def test_what_cannot_be_true_is_said_with_the_figure_that_follows(text: str, wrong: str) -> None:
    assert wrong in says(text)


def test_what_is_printed_well_is_not_judged() -> None:
    """Figures of physics 20 that are in order: 25 lm/W, 34.6 lm/W, t.1 by name, 0.55 of the pack."""
    assert says("GN 36 (m, ISO 100, 35 mm), energy 76 Ws, recycle 2.5 s, t.1 1/250 s") == ""
    assert says("GN 75 (m, ISO 100, 65°), energy 400 Ws, recycle 1 s, battery 80 Wh, 400 full power flashes") == ""


@pytest.mark.parametrize(
    ("text", "has"),
    [
        ("GN 58 m; power range 1/1 - 1/8192", {"scale": {"kind": "fraction", "lowest": 1 / 8192}, "kind": "shoe"}),
        ("GN 58 m; power range 1/1 - 1/16384", {"scale": {"kind": "fraction", "lowest": 1 / 8192}, "kind": "shoe"}),
        ("Energy 500 Ws; power range 2.0 - 10.0", {"scale": {"kind": "number", "top_number": 10, "lowest": 2**-8}}),
        ("Energy 149 Ws", {"kind": "shoe"}), ("Energy 150 Ws", {"kind": "monobloc"}),  # from memory
        ("Energy 160 Ws; zoom 24-105 mm", {"kind": "shoe", "zoom_min_mm": 24, "zoom_max_mm": 105}),
        # more than it gives
        ("GN 60 (m, ISO 100, 35 mm), energy 76 Ws", {"claims": [{"guide_number": 60, "sd": 0.6}]}),
        ("GN 36 (m, ISO 100, 35 mm), energy 76 Ws", {"claims": [{"guide_number": 36, "sd": None}]}),
        ("GN 60 m; recycle 1.2 s (mains); recycle 2 s (battery)",
        {"power_supplies": [{"recycle_full_s": 1.2}, {"recycle_full_s": 2}]}),
    ],
)  # fmt: skip
def test_what_a_unit_is_made_of_by_what_is_printed(text: str, has: dict[str, Any]) -> None:
    assert agrees(spec_unit(read_spec(text)[0], {}, (), "", DisplayUnits()).doc, has)


def test_two_readings_of_an_f_number_are_both_kept_or_one_is_chosen() -> None:
    """D, physics 20: f/22.7 at 2 m is GN 45.4 or 57.7, 0.69 stop apart."""
    (found,) = read_spec("f/22.7 at 2 m, ISO 100")
    both, low, high = (spec_unit(found, chosen, (), "", DisplayUnits()) for chosen in ({}, {0: 0}, {0: 1}))
    assert both.rows[0].choices == ["GN 45.4 (ISO 100, m)", "GN 57.7 (ISO 100, m)"]
    assert [one.doc["claims"][0]["guide_number"] for one in (both, low, high) if one.doc] == [51.2, 45.4, 57.7]
    assert both.doc
    assert both.doc["claims"][0]["sd"] == pytest.approx(0.69 / 2, abs=0.01)


def test_a_guide_number_without_a_unit_is_taken_only_where_its_energy_leaves_one() -> None:
    """60 with 76 Ws can only be metres, 190 only feet (physics 20); without an energy it is asked."""
    for text, unit in (("gn 60, 76 ws", "m"), ("gn 190, 76 ws", "ft"), ("gn 36 35 mm 76 ws", "m")):
        said = spec_unit(read_spec(text)[0], {}, (), "", DisplayUnits())
        assert said.doc
        assert said.doc["claims"][0]["unit"] == unit
        assert "the one that its energy allows" in said.rows[0].says
    (found,) = read_spec("gn 60")
    asked = spec_unit(found, {}, (), "", DisplayUnits())
    assert (asked.doc, asked.open, len(asked.rows[0].choices)) == (None, True, 2)
    feet = spec_unit(found, {0: 1}, (), "", DisplayUnits())
    assert feet.doc
    assert feet.doc["claims"][0]["unit"] == "ft"
    assert not feet.open
