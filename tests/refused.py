"""What is refused, and with which sentence."""

import re
from collections.abc import Iterator
from contextlib import contextmanager

import pytest

from jumpstop.core.kit.errors import JumpStopError
from jumpstop.words.refusals import said


@contextmanager
def refused(kind: type[JumpStopError], match: str) -> Iterator[None]:
    """An error of this kind is raised, and its sentence holds the pattern."""
    with pytest.raises(kind) as found:
        yield
    assert re.search(match, said(found.value)), said(found.value)
