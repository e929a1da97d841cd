"""Learning from readings against figures from outside: the handbook's check, simulated shelves, closed forms."""

import itertools
import math
from datetime import datetime
from functools import lru_cache
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Claim, Hss, Unit
from jumpstop.core.physics.gaussian import expected_wrong, root_of, update, wrong_chance
from jumpstop.core.physics.readings import Readings, inverse_of, known_after, left_out, precision_of
from jumpstop.core.plan.learn.learning import ReadingRow, Rows, learn
from jumpstop.core.plan.learn.parameters import covariance_of, known_of, load_of
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.plan.light.taught import MOVED
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.seen import Seen, SeenWith
from jumpstop.core.scene.setup import Setup

CHECK = np.diag([0.25**2, 0.30**2])
BOTH = np.array([[1.0, 1.0]])


def test_one_reading_is_shared_out_between_unit_and_modifier() -> None:
    """The handbook's worked figures: unit .25, modifier .30, reading +0.40 with .10."""
    mean, covariance = update(np.zeros(2), CHECK, BOTH, np.array([0.4]), np.array([0.01]))
    assert mean == pytest.approx([0.154, 0.222], abs=0.001)
    assert np.sqrt(np.diag(covariance)) == pytest.approx([0.196, 0.200], abs=0.001)
    assert math.sqrt((BOTH @ covariance @ BOTH.T).item()) == pytest.approx(0.097, abs=0.001)
    assert covariance[0, 1] / math.sqrt(covariance[0, 0] * covariance[1, 1]) == pytest.approx(-0.88, abs=0.005)


def test_a_stop_read_moves_a_doubtful_chain_by_four_fifths() -> None:
    """Noise .2 on a prior of .39: .79 (handbook)."""
    mean, _ = update(np.zeros(1), np.array([[0.39**2]]), np.ones((1, 1)), np.array([1.0]), np.array([0.04]))
    assert mean[0] == pytest.approx(0.79, abs=0.005)


@given(st.lists(st.tuples(st.floats(-2, 2), st.floats(0.05, 1), st.sampled_from([0, 1, 2])), min_size=2, max_size=6))
def test_order_does_not_matter_and_two_at_once_are_one_after_the_other(readings: list[Any]) -> None:
    rows = np.array([[1.0, 1.0, 0.0], [1.0, 0.0, 1.0], [0.0, 1.0, 0.4]])[[which for *_, which in readings]]
    values, noise = (np.array([reading[at] for reading in readings]) for at in (0, 1))
    prior = np.zeros(3), np.diag([0.3, 0.2, 0.1])
    at_once = update(*prior, rows, values, noise)
    turned = update(*prior, rows[::-1], values[::-1], noise[::-1])
    state = prior
    for at in range(len(values)):
        state = update(*state, rows[at : at + 1], values[at : at + 1], noise[at : at + 1])
    for other in (turned, state):
        assert other[0] == pytest.approx(at_once.mean, abs=1e-9)
        assert other[1] == pytest.approx(at_once.covariance, abs=1e-9)
    assert np.all(np.diag(at_once.covariance) <= np.diag(prior[1]) + 1e-12)


@pytest.mark.parametrize("seed", range(6))
def test_a_precision_of_which_little_hangs_together_is_inverted_whole(seed: int) -> None:
    """Against the dense inverse: some things alone, some with one other, some with all."""
    rng = np.random.default_rng(seed)
    count = 12
    rows = np.zeros((30, count))
    for row in rows:
        row[rng.integers(0, 3)] = rng.normal()
        row[rng.integers(3, count)] = rng.normal()
    precision = rows.T @ rows + np.diag(rng.uniform(0.5, 2, count))
    assert inverse_of(precision) == pytest.approx(np.linalg.inv(precision), abs=1e-9)
    assert inverse_of(np.diag([2.0, 4.0])) == pytest.approx(np.diag([0.5, 0.25]))


