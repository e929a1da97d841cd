"""Routes that are loaded as the first request for one of them comes: the server answers sooner, and no less."""

from collections.abc import Sequence
from functools import cached_property
from importlib import import_module

from starlette.routing import BaseRoute, Match
from starlette.types import Receive, Scope, Send


class Late(BaseRoute):
    """The routes of some modules of this package, all below one path.

    It stands after the routes that are there from the start: what one of those answers in full loads nothing. The
    application loads the rest a while after its start, so that whoever asks first waits for none of it.
    """

    def __init__(self, below: str, *modules: str) -> None:
        self.below, self.modules = below, modules

    @cached_property
    def routes(self) -> Sequence[BaseRoute]:
        """The routes themselves, in the order of the modules."""
        return [route for name in self.modules for route in import_module(f".{name}", __package__).router.routes]

    def matches(self, scope: Scope) -> tuple[Match, Scope]:
        """In full where one of the routes does, in part where one would with another method."""
        if scope["type"] != "http" or not scope["path"].startswith(self.below):
            return Match.NONE, {}
        partly: tuple[Match, Scope] = (Match.NONE, {})
        for route in self.routes:
            match, child = route.matches(scope)
            if match is Match.FULL:
                return match, {**child, "route": route}
            if match is Match.PARTIAL and partly[0] is Match.NONE:
                partly = match, {**child, "route": route}
        return partly

    async def handle(self, scope: Scope, receive: Receive, send: Send) -> None:
        """By the one that matches, which is looked for once."""
        await scope["route"].handle(scope, receive, send)
