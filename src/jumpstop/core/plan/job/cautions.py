"""What travel and the place say of what feeds the flash: lithium by air, no mains on site, one circuit for all."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from ...kit.table import UnitTable
from ...physics.battery import CIRCUIT_A, mains_a
from ...scene.job import Brief
from ..camera.remark import Remark, remark
from ..light.reach import Reach
from .batteries import Fed, fed_at, supply_of
from .board import Board
from .schedule import Turn

CABIN_WH, LEAVE_WH = 100.0, 160.0  # lithium by air (IATA DGR; from memory: check the current edition)


def cabin_of(wh: float | None) -> Literal["cabin", "leave", "not", "unknown"]:
    """How lithium of this size goes by air: in the cabin, two of them with the airline's leave, or not at all."""
    if wh is None:
        return "unknown"
    return "cabin" if wh <= CABIN_WH else "leave" if wh <= LEAVE_WH else "not"


Heads = Mapping[Fed, int]
"""Heads that work at a time, by the unit and what feeds it."""


def of_kit(picks: Sequence[tuple[Reach, int, int]], counts: Mapping[int, int], board: Board) -> list[Heads]:
    """What works in each setup by the posts of a kit (see `whole_chance`); last, all units on what the lights ask of
    them where nobody is posted, and on what is their usual supply those that nothing is asked of. counts: of each."""
    setups: dict[int, Counter[Fed]] = {}
    for reach, unit, setup in picks:
        fed = fed_at(reach.solved.setup, reach.light, unit, board.table)
        setups.setdefault(setup, Counter())[fed] += reach.light.heads
    left = [one for at, one in enumerate(board.landings) if at not in setups]
    lights = [(one.solved.setup, one.solved.setup.lights[at]) for one in left for at in one.lights]
    posted, rest = {unit for _, unit, _ in picks}, dict[Fed, int]()
    for unit, count in counts.items():
        usual = [] if unit in posted else [Fed(unit, supply_of(board.table.units[unit], None))]
        rest.update(dict.fromkeys([fed_at(*one, unit, board.table) for one in lights] or usual, count))
    return [*setups.values(), rest]


def of_day(turns: Sequence[Turn]) -> list[Heads]:
    """What works in each stretch of a day."""
    out = list[Heads]()
    for turn in turns:
        for stretch in turn.stretches:
            heads = Counter[Fed]()
            for work in stretch.work:
                heads[work.fed] += work.heads
            out.append(heads)
    return out


def by_air(working: Sequence[Heads], brief: Brief) -> Iterator[Remark]:
    """Lithium that is not free to go into the cabin, where the kit travels by air."""
    for fed in _every(working):
        if brief.carriage == "air" and fed.supply is not None and fed.supply.made_of == "lithium":
            wh = fed.supply.capacity_wh
            if cabin_of(wh) != "cabin":
                yield remark("by_air", units=(fed.unit,), wh=wh, way=cabin_of(wh))


def of_mains(working: Sequence[Heads], table: UnitTable, brief: Brief) -> Iterator[Remark]:
    """Mains where the place has none; else what the heads that work together draw from one circuit while they recycle,
    where it is more than one bears."""
    if brief.power_on_site is False:
        yield from (remark("no_mains", units=(fed.unit,)) for fed in _every(working) if fed.mains)
        return
    circuits = [
        {fed.unit: _amperes(fed, heads, table) for fed, heads in group.items() if fed.mains} for group in working
    ]
    most = max(circuits, key=lambda circuit: sum(circuit.values()), default={})
    if sum(most.values()) > CIRCUIT_A:
        yield remark("circuit", amperes=sum(most.values()), units=tuple(most))


def _every(working: Sequence[Heads]) -> list[Fed]:
    return list(dict.fromkeys(fed for group in working for fed in group))


def _amperes(fed: Fed, heads: int, table: UnitTable) -> float:
    """What the heads of a unit draw together while they recycle on the mains [A]; 0 where its energy is not known."""
    watt_seconds = table.units[fed.unit].watt_seconds
    if fed.supply is None or not watt_seconds:
        return 0.0
    return heads * float(mains_a(watt_seconds, fed.supply.recycle_full_s))
