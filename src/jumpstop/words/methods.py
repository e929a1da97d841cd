"""The methods in words: what they are called, what they cost, what blocks them, and what to think of each."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.plan.camera import look
from ..core.plan.camera.methods import GHOST_STOPS, NEAR, Method
from ..core.plan.camera.remark import Remark
from ..core.plan.light import advice
from ..core.plan.light.advice import MethodCosts, Stillness
from ..core.plan.light.reach import ON_THE_LINE, SHORT, TOO_BRIGHT, Reach, Solved
from ..core.scene.seen import MethodKind
from .figures import amount, decimal, f_number, iso, listed, nd, plain, share, shutter, stops

TITLES: dict[MethodKind, str] = {
    "sync": "At sync",
    "nd": "ND at sync",
    "hss": "High-speed sync",
    "leaf": "Leaf shutter",
    "stop_down": "Stop down",
    "freeze": "Freeze by a short flash",
    "slow": "Slow sync",
    "past_sync": "Past sync, part dark",
}


def title(method: Method, shutter_kind: str) -> str:
    """What a method is called on this kind of body."""
    return "Global shutter" if method.kind == "leaf" and shutter_kind == "global" else TITLES[method.kind]


def say(found: Remark) -> str:
    """The sentence of a method's cost or blocker."""
    return REMARKS[found.code](found.facts)


def _too_bright_at(facts: Mapping[str, Any]) -> str:
    return f"The background would be {amount(facts['over'])} too bright at {shutter(facts['limit_s'])}."


def _too_bright_closed(facts: Mapping[str, Any]) -> str:
    return (
        f"At {shutter(facts['limit_s'])} the background is {amount(facts['over'])} too bright even at "
        f"{f_number(facts['f_number'])}; ND would do it."
    )


def _part_dark(facts: Mapping[str, Any]) -> str:
    edge = f"at the {facts['edge']}" if facts["edge"] else "at an edge you have not tried yet"
    return (
        f"{share(facts['dark'])} of the frame, {edge}; gains {amount(facts['gain'])} over sync. Turn the dark part to "
        "sky that the flash never reached."
    )


def _ghosts(facts: Mapping[str, Any]) -> str:
    level = facts["level"]
    return (
        f"The ambient lies {amount(level)} {'over' if level > 0 else 'under'} and ghosts: {amount(facts['over'])} too "
        "bright."
    )


def _too_long(facts: Mapping[str, Any]) -> str:
    seconds = facts["seconds"]
    return f"It would take {seconds / 60:.0f} minutes." if seconds > 90 else f"It would take {seconds:.0f} s."


