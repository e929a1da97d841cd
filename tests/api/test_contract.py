"""The API against its own published description: generated requests, valid and not."""

import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from itertools import islice
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from schemathesis import GenerationMode
from schemathesis.checks import CHECKS, load_all_checks

from jumpstop.api.app import create_app

load_all_checks()
NAMES = ["not_a_server_error", "status_code_conformance", "content_type_conformance", "response_schema_conformance"]
KEPT: list[Any] = CHECKS.get_by_names(NAMES)

FOLDER = Path(tempfile.mkdtemp(prefix="jumpstop-contract-"))
app = create_app(FOLDER, ("testserver", "localhost"))
schema = schemathesis.openapi.from_dict(app.openapi())
schema.config.update(base_url="http://testserver")
schema.app = app


@pytest.fixture(scope="module", autouse=True)
def served(filled: Path) -> Iterator[None]:
    shutil.copytree(filled, FOLDER, dirs_exist_ok=True)
    with TestClient(app):
        yield
    shutil.rmtree(FOLDER, ignore_errors=True)


def test_every_body_that_can_be_sent_has_an_example() -> None:
    described = app.openapi()
    for path, methods in described["paths"].items():
        for method, operation in methods.items():
            for content in operation.get("requestBody", {}).get("content", {}).values():
                name = content.get("schema", {}).get("$ref", "").rpartition("/")[2]
                model = described["components"]["schemas"].get(name, {})
                nested = [described["components"]["schemas"]["Setup-Input"]] if name == "SolveIn" else []
                assert any("examples" in one or "example" in one for one in (content, model, *nested)), (method, path)


FEW = 40  # of the some 6,000 ways in which a setup can be sent; `WAYS=6000` tries them all, and draws
FIRST = int(os.environ.get("WAYS", FEW))
THEN_EACH = 47
KEEPING = ("put", "/keep/")  # where a document is kept, it is sent in ways of all its parts; elsewhere in the first
ADDRESSES = [
    (path, method) for path, methods in app.openapi()["paths"].items() for method in methods if method != "parameters"
]


@pytest.mark.parametrize(("path", "method"), ADDRESSES, ids=[f"{method} {path}" for path, method in ADDRESSES])
def test_every_answer_is_as_described(path: str, method: str) -> None:
    """Each way of sending what is described and what is not; and, where all are tried, some drawn at random."""
    operation = schema[path][method]
    ways = schema.iter_coverage_cases(
        operation, generation_modes=list(GenerationMode), generation_config=schema.config.generation
    )
    if not any(one in f"{method} {path}" for one in KEEPING):
        ways = islice(ways, FIRST)
    for number, case in enumerate(ways, start=1):
        if number <= FIRST or number % THEN_EACH == 0:
            case.call_and_validate(checks=KEPT)
    if FIRST == FEW:
        return

    @given(case=operation.as_strategy())
    @settings(max_examples=4, suppress_health_check=list(HealthCheck), derandomize=True, database=None, deadline=None)
    def drawn(case: schemathesis.Case[Any]) -> None:
        case.call_and_validate(checks=KEPT)

    drawn()


def test_what_is_seldom_asked_for_is_loaded_when_it_is() -> None:
    code = """
import sys, tempfile, time
from pathlib import Path
from fastapi.testclient import TestClient
from jumpstop.api import app
from jumpstop.api.app import create_app

names = ("edits", "jobs", "log", "shelf", "tools")
loaded = lambda: [name for name in names if f"jumpstop.api.{name}" in sys.modules]
app.IDLE_S = 600
with TestClient(create_app(Path(tempfile.mkdtemp()), ("testserver",))) as client:
    print([client.get(f"/api/{path}").status_code for path in ("preferences", "jobs", "units/none")], loaded())
    print(client.get("/api/log/text").status_code, loaded())
    print([client.request(*one).status_code for one in (("PUT", "/api/jobs/begin/templates"), ("GET", "/api/nothing"))])
    print(client.get("/api/jobs/begin/templates").json()[0]["name"], loaded())
app.IDLE_S = 0
with TestClient(create_app(Path(tempfile.mkdtemp()), ("testserver",))):
    while len(loaded()) < len(names):
        time.sleep(0.05)
print(loaded())
"""
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, timeout=120)
    assert done.stdout.splitlines() == [
        "[200, 200, 404] []",
        "200 ['edits', 'jobs', 'log']",  # files of jobs and log are answered in one way
        "[405, 404]",
        "Headshot day ['edits', 'jobs', 'log', 'tools']",
        "['edits', 'jobs', 'log', 'shelf', 'tools']",  # in the background, a while after the start
    ]


def test_odd_documents_on_ids_that_exist_are_refused_or_taken(monkeypatch: pytest.MonkeyPatch) -> None:
    """Braces, markup, control characters and odd figures in documents that are there: nothing is answered 5xx."""
    import fuzz

    monkeypatch.setenv("CASES", "300")  # `make fuzz` tries 100,000
    assert fuzz.main() == 0
