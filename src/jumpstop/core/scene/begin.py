"""A new setup: a likely picture for where one is, with the body and the bag used last."""

from dataclasses import dataclass
from typing import Literal

from ..kit.unit import Unit
from .aim import ExposureAim, Lens
from .ambient import AmbientSpec
from .light import Light, OwnModifier
from .setup import OwnBody, OwnFilter, OwnLens, OwnTrigger, Setup

Where = Literal["sun", "shade", "indoors", "dark"]

# A likely picture of each: the light, the aperture, how far under the background, ISO. Common practice, no source.
AMBIENTS: dict[Where, AmbientSpec] = {
    "sun": AmbientSpec(condition="distinct_shadows", subject="back"),
    "shade": AmbientSpec(condition="distinct_shadows", subject="shade"),
    "indoors": AmbientSpec(condition="office"),
    "dark": AmbientSpec(condition="dark"),
}
AIMS: dict[Where, ExposureAim] = {
    "sun": ExposureAim(f_number=4, background_stops=-1, iso=100),
    "shade": ExposureAim(f_number=2.8, background_stops=-1, iso=100),
    "indoors": ExposureAim(f_number=4, background_stops=-1, iso=400),
    "dark": ExposureAim(f_number=5.6, background_stops=0, iso=200),
}


@dataclass(frozen=True)
class OwnKit:
    """The first of each kind that a person owns, and every filter; triggers: the first transmitter and the first
    receiver."""

    body: OwnBody | None = None
    lens: OwnLens | None = None
    modifier: OwnModifier | None = None
    unit: Unit | None = None
    filters: tuple[OwnFilter, ...] = ()
    triggers: tuple[OwnTrigger, ...] = ()


NO_KIT = OwnKit()
KEPT = ("body", "lens", "filters", "triggers", "power_supply", "meter_c")


def begun(where: Where, like: Setup | None, own: OwnKit = NO_KIT) -> Setup:
    """A setup to start from. like: the setup used last, whose body, filters, trigger and supply are taken over; without
    one the person's own kit."""
    aim = AIMS[where].model_copy(update={"lens": Lens()})
    setup = Setup(name="New setup", ambient=AMBIENTS[where], aim=aim, lights=(Light(),))
    if like is None:
        return on_kit(setup, own)
    setup = setup.model_copy(update={name: getattr(like, name) for name in KEPT})
    return within(setup)


def on_kit(setup: Setup, own: OwnKit) -> Setup:
    """A setup on a person's own body, lens and filters, and through the own modifier where the first unit takes it."""
    chosen: dict[str, object] = {"lens": own.lens}
    if own.body is not None:
        chosen["body"] = own.body
    if own.filters:
        chosen["filters"] = own.filters
    if own.triggers:
        chosen["triggers"] = own.triggers
    mod, unit = own.modifier, own.unit
    fits = mod is not None and (unit is None or unit.takes(mod))
    if fits and setup.lights:
        first = setup.lights[0].model_copy(update={"modifier": own.modifier, "layers": None})
        chosen["lights"] = (first, *setup.lights[1:])
    return within(setup.model_copy(update=chosen))


def within(setup: Setup) -> Setup:
    """A setup whose ISO its body has, and whose focal length and aperture its lens has."""
    aim, body, lens = setup.aim, setup.body, setup.lens
    changed: dict[str, object] = {"iso": min(max(aim.iso, body.iso_min), body.iso_max)}
    if lens is not None and aim.lens is not None:
        focal = min(max(aim.lens.focal_mm, lens.focal_mm), lens.focal_most_mm or lens.focal_mm)
        changed["lens"] = aim.lens.model_copy(update={"focal_mm": focal})
        changed["f_number"] = min(max(aim.f_number, lens.widest_at(focal)), lens.smallest)
    return setup.model_copy(update={"aim": aim.model_copy(update=changed)})
