"""The log: entries kept once each, planned against found, what readings taught, what to measure next, the set view."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from .. import service
from ..core.kit.body import Body
from ..core.kit.errors import CannotSolve
from ..core.plan.learn.as_found import as_found
from ..core.plan.learn.learning import place_on
from ..core.plan.learn.next_reading import JobLanding, candidates_of, landing_of, propose
from ..core.plan.light.advice import chosen_method
from ..core.plan.light.reach import Reach
from ..core.scene.log import LogEntry
from ..core.scene.parts import packed_all
from ..core.scene.setup import Setup
from ..formats.log import read_log, write_log, write_log_csv
from ..store.errors import NotFound
from ..store.rows import changed
from ..words import edits as words
from ..words.in_hand import background_reading, next_words
from ..words.log import LogText, log_text, what_words
from ..words.on_set import SetText, set_text
from ..words.things import ReadingToTake, names_of, next_text
from .documents import ERRORS, EVERYWHERE, REFUSED, Ids, MadeId, Page, checked, stored, workspace_of
from .edits import taken_away
from .jobs import AS_CSV, streamed
from .schemas import Stored
from .undisturbed import undisturbed

router = APIRouter(prefix="/api/log", tags=["Log"], responses=EVERYWHERE)
OfJob = Annotated[str | None, Query(max_length=64, description="A job; without it all that was ever logged.")]
MOST_PROPOSED = 2


class KeptEntry(BaseModel):
    """An entry that is on disk now, whether it was new, and what to dial next."""

    id: str
    new: bool
    says: str
    dial_stops: float | None


class Imported(BaseModel):
    """How many entries came in, and how many were there already."""

    added: int
    known: int


@router.get("/text")
def text(
    request: Request,
    job: OfJob = None,
    most: Annotated[int, Query(ge=0, le=500, description="How many entries, the newest first.")] = 100,
    after: Annotated[int, Query(ge=0, le=1_000_000, description="How many newer ones to pass over.")] = 0,
) -> LogText:
    """A page of entries, planned against found, and what readings have taught."""
    workspace = workspace_of(request)
    meta = workspace.store.meta()
    revisions = {key: one.revision for key, one in workspace.logged(meta).items()}
    learning, table = workspace.learning(meta), workspace.shelf(meta).table
    return log_text(workspace.log(meta), revisions, learning, table, job, workspace.preferences(meta), most, after)


@router.get("/turn")
def turn(request: Request) -> int:
    """A number that every change of the log raises, whoever made it: a page asks whether it shows the newest."""
    return int(workspace_of(request).store.meta().get(changed("log"), 0))


@router.get("/next", responses=REFUSED)
def next_to_measure(request: Request, job: Annotated[str, Query(max_length=64)]) -> list[ReadingToTake]:
    """The readings that would settle most verdicts of a job, of what is owned."""
    workspace = workspace_of(request)
    file = workspace.job_file(job)
    preferences = workspace.preferences()
    shot = service.shot_setups(file, workspace.shelf(), preferences.step, preferences.avoid)
    if not shot:
        raise CannotSolve("no_setups" if not file.setups else "no_usable_unit")
    found = list[tuple[JobLanding, Reach]]()
    for at, one in enumerate(shot):
        for light, unit in enumerate(one.units):
            reach = one.solved.reach(one.kind, light)
            if unit is not None and one.solved.setup.lights[light].on and reach.able[unit]:
                found.append((landing_of(reach, unit, at, light), reach))
    table = shot[0].solved.table
    owned = [at for at, unit in enumerate(table.units) if unit.holding == "owned"]
    landings = [landing for landing, _ in found]
    proposals = propose(landings, candidates_of(found, owned), table, MOST_PROPOSED)
    names = names_of(workspace.log().values(), table)
    return next_text(proposals, landings, [one.solved.setup.name for one in shot], table, names)


@router.post("/keep/{item_id}", responses={422: ERRORS[422]})
def keep(request: Request, item_id: MadeId, entry: LogEntry, page: Page = "") -> KeptEntry:
    """Log an entry. Sent again with the same id, it is kept once, and gets the first answer."""
    workspace = workspace_of(request)
    label = words.logged(entry.name)
    items, new = workspace.store.keep("log", [(item_id, entry.model_dump(mode="json"))], label, page)
    first = LogEntry.model_validate(items[0].doc)
    says, dial = what_words(first, workspace.preferences()), None
    seen = first.seen
    if seen is not None and seen.was.unit is not None:
        table = workspace.said_shelf().table
        place = place_on(table, seen.was.unit)
        if place is not None:
            found = next_words(seen, table, place, workspace.preferences())
            says, dial = found.says, found.dial_stops
    return KeptEntry(id=item_id, new=bool(new), says=says, dial_stops=dial)


@router.put("/{item_id}/aside", responses=REFUSED)
def set_aside(request: Request, item_id: MadeId, aside: bool = True, page: Page = "") -> Stored[LogEntry]:
    """Set a reading aside, so that nothing is learned from it; or take it in again."""
    store = workspace_of(request).store
    item = store.item("log", item_id)
    label = words.set_aside(aside, item.doc["name"])
    doc = checked("log", item.doc | {"aside": aside})
    return stored("log", store.put("log", item_id, doc, item.revision, label, page))


@router.put("/{item_id}/adopt", responses=REFUSED)
def adopt(request: Request, item_id: MadeId, page: Page = "") -> Stored[Body]:
    """Take over what a wall past sync speed showed: the body's curtain travel, and the edge that goes dark."""
    store = workspace_of(request).store
    entry = LogEntry.model_validate(store.item("log", item_id).doc)
    if entry.curtain is None or entry.curtain.body.id is None:
        raise NotFound("no_curtain")
    wall = entry.curtain
    item = store.item("bodies", wall.body.id or "")
    travel = float(f"{min(0.2, wall.shutter_s / wall.lit):.4g}")
    doc = item.doc | {"travel_s": travel}
    if wall.dark_edge != "unknown":
        doc["dark_edge"] = wall.dark_edge
    doc = checked("bodies", doc)
    return stored("bodies", store.put("bodies", item.id, doc, item.revision, words.curtain_of(item.doc["name"]), page))


