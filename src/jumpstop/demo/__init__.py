"""The kite week: invented units, kit and setups, kept as files that a person can read and edit."""

import json
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from ..core.kit.kinds import KIT_MODELS
from ..core.scene.job import Job
from ..core.scene.setup import Setup
from ..formats.shelf import read_shelf
from ..store.documents import Store
from ..store.file import FILE
from ..store.making import made_ready
from ..store.rows import Kind

HERE = Path(__file__).parent
SHELF = HERE / "shelf.json"
FILED: tuple[Kind, ...] = ("modifiers", "bodies", "lenses", "filters", "triggers", "batteries")


def _file(name: str) -> Any:
    return json.loads((HERE / f"{name}.json").read_text(encoding="utf-8"))


def _checked(kind: Kind, doc: Any) -> dict[str, Any]:
    return KIT_MODELS[kind].model_validate(doc).model_dump(mode="json")


def kit() -> dict[Kind, list[dict[str, Any]]]:
    """All kit of the demo, each piece checked."""
    return {
        "units": [unit.model_dump(mode="json") for unit in read_shelf(SHELF.read_bytes()).units],
        **{kind: [_checked(kind, doc) for doc in _file(kind)] for kind in FILED},
    }


def setups(ids: Mapping[str, Mapping[str, str]] | None = None) -> list[Setup]:
    """The week's setups; kit is named in the files and filled in here, with its id on the shelf where that is known."""
    known = ids or {}
    named = {
        kind: {doc["name"]: doc | {"id": known.get(kind, {}).get(doc["name"])} for doc in docs}
        for kind, docs in kit().items()
    }
    out = []
    for raw in _file("setups"):
        doc = dict(raw)
        doc["body"] = named["bodies"][doc["body"]]
        if doc.get("lens"):
            doc["lens"] = named["lenses"][doc["lens"]]
        doc["filters"] = [named["filters"][name] for name in doc.get("filters", [])]
        doc["lights"] = [
            light | ({"modifier": named["modifiers"][light["modifier"]]} if light.get("modifier") else {})
            for light in doc["lights"]
        ]
        out.append(Setup.model_validate(doc))
    return out


def job(unit_ids: Mapping[str, str]) -> dict[str, Any]:
    """The week's job; units are named in the file and known here by their ids, setups by their names still."""
    doc = _file("job")
    for part in ("picked", "batteries"):
        doc[part] = [one | {"unit": unit_ids[one["unit"]], "name": one["unit"]} for one in doc[part]]
    sessions = [one | {"setup": "named"} for one in doc["sessions"]]
    whole = Job.model_validate(doc | {"sessions": sessions}).model_dump(mode="json")
    named = [one | {"setup": raw["setup"]} for one, raw in zip(whole["sessions"], doc["sessions"], strict=True)]
    return whole | {"sessions": named}


def begin(folder: Path, anew: bool = False) -> None:
    """The kite week in a folder that has no data, whole or not at all. anew: what is there is thrown away."""

    def filled(making: Path) -> None:
        store = Store(making)
        fill(store)
        store.close()

    made_ready(folder / FILE, filled, anew)


def fill(store: Store) -> None:
    """Put the kite week into an empty store; one that holds anything is left as it is."""
    if not store.is_empty():
        return
    ids: dict[str, dict[str, str]] = {}
    for kind, docs in kit().items():
        ids[kind] = {item.doc["name"]: item.id for item in store.add(kind, docs, f"The demo's {kind}")}
    named = [(setup.name, setup.model_dump(mode="json")) for setup in setups(ids)]
    store.add_job(job(ids["units"]), named)
    store.forget_history()
