"""The log, cards, pack list and phone over the API; test frames, good and hostile."""

import io
import json
import math
import shutil
import struct
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image
from PIL.TiffImagePlugin import IFDRational
from typer.testing import CliRunner

from chromium import Demo
from jumpstop import demo
from jumpstop.api.app import create_app
from jumpstop.cli import app as cli
from jumpstop.core.physics.tone import srgb
from jumpstop.formats.errors import UnreadableFile
from jumpstop.formats.frame import Patch, read_frame
from refused import refused

FRAMES = Path(demo.__file__ or "").parent / "frames"
MIDDLE = Patch(0.45, 0.45, 0.1, 0.1)


@pytest.fixture
def week(filled: Path, tmp_path: Path) -> Iterator[TestClient]:
    folder = shutil.copytree(filled, tmp_path, dirs_exist_ok=True)
    with TestClient(create_app(folder), base_url="http://localhost") as client:
        yield client


def ids(client: TestClient) -> tuple[str, dict[str, str]]:
    job = client.get("/api/jobs").json()[0]["id"]
    return job, {one["doc"]["name"]: one["id"] for one in client.get("/api/setups").json()}


def blank(client: TestClient, name: str, light: int = 0) -> dict[str, Any]:
    job, setups = ids(client)
    found: dict[str, Any] = client.get(f"/api/log/set/{job}/{setups[name]}").json()["lights"][light]["blank"]
    return found


def keep(client: TestClient, key: str, name: str, **seen: Any) -> dict[str, Any]:
    entry = blank(client, name)
    entry["seen"] |= {"kind": "face"} | seen
    answer = client.post(f"/api/log/keep/{key}", json=entry)
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def test_an_entry_sent_twice_is_kept_once_and_gets_the_first_answer(week: TestClient) -> None:
    first = keep(week, "a1", "44 headshots", stops=0.6)
    assert first["new"] is True
    assert first["says"].startswith("Next: ")
    again = keep(week, "a1", "44 headshots", stops=-2.0)
    assert (again["new"], again["says"]) == (False, first["says"])
    job, _ = ids(week)
    assert len(week.get(f"/api/log/text?job={job}").json()["entries"]) == 1


def test_the_shelf_tells_what_readings_say_beside_the_claim(week: TestClient) -> None:
    assert not any(week.get("/api/shelf/glance").json()["taught"])
    keep(week, "a1", "44 headshots", stops=0.6)
    found = week.get("/api/shelf/glance").json()
    told = dict(zip(found["names"], found["taught"], strict=True))
    assert told["Godwit 76 pair"].startswith("readings: +0.")
    assert [name for name, said in told.items() if said] == ["Godwit 76 pair"]


def test_a_reading_moves_what_other_setups_with_the_same_things_say(week: TestClient) -> None:
    job, setups = ids(week)
    before = week.get(f"/api/setups/{setups['Noon portrait']}/answer").json()["answer"]["lanes"]
    keep(week, "a1", "44 headshots", stops=0.6)  # the same octa
    after = week.get(f"/api/setups/{setups['Noon portrait']}/answer").json()["answer"]["lanes"]
    moved = np.array(after["spare"]) - np.array(before["spare"])
    assert np.all(moved > 0.1)
    things = {one["name"]: one for one in week.get(f"/api/log/text?job={job}").json()["things"]}
    octa = things["Octa 90"]
    assert octa["mean"] > 0
    assert octa["sd"] < octa["prior_sd"]
    assert octa["by"] == ["a1"]
    week.put("/api/log/a1/aside")
    back = week.get(f"/api/setups/{setups['Noon portrait']}/answer").json()["answer"]["lanes"]
    assert back["spare"] == before["spare"]
    assert week.post("/api/undo").status_code == 200


