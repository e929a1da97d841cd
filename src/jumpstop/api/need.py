"""What is needed, without a unit: of a setup's light, and of a whole job as a request."""

from fastapi import APIRouter, Request, Response

from .. import service
from ..formats.table import csv_of
from ..typical import typical_shelf
from ..words.need import NeedsText, RequestText, request_text
from .documents import EVERYWHERE, REFUSED, LightIndex, file_answer, workspace_of

router = APIRouter(prefix="/api", tags=["Need"], responses=EVERYWHERE)


@router.get("/setups/{item_id}/need", responses=REFUSED)
def setup_need(request: Request, item_id: str, light: LightIndex = 0) -> NeedsText:
    """What a light of a stored setup asks of whatever unit stands there, method by method."""
    workspace = workspace_of(request)
    setup = workspace.setup_in_job(workspace.store.item("setups", item_id))
    return workspace.needs(setup, light, workspace.preferences())


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
