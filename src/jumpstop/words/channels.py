"""The channel sheet in words."""

from dataclasses import dataclass

from ..core.plan.job.channels import sheet_of
from ..core.plan.job.schedule import AsShot
from .figures import DisplayUnits, dial
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


def sheet_text(shot: AsShot, words: DisplayUnits) -> SheetText:
    """The document of one setup."""
    solved, kind, units = shot.solved, shot.kind, shot.units
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
        warned = say_stage(one, words)
        said.append(f"{warned.title}: {warned.says}")
    return SheetText(shot.id, setup.name, [link.name for link in setup.triggers], wires, said)
