"""The verdict: what to set in one sentence, and what comes out, each against what was wanted."""

from collections.abc import Sequence

from ..core.plan.camera.methods import Method
from ..core.plan.camera.remark import Remark
from ..core.plan.light import advice
from ..core.plan.light.advice import heads_enough
from ..core.plan.light.levels import Level, ratio_of, totals_of
from ..core.plan.light.reach import BLOCKED, BLOCKERS, ON_THE_LINE, SHORT, TOO_BRIGHT, Reach
from ..core.plan.stage.comes_out import FACE_STOPS, LIGHT_STOPS
from ..core.plan.stage.covering import ends_of, row_of
from ..core.scene.setup import Setup
from ..core.scene.stage import SubjectKind
from .comes_out import BLACK, clause
from .figures import DisplayUnits, amount, decimal, dial, length, stops
from .kit import FACES
from .methods import METERED, UNIT_BLOCKERS

MOST_RATIO = 64  # a lighting ratio over this is told as no more than that
RIGHT = 0.17  # stops: what is nearer than half a third of a stop is right


def of_unit(reach: Reach, unit: int, units: DisplayUnits, failing: Sequence[Remark]) -> str:
    """What the unit taken for a light does, in a sentence; it is right where all that the picture asks comes out.

    failing: what of the picture does not, the first thing first.
    """
    told = of_light(reach, unit, units, not failing)
    others = others_of(failing, reach, unit)
    if not others:
        return told
    return f"{told.removesuffix('.')}, but {clause(others[0], units)}."


def others_of(failing: Sequence[Remark], reach: Reach, unit: int) -> list[Remark]:
    """What fails beside what the sentence about the light itself says."""
    return [one for one in failing if not _said(one, reach, unit)]


def _said(found: Remark, reach: Reach, unit: int) -> bool:
    """Whether the sentence about the light itself says it already."""
    if found.code in ("light_off", "light_blocked"):
        return bool(found.facts["light"] == reach.at[1])
    if found.code != "face_off" or reach.light.role != "key":
        return False
    fixed = reach.light.dial_stops is not None
    return fixed or reach.ambient_alone is not None or str(reach.verdict[unit]) == TOO_BRIGHT


def of_light(reach: Reach, unit: int, units: DisplayUnits, right: bool = False) -> str:
    """What a unit does at a light, the rest of the picture aside; right: whether that comes out."""
    light, name = reach.light, reach.solved.table.units[unit].name
    word, spare = str(reach.verdict[unit]), float(reach.spare[unit])
    if word == BLOCKED:
        return f"{name} cannot be used: {UNIT_BLOCKERS[BLOCKERS[int(reach.blocker[unit])]]}."
    through = f" through {light.modifier.name}" if light.modifier else ""
    where = f"{through} at {length(light.distance_m, units)}"
    alone = reach.ambient_alone
    if alone is not None and light.dial_stops is None:
        return no_flash_needed(alone)
    if light.automatic:
        start = stops(reach.wanted_stops)
        enough = f"short by {amount(spare)}" if word == SHORT else f"enough, {amount(spare)} in hand"
        return f"{name} on automatic, compensation {start}{where}: full power is {enough}."
    if light.dial_stops is not None:
        out = came_out(float(reach.off_stops[unit]), light.role, reach.solved.setup.stage.kind)
        by_it = "" if alone is None or alone < RIGHT else f"; the ambient alone brings it {amount(alone)} over"
        return f"{name} fixed at {_dial(reach, unit, units)}{where}: {out}{by_it}."
    if word == SHORT:
        held = float(reach.below_full[unit]) > 0  # the brightest setting that is short enough to freeze
        most = f"{_dial(reach, unit, units)}, the most that freezes" if held else "full power"
        return f"{name} at {most}{where}: short by {amount(spare)}."
    if word == TOO_BRIGHT:
        what = SUBJECTS.get(light.role, FACES[reach.solved.setup.stage.kind])
        over = amount(float(reach.off_stops[unit]))
        return f"{name}{where}: {what} too bright even at {_dial(reach, unit, units)}, by {over}."
    set_to = f"{name} at {_dial(reach, unit, units)}{where}"
    if word == ON_THE_LINE:
        return f"{set_to}: on the line, {stops(spare)} ± {decimal(float(reach.sd[unit]), '.1f')} stop."
    return f"{set_to}: {'right, ' if right else ''}{amount(spare)} in hand."


