"""A setup's variants, in words: what hands must change from how it stands to each."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..core.plan.job.changeover import Standing
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


def variants_text(stands: Sequence[tuple[str, Setup, Standing | None]], words: DisplayUnits) -> VariantsText:
    """The document. stands: as it stands now, and as each of its variants."""
    (_, setup, now), *others = stands
    out = []
    for name, other, there in others:
        hands = hands_text(now, there, words) if now is not None and there is not None else []
        out.append(VariantText(name, other == setup, hands, other))
    return VariantsText(out, len(out) < MOST)
