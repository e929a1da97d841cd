"""What a setup comes to, as a document: the ambient, the methods with what each costs, and the chosen one's lanes."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..core.kit.power import PowerScale
from ..core.kit.unit import Unit
from ..core.physics.exposure import stops_between
from ..core.physics.scales import ISOS
from ..core.plan.camera import colour, look
from ..core.plan.camera.ambient import Ambient, placements
from ..core.plan.camera.methods import Method
from ..core.plan.camera.remark import Remark
from ..core.plan.job.changeover import Standing
from ..core.plan.light import advice
from ..core.plan.light.levels import Level, levels
from ..core.plan.light.reach import BLOCKERS, ON_THE_LINE, REACHES, SHORT, TOO_BRIGHT, Reach, Solved
from ..core.plan.stage.comes_out import fails
from ..core.plan.stage.set_warnings import stage_warnings
from ..core.plan.stage.warnings import warnings_of
from ..core.scene.ambient import AmbientSpec, Placement
from ..core.scene.receivers import RECEIVERS
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup
from . import ambient as ambient_words
from . import methods as method_words
from . import verdict
from . import warnings as warning_words
from .camera import CameraText, camera_text
from .colour import balance_short
from .comes_out import camera_fails, sentences
from .figures import (
    DisplayUnits,
    amount,
    count,
    decimal,
    dial,
    f_number,
    iso,
    length,
    plain,
    share,
    shutter,
    speed,
    stops,
)
from .from_kit import FromKit, from_kit
from .kit import PLACEMENTS, RECEIVER_NAMES
from .lanes import ALL, Arc, Lanes, Places, arcs_of, lanes_of, verdict_words
from .stage import StageText, stage_text
from .stage_warnings import say_stage

BLUR = {
    "worth": "the background is strongly blurred",
    "faint": "the background is a little soft",
    "none": "no blur to speak of. Stop down and stay at sync",
}


@dataclass(slots=True)
class DialMark:
    """One setting of a dial: stops below full, and how the dial shows it."""

    stops: float
    says: str


@dataclass(slots=True)
class DialScale:
    """A unit's dial and its energy at full power [Ws], if known."""

    scale: PowerScale
    watt_seconds: float | None


@dataclass(slots=True)
class Settings:
    """The chosen method's settings, and what is worked out for the light, as figures that can be fixed.

    dial_stops and dial: of the unit in hand; None and empty where there is none. dials: all that the dial of a unit
    taken has; scale: the dial itself, by which what is typed is read. distance_m: as worked out, where the
    distance is free.
    """

    f_number: float
    shutter_s: float
    iso: float
    nd_stops: float
    nd_names: list[str]
    dial_stops: float | None
    dial: str
    dials: list[DialMark]
    scale: DialScale | None
    distance_m: float


@dataclass(slots=True)
class MethodCard:
    """One method: settings, how many units reach, and what it comes to for the unit that all are compared by."""

    kind: MethodKind
    title: str
    possible: bool
    reason: str
    camera: CameraText
    background: str
    costs: str
    reach_count: int
    spare: float | None
    verdict: str
    difference: float | None
    against: str
    judgement: str
    metered: str
    evenness: str
    charge: str
    over_ambient: str
    lit: float
    dark_edge: str
    avoided: bool


@dataclass(slots=True)
class AmbientText:
    """The ambient, as EV at ISO 100."""

    background_ev: float
    subject_ev: float
    shade_ev: float
    subject: str
    how: str


@dataclass(slots=True)
class PlacementText:
    """One place for the subject, and what it does to the rest."""

    subject: Placement
    title: str
    subject_ev: float
    says: str


@dataclass(slots=True)
class WarningText:
    """Something that goes wrong on the day. reminder: a switch to look at, which is no finding of this picture."""

    code: str
    title: str
    says: str
    reminder: bool


@dataclass(slots=True)
class LevelText:
    """What one receiver gets [stops from correct]: ambient, each light (null: none), and all together."""

    receiver: str
    name: str
    ambient: float
    lights: list[float | None]
    total: float
    says: str


