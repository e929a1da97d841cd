"""What can go wrong with documents and with solving, as codes; the sentences are made in `words`."""

from collections.abc import Mapping

from pydantic_core import PydanticCustomError

Facts = Mapping[str, object]


class JumpStopError(Exception):
    """Everything that is the world's or the person's trouble, never a bug in the code: a code, and the facts that its
    sentence speaks of."""

    def __init__(self, code: str, **facts: object) -> None:
        super().__init__(code)
        self.code, self.facts = code, facts


class CannotSolve(JumpStopError):  # noqa: N818 (said so on the screen)
    """A setup that has no answer."""


def refuse(code: str, **facts: object) -> PydanticCustomError:
    """What a validator raises: a code and its facts. The text of the error is the code; `words` says the sentence."""
    return PydanticCustomError(code, code, facts or None)
