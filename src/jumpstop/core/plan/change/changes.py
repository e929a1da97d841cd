"""Single changes to a setup, and what each brings the unit in hand: every gain is that of the setup solved anew."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ...kit.modifier import layers_on
from ...kit.table import UnitTable
from ...physics.scales import APERTURES, ISOS, SHUTTERS, Step
from ...scene.seen import MethodKind
from ...scene.setup import SMALLEST, Setup
from ..camera.methods import nd_fixed, nd_more, with_nd
from ..light.one_unit import Landing, landing, with_light
from ..light.placing import metres_for

ENOUGH = -0.05  # stops: a landing this little short still counts as cured
SAME = 0.02  # stops: a change that brings less than this brings nothing
SYNCED: tuple[MethodKind, ...] = ("sync", "leaf", "nd")
ROUNDED = 0.99  # distances are rounded so that they still cure
SHOWN = 3  # cures that are told at once


@dataclass(frozen=True)
class Change:
    """One change: its code and figures, the setup with it, what it brings [stops], and where the unit then lands."""

    code: str
    facts: Mapping[str, Any]
    setup: Setup
    gain: float
    landing: Landing


Candidate = tuple[str, Mapping[str, Any], Setup]


def evaluated(
    setup: Setup, table: UnitTable, kind: MethodKind, light: int, step: Step, tried: Iterator[Candidate]
) -> list[Change]:
    """Each candidate that can be had, with its gain for the table's unit in this method."""
    now = landing(setup, table, kind, light, step)
    found = []
    for code, facts, changed in tried if now is not None else ():
        then = landing(changed, table, kind if nd_fixed(changed) is None else with_nd(kind), light, step)
        if then is not None and now is not None and abs(then.spare - now.spare) > SAME:
            found.append(Change(code, facts, changed, then.spare - now.spare, then))
    return found


def _layers(setup: Setup, light: int, off: bool) -> Iterator[Candidate]:
    """One layer taken off, or put on."""
    here = setup.lights[light]
    if here.modifier is None:
        return
    on = [layer.name for layer in layers_on(here.modifier, here.layers)]
    for layer in here.modifier.layers:
        if (layer.name in on) == off:
            after = [name for name in on if name != layer.name] if off else [*on, layer.name]
            changed = with_light(setup, light, layers=tuple(after))
            yield ("layer_off" if off else "layer_on"), {"layer": layer.name}, changed


def _iso(setup: Setup, iso: float, stops: float) -> Candidate | None:
    """ISO changed by whole stops, the shutter with it where that is fixed, so that the background stays."""
    marked = ISOS.marked(float(ISOS.exact(iso)) * 2.0**stops, "third")
    aim, fixed, (low, high) = setup.aim, setup.fixed, setup.iso_range
    if not low <= marked <= high or marked == iso:
        return None
    update: dict[str, Any] = {"aim": aim.model_copy(update={"iso": marked})}
    if fixed.shutter_s is None:
        return "iso", {"iso": marked}, setup.model_copy(update=update)
    time = SHUTTERS.marked(float(SHUTTERS.exact(fixed.shutter_s)) / 2.0**stops, "third")
    update["fixed"] = fixed.model_copy(update={"shutter_s": time})
    return "iso_and_shutter", {"iso": marked, "shutter_s": time}, setup.model_copy(update=update)


def _short(setup: Setup, light: int, now: Landing) -> Iterator[Candidate]:
    """Single changes that may make up for what is missing."""
    here, missing = setup.lights[light], -now.spare
    yield from _layers(setup, light, off=True)
    nearer = float(f"{metres_for(here, setup.stage, missing) * ROUNDED:.2g}")
    if nearer >= 0.1:
        yield "closer", {"metres": nearer}, with_light(setup, light, distance_m=nearer)
    up = _iso(setup, now.camera.iso, max(1.0, float(int(missing) + (missing % 1 > 0))))
    if up is not None:
        yield up
    heads = min(16, max(2, round(here.heads * 2**missing + 0.49)))
    yield "heads", {"count": heads}, with_light(setup, light, heads=heads)


def _bright(setup: Setup, kind: MethodKind, light: int, now: Landing) -> Iterator[Candidate]:
    """Single changes that may take away what is too much; at sync a filter that goes on is the method with ND."""
    here, aim, camera, excess = setup.lights[light], setup.aim, now.camera, now.too_bright
    closed = APERTURES.marked(APERTURES.moved(camera.f_number, excess), "third", "up")
    if closed <= SMALLEST and not setup.fixed.aperture:
        update = {"aim": aim.model_copy(update={"f_number": closed, "by": "aperture"})}
        yield "stop_down", {"f_number": closed}, setup.model_copy(update=update)
    back = float(f"{metres_for(here, setup.stage, -excess) / ROUNDED:.2g}")
    yield "farther", {"metres": back}, with_light(setup, light, distance_m=back)
    yield from _layers(setup, light, off=False)
    down = _iso(setup, camera.iso, -float(int(excess) + 1))
    if down is not None:
        yield down
    on = nd_more(setup, kind, camera, excess)
    if on is not None:
        fixed = setup.fixed.model_copy(update={"nd": on})
        yield "nd_on", {"stops": on.stops}, setup.model_copy(update={"fixed": fixed})


def cures(setup: Setup, table: UnitTable, kind: MethodKind, light: int, step: Step) -> list[Change]:
    """Single changes that each cure a landing that is short or too bright, those that disturb least first; the first
    few. Where no single one does, those that come nearest."""
    now = landing(setup, table, kind, light, step)
    if now is None or (now.spare >= 0 and not now.too_bright):
        return []
    if now.too_bright:
        found = evaluated(setup, table, kind, light, step, _bright(setup, kind, light, now))
        return [change for change in found if not change.landing.too_bright][:SHOWN]
    found = evaluated(setup, table, kind, light, step, _short(setup, light, now))
    good = [change for change in found if change.landing.spare >= ENOUGH]
    return (good or sorted(found, key=lambda change: -change.gain))[:SHOWN]
