"""Relations against the world. Beside each: P published source, D definition, CP common practice, M from memory."""

import doctest
import math
import pkgutil
import re
from functools import partial
from importlib import import_module
from inspect import isfunction
from types import ModuleType
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate
from scipy.special import ndtr

from jumpstop.core import physics
from jumpstop.core.physics import (
    battery,
    beam,
    colour,
    daylight,
    exposure,
    falloff,
    group,
    motion,
    optics,
    placing,
    pulse,
    scales,
    shutter,
    sides,
    stand,
    stops,
    tone,
    units,
)  # fmt: skip
from jumpstop.core.physics import guide_number as gn
from jumpstop.core.physics.light_values import LIGHT_VALUES
from tables import rows


@pytest.mark.parametrize(
    ("f_number", "shutter_s", "iso", "ev"),
    [
        (8, 1 / 500, 100, 14.97),  # P: APEX, Exif 2.32 Annex C, with the marks taken literally
        (16, 1 / 125, 100, 14.97),
        (1, 1, 100, 0),  # P: EV 0 is f/1 for one second
        (5.657, 1 / 64, 400, 9.0),
        (2, 1 / 8, 200, 4.0),
    ],
)
def test_exposure_in_apex(f_number: float, shutter_s: float, iso: float, ev: float) -> None:
    assert float(exposure.ev100(f_number, shutter_s, iso)) == pytest.approx(ev, abs=0.005)
    assert float(exposure.shutter_for(ev, f_number, iso)) == pytest.approx(shutter_s, rel=0.004)
    assert float(exposure.aperture_for(ev, shutter_s, iso)) == pytest.approx(f_number, rel=0.002)


def test_marked_settings_are_computed_exactly() -> None:
    """P: ISO 517, ISO 516: f/8 is 8, 1/500 is 1/512: EV 15 exactly."""
    assert scales.marked_ev100(8, 1 / 500, 100) == pytest.approx(15)
    assert scales.marked_ev100(16, 1 / 125, 100) == pytest.approx(15)
    assert float(exposure.stops_between(1 / 1000, 1 / 250)) == pytest.approx(2)


def test_meters() -> None:
    """P: ISO 2720:1974 with C = 250: EV 0 is 2.5 lx, EV 15 is 81,920 lx; at C = 330 EV 0 is 3.3 lx."""
    assert float(exposure.ev_of_lux(2.5)) == pytest.approx(0)
    assert float(exposure.ev_of_lux(81_920)) == pytest.approx(15)
    assert float(exposure.ev_of_lux(3.3, 330)) == pytest.approx(0)


# P: full stops as cameras engrave them, ISO 517, ISO 516, ISO 12232; a count of stops from the first.
FULL: dict[str, tuple[scales.Series, list[float], Any]] = {
    "apertures": (scales.APERTURES, [1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64], lambda n: 2 ** (n / 2)),
    "times": (
        scales.SHUTTERS,
        [1 / n for n in (1, 2, 4, 8, 15, 30, 60, 125, 250, 500, 1000, 2000, 4000, 8000)],
        lambda n: 2.0**-n,
    ),
    "speeds": (scales.ISOS, [25 * 2**n for n in range(11)], lambda n: 25 * 2.0**n),
}
# P: thirds and halves between f/4 and f/8 and between 1/60 and 1/250 (ISO 517, ISO 516).
PARTS = [
    (scales.APERTURES, "third", [4, 4.5, 5, 5.6, 6.3, 7.1, 8]),
    (scales.APERTURES, "half", [4, 4.8, 5.6, 6.7, 8]),
    (scales.SHUTTERS, "third", [1 / 60, 1 / 80, 1 / 100, 1 / 125, 1 / 160, 1 / 200, 1 / 250]),
    (scales.SHUTTERS, "half", [1 / 60, 1 / 90, 1 / 125, 1 / 180, 1 / 250]),
    (scales.ISOS, "third", [100, 125, 160, 200, 250, 320, 400]),
    (scales.ISOS, "half", [100, 140, 200, 280, 400]),
]


@pytest.mark.parametrize("name", FULL)
def test_full_stops_lie_at_whole_powers(name: str) -> None:
    series, marks, exact = FULL[name]
    for count, mark in enumerate(marks):
        assert series.exact(mark) == pytest.approx(exact(count)), mark
        assert series.marked(exact(count), "full") == pytest.approx(mark)
    assert set(marks) <= set(series.steps["full"])


