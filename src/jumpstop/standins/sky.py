"""A sky with clouds that pass, and a wind with gusts: both by a seed, at any second of a day."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

DAY_S = 86_400
CLOUD_STOPS = -1.6  # what a cloud before the sun takes, from memory
EDGE_S = 12.0  # how long its edge takes to pass, from memory
EVERY_S = {"clear": None, "partly": 420.0, "overcast": 900.0}
"""How long it is from one cloud to the next, on the average, from memory; None: there are none."""
LASTS_S = (40.0, 240.0)  # how long one stays before the sun, from memory
GUST_S = 45.0  # from one gust to the next, from memory
GUST = 1.5  # a gust against the mean wind, common practice

Cover = Literal["clear", "partly", "overcast"]


@dataclass(frozen=True)
class Sky:
    """The sky of a day."""

    seed: int
    cover: Cover = "partly"
    wind_m_s: float = 3.0

    @cached_property
    def clouds(self) -> tuple[tuple[float, float], ...]:
        """When each cloud comes before the sun and when it leaves it [s of the day]."""
        every = EVERY_S[self.cover]
        if every is None:
            return ()
        rng, at, out = np.random.default_rng([self.seed, 1]), 0.0, []
        while at < DAY_S:
            at += float(rng.exponential(every))
            lasts = float(rng.uniform(*LASTS_S))
            out.append((at, at + lasts))
            at += lasts
        return tuple(out)

    def stops_at(self, second: float) -> float:
        """What clouds take from the light just now [stops]: 0 or less."""
        inside = (min((second - start) / EDGE_S + 1, (end - second) / EDGE_S + 1) for start, end in self.clouds)
        return CLOUD_STOPS * min(1.0, max(0.0, max(inside, default=0.0)))

    def wind_at(self, second: float) -> float:
        """The wind just now [m/s], with its gusts."""
        rng = np.random.default_rng([self.seed, 2, int(second // GUST_S)])
        return float(self.wind_m_s * rng.uniform(0.6, GUST))
