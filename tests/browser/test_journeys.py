"""What a person sees and does, in a real browser."""

import json
import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from pages import THEMES, findings, lane, saved, settle_in


def why(page: Page, name: str) -> Any:
    """Take a unit, and show its whole chain."""
    lane(page, name).get_by_role("button", name=re.compile(f"^{name}")).click()
    expect(page.get_by_test_id("headline")).to_contain_text(name)
    page.get_by_role("button", name="Why: every gain and loss").click()
    return page.get_by_role("table", name=f"The chain of {name}")


def frames_of(page: Page) -> Any:
    """The figure of frames, unfolded."""
    more = page.get_by_text("side, automatic power, group, frames, supply")
    if not page.get_by_role("spinbutton", name="Frames").is_visible():
        more.press("Enter")
    return page.get_by_role("spinbutton", name="Frames")


def test_a_newcomer_sees_a_verdict_with_its_reason(page: Page) -> None:
    expect(page.get_by_test_id("headline")).to_have_text(
        re.compile(r"3 of 12 units reach\. The lightest .* Curlew 400")
    )
    expect(lane(page, "Gannet 600")).to_contain_text("+1.5")
    expect(lane(page, "Dunlin 36")).to_contain_text("−0.8 short")
    expect(page.get_by_text("2 cannot be used")).to_contain_text("it takes no modifiers")
    table = why(page, "Gannet 600")
    expect(table).to_contain_text("Inverse square")
    expect(table).to_contain_text("ISO 1230:2007")
    expect(page.get_by_test_id("headline")).to_have_text(
        "Gannet 600 at 1/4 through Octa 90 at 1.8 m: right, 1.5 stops in hand."
    )
    page.get_by_role("button", name="High-speed sync").first.click()
    expect(page.get_by_test_id("headline")).to_contain_text("Gannet 600 at ")
    expect(table).to_contain_text("HSS 1/8000 s")


def test_figures_are_nudged_by_keys_undone_and_kept(page: Page) -> None:
    page.keyboard.press("d")
    distance = page.get_by_role("spinbutton", name="Distance", exact=True)
    expect(distance).to_be_focused()
    page.keyboard.press("Shift+ArrowUp")
    expect(distance).to_have_text("2.55 m")
    expect(lane(page, "Gannet 600")).to_contain_text("+0.6")  # inverse square: −1.0 from 1.5
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
    expect(page.get_by_role("alert")).to_have_text("Distance must be between 0.05 m and 500 m.")
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
    page.get_by_role("button", name="Add 1 unit").click()
    expect(page.get_by_role("row", name=re.compile("Stint 60"))).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("row", name=re.compile("Stint 60"))).to_have_count(0)


def test_a_unit_is_added_and_deleted(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Add a unit").click()
    page.get_by_label("Name").fill("Whimbrel 45")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("needs a guide number or an energy")
    page.get_by_label("GN", exact=True).fill("45")
    page.get_by_role("button", name="Add", exact=True).click()
    row = page.get_by_role("row", name=re.compile("Whimbrel 45"))
    expect(row).to_contain_text("GN 45 m")
    page.get_by_role("button", name="Delete Whimbrel 45").click()
    expect(row).to_have_count(0)


def test_two_tabs_never_overwrite_each_other(page: Page, demo: Any, browser: Browser) -> None:
    other = browser.new_page()
    other.goto(demo.url)
    other.get_by_test_id("headline").wait_for()
    frames_of(other).press("ArrowUp")
    saved(other)
    page.get_by_role("spinbutton", name="Heads").press("ArrowUp")  # another figure: both stand
    expect(frames_of(page)).to_have_text("250 frames")
    expect(page.get_by_role("spinbutton", name="Heads")).to_have_text("2 heads")
    saved(page)
    frames_of(page).press("ArrowUp")
    saved(page)
    frames_of(other).press("ArrowDown")  # the same figure: the person chooses
    expect(other.get_by_role("dialog")).to_contain_text("changed in another tab")
    expect(other.get_by_role("dialog")).to_contain_text("240 here, 260 there")
    other.keyboard.press("Escape")  # puts it off, and throws nothing away
    expect(other.get_by_role("dialog")).to_have_count(0)
    expect(other.get_by_test_id("saving")).to_have_text("Cannot be saved: 1")
    expect(frames_of(other)).to_have_text("240 frames")
    other.get_by_role("button", name="Decide which to keep").click()
    other.get_by_role("button", name="Take the other version").click()
    expect(frames_of(other)).to_have_text("260 frames")
    expect(other.get_by_role("spinbutton", name="Heads")).to_have_text("2 heads")
    frames_of(page).press("ArrowUp")
    saved(page)
    frames_of(other).press("ArrowDown")
    other.get_by_role("button", name="Keep what is on this screen").click()
    saved(other)
    page.reload()
    expect(frames_of(page)).to_have_text("250 frames")
    other.close()


@pytest.mark.killed
def test_what_was_shown_as_saved_outlives_a_killed_server(page: Page, demo: Any) -> None:
    frames = frames_of(page)
    for _ in range(5):
        frames.press("ArrowUp")
    saved(page)
    shown = frames.text_content()
    demo.kill()
    demo.start(demo.port)
    page.reload()
    expect(frames_of(page)).to_have_text(shown or "")


def test_axe_finds_nothing(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 900})
    page.goto(demo.url)
    for theme in THEMES:
        settle_in(page, "Theme", theme)
        expect(page.locator("html")).to_have_attribute("data-theme", theme)
    why(page, "Gannet 600").wait_for()
    assert findings(page, THEMES) == []
    page.goto(demo.url + "#/shelf")
    page.get_by_role("button", name="Edit Plover 58").click()
    assert findings(page, THEMES) == []
    page.close()


