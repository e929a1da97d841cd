"""One reader of what people write: the table of what photographers write, and properties over all quantities."""

import json
import math
import re
from fractions import Fraction
from itertools import product
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as some

import jumpstop.formats.quantities
from jumpstop.core.kit.power import PowerScale
from jumpstop.core.physics import scales
from jumpstop.formats.quantities import Asked, Dial, Kind, Sign, read
from jumpstop.formats.quantities.meaning import RULES
from jumpstop.formats.quantities.reader import STARTS
from jumpstop.words import figures
from jumpstop.words.figures import DecimalSign, DisplayUnits, speaking
from jumpstop.words.quantities import SAYS, WAYS, said
from tables import DATA, rows

DIALS = {
    "thirds": Dial("fraction", PowerScale(lowest=1 / 128, step_stops=1 / 3), 80),
    "tenths": Dial("fraction", PowerScale(lowest=1 / 128, step_stops=0.1), 80),
    "number": Dial("number", PowerScale(lowest=1 / 512, step_stops=0.1, top_number=10), 400),
    "ws": Dial("ws", PowerScale(lowest=1 / 128, step_stops=1 / 3), 80),
}
ROWS = rows("quantities")
UNITS = DisplayUnits()


def known(words: str) -> dict[str, object]:
    found: dict[str, object] = {}
    for word in words.split():
        name, _, value = word.partition("=")
        found[name] = DIALS[value] if name == "dial" else value if name == "currency" else float(value or 1)
    return found


def test_the_table_is_a_demanding_one() -> None:
    assert len(ROWS) >= 300
    assert {kind for kind, *_ in ROWS} >= set(WAYS) - {"number", "range"}


@pytest.mark.parametrize(("kind", "there", "text", "meaning"), ROWS, ids=[f"{row[0]}: {row[2]}" for row in ROWS])
def test_what_photographers_write(kind: Kind, there: str, text: str, meaning: str) -> None:
    outcome = read(text, Asked(kind, **known(there)))  # type: ignore[arg-type]
    if meaning == "?":
        assert outcome.values == ()
        assert outcome.why is not None
    else:
        wanted = [float(Fraction(one)) for one in re.split(r" \| ", meaning)]
        assert outcome.values == pytest.approx(wanted, rel=2e-4, abs=1e-6)


def test_a_range_is_two_figures() -> None:
    for text in ("150-300", "150 to 300", "150–300", "about 150 to 300", "between 150 and 300"):
        outcome = read(text, Asked("range"))
        assert (outcome.values, outcome.most) == ((150,), 300), text
    assert read("44", Asked("range")).values == (44,)
    assert read("300-150", Asked("range")).why is not None


def test_every_rule_of_the_grammar_has_a_meaning() -> None:
    text = Path(jumpstop.formats.quantities.__file__ or "").with_name("quantities.lark").read_text("utf-8")
    named = set(re.findall(r"-> (\w+)", text)) - {"mixed_words", "two"}
    assert named == set(RULES)
    assert set(STARTS) <= set(WAYS)
    assert set(SAYS) | {"dial", "count", "range", "number"} == set(WAYS)


def test_how_a_quantity_can_be_written_is_read_so() -> None:
    """Each example that a refusal gives is read, as one figure."""
    for kind, ways in WAYS.items():
        asked = Asked(kind, now=0, dial=DIALS["thirds"], currency="£")  # type: ignore[arg-type]
        for example in re.split(r", or |, | or ", re.sub(r"\(.*?\)|[“”]", "", ways)):
            if "as the dial" not in example and example.strip():
                assert read(example, asked).why is None, (kind, example)


@settings(max_examples=400, deadline=None)
@given(text=some.text(max_size=40), kind=some.sampled_from(sorted(WAYS)))
def test_no_text_breaks_the_reader(text: str, kind: Kind) -> None:
    outcome = read(text, Asked(kind, now=-1, dial=DIALS["tenths"]))
    assert all(math.isfinite(value) for value in outcome.values)
    assert (outcome.why is None) == bool(outcome.values)


@settings(max_examples=300, deadline=None)
@given(
    size=some.sampled_from(["1", "1.5", "2/3", "1 1/3", "1⅓", "half a stop", "0,7", "2 stops", "a stop", "3.3 EV"]),
    down=some.sampled_from(["under", "darker", "below", "too dark", "underexposed"]),
    up=some.sampled_from(["over", "brighter", "above", "too bright", "overexposed"]),
    kind=some.sampled_from(["level", "background", "seen"]),
    now=some.sampled_from([-2.0, -1 / 3, 0.0, 1.5]),
)
def test_no_sign_ever_turns(size: str, down: str, up: str, kind: Kind, now: float) -> None:
    asked = Asked(kind, now=now)
    (under,), (over,) = read(f"{size} {down}", asked).values, read(f"{size} {up}", asked).values
    assert under == -over < 0
    for sign in "-−–":
        assert read(f"{sign}{size}", asked).value in (under, None)
    for contradiction in (f"-{size} {up}", f"+{size} {down}"):
        assert read(contradiction, asked).values == ()


