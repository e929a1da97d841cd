"""The API on the stage: warnings where they can happen, the order of work, find a stop, and what cannot be."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from asked import named, put


def stored(client: TestClient, name: str, **changed: Any) -> str:
    """A demo setup with some of it changed; `light` changes the first light, `stage` and `aim` are merged."""
    item, doc = named(client, name)
    doc["lights"][0] |= changed.pop("light", {})
    for part, figures in changed.items():
        doc[part] = doc[part] | figures if isinstance(figures, dict) else figures
    assert put(client, f"/api/setups/{item}", doc, revision(client, item)).status_code == 200
    return item


def revision(client: TestClient, item: str) -> int:
    return int(client.get(f"/api/setups/{item}").json()["revision"])


def codes(client: TestClient, item: str) -> dict[str, str]:
    return {one["code"]: one["says"] for one in client.get(f"/api/setups/{item}/answer").json()["answer"]["warnings"]}


LENS = {"focal_mm": 50, "subject_m": 3, "background_m": 8}


@pytest.mark.parametrize(
    ("name", "changed", "code", "says"),
    [
        ("Noon portrait", {"light": {"position": {"bearing_deg": 170, "height_m": 1.6}}}, "light_in_frame", "Light 1"),
        ("Noon portrait", {"light": {"position": {"bearing_deg": 2, "height_m": 1.62}}}, "red_eye",
        "2.0° from the lens: raise"),
        ("Noon portrait", {"light": {"distance_m": 0.5}}, "near_eyes", "baby"),
        ("Noon portrait", {"light": {"pops": 8}}, "repeating", "three a second"),
        ("Noon portrait", {"trigger": "optical"}, "optical", "shade its sensor"),
        ("At the bench", {"trigger": "optical"}, "optical", "see the master"),
        ("Noon portrait", {"stage": {"wind_m_s": 8}, "light": {"position": {"height_m": 2.4}}}, "wind", "kg"),
        ("Noon portrait", {"light": {"position": {"height_m": 2.4, "boom_m": 1.5}}}, "boom", "nobody under it"),
        ("Noon portrait", {"ambient": {"subject": "panel"}, "aim": {"lens": LENS | {"focal_mm": 24}}}, "panel_in_frame",
        "2.4 m"),
        ("Hare in dune grass", {}, "wildlife", "nests"),
        ("Hare in dune grass", {}, "aim", "0.42 m"),
        ("The leap", {"stage": {"camera_looks_deg": 54}}, "sun_elsewhere", "before the subject, not behind"),
        ("Team of 22", {"stage": {"camera_looks_deg": 198}}, "sun_elsewhere", "behind the subject, not before"),
        ("Team of 22", {"light": {"distance_m": 4}}, "group_uncovered", "74°"),
        ("Team of 22", {"light": {"distance_m": 4}}, "ends_fall", "5.88 m"),
        ("Team of 22", {"stage": {"depth_m": 2}, "light": {"distance_m": 4}}, "depth_falls", "16.3 m"),
        ("Chalk line", {"stage": {"width_m": 1.2}}, "flat_falls", "1.47 m"),
        ("At the bench", {"light": {"role": "rim", "target_stops": 0, "position": {"bearing_deg": 95}}}, "edge_on_nose",
        "Light".lower()),
        ("At the bench", {"light": {"role": "rim", "target_stops": 2, "position": {"bearing_deg": 150}}}, "edge_clips",
        "turn it down"),
        ("Noon portrait", {"stage": {"favoured": "right", "facing_deg": 35}}, "favoured_hidden",
        "hides its right side"),
        ("Noon portrait", {"stage": {"favoured": "left", "facing_deg": -35}}, "favoured_hidden", "hides its left side"),
        ("Team of 22", {"stage": {"favoured": "right"}, "light": {"position": {"bearing_deg": -40}}}, "favoured_far",
        "at the right"),
        ("At the bench", {"light": {"zoom_mm": 200, "modifier": None, "position": {"bearing_deg": 10}}},
        "beam_in_frame", "zoom wider"),
    ],
)  # fmt: skip
def test_what_goes_wrong_is_said_where_it_can_happen(
    client: TestClient, name: str, changed: dict[str, Any], code: str, says: str
) -> None:
    assert says in codes(client, stored(client, name, **changed))[code]


def test_a_stand_throws_its_shadow_into_the_frame_or_not(client: TestClient) -> None:
    """D: a stand 2 m beside the camera's axis; sun from the right throws its shadow in, from behind not."""
    sun = client.get(f"/api/setups/{named(client, 'The leap')[0]}/answer").json()["answer"]["ambient"]["how"]
    assert "Sun" in sun
    bearing = int(sun.split("bearing ")[1].split("°")[0])
    place = {"bearing_deg": 40, "height_m": 2.2}
    aim = {"lens": {"focal_mm": 50, "subject_m": 6, "background_m": 200}, "orientation": "grip_up"}
    stage = {"camera_height_m": 1.0, "camera_looks_deg": (bearing - 90) % 360}
    shown = stored(client, "The leap", stage=stage, light={"position": place}, aim=aim)
    assert "sun's own side" in codes(client, shown)["shadow_in_frame"]  # the sun at the right throws it to the left
    found = client.get(f"/api/setups/{shown}/answer").json()["answer"]["stage"]
    assert found["sun_bearing_deg"] == pytest.approx(90, abs=1)
    assert found["lights"][0]["shadow_in_frame"]
    behind = stage | {"camera_looks_deg": (bearing + 180) % 360}
    side = stored(client, "The leap", stage=behind, light={"position": place}, aim=aim)
    assert not codes(client, side).keys() & {"shadow_in_frame", "light_in_frame"}  # the sun behind the camera


