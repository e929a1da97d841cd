"""One job, one answer: whoever is asked, the page, coverage, day, cards and the command line, says the same."""

import json
import os
import random
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from jumpstop import service
from jumpstop.api.app import create_app
from jumpstop.cli import app as cli
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.light.advice import chosen_method
from jumpstop.core.scene.job import JobFile
from jumpstop.demo import kit
from jumpstop.words.comes_out import sentences
from jumpstop.words.figures import DisplayUnits

JOBS = int(os.environ.get("JOBS", "12"))  # `JOBS=300` tries them all
UNITS = kit()["units"]
DOWNS = {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"}
TROPICS = {"name": "Bay", "latitude": -8.5, "longitude": 115.2, "zone": "Asia/Makassar"}


@pytest.fixture
def client(tmp_path: Path) -> Iterator[TestClient]:
    with TestClient(create_app(tmp_path / "data"), base_url="http://127.0.0.1") as client:
        for unit in UNITS:
            client.post("/api/units", json=unit).raise_for_status()
        yield client


def _light(dice: random.Random, number: int) -> dict[str, Any]:
    unit = dice.choice([one for one in UNITS if one.get("takes_modifiers", True)])
    unit = {"name": unit["name"]} | unit
    if dice.random() < 0.3:  # a unit that is no longer on the shelf: its copy counts
        unit = unit | {"name": f"Gone {dice.randrange(2)}", "id": f"gone-{dice.randrange(2)}", "weight_g": 400 + number}
    light = {
        "role": ("key", "fill", "rim")[number], "unit": unit, "distance_m": dice.choice([1.0, 1.7, 2.5, 4.0]),
        "target_stops": dice.choice([0.0, -1.0]) if number else 0.0, "heads": dice.choice([1, 1, 2]),
    }  # fmt: skip
    if dice.random() < 0.2:
        light |= {"dial_stops": dice.choice([0.0, 1.0, 2.5]), "distance_free": dice.random() < 0.5}
    return light


def _setup(dice: random.Random, number: int) -> dict[str, Any]:
    ambient: dict[str, Any] = {"condition": dice.choice(["distinct_shadows", "hazy_sun", "office", "dark"])}
    if dice.random() < 0.6:
        ambient = {
            "by": "sun", "place": dice.choice([DOWNS, TROPICS]), "day": "2026-06-24",
            "clock": f"{dice.randrange(8, 20):02}:30", "sky": dice.choice(["clear", "overcast"]),
            "subject": dice.choice(["sun", "back", "shade"]),
        }  # fmt: skip
    setup: dict[str, Any] = {
        "name": f"S{number}", "ambient": ambient, "meter_c": dice.choice([250.0, 330.0]),
        "aim": {"f_number": dice.choice([2.8, 5.6, 8.0]), "background_stops": dice.choice([-2.0, -1.0, 0.0])},
        "lights": [_light(dice, at) for at in range(dice.randrange(1, 4))],
    }  # fmt: skip
    if dice.random() < 0.3:
        setup["method"] = dice.choice(["sync", "hss"])
    return setup


def job(seed: int) -> dict[str, Any]:
    dice = random.Random(seed)
    setups = [{"id": f"s{at}", "setup": _setup(dice, at)} for at in range(dice.randrange(1, 4))]
    brief = {"wind_m_s": dice.choice([None, 9.0])}
    return {
        "format": "jumpstop-job", "version": 1, "setups": setups,
        "job": {"name": "J", "day": dice.choice([None, "2026-12-21"]), "brief": brief},
    }  # fmt: skip


def camera_of(solved: Any, kind: Any) -> tuple[float, ...]:
    camera = solved.method(kind).camera
    return (camera.f_number, camera.shutter_s, camera.iso, camera.nd_stops)


@pytest.mark.parametrize("seed", range(JOBS))
def test_all_who_are_asked_of_a_job_give_one_answer(client: TestClient, seed: int) -> None:
    """Camera, method, dial and stops in hand of every light; what the page says is asked of the running program."""
    made = job(seed)
    file, shelf = JobFile.model_validate(made), Shelf([Unit.model_validate(one) for one in UNITS])
    whole = service.solve_job(file, shelf)
    board = service.coverage(file, shelf)
    paper = {one.id: one.solved for one in service.shot_setups(file, shelf)}
    turns = {turn.session.setup: turn for turn in service.day(file, shelf, ways=False).turns}
    item = client.post("/api/jobs/import", json=made).json()
    kept = {one["doc"]["name"]: one["id"] for one in client.get("/api/setups").json() if one["job_id"] == item["id"]}
    for at, (one, solved) in enumerate(zip(file.setups, whole, strict=True)):
        assert solved.setup.ambient.day == (
            file.job.day if file.job.day and one.setup.ambient.by == "sun" else one.setup.ambient.day
        )
        if not solved.kinds:
            assert one.id not in paper
            continue
        kind, there = chosen_method(solved), paper[one.id]
        assert chosen_method(there) == kind
        assert camera_of(there, kind) == camera_of(solved, kind)
        for light in range(len(one.setup.lights)):
            unit, other = solved.taken[light], there.taken[light]
            assert unit is not None
            assert other is not None
            reach, beside = solved.reach(kind, light), there.reach(kind, light)
            assert (beside.spare[other], beside.below_full[other]) == (reach.spare[unit], reach.below_full[unit])
            row = next(
                n for n, c in enumerate(board.columns) if c.setup == at and board.landings[at].lights[c.light] == light
            )
            way = board.landings[at].kinds[board.kind[row, unit]]
            assert board.spare[row, unit] == solved.reach(way, light).spare[unit]
            said = client.get(f"/api/setups/{kept[one.setup.name]}/answer", params={"light": light}).json()["answer"]
            lane = said["lanes"]["id"].index(said["unit"])
            assert said["lanes"]["spare"][lane] == pytest.approx(
                float(solved.reach(said["chosen"], light).spare[unit]), abs=0.01
            )
            if said["chosen"] == kind:
                if one.setup.ambient.by != "sun":
                    assert said["fails"] == sentences(turns[one.id].stretches[0].failing, DisplayUnits())
                settings = said["settings"]
                found = (settings["f_number"], settings["shutter_s"], settings["iso"], settings["nd_stops"])
                assert found == pytest.approx(camera_of(solved, kind), rel=1e-3)
        if one.setup.ambient.by != "sun":  # those are looked at anew as the hours pass
            for stretch in turns[one.id].stretches:
                assert stretch.kind == kind
                assert camera_of(stretch.solved, kind) == camera_of(solved, kind)
                for work in stretch.work:
                    assert work.below_full == solved.reach(kind, work.light).below_full[solved.taken[work.light]]


def test_a_june_setup_in_a_december_job_is_of_december_wherever_one_asks(client: TestClient, tmp_path: Path) -> None:
    """In December the sun at noon is 15.6 degrees high at 51 north, in June 62.4: 1.6 EV and more between them."""
    sun = {"by": "sun", "place": DOWNS, "day": "2026-06-24", "clock": "12:00", "subject": "back"}
    made = {
        "format": "jumpstop-job", "version": 1, "job": {"name": "J", "day": "2026-12-21"},
        "setups": [{"id": "s", "setup": {"name": "S", "ambient": sun, "lights": [{"distance_m": 2}]}}],
    }  # fmt: skip
    item = client.post("/api/jobs/import", json=made).json()
    setup = next(one for one in client.get("/api/setups").json() if one["job_id"] == item["id"])
    assert setup["doc"]["ambient"]["day"] == "2026-06-24"  # what was written stays as it is
    whole = client.get(f"/api/setups/{setup['id']}/answer").json()
    answer = whole["answer"]
    assert not whole["trouble"]
    alone = client.post("/api/solve", json={"setup": made["setups"][0]["setup"]}).json()  # type: ignore[index]
    low, high = answer["ambient"]["background_ev"], alone["ambient"]["background_ev"]
    assert high - low > 1.5
    course = client.get(f"/api/setups/{setup['id']}/day").json()
    assert "21 Dec" in json.dumps(course) or max(course["ground_ev"]) < high
    (tmp_path / "job.json").write_text(json.dumps(made))
    spoken = CliRunner().invoke(cli, ["board", str(tmp_path / "job.json")])
    cells = json.loads(spoken.stdout)["cells"][0]["spare"]
    assert cells == client.get(f"/api/jobs/{item['id']}/board").json()["cells"][0]["spare"]
    lanes = dict(zip(answer["lanes"]["name"], answer["lanes"]["spare"], strict=True))
    assert any(spare in cells for spare in lanes.values())
    etag = {"if-match": f'"{item["revision"]}"'}
    undated = item["doc"] | {"day": None}
    client.put(f"/api/jobs/{item['id']}", json=undated, headers=etag).raise_for_status()
    now = client.get(f"/api/setups/{setup['id']}/answer").json()["answer"]["ambient"]
    assert now["background_ev"] == high  # the job has no day any more: the setup's own counts


def test_what_falls_into_an_hour_that_the_clocks_skip_is_answered_and_said(client: TestClient) -> None:
    """On 29 March 2026 London's clocks go from 00:59 to 02:00."""
    sun = {"by": "sun", "place": DOWNS | {"longitude": 1.0}, "day": "2026-06-24", "clock": "01:30"}
    made = {
        "format": "jumpstop-job", "version": 1,
        "setups": [{"id": "s", "setup": {"name": "S", "ambient": sun, "lights": [{"distance_m": 2}]}}],
        "job": {"name": "J", "day": "2026-03-29", "begins": "00:30", "sessions": [{"setup": "s", "start": "01:10"}]},
    }  # fmt: skip
    item = client.post("/api/jobs/import", json=made).json()
    for view in ("day", "day.ics", "board", "pack", "cards.html", "channels", "export.json"):
        assert client.get(f"/api/jobs/{item['id']}/{view}").status_code == 200, view
    setup = next(one for one in client.get("/api/setups").json() if one["job_id"] == item["id"])
    how = client.get(f"/api/setups/{setup['id']}/answer").json()["answer"]["ambient"]["how"]
    assert "On the job's day, 29 Mar 2026." in how
    assert "never show 01:30: 02:00 is taken" in how


@pytest.mark.parametrize("seed", range(JOBS))
def test_who_stands_where_by_which_method_is_one_answer_with_a_kit_that_is_picked(
    client: TestClient, seed: int
) -> None:
    """Nobody is named at the lights, a part of the shelf goes along, and a method or two is not liked: the day, the
    set, the channel sheet, the cards, the burst and the page have the same units at the same dials."""
    dice = random.Random(1000 + seed)
    places = [_setup(dice, at) for at in range(3)]
    for one in places:
        one["ambient"] = {"condition": dice.choice(["distinct_shadows", "hazy_sun", "office", "dark"])}
        one["lights"] = [light | {"unit": None, "heads": 1} for light in one["lights"]]
    along = dice.sample([one["name"] for one in UNITS], dice.choice([1, 2, 4]))
    ids = {one["doc"]["name"]: one["id"] for one in client.get("/api/units").json()}
    made = {
        "format": "jumpstop-job", "version": 1,
        "setups": [{"id": f"s{at}", "setup": one} for at, one in enumerate(places)],
        "job": {
            "name": "J", "picked": [{"unit": ids[name], "name": name, "count": 2} for name in along],
            "sessions": [{"setup": f"s{at}", "frames_each": 10} for at in range(3)],
        },
    }  # fmt: skip
    own = client.get("/api/preferences").json()
    avoid = dice.sample(["nd", "hss", "stop_down", "sync"], dice.choice([0, 1, 2]))
    client.put("/api/preferences", json=own | {"avoid": avoid}).raise_for_status()
    item = client.post("/api/jobs/import", json=made).raise_for_status().json()["id"]
    sheets = {one["setup"]: one for one in client.get(f"/api/jobs/{item}/channels").json()}
    cards = client.get(f"/api/jobs/{item}/cards.html").text
    for turn in client.get(f"/api/jobs/{item}/day").json()["turns"]:
        if not turn["stretches"]:
            continue
        day = turn["stretches"][0]
        there = client.get(f"/api/log/set/{item}/{turn['setup']}").json()
        assert (there["method"], there["settings"]) == (day["method"], day["settings"])
        stand = [(light["light"], light["unit"], light["dial"]) for light in there["lights"] if light["dial"]]
        assert [f"{unit} at {dial}" for _, unit, dial in stand] == [one.partition(",")[0] for one in day["units"]]
        wires = [(one["light"], one["unit"], one["power"]) for one in sheets[turn["setup"]]["wires"]]
        assert [one for one in wires if one[1] != "no unit"] == stand
        for light, unit, dial in stand:
            assert unit in along
            page = client.get(f"/api/setups/{turn['setup']}/answer", params={"light": light}).json()["answer"]
            kit, by = page["from_kit"], {one["kind"]: one["title"] for one in page["methods"]}[page["chosen"]]
            if kit is None:
                assert page["verdict"].startswith("No flash is needed")
                continue
            assert (kit["unit"], kit["says"].startswith(f"The job's kit: {unit} ")) == (ids[unit], True)
            assert kit["says"].endswith(f" {there['method']}: {there['settings']}.") == (by != there["method"])
            shown = client.get(f"/api/jobs/{item}/burst", params={"setup": turn["setup"], "light": light}).json()
            assert shown["unit"] == unit
            assert not shown["rows"] or dial in {row["dial"] for row in shown["rows"]}
            assert f"{unit}" in cards
