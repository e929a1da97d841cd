"""How the shutter and the flash of one unit come together in a method."""

import math

from ...kit.table import UnitTable
from ...physics.pulse import HssPulseTrain, cut_pulse, tail_pulse
from ...physics.shutter import ShutterExposure
from ...scene.setup import Setup
from .methods import Method

USUAL_T01_S = 1 / 2000  # a flash turned down a few stops, from memory


def shutter_exposure(setup: Setup, method: Method, t01_s: float, full_t01_s: float, cut: bool) -> ShutterExposure:
    """A flash of this t.1 [s] at its dial (and at full power) in a method; NaN is taken as 1/2000 s.

    cut: whether the unit cuts its pulse off, else it is left to its tail.
    """
    time, body = method.camera.shutter_s, setup.body
    if method.kind == "hss":
        travel = body.curtain_s
        return ShutterExposure(HssPulseTrain(travel + time), time, travel, 0.0)
    travel = body.curtain_s if method.kind == "past_sync" else body.open_travel_s
    if math.isnan(t01_s):
        return ShutterExposure(tail_pulse(USUAL_T01_S), time, travel, travel)
    pulse = cut_pulse(t01_s, max(full_t01_s, t01_s)) if cut else tail_pulse(t01_s)
    return ShutterExposure(pulse, time, travel, travel)


def of_unit(setup: Setup, method: Method, table: UnitTable, unit: int, t01_s: float) -> ShutterExposure:
    """The same for a unit of the shelf at a dial at which its flash lasts t01_s."""
    return shutter_exposure(setup, method, t01_s, float(table.t01_s[unit, 0]), not bool(table.tailed[unit]))
