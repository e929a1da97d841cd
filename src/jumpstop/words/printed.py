"""A pasted specification in words: what each line was understood as, and what is wrong with what is printed."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from pydantic import ValidationError

from ..core.kit.unit import Claim, Unit
from ..core.plan.learn.printed import Printed, doubted, judged
from ..core.plan.learn.sheet import NOT_SAID, SaidField, SpecifiedUnit, Topic, document, guide_choices
from .figures import DisplayUnits, amount, decimal, duration, grouped, guide_number, plain, power, share, shutter
from .kit import SUPPLIES, UNIT_KINDS
from .kit import printed as claim_words
from .problems import problems_of

NAMES: dict[Topic, str] = {
    "name": "Name",
    "kind": "Kind",
    "guide": "Guide number",
    "energy": "Energy",
    "range": "Power range",
    "step": "Power step",
    "recycle": "Recycle time",
    "flashes": "Flashes a charge",
    "duration": "Flash duration",
    "hss": "High-speed sync",
    "colour": "Colour",
    "drift": "Colour drift",
    "modelling": "Modelling light",
    "zoom": "Zoom",
    "battery": "Power supply",
    "weight": "Weight",
    "mount": "Mount",
    "price": "Price",
}
MEASURES = {"t.1": "t.1", "t.5": "t.5", None: "not said whether t.1 or t.5"}


@dataclass(slots=True)
class SpecRow:
    """One field: what it is, what it was understood as, and its line; choices where it can be read in more ways.

    chosen: which of them is taken; None where none is.
    """

    topic: Topic
    name: str
    says: str
    line: int
    text: str
    choices: list[str]
    chosen: int | None
    left: bool


@dataclass(slots=True)
class SpecUnit:
    """One unit of what was pasted. doc: the unit as it would be kept; None where something is wanting, see `wants`."""

    rows: list[SpecRow]
    unread: list[str]
    judged: list[str]
    comes_to: str
    doc: dict[str, Any] | None
    wants: list[str]
    open: bool = field(default=False)


def _battery(value: Mapping[str, Any]) -> str:
    return f"{decimal(value['wh'], '.3g')} Wh" if "wh" in value else ""


def _named(value: Mapping[str, Any]) -> str:
    return f" ({SUPPLIES[value['supply']]})" if value.get("supply") else ""


def _range(value: Mapping[str, Any]) -> str:
    if "top" in value:
        return f"{plain(value['bottom'])} to {plain(value['top'])}, a stop a number"
    for under in range(14):
        if abs(value["lowest"] * 2**under - 1) < 0.02:
            return f"down to {power(under)}"
    return f"down to {share(value['lowest'], 1)} of full power"


def _recycle(value: Mapping[str, Any]) -> str:
    if "full_s" not in value:
        return f"{duration(value['least_s'])} at least power"
    least = f"{duration(value['least_s'])} to " if "least_s" in value else ""
    return f"{least}{duration(value['full_s'])} after full power{_named(value)}"


def _duration(value: Mapping[str, Any]) -> str:
    def at(part: float) -> str:
        return "full power" if part == 1 else "least power" if part == 0 else share(part, 1)

    times = ", ".join(f"{shutter(seconds)} at {at(part)}" for part, seconds in value["entries"])
    return f"{times} ({MEASURES[value['measure']]})"


def _weight(value: Mapping[str, Any]) -> str:
    with_it = {True: " with its battery", False: " without its battery", None: ""}[value["battery"]]
    return f"{grouped(value['g'])} g{with_it}"


SAYS: dict[Topic, Callable[[Any], str]] = {
    "kind": lambda v: UNIT_KINDS[v],
    "energy": lambda v: f"{plain(v)} Ws",
    "range": _range,
    "step": lambda v: amount(v, 2),
    "recycle": _recycle,
    "flashes": lambda v: f"{grouped(v['count'])} at full power{_named(v)}",
    "duration": _duration,
    "hss": lambda v: ("yes" + (f", to {shutter(v['top_s'])}" if "top_s" in v else "")) if v["has"] else "none",
    "zoom": lambda v: f"{plain(v['least_mm'])} to {plain(v['most_mm'])} mm",
    "battery": lambda v: ", ".join(one for one in (SUPPLIES[v["supply"]], _battery(v)) if one),
    "weight": _weight,
    "price": lambda v: f"{v['currency']}{decimal(v['amount'], ',.2f' if v['amount'] % 1 else ',.0f')}",
}
"""What a field was understood as; the others are words themselves."""


def _claim(value: Mapping[str, Any]) -> str:
    return claim_words(Claim.model_validate(value))


def spec_unit(
    found: SpecifiedUnit, chosen: Mapping[int, int], left: Iterable[int], name: str, units: DisplayUnits
) -> SpecUnit:
    """One unit of a sheet. chosen: readings taken, by field; left: what is left out; name: instead of the printed."""
    left = set(left)
    taken = {at: one for at, one in enumerate(found.said) if at not in left}
    places = list(taken)
    said = list(taken.values())
    energy = next((one.value for one in said if one.topic == "energy"), None)
    doc = document(said, {places.index(at): choice for at, choice in chosen.items() if at in taken})
    if name or doc["name"] == NOT_SAID:
        doc["name"] = name or _called(doc)
    rows = [_row(one, energy, chosen.get(at), at in left) for at, one in enumerate(found.said)]
    unread = [text for _, text in found.unread]
    waiting = any(row.choices and row.chosen is None and not row.left for row in rows)
    try:
        unit = Unit.model_validate(doc)
    except ValidationError as error:
        wants = [one.sentence for one in problems_of(error, Unit)]
        return SpecUnit(rows, unread, [], "", None, wants, waiting)
    wrong = tuple(judged(unit, _printed(said)))
    unit = doubted(unit, wrong)
    return SpecUnit(
        rows=rows,
        unread=unread,
        judged=[JUDGED[one.code](one.facts, units) for one in wrong],
        comes_to="; ".join(claim_words(one) for one in unit.claims) or f"{plain(unit.watt_seconds or 0)} Ws",
        doc=unit.model_dump(mode="json"),
        wants=[],
        open=waiting,
    )


def _called(doc: Mapping[str, Any]) -> str:
    """A name for a unit of which none is printed."""
    claims = doc.get("claims", [])
    said = [f"GN {plain(claims[0]['guide_number'])} {claims[0]['unit']}"] if claims else []
    said += [f"{plain(doc['watt_seconds'])} Ws"] if doc.get("watt_seconds") else []
    return ", ".join(said) or NOT_SAID


def _row(one: SaidField, energy: float | None, chosen: int | None, left: bool) -> SpecRow:
    choices, says = list[str](), ""
    if one.topic == "guide":
        claims = guide_choices(one.value, energy)
        chosen = chosen if chosen is not None and chosen < len(claims) else None  # of another text
        if len(claims) > 1:
            choices = [_claim(claim) for claim in claims]
            kept = "other" in one.value and chosen is None
            says = "both are kept, with their doubt" if kept else "which is it?" if chosen is None else choices[chosen]
        else:
            says = _claim(claims[0])
            says += ": of metres and feet, the one that its energy allows" if one.value["unit"] is None else ""
    else:
        say = SAYS.get(one.topic)
        says = str(one.value) if say is None else say(one.value)
    return SpecRow(one.topic, NAMES[one.topic], says, one.line, one.text, choices, chosen, left)


def _printed(said: Sequence[SaidField]) -> Printed:
    """What a sheet says beside what is kept of it."""
    full = [
        (one.value["measure"], seconds)
        for one in said
        if one.topic == "duration"
        for part, seconds in one.value["entries"]
        if part == 1
    ]
    feet = [
        (one.value["guide_number"], one.value["feet"]) for one in said if one.topic == "guide" and "feet" in one.value
    ]
    return Printed(tuple(full), tuple(feet))


Facts = Mapping[str, Any]


def _too_much(f: Facts, u: DisplayUnits) -> str:
    claim: Claim = f["claim"]
    at = "" if f["said"] else " at 35 mm"
    rest = (
        f"by its energy it is nearer to {guide_number(f['follows'], u)}"
        if f["said"]
        else f"it is likely meant at a long zoom; by its energy about {guide_number(f['follows'], u)} through a "
        "standard reflector"
    )
    return (
        f"{claim_words(claim)} would need {f['efficacy']:.0f} lm/W{at}, more than any flash tube gives: {rest}. "
        f"It is kept with a doubt of {decimal(f['sd'], '.1f')} stop."
    )


def _hold(f: Facts) -> str:
    return "from a socket" if f["kind"] == "mains" else "from a battery"


JUDGED: dict[str, Callable[[Facts, DisplayUnits], str]] = {
    "too_much_light": _too_much,
    "too_little_light": lambda f, u: (
        f"{claim_words(f['claim'])} is little for its energy ({decimal(f['efficacy'], '.2g')} lm/W): perhaps at less "
        "than full power, or through a modifier. It is kept with a larger doubt."
    ),
    "far_zoom": lambda f, u: (
        f"{guide_number(f['claim'].guide_number_m, u)} is at {plain(f['zoom_mm'])} mm; at 35 mm about "
        f"{guide_number(f['here'], u)} ({guide_number(f['low'], u).removeprefix('GN ')} to "
        f"{guide_number(f['high'], u).removeprefix('GN ')})."
    ),
    "falls_with_zoom": lambda f, u: (
        f"The guide number falls from {plain(f['wide_mm'])} to {plain(f['narrow_mm'])} mm "
        f"({guide_number(f['before'], u)} to {guide_number(f['after'], u)}), where a narrower beam is brighter: one of "
        "the two is wrong."
    ),
    "feet_differ": lambda f, u: (
        f"Metres and feet do not agree: {plain(f['feet'])} ft is {decimal(f['in_metres'], '.3g')} m, not "
        f"{plain(f['metres'])} m. The metres were taken."
    ),
    "t05_for_t01": lambda f, u: (
        f"t.1 {shutter(f['t01_s'])} cannot belong to t.5 {shutter(f['t05_s'])}: that makes t.1 about "
        f"{shutter(f['follows_s'])}. The figure called t.1 looks like a t.5."
    ),
    "t05_alone": lambda f, u: (
        f"{shutter(f['t05_s'])} is {'t.5' if f['named'] else 'most likely t.5, since it has no name'}; what freezes is "
        f"t.1, about {shutter(f['follows_s'])}."
    ),
    "too_fast": lambda f, u: (
        f"Recycling in {duration(f['recycle_s'])} would draw {grouped(f['watts'])} W {_hold(f)}: that is after a flash "
        f"at less than full power. After full power reckon with {duration(f['least_s'])} or more."
    ),
    "flashes_off": lambda f, u: (
        f"{grouped(f['flashes'])} full-power flashes would take {share(f['share'])} of the battery's energy; "
        f"{grouped(f['low'])} to {grouped(f['high'])} is likely."
    ),
}
"""What is wrong with what is printed, each with the figure that follows."""
