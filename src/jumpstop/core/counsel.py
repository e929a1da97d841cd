"""Counsel: which way to take, what to think of each, and the traps that wait."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from . import shutter
from .light import CONDITIONS
from .modifiers import mired_shift
from .motion import GHOST_STOPS
from .optics import BlurVerdict, blur_verdict
from .reach import Reach, Solved, needed_s
from .setup import Setup, WayKind
from .ways import NEAR, Way
from .wording import amount, stops
from .wording import shutter as say_time

USUAL_T01_S = 1 / 2000  # a flash turned down a few stops, from memory
FLASH_K = 5500.0  # colour of flash light [K], common practice
PREFERRED: tuple[WayKind, ...] = ("sync", "leaf", "nd", "hss", "stop_down", "past_sync", "slow", "freeze")


def blur_of(setup: Setup, f_number: float) -> BlurVerdict | None:
    """What an aperture does to the background, where lens and distances are said."""
    if setup.look.blur is None:
        return None
    return blur_verdict(setup.look.blur, f_number, setup.body.frame_width_mm, setup.body.diagonal_mm)


def preferred(setup: Setup) -> tuple[WayKind, ...]:
    """The ways in the order in which they give up least for this picture."""
    order = list(PREFERRED)
    first: list[WayKind] = []
    if setup.motion.kind == "freeze":
        first = ["freeze"]
    elif setup.motion.kind == "trails":
        first = ["slow"]
    blur = blur_of(setup, setup.f_number)
    if blur is not None and not blur.worth:
        first = [*first, "sync", "stop_down"]
    return tuple(dict.fromkeys([*first, *order]))


def advised_way(setup: Setup, solved: Solved, avoid: Sequence[WayKind] = ()) -> WayKind:
    """The way that gives up least among those with which some unit reaches; else the one that comes nearest.

    Ways to avoid are only taken where nothing else can be, and where motion is to be frozen only ways that do so.
    """
    kept = {kind: found for kind, found in solved.reaches.items() if kind not in avoid} or solved.reaches
    kept = {kind: found for kind, found in kept.items() if holds_still(setup, found)} or kept
    for kind in preferred(setup):
        if kind in kept and np.any((kept[kind].verdict > 0) & (kept[kind].cannot == 0)):
            return kind
    able = {kind: found.spare[found.cannot == 0] for kind, found in kept.items()}
    return max(able, key=lambda kind: float(np.max(able[kind], initial=-99)), default="sync")


@dataclass(frozen=True)
class Costs:
    """What a way costs beside plain sync, for its best unit: light across the frame, meter, charge, room."""

    evenness_stops: float  # brightest row against the darkest that is lit
    metered: str
    charge_times: float  # of the charge (and the wait) that plain sync would take for the same picture
    room_stops: float


def costs_of(setup: Setup, found: Reach, t01_s: float, best: int) -> Costs:
    """Costs of a way with its best unit; t01_s is that unit's flash at the dial, NaN where it is not known."""
    way = found.way
    metered = {
        "hss": "no flash meter reads it: a test frame, or the unit's own automatic",
        "past_sync": "read at the lit side",
    }.get(way.kind, "any flash meter reads it")
    return Costs(
        evenness_stops=meeting(setup, way, t01_s).evenness_stops(),
        metered=metered,
        charge_times=float(2 ** found.cost[best]),
        room_stops=float(found.room[best]),
    )


def meeting(setup: Setup, way: Way, t01_s: float) -> shutter.Meeting:
    """How the shutter and the flash meet in a way; a unit whose duration is not known is taken as 1/2000 s (t.1)."""
    time, body = way.camera.shutter_s, setup.body
    travel = body.curtain_s if body.shutter == "focal_plane" else 0.0
    if way.kind == "hss":
        return shutter.Meeting(shutter.Train(travel + time), time, travel, 0.0)
    travel = travel if way.kind == "past_sync" else body.open_travel_s
    return shutter.Meeting(shutter.tail_pop(USUAL_T01_S if math.isnan(t01_s) else t01_s), time, travel, travel)


