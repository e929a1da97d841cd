"""The desk between store and core: the shelf kept as a table while it does not change, setups with the shelf's kit."""

from threading import Lock
from typing import Any

from pydantic import BaseModel, ValidationError

from ..core.camera import Body, Filter
from ..core.flash import Unit
from ..core.modifiers import Modifier
from ..core.reach import solve
from ..core.setup import Setup
from ..core.table import Table, table_of
from ..formats.answer import answer_of
from ..store.documents import Item, Kind, Store
from .schemas import Preferences, Solved

MODELS: dict[str, type[BaseModel]] = {
    "units": Unit,
    "modifiers": Modifier,
    "bodies": Body,
    "filters": Filter,
    "setups": Setup,
}


class Desk:
    """One store, with what was made of it in memory."""

    def __init__(self, store: Store) -> None:
        self.store = store
        self._lock = Lock()
        self._tables: dict[float, tuple[int, list[str], Table]] = {}
        self._kit: dict[str, tuple[int, dict[str, Any]]] = {}

    def table(self, meter_c: float) -> tuple[list[str], Table]:
        """(ids, table) of the whole shelf at this meter constant."""
        count = self.store.changes()["units"]
        with self._lock:
            kept = self._tables.get(meter_c)
            if kept is None or kept[0] != count:
                items = self.store.items("units")
                table = table_of([Unit.model_validate(item.doc) for item in items], meter_c)
                kept = (count, [item.id for item in items], table)
                self._tables = {meter_c: kept}
            return kept[1], kept[2]

    def named(self, kind: Kind, count: int) -> dict[str, Any]:
        """The kit of one kind by name, kept until its count of changes moves."""
        with self._lock:
            kept = self._kit.get(kind)
            if kept is None or kept[0] != count:
                kept = (count, {i.doc["name"]: MODELS[kind].model_validate(i.doc) for i in self.store.items(kind)})
                self._kit[kind] = kept
            return kept[1]

    def preferences(self) -> Preferences:
        """What the person chose, or the usual."""
        try:
            return Preferences.model_validate(self.store.preferences())
        except ValidationError:
            return Preferences()

    def setup_of(self, item: Item) -> Setup:
        """A stored setup with the shelf's newest body, filters and modifiers of the same names.

        The setup keeps copies, so that it still stands when the shelf's own are gone.
        """
        setup = Setup.model_validate(item.doc)
        counts = self.store.changes()
        kinds: tuple[Kind, ...] = ("bodies", "filters", "modifiers")
        bodies, filters, modifiers = (self.named(kind, counts[kind]) for kind in kinds)
        changed: dict[str, Any] = {}
        body = bodies.get(setup.body.name)
        if body is not None:
            changed["body"] = body
        changed["filters"] = tuple(filters.get(own.name, own) for own in setup.filters)
        lights = []
        for light in setup.lights:
            newest = modifiers.get(light.modifier.name) if light.modifier else None
            if newest is not None:
                known = {layer.name for layer in newest.layers}
                layers = None if light.layers is None else tuple(name for name in light.layers if name in known)
                light = light.model_copy(update={"modifier": newest, "layers": layers})
            lights.append(light)
        changed["lights"] = tuple(lights)
        return setup.model_copy(update=changed)

    def solved(self, item: Item, light: int = 0) -> Solved:
        """A stored setup and its answer."""
        setup = self.setup_of(item)
        answer, trouble = None, ""
        try:
            ids, table = self.table(setup.meter_c)
            manner = self.preferences()
            answer = answer_of(setup, solve(setup, table, light), table, ids, manner, manner.avoid)
        except ValueError as error:
            trouble = str(error)
        return Solved(
            id=item.id, revision=item.revision, job_id=item.job_id, setup=setup, answer=answer, trouble=trouble
        )
