"""White balance and gel in words."""

from ..core.kit.modifier import Gel
from ..core.plan.camera.colour import MATCHED_MIRED, Balance
from .kit import GELS


def balance_words(found: Balance, on: Gel) -> str:
    """The white balance to set, the colour of the light that is there, and the gel that brings the flash to it."""
    gel = found.gel
    lead = f"White balance {found.camera_k:.0f} K"
    there = f"the light that is there is about {found.ambient_k:.0f} K"
    if gel == on:
        match = "the flash matches it as it is" if gel == "none" else f"the {GELS[gel]} matches it"
    elif gel == "none":
        match = f"without the {GELS[on]} the flash would match it"
    else:
        match = f"a {GELS[gel]} brings the flash to it (then set {found.ambient_k:.0f} K)"
    left = f", {abs(found.left_mired):.0f} mired {'cooler' if found.left_mired < 0 else 'warmer'} than that"
    return f"{lead}; {there}; {match}{left if abs(found.left_mired) > MATCHED_MIRED else ''}."


def balance_short(found: Balance, on: Gel) -> str:
    """The same in a few words, for the verdict."""
    if found.gel in (on, "none"):
        return f"white balance {found.camera_k:.0f} K"
    return f"white balance {found.ambient_k:.0f} K with a {GELS[found.gel]}, else {found.camera_k:.0f} K"