@dataclass(slots=True)
class Answer:
    """The answer to one setup."""

    ambient: AmbientText
    placements: list[PlacementText]
    f_number: float
    widest: float | None
    blur: str
    motion: str
    tolerable_mm: float
    field_m: float
    units: int
    compared: str
    unit: str
    taken: bool
    typical: bool
    verdict: str
    right: bool
    fails: list[str]
    also: list[str]
    picture: str
    balance: str
    cures: bool
    note: str
    from_kit: FromKit | None
    settings: Settings
    ratio: str
    methods: list[MethodCard]
    chosen: MethodKind
    advised: MethodKind
    headline: str
    warnings: list[WarningText]
    levels: list[LevelText]
    stage: StageText | None
    arcs: list[Arc]
    lanes: Lanes | None


def answer_of(
    solved: Solved,
    units: DisplayUnits,
    light: int = 0,
    avoid: Sequence[MethodKind] = (),
    sight: Sequence[str] = (),
    written: Setup | None = None,
    needs: str = "",
    shot: Standing | None = None,
) -> Answer:
    """The document of a solved setup for one of its lights.

    avoid: the methods a person would rather not use. sight: ids of the units whose lanes are told,
    beside the one in hand; none given: all. written: the setup as it was, before its job's day and wind were put in.
    needs: what the light asks, where the units are typical classes alone: that is then the verdict. shot: the setup as
    its job shoots it, where that has picked a kit.
    """
    setup = solved.setup
    advised = advice.advised_method(solved, avoid, light)
    wanted = setup.method is not None and solved.method(setup.method).possible
    chosen = setup.method if setup.method is not None and wanted else advised
    method = solved.method(chosen)
    reach = solved.reach(chosen, light) if method.possible else None
    unit = advice.unit_for(reach) if reach is not None else None
    lanes: Places = [at for at, one in enumerate(solved.table.ids) if one in sight or at == unit] if sight else ALL
    each: tuple[int | None, ...] = ()
    found: tuple[Level, ...] = ()
    if reach is not None:
        each = advice.units_for(solved, chosen)
        found = levels(solved, chosen, each)
    failing = list(fails(solved, chosen, each, found)) if found else []
    costs = advice.costs_for(solved, unit, light) if unit is not None else {}
    over_the_shelf = _blocked(solved, method) if reach is None else headline(reach, units)
    return Answer(
        ambient=_ambient(setup, written or setup, solved.ambient, method.camera.ev, units),
        placements=_placements(setup.ambient, setup.meter_c, units),
        f_number=setup.f_number,
        widest=None if setup.lens is None else setup.apertures[0],
        blur=_blur(setup, units),
        motion=_motion(setup, units) + _as_it_lasts(solved, reach, unit),
        tolerable_mm=round(look.tolerable_mm(setup), 4),
        field_m=round(look.field_m(setup), 3),
        units=len(solved.table),
        compared="" if unit is None else solved.table.units[unit].name,
        unit="" if unit is None else solved.table.ids[unit],
        taken=reach is not None and reach.taken is not None,
        typical=bool(needs),
        verdict=needs
        if needs
        else f"{over_the_shelf}{camera_fails(failing, units)}"
        if reach is None or reach.taken is None
        else verdict.of_unit(reach, reach.taken, units, failing),
        right=_right(reach, failing),
        fails=sentences(failing, units),
        also=[]
        if reach is None or reach.taken is None
        else sentences(verdict.others_of(failing, reach, reach.taken)[1:], units),
        picture="" if reach is None else verdict.picture(method, found, setup.aim.background_stops, reach, unit),
        balance=balance_short(colour.balance(setup.ambient, solved.ambient, setup.lights), setup),
        cures=reach is not None and unit is not None and str(reach.verdict[unit]) in (SHORT, TOO_BRIGHT),
        note=_note(solved, None if wanted else setup.method, chosen, light),
        from_kit=None if shot is None else from_kit(shot, light, chosen, units),
        settings=_settings(solved, method, reach, unit, light, units),
        ratio="" if reach is None else verdict.ratio(found),
        methods=[_card(solved, one, light, unit, costs.get(one.kind), avoid) for one in solved.methods],
        chosen=chosen,
        advised=advised,
        headline=over_the_shelf,
        warnings=_warnings(solved, chosen, unit, light, each, found, units),
        levels=_levels(found),
        stage=None if reach is None else stage_text(solved, method, each, found, units),
        arcs=[] if reach is None else arcs_of(reach, units, lanes),
        lanes=None if reach is None else lanes_of(reach, units, lanes),
    )


