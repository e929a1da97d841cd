"""Crib cards: one a setup, with all that is set, checked and done there, for paper and for a phone."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace

from ..core.kit.modifier import layers_on
from ..core.kit.unit import Unit
from ..core.plan.camera import colour
from ..core.plan.change.pocket import Pocket
from ..core.plan.job.hours import Hour
from ..core.plan.light.chain import TICKS
from ..core.plan.light.reach import Reach, Solved
from ..core.plan.stage.steps import order_of
from ..core.scene.job import Job
from ..core.scene.light import Light
from ..core.scene.log import LogEntry
from ..core.scene.seen import SD_EYE, MethodKind
from ..core.scene.setup import Setup
from ..service.cards import CardLadder, CardPlan
from .camera import settings_line
from .colour import balance_short
from .effects import TICKS as TICK_NAMES
from .figures import DisplayUnits, amount, dial, f_number, iso, length, listed, nd, shutter, stops
from .hours import HoursText, hours_text, joined
from .kit import ROLES, gel_words
from .ladder import LadderText, ladder_text, span_words
from .methods import title
from .on_set import blank_entry, dials_of
from .stage import StageText, stage_text, where_words
from .stage_warnings import say_stage
from .verdict import of_unit, picture
from .warnings import say

CHECKED = frozenset({"auto_iso", "hss_left_on", "hss_not_armed", "hss_by_itself", "silent_sync"})
"""Warnings that stand among the checks before the first frame already."""
HALF_STOP = math.sqrt(2) / 2


@dataclass(slots=True)
class CardLight:
    """One light, in its order of work."""

    number: int
    role: str
    unit: str
    fired: str
    through: str
    place: str
    dial: str
    how: str


@dataclass(slots=True)
class Card:
    """One setup's card. pocket: tables that answer without the program; blanks: entries to be filled in, by light."""

    setup: str
    name: str
    says: str
    picture: str
    method: str
    settings: str
    balance: str
    body: str
    preflight: list[str]
    lights: list[CardLight]
    ladder: LadderText | None
    hours: HoursText | None
    watch: list[str]
    under: str
    over: str
    sky: str
    stage: StageText
    pocket: Pocket
    dials: list[list[str]]
    marks: dict[str, list[str]]
    distances: list[list[str]]
    blanks: list[LogEntry] = field(default_factory=list)


def cards_of(
    plans: Sequence[CardPlan],
    job_id: str | None,
    job: Job,
    words: DisplayUnits,
    blank: LogEntry,
) -> list[Card]:
    """The cards of a job's setups. blank: an entry with the time, to be filled in."""
    return [card_of(one, job_id, job, words, blank) for one in plans]


def card_of(plan: CardPlan, job_id: str | None, job: Job, words: DisplayUnits, blank: LogEntry) -> Card:
    """The card of one setup."""
    solved, kind, units, pocket = plan.solved, plan.kind, plan.units, plan.pocket
    setup, method, unit = solved.setup, solved.method(kind), plan.unit
    own = blank.model_copy(update={"job": job_id, "setup": plan.id})
    under, over = ("", "") if plan.first is None or unit is None else _off(plan.reach, unit, words)
    camera = settings_line(method.camera)
    return Card(
        setup=plan.id,
        name=setup.name,
        says="No unit stands here." if unit is None else of_unit(plan.reach, unit, words, plan.failing),
        picture=_sentence(picture(method, plan.levels, setup.aim.background_stops, plan.reach, unit)),
        method=title(method, setup.body.shutter),
        settings=camera,
        balance=_sentence(balance_short(colour.balance(setup.ambient, solved.ambient, setup.lights), setup)),
        body=setup.body.name,
        preflight=[*_preflight(solved, kind, units), *job.preflight],
        lights=[_light(solved, kind, at, units[at], words) for at in order_of(setup, "back") if setup.lights[at].on],
        ladder=None if plan.ladder is None else _ladder(plan, plan.ladder, camera, words),
        hours=None if unit is None or not plan.hours else _hours(plan.hours, solved.table.units[unit], setup, words),
        watch=_watch(plan, words),
        under=under,
        over=over,
        sky="" if unit is None else _skies(plan.skies, solved.table.units[unit], words),
        stage=stage_text(solved, method, units, plan.levels, words),
        pocket=pocket,
        dials=[dials_of(solved.table.units[one.unit], one.step, one.most, words) for one in pocket.lights],
        marks={
            "aperture": [f_number(mark.value) for mark in pocket.apertures],
            "shutter": [shutter(mark.value) for mark in pocket.shutters],
            "iso": [iso(mark.value) for mark in pocket.isos],
            "nd": [f"ND {nd(mark.value)}" if mark.value else "no ND" for mark in pocket.nds],
        },
        distances=[[length(mark.value, words) for mark in one.distances] for one in pocket.lights],
        blanks=[_looked(blank_entry(solved, kind, one.light, one.unit, own)) for one in pocket.lights],
    )


