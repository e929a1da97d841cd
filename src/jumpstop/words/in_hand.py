"""What there is to say of the unit in hand beside the verdict: what cures it, what the meter must show, what was
seen, and its flash durations."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..core.kit.modifier import layers_on
from ..core.kit.table import POWER_STOPS, UnitTable
from ..core.physics.falloff import distance_where
from ..core.physics.scales import APERTURES
from ..core.plan.camera import automatics, colour, look
from ..core.plan.camera.targets import start_compensation
from ..core.plan.change.findings import Finding
from ..core.plan.change.followed import followed, moved_on
from ..core.plan.learn.to_read import blank_seen
from ..core.plan.light import advice
from ..core.plan.light import seen as seen_plan
from ..core.plan.light.levels import levels
from ..core.plan.light.reach import Reach, Solved
from ..core.plan.light.scene import standing
from ..core.scene.ambient import Reading
from ..core.scene.camera import CameraSettings
from ..core.scene.seen import Seen
from ..core.scene.setup import Setup
from ..core.scene.stage import SubjectKind
from .colour import balance_words
from .figures import DisplayUnits, amount, dial, f_number, iso, length, listed, marked, power, shutter, stops
from .kit import FACES, RECEIVER_NAMES, ROLES
from .levers import changes, said, then_words


@dataclass(slots=True)
class ChangeText:
    """One change: what to do, what it brings [stops] and comes to, what else moves; the setup with it done."""

    says: str
    gain: float
    then: str
    costs: list[str]
    setup: Setup


@dataclass(slots=True)
class SeenText:
    """One reading kept with the setup, and whether the setup counts from it."""

    id: str
    says: str
    stands: bool


@dataclass(slots=True)
class NextText:
    """What to dial next after the newest reading [stops below full]; None where it shows no flash."""

    says: str
    dial_stops: float | None


@dataclass(slots=True)
class DurationPoint:
    """Flash duration t.1 at one setting."""

    dial: str
    below_full: float
    t01_s: float


@dataclass(slots=True)
class InHand:
    """All of it, for one light."""

    name: str
    taken: bool
    cures: list[ChangeText]
    meter: list[str]
    balance: str
    automatics: list[str]
    compensation: str
    seen: list[SeenText]
    next: NextText | None
    aperture: str
    blank: Seen | None
    background: Reading
    durations: list[DurationPoint]
    wanted_t01_s: float | None


def in_hand_of(solved: Solved, reach: Reach, units: DisplayUnits, cures: Sequence[Finding] = ()) -> InHand:
    """The document, for the light and method of a reach. cures: what would make its unit land right."""
    setup, unit, light = solved.setup, advice.unit_for(reach), reach.at[1]
    camera = reach.method.camera
    own = [one for one in setup.seen if one.light == light]
    lens = setup.aim.lens
    return InHand(
        name="" if unit is None else solved.table.units[unit].name,
        taken=reach.taken is not None,
        cures=[_cure(one, units) for one in cures],
        meter=_meter(solved, reach),
        balance=balance_words(colour.balance(setup.ambient, solved.ambient, setup.lights), setup),
        automatics=[_automatic(one) for one in automatics.automatics(setup, solved.ambient)],
        compensation=_compensation(
            start_compensation(reach.light, setup.ambient, lens.focal_mm if lens else None), reach, unit
        ),
        seen=[SeenText(one.id, seen_words(one, units, setup.stage.kind), one is standing(setup, light)) for one in own],
        next=None if not own or unit is None else _next(reach, own[-1], unit, units),
        aperture=_aperture(own[-1])
        if own and not moved_on(reach, own[-1]) and not math.isinf(seen_plan.flash_seen(own[-1]))
        else "",
        blank=_blank(solved, reach, unit),
        background=background_reading(setup, camera),
        durations=[] if unit is None else _durations(solved, unit, units),
        wanted_t01_s=look.needed_s(setup) if setup.motion.kind == "freeze" else None,
    )


def _cure(one: Finding, units: DisplayUnits) -> ChangeText:
    return ChangeText(
        said(one.moves, units), round(one.lever.gain, 3), then_words(one.lever), changes(one, units), one.setup
    )


def _meter(solved: Solved, reach: Reach) -> list[str]:
    """What a hand meter at the subject must show, set to the camera's ISO, filters on the lens counted."""
    camera = reach.method.camera
    if reach.method.kind == "hss":
        return ["No flash meter reads high-speed sync: start at 1/8 or 1/16, take a test frame, halve or double."]
    found = levels(solved, reach.method.kind, advice.units_for(solved, reach.method.kind))
    said = []
    for at, light in enumerate(solved.setup.lights):
        level = found[solved.placing.own[at]]
        wanted = solved.reach(reach.method.kind, at).wanted_stops
        shown = seen_plan.meter_wants(camera.f_number, camera.nd_stops, wanted)
        with_ambient = "with the ambient" if light.role == "key" else "this light alone"
        where = RECEIVER_NAMES[level.receiver]
        said.append(f"{ROLES[light.role]}, {where}, {with_ambient}: f/{marked(shown)} at {iso(camera.iso)}")
    return said


