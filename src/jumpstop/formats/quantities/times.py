"""Times of day, and lengths of time."""

from .asked import Asked
from .parts import WORDS, Misread, Node, Rule, Values, fail, only, tokens, whole_and_part


def _clock(tree: Node, asked: Asked) -> Values:
    ints = tokens(tree, "INT")
    if len(ints) == 1 and len(ints[0]) in (3, 4):
        ints = [ints[0][:-2], ints[0][-2:]]
    if len(ints) == 2 and len(ints[1]) != 2:
        raise Misread("unknown")
    return _at(float(ints[0]), float(ints[1]) if len(ints) == 2 else 0.0, tree)


def _at(hour: float, minute: float, tree: Node) -> Values:
    for half in tokens(tree, "PM"):
        if not 1 <= hour <= 12:
            raise Misread("unknown")
        hour = hour % 12 + (12 if half[0] == "p" else 0)
    return [hour * 60 + minute] if hour < 24 and minute < 60 else fail("unknown")


def _past(minute: float, readings: tuple[int, ...] = (0,)) -> Rule:
    """So many minutes past the hour that is said, or of the ones before it that may be meant as well."""

    def rule(tree: Node, asked: Asked) -> Values:
        said = tokens(tree, "INT") or tokens(tree, "WHOLE")
        hour = WORDS.get(said[0]) or float(said[0])
        return [one for off in readings for one in _at((hour + off) % 24, minute, tree)]

    return rule


def _fixed(value: float) -> Rule:
    return lambda tree, asked: [value]


BASE_S = {"seconds": 1.0, "minutes": 60.0, "hours": 3600.0}


def _time(size_s: float) -> Rule:
    return lambda tree, asked: [one * size_s / BASE_S[asked.kind] for one in only(tree, asked)]


def _hours_and(tree: Node, asked: Asked) -> Values:
    return [one * 3600 / BASE_S[asked.kind] for one in whole_and_part(tree, asked)]


def _hours_bare(tree: Node, asked: Asked) -> Values:
    return only(tree, asked)


def _hours_minutes(tree: Node, asked: Asked) -> Values:
    hours, minutes = tokens(tree, "INT")
    if len(minutes) != 2 or int(minutes) > 59:
        raise Misread("unknown")
    return [(float(hours) * 3600 + float(minutes) * 60) / BASE_S[asked.kind]]


RULES: dict[str, Rule] = {
    "clock": _clock,
    "clock_hour": _past(0),
    "half_hour": _past(30, (0, -1)),
    "half_past": _past(30),
    "quarter_past": _past(15),
    "quarter_to": _past(45, (-1,)),
    "noon": _fixed(720.0),
    "midnight": _fixed(0.0),
    "hours_bare": _hours_bare,
    "of_hours": _time(3600.0),
    "hours_and": _hours_and,
    "of_minutes": _time(60.0),
    "of_seconds": _time(1.0),
    "hours_minutes": _hours_minutes,
}
