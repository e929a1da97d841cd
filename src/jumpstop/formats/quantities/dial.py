"""Power on a unit's own dial: stops below full."""

import math
from itertools import product

from .asked import Asked
from .parts import Misread, Node, Rule, Values, amount, amounts, fail, num, only, sign_of, tokens
from .stops import DOWN
from .text import numbers

SHARES = {"full": 0, "maximum": 0, "max": 0, "half": 1, "quarter": 2, "eighth": 3, "sixteenth": 4}  # stops below full


def _dial_fraction(tree: Node, asked: Asked) -> Values:
    share, *more = [amount(one, asked) for one in amounts(tree)]
    sign = sign_of(tree)
    if sign and not more:  # 1/32+: how much more?
        step = asked.dial.scale.step_stops if asked.dial else 1 / 3
        more = [[at * step for at in range(1, 1 + round(1 / step)) if at * step < 0.99 and (step > 0.2 or at % 3 == 0)]]
    sizes = more[0] if more else [0.0]
    return [-math.log2(one) - sign * size for one, size in product(share, sizes) if 0 < one <= 1 and size < 1]


def _dial_bare(tree: Node, asked: Asked) -> Values:
    dial, found = asked.dial, numbers(tokens(tree, "NUM")[0], grouped=False, sign=asked.decimal)
    if dial is None or not found:
        raise Misread("unknown")
    if dial.kind == "number":
        return [dial.scale.top_number - one for one in found]
    if dial.kind == "ws" and dial.watt_seconds:
        return [math.log2(dial.watt_seconds / one) for one in found if one > 0]
    shares = [one for one in found if 0 < one <= 1]
    powers = [one for one in found if one > 1 and math.log2(one).is_integer()]
    return [-math.log2(one) for one in shares] + [math.log2(one) for one in powers] or fail("not_on_dial")


def _dial_signed(tree: Node, asked: Asked) -> Values:
    return only(tree, asked) if sign_of(tree) < 0 else fail("not_on_dial")


def _dial_of(tree: Node, asked: Asked) -> Values:
    dial = asked.dial
    if dial is None or dial.scale.top_number not in num(tree, asked, 1):
        raise Misread("not_on_dial")
    return [dial.scale.top_number - one for one in num(tree, asked)]


def _dial_energy(size: float) -> Rule:
    def rule(tree: Node, asked: Asked) -> Values:
        if asked.dial is None or not asked.dial.watt_seconds:
            raise Misread("not_on_dial")
        return [math.log2(asked.dial.watt_seconds / (one * size)) for one in num(tree, asked) if one > 0]

    return rule


def _dial_percent(tree: Node, asked: Asked) -> Values:
    return [-math.log2(one / 100) for one in num(tree, asked) if one > 0]


def _dial_share(tree: Node, asked: Asked) -> Values:
    return [float(SHARES[tokens(tree, "SHARE")[0].removeprefix("an ").removeprefix("a ")])]


def _dial_relative(tree: Node, asked: Asked) -> Values:
    if asked.now is None:
        raise Misread("not_on_dial")
    down = tokens(tree, "SENSE")[0] in DOWN
    return [asked.now + (one if down else -one) for one in only(tree, asked)]


def _dial_lowest(tree: Node, asked: Asked) -> Values:
    return [asked.dial.scale.dial_range_stops] if asked.dial else fail("unknown")


RULES: dict[str, Rule] = {
    "dial_fraction": _dial_fraction,
    "dial_bare": _dial_bare,
    "dial_signed": _dial_signed,
    "dial_of": _dial_of,
    "dial_ws": _dial_energy(1.0),
    "dial_kj": _dial_energy(1000.0),
    "dial_percent": _dial_percent,
    "dial_share": _dial_share,
    "dial_relative": _dial_relative,
    "dial_lowest": _dial_lowest,
}
