"""The shelf at a glance: every unit on one basis, by hand; which trade off best, against comparing every pair."""

import math
from typing import Any

import numpy as np
import pytest

from jumpstop.core.kit.modifier import Modifier
from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.job.board import board_of, landings_of
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.need.glance import Measure, bare, best_of, in_picture, worst_of_job
from jumpstop.core.scene.setup import Setup

FED = {"kind": "lithium", "recycle_full_s": 2.5, "full_flashes": 300}


def shelf() -> UnitTable:
    zooms: dict[str, Any] = {"zoom_min_mm": 24, "zoom_max_mm": 105, "hss": {"extra_stops": 0.5}}
    docs: list[dict[str, Any]] = [
        {"name": "Zooms", "guide_number": 36, "weight_g": 400, "price": 210, "power_supplies": [FED], **zooms},
        {"name": "Bulb", "guide_number": 72, "kind": "monobloc", "watt_seconds": 400, "weight_g": 2900},
        {"name": "Takes none", "guide_number": 18, "takes_modifiers": False},
    ]
    return table_of(
        [
            Unit.model_validate(
                one | {"claims": [{"guide_number": one.pop("guide_number"), "unit": "m", "zoom_mm": 35}]}
            )
            for one in docs
        ]
    )


def test_bare_light_falls_off_with_the_square_and_what_a_modifier_is_not_for_is_left_out() -> None:
    """D: 2 log2 of the guide number, two stops less at twice a metre; a cloth of -1.7 with its usual layer of -0.9."""
    table = shelf()
    rated = 2 * np.log2([36.0, 72.0, 18.0])
    assert bare(table, 1 / 8000).measures["light"] == pytest.approx(rated)
    assert bare(table, 1 / 8000, distance_m=2).measures["light"] == pytest.approx(rated - 2)
    cloth: dict[str, Any] = {"name": "Cloth", "stops": -1.7, "sd": 0.3, "layers": [{"name": "inner", "stops": -0.9}]}
    through = bare(table, 1 / 8000, Modifier.model_validate(cloth), 2)
    assert through.measures["light"] == pytest.approx([rated[0] - 4.6, rated[1] - 4.6, math.nan], nan_ok=True)
    assert (through.sd > bare(table, 1 / 8000).sd).all()
    grip = bare(table, 1 / 8000, Modifier.model_validate(cloth | {"needs_zoom_head": True}))
    assert np.isnan(grip.measures["light"]).tolist() == [False, True, True]
    faced = Modifier.model_validate(cloth | {"layers": [], "kind": "softbox", "face": {"width_m": 1.5}})
    close = bare(table, 1 / 8000, faced, 0.66).measures["light"][0]
    assert close == pytest.approx(rated[0] - 1.7 - 2 * math.log2(0.66) - math.log2(1 + (0.75 / 0.66) ** 2), abs=0.01)


def test_what_hss_leaves_halves_with_the_time_and_is_unknown_without_it() -> None:
    table = shelf()
    short, shorter = (bare(table, time).measures for time in (1 / 4000, 1 / 8000))
    assert np.isnan(shorter["hss"]).tolist() == [False, True, True]
    assert short["hss"][0] - shorter["hss"][0] == pytest.approx(1, abs=0.15)
    assert short["light"][0] - short["hss"][0] > 3
    own = [bare(table, 1 / 4000).measures[name] for name in ("ws", "recycle", "flashes", "weight", "price")]
    assert [float(one[0]) for one in own[1:]] == [2.5, 300, 400, 210]
    assert math.isnan(own[0][0])
    assert own[0][1] == 400


def asked(metres: float, background: float) -> Setup:
    doc = {
        "ambient": {"condition": "distinct_shadows", "subject": "back"}, "lights": [{"distance_m": metres}],
        "aim": {"f_number": 4, "background_stops": background},
    }  # fmt: skip
    return Setup.model_validate(doc)


def test_the_light_that_asks_most_of_each_unit_counts_in_a_job() -> None:
    table = shelf()
    solved = [solve(asked(metres, background), table) for metres, background in ((1.5, -1), (4, -1), (2, 0))]
    board = board_of([landings_of(one) for one in solved], table)
    worst = worst_of_job(board).measures["light"]
    for unit in range(len(table)):
        here = [float(board.spare[row, unit]) for row in range(3) if board.verdict[row, unit] != "blocked"]
        assert worst[unit] == (pytest.approx(min(here)) if here else pytest.approx(math.nan, nan_ok=True))
    none = worst_of_job(board_of([], table)).measures["light"]
    assert np.isnan(none).all()


def test_a_picture_has_each_unit_at_its_dial() -> None:
    table = shelf()
    solved = solve(asked(2, -1), table)
    for kind in solved.kinds:
        reach, found = solved.reach(kind, 0), in_picture(solved, kind, 0).measures
        for unit in range(len(table)):
            if reach.able[unit]:
                assert found["light"][unit] == reach.spare[unit]
                assert found["recycle_dial"][unit] == pytest.approx(reach.recycle_s[unit], nan_ok=True)
            else:
                assert math.isnan(found["light"][unit])
        hss = solved.reach("hss", 0)
        expected = np.where(hss.able, hss.spare, math.nan)
        assert found["hss"] == pytest.approx(expected, nan_ok=True)


@pytest.mark.parametrize("seed", range(20))
def test_the_best_are_those_that_none_beats_in_both(seed: int) -> None:
    """Of small whole numbers, so that many are alike; what is not known is never among them."""
    dice = np.random.default_rng(seed)
    x, y = (np.where(dice.random(14) < 0.15, np.nan, dice.integers(0, 6, 14)) for _ in range(2))
    measures: list[Measure] = [str(dice.choice(["light", "weight"])), str(dice.choice(["hss", "price"]))]  # type: ignore[list-item]
    sign = [1 if one in ("light", "hss") else -1 for one in measures]
    known = [at for at in range(14) if not math.isnan(x[at] + y[at])]

    def beats(one: int, other: int) -> bool:
        more = [(sign[0] * x[one], sign[0] * x[other]), (sign[1] * y[one], sign[1] * y[other])]
        return all(a >= b for a, b in more) and any(a > b for a, b in more)

    found = best_of(x, y, measures)
    assert sorted(found) == [at for at in known if not any(beats(other, at) for other in known)]
    assert [x[at] for at in found] == sorted(x[at] for at in found)
