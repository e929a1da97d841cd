"""The light-value table: what light there usually is, by what one sees.

EV at ISO 100: ANSI PH2.7, exposure guide. Shade: the table's own "open shade 12" under each sky; the side of a person
turned away from the sun lies about a stop above open shade in sun (from memory).
"""

from typing import NamedTuple


class LightValue(NamedTuple):
    """EV at ISO 100, half its spread [stops], how far shade and the side turned away lie below, if lamps make it."""

    ev: float
    spread: float
    shade: float
    back: float
    lamps: bool = False


LIGHT_VALUES: dict[str, LightValue] = {
    "sand_or_snow": LightValue(16, 0.5, -3, -2),
    "distinct_shadows": LightValue(15, 0.5, -3, -2),
    "hazy_sun": LightValue(14, 0.5, -2, -1.3),
    "cloudy_bright": LightValue(13, 0.5, -1, -0.5),
    "heavy_overcast": LightValue(12, 0.5, -1, -0.3),
    "open_shade": LightValue(12, 0.5, 0, 0),
    "after_sunset": LightValue(10, 1.0, -0.5, -0.5),
    "gallery": LightValue(9.5, 1.5, 0, 0, lamps=True),
    "office": LightValue(7.5, 0.5, 0, 0, lamps=True),
    "interior_night": LightValue(6, 1.0, 0, 0, lamps=True),
    "floodlit": LightValue(4, 1.0, 0, 0, lamps=True),
    "dark": LightValue(-3, 2.0, 0, 0),
}
