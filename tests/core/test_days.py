"""Jobs of several days: their dates, their sun, what is charged over night, and what standing by takes."""

import math
import random
from datetime import date, time
from typing import Any

import numpy as np
import pytest

from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import standby_of, table_of
from jumpstop.core.kit.unit import Unit
from jumpstop.core.physics import battery
from jumpstop.core.plan.job.charges import Charging, Draw, Night, drained, first_outs
from jumpstop.core.plan.job.endurance import spread_of
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.job.packing import hire_days
from jumpstop.core.plan.light.placing import beam_of
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.stage.covering import cropped
from jumpstop.core.scene.job import Brief, Job, JobFile, copied, planned, sums_of
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup
from jumpstop.words.day_plan import day_plan_text
from jumpstop.words.figures import DisplayUnits

HEAD: dict[str, Any] = {
    "name": "Head", "kind": "monobloc", "watt_seconds": 400,
    "claims": [{"guide_number": 70, "unit": "m", "zoom_mm": 35}],
    "power_supplies": [{"kind": "lithium", "recycle_full_s": 1.5, "full_flashes": 480}],
}  # fmt: skip
HALL: dict[str, Any] = {
    "name": "Hall", "ambient": {"condition": "dark"}, "aim": {"f_number": 8},
    "lights": [{"distance_m": 3, "dial_stops": 0.0}],
}  # fmt: skip
YARD: dict[str, Any] = {
    "name": "Yard",
    "ambient": {"by": "sun", "place": {"name": "Downs", "latitude": 51, "longitude": -1, "zone": "Europe/London"},
                "day": "2026-06-24", "clock": "12:00", "sky": "clear", "subject": "back"},
    "aim": {"f_number": 4}, "lights": [{"distance_m": 2}],
}  # fmt: skip
FULL_DAY = {"people": 5, "frames_each": 100, "minutes_each": 60, "tests": 0, "change_min": 0}


def file_of(sessions: list[dict[str, Any]], **job: Any) -> JobFile:
    doc = {"name": "Two days", "day": "2026-06-24", "sessions": sessions} | job
    return JobFile.model_validate(
        {"job": doc, "setups": [{"id": "hall", "setup": HALL}, {"id": "yard", "setup": YARD}]}
    )


def test_standing_by_is_counted_in_watts() -> None:
    """D, physics 22: 480 flashes of 400 Ws at 55 % are 97 Wh; 4 W take 1 h / 24.2 of it: 19.8 full flashes."""
    unit = Unit.model_validate(HEAD)
    assert battery.capacity_wh(480, 400) == pytest.approx(96.97, abs=0.01)
    assert standby_of(unit, unit.power_supplies[0]) == pytest.approx(4 / 96.97 * 480, rel=1e-4)
    twice = Unit.model_validate(HEAD | {"standby_w": 8})
    assert standby_of(twice, unit.power_supplies[0]) == pytest.approx(39.6, abs=0.01)
    mains = Unit.model_validate(HEAD | {"power_supplies": [{"kind": "mains", "recycle_full_s": 1}]})
    assert standby_of(mains, mains.power_supplies[0]) == 0
    # 1/512, one every 3 s: the floor of .01 and 19.8 / 1200 a flash: 480 / .0265; nobody takes 50,000 from a charge.
    weak = HALL | {"lights": [{"distance_m": 3, "dial_stops": 9.0}]}
    fine = Unit.model_validate(HEAD | {"scale": {"lowest": 1 / 512}})
    solved = solve(Setup.model_validate(weak), table_of([fine]))
    assert float(solved.reach(solved.kinds[0]).flashes[0]) == pytest.approx(480 / (0.01 + 19.8 / 1200), rel=1e-3)
    flashes = solve(Setup.model_validate(weak), table_of([twice, unit])).reach(solved.kinds[0]).flashes
    assert flashes[0] < flashes[1] < 50_000


