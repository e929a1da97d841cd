"""What cures a light that is too bright even at its lowest setting."""

from dataclasses import dataclass

from ...physics.scales import APERTURES, at_least
from ...scene.light import Light
from ...scene.stage import Stage
from .enough import farther_m

ABOUT = 0.05  # of a stop: less than this too much is nothing to cure


@dataclass(frozen=True)
class Cure:
    """Single changes that each take the excess away: an aperture to stop down to (0: none), and a distance [m]."""

    f_number: float
    distance_m: float


def cure_of(excess_stops: float, f_number: float, light: Light, stage: Stage, smallest: float) -> Cure:
    """Changes for a light too bright by so much, from the aperture [f-number] and distance it is used at;
    smallest: the aperture that the lens closes to."""
    wanted = APERTURES.moved(f_number, excess_stops - ABOUT)
    closed = APERTURES.marked(wanted, "third", "up")
    reachable = at_least(float(APERTURES.exact(smallest)), wanted)
    return Cure(closed if reachable else 0.0, farther_m(light, stage, excess_stops))
