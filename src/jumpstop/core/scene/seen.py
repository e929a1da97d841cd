"""What was seen on the set: a meter's reading, or how the frame looked; kept with the setup."""

from typing import Literal

from pydantic import Field, model_validator

from ..kit.errors import refuse
from ..kit.values import Flag, FNumber, Iso, KitId, Number, ShutterS, Value, Whole
from .light import Light

MethodKind = Literal["sync", "nd", "hss", "leaf", "stop_down", "freeze", "slow", "past_sync"]
SD_METER = 0.1  # a flash meter and the rounding of its steps [stops], from memory
SD_EYE = 0.25  # a test frame judged by eye [stops], from memory
SD_PATCH = 0.1  # a patch of a frame by its figures, the camera's tones apart [stops], from memory
SD_OF = {"meter": SD_METER, "face": SD_EYE, "patch": SD_PATCH}  # by what was seen


class SeenWith(Value):
    """Camera settings at which it was seen, as marked."""

    f_number: FNumber = 8.0
    shutter_s: ShutterS = 1 / 250
    iso: Iso = 100
    nd_stops: Number = Field(0.0, ge=0, le=40)


class Seen(Value):
    """One reading of one light, with all that it was taken with.

    kind: `meter` reads f_number at iso; `face` and a `patch` of a test frame lie
    `stops` from what was wanted (brighter is positive).
    holds_ambient: whether the ambient was in it, or the flash alone. was: the light as it then stood, its unit
    included. stands: the setup counts from this reading instead of from the unit's rating.
    """

    id: KitId = "seen"
    light: Whole = Field(0, ge=0, le=7)
    kind: Literal["meter", "face", "patch"] = "meter"
    f_number: FNumber = 8.0
    iso: Iso = 100
    stops: Number = Field(0.0, ge=-12, le=12)
    holds_ambient: Flag = True
    dial_stops: Number = Field(0.0, ge=0, le=13)
    wanted_stops: Number = Field(0.0, ge=-6, le=6)
    ambient_stops: Number = Field(-30.0, ge=-60, le=30)
    method: MethodKind = "sync"
    camera: SeenWith = SeenWith()
    was: Light = Light()
    sd: Number = Field(SD_METER, ge=0.02, le=2)
    stands: Flag = False

    @model_validator(mode="after")
    def _of_a_unit(self) -> "Seen":
        if self.was.unit is None:
            raise refuse("seen_without_unit")
        return self
