"""Settings for all tests: timings belong in the benchmark, so no example has a deadline. And the demo's data."""

from pathlib import Path

import pytest
from hypothesis import settings

settings.register_profile("here", deadline=None)
settings.load_profile("here")


@pytest.fixture(scope="session")
def filled(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's data, made once; to be copied."""
    from jumpstop.demo import fill  # late: the tests of the core want neither
    from jumpstop.store.documents import Store

    folder = tmp_path_factory.mktemp("filled")
    store = Store(folder)
    fill(store)
    store.close()
    return folder
