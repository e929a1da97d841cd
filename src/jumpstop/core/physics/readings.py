"""Many readings of a few things each: what they come to, and what each says against all the others.

The linear-Gaussian update of `gaussian`, for readings that are sparse: each holds a few of all things, and shares one
more with the others of its place. Places are summed out first, so that the cost grows linearly with the readings.

Sources: Bishop, Pattern Recognition and Machine Learning, 3.3 (linear-Gaussian models) and 2.3.1 (partitioned
precision); Cook and Weisberg 1982, Residuals and Influence in Regression (leverage, leaving one out).
"""

from typing import NamedTuple

import numpy as np

from .arrays import Floats, Whole
from .gaussian import LEAST_LEFT

JITTER = 1e-12  # added to each variance, so that what is known exactly does not divide by zero


class Readings(NamedTuple):
    """Readings, each a sum of things, of what its place shares, and noise.

    things, much (readings, most): which things a reading holds, and how much of each (0: none more). Of each reading:
    values [stops], noise (variance), and place: which one it was taken in, -1 where it shares nothing.
    """

    things: Whole
    much: Floats
    values: Floats
    noise: Floats
    place: Whole

    def only(self, which: Whole) -> "Readings":
        """Some of them."""
        things, much, values, noise, place = self
        return Readings(things[which], much[which], values[which], noise[which], place[which])


class Known(NamedTuple):
    """What is known after readings: of the things, of what each place shares, and of both together.

    mean (things,), covariance (things, things); shared, shared_variance (places,); tied (places, things): covariance.
    """

    mean: Floats
    covariance: Floats
    shared: Floats
    shared_variance: Floats
    tied: Floats


def precision_of(covariance: Floats) -> Floats:
    """The inverse of what is known before readings; same shape."""
    return np.asarray(np.linalg.inv(covariance + JITTER * np.eye(len(covariance))))


def known_after(before: Floats, readings: Readings, place_variance: Floats) -> Known:
    """What readings come to. before (things, things): the precision of what is known before, about zero (see
    `precision_of`). place_variance (places,)."""
    things, much, values, noise, place = readings
    count, places = len(before), len(place_variance)
    weighed = much / noise[:, None]
    pairs = things[:, :, None] * count + things[:, None, :]
    held = np.bincount(pairs.ravel(), (weighed[:, :, None] * much[:, None, :]).ravel(), count * count)
    precision = before + held.reshape(count, count)
    told = np.bincount(things.ravel(), (weighed * values[:, None]).ravel(), count)
    there = np.flatnonzero(place >= 0)
    own = place[there]
    stiff = 1 / place_variance + np.bincount(own, 1 / noise[there], places)
    at = own[:, None] * count + things[there]
    across = np.bincount(at.ravel(), weighed[there].ravel(), places * count).reshape(places, count)
    said = np.bincount(own, values[there] / noise[there], places)
    softened = across / stiff[:, None]
    after = np.linalg.inv(precision - across.T @ softened)
    after = (after + after.T) / 2
    mean = after @ (told - softened.T @ said)
    tied = -softened @ after
    variance = 1 / stiff - np.sum(tied * softened, axis=1)
    return Known(mean, after, (said - across @ mean) / stiff, variance, tied)


def left_out(known: Known, readings: Readings) -> tuple[Floats, Floats]:
    """(how far each reading lies from what all the others say of it, the sd of that), each of shape (readings,).

    known: after all of them. In closed form, by each reading's leverage: its share of what is known of itself.
    """
    things, much, values, noise, place = readings
    between = known.covariance[things[:, :, None], things[:, None, :]]
    spread = np.sum((between @ much[:, :, None])[:, :, 0] * much, axis=1)
    fitted = np.sum(known.mean[things] * much, axis=1)
    there = np.flatnonzero(place >= 0)
    own = place[there]
    spread[there] += known.shared_variance[own] + 2 * np.sum(
        known.tied[own[:, None], things[there]] * much[there], axis=1
    )
    fitted[there] += known.shared[own]
    left = np.maximum(1 - spread / noise, LEAST_LEFT)
    return (values - fitted) / left, np.sqrt(noise / left)