def readings_of(rng: np.random.Generator, count: int, places: int) -> tuple[Readings, np.ndarray]:
    """Readings of two of four things each, and the same as rows over things and places."""
    things, much = rng.integers(0, 4, (count, 2)), rng.normal(size=(count, 2))
    much[things[:, 0] == things[:, 1], 1] = 0.0
    place = rng.integers(-1, places, count)
    rows = np.zeros((count, 4 + places))
    for line in range(count):
        for thing, how_much in zip(things[line], much[line], strict=True):
            rows[line, thing] += how_much
        if place[line] >= 0:
            rows[line, 4 + place[line]] = 1.0
    return Readings(things, much, rng.normal(size=count), rng.uniform(0.01, 0.2, count), place), rows


@pytest.mark.parametrize("tied", [0.0, 0.05])
@pytest.mark.parametrize(("count", "places"), [(3, 0), (12, 3), (40, 6)])
def test_places_summed_out_come_to_the_same_as_all_at_once(count: int, places: int, tied: float) -> None:
    """D: against the dense update over things and places, and each reading left out against one without it."""
    rng = np.random.default_rng(count)
    readings, rows = readings_of(rng, count, places)
    shared = rng.uniform(0.01, 0.3, places)
    prior = np.zeros((4 + places, 4 + places))
    prior[:4, :4] = np.diag([0.3, 0.2, 0.4, 0.1]) + tied
    prior[range(4, 4 + places), range(4, 4 + places)] = shared
    dense = update(np.zeros(len(prior)), prior, rows, readings.values, readings.noise)
    known = known_after(precision_of(prior[:4, :4]), readings, shared)
    assert known.mean == pytest.approx(dense.mean[:4], abs=1e-8)
    assert known.covariance == pytest.approx(dense.covariance[:4, :4], abs=1e-8)
    assert known.shared == pytest.approx(dense.mean[4:], abs=1e-8)
    assert known.shared_variance == pytest.approx(np.diag(dense.covariance)[4:], abs=1e-8)
    between = [
        [-np.sum(much * known.covariance[things, thing]) for thing in range(4)]
        for things, much in zip(*known.softened, strict=True)
    ]
    assert np.reshape(between, (places, 4)) == pytest.approx(dense.covariance[4:, :4], abs=1e-8)
    apart, sd = left_out(known, readings)
    for at in range(count):
        others = np.arange(count) != at
        less = update(np.zeros(len(prior)), prior, rows[others], readings.values[others], readings.noise[others])
        assert apart[at] == pytest.approx(readings.values[at] - rows[at] @ less.mean, abs=1e-7)
        variance = rows[at] @ less.covariance @ rows[at] + readings.noise[at]
        assert sd[at] == pytest.approx(math.sqrt(variance), abs=1e-7)


@pytest.mark.parametrize(("mean", "sd", "after"), [(0.3, 0.4, 0.1), (-1.0, 0.5, 0.4), (0.0, 0.3, 0.15), (2, 0.3, 0.1)])
def test_how_often_a_verdict_will_be_wrong_after_a_reading(mean: float, sd: float, after: float) -> None:
    """Against scipy's bivariate normal and against drawing it; a reading never does harm."""
    rng = np.random.default_rng(1)
    means = rng.normal(mean, math.sqrt(sd**2 - after**2), 400_000)
    drawn = float(np.mean(stats.norm.cdf(-np.abs(means) / after)))
    found = float(expected_wrong(np.array([mean]), np.array([sd]), np.array([after]))[0])
    assert found == pytest.approx(drawn, abs=0.001)
    assert found <= stats.norm.cdf(-abs(mean) / sd)
    assert float(wrong_chance(mean, sd)) == pytest.approx(stats.norm.cdf(-abs(mean) / sd))
    same = float(expected_wrong(np.array([mean]), np.array([sd]), np.array([sd]))[0])
    assert same == pytest.approx(stats.norm.cdf(-abs(mean) / sd), abs=1e-6)


