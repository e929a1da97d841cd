"""Triggers, receivers, cords, adapters: what each passes on, between which shoes; and batteries, each by name."""

from typing import Literal

from pydantic import Field

from ..physics.battery import Cells
from .values import Line, Name, Note, Number, Price, Value, Weight, example

Passes = Literal["fire", "power", "automatic", "hss"]


class Trigger(Value):
    """One link between camera and flash. Shoes are named in the person's own words; empty: any."""

    model_config = example(name="Reed radio", kind="transmitter", passes=["fire", "power", "hss"])

    name: Name
    kind: Literal["transmitter", "receiver", "cord", "adapter", "optical"] = "transmitter"
    passes: tuple[Passes, ...] = Field(("fire",), max_length=4)
    from_shoe: Line = ""
    to_shoe: Line = ""
    weight_g: Weight | None = None
    price: Price | None = None
    note: Note = ""


class Battery(Value):
    """One battery or set of cells, told from others of its kind by its name; it fits the units or the supply named."""

    model_config = example(name="AA set 3", fits="4 AA NiMH", holds=0.8)

    name: Name
    fits: Line = Field(min_length=1)
    cells: Cells | None = None
    holds: Number = Field(1.0, ge=0.1, le=1)
    weight_g: Weight | None = None
    price: Price | None = None
    note: Note = ""
