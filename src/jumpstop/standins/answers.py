"""How a scene would be set: by one who trusts all claims, and by one who knows what is really so."""

import math
from dataclasses import replace

from ..core.physics import stops
from ..core.physics.scales import ISOS
from ..core.plan.camera.ambient import Ambient, ambient_of
from ..core.plan.camera.fixed import methods_of
from ..core.plan.camera.freeze import settings_for
from ..core.plan.camera.look import needed_s
from ..core.plan.light.advice import chosen_method
from ..core.plan.light.reach import solved_in
from .drills import CHANNEL, DrillScene
from .flash import flash_of, run_of
from .rig import Exposed, Rig, as_solved, exposed
from .truth import Truth

TURNS = 4  # that the dials are set right; each brings them nearer


def heard(rig: Rig) -> Rig:
    """The rig with all lights asleep that do not hear the trigger: on another channel, or set to command."""
    lights = rig.setup.lights
    deaf = {at for at, one in enumerate(lights) if one.sends or one.channel not in (None, CHANNEL)}
    return replace(rig, asleep=rig.asleep | deaf)


def really(scene: DrillScene, truth: Truth, rig: Rig) -> Exposed:
    """What a frame gets."""
    return exposed(heard(rig), scene.table, truth, misled_stops=scene.metering_stops)


def answer(scene: DrillScene, ambient: Ambient) -> Rig:
    """The core's own answer for a scene in this ambient, as one who knows the trade has it stand."""
    setup = scene.known
    solved = solved_in(setup, scene.table, ambient, methods_of(setup, ambient, "third"))
    return as_solved(solved, chosen_method(solved))


def trusting(scene: DrillScene) -> Rig:
    """As one sets it who trusts every claim."""
    setup = scene.known
    return answer(scene, ambient_of(setup.ambient, setup.meter_c))


def flash_wanted(frame: Exposed, light: int) -> float:
    """What a light must give [stops from correct], with the ambient that there is; -inf where that is enough."""
    one = frame.rig.setup.lights[light]
    if one.role != "key":
        return one.target_stops
    return float(stops.flash_share(frame.level("lit").ambient, one.target_stops))


def dialled_right(rig: Rig, frame: Exposed) -> Rig:
    """The rig with each dial turned by what its light gives against what it must."""
    for at, light in enumerate(rig.setup.lights):
        wanted, given = flash_wanted(frame, at), frame.alone(at)
        if (
            light.automatic
            or light.unit is None
            or light.dial_stops is None
            or not (math.isfinite(wanted) and math.isfinite(given))
        ):
            continue
        scale = light.unit.scale
        dial = round((light.dial_stops + given - wanted) / scale.step_stops) * scale.step_stops
        rig = rig.with_light(at, dial_stops=min(max(dial, 0.0), scale.dial_range_stops))
    return rig


def knowing(scene: DrillScene, truth: Truth) -> Rig:
    """As one sets it who knows what is really so."""
    setup = scene.known
    rig = answer(scene, truth.ambient(ambient_of(setup.ambient, setup.meter_c)))
    misled = truth.metering_stops + scene.metering_stops
    for at, light in enumerate(rig.setup.lights):
        if light.automatic:
            rig = rig.with_light(at, compensation_stops=round(-misled * 3) / 3)
    for _ in range(TURNS):
        rig = _short_enough(scene, truth, dialled_right(rig, really(scene, truth, rig)))
    return _lasting(scene, truth, rig)


def _short_enough(scene: DrillScene, truth: Truth, rig: Rig) -> Rig:
    """Where motion is to be frozen: down to where the flash is short enough, and ISO for what is then missing."""
    if rig.setup.motion.kind != "freeze":
        return rig
    frame = really(scene, truth, rig)
    least = float(settings_for(frame.solved.table, needed_s(rig.setup)).least[0])
    dial = rig.setup.lights[0].dial_stops or 0.0
    if dial >= least:
        return rig
    return _at_iso(rig.with_light(0, dial_stops=least), math.ceil((least - dial) * 3 - 1e-6) / 3)


def _at_iso(rig: Rig, more: float) -> Rig:
    """With an ISO so many stops higher."""
    return replace(rig, camera=replace(rig.camera, iso=ISOS.marked(ISOS.moved(rig.camera.iso, more), "third")))


def _lasting(scene: DrillScene, truth: Truth, rig: Rig) -> Rig:
    """Where frames have to last: a stop of ISO more, and of the dial less, until they do."""
    unit = rig.setup.lights[0].unit
    if not scene.frames or unit is None:
        return rig
    for _ in range(8):
        frame = really(scene, truth, rig)
        power = float(frame.solved.reach(frame.kind, 0).power[frame.units[0] or 0])
        run = run_of(flash_of(unit, truth.charge_times(unit.name)), power, scene.frames, scene.every_s)
        if run.lit == scene.frames:
            break
        rig = dialled_right(_at_iso(rig, 1.0), really(scene, truth, _at_iso(rig, 1.0)))
    return rig
