"""Charges one after the other: an empty one goes to the first charger that is free, and comes back full."""

import heapq
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

import numpy as np

from ...physics.arrays import Floats

NO_NIGHTS: Mapping[int, int | None] = MappingProxyType({})
SAME_FULL = 1e-9  # of a full flash: a charge that is so nearly enough is enough


@dataclass(frozen=True)
class Swap:
    """An empty charge is taken out [minutes from midnight]; the next is there, or only at `again`, or never (inf)."""

    at: float
    again: float

    @property
    def waits(self) -> bool:
        """Whether there is nothing to go on with at once."""
        return self.again > self.at


@dataclass(frozen=True)
class Draw:
    """What a unit takes in one stretch: from, to [minutes], and full flashes of each of its heads that works, the most
    first, idling counted."""

    start: float
    end: float
    full: tuple[float, ...]


@dataclass(frozen=True)
class Night:
    """Between two days [minutes]: so many charges are filled, the emptiest first; None: all."""

    at: float
    charges: int | None


@dataclass(frozen=True)
class Charging:
    """So many chargers, each of which fills one charge in so many minutes."""

    chargers: int
    minutes: float


class _Pool:
    """Charges that are in no head: of those that are ready the fullest is taken first."""

    def __init__(self, capacity: float, sizes: Sequence[float], charging: Charging) -> None:
        self.whole = [capacity * size for size in sizes]
        self.left = list(self.whole)
        self.ready = [(-left, charge, charge) for charge, left in enumerate(self.left)]
        heapq.heapify(self.ready)
        self.charged: list[tuple[float, int, int]] = []
        self.free, self.minutes, self.turn = [0.0] * charging.chargers, charging.minutes, len(sizes)

    def put(self, charge: int) -> None:
        """Back from a head that works no more."""
        heapq.heappush(self.ready, (-self.left[charge], self.turn, charge))
        self.turn += 1

    def empty(self, charge: int, at: float) -> None:
        """An empty one goes to the charger that is free first; without any it is lost."""
        self.left[charge] = 0.0
        if self.free:
            until = max(at, heapq.heappop(self.free)) + self.minutes
            heapq.heappush(self.free, until)
            heapq.heappush(self.charged, (until, self.turn, charge))
            self.turn += 1

    def night(self, charges: int | None) -> None:
        """All are out of the heads; the emptiest are filled, and what stands in a charger is full by the morning."""
        for _, _, charge in self.charged:
            self.left[charge] = self.whole[charge]
        self.charged, self.free = [], [0.0] * len(self.free)
        by_need = sorted(range(len(self.left)), key=lambda charge: self.left[charge] / self.whole[charge])
        for charge in by_need if charges is None else by_need[:charges]:
            self.left[charge] = self.whole[charge]
        self.ready = [(-left, charge, charge) for charge, left in enumerate(self.left) if left > SAME_FULL]
        heapq.heapify(self.ready)

    def take(self, at: float) -> tuple[int, float]:
        """(the next charge, -1 where none is ready; when it is there: inf where never)."""
        while self.charged and self.charged[0][0] <= at:
            _, turn, charge = heapq.heappop(self.charged)
            self.left[charge] = self.whole[charge]
            heapq.heappush(self.ready, (-self.whole[charge], turn, charge))
        if self.ready:
            return heapq.heappop(self.ready)[2], at
        return -1, self.charged[0][0] if self.charged else math.inf


def drained(
    draws: Sequence[Draw | Night], capacity: float, sizes: Sequence[float], charging: Charging
) -> tuple[list[Swap], list[tuple[float, float]]]:
    """(swaps, the charge in the first head as (minute, share left) at each turn of its line); it ends where none is
    ready, at nothing where none is from the first. Heads share the charges; one that works no more gives its own back.

    capacity: full flashes of a whole charge. sizes: what each charge holds [share of capacity].
    """
    pool, held, swaps, course = _Pool(capacity, sizes, charging), list[int](), list[Swap](), list[tuple[float, float]]()
    left = pool.left
    for draw in draws:
        if isinstance(draw, Night):
            held = []
            pool.night(draw.charges)
            continue
        while len(held) > len(draw.full):
            pool.put(held.pop())
        while len(held) < len(draw.full):
            charge, again = pool.take(draw.start)
            if charge < 0:
                return [*swaps, Swap(draw.start, again)], course or [(draw.start, 0.0)]
            held.append(charge)
        course.append((draw.start, left[held[0]] / capacity))
        rest, long = list(draw.full), draw.end - draw.start
        while outs := [
            (draw.end - (rest[head] - left[charge]) / draw.full[head] * long, head)
            for head, charge in enumerate(held)
            if rest[head] > left[charge] + SAME_FULL
        ]:
            at, head = min(outs)
            rest[head] -= left[held[head]]
            pool.empty(held[head], at)
            held[head], again = pool.take(at)
            swaps.append(Swap(at, again))
            if head == 0:
                course.append((at, 0.0))
            if swaps[-1].waits:
                return swaps, course
            if head == 0:
                course.append((at, left[held[0]] / capacity))
        for head, charge in enumerate(held):
            left[charge] -= rest[head]
        course.append((draw.end, left[held[0]] / capacity))
    return swaps, course


