"""The ambient in words: where it comes from, what it does to the subject, where else the subject could stand."""

from zoneinfo import ZoneInfo

from ..core.plan.camera.ambient import Ambient, PlacementChoice, look_of, shadows_fall
from ..core.plan.camera.day import open_deg, shade_lost
from ..core.scene.ambient import AmbientSpec
from ..core.scene.place import shown, skipped
from ..core.scene.setup import Setup
from .figures import DisplayUnits, about, amount, decimal, grouped, plain, speed, stops
from .kit import CONDITIONS, SKIES

LOOKS = {"silhouette": "a silhouette", "dark": "dark", "dim": "dim", "bright": "bright enough"}


def how(spec: AmbientSpec, ambient: Ambient) -> str:
    """Where the ambient comes from, in sentences."""
    basis = ambient.basis
    if basis.known == "reading":
        said = [_metered(basis.metered)]
    elif basis.known == "sun" and ambient.sun is not None:
        height, bearing = ambient.sun
        where = f"{height:.0f}° up, bearing {bearing:.0f}°" if height > 0 else f"{-height:.0f}° below the horizon"
        said = [f"Sun {where}, {SKIES[spec.sky]} (IES RP-21)."]
        if spec.place is not None and spec.day is not None and skipped(spec.place, spec.day, spec.clock):
            next_shown = shown(spec.place, spec.day, spec.clock)
            said.append(f"The clocks go forward and never show {spec.clock:%H:%M}: {next_shown:%H:%M} is taken.")
        if basis.shift is not None:
            said += [f"Your reading shifts the day by {stops(basis.shift)}.", _doubt(basis.metered)]
    elif basis.known == "lux":
        said = [f"{grouped(spec.lux or 0)} lx on a flat meter is EV {decimal(basis.ev, '.1f')} at ISO 100."]
    else:
        name = CONDITIONS["dark" if basis.lamps_off else spec.condition]
        said = [f"Light-value table: {name}, EV {plain(basis.ev)} ± {plain(basis.spread)}."]
    if basis.lamps_ev is not None:
        said.append(f"Lamps add EV {decimal(basis.lamps_ev, '.1f')}.")
    return " ".join(part for part in said if part)


def of_job(setup: Setup, written: Setup, units: DisplayUnits) -> str:
    """What a setup takes from its job, in sentences; empty where that is nothing. written: as it stands by itself."""
    said, wind = "", setup.stage.wind_m_s
    if setup.ambient.day != written.ambient.day:
        said = f"On the job's day, {setup.ambient.day:%-d %b %Y}."
    if wind is not None and wind != written.stage.wind_m_s:
        said = f"{said} In the wind of the brief, {speed(wind, units)}.".strip()
    return said


def _metered(metered: tuple[str, ...]) -> str:
    """Which figures were metered, and how sure the rest are."""
    names = [name for name in ("background", "subject", "shade") if name in metered]
    said = f"{' and '.join(names).capitalize()} as metered."
    return f"{said} {_doubt(metered)}".strip()


def _doubt(metered: tuple[str, ...]) -> str:
    rest = [name for name in ("background", "subject", "shade") if name not in metered]
    if not rest:
        return ""
    return f"Not metered: {' and '.join(rest)}, taken from the usual difference, ± 0.5 stop."


def subject(ambient: Ambient, camera_ev: float) -> str:
    """What the ambient alone makes of the subject at these settings."""
    level = ambient.lit_ev - camera_ev
    shadow = stops(ambient.shadow_ev - camera_ev)
    sides = f", its shadow side at {shadow}" if ambient.shadow_ev < ambient.lit_ev else ""
    return f"Without flash the subject is at {stops(level)}{sides}: {LOOKS[look_of(round(level, 1))]}."


def placement(choice: PlacementChoice, spec: AmbientSpec, units: DisplayUnits) -> str:
    """What it means for the picture if the subject stands there."""
    lost = choice.ambient.background_ev - choice.ambient.lit_ev
    low = "" if lost < 0.05 else f"{amount(lost)} under the background. "
    if choice.subject == "sun":
        return "Hard light and narrowed eyes; no light of yours is needed, or a fill one that the sun outshines."
    if choice.subject == "back" and not shadows_fall(spec):
        return f"{low}Without shadows the sun gives no rim: the light is the same from all sides."
    if choice.subject == "back":
        return f"{low}The sun becomes a rim; shade the lens, and keep the highlights on the hair."
    if choice.subject == "shade":
        return f"{low}{_shade(spec)}"
    if choice.ambient.sun is None:
        return f"{low}Say place and time, and it says how far down the panel shades and where its edge falls."
    shade = choice.panel
    if shade is None:
        return "The sun is not up: a panel has nothing to shade."
    down_to, shift, strip_to = float(shade.down_to_m), float(shade.shift_m), float(shade.strip_to_m)
    whole = down_to <= 0
    down = "the whole body" if whole else f"down to {about(down_to, units)} above the ground"
    fit = "full length" if whole else "waist-up" if down_to <= 1.0 else "head and shoulders only"
    return (
        f"{low}Shades {down}, so {fit}; hold it {about(shift, units)} towards the sun. Its edge falls "
        f"{about(max(strip_to, 0), units)} behind the feet, away from the sun."
    )


def _shade(spec: AmbientSpec) -> str:
    if spec.by != "sun" or spec.place is None:
        return "It does not last: the sun moves. The background stays bright."
    bearing = open_deg(spec)
    if bearing is None:
        return "It does not last: say from where the sun reaches it, or when it came in, and it says until when."
    when = shade_lost(spec)
    if when is None:
        return f"The sun does not come to {bearing:.0f}° on this day: the shade lasts."
    local = when.astimezone(ZoneInfo(spec.place.zone))
    gone = local.time() <= spec.clock
    return f"The sun {'has reached' if gone else 'reaches'} it at {local:%H:%M}: open shade is lost from then."
