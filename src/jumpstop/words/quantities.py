"""What is said of a quantity that a person wrote: what it may mean, how it can be written, why it was not taken."""

from collections.abc import Callable
from datetime import date, timedelta

from ..core.kit.power import PowerScale
from . import figures
from .figures import DisplayUnits, tidy

WAYS: dict[str, str] = {
    "level": "1 under, -1/3, 2/3 over or 0",
    "background": "1.5 under, -1/3, 1 over or “as metered”",
    "seen": "1 too dark, 2/3 too bright or 0",
    "ratio": "3:1, or 2 stops",
    "aperture": "f/5.6, 8, or f/8 and 1/3",
    "meter": "5.6, f/8 and 1/3, or 8.5 (f/8 and 5 tenths)",
    "shutter": "1/250, 250, 2 s or 500 ms",
    "duration": "1/4000, 4000, 2 ms or 80 µs",
    "iso": "ISO 400, 6400 or 6.4k",
    "nd": "3 stops, ND8 or 0.9",
    "distance": "1.8 m, 180 cm, 6 ft or 6'6",
    "bearing": "45 left, 30 right, behind or 10 o'clock",
    "facing": "45 left, 30 right or the camera",
    "compass": "135 or SE",
    "angle": "10 up or -10",
    "dial": "1/32, 1/16 + 1/3, half, or as the dial shows it",
    "guide_number": "58 m or 190 ft",
    "clock": "9:30, 21:00 or 9am",
    "date": "24 June 2026 or 2026-06-24",
    "seconds": "1.5 s or 90 s",
    "minutes": "45 min or 1h30",
    "hours": "2 h, 90 min or 1:30",
    "count": "44, 1,760 or 9k",
    "range": "44 or 150-300",
    "weight": "980 g, 1.2 kg or 2 lb 10",
    "money": "549 or 1,299.50",
    "energy": "76 Ws, 600 J or 0.6 kJ",
    "charge": "40 Wh",
    "ev": "EV 12",
    "lux": "500 lx or 5,000",
    "kelvin": "5600 K",
    "mired": "+40 mired",
    "focal": "85 mm",
    "speed": "6 m/s, 20 km/h, 12 mph or force 4",
    "temperature": "20 or -5 (°C), or 68 F",
    "rate": "12 fps",
    "share": "1.5 %",
    "millimetres": "0.03 mm",
    "degrees": "20°",
    "power": "1/128, 50 % or 1",
    "number": "2.5",
}
"""How each kind of quantity can be written, by example; common practice."""


def level(stops: float) -> str:
    """A level against what was wanted, without a sign: 1.5 under."""
    return "0" if abs(stops) < 0.005 else f"{tidy(abs(stops), 2)} {'under' if stops < 0 else 'over'}"


def _grouped(value: float, digits: int) -> str:
    return figures.decimal(value, ",.0f" if round(value, digits).is_integer() else f",.{digits}f")


def _seen(stops: float, units: DisplayUnits) -> str:
    return f"{tidy(abs(stops), 2)} too {'dark' if stops < 0 else 'bright'}"


def _bearing(deg: float, units: DisplayUnits) -> str:
    if deg == 0:
        return "from the camera’s side"
    return "behind" if abs(deg) == 180 else f"{tidy(abs(deg), 0)}° to the {'left' if deg < 0 else 'right'}"


def _clock(minutes: float, units: DisplayUnits) -> str:
    return f"{int(minutes) // 60:02d}:{int(minutes) % 60:02d}"


def _date(days: float, units: DisplayUnits) -> str:
    when = date(1970, 1, 1) + timedelta(days=days)
    return f"{when.day} {when:%B %Y}"


def _guide(metres: float, units: DisplayUnits) -> str:
    return f"GN {tidy(metres, 1)} m"


def _suffixed(suffix: str, digits: int = 2) -> Callable[[float, DisplayUnits], str]:
    return lambda value, units: f"{tidy(value, digits)}{suffix}"


