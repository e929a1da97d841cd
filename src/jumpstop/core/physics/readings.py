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
    """What is known after readings: of the things, and of what each place shares.

    mean (things,), covariance (things, things); shared, shared_variance (places,). softened: how the places hang
    together with the things; the covariance of a place and a thing is -sum of `softened` times that of the things.
    """

    mean: Floats
    covariance: Floats
    shared: Floats
    shared_variance: Floats
    softened: "Sparse"


class Sparse(NamedTuple):
    """Rows that hold a few things each. things, much (rows, most): which, and how much of each (0: none more)."""

    things: Whole
    much: Floats

    def summed(self, one_a_row: Floats, count: int) -> Floats:
        """All rows together, each so many times; shape (things,)."""
        return _counted(self.things, self.much * one_a_row[:, None], count)

    def outer(self, other: Floats, count: int) -> Floats:
        """Sum of each row's outer product with other figures of the same things; shape (things, things)."""
        pairs = self.things[:, :, None] * count + self.things[:, None, :]
        return _counted(pairs, self.much[:, :, None] * other[:, None, :], count * count).reshape(count, count)


def _counted(places: Whole, figures: Floats, count: int) -> Floats:
    """The sum of the figures at each place; shape (count,)."""
    return np.bincount(places.ravel(), figures.ravel(), count).astype(np.float64)


def precision_of(covariance: Floats) -> Floats:
    """The inverse of what is known before readings. Most things are independent of all others.

    Parameters
    ----------
    covariance : of shape (things, things)

    Returns
    -------
    Precision, of the same shape.

    Examples
    --------
    >>> precision_of(np.diag([4.0, 1.0])).round(3).tolist()
    [[0.25, 0.0], [0.0, 1.0]]
    """
    own = np.diag(covariance) + JITTER
    out = np.diag(1 / own)
    tied = np.flatnonzero(np.count_nonzero(covariance, axis=1) > (np.diag(covariance) != 0))
    if len(tied):
        block = np.ix_(tied, tied)
        out[block] = np.linalg.inv(covariance[block] + JITTER * np.eye(len(tied)))
    return out


def known_after(before: Floats, readings: Readings, place_variance: Floats) -> Known:
    """What readings come to.

    Parameters
    ----------
    before : of shape (things, things): the precision of what is known before, about zero (see `precision_of`)
    readings : what was read
    place_variance : of shape (places,): of what all readings of one place share

    Returns
    -------
    What is known of each thing, and of each place.

    References
    ----------
    Bishop, Pattern Recognition and Machine Learning, 3.3

    Examples
    --------
    >>> read = Readings(np.zeros((1, 1), int), np.ones((1, 1)), np.ones(1), np.ones(1), np.array([-1]))
    >>> known_after(np.eye(1), read, np.zeros(0)).mean.tolist()
    [0.5]
    """
    things, much, values, noise, place = readings
    count, places = len(before), len(place_variance)
    weighed = Sparse(things, much / noise[:, None])
    precision = before + weighed.outer(much, count)
    told = weighed.summed(values, count)
    there = np.flatnonzero(place >= 0)
    own = place[there]
    stiff = 1 / place_variance + _counted(own, 1 / noise[there], places)
    across = _by_place(Sparse(things[there], weighed.much[there]), own, places)
    said = _counted(own, values[there] / noise[there], places)
    softened = Sparse(across.things, across.much / stiff[:, None])
    after = inverse_of(precision - across.outer(softened.much, count))
    mean = after @ (told - softened.summed(said, count))
    between = after[across.things[:, :, None], across.things[:, None, :]]
    variance = 1 / stiff + np.einsum("PI,PIJ,PJ->P", softened.much, between, softened.much)
    shared = (said - np.sum(across.much * mean[across.things], axis=1)) / stiff
    return Known(mean, after, shared, variance, softened)


