"""Typical kit, to tick: what people commonly own by class, and what was ticked put on the shelf as one edit."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any

from fastapi import APIRouter, Request
from pydantic import Field

from ..core.kit.values import Value, Whole, example
from ..core.physics.battery import Cells
from ..core.scene.begin import Where, begun
from ..store.errors import NotFound
from ..store.rows import KIT, Kind
from ..typical import firings, typical
from ..words import edits as words
from ..words.figures import amount
from .documents import EVERYWHERE, LINES, ONE, REFUSED, Page, workspace_of

router = APIRouter(prefix="/api", tags=["Shelf"], responses=EVERYWHERE)
MOST_OF_ONE = 20
TITLES = {
    "units": "Flash units",
    "modifiers": "Modifiers",
    "bodies": "Bodies",
    "lenses": "Lenses",
    "filters": "Filters",
    "triggers": "Triggers",
    "batteries": "Batteries",
    "stands": "Stands and booms",
}


@dataclass(slots=True)
class FiringChoice:
    """A way that a head is fired, to choose from."""

    key: str
    title: str


@dataclass(slots=True)
class TypicalEntry:
    """A class of kit. spread: how far its kind spreads, in words; cells: whether it asks which are in it; firing: what
    it may be fired by, where that is to be asked."""

    key: str
    name: str
    line: str
    spread: str
    source: str
    cells: bool
    firing: list[FiringChoice]


@dataclass(slots=True)
class TypicalSection:
    """The classes of one kind."""

    kind: Kind
    title: str
    entries: list[TypicalEntry]


class Tick(Value):
    """So many of one class; cells: which are in it, where it takes round cells; firing: what fires it."""

    kind: Annotated[str, Field(max_length=20, title="Kind")]
    key: Annotated[str, Field(max_length=40, title="Class")]
    count: Whole = Field(1, ge=1, le=MOST_OF_ONE, title="How many")
    cells: Cells | None = Field(None, title="Cells")
    firing: Annotated[str, Field(max_length=40, title="Fired by")] = ""


class TypicalIn(Value):
    """What was ticked; and where a first picture is, where one is to be begun at once."""

    model_config = example(ticks=[{"kind": "units", "key": "battery_400", "count": 2}], where="sun")

    ticks: tuple[Tick, ...] = Field(max_length=200, title="Ticks")
    where: Where | None = Field(None, title="Where the first picture is")


@dataclass(slots=True)
class TypicalOut:
    """How many pieces were added, and the setup that was begun with them, if one was."""

    added: int
    setup: str | None


@router.get("/typical")
def sections() -> list[TypicalSection]:
    """What people commonly own, by kind and class."""
    out = []
    for kind in KIT:
        entries = [
            TypicalEntry(
                one.key,
                one.doc.name,
                LINES[kind](one.doc.model_copy(update={"typical": False}) if kind == "modifiers" else one.doc),
                f"± {amount(one.spread)}" if kind == "units" and one.spread is not None else "",
                one.source,
                _takes_cells(one.doc) if kind == "units" else False,
                _fired_by(one.doc) if kind == "units" else [],
            )
            for one in typical(kind)
        ]
        out.append(TypicalSection(kind, TITLES[kind], entries))
    return out


def _takes_cells(unit: Any) -> bool:
    return any(supply.kind == "aa" for supply in unit.power_supplies)


def _fired_by(unit: Any) -> list[FiringChoice]:
    """What a unit off the camera may be fired by; one that is built in, or sits around the lens, is not asked."""
    if unit.kind in ("built_in", "ring"):
        return []
    return [FiringChoice(one.key, one.title) for one in firings()]


@router.post("/typical/take", status_code=201, responses=REFUSED)
def take(request: Request, body: TypicalIn, page: Page = "") -> TypicalOut:
    """Put what was ticked on the shelf, as one edit; with a first setup on that kit where none was there yet."""
    workspace = workspace_of(request)
    ticks = (*body.ticks, *_triggers(body.ticks))
    docs = {kind: list(_documents(kind, [one for one in ticks if one.kind == kind])) for kind in KIT}
    unknown = [one.kind for one in body.ticks if one.kind not in docs]
    if unknown:
        raise NotFound("no_such_kit", name=unknown[0])
    pieces = sum(len(some) for some in docs.values())
    if not pieces:
        return TypicalOut(0, None)
    workspace.store.add_together(docs, words.added_typical(pieces), page)
    setup = None
    if body.where is not None and not workspace.store.revisions("setups"):
        made = begun(body.where, None, workspace.own_kit())
        setup = workspace.store.add(
            "setups", [made.model_dump(mode="json")], words.added("setup", made.name), page=page
        )[0].id
    return TypicalOut(pieces, setup)


def _triggers(ticks: Iterable[Tick]) -> Iterable[Tick]:
    """What the ticked heads are fired by: the most that one of them asks once for all, a receiver for each head.
    Raises NotFound."""
    ways = {one.key: one for one in firings()}
    once: dict[str, int] = {}
    each: Counter[str] = Counter()
    for tick in ticks:
        if not tick.firing:
            continue
        way = ways.get(tick.firing)
        if way is None:
            raise NotFound("no_such_firing", name=tick.firing)
        once |= dict.fromkeys(way.once, 1)
        each.update(dict.fromkeys(way.each, tick.count))
    for key, pieces in (*once.items(), *each.items()):
        yield Tick(kind="triggers", key=key, count=min(pieces, MOST_OF_ONE))


def _documents(kind: Kind, ticks: Iterable[Tick]) -> Iterable[dict[str, Any]]:
    """The documents of one kind: a unit says itself how many there are of it, of other kinds there are as many."""
    classes = {one.key: one.doc for one in typical(kind)}
    for tick in ticks:
        doc = classes.get(tick.key)
        if doc is None:
            raise NotFound("no_such_typical", what=ONE[kind], name=tick.key)
        made = doc.model_dump(mode="json")
        if kind == "units":
            yield made | {"count": tick.count, "power_supplies": [_fed(one, tick) for one in made["power_supplies"]]}
        else:
            for at in range(tick.count):
                yield made | {"name": made["name"] if at == 0 else f"{made['name']}, {at + 1}"}


ALKALINE_SLOWER, ALKALINE_FEWER = 1.4, 0.6  # recycle time and flashes of alkaline cells against NiMH, from memory


def _fed(supply: dict[str, Any], tick: Tick) -> dict[str, Any]:
    if supply["kind"] != "aa" or tick.cells in (None, supply["cells"]):
        return supply
    slower, fewer = (ALKALINE_SLOWER, ALKALINE_FEWER) if tick.cells == "alkaline" else (1.0, 1.0)
    return supply | {
        "cells": tick.cells,
        "recycle_full_s": round(supply["recycle_full_s"] * slower, 1),
        "full_flashes": round(supply["full_flashes"] * fewer),
    }
