"""Warnings about where things stand, in words: a short title, and what to do."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.plan.camera.remark import Remark
from .figures import DisplayUnits, amount, decimal, length, stops
from .warnings import Warned


def _where_sun(front: bool) -> str:
    return "before the subject" if front else "behind the subject"


def _right(right: bool) -> str:
    return "right" if right else "left"


LINKS = {"fire": "firing", "power": "power", "automatic": "automatic", "hss": "HSS"}
Facts = Mapping[str, Any]
STAGE_WARNINGS: dict[str, Callable[[Facts, DisplayUnits], Warned]] = {
    "light_in_frame": lambda f, u: Warned(
        "A light in the frame", f"Light {f['light'] + 1}: move it out, or paint it out."
    ),
    "shadow_in_frame": lambda f, u: Warned(
        "A stand's shadow in the frame",
        f"Light {f['light'] + 1} throws {length(f['metres'], u)} of shadow: move it to the sun's own side.",
    ),
    "own_shadow": lambda f, u: Warned(
        "Your own shadow in the frame",
        f"The sun behind you throws {length(f['metres'], u)} of it into the picture: step aside, or longer and back.",
    ),
    "bounce_assumed": lambda f, u: Warned(
        f"No {'height of the ceiling' if f['surface'] == 'ceiling' else 'distance of the wall'} is said",
        f"Light {f['light'] + 1} counts {length(f['metres'], u)} straight, not the way over it: under "
        f"{length(f['usual_m'], u)} that costs {amount(f['loss'])} more.",
    ),
    "link_broken": lambda f, u: Warned(
        "A broken link",
        f"{f['at'] or 'From shoe to shoe it'} passes no {LINKS[f['wanted']]}: light {f['light'] + 1} "
        f"{'will not fire' if f['wanted'] == 'fire' else 'cannot do it'}.",
    ),
    "two_masters": lambda f, u: Warned(
        "Two command",
        f"Lights {f['first'] + 1} and {f['light'] + 1} both command: make one of them listen, or neither obeys.",
    ),
    "slave_as_master": lambda f, u: Warned(
        "Two command",
        f"Light {f['light'] + 1} is set to command beside {f['at']}: set it to listen, or it fires by itself.",
    ),
    "no_master": lambda f, u: Warned(
        "Nothing commands", "The optical slaves wait for a flash: set a light on the camera to command."
    ),
    "preflash": lambda f, u: Warned(
        "Pre-flashes fire slaves early",
        f"Light {f['light'] + 1} on automatic sends pre-flashes: set the others to pass over them, or dial it by hand.",
    ),
    "no_receiver": lambda f, u: Warned(
        "Nothing receives",
        f"{f['at']} sends, and light {f['light'] + 1} has no radio of its own: pack a receiver for it.",
    ),
    "group_off": lambda f, u: Warned(
        "Switched off", f"Light {f['light'] + 1}" + (f", group {f['group']}" if f["group"] else "") + "."
    ),
    "no_sight": lambda f, u: Warned(
        "An optical slave that sees nothing",
        f"Light {f['light'] + 1} stands behind the subject, where it does not see the camera: turn its sensor to a "
        "wall that does, or use radio.",
    ),
    "drowned": lambda f, u: Warned(
        "An optical slave in the sun", f"Light {f['light'] + 1} sees a few metres at most: use radio or a cord."
    ),
    "too_far": lambda f, u: Warned(
        "Far for an optical slave", f"Light {f['light'] + 1}, {length(f['metres'], u)} away: try it first."
    ),
    "edge_on_nose": lambda f, u: Warned(
        "The edge light reaches the nose",
        f"{stops(f['stops'])} on the face: move light {f['light'] + 1} further behind.",
    ),
    "edge_clips": lambda f, u: Warned("The edge is clipped", f"Skin clips {amount(f['over'])} earlier: turn it down."),
    "aim": lambda f, u: Warned(
        "Aim it with care",
        f"{f['deg']:.0f}° off lands {length(f['metres'], u, True)} beside and costs {amount(f['loss'], 2)} in a "
        f"{f['beam']:.0f}° beam: try it on a branch, and correct it.",
    ),
    "wind": lambda f, u: Warned(
        "Wind on the modifier",
        f"{f['force_n']:.0f} N on {f['name']} at {f['wind']:.0f} m/s: hang {f['ballast_kg']:.0f} kg on the stand, "
        "or take it off.",
    ),
    "boom": lambda f, u: Warned(
        "Counterweight",
        f"{decimal(f['load_kg'], '.1f')} kg on a {length(f['arm_m'], u)} arm needs "
        f"{decimal(f['counter_kg'], '.1f')} kg at "
        f"{length(f['counter_m'], u)}, and nobody under it.",
    ),
    "lens_in_sun": lambda f, u: Warned(
        "A lens in the sun burns", f"Cap {f['name']}, or turn it from the sun, when not in use."
    ),
    "red_eye": lambda f, u: Warned(
        "Red or steel eye",
        f"{decimal(f['deg'], '.1f')}° from the lens: raise the light {length(f['apart_m'], u, True)} or more off it.",
    ),
    "group_uncovered": lambda f, u: Warned(
        "The beam does not cover the group",
        f"It takes {f['across']:.0f}° across, the beam has {f['beam']:.0f}°: wider, or back.",
    ),
    "beam_in_frame": lambda f, u: Warned(
        "The beam ends in the frame",
        f"Light {f['light'] + 1} has {f['beam']:.0f}°, the lens sees {f['wanted']:.0f}° from there: zoom wider.",
    ),
    "flat_falls": lambda f, u: Warned(
        "The sides of the table are darker", f"{stops(f['stops'])}; from {length(f['metres'], u)} a third of a stop."
    ),
    "sun_elsewhere": lambda f, u: Warned(
        "The sun is elsewhere",
        f"By the compass it is {_where_sun(f['front'])}, not {_where_sun(not f['front'])}: turn the camera, or say so.",
    ),
    "wildlife": lambda f, u: Warned(
        "Wildlife", "Keep your distance from nests and from what hunts by night; the law and your licence decide."
    ),
    "near_eyes": lambda f, u: Warned(
        "Near the eyes", f"A flash at {length(f['metres'], u)}: less power or farther off; never this close to a baby."
    ),
    "repeating": lambda f, u: Warned(
        "Repeated flashes", "Some people have seizures from more than three a second: say so, and ask, before."
    ),
    "optical": lambda f, u: Warned(
        "Optical trigger",
        "In sun it sees a few metres only: shade its sensor, or take radio."
        if f["sun"]
        else "Every unit must see the master: turn its sensor to it, nothing in between.",
    ),
    "panel_in_frame": lambda f, u: Warned(
        "The panel's edge in the frame", f"It hangs at {length(f['metres'], u)}: higher, or crop tighter."
    ),
    "favoured_hidden": lambda f, u: Warned(
        "The favoured side is hidden",
        f"Turned {f['deg']:.0f}° that way the face hides its {_right(f['right'])} side: turn it to the other.",
    ),
    "favoured_far": lambda f, u: Warned(
        "The key is on the other side",
        f"Who matters most stands at the {_right(f['right'])}: bring the key to that side.",
    ),
    "other_channel": lambda f, u: Warned(
        "Another channel", f"Light {f['light'] + 1} is on channel {f['channel']}, not {f['first']}: it will not fire."
    ),
    "one_group": lambda f, u: Warned(
        "Two powers in one group",
        f"Light {f['light'] + 1} shares group {f['group']} with light {f['first'] + 1} and wants another power: give "
        "it a group of its own, and leave none as the master.",
    ),
    "ends_fall": lambda f, u: Warned(
        "The ends are darker", f"{stops(f['stops'])}; from {length(f['metres'], u)} a third of a stop."
    ),
    "depth_falls": lambda f, u: Warned(
        "The last row is darker",
        f"{stops(f['stops'])}; from {length(f['metres'], u)} a third of a stop, or cross two lights: all within "
        f"{amount(f['crossed'])}.",
    ),
}


def say_stage(found: Remark, words: DisplayUnits) -> Warned:
    """The words of a warning about places."""
    return STAGE_WARNINGS[found.code](found.facts, words)
