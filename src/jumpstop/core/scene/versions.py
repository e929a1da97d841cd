"""Documents of earlier versions, brought to the newest: JSON values in, JSON values out.

Version 2 took the standard terms for names, and has no control characters in text. Nothing else is dropped; what
cannot be read stays as it is, and is then refused by the document itself, with the field's name.
"""

import re
from collections.abc import Mapping, Sequence
from typing import Any

Doc = dict[str, Any]

SETUP_V1 = {"there": "ambient", "look": "aim", "way": "method", "source": "power_supply"}
UNIT_V1 = {"sources": "power_supplies", "pulse": "flash_duration"}


def setup_of_any_version(doc: Any, ids: Mapping[str, Mapping[str, str]] | None = None) -> Any:
    """A setup of version 1 as one of version 2; any other value as it is.

    ids: for "bodies", "filters" and "modifiers", the id on the shelf of each name. Version 1 knew kit by its name only.
    """
    if not isinstance(doc, dict) or doc.get("version", 1 if SETUP_V1.keys() & doc.keys() else 2) != 1:
        return doc
    out = _renamed(doc, SETUP_V1) | {"version": 2}
    if isinstance(aim := out.get("aim"), dict):
        out["aim"] = _renamed(aim, {"blur": "lens"})
    known = ids or {}
    _known_by_id(out, "body", known.get("bodies", {}))
    for item in _list(out.get("filters")):
        _known_by_id(item, None, known.get("filters", {}))
    for light in _list(out.get("lights")):
        _known_by_id(light, "modifier", known.get("modifiers", {}))
    return out


def unit_of_any_version(doc: Any) -> Any:
    """A unit as version 1 named its fields, with the names of version 2; any other value as it is."""
    return _renamed(doc, UNIT_V1) if isinstance(doc, dict) else doc


CONTROL = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f]")  # version 1 let these in


def _renamed(doc: Doc, names: Mapping[str, str]) -> Doc:
    """A deep enough copy with the old names replaced; where both stand, the old one is left to be refused."""
    return {names[key] if key in names and names[key] not in doc else key: _copy(value) for key, value in doc.items()}


def _copy(value: Any) -> Any:
    if isinstance(value, str):
        return CONTROL.sub(" ", value)
    if isinstance(value, dict):
        return {key: _copy(one) for key, one in value.items()}
    return [_copy(one) for one in value] if isinstance(value, list) else value


def _list(value: Any) -> Sequence[Any]:
    return value if isinstance(value, list) else ()


def _known_by_id(holder: Any, key: str | None, ids: Mapping[str, str]) -> None:
    item = holder.get(key) if key is not None and isinstance(holder, dict) else holder
    if isinstance(item, dict) and isinstance(item.get("name"), str) and item["name"] in ids:
        item["id"] = ids[item["name"]]
