"""A setup hour by hour, in words: the table that a person carries."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..core.kit.unit import Unit
from ..core.plan.job.hours import Hour, first_lost
from ..core.scene.ambient import Sky
from ..core.scene.setup import Setup
from .camera import settings_line
from .figures import DisplayUnits, dial, listed, stops
from .methods import TITLES

SUNS: dict[Sky, str] = {"clear": "sun", "partly": "sun and cloud", "overcast": "cloud"}


@dataclass(slots=True)
class HourText:
    """One time: what to set, what is then in hand, and how every method that serves stands."""

    clock: str
    method: str
    settings: str
    dial: str
    spare: str
    reaches: bool
    ev: float
    others: list[str]
    note: str


@dataclass(slots=True)
class SkyText:
    """One sky through the day."""

    name: str
    hours: list[HourText]
    holds: str
    lost: list[str]


@dataclass(slots=True)
class HoursText:
    """The table."""

    unit: str
    setup: str
    skies: list[SkyText]


def hours_text(rows: Sequence[Hour], unit: Unit, setup: Setup, words: DisplayUnits) -> HoursText:
    """The document; sky by sky."""
    skies = list(dict.fromkeys(row.sky for row in rows))
    return HoursText(
        unit.name, setup.name, [_sky(sky, [r for r in rows if r.sky == sky], unit, words) for sky in skies]
    )


def _sky(sky: Sky, rows: Sequence[Hour], unit: Unit, words: DisplayUnits) -> SkyText:
    """What holds all through, what is lost when, and the hours."""
    kinds = dict.fromkeys(one.kind for row in rows for one in row.methods)
    lost, all_through = [], []
    for kind in kinds:
        holds = [row for row in rows if any(one.kind == kind and one.reaches for one in row.methods)]
        gone = first_lost(rows, kind)
        if gone is not None:
            again = next((row.clock for row in holds if row.clock > gone), None)
            back = f", again from {again:%H:%M}" if again else ""
            lost.append(f"{TITLES[kind]} holds no more from {gone:%H:%M}{back}")
        elif len(holds) == len(rows):
            all_through.append(TITLES[kind])
    through = f"{listed(all_through, 'and')}: all through" if all_through else ""
    return SkyText(SUNS[sky], [_hour(row, unit, words) for row in rows], through, lost)


def _hour(row: Hour, unit: Unit, words: DisplayUnits) -> HourText:
    if row.kind is None or row.camera is None:
        return HourText(f"{row.clock:%H:%M}", "no method", "", "", "", False, round(row.background_ev, 1), [], "")
    return HourText(
        clock=f"{row.clock:%H:%M}",
        method=TITLES[row.kind],
        settings=settings_line(row.camera),
        dial=dial(unit.scale, row.below_full, words, unit.watt_seconds),
        spare=stops(row.spare),
        reaches=row.reaches,
        ev=round(row.background_ev, 1),
        others=[f"{TITLES[one.kind]} {stops(one.spare)}" for one in row.methods if one.kind != row.kind],
        note="the sun has reached the open shade" if row.shade_gone else "",
    )


def joined(hours: Sequence[HourText]) -> list[HourText]:
    """Rows in which nothing changes as one, from the first time to the last."""
    out = list[HourText]()
    for hour in hours:
        before = out[-1] if out else None
        if before is not None and _set(before) == _set(hour):
            first = before.clock.partition(" ")[0]
            out[-1] = replace(before, clock=f"{first} to {hour.clock}")
        else:
            out.append(hour)
    return out


def _set(hour: HourText) -> tuple[str, str, str, bool]:
    return hour.method, hour.settings, hour.dial, hour.reaches
