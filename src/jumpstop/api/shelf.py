"""The shelf as a whole: what its claims come to, import with a look before anything is written, export."""

import hashlib
from typing import Annotated, Any, Literal

from fastapi import APIRouter, HTTPException, Query, Request, Response
from starlette.concurrency import run_in_threadpool

from ..core.exposure import METER_C_FLAT
from ..core.flash import Unit
from ..core.table import Table, table_of
from ..formats.documents import DOCUMENTS, schema_of
from ..formats.shelf import Reading, read_shelf, write_csv, write_json
from .documents import ERRORS, desk_of
from .schemas import ImportOut, RowTrouble, ShelfLine, UnitLine

router = APIRouter(prefix="/api", tags=["Shelf"])
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


@router.get("/shelf")
def shelf(request: Request) -> list[UnitLine]:
    """Every unit: the maker's claim beside what it comes to on one basis."""
    ids, table = desk_of(request).table(METER_C_FLAT)
    revisions = {item.id: item.revision for item in desk_of(request).store.items("units")}
    feet = desk_of(request).preferences().length == "ft"
    return [
        _line(unit, index, table, ids[index], revisions.get(ids[index], 0), feet)
        for index, unit in enumerate(table.units)
    ]


def _line(unit: Unit, index: int, table: Table, unit_id: str, revision: int, feet: bool) -> UnitLine:
    guide = float(2 ** (table.light[index] / 2))
    loudest = max((claim.guide_number for claim in unit.claims), default=None)
    return UnitLine(
        id=unit_id,
        revision=revision,
        name=unit.name,
        kind=unit.kind,
        printed=[claim.printed for claim in unit.claims],
        guide_number=f"{guide * 3.2808:.0f} ft" if feet else f"{guide:.1f} m",
        sd=round(float(table.light_sd[index]), 2),
        basis=table.light_why[index],
        share_of_claim="" if loudest is None else f"“{loudest:g}” on the box",
        watt_seconds=unit.watt_seconds,
        hss=unit.hss is not None,
        weight_g=unit.weight_g,
        price=unit.price,
    )


@router.post("/shelf/import", responses={413: ERRORS[422], 422: ERRORS[422]}, openapi_extra=BODY)
async def take_in(
    request: Request,
    agreed: Annotated[str | None, Query(max_length=64, description="Digest of the preview agreed to.")] = None,
) -> ImportOut:
    """Read a shelf from CSV or JSON: only shown without `agreed`; with it the good rows are added, as one edit."""
    data = await request.body()
    return await run_in_threadpool(_take_in, request, data, agreed)


def _take_in(request: Request, data: bytes, agreed: str | None) -> ImportOut:
    reading = read_shelf(data)
    digest = hashlib.sha256(data).hexdigest()
    written = 0
    if agreed is not None:
        if agreed != digest:
            raise HTTPException(422, "The file has changed since it was shown; look at it again.")
        if not reading.units:
            raise HTTPException(422, "The file holds no unit that can be read.")
        docs = [unit.model_dump(mode="json") for unit in reading.units]
        written = len(desk_of(request).store.add("units", docs, f"Import {len(docs):,} units"))
    return _out(reading, digest, written)


def _out(reading: Reading, digest: str, written: int) -> ImportOut:
    first = reading.units[:SHOWN]
    table = table_of(first)
    return ImportOut(
        digest=digest,
        good=len(reading.units),
        bad=len({problem.row for problem in reading.problems}),
        lines=[
            ShelfLine(
                name=unit.name,
                printed="; ".join(claim.printed for claim in unit.claims) or f"{unit.watt_seconds:g} Ws",
                comes_to=f"GN {2 ** (float(table.light[index]) / 2):.1f} m ± {float(table.light_sd[index]):.2f}",
            )
            for index, unit in enumerate(first)
        ],
        problems=[RowTrouble(row=p.row, column=p.column, reason=p.reason) for p in reading.problems[:SHOWN]],
        unknown_columns=reading.unknown_columns,
        written=written,
    )


@router.get("/shelf/export.{kind}", response_class=Response)
def export(request: Request, kind: Literal["csv", "json"]) -> Response:
    """The shelf as a file that `import` reads back whole."""
    units = desk_of(request).table(METER_C_FLAT)[1].units
    text, media = (write_csv(units), "text/csv") if kind == "csv" else (write_json(units), "application/json")
    return Response(
        text.encode(),
        media_type=f"{media}; charset=utf-8",
        headers={"content-disposition": f'attachment; filename="jumpstop-shelf.{kind}"'},
    )


@router.get("/schema/{name}.json")
def schema(name: Literal["setup", "shelf", "unit"]) -> dict[str, Any]:
    """JSON Schema of an open document."""
    return schema_of(name) if name in DOCUMENTS else {}
