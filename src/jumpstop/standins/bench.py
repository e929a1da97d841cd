"""The practice bench: a drill played move by move. What comes of the same moves is always the same."""

import math
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Literal

import numpy as np
from pydantic import Field

from ..core.kit.filter import nd_for
from ..core.kit.modifier import Modifier
from ..core.kit.values import Number, Value, Whole
from ..core.physics.optics import coc_mm
from ..core.physics.scales import APERTURES, ISOS, SHUTTERS, Series
from ..core.plan.camera.framing import dark_of
from ..core.plan.camera.look import needed_s
from ..core.plan.camera.methods import GHOST_STOPS, names_of
from .answers import knowing, really
from .drills import DRILLS, HELD, Drill, DrillCode, DrillScene, Goal, What, scene_of
from .flash import Flash, Run, flash_of, run_of
from .meter import CannotReadError, Metered, MeterKind, needle, read
from .picture import Shot, blurred_mm, shoot
from .rig import Exposed, Rig
from .truth import Truth

GOAL_STOPS = 1 / 3 + 0.01  # a goal this near is met: a third of a stop, and rounding
START = datetime(2026, 6, 24, 15, 0)  # in the kite week; every drill begins then
MOST_OFF = 1.5  # of its doubt: no thing lies farther off at the bench, so that every drill can be met
PATIENCE = 14  # frames that a person stands still for, from memory
MINUTES_A_FRAME = 1.0  # of fiddling that cost as much patience as a frame, from memory
COST_S: dict[str, float] = {
    "aperture": 3, "shutter": 3, "iso": 3, "hss": 4, "trigger": 3, "dial": 5, "compensation": 4, "orientation": 4,
    "focus": 8, "channel": 12, "sends": 12, "sensor": 8, "lamps": 15, "nd": 20, "distance": 25, "layers": 40,
}  # fmt: skip
"""How long it takes to set a thing [s], from memory."""
METER_S, LOOK_S, FRAME_S, RUN_S = 12.0, 20.0, 4.0, 5.0
MOST_MOVES = 200
MOST_KEPT = 64  # drills as they stood after some moves; a matter of computing
FOCUS_M = (0.3, 60.0)
DISTANCES_M = (0.4, 15.0)


class BenchMove(Value):
    """One move at the bench. do: set a thing (`what`, of a `light`, to a `value`), meter, look at a light's switches,
    take a frame, run all frames that have to last, or be done. value: f-number, seconds, ISO, stops (of ND, below full,
    of compensation), metres, a channel, layers on, or 0 and 1; of orientation 0 across, 1 grip up, 2 grip down; of a
    meter 0 the flash, 1 the ambient, 2 both."""

    do: Literal["set", "meter", "look", "frame", "run", "done"]
    what: What | None = None
    light: Whole = Field(0, ge=0, le=7, title="Light")
    value: Number = Field(0.0, ge=-100, le=10_000_000, title="Value")


@dataclass(frozen=True, eq=False)
class Taken:
    """A frame that was taken: by what it was set, what came of it, and its file. stopped: why a light stayed dark."""

    move: int
    seconds: float
    frame: Exposed
    flash: bool
    stopped: tuple[str, ...]

    def shot(self, drill: Drill, seed: int) -> Shot:
        """Its file."""
        return _shot(self, drill, seed)


@lru_cache(maxsize=24)
def _shot(taken: Taken, drill: Drill, seed: int) -> Shot:
    return shoot(taken.frame, (seed, 3, taken.move), START + timedelta(seconds=taken.seconds), drill.drops)


@dataclass(frozen=True)
class GoalOutcome:
    """One thing that had to come out: by how much it is off (in stops, or as `unit` says), and whether it is met."""

    goal: Goal
    off: float
    met: bool
    unit: Literal["stops", "share", "lights", "frames", ""] = "stops"