@pytest.mark.parametrize(("series", "step", "marks"), PARTS)
def test_parts_of_a_stop_lie_evenly_between(series: scales.Series, step: scales.Step, marks: list[float]) -> None:
    places = np.log([float(series.exact(mark)) for mark in marks]) / math.log(series.ratio)
    assert np.diff(places) == pytest.approx(1 / (3 if step == "third" else 2))
    for mark in marks:
        assert series.marked(float(series.exact(mark)), step) == pytest.approx(mark)


MARKS = {(name, step): marks for name, step, marks in rows("marks")}


@pytest.mark.parametrize(("name", "step"), MARKS)
def test_the_marked_series_line_by_line(name: str, step: scales.Step) -> None:
    marks = [1 / float(mark[2:]) if mark.startswith("1/") else float(mark) for mark in MARKS[name, step].split()]
    series = FULL[name][0]
    assert [mark for mark in series.steps[step] if mark in marks] == pytest.approx(marks)
    for place, mark in enumerate(marks):  # evenly spaced in exact stops, whatever the mark says
        size = 1 / 3 if step == "third" else 1 / 2
        first = math.log(series.exact(marks[0])) / math.log(series.ratio)
        assert series.marked(series.ratio ** (first + place * size), step) == pytest.approx(mark)


@pytest.mark.parametrize("series", [scales.APERTURES, scales.SHUTTERS, scales.ISOS])
def test_every_mark_rounds_its_exact_value(series: scales.Series) -> None:
    """P: no mark is farther than a sixth of a stop from the exact series."""
    for step, marks in series.steps.items():
        for mark in marks:
            assert abs(math.log(series.exact(mark) / mark) / math.log(series.ratio)) < 0.17, mark
        assert marks == tuple(sorted(marks, reverse=series.ratio < 1))
        assert len(marks) == len(set(marks)), step


def test_a_mark_of_two_series_is_the_nearer_of_both() -> None:
    """D: 6 lies 2.585 stops over a second: nearer to 8/3, a third (6.35), than to 5/2, a half (5.66)."""
    assert scales.SHUTTERS.exact(6.0) == pytest.approx(2 ** (8 / 3))
    assert scales.SHUTTERS.exact(1 / 6) == pytest.approx(2 ** (-8 / 3))


def test_a_value_off_the_scale_stays_and_an_array_is_taken() -> None:
    assert scales.APERTURES.exact(5.2) == 5.2
    assert scales.APERTURES.exact(5.66) == pytest.approx(2**2.5)  # typed as it is exactly
    assert scales.SHUTTERS.exact(np.array(1 / 60)) == pytest.approx(1 / 64)
    assert scales.SHUTTERS.exact(np.array([1 / 60, 1 / 250])) == pytest.approx([1 / 64, 1 / 256])
    assert scales.ISOS.exact(110) == 110


def test_a_mark_can_be_asked_for_above_or_below() -> None:
    assert scales.APERTURES.marked(5.8, "third", "up") == 6.3
    assert scales.APERTURES.marked(5.8, "third", "down") == 5.6
    assert scales.SHUTTERS.marked(1 / 300, "third", "up") == 1 / 250
    assert scales.SHUTTERS.marked(1 / 300, "third", "down") == 1 / 320
    assert scales.ISOS.marked(566, "third", "down") == 500
    assert scales.APERTURES.marked(5.66, "third", "up") == 5.6  # as good as on the mark
    assert scales.APERTURES.marked(999, "full") == 64
    assert scales.SHUTTERS.marked(1e-9, "full") == 1 / 32000
    assert scales.ISOS.marked(1, "full") == 25


def test_light_adds_linearly() -> None:
    """D: two equal lights are a stop more; 2^flash + 2^ambient = 2^target."""
    assert float(stops.add_light(0, 0)) == pytest.approx(1)
    assert float(stops.add_light(-1, -1, 0)) == pytest.approx(1)
    assert float(stops.add_light(-2, -np.inf)) == pytest.approx(-2)
    for ambient, flash in ((-1, -1.0), (-2, -0.415), (-3, -0.193)):  # D, handbook section 6
        assert float(stops.flash_share(ambient)) == pytest.approx(flash, abs=0.001)
    assert float(stops.flash_share(-1, 1)) == pytest.approx(math.log2(2 - 0.5))
    assert float(stops.flash_share(0.5)) == -math.inf
    assert np.asarray(stops.flash_share(np.array([-1.0, 0.0]))) == pytest.approx([-1, -np.inf])


def test_the_chance_to_reach_is_the_normal_distribution() -> None:
    """P: the normal distribution, as in SciPy's ndtr."""
    spare, sd = np.array([-1.0, 0.0, 0.3, 2.0]), np.array([0.5, 0.5, 0.3, 0.0])
    assert stops.p_reach(spare, sd) == pytest.approx(ndtr(spare / np.maximum(sd, 1e-9)))
    assert float(stops.stops_of(8.0)) == 3


