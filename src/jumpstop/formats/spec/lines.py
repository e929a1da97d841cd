"""What one line says: its figures, each by what the line is about and by its unit."""

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import pairwise, takewhile
from operator import itemgetter
from typing import Any

from ...core.physics.guide_number import guide_number_of_bcps, guide_number_of_lux_seconds
from ...core.physics.scales import APERTURES
from ...core.plan.learn.sheet import Topic
from ..quantities.camera import WHOLE_STOPS
from ..quantities.units import FOOT_M, OUNCE_G, POUND_G
from .tokens import Token

Fields = Iterator[tuple[Topic, Any]]

TAKES: dict[str, set[str]] = {
    "guide": {"", "m", "ft", "mm", "deg"},
    "aperture": {"", "f", "m", "ft"},
    "lux_s": {"lxs", "m", "ft"},
    "beam": {"cds", ""},
    "energy": {"ws", "kj", "", "share"},
    "range": {"", "share", "ws", "stops", "%"},
    "step": {"", "share", "stops"},
    "recycle": {"s", "ms", ""},
    "flashes": {"", "x"},
    "duration": {"s", "ms", "us", "share"},
    "hss": {"share", "s"},
    "colour": {"k", ""},
    "drift": {"k", "%"},
    "modelling": {"w", "lm", "k"},
    "zoom": {"mm", "deg", ""},
    "battery": {"v", "mah", "ah", "wh", "", "x"},
    "weight": {"g", "kg", "lb", "oz"},
    "price": {"£", "$", "€", ""},
}
"""What a topic can take; `share` is a figure written as a fraction."""
OWN: dict[str, str] = {
    "ws": "energy", "kj": "energy", "k": "colour", "g": "weight", "kg": "weight", "lb": "weight", "oz": "weight",
    "mah": "battery", "wh": "battery", "ah": "battery", "£": "price", "$": "price", "€": "price", "cds": "beam",
    "lxs": "lux_s", "f": "aperture",
}  # fmt: skip
"""What a unit is of, wherever it stands."""
LIKELY: dict[str, tuple[float, float]] = {
    "guide": (1, 900), "watt": (1, 20_000), "recycle": (0.01, 120), "flashes": (10, 20_000), "duration": (2e-6, 0.1),
    "colour": (2000, 12_000), "zoom": (8, 800), "wh": (0.5, 5000), "weight": (20, 60_000), "price": (1, 100_000),
    "f": (0.7, 200), "distance": (0.3, 20), "deg": (5, 180), "iso": (3, 102_400), "stops": (1, 13),
    "cds": (10, 1_000_000), "lxs": (1, 500_000),
}  # fmt: skip
"""Within what a figure of a flash unit lies; of two readings of a number the one inside is meant. From memory."""
GRAMS = {"g": 1.0, "kg": 1000.0, "lb": POUND_G, "oz": OUNCE_G}
SECONDS = {"s": 1.0, "ms": 1e-3, "us": 1e-6, "": 1.0}
SUPPLIES = ("lithium", "aa", "nimh", "alkaline", "external", "mains")
SAME = 0.03  # of a guide number: metres and feet that agree so well are one figure said twice


@dataclass
class LinePart:
    """A stretch of a line that is about one thing."""

    topic: str
    tokens: list[Token]

    @property
    def figures(self) -> list[Token]:
        return [one for one in self.tokens if one.kind == "figure"]

    def has(self, *codes: str) -> bool:
        """Whether one of these stands beside its figures."""
        return any(one.kind == "aside" and one.code in codes for one in self.tokens)

    def supply(self) -> str | None:
        """The power supply that is named."""
        for one in self.tokens:
            if one.kind == "aside" and one.code in SUPPLIES:
                return "aa" if one.code in ("nimh", "alkaline") else one.code
        return None


def likely(kind: str, value: float) -> bool:
    """Whether a figure lies within what such a figure of a flash unit can be."""
    low, high = LIKELY[kind]
    return low <= value <= high


