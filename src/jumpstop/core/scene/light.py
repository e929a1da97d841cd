"""One light of the setup and its job."""

from typing import Literal, get_args

from pydantic import Field, model_validator

from ..kit.errors import refuse
from ..kit.gel import Gel, GelFigures, GelFor, OwnGel, figures_of
from ..kit.modifier import Modifier
from ..kit.power import SupplyKind
from ..kit.unit import Unit
from ..kit.values import DistanceM, Flag, KitId, Line, Name, Number, RowId, Value, Whole
from .stage import Position

Role = Literal["key", "fill", "rim", "background"]
ROLES: tuple[Role, ...] = get_args(Role)
MOST_LIGHTS = 8  # of one setup
MOST_HEADS = 16  # of one light

USUAL_BEARINGS: dict[Role, float] = {"rim": 150.0}
"""Where a light of a role stands while nobody says it [degrees, the camera at 0]: a rim behind; common practice."""
# Usual levels against a correct exposure [stops]; the key counts the ambient in, the others are flash alone.
# Common practice, no source.
USUAL_TARGETS: dict[Role, float] = {"key": 0.0, "fill": -2.0, "rim": 0.5, "background": 0.0}


class OwnModifier(Modifier):
    """A modifier in a setup: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


class OwnUnit(Unit):
    """A unit taken for a light: the shelf's own by its id, and this copy for when that is gone."""

    id: KitId | None = None


def own_unit(unit: Unit, key: str | None) -> OwnUnit:
    """A unit as a light holds it, known by an id. unit: of the shelf, or another setup's copy."""
    return OwnUnit.model_construct(**{**dict(unit), "id": key})


def own_modifier(modifier: Modifier, key: str | None) -> OwnModifier:
    """A modifier likewise."""
    return OwnModifier.model_construct(**{**dict(modifier), "id": key})


Side = Literal["lit", "shadow", "both", "none"]
USUAL_SIDES: dict[Role, Side] = {"key": "lit", "fill": "both", "rim": "none", "background": "none"}
"""Which side of the subject a light reaches where neither that nor its place is said."""


class Light(Value):
    """One light of the setup and its job.

    unit: the one taken for it; None while the shelf is compared. dial_stops: power where it is fixed [stops below
    full]. distance_free: with the dial fixed, the distance is worked out. relative: whether the level wanted counts
    from a correct exposure, or from the key's. automatic: the unit meters through the lens, with this compensation.
    on: a light that is off is as if it were not there. position: where it stands; None while that does not matter.
    """

    id: RowId = ""
    on: Flag = True
    position: Position | None = None
    channel: Whole | None = Field(None, ge=1, le=99)
    group: Line = ""
    sends: Flag = False
    unit: OwnUnit | None = None
    power_supply: SupplyKind | None = None
    dial_stops: Number | None = Field(None, ge=0, le=13)
    distance_free: Flag = False
    side: Side | None = None
    relative: Literal["correct", "key"] = "correct"
    automatic: Flag = False
    compensation_stops: Number | None = Field(None, ge=-5, le=5)
    fits_anyway: Flag = False
    role: Role = "key"
    distance_m: DistanceM = 2.0
    heads: Whole = Field(1, ge=1, le=MOST_HEADS)
    pops: Whole = Field(1, ge=1, le=100)
    modifier: OwnModifier | None = None
    layers: tuple[Name, ...] | None = Field(None, max_length=8)
    gel: Gel = "none"
    gel_for: GelFor = "match"
    own_gel: OwnGel | None = None
    wide_panel: Flag = False
    zoom_mm: Number | None = Field(None, ge=8, le=800)
    target_stops: Number = Field(0.0, ge=-6, le=4)

    @property
    def zoomed(self) -> bool:
        """Whether the head's own beam counts: bare, or behind a modifier that asks for a zoomed head."""
        return self.modifier is None or self.modifier.needs_zoom_head

    @property
    def sides(self) -> Side:
        """Which side of the subject it reaches: as said, else as usual for its role."""
        return USUAL_SIDES[self.role] if self.side is None else self.side

    @property
    def filtered(self) -> GelFigures:
        """What its gel does."""
        return figures_of(self.gel, self.own_gel)

    @property
    def gel_name(self) -> str:
        """Its gel's key, or the name of the person's own."""
        return self.own_gel.name if self.gel == "own" and self.own_gel else self.gel

    @model_validator(mode="after")
    def _layers_exist(self) -> "Light":
        if self.gel == "own" and self.own_gel is None:
            raise refuse("own_gel_missing")
        if not self.layers:
            return self
        if self.modifier is None:
            raise refuse("layers_without_modifier")
        known = {layer.name for layer in self.modifier.layers}
        unknown = next((name for name in self.layers if name not in known), None)
        if unknown is not None:
            raise refuse("unknown_layer", modifier=self.modifier.name, layer=unknown, known=sorted(known))
        return self
