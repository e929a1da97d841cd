"""Which kit a job takes, with what its day asks of it, and what must be given up where nothing covers all."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..core.kit.shelf import Shelf
from ..core.kit.table import UnitTable
from ..core.physics.scales import Step
from ..core.plan.change.levers import levers
from ..core.plan.change.moves import Bag
from ..core.plan.change.ranking import Lever, gaining, taming
from ..core.plan.job.assignment import Kit, Missing, crowded, missing
from ..core.plan.job.board import Landings
from ..core.plan.job.endurance import DayPlan
from ..core.scene.job import Job, JobFile, Least, Picked
from ..core.scene.seen import MethodKind
from .job import coverage, day

ENOUGH = 0.02  # stops: a change that brings so much less than what is missing is as good


@dataclass(frozen=True)
class GivenUp:
    """A light that nothing holds, and the single change that would let its nearest unit do so; None: none does."""

    of: Missing
    change: Lever | None


@dataclass(frozen=True)
class KitChoice:
    """The kit of a job. given_up: lights that no unit holds; crowded: setups that want more units than there are, by
    place; both only where no kit covers all. day: the job's day with it; None where no session is planned."""

    job: Job
    landings: Sequence[Landings]
    kit: Kit
    given_up: tuple[GivenUp, ...] = ()
    crowded: tuple[int, ...] = ()
    day: DayPlan | None = None

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
    from ..core.plan.job.kit_choice import choose_kit  # late: the solver takes a while to load

    job = file.job if least is None else file.job.model_copy(update={"least": least})
    landings = coverage(file, shelf, step, avoid)
    table = landings[0].solved.table
    chosen = choose_kit(landings, table, job.least, job.chance, job.spares, known_only=job.known_only)
    if chosen.status == "none":
        given_up = tuple(
            _given_up(one, landings[one.setup], bag or Bag(), step) for one in missing(landings, job.chance)
        )
        return KitChoice(job, landings, chosen, given_up, tuple(crowded(landings, table, job.chance, job.spares)))
    plan = None
    if chosen.counts and job.sessions:
        picked = tuple(Picked(unit=table.ids[at], count=number) for at, number in chosen.counts.items())
        taken = file.model_copy(update={"job": job.model_copy(update={"picked": picked})})
        plan = day(taken, shelf, step, avoid, ways=False)
    return KitChoice(job, landings, chosen, day=plan)


def kits_by_outlay(
    file: JobFile, shelf: Shelf, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> Iterator[KitChoice]:
    """Weight against money: kits one after the other as they are found, the lightest first. Raises CannotSolve."""
    landings = coverage(file, shelf, step, avoid)

    def found() -> Iterator[KitChoice]:
        from ..core.plan.job.kit_choice import front_of  # late, as above

        for one in front_of(landings, landings[0].solved.table, file.job.chance, file.job.spares):
            yield KitChoice(file.job, landings, one)

    return found()


def _given_up(one: Missing, landings: Landings, bag: Bag, step: Step) -> GivenUp:
    solved, kind, light = landings.solved, landings.kinds[one.kind], landings.lights[one.light]
    found = levers(solved.setup, light, kind, solved.table, one.unit, bag, step, pairs=False)
    good = taming(found) if one.too_bright else [x for x in gaining(found) if x.gain >= one.lacks - ENOUGH]
    return GivenUp(one, next((x for x in good if x.moves[0].code != "unit"), None))
