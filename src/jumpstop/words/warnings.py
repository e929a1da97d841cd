"""Warnings in words: a short title, and what to do."""

from collections.abc import Callable, Mapping
from typing import Any, NamedTuple

from ..core.plan.camera.remark import Remark
from .figures import amount, f_number, iso, plain, share, shutter, stops


class Warned(NamedTuple):
    """A warning as it is shown."""

    title: str
    says: str


def say(found: Remark) -> Warned:
    """The words of a warning."""
    return WARNINGS[found.code](found.facts)


def _hss_left_on(facts: Mapping[str, Any]) -> Warned:
    why = (
        "it makes the flash long, and freezes nothing"
        if facts["freezing"]
        else f"it costs {amount(facts['loss'])} here"
    )
    return Warned("HSS off", f"HSS off: left on, {why}")


REMINDERS = frozenset({"hss_left_on", "hss_not_armed", "hss_by_itself", "auto_iso"})
"""Switches to look at before the first frame."""
WARNINGS: dict[str, Callable[[Mapping[str, Any]], Warned]] = {
    "ghost": lambda f: Warned(
        "The ambient ghosts", f"It lies at {stops(f['level'])} on the subject; −5 or darker is wanted."
    ),
    "no_blur": lambda f: Warned("A wide aperture for nothing", f"It blurs {share(f['share'], 1)} of the frame."),
    "hss_not_armed": lambda f: Warned("HSS on", "HSS on, at unit and trigger"),
    "hss_by_itself": lambda f: Warned(
        "HSS past sync only", "it goes into HSS by itself past sync: at sync and slower it fires, and reads, as ever"
    ),
    "hss_left_on": _hss_left_on,
    "auto_iso": lambda f: Warned("Auto ISO off", "auto ISO off, or it lifts the background"),
    "radio_sync": lambda f: Warned(
        "The radio trigger is slower",
        f"With it this body syncs at {shutter(f['radio_s'])}, not {shutter(f['sync_s'])}.",
    ),
    "silent_sync": lambda f: Warned("Silent shutter", f"With it this body syncs at {shutter(f['sync_s'])} only."),
    "iso_out_of_range": lambda f: Warned(
        "Out of the body's range", f"{iso(f['asked'])} is not on this body; {iso(f['used'])} is used."
    ),
    "shake": lambda f: Warned(
        "Camera shake",
        f"{shutter(f['shutter_s'])} at {plain(f['focal_mm'])} mm: by hand {shutter(f['slowest_s'])} at the slowest"
        f"{', stabiliser counted' if f['steadied'] else ''}. Faster, or a tripod; flash freezes only what it lights.",
    ),
    "diffraction": lambda f: Warned(
        "Diffraction",
        f"At {f_number(f['f_number'])} the Airy disc is {f['airy_mm'] * 1000:.0f} µm, the circle of confusion "
        f"{f['coc_mm'] * 1000:.0f} µm: "
        f"{'ND or HSS costs less sharpness' if f['everywhere'] else 'from a stop further on it costs sharpness'}.",
    ),
    "filter_on_long_lens": lambda f: Warned(
        "A filter on a long lens", "In front of a long lens it costs sharpness and finding: higher ISO, or HSS."
    ),
    "dark_finder": lambda f: Warned(
        "The filter darkens the finder", "Focus and frame before it goes on, where it sits before the lens."
    ),
    "mixed_colour": lambda f: Warned(
        "Two colours of light",
        f"Lamps at {f['kelvin']:.0f} K lie {stops(f['mired'], 0)} mired from the flash: gel it, or switch them off.",
    ),
}
