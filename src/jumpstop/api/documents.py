"""Listing, reading and editing documents; undo and redo; preferences."""

from collections.abc import Callable, Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Header, HTTPException, Query, Request, Response
from pydantic import BaseModel
from pydantic_core import to_json

from ..core.kit.body import Body
from ..core.kit.filter import Filter
from ..core.kit.modifier import Modifier
from ..core.kit.trigger import Battery, Trigger
from ..core.kit.unit import Unit
from ..core.kit.values import LINE
from ..core.scene.job import Job
from ..core.scene.setup import Setup
from ..store.documents import Item
from ..store.rows import Kind
from ..words.answer import Answer
from ..words.kit import all_printed, battery_line, body_line, filter_line, modifier_line, trigger_line
from .schemas import (
    Conflict,
    Membership,
    Preferences,
    Refusal,
    SolvedSetup,
    Stored,
    UndoOut,
    UnreadableOut,
)
from .workspace import MODELS, Workspace, readable

MOST_IDS = 1000
IfMatch = Annotated[str | None, Header(description="The revision this edit started from, in quotes.", examples=['"3"'])]
Label = Annotated[
    str, Query(max_length=200, pattern=LINE, description="What undo will call this edit.", examples=["Distance"])
]
Page = Annotated[
    str,
    Header(
        alias="x-page", max_length=40, pattern=r"^[0-9A-Za-z-]*$",
        description="Which page this comes from: undo takes back that page's own edits.", examples=["a1b2"],
    ),
]  # fmt: skip
Ids = Annotated[list[Annotated[str, Query(max_length=64)]], Query(min_length=1, max_length=MOST_IDS)]
JobId = Annotated[str | None, Query(max_length=64, description="The job that the setup belongs to.")]
LikeId = Annotated[str | None, Query(max_length=64, description="The setup used last.")]
LightIndex = Annotated[int, Query(ge=0, le=7, description="Which of the setup's lights, from 0.")]
Sight = Annotated[
    Sequence[Annotated[str, Query(max_length=64)]],
    Query(max_length=32, description="Ids of the units whose lanes to answer with; none: all of the shelf."),
]
REFUSALS = {
    400: "What was sent cannot be read at all, or the host name is not this server's.",
    401: "This server asks for the link that it printed.",
    403: "The change comes from a foreign page.",
    404: "There is no such document.",
    409: "It was changed elsewhere since, and cannot be undone.",
    412: "Somebody changed it first; `current` holds what it is now.",
    413: "What was sent is too large.",
    422: "The document is not right; each problem names its field.",
    428: "The If-Match header is missing.",
    500: "A fault in the program; the reference is in its log.",
    503: "The data is being written just now; try again.",
    507: "The data cannot be stored.",
}


def by_reference(model: type, description: str) -> dict[str, Any]:
    """A body in the description, as what another route declares: made anew each time it would take long to start."""
    schema = {"$ref": f"#/components/schemas/{model.__name__}"}
    return {"description": description, "content": {"application/json": {"schema": schema}}}


# What is refused is declared with the preferences.
ERRORS: dict[int | str, dict[str, Any]] = {status: by_reference(Refusal, words) for status, words in REFUSALS.items()}
REFUSED: dict[int | str, dict[str, Any]] = {404: ERRORS[404], 422: ERRORS[422]}
EVERYWHERE: dict[int | str, dict[str, Any]] = {status: ERRORS[status] for status in (400, 401, 403, 413, 500, 503, 507)}
LINES: dict[Kind, Callable[[Any], str]] = {
    "units": all_printed,
    "modifiers": modifier_line,
    "bodies": body_line,
    "filters": filter_line,
    "triggers": trigger_line,
    "batteries": battery_line,
    "jobs": lambda job: str(job.note),
    "setups": lambda setup: str(setup.note),
    "log": lambda entry: str(entry.note),
}


router = APIRouter(prefix="/api", responses=EVERYWHERE)


def workspace_of(request: Request) -> Workspace:
    """The workspace of this server."""
    workspace: Workspace = request.app.state.workspace
    return workspace


