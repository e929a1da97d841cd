"""What is put in front of a flash: modifiers with layers that come off, gels."""

from typing import Literal

import numpy as np
from pydantic import Field

from .place import Face
from .stops import Jump
from .values import Figure, Name, Note, Spread, Stops, Value, example

Gel = Literal["none", "full_orange", "half_orange", "quarter_orange", "eighth_orange"]

# Share of the light that orange correction lets through; typical of filter makers' data sheets, from memory.
GEL_TRANSMISSION: dict[Gel, float] = {
    "none": 1.0,
    "full_orange": 0.55,
    "half_orange": 0.71,
    "quarter_orange": 0.79,
    "eighth_orange": 0.85,
}
GEL_NAMES: dict[Gel, str] = {
    "none": "no gel",
    "full_orange": "full orange gel",
    "half_orange": "half orange gel",
    "quarter_orange": "quarter orange gel",
    "eighth_orange": "eighth orange gel",
}


class Layer(Value):
    """One part of a modifier that comes off: a diffuser, a grid, an extender."""

    name: Name
    stops: Stops = Field(title="Layer's effect (stops, a loss is negative)")
    sd: Spread = Field(0.3, title="Layer's uncertainty (stops)")
    usually_on: bool = Field(True, title="Usually on")
    measured: bool = Field(False, title="Measured by you")


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
    ] = Field("softbox", title="Kind")
    stops: Stops = Field(0.0, title="Effect (stops, a loss is negative)")
    sd: Spread = Field(0.3, title="Uncertainty (stops)")
    layers: tuple[Layer, ...] = Field((), max_length=8, title="Layers")
    face: Face | None = Field(None, title="Face")
    needs_zoom_head: bool = Field(False, title="Works on a zoomed head only")
    weight_g: float | None = Field(None, ge=0, le=100_000, title="Weight (g)")
    price: float | None = Field(None, ge=0, le=1_000_000, title="Price")
    note: Note = ""


def mired_shift(from_k: Figure, to_k: Figure) -> Figure:
    """Mired shift 1e6/T2 - 1e6/T1, colour temperatures in kelvin."""
    return 1e6 / np.asarray(to_k) - 1e6 / np.asarray(from_k)


def gel_stops(gel: Gel) -> float:
    """Stops that a gel takes (negative)."""
    return float(np.log2(GEL_TRANSMISSION[gel]))


def layers_on(modifier: Modifier, chosen: tuple[str, ...] | None) -> tuple[Layer, ...]:
    """The layers that are on: those named, or the usual ones where nothing was said."""
    if chosen is None:
        return tuple(layer for layer in modifier.layers if layer.usually_on)
    known = {layer.name for layer in modifier.layers}
    for name in chosen:
        if name not in known:
            raise ValueError(f"“{modifier.name}” has no layer “{name}”; it has {', '.join(sorted(known)) or 'none'}.")
    return tuple(layer for layer in modifier.layers if layer.name in chosen)


def modifier_jumps(modifier: Modifier, chosen: tuple[str, ...] | None) -> list[Jump]:
    """One jump for the modifier itself and one for each layer that is on."""
    jumps = [
        Jump(
            "modifier",
            "{name}",
            modifier.stops,
            modifier.sd,
            "{name} against the unit's own reflector at 35 mm coverage. Every figure here can be replaced by your own.",
            "M",
            "common practice, no published source",
            {"name": modifier.name},
        )
    ]
    for layer in layers_on(modifier, chosen):
        jumps.append(
            Jump(
                "layer",
                "{layer}",
                layer.stops,
                layer.sd,
                "Measured by you."
                if layer.measured
                else "{layer}: it comes off. A layer of diffusion costs about a stop.",
                "U" if layer.measured else "CP",
                "" if layer.measured else "common practice, no published source",
                {"layer": layer.name},
            )
        )
    return jumps


def gel_jump(gel: Gel) -> Jump:
    """What the colour correction in front of the flash takes."""
    return Jump(
        "gel",
        "{gel}",
        gel_stops(gel),
        0.1,
        "{gel} lets {share:.0%} of the light through.",
        "M",
        "typical of filter makers' data sheets, from memory",
        {"gel": GEL_NAMES[gel], "share": GEL_TRANSMISSION[gel]},
    )
