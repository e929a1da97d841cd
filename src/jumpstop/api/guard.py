"""What stands before every request: known hosts only, no writes from foreign pages, small bodies, strict headers."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

MAX_BODY = 9 * 1024 * 1024
HEADERS = {
    "content-security-policy": "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
    "font-src 'self'; connect-src 'self'; manifest-src 'self'; form-action 'none'; "
    "frame-ancestors 'none'; base-uri 'none'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


class Guard:
    """ASGI middleware; `hosts` are the names this server answers to, without ports."""

    def __init__(self, app: ASGIApp, hosts: frozenset[str]) -> None:
        self.app, self.hosts = app, hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse, or pass on with strict headers."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        refusal = self._refusal(scope["method"], headers)
        if refusal is not None:
            status, sentence = refusal
            body = {"problems": [{"where": "", "field": "Request", "sentence": sentence}]}
            await JSONResponse(body, status)(scope, receive, send)
            return
        seen = 0

        async def counted() -> Message:
            nonlocal seen
            message = await receive()
            seen += len(message.get("body", b""))
            if seen > MAX_BODY:  # only a sender that lies about its length comes here
                return {"type": "http.disconnect"}
            return message

        async def strict(message: Message) -> None:
            if message["type"] == "http.response.start":
                out = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    out.setdefault(name, value)
            await send(message)

        await self.app(scope, counted, strict)

    def _refusal(self, method: str, headers: Headers) -> tuple[int, str] | None:
        if urlsplit(f"//{headers.get('host', '')}").hostname not in self.hosts:
            return 421, "This server does not answer to that host name."
        origin = headers.get("origin")
        if method not in ("GET", "HEAD") and origin and urlsplit(origin).netloc != headers.get("host"):
            return 403, "Changes are only taken from this server's own pages."
        length = headers.get("content-length", "0")
        if not length.isdigit():
            return 400, "The length of the request is not a number."
        if int(length) > MAX_BODY:
            return 413, f"The file is larger than {MAX_BODY // 2**20 - 1} MB; a shelf of 10,000 units takes about 3 MB."
        return None
