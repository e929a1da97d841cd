"""Practice in words: the drills, what can be set, what the camera's back and the meter show, and what was done."""

import base64
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..core.kit.filter import nd_for
from ..core.kit.modifier import layers_on
from ..core.physics.scales import APERTURES, ISOS, SHUTTERS, at_least
from ..core.scene.camera import CameraSettings
from ..standins.bench import Bench, GoalOutcome
from ..standins.drills import HELD, DrillCode, Goal, What
from ..standins.flash import Run
from ..standins.review import Overshot, Review, review_of
from ..standins.rig import Rig
from .figures import (
    DisplayUnits,
    amount,
    count,
    dial,
    duration,
    f_number,
    iso,
    length,
    listed,
    nd,
    share,
    shutter,
    stops,
)
from .kit import ROLES

DRILL_WORDS: dict[DrillCode, tuple[str, str, str]] = {
    "ambient": (
        "Ambient first, then flash",
        "The shutter changes the background and leaves the flash alone. So the background is settled first, with the "
        "flash off; then the flash is added, and the background is left in peace.",
        "the light after sunset, which nobody knows well",
    ),
    "halve": (
        "Start in the middle, and halve",
        "High-speed sync cannot be metered with an ordinary flash meter. One starts in the middle of the dial, looks, "
        "and halves or doubles; a little under is safer than over.",
        "1/4000, where little light is left",
    ),
    "nd": (
        "Two stops under, with ND",
        "A neutral density filter takes from flash and ambient alike: the aperture stays, the shutter stays at sync, "
        "and all of the flash’s power counts.",
        "snow, and two heads",
    ),
    "hss": (
        "HSS or not",
        "High-speed sync costs about two stops at once. Where the background can be had at sync speed, they are thrown "
        "away.",
        "under a hazy sun",
    ),
    "dark": (
        "Past sync: place the dark part",
        "Past the sync speed one edge of the frame gets no flash. Turn the camera so that it falls where there is "
        "nothing for the flash to light.",
        "a body whose other edge goes dark",
    ),
    "pour": (
        "Freeze a pour",
        "What freezes is the length of the flash, not the shutter: turned down it is shorter. The lamps go off, so "
        "that nothing ghosts, and the lens is focused on the mark before the pour.",
        "closer, where everything moves faster in the frame",
    ),
    "fill": (
        "Fill that must not show",
        "Fill lifts the shadow side and no more: one and a half to two and a half stops under, by flash alone.",
        "less still",
    ),
    "second": (
        "A second light, the first left alone",
        "The key is right. The rim is set by its own dial: aperture and ISO would change both.",
        "through a softbox that nobody has measured",
    ),
    "group": (
        "A group, evenly",
        "The ends of a row stand farther from the light than its middle. Move the light back and the difference "
        "shrinks; then the power has to rise.",
        "wider, and two rows",
    ),
    "channels": (
        "Who does not fire",
        "A light on another channel, a second one that commands, or a sensor that looks away: look at their switches "
        "before you change anything.",
        "two faults",
    ),
    "automatic": (
        "Automatic power, with compensation",
        "Automatic flash aims at grey, whatever fills the frame: a black coat comes out too bright, a white wall too "
        "dark. The compensation says by how much.",
        "a frame that misleads it more",
    ),
    "lasts": (
        "What runs out first",
        "Full power waits longest and empties the battery soonest. A higher ISO buys back both.",
        "so many frames that the battery matters too",
    ),
}
"""By drill: its name, why it is practised, and what is harder about it."""

