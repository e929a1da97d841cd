"""Flash units: what the maker claims, what it comes to on one basis, and the dial it is set by.

A guide number is N x d for a correct exposure [ISO 1230:2007]; it scales with the square root of ISO, of power and
of the number of equal heads. It means nothing without its ISO, its unit of length and its coverage, so every claim
keeps its basis and is compared only after it is brought to metres, ISO 100 and the coverage of a 35 mm lens.
"""

import math
from typing import Literal

import numpy as np
from pydantic import ConfigDict, Field, model_validator

from .exposure import METER_C_FLAT
from .stops import Jump, stops_of
from .values import Figure, Iso, Name, Note, Spread, Value
from .wording import FEET_PER_METRE

FRAME_DIAGONAL_MM = 43.267  # 36 x 24 mm
REFERENCE_ZOOM_MM = 35.0  # every unit is compared at this coverage, 63.4 degrees across the diagonal

SD_MEASURED = 0.1  # one careful reading with a flash meter, from memory
SD_CLAIMED = 0.25  # maker's figure at the coverage in question: rooms differ, see `room_constant`; from memory
SD_MOVED = 0.5  # one quoted coverage only, moved to another by its beam, from memory
SD_WATT_SECONDS = 0.6  # watt-seconds say nothing about the reflector, from memory
EFFICACY_LM_W = 35.0  # luminous efficacy of stored energy, reflector included; 30 to 45, from memory
WS_COVERAGE_DEG = 65.0  # the reflector assumed where only watt-seconds are known
HSS_EXTRA = 0.5  # what a unit loses in HSS beyond geometry [stops], from memory; one reading replaces it
T01_OF_T05 = {"tail": math.log(10) / math.log(2), "cut": 2.25}
"""t.1 of a t.5: 3.32 for an uncut exponential tail [definition]; 2 to 2.5 for a pulse that is cut, from memory."""
CONCENTRATION = 0.4
"""How much of the gain in solid angle a real zoom head turns into light, from memory.

An ideal projector would gain every stop by which the beam's solid angle shrinks (4.7 from 35 to 200 mm). The tables
that makers of zoom heads print gain 1.2 to 1.8 over that range, and 1.5 to 2.1 from 24 to 105 mm: about 0.4 of it,
give or take half a stop."""


class Claim(Value):
    """One guide number with its whole basis."""

    guide_number: float = Field(ge=0.5, le=2000, title="Guide number")
    unit: Literal["m", "ft"] = Field(title="Guide number's unit (m or ft)")
    iso: Iso = 100
    zoom_mm: float | None = Field(None, ge=8, le=800, title="Zoom position (mm)")
    coverage_deg: float | None = Field(None, ge=2, le=180, title="Coverage (degrees)")
    reflector: str = Field("", max_length=80, title="Reflector")
    measured: bool = Field(False, title="Measured by you")
    sd: Spread | None = Field(None, title="Uncertainty (stops)")

    @property
    def guide_number_m(self) -> float:
        """Guide number in metres at ISO 100, at its own coverage."""
        return self.guide_number / (FEET_PER_METRE if self.unit == "ft" else 1.0) / math.sqrt(self.iso / 100)

    @property
    def angle_deg(self) -> float | None:
        """Diagonal coverage [degrees] it was quoted at, or None where that was not said."""
        if self.coverage_deg is not None:
            return self.coverage_deg
        return None if self.zoom_mm is None else float(coverage_deg(self.zoom_mm))

    @property
    def printed(self) -> str:
        """The claim as makers print it."""
        place = f", {self.zoom_mm:g} mm" if self.zoom_mm else ""
        place = f", {self.coverage_deg:g}°" if self.coverage_deg and not place else place
        place += f", {self.reflector}" if self.reflector else ""
        return f"GN {self.guide_number:g} (ISO {self.iso:g}, {self.unit}{place})"