def within(token: Token, kind: str, size: float = 1.0) -> float | None:
    """The one reading of a figure that such a figure can have; None where none, or more than one, is."""
    found = {round(value * size, 9) for value in token.values if likely(kind, value * size)}
    return found.pop() if len(found) == 1 else None


def parts(line: list[Token], before: str = "") -> list[LinePart]:
    """A line in stretches, each about one thing: a label begins a new one, and so does a figure whose unit is of
    something else. before: what the line above was about, where this one goes on with it."""
    out = [LinePart(before, [])]
    fresh = True  # nothing but words since the last break
    for token in line:
        here = out[-1]
        if token.kind == "label" and not _aside_here(token, here):
            begins = not here.topic or not here.tokens or (fresh and not token.opened) or bool(here.figures)
            if begins and not here.topic and here.figures and _all_fit(here, token.code):
                counted = token.code == "battery" and here.tokens[-1].text in PER
                here.topic = "flashes" if counted else token.code  # 480 full-power flashes, 480 per battery
            elif begins and token.code == "flashes" and here.figures and here.tokens[-1] == here.figures[-1]:
                out.append(LinePart(token.code, [here.tokens.pop()]))
                here = out[-1]
            elif begins and token.code != here.topic:
                denied = token.code == "hss" and here.tokens and here.tokens[-1].code == "no"
                out.append(LinePart(token.code, [here.tokens.pop()] if denied else []))
                here = out[-1]
        elif token.kind == "figure":
            own = OWN.get(token.unit)
            if token.unit == "v" and any(one < 100 for one in token.values):
                own = "battery"
            if token.unit and token.unit not in TAKES.get(here.topic, set()):
                earlier = (one.topic for one in reversed(out) if token.unit in TAKES.get(one.topic, set()))
                own = own or next(earlier, None)  # 2 s on battery, 1.2 s on mains
                if own:
                    out.append(LinePart(own, []))
                    here = out[-1]
        elif token.kind == "aside" and token.code in ("t.1", "t.5") and here.topic not in ("duration", "hss"):
            out.append(LinePart("duration", []))
            here = out[-1]
        fresh = token.kind == "break" and token.text not in "()[]/" if token.kind != "label" else fresh
        here.tokens.append(token)
    return [one for one in out if one.tokens]


def _all_fit(here: LinePart, topic: str) -> bool:
    """Whether all figures of a stretch can be of a topic."""
    return all(("share" if one.over else one.unit) in TAKES.get(topic, set()) for one in here.figures)


def _aside_here(token: Token, here: LinePart) -> bool:
    """Whether a label is no more than a word about the figure in hand: `zoom` in a guide number's line."""
    if (here.topic, token.code) not in ASIDE_LABELS:
        return False
    if token.code == "energy":
        return token.text == "power" and token.opened  # 1000 flashes (1/1 power: 320)
    return token.code == "step" or not here.figures or (token.code == "battery" and _of_a_figure(here))


def _of_a_figure(here: LinePart) -> bool:
    """Whether what comes now belongs to the figure before it: 2 s battery, 480 flashes per battery."""
    since = list(takewhile(lambda one: one.kind != "figure", reversed(here.tokens)))
    return all(one.code in (here.topic, "at", "full") or one.text in JOINS for one in since)


ASIDE_LABELS = {
    ("guide", "zoom"),
    ("range", "step"),
    ("energy", "step"),
    ("recycle", "battery"),
    ("flashes", "battery"),
    ("flashes", "energy"),
    ("hss", "duration"),
}
PER = {"per", "pro", "par", "por"}
JOINS = {*PER, "on", "each", "one", "of", "("}
"""What joins a figure to what it is of, beside the vocabulary's words for at and full."""


def fields_of(part: LinePart) -> Fields:
    """What a stretch of a line says."""
    if part.topic in READERS:
        yield from READERS[part.topic](part)


