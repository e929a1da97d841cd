"""Which kit: against trying every set; the chance of a whole job; what stands in the way."""

import itertools
import math
from collections import Counter
from typing import Any

import numpy as np
import pytest

from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Claim, Unit
from jumpstop.core.plan.choice.assignment import crowded, missing, most_of, needs_of, posts_of, unknown_of
from jumpstop.core.plan.choice.kit_choice import choose_kit, front_of
from jumpstop.core.plan.job.board import Landings, board_of, joint_chance, landings_of, whole_chance
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from scenes import covered


def shelf(dice: np.random.Generator, count: int) -> UnitTable:
    return table_of(
        [
            Unit(
                name=f"U{i}", watt_seconds=100, weight_g=float(dice.integers(200, 3000)),
                price=float(dice.integers(50, 900)), holding=str(dice.choice(["owned", "hire", "wanted"])),
                count=int(dice.integers(1, 3)),
            )
            for i in range(count)
        ]
    )  # fmt: skip


def job(dice: np.random.Generator, units: int, heads: int, kept: float = 0.0) -> list[Landings]:
    """Setups with made-up chances: which unit holds which light, in one method or two. kept: share of lights that have
    a unit already."""
    out = []
    for _ in range(int(dice.integers(1, 4))):
        lights = int(dice.integers(1, 4))
        kinds = ("sync", "hss")[: int(dice.integers(1, 3))]
        chance = np.where(dice.random((len(kinds), lights, units)) < 0.5, 0.95, 0.4)
        wanted = tuple(int(dice.integers(1, heads + 1)) for _ in range(lights))
        taken = tuple(int(dice.integers(units)) if dice.random() < kept else None for _ in range(lights))
        out.append(Landings(None, kinds, tuple(range(lights)), chance, wanted, taken))  # type: ignore[arg-type]
    return out


def holds(landings: list[Landings], counts: list[int], spares: int) -> bool:
    """Whether every setup has a method that covers it, and covers it still when one of any unit is away."""
    lost = [[c - (i == gone) for i, c in enumerate(counts)] for gone in range(len(counts)) if counts[gone]]
    cases = [counts, *(lost if spares else [])]
    return all(any(all(covered(one, k, case) for case in cases) for k in range(len(one.kinds))) for one in landings)


@pytest.mark.parametrize("least", ["weight", "price", "buy"])
@pytest.mark.parametrize(("spares", "heads", "kept"), [(0, 1, 0), (0, 2, 0), (1, 1, 0), (1, 3, 0), (0, 2, 0.2)])
def test_the_choice_is_as_good_as_the_best_of_all_sets(least: Any, spares: int, heads: int, kept: float) -> None:
    """Against brute force: over 200 random shelves of up to five kinds the least is the same each time."""
    found = 0
    for seed in range(24):
        dice = np.random.default_rng(seed)
        table = shelf(dice, int(dice.integers(2, 6)))
        landings = job(dice, len(table), heads, kept)
        most = most_of(table, landings, spares)
        figures = [
            u.weight_g if least == "weight" else 0 if least == "buy" and u.holding == "owned" else u.price
            for u in table.units
        ]
        best = math.inf
        for some in itertools.product(*(range(int(m) + 1) for m in most)):
            cost = sum((f or 0) * c for f, c in zip(figures, some, strict=True))
            if cost < best and holds(landings, list(some), spares):
                best = cost
        kit = choose_kit(landings, table, least, 0.9, spares)
        assert kit.proven
        if math.isinf(best):
            assert kit.status == "none"
            continue
        found += 1
        assert kit.objective == pytest.approx(best)
        assert kit.bound == pytest.approx(best)
        counts = [kit.counts.get(i, 0) for i in range(len(table))]
        assert holds(landings, counts, spares)
        for at, one in enumerate(landings):  # who has a unit keeps it, and no unit stands at two lights of one setup
            posts = [post for post in kit.posts if post.setup == at]
            assert sorted(post.light for post in posts) == list(range(len(one.lights)))
            used = np.zeros(len(table), dtype=int)
            for post in posts:
                assert one.chance[post.kind, post.light, post.unit] >= 0.9
                assert one.taken[post.light] in (None, post.unit)
                used[post.unit] += one.heads[post.light]
            assert (used <= counts).all()
            assert len({post.kind for post in posts}) == 1
    assert found > 5


