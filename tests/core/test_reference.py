"""Checks against the world. Beside each: P published source, D definition, CP common practice without a source."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jumpstop.core import camera, exposure, flash, modifiers, place, shutter, stamina, stops


def test_exposure_of_marked_settings_is_the_light_value_of_hazy_sun() -> None:
    """P: APEX (Exif 2.32 Annex C); f/8 1/500 and f/16 1/125 at ISO 100: 14.97 as printed, 15 exactly."""
    assert exposure.marked_ev100(8, 1 / 500, 100) == pytest.approx(14.97, abs=0.04)
    assert exposure.marked_ev100(16, 1 / 125, 100) == pytest.approx(14.97, abs=0.04)


def test_meter_constants() -> None:
    """P: ISO 2720:1974 with K = 12.5 and C = 250."""
    assert exposure.lux_of_ev(0) == pytest.approx(2.5)
    assert exposure.lux_of_ev(15) == pytest.approx(81_920)
    assert exposure.luminance_of_ev(0) == pytest.approx(0.125)


@pytest.mark.parametrize("series", [exposure.APERTURES, exposure.SHUTTERS, exposure.ISOS])
def test_every_mark_lies_at_its_exact_value(series: exposure.Series) -> None:
    """P: ISO 517, ISO 516: marks round the exact geometric series, none by more than a sixth of a stop."""
    for marks in series.steps.values():
        for mark in marks:
            off = math.log(series.exact(mark) / mark) / math.log(series.ratio)
            assert abs(off) < 0.17, mark
    assert exposure.APERTURES.exact(5.6) == pytest.approx(2**2.5)
    assert exposure.SHUTTERS.exact(1 / 250) == pytest.approx(1 / 256)


def test_guide_numbers() -> None:
    """P: ISO 1230:2007."""
    assert pytest.approx(19.3, abs=0.05) == 58 / 3
    assert flash.guide_number_at(58, power=0.25) / 3 == pytest.approx(9.67, abs=0.01)
    assert flash.guide_number_at(58, iso=400) / 3 == pytest.approx(38.7, abs=0.05)
    assert flash.Claim(guide_number=190, unit="ft", iso=200).guide_number_m == pytest.approx(40.9, abs=0.06)
    assert flash.beam_candela_seconds(36) == pytest.approx(3240)  # D, at C = 250
    assert flash.guide_number_of_ws(400) == pytest.approx(75, abs=0.6)  # M, 35 lm/W into 65 degrees
    assert stops.stops_of(flash.guide_number_at(1, heads=2) ** 2) == pytest.approx(1.0)
    assert flash.stops_between_energies(80, 200) == pytest.approx(1.32, abs=0.005)  # CP


def test_handbook_constant_is_a_meter_constant() -> None:
    """P: Edgerton, Electronic Flash, Strobe: 15 to 25 in feet is C = 161 to 269 in metres."""
    assert flash.room_constant(15) == pytest.approx(161, abs=1)
    assert flash.room_constant(25) == pytest.approx(269, abs=1)


@pytest.mark.parametrize(("zoom", "angle"), [(24, 84.1), (35, 63.4), (50, 46.8), (105, 23.3), (200, 12.3)])
def test_coverage(zoom: float, angle: float) -> None:
    """D: diagonal of 36 x 24 mm."""
    assert flash.coverage_deg(zoom) == pytest.approx(angle, abs=0.1)


def test_distance_and_faces() -> None:
    """D: inverse square. P: Lambert's disc and rectangle (Walsh); five-times rule (IES Lighting Handbook)."""
    assert place.inverse_square(1.4) - place.inverse_square(2) == pytest.approx(1.03, abs=0.005)
    for distance, loss in ((0.5, -1.14), (1, -0.38), (2, -0.10)):
        assert place.disc_close_up(0.55, distance) == pytest.approx(loss, abs=0.01)
    assert place.rectangle_close_up(0.9, 1.2, 1) == pytest.approx(-0.45, abs=0.005)
    assert place.rectangle_close_up(0.3, 1.2, 1) == pytest.approx(-0.31, abs=0.005)
    assert 2 ** place.rectangle_close_up(1, 1, 5 * math.sqrt(2)) > 0.99  # its largest dimension is the diagonal


def test_filters_and_gels() -> None:
    """D: 2^-stops; mired shift."""
    assert camera.nd_share(4) == pytest.approx(0.0625)
    assert modifiers.mired_shift(5500, 3200) == pytest.approx(131, abs=0.8)


@pytest.mark.parametrize(("denominator", "loss"), [(500, 1.58), (1000, 2.32), (2000, 3.17), (4000, 4.09), (8000, 5.04)])
def test_hss_loss_of_a_250th_body(denominator: int, loss: float) -> None:
    """D: geometry of a slit that travels in 1/250 s; practice says about two stops just past sync (CP)."""
    assert shutter.hss_loss(1 / denominator, 1 / 250) == pytest.approx(loss, abs=0.006)


@pytest.mark.parametrize(("denominator", "lit"), [(320, 0.78), (400, 0.625), (500, 0.50), (800, 0.31)])
def test_lit_part_past_sync(denominator: int, lit: float) -> None:
    """D, and CP agrees."""
    assert shutter.lit_fraction(1 / denominator, 1 / 250) == pytest.approx(lit, abs=0.004)


@pytest.mark.parametrize(("ambient", "share"), [(-1, -1.0), (-2, -0.42), (-3, -0.19)])
def test_flash_fills_up_what_the_ambient_leaves(ambient: float, share: float) -> None:
    """D: light adds linearly."""
    assert exposure.flash_share(ambient) == pytest.approx(share, abs=0.006)
    assert exposure.add_light(share, ambient) == pytest.approx(0, abs=0.006)


def test_charge() -> None:
    """M: Wh x 3600 x 0.55 / Ws; four AA of 9.6 Wh give 250 flashes of 76 Ws."""
    cells = flash.PowerSource(kind="aa", recycle_full_s=3, capacity_wh=9.6)
    assert stamina.full_flashes_of(cells, 76) == pytest.approx(250, abs=1)
    assert stamina.packs_for(501, np.array([250.0, np.inf])).tolist() == [3, 0]


@given(st.floats(0.1, 100), st.floats(1.01, 10))
def test_farther_is_always_darker(distance: float, ratio: float) -> None:
    assert place.inverse_square(distance * ratio) < place.inverse_square(distance)
    assert place.disc_close_up(0.5, distance * ratio) > place.disc_close_up(0.5, distance)


@given(st.floats(0, 7), st.sampled_from(["fraction", "number"]))
def test_a_dial_says_what_it_is_set_to(reduction: float, kind: str) -> None:
    scale = flash.PowerScale(kind=kind, step_stops=0.1)
    text = flash.dial(scale, round(reduction, 1))
    if kind == "number":
        assert 10 - float(text) == pytest.approx(reduction, abs=0.051)
    else:
        fraction, _, rest = text.partition(" +")
        part = {"⅓": 1 / 3, "⅔": 2 / 3, "": 0.0}.get(rest) if rest in ("⅓", "⅔", "") else float(rest)
        below = -math.log2(1 / float(fraction.split("/")[1])) - (part or 0.0)
        assert below == pytest.approx(round(reduction, 1), abs=0.06)
