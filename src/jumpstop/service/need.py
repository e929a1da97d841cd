"""What a setup or a job asks, without any unit."""

from collections.abc import Sequence

from ..core.kit.errors import CannotSolve
from ..core.kit.shelf import Shelf
from ..core.physics.scales import Step
from ..core.plan.light.advice import chosen_method
from ..core.plan.light.reach import Solved
from ..core.plan.need.of_job import AskedUnit, request_of, wanted_of
from ..core.plan.need.of_light import solved_need
from ..core.scene.job import JobFile, planned
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup


def need(
    setup: Setup, light: int = 0, step: Step = "third", avoid: Sequence[MethodKind] = ()
) -> tuple[Solved, MethodKind]:
    """A setup solved for whatever unit may stand there, and the method that its picture is best taken in. Raises
    CannotSolve."""
    if light >= len(setup.lights):
        raise CannotSolve("no_such_light", number=light + 1)
    solved = solved_need(setup, step)
    if not solved.kinds:
        raise CannotSolve("no_usable_unit")
    return solved, chosen_method(solved, avoid, light)


def request(file: JobFile, classes: Shelf, avoid: Sequence[MethodKind] = ()) -> list[AskedUnit]:
    """The fewest units that a job asks for, of classes that there are. Raises CannotSolve where there is no setup."""
    if not file.setups:
        raise CannotSolve("no_setups")
    return request_of(wanted_of(planned(file), avoid), classes.table)