def test_a_root_of_a_covariance_gives_it_back() -> None:
    tied = np.array([[0.04, 0.04, 0.0], [0.04, 0.04, 0.0], [0.0, 0.0, 0.09]])  # singular
    assert root_of(tied) @ root_of(tied).T == pytest.approx(tied)


UNITS = [
    Unit(name="Sure", claims=(Claim(guide_number=40, unit="m", zoom_mm=35),), hss=Hss()),
    Unit(name="Moved", claims=(Claim(guide_number=58, unit="m", zoom_mm=200),), hss=Hss()),
    Unit(name="Energy", watt_seconds=200),
]
MODIFIERS: list[dict[str, Any] | None] = [
    None,
    {"name": "Octa", "stops": -1.3, "layers": [{"name": "outer", "stops": -0.9, "sd": 0.25}]},
    {"name": "Dish", "stops": -1.2},
]


def shelf() -> UnitTable:
    return table_of(UNITS)


def entry(unit: int, modifier: int, stops: float, **more: Any) -> LogEntry:
    """A reading of one unit behind one modifier, `stops` off a correct exposure."""
    seen = {"kind": "face", "stops": stops, "holds_ambient": False, "sd": 0.1} | more.pop("seen", {})
    light = {"unit": UNITS[unit].model_dump(), "modifier": MODIFIERS[modifier], "distance_m": more.pop("metres", 2.0)}
    was = Setup.model_validate({"lights": [light], "ambient": {"condition": "office"}} | more.pop("setup", {}))
    camera = SeenWith(f_number=8, shutter_s=1 / 125, iso=100)
    reading = Seen.model_validate(seen | {"camera": camera, "was": was.lights[0]})
    return LogEntry(at=datetime(2026, 6, 12, 12), was=was, seen=reading, **more)


def said(one: LogEntry) -> float:
    """What the chain says of the flash alone [stops]."""
    row, assumed = Rows(shelf()).of(one), one.seen
    assert row is not None
    assert assumed is not None
    return assumed.stops - row.off


def test_a_reading_teaches_unit_and_modifier_by_their_doubts() -> None:
    """As in the handbook's check, with the distance's .05 beside the reading's .10."""
    level = said(entry(0, 2, 0.0))
    found = learn([entry(0, 2, level + 0.4)], shelf())
    places = found.learned.places
    sums = 0.25**2 + 0.3**2 + 0.1**2 + 0.05**2
    assert found.found[0].off == pytest.approx(0.4)
    assert found.learned.mean[places["unit", "Sure", "rating"]] == pytest.approx(0.4 * 0.25**2 / sums)
    assert found.learned.mean[places["modifier", "Dish", ""]] == pytest.approx(0.4 * 0.3**2 / sums)


def test_what_was_learned_moves_every_chain_that_holds_it_and_narrows_its_doubt() -> None:
    one = entry(0, 2, said(entry(0, 2, 0.0)) + 0.4)
    taught = table_of(UNITS, learned=learn([one], shelf()).learned)
    assert one.was is not None
    before, after = (solve(one.was, table).reach("sync").spare[0] for table in (shelf(), taught))
    sums = 0.25**2 + 0.3**2 + 0.1**2 + 0.05**2
    assert after - before == pytest.approx(0.4 * (0.25**2 + 0.3**2) / sums, abs=1e-6)
    # The sum is known better than either: not the squares of the two added up.
    sd = float(solve(one.was, taught).reach("sync").sd[0])
    own = 0.01 + 0.05**2
    learned = (0.25**2 + 0.3**2) * own / sums
    ambient = solve(one.was, shelf()).reach("sync").sd[0] ** 2 - 0.25**2 - 0.3**2
    assert sd**2 == pytest.approx(learned + ambient, abs=1e-6)
    other = solve(entry(1, 2, 0.0).was or one.was, taught).reach("sync")
    assert other.spare[1] - solve(one.was, shelf()).reach("sync").spare[1] == pytest.approx(
        0.4 * 0.3**2 / sums, abs=1e-6
    )


