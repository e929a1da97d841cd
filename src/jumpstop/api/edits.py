"""Editing documents: adding, copying, changing, taking away; undo and redo; preferences."""

from collections.abc import Sequence
from typing import Any

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel

from ..core.scene.setup import Setup
from ..store.rows import KIT, Kind
from ..words import edits as words
from .documents import (
    ERRORS,
    EVERYWHERE,
    MOST_IDS,
    ONE,
    REFUSED,
    GoesOn,
    Ids,
    IfMatch,
    JobId,
    Label,
    LightIndex,
    MadeId,
    Page,
    Sight,
    revision_of,
    stored,
    workspace_of,
    written,
)
from .schemas import ConflictOut, Membership, Preferences, Refusal, SolvedSetup, Stored, UndoOut
from .workspace import MODELS, Edit

router = APIRouter(prefix="/api", responses=EVERYWHERE)


def taken_away(request: Request, kind: Kind, ids: Sequence[str], page: str, many: str) -> Response:
    """Documents taken away, as one edit that undo brings back. many: what several of them are called."""
    store = workspace_of(request).store
    name = store.item(kind, ids[0]).doc["name"] if len(ids) == 1 else f"{len(ids)} {many}"
    store.remove(kind, ids, words.deleted(name), page)
    return Response(status_code=204)


def _routes(kind: Kind, one: str, model: type[BaseModel]) -> None:
    """The routes that change one kind of document."""

    def keep(request: Request, doc: BaseModel, page: str, job_id: str | None = None) -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        label = words.added(one, dumped["name"])
        return stored(kind, workspace_of(request).store.add(kind, [dumped], label, job_id, page)[0])

    def add(request: Request, doc: BaseModel, page: Page = "") -> Stored[Any]:
        return keep(request, doc, page)

    def add_to_job(request: Request, doc: BaseModel, page: Page = "", job_id: JobId = None) -> Stored[Any]:
        return keep(request, doc, page, job_id)

    def keep_new(request: Request, item_id: MadeId, doc: BaseModel, page: Page = "") -> Stored[Any]:
        """Add one under an id that was made where it was written: sent twice, it is kept once."""
        dumped = doc.model_dump(mode="json")
        items, _ = workspace_of(request).store.keep(kind, [(item_id, dumped)], words.added(one, dumped["name"]), page)
        return stored(kind, items[0])

    def copy(request: Request, item_id: str, page: Page = "") -> Stored[Any]:
        return stored(kind, workspace_of(request).store.copy(kind, item_id, words.copied, page))

    def put(
        request: Request,
        item_id: str,
        doc: BaseModel,
        if_match: IfMatch = None,
        label: Label = "",
        page: Page = "",
        goes_on: GoesOn = None,
    ) -> Stored[Any]:
        dumped = doc.model_dump(mode="json")
        wording = label or words.changed(f"{one} {dumped['name']}")
        store, revision = workspace_of(request).store, revision_of(if_match)
        return stored(kind, store.put(kind, item_id, dumped, revision, wording, page, goes_on))

    def remove(request: Request, item_id: Ids, page: Page = "") -> Response:
        return taken_away(request, kind, item_id, page, kind)

    for function in (add, add_to_job, keep_new, put):
        function.__annotations__["doc"] = model
    named: dict[str, Any] = {"tags": [kind.capitalize()], "response_model": Stored[model]}  # type: ignore[valid-type]
    conflict: dict[int | str, dict[str, Any]] = {404: ERRORS[404], 422: ERRORS[422], 428: ERRORS[428]}
    conflict[412] = {"model": ConflictOut[model], "description": ERRORS[412]["description"]}  # type: ignore[valid-type]
    new = add_to_job if kind == "setups" else add
    router.post(f"/{kind}", status_code=201, responses=REFUSED, summary=f"Add one of the {kind}", **named)(new)
    if kind in KIT:
        summary = f"Add one of the {kind}, once"
        router.post(f"/{kind}/keep/{{item_id}}", responses=REFUSED, summary=summary, **named)(keep_new)
    router.post(f"/{kind}/{{item_id}}/copy", status_code=201, responses=REFUSED, **named)(copy)
    if kind != "setups":
        router.put(f"/{kind}/{{item_id}}", responses=conflict, **named)(put)
    router.delete(f"/{kind}", status_code=204, responses=REFUSED, tags=named["tags"])(remove)


for _kind, _one in ONE.items():
    _routes(_kind, _one, MODELS[_kind])


@router.put(
    "/setups/{item_id}",
    tags=["Setups"],
    response_model=SolvedSetup,
    responses={404: ERRORS[404], 412: {"model": ConflictOut[Setup]}, 422: ERRORS[422], 428: ERRORS[428]},
)
def put_setup(
    request: Request,
    item_id: str,
    doc: Setup,
    if_match: IfMatch = None,
    label: Label = "",
    light: LightIndex = 0,
    page: Page = "",
    goes_on: GoesOn = None,
    sight: Sight = (),
) -> Any:
    """Store an edit of a setup, and answer with what it comes to."""
    edit = Edit(doc.model_dump(mode="json"), revision_of(if_match), label or words.changed(doc.name), page, goes_on)
    return written(workspace_of(request).put_setup(item_id, edit, light, sight))


@router.put("/setups/{item_id}/job", tags=["Setups"], responses=REFUSED)
def move_setup(request: Request, item_id: str, membership: Membership, page: Page = "") -> Stored[Setup]:
    """Put a setup into a job, or into none."""
    store = workspace_of(request).store
    return stored("setups", store.move(item_id, membership.job_id, words.PUT_INTO_JOB, page))


@router.put(
    "/preferences", tags=["Person"], responses={422: {"model": Refusal, "description": ERRORS[422]["description"]}}
)
def put_preferences(request: Request, preferences: Preferences) -> Preferences:
    """Remember how this person wants figures said. What is not named stays as it is: another page may have set it."""
    workspace = workspace_of(request)
    workspace.store.change_preferences(preferences.model_dump(mode="json", include=preferences.model_fields_set))
    return workspace.preferences()


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
    without = [one or words.DELETED for one in done.without[:MOST_IDS]] if done else []
    return UndoOut(label=done and done.label, kind=done and done.kind, ids=ids, undo=after, redo=again, without=without)
