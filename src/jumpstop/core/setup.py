"""The setup: what the photographer asks for, as one open, versioned document."""

from typing import Literal

from pydantic import ConfigDict, Field, model_validator

from .camera import Body, Filter
from .exposure import APERTURES, METER_C_FLAT
from .light import There
from .modifiers import Gel, Modifier, layers_on
from .motion import Motion
from .optics import Blur, f_number_for_blur
from .values import DistanceM, FNumber, Iso, Name, Note, Value

WayKind = Literal["sync", "nd", "hss", "leaf", "stop_down", "freeze", "slow", "past_sync"]
Orientation = Literal["landscape", "grip_up", "grip_down"]
WIDEST, SMALLEST = 1.0, 22.0  # apertures that lenses commonly have


class Look(Value):
    """How the picture should look."""

    by: Literal["aperture", "blur"] = Field("aperture", title="Look said by")
    f_number: FNumber = 2.8
    blur: Blur | None = Field(None, title="Lens and distances")
    background_stops: float = Field(-1.0, ge=-8, le=4, title="Background (stops from correct)")
    iso: Iso = Field(100, title="ISO")
    iso_floor: Iso | None = Field(None, title="Lowest ISO wanted")
    iso_ceiling: Iso | None = Field(None, title="Highest ISO wanted")
    orientation: Orientation = Field("landscape", title="Landscape or upright")

    @model_validator(mode="after")
    def _agrees(self) -> "Look":
        if self.by == "blur" and self.blur is None:
            raise ValueError("Say the focal length and the distances, so that the blur can be reckoned.")
        if self.iso_floor is not None and self.iso_floor > self.iso:
            raise ValueError(f"The lowest ISO wanted ({self.iso_floor:g}) is above the ISO set ({self.iso:g}).")
        if self.iso_ceiling is not None and self.iso_ceiling < self.iso:
            raise ValueError(f"The highest ISO wanted ({self.iso_ceiling:g}) is below the ISO set ({self.iso:g}).")
        return self


class Light(Value):
    """One light of the setup and its job."""

    role: Literal["key", "fill", "rim", "background"] = Field("key", title="Role")
    distance_m: DistanceM = 2.0
    heads: int = Field(1, ge=1, le=16, title="Equal heads")
    modifier: Modifier | None = None
    layers: tuple[str, ...] | None = Field(None, max_length=8, title="Layers on")
    gel: Gel = Field("none", title="Gel")
    zoom_mm: float | None = Field(None, ge=8, le=800, title="Zoom position (mm)")
    target_stops: float = Field(0.0, ge=-6, le=4, title="Level wanted (stops)")

    @model_validator(mode="after")
    def _layers_exist(self) -> "Light":
        if self.layers and self.modifier is None:
            raise ValueError("Layers were named, but there is no modifier.")
        if self.modifier is not None:
            layers_on(self.modifier, self.layers)
        return self


class Setup(Value):
    """One picture to be lit. Distances in metres, times in seconds, apertures, times and ISOs as marked."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [
                {
                    "format": "jumpstop-setup",
                    "version": 1,
                    "name": "Noon portrait",
                    "there": {"by": "condition", "condition": "distinct_shadows", "subject": "back"},
                    "look": {"f_number": 2.8, "background_stops": -1, "iso": 100},
                    "body": {"name": "Cliff 36", "sync_s": 0.004, "top_speed_s": 0.000125},
                    "filters": [{"name": "ND 3 stops", "stops": 3}],
                    "lights": [{"role": "key", "distance_m": 1.8}],
                    "frames": 240,
                }
            ]
        }
    )

    format: Literal["jumpstop-setup"] = "jumpstop-setup"
    version: Literal[1] = 1
    name: Name = "A setup"
    note: Note = ""
    there: There = There()
    look: Look = Look()
    motion: Motion = Motion()
    body: Body = Body(name="A body")
    filters: tuple[Filter, ...] = Field((), max_length=20, title="ND filters")
    lights: tuple[Light, ...] = Field((Light(),), min_length=1, max_length=8, title="Lights")
    trigger: Literal["radio", "shoe"] = Field("radio", title="Trigger")
    silent: bool = Field(False, title="Silent shutter")
    way: WayKind | None = Field(None, title="Way")
    source: Literal["aa", "lithium", "external", "mains"] | None = Field(None, title="Power source")
    frames: int = Field(200, ge=1, le=1_000_000, title="Frames")
    meter_c: float = Field(METER_C_FLAT, ge=100, le=500, title="Meter constant C (lx s)")

    @property
    def f_number(self) -> float:
        """The aperture wanted, as marked; where a blur is wanted, the one that gives it."""
        if self.look.by == "aperture" or self.look.blur is None:
            return self.look.f_number
        exact = f_number_for_blur(self.look.blur, self.body.frame_width_mm)
        return APERTURES.marked(min(max(exact, WIDEST), SMALLEST), "third", "down")

    def fastest_flash_s(self, f_number: float) -> float:
        """The shortest time [s] at which one pop reaches the whole frame, with the trigger and shutter in use."""
        return self.body.fastest_flash_s(f_number, self.trigger == "radio", self.silent)
