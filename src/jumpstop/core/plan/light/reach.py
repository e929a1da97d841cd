"""Reach: a setup solved for every method, light and unit at once: what is in hand, what to dial, what blocks it."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np

from ...kit.errors import CannotSolve
from ...kit.table import Supply, UnitTable
from ...physics import battery
from ...physics.arrays import Figure, Floats
from ...physics.scales import Step
from ...physics.stops import add_light, p_reach
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.ambient import Ambient, ambient_of
from ..camera.fixed import methods_of
from ..camera.freeze import settings_for
from ..camera.look import needed_s
from ..camera.methods import Method
from .chain import NEEDS, chain_of
from .jump import Chain, Jump, JumpAt, Size, row, spread, total
from .link import breaks_of, on_camera
from .placing import Placing
from .scene import Scene, Variants

REACHES, TOO_BRIGHT, ON_THE_LINE, SHORT, BLOCKED = "reaches", "too_bright", "on_the_line", "short", "blocked"
VERDICTS = np.array([REACHES, TOO_BRIGHT, ON_THE_LINE, SHORT, BLOCKED])
BLOCKERS = (
    "",
    "no_hss",
    "no_modifiers",
    "no_zoom_head",
    "stands_alone",
    "does_not_fit",
    "not_on_shoe",
    "link_stops_hss",
    "duration_unknown",
    "never_short_enough",
)
"""What keeps a unit from a method or a light; the first is nothing."""


CADENCE_S = 3.0  # between two frames of a person who is directed, from memory
HEAVY = ("monobloc", "pack")  # kinds that no shoe holds
ALONE = -0.02  # stops: with the ambient this near to what is wanted, or over it, flash has nothing to add


def verdicts(spare: Floats, sd: Floats, too_bright: Floats, blocker: np.ndarray) -> np.ndarray:
    """The verdict of each landing: it reaches where the light needed lies more than one sd under what there is and the
    dial goes low enough; on the line within one sd. Same shape as `spare`, of words."""
    code = np.where(spare < 0, 3, 0)
    code[np.abs(spare) <= sd] = 2
    code[too_bright > 0] = 1
    code[blocker > 0] = 4
    return VERDICTS.take(code)


def _any(figure: Figure) -> bool:
    return bool(figure.any() if isinstance(figure, np.ndarray) else figure)


@dataclass(frozen=True, eq=False)
class Reach:
    """What every unit of a shelf does for one light in one method; arrays of shape (units,)."""

    solved: "Solved"
    method: Method
    at: tuple[int, int]  # places on the axes of methods and lights
    spare: Floats  # stops beyond what is needed at full power (or at the brightest setting short enough)
    sd: Floats
    below_full: Floats  # dial: stops below full, on the unit's own steps
    left: Floats  # light beyond what is needed at that dial [stops]
    too_bright: Floats  # stops too much even at the lowest setting, else 0
    blocker: np.ndarray  # index into BLOCKERS
    verdict: np.ndarray  # words

    @cached_property
    def shown(self) -> list[tuple[Jump, Figure]]:
        """The jumps that are there for this light in this method, each with its sizes over the units."""
        here, shown = (*self.at, self.receiver), []
        for jump in self.solved.chain:
            size = row(jump.stops, *here)
            if jump.effect == "rated_output" or _any(size) or _any(row(jump.sd, *here)):
                shown.append((jump, size))
        return shown

    @property
    def receiver(self) -> int:
        """Place of the light's own receiver on its axis."""
        return self.solved.placing.own[self.at[1]]

    @property
    def light(self) -> Light:
        """The light."""
        return self.solved.setup.lights[self.at[1]]

    @cached_property
    def wanted_stops(self) -> float:
        """What the light is wanted at in this method [stops from correct]."""
        target = next((jump for jump in self.solved.chain if jump.effect == "target"), None)
        return 0.0 if target is None else -float(np.asarray(row(target.stops, *self.at, self.receiver)).flat[0])

    @property
    def taken(self) -> int | None:
        """The unit that is taken for the light; None where none is yet."""
        return self.solved.taken[self.at[1]]

    @cached_property
    def supply(self) -> Supply:
        """What feeds the units."""
        return self.solved.table.fed_by(self.solved.setup.fed_by(self.light))

    def jumps_of(self, unit: int) -> list[JumpAt]:
        """The chain of one unit, with plain numbers and facts."""
        return [jump.at(*self.at, self.receiver, unit) for jump, _ in self.shown]

    @cached_property
    def reaches(self) -> np.ndarray:
        """Which units reach."""
        return self.verdict == REACHES

    @cached_property
    def p(self) -> Floats:
        """Probability that it reaches."""
        return p_reach(self.spare, self.sd)

    @cached_property
    def power(self) -> Floats:
        """Share of full power at the dial."""
        return np.exp2(-self.below_full)

    @cached_property
    def recycle_s(self) -> Floats:
        """Recycle time at the dial [s]."""
        return battery.recycle_s(self.power, self.supply.full_s, self.supply.least_s)

    @cached_property
    def t01_s(self) -> Floats:
        """Flash duration (t.1) at the dial [s]."""
        return self.solved.table.t01_at(self.below_full)

    @cached_property
    def flashes(self) -> Floats:
        """Flashes per charge at the dial, one after the other as somebody is directed; standing by counted."""
        every_h = np.fmax(self.recycle_s, CADENCE_S) / 3600
        return battery.flashes_per_charge(self.power, self.supply.full_flashes, self.supply.standby * every_h)

    @cached_property
    def charges(self) -> Floats:
        """Charges for the setup's frames."""
        return battery.charges_for(self.solved.setup.frames, self.flashes)

    @cached_property
    def ambient_stops(self) -> float:
        """Ambient on the lit side at these settings [stops from correct]."""
        return self.solved.ambient.lit_ev - self.method.camera.ev

    @cached_property
    def ambient_alone(self) -> float | None:
        """How far the ambient alone brings the lit side over what the key is for [stops]; None: flash is needed."""
        if self.light.role != "key":
            return None
        over = self.ambient_stops - self.wanted_stops
        return over if over > ALONE else None

    @cached_property
    def flash_at_dial(self) -> Floats:
        """Flash at the dial against a correct exposure, at the light's own receiver [stops]."""
        return self.left - (self.spare - self.flash_stops)

    @cached_property
    def off_stops(self) -> Floats:
        """How far the light's own receiver comes out from what was wanted, at the dial [stops]: the key's side with
        the ambient, the others by flash alone."""
        if self.light.role != "key":
            return self.left
        return np.asarray(add_light(self.ambient_stops, self.flash_at_dial)) - self.wanted_stops

    @cached_property
    def flash_stops(self) -> Floats:
        """Flash at full power against a correct exposure, at the light's own receiver [stops]."""
        method, light = self.at
        needs = [jump.stops for jump in self.solved.chain if jump.effect in NEEDS]
        return self.spare - sum(float(row(stops, method, light, self.receiver)) for stops in needs)

    @property
    def flash_over_ambient_stops(self) -> Floats:
        """How far the flash at full power lies above the ambient on the lit side [stops]."""
        return self.flash_stops - self.ambient_stops

    @cached_property
    def able(self) -> np.ndarray:
        """Which units can be used at all."""
        return self.blocker == 0

    def best_first(self) -> np.ndarray:
        """Indices of units: those that can be used, most in hand first; then those that cannot."""
        return np.lexsort((-self.spare, ~self.able))


