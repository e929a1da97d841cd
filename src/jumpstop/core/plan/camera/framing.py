"""Where things fall in the frame, and what of the subject lies in the part that the shutter leaves dark."""

import math
from dataclasses import dataclass

import numpy as np

from ...physics import placing
from ...scene.setup import Setup
from .methods import Method

USUAL_FOCAL_MM, USUAL_M = 50.0, 3.0  # a lens, and a camera's distance, where none is said
HEADROOM = 0.12  # of the frame's height over the head, common practice
WHOLE = 1.15  # a field this many times the subject's height shows all of it
TOUCHED = 0.01  # of the frame: a subject that lies in the dark by no more than this is clear of it


def camera_m(setup: Setup) -> float:
    """How far the camera is from the subject [m]; the usual where it is not said."""
    return setup.aim.lens.subject_m if setup.aim.lens else USUAL_M


def frame_mm(setup: Setup) -> tuple[float, float]:
    """Width and height of the frame [mm] as it is held."""
    across, up = setup.body.frame_width_mm, setup.body.frame_height_mm
    return (across, up) if setup.aim.orientation == "landscape" else (up, across)


def aim_m(setup: Setup) -> float:
    """The height that the camera is aimed at [m]: as it is tilted; else the middle of a subject that fits, or its head
    near the top."""
    lens, stage = setup.aim.lens, setup.stage
    if stage.camera_tilt_deg is not None:
        return float(placing.aim_at_m(stage.camera_tilt_deg, stage.camera_height_m, camera_m(setup)))
    field = frame_mm(setup)[1] / (lens.focal_mm if lens else USUAL_FOCAL_MM) * camera_m(setup)
    return stage.height_m / 2 if field >= WHOLE * stage.height_m else stage.height_m - field * (0.5 - HEADROOM)


def on_frame(setup: Setup, x: float, y: float, z: float) -> tuple[float, float] | None:
    """Where a point of the stage falls, as shares of the frame from its left and its top; None: behind the lens."""
    lens = setup.aim.lens
    focal = lens.focal_mm if lens else USUAL_FOCAL_MM
    right, up = map(float, placing.on_frame(x, y, z, camera_m(setup), setup.stage.camera_height_m, aim_m(setup), focal))
    width, height = frame_mm(setup)
    return None if math.isnan(right) else (0.5 + right / width, 0.5 - up / height)


@dataclass(frozen=True)
class Dark:
    """What of the frame the shutter leaves dark, and whom it falls on.

    share: of the frame. edge: where it lies in the picture as held; empty where that is not known. over: share of the
    frame's height (or width) in which the subject lies in it; 0 where it misses. edge_m: where its edge falls on the
    subject's plane [m]: height for a top or bottom edge, from the middle to the camera's right for the others. clear_m:
    how far the subject must move in the frame to come clear of it [m at the subject].
    """

    share: float
    edge: str
    over: float
    edge_m: float
    clear_m: float


def dark_of(setup: Setup, method: Method) -> Dark | None:
    """The dark part of a method, against the subject as it is framed; None where the whole frame is lit."""
    if method.lit >= 1:
        return None
    dark = 1 - method.lit
    if method.dark_edge:
        return _dark_at(setup, dark, method.dark_edge)
    edges = ("top", "bottom") if setup.aim.orientation == "landscape" else ("left", "right")
    worst = max((_dark_at(setup, dark, edge) for edge in edges), key=lambda one: one.over)
    return Dark(dark, "", worst.over, worst.edge_m, worst.clear_m)


def _dark_at(setup: Setup, dark: float, edge: str) -> Dark:
    """The dark part where it lies at one edge: as a share of the frame from that edge on."""
    upright = edge in ("top", "bottom")
    places, shares = _heights(setup) if upright else _sides(setup)
    low, high = (dark, 1.0) if edge in ("top", "left") else (0.0, 1 - dark)  # what is lit, from the top or the left
    seen = np.clip(shares, 0.0, 1.0)
    first, last = float(seen.min()), float(seen.max())
    over = max(0.0, min(last, low) - first) + max(0.0, last - max(first, high))
    at = low if edge in ("top", "left") else high
    order = np.argsort(shares)
    edge_m = float(np.interp(at, shares[order], places[order]))
    metres_a_share = float(abs(places[-1] - places[0]) / max(1e-6, abs(shares[-1] - shares[0])))
    return Dark(dark, edge, over if over > TOUCHED else 0.0, edge_m, over * metres_a_share)


GRID = 25  # places on the subject that are looked at


def _heights(setup: Setup) -> tuple[np.ndarray, np.ndarray]:
    """Heights on the subject [m] from the ground to its top, and where each falls in the frame from its top."""
    heights = np.linspace(0.0, setup.stage.height_m, GRID)
    found = [on_frame(setup, 0, 0, float(one)) for one in heights]
    return heights, np.array([one[1] if one else 2.0 for one in found])


def _sides(setup: Setup) -> tuple[np.ndarray, np.ndarray]:
    """Places across the subject [m, to the camera's right], and where each falls in the frame from its left."""
    half = setup.stage.width_m / 2
    places = np.linspace(-half, half, GRID)
    found = [on_frame(setup, float(one), 0, setup.stage.face_m) for one in places]
    return places, np.array([one[0] if one else 2.0 for one in found])
