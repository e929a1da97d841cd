"""Find a stop, in words: what to change, what it brings, what it costs, and the setup with it done."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..core.plan.change import ranking as plan
from ..core.plan.change.moves import Move, done
from ..core.plan.change.ranking import Costs, Keep, Lever, Levers
from ..core.plan.light.reach import Solved
from ..core.scene.light import OwnUnit, own_unit
from ..core.scene.setup import Setup
from .effects import TICKS
from .figures import DisplayUnits, amount, dial, f_number, iso, length, nd, recycling, shutter, stops
from .methods import TITLES

SHOWN = 14  # of each list
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
    itself. pairs: two together. better: what spare stops buy. unfixing: what would move a figure that is fixed.
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
    "unit": lambda f, u: f"{f['name']} instead" if f["owned"] else f"{f['name']} instead, to be got first",
}


def levers_text(solved: Solved, found: Levers, keep: Keep, at: int, units: DisplayUnits) -> LeversText:
    """The document."""
    bright = found.too_bright > 0
    gains = plan.taming(found, keep) if bright else plan.gaining(found, keep)
    pairs = plan.taming_pairs(found, keep) if bright else plan.gaining_pairs(found, keep)
    own = own_units(solved)
    better = plan.spending(found) if found.spare > plan.SAME and not bright else []

    def told(some: Sequence[Lever]) -> list[LeverText]:
        return [_lever(solved, found, one, at, units, own) for one in some[:SHOWN]]

    whole = f"Whole set, least in hand at light {found.light + 1}"
    return LeversText(
        name=whole if found.whole else solved.table.units[found.unit].name,
        now=_now(found),
        rule=RULES[keep],
        tried=len(found.singles) + len(found.pairs),
        brings="What takes light away" if bright else "What brings light",
        none="" if gains or pairs else _none(found),
        gains=told(gains),
        alone=any(one.spare >= plan.ENOUGH for one in gains),
        pairs=told(pairs),
        better=told(better),
        unfixing=told([one for one in found.unfixing if one.gain > plan.SAME]),
    )


def _none(found: Levers) -> str:
    if not found.singles and not found.pairs:
        return "Nothing to change: the distance is worked out from the dial, or the unit cannot be used."
    return "None of them is enough." if found.too_bright > 0 else "None of them brings light."


def _now(found: Levers) -> str:
    if found.too_bright > 0:
        return f"too bright at its lowest power, by {amount(found.too_bright)}"
    return f"short by {amount(found.spare)}" if found.spare < 0 else f"{amount(found.spare)} in hand"


def _lever(
    solved: Solved, found: Levers, one: Lever, at: int, units: DisplayUnits, own: Mapping[str, OwnUnit]
) -> LeverText:
    return LeverText(
        says=said(one.moves, units),
        gain=round(one.gain, 3),
        then=then_words(one),
        enough=one.spare >= plan.ENOUGH and one.too_bright <= 0,
        costs=_costs(solved, found, one, units),
        setup=done(solved.setup, at, one.moves, own),
    )


def then_words(one: Lever) -> str:
    """What a change then comes to."""
    if one.too_bright > 0:
        return "still too bright"
    if abs(one.spare) <= one.sd:
        return f"then on the line, {stops(one.spare)}"
    return f"then short by {amount(one.spare)}" if one.spare < 0 else f"then {amount(one.spare)} in hand"


def own_units(solved: Solved) -> dict[str, OwnUnit]:
    """The units of a shelf by id, as a setup holds them."""
    pairs = zip(solved.table.ids, solved.table.units, strict=True)
    return {key: own_unit(unit, key) for key, unit in pairs}


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
        out.append(f"{costs.grams / 1000:+.1f} kg".replace("-", "−"))
    if costs.money > 0:
        out.append(f"{units.currency}{costs.money:,.0f} more")
    swap = next((move for move in one.moves if move.unit is not None), None)
    at = found.unit if swap is None or swap.unit is None else solved.table.ids.index(swap.unit)
    unit = solved.table.units[at]
    if one.spare >= plan.ENOUGH and not found.whole:
        ready = "" if costs.recycle_s != costs.recycle_s else f", {recycling(costs.recycle_s)}"
        out.append(f"at {dial(unit.scale, one.below_full, units, unit.watt_seconds)}{ready}")
    return out


def _look(costs: Costs) -> list[str]:
    out = []
    if abs(costs.softer) > NOTICED:
        out.append("softer" if costs.softer > 0 else "harder")
    if abs(costs.background) > NOTICED:
        out.append(f"background {amount(costs.background)} {'brighter' if costs.background > 0 else 'darker'}")
    if abs(costs.depth) > NOTICED:
        out.append("more depth of field" if costs.depth > 0 else "less depth of field")
    if abs(costs.noise) > NOTICED:
        out.append("more noise" if costs.noise > 0 else "less noise")
    return out
