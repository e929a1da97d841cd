"""Where things stand: the subject and its facing, the camera, the room, and each light's place."""

from typing import Literal

from pydantic import Field

from ..kit.values import Flag, Name, Number, Value, Whole
from ..physics.tone import LIGHT_SKIN

Surface = Literal["ceiling", "left", "right"]
Favoured = Literal["none", "left", "right"]
SubjectKind = Literal["person", "group", "animal", "object"]
FACE_SHARE = 0.93  # of a standing figure's height at which the face is, from memory


class Position(Value):
    """Where a light stands, beside its distance, and how its head is turned off the subject."""

    bearing_deg: Number = Field(0.0, ge=-180, le=180)
    height_m: Number = Field(1.9, ge=0, le=20)
    turn_deg: Number = Field(0.0, ge=-90, le=90)
    bounces_off: Surface = "ceiling"
    boom_m: Number = Field(0.0, ge=0, le=6)
    counter_m: Number | None = Field(None, ge=0.05, le=3)
    tilt_deg: Number = Field(0.0, ge=-90, le=90)
    card: Flag = False


class SubjectTone(Value):
    """A tone on the subject beside its skin: how much light it gives back, and whether as a mirror does."""

    name: Name
    reflectance: Number = Field(0.9, ge=0.01, le=1)
    mirrors: Flag = False


class Stage(Value):
    """What stands where. Bearings are seen from the subject: the camera at 0, what is to its right positive.

    facing_deg: where the face looks. favoured: which side of the face, or who in a group, matters most.
    camera_looks_deg: the camera's compass bearing, by which the sun finds its place. camera_tilt_deg: None where the
    camera is aimed at the subject.
    """

    kind: SubjectKind = "person"
    facing_deg: Number = Field(0.0, ge=-180, le=180)
    favoured: Favoured = "none"
    height_m: Number = Field(1.75, ge=0.02, le=30)
    width_m: Number = Field(0.5, ge=0.02, le=100)
    depth_m: Number = Field(0.0, ge=0, le=100)
    people: Whole = Field(1, ge=1, le=1000)
    camera_height_m: Number = Field(1.5, ge=0, le=30)
    camera_tilt_deg: Number | None = Field(None, ge=-80, le=80)
    camera_looks_deg: Number | None = Field(None, ge=0, le=360)
    wind_m_s: Number | None = Field(None, ge=0, le=60)
    left_wall_m: Number | None = Field(None, ge=0.2, le=100)
    right_wall_m: Number | None = Field(None, ge=0.2, le=100)
    back_wall_m: Number | None = Field(None, ge=0.2, le=200)
    ceiling_m: Number | None = Field(None, ge=1, le=30)
    skin: Number = Field(LIGHT_SKIN, ge=0.02, le=0.9)
    tones: tuple[SubjectTone, ...] = Field((), max_length=8)

    def wall_m(self, surface: Surface) -> float | None:
        """How far a surface is from the subject, or the ceiling from the ground [m]; None where it is not said."""
        return {"ceiling": self.ceiling_m, "left": self.left_wall_m, "right": self.right_wall_m}[surface]

    @property
    def face_m(self) -> float:
        """Height of the face, or of the middle of what has none [m]."""
        return self.height_m * (FACE_SHARE if self.kind in ("person", "group") else 0.5)
