"""Large data: what is exported can be imported, nothing is left out unsaid, pages of a log are all of it."""

import json
import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from jumpstop.api.app import create_app
from jumpstop.core.scene.job import MOST_SETUPS
from jumpstop.formats import log as log_format
from jumpstop.store import documents
from large import large_job, log_entries


@pytest.fixture
def client(filled: Path, tmp_path: Path) -> Iterator[TestClient]:
    folder = shutil.copytree(filled, tmp_path / "data")
    with TestClient(create_app(folder), base_url="http://127.0.0.1") as one:
        yield one


def logged(client: TestClient, count: int) -> list[dict[str, object]]:
    entries = log_entries(client, count)
    log = {"format": "jumpstop-readings", "version": 1, "entries": entries}
    assert client.post("/api/log/import", content=json.dumps(log)).json() == {"added": count, "known": 0}
    return entries


@pytest.mark.parametrize("kind", ["json", "csv"])
def test_a_log_is_exported_and_imported_whole(client: TestClient, tmp_path: Path, filled: Path, kind: str) -> None:
    logged(client, 300)
    file = client.get(f"/api/log/export.{kind}").content
    with TestClient(create_app(shutil.copytree(filled, tmp_path / "other")), base_url="http://127.0.0.1") as other:
        assert other.post("/api/log/import", content=file).json() == {"added": 300, "known": 0}
        assert other.post("/api/log/import", content=file).json() == {"added": 0, "known": 300}
        assert other.get(f"/api/log/export.{kind}").content == file
        assert other.get("/api/log/text").json()["entries"] == client.get("/api/log/text").json()["entries"]


def test_what_entries_hold_alike_is_kept_and_sent_once(client: TestClient) -> None:
    """The same light read 300 times: a setup of some 10 kB stands once in the file, not 300 times."""
    logged(client, 300)
    file = client.get("/api/log/export.json").json()
    assert file["version"] == 2
    assert len(file["parts"]) < 40
    assert len(client.get("/api/log/export.json").content) < 400_000


def test_pages_of_a_log_are_all_of_it_the_newest_first(client: TestClient) -> None:
    notes = [str(one["entry"]["note"]) for one in logged(client, 250)]  # type: ignore[index]
    pages = [client.get("/api/log/text", params={"most": 100, "after": after}).json() for after in (0, 100, 200)]
    assert [page["more"] for page in pages] == [150, 50, 0]
    assert [one["note"] for page in pages for one in page["entries"]] == notes[::-1]
    one, other = pages[0]["things"], pages[2]["things"]
    assert one == other  # all readings teach, on whichever page they stand
    assert max(thing["readings"] for thing in one) > 20 >= max(len(thing["by"]) for thing in one)


def test_a_log_has_an_end_and_says_so(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(documents, "MOST_LOG", 2)
    entry = {"name": "One", "at": "2026-06-24T12:00:00", "flashes": 1}
    assert [client.post(f"/api/log/keep/e{at}", json=entry).status_code for at in range(4)] == [200, 200, 413, 413]
    assert len(client.get("/api/log/text").json()["entries"]) == 2
    monkeypatch.setattr(log_format, "MAX_BYTES", 100)
    assert "larger than" in client.post("/api/log/import", content=b" " * 101).text


def test_a_job_never_leaves_setups_out_of_its_file(client: TestClient) -> None:
    job = large_job(client, MOST_SETUPS)
    file = client.get(f"/api/jobs/{job}/export.json")
    assert len(file.json()["setups"]) == MOST_SETUPS
    assert client.post("/api/jobs/import", content=file.content).status_code == 201
    own = next(one["id"] for one in client.get("/api/setups").json() if one["job_id"] == job)
    for refused in (
        client.post(f"/api/setups/{own}/copy"),
        client.post("/api/setups", params={"job_id": job}, json={"name": "One more"}),
    ):
        assert refused.status_code == 413
        assert "A job holds 60 setups at the most" in refused.text
    assert len(client.get(f"/api/jobs/{job}/export.json").json()["setups"]) == MOST_SETUPS