def test_guide_numbers() -> None:
    """P: ISO 1230:2007. D: 190 ft at ISO 200 is 40.9 m at ISO 100."""
    assert pytest.approx(1 / 0.3048, abs=1e-4) == units.FEET_PER_METRE
    assert float(gn.in_metres(190, 200, feet=True)) == pytest.approx(40.95, abs=0.01)
    assert float(gn.in_metres(58)) == 58
    assert float(gn.stops_of_guide_number(58 / 3)) == pytest.approx(2 * math.log2(19.33), abs=0.001)
    assert float(gn.guide_number_of_stops(gn.stops_of_guide_number(36.0))) == pytest.approx(36)
    assert float(gn.beam_candela_seconds(36)) == pytest.approx(3240)  # D, at C = 250
    assert float(gn.beam_candela_seconds(10.1)) == pytest.approx(255.025)
    assert float(gn.guide_number_of_bcps(3240)) == pytest.approx(36)
    assert float(gn.guide_number_of_bcps(3240, iso=400)) == pytest.approx(72)
    by_hand = math.sqrt(400 * 35 / (2 * math.pi * (1 - math.cos(math.radians(32.5)))) * 100 / 250)
    assert by_hand == pytest.approx(75, abs=0.5)  # M: 35 lm/W into 65 degrees
    assert float(gn.guide_number_of_ws(400)) == pytest.approx(by_hand)
    assert float(gn.guide_number_of_ws(400, c=330)) == pytest.approx(by_hand * math.sqrt(250 / 330))
    assert math.log2(gn.guide_number_of_ws(200) / gn.guide_number_of_ws(80)) * 2 == pytest.approx(1.32, abs=0.005)  # CP


@pytest.mark.parametrize(("zoom", "angle"), [(24, 84.1), (35, 63.4), (50, 46.8), (105, 23.3), (200, 12.3)])
def test_coverage(zoom: float, angle: float) -> None:
    """D: diagonal of 36 x 24 mm."""
    assert float(beam.coverage_deg(zoom)) == pytest.approx(angle, abs=0.06)


def test_beams() -> None:
    """D: a hemisphere is 2 pi. From memory: makers' zoom tables gain 1.2 to 1.8 stops from 35 to 200 mm."""
    assert float(beam.solid_angle_sr(180)) == pytest.approx(2 * math.pi)
    assert float(beam.solid_angle_sr(60)) == pytest.approx(2 * math.pi * (1 - math.cos(math.pi / 6)))
    moved = float(beam.moved_stops(beam.coverage_deg(35), beam.coverage_deg(200)))
    assert moved == pytest.approx(0.4 * 4.72, abs=0.03)
    assert float(beam.moved_stops(20, 40)) == pytest.approx(-float(beam.moved_stops(40, 20)))


def test_distance_and_faces() -> None:
    """D: inverse square. P: Lambert's disc and rectangle (Walsh); five-times rule (IES Lighting Handbook)."""
    assert float(falloff.inverse_square(1.4) - falloff.inverse_square(2)) == pytest.approx(1.03, abs=0.002)
    assert float(falloff.inverse_square(4)) == -4
    assert float(falloff.spill(2, 4)) == -2
    for distance, loss in ((0.5, -1.14), (1, -0.38), (2, -0.10)):
        assert float(falloff.disc_close_up(0.55, distance)) == pytest.approx(loss, abs=0.006)
        assert float(falloff.close_up(1.1, None, distance)) == pytest.approx(loss, abs=0.006)
    assert float(beam.spread_stops(24, 14)) == pytest.approx(-0.99, abs=0.005)  # physics 13
    assert float(beam.frame_solid_angle_sr(1e-6)) == pytest.approx(2 * math.pi, abs=1e-4)  # all that lies ahead
    for width, height in ((0.0, None), (1.5, None), (0.9, 1.2)):
        for more in (-2.0, -1.0, 0.3, 1.0):
            there = float(falloff.distance_where(more, 2.0, width, height))
            gained = falloff.inverse_square(there) - falloff.inverse_square(2.0)
            if width:
                gained += falloff.close_up(width, height, there) - falloff.close_up(width, height, 2.0)
            assert float(gained) == pytest.approx(more, abs=1e-9)
    assert float(falloff.distance_where(1, 2.0)) == pytest.approx(math.sqrt(2))
    assert float(falloff.distance_where(1, 2.0, 1.5)) == pytest.approx(1.3110, abs=1e-4)  # (4 + .5625) / 2 - .5625
    for width, height in (
        (1.5, None),
        (0.9, 1.2),
    ):  # against the face a disc gives log2(d^2 / r^2 + 1) more, and no more
        most = -falloff.close_up(width, height, 2.0) + (math.log2(4 / 0.5625) if height is None else 0)
        assert math.isnan(float(falloff.distance_where(float(most) + 9, 2.0, width, height)))
    assert float(falloff.rectangle_close_up(0.9, 1.2, 1)) == pytest.approx(-0.45, abs=0.005)
    assert float(falloff.close_up(0.3, 1.2, 1)) == pytest.approx(-0.31, abs=0.005)
    assert (
        2 ** float(falloff.rectangle_close_up(1, 1, 5 * math.sqrt(2))) > 0.99
    )  # its largest dimension is the diagonal


