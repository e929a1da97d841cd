"""Lenses: how far they open and close, from which focal length to which, and what steadies them."""

import math

from pydantic import Field, model_validator

from .errors import refuse
from .values import FNumber, Name, Note, Number, Price, Value, Weight, example


class LensKit(Value):
    """A lens of the shelf. focal_most_mm, widest_most: of a zoom, its long end, and how far it still opens there."""

    model_config = example(name="Chalk 24-70", focal_mm=24, focal_most_mm=70, widest=2.8, smallest=22)

    name: Name
    focal_mm: Number = Field(50, ge=4, le=2000)
    focal_most_mm: Number | None = Field(None, ge=4, le=2000)
    widest: FNumber = 2.8
    widest_most: FNumber | None = None
    smallest: FNumber = 22.0
    stabiliser_stops: Number = Field(0.0, ge=0, le=9)
    weight_g: Weight | None = None
    price: Price | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _agrees(self) -> "LensKit":
        if self.focal_most_mm is not None and self.focal_most_mm < self.focal_mm:
            raise refuse("lens_range_reversed", name=self.name)
        if self.smallest < max(self.widest, self.widest_most or 0):
            raise refuse("lens_closes_wider", name=self.name)
        return self

    def widest_at(self, focal_mm: float) -> float:
        """The widest aperture at a focal length; between the ends of a zoom by the logarithm of both, from memory."""
        if self.focal_most_mm is None or self.widest_most is None or self.focal_most_mm == self.focal_mm:
            return self.widest
        along = math.log(focal_mm / self.focal_mm) / math.log(self.focal_most_mm / self.focal_mm)
        return self.widest * (self.widest_most / self.widest) ** min(1.0, max(0.0, along))

    def holds(self, focal_mm: float) -> bool:
        """Whether it has a focal length."""
        return self.focal_mm <= focal_mm <= (self.focal_most_mm or self.focal_mm)
