"""Charges one after the other: an empty one goes to the first charger that is free, and comes back full."""

import heapq
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..physics.arrays import Floats

SAME_FULL = 1e-9  # of a full flash: a charge that is so nearly enough is enough


@dataclass(frozen=True)
class Swap:
    """An empty charge is taken out [minutes from midnight]; the next is there, or only at `again`, or never (inf)."""

    at: float
    again: float


@dataclass(frozen=True)
class Draw:
    """What a unit takes in one stretch: from, to [minutes], and full flashes of each of its heads, idling counted."""

    start: float
    end: float
    full: float


@dataclass(frozen=True)
class Charging:
    """So many chargers, each of which fills one charge in so many minutes."""

    chargers: int
    minutes: float


def drained(
    draws: Sequence[Draw], capacity: float, sizes: Sequence[float], charging: Charging
) -> tuple[list[Swap], list[tuple[float, float]]]:
    """(swaps, the charge in use as (minute, share left) at each turn of its line); it ends where none is ready.

    capacity: full flashes of a whole charge. sizes: what each charge holds [share of capacity], the best first.
    """
    ready = [
        (0.0, turn, size) for turn, size in enumerate(sizes[1:])
    ]  # when each of the others is full, in their order
    heapq.heapify(ready)
    free = [0.0] * charging.chargers
    size, turn = sizes[0], len(sizes)
    left, swaps, course = capacity * size, list[Swap](), list[tuple[float, float]]()
    for draw in draws:
        course.append((draw.start, left / capacity))
        rest = draw.full
        while rest > left + SAME_FULL:
            at = draw.end - (rest - left) / draw.full * (draw.end - draw.start)
            if free:
                charged = max(at, heapq.heappop(free)) + charging.minutes
                heapq.heappush(free, charged)
                heapq.heappush(ready, (charged, turn, size))
                turn += 1
            again, _, size = heapq.heappop(ready) if ready else (math.inf, 0, 0.0)
            swaps.append(Swap(at, max(at, again)))
            course.append((at, 0.0))
            if again > at:
                return swaps, course
            rest, left = rest - left, capacity * size
            course.append((at, size))
        left -= rest
        course.append((draw.end, left / capacity))
    return swaps, course


def first_outs(
    starts: Floats, ends: Floats, full: Floats, capacity: Floats, sizes: Sequence[float], charging: Charging
) -> Floats:
    """When the first charge is missing [minutes], inf where none is, of many days at once; shape (runs,).

    starts, ends (stretches,). full (runs, stretches): what each takes [full flashes]. capacity (runs,). As `drained`.
    """
    runs, held = len(capacity), np.asarray(sizes, dtype=float)
    outs, alive = np.full(runs, np.inf), np.ones(runs, dtype=bool)
    ready = np.zeros((runs, len(held)))  # when each charge is full; inf: in use, or empty for good
    ready[:, 0] = np.inf
    turns = np.tile(np.arange(len(held)), (runs, 1))  # of two that are ready at once, the one that came first
    in_use, left = np.zeros(runs, dtype=np.int64), capacity * held[0]
    free = np.zeros((runs, charging.chargers))
    for at, (start, end) in enumerate(zip(starts, ends, strict=True)):
        rest = full[:, at].copy()
        while (these := np.flatnonzero(alive & (rest > left + SAME_FULL))).size:
            now = end - (rest[these] - left[these]) / full[these, at] * (end - start)
            empty = in_use[these]
            if charging.chargers:
                first = np.argmin(free[these], axis=1)
                charged = np.maximum(now, free[these, first]) + charging.minutes
                free[these, first] = charged
                ready[these, empty] = charged
                turns[these, empty] = np.max(turns[these], axis=1) + 1
            times = ready[these]
            again = np.min(times, axis=1)
            waiting = np.where(times == again[:, None], turns[these], np.iinfo(np.int64).max)
            taken = np.argmin(waiting, axis=1)
            missing = again > now
            outs[these[missing]] = now[missing]
            alive[these[missing]] = False
            ready[these, taken] = np.inf
            in_use[these] = taken
            rest[these] -= left[these]
            left[these] = capacity[these] * held[taken]
        left = left - np.where(alive, rest, 0.0)
    return outs
