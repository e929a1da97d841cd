"""A picture said in a line: what was understood beside the words that it came from, what is asked, what is unread."""

from typing import Annotated, Literal, TypeVar

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..core.kit.values import example
from ..core.scene.light import OwnModifier
from ..core.scene.setup import OwnBody, OwnFilter, OwnLens, Setup
from ..formats.saying import Question, Sayable, read_picture
from ..service.saying import blank_like, known_units, places_of, said_setup
from ..store.rows import Kind
from ..words.figures import dial_kind, sign_of
from ..words.problems import problems_of
from ..words.saying import may_be, needs_place, part_words, said_again
from .documents import ERRORS, EVERYWHERE, workspace_of
from .workspace import Workspace

router = APIRouter(prefix="/api", tags=["Reading"], responses=EVERYWHERE)


class SayIn(BaseModel):
    """A line, the setup that it changes (none: a new one, like the one used last), and answers to what was asked.

    light: the one in hand. answers: by where in the text the question begins, which of the meanings.
    """

    model_config = ConfigDict(extra="forbid") | example(text="85 mm f/2.8, octa at 1.8 m 45 left")

    text: Annotated[str, Field(max_length=1200)]
    setup: Setup | None = None
    like: Annotated[str | None, Field(max_length=64)] = None
    light: Annotated[int, Field(ge=0, le=7)] = 0
    answers: dict[int, int] = Field(default_factory=dict, max_length=40)


class SaidPiece(BaseModel):
    """Some of the text, from and to a character, and what was understood of it."""

    start: int
    end: int
    says: list[str]


class SaidSpan(BaseModel):
    """Some of the text that was not understood."""

    start: int
    end: int


class SaidQuestion(BaseModel):
    """Some of the text that can be several things."""

    start: int
    end: int
    sentence: str
    options: list[str]


class SayOut(BaseModel):
    """What was read. outcome: said where nothing is asked, unread or wrong; the setup then holds all of it."""

    outcome: Literal["said", "ask", "refused"]
    pieces: list[SaidPiece]
    questions: list[SaidQuestion]
    unread: list[SaidSpan]
    problems: list[str]
    setup: Setup | None


@router.post("/say", responses={404: ERRORS[404]})
def say(request: Request, asked: SayIn) -> SayOut:
    """Read a picture said in a line. Nothing is stored by it, and nothing is guessed."""
    workspace = workspace_of(request)
    units = workspace.preferences()
    last = None
    if asked.setup is None and asked.like is not None:
        last = workspace.setup_of(workspace.store.item("setups", asked.like))
    setup = asked.setup or blank_like(last)
    light = min(asked.light, len(setup.lights) - 1)
    said = read_picture(
        asked.text, setup, known_of(workspace), asked.answers, lambda unit: dial_kind(unit.scale, units),
        units.length == "ft", sign_of(units),
    )  # fmt: skip
    made, problems = None, list[str]()
    try:
        made = said_setup(setup, said.parts, light)
    except ValidationError as error:
        problems = [problem.sentence for problem in problems_of(error, Setup)[:5]]
    text = asked.text
    return SayOut(
        outcome="ask" if said.questions else "refused" if said.unread or problems else "said",
        pieces=[
            SaidPiece(start=one.start, end=one.end, says=[part_words(part, units) for part in one.parts])
            for one in said.pieces
        ],
        questions=[
            SaidQuestion(
                start=one.start, end=one.end, sentence=_asks(one, text),
                options=[", ".join(part_words(part, units) for part in option) for option in one.options],
            )
            for one in said.questions
        ],
        unread=[SaidSpan(start=start, end=end) for start, end in said.unread],
        problems=problems,
        setup=made,
    )  # fmt: skip


def _asks(question: Question, text: str) -> str:
    words = text[question.start : question.end]
    if question.place:
        return needs_place(words, bool(question.options))
    return said_again(words) if question.again else may_be(words)


Own = TypeVar("Own", bound=BaseModel)


def _own(workspace: Workspace, kind: Kind, model: type[Own]) -> list[Own]:
    """Kit of the shelf, as a setup holds it."""
    kept = workspace.kit(kind, workspace.store.meta())
    return [model.model_construct(**{**dict(one), "id": key}) for key, one in kept.items()]


def known_of(workspace: Workspace) -> Sayable:
    """All that the person has, by whose names it can be said; and the places of the setups, with their days."""
    ambients = [item.doc.get("ambient") or {} for item in workspace.store.items("setups")]
    return Sayable(
        units=known_units(workspace.said_shelf()),
        modifiers=_own(workspace, "modifiers", OwnModifier),
        bodies=_own(workspace, "bodies", OwnBody),
        lenses=_own(workspace, "lenses", OwnLens),
        filters=_own(workspace, "filters", OwnFilter),
        places=places_of(one for one in ambients if one.get("place") and one.get("day")),
    )
