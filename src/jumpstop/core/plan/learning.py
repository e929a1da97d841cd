"""Learning: all readings of a log together correct the things that the chains are made of (`physics.gaussian`)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..kit.learned import Key, Learned
from ..kit.table import UnitTable
from ..physics.arrays import Floats
from ..physics.gaussian import Posterior, left_out, update, without
from ..scene.light import OwnUnit
from ..scene.log import SD_FRAMES, LogEntry
from ..scene.seen import Seen
from .ambient import ambient_of
from .chain import counted, then
from .jump import JumpAt, pick, total
from .one_unit import table_for
from .scene import Scene
from .seen import flash_seen, level_seen
from .taught import MOVED, SAME_SD
from .things import covariance_of, load_of, matrix_of

SD_TONE = 0.2  # the tone curve of a body, which bends what a patch says [stops], from memory
SD_TRAVEL = 0.3  # curtain travel against the sync time, where it is not known [log2], from memory
SD_EDGE = 0.1  # where on a wall the lit part ends [log2 of the share], from memory
METER_STEP = 1 / 3  # stops: what a meter's reading is written down to
ODD = 3.0  # standard deviations from what all other readings say
LEAST_SHARE = 0.05  # of the light that the flash must have for a reading to say much of it

Kind = Literal["light", "filter", "curtain", "ambient", "none"]


@dataclass(frozen=True)
class Row:
    """One reading as a sum of things and noise: off [stops] is what it saw over what was said.

    of: how much of each thing, and its prior sd. noise: variance of the reading alone; place, place_noise: what it
    shares with others taken of the same light in the same place.
    """

    off: float
    of: dict[Key, tuple[float, float]]
    noise: float
    place: tuple[object, ...] = ()
    place_noise: float = 0.0


@dataclass(frozen=True)
class Found:
    """What came of one entry: off [stops] against what was said before any reading; by how much it lies off what all
    the others say, and in how many sd. None: nothing can be learned from it."""

    kind: Kind
    off: float | None = None
    apart: float | None = None
    times: float | None = None
    of: tuple[Key, ...] = ()

    @property
    def odd(self) -> bool:
        """Whether it lies so far off the others that it should be looked at."""
        return self.times is not None and abs(self.times) > ODD


@dataclass(frozen=True, eq=False)
class Learning:
    """What the readings of a log come to: things as they are known now, and each entry in its order."""

    learned: Learned
    found: tuple[Found, ...]


def learn(entries: Sequence[LogEntry], table: UnitTable, rows: Sequence[Row | None] | None = None) -> Learning:
    """All readings together. table: the shelf as it is said to be, without what readings taught. rows: of the entries
    (see `row_of`), where they are known already.

    Entries set aside, and those of units that are no longer on the shelf, teach nothing.
    """
    rows = [row_of(entry, table) for entry in entries] if rows is None else rows
    used = [(at, row) for at, row in enumerate(rows) if row is not None and not entries[at].aside]
    keys, prior = _things([row for _, row in used], table)
    covariance = covariance_of(keys, prior)
    found = [Found(_kind(entry), None if row is None else row.off) for entry, row in zip(entries, rows, strict=True)]
    if not used:
        return Learning(Learned({}, prior, np.zeros(0), covariance), tuple(found))
    places = {key: at for at, key in enumerate(keys)}
    matrix = matrix_of([row.of for _, row in used], keys, prior)
    off = np.array([row.off for _, row in used])
    matrix, spread, noise = _with_places([row for _, row in used], matrix, covariance)
    known = update(np.zeros(len(spread)), spread, matrix, off, noise)
    for line, (apart, times) in enumerate(_apart(known, matrix, off, noise)):
        at, row = used[line]
        found[at] = Found(_kind(entries[at]), row.off, apart, times, tuple(row.of))
    own = len(keys)
    return Learning(Learned(places, prior, known.mean[:own], known.covariance[:own, :own]), tuple(found))


def _with_places(rows: Sequence[Row], matrix: Floats, covariance: Floats) -> tuple[Floats, Floats, Floats]:
    """(rows, covariance, noise) with what a place adds: the same for all readings that were taken there, a thing of its
    own where they are several; else noise of the one reading."""
    lines: dict[tuple[object, ...], list[int]] = {}
    for line, row in enumerate(rows):
        lines.setdefault(row.place, []).append(line)
    shared = [some for place, some in lines.items() if place and len(some) > 1 and rows[some[0]].place_noise]
    noise = np.array([row.noise + row.place_noise for row in rows])
    columns = np.zeros((len(rows), len(shared)))
    for at, some in enumerate(shared):
        columns[some, at] = 1.0
        noise[some] = [rows[line].noise for line in some]
    size = len(covariance)
    spread = np.zeros((size + len(shared),) * 2)
    spread[:size, :size] = covariance
    spread[range(size, len(spread)), range(size, len(spread))] = [rows[some[0]].place_noise for some in shared]
    return np.hstack([matrix, columns]), spread, noise


def _apart(known: Posterior, matrix: Floats, off: Floats, noise: Floats) -> list[tuple[float, float | None]]:
    """(how far each reading lies from what all others say, in how many sd); None where there are no others.

    The oddest is left out first, so that one bad reading does not make the good ones look odd.
    """
    out: list[tuple[float, float | None]] = [(0.0, None)] * len(off)
    kept = np.ones(len(off), dtype=bool)
    while np.sum(kept) > 1:
        apart, sd = left_out(known, matrix, off, noise)
        times = np.where(kept, np.abs(apart / sd), 0.0)
        worst = float(np.max(times))
        odd = np.flatnonzero(times >= worst * SAME_ODD) if worst > ODD else np.flatnonzero(kept)
        for at in odd:
            out[int(at)] = (float(apart[at]), float(apart[at] / sd[at]))
        if worst <= ODD:
            break
        for at in odd:
            kept[at] = False
            known = without(known, matrix[at], float(off[at]), float(noise[at]))
    return out


SAME_ODD = 0.999  # of the oddest: readings as odd as this cannot be told apart


def _kind(entry: LogEntry) -> Kind:
    if entry.seen is not None:
        return "light"
    if entry.filter is not None:
        return "filter"
    if entry.curtain is not None:
        return "curtain"
    return "none" if entry.ambient is None else "ambient"


def _things(rows: Sequence[Row], table: UnitTable) -> tuple[list[Key], Floats]:
    """The things that readings hold and their sd before them; with a unit's light both quoted and moved."""
    prior: dict[Key, float] = {}
    for row in rows:
        for key, (_, sd) in row.of.items():
            prior.setdefault(key, sd)
    for kind, unit, part in list(prior):
        place = table.place_of(unit) if kind == "unit" and part in ("rating", MOVED) else None
        if place is not None:
            prior.setdefault((kind, unit, "rating"), float(table.quoted_sd[place]))
            if table.rated_sd[place] > table.quoted_sd[place] + SAME_SD:
                prior.setdefault((kind, unit, MOVED), float(table.rated_sd[place]))
    return list(prior), np.array(list(prior.values()), dtype=float)


