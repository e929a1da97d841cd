"""What the kit that a job has picked does at a light, beside the unit that the setup is compared by."""

from dataclasses import dataclass

from ..core.plan.job.changeover import Standing
from ..core.scene.seen import MethodKind
from .camera import settings_line
from .figures import DisplayUnits
from .methods import title
from .verdict import of_light


@dataclass(slots=True)
class FromKit:
    """What the job's kit has at a light. unit: its id, empty where nothing of the kit is left for it."""

    unit: str
    says: str


def from_kit(shot: Standing, light: int, chosen: MethodKind, units: DisplayUnits) -> FromKit | None:
    """A light of a setup as its job shoots it; None where the light is off, has a unit of its own,
    or is not needed.

    shot: solved for what the job has picked. chosen: the method that the setup itself shows.
    """
    solved, at = shot.solved, shot.units[light]
    own = solved.setup.lights[light]
    if not own.on or own.unit is not None:
        return None
    if at is None:
        return FromKit("", "The job's kit has no unit for this light.")
    reach, method = solved.reach(shot.kind, light), solved.method(shot.kind)
    if reach.ambient_alone is not None and own.dial_stops is None:
        return None
    by = "" if shot.kind == chosen else f" {title(method, solved.setup.body.shutter)}: {settings_line(method.camera)}."
    return FromKit(solved.table.ids[at], f"The job's kit: {of_light(reach, at, units)}{by}")
