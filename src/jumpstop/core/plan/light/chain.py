"""The chain: every effect on the way from what a unit gives to what the picture needs, one line each.

To add an effect: its relation in `physics`, its line and its entry in EFFECTS here (and a field in `scene.light`, where
it is a tick), its sentence in `words.effects`, its check in the tests; a test names what is missing. What hands change,
what a finding may change, and the page's ticks follow from the entry. Effects stand in the order in which the light
meets them.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Literal, NamedTuple

import numpy as np

from ...kit.filter import Filter, nd_for
from ...kit.gel import gel_stops
from ...kit.memo import remembered
from ...kit.modifier import Layer, by_adapter, layers_on
from ...kit.table import UnitTable
from ...physics import beam, exposure, falloff, placing, shutter, stops
from ...physics.arrays import Figure, Floats
from ...physics.beam import WIDE_FROM_MM, WIDE_PANEL_MM
from ...physics.scales import APERTURES, ISOS
from ...scene.camera import CameraSettings
from ...scene.light import Light
from ...scene.receivers import NOWHERE_M
from ...scene.seen import Seen
from ...scene.setup import Setup
from ..camera.look import needed_s
from ..camera.methods import Method, names_of
from .jump import Chain, Jump, Mark, Of, pick, total
from .placing import bounced_off
from .scene import Scene
from .seen import flash_sd, flash_seen
from .taught import taught

SLOW_FLASH_S = 0.01  # an open window longer than this catches every flash whole
USUAL_FULL_T01_S = 1 / 600  # a flash at full power whose duration is not known, from memory
MOST_TAIL_DOUBT = 0.33  # stops of doubt that an unknown duration brings at the most, from memory
AMBIENT_MOST = 6.0  # stops: more help than this from the ambient says only that no flash is needed
SD_DISTANCE = 0.05  # a distance paced out rather than taped [stops], from memory
SD_HEADS = 0.1  # heads that are not quite equal, or not quite on one spot [stops], from memory
SD_BESIDE = 0.3  # share of a light that comes from beside or behind [stops], from memory
SD_BOUNCE = 0.1  # where on the ceiling the light goes [stops], from memory
CARD_SHARE = 0.1  # of the light that a bounce card sends forward, from memory
SD_CARD = 0.2  # how much a card sends forward [stops], from memory
SD_OFF_AXIS = 0.3  # light a stop or more down off the axis of a head [stops], from memory
SD_ADAPTER = 0.1  # what an adapter takes of the light [stops], from memory
SD_PANEL = 0.3  # how much a wide panel spreads, and takes itself [stops], from memory
SD_GEL = 0.1  # doubt of a gel's loss [stops]; from memory
SD_ND = 0.1  # doubt of a filter's marking [stops]; from memory
MOST_AMBIENT_SD = 0.5  # doubt that an unsure ambient brings to the flash, at the most [stops]; from memory
SAME_STOPS = 1e-6  # a jump this near to what it was is the same


Line = Callable[[Scene], Sequence[Jump]]


class Effect(NamedTuple):
    """One effect on the light: its line of the chain; what kind of thing its figure belongs to, "" where its doubt is
    of this picture alone; and where it is a tick of a light, that field: hands then switch it, and a finding may."""

    line: Line
    owner: Literal["unit", "modifier", "room", "gel", "filter", "ambient", "reading", ""] = ""
    tick: str = ""


def _rated_output(scene: Scene) -> Sequence[Jump]:
    """What a unit gives at one metre, at full power, at ISO 100 and the aperture wanted."""
    aperture = scene.setup.f_number
    sd = np.array([scene.table.output_at(_zoom(light)).rated_sd for light in scene.lights])[:, None, :]
    size = scene.table.rated - exposure.av(APERTURES.exact(aperture))
    return [_jump("rated_output", size, sd, Of("unit", part="rating"), "P", "ISO 1230:2007", f_number=aperture)]


def _zoom(light: Light) -> float | None:
    """The zoom position that counts: none behind a modifier that does not ask for a zoomed head."""
    if not light.zoomed:
        return None
    return WIDE_FROM_MM if light.wide_panel else light.zoom_mm


def _zoomed(scene: Scene) -> Sequence[Jump]:
    """Gain of a zoom head against the coverage that all are compared at."""
    if all(_zoom(light) is None for light in scene.lights):
        return []
    outputs = [scene.table.output_at(_zoom(light)) for light in scene.lights]
    gain, sd, at = (np.array([output[i] for output in outputs])[:, None, :] for i in (1, 2, 3))
    source = "interpolated from the claims; outside them from the beam, from memory"
    return [_jump("zoom", gain, sd, Of("unit", part="zoom"), "M", source, zoom_mm=at)]


def _wide_panel(scene: Scene) -> Sequence[Jump]:
    """A panel over a zoom head at its widest, which spreads its light wider still."""
    out = scene.by_light(lambda light: float(light.wide_panel and light.zoomed)) > 0
    if not out.any():
        return []
    on = out & scene.table.can_zoom
    size = np.where(on, beam.spread_stops(WIDE_FROM_MM, WIDE_PANEL_MM), 0.0)
    source = "the solid angles of 24 and 14 mm; about a stop in practice (common practice)"
    return [_jump("wide_panel", size, np.where(on, SD_PANEL, 0.0), Of("unit", part="wide_panel"), "D", source)]


def _heads(scene: Scene) -> Sequence[Jump]:
    """So many equal heads on the same spot: + log2."""
    if all(light.heads == 1 for light in scene.lights):
        return []
    count = scene.by_light(lambda light: light.heads)
    return [
        _jump("heads", stops.stops_of(count), np.where(count > 1, SD_HEADS, 0.0), None, "D", "light adds", count=count)
    ]


def _pops(scene: Scene) -> Sequence[Jump]:
    """So many flashes into one frame, on what holds still: + log2."""
    if all(light.pops == 1 for light in scene.lights):
        return []
    count = scene.by_light(lambda light: light.pops)
    return [_jump("pops", stops.stops_of(count), 0.0, None, "D", "light adds while the shutter is open", count=count)]


def _distance(scene: Scene) -> Sequence[Jump]:
    """From one metre to the receiver."""
    metres = scene.distance_m
    return [
        _jump("distance", falloff.inverse_square(metres), SD_DISTANCE, None, "D", "inverse-square law", metres=metres)
    ]


def _modifier(scene: Scene) -> Sequence[Jump]:
    """Each modifier against the unit's rated reflector, and each of its layers that is on."""
    source = "common practice, no published source"
    mods = [light.modifier for light in scene.lights]
    if not any(mods):
        return []
    own = [Of("modifier", (mod.id or mod.name) if mod else "") for mod in mods]
    jumps = [
        Jump(
            "modifier",
            scene.by_light(lambda light: light.modifier.stops if light.modifier else 0.0),
            scene.by_light(lambda light: light.modifier.sd if light.modifier else 0.0),
            tuple(own),
            {
                "name": tuple(mod.name if mod else "" for mod in mods),
                "typical": tuple(bool(mod and mod.typical) for mod in mods),
            },
            "M",
            source,
        )
    ]
    on = [layers_on(light.modifier, light.layers) if light.modifier else () for light in scene.lights]
    for place in range(max(len(layers) for layers in on)):
        here: list[Layer | None] = [layers[place] if place < len(layers) else None for layers in on]
        marks: tuple[Mark, ...] = tuple("U" if layer and layer.measured else "CP" for layer in here)
        jumps.append(
            Jump(
                "layer",
                np.array([layer.stops if layer else 0.0 for layer in here]).reshape(-1, 1, 1),
                np.array([layer.sd if layer else 0.0 for layer in here]).reshape(-1, 1, 1),
                tuple(Of("modifier", of.id, layer.name if layer else "") for of, layer in zip(own, here, strict=True)),
                {"layer": tuple(layer.name if layer else "" for layer in here)},
                marks,
                source,
            )
        )
    return jumps


