"""Weight against money: kits of which no other is both lighter and cheaper to get."""

import math
from collections.abc import Iterator, Sequence

from ...kit.table import UnitTable
from .assignment import CENT, Kit, price_of
from .board import Landings
from .kit_choice import choose_kit

MOST_POINTS = 12  # kits of weight against money, at the most
POINT_LIMIT_S = 5.0  # seconds that each of them may be looked for


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
