"""The API with a unit in hand: what was seen, changes, the ladder and its file, a unit by a reading, a start."""

import csv
import io
from copy import deepcopy
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from asked import named, put, sentence


def with_unit(client: TestClient, name: str, unit: str, **light: Any) -> str:
    """A demo setup whose first light has a unit."""
    item, doc = named(client, name)
    own = next(one for one in client.get("/api/units").json() if one["doc"]["name"] == unit)
    doc["lights"][0] |= {"unit": own["doc"] | {"id": own["id"]}} | light
    assert put(client, f"/api/setups/{item}", doc).status_code == 200
    return item


def test_a_unit_that_left_the_shelf_stands_on_other_setups_cards_too(client: TestClient) -> None:
    with_unit(client, "Noon portrait", "Redshank 60")
    ids = [one["id"] for one in client.get("/api/units").json()]
    assert client.delete("/api/units", params={"item_id": ids}).status_code < 300
    (job,) = client.get("/api/jobs").json()
    page = client.get(f"/api/jobs/{job['id']}/cards.html")
    assert page.status_code == 200
    assert page.text.count("Redshank 60") > 2


def answer(client: TestClient, item: str) -> Any:
    return client.get(f"/api/setups/{item}/answer").json()["answer"]


def test_the_answer_speaks_of_the_unit_taken(client: TestClient) -> None:
    item = with_unit(client, "Noon portrait", "Redshank 60")
    found = answer(client, item)
    assert found["taken"]
    assert found["compared"] == "Redshank 60"
    assert found["verdict"].startswith("Redshank 60 at full power through Octa 90 at 1.8 m: short by ")
    assert found["cures"]
    assert found["settings"]["dials"][0] == {"stops": 0, "says": "1/1"}
    assert found["settings"]["dials"][-1]["says"] == "1/256"
    assert answer(client, named(client, "The leap")[0])["settings"]["dials"] == []  # none taken there


def test_cures_come_with_the_setup_done(client: TestClient) -> None:
    item = with_unit(client, "Noon portrait", "Redshank 60")
    cure = client.get(f"/api/setups/{item}/in-hand").json()["cures"][0]
    assert cure["says"] == "inner diffuser off"
    assert cure["gain"] == pytest.approx(0.9, abs=0.01)  # what the demo's diffuser takes
    found = client.get(f"/api/setups/{item}/levers").json()["gains"]
    assert (cure["says"], cure["gain"], cure["then"]) in [(one["says"], one["gain"], one["then"]) for one in found]
    assert put(client, f"/api/setups/{item}", cure["setup"], 2).status_code == 200
    assert "short" not in answer(client, item)["verdict"]


def test_a_reading_is_kept_and_gives_the_next_dial(client: TestClient) -> None:
    item = with_unit(client, "Chalk line", "Gannet 600")
    blank = client.get(f"/api/setups/{item}/in-hand").json()["blank"]
    doc = named(client, "Chalk line")[1]
    doc["seen"] = [blank | {"id": "one", "kind": "meter", "f_number": 8, "dial_stops": 7}]
    assert put(client, f"/api/setups/{item}", doc, 2).status_code == 200
    found = client.get(f"/api/setups/{item}/in-hand").json()
    assert found["next"] == {"says": "Next: 1/64 (1.00 stop more flash).", "dial_stops": pytest.approx(6)}
    assert found["seen"][0]["says"] == "meter read f/8 at ISO 400, at 1/128, 0.9 m, ambient included"
    assert "set f/8" in found["aperture"]
    doc["seen"][0]["was"]["unit"] = "nonsense"
    assert put(client, f"/api/setups/{item}", doc, 3).status_code == 422


def test_the_ladder_is_the_same_as_a_file(client: TestClient) -> None:
    item = with_unit(client, "Noon portrait", "Curlew 400")
    table = client.get(f"/api/setups/{item}/ladder").json()
    assert table["unit"] == "Curlew 400"
    assert table["settings"] == "f/2.8 · 1/250 s · ISO 100 · ND 5 stops (ND32, 1.5)"
    assert table["columns"] == ["as it stands", "without inner diffuser"]
    sent = client.get(f"/api/setups/{item}/ladder.csv")
    assert sent.headers["content-type"].startswith("text/csv")
    head, *rows = csv.reader(io.StringIO(sent.text.lstrip("﻿")))
    assert head == ["distance", *table["columns"]]
    assert rows == [[rung["distance"], *rung["dials"]] for rung in table["rungs"]]
    settings = client.get("/api/preferences").json() | {"length": "ft"}
    client.put("/api/preferences", json=settings)
    assert client.get(f"/api/setups/{item}/ladder").json()["rungs"][0]["distance"].endswith(" ft")


def test_a_unit_by_one_reading(client: TestClient) -> None:
    """Bare at 2 m, full power, f/8: guide number 16 (GN = N x distance)."""
    made = client.post("/api/units/from-reading", json={"name": "Stint", "light": {"distance_m": 2}, "f_number": 8})
    assert made.status_code == 201
    assert made.json()["doc"]["claims"][0]["guide_number"] == pytest.approx(16, rel=0.01)
    assert made.json()["doc"]["claims"][0]["measured"]
    refused = client.post("/api/units/from-reading", json={"name": "Stint", "power": 2})
    assert sentence(refused).startswith("Power must be at most 1")


