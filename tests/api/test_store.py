"""The data file: what older versions left in it, undo, two writers at once, backups, and all that can be wrong."""

import json
import os
import shutil
import sqlite3
import stat
import threading
from collections.abc import Callable
from contextlib import closing
from datetime import datetime
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from httpx import Response
from sqlalchemy import Connection, event, update
from sqlalchemy.exc import OperationalError

from jumpstop.api.app import create_app
from jumpstop.api.workspace import Workspace
from jumpstop.core.kit.errors import JumpStopError
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import fill, kit
from jumpstop.store import database, file
from jumpstop.store.database import backup, restore
from jumpstop.store.documents import Store
from jumpstop.store.errors import Busy, Conflict, InUse, NotFound, StorageFault, TooMuch
from jumpstop.store.file import FILE, HEAD
from jumpstop.store.lock import held
from jumpstop.store.tables import edits
from refused import refused
from versions import OLD, OLD_UNIT


def version_one(folder: Path) -> None:
    """A data file as version 1 left it: its tables, its documents, an edit to undo, no mark of ours."""
    folder.mkdir(parents=True, exist_ok=True)
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(Path(database.__file__).parent / "migrations"))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{folder / FILE}")
    command.upgrade(config, "0001")
    with closing(sqlite3.connect(folder / FILE)) as connection, connection:
        connection.execute("PRAGMA journal_mode=WAL")
        for kind, item, doc in (
            ("bodies", "b1", OLD["body"]), ("filters", "f1", OLD["filters"][0]), ("modifiers", "m1", {"name": "Octa"}),
            ("units", "u1", OLD_UNIT),
        ):  # fmt: skip
            connection.execute(f"INSERT INTO {kind} VALUES (?, ?, 1, 1, ?)", (item, doc["name"], json.dumps(doc)))
        row = ("s1", OLD["name"], 1, 3, json.dumps(OLD), None)
        connection.execute(
            "INSERT INTO setups (id, name, position, revision, doc, job_id) VALUES (?, ?, ?, ?, ?, ?)", row
        )
        before, after = (
            json.dumps({"doc": OLD | {"frames": frames}, "position": 1, "revision": 2, "job_id": None})
            for frames in (100, 240)
        )
        connection.execute(
            'INSERT INTO edits VALUES (1, 1, "2026-06-24 12:00:00", "Frames", "setups", "s1", ?, ?, 0)', (before, after)
        )


def test_a_data_file_of_version_one_is_brought_up_to_date_with_a_copy_kept(tmp_path: Path) -> None:
    version_one(tmp_path)
    store = Store(tmp_path)
    doc = store.item("setups", "s1").doc
    assert (doc["version"], doc["method"], doc["body"]["id"]) == (2, "nd", "b1")
    assert Setup.model_validate(doc).frames == 240
    assert "power_supplies" in store.item("units", "u1").doc
    store.undo()
    assert store.item("setups", "s1").doc["frames"] == 100
    Setup.model_validate(store.item("setups", "s1").doc)
    copies = list(tmp_path.glob(f"before-{HEAD}*"))
    assert len(copies) == 1
    with sqlite3.connect(copies[0]) as connection:
        assert json.loads(connection.execute("SELECT doc FROM setups").fetchone()[0]) == OLD
    with sqlite3.connect(tmp_path / FILE) as connection:
        assert connection.execute("PRAGMA application_id").fetchone()[0] == file.APPLICATION_ID
    store.close()
    Store(tmp_path).close()
    assert len(list(tmp_path.glob("before-*"))) == 1


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
    with pytest.raises(NotFound):
        store.item("filters", item.id)
    assert store.undo() is None
    store.redo()
    store.redo()
    assert store.item("filters", item.id).doc["stops"] == 4
    assert store.item("filters", item.id).revision > 4  # a revision is never used twice
    assert store.redo() is None


