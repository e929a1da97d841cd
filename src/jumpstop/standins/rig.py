"""What is set on location, and what a frame of it gets: worked out by the core, from what is really so."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ..core.kit.learned import Key
from ..core.kit.table import UnitTable
from ..core.physics.arrays import Floats
from ..core.physics.scales import SHUTTERS, at_least
from ..core.physics.shutter import lit_fraction
from ..core.physics.stops import add_light
from ..core.plan.camera.ambient import Ambient, ambient_of
from ..core.plan.camera.methods import Method, dark_edge
from ..core.plan.camera.timing import of_unit
from ..core.plan.light.levels import Level, levels
from ..core.plan.light.reach import Solved, solved_in
from ..core.scene.camera import CameraSettings
from ..core.scene.light import Light
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup
from .truth import Truth, things_of

ROWS = 120  # rows of a frame that the shutter is followed over; a matter of drawing


@dataclass(frozen=True)
class Rig:
    """What stands and is set: a setup whose lights have their dials, the camera, and what is switched.

    hss: armed. fire: whether the trigger is on. asleep: lights that do not hear it. focus_m: where the lens is
    focused; None: on the subject.
    """

    setup: Setup
    camera: CameraSettings
    hss: bool = False
    fire: bool = True
    asleep: frozenset[int] = frozenset()
    focus_m: float | None = None

    def with_light(self, at: int, **changed: object) -> "Rig":
        """With one of its lights changed."""
        lights = list(self.setup.lights)
        lights[at] = lights[at].model_copy(update=changed)
        return replace(self, setup=self.setup.model_copy(update={"lights": tuple(lights)}))

    @property
    def method(self) -> Method:
        """What these settings come to on this body."""
        body, camera = self.setup.body, self.camera
        exact, sync = (float(SHUTTERS.exact(one)) for one in (camera.shutter_s, self.sync_s))
        synced = at_least(exact, sync)
        if body.shutter != "focal_plane":
            return Method("leaf", camera)
        if self.hss and body.hss:
            return Method("hss", camera)
        if synced:
            return Method("nd" if camera.nd_stops else "sync", camera)
        lit = float(lit_fraction(camera.shutter_s, body.curtain_s))
        edge = "bottom" if body.dark_edge == "unknown" else body.dark_edge
        return Method("past_sync", camera, lit=lit, dark_edge=dark_edge(edge, self.setup.aim.orientation))

    @property
    def sync_s(self) -> float:
        """The shortest time at which the whole frame gets the flash [s]."""
        return self.setup.fastest_flash_s(self.camera.f_number)

    def fires(self, at: int) -> bool:
        """Whether a light goes off with the frame."""
        return self.fire and self.setup.lights[at].on and at not in self.asleep


@dataclass(frozen=True, eq=False)
class Exposed:
    """A frame that was taken: levels of every receiver, what each light gave; `solved` in the one method that was set.

    rows: what each light gave each row, against what `levels` says of it, of shape (lights, ROWS), in the order in
    which the curtains pass.
    """

    rig: Rig
    solved: Solved
    levels: tuple[Level, ...]
    units: tuple[int | None, ...]
    place_off: tuple[float, ...]

    @property
    def kind(self) -> MethodKind:
        """The method."""
        return self.solved.kinds[0]

    @property
    def method(self) -> Method:
        """The method, with where it leaves the frame dark."""
        return self.solved.method(self.kind)

    def level(self, receiver: str) -> Level:
        """One receiver."""
        return next(one for one in self.levels if one.receiver == receiver)

    def alone(self, light: int) -> float:
        """What a light gives its own receiver [stops from correct]; -inf where it did not fire."""
        return self.levels[self.solved.placing.own[light]].lights[light]

    def t01_s(self, light: int) -> float:
        """How long a light's flash lasted (t.1) [s]; NaN where that is not known."""
        unit = self.units[light]
        return float("nan") if unit is None else float(self.solved.reach(self.kind, light).t01_s[unit])

    @cached_property
    def rows(self) -> Floats:
        """See above."""
        out = np.ones((len(self.units), ROWS))
        for at, unit in enumerate(self.units):
            if unit is None or not self.rig.fires(at):
                continue
            got = of_unit(self.rig.setup, self.method, self.solved.table, unit, self.t01_s(at)).rows(count=ROWS)
            middle = float(np.mean(got)) if self.kind == "hss" else float(got[_middle(self.method)])
            out[at] = got / middle if middle > 0 else 0.0
        return out