def test_sessions_have_dates_and_their_own_sun() -> None:
    file = planned(
        file_of(
            [
                {"setup": "yard", "people": 2, "start": "10:00"},
                {"setup": "yard", "people": 2, "day": "2026-12-21", "start": "10:00"},
                {"setup": "hall", "people": 2},
            ]
        )
    )
    assert file.job.days == (date(2026, 6, 24), date(2026, 12, 21))
    assert file.job.session_days[2] == date(2026, 12, 21)  # as the one before it
    assert (file.job.day_of("hall"), file.job.day_of("yard")) == (date(2026, 12, 21), date(2026, 6, 24))
    plan = day_plan(file, Shelf([Unit.model_validate(HEAD)]), ways=False)
    summer, winter, hall = plan.turns
    assert winter.start == 180 * 1440 + 600  # days from 24 June to 21 December
    assert hall.start == winter.end
    light = [turn.stretches[0].solved.ambient for turn in (summer, winter)]
    assert light[0].background_ev > light[1].background_ev + 0.5  # a low sun
    assert light[1].sun is not None
    assert light[1].sun[0] == pytest.approx(12.5, abs=1.5)  # 51 N on 21 December at 10:00: NOAA's equations
    assert hire_days(file) == 2


def test_a_day_begins_anew_and_only_the_late_one_is_late() -> None:
    sessions = [
        {"setup": "hall", "people": 1},
        {"setup": "hall", "people": 1, "day": "2026-06-25"},
        {"setup": "hall", "people": 1, "day": "2026-06-24"},  # written last, shot on the first day
    ]
    shelf = Shelf([Unit.model_validate(HEAD)])
    for late, at in ((None, 0), ("2026-06-25", 1)):
        turns = day_plan(file_of(sessions, late_min=30, late_day=late, begins="08:00"), shelf, ways=False).turns
        assert [turn.at for turn in turns] == [0, 2, 1]
        starts = [turns[0].start, turns[2].start - 1440]
        assert starts[at] == 510
        assert starts[1 - at] == 480


@pytest.mark.parametrize(("night", "wanted"), [(None, 2), (1, 3), (0, 3)])
def test_batteries_are_charged_over_night(night: int | None, wanted: int) -> None:
    """D: 500 full flashes and 5 h of standing by (99) a day of 480 a charge: two a day (598 of 960), and 1,196 of 1,440
    on both; all full in the morning: two; one full: 598 + 598 of 960 + 480 with the third unused till then."""
    day = [{"setup": "hall"} | FULL_DAY, {"setup": "hall", "day": "2026-06-25"} | FULL_DAY]
    plan = day_plan(file_of(day, night_charges=night), Shelf([Unit.model_validate(HEAD)]), ways=False)
    (one,) = plan.units
    assert one.used == pytest.approx(2 * (500 + 5 * 19.8), rel=1e-3)
    # With one filled, two charges hold 362 left + 480 = 842 for a second day of 599: they last.
    assert one.wanted == (2 if night == 1 else wanted)
    few = file_of(day, night_charges=night, batteries=[{"unit": "Head", "charges": 2}])
    out = day_plan(few, Shelf([Unit.model_validate(HEAD)]), ways=False).gives_out
    assert (out is None) == (night != 0)
    if out is not None:
        assert out == pytest.approx(1440 + 540 + 361 / 599 * 300, abs=2)  # 361 are left for the second day's five hours


def plainly(draws: list[Draw | Night], capacity: float, sizes: list[float]) -> float:
    """When one head's charge is missing, flash by flash; without chargers."""
    left, held = [capacity * size for size in sizes], -1
    for draw in draws:
        if isinstance(draw, Night):
            order = sorted(range(len(left)), key=lambda at: left[at] / (capacity * sizes[at]))
            for at in order if draw.charges is None else order[: draw.charges]:
                left[at] = capacity * sizes[at]
            held = -1
            continue
        steps = 400
        for step in range(steps):
            need = draw.full[0] / steps
            while held < 0 or left[held] < need - 1e-9:
                if held >= 0:
                    need -= left[held]
                    left[held] = 0.0
                fresh = [at for at in range(len(left)) if left[at] > 1e-9 and at != held]
                if not fresh:
                    return draw.start + step / steps * (draw.end - draw.start)
                held = max(fresh, key=lambda at: (left[at], -at))
            left[held] -= need
    return float("inf")


