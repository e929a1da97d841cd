"""The light that is there: conditions, readings, lux, turned into EV at ISO 100 for background, subject and shade."""

from dataclasses import dataclass
from datetime import date, time
from typing import Literal
from zoneinfo import ZoneInfo

import numpy as np
from pydantic import Field, model_validator

from . import daylight, exposure
from .daylight import SKIES, Panel, Place, Receivers, Sky, Stand
from .stops import Jump
from .values import Clock, Ev, Figure, FNumber, Iso, ShutterS, Value

AMBIENT_MOST = 6.0  # stops: more help than this from the ambient says only that no flash is needed

Condition = Literal[
    "sand_or_snow", "distinct_shadows", "hazy_sun", "cloudy_bright", "heavy_overcast", "open_shade", "after_sunset",
    "gallery", "office", "interior_night", "floodlit", "dark",
]  # fmt: skip


@dataclass(frozen=True)
class ConditionFigures:
    """One line of the light-value table: EV at ISO 100, half its spread, and how far shade and back lie below."""

    name: str
    ev: float
    spread: float
    shade: float
    back: float
    lamps: bool = False  # lit by lamps, which can be switched off


# Light values: ANSI PH2.7 exposure guide. Shade: the table's own "open shade 12" under each sky; the side of a person
# turned away from the sun lies about a stop above open shade in sun (from memory).
CONDITIONS: dict[Condition, ConditionFigures] = {
    "sand_or_snow": ConditionFigures("sun on sand or snow", 16, 0.5, -3, -2),
    "distinct_shadows": ConditionFigures("sun, distinct shadows", 15, 0.5, -3, -2),
    "hazy_sun": ConditionFigures("hazy sun, soft shadows", 14, 0.5, -2, -1.3),
    "cloudy_bright": ConditionFigures("cloudy bright, no shadows", 13, 0.5, -1, -0.5),
    "heavy_overcast": ConditionFigures("heavy overcast", 12, 0.5, -1, -0.3),
    "open_shade": ConditionFigures("open shade", 12, 0.5, 0, 0),
    "after_sunset": ConditionFigures("just after sunset", 10, 1.0, -0.5, -0.5),
    "gallery": ConditionFigures("a gallery", 9.5, 1.5, 0, 0, lamps=True),
    "office": ConditionFigures("an office", 7.5, 0.5, 0, 0, lamps=True),
    "interior_night": ConditionFigures("a room at night", 6, 1.0, 0, 0, lamps=True),
    "floodlit": ConditionFigures("floodlit buildings", 4, 1.0, 0, 0, lamps=True),
    "dark": ConditionFigures("dark, all lamps off", -3, 2.0, 0, 0),
}


class Reading(Value):
    """A meter or camera reading, what it was pointed at, and when."""

    f_number: FNumber
    shutter_s: ShutterS
    iso: Iso = 100
    of: Literal["background", "subject", "shade"] = Field("background", title="Pointed at")
    clock: Clock | None = Field(None, title="Time of the reading")

    @property
    def ev(self) -> float:
        """EV at ISO 100."""
        return exposure.marked_ev100(self.f_number, self.shutter_s, self.iso)


class There(Value):
    """The light that is there, as the photographer says it."""

    by: Literal["condition", "reading", "lux", "sun"] = Field("condition", title="Light said by")
    condition: Condition = Field("distinct_shadows", title="Condition")
    readings: tuple[Reading, ...] = Field((), max_length=3, title="Readings")
    lux: float | None = Field(None, ge=0.001, le=200_000, title="Illuminance (lx)")
    place: Place | None = Field(None, title="Place")
    day: date | None = Field(None, title="Date")
    clock: Clock = Field(time(12), title="Time of day")
    sky: Sky = Field("clear", title="Sky")
    shade_open_deg: float | None = Field(None, ge=0, le=360, title="Bearing from which the sun reaches the shade")
    subject: Stand = Field("shade", title="Where the subject stands")
    panel: Panel = Panel()
    lamps_lux: float | None = Field(None, ge=0.001, le=100_000, title="Lamps (lx on the subject)")
    lamps_k: float = Field(3200, ge=1500, le=15_000, title="Colour of the lamps (K)")
    lamps_on: bool = Field(True, title="Lamps on")

    @model_validator(mode="after")
    def _said(self) -> "There":
        if self.by == "sun":
            if self.place is None:
                raise ValueError("Say the place: latitude, longitude and time zone.")
            if self.day is None:
                raise ValueError("Say the date, so that the sun can be found.")
            daylight.moment(self.place, self.day, self.clock)
        return self


