"""A new setup: a likely picture for where one is, with the body and the bag used last."""

from typing import Literal

from .aim import ExposureAim, Lens
from .ambient import AmbientSpec
from .light import Light
from .setup import Setup

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


def begun(where: Where, like: Setup | None) -> Setup:
    """A setup to start from; `like`: the setup used last, whose body, filters, trigger and supply are taken over."""
    aim = AIMS[where].model_copy(update={"lens": Lens()})
    setup = Setup(name="New setup", ambient=AMBIENTS[where], aim=aim, lights=(Light(),))
    if like is None:
        return setup
    kept = ("body", "lens", "filters", "trigger", "power_supply", "meter_c")
    own = like.body
    iso = min(max(aim.iso, own.iso_min), own.iso_max)
    return setup.model_copy(
        update={name: getattr(like, name) for name in kept} | {"aim": aim.model_copy(update={"iso": iso})}
    )