def test_a_unit_by_a_frame_its_range_or_beside_another(client: TestClient) -> None:
    """D: a grey card at f/8, 3 m comes out right: GN 24, a stop over: 33.9. "f/5.6 to 6 m": GN 33.6. "Same as a GN 60
    at half": GN 42.4; where it was itself at a quarter: 84.9."""

    def number(**asked: Any) -> float:
        made = client.post("/api/units/from-reading", json={"name": "Stint"} | asked)
        assert made.status_code == 201, made.text
        found: float = made.json()["doc"]["claims"][0]["guide_number"]
        return found

    card = {"by": "frame", "f_number": 8, "light": {"distance_m": 3}}
    assert number(**card) == pytest.approx(24, rel=0.01)
    assert number(**card, stops=1) == pytest.approx(24 * 2**0.5, rel=0.01)
    assert number(by="range", f_number=5.6, light={"distance_m": 6}) == pytest.approx(5.657 * 6, rel=0.01)
    like = {"name": "Known", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35, "measured": True}]}
    assert number(by="unit", like=like, stops=-1) == pytest.approx(42.4, rel=0.01)
    assert number(by="unit", like=like, stops=-1, power=0.25) == pytest.approx(84.9, rel=0.01)
    refused = client.post("/api/units/from-reading", json={"name": "Stint", "by": "unit"})
    assert sentence(refused) == "Say which unit Stint is held against."


@pytest.mark.parametrize(("where", "ev"), [("sun", 15), ("shade", 15), ("indoors", 8), ("dark", -3)])
def test_a_setup_begins_where_one_is_with_the_body_used_last(client: TestClient, where: str, ev: float) -> None:
    """The light-value table (ANSI PH2.7): sun EV 15, an office EV 8; nothing at all where it is dark."""
    like, doc = named(client, "44 headshots")
    made = client.post(f"/api/setups/begin?where={where}&like={like}")
    assert made.status_code == 201
    assert made.json()["doc"]["body"]["name"] == doc["body"]["name"]
    found = answer(client, made.json()["id"])
    assert found["ambient"]["background_ev"] == pytest.approx(ev, abs=0.5)
    assert client.post("/api/setups/begin?where=moon").status_code == 422
    assert client.post("/api/setups/begin?like=gone").status_code == 404


def test_a_taken_unit_survives_export_of_version_two(client: TestClient, tmp_path: Path) -> None:
    """What is fixed, taken and seen is part of the document and comes back as it was sent."""
    item = with_unit(client, "The leap", "Gannet 600", dial_stops=2.0, distance_free=True)
    doc = client.get(f"/api/setups/{item}").json()["doc"]
    doc["fixed"] = {"aperture": True, "iso": True, "background": False, "shutter_s": 0.001, "nd": None}
    assert put(client, f"/api/setups/{item}", doc, 2).status_code == 200
    again = client.get(f"/api/setups/{item}").json()["doc"]
    assert again["fixed"] == doc["fixed"]
    assert again["lights"][0]["dial_stops"] == 2
    assert again["version"] == 2
    assert answer(client, item)["settings"]["distance_m"] != doc["lights"][0]["distance_m"]  # worked out


def test_an_edit_can_ask_for_the_lanes_in_sight_alone(client: TestClient) -> None:
    """They are told as in the whole answer, with the unit in hand beside them; an id that is not there is left out."""
    item = client.get("/api/setups").json()[0]
    whole = client.get(f"/api/setups/{item['id']}/answer").json()["answer"]
    ids = whole["lanes"]["id"][2:4]
    answer = client.put(
        f"/api/setups/{item['id']}",
        params={"sight": [*ids, "gone"]},
        json=item["doc"],
        headers={"If-Match": f'"{item["revision"]}"'},
    ).json()["answer"]
    places = [i for i, one in enumerate(whole["lanes"]["id"]) if one in (*ids, whole["unit"])]
    for column, values in whole["lanes"].items():
        assert answer["lanes"][column] == [values[i] for i in places], column
    for part, all_of in zip(answer["arcs"], whole["arcs"], strict=True):
        sizes = all_of["stops"]
        assert part["stops"] == (sizes if len(sizes) == 1 else [sizes[i] for i in places])
    assert answer["verdict"] == whole["verdict"]


def test_what_is_foreseen_is_what_the_edit_then_comes_to_and_nothing_is_stored_by_it(client: TestClient) -> None:
    """Of setups in their job, each with another distance, aperture, hour and light looked at."""
    changes: tuple[dict[str, Any], ...] = (
        {"lights": {"distance_m": 2.37}}, {"aim": {"f_number": 6.3}}, {"ambient": {"clock": "18:40:00"}},
    )  # fmt: skip
    differing = 0
    for stored in client.get("/api/setups").json():
        item, light = stored["id"], {"light": len(stored["doc"]["lights"]) - 1}
        for change in changes:
            before = client.get(f"/api/setups/{item}/answer").json()
            doc, if_match = deepcopy(before["setup"]), {"If-Match": f'"{before["revision"]}"'}
            for part, figures in change.items():
                (doc[part][light["light"]] if part == "lights" else doc[part]).update(figures)
            told = client.post(f"/api/setups/{item}/foreseen", params=light, json=doc).json()
            assert client.get(f"/api/setups/{item}/answer").json() == before
            sent = client.put(f"/api/setups/{item}", params=light, json=doc, headers=if_match).json()
            assert sent == told | {"revision": told["revision"] + 1}
            differing += sent["answer"] != before["answer"]
    assert differing > 20
    assert client.post("/api/setups/none/foreseen", json=doc).status_code == 404
    doc["lights"][0]["distance_m"] = 0
    assert "istance" in sentence(client.post(f"/api/setups/{item}/foreseen", json=doc))