def first_outs(
    starts: Floats,
    ends: Floats,
    full: Floats,
    capacity: Floats,
    sizes: Sequence[float],
    charging: Charging,
    nights: Mapping[int, int | None] = NO_NIGHTS,
) -> Floats:
    """When the first charge is missing [minutes], inf where none is, of many days at once; shape (runs,).

    starts, ends (stretches,). full (runs, stretches, heads): what each takes [full flashes], the most first; 0 for a
    head that does not work. capacity (runs,). nights: charges filled in the night before a stretch, by its place; None:
    all. As `drained`.
    """
    runs, heads = len(capacity), full.shape[2]
    whole = capacity[:, None] * np.asarray(sizes, dtype=float)
    charges = whole.shape[1]
    left, ready = whole.copy(), np.zeros((runs, charges))  # ready: when each is; inf: in a head, or empty for good
    turns, turn = np.tile(np.arange(charges), (runs, 1)), charges
    held, outs = np.full((runs, heads), -1), np.full(runs, np.inf)
    alive, free = np.ones(runs, dtype=bool), np.zeros((runs, charging.chargers))

    def take(these: np.ndarray, head: np.ndarray, now: Floats) -> None:
        there = ready[these] <= now[:, None]
        fullest = np.max(np.where(there, left[these], -1.0), axis=1)
        among = there & (left[these] == fullest[:, None])
        taken = np.argmin(np.where(among, turns[these], np.iinfo(np.int64).max), axis=1)
        missing = ~there.any(axis=1)
        outs[these[missing]] = now[missing]
        alive[these[missing]] = False
        these, head, taken = these[~missing], head[~missing], taken[~missing]
        ready[these, taken] = np.inf
        held[these, head] = taken

    for at, (start, end) in enumerate(zip(starts, ends, strict=True)):
        if at in nights:
            filled = nights[at]
            by_need = np.argsort(left / whole, axis=1, kind="stable")
            most = charges if filled is None else min(filled, charges)
            np.put_along_axis(left, by_need[:, :most], np.take_along_axis(whole, by_need[:, :most], axis=1), axis=1)
            ready[:] = np.where(left > SAME_FULL, 0.0, np.inf)
            held[:], free[:], turns[:] = -1, 0.0, np.arange(charges)
        works = np.any(full[:, at] > 0, axis=0)
        for head in range(heads - 1, -1, -1):
            back = np.flatnonzero(alive & (held[:, head] >= 0)) if not works[head] else np.zeros(0, dtype=int)
            ready[back, held[back, head]] = start
            turns[back, held[back, head]] = turn
            turn, held[back, head] = turn + 1, -1
        for head in np.flatnonzero(works).tolist():
            bare = np.flatnonzero(alive & (held[:, head] < 0))
            take(bare, np.full(len(bare), head), np.full(len(bare), start))
        rest = full[:, at].copy()
        while True:
            inside = np.where(held >= 0, np.take_along_axis(left, np.maximum(held, 0), axis=1), np.inf)
            lacks = alive[:, None] & (rest > inside + SAME_FULL)
            these = np.flatnonzero(lacks.any(axis=1))
            if not these.size:
                break
            when = np.full((len(these), heads), np.inf)
            some = lacks[these]
            share = (rest[these] - inside[these])[some] / full[these, at][some]
            when[some] = end - share * (end - start)
            first = np.argmin(when, axis=1)
            now, empty = when[np.arange(len(these)), first], held[these, first]
            rest[these, first] -= inside[these, first]
            left[these, empty] = 0.0
            if charging.chargers:
                charger = np.argmin(free[these], axis=1)
                until = np.maximum(now, free[these, charger]) + charging.minutes
                free[these, charger] = until
                ready[these, empty], left[these, empty], turns[these, empty] = until, whole[these, empty], turn
                turn += 1
            take(these, first, now)
        using = alive[:, None] & (held >= 0)
        rows, columns = np.nonzero(using)
        left[rows, held[rows, columns]] -= rest[rows, columns]
    return outs