def reading(unit: Unit, stops: float, shutter_s: float = 1 / 125, **light: Any) -> LogEntry:
    """A reading of a bare unit in a dark place, taken in HSS where the time is that short."""
    doc = {"unit": unit.model_dump(), "distance_m": 2.0} | light
    was = Setup.model_validate({"lights": [doc], "ambient": {"condition": "dark"}})
    camera = SeenWith(f_number=8, shutter_s=shutter_s, iso=100)
    method = "hss" if shutter_s < 1 / 250 else "sync"
    seen = {"kind": "face", "stops": stops, "holds_ambient": False, "sd": 0.1, "camera": camera, "was": was.lights[0]}
    return LogEntry.model_validate({"at": datetime(2026, 6, 12), "was": was, "seen": seen | {"method": method}})


ZOOMING = Unit(
    name="Head", claims=(Claim(guide_number=40, unit="m", zoom_mm=35),), zoom_min_mm=24, zoom_max_mm=200, hss=Hss()
)


def spares(setup: Setup, table: UnitTable, method: Any = None) -> tuple[float, float]:
    """(stops in hand, their doubt) of the shelf's first unit."""
    solved = solve(setup, table)
    reach = solved.reach(method or solved.kinds[0])
    return float(reach.spare[0]), float(reach.sd[0])


def test_what_is_learned_at_one_zoom_is_not_said_of_another() -> None:
    """Zoomed to 200 mm the rating's .25 and that position's own doubt share the reading; at 105 mm only the rating."""
    said = table_of([ZOOMING])
    own = float(said.output_at(200.0).gain_sd[0])
    assert own > 0.1
    row = Rows(said).of(reading(ZOOMING, 0.0, zoom_mm=200.0))
    assert row is not None
    taught = table_of([ZOOMING], learned=learn([reading(ZOOMING, 0.6 - row.off, zoom_mm=200.0)], said).learned)
    sums = 0.25**2 + own**2 + 0.1**2 + 0.05**2
    for mm, share in ((200.0, 0.25**2 + own**2), (105.0, 0.25**2), (35.0, 0.25**2)):
        setup = reading(ZOOMING, 0.0, zoom_mm=mm).was
        assert setup is not None
        (before, doubt), (after, less) = spares(setup, said), spares(setup, taught)
        assert after - before == pytest.approx(0.6 * share / sums, abs=1e-4), mm
        assert less < doubt


def test_what_is_learned_of_hss_moves_hss_alone() -> None:
    said = table_of([ZOOMING])
    row = Rows(said).of(reading(ZOOMING, 0.0, 1 / 1000))
    assert row is not None
    taught = table_of([ZOOMING], learned=learn([reading(ZOOMING, 0.6 - row.off, 1 / 1000)], said).learned)
    sums = 0.25**2 + 0.4**2 + 0.1**2 + 0.05**2
    sun = Setup.model_validate({"lights": [{"distance_m": 2.0}], "filters": [{"name": "Six", "stops": 6}]})
    moved = {kind: spares(sun, taught, kind)[0] - spares(sun, said, kind)[0] for kind in ("hss", "nd")}
    assert moved["hss"] == pytest.approx(0.6 * (0.25**2 + 0.4**2) / sums, abs=1e-4)
    assert moved["nd"] == pytest.approx(0.6 * 0.25**2 / sums, abs=1e-4)


def test_a_light_moved_to_another_coverage_has_all_the_doubt_of_the_one_quoted() -> None:
    """D: moved = quoted + what moving adds, which is its own: their covariance is the variance of the quoted; all else
    is independent."""
    keys = [
        ("unit", "a", "rating"),
        ("unit", "a", MOVED),
        ("unit", "b", MOVED),
        ("modifier", "a", MOVED),
        ("unit", "c", "hss"),
    ]
    sds = np.array([0.3, 0.5, 0.4, 0.2, 0.1])
    expected = np.diag(sds**2)
    expected[0, 1] = expected[1, 0] = 0.09
    assert covariance_of(keys, sds) == pytest.approx(expected)