def judgement(setup: Setup, found: Reach, best: int) -> str:
    """What to think of a way, in a sentence."""
    kind, spare, sd = found.way.kind, float(found.spare[best]), float(found.sd[best])
    blur = blur_of(setup, setup.f_number)
    nothing = "the wide aperture buys no blur here" if blur is not None and not blur.worth else ""
    if found.cannot[best]:
        return "No unit on the shelf can do this."
    if spare < -sd:
        return f"Not with these units: the best is {amount(spare)} short."
    reaches = "just reaches" if spare < 1 else "easily reaches" if spare > 3 else "reaches"
    still = _stillness(setup, found)
    if kind in ("sync", "leaf") and found.way.off_stops < -NEAR:
        return f"The flash {reaches}, but the place behind falls dark.{still}"
    words: dict[WayKind, str] = {
        "sync": f"Take it: the flash {reaches} and nothing is thrown away.",
        "leaf": f"Take it: the aperture you want, and the flash {reaches}.",
        "nd": f"Keeps flash against ambient as at sync, at your aperture; it {reaches}."
        + (f" But {nothing}." if nothing else ""),
        "hss": f"Simple and quick; it {reaches}, at {2 ** float(found.cost[best]):.0f} times the charge."
        + (f" But {nothing}: stop down." if nothing and not still else ""),
        "stop_down": f"Right: {nothing}."
        if nothing
        else f"The most power, if you can live without the blur; it {reaches}.",
        "past_sync": f"For those who know the dark part falls on sky; it {reaches}.",
        "slow": f"Holds the place in the picture; the flash {reaches}.",
        "freeze": f"The short pop does the freezing; it {reaches}."
        if found.level <= GHOST_STOPS
        else "Only once the ambient is down: lamps off, lower ISO, or stop down.",
    }
    return f"{words[kind]}{still}"


def holds_still(setup: Setup, found: Reach) -> bool:
    """Whether a way freezes what moves, where that is asked: by a short pop in the dark, or in HSS by the shutter."""
    if setup.motion.kind != "freeze":
        return True
    if found.way.kind == "freeze":
        return found.level <= GHOST_STOPS
    return found.way.kind == "hss" and found.way.camera.shutter_s <= needed_s(setup) * 1.1


def _stillness(setup: Setup, found: Reach) -> str:
    if setup.motion.kind != "freeze" or found.way.kind == "freeze":
        return ""
    if found.way.kind != "hss":
        return " Does not freeze by itself."
    return " Freezes too." if holds_still(setup, found) else f" Does not freeze: {say_time(needed_s(setup))} is wanted."


@dataclass(frozen=True)
class Trap:
    """Something that goes wrong on the day, named before it does."""

    key: str
    title: str
    says: str


def traps(setup: Setup, solved: Solved, chosen: WayKind) -> list[Trap]:
    """The traps of this setup in the way chosen, the gravest first."""
    body, way = setup.body, solved.way(chosen)
    blur = blur_of(setup, way.camera.f_number)
    found = [_ghost(setup, solved.reaches.get(chosen)), *_colour(setup, chosen)]
    if chosen == "hss" and blur is not None and not blur.worth and setup.motion.kind != "freeze":
        found.append(Trap("no_blur", "A wide aperture for nothing", f"It blurs {blur.share:.1%} of the frame."))
    if chosen == "hss":
        found.append(Trap("hss_off", "HSS not armed", "Past sync without it, part of the frame goes black unsaid."))
    elif body.hss:
        found.append(Trap("hss_left_on", "HSS left on", "Switch it off: here it only costs power, charge and recycle."))
    if setup.look.background_stops < 0:
        found.append(Trap("auto_iso", "Auto ISO left on", "It would lift the background that you have set dark."))
    if setup.trigger == "radio" and body.radio_sync_s and body.radio_sync_s > body.sync_s:
        slower = f"With it this body syncs at {say_time(body.radio_sync_s)}, not {say_time(body.sync_s)}."
        found.append(Trap("radio", "The radio trigger is slower", slower))
    if setup.silent and body.silent_sync_s:
        found.append(
            Trap("silent", "Silent shutter", f"With it this body syncs at {say_time(body.silent_sync_s)} only.")
        )
    if not body.iso_min <= setup.look.iso <= body.iso_max:
        given = f"ISO {setup.look.iso:g} is not on this body; ISO {way.camera.iso:g} is reckoned with."
        found.append(Trap("iso_range", "Out of the body's range", given))
    if way.camera.nd_stops >= 5:
        found.append(Trap("focus", "A dark finder", "Focus and frame before the filter goes on."))
    return [trap for trap in found if trap is not None]


def _ghost(setup: Setup, found: Reach | None) -> Trap | None:
    if found is None or setup.motion.kind != "freeze" or found.level <= GHOST_STOPS or holds_still(setup, found):
        return None
    level = stops(found.level)
    return Trap("ghost", "The ambient ghosts", f"It lies at {level} on the subject; −5 or darker is wanted.")


def _colour(setup: Setup, chosen: WayKind) -> list[Trap]:
    there, gelled = setup.there, setup.lights[0].gel != "none"
    lamp_lit = there.by == "condition" and CONDITIONS[there.condition].lamps
    if gelled or not there.lamps_on or chosen == "freeze" or not (there.lamps_lux or lamp_lit):
        return []
    shift = float(mired_shift(FLASH_K, there.lamps_k))
    says = f"Lamps at {there.lamps_k:.0f} K lie {shift:+.0f} mired from the flash: gel it, or switch them off."
    return [Trap("colour", "Two colours of light", says)]
