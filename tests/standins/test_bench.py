"""The practice bench: what is hidden comes again by its seed, frames and meter are the core's, players get there."""

import io
import math
import os
import subprocess
import sys
from contextlib import redirect_stdout
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image
from scipy.integrate import quad

from jumpstop.core.physics.pulse import HssPulseTrain, cut_pulse
from jumpstop.core.physics.scales import SHUTTERS
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.light.seen import next_dial
from jumpstop.core.scene.ambient import Reading
from jumpstop.core.scene.seen import Seen, SeenWith
from jumpstop.formats.frame import Patch, read_frame
from jumpstop.standins.answers import answer, knowing, trusting
from jumpstop.standins.bench import Bench, BenchMove, Taken, begin, outcomes, play
from jumpstop.standins.drills import CODES, DRILLS, DrillCode
from jumpstop.standins.meter import CannotReadError, level_at, needle, read
from jumpstop.standins.picture import Box
from jumpstop.standins.review import best_moves, moves_between, review_of
from jumpstop.standins.rig import ROWS, Exposed, Rig
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.practice import play_text

SEEDS = int(os.environ.get("SEEDS", "1"))  # `SEEDS=6` tries more of them
ALL = [(code, hard, seed) for code in CODES for hard in (False, True) for seed in range(1, SEEDS + 1)]
FRAME = BenchMove(do="frame")


def moved(bench: Bench, *moves: BenchMove) -> Bench:
    return play(bench.code, bench.seed, bench.hard, (*bench.moves, *moves))


def to(bench: Bench, rig: Rig) -> Bench:
    return moved(bench, *moves_between(bench.rig, rig))


def setting(what: str, value: float, light: int = 0) -> BenchMove:
    return BenchMove(do="set", what=what, value=value, light=light)


def code_value(linear: float) -> float:
    """sRGB of linear light, of 255. Source: IEC 61966-2-1, written out here."""
    light = min(max(linear, 0.0), 1.0)
    return 255 * (12.92 * light if light <= 0.0031308 else 1.055 * light ** (1 / 2.4) - 0.055)


def card(bench: Bench, taken: Taken, name: str = "card") -> Box:
    return taken.shot(bench.drill, bench.seed).cards[name]


def mean_of(data: bytes, box: Box) -> float:
    image = np.asarray(Image.open(io.BytesIO(data)), float)
    height, width, _ = image.shape
    left, top = round(box.x * width) + 1, round(box.y * height) + 1
    return float(image[top : round((box.y + box.h) * height) - 1, left : round((box.x + box.w) * width) - 1].mean())


PRINTED = """
import hashlib
from jumpstop.standins.bench import BenchMove, play
codes = ("pour", "ambient", "group")
shots = [play(code, 5, hard, (BenchMove(do="frame"),)) for code in codes for hard in (True, False)]
print([hashlib.sha256(one.taken[0].shot(one.drill, 5).jpeg).hexdigest() for one in shots])
"""


def test_the_same_seed_has_the_same_truth_and_the_same_frames_byte_for_byte() -> None:
    told = [subprocess.run([sys.executable, "-c", PRINTED], capture_output=True, text=True, check=True).stdout]
    with redirect_stdout(io.StringIO()) as here:
        exec(PRINTED, {})
    told.append(here.getvalue())
    assert told[0] == told[1]
    assert len(set(eval(told[0]))) == 6  # and they are different frames
    others = {
        play("ambient", seed, False, (FRAME,)).taken[0].shot(DRILLS["ambient"], seed).jpeg for seed in (1, 2, 3, 4)
    }
    assert len(others) == 4


