"""A line of a specification as figures with their units, and words that mean something."""

import re
import unicodedata
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal, cast

from ..quantities.asked import Sign
from ..quantities.text import numbers, plain
from ..quantities.units import CURRENCIES
from .vocabulary import ASIDES, BETWEEN, KINDS, LABELS, UNITS

SHORT = re.compile(r"\b(max|min|incl|inkl|excl|no|temp|approx|ca|env|circa|aprox)\.")
GLUED = re.compile(r"\b(gn|lz|ng|iso)(?=\d)")
LONGEST = 400  # characters of a line that are looked at
GROUPED_UNITS = {"mah", "cds", "lxs", "lux", "k", "£", "$", "€", "lm"}  # in which thousands are usual


@dataclass(frozen=True, slots=True)
class Token:
    """A figure (all it can be, with its unit), a label, an aside, a kind, a bare unit, a range's dash, a break, or
    something else.

    opened: it stands inside brackets. over: it was written as a fraction.
    """

    kind: Literal["figure", "label", "aside", "type", "unit", "between", "break", "other"]
    text: str
    values: tuple[float, ...] = ()
    unit: str = ""
    code: str = ""
    opened: bool = False
    over: bool = False


def folded(text: str) -> str:
    """Lower case, one minus, straight marks, no accents."""
    bare = plain(text.replace("ß", "ss"))
    if not bare.isascii():
        bare = unicodedata.normalize("NFKD", bare).replace("⁄", "/")
        bare = "".join(sign for sign in bare if not unicodedata.combining(sign))
    bare = SHORT.sub(r"\1", bare)
    return GLUED.sub(r"\1 ", bare)


def _phrase(words: str) -> str:
    """A phrase as a pattern: between its words a space, a hyphen or nothing."""
    return r"[\s\-]*".join(re.escape(word) for word in re.split(r"[\s\-]+", words))


def _any_of(table: dict[str, list[str]]) -> tuple[str, dict[str, str]]:
    """A pattern of all phrases of a table, longest first, and what each, without its spaces, stands for."""
    every = [(phrase, code) for code, phrases in table.items() for phrase in phrases]
    every.sort(key=lambda one: -len(one[0]))
    codes = {re.sub(r"[\s\-]", "", phrase): code for phrase, code in reversed(every)}
    by_letter: dict[str, list[str]] = {}  # so that few of them are tried at each place
    for phrase, _ in every:
        by_letter.setdefault(phrase[0], []).append(_phrase(phrase))
    return "|".join(f"(?={re.escape(one)})(?:{'|'.join(some)})" for one, some in by_letter.items()), codes


_SAID = {"aside": ASIDES, "label": LABELS, "type": KINDS}
_WORD, _WORDS = _any_of({f"{kind} {code}": every for kind, table in _SAID.items() for code, every in table.items()})
_UNIT, _UNITS = _any_of(UNITS)
_NUM = r"\d+(?:[.,]\d+)*|[.,]\d+"
_SPACED = r"\d{1,3}(?: \d{3})+(?=\s*(?:lx|lux|cd|bcps|ecps|mah|k\b|[£$€]))"  # 12 960 lx s
_END = r"(?![a-z0-9])"
_START = r"(?<![a-z0-9])"


_BELOW = rf"\d{{1,2}} \d{{3}}(?=\s*s(?:ec)?{_END})|\d{{1,3}}(?:[.,]\d{{3}})+(?!\d)|{_NUM}"
_BEHIND = "|".join(map(re.escape, sorted((*UNITS["s"], *UNITS["stops"], "pasos"), key=len, reverse=True)))