def _guide(part: LinePart) -> Fields:
    claims, said = list[dict[str, Any]](), 0
    waiting: dict[str, Any] = {}
    named = [one.unit for one in part.tokens if one.kind == "unit"]  # 60/197 (m/ft)
    reflector, speeds = _reflector(part), _isos(part)
    for at, token in enumerate(part.tokens):
        if token.kind != "figure":
            continue
        if at in speeds:
            (claims[-1] if claims and "iso" not in claims[-1] else waiting)["iso"] = speeds[at]
        elif token.unit in ("mm", "deg"):
            name, kind = ("zoom_mm", "zoom") if token.unit == "mm" else ("coverage_deg", "deg")
            value = within(token, kind)
            if value is not None:
                after = bool(claims) and name not in claims[-1] and not waiting.get("first")
                (claims[-1] if after else waiting)[name] = value
                if not claims:
                    waiting["first"] = True  # positions stand before their figures
        elif token.unit in ("m", "ft", "") and not token.over:
            value = within(token, "guide")
            if value is None:
                continue
            unit = token.unit or (named[min(said, len(named) - 1)] if named else None)
            said += 1
            in_feet = bool(claims) and unit == "ft" and claims[-1]["unit"] in ("m", None)
            if in_feet and abs(value * FOOT_M / claims[-1]["guide_number"] - 1) <= SAME:
                claims[-1]["unit"] = "m"
                continue
            if claims and unit == "ft" and claims[-1]["unit"] == "m":
                claims[-1]["feet"] = value
                continue
            if claims and unit == "m" and claims[-1]["unit"] == "ft":
                claims[-1] |= {"guide_number": value, "unit": "m"}
                continue
            same = [one for one in claims if one["guide_number"] == value and one["unit"] in (None, unit)]
            if same and "zoom_mm" not in waiting:
                same[0]["unit"] = same[0]["unit"] or unit
                continue
            first = waiting.pop("first", None)
            claims.append({"guide_number": value, "unit": unit} | waiting)
            waiting = {"first": True} if first else {}
    for claim in claims:
        if "iso" not in claim and len(set(speeds.values())) == 1:
            claim["iso"] = next(iter(speeds.values()))
        if reflector and "zoom_mm" not in claim:
            claim["reflector"] = reflector
        yield "guide", claim


def _isos(part: LinePart) -> dict[int, float]:
    """The figures of a stretch that are ISO speeds, by their places: behind the word, else before it."""
    out: dict[int, float] = {}
    for at, token in enumerate(part.tokens):
        if token.kind == "aside" and token.code == "iso":
            behind = [
                near for near in range(at + 1, min(at + 3, len(part.tokens))) if part.tokens[near].kind == "figure"
            ]
            for place in (*behind[:1], at - 1):
                one = part.tokens[place] if place >= 0 else None
                if one is None or one.kind != "figure" or one.unit or one.over:
                    continue
                value = within(one, "iso")
                if value is not None:
                    out[place] = value
                    break
    return out


def _reflector(part: LinePart) -> str:
    """The reflector that is named."""
    said = next((one.text for one in part.tokens if one.kind == "aside" and one.code == "reflector"), None)
    if said is None:
        return ""
    return (
        "bare bulb"
        if "bare" in said
        else "standard reflector"
        if re.search("stand|normal|estand", said)
        else "reflector"
    )


def _aperture(part: LinePart) -> Fields:
    """An f-number at a distance: guide number = N x d; a whole stop and one digit behind it has two readings."""
    speeds = _isos(part)
    figures = [one for at, one in enumerate(part.tokens) if one.kind == "figure" and at not in speeds]
    numbers, places = ([one for one in figures if one.unit in units] for units in (("f", ""), ("m", "ft")))
    iso = next(iter(speeds.values()), None)
    if len(numbers) != 1 or not places:
        return
    n, distance = within(numbers[0], "f"), within(places[0], "distance", FOOT_M if places[0].unit == "ft" else 1.0)
    if n is None or distance is None:
        return
    claim: dict[str, Any] = {"guide_number": round(n * distance, 1), "unit": "m"}
    if iso is not None:
        claim["iso"] = iso
    reflector = _reflector(part)
    if reflector:
        claim["reflector"] = reflector
    whole, tenths = math.floor(n + 1e-9), round((n - math.floor(n)) * 10)
    if whole in WHOLE_STOPS and tenths and n >= 8:
        claim["other"] = round(float(APERTURES.moved(float(whole), tenths / 10)) * distance, 1)
    if all(likely("guide", claim[one]) for one in ("guide_number", "other") if one in claim):
        yield "guide", claim


