"""The set from above and the frame as small drawings (SVG) that stand by themselves: for cards, and to send along."""

import json
import math
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import NamedTuple

from jinja2 import Environment, FileSystemLoader, StrictUndefined
from markupsafe import Markup

from ..words.stage import LightText, StageText

PAPER = Path(__file__).parent.parent / "paper"
WIDE, TALL, EDGE = 340.0, 260.0, 30.0  # of the drawing from above
FRAME_LONG, FRAME_SHORT = 240.0, 160.0
LETTER, LINE = 6.4, 12.5  # width and height of what is written
NEAR = 2.5  # a background nearer than so many times the camera's distance is drawn to scale
MOST_FIGURES = 9


@cache
def environment() -> Environment:
    """Text that came from a person is escaped wherever it stands."""
    return Environment(loader=FileSystemLoader(PAPER), autoescape=True, undefined=StrictUndefined, trim_blocks=True)


@cache
def _outlines() -> dict[str, list[list[float]]]:
    found: dict[str, list[list[float]]] = json.loads((PAPER / "outlines.json").read_text(encoding="utf-8"))
    return found


class Written(NamedTuple):
    """A line of writing at a place."""

    x: float
    y: float
    anchor: str
    text: str


@dataclass(frozen=True)
class Plan:
    """Metres to places on the drawing, one scale for both axes."""

    scale: float
    mid_x: float
    mid_y: float

    def x(self, metres: float) -> float:
        """Across."""
        return round(WIDE / 2 + (metres - self.mid_x) * self.scale, 1)

    def y(self, metres: float) -> float:
        """Down; away from the camera is up."""
        return round(TALL / 2 - (metres - self.mid_y) * self.scale, 1)


