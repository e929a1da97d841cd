"""Jobs: what the brief comes to, the coverage, which kit, the day, settings by the hour, the roster, and files."""

import json
from collections.abc import Iterable, Iterator
from dataclasses import asdict
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request, Response
from fastapi.responses import StreamingResponse
from starlette.concurrency import run_in_threadpool

from .. import service
from .. import templates as usual
from ..core.plan.change.moves import Bag
from ..core.scene.job import MOST_SETUPS, Job, copied
from ..formats.documents import MAX_JOB_BYTES, read_job, write_job
from ..formats.roster import read_roster, with_known_ids, write_roster
from ..formats.table import csv_of
from ..store.errors import NotFound, TooMuch
from ..words import edits as words
from ..words.board import BoardText, board_text
from ..words.brief import BriefText, brief_text
from ..words.kit_choice import KitText, kit_text
from .documents import (
    ERRORS,
    EVERYWHERE,
    REFUSED,
    IfMatch,
    LikeId,
    Page,
    checked,
    file_answer,
    revision_of,
    stored,
    workspace_of,
)
from .schemas import ConflictOut, Stored, TemplateOut

router = APIRouter(prefix="/api/jobs", tags=["Jobs"], responses=EVERYWHERE)

JOB_FILE = {"job": {"name": "Kite week"}, "setups": []}


def _body(media: str, sample: Any) -> dict[str, Any]:
    """How a file that is sent as it is stands in the description."""
    schema = {"type": "string", "format": "binary"} if isinstance(sample, str) else {"type": "object"}
    return {"requestBody": {"required": True, "content": {media: {"schema": schema, "example": sample}}}}


AS_JSON = _body("application/json", JOB_FILE)
AS_CSV = _body("text/csv", "name,slot\nAda Fenwick,09:30\n")
CONFLICT: dict[int | str, dict[str, Any]] = REFUSED | {412: {"model": ConflictOut[Job]}, 428: ERRORS[428]}
BLOCK = 2**18  # characters of a file that are sent together


@router.get("/begin/templates")
def templates() -> list[TemplateOut]:
    """Usual jobs to begin with."""
    return [TemplateOut(name=name, use=use) for name, use in usual.templates()]


@router.post("/begin", status_code=201, responses=REFUSED)
def begin(
    request: Request, name: Annotated[str, Query(max_length=80)], like: LikeId = None, page: Page = ""
) -> Stored[Job]:
    """A usual job with its setups, on the camera and with the bag of the setup used last."""
    workspace = workspace_of(request)
    last = None if like is None else workspace.setup_of(workspace.store.item("setups", like))
    file = usual.template(name, last, workspace.own_kit())
    if file is None:
        raise NotFound("no_such_beginning")
    setups = [(one.id, one.setup.model_dump(mode="json")) for one in file.setups]
    item = workspace.store.add_job(file.job.model_dump(mode="json"), setups, page, words.begun(name))
    return stored("jobs", item)


@router.post("/{item_id}/again", status_code=201, responses=REFUSED)
def again(request: Request, item_id: str, readings: bool = False, page: Page = "") -> Stored[Job]:
    """The same job to be done again, with its setups; `readings`: with what was seen at them."""
    workspace = workspace_of(request)
    file = copied(workspace.job_file(item_id), readings)
    setups = [(one.id, one.setup.model_dump(mode="json")) for one in file.setups]
    item = workspace.store.add_job(file.job.model_dump(mode="json"), setups, page, words.copied(file.job.name))
    return stored("jobs", item)


@router.get("/{item_id}/brief", responses=REFUSED)
def brief(request: Request, item_id: str) -> BriefText:
    """The questions that are still open, and what the answers come to."""
    workspace = workspace_of(request)
    return brief_text(workspace.job_file(item_id), workspace.preferences())


@router.get("/{item_id}/board", responses=REFUSED)
def board(request: Request, item_id: str) -> BoardText:
    """Units down, lights of setups across; and what the picked ones come to together."""
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    found = service.coverage(file, workspace.shelf(), preferences.step, preferences.avoid)
    return board_text(found, [one.id for one in file.setups], file.job, preferences)


@router.get("/{item_id}/board.csv", responses=REFUSED, response_class=Response)
def board_csv(request: Request, item_id: str) -> Response:
    """The same as a file."""
    found = board(request, item_id)
    heads = [f"{column.name}, {column.role}" for column in found.columns]
    rows = [["unit", *(f"{head} ({what})" for head in heads for what in ("stops in hand", "dial", "method"))]]
    for at, unit in enumerate(found.units):
        row = [unit.name]
        for column, cells in zip(found.columns, found.cells, strict=True):
            spare = cells.spare[at]  # none where the unit cannot be used: no method is taken there either
            row += ["", "", ""] if spare is None else [f"{spare:.2f}", cells.dial[at], column.methods[cells.method[at]]]
        rows.append(row)
    return file_answer(csv_of(rows), "text/csv", "jumpstop-board.csv")


