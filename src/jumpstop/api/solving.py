"""Solving: a stored setup, a setup from outside, one unit with its whole chain, the unit in hand, the scales."""

from functools import lru_cache
from typing import Any

from fastapi import APIRouter, Request, Response

from ..core.kit.errors import CannotSolve
from ..core.physics.scales import Step
from ..core.plan.advice import chosen_method
from ..core.plan.reach import Reach, solve
from ..core.scene.seen import MethodKind
from ..store.errors import NotFound
from ..words.answer import Answer, answer_of
from ..words.in_hand import InHand, in_hand_of
from ..words.kit import printed
from ..words.lanes import steps_of, verdict_words
from ..words.methods import title
from .documents import ERRORS, EVERYWHERE, REFUSED, LightIndex, by_reference, workspace_of, written
from .schemas import LaneDetail, Preferences, Scales, SolvedSetup, SolveIn

router = APIRouter(prefix="/api", tags=["Solving"], responses=EVERYWHERE)


@router.get("/setups/{item_id}/answer", response_model=SolvedSetup, responses=REFUSED)
def answer(request: Request, item_id: str, light: LightIndex = 0) -> Any:
    """A stored setup and what it comes to."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)
    return written(workspace.solved(item, light, meta))


@router.post(
    "/solve", responses={200: by_reference(Answer, "What it comes to."), 422: ERRORS[422]}, response_class=Response
)
def solve_document(request: Request, body: SolveIn) -> Response:
    """Solve a setup for the whole shelf without storing it."""
    table = workspace_of(request).table(body.setup.meter_c)
    if body.light >= len(body.setup.lights):
        raise CannotSolve("no_such_light", number=body.light + 1)
    return written(answer_of(solve(body.setup, table, body.units.step), body.units, body.light))


@router.get("/setups/{item_id}/lanes/{unit_id}", responses=REFUSED)
def lane(
    request: Request, item_id: str, unit_id: str, light: LightIndex = 0, method: MethodKind | None = None
) -> LaneDetail:
    """One unit's chain, jump by jump, with relation and source."""
    reach, units = reach_of(request, item_id, light, method)
    table = reach.solved.table
    if unit_id not in table.ids:
        raise NotFound("This unit is no longer on the shelf.")
    at = table.ids.index(unit_id)
    spare = float(reach.spare[at])
    return LaneDetail(
        name=table.units[at].name,
        method=title(reach.method, reach.solved.setup.body.shutter),
        verdict=verdict_words(str(reach.verdict[at]), spare, int(reach.blocker[at])),
        spare=round(spare, 3),
        sd=round(float(reach.sd[at]), 3),
        p_reach=round(float(reach.p[at]), 3),
        steps=steps_of(reach, at, units),
        printed=[printed(claim) for claim in table.units[at].claims],
    )


@router.get("/setups/{item_id}/in-hand", responses=REFUSED)
def in_hand(request: Request, item_id: str, light: LightIndex = 0) -> InHand:
    """What there is to say of the unit in hand: changes, what the meter must show, what was seen, durations."""
    reach, preferences = reach_of(request, item_id, light, None)
    return in_hand_of(reach.solved, reach, preferences)


def reach_of(request: Request, item_id: str, light: int, method: MethodKind | None) -> tuple[Reach, Preferences]:
    """What the units do in the method asked for, else in the setup's own, else in the advised one."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)
    setup = workspace.setup_of(item, meta)
    solved, preferences = workspace.solve(setup, light, meta)
    return solved.reach(method or chosen_method(solved, preferences.avoid, light), light), preferences


@lru_cache(maxsize=3)
def _scales(step: Step) -> Scales:
    from .choices import scales_of  # late: the schemas that the bounds are read from take a moment

    return scales_of(step)


@router.get("/scales")
def scales(request: Request) -> Scales:
    """Marked values in the person's own steps, the choices a setup offers, bounds, and blank documents."""
    return _scales(workspace_of(request).preferences().step)
