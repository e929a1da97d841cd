"""What a person typed, in one way of writing: one minus, straight marks, plain fractions; and the numbers in it."""

import re
import unicodedata

LONGEST = 120  # characters; a quantity is short
MINUS = "−‐‑‒–—﹣－"
QUOTES = {"’": "'", "‘": "'", "′": "'", "´": "'", "`": "'", "”": '"', "“": '"', "″": '"', "„": '"'}
MARKS = {"×": "x", "✕": "x", "µ": "u", "μ": "u", "ƒ": "f", "º": "°", "∕": "/", "⁄": "/", "：": ":"}
_ONE = str.maketrans(dict.fromkeys(MINUS, "-") | QUOTES | MARKS)
_GROUPED = re.compile(r"(?<=\d)[\u00a0\u202f\u2009](?=\d{3}(?!\d))")  # 12 800, with a space that does not break
_SPACED = re.compile(r"(?<=\d) (?=\d{3}(?!\d))")  # the same with any space, where thousands are usual
_SPACE = re.compile(r"\s+")
_ABOUT = re.compile(r"^(?:(?:about|around|roughly|approximately|approx\.?|circa|ca\.?|c\.) |~ ?)(?=\S)")
_FEET = re.compile(r"''")


def plain(text: str, grouped: bool = False) -> str:
    """A text as the grammar reads it: lower case, one minus, straight marks, ⅔ as 2/3, single spaces."""
    text = (_SPACED if grouped else _GROUPED).sub("", _GROUPED.sub("", text))
    text = text.translate(_ONE)
    if text.isascii():
        return _said(text)
    out = []
    for sign in text:
        if unicodedata.category(sign) == "No" and "⁄" in (said := unicodedata.normalize("NFKC", sign)):
            out.append(f" {said.replace('⁄', '/')} ")  # a fraction in one sign
        else:
            out.append(unicodedata.normalize("NFKC", sign) if ord(sign) > 0xFF00 else sign)
    return _said("".join(out))


def _said(text: str) -> str:
    return _SPACE.sub(" ", _FEET.sub('"', text).lower()).strip().removesuffix(".")


def without_about(text: str) -> str:
    """A plain text without the word that says that its figure is a rough one."""
    return _ABOUT.sub("", text)


def numbers(written: str, grouped: bool, sign: str = "") -> list[float]:
    """What a number as written can be. Of two different signs the last is decimal; one sign before exactly three digits
    is thousands where they are usual (`grouped`), elsewhere either, unless the person's decimal sign is known. Empty
    where its signs make no sense."""
    signs = [sign for sign in written if sign in ".,"]
    if not signs:
        return [float(written)]
    kinds = set(signs)
    if len(kinds) == 2:
        return _both(written, signs[-1])
    parts = re.split("[.,]", written)
    groups = parts[0] not in ("", "0") and len(parts[0]) <= 3 and all(len(part) == 3 for part in parts[1:])
    if len(signs) > 1:
        return [float("".join(parts))] if groups else []
    decimal = float(f"{parts[0] or '0'}.{parts[1]}")
    if not groups or parts[0].startswith("0"):
        return [decimal]
    whole = float("".join(parts))
    if grouped:
        return [whole]
    return [decimal, whole] if not sign else [decimal if signs[0] == sign else whole]


def _both(written: str, decimal: str) -> list[float]:
    whole, _, part = written.rpartition(decimal)
    other = "," if decimal == "." else "."
    groups = whole.split(other)
    if decimal in whole or len(groups[0]) > 3 or any(len(group) != 3 for group in groups[1:]):
        return []
    return [float(f"{''.join(groups)}.{part}")]
