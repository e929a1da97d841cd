"""The order of work, in words."""

import math
from dataclasses import dataclass

from ..core.plan.light.levels import Level
from ..core.plan.light.reach import Solved
from ..core.plan.stage.steps import School, WorkStep, steps_of
from ..core.scene.receivers import RECEIVERS
from ..core.scene.seen import MethodKind
from .camera import settings_line
from .figures import DisplayUnits, dial, iso, marked, stops
from .kit import RECEIVER_NAMES, ROLES


@dataclass(slots=True)
class StepText:
    """One step: what to do, what the hand meter must read, what the frame shows; and which lights are then on."""

    does: str
    meter: str
    frame: str
    on: list[bool]


def steps_text(
    solved: Solved, kind: MethodKind, units: tuple[int | None, ...], school: School, words: DisplayUnits
) -> list[StepText]:
    """The steps of a setup whose lights are all on."""
    return [_step(solved, kind, units, step, words) for step in steps_of(solved, kind, units, school)]


def _step(
    solved: Solved, kind: MethodKind, units: tuple[int | None, ...], step: WorkStep, words: DisplayUnits
) -> StepText:
    camera = solved.method(kind).camera
    if step.light is None:
        does = f"Flash off: set {settings_line(camera)}, and leave it"
        return StepText(does, "", _frame(step.levels, solved), list(step.on))
    light, unit = solved.setup.lights[step.light], units[step.light]
    name = f"light {step.light + 1}, {ROLES[light.role]}"
    if unit is None:
        return StepText(f"Switch on {name}: no unit can be used", "", "", list(step.on))
    one = solved.table.units[unit]
    below = float(solved.reach(kind, step.light).below_full[unit])
    does = f"Switch on {name}: {one.name} at {dial(one.scale, below, words, one.watt_seconds)}"
    where = RECEIVER_NAMES[solved.placing.receivers[solved.placing.own[step.light]]]
    meter = "no flash meter reads high-speed sync: look at the frame"
    if step.meter is not None:
        meter = f"meter, this light alone, {where}: f/{marked(step.meter)} at {iso(camera.iso)}"
    return StepText(does, meter, _frame(step.levels, solved), list(step.on))


def _frame(found: tuple[Level, ...], solved: Solved) -> str:
    """What the frame shows, receiver by receiver; the edge where a light or the sun makes one."""
    rim = any(light.role == "rim" for light in solved.setup.lights)
    told = [one for one in found if not (of := RECEIVERS[one.receiver]).grouped and (rim or not of.seldom)]
    return ", ".join(f"{RECEIVER_NAMES[one.receiver]} {_level(one.total)}" for one in told)


def _level(level: float) -> str:
    return "black" if math.isinf(level) or level < -8 else stops(level)
