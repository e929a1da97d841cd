"""The API on jobs: brief, coverage, kit, day, hours, burst, roster, files; what is refused; what undo takes back."""

import json
from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar

from asked import named, put, sentence


@pytest.fixture
def job(client: TestClient) -> str:
    return str(client.get("/api/jobs").json()[0]["id"])


def doc_of(client: TestClient, job: str) -> tuple[dict[str, Any], int]:
    found = client.get(f"/api/jobs/{job}").json()
    return found["doc"], found["revision"]


def change(client: TestClient, job: str, **fields: Any) -> Any:
    doc, revision = doc_of(client, job)
    return put(client, f"/api/jobs/{job}", doc | fields, revision)


def test_the_brief_lists_what_is_open_and_what_it_comes_to(client: TestClient, job: str) -> None:
    """D: 44 people at 40 frames each are 1,760 frames."""
    found = client.get(f"/api/jobs/{job}/brief").json()
    assert "44 people, 40 each: 1,760 frames" in found["comes_to"]
    assert "How much wind is to be expected?" in found["open"]
    assert found["letter"].startswith("1. ")
    doc, _ = doc_of(client, job)
    change(client, job, brief=doc["brief"] | {"wind_m_s": 6, "people": 40, "frames_each": 300})
    after = client.get(f"/api/jobs/{job}/brief").json()
    assert "How much wind is to be expected?" not in after["open"]
    assert any("12,000 frames" in line for line in after["comes_to"])
    wrong = change(client, job, brief=doc["brief"] | {"people": 0})
    assert wrong.status_code == 422
    assert sentence(wrong) == "People must be at least 1 (got 0)."


def test_the_coverage_agrees_with_the_workbench(client: TestClient, job: str) -> None:
    found = client.get(f"/api/jobs/{job}/board").json()
    assert [column["name"] for column in found["columns"]].count("At the bench") == 3
    item, _ = named(client, "Noon portrait")
    column = next(i for i, one in enumerate(found["columns"]) if one["setup"] == item)
    lanes = client.get(f"/api/setups/{item}/answer").json()["answer"]["lanes"]
    for at, unit in enumerate(found["units"]):
        if found["cells"][column]["method"][at] == 0 and found["cells"][column]["spare"][at] is not None:
            place = lanes["id"].index(unit["id"])  # the advised method is the first that serves
            assert found["cells"][column]["spare"][at] == pytest.approx(lanes["spare"][place], abs=0.006)
            assert found["cells"][column]["dial"][at] == lanes["dial"][place]
    assert "Covers 8 of 10 setups" in found["picked"]["says"]
    rows = client.get(f"/api/jobs/{job}/board.csv").text.splitlines()
    assert len(rows) == len(found["units"]) + 1


def test_the_hours_of_a_setup_tell_what_the_day_does(client: TestClient, job: str) -> None:
    """At every time at which a session of it is taken up or its light looked at anew: method and settings alike."""
    turns = client.get(f"/api/jobs/{job}/day").json()["turns"]
    sessions = doc_of(client, job)[0]["sessions"]
    seen = 0
    for turn in turns:
        setup = sessions[turn["session"]]["setup"]
        found = client.get(f"/api/jobs/{job}/hours", params={"setup": setup})
        if turn["stretches"] and found.status_code == 200:
            hours = {one["clock"]: one for one in found.json()["skies"][0]["hours"]}
            for stretch in turn["stretches"]:
                there = hours[stretch["clock"]]
                assert (there["method"], there["settings"]) == (stretch["method"], stretch["settings"])
                seen += 1
    assert seen > 6


