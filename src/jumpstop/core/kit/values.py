"""What every document of the core has in common: it is frozen, exact about kinds, and refuses control characters."""

from collections.abc import Iterable
from datetime import time
from typing import Annotated, TypeVar

from pydantic import (
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    GetJsonSchemaHandler,
    PlainSerializer,
    Strict,
    WithJsonSchema,
)
from pydantic.config import JsonValue
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema


class Value(BaseModel):
    """A frozen value that refuses unknown fields, infinities and NaN."""

    model_config = ConfigDict(
        frozen=True,
        extra="forbid",
        allow_inf_nan=False,
        str_strip_whitespace=True,
        validate_default=False,
        json_schema_serialization_defaults_required=True,
    )

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        """Bounds of a whole number that may be left out are published as all others are (see `Whole`)."""
        found = handler(schema)
        for field in handler.resolve_ref_schema(found).get("properties", {}).values():
            for kind in (field, *field.get("anyOf", ())):
                kind |= {said: kind.pop(own) for own, said in (("ge", "minimum"), ("le", "maximum")) if own in kind}
        return found


def example(**figures: JsonValue) -> ConfigDict:
    """Model settings that show this document in the published schema."""
    return ConfigDict(json_schema_extra={"examples": [figures]})


Number = Annotated[float, Strict()]
"""A number; text and truth values are not taken for one."""
Whole = Annotated[int, BeforeValidator(lambda v: int(v) if type(v) is float and v.is_integer() else v), Strict()]
Flag = Annotated[bool, Strict()]

LINE = r"^[^\x00-\x1f\x7f-\x9f]*$"  # text of one line: any character but control characters
LINES = r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f]*$"  # the same, with line ends and tabs
Name = Annotated[str, Field(min_length=1, max_length=80, pattern=LINE)]
Line = Annotated[str, Field(max_length=80, pattern=LINE)]
Note = Annotated[str, Field(max_length=2000, pattern=LINES)]
KitId = Annotated[str, Field(min_length=1, max_length=64, pattern=r"^[0-9A-Za-z_-]+$")]
RowId = Annotated[str, Field(max_length=64, pattern=r"^[0-9A-Za-z_-]*$")]
"""What a row of a document is known by, so that a change can name it; empty: it is given one as it is read."""
Stops = Annotated[Number, Field(ge=-20, le=20)]
Spread = Annotated[Number, Field(ge=0, le=5)]
FNumber = Annotated[Number, Field(ge=0.5, le=128)]
ShutterS = Annotated[Number, Field(ge=1 / 64000, le=3600)]
Iso = Annotated[Number, Field(ge=3, le=4_000_000)]
LEAST_DISTANCE_M, MOST_DISTANCE_M = 0.05, 500  # of a light, as documents have it
DistanceM = Annotated[Number, Field(ge=LEAST_DISTANCE_M, le=MOST_DISTANCE_M)]
Weight = Annotated[Number, Field(ge=0, le=100_000)]
Price = Annotated[Number, Field(ge=0, le=1_000_000)]
Clock = Annotated[
    time,
    PlainSerializer(lambda clock: f"{clock:%H:%M}", return_type=str),
    WithJsonSchema({"type": "string", "pattern": r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$", "examples": ["12:30"]}),
]
"""What the clocks of the place show, to the minute; without a zone of its own."""

Row = TypeVar("Row", bound=BaseModel)


def with_ids(rows: Iterable[Row]) -> tuple[Row, ...]:
    """Rows of which each has an id of its own: one that has none, or another's, gets the first number that is free.

    The same rows always get the same ids, so that whoever reads a document that knew none names its rows alike.
    """
    rows = tuple(rows)
    said = [getattr(row, "id", "") for row in rows]
    if len(set(said)) == len(said) and "" not in said:
        return rows
    taken, given, number = set(said), set[str](), 0
    out = []
    for row, own in zip(rows, said, strict=True):
        if own == "" or own in given:
            number += 1
            while str(number) in taken:
                number += 1
            own = str(number)
            row = row.model_copy(update={"id": own})
        given.add(own)
        out.append(row)
    return tuple(out)
