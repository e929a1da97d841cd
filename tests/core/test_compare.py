"""Units side by side: light, energy, HSS and money, each by its definition."""

import math
from typing import Any

import numpy as np
import pytest

from jumpstop.core.kit.compare import HSS_TIMES_S, against, compared, sides
from jumpstop.core.kit.modifier import Layer, Modifier
from jumpstop.core.kit.power import PowerSupply
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.plan.light.reach import BLOCKERS, solve
from jumpstop.core.scene.begin import OwnKit, on_kit
from jumpstop.core.scene.light import OwnModifier
from jumpstop.core.scene.setup import OwnBody, OwnFilter, Setup

SHOE = Unit(
    name="Shoe", watt_seconds=80, weight_g=400, price=300, hss=Hss(extra_stops=0.5, measured=True),
    claims=(Claim(guide_number=36, unit="m", zoom_mm=35),),
    flash_duration=FlashDuration(table=(DurationEntry(power=1, seconds=1 / 300),
    DurationEntry(power=1 / 64, seconds=1 / 19200))),
    power_supplies=(PowerSupply(recycle_full_s=2.5, recycle_least_s=0.1, full_flashes=220),),
)  # fmt: skip
TEN = Unit(
    name="Ten", watt_seconds=800, claims=(Claim(guide_number=36 * math.sqrt(10), unit="m", zoom_mm=35),), price=30
)
DEAR = Unit(name="Dear", watt_seconds=200, takes_modifiers=False, weight_g=1000)
TABLE = table_of([SHOE, TEN, DEAR])


def test_one_unit_on_one_basis() -> None:
    """D, physics 3: GN 36 is 3,240 BCPS at C = 250; 80 Ws in 0.4 kg are 200 Ws a kilo; HSS at 1/1000 on a 1/250 body
    costs 2.32 and the unit's own half stop; r0 + p (r_full - r0)."""
    one = compared(TABLE, 0)
    assert one.guide_number == pytest.approx(36)
    assert one.candela_seconds == pytest.approx(3240)
    assert one.light_per_ws == pytest.approx(3240 / 80)
    assert one.ws_per_kg == pytest.approx(200)
    assert one.hss == pytest.approx(2 * math.log2(36) - math.log2(5) - 0.5)
    assert one.hss_measured
    assert one.flashes == 220
    assert one.recycle_s[[0, 3, 6]] == pytest.approx([2.5, 1.3, 0.7])
    assert one.t01_s[[0, 18]] == pytest.approx([1 / 300, 1 / 19200], rel=0.01)
    assert (float(one.powers[0]), float(one.powers[-1])) == (0, pytest.approx(7))  # full power to 1/128
    assert len(one.hss_stops) == len(HSS_TIMES_S) == 5
    assert np.diff(one.hss_stops) == pytest.approx(
        [-math.log2(5 / 3), -math.log2(9 / 5), -math.log2(17 / 9), -math.log2(33 / 17)]
    )
    front = compared(
        TABLE,
        0,
        Modifier(
            name="Box",
            stops=-0.5,
            layers=(Layer(name="in", stops=-0.9), Layer(name="grid", stops=-1, usually_on=False)),
        ),
    )
    assert front.through == pytest.approx(one.rated - 1.4)
    bare = compared(TABLE, 2, Modifier(name="Box"))
    assert bare.through is None
    assert bare.hss is None
    assert bare.basis == "watt_seconds"
    assert math.isnan(bare.flashes)
    floating = table_of([DEAR.model_copy(update={"weight_g": 0.0}), DEAR.model_copy(update={"weight_g": None})])
    assert [compared(floating, at).ws_per_kg for at in (0, 1)] == [None, None]
    assert [each.unit for each in sides(TABLE, [2, 0])] == [2, 0]


def test_units_against_each_other() -> None:
    """Common practice: 200 Ws against 80 Ws is +1.32 stops and 2.5 times; ten times the light +3.32."""
    ten = against(TABLE, 1, 0)
    assert ten.stops == pytest.approx(3.32, abs=0.005)
    assert ten.times == pytest.approx(10)
    assert ten.price_times == pytest.approx(0.1)
    assert ten.price_per_stop == pytest.approx(-270 / math.log2(10))
    energies = table_of([Unit(name="A", watt_seconds=80), Unit(name="B", watt_seconds=200)])
    two = against(energies, 1, 0)
    assert two.stops == pytest.approx(1.32, abs=0.005)
    assert two.times == pytest.approx(2.5)
    assert two.price_times is None
    assert against(TABLE, 0, 1).price_per_stop is None  # no stop more
    assert against(TABLE, 2, 0).price_times is None  # a price that is not known


def test_all_say_alike_which_modifier_a_unit_takes() -> None:
    """Made up of what can keep one off: a mount, a kind, a name, a zoom head that it wants, a unit that takes none."""
    kinds: list[dict[str, Any]] = [
        {"needs_zoom_head": True},
        {"mount": "large"},
        {"fits": ["shoe"]},
        {"not_on": ["Own"]},
        {},
    ]
    named = [{"id": f"m{at}", "name": f"M{at}", "stops": -1} | kind for at, kind in enumerate(kinds)]
    fronts = [OwnModifier.model_validate(one) for one in named]
    makes: list[dict[str, Any]] = [
        {"zoom_max_mm": 105}, {"mount": "small", "kind": "monobloc"}, {"name": "Own"}, {"takes_modifiers": False},
    ]  # fmt: skip
    usual = {"name": "U", "claims": [{"guide_number": 50, "unit": "m", "zoom_mm": 35}]}
    units = [Unit.model_validate(usual | make) for make in makes]
    table, dark = table_of(units), Setup.model_validate({"ambient": {"condition": "dark"}, "lights": [{}]})
    taken = []
    for front in fronts:
        lit = dark.model_copy(update={"lights": (dark.lights[0].model_copy(update={"modifier": front}),)})
        blocked = [BLOCKERS[one] for one in solve(lit, table).reach("sync").blocker.tolist()]
        for at, unit in enumerate(units):
            takes = unit.takes(front)
            taken.append(takes)
            assert (blocked[at] == "") == table.takes(front)[at] == takes
            assert (compared(table, at, front).through is not None) == takes
            assert (on_kit(dark, OwnKit(unit=unit, modifier=front)).lights[0].modifier is not None) == takes
    assert taken == [bool(int(one)) for one in "10001010101011001110"]


def test_a_setup_is_put_on_what_a_person_owns_and_keeps_the_rest() -> None:
    own = {"name": "Own", "sync_s": 1 / 200}
    filters = (OwnFilter.model_validate({"id": "f", "name": "Six", "stops": 6}),)
    lights = [{"distance_m": 3}, {"role": "fill"}]
    plain = Setup.model_validate({"lights": lights, "filters": [{"name": "Three", "stops": 3}]})
    assert on_kit(plain, OwnKit(lens=plain.lens)) == plain
    there = on_kit(plain, OwnKit(body=OwnBody.model_validate(own | {"id": "b"}), filters=filters, lens=plain.lens))
    assert (there.body.name, there.filters, there.triggers) == ("Own", filters, plain.triggers)
    assert there.lights == plain.lights
    front = OwnModifier.model_validate({"id": "m", "name": "M", "stops": -1})
    lit = on_kit(plain, OwnKit(lens=plain.lens, modifier=front))
    assert [light.modifier is not None for light in lit.lights] == [True, False]
    assert lit.filters == plain.filters