WHATS: dict[What, str] = {
    "aperture": "Aperture", "shutter": "Shutter time", "iso": "ISO", "nd": "ND filter", "hss": "High-speed sync",
    "orientation": "Camera held", "focus": "Focus", "lamps": "Lamps", "trigger": "Trigger", "dial": "Power",
    "distance": "Distance", "compensation": "Compensation", "channel": "Channel", "sends": "It",
    "sensor": "Its sensor", "layers": "Layers on",
}  # fmt: skip
GOALS: dict[Goal, str] = {
    "background": "Background", "face": "The face", "shadow": "Fill, by flash alone", "rim": "Rim, by flash alone",
    "even": "Ends and rows against the middle", "dark": "The dark part", "frozen": "Flash duration",
    "ghost": "Ambient", "focus": "Focus", "all_fire": "Lights", "hss_spared": "High-speed sync", "lasts": "The frames",
}  # fmt: skip
REFUSED = {
    "over": "This drill is over: begin another, or the same again.",
    "no_such_light": "There is no such light here.",
    "no_frame_yet": "Take a frame first.",
    "out_of_patience": "They have stood long enough: say that you are done.",
    "not_here": "That is not to be set in this drill.",
    "meter_hss": "The meter reads nothing: it sees no high-speed sync.",
    "meter_no_flash": "The meter reads nothing: no flash reaches it.",
    "meter_too_bright": "The meter reads nothing: it is brighter than its scale goes.",
    "meter_too_dark": "The meter reads nothing: it is too dark for it.",
}
STOPPED = {"recycling": "was not ready yet", "empty": "has an empty battery", "hot": "is too hot and rests"}
WHY_FIRST = {"recycling": "it was not ready: the recycle time", "empty": "the battery", "hot": "the heat"}
CARDS = {
    "card": "Grey card, lit side",
    "card_shadow": "Grey card, shadow side",
    "card_edge": "Grey card, edge",
    "card_left": "Grey card, left end",
    "card_right": "Grey card, right end",
}
METERS = {"flash": "Flash alone", "ambient": "Ambient", "both": "Flash and ambient"}
LEAST_SHUTTER = 30  # 1/30 s: the slowest that is offered
DISTANCES_M = [round(0.4 + 0.1 * at, 1) for at in range(17)] + [2.0 + 0.5 * at for at in range(1, 26)]
FOCUS_M = (0.0, 0.6, 0.7, 0.8, 1.0, 1.15, 1.5, 2.0)


@dataclass(slots=True)
class DrillText:
    """A drill of the list."""

    code: DrillCode
    name: str
    why: str
    harder: str


@dataclass(slots=True)
class Choice:
    """One value that a thing can be set to."""

    value: float
    says: str


@dataclass(slots=True)
class Control:
    """A thing that can be set: of which light (its name; empty: the camera or the place), its values, and the place of
    the one it has. hidden: it is not known until one looks at the light's switches."""

    what: What
    light: int
    of: str
    name: str
    at: int
    choices: list[Choice]
    hidden: bool


@dataclass(slots=True)
class CardText:
    """A grey card in the frame [shares of its width and height]."""

    name: str
    x: float
    y: float
    w: float
    h: float


@dataclass(slots=True)
class FrameShown:
    """A frame on the camera's back. picture: a JPEG as a data address. histogram: counts, dark to bright."""

    number: int
    says: str
    picture: str
    upright: bool
    flash: bool
    histogram: list[int]
    clipped: str
    cards: list[CardText]


@dataclass(slots=True)
class GoalText:
    """One thing that had to come out."""

    name: str
    says: str
    met: bool


@dataclass(slots=True)
class ReviewText:
    """The drill looked back at: what came out, in how many frames, what was done, what would have been shorter."""

    met: bool
    says: str
    goals: list[GoalText]
    claims: list[GoalText]
    claims_set: str
    did: list[str]
    shorter: str
    right: str


@dataclass(slots=True)
class PlayText:
    """A drill as it stands."""

    code: DrillCode
    name: str
    why: str
    task: str
    controls: list[Control]
    lights: list[str]
    meters: bool
    looks: bool
    runs: bool
    needle: float
    needle_says: str
    patience: float
    patience_says: str
    seconds: float
    seconds_says: str
    charges: list[str]
    said: str
    notes: list[str]
    frames: int
    frame: FrameShown | None
    done: bool
    review: ReviewText | None


def drill_texts() -> list[DrillText]:
    """All drills, in their order."""
    return [DrillText(code, name, why, harder) for code, (name, why, harder) in DRILL_WORDS.items()]


def play_text(bench: Bench, units: DisplayUnits) -> PlayText:
    """A drill after its moves."""
    name, why, _ = DRILL_WORDS[bench.code]
    needle = bench.needle()
    return PlayText(
        code=bench.code,
        name=name,
        why=why,
        task=task(bench, units),
        controls=list(_controls(bench, units)),
        lights=[light_name(bench, at) for at in range(len(bench.rig.setup.lights))],
        meters=bench.code not in ("channels", "lasts", "automatic"),
        looks=bench.code == "channels",
        runs=bool(bench.scene.frames),
        needle=round(needle, 3),
        needle_says=f"Needle, on the background: {stops(needle)}" + (" or beyond" if abs(needle) >= 3 else ""),
        patience=round(bench.patience, 2),
        patience_says=f"Patience for about {count(math.floor(bench.patience), 'more frame')}.",
        seconds=round(bench.seconds, 1),
        seconds_says=duration(bench.seconds),
        charges=[_charge(bench, at, left) for at, left in enumerate(bench.charge)],
        said=REFUSED.get(bench.refused, ""),
        notes=[*_meter_notes(bench), *_run_notes(bench)],
        frames=len(bench.taken),
        frame=_frame(bench) if bench.taken else None,
        done=bench.done,
        review=review_text(review_of(bench), bench, units) if bench.done else None,
    )


