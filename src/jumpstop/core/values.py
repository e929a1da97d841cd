"""What every value of the core has in common: it is frozen, strict, and says its own name in an error."""

from datetime import time
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field, PlainSerializer, WithJsonSchema
from pydantic.config import JsonValue

Figure = float | NDArray[np.float64]
"""One number, or one number a unit: every relation takes and gives either."""

Floats = NDArray[np.float64]


class Value(BaseModel):
    """A frozen value that refuses unknown fields, infinities and NaN."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", allow_inf_nan=False, str_strip_whitespace=True, validate_default=False
    )


def example(**figures: JsonValue) -> ConfigDict:
    """Model settings that show this document in the published schema."""
    return ConfigDict(json_schema_extra={"examples": [figures]})


Name = Annotated[str, Field(min_length=1, max_length=80, title="Name")]
Note = Annotated[str, Field(max_length=2000, title="Note")]
Stops = Annotated[float, Field(ge=-20, le=20)]
Spread = Annotated[float, Field(ge=0, le=5)]
FNumber = Annotated[float, Field(ge=0.5, le=128, title="Aperture (f-number)")]
ShutterS = Annotated[float, Field(ge=1 / 64000, le=3600, title="Shutter time (s)")]
Iso = Annotated[float, Field(ge=3, le=4_000_000, title="ISO")]
DistanceM = Annotated[float, Field(ge=0.05, le=500, title="Distance (m)")]
Clock = Annotated[
    time,
    PlainSerializer(lambda clock: f"{clock:%H:%M}", return_type=str),
    WithJsonSchema({"type": "string", "pattern": r"^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$", "examples": ["12:30"]}),
]
"""What the clocks of the place show, to the minute; without a zone of its own."""
Ev = Annotated[float, Field(ge=-10, le=24)]
