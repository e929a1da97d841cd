"""Rules that show in one case alone: each in the smallest scene that tells it from its opposite."""

import itertools
from dataclasses import replace
from datetime import date, datetime, time
from typing import Any

import numpy as np
import pytest

from jumpstop import service
from jumpstop.core.kit.gel import GelFigures
from jumpstop.core.kit.learned import Learned
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Unit
from jumpstop.core.physics.colour import FLASH_K
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.camera.colour import ambient_kelvin, gelled_kelvin
from jumpstop.core.plan.camera.fixed import methods_of
from jumpstop.core.plan.camera.framing import dark_of
from jumpstop.core.plan.change.compared import Whole, _others, whole_of
from jumpstop.core.plan.change.findings import _wanted
from jumpstop.core.plan.choice.feeding import _hours
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.job.packing import hire_days, pack_of
from jumpstop.core.plan.job.schedule import turns_of, units_at
from jumpstop.core.plan.job.worked_out import with_copies
from jumpstop.core.plan.learn.printed import Printed, judged
from jumpstop.core.plan.learn.sheet import SaidField, document
from jumpstop.core.plan.light.advice import heads_enough
from jumpstop.core.plan.light.levels import levels
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.stage.comes_out import fails
from jumpstop.core.plan.stage.covering import row_of
from jumpstop.core.scene.aim import Lens
from jumpstop.core.scene.ambient import AmbientSpec
from jumpstop.core.scene.job import Job, JobFile
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.parts import packed_all
from jumpstop.core.scene.place import Place
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups

UNIT = {"name": "Bird", "claims": [{"guide_number": 60, "unit": "m", "zoom_mm": 35}]}
FED = UNIT | {"power_supplies": [{"kind": "lithium", "recycle_full_s": 1, "full_flashes": 100}]}
NOTHING = Printed()
LENS = {"focal_mm": 50, "subject_m": 3.0, "background_m": 40}
SUN = {"condition": "distinct_shadows", "subject": "back"}
BODY = {"name": "B", "sync_s": 1 / 250, "top_speed_s": 1 / 8000, "dark_edge": "bottom", "travel_s": 1 / 250}


def setup(**doc: Any) -> Setup:
    return Setup.model_validate({"name": "S", "body": BODY} | doc)


@pytest.mark.parametrize(("wanted", "off"), [(3.0, False), (2.2, False), (1.5, True), (6.0, True)])
def test_a_ratio_is_off_by_more_than_half_a_stop_either_way(wanted: float, off: bool) -> None:
    """Key 0 and fill -1 on both sides, key on one: 2^0 + 2^-1 to 2^-1 is 3 : 1 (handbook 11), set by fixed dials."""
    lights = [
        {"unit": UNIT, "side": "lit", "distance_m": 2, "dial_stops": 4.15},
        {"unit": UNIT, "role": "fill", "side": "both", "distance_m": 2, "dial_stops": 5.15, "target_stops": -1},
    ]
    one = setup(ambient={"condition": "dark"}, aim={"f_number": 8, "ratio": wanted}, lights=lights)
    table = table_of([Unit.model_validate(UNIT | {"scale": {"step_stops": 0.05}})])
    solved = solve(one, table)
    kind = solved.kinds[0]
    found = levels(solved, kind, (0, 0))
    lit, shadow = (next(level.total for level in found if level.receiver == side) for side in ("lit", "shadow"))
    assert 2 ** (lit - shadow) == pytest.approx(3.0, rel=0.03)
    told = [one.code for one in fails(solved, kind, (0, 0), found)]
    assert ("ratio_off" in told) is off


@pytest.mark.parametrize(
    ("seconds", "frozen"), [((1 / 2000, 1 / 4000), True), ((1 / 500, 1 / 2000), False), ((None, 1 / 4000), False)]
)
def test_a_leap_is_frozen_only_where_every_flash_is_known_to_be_short_enough(
    seconds: tuple[float | None, ...], frozen: bool
) -> None:
    """Handbook 8: about 1/1050 s freezes a leap across four metres; in the dark it is frozen by the flashes alone."""
    units = [
        UNIT | {"name": f"U{at}",
        "flash_duration": {"table": [{"power": 1, "seconds": one}, {"power": 0.01, "seconds": one}]}}
        if one is not None else UNIT | {"name": f"U{at}"}
        for at, one in enumerate(seconds)
    ]  # fmt: skip
    lights = [{"distance_m": 2, "dial_stops": 3.0}, {"role": "rim", "distance_m": 2, "dial_stops": 3.0}]
    leap = {"kind": "freeze", "mover": "leap", "field_width_m": 4}
    one = setup(
        ambient={"condition": "dark"}, aim={"f_number": 8, "lens": LENS}, lights=lights, motion=leap, method="sync"
    )
    solved = solve(one, table_of([Unit.model_validate(doc) for doc in units]))
    told = [one.code for one in fails(solved, "sync", (0, 1), levels(solved, "sync", (0, 1)))]
    assert ("not_frozen" not in told) is frozen


