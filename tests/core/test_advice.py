"""Which method is advised, what each comes to for one and the same unit, and the warnings that can come true."""

import numpy as np
import pytest

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.physics.pulse import cut_pulse, tail_pulse
from jumpstop.core.plan.camera.freeze import settings_for
from jumpstop.core.plan.camera.timing import of_unit
from jumpstop.core.plan.light.advice import (
    advised_method,
    costs_for,
    lightest_that_reaches,
    missed_by,
    preferred,
    serves,
    stillness,
)
from jumpstop.core.plan.light.reach import Solved, solve
from jumpstop.core.plan.stage.warnings import warnings_of
from jumpstop.core.scene.light import USUAL_TARGETS
from jumpstop.core.scene.setup import Setup
from scenes import NAMES, TABLE

BODY = {"name": "A body", "dark_edge": "bottom"}


def unit(guide: float, weight: float | None = None, **more: object) -> Unit:
    return Unit(
        name=f"GN {guide}", claims=(Claim(guide_number=guide, unit="m", zoom_mm=35),), weight_g=weight,
        hss=more.pop("hss", Hss()), **more,
    )  # fmt: skip


STRONG = unit(90)
SHORT = FlashDuration(table=tuple(DurationEntry(power=2**-k, seconds=2**-k / 500) for k in range(8)))


def solved(*units: Unit, **change: object) -> Solved:
    of = Setup.model_validate(
        {"ambient": {"subject": "shade"}, "aim": {"f_number": 8, "background_stops": 0}, "body": BODY} | change
    )
    return solve(of, table_of(units or (STRONG,)))


def aim(f_number: float, under: float = 0, **more: object) -> dict[str, object]:
    return {"f_number": f_number, "background_stops": under} | more


ND5 = [{"name": "ND 5", "stops": 5}]
LEAP = {"kind": "freeze", "mover": "leap", "field_width_m": 4}  # 1/1050 s freezes it
WALL = {"focal_mm": 24, "subject_m": 6, "background_m": 7.5}


def codes(of: Solved, kind: str, unit: int | None = 0) -> set[str]:
    return {warning.code for warning in warnings_of(of, kind, unit, 0)}  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("change", "advised"),
    [
        ({"aim": aim(16)}, "sync"),
        ({"aim": aim(2.8, -1), "filters": ND5}, "nd"),
        ({"aim": aim(2.8, -1)}, "hss"),
        ({"aim": aim(2.8, -1, lens=WALL)}, "stop_down"),  # the wide aperture buys no blur
        ({"aim": aim(2.8, -1), "body": BODY | {"hss": False}}, "stop_down"),
        (
            {"aim": aim(8), "body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 2000, "top_speed_s": 1 / 2000}},
            "leaf",
        ),
        ({"ambient": {"condition": "interior_night"}, "aim": aim(4, -1, iso=100)}, "slow"),  # sync would be far darker
        ({"motion": {"kind": "trails", "trail_s": 0.5}, "ambient": {"condition": "office"}, "aim": aim(8)}, "slow"),
        ({"motion": LEAP, "aim": aim(5.6)}, "hss"),  # 1/1000 of shutter freezes it; at sync it would ghost
        ({"motion": LEAP, "ambient": {"condition": "dark"}}, "freeze"),
    ],
)
def test_the_method_that_gives_up_least(change: dict[str, object], advised: str) -> None:
    assert advised_method(solved(unit(50, flash_duration=SHORT), **change)) == advised


def test_a_method_where_a_unit_reaches_comes_before_one_where_none_does() -> None:
    """ND at f/2.8 takes what a unit without HSS lacks: where only stopping down or HSS reaches, that is advised."""
    no_hss = unit(30, hss=None)
    weak = solved(no_hss, unit(400, hss=Hss()), aim=aim(2.8, -1), lights=[{"distance_m": 8}])
    assert advised_method(weak) == "hss"
    far = solved(unit(10), aim=aim(2.8, -1), filters=ND5, lights=[{"distance_m": 40}])
    spare = {kind: far.reach(kind).spare[0] for kind in far.kinds}
    assert advised_method(far) == max(spare, key=lambda kind: spare[kind])  # none reaches: the one that comes nearest
    assert advised_method(solved(unit(10), aim=aim(2.8, -1), lights=[{"distance_m": 40}])) == "stop_down"


