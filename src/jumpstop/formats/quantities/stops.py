"""Stops: how dark or bright, how much more or less; and ratios."""

from itertools import product

from .asked import Asked
from .parts import LEAST_PART, Misread, Node, Rule, Values, amount, amounts, only, sign_of, tokens

DOWN = {"underexposed", "under", "darker", "dark", "down", "less", "below", "lower"}
RELATIVE = {"up", "down", "less", "more", "lower", "higher"}
"""In a picture seen: how it came out, or what to do about it?"""


def _level(tree: Node, asked: Asked) -> Values:
    return _with_sense(tree, asked, only(tree, asked))


def _level_and_part(tree: Node, asked: Asked) -> Values:
    first, second = amounts(tree)
    return _with_sense(
        tree, asked, [a + b for a, b in product(amount(first, asked), amount(second, asked)) if LEAST_PART <= b < 1]
    )


def _with_sense(tree: Node, asked: Asked, sizes: Values) -> Values:
    sign, senses = sign_of(tree), tokens(tree, "SENSE")
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
    lit, shadow = (amount(one, asked) for one in amounts(tree))
    found = [a / b for a, b in product(lit, shadow) if b]
    return [one for each in found for one in ((each,) if each >= 1 else (1 / each, each))]


def _ratio_bare(tree: Node, asked: Asked) -> Values:
    return only(tree, asked)


def _ratio_stops(tree: Node, asked: Asked) -> Values:
    return [2**stops for stops in only(tree, asked)]


RULES: dict[str, Rule] = {
    "level": _level,
    "level_and_part": _level_and_part,
    "nought": _nothing,
    "nothing": _nothing,
    "ratio": _ratio,
    "ratio_bare": _ratio_bare,
    "ratio_stops": _ratio_stops,
}