@dataclass(frozen=True, eq=False)
class Bench:
    """A drill after some moves. metered: what was read, with the move; refused: why the last move did nothing. looked:
    lights whose switches were looked at. runs: what running all frames came to."""

    code: DrillCode
    seed: int
    hard: bool
    scene: DrillScene
    rig: Rig
    flashes: tuple[Flash, ...]
    moves: tuple[BenchMove, ...] = ()
    seconds: float = 0.0
    taken: tuple[Taken, ...] = ()
    metered: tuple[tuple[int, int, Metered], ...] = ()
    runs: tuple[tuple[int, Run], ...] = ()
    looked: frozenset[int] = frozenset()
    refused: str = ""
    done: bool = False

    @property
    def drill(self) -> Drill:
        """Its drill."""
        return DRILLS[self.code]

    @property
    def truth(self) -> Truth:
        """What is hidden."""
        return Truth(self.seed, MOST_OFF)

    @property
    def patience(self) -> float:
        """Frames that the subject still stands for."""
        return max(0.0, PATIENCE - len(self.taken) - self.seconds / 60 * MINUTES_A_FRAME)

    def see(self, rig: Rig | None = None) -> Exposed:
        """What a frame would get as it is set, or as it were set."""
        rig = self.rig if rig is None else rig
        return really(self.scene, self.truth, rig)

    def needle(self) -> float:
        """The camera's needle just now [stops]."""
        return needle(self.see(replace(self.rig, fire=False)))

    @property
    def charge(self) -> tuple[float, ...]:
        """The share left in each light's battery."""
        full = [flash_of(one.unit, self.truth.charge_times(one.unit.name)).left for one in self.flashes]
        return tuple(
            1.0 if math.isinf(whole) else max(0.0, one.left / whole)
            for one, whole in zip(self.flashes, full, strict=True)
        )


def begin(code: DrillCode, seed: int, hard: bool) -> Bench:
    """A drill before the first move."""
    scene, truth = scene_of(code, seed, hard), Truth(seed, MOST_OFF)
    units = [light.unit for light in scene.setup.lights]
    flashes = tuple(flash_of(unit, truth.charge_times(unit.name)) for unit in units if unit is not None)
    bench = Bench(code, seed, hard, scene, scene.start, flashes)
    lights = knowing(scene, truth).setup.lights if scene.right else ()
    for at in scene.right:  # what stands already is right
        bench = replace(bench, rig=bench.rig.with_light(at, dial_stops=lights[at].dial_stops))
    return bench


@lru_cache(maxsize=MOST_KEPT)
def play(code: DrillCode, seed: int, hard: bool, moves: tuple[BenchMove, ...]) -> Bench:
    """A drill after these moves, of which there are MOST_MOVES at the most."""
    bench = play(code, seed, hard, moves[:-1]) if moves else begin(code, seed, hard)
    return _after(bench, moves[-1]) if moves else bench


def _after(bench: Bench, move: BenchMove) -> Bench:
    at = len(bench.moves)
    bench = replace(bench, moves=(*bench.moves, move), refused="")
    if bench.done:
        return replace(bench, refused="over")
    if move.light >= len(bench.rig.setup.lights):
        return replace(bench, refused="no_such_light")
    if move.do == "done":
        return replace(bench, done=True) if bench.taken else replace(bench, refused="no_frame_yet")
    if move.do in ("frame", "run") and bench.patience < 1:
        return replace(bench, refused="out_of_patience")
    if move.do == "set":
        if move.what is None or move.what not in bench.drill.sets:
            return replace(bench, refused="not_here")
        return _waited(replace(bench, rig=_set(bench, move.what, move.light, move.value)), COST_S[move.what])
    if move.do == "look":
        return _waited(replace(bench, looked=bench.looked | {move.light}), LOOK_S)
    if move.do == "meter":
        return _metered(_waited(bench, METER_S), move, at)
    if move.do == "frame":
        return _framed(_waited(bench, FRAME_S), at)
    return _run(bench, at)


def _waited(bench: Bench, seconds: float) -> Bench:
    flashes = tuple(one.waited(seconds) for one in bench.flashes)
    return replace(bench, seconds=bench.seconds + seconds, flashes=flashes)


