"""The lanes of the jump chart, as a document: every unit's chain, verdict, dial and stamina."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from pydantic import BaseModel

from ..core import wording
from ..core.flash import dial
from ..core.reach import CANNOT, Reach
from ..core.stops import ON_THE_LINE, SHORT
from ..core.table import Table
from ..core.wording import FEET_PER_METRE, Manner, amount

Word = Literal["reaches", "on_the_line", "short", "too_bright", "cannot"]


class Arcs(BaseModel):
    """One jump of the chart for all lanes: what it is called, and its size and uncertainty a lane [stops]."""

    key: str
    cause: str
    stops: list[float]
    sd: list[float]


@dataclass(slots=True)
class Lane:
    """One unit on the chart. Figures that nobody stated are null."""

    id: str
    name: str
    basis: str
    word: Word
    verdict: str
    spare: float
    sd: float
    p_reach: float
    dial: str
    dial_note: str
    ready_s: float | None
    ready: str
    flashes: int | None
    packs: int | None
    burns: str
    mains: bool
    weight_g: float | None
    price: float | None


@dataclass(slots=True)
class Step:
    """One jump of one lane, with its reason and its source."""

    key: str
    cause: str
    stops: float
    sd: float
    why: str
    mark: Literal["P", "D", "CP", "M", "U"]
    source: str


def steps_of(reach: Reach, index: int, manner: Manner) -> list[Step]:
    """The whole chain of one unit, with reasons."""
    return [
        Step(
            key=jump.key,
            cause=jump.cause,
            stops=round(float(jump.stops), 3),
            sd=round(float(jump.sd), 3),
            why=jump.why,
            mark=jump.mark,
            source=jump.source,
        )
        for jump in wording.one(reach.chain, index, manner)
    ]


def arcs_of(reach: Reach, table: Table, manner: Manner) -> list[Arcs]:
    """The chain's jumps, each with its size for all lanes."""
    count = len(table)
    return [
        Arcs(
            key=jump.key,
            cause=wording.fill(jump.cause, jump.facts, manner),
            stops=np.round(np.broadcast_to(jump.stops, (count,)), 3).tolist(),
            sd=np.round(np.broadcast_to(jump.sd, (count,)), 3).tolist(),
        )
        for jump in reach.chain
    ]


def words_of(reach: Reach) -> list[Word]:
    """What each unit's verdict is called."""
    cases = [reach.cannot > 0, reach.too_bright > 0, reach.verdict == ON_THE_LINE, reach.verdict == SHORT]
    found: list[Word] = np.select(cases, ["cannot", "too_bright", "on_the_line", "short"], "reaches").tolist()
    return found


def spare_words(reach: Reach, index: int, word: Word) -> str:
    """A unit's verdict in words."""
    size = float(reach.spare[index])
    if word == "cannot":
        return CANNOT[reach.cannot[index]]
    if word == "on_the_line":
        return f"on the line ({wording.stops(size)})"
    return f"short by {amount(size)}" if size < 0 else f"{size:.1f} spare"


def _dial_note(reach: Reach, index: int, word: Word) -> str:
    if word == "cannot":
        return ""
    if word == "too_bright":
        return f"too bright at minimum, by {amount(float(reach.too_bright[index]))}"
    left = float(reach.left[index])
    return f"{abs(left):.1f} over" if left >= 0.15 else f"{abs(left):.1f} under" if left <= -0.15 else ""


def lanes_of(reach: Reach, table: Table, ids: Sequence[str], manner: Manner) -> list[Lane]:
    """Every unit's verdict, dial and stamina."""
    guides = np.round(np.exp2(table.light / 2) * (1.0 if manner.length == "m" else FEET_PER_METRE)).astype(int)
    columns = zip(
        table.units,
        ids,
        words_of(reach),
        guides.tolist(),
        *(np.round(array, 3).tolist() for array in (reach.spare, reach.sd, reach.p, reach.below_full)),
        *(array.tolist() for array in (reach.ready_s, reach.flashes, reach.packs, table.burns(reach.below_full))),
        strict=True,
    )
    return [
        Lane(
            id=unit_id,
            name=unit.name,
            basis=f"GN {guide} {manner.length} at 35 mm",
            word=word,
            verdict=spare_words(reach, index, word),
            spare=spare,
            sd=sd,
            p_reach=p,
            dial=dial(unit.scale, below, manner.power, unit.watt_seconds),
            dial_note=_dial_note(reach, index, word),
            ready_s=None if math.isnan(ready) else round(ready, 3),
            ready="not stated" if math.isnan(ready) else wording.duration(ready),
            flashes=round(flashes) if math.isfinite(flashes) else None,
            packs=round(packs) if math.isfinite(packs) else None,
            burns="" if math.isnan(burns) else f"t.1 {wording.shutter(burns)}",
            mains=math.isinf(flashes),
            weight_g=unit.weight_g,
            price=unit.price,
        )
        for index, (unit, unit_id, word, guide, spare, sd, p, below, ready, flashes, packs, burns) in enumerate(columns)
    ]
