"""The API as a client meets it: edits, conflicts, undo, import, refusals, what stands guard."""

import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from alembic.config import Config
from alembic.script import ScriptDirectory
from fastapi.testclient import TestClient

import jumpstop.store
from asked import put, sentence
from jumpstop.api.app import create_app
from jumpstop.api.choices import BOUNDED
from jumpstop.core.kit.unit import Unit
from jumpstop.demo import SHELF
from jumpstop.formats.errors import UnreadableFile
from jumpstop.formats.guide_number import parse_guide_number
from jumpstop.formats.shelf import guarded, read_shelf, unguarded, write_csv, write_json
from jumpstop.store.documents import Store
from jumpstop.store.file import HEAD
from refused import refused


def setup_of(client: TestClient) -> tuple[str, int, dict[str, Any]]:
    stored = client.get("/api/setups").json()[0]
    return stored["id"], stored["revision"], stored["doc"]


def test_an_edit_is_stored_and_answered_and_a_stale_one_is_refused(client: TestClient) -> None:
    item, revision, doc = setup_of(client)
    first = put(client, f"/api/setups/{item}", doc | {"frames": 480}, revision)
    assert first.status_code == 200
    assert len(first.json()["answer"]["lanes"]["id"]) == 12
    stale = put(client, f"/api/setups/{item}", doc | {"frames": 7}, revision)
    assert stale.status_code == 412
    assert stale.json()["current"]["doc"]["frames"] == 480
    assert client.put(f"/api/setups/{item}", json=doc).status_code == 428


def test_undo_is_of_ones_own_page(client: TestClient) -> None:
    units = client.get("/api/units").json()
    mine, theirs = {"x-page": "a1"}, {"x-page": "b2"}
    client.request("DELETE", "/api/units", params={"item_id": units[3]["id"]}, headers=mine)
    client.request("DELETE", "/api/units", params={"item_id": units[4]["id"]}, headers=theirs)
    assert client.get("/api/history", headers=mine).json()["undo"] == f"Delete {units[3]['doc']['name']}"
    assert client.post("/api/undo", headers=mine).json()["label"] == f"Delete {units[3]['doc']['name']}"
    names = [unit["name"] for unit in client.get("/api/shelf").json()]
    assert units[3]["doc"]["name"] in names
    assert units[4]["doc"]["name"] not in names
    assert client.post("/api/undo").json()["label"] is None  # a page of no name has done nothing
    assert client.post("/api/redo", headers=mine).json()["kind"] == "units"
    assert client.get(f"/api/units/{units[3]['id']}").status_code == 404


def test_an_edit_that_was_overtaken_is_not_undone_over_the_newer_one(client: TestClient) -> None:
    item, revision, doc = setup_of(client)
    put(client, f"/api/setups/{item}?label=Frames", doc | {"frames": 480}, revision, **{"x-page": "a1"})
    put(client, f"/api/setups/{item}?label=Frames", doc | {"frames": 500}, revision + 1, **{"x-page": "b2"})
    refused = client.post("/api/undo", headers={"x-page": "a1"})
    assert refused.status_code == 409
    assert sentence(refused) == "“Frames” cannot be undone here: it was changed elsewhere since."
    assert setup_of(client)[2]["frames"] == 500
    assert client.post("/api/undo", headers={"x-page": "b2"}).json()["label"] == "Frames"
    assert setup_of(client)[2]["frames"] == 480


