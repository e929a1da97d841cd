"""A demo server of its own for each test that asks, and Debian's Chromium."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, sync_playwright

from chromium import Demo, launch
from jumpstop.demo import fill
from jumpstop.store.documents import Store


@pytest.fixture(scope="session")
def filled(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's data, made once."""
    folder = tmp_path_factory.mktemp("filled")
    store = Store(folder)
    fill(store)
    store.close()
    return folder


@pytest.fixture
def demo(filled: Path, tmp_path: Path) -> Iterator[Demo]:
    running = Demo(shutil.copytree(filled, tmp_path / "data"))
    yield running
    running.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = launch(playwright)
        yield browser
        browser.close()


@pytest.fixture
def page(browser: Browser, demo: Demo) -> Iterator[Page]:
    """The demo's first page; fails the test if anything was asked of another server, or a script broke."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
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
