"""A setup solved for the unit in hand alone: what another distance, layer or setting would come to."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from ...kit.errors import CannotSolve
from ...kit.learned import Learned
from ...kit.table import UnitTable, table_of
from ...kit.unit import Unit
from ...physics.scales import Step
from ...scene.camera import CameraSettings
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.ambient import ambient_of
from ..camera.fixed import method_of
from .chain import chain_of
from .reach import Solved, landed, scene_of
from .scene import Variants


@dataclass(frozen=True)
class Landing:
    """Where one unit comes to: stops in hand, their doubt, the dial [stops below full], light left there, too much
    at the lowest setting; how far the background lies from what was asked, and the camera for it."""

    spare: float
    sd: float
    below_full: float
    left: float
    too_bright: float
    off_stops: float
    camera: CameraSettings


@lru_cache(maxsize=32)
def table_for(unit: Unit, meter_c: float, unit_id: str, learned: Learned | None = None) -> UnitTable:
    """A shelf of one."""
    return table_of([unit], meter_c, [unit_id], learned)


def only(solved: Solved, unit: int) -> UnitTable:
    """The shelf of a solved setup with just this unit on it."""
    return table_for(solved.table.units[unit], solved.setup.meter_c, solved.table.ids[unit], solved.table.learned)


def landing(setup: Setup, table: UnitTable, kind: MethodKind, light: int, step: Step) -> Landing | None:
    """Where a shelf's first unit comes to; None where the method or the unit cannot be had."""
    try:
        return landings(setup, table, kind, light, step, [setup.lights[light]])[0]
    except CannotSolve:
        return None


def landings(
    setup: Setup, table: UnitTable, kind: MethodKind, light: int, step: Step, variants: Sequence[Light]
) -> list[Landing | None]:
    """Where a shelf's first unit comes to with each of these in a light's place, all at once (see `landing`)."""
    ambient = ambient_of(setup.ambient, setup.meter_c)
    method = method_of(setup, ambient, step, kind)
    if not method.possible or not len(table):
        return [None] * len(variants)
    among = setup.model_copy(update={"lights": tuple(variants)})
    scene = scene_of(among, table, ambient, [method], Variants(setup, light))
    found = landed(scene, chain_of(scene))
    return [
        None
        if found.blocker[0, at, 0]
        else Landing(
            spare=float(found.spare[0, at, 0]),
            sd=float(found.sd[0, at, 0]),
            below_full=float(found.below_full[0, at, 0]),
            left=float(found.left[0, at, 0]),
            too_bright=float(found.too_bright[0, at, 0]),
            off_stops=method.off_stops,
            camera=method.camera,
        )
        for at in range(len(variants))
    ]


def with_light(setup: Setup, at: int, **changed: object) -> Setup:
    """The setup with one of its lights changed."""
    lights = list(setup.lights)
    lights[at] = lights[at].model_copy(update=changed)
    return setup.model_copy(update={"lights": tuple(lights)})