def test_a_phone_has_no_sideways_scroll(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.close()


def held_back(page: Page, url: str, method: str) -> list[Route]:
    """Requests of a kind that wait until they are let go."""
    waiting: list[Route] = []
    page.route(url, lambda route: waiting.append(route) if route.request.method == method else route.continue_())
    return waiting


def until(page: Page, waiting: list[Route], count: int) -> None:
    for _ in range(100):
        if len(waiting) >= count:
            return
        page.wait_for_timeout(50)
    raise AssertionError(f"{len(waiting)} requests of {count}")


def test_a_setup_never_overwrites_another_that_opens_meanwhile(page: Page) -> None:
    """Nudge A twice while B is opening: both nudges go to A, and B opens as it was stored."""
    options = page.get_by_label("Setup on the bench").get_by_role("option")
    first, second = (options.nth(i).get_attribute("value") for i in (0, 1))
    waiting = held_back(page, f"**/api/setups/{second}/answer*", "GET")
    sent: list[tuple[str, str]] = []
    page.on("request", lambda r: sent.append((r.url, str(r.post_data))) if r.method == "PUT" else None)
    page.get_by_label("Setup on the bench").select_option(second)
    until(page, waiting, 1)
    frames = frames_of(page)
    frames.press("ArrowUp")
    frames.press("ArrowUp")
    saved(page)
    waiting[0].continue_()
    expect(page.get_by_role("textbox", name="Name of the setup")).to_have_value("The leap")
    expect(frames).to_have_text("120 frames")
    assert sent
    assert all(f"/api/setups/{first}?" in url and json.loads(body)["name"] == "Noon portrait" for url, body in sent)
    page.get_by_label("Setup on the bench").select_option(first)
    expect(frames).to_have_text("260 frames")


def test_a_late_answer_never_takes_the_screen_back(page: Page) -> None:
    """The answer is asked for anew (feet), a figure is nudged, and only then does the old answer come."""
    waiting = held_back(page, "**/answer*", "GET")
    settle_in(page, "Length in", "ft")
    until(page, waiting, 1)
    frames = frames_of(page)
    frames.press("ArrowUp")
    expect(frames).to_have_text("250 frames")
    saved(page)
    waiting[0].continue_()
    page.wait_for_timeout(400)
    expect(frames).to_have_text("250 frames")
    frames.press("ArrowUp")  # under the newest revision: no conflict
    saved(page)
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_nothing_is_confirmed_before_the_server_has(page: Page) -> None:
    def broken(route: Route) -> None:
        problems = [{"where": "", "field": "Data", "sentence": "The disk is full: nothing was stored."}]
        route.fulfill(status=507, json={"problems": problems})

    said = page.get_by_role("alert")
    page.get_by_role("link", name="Shelf").click()
    row = page.get_by_role("row", name=re.compile("Plover 58"))
    expect(row).to_have_count(1)
    page.route("**/api/units*", broken)
    page.route("**/api/units/*/copy", broken)
    page.get_by_role("button", name="Delete Plover 58").click()
    expect(said).to_contain_text("Plover 58 was not deleted. The disk is full: nothing was stored.")
    expect(page.get_by_text("Undo brings it back")).to_have_count(0)
    expect(row).to_have_count(1)
    page.get_by_role("button", name="Duplicate Plover 58").click()
    expect(said).to_contain_text("The disk is full")
    page.get_by_role("link", name="Setup").click()
    page.route("**/api/setups*", broken)
    page.get_by_role("button", name="Delete this setup").click()
    expect(said).to_contain_text("Noon portrait was not deleted")
    page.route("**/api/preferences", broken)
    page.get_by_role("button", name="Settings").click()
    settings = page.get_by_role("dialog", name="Settings")
    settings.get_by_label("Length in").select_option("ft")
    expect(page.get_by_test_id("saving")).to_contain_text("Waiting: 1 since")
    settings.get_by_role("button", name="Close").click()
    page.route("**/api/undo", broken)
    page.route("**/api/setups/*", broken)
    frames_of(page).press("ArrowUp")
    expect(page.get_by_test_id("saving")).to_contain_text("Waiting: 2 since")
    expect(page.get_by_text("Waiting: The disk is full: nothing was stored.")).to_be_visible()
    page.unroute_all()
    saved(page)
    assert page.request.get(f"{page.url.split('#')[0]}api/preferences").json()["length"] == "ft"


def test_a_busy_file_is_asked_again(page: Page) -> None:
    turns: list[int] = []

    def busy(route: Route) -> None:
        turns.append(1)
        if len(turns) < 3 and route.request.method == "DELETE":
            return route.fulfill(status=503, json={"problems": []})
        return route.continue_()

    page.get_by_role("link", name="Shelf").click()
    page.route("**/api/units?*", busy)
    page.get_by_role("button", name="Delete Plover 58").click()
    expect(page.get_by_text("Deleted Plover 58. Undo brings it back.")).to_be_visible()
    assert len(turns) == 3


def test_undo_is_of_ones_own_tab(page: Page, demo: Any, browser: Browser) -> None:
    other = browser.new_page()
    other.goto(demo.url + "#/shelf")
    other.get_by_role("button", name="Delete Plover 58").click()
    expect(other.get_by_text("Undo brings it back")).to_be_visible()
    frames_of(page).press("ArrowUp")
    saved(page)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Undone: Frames")).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_have_attribute("aria-disabled", "true")
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Nothing to undo")).to_be_visible()
    other.get_by_role("button", name="Undo").click()
    expect(other.get_by_role("row", name=re.compile("Plover 58"))).to_have_count(1)
    other.close()


def test_three_nudges_are_one_step_of_undo(page: Page) -> None:
    distance = page.get_by_role("spinbutton", name="Distance", exact=True)
    for _ in range(3):
        distance.press("ArrowUp")
        saved(page)
    expect(distance).to_have_text("2.55 m")
    page.keyboard.press("Control+z")
    expect(distance).to_have_text("1.8 m")


def test_names_may_repeat_and_are_shown_letter_for_letter(page: Page) -> None:
    odd = "{name} %s <b>bold</b> “q” {{0}}"
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("link", name="Modifiers").click()
    for _ in range(2):
        page.get_by_role("button", name="Duplicate Octa 90", exact=True).click()
    listed = page.get_by_role("listitem")
    expect(listed.get_by_text("Octa 90 (3)", exact=True)).to_be_visible()
    page.get_by_role("button", name="Edit Octa 90", exact=True).click()
    page.get_by_label("Name", exact=True).fill(odd)
    page.get_by_label("Layer", exact=True).first.fill("inner {1 stop}")
    page.get_by_role("button", name="Save").click()
    expect(listed.get_by_text(odd, exact=True)).to_be_visible()
    page.get_by_role("button", name="Edit Octa 90 (2)").click()
    page.get_by_label("Name", exact=True).fill(odd)
    page.get_by_role("button", name="Save").click()
    expect(listed.get_by_text(odd, exact=True)).to_have_count(2)
    page.get_by_role("link", name="Setup").click()
    chosen = page.get_by_label("Modifier")
    expect(chosen.get_by_role("option", name=odd)).to_have_count(2)
    expect(page.get_by_role("button", name="inner {1 stop}")).to_be_visible()
    table = why(page, "Gannet 600")
    expect(table.get_by_role("rowheader", name=odd, exact=True)).to_have_count(1)
    expect(table).to_contain_text("inner {1 stop}: it comes off.")


def test_shelf_and_back_lands_where_one_was(page: Page) -> None:
    page.get_by_label("Setup on the bench").select_option(label="Chalk line")
    expect(page.get_by_role("textbox", name="Name of the setup")).to_have_value("Chalk line")
    page.get_by_role("link", name="Shelf").click()
    expect(page.get_by_role("heading", name="Shelf")).to_be_visible()
    page.get_by_role("link", name="Setup").click()
    expect(page.get_by_role("textbox", name="Name of the setup")).to_have_value("Chalk line")
    page.go_back()
    page.go_back()
    expect(page.get_by_role("textbox", name="Name of the setup")).to_have_value("Chalk line")


def test_full_stops_change_the_methods_and_feet_their_words(page: Page) -> None:
    page.get_by_label("Setup on the bench").select_option(label="The leap")
    methods = page.get_by_role("group", name="Methods")
    expect(methods).to_contain_text("1/3200 s")
    settle_in(page, "Stop steps", "full")
    expect(methods).not_to_contain_text("1/3200 s")
    expect(page.get_by_test_id("motion")).to_contain_text("m/s")
    settle_in(page, "Length in", "ft")
    expect(page.get_by_test_id("motion")).to_contain_text("ft/s")


def test_ids_that_describe_hold_no_spaces(page: Page) -> None:
    page.get_by_role("spinbutton", name="Distance", exact=True).press("Enter")
    page.get_by_role("textbox", name="Distance", exact=True).fill("0")
    page.keyboard.press("Enter")
    described = page.locator("[aria-describedby]").first.get_attribute("aria-describedby")
    expect(page.locator(f"#{described}")).to_contain_text("Distance must be between")
    assert page.evaluate("[...document.querySelectorAll('[id]')].every(e => !/\\s/.test(e.id))")
