"""What a setup comes to, as a document: the light there, the ways with what each costs, and the chosen way's lanes."""

import math
from collections.abc import Sequence

import numpy as np
from pydantic import BaseModel

from ..core import wording
from ..core.counsel import advised_way, blur_of, costs_of, judgement, traps
from ..core.daylight import Stand
from ..core.flash import dial
from ..core.light import Ambient, tamings
from ..core.motion import blur_mm
from ..core.optics import coc_mm
from ..core.reach import CANNOT, Reach, Solved, needed_s
from ..core.setup import Setup, WayKind
from ..core.stops import ON_THE_LINE
from ..core.table import Table
from ..core.ways import Way
from ..core.wording import Manner, amount
from .lanes import Arcs, Lane, arcs_of, lanes_of, spare_words, words_of


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
    judgement: str = ""
    metered: str = ""
    evenness: str = ""
    charge: str = ""
    room: str = ""
    lit: float = 1.0
    dark_edge: str = ""
    avoided: bool = False


class AmbientText(BaseModel):
    """The light that is there, as EV at ISO 100."""

    background_ev: float
    subject_ev: float
    shade_ev: float
    subject: str
    how: str


class TamingText(BaseModel):
    """One way to tame the light, and what it does to the rest."""

    stand: Stand
    title: str
    subject_ev: float
    says: str


class TrapText(BaseModel):
    """Something that goes wrong on the day."""

    key: str
    title: str
    says: str


class Answer(BaseModel):
    """The answer to one setup."""

    ambient: AmbientText
    tamings: list[TamingText]
    f_number: float
    blur: str
    motion: str
    units: int
    ways: list[WayCard]
    chosen: WayKind
    advised: WayKind
    headline: str
    traps: list[TrapText]
    arcs: list[Arcs]
    lanes: list[Lane]


def answer_of(
    setup: Setup,
    solved: Solved,
    table: Table,
    ids: Sequence[str],
    manner: Manner,
    avoid: Sequence[WayKind] = (),
) -> Answer:
    """The document of a solved setup. `ids` names the units of `table`; `avoid` the ways a person would rather not."""
    advised = advised_way(setup, solved, avoid)
    chosen = setup.way if setup.way is not None else advised
    way = solved.way(chosen)
    shown = solved.reaches.get(chosen)
    return Answer(
        ambient=_ambient_text(solved.ambient, way.camera.ev),
        tamings=[
            TamingText(
                stand=taming.stand,
                title=taming.title,
                subject_ev=round(taming.ambient.subject_ev, 1),
                says=taming.says,
            )
            for taming in tamings(setup.there)
        ],
        f_number=setup.f_number,
        blur=_blur_text(setup, manner),
        motion=_motion_text(setup),
        units=len(table),
        ways=[_card(setup, solved, way, ids, table, avoid) for way in solved.ways],
        chosen=chosen,
        advised=advised,
        headline=f"{way.title} cannot be: {way.reason}" if shown is None else _headline(shown, table, manner),
        traps=[TrapText(key=trap.key, title=trap.title, says=trap.says) for trap in traps(setup, solved, chosen)],
        arcs=[] if shown is None else arcs_of(shown, table, manner),
        lanes=[] if shown is None else lanes_of(shown, table, ids, manner),
    )


def _ambient_text(ambient: Ambient, camera_ev: float) -> AmbientText:
    level = ambient.subject_ev - camera_ev
    look = "a silhouette" if level <= -3 else "dark" if level <= -1.5 else "dim" if level < -0.5 else "bright enough"
    return AmbientText(
        background_ev=round(ambient.background_ev, 2),
        subject_ev=round(ambient.subject_ev, 2),
        shade_ev=round(ambient.shade_ev, 2),
        subject=f"Without flash the subject falls to {wording.stops(level)}: {look}.",
        how=ambient.how,
    )


def _blur_text(setup: Setup, manner: Manner) -> str:
    found, blur = blur_of(setup, setup.f_number), setup.look.blur
    if found is None or blur is None:
        return ""
    far = "infinity" if math.isinf(found.far_m) else _metres(found.far_m, manner)
    return (
        f"{wording.f_number(setup.f_number)} is sharp from {_metres(found.near_m, manner)} to {far}; a point behind "
        f"becomes {found.share:.1%} of the frame: {found.words}."
    )


def _metres(metres: float, manner: Manner) -> str:
    if manner.length == "ft" or metres >= 100:
        return wording.length(metres, manner)
    return f"{metres:.2f} m" if metres < 10 else f"{metres:.1f} m"


def _motion_text(setup: Setup) -> str:
    motion, body = setup.motion, setup.body
    if motion.kind == "freeze":
        coc = motion.blur_mm or coc_mm(body.diagonal_mm)
        return (
            f"At {motion.speed:.1f} m/s in a field {motion.field_width_m:g} m wide, to blur no more than {coc:.3f} mm "
            f"the flash must burn no longer than {wording.shutter(needed_s(setup))} (t.1)."
        )
    if motion.kind == "trails":
        trail = blur_mm(motion.speed, motion.trail_s, body.frame_width_mm, motion.field_width_m)
        share = trail / body.frame_width_mm
        return f"In {wording.shutter(motion.trail_s)} it draws over {share:.0%} of the frame's width."
    return ""


def _round(value: object) -> float:
    return round(float(value), 3)  # type: ignore[arg-type]


def _card(
    setup: Setup, solved: Solved, way: Way, ids: Sequence[str], table: Table, avoid: Sequence[WayKind]
) -> WayCard:
    camera = way.camera
    card = WayCard(
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
        background=_background(way.off_stops),
        gives_up=way.gives_up,
        reach_count=0,
        best_id=None,
        best="no unit can",
        best_spare=None,
        lit=round(way.lit, 3),
        dark_edge=way.dark_edge,
        avoided=way.kind in avoid,
    )
    reach = solved.reaches.get(way.kind)
    if reach is None:
        return card
    able = reach.cannot == 0
    best = int(reach.best_first()[0])
    costs = costs_of(setup, reach, float(table.burns(reach.below_full)[best]), best)
    uneven, times = costs.evenness_stops, costs.charge_times
    return card.model_copy(
        update={
            "reach_count": int(np.sum(able & (reach.verdict > 0))),
            "best_id": ids[best] if able[best] else None,
            "best": f"{table.units[best].name} {spare_words(reach, best, words_of(reach)[best])}"
            if able[best]
            else "no unit can",
            "best_spare": _round(reach.spare[best]) if able[best] else None,
            "judgement": judgement(setup, reach, best),
            "metered": costs.metered,
            "evenness": "even across the frame" if uneven < 0.1 else f"{amount(uneven)} uneven across the frame",
            "charge": ""
            if times < 1.15
            else f"{times:.{0 if times >= 10 else 1}f} × the charge and wait of plain sync",
            "room": f"{wording.stops(costs.room_stops)} over the ambient" if able[best] else "",
        }
    )


def _background(off: float) -> str:
    if abs(off) < 0.25:
        return ""
    return f"background {amount(off)} {'brighter' if off > 0 else 'darker'} than asked"


def _headline(reach: Reach, table: Table, manner: Manner) -> str:
    """The verdict over the whole shelf in a sentence."""
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