def test_the_first_light_is_asked_where_none_is_said() -> None:
    """The key wants what only HSS of a stronger unit has; the fill beside it has enough in any method."""
    two = [{"distance_m": 8}, {"role": "fill", "target_stops": -6, "distance_m": 1}]
    both = solved(unit(30, hss=None), unit(400, hss=Hss()), aim=aim(2.8, -1), lights=two)
    assert advised_method(both) == advised_method(both, light=0) == "hss"
    assert advised_method(both, light=1) != "hss"


def test_the_unit_taken_is_asked_and_no_other() -> None:
    """8 m and f/2.8 at noon want HSS, which the strong one has; the weak one taken has none, and stops down instead."""
    weak, strong = unit(30, hss=None), unit(400)
    light = {"distance_m": 8, "unit": weak.model_dump() | {"id": None}}
    assert advised_method(solved(weak, strong, aim=aim(2.8, -1), lights=[light])) == "stop_down"
    assert advised_method(solved(weak, strong, aim=aim(2.8, -1), lights=[light | {"unit": None}])) == "hss"


def test_a_hater_of_filters_is_heard() -> None:
    found = solved(aim=aim(2.8, -1), filters=ND5)
    assert advised_method(found) == "nd"
    assert advised_method(found, ("nd",)) == "hss"
    assert advised_method(found, ("nd", "hss")) == "stop_down"
    assert advised_method(found, found.kinds) == "nd"  # all disliked: then as if none were


@pytest.mark.parametrize(
    ("step", "least", "most"), [(1 / 2, 2.5, 5.0), (1 / 10, 2.4, 5.0), (1 / 3, 8 / 3, 5.0), (1.0, 3.0, 5.0)]
)
def test_what_freezes_is_a_setting_of_the_units_own_dial(step: float, least: float, most: float) -> None:
    """D: a pulse half as long for every stop down lasts 1/1056 s at 2.4 stops: the next setting of each dial."""
    table = [{"power": 2.0**-at, "seconds": 1 / 200 / 2**at} for at in range(6)]
    unit = Unit.model_validate(
        {
            "name": "U", "watt_seconds": 100, "flash_duration": {"table": table},
            "scale": {"lowest": 1 / 32, "step_stops": step},
        }
    )  # fmt: skip
    found = settings_for(table_of([unit]), 1 / 200 / 2**2.4 / 1.02)
    assert (found.least[0], found.most[0], found.can[0]) == (pytest.approx(least), pytest.approx(most), True)


def test_what_freezes_and_how_much_blur_is_left() -> None:
    """D: 31.5 mm/s on the sensor: the slit of 1/1024 s leaves 0.031 mm, 0.063 at 1/512; at sync the ambient draws."""
    sun = solved(motion=LEAP, aim=aim(5.6))
    hss, sync = (stillness(sun, sun.method(kind)) for kind in ("hss", "freeze"))
    assert hss is not None
    assert sync is not None
    assert (hss.by, hss.blur_mm, hss.frozen) == ("shutter", pytest.approx(31.5 / 1024), True)
    assert (sync.by, sync.blur_mm, sync.frozen) == ("nothing", pytest.approx(31.5 / 256), False)
    slower = solved(motion=LEAP)
    half = stillness(slower, slower.method("hss"))
    assert half is not None
    assert (half.blur_mm, half.frozen) == (pytest.approx(31.5 / 512), False)
    dark = solved(motion=LEAP, ambient={"condition": "dark"})
    still = stillness(dark, dark.method("freeze"))
    plain = stillness(dark, dark.method("sync"))
    assert still is not None
    assert plain is not None
    assert (still.by, still.frozen, plain.frozen) == ("flash", True, False)
    assert stillness(solved(), solved().method("hss")) is None
    assert serves(solved(), solved().method("hss"))


