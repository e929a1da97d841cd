"""Who commands whom: several that command, none that does, slaves that see nothing, heads that nothing reaches."""

from collections.abc import Iterator, Sequence

from ...physics.sides import wrapped_deg
from ...scene.setup import Setup
from ..camera.remark import Remark, remark
from ..light.link import on_camera
from ..light.reach import Solved

SUNNY_EV = 13.0  # a light in which optical triggers see only a few metres, common practice
BEHIND_DEG = 110.0  # a light farther round than this has the subject between it and the camera, from memory
OPTICAL_M = 8.0  # as far as optical triggers are counted on indoors, common practice


def commands(solved: Solved, units: Sequence[int | None]) -> Iterator[Remark]:
    """What is wrong with how the lights of a setup are told to fire."""
    yield from _masters(solved.setup)
    yield from _heard(solved, units)
    yield from _sight(solved)


def _masters(setup: Setup) -> Iterator[Remark]:
    """More than one that commands: two lights, or a light beside a transmitter on the camera; or none."""
    sending = [at for at, light in enumerate(setup.lights) if light.on and light.sends]
    transmitter = next((one.name for one in setup.triggers if one.kind == "transmitter"), None)
    if len(sending) > 1:
        yield remark("two_masters", first=sending[0], light=sending[1])
    if sending and transmitter:
        yield remark("slave_as_master", light=sending[0], at=transmitter)
    optical = setup.trigger == "optical"
    if optical and not sending and not any(one.kind == "optical" for one in setup.triggers):
        yield remark("no_master")
    automatic = next((at for at, light in enumerate(setup.lights) if light.on and light.automatic), None)
    if optical and automatic is not None and any(light.on and not light.automatic for light in setup.lights):
        yield remark("preflash", light=automatic)


def _heard(solved: Solved, units: Sequence[int | None]) -> Iterator[Remark]:
    """A head that a packed transmitter does not reach: no receiver is packed, and it has no radio of its own."""
    setup = solved.setup
    sends = next((one.name for one in setup.triggers if one.kind == "transmitter"), None)
    if setup.trigger != "radio" or sends is None or any(one.kind == "receiver" for one in setup.triggers):
        return
    for at, light in enumerate(setup.lights):
        unit = units[at]
        if light.on and unit is not None and solved.table.units[unit].own_radio is False:
            yield remark("no_receiver", light=at, at=sends)


def _sight(solved: Solved) -> Iterator[Remark]:
    """Optical slaves that cannot see the master, or are drowned by the sun."""
    setup = solved.setup
    if setup.trigger != "optical":
        return
    sun = setup.ambient.subject in ("sun", "back") and solved.ambient.background_ev > SUNNY_EV
    for at, light in enumerate(setup.lights):
        if not light.on or on_camera(setup, light):
            continue
        if sun:
            yield remark("drowned", light=at)
        elif light.position is not None and abs(float(wrapped_deg(light.position.bearing_deg))) > BEHIND_DEG:
            yield remark("no_sight", light=at)
        elif light.distance_m > OPTICAL_M:
            yield remark("too_far", light=at, metres=light.distance_m)