def test_nights_agree_with_a_plain_count_and_many_days_with_one() -> None:
    dice = random.Random(5)
    for _ in range(60):
        sizes = sorted((dice.choice((1.0, 0.8, 0.6)) for _ in range(dice.randint(1, 4))), reverse=True)
        draws, at = list[Draw | Night](), 0.0
        for day in range(dice.randint(1, 3)):
            if day:
                draws.append(Night(at, dice.choice((None, 0, 1, 2))))
            for _ in range(dice.randint(1, 2)):
                draws.append(Draw(at, at + 60, (dice.uniform(20, 140),)))
                at += 60
        swaps, _ = drained(draws, 100.0, sizes, Charging(0, 0))
        out = next((swap.at for swap in swaps if swap.again > swap.at), float("inf"))
        assert out == pytest.approx(plainly(draws, 100.0, sizes), abs=0.5)
        works = [one for one in draws if isinstance(one, Draw)]
        nights, seen = dict[int, int | None](), 0
        for one in draws:
            if isinstance(one, Night):
                nights[seen] = one.charges
            else:
                seen += 1
        many = first_outs(
            np.array([one.start for one in works]), np.array([one.end for one in works]),
            np.array([[one.full] for one in works]).swapaxes(0, 1), np.array([100.0]), sizes, Charging(0, 0), nights,
        )  # fmt: skip
        assert many[0] == pytest.approx(out)


def test_how_sure_two_days_are_counts_the_night() -> None:
    day = [{"setup": "hall"} | FULL_DAY, {"setup": "hall", "day": "2026-06-25"} | FULL_DAY]
    shelf = Shelf([Unit.model_validate(HEAD)])
    sure = {
        night: spread_of(day_plan(file_of(day, night_charges=night, batteries=[{"unit": "Head", "charges": 2}]), shelf))
        for night in (None, 0)
    }
    assert sure[None].lasts > 0.95
    assert sure[0].lasts < 0.3  # 1,198 of 960: short by a fifth, with a doubt of 15 % a session and 10 % of the cells


def test_a_brief_adds_up() -> None:
    """D: 225 people, 150 to 300 frames each, 30 MB: 33,750 to 67,500 frames, 1,012.5 to 2,025 GB; 40 people of 3 picks
    at 15 min are 30 h."""
    ranged = sums_of(Brief(people=225, frames_each=150, frames_each_most=300))
    assert (ranged.fewest, ranged.frames) == (33_750, 67_500)
    assert (ranged.fewest_gb, ranged.gigabytes) == (1012.5, 2025.0)
    assert sums_of(Brief(people=10, frames_each=10, frame_mb=60)).gigabytes == 6.0
    picked = sums_of(Brief(people=40, picks_each=3))
    assert (picked.picks, picked.retouching_h) == (120, 30.0)
    assert sums_of(Brief(people=40, retouched=3, retouched_per="person", retouch_min=10)).retouching_h == 20.0
    assert sums_of(Brief(people=40, retouched=3)).retouching_h == 0.75
    each = sums_of(Brief(people=20, frames_each=50, delivered=5, delivered_per="person"))
    assert (each.delivered, each.of_frames) == (100, 10.0)