@router.get("/{item_id}/kit", responses=REFUSED)
def kit(request: Request, item_id: str) -> KitText:
    """The kit with the least of what the job asks for, proven to be so or said not to be."""
    workspace = workspace_of(request)
    wanted = workspace.preferences()
    bag = Bag(workspace.modifiers())
    found = service.kit(workspace.job_file(item_id), workspace.shelf(), wanted.step, wanted.avoid, bag)
    return kit_text(found, wanted)


@router.get("/{item_id}/front", responses=REFUSED, response_class=StreamingResponse)
def front(request: Request, item_id: str) -> StreamingResponse:
    """Weight against money: kits one after the other as they are found, each a line of JSON."""
    workspace = workspace_of(request)
    wanted = workspace.preferences()
    kits = service.kits_by_outlay(workspace.job_file(item_id), workspace.shelf(), wanted.step, wanted.avoid)
    lines = (json.dumps(asdict(kit_text(one, wanted)), ensure_ascii=False) + "\n" for one in kits)
    return StreamingResponse(lines, media_type="application/x-ndjson")


@router.get("/{item_id}/export.json", responses=REFUSED | {413: ERRORS[413]}, response_class=Response)
def export(request: Request, item_id: str) -> Response:
    """The job with all its setups, to be imported again; where a file does not hold them all, that is said."""
    workspace = workspace_of(request)
    own = sum(one.job_id == item_id for one in workspace.store.items("setups"))
    if own > MOST_SETUPS:
        raise TooMuch("job_too_full_for_a_file", setups=own, most=MOST_SETUPS)
    text = write_job(workspace.job_file(item_id))
    if len(text.encode()) > MAX_JOB_BYTES:
        raise TooMuch("job_too_large_for_a_file", most=MAX_JOB_BYTES)
    return file_answer(text, "application/json", "jumpstop-job.json")


@router.post("/import", status_code=201, responses={422: ERRORS[422]}, openapi_extra=AS_JSON)
async def take_in(request: Request, page: Page = "") -> Stored[Job]:
    """A job from a file, with its setups, as one edit."""
    data = await request.body()
    return await run_in_threadpool(_take_in, request, data, page)


def _take_in(request: Request, data: bytes, page: str) -> Stored[Job]:
    file = read_job(data)
    setups = [(one.id, one.setup.model_dump(mode="json")) for one in file.setups]
    item = workspace_of(request).store.add_job(
        file.job.model_dump(mode="json"), setups, page, words.imported_job(file.job.name)
    )
    return stored("jobs", item)


@router.get("/{item_id}/roster.csv", responses=REFUSED, response_class=Response)
def roster_csv(request: Request, item_id: str) -> Response:
    """The roster as a table."""
    return file_answer(
        write_roster(workspace_of(request).job_file(item_id).job.roster), "text/csv", "jumpstop-roster.csv"
    )


@router.put("/{item_id}/roster", responses=CONFLICT, openapi_extra=AS_CSV)
async def put_roster(request: Request, item_id: str, if_match: IfMatch = None, page: Page = "") -> Stored[Job]:
    """The roster from a table, in place of the one there is."""
    data = await request.body()
    return await run_in_threadpool(_put_roster, request, item_id, data, if_match, page)


def _put_roster(request: Request, item_id: str, data: bytes, if_match: str | None, page: str) -> Stored[Job]:
    store = workspace_of(request).store
    job = Job.model_validate(store.item("jobs", item_id).doc)
    job = job.model_copy(update={"roster": with_known_ids(read_roster(data), job.roster)})
    doc = checked("jobs", job.model_dump(mode="json"))
    return stored("jobs", store.put("jobs", item_id, doc, revision_of(if_match), words.ROSTER, page))


def streamed(pieces: Iterable[str], media: str, name: str) -> Response:
    """A file to be saved under a name, sent as it is made: none of it is held whole."""
    named = {"content-disposition": f'attachment; filename="{name}"'}
    return StreamingResponse(by_blocks(pieces), media_type=f"{media}; charset=utf-8", headers=named)


def by_blocks(pieces: Iterable[str]) -> Iterator[bytes]:
    """Pieces of text as bytes, some at a time: each block is a message of its own."""
    held, size = list[str](), 0
    for piece in pieces:
        held.append(piece)
        size += len(piece)
        if size > BLOCK:
            yield "".join(held).encode()
            held, size = [], 0
    yield "".join(held).encode()