def test_sync_at_a_fixed_time_is_no_method_where_the_background_is_too_bright_there() -> None:
    nd = [{"name": "ND 6", "stops": 6}]
    bright = setup(ambient=SUN, aim={"f_number": 2.8}, filters=nd, fixed={"shutter_s": 1 / 250, "aperture": True})
    found = {one.kind: one for one in methods_of(bright, ambient_of(bright.ambient))}
    assert not found["sync"].possible
    assert getattr(found["sync"].blocker, "code", None) == "too_bright_at"
    assert found["nd"].possible
    grey = setup(
        ambient={"condition": "open_shade"}, aim={"f_number": 8}, fixed={"shutter_s": 1 / 125, "aperture": True}
    )
    assert {one.kind: one for one in methods_of(grey, ambient_of(grey.ambient))}["sync"].possible


def test_the_dark_part_ends_on_the_subject_where_the_camera_is_aimed() -> None:
    """Half of the frame is dark below its middle: on the subject that is the height that the camera is aimed at, .38 of
    the field (24 / 50 x 3 m) under the top of the head."""
    one = setup(ambient=SUN, aim={"f_number": 11, "background_stops": -1, "lens": LENS}, fixed={"shutter_s": 1 / 500})
    method = next(one for one in methods_of(one, ambient_of(one.ambient)) if one.kind == "past_sync")
    dark = dark_of(one, method)
    assert dark is not None
    assert dark.share == pytest.approx(0.5)
    assert dark.edge_m == pytest.approx(1.75 - 24 / 50 * 3 * 0.38, abs=0.02)
    assert dark.over == pytest.approx(0.5)  # they fill the frame from its top to its lower edge
    team = one.model_copy(update={
        "stage": one.stage.model_copy(update={"kind": "group", "width_m": 5.0, "people": 9}),
        "aim": one.aim.model_copy(update={"lens": Lens.model_validate(LENS | {"subject_m": 10.0})}),
    })  # fmt: skip
    right = dark_of(team, replace(method, dark_edge="right"))
    assert right is not None
    assert (right.edge_m, right.clear_m) == (pytest.approx(0, abs=0.01), pytest.approx(2.5, abs=0.01))
    assert right.over == pytest.approx(2.5 / (36 / 50 * 10), abs=1e-3)  # of a frame 7.2 m wide there
    missed = dark_of(team, replace(method, dark_edge="right", lit=0.9))
    assert (missed and missed.over) == 0  # they end at .85 of it
    for held, edges in (
        ("landscape", ("top", "bottom")),
        ("grip_up", ("left", "right")),
    ):  # where the edge is not known
        framed = team.model_copy(update={"aim": team.aim.model_copy(update={"orientation": held})})
        found = {edge: dark_of(framed, replace(method, dark_edge=edge)) for edge in ("", *edges)}
        assert found[""].over == max(found[edge].over for edge in edges)  # type: ignore[union-attr]


def test_a_gel_that_shifts_nothing_leaves_the_flash_its_colour() -> None:
    """D: mired add up; a diffusion has none."""
    of = [GelFigures(0.5, mired) for mired in (None, 0.0, 100.0, -50.0)]
    wanted = [FLASH_K, FLASH_K, 1e6 / (1e6 / FLASH_K + 100), 1e6 / (1e6 / FLASH_K - 50)]
    assert [gelled_kelvin(one) for one in of] == pytest.approx(wanted, abs=0.1)


def test_a_single_row_has_no_last_row() -> None:
    totals = {"lit": 0.0, "far": -0.6, "left": 0.0, "right": 0.0}
    group = {"kind": "group", "width_m": 4, "people": 8}
    assert row_of(setup(stage=group), totals) is None
    assert row_of(setup(stage=group | {"depth_m": 1.5}), totals) == pytest.approx(-0.6)
    assert row_of(setup(stage={"depth_m": 1.5}), totals) is None
    off = [{"role": "key", "on": False}]
    assert row_of(setup(stage=group | {"depth_m": 1.5}, lights=off), totals) is None


