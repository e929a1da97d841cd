"""What of a picture does not come out, each as a clause and as a sentence of its own."""

import math
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from ..core.plan.camera.remark import Remark
from .figures import DisplayUnits, amount, decimal, length, shutter
from .kit import FACES

LIGHTS = {"key": "the key", "fill": "the fill", "rim": "the edge light", "background": "the background light"}
SIDES = {"lit": "the lit side", "shadow": "the shadow side"}
SURFACES = {"ceiling": "ceiling", "left": "wall at the left", "right": "wall at the right"}
PARTS = ((0.97, "over the forehead"), (0.9, "through the eyes"), (0.84, "at the chin"), (0.74, "through the shoulders"),
         (0.64, "through the chest"), (0.56, "at the waist"), (0.44, "through the hips"), (0.25, "through the thighs"),
         (0.0, "through the legs"))  # fmt: skip
"""Where a height falls on somebody who stands, as a share of the own height; common practice in drawing figures."""
BLACK = -8.0  # stops: a background this dark shows nothing
GROUP_BY_GROUND = ("animal", "object")


def _too(stops: float) -> str:
    return f"{amount(stops)} too {'bright' if stops > 0 else 'dark'}"


def _dark(f: Mapping[str, Any], units: DisplayUnits) -> str:
    """The dark part, where its edge falls on the subject, and what brings the subject clear of it."""
    part = f"the {f['edge']} {f['share'] * 100:.0f} %" if f["edge"] else f"{f['share'] * 100:.0f} %"
    said = f"the shutter leaves {part} of the frame dark, {_falls(f, units)}"
    way = {"top": "higher", "bottom": "lower", "left": "further left", "right": "further right"}.get(f["edge"])
    clear = length(f["clear_m"], units, fine=True)
    return f"{said}: {f'aim {clear} {way}' if way else f'move the subject {clear} away from it'}, or crop it off"


def _falls(f: Mapping[str, Any], units: DisplayUnits) -> str:
    if f["edge"] not in ("top", "bottom"):
        return "over the subject"
    share = f["edge_m"] / f["height_m"]
    if f["kind"] in GROUP_BY_GROUND:
        return f"its edge at {length(f['edge_m'], units, fine=True)} on the subject"
    return next(words for least, words in PARTS if share >= least)


def _long(f: Mapping[str, Any]) -> str:
    wanted = f"freezing takes {shutter(f['needed_s'])} or shorter"
    if math.isnan(f["t01_s"]):
        return f"how long this flash lasts is not known: {wanted}"
    return f"the motion is not frozen: this flash lasts {shutter(f['t01_s'])}, {wanted}"


CLAUSES: dict[str, Callable[[Mapping[str, Any], DisplayUnits], str]] = {
    "nothing_to_bounce": lambda f, u: (
        f"{LIGHTS[f['role']]} (light {f['light'] + 1}) is bounced off a {SURFACES[f['surface']]}, and there is none "
        "outdoors"
    ),
    "light_blocked": lambda f, u: f"{LIGHTS[f['role']]} (light {f['light'] + 1}) cannot be used",
    "light_off": lambda f, u: f"{LIGHTS[f['role']]} (light {f['light'] + 1}) is {_too(f['stops'])}",
    "face_off": lambda f, u: (
        f"{SIDES.get(f['side'], FACES[f['kind']])} comes out {_too(f['stops'])} with all lights on it"
    ),
    "ratio_off": lambda f, u: (
        f"the lighting ratio is {decimal(f['ratio'], '.1f')} : 1, not {decimal(f['wanted'], '.1f')} : 1"
    ),
    "background_off": lambda f, u: (
        "the background comes out black"
        if f["level"] < BLACK
        else f"the background comes out {amount(f['stops'])} {'brighter' if f['stops'] > 0 else 'darker'} than wanted"
    ),
    "dark_on_subject": _dark,
    "not_frozen": lambda f, u: (
        "the motion is not frozen: the ambient draws beside the flash"
        if f["by"] == "nothing"
        else _long(f)
        if f["by"] == "flash"
        else f"the motion is not frozen: the shutter leaves {decimal(f['blur_mm'], '.2f')} mm of blur on the sensor"
    ),
    "ends_off": lambda f, u: f"the ends are {amount(f['stops'])} {'darker' if f['stops'] < 0 else 'brighter'}",
    "row_off": lambda f, u: f"the last row is {amount(f['stops'])} {'darker' if f['stops'] < 0 else 'brighter'}",
    "uncovered": lambda f, u: f"the beam covers {f['beam']:.0f}° of the {f['across']:.0f}° that it should",
    "tone_white": lambda f, u: f"{f['name']} is white: it clips by {amount(f['over'])}",
    "edge_white": lambda f, u: f"the edge is white: skin clips by {amount(f['over'])}",
}
"""What fails, as the end of a sentence."""


def clause(found: Remark, units: DisplayUnits) -> str:
    """What fails, as the end of a sentence."""
    return CLAUSES[found.code](found.facts, units)


def put_right(found: Remark, units: DisplayUnits) -> str:
    """What fails no more."""
    return f"puts right that {clause(found, units)}"


def sentences(found: Iterable[Remark], units: DisplayUnits) -> list[str]:
    """All that fails, each a sentence."""
    clauses = (clause(one, units) for one in found)
    return [f"{one[0].upper()}{one[1:]}." for one in clauses]


OF_CAMERA = {"dark_on_subject", "not_frozen"}


def camera_fails(found: Iterable[Remark], units: DisplayUnits) -> str:
    """What fails whatever the unit, to be put behind what is said of the whole shelf; empty where nothing does."""
    said = next((clause(one, units) for one in found if one.code in OF_CAMERA), "")
    return f" But {said}." if said else ""