def _adapter(scene: Scene) -> Sequence[Jump]:
    """What the adapter takes by which a modifier goes on a unit of another mount."""
    mods = [light.modifier for light in scene.lights]
    if not any(mod is not None and mod.adapter_stops for mod in mods):
        return []
    size = np.zeros((len(mods), 1, len(scene.table)))
    for at, mod in enumerate(mods):
        if mod is not None and mod.adapter_stops:
            size[at, 0] = [mod.adapter_stops * by_adapter(mod, unit.mount) for unit in scene.table.units]
    own = tuple(Of("modifier", (mod.id or mod.name) if mod else "", "adapter") for mod in mods)
    sd = SD_ADAPTER * (size != 0)
    return [Jump("adapter", size, sd, own, {}, "M", "as it is said of the modifier's adapters")]


def _bounce(scene: Scene) -> Sequence[Jump]:
    """The longer way over a ceiling or a wall; what the surface itself takes belongs to the modifier."""
    off = [bounced_off(light, scene.setup.stage) for light in scene.lights]
    if not any(off):
        return []
    metres = np.minimum(scene.distance_m, NOWHERE_M)
    path = np.array(metres)
    for row, (surface, at) in enumerate(zip(off, scene.placing.at, strict=True)):
        away = scene.setup.stage.wall_m(surface) if surface else None
        if surface == "ceiling" and away is not None:
            face = max(0.0, away - scene.setup.stage.face_m)
            path[row] = placing.bounce_path_m(max(0.0, away - at.z), face, metres[row])
        elif surface is not None and away is not None:
            beside = max(0.0, away - at.x if surface == "right" else away + at.x)
            along = np.sqrt(np.maximum(0.0, np.square(metres[row]) - at.x**2))
            path[row] = placing.wall_path_m(beside, away, along)
    size = 2 * np.log2(metres / path)
    source = "the flash's mirror image in the surface: ceiling √(d² + 4 a b), wall √((a + b)² + c²)"
    surfaces = tuple(surface or "" for surface in off)
    room = tuple(Of("room", scene.setup.name if surface else "", surface) for surface in surfaces)
    sd = np.where(size < 0, SD_BOUNCE, 0.0)
    return [Jump("bounce", size, sd, room, {"path_m": path, "off": surfaces}, "D", source)]


