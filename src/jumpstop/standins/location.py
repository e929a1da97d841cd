"""A day that plays itself: a made-up photographer works through a job, with clouds, cold packs and late clients."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from typing import Any, Literal

import numpy as np

from ..core.kit.shelf import Shelf
from ..core.kit.table import UnitTable
from ..core.physics import stops
from ..core.physics.scales import Step
from ..core.plan.camera.ambient import Ambient, ambient_of
from ..core.plan.job.batteries import Fed
from ..core.plan.job.endurance import DayPlan, capacity_of
from ..core.plan.job.helps import day_plan
from ..core.plan.job.schedule import Stretch, Turn
from ..core.plan.learn.learning import SD_TONE, Learning, learn
from ..core.plan.learn.to_read import blank_seen, unit_at_light
from ..core.plan.light.reach import Solved, solved_in
from ..core.plan.light.seen import next_dial
from ..core.scene.ambient import Reading
from ..core.scene.job import JobFile, planned
from ..core.scene.log import SD_AMBIENT, AmbientSeen, LogEntry
from ..core.scene.seen import SD_PATCH, MethodKind, Seen
from ..core.scene.setup import Setup
from .meter import CannotReadError, read
from .picture import Box, Shot, shoot
from .rig import Exposed, Rig, as_solved, brightened, exposed, shifted, solved_as
from .sky import Cover, Sky
from .truth import Truth

LATE_MIN = (0.0, 0.0, 0.0, 7.0, 20.0)  # how late a client comes, from memory
READ_S = 45.0  # from one reading to the next, from memory
USUAL_DAY = date(2026, 6, 24)  # of a job without a date: in the kite week
USUAL_WIND_M_S = 3.0  # where the brief says nothing, from memory
ENOUGH = 0.25  # stops: nearer than this a dial is left alone
MOST_STOPS = 12.0
CARDS = {"lit": "card", "shadow": "card_shadow", "edge": "card_edge"}
"""Grey cards in a frame, by the receiver whose light they have."""

Code = Literal["late", "ambient", "read", "read_again", "frames", "swapped"]


@dataclass(frozen=True)
class Noted:
    """Something that went into the log: what it was, at which second of the job, with its figures. frame: the test
    frame that it was read from, as the camera's tones have it."""

    code: Code
    second: float
    id: str
    entry: LogEntry
    light: int = 0
    late_min: float = 0.0
    wind_m_s: float = 0.0
    frame: Exposed | None = None

    def shot(self) -> tuple[Shot, Box] | None:
        """The test frame as the camera writes it, and where its grey card is; None where none was taken."""
        if self.frame is None:
            return None
        receiver = self.frame.solved.placing.receivers[self.frame.solved.placing.own[self.light]]
        shot = shoot(self.frame, (self.frame.rig.setup.frames, round(self.second)), self.entry.at)
        card = shot.cards.get(CARDS.get(receiver, ""))
        return None if card is None else (shot, card)


@dataclass(frozen=True)
class ComparedLight:
    """One light at the dial that was planned [stops from correct, by flash alone]: by the claims, as it was found, as
    it would be said now, and as it is. What belongs to this place alone is in what was found, and not in the others."""

    setup: str
    light: int
    unit: str
    said: float
    found: float
    learned: float
    truth: float


@dataclass(frozen=True, eq=False)
class PlayedDay:
    """A day that was played: what went into the log, what it taught, and how far that is from what is so."""

    plan: DayPlan
    truth: Truth
    noted: tuple[Noted, ...]
    learning: Learning
    compared: tuple[ComparedLight, ...]

    @property
    def apart(self) -> list[tuple[tuple[str, str, str], float, float, float]]:
        """Things that were learned: (which, how far off it was found, its doubt, how far off it is) [stops]."""
        learned, table = self.learning.learned, self.learning.table
        quoted = dict(zip(table.ids, table.quoted_sd.tolist(), strict=True))
        return [
            (key, float(learned.mean[at]), float(learned.sd[at]),
             self.truth.off(key, float(learned.prior_sd[at]), quoted.get(key[1], 0.0)))
            for at, key in enumerate(learned.keys)
            if key[0] != "ambient"
        ]  # fmt: skip


@dataclass(frozen=True)
class _Read:
    """A light that was read: with which rig, by which ambient, and where it was found [stops, flash alone]."""

    rig: Rig
    light: int
    unit: int
    ambient: Ambient
    frame: Exposed
    found: float


