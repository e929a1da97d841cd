"""The application: routers, errors as sentences, the built pages."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import FileResponse, JSONResponse
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException as StarletteHTTPException

from ..core.setup import Setup
from ..formats.problems import Problem, problems_of
from ..store.documents import ConflictError, MissingError, Store
from . import documents, shelf, solving
from .desk import MODELS, Desk
from .guard import Guard

PAGES = Path(__file__).parent.parent / "web"
LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})


def create_app(folder: Path, hosts: frozenset[str] = LOCAL_HOSTS) -> FastAPI:
    """The application over one data folder."""

    @asynccontextmanager
    async def life(app: FastAPI) -> AsyncIterator[None]:
        store = Store(folder)
        app.state.desk = Desk(store)
        yield
        store.close()

    app = FastAPI(
        title="Jump Stop",
        version="1",
        summary="Plan flash in stops.",
        lifespan=life,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
        responses={status: documents.ERRORS[status] for status in (400, 403, 413, 421)},
    )
    app.add_middleware(Guard, hosts=hosts)
    for router in (documents.router, solving.router, shelf.router):
        app.include_router(router)
    app.add_exception_handler(RequestValidationError, _invalid)
    app.add_exception_handler(StarletteHTTPException, _http)
    app.add_exception_handler(MissingError, _missing)
    app.add_exception_handler(ConflictError, _conflict)
    app.add_exception_handler(ValueError, _value)

    @app.get("/api/empty", include_in_schema=False)
    def empty() -> dict[str, bool]:
        """Answers with nothing; what a request costs by itself (see docs/benchmarks.md)."""
        return {"ok": True}

    if PAGES.is_dir():

        @app.get("/", include_in_schema=False)
        def page() -> FileResponse:
            return FileResponse(PAGES / "index.html", headers={"cache-control": "no-cache"})

        app.mount("/", StaticFiles(directory=PAGES))
    return app


def _refusal(status: int, problems: list[Problem], **more: object) -> JSONResponse:
    return JSONResponse({"problems": [problem._asdict() for problem in problems], **more}, status)


def _invalid(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    kind = next((part for part in request.url.path.split("/") if part in MODELS), "")
    model = Setup if request.url.path.endswith("/solve") else MODELS.get(kind)
    return _refusal(422, problems_of(list(error.errors()), model))


def _http(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, StarletteHTTPException)
    return _refusal(error.status_code, [Problem("", "Request", str(error.detail))])


def _missing(_request: Request, error: Exception) -> JSONResponse:
    return _refusal(404, [Problem("", "Document", str(error).strip("'"))])


def _conflict(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, ConflictError)
    current = error.current
    stored = {"id": current.id, "revision": current.revision, "job_id": current.job_id, "doc": current.doc}
    return _refusal(412, [Problem("", "Revision", str(error))], current=stored)


def _value(_request: Request, error: Exception) -> JSONResponse:
    return _refusal(422, [Problem("", "Document", str(error))])
