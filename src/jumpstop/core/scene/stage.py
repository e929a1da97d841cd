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

    bearing_deg: Number = Field(0.0, ge=-180, le=180, title="Bearing (degrees; camera 0, its right positive)")
    height_m: Number = Field(1.9, ge=0, le=20, title="Light's height (m)")
    turn_deg: Number = Field(0.0, ge=-90, le=90, title="Head turned off the subject (degrees)")
    bounces_off: Surface = Field("ceiling", title="Bounced off")
    boom_m: Number = Field(0.0, ge=0, le=6, title="Boom arm (m)")
    counter_m: Number | None = Field(None, ge=0.05, le=3, title="Boom's short arm (m)")
    tilt_deg: Number = Field(0.0, ge=-90, le=90, title="Head tilted off the subject (degrees, up is positive)")
    card: Flag = Field(False, title="Bounce card")


class SubjectTone(Value):
    """A tone on the subject beside its skin: how much light it gives back, and whether as a mirror does."""

    name: Name
    reflectance: Number = Field(0.9, ge=0.01, le=1, title="Reflectance (share)")
    mirrors: Flag = Field(False, title="It mirrors")


class Stage(Value):
    """What stands where. Bearings are seen from the subject: the camera at 0, what is to its right positive.

    facing_deg: where the face looks. favoured: which side of the face, or who in a group, matters most.
    camera_looks_deg: the camera's compass bearing, by which the sun finds its place. camera_tilt_deg: None where the
    camera is aimed at the subject.
    """

    kind: SubjectKind = Field("person", title="Subject")
    facing_deg: Number = Field(0.0, ge=-180, le=180, title="Facing (degrees; to the camera 0)")
    favoured: Favoured = Field("none", title="Favoured side or person")
    height_m: Number = Field(1.75, ge=0.02, le=30, title="Subject's height (m)")
    width_m: Number = Field(0.5, ge=0.02, le=100, title="Subject's or group's width (m)")
    depth_m: Number = Field(0.0, ge=0, le=100, title="Depth of the group (m)")
    people: Whole = Field(1, ge=1, le=1000, title="People")
    camera_height_m: Number = Field(1.5, ge=0, le=30, title="Camera height (m)")
    camera_tilt_deg: Number | None = Field(None, ge=-80, le=80, title="Camera tilted (degrees, up is positive)")
    camera_looks_deg: Number | None = Field(None, ge=0, le=360, title="Camera looks to (compass degrees)")
    wind_m_s: Number | None = Field(None, ge=0, le=60, title="Wind (m/s)")
    left_wall_m: Number | None = Field(None, ge=0.2, le=100, title="Wall at the camera's left (m)")
    right_wall_m: Number | None = Field(None, ge=0.2, le=100, title="Wall at the camera's right (m)")
    back_wall_m: Number | None = Field(None, ge=0.2, le=200, title="Wall behind the camera, from the subject (m)")
    ceiling_m: Number | None = Field(None, ge=1, le=30, title="Ceiling height (m)")
    skin: Number = Field(LIGHT_SKIN, ge=0.02, le=0.9, title="Skin's reflectance (share)")
    tones: tuple[SubjectTone, ...] = Field((), max_length=8, title="Other tones on the subject")

    def wall_m(self, surface: Surface) -> float | None:
        """How far a surface is from the subject, or the ceiling from the ground [m]; None where it is not said."""
        return {"ceiling": self.ceiling_m, "left": self.left_wall_m, "right": self.right_wall_m}[surface]

    @property
    def face_m(self) -> float:
        """Height of the face, or of the middle of what has none [m]."""
        return self.height_m * (FACE_SHARE if self.kind in ("person", "group") else 0.5)