def test_the_log_goes_out_as_json_and_csv_and_comes_back_once(week: TestClient) -> None:
    keep(week, "a1", "44 headshots", stops=0.6)
    keep(week, "a2", "Noon portrait", stops=-0.3)
    for kind in ("json", "csv"):
        file = week.get(f"/api/log/export.{kind}").content
        assert week.post("/api/log/import", content=file).json() == {"added": 0, "known": 2}
        week.delete("/api/log?item_id=a1&item_id=a2")
        assert week.post("/api/log/import", content=file).json() == {"added": 2, "known": 0}
    for bad in (
        b"",
        b"id,entry\na,{}\n",
        b"{]",
        b'{"format":"jumpstop-readings","entries":[{"id":"../x","entry":{}}]}',
        b"\xff\xfe",
    ):
        assert week.post("/api/log/import", content=bad).status_code == 422


def test_a_setup_is_saved_as_found_and_counts_from_its_reading(week: TestClient) -> None:
    job, setups = ids(week)
    assert week.post(f"/api/log/set/{setups['44 headshots']}/as-found").status_code == 404
    keep(week, "a1", "44 headshots", stops=0.0, dial_stops=2.0)
    made = week.post(f"/api/log/set/{setups['44 headshots']}/as-found").json()
    assert made["job_id"] == job
    assert made["doc"]["name"].startswith("44 headshots, ")
    found = week.get(f"/api/setups/{made['id']}/answer").json()
    assert "fixed at 1/4" in found["answer"]["verdict"]
    assert "right" in found["answer"]["verdict"]  # it was: the reading said so


def test_the_background_changed_moves_the_settings(week: TestClient) -> None:
    job, setups = ids(week)
    where = f"/api/log/set/{job}/{setups['Team of 22']}"
    before = week.get(where).json()["settings"]
    answer = week.post(f"/api/log/set/{setups['Team of 22']}/background?stops=-2")
    assert answer.status_code == 200, answer.text
    assert week.get(where).json()["settings"] != before


def test_a_wall_past_sync_is_taken_over_for_the_body(week: TestClient) -> None:
    job, setups = ids(week)
    entry = week.get(f"/api/log/set/{job}/{setups['44 headshots']}").json()["ambient"]
    body = entry["was"]["body"]
    entry["curtain"] = {"body": body, "shutter_s": 1 / 400, "lit": 0.625, "dark_edge": "top"}
    assert week.post("/api/log/keep/w1", json=entry).json()["new"] is True
    assert week.put("/api/log/w1/adopt").json()["doc"]["travel_s"] == pytest.approx(1 / 250, abs=1e-5)
    assert week.get(f"/api/bodies/{body['id']}").json()["doc"]["dark_edge"] == "top"
    assert week.put("/api/log/none/adopt").status_code == 404


def test_what_to_measure_next_names_a_unit_and_what_it_settles(week: TestClient) -> None:
    job, _ = ids(week)
    found = week.get(f"/api/log/next?job={job}").json()
    assert 1 <= len(found) <= 2
    assert "full power" in found[0]["says"]
    assert "verdicts may be wrong now" in found[0]["why"]


def test_an_entry_that_is_wrong_names_its_field(week: TestClient) -> None:
    entry = blank(week, "44 headshots")
    assert week.post("/api/log/keep/a", json=entry | {"was": None}).status_code == 422
    assert "as the clocks" in week.post("/api/log/keep/a", json=entry | {"at": "2026-06-12T12:00:00Z"}).text
    assert week.post("/api/log/keep/a", json=entry | {"celsius": 1e9}).status_code == 422
    assert week.post("/api/log/keep/..%2Fx", json=entry).status_code in (404, 405, 422)


