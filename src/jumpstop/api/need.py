"""What is needed, without a unit: of a setup's light, and of a whole job as a request."""

from fastapi import APIRouter, Request, Response

from .. import service
from ..core.kit.errors import CannotSolve
from ..formats.table import csv_of
from ..typical import typical_shelf
from ..words.need import NeedsText, RequestText, needs_text, request_text
from .documents import EVERYWHERE, REFUSED, LightIndex, workspace_of
from .jobs import file_answer

router = APIRouter(prefix="/api", tags=["Need"], responses=EVERYWHERE)


@router.get("/setups/{item_id}/need", responses=REFUSED)
def setup_need(request: Request, item_id: str, light: LightIndex = 0) -> NeedsText:
    """What a light of a stored setup asks of whatever unit stands there, method by method."""
    workspace = workspace_of(request)
    setup = workspace.setup_in_job(workspace.store.item("setups", item_id))
    if light >= len(setup.lights):
        raise CannotSolve("no_such_light", number=light + 1)
    preferences = workspace.preferences()
    solved, chosen = service.need(setup, light, preferences.step, preferences.avoid)
    return needs_text(solved, light, chosen, typical_shelf().at(setup.meter_c), preferences)


@router.get("/jobs/{item_id}/request", responses=REFUSED)
def job_request(request: Request, item_id: str) -> RequestText:
    """The fewest units that a job asks for, in figures and without any name: to hire or to buy by."""
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    asked = service.request(file, typical_shelf(), preferences.avoid)
    return request_text(file.job.name, asked, typical_shelf().table, preferences)


@router.get("/jobs/{item_id}/request.csv", responses=REFUSED, response_class=Response)
def job_request_csv(request: Request, item_id: str) -> Response:
    """The same as a table: a line a figure."""
    found = job_request(request, item_id)
    rows = [["unit", "how many", "figure", "asked for", "for"]]
    for at, one in enumerate(found.units, 1):
        rows += [[str(at), str(one.count), name, figure, "; ".join(one.lights)] for name, figure in one.figures]
    return file_answer(csv_of(rows), "text/csv", "jumpstop-request.csv")


@router.get("/jobs/{item_id}/request.txt", responses=REFUSED, response_class=Response)
def job_request_text(request: Request, item_id: str) -> Response:
    """The same as plain text, to be sent."""
    return file_answer(job_request(request, item_id).text, "text/plain", "jumpstop-request.txt")