@pytest.mark.parametrize("code", [code for code in CODES if code not in ("dark", "halve", "pour")])
def test_a_flat_patch_agrees_with_the_levels_within_a_code_value(code: DrillCode) -> None:
    """A grey card of .18 renders .18 x 2^level."""
    names = {"card": "lit", "card_shadow": "shadow", "card_edge": "edge", "card_left": "left", "card_right": "right"}
    for hard in (False, True):
        bench = begin(code, 4, hard)
        bench = moved(to(bench, knowing(bench.scene, bench.truth)), FRAME)
        taken = bench.taken[-1]
        if taken.frame.kind == "hss":
            continue  # uneven across the frame: below
        shot = taken.shot(bench.drill, bench.seed)
        for name, box in shot.cards.items():
            level = taken.frame.level(names[name]).total
            assert mean_of(shot.jpeg, box) == pytest.approx(code_value(0.18 * 2**level), abs=1.0), (name, level)
        found = read_frame(shot.jpeg, Patch(**vars(shot.cards["card"])))
        camera = taken.frame.rig.camera
        assert (found.f_number, found.iso, found.flash) == (camera.f_number, camera.iso, taken.flash)
        assert found.shutter_s == pytest.approx(camera.shutter_s, rel=1e-6)


def share_at(frame: Exposed, row: float) -> float:
    """What a row gets of the light that comes while it is open, by an integral of the flash over time. Row 0 is passed
    first; it opens at row x travel."""
    body, method = frame.rig.setup.body, frame.method
    time, travel = method.camera.shutter_s, body.sync_s
    if frame.kind == "hss":
        level, fired = HssPulseTrain(travel + time).level, 0.0
    else:
        full = float(frame.solved.table.t01_s[0, 0])
        level, fired = cut_pulse(frame.t01_s(0), max(full, frame.t01_s(0))).level, travel
    ends = (row * travel - fired, row * travel + time - fired)
    start = max(ends[0], 0.0)
    return 0.0 if ends[1] <= start else quad(lambda at: float(level(at)), start, ends[1], limit=200)[0]


@pytest.mark.parametrize(("code", "shutter"), [("dark", 1 / 320), ("dark", 1 / 640), ("halve", 1 / 2000)])
def test_the_dark_part_and_the_light_of_hss_are_the_shutters_integral(code: DrillCode, shutter: float) -> None:
    bench = begin(code, 2, False)
    bench = to(bench, replace(bench.rig, camera=replace(bench.rig.camera, shutter_s=shutter)))
    frame = bench.see()
    assert frame.kind == ("past_sync" if code == "dark" else "hss")
    rows = np.linspace(0, 1, ROWS)
    got = np.array([share_at(frame, row) for row in rows])
    if code == "halve":
        assert frame.rows[0] == pytest.approx(got / got.mean(), rel=0.02)
        loss = math.log2(1 / (shutter / (shutter + 1 / 250)))  # the slit's share of the whole train, in stops
        jump = next(one for one in frame.solved.chain if one.effect == "hss")
        extra = float(frame.solved.table.hss_extra_at(shutter)[0])
        assert frame.solved.table.learned is not None
        moved_by = frame.solved.table.learned.mean[frame.solved.table.learned.places["unit", "sanderling", "hss"]]
        assert -float(np.ravel(jump.stops)[0]) == pytest.approx(loss + extra - moved_by, abs=0.01)
        return
    dark = rows < 1 - shutter / (1 / 250)
    assert frame.rows[0][dark] == pytest.approx(0, abs=1e-9)
    lit = ~dark & (rows > 1 - shutter * 250 + 0.02)
    assert frame.rows[0][lit] / frame.rows[0][-1] == pytest.approx(got[lit] / got[-1], abs=0.02)


def test_the_dark_part_falls_where_the_camera_is_turned() -> None:
    """A body whose bottom goes dark: across, the low third of the frame has no flash; upright with the grip up, its
    right side."""
    bench = moved(begin("dark", 2, False), setting("shutter", 1 / 320), FRAME, setting("orientation", 1), FRAME)
    for taken, cut in zip(bench.taken, (np.s_[-30:, :], np.s_[:, -30:]), strict=True):
        dark = bench.see(replace(taken.frame.rig, fire=False))
        without = replace(taken, frame=dark, move=taken.move)
        with_flash, ambient = (
            np.asarray(Image.open(io.BytesIO(one.shot(bench.drill, 2).jpeg)), float).mean(axis=2)
            for one in (taken, without)
        )
        differs = np.abs(with_flash - ambient)
        assert differs[cut].max() < 12  # grain and the file's own blocks
        assert differs.max() > 60


