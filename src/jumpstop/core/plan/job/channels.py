"""The channel sheet: who listens to whom, and what is wrong with it before anybody presses the button."""

from collections.abc import Iterator
from dataclasses import dataclass

from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.remark import Remark, remark
from ..light.reach import Solved
from ..stage.commands import commands
from ..stage.set_warnings import radio


@dataclass(frozen=True)
class Wire:
    """One light on the sheet: how it is fired, and where it listens. below_full: None where no unit stands."""

    light: int
    unit: int | None
    below_full: float | None
    on: bool


def sheet_of(solved: Solved, kind: MethodKind, units: tuple[int | None, ...]) -> tuple[list[Wire], list[Remark]]:
    """(the lights, what is wrong with how they are fired) of one setup."""
    wires = []
    for at, light in enumerate(solved.setup.lights):
        unit = units[at]
        below = None if unit is None else float(solved.reach(kind, at).below_full[unit])
        wires.append(Wire(at, unit, below, light.on))
    return wires, [*commands(solved, units), *_off(solved.setup), *radio(solved, kind, units)]


def _off(setup: Setup) -> Iterator[Remark]:
    """Groups that are off as the setup stands."""
    for at, light in enumerate(setup.lights):
        if not light.on:
            yield remark("group_off", light=at, group=light.group.strip())