def test_a_kit_is_chosen_taken_and_covers_all(client: TestClient, job: str) -> None:
    kit = client.get(f"/api/jobs/{job}/kit").json()
    assert kit["proven"]
    assert "proven" in kit["says"]
    assert kit["given_up"] == []
    taken = [{"unit": one["unit"], "count": one["count"]} for one in kit["taken"]]
    assert change(client, job, picked=taken, posts=kit["stands"]).status_code == 200
    picked = client.get(f"/api/jobs/{job}/board").json()["picked"]
    assert picked["says"].startswith("Covers all 10 setups")
    assert picked["chance"] == kit["chance"]
    assert picked["posts"] == kit["posts"]
    again = client.post(f"/api/jobs/{job}/again").json()["id"]  # they stand there in a copy of the job, too
    assert client.get(f"/api/jobs/{again}/board").json()["picked"]["posts"] == kit["posts"]
    assert len(doc_of(client, again)[0]["posts"]) == len(kit["stands"])
    client.post("/api/undo")
    packed = [item for bag in client.get(f"/api/jobs/{job}/pack").json()["bags"] for item in bag["items"]]
    fed = sum(one["weight_g"] for one in packed if "charged and labelled" in one["detail"])
    assert fed > 0  # the units and their batteries, as they are packed
    assert picked["grams"] + fed == pytest.approx(kit["grams"])
    lines = [json.loads(line) for line in client.get(f"/api/jobs/{job}/front").text.splitlines()]
    assert lines[0]["grams"] == pytest.approx(kit["grams"])
    change(client, job, chance=0.999)
    none = client.get(f"/api/jobs/{job}/kit").json()
    assert none["says"].startswith("No set of units covers all of it")
    assert any("Chalk line, key: the nearest, Gannet 600, wants" in line for line in none["given_up"])


def test_travel_and_site_are_told_of(client: TestClient, job: str) -> None:
    doc, _ = doc_of(client, job)
    units = {unit["doc"]["name"]: unit for unit in client.get("/api/units").json()}
    skua, gannet = units["Skua 1200 pack"], units["Gannet 600"]
    supplies = [one | {"capacity_wh": 130} for one in gannet["doc"]["power_supplies"]]
    put(client, f"/api/units/{gannet['id']}", gannet["doc"] | {"power_supplies": supplies})
    brief = doc["brief"] | {"carriage": "air", "power_on_site": False}
    change(client, job, picked=[{"unit": skua["id"]}, {"unit": gannet["id"]}], brief=brief)
    cautions = client.get(f"/api/jobs/{job}/board").json()["picked"]["cautions"]
    assert any("Skua 1200 pack wants mains" in line for line in cautions)
    assert any("Gannet 600 by air, 130 Wh: in the cabin with the airline's leave" in line for line in cautions)


def test_heads_on_one_circuit_are_told_what_they_draw(client: TestClient, job: str) -> None:
    """D: 1,200 Ws in 1 s, 70 % of it stored, at 230 V: 7.45 A; two are 15, and a circuit of 10 A bears one."""
    supply = {"kind": "mains", "recycle_full_s": 1.0}
    head = {"name": "Heron M", "kind": "monobloc", "watt_seconds": 1200, "power_supplies": [supply], "count": 3}
    made = client.post("/api/units", json=head).json()["id"]
    for number, told in ((1, False), (2, True)):
        change(client, job, picked=[{"unit": made, "count": number}])
        cautions = " ".join(client.get(f"/api/jobs/{job}/board").json()["picked"]["cautions"])
        assert ("they take about 15 A together" in cautions) == told


def test_the_day_says_what_gives_out_and_what_would_help(client: TestClient, job: str) -> None:
    day = client.get(f"/api/jobs/{job}/day").json()
    assert day["says"] == "Godwit 76 pair gives out at 12:50: 3 batteries, and 4 more wanted."
    assert any(way["says"].startswith("4 batteries more for Godwit 76 pair: it lasts") for way in day["ways"])
    assert [turn["name"] for turn in day["turns"]] == ["44 headshots", "Team of 22", "The leap", "Lanterns at dusk"]
    assert "f/2.8 to f/11" in day["turns"][1]["hands"]
    doc, _ = doc_of(client, job)
    charged = [one | {"charges": 7} if one["name"] == "Godwit 76 pair" else one for one in doc["batteries"]]
    change(client, job, batteries=charged)
    after = client.get(f"/api/jobs/{job}/day").json()
    assert after["lasts"]
    assert after["says"].startswith("It lasts: over at 22:10")
    assert after["ways"] == []
    change(client, job, celsius=-10)
    assert not client.get(f"/api/jobs/{job}/day").json()["lasts"]


