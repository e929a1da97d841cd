"""Documents as version 1 wrote them."""

from typing import Any

# A setup and a unit as version 1 wrote them, with all that it called otherwise, and a control character it let in.
OLD: dict[str, Any] = {
    "format": "jumpstop-setup", "version": 1, "name": "From\x07before", "note": "",
    "there": {"by": "condition", "condition": "distinct_shadows", "readings": [], "lux": None, "subject": "back"},
    "look": {"f_number": 2.8, "background_stops": -1.0, "iso": 100,
    "blur": {"focal_mm": 85, "subject_m": 2.5, "background_m": 60}},
    "body": {"name": "Old body", "sync_s": 0.004, "top_speed_s": 0.000125},
    "filters": [{"name": "ND 6", "stops": 6.0, "most_stops": None, "note": ""}],
    "lights": [{"role": "key", "distance_m": 1.8, "heads": 1, "modifier": {"name": "Octa"}, "gel": "none"}],
    "way": "nd", "source": "lithium", "frames": 240,
}  # fmt: skip
OLD_UNIT: dict[str, Any] = {
    "name": "Old unit",
    "watt_seconds": 60,
    "sources": [{"recycle_full_s": 2}],
    "pulse": {"table": [{"power": 1, "seconds": 0.001}]},
}