def job(*sessions: dict[str, Any], setups: int = 1, **more: Any) -> JobFile:
    lights = [{"distance_m": 2, "unit": FED}]
    docs = [
        {
            "id": f"s{at}",
            "setup": {"name": f"S{at}", "ambient": {"condition": "dark"}, "lights": lights} | more.get("of", {}),
        }
        for at in range(setups)
    ]
    return JobFile.model_validate({"job": {"name": "J", "sessions": list(sessions)}, "setups": docs})


def test_a_days_hours_are_those_of_its_own_sessions() -> None:
    long = {"setup": "s0", "day": "2026-06-24", "start": "09:00", "people": 60, "frames_each": 10, "minutes_each": 5}
    short = {"setup": "s0", "day": "2026-06-25", "start": "14:00", "people": 12, "frames_each": 10, "minutes_each": 5}
    file = job(long, short)
    turns = turns_of(file, Shelf([Unit.model_validate(FED)]))
    first, second = sorted({turn.midnight for turn in turns})
    assert _hours(turns, first) == pytest.approx(5.0, abs=0.1)
    assert _hours(turns, second) == pytest.approx(1.0, abs=0.1)


def test_hired_kit_is_wanted_a_day_at_the_least_and_longer_where_the_brief_is() -> None:
    one = JobFile.model_validate({"job": {"name": "J"}, "setups": []})
    assert hire_days(one) == 1
    long = JobFile.model_validate({"job": {"name": "J", "brief": {"hours": 30}}, "setups": []})
    assert hire_days(long) >= 2
    days = job(
        {"setup": "s0", "day": "2026-06-24"}, {"setup": "s0", "day": "2026-06-25"}, {"setup": "s0", "day": "2026-06-26"}
    )
    assert hire_days(days) == 3


def test_one_transmitter_serves_all_heads_and_lenses_are_packed_though_one_setup_has_none() -> None:
    triggers = [{"name": "T", "kind": "transmitter"}, {"name": "R", "kind": "receiver"}]
    heads = [{"distance_m": 2, "heads": 3}]
    lens = {"name": "Glass 85", "focal_mm": 85, "widest": 1.8}
    docs: list[dict[str, Any]] = [
        {"ambient": {"condition": "dark"}, "lights": heads, "triggers": triggers},
        {"ambient": {"condition": "dark"}, "lens": lens},
    ]
    setups = [{"id": f"s{at}", "setup": {"name": f"S{at}"} | doc} for at, doc in enumerate(docs)]
    file = JobFile.model_validate({"job": {"name": "J"}, "setups": setups})
    items = {item.key: item for item in pack_of(file, day_plan(file, Shelf([Unit.model_validate(FED)])), {})}
    found = [(items[key].count - items[key].spare, items[key].spare) for key in ("trigger:T", "trigger:R")]
    assert found == [(1, 1), (3, 1)]
    assert "lens:Glass 85" in items


def codes(unit: dict[str, Any], printed: Printed = NOTHING) -> list[str]:
    return [one.code for one in judged(Unit.model_validate(unit), printed)]


def test_guide_numbers_that_fall_with_the_zoom_or_differ_in_feet_are_told() -> None:
    """36 m is 118 ft (3.2808 ft to the metre)."""
    rising = [{"guide_number": gn, "unit": "m", "zoom_mm": mm} for gn, mm in ((36, 35), (50, 70), (58, 105))]
    falling = [*rising, {"guide_number": 45, "unit": "m", "zoom_mm": 200}]
    assert "falls_with_zoom" not in codes({"name": "Z", "claims": rising, "zoom_max_mm": 105})
    assert "falls_with_zoom" in codes({"name": "Z", "claims": falling, "zoom_max_mm": 200})
    assert "feet_differ" not in codes(UNIT, Printed(feet=((36.0, 118.0),)))
    assert "feet_differ" in codes(UNIT, Printed(feet=((36.0, 150.0),)))


def test_a_t5_after_a_t1_is_left_and_two_t1_tables_are_one() -> None:
    def said(measure: str, *entries: tuple[float, float]) -> SaidField:
        return SaidField("duration", {"measure": measure, "entries": list(entries)}, 0, "")

    both = document([said("t.5", (1.0, 0.001)), said("t.1", (1.0, 0.002))], {})["flash_duration"]
    assert (both["measure"], len(both["table"])) == ("t.1", 1)
    two = document([said("t.1", (1.0, 0.002)), said("t.1", (0.5, 0.001))], {})["flash_duration"]
    assert [entry["power"] for entry in two["table"]] == [1.0, 0.5]
    kept = document([said("t.1", (1.0, 0.002)), said("t.5", (0.5, 0.001))], {})["flash_duration"]
    assert (kept["measure"], len(kept["table"])) == ("t.1", 1)


