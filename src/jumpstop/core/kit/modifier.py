"""What is put in front of a flash: modifiers with layers that come off."""

import math
from typing import Literal

from pydantic import Field

from .values import Flag, Line, Name, Note, Number, Price, Spread, Stops, Value, Weight, example

BARE_M = 0.06  # width of a bare head
BOUNCED_M = 2.0  # across the patch of a ceiling or a wall that sends a head's light back, from memory

UnitKind = Literal["shoe", "pocket", "monobloc", "pack", "built_in", "ring"]


class Face(Value):
    """The bright face of a modifier: a disc (width = diameter) or a rectangle, in metres."""

    shape: Literal["disc", "rectangle"] = "disc"
    width_m: Number = Field(ge=0.01, le=20)
    height_m: Number | None = Field(None, ge=0.01, le=20)

    @property
    def rectangle_height_m(self) -> float | None:
        """Height of a rectangle [m], None for a disc."""
        return None if self.shape == "disc" else self.height_m or self.width_m

    @property
    def area_m2(self) -> float:
        """Its area [m2]."""
        height = self.rectangle_height_m
        return math.pi * self.width_m**2 / 4 if height is None else self.width_m * height


class Layer(Value):
    """One part of a modifier that comes off: a diffuser, a grid, an extender."""

    name: Name
    stops: Stops
    sd: Spread = 0.3
    usually_on: Flag = True
    measured: Flag = False


class Modifier(Value):
    """A modifier: its own effect in stops against the unit's rated reflector, and its layers."""

    model_config = example(
        name="Octa 90",
        kind="octa",
        stops=-0.4,
        layers=[{"name": "inner diffuser", "stops": -0.9}],
        face={"shape": "disc", "width_m": 0.9},
    )

    name: Name
    kind: Literal[
        "umbrella",
        "shoot_through",
        "softbox",
        "octa",
        "strip",
        "dish",
        "grid",
        "dome",
        "reflector",
        "extender",
        "bounce",
        "panel",
        "flag",
    ] = "softbox"
    stops: Stops = 0.0
    sd: Spread = 0.3
    layers: tuple[Layer, ...] = Field((), max_length=8)
    face: Face | None = None
    fits: tuple[UnitKind, ...] = Field((), max_length=8)
    not_on: tuple[Name, ...] = Field((), max_length=20)
    mount: Line = ""
    adapters: tuple[Line, ...] = Field((), max_length=8)
    adapter_stops: Stops = 0.0
    needs_zoom_head: Flag = False
    weight_g: Weight | None = None
    price: Price | None = Field(None, description="Kept; not counted with yet.")
    typical: Flag = False
    note: Note = ""


def fits_unit(modifier: Modifier, kind: UnitKind, name: str, mount: str) -> bool:
    """Whether a modifier goes on a unit: by its kind, unless that very unit is named; where both say a mount, by that
    or by an adapter for it."""
    if (modifier.fits and kind not in modifier.fits) or name in modifier.not_on:
        return False
    if not modifier.mount or not mount:
        return True
    return mount.casefold() in {one.casefold() for one in (modifier.mount, *modifier.adapters)}


def by_adapter(modifier: Modifier, mount: str) -> bool:
    """Whether a modifier goes on a mount by an adapter alone."""
    return bool(modifier.mount and mount) and mount.casefold() != modifier.mount.casefold()


def source_of(modifier: Modifier | None) -> Face:
    """The bright face that a subject sees: the modifier's, the patch that light is bounced off, else a bare head."""
    if modifier is not None and modifier.face is not None:
        return modifier.face
    return Face(width_m=BOUNCED_M if modifier is not None and modifier.kind == "bounce" else BARE_M)


def usual_stops(modifier: Modifier) -> float:
    """What a modifier does with its usual layers on [stops]."""
    return modifier.stops + sum(layer.stops for layer in layers_on(modifier, None))


def layers_on(modifier: Modifier, chosen: tuple[str, ...] | None) -> tuple[Layer, ...]:
    """The layers that are on: those named, or the usual ones where nothing was said. Others are passed over."""
    if chosen is None:
        return tuple(layer for layer in modifier.layers if layer.usually_on)
    return tuple(layer for layer in modifier.layers if layer.name in chosen)
