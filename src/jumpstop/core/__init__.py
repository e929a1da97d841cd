"""The trade's computation, for scripts: documents in, figures out (see docs/library.md).

What is named here stays; what is deeper may move between versions. Each name is loaded when it is first used.
"""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from .kit.body import Body
    from .kit.errors import CannotSolve, JumpStopError
    from .kit.filter import Filter
    from .kit.modifier import Modifier
    from .kit.shelf import Shelf
    from .kit.table import UnitTable, table_of
    from .kit.unit import Claim, Hss, Unit
    from .plan.change.ladder import ladder
    from .plan.change.levers import levers
    from .plan.job.board import landings_of
    from .plan.job.helps import day_plan
    from .plan.light.levels import levels
    from .plan.light.reach import Reach, Solved, solve
    from .scene.job import Job, JobFile
    from .scene.light import Light
    from .scene.setup import Setup

HOMES = {
    "kit.body": ("Body",),
    "kit.errors": ("CannotSolve", "JumpStopError"),
    "kit.filter": ("Filter",),
    "kit.modifier": ("Modifier",),
    "kit.shelf": ("Shelf",),
    "kit.table": ("UnitTable", "table_of"),
    "kit.unit": ("Claim", "Hss", "Unit"),
    "plan.change.ladder": ("ladder",),
    "plan.change.levers": ("levers",),
    "plan.job.board": ("landings_of",),
    "plan.job.helps": ("day_plan",),
    "plan.light.levels": ("levels",),
    "plan.light.reach": ("Reach", "Solved", "solve"),
    "scene.job": ("Job", "JobFile"),
    "scene.light": ("Light",),
    "scene.setup": ("Setup",),
}
"""Where each public name stands."""

__all__ = [
    "Body", "CannotSolve", "Claim", "Filter", "Hss", "Job", "JobFile", "JumpStopError", "Light", "Modifier", "Reach",
    "Setup", "Shelf", "Solved", "Unit", "UnitTable", "day_plan", "ladder", "landings_of", "levels", "levers", "solve",
    "table_of",
]  # fmt: skip


def __getattr__(name: str) -> Any:
    home = next((home for home, names in HOMES.items() if name in names), None)
    if home is None:
        raise AttributeError(name)
    return getattr(import_module(f".{home}", __name__), name)
