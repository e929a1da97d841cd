"""Tables of a setup that answer on location without the program: its chains, by everything that may change there.

What reads them looks up and adds stops, and computes nothing else. For a light in its method:

    spare = flash + aperture + ISO + ND + distance + shutter - need
    need = wanted, of which the ambient gives its part: wanted + share[ambient - wanted]
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ...kit.table import UnitTable
from ...physics import exposure, stops
from ...physics.arrays import Figure
from ...physics.scales import APERTURES, ISOS, SHUTTERS, Series, Step, at_least
from ...physics.units import FEET_PER_METRE
from ...scene.camera import CameraSettings
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.freeze import settings_for
from ..camera.look import needed_s
from ..camera.methods import Method
from ..light.chain import AMBIENT_MOST, NEEDS, chain_of
from ..light.jump import Chain, pick, total
from ..light.one_unit import only
from ..light.reach import ALONE, Solved, scene_of
from ..light.scene import Variants
from .ladder import FEET, METRES

__all__ = ["ALONE", "AMBIENT_MOST", "Pocket", "PocketLight", "PocketMark", "pocket_of", "share_table"]
SHARE_STEPS = 48  # to a stop of ambient against what is wanted
SHARE_FROM = -8.0  # stops: ambient darker than this gives nothing
MOST_STOPS = 4.0  # aperture, ISO and shutter are tabled so far from the plan [stops]
NDS = tuple(range(11))  # stops of neutral density on a card


def share_table() -> list[float]:
    """What the flash must give against what is wanted [stops], by the ambient against it: from SHARE_FROM in steps of
    1 / SHARE_STEPS; never less than the ambient may help."""
    levels = np.arange(round(-SHARE_FROM * SHARE_STEPS)) / SHARE_STEPS + SHARE_FROM
    return [round(float(one), 5) for one in np.maximum(stops.flash_share(levels), -AMBIENT_MOST)]


@dataclass(frozen=True)
class PocketMark:
    """One marked value, and the stops that going to it from the plan adds to the light in the picture."""

    value: float
    stops: float


@dataclass(frozen=True)
class PocketLight:
    """One light with its unit. flash: at full power, at the plan's settings, on its own receiver [stops from correct].

    clips: for each shutter time, what of a short flash is lost at full power [stops, negative]; gone once it is dialled
    down where `cut`. shutters: what each time adds to the flash: HSS only. least, most: the dial's ends [stops below
    full]. distances: marked ones, and what each adds.
    """

    light: int
    unit: int
    flash: float
    wanted: float
    holds_ambient: bool
    dial_stops: float
    step: float
    least: float
    most: float
    cut: bool
    clips: tuple[float, ...]
    shutters: tuple[float, ...]
    distances: tuple[PocketMark, ...]
    distance: int


@dataclass(frozen=True)
class Pocket:
    """One setup in its method: planned marks by their places, what each adds, and the ambient at the plan's settings.

    shutters: what each time adds to the ambient.
    """

    kind: MethodKind
    apertures: tuple[PocketMark, ...]
    aperture: int
    isos: tuple[PocketMark, ...]
    iso: int
    shutters: tuple[PocketMark, ...]
    shutter: int
    nds: tuple[PocketMark, ...]
    nd: int
    lit: float
    background: float
    lights: tuple[PocketLight, ...]


def pocket_of(solved: Solved, kind: MethodKind, units: Sequence[int | None], step: Step, feet: bool) -> Pocket:
    """The tables of one setup in one method, for the unit of each light (None: none). Lights without one are left out,
    and those that dial themselves."""
    setup, camera = solved.setup, solved.method(kind).camera
    apertures = _marks("aperture", camera.f_number, step)
    isos = _marks("iso", camera.iso, step)
    isos = [one for one in isos if setup.body.iso_min <= one.value <= setup.body.iso_max] or isos
    times = _marks("shutter", camera.shutter_s, step)
    allowed = [one for one in times if _allowed(setup, kind, one.value, camera)]
    planned = _at(allowed, camera.shutter_s)
    nds = sorted({*map(float, NDS), camera.nd_stops})
    lights = [
        _light(solved, kind, at, unit, [one.value for one in allowed], planned, feet)
        for at, unit in enumerate(units)
        if unit is not None
        and setup.lights[at].on
        and not setup.lights[at].automatic
        and solved.reach(kind, at).able[unit]
    ]
    return Pocket(
        kind,
        tuple(apertures),
        _at(apertures, camera.f_number),
        tuple(isos),
        _at(isos, camera.iso),
        tuple(allowed),
        planned,
        tuple(PocketMark(one, camera.nd_stops - one) for one in nds),
        nds.index(camera.nd_stops),
        solved.ambient.lit_ev - camera.ev,
        solved.ambient.background_ev - camera.ev,
        tuple(lights),
    )


SCALES: dict[str, tuple[Series, Callable[[float], float]]] = {
    "aperture": (APERTURES, lambda f: -float(exposure.av(APERTURES.exact(f)))),
    "iso": (ISOS, lambda iso: float(np.log2(ISOS.exact(iso)))),
    "shutter": (SHUTTERS, lambda t: float(np.log2(SHUTTERS.exact(t)))),
}
"""The marked values of each figure of the camera, and the light that one lets in [stops]."""


@lru_cache(maxsize=500)
def _marks(of: str, planned: float, step: Step) -> list[PocketMark]:
    """The marked values within reach of the planned one, and what each adds [stops]."""
    series, size = SCALES[of]
    marks = [PocketMark(one, size(one) - size(planned)) for one in sorted({*series.steps[step], planned}, key=size)]
    return [mark for mark in marks if abs(mark.stops) <= MOST_STOPS + 1e-9]


def _allowed(setup: Setup, kind: MethodKind, seconds: float, camera: CameraSettings) -> bool:
    """Whether a method takes a shutter time: the planned one always; with one clean pulse none faster than sync."""
    if seconds == camera.shutter_s:
        return True
    if not at_least(seconds, setup.body.top_speed_s):
        return False
    return at_least(seconds, setup.fastest_flash_s(camera.f_number)) != (kind in ("hss", "past_sync"))


def _light(
    solved: Solved, kind: MethodKind, at: int, unit: int, times: Sequence[float], planned: int, feet: bool
) -> PocketLight:
    setup, reach, alone = solved.setup, solved.reach(kind, at), only(solved, unit)
    camera = reach.method.camera
    methods = [replace(reach.method, camera=replace(camera, shutter_s=seconds)) for seconds in times]
    whole, clips = _flash(setup, solved, alone, at, methods)
    marks = sorted({*(mark / FEET_PER_METRE if feet else mark for mark in (FEET if feet else METRES))})
    metres = sorted({*marks, setup.lights[at].distance_m})
    here = setup.lights[at]
    placed = [here.model_copy(update={"distance_m": one, "distance_free": False}) for one in metres]
    scene = scene_of(
        setup.model_copy(update={"lights": tuple(placed)}), alone, solved.ambient, [reach.method], Variants(setup, at)
    )
    there = _whole(chain_of(scene))
    own = scene.placing.own
    distances = [
        PocketMark(one, float(pick(there, (0, light, own[light], 0)) - whole[planned]))
        for light, one in enumerate(metres)
    ]
    frozen = settings_for(alone, needed_s(setup)) if kind == "freeze" else None
    least = 0.0 if frozen is None else float(frozen.least[0])
    most = float(alone.dial_range[0]) if frozen is None else float(frozen.most[0])
    return PocketLight(
        light=at,
        unit=unit,
        flash=float(whole[planned]),
        wanted=reach.wanted_stops,
        holds_ambient=setup.lights[at].role == "key",
        dial_stops=float(reach.below_full[unit]),
        step=float(alone.step[0]),
        least=least,
        most=most,
        cut=not bool(alone.tailed[0]),
        clips=tuple(float(one) for one in clips),
        shutters=tuple(float(one - whole[planned]) for one in whole),
        distances=tuple(distances),
        distance=metres.index(setup.lights[at].distance_m),
    )


def _flash(
    setup: Setup, solved: Solved, alone: UnitTable, at: int, methods: Sequence[Method]
) -> tuple[list[float], list[float]]:
    """(flash at full power without what a short window clips, what that clips) [stops], for each method."""
    scene = scene_of(setup, alone, solved.ambient, methods)
    chain = chain_of(scene)
    whole, clips = _whole(chain), total(tuple(jump for jump in chain if jump.effect == "tail"))
    places = [(number, at, scene.placing.own[at], 0) for number in range(len(methods))]
    return [pick(whole, place) for place in places], [pick(clips, place) for place in places]


def _whole(chain: Chain) -> Figure:
    """The flash at full power without what a short window clips [stops]: (methods, lights, receivers, units)."""
    return total(tuple(jump for jump in chain if jump.effect not in NEEDS and jump.effect != "tail"))


def _at(marks: Sequence[PocketMark], value: float) -> int:
    return min(range(len(marks)), key=lambda at: abs(np.log2(marks[at].value / value)))
