"""The chain as a whole: solved setups, verdicts, and the sentences for what cannot be."""

import ast
from pathlib import Path

import numpy as np
import pytest
from pydantic import ValidationError

import jumpstop
from jumpstop.core.camera import Body, Filter
from jumpstop.core.flash import Claim, Hss, Unit
from jumpstop.core.light import There
from jumpstop.core.reach import Reach, solve
from jumpstop.core.setup import Light, Look, Setup
from jumpstop.core.stops import spare
from jumpstop.core.table import table_of
from jumpstop.core.wording import Manner
from jumpstop.formats.answer import answer_of

FEET = Unit(name="Feet", claims=(Claim(guide_number=280, unit="ft", iso=200, zoom_mm=200),), zoom_max_mm=200)
METRES = Unit(name="Metres", claims=(Claim(guide_number=33, unit="m", zoom_mm=35),), hss=Hss(extra_stops=0.5))


def one(setup: Setup, kind: str, *units: Unit) -> Reach:
    return solve(setup, table_of(units)).reaches[kind]  # type: ignore[index]


def sunny(**look: object) -> Setup:
    return Setup(look=Look.model_validate({"f_number": 8, "background_stops": 0} | look), there=There(subject="shade"))


def test_distinct_sun_at_f8_is_a_500th() -> None:
    """P: ANSI PH2.7, EV 15 in distinct shadows: f/8, 1/500, ISO 100."""
    assert one(sunny(), "hss", METRES).way.camera.shutter_s == pytest.approx(1 / 500)
    with_nd = sunny(f_number=2.8).model_copy(update={"filters": (Filter(name="ND", stops=4),)})
    camera = one(with_nd, "nd", METRES).way.camera
    assert (camera.shutter_s, camera.nd_stops) == (1 / 250, 4)


def test_the_big_number_was_only_a_number() -> None:
    """280 ft at ISO 200 and 200 mm, against 33 m at 35 mm: the same spot within the stated uncertainty."""
    reach = one(sunny(), "hss", FEET, METRES)
    assert abs(reach.spare[0] - reach.spare[1]) < reach.sd[0]
    assert reach.sd[0] > reach.sd[1]


def test_the_chain_sums_to_the_spare_and_heads_add_a_stop() -> None:
    setup = sunny()
    single = one(setup, "hss", METRES)
    assert spare(single.chain) == pytest.approx(single.spare)
    pair = setup.model_copy(update={"lights": (Light(heads=2),)})
    assert one(pair, "hss", METRES).spare - single.spare == pytest.approx(1.0)


def test_hss_costs_geometry_and_the_units_own_extra() -> None:
    reach = one(sunny(f_number=5.6), "hss", METRES)  # 1/1000 on a 1/250 body
    jump = next(jump for jump in reach.chain if jump.key == "hss")
    assert jump.stops == pytest.approx(-2.32 - 0.5, abs=0.006)


def test_verdict_and_dial() -> None:
    setup = Setup(there=There(condition="dark"), look=Look(f_number=2.8), lights=(Light(distance_m=3.0),))
    answer = answer_of(setup, solve(setup, table := table_of([METRES])), table, ["u"], Manner())
    lane = answer.lanes[0]
    assert lane.word == "reaches"
    assert lane.dial == "1/16"  # 33 / 2.83 / 3 is 3.92 stops; the ambient is far too dark to help
    close = setup.model_copy(update={"lights": (Light(distance_m=0.3),)})
    assert answer_of(close, solve(close, table), table, ["u"], Manner()).lanes[0].word == "too_bright"


def test_an_ask_that_none_meets_names_the_nearest_and_by_how_much() -> None:
    far = sunny().model_copy(update={"lights": (Light(distance_m=40),)})
    table = table_of([METRES, FEET])
    answer = answer_of(far, solve(far, table), table, ["a", "b"], Manner())
    assert answer.headline.startswith("No unit on this shelf reaches. The nearest, Metres, is ")
    assert all(lane.word != "reaches" for lane in answer.lanes)


def test_ways_that_cannot_be_say_why() -> None:
    reasons = {way.kind: way.reason for way in solve(sunny(f_number=2.8), table_of([METRES])).ways}
    assert "too bright at 1/250 s" in reasons["sync"]
    assert "No filter packed" in reasons["nd"]
    assert "focal-plane" in reasons["leaf"]
    with pytest.raises(ValueError, match="The shelf is empty"):
        solve(sunny(), table_of([]))


def test_five_thousand_units_are_solved_at_once() -> None:
    units = [METRES.model_copy(update={"name": f"Unit {i}"}) for i in range(5000)]
    assert np.ptp(one(sunny(), "hss", *units).spare) == pytest.approx(0)


@pytest.mark.parametrize(
    "change",
    [
        {"lights": [{"distance_m": 0}]}, {"lights": [{"distance_m": -2}]}, {"lights": [{"distance_m": float("nan")}]},
        {"look": {"iso": 1e9}}, {"look": {"f_number": 0}}, {"lights": []}, {"there": {"condition": "gloom"}},
        {"frames": 0}, {"body": {"name": "X", "sync_s": 1 / 8000, "top_speed_s": 1 / 250}},
    ],
)  # fmt: skip
def test_silly_setups_are_refused(change: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        Setup.model_validate(change)


def test_a_unit_without_light_is_refused_and_a_leaf_body_syncs_fast() -> None:
    with pytest.raises(ValidationError, match="needs a guide number or an energy"):
        Unit(name="Nothing")
    leaf = sunny().model_copy(update={"body": Body(name="L", shutter="leaf", sync_s=1 / 2000, top_speed_s=1 / 2000)})
    assert one(leaf, "leaf", METRES).way.possible


def test_imports_run_one_way() -> None:
    """core <- formats, store <- api <- cli; the core knows nobody and no framework."""
    root = Path(jumpstop.__file__ or "").parent
    allowed = {
        "core": {"core"}, "formats": {"core", "formats"}, "store": {"store"},
        "demo": {"core", "formats", "store", "demo"},
        "api": {"core", "formats", "store", "api"},
    }  # fmt: skip
    for room, rooms in allowed.items():
        for file in (root / room).rglob("*.py"):
            depth = len(file.relative_to(root).parts)
            for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
                if isinstance(node, ast.ImportFrom) and node.level == depth and node.module:
                    assert node.module.split(".")[0] in rooms, f"{file}: {node.module}"
                names = [a.name for a in node.names] if isinstance(node, ast.Import) else []
                names += [node.module] if isinstance(node, ast.ImportFrom) and not node.level and node.module else []
                if room == "core":
                    assert not {n.split(".")[0] for n in names} & {"fastapi", "sqlalchemy", "typer", "os", "time"}
