"""The words: every code has its sentence, figures are said as the trade says them, a person's text stays."""

import ast
import json
import re
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import jumpstop
from jumpstop.core.kit.power import PowerScale
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, Hss, HssEntry, Unit
from jumpstop.core.plan.camera.day import day_of
from jumpstop.core.plan.camera.timing import of_unit
from jumpstop.core.plan.change.ranking import WORK
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.light.chain import EFFECTS
from jumpstop.core.plan.light.reach import BLOCKERS, solve
from jumpstop.core.scene.ambient import AmbientSpec
from jumpstop.core.scene.place import Place
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from jumpstop.store.file import FAULTS
from jumpstop.words import effects, methods, problems, refusals, warnings
from jumpstop.words.answer import Answer, answer_of
from jumpstop.words.cautions import CAUTIONS
from jumpstop.words.comes_out import CLAUSES
from jumpstop.words.day import day_text
from jumpstop.words.day_plan import MOVED, WRONG
from jumpstop.words.figures import (
    DisplayUnits,
    amount,
    dial,
    duration,
    f_number,
    guide_number,
    length,
    listed,
    marked,
    nd,
    power,
    recycling,
    shutter,
    speed,
    stops,
)
from jumpstop.words.hands import HANDS
from jumpstop.words.kit import printed
from jumpstop.words.lanes import steps_of
from jumpstop.words.levers import DIFFERS, MOVES
from jumpstop.words.printed import JUDGED
from jumpstop.words.stage_warnings import STAGE_WARNINGS
from jumpstop.words.timing import timing_text

PACKAGE = Path(jumpstop.__file__ or "").parent
CORE = PACKAGE / "core"
FEET, METRES = DisplayUnits(length="ft"), DisplayUnits()


def codes(*functions: str, under: Path = CORE, at: int = 0) -> set[str]:
    """What stands first (or second) in all calls of these functions in the core, or elsewhere."""
    found = set[str]()
    for file in under.rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") in functions and len(node.args) > at:
                code = node.args[at]
                found |= {str(code.value)} if isinstance(code, ast.Constant) else set()
    return found


def test_every_code_has_a_sentence_and_no_sentence_is_left_over() -> None:
    assert effects.SENTENCES.keys() == EFFECTS.keys()
    told = methods.REMARKS.keys() | warnings.WARNINGS.keys() | STAGE_WARNINGS.keys() | HANDS.keys() | WRONG.keys()
    told |= CLAUSES.keys() | DIFFERS.keys() | MOVED.keys() | JUDGED.keys() | CAUTIONS.keys()
    assert codes("remark") | {"f_number", "shutter_s", "iso"} == told | {"dial"}
    said = codes("refuse", "CannotSolve") | {
        "no_such_light", "no_usable_unit", "unreadable_setup", "no_setups", "job_without_day",
    }  # fmt: skip
    assert said == problems.SENTENCES.keys()
    errors = ("UnreadableFile", "TooMany", "NotFound", "TooMuch", "Busy", "StorageFault", "InUse", "Overtaken")
    said = codes(*errors, "JumpStopError", "sentence", under=PACKAGE) | codes("_BadCellError", under=PACKAGE, at=1)
    said |= {code for _, code in FAULTS.values()} | {"changed_meanwhile"}  # of a Conflict, whatever the document
    assert said == refusals.REFUSALS.keys()
    assert not refusals.REFUSALS.keys() & problems.SENTENCES.keys()
    assert set(BLOCKERS) == methods.UNIT_BLOCKERS.keys()
    assert MOVES.keys() == WORK.keys()