REMARKS: dict[str, Callable[[Mapping[str, Any]], str]] = {
    "silent_takes_no_flash": lambda f: f"{f['body']} takes no flash with its silent shutter: switch it off.",
    "syncs_at_any_speed": lambda f: (
        f"{f['body']} syncs at any speed up to {shutter(f['sync_s'])}: see {f['shutter']} shutter."
    ),
    "too_bright_at": _too_bright_at,
    "too_bright_at_aperture": lambda f: (
        f"The background would be {amount(f['over'])} too bright at {shutter(f['limit_s'])}, the shutter's limit at "
        f"{f_number(f['f_number'])}."
    ),
    "too_bright_closed": _too_bright_closed,
    "costs_nothing": lambda f: "nothing: all the power, one clean pulse.",
    "iso_instead": lambda f: f"{iso(f['iso'])} instead of {f['asked']:.0f}: the smallest change that keeps sync.",
    "aperture_instead": lambda f: (
        f"{f_number(f['f_number'])} instead of {f_number(f['asked'])}: the smallest change that keeps sync."
    ),
    "darker_when_held": lambda f: (
        f"The background: {amount(f['dark'])} darker than wanted at {shutter(f['shutter_s'])}, held by hand."
    ),
    "nd_not_needed": lambda f: "Not needed: the camera gets there at sync without a filter.",
    "nd_none_packed": lambda f: f"No filter packed; {amount(f['over'])} of ND would do it.",
    "nd_too_weak": lambda f: (
        f"{amount(f['over'])} of ND needed; the filters packed give {plain(f['most'])}, and stacked not enough either."
    ),
    "nd_fixed_on": lambda f: "A filter is fixed on: see ND at sync.",
    "nd_fixed_off": lambda f: "No filter is fixed: free the ND to use one.",
    "nd_not_packed": lambda f: f"{f['name']} is fixed on, but is not in the bag.",
    "nd_turn_beyond": lambda f: (
        f"ND is fixed at {plain(f['stops'])} stops, which these filters do not take: "
        f"{plain(f['least'])} to {plain(f['most'])}."
    ),
    "aperture_fixed": lambda f: "The aperture is fixed.",
    "shutter_beyond": lambda f: (
        f"{shutter(f['shutter_s'])} is fixed, but {f['body']} goes no further than {shutter(f['limit_s'])}."
    ),
    "iso_beyond": lambda f: f"{iso(f['iso'])} is fixed, but {f['body']} has ISO {f['low']:.0f} to {f['high']:.0f}.",
    "fixed_past_sync": lambda f: f"{shutter(f['shutter_s'])} is fixed, faster than sync ({shutter(f['limit_s'])}).",
    "fixed_past_leaf": lambda f: (
        f"{shutter(f['shutter_s'])} is fixed; at this aperture the shutter ends at {shutter(f['limit_s'])}."
    ),
    "fixed_too_fast_for_slow": lambda f: f"{shutter(f['shutter_s'])} is fixed, which can be held by hand.",
    "background_missed": lambda f: (
        f"The background is fixed, and would come out {amount(f['off'])} {'brighter' if f['off'] > 0 else 'darker'}."
    ),
    "as_fixed": lambda f: "What comes out with these figures fixed.",
    "iso_worked_out": lambda f: f"{iso(f['iso'])} instead of {f['asked']:.0f}, worked out for the background.",
    "aperture_worked_out": lambda f: (
        f"{f_number(f['f_number'])} instead of {f_number(f['asked'])}, worked out for the background."
    ),
    "nd_takes": lambda f: (
        f"{' + '.join(f['names'])}: {nd(f['stops'])} from the flash too, nothing frozen by the shutter."
    ),
    "nd_slower_shutter": lambda f: f"{amount(f['more'])} more than needed goes into a slower shutter.",
    "nd_uneven": lambda f: "Turned far: uneven on wide lenses.",
    "hss_not_needed": lambda f: "Not needed: at or below sync speed HSS only costs power and recycle time.",
    "no_hss": lambda f: f"{f['body']} has no high-speed sync.",
    "hss_costs": lambda f: "About two stops, and one more for each stop of shutter.",
    "focal_plane": lambda f: f"{f['body']} has a focal-plane shutter.",
    "leaf_costs": lambda f: "No light is lost; the longest flashes lose some of their tail.",
    "stop_down_not_needed": lambda f: "Not needed: the camera gets there at the aperture you asked for.",
    "closes_no_further": lambda f: f"It would take {f_number(f['f_number'])}; few lenses stop down that far.",
    "blur_given_up": lambda f: f"The blur: {f_number(f['f_number'])} instead of {f_number(f['asked'])}.",
    "nothing_to_freeze": lambda f: "Nothing to freeze: no motion was asked to be frozen.",
    "ghosts": _ghosts,
    "freeze_costs": lambda f: "The background goes dark; the power it may use is small.",
    "slow_not_needed": lambda f: "Not needed: the background is right at a time that can be held by hand.",
    "too_long": _too_long,
    "moving_draws": lambda f: "What moves draws in the ambient.",
    "tripod": lambda f: f"{amount(f['slower'])} slower than can be held: a tripod.",
    "rear_curtain": lambda f: "Rear curtain, so that trails lie behind.",
    "no_curtains": lambda f: f"{f['body']} has no curtains to cut the frame.",
    "past_sync_not_needed": lambda f: "Not needed: the camera gets there at sync.",
    "little_lit": lambda f: f"At {shutter(f['shutter_s'])} only {share(f['share'])} of the frame gets flash.",
    "part_dark": _part_dark,
}


def costs(method: Method) -> str:
    """What a method costs, in a line."""
    return " ".join(say(cost) for cost in method.costs)


def blocker(method: Method) -> str:
    """Why a method cannot be had; empty where it can."""
    return "" if method.blocker is None else say(method.blocker)


METERED = {
    "flash_meter": "any flash meter reads it",
    "lit_side": "read at the lit side",
    "no_meter": "no flash meter reads it: take a test frame, or use the unit's own automatic",
}