def test_channels_and_groups(client: TestClient) -> None:
    """A light on another channel does not fire; lights of one group cannot be set apart."""
    item, doc = named(client, "At the bench")
    for at, (channel, group) in enumerate([(1, "A"), (2, "A"), (1, "A")]):
        doc["lights"][at] |= {"channel": channel, "group": group, "dial_stops": float(at)}
    put(client, f"/api/setups/{item}", doc, revision(client, item))
    found = codes(client, item)
    assert "Light 2 is on channel 2, not 1" in found["other_channel"]
    assert "Light 3 shares group A with light 1" in found["one_group"]
    for light in doc["lights"]:
        light |= {"channel": 1, "dial_stops": None}
    for at, group in enumerate("ABC"):
        doc["lights"][at]["group"] = group
    put(client, f"/api/setups/{item}", doc, revision(client, item))
    assert not {"other_channel", "one_group"} & codes(client, item).keys()


def test_a_head_parts_from_its_pack_on_a_boom(client: TestClient) -> None:
    """D: 3 kg on a 1.5 m arm asks 9 kg at half a metre; the pack stays on the floor."""
    pack = {"name": "Parted", "kind": "pack", "watt_seconds": 1000, "weight_g": 9000, "head_g": 3000}
    found = client.post("/api/units", json=pack)
    assert found.status_code == 201
    own = pack | {"id": found.json()["id"]}
    boom = {"unit": own, "modifier": None, "layers": None, "position": {"height_m": 2.4, "boom_m": 1.5}}
    item = stored(client, "Noon portrait", light=boom)
    assert "needs 9.0 kg" in codes(client, item)["boom"]


def test_find_a_stop_for_the_whole_set(client: TestClient) -> None:
    item, _ = named(client, "At the bench")
    found = client.get(f"/api/setups/{item}/levers", params={"whole": True}).json()
    assert found["name"].startswith("Whole set, least in hand at light")
    every = [*found["gains"], *found["better"], *found["pairs"]]
    assert every
    own = next(one for one in every if one["says"].startswith("light "))
    at = int(own["says"].split(":")[0].removeprefix("light ")) - 1
    changed = [
        one != two
        for one, two in zip(
            own["setup"]["lights"], client.get(f"/api/setups/{item}").json()["doc"]["lights"], strict=True
        )
    ]
    assert [place for place, differs in enumerate(changed) if differs] == [at]