def _charge(bench: Bench, at: int, left: float) -> str:
    """What is left in a light's battery, and when it is ready for full power again."""
    ready = bench.flashes[at].ready_in(1.0)
    soon = f", ready for full power in {duration(ready)}" if ready > 0 else ""
    return f"{light_name(bench, at)}: {share(left)} of the charge left{soon}"


def light_name(bench: Bench, at: int) -> str:
    """A light by its part and its unit."""
    light = bench.rig.setup.lights[at]
    unit = light.unit.name if light.unit else "no unit"
    return f"{ROLES[light.role].capitalize()}, {unit}"


def task(bench: Bench, units: DisplayUnits) -> str:
    """What is to be done."""
    aim, code = bench.scene.setup.aim, bench.code
    ground = _level(aim.background_stops)
    match code:
        case "channels":
            return "All three lights are to fire, each as bright as it is now."
        case "group":
            return "The face in the middle correct, the ends and rows within a third of a stop of it."
        case "second":
            target = bench.scene.setup.lights[1].target_stops
            return f"The key is right. Add the rim, {amount(target)} over, and leave the face correct."
        case "automatic":
            return "The face correct, by the compensation alone."
        case "halve":
            return "The face correct. The camera is set, the meter is blind: only the dial is yours."
        case "lasts":
            every = duration(bench.scene.every_s)
            return f"The face correct, and {count(bench.scene.frames, 'frame')} lit, one every {every}."
        case "pour":
            return f"The pour sharp and correct at {f_number(aim.f_number)}, nothing ghosting."
        case "fill":
            target = bench.scene.setup.lights[0].target_stops
            return (
                f"The background {ground}, the fill {amount(target)} under by flash alone, at {f_number(aim.f_number)}."
            )
        case _:
            return f"The background {ground}, the face correct, at {f_number(aim.f_number)}."


def _level(background: float) -> str:
    if abs(background) < 0.05:
        return "correct"
    return f"{amount(background)} {'under' if background < 0 else 'over'}"


def _controls(bench: Bench, units: DisplayUnits) -> Iterator[Control]:
    """Everything that can be set, the camera first."""
    for what in bench.drill.sets:
        if what in OF_LIGHT:
            continue
        choices = [Choice(value, says) for value, says in _choices(bench, what, 0, units)]
        yield Control(what, 0, "", WHATS[what], _nearest(choices, _value(bench, what, 0)), choices, False)
    for at in range(len(bench.rig.setup.lights)):
        for what in bench.drill.sets:
            if what not in OF_LIGHT:
                continue
            hidden = what in SWITCHES and at not in bench.looked
            choices = [] if hidden else [Choice(*one) for one in _choices(bench, what, at, units)]
            place = 0 if hidden else _nearest(choices, _value(bench, what, at))
            yield Control(what, at, light_name(bench, at), WHATS[what], place, choices, hidden)


OF_LIGHT = frozenset({"dial", "distance", "layers", "compensation", "channel", "sends", "sensor"})
SWITCHES = frozenset({"channel", "sends", "sensor"})


def _nearest(choices: Sequence[Choice], value: float) -> int:
    return min(range(len(choices)), key=lambda at: abs(choices[at].value - value))


def _value(bench: Bench, what: What, at: int) -> float:
    """What a thing is set to."""
    rig, light = bench.rig, bench.rig.setup.lights[at]
    held = HELD.index(rig.setup.aim.orientation)
    values: dict[What, float | None] = {
        "aperture": rig.camera.f_number, "shutter": rig.camera.shutter_s, "iso": rig.camera.iso,
        "nd": rig.camera.nd_stops, "hss": rig.hss, "orientation": held, "focus": rig.focus_m,
        "lamps": rig.setup.ambient.lamps_on, "trigger": rig.fire, "dial": light.dial_stops,
        "distance": light.distance_m, "compensation": light.compensation_stops, "channel": light.channel,
        "sends": light.sends, "sensor": at not in rig.asleep,
        "layers": len(layers_on(light.modifier, light.layers)) if light.modifier else 0,
    }  # fmt: skip
    return float(values[what] or 0.0)


