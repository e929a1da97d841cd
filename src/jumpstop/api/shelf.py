"""The shelf as a whole: what its claims come to, import with a look before anything is written, export."""

import hashlib
import math
from collections.abc import Sequence
from typing import Annotated, Literal

from fastapi import APIRouter, HTTPException, Query, Request, Response
from starlette.concurrency import run_in_threadpool

from ..core.kit.table import UnitTable, table_of
from ..core.kit.unit import Unit
from ..core.physics.guide_number import guide_number_of_stops
from ..core.plan.light.advice import chosen_method
from ..formats.shelf import ShelfRead, read_shelf, write_csv, write_json
from ..formats.table import csv_of
from ..store.errors import NotFound
from ..words import edits as words
from ..words.compare import CompareText, compare_text
from ..words.figures import DisplayUnits, guide_number, sign_of
from ..words.kit import all_printed, printed, rating_words
from ..words.modifiers import ModifiersText, modifiers_text
from ..words.refusals import sentence
from .documents import ERRORS, EVERYWHERE, REFUSED, LightIndex, Page, file_answer, workspace_of
from .schemas import ImportOut, RowProblemOut, ShelfLine, UnitLine
from .workspace import Workspace

router = APIRouter(prefix="/api", tags=["Shelf"], responses=EVERYWHERE)
SHOWN = 200  # rows of a preview
BODY = {
    "requestBody": {
        "required": True,
        "content": {
            "text/csv": {
                "schema": {"type": "string"},
                "example": 'name,guide_number,weight_g\nPlover 58,"GN 58 (ISO 100, m, 105 mm)",405\n',
            }
        },
    }
}


Units = Annotated[
    list[Annotated[str, Query(max_length=64)]],
    Query(min_length=1, max_length=5, description="Units by id; the others are compared to the first."),
]
Picture = Annotated[str | None, Query(max_length=64, description="A setup whose dials are marked on the curves.")]
Front = Annotated[str | None, Query(max_length=64, description="A modifier to look through.")]


@router.get("/shelf")
def shelf(request: Request) -> list[UnitLine]:
    """Every unit: the maker's claim beside what it comes to on one basis."""
    workspace = workspace_of(request)
    table, units = workspace.shelf().table, workspace.preferences()
    revisions = {item.id: item.revision for item in workspace.store.items("units")}
    return [_line(index, table, revisions.get(table.ids[index], 0), units) for index in range(len(table))]


@router.get("/shelf/compare", responses=REFUSED)
def compare(
    request: Request, unit: Units, modifier: Front = None, setup: Picture = None, light: LightIndex = 0
) -> CompareText:
    """Up to five units side by side on one basis."""
    workspace = workspace_of(request)
    table, units = workspace.shelf().table, workspace.preferences()
    gone = [one for one in unit if one not in table.ids]
    front = next((one for one in workspace.modifiers() if one.id == modifier), None)
    if gone or (modifier is not None and front is None):
        raise NotFound("off_the_shelf")
    places = [table.ids.index(one) for one in dict.fromkeys(unit)]
    return compare_text(table, places, front, units, _dials(workspace, setup, light, [table.ids[at] for at in places]))


def _dials(workspace: Workspace, setup: str | None, light: int, ids: Sequence[str]) -> list[float]:
    """Where a picture sets these units [stops below full]; NaN where one cannot be used, none without a picture."""
    if setup is None:
        return []
    solved, preferences = workspace.solve(workspace.setup_in_job(workspace.store.item("setups", setup)), light)
    if not solved.kinds:
        return []
    reach = solved.reach(chosen_method(solved, preferences.avoid, light), light)
    places = [solved.table.ids.index(one) for one in ids]
    return [float(reach.below_full[at]) if reach.able[at] else math.nan for at in places]


