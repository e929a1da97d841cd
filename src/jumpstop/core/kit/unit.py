"""Flash units: what the maker claims, how it is dialled and fed, how long its flash lasts."""

from typing import Literal

from pydantic import ConfigDict, Field, model_validator

from ..physics.beam import REFERENCE_ZOOM_MM, coverage_deg
from ..physics.guide_number import in_metres
from .errors import refuse
from .modifier import Modifier, UnitKind, fits_unit
from .power import PowerScale, PowerSupply
from .values import Flag, Iso, Line, Name, Note, Number, Price, ShutterS, Spread, Value, Weight, Whole

HSS_EXTRA = 0.5  # what a unit loses in HSS beyond geometry [stops], from memory; one reading replaces it
TABLE_TRAVEL_S = 1 / 250  # curtain travel of the body that an HSS table was taken on, unless said


class Claim(Value):
    """One guide number with its whole basis."""

    guide_number: Number = Field(ge=0.5, le=2000)
    unit: Literal["m", "ft"]
    iso: Iso = 100
    zoom_mm: Number | None = Field(None, ge=8, le=800)
    coverage_deg: Number | None = Field(None, ge=2, le=180)
    reflector: Line = ""
    measured: Flag = False
    sd: Spread | None = None

    @property
    def guide_number_m(self) -> float:
        """Guide number in metres at ISO 100, at its own coverage."""
        return float(in_metres(self.guide_number, self.iso, self.unit == "ft"))

    @property
    def angle_deg(self) -> float | None:
        """Diagonal coverage [degrees] it was quoted at, or None where that was not said."""
        if self.coverage_deg is not None:
            return self.coverage_deg
        return None if self.zoom_mm is None else float(coverage_deg(self.zoom_mm))


class HssEntry(Value):
    """One line of a published or measured HSS table."""

    shutter_s: Number = Field(ge=1 / 100000, le=1)
    loss_stops: Number = Field(ge=0, le=12)


class Hss(Value):
    """High-speed sync: the unit's own extra loss beyond plain geometry, or its table, which belongs to a body."""

    extra_stops: Number = Field(HSS_EXTRA, ge=-2, le=6)
    measured: Flag = False
    table: tuple[HssEntry, ...] = Field((), max_length=40)
    travel_s: ShutterS = TABLE_TRAVEL_S
    by_itself: Flag = False


class DurationEntry(Value):
    """Flash duration at one power setting."""

    power: Number = Field(ge=1 / 8192, le=1)
    seconds: Number = Field(ge=1e-6, le=0.1)


class FlashDuration(Value):
    """How long the flash lasts, by power."""

    shape: Literal["cut", "tail"] = "cut"
    measure: Literal["t.1", "t.5"] = "t.1"
    table: tuple[DurationEntry, ...] = Field(min_length=1, max_length=40)


class Heat(Value):
    """How many full-power flashes a unit bears in a row, and how long it then must rest; in HSS it warms faster."""

    full_flashes: Number = Field(ge=1, le=10_000)
    rest_s: Number = Field(ge=1, le=7200)
    hss_times: Number = Field(2.0, ge=1, le=10)


class Unit(Value):
    """A flash unit as it stands on the shelf."""

    model_config = ConfigDict(
        json_schema_extra={
            "examples": [
                {
                    "name": "Redshank 60",
                    "kind": "shoe",
                    "watt_seconds": 80,
                    "claims": [{"guide_number": 60, "unit": "m", "iso": 100, "zoom_mm": 200}],
                    "power_supplies": [{"kind": "lithium", "recycle_full_s": 1.5, "full_flashes": 480}],
                    "hss": {"extra_stops": 0.3},
                }
            ]
        }
    )

    name: Name
    kind: UnitKind = "shoe"
    watt_seconds: Number | None = Field(None, ge=0.1, le=50_000)
    claims: tuple[Claim, ...] = Field((), max_length=40)
    zoom_min_mm: Number | None = Field(None, ge=8, le=800)
    zoom_max_mm: Number | None = Field(None, ge=8, le=800)
    scale: PowerScale = PowerScale()
    power_supplies: tuple[PowerSupply, ...] = Field((), max_length=8)
    hss: Hss | None = None
    flash_duration: FlashDuration | None = None
    heat: Heat | None = None
    shoe: Line = ""
    mount: Line = ""
    takes_modifiers: Flag = True
    weight_g: Weight | None = None
    group_how: Line = ""
    own_radio: Flag | None = None
    standby_w: Number | None = Field(None, ge=0, le=200)
    head_g: Weight | None = None
    price: Price | None = None
    holding: Literal["owned", "hire", "wanted"] = "owned"
    count: Whole = Field(1, ge=1, le=99)
    typical: Flag = False
    note: Note = ""

    @property
    def widest_mm(self) -> float | None:
        """Widest zoom: as said, else the widest it is quoted at, 35 mm at the most; None without a zoom head."""
        if self.zoom_min_mm is not None or self.zoom_max_mm is None:
            return self.zoom_min_mm
        quoted = [claim.zoom_mm for claim in self.claims if claim.zoom_mm]
        return min([REFERENCE_ZOOM_MM, self.zoom_max_mm, *quoted])

    def takes(self, modifier: Modifier) -> bool:
        """Whether a modifier can be used on it: it takes any, this one goes on, and zooms where that has to."""
        zooms = self.zoom_max_mm is not None or not modifier.needs_zoom_head
        return self.takes_modifiers and zooms and fits_unit(modifier, self.kind, self.name, self.mount)

    @model_validator(mode="after")
    def _has_light(self) -> "Unit":
        if not self.claims and self.watt_seconds is None:
            raise refuse("unit_without_light", name=self.name)
        if self.zoom_min_mm and self.zoom_max_mm and self.zoom_min_mm > self.zoom_max_mm:
            raise refuse("zoom_reversed", name=self.name, widest=self.zoom_min_mm)
        return self
