"""Which kit a job takes, with what its day asks of it, and what must be given up where nothing covers all."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from ..core.kit.shelf import Shelf
from ..core.kit.table import UnitTable
from ..core.physics.scales import Step
from ..core.plan.change.levers import levers
from ..core.plan.change.moves import Bag
from ..core.plan.change.ranking import Lever, gaining, taming
from ..core.plan.choice.assignment import Kit, Missing, crowded, missing, needs_of
from ..core.plan.choice.feeding import Feeding, feeding_of
from ..core.plan.job.board import Landings
from ..core.plan.job.endurance import DayPlan, charges_of
from ..core.plan.job.schedule import day_shelf, turns_of
from ..core.scene.job import Job, JobFile, Least, Picked, Posted, planned
from ..core.scene.seen import MethodKind
from .job import day, landings_in

if TYPE_CHECKING:
    from ..core.plan.choice.programme import Replay, Replayed

ENOUGH = 0.02  # stops: a change that brings so much less than what is missing is as good


@dataclass(frozen=True)
class GivenUp:
    """A light that nothing holds, and the single change that would let its nearest unit do so; None: none does."""

    of: Missing
    change: Lever | None


@dataclass(frozen=True)
class KitChoice:
    """The kit of a job. given_up: lights that no unit holds; crowded: setups that want more units than there are, by
    place; both only where no kit covers all. day: the job's day with it; None where no session is planned. feeding:
    what the batteries come to that its units could ask for; None then too. posted: who stands where."""

    job: Job
    landings: Sequence[Landings]
    kit: Kit
    given_up: tuple[GivenUp, ...] = ()
    crowded: tuple[int, ...] = ()
    day: DayPlan | None = None
    feeding: Feeding | None = None
    posted: tuple[Posted, ...] = ()

    @property
    def table(self) -> UnitTable:
        """The units that there are to choose from."""
        return self.landings[0].solved.table


def kit(
    file: JobFile,
    shelf: Shelf,
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
    bag: Bag | None = None,
    least: Least | None = None,
) -> KitChoice:
    """The kit with the least of what the job asks for. bag: what could be put on lights that nothing holds. Raises
    CannotSolve where there is no setup."""
    from ..core.plan.choice.kit_choice import choose_kit  # late: the solver takes a while to load

    job = file.job if least is None else file.job.model_copy(update={"least": least})
    landings = landings_in(file, shelf, step, avoid)
    table = landings[0].solved.table
    days = _Days(file, landings, shelf, step, avoid) if job.sessions else None
    feeding, replay = _asked_of(days)
    chosen = choose_kit(
        landings, table, job.least, job.chance, job.spares, known_only=job.known_only, feeding=feeding, replay=replay
    )
    if chosen.status == "none":
        given_up = tuple(
            _given_up(one, landings[one.setup], bag or Bag(), step) for one in missing(landings, job.chance)
        )
        full = tuple(crowded(landings, table, job.chance, job.spares))
        return KitChoice(job, landings, chosen, given_up, full, feeding=feeding)
    plan = days.with_kit(chosen) if days is not None and chosen.counts else None
    return KitChoice(job, landings, chosen, day=plan, feeding=feeding, posted=posted(file, landings, chosen))


def kits_by_outlay(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> Iterator[KitChoice]:
    """Weight against money: kits one after the other as they are found, the lightest first. Raises CannotSolve."""
    landings = landings_in(file, shelf, step, avoid)

    def found() -> Iterator[KitChoice]:
        from ..core.plan.choice.kit_choice import front_of  # late, as above

        days = _Days(file, landings, shelf, step, avoid) if file.job.sessions else None
        feeding, replay = _asked_of(days)
        table, job = landings[0].solved.table, file.job
        for one in front_of(landings, table, job.chance, job.spares, feeding, replay):
            yield KitChoice(job, landings, one, feeding=feeding, posted=posted(file, landings, one))

    return found()


def with_kit(file: JobFile, landings: Sequence[Landings], kit: Kit) -> JobFile:
    """A job with a kit taken along, everybody where it has them."""
    table = landings[0].solved.table
    picked = tuple(
        Picked(unit=table.ids[at], name=table.units[at].name, count=number) for at, number in kit.counts.items()
    )
    update = {"picked": picked, "posts": posted(file, landings, kit)}
    return file.model_copy(update={"job": file.job.model_copy(update=update)})


def posted(file: JobFile, landings: Sequence[Landings], kit: Kit) -> tuple[Posted, ...]:
    """Who stands where, as a job keeps it."""
    out, table = list[Posted](), landings[0].solved.table
    for post in kit.posts:
        one = landings[post.setup]
        light = one.solved.setup.lights[one.lights[post.light]]
        setup, unit = file.setups[post.setup].id, table.ids[post.unit]
        out.append(Posted(setup=setup, light=light.id, unit=unit, name=table.units[post.unit].name))
    return tuple(out)


@dataclass(frozen=True, eq=False)
class _Days:
    """The days of a job with one kit or another, each played once."""

    file: JobFile
    landings: Sequence[Landings]
    shelf: Shelf
    step: Step
    avoid: Sequence[MethodKind]
    played: dict[tuple[tuple[Picked, ...], tuple[Posted, ...]], DayPlan] = field(default_factory=dict)

    def feeding(self) -> Feeding:
        """What the batteries come to, whoever stands where."""
        job = self.file.job.model_copy(update={"picked": (), "posts": ()})
        free = self.file.model_copy(update={"job": job})
        turns = turns_of(planned(free), day_shelf(free, self.shelf), self.step, self.avoid)
        return feeding_of(self.file, self.landings, needs_of(self.landings, job.chance), turns)

    def with_kit(self, kit: Kit) -> DayPlan:
        """With a kit taken along."""
        taken = with_kit(self.file, self.landings, kit)
        key = taken.job.picked, taken.job.posts
        if key not in self.played:
            self.played[key] = day(taken, self.shelf, self.step, self.avoid, ways=False)
        return self.played[key]

    def replay(self, kit: Kit) -> "Replayed":
        """What they come to with a kit."""
        return _replayed(self.file, self.landings, self.with_kit(kit))


def _asked_of(days: _Days | None) -> "tuple[Feeding | None, Replay | None]":
    """What the days ask of the batteries, and how they run with a kit; (None, None) where none is planned."""
    return (None, None) if days is None else (days.feeding(), days.replay)


def _replayed(file: JobFile, landings: Sequence[Landings], plan: DayPlan) -> "Replayed":
    """What the days of a job came to. plan: as they run with a kit."""
    from ..core.plan.choice.programme import Replayed  # late, as above

    table = landings[0].solved.table
    place = {unit_id: at for at, unit_id in enumerate(table.ids)}
    setups = {one.id: at for at, one in enumerate(file.setups)}
    job, followed = plan.job, True
    charges = Counter[int]()  # by += none that wants no charge
    for one in plan.units:
        charges += Counter({place[plan.table.ids[one.unit]]: charges_of(one, job)})
    seen: dict[int, set[int | None]] = {}
    wanted = {(one.setup, one.light): one.unit for one in job.posts}
    for turn in plan.turns:
        setup = setups[turn.session.setup]
        kinds = landings[setup].kinds
        for stretch in turn.stretches:
            seen.setdefault(setup, set()).add(kinds.index(stretch.kind) if stretch.kind in kinds else None)
            for light, unit in zip(turn.setup.lights, stretch.units, strict=True):
                stands = None if unit is None else plan.table.ids[unit]
                followed = followed and (not light.on or stands == wanted.get((turn.session.setup, light.id)))
    return Replayed(charges, {at: kinds.pop() if len(kinds) == 1 else None for at, kinds in seen.items()}, followed)


def _given_up(one: Missing, landings: Landings, bag: Bag, step: Step) -> GivenUp:
    if one.unfed:
        return GivenUp(one, None)
    solved, kind, light = landings.solved, landings.kinds[one.kind], landings.lights[one.light]
    found = levers(solved.setup, light, kind, solved.table, one.unit, bag, step, pairs=False)
    good = taming(found) if one.too_bright else [x for x in gaining(found) if x.gain >= one.lacks - ENOUGH]
    return GivenUp(one, next((x for x in good if x.moves[0].code != "unit"), None))
