"""The shutter's one integral against numerical integration, and everything that comes out of it."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate

from jumpstop.core.physics import shutter
from jumpstop.core.physics.pulse import HssPulseTrain, cut_pulse, tail_pulse
from jumpstop.core.physics.shutter import ShutterExposure
from jumpstop.core.plan.camera.methods import dark_edge

TRAVEL = 1 / 250


def numeric(met: ShutterExposure, row: float) -> float:
    """One row's exposure by quadrature of the light over the time in which it is open."""
    opens = row * met.travel_s
    edges = [met.fired_s, met.fired_s + met.burn.length_s]
    inside = [edge for edge in edges if opens < edge < opens + met.shutter_s]
    value, _ = integrate.quad(
        lambda t: float(met.burn.level(t - met.fired_s)), opens, opens + met.shutter_s, points=inside or None, limit=200
    )
    return float(value)


MEETINGS = {
    "HSS 1/2000": ShutterExposure(HssPulseTrain(TRAVEL + 1 / 2000), 1 / 2000, TRAVEL, 0.0),
    "HSS 1/500, steep": ShutterExposure(HssPulseTrain(TRAVEL + 1 / 500, 1.2), 1 / 500, TRAVEL, 0.0),
    "slow tail at sync": ShutterExposure(tail_pulse(1 / 300), 1 / 250, 0.7 / 250, 0.7 / 250),
    "cut pulse": ShutterExposure(cut_pulse(1 / 4000, 1 / 400), 1 / 400, TRAVEL, TRAVEL),
    "leaf 1/1600": ShutterExposure(tail_pulse(1 / 600), 1 / 1600, 0.0, 0.0),
    "past sync 1/400": ShutterExposure(tail_pulse(1 / 8000), 1 / 400, TRAVEL, TRAVEL),
}


@pytest.mark.parametrize("name", MEETINGS)
def test_closed_forms_agree_with_quadrature(name: str) -> None:
    """D: to 0.02 stop, row by row, where a row gets anything to speak of."""
    met = MEETINGS[name]
    rows = met.rows(count=9)
    for row, closed in zip(np.linspace(0, 1, 9), rows, strict=True):
        value = numeric(met, float(row))
        if value > 1e-3:
            assert math.log2(closed / value) == pytest.approx(0, abs=0.02), row
        else:
            assert closed < 2e-3


@pytest.mark.parametrize(("time", "loss"), [(500, 1.58), (1000, 2.32), (2000, 3.17), (4000, 4.09), (8000, 5.04)])
def test_hss_loss_comes_out_of_the_integral(time: int, loss: float) -> None:
    """D: light spread over T + t, on a 1/250 body; a level train gives every row the same."""
    met = ShutterExposure(HssPulseTrain(TRAVEL + 1 / time, 0.0), 1 / time, TRAVEL, 0.0)
    assert -np.log2(met.rows()) == pytest.approx(loss, abs=0.006)
    assert float(shutter.hss_loss(1 / time, TRAVEL)) == pytest.approx(loss, abs=0.006)


def test_in_hss_a_faster_shutter_buys_next_to_nothing() -> None:
    """D: from 1/500 to 1/1000 on a 1/250 body the flash loses .74 of the ambient's one stop: .26 gained, then less."""
    gains = [
        1 - float(np.diff(shutter.hss_loss(np.array([t, t / 2]), TRAVEL))[0]) for t in (1 / 500, 1 / 1000, 1 / 2000)
    ]
    assert gains[0] == pytest.approx(0.26, abs=0.005)
    assert gains[0] > gains[1] > gains[2] > 0


@pytest.mark.parametrize(("time", "lit"), [(320, 0.78), (400, 0.625), (500, 0.50), (800, 0.31)])
def test_past_sync_part_of_the_frame_stays_dark(time: int, lit: float) -> None:
    """D, and common practice agrees: t / T of the frame gets a short pop; the rows that opened first are dark."""
    assert float(shutter.lit_fraction(1 / time, TRAVEL)) == pytest.approx(lit, abs=0.005)
    assert float(shutter.lit_fraction(1 / 60, TRAVEL)) == 1
    rows = ShutterExposure(tail_pulse(1 / 40000), 1 / time, TRAVEL, TRAVEL).rows(count=2001)
    bright = rows > 0.5
    assert bright.mean() == pytest.approx(lit, abs=0.01)
    assert not bright[0]
    assert bright[-1]


