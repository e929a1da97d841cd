"""The coverage in words: units down, lights of setups across; and what the picked ones come to together."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..core.plan.choice.assignment import needs_of, picks_of, posts_of
from ..core.plan.job.board import Board, Landings, whole_chance
from ..core.plan.job.cautions import by_air, of_kit, of_mains
from ..core.plan.job.schedule import picked_of, posted_of
from ..core.plan.light.advice import units_for
from ..core.plan.light.levels import levels
from ..core.plan.light.reach import BLOCKED, REACHES, Reach
from ..core.plan.stage.set_warnings import stage_warnings
from ..core.plan.stage.warnings import warnings_of
from ..core.scene.job import Job
from .cautions import caution_text
from .figures import DisplayUnits, count, dial, share, stops
from .kit import ROLES
from .methods import title
from .stage_warnings import say_stage
from .warnings import say


@dataclass(slots=True)
class ColumnText:
    """One light of one setup. warning: of the methods in their order, the gravest of each ('' for none)."""

    setup: str
    light: int
    name: str
    role: str
    methods: list[str]
    warnings: list[str]
    covered: int


@dataclass(slots=True)
class CellsText:
    """The cells of one column, unit by unit: word, stops in hand (None: cannot be used), dial, place of the method."""

    word: list[str]
    spare: list[float | None]
    dial: list[str]
    method: list[int]


@dataclass(slots=True)
class UnitText:
    """One unit of the board."""

    id: str
    name: str
    kind: str
    holding: str
    count: int
    weight_g: float | None
    price: float | None
    covers: int
    picked: int


@dataclass(slots=True)
class PickedText:
    """The units picked, together: which lights they cover, what they weigh and cost, how sure the whole job is."""

    says: str
    covered: list[bool]
    posts: list[str]
    grams: float
    price: float
    outlay: float
    chance: float | None
    cautions: list[str]


@dataclass(slots=True)
class BoardText:
    """Units down, lights of setups across."""

    units: list[UnitText]
    columns: list[ColumnText]
    cells: list[CellsText]
    picked: PickedText
    empty: str


def board_text(board: Board, ids: Sequence[str], job: Job, words: DisplayUnits) -> BoardText:
    """The document. ids: of the setups, in the board's order."""
    table = board.table
    counts = picked_of(job, table)
    columns, cells = [], []
    notes = [_warnings_of(one, words) for one in board.landings]
    for at, column in enumerate(board.columns):
        one = board.landings[column.setup]
        setup, light = one.solved.setup, one.lights[column.light]
        columns.append(
            ColumnText(
                setup=ids[column.setup],
                light=light,
                name=setup.name,
                role=ROLES[setup.lights[light].role],
                methods=[title(one.solved.method(kind), setup.body.shutter) for kind in one.kinds],
                warnings=notes[column.setup],
                covered=int(np.sum(board.verdict[at] == REACHES)),
            )
        )
        cells.append(_cells(board, at, words))
    units = [
        UnitText(
            id=table.ids[at], name=unit.name, kind=unit.kind, holding=unit.holding, count=unit.count,
            weight_g=unit.weight_g, price=unit.price, covers=int(board.covers[at]), picked=counts.get(at, 0),
        )
        for at, unit in enumerate(table.units)
    ]  # fmt: skip
    empty = "" if board.columns else "No setup belongs to this job yet: add one, or put one of yours into it."
    return BoardText(units, columns, cells, picked_text(board, counts, job, ids), empty)


def _cells(board: Board, at: int, words: DisplayUnits) -> CellsText:
    verdict = board.verdict[at].tolist()
    spare = np.round(board.spare[at], 2).tolist()
    below = np.round(board.below_full[at], 2).tolist()
    units = board.table.units
    return CellsText(
        word=verdict,
        spare=[None if word == BLOCKED else one for word, one in zip(verdict, spare, strict=True)],
        dial=[
            "" if word == BLOCKED else _dial(unit.scale, one, words, unit.watt_seconds)
            for word, one, unit in zip(verdict, below, units, strict=True)
        ],
        method=board.kind[at].tolist(),
    )


_dial = lru_cache(maxsize=8192)(dial)


def _warnings_of(one: Landings, words: DisplayUnits) -> list[str]:
    """The gravest warning of each method."""
    out = []
    for kind in one.kinds:
        solved = one.solved
        units = units_for(solved, kind)
        found = [say(remark).title for remark in warnings_of(solved, kind, None, one.lights[0] if one.lights else 0)]
        stage = stage_warnings(solved, kind, units, levels(solved, kind, units))
        found += [say_stage(remark, words).title for remark in stage]
        out.append(found[0] if found else "")
    return out


def picked_text(board: Board, counts: Mapping[int, int], job: Job, ids: Sequence[str]) -> PickedText:
    """What a set of units comes to. ids: of the setups."""
    table = board.table
    needs = needs_of(board.landings, job.chance)
    posts = {at: posts_of(at, needs, dict(counts), _posted(one, job, ids[at])) for at, one in enumerate(board.landings)}
    covered = [bool(posts[column.setup]) for column in board.columns]
    found = [post for some in posts.values() for post in some or ()]
    whole = bool(counts) and all(posts.values()) and bool(posts)
    picks = picks_of(board.landings, found)
    chance = whole_chance(picks) if whole else None
    working = of_kit(picks, counts, board)
    cautions = [*by_air(working, job.brief), *of_mains(working, table, job.brief)]
    grams = sum((table.units[at].weight_g or 0.0) * count for at, count in counts.items())
    price = sum((table.units[at].price or 0.0) * count for at, count in counts.items())
    outlay = sum(
        (table.units[at].price or 0.0) * count for at, count in counts.items() if table.units[at].holding != "owned"
    )
    good = sum(bool(some) for some in posts.values())
    says = "No kit is picked for the job yet: tick units here, or let it be chosen."
    if counts:
        says = f"Covers {good} of {count(len(posts), 'setup')}" + (
            "" if whole else f" with {share(job.chance)} for every light"
        )
        if chance is not None:
            says = f"Covers {_all(len(posts))}; the chance that all goes right: {share(chance)}"
    return PickedText(
        says=f"{says}." if counts else says,
        covered=covered,
        posts=[post_text(reach, unit) for reach, unit, _ in picks],
        grams=grams,
        price=price,
        outlay=outlay,
        chance=None if chance is None else round(chance, 4),
        cautions=[caution_text(one, table) for one in cautions],
    )


def _posted(one: Landings, job: Job, setup_id: str) -> dict[int, int]:
    """The units that the job has at a setup's lights, by the lights' places among those that are on."""
    found, lights = posted_of(job, one.solved.table, setup_id), one.solved.setup.lights
    return {at: found[lights[light].id] for at, light in enumerate(one.lights) if lights[light].id in found}


def post_text(reach: Reach, unit: int) -> str:
    """Who stands at a light: setup, role, unit, method, and what is in hand."""
    setup, name = reach.solved.setup, reach.solved.table.units[unit].name
    kind, spare = title(reach.method, setup.body.shutter), stops(float(reach.spare[unit]))
    return f"{setup.name}, {ROLES[reach.light.role]}: {name}, {kind}, {spare} in hand"


def _all(setups: int) -> str:
    """All the setups: the one setup, both setups, all 6 setups."""
    return {1: "the one setup", 2: "both setups"}.get(setups, f"all {setups} setups")
