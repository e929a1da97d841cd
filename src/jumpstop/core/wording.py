"""How figures are said: metres or feet, marked apertures and times, stops with their sign.

Every sentence on the screen is made here or filled here, so that no figure is worded in two ways.
"""

import string
from collections.abc import Mapping
from typing import Any, Literal

import numpy as np

from .exposure import Step
from .stops import Chain, Fact, Jump, Pick
from .values import Value

FEET_PER_METRE = 3.2808


class Manner(Value):
    """How a person wants figures said."""

    length: Literal["m", "ft"] = "m"
    step: Step = "third"
    power: Literal["own", "fraction", "number", "ws"] = "own"
    currency: str = "£"


def length(metres: float, manner: Manner) -> str:
    """A distance: 1.8 m, or 5.9 ft."""
    if manner.length == "ft":
        feet = metres * FEET_PER_METRE
        return f"{feet:.0f} ft" if feet >= 30 else f"{feet:.1f} ft"
    return f"{metres:.3g} m" if metres < 100 else f"{metres:.0f} m"


def shutter(seconds: float) -> str:
    """A shutter time or flash duration: 1/250 s, 0.5 s, 4 s."""
    if seconds >= 0.3:
        return f"{seconds:g} s"
    denominator = 1 / seconds
    digits = 2 if denominator < 10 else 3
    rounded = float(f"{denominator:.{digits}g}") if denominator > 999 else round(denominator)
    return f"1/{rounded:.0f} s"


def power(reduction_stops: float) -> str:
    """A share of full power: 1/1, 1/32, 1/45."""
    return f"1/{2**reduction_stops:.0f}"


def f_number(value: float) -> str:
    """An aperture: f/2.8, f/11."""
    return f"f/{value:.1f}".removesuffix(".0") if value < 10 else f"f/{value:.0f}"


def stops(value: float, digits: int = 1) -> str:
    """A signed number of stops with a true minus sign: +1.3, −0.7."""
    if round(value, digits) == 0:
        return f"{0:.{digits}f}"
    return f"{value:+.{digits}f}".replace("-", "−")


def amount(value: float, digits: int = 1) -> str:
    """So many stops, without a sign: 0.7 stop, 1.3 stops."""
    size = round(abs(value), digits)
    return f"{size:.{digits}f} {'stop' if size <= 1 else 'stops'}"


def duration(seconds: float) -> str:
    """A waiting time: 0.4 s, 12 s, 3 min."""
    if seconds < 0.095:
        return "at once"
    if seconds < 9.95:
        return f"{seconds:.1f} s"
    return f"{seconds:.0f} s" if seconds < 120 else f"{seconds / 60:.0f} min"


class _Filler(string.Formatter):
    """Fills templates; knows the trade's own format names (length, shutter, power, f, stops, amount)."""

    def __init__(self, manner: Manner) -> None:
        self.manner = manner

    def format_field(self, value: Any, format_spec: str) -> str:
        if format_spec == "length":
            return length(float(value), self.manner)
        if format_spec == "shutter":
            return shutter(float(value))
        if format_spec == "f":
            return f_number(float(value))
        if format_spec == "power":
            return power(float(value))
        if format_spec == "stops":
            return stops(float(value))
        if format_spec == "amount":
            return amount(float(value))
        return str(super().format_field(value, format_spec))


def fill(template: str, facts: Mapping[str, Fact], manner: Manner, index: int = 0) -> str:
    """A template with its facts filled in; where a fact is a list, the one at `index`."""
    if "{" not in template:
        return template
    here = {name: _one(fact, index) for name, fact in facts.items()}
    while True:  # a fact may itself be a template over the others (a reason that differs between units)
        template = _Filler(manner).vformat(template, (), here)
        if "{" not in template:
            return template


def _one(fact: Fact, index: int) -> str | float:
    if isinstance(fact, str | float | int):
        return fact
    if isinstance(fact, Pick):
        return fact.options[fact.which[index]]
    if isinstance(fact, np.ndarray):
        return float(fact[index]) if fact.ndim else float(fact)
    return fact[index]


def one(chain: Chain, index: int, manner: Manner) -> list[Jump]:
    """The chain of one unit: plain numbers, and its sentences filled in."""
    return [
        Jump(
            jump.key,
            fill(jump.cause, jump.facts, manner, index),
            float(np.ravel(jump.stops)[index if np.ndim(jump.stops) else 0]),
            float(np.ravel(jump.sd)[index if np.ndim(jump.sd) else 0]),
            fill(jump.why, jump.facts, manner, index),
            jump.mark,
            jump.source,
        )
        for jump in chain
    ]
