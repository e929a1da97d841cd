"""A client of the API over the demo's data."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from jumpstop.api.app import create_app


@pytest.fixture
def client(filled: Path, tmp_path: Path) -> Iterator[TestClient]:
    folder = shutil.copytree(filled, tmp_path, dirs_exist_ok=True)
    with TestClient(create_app(folder), base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client