@dataclass(frozen=True, eq=False)
class Solved:
    """What all units do for every light in every possible method; arrays of shape (methods, lights, units)."""

    setup: Setup
    table: UnitTable
    ambient: Ambient
    methods: tuple[Method, ...]  # all of them; the axis of methods holds the possible ones
    placing: Placing
    chain: Chain
    spare: Floats
    sd: Floats
    below_full: Floats
    left: Floats
    too_bright: Floats
    blocker: np.ndarray
    verdict: np.ndarray
    taken: tuple[int | None, ...] = ()  # the unit of each light, where it has one
    _reaches: dict[tuple[MethodKind, int], Reach] = field(default_factory=dict)
    memo: dict[Any, Any] = field(default_factory=dict, repr=False, init=False)

    @cached_property
    def kinds(self) -> tuple[MethodKind, ...]:
        """The possible methods, in the order of their axis."""
        return tuple(method.kind for method in self.methods if method.possible)

    @cached_property
    def by_kind(self) -> dict[MethodKind, Method]:
        """The methods by their kind."""
        return {method.kind: method for method in self.methods}

    def method(self, kind: MethodKind) -> Method:
        """One of the methods."""
        return self.by_kind[kind]

    def reach(self, kind: MethodKind, light: int = 0) -> Reach:
        """One light in one method. Raises CannotSolve where the method cannot be had."""
        kept = self._reaches.get((kind, light))
        if kept is not None:
            return kept
        if kind not in self.kinds:
            raise CannotSolve("method_blocked", method=kind)
        at = (self.kinds.index(kind), light)
        arrays = (self.spare, self.sd, self.below_full, self.left, self.too_bright, self.blocker, self.verdict)
        found = self._reaches[kind, light] = Reach(self, self.method(kind), at, *(array[at] for array in arrays))
        return found


