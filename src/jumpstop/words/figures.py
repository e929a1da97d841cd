"""How figures are said: metres or feet, marked apertures and times, stops with their sign.

Every figure on the screen is worded here, so that none is worded in two ways.
"""

import math
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache, wraps
from typing import Annotated, Literal, ParamSpec, TypeVar

from pydantic import Field

from ..core.kit.power import PowerScale
from ..core.kit.values import LINE, Value
from ..core.physics.scales import APERTURES, Step
from ..core.physics.units import FEET_PER_METRE

DecimalSign = Literal["either", "point", "comma"]
Args = ParamSpec("Args")
Said = TypeVar("Said")

_comma = ContextVar("decimal_comma", default=False)  # of whoever is being answered


class DisplayUnits(Value):
    """How a person wants figures said."""

    length: Literal["m", "ft"] = Field("m", title="Length in")
    step: Step = Field("third", title="Stop steps")
    power: Literal["own", "fraction", "number", "ws"] = Field("own", title="Power as")
    currency: Annotated[str, Field(max_length=4, pattern=LINE, title="Currency")] = "£"
    decimal: DecimalSign = Field("either", title="Decimal sign")


def sign_of(units: DisplayUnits) -> Literal["", ".", ","]:
    """The one decimal sign that a person writes; empty where either is taken."""
    signs: dict[DecimalSign, Literal["", ".", ","]] = {"either": "", "point": ".", "comma": ","}
    return signs[units.decimal]


@contextmanager
def speaking(sign: DecimalSign) -> Iterator[None]:
    """Word figures with this decimal sign until it is left; a point where either is taken."""
    before = _comma.set(sign == "comma")
    try:
        yield
    finally:
        _comma.reset(before)


def decimal(value: float, form: str) -> str:
    """A figure in a form of `format`, with the person's decimal sign; thousands are then told apart by a space."""
    return _signed(format(value, form))


def plain(value: float) -> str:
    """A figure as it was given, to six digits: 85, 2.8."""
    return decimal(value, "g")


def grouped(value: float) -> str:
    """A whole figure with its thousands told apart: 1,299."""
    return decimal(value, ",.0f")


def kilograms(grams: float) -> str:
    """A weight: 6.1 kg."""
    return f"{decimal(grams / 1000, '.1f')} kg"


def tidy(value: float, digits: int) -> str:
    """The same without noughts at its end: 2.8, 4."""
    text = f"{value:.{digits}f}"
    return _signed(text.rstrip("0").rstrip(".") if digits else text)


def _signed(text: str) -> str:
    return text.translate(COMMA) if _comma.get() else text


COMMA = str.maketrans({".": ",", ",": "\u202f"})


def kept(most: int) -> Callable[[Callable[Args, Said]], Callable[Args, Said]]:
    """Keep what was worded, for each decimal sign by itself."""

    def keeping(say: Callable[Args, Said]) -> Callable[Args, Said]:
        signs = [lru_cache(maxsize=most)(say) for _ in range(2)]

        @wraps(say)
        def said(*args: Args.args, **named: Args.kwargs) -> Said:
            return signs[_comma.get()](*args, **named)  # type: ignore[arg-type]

        return said

    return keeping


def length(metres: float, units: DisplayUnits, fine: bool = False) -> str:
    """A distance: 1.8 m, or 5.9 ft; `fine` shows the centimetres."""
    if math.isinf(metres):
        return "infinity"
    if units.length == "ft":
        feet = metres * FEET_PER_METRE
        return f"{feet:.0f} ft" if feet >= 30 else f"{decimal(feet, '.1f')} ft"
    if fine and metres < 100:
        return f"{decimal(metres, '.2f')} m" if metres < 10 else f"{decimal(metres, '.1f')} m"
    return f"{decimal(metres, '.3g')} m" if metres < 100 else f"{metres:.0f} m"


def about(metres: float, units: DisplayUnits) -> str:
    """A distance that is no better known than to two digits: 1.3 m for 1.27 m."""
    return length(float(f"{metres:.2g}"), units)


def speed(metres_per_s: float, units: DisplayUnits) -> str:
    """A speed: 3.5 m/s, or 11.5 ft/s."""
    if units.length == "ft":
        return f"{decimal(metres_per_s * FEET_PER_METRE, '.1f')} ft/s"
    return f"{decimal(metres_per_s, '.1f')} m/s"


def guide_number(metres: float, units: DisplayUnits, digits: int = 0) -> str:
    """A guide number at ISO 100: GN 36 m, or GN 118 ft."""
    return f"GN {metres * FEET_PER_METRE:.0f} ft" if units.length == "ft" else f"GN {decimal(metres, f'.{digits}f')} m"


@kept(4096)
def shutter(seconds: float) -> str:
    """A shutter time or flash duration: 1/250 s, 0.5 s, 4 s."""
    if seconds >= 0.3:
        return f"{decimal(seconds, '.3g')} s"
    denominator = 1 / seconds
    digits = 2 if denominator < 10 else 3
    rounded = float(f"{denominator:.{digits}g}") if denominator > 999 else round(denominator)
    return f"1/{rounded:.0f} s"


