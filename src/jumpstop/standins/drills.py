"""The drills: each from one kind of work, a scene with hidden truth, what may be set, and what has to come out."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Literal, get_args

import numpy as np

from ..core.kit.table import UnitTable, table_of
from ..core.scene.aim import ExposureAim, Lens, Motion, Orientation
from ..core.scene.ambient import AmbientSpec, Reading
from ..core.scene.camera import CameraSettings
from ..core.scene.light import Light, OwnUnit
from ..core.scene.setup import Fixed, Setup
from ..core.scene.stage import Position, Stage
from .kit import BLUFF, FILTERS, SANDERLING, SOFTBOX, STILT, UMBRELLA, WHIMBREL
from .rig import Rig

DrillCode = Literal[
    "ambient", "halve", "nd", "hss", "dark", "pour", "fill", "second", "group", "channels", "automatic", "lasts"
]
CODES: tuple[DrillCode, ...] = get_args(DrillCode)
What = Literal[
    "aperture", "shutter", "iso", "nd", "hss", "orientation", "focus", "lamps", "trigger",
    "dial", "distance", "compensation", "channel", "sends", "sensor", "layers",
]  # fmt: skip
"""What may be set: of the camera and the place, then of a light."""
Goal = Literal[
    "background", "face", "shadow", "rim", "even", "dark", "frozen", "ghost", "focus", "all_fire", "hss_spared", "lasts"
]
MIDDLE = 3.0  # stops below full: where one starts who knows nothing, common practice
LENS = Lens(focal_mm=85, subject_m=2.5, background_m=12)
WIDE = Lens(focal_mm=35, subject_m=8.5, background_m=12)
CHANNEL = 4
HELD: tuple[Orientation, ...] = get_args(Orientation)
"""How a camera can be held; a move names it by its place."""
LASTING = {False: (240, 2.0), True: (900, 2.5)}
"""Frames to be taken and how long from one to the next [s], by whether the drill is hard."""


@dataclass(frozen=True)
class DrillScene:
    """A drill's scene. setup: as it is asked for. start: as it stands when one comes in. known: as one who knows the
    trade has it stand, whose dials and camera are still to be worked out; frames, every_s: what has to last."""

    setup: Setup
    start: Rig
    known: Setup
    frames: int = 0
    every_s: float = 0.0
    metering_stops: float = 0.0
    right: tuple[int, ...] = ()  # lights whose dials stand as they should already

    @property
    def table(self) -> UnitTable:
        """The units of its lights, as they are said to be."""
        units: dict[str, OwnUnit] = {}
        for light in self.setup.lights:
            if light.unit is not None and light.unit.id is not None:
                units[light.unit.id] = light.unit
        return table_of(list(units.values()), self.setup.meter_c, list(units))


@dataclass(frozen=True)
class Drill:
    """One drill. sets: what may be set. ambient_first: whether a frame without flash belongs to the work. drops:
    whether something falls through the frame."""

    code: DrillCode
    scene: Callable[[np.random.Generator, bool], DrillScene]
    sets: tuple[What, ...]
    goals: tuple[Goal, ...]
    ambient_first: bool = False
    drops: bool = False


def _setup(name: str, ambient: AmbientSpec, aim: ExposureAim, lights: tuple[Light, ...], **more: Any) -> Setup:
    fixed = more.pop("fixed", Fixed(aperture=True))
    return Setup(name=name, ambient=ambient, aim=aim, body=more.pop("body", BLUFF), lights=lights, fixed=fixed, **more)


def _aim(f_number: float, background: float = -1.0, iso: float = 100, lens: Lens = LENS) -> ExposureAim:
    return ExposureAim(f_number=f_number, background_stops=background, iso=iso, iso_floor=50, lens=lens)


def _started(setup: Setup, camera: CameraSettings, hss: bool = False, dial: float = MIDDLE) -> Rig:
    """As it stands when one comes in: every light at the middle of its dial, unless it is said."""
    rig = Rig(setup, camera, hss=hss)
    for at, light in enumerate(setup.lights):
        if light.dial_stops is None and not light.automatic:
            rig = rig.with_light(at, dial_stops=dial)
    return rig


def _one_of(rng: np.random.Generator, *choices: float) -> float:
    return choices[int(rng.integers(len(choices)))]


def _ambient(rng: np.random.Generator, hard: bool) -> DrillScene:
    light = Light(unit=WHIMBREL, modifier=SOFTBOX, distance_m=_one_of(rng, 1.4, 1.7, 2.0))
    if hard:
        spec = AmbientSpec(condition="after_sunset")
        aim = _aim(4.0).model_copy(update={"iso_ceiling": 1600})
    else:
        spec, aim = AmbientSpec(condition="heavy_overcast"), _aim(8.0, -1.0)
    setup = _setup("Ambient first", spec, aim, (light,), method="sync")
    return DrillScene(setup, _started(setup, CameraSettings(aim.f_number, 1 / 60, aim.iso)), setup)


def _halve(rng: np.random.Generator, hard: bool) -> DrillScene:
    light = Light(unit=SANDERLING, distance_m=_one_of(rng, 1.2, 1.5, 1.8))
    spec = AmbientSpec(condition="distinct_shadows", subject="back")
    time = 1 / 4000 if hard else 1 / 2000
    fixed = Fixed(aperture=True, iso=True, shutter_s=time)
    setup = _setup("Start in the middle", spec, _aim(2.8), (light,), method="hss", fixed=fixed)
    return DrillScene(setup, _started(setup, CameraSettings(2.8, time, 100), True), setup)


def _nd(rng: np.random.Generator, hard: bool) -> DrillScene:
    light = Light(unit=WHIMBREL, distance_m=_one_of(rng, 1.1, 1.2, 1.3), heads=2 if hard else 1)
    spec = AmbientSpec(condition="sand_or_snow" if hard else "distinct_shadows", subject="back")
    aim = _aim(5.6 if hard else 4.0, -2.0)
    setup = _setup("Two under, with ND", spec, aim, (light,), filters=FILTERS, method="nd")
    return DrillScene(setup, _started(setup, CameraSettings(aim.f_number, 1 / 250, 100)), setup)


def _hss(rng: np.random.Generator, hard: bool) -> DrillScene:
    needed = bool(rng.integers(2))
    aim = _aim((4.0 if needed else 16.0) if hard else (2.8 if needed else 11.0))
    spec = AmbientSpec(condition="hazy_sun" if hard else "cloudy_bright", subject="back")
    light = Light(unit=SANDERLING, distance_m=_one_of(rng, 1.2, 1.4))
    setup = _setup("HSS or not", spec, aim, (light,), method="hss" if needed else "sync")
    return DrillScene(setup, _started(setup, CameraSettings(aim.f_number, 1 / 1000, 100), True), setup)


def _dark(rng: np.random.Generator, hard: bool) -> DrillScene:
    body = BLUFF.model_copy(update={"dark_edge": "top" if hard else "bottom"})
    reading = Reading(f_number=13, shutter_s=1 / 250, iso=100, needle_stops=-0.33)
    spec = AmbientSpec(by="reading", readings=(reading,), subject="back")
    aim = _aim(13.0, -0.67, lens=Lens(focal_mm=50, subject_m=3.0, background_m=30))
    light = Light(unit=STILT, distance_m=_one_of(rng, 1.2, 1.4))
    stage = Stage(width_m=0.3)
    setup = _setup("Past sync", spec, aim, (light,), body=body, stage=stage, method="past_sync")
    known = setup.model_copy(update={"aim": aim.model_copy(update={"orientation": "grip_up"})})
    return DrillScene(setup, _started(setup, CameraSettings(13.0, 1 / 250, 100)), known)


def _pour(rng: np.random.Generator, hard: bool) -> DrillScene:
    lens = Lens(focal_mm=90, subject_m=0.9, background_m=3)
    motion = Motion(kind="freeze", mover="splash", field_width_m=0.36 if not hard else 0.28)
    spec = AmbientSpec(condition="dark", lamps_lux=1500)
    light = Light(unit=SANDERLING, distance_m=_one_of(rng, 0.5, 0.6, 0.7))
    stage = Stage(kind="object", height_m=0.3, width_m=0.1, camera_height_m=0.3)
    setup = _setup("The pour", spec, _aim(11.0, 0.0, 400, lens), (light,), motion=motion, stage=stage, method="freeze")
    known = setup.model_copy(update={"ambient": spec.model_copy(update={"lamps_on": False})})
    start = replace(_started(setup, CameraSettings(11.0, 1 / 200, 400), dial=1.0), focus_m=1.15)
    return DrillScene(setup, start, known)


def _fill(rng: np.random.Generator, hard: bool) -> DrillScene:
    spec = AmbientSpec(condition="distinct_shadows", subject="sun")
    target = -1.67 if not hard else -2.33
    light = Light(unit=SANDERLING, role="fill", target_stops=target, distance_m=_one_of(rng, 1.8, 2.2, 2.6))
    setup = _setup("Fill that does not show", spec, _aim(16.0, 0.0), (light,), method="sync")
    return DrillScene(setup, _started(setup, CameraSettings(16.0, 1 / 250, 100)), setup)


def _second(rng: np.random.Generator, hard: bool) -> DrillScene:
    key = Light(id="1", unit=WHIMBREL, modifier=SOFTBOX, distance_m=1.5, position=Position(bearing_deg=40))
    rim = Light(
        id="2", unit=SANDERLING, role="rim", target_stops=0.5, distance_m=_one_of(rng, 1.6, 2.0, 2.4),
        position=Position(bearing_deg=-150, height_m=2.0), modifier=SOFTBOX if hard else None,
    )  # fmt: skip
    setup = _setup("The second light", AmbientSpec(condition="dark"), _aim(5.6), (key, rim), method="sync")
    return DrillScene(setup, _started(setup, CameraSettings(5.6, 1 / 125, 100)), setup, right=(0,))


def _group(rng: np.random.Generator, hard: bool) -> DrillScene:
    stage = Stage(kind="group", width_m=6.0 if not hard else 7.0, people=9, depth_m=0.0 if not hard else 1.0)
    light = Light(unit=WHIMBREL, modifier=UMBRELLA, distance_m=_one_of(rng, 3.0, 3.5))
    setup = _setup("A group, evenly", AmbientSpec(condition="dark"), _aim(5.6, -1.0, 800, WIDE), (light,), stage=stage)
    setup = setup.model_copy(update={"method": "sync"})
    away = 9.0 if not hard else 12.0
    known = setup.model_copy(update={"lights": (light.model_copy(update={"distance_m": away}),)})
    return DrillScene(setup, _started(setup, CameraSettings(5.6, 1 / 125, 800)), known)


def _channels(rng: np.random.Generator, hard: bool) -> DrillScene:
    lights = [
        Light(id="1", unit=WHIMBREL, distance_m=1.6, channel=CHANNEL, sends=False, position=Position(bearing_deg=40)),
        Light(id="2", unit=SANDERLING, role="fill", target_stops=-1.5, distance_m=2.0, channel=CHANNEL),
        Light(id="3", unit=STILT, role="rim", target_stops=0.5, distance_m=1.8, channel=CHANNEL,
              position=Position(bearing_deg=-150)),
    ]  # fmt: skip
    setup = _setup("Who does not fire", AmbientSpec(condition="dark"), _aim(5.6), tuple(lights), method="sync")
    rig = _started(setup, CameraSettings(5.6, 1 / 125, 100))
    asleep: set[int] = set()
    for at in rng.permutation(3)[: 2 if hard else 1].tolist():
        fault = int(rng.integers(3))
        if fault == 0:
            rig = rig.with_light(at, channel=CHANNEL + 1 + int(rng.integers(3)))
        elif fault == 1:
            rig = rig.with_light(at, sends=True)
        else:
            asleep.add(at)
    return DrillScene(setup, replace(rig, asleep=frozenset(asleep)), setup, right=(0, 1, 2))


def _automatic(rng: np.random.Generator, hard: bool) -> DrillScene:
    light = Light(unit=SANDERLING, distance_m=_one_of(rng, 1.8, 2.2), automatic=True, compensation_stops=0.0)
    setup = _setup("Automatic power", AmbientSpec(condition="dark"), _aim(5.6), (light,), method="sync")
    misled = _one_of(rng, -1.0, 1.0) * (0.8 if not hard else 1.4)  # a black coat, or a white wall, fills the frame
    return DrillScene(setup, _started(setup, CameraSettings(5.6, 1 / 125, 100)), setup, metering_stops=misled)


def _lasts(rng: np.random.Generator, hard: bool) -> DrillScene:
    light = Light(unit=STILT, distance_m=_one_of(rng, 2.2, 2.6), modifier=None)
    frames, every_s = LASTING[hard]
    setup = _setup("What runs out first", AmbientSpec(condition="dark"), _aim(8.0), (light,), method="sync")
    setup = setup.model_copy(update={"frames": frames})
    known = setup.model_copy(update={"aim": setup.aim.model_copy(update={"iso": 400 if not hard else 1600})})
    return DrillScene(setup, _started(setup, CameraSettings(8.0, 1 / 125, 100)), known, frames=frames, every_s=every_s)


POURED: tuple[What, ...] = ("lamps", "focus", "iso", "dial", "distance")
_SEEN_FIRST: tuple[What, ...] = ("shutter", "iso", "trigger", "dial")
DRILLS: dict[DrillCode, Drill] = {
    one.code: one
    for one in (
        Drill("ambient", _ambient, (*_SEEN_FIRST, "distance", "layers"), ("background", "face"), ambient_first=True),
        Drill("halve", _halve, ("dial",), ("face",)),
        Drill("nd", _nd, ("nd", *_SEEN_FIRST), ("background", "face"), ambient_first=True),
        Drill("hss", _hss, ("hss", *_SEEN_FIRST), ("background", "face", "hss_spared"), ambient_first=True),
        Drill("dark", _dark, ("orientation", *_SEEN_FIRST), ("background", "face", "dark"), ambient_first=True),
        Drill("pour", _pour, POURED, ("face", "frozen", "ghost", "focus"), drops=True),
        Drill("fill", _fill, ("shutter", "trigger", "dial"), ("background", "shadow"), ambient_first=True),
        Drill("second", _second, ("dial", "aperture", "iso"), ("face", "rim")),
        Drill("group", _group, ("distance", "dial", "iso"), ("face", "even")),
        Drill("channels", _channels, ("channel", "sends", "sensor"), ("all_fire",)),
        Drill("automatic", _automatic, ("compensation",), ("face",)),
        Drill("lasts", _lasts, ("iso", "dial"), ("face", "lasts")),
    )
}
OF_AMBIENT = frozenset({"iso", "shutter", "aperture", "nd"})  # settings of the camera that change the ambient


def scene_of(code: DrillCode, seed: int, hard: bool) -> DrillScene:
    """A drill's scene: the same seed, the same scene. Lights that are right already are set so by what is really so."""
    drill = DRILLS[code]
    return drill.scene(np.random.default_rng([seed, CODES.index(code), int(hard)]), hard)
