"""Shutter and pulse: what of a flash gets through.

Row y of the frame (0..1) is open from y T_c to y T_c + t, T_c the curtains' travel. Its exposure is the integral of
the flash over that time. Closed forms first; `rows` is the integral itself, for any pulse.

Times here are as marked on the camera: a curtain's travel is only known as a marked sync speed, and the ratio of two
marked times is as near to the truth as that of two exact ones (1/250 to 1/500 is 2 either way).
"""

import numpy as np

from .values import Figure


def hss_loss(shutter_s: Figure, travel_s: Figure) -> Figure:
    """Stops lost when the light is spread over the whole travel: log2((T_c + t) / t); without the unit's own extra.

    Against a full-power pop through an open frame; 1/250 body: 1/500 1.58, 1/1000 2.32, 1/8000 5.04.
    """
    return np.log2((np.asarray(travel_s) + shutter_s) / shutter_s)


def lit_fraction(shutter_s: Figure, travel_s: Figure) -> Figure:
    """Share of the frame that a short pop reaches past sync: t / T_c, at most all of it."""
    return np.minimum(1.0, np.asarray(shutter_s) / travel_s)