class PowerScale(Value):
    """How a unit's power is dialled."""

    kind: Literal["fraction", "number", "ws"] = Field("fraction", title="Power scale")
    lowest: float = Field(1 / 128, ge=1 / 8192, le=1, title="Lowest power (share of full)")
    step_stops: float = Field(1 / 3, ge=0.05, le=2, title="Power step (stops)")
    top_number: float = Field(10, ge=1, le=20, title="Number at full power")


class PowerSource(Value):
    """What a unit is fed by: how fast it is ready again, and how long it lasts."""

    kind: Literal["aa", "lithium", "external", "mains"] = Field("aa", title="Kind of power source")
    name: str = Field("", max_length=80, title="Power source's name")
    recycle_full_s: float = Field(ge=0.01, le=120, title="Recycle time after full power (s)")
    recycle_least_s: float = Field(0.1, ge=0, le=60, title="Shortest recycle time (s)")
    full_flashes: float | None = Field(None, ge=1, le=1_000_000, title="Full-power flashes per charge")
    capacity_wh: float | None = Field(None, ge=0.1, le=10_000, title="Capacity (Wh)")
    weight_g: float | None = Field(None, ge=0, le=100_000, title="Power source's weight (g)")
    price: float | None = Field(None, ge=0, le=1_000_000, title="Power source's price")


class HssEntry(Value):
    """One line of a published or measured HSS table."""

    shutter_s: float = Field(ge=1 / 100000, le=1, title="Shutter time of the HSS table (s)")
    loss_stops: float = Field(ge=0, le=12, title="HSS loss (stops)")


class Hss(Value):
    """High-speed sync: the unit's own extra loss beyond plain geometry, or its table."""

    extra_stops: float = Field(HSS_EXTRA, ge=-2, le=6, title="Extra HSS loss (stops)")
    measured: bool = False
    table: tuple[HssEntry, ...] = Field((), max_length=40, title="HSS table")


class PulseEntry(Value):
    """Flash duration at one power setting."""

    power: float = Field(ge=1 / 8192, le=1, title="Power (share of full)")
    seconds: float = Field(ge=1e-6, le=0.1, title="Flash duration (s)")


class Pulse(Value):
    """How long the flash burns, by power."""

    shape: Literal["cut", "tail"] = Field("cut", title="Pulse shape")
    measure: Literal["t.1", "t.5"] = Field("t.1", title="Duration given as")
    table: tuple[PulseEntry, ...] = Field(min_length=1, max_length=40, title="Flash durations")


