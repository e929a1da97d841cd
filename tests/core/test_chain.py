"""The chain, effect by effect, and what its sum comes to: verdicts, dials, levels."""

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jumpstop.core.kit.errors import CannotSolve
from jumpstop.core.kit.power import PowerSupply
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, HssEntry, Unit
from jumpstop.core.plan.camera.methods import Method
from jumpstop.core.plan.change.cures import cure_of
from jumpstop.core.plan.change.ladder import span_of
from jumpstop.core.plan.change.levers import levers
from jumpstop.core.plan.change.moves import Bag, done
from jumpstop.core.plan.job.changeover import Standing
from jumpstop.core.plan.light.chain import EFFECTS, NEEDS, TICKS, open_window_s
from jumpstop.core.plan.light.jump import Jump, Of, pick, row, spread, total
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.placing import beam_of
from jumpstop.core.plan.light.reach import Reach, Solved, dialled, solve
from jumpstop.core.scene.camera import CameraSettings
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup
from jumpstop.core.scene.stage import Stage
from jumpstop.words.effects import TICKS as TICK_NAMES
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.hands import hands_text
from jumpstop.words.levers import said

GN32 = Unit(name="GN 32", claims=(Claim(guide_number=32, unit="m", zoom_mm=35),), hss=Hss())


def setup(light: dict[str, object] | None = None, **change: object) -> Setup:
    """In open shade under a clear sky: f/8, 1/500, ISO 100 is right for the background (EV 15, ANSI PH2.7)."""
    return Setup.model_validate(
        {"aim": {"f_number": 8, "background_stops": 0}, "lights": [{"distance_m": 1} | (light or {})]} | change
    )


def solved(of: Setup, *units: Unit) -> Solved:
    return solve(of, table_of(units or (GN32,)))


def dark(light: dict[str, object] | None = None, **change: object) -> Reach:
    """At sync in the dark, where no ambient helps: f/8, ISO 100."""
    return solved(setup(light, ambient={"condition": "dark"}, **change)).reach("sync")


def size(reach: Reach, effect: str, part: str = "") -> tuple[float, float]:
    """(stops, sd) of one effect of the first unit."""
    found = [jump for jump in reach.jumps_of(0) if jump.effect == effect and part in str(jump.jump.facts)]
    return (found[0].stops, found[0].sd) if found else (0.0, 0.0)


BOX = {"name": "Box", "stops": -0.5, "sd": 0.2, "face": {"shape": "disc", "width_m": 1.1}}
LAYERED = {"name": "Octa", "stops": -0.4, "layers": [{"name": "inner", "stops": -0.9, "sd": 0.25}]}
SUN: dict[str, Any] = {"filters": [{"name": "ND", "stops": 1}]}
FAST = {"kind": "freeze", "mover": "other", "speed_m_s": 2, "field_width_m": 0.6}
SLOW_PACK = Unit(
    name="Pack", claims=GN32.claims,
    flash_duration=FlashDuration(shape="tail", table=(DurationEntry(power=1, seconds=1 / 250),)),
)  # fmt: skip
QUICK = Unit(
    name="Quick", claims=GN32.claims,
    flash_duration=FlashDuration(table=tuple(DurationEntry(power=2**-k, seconds=2**-k / 130) for k in range(8))),
)  # fmt: skip


def frozen() -> Reach:
    return solved(setup(motion=FAST, ambient={"condition": "dark"}), QUICK).reach("freeze")


def tailed(unit: Unit = SLOW_PACK) -> Reach:
    leaf = {"name": "Leaf", "shutter": "leaf", "sync_s": 1 / 2000, "top_speed_s": 1 / 2000}
    return solved(setup(body=leaf), unit).reach("leaf")


def read_over() -> Reach:
    """GN 32 at a metre gives f/32; the meter reads f/45 of it alone."""
    unit = GN32.model_dump() | {"id": None}
    told = {
        "f_number": 45,
        "camera": {"f_number": 8},
        "holds_ambient": False,
        "stands": True,
        "was": {"distance_m": 1, "unit": unit},
    }
    return dark({"unit": unit}, seen=[told])