@pytest.mark.parametrize(
    ("said", "words"),
    [
        (length(1.8, METRES), "1.8 m"), (length(1.8, FEET), "5.9 ft"), (length(20, FEET), "66 ft"),
        (length(250.4, METRES), "250 m"), (length(2.431, METRES, fine=True), "2.43 m"),
        (length(float("inf"), FEET), "infinity"),
        (speed(3.5, METRES), "3.5 m/s"), (speed(3.5, FEET), "11.5 ft/s"),
        (guide_number(36, METRES), "GN 36 m"), (guide_number(36, FEET), "GN 118 ft"),
        (guide_number(36, METRES, 1), "GN 36.0 m"),
        (shutter(1 / 250), "1/250 s"), (shutter(1 / 3963), "1/3960 s"), (shutter(0.5), "0.5 s"), (shutter(4), "4 s"),
        (shutter(1 / 6), "1/6 s"),
        (marked(22.63), "22"), (marked(5.657), "5.6"), (marked(22.63 * 2**0.15), "22 and 3 tenths"),
        (marked(8.28), "8 and 1 tenth"),
        (f_number(2.8), "f/2.8"), (f_number(0.95), "f/0.95"), (f_number(1.0), "f/1"), (f_number(8), "f/8"),
        (f_number(11.3), "f/11"),
        (nd(3), "3 stops (ND8, 0.9)"), (nd(1), "1 stop (ND2, 0.3)"), (nd(10), "10 stops (ND1024, 3.0)"),
        (stops(1.34), "+1.3"), (stops(-0.66), "−0.7"), (stops(-0.01), "0.0"),
        (amount(-0.7), "0.7 stop"), (amount(1.3), "1.3 stops"), (amount(1), "1.0 stop"),
        (recycling(0.05), "ready at once"), (recycling(1.44), "recycles in 1.4 s"),
        (duration(0.05), "at once"), (duration(1.44), "1.4 s"), (duration(12.2), "12 s"), (duration(200), "3 min"),
        (power(0), "1/1"), (power(2), "1/4"), (power(8 / 3), "1/8 + ⅓"), (power(5 / 3), "1/4 + ⅓"),
        (power(4 / 3), "1/4 + ⅔"),
        (power(1.5), "1/4 + ½"), (power(2.8), "1/8 + 0.2"), (power(7.002), "1/128"), (power(0.99), "1/2"),
        (listed(["a"]), "a"), (listed(["a", "b", "c"]), "a, b or c"),
    ],
)  # fmt: skip
def test_figures(said: str, words: str) -> None:
    assert said == words


@given(
    st.floats(0, 13), st.floats(0.05, 2), st.sampled_from(["fraction", "number", "ws"]), st.sampled_from([None, 60.0])
)
def test_a_dial_says_what_it_is_set_to(below: float, step: float, kind: str, ws: float | None) -> None:
    scale = PowerScale(kind=kind, step_stops=step, lowest=1 / 8192)
    text = dial(scale, below, METRES, ws)
    if text.endswith("Ws"):
        assert float(text[:-3]) == pytest.approx(60 * 2**-below, abs=0.51)
    elif kind == "number":
        assert 10 - float(text.removesuffix(" of 10")) == pytest.approx(below, abs=0.051)
    else:
        fraction, _, rest = text.partition(" + ")
        part = {"⅓": 1 / 3, "⅔": 2 / 3, "½": 0.5, "": 0.0}.get(rest)
        between = part if part is not None else float(rest)
        assert int(fraction.split("/")[1]) == pytest.approx(2 ** (below + between), rel=0.075)


def test_power_in_the_persons_own_way() -> None:
    scale = PowerScale(kind="number", top_number=9)
    said = [dial(scale, 2, DisplayUnits(power=way), 400) for way in ("own", "fraction", "number", "ws")]
    assert said == ["7.0 of 9", "1/4", "7.0 of 9", "100 Ws"]


ODD = "a {name} {0} {name:>9} %s %(x)s <b>&amp; “q” 'q' \\ ‮rtl"
"""What a person may write: braces, per cent signs, markup, quotes, a right-to-left mark."""


def odd_setup() -> Setup:
    """Every text of a setup set to what would run, break or turn a careless program."""
    base = json.loads(setups()[0].model_dump_json())

    def odd(value: object, key: str = "") -> object:
        if isinstance(value, dict):
            return {k: odd(v, k) for k, v in value.items()}
        if isinstance(value, list):
            return [odd(one, key) for one in value]
        return ODD if key in ("name", "note", "reflector") and isinstance(value, str) else value

    return Setup.model_validate(odd(base))


def odd_unit() -> Unit:
    return Unit(
        name=ODD, note=ODD, claims=(Claim(guide_number=90, unit="m", zoom_mm=35, reflector=ODD),),
        hss=Hss(table=(HssEntry(shutter_s=1 / 1000, loss_stops=2.7),)),
    )  # fmt: skip


def texts(value: object) -> list[str]:
    return re.findall(
        r'"((?:[^"\\]|\\.)*)"', json.dumps(value, default=lambda o: {n: getattr(o, n) for n in o.__slots__})
    )