def log2_of(seconds: float, other: float) -> float:
    """By how many stops one time, as marked, lets in more than another."""
    return math.log2(float(SHUTTERS.exact(seconds)) / float(SHUTTERS.exact(other)))


def _mark(series: Series, value: float, least: float, most: float) -> float:
    return series.marked(float(series.exact(min(max(value, least), most))), "third")


def _set(bench: Bench, what: What, light: int, value: float) -> Rig:
    """A rig with one thing set: on the camera's and the unit's own marks, as far as they go."""
    rig, setup = bench.rig, bench.rig.setup
    body, unit = setup.body, setup.lights[light].unit
    match what:
        case "aperture":
            return replace(rig, camera=replace(rig.camera, f_number=_mark(APERTURES, value, 1.4, 22)))
        case "shutter":
            return replace(rig, camera=replace(rig.camera, shutter_s=_mark(SHUTTERS, value, body.top_speed_s, 30)))
        case "iso":
            return replace(rig, camera=replace(rig.camera, iso=_mark(ISOS, value, body.iso_min, body.iso_max)))
        case "nd":
            found = nd_for(value, setup.filters) if value > 0 else None
            stops, names = (found.stops, names_of(found)) if found is not None else (0.0, ())
            return replace(rig, camera=replace(rig.camera, nd_stops=stops, nd_names=names))
        case "hss":
            return replace(rig, hss=value > 0)
        case "trigger":
            return replace(rig, fire=value > 0)
        case "orientation":
            held = HELD[int(min(max(value, 0), 2))]
            aim = setup.aim.model_copy(update={"orientation": held})
            return replace(rig, setup=setup.model_copy(update={"aim": aim}))
        case "lamps":
            ambient = setup.ambient.model_copy(update={"lamps_on": value > 0})
            return replace(rig, setup=setup.model_copy(update={"ambient": ambient}))
        case "focus":
            return replace(rig, focus_m=None if value <= 0 else min(max(value, FOCUS_M[0]), FOCUS_M[1]))
        case "dial":
            scale = unit.scale if unit is not None else None
            step, ends = (scale.step_stops, scale.dial_range_stops) if scale else (1 / 3, 8.0)
            return rig.with_light(light, dial_stops=min(max(round(value / step) * step, 0.0), ends))
        case "distance":
            return rig.with_light(light, distance_m=round(min(max(value, DISTANCES_M[0]), DISTANCES_M[1]), 2))
        case "layers":
            return rig.with_light(light, layers=_layers(setup.lights[light].modifier, int(min(max(value, 0), 8))))
        case "compensation":
            return rig.with_light(light, compensation_stops=min(max(round(value * 3) / 3, -3.0), 3.0))
        case "channel":
            return rig.with_light(light, channel=int(min(max(value, 1), 16)))
        case "sends":
            return rig.with_light(light, sends=value > 0)
        case _:
            asleep = rig.asleep - {light} if value > 0 else rig.asleep | {light}
            return replace(rig, asleep=asleep)


def _layers(modifier: Modifier | None, count: int) -> tuple[str, ...] | None:
    """The layers of a modifier from the inside, so many of them."""
    return None if modifier is None else tuple(one.name for one in modifier.layers[:count])


def _metered(bench: Bench, move: BenchMove, at: int) -> Bench:
    kinds: tuple[MeterKind, ...] = ("flash", "ambient", "both")
    kind = kinds[int(min(max(move.value, 0), 2))]
    rng = np.random.default_rng([bench.seed, 4, at])
    frame = bench.see()
    try:
        found = read(frame, move.light, kind, rng)
    except CannotReadError as error:
        return replace(bench, refused=f"meter_{error.code}")
    if kind != "ambient":
        bench = _fired(bench, frame)[0]
    return replace(bench, metered=(*bench.metered, (at, move.light, found)))


def power_of(frame: Exposed, light: int) -> float:
    """The share of full power that a light's flash took."""
    unit = frame.units[light]
    return 0.0 if unit is None else float(frame.solved.reach(frame.kind, light).power[unit])


