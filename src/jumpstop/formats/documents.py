"""The open documents: setups and shelves, versioned, with a published JSON Schema."""

import json
from typing import Any, Literal

from pydantic import ConfigDict, Field, ValidationError

from ..core.kit.unit import Unit
from ..core.kit.values import Value
from ..core.scene.job import JobFile
from ..core.scene.log import LogFile
from ..core.scene.setup import Setup
from ..core.scene.versions import setup_of_any_version
from ..words.problems import problems_of
from ..words.titles import models_of, titled
from .errors import UnreadableFile

MAX_SETUP_BYTES = 512 * 1024
MAX_FILE_BYTES = 48 * 2**20  # of any file that is imported
MAX_JOB_BYTES = MAX_FILE_BYTES
MAX_UNITS = 20_000


class ShelfDocument(Value):
    """A shelf of flash units."""

    model_config = ConfigDict(title="Shelf")

    format: Literal["jumpstop-shelf"] = "jumpstop-shelf"
    version: Literal[2] = 2
    units: tuple[Unit, ...] = Field((), max_length=MAX_UNITS, title="Units")


DOCUMENTS: dict[str, type[Value]] = {
    "setup": Setup,
    "shelf": ShelfDocument,
    "unit": Unit,
    "job": JobFile,
    "log": LogFile,
}


def schema_of(name: str) -> dict[str, Any]:
    """JSON Schema (2020-12) of one of the open documents."""
    model = DOCUMENTS[name]
    schema = titled(model.model_json_schema(), models_of(Value) | {"": model})
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def json_of(data: bytes | str) -> Any:
    """What a JSON file holds. Raises Unreadable."""
    try:
        return json.loads(data)
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        raise UnreadableFile("not_json", why=str(error)) from None
    except ValueError:  # a number of more digits than Python reads
        raise UnreadableFile("number_long") from None


def read_setup(data: bytes) -> Setup:
    """A setup of any version from a file's bytes. Raises Unreadable with a sentence for each thing that is wrong."""
    if len(data) > MAX_SETUP_BYTES:
        raise UnreadableFile("setup_large", most=MAX_SETUP_BYTES)
    try:
        return Setup.model_validate(setup_of_any_version(json_of(data)))
    except ValidationError as error:
        raise UnreadableFile("not_right", problems=problems_of(error, Setup)) from None


def is_job(data: bytes) -> bool:
    """Whether a file's bytes hold a job, not a single setup. Raises Unreadable."""
    found = json_of(data)
    return isinstance(found, dict) and "setups" in found


def read_job(data: bytes) -> JobFile:
    """A job with its setups from a file's bytes. Raises Unreadable with a sentence for each thing that is wrong."""
    if len(data) > MAX_JOB_BYTES:
        raise UnreadableFile("job_large", most=MAX_JOB_BYTES)
    try:
        return JobFile.model_validate(json_of(data))
    except ValidationError as error:
        raise UnreadableFile("not_right", problems=problems_of(error, JobFile)) from None


def write_job(file: JobFile) -> str:
    """A job as JSON that `read_job` reads back whole."""
    return file.model_dump_json(indent=1) + "\n"
