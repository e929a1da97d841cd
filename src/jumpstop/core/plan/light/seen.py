"""What was seen: a reading as the flash's own level, the next dial, and a chain that counts from a reading."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ...physics import exposure, stops
from ...physics.scales import APERTURES, ISOS
from ...scene.seen import Seen


def level_seen(seen: Seen) -> float:
    """Level at the light's own receiver that was seen [stops from correct at the settings then], ambient included
    where the reading holds it.

    A meter reads f/N at ISO S where the light there is correct at f/N and S; filters on the lens take their stops.
    """
    if seen.kind != "meter":
        return seen.wanted_stops + seen.stops
    camera = seen.camera
    apertures = float(exposure.av(APERTURES.exact(seen.f_number)) - exposure.av(APERTURES.exact(camera.f_number)))
    speeds = math.log2(float(ISOS.exact(camera.iso)) / float(ISOS.exact(seen.iso)))
    return apertures + speeds - camera.nd_stops


def flash_seen(seen: Seen) -> float:
    """Level of the flash alone [stops from correct]; -inf where the reading is no more than the ambient."""
    level = level_seen(seen)
    if not seen.holds_ambient:
        return level
    return float(stops.flash_share(seen.ambient_stops, level))


def flash_sd(seen: Seen) -> float:
    """Uncertainty of the flash's own level [stops]: the reading's, over the flash's share of the light."""
    if not seen.holds_ambient:
        return seen.sd
    share = 1 - 2.0 ** (seen.ambient_stops - level_seen(seen))
    return seen.sd / max(share, 0.05)


@dataclass(frozen=True)
class NextDial:
    """What to dial next: stops below full, and by how much the flash changes [stops].

    end: where the dial does not go so far, which end it stops at; missing: stops that it then lacks (or has too many).
    """

    dial_stops: float
    change: float
    end: Literal["", "full", "lowest"]
    missing: float


def next_dial(seen: Seen, holds_key: bool, step_stops: float, range_stops: float) -> NextDial | None:
    """The next dial from what was seen; None where the reading shows no flash.

    The flash alone is brought to what it must give: for a key what the ambient leaves of the level wanted, for the
    others (`holds_key` false) the level wanted itself.
    """
    flash = flash_seen(seen)
    wanted = float(stops.flash_share(seen.ambient_stops, seen.wanted_stops)) if holds_key else seen.wanted_stops
    if math.isinf(flash):
        return None
    change = wanted - flash if not math.isinf(wanted) else -math.inf
    exact = seen.dial_stops - change
    if exact > range_stops + step_stops / 2:
        return NextDial(range_stops, change, "lowest", exact - range_stops)
    if exact < -step_stops / 2:
        return NextDial(0.0, change, "full", -exact)
    return NextDial(float(np.clip(round(exact / step_stops) * step_stops, 0.0, range_stops)), change, "", 0.0)


def meter_wants(f_number: float, nd_stops: float, level: float) -> float:
    """The exact f-number that a hand meter at the subject, set to the camera's ISO, must show for a level [stops].

    f/8 behind 3 stops of ND wants f/22 at the face.
    """
    return APERTURES.moved(f_number, nd_stops + level)