def no_flash_needed(over: float) -> str:
    """Where the ambient alone gives the lit side what is wanted of it, or so many stops more."""
    if over < RIGHT:
        return "No flash is needed: the ambient alone gives the lit side what is wanted."
    return (
        f"No flash is needed: the ambient alone brings the lit side {amount(over)} over what is wanted. "
        "A shorter time, ND or a smaller aperture brings it down."
    )


def _dial(reach: Reach, unit: int, units: DisplayUnits) -> str:
    one = reach.solved.table.units[unit]
    return dial(one.scale, float(reach.below_full[unit]), units, one.watt_seconds)


SIDE_ON_DEG = 60.0  # from here on a light comes from the side, from memory
SUBJECTS = {"fill": "the fill", "rim": "the edge", "background": "the background light"}


def came_out(left: float, role: str, kind: SubjectKind) -> str:
    """What a light with a fixed dial comes to against what was wanted."""
    what = SUBJECTS.get(role, FACES[kind])
    if abs(left) < RIGHT:
        return f"{what} is right"
    if abs(left) <= (FACE_STOPS if role == "key" else LIGHT_STOPS):
        return f"{what} is right, {amount(left)} on the {'bright' if left > 0 else 'dark'} side"
    return f"{what} {amount(left)} too {'bright' if left > 0 else 'dark'}"


def picture(method: Method, found: tuple[Level, ...], wanted_background: float, reach: Reach, unit: int | None) -> str:
    """What comes out: background, both sides of the subject and their ratio, the dark part, how to meter."""
    total = totals_of(found)
    back = total["background"]
    parts = [f"background {stops(back)}{_against(back - wanted_background)}" if back > BLACK else "background black"]
    if total["lit"] - total["shadow"] < 0.1:
        parts.append(f"{_whole(reach.solved.setup)} {stops(total['lit'])}")
    else:
        key = next((one for one in reach.solved.setup.lights if one.role == "key" and one.on), None)
        side = ", with the key from one side" if key is not None and key.position is None else ""
        parts.append(f"lit side {stops(total['lit'])}, shadow side {stops(total['shadow'])} ({ratio(found)}{side})")
    if reach.solved.setup.stage.kind == "group":
        parts += _group(reach, unit, total)
    if method.lit < 1:
        edge = f" at the {method.dark_edge}" if method.dark_edge else ""
        parts.append(f"{round((1 - method.lit) * 100)} % of the frame dark{edge}")
    if unit is not None and reach.able[unit]:
        costs = advice.costs_for(reach.solved, unit, reach.at[1]).get(method.kind)
        if costs is not None:
            parts.append(METERED[costs.metered])
    return ", ".join(parts)


def _group(reach: Reach, unit: int | None, total: dict[str, float]) -> list[str]:
    """The ends and the last row of a group against its middle, and how many heads would do."""
    setup, out = reach.solved.setup, list[str]()
    for what, off in (("ends", ends_of(setup, total)), ("last row", row_of(setup, total))):
        if off is not None:
            out.append(f"{what} {stops(off)} against the middle")
    heads = None if unit is None else heads_enough(reach, unit)
    return out if heads is None else [*out, f"{heads} equal heads would do"]


def _whole(setup: Setup) -> str:
    """A subject of which both sides are lit alike; of a thing lit from its two sides, its edges."""
    turned = [light.position.bearing_deg for light in setup.lights if light.on and light.position is not None]
    if setup.stage.kind == "object" and min(turned, default=0) <= -SIDE_ON_DEG and max(turned) >= SIDE_ON_DEG:
        return "both edges"
    return FACES[setup.stage.kind].removeprefix("the ")


def ratio(found: tuple[Level, ...]) -> str:
    """A lighting ratio: 2.3 : 1."""
    return ratio_words(ratio_of(found))


def ratio_words(value: float) -> str:
    """The same of a figure."""
    if value > MOST_RATIO:
        return f"over {MOST_RATIO} : 1"
    return f"{value:.0f} : 1" if value >= 9.95 else f"{decimal(value, '.1f')} : 1"


def _against(off: float) -> str:
    if abs(off) < 0.25:
        return ""
    return f" ({amount(off)} {'brighter' if off > 0 else 'darker'} than wanted)"
