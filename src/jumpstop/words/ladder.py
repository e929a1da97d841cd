"""The distance ladder in words: a table of dials by distance."""

import math
from dataclasses import dataclass

from ..core.kit.table import UnitTable
from ..core.plan.change.ladder import LadderColumn, RightSpan, Rung
from ..core.plan.light.one_unit import Landing
from .figures import DisplayUnits, amount, dial, length, plain

NEARLY = 0.05  # stops: what is short by less is not told as short


@dataclass(slots=True)
class RungText:
    """One distance, with a cell for each column."""

    distance: str
    dials: list[str]
    holds: list[bool]


@dataclass(slots=True)
class LadderText:
    """The table: what it is for, the settings, its columns and rungs; span: where the dial as it is set is right."""

    unit: str
    settings: str
    columns: list[str]
    rungs: list[RungText]
    span: str = ""


def ladder_text(
    table: UnitTable,
    columns: tuple[LadderColumn, ...],
    rungs: tuple[Rung, ...],
    settings: str,
    units: DisplayUnits,
    span: str = "",
) -> LadderText:
    """The document of a ladder for a shelf's first unit."""
    feet = units.length == "ft"
    return LadderText(
        unit=table.units[0].name,
        settings=settings,
        columns=[_column(one, len(columns)) for one in columns],
        rungs=[
            RungText(
                f"{plain(rung.mark)} {'ft' if feet else 'm'}",
                [_cell(found, table, units) for found in rung.landings],
                [found is not None and found.spare >= 0 and found.too_bright <= 0 for found in rung.landings],
            )
            for rung in rungs
        ],
        span=span,
    )


def span_words(found: RightSpan, dialled: str, units: DisplayUnits) -> str:
    """Where a light is right at its dial, and how far either way until a third, and until a stop."""
    if any(math.isnan(one) for one in (found.right, *found.third, *found.stop)):
        return ""
    third, stop = (f"{length(a, units)} to {length(b, units)}" for a, b in (found.third, found.stop))
    right = length(found.right, units)
    return f"At {dialled} it is right at {right}: within a third of a stop from {third}, within a stop from {stop}."


def _column(one: LadderColumn, count: int) -> str:
    if not one.off:
        return "dial" if count == 1 else "as it stands"
    return f"without {' and '.join(one.off)}"


def _cell(found: Landing | None, table: UnitTable, units: DisplayUnits) -> str:
    if found is None:
        return "cannot be used"
    if found.spare < -NEARLY:
        return f"short by {amount(found.spare)}"
    if found.too_bright > 0:
        return f"too bright by {amount(found.too_bright)}"
    unit = table.units[0]
    return dial(unit.scale, found.below_full, units, unit.watt_seconds)
