"""What was worked out of something that never changes, kept with it, and gone with it."""

from collections.abc import Callable
from functools import wraps
from typing import Any, Concatenate, ParamSpec, Protocol, TypeVar


class Remembers(Protocol):
    """Something that never changes. memo: what was worked out of it, by function and arguments."""

    @property
    def memo(self) -> dict[Any, Any]:
        """See above."""
        ...


Of = TypeVar("Of", bound=Remembers)
More = ParamSpec("More")
Found = TypeVar("Found")
Worked = Callable[Concatenate[Of, More], Found]


def remembered(most: int) -> Callable[[Worked[Of, More, Found]], Worked[Of, More, Found]]:
    """Keep what a function works out of its first argument, for so many other arguments, each known by its value."""

    def keeping(work_out: Worked[Of, More, Found]) -> Worked[Of, More, Found]:
        @wraps(work_out)
        def found(of: Of, *args: More.args, **named: More.kwargs) -> Found:
            kept = of.memo.setdefault(work_out, {})
            key = (args, *named.items()) if named else args
            try:
                value: Found = kept[key]
            except KeyError:
                value = work_out(of, *args, **named)
                if len(kept) >= most:
                    kept.pop(next(iter(kept), None), None)
                kept[key] = value
            return value

        return found  # type: ignore[return-value]

    return keeping