class Unit(Value):
    """A flash unit as it stands on the shelf."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [
                {
                    "name": "Redshank 60",
                    "kind": "shoe",
                    "watt_seconds": 80,
                    "claims": [{"guide_number": 60, "unit": "m", "iso": 100, "zoom_mm": 200}],
                    "sources": [{"kind": "lithium", "recycle_full_s": 1.5, "full_flashes": 480}],
                    "hss": {"extra_stops": 0.3},
                }
            ]
        }
    )

    name: Name
    kind: Literal["shoe", "pocket", "monobloc", "pack", "built_in", "ring"] = Field("shoe", title="Kind")
    watt_seconds: float | None = Field(None, ge=0.1, le=50_000, title="Energy (Ws)")
    claims: tuple[Claim, ...] = Field((), max_length=40, title="Guide numbers")
    zoom_min_mm: float | None = Field(None, ge=8, le=800, title="Widest zoom (mm)")
    zoom_max_mm: float | None = Field(None, ge=8, le=800, title="Longest zoom (mm)")
    scale: PowerScale = Field(PowerScale(), title="Power scale")
    sources: tuple[PowerSource, ...] = Field((), max_length=8, title="Power sources")
    hss: Hss | None = Field(None, title="High-speed sync")
    pulse: Pulse | None = Field(None, title="Flash duration")
    takes_modifiers: bool = Field(True, title="Takes modifiers")
    weight_g: float | None = Field(None, ge=0, le=100_000, title="Weight (g)")
    price: float | None = Field(None, ge=0, le=1_000_000, title="Price")
    note: Note = ""

    @model_validator(mode="after")
    def _has_light(self) -> "Unit":
        if not self.claims and self.watt_seconds is None:
            raise ValueError(
                f"“{self.name}” needs a guide number or an energy in Ws: without one its light is unknown."
            )
        if self.zoom_min_mm and self.zoom_max_mm and self.zoom_min_mm > self.zoom_max_mm:
            raise ValueError(f"“{self.name}”: the widest zoom ({self.zoom_min_mm:g} mm) is longer than the longest.")
        return self


def coverage_deg(zoom_mm: Figure) -> Figure:
    """Diagonal angle of view [degrees] of a focal length on 36 x 24 mm: 24 mm 84.1, 35 63.4, 200 12.3."""
    return np.degrees(2 * np.arctan(FRAME_DIAGONAL_MM / 2 / np.asarray(zoom_mm)))


def solid_angle_sr(angle_deg: Figure) -> Figure:
    """Solid angle [sr] of a round beam of this full angle: 2 pi (1 - cos(angle / 2))."""
    return 2 * math.pi * (1 - np.cos(np.radians(angle_deg) / 2))


def beam_candela_seconds(guide_number_m: Figure, iso: float = 100, c: float = METER_C_FLAT) -> Figure:
    """Beam candela-seconds of a guide number: GN^2 = BCPS x S / C. GN 36 m is 3,240 BCPS at C = 250."""
    return np.square(guide_number_m) * c / iso


def guide_number_of_bcps(bcps: Figure, iso: float = 100, c: float = METER_C_FLAT) -> Figure:
    """Guide number [m] of so many beam candela-seconds."""
    return np.sqrt(np.asarray(bcps) * iso / c)


def guide_number_of_ws(
    watt_seconds: Figure,
    angle_deg: float = WS_COVERAGE_DEG,
    lm_w: float = EFFICACY_LM_W,
    c: float = METER_C_FLAT,
) -> Figure:
    """Guide number [m, ISO 100] guessed from stored energy: 400 Ws at 35 lm/W into 65 degrees is about GN 75."""
    return guide_number_of_bcps(np.asarray(watt_seconds) * lm_w / solid_angle_sr(angle_deg), c=c)


def room_constant(feet_constant: float) -> float:
    """Meter constant C [lx s] behind a handbook constant in feet (15 to 25: C = 161 to 269).

    BCPS = constant-free; GN_ft^2 = k BCPS S / 100 x ... so C = 10.764 k. Source: Edgerton, Electronic Flash, Strobe.
    Rooms differ by as much: their walls explain most quarrels about guide numbers.
    """
    return feet_constant * FEET_PER_METRE**2


def guide_number_at(guide_number_m: Figure, iso: Figure = 100.0, power: Figure = 1.0, heads: Figure = 1.0) -> Figure:
    """Guide number [m] at another ISO, share of full power, and number of equal heads."""
    return guide_number_m * np.sqrt(np.asarray(iso) / 100 * power * heads)


def moved_stops(from_deg: Figure, to_deg: Figure) -> Figure:
    """Stops gained when a beam is moved between coverages with only one of them quoted (see CONCENTRATION)."""
    return CONCENTRATION * stops_of(solid_angle_sr(from_deg) / solid_angle_sr(to_deg))


class Beam(Value):
    """A unit's light on the axis, bare at one metre, ISO 100, f/1, as stops (2 log2 GN) against coverage."""

    positions_deg: tuple[float, ...]
    stops: tuple[float, ...]
    sd: float
    soft: str = ""  # why the figure is soft, where it is

    def at(self, angle_deg: float) -> tuple[float, float]:
        """(stops, sd) at a coverage; between quoted positions straight against log(zoom), outside them moved."""
        zooms = [-math.log(math.tan(math.radians(angle / 2))) for angle in self.positions_deg]
        here = -math.log(math.tan(math.radians(angle_deg / 2)))
        nearest = min(range(len(zooms)), key=lambda i: abs(zooms[i] - here))
        if zooms[0] <= here <= zooms[-1] or abs(zooms[nearest] - here) < 0.08:
            return float(np.interp(here, zooms, self.stops)), self.sd
        moved = float(moved_stops(self.positions_deg[nearest], angle_deg))
        return self.stops[nearest] + moved, max(self.sd, SD_MOVED)


