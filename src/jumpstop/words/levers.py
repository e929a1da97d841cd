"""Find a stop, in words: what to change, what it brings, what it costs, and the setup with it done."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..core.plan.camera.remark import Remark
from ..core.plan.change import ranking as plan
from ..core.plan.change.findings import Finding, Findings
from ..core.plan.change.moves import Move
from ..core.plan.change.ranking import ChangeCosts, Keep, Lever, Levers
from ..core.plan.light.reach import TOO_BRIGHT, Solved
from ..core.scene.setup import Setup
from .comes_out import LIGHTS, clause, put_right
from .effects import TICKS
from .figures import DisplayUnits, amount, decimal, dial, f_number, grouped, iso, length, nd, recycling, shutter, stops
from .methods import TITLES
from .verdict import ratio_words

NOTICED = 0.15  # stops: a change of the look smaller than this is not told of
RULES: dict[Keep, str] = {
    "look": "What is enough comes first; then what changes the picture least.",
    "light": "What is enough comes first; then what weighs and costs least.",
    "quick": "What is enough comes first; then what is done soonest.",
}


@dataclass(slots=True)
class LeverText:
    """One change, or two together: what to do, what it brings [stops], what it then comes to, what it costs; and the
    setup with it done."""

    says: str
    gain: float
    then: str
    enough: bool
    costs: list[str]
    setup: Setup


@dataclass(slots=True)
class LeversText:
    """All that is worth telling, best first.

    brings: what the first list does; none: where there is nothing to tell. alone: whether one of them is enough by
    itself. pairs: two together. better: what spare stops buy. unfixing: what would move a figure that is fixed. losing:
    what loses something that the setup asks for.
    """

    name: str
    now: str
    rule: str
    tried: int
    brings: str
    none: str
    gains: list[LeverText]
    alone: bool
    pairs: list[LeverText]
    better: list[LeverText]
    unfixing: list[LeverText]
    losing: list[LeverText]


Facts = Mapping[str, Any]
MOVES: dict[str, Callable[[Facts, DisplayUnits], str]] = {
    "closer": lambda f, u: f"closer, to {length(f['metres'], u)}",
    "farther": lambda f, u: f"back to {length(f['metres'], u)}",
    "layer_off": lambda f, u: f"{f['layer']} off",
    "layer_on": lambda f, u: f"{f['layer']} on",
    "layers_off": lambda f, u: f"all layers of {f['name']} off",
    "bare": lambda f, u: f"bare, without {f['name']}",
    "modifier": lambda f, u: f"{f['name']} instead",
    "gel_off": lambda f, u: "gel off",
    "tick_on": lambda f, u: f"{TICKS[f['effect']]} on",
    "tick_off": lambda f, u: f"{TICKS[f['effect']]} off",
    "zoom": lambda f, u: f"zoom to {f['zoom_mm']:.0f} mm",
    "heads": lambda f, u: f"{f['count']} equal heads",
    "straight": lambda f, u: "head straight at the subject",
    "iso_up": lambda f, u: iso(f["iso"]),
    "iso_down": lambda f, u: iso(f["iso"]),
    "wider": lambda f, u: f"open to {f_number(f['f_number'])}",
    "stop_down": lambda f, u: f"stop down to {f_number(f['f_number'])}",
    "background_up": lambda f, u: f"background at {stops(f['stops'])}",
    "background_down": lambda f, u: f"background at {stops(f['stops'])}",
    "nd_on": lambda f, u: f"ND {nd(f['stops'])}",
    "iso_and_shutter": lambda f, u: f"ISO and shutter together: {iso(f['iso'])}, {shutter(f['shutter_s'])}",
    "method": lambda f, u: TITLES[f["kind"]],
    "hour": lambda f, u: f"at {f['clock']:%H:%M}",
    "into_shade": lambda f, u: "into the open shade" if f["subject"] == "shade" else "under a panel",
    "longer_flash": lambda f, u: f"accept a flash of {shutter(f['t01_s'])}, {decimal(f['blur_mm'], '.2g')} mm of blur",
    "unit": lambda f, u: f"{f['name']} instead" if f["owned"] else f"{f['name']} instead, to be got first",
}


def levers_text(solved: Solved, found: Findings, keep: Keep, units: DisplayUnits) -> LeversText:
    """The document."""
    of = found.of
    bright = of.too_bright > 0

    def told(some: Sequence[Finding]) -> list[LeverText]:
        return [_lever(solved, of, one, units) for one in some]

    whole = f"Whole set, least in hand at light {of.light + 1}"
    return LeversText(
        name=whole if of.whole else solved.table.units[of.unit].name,
        now=_now(of),
        rule=RULES[keep],
        tried=len(of.singles) + len(of.pairs),
        brings="What takes light away" if bright else "What brings light",
        none="" if found.gains or found.pairs else _none(of),
        gains=told(found.gains),
        alone=any(one.lever.spare >= plan.ENOUGH for one in found.gains),
        pairs=told(found.pairs),
        better=told(found.better),
        unfixing=told(found.unfixing),
        losing=told(found.losing),
    )


def _none(found: Levers) -> str:
    if not found.singles and not found.pairs:
        return "Nothing to change: the distance is worked out from the dial, or the unit cannot be used."
    return "None of them is enough." if found.too_bright > 0 else "None of them brings light."


def _now(found: Levers) -> str:
    if found.too_bright > 0:
        return f"too bright at its lowest power, by {amount(found.too_bright)}"
    return f"short by {amount(found.spare)}" if found.spare < 0 else f"{amount(found.spare)} in hand"


def _lever(solved: Solved, of: Levers, one: Finding, units: DisplayUnits) -> LeverText:
    return LeverText(
        says=said(one.moves, units),
        gain=round(one.lever.gain, 3),
        then=then_words(one.lever),
        enough=one.lever.spare >= plan.ENOUGH and one.lever.too_bright <= 0,
        costs=_costs(solved, of, one.lever, units) + changes(one, units),
        setup=one.setup,
    )


def then_words(one: Lever) -> str:
    """What a change then comes to."""
    if one.too_bright > 0:
        return "still too bright"
    if abs(one.spare) <= one.sd:
        return f"then on the line, {stops(one.spare)}"
    return f"then short by {amount(one.spare)}" if one.spare < 0 else f"then {amount(one.spare)} in hand"


def said(moves: Sequence[Move], units: DisplayUnits) -> str:
    """What to do."""
    return " and ".join(f"{_whose(move)}{MOVES[move.code](move.facts, units)}" for move in moves)


def _whose(move: Move) -> str:
    return "" if move.at is None else f"light {move.at + 1}: "


def _costs(solved: Solved, found: Levers, one: Lever, units: DisplayUnits) -> list[str]:
    """What it costs, and what it buys, each in a word or two; what does not matter left out."""
    costs = one.costs
    out = [*_look(costs)]
    if abs(costs.grams) >= 100:
        out.append(f"{decimal(costs.grams / 1000, '+.1f')} kg".replace("-", "−"))
    if costs.money > 0:
        out.append(f"{units.currency}{grouped(costs.money)} more")
    swap = next((move for move in one.moves if move.unit is not None), None)
    at = found.unit if swap is None or swap.unit is None else solved.table.ids.index(swap.unit)
    unit = solved.table.units[at]
    if one.spare >= plan.ENOUGH and not found.whole:
        ready = "" if costs.recycle_s != costs.recycle_s else f", {recycling(costs.recycle_s)}"
        out.append(f"at {dial(unit.scale, one.below_full, units, unit.watt_seconds)}{ready}")
    return out


def _look(costs: ChangeCosts) -> list[str]:
    out = []
    if abs(costs.softer) > NOTICED:
        out.append("softer" if costs.softer > 0 else "harder")
    if abs(costs.depth) > NOTICED:
        out.append("more depth of field" if costs.depth > 0 else "less depth of field")
    if abs(costs.noise) > NOTICED:
        out.append("more noise" if costs.noise > 0 else "less noise")
    return out


def _other(f: Facts, units: DisplayUnits) -> str:
    """What another light comes to."""
    who = f"{LIGHTS[f['role']]} (light {f['light'] + 1})"
    if f["verdict"] == TOO_BRIGHT:
        return f"{who} too bright, by {amount(f['too_bright'])}"
    return f"{who} short by {amount(f['spare'])}" if f["spare"] < 0 else f"{who} then reaches"


DIFFERS: dict[str, Callable[[Facts, DisplayUnits], str]] = {
    "method": lambda f, u: f"{TITLES[f['after']]} instead of {TITLES[f['before']]}",
    "aperture": lambda f, u: f"{f_number(f['before'])} to {f_number(f['after'])}",
    "shutter": lambda f, u: f"{shutter(f['before'])} to {shutter(f['after'])}",
    "iso": lambda f, u: f"ISO {f['before']:.0f} to {f['after']:.0f}",
    "nd": lambda f, u: f"ND {decimal(f['before'], '.2g')} to {decimal(f['after'], '.2g')} stops",
    "background": lambda f, u: f"background {amount(f['stops'])} {'brighter' if f['stops'] > 0 else 'darker'}",
    "ends": lambda f, u: f"ends {stops(f['stops'])} (now {stops(f['before'])})",
    "row": lambda f, u: f"last row {stops(f['stops'])} (now {stops(f['before'])})",
    "ratio": lambda f, u: f"ratio {ratio_words(f['before'])} to {ratio_words(f['after'])}",
    "edge": lambda f, u: f"edge {amount(f['stops'])} {'brighter' if f['stops'] > 0 else 'darker'}",
    "other_light": _other,
    "not_so_many": lambda f, u: f"takes {f['wanted']} {f['name']}, {f['there']} owned",
}
"""What else moves, in a few words."""


def changes(one: Finding, units: DisplayUnits) -> list[str]:
    """All that a change moves beside what it is made for: what differs, what then fails, what fails no more."""
    out = [DIFFERS[found.code](found.facts, units) for found in (*one.differs, *one.wanted) if not _alike(found)]
    out += [clause(found, units) for found in one.lost]
    return out + [put_right(found, units) for found in one.won]


def _alike(found: Remark) -> bool:
    """Whether two figures would be told by the same words."""
    return found.code == "ratio" and ratio_words(found.facts["before"]) == ratio_words(found.facts["after"])
