"""Whether what a maker prints can be true: claims held against each other and against physics."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ...kit.rating import REFERENCE_DEG, SD_WATT_SECONDS, rating_of
from ...kit.unit import Claim, Unit
from ...physics.battery import WS_PER_WH
from ...physics.beam import REFERENCE_ZOOM_MM, coverage_deg, frame_solid_angle_sr, moved_stops, solid_angle_sr
from ...physics.exposure import METER_C_FLAT
from ...physics.guide_number import (
    WS_COVERAGE_DEG,
    guide_number_of_stops,
    guide_number_of_ws,
    in_metres,
    stops_of_guide_number,
)
from ...physics.pulse import T01_OF_T05
from ..camera.remark import Remark, remark

EFFICACY_MOST = 50.0  # lm/W of stored energy: more is not likely; from memory
EFFICACY_LEAST = 15.0  # lm/W: less is not likely where the beam is wide; from memory
WIDE_MM = 50.0  # zoom heads lose most of their light beyond this: a low figure there is no fault (physics 20)
POSSIBLE_STOPS = 1.7  # a guide number this near to what its energy gives is possible; feet and metres lie 3.4 apart
UNSAID_MM = (24.0, 200.0)  # where the coverage is not said, it is one of a zoom head's
UNSAID_STOPS = (-1.2, 1.0)  # how far under the widest's and over the narrowest's figure such a number may lie
CHARGING_MOST_W = {"mains": 3000.0, "other": 1200.0}  # what a unit can draw while it recycles [W], from memory
SHARE_LEAST, SHARE_MOST = 0.4, 0.75  # of a pack's energy that its flashes take (physics 20, from memory)
FAR = 1.3  # times beyond those it is worth a sentence
AGREE_STOPS = 0.15  # metres and feet of one figure agree to this


@dataclass(frozen=True)
class Printed:
    """What a sheet says beside what a unit's document keeps.

    durations: (measure, or None where it has no name; seconds at full power). feet: (metres, feet) of guide numbers
    whose two figures differ.
    """

    durations: tuple[tuple[Literal["t.1", "t.5"] | None, float], ...] = ()
    feet: tuple[tuple[float, float], ...] = ()


def possible_units(
    number: float, iso: float, angle_deg: float | None, watt_seconds: float | None
) -> tuple[Literal["m", "ft"], ...]:
    """In which units of length a guide number without one can be, given its coverage [degrees] or None, and its energy
    [Ws]; both where nothing tells."""
    if not watt_seconds:
        return ("m", "ft")
    here = float(stops_of_guide_number(guide_number_of_ws(watt_seconds)))
    ends = [angle_deg] if angle_deg is not None else [float(coverage_deg(zoom)) for zoom in UNSAID_MM]
    expected = [here + float(moved_stops(WS_COVERAGE_DEG, angle)) for angle in ends]
    under, over = (-POSSIBLE_STOPS, POSSIBLE_STOPS) if angle_deg is not None else UNSAID_STOPS
    sizes: dict[Literal["m", "ft"], float] = {
        unit: float(stops_of_guide_number(in_metres(number, iso, unit == "ft"))) for unit in ("m", "ft")
    }
    found = tuple(unit for unit, stops in sizes.items() if expected[0] + under <= stops <= expected[-1] + over)
    return found or ("m", "ft")


def efficacy_lm_w(claim: Claim, watt_seconds: float) -> float:
    """Luminous efficacy [lm/W of stored energy] that a claim asks for in its own beam (physics 20)."""
    if claim.coverage_deg is not None:
        angle = float(solid_angle_sr(claim.coverage_deg))
    else:
        angle = float(frame_solid_angle_sr(claim.zoom_mm or REFERENCE_ZOOM_MM))
    return claim.guide_number_m**2 * METER_C_FLAT / 100 * angle / watt_seconds


def judged(unit: Unit, printed: Printed = Printed()) -> Iterator[Remark]:
    """What is wrong, or less than it seems, in what is printed; each with the figure that follows."""
    energy = unit.watt_seconds
    for claim in unit.claims:
        if energy and not claim.measured:
            yield from _by_energy(claim, energy)
    yield from _far_zoom(unit)
    for metres, feet in printed.feet:
        if abs(2 * math.log2(in_metres(feet, feet=True) / metres)) > AGREE_STOPS:
            yield remark("feet_differ", metres=metres, feet=feet, in_metres=float(in_metres(feet, feet=True)))
    yield from _durations(unit, printed)
    yield from _supplies(unit)


def _by_energy(claim: Claim, energy: float) -> Iterator[Remark]:
    needed = efficacy_lm_w(claim, energy)
    wide = claim.coverage_deg is not None or (claim.zoom_mm or REFERENCE_ZOOM_MM) <= WIDE_MM
    if needed > EFFICACY_MOST:
        said = claim.zoom_mm is not None or claim.coverage_deg is not None
        follows = float(guide_number_of_ws(energy))
        yield remark("too_much_light", claim=claim, efficacy=needed, said=said, follows=follows, sd=SD_WATT_SECONDS)
    elif needed < EFFICACY_LEAST and wide:
        yield remark("too_little_light", claim=claim, efficacy=needed)


def _far_zoom(unit: Unit) -> Iterator[Remark]:
    """A figure at a long zoom alone: what it comes to at 35 mm."""
    claimed = [claim for claim in unit.claims if not claim.measured]
    zooms = [claim.zoom_mm for claim in claimed if claim.zoom_mm]
    if len(zooms) == len(claimed) and zooms and min(zooms) > WIDE_MM:
        nearest = min(claimed, key=lambda claim: claim.zoom_mm or 0)
        stops, sd = rating_of(unit).at(REFERENCE_DEG)
        low, here, high = (float(guide_number_of_stops(stops + off)) for off in (-sd, 0.0, sd))
        yield remark("far_zoom", claim=nearest, zoom_mm=nearest.zoom_mm, low=low, here=here, high=high)
    by_zoom = sorted((claim.zoom_mm, claim.guide_number_m) for claim in claimed if claim.zoom_mm)
    for (wide, before), (narrow, after) in pairwise(by_zoom):
        if after < before * 0.97:
            yield remark("falls_with_zoom", wide_mm=wide, narrow_mm=narrow, before=before, after=after)


def _durations(unit: Unit, printed: Printed) -> Iterator[Remark]:
    known = dict(printed.durations)
    shape = unit.flash_duration.shape if unit.flash_duration else "cut"
    if "t.1" in known and "t.5" in known and known["t.1"] < known["t.5"] * min(T01_OF_T05.values()) * 0.9:
        yield remark("t05_for_t01", t01_s=known["t.1"], t05_s=known["t.5"], follows_s=known["t.5"] * T01_OF_T05[shape])
    elif None in known or ("t.5" in known and "t.1" not in known):
        seconds = known.get(None) or known["t.5"]
        yield remark("t05_alone", named=None not in known, t05_s=seconds, follows_s=seconds * T01_OF_T05[shape])


def _supplies(unit: Unit) -> Iterator[Remark]:
    energy = unit.watt_seconds
    if not energy:
        return
    for supply in unit.power_supplies:
        drawn, most = energy / supply.recycle_full_s, CHARGING_MOST_W["mains" if supply.kind == "mains" else "other"]
        if drawn > most:
            yield remark(
                "too_fast", kind=supply.kind, recycle_s=supply.recycle_full_s, watts=drawn, least_s=energy / most
            )
        if supply.full_flashes and supply.capacity_wh:
            share = supply.full_flashes * energy / WS_PER_WH / supply.capacity_wh
            if share > SHARE_MOST * FAR or share < SHARE_LEAST / FAR:
                likely = [round(supply.capacity_wh * WS_PER_WH * one / energy) for one in (SHARE_LEAST, SHARE_MOST)]
                yield remark("flashes_off", flashes=supply.full_flashes, share=share, low=likely[0], high=likely[1])


def doubted(unit: Unit, found: tuple[Remark, ...]) -> Unit:
    """The unit with the larger doubt of what was judged: a claim that its energy cannot give."""
    wrong = [one.facts["claim"] for one in found if one.code in ("too_much_light", "too_little_light")]
    softer = {"sd": SD_WATT_SECONDS}
    claims = tuple(
        one.model_copy(update=softer) if one in wrong and (one.sd or 0.0) < SD_WATT_SECONDS else one
        for one in unit.claims
    )
    return unit.model_copy(update={"claims": claims})