def test_the_dark_edge_turns_with_the_camera() -> None:
    """D: a quarter turn anticlockwise (grip up) brings the picture's bottom to its right, and its top to its left."""
    assert [dark_edge("bottom", held) for held in ("landscape", "grip_up", "grip_down")] == ["bottom", "right", "left"]
    assert [dark_edge("top", held) for held in ("landscape", "grip_up", "grip_down")] == ["top", "left", "right"]
    assert dark_edge("unknown", "landscape") == ""


def test_t01_and_t05_of_a_tail() -> None:
    """D: an exponential has given half its peak's light away at t.5, nine tenths of its whole at t.1 = 3.32 t.5."""
    pop = tail_pulse(1 / 300)
    assert float(pop.given(1 / 300)) == pytest.approx(0.9)
    assert float(pop.level(1 / 300 / 3.3219)) == pytest.approx(float(pop.level(0)) / 2, rel=1e-3)
    assert float(shutter.caught(1 / 300, 1 / 300)) == pytest.approx(0.9)


@given(st.floats(1 / 8000, 1 / 30), st.floats(1 / 1000, 1 / 60), st.floats(1 / 50000, 1 / 200), st.booleans())
def test_no_row_gets_more_than_the_whole_flash(time: float, travel: float, t01: float, hss: bool) -> None:
    """D: energy. And what has fallen never grows less."""
    burn = HssPulseTrain(travel + time) if hss else tail_pulse(t01)
    met = ShutterExposure(burn, time, travel, 0.0 if hss else travel)
    rows = met.rows()
    assert np.all((rows >= 0) & (rows <= 1 + 1e-12))
    got = met.rows(np.linspace(0, met.length_s, 12))
    assert got.shape == (12, shutter.ROWS)
    assert np.all(np.diff(got, axis=0) >= -1e-12)


def test_a_cut_pulse_is_over_when_it_is_cut() -> None:
    """D: it starts down the curve of full power, and all of its light has come at its t.1."""
    pulse = cut_pulse(1 / 4000, 1 / 400)
    assert float(pulse.given(1 / 4000)) == pytest.approx(1)
    assert float(pulse.level(1 / 3900)) == 0
    assert float(pulse.level(-1e-6)) == 0
    assert pulse.length_s == pytest.approx(1 / 4000)
    assert float(pulse.given(1 / 8000)) == pytest.approx((1 - 10**-0.05) / (1 - 10**-0.1))
    tail = tail_pulse(1 / 400)
    assert tail.length_s == pytest.approx(7 / 400 / math.log(10))


def test_a_train_falls_by_its_droop() -> None:
    """M: 0.4 stop from its first pulse to its last; D: all of its light has come at its end, none after it."""
    train = HssPulseTrain(0.005)
    assert math.log2(float(train.level(0)) / float(train.level(0.005))) == pytest.approx(0.4)
    assert float(train.given(0.005)) == pytest.approx(1)
    assert float(train.level(0.0051)) == 0
    hss = ShutterExposure(train, 1 / 1000, TRAVEL, 0.0)
    assert hss.evenness_stops() == pytest.approx(0.4 * TRAVEL / 0.005, abs=0.01)


def test_curtains_and_the_end_of_an_exposure() -> None:
    """D: the second curtain starts a shutter time after the first; both take the travel."""
    exposed = ShutterExposure(tail_pulse(1 / 8000), 1 / 500, TRAVEL, TRAVEL)
    first, second = exposed.curtains(np.array([-0.001, 0.0, 0.001, 0.003, 0.006, 0.02]))
    assert first == pytest.approx([0, 0, 0.25, 0.75, 1, 1])
    assert second == pytest.approx([0, 0, 0, 0.25, 1, 1])
    assert exposed.length_s == pytest.approx(TRAVEL + 1 / 500)
    assert exposed.rows(-0.001, 5) == pytest.approx([0] * 5)  # nothing is open yet
    slow = ShutterExposure(tail_pulse(1 / 8000), 1.0, TRAVEL, TRAVEL)
    assert slow.length_s == pytest.approx(2 * TRAVEL + 3 * 7 / 8000 / math.log(10))
    assert exposed.evenness_stops() == pytest.approx(0, abs=0.2)
    missed = ShutterExposure(tail_pulse(1 / 8000), 1 / 500, TRAVEL, 1.0)
    assert missed.evenness_stops() == 0  # no row is lit
