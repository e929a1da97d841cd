"""Kinds of kit that a person owns, each with the document that it is kept as."""

from collections.abc import Mapping

from .body import Body
from .filter import Filter
from .lens import LensKit
from .modifier import Modifier
from .stand import Stand
from .trigger import Battery, Trigger
from .unit import Unit
from .values import Value

KIT_MODELS: Mapping[str, type[Value]] = {
    "units": Unit,
    "modifiers": Modifier,
    "bodies": Body,
    "lenses": LensKit,
    "filters": Filter,
    "triggers": Trigger,
    "batteries": Battery,
    "stands": Stand,
}
"""In the order in which they are shown and ticked."""
