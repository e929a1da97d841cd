"""Flash, sky and leap by themselves; and days that play themselves: what they teach is calibrated."""

import math
import os

import numpy as np
import pytest

from jumpstop import demo
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.physics.battery import Capacitor, burst
from jumpstop.core.plan.job.endurance import DayPlan
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.scene.job import Job, JobFile, JobSetup, planned
from jumpstop.formats.shelf import read_shelf
from jumpstop.standins.flash import flash_of, run_of
from jumpstop.standins.kit import SANDERLING, STILT
from jumpstop.standins.leap import Leap, Sitting, caught, sitting_of
from jumpstop.standins.location import PlayedDay, play_day, played_from
from jumpstop.standins.sky import CLOUD_STOPS, GUST, Sky
from jumpstop.standins.truth import Truth
from jumpstop.words.simulate import played_text

DAYS = int(os.environ.get("DAYS", "60"))
WITHIN = 0.03 if DAYS >= 500 else 0.08  # of the share that lies within one sd: 60 days have 560 things
MEDIAN = 0.1 if DAYS >= 500 else 0.12  # stops


def test_a_burst_of_the_stand_in_is_the_burst_of_the_core() -> None:
    """r_full 2.5 s, r0 = 0, 8 frames/s: flashed in a row 1 at 1/1, 2 at 1/2, 4 at 1/4, 12 at 1/8 (handbook 9)."""
    supply = SANDERLING.power_supplies[0].model_copy(update={"recycle_full_s": 2.5, "recycle_least_s": 0.0})
    unit = SANDERLING.model_copy(update={"power_supplies": (supply,), "heat": None})
    for power, unbroken in [(1.0, 1), (0.5, 2), (0.25, 4), (0.125, 12)]:
        run = run_of(flash_of(unit), power, 40, 1 / 8)
        assert (run.unbroken, run.why) == (unbroken, "recycling")
        assert run.lit == sum(burst(power, 2.5, 0.0, 8, 40))


def test_it_recycles_runs_empty_and_gets_hot() -> None:
    flash = flash_of(STILT).fired(1.0)
    assert flash.ready_in(1.0) == pytest.approx(3.6)  # as its maker says
    assert flash.stopped(1.0) == "recycling"
    assert flash.waited(3.61).stopped(1.0) == ""
    assert flash.waited(1.0).ready_in(1.0) == pytest.approx(2.6)
    run = run_of(flash_of(STILT), 1.0, 200, 4.0)
    assert (run.lit, run.unbroken, run.why) == (180, 180, "empty")  # 180 full flashes a charge
    assert run_of(flash_of(STILT, charge_times=0.5), 1.0, 200, 4.0).lit == 90
    assert run_of(flash_of(STILT, cold=0.7), 0.5, 400, 4.0).lit == 252
    hot = run_of(
        flash_of(SANDERLING), 1.0, 100, 2.0
    )  # 60 in a row, then a rest: it loses one in ten seconds: 0.8 a frame
    assert (hot.why, hot.unbroken) == ("hot", 75)
    assert run_of(flash_of(SANDERLING), 1.0, 100, 2.0, hss=True).unbroken < hot.unbroken / 2 + 1
    assert Capacitor(2.0, 0.5).fired(1.0).waited(0.5).charge == 0  # nothing charges at first
    assert Capacitor(2.0, 0.5).fired(1.0).waited(1.25).charge == pytest.approx(0.5)


def test_clouds_pass_and_the_wind_has_gusts_by_their_seed() -> None:
    sky = Sky(7, "partly", 4.0)
    at = np.arange(0, 86_400, 7.0)
    light = np.array([sky.stops_at(float(one)) for one in at])
    assert light.min() == pytest.approx(CLOUD_STOPS)
    assert light.max() == 0
    assert 0.1 < np.mean(light < 0) < 0.5
    assert np.abs(np.diff(light)).max() < 1.0  # an edge passes, it does not switch
    assert [Sky(7, "partly").stops_at(float(one)) for one in at[:500]] == light[:500].tolist()
    assert Sky(8, "partly").clouds != sky.clouds
    assert Sky(7, "clear").stops_at(40_000.0) == 0
    wind = [sky.wind_at(float(one)) for one in at]
    assert 4.0 * 0.6 <= min(wind) < max(wind) <= 4.0 * GUST


def test_a_leap_is_a_throw_and_a_press_is_caught_a_lag_later() -> None:
    """0.5 m: up in sqrt(2 h / g) = 0.319 s; a tenth of a second off the peak it is 4.9 cm lower (g t² / 2)."""
    leap = Leap(1.0, 0.5)
    assert leap.rise_s == pytest.approx(0.3193, abs=1e-4)
    assert leap.height_at(leap.peak_s) == 0.5
    assert leap.height_at(leap.peak_s + 0.1) == pytest.approx(0.5 - 0.04903, abs=1e-5)
    assert leap.height_at(0.9) == 0
    sitting = Sitting(1, (leap, Leap(3.0, 0.4)), lag_s=0.06, again_s=1.8)
    first, early, late = caught(sitting, [leap.peak_s - 0.06, leap.peak_s + 0.5, 3.4])
    assert (first.leap, round(first.off_s, 6), first.flash) == (0, 0.0, True)
    assert (early.leap, early.flash) == (0, False)  # the flash is not ready yet
    assert (late.leap, late.flash) == (1, True)
    assert late.off_s == pytest.approx(3.46 - sitting.leaps[1].peak_s)
    for seed in range(1, 30):
        found = sitting_of(seed)
        assert found == sitting_of(seed)
        gaps = np.diff([one.peak_s for one in found.leaps])
        assert (gaps > 1.0).all()
        assert max(found.course) == pytest.approx(max(one.height_m for one in found.leaps), abs=0.01)
        assert 0.02 <= found.lag_s <= 0.12