def test_each_crop_has_its_distance_and_its_beam() -> None:
    """D: 85 mm on 24 mm high: a field of .6 m from 2.125 m, 2.1 m from 7.44; upright (36 mm) 1.417 and 4.96. A beam of
    40 degrees at 2 m covers 1.456 m: full length wants 2 atan(1.05 / 2) = 55.4."""
    lens = {"focal_mm": 85, "subject_m": 2.5}
    for held, metres in (("landscape", (2.125, 7.4375)), ("grip_up", (1.4167, 4.9583))):
        light = {"distance_m": 2, "modifier": {"name": "Grid", "kind": "grid"}}
        aim = {"f_number": 4, "lens": lens, "orientation": held}
        setup = Setup.model_validate({"aim": aim, "lights": [light], "ambient": {"condition": "dark"}})
        tight, full = cropped(setup, ["tight", "full"])
        assert (tight.camera_m, full.camera_m) == pytest.approx(metres, rel=1e-3)
        zoomed = setup.model_copy(update={"lights": (Light(distance_m=2, zoom_mm=50.0),)})
        beam = beam_of(zoomed.lights[0])
        for one, wide in zip(cropped(zoomed, ["tight", "full"]), (0.6, 2.1), strict=True):
            across = 2 * math.degrees(math.atan(wide / 2 / 2))
            assert (one.short is not None) == (beam < across)
            if one.short is not None:
                assert one.short[0] == pytest.approx(across, abs=0.1)
    bare = Setup.model_validate({"aim": {"f_number": 4}, "lights": [{}], "ambient": {"condition": "dark"}})
    assert cropped(bare.model_copy(update={"aim": bare.aim.model_copy(update={"lens": None})}), ["tight"]) == []


def test_a_brief_of_before_had_one_crop() -> None:
    assert Brief.model_validate({"crop": "tight"}).crops == ("tight",)
    assert Brief.model_validate({"crop": None}).crops is None
    assert "crops" in Brief().open
    assert not {"frame_mb", "retouch_min", "delivered_per"} & set(Brief().open)


def test_a_job_is_done_again() -> None:
    seen = Setup.model_validate(HALL).model_dump(mode="json")
    seen["seen"] = [{"light": 0, "kind": "face", "stops": 0.3, "dial_stops": 1.0, "sd": 0.3, "camera":
                     {"f_number": 8, "shutter_s": 0.004, "iso": 100}, "was": {"unit": HEAD}}]  # fmt: skip
    job = {"name": "Kite week", "roster": [{"name": "Ada Fenwick", "done": True, "slot": "09:30", "files": "1-9"}],
           "ticked": ["stand"], "late_min": 20}  # fmt: skip
    file = JobFile.model_validate({"job": job, "setups": [{"id": "s", "setup": seen}]})
    fresh = copied(file, readings=False)
    (one,) = fresh.job.roster
    assert (one.done, one.files, one.slot) == (False, "", time(9, 30))
    assert (fresh.job.name, fresh.job.ticked, fresh.job.late_min) == ("Kite week, again", (), 0)
    assert fresh.setups[0].setup.seen == ()
    assert len(copied(file, readings=True).setups[0].setup.seen) == 1
    assert Job.model_validate(fresh.job.model_dump(mode="json")) == fresh.job


def test_times_of_several_days_say_the_day_and_each_is_over_by_itself() -> None:
    """Two days from 10:00 to 12:30 with an hour a person: the second is as long as the first, and neither runs over;
    with three people more it does, by three hours and half."""
    session = {"setup": "hall", "people": 2, "frames_each": 100, "minutes_each": 60, "tests": 0, "change_min": 0}
    two = [session, session | {"day": "2026-06-25"}]
    hours = {"begins": "10:00", "ends": "12:30"}
    shelf = Shelf([Unit.model_validate(HEAD)])
    text = day_plan_text(day_plan(file_of(two, **hours), shelf), None, DisplayUnits())
    assert text.says == "It lasts: over at 12:00 on Thu 25 Jun, 1 battery used."
    assert text.wrong == []
    assert text.turns[1].clocks == "10:00 set up, 10:00 to 12:00"
    late = day_plan_text(day_plan(file_of([two[0], two[1] | {"people": 6}], **hours), shelf), None, DisplayUnits())
    assert late.wrong == ["It is over at 16:00 on Thu 25 Jun, 3.5 h after the day ends."]
    one = day_plan_text(day_plan(file_of([session | {"people": 3}], **hours), shelf), None, DisplayUnits())
    assert one.wrong == ["It is over at 13:00, 30 min after the day ends."]
