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
    kind: Literal["transmitter", "receiver", "cord", "adapter", "optical"] = Field("transmitter", title="Kind")
    passes: tuple[Passes, ...] = Field(("fire",), max_length=4, title="Passes on")
    from_shoe: Line = Field("", title="Sits on the shoe")
    to_shoe: Line = Field("", title="Offers the shoe")
    weight_g: Weight | None = Field(None, title="Weight (g)")
    price: Price | None = Field(None, title="Price")
    note: Note = ""


class Battery(Value):
    """One battery or set of cells, told from others of its kind by its name; it fits the units or the supply named."""

    model_config = example(name="AA set 3", fits="4 AA NiMH", holds=0.8)

    name: Name
    fits: Line = Field(min_length=1, title="Fits (a unit's name, or its power supply's)")
    cells: Cells | None = Field(None, title="Cells")
    holds: Number = Field(1.0, ge=0.1, le=1, title="What it still holds (share of new)")
    weight_g: Weight | None = Field(None, title="Weight (g)")
    price: Price | None = Field(None, title="Price")
    note: Note = ""