def test_of_kits_that_cost_as_little_the_lightest() -> None:
    units = [
        Unit(name="Heavy", watt_seconds=100, weight_g=2000, price=100),
        Unit(name="Light", watt_seconds=100, weight_g=500, price=100),
        Unit(name="Hired", watt_seconds=100, weight_g=100, price=50, holding="hire"),
    ]
    landings = [Landings(None, ("sync",), (0,), np.full((1, 1, 3), 0.95), (1,))]  # type: ignore[arg-type]
    assert choose_kit(landings, table_of(units), "buy").counts == {1: 1}
    assert choose_kit(landings, table_of(units), "price").counts == {2: 1}
    assert choose_kit(landings, table_of(units), "weight", outlay=10).counts == {1: 1}


def test_the_front_runs_from_the_lightest_to_the_least_outlay() -> None:
    dice = np.random.default_rng(5)
    table = shelf(dice, 40)
    landings = job(dice, len(table), 1)
    points = list(front_of(landings, table, 0.9, 0))
    prices = [0 if unit.holding == "owned" else unit.price or 0 for unit in table.units]
    weights = [sum((table.units[u].weight_g or 0) * n for u, n in kit.counts.items()) for kit in points]
    outlays = [sum(prices[u] * n for u, n in kit.counts.items()) for kit in points]
    assert 2 <= len(points) <= 12
    assert weights == sorted(weights)
    assert outlays == sorted(outlays, reverse=True)
    assert weights[0] == choose_kit(landings, table, "weight").objective
    assert outlays[-1] == pytest.approx(choose_kit(landings, table, "buy").objective)


def test_no_front_where_no_kit_will_do() -> None:
    weak = table_of([Unit(name="Weak", watt_seconds=0.1, weight_g=1)])
    far = {"ambient": {"condition": "dark"}, "aim": {"f_number": 22}, "lights": [{"distance_m": 90}]}
    assert list(front_of([landings_of(solve(Setup.model_validate(far), weak))], weak, 0.9, 0)) == []


def test_the_chance_of_a_whole_job_counts_what_is_shared() -> None:
    """D, physics 15: three of .3 in hand with a shared doubt .3 and own .2: one .797, independent cubed .507, joint
    .653; and against plain drawing."""
    one = joint_chance(np.array([0.3]), np.array([0.2]), np.array([[0.3]]))
    assert one == pytest.approx(0.797, abs=0.005)
    three = joint_chance(np.full(3, 0.3), np.full(3, 0.2), np.full((3, 1), 0.3))
    assert three == pytest.approx(0.653, abs=0.005)
    apart = joint_chance(np.full(3, 0.3), np.full(3, math.hypot(0.3, 0.2)), np.zeros((3, 1)))
    assert apart == pytest.approx(0.507, abs=0.005)
    dice = np.random.default_rng(3)
    spare, own, shared = dice.normal(0.5, 0.3, 6), dice.uniform(0.05, 0.4, 6), dice.normal(0, 0.3, (6, 4))
    drawn = spare + dice.normal(0, 1, (200_000, 4)) @ shared.T + own * dice.normal(0, 1, (200_000, 6))
    assert joint_chance(spare, own, shared) == pytest.approx(np.mean((drawn > 0).all(axis=1)), abs=0.01)
    most = spare + dice.uniform(-0.1, 1.0, 6)
    inside = ((drawn > 0) & (drawn < most)).all(axis=1)
    assert joint_chance(spare, own, shared, most) == pytest.approx(np.mean(inside), abs=0.01)
    assert joint_chance(np.array([]), np.array([]), np.zeros((0, 0))) == 1


def test_the_same_unit_twice_is_less_doubt_than_two() -> None:
    """A unit's rating is shared where it is used twice: two setups alike hold together more surely than by two units
    of as much doubt; and never more surely than one alone."""
    units = [Unit(name=n, claims=(Claim(guide_number=40, unit="m", zoom_mm=35),)) for n in ("One", "Other")]
    table = table_of(units)
    plain = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": [{"distance_m": 4.8}]}
    one, two = (landings_of(solve(Setup.model_validate(plain), table)) for _ in range(2))
    same = whole_chance([(one.reach(0, 0), 0, 0), (two.reach(0, 0), 0, 1)])
    apart = whole_chance([(one.reach(0, 0), 0, 0), (two.reach(0, 0), 1, 1)])
    alone = whole_chance([(one.reach(0, 0), 0, 0)])
    assert apart < same - 0.01
    assert same <= alone + 1e-9
    assert alone == pytest.approx(float(one.chance[0, 0, 0]), abs=0.01)