# Each effect: how to bring it about, what its stops (and sd) must be, and where that comes from.
CASES: dict[str, tuple[Callable[[], Reach], float, float]] = {
    "rated_output": (dark, 2 * math.log2(32 / 8), 0.25),  # P: ISO 1230:2007: GN 32 at f/8, one metre: four stops over
    "zoom": (lambda: solved(setup({"zoom_mm": 105}, ambient={"condition": "dark"}), Unit(
        name="Z", claims=(*GN32.claims, Claim(guide_number=64, unit="m", zoom_mm=105)), zoom_max_mm=105,
    )).reach("sync"), 2.0, 0.0),  # D: twice the guide number is two stops, at a coverage that is quoted
    "wide_panel": (lambda: solved(setup({"wide_panel": True}, ambient={"condition": "dark"}), Unit(
        name="Z", claims=GN32.claims, zoom_max_mm=105)).reach("sync"), -0.99, 0.3),  # D: physics 13, 24 to 14 mm
    "heads": (lambda: dark({"heads": 2}), 1.0, 0.1),  # D: two equal heads are a stop; ± from memory
    "pops": (lambda: dark({"pops": 8}), 3.0, 0.0),  # D: eight flashes into one frame are three stops
    "distance": (lambda: dark({"distance_m": 4}), -4.0, 0.05),  # D: inverse square
    "modifier": (lambda: dark({"modifier": BOX}), -0.5, 0.2),  # the modifier's own figure
    "layer": (lambda: dark({"modifier": LAYERED}), -0.9, 0.25),  # the layer's own figure
    "adapter": (lambda: solved(setup({"modifier": BOX | {"mount": "large bayonet", "adapters": ["small bayonet"],
        "adapter_stops": -0.3}}, ambient={"condition": "dark"}),
        Unit(name="S", mount="small bayonet", claims=GN32.claims)
        ).reach("sync"), -0.3, 0.1),  # the modifier's own figure; ± from memory
    "face": (lambda: dark({"modifier": BOX}), -0.38, 0.05),  # P: Lambert's disc, 1.1 m across from one metre
    "bounce": (lambda: dark({"modifier": {"name": "C", "kind": "bounce"}, "distance_m": 2.5},
        stage={"ceiling_m": 2.6, "height_m": 1.6 / 0.93}), -0.71, 0.1),  # D: physics 13, path 3.2 m for 2.5 m
    "card": (lambda: dark({"modifier": {"name": "C", "kind": "bounce", "stops": -1.25, "sd": 0}, "distance_m": 2.5,
        "position": {"card": True, "height_m": 1.6}}, stage={"ceiling_m": 2.6, "height_m": 1.6 / 0.93}),
        math.log2(0.9 + 0.1 * 2**1.96), 0.2),  # M: a tenth straight on, the rest down by 1.25 + 0.71
    # M: a beam's edge
    "off_axis": (lambda: dark({"position": {"turn_deg": 54.43 / 2, "height_m": 1.75 * 0.93}}), -1.0, 0.3),
    # M: cos(105 - 45) = 1/2
    "side": (lambda: dark({"position": {"bearing_deg": 105, "height_m": 1.75 * 0.93}}), -1.0, 0.3),
    "gel": (lambda: dark({"gel": "full_orange"}), math.log2(0.55), 0.1),  # M: data sheets
    "aperture": (lambda: solved(setup(aim={"f_number": 5.6, "background_stops": 0})).reach("stop_down"), -2.0, 0.0),
    "iso": (lambda: dark(aim={"f_number": 8, "iso": 400}), 2.0, 0.0),  # P: APEX
    "nd": (lambda: solved(setup(**SUN)).reach("nd"), -1.0, 0.1),  # D: ND
    # D + M: 1/500 on a 1/250 body, extra 0.5
    "hss": (lambda: solved(setup()).reach("hss"), -(math.log2(3) + 0.5), 0.4),
    "freeze": (frozen, -5.0, 0.0),  # D: 2 m/s in a field of 0.6 m wants 1/4000; this unit gives it at 1/32
    "tail": (tailed, math.log2(1 - 10 ** -(250 / 500)), abs(math.log2(1 - 10 ** -(250 / 500))) / 4),  # D: exponential
    "reading": (read_over, 1.0, 0.1),  # U: a meter that reads a stop more than the chain says, a tenth sure
    "target": (lambda: dark({"role": "fill", "target_stops": -2}), 2.0, 0.0),  # D
    "ambient": (lambda: solved(setup(ambient={"condition": "hazy_sun"},
    aim={"f_number": 8, "background_stops": 1})).reach("sync"), 1.0, 0.25),
}  # fmt: skip


