"""Odd requests get right answers: nothing is stored that cannot be read, nothing forgotten, nobody locked out."""

import io
import json
import shutil
import socket
import sqlite3
import threading
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from chromium import Demo
from jumpstop.api.app import create_app
from jumpstop.formats import frame
from jumpstop.formats.errors import TooMany, UnreadableFile
from jumpstop.formats.frame import Patch, read_frame
from jumpstop.formats.table import csv_of
from jumpstop.store import undo as undo_of
from jumpstop.store.devices import MOST
from jumpstop.store.documents import Store
from jumpstop.store.file import FILE
from refused import refused


@pytest.fixture
def client(filled: Path, tmp_path: Path) -> Iterator[TestClient]:
    folder = shutil.copytree(filled, tmp_path / "data")
    with TestClient(create_app(folder), base_url="http://127.0.0.1", headers={"x-page": "a"}) as one:
        yield one


def put(client: TestClient, kind: str, item: dict[str, Any], page: str = "a", **changed: Any) -> Any:
    return client.put(
        f"/api/{kind}/{item['id']}", json=item["doc"] | changed,
        headers={"if-match": f'"{item["revision"]}"', "x-page": page}, params={"label": "Changed"},
    )  # fmt: skip


def first(client: TestClient, kind: str) -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/{kind}").json()[0]
    return found


def test_adopting_what_no_body_can_have_changes_nothing(client: TestClient) -> None:
    body = first(client, "bodies")
    wall = {"body": body["doc"] | {"id": body["id"]}, "shutter_s": 1 / 60000, "lit": 0.9}
    entry = {"name": "Wall", "at": "2026-06-24T12:00:00", "curtain": wall}
    assert client.post("/api/log/keep/wall", json=entry).status_code == 200
    refused = client.put("/api/log/wall/adopt")
    assert refused.status_code == 422
    assert "Curtain travel (s) must be at least" in refused.json()["problems"][0]["sentence"]
    assert first(client, "bodies") == body
    setup = first(client, "setups")
    assert client.post(f"/api/log/set/{setup['id']}/background", params={"stops": 8}).status_code in (200, 422)
    assert client.get("/api/unreadable").json() == []


def test_no_route_stores_what_cannot_be_read_again(client: TestClient) -> None:
    """Every background, kept and adopted for every setup of the demo, at the bounds of what may be asked."""
    for setup in client.get("/api/setups").json():
        for stops in (-8, 8):
            answer = client.post(f"/api/log/set/{setup['id']}/background", params={"stops": stops})
            assert answer.status_code in (200, 422), (setup["doc"]["name"], answer.text)
    for kind in ("units", "modifiers", "bodies", "filters", "setups", "jobs"):
        for _ in range(3):
            assert client.post(f"/api/{kind}/{first(client, kind)['id']}/copy").status_code == 201
    assert client.get("/api/unreadable").json() == []


def test_a_deleted_job_comes_back_beside_edits_made_meanwhile(client: TestClient) -> None:
    job, setups = first(client, "jobs"), client.get("/api/setups").json()
    own = [one for one in setups if one["job_id"] == job["id"]]
    client.request("DELETE", "/api/jobs", params={"item_id": job["id"]})
    edited = put(client, "setups", own[0], "b", frames=777)  # its content: it comes back with it
    assert edited.status_code == 200
    other = client.post("/api/jobs", json={"name": "Another"}, headers={"x-page": "b"}).json()
    client.put(f"/api/setups/{own[1]['id']}/job", json={"job_id": other["id"]}, headers={"x-page": "b"})
    client.request("DELETE", "/api/setups", params={"item_id": own[2]["id"]}, headers={"x-page": "b"})
    done = client.post("/api/undo").json()
    assert done["label"] == f"Delete {job['doc']['name']}"
    assert done["without"] == [own[1]["doc"]["name"], "what was deleted since"]
    now = {one["id"]: one for one in client.get("/api/setups").json()}
    assert (now[own[0]["id"]]["job_id"], now[own[0]["id"]]["doc"]["frames"]) == (job["id"], 777)
    assert now[own[1]["id"]]["job_id"] == other["id"]
    assert all(now[one["id"]]["job_id"] == job["id"] for one in own[3:])


def test_an_undo_that_fails_is_not_forgotten(client: TestClient) -> None:
    unit = first(client, "units")
    unit |= {"revision": put(client, "units", unit, "a", note="mine").json()["revision"]}
    put(client, "units", unit, "b", note="theirs")
    for _ in range(2):
        assert client.post("/api/undo").status_code == 409
    assert client.post("/api/undo", headers={"x-page": "b"}).json()["label"] == "Changed"
    assert client.post("/api/undo").json()["label"] == "Changed"
    assert first(client, "units")["doc"]["note"] == unit["doc"]["note"]


