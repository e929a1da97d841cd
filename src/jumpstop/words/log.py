"""The log in words: what was read, planned against found, what readings have taught, and what to measure next."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import islice

import numpy as np

from ..core.kit.learned import Key
from ..core.kit.table import UnitTable
from ..core.plan.learn.learning import EntryFound, Learning, place_on
from ..core.plan.light.seen import next_dial
from ..core.scene.log import LogEntry
from ..core.scene.seen import Seen
from .figures import DisplayUnits, amount, count, decimal, dial, listed, plain, shutter, stops
from .in_hand import seen_words
from .kit import ROLES
from .things import names_of, thing_words

TIED = 0.5  # correlation from which two things are said to be known together
MOST_BEHIND = 20  # readings that are listed behind a thing
RIGHT = 0.05  # stops: as planned


@dataclass(slots=True)
class EntryText:
    """One entry. found: against the plan; odd: where it lies far off what all others say."""

    id: str
    at: str
    setup: str
    name: str
    what: str
    found: str
    odd: str
    aside: bool
    note: str
    facts: list[str]
    revision: int


@dataclass(slots=True)
class LoggedLightText:
    """One light of a setup: the dial that was planned, the newest that was set, and how far it lay off."""

    role: str
    unit: str
    planned: str
    found: str
    off: str


@dataclass(slots=True)
class FoundText:
    """Planned against found for one setup."""

    setup: str
    name: str
    lights: list[LoggedLightText]
    flashes: int


@dataclass(slots=True)
class ThingText:
    """One thing before and after its readings [stops]: mean and sd; readings: how many are behind it; by: the newest of
    them, told: each in a line."""

    key: list[str]
    name: str
    before: str
    after: str
    mean: float
    sd: float
    prior_sd: float
    readings: int
    by: list[str]
    told: list[str]
    tied: str


@dataclass(slots=True)
class LogText:
    """The log of a job, or of all: a page of its entries, and how many there are after that."""

    entries: list[EntryText]
    more: int
    setups: list[FoundText]
    things: list[ThingText]
    empty: str


def log_text(
    entries: Mapping[str, LogEntry],
    revisions: Mapping[str, int],
    learning: Learning,
    table: UnitTable,
    job: str | None,
    words: DisplayUnits,
    most: int,
    after: int = 0,
) -> LogText:
    """The document: entries of one job (of all where None), newest first, `most` after the first `after`; things by all
    readings there are."""
    found = dict(zip(entries, learning.found, strict=True))
    own = {key: entry for key, entry in entries.items() if job is None or entry.job == job}
    page = list(islice(reversed(own.items()), after, after + most))
    lines = [_entry(key, entry, found[key], revisions.get(key, 1), words) for key, entry in page]
    empty = "" if own else "Nothing is logged yet: open a card on the phone, and log what the meter says."
    things = _things(entries, found, learning, table)
    return LogText(lines, max(0, len(own) - after - most), _by_setup(own, table, words), things, empty)


def _told(entry: LogEntry, found: EntryFound) -> str:
    """An entry behind a thing, in a line."""
    was = "" if found.off is None else f", {_found(found.off, entry)}"
    return f"{entry.at:%Y-%m-%d %H:%M} {entry.name if entry.was is None else entry.was.name}{was}"


def _entry(key: str, entry: LogEntry, found: EntryFound, revision: int, words: DisplayUnits) -> EntryText:
    was = entry.was
    facts = []
    if entry.flashes is not None:
        facts.append(count(entry.flashes, "flash", "flashes"))
    if entry.celsius is not None:
        facts.append(f"{plain(entry.celsius)} °C")
    if entry.swapped:
        facts.append(f"put in {entry.swapped}")
    odd = ""
    if found.odd and found.apart is not None and found.times is not None:
        odd = (
            f"{_off(found.apart)} than all other readings say, {abs(found.times):.0f} times its uncertainty: "
            "was something else set? Set it aside if so."
        )
    return EntryText(
        id=key,
        at=f"{entry.at:%Y-%m-%d %H:%M}",
        setup=entry.setup or "",
        name=entry.name if was is None else was.name,
        what=what_words(entry, words),
        found="" if found.off is None else _found(found.off, entry),
        odd=odd,
        aside=entry.aside,
        note=entry.note,
        facts=facts,
        revision=revision,
    )


def what_words(entry: LogEntry, words: DisplayUnits) -> str:
    """What an entry holds, in a line."""
    seen = entry.seen
    if seen is not None:
        unit = seen.was.unit.name if seen.was.unit else ""
        return f"{ROLES[seen.was.role]}, {unit}: {seen_words(seen, words)}"
    if entry.filter is not None:
        one = entry.filter
        cast = _cast(one.cast_red, one.cast_blue)
        return f"{one.filter.name}: {amount(one.stops)} taken, marked {amount(one.marked_stops)}{cast}"
    if entry.curtain is not None:
        wall = entry.curtain
        edge = "" if wall.dark_edge == "unknown" else f", {wall.dark_edge} edge dark"
        return f"{wall.body.name}, wall at {shutter(wall.shutter_s)}: {wall.lit * 100:.0f} % lit{edge}"
    if entry.ambient is not None:
        off = entry.ambient.stops
        return "ambient as planned" if abs(off) < RIGHT else f"ambient alone {_off(off)} than planned"
    return entry.name


def _cast(red: float, blue: float) -> str:
    """The cast that a filter leaves."""
    if max(abs(red), abs(blue)) < RIGHT:
        return ""
    return f", red {stops(red, 2)} and blue {stops(blue, 2)} stop against green"


def _off(off: float) -> str:
    return f"{amount(off)} {'brighter' if off > 0 else 'darker'}"


def _found(off: float, entry: LogEntry) -> str:
    if entry.filter is not None:
        return "as marked" if abs(off) < RIGHT else f"takes {amount(off)} {'less' if off > 0 else 'more'} than marked"
    if entry.curtain is not None:
        seconds = entry.curtain.shutter_s / entry.curtain.lit
        return f"curtains take {shutter(seconds)}"
    return "as planned" if abs(off) < RIGHT else f"{_off(off)} than planned"


def _by_setup(entries: Mapping[str, LogEntry], table: UnitTable, words: DisplayUnits) -> list[FoundText]:
    """The newest reading of each light of each setup, against the plan."""
    out: dict[str, FoundText] = {}
    newest: dict[tuple[str, int], Seen] = {}
    for entry in entries.values():
        was, seen = entry.was, entry.seen
        if was is None:
            continue
        key = entry.setup or was.name
        here = out.setdefault(key, FoundText(entry.setup or "", was.name, [], 0))
        here.flashes += entry.flashes or 0
        if seen is None or entry.aside or seen.was.unit is None:
            continue
        newest[key, seen.light] = seen
    for (key, _), seen in sorted(newest.items(), key=lambda one: one[0]):
        out[key].lights.append(_light(seen, table, words))
    return list(out.values())


def _light(seen: Seen, table: UnitTable, words: DisplayUnits) -> LoggedLightText:
    unit = seen.was.unit
    assert unit is not None  # the document says so
    place = place_on(table, unit)
    step, most = (1 / 3, 7.0) if place is None else (float(table.step[place]), float(table.dial_range[place]))
    wants = next_dial(seen, seen.was.role == "key", step, most)
    planned = dial(unit.scale, seen.dial_stops, words, unit.watt_seconds)
    then = "no flash seen" if wants is None else dial(unit.scale, wants.dial_stops, words, unit.watt_seconds)
    change = 0.0 if wants is None or math.isinf(wants.change) else -wants.change
    off = "as planned" if abs(change) < RIGHT else f"{_off(change)} than wanted"
    return LoggedLightText(ROLES[seen.was.role], unit.name, planned, then, off)


def _things(
    entries: Mapping[str, LogEntry],
    found: Mapping[str, EntryFound],
    learning: Learning,
    table: UnitTable,
) -> list[ThingText]:
    """Everything that readings have taught, the most moved first; a job's own light is left out."""
    behind: dict[Key, list[str]] = {}
    for entry, one in found.items():
        for key in one.of:
            behind.setdefault(key, []).append(entry)
    learned, names = learning.learned, names_of(entries.values(), table)
    sd = learned.sd
    scale = np.where(sd > 0, sd, 1.0)
    correlation = learned.covariance / np.outer(scale, scale)
    out = []
    for key, at in learned.places.items():
        by = behind.get(key, [])
        newest = by[: -MOST_BEHIND - 1 : -1]
        name = thing_words(key, names)
        if key[0] == "ambient" or not name:
            continue
        mates = [
            thing_words(other, names)
            for other, there in learned.places.items()
            if there != at and correlation[at, there] < -TIED and other[0] != "ambient"
        ]
        tied = f"known better together with {listed(mates, 'and')} than alone" if mates else ""
        out.append(
            ThingText(
                key=list(key),
                name=name,
                before=f"0 ± {decimal(learned.prior_sd[at], '.2f')}",
                after=f"{stops(float(learned.mean[at]), 2)} ± {decimal(sd[at], '.2f')}",
                mean=round(float(learned.mean[at]), 3),
                sd=round(float(sd[at]), 3),
                prior_sd=round(float(learned.prior_sd[at]), 3),
                readings=len(by),
                by=newest,
                told=[_told(entries[one], found[one]) for one in newest],
                tied=tied,
            )
        )
    return sorted(out, key=lambda thing: -abs(thing.mean) - thing.prior_sd + thing.sd)
