"""The forms of kit, made from the documents: a field asks as its type says, under its title, in the document's order.

Here is only what no document says: what is folded away, what is said shorter in a row, hints, and which kind of
quantity a number is where its unit does not tell.
"""

import types
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal, Union, get_args, get_origin

from pydantic import BaseModel

from .kit import SUPPLIES
from .titles import title_of

Asks = Literal["text", "names", "check", "quantity", "choice", "set", "rows", "part", "fold"]
Reads = Literal[
    "level", "aperture", "shutter", "duration", "iso", "nd", "distance", "seconds", "count", "weight", "money",
    "energy", "charge", "focal", "rate", "millimetres", "degrees", "power", "number",
]  # fmt: skip
"""The kinds of quantity that a form reads."""


@dataclass(slots=True)
class Option:
    """One of several: what is stored, and its words."""

    value: str | bool | None
    says: str


@dataclass(slots=True)
class FieldText:
    """What a form asks.

    reads: how a quantity is read. fields: of each row, of a part, or folded away. blank: the document that a row or
    part begins as. add: the button for one more row. always: a part that is there whatever is ticked. only: the kinds
    of thing that have it; where it holds something it is shown all the same.
    """

    key: str
    asks: Asks
    label: str
    hint: str
    reads: Reads
    options: list[Option]
    fields: list["FieldText"]
    blank: str
    add: str
    always: bool
    only: list[str]
    wide: bool


def _plain(key: str, asks: Asks, label: str) -> FieldText:
    """A field with nothing but its label."""
    return FieldText(key, asks, label, "", "number", [], [], "", "", False, [], False)


FOLDED: dict[str, dict[str, tuple[str, ...]]] = {
    "Unit": {
        "Recycling and power supply": ("power_supplies",),
        "Dial, zoom and what it takes": (
            "scale", "zoom_min_mm", "zoom_max_mm", "takes_modifiers", "mount", "own_radio", "standby_w", "shoe",
        ),
        "High-speed sync and flash duration": ("hss", "flash_duration"),
        "Weight, price, how many, heat and the rest": (
            "holding", "weight_g", "head_g", "count", "group_how", "price", "note", "heat", "typical",
        ),
    }
}  # fmt: skip
"""By document: what is folded away under which heading, in this order."""

FIRST: dict[str, tuple[str, ...]] = {
    "Unit": ("name", "kind", "claims", "watt_seconds"),
    "Hss": ("extra_stops", "by_itself", "measured", "table", "travel_s"),
}
"""What is asked before all else, where that is not the document's own order."""

NOT_ASKED: dict[str, tuple[str, ...]] = {"Claim": ("sd",)}
"""What a form leaves as it is."""

SHORTER: dict[str, dict[str, str]] = {
    "Battery": {"fits": "Fits", "holds": "Still holds (share of new)"},
    "Body": {
        "dark_edge": "Past sync, a landscape test frame goes dark at the",
        "leaf_limits": "Leaf shutter: fastest time wide open",
        "radio_sync_s": "Sync with the radio trigger",
        "silent_sync_s": "Sync with the silent shutter",
    },
    "Claim": {"guide_number": "GN", "unit": "in", "zoom_mm": "Zoom (mm)", "coverage_deg": "or coverage (°)"},
    "DurationEntry": {"power": "At power", "seconds": "Lasts"},
    "Face": {"shape": "Shape", "width_m": "Width or diameter (m)", "height_m": "Height (m)"},
    "FlashDuration": {"table": "By power", "shape": "Pulse", "measure": "Given as"},
    "Hss": {
        "extra_stops": "Loss beyond geometry (stops)",
        "by_itself": "Switches by itself, past sync only",
        "measured": "Measured by you",
        "table": "Or its own table of losses",
        "travel_s": "The table belongs to a body with a curtain travel of",
    },
    "HssEntry": {"shutter_s": "At", "loss_stops": "Loss (stops)"},
    "Layer": {"name": "Layer", "stops": "Effect (stops)", "sd": "Give or take (stops)"},
    "LeafLimit": {"f_number": "At f/", "fastest_s": "no faster than"},
    "Modifier": {
        "stops": "Effect (stops)",
        "sd": "Give or take (stops)",
        "layers": "Layers that come off",
        "face": "A bright face of its own",
        "adapter_stops": "An adapter takes (stops)",
    },
    "PowerScale": {"kind": "Power is dialled as", "lowest": "Down to", "step_stops": "In steps of (stops)"},
    "PowerSupply": {
        "kind": "Fed by",
        "name": "Called",
        "recycle_full_s": "Recycles after full power in (s)",
        "recycle_least_s": "at best (s)",
        "full_flashes": "Full flashes a charge",
        "capacity_wh": "or capacity (Wh)",
        "weight_g": "One weighs (g)",
        "price": "One costs",
        "charger_g": "Its charger weighs (g)",
        "charger_price": "Its charger costs",
    },
    "Unit": {
        "claims": "Guide numbers, with their whole basis",
        "head_g": "Head alone (g)",
        "heat": "Heat: how many full flashes in a row, then what rest",
        "holding": "It is",
        "power_supplies": "Power supplies, the usual one first",
        "scale": "The dial",
    },
}
"""By document and field: what a form says in place of the title, where what stands round it says the rest."""