def written(solved: SolvedSetup | Answer) -> Response:
    """An answer as it goes out: made here from values that were checked, so that it is not checked a second time."""
    return Response(to_json(solved, inf_nan_mode="null"), media_type="application/json")


def revision_of(if_match: str | None) -> int:
    """The revision of an If-Match header. Raises 428 or 422."""
    if if_match is None:
        raise HTTPException(428, "Say which revision this edit started from, in an If-Match header.")
    bare = if_match.removeprefix("W/").strip('"')
    if not (bare.isascii() and bare.isdigit()) or len(bare) > 15:
        raise HTTPException(422, "If-Match must hold a revision number in quotes.")
    return int(bare)


def stored(kind: Kind, item: Item, doc: Any = None) -> Stored[Any]:
    """A stored document as it goes out."""
    doc = MODELS[kind].model_validate(item.doc) if doc is None else doc
    return Stored(id=item.id, revision=item.revision, job_id=item.job_id, doc=doc, line=LINES[kind](doc))


def taken_away(request: Request, kind: Kind, ids: Sequence[str], page: str, many: str) -> Response:
    """Documents taken away, as one edit that undo brings back. many: what several of them are called."""
    store = workspace_of(request).store
    name = store.item(kind, ids[0]).doc["name"] if len(ids) == 1 else f"{len(ids)} {many}"
    store.remove(kind, ids, f"Delete {name}", page)
    return Response(status_code=204)


def _routes(kind: Kind, one: str, model: type[BaseModel]) -> None:
    """The routes of one kind of document."""
    tag = kind.capitalize()

    def everything(request: Request) -> list[Stored[Any]]:
        good, _ = readable(kind, workspace_of(request).store.items(kind))
        return [stored(kind, item, doc) for item, doc in good]

    def single(request: Request, item_id: str) -> Stored[Any]:
        item = workspace_of(request).store.item(kind, item_id)
        good, bad = readable(kind, [item])
        if bad:
            raise HTTPException(422, f"It cannot be read: {bad[0].why}")
        return stored(kind, *good[0])

    def keep(request: Request, doc: BaseModel, page: str, job_id: str | None = None) -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        label = f"Add {one} {dumped['name']}"
        return stored(kind, workspace_of(request).store.add(kind, [dumped], label, job_id, page)[0])

    def add(request: Request, doc: BaseModel, page: Page = "") -> Stored[Any]:
        return keep(request, doc, page)

    def add_to_job(request: Request, doc: BaseModel, page: Page = "", job_id: JobId = None) -> Stored[Any]:
        return keep(request, doc, page, job_id)

    def copy(request: Request, item_id: str, page: Page = "") -> Stored[Any]:
        return stored(kind, workspace_of(request).store.copy(kind, item_id, page))

    def put(
        request: Request, item_id: str, doc: BaseModel, if_match: IfMatch = None, label: Label = "", page: Page = ""
    ) -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        wording = label or f"Change {one} {dumped['name']}"
        return stored(
            kind, workspace_of(request).store.put(kind, item_id, dumped, revision_of(if_match), wording, page)
        )

    def remove(request: Request, item_id: Ids, page: Page = "") -> Response:
        return taken_away(request, kind, item_id, page, kind)

    for function in (add, add_to_job, put):
        function.__annotations__["doc"] = model
    whole = Stored[model]  # type: ignore[valid-type]
    conflict: dict[int | str, dict[str, Any]] = {404: ERRORS[404], 422: ERRORS[422], 428: ERRORS[428]}
    conflict[412] = {"model": Conflict[model], "description": ERRORS[412]["description"]}  # type: ignore[valid-type]
    named: dict[str, Any] = {"tags": [tag]}
    router.get(f"/{kind}", response_model=list[whole], summary=f"All {kind}", **named)(everything)
    router.get(f"/{kind}/{{item_id}}", response_model=whole, responses=REFUSED, **named)(single)
    router.post(
        f"/{kind}", status_code=201, response_model=whole, responses=REFUSED, summary=f"Add one of the {kind}", **named
    )(add_to_job if kind == "setups" else add)
    router.post(f"/{kind}/{{item_id}}/copy", status_code=201, response_model=whole, responses=REFUSED, **named)(copy)
    if kind != "setups":
        router.put(f"/{kind}/{{item_id}}", response_model=whole, responses=conflict, **named)(put)
    router.delete(f"/{kind}", status_code=204, responses=REFUSED, **named)(remove)


