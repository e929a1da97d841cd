"""A setup's variants, in words: what hands must change from how it stands to each."""

from dataclasses import dataclass

from ..core.plan.job.changeover import Standing
from ..core.plan.light.advice import chosen_method, units_for
from ..core.plan.light.reach import Solved, solve
from ..core.scene.setup import Setup
from .figures import DisplayUnits
from .hands import hands_text


@dataclass(slots=True)
class VariantText:
    """One variant: the changes by hand, and the setup with them made. here: the setup stands so already."""

    name: str
    here: bool
    hands: list[str]
    setup: Setup


@dataclass(slots=True)
class VariantsText:
    """All of them, and the setup with how it stands now kept as one more."""

    variants: list[VariantText]
    free: bool


MOST = 12


def variants_text(solved: Solved, words: DisplayUnits) -> VariantsText:
    """The document."""
    setup, now = solved.setup, _standing(solved)
    out = []
    for one in setup.variants:
        other = setup.in_variant(one.name)
        there = _standing(solve(other, solved.table, words.step))
        hands = hands_text(now, there, words) if now is not None and there is not None else []
        out.append(VariantText(one.name, other == setup, hands, other))
    return VariantsText(out, len(setup.variants) < MOST)


def _standing(solved: Solved) -> Standing | None:
    if not solved.kinds:
        return None
    kind = chosen_method(solved)
    return Standing(solved, kind, units_for(solved, kind))
