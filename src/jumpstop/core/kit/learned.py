"""What readings have taught of the things that a shelf is made of: their means and their covariance."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..physics.arrays import Floats

Key = tuple[str, str, str]
"""A thing by its kind, its id, and which part of it."""


@dataclass(frozen=True, eq=False)
class Learned:
    """Things that readings have moved, against what is said of them [stops].

    places: by key, on the axes of the arrays. prior_sd, mean of shape (things,); covariance of shape (things, things).
    """

    places: Mapping[Key, int]
    prior_sd: Floats
    mean: Floats
    covariance: Floats

    def __len__(self) -> int:
        return len(self.places)

    @cached_property
    def keys(self) -> tuple[Key, ...]:
        """The things in their order."""
        return tuple(self.places)

    @cached_property
    def sd(self) -> Floats:
        """Standard deviation of each thing [stops]."""
        return np.sqrt(np.maximum(np.diag(self.covariance), 0.0))

    @cached_property
    def units(self) -> Mapping[str, Mapping[str, int]]:
        """By part of a unit: the places of the units by their ids."""
        found: dict[str, dict[str, int]] = {}
        for (kind, key, part), at in self.places.items():
            if kind == "unit":
                found.setdefault(part, {})[key] = at
        return found

    def light_of(self, unit_id: str) -> tuple[float, float] | None:
        """(how much more light a unit gives than is claimed, its doubt) [stops]; None where no reading says."""
        at = self.units.get("rating", {}).get(unit_id)
        return None if at is None else (float(self.mean[at]), float(self.sd[at]))

    @cached_property
    def ended(self) -> tuple[Floats, Floats, Floats]:
        """(prior sd, mean, covariance) with one thing more at the end that nothing is known of: place -1."""
        one = np.append(self.prior_sd, 1.0)
        return one, np.append(self.mean, 0.0), np.pad(self.covariance, ((0, 1), (0, 1)))