def test_pack_list_channels_and_cards_hold_the_week(week: TestClient) -> None:
    job, setups = ids(week)
    pack = week.get(f"/api/jobs/{job}/pack").json()
    names = [item["name"] for bag in pack["bags"] for item in bag["items"]]
    assert len(names) == len(set(names))
    assert {"Cliff 36", "Gannet 600", "Octa 90", "Light stand"} <= set(names)
    assert len(week.get(f"/api/jobs/{job}/channels").json()) == len(setups)
    page = week.get(f"/api/jobs/{job}/cards.html")
    assert page.text.count("<article") == len(setups)
    assert "unsafe" not in page.headers["content-security-policy"]
    assert "attachment" in week.get(f"/api/jobs/{job}/cards.html?save=true").headers["content-disposition"]


def test_a_persons_text_on_a_card_is_text(week: TestClient) -> None:
    job, _ = ids(week)
    stored = week.get(f"/api/jobs/{job}").json()
    hostile = "</script><script>alert(1)</script>{{ 7*7 }}<b>"
    doc = stored["doc"] | {"name": hostile, "preflight": [hostile]}
    assert week.put(f"/api/jobs/{job}", json=doc, headers={"if-match": f'"{stored["revision"]}"'}).status_code == 200
    page = week.get(f"/api/jobs/{job}/cards.html").text
    assert "alert(1)</script>" not in page
    assert "{{ 7*7 }}" in page
    assert "49&lt;b" not in page


# Test frames


def jpeg(value: float, size: tuple[int, int] = (64, 64), **more: Any) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (round(value),) * 3).save(out, "JPEG", quality=95, **more)
    return out.getvalue()


@pytest.mark.parametrize(("value", "stops"), [(118, 0.0), (64, -1.81), (187, 1.47), (255, 2.47)])
def test_a_grey_card_is_read_in_stops(week: TestClient, value: int, stops: float) -> None:
    """IEC 61966-2-1 about a reflectance of .18 (handbook's figures)."""
    found = week.post("/api/frame", content=jpeg(value)).json()
    assert found["level"] == pytest.approx(stops, abs=0.02)
    assert found["patch_clipped"] == (1.0 if value == 255 else 0.0)


def profile(gamma: float, primaries: list[tuple[float, float, float]], name: bytes) -> bytes:
    """A colour profile of three primaries and a gamma (ICC.1:2001-04, 6 and 8.3: matrix-shaper input)."""

    def fixed(value: float) -> bytes:
        return struct.pack(">i", round(value * 65536))

    def xyz(value: tuple[float, float, float]) -> bytes:
        return b"XYZ " + bytes(4) + b"".join(map(fixed, value))

    curve = b"curv" + bytes(4) + struct.pack(">IH", 1, round(gamma * 256)) + bytes(2)
    told = b"desc" + bytes(4) + struct.pack(">I", len(name) + 1) + name + bytes(1 + 4 + 4 + 2 + 1 + 67)
    tags = {
        b"desc": told, b"cprt": b"text" + bytes(4) + b"none" + bytes(1), b"wtpt": xyz((0.9642, 1.0, 0.8249)),
        **{channel + b"XYZ": xyz(one) for channel, one in zip((b"r", b"g", b"b"), primaries, strict=True)},
        **{channel + b"TRC": curve for channel in (b"r", b"g", b"b")},
    }  # fmt: skip
    table, data, at = b"", b"", 128 + 4 + 12 * len(tags)
    for tag, value in tags.items():
        value += bytes(-len(value) % 4)
        table += tag + struct.pack(">II", at + len(data), len(value))
        data += value
    size = at + len(data)
    head = struct.pack(">I4sI4s4s4s", size, bytes(4), 0x02400000, b"mntr", b"RGB ", b"XYZ ") + bytes(12) + b"acsp"
    head += bytes(28) + b"".join(map(fixed, (0.9642, 1.0, 0.8249)))
    return head.ljust(128, bytes(1)) + struct.pack(">I", len(tags)) + table + data


WIDE = profile(1.8, [(0.7977, 0.2880, 0.0), (0.1352, 0.7119, 0.0), (0.0313, 0.0001, 0.8249)], b"Wide <b>%s{0}")
"""Primaries and gamma of ISO 22028-2 (ROMM RGB), about D50."""


