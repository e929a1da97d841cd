"""Solving: a stored setup, a setup from outside, the scales."""

from typing import Any

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from ..core.kit.errors import CannotSolve
from ..core.kit.kinds import KIT_MODELS
from ..core.physics.scales import Step
from ..core.plan.job.worked_out import solved_on
from ..core.scene.setup import Setup
from ..words.answer import Answer, answer_of
from ..words.figures import kept
from ..words.forms import FieldText, form_of
from .documents import ERRORS, EVERYWHERE, REFUSED, LightIndex, Sight, by_reference, workspace_of, written
from .schemas import Scales, SolvedSetup, SolveIn

router = APIRouter(prefix="/api", tags=["Solving"], responses=EVERYWHERE)


@router.get("/setups/{item_id}/answer", response_model=SolvedSetup, responses=REFUSED)
async def answer(request: Request, item_id: str, light: LightIndex = 0) -> Any:
    """A stored setup and what it comes to."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)

    def solved() -> Response:
        return written(workspace.solved(item, light, meta))

    # A thread is for what takes long: to another one and back is a tenth of a quick answer.
    return solved() if workspace.at_hand(meta) else await run_in_threadpool(solved)


@router.post("/setups/{item_id}/foreseen", response_model=SolvedSetup, responses=REFUSED)
def foreseen(request: Request, item_id: str, doc: Setup, light: LightIndex = 0, sight: Sight = ()) -> Any:
    """What a stored setup would come to with other figures: asked before a likely edit, and nothing is stored."""
    return written(workspace_of(request).foreseen(item_id, doc, light, sight))


@router.post(
    "/solve", responses={200: by_reference(Answer, "What it comes to."), 422: ERRORS[422]}, response_class=Response
)
def solve_document(request: Request, body: SolveIn) -> Response:
    """Solve a setup for the whole shelf without storing it."""
    if body.light >= len(body.setup.lights):
        raise CannotSolve("no_such_light", number=body.light + 1)
    return written(
        answer_of(solved_on(body.setup, workspace_of(request).shelf(), body.units.step), body.units, body.light)
    )


@kept(3)
def _scales(step: Step) -> Scales:
    from .choices import scales_of  # late: the schemas that the bounds are read from take a moment

    return scales_of(step)


@kept(1)
def _forms() -> dict[str, list[FieldText]]:
    return {kind: form_of(model) for kind, model in KIT_MODELS.items()}


@router.get("/forms")
def forms() -> dict[str, list[FieldText]]:
    """What the form of each kind of kit asks, in order."""
    return _forms()


@router.get("/scales")
def scales(request: Request) -> Scales:
    """Marked values in the person's own steps, the choices a setup offers, bounds, and blank documents."""
    return _scales(workspace_of(request).preferences().step)
