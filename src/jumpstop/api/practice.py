"""Practice: drills with hidden truth. Nothing is kept here: a drill is its seed and the moves that were made."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, ConfigDict, Field

from ..core.kit.values import example
from ..standins.bench import MOST_MOVES, BenchMove, play
from ..standins.drills import DrillCode
from ..standins.leap import MOST_PRESSES, caught, sitting_of
from ..words.leap import CaughtText, LeapText, caught_text, leap_text
from ..words.practice import DrillText, PlayText, drill_texts, play_text
from .documents import ERRORS, EVERYWHERE, workspace_of

router = APIRouter(prefix="/api/practice", tags=["Practice"], responses=EVERYWHERE)
MOST_SEED = 2**31 - 1
Seed = Annotated[int, Field(ge=0, le=MOST_SEED)]


class PlayedDrill(BaseModel):
    """A drill, and all moves so far."""

    model_config = ConfigDict(extra="forbid") | example(drill="ambient", seed=7, hard=False, moves=[{"do": "frame"}])

    drill: DrillCode
    seed: Seed
    hard: bool = False
    moves: Annotated[list[BenchMove], Field(max_length=MOST_MOVES)] = []


class Pressed(BaseModel):
    """When the button was pressed [s from the start of the sitting], by the page's own clock."""

    model_config = ConfigDict(extra="forbid") | example(seed=7, pressed_s=[1.9, 4.4])

    seed: Seed
    pressed_s: Annotated[list[Annotated[float, Field(ge=-10, le=60)]], Field(min_length=1, max_length=MOST_PRESSES)]


@router.get("/drills")
def drills() -> list[DrillText]:
    """The drills."""
    return drill_texts()


@router.post("/play", responses={422: ERRORS[422]})
def play_on(request: Request, asked: PlayedDrill) -> PlayText:
    """A drill after these moves: the same moves with the same seed always come to the same."""
    return play_text(play(asked.drill, asked.seed, asked.hard, tuple(asked.moves)), workspace_of(request).preferences())


@router.get("/leap")
def leap(request: Request, seed: Annotated[int, Query(ge=0, le=MOST_SEED)] = 1) -> LeapText:
    """Leaps to be caught at their peaks: their course, and how long the flash takes to be ready again."""
    return leap_text(sitting_of(seed), workspace_of(request).preferences())


@router.post("/leap", responses={422: ERRORS[422]})
def caught_at(request: Request, asked: Pressed) -> CaughtText:
    """What each press caught."""
    sitting = sitting_of(asked.seed)
    return caught_text(sitting, caught(sitting, asked.pressed_s), workspace_of(request).preferences())