def test_the_meter_agrees_with_the_chain_within_its_step() -> None:
    for code, hard, seed in ALL:
        bench = begin(code, seed, hard)
        frame = bench.see()
        if frame.kind == "hss":
            with pytest.raises(CannotReadError) as error:
                read(frame, 0, "flash", None)
            assert error.value.code == "hss"
            continue
        for light, unit in enumerate(frame.units):
            for kind in ("flash", "ambient", "both"):
                level = level_at(frame, light, kind)
                if unit is None or not -8 < level < 6:
                    continue
                if frame.rig.camera.f_number * 2 ** (level / 2) > 64:
                    with pytest.raises(CannotReadError):  # brighter than its scale goes
                        read(frame, light, kind, None)
                    continue
                shown = read(frame, light, kind, None)
                assert shown.stops == pytest.approx(level, abs=1 / 6 + 0.02), (code, kind)
    frame = begin("nd", 1, False).see()
    rng = np.random.default_rng(1)
    spread = [read(frame, 0, "flash", rng, "third").stops for _ in range(400)]
    assert np.std(spread) == pytest.approx(math.hypot(0.1, 1 / 3 / math.sqrt(12)), abs=0.03)  # noise, and its steps
    with pytest.raises(CannotReadError):
        read(begin("nd", 1, False).see(replace(begin("nd", 1, False).rig, fire=False)), 0, "flash", None)


def test_the_needle_shows_the_background_in_thirds_and_no_farther_than_it_goes() -> None:
    bench = begin("ambient", 3, False)
    at = bench.see(replace(bench.rig, fire=False)).level("background").ambient
    assert needle(bench.see()) == pytest.approx(round(at * 3) / 3)
    far = to(bench, replace(bench.rig, camera=replace(bench.rig.camera, shutter_s=1 / 8000)))
    assert needle(far.see()) == -3
    darker = to(bench, replace(bench.rig, camera=replace(bench.rig.camera, shutter_s=1 / 125)))
    assert darker.needle() == pytest.approx(bench.needle() - 1, abs=1 / 3 + 1e-9)


# Players. One who follows the tool's own next dial looks at frames as a person's test frames are read.


def patch(bench: Bench, taken: Taken, name: str) -> float:
    """Stops that a grey card of a frame lies from where it belongs, read from its file."""
    shot = taken.shot(bench.drill, bench.seed)
    found = read_frame(shot.jpeg, Patch(**vars(shot.cards[name])))
    return math.log2(max(found.luminance, 1e-6) / 0.18)


def wall(bench: Bench, taken: Taken) -> float:
    """The same of the wall behind, which is as grey: a corner of the frame above."""
    found = read_frame(taken.shot(bench.drill, bench.seed).jpeg, Patch(0.05, 0.03, 0.12, 0.12))
    return math.log2(max(found.luminance, 1e-6) / 0.18)


