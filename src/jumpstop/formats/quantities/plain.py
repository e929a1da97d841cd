"""A number with a unit that a table knows, and guide numbers."""

from .asked import Asked
from .parts import GROUPED_KINDS, WHOLE_KINDS, Misread, Node, Rule, Values, fail, num, only, sign_of, tokens, whole_of
from .text import numbers
from .units import BEAUFORT_M_S, CURRENCIES, FOOT_M, OUNCE_G, POUND_G, UNITS

THOUSANDS_K = 100
FORCE = ("force", "bft", "beaufort")


def _plain(tree: Node, asked: Asked) -> Values:
    sign, sizes = sign_of(tree) or 1, only(tree, asked)
    prefix = next(iter(tokens(tree, "PREFIX")), "")
    unit = next(iter(tokens(tree, "UNIT")), "")
    if asked.kind in WHOLE_KINDS and any(not one.is_integer() for one in sizes):
        raise Misread("no_decimals")
    if asked.kind == "money":
        said = [CURRENCIES.get(one) for one in (prefix, unit) if one]
        if any(one is None or (asked.currency and one != asked.currency) for one in said):
            raise Misread("unknown")
        return [sign * one for one in sizes]
    if asked.kind == "temperature":
        return _celsius(unit, [sign * one for one in sizes])
    if prefix in FORCE and asked.kind == "speed" and not unit:
        return [BEAUFORT_M_S * one**1.5 for one in sizes]
    if prefix and prefix != asked.kind:
        raise Misread("unknown")
    size = UNITS[asked.kind].get(unit)
    if asked.kind == "kelvin" and unit == "k":  # 5600 K, or 5.6 thousand of them
        return [one * 1000 if one < THOUSANDS_K else one for one in sizes]
    return [sign * one * size for one in sizes] if size else fail("unknown")


def _celsius(unit: str, degrees: Values) -> Values:
    if unit in ("f", "°f"):
        return [(one - 32) / 1.8 for one in degrees]
    return degrees if unit in ("", "c", "°c", "°") else fail("unknown")


def _pounds_ounces(tree: Node, asked: Asked) -> Values:
    if asked.kind != "weight":
        raise Misread("unknown")
    return [whole_of(tree) * POUND_G + one * OUNCE_G for one in num(tree, asked) if one < 16] or fail("unknown")


def _thousands(tree: Node, asked: Asked) -> Values:
    if asked.kind not in GROUPED_KINDS:
        raise Misread("unknown")
    return [round(one * 1000, 6) for one in numbers(tokens(tree, "NUM")[0], grouped=False, sign=asked.decimal)]


def _guide(*sizes: float) -> Rule:
    return lambda tree, asked: [one * size for one in only(tree, asked) for size in sizes]


RULES: dict[str, Rule] = {
    "plain": _plain,
    "pounds_ounces": _pounds_ounces,
    "thousands": _thousands,
    "one": _plain,
    "metres": _guide(1.0),
    "feet": _guide(FOOT_M),
    "guide_bare": _guide(1.0, FOOT_M),
}
