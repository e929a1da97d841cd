"""What a neutral density can mean: stops, an optical density, or the factor by which it darkens."""

import math

DENSITY_A_STOP = math.log10(2)  # density = log10 of the factor, ISO 5-2
THIRD = 1 / 3
FACTORS = {8, 16, 32, 64, 128, 256, 400, 500, 512, 1000, 1024}  # as filters are engraved; common practice
DENSITIES = {0.3, 0.6, 0.9}  # read as densities; common practice
EITHER = {1.2, 1.5, 1.8, 2.1, 2.4, 2.7, 3.0}  # a density to some, stops to others; common practice


def _stops(value: float) -> float:
    """To the third of a stop that it is as good as."""
    near = round(value / THIRD) * THIRD
    return near if abs(near - value) < 0.09 else round(value, 3)


def _of_density(density: float) -> float:
    return _stops(density / DENSITY_A_STOP)


def _of_factor(factor: float) -> float:
    return _stops(math.log2(factor))


def _value(written: str) -> float:
    return float(written.replace(",", ".")) if written.count(".") + written.count(",") < 2 else math.nan


def bare_nd(written: str) -> list[float]:
    """A number by itself: 0.9 is a density, 8 a factor or stops, 3 stops, 3.0 asks."""
    value = _value(written)
    if math.isnan(value):
        return []
    if value in DENSITIES:
        return [_of_density(value)]
    if value in EITHER and not written.isdigit():
        return [_of_density(value), value]
    if value in FACTORS:
        return [_of_factor(value), value]
    return [value]


def marked_nd(written: str) -> list[float]:
    """A number behind ND: ND8 is a factor, ND 0.9 a density; ND 2, ND 3.0, ND 10 can be two things, and ask."""
    value = _value(written)
    if math.isnan(value) or value <= 0:
        return []
    if value in FACTORS:
        return [_of_factor(value)]
    if value in DENSITIES:
        return [_of_density(value)]
    if value == 100:
        return [_of_factor(value), _of_density(1.0)]
    if value in (2, 4, 6, 10) and written.isdigit():
        return [_of_factor(value), _of_density(value) if value == 2 else value, value][: 3 if value == 2 else 2]
    if value == 10:
        return [_of_factor(value), value]
    if value > 4:
        return [_of_factor(value)]
    return [_of_density(value), value]


def factor_nd(written: str) -> list[float]:
    """A number with a times sign: x8 is a factor."""
    value = _value(written)
    return [_of_factor(value)] if value >= 1 else []
