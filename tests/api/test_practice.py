"""Practice and devices over the API: moves that are played again, leaps, readings of scripts, days played from the
command line."""

import base64
import json
import shutil
import threading
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from chromium import Demo
from jumpstop import demo
from jumpstop.api.app import create_app
from jumpstop.cli import app as cli

ROOT = Path(__file__).parents[2]
FRAMES = Path(demo.__file__ or "").parent / "frames"


@pytest.fixture
def week(filled: Path, tmp_path: Path) -> Iterator[TestClient]:
    folder = shutil.copytree(filled, tmp_path, dirs_exist_ok=True)
    with TestClient(create_app(folder), base_url="http://localhost") as client:
        yield client


def played(client: TestClient, drill: str, *moves: dict[str, Any], seed: int = 3) -> dict[str, Any]:
    answer = client.post("/api/practice/play", json={"drill": drill, "seed": seed, "moves": list(moves)})
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def test_every_drill_is_listed_with_a_word_on_why_and_can_be_begun(week: TestClient) -> None:
    drills = week.get("/api/practice/drills").json()
    assert len(drills) == 12
    for one in drills:
        assert len(one["why"]) > 60
        text = played(week, one["code"])
        assert text["task"].endswith(".")
        assert text["controls"]
        assert (text["frame"], text["done"], text["said"]) == (None, False, "")
        for control in text["controls"]:
            assert control["hidden"] or control["choices"][control["at"]]["says"]


def test_the_same_moves_come_to_the_same(week: TestClient) -> None:
    moves = ({"do": "set", "what": "dial", "value": 2}, {"do": "frame"}, {"do": "meter", "value": 1}, {"do": "done"})
    first, again = played(week, "ambient", *moves), played(week, "ambient", *moves)
    assert first == again
    picture = base64.b64decode(first["frame"]["picture"].split(",")[1])
    found = week.post("/api/frame?of=grey", content=picture, headers={"content-type": "image/jpeg"}).json()
    assert (found["f_number"], found["iso"], found["flash"]) == (8, 100, True)
    assert first["notes"][0].startswith("Meter, ambient: f/")
    assert first["review"]["goals"]
    assert played(week, "ambient", *moves, seed=4)["frame"]["picture"] != first["frame"]["picture"]


def test_feet_and_other_dials_are_said_as_the_person_has_them(week: TestClient) -> None:
    metres = played(week, "group")
    week.put("/api/preferences", json={"length": "ft"}, headers={"if-match": "*"})
    feet = played(week, "group")
    shown = [
        next(one for one in text["controls"] if one["what"] == "distance")["choices"][10]["says"]
        for text in (metres, feet)
    ]
    assert shown[0].endswith(" m")
    assert shown[1].endswith(" ft") or shown == [shown[0], shown[0]]


@pytest.mark.parametrize(
    "body",
    [
        {"drill": "nothing", "seed": 1},
        {"drill": "nd", "seed": -1},
        {"drill": "nd", "seed": 1, "moves": [{"do": "jump"}]},
        {"drill": "nd", "seed": 1, "moves": [{"do": "set", "what": "weather"}]},
        {"drill": "nd", "seed": 1, "moves": [{"do": "frame"}] * 201},
    ],
)
def test_what_is_no_move_is_refused_with_its_field(week: TestClient, body: dict[str, Any]) -> None:
    answer = week.post("/api/practice/play", json=body)
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["sentence"]


def test_presses_are_judged_against_the_peaks_and_the_lag(week: TestClient) -> None:
    leap = week.get("/api/practice/leap?seed=5").json()
    peaks = leap["peak_s"]
    caught = week.post("/api/practice/leap", json={"seed": 5, "pressed_s": peaks}).json()
    lag = {one["off_ms"] for one in caught["tries"]}
    assert len(lag) == 1  # pressed at the peak each time, every one is late by the camera's lag
    (late,) = lag
    assert 20 <= late <= 120
    early = [peak - late / 1000 for peak in peaks]
    right = week.post("/api/practice/leap", json={"seed": 5, "pressed_s": early}).json()
    assert all("at the peak" in one["says"] for one in right["tries"])
    assert right["says"][0].startswith("8 frames at the peak with flash, of 8 presses")
    twice = week.post("/api/practice/leap", json={"seed": 5, "pressed_s": [peaks[0], peaks[0] + 0.2]}).json()
    assert twice["tries"][1]["says"].endswith("No flash: it was not ready.")


def test_the_example_of_a_device_runs_as_it_stands(filled: Path, tmp_path: Path) -> None:
    code = (ROOT / "docs" / "devices.md").read_text(encoding="utf-8").split("```python\n")[1].split("```")[0]
    server = Demo(shutil.copytree(filled, tmp_path / "data"))
    with server as url:
        known = {"server": url.rstrip("/"), "token": "", "frame": (FRAMES / "flash.jpg").read_bytes()}
        exec(code, known)
        log = httpx.get(f"{url}api/log/text").json()["entries"]
    assert [one["id"] for one in log] == ["tethered-1"]
    assert log[0]["what"].startswith("key, Godwit 76 pair: ")


