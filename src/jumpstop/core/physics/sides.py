"""Which side of a face a light reaches, by its bearing from the axis of the face. Shares are from memory."""

import numpy as np

from .arrays import Figure

TURN_DEG = 45.0  # up to this bearing the nearer side has all of a light; from memory, as are both shares
THING_TURN_DEG = 90.0  # the same of a thing, whose sides are not turned to the front as cheeks are; from memory
EDGE_DEG = 90.0  # from here on a light is an edge light


def wrapped_deg(bearing_deg: Figure) -> Figure:
    """The same bearing from -180 to below 180.

    Parameters
    ----------
    bearing_deg : [degrees], any shape

    Returns
    -------
    [degrees], of the same shape.

    Examples
    --------
    >>> wrapped_deg(405.0)
    45.0
    """
    return (bearing_deg + 180.0) % 360.0 - 180.0


def near_share(bearing_deg: Figure, turn_deg: Figure = TURN_DEG) -> Figure:
    """What the nearer side has of a light: of a face all up to 45 degrees, then cos(b - 45), nothing from 135; of what
    turns its side by more, so much later.

    Parameters
    ----------
    bearing_deg : of the light from the axis of the face [degrees]
    turn_deg : how far the side is turned [degrees]; shapes that broadcast

    Returns
    -------
    Share from 0 to 1, of the broadcast shape.

    Examples
    --------
    >>> round(float(near_share(75.0)), 3)
    0.866
    """
    off = np.abs(wrapped_deg(np.asarray(bearing_deg, dtype=float))) - turn_deg
    return np.where(off < 90 - 1e-9, np.cos(np.radians(np.clip(off, 0.0, 90.0))), 0.0)


def far_share(bearing_deg: Figure) -> Figure:
    """What the farther side of the face has of a light: tan(45 - b), nothing from 45 degrees on.

    Parameters
    ----------
    bearing_deg : of the light from the axis of the face [degrees], any shape

    Returns
    -------
    Share from 0 to 1, of the same shape.

    Examples
    --------
    >>> round(float(far_share(20.0)), 3)
    0.466
    """
    return np.tan(np.radians(np.maximum(0.0, TURN_DEG - np.abs(wrapped_deg(np.asarray(bearing_deg, dtype=float))))))


def edge_share(bearing_deg: Figure) -> Figure:
    """What the edge of a figure has of a light: all of one from the side or behind, nothing of one in front.

    Parameters
    ----------
    bearing_deg : of the light from the axis of the face [degrees], any shape

    Returns
    -------
    0 or 1, of the same shape.

    Examples
    --------
    >>> float(edge_share(-135.0))
    1.0
    """
    return np.where(np.abs(wrapped_deg(np.asarray(bearing_deg, dtype=float))) >= EDGE_DEG - 1e-9, 1.0, 0.0)