def test_every_effect_has_a_check() -> None:
    assert CASES.keys() == EFFECTS.keys()


@pytest.mark.parametrize("effect", CASES)
def test_an_effect_is_as_large_as_the_world_has_it(effect: str) -> None:
    bring, stops, sd = CASES[effect]
    assert size(bring(), effect) == (pytest.approx(stops, abs=0.011), pytest.approx(sd, abs=0.011))


@pytest.mark.parametrize("effect", CASES)
def test_every_effect_has_an_owner_where_it_has_one_and_a_source(effect: str) -> None:
    reach = CASES[effect][0]()
    for jump in reach.jumps_of(0):
        assert jump.jump.source, jump.effect
        assert jump.mark in ("P", "D", "CP", "M", "U")
    owners = {jump.effect: jump.jump.of[0] for jump in reach.jumps_of(0) if jump.jump.of}
    assert (owners[effect].kind if effect in owners else "") == EFFECTS[effect].owner
    expected = {
        "rated_output": Of("unit", part="rating"), "zoom": Of("unit", part="zoom"), "hss": Of("unit", part="hss"),
        "modifier": Of("modifier", "Box"), "layer": Of("modifier", "Octa", "inner"),
        "adapter": Of("modifier", "Box", "adapter"), "nd": Of("filter", "ND"),
        "tail": Of("unit", part="duration"), "wide_panel": Of("unit", part="wide_panel"),
        "freeze": Of("unit", part="duration"), "gel": Of("gel", "full_orange"),
        "ambient": Of("ambient", part="subject"), "reading": Of("reading"),
        "bounce": Of("room", "A setup", "ceiling"),
    }  # fmt: skip
    assert owners.get(effect) == expected.get(effect)


OF_ALL = {"rated_output", "distance", "tail", "hss", "freeze", "iso", "aperture", "nd", "ambient"}


@pytest.mark.parametrize("effect", sorted(CASES.keys() - OF_ALL))
def test_what_one_light_has_is_nothing_to_a_plain_one_beside_it(effect: str) -> None:
    """No stops, and no doubt."""
    first = CASES[effect][0]().solved
    plain = Light(id="plain", role="fill", target_stops=0.0, distance_m=1)
    lights = (first.setup.lights[0].model_copy(update={"role": "key"}), plain)
    both = solve(first.setup.model_copy(update={"lights": lights}), first.table)
    own = [jump.at(0, 1, both.placing.own[1], 0) for jump in both.chain if jump.effect == effect]
    assert own or effect == "target"
    assert [(one.stops, one.sd) for one in own] == [(0, 0)] * len(own)


@pytest.mark.parametrize("field", TICKS)
def test_a_tick_is_a_change_by_hand_a_finding_and_a_word(field: str) -> None:
    """What an entry of the registry promises: hands switch it, a finding may, and both are told by its name."""
    unit = Unit(name="Z", claims=GN32.claims, zoom_max_mm=105)
    before, after = (solved(setup({field: on}, ambient={"condition": "dark"}), unit) for on in (False, True))
    off, on = (Standing(one, "sync", (0,)) for one in (before, after))
    assert hands_text(off, on, DisplayUnits())[0] == f"light 1: {TICK_NAMES[TICKS[field]]} on"
    assert hands_text(on, off, DisplayUnits())[0] == f"light 1: {TICK_NAMES[TICKS[field]]} off"
    found = levers(after.setup, 0, "sync", after.table, 0, Bag(), pairs=False).singles
    (back,) = [one for one in found if one.moves[0].touches == field]
    assert said(back.moves, DisplayUnits()) == f"{TICK_NAMES[TICKS[field]]} off"
    assert done(after.setup, 0, back.moves, {}).lights == before.setup.lights
    here, there = (one.reach("sync").spare[0] for one in (after, before))
    assert back.gain == pytest.approx(there - here)


def test_a_wide_panel_spreads_the_beam_and_only_a_zoom_head_has_one() -> None:
    """D: 2 atan(18 / 14) is 104.3 degrees across; as much light as at the head's widest, over a larger frame."""
    assert beam_of(Light(wide_panel=True)) == pytest.approx(104.25, abs=0.05)
    still = solved(setup({"wide_panel": True}, ambient={"condition": "dark"})).reach("sync")
    assert size(still, "wide_panel") == (0, 0)
    box = dark({"wide_panel": True, "modifier": BOX})
    assert size(box, "wide_panel") == (0, 0)  # inside a box it counts for nothing


