"""Learning from readings: the linear-Gaussian update, and how often a verdict is wrong now and after one more reading.

Sources: Gelman et al., Bayesian Data Analysis; Bishop, Pattern Recognition and Machine Learning, 3.3 (linear-Gaussian
models); Drezner and Wesolowsky 1990 (bivariate normal probability by quadrature over the correlation).
"""

from typing import NamedTuple

import numpy as np

from .arrays import Figure, Floats
from .stops import p_reach

LEAST_SD = 1e-9  # no reading is surer than this
LEAST_LEFT = 1e-9  # of a reading's variance, that the others leave it
NODES, WEIGHTS = np.polynomial.legendre.leggauss(48)


class Posterior(NamedTuple):
    """What is known after readings: mean, of shape (things,), covariance, of shape (things, things)."""

    mean: Floats
    covariance: Floats


def update(mean: Floats, covariance: Floats, rows: Floats, values: Floats, noise: Floats) -> Posterior:
    """The posterior after readings, each a sum of things and noise of its own. The cost grows with the readings where
    they are more than the things, else with the things.

    Parameters
    ----------
    mean : of shape (things,)
    covariance : of shape (things, things): what is known before
    rows : of shape (readings, things): how much of each thing is in a reading
    values : of shape (readings,)
    noise : of shape (readings,): variances

    Returns
    -------
    What is known after them.

    References
    ----------
    Bishop, Pattern Recognition and Machine Learning, 3.3

    Examples
    --------
    >>> after = update(np.zeros(1), np.eye(1), np.ones((1, 1)), np.ones(1), np.ones(1))
    >>> after.mean.tolist(), after.covariance.tolist()
    ([0.5], [[0.5]])
    """
    if len(rows) <= len(mean):
        spread = rows @ covariance
        gain = np.linalg.solve(spread @ rows.T + np.diag(noise), spread).T
        after = covariance - gain @ spread
        return Posterior(mean + gain @ (values - rows @ mean), (after + after.T) / 2)
    weighed = rows.T / noise
    found = np.linalg.inv(np.linalg.inv(covariance) + weighed @ rows)
    return Posterior(mean + found @ (weighed @ (values - rows @ mean)), np.asarray(found + found.T) / 2)


def root_of(covariance: Floats) -> Floats:
    """A square root of a covariance, which may be singular: root @ root.T gives it back.

    Parameters
    ----------
    covariance : of shape (things, things)

    Returns
    -------
    Of the same shape.

    Examples
    --------
    >>> root = root_of(np.array([[4.0, 0], [0, 0]]))
    >>> (root @ root.T).tolist()
    [[4.0, 0.0], [0.0, 0.0]]
    """
    if not len(covariance):
        return covariance
    sizes, axes = np.linalg.eigh(covariance)
    return np.asarray(axes * np.sqrt(np.maximum(sizes, 0.0)))


def wrong_chance(mean: Figure, sd: Figure) -> Floats:
    """Chance that the truth lies on the other side of zero than the mean: Phi(-|mean| / sd).

    Parameters
    ----------
    mean, sd : of it; shapes that broadcast

    Returns
    -------
    0 to 0.5, of the broadcast shape.

    Examples
    --------
    >>> float(wrong_chance(0.0, 1.0))
    0.5
    """
    return _below(-np.abs(mean) / np.maximum(sd, LEAST_SD))


def expected_wrong(mean: Floats, sd: Floats, sd_after: Floats) -> Floats:
    """What `wrong_chance` is expected to be after a reading. The mean after it is drawn from N(mean, sd² -
    sd_after²); mean
    after and truth are then two normals of correlation rho = sqrt(1 - (sd_after / sd)²), and the verdict is wrong where
    they lie on different sides of zero.

    Parameters
    ----------
    mean, sd : of it now
    sd_after : what the reading leaves of the sd; shapes that broadcast

    Returns
    -------
    0 to 1, of the broadcast shape.

    References
    ----------
    Drezner and Wesolowsky 1990

    Examples
    --------
    >>> float(expected_wrong(np.array(0.0), np.array(1.0), np.array(1.0)))
    0.5
    """
    sd = np.maximum(sd, LEAST_SD)
    rho = np.sqrt(np.clip(1 - np.square(sd_after / sd), 0.0, 1.0))
    learned = rho * sd  # sd of the mean after the reading
    z_truth, z_mean = mean / sd, mean / np.maximum(learned, LEAST_SD)
    both = _both_below(-z_mean, -z_truth, rho)
    wrong = _below(-z_truth) + _below(-z_mean) - 2 * both
    return np.where(rho < LEAST_RHO, wrong_chance(mean, sd), np.clip(wrong, 0.0, 1.0))


LEAST_RHO = 1e-4  # a correlation smaller than this is none; a matter of computing


def _both_below(h: Floats, k: Floats, rho: Floats) -> Floats:
    """P(X < h and Y < k) of two standard normals of correlation rho >= 0."""
    half = np.arcsin(np.minimum(rho, 1 - 1e-12)) / 2
    angle = half[..., None] * (NODES + 1)
    h, k = np.clip(h, -40, 40)[..., None], np.clip(k, -40, 40)[..., None]
    inside = np.exp(-(h * h + k * k - 2 * h * k * np.sin(angle)) / (2 * np.square(np.cos(angle))))
    product = _below(h[..., 0]) * _below(k[..., 0])
    return np.asarray(product + half * np.sum(WEIGHTS * inside, axis=-1) / (2 * np.pi))


def _below(z: Figure) -> Floats:
    """Phi(z)."""
    return p_reach(np.asarray(z, dtype=float), np.ones(()))
