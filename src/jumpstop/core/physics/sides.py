"""Which side of a face a light reaches, by its bearing from the axis of the face."""

import math

TURN_DEG = 45.0  # up to this bearing the nearer side has all of a light; from memory, as are both shares
THING_TURN_DEG = 90.0  # the same of a thing, whose sides are not turned to the front as cheeks are; from memory
EDGE_DEG = 90.0  # from here on a light is an edge light


def wrapped_deg(bearing_deg: float) -> float:
    """The same bearing from -180 to 180 [degrees]."""
    return (bearing_deg + 180.0) % 360.0 - 180.0


def near_share(bearing_deg: float, turn_deg: float = TURN_DEG) -> float:
    """Share of a light that the nearer side gets: of a face 1 up to 45 degrees, then cos(b - 45), 0 from 135; of what
    turns its side by more, so much later."""
    off = abs(wrapped_deg(bearing_deg)) - turn_deg
    return 1.0 if off <= 0 else math.cos(math.radians(off)) if off < 90 - 1e-9 else 0.0


def far_share(bearing_deg: float) -> float:
    """Share of a light that the farther side of the face gets: tan(45 - b), 0 from 45 degrees on."""
    return math.tan(math.radians(max(0.0, TURN_DEG - abs(wrapped_deg(bearing_deg)))))


def edge_share(bearing_deg: float) -> float:
    """Share of a light that the edge of a figure gets: all of one from the side or behind, none of one in front."""
    return 1.0 if abs(wrapped_deg(bearing_deg)) >= EDGE_DEG - 1e-9 else 0.0
