"""Solving: a stored setup, a setup from outside, one lane with its whole chain, the scales."""

from typing import Annotated

from fastapi import APIRouter, Query, Request

from ..core import exposure
from ..core.light import CONDITIONS
from ..core.modifiers import GEL_NAMES
from ..core.reach import solve
from ..core.setup import WayKind
from ..formats.answer import Answer, advised_way, answer_of, lanes_of, steps_of
from ..store.documents import MissingError
from .desk import Desk
from .documents import ERRORS, desk_of
from .schemas import LaneDetail, Scales, Solved, SolveIn

router = APIRouter(prefix="/api", tags=["Solving"])
LightIndex = Annotated[int, Query(ge=0, le=7, description="Which of the setup's lights, from 0.")]


@router.get("/setups/{item_id}/answer", responses={404: ERRORS[404]})
def answer(request: Request, item_id: str, light: LightIndex = 0) -> Solved:
    """A stored setup and what it comes to."""
    desk = desk_of(request)
    return desk.solved(desk.store.item("setups", item_id), light)


@router.post("/solve", responses={422: ERRORS[422]})
def solve_document(request: Request, body: SolveIn) -> Answer:
    """Solve a setup for the whole shelf without storing it."""
    ids, table = desk_of(request).table(body.setup.meter_c)
    return answer_of(body.setup, solve(body.setup, table, body.light), table, ids, body.manner)


@router.get("/setups/{item_id}/lanes/{unit_id}", responses={404: ERRORS[404], 422: ERRORS[422]})
def lane(request: Request, item_id: str, unit_id: str, light: LightIndex = 0, way: WayKind | None = None) -> LaneDetail:
    """One unit's chain, jump by jump, with relation and source."""
    desk: Desk = desk_of(request)
    setup = desk.setup_of(desk.store.item("setups", item_id))
    ids, table = desk.table(setup.meter_c)
    if unit_id not in ids:
        raise MissingError("This unit is no longer on the shelf.")
    index = ids.index(unit_id)
    reaches = solve(setup, table, light)
    kind = way or setup.way or advised_way(reaches)
    reach = next(found for found in reaches if found.way.kind == kind)
    return LaneDetail(
        lane=lanes_of(reach, table, ids, desk.preferences())[index],
        way=reach.way.title,
        steps=steps_of(reach, index, desk.preferences()),
        printed=[claim.printed for claim in table.units[index].claims],
    )


@router.get("/scales")
def scales(request: Request) -> Scales:
    """Marked apertures, times and ISOs on the person's own steps, and the words for conditions and gels."""
    step = desk_of(request).preferences().step
    return Scales(
        apertures=list(exposure.APERTURES.steps[step]),
        shutters=list(exposure.SHUTTERS.steps[step]),
        isos=list(exposure.ISOS.steps[step]),
        conditions={key: figures.name for key, figures in CONDITIONS.items()},
        gels=dict(GEL_NAMES),
    )