def test_where_nothing_freezes_the_least_blur_is_advised() -> None:
    """1/500 in HSS leaves half the blur of 1/250 at sync, the ambient drawing: never one that fails its purpose."""
    found = solved(STRONG.model_copy(update={"flash_duration": SHORT}), motion=LEAP)
    assert not any(serves(found, found.method(kind)) for kind in found.kinds)
    assert advised_method(found) == "hss"
    assert advised_method(solved(unit(90, hss=None, flash_duration=SHORT), motion=LEAP)) == "past_sync"  # as short


def test_where_two_methods_freeze_the_blur_left_says_no_more() -> None:
    """D: 4.5 mm/s on the sensor; at f/22 the subject lies 5.7 under at 1/400, so flash and slit both freeze it."""
    slow = {"kind": "freeze", "mover": "other", "speed_m_s": 0.5, "field_width_m": 4}
    found = solved(unit(90, flash_duration=SHORT), motion=slow, aim=aim(22, -3), body=BODY | {"sync_s": 1 / 400})
    assert [serves(found, found.method(kind)) for kind in ("hss", "freeze")] == [True, True]
    assert advised_method(found) == "freeze"


def test_the_order_of_preference() -> None:
    assert preferred(solved())[0] == "sync"
    assert preferred(solved(motion=LEAP))[0] == "freeze"
    assert preferred(solved(aim=aim(2.8, lens=WALL)))[:2] == ("sync", "stop_down")


def test_the_unit_that_methods_are_compared_by() -> None:
    """The lightest that reaches; of equal weights the stronger; else the nearest; none where none can be used."""
    dark = {"ambient": {"condition": "dark"}}
    found = solved(unit(8.2, 100), unit(40, 500), unit(30, 400), unit(50, 400), unit(60), **dark)
    assert lightest_that_reaches(found.reach("sync")) == 3
    assert lightest_that_reaches(solved(unit(1), unit(3), unit(2), **dark).reach("sync")) == 1
    bare = [unit(40, takes_modifiers=False)]
    assert lightest_that_reaches(solved(*bare, **dark, lights=[{"heads": 2}]).reach("sync")) is None
    bright = solved(unit(1900, 10), unit(40, 500), **dark)
    assert bright.reach("sync").verdict.tolist() == ["too_bright", "reaches"]
    assert lightest_that_reaches(bright.reach("sync")) == 1  # too bright at its lowest does not reach


def test_methods_are_compared_for_one_unit_and_against_each_other() -> None:
    """D: at 1/1000 HSS costs log2 5 + 0.5 = 2.82, two stops of ND 2.0: ND ahead by 0.82 for the same unit."""
    two = [{"name": "ND", "stops": 2}]
    found = solved(
        STRONG, unit(300), aim=aim(5.6), filters=two, ambient={"condition": "distinct_shadows", "subject": "back"}
    )
    costs = costs_for(found, 0, 0)
    assert costs["nd"].difference == pytest.approx(0, abs=0.001)
    assert costs["hss"].best == "nd"
    assert costs["hss"].difference == pytest.approx(-0.82, abs=0.05)
    assert costs["hss"].charge_times == pytest.approx(2**0.82, rel=0.04)
    assert costs["stop_down"].difference == pytest.approx(0, abs=0.05)
    metered = {kind: cost.metered for kind, cost in costs.items()}
    assert metered["hss"] == "no_meter"
    assert metered["nd"] == metered["stop_down"] == "flash_meter"
    assert costs["hss"].evenness_stops == pytest.approx(0.4 * 4 / 5, abs=0.02)  # M: the train's droop over the travel
    sharp = solved(unit(60, flash_duration=SHORT), motion=LEAP, aim=aim(5.6))
    assert costs_for(sharp, 0, 0)["freeze"].difference is None  # its background is far too bright: another picture
    assert costs_for(sharp, 0, 0)["hss"].best != "freeze"
    night = solved(unit(90, flash_duration=SHORT), motion=LEAP, ambient={"condition": "dark"})
    assert costs_for(night, 0, 0)["freeze"].difference is not None  # there the dark is what freezing asks
    past = solved(aim=aim(8))
    assert costs_for(past, 0, 0)["past_sync"].metered == "lit_side"
    none = costs_for(solved(unit(40, hss=None), aim=aim(5.6)), 0, 0)
    assert none["hss"].difference is None
    assert none["hss"].charge_times == 1


