"""From an empty folder to an answer of one's own, as a person would: counted in actions, by keys, and by touch."""

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from pages import THEMES, findings
from served import Served

SHEET = """Plover 58
Guide number: 36 m (ISO 100, 35 mm), 58 m (105 mm)
Energy: 76 Ws
Zoom range: 24-105 mm
Power range: 1/1 - 1/128 in 1/3 steps
Recycle time: 0.1 - 2.6 s (4 AA NiMH)
High-speed sync: to 1/8000 s
t.1 1/300 s
Colour of the box: grey"""
PASTED = "What the maker prints: lines, two columns, or a table of several units"
A_SECOND = 5  # characters that a person types in it
BETWEEN_S = 3.0  # from one action to the next


@pytest.fixture
def own(tmp_path: Path) -> Iterator[Served]:
    """A server on an empty folder."""
    running = Served(tmp_path / "own")
    yield running
    running.kill()


class Person:
    """Who acts on a page; each click, choice or filled field is an action, and takes as long as a person takes."""

    def __init__(self, page: Page, touch: bool = False) -> None:
        self.page, self.touch = page, touch
        self.actions, self.seconds = 0, 0.0

    def act(self, on: Locator) -> None:
        self.actions, self.seconds = self.actions + 1, self.seconds + BETWEEN_S
        if self.touch:
            on.tap()
        else:
            on.click()

    def fill(self, field: Locator, text: str, pasted: bool = False) -> None:
        self.actions, self.seconds = self.actions + 1, self.seconds + BETWEEN_S + len(text) / A_SECOND * (not pasted)
        field.fill(text)


class Keys(Person):
    """Who has no mouse: everything by Tab, Enter and the space bar."""

    def act(self, on: Locator) -> None:
        self.actions += 1
        on.wait_for()
        for _ in range(400):
            if on.evaluate("one => one === document.activeElement"):
                break
            self.page.keyboard.press("Tab")
        else:
            raise AssertionError("no Tab leads there")
        self.page.keyboard.press("Space" if on.get_attribute("type") == "checkbox" else "Enter")


def first_picture(person: Person) -> None:
    """The need of a first picture on screen."""
    person.act(person.page.get_by_role("button", name="Outdoors, in the shade"))
    expect(person.page.get_by_test_id("headline")).to_contain_text("Needs GN ")


def own_kit(person: Person) -> None:
    """The own unit pasted, body and modifier ticked: the verdict with what to dial."""
    page = person.page
    person.act(page.get_by_role("button", name="Tick what you own"))
    dialog = page.get_by_role("dialog", name="Tick what you own")
    for words, name in (("octa 90", "Octa 90"), ("1/250", "36 × 24 mm body, syncs at 1/250")):
        person.fill(dialog.get_by_label("Find a class of kit"), words)
        person.act(dialog.get_by_role("checkbox", name=name).first)
    person.act(dialog.get_by_role("button", name="Put 2 on my shelf"))
    expect(page.get_by_text("2 pieces of kit added.")).to_be_visible()
    person.act(page.get_by_role("button", name="Paste a specification"))
    dialog = page.get_by_role("dialog", name="Paste a specification")
    person.fill(dialog.get_by_label(PASTED), SHEET, pasted=True)
    expect(dialog.get_by_text("1 line not understood")).to_be_visible()
    person.act(dialog.get_by_role("button", name="Add this unit"))
    person.act(page.get_by_role("button", name=re.compile("^Plover 58")))
    expect(page.get_by_test_id("headline")).to_contain_text(re.compile("Plover 58 at (1/|full power)"))


def opened(browser: Browser, own: Served, **how: Any) -> Page:
    page = browser.new_page(**({"viewport": {"width": 1280, "height": 800}} | how))
    page.goto(own.url)
    page.get_by_role("heading", name="Where is your picture?").wait_for()
    return page


def test_a_need_in_three_actions_and_an_answer_of_ones_own_in_fifteen(browser: Browser, own: Served) -> None:
    page = opened(browser, own)
    assert findings(page, THEMES) == []
    person = Person(page)
    first_picture(person)
    assert person.actions <= 3
    assert findings(page) == []
    own_kit(person)
    assert person.actions <= 15
    assert person.seconds < 90
    page.close()


def test_the_same_by_keys_alone(browser: Browser, own: Served) -> None:
    page = opened(browser, own)
    person = Keys(page)
    first_picture(person)
    own_kit(person)
    page.close()


