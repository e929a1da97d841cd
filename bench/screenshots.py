"""Takes the pictures of docs/screenshots from the demo data: `make screenshots`."""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from chromium import Demo, launch

OUT = Path(__file__).parent.parent / "docs" / "screenshots"


def setup(page: Page, name: str) -> None:
    """Put a setup on the bench."""
    page.get_by_label("Setup on the bench").select_option(label=name)
    page.get_by_role("heading", name=name).wait_for()
    page.wait_for_timeout(600)


def film(page: Page) -> None:
    """Open shutter and flash in time, half way through."""
    page.get_by_text("Shutter and flash in time").click()
    page.get_by_label("Moment of the exposure").fill("38")


# name, address, width, height, theme, setup
VIEWS = [
    ("setup", "", 1280, 800, "light", "Noon portrait"),
    ("setup-dim", "", 1280, 800, "dark", "Noon portrait"),
    ("setup-phone", "", 390, 844, "light", "44 headshots"),
    ("day", "", 1280, 800, "light", "44 headshots"),
    ("freeze-dim", "", 1280, 800, "dark", "Chalk line"),
    ("shutter", "", 1280, 800, "light", "The leap"),
    ("shelf", "#/shelf", 1280, 800, "light", ""),
    ("bodies", "#/shelf/bodies", 1280, 800, "light", ""),
]


def main() -> None:
    """Every main view."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, Demo(Path(folder)) as url, sync_playwright() as p:
        browser = launch(p)
        for name, route, width, height, scheme, which in VIEWS:
            page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme)
            page.goto(url + route)
            if which:
                page.get_by_test_id("headline").wait_for()
                setup(page, which)
            if name == "setup-dim":
                page.get_by_role("list", name="Flash units").get_by_role("button", name="Plover 58").click()
                page.get_by_role("table").wait_for()
            if name in ("freeze-dim", "shutter"):
                film(page)
            page.wait_for_timeout(600)
            page.screenshot(path=OUT / f"{name}.png")
            page.close()
        browser.close()


if __name__ == "__main__":
    main()
