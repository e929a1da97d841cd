"""What the ambient comes to: EV at ISO 100 of what the picture shows, each with its doubt, and where it comes from."""

from dataclasses import dataclass, replace
from datetime import time
from functools import lru_cache
from typing import Literal

import numpy as np

from ...physics import daylight, exposure, stops
from ...physics.arrays import Figure
from ...physics.exposure import METER_C_FLAT
from ...physics.light_values import LIGHT_VALUES
from ...scene.ambient import AmbientSpec, Panel, Placement
from ...scene.place import moment
from ...scene.receivers import RECEIVERS

DIFFUSING_STOPS = -1.3  # what a diffusing panel takes from the sun, from memory
SD_LUX = 0.2  # a lux meter on the scene [stops], from memory
SD_METERED = 0.15  # what was metered [stops], from memory
SD_SIDE = 0.5  # how far shade, or a side turned away, lies from what was metered beside it [stops], from memory
SD_DAY = 0.2  # the day's course once a reading has shifted it [stops], from memory
SIDE_FLOOR = (
    -3.0
)  # the sky keeps the shadow side of a face in the sun within 2 to 3 stops of the lit one; common practice
DAWN_DEG = -1.0  # with the sun lower than this there is none to get out of


@dataclass(frozen=True)
class Basis:
    """Where the ambient comes from, for the sentence: codes and figures."""

    known: Literal["table", "lux", "sun", "reading"]
    ev: float  # of the open, before readings and lamps, with its spread [stops]
    spread: float
    shift: float | None = None  # by the readings [stops]
    metered: tuple[str, ...] = ()
    lamps_ev: float | None = None
    lamps_off: bool = False


@dataclass(frozen=True)
class Ambient:
    """EV at ISO 100 of background, both sides of the subject, open shade and the subject's edge (the sun's where it
    stands behind, else the shadow side's), with the doubt of each [stops].

    sun: (elevation, bearing) of the sun [degrees] where place and time are known.
    """

    background_ev: float
    lit_ev: float
    shadow_ev: float
    shade_ev: float
    edge_ev: float
    background_sd: float
    subject_sd: float
    basis: Basis
    sun: tuple[float, float] | None = None

    def ev(self, receiver: str) -> float:
        """EV of one receiver, by whose share of the ambient it has."""
        own = {"lit": self.lit_ev, "shadow": self.shadow_ev, "background": self.background_ev, "edge": self.edge_ev}
        return own[RECEIVERS[receiver].ambient]


@dataclass(frozen=True)
class _Daylight:
    """What there is before readings and lamps."""

    found: daylight.Receivers
    sd: float
    basis: Basis
    sun: tuple[float, float] | None = None


def on_subject(found: daylight.Receivers, subject: Placement, panel: Panel) -> Figure:
    """EV of what falls on the side of the subject that is turned to the camera, where it stands."""
    if subject == "panel":
        return found.shade if panel.kind == "opaque" else np.maximum(found.shade, found.sun + DIFFUSING_STOPS)
    return {"sun": found.sun, "back": found.back, "shade": found.shade}[subject]


def _daylight(spec: AmbientSpec, clock: time, c: float) -> _Daylight:
    if spec.by == "sun":
        assert spec.place is not None  # the document says so
        assert spec.day is not None
        place, sky = spec.place, daylight.SKIES[spec.sky]
        sun = daylight.sun_position(place.latitude, place.longitude, moment(place, spec.day, clock))
        found = daylight.receivers(sun.elevation, spec.day.timetuple().tm_yday, sky, c, sun.true_elevation)
        return _Daylight(found, sky.sd, Basis("sun", float(found.ground), sky.sd), (sun.elevation, sun.bearing))
    figures = LIGHT_VALUES[spec.condition]
    off = figures.lamps and not spec.lamps_on
    if off:
        figures = LIGHT_VALUES["dark"]
    ev, sd, basis = figures.ev, figures.spread, Basis("table", figures.ev, figures.spread, lamps_off=off)
    if spec.by == "lux" and spec.lux is not None:
        ev, sd = float(exposure.ev_of_lux(spec.lux, c)), SD_LUX
        basis = Basis("lux", ev, sd)
    return _Daylight(daylight.Receivers(ev, ev, ev + figures.shade, ev + figures.back), sd, basis)


def reading_shift(spec: AmbientSpec, c: float = METER_C_FLAT) -> float:
    """Stops by which the readings lie above what was computed for the time they were taken; 0 without any."""
    shifts = []
    for reading in spec.readings:
        found = _daylight(spec, reading.clock or spec.clock, c).found
        computed = {"background": found.ground, "shade": found.shade}
        computed["subject"] = on_subject(found, spec.subject, spec.panel)
        shifts.append(reading.ev - float(computed[reading.of]))
    return float(np.mean(shifts)) if shifts else 0.0