def _card(scene: Scene) -> Sequence[Jump]:
    """What a card on the head sends straight forward, beside what comes off a ceiling or a wall."""
    carded = [_carded(light) for light in scene.lights]
    if not any(carded):
        return []
    lost = -sum((np.asarray(jump.stops) for jump in (*_modifier(scene), *_bounce(scene))), np.zeros((1, 1, 1)))
    size = np.where(np.array(carded)[:, None, None], placing.card_gain(CARD_SHARE, lost), 0.0)
    source = "a tenth of the light goes straight forward, from memory"
    return [_jump("card", size, np.where(size > 0, SD_CARD, 0.0), None, "M", source, share=CARD_SHARE)]


def _carded(light: Light) -> bool:
    bounced = light.modifier is not None and light.modifier.kind == "bounce"
    return bounced and light.position is not None and light.position.card


def _side(scene: Scene) -> Sequence[Jump]:
    """What a side has of a light that comes from beside or behind."""
    if not any(light.position for light in scene.lights):
        return []
    size = scene.placing.side_stops[:, :, None]
    bearing = scene.by_light(lambda light: light.position.bearing_deg if light.position else 0.0)
    source = "the nearer side: all up to 45°, then the cosine; the farther: tan(45° − bearing)"
    return [_jump("side", size, np.where(size < 0, SD_BESIDE, 0.0), None, "M", source, bearing=bearing)]


def _off_axis(scene: Scene) -> Sequence[Jump]:
    """What is lost where a head does not point."""
    size: Floats = scene.placing.off_stops[:, :, None]
    if not size.any():
        return []
    source = "a beam falls by (2 φ / θ)² stops; a bright face by the cosine (Lambert)"
    return [_jump("off_axis", size, SD_OFF_AXIS * np.minimum(1.0, -size), None, "M", source)]