@pytest.fixture(scope="module")
def job() -> tuple[JobFile, Shelf]:
    """The kite week's day, for whatever is on its shelf."""
    named = {setup.name: f"s{at}" for at, setup in enumerate(demo.setups())}
    doc = demo._file("job") | {"picked": [], "batteries": [], "celsius": -5}
    doc["sessions"] = [one | {"setup": named[one["setup"]]} for one in doc["sessions"]]
    setups = tuple(JobSetup(id=named[one.name], setup=one) for one in demo.setups())
    return JobFile(job=Job.model_validate(doc), setups=setups), Shelf(read_shelf(demo.SHELF.read_bytes()).units)


@pytest.fixture(scope="module")
def plan(job: tuple[JobFile, Shelf]) -> DayPlan:
    file, shelf = job
    return day_plan(planned(file), shelf, "third", (), ways=False)


@pytest.fixture(scope="module")
def days(job: tuple[JobFile, Shelf], plan: DayPlan) -> list[PlayedDay]:
    return [played_from(*job, seed, plan) for seed in range(DAYS)]


def test_what_days_teach_is_calibrated(days: list[PlayedDay]) -> None:
    """68.3 % of what was learned lies within one sd of what is so, 95.4 % within two (the normal distribution)."""
    far = np.array([(truth - found) / sd for day in days for _, found, sd, truth in day.apart])
    assert len(far) > 8 * DAYS
    assert np.mean(np.abs(far) <= 1) == pytest.approx(0.683, abs=WITHIN)
    assert np.mean(np.abs(far) <= 2) == pytest.approx(0.954, abs=WITHIN / 1.5)
    assert np.mean(far) == pytest.approx(0, abs=4 / math.sqrt(len(far)))


def test_after_a_day_predictions_err_by_a_tenth_of_a_stop_in_the_median(days: list[PlayedDay]) -> None:
    off = [abs(one.learned - one.truth) for day in days for one in day.compared]
    before = [abs(one.said - one.truth) for day in days for one in day.compared]
    assert np.median(off) <= MEDIAN
    assert np.median(before) > 1.5 * np.median(off)


def test_a_day_goes_into_the_log_in_the_order_in_which_it_is_worked(days: list[PlayedDay], plan: DayPlan) -> None:
    for day in days[:5]:
        for turn in plan.turns:
            noted = [one for one in day.noted if one.entry.setup == turn.session.setup]
            codes = [one.code for one in noted if one.code != "late"]
            assert codes[0] == "ambient"
            assert codes[-1] == "frames"
            assert codes.count("read") <= len(turn.setup.lights)
            fired = sum(work.flashes for part in turn.stretches for work in part.work)
            assert noted[-1].entry.flashes == pytest.approx(fired, abs=len(turn.stretches))
            for one in noted:
                if one.entry.seen is not None:
                    hss = one.entry.seen.method == "hss"
                    assert one.entry.seen.kind == ("patch" if hss else "meter")  # a meter sees no high-speed sync
        assert len({one.id for one in day.noted}) == len(day.noted)
        assert all(one.entry.celsius == -5 for one in day.noted)
    cold = sum(one.code == "swapped" for day in days for one in day.noted) / len(days)
    assert cold > 3  # nickel cells hold three quarters at -5 °C
    late = {one.late_min for day in days for one in day.noted if one.code == "late"}
    assert late == {7.0, 20.0}


def test_the_same_seed_plays_the_same_day(job: tuple[JobFile, Shelf], days: list[PlayedDay]) -> None:
    again = play_day(*job, 1)
    assert [one.entry for one in again.noted] == [one.entry for one in days[1].noted]
    assert [one.entry for one in days[2].noted] != [one.entry for one in days[1].noted]
    text = played_text(again, {one.id: one.setup.name for one in job[0].setups})
    assert f"{len(again.compared)} lights read" in text.says[0]
    assert all(abs(one.found - one.truth) < 5 * one.sd for one in text.learned)


def test_a_truth_is_a_draw_from_the_doubt_that_is_told() -> None:
    draws = np.array([Truth(seed).off(("unit", "one", "rating"), 0.25, 0.25) for seed in range(2000)])
    assert draws.std() == pytest.approx(0.25, abs=0.012)
    assert draws.mean() == pytest.approx(0, abs=0.02)
    both = np.array(
        [[Truth(seed).off(("unit", "one", part), sd, 0.25) for part, sd in (("rating", 0.25), ("moved", 0.5))]
         for seed in range(2000)]
    )  # fmt: skip
    assert np.cov(both.T)[0, 1] == pytest.approx(0.25**2, abs=0.01)  # the second has all of the first's doubt
    assert both[:, 1].std() == pytest.approx(0.5, abs=0.03)
    kept = [Truth(seed, 1.5).off(("unit", "one", "rating"), 0.25, 0.25) for seed in range(300)]
    assert max(map(abs, kept)) == pytest.approx(0.375)
