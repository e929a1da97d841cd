"""The application: routers, errors as sentences, the built pages."""

import asyncio
import json
from collections.abc import AsyncIterator, Sequence
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse, Response
from fastapi.routing import APIRoute
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.trustedhost import TrustedHostMiddleware

from ..core.kit.errors import CannotSolve, JumpStopError
from ..core.kit.values import Value
from ..core.scene.setup import Setup
from ..formats.errors import TooMany, UnreadableFile
from ..formats.quantities import Asked, read
from ..store import errors as store_errors
from ..store.documents import Store
from ..words.problems import Problem, problems_of
from ..words.refusals import said
from ..words.titles import models_of, titled
from . import documents, solving
from .admission import Admission
from .guard import Guard, refused
from .late import Late
from .spoken import Spoken
from .workspace import MODELS, Workspace

PAGES = Path(__file__).parent.parent / "web"
LOCAL_HOSTS = ("127.0.0.1", "localhost", "[::1]")


IDLE_S = 2.0  # by then a first page stands; what it has not asked for is loaded while it is looked at


async def _load_late(app: FastAPI) -> None:
    await asyncio.sleep(IDLE_S)
    for one in app.routes:
        if isinstance(one, Late):
            await asyncio.to_thread(getattr, one, "routes")
    await asyncio.to_thread(read, "1", Asked("level"))  # so that who types first waits for no grammar
    await asyncio.to_thread(app.state.workspace.learning)  # nor who opens a large log for all of it


class Application(FastAPI):
    """One whose description holds the routes that are loaded late, too."""

    def openapi(self) -> dict[str, Any]:
        """The OpenAPI document."""
        if self.openapi_schema is None:
            routes = [inner for one in self.routes for inner in (one.routes if isinstance(one, Late) else (one,))]
            described = get_openapi(title=self.title, version=self.version, summary=self.summary, routes=routes)
            self.openapi_schema = titled(described, models_of(Value))
        return self.openapi_schema


def create_app(
    data: Path | Store,
    hosts: Sequence[str] = LOCAL_HOSTS,
    tokens: set[str] | None = None,
    names: Sequence[str] = (),
) -> FastAPI:
    """The application over one data folder, for requests to these host names.

    data: the folder, opened as the server starts; or its store where that is open already. Closed as it stops.
    tokens: where the server is open to the network, those that let one browser each in (see `Admission`), and the names
    it then answers to.
    """

    @asynccontextmanager
    async def life(app: FastAPI) -> AsyncIterator[None]:
        workspace = app.state.workspace = Workspace(data if isinstance(data, Store) else Store(data))
        loading = asyncio.create_task(_load_late(app))
        yield
        loading.cancel()
        workspace.close()

    app = Application(
        title="Jump Stop",
        version="2",
        summary="Plan flash in stops.",
        lifespan=life,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        routes=[
            *documents.router.routes,
            *solving.router.routes,
            APIRoute("/api/empty", _empty, include_in_schema=False),
            Late("/api/typical", "typical"),
            Late("/api/shelf", "shelf", "glance", "spec"),
            Late("/api/jobs/", "jobs", "day", "paper"),
            Late("/api/log", "log"),
            Late("/api/frame", "frame"),
            Late("/api/phone", "phone"),
            Late("/api/read", "reading"),
            Late("/api/say", "saying"),
            Late("/api/practice", "practice"),
            Late("/api/", "edits", "tools", "need"),
        ],
    )
    app.state.door = None
    app.add_middleware(Spoken)
    if tokens is not None:
        from .phone import Door

        app.state.door = Door(names, tokens)
        app.add_middleware(Admission, tokens=tokens)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=list(hosts), www_redirect=False)
    app.add_middleware(Guard)
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(HTTPException, _http)
    app.add_exception_handler(store_errors.Conflict, _conflict)
    app.add_exception_handler(documents.Invalid, _not_right)
    for kind, (status, field) in STATUSES.items():
        app.add_exception_handler(kind, _told(status, field))

    if PAGES.is_dir():

        @app.get("/", include_in_schema=False)
        def page() -> FileResponse:
            return FileResponse(PAGES / "index.html", headers={"cache-control": "no-cache"})

        app.mount("/", StaticFiles(directory=PAGES))
    return app


def _empty() -> dict[str, bool]:
    """Answers with nothing; what a request costs by itself (see docs/benchmarks.md)."""
    return {"ok": True}


STATUSES: dict[type[Exception], tuple[int, str]] = {
    store_errors.NotFound: (404, "Document"),
    store_errors.Overtaken: (409, "Undo"),
    store_errors.TooMuch: (413, "Data"),
    store_errors.Busy: (503, "Data"),
    store_errors.StorageFault: (507, "Data"),
    UnreadableFile: (422, "File"),
    TooMany: (503, "File"),
    CannotSolve: (422, "Setup"),
}


def _told(status: int, field: str):  # type: ignore[no-untyped-def]
    """A handler that answers with the error's own sentence."""

    def handler(_request: Request, error: Exception) -> Response:
        assert isinstance(error, JumpStopError)
        return refused(status, said(error), field, {"retry-after": "1"} if status == 503 else None)

    return handler


def _invalid(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    kind = next((part for part in request.url.path.split("/") if part in MODELS), "")
    model = Setup if request.url.path.endswith("/solve") else MODELS.get(kind)  # type: ignore[call-overload]
    return _all(422, problems_of(list(error.errors()), model))


def _all(status: int, problems: list[Problem], **more: object) -> Response:
    body = {"problems": [problem._asdict() for problem in problems]} | more
    return Response(json.dumps(body), status, media_type="application/json")


def _http(_request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    return refused(error.status_code, str(error.detail))


def _not_right(_request: Request, error: Exception) -> Response:
    assert isinstance(error, documents.Invalid)
    return _all(422, error.problems)


def _conflict(request: Request, error: Exception) -> Response:
    assert isinstance(error, store_errors.Conflict)
    current = error.current
    stored = {"id": current.id, "revision": current.revision, "job_id": current.job_id, "doc": current.doc, "line": ""}
    return _all(412, [Problem("", "Revision", said(error))], current=stored)
