"""Whether the picture comes out: all that it asks for, each thing that fails, in the order in which a person looks."""

import math
from collections.abc import Iterator

from ...scene.seen import MethodKind
from ...scene.setup import Setup
from ..camera import look
from ..camera.framing import dark_of, frame_mm
from ..camera.remark import Remark, remark
from ..light.advice import FROZEN, holds_background, stillness
from ..light.levels import Level, ratio_of, totals_of
from ..light.reach import BLOCKED, SHORT, TOO_BRIGHT, Solved
from .covering import ends_of, frontal, key_of, outdoors, row_of, uncovered
from .surfaces import rendered, skin_clips

FACE_STOPS = 0.42  # a face this near to what is wanted is right: a third of a stop, and half a tenth of rounding
LIGHT_STOPS = 0.42  # the same of a light whose dial is fixed
RATIO_STOPS = 0.5  # a lighting ratio this near to the one wanted is right; common practice
RIGHT_BACKGROUND_STOPS = 0.42  # a background this near to what was asked is right
ENDS_STOPS = 0.42  # ends and rows of a group this near to its middle are even; common practice, a third of a stop
TONE_STOPS = 0.34  # how far a tone may clip before its drawing is gone; common practice
EDGE_STOPS = 0.5  # how far skin at the edge may clip before it is seen; common practice


Units = tuple[int | None, ...]


def fails(solved: Solved, kind: MethodKind, units: Units, found: tuple[Level, ...]) -> Iterator[Remark]:
    """What of the picture does not come out with these units at their dials; nothing where all of it does.

    units: of each light, None where it has none: it is not counted. In a person's order: the face, the other lights,
    the sides, the background, the part that the shutter leaves dark, freezing, the ends and rows of a group, the cover
    of the beam, the edge.
    """
    setup, method = solved.setup, solved.method(kind)
    totals = totals_of(found)
    yield from _ceilings(setup)
    yield from _lights(solved, kind, units)
    yield from _face(solved, kind, units, totals)
    wanted = setup.aim.ratio
    if wanted is not None and _on(setup, "key") is not None:
        off = math.log2(ratio_of(found) / wanted)
        if abs(off) > RATIO_STOPS:
            yield remark("ratio_off", ratio=ratio_of(found), wanted=wanted)
    yield from _background(solved, kind, totals)
    dark = dark_of(setup, method)
    if dark is not None and dark.over > 0:
        yield remark("dark_on_subject", share=dark.share, edge=dark.edge, edge_m=dark.edge_m, clear_m=dark.clear_m,
                     height_m=setup.stage.height_m, kind=setup.stage.kind)  # fmt: skip
    yield from _frozen(solved, kind, units)
    yield from _spread(setup, totals)
    yield from _cover(setup)
    clips = skin_clips(setup.stage)
    if totals.get("edge", -math.inf) > clips + EDGE_STOPS:
        yield remark("edge_white", over=totals["edge"] - clips)
    white = [one for one in rendered(setup, found) if one.over > TONE_STOPS and not one.mirrored]
    if white:
        worst = max(white, key=lambda one: one.over)
        yield remark("tone_white", name=worst.tone.name, over=worst.over)


def _ceilings(setup: Setup) -> Iterator[Remark]:
    """Lights that are to be bounced off a ceiling where there is none."""
    for at, light in enumerate(setup.lights):
        bounced = light.on and light.modifier is not None and light.modifier.kind == "bounce"
        surface = light.position.bounces_off if light.position else "ceiling"
        if bounced and outdoors(setup) and setup.stage.wall_m(surface) is None:
            yield remark("nothing_to_bounce", light=at, role=light.role, surface=surface)


def _on(setup: Setup, role: str) -> int | None:
    """The first light of a role that is on."""
    return next((at for at, light in enumerate(setup.lights) if light.role == role and light.on), None)


