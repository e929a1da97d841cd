"""What is put in front of a flash: modifiers with layers that come off."""

import math
from typing import Literal

from pydantic import Field

from .values import Flag, Line, Name, Note, Number, Price, Spread, Stops, Value, Weight, example

UnitKind = Literal["shoe", "pocket", "monobloc", "pack", "built_in", "ring"]


class Face(Value):
    """The bright face of a modifier: a disc (width = diameter) or a rectangle, in metres."""

    shape: Literal["disc", "rectangle"] = Field("disc", title="Face shape")
    width_m: Number = Field(ge=0.01, le=20, title="Face width (m)")
    height_m: Number | None = Field(None, ge=0.01, le=20, title="Face height (m)")

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
    stops: Stops = Field(title="Layer's effect (stops, a loss is negative)")
    sd: Spread = Field(0.3, title="Layer's uncertainty (stops)")
    usually_on: Flag = Field(True, title="Usually on")
    measured: Flag = Field(False, title="Measured by you")


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
    ] = Field("softbox", title="Kind")
    stops: Stops = Field(0.0, title="Effect (stops, a loss is negative)")
    sd: Spread = Field(0.3, title="Uncertainty (stops)")
    layers: tuple[Layer, ...] = Field((), max_length=8, title="Layers")
    face: Face | None = Field(None, title="Face")
    fits: tuple[UnitKind, ...] = Field((), max_length=8, title="Fits kinds of unit (none: all)")
    not_on: tuple[Name, ...] = Field((), max_length=20, title="Does not fit these units")
    mount: Line = Field("", title="Mount")
    adapters: tuple[Line, ...] = Field((), max_length=8, title="Adapters for these mounts")
    adapter_stops: Stops = Field(0.0, title="Effect of an adapter (stops, a loss is negative)")
    needs_zoom_head: Flag = Field(False, title="Works on a zoomed head only")
    weight_g: Weight | None = Field(None, title="Weight (g)")
    price: Price | None = Field(None, title="Price", description="Kept; not counted with yet.")
    typical: Flag = Field(False, title="Typical figures of its class")
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


def usual_stops(modifier: Modifier) -> float:
    """What a modifier does with its usual layers on [stops]."""
    return modifier.stops + sum(layer.stops for layer in layers_on(modifier, None))


def layers_on(modifier: Modifier, chosen: tuple[str, ...] | None) -> tuple[Layer, ...]:
    """The layers that are on: those named, or the usual ones where nothing was said. Others are passed over."""
    if chosen is None:
        return tuple(layer for layer in modifier.layers if layer.usually_on)
    return tuple(layer for layer in modifier.layers if layer.name in chosen)
