"""Camera settings in words."""

from dataclasses import dataclass

from ..core.scene.camera import CameraSettings
from .figures import f_number, iso, kept, nd, shutter


@dataclass(slots=True)
class CameraText:
    """Camera settings as the camera shows them."""

    aperture: str
    shutter: str
    iso: str
    nd: str


@kept(256)
def camera_text(camera: CameraSettings) -> CameraText:
    """Camera settings as the camera shows them."""
    return CameraText(
        aperture=f_number(camera.f_number),
        shutter=shutter(camera.shutter_s),
        iso=iso(camera.iso),
        nd=f"ND {nd(camera.nd_stops)}" if camera.nd_stops else "",
    )


def settings_line(camera: CameraSettings) -> str:
    """Camera settings in a line."""
    said = camera_text(camera)
    return " · ".join(part for part in (said.aperture, said.shutter, said.iso, said.nd) if part)
