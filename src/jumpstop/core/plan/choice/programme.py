"""The programme of a kit: how many of each unit are taken, which method each setup uses, who stands where where that
asks for batteries, and how many; as rows and columns for HiGHS, its gap set to 0."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import combinations
from typing import NamedTuple

import highspy
import numpy as np

from ...physics.arrays import Floats
from ...scene.job import Least
from ..job.board import Landings
from ..job.endurance import SAME_CHARGE, SPARE_CHARGES
from .assignment import CENT, Kit, LightNeed, Post, manned, placed, posts_of
from .feeding import Feeding

MOST_CHARGES = 999  # of one unit


class Figures(NamedTuple):
    """What a kit is judged by: what each unit counts for, of shape (units,), and what is looked at in batteries."""

    units: Floats
    least: Least


class Limit(NamedTuple):
    """What the kit may come to in some figures, at the most."""

    figures: Figures
    most: float


class Constraint(NamedTuple):
    """One constraint: low <= sum of values x columns <= high."""

    low: float
    high: float
    columns: list[int]
    values: list[float]


class Replayed(NamedTuple):
    """The days as they run with a kit: charges that each unit wants, by its place; the place of the method that each
    setup is shot in, None where that changes. followed: whether everybody stood where the kit has them."""

    charges: Mapping[int, int]
    kinds: Mapping[int, int | None]
    followed: bool


Replay = Callable[[Kit], Replayed]


def _less(counts: dict[int, int], unit: int) -> dict[int, int]:
    """A kit without one of a unit."""
    return counts | {unit: counts[unit] - 1}


class _Quiet(highspy.Highs):
    """The solver without its callbacks, which are not used: setting them up prints a banner where answers go."""

    def __init__(self) -> None:
        super(highspy.Highs, self).__init__()


class Programme:
    """The programme as rows and columns; rows that few kits run into are added once one does.

    Columns: y, how many of each unit; m, whether a setup uses a method; z, whether a light of several equal heads takes
    them of this unit. Lights of one head need no columns: they can all be manned where, for every set of them, the
    units that could stand there are as many as they are (Hall's theorem), and one more where any one unit may fail.

    Where a setup has a light of several heads and one unit may fail, who stands where may be another with each that is
    away. Its rows are those of the whole kit, and what they can do without that; a kit found so is tried with each of
    its units away, and where a setup does not hold, the columns and rows of that setup with that unit away are added,
    until one holds. Each is a row that any good kit satisfies, so that the first that holds is the best. alike: a head
    that fails has another of its kind in its place: quicker found, and not always the best.

    Where batteries count, who stands where in a setup that is shot has a column for each unit, and each unit one for
    its charges: no fewer than heads at once, nor than a day takes. What a day takes beyond that, since a charge is not
    shared between heads, is seen where it is played with the kit: then a row says that with these posts the unit wants
    so many.
    """

    def __init__(
        self,
        landings: Sequence[Landings],
        needs: Sequence[LightNeed],
        most: np.ndarray,
        spares: int,
        alike: bool = False,
        feeding: Feeding | None = None,
    ) -> None:
        self.landings, self.needs, self.spares, self.feeding = landings, needs, spares, feeding
        self.upper: list[float] = most.astype(float).tolist()
        self.units = len(self.upper)
        self.rows: list[Constraint] = []
        self.away = dict[int, int]()  # the column that is 1 where there is a unit that could be away
        self.asked = set[tuple[int, int, int]]()  # setups, in a method, asked for with one of a unit away
        self.methods = dict[tuple[int, int], int]()
        self.stands = dict[int, dict[int, int]]()  # of a need, the column that is 1 where a unit stands there
        self.charges = dict[int, int]()  # of a unit, the column of its charges
        self.sorts = dict[int, int]()  # of a sort of battery, the column that is 1 where it is used
        self.gets = dict[tuple[Least, int], int]()  # of a sort, the column of charges that cost something
        shot = {need.setup for at, need in enumerate(needs) if feeding is not None and feeding.shares[:, at].any()}
        for setup, one in enumerate(landings):
            columns = [self._column() for _ in one.kinds]
            self.rows.append(Constraint(1.0, 1.0, columns, [1.0] * len(columns)))
            for kind, method in enumerate(columns):
                self.methods[setup, kind] = method
                here = self._needs(setup, kind)
                mixed = not alike and any(need.heads > 1 for need in here)
                if setup in shot:
                    self._posts(setup, kind, method)
                    if not self.spares:
                        continue  # who stands where says all
                self._whole(method, here, 0 if mixed else self.spares)
                if mixed and self.spares:
                    self._enough(method, here)
        if self.stands:
            self._fed()

    def _posts(self, setup: int, kind: int, method: int) -> None:
        """Who stands where in a setup that is shot, in this method; as many charges as heads."""
        of_unit: dict[int, list[tuple[int, float]]] = {}
        for at, need in enumerate(self.needs):
            if (need.setup, need.kind) != (setup, kind):
                continue
            able = [unit for unit in need.units.tolist() if self.upper[unit] >= need.heads]
            columns = self.stands[at] = {unit: self._column() for unit in able}
            self.rows.append(Constraint(0.0, 0.0, [*columns.values(), method], [*[1.0] * len(columns), -1.0]))
            for unit, column in columns.items():
                of_unit.setdefault(unit, []).append((column, float(need.heads)))
        assert self.feeding is not None
        for unit, taken in of_unit.items():
            held, wanted = [column for column, _ in taken], [-heads for _, heads in taken]
            heads = Constraint(0.0, math.inf, [unit, *held], [1.0, *wanted])
            self.rows.append(heads)
            if self.feeding.sort_of[unit] >= 0:
                if unit not in self.charges:
                    self.charges[unit] = self._column(MOST_CHARGES)
                self.rows.append(heads._replace(columns=[self.charges[unit], *held]))

    def _fed(self) -> None:
        """Charges enough for each day by itself; where few are filled over night, for all days so far; and which sorts
        of battery are used."""
        feeding = self.feeding
        assert feeding is not None
        few = feeding.night is not None
        for unit, charges in self.charges.items():
            posts = [(at, columns[unit]) for at, columns in self.stands.items() if unit in columns]
            for day, filled in enumerate(feeding.filled.tolist()):
                first, more = (0, day * (feeding.night or 0)) if few else (day, filled)
                takes = [-float(feeding.shares[first : day + 1, at, unit].sum()) for at, _ in posts]
                columns = [charges, *(column for _, column in posts)]
                self.rows.append(Constraint(-float(more) - SAME_CHARGE, math.inf, columns, [1.0, *takes]))
        for sort in sorted({int(feeding.sort_of[unit]) for unit in self.charges}):
            used = self.sorts[sort] = self._column()
            for stands in self.stands.values():
                here = [column for unit, column in stands.items() if feeding.sort_of[unit] == sort]
                if here:
                    self.rows.append(Constraint(0.0, math.inf, [used, *here], [1.0, *[-1.0] * len(here)]))

    def _costs(self, figures: Figures) -> dict[int, float]:
        """What each column counts for, where it does."""
        out = {unit: float(figure) for unit, figure in enumerate(figures.units) if figure > 0}
        if self.feeding is None:
            return out
        costs = self.feeding.costs(figures.least)
        for sort, used in self.sorts.items():
            fits = np.flatnonzero(self.feeding.sort_of[: self.units] == sort).tolist()
            charge, units = float(costs.charge[sort]), [unit for unit in fits if unit in self.charges]
            out[used] = float(costs.charger[sort])
            if figures.least == "weight":
                out[used] += SPARE_CHARGES * charge
                out |= {self.charges[unit]: charge for unit in units}
                continue
            key = (figures.least, sort)
            if key not in self.gets:  # all that is wanted, less what is there or comes with a unit
                self.gets[key] = self._column(MOST_CHARGES * len(units))
                brings = [unit for unit in fits if costs.comes[unit]]
                columns = [self.gets[key], used, *(self.charges[unit] for unit in units), *brings]
                values = [1.0, -float(SPARE_CHARGES), *[-1.0] * len(units), *[1.0] * len(brings)]
                self.rows.append(Constraint(-float(costs.there[sort]), math.inf, columns, values))
            out[self.gets[key]] = charge
        return out

    def _needs(self, setup: int, kind: int) -> list[LightNeed]:
        return [need for need in self.needs if (need.setup, need.kind) == (setup, kind)]

    def _column(self, most: float = 1.0) -> int:
        self.upper.append(most)
        return len(self.upper) - 1

    def _enough(self, method: int, needs: list[LightNeed]) -> None:
        """With one more than they want, for every set of a setup's lights: what it takes at the least."""
        for size in range(1, len(needs) + 1):
            for some in combinations(needs, size):
                able = np.unique(np.concatenate([need.units for need in some])).tolist()
                wanted = float(sum(need.heads for need in some) + self.spares)
                self.rows.append(Constraint(0.0, math.inf, [*able, method], [*[1.0] * len(able), -wanted]))

    def _without(self, setup: int, kind: int, gone: int) -> None:
        """What a setup asks for in a method, while one of a unit is away."""
        if gone not in self.away:
            self.away[gone] = self._column()
            self.rows.append(Constraint(-math.inf, 0.0, [gone, self.away[gone]], [1.0, -self.upper[gone]]))
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
        return out

    def _whole(self, method: int, needs: list[LightNeed], spares: int, away: int | None = None) -> None:
        """What one setup asks for, where it uses this method. away: the unit of which one is not there."""
        groups: dict[int, list[tuple[int, float]]] = {}
        for need in (need for need in needs if need.heads > 1):
            columns = {unit: self._column() for unit in need.units.tolist() if self.upper[unit] >= need.heads}
            self.rows.append(Constraint(0.0, 0.0, [*columns.values(), method], [*[1.0] * len(columns), -1.0]))
            for unit, column in columns.items():
                groups.setdefault(unit, []).append((column, float(need.heads)))
        lost = [] if away is None else [self.away[away]]
        for unit, taken in groups.items():
            held = [column for column, _ in taken] + (lost if unit == away else [])
            for spared in range(len(taken) if spares else 1):
                values = [-heads - (spares if at == spared else 0) for at, (_, heads) in enumerate(taken)]
                values += [-1.0] * (len(held) - len(taken))
                self.rows.append(Constraint(0.0, math.inf, [unit, *held], [1.0, *values]))
        single = [need for need in needs if need.heads == 1]
        for size in range(1, len(single) + 1):
            for some in combinations(single, size):
                able = np.unique(np.concatenate([need.units for need in some])).tolist()
                gone = [pair for unit in able for pair in groups.get(unit, [])]
                gone += [(column, 1.0) for column in lost if away in able]
                self.rows.append(
                    Constraint(
                        0.0,
                        math.inf,
                        [*able, *(column for column, _ in gone), method],
                        [*[1.0] * len(able), *(-heads for _, heads in gone), -float(size + spares)],
                    )
                )

    def solved(self, figures: Figures, limits: Sequence[Limit], limit_s: float, replay: Replay | None = None) -> Kit:
        """Solve it; and where a kit does not hold with one away, or its days ask for more, solve it again with that."""
        left = limit_s
        while True:
            found, took_s = self._once(figures, limits, left)
            left -= took_s
            if found.status != "found":
                return found
            found = self._without_idle(found, figures)
            failing = self._failing(found.counts) - self.asked
            if not failing:
                if replay is None or self.feeding is None or not self.stands:
                    return found
                seen = replay(found)
                more = list(self._asked_by(found, seen))
                if not more or left <= 0:
                    return self._as_seen(found, seen, figures, not more and seen.followed)
                self.rows += more
            elif left <= 0:
                return Kit({}, (), math.nan, found.bound, False, "time")
            for one in sorted(failing):
                self._without(*one)
            self.asked |= failing

    def _without_idle(self, found: Kit, figures: Figures) -> Kit:
        """A kit without units that cost nothing and are wanted nowhere."""
        wanted: dict[int, int] = {}
        for setup in range(len(self.landings)):
            here = _heads_of([post for post in found.posts if post.setup == setup], self.needs)
            wanted |= {unit: max(heads, wanted.get(unit, 0)) for unit, heads in here.items()}
        counts, least = dict(found.counts), sum_of(found, figures, self.feeding) + CENT
        for unit in found.counts:
            while counts.get(unit, 0) > wanted.get(unit, 0):
                less = {at: count for at, count in _less(counts, unit).items() if count}
                idle = sum_of(replace(found, counts=less), figures, self.feeding) <= least
                if not idle or (self.spares and self._failing(less)):
                    break
                counts = less
        return replace(found, counts=counts)

    def _as_seen(self, found: Kit, seen: Replayed, figures: Figures, whole: bool) -> Kit:
        """A kit with the charges that its days want; proven where it then counts for what it was chosen by."""
        assert self.feeding is not None
        charges = dict(seen.charges)
        total = sum_of(replace(found, charges=charges), figures, self.feeding)
        proven = found.proven and whole and abs(total - found.objective) < CENT
        return replace(found, charges=charges, objective=total, proven=proven)

    def _asked_by(self, found: Kit, seen: Replayed) -> Iterator[Constraint]:
        """What the days with a kit ask beyond what it was chosen by: rows that any kit satisfies which does as well."""
        used = {post.setup: post.kind for post in found.posts}
        others = {at: kind for at, kind in seen.kinds.items() if kind is not None and at in used and kind != used[at]}
        for setup, kind in others.items():  # it has what a better method wants, which is then the one used
            better = placed(self._needs(setup, kind), found.counts)
            if better is not None:
                columns = [self.methods[setup, used[setup]]]
                for unit, heads in _heads_of(better, self.needs).items():
                    columns.append(self._has(unit, heads))
                yield Constraint(-math.inf, len(columns) - 1.0, columns, [1.0] * len(columns))
        if others or not seen.followed:
            return
        for unit, wanted in seen.charges.items():
            if unit in self.charges and wanted > found.charges.get(unit, 0):
                here = {(post.setup, post.kind, post.light) for post in found.posts if post.unit == unit}
                columns = [
                    columns[unit]
                    for at, columns in self.stands.items()
                    if (self.needs[at].setup, self.needs[at].kind, self.needs[at].light) in here
                ]
                low = wanted * (1.0 - len(columns))
                yield Constraint(low, math.inf, [self.charges[unit], *columns], [1.0, *[-float(wanted)] * len(columns)])

    def _has(self, unit: int, heads: int) -> int:
        """A column that is 1 where there are so many of a unit."""
        column = self._column()
        over = self.upper[unit] - heads + 1.0
        self.rows.append(Constraint(-math.inf, heads - 1.0, [unit, column], [1.0, -over]))
        return column

    def _once(self, figures: Figures, limits: Sequence[Limit], limit_s: float) -> tuple[Kit, float]:
        """One run of the solver, and how long it took [s]."""
        price, spent = self._costs(figures), [self._costs(limit.figures) for limit in limits]
        rows = list(self.rows)
        for limit, costs in zip(limits, spent, strict=True):
            rows.append(Constraint(-math.inf, limit.most, list(costs), list(costs.values())))
        solver = _Quiet()
        settings = {
            "output_flag": False,
            "mip_rel_gap": 0.0,
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
        values = np.round(np.array(solver.getSolution().col_value)).astype(int)
        counts = {unit: int(values[unit]) for unit in range(self.units) if values[unit]}
        charges = {unit: int(values[column]) for unit, column in self.charges.items() if values[column]}
        total = float(sum(cost * values[column] for column, cost in price.items()))
        bound = total if proven else float(info.mip_dual_bound)
        return Kit(counts, tuple(self._who(counts, values)), total, bound, proven, "found", charges), took_s

    def _who(self, counts: dict[int, int], values: np.ndarray) -> Iterator[Post]:
        """Who stands where: as the columns have it, where there are any; else as it can be."""
        for setup in range(len(self.landings)):
            own = [at for at in self.stands if self.needs[at].setup == setup]
            if not own:
                yield from posts_of(setup, self.needs, counts) or ()
            for at in own:
                need = self.needs[at]
                for unit, column in self.stands[at].items():
                    if values[column]:
                        yield Post(setup, need.kind, need.light, unit)

    def _programme(self, rows: Sequence[Constraint], price: Mapping[int, float]) -> highspy.HighsLp:
        lp = highspy.HighsLp()
        columns = len(self.upper)
        lp.num_col_, lp.num_row_ = columns, len(rows)
        costs = np.zeros(columns)
        costs[list(price)] = list(price.values())
        lp.col_cost_ = costs
        lp.col_lower_, lp.col_upper_ = np.zeros(columns), np.array(self.upper)
        lp.row_lower_ = np.array([row.low for row in rows])
        lp.row_upper_ = np.array([row.high for row in rows])
        lp.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
        lp.a_matrix_.start_ = np.concatenate([[0], np.cumsum([len(row.columns) for row in rows])])
        lp.a_matrix_.index_ = np.concatenate([row.columns for row in rows]).astype(np.int32)
        lp.a_matrix_.value_ = np.concatenate([row.values for row in rows])
        lp.integrality_ = [highspy.HighsVarType.kInteger] * columns
        return lp


def sum_of(kit: Kit, figures: Figures, feeding: Feeding | None) -> float:
    """What a kit comes to, with what its days want of batteries."""
    units = float(sum(figures.units[unit] * count for unit, count in kit.counts.items()))
    return units + (0.0 if feeding is None else feeding.total(kit.counts, kit.charges, figures.least))


def _heads_of(posts: Sequence[Post], needs: Sequence[LightNeed]) -> dict[int, int]:
    """How many of each unit stand in one setup."""
    heads = {(need.setup, need.kind, need.light): need.heads for need in needs}
    out: dict[int, int] = {}
    for post in posts:
        out[post.unit] = out.get(post.unit, 0) + heads[post.setup, post.kind, post.light]
    return out