@lru_cache(maxsize=1)
def _pattern() -> re.Pattern[str]:
    parts = {
        "when": rf"{_START}t\s*(?:\(\s*0?[.,]?[15]\s*\)|=?\s*0?[.,]?[15](?![0-9a-z]))(?![.,]\d|\s*/)",
        "word": rf"{_START}(?:{_WORD}){_END}\.?",
        "share": rf"{_START}(?P<above>\d)\s*/\s*(?P<below>{_BELOW})(?:[\s\-]*(?P<sunit>{_BEHIND}){_END})?",
        "fnumber": rf"{_START}f\s*[/:]?\s*(?P<fnum>{_NUM})(?!\s*-?\s*stops?)",
        "money": rf"(?P<sign>[£$€]|{_START}(?:eur|gbp|usd)(?=[\s\d]))\s*(?P<mnum>{_NUM})",
        "figure": rf"{_START}(?P<num>{_SPACED}|{_NUM})(?:\s*[\-]?(?P<unit>{_UNIT}){_END}|\s*(?P<mark>[°%'£$€]))?",
        "unit": rf"{_START}(?:m|ft|metres|meters|feet|meter){_END}",
        "between": "|".join(
            rf"{_START}{re.escape(one)}{_END}" if one[0].isalpha() else re.escape(one) for one in BETWEEN
        ),
        "break": r"[,;|:()\[\]/]",
        "other": r"[^\s\d,;|:()\[\]/£$€-]+|\S",
    }
    return re.compile("|".join(f"(?P<is_{name}>{pattern})" for name, pattern in parts.items()))


def tokens(line: str, sign: Sign = "") -> list[Token]:
    """A line's tokens, in order. sign: the one decimal sign that the person writes, if so."""
    return list(_tokens(line, sign))


@lru_cache(maxsize=4096)
def _tokens(line: str, sign: Sign) -> tuple[Token, ...]:
    text, out, depth = folded(line[:LONGEST]), list[Token](), 0
    for found in _pattern().finditer(text):
        token = _token(found, sign)
        if token.kind == "break":
            depth = max(
                0, depth + token.text.count("(") + token.text.count("[") - token.text.count(")") - token.text.count("]")
            )
        out.append(replace(token, opened=True) if depth else token)
    return tuple(_ranged(out))


def _token(found: re.Match[str], sign: Sign) -> Token:
    text = found.group()
    kind = (found.lastgroup or "").removeprefix("is_")
    bare = re.sub(r"[\s\-]", "", text).removesuffix(".")
    match kind:
        case "when":
            return Token("aside", text, code="t.1" if "1" in text else "t.5")
        case "word":
            what, _, code = _WORDS[bare].partition(" ")
            return Token(cast(Literal["aside", "label", "type"], what), text, code=code)
        case "share":
            below = [one for one in numbers(found["below"].replace(" ", ","), grouped=True) if one]
            unit = found["sunit"] or ""
            unit = unit and ("s" if unit in UNITS["s"] else "stops")
            return Token("figure", text, tuple(float(found["above"]) / one for one in below), unit, over=True)
        case "fnumber":
            return Token("figure", text, tuple(numbers(found["fnum"], grouped=False, sign=sign)), "f")
        case "money":
            return Token("figure", text, tuple(numbers(found["mnum"], grouped=True)), CURRENCIES[found["sign"]])
        case "figure":
            written = found["unit"] or found["mark"] or ""
            unit = _UNITS.get(re.sub(r"[\s\-]", "", written), "") if written else ""
            return Token(
                "figure", text, tuple(numbers(found["num"].replace(" ", ","), unit in GROUPED_UNITS, sign)), unit
            )
        case "unit":
            return Token("unit", text, unit="ft" if text.startswith("f") else "m")
        case "between":
            return Token("between", text)
        case "break":
            return Token("break", text)
    return Token("other", text)


def _ranged(found: list[Token]) -> list[Token]:
    """Where a range says its unit once, behind its second end, the first has it too; a dash elsewhere is nothing."""
    out = list(found)
    for at in range(len(out) - 2):
        first, middle, last = out[at : at + 3]
        dashed = middle.kind == "between" or (middle.kind == "aside" and middle.text == "a")
        if dashed and first.kind == last.kind == "figure":
            out[at + 1] = Token("between", middle.text, opened=middle.opened)
            speed = at > 0 and out[at - 1].code == "iso"
            if not first.unit and last.unit and first.over == last.over and not speed:
                out[at] = replace(first, unit=last.unit)
    return out
