"""A drill looked back at: what was done, frame by frame, against the fewest frames of one who knows what is hidden."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from .answers import knowing, trusting
from .bench import GOAL_STOPS, Bench, BenchMove, GoalOutcome, begin, outcomes, power_of
from .drills import HELD, OF_AMBIENT, Goal, What
from .flash import Run, run_of
from .rig import Exposed, Rig

NEAR = 1e-6
TURNED = frozenset({"face", "shadow", "rim"})
"""Goals that a dial is turned for."""


@dataclass(frozen=True)
class Overshot:
    """From one flash frame to the next, one goal went from one side to the other: by so much before and after [stops].
    frames: their numbers."""

    goal: Goal
    frames: tuple[int, int]
    before: float
    after: float


@dataclass(frozen=True)
class Review:
    """What was done.

    frames: taken in all; without_flash: of them, before the first with flash; fewest: of one who knows what is hidden.
    met: whether all came out in the last frame with flash; outcome: each thing there. by_claims: each thing as one who
    trusts all claims has it in the first frame, with the rig as trusting; knowing: as it is right. late_ambient:
    settings of the ambient that were touched after the first frame with flash, with the number of the frame before.
    at_once: frames before which several things were changed, with how many. charge: what is left in the emptiest
    battery.
    """

    frames: int
    without_flash: int
    fewest: int
    met: bool
    outcome: tuple[GoalOutcome, ...]
    by_claims: tuple[GoalOutcome, ...]
    trusting: Rig
    knowing: Rig
    late_ambient: tuple[tuple[What, int], ...]
    at_once: tuple[tuple[int, int], ...]
    overshot: tuple[Overshot, ...]
    wanted_ambient: bool
    refused_meter: int
    seconds: float
    charge: float


def review_of(bench: Bench) -> Review:
    """The drill as it stands, looked back at."""
    knows, trusts = knowing(bench.scene, bench.truth), trusting(bench.scene)
    best = _moves_to(bench, knows)
    shown = next((one for one in reversed(bench.taken) if one.flash), bench.taken[-1] if bench.taken else None)
    run = bench.runs[-1][1] if bench.runs else None
    found = outcomes(bench, shown.frame, run) if shown is not None else ()
    first = next((one.move for one in bench.taken if one.flash), len(bench.moves))
    return Review(
        frames=len(bench.taken),
        without_flash=sum(not one.flash and one.move < first for one in bench.taken),
        fewest=sum(one.do == "frame" for one in best),
        met=bool(found) and all(one.met for one in found),
        outcome=found,
        by_claims=_by_claims(bench, trusts),
        trusting=trusts,
        knowing=knows,
        late_ambient=tuple(_late(bench, first)),
        at_once=tuple(_at_once(bench, first)),
        overshot=tuple(_overshot(bench)),
        wanted_ambient=bench.drill.ambient_first,
        refused_meter=sum(one.do == "meter" for one in bench.moves) - len(bench.metered),
        seconds=bench.seconds,
        charge=min(bench.charge, default=1.0),
    )


def _by_claims(bench: Bench, rig: Rig) -> tuple[GoalOutcome, ...]:
    start = begin(bench.code, bench.seed, bench.hard)
    frame = start.see(rig)
    return outcomes(start, frame, _run(start, frame) if bench.scene.frames else None)


def _run(bench: Bench, frame: Exposed) -> Run:
    return run_of(bench.flashes[0], power_of(frame, 0), bench.scene.frames, bench.scene.every_s)


def best_moves(bench: Bench) -> tuple[BenchMove, ...]:
    """The moves of one who knows what is hidden: the frame of the ambient too, where it belongs to the work."""
    return _moves_to(bench, knowing(bench.scene, bench.truth))


def _moves_to(bench: Bench, goal: Rig) -> tuple[BenchMove, ...]:
    start = begin(bench.code, bench.seed, bench.hard)
    moves = [*moves_between(start.rig, goal)]
    if bench.drill.ambient_first:
        off, on = BenchMove(do="set", what="trigger", value=0), BenchMove(do="set", what="trigger", value=1)
        moves = [off, *(one for one in moves if one.what in OF_AMBIENT), BenchMove(do="frame"), on, *moves]
    moves.append(BenchMove(do="frame"))
    if bench.scene.frames:
        moves.append(BenchMove(do="run"))
    return (*moves, BenchMove(do="done"))


def moves_between(rig: Rig, goal: Rig) -> list[BenchMove]:
    """What has to be set to come from one rig to another, the camera first."""
    out: list[BenchMove] = []

    def put(what: What, value: float, light: int = 0) -> None:
        out.append(BenchMove(do="set", what=what, value=float(value), light=light))

    if goal.camera.nd_stops != rig.camera.nd_stops:
        put("nd", goal.camera.nd_stops)
    if goal.hss != rig.hss:
        put("hss", goal.hss)
    if goal.camera.shutter_s != rig.camera.shutter_s:
        put("shutter", goal.camera.shutter_s)
    if goal.camera.iso != rig.camera.iso:
        put("iso", goal.camera.iso)
    if goal.camera.f_number != rig.camera.f_number:
        put("aperture", goal.camera.f_number)
    if goal.setup.aim.orientation != rig.setup.aim.orientation:
        put("orientation", HELD.index(goal.setup.aim.orientation))
    if goal.setup.ambient.lamps_on != rig.setup.ambient.lamps_on:
        put("lamps", goal.setup.ambient.lamps_on)
    if goal.focus_m != rig.focus_m:
        put("focus", goal.focus_m or 0.0)
    for at, (was, one) in enumerate(zip(rig.setup.lights, goal.setup.lights, strict=True)):
        if one.distance_m != was.distance_m:
            put("distance", one.distance_m, at)
        if one.dial_stops is not None and abs(one.dial_stops - (was.dial_stops or 0.0)) > NEAR:
            put("dial", one.dial_stops, at)
        if one.compensation_stops != was.compensation_stops and one.compensation_stops is not None:
            put("compensation", one.compensation_stops, at)
        if one.channel != was.channel and one.channel is not None:
            put("channel", one.channel, at)
        if one.sends != was.sends:
            put("sends", one.sends, at)
        if (at in goal.asleep) != (at in rig.asleep):
            put("sensor", at not in goal.asleep, at)
    return out


def _late(bench: Bench, first: int) -> Iterator[tuple[What, int]]:
    """Settings of the ambient that were touched after the first frame with flash; the number of the frame before."""
    if not bench.drill.ambient_first:
        return
    for at, move in enumerate(bench.moves):
        if at > first and move.do == "set" and move.what in OF_AMBIENT:
            yield move.what, sum(one.move < at for one in bench.taken)


def _at_once(bench: Bench, first: int) -> Iterator[tuple[int, int]]:
    """Frames after the first with flash before which several things were changed, with how many."""
    changed: set[tuple[What | None, int]] = set()
    number = 0
    for at, move in enumerate(bench.moves):
        if move.do == "set" and move.what != "trigger" and at > first:
            changed.add((move.what, move.light))
        if move.do == "frame":
            number += 1
            if len(changed) > 1:
                yield number, len(changed)
            changed.clear()


def _overshot(bench: Bench) -> Iterator[Overshot]:
    """Goals that went past from one flash frame to the next."""
    shown = [(at + 1, one) for at, one in enumerate(bench.taken) if one.flash]
    for (number, before), (after_number, after) in pairwise(shown):
        was = {one.goal: one.off for one in outcomes(bench, before.frame)}
        for one in outcomes(bench, after.frame):
            first = was[one.goal]
            if one.goal in TURNED and first * one.off < 0 and min(abs(first), abs(one.off)) > GOAL_STOPS:
                yield Overshot(one.goal, (number, after_number), first, one.off)
