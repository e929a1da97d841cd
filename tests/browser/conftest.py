"""A server of the demo's data of its own for each test that asks, and Debian's Chromium."""

import shutil
from collections.abc import Iterator
from pathlib import Path
from time import perf_counter

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from chromium import SHELL, Demo, launch
from served import Served

QUIET_S, LOOPS = 0.03, 400_000  # what this loop takes on a machine that does nothing else, about
PATIENCE_MS, MOST_TIMES, NAVIGATION_MS = 15_000, 4.0, 90_000


@pytest.fixture(autouse=True)
def patience() -> None:
    """What a person would see is waited for the longer, the slower the machine is just now."""
    start = perf_counter()
    for _ in range(LOOPS):
        pass
    times = min(MOST_TIMES, max(1.0, (perf_counter() - start) / QUIET_S))
    expect.set_options(timeout=PATIENCE_MS * times)


@pytest.fixture
def demo(request: pytest.FixtureRequest, filled: Path, tmp_path: Path) -> Iterator[Demo | Served]:
    """As a process of its own where a test is marked `killed`."""
    folder = shutil.copytree(filled, tmp_path / "data")
    running = Demo(folder) if request.node.get_closest_marker("killed") else Served(folder)
    yield running
    running.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = launch(playwright, SHELL)
        yield browser
        browser.close()


@pytest.fixture
def page(browser: Browser, demo: Demo | Served) -> Iterator[Page]:
    """The demo's first page; fails the test if anything was asked of another server, or a script broke."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.set_default_navigation_timeout(NAVIGATION_MS)
    foreign: list[str] = []
    page.on(
        "request",
        lambda r: None if r.url.startswith((demo.url, "data:", f"blob:{demo.url}")) else foreign.append(r.url),
    )
    page.on("pageerror", lambda error: foreign.append(str(error)))
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    yield page
    page.close()
    assert not foreign