def _right(reach: Reach | None, failing: Sequence[Remark]) -> bool:
    """Whether the picture comes out with the unit taken for this light: all that it asks, with no light in doubt."""
    if reach is None or reach.taken is None or failing:
        return False
    return str(reach.verdict[reach.taken]) == REACHES or reach.light.dial_stops is not None


def _note(solved: Solved, missed: MethodKind | None, chosen: MethodKind, light: int) -> str:
    """What has to be said under the verdict: a light that is off, a method fixed that cannot be had."""
    said = ["" if solved.setup.lights[light].on else f"Light {light + 1} is off: the picture is without it."]
    if missed is not None:
        said.append(_not_that(solved, missed, chosen))
    said += [_other_iso(solved, chosen), _other_aperture(solved.setup)]
    return " ".join(one for one in said if one)


def _other_iso(solved: Solved, chosen: MethodKind) -> str:
    """That the ISO is not the one that was set, by how much, and why; empty where it is."""
    asked, now = solved.setup.aim.iso, solved.method(chosen).camera.iso
    off = float(stops_between(ISOS.exact(asked), ISOS.exact(now)))
    if abs(off) < 0.05:
        return ""
    low, high = solved.setup.body.iso_min, solved.setup.body.iso_max
    why = "which this body has" if not low <= asked <= high else "so that the background comes out"
    return f"{iso(now)} instead of the {asked:.0f} set, {amount(off)} {'higher' if off > 0 else 'lower'}, {why}."


def _other_aperture(setup: Setup) -> str:
    """That the lens has not the aperture that was set, or the focal length; empty where it has."""
    if setup.lens is None:
        return ""
    asked, now, lens = setup.aim.f_number, setup.f_number, setup.aim.lens
    said = ""
    if setup.aim.by == "aperture" and asked != now:
        how = "opens no wider" if asked < now else "closes no further"
        said = f"{f_number(now)} instead of the {f_number(asked)} set: {setup.lens.name} {how}."
    if lens is not None and not setup.lens.holds(lens.focal_mm):
        said = f"{said} {setup.lens.name} has no {plain(lens.focal_mm)} mm.".strip()
    return said


def _not_that(solved: Solved, wanted: MethodKind, chosen: MethodKind) -> str:
    """Why another method is shown than the one fixed."""
    method, kind = solved.method(wanted), solved.setup.body.shutter
    shown = method_words.title(solved.method(chosen), kind)
    return (
        f"{method_words.title(method, kind)} is fixed, but not possible: {method_words.blocker(method)} Shown: {shown}."
    )


def _settings(
    solved: Solved, method: Method, reach: Reach | None, unit: int | None, light: int, units: DisplayUnits
) -> Settings:
    camera, dial_stops, said = method.camera, None, ""
    marks: list[DialMark] = []
    scale = None
    if reach is not None and unit is not None and reach.able[unit]:
        one = solved.table.units[unit]
        dial_stops = round(float(reach.below_full[unit]), 4)
        said = dial(one.scale, dial_stops, units, one.watt_seconds)
        if reach.taken is not None:
            scale = DialScale(one.scale, one.watt_seconds)
            marks = _dials(one, float(solved.table.step[unit]), float(solved.table.dial_range[unit]), units)
    return Settings(
        f_number=camera.f_number,
        shutter_s=camera.shutter_s,
        iso=camera.iso,
        nd_stops=round(camera.nd_stops, 4),
        nd_names=list(camera.nd_names),
        dial_stops=dial_stops,
        dial=said,
        dials=marks,
        scale=scale,
        distance_m=solved.setup.lights[light].distance_m,
    )


@lru_cache(maxsize=16)
def _dials(unit: Unit, step: float, most: float, units: DisplayUnits) -> list[DialMark]:
    settings = [round(step * at, 4) for at in range(int(most / step + 0.01) + 1)]
    return [DialMark(below, dial(unit.scale, below, units, unit.watt_seconds)) for below in settings]