@pytest.mark.parametrize("grey", [0.05, 0.18, 0.6])
def test_a_frame_is_read_by_the_colour_profile_inside_it(week: TestClient, grey: float) -> None:
    """D: in a gamma of 1.8 a grey of .18 is the value 98 of 255, which read as sRGB is 0.56 too dark."""
    value = 255 * grey ** (1 / 1.8)
    found = week.post("/api/frame", content=jpeg(value, icc_profile=WIDE)).json()
    assert found["level"] == pytest.approx(math.log2(grey / 0.18), abs=0.06)
    assert "Read by the colour profile inside it: Wide <b>%s{0}." in found["says"]
    plain = week.post("/api/frame", content=jpeg(value)).json()
    assert plain["level"] < found["level"] - 0.1
    damaged = week.post("/api/frame", content=jpeg(value, icc_profile=WIDE[:90])).json()
    assert damaged["level"] == plain["level"]


def test_two_frames_give_the_flash_alone_and_exif_the_settings(week: TestClient) -> None:
    """80 alone and 140 with flash: -1.17, +0.54, the flash alone +0.02."""
    first = week.post("/api/frame", content=(FRAMES / "ambient.jpg").read_bytes()).json()
    assert first["level"] == pytest.approx(-1.17, abs=0.01)
    assert (first["f_number"], first["shutter_s"], first["iso"], first["flash"]) == (2.8, 1 / 200, 100, False)
    assert first["taken"] == "2026-06-24T12:20:00"
    second = week.post(f"/api/frame?ambient={first['level']}", content=(FRAMES / "flash.jpg").read_bytes()).json()
    assert second["level"] == pytest.approx(0.54, abs=0.01)
    assert second["flash_alone"] == pytest.approx(0.02, abs=0.01)
    wall = week.post("/api/frame", content=(FRAMES / "wall.jpg").read_bytes()).json()
    assert wall["lit"] == pytest.approx(0.63, abs=0.02)
    assert wall["dark_edge"] == "bottom"


@pytest.mark.parametrize(
    ("settings", "kept", "says"),
    [
        ((0.95, (1, 180), 140), (0.95, 1 / 180, 140),
         "Taken at f/0.95 · 1/180 s · ISO 140 (the nearest marks in thirds: f/1, 1/160 s, ISO 160)."),
        ((6.7, (10, 2500), 100), (6.7, 1 / 250, 100),
         "Taken at f/6.7 · 1/250 s · ISO 100 (the nearest mark in thirds: f/6.3)."),
        ((5.6, (1, 256), 400), (5.6, 1 / 250, 400), "Taken at f/5.6 · 1/250 s · ISO 400."),
    ],
)  # fmt: skip
def test_a_frames_settings_are_as_they_are(
    week: TestClient, settings: tuple[Any, ...], kept: tuple[float, ...], says: str
) -> None:
    """ISO 517, 516 and 12232 for the marks; whatever lies between them stays, with the mark told beside."""
    image = Image.new("RGB", (32, 32), (118,) * 3)
    exif = image.getexif()
    part = exif.get_ifd(0x8769)
    part[33437], part[33434], part[34855] = settings[0], IFDRational(*settings[1]), settings[2]
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    found = week.post("/api/frame", content=out.getvalue()).json()
    assert (found["f_number"], found["shutter_s"], found["iso"]) == pytest.approx(kept)
    assert says in found["says"]


def test_a_patch_is_where_it_is_drawn_on_the_frame_as_it_is_held() -> None:
    dark = np.zeros((40, 80, 3))
    dark[:, 60:] = 0.18
    image = Image.fromarray(np.round(srgb(dark) * 255).astype(np.uint8))
    exif = image.getexif()
    exif[0x0112] = 6  # turned: the right edge is the bottom one
    out = io.BytesIO()
    image.save(out, "JPEG", quality=95, exif=exif)
    found = read_frame(out.getvalue(), Patch(0.4, 0.85, 0.2, 0.1))
    assert (found.width, found.height) == (40, 80)
    assert found.luminance == pytest.approx(0.18, abs=0.01)
    assert read_frame(out.getvalue(), Patch(0.4, 0.1, 0.2, 0.1)).luminance < 0.01