def _face(scene: Scene) -> Sequence[Jump]:
    """What a large face loses against inverse square close up."""
    faces = [light.modifier.face if light.modifier else None for light in scene.lights]
    if not any(faces):
        return []
    size = np.zeros_like(scene.distance_m)
    for i, face in enumerate(faces):
        if face is not None:
            size[i] = falloff.close_up(
                face.width_m, face.rectangle_height_m, np.minimum(scene.distance_m[i], NOWHERE_M)
            )
    sd = np.array([0.0 if face is None else SD_DISTANCE for face in faces]).reshape(-1, 1, 1)
    width = np.array([0.0 if face is None else face.width_m for face in faces]).reshape(-1, 1, 1)
    source = "Lambert's disc and rectangle formulas (Walsh, Photometry); five-times rule (IES Lighting Handbook)"
    return [_jump("face", size, sd, None, "P", source, metres=scene.distance_m, width_m=width)]


def _gel(scene: Scene) -> Sequence[Jump]:
    """What the colour correction in front of the flash takes."""
    if all(light.gel == "none" for light in scene.lights):
        return []
    sd = scene.by_light(lambda light: 0.0 if light.gel == "none" else SD_GEL)
    return [
        Jump(
            "gel",
            scene.by_light(lambda light: gel_stops(light.filtered)),
            sd,
            tuple(Of("gel", light.gel_name) for light in scene.lights),
            {
                "gel": tuple(light.gel_name for light in scene.lights),
                "share": scene.by_light(lambda light: light.filtered.transmission),
            },
            "M",
            "typical of filter makers' data sheets, from memory",
        )
    ]


def _aperture(scene: Scene) -> Sequence[Jump]:
    """Another aperture than the one asked for."""
    asked = scene.setup.f_number
    if all(method.camera.f_number == asked for method in scene.methods):
        return []
    used = scene.by_method(lambda method: method.camera.f_number)
    exact = scene.by_method(lambda method: float(APERTURES.exact(method.camera.f_number)))
    size = exposure.av(APERTURES.exact(asked)) - exposure.av(exact)
    return [_jump("aperture", size, 0.0, None, "D", APEX, asked=asked, used=used)]


def _iso(scene: Scene) -> Sequence[Jump]:
    """ISO against 100."""
    if all(method.camera.iso == 100 for method in scene.methods):
        return []
    iso = scene.by_method(lambda method: method.camera.iso)
    return [_jump("iso", stops.stops_of(np.asarray(ISOS.exact(iso)) / 100), 0.0, None, "D", APEX, iso=iso)]


def _nd(scene: Scene) -> Sequence[Jump]:
    """What neutral density takes from flash and ambient alike."""
    if not any(method.camera.nd_stops for method in scene.methods):
        return []
    own = {one.name: Of("filter", one.id or one.name) for one in scene.setup.filters}
    cameras = {_on(method) for method in scene.methods}
    each = {on: _by_filter(*on, scene.setup.filters) for on in sorted(cameras)}
    jumps = []
    for name in dict.fromkeys(name for taken in each.values() for name in taken):
        taken = scene.by_method(lambda method, name=name: each[_on(method)].get(name, 0.0))  # type: ignore[misc]
        facts = {"name": name if name in own else "", "stops": taken, "share": np.exp2(-taken)}
        doubt = np.where(taken > 0, SD_ND, 0.0)
        jumps.append(_jump("nd", -taken, doubt, own.get(name, Of("filter")), "D", "ND: 2^-stops", **facts))
    return jumps


def _on(method: Method) -> tuple[float, tuple[str, ...]]:
    """The neutral density that a method has on: its stops, and its filters by name."""
    return method.camera.nd_stops, method.camera.nd_names


def _by_filter(nd_stops: float, names: tuple[str, ...], filters: tuple[Filter, ...]) -> dict[str, float]:
    """What each filter that is on takes [stops]: a fixed one what it is marked, what is left a variable one, else the
    last; all of it one that has no name in the bag."""
    on = sorted((one for one in filters if one.name in names), key=lambda one: one.most_stops is not None)
    if not nd_stops:
        return {}
    if not on:
        return {"": nd_stops}
    out = {one.name: one.stops for one in on[:-1]}
    return out | {on[-1].name: nd_stops - sum(out.values())}


