"""What a change does to the whole answer: two answers beside each other, and all that differs between them."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ...physics.exposure import stops_between
from ...physics.scales import APERTURES, ISOS, SHUTTERS, Series
from ...scene.seen import MethodKind
from ..camera.look import NOTHING_SEEN_STOPS
from ..camera.remark import Remark, remark
from ..light.advice import chosen_method, units_for
from ..light.levels import Level, levels, ratio_of, totals_of
from ..light.reach import BLOCKED, Solved
from ..stage.comes_out import fails

TOLD_STOPS = 0.3  # what moves by no more than this between two answers is not told
ASKED = ("dark_on_subject", "not_frozen", "ends_off", "row_off", "uncovered")
"""What a setup asks for beside brightness: a change that loses one of these is a loss, whatever it brings."""


@dataclass(frozen=True, eq=False)
class Whole:
    """One whole answer: a setup solved, its method, the unit of each light, what each receiver gets, what fails."""

    solved: Solved
    kind: MethodKind
    units: tuple[int | None, ...]
    levels: tuple[Level, ...]
    failing: tuple[Remark, ...]

    @property
    def totals(self) -> dict[str, float]:
        """What each receiver gets in all [stops from correct]."""
        return totals_of(self.levels)


def whole_of(solved: Solved, avoid: Sequence[MethodKind], seen_from: int, instead: Mapping[int, int]) -> Whole | None:
    """The whole answer to a solved setup, as it is seen from one of its lights; None where no method can be had.

    instead: units in hand by light, where they are not the ones that would be taken.
    """
    if not solved.kinds:
        return None
    kind = chosen_method(solved, avoid, seen_from)
    units = tuple(instead.get(at, unit) for at, unit in enumerate(units_for(solved, kind)))
    found = levels(solved, kind, units)
    return Whole(solved, kind, units, found, tuple(fails(solved, kind, units, found)))


def differences(before: Whole, after: Whole, light: int) -> Iterator[Remark]:
    """All that moves by more than `TOLD_STOPS` or changes its state between two answers, beside the light in hand:
    method, camera, background, ratio, ends and rows, edge, the other lights. What fails in only one is in `lost` and
    `won`."""
    if before.kind != after.kind:
        yield remark("method", before=before.kind, after=after.kind)
    yield from _camera(before, after)
    yield from _picture(before, after)
    yield from _others(before, after, light)


def lost(before: Whole, after: Whole) -> tuple[Remark, ...]:
    """What of the picture fails only after."""
    known = {_named(one) for one in before.failing}
    return tuple(one for one in after.failing if _named(one) not in known)


def won(before: Whole, after: Whole) -> tuple[Remark, ...]:
    """What of the picture fails only before."""
    return lost(after, before)


def loses(before: Whole, after: Whole) -> bool:
    """Whether something that the setup asks for beside brightness is lost."""
    return any(one.code in ASKED for one in lost(before, after))


def _named(one: Remark) -> tuple[str, object]:
    return one.code, one.facts.get("light")


def _camera(before: Whole, after: Whole) -> Iterator[Remark]:
    was, now = (one.solved.method(one.kind).camera for one in (before, after))
    if 2 * _apart(APERTURES, was.f_number, now.f_number) > TOLD_STOPS:
        yield remark("aperture", before=was.f_number, after=now.f_number)
    if _apart(SHUTTERS, was.shutter_s, now.shutter_s) > TOLD_STOPS:
        yield remark("shutter", before=was.shutter_s, after=now.shutter_s)
    if _apart(ISOS, was.iso, now.iso) > TOLD_STOPS:
        yield remark("iso", before=was.iso, after=now.iso)
    if abs(now.nd_stops - was.nd_stops) > TOLD_STOPS:
        yield remark("nd", before=was.nd_stops, after=now.nd_stops)


def _apart(series: Series, old: float, new: float) -> float:
    """How many doublings two marks lie apart."""
    return abs(float(stops_between(series.exact(old), series.exact(new))))


def _picture(before: Whole, after: Whole) -> Iterator[Remark]:
    was, now = before.totals, after.totals
    back = max(NOTHING_SEEN_STOPS, now["background"]) - max(NOTHING_SEEN_STOPS, was["background"])
    if abs(back) > TOLD_STOPS:
        yield remark("background", stops=back)
    setup = after.solved.setup
    if setup.stage.kind == "group":
        ends = [min(one["left"], one["right"]) - one["lit"] for one in (was, now)]
        if abs(ends[1] - ends[0]) > TOLD_STOPS:
            yield remark("ends", stops=ends[1], before=ends[0])
        row = [one["far"] - one["lit"] for one in (was, now)]
        if setup.stage.depth_m and abs(row[1] - row[0]) > TOLD_STOPS:
            yield remark("row", stops=row[1], before=row[0])
    elif abs((now["lit"] - now["shadow"]) - (was["lit"] - was["shadow"])) > TOLD_STOPS:
        yield remark("ratio", before=ratio_of(before.levels), after=ratio_of(after.levels))
    edge = now.get("edge", -math.inf), was.get("edge", -math.inf)
    if all(map(math.isfinite, edge)) and abs(edge[0] - edge[1]) > TOLD_STOPS:
        yield remark("edge", stops=edge[0] - edge[1])


def _others(before: Whole, after: Whole, light: int) -> Iterator[Remark]:
    """Other lights that come to another verdict."""
    for at, one in enumerate(after.solved.setup.lights):
        old, new = before.units[at], after.units[at]
        if at == light or not one.on or old is None or new is None:
            continue
        was, now = before.solved.reach(before.kind, at), after.solved.reach(after.kind, at)
        words = str(was.verdict[old]), str(now.verdict[new])
        if words[0] != words[1] and BLOCKED not in words:
            yield remark("other_light", light=at, role=one.role, verdict=words[1], spare=float(now.spare[new]),
                         too_bright=float(now.too_bright[new]))  # fmt: skip
