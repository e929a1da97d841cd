"""What the camera's own automatics would choose here, and what comes of it: they aim at a correct background."""

from dataclasses import dataclass
from typing import Literal

from ...physics import exposure
from ...physics.scales import APERTURES, ISOS, SHUTTERS, at_least
from ...scene.camera import CameraSettings
from ...scene.setup import Setup
from .ambient import Ambient

PROGRAMME_F = 5.6  # the aperture that a programme keeps to where it can; varies by camera, from memory


@dataclass(frozen=True)
class Automatic:
    """One of the camera's automatics: the settings it would choose, and what is wrong with them here.

    past_sync: the time is too short for the flash. off_stops: the background against what was wanted.
    """

    mode: Literal["aperture_priority", "shutter_priority", "programme", "auto_iso"]
    camera: CameraSettings
    past_sync: bool
    off_stops: float


def automatics(setup: Setup, ambient: Ambient) -> list[Automatic]:
    """Aperture priority, shutter priority at sync, programme, and auto ISO at sync, each without compensation."""
    aim, body, ev = setup.aim, setup.body, ambient.background_ev
    (widest, smallest), programme = setup.apertures, min(max(PROGRAMME_F, setup.apertures[0]), setup.apertures[1])
    wanted_ev = ev - aim.background_stops

    def time_at(f_number: float, iso: float) -> float:
        exact = float(exposure.shutter_for(ev, APERTURES.exact(f_number), ISOS.exact(iso)))
        top = body.top_speed_s if body.shutter == "focal_plane" else setup.fastest_flash_s(f_number)
        return SHUTTERS.marked(min(max(exact, top), 30.0), "third")

    def aperture_at(time: float, iso: float) -> float:
        exact = float(exposure.aperture_for(ev, SHUTTERS.exact(time), ISOS.exact(iso)))
        return APERTURES.marked(min(max(exact, widest), float(APERTURES.exact(smallest))), "third")

    def made(mode: str, f_number: float, time: float, iso: float) -> Automatic:
        camera = CameraSettings(f_number, time, iso)
        past = not at_least(time, setup.fastest_flash_s(f_number))
        return Automatic(mode, camera, past, wanted_ev - camera.ev)  # type: ignore[arg-type]

    sync = setup.fastest_flash_s(setup.f_number)
    speed = ISOS.marked(
        float(ISOS.exact(100))
        * 2 ** float(exposure.av(APERTURES.exact(setup.f_number)) + exposure.tv(SHUTTERS.exact(sync)) - ev)
    )
    return [
        made("aperture_priority", setup.f_number, time_at(setup.f_number, aim.iso), aim.iso),
        made("shutter_priority", aperture_at(sync, aim.iso), sync, aim.iso),
        made("programme", programme, time_at(programme, aim.iso), aim.iso),
        made("auto_iso", setup.f_number, sync, min(max(speed, body.iso_min), body.iso_max)),
    ]
