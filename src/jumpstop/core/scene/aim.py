"""How the picture should look, and what moves in it."""

from typing import Literal, get_args

from pydantic import Field, model_validator

from ..kit.errors import refuse
from ..kit.values import FNumber, Iso, Number, Value
from ..physics.motion import fall_speed

Orientation = Literal["landscape", "grip_up", "grip_down"]
LONGEST_FLASH_S = 0.1  # of a flash that is wanted
NEAREST_FOCALS = 1.5  # a lens does not focus nearer than so many focal lengths, from memory


class Lens(Value):
    """Where subject and background stand before which lens, and how much blur is wanted behind."""

    focal_mm: Number = Field(85, ge=4, le=2000)
    subject_m: Number = Field(2.5, ge=0.1, le=500)
    background_m: Number = Field(10, ge=0.1, le=100_000)
    wanted_share: Number | None = Field(None, ge=0.0005, le=0.3)

    @model_validator(mode="after")
    def _behind(self) -> "Lens":
        if self.background_m <= self.subject_m:
            raise refuse("background_in_front", background_m=self.background_m, subject_m=self.subject_m)
        if self.subject_m * 1000 <= self.focal_mm * NEAREST_FOCALS:
            raise refuse("too_near_to_focus", focal_mm=self.focal_mm, subject_m=self.subject_m)
        return self


class ExposureAim(Value):
    """How the picture should look."""

    by: Literal["aperture", "blur"] = "aperture"
    f_number: FNumber = 2.8
    lens: Lens | None = None
    background_stops: Number = Field(-1.0, ge=-8, le=4)
    iso: Iso = 100
    iso_floor: Iso | None = None
    iso_ceiling: Iso | None = None
    ratio: Number | None = Field(None, ge=1.05, le=64)
    orientation: Orientation = "landscape"

    @model_validator(mode="after")
    def _agrees(self) -> "ExposureAim":
        if self.by == "blur" and self.lens is None:
            raise refuse("lens_missing")
        if self.iso_floor is not None and self.iso_floor > self.iso:
            raise refuse("iso_floor_above", limit=self.iso_floor, iso=self.iso)
        if self.iso_ceiling is not None and self.iso_ceiling < self.iso:
            raise refuse("iso_ceiling_below", limit=self.iso_ceiling, iso=self.iso)
        return self


Mover = Literal["fall", "walker", "runner", "leap", "dancer", "thrown", "splash", "small_bird", "ball", "other"]
MOVERS: tuple[Mover, ...] = get_args(Mover)

# Speeds of what moves fastest in the picture [m/s]; typical, from memory, and the user can say another.
SPEEDS: dict[Mover, float] = {
    "walker": 1.5,
    "leap": 3.5,
    "runner": 6.0,
    "dancer": 6.0,
    "thrown": 7.0,
    "splash": 3.0,
    "small_bird": 10.0,
    "ball": 25.0,
}


class Motion(Value):
    """What moves, and what the picture should do about it."""

    kind: Literal["none", "freeze", "trails"] = "none"
    mover: Mover = "fall"
    fall_m: Number = Field(0.2, ge=0.001, le=200)
    speed_m_s: Number | None = Field(None, ge=0.01, le=1500)
    field_width_m: Number | None = Field(None, ge=0.005, le=200)
    blur_mm: Number | None = Field(None, ge=0.001, le=1)
    wanted_t01_s: Number | None = Field(None, ge=1e-6, le=LONGEST_FLASH_S)
    trail_s: Number = Field(0.25, ge=1 / 250, le=60)

    @model_validator(mode="after")
    def _said(self) -> "Motion":
        if self.mover == "other" and self.speed_m_s is None:
            raise refuse("speed_missing")
        return self

    @property
    def speed(self) -> float:
        """Speed [m/s]: as said, by the height it has fallen, or by the list."""
        if self.mover == "fall":
            return float(fall_speed(self.fall_m))
        return SPEEDS[self.mover] if self.speed_m_s is None else self.speed_m_s
