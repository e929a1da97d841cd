"""A picture said in a line, against what a person has: a setup of it, or what stands in the way."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import date
from typing import Any

from ..core.kit.shelf import Shelf
from ..core.scene.light import Light, OwnUnit, own_unit
from ..core.scene.place import Place
from ..core.scene.said import Part, with_parts
from ..core.scene.setup import Setup

MOST_PLACES = 4  # that are asked about


def places_of(ambients: Iterable[Mapping[str, Any]]) -> Sequence[tuple[Place, date]]:
    """Places and days that documents of setups hold, each once; those that cannot be read are passed over."""
    found: dict[tuple[str, float, float, str], tuple[Place, date]] = {}
    for one in ambients:
        try:
            place, day = Place.model_validate(one["place"]), date.fromisoformat(one["day"])
        except ValueError:
            continue
        found.setdefault((place.name, place.latitude, place.longitude, one["day"]), (place, day))
    return list(found.values())[:MOST_PLACES]


def known_units(shelf: Shelf) -> Sequence[OwnUnit]:
    """The units of a shelf, as a setup holds them."""
    return [own_unit(unit, key) for key, unit in zip(shelf.ids, shelf.units, strict=True)]


def blank_like(setup: Setup | None) -> Setup:
    """A setup of which nothing is said yet, on the camera and with the bag of one used last."""
    blank = Setup(name="New setup", lights=(Light(id="1"),))
    if setup is None:
        return blank
    kept = ("body", "lens", "filters", "triggers", "trigger", "power_supply", "meter_c")
    return blank.model_copy(update={name: getattr(setup, name) for name in kept})


def said_setup(setup: Setup, parts: Sequence[Part], light: int = 0) -> Setup:
    """The setup with all that was said. Raises ValidationError where a figure cannot be."""
    return Setup.model_validate(with_parts(setup, parts, light).model_dump())
