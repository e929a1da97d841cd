"""What a landing is made of: how much of each thing's doubt it holds, and what is its own."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ...kit.learned import Key, Learned
from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ..light.jump import JumpAt
from ..light.taught import MOVED, SAME_SD


@dataclass(frozen=True)
class Load:
    """The things that a sum of jumps holds, each with how much of it and the sd it has without readings [stops]; own:
    the sd of what belongs to no thing."""

    of: Mapping[Key, tuple[float, float]]
    own: float


def load_of(jumps: Sequence[JumpAt], table: UnitTable, unit: int, ambient: str) -> Load:
    """What a chain of one unit holds. ambient: names the ambient that it meets."""
    own, found = 0.0, dict[Key, tuple[float, float]]()
    taught = table.learned.keys if table.learned else ()
    for jump in jumps:
        sd, at = jump.sd, jump.thing
        if not sd:
            continue
        if at >= 0 and table.learned:
            prior = float(table.learned.prior_sd[at])
            much = sd / float(table.learned.sd[at])
            found[taught[at]] = (found.get(taught[at], (0.0, prior))[0] + much, prior)
            continue
        key = _key(jump, sd, table, unit, ambient)
        if key is None:
            own = math.hypot(own, sd)
        else:
            much, prior = found.get(key, (0.0, sd))
            found[key] = (much + sd / prior, prior)
    return Load(found, own)


def matrix_of(loads: Sequence[Mapping[Key, tuple[float, float]]], keys: Sequence[Key], prior_sd: Floats) -> Floats:
    """How much of each thing is in each load, of shape (loads, things), by the things' own sd without readings."""
    out, places = np.zeros((len(loads), len(keys))), {key: at for at, key in enumerate(keys)}
    for line, of in enumerate(loads):
        for key, (much, sd) in of.items():
            out[line, places[key]] = much * sd / prior_sd[places[key]]
    return out


def _key(jump: JumpAt, sd: float, table: UnitTable, unit: int, ambient: str) -> Key | None:
    of = jump.of
    if of is None or of.kind == "reading":
        return None
    if of.kind == "ambient":
        return ("ambient", ambient, of.part)
    if of.kind != "unit":
        return (of.kind, of.id, of.part)
    part = of.part
    if part == "rating" and sd > table.quoted_sd[unit] + SAME_SD:
        part = MOVED
    elif part == "zoom":
        part = f"zoom {jump['zoom_mm']:.0f}"
    return ("unit", table.ids[unit], part)


def covariance_of(keys: Sequence[Key], prior_sd: Floats) -> Floats:
    """Covariance of things without readings, of shape (things, things).

    All are independent, but for a unit's light at a coverage that it is quoted at and at one that it is moved to: the
    second has all the doubt of the first.
    """
    out = np.diag(np.square(prior_sd))
    places = {key: at for at, key in enumerate(keys)}
    for (kind, unit, part), at in places.items():
        quoted = places.get((kind, unit, "rating"))
        if kind == "unit" and part == MOVED and quoted is not None:
            out[at, quoted] = out[quoted, at] = prior_sd[quoted] ** 2
    return out


def known_of(keys: Sequence[Key], prior_sd: Floats, table: UnitTable) -> tuple[Floats, Floats]:
    """(mean, covariance) of things with what readings have taught of them, where they have."""
    mean, covariance = np.zeros(len(keys)), covariance_of(keys, prior_sd)
    learned: Learned | None = table.learned
    if learned is None:
        return mean, covariance
    here = [at for at, key in enumerate(keys) if key in learned.places]
    there = [learned.places[keys[at]] for at in here]
    mean[here] = learned.mean[there]
    covariance[here, :] = covariance[:, here] = 0.0
    covariance[np.ix_(here, here)] = learned.covariance[np.ix_(there, there)]
    return mean, covariance
