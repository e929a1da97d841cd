"""What a text is read as: parsed by the grammar, given its meanings, held against the bounds of what is asked."""

import math
from datetime import UTC, date, datetime
from functools import lru_cache
from importlib.resources import files

from lark import Lark, Token, Tree
from lark.exceptions import UnexpectedInput
from lark.visitors import CollapseAmbiguities

from .asked import Asked, Kind, Outcome, Why
from .meaning import meanings, range_of
from .parts import GROUPED_KINDS, Misread
from .text import LONGEST, plain, without_about

STARTS: dict[Kind, str] = {
    "level": "level", "background": "level", "seen": "level", "ratio": "ratio", "aperture": "aperture",
    "meter": "aperture", "shutter": "shutter", "duration": "shutter", "iso": "iso", "nd": "nd",
    "distance": "distance", "bearing": "bearing", "facing": "bearing", "compass": "compass", "angle": "angle",
    "dial": "dial", "guide_number": "guide_number", "clock": "clock", "seconds": "hours", "minutes": "hours",
    "hours": "hours", "range": "range",
}  # fmt: skip
"""The rule of the grammar for each kind; the others are a number with a unit that a table knows."""
SAME = 1e-6  # of a value: nearer than that, two readings are one
ON_STEP = 0.08  # of a stop: a setting this near to a step of the dial is that step, as 12 Ws is for 12.5
HALF = 0.5 + 1e-6  # half way between two steps the one with less light is taken: too dark is safer than too bright


@lru_cache(maxsize=1)
def _grammar() -> Lark:
    text = files(__package__).joinpath("quantities.lark").read_text("utf-8")
    return Lark(text, start=sorted({*STARTS.values(), "plain"}), parser="earley", ambiguity="explicit")


def _trees(text: str, start: str) -> list[Tree[Token]]:
    """All ways in which a text can be parsed; empty where there is none."""
    try:
        found = _grammar().parse(text, start=start)
    except UnexpectedInput:
        return []
    return list(CollapseAmbiguities().transform(found))


def outcome(text: str, asked: Asked) -> Outcome:
    """A text as the quantity asked for. Never raises."""
    bare = without_about(plain(text[: LONGEST + 1], asked.kind in GROUPED_KINDS))
    if not bare:
        return Outcome(why="empty")
    if len(bare) > LONGEST:
        return Outcome(why="unknown")
    if asked.kind == "date":
        return _date(bare)
    found: list[float] = []
    pairs: list[tuple[float, float]] = []
    whys: list[Why] = []
    for tree in _trees(bare, STARTS.get(asked.kind, "plain")):
        try:
            if tree.data == "two":
                pairs += range_of(tree, asked)
            else:
                found += meanings(tree, asked)
        except Misread as misread:
            whys.append(misread.why)
        except OverflowError:
            whys.append("bounds")
    if pairs:
        return _pair(pairs, asked)
    found = [value for value in _apart(found) if math.isfinite(value)]
    if not found:
        return Outcome(why=next((why for why in whys if why != "unknown"), "unknown"))
    return _on_dial(found, asked) if asked.kind == "dial" else _inside(found, asked)


def _apart(values: list[float]) -> list[float]:
    """Values without those that are as good as one before them."""
    kept: list[float] = []
    for value in values:
        if not any(math.isclose(value, one, rel_tol=SAME, abs_tol=1e-9) for one in kept):
            kept.append(value)
    return kept


def _holds(value: float, asked: Asked) -> bool:
    slack = SAME * max(abs(value), 1e-9)
    return (asked.low is None or value >= asked.low - slack) and (asked.high is None or value <= asked.high + slack)


def _inside(values: list[float], asked: Asked) -> Outcome:
    held = [value for value in values if _holds(value, asked)]
    if not held:
        return Outcome(why="bounds")
    return Outcome(tuple(held))


def _pair(pairs: list[tuple[float, float]], asked: Asked) -> Outcome:
    held = [(low, high) for low, high in pairs if _holds(low, asked) and _holds(high, asked)]
    if not held:
        return Outcome(why="bounds")
    if any(not one.is_integer() for one in held[0]):
        return Outcome(why="no_decimals")
    return Outcome((held[0][0],), most=held[0][1])


def _on_dial(values: list[float], asked: Asked) -> Outcome:
    """Settings that a dial has: between two steps the nearest, beyond its ends none."""
    dial = asked.dial
    if dial is None:
        return _inside(values, asked)
    step, most = dial.scale.step_stops, dial.scale.dial_range_stops
    held = [value for value in values if -ON_STEP <= value <= most + ON_STEP]
    if not held:
        return Outcome(why="beyond_dial")
    steps = [min(max(math.floor(value / step + HALF) * step, 0.0), most) for value in held]
    moved = any(abs(on - value) > min(ON_STEP, 0.4 * step) for on, value in zip(steps, held, strict=True))
    return Outcome(tuple(_apart([round(on, 4) for on in steps])), moved=moved)


DATES = ("%Y-%m-%d", "%d %B %Y", "%d %b %Y", "%B %d %Y", "%b %d %Y", "%d/%m/%Y", "%d.%m.%Y", "%d-%m-%Y", "%d/%m/%y")
EITHER_WAY = ("%m/%d/%Y", "%m/%d/%y")  # month first, as some write it


def _date(bare: str) -> Outcome:
    """Days since 1 January 1970; a date that may have its month first, or its day, is asked about."""
    said = bare.replace(",", " ").replace("  ", " ")
    found: dict[int, str] = {}
    for form in DATES + EITHER_WAY:
        try:
            when = datetime.strptime(said, form).replace(tzinfo=UTC).date()
        except ValueError:
            continue
        found.setdefault((when - date(1970, 1, 1)).days, form)
    return Outcome(tuple(float(day) for day in found)) if found else Outcome(why="unknown")