@router.delete("", status_code=204, responses=REFUSED)
def remove(request: Request, item_id: Ids, page: Page = "") -> Response:
    """Entries taken out of the log; undo brings them back."""
    return taken_away(request, "log", item_id, page, "entries")


@router.get("/export.json", response_class=Response)
def export(request: Request) -> Response:
    """The whole log, to be imported again."""
    return streamed(write_log(*workspace_of(request).store.written_log()), "application/json", "jumpstop-log.json")


@router.get("/export.csv", response_class=Response)
def export_csv(request: Request) -> Response:
    """The same as a table."""
    return streamed(write_log_csv(*workspace_of(request).store.written_log()), "text/csv", "jumpstop-log.csv")


@router.post("/import", responses={422: ERRORS[422]}, openapi_extra=AS_CSV)
async def take_in(request: Request, page: Page = "") -> Imported:
    """Entries from a JSON or CSV file; those that are there already are left as they are."""
    data = await request.body()
    return await run_in_threadpool(_take_in, request, data, page)


def _take_in(request: Request, data: bytes, page: str) -> Imported:
    with undisturbed():
        lines = dict(read_log(data))
        docs, parts = packed_all(lines.values())
        label = words.imported(len(lines), "log entry", "log entries")
        new = workspace_of(request).store.keep_many("log", list(zip(lines, docs, strict=True)), label, page, parts)
    return Imported(added=new, known=len(lines) - new)


@router.get("/set/{job_id}/{setup_id}", responses=REFUSED)
def on_set(request: Request, job_id: str, setup_id: str, variant: Annotated[str, Query(max_length=80)] = "") -> SetText:
    """A setup as it is worked on the set: each light's dial, and entries to be filled in."""
    workspace = workspace_of(request)
    store = workspace.store
    item, file, preferences = store.item("setups", setup_id), workspace.job_file(job_id), workspace.preferences()
    return set_text(workspace.shot(file, setup_id, variant), item.revision, job_id, preferences, _now())


@router.post("/set/{setup_id}/background", responses=REFUSED)
def background(
    request: Request, setup_id: str, stops: Annotated[float, Query(ge=-8, le=8)], page: Page = ""
) -> Stored[Setup]:
    """The background has changed by so many stops (brighter is positive): a reading of it, kept with the setup."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", setup_id)
    setup = workspace.setup_of(item, meta)
    if item.job_id is None:
        solved, preferences = workspace.solve(setup, 0, meta)
        kind = chosen_method(solved, preferences.avoid)
    else:
        shot = workspace.shot(workspace.job_file(item.job_id), setup_id)
        solved, kind = shot.solved, shot.kind
    camera = solved.method(kind).camera
    found = background_reading(setup, camera)
    found = found.model_copy(update={"needle_stops": found.needle_stops + stops})
    by = "sun" if setup.ambient.by == "sun" else "reading"
    if by == "sun":
        found = found.model_copy(update={"clock": setup.ambient.clock})
    others = tuple(one for one in setup.ambient.readings if one.of != "background")
    doc = item.doc | {
        "ambient": setup.ambient.model_copy(update={"by": by, "readings": (*others, found)[-3:]}).model_dump(
            mode="json"
        )
    }
    doc = checked("setups", doc)
    return stored("setups", workspace.store.put("setups", setup_id, doc, item.revision, words.SET_BACKGROUND, page))


@router.post("/set/{setup_id}/as-found", status_code=201, responses=REFUSED)
def save_as_found(request: Request, setup_id: str, page: Page = "") -> Stored[Setup]:
    """A setup saved as it was found on location: dials, camera and readings fixed, to be matched months later."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", setup_id)
    entries = [one for one in workspace.log(meta).values() if one.setup == setup_id and one.seen and not one.aside]
    if not entries:
        raise NotFound("nothing_logged")
    found = as_found(workspace.setup_of(item, meta), entries)
    label = words.saved(found.name)
    doc = checked("setups", found.model_dump(mode="json"))
    return stored("setups", workspace.store.add("setups", [doc], label, item.job_id, page)[0])


def _now() -> datetime:
    return datetime.now().replace(microsecond=0)