@kept(1024)
def f_number(value: float) -> str:
    """An aperture: f/2.8, f/11; f/0.95, of which a tenth is a fifth of a stop."""
    if value >= 10:
        return f"f/{value:.0f}"
    return f"f/{tidy(value, 2 if value < 1 else 1)}"


def marked(exact: float) -> str:
    """An f-number as flash meters show it: the mark below, and tenths of a stop over it."""
    place = 2 * math.log2(exact)
    whole = math.floor(place + 0.05)
    tenths = round((place - whole) * 10)
    full = 2 ** (whole / 2)
    mark = f_number(APERTURES.near_mark(full) or full).removeprefix("f/")
    return mark if tenths <= 0 else f"{mark} and {tenths} {'tenth' if tenths == 1 else 'tenths'}"


@kept(1024)
def iso(value: float) -> str:
    """An ISO: ISO 400."""
    return f"ISO {value:.0f}"


@kept(1024)
def nd(stops_taken: float) -> str:
    """Neutral density in the markings that filters carry: 3 stops (ND8, 0.9)."""
    return (
        f"{tidy(stops_taken, 1)} {plural(stops_taken)} (ND{2**stops_taken:.0f}, {decimal(stops_taken * 0.301, '.1f')})"
    )


@kept(4096)
def stops(value: float, digits: int = 1) -> str:
    """A signed number of stops with a true minus sign: +1.3, −0.7."""
    if math.isinf(value):
        return "none"
    if round(value, digits) == 0:
        return decimal(0, f".{digits}f")
    return decimal(value, f"+.{digits}f").replace("-", "−")


def plural(value: float) -> str:
    """The word behind so many stops."""
    return "stop" if abs(value) <= 1 else "stops"


@kept(4096)
def amount(value: float, digits: int = 1) -> str:
    """So many stops, without a sign: 0.7 stop, 1.3 stops."""
    size = round(abs(value), digits)
    return f"{decimal(size, f'.{digits}f')} {plural(size)}"


AT_ONCE = "at once"


@kept(4096)
def duration(seconds: float) -> str:
    """A waiting time: 0.4 s, 12 s, 3 min, 2.5 h."""
    if seconds < 0.095:
        return AT_ONCE
    if seconds < 9.95:
        return f"{decimal(seconds, '.1f')} s"
    if seconds < 120:
        return f"{seconds:.0f} s"
    return f"{seconds / 60:.0f} min" if seconds < 6000 else f"{decimal(seconds / 3600, '.1f')} h"


def recycling(seconds: float) -> str:
    """How soon it is ready again: recycles in 0.4 s, or ready at once."""
    ready = duration(seconds)
    return f"ready {ready}" if ready == AT_ONCE else f"recycles in {ready}"


@kept(1024)
def share(value: float, digits: int = 0) -> str:
    """A share in per cent: 55 %."""
    return f"{decimal(value * 100, f'.{digits}f')} %"


@kept(4096)
def power(below_full: float) -> str:
    """A share of full power as a fraction, with what lies between two of them: 1/1, 1/32, 1/4 + ⅓."""
    whole = max(0, math.ceil(below_full - ON_MARK))
    between = whole - below_full
    if between > 1 - ON_MARK:
        whole, between = whole - 1, 0.0
    words = ""
    if between >= ON_MARK:
        mark = next((mark for size, mark in BETWEEN if abs(between - size) < ON_MARK), None)
        words = f" + {mark or decimal(min(between, 0.9), '.1f')}"
    return f"1/{2**whole}{words}"


ON_MARK = 0.03  # of a stop: a setting this near to a mark is said as that mark
BETWEEN = ((1 / 3, "⅓"), (1 / 2, "½"), (2 / 3, "⅔"))


def dial_kind(scale: PowerScale, units: DisplayUnits) -> Literal["fraction", "number", "ws"]:
    """What a dial is read in: its own way, or the one the person wants."""
    return scale.kind if units.power == "own" else units.power


def dial(scale: PowerScale, below_full: float, units: DisplayUnits, watt_seconds: float | None = None) -> str:
    """A power setting as the unit's dial shows it, so many stops below full, or as the person wants it."""
    kind = dial_kind(scale, units)
    if kind == "ws" and watt_seconds:
        energy = watt_seconds * 2**-below_full
        digits = 0 if energy >= 20 else 1 if energy >= 2 else 2  # no two tenths of a stop alike
        return f"{decimal(energy, f'.{digits}f')} Ws"
    if kind == "number":
        return f"{decimal(scale.top_number - below_full, '.1f')} of {decimal(scale.top_number, 'g')}"
    return power(below_full)


def listed(words: list[str], last: str = "or") -> str:
    """Words as a list in a sentence: a, b or c."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} {last} {words[-1]}" if words else ""


def count(number: int, one: str, many: str = "") -> str:
    """So many things: 1 unit, 10,012 units."""
    return f"{grouped(number)} {one if number == 1 else many or one + 's'}"
