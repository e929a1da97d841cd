"""First starts and migrations: cut off anywhere, the next start works and has all there was."""

import lzma
import random
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from cuts import STARTS, cut_off, old_file, prepared, sound, started, steps_of
from jumpstop.api.app import create_app
from jumpstop.store import making
from jumpstop.store.database import backup
from jumpstop.store.documents import Store
from jumpstop.store.errors import Busy, StorageFault
from jumpstop.store.file import FILE, HEAD, version_of
from jumpstop.store.making import made_ready, tidy
from refused import refused

MADE_BY_065 = Path(__file__).parents[1] / "data" / "made-by-0.6.5.sqlite3.xz"


@pytest.mark.parametrize("kind", STARTS)
def test_a_start_that_was_cut_off_is_made_good_by_the_next(tmp_path: Path, kind: str) -> None:
    import alembic.command  # noqa: F401  # before the fork, so that each child is quick

    steps = steps_of(tmp_path, kind)
    assert steps >= 40
    dice = random.Random(f"{kind} {HEAD}")
    for at in sorted(dice.sample(range(steps - 20), 4)):
        folder = tmp_path / f"cut{at}"
        prepared(folder, kind)
        assert cut_off(lambda folder=folder: started(folder, kind), at)  # type: ignore[misc]
        cut_off(lambda folder=folder: started(folder, kind), at // 2)  # type: ignore[misc]  # and the next start as well
        started(folder, kind)
        assert sound(folder, kind), at
        assert version_of(folder / FILE) == HEAD
        tidy(folder)
        left = {one.name for one in folder.iterdir()} - {FILE, f"{FILE}-wal", f"{FILE}-shm", making.LOCK}
        assert left <= {f"before-{HEAD}.{FILE}"}, at


def test_a_first_start_on_a_full_disk_can_be_made_again(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(*_: object) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr(making, "migrate", full)
    for _ in range(3):
        with refused(StorageFault, "disk is full"):
            Store(tmp_path)
    assert [one.name for one in tmp_path.iterdir()] == [making.LOCK]
    monkeypatch.undo()
    Store(tmp_path).close()


def test_what_a_first_start_of_before_left_half_made_is_made_anew(tmp_path: Path) -> None:
    with closing(sqlite3.connect(tmp_path / FILE)) as connection, connection:
        connection.execute("CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL)")
        connection.execute("CREATE TABLE units (id VARCHAR(32) NOT NULL, name VARCHAR(80))")
    assert sound(tmp_path, "none")


def test_a_file_that_another_program_has_open_is_not_changed_under_it(tmp_path: Path) -> None:
    old_file(tmp_path / "data", "0004")
    other = sqlite3.connect(tmp_path / "data" / FILE)
    other.execute("SELECT * FROM filters").fetchone()
    with pytest.raises(Busy):
        made_ready(tmp_path / "data" / FILE)
    other.close()
    assert sound(tmp_path / "data", "0004")


def test_copies_that_were_cut_off_are_cleared_away(tmp_path: Path) -> None:
    Store(tmp_path).close()
    for name in ("backup.sqlite3.part", "backup.sqlite3.part-journal", f"{FILE}.restored.part"):
        (tmp_path / name).write_bytes(b"half")
    backup(tmp_path / FILE, tmp_path / "whole.sqlite3")
    tidy(tmp_path)
    assert {one.name for one in tmp_path.iterdir()} == {FILE, "whole.sqlite3", making.LOCK}


def test_a_data_file_of_0_6_5_still_opens_with_all_that_was_in_it(tmp_path: Path) -> None:
    (tmp_path / FILE).write_bytes(lzma.decompress(MADE_BY_065.read_bytes()))
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1", headers={"x-page": "old"}) as client:
        setups, units = client.get("/api/setups").json(), client.get("/api/units").json()
        job = client.get("/api/jobs").json()[0]
        assert (len(setups), len(units), setups[0]["doc"]["frames"]) == (10, 11, 555)
        assert [(one["name"], one["done"]) for one in job["doc"]["roster"]] == [
            ("Ada Fenwick", True),
            ("Bram Oakes", False),
        ]
        assert client.get("/api/preferences").json()["length"] == "ft"
        assert client.get("/api/unreadable").json() == []
        text = client.get("/api/log/text").json()
        assert [one["note"] for one in text["entries"]] == ["reading 2", "reading 1", "reading 0"]
        undone = []
        while (done := client.post("/api/undo").json())["label"]:
            undone.append(done["label"])
        assert undone[0].startswith("Delete")
        assert undone[-2:] == ["Roster", "Frames"]
        assert len(client.get("/api/units").json()) == 12
        assert client.get("/api/setups").json()[0]["doc"]["frames"] == 240
        assert client.get("/api/log/text").json()["entries"] == []
        while (done := client.post("/api/redo").json())["label"]:
            undone.remove(done["label"])
        assert undone == []
        assert len(client.get("/api/log/text").json()["entries"]) == 3
