"""A picture said in parts: each part changes a setup; what is not said stays as it is."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ..kit.gel import GelFor
from ..physics.scales import SHUTTERS
from .aim import ExposureAim, Lens, Motion
from .ambient import AmbientSpec, Reading
from .light import MOST_LIGHTS, USUAL_TARGETS, Light, Role
from .setup import FixedNd, Setup
from .stage import Position, Stage

BEHIND_M = 7.5  # how far behind the subject a background is taken to be that nobody has said, from memory
SPREAD_M = 0.6  # of a row that one person takes, from memory
ROW_M = 0.8  # from one row of people to the next, from memory
USUAL_LIGHT_M = 1.9  # a light's height that nobody has said
LAST = ("background_behind", "reading")  # what counts from what else is said, wherever that stands
EV_AT = ((8.0, 6.0), (1.0, 0.0))  # apertures of a reading that is said as EV, each with its EV at 1 s and ISO 100
DIM_EV = 2  # below it the second, at which no time is longer than a camera has


@dataclass(frozen=True)
class Part:
    """One thing that was said. code: what is said of; facts: its figures; light: of which light in the order in which
    they were named, None where it is of none."""

    code: str
    facts: Mapping[str, Any] = field(default_factory=dict)
    light: int | None = None


def with_parts(setup: Setup, parts: Sequence[Part], light: int = 0) -> Setup:
    """The setup with all that was said. light: the one in hand, of which is said what names no other."""
    for part in sorted(parts, key=lambda one: one.code in LAST):
        if part.light is None:
            setup = OF_SETUP[part.code](setup, part.facts)
    return _with_lights(setup, parts, light)


def _with_lights(setup: Setup, parts: Sequence[Part], in_hand: int) -> Setup:
    lights, places = list(setup.lights), dict[int, int]()
    for number in sorted({part.light for part in parts if part.light is not None}):
        own = [part for part in parts if part.light == number]
        role = next((part.facts["role"] for part in own if part.code == "role"), None)
        place = _place(lights, role, number, in_hand, set(places.values()))
        if place == len(lights):
            if len(lights) == MOST_LIGHTS:
                continue
            kind: Role = role or "key"
            lights.append(Light(id=_free(lights), role=kind, target_stops=USUAL_TARGETS[kind]))
        places[number] = place
        for part in own:
            lights[place] = OF_LIGHT[part.code](lights[place], part.facts)
    return setup.model_copy(update={"lights": tuple(lights)})


def _place(lights: Sequence[Light], role: str | None, number: int, in_hand: int, taken: set[int]) -> int:
    """Which light of a setup is meant: the one of that role, the one in hand, or a new one."""
    if role is not None:
        if number == 0 and len(lights) == 1 and untouched(lights[0]):
            return 0
        same = next((at for at, one in enumerate(lights) if one.role == role and at not in taken), None)
        if same is not None:
            return same
        return len(lights)
    return in_hand if number == 0 and in_hand not in taken and in_hand < len(lights) else len(lights)


def untouched(light: Light) -> bool:
    """Whether nothing has been said of a light yet."""
    return light.model_copy(update={"id": ""}) == Light()


def _free(lights: Sequence[Light]) -> str:
    known = {one.id for one in lights}
    return next(name for name in map(str, range(1, 99)) if name not in known)


Change = Callable[[Setup, Mapping[str, Any]], Setup]


def _setup(**fields: str) -> Change:
    """Fields of the setup, each from a fact."""
    return lambda setup, f: setup.model_copy(update={name: f[fact] for name, fact in fields.items()})


def _in(part: str, model: type[Any], **fields: str) -> Change:
    """Fields of one of its parts, checked anew as it is put together."""

    def change(setup: Setup, f: Mapping[str, Any]) -> Setup:
        new = getattr(setup, part).model_copy(update={name: f[fact] for name, fact in fields.items()})
        return setup.model_copy(update={part: model.model_validate(new.model_dump())})

    return change


def _lens(**fields: str) -> Change:
    """Fields of lens and distances; the background is moved behind the subject where it was not said."""

    def change(setup: Setup, f: Mapping[str, Any]) -> Setup:
        old = setup.aim.lens or Lens()
        new = old.model_copy(update={name: f[fact] for name, fact in fields.items()})
        if new.background_m <= new.subject_m:
            moved = {"subject_m": new.background_m / 2} if "background_m" in fields else {
                "background_m": new.subject_m + BEHIND_M}  # fmt: skip
            new = new.model_copy(update=moved)
        aim = setup.aim.model_copy(update={"lens": Lens.model_validate(new.model_dump())})
        return setup.model_copy(update={"aim": aim})

    return change


def _condition(setup: Setup, f: Mapping[str, Any]) -> Setup:
    by_sun = setup.ambient.by == "sun"
    if by_sun and f.get("sky"):
        changed: dict[str, Any] = {"sky": f["sky"]}
    elif by_sun and f.get("keeps_sun"):
        changed = {}
    else:
        changed = {"by": "condition", "condition": f["condition"]}
    if f.get("subject"):
        changed["subject"] = f["subject"]
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update=changed)})


def _at_place(setup: Setup, f: Mapping[str, Any]) -> Setup:
    changed = {"by": "sun", "place": f["place"], "day": f["day"], "clock": f["clock"]}
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update=changed)})


def _lux(setup: Setup, f: Mapping[str, Any]) -> Setup:
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update={"by": "lux", "lux": f["lux"]})})


def _reading(setup: Setup, f: Mapping[str, Any]) -> Setup:
    """The light by a meter's reading, at the ISO of the setup where none is said with it; or by its EV at ISO 100."""
    if "ev" in f:
        f_number, at_1_s = EV_AT[f["ev"] < DIM_EV]
        seconds = SHUTTERS.marked(2 ** (at_1_s - f["ev"]))
        read = Reading(f_number=f_number, shutter_s=seconds)
        read = read.model_copy(update={"needle_stops": round(f["ev"] - read.ev, 2)})
    else:
        read = Reading(f_number=f["f_number"], shutter_s=f["shutter_s"], iso=f.get("iso") or setup.aim.iso)
    read = read.model_copy(update={"of": f["of"]})
    changed = {"by": "reading", "readings": (read,)}
    return setup.model_copy(update={"ambient": setup.ambient.model_copy(update=changed)})


