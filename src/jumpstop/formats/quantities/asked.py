"""What a text is asked for, and what it was read as."""

from dataclasses import dataclass
from typing import Literal

from ...core.kit.power import PowerScale

Kind = Literal[
    "level", "background", "seen", "ratio", "aperture", "meter", "shutter", "duration", "iso", "nd", "distance",
    "bearing", "facing", "compass", "angle", "dial", "guide_number", "clock", "date", "seconds", "minutes", "hours",
    "count", "range", "weight", "money", "energy", "charge", "ev", "lux", "kelvin", "mired", "focal", "speed",
    "temperature", "rate", "share", "millimetres", "degrees", "power", "number",
]  # fmt: skip
"""The kinds of quantity: what a bare number means is decided by them.

Values are in stops (level, background, seen, nd; dial: below full power), metres (distance; guide_number at ISO 100),
seconds (shutter, duration, seconds), minutes (minutes; clock: since midnight), hours, degrees (bearing, facing:
camera 0, its right positive; compass: north 0), grams, Ws, Wh (charge), EV, lux, K, mired, mm (focal, millimetres),
m/s, degrees Celsius, 1/s (rate), shares of one (share, power), days since 1 January 1970 (date).
"""

Sign = Literal["", ".", ","]
"""The one decimal sign that a person writes; empty where either is taken."""

Why = Literal["unknown", "empty", "bounds", "contradiction", "no_unit", "no_decimals", "beyond_dial", "not_on_dial"]


@dataclass(frozen=True, slots=True)
class Dial:
    """A unit's dial: how the person reads it, its scale, energy at full power [Ws] or None."""

    kind: Literal["fraction", "number", "ws"]
    scale: PowerScale
    watt_seconds: float | None = None


@dataclass(frozen=True, slots=True)
class Asked:
    """A quantity asked for: its kind, its bounds, the figure that stands there now, the person's length unit and
    currency and decimal sign (where only one is taken), the lens's widest aperture, and for a dial the unit's."""

    kind: Kind
    low: float | None = None
    high: float | None = None
    now: float | None = None
    feet: bool = False
    currency: str = ""
    decimal: Sign = ""
    widest: float | None = None
    dial: Dial | None = None


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a text was read as: one value, several that it may mean (ask which), or none, and why not.

    most: the second figure of a range. moved: it lies between two steps of a dial, and the nearest was taken.
    """

    values: tuple[float, ...] = ()
    most: float | None = None
    moved: bool = False
    why: Why | None = None

    @property
    def value(self) -> float | None:
        """The one value; None where there is none, or more than one."""
        return self.values[0] if len(self.values) == 1 else None
