"""The tables that answer on location: every mark brings what the setup solved anew there has."""

import math
from dataclasses import replace
from typing import Any

import pytest

from jumpstop.core.physics.shutter import hss_loss
from jumpstop.core.plan.change.pocket import SHARE_FROM, Pocket, PocketMark, pocket_of, share_table
from jumpstop.core.plan.light.one_unit import with_light
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.setup import Setup
from scenes import NAMES, NOON, SHELF, TABLE, at

UNIT = NAMES.index("Redshank 60")
TWO = NOON.model_copy(
    update={"lights": (NOON.lights[0], NOON.lights[0].model_copy(update={"role": "fill", "target_stops": -1.0}))}
)


def pocket(kind: Any, setup: Setup = TWO, **more: Any) -> Pocket:
    return pocket_of(solve(setup, TABLE), kind, (UNIT, UNIT), more.get("step", "third"), more.get("feet", False))


def adds(marks: tuple[PocketMark, ...]) -> dict[float, float]:
    return {one.value: one.stops for one in marks}


@pytest.mark.parametrize("kind", ["nd", "hss"])
def test_the_camera_of_a_card_counts_from_the_plan(kind: Any) -> None:
    """D: a stop for the square root of two in aperture, for twice the ISO or the time, four stops either way and no
    more; what is planned adds nothing."""
    found, camera = pocket(kind), solve(TWO, TABLE).method(kind).camera
    f_numbers, isos, times, nds = (adds(one) for one in (found.apertures, found.isos, found.shutters, found.nds))
    assert found.apertures[found.aperture] == PocketMark(camera.f_number, 0)
    assert found.isos[found.iso] == PocketMark(camera.iso, 0)
    assert found.shutters[found.shutter] == PocketMark(camera.shutter_s, 0)
    assert found.nds[found.nd] == PocketMark(camera.nd_stops, 0)
    f, iso = camera.f_number, camera.iso
    assert {one: f_numbers[one] for one in (1.4, 2.0, 4.0, 5.6)} == pytest.approx(
        {one: 2 * (round(2 * math.log2(f)) - round(2 * math.log2(one))) / 2 for one in (1.4, 2.0, 4.0, 5.6)}
    )
    assert (isos[iso * 2], isos[iso * 16]) == pytest.approx((1, 4), abs=1e-6)
    assert max(isos) == iso * 16
    assert min(isos) == TWO.body.iso_min  # within four stops
    short = TWO.model_copy(update={"body": TWO.body.model_copy(update={"iso_max": 800.0})})
    assert max(adds(pocket(kind, short).isos)) == 800
    slow = TWO.model_copy(update={"body": TWO.body.model_copy(update={"top_speed_s": 1 / 4000}),
                                  "aim": TWO.aim.model_copy(update={"f_number": 5.6})})  # fmt: skip
    assert min(adds(pocket(kind, slow).shutters)) == (1 / 4000 if kind == "hss" else 1 / 250)
    for time, stops in times.items():
        assert stops == pytest.approx(math.log2(time / camera.shutter_s), abs=0.07)  # marks are not exact
        assert (time < 1 / 250) == (kind == "hss")  # one clean pulse is whole at sync and slower alone
    assert max(map(abs, times.values())) <= 4
    assert nds == pytest.approx({one: camera.nd_stops - one for one in {*range(11), camera.nd_stops}})
    ambient = solve(TWO, TABLE).ambient
    assert (found.lit, found.background) == (ambient.lit_ev - camera.ev, ambient.background_ev - camera.ev)
    assert len(pocket(kind, step="full").apertures) < len(found.apertures) / 2


def test_a_light_of_a_card_is_the_light_solved_anew() -> None:
    """At every distance what is in hand grows by what the mark adds; HSS by the published train (2.32 at 1/1000)."""
    found, solved = pocket("hss"), solve(TWO, TABLE)
    camera = solved.method("hss").camera
    for number, light in enumerate(found.lights):
        reach = solved.reach("hss", number)
        assert (light.light, light.unit) == (number, UNIT)
        assert light.holds_ambient == (number == 0)
        assert (light.wanted, light.dial_stops) == (reach.wanted_stops, float(reach.below_full[UNIT]))
        assert (light.step, light.least, light.most) == (0.1, 0, pytest.approx(float(TABLE.dial_range[UNIT])))
        assert light.distances[light.distance] == PocketMark(1.8, 0)
        for mark in light.distances[::5]:
            there = solve(with_light(TWO, number, distance_m=mark.value), TABLE).reach("hss", number)
            assert float(there.spare[UNIT] - reach.spare[UNIT]) == pytest.approx(mark.stops, abs=1e-6)
        for mark, stops in zip(found.shutters, light.shutters, strict=True):
            train = float(hss_loss(camera.shutter_s, TWO.body.curtain_s)) - float(
                hss_loss(mark.value, TWO.body.curtain_s)
            )
            assert stops == pytest.approx(train, abs=0.02)
    feet = pocket("hss", feet=True).lights[0]
    assert {round(one.value / 0.3048, 3) for one in feet.distances} >= {1.5, 2, 6}
    assert all(
        stops == pytest.approx(0) for stops in pocket("nd").lights[0].shutters
    )  # a pulse is whole at any of them
    half = TWO.model_copy(update={"lights": (TWO.lights[0].model_copy(update={"on": False}), TWO.lights[1])})
    assert [one.light for one in pocket("nd", half).lights] == [1]
    assert [one.light for one in pocket_of(solve(TWO, TABLE), "nd", (None, UNIT), "third", False).lights] == [1]


def test_the_flash_of_a_card_is_what_the_dial_is_counted_from() -> None:
    """In the dark: stops in hand are what full power gives over what is wanted."""
    dark = Setup.model_validate(
        {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": [{"distance_m": 3} | at(20)]}
    )
    solved = solve(dark, TABLE)
    (light,) = pocket_of(solved, "sync", (UNIT,), "third", False).lights
    assert light.flash - light.wanted == pytest.approx(float(solved.reach("sync").spare[UNIT]), abs=1e-3)
    assert light.cut != bool(TABLE.tailed[UNIT])
    tailed = next(at for at, unit in enumerate(SHELF) if TABLE.tailed[at])
    short = replace(solved.method("sync").camera, shutter_s=1 / 250)
    assert short.shutter_s <= 1 / 250
    (tail,) = pocket_of(solved, "sync", (tailed,), "third", False).lights
    assert not tail.cut
    assert min(tail.clips) <= 0 == pytest.approx(max(tail.clips), abs=0.2)


def test_what_the_ambient_leaves_the_flash_to_give() -> None:
    """D: log2(1 - 2^x), x stops of ambient against the wanted: a stop under leaves half; bounded where none is left."""
    table = share_table()
    step = (len(table)) / -SHARE_FROM
    for under, share in ((-1, -1.0), (-2, math.log2(0.75)), (-8, 0.0)):
        assert table[round((under - SHARE_FROM) * step)] == pytest.approx(share, abs=0.006)
    assert table == sorted(table, reverse=True)