@router.get("/shelf/modifiers", responses=REFUSED)
def modifiers(
    request: Request,
    distance_m: Annotated[float, Query(ge=0.2, le=50, description="From the face to the subject [m].")] = 1.5,
    unit: Annotated[str | None, Query(max_length=64, description="A unit to look through them with.")] = None,
) -> ModifiersText:
    """Modifiers against each other: what each takes with its layers on and off, its size and softness, its weight."""
    workspace = workspace_of(request)
    table = workspace.shelf().table
    if unit is not None and unit not in table.ids:
        raise NotFound("unit_gone")
    place = None if unit is None else table.ids.index(unit)
    return modifiers_text(workspace.modifiers(), distance_m, table, place, workspace.preferences())


@router.get("/shelf/compare.csv", responses=REFUSED, response_class=Response)
def compare_csv(request: Request, unit: Units, modifier: Front = None) -> Response:
    """The same as a table."""
    found = compare(request, unit, modifier)
    rows = [["", *found.names], *([row.name, *row.cells] for row in found.rows)]
    return file_answer(csv_of(rows), "text/csv", "jumpstop-side-by-side.csv")


def _line(index: int, table: UnitTable, revision: int, units: DisplayUnits) -> UnitLine:
    unit, rated, sd = table.units[index], float(table.rated[index]), float(table.rated_sd[index])
    return UnitLine(
        id=table.ids[index],
        revision=revision,
        name=unit.name,
        kind=unit.kind,
        printed=[printed(claim) for claim in unit.claims],
        guide_number=guide_number(float(guide_number_of_stops(rated)), units, 1),
        sd=round(sd, 2),
        basis=rating_words(unit, rated, sd, table.basis[index], units),
        watt_seconds=unit.watt_seconds,
        hss=unit.hss is not None,
        weight_g=unit.weight_g,
        price=unit.price,
        holding=unit.holding,
    )


@router.post("/shelf/import", responses={413: ERRORS[413], 422: ERRORS[422]}, openapi_extra=BODY)
async def take_in(
    request: Request,
    agreed: Annotated[str | None, Query(max_length=64, description="Digest of the preview agreed to.")] = None,
    page: Page = "",
) -> ImportOut:
    """Read a shelf from CSV or JSON: only shown without `agreed`; with it the good rows are added, as one edit."""
    data = await request.body()
    return await run_in_threadpool(_take_in, request, data, agreed, page)


def _take_in(request: Request, data: bytes, agreed: str | None, page: str) -> ImportOut:
    reading = read_shelf(data, sign=sign_of(workspace_of(request).preferences()))
    digest = hashlib.sha256(data).hexdigest()
    written = 0
    if agreed is not None:
        if agreed != digest:
            raise HTTPException(422, sentence("file_changed"))
        if not reading.units:
            raise HTTPException(422, sentence("shelf_unreadable"))
        docs = [unit.model_dump(mode="json") for unit in reading.units]
        label = words.imported(len(docs), "unit")
        written = len(workspace_of(request).store.add("units", docs, label, page=page))
    return _out(reading, digest, written, workspace_of(request).preferences())


def _out(reading: ShelfRead, digest: str, written: int, units: DisplayUnits) -> ImportOut:
    first: list[Unit] = reading.units[:SHOWN]
    table = table_of(first)
    listed = {problem.row for problem in reading.problems}
    return ImportOut(
        digest=digest,
        good=len(reading.units),
        bad=reading.bad,
        lines=[
            ShelfLine(
                name=unit.name,
                printed=all_printed(unit),
                comes_to=f"{guide_number(float(guide_number_of_stops(table.rated[index])), units, 1)} "
                f"± {float(table.rated_sd[index]):.2f} stop",
            )
            for index, unit in enumerate(first)
        ],
        problems=[RowProblemOut(row=p.row, column=p.column, reason=p.reason) for p in reading.problems],
        unlisted=reading.bad - len(listed),
        unknown_columns=[column[:80] for column in reading.unknown_columns],
        written=written,
    )


@router.get("/shelf/export.{kind}", response_class=Response)
def export(request: Request, kind: Literal["csv", "json"]) -> Response:
    """The shelf as a file that `import` reads back whole."""
    units = workspace_of(request).said_shelf().units
    text, media = (write_csv(units), "text/csv") if kind == "csv" else (write_json(units), "application/json")
    return file_answer(text, media, f"jumpstop-shelf.{kind}")
