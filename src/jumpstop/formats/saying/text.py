"""A line in words; the names of one's own kit, and words of the trade that hold a comma, are one word each."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ...words.saying import PHRASES
from .asked import Sayable


@dataclass(frozen=True)
class Word:
    """One word of a line, and where it stands. part: parts are counted at the commas; name: a piece of kit that is
    named in full; phrase: words of the trade that hold a comma."""

    text: str
    start: int
    end: int
    part: int
    name: Any = None
    phrase: str = ""


SPLIT = re.compile(
    r"[,;\n]+|\((?i:nd)[^()\n]*\)|\d+(?:,\d+)+[^\s,;@]*|[^\s,;@\d]+\d+,\d{1,2}(?![\d/])[^\s,;@]*|[^\s,;@]+"
)
"""A comma between digits is a decimal one: 1,8 m; after f/8 or ±8 only where no other figure can follow it.
What a filter is marked with, in brackets, is one word."""


def words_of(text: str, known: Sayable) -> Iterator[Word]:
    """The words of a line; names of kit, and words of the trade that hold a comma, are one each."""
    spans = _whole_names(text, known)
    part, at = 0, 0
    while at < len(text):
        span = spans.get(at)
        if span is not None:
            end, name, phrase = span
            yield Word(text[at:end], at, end, part, name, phrase)
            at = end
            continue
        match = SPLIT.match(text, at)
        if match is None:
            at += 1
            continue
        following = min((start for start in spans if start > at), default=len(text))
        end = min(match.end(), following)
        if match.group()[0] in ",;\n":
            part += 1
        else:
            word = text[at:end].rstrip(".!?")
            if word:
                yield Word(word, at, at + len(word), part)
        at = end


def _whole_names(text: str, known: Sayable) -> dict[int, tuple[int, Any, str]]:
    """By where it begins: (where it ends, the piece of kit, or nothing and the words of the trade)."""
    kit: list[Any] = [*known.units, *known.modifiers, *known.bodies, *known.lenses, *known.filters]
    every: list[tuple[str, Any, str]] = [(one.name, one, "") for one in kit if len(one.name) > 2]
    every += [(phrase, None, phrase) for phrase in PHRASES if "," in phrase]
    found: dict[int, tuple[int, Any, str]] = {}
    taken = [False] * len(text)
    for name, item, phrase in sorted(every, key=lambda one: -len(one[0])):
        for match in re.finditer(rf"(?<!\w){re.escape(name)}(?!\w)", text, re.IGNORECASE):
            if not any(taken[match.start() : match.end()]):
                found[match.start()] = (match.end(), item, phrase)
                taken[match.start() : match.end()] = [True] * (match.end() - match.start())
    return found
