"""A flash: its capacitor, its battery, its heat; what it can give at this moment, and what it has left."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from ..core.kit.table import full_flashes
from ..core.kit.unit import Unit
from ..core.physics import battery
from ..core.physics.battery import CHARGED, Capacitor

Why = Literal["", "recycling", "empty", "hot"]


@dataclass(frozen=True)
class Flash:
    """A unit at work. left: full flashes in its battery; warm: full flashes that its heat still holds."""

    unit: Unit
    capacitor: Capacitor
    left: float = math.inf
    warm: float = 0.0

    @property
    def why_not(self) -> Why:
        """What keeps it from any flash, beside its recycling."""
        heat = self.unit.heat
        if heat is not None and self.warm >= heat.full_flashes - CHARGED:
            return "hot"
        return "empty" if self.left <= 0 else ""

    def stopped(self, power: float) -> Why:
        """What keeps it from a flash at this share of full power; empty: nothing does."""
        return self.why_not or ("" if self.capacitor.holds(power) else "recycling")

    def fired(self, power: float, hss: bool = False) -> "Flash":
        """After a flash."""
        heat = self.unit.heat
        load = power * (heat.hss_times if heat is not None and hss else 1.0)
        return replace(
            self,
            capacitor=self.capacitor.fired(power),
            left=self.left - float(battery.drained(power)),
            warm=self.warm + (load if heat is not None else 0.0),
        )

    def waited(self, seconds: float) -> "Flash":
        """After a while."""
        heat, warm = self.unit.heat, self.warm
        if heat is not None:
            warm = max(0.0, warm - seconds * heat.full_flashes / heat.rest_s)
        return replace(self, capacitor=self.capacitor.waited(seconds), warm=warm)

    def ready_in(self, power: float) -> float:
        """How long until it has what a flash takes [s]."""
        one = self.capacitor
        lacks = power - one.charge
        return 0.0 if one.holds(power) else one.idle_s + lacks * (one.full_s - one.least_s)


def flash_of(unit: Unit, charge_times: float = 1.0, cold: float = 1.0) -> Flash:
    """A unit with a full battery. charge_times: how many times that is what its maker says; cold: what cold leaves."""
    if not unit.power_supplies:
        return Flash(unit, Capacitor(1.0, 0.1))
    supply = unit.power_supplies[0]
    holds = full_flashes(supply, unit.watt_seconds)
    left = math.inf if math.isnan(holds) else holds * charge_times * cold
    return Flash(unit, Capacitor(supply.recycle_full_s, min(supply.recycle_least_s, supply.recycle_full_s)), left)


@dataclass(frozen=True)
class Run:
    """Frames one after the other: how many were lit before the first that was not, how many in all were, and why the
    first was not."""

    frames: int
    unbroken: int
    lit: int
    why: Why


def run_of(flash: Flash, power: float, frames: int, every_s: float, hss: bool = False) -> Run:
    """So many frames, each so long after the one before it [s]."""
    lit, unbroken, first = 0, frames, ""
    for at in range(frames):
        why = flash.stopped(power)
        if why:
            if not first:
                unbroken, first = at, why
        else:
            lit, flash = lit + 1, flash.fired(power, hss)
        flash = flash.waited(every_s)
    return Run(frames, unbroken, lit, first)  # type: ignore[arg-type]
