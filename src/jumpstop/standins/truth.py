"""What is really so: each thing that the core has a doubt of, drawn once from that doubt and then hidden."""

import math
import zlib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..core.kit.learned import Key, Learned
from ..core.kit.table import UnitTable
from ..core.plan.camera.ambient import Ambient
from ..core.plan.learn.parameters import load_of
from ..core.plan.light.reach import Solved
from ..core.plan.light.taught import MOVED

SD_DURATION = 0.2  # how far a flash's duration lies from what its maker says [log2], from memory
SD_CHARGE = 0.1  # how far a charge lies from what its maker says [log2], from memory
SD_METERING = 0.5  # how far automatic flash is misled by what it is pointed at [stops], from memory
SD_LAG = 0.012  # from one camera to the next [s], from memory
LAG_S = 0.06  # from the press to the picture, common practice


@dataclass(frozen=True)
class Truth:
    """What is hidden, by a seed: the same seed, the same truth, in whatever order it is asked for.

    most: no thing lies farther off than so many times its doubt.
    """

    seed: int
    most: float = math.inf

    def z(self, *of: object) -> float:
        """A draw from the standard normal that belongs to a thing, always the same."""
        found = _drawn(self.seed, "|".join(str(one) for one in of))
        return min(max(found, -self.most), self.most)

    def off(self, key: Key, sd: float, quoted_sd: float) -> float:
        """How far a thing lies from what is said of it [stops].

        sd: its doubt. quoted_sd: for a unit's light at a coverage that it is moved to, the part of the doubt that it
        shares with the one that it is quoted at (`core.plan.learn.parameters.covariance_of`).
        """
        if key[0] == "unit" and key[2] == MOVED:
            own = math.sqrt(max(0.0, sd**2 - quoted_sd**2))
            return quoted_sd * self.z("unit", key[1], "rating") + own * self.z(*key)
        return sd * self.z(*key)

    def place_off(self, setup: str, light: int, distance_m: float, sd: float) -> float:
        """How far what belongs to no thing (distance, side, aim) lies from what was worked out [stops]."""
        return sd * self.z("place", setup, light, f"{distance_m:.2f}")

    def ambient(self, said: Ambient, day: str = "") -> Ambient:
        """The ambient as it is: all of it as far off as its doubt goes."""
        z = self.z("ambient", day)
        back, face = z * said.background_sd, z * said.subject_sd
        return replace(
            said,
            background_ev=said.background_ev + back,
            lit_ev=said.lit_ev + face,
            shadow_ev=said.shadow_ev + face,
            shade_ev=said.shade_ev + face,
            edge_ev=said.edge_ev + face,
        )

    def table(self, said: UnitTable, things: Mapping[Key, float]) -> UnitTable:
        """The units as they are: what each thing adds, without doubt. things: with the doubt of each [stops]."""
        keys = tuple(things)
        quoted = {key: float(said.quoted_sd[at]) for at, key in enumerate(said.ids)}
        prior = np.array([max(things[key], 1e-9) for key in keys])
        mean = np.array([self.off(key, things[key], quoted.get(key[1], 0.0)) for key in keys])
        places = {key: at for at, key in enumerate(keys)}
        learned = Learned(places, prior, mean, np.zeros((len(keys), len(keys))))
        times = [2.0 ** (SD_DURATION * self.z("duration", one)) for one in said.ids]
        return replace(said, learned=learned, t01_s=said.t01_s * np.array(times).reshape(-1, 1))

    def charge_times(self, unit: str) -> float:
        """How many times a unit's charge is what its maker says."""
        return float(2.0 ** (SD_CHARGE * self.z("charge", unit)))

    @property
    def metering_stops(self) -> float:
        """How far automatic flash aims off [stops]."""
        return SD_METERING * self.z("metering")

    @property
    def lag_s(self) -> float:
        """From the press to the picture [s]."""
        return max(0.02, LAG_S + SD_LAG * self.z("lag"))


@lru_cache(maxsize=65_536)
def _drawn(seed: int, of: str) -> float:
    return float(np.random.default_rng([seed, zlib.crc32(of.encode())]).standard_normal())


def things_of(solved: Solved, light: int, unit: int) -> tuple[dict[Key, float], float]:
    """(the things in a light's chain with the doubt of each, the doubt of what belongs to none) [stops], in a setup
    solved in one method by what is said; the ambient apart."""
    reach = solved.reach(solved.kinds[0], light)
    load = load_of(reach.jumps_of(unit), solved.table, unit, "")
    return {key: sd for key, (_, sd) in load.of.items() if key[0] != "ambient"}, load.own