def test_what_a_person_wrote_is_said_letter_for_letter() -> None:
    """In every sentence of an answer, of a chain, of a kit line and of a refusal, and never run as a template."""
    solved = solve(odd_setup(), table_of([odd_unit()]))
    answer = answer_of(solved, METRES)
    assert ODD in answer.headline
    assert answer.compared == ODD
    assert next(m for m in answer.methods if m.kind == "nd").costs.startswith(f"{ODD}: 5 stops")
    causes = [arc.cause for arc in answer.arcs]
    assert causes.count(ODD) == 2  # the modifier and its layer
    for kind in solved.kinds:
        for step in steps_of(solved.reach(kind), 0, METRES):
            if step.effect in ("modifier", "layer"):
                assert step.cause == ODD
                assert step.why.startswith(ODD)
            if step.effect == "rated_output":
                assert ODD in step.why
    assert printed(odd_unit().claims[0]).endswith(f"{ODD})")
    assert ODD in timing_text(solved.reach("nd"), 0).unit


def answer(**change: object) -> Answer:
    of = Setup.model_validate({"ambient": {"subject": "shade"}, "aim": {"f_number": 8, "background_stops": 0}} | change)
    return answer_of(solve(of, table_of([Unit.model_validate(doc) for doc in kit()["units"]])), METRES)


def test_the_headline_is_the_verdict() -> None:
    assert re.fullmatch(r"\d of 12 units reach\. The lightest that does, .+, at .+\.", answer().headline)
    far = answer(lights=[{"distance_m": 60}]).headline
    assert re.fullmatch(r"No unit on this shelf reaches\. The nearest, .+, is \d\.\d stops short\.", far)
    near = answer(lights=[{"distance_m": 0.05}], ambient={"condition": "dark"}, aim={"f_number": 2}).headline
    assert near.startswith("Every unit that has the light is too bright even at its lowest power; ")
    assert answer(method="leaf").note == (
        "Leaf shutter is fixed, but not possible: A body has a focal-plane shutter. Shown: High-speed sync."
    )
    edge = answer(lights=[{"distance_m": 0.3, "heads": 2}], motion={"kind": "freeze", "mover": "ball"}, method="freeze")
    assert edge.headline.startswith("No unit can be used: ")
    alone = solve(
        Setup(), table_of([Unit(name="Solo", claims=(Claim(guide_number=99, unit="m", zoom_mm=35),), hss=Hss())])
    )
    assert answer_of(alone, METRES).headline.startswith("Solo reaches, at ")


def test_too_bright_says_by_how_much_and_what_cures_it() -> None:
    found = answer(lights=[{"distance_m": 0.2}], ambient={"condition": "dark"}, aim={"f_number": 8})
    assert found.lanes is not None
    at = found.lanes.word.index("too_bright")
    assert found.lanes.verdict[at] == "too bright"
    assert re.fullmatch(
        r"even at 1/\d+.*, by \d\.\d stops?: (stop down to f/[\d.]+, )?"
        r"step back to [\d.]+ m or put something in front of it",
        found.lanes.dial_note[at],
    )


def test_methods_say_what_they_cost_for_one_unit() -> None:
    found = {
        method.kind: method
        for method in answer(
            aim={"f_number": 2.8, "background_stops": -1}, filters=[{"name": "ND", "stops": 5}]
        ).methods
    }
    assert found["nd"].against == "no method leaves it more"
    assert re.fullmatch(r"\d\.\d stops? less in hand than (ND at sync|stop down)", found["hss"].against)
    assert found["hss"].metered.startswith("no flash meter reads it")
    assert re.fullmatch(r"[\d.]+ times the charge and recycle time of the best method|", found["hss"].charge)
    assert found["sync"].reason == "The background would be 5.0 stops too bright at 1/250 s."
    assert found["sync"].judgement == ""


def test_hss_says_that_the_shutter_freezes_and_how_much_blur_is_left() -> None:
    leap = {"kind": "freeze", "mover": "leap", "field_width_m": 4}
    sharp = {m.kind: m.judgement for m in answer(motion=leap, aim={"f_number": 5.6, "background_stops": 0}).methods}
    assert (
        "The shutter freezes it, not the flash: 0.03 mm of blur on the sensor, where 0.03 is tolerable." in sharp["hss"]
    )
    assert "Does not freeze: the ambient draws beside the flash." in sharp["stop_down"]
    soft = {m.kind: m.judgement for m in answer(motion=leap).methods}
    assert (
        "The shutter leaves 0.06 mm of blur on the sensor, where 0.03 is tolerable; 1/1050 s freezes it fully."
        in soft["hss"]
    )


