"""Guide numbers as makers print them: `GN 60 (ISO 100, m, 200 mm)`, `197 ft ISO 200 @ 105mm`."""

import re

from ..core.kit.unit import Claim
from .errors import Unreadable

_NUMBER = r"(\d+(?:[.,]\d+)?)"
_ISO = re.compile(rf"\bISO\s*/?\s*{_NUMBER}", re.I)
_ZOOM = re.compile(rf"{_NUMBER}\s*-?\s*mm\b", re.I)
_COVERAGE = re.compile(rf"{_NUMBER}\s*(?:°|deg(?:rees)?\b)", re.I)
_FEET = re.compile(rf"{_NUMBER}\s*(?:ft\b|feet\b|foot\b|['’′])", re.I)
_METRES = re.compile(rf"{_NUMBER}\s*(?:m\b|metres?\b|meters?\b)", re.I)
_BARE_UNIT = re.compile(r"(?<![\w.,])(m|metres?|meters?|ft|feet)(?![\w])", re.I)
_GN = re.compile(rf"\b(?:GN|guide\s*(?:number|no\.?))\s*[:=]?\s*{_NUMBER}", re.I)


def _value(text: str) -> float:
    return float(text.replace(",", "."))


def parse_guide_number(text: str) -> Claim:
    """A claim from print. Raises Unreadable with a sentence where the number or its unit cannot be told.

    Without an ISO, ISO 100 is taken (that is how they are printed); without a unit it is refused, since a guess
    would be wrong by a factor of three. Where metres and feet stand side by side, the metres are read.
    """
    if len(text) > 200:
        raise Unreadable("A guide number this long cannot be read.")
    rest = text
    iso = _ISO.search(rest)
    rest = _ISO.sub(" ", rest)
    zoom = _ZOOM.search(rest)
    rest = _ZOOM.sub(" ", rest)
    coverage = _COVERAGE.search(rest)
    rest = _COVERAGE.sub(" ", rest)
    metres, feet, named = _METRES.search(rest), _FEET.search(rest), _GN.search(rest)
    if metres:
        number, unit = metres.group(1), "m"
    elif feet:
        number, unit = feet.group(1), "ft"
    elif named:
        said = _BARE_UNIT.search(rest)
        if said is None:
            raise Unreadable(
                f"“{text.strip()}” does not say whether it is in metres or feet: write “m” or “ft” beside it."
            )
        number, unit = named.group(1), "ft" if said.group(1).lower().startswith("f") else "m"
    else:
        raise Unreadable(
            f"“{text.strip()}” holds no guide number that can be read, such as “GN 60 (ISO 100, m, 200 mm)”."
        )
    return Claim(
        guide_number=_value(number),
        unit="ft" if unit == "ft" else "m",
        iso=_value(iso.group(1)) if iso else 100,
        zoom_mm=_value(zoom.group(1)) if zoom else None,
        coverage_deg=_value(coverage.group(1)) if coverage else None,
        measured=bool(re.search(r"\bmeasured\b", text, re.I)),
    )
