"""One light of the setup and its job."""

from typing import Literal, get_args

from pydantic import Field, model_validator

from ..kit.errors import refuse
from ..kit.modifier import Gel, Modifier
from ..kit.values import DistanceM, KitId, Name, Number, Value, Whole

Role = Literal["key", "fill", "rim", "background"]
ROLES: tuple[Role, ...] = get_args(Role)

# Usual levels against a correct exposure [stops]; the key counts the ambient in, the others are flash alone.
# Common practice, no source.
USUAL_TARGETS: dict[Role, float] = {"key": 0.0, "fill": -2.0, "rim": 0.5, "background": 0.0}


class OwnModifier(Modifier):
    """A modifier in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class Light(Value):
    """One light of the setup and its job."""

    role: Role = Field("key", title="Role")
    distance_m: DistanceM = 2.0
    heads: Whole = Field(1, ge=1, le=16, title="Equal heads")
    modifier: OwnModifier | None = None
    layers: tuple[Name, ...] | None = Field(None, max_length=8, title="Layers on")
    gel: Gel = Field("none", title="Gel")
    zoom_mm: Number | None = Field(None, ge=8, le=800, title="Zoom position (mm)")
    target_stops: Number = Field(0.0, ge=-6, le=4, title="Level wanted (stops)")

    @model_validator(mode="after")
    def _layers_exist(self) -> "Light":
        if not self.layers:
            return self
        if self.modifier is None:
            raise refuse("layers_without_modifier")
        known = {layer.name for layer in self.modifier.layers}
        unknown = next((name for name in self.layers if name not in known), None)
        if unknown is not None:
            raise refuse("unknown_layer", modifier=self.modifier.name, layer=unknown, known=sorted(known))
        return self