@pytest.mark.parametrize(("width", "height", "distance"), [(0.6, 0.9, 0.5), (1.2, 0.3, 0.8), (1, 1, 2)])
def test_a_rectangles_closed_form_agrees_with_integration(width: float, height: float, distance: float) -> None:
    """P: Lambert's law, each element by cos^2 / r^2, integrated by SciPy; against all of it at the centre."""
    whole, _ = integrate.dblquad(
        lambda y, x: distance**4 / (x * x + y * y + distance**2) ** 2, -width / 2, width / 2, -height / 2, height / 2
    )
    expected = math.log2(whole / (width * height))
    assert float(falloff.rectangle_close_up(width, height, distance)) == pytest.approx(expected, abs=1e-6)


def test_depth_of_field_and_blur() -> None:
    """P: Ray, Applied Photographic Optics, worked examples."""
    assert optics.hyperfocal_m(35, 4) == pytest.approx(10.24, abs=0.005)
    assert optics.depth_of_field_m(85, 2, 2.5) == pytest.approx((2.451, 2.551), abs=0.0006)
    assert optics.blur_disc_mm(85, 2, 2.5, 10) == pytest.approx(1.12, abs=0.003)
    assert optics.blur_disc_mm(24, 2.8, 2, 3) == pytest.approx(0.0347, abs=0.0003)
    assert optics.depth_of_field_m(24, 16, 3)[1] == np.inf
    assert float(optics.depth_of_field_m(24, 2.8, 6.4)[1]) == pytest.approx(6.4 * 6.857 / 0.481, rel=0.005)  # near H
    # s f^2 / (f^2 - N c (s - f)), as Ray has it too: a metre short of the hyperfocal distance
    assert float(optics.depth_of_field_m(35, 4, 9)[1]) == pytest.approx(9 * 1225 / (1225 - 4 * 0.03 * 8965))
    assert optics.coc_mm(math.hypot(36, 24)) == pytest.approx(0.03)
    assert optics.coc_mm(math.hypot(18, 12)) == pytest.approx(0.015)
    assert optics.f_number_for_disc(85, 2.5, 10, 1.122) == pytest.approx(2, abs=0.01)


@given(st.floats(1, 22), st.floats(1, 20), st.floats(1.1, 50))
def test_blur_grows_with_aperture_and_distance(n: float, subject: float, times: float) -> None:
    """D: monotone in all three."""
    disc = optics.blur_disc_mm(85, n, subject, subject * times)
    assert disc < optics.blur_disc_mm(85, n / 1.1, subject, subject * times)
    assert disc < optics.blur_disc_mm(85, n, subject, subject * times * 1.1)
    near, far = optics.depth_of_field_m(85, n, subject)
    assert near < subject < far


def test_motion() -> None:
    """D: water fallen 0.2 m is 1.98 m/s; in a field of 0.6 m on 36 mm 0.03 mm of blur is 1/3,960 s (CP: 1/4000)."""
    speed = motion.fall_speed(0.2)
    assert speed == pytest.approx(1.98, abs=0.001)
    assert 1 / motion.longest_s(speed, 0.03, 36, 0.6) == pytest.approx(3960, abs=2)
    assert motion.blur_mm(2, 1 / 1000, 36, 0.6) == pytest.approx(0.12)


def test_filters_gels_and_stamina() -> None:
    """D: mired shift, 5500 to 3200 K +131. M: Wh x 3600 x 0.55 / Ws, four AA of 9.6 Wh give 250 flashes of 76 Ws."""
    assert float(colour.mired_shift(5500, 3200)) == pytest.approx(131, abs=0.4)
    assert battery.full_flashes_of(9.6, 76) == pytest.approx(250, abs=0.2)
    assert battery.full_flashes_of(10, 55) == pytest.approx(360)
    assert battery.charges_for(501, np.array([250.0, np.inf])).tolist() == [3, 0]
    assert battery.recycle_s(np.array([1.0, 0.5, 0.0]), 2.5, 0.1) == pytest.approx([2.5, 1.3, 0.1])
    assert battery.flashes_per_charge(np.array([1.0, 0.25, 1 / 1024]), 200.0) == pytest.approx([200, 800, 20_000])


