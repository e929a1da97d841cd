"""The made-up kit that is practised with; nobody's."""

from ..core.kit.unit import Unit
from ..core.scene.light import OwnModifier, OwnUnit, own_unit
from ..core.scene.setup import OwnBody, OwnFilter

DURATIONS = [  # t.1 by power of a pulse that is cut, typical of a shoe flash, from memory
    {"power": 1.0, "seconds": 1 / 250},
    {"power": 0.5, "seconds": 1 / 1000},
    {"power": 0.25, "seconds": 1 / 2200},
    {"power": 0.125, "seconds": 1 / 4200},
    {"power": 1 / 16, "seconds": 1 / 7500},
    {"power": 1 / 32, "seconds": 1 / 11000},
    {"power": 1 / 128, "seconds": 1 / 18000},
]


def _unit(name: str, **doc: object) -> OwnUnit:
    return own_unit(Unit.model_validate({"name": name, **doc}), name.split(" ")[0].lower())


SANDERLING = _unit(
    "Sanderling 80",
    kind="shoe",
    watt_seconds=80,
    claims=[{"guide_number": 39, "unit": "m", "zoom_mm": 35}, {"guide_number": 60, "unit": "m", "zoom_mm": 200}],
    zoom_min_mm=24,
    zoom_max_mm=200,
    scale={"kind": "fraction", "lowest": 1 / 256, "step_stops": 1 / 3},
    power_supplies=[{"kind": "lithium", "recycle_full_s": 1.8, "recycle_least_s": 0.1, "full_flashes": 300}],
    hss={"extra_stops": 0.4},
    flash_duration={"shape": "cut", "measure": "t.1", "table": DURATIONS},
    heat={"full_flashes": 60, "rest_s": 600},
)
STILT = _unit(
    "Stilt 45",
    kind="shoe",
    watt_seconds=60,
    claims=[{"guide_number": 36, "unit": "m", "zoom_mm": 35}],
    scale={"kind": "fraction", "lowest": 1 / 128, "step_stops": 1 / 3},
    power_supplies=[{"kind": "aa", "recycle_full_s": 3.6, "recycle_least_s": 0.3, "full_flashes": 180}],
    flash_duration={"shape": "cut", "measure": "t.1", "table": DURATIONS},
)
WHIMBREL = _unit(
    "Whimbrel 300",
    kind="monobloc",
    watt_seconds=300,
    claims=[{"guide_number": 62, "unit": "m", "coverage_deg": 65, "reflector": "standard reflector"}],
    scale={"kind": "fraction", "lowest": 1 / 256, "step_stops": 1 / 3},
    power_supplies=[{"kind": "lithium", "recycle_full_s": 1.2, "recycle_least_s": 0.05, "full_flashes": 420}],
    hss={"extra_stops": 0.5},
    flash_duration={
        "shape": "cut",
        "measure": "t.1",
        "table": [{"power": 1.0, "seconds": 1 / 450}, {"power": 1 / 256, "seconds": 1 / 9000}],
    },
)
SOFTBOX = OwnModifier.model_validate(
    {
        "name": "Softbox 60",
        "kind": "softbox",
        "stops": -0.4,
        "layers": [
            {"name": "inner diffuser", "stops": -0.9, "sd": 0.25},
            {"name": "outer diffuser", "stops": -0.9, "sd": 0.25, "usually_on": False},
        ],
        "face": {"shape": "rectangle", "width_m": 0.6, "height_m": 0.6},
    }
)
UMBRELLA = OwnModifier.model_validate(
    {"name": "Umbrella 85", "kind": "shoot_through", "stops": -1.7, "face": {"shape": "disc", "width_m": 0.75}}
)
BLUFF = OwnBody.model_validate(
    {"name": "Bluff 36", "sync_s": 1 / 250, "top_speed_s": 1 / 8000, "dark_edge": "bottom", "iso_min": 50}
)
FILTERS = (
    OwnFilter.model_validate({"name": "ND 3 stops", "stops": 3}),
    OwnFilter.model_validate({"name": "ND 6 stops", "stops": 6}),
)