def test_calm_places_are_not_warned_of(client: TestClient) -> None:
    calm = codes(client, stored(client, "Noon portrait"))
    assert not calm.keys() & {
        "light_in_frame",
        "red_eye",
        "near_eyes",
        "repeating",
        "optical",
        "wind",
        "boom",
        "wildlife",
    }


def test_the_order_of_work_by_either_school(client: TestClient) -> None:
    """f/5.6 behind no filter: a rim at +0.5 alone wants f/6.8; with three stops of ND on the lens three stops more."""
    item = stored(client, "At the bench", method="sync")
    back = client.get(f"/api/setups/{item}/steps").json()
    assert [one["on"] for one in back] == [
        [False, False, False], [False, True, False], [False, True, True], [True, True, True],
    ]  # fmt: skip
    assert back[0]["does"].startswith("Flash off: set f/5.6")
    assert "edge: f/5.6 and 5 tenths at ISO 100" in back[1]["meter"]
    key = client.get(f"/api/setups/{item}/steps", params={"first": "key"}).json()
    assert "light 1, key" in key[1]["does"]
    assert key[-1]["frame"] == back[-1]["frame"]
    noon = client.get(f"/api/setups/{named(client, 'Noon portrait')[0]}/steps").json()
    assert "lit side: f/11 and 8 tenths" in noon[1]["meter"]  # f/2.8 and five stops of ND: f/16, less 0.2 of ambient
    assert client.get("/api/setups/none/steps").status_code == 404


def test_find_a_stop_tells_what_is_enough_first(client: TestClient) -> None:
    item, doc = named(client, "Noon portrait")
    own = next(one for one in client.get("/api/units").json() if one["doc"]["name"] == "Redshank 60")
    doc["lights"][0]["unit"] = own["doc"] | {"id": own["id"]}
    assert put(client, f"/api/setups/{item}", doc).status_code == 200
    found = client.get(f"/api/setups/{item}/levers").json()
    assert found["name"] == "Redshank 60"
    assert found["now"] == "short by 0.6 stop"
    first = found["gains"][0]
    assert (first["says"], first["gain"], first["enough"]) == ("inner diffuser off", 0.9, True)
    assert found["alone"]
    assert all(" and " in one["says"] for one in found["pairs"])
    assert put(client, f"/api/setups/{item}", first["setup"], 2).status_code == 200
    after = client.get(f"/api/setups/{item}/answer").json()["answer"]
    place = after["lanes"]["id"].index(own["id"])
    assert after["lanes"]["spare"][place] == pytest.approx(-0.582 + 0.9, abs=0.002)
    quick = client.get(f"/api/setups/{item}/levers", params={"keep": "quick"}).json()
    assert "soonest" in quick["rule"]
    assert client.get(f"/api/setups/{item}/levers", params={"keep": "cheap"}).status_code == 422


def test_a_light_switched_off_is_said_to_be(client: TestClient) -> None:
    item = stored(client, "At the bench", light={"on": False})
    answer = client.get(f"/api/setups/{item}/answer").json()["answer"]
    assert answer["note"] == "Light 1 is off: the picture is without it."
    assert all(level["lights"][0] is None for level in answer["levels"])
    assert answer["stage"]["lights"][0]["rings"] == []


def test_a_short_and_a_broad_side(client: TestClient) -> None:
    item = stored(client, "At the bench", stage={"facing_deg": 30}, light={"position": {"bearing_deg": 60}})
    assert (
        "key on the short side" in client.get(f"/api/setups/{item}/answer").json()["answer"]["stage"]["frame"]["says"]
    )
    item = stored(client, "At the bench", stage={"facing_deg": 30}, light={"position": {"bearing_deg": 5}})
    assert (
        "key on the broad side" in client.get(f"/api/setups/{item}/answer").json()["answer"]["stage"]["frame"]["says"]
    )
