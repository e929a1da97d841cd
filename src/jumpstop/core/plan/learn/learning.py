"""Learning: all readings of a log together correct the things that the chains are made of (`physics.gaussian`)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from operator import is_
from typing import Literal, NamedTuple

import numpy as np

from ...kit.learned import Key, Learned
from ...kit.table import UnitTable
from ...physics.arrays import Floats, Whole
from ...physics.readings import Readings, known_after, left_out, precision_of
from ...scene.light import Light, OwnUnit
from ...scene.log import SD_FRAMES, LogEntry
from ...scene.seen import Seen
from ...scene.setup import Setup
from ..camera.ambient import ambient_of
from ..light.chain import counted, then
from ..light.jump import JumpAt, pick, total
from ..light.one_unit import table_for
from ..light.scene import Scene
from ..light.seen import flash_seen, level_seen
from ..light.taught import MOVED, SAME_SD
from .parameters import Load, covariance_of, load_of

SD_TONE = 0.2  # the tone curve of a body, which bends what a patch says [stops], from memory
SD_TRAVEL = 0.3  # curtain travel against the sync time, where it is not known [log2], from memory
SD_EDGE = 0.1  # where on a wall the lit part ends [log2 of the share], from memory
METER_STEP = 1 / 3  # stops: what a meter's reading is written down to
ODD = 3.0  # standard deviations from what all other readings say
LEAST_FLASH_SHARE = 0.05  # of the light that the flash must have for a reading to say much of it

Kind = Literal["light", "filter", "curtain", "ambient", "none"]


@dataclass(frozen=True)
class ReadingRow:
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
class EntryFound:
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


class Gathered(NamedTuple):
    """Readings as arrays, to which more can be added.

    keys: the things that they hold, each with its place; prior: their sd before any reading. lines (readings,): which
    entries they are. things, much (readings, most): which things a reading holds, and how much of each, in its prior
    sd; off (readings,) [stops]; noise (readings, 2): variance of the reading alone, and with that of its spot; spot
    (readings,): where it was taken, -1 where it does not matter. spots: all of those, each with its number; spot_noise:
    the variance that readings share there.
    """

    keys: dict[Key, int]
    prior: tuple[float, ...]
    lines: Whole
    things: Whole
    much: Floats
    off: Floats
    noise: Floats
    spot: Whole
    spots: dict[tuple[object, ...], int]
    spot_noise: tuple[float, ...]


NONE = np.zeros(0, dtype=np.int64)
EMPTY = Gathered(
    {}, (), NONE, np.zeros((0, 0), dtype=np.int64), np.zeros((0, 0)), np.zeros(0), np.zeros((0, 2)), NONE, {}, ()
)


@dataclass(frozen=True, eq=False)
class Learning:
    """What the readings of a log come to: things as they are known now. Of: the entries, the rows they are, the shelf
    (see `learn`), and all as arrays."""

    learned: Learned
    entries: Sequence[LogEntry]
    rows: Sequence[ReadingRow | None]
    table: UnitTable
    gathered: Gathered

    @cached_property
    def found(self) -> tuple[EntryFound, ...]:
        """What came of each entry, in their order."""
        found = [
            EntryFound(_kind(entry), None if row is None else row.off)
            for entry, row in zip(self.entries, self.rows, strict=True)
        ]
        before = precision_of(covariance_of(list(self.gathered.keys), np.array(self.gathered.prior)))
        lines = self.gathered.lines.tolist()
        for at, (apart, times) in zip(lines, _apart(before, *_sparse(self.gathered)), strict=True):
            row = self.rows[at]
            assert row is not None
            found[at] = EntryFound(found[at].kind, row.off, apart, times, tuple(row.of))
        return tuple(found)


def learn(
    entries: Sequence[LogEntry],
    table: UnitTable,
    rows: Sequence[ReadingRow | None] | None = None,
    before: Learning | None = None,
) -> Learning:
    """All readings together. table: the shelf as it is said to be, without what readings taught. rows: of the entries
    (see `Rows`), where they are known already. before: what was learned last, from which this goes on where it can.

    Entries set aside, and those of units that are no longer on the shelf, teach nothing.
    """
    if rows is None:
        of = Rows(table).of
        rows = [of(entry) for entry in entries]
    gathered, start = EMPTY, 0
    if before is not None and before.table is table and _goes_on(before.entries, entries):
        gathered, start = before.gathered, len(before.entries)
    used = [(at, row) for at in range(start, len(entries)) if (row := rows[at]) is not None and not entries[at].aside]
    if before is not None and start and not used:  # nothing that teaches: what is known stays the same value
        return Learning(before.learned, entries, rows, table, gathered)
    if used:
        gathered = _with_more(gathered, used, table)
    prior = np.array(gathered.prior)
    covariance = covariance_of(list(gathered.keys), prior)
    if len(gathered.lines):
        known = known_after(precision_of(covariance), *_sparse(gathered))
        learned = Learned(gathered.keys, prior, known.mean, known.covariance)
    else:
        learned = Learned({}, prior, np.zeros(0), covariance)
    return Learning(learned, entries, rows, table, gathered)


def _goes_on(before: Sequence[LogEntry], entries: Sequence[LogEntry]) -> bool:
    """Whether the same entries are there, and perhaps more behind them."""
    return len(before) <= len(entries) and all(map(is_, before, entries))


def _with_more(gathered: Gathered, used: Sequence[tuple[int, ReadingRow]], table: UnitTable) -> Gathered:
    """With more readings behind those that are there. used: each with the entry that it is."""
    rows = [row for _, row in used]
    prior = _things(dict(zip(gathered.keys, gathered.prior, strict=True)), rows, table)
    keys = {key: at for at, key in enumerate(prior)}
    most = max(gathered.things.shape[1], *(len(row.of) for row in rows))
    things, much = np.zeros((len(rows), most), dtype=np.int64), np.zeros((len(rows), most))
    spots, spot_noise, spot = dict(gathered.spots), list(gathered.spot_noise), []
    for line, row in enumerate(rows):
        for column, (key, (how_much, sd)) in enumerate(row.of.items()):
            things[line, column] = keys[key]
            much[line, column] = how_much * sd / prior[key]
        if row.place and row.place not in spots:
            spots[row.place] = len(spots)
            spot_noise.append(row.place_noise)
        spot.append(spots[row.place] if row.place else -1)
    wider = ((0, 0), (0, most - gathered.things.shape[1]))
    return Gathered(
        keys,
        tuple(prior.values()),
        np.append(gathered.lines, [at for at, _ in used]),
        np.vstack([np.pad(gathered.things, wider), things]),
        np.vstack([np.pad(gathered.much, wider), much]),
        np.append(gathered.off, [row.off for row in rows]),
        np.vstack([gathered.noise, [(row.noise, row.noise + row.place_noise) for row in rows]]),
        np.append(gathered.spot, spot),
        spots,
        tuple(spot_noise),
    )


def _sparse(gathered: Gathered) -> tuple[Readings, Floats]:
    """(readings, variances of what their places share): the same for all readings that were taken in a place, where
    they are several; else it is noise of the one reading."""
    spot_noise = np.array(gathered.spot_noise)
    several = (np.bincount(gathered.spot[gathered.spot >= 0], minlength=len(spot_noise)) > 1) & (spot_noise > 0)
    number = np.append(np.where(several, np.cumsum(several) - 1, -1), -1)  # the last: of what shares nothing
    place = number[gathered.spot]
    noise = np.where(place >= 0, gathered.noise[:, 0], gathered.noise[:, 1])
    return Readings(gathered.things, gathered.much, gathered.off, noise, place), spot_noise[several]


def _apart(before: Floats, readings: Readings, place_variance: Floats) -> list[tuple[float, float | None]]:
    """(how far each reading lies from what all others say, in how many sd); None where there are no others.

    The oddest is left out first, so that one bad reading does not make the good ones look odd. Where very many are odd
    the oddest few are left out together.
    """
    out: list[tuple[float, float | None]] = [(0.0, None)] * len(readings.values)
    kept = np.arange(len(out))
    for turn in range(MOST_TURNS):
        if len(kept) < 2:
            break
        left = readings.only(kept)
        apart, sd = left_out(known_after(before, left, place_variance), left)
        times = np.abs(apart / sd)
        worst = float(np.max(times))
        settled = worst <= ODD or turn == MOST_TURNS - 1
        odd = times >= (0.0 if settled else worst * (SAME_ODD if turn < ONE_BY_ONE else NEARLY_AS_ODD))
        for line in np.flatnonzero(odd):
            out[int(kept[line])] = (float(apart[line]), float(apart[line] / sd[line]))
        if settled:
            break
        kept = kept[~odd]
    return out


ONE_BY_ONE = 24  # rounds in which the oddest alone is left out
MOST_TURNS = 32  # rounds in which the odd are left out, in all
NEARLY_AS_ODD = 0.8  # of the oddest, where very many readings are odd
SAME_ODD = 0.999  # of the oddest: readings as odd as this cannot be told apart


def _kind(entry: LogEntry) -> Kind:
    if entry.seen is not None:
        return "light"
    if entry.filter is not None:
        return "filter"
    if entry.curtain is not None:
        return "curtain"
    return "none" if entry.ambient is None else "ambient"


def _things(prior: dict[Key, float], rows: Sequence[ReadingRow], table: UnitTable) -> dict[Key, float]:
    """The things that are there and those that readings hold, with their sd before them; with a unit's light both
    quoted and moved."""
    for row in rows:
        for key, (_, sd) in row.of.items():
            prior.setdefault(key, sd)
    for kind, unit, part in list(prior):
        place = table.place_of(unit) if kind == "unit" and part in ("rating", MOVED) else None
        if place is not None:
            prior.setdefault((kind, unit, "rating"), float(table.quoted_sd[place]))
            if table.rated_sd[place] > table.quoted_sd[place] + SAME_SD:
                prior.setdefault((kind, unit, MOVED), float(table.rated_sd[place]))
    return prior


class Rows:
    """Entries as sums of things, for one shelf. What a chain said of a light is worked out once for all readings of it
    that were taken alike: they hold the same documents."""

    def __init__(self, table: UnitTable) -> None:
        self.table = table
        self._said: dict[tuple[object, ...], _Said] = {}

    def of(self, entry: LogEntry) -> ReadingRow | None:
        """One entry; None where it says nothing of any thing."""
        if entry.seen is not None:
            return self._of_light(entry, entry.seen)
        if entry.filter is not None:
            one = entry.filter
            key = ("filter", one.filter.id or one.filter.name, "")
            return ReadingRow(one.marked_stops - one.stops, {key: (1.0, SD_FILTER)}, SD_FRAMES**2)
        if entry.curtain is not None:
            wall = entry.curtain
            body = wall.body
            travel = math.log2(wall.shutter_s / wall.lit / body.curtain_s)
            return ReadingRow(travel, {("body", body.id or body.name, "travel"): (1.0, SD_TRAVEL)}, SD_EDGE**2)
        if entry.ambient is not None and entry.was is not None:
            sd = ambient_of(entry.was.ambient, entry.was.meter_c).subject_sd
            return ReadingRow(entry.ambient.stops, {_ambient(entry): (1.0, sd)}, entry.ambient.sd**2) if sd else None
        return None

    def _of_light(self, entry: LogEntry, seen: Seen) -> ReadingRow | None:
        flash = flash_seen(seen)
        said = None if entry.was is None or math.isinf(flash) else self._chain(entry.was, seen)
        if said is None or entry.was is None:
            return None
        share = 1.0
        if seen.holds_ambient:
            share = max(LEAST_FLASH_SHARE, 1 - 2.0 ** (seen.ambient_stops - level_seen(seen)))
        of = dict(said.load.of)
        if share < 1 and said.ambient_sd:
            of[_ambient(entry)] = ((1 - share) / share, said.ambient_sd)
        if seen.kind == "patch":
            of[("body", entry.was.body.id or entry.was.body.name, "tone")] = (1 / share, SD_TONE)
        rounding = METER_STEP / math.sqrt(12) if seen.kind == "meter" else 0.0
        noise = (seen.sd**2 + rounding**2) / share**2
        place = (entry.setup, entry.day, seen.light, said.place)
        return ReadingRow(flash - (said.level - seen.dial_stops), of, noise, place, said.load.own**2)

    def _chain(self, was: Setup, seen: Seen) -> "_Said | None":
        key = (id(was), id(seen.was), seen.light, seen.method, seen.camera, seen.dial_stops > 0)
        kept = self._said.get(key)
        if kept is None or kept.of[0] is not was or kept.of[1] is not seen.was:  # an id is used again
            kept = self._said[key] = _said(was, seen, self.table)
        return kept if kept.known else None


NOTHING = Load({}, 0.0)


@dataclass(frozen=True)
class _Said:
    """What the chain of a light said when it was read: its level [stops], what it holds, by what its place is known.
    of: the setup and the light that it is of. known: whether its unit is on the shelf."""

    of: tuple[Setup, Light]
    known: bool
    level: float = 0.0
    load: Load = NOTHING
    place: tuple[float, ...] = ()
    ambient_sd: float = 0.0


SD_FILTER = 0.1  # how far a filter lies from its marking [stops], from memory


def _ambient(entry: LogEntry) -> Key:
    return ("ambient", f"{entry.setup or ''} {entry.day}", "subject")


def _said(was: Setup, seen: Seen, table: UnitTable) -> _Said:
    unit = seen.was.unit
    place = None if unit is None else place_on(table, unit)
    if place is None:
        return _Said((was, seen.was), known=False)
    alone = table_for(table.units[place], was.meter_c, table.ids[place])
    ambient = ambient_of(was.ambient, was.meter_c)
    _, chain, own = then(Scene(was, alone, ambient, (), None), seen)
    held = counted(chain, seen, bool(alone.tailed[0]))
    where = (0, seen.light, own, 0)
    jumps = [jump.at(*where) for jump in held]
    load = load_of(jumps, alone, 0, "")
    level = float(pick(total(held), where))
    return _Said((was, seen.was), True, level, load, _place(jumps), ambient.subject_sd)


def place_on(table: UnitTable, unit: OwnUnit) -> int | None:
    """Where a unit that was read stands on a shelf: by its id, or where that is not known there by its name."""
    place = table.place_of(unit.id, unit.name)
    return table.place_of(None, unit.name) if place is None else place


def _place(jumps: Sequence[JumpAt]) -> tuple[float, ...]:
    """The sizes of what belongs to no thing (distance, side, aim), by which the same place is known again."""
    return tuple(round(jump.stops, 3) for jump in jumps if jump.of is None and jump.sd)