class _Day:
    """The photographer's day, told as it goes."""

    def __init__(self, file: JobFile, shelf: Shelf, seed: int, plan: DayPlan) -> None:
        self.file, self.plan, self.shelf = file, plan, shelf
        self.truth, self.rng = Truth(seed), np.random.default_rng([seed, 6])
        self.sky = Sky(seed, _cover(file), file.job.brief.wind_m_s or USUAL_WIND_M_S)
        self.read: list[_Read] = []
        self.left: dict[Fed, float] = {}  # of each unit's charge [full flashes]
        self.late_s, self.count = 0.0, 0
        self.first = file.job.day or USUAL_DAY

    def played(self) -> Iterator[Noted]:
        """Everything that goes into the log, in its order."""
        for turn in self.plan.turns:
            if turn.stretches:
                yield from self._turn(turn, turn.stretches[0])

    def _noted(
        self,
        code: Code,
        second: float,
        turn: Turn,
        setup: Setup | None,
        light: int = 0,
        late_min: float = 0.0,
        **more: Any,
    ) -> Noted:
        at = datetime.combine(self.first, time()) + timedelta(seconds=round(second))
        known = self.file.job.celsius
        doc = LogEntry(at=at, setup=turn.session.setup, was=setup, celsius=known, **more)
        self.count += 1
        return Noted(code, second, f"played-{self.truth.seed}-{self.count}", doc, light, late_min)

    def _turn(self, turn: Turn, stretch: Stretch) -> Iterator[Noted]:
        late = float(self.rng.choice(LATE_MIN))
        self.late_s += late * 60
        now = turn.ready * 60 + self.late_s
        if late:
            yield self._noted("late", now, turn, None, late_min=late)
        solved, kind = stretch.solved, stretch.kind
        setup = solved.setup.model_copy(update={"seen": (), "variants": ()})
        for at, unit in enumerate(stretch.units):
            setup = unit_at_light(setup, solved, at, unit)
        day = f"{turn.session.setup} {(self.first + timedelta(seconds=now)).isoformat()}"
        said = ambient_of(setup.ambient, setup.meter_c)
        real = shifted(self.truth.ambient(said, day), self.sky.stops_at(now))
        noise = float(self.rng.normal(0.0, SD_AMBIENT))
        off = real.lit_ev - said.lit_ev + noise
        seen = AmbientSeen(stops=min(max(off, -MOST_STOPS), MOST_STOPS))
        yield replace(self._noted("ambient", now, turn, setup, ambient=seen), wind_m_s=self.sky.wind_at(now))
        setup = _by_reading(setup, real, noise, solved.method(kind).camera.f_number)
        for at, unit in enumerate(stretch.units):
            if unit is not None and setup.lights[at].on:
                now += READ_S
                yield from self._light(turn, setup, kind, at, real, now)
        yield from self._frames(turn, stretch, now)

    def _light(self, turn: Turn, setup: Setup, kind: MethodKind, at: int, real: Ambient, now: float) -> Iterator[Noted]:
        table, told = self.shelf.at(setup.meter_c), ambient_of(setup.ambient, setup.meter_c)
        solved = solved_in(setup, table, told, (turn.stretches[0].solved.method(kind),))
        if not solved.kinds:
            return
        reach = solved.reach(solved.kinds[0], at)
        here = solved.taken[at]
        if here is None or not reach.able[here]:
            return
        rig = as_solved(solved, solved.kinds[0])
        rig = replace(rig, asleep=frozenset(range(len(setup.lights))) - {at})
        for turn_of in ("read", "read_again"):
            dial = rig.setup.lights[at].dial_stops or 0.0
            frame = exposed(rig, table, self.truth, ambient=real)
            blank = blank_seen(solved, reach, here, setup.lights[at]).model_copy(update={"dial_stops": round(dial, 4)})
            seen, taken = self._seen(frame, at, blank)
            if seen is None:
                return
            code: Code = "read" if turn_of == "read" else "read_again"
            yield replace(self._noted(code, now, turn, setup, seen=seen, light=at), frame=taken)
            if turn_of == "read":
                self.read.append(_Read(rig, at, here, told, frame, frame.alone(at)))
            step, most = float(table.step[here]), float(table.dial_range[here])
            following = next_dial(seen, setup.lights[at].role == "key", step, most)
            if following is None or abs(following.dial_stops - dial) < ENOUGH:
                return
            rig, now = rig.with_light(at, dial_stops=following.dial_stops), now + READ_S

    def _seen(self, frame: Exposed, at: int, blank: Seen) -> tuple[Seen | None, Exposed | None]:
        """What a meter shows of one light, or where it cannot read, a grey card in a frame; and that frame."""
        try:
            found = read(frame, at, "flash", self.rng)
            return blank.model_copy(update={"kind": "meter", "f_number": found.f_number, "holds_ambient": False}), None
        except CannotReadError as error:
            if error.code != "hss":
                return None, None
        body = frame.rig.setup.body
        bent = self.truth.off(("body", body.id or body.name, "tone"), SD_TONE, 0.0) + float(
            self.rng.normal(0, SD_PATCH)
        )
        level = float(np.asarray(stops.add_light(self._ambient_there(frame, at), frame.alone(at))))
        seen = level + bent - blank.wanted_stops
        if not math.isfinite(seen) or abs(seen) > MOST_STOPS:
            return None, None
        update = {"kind": "patch", "stops": seen, "holds_ambient": True, "sd": SD_PATCH}
        return blank.model_copy(update=update), brightened(frame, bent)

    def _ambient_there(self, frame: Exposed, at: int) -> float:
        return frame.levels[frame.solved.placing.own[at]].ambient

    def _frames(self, turn: Turn, stretch: Stretch, now: float) -> Iterator[Noted]:
        """All frames of a session: what they take from the batteries, and the swaps they ask for."""
        fired = 0
        for part in turn.stretches:
            for work in part.work:
                unit = part.solved.table.units[work.unit]
                supply = work.supply
                fresh = capacity_of(unit, supply, self.file.job) * self.truth.charge_times(unit.name)
                fired += round(work.flashes)
                left = self.left.get(work.fed, fresh) - work.drain
                while left < 0:
                    left += fresh
                    name = supply.name if supply is not None and supply.name else unit.name
                    yield self._noted("swapped", part.end * 60 + self.late_s, turn, None, swapped=name[:80])
                self.left[work.fed] = left
        end = turn.end * 60 + self.late_s
        yield self._noted("frames", max(end, now), turn, None, flashes=fired)