def solve(setup: Setup, table: UnitTable, step: Step = "third") -> Solved:
    """Every method and light of one setup for every unit. Raises CannotSolve."""
    if not len(table):
        raise CannotSolve("empty_shelf")
    ambient = ambient_of(setup.ambient, setup.meter_c)
    return solved_in(setup, table, ambient, methods_of(setup, ambient, step))


def solved_in(setup: Setup, table: UnitTable, ambient: Ambient, methods: tuple[Method, ...]) -> Solved:
    """The same in methods that are given, by the ambient that is given."""
    possible = [method for method in methods if method.possible]
    scene = scene_of(setup, table, ambient, possible)
    chain = chain_of(scene) if possible else ()
    taken = tuple(_taken(light, table) for light in setup.lights)
    return Solved(setup, table, ambient, methods, scene.placing, chain, *landed(scene, chain), taken)


def scene_of(
    setup: Setup, table: UnitTable, ambient: Ambient, methods: Sequence[Method], of: Variants | None = None
) -> Scene:
    """The scene of a setup in these methods. of: where its lights are variants of one light."""
    freezes = any(method.kind == "freeze" for method in methods)
    return Scene(setup, table, ambient, methods, settings_for(table, needed_s(setup)) if freezes else None, of)


class Landed(NamedTuple):
    """Where each light in each method lands for each unit (see `Reach`); arrays of shape (methods, lights, units)."""

    spare: Floats
    sd: Floats
    below_full: Floats
    left: Floats
    too_bright: Floats
    blocker: np.ndarray
    verdict: np.ndarray


def landed(scene: Scene, chain: Chain) -> Landed:
    """The landings of a scene, by its chain."""
    table, frozen, possible = scene.table, scene.frozen, scene.methods
    shape = (len(possible), len(scene.lights), len(table))
    own = _at_own_receiver(chain, scene.placing.own)
    spare, sd = (np.broadcast_to(figure, shape) for figure in (total(own), spread(own)))
    least = np.zeros(shape)
    most = np.broadcast_to(table.dial_range, shape).copy()
    for at, method in enumerate(possible):
        if method.kind == "freeze" and frozen is not None:
            least[at], most[at] = frozen.least, np.where(frozen.can, frozen.most, frozen.least)
    # A cut pulse gets short when it is dialled down to what is needed, and is clipped no more; a slow tail always is.
    clipped = sum((np.asarray(jump.stops) for jump in own if jump.effect == "tail"), np.zeros(shape))
    whole = np.where(table.tailed, spare, spare - clipped)
    below, too_bright = dialled(np.where(spare >= 0, whole, spare), table.step, least, most)
    for at, light in enumerate(scene.lights):
        if light.dial_stops is not None:  # the nearest setting that each unit's dial has
            below[:, at] = np.minimum(np.round(light.dial_stops / table.step) * table.step, table.dial_range)
    left = np.where(below > 0, whole, spare) - (below - least)
    blocker = _blockers(scene, shape)
    return Landed(spare, sd, below, left, too_bright, blocker, verdicts(spare, sd, too_bright, blocker))