def test_the_chance_of_a_job_knows_what_was_learned() -> None:
    """Two setups of one unit share its rating; a reading of it narrows both, and what they have in common."""
    said = table_of([ZOOMING])
    level = Rows(said).of(reading(ZOOMING, 0.0))
    assert level is not None
    taught = table_of([ZOOMING], learned=learn([reading(ZOOMING, -level.off)], said).learned)
    left = 0.25**2 * (0.1**2 + 0.05**2) / (0.25**2 + 0.1**2 + 0.05**2)
    for table, variance in ((said, 0.25**2), (taught, left)):
        reach = solve(reading(ZOOMING, 0.0).was or Setup(), table).reach("sync")
        load = load_of(reach.jumps_of(0), table, 0, "here")
        keys = [("unit", "Head", "rating")]
        much, prior = load.of[keys[0]]
        _, covariance = known_of(keys, np.array([prior]), table)
        assert (much, prior) == (pytest.approx(1.0), pytest.approx(0.25))
        assert float(covariance[0, 0]) == pytest.approx(variance, abs=1e-6)
        assert load.own == pytest.approx(0.05)  # of the distance
    moved = table_of([UNITS[1]])  # quoted at 200 mm, used at 35: a thing apart from its light where it is quoted
    jumps = solve(reading(UNITS[1], 0.0).was or Setup(), moved).reach("sync").jumps_of(0)
    assert {part for _, _, part in load_of(jumps, moved, 0, "").of} >= {"moved"}
    assert "rating" not in {part for _, _, part in load_of(jumps, moved, 0, "").of}


def test_a_total_is_read_as_the_flash_in_it() -> None:
    """Ambient -1, share .5: +0.4 in the total is +0.71 of flash (handbook)."""
    level = said(entry(0, 0, 0.0))
    camera = SeenWith(f_number=8 * 2 ** ((level + 1) / 2), shutter_s=1 / 125, iso=100)
    seen = {"stops": 0.4, "holds_ambient": True, "ambient_stops": -1.0}
    one = entry(0, 0, 0.0, seen=seen)
    assert one.seen is not None
    one = one.model_copy(update={"seen": one.seen.model_copy(update={"camera": camera})})
    row = Rows(shelf()).of(one)
    assert row is not None
    assert row.off == pytest.approx(0.71, abs=0.1)  # the aperture is a marked one
    half = Rows(shelf()).of(entry(0, 0, 0.0, seen=seen | {"stops": 0.0}))
    assert half is not None
    assert half.noise == pytest.approx(0.1**2 / 0.5**2)  # what is doubtful in the total counts twice in half of it


def test_a_thousand_readings_of_one_truth_come_to_it() -> None:
    rng = np.random.default_rng(3)
    truth, level = 0.37, said(entry(0, 0, 0.0))
    metres = 1 + np.arange(1000) / 1000
    levels = level - 2 * np.log2(metres / 2) + truth + rng.normal(0, 0.1, 1000)  # inverse square from 2 m
    entries = [entry(0, 0, float(seen), metres=float(far)) for seen, far in zip(levels, metres, strict=True)]
    found = learn(entries, shelf()).learned
    assert found.mean[found.places["unit", "Sure", "rating"]] == pytest.approx(truth, abs=0.012)
    assert found.sd[found.places["unit", "Sure", "rating"]] < 0.005
    # In one place its distance is read over and over, and stays as doubtful as it was.
    same = [entry(0, 0, level + truth + float(rng.normal(0, 0.1))) for _ in range(300)]
    assert learn(same, shelf()).learned.sd[0] == pytest.approx(0.05, abs=0.005)


