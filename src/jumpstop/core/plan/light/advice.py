"""Advice: which method to take, and what each comes to for one and the same unit."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ...kit.memo import remembered
from ...physics.scales import SHUTTERS
from ...scene.light import MOST_HEADS
from ...scene.seen import MethodKind
from ..camera import look
from ..camera.framing import dark_of
from ..camera.methods import GHOST_STOPS, Method
from ..camera.timing import of_unit
from .reach import Reach, Solved

BACKGROUND_STOPS = 0.34  # a background this near to what was asked is held: a third of a stop
NOT_AT_ALL = 99.0  # stops missed where no unit can be used
SHORT_OF_SURE = 0.01  # stops: a unit on the line misses by this at least
FROZEN = 1.1  # times the blur that is tolerable that still passes for frozen: a marked shutter time is no finer
PREFERRED: tuple[MethodKind, ...] = ("sync", "leaf", "nd", "hss", "stop_down", "past_sync", "slow", "freeze")


def heads_enough(reach: Reach, unit: int) -> int | None:
    """How many equal heads of a unit would bring a light that is short; None where it is not, or so many are none."""
    short = -float(reach.spare[unit])
    if not reach.able[unit] or not short > 0:
        return None
    heads = math.ceil(reach.light.heads * 2**short - SHORT_OF_SURE)
    return heads if heads <= MOST_HEADS and reach.solved.table.units[unit].takes_modifiers else None


@dataclass(frozen=True)
class Stillness:
    """Where motion is to be frozen: what freezes it in a method, how much blur is left [mm], and whether that passes.

    by: the flash alone, the shutter (in HSS the light lasts as long as the slit is open), or nothing, where the
    ambient is bright enough to draw beside the flash.
    """

    by: Literal["flash", "shutter", "nothing"]
    blur_mm: float
    tolerable_mm: float

    @property
    def frozen(self) -> bool:
        """Whether the picture is sharp enough."""
        return self.by != "nothing" and self.blur_mm <= self.tolerable_mm * FROZEN


def stillness(solved: Solved, method: Method) -> Stillness | None:
    """What freezes the motion in a method; None where nothing is to be frozen."""
    setup = solved.setup
    if setup.motion.kind != "freeze":
        return None
    tolerable = look.tolerable_mm(setup)
    open_s = float(SHUTTERS.exact(method.camera.shutter_s))
    ambient = solved.ambient.lit_ev - method.camera.ev
    if method.kind == "hss":
        return Stillness("shutter", look.blur_mm(setup, open_s), tolerable)
    if ambient > GHOST_STOPS:
        return Stillness("nothing", look.blur_mm(setup, open_s), tolerable)
    if method.kind == "freeze":  # its power settings are all short enough
        return Stillness("flash", tolerable, tolerable)
    return Stillness("flash", math.inf, tolerable)  # at whatever setting, long ones included


def dark_on_subject(solved: Solved, method: Method) -> bool:
    """Whether the shutter leaves some of the subject dark."""
    dark = dark_of(solved.setup, method)
    return dark is not None and dark.over > 0


def serves(solved: Solved, method: Method) -> bool:
    """Whether a method does what the picture is about: leaves none of the subject dark, freezes what is to be frozen,
    draws what is to be drawn."""
    if dark_on_subject(solved, method):
        return False
    if solved.setup.motion.kind == "trails":
        return method.kind == "slow"
    still = stillness(solved, method)
    return still is None or still.frozen


def holds_background(solved: Solved, method: Method) -> bool:
    """Whether the background is as asked, within a third of a stop; where a short flash freezes, it goes dark."""
    frozen_dark = method.kind == "freeze" and serves(solved, method)
    return abs(method.off_stops) <= BACKGROUND_STOPS or frozen_dark


def preferred(solved: Solved) -> tuple[MethodKind, ...]:
    """The methods in the order in which they give up least for this picture."""
    first: list[MethodKind] = []
    if solved.setup.motion.kind == "freeze":
        first.append("freeze")
    if look.buys_no_blur(solved.setup, solved.setup.f_number):
        first += ["sync", "stop_down"]
    return tuple(dict.fromkeys([*first, *PREFERRED]))


def advised_method(solved: Solved, avoid: Sequence[MethodKind] = (), light: int = 0) -> MethodKind:
    """The method to take.

    Where the light has a unit, it is that unit which must reach. First of all the method must serve the picture (the
    one that blurs least, where none freezes); then some unit must reach, it should not be one the person would rather
    not take, and it should hold the background; then it is the one that gives up least (an aperture at which
    diffraction costs sharpness, and a filter before a long lens for wildlife, are last), and where none reaches the
    one that comes nearest. Part of the frame is never left dark in order to meet a dial that was fixed.
    """
    fixed = solved.setup.lights[light].dial_stops is not None
    order = preferred(solved)
    serving = {kind: serves(solved, solved.method(kind)) for kind in solved.kinds}
    any_serves = any(serving.values())

    def rank(kind: MethodKind) -> tuple[float, ...]:
        method, reach = solved.method(kind), solved.reach(kind, light)
        still = stillness(solved, method)
        blur = still.blur_mm if still is not None and not any_serves else 0.0
        off = float(np.min(missed_by(reach), initial=NOT_AT_ALL))
        reached = off <= 0
        nearest = max(0.0, off)
        held = holds_background(solved, method)
        last, spoilt = fixed and method.lit < 1, look.spoils(solved.setup, kind, method.camera.f_number)
        return (last, not serving[kind], blur, not reached, kind in avoid, not held, nearest, spoilt, order.index(kind))

    return min(solved.kinds, key=rank, default="sync")


def chosen_method(solved: Solved, avoid: Sequence[MethodKind] = (), light: int = 0) -> MethodKind:
    """The method that is fixed, where it can be had; else the advised one."""
    fixed = solved.setup.method
    return fixed if fixed is not None and fixed in solved.kinds else advised_method(solved, avoid, light)


def missed_by(reach: Reach) -> np.ndarray:
    """By how much each unit that can be used misses [stops]: short, too bright at the lowest setting, or, where the
    dial is fixed, off by more than a third besides; 0 where it reaches. Of the unit taken alone, where one is."""
    wrong = np.maximum(SHORT_OF_SURE, np.where(reach.too_bright > 0, reach.too_bright, -reach.spare))
    missed = np.where(reach.reaches, 0.0, wrong)
    if reach.light.dial_stops is not None:
        missed = np.maximum(missed, np.abs(reach.off_stops) - BACKGROUND_STOPS)
    use = reach.able if reach.taken is None else reach.able & (np.arange(len(missed)) == reach.taken)
    return np.asarray(missed[use])


def lightest_that_reaches(reach: Reach) -> int | None:
    """The unit to compare by: the lightest that reaches, else the nearest; None where none can be used."""
    return _lightest(reach.solved, reach.method.kind, reach.at[1])


@remembered(64)
def _lightest(solved: Solved, kind: MethodKind, light: int) -> int | None:
    reach = solved.reach(kind, light)
    good = np.flatnonzero(reach.reaches)
    if len(good):
        weights = reach.solved.table.weight_g[good]  # those that are not known sort last
        return int(good[np.lexsort((-reach.spare[good], weights))[0]])
    able = np.flatnonzero(reach.able)
    return int(able[np.argmax(reach.spare[able])]) if len(able) else None


def unit_for(reach: Reach) -> int | None:
    """The unit that methods, dial and warnings speak of: the one taken for the light, else `lightest_that_reaches`."""
    return lightest_that_reaches(reach) if reach.taken is None else reach.taken


def units_for(solved: Solved, kind: MethodKind) -> tuple[int | None, ...]:
    """The unit of every light in a method: see `unit_for`."""
    return tuple(unit_for(solved.reach(kind, light)) for light in range(len(solved.setup.lights)))


@dataclass(frozen=True)
class MethodCosts:
    """What a method comes to for one unit, beside the method that leaves this unit most in hand for the same picture.

    difference: stops in hand against that one (0 for itself), None where the unit cannot be used in this method, or the
    background does not come out as asked, which is another picture.
    charge_times: of the charge (and the recycle time) that the best one takes.
    """

    difference: float | None
    best: MethodKind | None
    charge_times: float
    evenness_stops: float  # brightest row against the darkest that is lit
    metered: Literal["flash_meter", "lit_side", "no_meter"]


@remembered(16)
def costs_for(solved: Solved, unit: int, light: int) -> dict[MethodKind, MethodCosts]:
    """Every possible method for one and the same unit, against each other."""
    reaches = {kind: solved.reach(kind, light) for kind in solved.kinds}
    usable = {
        kind: float(reach.spare[unit])
        for kind, reach in reaches.items()
        if reach.able[unit] and holds_background(solved, reach.method)
    }
    whole = {kind: spare for kind, spare in usable.items() if reaches[kind].method.lit >= 1}  # the whole frame lit
    best = max(whole or usable, key=lambda kind: usable[kind], default=None)
    out = {}
    for kind, reach in reaches.items():
        t01_s = float(solved.table.t01_of(unit, float(reach.below_full[unit])))
        exposure = of_unit(solved.setup, reach.method, solved.table, unit, t01_s)
        difference = usable[kind] - usable[best] if best is not None and kind in usable else None
        metered: Literal["flash_meter", "lit_side", "no_meter"] = (
            "no_meter" if kind == "hss" else "lit_side" if kind == "past_sync" else "flash_meter"
        )
        out[kind] = MethodCosts(
            difference, best, 1.0 if difference is None else 2**-difference, exposure.evenness_stops(), metered
        )
    return out
