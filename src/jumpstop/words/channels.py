"""The channel sheet in words."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from ..core.plan.job.channels import sheet_of
from ..core.plan.light.reach import Solved
from ..core.scene.seen import MethodKind
from .figures import DisplayUnits, dial, length
from .kit import ROLES
from .stage_warnings import say_stage

FIRED = {"radio": "radio", "optical": "optical", "shoe": "shoe or cord"}


@dataclass(slots=True)
class WireText:
    """One light of the sheet."""

    light: int
    channel: str
    group: str
    role: str
    unit: str
    power: str
    fired: str
    how: str


@dataclass(slots=True)
class SheetText:
    """The sheet of one setup: its lights, the links that are packed, and what is wrong."""

    setup: str
    name: str
    links: list[str]
    wires: list[WireText]
    wrong: list[str]


SHEET: dict[str, Callable[[Mapping[str, Any], DisplayUnits], str]] = {
    "two_masters": lambda f, u: (
        f"Lights {f['first'] + 1} and {f['light'] + 1} both command: make one of them listen, or neither obeys."
    ),
    "slave_as_master": lambda f, u: (
        f"Light {f['light'] + 1} is set to command beside {f['at']}: set it to listen, or it fires by itself."
    ),
    "no_master": lambda f, u: "Nothing commands the optical slaves: set a light on the camera to command.",
    "group_off": lambda f, u: (
        f"Light {f['light'] + 1}" + (f", group {f['group']}," if f["group"] else "") + " is switched off."
    ),
    "no_sight": lambda f, u: (
        f"Light {f['light'] + 1} stands behind the subject, where an optical slave does not see the camera: "
        "turn its sensor to a wall that does, or use radio."
    ),
    "drowned": lambda f, u: f"Light {f['light'] + 1} is an optical slave in the sun: it sees a few metres at most.",
    "too_far": lambda f, u: (
        f"Light {f['light'] + 1}, {length(f['metres'], u)} away, is far for an optical slave: try it first."
    ),
}


def sheet_text(
    solved: Solved, kind: MethodKind, units: tuple[int | None, ...], setup_id: str, words: DisplayUnits
) -> SheetText:
    """The document of one setup."""
    setup, table = solved.setup, solved.table
    found, wrong = sheet_of(solved, kind, units)
    wires = []
    for wire in found:
        light = setup.lights[wire.light]
        unit = None if wire.unit is None else table.units[wire.unit]
        power = "off"
        if wire.on and unit is not None and wire.below_full is not None:
            power = "automatic" if light.automatic else dial(unit.scale, wire.below_full, words, unit.watt_seconds)
        wires.append(
            WireText(
                light=wire.light,
                channel="" if light.channel is None else str(light.channel),
                group=light.group.strip(),
                role=ROLES[light.role] + (", commands" if light.sends else ""),
                unit="no unit" if unit is None else unit.name,
                power=power,
                fired=FIRED[setup.trigger],
                how="" if unit is None else unit.group_how,
            )
        )
    said = []
    for one in wrong:
        stage = SHEET.get(one.code)
        warned = None if stage else say_stage(one, words)
        said.append(stage(one.facts, words) if stage else f"{warned.title}: {warned.says}" if warned else "")
    return SheetText(setup_id, setup.name, [link.name for link in setup.triggers], wires, said)