def test_an_entry_without_parts_is_written_beside_those_that_have_them() -> None:
    was = setup(lights=[{"unit": UNIT}])
    when = datetime(2026, 6, 24, 12)
    entries = [
        LogEntry(name="One", at=when, was=was),
        LogEntry(name="Two", at=when),
        LogEntry(name="Three", at=when, was=was),
    ]
    docs, parts = packed_all(entries)
    assert len(parts) == 1
    assert docs[1]["was"] is None
    assert docs[0]["was"] == docs[2]["was"]
    assert list(parts) == [docs[0]["was"]["part"]]


def answer(*lights: dict[str, Any], **table: Any) -> Whole:
    """The whole answer for lights in the dark at f/8, of a shelf of one unit, which each light has been given."""
    one = setup(ambient={"condition": "dark"}, aim={"f_number": 8}, lights=list(lights))
    solved = solve(one, table_of([Unit.model_validate(UNIT | table)]))
    found = whole_of(solved, (), 0, dict.fromkeys(range(len(lights)), 0))
    assert found is not None
    return found


@pytest.mark.parametrize(("heads", "wanted"), [(1, []), (2, []), (3, [3])])
def test_more_of_a_unit_are_wanted_where_there_are_not_so_many(heads: int, wanted: list[int]) -> None:
    """Two are owned: two heads ask for none that is not there, three do; what was wanted before is not told again."""
    before, after = (answer({"distance_m": 3, "heads": many}, count=2) for many in (1, heads))
    assert [one.facts["wanted"] for one in _wanted(before, after)] == wanted
    assert not list(_wanted(after, after))
    hired = answer({"distance_m": 3, "heads": 9}, count=2, holding="hire")
    assert not list(_wanted(before, hired))


def test_another_light_that_no_longer_reaches_is_told_where_it_is_on() -> None:
    """A fill taken from 2 to 40 m falls short of a GN of 60 at f/8 (7.5 m); off it is nobody's trouble."""
    key = {"distance_m": 2}
    before = answer(key, {"role": "fill", "distance_m": 2})
    for on, told in ((True, [(1, "short")]), (False, [])):
        after = answer(key, {"role": "fill", "distance_m": 40, "on": on})
        assert [(one.facts["light"], one.facts["verdict"]) for one in _others(before, after, 0)] == told
    assert not list(_others(before, answer(key, {"role": "fill", "distance_m": 40}), 1))  # the light in hand itself


def test_who_is_posted_at_a_light_stands_there() -> None:
    """The stronger unit would be taken for it; where the job has the weaker one there, that one is, if it can be."""
    weak, strong = (Unit.model_validate(UNIT | {"name": name, "claims": [{"guide_number": number, "unit": "m"}]})
                    for name, number in (("Weak", 30), ("Strong", 90)))  # fmt: skip
    shelf = Shelf([weak, strong], ["weak", "strong"])
    one = setup(ambient={"condition": "dark"}, aim={"f_number": 8}, lights=[{"id": "l1", "distance_m": 3}])
    solved = solve(one, shelf.table)
    kind = solved.kinds[0]
    picked = [{"unit": key, "count": 1} for key in ("weak", "strong")]
    for there in ("weak", "strong"):
        posts = [{"setup": "s1", "light": "l1", "unit": there}]
        job = Job.model_validate({"name": "J", "picked": picked, "posts": posts})
        assert units_at(solved, kind, job, "s1") == (("weak", "strong").index(there),)
        assert units_at(solved, kind, job, "another") == units_at(
            solved, kind, job.model_copy(update={"posts": ()}), "s1"
        )


@pytest.mark.parametrize(("clock", "warm"), [(time(13), False), (time(20, 30), True)])
def test_a_low_sun_is_warm(clock: time, warm: bool) -> None:
    """On the downs in June: at half past eight it stands about 6 degrees high, far round to the west (from memory: 4000
    K under 10 degrees)."""
    downs = Place(name="the downs", latitude=50.9, longitude=-0.1, zone="Europe/London")
    spec = AmbientSpec(by="sun", place=downs, day=date(2026, 6, 24), clock=clock, subject="sun")
    found = ambient_of(spec)
    assert found.sun is not None
    assert (found.sun[0] < 10) is warm
    assert (ambient_kelvin(spec, found) < 4500) is warm


