"""Tones on the subject: each clips log2(1 / reflectance) over correct; what mirrors shows the light itself."""

import math
from typing import Any

import pytest

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.light.advice import units_for
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.stage.comes_out import fails
from jumpstop.core.plan.stage.surfaces import rendered, seen_share, skin_clips
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup

UNIT = Unit(name="U", claims=(Claim(guide_number=60, unit="m", zoom_mm=35, sd=0.0),))
SOFT = {"name": "Soft", "kind": "softbox", "face": {"shape": "rectangle", "width_m": 0.6, "height_m": 0.9}}


def of(dial: float, **stage: Any) -> tuple[float, list[tuple[str, float, float]], set[str]]:
    """(lit side [stops over correct], each tone with by how much it clips and its sRGB value, what fails)."""
    light = {"distance_m": 2, "unit": UNIT.model_dump(), "dial_stops": dial}
    doc = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8, "background_stops": -8}, "lights": [light]}
    solved = solve(Setup.model_validate(doc | {"stage": stage}), table_of([UNIT]))
    units = units_for(solved, "sync")
    found = levels(solved, "sync", units)
    lit = next(level.total for level in found if level.receiver == "lit")
    told = [(one.tone.name, one.over, one.value) for one in rendered(solved.setup, found)]
    return lit, told, {one.code for one in fails(solved, "sync", units, found)}


def test_a_tone_clips_by_its_own_reflectance() -> None:
    """D, physics 11: grey .18 clips 2.47 over correct, white .9 .15 over, black cloth .04 4.64."""
    tones = [{"name": name, "reflectance": share} for name, share in (("grey", 0.18), ("dress", 0.9), ("suit", 0.04))]
    for dial in (4.0, 3.5, 3.0):
        lit, told, failing = of(dial, tones=tones)
        over = {name: clips for name, clips, _ in told}
        assert over["grey"] == pytest.approx(lit - 2.474, abs=0.001)
        assert over["dress"] == pytest.approx(lit - 0.152, abs=0.001)
        assert over["suit"] == pytest.approx(lit - 4.644, abs=0.001)
        assert ("tone_white" in failing) == (lit - 0.152 > 0.34)
        grey = next(value for name, _, value in told if name == "grey")
        assert grey == pytest.approx(min(1.0, 1.055 * (0.18 * 2**lit) ** (1 / 2.4) - 0.055), abs=0.001)  # IEC 61966-2-1
    assert {dial: "tone_white" in of(dial, tones=tones)[2] for dial in (4.0, 3.0)} == {4.0: False, 3.0: True}


def test_skin_clips_by_its_own_tone() -> None:
    """D: light skin .36 +1.47, dark skin .10 +3.3."""
    stage = Setup().stage
    assert skin_clips(stage) == pytest.approx(1.47, abs=0.005)
    assert skin_clips(stage.model_copy(update={"skin": 0.10})) == pytest.approx(3.32, abs=0.005)


def test_chrome_shows_the_light_itself() -> None:
    """D, Lambert: a disc of half-angle a lights with pi L sin^2 a, and white returns that over pi: a mirror is
    1 / sin^2 a as bright. A disc of 1 m at 1 m: sin^2 = .25 / 1.25 = .2; 0.6 x 0.9 m as a disc of the same area."""
    disc = Light.model_validate(
        {"distance_m": 1, "modifier": {"name": "D", "kind": "octa", "face": {"shape": "disc", "width_m": 1}}}
    )
    assert seen_share(disc) == pytest.approx(0.2)
    box = Light.model_validate({"distance_m": 1.5, "modifier": SOFT})
    assert seen_share(box) == pytest.approx(0.54 / math.pi / (0.54 / math.pi + 2.25))
    ceiling = Light.model_validate({"distance_m": 2, "modifier": {"name": "Ceiling", "kind": "bounce"}})
    assert seen_share(ceiling) == pytest.approx(0.2)  # a patch 2 m across, from memory
    lit, told, failing = of(3.0, tones=[{"name": "Chrome", "reflectance": 0.6, "mirrors": True}])
    bare = 0.03**2 / (0.03**2 + 4)
    assert told[0][1] == pytest.approx(lit + math.log2(0.6 / bare), abs=1e-6)
    assert told[0][2] == pytest.approx(1)
    assert "tone_white" not in failing  # it is told, and is no fault of the light