_routes("units", "unit", Unit)
_routes("modifiers", "modifier", Modifier)
_routes("bodies", "body", Body)
_routes("filters", "filter", Filter)
_routes("triggers", "trigger", Trigger)
_routes("batteries", "battery", Battery)
_routes("jobs", "job", Job)
_routes("setups", "setup", Setup)


@router.put(
    "/setups/{item_id}",
    tags=["Setups"],
    response_model=SolvedSetup,
    responses={404: ERRORS[404], 412: {"model": Conflict[Setup]}, 422: ERRORS[422], 428: ERRORS[428]},
)
def put_setup(
    request: Request,
    item_id: str,
    doc: Setup,
    if_match: IfMatch = None,
    label: Label = "",
    light: LightIndex = 0,
    page: Page = "",
    sight: Sight = (),
) -> Any:
    """Store an edit of a setup, and answer with what it comes to."""
    workspace = workspace_of(request)
    dumped = doc.model_dump(mode="json")
    revision = revision_of(if_match)
    item = workspace.store.put("setups", item_id, dumped, revision, label or f"Change {doc.name}", page)
    return written(workspace.solved(item, light, sight=sight))


@router.put("/setups/{item_id}/job", tags=["Setups"], responses=REFUSED)
def move_setup(request: Request, item_id: str, membership: Membership, page: Page = "") -> Stored[Setup]:
    """Put a setup into a job, or into none."""
    store = workspace_of(request).store
    return stored("setups", store.move(item_id, membership.job_id, "Put into another job", page))


@router.get("/schema/{name}.json", tags=["Shelf"])
def schema(name: Literal["setup", "shelf", "unit"]) -> dict[str, Any]:
    """JSON Schema of an open document."""
    from ..formats.documents import schema_of  # late: schemas are seldom wanted

    return schema_of(name)


@router.get("/unreadable", tags=["Person"])
def unreadable(request: Request) -> list[UnreadableOut]:
    """Stored documents that this version cannot read; the lists leave them out."""
    store = workspace_of(request).store
    return [
        UnreadableOut(kind=kind, **one._asdict()) for kind in MODELS for one in readable(kind, store.items(kind))[1]
    ]


@router.get("/preferences", tags=["Person"])
def get_preferences(request: Request) -> Preferences:
    """How this person wants figures said."""
    return workspace_of(request).preferences()


@router.put(
    "/preferences", tags=["Person"], responses={422: {"model": Refusal, "description": ERRORS[422]["description"]}}
)
def put_preferences(request: Request, preferences: Preferences) -> Preferences:
    """Remember how this person wants figures said."""
    workspace_of(request).store.put_preferences(preferences.model_dump(mode="json"))
    return preferences


@router.get("/history", tags=["Undo"])
def history(request: Request, page: Page = "") -> UndoOut:
    """What this page could undo and redo."""
    undo, redo = workspace_of(request).store.history(page)
    return UndoOut(label=None, kind=None, ids=[], undo=undo, redo=redo)


@router.post("/undo", tags=["Undo"], responses={409: ERRORS[409]})
def undo(request: Request, page: Page = "") -> UndoOut:
    """Take this page's last edit back."""
    return _turn(request, page, back=True)


@router.post("/redo", tags=["Undo"], responses={409: ERRORS[409]})
def redo(request: Request, page: Page = "") -> UndoOut:
    """Do this page's last edit taken back again."""
    return _turn(request, page, back=False)


def _turn(request: Request, page: str, back: bool) -> UndoOut:
    store = workspace_of(request).store
    done = store.undo(page) if back else store.redo(page)
    after, again = store.history(page)
    ids = done.ids[:MOST_IDS] if done else []
    return UndoOut(label=done and done.label, kind=done and done.kind, ids=ids, undo=after, redo=again)