@pytest.mark.parametrize(
    ("metres", "more", "heads"),
    [(7.0, {}, None), (10.6, {}, 2), (10.6, {"takes_modifiers": False}, None), (60, {}, None)]
)  # fmt: skip
def test_more_heads_help_where_they_fit_together_and_are_not_too_many(
    metres: float, more: dict[str, Any], heads: int | None
) -> None:
    """GN 60 at f/8 reaches 7.5 m; at 10.6 m it is a stop short, which two heads make good; at 60 m six stops, 64 heads.
    What takes no modifiers has no bracket for another head."""
    one = setup(ambient={"condition": "dark"}, aim={"f_number": 8}, lights=[{"distance_m": metres, "target_stops": 0}])
    solved = solve(one, table_of([Unit.model_validate(UNIT | more)]))
    assert heads_enough(solved.reach(solved.kinds[0], 0), 0) == heads


def test_of_what_nobody_has_read_nothing_is_known_and_it_hangs_together_with_nothing() -> None:
    learned = Learned(
        {("unit", "a", ""): 0, ("unit", "b", ""): 1},
        np.array([0.3, 0.2]),
        np.array([0.1, -0.2]),
        np.array([[0.04, 0.01], [0.01, 0.02]]),
    )
    prior, mean, covariance = learned.ended
    assert (prior[-1], mean[-1]) == (1, 0)
    assert covariance.shape == (3, 3)
    assert not covariance[-1].any()
    assert not covariance[:, -1].any()
    assert (covariance[:2, :2] == learned.covariance).all()


def test_at_its_dial_a_light_comes_out_as_it_is_wanted_to_half_a_step() -> None:
    """Of every unit that can be dialled there, whatever it loses at full: D, the nearest setting of its dial."""
    table, seen = table_of([Unit.model_validate(doc) for doc in kit()["units"]]), 0
    for setup in setups():
        solved = solve(setup, table)
        for kind, at in itertools.product(solved.kinds, range(len(setup.lights))):
            reach = solved.reach(kind, at)
            dialled = reach.able & (reach.below_full > 0) & (reach.below_full < table.dial_range)
            dialled &= (reach.too_bright == 0) & (kind != "freeze") & (setup.lights[at].dial_stops is None)
            assert (np.abs(reach.off_stops) <= table.step / 2 + 1e-6)[dialled].all(), (setup.name, kind)
            seen += int(dialled.sum())
    assert seen > 100


def test_the_shelf_has_the_last_word_on_a_unit_that_is_still_there() -> None:
    """A light's copy counts where the unit is gone; the last of the shelf is there as much as the first."""
    first, last, gone = (Unit.model_validate(UNIT | {"name": name}) for name in ("First", "Last", "Gone"))
    older = [one.model_dump() | {"watt_seconds": 111, "id": one.name} for one in (first, last, gone)]
    setup = Setup.model_validate({"lights": [{"unit": one} for one in older]})
    wide = with_copies(Shelf([first, last], ("First", "Last")), [setup])
    assert [(one.name, one.watt_seconds) for one in wide.units] == [("First", None), ("Last", None), ("Gone", 111)]
    assert with_copies(wide, [setup]).units == wide.units


def test_variants_stand_as_their_answers_say() -> None:
    """By a method that is not avoided, a free distance worked out: at full power GN 60 is right at 60 / 8 m for f/8."""
    shelf = Shelf([Unit.model_validate(UNIT | {"hss": {}})])
    light: dict[str, Any] = {"dial_stops": 0.0, "distance_free": True, "distance_m": 1.0, "unit": UNIT | {"hss": {}}}
    written: dict[str, Any] = {
        "ambient": {"condition": "distinct_shadows"}, "aim": {"f_number": 4, "background_stops": -1},
        "lights": [light], "filters": [{"name": "Three", "stops": 3}],
    }  # fmt: skip
    variants = [
        {"name": name, "lights": [light | {"distance_m": metres}]} for name, metres in (("Far", 9), ("Near", 2))
    ]
    dark = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "variants": variants}
    setup = Setup.model_validate(written | dark)
    named = service.stands_as(setup, shelf)
    assert [name for name, *_ in named] == ["", "Far", "Near"]
    for _, _, one in named:
        assert one is not None
        assert one.solved.setup.lights[0].distance_m == pytest.approx(7.5, rel=0.01)
    sun = Setup.model_validate(written)
    usual = service.stands_as(sun, shelf)[0][2]
    assert usual is not None
    other = service.stands_as(sun, shelf, avoid=(usual.kind,))[0][2]
    assert other is not None
    assert other.kind != usual.kind
