"""What a maker prints, pasted: read and judged, and only shown; a unit is added once a person accepts it."""

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import Field

from ..core.kit.values import Value, Whole, example
from ..formats.spec import LONGEST, read_spec
from ..words.figures import sign_of
from ..words.printed import SpecUnit, spec_unit
from .documents import ERRORS, EVERYWHERE, workspace_of

router = APIRouter(prefix="/api", tags=["Shelf"], responses=EVERYWHERE)


class SpecChoice(Value):
    """What a person decided of one field: which of its readings is meant, or that it is left out."""

    unit: Whole = Field(0, ge=0, le=100, title="Unit, in the order of the sheet")
    row: Whole = Field(0, ge=0, le=2000, title="Field, in the order of the sheet")
    choice: Whole | None = Field(None, ge=0, le=5, title="Which reading")
    left: bool = Field(False, title="Left out")


class SpecIn(Value):
    """A specification as it was pasted, and what was decided of its fields so far."""

    model_config = example(text="Plover 58\nGuide number: 58 m (ISO 100, 105 mm)\nRecycle time: 0.1 - 2.6 s")

    text: Annotated[str, Field(max_length=LONGEST, title="Specification")]
    choices: tuple[SpecChoice, ...] = Field((), max_length=500, title="What was decided")
    names: tuple[Annotated[str, Field(max_length=80)], ...] = Field(
        (), max_length=20, title="Names instead of the printed"
    )


@router.post("/shelf/spec", responses={422: ERRORS[422]})
def spec(request: Request, sheet: SpecIn) -> list[SpecUnit]:
    """The units of a specification, field by field beside its lines; nothing is written."""
    units = workspace_of(request).preferences()
    out = []
    for at, found in enumerate(read_spec(sheet.text, sign_of(units))):
        mine = [one for one in sheet.choices if one.unit == at]
        chosen: dict[int, int] = {one.row: one.choice for one in mine if one.choice is not None}
        left = [one.row for one in mine if one.left]
        name = sheet.names[at].strip() if at < len(sheet.names) else ""
        out.append(spec_unit(found, chosen, left, name, units))
    return out