def by_shoe(setup: Setup, light: Light) -> bool:
    """Whether a light hangs on the camera's shoe, or on a cord between shoes: kilos do not."""
    cords = [one for one in setup.triggers if one.kind == "cord"]
    return on_camera(setup, light) or (setup.trigger == "shoe" and any(set(one.passes) - {"fire"} for one in cords))


def _stopped(scene: Scene, light: int) -> np.ndarray:
    """Units that what is packed passes no HSS to."""
    setup = scene.setup if scene.of is None else scene.of.setup
    at = light if scene.of is None else scene.of.light
    shoes = {unit.shoe: unit for unit in scene.table.units}
    stopped = {
        shoe: any(one.wanted == "hss" for one in breaks_of(setup, at, unit, "hss")) for shoe, unit in shoes.items()
    }
    return np.array([stopped[unit.shoe] for unit in scene.table.units], dtype=bool)


def _taken(light: Light, table: UnitTable) -> int | None:
    return None if light.unit is None else table.place_of(light.unit.id, light.unit.name)


def _at_own_receiver(chain: Chain, receivers: tuple[int, ...]) -> tuple[Size, ...]:
    """The chain's sizes where each light has its own receiver: shapes broadcast to (methods, lights, units)."""
    rows, own = np.arange(len(receivers)), np.array(receivers)

    def cut(figure: Figure) -> Figure:
        if not isinstance(figure, np.ndarray) or figure.ndim < 2:
            return figure
        shape = figure.shape
        if shape[-2] == 1:
            return figure[..., 0, :]
        if len(rows) == 1:
            return figure[..., own[0], :]
        if shape[-3] == 1:
            figure = np.repeat(figure, len(rows), axis=-3)
        return figure[..., rows, own, :]

    return tuple([Size(jump.effect, cut(jump.stops), cut(jump.sd), cut(jump.shared)) for jump in chain])


def dialled(spare_stops: Floats, step: Floats, least: Floats, most: Floats) -> tuple[Floats, Floats]:
    """(stops below full on the unit's own steps, stops too bright at the lowest setting).

    spare_stops counts from `least`, the brightest setting allowed; `most` is the lowest one [stops below full].
    """
    wanted = np.maximum(spare_stops, 0.0)
    below = np.minimum(least + np.round(wanted / step) * step, most)
    left = spare_stops - (below - least)
    return below, np.where(left > step / 2 + 1e-9, left, 0.0)


def _blockers(scene: Scene, shape: tuple[int, int, int]) -> np.ndarray:
    """Index into BLOCKERS of what keeps each unit from each light in each method; the first that applies."""
    code = np.zeros(shape, dtype=int)

    def block(method: int | slice, light: int | slice, why: str, where: np.ndarray) -> None:
        if where.any():
            here = code[method, light]
            code[method, light] = np.where((here == 0) & where, BLOCKERS.index(why), here)

    table, every = scene.table, slice(None)
    for at, method in enumerate(scene.methods):
        if method.kind == "hss":
            block(at, every, "no_hss", ~table.has_hss)
    for at, light in enumerate(scene.lights):
        if light.modifier is not None:
            block(every, at, "no_modifiers", ~table.takes_modifiers)
            if light.modifier.needs_zoom_head:
                block(every, at, "no_zoom_head", ~table.can_zoom)
            if not light.fits_anyway:
                block(every, at, "does_not_fit", ~table.fitting(light.modifier))
        if light.heads > 1:
            block(every, at, "stands_alone", ~table.takes_modifiers)
        if by_shoe(scene.setup, light):
            block(every, at, "not_on_shoe", np.isin(table.kind, HEAVY))
        for place, one in enumerate(scene.methods):
            if one.kind == "hss" and scene.setup.triggers and light.on:
                block(place, at, "link_stops_hss", _stopped(scene, at))
    for at, method in enumerate(scene.methods):
        if method.kind == "freeze" and scene.frozen is not None:
            block(at, every, "duration_unknown", ~scene.frozen.known)
            block(at, every, "never_short_enough", ~scene.frozen.can)
    return code
