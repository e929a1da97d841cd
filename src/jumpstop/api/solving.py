"""Solving: a stored setup, a setup from outside, one lane with its whole chain, the day, the shutter, the scales."""

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request

from ..core import exposure
from ..core.counsel import advised_way
from ..core.daylight import SKIES
from ..core.light import CONDITIONS
from ..core.modifiers import GEL_NAMES
from ..core.motion import MOVERS
from ..core.reach import Reach, solve
from ..core.setup import Setup, WayKind
from ..core.table import Table
from ..formats.answer import Answer, answer_of
from ..formats.day import Day, day_of
from ..formats.film import Film, film_of
from ..formats.lanes import lanes_of, steps_of
from ..store.documents import MissingError
from .documents import ERRORS, desk_of, written
from .schemas import LaneDetail, Preferences, Scales, Solved, SolveIn

router = APIRouter(prefix="/api", tags=["Solving"])
LightIndex = Annotated[int, Query(ge=0, le=7, description="Which of the setup's lights, from 0.")]


@router.get("/setups/{item_id}/answer", response_model=Solved, responses={404: ERRORS[404]})
def answer(request: Request, item_id: str, light: LightIndex = 0) -> Any:
    """A stored setup and what it comes to."""
    desk = desk_of(request)
    return written(desk.solved(desk.store.item("setups", item_id), light))


@router.post("/solve", responses={422: ERRORS[422]})
def solve_document(request: Request, body: SolveIn) -> Answer:
    """Solve a setup for the whole shelf without storing it."""
    ids, table = desk_of(request).table(body.setup.meter_c)
    return answer_of(body.setup, solve(body.setup, table, body.light), table, ids, body.manner)


@router.get("/setups/{item_id}/lanes/{unit_id}", responses={404: ERRORS[404], 422: ERRORS[422]})
def lane(request: Request, item_id: str, unit_id: str, light: LightIndex = 0, way: WayKind | None = None) -> LaneDetail:
    """One unit's chain, jump by jump, with relation and source."""
    setup, manner, ids, table = _opened(request, item_id)
    if unit_id not in ids:
        raise MissingError("This unit is no longer on the shelf.")
    index = ids.index(unit_id)
    reach = _reach(setup, manner, table, light, way)
    if reach is None:
        raise ValueError("This way cannot be: there is no chain to show.")
    return LaneDetail(
        lane=lanes_of(reach, table, ids, manner)[index],
        way=reach.way.title,
        steps=steps_of(reach, index, manner),
        printed=[claim.printed for claim in table.units[index].claims],
    )


@router.get("/setups/{item_id}/day", responses={404: ERRORS[404], 422: ERRORS[422]})
def day(request: Request, item_id: str) -> Day:
    """The day's light at the setup's place: its course, golden hours, and when the open shade is lost."""
    desk = desk_of(request)
    return day_of(desk.setup_of(desk.store.item("setups", item_id)).there)


@router.get("/setups/{item_id}/film", responses={404: ERRORS[404], 422: ERRORS[422]})
def film(request: Request, item_id: str, light: LightIndex = 0, way: WayKind | None = None) -> Film:
    """How curtains and flash meet, moment by moment, for the best unit of a way."""
    setup, manner, _, table = _opened(request, item_id)
    reach = _reach(setup, manner, table, light, way)
    if reach is None:
        raise ValueError("This way cannot be: there is nothing to show.")
    return film_of(setup, reach, table)


def _opened(request: Request, item_id: str) -> tuple[Setup, Preferences, list[str], Table]:
    """A stored setup, the person's preferences, and the shelf, from one reading of the counts."""
    desk = desk_of(request)
    meta = desk.store.meta()
    setup = desk.setup_of(desk.store.item("setups", item_id), meta)
    return setup, desk.preferences(meta), *desk.table(setup.meter_c, meta)


def _reach(setup: Setup, manner: Preferences, table: Table, light: int, way: WayKind | None) -> Reach | None:
    """What the units do in the way asked for, else in the setup's own, else in the advised one."""
    solved = solve(setup, table, light)
    return solved.reaches.get(way or setup.way or advised_way(setup, solved, manner.avoid))


@router.get("/scales")
def scales(request: Request) -> Scales:
    """Marked apertures, times and ISOs on the person's own steps, and the words for the choices a setup offers."""
    step = desk_of(request).preferences().step
    return Scales(
        apertures=list(exposure.APERTURES.steps[step]),
        shutters=list(exposure.SHUTTERS.steps[step]),
        isos=list(exposure.ISOS.steps[step]),
        conditions={key: figures.name for key, figures in CONDITIONS.items()},
        lamp_lit=[key for key, figures in CONDITIONS.items() if figures.lamps],
        skies={key: figures.name for key, figures in SKIES.items()},
        movers={key: name for key, (name, _) in MOVERS.items()},
        gels=dict(GEL_NAMES),
    )
