"""Who may come in where the server is open to the network: a link that works once, and then a cookie or a token.

What lets a device in for good is kept with the data as a hash, by the device's name, so that it can be taken back.
"""

import hashlib
import re
import secrets
from http.cookies import CookieError, SimpleCookie
from urllib.parse import parse_qs

from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers
from starlette.responses import RedirectResponse
from starlette.types import ASGIApp, Receive, Scope, Send

from ..store.documents import Store
from .guard import refused

ENTER = "/enter"
COOKIE = "jumpstop"
DAYS = 30
PAGE = re.compile(r"^/?#?[/\w]{0,120}$")


def hashed(token: str) -> str:
    """How a token is kept: what is on disk lets nobody in."""
    return hashlib.sha256(token.encode()).hexdigest()


class Admission:
    """ASGI middleware that lets in only who once used a link of this server, or has a token."""

    def __init__(self, app: ASGIApp, tokens: set[str]) -> None:
        self.app, self.tokens = app, tokens

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Turn a fresh link into a cookie; let in who has one; refuse the rest."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        store: Store = scope["app"].state.workspace.store
        shown = _shown(Headers(scope=scope))
        known = bool(shown) and await run_in_threadpool(store.knows_device, hashed(shown))
        if known:
            await self.app(scope, receive, send)
            return
        if scope["path"] == ENTER and scope["method"] == "GET":
            query = parse_qs(scope["query_string"].decode("latin-1"))
            asked, to = query.get("token", [""])[0], query.get("to", [""])[0]
            token = next((one for one in self.tokens if secrets.compare_digest(one.encode(), asked.encode())), None)
            if token is not None:
                self.tokens.discard(token)
                session = secrets.token_urlsafe(32)
                await run_in_threadpool(
                    lambda: store.add_device("A browser let in by a link", hashed(session), "browser")
                )
                page = f"/#/{to}" if PAGE.match(to) else "/"
                answer = RedirectResponse(page if to else "/", 303)
                answer.set_cookie(COOKIE, session, max_age=DAYS * 86400, httponly=True, samesite="strict")
                await answer(scope, receive, send)
                return
        await refused(401, "Open the link that the server printed when it was started; it works once.")(
            scope, receive, send
        )


def _shown(headers: Headers) -> str:
    """What a caller shows: a script's token, or a browser's cookie."""
    kind, _, token = headers.get("authorization", "").partition(" ")
    if kind.lower() == "bearer":
        return token.strip()
    try:
        morsel = SimpleCookie(headers.get("cookie", "")).get(COOKIE)
    except CookieError:
        return ""
    return "" if morsel is None else str(morsel.value)
