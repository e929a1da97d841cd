"""A setup as it is worked on the set, with one hand: settings, each light's dial, and entries to be filled in."""

from dataclasses import dataclass
from datetime import datetime

from ..core.kit.unit import Unit
from ..core.plan.job.schedule import AsShot
from ..core.plan.learn.to_read import blank_seen, unit_at_light
from ..core.plan.light.reach import REACHES, Solved
from ..core.scene.log import LogEntry
from ..core.scene.seen import MethodKind
from .camera import settings_line
from .figures import DisplayUnits, amount, dial, length
from .kit import ROLES
from .methods import title


@dataclass(slots=True)
class SetLightText:
    """One light: what to dial. dials: all the dial shows, from full power down; place: of what to dial among them;
    blank: an entry to be filled in, None where no unit stands there; metered: whether a flash meter can read it."""

    light: int
    role: str
    unit: str
    through: str
    dial: str
    dials: list[str]
    place: int
    step: float
    verdict: str
    blank: LogEntry | None
    metered: bool = True


@dataclass(slots=True)
class SetText:
    """A setup on the set."""

    setup: str
    revision: int
    name: str
    method: str
    settings: str
    lights: list[SetLightText]
    ambient: LogEntry


def dials_of(unit: Unit, step: float, most: float, words: DisplayUnits) -> list[str]:
    """What a unit's dial shows, from full power down, step by step."""
    return [dial(unit.scale, at * step, words, unit.watt_seconds) for at in range(round(most / step) + 1)]


def blank_entry(solved: Solved, kind: MethodKind, light: int, unit: int, blank: LogEntry) -> LogEntry:
    """An entry for a reading of one light with its unit, to be filled in. blank: with time, job and setup."""
    bare = solved.setup.model_copy(update={"seen": (), "variants": ()})
    was = unit_at_light(bare, solved, light, unit)
    seen = blank_seen(solved, solved.reach(kind, light), unit, was.lights[light])
    name = f"{was.name[:60]}, {ROLES[was.lights[light].role]}"
    return blank.model_copy(update={"name": name, "was": was, "seen": seen})


def set_text(shot: AsShot, revision: int, job_id: str, words: DisplayUnits, now: datetime) -> SetText:
    """The document. revision: of the setup."""
    solved, kind, units = shot.solved, shot.kind, shot.units
    ids = job_id, shot.id
    bare = solved.setup.model_copy(update={"seen": (), "variants": ()})
    lights = []
    for at, light in enumerate(solved.setup.lights):
        reach, unit = solved.reach(kind, at), units[at]
        if not light.on:
            continue
        through = "bare" if light.modifier is None else light.modifier.name
        through = f"{through}, {length(light.distance_m, words)}"
        if unit is None:
            lights.append(SetLightText(at, ROLES[light.role], "no unit", through, "", [], 0, 1 / 3, "", None))
            continue
        one, table = solved.table.units[unit], solved.table
        step = float(table.step[unit])
        was = unit_at_light(bare, solved, at, unit)
        seen = blank_seen(solved, reach, unit, was.lights[at])
        entry = LogEntry(
            name=f"{was.name[:60]}, {ROLES[light.role]}", at=now, job=ids[0], setup=ids[1], was=was, seen=seen
        )
        spare = float(reach.spare[unit])
        verdict = "" if reach.verdict[unit] == REACHES else f"short by {amount(spare)}" if spare < 0 else "on the line"
        lights.append(
            SetLightText(
                light=at,
                role=ROLES[light.role],
                unit=one.name,
                through=through,
                dial=dial(one.scale, float(reach.below_full[unit]), words, one.watt_seconds),
                dials=dials_of(one, step, float(table.dial_range[unit]), words),
                place=round(float(reach.below_full[unit]) / step),
                step=step,
                verdict=verdict,
                blank=entry,
                metered=kind != "hss",
            )
        )
    method = solved.method(kind)
    ambient = LogEntry(name=f"{bare.name[:60]}, ambient", at=now, job=ids[0], setup=ids[1], was=bare)
    return SetText(
        ids[1], revision, bare.name, title(method, bare.body.shutter), settings_line(method.camera), lights, ambient
    )
