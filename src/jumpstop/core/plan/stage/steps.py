"""The order of work: lights switched on one by one, by one school or the other, and what each step is to show."""

from dataclasses import dataclass
from typing import Literal

from ...scene.light import Role
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..light.levels import Level, levels
from ..light.reach import Solved
from ..light.seen import meter_wants

School = Literal["back", "key"]
ORDERS: dict[School, tuple[Role, ...]] = {
    "back": ("background", "rim", "fill", "key"),
    "key": ("key", "rim", "fill", "background"),
}
"""Back to front, or the key first and then the kicker; both are practised."""


@dataclass(frozen=True)
class WorkStep:
    """One step: the light that is switched on (None: the first, with all off), those that are then on, what every
    receiver comes to, and what a hand meter must read of the new light alone, filters on the lens counted
    [f-number]."""

    light: int | None
    on: tuple[bool, ...]
    levels: tuple[Level, ...]
    meter: float | None


def all_on(setup: Setup) -> Setup:
    """The setup with every light on; itself where they are."""
    if all(light.on for light in setup.lights):
        return setup
    lights = tuple(light.model_copy(update={"on": True}) for light in setup.lights)
    return setup.model_copy(update={"lights": lights})


def order_of(setup: Setup, school: School) -> list[int]:
    """The lights in their order of work; of one role in their own."""
    rank = ORDERS[school].index
    return sorted(range(len(setup.lights)), key=lambda at: rank(setup.lights[at].role))


def steps_of(solved: Solved, kind: MethodKind, units: tuple[int | None, ...], school: School) -> list[WorkStep]:
    """The steps of a setup whose lights are all on; `units` names the unit of each, set at its dial."""
    camera, on = solved.method(kind).camera, [False] * len(units)
    found = [WorkStep(None, tuple(on), levels(solved, kind, (None,) * len(units)), None)]
    for light in order_of(solved.setup, school):
        on[light] = True
        there = levels(solved, kind, tuple(unit if lit else None for unit, lit in zip(units, on, strict=True)))
        unit, meter = units[light], None
        if unit is not None and kind != "hss":
            alone = float(solved.reach(kind, light).flash_at_dial[unit])
            meter = meter_wants(camera.f_number, camera.nd_stops, alone)
        found.append(WorkStep(light, tuple(on), there, meter))
    return found
