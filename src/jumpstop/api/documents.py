"""Listing and reading documents and preferences; what the routes have in common."""

from collections.abc import Callable, Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Header, HTTPException, Path, Query, Request, Response
from pydantic import BaseModel, ValidationError
from pydantic_core import to_json

from ..core.kit.errors import JumpStopError
from ..core.kit.values import LINE
from ..store.documents import Item
from ..store.rows import Kind
from ..words.answer import Answer
from ..words.kit import (
    all_printed,
    battery_line,
    body_line,
    filter_line,
    lens_line,
    modifier_line,
    stand_line,
    trigger_line,
)
from ..words.problems import Problem, problems_of
from ..words.refusals import sentence
from .schemas import (
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
GoesOn = Annotated[
    bool | None,
    Query(description="Whether this edit goes on with the page's one before, to be undone with it; none: where soon."),
]
Ids = Annotated[list[Annotated[str, Query(max_length=64)]], Query(min_length=1, max_length=MOST_IDS)]
MadeId = Annotated[str, Path(max_length=64, pattern=r"^[0-9A-Za-z_-]+$", description="An id made where it is written.")]
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
ONE: dict[Kind, str] = {
    "units": "unit",
    "modifiers": "modifier",
    "bodies": "body",
    "lenses": "lens",
    "filters": "filter",
    "triggers": "trigger",
    "batteries": "battery",
    "stands": "stand",
    "jobs": "job",
    "setups": "setup",
}
"""What one of each kind is called; the log has routes of its own."""
LINES: dict[Kind, Callable[[Any], str]] = {
    "units": all_printed,
    "modifiers": modifier_line,
    "bodies": body_line,
    "lenses": lens_line,
    "filters": filter_line,
    "triggers": trigger_line,
    "batteries": battery_line,
    "stands": stand_line,
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


def file_answer(body: str | bytes, media: str, name: str) -> Response:
    """A file to be saved under a name."""
    data = body.encode() if isinstance(body, str) else body
    named = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(data, media_type=f"{media}; charset=utf-8", headers=named)


def revision_of(if_match: str | None) -> int:
    """The revision of an If-Match header. Raises 428 or 422."""
    if if_match is None:
        raise HTTPException(428, sentence("revision_missing"))
    bare = if_match.removeprefix("W/").strip('"')
    if not (bare.isascii() and bare.isdigit()) or len(bare) > 15:
        raise HTTPException(422, sentence("revision_no_number"))
    return int(bare)


def checked(kind: Kind, doc: dict[str, Any]) -> dict[str, Any]:
    """A document put together here, as it may be stored. Raises Invalid: what is stored can be read again."""
    try:
        return MODELS[kind].model_validate(doc).model_dump(mode="json")
    except ValidationError as error:
        raise Invalid(problems_of(error, MODELS[kind])) from None


class Invalid(JumpStopError):  # noqa: N818
    """A document that is not right, with what is wrong with it."""

    def __init__(self, problems: list[Problem]) -> None:
        super().__init__("not_right", problems=problems)
        self.problems = problems


def stored(kind: Kind, item: Item, doc: Any = None) -> Stored[Any]:
    """A stored document as it goes out."""
    doc = MODELS[kind].model_validate(item.doc) if doc is None else doc
    return Stored(id=item.id, revision=item.revision, job_id=item.job_id, doc=doc, line=LINES[kind](doc))


def _routes(kind: Kind, model: type[BaseModel]) -> None:
    """The routes that read one kind of document."""

    def everything(request: Request) -> list[Stored[Any]]:
        good, _ = readable(kind, workspace_of(request).store.items(kind))
        return [stored(kind, item, doc) for item, doc in good]

    def single(request: Request, item_id: str) -> Stored[Any]:
        item = workspace_of(request).store.item(kind, item_id)
        good, bad = readable(kind, [item])
        if bad:
            raise HTTPException(422, sentence("cannot_be_read", {"why": bad[0].why}))
        return stored(kind, *good[0])

    whole, many = Stored[model], list[Stored[model]]  # type: ignore[valid-type]
    named: dict[str, Any] = {"tags": [kind.capitalize()]}
    router.get(f"/{kind}", response_model=many, summary=f"All {kind}", **named)(everything)
    router.get(f"/{kind}/{{item_id}}", response_model=whole, responses=REFUSED, **named)(single)


for _kind in ONE:
    _routes(_kind, MODELS[_kind])


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


@router.get("/history", tags=["Undo"])
def history(request: Request, page: Page = "") -> UndoOut:
    """What this page could undo and redo."""
    undo, redo = workspace_of(request).store.history(page)
    return UndoOut(label=None, kind=None, ids=[], undo=undo, redo=redo, without=[])
