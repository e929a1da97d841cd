"""A test frame in words: what a patch of it came out at, what is clipped, and the flash alone by two frames."""

import math
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from ..core.physics.scales import APERTURES, ISOS, SHUTTERS
from ..core.physics.stops import flash_share
from ..core.physics.tone import DARK_SKIN, GREY, LIGHT_SKIN, WHITE, patch_stops
from .figures import amount, f_number, iso, share, shutter, stops

REFLECTANCES: dict[str, tuple[str, float]] = {
    "grey": ("Grey card", GREY),
    "white": ("White", WHITE),
    "skin": ("Light skin", LIGHT_SKIN),
    "dark_skin": ("Dark skin", DARK_SKIN),
}
"""What a patch may be, and its reflectance."""
RIGHT = 0.05
MUCH_CLIPPED = 0.02  # of a patch: more and its level is only a floor


@dataclass(slots=True)
class PatchText:
    """A patch of a frame: level [stops from where it belongs], flash alone [stops], shares that are clipped."""

    says: list[str]
    level: float | None
    flash_alone: float | None
    patch_clipped: float
    frame_clipped: float
    cast: list[float]
    f_number: float | None
    shutter_s: float | None
    iso: float | None
    flash: bool | None
    taken: str
    lit: float
    dark_edge: Literal["bottom", "top", "unknown"]


def frame_text(
    luminance: float,
    rgb: tuple[float, float, float],
    clipped: tuple[float, float],
    settings: tuple[float | None, float | None, float | None],
    fired: bool | None,
    taken: datetime | None,
    of: str,
    ambient: float | None,
    wall: tuple[float, Literal["bottom", "top", "unknown"]],
    profile: str = "",
) -> PatchText:
    """The document. clipped: shares of patch and frame. settings: aperture, time, ISO as its Exif has them. of: one of
    REFLECTANCES. ambient: the level of the same patch in a frame without flash [stops]. wall: share of rows that are
    lit, edge that is dark. profile: the colour profile that it was read by."""
    name, reflectance = REFLECTANCES[of]
    level = float(patch_stops(luminance, reflectance))
    alone = None if ambient is None else float(flash_share(ambient, level))
    red, green, blue = (max(one, 1e-6) for one in rgb)
    cast = [math.log2(red / green), math.log2(blue / green)]
    aperture, seconds, speed = (
        None if value is None else series.near_mark(value) or value
        for value, series in zip(settings, (APERTURES, SHUTTERS, ISOS), strict=True)
    )
    says = [_level(name, level, clipped[0])]
    if alone is not None:
        says.append("No flash in it." if math.isinf(alone) else f"The flash alone: {stops(alone, 2)}.")
    says.append(f"Clipped: {share(clipped[0])} of the patch, {share(clipped[1])} of the frame.")
    says.append(_taken_at(aperture, seconds, speed))
    if profile and "srgb" not in profile.casefold():
        says.append(f"Read by the colour profile inside it: {profile}.")
    says.append("A camera's tone curve bends this by some tenths of a stop: it counts as 0.2 stop of uncertainty.")
    return PatchText(
        says=says,
        level=None if math.isinf(level) else round(level, 3),
        flash_alone=None if alone is None or math.isinf(alone) else round(alone, 3),
        patch_clipped=round(clipped[0], 4),
        frame_clipped=round(clipped[1], 4),
        cast=[round(one, 3) for one in cast],
        f_number=aperture,
        shutter_s=seconds,
        iso=speed,
        flash=fired,
        lit=round(wall[0], 3),
        dark_edge=wall[1],
        taken="" if taken is None else f"{taken:%Y-%m-%dT%H:%M:%S}",
    )


def _taken_at(aperture: float | None, seconds: float | None, speed: float | None) -> str:
    """The settings as the frame has them, and the marks in thirds beside those that are none."""
    shown, beside = list[str](), list[str]()
    for value, series, said in ((aperture, APERTURES, f_number), (seconds, SHUTTERS, shutter), (speed, ISOS, iso)):
        if value is not None:
            shown.append(said(value))
            mark = series.marked(float(series.exact(value)))
            beside += [said(mark)] if said(mark) != said(value) else []
    if not shown:
        return "The frame does not say how it was taken."
    nearest = f" (the nearest mark{'' if len(beside) == 1 else 's'} in thirds: {', '.join(beside)})" if beside else ""
    return f"Taken at {' · '.join(shown)}{nearest}."


def _level(name: str, level: float, clipped: float) -> str:
    if math.isinf(level):
        return f"{name}: black, there is no light in it."
    if clipped > MUCH_CLIPPED:
        return f"{name}: {amount(level)} too bright or more, {share(clipped)} of the patch is clipped."
    if abs(level) < RIGHT:
        return f"{name}: right."
    return f"{name}: {amount(level)} too {'bright' if level > 0 else 'dark'}."