def test_hss_left_on_is_warned_of_only_where_it_can_happen_and_matters() -> None:
    """D: hazy sun at f/11 is 1/125, where HSS on a 1/250 body costs log2 1.5 + 0.5 = 1.08 stops."""
    base = {"ambient": {"condition": "hazy_sun"}, "aim": aim(11)}
    spare = solved(unit(20), **base).reach("sync").spare[0]
    just = unit(20 * 2 ** ((1.2 - spare) / 2))
    assert "hss_left_on" in codes(solved(just, **base), "sync")
    found = next(w for w in warnings_of(solved(just, **base), "sync", 0, 0) if w.code == "hss_left_on")
    assert found.facts["loss"] == pytest.approx(1.085, abs=0.01)
    ample = unit(20 * 2 ** ((4 - spare) / 2))
    assert "hss_left_on" not in codes(solved(ample, **base), "sync")
    assert "hss_left_on" not in codes(solved(just.model_copy(update={"hss": None}), **base), "sync")
    assert "hss_left_on" not in codes(solved(just, **base, body=BODY | {"hss": False}), "sync")
    assert "hss_left_on" not in codes(solved(just, **base), "sync", None)
    frozen = solved(STRONG.model_copy(update={"flash_duration": SHORT}), motion=LEAP, ambient={"condition": "dark"})
    assert "hss_left_on" in codes(frozen, "freeze")  # the pulse must be short
    assert "hss_left_on" not in codes(solved(), "past_sync")
    itself = just.model_copy(update={"hss": Hss(by_itself=True)})  # nothing to be left on, or to be armed
    assert "hss_left_on" not in codes(solved(itself, **base), "sync")
    past = codes(solved(itself), "hss", 0)
    assert "hss_by_itself" in past
    assert "hss_not_armed" not in past


@pytest.mark.parametrize(
    ("change", "method", "code"),
    [
        ({"motion": LEAP}, "freeze", "ghost"),
        ({"aim": aim(2.8, 0, lens=WALL)}, "hss", "no_blur"),
        ({}, "hss", "hss_not_armed"),
        ({"aim": aim(8, -1)}, "hss", "auto_iso"),
        ({"body": BODY | {"radio_sync_s": 1 / 160}}, "hss", "radio_sync"),
        ({"body": BODY | {"silent_sync_s": 1 / 50}, "silent": True}, "hss", "silent_sync"),
        ({"aim": aim(8, 0, iso=25)}, "hss", "iso_out_of_range"),
        ({"aim": aim(8, 0, iso=800), "body": BODY | {"iso_max": 400}}, "hss", "iso_out_of_range"),
        ({"aim": aim(2.8, -1), "filters": ND5}, "nd", "dark_finder"),
        ({"aim": aim(2, -1), "filters": [{"name": "ND 6", "stops": 6}]}, "nd", "dark_finder"),
        ({"ambient": {"condition": "office"}, "aim": aim(4, iso=1600)}, "sync", "mixed_colour"),
        ({"ambient": {"condition": "hazy_sun", "lamps_lux": 500}, "aim": aim(16)}, "sync", "mixed_colour"),
    ],
)
def test_a_warning_and_its_absence(change: dict[str, object], method: str, code: str) -> None:
    assert code in codes(solved(**change), method)
    assert code not in codes(solved(aim=aim(16)), "sync")