def _lights(solved: Solved, kind: MethodKind, units: Units) -> Iterator[Remark]:
    """Lights that have a unit which cannot do its part: blocked, short, too bright, or fixed at another power."""
    for at, light in enumerate(solved.setup.lights):
        unit = units[at]
        if not light.on or unit is None:
            continue
        reach = solved.reach(kind, at)
        word = str(reach.verdict[unit])
        if word == BLOCKED:
            yield remark("light_blocked", light=at, role=light.role)
        elif light.dial_stops is not None or light.automatic:
            if light.role != "key" and not light.automatic and abs(float(reach.off_stops[unit])) > LIGHT_STOPS:
                yield remark("light_off", light=at, role=light.role, stops=float(reach.off_stops[unit]))
        elif word == SHORT and reach.ambient_alone is None:
            yield remark("light_off", light=at, role=light.role, stops=float(reach.spare[unit]))
        elif word == TOO_BRIGHT and light.role != "key":
            yield remark("light_off", light=at, role=light.role, stops=float(reach.off_stops[unit]))


def _face(solved: Solved, kind: MethodKind, units: Units, totals: dict[str, float]) -> Iterator[Remark]:
    """The key's side of the face, with every light and the ambient on it."""
    at = _on(solved.setup, "key")
    if at is None or units[at] is None:
        return
    reach, unit = solved.reach(kind, at), units[at]
    word = str(reach.verdict[unit])
    if word == BLOCKED:
        return
    short = word == SHORT and solved.setup.lights[at].dial_stops is None
    receiver = solved.placing.receivers[reach.receiver]
    off = totals[receiver] - reach.wanted_stops
    if abs(off) > FACE_STOPS and not (short and off < 0):  # that is said of its light
        yield remark("face_off", stops=off, side=receiver, kind=solved.setup.stage.kind)


def _background(solved: Solved, kind: MethodKind, totals: dict[str, float]) -> Iterator[Remark]:
    setup, method = solved.setup, solved.method(kind)
    light = _on(setup, "background")
    wanted = setup.aim.background_stops if light is None else solved.reach(kind, light).wanted_stops
    off = totals["background"] - wanted
    frozen_dark = off < 0 and abs(method.off_stops) > RIGHT_BACKGROUND_STOPS and holds_background(solved, method)
    if abs(off) > RIGHT_BACKGROUND_STOPS and not frozen_dark:
        yield remark("background_off", stops=off, level=totals["background"])


def _frozen(solved: Solved, kind: MethodKind, units: Units) -> Iterator[Remark]:
    """Motion that is to be frozen: by the shutter, or by flashes that are short enough at the dials as they are."""
    still = stillness(solved, solved.method(kind))
    if still is None or still.frozen:
        return
    if still.by != "flash":
        yield remark("not_frozen", by=still.by, blur_mm=still.blur_mm, tolerable_mm=still.tolerable_mm)
        return
    lasting = [float(solved.reach(kind, at).t01_s[unit]) for at, unit in enumerate(units)
               if unit is not None and solved.setup.lights[at].on]  # fmt: skip
    needed = look.needed_s(solved.setup)
    if not all(t01 <= needed * FROZEN for t01 in lasting):  # NaN, a duration that is not known, is not short enough
        yield remark("not_frozen", by="flash", t01_s=max(lasting, default=math.nan), needed_s=needed)


def _spread(setup: Setup, totals: dict[str, float]) -> Iterator[Remark]:
    """The ends and the last row of a group, and the ends of what lies flat."""
    ends, row = ends_of(setup, totals), row_of(setup, totals)
    if ends is not None and abs(ends) > ENDS_STOPS:
        yield remark("ends_off", stops=ends)
    if row is not None and abs(row) > ENDS_STOPS:
        yield remark("row_off", stops=row)


def _cover(setup: Setup) -> Iterator[Remark]:
    """A key whose beam is narrower than what it has to cover: a group, or all that the lens sees from its side."""
    key, lens = key_of(setup), setup.aim.lens
    if key is None:
        return
    if setup.stage.kind == "group":
        wide = setup.stage.width_m
    elif lens is not None and frontal(key):
        wide = min(frame_mm(setup)[0] / lens.focal_mm * lens.subject_m, setup.stage.width_m)
    else:
        return
    short = uncovered(key, wide)
    if short is not None:
        yield remark("uncovered", across=short[0], beam=short[1])
