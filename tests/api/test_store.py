"""The data file: what older versions left in it, undo, and two writers at once."""

import json
import sqlite3
import threading
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from jumpstop.api.app import create_app
from jumpstop.demo import fill, kit
from jumpstop.store.database import FILE
from jumpstop.store.documents import ConflictError, MissingError, Store

# A setup as the first version wrote it: no motion, no lens, no place, no trigger.
OLD = {
    "format": "jumpstop-setup", "version": 1, "name": "From before", "note": "",
    "there": {"by": "condition", "condition": "distinct_shadows", "readings": [], "lux": None, "subject": "back"},
    "look": {"f_number": 2.8, "background_stops": -1.0, "iso": 100},
    "body": {"name": "Old body", "sync_s": 0.004, "top_speed_s": 0.000125},
    "filters": [{"name": "ND 6", "stops": 6.0, "most_stops": None, "note": ""}],
    "lights": [{"role": "key", "distance_m": 1.8, "heads": 1, "modifier": None, "gel": "none"}],
    "way": "nd", "frames": 240,
}  # fmt: skip


def test_documents_of_the_first_version_still_open_and_solve(tmp_path: Path) -> None:
    store = Store(tmp_path)
    store.add("units", kit()["units"], "Units")
    item = store.add("setups", [OLD], "Setup")[0]
    store.close()
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1") as client:
        answer = client.get(f"/api/setups/{item.id}/answer").json()
    assert answer["setup"]["name"] == "From before"
    assert answer["setup"]["motion"]["kind"] == "none"
    assert answer["answer"]["chosen"] == "nd"
    assert len(answer["answer"]["lanes"]) == 12


def test_a_file_of_another_version_is_copied_before_it_is_touched(tmp_path: Path) -> None:
    Store(tmp_path).close()
    with sqlite3.connect(tmp_path / FILE) as connection:
        connection.execute("DELETE FROM alembic_version")
        connection.execute("INSERT INTO alembic_version VALUES ('0000')")
    with pytest.raises(Exception, match="0000"):  # nothing known leads from there: refused, not overwritten
        Store(tmp_path)
    copies = list(tmp_path.glob("before-*"))
    assert len(copies) == 1
    with sqlite3.connect(copies[0]) as connection:
        assert connection.execute("SELECT version_num FROM alembic_version").fetchone() == ("0000",)


def test_a_file_that_is_no_data_file_is_left_alone(tmp_path: Path) -> None:
    (tmp_path / FILE).write_bytes(b"a picture, perhaps" * 100)
    with pytest.raises(ValueError, match="is not a data file"):
        Store(tmp_path)
    assert (tmp_path / FILE).read_bytes().startswith(b"a picture")


def test_nudges_of_one_figure_are_undone_as_one(tmp_path: Path) -> None:
    store = Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 1}], "Add ND")[0]
    for stops in (2, 3, 4):
        item = store.put("filters", item.id, {"name": "ND", "stops": stops}, item.revision, "Stops")
    done = store.undo()
    assert done is not None
    assert done.label == "Stops"
    assert store.item("filters", item.id).doc["stops"] == 1
    store.undo()
    with pytest.raises(MissingError):
        store.item("filters", item.id)
    assert store.undo() is None
    store.redo()
    store.redo()
    assert store.item("filters", item.id).doc["stops"] == 4
    assert store.item("filters", item.id).revision > 4  # a revision is never used twice


def test_of_two_writers_one_is_told(tmp_path: Path) -> None:
    store, other = Store(tmp_path), Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 0}], "Add")[0]
    told: list[str] = []

    def write(who: Store, name: str) -> None:
        try:
            who.put("filters", item.id, {"name": name, "stops": 1}, item.revision, name)
        except ConflictError as error:
            told.append(error.current.doc["name"])

    threads = [threading.Thread(target=write, args=args) for args in ((store, "one"), (other, "two"))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(told) == 1
    assert told[0] == store.item("filters", item.id).doc["name"]
    other.close()


def test_a_changed_modifier_reaches_the_setups_and_a_deleted_one_stays_in_them(tmp_path: Path) -> None:
    store = Store(tmp_path)
    fill(store)
    store.close()
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1") as client:
        setup = client.get("/api/setups").json()[0]

        def octa() -> float:
            lights = client.get(f"/api/setups/{setup['id']}/answer").json()["setup"]["lights"]
            return float(lights[0]["modifier"]["stops"])

        stored = next(m for m in client.get("/api/modifiers").json() if m["doc"]["name"] == "Octa 90")
        changed = stored["doc"] | {"stops": -1.7}
        url = f"/api/modifiers/{stored['id']}"
        client.put(url, content=json.dumps(changed), headers={"if-match": '"1"', "content-type": "application/json"})
        assert octa() == -1.7
        client.delete("/api/modifiers", params={"item_id": stored["id"]})
        assert octa() == -0.4  # the setup's own copy
