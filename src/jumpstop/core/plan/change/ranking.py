"""What changes cost, and how they are ranked: by what is to be kept, the look, the weight and money, or the time."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ...scene.seen import MethodKind
from .moves import Move

SAME = 0.02  # stops: a change that brings less than this brings nothing
LEAST_PRICE = 0.3  # so that what costs nothing is not ranked by nothing
ENOUGH = -0.05  # stops: this little short is enough
Keep = Literal["look", "light", "quick"]
KEEPS: dict[Keep, tuple[float, float, float]] = {"look": (3, 1, 1), "light": (1, 3, 1), "quick": (1, 1, 3)}
"""How much a change of the look, what it weighs and costs, and the work it makes count, by what is to be kept."""

# The work a change makes, where letting go of the dial is 0 and moving a stand 1. From memory.
WORK: dict[str, float] = {
    "iso_up": 0.1, "iso_down": 0.1, "iso_and_shutter": 0.2, "wider": 0.1, "stop_down": 0.1, "background_up": 0.1,
    "background_down": 0.1, "zoom": 0.3, "tick_on": 0.3, "tick_off": 0.3,
    "straight": 0.3, "method": 0.6, "nd_on": 0.6, "layer_off": 0.6,
    "layer_on": 0.6, "layers_off": 0.8, "gel_off": 0.4, "closer": 1.0, "farther": 1.0, "bare": 1.2, "modifier": 1.6,
    "heads": 3.0, "unit": 3.0, "into_shade": 3.0, "hour": 6.0,
    "longer_flash": 0.1,
}  # fmt: skip
"""The work a change makes, where letting go of the dial is 0 and moving a stand 1. From memory."""
HIRED_WORK = 4.0  # more, for what has to be got first
LOOK_OF_METHOD = {"hss": 0.3, "nd": 0.2, "stop_down": 0.0, "past_sync": 2.0, "slow": 1.0, "freeze": 2.0}  # from memory
NOISE = 0.4  # of a stop's weight that a stop of ISO counts


@dataclass(frozen=True)
class ChangeCosts:
    """What a change costs, each against what is there now.

    softer: stops by which the source looks larger (width over distance). background: stops brighter. depth: stops of
    aperture closed. noise: stops of ISO. recycle_s, charge: ready again in [s], and share of a full flash's charge;
    grams, money: more to carry and to pay. work: see WORK.
    """

    softer: float
    background: float
    depth: float
    noise: float
    recycle_s: float
    charge: float
    grams: float
    money: float
    work: float
    method: float

    def with_more(self, other: "ChangeCosts") -> "ChangeCosts":
        """Of two changes of two lights that are made together."""
        return replace(
            self,
            softer=self.softer + other.softer,
            charge=max(self.charge, other.charge),
            recycle_s=max(self.recycle_s, other.recycle_s),
            grams=self.grams + other.grams,
            money=self.money + other.money,
            work=self.work + other.work,
        )

    @property
    def look(self) -> float:
        """How much the picture changes."""
        hard, open_ = max(0.0, -self.softer) + 0.2 * max(0.0, self.softer), abs(self.depth)
        return hard + abs(self.background) + 0.5 * open_ + NOISE * max(0.0, self.noise) + self.method

    def price(self, keep: Keep) -> float:
        """One figure to rank by."""
        look, light, work = KEEPS[keep]
        return look * self.look + light * (max(0.0, self.grams) / 1000 + max(0.0, self.money) / 500) + work * self.work


@dataclass(frozen=True)
class Lever:
    """One change, or a pair: what it brings [stops], where it lands, and what it costs."""

    moves: tuple[Move, ...]
    gain: float
    spare: float
    sd: float
    too_bright: float
    below_full: float
    costs: ChangeCosts


@dataclass(frozen=True)
class Levers:
    """All of them, for one light and unit in one method. now: stops in hand, and too much at the lowest setting."""

    unit: int
    kind: MethodKind
    spare: float
    too_bright: float
    singles: tuple[Lever, ...]
    pairs: tuple[Lever, ...]
    unfixing: tuple[Lever, ...] = ()  # what moves a figure that is fixed
    light: int = 0  # the light that the unit is taken for; of a whole set the one that has least in hand
    whole: bool = False  # of the whole set: stops in hand are those of the light that has least


def gaining(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Single changes that bring light: those that are enough first, then by price, or by price for what they bring."""
    return sorted((one for one in found.singles if one.gain > SAME and not one.too_bright), key=_rank(keep))


def gaining_pairs(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Pairs that are worth more than either of the two, in the same order."""
    alone = {named(one.moves[0]): one.gain for one in found.singles}
    good = [
        one
        for one in found.pairs
        if not one.too_bright and one.gain > SAME + max(0.0, *(alone.get(named(move), 0.0) for move in one.moves))
    ]
    return sorted(good, key=_rank(keep))


def named(move: Move) -> tuple[str, str]:
    """What tells a move from others."""
    return move.code, f"{move.facts} {move.at}"


def _rank(keep: Keep) -> Callable[[Lever], tuple[float, float]]:
    def rank(one: Lever) -> tuple[float, float]:
        price = one.costs.price(keep)
        return (0, price) if one.spare >= ENOUGH else (1, (price + LEAST_PRICE) / one.gain)

    return rank


def taming(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Changes that bring a light that is too bright within its dial."""
    return _tamed(found.singles, keep)


def taming_pairs(found: Levers, keep: Keep = "look") -> list[Lever]:
    """Pairs that do so together."""
    return _tamed(found.pairs, keep)


def _tamed(some: Sequence[Lever], keep: Keep) -> list[Lever]:
    return sorted((one for one in some if not one.too_bright and one.spare >= 0), key=lambda one: one.costs.price(keep))


def curing(found: Levers) -> list[Lever]:
    """What cures a light that is short or too bright, the cheapest first, with the unit that is there; where nothing is
    enough, what brings most. Changes of a fixed figure, so that the picture stays, come after the others."""
    own = [one for one in (*found.singles, *found.unfixing) if one.moves[0].where != "unit"]
    if found.too_bright > 0:
        return _tamed(own, "look")
    good = [one for one in own if one.gain > SAME and not one.too_bright] if found.spare < 0 else []
    enough = sorted((one for one in good if one.spare >= ENOUGH), key=lambda one: one.costs.price("look"))
    return enough or sorted(good, key=lambda one: -one.gain)


def spending(found: Levers) -> list[Lever]:
    """What stops in hand could buy: softer, farther, a lower ISO, more depth of field; the best for its stops first."""

    def worth(one: Lever) -> float:
        costs = one.costs
        return max(0.0, costs.softer) + max(0.0, -costs.noise) + 0.5 * max(0.0, costs.depth)

    def buys(one: Lever) -> bool:
        farther = one.moves[0].code == "farther"
        return one.moves[0].code != "unit" and (worth(one) > 0.1 or farther) and one.costs.method == 0

    good = [one for one in found.singles if one.gain < -SAME and one.spare >= 0 and not one.too_bright and buys(one)]
    return sorted(good, key=lambda one: (worth(one) + LEAST_PRICE) / one.gain)
