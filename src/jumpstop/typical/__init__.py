"""What people commonly own, by class and without any maker's name: data that a person can read and edit.

Each entry has a key, the document as it comes onto the shelf (marked typical), how far its kind spreads (units and
modifiers: one standard deviation in stops), and where its figures come from.
"""

import json
from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import Any, NamedTuple

from pydantic import BaseModel

from ..core.kit.body import Body
from ..core.kit.filter import Filter
from ..core.kit.lens import LensKit
from ..core.kit.modifier import Modifier
from ..core.kit.shelf import Shelf
from ..core.kit.stand import Stand
from ..core.kit.trigger import Battery, Trigger
from ..core.kit.unit import Unit

HERE = Path(__file__).parent
MODELS: Mapping[str, type[BaseModel]] = {
    "units": Unit,
    "modifiers": Modifier,
    "bodies": Body,
    "lenses": LensKit,
    "filters": Filter,
    "triggers": Trigger,
    "batteries": Battery,
    "stands": Stand,
}
"""Kinds of kit in the order in which they are ticked."""


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
        Typical(row["key"], MODELS[kind].model_validate(row["doc"]), row["spread"] or None, row["source"])
        for row in rows
    )


@cache
def typical_shelf() -> Shelf:
    """The typical units as a shelf: what a picture is shown against while a person has no unit."""
    classes = typical("units")
    return Shelf([one.doc for one in classes], [f"typical-{one.key}" for one in classes])