def with_lamps(spec: AmbientSpec, ev: Figure, c: float = METER_C_FLAT) -> Figure:
    """EV with what the lamps add to it, where there are any and they are on."""
    if spec.lamps_lux is None or not spec.lamps_on:
        return ev
    return stops.add_light(ev, exposure.ev_of_lux(spec.lamps_lux, c))


SHADOWS_FROM = -1.0  # stops from the sun to a face turned from it: with less between, no shadow falls; from memory


def shadows_fall(spec: AmbientSpec) -> bool:
    """Whether the sun throws shadows, and so a rim: by its place and sky, or by what the eye says of the light."""
    return spec.by == "sun" or LIGHT_VALUES[spec.condition].back <= SHADOWS_FROM


@lru_cache(maxsize=64)
def ambient_of(spec: AmbientSpec, c: float = METER_C_FLAT) -> Ambient:
    """The ambient at the meter constant C [lx s].

    A reading always wins over a figure from a table or from the sun; what was not metered moves with it, but keeps the
    doubt of how far it lies from what was.
    """
    day = _daylight(spec, spec.clock, c)
    found, basis = day.found, day.basis
    ev = {
        "background": float(found.ground),
        "subject": float(on_subject(found, spec.subject, spec.panel)),
        "shade": float(found.shade),
        "sun": float(found.sun),
    }
    sd = {"background": day.sd, "subject": day.sd}
    if spec.by in ("reading", "sun") and spec.readings:
        shift = reading_shift(spec, c)
        metered: dict[str, float] = {reading.of: reading.ev for reading in spec.readings}
        ev = {name: value + shift for name, value in ev.items()}
        if spec.by == "reading":
            ev |= metered
            basis = replace(basis, known="reading", shift=shift, metered=tuple(metered))
        else:
            basis = replace(basis, shift=shift, metered=tuple(metered))
        own = SD_METERED if spec.by == "reading" else SD_DAY
        sd = {name: own if name in metered else float(np.hypot(own, SD_SIDE)) for name in sd}
    if spec.lamps_lux is not None and spec.lamps_on:
        basis = replace(basis, lamps_ev=float(exposure.ev_of_lux(spec.lamps_lux, c)))
    side = max(SIDE_FLOOR, float(found.back) - float(found.sun)) if spec.subject == "sun" else 0.0
    side = side if spec.shadow_stops is None else spec.shadow_stops
    edge = ev["sun"] if spec.subject == "back" and shadows_fall(spec) else ev["subject"] + side
    lit, shadow, background, shade, edge = (
        float(with_lamps(spec, value, c))
        for value in (ev["subject"], ev["subject"] + side, ev["background"], ev["shade"], edge)
    )
    return Ambient(background, lit, shadow, shade, edge, sd["background"], sd["subject"], basis, day.sun)


SILHOUETTE_STOPS, DARK_STOPS, DIM_STOPS = -3.0, -1.5, -0.5
"""A subject this far under correct is a silhouette; common practice; a subject this far under correct is dark; from
memory; a subject this far under correct is a little dark; from memory."""


def look_of(level: float) -> Literal["silhouette", "dark", "dim", "bright"]:
    """How a subject at this level [stops from correct] looks by the ambient alone; common practice, no source."""
    if level <= SILHOUETTE_STOPS:
        return "silhouette"
    return "dark" if level <= DARK_STOPS else "dim" if level <= DIM_STOPS else "bright"


@dataclass(frozen=True)
class PlacementChoice:
    """One place for the subject: the light there, and what a panel would shade; the hour at which shade is lost."""

    subject: Placement
    ambient: Ambient
    panel: daylight.PanelShade | None = None


def placements(spec: AmbientSpec, c: float = METER_C_FLAT) -> list[PlacementChoice]:
    """Where the subject could stand instead, each with its light; none where there is no sun to get out of."""
    if spec.by != "sun" and LIGHT_VALUES[spec.condition].back == 0:
        return []
    plain = ambient_of(spec, c)
    if plain.sun is not None and plain.sun[0] < DAWN_DEG:
        return []
    out = []
    for subject in ("sun", "back", "shade", "panel"):
        ambient = ambient_of(spec.model_copy(update={"subject": subject}), c)
        shade = None
        if subject == "panel" and ambient.sun is not None and ambient.sun[0] > daylight.LOW_SUN_DEG:
            shade = daylight.panel_shade(spec.panel.size_m, spec.panel.height_m, ambient.sun[0])
        out.append(PlacementChoice(subject, ambient, shade))
    return out
