"""The open documents: setups and shelves, versioned, with a published JSON Schema."""

import json
from typing import Any, Literal

from pydantic import Field, ValidationError

from ..core.flash import Unit
from ..core.setup import Setup
from ..core.values import Value
from .problems import problems_of

MAX_SETUP_BYTES = 512 * 1024


class Shelf(Value):
    """A shelf of flash units."""

    format: Literal["jumpstop-shelf"] = "jumpstop-shelf"
    version: Literal[1] = 1
    units: tuple[Unit, ...] = Field((), max_length=20_000, title="Units")


DOCUMENTS: dict[str, type[Value]] = {"setup": Setup, "shelf": Shelf, "unit": Unit}


def schema_of(name: str) -> dict[str, Any]:
    """JSON Schema (2020-12) of one of the open documents."""
    schema = DOCUMENTS[name].model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def read_setup(data: bytes) -> Setup:
    """A setup from a file's bytes. Raises ValueError with a sentence for each thing that is wrong."""
    if len(data) > MAX_SETUP_BYTES:
        raise ValueError("A setup document of more than 512 kB cannot be right.")
    try:
        document = json.loads(data)
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        raise ValueError(f"This is not JSON that can be read: {error}.") from None
    try:
        return Setup.model_validate(document)
    except ValidationError as error:
        raise ValueError(" ".join(problem.sentence for problem in problems_of(error, Setup))) from None
