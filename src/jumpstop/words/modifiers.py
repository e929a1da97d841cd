"""Modifiers against each other, in words: what each takes, how large and soft it is, how fast it falls off."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..core.kit.modifier import BOUNCED_M, Modifier, source_of, usual_stops
from ..core.kit.table import UnitTable
from ..core.physics.falloff import close_up, inverse_square
from ..core.physics.guide_number import guide_number_of_stops
from .figures import DisplayUnits, guide_number, kilograms, length, stops

NONE = "–"
BEHIND_M = 0.5  # how far behind the subject the fall of the light is told


@dataclass(slots=True)
class ModifierRow:
    """One modifier: stops bare of layers, as usual, and with all on; each layer; and what else tells it apart.

    soft: its angle as the subject sees it [degrees], of bounced light that of the patch that it comes off, as far away;
    falls: stops lost half a metre behind the subject, of bounced light not told: its way is the room's.
    """

    name: str
    own: str
    usual: str
    usual_stops: float
    most: str
    layers: list[str]
    size: str
    soft: float
    soft_words: str
    falls: str
    weight: str
    through: str


@dataclass(slots=True)
class ModifiersText:
    """All modifiers at one distance; unit: whose light is told through each, if one is."""

    distance: str
    unit: str
    rows: list[ModifierRow]


def modifiers_text(
    modifiers: Sequence[Modifier], distance_m: float, table: UnitTable, unit: int | None, units: DisplayUnits
) -> ModifiersText:
    """The document: the least loss first."""
    rows = [_row(one, distance_m, table, unit, units) for one in modifiers]
    named = "" if unit is None else table.units[unit].name
    return ModifiersText(length(distance_m, units), named, sorted(rows, key=lambda row: -row.usual_stops))


def _row(one: Modifier, distance_m: float, table: UnitTable, unit: int | None, units: DisplayUnits) -> ModifierRow:
    usual = usual_stops(one)
    most = one.stops + sum(layer.stops for layer in one.layers)
    face, bounced = source_of(one), one.face is None and one.kind == "bounce"
    width, height = face.width_m, face.rectangle_height_m
    largest = max(width, height or 0.0)
    soft = math.degrees(2 * math.atan(largest / 2 / distance_m))
    near, far = (
        float(inverse_square(metres)) + float(close_up(width, height, metres))
        for metres in (distance_m, distance_m + BEHIND_M)
    )
    through = NONE
    if unit is not None and table.takes(one)[unit]:
        through = guide_number(float(guide_number_of_stops(table.rated[unit] + usual)), units)
    return ModifierRow(
        name=one.name,
        own=stops(one.stops),
        usual=stops(usual),
        usual_stops=round(usual, 2),
        most=stops(most) if one.layers else NONE,
        layers=[f"{layer.name} {stops(layer.stops)}{'' if layer.usually_on else ' (off)'}" for layer in one.layers],
        size=_size(one, units),
        soft=round(soft, 1),
        soft_words=f"{'about ' if bounced else ''}{soft:.0f}°",
        falls=NONE if bounced else stops(far - near),
        weight=NONE if one.weight_g is None else kilograms(one.weight_g),
        through=through,
    )


def _size(one: Modifier, units: DisplayUnits) -> str:
    if one.face is None:
        return f"about {length(BOUNCED_M, units)} across" if one.kind == "bounce" else "small"
    height = one.face.rectangle_height_m
    across = length(one.face.width_m, units, fine=True)
    return f"{across} across" if height is None else f"{across} × {length(height, units, fine=True)}"
