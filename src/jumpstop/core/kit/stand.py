"""Stands, booms and clamps: how high, how much they bear, and what they weigh."""

from typing import Literal

from pydantic import Field

from .values import Name, Note, Number, Price, Value, Weight, example


class Stand(Value):
    """What holds a light. height_m: its top, fully up. reach_m: how far an arm or boom holds the light out from it."""

    model_config = example(name="Light stand, 2.6 m", kind="stand", height_m=2.6, load_kg=5, weight_g=1700)

    name: Name
    kind: Literal["stand", "boom", "clamp"] = "stand"
    height_m: Number = Field(2.0, ge=0, le=12)
    load_kg: Number = Field(3.0, ge=0.1, le=200)
    reach_m: Number = Field(0.0, ge=0, le=8)
    folded_m: Number | None = Field(None, ge=0.05, le=6)
    weight_g: Weight | None = None
    price: Price | None = None
    note: Note = ""