def test_an_undo_leaves_another_pages_other_field_alone(client: TestClient) -> None:
    unit = first(client, "units")
    unit |= {"revision": put(client, "units", unit, "a", note="mine").json()["revision"]}
    assert put(client, "units", unit, "b", note="mine", weight_g=123).status_code == 200
    client.post("/api/undo")
    assert (first(client, "units")["doc"]["note"], first(client, "units")["doc"]["weight_g"]) == (
        unit["doc"]["note"],
        123,
    )


def test_revisions_only_rise(client: TestClient) -> None:
    """Over an addition taken back and done again an old tab's revision is never good once more."""
    made = client.post("/api/filters", json={"name": "ND", "stops": 1}).json()
    seen = {made["revision"]}
    now = put(client, "filters", made, "a", stops=2).json()
    seen.add(now["revision"])
    for way in ("undo", "undo", "redo", "redo", "undo", "undo", "redo"):
        client.post(f"/api/{way}")
        found = client.get(f"/api/filters/{made['id']}")
        if found.status_code == 200:
            assert found.json()["revision"] not in seen
            seen.add(found.json()["revision"])
    assert put(client, "filters", made, "b", stops=9).status_code == 412


def test_dates_at_their_bounds_are_refused_or_answered(client: TestClient) -> None:
    job = first(client, "jobs")
    for day, status in (("9999-12-31", 422), ("0001-01-01", 422), ("1900-01-01", 200), ("2199-12-31", 200)):
        answer = put(client, "jobs", job, day=day)
        assert answer.status_code == status, day
        if status == 200:
            job |= {"revision": answer.json()["revision"]}
            for path in ("day", "day.ics", "cards.html", "pack"):
                assert client.get(f"/api/jobs/{job['id']}/{path}").status_code == 200, (day, path)


def test_a_job_file_with_a_setup_twice_is_refused_in_a_sentence(client: TestClient) -> None:
    file = client.get(f"/api/jobs/{first(client, 'jobs')['id']}/export.json").json()
    file["setups"] = file["setups"][:1] * 2
    file["job"]["sessions"] = []
    refused = client.post("/api/jobs/import", content=json.dumps(file))
    assert refused.status_code == 422
    assert "have the same id" in refused.text


def test_history_of_a_file_that_was_moved_away_is_said_plainly(client: TestClient, tmp_path: Path) -> None:
    for one in (tmp_path / "data").iterdir():
        one.rename(tmp_path / one.name)
    answers = [client.get(path) for path in ("/api/history", "/api/units", "/api/log/text") for _ in range(3)]
    assert {answer.status_code for answer in answers} <= {200, 507}
    assert client.post("/api/filters", json={"name": "ND", "stops": 1}).status_code == 507
    assert not (tmp_path / "data" / FILE).exists()


def test_what_import_calls_an_entry_can_be_set_aside(client: TestClient) -> None:
    key = "k" * 64
    entry = {"name": "Long", "at": "2026-06-24T12:00:00", "flashes": 1}
    log = {"format": "jumpstop-readings", "version": 1, "entries": [{"id": key, "entry": entry}]}
    assert client.post("/api/log/import", content=json.dumps(log)).json() == {"added": 1, "known": 0}
    assert client.put(f"/api/log/{key}/aside").json()["doc"]["aside"] is True


@pytest.mark.parametrize("sign", list("=+-@＝＋－＠"))
def test_no_cell_is_run_by_a_spreadsheet(sign: str) -> None:
    assert csv_of([[f"{sign}1+1"]]) == f"'{sign}1+1\r\n"


def test_devices_are_refused_at_the_cap_and_put_nobody_out(tmp_path: Path) -> None:
    with TestClient(create_app(tmp_path, tokens={"first", "last"}, names=["x"]), base_url="http://127.0.0.1") as one:
        one.get("/enter?token=first")
        for number in range(MOST - 1):
            assert one.post("/api/phone/devices", json={"name": f"Phone {number}"}).status_code == 201
        assert one.post("/api/phone/devices", json={"name": "One more"}).status_code == 413
        assert one.get("/api/units").status_code == 200
        devices = one.get("/api/phone").json()["devices"]
        owner = dict(one.cookies)
        one.cookies.clear()
        assert "take one off the list" in one.get("/enter?token=last").text
        one.cookies.update(owner)
        one.delete(f"/api/phone/devices/{devices[-1]['id']}")
        one.cookies.clear()
        assert one.get("/enter?token=last", follow_redirects=False).status_code == 303  # the link was not used up


@pytest.mark.parametrize(
    "others",
    ['other="a, b; c"; ', "flag; ", "list[0]=1; ", "caf\u00e9=au lait; ", "a=b=c; ", "jumpstop2=x; ", "=; ;; "],
)
def test_other_applications_cookies_lock_nobody_out(tmp_path: Path, others: str) -> None:
    with TestClient(create_app(tmp_path, tokens={"first"}), base_url="http://127.0.0.1") as one:
        cookie = one.get("/enter?token=first", follow_redirects=False).headers["set-cookie"].split(";")[0]
        one.cookies.clear()
        for line in (others + cookie, f"{cookie}; {others}"):
            headers = {"cookie": line.encode("latin-1"), "authorization": "Bearer "}  # an empty one hides no cookie
            assert one.get("/api/units", headers=headers).status_code == 200, line