def studio(client: TestClient) -> str:
    """A long day in a dark room on one unit and one charge, ISO and heads free: everything that there is would help."""
    unit = next(one for one in client.get("/api/units").json() if one["doc"]["name"] == "Plover 58")
    light = {"distance_m": 4, "unit": unit["doc"] | {"id": unit["id"]}}
    setup = {"name": "Dark room", "ambient": {"condition": "dark"}, "aim": {"f_number": 5.6}, "lights": [light]}
    near = setup | {"name": "Near", "lights": [light | {"distance_m": 2}]}
    session = {"people": 12, "frames_each": 40, "minutes_each": 5}
    sessions = [session | {"setup": "a"}, session | {"setup": "b"}]
    said = [{"unit": unit["id"], "name": "Plover 58", "charges": 1}]
    file = {"format": "jumpstop-job", "version": 1, "job": {"name": "Studio", "sessions": sessions, "batteries": said},
            "setups": [{"id": "a", "setup": setup}, {"id": "b", "setup": near}]}  # fmt: skip
    made = client.post("/api/jobs/import", json=file)
    assert made.status_code == 201, made.text
    return str(made.json()["id"])


@pytest.mark.parametrize("which", ["kite week", "studio"])
def test_each_help_of_the_day_does_what_it_says_and_can_be_taken_back(client: TestClient, job: str, which: str) -> None:
    at = job if which == "kite week" else studio(client)
    day = client.get(f"/api/jobs/{at}/day").json()
    codes = {way["code"] for way in day["ways"]}
    assert codes >= ({"charges", "charger", "order"} if which == "kite week" else {"charges", "iso", "second", "order"})
    stated = state(client)
    for way in day["ways"]:
        asked = {name: way[name] for name in ("code", "unit", "count", "sessions")}
        tag = {"if-match": f'"{doc_of(client, at)[1]}"', "x-page": "help"}
        done = client.post(f"/api/jobs/{at}/day/help", json=asked, headers=tag)
        assert done.status_code == 200, done.text
        assert state(client) != stated
        then = client.get(f"/api/jobs/{at}/day").json()
        lasts = way["says"].split(": ", 1)[1].split(";")[0].rstrip(".")
        assert then["lasts"] == (lasts == "it lasts"), way
        if not then["lasts"]:
            assert f"gives out at {lasts.removeprefix('it lasts until ')}" in then["says"], way
        assert client.post(f"/api/jobs/{at}/day/help", json=asked, headers=tag).status_code == 412
        assert client.post("/api/undo", headers={"x-page": "help"}).status_code == 200
        assert state(client) == stated  # nothing but what was done, taken back as one
    newest = {"if-match": f'"{doc_of(client, at)[1]}"'}
    for gone in ({"code": "charges", "unit": "none"}, {"code": "order", "sessions": [0, 9]}, {"code": "order"}):
        assert client.post(f"/api/jobs/{at}/day/help", json=gone, headers=newest).status_code == 404
    assert client.get(f"/api/jobs/{at}/day").json() == day


def state(client: TestClient) -> list[Any]:
    return [one["doc"] for kind in ("jobs", "setups") for one in client.get(f"/api/{kind}").json()]


def test_a_help_of_the_day_says_what_else_it_moves(client: TestClient) -> None:
    """Two stops of ISO make the near light too bright at its lowest; a charger takes longer over changing."""
    at = studio(client)
    ways = {(way["code"], way["count"]): way["says"] for way in client.get(f"/api/jobs/{at}/day").json()["ways"]}
    assert ways["second", 1].startswith("A second Plover 58 beside it")
    doc, _ = doc_of(client, at)
    slow = change(client, at, swap_min=30, charge_h=0.2)
    assert slow.status_code == 200
    says = [way["says"] for way in client.get(f"/api/jobs/{at}/day").json()["ways"] if way["code"] == "charges"]
    assert any("; over at" in one for one in says)
    assert doc["name"] == "Studio"