@pytest.mark.parametrize("metres", [4.8, 3.4, 2.6, 2.0])
def test_a_job_whose_light_may_be_too_bright_is_no_surer_than_that_light(metres: float) -> None:
    """A unit that goes down by one stop alone: from just enough to too bright at its lowest."""
    unit = Unit.model_validate(
        {"name": "One", "claims": [{"guide_number": 40, "unit": "m", "zoom_mm": 35}], "scale": {"lowest": 0.5}}
    )
    plain = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": [{"distance_m": metres}]}
    one = landings_of(solve(Setup.model_validate(plain), table_of([unit])))
    assert whole_chance([(one.reach(0, 0), 0, 0)]) == pytest.approx(float(one.chance[0, 0, 0]), abs=0.01)


SHELF = table_of([Unit.model_validate(doc) for doc in kit()["units"]])
DEMO = [landings_of(solve(setup, SHELF)) for setup in setups()]


def test_the_board_takes_the_best_method_a_setup_allows() -> None:
    """Where it reaches the first, which gives up least; else where it comes nearest; by hand, of many setups."""
    seen = Counter[str]()
    lights = [{"distance_m": 0.3, "target_stops": -less / 2} for less in range(4, 12)]
    lights += [{"distance_m": metres} for metres in (1.3, 9, 60)]
    plain = ({"ambient": {"condition": kind}, "aim": {"f_number": number}, "lights": [light]}
             for kind in ("dark", "office", "distinct_shadows") for number in (1.4, 5.6)
             for light in lights)  # fmt: skip
    more = [landings_of(solve(Setup.model_validate(doc), SHELF)) for doc in plain]
    board = board_of([*DEMO, *more], SHELF)
    for row, column in enumerate(board.columns):
        one = board.landings[column.setup]
        for unit in range(len(SHELF)):
            there = [(k, one.reach(k, column.light)) for k in range(len(one.kinds))]
            words = [str(reach.verdict[unit]) for _, reach in there]
            usable = [(k, reach) for (k, reach), word in zip(there, words, strict=True) if word != "blocked"]
            if not usable:
                assert (board.kind[row, unit], board.verdict[row, unit]) == (-1, "blocked")
                continue
            word = next(best for best in ("reaches", "on_the_line", "too_bright", "short") if best in words)
            assert board.verdict[row, unit] == word
            taken = [k for k, reach in usable if reach.verdict[unit] == word]
            if word != "reaches":  # where none is enough, the nearest; else the first: it gives up least
                off = {k: reach.too_bright[unit] if word == "too_bright" else -reach.spare[unit] for k, reach in usable}
                taken = sorted(taken, key=lambda k: (off[k], k))
            assert board.kind[row, unit] == taken[0]
            seen[word] += len(taken) > 1
    assert all(seen[word] for word in ("reaches", "on_the_line", "too_bright", "short"))
    for row, column in enumerate(board.columns):
        one = board.landings[column.setup]
        for unit in np.flatnonzero(board.kind[row] >= 0).tolist():
            method = int(board.kind[row, unit])
            reach = one.reach(method, column.light)
            told = [board.spare, board.sd, board.below_full, board.too_bright, board.verdict, board.chance]
            own = [
                reach.spare,
                reach.sd,
                reach.below_full,
                reach.too_bright,
                reach.verdict,
                one.chance[method, column.light],
            ]
            assert [figure[row, unit] for figure in told] == [figure[unit] for figure in own]
    assert board.covers.tolist() == [int((board.verdict[:, unit] == "reaches").sum()) for unit in range(len(SHELF))]
    leap = next(one for one in DEMO if one.solved.setup.name == "The leap")
    assert leap.kinds == ("hss",)  # past sync at 1/1000 nothing else freezes it
    fixed = landings_of(solve(setups()[0].model_copy(update={"method": "hss"}), SHELF))
    assert fixed.kinds == ("hss",)


def test_a_landing_holds_between_short_and_too_bright() -> None:
    """D: Phi of what is in hand over its doubt, less the chance that even the lowest setting is too much."""
    one = DEMO[0]
    reach = one.reach(0, 0)
    unit = int(np.argmax(reach.spare))
    spare, sd, room = (
        float(reach.spare[unit]),
        float(reach.sd[unit]),
        float(SHELF.dial_range[unit] + SHELF.step[unit] / 2),
    )

    def phi(x: float) -> float:
        return 0.5 * math.erfc(-x / math.sqrt(2))

    assert one.chance[0, 0, unit] == pytest.approx(phi(spare / sd) - (1 - phi((room - spare) / sd)), abs=1e-6)
    bright = next(
        (one, k, u) for one in DEMO for k in range(len(one.kinds)) for u in range(len(SHELF))
        if one.reach(k, 0).verdict[u] == "too_bright"
    )  # fmt: skip
    assert bright[0].chance[bright[1], 0, bright[2]] < 0.5


