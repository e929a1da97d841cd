"""What feeds the units: which of a unit's supplies, and which batteries are of one sort."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ...kit.power import PowerSupply, SupplyKind
from ...kit.table import UnitTable
from ...kit.unit import Unit
from ...scene.light import Light
from ...scene.setup import Setup
from ..light.reach import Solved


class Fed(NamedTuple):
    """A unit, by its place, on one of its supplies; None where it has none."""

    unit: int
    supply: PowerSupply | None

    @property
    def mains(self) -> bool:
        """Whether it is fed by the mains."""
        return self.supply is not None and self.supply.kind == "mains"


def supply_of(unit: Unit, kind: SupplyKind | None) -> PowerSupply | None:
    """What feeds a unit: the kind asked for where it has it, else its usual one; None where it has none."""
    found = next((one for one in unit.power_supplies if one.kind == kind), None)
    return found or next(iter(unit.power_supplies), None)


def fed_at(setup: Setup, light: Light, unit: int, table: UnitTable) -> Fed:
    """A unit on what feeds it at a light of a setup."""
    return Fed(unit, supply_of(table.units[unit], setup.fed_by(light)))


def on_mains(solved: Solved) -> np.ndarray:
    """Which units the mains would feed at each light of a setup; shape (lights, units)."""
    setup, units = solved.setup, range(len(solved.table))
    return np.array([[fed_at(setup, light, unit, solved.table).mains for unit in units] for light in setup.lights])


@dataclass(frozen=True)
class BatterySort:
    """One sort of battery: what has the same name, weight and capacity fits the same units. fed: those that it feeds.

    Of the price and of the charger the most that any of these units says; None where none says it.
    """

    name: str
    weight_g: float | None
    capacity_wh: float | None
    fed: tuple[Fed, ...]

    @property
    def supply(self) -> PowerSupply:
        """As the first of its units has it."""
        return self._supplies[0]

    @property
    def price(self) -> float | None:
        """Of one battery."""
        return max((one.price for one in self._supplies if one.price is not None), default=None)

    @property
    def charger_g(self) -> float | None:
        """What its charger weighs [g]."""
        return max((one.charger_g for one in self._supplies if one.charger_g is not None), default=None)

    @property
    def charger_price(self) -> float | None:
        """What its charger costs."""
        return max((one.charger_price for one in self._supplies if one.charger_price is not None), default=None)

    @property
    def _supplies(self) -> list[PowerSupply]:
        return [one.supply for one in self.fed if one.supply is not None]


def sorts_of(fed: Iterable[Fed], table: UnitTable) -> tuple[BatterySort, ...]:
    """The sorts of the batteries that feed units. A battery is known by its own name; cells that fit anything by their
    kind; else it is the unit's own."""
    users: dict[tuple[str, float | None, float | None], list[Fed]] = {}
    for one in fed:
        supply = one.supply
        if supply is not None:
            name = supply.name or ("aa" if supply.kind == "aa" else table.units[one.unit].name)
            users.setdefault((name.casefold(), supply.weight_g, supply.capacity_wh), []).append(one)
    return tuple(BatterySort(*key, tuple(found)) for key, found in users.items())
