"""What a setup comes to, as a document: the ways, and for the way chosen every unit's chain, verdict and dial."""

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np
from pydantic import BaseModel

from ..core import wording
from ..core.flash import dial
from ..core.light import ambient_of
from ..core.reach import CANNOT, Reach
from ..core.setup import Setup, WayKind
from ..core.stops import ON_THE_LINE, SHORT
from ..core.table import Table
from ..core.wording import Manner, amount

Word = Literal["reaches", "on_the_line", "short", "too_bright", "cannot"]
PREFERRED: tuple[WayKind, ...] = ("sync", "leaf", "nd", "hss", "stop_down")


class CameraText(BaseModel):
    """Camera settings as the camera shows them."""

    aperture: str
    shutter: str
    iso: str
    nd: str


class WayCard(BaseModel):
    """One way: settings, verdict over the whole shelf, and what it costs."""

    kind: WayKind
    title: str
    possible: bool
    reason: str
    camera: CameraText
    background: str
    gives_up: str
    reach_count: int
    best_id: str | None
    best: str
    best_spare: float | None


class Arcs(BaseModel):
    """One jump of the chart for all lanes: what it is called, and its size and uncertainty a lane [stops]."""

    key: str
    cause: str
    stops: list[float]
    sd: list[float]


class Lane(BaseModel):
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
    mains: bool
    weight_g: float | None
    price: float | None


class Step(BaseModel):
    """One jump of one lane, with its reason and its source."""

    key: str
    cause: str
    stops: float
    sd: float
    why: str
    mark: Literal["P", "D", "CP", "M", "U"]
    source: str


class AmbientText(BaseModel):
    """The light that is there, as EV at ISO 100."""

    background_ev: float
    subject_ev: float
    shade_ev: float
    how: str


class Answer(BaseModel):
    """The answer to one setup."""

    ambient: AmbientText
    ways: list[WayCard]
    chosen: WayKind
    advised: WayKind
    headline: str
    arcs: list[Arcs]
    lanes: list[Lane]


def answer_of(setup: Setup, reaches: Sequence[Reach], table: Table, ids: Sequence[str], manner: Manner) -> Answer:
    """The document of a solved setup. `ids` names the units of `table`."""
    advised = advised_way(reaches)
    chosen = next((reach for reach in reaches if reach.way.kind == setup.way), None)
    shown = chosen if chosen is not None else next(reach for reach in reaches if reach.way.kind == advised)
    ambient = ambient_of(setup.there)
    return Answer(
        ambient=AmbientText(
            background_ev=round(ambient.background_ev, 2),
            subject_ev=round(ambient.subject_ev, 2),
            shade_ev=round(ambient.shade_ev, 2),
            how=ambient.how,
        ),
        ways=[_card(reach, ids, table) for reach in reaches],
        chosen=shown.way.kind,
        advised=advised,
        headline=_headline(shown, table, manner),
        arcs=_arcs(shown, table, manner),
        lanes=lanes_of(shown, table, ids, manner),
    )


def advised_way(reaches: Sequence[Reach]) -> WayKind:
    """The way that gives up least among those with which some unit reaches; else the one that comes nearest."""
    possible = {reach.way.kind: reach for reach in reaches if reach.way.possible}
    for kind in PREFERRED:
        if kind in possible and np.any((possible[kind].verdict > 0) & (possible[kind].cannot == 0)):
            return kind
    able = {kind: reach.spare[reach.cannot == 0] for kind, reach in possible.items()}
    return max(able, key=lambda kind: float(np.max(able[kind], initial=-99)), default="sync")


def steps_of(reach: Reach, index: int, manner: Manner) -> list[Step]:
    """The whole chain of one unit, with reasons."""
    return [
        Step(
            key=jump.key,
            cause=jump.cause,
            stops=_round(jump.stops),
            sd=_round(jump.sd),
            why=jump.why,
            mark=jump.mark,
            source=jump.source,
        )
        for jump in wording.one(reach.chain, index, manner)
    ]


def _round(value: object) -> float:
    return round(float(value), 3)  # type: ignore[arg-type]


def _card(reach: Reach, ids: Sequence[str], table: Table) -> WayCard:
    way, camera = reach.way, reach.way.camera
    able = reach.cannot == 0
    best = int(reach.best_first()[0])
    any_able = bool(np.any(able))
    off = way.off_stops
    return WayCard(
        kind=way.kind,
        title=way.title,
        possible=way.possible,
        reason=way.reason,
        camera=CameraText(
            aperture=wording.f_number(camera.f_number),
            shutter=wording.shutter(camera.shutter_s),
            iso=f"ISO {camera.iso:g}",
            nd=f"ND {camera.nd_stops:.3g}" if camera.nd_stops else "",
        ),
        background="background as asked" if abs(off) < 0.25 else f"background {wording.stops(off)} of what was asked",
        gives_up=way.gives_up,
        reach_count=int(np.sum(able & (reach.verdict > 0))) if way.possible else 0,
        best_id=ids[best] if any_able else None,
        best=f"{table.units[best].name} {_spare_words(reach, best)}" if any_able else "no unit can",
        best_spare=_round(reach.spare[best]) if any_able else None,
    )