SCALES: dict[Kind, list[float]] = {
    "aperture": sorted({*scales.APERTURES.marks.values(), 0.95}),
    "shutter": sorted({*scales.SHUTTERS.marks.values()}),
    "duration": [1 / 200, 1 / 1000, 1 / 3960, 1 / 20000],
    "iso": sorted({*scales.ISOS.marks.values()}),
    "nd": [round(third / 3, 4) for third in range(1, 40)],
    "level": [round(third / 3, 2) for third in range(-18, 13)] + [half / 2 for half in range(-12, 9)],
    "background": [round(third / 3, 2) for third in range(-18, 13)],
    "seen": [round(third / 3, 2) for third in range(-18, 13) if third],
    "bearing": [float(deg) for deg in range(-175, 181, 5)],
    "facing": [float(deg) for deg in range(-175, 181, 5)],
    "clock": [float(minute) for minute in range(0, 1440, 10)],
    "date": [float(day) for day in range(20000, 22000, 13)],
    "speed": [0.5, 1.5, 7.0, 10.3],
    "kelvin": [2700.0, 5600.0, 10000.0],
    "lux": [0.5, 120.0, 5000.0, 100_000.0],
    "weight": [85.0, 980.0, 12_500.0],
    "money": [0.0, 49.99, 1299.0, 10_500.0],
    "share": [0.005, 0.015, 0.3],
    "mired": [-48.0, 40.0],
    "ratio": [1.25, 2.0, 3.17, 8.0],
    "focal": [14.0, 85.0, 600.0],
    "minutes": [5.0, 45.0, 90.0],
    "hours": [0.5, 2.0],
}


SIGNS: list[tuple[DecimalSign, Sign]] = [("either", ""), ("point", "."), ("comma", ",")]


@pytest.mark.parametrize(("way", "sign"), SIGNS)
@pytest.mark.parametrize("kind", SCALES)
def test_what_is_shown_reads_back(kind: Kind, way: DecimalSign, sign: Sign) -> None:
    for value in SCALES[kind]:
        with speaking(way):
            shown = said(value, kind, UNITS)
        back = read(shown, Asked(kind, now=value, currency="£", decimal=sign)).values
        if kind in ("shutter", "duration"):  # said to three figures
            assert back == pytest.approx([value], rel=0.005), shown
        elif kind == "nd":
            assert back == pytest.approx([value], abs=0.06), shown
        elif kind == "aperture":
            assert back == pytest.approx([value]), shown
        else:
            assert back == pytest.approx([value], abs=0.006), shown


@pytest.mark.parametrize("length", ["m", "ft"])
def test_lengths_read_back(length: str) -> None:
    units = DisplayUnits(length=length)
    for third in range(-12, 40):
        metres = 2 ** (third / 6)
        for fine, (way, sign) in product((False, True), SIGNS):
            with speaking(way):
                shown = figures.length(metres, units, fine)
            (back,) = read(shown, Asked("distance", feet=units.length == "ft", decimal=sign)).values
            assert back == pytest.approx(metres, rel=0.03, abs=0.02), shown


@settings(max_examples=200, deadline=None)
@given(
    kind=some.sampled_from(["fraction", "number", "ws"]),
    step=some.sampled_from([1 / 3, 0.5, 0.1, 1.0]),
    stops=some.sampled_from([3, 5, 7, 8, 9]),
    at=some.integers(0, 90),
    power=some.sampled_from(["own", "fraction", "number", "ws"]),
    signs=some.sampled_from(SIGNS),
)
def test_every_setting_of_a_dial_reads_back(
    kind: str, step: float, stops: int, at: int, power: str, signs: tuple[DecimalSign, Sign]
) -> None:
    """As the dial shows it, or as the person wants powers: the same step again, never another."""
    scale = PowerScale(kind=kind, lowest=2.0**-stops, step_stops=step, top_number=10)
    units = DisplayUnits(power=power)
    below = min(at * step, scale.dial_range_stops)
    way, sign = signs
    with speaking(way):
        shown = figures.dial(scale, below, units, 400)
    dial = Dial(figures.dial_kind(scale, units), scale, 400)
    outcome = read(shown, Asked("dial", now=0, dial=dial, decimal=sign))
    assert outcome.values == pytest.approx((below,), abs=0.001), shown


SHOWN = json.loads((DATA / "shown.json").read_text("utf-8"))


NO_SIGN: Sign = ""


def test_the_decimal_sign_that_a_person_chose_decides() -> None:
    """1,299: a decimal comma, or thousands; where nothing is chosen and both can be, it is asked. Prices and counts
    have no thousandths, so that there it is thousands whatever was chosen."""
    for sign, means in ((NO_SIGN, [1.299, 1299]), (",", [1.299]), (".", [1299])):
        assert read("1,299 m", Asked("distance", decimal=sign)).values == pytest.approx(means)  # type: ignore[arg-type]
    for sign, means in ((",", [1299]), (".", [1.299])):
        assert read("1.299 m", Asked("distance", decimal=sign)).values == pytest.approx(means)  # type: ignore[arg-type]
        assert read("1.5 m", Asked("distance", decimal=sign)).values == pytest.approx([1.5])  # type: ignore[arg-type]
        assert read("1,299", Asked("count", decimal=sign)).values == (1299,)  # type: ignore[arg-type]
        assert read("1.299,50", Asked("money", decimal=sign)).values == (1299.5,)  # type: ignore[arg-type]


def test_what_the_page_shows_reads_back() -> None:
    """The page's own texts of the values of its scales (its tests keep that table): each is read as that value."""
    for kind, shown, value, feet, comma in SHOWN:
        sign: Sign = "," if comma else "."
        for one in (sign, NO_SIGN):
            back = read(shown, Asked(kind, now=value, feet=feet, high=100_000, decimal=one)).values
            assert back == pytest.approx([value], rel=0.006, abs=0.006), (kind, shown)
