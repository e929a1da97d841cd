"""Depth of field and background blur. Source: Ray, Applied Photographic Optics."""

import math
from dataclasses import dataclass

from pydantic import Field, model_validator

from .values import Value

COC_MM = 0.03  # circle of confusion on 36 x 24 mm; other frames by their diagonal
WORTH, FAINT = 0.01, 0.004  # background disc as a share of the frame's long side; common practice, no source


class Blur(Value):
    """Where subject and background stand before which lens."""

    focal_mm: float = Field(85, ge=4, le=2000, title="Focal length (mm)")
    subject_m: float = Field(2.5, ge=0.1, le=500, title="Subject distance (m)")
    background_m: float = Field(10, ge=0.1, le=100_000, title="Background distance (m)")
    wanted_share: float | None = Field(None, ge=0.0005, le=0.3, title="Blur wanted (share of the frame)")

    @model_validator(mode="after")
    def _behind(self) -> "Blur":
        if self.background_m <= self.subject_m:
            raise ValueError(
                f"The background ({self.background_m:g} m) must lie behind the subject ({self.subject_m:g} m)."
            )
        if self.subject_m * 1000 <= self.focal_mm * 1.5:
            raise ValueError(f"A lens of {self.focal_mm:g} mm does not focus as near as {self.subject_m:g} m.")
        return self


def coc_mm(diagonal_mm: float) -> float:
    """Circle of confusion [mm] of a frame of this diagonal: 0.03 mm on 36 x 24."""
    return COC_MM * diagonal_mm / math.hypot(36, 24)


def hyperfocal_m(focal_mm: float, f_number: float, coc: float = COC_MM) -> float:
    """Hyperfocal distance [m]: f^2 / (N c) + f. 35 mm at f/4: 10.24 m."""
    return (focal_mm**2 / (f_number * coc) + focal_mm) / 1000


def depth_of_field_m(focal_mm: float, f_number: float, subject_m: float, coc: float = COC_MM) -> tuple[float, float]:
    """(near, far) limits of what is sharp [m]; far is infinite from the hyperfocal distance on."""
    hyperfocal, focal = hyperfocal_m(focal_mm, f_number, coc), focal_mm / 1000
    near = subject_m * (hyperfocal - focal) / (hyperfocal + subject_m - 2 * focal)
    if subject_m >= hyperfocal:
        return near, math.inf
    return near, subject_m * (hyperfocal - focal) / (hyperfocal - subject_m)


def blur_disc_mm(focal_mm: float, f_number: float, subject_m: float, background_m: float) -> float:
    """Diameter [mm on the sensor] of a background point: |b - s| / b x f^2 / (N (s - f))."""
    subject_mm = subject_m * 1000
    return abs(background_m - subject_m) / background_m * focal_mm**2 / (f_number * (subject_mm - focal_mm))


def f_number_for_blur(blur: Blur, frame_width_mm: float) -> float:
    """The f-number at which the background disc is the share of the frame that is wanted."""
    return blur_disc_mm(blur.focal_mm, 1.0, blur.subject_m, blur.background_m) / (
        (blur.wanted_share or WORTH) * frame_width_mm
    )


@dataclass(frozen=True)
class BlurVerdict:
    """What an aperture does to the background: limits of sharpness, the disc, and whether it is worth its price."""

    near_m: float
    far_m: float
    disc_mm: float
    share: float  # of the frame's long side
    worth: bool
    words: str


def blur_verdict(blur: Blur, f_number: float, frame_width_mm: float, diagonal_mm: float) -> BlurVerdict:
    """The plain verdict on a wide aperture."""
    near, far = depth_of_field_m(blur.focal_mm, f_number, blur.subject_m, coc_mm(diagonal_mm))
    disc = blur_disc_mm(blur.focal_mm, f_number, blur.subject_m, blur.background_m)
    share = disc / frame_width_mm
    if share >= WORTH:
        words = "worth the trouble: the background melts"
    elif share >= FAINT:
        words = "a little: the background softens, no more"
    else:
        words = "not worth it: no blur to speak of. Stop down and stay at sync"
    return BlurVerdict(near, far, disc, share, share >= FAINT, words)