def _bare_guide(guide_number_m: float) -> Fields:
    if likely("guide", guide_number_m):
        yield "guide", {"guide_number": round(guide_number_m, 1), "unit": "m"}


def _lux_s(part: LinePart) -> Fields:
    """Light at a distance, at one metre where none is said."""
    light = next((within(one, "lxs") for one in part.figures if one.unit == "lxs"), None)
    place = next((one for one in part.figures if one.unit in ("m", "ft")), None)
    distance = 1.0 if place is None else within(place, "distance", FOOT_M if place.unit == "ft" else 1.0)
    if light is not None and distance is not None:
        yield from _bare_guide(float(guide_number_of_lux_seconds(light, distance)))


def _beam(part: LinePart) -> Fields:
    value = next((within(one, "cds") for one in part.figures), None)
    if value is not None:
        yield from _bare_guide(float(guide_number_of_bcps(value)))


def _energy(part: LinePart) -> Fields:
    said = {"ws", "kj", ""} if part.tokens[0].text.startswith("watt") else {"ws", "kj"}
    figures = [one for one in part.figures if one.unit in said and not one.over]
    sizes = [within(one, "watt", 1000.0 if one.unit == "kj" else 1.0) for one in figures]
    found = [one for one in sizes if one is not None]
    if found:
        yield "energy", max(found)
    elif any(one.over for one in part.figures):
        yield from _range(part)
    least = min((one.values[0] for one in figures if one.values), default=0.0)
    if any(one.kind == "between" for one in part.tokens) and len(figures) == 2 and found and 0 < least < max(found):
        yield "range", {"lowest": least / max(found)}
    step = _step_in(part) if found else None
    if step is not None:
        yield from _step(LinePart("step", [step]))


def _step_in(part: LinePart) -> Token | None:
    """The figure of a stretch that is the step of its dial."""
    steps = [at for at, one in enumerate(part.tokens) if one.kind == "aside" and one.code in ("steps", "stepless")]
    labels = [at for at, one in enumerate(part.tokens) if one.kind == "label" and one.code == "step"]
    figures = [(at, one) for at, one in enumerate(part.tokens) if one.kind == "figure"]
    step: Token | None = None
    for place in steps + labels if len(figures) > 1 else []:
        small = [(at, one) for at, one in figures if any(map(_is_step, one.values)) and one.text != "1/1"]
        before, after = ([one for at, one in small if (at < place) == first] for first in (True, False))
        near = after[:1] or before[-1:] if place in labels else before[-1:] or after[:1]
        step = near[0] if near else step
    if step is not None or len(figures) < 2:
        return step
    stops = [(at, one) for at, one in figures if one.unit == "stops"]
    return next((one for at, one in stops if one.over or (at and part.tokens[at - 1].text == "±")), None)


def _range(part: LinePart) -> Fields:
    step = _step_in(part)
    rest = [one for one in part.figures if one is not step]
    yield from _span(rest)
    if step is not None:
        yield from _step(LinePart("step", [step]))


def _is_step(stops: float) -> bool:
    return 0.05 <= stops <= 1


def _span(rest: list[Token]) -> Fields:
    shares = [one.values[0] for one in rest if one.over and one.values and one.unit != "stops"]
    if shares:
        if min(shares) < 1:
            yield "range", {"lowest": min(shares)}
        return
    energies = [within(one, "watt") or one.values[0] for one in rest if one.unit == "ws" and one.values]
    if len(energies) >= 2:
        yield "energy", max(energies)
        yield "range", {"lowest": min(energies) / max(energies)}
        return
    percents = [one.values[0] for one in rest if one.unit == "%" and one.values]
    if percents and 0 < min(percents) < 100:
        yield "range", {"lowest": min(percents) / 100}
        return
    stops = [one.values[0] for one in rest if one.unit == "stops" and one.values]
    if stops and likely("stops", max(stops)):
        yield "range", {"lowest": 2.0 ** -max(stops)}
        return
    numbers = [one.values[0] for one in rest if one.unit == "" and len(one.values) == 1]
    if len(numbers) == 2 and 0 <= min(numbers) < max(numbers) <= 13:
        yield "range", {"top": max(numbers), "bottom": min(numbers)}