def judgement(solved: Solved, reach: Reach, unit: int | None) -> str:
    """What to think of a method, in a sentence, for the unit that all methods are compared by."""
    method = reach.method
    still = _stillness(advice.stillness(solved, method), solved)
    if unit is None or not reach.able[unit]:
        return f"This unit cannot be used so.{still}"
    verdict, spare = reach.verdict[unit], float(reach.spare[unit])
    if reach.ambient_alone is not None:
        return f"No flash is needed for the lit side here.{still}"
    if verdict == SHORT:
        return f"Short by {amount(spare)}.{still}"
    if verdict == TOO_BRIGHT:
        return f"Too bright even at the lowest power, by {amount(float(reach.too_bright[unit]))}.{still}"
    if verdict == ON_THE_LINE:
        return f"On the line: it may fall short.{still}"
    ample = "easily reaches" if spare > 3 else "just reaches" if spare < 1 else "reaches"
    flat = look.buys_no_blur(solved.setup, solved.setup.f_number)
    vain = " But the wide aperture buys no blur here" if flat else ""
    if method.kind in ("sync", "leaf") and method.off_stops < -NEAR:
        return f"The flash {ample}, but the background falls {amount(method.off_stops)} darker than wanted.{still}"
    words: dict[MethodKind, str] = {
        "sync": f"The flash {ample} and nothing is thrown away.",
        "leaf": f"The aperture you want, and the flash {ample}.",
        "nd": f"As at sync, at your aperture; the flash {ample}.{vain + '.' if vain else ''}",
        "hss": f"Simple and quick; the flash {ample}.{vain + ': stop down.' if vain and not still else ''}",
        "stop_down": f"Nothing is lost: the wide aperture buys no blur here; the flash {ample}."
        if flat
        else f"The most power, if you can live without the blur; the flash {ample}.",
        "past_sync": f"Some of the subject lies in the dark part; the flash {ample}."
        if advice.dark_on_subject(solved, method)
        else f"The dark part misses the subject; the flash {ample}.",
        "slow": f"Holds the background; the flash {ample}.",
        "freeze": f"The short flash does the freezing; it {ample}.",
    }
    said = words[method.kind]
    if method.kind == "sync" and method.costs and method.costs[0].code.endswith("_instead"):
        said = f"The flash {ample}. {costs(method)}"
    if method.kind == "freeze" and reach.ambient_stops > GHOST_STOPS:
        return "Only once the ambient is down, or it ghosts: lamps off, lower ISO, or stop down."
    return f"{said}{still}"


def _stillness(still: Stillness | None, solved: Solved) -> str:
    """What freezes the motion, how much blur is left, and what would freeze it fully."""
    if still is None or (still.by == "flash" and still.frozen):
        return ""
    if still.by == "flash":
        return " Freezes only at settings that are short enough: see freeze by a short flash."
    if still.by == "nothing":
        return " Does not freeze: the ambient draws beside the flash."
    left, tolerable = (decimal(one, ".2f") for one in (still.blur_mm, still.tolerable_mm))
    blur = f"{left} mm of blur on the sensor, where {tolerable} is tolerable"
    if still.frozen:
        return f" The shutter freezes it, not the flash: {blur}."
    return f" The shutter leaves {blur}; {shutter(look.needed_s(solved.setup))} freezes it fully."


def against(found: MethodCosts | None) -> str:
    """How a method stands against the one that leaves this unit most in hand."""
    if found is None or found.difference is None or found.best is None:
        return ""
    if found.difference > -0.05:
        return "no method leaves it more"
    return f"{amount(found.difference)} less in hand than {TITLES[found.best].lower().replace('nd ', 'ND ', 1)}"


def charge(found: MethodCosts | None) -> str:
    """What a method takes of the charge against the best one; empty where it is about the same."""
    if found is None or found.best is None or found.charge_times < 1.15:
        return ""
    times = found.charge_times
    return f"{times:.{0 if times >= 10 else 1}f} times the charge and recycle time of the best method"


def evenness(found: MethodCosts | None) -> str:
    """How even the light falls across the frame."""
    if found is None:
        return ""
    uneven = found.evenness_stops
    return "even across the frame" if uneven < 0.1 else f"{amount(uneven)} uneven across the frame"


def background(off: float) -> str:
    """How far the background lies from what was asked; empty where it is about right."""
    if abs(off) < 0.25:
        return ""
    return f"background {amount(off)} {'brighter' if off > 0 else 'darker'} than wanted"


UNIT_BLOCKERS = {
    "": "",
    "no_hss": "it has no high-speed sync",
    "no_modifiers": "it takes no modifiers",
    "no_zoom_head": "it has no zoom head, which this modifier needs",
    "stands_alone": "it stands alone: built in or on the camera, no second head",
    "does_not_fit": "this modifier does not fit it (unless you say so)",
    "not_on_shoe": "it does not sit on a camera's shoe: fire it by radio, or by a sync cord",
    "link_stops_hss": "what is packed passes no high-speed sync to it",
    "duration_unknown": "its flash duration is not known",
    "never_short_enough": "no setting of it is short enough",
}


def over_ambient(value: float) -> str:
    """How far the flash can lie over the ambient."""
    return f"{stops(value)} over the ambient"


def cures(f_stop: float, distance: str, layer: bool) -> str:
    """What takes an excess of light away, one change at a time."""
    words = [f"stop down to {f_number(f_stop)}" if f_stop else "", f"step back to {distance}" if distance else ""]
    words.append("add a layer" if layer else "put something in front of it")
    return listed([word for word in words if word])