def test_impossible_days_get_a_sentence(client: TestClient, job: str) -> None:
    doc, _ = doc_of(client, job)
    first = doc["sessions"][0]
    assert (
        sentence(change(client, job, sessions=[first | {"frames_each": 0}]))
        == "Frames each (number 1) must be at least 1 (got 0)."
    )
    assert "before it begins" in sentence(change(client, job, begins="20:00", ends="08:00"))
    change(client, job, sessions=[first | {"people": 9000, "frames_each": 9000}])
    day = client.get(f"/api/jobs/{job}/day").json()
    assert "89,100,000 frames in one session cannot be right" in day["turns"][0]["wrong"][0]
    change(client, job, sessions=[first | {"people": 900, "minutes_each": 8}])
    endless = client.get(f"/api/jobs/{job}/day").json()
    assert "not over after 3 days" in endless["turns"][0]["wrong"][0]
    assert "on day 4" in endless["wrong"][0]
    change(client, job, sessions=[first | {"people": 150, "minutes_each": 8}])
    long = client.get(f"/api/jobs/{job}/day").json()
    assert "the next day" in long["wrong"][0]
    assert not [line for line in long["turns"][0]["wrong"] if "no method" in line]
    change(client, job, sessions=[first, first | {"start": "09:10"}])
    assert "before the one ahead of it has ended" in client.get(f"/api/jobs/{job}/day").json()["turns"][1]["wrong"][0]
    leap, _ = named(client, "The leap")
    change(client, job, sessions=[{"setup": leap, "start": "21:50"}])
    assert "The sun has set at 21:1" in client.get(f"/api/jobs/{job}/day").json()["turns"][0]["wrong"][0]
    change(
        client, job, sessions=[{"setup": leap, "start": "20:55", "people": 30, "frames_each": 30, "minutes_each": 2}]
    )
    assert any("before it is over" in line for line in client.get(f"/api/jobs/{job}/day").json()["turns"][0]["wrong"])


def test_hours_and_bursts(client: TestClient, job: str) -> None:
    item, _ = named(client, "44 headshots")
    hours = client.get(f"/api/jobs/{job}/hours", params={"setup": item, "begins": "09:00", "ends": "16:00"}).json()
    sun, cloud = hours["skies"]
    assert sun["lost"] == ["High-speed sync holds no more from 10:00"]
    assert "ND at sync" in sun["holds"]
    assert "High-speed sync" in cloud["holds"]
    table = client.get(f"/api/jobs/{job}/hours.csv", params={"setup": item, "begins": "09:00", "ends": "16:00"}).text
    assert len(table.splitlines()) == 1 + 2 * 8
    burst = client.get(f"/api/jobs/{job}/burst", params={"setup": item, "per_s": 10, "frames": 30}).json()
    own = next(row for row in burst["rows"] if row["in_hand"])
    assert len(own["lit"]) == 30
    assert own["lit"][0]
    assert burst["says"].startswith(f"{burst['unit']} at {own['dial']}")
    assert client.get(f"/api/jobs/{job}/hours", params={"setup": "gone"}).status_code == 404
    dark, _ = named(client, "Sail loft")
    assert "needs a place and a date" in sentence(client.get(f"/api/jobs/{job}/hours", params={"setup": dark}))