# P: ANSI PH2.7, exposure guide, EV at ISO 100; the last two columns from memory and the table's own "open shade 12".
TABLE = {
    "sand_or_snow": (16, 13, 14), "distinct_shadows": (15, 12, 13), "hazy_sun": (14, 12, 12.7),
    "cloudy_bright": (13, 12, 12.5), "heavy_overcast": (12, 11, 11.7), "open_shade": (12, 12, 12),
    "after_sunset": (10, 9.5, 9.5), "gallery": (9.5, 9.5, 9.5), "office": (7.5, 7.5, 7.5),
    "interior_night": (6, 6, 6), "floodlit": (4, 4, 4), "dark": (-3, -3, -3),
}  # fmt: skip


def test_the_light_value_table_line_by_line() -> None:
    found = {name: (line.ev, line.ev + line.shade, line.ev + line.back) for name, line in LIGHT_VALUES.items()}
    assert found == {name: pytest.approx(line) for name, line in TABLE.items()}
    assert {name for name, line in LIGHT_VALUES.items() if line.lamps} == {
        "gallery", "office", "interior_night", "floodlit",
    }  # fmt: skip
    spreads = {
        "after_sunset": 1,
        "gallery": 1.5,
        "interior_night": 1,
        "floodlit": 1,
        "dark": 2,
    }  # half the table's range
    assert {name: line.spread for name, line in LIGHT_VALUES.items() if line.spread != 0.5} == spreads


@given(st.floats(0.1, 100), st.floats(1.01, 10))
def test_farther_is_always_darker(distance: float, ratio: float) -> None:
    assert falloff.inverse_square(distance * ratio) < falloff.inverse_square(distance)
    assert falloff.disc_close_up(0.5, distance * ratio) > falloff.disc_close_up(0.5, distance)


ROOMS = [
    import_module(f"{physics.__name__}.{one.name}")
    for one in pkgutil.iter_modules(physics.__path__)
    if one.name not in ("arrays", "light_values", "units")  # types and tables
]


@pytest.mark.parametrize("room", ROOMS, ids=lambda room: room.__name__.rpartition(".")[2])
def test_each_relation_says_what_it_takes_and_its_example_holds(room: ModuleType) -> None:
    done = doctest.testmod(room)
    relations = [
        one
        for name, one in vars(room).items()
        if isfunction(one) and one.__module__ == room.__name__ and name[0] != "_"
    ]
    assert done.failed == 0
    assert done.attempted >= len(relations)
    for one in relations:
        assert {"Parameters", "Returns", "Examples"} <= set(re.findall(r"^ *(\w+)\n *-+$", one.__doc__ or "", re.M)), (
            one
        )