def test_a_job_keeps_its_setups_over_delete_and_undo(client: TestClient) -> None:
    job = client.get("/api/jobs").json()[0]["id"]
    assert {setup["job_id"] for setup in client.get("/api/setups").json()} == {job}
    client.request("DELETE", "/api/jobs", params={"item_id": job})
    assert {setup["job_id"] for setup in client.get("/api/setups").json()} == {None}
    client.post("/api/undo")
    assert {setup["job_id"] for setup in client.get("/api/setups").json()} == {job}
    item = setup_of(client)[0]
    assert client.put(f"/api/setups/{item}/job", json={"job_id": None}).json()["job_id"] is None
    assert client.put(f"/api/setups/{item}/job", json={"job_id": "elsewhere"}).status_code == 404
    client.post("/api/undo")
    assert client.get(f"/api/setups/{item}").json()["job_id"] == job
    made = client.post("/api/setups", params={"job_id": job}, json={"name": "Eleventh"})
    assert made.json()["job_id"] == job


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"lights": [{"distance_m": 0}]}, "Distance (m)"), ({"aim": {"iso": 1e9}}, "ISO"),
        ({"aim": {"f_number": 0}}, "Aperture (f-number)"), ({"frames": "many"}, "Frames"),
        ({"frames": True}, "Frames must be a whole number"),
        ({"name": "a\x07b"}, "Name must not hold control characters"),
        ({"lights": [{"modifier": {"name": "M", "layers": [{"name": "x\x00", "stops": -1}]}}]}, "Name"),
        ({"ambient": {"place": {"latitude": 1, "longitude": 1, "zone": "Nowhere/{name}"}}},
        "“Nowhere/{name}” is no time zone"),
        ({"name": "\ud800"}, "Name"),
    ],
)  # fmt: skip
def test_silly_input_gets_a_sentence_that_names_the_field(
    client: TestClient, change: dict[str, Any], said: str
) -> None:
    item, revision, doc = setup_of(client)
    answer = put(client, f"/api/setups/{item}", doc | change, revision)
    assert answer.status_code == 422
    assert sentence(answer).startswith(said)
    assert setup_of(client)[1] == revision


def test_problems_are_listed_up_to_a_limit_and_counted(client: TestClient) -> None:
    item, revision, doc = setup_of(client)
    answer = put(client, f"/api/setups/{item}", doc | {f"x{i}": 1 for i in range(5000)}, revision)
    assert len(answer.json()["problems"]) == 41
    assert answer.json()["problems"][-1]["sentence"] == "And 4,960 more."


ODD = "a {name} {0!r} %s <b>x</b> “q” \u202ertl"


def test_a_name_with_braces_is_a_name(client: TestClient) -> None:
    """Stored in every kind, said in answers, chains, lists, labels and refusals, and nothing hangs or answers 500."""
    item, revision, doc = setup_of(client)
    mod = doc["lights"][0]["modifier"]
    for layer in mod["layers"]:
        layer["name"] = f"{ODD} {layer['name']}"
    doc |= {"name": ODD, "note": ODD, "body": doc["body"] | {"name": ODD, "id": None}}
    doc["lights"][0]["modifier"] = mod | {"name": "{name:>200000000}", "id": None}
    doc["filters"] = [one | {"name": "{names}", "id": None} for one in doc["filters"]]
    solved = put(client, f"/api/setups/{item}?label={ODD}", doc, revision)
    assert solved.status_code == 200
    causes = [arc["cause"] for arc in solved.json()["answer"]["arcs"]]
    assert "{name:>200000000}" in causes
    assert f"{ODD} inner diffuser" in causes
    unit = client.get("/api/units").json()[0]
    claims = [{"guide_number": 60, "unit": "m", "reflector": "{basis}"}]
    assert put(client, f"/api/units/{unit['id']}", unit["doc"] | {"name": ODD, "claims": claims}).status_code == 200
    steps = client.get(f"/api/setups/{item}/lanes/{unit['id']}").json()["steps"]
    assert "{basis}" in steps[0]["why"]
    assert client.get("/api/shelf").json()[0]["name"] == ODD
    assert client.get("/api/history").json()["undo"] == f"Change unit {ODD}"
    for kind in ("modifiers", "bodies", "filters", "jobs"):
        one = client.get(f"/api/{kind}").json()[0]
        assert (
            put(client, f"/api/{kind}/{one['id']}", one["doc"] | {"name": ODD, "note": ODD}).json()["doc"]["note"]
            == ODD
        )
    assert client.get(f"/api/setups/{item}/answer").status_code == 200


def test_an_empty_shelf_says_what_is_needed(client: TestClient) -> None:
    ids = [unit["id"] for unit in client.get("/api/units").json()]
    client.request("DELETE", "/api/units", params={"item_id": ids})
    solved = client.get(f"/api/setups/{setup_of(client)[0]}/answer").json()
    assert (solved["answer"]["typical"], solved["trouble"]) == (True, "")
    assert solved["answer"]["verdict"].startswith("Needs GN ")
    assert sentence(client.get("/api/shelf/glance")).startswith("The shelf is empty")


