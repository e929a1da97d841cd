"""What goes over the wire beside the core's own values."""

from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field

from ..core.kit.values import example
from ..core.scene.aim import Lens
from ..core.scene.ambient import Reading
from ..core.scene.job import Session
from ..core.scene.light import Light
from ..core.scene.log import LogEntry
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup
from ..core.scene.stage import SubjectTone
from ..words.answer import Answer
from ..words.figures import DisplayUnits
from ..words.lanes import LaneStep


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
    """A stored document with its revision (send it back as If-Match), and what there is to say of it in a line."""

    id: str
    revision: int
    job_id: str | None
    doc: Model
    line: str


class ConflictOut(BaseModel, Generic[Model]):
    """Somebody changed the document first: what it is now."""

    problems: list[ProblemOut]
    current: Stored[Model]


class DayHelp(BaseModel):
    """Something that helps the day, as it names it (see `ways` of the day)."""

    model_config = example(code="charger")

    code: Literal["charges", "charger", "iso", "second", "order"]
    unit: str = Field("", max_length=64)
    count: float = Field(1, ge=1, le=99)
    sessions: list[int] = Field(default_factory=list, max_length=2)


class UnreadableOut(BaseModel):
    """A stored document that cannot be read, and why."""

    kind: str
    id: str
    name: str
    why: str


class Membership(BaseModel):
    """The job that a setup belongs to; null for none."""

    model_config = ConfigDict(extra="forbid") | example(job_id=None)

    job_id: Annotated[str, Field(max_length=64)] | None


class SolvedSetup(BaseModel):
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
    units: DisplayUnits = DisplayUnits()
    light: int = Field(0, ge=0, le=7, title="Light")


class LaneDetail(BaseModel):
    """One unit with its whole chain."""

    name: str
    method: str
    verdict: str
    spare: float
    sd: float
    p_reach: float
    steps: list[LaneStep]
    printed: list[str]


Column = Literal["dial", "ready", "flashes", "t01", "weight", "price"]


def _theme(value: object) -> object:
    """A theme by the name it has now."""
    return {"chalk": "desk", "dusk": "dim"}.get(value, value) if isinstance(value, str) else value


class Preferences(DisplayUnits):
    """How a person wants figures said and the screen to look."""

    model_config = example(length="m", step="third", power="own", theme="desk", sort="weight", avoid=["nd"])

    theme: Annotated[Literal["system", "desk", "dim", "sun"], BeforeValidator(_theme)] = Field("system", title="Theme")
    avoid: tuple[MethodKind, ...] = Field((), max_length=8, title="Methods not to advise")
    sort: Literal["spare", "dial", "ready", "flashes", "packs", "t01", "weight", "price"] = Field(
        "spare", title="Sorted by"
    )
    columns: tuple[Column, ...] = Field(("dial", "ready", "flashes"), max_length=6, title="Columns of the chart")


class UndoOut(BaseModel):
    """What an undo or redo did, and what this page could undo or redo next; without: what was changed elsewhere since,
    and stays as it is."""

    label: str | None
    kind: str | None
    ids: list[str]
    undo: str | None
    redo: str | None
    without: list[str]


class RowProblemOut(BaseModel):
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
    """What a file holds; `written` is how many units were added (0 in a preview). The first bad rows are listed."""

    digest: str
    good: int
    bad: int
    lines: list[ShelfLine]
    problems: list[RowProblemOut]
    unlisted: int
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
    watt_seconds: float | None
    hss: bool
    weight_g: float | None
    price: float | None
    holding: str


class RoleOut(BaseModel):
    """What a light's job is called, and the level it is usually given."""

    name: str
    target_stops: float
    bearing_deg: float


class Blank(BaseModel):
    """Documents to begin with; `forms` holds those of the shelf's forms and of their rows, by name."""

    setup: Setup
    reading: Reading
    lens: Lens
    light: Light
    session: Session
    log: LogEntry
    forms: dict[str, dict[str, Any]]


class MeterMark(BaseModel):
    """What a flash meter can show: thirds, and full stops with their tenths."""

    f_number: float
    says: str


class TemplateOut(BaseModel):
    """A usual job to begin with, and what it is for."""

    name: str
    use: str


class Scales(BaseModel):
    """The marked values of a camera's scales, the choices a setup offers, bounds and blank documents. kit: what one of
    each kind of kit is called."""

    apertures: list[float]
    shutters: list[float]
    isos: list[float]
    meter: list[MeterMark]
    focals_mm: list[float]
    zooms_mm: list[float]
    feet_per_metre: float
    conditions: dict[str, str]
    lamp_lit: list[str]
    skies: dict[str, str]
    movers: dict[str, str]
    skins: dict[str, float]
    tones: list[SubjectTone]
    gels: dict[str, str]
    roles: dict[str, RoleOut]
    supplies: dict[str, str]
    bounds: dict[str, dict[str, list[float]]]
    ticks: dict[str, str]
    kit: dict[str, str]
    reading_sd: dict[str, float]
    blank: Blank