@dataclass(frozen=True)
class Ambient:
    """EV at ISO 100 of what the picture shows, with the spread of how it was found and how it was said.

    sun: (elevation, bearing) of the sun [degrees] where place and time are known.
    """

    background_ev: Ev
    subject_ev: Ev
    shade_ev: Ev
    sd: float
    how: str
    sun: tuple[float, float] | None = None


@dataclass(frozen=True)
class _Levels:
    """What there is before readings and lamps, with the spread of it and how it was found."""

    lit: Receivers
    sd: float
    how: str
    where: tuple[float, float] | None = None


def _levels(there: There, clock: time) -> _Levels:
    if there.by == "sun":
        assert there.place is not None
        assert there.day is not None
        height, bearing = daylight.sun_at(there.place, daylight.moment(there.place, there.day, clock))
        lit = daylight.receivers(height, there.day.timetuple().tm_yday, there.sky)
        where = f"{height:.0f}° up, bearing {bearing:.0f}°" if height > 0 else f"{-height:.0f}° below the horizon"
        how = f"Sun {where}, {SKIES[there.sky].name} (IES RP-21)."
        return _Levels(lit, SKIES[there.sky].sd, how, (height, bearing))
    figures = CONDITIONS[there.condition]
    if figures.lamps and not there.lamps_on:
        figures = CONDITIONS["dark"]
    ev, sd = float(figures.ev), figures.spread
    how = f"Light-value table: {figures.name}, EV {figures.ev:g} ± {figures.spread:g}."
    if there.by == "lux":
        if there.lux is None:
            raise ValueError("Say how many lux there are.")
        ev, sd = float(exposure.ev_of_lux(there.lux)), 0.2
        how = f"{there.lux:,.0f} lx on a flat meter is EV {ev:.1f} at ISO 100 (C = 250)."
    return _Levels(Receivers(ev, ev, ev + figures.shade, ev + figures.back), sd, how)


def reading_shift(there: There) -> float:
    """Stops by which the readings lie above what was computed for the time they were taken [stops]."""
    shifts = []
    for reading in there.readings:
        lit = _levels(there, reading.clock or there.clock).lit
        computed = {"background": lit.ground, "subject": lit.at(there.subject, there.panel), "shade": lit.shade}
        shifts.append(reading.ev - float(computed[reading.of]))
    return float(np.mean(shifts))


def with_lamps(there: There, ev: Figure) -> Figure:
    """EV with what the lamps add to it, where there are any and they are on."""
    if there.lamps_lux is None or not there.lamps_on:
        return ev
    return exposure.add_light(ev, exposure.ev_of_lux(there.lamps_lux))


def ambient_of(there: There) -> Ambient:
    """EV of background, subject and shade. A reading always wins over a figure from a table or from the sun."""
    levels = _levels(there, there.clock)
    lit, sd, how = levels.lit, levels.sd, levels.how
    background, subject, shade = float(lit.ground), float(lit.at(there.subject, there.panel)), float(lit.shade)
    if there.by == "reading" and not there.readings:
        raise ValueError("Say what the meter read: aperture, shutter time and ISO.")
    if there.by == "reading":
        found: dict[str, float] = {reading.of: reading.ev for reading in there.readings}
        shift = reading_shift(there)
        background, subject, shade = (
            found.get("background", background + shift), found.get("subject", subject + shift),
            found.get("shade", shade + shift),
        )  # fmt: skip
        sd, how = 0.15, "As metered; what was not metered is shifted with it."
    elif there.by == "sun" and there.readings:
        shift = reading_shift(there)
        background, subject, shade = background + shift, subject + shift, shade + shift
        sd, how = 0.2, f"{how} Your reading shifts the day by {shift:+.1f}.".replace("-", "−")
    if there.lamps_lux is not None and there.lamps_on:
        how = f"{how} Lamps add EV {float(exposure.ev_of_lux(there.lamps_lux)):.1f}."
    background, subject, shade = (float(with_lamps(there, ev)) for ev in (background, subject, shade))
    return Ambient(background, subject, shade, sd, how, levels.where)