def test_an_odd_reading_is_pointed_out_and_one_set_aside_teaches_nothing() -> None:
    level = said(entry(0, 0, 0.0))
    good = [entry(0, 0, level + off, metres=2.0) for off in (0.1, 0.0, 0.15)]
    odd = entry(0, 0, level - 1.6)
    found = learn([*good, odd], shelf())
    assert [one.odd for one in found.found] == [False, False, False, True]
    assert found.found[3].apart == pytest.approx(-1.7, abs=0.1)
    assert learn([odd], shelf()).found[0].times is None  # there is nothing that it could be held against
    without = learn([*good, odd.model_copy(update={"aside": True})], shelf())
    assert without.found[3].off == pytest.approx(-1.6)
    assert without.learned.mean == pytest.approx(learn(good, shelf()).learned.mean)


@pytest.mark.parametrize("seed", range(4))
def test_what_is_learned_entry_by_entry_is_what_all_teach_at_once(seed: int) -> None:
    """In any order, over places read once, twice and often, with some set aside, one changed and one left out."""
    rng, table = np.random.default_rng(seed), shelf()
    entries = [
        entry(
            int(rng.integers(3)),
            int(rng.integers(3)),
            float(rng.normal(0, 0.3)),
            metres=float(rng.choice([1.0, 2.0, 2.5])),
        )
        for _ in range(12)
    ]
    entries[5] = entries[5].model_copy(update={"aside": True})
    entries.append(LogEntry.model_validate({"at": datetime(2026, 6, 12, 12), "note": "windy"}))
    changed = [*entries[:3], entries[3].model_copy(update={"aside": True}), *entries[4:]]
    learning = learn([], table)
    for logged in [entries[: at + 1] for at in range(len(entries))] + [changed, changed[1:]]:
        learning = learn(logged, table, before=learning)
        whole = learn(logged, table)
        assert learning.learned.places.keys() == whole.learned.places.keys()
        at = [learning.learned.places[key] for key in whole.learned.places]
        assert learning.learned.mean[at] == pytest.approx(whole.learned.mean, abs=1e-9)
        assert learning.learned.covariance[np.ix_(at, at)] == pytest.approx(whole.learned.covariance, abs=1e-9)
        assert [one.off for one in learning.found] == [one.off for one in whole.found]
        assert [one.apart for one in learning.found] == pytest.approx([one.apart for one in whole.found], abs=1e-9)
    less = table_of(UNITS[1:])
    assert learn(changed[1:], less, before=learning).found == learn(changed[1:], less).found


def _taken(row: ReadingRow, truths: dict[Any, float], rng: np.random.Generator) -> float:
    """What is really there over what is said [stops], before the reading's own noise."""
    own = sum(
        much * truths.setdefault(key, rng.normal(0, sd)) for key, (much, sd) in row.of.items() if key[0] != "ambient"
    )
    return float(own + rng.normal(0, math.sqrt(row.place_noise)))


@lru_cache(maxsize=256)
def _asked(unit: int, modifier: int, metres: float) -> tuple[ReadingRow, float]:
    """(what a reading would hold, how doubtful the ambient is there)."""
    plain = entry(unit, modifier, 0.0, metres=metres)
    row = Rows(shelf()).of(plain)
    assert row is not None
    return row, ambient_sd(plain)


