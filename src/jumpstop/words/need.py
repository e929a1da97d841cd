"""The need in words: what a picture asks of whatever unit stands there; and a job's request, without any name."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

from ..core.kit.modifier import layers_on
from ..core.kit.table import UnitTable
from ..core.physics.guide_number import beam_candela_seconds, guide_number_of_stops, ws_of_guide_number
from ..core.plan.light.reach import CADENCE_S, Solved
from ..core.plan.need.of_job import AskedUnit
from ..core.plan.need.of_light import Need, need_of
from ..core.scene.light import Light
from ..core.scene.seen import MethodKind
from .camera import settings_line
from .figures import DisplayUnits, count, decimal, duration, grouped, guide_number, length, listed, plain, shutter
from .kit import ROLES, UNIT_KINDS
from .methods import TITLES


@dataclass(slots=True)
class NeedText:
    """What one light asks in one method, and the typical classes that give it."""

    method: MethodKind
    title: str
    settings: str
    says: str
    guide_number: float
    watt_seconds: float
    sd: float
    more: list[str]
    classes: list[str]


@dataclass(slots=True)
class NeedsText:
    """What a light of a setup asks, method by method; the one that is taken first. short: the figures alone."""

    light: int
    says: str
    short: str
    methods: list[NeedText]


def basis(need: Need) -> str:
    """The coverage that a needed guide number is stated at."""
    return "standard reflector" if need.zoom_mm is None else f"{plain(need.zoom_mm)} mm"


def through(light: Light, units: DisplayUnits) -> str:
    """Where the light stands, and what is in front of it."""
    if light.modifier is None:
        return f"bare at {length(light.distance_m, units)}"
    layers = [layer.name for layer in layers_on(light.modifier, light.layers)]
    with_ = f" with {listed(layers, 'and')}" if layers else ""
    return f"through {light.modifier.name}{with_} at {length(light.distance_m, units)}"


def tidy_ws(energy: float) -> str:
    """An energy that is no better known than to two digits."""
    return f"{decimal(float(f'{energy:.2g}'), ',.0f' if energy >= 10 else 'g')} Ws"


def need_sentence(need: Need, units: DisplayUnits) -> str:
    """What a light asks: GN 44 m (ISO 100, standard reflector) through ... at 1.8 m, about 130 Ws."""
    if need.ambient_enough:
        return "no flash: the ambient alone gives what is wanted"
    heads = f", {need.asks.heads} heads" if need.asks.heads > 1 else ""
    return (
        f"{guide_number(need.guide_number, units)} (ISO 100, {basis(need)}){heads} {through(need.asks, units)}, "
        f"about {tidy_ws(need.watt_seconds)}"
    )


def needs_text(solved: Solved, light: int, chosen: MethodKind, typical: UnitTable, units: DisplayUnits) -> NeedsText:
    """Every method's need for a light. typical: classes to name those that give it."""
    kinds = [chosen, *(kind for kind in solved.kinds if kind != chosen)]
    found = [(kind, need_of(solved, kind, light)) for kind in kinds if kind in solved.kinds]
    methods = [_method(solved, kind, need, typical, units) for kind, need in found if need is not None]
    says = methods[0].says if methods else "Nothing could light this as it is asked."
    first = next((need for _, need in found if need is not None), None)
    return NeedsText(light, says, "" if first is None else _short(first, units), methods)


def _short(need: Need, units: DisplayUnits) -> str:
    if need.ambient_enough:
        return "Needs no flash."
    guide = guide_number(need.guide_number, units)
    return f"Needs {guide} (ISO 100, {basis(need)}), about {tidy_ws(need.watt_seconds)}."


def _method(solved: Solved, kind: MethodKind, need: Need, typical: UnitTable, units: DisplayUnits) -> NeedText:
    given = [typical.units[at].name for at, good in enumerate(need.fulfilled_by(typical)) if good]
    return NeedText(
        method=kind,
        title=TITLES[kind],
        settings=settings_line(solved.method(kind).camera),
        says=f"Needs {need_sentence(need, units)}.",
        guide_number=round(need.guide_number, 1) if math.isfinite(need.stops) else 0.0,
        watt_seconds=float(f"{need.watt_seconds:.2g}") if math.isfinite(need.stops) else 0.0,
        sd=round(need.sd, 2),
        more=_more(need, units),
        classes=given[:3],
    )


def _more(need: Need, units: DisplayUnits) -> list[str]:
    out = [f"± {decimal(need.sd, '.1f')} stop", f"{grouped(need.candela_seconds)} beam candela-seconds"]
    if need.hss_shutter_s is not None:
        left = guide_number(need.guide_number_in_hss, units)
        out.append(f"HSS, with {left} left at {shutter(need.hss_shutter_s)}")
    if need.t01_s is not None:
        out.append(f"t.1 {shutter(need.t01_s)} or shorter at that output")
    elif need.window_s is not None and need.window_s < 1 / 150:
        out.append(f"a flash that is over within {shutter(need.window_s)}")
    if need.fits:
        out.append(f"a {listed([UNIT_KINDS[one] for one in need.fits])}")
    flashes = need.setup.frames * need.asks.pops
    out.append(f"{count(flashes, 'flash', 'flashes')} at that output, recycled in {duration(CADENCE_S)} each")
    return out if not need.ambient_enough else []