def _looked(entry: LogEntry) -> LogEntry:
    """An entry for a frame that is judged by eye."""
    assert entry.seen is not None
    return entry.model_copy(update={"seen": entry.seen.model_copy(update={"kind": "face", "sd": SD_EYE})})


def _light(solved: Solved, kind: MethodKind, at: int, unit: int | None, words: DisplayUnits) -> CardLight:
    light, setup = solved.setup.lights[at], solved.setup
    one = None if unit is None else solved.table.units[unit]
    set_to = ""
    if one is not None and unit is not None:
        below = float(solved.reach(kind, at).below_full[unit])
        set_to = dial(one.scale, below, words, one.watt_seconds)
        if light.automatic:
            set_to = f"automatic, {stops(solved.reach(kind, at).wanted_stops)}"
    fired = {"radio": "radio", "optical": "optical slave", "shoe": "on the camera"}[setup.trigger]
    if setup.trigger == "optical" and light.sends:
        fired = "on the camera"
    fired += f", channel {light.channel}" if light.channel is not None else ""
    fired += f", group {light.group.strip()}" if light.group.strip() else ""
    return CardLight(
        number=at + 1,
        role=ROLES[light.role],
        unit="no unit" if one is None else one.name + (f" × {light.heads}" if light.heads > 1 else ""),
        fired=fired + (", commands" if light.sends else ""),
        through=_through(light, None if unit is None else float(solved.table.output_at(light.zoom_mm).zoom_mm[unit])),
        place=where_words(light, words),
        dial=set_to,
        how="" if one is None else one.group_how,
    )


def _through(light: Light, zoom_mm: float | None) -> str:
    """What stands in front; zoom_mm: where its unit's head then stands, which goes no further than it can."""
    mod = light.modifier
    said = "bare" if mod is None else mod.name
    if mod is not None and mod.layers:
        on = [layer.name for layer in layers_on(mod, light.layers)]
        said += f", {listed(on, 'and')} on" if on else ", nothing in front"
    if light.gel != "none":
        said += f", {gel_words(light.gel_name)}"
    said += "".join(f", {TICK_NAMES[effect]}" for field, effect in TICKS.items() if getattr(light, field))
    return said + (f", zoom {zoom_mm or light.zoom_mm:.0f} mm" if light.zoom_mm and not light.wide_panel else "")