def row_of(entry: LogEntry, table: UnitTable) -> Row | None:
    """One entry as a sum of things; None where it says nothing of any."""
    if entry.seen is not None:
        return _of_light(entry, entry.seen, table)
    if entry.filter is not None:
        one = entry.filter
        key = ("filter", one.filter.id or one.filter.name, "")
        return Row(one.marked_stops - one.stops, {key: (1.0, SD_FILTER)}, SD_FRAMES**2)
    if entry.curtain is not None:
        wall = entry.curtain
        body = wall.body
        travel = math.log2(wall.shutter_s / wall.lit / body.curtain_s)
        return Row(travel, {("body", body.id or body.name, "travel"): (1.0, SD_TRAVEL)}, SD_EDGE**2)
    if entry.ambient is not None and entry.was is not None:
        sd = ambient_of(entry.was.ambient, entry.was.meter_c).subject_sd
        return Row(entry.ambient.stops, {_ambient(entry): (1.0, sd)}, entry.ambient.sd**2) if sd else None
    return None


SD_FILTER = 0.1  # how far a filter lies from its marking [stops], from memory


def _ambient(entry: LogEntry) -> Key:
    return ("ambient", f"{entry.setup or ''} {entry.day}", "subject")


def _of_light(entry: LogEntry, seen: Seen, table: UnitTable) -> Row | None:
    was, unit = entry.was, seen.was.unit
    if was is None or unit is None:
        return None
    place = place_on(table, unit)
    flash = flash_seen(seen)
    if place is None or math.isinf(flash):
        return None
    alone = table_for(table.units[place], was.meter_c, table.ids[place])
    ambient = ambient_of(was.ambient, was.meter_c)
    _, chain, own = then(Scene(was, alone, ambient, (), None), seen)
    held = counted(chain, seen, bool(alone.tailed[0]))
    where = (0, seen.light, own, 0)
    jumps = [jump.at(*where) for jump in held]
    share = 1.0
    if seen.holds_ambient:
        share = max(LEAST_SHARE, 1 - 2.0 ** (seen.ambient_stops - level_seen(seen)))
    load = load_of(jumps, alone, 0, "")
    of = dict(load.of)
    if share < 1 and ambient.subject_sd:
        of[_ambient(entry)] = ((1 - share) / share, ambient.subject_sd)
    if seen.kind == "patch":
        of[("body", was.body.id or was.body.name, "tone")] = (1 / share, SD_TONE)
    rounding = METER_STEP / math.sqrt(12) if seen.kind == "meter" else 0.0
    noise = (seen.sd**2 + rounding**2) / share**2
    said = float(pick(total(held), where)) - seen.dial_stops
    return Row(flash - said, of, noise, (entry.setup, entry.day, seen.light, _place(jumps)), load.own**2)


def place_on(table: UnitTable, unit: OwnUnit) -> int | None:
    """Where a unit that was read stands on a shelf: by its id, or where that is not known there by its name."""
    place = table.place_of(unit.id, unit.name)
    return table.place_of(None, unit.name) if place is None else place


def _place(jumps: Sequence[JumpAt]) -> tuple[float, ...]:
    """The sizes of what belongs to no thing (distance, side, aim), by which the same place is known again."""
    return tuple(round(jump.stops, 3) for jump in jumps if jump.of is None and jump.sd)
