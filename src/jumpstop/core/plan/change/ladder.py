"""The distance ladder: what to dial at each marked distance, with the same settings, for the unit in hand."""

from dataclasses import dataclass
from itertools import islice

from ...kit.modifier import layers_on
from ...kit.table import UnitTable
from ...physics.scales import Step
from ...physics.units import FEET_PER_METRE
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..light.one_unit import Landing, landings, with_light
from ..light.placing import metres_for
from ..light.reach import Reach

METRES = (0.5, 0.7, 1.0, 1.4, 2.0, 2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 22.0, 32.0)
"""Marked distances, a stop apart as apertures are."""
FEET = (1.5, 2.0, 3.0, 4.0, 6.0, 8.0, 11.0, 16.0, 22.0, 32.0, 45.0, 64.0, 90.0)
"""The same in feet, as painted on lenses; from memory."""


@dataclass(frozen=True)
class LadderColumn:
    """What is on the light in one column: the layers that came off."""

    off: tuple[str, ...]


@dataclass(frozen=True)
class Rung:
    """One marked distance, as marked and in metres, and where each variant comes to."""

    mark: float
    metres: float
    landings: tuple[Landing | None, ...]


@dataclass(frozen=True)
class RightSpan:
    """At one setting of the dial: where the light is right, and from where to where within a third of a stop and within
    a whole one [m]; NaN where it never gives so much."""

    right: float
    third: tuple[float, float]
    stop: tuple[float, float]


def span_of(reach: Reach, unit: int) -> RightSpan:
    """The distances at which a unit's light is right at its dial: the ladder turned round."""
    left, light, stage = float(reach.left[unit]), reach.light, reach.solved.setup.stage

    def at(more: float) -> float:
        return float(metres_for(light, stage, more - left))

    return RightSpan(at(0.0), (at(1 / 3), at(-1 / 3)), (at(1.0), at(-1.0)))


def variants(light: Light) -> tuple[LadderColumn, ...]:
    """As it stands; then with its layers taken off, one more in each, the outermost first."""
    on = [layer.name for layer in layers_on(light.modifier, light.layers)] if light.modifier else []
    return tuple(LadderColumn(tuple(reversed(on[len(on) - count :]))) for count in range(len(on) + 1))


def ladder(
    setup: Setup, table: UnitTable, kind: MethodKind, light: int, step: Step, feet: bool
) -> tuple[tuple[LadderColumn, ...], tuple[Rung, ...]]:
    """(variants, rungs): the marked distances at which some variant is on the dial, and one beyond at each end."""
    columns = variants(setup.lights[light])
    free = with_light(setup, light, dial_stops=None, distance_free=False)
    marks = FEET if feet else METRES
    metres = [mark / FEET_PER_METRE if feet else mark for mark in marks]
    placed = [_placed(free.lights[light], one, variant) for one in metres for variant in columns]
    found = iter(landings(free, table, kind, light, step, placed))
    rungs = [Rung(mark, one, tuple(islice(found, len(columns)))) for mark, one in zip(marks, metres, strict=True)]
    return columns, _within(rungs)


def _placed(here: Light, metres: float, variant: LadderColumn) -> Light:
    """A light at a distance, with what comes off in a variant taken off."""
    changed: dict[str, object] = {"distance_m": metres}
    if variant.off and here.modifier:
        on = (layer.name for layer in layers_on(here.modifier, here.layers))
        changed["layers"] = tuple(name for name in on if name not in variant.off)
    return here.model_copy(update=changed)


def _within(rungs: list[Rung]) -> tuple[Rung, ...]:
    def holds(rung: Rung) -> bool:
        return any(found is not None and found.spare >= 0 and not found.too_bright for found in rung.landings)

    good = [at for at, rung in enumerate(rungs) if holds(rung)]
    if not good:
        return tuple(rungs)
    return tuple(rungs[max(0, good[0] - 1) : good[-1] + 2])
