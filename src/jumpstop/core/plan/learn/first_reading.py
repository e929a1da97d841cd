"""A unit whose guide number nobody knows: from a flash meter, a test frame, its own range table, or beside another."""

import math
from typing import Literal

from pydantic import Field, model_validator

from ...kit.errors import CannotSolve, refuse
from ...kit.modifier import UnitKind
from ...kit.table import table_of
from ...kit.unit import Claim, Unit
from ...kit.values import FNumber, Iso, Name, Number, Value, example
from ...physics.beam import REFERENCE_ZOOM_MM
from ...physics.guide_number import guide_number_of_stops, stops_of_guide_number
from ...scene.ambient import AmbientSpec
from ...scene.camera import CameraSettings
from ...scene.light import Light, OwnUnit
from ...scene.seen import SD_METER, SD_PATCH
from ...scene.setup import Setup
from ..camera.ambient import ambient_of
from ..camera.methods import Method
from ..light.chain import NEEDS, chain_of
from ..light.jump import pick, spread, total
from ..light.scene import Scene

SD_RANGE = 0.4  # a range table of an automatic unit, rounded to a maker's liking [stops], from memory
LEAST_GN, MOST_GN = 0.5, 2000.0  # no flash gives less or more [m, ISO 100]
GUESS_GN = 36.0  # any would do: only its distance from the reading counts
RATED: frozenset[str] = frozenset({"rated_output", "zoom"})


class FirstReading(Value):
    """What is known of a unit.

    By a meter: "full, 2 m, octa: f/8". By a frame: the same, with how its patch came out. By its range: the farthest
    distance that its own table gives for an aperture at an ISO, bare. By a unit: how much more it gives at its power
    than another at full, side by side: "same as the 400 at half" is -1.
    """

    model_config = example(name="Nobody's", light={"distance_m": 2}, f_number=8)

    name: Name
    kind: UnitKind = "shoe"
    power: Number = Field(1.0, ge=1 / 8192, le=1)
    light: Light = Light()
    f_number: FNumber = 8.0
    iso: Iso = 100
    by: Literal["meter", "frame", "range", "unit"] = "meter"
    stops: Number = Field(0.0, ge=-12, le=12)
    like: OwnUnit | None = None

    @model_validator(mode="after")
    def _is_like_one(self) -> "FirstReading":
        if self.by == "unit" and self.like is None:
            raise refuse("like_nothing", name=self.name)
        return self


def unit_of_reading(reading: FirstReading) -> Unit:
    """The unit, rated so that its chain gives the reading; its doubt is the reading's and that of what stood before it.

    Raises CannotSolve where no flash gives that. The reading is of the flash alone. Coverage: that of 35 mm, or of the
    zoom position said.
    """
    if reading.by == "unit" and reading.like is not None:
        return _beside(reading, reading.like)
    guess = Claim(guide_number=GUESS_GN, unit="m", zoom_mm=reading.light.zoom_mm or REFERENCE_ZOOM_MM, sd=0.0)
    unit = Unit(name=reading.name, kind=reading.kind, claims=(guess,))
    setup = Setup(lights=(reading.light.model_copy(update={"role": "fill", "unit": None}),))
    table = table_of([unit])
    camera = Method("sync", CameraSettings(reading.f_number, 1 / 60, reading.iso))
    scene = Scene(setup, table, ambient_of(AmbientSpec(condition="dark")), (camera,), None)
    chain = tuple(jump for jump in chain_of(scene) if jump.effect not in NEEDS and jump.effect != "tail")
    at = (0, 0, 0, 0)
    off = pick(total(chain), at) + math.log2(reading.power) - (reading.stops if reading.by == "frame" else 0.0)
    doubt = pick(spread(tuple(jump for jump in chain if jump.effect not in RATED)), at)
    rated = float(stops_of_guide_number(GUESS_GN)) - off
    own = {"meter": SD_METER, "frame": SD_PATCH, "range": SD_RANGE}[reading.by]
    return unit.model_copy(update={"claims": (_rated(guess, rated, math.hypot(doubt, own), reading.by != "range"),)})


def _beside(reading: FirstReading, like: Unit) -> Unit:
    """A unit that gives so many stops more at its power than another at full."""
    table = table_of([like])
    rated = float(table.rated[0]) + reading.stops - math.log2(reading.power)
    guess = Claim(guide_number=GUESS_GN, unit="m", zoom_mm=REFERENCE_ZOOM_MM, sd=0.0)
    claim = _rated(guess, rated, math.hypot(float(table.rated_sd[0]), SD_METER), True)
    return Unit(name=reading.name, kind=reading.kind, claims=(claim,))


def _rated(guess: Claim, rated_stops: float, sd: float, measured: bool) -> Claim:
    """The claim that a unit so rated has. Raises CannotSolve where no flash gives that."""
    rated = float(guide_number_of_stops(rated_stops))
    if not LEAST_GN <= rated <= MOST_GN:
        raise CannotSolve("no_such_light_output", guide_number=rated)
    return guess.model_copy(
        update={"guide_number": float(f"{rated:.3g}"), "measured": measured, "sd": round(min(sd, 2.0), 2)}
    )
