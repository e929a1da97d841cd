"""What to measure next: the readings that would settle most verdicts of a job, before leaving home."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from ...kit.learned import Key
from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...physics.gaussian import Posterior, expected_wrong, update, wrong_chance
from ...scene.light import Light
from ...scene.seen import SD_EYE, SD_METER, MethodKind
from ..light.jump import JumpAt
from ..light.reach import Reach
from .learning import METER_STEP
from .parameters import Load, known_of, load_of, matrix_of

SD_AT_HOME = 0.05  # a light put up at home at a taped distance [stops], from memory
METER_SD = math.hypot(SD_METER, METER_STEP / math.sqrt(12), SD_AT_HOME)
"""A careful reading and the rounding of a meter's thirds [stops]."""
FRAME_SD = math.hypot(SD_EYE, SD_AT_HOME)  # HSS cannot be metered: a test frame, judged by eye
LEAST_WORTH = 0.005  # verdicts: a reading that settles less is not worth proposing
AWAY = frozenset({"ambient", "room"})  # what a job's own place has cannot be read at home


@dataclass(frozen=True)
class JobLanding:
    """One light of a job with the unit that stands at it: stops in hand as known now, and what it is made of."""

    setup: int
    light: int
    unit: int
    spare: float
    load: Load


@dataclass(frozen=True)
class Candidate:
    """A reading that could be taken: one unit at full power behind one modifier, in a method."""

    unit: int
    light: Light
    method: MethodKind
    of: dict[Key, tuple[float, float]]
    noise_sd: float


@dataclass(frozen=True)
class Proposal:
    """A reading worth taking: how many verdicts of the job are expected to be wrong before it and after it; and what it
    does to each landing's sd (before, after)."""

    candidate: Candidate
    wrong: float
    wrong_after: float
    sd: tuple[tuple[float, float], ...]


def landing_of(reach: Reach, unit: int, setup: int, light: int) -> JobLanding:
    """A landing."""
    load = load_of(reach.jumps_of(unit), reach.solved.table, unit, f"{setup}")
    return JobLanding(setup, light, unit, float(reach.spare[unit]), load)


def candidates_of(landings: Sequence[tuple[JobLanding, Reach]], owned: Sequence[int]) -> list[Candidate]:
    """All readings of full power that could be taken at home: each owned unit that is part of a landing, behind each
    modifier that the job uses, as it is there and bare; in HSS too where the job uses it."""
    found: dict[tuple[Key, ...], Candidate] = {}
    units = {landing.unit for landing, _ in landings} & set(owned)
    for _, reach in landings:
        for unit in sorted(units):
            if not reach.able[unit]:
                continue
            jumps = [jump for jump in reach.jumps_of(unit) if jump.of is None or jump.of.kind not in AWAY]
            parts = [jumps, [jump for jump in jumps if not _in_front(jump)]]
            for number, held in enumerate(parts):
                load = load_of(held, reach.solved.table, unit, "")
                hss = any(key[2] == "hss" for key in load.of)
                light = reach.light if not number else reach.light.model_copy(update={"modifier": None, "layers": None})
                one = Candidate(unit, light, reach.method.kind, dict(load.of), FRAME_SD if hss else METER_SD)
                if load.of:
                    found.setdefault(tuple(sorted(load.of)), one)
    return list(found.values())


def _in_front(jump: JumpAt) -> bool:
    return jump.of is not None and jump.of.kind in ("modifier", "gel")


@dataclass(frozen=True, eq=False)
class KnownSoFar:
    """What is known while readings are being chosen: the things, and the landings as sums of them."""

    known: Posterior
    rows: Floats  # (landings, things)
    own: Floats  # (landings,): variance that belongs to no thing
    spare: Floats  # (landings,): stops in hand at mean 0 of all things
    looks: Floats = field(repr=False)  # (candidates, things)
    noise: Floats  # (candidates,): variances

    @property
    def mean(self) -> Floats:
        """Stops in hand of each landing as known."""
        return self.spare + self.rows @ self.known.mean

    @property
    def sd(self) -> Floats:
        """Its standard deviation."""
        spread = np.sum((self.rows @ self.known.covariance) * self.rows, axis=1)
        return np.sqrt(np.maximum(spread, 0.0) + self.own)

    def after(self) -> Floats:
        """sd of each landing after each candidate, of shape (candidates, landings)."""
        crossed = self.looks @ self.known.covariance
        inner = np.sum(crossed * self.looks, axis=1) + self.noise
        settled = np.square(crossed @ self.rows.T) / inner[:, None]
        return np.sqrt(np.maximum(np.square(self.sd)[None] - settled, 0.0))

    def worth(self) -> Floats:
        """Verdicts expected to be put right by each candidate, of shape (candidates,)."""
        mean, sd = self.mean, self.sd
        return np.asarray(np.sum(wrong_chance(mean, sd)[None] - expected_wrong(mean, sd, self.after()), axis=1))

    def told(self, candidate: int, off: float) -> "KnownSoFar":
        """After a reading of a candidate that lay so far off [stops] what is said of its things."""
        row = self.looks[candidate][None]
        noise = self.noise[candidate][None]
        known = update(self.known.mean, self.known.covariance, row, np.array([off]), noise)
        return replace(self, known=known)


def state_of(landings: Sequence[JobLanding], candidates: Sequence[Candidate], table: UnitTable) -> KnownSoFar:
    """The state before any further reading; what earlier ones have taught is counted."""
    prior: dict[Key, float] = {}
    for of in [*(landing.load.of for landing in landings), *(candidate.of for candidate in candidates)]:
        for key, (_, sd) in of.items():
            prior.setdefault(key, sd)
    keys, sds = tuple(prior), np.array(list(prior.values()), dtype=float)
    mean, covariance = known_of(keys, sds, table)
    rows = matrix_of([landing.load.of for landing in landings], keys, sds)
    spare = np.array([landing.spare for landing in landings], dtype=float) - rows @ mean
    return KnownSoFar(
        Posterior(mean, covariance),
        rows,
        np.array([landing.load.own**2 for landing in landings], dtype=float),
        spare,
        matrix_of([candidate.of for candidate in candidates], keys, sds),
        np.array([candidate.noise_sd**2 for candidate in candidates], dtype=float),
    )


def propose(
    landings: Sequence[JobLanding], candidates: Sequence[Candidate], table: UnitTable, most: int = 2
) -> list[Proposal]:
    """The readings worth most, best first; the second counts on the first having been taken as expected."""
    state, out = state_of(landings, candidates, table), list[Proposal]()
    while landings and candidates and len(out) < most:
        worth = state.worth()
        best = int(np.argmax(worth))
        if worth[best] < LEAST_WORTH:
            break
        before, after = state.sd, state.after()[best]
        wrong = float(np.sum(wrong_chance(state.mean, before)))
        sds = tuple((float(a), float(b)) for a, b in zip(before, after, strict=True))
        out.append(Proposal(candidates[best], wrong, wrong - float(worth[best]), sds))
        state = state.told(best, float(state.looks[best] @ state.known.mean))
    return out