def test_the_ambient_case_by_hand() -> None:
    """D: hazy sun EV 14, shade two under it; a stop over, the shade lies at -1, the flash gives -1: one stop."""
    reach = CASES["ambient"][0]()
    assert reach.ambient_stops == pytest.approx(-1)
    assert reach.spare[0] == pytest.approx(4 + 1, abs=0.05)
    assert reach.flash_stops[0] == pytest.approx(4, abs=0.05)
    assert reach.flash_over_ambient_stops[0] == pytest.approx(5, abs=0.05)


def test_only_the_key_counts_the_ambient() -> None:
    """D: where target 0 without ambient leaves 0.94 in hand, fill -2 leaves 2.94, whatever the ambient."""
    distance = 2 ** ((4 - 0.94) / 2)
    alone = dark({"distance_m": distance})
    assert alone.spare[0] == pytest.approx(0.94, abs=0.005)
    for condition in ("dark", "hazy_sun"):
        aim = {"f_number": 8, "background_stops": 0}
        for role, target in (("fill", -2), ("rim", -2), ("background", -2)):
            light = {"role": role, "target_stops": target, "distance_m": distance}
            found = solved(setup(light, ambient={"condition": condition}, aim=aim)).reach("sync")
            assert found.spare[0] == pytest.approx(2.94, abs=0.05), (role, condition)
            assert size(found, "ambient") == (0, 0)


def test_flash_alone_and_the_key_where_the_ambient_suffices() -> None:
    """D: an ambient at the target needs no flash; the help is capped, since more says only that none is needed."""
    bright = solved(setup(ambient={"condition": "open_shade"})).reach("sync")
    assert bright.ambient_stops >= -0.05
    assert size(bright, "ambient")[0] == pytest.approx(6)


def test_a_measured_layer_is_the_users_own() -> None:
    mine = {"name": "O", "layers": [{"name": "in", "stops": -1.2, "measured": True}]}
    marks = {jump.effect: jump.mark for jump in dark({"modifier": mine}).jumps_of(0)}
    assert (marks["layer"], marks["modifier"]) == ("U", "M")


def test_what_hss_loses_is_told_as_what_the_slit_takes_and_what_the_unit_adds() -> None:
    """D + M: the slit of 1/500 on a body of 1/250 takes log2 3; the unit half a stop more; no other method either."""
    found = solved(setup())
    (told,) = [one for one in found.reach("hss").jumps_of(0) if one.effect == "hss"]
    assert (told["geometry"], -told.stops) == pytest.approx((math.log2(3), math.log2(3) + 0.5), abs=0.01)
    assert [one for one in found.reach(found.kinds[-1]).jumps_of(0) if one.effect == "hss"] == []


def test_an_hss_table_moves_to_another_body_by_geometry() -> None:
    """D: on a 1/125 body 1/1000 costs log2(9/5) = 0.85 more than the table of a 1/250 body lists."""
    listed = GN32.model_copy(update={"hss": Hss(table=(HssEntry(shutter_s=1 / 1000, loss_stops=2.7),))})
    aim = {"f_number": 5.6, "background_stops": 0}
    same, slow = (
        solved(setup(aim=aim, body={"name": "B", "sync_s": sync}), listed).reach("hss") for sync in (1 / 250, 1 / 125)
    )
    assert round(1 / same.method.camera.shutter_s) == round(1 / slow.method.camera.shutter_s) == 1000
    assert size(same, "hss")[0] == pytest.approx(-2.7, abs=0.01)
    assert size(slow, "hss")[0] == pytest.approx(-2.7 - 0.85, abs=0.01)
    assert size(same, "hss")[1] == pytest.approx(0.15)