def _aperture(setup: Setup, f: Mapping[str, Any]) -> Setup:
    aim = setup.aim.model_copy(update={"by": "aperture", "f_number": f["f_number"]})
    return setup.model_copy(update={"aim": aim})


def _background_behind(setup: Setup, f: Mapping[str, Any]) -> Setup:
    subject_m = (setup.aim.lens or Lens()).subject_m
    return _lens(background_m="metres")(setup, {"metres": subject_m + f["metres"]})


def _iso(setup: Setup, f: Mapping[str, Any]) -> Setup:
    iso, aim = f["iso"], setup.aim
    floor = None if aim.iso_floor is not None and aim.iso_floor > iso else aim.iso_floor
    ceiling = None if aim.iso_ceiling is not None and aim.iso_ceiling < iso else aim.iso_ceiling
    changed = {"iso": iso, "iso_floor": floor, "iso_ceiling": ceiling}
    return setup.model_copy(update={"aim": aim.model_copy(update=changed)})


def _fixed(**fields: str) -> Change:
    def change(setup: Setup, f: Mapping[str, Any]) -> Setup:
        fixed = setup.fixed.model_copy(update={name: f[fact] for name, fact in fields.items()})
        return setup.model_copy(update={"fixed": fixed})

    return change


def _nd(setup: Setup, f: Mapping[str, Any]) -> Setup:
    known = {one.name: one for one in setup.filters}
    names = tuple(name for name in f.get("filters", ()) if name in known)
    nd = FixedNd(filters=names, stops=f["stops"])
    return setup.model_copy(update={"fixed": setup.fixed.model_copy(update={"nd": nd})})


def _group(setup: Setup, f: Mapping[str, Any]) -> Setup:
    people = f["people"]
    stage = setup.stage.model_copy(
        update={"kind": "group", "people": people, "width_m": f.get("width_m") or max(1.0, people * SPREAD_M / 2)}
    )
    return setup.model_copy(update={"stage": stage})


def _rows(setup: Setup, f: Mapping[str, Any]) -> Setup:
    rows, people = f["rows"], setup.stage.people
    update = {"width_m": max(1.0, people * SPREAD_M / rows), "depth_m": (rows - 1) * ROW_M}
    return setup.model_copy(update={"stage": setup.stage.model_copy(update=update)})


def _subject(setup: Setup, f: Mapping[str, Any]) -> Setup:
    usual = Stage()
    changed: dict[str, Any] = {"kind": f["kind"]}
    if setup.stage.kind == "group":
        changed |= {"people": 1, "width_m": usual.width_m, "depth_m": 0.0}
    return setup.model_copy(update={"stage": setup.stage.model_copy(update=changed)})


