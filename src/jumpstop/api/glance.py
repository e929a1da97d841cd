"""The shelf compared by looking: at a glance on one basis, and as a map of two measures."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request

from .. import service
from ..core.kit.errors import CannotSolve
from ..core.kit.shelf import Shelf
from ..core.kit.table import UnitTable
from ..core.plan.job.worked_out import solved_on
from ..core.plan.light.advice import chosen_method
from ..core.plan.need.glance import Glance, Measure, bare, in_picture, worst_of_job
from ..store.errors import NotFound
from ..typical import typical_shelf
from ..words.figures import DisplayUnits, length
from ..words.glance import BARE, GlanceText, MapText, glance_text, map_text
from .documents import EVERYWHERE, REFUSED, LightIndex, workspace_of
from .workspace import Workspace

router = APIRouter(prefix="/api/shelf", tags=["Shelf"], responses=EVERYWHERE)
Id = Annotated[str | None, Query(max_length=64)]
On = Annotated[Literal["bare", "modifier", "setup", "job"], Query(description="The basis that units are compared on.")]
Metres = Annotated[float, Query(ge=0.2, le=100, description="Distance [m], for a modifier.")]
Time = Annotated[float, Query(ge=1 / 32000, le=1 / 60, description="Time at which HSS is compared [s].")]
Classes = Annotated[bool, Query(description="Typical classes, not the own shelf.")]


@router.get("/glance", responses=REFUSED)
def glance(
    request: Request,
    on: On = "bare",
    of: Id = None,
    light: LightIndex = 0,
    distance_m: Metres = 1.0,
    hss_s: Time = 1 / 1000,
) -> GlanceText:
    """Every unit on one basis: bare, through a modifier at a distance, or at a light of a setup."""
    workspace = workspace_of(request)
    table, found, basis = _found(workspace, on, of, light, distance_m, hss_s, classes=False)
    return glance_text(table, found, basis, on in ("setup", "job"), workspace.preferences())


@router.get("/map", responses=REFUSED)
def shelf_map(
    request: Request,
    x: Measure = "weight",
    y: Measure = "light",
    on: On = "bare",
    of: Id = None,
    light: LightIndex = 0,
    distance_m: Metres = 1.0,
    hss_s: Time = 1 / 1000,
    classes: Classes = False,
) -> MapText:
    """Two measures against each other, the best trade-offs first among all."""
    workspace = workspace_of(request)
    table, found, basis = _found(workspace, on, of, light, distance_m, hss_s, classes)
    return map_text(table, found, (x, y), basis, on in ("setup", "job"), workspace.preferences())


def _found(
    workspace: Workspace, on: str, of: str | None, light: int, distance_m: float, hss_s: float, classes: bool
) -> tuple[UnitTable, Glance, str]:
    """The units, what they come to, and the basis in words. Raises NotFound, CannotSolve."""
    preferences = workspace.preferences()
    shelf = typical_shelf() if classes else workspace.shelf()
    table = shelf.table
    if not len(table):
        raise CannotSolve("empty_shelf")
    if on == "modifier":
        front = next((one for one in workspace.modifiers() if one.id == of), None)
        if front is None:
            raise NotFound("modifier_gone")
        return table, bare(table, hss_s, front, distance_m), _through(front.name, distance_m, preferences)
    if on == "setup":
        setup = workspace.setup_in_job(workspace.store.item("setups", of or ""))
        solved, _ = workspace.solve(setup, light)
        if classes:
            solved = solved_on(setup, shelf, preferences.step, preferences.avoid)
        if not solved.kinds:
            raise CannotSolve("no_usable_unit")
        kind = chosen_method(solved, preferences.avoid, light)
        return _of(shelf, solved.table, in_picture(solved, kind, light), classes, f"for {solved.setup.name}")
    if on == "job":
        file = workspace.job_file(of or "")
        board = service.coverage(file, shelf, preferences.step, preferences.avoid)
        return _of(shelf, board.table, worst_of_job(board), classes, f"worst of {file.job.name}")
    return table, bare(table, hss_s), BARE


def _of(shelf: Shelf, wide: UnitTable, found: Glance, classes: bool, basis: str) -> tuple[UnitTable, Glance, str]:
    """Of the classes alone, where they are asked for; the units that a setup holds itself stand behind them."""
    return (shelf.table, found.first(len(shelf)), basis) if classes else (wide, found, basis)


def _through(name: str, distance_m: float, units: DisplayUnits) -> str:
    return f"through {name}, at {length(distance_m, units)}"