def _by_place(rows: Sparse, place: Whole, places: int) -> Sparse:
    """The rows of each place summed; shape (places, most)."""
    kept = rows.much.ravel() != 0
    at = (place[:, None] * 2**32 + rows.things).ravel()[kept]
    pairs, which = np.unique(at, return_inverse=True)
    much = _counted(which, rows.much.ravel()[kept], len(pairs))
    own, thing = pairs // 2**32, pairs % 2**32
    first = np.searchsorted(own, np.arange(places))
    column = np.arange(len(pairs)) - first[own]
    most = int(column.max(initial=-1)) + 1
    out = Sparse(np.zeros((places, most), dtype=np.int64), np.zeros((places, most)))
    out.things[own, column], out.much[own, column] = thing, much
    return out


def inverse_of(precision: Floats) -> Floats:
    """The inverse of a precision, by its Schur complement: things that hang together with none but a few others, as the
    light of a day with the kit that met it, are summed out first.

    Parameters
    ----------
    precision : of shape (things, things)

    Returns
    -------
    Covariance, of the same shape.

    Examples
    --------
    >>> inverse_of(np.diag([4.0, 2.0])).tolist()
    [[0.25, 0.0], [0.0, 0.5]]
    """
    alone = _independent(precision)
    rest = np.flatnonzero(~np.isin(np.arange(len(precision)), alone))
    own = 1 / np.diag(precision)[alone]
    across = precision[np.ix_(alone, rest)]
    softened = across * own[:, None]
    inner = np.linalg.inv(precision[np.ix_(rest, rest)] - across.T @ softened)
    inner = (inner + inner.T) / 2
    beside = -softened @ inner
    out = np.empty_like(precision)
    out[np.ix_(rest, rest)] = inner
    out[np.ix_(alone, rest)] = beside
    out[np.ix_(rest, alone)] = beside.T
    out[np.ix_(alone, alone)] = -beside @ softened.T + np.diag(own)
    return out


def _independent(precision: Floats) -> Whole:
    """Things of which no two hang together, those with the fewest others first."""
    hangs = precision != 0
    np.fill_diagonal(hangs, val=False)
    barred = np.zeros(len(precision), dtype=bool)
    taken = list[int]()
    for at in np.argsort(np.count_nonzero(hangs, axis=1), kind="stable").tolist():
        if not barred[at]:
            taken.append(at)
            barred |= hangs[at]
    return np.array(taken, dtype=np.int64)


def left_out(known: Known, readings: Readings) -> tuple[Floats, Floats]:
    """How far each reading lies from what all the others say of it. In closed form, by each reading's leverage: its
    share of what is known of itself.

    Parameters
    ----------
    known : after all of them
    readings : the same

    Returns
    -------
    (how far, the sd of that), each of shape (readings,).

    Examples
    --------
    >>> read = Readings(np.zeros((1, 1), int), np.ones((1, 1)), np.ones(1), np.ones(1), np.array([-1]))
    >>> off, sd = left_out(known_after(np.eye(1), read, np.zeros(0)), read)
    >>> float(off[0]), round(float(sd[0]) ** 2, 6)
    (1.0, 2.0)
    """
    things, much, values, noise, place = readings
    between = known.covariance[things[:, :, None], things[:, None, :]]
    spread = np.sum((between @ much[:, :, None])[:, :, 0] * much, axis=1)
    fitted = np.sum(known.mean[things] * much, axis=1)
    there = np.flatnonzero(place >= 0)
    own = place[there]
    of_place = known.softened.things[own], known.softened.much[own]
    beside = known.covariance[of_place[0][:, :, None], things[there][:, None, :]]
    tied = -np.einsum("PI,PIJ,PJ->P", of_place[1], beside, much[there])
    spread[there] += known.shared_variance[own] + 2 * tied
    fitted[there] += known.shared[own]
    left = np.maximum(1 - spread / noise, LEAST_LEFT)
    return (values - fitted) / left, np.sqrt(noise / left)
