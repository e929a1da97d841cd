"""What a job takes along."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..core.kit.shelf import Shelf
from ..core.kit.stand import Stand
from ..core.physics.scales import Step
from ..core.plan.job.packing import PackItem, hire_days, pack_of, wind_of
from ..core.scene.job import Job, JobFile, planned
from ..core.scene.seen import MethodKind
from .job import day


@dataclass(frozen=True)
class PackList:
    """The list of a job. days: that hired kit is wanted; wind_m_s: the most that any of its setups stands in."""

    job: Job
    items: Sequence[PackItem]
    days: int
    wind_m_s: float


def pack(
    file: JobFile,
    shelf: Shelf,
    known: Mapping[str, frozenset[str]],
    stands: Sequence[Stand] = (),
    step: Step = "third",
    avoid: Sequence[MethodKind] = (),
) -> PackList:
    """What a job takes along. known: ids of what is on the shelf beside units, by kind. Raises CannotSolve where there
    is no setup."""
    plan, as_planned = day(file, shelf, step, avoid, ways=False), planned(file)
    items = pack_of(as_planned, plan, known, step, avoid, stands)
    return PackList(file.job, items, hire_days(file), wind_of(as_planned))