def plan_of(stage: StageText) -> Plan:
    """A plan that shows subject, camera and lights; walls, and a background that is not much farther off."""
    half = stage.width_m / 2 + 0.4
    xs, ys = [-half, half], [-stage.camera_m, stage.depth_m + 0.5]
    for light in stage.lights:
        if light.on and (light.role != "background light" or near(stage)):
            xs.append(light.x_m)
            ys.append(light.y_m)
    xs += [side * wall for side, wall in ((-1, stage.left_wall_m), (1, stage.right_wall_m)) if wall]
    if near(stage) and stage.background_m is not None:
        ys.append(stage.background_m)
    scale = min((WIDE - 2 * EDGE) / (max(xs) - min(xs)), (TALL - 2 * EDGE) / (max(ys) - min(ys)))
    return Plan(scale, (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)


def near(stage: StageText) -> bool:
    """Whether the background is near enough to be drawn to scale."""
    return stage.background_m is not None and stage.background_m < NEAR * stage.camera_m


def above(stage: StageText, name: str) -> Markup:
    """The set from above: lights by their numbers, with distances and heights as they are said."""
    plan = plan_of(stage)
    lights = [(number, one) for number, one in enumerate(stage.lights, 1) if one.on]
    return _drawn(
        "above.svg.j2",
        name=name,
        wide=WIDE,
        tall=TALL,
        stage=stage,
        plan=plan,
        near=near(stage),
        lights=lights,
        written=_written(plan, lights),
        beams=[end for _, one in lights if one.beam_deg for end in _beam(plan, one)],
        view=[]
        if stage.view_deg is None
        else [_ray(plan, 0, -stage.camera_m, side * stage.view_deg) for side in (-1, 1)],
        facing=_short(plan, stage.facing_deg),
        sun=None if stage.sun_bearing_deg is None else _sun(stage.sun_bearing_deg),
    )


def _ray(plan: Plan, x: float, y: float, deg: float) -> tuple[float, float, float, float]:
    far, turn = 60.0, math.radians(deg)
    return plan.x(x), plan.y(y), plan.x(x + far * math.sin(turn)), plan.y(y + far * math.cos(turn))


def _beam(plan: Plan, light: LightText) -> list[tuple[float, float, float, float]]:
    beam = light.beam_deg or 0.0
    return [_ray(plan, light.x_m, light.y_m, light.points_deg + side * beam) for side in (-0.5, 0.5)]


def _short(plan: Plan, deg: float) -> tuple[float, float]:
    """Where a face that is turned so looks to, as a step on the drawing: 0 is to the camera."""
    turn = math.radians(deg)
    return round(15 * math.sin(turn), 1), round(15 * math.cos(turn), 1)


def _sun(bearing: float) -> tuple[float, float]:
    turn = math.radians(bearing)
    return round(WIDE / 2 + (TALL / 2 - 12) * math.sin(turn), 1), round(TALL / 2 + (TALL / 2 - 12) * math.cos(turn), 1)


def _written(plan: Plan, lights: list[tuple[int, LightText]]) -> list[Written]:
    """What is written beside each light, on the side away from the middle, none over another."""
    out, boxes = list[Written](), list[tuple[float, float, float, float]]()
    for _, one in lights:
        boxes.append((plan.x(one.x_m) - 9, plan.x(one.x_m) + 9, plan.y(one.y_m) - 9, plan.y(one.y_m) + 9))
    for _, one in lights:
        x, y = plan.x(one.x_m), plan.y(one.y_m)
        long = len(one.brief) * LETTER
        for side, down in ((1, 0), (-1, 0), (1, 1), (-1, 1), (1, -1), (-1, -1), (1, 2), (-1, 2), (1, -2), (-1, -2)):
            left = x + 12 if side > 0 else x - 12 - long
            box = (left, left + long, y + down * LINE - 8, y + down * LINE + 3)
            if box[0] < 2 or box[1] > WIDE - 2 or any(_meet(box, other) for other in boxes):
                continue
            boxes.append(box)
            out.append(Written(round(left, 1), round(y + down * LINE + 3, 1), "start", one.brief))
            break
    return out


def _meet(a: tuple[float, float, float, float], b: tuple[float, float, float, float]) -> bool:
    return a[0] < b[1] and b[0] < a[1] and a[2] < b[3] and b[2] < a[3]


def frame(stage: StageText, name: str) -> Markup:
    """The frame with its tones: where the subject stands in it, and the part that gets no flash."""
    found = stage.frame
    wide, tall = (FRAME_SHORT, FRAME_LONG) if found.upright else (FRAME_LONG, FRAME_SHORT)
    tones = {tone.receiver: tone for tone in found.tones}
    lit, shadow = tones["lit"].total, tones["shadow"].total
    count = min(MOST_FIGURES, max(2, found.people)) if found.kind == "group" else 1
    span = found.width * wide * 0.86
    places = [wide / 2 + (at / (count - 1) - 0.5) * span for at in range(count)] if count > 1 else [wide / 2]
    height, top = (found.feet - found.head) * tall, found.head * tall
    return _drawn(
        "frame.svg.j2",
        name=name,
        wide=wide,
        tall=tall,
        found=found,
        ground=tones["background"].total,
        horizon=round(min(1.2, max(-0.2, found.horizon)) * tall, 1),
        left=shadow if found.lit_right else lit,
        right=lit if found.lit_right else shadow,
        sides=[(_side(found.kind, x, -1, top, height), _side(found.kind, x, 1, top, height)) for x in places],
        dark=_dark(found.dark, found.dark_edge, wide, tall),
    )


def _side(kind: str, x: float, sign: int, top: float, height: float) -> str:
    """One side of an outline as a path, from the top down."""
    points = [f"{x + sign * dx * height:.1f} {top + dy * height:.1f}" for dx, dy in _outlines()[kind]]
    bends = "".join(f"C{' '.join(points[at : at + 3])}" for at in range(0, len(points), 3))
    start = top + (0.3 * height if kind == "animal" else 0.0)
    return f"M{x:.1f} {start:.1f}{bends}H{x:.1f}z"


def _dark(share: float, edge: str, wide: float, tall: float) -> tuple[float, float, float, float] | None:
    """The part that the flash does not reach: x, y, width, height."""
    if share <= 0:
        return None
    if "left" in edge or "right" in edge:
        return (0.0 if "left" in edge else wide * (1 - share)), 0.0, wide * share, tall
    return 0.0, (0.0 if "top" in edge else tall * (1 - share)), wide, tall * share


def _drawn(template: str, **parts: object) -> Markup:
    return Markup(environment().get_template(template).render(**parts).strip())