def _choices(bench: Bench, what: What, at: int, units: DisplayUnits) -> list[tuple[float, str]]:
    """The values that a thing can have, in the order of its steps."""
    setup, light = bench.rig.setup, bench.rig.setup.lights[at]
    match what:
        case "aperture":
            return [(one, f_number(one)) for one in APERTURES.steps["third"] if 1.4 <= one <= 22]
        case "shutter":
            top, longest = setup.body.top_speed_s, 1 / LEAST_SHUTTER
            times = [one for one in SHUTTERS.steps["third"] if at_least(one, top) and at_least(longest, one)]
            return [(one, shutter(one)) for one in times]
        case "iso":
            return [(one, iso(one)) for one in ISOS.steps["third"] if setup.body.iso_min <= one <= 6400]
        case "nd":
            found = {round(one.stops, 2) for wanted in range(1, 13) if (one := nd_for(wanted, setup.filters))}
            return [(0.0, "none"), *((one, nd(one)) for one in sorted(found) if one > 0)]
        case "orientation":
            return [(0.0, "across"), (1.0, "grip up"), (2.0, "grip down")]
        case "focus":
            return [(one, f"at {length(one, units)}" if one else "on the mark") for one in FOCUS_M]
        case "dial":
            unit = light.unit
            assert unit is not None  # every light of a drill has one
            steps = round(unit.scale.dial_range_stops / unit.scale.step_stops)
            marks = [place * unit.scale.step_stops for place in range(steps, -1, -1)]
            return [(one, dial(unit.scale, one, units, unit.watt_seconds)) for one in marks]
        case "distance":
            return [(one, length(one, units)) for one in DISTANCES_M]
        case "layers":
            names = [one.name for one in light.modifier.layers] if light.modifier else []
            return [(float(many), listed(names[:many], "and") or "none") for many in range(len(names) + 1)]
        case "compensation":
            return [(round(place / 3, 4), stops(place / 3)) for place in range(-9, 10)]
        case "channel":
            return [(float(one), str(one)) for one in range(1, 9)]
        case "sends":
            return [(0.0, "obeys"), (1.0, "commands")]
        case "sensor":
            return [(1.0, "sees the camera"), (0.0, "looks away")]
        case _:
            return [(0.0, "off"), (1.0, "on")]


def _meter_notes(bench: Bench) -> Iterator[str]:
    for _, light, found in bench.metered[-3:]:
        of = f" at the {ROLES[bench.rig.setup.lights[light].role]}" if len(bench.rig.setup.lights) > 1 else ""
        yield f"Meter{of}, {METERS[found.kind].lower()}: {f_number(found.f_number)}, {_against(found.stops)}."


def _against(off: float) -> str:
    return "as the camera is set" if abs(off) < 0.05 else f"{amount(off)} {'over' if off > 0 else 'under'}"


def _run_notes(bench: Bench) -> Iterator[str]:
    for _, run in bench.runs[-1:]:
        yield _ran(run)


def _ran(run: Run) -> str:
    if run.lit == run.frames:
        return f"All {run.frames} frames lit."
    return (
        f"{run.lit} of {run.frames} frames lit; the first dark one is frame {run.unbroken + 1}. "
        f"What ran out first: {WHY_FIRST[run.why]}."
    )


def _frame(bench: Bench) -> FrameShown:
    taken = bench.taken[-1]
    shot, camera = taken.shot(bench.drill, bench.seed), taken.frame.rig.camera
    dark = [f"{light_name(bench, at)} {STOPPED[why]}" for at, why in enumerate(taken.stopped) if why]
    says = f"{_camera(camera)} · {'flash' if taken.flash else 'no flash'}" + "".join(f". {one}" for one in dark)
    return FrameShown(
        number=len(bench.taken),
        says=says,
        picture="data:image/jpeg;base64," + base64.b64encode(shot.jpeg).decode(),
        upright=taken.frame.rig.setup.aim.orientation != "landscape",
        flash=taken.flash,
        histogram=list(shot.histogram),
        clipped=f"{share(shot.clipped, 1)} of the frame clips." if shot.clipped >= 0.0005 else "Nothing clips.",
        cards=[CardText(CARDS[name], box.x, box.y, box.w, box.h) for name, box in shot.cards.items()],
    )