def test_the_same_by_touch_on_a_phone(browser: Browser, own: Served) -> None:
    page = opened(browser, own, viewport={"width": 390, "height": 844}, has_touch=True)
    person = Person(page, touch=True)
    first_picture(person)
    person.act(page.get_by_role("button", name="Tick what you own"))
    dialog = page.get_by_role("dialog")
    box = dialog.get_by_role("checkbox").first
    assert box.locator("xpath=..").evaluate("it => it.getBoundingClientRect().height") >= 44
    person.act(box)
    person.act(dialog.get_by_role("button", name="Put 1 on my shelf"))
    expect(page.get_by_test_id("headline")).not_to_contain_text("Needs GN ")
    for view in ("#/shelf", "#/shelf/modifiers", "#/shelf/stands", "#/help"):
        page.goto(own.url + view)
        page.get_by_role("heading", level=1).wait_for()
        expect(page.get_by_role("main")).to_contain_text(re.compile("Add|Words"))
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, view
    page.close()


def test_a_line_and_enter_adds_a_unit_or_asks(browser: Browser, own: Served) -> None:
    page = opened(browser, own)
    page.goto(own.url + "#/shelf")
    find = page.get_by_label("Find a unit")
    find.fill("gn 36 m iso 100 35 mm 76 ws")
    find.press("Enter")
    expect(page.get_by_role("status").filter(has_text="Added GN 36 m, 76 Ws")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("GN 36 m, 76 Ws"))).to_be_visible()
    find.fill("gn 58")
    find.press("Enter")
    dialog = page.get_by_role("dialog", name="Paste a specification")
    expect(dialog.get_by_role("button", name="Add this unit")).to_be_disabled()
    dialog.get_by_role("button", name="GN 58 (ISO 100, ft)").click()
    expect(dialog.get_by_test_id("spec-comes-to")).to_contain_text("GN 58 (ISO 100, ft)")
    assert findings(page) == []
    page.evaluate("location.hash = '#/job'")
    expect(dialog).to_have_count(0)
    page.close()


def test_units_are_compared_by_looking(page: Page) -> None:
    page.evaluate("location.hash = '#/shelf'")
    page.get_by_role("button", name="Sort by Weight").click()
    rows = page.get_by_role("region", name="Units").get_by_role("row")
    expect(rows.nth(1)).to_contain_text("Wren 7")
    page.get_by_role("button", name="Sort by Light").click()
    expect(rows.nth(1)).to_contain_text("Skua 1200 pack")
    page.get_by_label("Compared on").select_option(label="Noon portrait")
    expect(page.get_by_role("button", name="Sort by In hand", exact=True)).to_be_visible()
    assert findings(page, THEMES) == []
    page.get_by_role("button", name="Map", exact=True).click()
    expect(page.get_by_test_id("map-says")).to_contain_text("None gives more for less than these:")
    page.get_by_label("typical classes behind").check()
    expect(page.get_by_text("400 Ws battery head", exact=True)).to_be_visible()
    curlew = page.get_by_role("button", name=re.compile("^Curlew 400: In hand"))
    curlew.click()
    expect(page.get_by_test_id("map-held")).to_contain_text("Curlew 400: In hand")
    curlew.click()
    for _ in range(2):
        page.get_by_role("button", name=re.compile("^Gannet 600: In hand")).press("Enter")
    expect(page.get_by_role("heading", name="Side by side")).to_be_visible()
    expect(page.get_by_role("img").filter(has_text="where the picture stands")).to_have_count(3)
    assert findings(page, THEMES) == []
    page.evaluate("location.hash = '#/shelf/modifiers'")
    page.get_by_label("Unit behind them").select_option(label="Gannet 600")
    expect(page.get_by_role("row", name=re.compile("^Octa 90"))).to_contain_text("GN 55 m")
    assert findings(page) == []


def test_a_word_is_explained_beside_its_heading_and_on_the_help_page(page: Page) -> None:
    page.get_by_role("button", name="What is Needed?").click()
    expect(page.get_by_text("The line: the light that this picture needs.")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_text("The line: the light that this picture needs.")).to_have_count(0)
    page.get_by_role("button", name="Keys and help").click()
    page.get_by_role("link", name="How to read the chart, words, figures").click()
    expect(page.get_by_role("heading", name="How to read the chart")).to_be_visible()
    expect(page.get_by_role("dialog")).to_have_count(0)
    assert findings(page, THEMES) == []


def test_what_a_job_asks_for_stands_with_its_kit(page: Page) -> None:
    page.evaluate("location.hash = '#/kit'")
    expect(page.get_by_test_id("request")).to_have_text("3 units would do for all of it.")
    expect(page.get_by_role("region", name="To hire or to buy by")).to_contain_text("such as a 400 Ws battery head")
