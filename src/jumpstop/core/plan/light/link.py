"""The link from camera to flash: what gets through the triggers, cords and adapters that are packed."""

from dataclasses import dataclass

from ...kit.trigger import Passes, Trigger
from ...kit.unit import Unit
from ...scene.light import Light
from ...scene.seen import MethodKind
from ...scene.setup import Setup

ALL: frozenset[Passes] = frozenset(("fire", "power", "automatic", "hss"))
FOREIGN: frozenset[Passes] = frozenset(
    ("fire",)
)  # what passes between shoes that do not know each other, common practice


@dataclass(frozen=True)
class Break:
    """What is asked of a light and does not get through, and the link that stops it (empty: two shoes that differ)."""

    wanted: Passes
    at: str


def breaks_of(setup: Setup, light: int, unit: Unit, kind: MethodKind) -> list[Break]:
    """What a light needs in a method that the packed links do not pass; none where none are packed."""
    if not setup.triggers:
        return []
    wanted: list[Passes] = ["fire"]
    if setup.lights[light].automatic:
        wanted.append("automatic")
    if kind == "hss":
        wanted.append("hss")
    out = []
    for one in wanted:
        stopped = next((link.name for link in setup.triggers if one not in link.passes), None)
        if stopped is None and one not in _between(setup, unit):
            stopped = ""
        if stopped is not None:
            out.append(Break(one, stopped))
    return out


def _between(setup: Setup, unit: Unit) -> frozenset[Passes]:
    """What passes between the shoes: everything where each meets its own kind, else that it fires."""
    way: list[Trigger] = [link for link in setup.triggers if link.kind in ("transmitter", "cord", "adapter")]
    shoe = setup.body.shoe
    for link in way:
        if not _meet(shoe, link.from_shoe):
            return FOREIGN
        shoe = link.to_shoe or shoe
    wired = all(link.kind in ("cord", "adapter") for link in way)
    return ALL if not wired or _meet(shoe, unit.shoe) else FOREIGN


def _meet(one: str, other: str) -> bool:
    return not one or not other or one.casefold() == other.casefold()


def on_camera(setup: Setup, light: Light) -> bool:
    """Whether a light sits on the camera: on its shoe without a cord between, or as the one that commands optically."""
    if setup.trigger == "optical":
        return light.sends
    return setup.trigger == "shoe" and not any(one.kind == "cord" for one in setup.triggers)
