"""What a job asks of whoever lends or sells: the fewest units that would do, and what each must give."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from ...kit.modifier import UnitKind
from ...kit.table import UnitTable
from ...scene.job import Job, JobFile, Session
from ...scene.seen import MethodKind
from ..light.advice import chosen_method
from ..light.reach import CADENCE_S, Solved
from .of_light import Need, needs_of, solved_need

LEAST_S = 0.1  # between two flashes, at the least


@dataclass(frozen=True, eq=False)
class Wanted:
    """A light of a setup in a job. every_s: between two of its flashes. flashes: in all sessions of its setup."""

    setup: str
    need: Need
    every_s: float
    flashes: float


@dataclass(eq=False)
class AskedUnit:
    """One unit that is asked for: the lights that it must serve, one at a time."""

    lights: list[Wanted] = field(default_factory=list)

    @property
    def stops(self) -> float:
        """The most that is asked of it at its own reflector [stops, 2 log2 GN]; -inf where none is."""
        return max((one.need.stops for one in self.lights if one.need.zoom_mm is None), default=-math.inf)

    @property
    def zoomed(self) -> dict[float, float]:
        """The most that is asked of it bare, by zoom position [mm to stops]."""
        out: dict[float, float] = {}
        for one in self.lights:
            if one.need.zoom_mm is not None:
                out[one.need.zoom_mm] = max(one.need.stops, out.get(one.need.zoom_mm, -math.inf))
        return out

    @property
    def hardest_hss(self) -> Need | None:
        """What asks most in HSS of what is left there."""
        found = [one.need for one in self.lights if one.need.hss_shutter_s is not None]
        return max(found, key=lambda need: need.stops - need.hss_stops, default=None)

    @property
    def shortest(self) -> Need | None:
        """What asks for the shortest flash: how short it must be, and at what output."""
        found = [one.need for one in self.lights if one.need.t01_s is not None]
        return min(found, key=lambda need: need.t01_s or 0.0, default=None)

    @property
    def window_s(self) -> float | None:
        """The shortest that the shutter is open to it [s], where that clips a slow flash."""
        return min((one.need.window_s for one in self.lights if one.need.window_s is not None), default=None)

    @property
    def fits(self) -> frozenset[UnitKind] | None:
        """Kinds that all its modifiers fit; None: any."""
        out: frozenset[UnitKind] | None = None
        for one in self.lights:
            if one.need.fits:
                out = frozenset(one.need.fits) if out is None else out & frozenset(one.need.fits)
        return out

    @property
    def takes_modifiers(self) -> bool:
        """Whether anything is put in front of it."""
        return any(one.need.takes_modifiers for one in self.lights)

    @property
    def least_stops(self) -> float:
        """The least that is asked of it at its own reflector [stops]: it must go down so far."""
        return min((one.need.stops for one in self.lights if one.need.zoom_mm is None), default=math.inf)

    @property
    def every_s(self) -> float:
        """The shortest time between two flashes [s]."""
        return min((one.every_s for one in self.lights), default=math.inf)

    @property
    def flashes(self) -> float:
        """Flashes in the whole job."""
        return sum(one.flashes for one in self.lights)

    def fulfilled_by(self, table: UnitTable) -> list[int]:
        """Places of the units that serve every one of its lights, on the mean."""
        good = [one.need.fulfilled_by(table) for one in self.lights]
        return [at for at in range(len(table)) if all(each[at] for each in good)]

    def has_room_for(self, wanted: Wanted, classes: UnitTable) -> bool:
        """Whether one more light can be served by the same unit: some class serves it with all that there is; where
        none serves even what there is, or it alone, by what its modifier fits."""
        both = AskedUnit([*self.lights, wanted])
        if both.fulfilled_by(classes):
            return True
        if self.fulfilled_by(classes) and AskedUnit([wanted]).fulfilled_by(classes):
            return False
        own = self.fits
        return own is None or not wanted.need.fits or bool(own & frozenset(wanted.need.fits))


def wanted_of(file: JobFile, avoid: Sequence[MethodKind] = ()) -> list[list[Wanted]]:
    """What every setup of a job asks, light by light and head by head; in the method that its picture is best taken in.

    file: see `planned`. Raises CannotSolve.
    """
    out = []
    for one in file.setups:
        solved = solved_need(one.setup)
        if solved.kinds:
            out.append(list(_wanted(one.setup.name, solved, chosen_method(solved, avoid), file.job, one.id)))
    return out


def _wanted(name: str, solved: Solved, kind: MethodKind, job: Job, setup_id: str) -> Iterable[Wanted]:
    sessions = [one for one in job.sessions if one.setup == setup_id]
    waits = [_every_s(one) for one in sessions]
    frames = sum(one.frames for one in sessions)
    for need in needs_of(solved, kind):
        if not need.ambient_enough:
            light = need.asks
            one = Wanted(name, need, min(waits, default=CADENCE_S) / light.pops, frames * light.pops)
            yield from [one] * light.heads


def _every_s(session: Session) -> float:
    """Between two flashes of a session [s]."""
    if session.minutes_each is None:
        return CADENCE_S
    return max(LEAST_S, session.minutes_each * 60 / session.frames_of_one)


def request_of(wanted: Iterable[Sequence[Wanted]], classes: UnitTable) -> list[AskedUnit]:
    """The fewest units that serve all, the strongest first: the strongest light of every setup is served by the first,
    the next by the second; one more is added only where no one class of unit could serve both.

    classes: the classes of units that there commonly are.
    """
    asked: list[AskedUnit] = []
    for setup in wanted:
        free = list(asked)
        for one in sorted(setup, key=lambda each: -each.need.stops):
            place = next((each for each in free if each.has_room_for(one, classes)), None)
            if place is None:
                place = AskedUnit()
                asked.append(place)
            else:
                free.remove(place)
            place.lights.append(one)
    return sorted(asked, key=lambda each: -max(each.stops, *each.zoomed.values(), -math.inf))