def _hss(scene: Scene) -> Sequence[Jump]:
    """HSS: the light is spread over the curtains' travel, and the unit loses something of its own."""
    if all(method.kind != "hss" for method in scene.methods):
        return []
    travel = scene.setup.body.curtain_s

    def geometry(method: Method) -> float:
        return float(shutter.hss_loss(method.camera.shutter_s, travel)) if method.kind == "hss" else 0.0

    extra = scene.by_unit(lambda m: scene.table.hss_extra_at(m.camera.shutter_s) if m.kind == "hss" else None)
    return [
        _jump(
            "hss",
            scene.by_unit(lambda m: -scene.table.hss_loss_at(m.camera.shutter_s, travel) if m.kind == "hss" else None),
            scene.by_unit(lambda m: scene.table.hss_sd if m.kind == "hss" else None),
            Of("unit", part="hss"),
            "M",
            "geometry of the slit; the unit's extra from memory until measured",
            shutter_s=scene.by_method(lambda method: method.camera.shutter_s),
            travel_s=travel,
            geometry=scene.by_method(geometry),
            extra=extra,
            tabled=scene.table.hss_tabled,
        )
    ]


def _freeze(scene: Scene) -> Sequence[Jump]:
    """What is lost by staying at a power setting that is short enough."""
    frozen = scene.frozen
    if frozen is None:
        return []
    size = scene.by_unit(lambda m: -np.where(frozen.can, frozen.least, 0.0) if m.kind == "freeze" else None)
    source = "blur = speed × duration × magnification; durations from the unit's table"
    return [
        _jump(
            "freeze", size, 0.0, Of("unit", part="duration"), "D", source,
            needed_s=needed_s(scene.setup), least=frozen.least, known=frozen.known, can=frozen.can,
        )
    ]  # fmt: skip


def _tail(scene: Scene) -> Sequence[Jump]:
    """What of a flash at full power still comes when the shutter closes on the middle of the lit frame."""
    t01 = scene.table.t01_s[:, 0]
    known = ~np.isnan(t01)

    def loss(method: Method) -> Floats | None:
        window = clipping_window_s(scene.setup, method)
        return None if window is None else clipped(scene.table, window)

    if all(clipping_window_s(scene.setup, method) is None for method in scene.methods):
        return []
    size = scene.by_unit(loss)
    sd = np.where(known, size / -4, np.minimum(MOST_TAIL_DOUBT, -size))
    return [
        _jump(
            "tail", np.where(known, size, 0.0), sd, Of("unit", part="duration"), "D",
            "exponential tail: 1 − 10^(−window / t.1)",
            shutter_s=scene.by_method(lambda method: method.camera.shutter_s),
            window_s=scene.by_method(lambda method: _window_s(scene.setup, method)),
            t01_s=np.where(known, t01, 1.0), share=np.exp2(size), known=known,
        )
    ]  # fmt: skip


def _window_s(setup: Setup, method: Method) -> float:
    return max(open_window_s(setup, method), 1e-6)


def clipping_window_s(setup: Setup, method: Method) -> float | None:
    """How long the frame is open to a flash [s] where that can be too short for one; None where none is clipped."""
    window = _window_s(setup, method)
    return window if method.kind not in ("hss", "freeze") and window < SLOW_FLASH_S else None


@remembered(16)
def clipped(table: UnitTable, window_s: float) -> Floats:
    """What every unit's flash at full power loses to a window [stops]; the usual one where its duration is unknown."""
    t01 = table.t01_s[:, 0]
    return np.asarray(np.log2(shutter.caught(np.where(np.isnan(t01), USUAL_FULL_T01_S, t01), window_s)))


def open_window_s(setup: Setup, method: Method) -> float:
    """How long the middle of the lit frame stays open once the flash is fired [s]."""
    if method.kind == "past_sync":
        return method.camera.shutter_s / 2
    return method.camera.shutter_s - setup.body.open_travel_s / 2


def _target(scene: Scene) -> Sequence[Jump]:
    """A light wanted at another level than a correct exposure."""
    target = scene.wanted
    if not target.any():
        return []
    return [_jump("target", -target, 0.0, None, "D", "the aim", target=target)]