def test_the_schedule_reads_back_as_a_calendar(client: TestClient, job: str) -> None:
    """P: RFC 5545, by a general library."""
    body = client.get(f"/api/jobs/{job}/day.ics").content
    events = Calendar.from_ical(body).walk("VEVENT")
    assert next(str(event["summary"]) for event in events) == "44 headshots"
    start, end = events[0].decoded("dtstart"), events[0].decoded("dtend")
    assert f"{start:%Y-%m-%d %H:%M}" == "2026-06-24 08:00"  # nine by the clocks of the place
    assert end - start == timedelta(hours=6, minutes=22 + 2 * 2)  # two batteries changed in it
    assert str(events[0]["location"]) == "Chalk Downs"
    change(client, job, day=None)
    assert "wants a date" in sentence(client.get(f"/api/jobs/{job}/day.ics"))


def test_a_job_goes_out_and_comes_back_whole(client: TestClient, job: str) -> None:
    body = client.get(f"/api/jobs/{job}/export.json").content
    count = len(client.get("/api/setups").json())
    made = client.post("/api/jobs/import", content=body)
    assert made.status_code == 201
    again = made.json()["id"]
    assert len(client.get("/api/setups").json()) == 2 * count
    first, second = (client.get(f"/api/jobs/{one}/day").json() for one in (job, again))
    for day in (first, second):
        for turn in day["turns"]:
            del turn["setup"]
    assert first == second
    assert client.post("/api/undo").json()["label"] == "Import job Kite week on the downs"
    assert len(client.get("/api/setups").json()) == count
    assert [one["id"] for one in client.get("/api/jobs").json()] == [job]
    bad = json.loads(body)
    bad["job"]["sessions"][0]["setup"] = "elsewhere"
    refused = client.post("/api/jobs/import", content=json.dumps(bad).encode())
    assert "not in this job" in sentence(refused)
    assert client.post("/api/jobs/import", content=b"{").status_code == 422
    assert len(client.get("/api/jobs").json()) == 1


def test_a_roster_comes_in_and_goes_out(client: TestClient, job: str) -> None:
    table = 'Name;Slot;Variant;Done;Picks\n"=Ada; the first";10:30;waist;yes;12, 14\nBram;;;;\n'
    _, revision = doc_of(client, job)
    made = client.put(f"/api/jobs/{job}/roster", content=table.encode(), headers={"if-match": f'"{revision}"'})
    assert made.status_code == 200
    roster = made.json()["doc"]["roster"]
    assert roster[0] | {"id": ""} == {
        "id": "",
        "day": None,
        "name": "=Ada; the first",
        "slot": "10:30",
        "variant": "waist",
        "done": True,
        "files": "",
        "picks": "12, 14",
    }
    out = client.get(f"/api/jobs/{job}/roster.csv").text
    assert "'=Ada" in out  # no spreadsheet runs it
    _, revision = doc_of(client, job)
    back = client.put(f"/api/jobs/{job}/roster", content=out.encode(), headers={"if-match": f'"{revision}"'})
    assert back.json()["doc"]["roster"] == roster
    for bad, says in (
        (b"", "empty"),
        (b"who\nA\n", "column called name"),
        (b"name,slot\nA,25:99\n", "Row 2"),
        (b"\xff\xfe", "UTF-8"),
    ):
        refused = client.put(f"/api/jobs/{job}/roster", content=bad, headers={"if-match": f'"{revision + 1}"'})
        assert refused.status_code == 422
        assert says in sentence(refused)
    stale = client.put(f"/api/jobs/{job}/roster", content=out.encode(), headers={"if-match": f'"{revision - 1}"'})
    assert stale.status_code in (200, 412)


def test_a_job_without_setups_says_so(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"name": "Empty"}).json()
    for what in ("board", "kit", "day"):
        assert "add one first" in sentence(client.get(f"/api/jobs/{made['id']}/{what}"))
    assert client.get("/api/jobs/gone/board").status_code == 404
    setup, _ = named(client, "Sail loft")
    assert client.put(f"/api/setups/{setup}/job", json={"job_id": made["id"]}).status_code == 200
    assert [one["name"] for one in client.get(f"/api/jobs/{made['id']}/board").json()["columns"]] == ["Sail loft"]
    assert client.get(f"/api/jobs/{made['id']}/day").json()["turns"][0]["name"] == "Sail loft"


