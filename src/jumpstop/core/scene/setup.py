"""The setup: what the photographer asks for, as one open, versioned document."""

from typing import Literal

from pydantic import ConfigDict, Field, field_validator

from ..kit.body import Body
from ..kit.filter import Filter
from ..kit.lens import LensKit
from ..kit.power import SupplyKind
from ..kit.trigger import Trigger
from ..kit.values import Flag, KitId, Name, Note, Number, ShutterS, Value, Whole, with_ids
from ..physics.exposure import METER_C_FLAT
from ..physics.optics import f_number_for_disc
from ..physics.scales import APERTURES
from .aim import ExposureAim, Lens, Motion, Orientation
from .ambient import AmbientSpec
from .light import MOST_LIGHTS, Light
from .seen import MethodKind, Seen
from .stage import Stage

WIDEST, SMALLEST = 1.0, 22.0  # apertures that lenses commonly have, as marked
WORTH_SHARE = 0.01  # background disc as a share of the frame's long side that is worth having; common practice


class OwnBody(Body):
    """A body in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class OwnFilter(Filter):
    """A filter in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class OwnLens(LensKit):
    """A lens in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class OwnTrigger(Trigger):
    """A trigger in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class FixedNd(Value):
    """Neutral density that is on: filters of the bag by name (none: no filter), and what they take as turned."""

    filters: tuple[Name, ...] = Field((), max_length=4)
    stops: Number = Field(0.0, ge=0, le=40)


class Fixed(Value):
    """Figures of the camera that are set and stay so; what is free is worked out: shutter, ND, ISO, aperture.

    Aperture, ISO and background are fixed at what the aim says.
    """

    aperture: Flag = False
    iso: Flag = False
    background: Flag = False
    shutter_s: ShutterS | None = None
    nd: FixedNd | None = None


class Variant(Value):
    """The same picture another way (tight, full length, seated, a pair): what stands where, and through which lens."""

    name: Name
    orientation: Orientation = "landscape"
    lens: Lens | None = None
    stage: Stage = Stage()
    lights: tuple[Light, ...] = Field(min_length=1, max_length=MOST_LIGHTS)

    _ids = field_validator("lights")(with_ids)


class Setup(Value):
    """One picture to be lit. Distances in metres, times in seconds, apertures, times and ISOs as marked."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [
                {
                    "format": "jumpstop-setup",
                    "version": 2,
                    "name": "Noon portrait",
                    "ambient": {"by": "condition", "condition": "distinct_shadows", "subject": "back"},
                    "aim": {"f_number": 2.8, "background_stops": -1, "iso": 100},
                    "body": {"name": "Cliff 36", "sync_s": 0.004, "top_speed_s": 0.000125},
                    "filters": [{"name": "ND 3 stops", "stops": 3}],
                    "lights": [{"role": "key", "distance_m": 1.8}],
                    "frames": 240,
                }
            ]
        }
    )

    format: Literal["jumpstop-setup"] = "jumpstop-setup"
    version: Literal[2] = 2
    name: Name = "A setup"
    note: Note = ""
    ambient: AmbientSpec = AmbientSpec()
    aim: ExposureAim = ExposureAim()
    motion: Motion = Motion()
    body: OwnBody = OwnBody(name="A body")
    lens: OwnLens | None = None
    filters: tuple[OwnFilter, ...] = Field((), max_length=20)
    lights: tuple[Light, ...] = Field((Light(id="1"),), min_length=1, max_length=MOST_LIGHTS)
    stage: Stage = Stage()
    variants: tuple[Variant, ...] = Field((), max_length=12)
    triggers: tuple[OwnTrigger, ...] = Field((), max_length=8)
    trigger: Literal["radio", "optical", "shoe"] = "radio"
    silent: Flag = False
    method: MethodKind | None = None
    fixed: Fixed = Fixed()
    seen: tuple[Seen, ...] = Field((), max_length=60)
    power_supply: SupplyKind | None = None
    frames: Whole = Field(200, ge=1, le=1_000_000)
    meter_c: Number = Field(METER_C_FLAT, ge=100, le=500)

    _ids = field_validator("lights")(with_ids)

    @property
    def apertures(self) -> tuple[float, float]:
        """(widest, smallest) aperture of the lens that is on, as marked; what lenses commonly have where none is."""
        if self.lens is None:
            return WIDEST, SMALLEST
        focal = self.aim.lens.focal_mm if self.aim.lens else self.lens.focal_mm
        return APERTURES.marked(self.lens.widest_at(focal), "third"), self.lens.smallest

    @property
    def f_number(self) -> float:
        """The aperture wanted, as marked, as far as the lens has it; where a blur is wanted, the one that gives it."""
        lens, (widest, smallest) = self.aim.lens, self.apertures
        if self.aim.by == "aperture" or lens is None:
            return self.aim.f_number if self.lens is None else min(max(self.aim.f_number, widest), smallest)
        disc_mm = (lens.wanted_share or WORTH_SHARE) * self.body.frame_width_mm
        exact = float(f_number_for_disc(lens.focal_mm, lens.subject_m, lens.background_m, disc_mm))
        return APERTURES.marked(min(max(exact, widest), float(APERTURES.exact(smallest))), "third", "down")

    @property
    def steadied_stops(self) -> float:
        """What stabilisers of lens and body give by hand [stops]: the better of the two."""
        return max(self.body.stabiliser_stops, self.lens.stabiliser_stops if self.lens else 0.0)

    @property
    def iso_range(self) -> tuple[float, float]:
        """Lowest and highest ISO that the body has and the person allows."""
        body, aim = self.body, self.aim
        return max(body.iso_min, aim.iso_floor or body.iso_min), min(body.iso_max, aim.iso_ceiling or body.iso_max)

    def fed_by(self, light: Light) -> SupplyKind | None:
        """The kind of supply that a light's unit is fed by: the light's own, else the setup's; None: its usual one."""
        return light.power_supply or self.power_supply

    def fastest_flash_s(self, f_number: float) -> float:
        """The shortest time [s] at which one pulse reaches the whole frame, with the trigger and shutter in use."""
        return self.body.fastest_flash_s(f_number, self.trigger == "radio", self.silent)

    def in_variant(self, name: str) -> "Setup":
        """The setup as one of its variants; as it stands where there is none of that name."""
        found = next((one for one in self.variants if one.name == name), None)
        if found is None:
            return self
        aim = self.aim.model_copy(update={"orientation": found.orientation, "lens": found.lens or self.aim.lens})
        return self.model_copy(update={"aim": aim, "stage": found.stage, "lights": found.lights})
