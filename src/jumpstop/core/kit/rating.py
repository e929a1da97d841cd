"""What a unit's claims come to on one basis: its light against coverage, with the doubt of each position.

Every claim keeps its basis and is compared only after it is brought to metres, ISO 100 and the coverage in question.
"""

import math
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from ..physics.beam import REFERENCE_ZOOM_MM, coverage_deg, moved_stops
from ..physics.exposure import METER_C_FLAT
from ..physics.guide_number import WS_COVERAGE_DEG, guide_number_of_ws, stops_of_guide_number
from .unit import Claim, Unit

REFERENCE_DEG = float(coverage_deg(REFERENCE_ZOOM_MM))
"""Diagonal angle of a 35 mm lens on 36 × 24 mm: the coverage that all are compared at."""
SD_MEASURED = 0.1  # one careful reading with a flash meter [stops], from memory
SD_CLAIMED = 0.25  # maker's figure at the coverage in question: rooms differ; from memory
SD_MOVED = 0.5  # moved from a coverage that was quoted to another by its beam, or coverage not said; from memory
SD_WATT_SECONDS = 0.6  # watt-seconds say nothing about the reflector, from memory
SAME_ZOOM = 0.08  # of the log of zoom: coverages nearer than this are taken as the same

Basis = Literal["watt_seconds", "measured", "no_coverage", "claimed", "typical"]


@dataclass(frozen=True)
class Rating:
    """A unit's light on the axis, bare at one metre, ISO 100, f/1, as stops (2 log2 GN) against coverage.

    Positions run from the widest to the narrowest; each has its stops and its sd.
    """

    positions_deg: tuple[float, ...]
    stops: tuple[float, ...]
    sd: tuple[float, ...]
    basis: Basis

    @cached_property
    def _zooms(self) -> list[float]:
        return [_log_zoom(angle) for angle in self.positions_deg]

    def at(self, angle_deg: float) -> tuple[float, float]:
        """(stops, sd) at a coverage; between quoted positions straight against log(zoom), outside them moved."""
        zooms, here = self._zooms, _log_zoom(angle_deg)
        nearest = min(range(len(zooms)), key=lambda i: abs(zooms[i] - here))
        if zooms[0] <= here <= zooms[-1] or abs(zooms[nearest] - here) < SAME_ZOOM:
            return float(np.interp(here, zooms, self.stops)), float(np.interp(here, zooms, self.sd))
        moved = float(moved_stops(self.positions_deg[nearest], angle_deg))
        return self.stops[nearest] + moved, max(self.sd[nearest], SD_MOVED)


def _log_zoom(angle_deg: float) -> float:
    """Log of the focal length that covers this angle, up to a constant."""
    return -math.log(math.tan(math.radians(angle_deg / 2)))


def rating_of(unit: Unit, c: float = METER_C_FLAT) -> Rating:
    """What a unit's claims come to. The user's own readings shift the maker's curve, and make it sure."""
    claimed = [claim for claim in unit.claims if not claim.measured]
    own = [claim for claim in unit.claims if claim.measured]
    if not claimed and not own:
        guess = float(stops_of_guide_number(guide_number_of_ws(unit.watt_seconds or 0.0, c=c)))
        return Rating((WS_COVERAGE_DEG,), (guess,), (SD_WATT_SECONDS,), "watt_seconds")
    rating = _curve(claimed or own)
    if not own:
        return replace(rating, basis="typical") if unit.typical else rating
    if claimed:
        shift = float(np.mean([_stops(claim) - rating.at(claim.angle_deg or REFERENCE_DEG)[0] for claim in own]))
        rating = replace(rating, stops=tuple(stops + shift for stops in rating.stops))
    sd = max(claim.sd or SD_MEASURED for claim in own) / math.sqrt(len(own))
    return replace(rating, sd=(sd,) * len(rating.stops), basis="measured")


def _stops(claim: Claim) -> float:
    return float(stops_of_guide_number(claim.guide_number_m))


def _curve(claims: list[Claim]) -> Rating:
    """Claims as a curve; several at one coverage are averaged, and one whose coverage was not said makes it soft."""
    at: dict[float, list[Claim]] = {}
    for claim in claims:
        at.setdefault(claim.angle_deg or REFERENCE_DEG, []).append(claim)
    angles = sorted(at, reverse=True)
    return Rating(
        positions_deg=tuple(angles),
        stops=tuple(float(np.mean([_stops(claim) for claim in at[angle]])) for angle in angles),
        sd=tuple(max(_doubt(claim) for claim in at[angle]) for angle in angles),
        basis="no_coverage" if any(claim.angle_deg is None for claim in claims) else "claimed",
    )


def _doubt(claim: Claim) -> float:
    if claim.sd is not None:
        return claim.sd
    return SD_MOVED if claim.angle_deg is None else SD_CLAIMED