def _blocked(solved: Solved, method: Method) -> str:
    reasons = {method_words.blocker(one) for one in solved.methods}
    if len(reasons) == 1:
        return reasons.pop()
    name = method_words.title(method, solved.setup.body.shutter)
    return f"{name} is not possible: {method_words.blocker(method)}"


def _ambient(setup: Setup, written: Setup, ambient: Ambient, camera_ev: float, units: DisplayUnits) -> AmbientText:
    of_job = ambient_words.of_job(setup, written, units)
    return AmbientText(
        background_ev=round(ambient.background_ev, 2),
        subject_ev=round(ambient.lit_ev, 2),
        shade_ev=round(ambient.shade_ev, 2),
        subject=ambient_words.subject(ambient, camera_ev),
        how=f"{of_job} {ambient_words.how(setup.ambient, ambient)}".strip(),
    )


@lru_cache(maxsize=32)
def _placements(spec: AmbientSpec, meter_c: float, units: DisplayUnits) -> list[PlacementText]:
    return [
        PlacementText(
            subject=choice.subject,
            title=PLACEMENTS[choice.subject],
            subject_ev=round(choice.ambient.lit_ev, 1),
            says=ambient_words.placement(choice, spec, units),
        )
        for choice in placements(spec, meter_c)
    ]


def _blur(setup: Setup, units: DisplayUnits) -> str:
    found = look.blur_of(setup, setup.f_number)
    if found is None:
        return ""
    near, far = (length(metres, units, fine=True) for metres in (found.near_m, found.far_m))
    return (
        f"{f_number(setup.f_number)} is sharp from {near} to {far}; a point behind becomes {share(found.share, 1)} of "
        f"the frame: {BLUR[found.verdict]}."
    )


def _motion(setup: Setup, units: DisplayUnits) -> str:
    motion = setup.motion
    if motion.kind == "freeze":
        goes = f"At {speed(motion.speed, units)} in a field {length(look.field_m(setup), units)} wide"
        most = f"no more than {decimal(look.tolerable_mm(setup), '.3f')} mm"
        if motion.wanted_t01_s is None:
            return f"{goes}, to blur {most} the flash must last no longer than {shutter(look.needed_s(setup))} (t.1)."
        asked, blur = shutter(motion.wanted_t01_s), look.blur_mm(setup, motion.wanted_t01_s)
        said = f"{goes}, the {asked} (t.1) that is asked for blurs {decimal(blur, '.3f')} mm"
        if blur <= look.tolerable_mm(setup):
            return f"{said}, and {most} may be."
        return f"{said}; {most} takes {shutter(look.longest_s(setup))}."
    if motion.kind == "trails":
        return f"In {shutter(motion.trail_s)} it draws over {share(look.trail_share(setup))} of the frame's width."
    return ""


def _as_it_lasts(solved: Solved, reach: Reach | None, unit: int | None) -> str:
    """How long the flash of the unit in hand lasts at its dial, and what that leaves of the motion."""
    if reach is None or unit is None or solved.setup.motion.kind != "freeze" or reach.method.kind == "hss":
        return ""
    lasts = float(reach.t01_s[unit])
    if math.isnan(lasts):
        return ""
    blur = decimal(look.blur_mm(solved.setup, lasts), ".3f")
    return f" {solved.table.units[unit].name} at its dial lasts {shutter(lasts)}: {blur} mm."


def _card(
    solved: Solved,
    method: Method,
    light: int,
    unit: int | None,
    costs: advice.MethodCosts | None,
    avoid: Sequence[MethodKind],
) -> MethodCard:
    reach = solved.reach(method.kind, light) if method.possible else None
    usable = reach is not None and unit is not None and bool(reach.able[unit])
    spare = float(reach.spare[unit]) if reach is not None and usable and unit is not None else None
    said = ""
    if reach is not None and unit is not None:
        said = verdict_words(str(reach.verdict[unit]), float(reach.spare[unit]), int(reach.blocker[unit]))
    over = ""
    if usable and reach is not None and unit is not None:
        over = method_words.over_ambient(float(reach.flash_over_ambient_stops[unit]))
    return MethodCard(
        kind=method.kind,
        title=method_words.title(method, solved.setup.body.shutter),
        possible=method.possible,
        reason=method_words.blocker(method),
        camera=camera_text(method.camera),
        background=method_words.background(method.off_stops) if method.possible else "",
        costs=method_words.costs(method),
        reach_count=0 if reach is None else int(np.count_nonzero(reach.reaches)),
        spare=None if spare is None else round(spare, 3),
        verdict=said,
        difference=None if costs is None or costs.difference is None else round(costs.difference, 3),
        against=method_words.against(costs),
        judgement="" if reach is None else method_words.judgement(solved, reach, unit),
        metered="" if costs is None else method_words.METERED[costs.metered],
        evenness=method_words.evenness(costs),
        charge=method_words.charge(costs),
        over_ambient=over,
        lit=round(method.lit, 3),
        dark_edge=method.dark_edge,
        avoided=method.kind in avoid,
    )