SAYS: dict[str, Callable[[float, DisplayUnits], str]] = {
    "level": lambda value, units: level(value),
    "background": lambda value, units: level(value),
    "seen": _seen,
    "ratio": _suffixed(" : 1"),
    "aperture": lambda value, units: f"f/{tidy(value, 2)}",
    "meter": lambda value, units: f"f/{tidy(value, 2)}",
    "shutter": lambda value, units: figures.shutter(value),
    "duration": lambda value, units: figures.shutter(value),
    "iso": lambda value, units: figures.iso(value),
    "nd": lambda value, units: figures.nd(value),
    "distance": lambda value, units: figures.length(value, units, fine=True),
    "bearing": _bearing,
    "facing": lambda value, units: _bearing(-value, units),
    "compass": _suffixed("°", 1),
    "angle": _suffixed("°", 1),
    "degrees": _suffixed("°", 1),
    "guide_number": _guide,
    "clock": _clock,
    "date": _date,
    "seconds": _suffixed(" s"),
    "minutes": _suffixed(" min", 1),
    "hours": _suffixed(" h"),
    "weight": _suffixed(" g", 0),
    "energy": _suffixed(" Ws", 1),
    "charge": _suffixed(" Wh", 1),
    "ev": lambda value, units: f"EV {tidy(value, 1)}",
    "lux": lambda value, units: f"{_grouped(value, 1)} lx",
    "kelvin": _suffixed(" K", 0),
    "mired": _suffixed(" mired", 1),
    "focal": _suffixed(" mm", 1),
    "millimetres": _suffixed(" mm", 3),
    "speed": _suffixed(" m/s", 1),
    "temperature": _suffixed(" °C", 1),
    "rate": _suffixed(" a second", 1),
    "share": lambda value, units: f"{tidy(value * 100, 2)} %",
    "count": lambda value, units: _grouped(value, 2),
    "range": lambda value, units: _grouped(value, 2),
    "power": lambda value, units: f"1/{tidy(1 / value, 0)}" if 0 < value < 0.6 else tidy(value, 2),
    "money": lambda value, units: f"{units.currency}{_grouped(value, 2)}",
}


def said(value: float, kind: str, units: DisplayUnits, scale: PowerScale | None = None, ws: float | None = None) -> str:
    """A quantity as one of its kind is said: 1.5 under, 1/15 s, 3 stops (ND8, 0.9)."""
    if kind == "dial":
        return figures.power(value) if scale is None else figures.dial(scale, value, units, ws)
    return SAYS.get(kind, _suffixed("", 2))(value, units)


def refusal(
    why: str, text: str, name: str, kind: str, units: DisplayUnits, ends: tuple[float | None, float | None], dial: str
) -> str:
    """Why a text was not taken, and what would be. ends: lowest and highest value; dial: its range in words."""
    match why:
        case "empty":
            return f"{name}: write it as {WAYS[kind]}."
        case "bounds":
            low, high = (None if end is None else said(end, kind, units) for end in ends)
            if low and high:
                return f"{name} must be between {low} and {high}."
            return f"{name} must be at least {low}." if low else f"{name} must be at most {high}."
        case "contradiction":
            return f"“{text}” says two things at once: leave out the sign, or the word."
        case "no_unit":
            return f"“{text}” needs its unit. {name}: write it as {WAYS[kind]}."
        case "no_decimals":
            return f"{name} must be a whole number."
        case "beyond_dial":
            return f"“{text}” is not on this dial: {dial}."
        case _:
            goes = f" {dial[0].upper()}{dial[1:]}." if dial else ""
            return f"“{text}” cannot be read. {name}: write it as {WAYS[kind]}.{goes}"


def nearest(said_as: str) -> str:
    """That a setting between two steps became the nearest."""
    return f"Between two steps of the dial: the nearest is {said_as}"