def test_figures_in_warnings() -> None:
    """D: 3200 K lies +131 mired from flash at 5500 K; and what cures a warning takes it away."""
    office = {"ambient": {"condition": "office"}, "aim": aim(4, iso=1600)}
    lamps = next(w for w in warnings_of(solved(**office), "sync", 0, 0) if w.code == "mixed_colour")
    assert lamps.facts["mired"] == pytest.approx(131, abs=0.5)
    assert "mixed_colour" not in codes(solved(**office, lights=[{"gel": "full_orange"}]), "sync")
    off = {"ambient": {"condition": "office", "lamps_on": False}, "aim": aim(4, iso=1600)}
    assert "mixed_colour" not in codes(solved(**off), "sync")
    assert "radio_sync" not in codes(solved(body=BODY | {"radio_sync_s": 1 / 160}, trigger="shoe"), "hss")
    assert "no_blur" not in codes(solved(aim=aim(2.8, 0, lens=WALL), motion=LEAP), "hss")
    ghost = next(w for w in warnings_of(solved(motion=LEAP), "freeze", 0, 0) if w.code == "ghost")
    assert ghost.facts["level"] == pytest.approx(-2, abs=0.01)  # shade at EV 12 against f/8, 1/250: EV 14


def test_a_unit_that_is_left_to_its_tail_is_slower_than_one_that_cuts_it_off() -> None:
    """D: of one t.1, all of a pulse that is cut off is over by it; a tail gives a tenth of its peak still."""
    tailed, cut = (SHORT.model_copy(update={"shape": shape}) for shape in ("tail", "cut"))
    found = solved(*(STRONG.model_copy(update={"flash_duration": one}) for one in (tailed, cut)))
    pulses = [of_unit(found.setup, found.method("sync"), found.table, unit, 1 / 1000).burn for unit in (0, 1)]
    assert pulses == [tail_pulse(1 / 1000), cut_pulse(1 / 1000, max(1 / 1000, float(found.table.t01_s[1, 0])))]


def test_everything_is_finite_for_a_shelf_of_thousands() -> None:
    found = solved(*[unit(20 + i % 80, i) for i in range(3000)], aim=aim(2.8, -1), filters=ND5)
    assert np.isfinite(found.spare).all()
    assert found.spare.shape == (len(found.kinds), 1, 3000)


def test_the_edges_of_warnings() -> None:
    assert "iso_out_of_range" not in codes(
        solved(aim=aim(8, 0, iso=400), body=BODY | {"iso_min": 400, "iso_max": 400}), "hss"
    )
    four = [{"name": "ND 4", "stops": 4}]
    assert "dark_finder" not in codes(solved(aim=aim(2.8), filters=four), "nd")
    assert "silent_sync" not in codes(solved(body=BODY | {"silent_sync_s": 1 / 50}), "hss")
    assert "radio_sync" not in codes(solved(body=BODY | {"radio_sync_s": 1 / 250}), "hss")
    out = next(w for w in warnings_of(solved(aim=aim(8, 0, iso=25)), "hss", 0, 0) if w.code == "iso_out_of_range")
    assert out.facts == {"asked": 25, "used": 100}


def test_usual_levels_by_role() -> None:
    """CP: the key correct, fill two under, a rim half a stop over, the background light correct."""
    assert USUAL_TARGETS == {"key": 0, "fill": -2, "rim": 0.5, "background": 0}


def test_by_how_much_a_unit_misses_is_how_far_it_is_from_right() -> None:
    """Short by what is missing, too bright by what is too much, however little; nothing where it reaches."""
    dark: dict[str, object] = {"ambient": {"condition": "dark"}, "aim": {"f_number": 4}}
    near, far = (solve(Setup.model_validate(dark | {"lights": [{"distance_m": m}]}), TABLE) for m in (1.0, 16.0))
    bright, short = near.reach("sync"), far.reach("sync")
    godwit, wren = (NAMES.index(name) for name in ("Godwit 76 pair", "Wren 7"))
    assert 0 < bright.too_bright[godwit] < 1
    assert missed_by(bright)[godwit] == bright.too_bright[godwit]
    assert missed_by(short)[wren] == -short.spare[wren] > 0
    assert missed_by(bright)[wren] == 0