def review_text(review: Review, bench: Bench, units: DisplayUnits) -> ReviewText:
    """The drill looked back at."""
    frames = count(review.frames, "frame")
    fewest = count(review.fewest, "frame")
    best = f"{fewest} is the fewest, of one who knows what is hidden" + (
        ", the frame without flash counted." if review.wanted_ambient else "."
    )
    head = (
        f"{'It comes out' if review.met else 'It does not come out yet'}, in {frames} and {duration(review.seconds)}; "
    )
    return ReviewText(
        met=review.met,
        says=head + best,
        goals=[goal_text(one, bench) for one in review.outcome],
        claims=[goal_text(one, bench) for one in review.by_claims],
        claims_set=_set_as(review.trusting, units),
        did=list(_did(review)),
        shorter=_shorter(review),
        right=f"Right here was: {_set_as(review.knowing, units)}.",
    )


def _set_as(rig: Rig, units: DisplayUnits) -> str:
    """How a rig is set: the camera, and each light."""
    parts = [_camera(rig.camera)]
    if rig.hss:
        parts.append("HSS")
    for light in rig.setup.lights:
        if light.unit is not None:
            power = "automatic" if light.automatic else dial(light.unit.scale, light.dial_stops or 0.0, units)
            parts.append(f"{ROLES[light.role]} {power} at {length(light.distance_m, units)}")
    return " · ".join(parts)


def _camera(camera: CameraSettings) -> str:
    """Camera settings in a line."""
    parts = [f_number(camera.f_number), shutter(camera.shutter_s), iso(camera.iso)]
    return " · ".join([*parts, f"ND {nd(camera.nd_stops)}"] if camera.nd_stops else parts)


def goal_text(one: GoalOutcome, bench: Bench) -> GoalText:
    """One thing, and how far it is off."""
    return GoalText(GOALS[one.goal], _outcome(one, bench), one.met)


def _outcome(one: GoalOutcome, bench: Bench) -> str:
    match one.goal:
        case "dark":
            return "clear of the person" if one.met else f"over {share(one.off)} of the frame’s height or width on them"
        case "frozen":
            return (
                "short enough"
                if one.met
                else f"{'too long' if math.isinf(one.off) else f'{2**one.off:.1f} times too long'}"
            )
        case "ghost":
            return "dark enough, nothing ghosts" if one.met else f"{amount(one.off)} too bright, it ghosts"
        case "focus":
            return "on the mark" if one.met else "not on the mark: soft"
        case "all_fire":
            return "all fire" if one.met else f"{count(round(one.off), 'does', 'do')} not fire"
        case "hss_spared":
            return "only where it is needed" if one.met else "on where sync speed would do"
        case "lasts":
            if not bench.runs:
                return "not run"
            return "all lit" if one.met else f"{round(one.off)} of {bench.scene.frames} dark"
        case _:
            if math.isinf(one.off):
                return "no flash in it"
            return "right" if abs(one.off) < 0.05 else f"{amount(one.off)} {'over' if one.off > 0 else 'under'}"


def _did(review: Review) -> Iterator[str]:
    """What was done that cost something, each with its figures."""
    if review.wanted_ambient and not review.without_flash:
        yield "The first frame had flash in it already: ambient and flash cannot be told apart in it."
    late = [WHATS[what].lower() for what, _ in review.late_ambient]
    if late:
        each = listed(list(dict.fromkeys(late)), "and")
        yield (
            f"The ambient was touched after the first frame with flash ({each}, {count(len(late), 'time')}): what the "
            f"flash has to give changes with it."
        )
    for number, how_many in review.at_once:
        yield f"Before frame {number}, {how_many} things were changed at once: which of them did it is not to be seen."
    for one in review.overshot:
        yield _overshot(one)
    if review.refused_meter:
        yield f"The meter was asked {count(review.refused_meter, 'time')} where it cannot read."
    if review.frames > review.fewest + 1:
        yield f"{review.frames - review.fewest} frames more than needed."
    if review.charge < 0.9:
        yield f"{share(1 - review.charge)} of a charge is gone."


def _overshot(one: Overshot) -> str:
    before, after = one.frames
    return (
        f"{GOALS[one.goal]} went past: {_against(one.before)} in frame {before}, "
        f"{_against(one.after)} in frame {after}. "
        f"{amount(one.before)} were to be changed, {amount(one.before - one.after)} were."
    )


def _shorter(review: Review) -> str:
    """What would have been shorter."""
    if review.met and review.frames <= review.fewest:
        return "Nothing would have been shorter."
    if review.wanted_ambient:
        return (
            "Shorter: one frame with the trigger off, the background set by what its card or the needle says; one with "
            "flash, and the dial turned once by just what the face is off."
        )
    return "Shorter: one frame, read by its grey card; then the dial turned once by just what the card is off."
