"""Listing, reading and editing documents; undo and redo; preferences."""

from typing import Annotated, Any

from fastapi import APIRouter, Header, HTTPException, Query, Request, Response
from pydantic import BaseModel

from ..core.camera import Body, Filter
from ..core.flash import Unit
from ..core.modifiers import Modifier
from ..core.setup import Setup
from ..store.documents import Item, Kind
from .desk import Desk
from .schemas import Conflict, Job, Preferences, Refusal, Solved, Stored, Turned

router = APIRouter(prefix="/api")

IfMatch = Annotated[str | None, Header(description="The revision this edit started from, in quotes.", examples=['"3"'])]
Label = Annotated[str, Query(max_length=200, description="What undo will call this edit.", examples=["Distance 2.4 m"])]
ERRORS: dict[int | str, dict[str, Any]] = {
    400: {"model": Refusal, "description": "What was sent cannot be read at all."},
    403: {"model": Refusal, "description": "The change comes from a foreign page."},
    413: {"model": Refusal, "description": "What was sent is too large."},
    421: {"model": Refusal, "description": "This server does not answer to that host name."},
    404: {"model": Refusal, "description": "There is no such document."},
    412: {"model": Refusal, "description": "Somebody changed it first; `current` holds what it is now."},
    422: {"model": Refusal, "description": "The document is not right; each problem names its field."},
    428: {"model": Refusal, "description": "The If-Match header is missing."},
}


def desk_of(request: Request) -> Desk:
    """The desk of this server."""
    desk: Desk = request.app.state.desk
    return desk


def written(solved: Solved) -> Response:
    """An answer as it goes out: made here from values that were checked, so that it is not checked a second time."""
    return Response(solved.model_dump_json(), media_type="application/json")


def revision_of(if_match: str | None) -> int:
    """The revision of an If-Match header. Raises 428 or 422."""
    if if_match is None:
        raise HTTPException(428, "Say which revision this edit started from, in an If-Match header.")
    bare = if_match.removeprefix("W/").strip('"')
    if not bare.isdigit() or len(bare) > 15:
        raise HTTPException(422, "If-Match must hold a revision number in quotes.")
    return int(bare)


def _stored(item: Item, model: type[BaseModel]) -> Stored[Any]:
    return Stored(id=item.id, revision=item.revision, job_id=item.job_id, doc=model.model_validate(item.doc))


def _routes(kind: Kind, one: str, model: type[BaseModel]) -> None:
    """The five routes of one kind of document."""
    tag = kind.capitalize()

    def everything(request: Request) -> list[Stored[Any]]:
        return [_stored(item, model) for item in desk_of(request).store.items(kind)]

    def single(request: Request, item_id: str) -> Stored[Any]:
        return _stored(desk_of(request).store.item(kind, item_id), model)

    def add(request: Request, doc: BaseModel) -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        return _stored(desk_of(request).store.add(kind, [dumped], f"Add {one} {dumped['name']}")[0], model)

    def put(request: Request, item_id: str, doc: BaseModel, if_match: IfMatch = None, label: Label = "") -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        wording = label or f"Change {one} {dumped['name']}"
        return _stored(desk_of(request).store.put(kind, item_id, dumped, revision_of(if_match), wording), model)

    def remove(request: Request, item_id: Annotated[list[str], Query(min_length=1, max_length=20_000)]) -> Response:
        store = desk_of(request).store
        name = store.item(kind, item_id[0]).doc["name"] if len(item_id) == 1 else f"{len(item_id)} {kind}"
        store.remove(kind, item_id, f"Delete {name}")
        return Response(status_code=204)

    for function in (add, put):
        function.__annotations__["doc"] = model
    whole = Stored[model]  # type: ignore[valid-type]
    conflict = ERRORS | {412: {"model": Conflict[model], "description": ERRORS[412]["description"]}}  # type: ignore[valid-type]
    named: dict[str, Any] = {"tags": [tag]}
    router.get(f"/{kind}", response_model=list[whole], summary=f"All {kind}", **named)(everything)
    router.get(f"/{kind}/{{item_id}}", response_model=whole, responses={404: ERRORS[404]}, **named)(single)
    router.post(f"/{kind}", status_code=201, response_model=whole, responses={422: ERRORS[422]}, **named)(add)
    if kind != "setups":
        router.put(f"/{kind}/{{item_id}}", response_model=whole, responses=conflict, **named)(put)
    router.delete(f"/{kind}", status_code=204, responses={404: ERRORS[404]}, **named)(remove)


_routes("units", "unit", Unit)
_routes("modifiers", "modifier", Modifier)
_routes("bodies", "body", Body)
_routes("filters", "filter", Filter)
_routes("jobs", "job", Job)
_routes("setups", "setup", Setup)


@router.put(
    "/setups/{item_id}", tags=["Setups"], response_model=Solved, responses=ERRORS | {412: {"model": Conflict[Setup]}}
)
def put_setup(
    request: Request,
    item_id: str,
    doc: Setup,
    if_match: IfMatch = None,
    label: Label = "",
    light: Annotated[int, Query(ge=0, le=7)] = 0,
) -> Any:
    """Store an edit of a setup, and answer with what it comes to."""
    desk = desk_of(request)
    dumped = doc.model_dump(mode="json")
    item = desk.store.put("setups", item_id, dumped, revision_of(if_match), label or f"Change {doc.name}")
    return written(desk.solved(item, light))


@router.get("/preferences", tags=["Person"])
def get_preferences(request: Request) -> Preferences:
    """How this person wants figures said."""
    return desk_of(request).preferences()


@router.put("/preferences", tags=["Person"], responses={422: ERRORS[422]})
def put_preferences(request: Request, preferences: Preferences) -> Preferences:
    """Remember how this person wants figures said."""
    desk_of(request).store.put_preferences(preferences.model_dump(mode="json"))
    return preferences


@router.get("/history", tags=["Undo"])
def history(request: Request) -> Turned:
    """What could be undone and redone."""
    undo, redo = desk_of(request).store.history()
    return Turned(label=None, kind=None, ids=[], undo=undo, redo=redo)


@router.post("/undo", tags=["Undo"])
def undo(request: Request) -> Turned:
    """Take the last edit back."""
    return _turn(request, back=True)


@router.post("/redo", tags=["Undo"])
def redo(request: Request) -> Turned:
    """Do the last edit taken back again."""
    return _turn(request, back=False)


def _turn(request: Request, back: bool) -> Turned:
    store = desk_of(request).store
    done = store.undo() if back else store.redo()
    after, again = store.history()
    return Turned(
        label=done and done.label, kind=done and done.kind, ids=done.ids if done else [], undo=after, redo=again
    )