def _fired(bench: Bench, frame: Exposed) -> tuple[Bench, tuple[str, ...]]:
    """After all lights that fire have done so; why one did not."""
    flashes, stopped = list(bench.flashes), []
    for at, one in enumerate(flashes):
        if frame.units[at] is None:
            stopped.append("")
            continue
        why = one.stopped(power_of(frame, at))
        stopped.append(why)
        if not why:
            flashes[at] = one.fired(power_of(frame, at), frame.kind == "hss")
    return replace(bench, flashes=tuple(flashes)), tuple(stopped)


def _framed(bench: Bench, at: int) -> Bench:
    frame = bench.see()
    after, stopped = _fired(bench, frame)
    if any(stopped):
        dark = frozenset(light for light, why in enumerate(stopped) if why)
        frame = bench.see(replace(bench.rig, asleep=bench.rig.asleep | dark))
    lit = any(unit is not None for unit in frame.units)
    taken = Taken(at, bench.seconds, frame, lit, stopped)
    return replace(after, taken=(*bench.taken, taken))


def _run(bench: Bench, at: int) -> Bench:
    if not bench.scene.frames:
        return replace(bench, refused="not_here")
    frame = bench.see()
    found = run_of(bench.flashes[0], power_of(frame, 0), bench.scene.frames, bench.scene.every_s, frame.kind == "hss")
    return replace(bench, runs=(*bench.runs, (at, found)), seconds=bench.seconds + RUN_S)


def outcomes(bench: Bench, frame: Exposed, run: Run | None = None) -> tuple[GoalOutcome, ...]:
    """What had to come out, against a frame."""
    return tuple(_outcome(bench, goal, frame, run) for goal in bench.drill.goals)


def _outcome(bench: Bench, goal: Goal, frame: Exposed, run: Run | None) -> GoalOutcome:
    setup, rig, scene = frame.rig.setup, frame.rig, bench.scene
    match goal:
        case "background":
            off = frame.level("background").total - setup.aim.background_stops
        case "face":
            off = frame.level("lit").total
        case "shadow":
            off = frame.alone(0) - setup.lights[0].target_stops
        case "rim":
            off = frame.alone(1) - setup.lights[1].target_stops
        case "even":
            middle = frame.level("lit").total
            others = [one.total - middle for one in frame.levels if one.receiver in ("left", "right", "far")]
            off = max(others, key=abs, default=0.0)
        case "dark":
            dark = dark_of(setup, frame.method)
            share = 0.0 if dark is None else dark.over
            return GoalOutcome(goal, share, share <= 0, "share")
        case "frozen":
            off = math.log2(frame.t01_s(0) / needed_s(setup)) if frame.units[0] is not None else math.inf
            return GoalOutcome(goal, off, off <= GOAL_STOPS / 2)
        case "ghost":
            off = frame.level("lit").ambient - GHOST_STOPS
            return GoalOutcome(goal, off, off <= 0.0)
        case "focus":
            off = math.log2(
                max(blurred_mm(setup, rig.camera.f_number, rig.focus_m), 1e-9) / coc_mm(setup.body.diagonal_mm)
            )
            return GoalOutcome(goal, max(off, 0.0), off <= 0.0, "")
        case "all_fire":
            dark_ones = sum(unit is None for unit in frame.units)
            return GoalOutcome(goal, float(dark_ones), not dark_ones, "lights")
        case "hss_spared":
            at_sync = frame.level("background").ambient + log2_of(rig.sync_s, rig.camera.shutter_s)
            wasted = frame.kind == "hss" and abs(at_sync - setup.aim.background_stops) <= GOAL_STOPS
            return GoalOutcome(goal, float(wasted), not wasted, "")
        case _:
            missing = scene.frames if run is None else run.frames - run.lit
            return GoalOutcome("lasts", float(missing), run is not None and missing == 0, "frames")
    return GoalOutcome(goal, off, abs(off) <= GOAL_STOPS)