@pytest.mark.parametrize(
    ("relation", "columns"),
    [
        (optics.coc_mm, [[43.3, 21.6, 28]]), (optics.hyperfocal_m, [[24, 85, 200], [2.8, 8, 16], [0.03, 0.02, 0.015]]),
        (lambda *of: optics.depth_of_field_m(*of)[0], [[24, 85, 35], [2, 8, 16], [3, 2.5, 40]]),
        (lambda *of: optics.depth_of_field_m(*of)[1], [[24, 85, 35], [2, 8, 16], [3, 2.5, 40]]),
        (optics.blur_disc_mm, [[24, 85, 35], [2, 8, 16], [3, 2.5, 1], [9, 2, 40]]),
        (optics.f_number_for_disc, [[24, 85, 35], [3, 2.5, 1], [9, 2, 40], [0.1, 1, 0.03]]),
        (optics.airy_mm, [[1.4, 8, 22]]), (optics.by_hand_s, [[24, 85, 200], [1, 1.5, 2], [0, 3, 5]]),
        (motion.fall_speed, [[0, 0.2, 9]]), (motion.blur_mm, [[1, 2, 9], [0.001, 0.01, 1], [36, 24, 36], [0.6, 2, 9]]),
        (motion.longest_s, [[1, 2, 9], [0.03, 0.02, 0.1], [36, 24, 36], [0.6, 2, 9]]),
        (sides.wrapped_deg, [[0, 405, -181]]), (sides.near_share, [[0, -75, 181], [45, 90, 45]]),
        (sides.far_share, [[0, 20, -60]]), (sides.edge_share, [[0, 90, -135]]),
        (stand.wind_force_n, [[0, 5.5, 12], [0.8, 1, 2], [1.42, 1.17, 1.42]]),
        (stand.ballast_kg, [[0, 21, 90], [1, 2, 3], [0.5, 0.4, 0.6], [4, 4, 6]]),
        (stand.counterweight_kg, [[3, 1, 0.5], [1.5, 2, 1], [0.5, 0.4, 1]]),
        (battery.recycle_s, [[0.1, 0.5, 1], [2, 3, 4], [0.1, 0.2, 0]]), (battery.drained, [[0.001, 0.5, 1]]),
        (battery.flashes_per_charge, [[0.1, 0.5, 1], [250, 480, 90], [0, 0.1, 0.2]]),
        (battery.standby_per_h, [[4, 2, 0], [97, 20, 9], [480, 90, 250]]),
        (battery.capacity_wh, [[250, 480, 90], [76, 400, 9]]),
        (battery.full_flashes_of, [[9.6, 97, 20], [76, 400, 9]]),
        (battery.charges_for, [[600, 100, 9], [480, np.inf, 3]]),
        (lambda celsius: battery.cold_share("nimh", celsius), [[-30, -5, 25]]),
        (battery.mains_a, [[400, 1200, 76], [1.2, 2, 9]]),
        (battery.heat_wait_s, [[80, 10, 90], [1, 2, 1], [1, 0.5, 2], [50, 60, 30], [600, 300, 900]]),
        (group.across_deg, [[3, 6, 9], [2, 4, 9]]), (group.ends_fall, [[3, 6, 9], [2, 4, 9], [2, 3, 2]]),
        (group.off_axis, [[0, 30, -9], [60, 60, 12]]), (falloff.inverse_square, [[0.5, 2, 9]]),
        (falloff.spill, [[1, 2, 3], [2, 2, 9]]), (falloff.disc_close_up, [[0.1, 0.5, 1], [2, 1, 0.3]]),
        (falloff.rectangle_close_up, [[0.1, 0.5, 1], [0.2, 0.4, 2], [2, 1, 0.3]]),
        (partial(falloff.distance_where, width_m=0.9, height_m=1.2), [[0, 1, -1], [2, 3, 1]]),
        (beam.coverage_deg, [[24, 35, 200]]), (beam.moved_stops, [[63, 12, 90], [12, 63, 84]]),
        (beam.spread_stops, [[24, 14, 35], [14, 24, 50]]),
        (exposure.ev100, [[8, 16, 1], [0.002, 0.008, 1], [100, 200, 400]]),
        (exposure.ev_of_lux, [[2, 9, 900], [250, 330, 340]]),
        (gn.in_metres, [[36, 58, 9], [100, 200, 50]]),
        (gn.beam_candela_seconds, [[36, 9, 60], [100, 200, 50], [250, 330, 340]]),
        (gn.guide_number_of_bcps, [[900, 9, 60], [100, 200, 50], [250, 330, 340]]),
        (gn.ws_of_guide_number, [[36, 9, 60], [250, 330, 340]]),
        (gn.guide_number_of_ws, [[76, 400, 9], [65, 40, 90], [35, 30, 45], [250, 330, 340]]),
        (gn.guide_number_of_lux_seconds, [[2250, 9, 60], [2, 1, 3], [250, 330, 340]]),
        (placing.aim_at_m, [[-5, 0, 30], [1, 2, 3], [4, 2, 9]]), (placing.aim_error_m, [[2, 0, -30], [12, 3, 1]]),
        (placing.sun_bearing_deg, [[0, 90, 250], [0, 350, 10]]),
        (placing.bounce_path_m, [[2, 1, 0], [2, 3, 1], [3, 4, 9]]),
        (lambda *of: partial(placing.on_frame, focal_mm=50)(*of)[1],
        [[1, -1, 0], [0, 2, 4], [1, 2, 0], [4, 3, 9], [1, 2, 1], [0, 1, 2]]),
        (lambda *of: partial(placing.on_frame, height_m=1.5, aim_m=1.4, focal_mm=50)(*of)[0],
        [[1, -1, 0], [0, 2, 4], [1, 2, 0], [4, 3, 9]]),
        (daylight.beam_klx, [[5, 30, -1], [1, 172, 300], [0.21, np.inf, 0.8]]),
        (daylight.shadow_m, [[2, 1, 3], [30, 9, 80]]),
        (lambda *of: daylight.panel_shade(*of).shift_m, [[1, 2, 1.5], [2, 3, 2.4], [30, 9, 80]]),
        (lambda *of: daylight.panel_shade(*of).down_to_m, [[1, 2, 1.5], [2, 3, 2.4], [30, 9, 80]]),
        (scales.marked_ev100, [[5.6, 8, 1.4], [1 / 60, 2, 1 / 250], [100, 320, 400]]),
        (scales.SHUTTERS.moved, [[1, 1 / 60, 30], [1, -2, 0.5]]),
        (scales.APERTURES.marked, [[5.66, 3, 7.5]]), (shutter.hss_loss, [[0.001, 0.002, 1], [0.004, 0, 0.01]]),
        (tone.patch_stops, [[0.2, 0.5, 1], [0.18, 0.36, 0.9]]),
        (lambda *of: tone.kelvin_rgb(*of)[..., 2], [[1000, 2900, 9000]]),
        (group.distance_for_ends, [[3, 6, 9], [0.2, 1 / 3, 1], [2, 3, 2]]),
        (group.distance_for_depth, [[1, 2, 4], [0.2, 1 / 3, 1]]),
    ],
)  # fmt: skip
def test_arrays_are_as_their_numbers_one_by_one(relation: Any, columns: list[list[float]]) -> None:
    """Whole numbers too; and a column against a row gives a table."""
    several = relation(*map(np.array, columns))
    assert several == pytest.approx([float(relation(*row)) for row in zip(*columns, strict=True)])
    first, *others = (np.array(column, dtype=float) for column in columns)
    table = relation(first[:, None], *others)
    assert np.shape(table) == (3, 3 if others else 1)


