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
from ..store.documents import PREFERENCES, Item, Kind, Store, changed
from .schemas import Preferences, Solved

Meta = dict[str, Any]
OWN_KIT: tuple[Kind, ...] = ("bodies", "filters", "modifiers")
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

    def table(self, meter_c: float, meta: Meta | None = None) -> tuple[list[str], Table]:
        """(ids, table) of the whole shelf at this meter constant. `meta` as just read, to spare a second reading."""
        count = (self.store.meta() if meta is None else meta).get(changed("units"), 0)
        with self._lock:
            kept = self._tables.get(meter_c)
            if kept is None or kept[0] != count:
                items = self.store.items("units")
                table = table_of([Unit.model_validate(item.doc) for item in items], meter_c)
                kept = (count, [item.id for item in items], table)
                self._tables = {meter_c: kept}
            return kept[1], kept[2]

    def named(self, kind: Kind, meta: Meta) -> dict[str, Any]:
        """The kit of one kind by name, kept until its count of changes moves."""
        count = meta.get(changed(kind), 0)
        with self._lock:
            kept = self._kit.get(kind)
            if kept is None or kept[0] != count:
                kept = (count, {i.doc["name"]: MODELS[kind].model_validate(i.doc) for i in self.store.items(kind)})
                self._kit[kind] = kept
            return kept[1]

    def preferences(self, meta: Meta | None = None) -> Preferences:
        """What the person chose, or the usual."""
        try:
            return Preferences.model_validate((self.store.meta() if meta is None else meta).get(PREFERENCES, {}))
        except ValidationError:
            return Preferences()

    def setup_of(self, item: Item, meta: Meta | None = None) -> Setup:
        """A stored setup with the shelf's newest body, filters and modifiers of the same names.

        The setup keeps copies, so that it still stands when the shelf's own are gone.
        """
        setup = Setup.model_validate(item.doc)
        meta = self.store.meta() if meta is None else meta
        bodies, filters, modifiers = (self.named(kind, meta) for kind in OWN_KIT)
        newer: dict[str, Any] = {}
        body = bodies.get(setup.body.name)
        if body is not None:
            newer["body"] = body
        newer["filters"] = tuple(filters.get(own.name, own) for own in setup.filters)
        lights = []
        for light in setup.lights:
            newest = modifiers.get(light.modifier.name) if light.modifier else None
            if newest is not None:
                known = {layer.name for layer in newest.layers}
                layers = None if light.layers is None else tuple(name for name in light.layers if name in known)
                light = light.model_copy(update={"modifier": newest, "layers": layers})
            lights.append(light)
        newer["lights"] = tuple(lights)
        return setup.model_copy(update=newer)

    def solved(self, item: Item, light: int = 0) -> Solved:
        """A stored setup and its answer."""
        meta = self.store.meta()
        setup = self.setup_of(item, meta)
        answer, trouble = None, ""
        try:
            ids, table = self.table(setup.meter_c, meta)
            manner = self.preferences(meta)
            answer = answer_of(setup, solve(setup, table, light), table, ids, manner, manner.avoid)
        except ValueError as error:
            trouble = str(error)
        return Solved(
            id=item.id, revision=item.revision, job_id=item.job_id, setup=setup, answer=answer, trouble=trouble
        )
