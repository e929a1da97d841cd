"""Who may come in where the server is open to the network: a link that works once, and then a cookie."""

import secrets
from http.cookies import CookieError, SimpleCookie
from urllib.parse import parse_qs

from starlette.datastructures import Headers
from starlette.responses import RedirectResponse
from starlette.types import ASGIApp, Receive, Scope, Send

from .guard import refused

ENTER = "/enter"
COOKIE = "jumpstop"
DAYS = 30


class Admission:
    """ASGI middleware that lets in only who once used a link of this server."""

    def __init__(self, app: ASGIApp, tokens: set[str]) -> None:
        self.app, self.tokens, self.sessions = app, tokens, set[str]()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Turn a fresh link into a cookie; let in who has one; refuse the rest."""
        if scope["type"] != "http" or self._known(Headers(scope=scope)):
            await self.app(scope, receive, send)
            return
        if scope["path"] == ENTER and scope["method"] == "GET":
            asked = parse_qs(scope["query_string"].decode("latin-1")).get("token", [""])[0]
            token = next((one for one in self.tokens if secrets.compare_digest(one.encode(), asked.encode())), None)
            if token is not None:
                self.tokens.discard(token)
                session = secrets.token_urlsafe(32)
                self.sessions.add(session)
                answer = RedirectResponse("/", 303)
                answer.set_cookie(COOKIE, session, max_age=DAYS * 86400, httponly=True, samesite="strict")
                await answer(scope, receive, send)
                return
        await refused(401, "Open the link that the server printed when it was started; it works once.")(
            scope, receive, send
        )

    def _known(self, headers: Headers) -> bool:
        try:
            morsel = SimpleCookie(headers.get("cookie", "")).get(COOKIE)
        except CookieError:
            return False
        return morsel is not None and morsel.value in self.sessions