def test_the_page_tells_whether_an_edit_goes_on(tmp_path: Path) -> None:
    """However far apart two edits of one drag arrive they are one, and two that arrive together may be two."""
    store = Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 1}], "Add ND")[0]
    for stops, goes_on in ((2, False), (3, True), (4, False)):
        with store.writing() as connection:  # long ago
            connection.execute(update(edits).values(at=datetime(2026, 6, 1)))
        item = store.put("filters", item.id, {"name": "ND", "stops": stops}, item.revision, "Stops", goes_on=goes_on)
    left = []
    while store.undo():
        left += [item.doc["stops"] for item in store.items("filters")]
    assert left == [3, 1]


def test_another_pages_edit_between_two_nudges_keeps_them_apart(tmp_path: Path) -> None:
    store = Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 1}], "Add ND")[0]
    for stops, page in ((2, "a"), (3, "b"), (4, "a")):
        item = store.put("filters", item.id, {"name": "ND", "stops": stops}, item.revision, "Stops", page)
    store.undo("a")
    assert store.item("filters", item.id).doc["stops"] == 3


def test_of_two_writers_one_is_told(tmp_path: Path) -> None:
    store, other = Store(tmp_path), Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 0}], "Add")[0]
    assert [one.item_and_meta("filters", item.id)[0].doc["name"] for one in (store, other)] == ["ND", "ND"]  # and kept
    told: list[str] = []

    def write(who: Store, name: str) -> None:
        try:
            who.put("filters", item.id, {"name": name, "stops": 1}, item.revision, name)
        except Conflict as error:
            told.append(error.current.doc["name"])

    threads = [threading.Thread(target=write, args=args) for args in ((store, "one"), (other, "two"))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(told) == 1
    now = {one.item_and_meta("filters", item.id)[0].doc["name"] for one in (store, other)}  # whoever wrote
    assert now == {told[0]} == {store.item("filters", item.id).doc["name"]}
    other.close()


def test_a_changed_modifier_reaches_the_setups_and_a_deleted_one_stays_in_them(tmp_path: Path) -> None:
    store = Store(tmp_path)
    fill(store)
    store.close()
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1") as client:
        setup = client.get("/api/setups").json()[0]

        def octa() -> tuple[str, float]:
            found = client.get(f"/api/setups/{setup['id']}/answer").json()["setup"]["lights"][0]["modifier"]
            return str(found["name"]), float(found["stops"])

        stored = next(m for m in client.get("/api/modifiers").json() if m["doc"]["name"] == "Octa 90")
        changed = stored["doc"] | {"name": "Renamed", "stops": -1.7}
        url = f"/api/modifiers/{stored['id']}"
        client.put(url, content=json.dumps(changed), headers={"if-match": '"1"', "content-type": "application/json"})
        assert octa() == ("Renamed", -1.7)  # known by its id, not by its name
        client.request("DELETE", "/api/modifiers", params={"item_id": stored["id"]})
        assert octa() == ("Octa 90", -0.4)  # the setup's own copy
        client.post("/api/modifiers", json=stored["doc"] | {"stops": -3})
        assert octa() == ("Octa 90", -0.4)  # another of the same name is another one


def test_an_import_is_undone_in_bulk_while_others_write(tmp_path: Path) -> None:
    store = Store(tmp_path)
    one = kit()["units"][3]
    docs = [one | {"name": f"Unit {i}"} for i in range(3000)]
    store.add("units", docs, "Import", page="a")
    done = store.undo("a")
    assert done is not None
    assert len(done.ids) == 3000
    assert store.items("units") == []
    store.add("filters", [{"name": "ND", "stops": 1}], "Add", page="b")
    store.redo("a")
    assert [item.doc["name"] for item in store.items("units")] == [doc["name"] for doc in docs]


def test_a_shelf_has_an_end(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("jumpstop.store.documents.MOST_UNITS", 3)
    store = Store(tmp_path)
    with refused(TooMuch, "A shelf holds 3 units"):
        store.add("units", [{"name": str(i)} for i in range(4)], "Import")
    assert store.items("units") == []


def test_a_locked_file_is_busy_and_reading_goes_on(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(database, "WAIT_S", 0.1)
    store = Store(tmp_path)
    item = store.add("filters", [{"name": "ND", "stops": 1}], "Add")[0]
    other = sqlite3.connect(tmp_path / FILE, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with refused(Busy, "try again"):
        store.put("filters", item.id, {"name": "ND", "stops": 2}, 1, "Stops")
    assert store.item("filters", item.id).doc["stops"] == 1
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1") as client:
        answer = client.post("/api/filters", json={"name": "F", "stops": 1})
        assert (answer.status_code, answer.headers["retry-after"]) == (503, "1")
    other.execute("ROLLBACK")
    other.close()
    store.put("filters", item.id, {"name": "ND", "stops": 2}, 1, "Stops")


def test_a_full_disk_is_said_and_nothing_is_half_written(tmp_path: Path) -> None:
    store = Store(tmp_path)
    store.add("filters", [{"name": "ND", "stops": 1}], "Add")
    with store.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    from sqlalchemy import event

    @event.listens_for(store.engine, "checkout")
    def small(connection: sqlite3.Connection, *_: object) -> None:
        connection.execute(f"PRAGMA max_page_count = {pages}")

    with refused(StorageFault, "disk is full"):
        store.add("units", [{"name": "x" * 60, "note": "y" * 1900} for _ in range(500)], "Import")
    assert store.items("units") == []
    assert len(store.items("filters")) == 1


def test_data_taken_away_under_a_program_is_never_said_to_be_stored(tmp_path: Path) -> None:
    folder = tmp_path / "data"
    store = Store(folder)
    item = store.add("filters", [{"name": "ND", "stops": 1}], "Add")[0]
    shutil.rmtree(folder)
    for _ in range(2):
        with refused(StorageFault, "moved or deleted"):
            store.put("filters", item.id, {"name": "ND", "stops": 2}, 1, "Stops")
    Store(folder).close()  # another file in its place is another file
    with refused(StorageFault, "moved or deleted"):
        store.add("filters", [{"name": "ND", "stops": 2}], "Add")


def foreign(path: Path) -> None:
    with sqlite3.connect(path) as connection:
        connection.execute("CREATE TABLE recipes (id INTEGER)")
        connection.execute("CREATE TABLE alembic_version (version_num TEXT)")
        connection.execute("INSERT INTO alembic_version VALUES ('0001')")


def torn(path: Path) -> None:
    store = Store(path.parent)
    store.add("filters", [{"name": f"ND {i}", "stops": 1, "note": "z" * 900} for i in range(300)], "Add")
    store.close()
    with path.open("r+b") as file:
        file.seek(path.stat().st_size // 2)
        file.write(os.urandom(4096 * 4))


def newer(path: Path) -> None:
    Store(path.parent).close()
    with sqlite3.connect(path) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '0099'")


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (lambda path: path.write_bytes(b"a picture, perhaps" * 100), "is not a data file"),
        (foreign, "is not a data file"), (torn, "is damaged"), (newer, "another version"),
    ],
)  # fmt: skip
def test_a_file_that_cannot_be_used_is_left_as_it_is(tmp_path: Path, make: object, said: str) -> None:
    path = tmp_path / FILE
    make(path)  # type: ignore[operator]
    before = path.read_bytes()
    with refused(StorageFault, said):
        Store(tmp_path)
    with refused(StorageFault, said):
        backup(path, tmp_path / "copy")
    assert path.read_bytes() == before
    assert {one.name for one in tmp_path.iterdir()} <= {
        FILE,
        f"{FILE}-wal",
        f"{FILE}-shm",
        "jumpstop.making.lock",
    }  # nothing left behind


def test_rights_are_the_owners_alone(tmp_path: Path) -> None:
    folder = tmp_path / "fresh"
    store = Store(folder)
    store.add("filters", [{"name": "ND", "stops": 1}], "Add")
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    with held(folder, "a server"):
        for file in folder.iterdir():
            assert stat.S_IMODE(file.stat().st_mode) == 0o600, file
    backup(folder / FILE, tmp_path / "copy")
    assert stat.S_IMODE((tmp_path / "copy").stat().st_mode) == 0o600


def test_a_folder_that_cannot_be_made_is_said(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    with refused(StorageFault, "cannot be made"):
        Store(tmp_path / "file" / "data")


def test_a_restore_over_a_live_log_mixes_nothing(tmp_path: Path) -> None:
    folder, copy = tmp_path / "data", tmp_path / "copy.sqlite3"
    store = Store(folder)
    item = store.add("filters", [{"name": "then", "stops": 1}], "Add")[0]
    backup(folder / FILE, copy)
    store.put("filters", item.id, {"name": "now", "stops": 2}, 1, "Stops")
    store.add("filters", [{"name": f"later {i}", "stops": 3} for i in range(200)], "Add")
    assert (folder / f"{FILE}-wal").stat().st_size > 0
    for end in ("", "-wal", "-shm"):  # as a power cut leaves it: the log beside the file, nobody to fold it in
        (tmp_path / f"cut{end}").write_bytes((folder / f"{FILE}{end}").read_bytes())
    store.close()
    for end in ("", "-wal", "-shm"):
        (folder / f"{FILE}{end}").write_bytes((tmp_path / f"cut{end}").read_bytes())
    kept = restore(copy, folder)
    assert kept is not None
    restored = Store(folder)
    assert [one.doc["name"] for one in restored.items("filters")] == ["then"]
    restored.close()
    with sqlite3.connect(kept) as connection:
        assert connection.execute("SELECT count(*) FROM filters").fetchone() == (201,)
        assert connection.execute("SELECT name FROM filters WHERE id = ?", (item.id,)).fetchone() == ("now",)


def test_a_bad_backup_is_not_restored_and_a_damaged_file_is_kept_aside(tmp_path: Path) -> None:
    folder, copy = tmp_path / "data", tmp_path / "copy.sqlite3"
    store = Store(folder)
    store.add("filters", [{"name": "good", "stops": 1}], "Add")
    backup(folder / FILE, copy)
    store.close()
    bad = tmp_path / "bad"
    bad.write_bytes(b"nothing of the kind" * 50)
    for source in (bad, tmp_path / "missing"):
        with pytest.raises(StorageFault):
            restore(source, folder)
    assert [one.doc["name"] for one in Store(folder).items("filters")] == ["good"]
    (folder / FILE).write_bytes(b"torn" * 2000)
    kept = restore(copy, folder)
    assert kept is not None
    assert kept.read_bytes().startswith(b"torn")
    assert [one.doc["name"] for one in Store(folder).items("filters")] == ["good"]


def test_what_was_worked_out_while_the_disk_was_written_is_forgotten_where_that_failed(tmp_path: Path) -> None:
    """Two edits that come to one revision, the first lost with the disk: nothing of it is seen in the other."""
    store = Store(tmp_path)
    fill(store)
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        was = client.get("/api/setups").json()[0]
        at = f"/api/setups/{was['id']}"

        def put(metres: float) -> Response:
            lights = [was["doc"]["lights"][0] | {"distance_m": metres}, *was["doc"]["lights"][1:]]
            return client.put(at, json=was["doc"] | {"lights": lights}, headers={"if-match": f'"{was["revision"]}"'})

        def full(_connection: Connection) -> None:
            raise OperationalError("COMMIT", {}, sqlite3.OperationalError("database or disk is full"))

        event.listen(store.engine, "commit", full)
        assert put(9.0).status_code == 507
        event.remove(store.engine, "commit", full)
        assert client.get("/api/setups").json()[0]["doc"] == was["doc"]
        told, then = put(3.0).json(), client.get(f"{at}/answer").json()
        assert told == then
        assert told["setup"]["lights"][0]["distance_m"] == 3.0
        assert client.get("/api/setups").json()[0]["doc"]["lights"][0]["distance_m"] == 3.0


def test_after_a_write_that_the_disk_refused_the_next_ones_are_kept(tmp_path: Path) -> None:
    """SQLite may leave a transaction open where its COMMIT fails ("Transaction", response to errors within one):
    whoever has that connection next finds it shut."""
    store = Store(tmp_path)
    fill(store)

    def full(_connection: Connection) -> None:
        raise OperationalError("COMMIT", {}, sqlite3.OperationalError("database or disk is full"))

    for _ in range(3):
        item = store.items("setups")[0]
        event.listen(store.engine, "commit", full)
        with pytest.raises(StorageFault):
            store.put("setups", item.id, item.doc | {"name": "Lost"}, item.revision, "Rename", "desk")
        event.remove(store.engine, "commit", full)
        kept = store.put("setups", item.id, item.doc | {"name": "Kept"}, item.revision, "Rename", "desk")
        assert kept.doc["name"] == "Kept"


def test_what_is_logged_behind_all_else_is_read_alone_and_every_other_change_is_seen(tmp_path: Path) -> None:
    """After each step the log is what one who reads all of it anew finds; entries behind the others alone are read."""
    store = Store(tmp_path)
    working = Workspace(store)
    read = list[int]()
    packed = store.packed
    store.packed = lambda kind, ids: read.append(len(ids)) or packed(kind, ids)  # type: ignore[method-assign, func-returns-value]

    def logged(*numbers: int) -> bool:
        for number in numbers:
            entry = LogEntry(name=f"Reading {number}", at=datetime(2026, 6, 24, 12), celsius=20)
            store.keep("log", [(f"reading-{number}", entry.model_dump(mode="json"))], "Log", "phone")
        return True

    def set_aside(number: int) -> None:
        item = store.item("log", f"reading-{number}")
        store.put("log", item.id, item.doc | {"aside": True}, item.revision, "Set aside", "desk")

    steps: list[tuple[Callable[[], object], int]] = [
        (lambda: logged(1), 1), (lambda: logged(2), 1), (lambda: logged(3, 4), 2),
        (lambda: set_aside(2), 1), (lambda: logged(5), 1), (lambda: store.undo("desk"), 1),
        (lambda: store.remove("log", ["reading-3", "reading-5"], "Delete", "desk"), 0), (lambda: logged(6), 1),
        (lambda: store.undo("desk"), 2), (lambda: (store.redo("desk"), logged(7)), 1), (lambda: logged(7), 0),
    ]  # fmt: skip
    for step, several in steps:
        step()
        read.clear()
        found = list(working.log().items())
        assert sum(read) == several
        assert found == list(Workspace(store).log().items())
    assert [key for key, _ in found] == [f"reading-{number}" for number in (1, 2, 4, 6, 7)]


def test_a_folder_has_one_holder(tmp_path: Path) -> None:
    with held(tmp_path, "a server"):  # noqa: SIM117 (the first is held while the second is refused)
        with refused(InUse, f"is in use by a server, process {os.getpid()}"), held(tmp_path, "a restore"):
            pass
    with held(tmp_path, "a restore"):
        pass
    assert issubclass(InUse, JumpStopError)


def test_two_copies_made_at_once_get_two_names(tmp_path: Path) -> None:
    store = Store(tmp_path / "data")
    octa = store.add("modifiers", [{"name": "Octa 90"}], "Add")[0]
    threads = [threading.Thread(target=store.copy, args=("modifiers", octa.id, str)) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(item.doc["name"] for item in store.items("modifiers")) == [
        "Octa 90", *(f"Octa 90 ({n})" for n in range(2, 8))
    ]  # fmt: skip
