"""Figures of a camera: apertures and what meters show, times, ISO, neutral density."""

import math
from collections.abc import Callable
from itertools import product

from ...core.physics.scales import APERTURES, ISOS
from .asked import Asked
from .numbers_of_nd import bare_nd, factor_nd, marked_nd
from .parts import LEAST_PART, Misread, Node, Rule, Values, amounts, denominator, fail, num, only, tokens, whole_of
from .text import numbers

TENTHS_APART = 0.1  # of a stop: a mark and a meter's tenths that differ by more are told apart
SLOWEST_FRACTION, FASTEST_SECONDS = 40, 1  # a bare shutter of 40 and more is 1/x, of less than 1 seconds
SHORT_FLASH = 100  # a bare flash duration of so much and more is 1/x
WHOLE_STOPS = {2, 4, 8, 11, 16, 22, 32, 45}  # after which a single digit may be a meter's tenths


def on_mark(value: float) -> float:
    """An aperture as the mark that it is as good as, else to two digits."""
    mark = APERTURES.near_mark(value)
    return round(value, 2) if mark is None else mark


def _aperture(tree: Node, asked: Asked) -> Values:
    written = tokens(tree, "NUM")[0]
    found = [one for one in numbers(written, grouped=False, sign=asked.decimal) if one > 0] or fail("unknown")
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
    sizes = [size for size in only(tree, asked) if LEAST_PART <= size < 1] or fail("unknown")
    return [on_mark(APERTURES.moved(mark, size)) for mark, size in product(num(tree, asked), sizes)]


def _aperture_tenths(tree: Node, asked: Asked) -> Values:
    tenths = whole_of(tree)
    if tenths > 9:
        raise Misread("unknown")
    return [on_mark(APERTURES.moved(mark, tenths / 10)) for mark in num(tree, asked)]


def _wide_open(tree: Node, asked: Asked) -> Values:
    return [asked.widest] if asked.widest else fail("unknown")


def _seconds_over(tree: Node, asked: Asked) -> Values:
    over, under = tokens(tree, "NUM")
    return [float(over) / one for one in denominator(under) if one] if over.isdigit() else fail("unknown")


def _one_over(tree: Node, asked: Asked) -> Values:
    return [1 / one for one in denominator(tokens(tree, "NUM")[0]) if one]


def _bare_time(tree: Node, asked: Asked) -> Values:
    written = tokens(tree, "NUM")[0]
    decimal = numbers(written, grouped=False, sign=asked.decimal)
    whole = [one for one in numbers(written, grouped=True) if one.is_integer()]
    if asked.kind == "duration":
        return [1 / one for one in whole if one >= SHORT_FLASH] or fail("no_unit")
    if any(one < FASTEST_SECONDS for one in decimal):
        return [one for one in decimal if 0 < one < FASTEST_SECONDS]
    fractions = [1 / one for one in whole]
    return fractions if whole and whole[0] >= SLOWEST_FRACTION else fractions + decimal


def _times(size: float) -> Rule:
    def rule(tree: Node, asked: Asked) -> Values:
        return [size * one for one in (only(tree, asked) if amounts(tree) else num(tree, asked))]

    return rule


def _seconds_mark(tree: Node, asked: Asked) -> Values:
    whole, part = tokens(tree, "NUM")
    return [float(f"{whole}.{part}")] if whole.isdigit() and part.isdigit() else fail("unknown")


def _iso(tree: Node, asked: Asked) -> Values:
    return num(tree, asked)


def _iso_k(tree: Node, asked: Asked) -> Values:
    ints = tokens(tree, "INT")
    written = ".".join(ints) if ints else tokens(tree, "NUM")[0].replace(",", ".")
    try:
        return [round(float(written) * 1000)]
    except ValueError:
        raise Misread("unknown") from None


def _din(tree: Node, asked: Asked) -> Values:
    return [ISOS.marked(10 ** ((one - 1) / 10)) for one in num(tree, asked)]  # DIN 4512, ISO 5800


def _nd(rule: Callable[[str], Values]) -> Rule:
    return lambda tree, asked: rule(tokens(tree, "NUM")[0]) or fail("unknown")


RULES: dict[str, Rule] = {
    "aperture": _aperture,
    "aperture_and": _aperture_and,
    "aperture_tenths": _aperture_tenths,
    "wide_open": _wide_open,
    "seconds_over": _seconds_over,
    "one_over": _one_over,
    "bare": _bare_time,
    "seconds": _times(1.0),
    "seconds_mark": _seconds_mark,
    "milliseconds": _times(1e-3),
    "microseconds": _times(1e-6),
    "minutes": _times(60.0),
    "iso": _iso,
    "iso_k": _iso_k,
    "din": _din,
    "nd_bare": _nd(bare_nd),
    "nd_marked": _nd(marked_nd),
    "nd_factor": _nd(factor_nd),
    "nd_stops": _times(1.0),
    "nd_said": _times(1.0),
}