@dataclass(frozen=True)
class Taming:
    """One way to tame the light: where the subject would stand, what light that is, and what it does to the rest."""

    stand: Stand
    title: str
    ambient: Ambient
    says: str


def tamings(there: There) -> list[Taming]:
    """The alternatives, each with its light; none where there is no sun to get out of."""
    if there.by != "sun" and CONDITIONS[there.condition].back == 0:
        return []
    plain = ambient_of(there)
    if plain.sun is not None and plain.sun[0] < -1:
        return []
    out = []
    titles: dict[Stand, str] = {"sun": "in the sun", "back": "sun behind", "shade": "open shade", "panel": "panel"}
    for stand, title in titles.items():
        ambient = ambient_of(there.model_copy(update={"subject": stand}))
        out.append(Taming(stand, title, ambient, _says(stand, there, ambient)))
    return out


def _says(stand: Stand, there: There, ambient: Ambient) -> str:
    lost = ambient.background_ev - ambient.subject_ev
    low = "" if lost < 0.05 else f"{lost:.1f} {'stop' if lost <= 1 else 'stops'} under the background. "
    if stand == "sun":
        return "Hard light and narrowed eyes; no light of yours is needed, or a fill one that the sun outshines."
    if stand == "back":
        return f"{low}The sun becomes a rim; shade the lens, and keep the highlights on the hair."
    if stand == "shade":
        return f"{low}{_shade_words(there)}"
    try:
        shade = daylight.panel_shade(there.panel, ambient.sun[0]) if ambient.sun else None
    except ValueError as error:
        return str(error)
    if shade is None:
        return f"{low}Say place and time, and it says how far down the panel shades and where its edge falls."
    down = "the whole body" if shade.down_to_m <= 0 else f"down to {shade.down_to_m:.1f} m above the ground"
    fit = "full length" if shade.down_to_m <= 0 else "waist-up" if shade.down_to_m <= 1.0 else "head and shoulders only"
    return (
        f"{low}Shades {down}, so {fit}; hold it {shade.shift_m:.1f} m towards the sun. Its edge falls "
        f"{max(shade.strip_to_m, 0):.1f} m behind the feet, away from the sun."
    )


def _shade_words(there: There) -> str:
    if there.by != "sun" or there.place is None or there.day is None:
        return "It does not last: the sun moves. The background stays bright."
    if there.shade_open_deg is None:
        return "It does not last: say from which bearing the sun reaches it, and it says until when."
    when = daylight.sun_reaches(daylight.track_of(there.place, there.day), there.shade_open_deg)
    if when is None:
        return f"The sun does not come to {there.shade_open_deg:.0f}° on this day: the shade lasts."
    local = when.astimezone(ZoneInfo(there.place.zone))
    gone = local.time() <= there.clock
    return f"The sun {'has reached' if gone else 'reaches'} it at {local:%H:%M}: open shade is lost from then."


def ambient_jump(ambient: Ambient, camera_ev: float, target: float) -> Jump:
    """What the light that is there already gives the subject, which the flash need not."""
    level = ambient.subject_ev - camera_ev
    helped = float(np.minimum(target - exposure.flash_share(level, target), AMBIENT_MOST))
    enough = "The ambient alone lights the subject fully: flash only adds to it."
    adds = (
        "At these settings the ambient puts the subject at {level:stops}; light adds linearly, so the flash must give "
        "{rest:stops} of the whole."
    )
    return Jump(
        "ambient",
        "ambient",
        helped,
        min(0.5, ambient.sd * 2 ** min(0.0, level - target)),
        enough if helped >= AMBIENT_MOST else adds,
        "D",
        "2^flash + 2^ambient = 2^target",
        {"level": level, "rest": target - helped},
    )