def test_feet_are_said_in_every_sentence() -> None:
    spec = {
        "by": "sun",
        "place": {"latitude": 50.9, "longitude": -0.1, "zone": "Europe/London"},
        "day": "2026-06-24",
        "subject": "panel",
    }
    of = Setup.model_validate({
        "ambient": spec, "motion": {"kind": "freeze", "mover": "leap", "field_width_m": 4},
        "aim": {"f_number": 4, "lens": {"focal_mm": 85, "subject_m": 3, "background_m": 30}},
        "lights": [{"distance_m": 2}],
    })  # fmt: skip
    found = answer_of(solve(of, table_of([odd_unit()])), FEET)
    said = " ".join(
        [found.motion, found.blur, *(place.says for place in found.placements), *(arc.cause for arc in found.arcs)]
    )
    assert not re.search(r"\d m(?:/s)?\b", said)
    assert "11.5 ft/s" in found.motion
    assert "6.6 ft" in [arc.cause for arc in found.arcs]


@pytest.mark.parametrize(
    ("spec", "said"),
    [
        ({"condition": "hazy_sun"}, "Light-value table: hazy sun, soft shadows, EV 14 ± 0.5."),
        ({"by": "lux", "lux": 80_000}, "80,000 lx on a flat meter is EV 15.0 at ISO 100."),
        (
            {"by": "reading", "readings": [{"f_number": 8}]},
            "Background as metered. Not metered: subject and shade, taken from the usual difference, ± 0.5 stop.",
        ),
        ({"condition": "office", "lamps_on": False}, "Light-value table: dark, all lamps off, EV -3 ± 2."),
        (
            {"condition": "dark", "lamps_lux": 250},
            "Light-value table: dark, all lamps off, EV -3 ± 2. Lamps add EV 6.6.",
        ),
    ],
)
def test_where_the_ambient_comes_from(spec: dict[str, object], said: str) -> None:
    assert answer(ambient=spec).ambient.how == said


def test_placements_say_what_they_do_to_the_rest() -> None:
    spec = {
        "by": "sun", "place": {"latitude": 50.9, "longitude": -0.1, "zone": "Europe/London"}, "day": "2026-06-24",
        "clock": "18:30", "shade_open_deg": 200, "panel": {"size_m": 1.2},
    }  # fmt: skip
    said = {place.subject: place.says for place in answer(ambient=spec).placements}
    assert "The sun has reached it at 13:4" in said["shade"]
    assert "waist-up" in said["panel"] or "head and shoulders" in said["panel"]
    by_eye = {place.subject: place.says for place in answer().placements}
    assert "Say place and time" in by_eye["panel"]
    night = AmbientSpec.model_validate(spec | {"clock": "21:20", "subject": "sun"})
    found = {place.subject: place.says for place in answer(ambient=night.model_dump()).placements}
    assert "The sun is not up" in found.get("panel", "The sun is not up")


def test_the_day_in_words() -> None:
    downs = Place(latitude=50.9, longitude=-0.1, zone="Europe/London")
    arctic = Place(latitude=78.2, longitude=15.6, zone="Arctic/Longyearbyen")
    june = day_text(
        day_of(AmbientSpec.model_validate({"by": "sun", "place": downs, "day": "2026-06-24", "shade_open_deg": 250}))
    )
    assert re.match(
        r"Sunrise 04:4\d, sunset 21:1\d\. Golden hours 04:\d\d to 05:\d\d, 20:\d\d to 21:\d\d\.", june.words
    )
    assert [mark.words for mark in june.marks] == ["sunrise", "open shade lost", "sunset"]
    assert june.marks[0].at == pytest.approx((4 * 60 + 47) / 1440, abs=0.003)
    said = {
        day: day_text(day_of(AmbientSpec.model_validate({"by": "sun", "place": arctic, "day": day}))).words
        for day in ("2026-06-24", "2026-12-21")
    }
    assert said["2026-06-24"].startswith("The sun does not set on this day; at its highest it stands 3")
    assert said["2026-12-21"] == "The sun does not rise on this day. No golden hour."


def test_shutter_and_flash_in_words() -> None:
    found = solve(setups()[0], table_of([Unit.model_validate(doc) for doc in kit()["units"]]))
    text = timing_text(found.reach("hss"), 10)
    exposed = of_unit(found.setup, found.method("hss"), found.table, 10, 1.0)
    assert text.words.startswith("Curtains take 1/250 s, the flash pulses for ")
    assert text.times_ms[-1] == pytest.approx(exposed.length_s * 1000, abs=0.01)
    assert len(text.got) == 61
    assert max(text.got[-1]) == pytest.approx(1)