def test_a_lane_explains_every_jump(client: TestClient) -> None:
    item, unit = setup_of(client)[0], client.get("/api/units").json()[3]["id"]
    detail = client.get(f"/api/setups/{item}/lanes/{unit}").json()
    assert sum(step["stops"] for step in detail["steps"]) == pytest.approx(detail["spare"], abs=0.01)
    assert all(step["why"] and step["source"] for step in detail["steps"])
    assert client.get(f"/api/setups/{item}/lanes/gone").status_code == 404
    assert sentence(client.get(f"/api/setups/{item}/lanes/{unit}?method=leaf")).startswith(
        "This method is not possible here"
    )
    trouble = client.get(f"/api/setups/{item}/answer?light=5").json()["trouble"]
    assert trouble == "There is no light number 6 in this setup."


def test_preferences_change_what_is_said_and_marked(client: TestClient) -> None:
    preferences = client.get("/api/preferences").json() | {"length": "ft", "power": "fraction", "step": "full"}
    assert client.put("/api/preferences", json=preferences).status_code == 200
    answer = client.get(f"/api/setups/{setup_of(client)[0]}/answer").json()["answer"]
    assert "5.9 ft" in [arc["cause"] for arc in answer["arcs"]]
    assert all(dial.startswith("1/") for dial in answer["lanes"]["dial"])
    assert {method["camera"]["aperture"] for method in answer["methods"]} <= {"f/2.8", "f/16"}
    assert client.get("/api/scales").json()["apertures"][:3] == [1, 1.4, 2]
    assert sentence(client.put("/api/preferences", json=preferences | {"currency": "£" * 99})).startswith("Currency")


def test_the_scales_tell_bounds_and_blank_documents_that_can_be_sent(client: TestClient) -> None:
    scales = client.get("/api/scales").json()
    assert scales["bounds"]["Light"]["distance_m"] == [0.05, 500]
    assert scales["bounds"]["Lens"]["wanted_share"] == [0.0005, 0.3]
    assert scales["roles"]["fill"] == {"name": "fill", "target_stops": -2, "bearing_deg": 0}
    assert scales["roles"]["rim"]["bearing_deg"] == 150  # behind the subject
    assert client.post("/api/setups", json=scales["blank"]["setup"]).status_code == 201
    for kind in ("modifiers", "bodies", "filters"):
        assert client.post(f"/api/{kind}", json=scales["blank"]["forms"][kind] | {"name": "New"}).status_code == 201


def test_copies_are_numbered_and_names_may_repeat(client: TestClient) -> None:
    unit = client.get("/api/units").json()[3]
    names = [client.post(f"/api/units/{unit['id']}/copy").json()["doc"]["name"] for _ in range(2)]
    assert names == ["Plover 58 (2)", "Plover 58 (3)"]
    again = client.get("/api/units").json()[-1]
    assert client.post(f"/api/units/{again['id']}/copy").json()["doc"]["name"] == "Plover 58 (4)"
    for kind in ("modifiers", "bodies", "filters"):
        first = client.get(f"/api/{kind}").json()[0]
        assert client.post(f"/api/{kind}", json=first["doc"]).status_code == 201
        assert [one["doc"]["name"] for one in client.get(f"/api/{kind}").json()].count(first["doc"]["name"]) == 2
    assert client.get(f"/api/setups/{setup_of(client)[0]}/answer").json()["answer"]["advised"] == "nd"
    assert client.post("/api/units/gone/copy").status_code == 404


def test_one_unreadable_document_does_not_take_the_list_with_it(client: TestClient, tmp_path: Path) -> None:
    store = Store(tmp_path)
    bad = store.add("units", [{"name": "From elsewhere", "zoom": "odd"}], "x")[0]
    broken = store.add("setups", [{"name": "Half a setup", "aim": {"iso": -1}}], "x")[0]
    store.close()
    assert len(client.get("/api/units").json()) == len(client.get("/api/shelf").json()) == 12
    assert len(client.get("/api/setups").json()) == 10
    found = {one["id"]: one for one in client.get("/api/unreadable").json()}
    assert found[bad.id]["name"] == "From elsewhere"
    assert "There is no field “zoom” here" in found[bad.id]["why"] or "needs a guide number" in found[bad.id]["why"]
    assert client.get(f"/api/units/{bad.id}").status_code == 422
    assert sentence(client.get(f"/api/setups/{broken.id}/answer")).startswith("This setup cannot be read: ISO")
    assert client.request("DELETE", "/api/units", params={"item_id": bad.id}).status_code == 204


GOOD = 'name,guide_number,weight_g\nStint,"GN 60 (ISO 100, m, 200 mm)",300\nRuff,197 ft ISO 200 @ 105mm,x12\n'