HINTS: dict[str, dict[str, str]] = {
    "Battery": {
        "name": "one battery or set, by its own name",
        "fits": "the name of a unit, or of its power supply",
    },
    "Body": {
        "sync_s": "as in 1/250",
        "radio_sync_s": "empty: no slower",
        "silent_sync_s": "empty: it takes no flash",
        "travel_s": "empty: about the sync time",
        "dark_edge": "One frame of a wall, flash on, HSS off, two thirds past sync.",
        "stabiliser_stops": "how much slower it lets you hold",
        "weight_g": "with the lens",
        "shoe": "in your own words; empty: any",
    },
    "DurationEntry": {"power": "as in 1/16", "seconds": "as in 1/4000"},
    "Filter": {"most_stops": "only for a variable one"},
    "Hss": {"travel_s": "about its sync speed; 1/250 unless you know better"},
    "HssEntry": {"shutter_s": "as in 1/1000"},
    "LensKit": {
        "focal_most_mm": "only for a zoom",
        "widest_most": "empty: the same all through",
        "stabiliser_stops": "how much slower it lets you hold",
    },
    "Modifier": {
        "stops": "a loss is negative; without its layers",
        "mount": "in your own words; empty: any",
        "adapters": "other mounts, with commas",
        "adapter_stops": "a loss is negative",
        "not_on": "units by name, with commas",
        "price": "kept; not counted with yet",
    },
    "PowerScale": {"lowest": "as in 1/128", "step_stops": "as in 1/3"},
    "Stand": {"height_m": "fully up", "reach_m": "0: it has none"},
    "Trigger": {
        "from_shoe": "in your own words; empty: any",
        "to_shoe": "in your own words; empty: any",
    },
    "Unit": {
        "mount": "in your own words; empty: any",
        "group_how": "in your own words; it stands on the cards",
        "shoe": "in your own words; empty: any",
    },
}
"""By document and field: what helps to fill it."""

MORE: dict[str, str] = {
    "claims": "Add a guide number",
    "power_supplies": "Add a power supply",
    "layers": "Add a layer",
    "leaf_limits": "Add a limit",
    "Hss.table": "Add a time",
    "FlashDuration.table": "Add a power",
}
"""The buttons for one more row, by field, or by document and field."""

OPTIONS: dict[str, Mapping[Any, str]] = {
    "FlashDuration.shape": {"cut": "cut: shorter as power drops", "tail": "left to its slow tail"},
    "PowerScale.kind": {"fraction": "fractions", "number": "stop numbers", "ws": "watt-seconds"},
    "PowerSupply.kind": SUPPLIES,
    "Body.shutter": {
        "focal_plane": "focal plane: two curtains",
        "leaf": "leaf, in the lens",
        "global": "global: all at once",
    },
    "Body.dark_edge": {"unknown": "not tried yet"},
    "Unit.holding": {"hire": "for hire"},
}
"""By document and field: what an option is called, where it is not by its own word."""

ONLY: dict[str, dict[str, tuple[str, ...]]] = {
    "Unit": {"zoom_min_mm": ("shoe", "pocket"), "zoom_max_mm": ("shoe", "pocket"), "head_g": ("pack",)},
    "Body": {
        "silent_sync_s": ("focal_plane",),
        "travel_s": ("focal_plane",),
        "dark_edge": ("focal_plane",),
        "leaf_limits": ("leaf",),
    },
}
"""By document and field: the kinds of thing that have it."""

