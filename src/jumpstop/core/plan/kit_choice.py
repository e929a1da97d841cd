"""Which kit: the set of units with the least weight, price or outlay that covers every light of every setup.

An integer linear programme: how many of each unit are taken, and which method each setup uses; which unit then stands
at which light follows from them. Solved by HiGHS with its gap set to 0.
"""

import math
from collections.abc import Sequence
from dataclasses import replace
from itertools import combinations
from typing import NamedTuple

import highspy
import numpy as np

from ..kit.table import UnitTable
from ..physics.arrays import Floats
from ..scene.job import Least
from .board import Landings
from .posts import CENT, Kit, Need, most_of, needs_of, posts_of, price_of

LIMIT_S = 20.0


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
) -> Kit:
    """The best kit, and of those that cost as little the lightest. outlay: the most to be spent on what is not owned.

    With spares, every setup still holds in its method when any one of the units taken is away.
    """
    model = _Model(landings, needs_of(landings, chance), most_of(table, landings, spares), spares)
    limits = [] if outlay is None else [Limit(price_of(table, "buy"), outlay)]
    found = model.solved(price_of(table, least), limits, limit_s)
    if found.status != "found" or not found.proven or least == "weight":
        return found
    limits.append(Limit(price_of(table, least), found.objective + CENT))
    lighter = model.solved(price_of(table, "weight"), limits, limit_s)
    if lighter.status != "found":
        return found
    return replace(lighter, objective=found.objective, bound=found.bound, proven=found.proven)


class _Quiet(highspy.Highs):
    """The solver without its callbacks, which are not used: setting them up prints a banner where answers go."""

    def __init__(self) -> None:
        super(highspy.Highs, self).__init__()


class _Model:
    """The programme as rows and columns.

    Columns: y, how many of each unit; m, whether a setup uses a method; z, whether a light of several equal heads takes
    them of this unit. Lights of one head need no columns: they can all be manned where, for every set of them, the
    units that could stand there are as many as they are (Hall's theorem), and one more where any one unit may fail.
    """

    def __init__(self, landings: Sequence[Landings], needs: Sequence[Need], most: np.ndarray, spares: int) -> None:
        self.landings, self.needs, self.spares = landings, needs, spares
        self.upper: list[float] = most.astype(float).tolist()
        self.units = len(self.upper)
        self.rows: list[Row] = []
        for setup, one in enumerate(landings):
            methods = [self._column() for _ in one.kinds]
            self.rows.append(Row(1.0, 1.0, methods, [1.0] * len(methods)))
            for kind, method in enumerate(methods):
                self._method(method, [need for need in needs if (need.setup, need.kind) == (setup, kind)])

    def _column(self) -> int:
        self.upper.append(1.0)
        return len(self.upper) - 1

    def _method(self, method: int, needs: list[Need]) -> None:
        """What one setup asks for, where it uses this method."""
        groups: dict[int, list[tuple[int, float]]] = {}
        for need in (need for need in needs if need.heads > 1):
            columns = {unit: self._column() for unit in need.units.tolist() if self.upper[unit] >= need.heads}
            self.rows.append(Row(0.0, 0.0, [*columns.values(), method], [*[1.0] * len(columns), -1.0]))
            for unit, column in columns.items():
                groups.setdefault(unit, []).append((column, float(need.heads)))
        for unit, taken in groups.items():  # a spare head is one of the same kind
            for spared in range(len(taken)):
                more = [heads + (self.spares if at == spared else 0) for at, (_, heads) in enumerate(taken)]
                held = [column for column, _ in taken]
                self.rows.append(Row(0.0, math.inf, [unit, *held], [1.0, *[-heads for heads in more]]))
        single = [need for need in needs if need.heads == 1]
        for size in range(1, len(single) + 1):
            for some in combinations(single, size):
                able = np.unique(np.concatenate([need.units for need in some])).tolist()
                gone = [pair for unit in able for pair in groups.get(unit, [])]
                self.rows.append(
                    Row(
                        0.0,
                        math.inf,
                        [*able, *(column for column, _ in gone), method],
                        [*[1.0] * len(able), *(-heads for _, heads in gone), -float(size + self.spares)],
                    )
                )

    def solved(self, price: Floats, limits: Sequence[Limit], limit_s: float) -> Kit:
        """Solve it."""
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
        status, info = solver.getModelStatus(), solver.getInfo()
        if status == highspy.HighsModelStatus.kInfeasible:
            return Kit({}, (), math.nan, math.inf, True, "none")
        proven = status == highspy.HighsModelStatus.kOptimal
        if info.primal_solution_status != highspy.SolutionStatus.kSolutionStatusFeasible:
            return Kit({}, (), math.nan, float(info.mip_dual_bound), False, "time")
        values = np.round(np.array(solver.getSolution().col_value)[: self.units]).astype(int)
        counts = {int(unit): int(values[unit]) for unit in np.flatnonzero(values)}
        posts = [post for setup in range(len(self.landings)) for post in posts_of(setup, self.needs, counts) or ()]
        total = float(sum(price[unit] * count for unit, count in counts.items()))
        return Kit(counts, tuple(posts), total, total if proven else float(info.mip_dual_bound), proven, "found")

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
