"""How curtains and flash meet, moment by moment, as a document that a picture can be drawn from."""

import numpy as np
from pydantic import BaseModel

from ..core import wording
from ..core.counsel import USUAL_T01_S, meeting
from ..core.reach import Reach
from ..core.setup import Setup
from ..core.shutter import LIT
from ..core.table import Table
from ..core.ways import dark_edge

MOMENTS, ROWS = 61, 24


class Film(BaseModel):
    """Moments in equal steps; curtains as the share of the frame they have passed (0..1), from the row that opens
    first; got: for each moment and row, the share of the brightest row's light that has fallen so far."""

    way: str
    unit: str
    times_ms: list[float]
    first: list[float]
    second: list[float]
    light: list[float]
    got: list[list[float]]
    travel: str
    shutter: str
    words: str
    dark_edge: str
    upright: bool
    starts: str


def film_of(setup: Setup, reach: Reach, table: Table) -> Film:
    """The film of a way with its best unit at its dial."""
    best, way = int(reach.best_first()[0]), reach.way
    t01 = float(table.burns(reach.below_full)[best])
    met = meeting(setup, way, t01)
    times = np.linspace(0.0, met.length_s, MOMENTS)
    first, second = met.curtains(times)
    level = np.asarray(met.burn.level(times - met.fired_s))
    got = met.rows(times, ROWS)
    whole = met.rows(count=ROWS)
    upright = setup.look.orientation != "landscape"
    edge = "bottom" if setup.body.dark_edge == "unknown" else setup.body.dark_edge
    taken = bool(np.isnan(t01))
    flash = (
        f"the flash pulses for {wording.shutter(met.burn.length_s)}"
        if way.kind == "hss"
        else f"the flash burns {wording.shutter(USUAL_T01_S if taken else t01)} (t.1{', taken' if taken else ''})"
    )
    travel = f"curtains take {wording.shutter(met.travel_s)}" if met.travel_s else "no curtains: all rows open at once"
    uneven = met.evenness_stops(ROWS)
    share = float(np.mean(met.rows(count=400) > whole.max() * LIT))
    even = "evenly" if uneven < 0.1 else f"uneven by {wording.amount(uneven)}"
    ends = f"{share:.0%} of the frame lit, {even}" if way.kind == "past_sync" else f"the whole frame lit, {even}"
    return Film(
        way=way.title,
        unit=table.units[best].name,
        times_ms=[round(float(t) * 1000, 3) for t in times],
        first=np.round(first, 3).tolist(),
        second=np.round(second, 3).tolist(),
        light=np.round(level / max(float(level.max()), 1e-12), 3).tolist(),
        got=np.round(got / max(float(whole.max()), 1e-12), 3).tolist(),
        travel=travel,
        shutter=wording.shutter(way.camera.shutter_s),
        words=f"{travel.capitalize()}, {flash}: {ends}.",
        dark_edge=way.dark_edge,
        upright=upright,
        starts=dark_edge(edge, setup.look.orientation),
    )
