"""Moves: the single changes that could be made to a setup, to find a stop or to spend one. Each is tried elsewhere."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import time
from typing import Any, Literal

from ...kit.modifier import layers_on
from ...kit.unit import Unit
from ...kit.values import MOST_DISTANCE_M
from ...physics.beam import REFERENCE_ZOOM_MM, ZOOMS_MM
from ...physics.scales import APERTURES, ISOS, SHUTTERS, at_least
from ...scene.light import MOST_HEADS, Light, OwnModifier
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.look import no_filter
from ..camera.methods import Method, nd_more, with_nd
from ..light.chain import TICKS
from ..light.placing import farthest_m

CLOSER, FARTHER = (2**-0.25, 2**-0.5, 0.5), (2**0.25, 2**0.5, 2.0)
"""Half a stop, a stop and two nearer, by the inverse square; and farther."""
NEAREST_M = 0.3  # nearer than this no light is put, common practice
HOURS = (-2, -1, 1, 2)  # hours earlier and later that are tried
Where = Literal["light", "setup", "unit"]


@dataclass(frozen=True)
class Move:
    """One change: its code and figures; what of the setup it touches, of which only one move can be made at a time.

    where: it changes the light alone, the rest of the setup, or which unit is taken. method: the method it takes; None:
    the one in hand stays. owned: whether what it wants is owned. breaks: it moves figures that are fixed.
    """

    code: str
    facts: Mapping[str, Any]
    touches: str
    where: Where
    light: Callable[[Light], Light] | None = None
    setup: Callable[[Setup], Setup] | None = None
    unit: str | None = None  # id of the unit taken
    at: int | None = None  # the light it belongs to, where it is not the one in hand
    method: MethodKind | None = None
    owned: bool = True
    breaks: bool = False


@dataclass(frozen=True)
class Bag:
    """What could be put on or taken: modifiers of the shelf, each with its id."""

    modifiers: tuple[OwnModifier, ...] = ()


def moves_of(setup: Setup, at: int, kind: MethodKind, method: Method, unit: Unit, bag: Bag) -> list[Move]:
    """Every single change for one light with this unit, both ways, that nothing impossible forbids.

    None touches what is fixed, but those that say so.
    """
    light = setup.lights[at]
    found = [*_distances(setup, light), *_front(light, unit, bag), *_head(light, unit)]
    found += [*_isos(setup, method), *_apertures(setup, method), *_background(setup), *_nd(setup, method)]
    found += iso_and_shutter(setup, method)
    found += [*_methods(setup, kind), *_hours(setup)]
    return found


def of_light(code: str, touches: str, facts: Mapping[str, Any], **changed: Any) -> Move:
    """A move of the light alone, which changes these fields of it."""
    return Move(code, facts, touches, "light", light=lambda light: light.model_copy(update=changed))


def of_setup(code: str, touches: str, facts: Mapping[str, Any], change: Callable[[Setup], Setup]) -> Move:
    """A move of the rest of the setup."""
    return Move(code, facts, touches, "setup", setup=change)


def _distances(setup: Setup, light: Light) -> Iterator[Move]:
    room = max(farthest_m(setup, light), light.distance_m)
    for times in (*CLOSER, *FARTHER):
        metres = float(f"{light.distance_m * times:.2g}")
        if metres != light.distance_m and NEAREST_M <= metres <= min(room, MOST_DISTANCE_M):
            yield of_light("closer" if times < 1 else "farther", "distance", {"metres": metres}, distance_m=metres)


def _front(light: Light, unit: Unit, bag: Bag) -> Iterator[Move]:
    """What is in front of the flash: layers, another modifier, none, no gel."""
    mod = light.modifier
    if mod is not None:
        on = [layer.name for layer in layers_on(mod, light.layers)]
        for layer in mod.layers:
            off = layer.name in on
            after = tuple(name for name in on if name != layer.name) if off else (*on, layer.name)
            yield of_light("layer_off" if off else "layer_on", "front", {"layer": layer.name}, layers=after)
        if len(on) > 1:
            yield of_light("layers_off", "front", {"name": mod.name}, layers=())
        yield of_light("bare", "front", {"name": mod.name}, modifier=None, layers=None)
    for other in bag.modifiers:
        if unit.takes(other) and other.kind != "bounce" and (mod is None or other.id != mod.id):
            yield of_light("modifier", "front", {"name": other.name}, modifier=other, layers=None)
    if light.gel != "none" and light.gel_for == "match":
        yield of_light("gel_off", "gel", {"gel": light.gel}, gel="none")


def _head(light: Light, unit: Unit) -> Iterator[Move]:
    """Zoom, more heads, and a head turned back to the subject."""
    zoomable = light.zoomed
    if zoomable and unit.zoom_max_mm is not None:
        now = light.zoom_mm or REFERENCE_ZOOM_MM
        for zoom in ZOOMS_MM:
            if zoom != now and (unit.widest_mm or REFERENCE_ZOOM_MM) <= zoom <= unit.zoom_max_mm:
                yield of_light("zoom", "zoom", {"zoom_mm": zoom}, zoom_mm=zoom)
    for field, effect in TICKS.items():
        now = getattr(light, field)
        if zoomable and unit.zoom_max_mm is not None:
            yield of_light("tick_off" if now else "tick_on", field, {"effect": effect}, **{field: not now})
    for heads in sorted({light.heads + 1, light.heads * 2}):
        if heads <= MOST_HEADS and unit.takes_modifiers:
            yield of_light("heads", "heads", {"count": heads}, heads=heads)
    position = light.position
    if position is not None and (position.turn_deg or position.tilt_deg):
        straight = position.model_copy(update={"turn_deg": 0.0, "tilt_deg": 0.0})
        yield of_light("straight", "turn", {}, position=straight)


def _isos(setup: Setup, method: Method) -> Iterator[Move]:
    for by in (1, 2, -1, -2):
        yield from iso_by(setup, method, by)


def iso_by(setup: Setup, method: Method, by: int) -> Iterator[Move]:
    """ISO by whole stops, where it is free and the body and the person allow it."""
    low, high = setup.iso_range
    iso = ISOS.marked(ISOS.moved(method.camera.iso, by), "third")
    if not setup.fixed.iso and low <= iso <= high and iso != method.camera.iso:
        facts: dict[str, Any] = {"iso": iso, "by": by}
        yield of_setup("iso_up" if by > 0 else "iso_down", "iso", facts, _aimed(iso=iso))


def _apertures(setup: Setup, method: Method) -> Iterator[Move]:
    for by in (1 / 3, 1, 2, -1 / 3, -1, -2):
        yield from aperture_by(setup, by)


def aperture_by(setup: Setup, by: float, toward: Literal["near", "up"] = "near") -> Iterator[Move]:
    """The aperture by so many stops, open is positive, where it is free."""
    if setup.fixed.aperture or setup.aim.by == "blur":
        return
    marked = APERTURES.marked(APERTURES.moved(setup.f_number, -by), "third", toward)
    widest, smallest = setup.apertures
    if widest <= marked <= smallest and marked != setup.f_number:
        code = "wider" if by > 0 else "stop_down"
        yield of_setup(code, "aperture", {"f_number": marked, "by": by}, _aimed(f_number=marked))


def _background(setup: Setup) -> Iterator[Move]:
    if setup.fixed.background:
        return
    for by in (0.5, 1.0, -0.5, -1.0):
        wanted = setup.aim.background_stops + by
        if -8 <= wanted <= 4:
            facts = {"stops": wanted, "by": by}
            code = "background_up" if by > 0 else "background_down"
            yield of_setup(code, "background", facts, _aimed(background_stops=wanted))


def _nd(setup: Setup, method: Method) -> Iterator[Move]:
    for by in (1.0, 3.0):
        yield from nd_by(setup, method, by)


def nd_by(setup: Setup, method: Method, by: float) -> Iterator[Move]:
    """A filter of the bag goes on, to take away so much; at sync that is the method with ND."""
    if no_filter(setup):
        return
    kind, on = with_nd(method.kind), nd_more(setup, method.kind, method.camera, by)
    if on is not None:
        change = of_setup("nd_on", "nd", {"stops": on.stops}, _fixing(nd=on))
        yield change if kind == method.kind else replace(change, method=kind)


def iso_and_shutter(setup: Setup, method: Method, by: int = 1) -> Iterator[Move]:
    """ISO and a fixed shutter time by whole stops together: the ambient stays, and the flash is worth as many more."""
    fixed, body, (low, high) = setup.fixed, setup.body, setup.iso_range
    if fixed.shutter_s is None:
        return
    time_s = SHUTTERS.marked(SHUTTERS.moved(fixed.shutter_s, by), "third")
    iso = ISOS.marked(ISOS.moved(method.camera.iso, by), "third")
    if low <= iso <= high and at_least(time_s, body.top_speed_s):
        change = of_setup(
            "iso_and_shutter",
            "iso",
            {"iso": iso, "shutter_s": time_s},
            lambda setup: _fixing(shutter_s=time_s)(_aimed(iso=iso)(setup)),
        )
        yield replace(change, breaks=True)


def _methods(setup: Setup, kind: MethodKind) -> Iterator[Move]:
    if setup.method is not None:
        return
    for other in ("sync", "nd", "hss", "leaf", "stop_down", "slow", "past_sync", "freeze"):
        if other != kind:
            yield Move("method", {"kind": other}, "method", "setup", method=other, setup=_to_method(other))


def _to_method(kind: MethodKind) -> Callable[[Setup], Setup]:
    return lambda setup: setup.model_copy(update={"method": kind})


def _hours(setup: Setup) -> Iterator[Move]:
    """Another hour, where the sun says what that is worth; and open shade or a panel for who stands in the sun."""
    spec = setup.ambient
    if spec.by == "sun" and not any(reading.clock is None for reading in spec.readings):
        for hours in HOURS:
            minutes = spec.clock.hour * 60 + spec.clock.minute + 60 * hours
            if 0 <= minutes < 1440:
                clock = time(minutes // 60, minutes % 60)
                yield of_setup("hour", "ambient", {"clock": clock}, _in_light(clock=clock))
    if spec.subject in ("sun", "back") and spec.by == "sun":
        for subject in ("shade", "panel"):
            facts = {"subject": subject}
            yield of_setup("into_shade", "ambient", facts, _in_light(subject=subject))


Change = Callable[[Setup], Setup]


def _aimed(**changed: Any) -> Change:
    return lambda setup: setup.model_copy(update={"aim": setup.aim.model_copy(update=changed)})


def _fixing(**changed: Any) -> Change:
    return lambda setup: setup.model_copy(update={"fixed": setup.fixed.model_copy(update=changed)})


def _in_light(**changed: Any) -> Change:
    return lambda setup: setup.model_copy(update={"ambient": setup.ambient.model_copy(update=changed)})


def together(one: Move, other: Move) -> bool:
    """Whether two moves can be made at once: they touch different things."""
    return one.touches != other.touches


def done(setup: Setup, at: int, moves: Sequence[Move], units: Mapping[str, Any]) -> Setup:
    """The setup with these moves made. units: the units of the shelf by id, as a setup holds them."""
    for move in moves:
        if move.setup is not None:
            setup = move.setup(setup)
        own = at if move.at is None else move.at
        light = setup.lights[own]
        if move.light is not None:
            light = move.light(light)
        elif move.unit is not None:
            light = light.model_copy(update={"unit": units[move.unit], "dial_stops": None})
        lights = list(setup.lights)
        lights[own] = light
        setup = setup.model_copy(update={"lights": tuple(lights)})
    return setup
