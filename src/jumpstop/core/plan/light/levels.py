"""Levels: what each receiver gets from the ambient and every light together, at the dial; they add linearly."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ...physics.stops import add_light
from ...scene.seen import MethodKind
from .chain import NEEDS
from .jump import differs_by_receiver, pick, total
from .reach import Solved


@dataclass(frozen=True)
class Level:
    """One receiver: ambient, each light and all together [stops from correct]; -inf where a light does not reach it."""

    receiver: str
    ambient: float
    lights: tuple[float, ...]
    total: float


def by_receiver(found: Iterable[Level]) -> dict[str, Level]:
    """The levels by their receivers."""
    return {level.receiver: level for level in found}


def totals_of(found: Iterable[Level]) -> dict[str, float]:
    """What each receiver gets in all [stops from correct]."""
    return {level.receiver: level.total for level in found}


def ratio_of(found: tuple[Level, ...]) -> float:
    """Lighting ratio: what the lit side gets against the shadow side, as light."""
    total_at = totals_of(found)
    return float(np.exp2(total_at["lit"] - total_at["shadow"]))


def levels(solved: Solved, kind: MethodKind, units: tuple[int | None, ...]) -> tuple[Level, ...]:
    """Every receiver in one method; `units` names the unit of each light (None: none can be used), set at its dial.

    level[receiver] = log2(sum over lights 2^chain + 2^ambient).
    """
    at, camera = solved.kinds.index(kind), solved.method(kind).camera
    apart = total(tuple(jump for jump in solved.chain if jump.effect not in NEEDS and differs_by_receiver(jump.stops)))
    share, receivers = solved.placing.share, solved.placing.receivers
    ambient = [solved.ambient.ev(receiver) - camera.ev for receiver in receivers]
    reaching: list[list[float]] = []
    for place in range(len(receivers)):
        given: list[float] = []
        for light, unit in enumerate(units):
            if unit is None or share[light, place] == 0 or not solved.setup.lights[light].on:
                given.append(-np.inf)
                continue
            reach = solved.reach(kind, light)
            if not reach.able[unit]:  # what cannot be used gives nothing
                given.append(-np.inf)
                continue
            beside = pick(apart, (at, light, place, unit)) - pick(apart, (at, light, reach.receiver, unit))
            given.append(float(reach.flash_at_dial[unit]) + beside)
        reaching.append(given)
    totals = np.asarray(add_light(np.array(ambient), *np.array(reaching).T)).tolist()
    return tuple(Level(receiver, ambient[at], tuple(reaching[at]), totals[at]) for at, receiver in enumerate(receivers))