def following(code: DrillCode, seed: int, hard: bool) -> Bench:
    """The tool's plan, an ambient frame where it belongs to the work, its readings, and the tool's next dial."""
    bench = begin(code, seed, hard)
    scene, ambient = bench.scene, -30.0
    if code == "channels":  # what is wrong is looked at
        bench = moved(bench, *(BenchMove(do="look", light=at) for at in range(3)))
        return moved(
            to(bench, replace(knowing(scene, bench.truth), camera=bench.rig.camera)), FRAME, BenchMove(do="done")
        )
    bench = to(bench, trusting(scene))
    if bench.drill.ambient_first:
        bench = moved(bench, setting("trigger", 0), FRAME)
        camera, taken = bench.rig.camera, bench.taken[-1]
        seen = [
            Reading(f_number=camera.f_number, shutter_s=camera.shutter_s, iso=camera.iso, of=of,
                    needle_stops=found + camera.nd_stops)
            for of, found in (("background", wall(bench, taken)), ("subject", patch(bench, taken, "card")))
        ]  # fmt: skip
        spec = scene.known.ambient.model_copy(update={"by": "reading", "readings": tuple(seen)})
        known = replace(scene, known=scene.known.model_copy(update={"ambient": spec}))
        planned = answer(known, ambient_of(spec))
        planned = replace(planned, setup=bench.rig.setup.model_copy(update={"lights": planned.setup.lights}))
        bench = moved(to(bench, planned), setting("trigger", 1))
        ambient = ambient_of(spec).lit_ev - bench.rig.camera.ev
    bench = moved(bench, FRAME)
    if not all(one.met for one in outcomes(bench, bench.taken[-1].frame)):
        bench = moved(turned(bench, ambient), FRAME)
    if scene.frames:
        bench = moved(bench, BenchMove(do="run"))
        while bench.runs[-1][1].lit != scene.frames:
            camera = replace(bench.rig.camera, iso=bench.rig.camera.iso * 2)
            dial = (bench.rig.setup.lights[0].dial_stops or 0) + 1
            bench = moved(to(bench, replace(bench.rig, camera=camera)), setting("dial", dial), BenchMove(do="run"))
        bench = moved(bench, FRAME) if len(bench.runs) > 1 and len(bench.taken) < 2 else bench
    return moved(bench, BenchMove(do="done"))


def turned(bench: Bench, ambient: float) -> Bench:
    """Each dial by what a card of the newest frame says, through the core's own next dial."""
    taken, cards = bench.taken[-1], {"key": "card", "fill": "card_shadow", "rim": "card_edge"}
    for at, light in enumerate(bench.rig.setup.lights):
        level = patch(bench, taken, cards[light.role])
        if light.automatic:
            bench = moved(bench, setting("compensation", (light.compensation_stops or 0) - level))
            continue
        there = ambient if light.role == "key" else taken.frame.levels[taken.frame.solved.placing.own[at]].ambient
        if light.role == "fill":  # the shadow side's ambient was in the frame without flash
            before = bench.taken[0]
            there = patch(bench, before, "card_shadow") + before.frame.rig.camera.ev - bench.rig.camera.ev
            level = patch(bench, taken, "card_shadow")
        camera = bench.rig.camera
        wanted = light.target_stops
        total = wanted if light.role == "key" else float(np.log2(2**wanted + 2**there))
        seen = Seen(
            light=at, kind="patch", stops=level - total, wanted_stops=total, dial_stops=light.dial_stops or 0.0,
            ambient_stops=max(-60.0, there), was=light, holds_ambient=True,
            camera=SeenWith(f_number=camera.f_number, shutter_s=camera.shutter_s, iso=camera.iso),
        )  # fmt: skip
        unit = light.unit
        assert unit is not None
        found = next_dial(seen, light.role == "key", unit.scale.step_stops, unit.scale.dial_range_stops)
        if light.role != "key":
            flash = math.log2(max(2**level - 2**there, 1e-6))
            dial = round(((light.dial_stops or 0) + flash - wanted) / unit.scale.step_stops) * unit.scale.step_stops
            bench = moved(bench, setting("dial", dial, at))
        elif found is not None:
            bench = moved(bench, setting("dial", found.dial_stops, at))
    return bench


@pytest.mark.parametrize("code", CODES)
def test_who_follows_the_tools_next_dial_is_there_within_the_fewest_frames_and_one(code: DrillCode) -> None:
    for hard in (False, True):
        for seed in (1, 2, 3, 4):
            bench = following(code, seed, hard)
            review = review_of(bench)
            off = [(one.goal, one.off) for one in review.outcome if not one.met]
            assert review.met, (code, hard, seed, off)
            assert review.frames <= review.fewest + 1, (code, hard, seed)


