"""One reader of what makers print: a pasted specification as units, field by field, each beside its line.

`read_spec(text)` never raises and never guesses: what it does not understand it lists.
"""

from .reader import LONGEST, read_spec

__all__ = ["LONGEST", "read_spec"]