@pytest.mark.parametrize(
    "asked",
    [
        lambda: optics.depth_of_field_m(85, 2, 0.08), lambda: optics.blur_disc_mm(np.array([24, 85]), 2, 0.085, 3),
        lambda: optics.f_number_for_disc(85, 0.05, 3, 1), lambda: motion.fall_speed(-0.1),
        lambda: motion.blur_mm(1, 1, 36, 0), lambda: motion.longest_s(0, 0.03, 36, 1),
        lambda: stand.ballast_kg(21, 2, 0, 4), lambda: stand.counterweight_kg(3, 1, 0),
        lambda: battery.standby_per_h(4, 0, 480), lambda: battery.full_flashes_of(9.6, 0),
        lambda: battery.mains_a(400, 0),
        lambda: battery.mains_a(400, 1, 0), lambda: battery.heat_wait_s(80, 1, 1, 50, 0),
        lambda: battery.burst(0.2, 2, 0, 0, 6),
        lambda: group.across_deg(6, 0), lambda: group.ends_fall(6, -1), lambda: group.off_axis(3, 0),
        lambda: falloff.inverse_square(np.array([1, 0])), lambda: falloff.spill(0, 3), lambda: falloff.spill(3, 0),
        lambda: falloff.close_up(1, None, 0), lambda: falloff.close_up(1, 1, 0), lambda: falloff.distance_where(1, 0),
        lambda: group.distance_for_ends(6, 0), lambda: group.distance_for_depth(2, np.array([0.3, -0.1])),
        lambda: beam.coverage_deg(0), lambda: beam.horizontal_deg(-24), lambda: beam.frame_solid_angle_sr(0),
        lambda: beam.solid_angle_sr(361), lambda: beam.solid_angle_sr(-1), lambda: beam.moved_stops(0, 12),
        lambda: beam.moved_stops(12, 0), lambda: beam.spread_stops(24, 0), lambda: colour.mired_shift(0, 3200),
        lambda: colour.mired_shift(3200, 0), lambda: exposure.av(0), lambda: exposure.tv(0), lambda: exposure.sv(0),
        lambda: exposure.ev100(8, 1, np.array([100, 0])), lambda: exposure.ev_of_lux(-1),
        lambda: exposure.ev_of_lux(9, 0),
        lambda: gn.in_metres(36, 0), lambda: gn.stops_of_guide_number(-1), lambda: gn.beam_candela_seconds(36, 0),
        lambda: gn.guide_number_of_bcps(-1), lambda: gn.guide_number_of_bcps(1, 100, 0),
        lambda: gn.guide_number_of_ws(400, 0),
        lambda: gn.guide_number_of_lux_seconds(-1, 2), lambda: gn.guide_number_of_lux_seconds(1, 2, 0),
        lambda: placing.bounce_path_m(-1, 1, 3), lambda: placing.bounce_path_m(1, -1, 3),
        lambda: placing.wall_path_m(-1, 1, 3),
        lambda: placing.wall_path_m(1, -1, 3), lambda: placing.card_gain(1.1, 2), lambda: placing.card_gain(-0.1, 2),
        lambda: placing.aim_error_m(90, 12), lambda: placing.aim_at_m(-90, 1, 4),
        lambda: placing.flash_to_lens_deg(0.07, 0),
        lambda: daylight.beam_klx(30, 172, -0.1), lambda: daylight.panel_shade(1, 2, 1),
        lambda: daylight.panel_shade(0, 2, 9),
        lambda: daylight.shadow_m(2, 0), lambda: pulse.cut_pulse(0, 1), lambda: pulse.cut_pulse(-1, 1),
        lambda: pulse.cut_pulse(1, 0), lambda: pulse.tail_pulse(0),
        lambda: scales.marked_ev100(0, 1, 100), lambda: scales.ISOS.marked(-1), lambda: shutter.hss_loss(0, 1),
        lambda: shutter.hss_loss(1, -1), lambda: shutter.lit_fraction(1, 0), lambda: shutter.lit_fraction(-1, 1),
        lambda: shutter.caught(0, 1), lambda: shutter.caught(1, -1), lambda: stops.stops_of(-1),
        lambda: stops.p_reach(np.zeros(1), np.array([-1])), lambda: tone.patch_stops(0.2, 0),
    ],
)  # fmt: skip
def test_outside_of_its_domain_a_relation_raises(asked: Any) -> None:
    with pytest.raises(ValueError, match=r"^domain: "):
        asked()