def beam_of(unit: Unit, c: float = METER_C_FLAT) -> Beam:
    """What a unit's claims come to. The user's own readings shift the maker's curve, and make it sure."""
    claimed = [claim for claim in unit.claims if not claim.measured]
    own = [claim for claim in unit.claims if claim.measured]
    if not claimed and not own:
        guess = float(guide_number_of_ws(unit.watt_seconds or 0.0, c=c))
        return Beam(positions_deg=(WS_COVERAGE_DEG,), stops=(2 * math.log2(guess),), sd=SD_WATT_SECONDS, soft="ws")
    beam = _curve(claimed or own)
    if own:
        sds = [claim.sd or SD_MEASURED for claim in own]
        if claimed:
            reference = float(coverage_deg(REFERENCE_ZOOM_MM))
            shift = float(
                np.mean([2 * math.log2(o.guide_number_m) - beam.at(o.angle_deg or reference)[0] for o in own])
            )
            beam = beam.model_copy(update={"stops": tuple(stop + shift for stop in beam.stops)})
        beam = beam.model_copy(update={"sd": max(sds) / math.sqrt(len(sds)), "soft": ""})
    return beam


def _curve(claims: list[Claim]) -> Beam:
    reference = float(coverage_deg(REFERENCE_ZOOM_MM))
    points: dict[float, list[float]] = {}
    for claim in claims:
        points.setdefault(claim.angle_deg or reference, []).append(2 * math.log2(claim.guide_number_m))
    angles = sorted(points, reverse=True)
    unknown = all(claim.angle_deg is None for claim in claims)
    given = [claim.sd for claim in claims if claim.sd is not None]
    return Beam(
        positions_deg=tuple(angles),
        stops=tuple(float(np.mean(points[angle])) for angle in angles),
        sd=max(given) if given else SD_MOVED if unknown else SD_CLAIMED,
        soft="coverage" if unknown else "",
    )


def dial(scale: PowerScale, reduction_stops: float, style: str = "own", watt_seconds: float | None = None) -> str:
    """A power setting as the unit's dial shows it, `reduction_stops` below full, or in the person's own style."""
    kind = scale.kind if style == "own" else style
    if kind == "ws" and watt_seconds:
        energy = watt_seconds * 2**-reduction_stops
        return f"{energy:.0f} Ws" if energy >= 9.5 else f"{energy:.1f} Ws"
    if kind == "number":
        number = scale.top_number - reduction_stops
        return f"{number:.1f}"
    whole = math.ceil(reduction_stops - 1e-6)
    part = whole - reduction_stops
    thirds = round(part * 3)
    words = "" if part < 0.04 else f" +{('⅓', '⅔')[thirds - 1]}" if abs(part * 3 - thirds) < 0.08 else f" +{part:.1f}"
    return f"1/{2**whole:.0f}{words}"


def settable_stops(scale: PowerScale) -> float:
    """How many stops the dial goes below full power."""
    return -math.log2(scale.lowest)


def stops_between_energies(from_ws: Figure, to_ws: Figure) -> Figure:
    """Stops between two energies through the same reflector: 80 to 200 Ws is +1.32 [common practice]."""
    return stops_of(np.asarray(to_ws) / from_ws)


def heads_jump(count: int) -> Jump:
    """So many equal heads on the same spot: + log2."""
    return Jump(
        "heads",
        "{count:.0f} heads",
        math.log2(count),
        0.1,
        "{count:.0f} equal heads on the same spot: + log2({count:.0f}).",
        "D",
        "light adds",
        {"count": count},
    )
