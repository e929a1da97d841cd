"""What a person sees and does, in a real browser."""

import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

AXE = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")


def findings(page: Page) -> list[Any]:
    """What axe finds, WCAG 2.2 AA."""
    page.evaluate(AXE)
    tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
    result = page.evaluate("tags => axe.run({runOnly: tags})", tags)
    return [(v["id"], [n["html"][:120] for n in v["nodes"]]) for v in result["violations"]]


def lane(page: Page, name: str) -> Any:
    return page.get_by_role("listitem").filter(has=page.get_by_role("button", name=re.compile(f"^{name}")))


def saved(page: Page) -> None:
    expect(page.get_by_test_id("saving")).to_have_text("Saved")


def test_a_newcomer_sees_a_verdict_with_its_reason(page: Page) -> None:
    expect(page.get_by_test_id("headline")).to_have_text(
        re.compile(r"3 of 12 units reach\. The lightest .* Curlew 400")
    )
    expect(lane(page, "Gannet 600")).to_contain_text("1.5 spare")
    expect(lane(page, "Dunlin 36")).to_contain_text("short by 0.8 stop")
    expect(lane(page, "Wren 7")).to_contain_text("it takes no modifiers")
    lane(page, "Gannet 600").get_by_role("button").click()
    table = page.get_by_role("table", name="The chain of Gannet 600")
    expect(table).to_contain_text("Inverse square")
    expect(table).to_contain_text("ISO 1230:2007")
    page.get_by_role("button", name="High-speed sync").click()
    expect(page.get_by_test_id("headline")).to_contain_text("2 of 12 units reach")
    expect(table).to_contain_text("HSS 1/8000 s")


def test_figures_are_nudged_by_keys_undone_and_kept(page: Page) -> None:
    page.keyboard.press("d")
    distance = page.get_by_role("spinbutton", name="Distance", exact=True)
    expect(distance).to_be_focused()
    page.keyboard.press("Shift+ArrowUp")
    expect(distance).to_have_text("2.55 m")
    expect(lane(page, "Gannet 600")).to_contain_text("0.6 spare")  # inverse square: −1.0 from 1.5
    saved(page)
    page.keyboard.press("Control+z")
    expect(distance).to_have_text("1.8 m")
    page.keyboard.press("Control+y")
    expect(distance).to_have_text("2.55 m")
    page.reload()
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("2.55 m")


def test_a_typed_figure_that_cannot_be_is_refused_with_a_sentence(page: Page) -> None:
    page.get_by_role("spinbutton", name="Distance", exact=True).focus()
    page.keyboard.press("Enter")
    field = page.get_by_role("textbox", name="Distance", exact=True)
    field.fill("0")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("Distance must be between 0.05 and 500 m.")
    field.fill("10 ft")
    field.press("Enter")
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("3.05 m")


def test_an_ask_that_none_meets_says_by_how_much(page: Page) -> None:
    page.get_by_role("spinbutton", name="Distance", exact=True).focus()
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name="Distance", exact=True).fill("20 m")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("headline")).to_have_text(
        re.compile("No unit .* reaches. The nearest, Skua 1200 pack, is")
    )


def test_import_with_one_bad_row(page: Page, tmp_path: Path) -> None:
    file = tmp_path / "list.csv"
    file.write_text('name,guide_number,weight_g\nStint 60,"GN 60 (ISO 100, m, 200 mm)",300\nRuff,GN 40,90\n', "utf-8")
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Import").click()
    page.get_by_label("File to import").set_input_files(file)
    expect(page.get_by_test_id("import-count")).to_have_text("1 good, 1 bad")
    expect(page.get_by_role("dialog")).to_contain_text(
        "Row 3, guide_number: “GN 40” does not say whether it is in metres"
    )
    page.get_by_role("button", name="Add 1 units").click()
    expect(page.get_by_role("row", name=re.compile("Stint 60"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("row", name=re.compile("Stint 60"))).to_have_count(0)


def test_a_unit_is_added_and_deleted(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Add a unit").click()
    page.get_by_label("Name").fill("Whimbrel 45")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("needs a guide number or an energy")
    page.get_by_role("button", name="Add a guide number").click()
    page.get_by_role("button", name="Add", exact=True).click()
    row = page.get_by_role("row", name=re.compile("Whimbrel 45"))
    expect(row).to_contain_text("GN 36.0 m")
    page.get_by_role("button", name="Delete Whimbrel 45").click()
    expect(row).to_have_count(0)


def test_two_tabs_never_overwrite_each_other(page: Page, demo: Any, browser: Browser) -> None:
    other = browser.new_page()
    other.goto(demo.url)
    other.get_by_test_id("headline").wait_for()
    other.get_by_role("spinbutton", name="Frames").press("ArrowUp")
    saved(other)
    page.get_by_role("spinbutton", name="Heads").press("ArrowUp")
    expect(page.get_by_role("dialog")).to_contain_text("changed in another tab")
    page.get_by_role("button", name="Take the other version").click()
    expect(page.get_by_role("spinbutton", name="Frames")).to_have_text("250 frames")
    expect(page.get_by_role("spinbutton", name="Heads")).to_have_text("one head")
    other.close()


def test_what_was_shown_as_saved_outlives_a_killed_server(page: Page, demo: Any) -> None:
    frames = page.get_by_role("spinbutton", name="Frames")
    for _ in range(5):
        frames.press("ArrowUp")
    saved(page)
    shown = frames.text_content()
    demo.kill()
    demo.start(demo.port)
    page.reload()
    expect(page.get_by_role("spinbutton", name="Frames")).to_have_text(shown or "")


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_axe_finds_nothing(browser: Browser, demo: Any, scheme: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 900}, color_scheme=scheme)
    page.goto(demo.url)
    lane(page, "Gannet 600").get_by_role("button").click()
    page.get_by_role("table").wait_for()
    assert findings(page) == []
    page.goto(demo.url + "#/shelf")
    page.get_by_role("button", name="Edit Plover 58").click()
    assert findings(page) == []
    page.close()


def test_a_phone_has_no_sideways_scroll(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.close()