def bomb() -> bytes:
    """A header that says 40,000 by 40,000."""
    data = bytearray(jpeg(100))
    at = data.index(b"\xff\xc0")
    data[at + 5 : at + 9] = (40000).to_bytes(2, "big") * 2
    return bytes(data)


def hostile_exif() -> bytes:
    image = Image.new("RGB", (32, 32), (118,) * 3)
    exif = image.getexif()
    part = exif.get_ifd(0x8769)
    part[33434], part[33437], part[34855] = 0.0, float("inf"), 2**32 - 1
    part[36867] = "<script>;DROP TABLE"
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    return out.getvalue()


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"not a picture",
        jpeg(100)[:200],
        bomb(),
        b"\x89PNG\r\n\x1a\n" + b"0" * 100,
        jpeg(100)[:30] + b"\xff" * 5000,
    ],
    ids=["empty", "text", "truncated", "bomb", "png", "garbage"],
)
def test_a_hostile_frame_gets_a_sentence(data: bytes) -> None:
    with refused(UnreadableFile, r"JPEG|pixels"):
        read_frame(data, MIDDLE)


def test_exif_that_makes_no_sense_is_passed_over(week: TestClient) -> None:
    found = week.post("/api/frame", content=hostile_exif()).json()
    assert found["level"] == pytest.approx(0.0, abs=0.02)
    assert (found["f_number"], found["shutter_s"], found["iso"], found["taken"]) == (None, None, None, "")
    assert week.post("/api/frame?x=2", content=jpeg(9)).status_code == 422


def test_a_large_frame_takes_little_memory() -> None:
    """48 million pixels, in a process of its own: under 300 MB in all."""
    code = (
        "import sys; from jumpstop.formats.frame import Patch, read_frame;"
        "found = read_frame(sys.stdin.buffer.read(), Patch(.4, .4, .1, .1));"
        "peak = [line for line in open('/proc/self/status') if line.startswith('VmHWM')][0];"
        "print(found.luminance, int(peak.split()[1]) // 1024)"
    )
    data = jpeg(118, (8000, 6000))
    done = subprocess.run([sys.executable, "-c", code], input=data, capture_output=True, check=True)
    light, megabytes = done.stdout.split()
    assert float(light) == pytest.approx(0.18, abs=0.01)
    assert int(megabytes) < 300


# The phone, and the command line


def test_each_showing_makes_a_fresh_link_and_a_token_can_be_taken_back(tmp_path: Path) -> None:
    app = create_app(tmp_path, tokens={"first"}, names=["10.0.0.7"])
    with TestClient(app, base_url="http://127.0.0.1") as one:
        one.get("/enter?token=first")
        shown = [one.post("/api/phone/link?name=10.0.0.7&to=log/abc").json()["url"] for _ in range(2)]
        assert one.post("/api/phone/link?name=elsewhere").status_code == 404
        made = one.post("/api/phone/devices", json={"name": "A script"}).json()
        one.cookies.clear()
        old, new = (url.split("?", 1)[1] for url in shown)
        assert one.get(f"/enter?{old}").status_code == 401  # the newer one took its place
        entered = one.get(f"/enter?{new}", follow_redirects=False)
        assert entered.headers["location"] == "/#/log/abc"
        one.cookies.clear()
        assert one.get(f"/enter?{new}").status_code == 401
        bearer = {"authorization": f"Bearer {made['token']}"}
        assert one.get("/api/phone", headers=bearer).json()["devices"][-2]["name"] == "A script"
        for refused in (  # letting in and putting out is a person's
            one.delete(f"/api/phone/devices/{made['id']}", headers=bearer),
            one.post("/api/phone/devices", json={"name": "Another"}, headers=bearer),
            one.post("/api/phone/link?name=10.0.0.7", headers=bearer),
        ):
            assert refused.status_code == 403
        browser = {"cookie": entered.headers["set-cookie"].split(";")[0]}
        assert one.delete(f"/api/phone/devices/{made['id']}", headers=browser).status_code == 204
        assert one.get("/api/phone", headers=bearer).status_code == 401
    assert made["token"] not in (tmp_path / "jumpstop.sqlite3").read_bytes().decode("latin-1")


