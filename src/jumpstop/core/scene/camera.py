"""Camera settings as marked on the camera, with the neutral density in front."""

from dataclasses import dataclass
from functools import cached_property

from ..physics import scales


@dataclass(frozen=True)
class CameraSettings:
    """Aperture, time [s] and ISO as marked, and the ND on the lens: its stops and its filters by name."""

    f_number: float
    shutter_s: float
    iso: float
    nd_stops: float = 0.0
    nd_names: tuple[str, ...] = ()

    @cached_property
    def ev(self) -> float:
        """The light value (EV at ISO 100) these settings render correctly."""
        return float(scales.marked_ev100(self.f_number, self.shutter_s, self.iso)) + self.nd_stops