MODES = {
    "aperture_priority": "Aperture priority",
    "shutter_priority": "Shutter priority at sync",
    "programme": "Programme",
    "auto_iso": "Auto ISO at sync",
}


def _automatic(found: automatics.Automatic) -> str:
    camera = found.camera
    wrong = []
    if found.past_sync:
        wrong.append("too fast for the flash without high-speed sync")
    if abs(found.off_stops) >= 0.25:
        how = "brighter" if found.off_stops > 0 else "darker"
        wrong.append(f"the background {amount(found.off_stops)} {how} than wanted")
    said = "; ".join(wrong) or "which happens to be right here, and moves with the next frame"
    return f"{MODES[found.mode]}: {f_number(camera.f_number)}, {shutter(camera.shutter_s)}, {iso(camera.iso)}: {said}."


def _compensation(start: float, reach: Reach, unit: int | None) -> str:
    """Automatic flash: what compensation to start from, and whether full power suffices for it."""
    lead = f"Start at a compensation of {stops(start)}"
    if unit is None or not reach.able[unit]:
        return f"{lead}."
    spare = (
        float(reach.spare[unit]) + reach.wanted_stops - start if reach.light.role != "key" else float(reach.spare[unit])
    )
    enough = (
        f"full power suffices, {amount(spare)} over" if spare >= 0 else f"full power is short of it by {amount(spare)}"
    )
    return f"{lead}; {enough}. It sets the power itself, frame by frame."


def seen_words(seen: Seen, units: DisplayUnits, kind: SubjectKind = "person") -> str:
    """A reading in a line: what was read, at which dial, from where."""
    unit = seen.was.unit
    at = power(seen.dial_stops) if unit is None else dial(unit.scale, seen.dial_stops, units, unit.watt_seconds)
    where = f"at {at}, {length(seen.was.distance_m, units)}"
    if seen.kind == "meter":
        what = f"meter read {f_number(seen.f_number)} at {iso(seen.iso)}"
    else:
        how = (
            "as wanted"
            if abs(seen.stops) < 0.05
            else f"{amount(seen.stops)} too {'bright' if seen.stops > 0 else 'dark'}"
        )
        what = f"{SEEN.get(seen.was.role, FACES[kind].removeprefix('the '))} {how}"
    return f"{what}, {where}{', ambient included' if seen.holds_ambient else ', flash alone'}"


SEEN = {"fill": "fill", "rim": "edge", "background": "background"}


def next_words(seen: Seen, table: UnitTable, unit: int, units: DisplayUnits) -> NextText:
    """What to dial next after a reading, and where the dial does not go so far, what to do instead."""
    found = seen_plan.next_dial(seen, seen.was.role == "key", float(table.step[unit]), float(table.dial_range[unit]))
    if found is None:
        return NextText("This reading is no brighter than the ambient alone: it shows no flash. Did it fire?", None)
    one = table.units[unit]
    set_to = dial(one.scale, found.dial_stops, units, one.watt_seconds)
    if math.isinf(found.change):
        return NextText("The ambient alone is enough: no flash is needed for this light.", None)
    how = f"{amount(found.change, 2)} {'more' if found.change > 0 else 'less'} flash"
    if found.end == "lowest":
        cure = f"step back to {length(float(distance_where(-found.missing, seen.was.distance_m)), units)}"
        exact = APERTURES.moved(seen.camera.f_number, found.missing)
        closed = f_number(APERTURES.marked(exact, "third", "up"))
        layer = ", add a layer" if seen.was.modifier else ", put a layer in front"
        return NextText(
            f"{how} is wanted, {amount(found.missing)} below the lowest setting, {set_to}: "
            f"{cure}, stop down to {closed}{layer} or lower the ISO.",
            found.dial_stops,
        )
    if found.end == "full":
        nearer = length(float(distance_where(found.missing, seen.was.distance_m)), units)
        layered = seen.was.modifier is not None and layers_on(seen.was.modifier, seen.was.layers)
        ways = [f"come closer, to {nearer}", *(["take a layer off"] if layered else []), "raise the ISO"]
        return NextText(
            f"{how} is wanted, {amount(found.missing)} above full power: {', '.join(ways[:-1])}, or {ways[-1]}.", 0.0
        )
    if abs(found.change) < 0.05:
        return NextText(f"Right as it is: leave it at {set_to}.", found.dial_stops)
    return NextText(f"Next: {set_to} ({how}).", found.dial_stops)