def test_import_shows_first_and_writes_only_what_was_agreed(client: TestClient) -> None:
    shown = client.post("/api/shelf/import", content=GOOD).json()
    assert (shown["good"], shown["bad"], shown["written"]) == (1, 1, 0)
    assert shown["problems"][0] == {"row": 3, "column": "weight_g", "reason": "“x12” is not a number."}
    assert len(client.get("/api/units").json()) == 12
    assert client.post("/api/shelf/import?agreed=other", content=GOOD).status_code == 422
    assert client.post(f"/api/shelf/import?agreed={shown['digest']}", content=GOOD).json()["written"] == 1
    assert client.post("/api/undo").json()["label"] == "Import 1 unit"


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"\x89PNG\x00\x01", "not a text file"), ("name\nGrün".encode("latin-1"), "not in UTF-8"), (b"", "empty"),
        (b"title\nx", "No column “name”"), (b'{"format": "x"}', "not a shelf"),
        (b'{"format": "jumpstop-shelf", "version": 9}', "only versions 1 and 2"),
        (b"name," * 30_000 + b"\n", "30,001 columns are more than the 200"),
        (b"name,name\nx", "stands twice"), (b"name\n" + b"x" * 600_000, "A line of more than"),
        (b"name\n" + b"x\n" * 20_002, "More than the 20,000 rows"),
        (b"[" + b"9" * 5000 + b"]", "number that is too long"),
        (b'name\n"x', "not proper CSV"), (b"[" * 100_000, "not JSON"),
    ],
)  # fmt: skip
def test_unreadable_files_are_refused_in_a_sentence(client: TestClient, data: bytes, said: str) -> None:
    answer = client.post("/api/shelf/import", content=data)
    assert answer.status_code == 422
    assert said in sentence(answer)


def test_bad_rows_are_listed_up_to_a_limit_and_counted(client: TestClient) -> None:
    rows = "name,guide_number\n" + "Ruff,GN 40\n" * 10_000
    shown = client.post("/api/shelf/import", content=rows)
    assert len(shown.content) < 60_000
    assert (shown.json()["bad"], shown.json()["unlisted"], len(shown.json()["problems"])) == (10_000, 9_800, 200)


def test_a_round_trip_loses_nothing() -> None:
    units = read_shelf(SHELF.read_bytes()).units
    odd = Unit(name="=SUM(A1)", watt_seconds=10, note="two\nlines; “quoted”, with, commas;=1+1\n'-x")
    for written in (write_csv([*units, odd]), write_json([*units, odd])):
        reading = read_shelf(written.encode())
        assert not reading.bad
        assert reading.units == [*units, odd]


@pytest.mark.parametrize(
    "cell", ["=cmd", "a;=cmd", "a;  +1", "x\t@y", "two\n-lines", "''=q", ";'=", "-", 'a;"=b', "+;-;="]
)
def test_no_spreadsheet_runs_a_cell(cell: str) -> None:
    """In whichever locale: no cell begins with a formula's sign, at its start or behind a separator."""
    import re

    safe = guarded(cell)
    assert not re.search(r"(^|[;\t\r\n])[ \"]*[=+\-@]", safe)
    assert unguarded(safe) == cell


def test_shelves_of_version_one_are_still_read() -> None:
    old = {
        "name": "Old",
        "watt_seconds": 60,
        "sources": [{"recycle_full_s": 2}],
        "pulse": {"table": [{"power": 1, "seconds": 0.001}]},
    }
    document = {"format": "jumpstop-shelf", "version": 1, "units": [old]}
    unit = read_shelf(json.dumps(document).encode()).units[0]
    assert unit.power_supplies[0].recycle_full_s == 2
    assert unit.flash_duration is not None
    table = 'name,watt_seconds,sources,power_source\nOld,60,"[{""recycle_full_s"": 2}]",\nSimple,60,,mains\n'
    reading = read_shelf(table.encode())
    assert reading.units[0].power_supplies[0].recycle_full_s == 2


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
    with refused(UnreadableFile, "metres or feet"):
        parse_guide_number("GN 60 ISO 100")


def test_the_guard(client: TestClient) -> None:
    for host in ("elsewhere.example", "[", "127.0.0.1.evil.example", "", "[::1"):
        assert client.get("/api/units", headers={"host": host}).status_code == 400, host
    for host in ("localhost:8614", "[::1]:8614", "127.0.0.1:1"):
        assert client.get("/api/units", headers={"host": host}).status_code == 200, host
    for origin in ("http://elsewhere.example", "http://[", "null", "http://127.0.0.1:9"):
        assert client.post("/api/undo", headers={"origin": origin}).status_code == 403, origin
    assert client.post("/api/undo", headers={"origin": "http://127.0.0.1"}).status_code == 200