def _cover(file: JobFile) -> Cover:
    """The sky of a job: as its setups have it by the sun, the most clouded."""
    found = {one.setup.ambient.sky for one in file.setups if one.setup.ambient.by == "sun"}
    return "overcast" if "overcast" in found else "partly" if "partly" in found or found else "clear"


def _by_reading(setup: Setup, real: Ambient, noise: float, f_number: float) -> Setup:
    """The setup with the ambient as it was read, on the subject and on the background alike."""
    readings = []
    for of, ev in (("subject", real.lit_ev), ("background", real.background_ev)):
        blank = Reading(f_number=f_number, shutter_s=1 / 125, iso=100, of=of)
        needle = min(max(ev + noise - blank.ev, -10.0), 10.0)
        readings.append(blank.model_copy(update={"needle_stops": needle}))
    lamps = {"lamps_lux": None}  # they are in what was read
    spec = setup.ambient.model_copy(update={"by": "reading", "readings": tuple(readings), **lamps})
    return setup.model_copy(update={"ambient": spec})


def play_day(
    file: JobFile, shelf: Shelf, seed: int, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> PlayedDay:
    """A job's day, played to its end. Raises CannotSolve."""
    plan = day_plan(planned(file), shelf, step, avoid, ways=False)
    return played_from(file, shelf, seed, plan)


def played_from(file: JobFile, shelf: Shelf, seed: int, plan: DayPlan) -> PlayedDay:
    """The same, from its plan."""
    day = _Day(file, shelf, seed, plan)
    noted = tuple(day.played())
    learning = learn([one.entry for one in noted], shelf.table)
    compared = tuple(_compared(one, shelf.table, learning) for one in day.read)
    return PlayedDay(plan, day.truth, noted, learning, compared)


def _compared(one: _Read, table: UnitTable, learning: Learning) -> ComparedLight:
    """A light by the claims, as found, by what was learned, and as it is."""
    now = replace(table, learned=learning.learned) if len(learning.learned) else table
    said, learned = (_level(solved_as(one.rig, shelf, one.ambient), one.light, one.unit) for shelf in (table, now))
    truth = one.found - one.frame.place_off[one.light]
    setup = one.rig.setup
    return ComparedLight(setup.name, one.light, table.units[one.unit].name, said, one.found, learned, truth)


def _level(solved: Solved, light: int, unit: int) -> float:
    return float(solved.reach(solved.kinds[0], light).flash_at_dial[unit])
