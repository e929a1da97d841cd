"""Which kit: the set of units with the least weight, price or outlay that covers every light of every setup.

An integer linear programme: how many of each unit are taken, and which method each setup uses; which unit then stands
at which light follows from them. Solved by HiGHS with its gap set to 0. And weight against money: kits of which no
other is both lighter and cheaper to get.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import combinations
from typing import NamedTuple

import highspy
import numpy as np

from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...scene.job import Least
from .assignment import CENT, Kit, Need, manned, most_of, needs_of, posts_of, price_of, unknown_of, worth_taking
from .board import Landings

LIMIT_S = 20.0  # seconds that a kit may be looked for
MOST_POINTS = 12  # kits of weight against money, at the most
POINT_LIMIT_S = 5.0  # seconds that each of them may be looked for


class Limit(NamedTuple):
    """What the kit may come to in some figure of each unit, at the most."""

    figures: Floats
    most: float


class Row(NamedTuple):
    """One constraint: low <= sum of values x columns <= high."""

    low: float
    high: float
    columns: list[int]
    values: list[float]


def choose_kit(
    landings: Sequence[Landings],
    table: UnitTable,
    least: Least = "weight",
    chance: float = 0.9,
    spares: int = 0,
    outlay: float | None = None,
    limit_s: float = LIMIT_S,
    known_only: bool = False,
) -> Kit:
    """The best kit, and of those that cost as little the lightest. outlay: the most to be spent on what is not owned.
    known_only: of units of which what counts is known.

    With spares, every setup still holds in its method when any one of the units taken is away.
    """
    needs, most = needs_of(landings, chance), most_of(table, landings, spares)
    if known_only:
        most = np.where(unknown_of(table, least), 0, most)

    def solved(price: Floats, limits: Sequence[Limit]) -> Kit:
        figures = np.array([price, *(limit.figures for limit in limits)])
        upper = worth_taking(landings, needs, most, figures, spares)
        kit = _Model(landings, needs, upper, spares).solved(price, limits, 0.8 * limit_s)
        if kit.status == "time" and spares:
            alike = _Model(landings, needs, upper, spares, alike=True).solved(price, limits, 0.2 * limit_s)
            kit = kit if alike.status == "none" else replace(alike, bound=kit.bound, proven=False)
        return kit

    limits = [] if outlay is None else [Limit(price_of(table, "buy"), outlay)]
    found = solved(price_of(table, least), limits)
    if found.status != "found" or not found.proven or least == "weight":
        return found
    limits.append(Limit(price_of(table, least), found.objective + CENT))
    lighter = solved(price_of(table, "weight"), limits)
    if lighter.status != "found":
        return found
    return replace(lighter, objective=found.objective, bound=found.bound, proven=found.proven)


def _less(counts: dict[int, int], unit: int) -> dict[int, int]:
    """A kit without one of a unit."""
    return counts | {unit: counts[unit] - 1}


class _Quiet(highspy.Highs):
    """The solver without its callbacks, which are not used: setting them up prints a banner where answers go."""

    def __init__(self) -> None:
        super(highspy.Highs, self).__init__()


class _Model:
    """The programme as rows and columns.

    Columns: y, how many of each unit; m, whether a setup uses a method; z, whether a light of several equal heads takes
    them of this unit. Lights of one head need no columns: they can all be manned where, for every set of them, the
    units that could stand there are as many as they are (Hall's theorem), and one more where any one unit may fail.

    Where a setup has a light of several heads and one unit may fail, who stands where may be another with each that is
    away. Its rows are those of the whole kit, and what they can do without that; a kit found so is tried with each of
    its units away, and where a setup does not hold, the columns and rows of that setup with that unit away are added,
    until one holds. Each is a row that any good kit satisfies, so that the first that holds is the best. alike: a head
    that fails has another of its kind in its place: quicker found, and not always the best.
    """

    def __init__(
        self, landings: Sequence[Landings], needs: Sequence[Need], most: np.ndarray, spares: int, alike: bool = False
    ) -> None:
        self.landings, self.needs, self.spares = landings, needs, spares
        self.upper: list[float] = most.astype(float).tolist()
        self.units = len(self.upper)
        self.rows: list[Row] = []
        self.away = dict[int, int]()  # the column that is 1 where there is a unit that could be away
        self.asked = set[tuple[int, int, int]]()  # setups, in a method, asked for with one of a unit away
        self.methods = dict[tuple[int, int], int]()
        for setup, one in enumerate(landings):
            columns = [self._column() for _ in one.kinds]
            self.rows.append(Row(1.0, 1.0, columns, [1.0] * len(columns)))
            for kind, method in enumerate(columns):
                self.methods[setup, kind] = method
                here = self._needs(setup, kind)
                mixed = not alike and any(need.heads > 1 for need in here)
                self._whole(method, here, 0 if mixed else self.spares)
                if mixed and self.spares:
                    self._enough(method, here)

    def _needs(self, setup: int, kind: int) -> list[Need]:
        return [need for need in self.needs if (need.setup, need.kind) == (setup, kind)]

    def _column(self) -> int:
        self.upper.append(1.0)
        return len(self.upper) - 1

    def _enough(self, method: int, needs: list[Need]) -> None:
        """With one more than they want, for every set of a setup's lights: what it takes at the least."""
        for size in range(1, len(needs) + 1):
            for some in combinations(needs, size):
                able = np.unique(np.concatenate([need.units for need in some])).tolist()
                wanted = float(sum(need.heads for need in some) + self.spares)
                self.rows.append(Row(0.0, math.inf, [*able, method], [*[1.0] * len(able), -wanted]))

    def _without(self, setup: int, kind: int, gone: int) -> None:
        """What a setup asks for in a method, while one of a unit is away."""
        if gone not in self.away:
            self.away[gone] = self._column()
            self.rows.append(Row(-math.inf, 0.0, [gone, self.away[gone]], [1.0, -self.upper[gone]]))
        self._whole(self.methods[setup, kind], self._needs(setup, kind), 0, gone)

    def _failing(self, counts: dict[int, int]) -> set[tuple[int, int, int]]:
        """Setups that a kit holds only while all of it is there, in the methods in which it does, each with the first
        unit that it cannot miss one of."""
        if not self.spares:
            return set()
        out = set[tuple[int, int, int]]()
        for setup, one in enumerate(self.landings):
            lights = [self._needs(setup, kind) for kind in range(len(one.kinds))]
            fails = [[unit for unit in counts if not manned(here, _less(counts, unit))] for here in lights]
            if all(fails):
                out |= {(setup, kind, fails[kind][0]) for kind, here in enumerate(lights) if manned(here, counts)}
        return out - self.asked

    def _whole(self, method: int, needs: list[Need], spares: int, away: int | None = None) -> None:
        """What one setup asks for, where it uses this method. away: the unit of which one is not there."""
        groups: dict[int, list[tuple[int, float]]] = {}
        for need in (need for need in needs if need.heads > 1):
            columns = {unit: self._column() for unit in need.units.tolist() if self.upper[unit] >= need.heads}
            self.rows.append(Row(0.0, 0.0, [*columns.values(), method], [*[1.0] * len(columns), -1.0]))
            for unit, column in columns.items():
                groups.setdefault(unit, []).append((column, float(need.heads)))
        lost = [] if away is None else [self.away[away]]
        for unit, taken in groups.items():
            held = [column for column, _ in taken] + (lost if unit == away else [])
            for spared in range(len(taken) if spares else 1):
                values = [-heads - (spares if at == spared else 0) for at, (_, heads) in enumerate(taken)]
                values += [-1.0] * (len(held) - len(taken))
                self.rows.append(Row(0.0, math.inf, [unit, *held], [1.0, *values]))
        single = [need for need in needs if need.heads == 1]
        for size in range(1, len(single) + 1):
            for some in combinations(single, size):
                able = np.unique(np.concatenate([need.units for need in some])).tolist()
                gone = [pair for unit in able for pair in groups.get(unit, [])]
                gone += [(column, 1.0) for column in lost if away in able]
                self.rows.append(
                    Row(
                        0.0,
                        math.inf,
                        [*able, *(column for column, _ in gone), method],
                        [*[1.0] * len(able), *(-heads for _, heads in gone), -float(size + spares)],
                    )
                )

    def solved(self, price: Floats, limits: Sequence[Limit], limit_s: float) -> Kit:
        """Solve it, and where a kit does not hold with one away, solve it again with what that asks."""
        left = limit_s
        while True:
            found, took_s = self._once(price, limits, left)
            left -= took_s
            failing = self._failing(found.counts) if found.status == "found" else set()
            if not failing:
                return found
            if left <= 0:
                return Kit({}, (), math.nan, found.bound, False, "time")
            for one in sorted(failing):
                self._without(*one)
            self.asked |= failing

    def _once(self, price: Floats, limits: Sequence[Limit], limit_s: float) -> tuple[Kit, float]:
        """One run of the solver, and how long it took [s]."""
        rows = list(self.rows)
        for limit in limits:
            spent = np.flatnonzero(limit.figures > 0)
            rows.append(Row(-math.inf, limit.most, spent.tolist(), limit.figures[spent].tolist()))
        solver = _Quiet()
        settings = {
            "log_to_console": False,
            "output_flag": False,
            "mip_rel_gap": 0.0,
            "mip_abs_gap": 0.0,
            "time_limit": limit_s,
            "threads": 1,
        }
        for name, value in settings.items():
            solver.setOptionValue(name, value)
        solver.passModel(self._programme(rows, price))
        solver.run()
        status, info, took_s = solver.getModelStatus(), solver.getInfo(), float(solver.getRunTime())
        if status == highspy.HighsModelStatus.kInfeasible:
            return Kit({}, (), math.nan, math.inf, True, "none"), took_s
        proven = status == highspy.HighsModelStatus.kOptimal
        if info.primal_solution_status != highspy.SolutionStatus.kSolutionStatusFeasible:
            return Kit({}, (), math.nan, float(info.mip_dual_bound), False, "time"), took_s
        values = np.round(np.array(solver.getSolution().col_value)[: self.units]).astype(int)
        counts = {int(unit): int(values[unit]) for unit in np.flatnonzero(values)}
        posts = [post for setup in range(len(self.landings)) for post in posts_of(setup, self.needs, counts) or ()]
        total = float(sum(price[unit] * count for unit, count in counts.items()))
        bound = total if proven else float(info.mip_dual_bound)
        return Kit(counts, tuple(posts), total, bound, proven, "found"), took_s

    def _programme(self, rows: Sequence[Row], price: Floats) -> highspy.HighsLp:
        lp = highspy.HighsLp()
        columns = len(self.upper)
        lp.num_col_, lp.num_row_ = columns, len(rows)
        lp.col_cost_ = np.concatenate([price, np.zeros(columns - self.units)])
        lp.col_lower_, lp.col_upper_ = np.zeros(columns), np.array(self.upper)
        lp.row_lower_ = np.array([row.low for row in rows])
        lp.row_upper_ = np.array([row.high for row in rows])
        lp.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
        lp.a_matrix_.start_ = np.concatenate([[0], np.cumsum([len(row.columns) for row in rows])])
        lp.a_matrix_.index_ = np.concatenate([row.columns for row in rows]).astype(np.int32)
        lp.a_matrix_.value_ = np.concatenate([row.values for row in rows])
        lp.integrality_ = [highspy.HighsVarType.kInteger] * columns
        return lp


def front_of(landings: Sequence[Landings], table: UnitTable, chance: float, spares: int) -> Iterator[Kit]:
    """The front, the lightest first, each found as it is asked for; then less and less to buy or hire.

    Each next point may spend at most a step less than the one before; a step so large that MOST_POINTS are enough.
    """
    money = price_of(table, "buy")

    def outlay(kit: Kit) -> float:
        return float(sum(money[unit] * count for unit, count in kit.counts.items()))

    last = choose_kit(landings, table, "buy", chance, spares, limit_s=POINT_LIMIT_S)
    if last.status != "found":
        return
    least, most = outlay(last), math.inf
    step = 0.0
    for point in range(MOST_POINTS):
        kit = choose_kit(landings, table, "weight", chance, spares, None if math.isinf(most) else most, POINT_LIMIT_S)
        if kit.status != "found":
            return
        spent = outlay(kit)
        if point == 0:
            step = max(CENT * 2, (spent - least) / (MOST_POINTS - 1))
        yield kit
        if spent <= least + CENT:
            return
        most = max(least, spent - step)
