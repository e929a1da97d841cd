"""What to measure next, on simulated shelves: hidden truths drawn from the stated doubts, the same for both choices."""

import numpy as np
import pytest
from scipy.special import ndtr, ndtri

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.learn.next_reading import KnownSoFar, candidates_of, landing_of, propose, state_of
from scenes import lit_through, unit


def test_the_reading_that_settles_most_is_of_what_is_in_doubt() -> None:
    """Of a landing on the line and one far over it, the one on the line is read, through what stands before it."""
    table = table_of([unit("Near", 50), unit("Far", 50)])
    box = {"name": "Box", "stops": -1.3}
    reaches = [lit_through(box, table, 0, 0.1), lit_through(None, table, 1, 3.0)]
    found = [(landing_of(reach, at, at, 0), reach) for at, reach in enumerate(reaches)]
    landings = [landing for landing, _ in found]
    best, second = propose(landings, candidates_of(found, [0, 1]), table)
    assert second.wrong < best.wrong
    assert (best.candidate.unit, best.candidate.light.modifier and best.candidate.light.modifier.name) == (0, "Box")
    assert best.wrong_after < best.wrong < 0.5
    even = ndtri((np.arange(10_000) + 0.5) / 10_000)  # D: over what the reading may say, all as likely
    left = [
        ndtr(-np.abs(one.spare + np.sqrt(b**2 - a**2) * even) / a).mean()
        for one, (b, a) in zip(landings, best.sd, strict=True)
    ]
    assert best.wrong == pytest.approx(sum(ndtr(-one.spare / b) for one, (b, _) in zip(landings, best.sd, strict=True)))
    assert best.wrong_after == pytest.approx(sum(left), abs=1e-3)
    before, after = best.sd[0]
    assert before == pytest.approx(np.sqrt(0.25**2 + 0.3**2 + 0.05**2 * 2), abs=0.03)
    assert after < 0.2
    assert best.sd[1] == (pytest.approx(best.sd[1][1]), best.sd[1][1])
    # What is not owned cannot be read; what is settled already is not worth reading.
    assert all(one.candidate.unit == 1 for one in propose(landings, candidates_of(found, [1]), table))
    sure = [(landing_of(reaches[1], 1, 0, 0), reaches[1])]
    assert propose([sure[0][0]], candidates_of(sure, [1]), table) == []


def _job(rng: np.random.Generator) -> KnownSoFar:
    units = [
        Unit(name=f"U{i}", watt_seconds=float(rng.integers(100, 600)))
        if i % 4 == 3
        else unit(f"U{i}", float(rng.integers(30, 90)), float(rng.choice([35, 35, 105, 200])))
        for i in range(8)
    ]
    table = table_of(units)
    found = []
    for number in range(int(rng.integers(3, 6))):
        at, which = int(rng.integers(8)), int(rng.integers(6))
        layers = [{"name": "outer", "stops": -0.9, "sd": 0.25}] if which % 2 else []
        box = {"name": f"M{which}", "stops": -0.5 - which / 4, "layers": layers}
        reach = lit_through(box, table, at, float(rng.normal(0, 0.5)))
        found.append((landing_of(reach, at, number, 0), reach))
    return state_of([landing for landing, _ in found], candidates_of(found, range(8)), table)


def test_six_proposed_readings_settle_a_job_better_than_six_random_ones() -> None:
    """Median error of a landing at most 0.1 stop, and at most half as many wrong verdicts."""
    rng = np.random.default_rng(11)
    errors, wrong, wrong_at_random = list[float](), 0, 0
    for _ in range(250):
        state = _job(rng)
        truth = rng.multivariate_normal(state.known.mean, state.known.covariance)
        real = state.spare + state.rows @ truth + rng.normal(0, np.sqrt(state.own))
        noise, drawn = rng.normal(size=6), rng.integers(len(state.looks), size=6)
        chosen = by_chance = state
        for turn in range(6):
            best = int(np.argmax(chosen.worth()))
            for which, at in (("chosen", best), ("by chance", int(drawn[turn]))):
                seen = float(state.looks[at] @ truth + np.sqrt(state.noise[at]) * noise[turn])
                if which == "chosen":
                    chosen = chosen.told(at, seen)
                else:
                    by_chance = by_chance.told(at, seen)
        errors += list(np.abs(chosen.mean - real))
        wrong += int(np.sum((chosen.mean >= 0) != (real >= 0)))
        wrong_at_random += int(np.sum((by_chance.mean >= 0) != (real >= 0)))
    assert np.median(errors) <= 0.1
    assert wrong_at_random > 20
    assert wrong <= wrong_at_random / 2