def test_sessions_of_a_setup_that_is_gone_are_left_out(client: TestClient, job: str) -> None:
    item, _ = named(client, "44 headshots")
    client.delete("/api/setups", params={"item_id": [item]})
    assert next(turn["name"] for turn in client.get(f"/api/jobs/{job}/day").json()["turns"]) == "Team of 22"
    client.post("/api/undo")
    assert client.get(f"/api/jobs/{job}/day").json()["turns"][0]["name"] == "44 headshots"


def test_variants_tell_what_hands_must_change(client: TestClient) -> None:
    item, doc = named(client, "Noon portrait")
    revision = client.get(f"/api/setups/{item}").json()["revision"]
    far = doc["lights"][0] | {"distance_m": 2.4, "layers": []}
    lens = {"focal_mm": 50, "subject_m": 2.5, "background_m": 60}
    mine = {
        "name": "tight",
        "orientation": "landscape",
        "lens": doc["aim"]["lens"],
        "stage": doc["stage"],
        "lights": doc["lights"],
    }
    doc["variants"] = [mine, mine | {"name": "full length", "lens": lens, "lights": [far]}]
    assert put(client, f"/api/setups/{item}", doc, revision).status_code == 200
    here, there = client.get(f"/api/setups/{item}/variants").json()["variants"]
    assert here["here"]
    assert here["hands"] == []
    assert there["hands"][:1] == ["85 to 50 mm"]
    assert "light 1 back 0.6 m, to 2.4 m" in there["hands"]
    assert "light 1: inner diffuser off" in there["hands"]
    assert there["setup"]["lights"][0]["distance_m"] == 2.4


def test_a_usual_job_begins_with_its_setups_and_is_undone_whole(client: TestClient) -> None:
    last, doc = named(client, "Noon portrait")
    every = client.get("/api/jobs/begin/templates").json()
    assert len(every) == 6
    for name in (one["name"] for one in every):
        made = client.post("/api/jobs/begin", params={"name": name, "like": last})
        assert made.status_code == 201
        assert made.json()["doc"]["name"] == name
        assert made.json()["doc"]["note"]
        own = [one for one in client.get("/api/setups").json() if one["job_id"] == made.json()["id"]]
        assert own
        assert {one["doc"]["body"]["name"] for one in own} == {doc["body"]["name"]}
        assert client.get(f"/api/jobs/{made.json()['id']}/day").json()["turns"][0]["stretches"]
        for one in own:  # what is about motion says what moves, and is frozen
            moves = any(word in made.json()["doc"]["note"] for word in ("running", "pour"))
            assert (one["doc"]["motion"]["kind"] == "freeze") == moves
    count = len(client.get("/api/setups").json())
    assert client.post("/api/undo").json()["label"] == "Begin Splash on a table"
    assert len(client.get("/api/setups").json()) == count - 1
    assert client.post("/api/jobs/begin", params={"name": "Nothing"}).status_code == 404


def test_a_broken_link_is_named_before_it_is_packed(client: TestClient) -> None:
    item, doc = named(client, "The leap")
    link = next(one for one in client.get("/api/triggers").json() if one["doc"]["name"] == "Plain cord")
    doc["triggers"] = [link["doc"] | {"id": link["id"]}]
    put(client, f"/api/setups/{item}", doc, client.get(f"/api/setups/{item}").json()["revision"])
    warnings = client.get(f"/api/setups/{item}/answer").json()["answer"]["warnings"]
    says = next(one["says"] for one in warnings if one["code"] == "link_broken")
    assert says == "Plain cord passes no HSS: light 1 cannot do it."
    put(client, f"/api/triggers/{link['id']}", link["doc"] | {"passes": ["fire", "hss"]})
    after = client.get(f"/api/setups/{item}/answer").json()["answer"]["warnings"]
    assert "link_broken" not in [one["code"] for one in after]
