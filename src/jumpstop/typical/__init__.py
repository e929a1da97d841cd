"""What people commonly own, by class and without any maker's name: data that a person can read and edit.

Each entry has a key, the document as it comes onto the shelf (marked typical), how far its kind spreads (units and
modifiers: one standard deviation in stops), and where its figures come from.
"""

import json
from functools import cache
from pathlib import Path
from typing import Any, NamedTuple

from ..core.kit.kinds import KIT_MODELS
from ..core.kit.shelf import Shelf

HERE = Path(__file__).parent


class Typical(NamedTuple):
    """One class of a kind of kit. spread: stops, None where it is of no light."""

    key: str
    doc: Any
    spread: float | None
    source: str


@cache
def typical(kind: str) -> tuple[Typical, ...]:
    """The classes of one kind, each document checked."""
    rows = json.loads((HERE / f"{kind}.json").read_text(encoding="utf-8"))
    return tuple(
        Typical(row["key"], KIT_MODELS[kind].model_validate(row["doc"]), row["spread"] or None, row["source"])
        for row in rows
    )


class Firing(NamedTuple):
    """A way that heads are fired: keys of triggers, once for all heads and once for each."""

    key: str
    title: str
    once: tuple[str, ...]
    each: tuple[str, ...]


@cache
def firings() -> tuple[Firing, ...]:
    """The ways that heads off the camera are commonly fired."""
    rows = json.loads((HERE / "firing.json").read_text(encoding="utf-8"))
    return tuple(Firing(row["key"], row["title"], tuple(row["once"]), tuple(row["each"])) for row in rows)


@cache
def typical_shelf() -> Shelf:
    """The typical units as a shelf: what a picture is shown against while a person has no unit."""
    classes = typical("units")
    return Shelf([one.doc for one in classes], [f"typical-{one.key}" for one in classes])