def _next(reach: Reach, seen: Seen, unit: int, units: DisplayUnits) -> NextText | None:
    """What follows from the newest reading for the settings as they are now."""
    table = reach.solved.table
    if seen.was.unit is None or seen.was.unit.name != table.units[unit].name:
        return None  # it was taken of another unit
    if not moved_on(reach, seen) or math.isinf(seen_plan.flash_seen(seen)):
        return next_words(seen, table, unit, units)
    found = followed(reach, unit, seen, units.step)
    one = table.units[unit]
    read = f"Read at {f_number(seen.camera.f_number)} and {dial(one.scale, seen.dial_stops, units, one.watt_seconds)}"
    if found is None:
        return NextText(f"{read}; the settings are others now, and it says nothing of them.", None)
    now = listed(_changed(reach, seen, units), "and")
    off = "right" if abs(found.off) < 0.05 else f"{amount(found.off)} {'over' if found.off > 0 else 'under'}"
    set_to = dial(one.scale, found.dial_stops, units, one.watt_seconds)
    what = f"set {set_to}" if abs(found.dial_stops - seen.dial_stops) > 0.01 else f"leave it at {set_to}"
    if found.spare < 0:
        what = f"full power is short by {amount(found.spare)}"
    elif found.too_bright > 0:
        what = f"even {set_to} is {amount(found.too_bright)} too bright"
    return NextText(f"{read}; {now} that is {off}: {what}.", found.dial_stops)


def _changed(reach: Reach, seen: Seen, units: DisplayUnits) -> list[str]:
    """What is set otherwise than when a reading was taken, as it is now."""
    camera, then, light, was = reach.method.camera, seen.camera, reach.light, seen.was
    out = []
    if camera.f_number != then.f_number:
        out.append(f"at {f_number(camera.f_number)}")
    if camera.iso != then.iso:
        out.append(f"at {iso(camera.iso)}")
    if abs(camera.nd_stops - then.nd_stops) > 0.01:
        out.append(f"with {amount(camera.nd_stops)} of ND" if camera.nd_stops else "without ND")
    if "hss" in (reach.method.kind, seen.method) and camera.shutter_s != then.shutter_s:
        out.append(f"at {shutter(camera.shutter_s)}")
    if light.distance_m != was.distance_m:
        out.append(f"from {length(light.distance_m, units, fine=True)}")
    return out or ["as it is set now"]


def _aperture(seen: Seen) -> str:
    """What the newest reading would have the aperture be, the dial left alone, and what the background then does."""
    level = seen_plan.level_seen(seen) - seen.wanted_stops
    if abs(level) < 0.05:
        return ""
    exact = APERTURES.moved(seen.camera.f_number, level)
    how = "darker" if level > 0 else "brighter"
    return f"Or leave the dial and set f/{marked(exact)}: the background comes out {amount(level)} {how}."


def _blank(solved: Solved, reach: Reach, unit: int | None) -> Seen | None:
    """A reading of the unit in hand to be filled in; None where there is none."""
    if unit is None or reach.taken is None or not reach.able[unit]:
        return None
    return blank_seen(solved, reach, unit, reach.light)


def background_reading(setup: Setup, camera: CameraSettings) -> Reading:
    """What the camera's meter would read off the background if it came out as wanted: the needle is moved by what is
    seen instead."""
    needle = camera.nd_stops + setup.aim.background_stops
    return Reading(f_number=camera.f_number, shutter_s=camera.shutter_s, iso=camera.iso, needle_stops=needle)


def _durations(solved: Solved, unit: int, units: DisplayUnits) -> list[DurationPoint]:
    one, table = solved.table.units[unit], solved.table
    if math.isnan(table.t01_s[unit, 0]):
        return []
    whole: Sequence[int] = [
        at for at, below in enumerate(POWER_STOPS) if at % 3 == 0 and below <= table.dial_range[unit] + 0.01
    ]
    return [
        DurationPoint(
            dial(one.scale, float(POWER_STOPS[at]), units, one.watt_seconds),
            float(POWER_STOPS[at]),
            float(table.t01_s[unit, at]),
        )
        for at in whole
    ]
