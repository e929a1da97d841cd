"""Right means that the picture comes out: against an independent look at levels, shutter, group ends and freezing."""

import math
import os
from typing import Any

from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.light import advice
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.plan.stage import comes_out
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit
from jumpstop.words.answer import Answer, answer_of
from jumpstop.words.figures import DisplayUnits
from scenes import BODY, setup_of

SETUPS = int(os.environ.get("SETUPS", "100"))  # `SETUPS=400` tries them all
UNITS = [Unit.model_validate(doc) for doc in kit()["units"]]
SHELF = Shelf(UNITS).table


def looked_at(setup: Setup, solved: Solved, answer: Answer) -> bool:
    """Whether all that the picture asks comes out, worked out here from what falls where, and how long it lasts."""
    kind = answer.chosen
    units, method = advice.units_for(solved, kind), solved.method(kind)
    total = {level.receiver: level.total for level in levels(solved, kind, units)}
    first = [light.role for light in setup.lights].index("key")
    key, aim = setup.lights[first], setup.aim
    assert aim.lens is not None
    side = solved.placing.receivers[solved.reach(kind, first).receiver]
    ok = abs(total[side] - key.target_stops) <= comes_out.FACE_STOPS
    for at, light in enumerate(setup.lights):
        reach, unit = solved.reach(kind, at), units[at]
        assert unit is not None
        off = float(reach.left[unit])  # flash alone, against what is wanted of it
        if light.dial_stops is not None and at != first:
            ok &= abs(off) <= comes_out.LIGHT_STOPS
        ok &= str(reach.verdict[unit]) in ("reaches", "on_the_line") or light.dial_stops is not None
    dark_room = method.kind == "freeze" and solved.ambient.lit_ev - method.camera.ev <= -5
    back = total["background"] - aim.background_stops
    ok &= abs(back) <= comes_out.RIGHT_BACKGROUND_STOPS or (dark_room and back < 0)
    if kind == "past_sync":  # the slit lights t / T of the frame, from the bottom up: the top is dark
        lit = min(1.0, 2 ** (round(3 * math.log2(method.camera.shutter_s)) / 3) / BODY["travel_s"])  # type: ignore[operator]
        top_of_head = 0.5 - aim.lens.focal_mm * (setup.stage.height_m - 1.5) / aim.lens.subject_m / 24
        ok &= 1 - lit - max(0.0, top_of_head) <= 0.01
    if setup.motion.kind == "freeze":
        ok &= frozen(setup, solved, kind, units)
    if setup.stage.kind == "group":
        ok &= abs(min(total["left"], total["right"]) - total["lit"]) <= comes_out.ENDS_STOPS
        ok &= abs(total["far"] - total["lit"]) <= comes_out.ENDS_STOPS
    across = math.degrees(2 * math.atan(setup.stage.width_m / 2 / key.distance_m))
    beam = math.degrees(2 * math.atan(18 / 35))  # bare heads, zoomed to 35 mm: what that lens sees across
    if setup.stage.kind == "group":
        ok &= beam >= across
    ok &= total.get("edge", -math.inf) <= -math.log2(0.36) + comes_out.EDGE_STOPS  # light skin reflects .36
    told = setup.lights[0]  # the verdict is of it
    return ok and (str(solved.reach(kind, 0).verdict[units[0]]) == "reaches" or told.dial_stops is not None)


def frozen(setup: Setup, solved: Solved, kind: Any, units: tuple[int | None, ...]) -> bool:
    """Blur on the sensor: speed x time x frame / field, against the circle of confusion (diagonal / 1442 x 43.3)."""
    speed, tolerable = setup.motion.speed, math.hypot(36, 24) / 1442
    method = solved.method(kind)
    open_s = 2 ** (round(3 * math.log2(method.camera.shutter_s)) / 3)
    if kind == "hss":
        return speed * open_s * 36 / 2.0 <= tolerable * 1.1
    if solved.ambient.lit_ev - method.camera.ev > -5:
        return False  # the ambient draws
    lasting = [float(solved.reach(kind, at).t01_s[unit]) for at, unit in enumerate(units) if unit is not None]
    return all(speed * t01 * 36 / 2.0 <= tolerable * 1.12 for t01 in lasting)


def answered(setup: Setup) -> tuple[Solved, Answer]:
    solved = solve(setup, SHELF)
    return solved, answer_of(solved, DisplayUnits())


def test_right_is_said_exactly_where_the_picture_comes_out() -> None:
    right = wrong = 0
    for seed in range(SETUPS):
        setup = setup_of(seed)
        solved, answer = answered(setup)
        if not solved.method(answer.chosen).possible:
            continue
        expected = looked_at(setup, solved, answer)
        assert answer.right == expected, (seed, answer.verdict, answer.fails)
        assert (": right" in answer.verdict or "is right" in answer.verdict) >= answer.right, (seed, answer.verdict)
        right, wrong = right + answer.right, wrong + (not answer.right)
    print(f"{right} of {right + wrong} right")
    assert right >= (right + wrong) / 4, (right, wrong)


def fails_of(doc: dict[str, Any], kind: Any, units: tuple[int | None, ...]) -> dict[str, dict[str, Any]]:
    solved = solve(Setup.model_validate(doc), SHELF)
    found = comes_out.fails(solved, kind, units, levels(solved, kind, units))
    return {one.code: dict(one.facts) for one in found}


def test_a_key_has_to_cover_what_the_lens_sees_or_the_subject_where_that_is_less_wide() -> None:
    """D, thin lens: 24 mm at 2 m see 36 / 24 x 2 = 3 m across; a beam zoomed to 105 mm is 2 atan(18 / 105)."""
    plover = [one.name for one in UNITS].index("Plover 58")
    for wide, covered in ((4.0, 3.0), (2.0, 2.0)):
        doc = {
            "ambient": {"condition": "dark"}, "stage": {"width_m": wide}, "lights": [{"distance_m": 1, "zoom_mm": 105}],
            "aim": {"f_number": 4, "lens": {"focal_mm": 24, "subject_m": 2, "background_m": 9}},
        }  # fmt: skip
        said = fails_of(doc, "sync", (plover,))["uncovered"]
        assert said["across"] == math.degrees(2 * math.atan(covered / 2))
        assert abs(said["beam"] - math.degrees(2 * math.atan(18 / 105))) < 0.1


def test_a_light_that_is_off_draws_nothing() -> None:
    plover, skua = ([one.name for one in UNITS].index(name) for name in ("Plover 58", "Skua 1200 pack"))
    lights: list[dict[str, Any]] = [
        {"distance_m": 2, "dial_stops": 6},
        {"role": "fill", "distance_m": 2, "dial_stops": 0},
    ]
    doc = {"ambient": {"condition": "dark"}, "motion": {"kind": "freeze", "mover": "runner"}, "aim": {"f_number": 4}}
    assert "not_frozen" in fails_of(doc | {"lights": lights}, "sync", (plover, skua))
    lights[1]["on"] = False
    assert "not_frozen" not in fails_of(doc | {"lights": lights}, "sync", (plover, skua))