@pytest.mark.parametrize(
    ("asked", "found"),
    [
        (lambda: stops.stops_of(0), -math.inf), (lambda: stops.p_reach(np.array(0.1), np.array(0)), 1),
        (lambda: stops.p_reach(np.array(-0.1), np.array(0)), 0),
        (lambda: exposure.ev_of_lux(0), -math.inf), (lambda: gn.guide_number_of_bcps(0), 0),
        (lambda: motion.fall_speed(0), 0), (lambda: placing.card_gain(0, 2), 0), (lambda: placing.card_gain(1, 2), 2),
        (lambda: placing.bounce_path_m(0, 0, 3), 3), (lambda: placing.wall_path_m(0, 0, 3), 3),
        (lambda: beam.solid_angle_sr(0), 0), (lambda: beam.solid_angle_sr(360), 4 * math.pi),
        (lambda: shutter.hss_loss(0.1, 0), 0), (lambda: shutter.lit_fraction(0, 0.1), 0),
        (lambda: shutter.caught(0.1, 0), 0),
        (lambda: daylight.beam_klx(90, 94, 0), 127.5), (lambda: exposure.av(0.5), -2), (lambda: exposure.tv(0.5), 1),
        (lambda: exposure.sv(0.78125), -7), (lambda: falloff.inverse_square(0.5), 2),
        (lambda: falloff.spill(0.5, 0.5), 0),
        (lambda: falloff.close_up(1, None, 0.5), -1), (lambda: falloff.distance_where(0.5, 2), 2 / 2**0.25),
        (lambda: beam.coverage_deg(0.5), 177.3527), (lambda: beam.moved_stops(0.5, 0.5), 0),
        (lambda: colour.mired_shift(0.5, 0.5), 0), (lambda: gn.in_metres(10, 0.25), 200),
        (lambda: battery.capacity_wh(100, 36), 1 / 0.55), (lambda: battery.full_flashes_of(1, 0.5), 3960),
        (lambda: battery.standby_per_h(0.5, 0.5, 100), 100), (lambda: battery.mains_a(0.5, 0.5, 0.5), 2 / 0.7),
        (lambda: group.across_deg(1, 0.5), 90), (lambda: group.off_axis(0.25, 0.5), -1),
        (lambda: stand.ballast_kg(9.80665, 0.5, 0.5, 0), 2), (lambda: stand.counterweight_kg(0.5, 0.5, 0.5), 0.5),
        (lambda: motion.blur_mm(1, 0.5, 36, 0.5), 36), (lambda: motion.longest_s(0.5, 0.036, 36, 0.5), 0.001),
        (lambda: tone.patch_stops(0.36, 0.36), 0), (lambda: placing.flash_to_lens_deg(0.5, 0.5), 45),
        (lambda: daylight.shadow_m(0.5, 0.5), 0.5 / math.tan(math.radians(0.5))),
    ],
)  # fmt: skip
def test_to_the_end_of_its_domain_a_relation_answers(asked: Any, found: float) -> None:
    """D: nothing gives nothing, and what is small is no less a distance, an angle or a time."""
    assert float(asked()) == pytest.approx(found, rel=2e-3, abs=1e-9)


def test_what_is_unknown_stays_unknown() -> None:
    assert math.isnan(float(falloff.inverse_square(math.nan)))
    assert math.isnan(float(battery.standby_per_h(4, math.nan, math.nan)))
    found = optics.blur_disc_mm(np.array([24.0, 85]), 2, np.array([math.nan, 2.5]), 10)
    assert np.isnan(found).tolist() == [True, False]