def _motion(setup: Setup, f: Mapping[str, Any]) -> Setup:
    motion = setup.motion.model_copy(update=dict(f))
    return setup.model_copy(update={"motion": Motion.model_validate(motion.model_dump())})


OF_SETUP: dict[str, Change] = {
    "condition": _condition,
    "placement": _in("ambient", AmbientSpec, subject="subject"),
    "clock": _in("ambient", AmbientSpec, clock="clock"),
    "at_place": _at_place,
    "sky": _in("ambient", AmbientSpec, sky="sky"),
    "lux": _lux,
    "reading": _reading,
    "aperture": _aperture,
    "iso": _iso,
    "shutter": _fixed(shutter_s="shutter_s"),
    "nd": _nd,
    "method": _setup(method="kind"),
    "focal": _lens(focal_mm="focal_mm"),
    "subject_distance": _lens(subject_m="metres"),
    "background_distance": _lens(background_m="metres"),
    "background_behind": _background_behind,
    "background": _in("aim", ExposureAim, background_stops="stops"),
    "ratio": _in("aim", ExposureAim, ratio="ratio"),
    "orientation": _in("aim", ExposureAim, orientation="orientation"),
    "motion": _motion,
    "silent": _setup(silent="on"),
    "body": _setup(body="body"),
    "lens": _setup(lens="lens"),
    "group": _group,
    "rows": _rows,
    "subject": _subject,
    "tall": _in("stage", Stage, height_m="metres"),
    "wide": _in("stage", Stage, width_m="metres"),
    "deep": _in("stage", Stage, depth_m="metres"),
    "camera_height": _in("stage", Stage, camera_height_m="metres"),
    "ceiling": _in("stage", Stage, ceiling_m="metres"),
    "wind": _in("stage", Stage, wind_m_s="speed"),
    "frames": _setup(frames="frames"),
    "trigger": _setup(trigger="trigger"),
}
"""What each part that is of no light changes."""

LightChange = Callable[[Light, Mapping[str, Any]], Light]


def _light(**fields: str) -> LightChange:
    return lambda light, f: light.model_copy(update={name: f[fact] for name, fact in fields.items()})


def _role(light: Light, f: Mapping[str, Any]) -> Light:
    if light.role == f["role"]:
        return light
    return light.model_copy(update={"role": f["role"], "target_stops": USUAL_TARGETS[f["role"]]})


def _modifier(light: Light, f: Mapping[str, Any]) -> Light:
    light = light.model_copy(update={"modifier": f["modifier"], "layers": None})
    surface = f.get("surface")
    if surface is None:
        return light
    return light.model_copy(update={"position": _position(light).model_copy(update={"bounces_off": surface})})


def _position(light: Light) -> Position:
    return light.position or Position(height_m=USUAL_LIGHT_M)


def _placed(**fields: str) -> LightChange:
    def change(light: Light, f: Mapping[str, Any]) -> Light:
        position = _position(light).model_copy(update={name: f[fact] for name, fact in fields.items()})
        return light.model_copy(update={"position": position})

    return change


def _dial(light: Light, f: Mapping[str, Any]) -> Light:
    return light.model_copy(update={"dial_stops": f["dial_stops"], "distance_free": False, "automatic": False})


def _unit(light: Light, f: Mapping[str, Any]) -> Light:
    return light.model_copy(update={"unit": f["unit"], "dial_stops": None, "distance_free": False})


def _gel(light: Light, f: Mapping[str, Any]) -> Light:
    purpose: GelFor = f.get("gel_for", "match")
    return light.model_copy(update={"gel": f["gel"], "gel_for": purpose})


OF_LIGHT: dict[str, LightChange] = {
    "light": lambda light, f: light,
    "role": _role,
    "unit": _unit,
    "modifier": _modifier,
    "heads": _light(heads="heads"),
    "distance": lambda light, f: light.model_copy(update={"distance_m": f["metres"], "distance_free": False}),
    "bearing": _placed(bearing_deg="deg"),
    "height": _placed(height_m="metres"),
    "dial": _dial,
    "level": _light(target_stops="stops"),
    "gel": _gel,
    "zoom": _light(zoom_mm="focal_mm"),
    "off": _light(on="on"),
}
"""What each part that is of a light changes."""
