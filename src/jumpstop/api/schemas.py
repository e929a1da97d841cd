"""What goes over the wire beside the core's own values."""

from typing import Generic, Literal, TypeVar

from pydantic import BaseModel, Field

from ..core.setup import Setup, WayKind
from ..core.values import example
from ..core.wording import Manner
from ..formats.answer import Answer
from ..formats.lanes import Lane, Step


class ProblemOut(BaseModel):
    """One thing that is wrong, in a sentence that names the field."""

    where: str
    field: str
    sentence: str


class Refusal(BaseModel):
    """Why a request was refused; nothing was changed."""

    problems: list[ProblemOut]


Model = TypeVar("Model")


class Stored(BaseModel, Generic[Model]):
    """A stored document with its revision (send it back as If-Match)."""

    id: str
    revision: int
    job_id: str | None = None
    doc: Model


class Conflict(BaseModel, Generic[Model]):
    """Somebody changed the document first: what it is now."""

    problems: list[ProblemOut]
    current: Stored[Model]


class Job(BaseModel):
    """A job: several setups under one name."""

    model_config = example(name="Kite week on the downs")

    name: str = Field(min_length=1, max_length=80, title="Name")
    note: str = Field("", max_length=2000, title="Note")


class Solved(BaseModel):
    """A setup as it stands, and what it comes to; `trouble` says why where there is no answer."""

    id: str
    revision: int
    job_id: str | None
    setup: Setup
    answer: Answer | None
    trouble: str


class SolveIn(BaseModel):
    """A setup to be solved without storing it."""

    setup: Setup
    manner: Manner = Manner()
    light: int = Field(0, ge=0, le=7, title="Light")


class LaneDetail(BaseModel):
    """One lane with its whole chain."""

    lane: Lane
    way: str
    steps: list[Step]
    printed: list[str]


class Preferences(Manner):
    """How a person wants figures said and the screen to look."""

    model_config = example(length="m", step="third", power="own", theme="chalk", sort="weight", avoid=["nd"])

    theme: Literal["system", "chalk", "dusk"] = Field("system", title="Theme")
    avoid: tuple[WayKind, ...] = Field((), max_length=8, title="Ways rather not taken")
    sort: Literal["spare", "ready", "flashes", "packs", "weight", "price"] = Field("spare", title="Sorted by")


class Turned(BaseModel):
    """What an undo or redo did, and what could be undone or redone next."""

    label: str | None
    kind: str | None
    ids: list[str]
    undo: str | None
    redo: str | None


class RowTrouble(BaseModel):
    """A row that could not be read."""

    row: int
    column: str
    reason: str


class ShelfLine(BaseModel):
    """A unit as the import shows it."""

    name: str
    printed: str
    comes_to: str


class ImportOut(BaseModel):
    """What a file holds; `written` is how many units were added (0 in a preview)."""

    digest: str
    good: int
    bad: int
    lines: list[ShelfLine]
    problems: list[RowTrouble]
    unknown_columns: list[str]
    written: int


class UnitLine(BaseModel):
    """A unit of the shelf beside what its claims come to on one basis."""

    id: str
    revision: int
    name: str
    kind: str
    printed: list[str]
    guide_number: str
    sd: float
    basis: str
    share_of_claim: str
    watt_seconds: float | None
    hss: bool
    weight_g: float | None
    price: float | None


class Scales(BaseModel):
    """The marked values of a camera's scales, and the choices a setup offers."""

    apertures: list[float]
    shutters: list[float]
    isos: list[float]
    conditions: dict[str, str]
    lamp_lit: list[str]
    skies: dict[str, str]
    movers: dict[str, str]
    gels: dict[str, str]
