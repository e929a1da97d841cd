"""Takes the pictures of docs/screenshots from the demo data: `make screenshots`."""

import re
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import sync_playwright

CHROMIUM = "/usr/bin/chromium"
ARGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
]  # fmt: skip
OUT = Path(__file__).parent.parent / "docs" / "screenshots"


@contextmanager
def demo(folder: str) -> Iterator[str]:
    """The demo served on a free port; gives its address."""
    command = [sys.executable, "-m", "jumpstop.cli", "demo", "--data", folder]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    try:
        assert process.stdout is not None
        found = re.search(r"http://\S+", process.stdout.readline())
        assert found
        yield found.group()
    finally:
        process.kill()
        process.wait()


def main() -> None:
    """Setup and shelf, light and dim, and the setup on a phone."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, demo(folder) as url, sync_playwright() as p:
        browser = p.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        shots = [
            ("setup", "", 1280, 800, "light"), ("setup-dim", "", 1280, 800, "dark"),
            ("setup-phone", "", 390, 844, "light"), ("shelf", "#/shelf", 1280, 800, "light"),
        ]  # fmt: skip
        for name, route, width, height, scheme in shots:
            page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme)
            page.goto(url + route)
            page.get_by_role("button", name=re.compile("Edit Plover" if route else "Plover 58")).wait_for()
            if name == "setup-dim":
                page.get_by_role("button", name=re.compile("Plover 58")).click()
                page.get_by_role("table").wait_for()
            page.wait_for_timeout(400)
            page.screenshot(path=OUT / f"{name}.png")
            page.close()
        browser.close()


if __name__ == "__main__":
    main()
