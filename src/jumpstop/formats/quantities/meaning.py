"""From what the grammar found to values: for each of its rules what it can mean, as the kind of quantity decides."""

from itertools import product

from . import camera, dial, places, plain, stops, times
from .asked import Asked
from .parts import Node, Rule, Values, amount, amounts

RULES: dict[str, Rule] = stops.RULES | camera.RULES | places.RULES | times.RULES | plain.RULES | dial.RULES


def meanings(tree: Node, asked: Asked) -> Values:
    """All that one way of parsing a text can mean. Raises Misread where it can mean nothing."""
    return RULES[str(tree.data)](tree, asked)


def range_of(tree: Node, asked: Asked) -> list[tuple[float, float]]:
    """Both figures of a range."""
    low, high = (amount(one, asked) for one in amounts(tree))
    return [(a, b) for a, b in product(low, high) if a <= b]