def _step(part: LinePart) -> Fields:
    for one in part.figures:
        sizes = [value for value in one.values if _is_step(value)]
        if len(sizes) == 1 and one.unit in ("", "stops"):
            yield "step", round(sizes[0], 4)
            return


def _by_supply(part: LinePart, keeps: Callable[[Token], bool]) -> list[LinePart]:
    """A stretch by its supplies: by strokes as well where each piece names its own, 480 battery / 220 mains."""
    pieces = _split(part, keeps, ",;/")
    names = [piece.supply() or any(one.code == "battery" for one in piece.tokens) for piece in pieces]
    return pieces if all(names) else _split(part, keeps)


def _split(part: LinePart, keeps: Callable[[Token], bool], signs: str = ",;") -> list[LinePart]:
    """A stretch by its commas and semicolons, where each piece has a figure of its own."""
    pieces, now = [], list[Token]()
    for token in part.tokens:
        if token.kind == "break" and token.text in signs and any(one.kind == "figure" and keeps(one) for one in now):
            pieces.append(LinePart(part.topic, now))
            now = []
        else:
            now.append(token)
    if any(one.kind == "figure" and keeps(one) for one in now) or not pieces:
        pieces.append(LinePart(part.topic, now))
    else:
        pieces[-1].tokens += now
    return pieces


def _recycle(part: LinePart) -> Fields:
    for piece in _by_supply(part, lambda one: one.unit in SECONDS):
        timed = [one for one in piece.figures if one.unit in SECONDS and not one.over]
        if any(one.unit for one in timed):
            timed = [one for one in timed if one.unit]
        times = [within(one, "recycle", SECONDS[one.unit]) for one in timed]
        found = [one for one in times if one is not None]
        if found:
            value: dict[str, Any] = {"full_s": max(found)}
            if len(found) > 1 and min(found) < max(found):
                value["least_s"] = min(found)
            elif piece.has("least") and not piece.has("full"):
                value = {"least_s": found[0]}
            yield "recycle", value | _named_supply(piece, part)


def _flashes(part: LinePart) -> Fields:
    for piece in _by_supply(part, lambda one: one.unit in ("", "x")):
        found = _at_full(piece)
        if found:
            yield "flashes", {"count": int(max(found))} | _named_supply(piece, part)


def _at_full(piece: LinePart) -> list[float]:
    """The counts of a stretch that are of full power: not what stands behind another, nor the only one before it."""
    found: list[tuple[float | None, list[float]]] = []
    power: float | None = None
    for token in piece.tokens:
        share = _power(token, [])
        if share is not None:
            power = share
        elif token.kind == "figure" and token.unit in ("", "x"):
            counts = [one for one in token.values if one.is_integer() and likely("flashes", one)]
            if counts:
                found.append((power, counts))
                power = None
    if len(found) == 1 and found[0][0] is None:
        found = [(power, found[0][1])]  # 12,000 at minimum
    full = [one for share, counts in found if share == 1 for one in counts]
    return full or [one for share, counts in found if share is None for one in counts]


def _named_supply(piece: LinePart, part: LinePart) -> dict[str, Any]:
    """The power supply that a piece names, or that stands before all figures: `(lithium): 1.2 s at full`."""
    ahead = LinePart(part.topic, list(takewhile(lambda one: one.kind != "figure", part.tokens)))
    supply = piece.supply() or ahead.supply()
    return {"supply": supply} if supply else {}