def _ambient(scene: Scene) -> Sequence[Jump]:
    """What the ambient already gives the key's side, which the flash need not. Other lights are flash alone."""
    if all(light.role != "key" for light in scene.lights):
        return []
    level = scene.by_method(lambda method: scene.ambient.lit_ev - method.camera.ev)
    target = scene.wanted
    key = scene.by_light(lambda light: float(light.role == "key")) > 0
    helped = np.minimum(target - stops.flash_share(level, target), AMBIENT_MOST)
    sd = np.minimum(MOST_AMBIENT_SD, scene.ambient.subject_sd * np.exp2(np.minimum(0.0, level - target)))
    return [
        _jump(
            "ambient", np.where(key, helped, 0.0), np.where(key, sd, 0.0), Of("ambient", part="subject"), "D",
            "2^flash + 2^ambient = 2^target", level=level, rest=target - helped, enough=helped >= AMBIENT_MOST,
        )
    ]  # fmt: skip


def then(scene: Scene, seen: Seen) -> tuple[Scene, Chain, int]:
    """The scene when a reading was taken, and its chain of units as they are rated now, without what readings have
    taught; and the light's own receiver."""
    setup = scene.setup if scene.of is None else scene.of.setup
    camera = CameraSettings(
        seen.camera.f_number, seen.camera.shutter_s, seen.camera.iso, seen.camera.nd_stops,
        _filters_on(setup.filters, seen.camera.nd_stops),
    )  # fmt: skip
    lights = tuple(seen.was if at == seen.light else light for at, light in enumerate(setup.lights))
    was = setup.model_copy(update={"lights": lights, "seen": ()})
    before = Scene(was, scene.table, scene.ambient, (Method(seen.method, camera),), scene.frozen)
    apart = NEEDS | {"reading"}
    chain = tuple(jump for name, one in EFFECTS.items() if name not in apart for jump in one.line(before))
    return before, chain, before.placing.own[seen.light]


def _filters_on(filters: tuple[Filter, ...], nd_stops: float) -> tuple[str, ...]:
    """The filters that take so much, by name: those that were on."""
    found = nd_for(nd_stops, filters) if nd_stops else None
    return names_of(found) if found is not None and abs(found.stops - nd_stops) < SAME_ND else ("unknown",)


SAME_ND = 0.17
"""Stops: half of the step in which a variable filter is turned; filters that take so nearly what a reading was taken
through were on."""


def counted(chain: Chain, seen: Seen, tailed: bool) -> Chain:
    """The jumps of a chain that a reading holds: the dial that was set counts what a short flash loses."""
    whole = seen.dial_stops > 0 and not tailed  # a cut pulse dialled down is clipped no more
    apart = {"freeze", "tail"} if whole else {"freeze"}
    return tuple(jump for jump in chain if jump.effect not in apart)


def _reading(scene: Scene) -> Sequence[Jump]:
    """What a flash meter read against what the chain said then: from there on the setup counts from the reading."""
    shape = (1, len(scene.lights), 1, len(scene.table))
    size, sd, taken = np.zeros(shape), np.zeros(shape), [0.0] * len(scene.lights)
    was: dict[int, tuple[Chain, int]] = {}
    for light, seen, unit in _counting(scene):
        if id(seen) not in was:
            before, chain, own = then(scene, seen)
            was[id(seen)] = taught(before.table, chain), own
        chain, own = was[id(seen)]
        held = counted(chain, seen, bool(scene.table.tailed[unit]))
        said = pick(total(held), (0, seen.light, own, unit)) - seen.dial_stops
        taken[light] = flash_seen(seen)
        size[0, light, 0, unit], sd[0, light, 0, unit] = taken[light] - said, flash_sd(seen)
    if not sd.any():
        return []
    source = "your reading; what has changed since is added from the chain"
    return [_jump("reading", size, sd, Of("reading"), "U", source, level=scene.by_light(lambda _: 0) + _column(taken))]


def _column(figures: Sequence[float]) -> Floats:
    return np.array(figures, dtype=float).reshape(-1, 1, 1)


def _place(scene: Scene, light: int) -> int | None:
    unit = scene.lights[light].unit
    return None if unit is None else scene.table.place_of(unit.id, unit.name)


