"""What a chain is worked out from: a setup and its possible methods, a shelf, and where the lights stand."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ...kit.table import UnitTable
from ...physics.arrays import Floats
from ...scene.light import Light, OwnUnit
from ...scene.seen import Seen
from ...scene.setup import Setup
from ..camera.ambient import Ambient
from ..camera.freeze import Frozen
from ..camera.methods import Method
from ..camera.targets import wanted_levels
from .placing import Placing, lit_right, placing_of
from .seen import flash_seen


class Variants(NamedTuple):
    """That the lights of a scene are variants of one light of a setup, each in its stead beside the others."""

    setup: Setup
    light: int


@dataclass(frozen=True, eq=False)
class Scene:
    """What the effects are worked out from: a setup, its possible methods (the first axis), and a shelf (the last).

    of: where the lights are variants of one and the same light, whose.
    """

    setup: Setup
    table: UnitTable
    ambient: Ambient
    methods: Sequence[Method]
    frozen: Frozen | None
    of: Variants | None = None

    @property
    def lights(self) -> tuple[Light, ...]:
        """The lights: the second axis."""
        return self.setup.lights

    @cached_property
    def wanted(self) -> Floats:
        """What each light is wanted at [stops from correct], of shape (methods, lights, 1, 1)."""
        camera_ev = tuple(method.camera.ev for method in self.methods)
        if self.of is None:
            return wanted_levels(self.setup, self.ambient, camera_ev)[:, :, None, None]
        levels = {}
        for light in self.lights:
            told = (light.role, light.target_stops, light.automatic and light.distance_m)
            if told not in levels:
                levels[told] = wanted_levels(self._among(light), self.ambient, camera_ev)[:, self.of.light]
        rows = [levels[light.role, light.target_stops, light.automatic and light.distance_m] for light in self.lights]
        return np.array(rows).T[:, :, None, None]

    def _among(self, light: Light) -> Setup:
        """The setup that a variant stands in."""
        assert self.of is not None
        lights = list(self.of.setup.lights)
        lights[self.of.light] = light
        return self.of.setup.model_copy(update={"lights": tuple(lights)})

    def standing(self, light: int) -> Seen | None:
        """The reading that one of the lights counts from."""
        return standing(self.setup, light) if self.of is None else standing(self.of.setup, self.of.light)

    def by_method(self, figure: Callable[[Method], float]) -> Floats:
        """A figure of each method, of shape (methods, 1, 1, 1)."""
        return np.array([figure(method) for method in self.methods]).reshape(-1, 1, 1, 1)

    def by_light(self, figure: Callable[[Light], float]) -> Floats:
        """A figure of each light, of shape (lights, 1, 1)."""
        return np.array([figure(light) for light in self.lights], dtype=float).reshape(-1, 1, 1)

    def by_unit(self, figure: Callable[[Method], Floats | None]) -> Floats:
        """A figure of each method and unit, of shape (methods, 1, 1, units); 0 where a method has none."""
        out = np.zeros((len(self.methods), 1, 1, len(self.table)))
        for at, method in enumerate(self.methods):
            row = figure(method)
            if row is not None:
                out[at, 0, 0] = row
        return out

    @cached_property
    def placing(self) -> Placing:
        """Every light against every receiver."""
        right = None if self.of is None else lit_right(self.of.setup, self.ambient.sun)
        return placing_of(self.setup, self.ambient.sun, right)

    @cached_property
    def distance_m(self) -> Floats:
        """Distance from each light to each receiver [m], of shape (lights, receivers, 1)."""
        return self.placing.metres[:, :, None]


def standing(setup: Setup, light: int) -> Seen | None:
    """The reading that a light counts from: the newest one that stands and shows a flash, taken with the unit it now
    has."""
    unit = setup.lights[light].unit
    if unit is None:
        return None
    stand = [one for one in setup.seen if one.light == light and one.stands and _same_unit(one.was.unit, unit)]
    return next((one for one in reversed(stand) if math.isfinite(flash_seen(one))), None)


def _same_unit(one: OwnUnit | None, other: OwnUnit) -> bool:
    if one is None:
        return False
    return one.id == other.id if other.id is not None else one.name == other.name
