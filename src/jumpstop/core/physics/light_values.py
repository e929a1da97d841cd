"""The light-value table: what light there usually is, by what one sees.

EV at ISO 100: ANSI PH2.7, exposure guide. Shade: the table's own "open shade 12" under each sky; the side of a person
turned away from the sun lies about a stop above open shade in sun (from memory).
"""

from typing import Literal, NamedTuple

from .colour import FLASH_K


class LightValue(NamedTuple):
    """EV at ISO 100, half its spread [stops], how far shade and the side turned away lie below, colour temperature [K]
    (typical, from memory); where it is: in sun so that shade is blue, outdoors else, by lamps, or nowhere."""

    ev: float
    spread: float
    shade: float
    back: float
    kelvin: float
    where: Literal["sun", "outdoors", "lamps", "dark"]

    @property
    def lamps(self) -> bool:
        """Whether lamps make it."""
        return self.where == "lamps"

    @property
    def outdoors(self) -> bool:
        """Whether it is the light of the day."""
        return self.where in ("sun", "outdoors")


LIGHT_VALUES: dict[str, LightValue] = {
    "sand_or_snow": LightValue(16, 0.5, -3, -2, 5500, "sun"),
    "distinct_shadows": LightValue(15, 0.5, -3, -2, 5500, "sun"),
    "hazy_sun": LightValue(14, 0.5, -2, -1.3, 5800, "sun"),
    "cloudy_bright": LightValue(13, 0.5, -1, -0.5, 6500, "outdoors"),
    "heavy_overcast": LightValue(12, 0.5, -1, -0.3, 6800, "outdoors"),
    "open_shade": LightValue(12, 0.5, 0, 0, 7500, "outdoors"),
    "after_sunset": LightValue(10, 1.0, -0.5, -0.5, 9000, "outdoors"),
    "gallery": LightValue(9.5, 1.5, 0, 0, 3000, "lamps"),
    "office": LightValue(7.5, 0.5, 0, 0, 4000, "lamps"),
    "interior_night": LightValue(6, 1.0, 0, 0, 2900, "lamps"),
    "floodlit": LightValue(4, 1.0, 0, 0, 3200, "lamps"),
    "dark": LightValue(-3, 2.0, 0, 0, FLASH_K, "dark"),
}