def _duration(part: LinePart) -> Fields:
    """Each figure by the name that stands nearest before it; where the line names one alone, after it as well."""
    named = [one.code for one in part.tokens if one.kind == "aside" and one.code in ("t.1", "t.5")]
    groups: dict[str | None, list[tuple[Token, float | None]]] = {}
    now = named[0] if len(set(named)) == 1 else None
    waiting: list[tuple[Token, float | None]] = []
    power: float | None = None
    times = [one for one in part.figures if _is_time(one, part)]
    powers = {at: share for at, one in enumerate(part.tokens) if (share := _power(one, times)) is not None}
    first_time = next((at for at, one in enumerate(part.tokens) if one in times), 0)
    behind = bool(powers) and min(powers) > first_time  # 1/250 s at full power, not full power: 1/250 s
    for at, token in enumerate(part.tokens):
        if token.kind == "aside" and token.code in ("t.1", "t.5"):
            after = bool(waiting) and token.opened and len(set(named)) > 1
            if after:
                groups.setdefault(token.code, []).extend(waiting)
            waiting, now = [], token.code if not after else None
        elif at in powers:
            near = groups.get(now)
            if not behind:
                power = powers[at]
            elif near and near[-1][1] is None:
                near[-1] = (near[-1][0], powers[at])
        elif token in times:
            if now is None and len(set(named)) > 1:
                waiting.append((token, power))
            else:
                groups.setdefault(now, []).append((token, power))
            power = None
    if waiting:
        groups.setdefault(None, []).extend(waiting)
    for measure, found in groups.items():
        entries = _entries(found)
        if entries:
            yield "duration", {"measure": measure, "entries": entries}


def _power(one: Token, times: list[Token]) -> float | None:
    """The share of full power that a word or a fraction names; 0: the least there is."""
    if one.kind == "aside" and one.code in ("full", "least"):
        return 1.0 if one.code == "full" else 0.0
    if one.kind == "figure" and one.over and one.values and one.unit != "s" and one not in times:
        return one.values[0]
    return None


def _is_time(one: Token, part: LinePart) -> bool:
    if one.unit in ("s", "ms", "us"):
        return True
    if not one.over or one.unit:
        return False
    return not any(other.unit in ("s", "ms", "us") for other in part.figures) and any(v < 1 / 60 for v in one.values)


def _entries(found: list[tuple[Token, float | None]]) -> list[tuple[float, float]]:
    """(share of full, seconds): a longest and a shortest are at full and at least power where nothing else is said."""
    known = [(within(token, "duration", SECONDS[token.unit]), power) for token, power in found]
    timed = [(seconds, power) for seconds, power in known if seconds is not None]
    if not timed:
        return []
    if len(timed) == 1:
        seconds, power = timed[0]
        return [(1.0 if power is None else power, seconds)]
    longest, shortest = (end(timed, key=itemgetter(0)) for end in (max, min))
    out = []
    for seconds, power in timed:
        if power is None:
            if len(timed) > 2 and (seconds, power) not in (longest, shortest):
                continue
            power = 1.0 if seconds == longest[0] else 0.0
        out.append((power, seconds))
    return out


SLOWEST_HSS_S = 1 / 200  # what is longer is no top speed of high-speed sync


def _hss(part: LinePart) -> Fields:
    times = [
        value for one in part.figures if one.over and one.unit in ("", "s") for value in one.values if value < 1 / 200
    ]
    if times:
        yield "hss", {"has": True, "top_s": min(times)}
    elif part.has("no"):
        yield "hss", {"has": False}
    elif part.tokens[-1].kind == "between":  # HSS: –
        return
    elif part.has("yes") or not part.figures:
        yield "hss", {"has": True}


def _colour(part: LinePart) -> Fields:
    found = [value for one in part.figures if one.unit in ("k", "") if (value := within(one, "colour")) is not None]
    if found:
        low, high = min(found), max(found)
        yield "colour", f"{low:.0f} K" if low == high else f"{low:.0f} to {high:.0f} K"
    drifts = [one.values[0] for one in part.figures if one.unit == "k" and one.values and one.values[0] <= 500]
    if drifts:
        yield "drift", f"± {drifts[0]:.0f} K"


