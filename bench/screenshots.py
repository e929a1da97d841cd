"""Takes the pictures of docs/screenshots from the demo data: `make screenshots`."""

import re
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from chromium import Demo, launch

OUT = Path(__file__).parent.parent / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)


def bench(page: Page, name: str) -> None:
    """Put a setup on the bench."""
    page.get_by_label("Setup on the bench").select_option(label=name)
    page.get_by_role("heading", name=name).wait_for()
    page.wait_for_timeout(500)


def theme(page: Page, name: str) -> None:
    """Dress the page."""
    page.get_by_role("button", name="Settings").click()
    page.get_by_label("Theme").select_option(name)
    page.get_by_role("dialog").get_by_role("button", name="Close").click()


def take(page: Page, unit: str) -> None:
    """Take a unit for the light."""
    lanes = page.get_by_role("list", name="Flash units")
    lanes.get_by_role("button", name=re.compile(f"^{unit}")).click()
    page.get_by_test_id("headline").filter(has_text=unit).wait_for()


def tool(page: Page, name: str) -> None:
    """Open a tool and bring it into sight."""
    page.get_by_role("button", name=name, exact=True).click()
    page.get_by_test_id("tool").scroll_into_view_if_needed()
    page.wait_for_timeout(600)
    page.evaluate("scrollTo(0, document.body.scrollHeight)")


def dim(page: Page) -> None:
    """On a dark set."""
    theme(page, "dim")
    take(page, "Curlew 400")
    page.get_by_role("button", name="Why: every gain and loss").click()
    page.get_by_role("table").wait_for()


def seen(page: Page) -> None:
    """A reading, and the next dial."""
    bench(page, "Prize table")
    take(page, "Gannet 600")
    tool(page, "What did you see?")
    page.get_by_role("spinbutton", name="Meter reads").press("ArrowUp")
    page.get_by_role("button", name="Tell it").click()
    page.get_by_test_id("next").evaluate("one => one.closest('[data-testid=tool]').scrollIntoView({block: 'end'})")


def phone_units(page: Page) -> None:
    """The chart under a thumb, in bright sun."""
    theme(page, "sun")
    page.get_by_role("button", name="Units", exact=True).click()


def stage(page: Page) -> None:
    """Three lights in their places."""
    bench(page, "At the bench")


def find(page: Page) -> None:
    """A unit that is short, and what would bring it there."""
    take(page, "Redshank 60")
    tool(page, "Find a stop")
    page.evaluate("scrollTo(0, 480)")


def phone_stage(page: Page) -> None:
    """The stage under a thumb."""
    bench(page, "At the bench")
    page.get_by_role("button", name="Stage", exact=True).click()


def practice(page: Page) -> None:
    """A frame on the camera's back, read at its grey card."""
    page.get_by_role("button", name="Take a frame").click()
    page.get_by_test_id("taken").wait_for()
    page.get_by_role("button", name="Read: Grey card, edge").click()
    page.get_by_test_id("patch").filter(has_text="Grey card").wait_for()


def the_job(page: Page) -> None:
    """The coverage, and the kit chosen."""
    page.get_by_role("region", name="Coverage").wait_for()


def the_day(page: Page) -> None:
    """What gives out, and the settings by the hour."""
    page.get_by_test_id("lost").wait_for()


def compare(page: Page) -> None:
    """Four units on one basis."""
    for name in ("Plover 58", "Avocet 200", "Gannet 600", "Skua 1200 pack"):
        page.get_by_label(f"Compare {name}").check()
    page.get_by_label("Compared on").select_option(label="Noon portrait")
    page.get_by_role("img").filter(has_text="where the picture stands").first.wait_for()
    page.get_by_role("heading", name="Side by side").evaluate("one => one.scrollIntoView()")


def the_map(page: Page) -> None:
    """Light against weight, typical classes behind."""
    page.get_by_role("button", name="Map", exact=True).click()
    page.get_by_label("typical classes behind").check()
    page.get_by_test_id("map-says").wait_for()


def paste(page: Page) -> None:
    """What a maker prints, read and judged."""
    page.get_by_role("button", name="Paste a specification").click()
    page.get_by_label("What the maker prints").fill(SHEET)
    page.get_by_test_id("judged").first.wait_for()