def _arcs(reach: Reach, table: Table, manner: Manner) -> list[Arcs]:
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


def _word(reach: Reach, index: int) -> Word:
    if reach.cannot[index]:
        return "cannot"
    if reach.too_bright[index] > 0:
        return "too_bright"
    if reach.verdict[index] == ON_THE_LINE:
        return "on_the_line"
    return "short" if reach.verdict[index] == SHORT else "reaches"


def _spare_words(reach: Reach, index: int) -> str:
    word, size = _word(reach, index), float(reach.spare[index])
    if word == "cannot":
        return CANNOT[reach.cannot[index]]
    if word == "on_the_line":
        return f"on the line ({wording.stops(size)})"
    return f"short by {amount(size)}" if size < 0 else f"{size:.1f} spare"


def _dial_note(reach: Reach, index: int) -> str:
    word = _word(reach, index)
    if word == "cannot":
        return ""
    if word == "too_bright":
        return f"too bright at minimum, by {amount(float(reach.too_bright[index]))}"
    left = float(reach.left[index])
    return f"{abs(left):.1f} over" if left >= 0.15 else f"{abs(left):.1f} under" if left <= -0.15 else ""


def lanes_of(reach: Reach, table: Table, ids: Sequence[str], manner: Manner) -> list[Lane]:
    """Every unit's verdict, dial and stamina."""
    lanes = []
    for index, unit in enumerate(table.units):
        ready, flashes, packs = (float(array[index]) for array in (reach.ready_s, reach.flashes, reach.packs))
        guide = 2 ** (float(table.light[index]) / 2)
        lanes.append(
            Lane(
                id=ids[index],
                name=unit.name,
                basis=f"GN {guide:.0f} m at 35 mm" if manner.length == "m" else f"GN {guide * 3.2808:.0f} ft at 35 mm",
                word=_word(reach, index),
                verdict=_spare_words(reach, index),
                spare=_round(reach.spare[index]),
                sd=_round(reach.sd[index]),
                p_reach=_round(reach.p[index]),
                dial=dial(unit.scale, float(reach.below_full[index]), manner.power, unit.watt_seconds),
                dial_note=_dial_note(reach, index),
                ready_s=None if math.isnan(ready) else _round(ready),
                ready="not stated" if math.isnan(ready) else wording.duration(ready),
                flashes=round(flashes) if math.isfinite(flashes) else None,
                packs=round(packs) if math.isfinite(packs) else None,
                mains=math.isinf(flashes),
                weight_g=unit.weight_g,
                price=unit.price,
            )
        )
    return lanes


def _headline(reach: Reach, table: Table, manner: Manner) -> str:
    """The verdict over the whole shelf in a sentence."""
    if not reach.way.possible:
        return f"{reach.way.title} cannot be: {reach.way.reason}"
    able = np.flatnonzero(reach.cannot == 0)
    if not len(able):
        return f"No unit can: {CANNOT[int(np.bincount(reach.cannot).argmax())]}."
    count = f"{len(table)} {'unit' if len(table) == 1 else 'units'}"
    good = [int(index) for index in able if reach.verdict[index] > 0]
    nearest = int(able[np.argmax(reach.spare[able])])
    name = table.units[nearest].name
    if not good:
        if reach.verdict[nearest] == ON_THE_LINE:
            return f"No unit surely reaches. {name} is on the line: {wording.stops(float(reach.spare[nearest]))} stop."
        return f"No unit on this shelf reaches. The nearest, {name}, is {amount(float(reach.spare[nearest]))} short."
    weighed = [index for index in good if table.units[index].weight_g is not None]
    lead = f"{'All' if len(good) == len(table) else len(good)} of {count} {'reaches' if len(good) == 1 else 'reach'}."
    if len(good) == len(table) == 1:
        lead = f"{table.units[0].name} reaches."
    if not weighed:
        return lead
    light = min(weighed, key=lambda index: table.units[index].weight_g or 0)
    unit = table.units[light]
    set_to = dial(unit.scale, float(reach.below_full[light]), manner.power, unit.watt_seconds)
    return f"{lead} The lightest that does, {unit.name}, at {set_to}."
