"""The API that a picture is said to: what it understood, asks and leaves, and the setup of it; nothing is stored."""

from typing import Any

import pytest
from fastapi.testclient import TestClient


def say(client: TestClient, text: str, **more: Any) -> dict[str, Any]:
    answer = client.post("/api/say", json={"text": text} | more)
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def test_a_picture_is_said_to_the_setup_in_hand(client: TestClient) -> None:
    noon = client.get("/api/setups").json()[0]
    before = client.get("/api/setups").json()
    found = say(client, "f/4, ISO 200, 45 right", setup=noon["doc"])
    assert found["outcome"] == "refused"
    assert [one["start"] for one in found["unread"]] == [14, 17]  # of which light?
    said = say(client, "f/4, ISO 200, key 45 right", setup=noon["doc"])
    assert said["outcome"] == "said"
    assert [one["says"] for one in said["pieces"]] == [
        ["f/4"],
        ["ISO 200"],
        ["light 1: key"],
        ["light 1: 45° to the right"],
    ]
    made = said["setup"]
    assert (made["aim"]["f_number"], made["aim"]["iso"]) == (4, 200)
    assert made["lights"][0]["position"]["bearing_deg"] == 45
    assert made["lights"][0]["distance_m"] == noon["doc"]["lights"][0]["distance_m"]
    assert client.get("/api/setups").json() == before  # nothing is stored by it


def test_a_new_picture_has_the_body_and_the_bag_of_the_one_used_last(client: TestClient) -> None:
    noon = client.get("/api/setups").json()[0]
    made = say(client, "85 mm f/2.8, octa at 1.8 m 45 left", like=noon["id"])["setup"]
    assert made["body"] == noon["doc"]["body"]
    assert made["filters"] == noon["doc"]["filters"]
    assert made["name"] == "New setup"
    (light,) = made["lights"]
    assert light["modifier"]["id"]
    assert light["modifier"]["name"] == "Octa 90"
    stored = client.post("/api/setups", json=made)
    assert stored.status_code == 201, stored.text


def test_what_can_be_two_things_asks_and_takes_the_answer(client: TestClient) -> None:
    asked = say(client, "noon, umbrella at 2 m")
    assert asked["outcome"] == "ask"
    time, umbrella = asked["questions"]
    assert "needs a place and a day" in time["sentence"]
    assert any("Chalk Downs" in option for option in time["options"])
    assert len(umbrella["options"]) == 3
    answers = {str(time["start"]): 0, str(umbrella["start"]): 1}
    said = say(client, "noon, umbrella at 2 m", answers=answers)
    assert said["outcome"] == "said"
    assert said["setup"]["ambient"]["by"] == "sun"
    assert said["setup"]["lights"][0]["modifier"]["name"] == umbrella["options"][1].split("through ")[1]


def test_a_second_figure_of_the_same_asks_which_of_the_two(client: TestClient) -> None:
    twice = say(client, "f/4 to f/5.6")
    (question,) = twice["questions"]
    assert (twice["outcome"], question["options"]) == ("ask", ["f/5.6", "f/4"])
    assert question["sentence"] == "“f/5.6” is the second one that is said. Take:"
    made = say(client, "f/4 to f/5.6", answers={question["start"]: 1})
    assert (made["outcome"], made["setup"]["aim"]["f_number"]) == ("said", 4)


@pytest.mark.parametrize(
    "text", ["", "   ", "<b>", "{{7*7}}", "=cmd|' /C calc'!A0", "é🙂 \u202e", "," * 50, "45 " * 200]
)
def test_any_text_is_answered(client: TestClient, text: str) -> None:
    assert say(client, text)["outcome"] in ("said", "ask", "refused")


def test_a_figure_that_cannot_be_is_told(client: TestClient) -> None:
    found = say(client, "400 mm, subject at 30 cm")
    assert found["outcome"] == "refused"
    assert found["problems"]
    assert found["setup"] is None
    assert client.post("/api/say", json={"text": "x" * 1300}).status_code == 422