def test_motion_is_told_by_the_flash_that_is_used() -> None:
    """3 m/s in a field of 0.6 m on 36 mm: 1/4000 draws 3000 x 36 / 600 / 4000 = 0.045 mm; 0.030 mm take 1/6000."""
    ball = {"kind": "freeze", "mover": "other", "speed_m_s": 3, "field_width_m": 0.6}
    asked = answer(motion=ball | {"wanted_t01_s": 1 / 4000}).motion
    assert asked.startswith("At 3.0 m/s in a field 0.6 m wide, the 1/4000 s (t.1) that is asked for blurs 0.045 mm; ")
    assert "no more than 0.030 mm takes 1/6000 s" in asked
    chalk = next(one for one in setups() if one.name == "Chalk line")  # 7 m/s in 1.6 m
    shelf = table_of([Unit.model_validate(doc) for doc in kit()["units"]])
    found = answer_of(solve(chalk, shelf), DisplayUnits())
    lasts = re.search(r"Gannet 600 at its dial lasts 1/(\d+) s: (0\.\d+) mm", found.motion)
    assert lasts is not None
    assert found.lanes is not None
    assert any(one.endswith(f"1/{lasts[1]} s") for one in found.lanes.t01)
    assert float(lasts[2]) == pytest.approx(7000 * 36 / 1600 / float(lasts[1]), abs=0.001)
    assert "at its dial" not in answer(motion={"kind": "none"}).motion


def test_a_thing_lit_from_both_sides_has_two_edges() -> None:
    lights = [
        {"role": role, "distance_m": 1, "target_stops": 0, "position": {"bearing_deg": bearing, "height_m": 1.2}}
        for role, bearing in (("key", 90), ("fill", -90))
    ]
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": lights}
    assert ", both edges " in answer(stage={"kind": "object"}, **dark).picture
    assert ", face " in answer(**dark).picture
    front = answer(stage={"kind": "object"}, **dark | {"lights": [{"distance_m": 1, "position": {"bearing_deg": 0}}]})
    assert ", subject " in front.picture


def test_a_group_is_told_its_ends_its_last_row_and_the_heads_that_would_do() -> None:
    """A team 4 m wide and 1 m deep from 5 m: the last row at 6 m has 2 log2(5/6) = -0.53; short by s: 2^s heads."""
    team = {"kind": "group", "people": 22, "width_m": 4, "depth_m": 1}
    far = {"ambient": {"condition": "dark"}, "stage": team}
    light = {"distance_m": 5, "position": {"bearing_deg": 0, "height_m": 1.5}}
    found = answer(aim={"f_number": 4, "iso": 400, "background_stops": -8}, lights=[light], **far)
    assert "last row −0.5 against the middle" in found.picture
    assert re.search(r"ends −0\.\d against the middle", found.picture)
    assert "equal heads" not in found.picture
    plover = next(doc for doc in kit()["units"] if doc["name"] == "Plover 58")
    weak = [light | {"unit": plover}]
    short = answer(aim={"f_number": 11, "iso": 100, "background_stops": -8}, lights=weak, **far)
    heads = re.search(r"(\d+) equal heads would do", short.picture)
    assert heads is not None
    assert short.lanes is not None
    spare = short.lanes.spare[short.lanes.id.index(short.unit)]
    assert 2 ** (-spare) <= int(heads[1]) + 0.05 < 2 ** (-spare) + 1.1


def test_the_page_is_told_whether_what_is_in_front_is_made_for_the_unit() -> None:
    """By kind, by name, by mount or an adapter for it; bare and without a unit nothing is amiss."""
    unit = {"name": "U", "kind": "monobloc", "mount": "large bayonet", "claims": [{"guide_number": 50, "unit": "m"}]}
    box, shelf = {"name": "Box", "kind": "softbox"}, Shelf([Unit.model_validate(unit)])

    def fits(modifier: object, taken: object = unit) -> bool:
        light = {"distance_m": 2, "modifier": modifier, "unit": taken}
        found = answer_of(solved_on(Setup.model_validate({"lights": [light]}), shelf), DisplayUnits()).stage
        assert found is not None
        return found.lights[0].fits

    assert fits(None)
    assert fits(box)
    assert not fits(box | {"fits": ["shoe"]})
    assert fits(box | {"fits": ["shoe"]}, None)
    assert not fits(box | {"not_on": ["U"]})
    assert not fits(box | {"mount": "small bayonet"})
    assert fits(box | {"mount": "small bayonet", "adapters": ["Large bayonet"]})
