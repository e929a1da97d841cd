"""A shelf of one's own: from empty to an answer, typical kit, pasted specifications, the need, comparing by looking."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from jumpstop.api.app import create_app
from jumpstop.demo import fill
from jumpstop.store.documents import Store


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[TestClient]:
    with TestClient(create_app(tmp_path / "empty"), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def client(tmp_path: Path) -> Iterator[TestClient]:
    store = Store(tmp_path / "data")
    fill(store)
    store.close()
    with TestClient(create_app(tmp_path / "data"), base_url="http://127.0.0.1") as client:
        yield client


def test_an_empty_shelf_answers_with_what_the_picture_needs(empty: TestClient) -> None:
    made = empty.post("/api/setups/begin", params={"where": "shade"}).json()
    found = empty.get(f"/api/setups/{made['id']}/answer").json()
    assert found["trouble"] == ""
    assert found["answer"]["typical"]
    assert found["answer"]["verdict"].startswith("Needs GN ")
    assert "400 Ws battery head" in found["answer"]["lanes"]["name"]
    need = empty.get(f"/api/setups/{made['id']}/need").json()
    assert need["says"] == found["answer"]["verdict"]
    assert {one["method"] for one in need["methods"]} > {need["methods"][0]["method"]}
    empty.post("/api/units", json={"name": "Mine", "claims": [{"guide_number": 58, "unit": "m", "zoom_mm": 35}]})
    own = empty.get(f"/api/setups/{made['id']}/answer").json()["answer"]
    assert (own["typical"], own["lanes"]["name"]) == (False, ["Mine"])


def test_what_is_ticked_is_put_on_the_shelf_as_one_edit_and_a_picture_begins_with_it(empty: TestClient) -> None:
    sections = empty.get("/api/typical").json()
    assert [len(one["entries"]) > 3 for one in sections] == [True] * 8
    ticks = [
        {"kind": "units", "key": "zoom_shoe", "count": 2, "cells": "alkaline"},
        {"kind": "modifiers", "key": "octa_90"}, {"kind": "bodies", "key": "aps"}, {"kind": "lenses", "key": "24_70"},
        {"kind": "batteries", "key": "aa", "count": 3}, {"kind": "stands", "key": "boom"},
    ]  # fmt: skip
    done = empty.post("/api/typical/take", json={"ticks": ticks, "where": "sun"}).json()
    assert done["added"] == 8
    unit = empty.get("/api/units").json()[0]["doc"]
    assert (unit["count"], unit["typical"]) == (2, True)
    assert (unit["power_supplies"][0]["cells"], unit["power_supplies"][0]["recycle_full_s"]) == (
        "alkaline",
        3.9,
    )  # 1.4 x
    assert [one["doc"]["name"] for one in empty.get("/api/batteries").json()][1] == "Set of 4 AA NiMH, 2"
    setup = empty.get(f"/api/setups/{done['setup']}").json()["doc"]
    assert setup["body"]["name"].startswith("24 × 16 mm")
    assert setup["lens"]["name"] == "24-70 f/2.8"
    assert setup["lights"][0]["modifier"]["name"] == "Octa 90"
    assert 24 <= setup["aim"]["lens"]["focal_mm"] <= 70
    empty.post("/api/undo")
    empty.post("/api/undo")
    assert empty.get("/api/units").json() == empty.get("/api/stands").json() == []


def test_a_ticked_head_asks_what_fires_it(empty: TestClient) -> None:
    """One transmitter for all heads, a receiver for each; the first picture has them on the way to its flash."""
    units = {one["key"]: one for one in empty.get("/api/typical").json()[0]["entries"]}
    assert units["built_in"]["firing"] == []
    assert "receivers" in [one["key"] for one in units["battery_400"]["firing"]]
    ticks = [
        {"kind": "units", "key": "battery_400", "count": 2, "firing": "receivers"},
        {"kind": "units", "key": "manual_shoe", "count": 1, "firing": "receivers"},
    ]
    done = empty.post("/api/typical/take", json={"ticks": ticks, "where": "sun"}).json()
    links = [(one["doc"]["kind"], one["doc"]["name"]) for one in empty.get("/api/triggers").json()]
    assert sorted(kind for kind, _ in links) == ["receiver"] * 3 + ["transmitter"]
    assert done["added"] == 2 + 4  # a unit says itself how many there are of it
    setup = empty.get(f"/api/setups/{done['setup']}").json()["doc"]
    assert [one["kind"] for one in setup["triggers"]] == ["transmitter", "receiver"]
    wrong = empty.post("/api/typical/take", json={"ticks": [ticks[0] | {"firing": "drums"}]})
    assert (wrong.status_code, "drums" in wrong.text) == (404, True)


def test_a_template_stands_on_the_persons_own_body(empty: TestClient) -> None:
    empty.post("/api/typical/take", json={"ticks": [{"kind": "bodies", "key": "medium_leaf"}]})
    name = empty.get("/api/jobs/begin/templates").json()[0]["name"]
    job = empty.post("/api/jobs/begin", params={"name": name}).json()
    own = [one["doc"]["body"]["name"] for one in empty.get("/api/setups").json() if one["job_id"] == job["id"]]
    assert own == ["44 × 33 mm body, leaf shutter in the lens"] * len(own)
    assert own


def test_what_cannot_be_ticked_is_refused_in_a_sentence(empty: TestClient) -> None:
    for tick in ({"kind": "units", "key": "nothing"}, {"kind": "setups", "key": "octa_90"}):
        wrong = empty.post("/api/typical/take", json={"ticks": [tick]})
        assert wrong.status_code == 404
        assert wrong.json()["problems"][0]["sentence"].startswith("There is no ")


def test_a_specification_is_only_shown_until_it_is_accepted(empty: TestClient) -> None:
    text = "Plover 58\nGuide number: 58 (ISO 100, 105 mm)\nBox: grey\nWeight: 405 g"
    (shown,) = empty.post("/api/shelf/spec", json={"text": text}).json()
    assert empty.get("/api/units").json() == []
    assert (shown["doc"], shown["open"], shown["unread"]) == (None, True, ["Box: grey"])
    choices = [{"unit": 0, "row": 1, "choice": 0}, {"unit": 0, "row": 2, "left": True}]
    body = {"text": text, "choices": choices, "names": ["Mine"]}
    (decided,) = empty.post("/api/shelf/spec", json=body).json()
    assert (decided["doc"]["name"], decided["doc"]["weight_g"]) == ("Mine", None)
    assert decided["doc"]["claims"][0] | {"sd": None} == decided["doc"]["claims"][0]
    assert empty.post("/api/units", json=decided["doc"]).status_code == 201
    assert empty.post("/api/shelf/spec", json={"text": "x" * 60_001}).status_code == 422


def named(client: TestClient, kind: str, name: str) -> str:
    found: str = next(one["id"] for one in client.get(f"/api/{kind}").json() if one["doc"]["name"] == name)
    return found


def column(found: Any, key: str) -> dict[str, Any]:
    """A measure by the units' names."""
    one = next(one for one in found["columns"] if one["key"] == key)
    return dict(zip(found["names"], one["figures"], strict=True))