def _counting(scene: Scene) -> Iterator[tuple[int, Seen, int]]:
    """Each light that counts from a reading, the reading, and the place of the unit that it was taken of."""
    for light in range(len(scene.lights)):
        seen, unit = scene.standing(light), _place(scene, light)
        if seen is not None and unit is not None:
            yield light, seen, unit


def _settled(scene: Scene, chain: Chain) -> Chain:
    """The chain without the doubts that a standing reading has settled: those of jumps that are as they were then."""
    was: dict[int, dict[tuple[str, int], float]] = {}
    standing_now: list[tuple[int, int, dict[tuple[str, int], float]]] = []
    for light, seen, unit in _counting(scene):
        if id(seen) not in was:
            _, chain_then, own = then(scene, seen)
            was[id(seen)] = _by_place(chain_then, seen.light, own, unit)
        standing_now.append((light, unit, was[id(seen)]))
    lanes = (len(scene.methods), len(scene.lights), len(scene.placing.receivers), len(scene.table))
    out, counts = [], dict.fromkeys(EFFECTS, -1)
    for jump in chain:
        counts[jump.effect] += 1
        if jump.effect in NEEDS or jump.effect == "reading":
            out.append(jump)
            continue
        sd, size = np.broadcast_to(jump.sd, lanes).copy(), np.broadcast_to(jump.stops, lanes)
        for light, unit, before in standing_now:
            here = size[:, light, scene.placing.own[light], unit]
            same = np.abs(here - before.get((jump.effect, counts[jump.effect]), 0.0)) < SAME_STOPS
            sd[same | (jump.effect == "rated_output"), light, :, unit] = 0.0
        out.append(replace(jump, sd=sd))
    return tuple(out)


def _by_place(chain: Chain, light: int, receiver: int, unit: int) -> dict[tuple[str, int], float]:
    """Size of each jump [stops] by its effect and which of that effect it is."""
    found: dict[tuple[str, int], float] = {}
    for jump in chain:
        place = sum(effect == jump.effect for effect, _ in found)
        found[(jump.effect, place)] = pick(jump.stops, (0, light, receiver, unit))
    return found


APEX = "APEX (Exif 2.32, Annex C)"
EFFECTS: dict[str, Effect] = {
    "rated_output": Effect(_rated_output, "unit"),
    "zoom": Effect(_zoomed, "unit"),
    "wide_panel": Effect(_wide_panel, "unit", tick="wide_panel"),
    "heads": Effect(_heads),
    "pops": Effect(_pops),
    "distance": Effect(_distance),
    "modifier": Effect(_modifier, "modifier"),
    "layer": Effect(lambda scene: (), "modifier"),  # comes off its modifier, which sets it down
    "adapter": Effect(_adapter, "modifier"),
    "bounce": Effect(_bounce, "room"),
    "card": Effect(_card),
    "face": Effect(_face),
    "off_axis": Effect(_off_axis),
    "side": Effect(_side),
    "gel": Effect(_gel, "gel"),
    "aperture": Effect(_aperture),
    "iso": Effect(_iso),
    "nd": Effect(_nd, "filter"),
    "hss": Effect(_hss, "unit"),
    "freeze": Effect(_freeze, "unit"),
    "tail": Effect(_tail, "unit"),
    "reading": Effect(_reading, "reading"),
    "target": Effect(_target),
    "ambient": Effect(_ambient, "ambient"),
}
NEEDS = frozenset({"target", "ambient"})
"""Effects on what is needed; all others are effects on the light itself."""


TICKS = {effect.tick: code for code, effect in EFFECTS.items() if effect.tick}
"""Effects that a light's tick switches, by its field."""


def _jump(
    effect: str, size: Figure, sd: Figure, of: Of | None, mark: Mark, source: str, **facts: object
) -> Jump:  # fmt: skip
    return Jump(effect, size, sd, () if of is None else (of,), facts, mark, source)


def chain_of(scene: Scene) -> Chain:
    """All jumps of a setup, broadcasting over the four axes; what is absent everywhere is left out."""
    chain = tuple(jump for effect in EFFECTS.values() for jump in effect.line(scene))
    settled = _settled(scene, chain) if any(seen.stands for seen in scene.setup.seen) else chain
    return taught(scene.table, chain, settled)
