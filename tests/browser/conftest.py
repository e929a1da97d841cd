"""A demo server of its own for each test that asks, and Debian's Chromium."""

import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, sync_playwright

ARGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip


class Demo:
    """The demo, run as a person runs it; can be killed and started again on the same data."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.start()

    def start(self, port: str = "0") -> None:
        command = [sys.executable, "-m", "jumpstop.cli", "demo", "--data", str(self.folder), "--port", port]
        self.process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
        assert self.process.stdout is not None
        found = re.search(r"http://\S+?:(\d+)/", self.process.stdout.readline())
        assert found
        self.url, self.port = found.group(), found.group(1)

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


@pytest.fixture
def demo(tmp_path: Path) -> Iterator[Demo]:
    running = Demo(tmp_path / "data")
    yield running
    running.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        yield browser
        browser.close()


@pytest.fixture
def page(browser: Browser, demo: Demo) -> Iterator[Page]:
    """The demo's first page; fails the test if anything was asked of another server, or a script broke."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    foreign: list[str] = []
    page.on("request", lambda r: None if r.url.startswith((demo.url, "data:")) else foreign.append(r.url))
    page.on("pageerror", lambda error: foreign.append(str(error)))
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    yield page
    page.close()
    assert not foreign