def test_a_server_of_this_machine_only_shows_no_link(week: TestClient) -> None:
    assert week.get("/api/phone").json()["open"] is False
    assert "--host" in week.post("/api/phone/link?name=x").text


def test_logging_goes_on_while_the_server_is_killed(tmp_path: Path) -> None:
    """Entries are sent again until an answer comes; each is there once in the end."""
    server = Demo(tmp_path / "data")
    port, stop = server.port, threading.Event()
    with httpx.Client(base_url=server.url, timeout=5) as client:
        job = client.get("/api/jobs").json()[0]["id"]
        setup = next(one["id"] for one in client.get("/api/setups").json() if one["doc"]["name"] == "44 headshots")
        entry = client.get(f"/api/log/set/{job}/{setup}").json()["lights"][0]["blank"]
    sent: list[str] = []

    def write() -> None:
        with httpx.Client(base_url=f"http://127.0.0.1:{port}", timeout=5) as client:
            while not stop.is_set():
                key = f"k{len(sent)}"
                while True:
                    try:
                        if client.post(f"/api/log/keep/{key}", json=entry).status_code == 200:
                            break
                    except httpx.HTTPError:
                        stop.wait(0.02)
                sent.append(key)

    writer = threading.Thread(target=write)
    writer.start()
    for least in range(2, 12, 2):  # some of them have come through each time before it is killed
        while len(sent) < least:
            stop.wait(0.05)
        server.kill()
        server.start(port)
    stop.set()
    writer.join()
    found = json.loads(httpx.get(f"{server.url}api/log/export.json").text)["entries"]
    server.kill()
    assert sorted(one["id"] for one in found) == sorted(sent)
    assert len(sent) > 5


def test_the_command_line_learns_reads_frames_and_writes_cards(week: TestClient, tmp_path: Path) -> None:
    keep(week, "a1", "44 headshots", stops=0.6)
    job, _ = ids(week)
    (tmp_path / "log.json").write_bytes(week.get("/api/log/export.json").content)
    (tmp_path / "shelf.json").write_bytes(week.get("/api/shelf/export?kind=json").content)
    (tmp_path / "job.json").write_bytes(week.get(f"/api/jobs/{job}/export.json").content)
    run = CliRunner().invoke
    done = run(cli, ["learn", str(tmp_path / "log.json"), "--covariance"])
    assert done.exit_code == 0, done.output
    found = json.loads(done.output)
    assert {one["name"] for one in found["things"]} >= {"Octa 90", "Octa 90, inner diffuser"}
    size = len(found["things"])
    assert np.array(found["covariance"]).shape == (size, size)
    done = run(cli, ["frame", str(FRAMES / "flash.jpg"), "--patch", "0.45,0.45,0.1,0.1"])
    assert json.loads(done.output)["level"] == pytest.approx(0.54, abs=0.01)
    assert run(cli, ["frame", str(FRAMES / "flash.jpg"), "--patch", "1,2"]).exit_code != 0
    done = run(cli, ["cards", str(tmp_path / "job.json"), "--html", str(tmp_path / "c.html")])
    assert done.exit_code == 0, done.output
    assert "44 headshots" in (tmp_path / "c.html").read_text(encoding="utf-8")
