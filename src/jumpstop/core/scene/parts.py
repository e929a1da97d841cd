"""What many entries of a log hold alike: the setup as it stood, the light, the filter, the body. Kept and read once.

In an entry that is packed stands {"part": key} in its place, and the part by its key beside the entries. A part is
known by what it is (its hash), so that the same is never kept twice and none is ever changed. JSON values in and out.
"""

import hashlib
import json
from collections.abc import Iterable, Mapping
from typing import Any

from pydantic import BaseModel, ValidationError

from .light import Light
from .log import LogEntry
from .setup import OwnBody, OwnFilter, Setup

Doc = dict[str, Any]

PART = "part"
PLACES: dict[tuple[str, str], type[BaseModel]] = {
    ("was", ""): Setup,
    ("seen", "was"): Light,
    ("filter", "filter"): OwnFilter,
    ("curtain", "body"): OwnBody,
}
"""Where in an entry a part stands (a field, or a field of a field), and what it is."""
APART: Any = {field: {inner} if inner else True for field, inner in PLACES}  # all of them, left out of an entry
MOST_READ = 5000  # parts that are kept read


def packed(doc: Doc, parts: Doc) -> Doc:
    """An entry with its parts named, which are added to `parts`; one that is packed already as it is."""
    for place in PLACES:
        part = _at(doc, place)
        if isinstance(part, dict) and part.keys() != {PART}:
            key = _key(part)
            parts[key] = part
            doc = _with(doc, place, {PART: key})
    return doc


def unpacked(doc: Doc, parts: Mapping[str, Any]) -> Doc:
    """An entry with its parts in their places."""
    for place in PLACES:
        key = _named(_at(doc, place))
        if key is not None:
            doc = _with(doc, place, parts[key])
    return doc


def named(doc: Doc) -> set[str]:
    """The parts that a packed entry names."""
    return {key for place in PLACES if (key := _named(_at(doc, place))) is not None}


def packed_all(entries: Iterable[LogEntry]) -> tuple[list[Doc], Doc]:
    """(entries as packed JSON values, their parts): what is one value in many of them is written once."""
    parts: Doc = {}
    known: dict[int, str] = {}
    docs = []
    for entry in entries:
        doc = entry.model_dump(mode="json", exclude=APART)
        doc["was"] = None
        for field, inner in PLACES:
            part: Any = getattr(entry, field)
            part = getattr(part, inner) if inner and part is not None else part
            if part is None:
                continue
            key = known.get(id(part))
            if key is None:
                written = part.model_dump(mode="json")
                key = known[id(part)] = _key(written)
                parts[key] = written
            doc = _with(doc, (field, inner), {PART: key})
        docs.append(doc)
    return docs, parts


class Parts:
    """Parts that were read, by what they are known by: one value wherever it is the same part. One that cannot be read
    stays as it is, and is refused by the entry that holds it."""

    def __init__(self) -> None:
        self._read: dict[tuple[type[BaseModel], str], Any] = {}

    def whole(self, doc: Any, parts: Mapping[str, Any]) -> Any:
        """An entry with its parts in their places, read; any other value as it is."""
        if not isinstance(doc, dict):
            return doc
        for place, model in PLACES.items():
            key = _named(_at(doc, place))
            if key is not None:
                doc = _with(doc, place, self._value(model, key, parts))
        return doc

    def _value(self, model: type[BaseModel], key: str, parts: Mapping[str, Any]) -> Any:
        found = self._read.get((model, key))
        if found is None:
            try:
                found = model.model_validate(parts[key])
            except (ValidationError, KeyError):
                return parts.get(key)
            if len(self._read) >= MOST_READ:
                self._read.clear()
            self._read[model, key] = found
        return found


def _key(part: Doc) -> str:
    text = json.dumps(part, sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def _at(doc: Doc, place: tuple[str, str]) -> Any:
    found = doc.get(place[0])
    return found if not place[1] else found.get(place[1]) if isinstance(found, dict) else None


def _named(part: Any) -> str | None:
    key = part.get(PART) if isinstance(part, dict) and len(part) == 1 else None
    return key if isinstance(key, str) else None


def _with(doc: Doc, place: tuple[str, str], value: Any) -> Doc:
    """A copy of an entry with another value in a place."""
    field, inner = place
    return doc | {field: doc[field] | {inner: value} if inner else value}
