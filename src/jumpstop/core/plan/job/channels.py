"""The channel sheet: who listens to whom, and what is wrong with it before anybody presses the button."""

from collections.abc import Iterator
from dataclasses import dataclass

from ...physics.sides import wrapped_deg
from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera.remark import Remark, remark
from ..light.reach import Solved
from ..stage.set_warnings import SUNNY_EV, radio

BEHIND_DEG = 110.0  # a light farther round than this has the subject between it and the camera, from memory
OPTICAL_M = 8.0  # as far as optical triggers are counted on indoors, common practice


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
    return wires, [*_masters(solved.setup), *_off(solved.setup), *radio(solved, kind, units), *_sight(solved)]


def _masters(setup: Setup) -> Iterator[Remark]:
    """More than one that commands: two lights, or a light beside a transmitter on the camera."""
    sending = [at for at, light in enumerate(setup.lights) if light.on and light.sends]
    transmitter = next((one.name for one in setup.triggers if one.kind == "transmitter"), None)
    if len(sending) > 1:
        yield remark("two_masters", first=sending[0], light=sending[1])
    if sending and transmitter:
        yield remark("slave_as_master", light=sending[0], at=transmitter)
    if not sending and setup.trigger == "optical" and not any(one.kind == "optical" for one in setup.triggers):
        yield remark("no_master")


def _off(setup: Setup) -> Iterator[Remark]:
    """Groups that are off as the setup stands."""
    for at, light in enumerate(setup.lights):
        if not light.on:
            yield remark("group_off", light=at, group=light.group.strip())


def _sight(solved: Solved) -> Iterator[Remark]:
    """Optical slaves that cannot see the master, or are drowned by the sun."""
    setup = solved.setup
    if setup.trigger != "optical":
        return
    sun = setup.ambient.subject in ("sun", "back") and solved.ambient.background_ev > SUNNY_EV
    for at, light in enumerate(setup.lights):
        if not light.on or light.sends:
            continue
        if sun:
            yield remark("drowned", light=at)
        elif light.position is not None and abs(float(wrapped_deg(light.position.bearing_deg))) > BEHIND_DEG:
            yield remark("no_sight", light=at)
        elif light.distance_m > OPTICAL_M:
            yield remark("too_far", light=at, metres=light.distance_m)
