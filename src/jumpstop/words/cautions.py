"""In words, what travel and the place say of what feeds the flash."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.kit.table import UnitTable
from ..core.physics.battery import CIRCUIT_A
from ..core.plan.camera.remark import Remark
from ..core.plan.job.cautions import CABIN_WH, LEAVE_WH
from .figures import listed

TRAVEL = {
    "cabin": "in the cabin",
    "leave": "in the cabin with the airline's leave, two at the most",
    "not": "not on a passenger aircraft",
    "unknown": f"to {CABIN_WH:.0f} Wh in the cabin, to {LEAVE_WH:.0f} Wh two with the airline's leave",
}

CAUTIONS: dict[str, Callable[[Mapping[str, Any], str], str]] = {
    "by_air": lambda f, names: f"{names} by air, {_size(f['wh'])}: {TRAVEL[f['way']]}.",
    "no_mains": lambda _, names: f"{names} wants mains, and there is none.",
    "circuit": lambda f, names: (
        f"On the mains they take about {f['amperes']:.0f} A together while they recycle, without modelling light "
        f"({names}): more than a circuit of {CIRCUIT_A:.0f} A bears. Share them out, and ask whoever answers for the "
        "building's wiring."
    ),
}
"""Each of its facts and the names of the units."""


def _size(wh: float | None) -> str:
    return "its capacity not known" if wh is None else f"{wh:.0f} Wh"


def caution_text(found: Remark, table: UnitTable) -> str:
    """One sentence or two."""
    return CAUTIONS[found.code](found.facts, listed([table.units[at].name for at in found.facts["units"]], "and"))
