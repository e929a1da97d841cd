"""What hands must change from one picture to the next, in words."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.plan.camera.remark import Remark
from ..core.plan.job.changeover import Standing, changes_between
from ..core.plan.job.schedule import Stretch, Turn
from .effects import TICKS
from .figures import DisplayUnits, dial, f_number, iso, length, nd, shutter
from .kit import PLACEMENTS, ROLES, gel_words
from .methods import TITLES

HELD = {"landscape": "landscape", "grip_up": "upright, grip up", "grip_down": "upright, grip down"}
Facts = Mapping[str, Any]
HANDS: dict[str, Callable[[Facts, DisplayUnits], str]] = {
    "body": lambda f, u: f"body: {f['now']}",
    "lens": lambda f, u: f"{'' if f['was'] is None else format(f['was'], '.0f') + ' to '}{f['now']:.0f} mm",
    "held": lambda f, u: f"hold the camera {HELD[f['now']]}",
    "method": lambda f, u: f"method: {TITLES[f['now']]}",
    "f_number": lambda f, u: f"{f_number(f['was'])} to {f_number(f['now'])}",
    "shutter_s": lambda f, u: f"{shutter(f['was'])} to {shutter(f['now'])}",
    "iso": lambda f, u: f"{iso(f['was'])} to {iso(f['now'])}",
    "nd": lambda f, u: f"ND {nd(f['now'])} on" if f["now"] else "ND off",
    "place": lambda f, u: f"the subject: {PLACEMENTS[f['now']]}",
    "light_away": lambda f, u: f"light {f['light'] + 1} away",
    "light_up": lambda f, u: f"light {f['light'] + 1} up, {ROLES[f['role']]} at {length(f['metres'], u)}",
    "unit": lambda f, u: f"light {f['light'] + 1}: {f['now']}",
    "distance": lambda f, u: (
        f"light {f['light'] + 1} {'back' if f['now'] > f['was'] else 'closer'} {length(abs(f['now'] - f['was']), u)}, "
        f"to {length(f['now'], u)}"
    ),
    "bearing": lambda f, u: f"light {f['light'] + 1} to {_side(f['now'])}",
    "height": lambda f, u: f"light {f['light'] + 1} at {length(f['now'], u)} up",
    "modifier": lambda f, u: f"light {f['light'] + 1}: {f['now'] or 'bare'}",
    "layer_on": lambda f, u: f"light {f['light'] + 1}: {f['layer']} on",
    "layer_off": lambda f, u: f"light {f['light'] + 1}: {f['layer']} off",
    "gel": lambda f, u: f"light {f['light'] + 1}: {gel_words(f['now'])}",
    "tick": lambda f, u: f"light {f['light'] + 1}: {TICKS[f['effect']]} {'on' if f['now'] else 'off'}",
    "zoom": lambda f, u: f"light {f['light'] + 1}: zoom {f['now']:.0f} mm",
}


def _side(bearing: float) -> str:
    if bearing == 0:
        return "the camera's side"
    return f"{abs(bearing):.0f}° on the {'right' if bearing > 0 else 'left'}"


def hands_text(before: Standing, after: Standing, words: DisplayUnits) -> list[str]:
    """Each change in a few words, in the order in which they are best made."""
    return [_said(one, after, words) for one in changes_between(before, after)]


def _said(one: Remark, after: Standing, words: DisplayUnits) -> str:
    if one.code != "dial":
        return HANDS[one.code](one.facts, words)
    unit = after.solved.table.units[one.facts["unit"]]

    def shown(below: float) -> str:
        return dial(unit.scale, below, words, unit.watt_seconds)

    was, now = one.facts["was"], shown(one.facts["now"])
    return f"light {one.facts['light'] + 1}: {now if was is None else f'{shown(was)} to {now}'}"


def hands_between(before: Turn, after: Turn, words: DisplayUnits) -> list[str]:
    """From the end of one turn to the start of the next."""
    if not before.stretches or not after.stretches:
        return []
    return hands_text(_standing(before.stretches[-1]), _standing(after.stretches[0]), words)


def hands_of_stretches(before: Stretch, after: Stretch, words: DisplayUnits) -> list[str]:
    """From one hour of a session to the next."""
    return hands_text(_standing(before), _standing(after), words)


def _standing(stretch: Stretch) -> Standing:
    units: list[int | None] = [None] * len(stretch.solved.setup.lights)
    for work in stretch.work:
        units[work.light] = work.unit
    return Standing(stretch.solved, stretch.kind, tuple(units))
