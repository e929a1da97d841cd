"""How a unit's power is dialled, and what it is fed by."""

import math
from typing import Literal, get_args

from pydantic import Field

from ..physics.battery import Cells
from .values import Line, Number, Price, Value, Weight

SupplyKind = Literal["aa", "lithium", "external", "mains"]
SUPPLY_KINDS: tuple[SupplyKind, ...] = get_args(SupplyKind)
NEXT_MARK = 0.05  # of a step: a lowest power this near to the dial's next mark is that mark (1/128 written as 0.0078)


class PowerScale(Value):
    """How a unit's power is dialled."""

    kind: Literal["fraction", "number", "ws"] = "fraction"
    lowest: Number = Field(1 / 128, ge=1 / 8192, le=1)
    step_stops: Number = Field(1 / 3, ge=0.05, le=2)
    top_number: Number = Field(10, ge=1, le=20)

    @property
    def dial_range_stops(self) -> float:
        """How many stops the dial goes below full power, in whole steps of its own."""
        steps = -math.log2(self.lowest) / self.step_stops
        return math.floor(steps + NEXT_MARK) * self.step_stops


class PowerSupply(Value):
    """What a unit is fed by: how fast it recycles, and how long it lasts."""

    kind: SupplyKind = "aa"
    name: Line = ""
    recycle_full_s: Number = Field(ge=0.01, le=120)
    recycle_least_s: Number = Field(0.1, ge=0, le=60)
    full_flashes: Number | None = Field(None, ge=1, le=1_000_000)
    capacity_wh: Number | None = Field(None, ge=0.1, le=10_000)
    cells: Cells | None = None
    weight_g: Weight | None = None
    price: Price | None = None
    charger_g: Weight | None = None
    charger_price: Price | None = None

    @property
    def made_of(self) -> Cells:
        """What its cells are: as said; else lithium in a lithium pack, nickel in others, from memory."""
        return self.cells or ("lithium" if self.kind in ("lithium", "external") else "nimh")