def test_the_shelf_at_a_glance_on_each_basis(client: TestClient) -> None:
    """D: twice the distance is two stops less; HSS at 1/1000 on a 1/250 body costs 2.32 and the unit's own extra."""
    bare = client.get("/api/shelf/glance").json()
    light, hss = column(bare, "light"), column(bare, "hss")
    extra = next(one["doc"]["hss"] for one in client.get("/api/units").json() if one["doc"]["name"] == "Gannet 600")
    assert light["Gannet 600"] - hss["Gannet 600"] == pytest.approx(2.32 + extra["extra_stops"], abs=0.01)
    octa = named(client, "modifiers", "Octa 90")
    far, near = (
        column(
            client.get("/api/shelf/glance", params={"on": "modifier", "of": octa, "distance_m": one}).json(), "light"
        )
        for one in (8, 4)
    )
    assert near["Gannet 600"] - far["Gannet 600"] == pytest.approx(2, abs=0.02)
    assert far["Wren 7"] is None  # takes no modifier
    setup = named(client, "setups", "Noon portrait")
    picture = client.get("/api/shelf/glance", params={"on": "setup", "of": setup}).json()
    lanes = client.get(f"/api/setups/{setup}/answer").json()["answer"]["lanes"]
    hand = column(picture, "light")
    for name, spare, word in zip(lanes["name"], lanes["spare"], lanes["word"], strict=True):
        assert hand[name] == (None if word == "blocked" else pytest.approx(spare, abs=0.01))
    job = client.get("/api/jobs").json()[0]["id"]
    worst = column(client.get("/api/shelf/glance", params={"on": "job", "of": job}).json(), "light")
    board = client.get(f"/api/jobs/{job}/board").json()
    for at, unit in enumerate(board["units"]):
        spares = [cell["spare"][at] for cell in board["cells"] if cell["spare"][at] is not None]
        if spares:
            assert worst[unit["name"]] == pytest.approx(min(spares), abs=0.01)
    assert client.get("/api/shelf/glance", params={"on": "modifier", "of": "gone"}).status_code == 404