def test_strict_headers_stand_on_every_answer(client: TestClient) -> None:
    answers = [
        client.get("/api/units"), client.get("/api/units/gone"), client.get("/api/nothing"),
        client.get("/api/units", headers={"host": "x"}), client.post("/api/undo", headers={"origin": "http://x"}),
        client.post("/api/shelf/import", content=b""), client.post("/api/units", content=b"x" * (3 * 2**20)),
    ]  # fmt: skip
    assert [answer.status_code for answer in answers] == [200, 404, 404, 400, 403, 422, 413]
    for answer in answers:
        assert "default-src 'none'" in answer.headers["content-security-policy"]
        assert answer.headers["x-content-type-options"] == "nosniff"


def test_a_body_that_does_not_say_its_length_is_turned_away_too(client: TestClient) -> None:
    def chunks() -> Iterator[bytes]:
        yield from (b"x" * 2**20 for _ in range(60))

    for path in ("/api/shelf/import", "/api/units", "/api/solve"):
        answer = client.post(path, content=chunks(), headers={"content-type": "application/json"})
        assert answer.status_code == 413, path
        assert "larger than" in sentence(answer)


def test_as_many_ids_as_are_allowed_are_taken(client: TestClient) -> None:
    answer = client.request("DELETE", "/api/units", params={"item_id": ["x"] * 1001})
    assert answer.status_code == 422
    assert "at most 1000 are allowed" in sentence(answer)


def test_a_bug_is_answered_with_a_reference_and_no_trace(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise ValueError("secret figure")

    monkeypatch.setattr(Store, "history", broken)
    answer = client.get("/api/history")
    assert answer.status_code == 500
    assert "reference" in sentence(answer)
    assert "secret" not in answer.text
    assert "content-security-policy" in answer.headers


def test_an_open_server_lets_in_who_used_its_link_once(tmp_path: Path) -> None:
    with TestClient(create_app(tmp_path, tokens={"right"}), base_url="http://127.0.0.1") as one:
        assert one.get("/api/units").status_code == 401
        assert one.get("/").status_code == 401
        assert one.get("/enter?token=wrong").status_code == 401
        entered = one.get("/enter?token=right", follow_redirects=False)
        assert entered.status_code == 303
        assert "HttpOnly" in entered.headers["set-cookie"]
        assert "SameSite=strict" in entered.headers["set-cookie"]
        assert one.get("/api/units").status_code == 200
        one.cookies.clear()
        assert one.get("/enter?token=right").status_code == 401  # it worked once
        assert one.get("/api/units", headers={"cookie": "jumpstop=guess"}).status_code == 401


def test_head_is_the_newest_migration() -> None:
    config = Config()
    config.set_main_option("script_location", str(Path(jumpstop.store.__file__ or "").parent / "migrations"))
    assert ScriptDirectory.from_config(config).get_current_head() == HEAD


def test_the_bounds_that_the_page_asks_for_are_told(client: TestClient) -> None:
    """A document without bounds would let any figure through to be refused afterwards."""
    asked, told = set[str](), client.get("/api/scales").json()["bounds"]
    for file in (Path(__file__).parents[2] / "web" / "src").rglob("*.svelte"):
        text = file.read_text("utf-8")
        asked |= set(re.findall(r"\bbounds\('([A-Z]\w+)'", text))
        for document, field in re.findall(r"\bbounds\('([A-Z]\w+)', '(\w+)'", text):
            assert field in told[document], (file.name, document, field)
    assert {"Stage", "Position", "Light", "Session", "Job", "Brief", "Batteries"} <= asked
    assert asked <= told.keys()


def test_the_bounds_that_are_told_are_those_of_the_published_documents(client: TestClient) -> None:
    told = client.get("/api/scales").json()["bounds"]
    for model in BOUNDED:
        published = model.model_json_schema()["properties"]
        for name, schema in published.items():
            ends = [one for one in (schema, *schema.get("anyOf", ())) if "minimum" in one and "maximum" in one]
            if ends:
                assert told[model.__name__][name] == [ends[0]["minimum"], ends[0]["maximum"]], (model, name)
            elif name in told[model.__name__]:
                assert "$ref" in str(schema), (model, name)  # bounds of a number that has a name of its own
