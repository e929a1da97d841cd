"""A unit whose guide number nobody knows, from one reading of a flash meter."""

import math

from pydantic import Field

from ...kit.errors import CannotSolve
from ...kit.modifier import UnitKind
from ...kit.table import table_of
from ...kit.unit import Claim, Unit
from ...kit.values import FNumber, Iso, Name, Number, Value, example
from ...physics.beam import REFERENCE_ZOOM_MM
from ...physics.guide_number import guide_number_of_stops, stops_of_guide_number
from ...scene.ambient import AmbientSpec
from ...scene.camera import CameraSettings
from ...scene.light import Light
from ...scene.seen import SD_METER
from ...scene.setup import Setup
from ..camera.ambient import ambient_of
from ..camera.methods import Method
from ..light.chain import NEEDS, chain_of
from ..light.jump import pick, spread, total
from ..light.scene import Scene

LEAST_GN, MOST_GN = 0.5, 2000.0  # no flash gives less or more [m, ISO 100]
GUESS_GN = 36.0  # any would do: only its distance from the reading counts
RATED: frozenset[str] = frozenset({"rated_output", "zoom"})


class FirstReading(Value):
    """What a flash meter read of a unit: "full, 2 m, octa: f/8"."""

    model_config = example(name="Nobody's", light={"distance_m": 2}, f_number=8)

    name: Name
    kind: UnitKind = "shoe"
    power: Number = Field(1.0, ge=1 / 8192, le=1, title="Power (share of full)")
    light: Light = Light()
    f_number: FNumber = 8.0
    iso: Iso = 100


def unit_of_reading(reading: FirstReading) -> Unit:
    """The unit, rated so that its chain gives the reading; its doubt is the reading's and that of what stood before it.

    Raises CannotSolve where no flash gives that. The reading is of the flash alone. Coverage: that of 35 mm, or of the
    zoom position said.
    """
    guess = Claim(guide_number=GUESS_GN, unit="m", zoom_mm=reading.light.zoom_mm or REFERENCE_ZOOM_MM, sd=0.0)
    unit = Unit(name=reading.name, kind=reading.kind, claims=(guess,))
    setup = Setup(lights=(reading.light.model_copy(update={"role": "fill", "target_stops": 0.0, "unit": None}),))
    table = table_of([unit])
    camera = Method("sync", CameraSettings(reading.f_number, 1 / 60, reading.iso))
    scene = Scene(setup, table, ambient_of(AmbientSpec(condition="dark")), (camera,), None)
    chain = tuple(jump for jump in chain_of(scene) if jump.effect not in NEEDS and jump.effect != "tail")
    at = (0, 0, 0, 0)
    off = pick(total(chain), at) + math.log2(reading.power)
    doubt = pick(spread(tuple(jump for jump in chain if jump.effect not in RATED)), at)
    rated = float(guide_number_of_stops(stops_of_guide_number(GUESS_GN) - off))
    if not LEAST_GN <= rated <= MOST_GN:
        raise CannotSolve("no_such_light_output", guide_number=rated)
    claim = guess.model_copy(
        update={
            "guide_number": float(f"{rated:.3g}"),
            "measured": True,
            "sd": round(math.hypot(doubt, SD_METER), 2),
        }
    )
    return unit.model_copy(update={"claims": (claim,)})
