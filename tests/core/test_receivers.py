"""Receivers: an open list. A new one is its entry, its name, and a check like these."""

from typing import Any

import pytest

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.light.levels import Level, levels
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.scene.receivers import RECEIVERS, Point, Receiver, receivers_of
from jumpstop.core.scene.setup import Setup
from jumpstop.words.answer import Answer, answer_of
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.kit import RECEIVER_NAMES

STRONG = Unit(name="Strong", claims=(Claim(guide_number=120, unit="m", zoom_mm=35, sd=0.0),))


def told(light: dict[str, Any]) -> tuple[dict[str, Level], Answer]:
    """A subject in the shade (12) before a field in the sun (15), with one light upon it: by receiver, and in words."""
    setup = Setup.model_validate(
        {
            "ambient": {"condition": "distinct_shadows", "subject": "shade"},
            "lights": [{"role": "key", "distance_m": 2, "target_stops": 0} | light],
        }
    )
    solved: Solved = solve(setup, table_of([STRONG]))
    return {one.receiver: one for one in levels(solved, "stop_down", (0,))}, answer_of(solved, DisplayUnits())


def test_every_receiver_has_a_name_and_an_order() -> None:
    assert list(RECEIVERS) == list(RECEIVER_NAMES)
    one, group = (receivers_of(Setup.model_validate({"stage": {"kind": kind}})) for kind in ("person", "group"))
    assert list(group) == list(RECEIVERS)
    assert list(one) == ["lit", "shadow", "background", "edge"]


@pytest.mark.parametrize("placed", [True, False])
def test_a_new_receiver_is_told_with_all_the_others(monkeypatch: pytest.MonkeyPatch, placed: bool) -> None:
    """Hands held out half way to a light in front: one stop of distance twice, and the ambient of the background."""
    entry = Receiver(
        lambda setup: Point(0.0, -1.0, setup.stage.face_m),
        "background",
        frozenset({"lit"}),
        lambda of: of.lit / 2,
        seldom=True,
    )
    monkeypatch.setitem(RECEIVERS, "hands", entry)
    monkeypatch.setitem(RECEIVER_NAMES, "hands", "hands")
    face_m = Setup().stage.face_m
    found, answer = told({"position": {"bearing_deg": 0, "height_m": face_m}} if placed else {"side": "lit"})
    closer = found["hands"].lights[0] - found["lit"].lights[0]
    assert closer == pytest.approx(2 - 1 if placed else 2)  # half of it where the bearing is known
    assert found["hands"].ambient == found["background"].ambient == pytest.approx(found["lit"].ambient + 3)
    texts = {one.receiver: one.says for one in answer.levels}
    assert texts["hands"].startswith("hands ")
    assert answer.stage is not None
    assert "hands" in {one.receiver for one in answer.stage.frame.tones}
    assert "hands" not in answer.stage.frame.says  # as all that are seldom told


@pytest.mark.parametrize(("side", "reached"), [("none", False), ("both", False), ("lit", True)])
def test_a_light_without_a_place_reaches_what_its_side_says(
    monkeypatch: pytest.MonkeyPatch, side: str, reached: bool
) -> None:
    entry = Receiver(lambda setup: Point(1.0, 0.0, 1.0), "lit", frozenset({"lit"}), lambda of: 1.0, seldom=True)
    monkeypatch.setitem(RECEIVERS, "elbow", entry)
    monkeypatch.setitem(RECEIVER_NAMES, "elbow", "elbow")
    _, answer = told({"side": side, "distance_m": 2.5})
    assert ("elbow" in {one.receiver for one in answer.levels}) is reached