def test_typical_classes_stand_behind_on_every_basis(client: TestClient, empty: TestClient) -> None:
    """A class is worth as much behind an own shelf as it is where there is none."""
    classes = {one["name"] for one in client.get("/api/typical").json()[0]["entries"]}
    setup = client.get(f"/api/setups/{named(client, 'setups', 'Noon portrait')}").json()["doc"]
    bare = setup | {"lights": [one | {"unit": None} for one in setup["lights"]]}
    there = empty.post("/api/setups", json=bare).json()["id"]
    here = client.post("/api/setups", json=bare).json()["id"]
    lanes = empty.get(f"/api/setups/{there}/answer").json()["answer"]["lanes"]
    asked = {"x": "weight", "y": "light", "on": "setup", "of": here, "classes": True}
    points = client.get("/api/shelf/map", params=asked).json()["points"]
    alone = dict(zip(lanes["name"], lanes["spare"], strict=True))
    shown = [one for one in points if one["name"] in alone]
    assert len(shown) > 5
    for one in shown:
        assert one["y"] == pytest.approx(alone[one["name"]], abs=0.01)
    job = client.get("/api/jobs").json()[0]["id"]
    worst = client.get("/api/shelf/map", params=asked | {"on": "job", "of": job}).json()["points"]
    assert worst
    assert {one["name"] for one in worst} <= classes


def test_the_map_joins_just_those_that_none_beats(client: TestClient) -> None:
    """Held against every pair, one by one."""
    for x, y in (("weight", "light"), ("price", "flashes"), ("recycle", "hss"), ("weight", "price")):
        found = client.get("/api/shelf/map", params={"x": x, "y": y}).json()
        more = {"light", "hss", "flashes", "ws"}
        signs = [1 if one in more else -1 for one in (x, y)]
        points = {one["id"]: (signs[0] * one["x"], signs[1] * one["y"]) for one in found["points"]}

        def beaten(one: str, points: dict[str, tuple[float, float]] = points) -> bool:
            a, b = points[one]
            return any(c >= a and d >= b and (c, d) != (a, b) for c, d in points.values())

        assert {one["id"] for one in found["points"] if one["best"]} == {one for one in points if not beaten(one)}
        assert set(found["line"]) == {one["id"] for one in found["points"] if one["best"]}


def test_curves_are_marked_where_the_picture_stands(client: TestClient) -> None:
    setup, unit = named(client, "setups", "Noon portrait"), named(client, "units", "Curlew 400")
    lanes = client.get(f"/api/setups/{setup}/answer").json()["answer"]["lanes"]
    place = lanes["id"].index(unit)
    query = {"unit": [unit], "setup": setup}
    for plot in client.get("/api/shelf/compare", params=query).json()["plots"]:
        mark = plot["curves"][0]["at"]
        if plot["x"] != "power":
            assert mark is None
            continue
        assert mark[0] == pytest.approx(lanes["below_full"][place], abs=0.01)
        if plot["y"] == "s":
            assert mark[1] == pytest.approx(lanes["recycle_s"][place], abs=0.02)
    rows = client.get("/api/shelf/compare.csv", params=query).text.splitlines()
    assert rows[0].endswith("Curlew 400")


def test_modifiers_against_each_other(client: TestClient) -> None:
    """Octa 90: 0.4 by itself, 1.3 as usual, 3.2 with all on (the demo's figures); 0.9 m from 1.5 m is 33 degrees."""
    found = client.get("/api/shelf/modifiers", params={"unit": named(client, "units", "Gannet 600")}).json()
    octa = next(one for one in found["rows"] if one["name"] == "Octa 90")
    assert (octa["own"], octa["usual"], octa["most"], octa["soft_words"]) == ("−0.4", "−1.3", "−3.2", "33°")
    assert octa["through"] == "GN 55 m"  # D: 87 x 2 ** (-1.3 / 2)
    usual = [one["usual_stops"] for one in found["rows"]]
    assert usual == sorted(usual, reverse=True)


def test_a_jobs_request_as_text_table_and_lines(client: TestClient) -> None:
    job = client.get("/api/jobs").json()[0]["id"]
    found = client.get(f"/api/jobs/{job}/request").json()
    text = client.get(f"/api/jobs/{job}/request.txt").text
    assert found["says"] in text
    assert all(one["says"] in text for one in found["units"])
    rows = client.get(f"/api/jobs/{job}/request.csv").text.splitlines()
    assert len(rows) == 1 + sum(len(one["figures"]) for one in found["units"])
    shelf = [one["doc"]["name"] for one in client.get("/api/units").json()]
    assert not any(name in text for name in shelf)  # figures and classes, no names