READS: dict[str, Reads] = {
    "Filter.stops": "nd", "Filter.most_stops": "nd", "stabiliser_stops": "number", "guide_number": "number",
    "sync_s": "shutter", "top_speed_s": "shutter", "travel_s": "shutter", "radio_sync_s": "shutter",
    "silent_sync_s": "shutter", "fastest_s": "shutter", "shutter_s": "shutter", "seconds": "duration",
    "frames_per_s": "rate", "frame_width_mm": "millimetres", "frame_height_mm": "millimetres",
    "f_number": "aperture", "widest": "aperture", "widest_most": "aperture", "smallest": "aperture",
    "iso": "iso", "iso_min": "iso", "iso_max": "iso", "power": "power", "lowest": "power", "holds": "power",
    "watt_seconds": "energy", "count": "count", "full_flashes": "count", "price": "money", "charger_price": "money",
    "stops": "level", "sd": "level",
}  # fmt: skip
"""By field, or by document and field: the kind of quantity."""

BY_UNIT: dict[str, Reads] = {
    "_stops": "level", "_mm": "focal", "_g": "weight", "_m": "distance", "_s": "seconds", "_deg": "degrees",
    "_wh": "charge",
}  # fmt: skip
"""By the end of a field's name, which is its unit."""


SAYS_ITS_UNIT = frozenset({"aperture", "shutter", "duration"})
"""Quantities that stand in their field with their unit, so that the label needs none."""


def form_of(model: type[BaseModel]) -> list[FieldText]:
    """What is asked of a document, in order."""
    name = model.__name__
    folds = FOLDED.get(name, {})
    away = {key for inside in folds.values() for key in inside} | set(NOT_ASKED.get(name, ()))
    first = FIRST.get(name, ())
    rest = [key for key in model.model_fields if key not in away and key not in first]
    found = [_field(model, key) for key in (*first, *rest)]
    for number, (heading, inside) in enumerate(folds.items()):
        fold = _plain(f"fold_{number}", "fold", heading)
        fold.fields = [_field(model, key) for key in inside]
        found.append(fold)
    return found


def _field(model: type[BaseModel], key: str) -> FieldText:
    name, kind = model.__name__, model.model_fields[key].annotation
    asked = _plain(key, "quantity", SHORTER.get(name, {}).get(key) or title_of(model, key) or key)
    asked.hint, asked.wide = HINTS.get(name, {}).get(key, ""), key == "note"
    asked.only = list(ONLY.get(name, {}).get(key, ()))
    bare, optional = _bare(kind)
    words = OPTIONS.get(f"{name}.{key}", {})
    if get_origin(bare) is tuple:
        _several(asked, f"{name}.{key}", get_args(bare)[0], words)
    elif _document(bare):
        asked.asks, asked.fields, asked.blank, asked.always = "part", form_of(bare), bare.__name__, not optional
    elif get_origin(bare) is Literal:
        asked.asks, asked.options = "choice", _options(get_args(bare), words, optional)
    elif bare is bool:
        asked.asks = "choice" if optional else "check"
        asked.options = [Option(None, "not said"), Option(True, "yes"), Option(False, "no")] if optional else []
    elif bare is str:
        asked.asks = "text"
    else:
        asked.reads = _reads(name, key)
        if asked.reads in SAYS_ITS_UNIT:
            asked.label = asked.label.partition(" (")[0]
    return asked


def _several(asked: FieldText, where: str, one: Any, words: Mapping[str, str]) -> None:
    """A field that holds several: of some words, names, or rows."""
    one, _ = _bare(one)
    if get_origin(one) is Literal:
        asked.asks, asked.options = "set", _options(get_args(one), words, False)
    elif _document(one):
        asked.asks, asked.fields, asked.blank = "rows", form_of(one), one.__name__
        asked.add = MORE.get(where) or MORE[asked.key]
    else:
        asked.asks = "names"


def _options(values: tuple[Any, ...], words: Mapping[str, str], optional: bool) -> list[Option]:
    found = [Option(one, words.get(one, one.replace("_", " "))) for one in values]
    return [Option(None, "not said"), *found] if optional else found


def _document(kind: Any) -> bool:
    return isinstance(kind, type) and issubclass(kind, BaseModel)


def _bare(kind: Any) -> tuple[Any, bool]:
    """(a type without what is told beside it, whether it may be left out)."""
    optional = False
    while True:
        args = get_args(kind)
        if get_origin(kind) in (Union, types.UnionType):
            optional = type(None) in args
            kind = next(one for one in args if one is not type(None))
        elif hasattr(kind, "__metadata__"):
            kind = args[0]
        else:
            return kind, optional


def _reads(document: str, key: str) -> Reads:
    by_unit: Reads = next((reads for end, reads in BY_UNIT.items() if key.endswith(end)), "number")
    return READS.get(f"{document}.{key}", READS.get(key, by_unit))