def test_what_stands_in_the_way_is_named() -> None:
    weak = table_of([Unit(name="Weak", claims=(Claim(guide_number=10, unit="m", zoom_mm=35),))])
    noon = landings_of(solve(setups()[0], weak))
    (gap,) = missing([noon], 0.9)
    reach = noon.reach(gap.kind, gap.light)
    assert not gap.too_bright
    assert gap.lacks == pytest.approx(1.2816 * float(reach.sd[0]) - float(reach.spare[0]), abs=1e-3)  # the normal's .9
    assert choose_kit([noon], weak).status == "none"

    def near(metres: float) -> Landings:
        doc = {
            "ambient": {"condition": "dark"},
            "aim": {"f_number": 1.4, "iso": 400},
            "lights": [{"distance_m": metres}],
        }
        return landings_of(solve(Setup.model_validate(doc), weak))

    over = float(near(1.0).reach(0, 0).too_bright[0])
    (gap,) = missing([near(2 ** ((over - 0.5) / 2))], 0.9)  # D, inverse square: half a stop too bright at the lowest
    assert (gap.too_bright, gap.lacks) == (True, pytest.approx(0.5, abs=0.01))
    shelf = table_of([*weak.units, *SHELF.units])
    held = landings_of(solve(setups()[0].model_copy(update={"method": "hss"}), shelf))
    far = setups()[0].lights[0].model_copy(update={"distance_m": 60.0})
    lost = landings_of(solve(setups()[0].model_copy(update={"lights": (*setups()[0].lights, far)}), shelf))
    gaps = missing([held, lost, lost], 0.9)
    assert [(gap.setup, gap.light) for gap in gaps] == [(1, 1), (2, 1)]  # what is held lacks nothing, in any method
    least = min(
        float(np.min((1.2816 * r.sd - r.spare)[r.able])) for r in (lost.reach(k, 1) for k in range(len(lost.kinds)))
    )
    assert gaps[0].lacks == pytest.approx(least, abs=1e-3)
    far_off = landings_of(
        solve(setups()[0].model_copy(update={"lights": (far, far.model_copy(update={"distance_m": 90.0}))}), shelf)
    )
    assert [gap.light for gap in missing([far_off], 0.9)] == [1, 0]  # the worst first
    two = setups()[3].model_copy(update={"lights": (setups()[3].lights[0],) * 2})
    alone = table_of([unit for unit in SHELF.units if unit.name == "Dunlin 36"])
    pair = landings_of(solve(two, alone))
    assert missing([pair], 0.9) == []
    assert crowded([pair], alone, 0.9, 0) == [0]
    assert posts_of(0, needs_of([pair], 0.9), {0: 2}) is not None


def test_what_is_not_weighed_counts_as_the_heaviest_or_is_left_out() -> None:
    """Two units of which each holds the one light: the one nobody has weighed is not taken for being unknown."""
    units = [
        Unit(name=name, watt_seconds=100, weight_g=grams) for name, grams in (("A", None), ("B", 900.0), ("C", 2e3))
    ]
    table = table_of(units)
    both = [Landings(None, ("sync",), (0,), np.array([[[0.95, 0.95, 0.4]]]), (1,), (None,))]  # type: ignore[arg-type]
    assert choose_kit(both, table).counts == {1: 1}
    assert unknown_of(table, "weight").tolist() == [True, False, False]
    only = [Landings(None, ("sync",), (0,), np.array([[[0.95, 0.4, 0.4]]]), (1,), (None,))]  # type: ignore[arg-type]
    assert choose_kit(only, table).counts == {0: 1}
    assert choose_kit(only, table, known_only=True).status == "none"
    priced = table_of([Unit(name=n, watt_seconds=100, price=p, holding=h) for n, p, h in
                       (("A", None, "owned"), ("B", None, "hire"), ("C", 9.0, "hire"))])  # fmt: skip
    assert unknown_of(priced, "price").tolist() == [True, True, False]
    assert unknown_of(priced, "buy").tolist() == [False, True, False]  # what is owned costs nothing
