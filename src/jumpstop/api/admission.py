"""Who may come in where the server is open to the network: a link that works once, and then a cookie or a token.

What lets a device in for good is kept with the data as a hash, by the device's name, so that it can be taken back.
"""

import hashlib
import re
import secrets
from collections.abc import Iterator
from urllib.parse import parse_qs

from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers
from starlette.responses import RedirectResponse
from starlette.types import ASGIApp, Receive, Scope, Send

from ..core.kit.errors import JumpStopError
from ..store.devices import Devices
from ..store.documents import Store
from ..store.errors import TooMuch
from ..words.refusals import said, sentence
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
        devices = Devices(store)
        for shown in _shown(Headers(scope=scope)):
            kind = await run_in_threadpool(devices.kind_of, hashed(shown))
            if kind is not None:
                scope.setdefault("state", {})["device"] = kind
                await self.app(scope, receive, send)
                return
        if scope["path"] == ENTER and scope["method"] == "GET":
            query = parse_qs(scope["query_string"].decode("latin-1"))
            asked, to = query.get("token", [""])[0], query.get("to", [""])[0]
            token = next((one for one in self.tokens if secrets.compare_digest(one.encode(), asked.encode())), None)
            if token is not None:
                session = secrets.token_urlsafe(32)
                try:
                    await run_in_threadpool(devices.add, "A browser let in by a link", hashed(session), "browser")
                except JumpStopError as error:
                    await refused(413 if isinstance(error, TooMuch) else 503, said(error))(scope, receive, send)
                    return
                self.tokens.discard(token)
                page = f"/#/{to}" if PAGE.match(to) else "/"
                answer = RedirectResponse(page if to else "/", 303)
                answer.set_cookie(COOKIE, session, max_age=DAYS * 86400, httponly=True, samesite="strict")
                await answer(scope, receive, send)
                return
        await refused(401, sentence("open_the_link"))(scope, receive, send)


def _shown(headers: Headers) -> Iterator[str]:
    """What a caller shows: a script's token, a browser's cookie. Other applications' cookies are passed over, however
    they are written."""
    kind, _, token = headers.get("authorization", "").partition(" ")
    if kind.lower() == "bearer" and token.strip():
        yield token.strip()
    for line in headers.getlist("cookie"):
        for part in line.split(";"):
            name, _, value = part.strip().partition("=")
            if name == COOKIE and value:
                yield value.strip('"')