@pytest.mark.parametrize("count", [1, 3, 6])
def test_the_doubt_is_as_large_as_it_says(count: int) -> None:
    """Hidden truths drawn from the stated doubts: 68 % within one sd, 95 % within two, readings of totals included."""
    rng, table = np.random.default_rng(100 + count), shelf()
    kinds = list(itertools.product(range(3), range(3), (False, True)))
    inside = []
    for _ in range(2000 if count < 6 else 1000):
        truths: dict[Any, float] = {}
        entries = []
        for number in range(count):
            unit, modifier, whole = kinds[rng.integers(len(kinds))]
            metres = 1.0 + number / 7 + unit / 100
            row, doubt = _asked(unit, modifier, metres)
            # Moved and quoted share the quoted doubt: draw one on top of the other.
            for key, (_, sd) in row.of.items():
                if key[2] == "moved" and key not in truths:
                    base = truths.setdefault(("unit", key[1], "rating"), rng.normal(0, 0.25))
                    truths[key] = base + rng.normal(0, math.sqrt(sd**2 - 0.25**2))
            flash = -row.off + _taken(row, truths, rng)
            ambient = -30.0
            if whole:  # the ambient a third under the flash as it was planned, itself in doubt
                ambient = flash - 0.3
                off = truths.setdefault("ambient", rng.normal(0, 1.0)) * doubt
                flash = float(np.log2(2**flash + 2 ** (ambient + off)))
            seen = {
                "stops": float(np.clip(flash + rng.normal(0, 0.1), -12, 12)),
                "holds_ambient": whole,
                "ambient_stops": ambient,
            }
            entries.append(entry(unit, modifier, 0.0, metres=metres, seen=seen))
        learned = learn(entries, table).learned
        inside += [
            abs(learned.mean[at] - truths[key]) / learned.sd[at] for key, at in learned.places.items() if key in truths
        ]
    times = np.array(inside)
    assert np.mean(times < 1) == pytest.approx(0.683, abs=0.02)
    assert np.mean(times < 2) == pytest.approx(0.954, abs=0.02)


def ambient_sd(one: LogEntry) -> float:
    from jumpstop.core.plan.camera.ambient import ambient_of

    assert one.was is not None
    return ambient_of(one.was.ambient).subject_sd


@pytest.mark.parametrize(
    ("stops", "filters"),
    [
        (6.0, ["Six"]),
        (3.0, ["Three"]),
        (4.33, ["Turned"]),
        (7.0, ["?"]),
        (9.0, ["Three", "Six"]),
        (8.0, ["Three", "Turned"]),
    ],
)
def test_a_reading_through_a_filter_teaches_the_one_that_was_on(stops: float, filters: list[str]) -> None:
    """A light that comes out short through a filter speaks of that filter, and of no other; through two, of both."""
    carried = [
        {"name": "Three", "stops": 3},
        {"name": "Six", "stops": 6},
        {"name": "Turned", "stops": 4, "most_stops": 5},
    ]
    one = entry(0, 0, -0.5, setup={"filters": carried[:0] if filters == ["?"] else carried})
    assert one.seen is not None
    camera = one.seen.camera.model_copy(update={"nd_stops": stops, "iso": 400})
    learned = learn([one.model_copy(update={"seen": one.seen.model_copy(update={"camera": camera})})], shelf()).learned
    named = [key[1] for key in learned.places if key[0] == "filter"]
    assert named == ([""] if filters == ["?"] else filters)


def test_two_frames_teach_a_filter_and_a_wall_teaches_a_curtain() -> None:
    """A filter seen to take a tenth less than marked; 0.625 of a wall lit at 1/400 is a travel of 1/250 [D]."""
    at = datetime(2026, 6, 12, 12)
    body = {"name": "B", "sync_s": 1 / 200}
    nd = {"filter": {"name": "ND", "stops": 3}, "marked_stops": 3.0, "stops": 2.9}
    wall = {"body": body, "shutter_s": 1 / 400, "lit": 0.625}
    found = learn(
        [LogEntry.model_validate({"at": at, "filter": nd}), LogEntry.model_validate({"at": at, "curtain": wall})],
        shelf(),
    )
    learned = found.learned
    at_nd, at_body = learned.places["filter", "ND", ""], learned.places["body", "B", "travel"]
    assert learned.mean[at_nd] == pytest.approx(0.1 * 0.1**2 / (0.1**2 + 0.1**2))  # marked and frames weigh the same
    off = math.log2((1 / 250) / (1 / 200))
    assert found.found[1].off == pytest.approx(off)
    assert learned.mean[at_body] == pytest.approx(off * 0.3**2 / (0.3**2 + 0.1**2))