def _middle(method: Method) -> int:
    """The row by which the levels are told: the middle of what is lit, which ends with the last row."""
    return round((1 - method.lit / 2) * (ROWS - 1))


def _aimed(light: Light, off: float) -> Light:
    """A light whose power is set through the lens, as its metering is misled."""
    wanted = (light.compensation_stops or 0.0) + off
    return light.model_copy(update={"automatic": False, "dial_stops": None, "target_stops": wanted})


def solved_as(rig: Rig, table: UnitTable, ambient: Ambient, metering_stops: float = 0.0) -> Solved:
    """What is set, solved for a shelf in the one method that it comes to."""
    lights = tuple(_aimed(one, metering_stops) if one.automatic else one for one in rig.setup.lights)
    return solved_in(rig.setup.model_copy(update={"lights": lights}), table, ambient, (rig.method,))


def exposed(
    rig: Rig, said: UnitTable, truth: Truth, ambient: Ambient | None = None, misled_stops: float = 0.0
) -> Exposed:
    """A frame. said: the units as they are said to be. ambient: as it is; drawn by the truth where none is given.
    misled_stops: how far what is in the frame misleads automatic flash."""
    setup = rig.setup
    planned = ambient_of(setup.ambient, setup.meter_c)
    misled = truth.metering_stops + misled_stops
    told = solved_as(rig, said, planned, misled)
    things, own = dict[Key, float](), list[float]()
    for at in range(len(setup.lights)):
        unit = told.taken[at]
        found, doubt = things_of(told, at, unit) if unit is not None else ({}, 0.0)
        things |= found
        own.append(truth.place_off(setup.name, at, setup.lights[at].distance_m, doubt))
    ambient = truth.ambient(planned) if ambient is None else ambient
    solved = solved_as(rig, truth.table(said, things), ambient, misled)
    units = tuple(unit if rig.fires(at) else None for at, unit in enumerate(solved.taken))
    found_levels = levels(solved, solved.kinds[0], units)
    return Exposed(rig, solved, tuple(_moved(one, own) for one in found_levels), units, tuple(own))


def shifted(ambient: Ambient, stops: float) -> Ambient:
    """An ambient that is brighter by so much everywhere [stops]."""
    names = ("background_ev", "lit_ev", "shadow_ev", "shade_ev", "edge_ev")
    return replace(ambient, **{name: getattr(ambient, name) + stops for name in names})


def brightened(frame: Exposed, stops: float) -> Exposed:
    """A frame that comes out brighter by so much all over [stops]: as a camera's tones bend it."""
    levels = tuple(
        Level(one.receiver, one.ambient + stops, tuple(light + stops for light in one.lights), one.total + stops)
        for one in frame.levels
    )
    return replace(frame, levels=levels)


def _moved(level: Level, own: list[float]) -> Level:
    """A receiver with what the places of the lights add."""
    lights = tuple(one + off for one, off in zip(level.lights, own, strict=True))
    total = float(np.asarray(add_light(level.ambient, *lights)))
    return Level(level.receiver, level.ambient, lights, total)


def as_solved(solved: Solved, kind: MethodKind) -> Rig:
    """A rig set as a solved setup says: camera, and each light at its dial."""
    setup = solved.setup
    rig = Rig(setup, solved.method(kind).camera, hss=kind == "hss")
    for at, light in enumerate(setup.lights):
        unit = solved.taken[at]
        if unit is not None and not light.automatic:
            rig = rig.with_light(at, dial_stops=float(solved.reach(kind, at).below_full[unit]))
    return rig
