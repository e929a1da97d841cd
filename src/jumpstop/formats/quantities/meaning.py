"""From what the grammar found to values: for each of its rules what it can mean, as the kind of quantity decides."""

import math
from collections.abc import Callable, Iterator
from itertools import product

from lark import Token, Tree

from ...core.physics.scales import APERTURES, ISOS
from .asked import Asked, Why
from .numbers_of_nd import bare_nd, factor_nd, marked_nd
from .text import numbers
from .units import BEAUFORT_M_S, CURRENCIES, FOOT_M, INCH_M, LENGTHS, OUNCE_G, POINTS, POUND_G, UNITS

Values = list[float]
Node = Tree[Token]

WORDS = {name: float(at) for at, name in enumerate(
    ("nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
)} | {"a": 1.0, "an": 1.0}  # fmt: skip
PARTS = {"half": 1 / 2, "third": 1 / 3, "thirds": 1 / 3, "quarter": 1 / 4, "tenth": 1 / 10, "two thirds": 2 / 3,
         "three quarters": 3 / 4}  # fmt: skip
SHARES = {"full": 0, "maximum": 0, "max": 0, "half": 1, "quarter": 2, "eighth": 3, "sixteenth": 4}  # stops below full
DOWN = {"underexposed", "under", "darker", "dark", "down", "less", "below"}
RELATIVE = {"up", "down", "less", "more"}  # in a picture seen: how it came out, or what to do about it?
WHOLE_KINDS = {"iso", "count", "range"}
GROUPED_KINDS = WHOLE_KINDS | {"lux", "money"}
A_STOP = 0.02  # of a stop: nearer than that, two apertures are one
TENTHS_APART = 0.1  # of a stop: a mark and a meter's tenths that differ by more are told apart
SLOWEST_FRACTION, FASTEST_SECONDS = 40, 1  # a bare shutter of 40 and more is 1/x, of less than 1 seconds
SHORT_FLASH = 100  # a bare flash duration of so much and more is 1/x
WHOLE_STOPS = {2, 4, 8, 11, 16, 22, 32, 45}  # after which a single digit may be a meter's tenths


class Misread(Exception):  # noqa: N818 (no error of the program)
    """This reading of the text cannot be meant, and why."""

    def __init__(self, why: Why) -> None:
        super().__init__(why)
        self.why = why


def meanings(tree: Node, asked: Asked) -> Values:
    """All that one way of parsing a text can mean. Raises Misread where it can mean nothing."""
    return RULES[str(tree.data)](tree, asked)


def range_of(tree: Node, asked: Asked) -> list[tuple[float, float]]:
    """Both figures of a range."""
    low, high = (_amount(one, asked) for one in _amounts(tree))
    return [(a, b) for a, b in product(low, high) if a <= b]


# ---- parts


def _amounts(tree: Node) -> list[Node]:
    names = ("number", "fraction", "mixed", "mixed_words", "whole", "words_part")
    return [one for one in tree.children if isinstance(one, Tree) and one.data in names]


def _tokens(tree: Node, kind: str) -> list[str]:
    return [str(one) for one in tree.children if isinstance(one, Token) and one.type == kind]


def _read(written: str, asked: Asked) -> Values:
    found = numbers(written, asked.kind in GROUPED_KINDS)
    if asked.kind in WHOLE_KINDS and any(not one.is_integer() for one in found):
        raise Misread("no_decimals")
    if not found:
        raise Misread("unknown")
    return found


def _denominator(written: str) -> Values:
    return numbers(written, grouped=True) or _fail("unknown")


def _fail(why: Why) -> Values:
    raise Misread(why)


def _amount(tree: Node, asked: Asked) -> Values:
    """What an amount can be: a number, a fraction, a mixed number or words."""
    match tree.data:
        case "number":
            return numbers(str(tree.children[0]), asked.kind in GROUPED_KINDS) or _fail("unknown")
        case "fraction":
            below = float(str(tree.children[1]))
            return [float(str(tree.children[0])) / below] if below else _fail("unknown")
        case "whole":
            return [WORDS[str(tree.children[0])]]
        case "words_part":
            word = str(tree.children[0])
            return [next(PARTS[one] for one in (word, word.rpartition(" ")[2]) if one in PARTS)]
        case _:  # a whole number and a part
            return [sum(each) for each in product(*(_part(one, asked) for one in tree.children))]


def _part(one: "Node | Token", asked: Asked) -> Values:
    return [float(str(one))] if isinstance(one, Token) else _amount(one, asked)


def _only(tree: Node, asked: Asked) -> Values:
    amounts = _amounts(tree)
    return _amount(amounts[0], asked) if amounts else [1.0]


def _num(tree: Node, asked: Asked, at: int = 0) -> Values:
    return _read(_tokens(tree, "NUM")[at], asked)


def _int(tree: Node, at: int = 0) -> float:
    return float(_tokens(tree, "INT")[at])


def _sign(tree: Node) -> int:
    """-1, +1, or 0 where none stands."""
    signs = _tokens(tree, "SIGN")
    return 0 if not signs else -1 if signs[0] in ("-", "minus") else 1


# ---- stops


def _level(tree: Node, asked: Asked) -> Values:
    return _with_sense(tree, asked, _only(tree, asked))


def _level_and_part(tree: Node, asked: Asked) -> Values:
    first, second = _amounts(tree)
    return _with_sense(tree, asked, [a + b for a, b in product(_amount(first, asked), _amount(second, asked)) if b < 1])


def _with_sense(tree: Node, asked: Asked, sizes: Values) -> Values:
    sign, senses = _sign(tree), _tokens(tree, "SENSE")
    if senses:
        down = senses[0] in DOWN
        if (sign < 0 and not down) or (sign > 0 and down):
            raise Misread("contradiction")
        if asked.kind == "seen" and senses[0] in RELATIVE:
            return [either for size in sizes for either in (-size, size)]
        return [-size if down else size for size in sizes]
    if sign:
        return [sign * size for size in sizes]
    if asked.now is not None and (asked.now < 0 or (asked.now == 0 and asked.kind == "background")):
        return [either for size in sizes for either in ((-size, size) if size else (0.0,))]
    return sizes


def _nothing(tree: Node, asked: Asked) -> Values:
    return [0.0]


def _ratio(tree: Node, asked: Asked) -> Values:
    lit, shadow = (_amount(one, asked) for one in _amounts(tree))
    found = [a / b for a, b in product(lit, shadow) if b]
    return [one for each in found for one in ((each,) if each >= 1 else (1 / each, each))]


def _ratio_bare(tree: Node, asked: Asked) -> Values:
    return _only(tree, asked)


def _ratio_stops(tree: Node, asked: Asked) -> Values:
    return [2**stops for stops in _only(tree, asked)]


# ---- camera


def on_mark(value: float) -> float:
    """An aperture as the mark that it is as good as, else to two digits."""
    mark = APERTURES.near_mark(value)
    return round(value, 2) if mark is None else mark


def _aperture(tree: Node, asked: Asked) -> Values:
    written = _tokens(tree, "NUM")[0]
    found = [one for one in numbers(written, grouped=False) if one > 0] or _fail("unknown")
    whole, _, tenth = written.replace(",", ".").partition(".")
    if len(tenth) != 1 or not whole.isdigit() or int(whole) not in WHOLE_STOPS or tenth == "0":
        return found
    value = found[0]
    metered = on_mark(APERTURES.moved(float(whole), int(tenth) / 10))
    if any(abs(mark - value) < 1e-9 for mark in APERTURES.marks.values()):
        full = any(abs(mark - value) < 1e-9 for mark in APERTURES.steps["full"])
        apart = abs(2 * math.log2(metered / float(APERTURES.exact(value)))) > TENTHS_APART
        return [value, metered] if asked.kind == "meter" and apart and not full else [value]
    return [metered] if asked.kind == "meter" else [metered, value]


def _aperture_and(tree: Node, asked: Asked) -> Values:
    sizes = [size for size in _only(tree, asked) if size < 1] or _fail("unknown")
    return [on_mark(APERTURES.moved(mark, size)) for mark, size in product(_num(tree, asked), sizes)]


def _aperture_tenths(tree: Node, asked: Asked) -> Values:
    tenths = _int(tree)
    if tenths > 9:
        raise Misread("unknown")
    return [on_mark(APERTURES.moved(mark, tenths / 10)) for mark in _num(tree, asked)]


def _wide_open(tree: Node, asked: Asked) -> Values:
    return [asked.widest] if asked.widest else _fail("unknown")


def _seconds_over(tree: Node, asked: Asked) -> Values:
    over, under = _tokens(tree, "NUM")
    return [float(over) / one for one in _denominator(under) if one] if over.isdigit() else _fail("unknown")


def _one_over(tree: Node, asked: Asked) -> Values:
    return [1 / one for one in _denominator(_tokens(tree, "NUM")[0]) if one]


def _bare_time(tree: Node, asked: Asked) -> Values:
    written = _tokens(tree, "NUM")[0]
    decimal = numbers(written, grouped=False)
    whole = [one for one in numbers(written, grouped=True) if one.is_integer()]
    if asked.kind == "duration":
        return [1 / one for one in whole if one >= SHORT_FLASH] or _fail("no_unit")
    if any(one < FASTEST_SECONDS for one in decimal):
        return [one for one in decimal if 0 < one < FASTEST_SECONDS]
    fractions = [1 / one for one in whole]
    return fractions if whole and whole[0] >= SLOWEST_FRACTION else fractions + decimal


def _times(size: float) -> Callable[[Node, Asked], Values]:
    def rule(tree: Node, asked: Asked) -> Values:
        return [size * one for one in (_only(tree, asked) if _amounts(tree) else _num(tree, asked))]

    return rule


def _seconds_mark(tree: Node, asked: Asked) -> Values:
    whole, part = _tokens(tree, "NUM")
    return [float(f"{whole}.{part}")] if whole.isdigit() and part.isdigit() else _fail("unknown")


def _iso(tree: Node, asked: Asked) -> Values:
    return _num(tree, asked)


def _iso_k(tree: Node, asked: Asked) -> Values:
    ints = _tokens(tree, "INT")
    written = ".".join(ints) if ints else _tokens(tree, "NUM")[0].replace(",", ".")
    try:
        return [round(float(written) * 1000)]
    except ValueError:
        raise Misread("unknown") from None


def _din(tree: Node, asked: Asked) -> Values:
    return [ISOS.marked(10 ** ((one - 1) / 10)) for one in _num(tree, asked)]  # DIN 4512, ISO 5800


def _nd(rule: Callable[[str], Values]) -> Callable[[Node, Asked], Values]:
    return lambda tree, asked: rule(_tokens(tree, "NUM")[0]) or _fail("unknown")


# ---- places


def _length(tree: Node, asked: Asked) -> Values:
    units = _tokens(tree, "UNIT")
    size = LENGTHS.get(units[0]) if units else (FOOT_M if asked.feet else 1.0)
    return [one * size for one in _only(tree, asked)] if size else _fail("unknown")


def _feet_inches(tree: Node, asked: Asked) -> Values:
    ints = _tokens(tree, "INT")
    inches = [float(ints[1])] if len(ints) > 1 else _only(tree, asked)
    return [float(ints[0]) * FOOT_M + one * INCH_M for one in inches if one < 12] or _fail("unknown")


def _metres_cm(tree: Node, asked: Asked) -> Values:
    whole, part = _tokens(tree, "INT")
    return [float(whole) + float(part) / 100] if len(part) == 2 else _fail("unknown")


def _bearing(tree: Node, asked: Asked) -> Values:
    sizes, sign = _only(tree, asked), _sign(tree)
    if sign:
        return [sign * one for one in sizes]
    if asked.now is not None and asked.now <= 0:
        return [either for one in sizes for either in ((one,) if one in (0, 180) else (-one, one))]
    return sizes


def _turned(tree: Node, asked: Asked) -> Values:
    left = _tokens(tree, "SIDE")[0] == "left"
    if _tokens(tree, "ITS"):
        left = not left  # the left hand of who looks at the camera is the right of the picture
    if asked.kind == "facing":
        left = not left  # a face is turned to its own right where it looks to the left of the picture
    return [-one if left else one for one in _only(tree, asked)]


def _side_alone(tree: Node, asked: Asked) -> Values:
    side = -1 if _tokens(tree, "SIDE")[0] == "left" else 1
    return [side * (-1 if asked.kind == "facing" else 1) * one for one in (45.0, 90.0)]


def _oclock(tree: Node, asked: Asked) -> Values:
    turned = -1 if asked.kind == "facing" else 1
    hours = [one for one in _only(tree, asked) if 0 < one <= 12]
    return [180.0 if one == 12 else turned * (6 - one) * 30 for one in hours] or _fail("unknown")


def _behind(tree: Node, asked: Asked) -> Values:
    return [180.0]


def _point(tree: Node, asked: Asked) -> Values:
    word = _tokens(tree, "POINT")[0].replace(" ", "").replace("-", "")
    for name in ("north", "south", "east", "west"):
        word = word.replace(name, name[0])
    return [float(POINTS[word])] if word in POINTS else _fail("unknown")


def _signed(tree: Node, asked: Asked) -> Values:
    return [(_sign(tree) or 1) * one for one in _only(tree, asked)]


# ---- time of day and length of time


def _clock(tree: Node, asked: Asked) -> Values:
    ints = _tokens(tree, "INT")
    if len(ints) == 1 and len(ints[0]) in (3, 4):
        ints = [ints[0][:-2], ints[0][-2:]]
    if len(ints) == 2 and len(ints[1]) != 2:
        raise Misread("unknown")
    return _at(float(ints[0]), float(ints[1]) if len(ints) == 2 else 0.0, tree)


def _at(hour: float, minute: float, tree: Node) -> Values:
    for half in _tokens(tree, "PM"):
        if not 1 <= hour <= 12:
            raise Misread("unknown")
        hour = hour % 12 + (12 if half[0] == "p" else 0)
    return [hour * 60 + minute] if hour < 24 and minute < 60 else _fail("unknown")


def _past(minute: float, readings: tuple[int, ...] = (0,)) -> Callable[[Node, Asked], Values]:
    """So many minutes past the hour that is said, or of the ones before it that may be meant as well."""

    def rule(tree: Node, asked: Asked) -> Values:
        said = _tokens(tree, "INT") or _tokens(tree, "WHOLE")
        hour = WORDS.get(said[0]) or float(said[0])
        return [one for off in readings for one in _at((hour + off) % 24, minute, tree)]

    return rule


def _fixed(value: float) -> Callable[[Node, Asked], Values]:
    return lambda tree, asked: [value]


BASE_S = {"seconds": 1.0, "minutes": 60.0, "hours": 3600.0}


def _time(size_s: float) -> Callable[[Node, Asked], Values]:
    return lambda tree, asked: [one * size_s / BASE_S[asked.kind] for one in _only(tree, asked)]


def _hours_bare(tree: Node, asked: Asked) -> Values:
    return _only(tree, asked)


def _hours_minutes(tree: Node, asked: Asked) -> Values:
    hours, minutes = _tokens(tree, "INT")
    if len(minutes) != 2 or int(minutes) > 59:
        raise Misread("unknown")
    return [(float(hours) * 3600 + float(minutes) * 60) / BASE_S[asked.kind]]


# ---- a number with a unit


def _plain(tree: Node, asked: Asked) -> Values:
    sign, sizes = _sign(tree) or 1, _only(tree, asked)
    prefix = next(iter(_tokens(tree, "PREFIX")), "")
    unit = next(iter(_tokens(tree, "UNIT")), "")
    if asked.kind in WHOLE_KINDS and any(not one.is_integer() for one in sizes):
        raise Misread("no_decimals")
    if asked.kind == "money":
        said = [CURRENCIES.get(one) for one in (prefix, unit) if one]
        if any(one is None or (asked.currency and one != asked.currency) for one in said):
            raise Misread("unknown")
        return [sign * one for one in sizes]
    if asked.kind == "temperature":
        return _celsius(unit, [sign * one for one in sizes])
    if prefix == "force" and asked.kind == "speed" and not unit:
        return [BEAUFORT_M_S * one**1.5 for one in sizes]
    if prefix and prefix != asked.kind:
        raise Misread("unknown")
    size = UNITS[asked.kind].get(unit)
    return [sign * one * size for one in sizes] if size else _fail("unknown")


def _celsius(unit: str, degrees: Values) -> Values:
    if unit in ("f", "°f"):
        return [(one - 32) / 1.8 for one in degrees]
    return degrees if unit in ("", "c", "°c", "°") else _fail("unknown")


def _pounds_ounces(tree: Node, asked: Asked) -> Values:
    if asked.kind != "weight":
        raise Misread("unknown")
    return [_int(tree) * POUND_G + one * OUNCE_G for one in _num(tree, asked) if one < 16] or _fail("unknown")


def _thousands(tree: Node, asked: Asked) -> Values:
    if asked.kind not in GROUPED_KINDS:
        raise Misread("unknown")
    return [round(one * 1000, 6) for one in numbers(_tokens(tree, "NUM")[0], grouped=False)]


def _guide(*sizes: float) -> Callable[[Node, Asked], Values]:
    return lambda tree, asked: [one * size for one in _only(tree, asked) for size in sizes]


# ---- a unit's dial: stops below full power


def _dial_fraction(tree: Node, asked: Asked) -> Values:
    share, *more = [_amount(one, asked) for one in _amounts(tree)]
    sign = _sign(tree)
    if sign and not more:  # 1/32+: how much more?
        step = asked.dial.step_stops if asked.dial else 1 / 3
        more = [[at * step for at in range(1, 1 + round(1 / step)) if at * step < 0.99 and (step > 0.2 or at % 3 == 0)]]
    sizes = more[0] if more else [0.0]
    return [-math.log2(one) - sign * size for one, size in product(share, sizes) if 0 < one <= 1 and size < 1]


def _dial_bare(tree: Node, asked: Asked) -> Values:
    dial, found = asked.dial, numbers(_tokens(tree, "NUM")[0], grouped=False)
    if dial is None or not found:
        raise Misread("unknown")
    if dial.kind == "number":
        return [dial.top_number - one for one in found]
    if dial.kind == "ws" and dial.watt_seconds:
        return [math.log2(dial.watt_seconds / one) for one in found if one > 0]
    shares = [one for one in found if 0 < one <= 1]
    powers = [one for one in found if one > 1 and math.log2(one).is_integer()]
    return [-math.log2(one) for one in shares] + [math.log2(one) for one in powers] or _fail("not_on_dial")


def _dial_signed(tree: Node, asked: Asked) -> Values:
    return _only(tree, asked) if _sign(tree) < 0 else _fail("not_on_dial")


def _dial_of(tree: Node, asked: Asked) -> Values:
    dial = asked.dial
    if dial is None or dial.top_number not in _num(tree, asked, 1):
        raise Misread("not_on_dial")
    return [dial.top_number - one for one in _num(tree, asked)]


def _dial_energy(size: float) -> Callable[[Node, Asked], Values]:
    def rule(tree: Node, asked: Asked) -> Values:
        if asked.dial is None or not asked.dial.watt_seconds:
            raise Misread("not_on_dial")
        return [math.log2(asked.dial.watt_seconds / (one * size)) for one in _num(tree, asked) if one > 0]

    return rule


def _dial_percent(tree: Node, asked: Asked) -> Values:
    return [-math.log2(one / 100) for one in _num(tree, asked) if one > 0]


def _dial_share(tree: Node, asked: Asked) -> Values:
    return [float(SHARES[_tokens(tree, "SHARE")[0].removeprefix("an ").removeprefix("a ")])]


def _dial_relative(tree: Node, asked: Asked) -> Values:
    if asked.now is None:
        raise Misread("not_on_dial")
    down = _tokens(tree, "SENSE")[0] in DOWN
    return [asked.now + (one if down else -one) for one in _only(tree, asked)]


def _dial_lowest(tree: Node, asked: Asked) -> Values:
    return [asked.dial.range_stops] if asked.dial else _fail("unknown")


RULES: dict[str, Callable[[Node, Asked], Values]] = {
    "level": _level, "level_and_part": _level_and_part, "nought": _nothing, "nothing": _nothing,
    "ratio": _ratio, "ratio_bare": _ratio_bare, "ratio_stops": _ratio_stops,
    "aperture": _aperture, "aperture_and": _aperture_and, "aperture_tenths": _aperture_tenths, "wide_open": _wide_open,
    "seconds_over": _seconds_over, "one_over": _one_over, "bare": _bare_time, "seconds": _times(1.0),
    "seconds_mark": _seconds_mark, "milliseconds": _times(1e-3), "microseconds": _times(1e-6), "minutes": _times(60.0),
    "iso": _iso, "iso_k": _iso_k, "din": _din,
    "nd_bare": _nd(bare_nd), "nd_marked": _nd(marked_nd), "nd_factor": _nd(factor_nd), "nd_stops": _times(1.0),
    "nd_said": _times(1.0),
    "length": _length, "feet_inches": _feet_inches, "metres_cm": _metres_cm,
    "bearing": _bearing, "turned": _turned, "turned_first": _turned, "side_alone": _side_alone, "oclock": _oclock,
    "behind": _behind, "point": _point, "number_of": _signed, "signed": _signed,
    "clock": _clock, "clock_hour": _past(0), "half_hour": _past(30, (0, -1)), "half_past": _past(30),
    "quarter_past": _past(15), "quarter_to": _past(45, (-1,)), "noon": _fixed(720.0), "midnight": _fixed(0.0),
    "hours_bare": _hours_bare, "of_hours": _time(3600.0), "of_minutes": _time(60.0), "of_seconds": _time(1.0),
    "hours_minutes": _hours_minutes,
    "plain": _plain, "pounds_ounces": _pounds_ounces, "thousands": _thousands, "one": _plain,
    "metres": _guide(1.0), "feet": _guide(FOOT_M), "guide_bare": _guide(1.0, FOOT_M),
    "dial_fraction": _dial_fraction, "dial_bare": _dial_bare, "dial_signed": _dial_signed, "dial_of": _dial_of,
    "dial_ws": _dial_energy(1.0), "dial_kj": _dial_energy(1000.0), "dial_percent": _dial_percent,
    "dial_share": _dial_share, "dial_relative": _dial_relative, "dial_lowest": _dial_lowest,
}  # fmt: skip


def rules() -> Iterator[str]:
    """The rules that have a meaning here."""
    yield from RULES