def _preflight(solved: Solved, kind: MethodKind, units: Sequence[int | None]) -> Iterator[str]:
    """What is checked before the first frame, as the plan wants it."""
    setup, method = solved.setup, solved.method(kind)
    yield "Auto ISO off, camera on manual"
    if kind == "hss":
        yield "High-speed sync on, at trigger and unit"
    elif setup.body.hss and any(unit is not None and solved.table.has_hss[unit] for unit in units):
        yield "High-speed sync off, at trigger and unit"
    yield "Silent shutter on, and no faster than it syncs" if setup.silent else "Silent shutter off"
    rear = any(cost.code == "rear_curtain" for cost in method.costs)
    yield "Rear curtain, for trails" if rear else "First curtain"
    lit = [light for light in setup.lights if light.on]
    automatic = [light.automatic for light in lit]
    if any(automatic):
        yield "Automatic through the lens, with the compensation on the card"
    if not all(automatic):
        yield "The other units on manual power" if any(automatic) else "Units on manual power"
    yield "Red-eye mode off: its pre-flashes delay the picture"
    if setup.trigger == "optical" and any(automatic):
        yield "Optical slaves set to pass over the pre-flash that the automatic sends"
    elif setup.trigger == "optical":
        yield "No pre-flash from the camera: it fires optical slaves early"
    yield "Sleep switched off, at units and trigger"
    if method.camera.nd_stops:
        yield f"Focus and frame, then the filter: ND {nd(method.camera.nd_stops)}"
    yield "First frame with the flash off, then each light alone"


def _ladder(plan: CardPlan, found: CardLadder, camera: str, words: DisplayUnits) -> LadderText:
    assert plan.unit is not None
    one = plan.solved.table.units[plan.unit]
    dialled = dial(one.scale, float(plan.reach.below_full[plan.unit]), words, one.watt_seconds)
    return ladder_text(*found.parts, camera, words, span_words(found.span, dialled, words))


def _hours(rows: Sequence[Hour], unit: Unit, setup: Setup, words: DisplayUnits) -> HoursText:
    found = hours_text(rows, unit, setup, words)
    return replace(found, skies=[replace(sky, hours=joined(sky.hours)) for sky in found.skies])


def _skies(rows: Sequence[Hour], unit: Unit, words: DisplayUnits) -> str:
    """Sun and cloud at the planned hour, a touch apart."""

    def said(row: Hour) -> str:
        if row.camera is None:
            return "no method"
        return f"{settings_line(row.camera)}, {dial(unit.scale, row.below_full, words, unit.watt_seconds)}"

    names = {"clear": "Sun", "partly": "Sun and cloud", "overcast": "Cloud"}
    return ". ".join(f"{names[row.sky]}: {said(row)}" for row in rows)


def _sentence(text: str) -> str:
    """With a capital and a full stop."""
    return f"{text[:1].upper()}{text[1:]}." if text else ""


def _watch(plan: CardPlan, words: DisplayUnits) -> list[str]:
    found = [say(one) for one in plan.warnings if one.code not in CHECKED]
    found += [say_stage(one, words) for one in plan.stage]
    return list(dict.fromkeys(f"{one.title}: {one.says}" for one in found))


def _off(reach: Reach, unit: int, words: DisplayUnits) -> tuple[str, str]:
    """What to do where the picture comes out a stop under, and a stop over."""
    light, table = reach.light, reach.solved.table
    one = table.units[unit]
    if light.automatic:
        from_here = reach.wanted_stops
        return f"compensation {stops(from_here + 1)}", f"compensation {stops(from_here - 1)}"
    below, most = float(reach.below_full[unit]), float(table.dial_range[unit])

    def shown(stops_below: float) -> str:
        return dial(one.scale, min(max(stops_below, 0.0), most), words, one.watt_seconds)

    on = layers_on(light.modifier, light.layers) if light.modifier else ()
    layer = f"take the {on[-1].name} off ({stops(-on[-1].stops)})" if on else ""
    closer = f"closer, to {length(light.distance_m * HALF_STOP, words)}"
    if below >= 1 - 1e-6:
        under = f"{shown(below - 1)}" + (f"; or {layer}" if layer else "")
    else:
        left = f"full power is {amount(below)} more; then " if below > 0 else "already at full power: "
        under = left + listed([part for part in (layer, closer, "ISO a stop up") if part])
    back = f"back, to {length(light.distance_m / HALF_STOP, words)}"
    if below + 1 <= most + 1e-6:
        over = shown(below + 1)
    else:
        over = f"the dial ends at {shown(most)}: {listed([back, 'a layer more', 'ISO a stop down'])}"
    return under, over