def test_effects_keep_to_the_methods_that_have_them() -> None:
    """M: an unknown duration leaves a doubt of log2(1 - 10^(-2.6 ms x 600)) = 0.04; ISO 100 is no jump."""
    assert {jump.effect for jump in dark().jumps_of(0)} == {"rated_output", "distance", "ambient"}
    assert size(solved(setup()).reach("stop_down"), "tail") == (0, pytest.approx(0.04, abs=0.002))
    tail = next(jump for jump in tailed(QUICK).jumps_of(0) if jump.effect == "tail")
    assert tail["t01_s"] == pytest.approx(1 / 130)  # of a full flash, as its table says
    face = next(jump for jump in CASES["face"][0]().jumps_of(0) if jump.effect == "face")
    assert face["width_m"] == BOX["face"]["width_m"]  # type: ignore[index]
    quick = solved(setup(motion=FAST), QUICK.model_copy(update={"hss": Hss()}))
    assert size(quick.reach("hss"), "hss")[0] < -2
    assert size(quick.reach("freeze"), "hss") == (0, 0)


def test_the_sum_is_what_is_in_hand_and_doubts_add_as_squares() -> None:
    reach = dark({"distance_m": 2, "modifier": LAYERED, "gel": "half_orange"})
    assert reach.spare[0] == pytest.approx(4 - 2 - 0.4 - 0.9 + math.log2(0.71), abs=0.01)
    assert reach.sd[0] == pytest.approx(math.sqrt(0.25**2 + 0.05**2 + 0.3**2 + 0.25**2 + 0.1**2), abs=0.003)
    assert sum(jump.stops for jump in reach.jumps_of(0)) == pytest.approx(reach.spare[0])
    assert float(np.asarray(total(reach.solved.chain)).ravel()[0]) == pytest.approx(reach.spare[0])
    assert float(np.asarray(spread(reach.solved.chain)).ravel()[0]) == pytest.approx(reach.sd[0])
    assert reach.p[0] == pytest.approx(0.5 * math.erfc(-reach.spare[0] / reach.sd[0] / math.sqrt(2)))


def flash(guide: float, **more: object) -> Unit:
    return Unit(name=f"GN {guide}", claims=(Claim(guide_number=guide, unit="m", zoom_mm=35),), **more)


def test_verdicts() -> None:
    """Reaches by more than one sd (0.25), on the line within it, short beyond; too bright where the dial ends first."""
    units = [flash(8 * 2 ** (stops / 2)) for stops in (2, 0.2, -0.2, -2, 9)]
    blocked = flash(16, takes_modifiers=False)
    reach = solved(setup(ambient={"condition": "dark"}), *units, blocked).reach("sync")
    assert reach.verdict.tolist() == ["reaches", "on_the_line", "on_the_line", "short", "too_bright", "reaches"]
    boxed = solved(setup({"modifier": BOX}, ambient={"condition": "dark"}), *units, blocked).reach("sync")
    assert boxed.verdict[5] == "blocked"
    assert boxed.best_first()[-1] == 5
    assert boxed.best_first()[0] == 4
    assert boxed.able.tolist() == [True] * 5 + [False]


def test_the_dial_and_what_it_leaves() -> None:
    """D: on thirds, 2.1 stops in hand are dialled down by 2; seven stops down is the end of a dial to 1/128."""
    reach = solved(setup(ambient={"condition": "dark"}), *(flash(8 * 2 ** (s / 2)) for s in (2.1, 7.15, 9, -1))).reach(
        "sync"
    )
    assert reach.below_full == pytest.approx([2, 7, 7, 0], abs=0.01)
    assert reach.left == pytest.approx([0.1, 0.15, 2, -1], abs=0.02)
    assert reach.too_bright == pytest.approx([0, 0, 2, 0], abs=0.02)
    assert reach.power == pytest.approx([1 / 4, 1 / 128, 1 / 128, 1], rel=0.01)


@pytest.mark.parametrize(
    ("kind", "body", "seconds", "window"),
    [
        ("sync", {"travel_s": 1 / 300}, 1 / 200, 1 / 200 - 1 / 600),  # the middle of the frame, half the travel later
        ("sync", {"sync_s": 1 / 250}, 1 / 250, 1 / 250 - 0.7 / 500),
        ("leaf", {"shutter": "leaf", "sync_s": 1 / 500}, 1 / 500, 1 / 500),
        ("past_sync", {}, 1 / 500, 1 / 1000),  # the middle of what is lit: the flash fires as the first row opens
    ],
)
def test_how_long_the_middle_of_the_lit_frame_is_open(kind: Any, body: Any, seconds: float, window: float) -> None:
    of = setup(body={"name": "B"} | body)
    assert open_window_s(of, Method(kind, CameraSettings(8, seconds, 100))) == pytest.approx(window)