@dataclass(slots=True)
class AskedText:
    """Units asked for that are alike: how many, in a line, figure by figure, and where each is wanted."""

    count: int
    says: str
    figures: list[list[str]]
    typical: str
    lights: list[str]


@dataclass(slots=True)
class RequestText:
    """A job's request: a sentence, its lines, and the whole as plain text."""

    says: str
    units: list[AskedText]
    text: str
    notes: list[str] = field(default_factory=list)


BASIS_NOTE = (
    "Guide numbers are in {unit} at ISO 100, at full power, through the head's standard reflector (about 65 degrees, "
    "what a 35 mm lens sees) unless a zoom position is named; what modifiers take is counted already."
)
ENERGY_NOTE = "Watt-seconds are a guess from the guide number (35 lm/W): ask for the guide number, not for them."


def request_text(name: str, asked: Sequence[AskedUnit], typical: UnitTable, units: DisplayUnits) -> RequestText:
    """The document. typical: classes, of which the lightest that would do is named."""
    rows = [_asked(one, typical, units) for one in asked]
    alike: list[AskedText] = []
    for row in rows:
        same = next((one for one in alike if one.says == row.says), None)
        if same is None:
            alike.append(row)
        else:
            same.count += row.count
            same.lights += [one for one in row.lights if one not in same.lights]
    if not alike:
        return RequestText("No flash is asked for.", [], "No flash is asked for.\n")
    says = f"{count(sum(one.count for one in alike), 'unit')} would do for all of it."
    notes = [BASIS_NOTE.format(unit="feet" if units.length == "ft" else "metres"), ENERGY_NOTE]
    lines = [f"Request for {name}", "", says, ""]
    for one in alike:
        lines += [f"{one.count} x {one.says}", f"    for {'; '.join(one.lights)}"]
        lines += [f"    for example: {one.typical}"] if one.typical else []
    return RequestText(says, alike, "\n".join([*lines, "", *notes, ""]), notes)


def _asked(one: AskedUnit, typical: UnitTable, units: DisplayUnits) -> AskedText:
    figures: list[list[str]] = []
    if math.isfinite(one.stops):
        guide = float(guide_number_of_stops(one.stops))
        energy = float(ws_of_guide_number(guide))
        figures.append(["guide number, standard reflector", f"at least {guide_number(guide, units)}"])
        figures.append(
            ["beam candela-seconds", f"at least {grouped(float(f'{float(beam_candela_seconds(guide)):.3g}'))}"]
        )
        figures.append(["energy, a guess", f"about {tidy_ws(energy)}"])
    for zoom, stops in sorted(one.zoomed.items()):
        guide = float(guide_number_of_stops(stops))
        figures.append([f"guide number at {plain(zoom)} mm", f"at least {guide_number(guide, units)}"])
    hss = one.hardest_hss
    if hss is not None and hss.hss_shutter_s is not None:
        left = guide_number(hss.guide_number_in_hss, units)
        figures.append(["high-speed sync", f"at least {left} left at {shutter(hss.hss_shutter_s)}"])
    if one.shortest is not None and one.shortest.t01_s is not None:
        at = guide_number(one.shortest.guide_number, units)
        figures.append(["flash duration", f"t.1 {shutter(one.shortest.t01_s)} or shorter where it gives {at}"])
    if one.window_s is not None:
        figures.append(["flash duration", f"over within {shutter(one.window_s)} at that output"])
    if math.isfinite(one.least_stops) and one.least_stops < one.stops - LEAST_TOLD:
        least = guide_number(float(guide_number_of_stops(one.least_stops)), units)
        figures.append(["goes down to", f"{least} or less"])
    if one.fits:
        figures.append(["kind", listed([UNIT_KINDS[kind] for kind in UNIT_KINDS if kind in one.fits])])
    elif one.takes_modifiers:
        figures.append(["kind", "takes modifiers"])
    figures.append(["recycles after that output", f"in {duration(one.every_s)} or less"])
    if one.flashes:
        figures.append(["flashes at that output", f"{grouped(round(one.flashes))} in the whole job"])
    good = one.fulfilled_by(typical)
    lightest = min(good, key=lambda at: typical.weight_g[at], default=None)
    return AskedText(
        count=1,
        says="; ".join(f"{name}: {figure}" for name, figure in figures),
        figures=figures,
        typical="" if lightest is None else typical.units[lightest].name,
        lights=list(dict.fromkeys(f"{each.setup}, {ROLES[each.need.asks.role]}" for each in one.lights)),
    )


LEAST_TOLD = 1.0  # stops: a range of output less than this is no matter
