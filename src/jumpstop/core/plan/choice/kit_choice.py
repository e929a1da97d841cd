"""Which kit: the set of units with the least weight, price or outlay that covers every light of every setup, with the
batteries and chargers that the job's days ask of it.

An integer linear programme, solved by HiGHS (see `programme`). And weight against money: kits of which no other is both
lighter and cheaper to get.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from ...kit.table import UnitTable
from ...scene.job import Least
from ..job.board import Landings
from .assignment import CENT, Kit, most_of, needs_of, price_of, unknown_of, worth_taking
from .feeding import Feeding, as_well_fed
from .programme import Figures, Limit, Programme, Replay, sum_of

LIMIT_S = 20.0  # seconds that a kit may be looked for
LIGHTER_S = 3.0  # seconds more for the lightest of those that cost as little
MOST_POINTS = 12  # kits of weight against money, at the most
POINT_LIMIT_S = 5.0  # seconds that each of them may be looked for


def choose_kit(
    landings: Sequence[Landings],
    table: UnitTable,
    least: Least = "weight",
    chance: float = 0.9,
    spares: int = 0,
    outlay: float | None = None,
    limit_s: float = LIMIT_S,
    known_only: bool = False,
    feeding: Feeding | None = None,
    replay: Replay | None = None,
) -> Kit:
    """The best kit, and of those that cost as little the lightest. outlay: the most to be spent on what is not owned.
    known_only: of units of which what counts is known. feeding: what the days take from batteries, which then count;
    replay: plays them with a kit, so that what they ask beyond that is known.

    With spares, every setup still holds in its method when any one of the units taken is away.
    """
    needs, most = needs_of(landings, chance), most_of(table, landings, spares)
    if known_only:
        most = np.where(unknown_of(table, least), 0, most)

    def solved(figures: Figures, limits: Sequence[Limit], limit_s: float = limit_s) -> Kit:
        all_figures = [figures, *(limit.figures for limit in limits)]
        fed = None
        if feeding is not None:
            fed = as_well_fed(feeding, needs, [one.least for one in all_figures])
        upper = worth_taking(landings, needs, most, np.array([one.units for one in all_figures]), spares, fed)
        programme = Programme(landings, needs, upper, spares, feeding=feeding)
        kit = programme.solved(figures, limits, 0.8 * limit_s, replay)
        if kit.status == "time" and spares:
            alike = Programme(landings, needs, upper, spares, alike=True, feeding=feeding)
            other = alike.solved(figures, limits, 0.2 * limit_s, replay)
            kit = kit if other.status == "none" else replace(other, bound=kit.bound, proven=False)
        return kit

    def counting(what: Least) -> Figures:
        return Figures(price_of(table, what), what)

    limits = [] if outlay is None else [Limit(counting("buy"), outlay)]
    found = solved(counting(least), limits)
    if found.status != "found" or not found.proven or least == "weight":
        return found
    limits.append(Limit(counting(least), found.objective + CENT))
    lighter = solved(counting("weight"), limits, min(limit_s, LIGHTER_S))
    if lighter.status != "found" or sum_of(lighter, counting(least), feeding) > found.objective + CENT:
        return found
    return replace(lighter, objective=found.objective, bound=found.bound, proven=found.proven)


def front_of(
    landings: Sequence[Landings],
    table: UnitTable,
    chance: float,
    spares: int,
    feeding: Feeding | None = None,
    replay: Replay | None = None,
) -> Iterator[Kit]:
    """The front, the lightest first, each found as it is asked for; then less and less to buy or hire.

    Each next point may spend at most a step less than the one before; a step so large that MOST_POINTS are enough.
    """
    money = Figures(price_of(table, "buy"), "buy")

    def chosen(what: Least, most: float | None) -> Kit:
        return choose_kit(landings, table, what, chance, spares, most, POINT_LIMIT_S, feeding=feeding, replay=replay)

    last = chosen("buy", None)
    if last.status != "found":
        return
    least, most = sum_of(last, money, feeding), math.inf
    step = 0.0
    for point in range(MOST_POINTS):
        kit = chosen("weight", None if math.isinf(most) else most)
        if kit.status != "found":
            return
        spent = sum_of(kit, money, feeding)
        if point == 0:
            step = max(CENT * 2, (spent - least) / (MOST_POINTS - 1))
        yield kit
        if spent <= least + CENT:
            return
        most = max(least, spent - step)