def test_what_is_left_over_at_the_lowest_setting_counts_from_half_a_step() -> None:
    """D: a dial of seven stops in thirds: a fifth of a stop beyond it is too bright, a seventh is the nearest."""
    below, bright = dialled(np.array([7.2, 7 + 1 / 7, 3.4]), np.full(3, 1 / 3), np.zeros(3), np.full(3, 7.0))
    assert below == pytest.approx([7, 7, 10 / 3])
    assert bright == pytest.approx([0.2, 0, 0])


def test_a_lights_own_supply_comes_before_the_setups() -> None:
    feeds = tuple(PowerSupply(kind=kind, recycle_full_s=full) for kind, full in (("aa", 5.0), ("lithium", 2.0)))
    unit = GN32.model_copy(update={"power_supplies": feeds})
    for asked, own, full in ((None, None, 5), ("lithium", None, 2), (None, "lithium", 2), ("lithium", "aa", 5)):
        reach = solved(setup({"power_supply": own}, power_supply=asked), unit).reach("hss")
        assert reach.supply.full_s.tolist() == [full]


def test_the_ladder_turned_round() -> None:
    """D, inverse square: GN 32 at 1/4 is GN 16: f/8 at 2 m; a third either way 2 x 2^(1/6), a stop 2 x 2^(1/2)."""
    fixed = setup({"distance_m": 3, "dial_stops": 2.0}, ambient={"condition": "dark"})
    found = span_of(solved(fixed, flash(32)).reach("sync"), 0)
    aperture = fixed.f_number
    right = 16 / aperture
    assert found.right == pytest.approx(right, rel=0.01)
    assert found.third == pytest.approx((right / 2 ** (1 / 6), right * 2 ** (1 / 6)), rel=0.01)
    assert found.stop == pytest.approx((right / 2**0.5, right * 2**0.5), rel=0.01)


def test_recycle_time_and_charge_at_the_dial() -> None:
    """D: r0 + p (r_full - r0); flashes per charge over the share of power; 200 at a quarter take a charge of 50."""
    supply = {"recycle_full_s": 2.5, "recycle_least_s": 0.1, "full_flashes": 50}
    reach = solved(setup(ambient={"condition": "dark"}), flash(16, power_supplies=(supply,), standby_w=0)).reach("sync")
    assert reach.recycle_s[0] == pytest.approx(0.1 + 2.4 / 4)
    assert (reach.flashes[0], reach.charges[0]) == pytest.approx((200, 1))


def test_a_cut_pulse_is_not_clipped_once_it_is_dialled_down() -> None:
    leaf = {"name": "Leaf", "shutter": "leaf", "sync_s": 1 / 2000, "top_speed_s": 1 / 2000}
    table = (DurationEntry(power=1, seconds=1 / 250),)
    cut, slow = (
        solved(setup(body=leaf), flash(128, flash_duration=FlashDuration(shape=shape, table=table))).reach("leaf")
        for shape in ("cut", "tail")
    )
    loss = math.log2(1 - 10**-0.5)
    assert cut.spare[0] == pytest.approx(slow.spare[0])
    assert cut.left[0] + cut.below_full[0] == pytest.approx(cut.spare[0] - loss, abs=0.01)
    assert slow.left[0] + slow.below_full[0] == pytest.approx(slow.spare[0], abs=0.01)
    # a hair short at full power, clipped: it stays at full, and what is missing is what is left
    weak = solved(setup(body=leaf), flash(8.3, flash_duration=FlashDuration(shape="cut", table=table))).reach("leaf")
    assert loss < weak.spare[0] < 0
    assert (weak.below_full[0], weak.left[0]) == pytest.approx((0, weak.spare[0]))