SHEET = """Plover 60
Guide number: 60 m (ISO 100, 200 mm)
Energy: 76 Ws
Zoom range: 20-200 mm
Power range: 1/1 - 1/256 in 1/10 stop steps
Recycle time: 0.01 - 1.5 s (lithium battery)
480 full-power flashes
Flash duration: 1/300 - 1/20,000 s
High-speed sync: to 1/8000 s
Weight: 530 g with battery
Size: 77 x 203 x 60 mm"""


# name, address, size, what is done first
def the_kit(page: Page) -> None:
    """The pack list, two lines ticked."""
    for name in ("Cliff 36", "Octa 90"):
        page.get_by_role("checkbox", name=re.compile(name)).check()
    page.get_by_test_id("packed").filter(has_text="2 of").wait_for()


def logged(page: Page, setup: str, *came_out: str) -> None:
    """Readings of a setup's first light."""
    page.get_by_role("link", name=setup, exact=True).click()
    for how in came_out:
        page.get_by_role("button", name=f"It came out: {how}").first.click()
        page.get_by_role("button", name="Log it").first.click()
        page.get_by_test_id("next-dial").wait_for()
        page.wait_for_timeout(400)


def the_log(page: Page) -> None:
    """Readings of three setups, and a test frame."""
    for setup, how in (
        ("44 headshots", "0.7 too bright"),
        ("Noon portrait", "0.3 too bright"),
        ("Team of 22", "0.3 too dark"),
    ):
        logged(page, setup, how)
        page.get_by_role("link", name="Log", exact=True).last.click()
        page.get_by_test_id("entry").first.wait_for()
    frames = Path(__file__).parent.parent / "src" / "jumpstop" / "demo" / "frames"
    page.get_by_label("Test frame").last.set_input_files(frames / "flash.jpg")
    page.get_by_test_id("frame-says").wait_for()


def on_set(page: Page) -> None:
    """A setup for one hand."""
    logged(page, "44 headshots", "0.7 too bright")


def a_card(page: Page) -> None:
    """A card as the phone shows it."""
    link = page.get_by_role("link", name="Open the cards").get_attribute("href") or ""
    page.goto(page.url.split("/#")[0] + link)
    page.get_by_role("article", name="44 headshots").evaluate("card => card.scrollIntoView()")


VIEWS: list[tuple[str, str, tuple[int, int], Callable[[Page], None] | None]] = [
    ("job", "#/job", DESK, the_job),
    ("day", "#/day", DESK, the_day),
    ("kit", "#/kit", DESK, the_kit),
    ("log", "#/log", DESK, the_log),
    ("on-set-phone", "#/log", PHONE, on_set),
    ("card-phone", "#/kit", PHONE, a_card),
    ("compare", "#/shelf", DESK, compare),
    ("setup", "", DESK, None),
    ("setup-dim", "", DESK, dim),
    ("practice", "#/practice/second/3", DESK, practice),
    ("stage", "", DESK, stage),
    ("find", "", DESK, find),
    ("stage-phone", "", PHONE, phone_stage),
    ("seen", "", DESK, seen),
    ("map", "#/shelf", DESK, the_map),
    ("paste", "#/shelf", DESK, paste),
    ("setup-phone", "", PHONE, None),
    ("units-phone-sun", "", PHONE, phone_units),
    ("shelf", "#/shelf", DESK, None),
]


def picture(
    browser: Browser, folder: Path, view: tuple[str, str, tuple[int, int], Callable[[Page], None] | None]
) -> None:
    """One view, on demo data of its own."""
    name, route, (width, height), prepare = view
    with Demo(folder / name) as url:
        page = browser.new_page(viewport={"width": width, "height": height}, color_scheme="light")
        page.goto(url + route)
        page.get_by_role("banner").get_by_role("button", name="Settings").wait_for()
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(600)
        if prepare:
            prepare(page)
        page.wait_for_load_state("networkidle")  # all that was asked for is there, however slow the machine
        page.wait_for_timeout(700)
        page.screenshot(path=OUT / f"{name}.png")
        page.close()


def main() -> None:
    """Every main view."""
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        browser = launch(p)
        for view in VIEWS:
            picture(browser, Path(folder), view)
        browser.close()


if __name__ == "__main__":
    main()