def _warnings(
    solved: Solved,
    chosen: MethodKind,
    unit: int | None,
    light: int,
    each: tuple[int | None, ...],
    levels_found: tuple[Level, ...],
    units: DisplayUnits,
) -> list[WarningText]:
    """Of the method and the light looked at, and of where all lights stand."""
    said = [(one.code, warning_words.say(one)) for one in warnings_of(solved, chosen, unit, light)]
    if levels_found:
        said += [(one.code, say_stage(one, units)) for one in stage_warnings(solved, chosen, each, levels_found)]
    return [WarningText(code, one.title, one.says, code in warning_words.REMINDERS) for code, one in said]


def _levels(found: Sequence[Level]) -> list[LevelText]:
    return [
        LevelText(
            receiver=level.receiver,
            name=RECEIVER_NAMES[level.receiver],
            ambient=round(level.ambient, 2),
            lights=[None if math.isinf(one) else round(one, 2) for one in level.lights],
            total=round(level.total, 2),
            says=f"{RECEIVER_NAMES[level.receiver]} {stops(level.total)} (ambient alone {stops(level.ambient)})",
        )
        for level in found
        if not RECEIVERS[level.receiver].seldom or any(math.isfinite(one) for one in level.lights)
    ]


def headline(reach: Reach, units: DisplayUnits) -> str:
    """The verdict over the whole shelf in a sentence."""
    table = reach.solved.table
    able = np.flatnonzero(reach.able)
    if not len(able):
        why = method_words.UNIT_BLOCKERS[_commonest_blocker(reach)]
        return f"No unit can be used: {why}."
    if reach.ambient_alone is not None:
        return verdict.no_flash_needed(reach.ambient_alone)
    shelf = count(len(table), "unit")
    good = int(np.count_nonzero(reach.reaches))
    nearest = int(able[np.argmax(reach.spare[able])])
    if not good:
        return _none_reaches(reach, nearest)
    lead = f"{'All' if good == len(table) else good} of {shelf} {'reaches' if good == 1 else 'reach'}."
    lightest = advice.lightest_that_reaches(reach)
    if lightest is None or (math.isnan(table.weight_g[lightest]) and len(table) > 1):
        return lead
    unit = table.units[lightest]
    set_to = dial(unit.scale, float(reach.below_full[lightest]), units, unit.watt_seconds)
    if len(table) == 1:
        return f"{unit.name} reaches, at {set_to}."
    return f"{lead} The lightest that does, {unit.name}, at {set_to}."


def _commonest_blocker(reach: Reach) -> str:
    return BLOCKERS[int(np.bincount(reach.blocker).argmax())]


def _none_reaches(reach: Reach, nearest: int) -> str:
    name, spare = reach.solved.table.units[nearest].name, float(reach.spare[nearest])
    if np.any(reach.verdict == TOO_BRIGHT):
        bright = np.flatnonzero(reach.verdict == TOO_BRIGHT)
        least = int(bright[np.argmin(reach.too_bright[bright])])
        excess = amount(float(reach.too_bright[least]))
        if not np.any(reach.verdict == ON_THE_LINE):
            name = reach.solved.table.units[least].name
            return f"Every unit that has the light is too bright even at its lowest power; {name}, by {excess}."
    if reach.verdict[nearest] == ON_THE_LINE:
        return f"No unit surely reaches. {name} is on the line: {stops(spare)} stop."
    return f"No unit on this shelf reaches. The nearest, {name}, is {amount(spare)} short."
