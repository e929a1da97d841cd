"""What the plan has to say, as a code and its figures; `words` makes the sentence."""

from collections.abc import Mapping
from typing import Any, NamedTuple


class Remark(NamedTuple):
    """A code, and the figures that its sentence speaks of."""

    code: str
    facts: Mapping[str, Any]


def remark(code: str, **facts: Any) -> Remark:
    """A remark."""
    return Remark(code, facts)
