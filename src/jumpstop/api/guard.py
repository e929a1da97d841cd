"""What stands before every request: strict headers on all that goes out, no writes from foreign pages, small bodies."""

import json
import logging
import uuid

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from ..words.refusals import sentence

log = logging.getLogger("jumpstop")

IMPORT_PATHS = frozenset({"/api/shelf/import", "/api/log/import", "/api/jobs/import"})
FRAME_PATH = "/api/frame"
MAX_FRAME = 41 * 2**20  # a JPEG file of a camera
MAX_BODY = 2 * 2**20  # every body but an import
HEADERS = {
    "content-security-policy": "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
    "font-src 'self'; connect-src 'self'; manifest-src 'self'; form-action 'none'; "
    "frame-ancestors 'none'; base-uri 'none'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


def refused(status: int, sentence: str, field: str = "Request", headers: dict[str, str] | None = None) -> Response:
    """A refusal with one sentence. ASCII, so that any text can be told back."""
    body = json.dumps({"problems": [{"where": "", "field": field, "sentence": sentence}]})
    return Response(body, status, headers, "application/json")


class Guard:
    """ASGI middleware; the outermost of ours."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Refuse, or pass on; a fault is logged with a reference and answered without a trace."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        most = most_at(scope["path"])
        started, seen = False, 0

        async def counted() -> Message:
            nonlocal seen
            message = await receive()
            seen += len(message.get("body", b""))
            if seen > most:  # a sender that lies about its length, or does not say it
                raise HTTPException(413, too_large(most))
            return message

        async def strict(message: Message) -> None:
            nonlocal started
            if message["type"] == "http.response.start":
                started = True
                out = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    out.setdefault(name, value)
            await send(message)

        refusal = _refusal(scope["method"], Headers(scope=scope), most)
        if refusal is not None:
            await refusal(scope, receive, strict)
            return
        try:
            await self.app(scope, counted, strict)
        except Exception as error:
            if started:
                raise
            if isinstance(error, HTTPException):
                await refused(error.status_code, str(error.detail))(scope, receive, strict)
                return
            reference = uuid.uuid4().hex[:8]
            log.exception("fault %s at %s %s", reference, scope["method"], scope["path"])
            await refused(500, sentence("fault", {"reference": reference}))(scope, receive, strict)


def most_at(path: str) -> int:
    """The largest body that is taken at a path [bytes]."""
    if path in IMPORT_PATHS:
        from ..formats.documents import MAX_FILE_BYTES  # late: files are seldom read, and slow to load the reading of

        return MAX_FILE_BYTES + 2**20
    return MAX_FRAME if path == FRAME_PATH else MAX_BODY


def too_large(most: int) -> str:
    """Why a body is refused."""
    return sentence("sent_large", {"most": most})


def _refusal(method: str, headers: Headers, most: int) -> Response | None:
    origin = headers.get("origin")
    own = {f"http://{headers.get('host')}", f"https://{headers.get('host')}"}
    if method not in ("GET", "HEAD") and origin and origin not in own:
        return refused(403, sentence("foreign_page"))
    length = headers.get("content-length", "0")
    if not (length.isascii() and length.isdigit()):
        return refused(400, sentence("length_no_number"))
    if int(length[:15]) > most or len(length) > 15:
        return refused(413, too_large(most))
    return None
