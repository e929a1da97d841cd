"""What a page needs to know before any setup: marked values, choices with their words, bounds, blank documents."""

from collections.abc import Sequence
from datetime import datetime
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin

from annotated_types import Ge, Le
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from ..core.kit.body import Body, LeafLimit
from ..core.kit.filter import Filter
from ..core.kit.gel import OwnGel
from ..core.kit.lens import LensKit
from ..core.kit.modifier import Face, Layer, Modifier
from ..core.kit.power import SUPPLY_KINDS, PowerScale, PowerSupply
from ..core.kit.stand import Stand
from ..core.kit.trigger import Battery, Trigger
from ..core.kit.unit import Claim, DurationEntry, FlashDuration, Heat, Hss, HssEntry, Unit
from ..core.physics import scales
from ..core.physics.beam import ZOOMS_MM
from ..core.physics.light_values import LIGHT_VALUES
from ..core.physics.scales import Step
from ..core.physics.units import FEET_PER_METRE
from ..core.plan.learn.first_reading import FirstReading
from ..core.plan.light.chain import TICKS
from ..core.scene.aim import ExposureAim, Lens, Motion
from ..core.scene.ambient import AmbientSpec, Panel, Reading
from ..core.scene.job import Batteries, Brief, Job, Session
from ..core.scene.light import USUAL_BEARINGS, USUAL_TARGETS, Light
from ..core.scene.log import SD_AMBIENT, LogEntry
from ..core.scene.place import Place
from ..core.scene.seen import SD_OF, Seen
from ..core.scene.setup import Fixed, FixedNd, Setup
from ..core.scene.stage import Position, Stage, SubjectTone
from ..store.rows import KIT
from ..words.effects import TICKS as TICK_NAMES
from ..words.figures import f_number, marked
from ..words.kit import CONDITIONS, GELS, MOVERS, ROLES, SKIES, SKINS, SUPPLIES, TONES
from .documents import ONE
from .schemas import Blank, MeterMark, RoleOut, Scales

FOCALS_MM = (14, 16, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200, 300, 400, 600)
BOUNDED: tuple[type[BaseModel], ...] = (
    Setup, AmbientSpec, Reading, Place, Panel, ExposureAim, Lens, Motion, Light, Seen, Fixed, FixedNd, OwnGel, Stage,
    Position, SubjectTone, Job, Brief, Session, Batteries, FirstReading,
)  # fmt: skip
"""Documents whose figures are typed where they stand."""
FORMS: dict[str, BaseModel] = {
    "Claim": Claim(guide_number=36, unit="m"),
    "PowerScale": PowerScale(),
    "PowerSupply": PowerSupply(recycle_full_s=3),
    "Hss": Hss(),
    "Heat": Heat(full_flashes=50, rest_s=600),
    "HssEntry": HssEntry(shutter_s=1 / 1000, loss_stops=2.8),
    "FlashDuration": FlashDuration(table=(DurationEntry(power=1, seconds=1 / 1000),)),
    "DurationEntry": DurationEntry(power=1, seconds=1 / 1000),
    "Layer": Layer(name="diffuser", stops=-1),
    "Face": Face(width_m=0.9),
    "LeafLimit": LeafLimit(f_number=2.8, fastest_s=1 / 1000),
}
UNNAMED: dict[str, dict[str, Any]] = {
    "units": Unit(name="-", watt_seconds=1).model_dump(mode="json") | {"name": "", "watt_seconds": None},
    "modifiers": Modifier(name="-").model_dump(mode="json") | {"name": ""},
    "bodies": Body(name="-").model_dump(mode="json") | {"name": ""},
    "lenses": LensKit(name="-").model_dump(mode="json") | {"name": ""},
    "filters": Filter(name="-", stops=3).model_dump(mode="json") | {"name": ""},
    "triggers": Trigger(name="-").model_dump(mode="json") | {"name": ""},
    "batteries": Battery(name="-", fits="-").model_dump(mode="json") | {"name": "", "fits": ""},
    "stands": Stand(name="-").model_dump(mode="json") | {"name": ""},
}


def bounds_of(model: type[BaseModel]) -> dict[str, tuple[float, float]]:
    """Lowest and highest value of each number of a document that has both."""
    found = {name: _ends(field.metadata, field.annotation) for name, field in model.model_fields.items()}
    return {
        name: (low, high)
        for name, (low, high) in found.items()
        if isinstance(low, int | float) and isinstance(high, int | float)
    }


def _ends(metadata: Sequence[Any], annotation: Any) -> tuple[object, object]:
    """The bounds of a field, where they stand: on it, or on one of the types that it may be."""
    inside = [one for one in metadata if isinstance(one, FieldInfo)]
    told = [*metadata, *(more for one in inside for more in one.metadata)]
    low = next((one.ge for one in told if isinstance(one, Ge)), None)
    high = next((one.le for one in told if isinstance(one, Le)), None)
    if low is not None or high is not None:
        return low, high
    if get_origin(annotation) is Annotated:
        of, *more = get_args(annotation)
        return _ends(more, of)
    if get_origin(annotation) in (Union, UnionType):
        ends = (_ends((), one) for one in get_args(annotation))
        return next((one for one in ends if one != (None, None)), (None, None))
    return None, None


def meter_marks() -> list[MeterMark]:
    """What a flash meter can show, from the widest on: the marks in thirds, and full stops with their tenths."""
    marks = scales.APERTURES
    found = {mark: f_number(mark) for mark in marks.steps["third"]}
    for full in marks.steps["full"]:
        for tenth in range(1, 10):
            exact = marks.moved(full, tenth / 10)
            found.setdefault(round(exact, 2), f"f/{marked(exact)}")
    return [MeterMark(f_number=value, says=found[value]) for value in sorted(found)]


def scales_of(step: Step) -> Scales:
    """All of it, with the scales in the person's own steps."""
    return Scales(
        apertures=list(scales.APERTURES.steps[step]),
        shutters=list(scales.SHUTTERS.steps[step]),
        isos=list(scales.ISOS.steps[step]),
        meter=meter_marks(),
        focals_mm=list(FOCALS_MM),
        zooms_mm=list(ZOOMS_MM),
        feet_per_metre=FEET_PER_METRE,
        conditions=dict(CONDITIONS),
        lamp_lit=[key for key, figures in LIGHT_VALUES.items() if figures.lamps],
        skies=dict(SKIES),
        movers=dict(MOVERS),
        skins=dict(SKINS),
        tones=[SubjectTone(name=name, reflectance=share, mirrors=m) for name, (share, m) in TONES.items()],
        gels=dict(GELS),
        roles={
            role: RoleOut(name=name, target_stops=USUAL_TARGETS[role], bearing_deg=USUAL_BEARINGS.get(role, 0.0))
            for role, name in ROLES.items()
        },
        supplies={kind: SUPPLIES[kind] for kind in SUPPLY_KINDS},
        bounds={model.__name__: bounds_of(model) for model in BOUNDED},
        ticks={field: TICK_NAMES[effect] for field, effect in TICKS.items()},
        kit={kind: ONE[kind] for kind in KIT},
        reading_sd=SD_OF | {"ambient": SD_AMBIENT},
        blank=Blank(
            setup=Setup(name="New setup"),
            reading=Reading(),
            lens=Lens(),
            light=Light(),
            session=Session(setup="new"),
            log=LogEntry(at=datetime(2000, 1, 1)),
            forms={name: document.model_dump(mode="json") for name, document in FORMS.items()} | UNNAMED,
        ),
    )