def test_readings_of_devices_are_none_lost_or_doubled_while_a_person_works(week: TestClient, tmp_path: Path) -> None:
    """Four scripts, each sending every entry twice, and a person's edits between; the whole run is in `make soak`."""
    setup = week.get("/api/setups").json()[0]
    many, failed = 40, list[str]()

    def device(number: int) -> None:
        for at in range(many):
            entry = {"name": f"Device {number}", "at": f"2026-06-24T12:00:{at % 60:02d}", "flashes": at}
            for _ in range(2):
                answer = week.post(f"/api/log/keep/device-{number}-{at}", json=entry)
                if answer.status_code != 200:
                    failed.append(answer.text)

    threads = [threading.Thread(target=device, args=(number,)) for number in range(4)]
    for one in threads:
        one.start()
    revision, doc = setup["revision"], setup["doc"]
    for at in range(20):
        changed = doc | {"note": f"nudge {at}"}
        answer = week.put(f"/api/setups/{setup['id']}", json=changed, headers={"if-match": str(revision)})
        assert answer.status_code == 200, answer.text
        revision = answer.json()["revision"]
    for one in threads:
        one.join()
    assert not failed
    text = week.get("/api/log/text?most=500").json()
    assert sorted(one["id"] for one in text["entries"]) == sorted(
        f"device-{number}-{at}" for number in range(4) for at in range(many)
    )
    assert week.get(f"/api/setups/{setup['id']}").json()["doc"]["note"] == "nudge 19"


def test_a_page_hears_that_the_log_has_changed(week: TestClient) -> None:
    before = week.get("/api/log/turn").json()
    assert week.get("/api/log/turn").json() == before
    week.post("/api/log/keep/one", json={"name": "One", "at": "2026-06-24T12:00:00"})
    assert week.get("/api/log/turn").json() > before


def unpacked(log: dict[str, Any]) -> list[dict[str, Any]]:
    """Entries of a log's file, of which what is read by a test stands in the entry itself."""
    return [one for one in log["entries"] if isinstance(one["entry"].get("seen"), dict) or one["entry"]["seen"] is None]


def exported(url: str) -> tuple[str, bytes]:
    with urllib.request.urlopen(f"{url}api/jobs") as answer:
        job = json.load(answer)[0]["id"]
    with urllib.request.urlopen(f"{url}api/jobs/{job}/export.json") as answer:
        return job, answer.read()


def test_a_day_is_played_into_a_file_and_into_a_server_that_runs(filled: Path, tmp_path: Path) -> None:
    runner = CliRunner()
    with Demo(shutil.copytree(filled, tmp_path / "data")) as url:
        job, doc = exported(url)
        (tmp_path / "job.json").write_bytes(doc)
        plain = runner.invoke(
            cli, ["simulate", str(tmp_path / "job.json"), "--seed", "3", "--log", str(tmp_path / "log.json")]
        )
        assert plain.exit_code == 0, plain.output
        found = json.loads(plain.stdout)
        assert found["says"][0].split(" ")[1] == "lights"
        live = ["simulate", str(tmp_path / "job.json"), "--seed", "3", "--speed", "1e7", "--to", url, "--job", job]
        for _ in range(2):  # played twice it is kept once
            played = runner.invoke(cli, live)
            assert played.exit_code == 0, played.output
        there = httpx.get(f"{url}api/log/text?job={job}&most=500").json()
        assert len(there["entries"]) == len(found["log"])
        assert {one["id"] for one in there["entries"]} == {one["id"] for one in found["log"]}
        assert there["setups"]  # planned against found, of the job's own setups
        lines = {one["id"]: one["entry"] for one in unpacked(httpx.get(f"{url}api/log/export.json").json())}
        mine = {one["id"]: one["entry"] for one in unpacked(json.loads((tmp_path / "log.json").read_text()))}
    frames = [key for key, one in mine.items() if one["seen"] and one["seen"]["kind"] == "patch"]
    assert frames  # in high-speed sync, which no meter reads: by a test frame, read by the server itself
    for key in frames:
        assert lines[key]["seen"]["stops"] == pytest.approx(mine[key]["seen"]["stops"], abs=0.3)  # uneven by its rows
        assert lines[key]["seen"]["stops"] != mine[key]["seen"]["stops"]
    learned = runner.invoke(cli, ["learn", str(tmp_path / "log.json")])
    assert learned.exit_code == 0, learned.output
    things = {one["name"]: one["mean"] for one in json.loads(learned.stdout)["things"]}
    for one in found["learned"]:
        assert things[one["thing"]] == pytest.approx(one["found"], abs=2e-4)
    away = runner.invoke(cli, ["simulate", str(tmp_path / "job.json"), "--speed", "1e7", "--to", "ftp://nowhere"])
    assert away.exit_code == 2
    assert "no address of a server" in away.output
