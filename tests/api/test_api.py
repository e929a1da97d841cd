"""The API as a client meets it: edits, conflicts, undo, import, refusals, what stands guard."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from alembic.config import Config
from alembic.script import ScriptDirectory
from fastapi.testclient import TestClient

import jumpstop.store
from jumpstop.api.app import create_app
from jumpstop.core.flash import Unit
from jumpstop.demo import SHELF, fill
from jumpstop.formats.guide_number import parse_guide_number
from jumpstop.formats.shelf import read_shelf, write_csv, write_json
from jumpstop.store.database import HEAD
from jumpstop.store.documents import Store


@pytest.fixture
def client(tmp_path: Path) -> Iterator[TestClient]:
    store = Store(tmp_path)
    fill(store)
    store.close()
    with TestClient(create_app(tmp_path), base_url="http://127.0.0.1") as client:
        yield client


def setup_of(client: TestClient) -> tuple[str, int, dict[str, object]]:
    stored = client.get("/api/setups").json()[0]
    return stored["id"], stored["revision"], stored["doc"]


def test_an_edit_is_stored_and_answered_and_a_stale_one_is_refused(client: TestClient) -> None:
    item, revision, doc = setup_of(client)
    doc["frames"] = 480
    first = client.put(f"/api/setups/{item}", json=doc, headers={"if-match": f'"{revision}"'})
    assert first.status_code == 200
    assert len(first.json()["answer"]["lanes"]) == 12
    stale = client.put(f"/api/setups/{item}", json=doc | {"frames": 7}, headers={"if-match": f'"{revision}"'})
    assert stale.status_code == 412
    assert stale.json()["current"]["doc"]["frames"] == 480
    assert client.put(f"/api/setups/{item}", json=doc).status_code == 428


def test_undo_and_redo_go_over_every_kind_of_document(client: TestClient) -> None:
    unit = client.get("/api/units").json()[3]
    assert client.delete("/api/units", params={"item_id": unit["id"]}).status_code == 204
    assert len(client.get("/api/shelf").json()) == 11
    assert client.post("/api/undo").json()["label"] == "Delete Plover 58"
    assert [u["name"] for u in client.get("/api/shelf").json()][3] == "Plover 58"
    assert client.post("/api/redo").json()["kind"] == "units"
    assert client.get(f"/api/units/{unit['id']}").status_code == 404


@pytest.mark.parametrize(
    ("change", "sentence"),
    [
        ({"lights": [{"distance_m": 0}]}, "Distance (m)"), ({"look": {"iso": 1e9}}, "ISO"),
        ({"look": {"f_number": 0}}, "Aperture (f-number)"), ({"frames": "many"}, "Frames"),
    ],
)  # fmt: skip
def test_silly_input_gets_a_sentence_that_names_the_field(
    client: TestClient, change: dict[str, object], sentence: str
) -> None:
    item, revision, doc = setup_of(client)
    answer = client.put(f"/api/setups/{item}", json=doc | change, headers={"if-match": f'"{revision}"'})
    assert answer.status_code == 422
    assert answer.json()["problems"][0]["sentence"].startswith(sentence)
    assert setup_of(client)[1] == revision


def test_an_empty_shelf_says_so(client: TestClient) -> None:
    ids = [unit["id"] for unit in client.get("/api/units").json()]
    client.delete("/api/units", params={"item_id": ids})
    solved = client.get(f"/api/setups/{setup_of(client)[0]}/answer").json()
    assert solved["answer"] is None
    assert solved["trouble"].startswith("The shelf is empty")


def test_a_lane_explains_every_jump(client: TestClient) -> None:
    item, unit = setup_of(client)[0], client.get("/api/units").json()[3]["id"]
    detail = client.get(f"/api/setups/{item}/lanes/{unit}").json()
    assert sum(step["stops"] for step in detail["steps"]) == pytest.approx(detail["lane"]["spare"], abs=0.01)
    assert all(step["why"] and "{" not in step["why"] for step in detail["steps"])


def test_feet_are_said_where_feet_are_wanted(client: TestClient) -> None:
    preferences = client.get("/api/preferences").json() | {"length": "ft", "power": "fraction"}
    assert client.put("/api/preferences", json=preferences).status_code == 200
    answer = client.get(f"/api/setups/{setup_of(client)[0]}/answer").json()["answer"]
    assert "5.9 ft" in [arc["cause"] for arc in answer["arcs"]]
    assert all(lane["dial"].startswith("1/") for lane in answer["lanes"])


GOOD = 'name,guide_number,weight_g\nStint,"GN 60 (ISO 100, m, 200 mm)",300\nRuff,197 ft ISO 200 @ 105mm,x12\n'


def test_import_shows_first_and_writes_only_what_was_agreed(client: TestClient) -> None:
    shown = client.post("/api/shelf/import", content=GOOD).json()
    assert (shown["good"], shown["bad"], shown["written"]) == (1, 1, 0)
    assert shown["problems"][0] == {"row": 3, "column": "weight_g", "reason": "“x12” is not a number."}
    assert len(client.get("/api/units").json()) == 12
    assert client.post("/api/shelf/import?agreed=other", content=GOOD).status_code == 422
    assert client.post(f"/api/shelf/import?agreed={shown['digest']}", content=GOOD).json()["written"] == 1
    assert client.post("/api/undo").json()["label"] == "Import 1 units"


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"\x89PNG\x00\x01", "not a text file"), ("name\nGrün".encode("latin-1"), "not in UTF-8"), (b"", "empty"),
        (b"title\nx", "No column “name”"), (b'{"format": "x"}', "not a shelf"), (b"n" * (8 * 2**20 + 1), "larger than"),
    ],
)  # fmt: skip
def test_unreadable_files_are_refused_in_a_sentence(client: TestClient, data: bytes, said: str) -> None:
    answer = client.post("/api/shelf/import", content=data)
    assert answer.status_code == 422
    assert said in answer.json()["problems"][0]["sentence"]


def test_a_huge_body_is_turned_away_at_the_door(client: TestClient) -> None:
    assert client.post("/api/shelf/import", content=b"x" * (10 * 2**20)).status_code == 413


def test_a_round_trip_loses_nothing() -> None:
    units = read_shelf(SHELF.read_bytes()).units
    odd = Unit(name="=SUM(A1)", watt_seconds=10, note="two\nlines; “quoted”, with, commas")
    for written in (write_csv([*units, odd]), write_json([*units, odd])):
        reading = read_shelf(written.encode())
        assert not reading.problems
        assert reading.units == [*units, odd]


@pytest.mark.parametrize(
    ("text", "metres", "zoom"),
    [
        ("GN 60 (ISO 100, m, 200 mm)", 60, 200), ("197 ft ISO 200 @ 105mm", 42.46, 105),
        ("GN58 m", 58, None), ("GN 60/197 (m/ft) at 35 mm", 60, 35), ("36 m / 118 ft, ISO 100", 36, None),
    ],
)  # fmt: skip
def test_guide_numbers_as_printed(text: str, metres: float, zoom: float | None) -> None:
    claim = parse_guide_number(text)
    assert (claim.guide_number_m, claim.zoom_mm) == (pytest.approx(metres, abs=0.01), zoom)


def test_a_guide_number_without_a_unit_is_refused() -> None:
    with pytest.raises(ValueError, match="metres or feet"):
        parse_guide_number("GN 60 ISO 100")


def test_ten_thousand_rows_are_read() -> None:
    rows = "name,guide_number\n" + "".join(f'U{i},"GN {20 + i % 50} (ISO 100, m, 35 mm)"\n' for i in range(10_000))
    assert len(read_shelf(rows.encode()).units) == 10_000


def test_the_guard(client: TestClient) -> None:
    assert client.get("/api/units", headers={"host": "elsewhere.example"}).status_code == 421
    assert client.post("/api/undo", headers={"origin": "http://elsewhere.example"}).status_code == 403
    assert "default-src 'none'" in client.get("/api/units").headers["content-security-policy"]


def test_head_is_the_newest_migration() -> None:
    config = Config()
    config.set_main_option("script_location", str(Path(jumpstop.store.__file__ or "").parent / "migrations"))
    assert ScriptDirectory.from_config(config).get_current_head() == HEAD