def test_history_is_bounded_and_the_file_shrinks_again(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Sixty ticks on a roster of 2,000 people; then a large edit that is forgotten."""
    store = Store(tmp_path)
    roster = [{"id": str(n), "name": f"Person {n}", "done": False, "files": "f" * 60} for n in range(2000)]
    job = store.add("jobs", [{"name": "Week", "roster": roster}], "Add")[0]
    size = (tmp_path / FILE).stat().st_size
    for at in range(60):
        rows = [*job.doc["roster"]]
        rows[at] = rows[at] | {"done": True}
        job = store.put("jobs", job.id, job.doc | {"roster": rows}, job.revision, f"Done {at}")
    grown = sum(one.stat().st_size for one in tmp_path.glob(f"{FILE}*")) - size
    assert grown < 9 * 2**20  # the write-ahead log; 27 MB where each tick keeps two rosters
    for _ in range(60):
        assert store.undo() is not None
    assert store.item("jobs", job.id).doc["roster"] == roster
    monkeypatch.setattr(undo_of, "KEEP_BYTES", 2**20)
    many = [{"name": f"U{n}", "note": "n" * 1800} for n in range(3000)]
    ids = [one.id for one in store.add("units", many, "Import")]
    store.remove("units", ids, "Delete all")
    with closing(sqlite3.connect(tmp_path / FILE)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    large = (tmp_path / FILE).stat().st_size
    for at in range(undo_of.PRUNE_EVERY):
        job = store.put("jobs", job.id, job.doc | {"note": str(at)}, store.item("jobs", job.id).revision, f"Note {at}")
    with closing(sqlite3.connect(tmp_path / FILE)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    assert (tmp_path / FILE).stat().st_size < large / 2
    store.close()


def noisy(width: int, height: int, **how: Any) -> bytes:
    out = io.BytesIO()
    Image.effect_noise((width // 8, height // 8), 60).resize((width, height)).convert("RGB").save(out, "JPEG", **how)
    return out.getvalue()


def test_a_frame_of_many_parts_is_refused_before_it_is_decoded(monkeypatch: pytest.MonkeyPatch) -> None:
    whole = Patch(0, 0, 1, 1)
    monkeypatch.setattr(frame, "MOST_BY_PARTS", 400 * 300)
    assert read_frame(noisy(400, 300, progressive=True), whole).width == 400
    with refused(UnreadableFile, "Save it as a plain one"):
        read_frame(noisy(480, 304, progressive=True), whole)
    assert read_frame(noisy(480, 304), whole).width == 480
    monkeypatch.setattr(frame, "MOST_SCANS", 5)
    with refused(UnreadableFile, "more than 5 parts"):
        read_frame(noisy(400, 300, progressive=True), whole)


def test_a_frame_of_ten_million_pieces_is_refused_at_once() -> None:
    whole = noisy(64, 48)
    with refused(UnreadableFile, "too many pieces"):
        read_frame(whole[:2] + b"\xff\xe0\x00\x02" * 9_900_000 + whole[2:], Patch(0, 0, 1, 1))


def test_frames_wait_for_each_other_or_are_told_to(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(frame, "WAIT_S", 0.05)
    data = noisy(64, 48)
    with frame.ONE_AT_A_TIME, refused(TooMany, "try again"):
        read_frame(data, Patch(0, 0, 1, 1))
    assert read_frame(data, Patch(0, 0, 1, 1)).width == 64


def test_a_large_frame_is_read_small_and_says_the_same() -> None:
    data = noisy(4800, 3200, quality=90)
    found, exact = read_frame(data, Patch(0.2, 0.3, 0.4, 0.4)), Image.open(io.BytesIO(data)).convert("L")
    assert found.width == 2400
    part = exact.crop((960, 960, 2880, 2240)).histogram()
    mean = sum(count * float(frame.LIGHT[value]) for value, count in enumerate(part)) / sum(part)
    assert found.luminance == pytest.approx(mean, rel=0.03)


def test_a_stuck_upload_does_not_keep_the_server_from_stopping(tmp_path: Path) -> None:
    server = Demo(tmp_path / "data")
    stuck = [socket.create_connection(("127.0.0.1", int(server.port))) for _ in range(3)]
    for one in stuck:
        one.sendall(b"POST /api/frame HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 30000000\r\n\r\n" + b"x" * 1000)
    time.sleep(0.3)
    server.process.terminate()
    ended = threading.Thread(target=server.process.wait)
    ended.start()
    ended.join(10)
    assert not ended.is_alive()
    for one in stuck:
        one.close()
    Store(tmp_path / "data").close()