def test_the_ambient_of_one_setup_says_nothing_of_anothers() -> None:
    """What two readings of one setup and day share is a thing of its own; of two setups, or days, it is two."""
    one = entry(0, 0, 0.0, setup={"ambient": {"condition": "hazy_sun"}})
    was, day = one.was, datetime(2026, 6, 12, 12)

    def things(*told: tuple[str | None, datetime]) -> int:
        entries = [LogEntry(at=at, was=was, setup=key, ambient={"stops": 0.3, "sd": 0.1}) for key, at in told]
        return len({key for item in entries for key in (Rows(shelf()).of(item) or ReadingRow(0, {}, 1)).of})

    assert things(("a", day), ("a", day.replace(hour=15))) == 1
    assert things(("a", day), ("b", day)) == 2
    assert things(("a", day), ("a", day.replace(day=13))) == 2
    assert things((None, day), ("a", day)) == 2
    row = Rows(shelf()).of(LogEntry(at=day, was=was, ambient={"stops": 0.3, "sd": 0.2}))
    assert row is not None
    assert (row.off, row.noise) == (0.3, pytest.approx(0.2**2))


def test_a_patch_holds_the_cameras_tone_curve_too() -> None:
    row, plain = (Rows(shelf()).of(entry(0, 0, 0.0, seen={"kind": kind})) for kind in ("patch", "face"))
    assert row is not None
    assert plain is not None
    assert row.of["body", "A body", "tone"] == (1.0, 0.2)
    assert ("body", "A body", "tone") not in plain.of
    meter = Rows(shelf()).of(entry(0, 0, 0.0, seen={"kind": "meter", "sd": 0.1}))
    assert meter is not None
    assert meter.noise == pytest.approx(0.1**2 + (1 / 3) ** 2 / 12)  # and the rounding to thirds


def test_what_is_read_in_high_speed_sync_teaches_the_units_hss() -> None:
    one = entry(0, 0, 0.0, seen={"method": "hss"})
    assert one.seen is not None
    camera = one.seen.camera.model_copy(update={"shutter_s": 1 / 1000})
    one = one.model_copy(update={"seen": one.seen.model_copy(update={"camera": camera, "stops": 0.0})})
    row, plain = Rows(shelf()).of(one), Rows(shelf()).of(entry(0, 0, 0.0))
    assert row is not None
    assert plain is not None
    assert row.of["unit", "Sure", "hss"] == (1.0, 0.4)
    # 1/1000 on a 1/250 body costs 2.32 and the unit's own half stop; 1/125 against 1/1000 says nothing of flash.
    assert row.off - plain.off == pytest.approx(2.32 + 0.5, abs=0.01)


def test_a_unit_that_is_gone_teaches_nothing_and_a_reading_without_flash_neither() -> None:
    gone = entry(0, 0, 0.5)
    assert learn([gone], table_of(UNITS[1:])).found[0].off is None
    dark = entry(0, 0, 0.0, seen={"holds_ambient": True, "ambient_stops": 0.5, "stops": 0.0})
    assert learn([dark], shelf()).found[0].off is None
    assert len(learn([], shelf()).learned) == 0
    flashes = LogEntry(at=gone.at, was=gone.was, flashes=40)
    assert Rows(shelf()).of(flashes) is None


def test_a_bounce_teaches_the_room_it_was_read_in() -> None:
    """The longer way over a ceiling belongs to the room, .1 in doubt; its surface's own loss to the modifier."""
    ceiling = {"name": "Ceiling", "kind": "bounce", "stops": -1.25}
    light = {"unit": UNITS[0].model_dump(), "modifier": ceiling, "distance_m": 2.5}
    was = Setup.model_validate(
        {"name": "Loft", "lights": [light], "stage": {"ceiling_m": 2.6}, "ambient": {"condition": "dark"}}
    )
    seen = Seen(kind="face", holds_ambient=False, was=was.lights[0])
    row = Rows(shelf()).of(LogEntry(at=datetime(2026, 6, 12, 12), was=was, seen=seen))
    assert row is not None
    assert row.of["room", "Loft", "ceiling"] == (1.0, 0.1)
    assert row.of["modifier", "Ceiling", ""] == (1.0, 0.3)
