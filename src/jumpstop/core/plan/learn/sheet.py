"""A maker's specification as it was understood: fields, each with its line, and the unit that they come to."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from ...kit.power import SUPPLY_KINDS
from ...physics.beam import coverage_deg
from .printed import possible_units

Topic = Literal[
    "name", "kind", "guide", "energy", "range", "step", "recycle", "flashes", "duration", "hss", "colour", "drift",
    "modelling", "zoom", "battery", "weight", "mount", "price",
]  # fmt: skip
"""What a line can be about. Values, by topic:

name, mount, colour, drift, modelling: words. kind: a kind of unit. energy [Ws]. guide: {number, unit (m, ft or None
where that was not said), iso, zoom_mm, coverage_deg, reflector, other: the number where a figure has two readings}.
range: {lowest: share of full} or {top: number at full power, bottom: the lowest number}. step: stops. recycle: {full_s,
least_s, supply}. flashes: {count, supply}. duration: {measure: t.1, t.5 or None, entries: [(share of full, s)]}.
hss: {has, top_s}. zoom: {least_mm, most_mm}. battery: {supply, wh, cells}. weight: {g, battery: with it, without it or
None}. price: {amount, currency}.
"""


@dataclass(frozen=True)
class SaidField:
    """One field that a line says."""

    topic: Topic
    value: Any
    line: int
    text: str


@dataclass
class SpecifiedUnit:
    """One unit of a specification: what its lines say, and those that were not understood (line, text)."""

    said: list[SaidField] = field(default_factory=list)
    unread: list[tuple[int, str]] = field(default_factory=list)


NOTES = {"colour": "Colour {}", "drift": "Colour drift {}", "modelling": "Modelling light {}", "mount": "Mount {}"}
OTHER_READING_SD = 0.35  # stops: half of what the two readings of a figure such as f/22.7 lie apart
LEAST_RECYCLE_S = 0.1  # where only the time after full power is printed
NOT_SAID = "Printed unit"


def guide_choices(value: dict[str, Any], watt_seconds: float | None) -> list[dict[str, Any]]:
    """The claims that a printed guide number can be: in metres or feet where that was not said and the energy leaves
    both possible; each reading of a figure that has two."""
    claim = {key: one for key, one in value.items() if key not in ("other", "feet")}
    if value.get("unit") is None:
        zoom = value.get("zoom_mm")
        angle = value.get("coverage_deg") or (float(coverage_deg(zoom)) if zoom else None)
        may_be = possible_units(value["guide_number"], value.get("iso", 100), angle, watt_seconds)
        return [claim | {"unit": unit} for unit in may_be]
    if "other" in value:
        return [claim, claim | {"guide_number": value["other"]}]
    return [claim]


def document(said: Sequence[SaidField], chosen: dict[int, int]) -> dict[str, Any]:
    """The document of a unit. chosen: which of a field's readings was taken, by its place among `said`; where none of
    two was, both are kept in one figure between them with its doubt, or, of metres and feet, none."""
    doc: dict[str, Any] = {"name": NOT_SAID}
    energy = next((one.value for one in said if one.topic == "energy"), None)
    scale: dict[str, Any] = {}
    supplies: dict[str, dict[str, Any]] = {}
    usual = next((one.value["supply"] for one in said if one.topic == "battery"), None)
    notes: list[str] = []
    weights: dict[bool | None, float] = {}

    def supply(name: str | None) -> dict[str, Any]:
        kind = name or usual or next((one for one in supplies if one != "mains"), "lithium")
        return supplies.setdefault(kind if kind in SUPPLY_KINDS else "lithium", {})

    for at, one in enumerate(said):
        value = one.value
        match one.topic:
            case "name" | "kind":
                doc[one.topic] = value
            case "energy":
                doc["watt_seconds"] = value
            case "guide":
                claims = guide_choices(value, energy)
                if at in chosen and chosen[at] < len(claims):
                    doc.setdefault("claims", []).append(claims[chosen[at]])
                elif len(claims) == 1:
                    doc.setdefault("claims", []).append(claims[0])
                elif "other" in value:
                    middle = (value["guide_number"] * value["other"]) ** 0.5
                    between = {"guide_number": round(middle, 1), "sd": OTHER_READING_SD}
                    doc.setdefault("claims", []).append(claims[0] | between)
            case "range" if "lowest" in value:
                scale["lowest"] = min(1.0, max(1 / 8192, value["lowest"]))
            case "range":
                scale |= {
                    "kind": "number",
                    "top_number": value["top"],
                    "lowest": 2.0 ** (value["bottom"] - value["top"]),
                }
            case "step":
                scale["step_stops"] = value
            case "recycle":
                there = supply(value.get("supply"))
                there |= {name: value[key] for key, name in RECYCLES.items() if key in value}
            case "flashes":
                supply(value.get("supply"))["full_flashes"] = value["count"]
            case "battery":
                there = supply(value["supply"])
                there |= {name: value[key] for key, name in HOLDS.items() if key in value}
            case "duration":
                _durations(doc, value)
            case "hss":
                if value["has"]:
                    doc["hss"] = {}
            case "zoom":
                doc |= {"zoom_min_mm": value["least_mm"], "zoom_max_mm": value["most_mm"]}
            case "weight":
                weights.setdefault(value["battery"], value["g"])
            case "price":
                doc["price"] = value["amount"]
            case _:
                notes.append(NOTES[one.topic].format(value))
    top = next((one.value["top_s"] for one in said if one.topic == "hss" and "top_s" in one.value), None)
    if top:
        notes.append(f"HSS to 1/{1 / top:.0f} s")
    zooms = [claim["zoom_mm"] for claim in doc.get("claims", []) if "zoom_mm" in claim]
    if zooms and "zoom_max_mm" not in doc and max(zooms) > LONGEST_FIXED_MM:
        doc["zoom_max_mm"] = max(zooms)
    if weights:
        doc["weight_g"] = weights.get(True) or weights.get(None) or weights.get(False)
    if scale:
        doc["scale"] = scale
    powered = [_supply(kind, there) for kind, there in supplies.items() if "recycle_full_s" in there]
    if powered:
        doc["power_supplies"] = powered
    if notes:
        doc["note"] = ". ".join(notes) + "."
    if "kind" not in doc and (energy or 0) >= SHOE_MOST_WS and "zoom_max_mm" not in doc:
        doc["kind"] = "monobloc"
    lowest = scale.get("lowest", 1 / 128)
    for entry in doc.get("flash_duration", {}).get("table", []):
        entry["power"] = entry["power"] or lowest
    return doc


SHOE_MOST_WS = 150  # of stored energy: no shoe flash has so much, from memory
LONGEST_FIXED_MM = 50  # a figure at a longer position is of a head that zooms
HOLDS = {"wh": "capacity_wh", "cells": "cells"}
RECYCLES = {"full_s": "recycle_full_s", "least_s": "recycle_least_s"}


def _durations(doc: dict[str, Any], value: dict[str, Any]) -> None:
    """t.1 where it is printed, else t.5; a figure without a name is most often t.5 (physics 20)."""
    measure = value["measure"] or "t.5"
    kept = doc.get("flash_duration")
    if kept is not None and (kept["measure"] == "t.1" or measure == "t.5") and kept["measure"] != measure:
        return
    entries = [{"power": power, "seconds": seconds} for power, seconds in value["entries"]]
    same = kept is not None and kept["measure"] == measure
    doc["flash_duration"] = {"measure": measure, "table": [*(kept["table"] if same and kept else []), *entries]}


def _supply(kind: str, there: dict[str, Any]) -> dict[str, Any]:
    least = min(there.get("recycle_least_s", LEAST_RECYCLE_S), there["recycle_full_s"])
    return {"kind": kind} | there | {"recycle_least_s": least}
