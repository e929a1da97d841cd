"""White balance and gels in words."""

from ..core.plan.camera.colour import MATCHED_MIRED, Balance, Off
from ..core.scene.setup import Setup
from .figures import listed
from .kit import GELS, ROLES, gel_words


def balance_words(found: Balance, setup: Setup) -> str:
    """The white balance to set, the colour of the light that is there, the gel that brings the flash to it, and what
    then has another colour."""
    lead = f"White balance {found.camera_k:.0f} K"
    there = f"the light that is there is about {found.ambient_k:.0f} K"
    off = [_off(one, setup) for one in found.off]
    return "; ".join([lead, there, _match(found), *off]) + "."


def _match(found: Balance) -> str:
    gel = found.gel
    left = abs(found.left_mired)
    # What is left is told of the flash: a light that is there and cooler by so much leaves the flash warmer by it.
    still = f", which it is still {left:.0f} mired {'warmer' if found.left_mired < 0 else 'cooler'} than"
    still = still if left > MATCHED_MIRED else ""
    if gel == found.on:
        if not still:
            return "the flash matches it as it is" if gel == "none" else f"the {GELS[gel]} matches it"
        how = "warmer" if found.left_mired < 0 else "cooler"
        with_it = "the flash" if gel == "none" else f"the flash with the {GELS[gel]}"
        return f"{with_it} is {left:.0f} mired {how}"
    if gel == "none":
        return f"without the {GELS[found.on]} the flash {'would match it' if not still else f'is nearest to it{still}'}"
    return f"a {GELS[gel]} brings the flash to it{still} (then set {found.ambient_k:.0f} K)"


def _off(one: Off, setup: Setup) -> str:
    light = setup.lights[one.light]
    gel = gel_words(light.gel_name)
    who = f"the {ROLES[light.role]}" if len(setup.lights) > 1 else "the light"
    if one.mired is None:
        return f"{who} is coloured by its {gel}"
    behind = "" if light.gel == "none" else f" behind its {gel}"
    return f"{who}{behind} is {abs(one.mired):.0f} mired {'warmer' if one.mired > 0 else 'cooler'} than the balance"


def balance_short(found: Balance, setup: Setup) -> str:
    """The same in a few words, for the verdict."""
    off = [_off(one, setup) for one in found.off if setup.lights[one.light].gel_for == "effect"]
    if found.gel in (found.on, "none") or found.matched:
        said = f"white balance {found.camera_k:.0f} K"
    else:
        said = f"white balance {found.ambient_k:.0f} K with a {GELS[found.gel]}, else {found.camera_k:.0f} K"
    return listed([said, *off], "and") if off else said
