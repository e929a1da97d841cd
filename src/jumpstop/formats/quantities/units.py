"""Units that people write, by kind of quantity: what one of each is in the unit that is computed in."""

from .asked import Kind

FOOT_M = 0.3048  # international foot, 1959
INCH_M = 0.0254  # international inch, 1959
POUND_G = 453.59237  # international pound, 1959
OUNCE_G = POUND_G / 16
KNOT_M_S = 1852 / 3600  # international nautical mile an hour, 1929
MILE_M = 1609.344  # international mile, 1959
BEAUFORT_M_S = 0.836  # wind speed = 0.836 B^1.5, World Meteorological Organization, Manual on Codes


def _all(size: float, *names: str) -> dict[str, float]:
    return dict.fromkeys(names, size)


LENGTHS = (
    _all(1.0, "m", "metre", "metres", "meter", "meters", "mtr")
    | _all(0.01, "cm", "centimetres", "centimeters")
    | _all(0.001, "mm", "millimetres", "millimeters")
    | _all(1000.0, "km")
    | _all(FOOT_M, "ft", "ft.", "feet", "foot", "'")
    | _all(INCH_M, "in", "in.", "inch", "inches", '"')
    | _all(3 * FOOT_M, "yd", "yds", "yard", "yards")
)
COUNTED = ("frames", "frame", "people", "persons", "person", "flashes", "flash", "shots", "shot", "pictures", "heads",
           "head", "pcs", "pieces", "lights", "units", "x", "times", "each")  # fmt: skip
UNITS: dict[Kind, dict[str, float]] = {
    "weight": _all(1.0, "", "g", "gr", "gram", "grams", "gramme", "grammes")
    | _all(1000.0, "kg", "kilo", "kilos", "kilogram", "kilograms")
    | _all(POUND_G, "lb", "lbs", "pound", "pounds")
    | _all(OUNCE_G, "oz", "ounce", "ounces"),
    "money": {"": 1.0},
    "energy": _all(1.0, "", "ws", "j", "joule", "joules", "w.s", "w/s") | _all(1000.0, "kj", "kws"),
    "charge": _all(1.0, "", "wh") | _all(1000.0, "kwh"),
    "ev": _all(1.0, "", "ev", "lv"),
    "lux": _all(1.0, "", "lx", "lux") | _all(1000.0, "klx", "klux"),
    "kelvin": _all(1.0, "", "k", "kelvin", "°k"),
    "mired": _all(1.0, "", "mired", "mireds", "mk"),
    "focal": _all(1.0, "", "mm") | _all(10.0, "cm"),
    "millimetres": _all(1.0, "", "mm") | _all(0.001, "um", "micron", "microns") | _all(10.0, "cm"),
    "speed": _all(1.0, "", "m/s", "ms", "mps")
    | _all(1 / 3.6, "km/h", "kmh", "kph", "kmph")
    | _all(MILE_M / 3600, "mph")
    | _all(KNOT_M_S, "kn", "kt", "kts", "knot", "knots")
    | _all(FOOT_M, "ft/s", "fps"),
    "rate": _all(1.0, "", "fps", "f/s", "/s", "hz", "frames/s"),
    "share": _all(0.01, "", "%", "percent", "per", "pct"),
    "power": _all(1.0, "") | _all(0.01, "%"),
    "degrees": _all(1.0, "", "°", "deg", "degree", "degrees"),
    "count": _all(1.0, "", *COUNTED),
    "range": _all(1.0, "", *COUNTED),
    "number": {"": 1.0},
}
CURRENCIES = {"£": "£", "gbp": "£", "$": "$", "usd": "$", "€": "€", "eur": "€"}
POINTS = {"n": 0, "nne": 22.5, "ne": 45, "ene": 67.5, "e": 90, "ese": 112.5, "se": 135, "sse": 157.5, "s": 180,
          "ssw": 202.5, "sw": 225, "wsw": 247.5, "w": 270, "wnw": 292.5, "nw": 315, "nnw": 337.5}  # fmt: skip