def halving(code: DrillCode, seed: int, hard: bool) -> int:
    """Frames of one who looks, halves or doubles, and goes back by half a step where that was too far. The camera is
    set as the tool says; the rest of the scene too, so that only the dial is to be found."""
    bench = begin(code, seed, hard)
    right = knowing(bench.scene, bench.truth)
    at, step, before = len(right.setup.lights) - 1, 1.0, 0.0
    bench = to(bench, right.with_light(at, dial_stops=3.0))
    for _ in range(12):
        bench = moved(bench, FRAME)
        offs = [one for one in outcomes(bench, bench.taken[-1].frame) if one.goal in ("face", "rim", "shadow")]
        if all(one.met for one in offs):
            break
        worst = offs[-1].off
        if worst * before < 0:
            step /= 2
        bench = moved(
            bench, setting("dial", (bench.rig.setup.lights[at].dial_stops or 0) + math.copysign(step, worst), at)
        )
        before = worst
    return len(bench.taken) + bench.drill.ambient_first


@pytest.mark.parametrize("code", ["ambient", "halve", "nd", "fill", "second", "group"])
def test_who_halves_and_doubles_blindly_needs_more(code: DrillCode) -> None:
    seeds = range(1, 6)
    blind = [halving(code, seed, hard) for seed in seeds for hard in (False, True)]
    tool = [len(following(code, seed, hard).taken) for seed in seeds for hard in (False, True)]
    assert np.mean(blind) > np.mean(tool) + 0.3


def test_who_knows_what_is_hidden_gets_there_and_nobody_in_fewer_frames() -> None:
    for code, hard, seed in ALL:
        bench = begin(code, seed, hard)
        best = play(code, seed, hard, best_moves(bench))
        review = review_of(best)
        assert review.met, (code, hard, seed, review.outcome)
        assert review.frames == review.fewest == 1 + bench.drill.ambient_first
        assert not review.late_ambient
        assert not review.overshot


def test_what_was_done_is_told_with_its_figures() -> None:
    units = DisplayUnits()
    bench = begin("ambient", 2, False)
    right = knowing(bench.scene, bench.truth).setup.lights[0].dial_stops or 0.0
    bench = moved(
        bench, setting("dial", right - 2), FRAME, setting("dial", right + 2), setting("shutter", 1 / 125), FRAME,
        BenchMove(do="done"),
    )  # fmt: skip
    review = play_text(bench, units).review
    assert review is not None
    told = " ".join(review.did)
    assert "The first frame had flash in it already" in told
    assert "(shutter time, 1 time)" in told
    assert "Before frame 2, 2 things were changed at once" in told
    assert "went past" in told
    assert "in frame 1" in told
    assert [one.name for one in review.goals] == ["Background", "The face"]
    assert review.claims
    assert "2 frames is the fewest" in review.says
    best = play_text(play("ambient", 2, False, best_moves(bench)), units).review
    assert best is not None
    assert (best.met, best.did, best.shorter) == (True, [], "Nothing would have been shorter.")


def test_what_cannot_be_done_is_said_and_costs_nothing() -> None:
    units = DisplayUnits()
    bench = begin("halve", 1, False)
    for move, words in [
        (setting("aperture", 8), "not to be set"),
        (BenchMove(do="meter"), "sees no high-speed sync"),
        (BenchMove(do="frame", light=3), "no such light"),
        (BenchMove(do="done"), "Take a frame first"),
        (BenchMove(do="run"), "not to be set"),
    ]:
        assert words in play_text(moved(bench, move), units).said
    tired = moved(bench, *(FRAME for _ in range(20)))
    assert len(tired.taken) < 14
    assert "stood long enough" in play_text(tired, units).said
    over = moved(bench, FRAME, BenchMove(do="done"), FRAME)
    assert len(over.taken) == 1


def test_settings_stay_on_the_marks_that_camera_and_unit_have() -> None:
    bench = moved(begin("ambient", 1, False), setting("shutter", 1 / 70), setting("iso", 9), setting("dial", 99))
    assert bench.rig.camera.shutter_s in (1 / 60, 1 / 80)
    assert bench.rig.camera.iso == 50
    assert bench.rig.setup.lights[0].dial_stops == 8.0
    assert float(SHUTTERS.exact(bench.rig.camera.shutter_s)) > 0
    assert moved(begin("nd", 1, False), setting("nd", 9)).rig.camera.nd_stops == 9
    assert moved(begin("nd", 1, False), setting("nd", 0)).rig.camera.nd_stops == 0
