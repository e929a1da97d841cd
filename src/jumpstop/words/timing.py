"""How curtains and flash come together, moment by moment, as a document that a picture can be drawn from."""

import numpy as np
from pydantic import BaseModel

from ..core.physics.shutter import LIT
from ..core.plan.camera.methods import dark_edge
from ..core.plan.camera.timing import USUAL_T01_S, of_unit
from ..core.plan.light.reach import Reach
from .figures import amount, share, shutter
from .methods import title

MOMENTS, ROWS = 61, 24


class TimingText(BaseModel):
    """Moments in equal steps; curtains as the share of the frame they have passed (0..1), from the row that opens
    first; got: for each moment and row, the share of the brightest row's light that has fallen so far."""

    method: str
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


def timing_text(reach: Reach, unit: int) -> TimingText:
    """The timing of a method with one unit at its dial."""
    solved, method = reach.solved, reach.method
    setup = solved.setup
    t01 = float(reach.t01_s[unit])
    exposed = of_unit(setup, method, solved.table, unit, t01)
    times = np.linspace(0.0, exposed.length_s, MOMENTS)
    first, second = exposed.curtains(times)
    level = np.asarray(exposed.burn.level(times - exposed.fired_s))
    got = exposed.rows(times, ROWS)
    whole = exposed.rows(count=ROWS)
    edge = "bottom" if setup.body.dark_edge == "unknown" else setup.body.dark_edge
    taken = bool(np.isnan(t01))
    flash = (
        f"the flash pulses for {shutter(exposed.burn.length_s)}"
        if method.kind == "hss"
        else f"the flash lasts {shutter(USUAL_T01_S if taken else t01)} (t.1{', taken' if taken else ''})"
    )
    travel = f"curtains take {shutter(exposed.travel_s)}" if exposed.travel_s else "no curtains: all rows open at once"
    uneven = exposed.evenness_stops(ROWS)
    lit = float(np.mean(exposed.rows(count=400) > whole.max() * LIT))
    even = "evenly" if uneven < 0.1 else f"uneven by {amount(uneven)}"
    ends = f"{share(lit)} of the frame lit, {even}" if method.kind == "past_sync" else f"the whole frame lit, {even}"
    return TimingText(
        method=title(method, setup.body.shutter),
        unit=solved.table.units[unit].name,
        times_ms=[round(float(t) * 1000, 3) for t in times],
        first=np.round(first, 3).tolist(),
        second=np.round(second, 3).tolist(),
        light=np.round(level / max(float(level.max()), 1e-12), 3).tolist(),
        got=np.round(got / max(float(whole.max()), 1e-12), 3).tolist(),
        travel=travel,
        shutter=shutter(method.camera.shutter_s),
        words=f"{travel.capitalize()}, {flash}: {ends}.",
        dark_edge=method.dark_edge,
        upright=setup.aim.orientation != "landscape",
        starts=dark_edge(edge, setup.aim.orientation),
    )
