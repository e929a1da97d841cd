"""One reader of quantities: what a person writes in any field, file or command, as a figure.

`read(text, asked)` answers with one value, with several of which the person says which, or with none and why.
"""

from functools import lru_cache

from .asked import Asked, Dial, Kind, Outcome, Sign, Why

__all__ = ["Asked", "Dial", "Kind", "Outcome", "Sign", "Why", "read"]


@lru_cache(maxsize=4096)
def read(text: str, asked: Asked) -> Outcome:
    """A text as the quantity asked for. Never raises: what cannot be read has no values, and says why.

    >>> read("2 1/2 under", Asked("background", now=-1.5)).values
    (-2.5,)
    >>> read("2", Asked("background", now=-1.5)).values
    (-2.0, 2.0)
    >>> read("quarter-ish", Asked("background")).why
    'unknown'
    """
    from .reader import outcome  # the grammar takes a while to load, and is wanted only once somebody writes

    return outcome(text, asked)
