"""The setup: what the photographer asks for, as one open, versioned document."""

from typing import Literal

from pydantic import ConfigDict, Field, model_validator

from .camera import Body, Filter
from .exposure import METER_C_FLAT
from .light import There
from .modifiers import Gel, Modifier, layers_on
from .values import DistanceM, FNumber, Iso, Name, Note, Value

WayKind = Literal["sync", "nd", "hss", "leaf", "stop_down"]


class Look(Value):
    """How the picture should look."""

    f_number: FNumber = 2.8
    background_stops: float = Field(-1.0, ge=-8, le=4, title="Background (stops from correct)")
    iso: Iso = Field(100, title="ISO")


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
    body: Body = Body(name="A body")
    filters: tuple[Filter, ...] = Field((), max_length=20, title="ND filters")
    lights: tuple[Light, ...] = Field((Light(),), min_length=1, max_length=8, title="Lights")
    way: WayKind | None = Field(None, title="Way")
    source: Literal["aa", "lithium", "external", "mains"] | None = Field(None, title="Power source")
    frames: int = Field(200, ge=1, le=1_000_000, title="Frames")
    meter_c: float = Field(METER_C_FLAT, ge=100, le=500, title="Meter constant C (lx s)")
