"""What the meanings of all kinds are made of: amounts, numbers, signs and words out of what the grammar found."""

from collections.abc import Callable
from itertools import product

from lark import Token, Tree

from .asked import Asked, Why
from .text import numbers

Values = list[float]
Node = Tree[Token]
Rule = Callable[[Node, Asked], Values]

WORDS = {name: float(at) for at, name in enumerate(
    ("nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve")
)} | {"a": 1.0, "an": 1.0}  # fmt: skip
PARTS = {"half": 1 / 2, "third": 1 / 3, "thirds": 1 / 3, "quarter": 1 / 4, "tenth": 1 / 10, "two thirds": 2 / 3,
         "two-thirds": 2 / 3, "one-third": 1 / 3, "three quarters": 3 / 4, "three-quarters": 3 / 4}  # fmt: skip
LEAST_PART = 0.09  # of a stop that is said with a whole one: tenths, but no time of 1/200 s that stands beside it
STOPS_KINDS = {"level", "background", "seen"}
WHOLE_KINDS = {"iso", "count", "range"}
GROUPED_KINDS = WHOLE_KINDS | {"lux", "money"}


class Misread(Exception):  # noqa: N818 (no error of the program)
    """This reading of the text cannot be meant, and why."""

    def __init__(self, why: Why) -> None:
        super().__init__(why)
        self.why = why


def amounts(tree: Node) -> list[Node]:
    names = ("number", "fraction", "mixed", "mixed_words", "whole", "words_part")
    return [one for one in tree.children if isinstance(one, Tree) and one.data in names]


def tokens(tree: Node, kind: str) -> list[str]:
    return [str(one) for one in tree.children if isinstance(one, Token) and one.type == kind]


def number_of(written: str, asked: Asked) -> Values:
    found = numbers(written, asked.kind in GROUPED_KINDS, asked.decimal)
    if asked.kind in WHOLE_KINDS and any(not one.is_integer() for one in found):
        raise Misread("no_decimals")
    if not found:
        raise Misread("unknown")
    return found


def denominator(written: str) -> Values:
    return numbers(written, grouped=True) or fail("unknown")


def fail(why: Why) -> Values:
    raise Misread(why)


def amount(tree: Node, asked: Asked) -> Values:
    """What an amount can be: a number, a fraction, a mixed number or words."""
    match tree.data:
        case "number":
            return numbers(str(tree.children[0]), asked.kind in GROUPED_KINDS, asked.decimal) or fail("unknown")
        case "fraction":
            below = float(str(tree.children[1]))
            return [float(str(tree.children[0])) / below] if below else fail("unknown")
        case "whole":
            return [WORDS[str(tree.children[0])]]
        case "words_part":
            word = str(tree.children[0])
            return [next(PARTS[one] for one in (word, word.rpartition(" ")[2]) if one in PARTS)]
        case _:  # a whole number and a part
            whole, part = (part_of(one, asked) for one in tree.children)
            least = LEAST_PART if asked.kind in STOPS_KINDS else 0.0
            return [a + b for a, b in product(whole, part) if b >= least]


def whole_and_part(tree: Node, asked: Asked) -> Values:
    """A whole number and a part of one, said apart: a metre and a half."""
    return [sum(each) for each in product(*(amount(one, asked) for one in amounts(tree)))]


def part_of(one: "Node | Token", asked: Asked) -> Values:
    return [float(str(one))] if isinstance(one, Token) else amount(one, asked)


def only(tree: Node, asked: Asked) -> Values:
    found = amounts(tree)
    return amount(found[0], asked) if found else [1.0]


def num(tree: Node, asked: Asked, at: int = 0) -> Values:
    return number_of(tokens(tree, "NUM")[at], asked)


def whole_of(tree: Node, at: int = 0) -> float:
    return float(tokens(tree, "INT")[at])


def sign_of(tree: Node) -> int:
    """-1, +1, or 0 where none stands."""
    signs = tokens(tree, "SIGN")
    return 0 if not signs else -1 if signs[0] in ("-", "minus") else 1
