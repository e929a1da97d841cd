"""What every answer of the API is worded with: the decimal sign of whoever asks."""

from starlette.types import ASGIApp, Receive, Scope, Send

from ..core.kit.errors import JumpStopError
from ..words.figures import DecimalSign, speaking


class Spoken:
    """ASGI middleware; the innermost of ours."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass on; sentences that are made meanwhile have the person's sign."""
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        try:
            sign: DecimalSign = scope["app"].state.workspace.preferences().decimal
        except JumpStopError:  # the data cannot be read: what is asked for will say so
            sign = "either"
        with speaking(sign):
            await self.app(scope, receive, send)