def _drift(part: LinePart) -> Fields:
    kelvins = [one.values[0] for one in part.figures if one.unit == "k" and one.values]
    if kelvins:
        yield "drift", f"± {kelvins[0]:.0f} K"


def _modelling(part: LinePart) -> Fields:
    said = [f"{one.values[0]:g} {'W' if one.unit == 'w' else 'lm' if one.unit == 'lm' else 'K'}" for one in part.figures
            if one.unit in ("w", "lm", "k") and one.values]  # fmt: skip
    if said:
        yield "modelling", ", ".join(said)


def _zoom(part: LinePart) -> Fields:
    units = ("mm", "") if part.figures and part.figures[-1].unit == "mm" else ("mm",)
    found = [value for one in part.figures if one.unit in units if (value := within(one, "zoom")) is not None]
    spans = [
        (first, last)
        for first, dash, last in zip(part.tokens, part.tokens[1:], part.tokens[2:], strict=False)
        if dash.kind == "between" and first.unit == last.unit == "mm"
    ]
    if spans:
        low, high = (within(one, "zoom") for one in spans[0])
        if low is not None and high is not None and low < high:
            yield "zoom", {"least_mm": low, "most_mm": high}
    elif len(found) >= 2 and all(a < b for a, b in pairwise(found)):
        yield "zoom", {"least_mm": found[0], "most_mm": found[-1]}


def _battery(part: LinePart) -> Fields:
    figures = part.figures
    value: dict[str, Any] = {}
    wh = next((within(one, "wh") for one in figures if one.unit == "wh"), None)
    volts = next((one.values[0] for one in figures if one.unit == "v" and one.values), None)
    amp = next((one.values[-1] / 1000 for one in figures if one.unit == "mah" and one.values), None)
    amp = amp or next((one.values[0] for one in figures if one.unit == "ah" and one.values), None)
    supply = part.supply()
    if wh is None and volts and amp and volts < 100:
        wh = round(volts * amp, 1)
    if volts is not None and volts >= 100 and wh is None:
        supply = supply or "mains"
    if wh is not None:
        value["wh"] = wh
    if supply or value:
        value["supply"] = supply or "lithium"
        chemistry = next(
            (one.code for one in part.tokens if one.kind == "aside" and one.code in ("nimh", "alkaline")), None
        )
        if chemistry:
            value["cells"] = chemistry
        yield "battery", value


def _weight(part: LinePart) -> Fields:
    pieces = _split(part, lambda one: one.unit in GRAMS)
    for piece in pieces:
        weighed = [one for one in piece.figures if one.unit in GRAMS]
        metric = [one for one in weighed if one.unit in ("g", "kg")] or weighed
        found = [value for one in metric if (value := within(one, "weight", GRAMS[one.unit])) is not None]
        if not metric or not found:
            continue
        grams = found[0]
        if metric is weighed and [one.unit for one in weighed[:2]] == ["lb", "oz"]:
            grams = weighed[0].values[0] * POUND_G + weighed[1].values[0] * OUNCE_G
        with_it = True if piece.has("with_battery") else False if piece.has("without_battery") else None
        yield "weight", {"g": round(grams, 1), "battery": with_it}


def _price(part: LinePart) -> Fields:
    for one in part.figures:
        if one.unit in ("£", "$", "€"):
            value = within(one, "price")
            if value is not None:
                yield "price", {"amount": value, "currency": one.unit}
                return


READERS: dict[str, Callable[[LinePart], Fields]] = {
    "guide": _guide, "aperture": _aperture, "lux_s": _lux_s, "beam": _beam, "energy": _energy, "range": _range,
    "step": _step, "recycle": _recycle, "flashes": _flashes, "duration": _duration, "hss": _hss, "colour": _colour,
    "drift": _drift, "modelling": _modelling, "zoom": _zoom, "battery": _battery, "weight": _weight, "price": _price,
}  # fmt: skip
"""A reader for each thing that a line can be about; names, kinds and mounts are words, see `reader`."""
