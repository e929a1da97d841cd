"""A server of the demo's data of its own for each test that asks, and Debian's Chromium."""

import shutil
import socket
from collections.abc import Iterator
from pathlib import Path
from threading import Thread
from time import perf_counter

import pytest
import uvicorn
from playwright.sync_api import Browser, Page, expect, sync_playwright

from chromium import SHELL, Demo, launch
from jumpstop.api.app import create_app


class Served:
    """The application over a folder, in a thread of this process: it need not load all it is made of each time."""

    def __init__(self, folder: Path) -> None:
        listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        listening.bind(("127.0.0.1", 0))
        listening.listen()
        self.url = f"http://127.0.0.1:{listening.getsockname()[1]}/"
        config = uvicorn.Config(create_app(folder), log_level="warning", timeout_graceful_shutdown=1)
        self.server = uvicorn.Server(config)
        self.thread = Thread(target=self.server.run, args=([listening],))
        self.thread.start()

    def kill(self) -> None:
        """Stop it."""
        self.server.should_exit = True
        self.thread.join()


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