@pytest.mark.parametrize(
    ("light", "unit", "method", "why"),
    [
        ({"modifier": BOX}, flash(32, takes_modifiers=False), "hss", "no_hss"),
        ({"modifier": BOX}, flash(32, takes_modifiers=False, hss=Hss()), "hss", "no_modifiers"),
        ({"modifier": BOX | {"needs_zoom_head": True}}, flash(32, hss=Hss()), "hss", "no_zoom_head"),
        ({"modifier": BOX | {"needs_zoom_head": True}}, flash(32, hss=Hss(), zoom_max_mm=105), "hss", ""),
        ({"heads": 2}, flash(32, takes_modifiers=False, hss=Hss()), "hss", "stands_alone"),
        ({}, flash(32), "freeze", "duration_unknown"),
        ({}, SLOW_PACK, "freeze", "never_short_enough"),
        ({}, QUICK, "freeze", ""),
    ],
)
def test_what_keeps_a_unit_from_a_light(light: dict[str, object], unit: Unit, method: str, why: str) -> None:
    from jumpstop.core.plan.light.reach import BLOCKERS

    found = solved(setup(light, motion=FAST), unit, flash(32)).reach(method)  # type: ignore[arg-type]
    assert BLOCKERS[int(found.blocker[0])] == why


def test_what_cannot_be_solved_says_why() -> None:
    with pytest.raises(CannotSolve) as empty:
        solve(setup(), table_of([]))
    assert empty.value.code == "empty_shelf"
    with pytest.raises(CannotSolve) as blocked:
        solved(setup()).reach("leaf")
    assert (blocked.value.code, blocked.value.facts["method"]) == ("method_blocked", "leaf")


def test_lights_and_ambient_add_on_each_receiver() -> None:
    """D: sun 0 on the lit side, -2 on the shadow side, frontal fill -1.5: +0.44, -0.73 (handbook section 11)."""
    sun = setup(
        ambient={"condition": "distinct_shadows", "subject": "sun"}, aim={"f_number": 16, "background_stops": 0},
        lights=[{"role": "fill", "target_stops": -1.5, "distance_m": 1}], body={"name": "B", "sync_s": 1 / 125},
    )  # fmt: skip
    fine = flash(64, scale={"step_stops": 0.05})
    found = {level.receiver: level for level in levels(solved(sun, fine), "sync", (0,))}
    assert (found["lit"].ambient, found["shadow"].ambient) == pytest.approx((0, -2), abs=0.05)
    assert found["lit"].total == pytest.approx(0.44, abs=0.05)
    assert found["shadow"].total == pytest.approx(-0.73, abs=0.05)
    assert found["background"].total == pytest.approx(0, abs=0.01)
    assert found["background"].lights == (-np.inf,)  # how far it stands behind is not said


def test_key_and_frontal_fill_without_ambient() -> None:
    """D: key 0 and fill -1: +0.58 on the lit side, 3 : 1; each light's own unit and dial count, None gives nothing."""
    pair = setup(ambient={"condition": "dark"}, lights=[
        {"role": "key", "distance_m": 1}, {"role": "fill", "target_stops": -1, "distance_m": 2},
        {"role": "rim", "target_stops": 0.5, "distance_m": 2},
        {"role": "background", "distance_m": 2, "target_stops": -1},
    ])  # fmt: skip
    fine = flash(64, scale={"step_stops": 0.05})
    whole = solved(pair, fine)
    found = {level.receiver: level for level in levels(whole, "sync", (0, 0, 0, 0))}
    assert found["lit"].lights == pytest.approx((0, -1, -np.inf, -np.inf), abs=0.03)
    assert found["lit"].total == pytest.approx(0.58, abs=0.03)
    assert 2 ** (found["lit"].total - found["shadow"].total) == pytest.approx(3, abs=0.1)
    assert found["background"].total == pytest.approx(-1, abs=0.03)
    alone = {level.receiver: level for level in levels(whole, "sync", (0, None, 0, 0))}
    assert alone["lit"].total == pytest.approx(0, abs=0.03)


def test_light_that_passes_the_subject_falls_on_the_background() -> None:
    """D: two metres to the subject and as much again to the wall behind it: a quarter of the light, two stops less."""
    aim = {"f_number": 8, "background_stops": 0, "lens": {"focal_mm": 50, "subject_m": 3, "background_m": 5}}
    wall = setup({"distance_m": 2}, ambient={"condition": "dark"}, aim=aim)
    found = {level.receiver: level for level in levels(solved(wall), "sync", (0,))}
    assert found["background"].lights[0] - found["lit"].lights[0] == pytest.approx(-2, abs=0.01)


@given(st.permutations([0, 1, 2]), st.floats(0.5, 8), st.floats(0.5, 8))
def test_the_order_of_lights_never_matters(order: list[int], one: float, two: float) -> None:
    lights = [
        Light(distance_m=one), Light(role="fill", distance_m=two, target_stops=-1), Light(role="fill", distance_m=3),
    ]  # fmt: skip
    base = setup(ambient={"condition": "dark"})
    plain, turned = (base.model_copy(update={"lights": tuple(ls)}) for ls in (lights, [lights[i] for i in order]))
    for a, b in zip(levels(solved(plain), "sync", (0, 0, 0)), levels(solved(turned), "sync", (0, 0, 0)), strict=True):
        assert a.total == pytest.approx(b.total)


def test_lights_and_methods_are_solved_at_once_as_if_alone() -> None:
    """The four axes: each light, in each method, comes to what it comes to by itself."""
    lights = [
        {"distance_m": 1.5, "modifier": LAYERED},
        {"role": "fill", "distance_m": 3, "target_stops": -1, "gel": "half_orange"},
        {"role": "rim", "distance_m": 4, "target_stops": 1, "heads": 2, "pops": 3, "zoom_mm": 105},
        {"role": "background", "distance_m": 2, "modifier": BOX, "heads": 1},
        {"role": "rim", "distance_m": 2, "modifier": LAYERED | {"kind": "bounce", "layers": []}, "automatic": True},
    ]
    units = (GN32, flash(50, hss=Hss(extra_stops=0.2)))
    both = solved(setup(lights=lights, **SUN), *units)
    for index, light in enumerate(lights):
        alone = solved(setup(lights=[light], **SUN), *units)
        for kind in both.kinds:
            assert both.reach(kind, index).spare == pytest.approx(alone.reach(kind).spare)
            assert both.reach(kind, index).sd == pytest.approx(alone.reach(kind).sd)
            named = [(jump.effect, round(jump.stops, 6)) for jump in both.reach(kind, index).jumps_of(1)]
            assert named == [(jump.effect, round(jump.stops, 6)) for jump in alone.reach(kind).jumps_of(1)]


def test_axes_are_picked_by_their_place() -> None:
    """D: an axis of length one, or missing, is the same everywhere."""
    grid = np.arange(24.0).reshape(2, 3, 1, 4)
    assert pick(grid, (1, 2, 2, 3)) == 23
    assert pick(np.arange(4.0), (1, 2, 2, 3)) == 3
    assert pick(7.0, (1, 2, 2, 3)) == 7
    two = Jump(
        "layer", grid, of=(Of("modifier", "a"), Of("modifier", "b")), mark=("P", "U"), facts={"layer": ("x", "y")}
    )
    for light, told in enumerate((("a", "P", "x"), ("b", "U", "y"))):
        there = two.at(1, light, 0, 1)
        assert (there.of and there.of.id, there.mark, there["layer"]) == told
    read = replace(two, thing=np.array([0, 7, -1, -1]))  # what readings taught is the user's own
    assert [read.at(1, 0, 0, unit).mark for unit in range(4)] == ["U", "U", "P", "P"]
    assert np.asarray(row(grid, 1, 0, 2)).tolist() == [12, 13, 14, 15]
    assert row(np.array([[[5.0]], [[6.0]]]), 0, 1, 0) == 6
    facts = Jump("distance", grid, facts={"names": ("a", "b"), "lone": ("c",), "one": "x", "many": grid}).at(1, 1, 0, 2)
    assert facts["lone"] == "c"
    assert (facts["names"], facts["one"], facts["many"], facts.stops, facts.sd) == ("b", "x", 18, 18, 0)


def test_needs_are_no_light() -> None:
    assert EFFECTS.keys() > NEEDS


@pytest.mark.parametrize(
    ("excess", "f_number", "closed", "back"),
    [(1, 8, 11, 2), (1.1, 2.8, 4.5, 2.07), (2, 16, 0, 2.83), (0.9, 16, 22, 1.93)],
)
def test_what_takes_an_excess_away(excess: float, f_number: float, closed: float, back: float) -> None:
    """D: a stop is a full mark of aperture, or the square root of two in distance; lenses close to f/22. A distance is
    told in less than a tenth of a stop, and never so that something is left."""
    cure = cure_of(excess, f_number, Light(distance_m=math.sqrt(2)), Stage(), 22)
    assert cure.f_number == closed
    assert back - 0.005 <= cure.distance_m < back * 2**0.05
