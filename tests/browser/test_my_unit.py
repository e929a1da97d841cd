"""The workbench with a unit in hand: fixed figures, what was seen, the ladder; by mouse, by keys and by touch."""

import csv
import io
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, expect

from pages import THEMES, bench, findings, lane, method, saved, setting, settle_in, take, tool, typed, verdict


def test_a_newcomer_knows_what_to_set_in_four_actions(page: Page) -> None:
    """The first screen says it without any; the unit one owns takes one more; its verdict fits without scrolling."""
    expect(verdict(page)).to_contain_text("The lightest that does, Curlew 400, at 8.6 of 10")
    expect(setting(page, "Aperture set")).to_have_text("f/2.8")
    expect(setting(page, "Shutter")).to_have_text("1/250 s")
    expect(setting(page, "ND")).to_have_text("ND 5 stops (ND32, 1.5)")
    lane(page, "Godwit 76 pair").get_by_role("button", name=re.compile("^Godwit")).click()
    expect(verdict(page)).to_have_text(
        re.compile(r"^Godwit 76 pair at 1/2 \+ ⅔ through Octa 90 at 1\.8 m: on the line")
    )
    for shown in (verdict(page), setting(page, "Dial"), method(page, "Stop down"), lane(page, "Redshank 60")):
        expect(shown).to_be_in_viewport(ratio=1)
    assert page.evaluate("scrollY") == 0


def test_six_lanes_and_all_above_them_stand_on_the_first_screen(page: Page) -> None:
    lanes = page.get_by_role("list", name="Flash units").get_by_role("listitem")
    for at in range(6):
        expect(lanes.nth(at)).to_be_in_viewport(ratio=1)
    expect(page.get_by_text("Noon portrait", exact=True).and_(page.locator(":not(option)"))).to_have_count(1)


def test_a_unit_is_taken_and_given_back(page: Page) -> None:
    take(page, "Avocet 200")
    expect(page.get_by_role("combobox", name="Unit", exact=True)).to_have_value(re.compile("."))
    expect(page.get_by_role("heading", name="Methods, for Avocet 200")).to_be_visible()
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Delete Avocet 200").dblclick()  # one wish, and what is said of it is true
    expect(page.get_by_text("Deleted Avocet 200. Undo brings it back.")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Delete "))).to_have_count(11)
    page.get_by_role("link", name="Setup").click()
    expect(verdict(page)).to_contain_text("Avocet 200 at ")  # the setup keeps its copy
    lane(page, "Avocet 200").get_by_role("button", name=re.compile("^Avocet")).click()
    expect(verdict(page)).to_contain_text("The lightest that does")


def test_where_a_copy_is_undone_its_original_is_on_the_bench(page: Page) -> None:
    """What is no longer there cannot be edited, and is not shown as if it could."""
    name = page.get_by_role("textbox", name="Name of the setup")
    bench(page, "The leap")
    page.get_by_role("button", name="Copy this setup").click()
    expect(name).to_have_value("The leap (2)")
    page.get_by_role("button", name="Undo").click()
    expect(name).to_have_value("The leap")
    page.get_by_role("button", name="Redo").click()
    bench(page, "The leap (2)")


def test_what_the_jobs_kit_has_for_a_light_is_said_and_taken(page: Page) -> None:
    """The whole shelf is compared, but the day shoots with what goes along."""
    kit = page.get_by_test_id("from-kit")
    expect(kit).to_contain_text("The job's kit: Gannet 600 at 1/4 through Octa 90 at 1.8 m: 1.5 stops in hand.")
    kit.get_by_role("button", name="take it here").click()
    expect(verdict(page)).to_have_text(re.compile(r"^Gannet 600 at 1/4 through Octa 90 at 1\.8 m: right, 1\.5"))
    expect(kit).to_have_count(0)
    bench(page, "Hare in dune grass")  # no unit of the kit has the zoom that it wants
    expect(kit).to_have_text("The job's kit has no unit for this light.")


def test_figures_are_fixed_and_what_comes_out_is_said(page: Page) -> None:
    bench(page, "The leap")
    typed(page, "Shutter", "1/16000")
    expect(verdict(page)).to_have_text("1/16000 s is fixed, but Cliff 36 goes no further than 1/8000 s.")
    expect(page.get_by_role("list", name="Flash units")).to_have_count(0)
    page.get_by_role("button", name="Shutter fixed").click()
    expect(verdict(page)).to_contain_text("units reach")
    bench(page, "Noon portrait")
    take(page, "Curlew 400")
    for name in ("Aperture set", "ISO", "ND"):
        page.get_by_role("button", name=f"{name} fixed", exact=True).click()
    typed(page, "Shutter", "1/500")
    typed(page, "Dial", "1/4")
    expect(setting(page, "Dial")).to_have_text("8.0 of 10")  # in the unit's own numbers
    # 5 stops of ND and 1/500 at EV 15: a stop darker than 1/250, which was one under
    expect(page.get_by_test_id("picture")).to_contain_text("background −2.0 (1.0 stop darker than wanted)")
    expect(verdict(page)).to_contain_text("Curlew 400 fixed at 8.0 of 10 through Octa 90 at 1.8 m: the face")
    expect(method(page, "High-speed sync")).to_be_visible()
    expect(page.get_by_text(re.compile("others: .*1/500 s is fixed, faster than sync"))).to_have_count(1)
    typed(page, "Dial", "nonsense")
    expect(page.get_by_role("alert")).to_contain_text("It goes from 10.0 of 10 down to")
    page.keyboard.press("Escape")
    saved(page)
    page.reload()
    expect(page.get_by_role("button", name="Shutter fixed")).to_have_attribute("aria-pressed", "true")
    expect(setting(page, "Shutter")).to_have_text("1/500 s")


def test_a_meter_reading_gives_the_next_dial_and_may_stand(page: Page) -> None:
    bench(page, "Chalk line")
    take(page, "Gannet 600")
    seen = tool(page, "What did you see?")
    typed(page, "Dial then", "1/128")
    typed(page, "Meter reads", "8")
    seen.get_by_role("button", name="Tell it").click()
    # f/11 is wanted in a dark loft, f/8 was read at 1/128: a stop more
    expect(page.get_by_test_id("next")).to_contain_text("Next: 1/64 (1.00 stop more flash)")
    readings = seen.get_by_role("list", name="Readings")
    expect(readings).to_contain_text("meter read f/8 at ISO 400, at 1/128")
    readings.get_by_label("count from this reading").check()
    expect(setting(page, "Dial")).to_have_text("1/64")
    page.get_by_role("button", name="Why: every gain and loss").click()
    chain = page.get_by_role("table", name="The chain of Gannet 600")
    expect(chain).to_contain_text("your reading; what has changed since is added from the chain")
    saved(page)
    page.reload()
    tool(page, "What did you see?")
    expect(page.get_by_test_id("next")).to_contain_text("Next: 1/64")
    page.get_by_role("button", name="forget it").click()
    expect(page.get_by_test_id("next")).to_have_count(0)


def test_a_face_too_bright_at_the_lowest_setting_gets_a_cure(page: Page) -> None:
    bench(page, "Prize table")
    take(page, "Gannet 600")
    seen = tool(page, "What did you see?")
    seen.get_by_label("Seen").select_option(label="In the test frame the light is")
    typed(page, "Dial then", "1/256")
    typed(page, "Brighter than wanted", "1")
    seen.get_by_role("button", name="Tell it").click()
    said = page.get_by_test_id("next")
    expect(said).to_contain_text("below the lowest setting, 1/256: step back to")
    expect(said).to_contain_text("or lower the ISO")


def test_changes_are_offered_with_what_they_bring_and_done(page: Page) -> None:
    lane(page, "Redshank 60").get_by_role("button", name=re.compile("^Redshank")).click()
    expect(verdict(page)).to_contain_text("Redshank 60 at full power through Octa 90 at 1.8 m: short by 0.6 stop")
    # the diffuser takes 0.9: without it the unit is 0.3 over
    page.get_by_role("button", name=re.compile(r"inner diffuser off")).first.click()
    expect(verdict(page)).not_to_contain_text("short")
    expect(page.get_by_role("button", name=re.compile("inner diffuser")).first).to_have_attribute(
        "aria-pressed", "false"
    )
    page.get_by_role("button", name="Undo").click()
    expect(verdict(page)).to_contain_text("short by 0.6 stop")


def test_the_ladder_on_screen_paper_and_in_a_file(page: Page) -> None:
    take(page, "Curlew 400")
    tool(page, "Distance ladder")
    ladder = page.get_by_role("table", name="What to dial by distance")
    expect(ladder.get_by_role("row", name=re.compile(r"^1\.4 m"))).to_be_visible()
    expect(ladder.get_by_role("columnheader").nth(2)).to_contain_text("without inner diffuser")
    with page.expect_download() as download:
        page.get_by_role("link", name="CSV").click()
    rows = list(csv.reader(io.StringIO(Path(download.value.path()).read_text("utf-8-sig"))))
    shown = [row.get_by_role("rowheader").text_content() for row in ladder.get_by_role("row").all()[1:]]
    assert [row[0] for row in rows if row and row[0].endswith(" m")] == shown
    page.evaluate("window.print = () => { window.printed = document.documentElement.dataset.print }")
    page.get_by_role("button", name="Print").click()
    assert page.evaluate("window.printed") == "ladder"
    page.set_viewport_size({"width": 703, "height": 1000})
    page.emulate_media(media="print")
    page.evaluate("document.documentElement.dataset.print = 'ladder'")
    expect(ladder).to_be_visible()
    expect(verdict(page)).to_be_hidden()
    strip = page.locator(".strip")
    expect(strip).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 703
    page.emulate_media(media="screen")
    settle_in(page, "Length in", "ft")
    expect(ladder.get_by_role("row", name=re.compile("^4 ft"))).to_be_visible()


def test_all_of_it_by_keys(page: Page) -> None:
    """Take a unit, fix the shutter, tell a reading, open the ladder: nothing but the keyboard."""
    keys = page.keyboard
    lane(page, "Skua 1200 pack").get_by_role("button", name=re.compile("^Skua")).focus()
    keys.press("Enter")
    expect(verdict(page)).to_contain_text("Skua 1200 pack at 300 Ws")
    keys.press("v")
    expect(setting(page, "Shutter")).to_be_focused()
    keys.press("x")
    expect(page.get_by_role("button", name="Shutter fixed")).to_have_attribute("aria-pressed", "true")
    keys.press("ArrowUp")
    expect(setting(page, "Shutter")).to_have_text("1/200 s")
    keys.press("k")
    expect(setting(page, "Dial")).to_be_focused()
    keys.press("Shift+ArrowUp")
    expect(setting(page, "Dial")).to_have_text("600 Ws")
    keys.press("x")
    page.get_by_role("button", name="What did you see?").press("Enter")
    keys.press("Tab")  # past the other tools
    while page.evaluate("document.activeElement.getAttribute('aria-label')") != "Meter reads":
        keys.press("Tab")
    keys.press("ArrowUp")
    while page.evaluate("document.activeElement.textContent") != "Tell it":
        keys.press("Tab")
    keys.press("Enter")
    expect(page.get_by_test_id("next")).to_contain_text("less flash")
    page.get_by_role("button", name="Distance ladder").press("Enter")
    expect(page.get_by_role("table", name="What to dial by distance")).to_be_visible()
    keys.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_contain_text("x fixes a setting or frees it")


def test_all_of_it_by_touch_on_a_phone(browser: Browser, demo: Any) -> None:
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
    page = context.new_page()
    page.goto(demo.url)
    for shown in (
        page.get_by_role("textbox", name="Name of the setup"), verdict(page), setting(page, "ND"),
        method(page, "ND at sync"), method(page, "High-speed sync"), method(page, "Stop down"),
    ):  # fmt: skip
        expect(shown).to_be_in_viewport(ratio=1)
    page.get_by_role("button", name="Units", exact=True).tap()
    lane(page, "Gannet 600").get_by_role("button", name=re.compile("^Gannet")).tap()
    page.get_by_role("button", name="Answer", exact=True).tap()
    expect(verdict(page)).to_contain_text("Gannet 600 at 1/4 through Octa 90")
    page.get_by_role("button", name="Shutter fixed").tap()
    setting(page, "Shutter").tap()
    page.get_by_role("button", name="more: Shutter").tap()
    expect(setting(page, "Shutter")).to_have_text("1/200 s")
    page.get_by_role("button", name="On set", exact=True).tap()
    page.get_by_role("button", name="Tell it").tap()
    expect(page.get_by_test_id("next")).to_contain_text("Right as it is")
    page.get_by_role("button", name="Distance ladder").tap()
    expect(page.get_by_role("table", name="What to dial by distance")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    small = page.evaluate(
        "() => [...document.querySelectorAll('button, select, summary, a[href], [role=spinbutton]')]"
        ".filter(e => e.offsetParent && e.getBoundingClientRect().height < 43.5).map(e => e.outerHTML.slice(0, 90))"
    )
    assert small == []
    assert findings(page) == []
    context.close()


def test_axe_finds_nothing_with_a_unit_in_hand(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(demo.url)
    bench(page, "Chalk line")
    take(page, "Gannet 600")
    assert findings(page, THEMES) == []
    for name in (
        "What did you see?", "Find a stop", "Order of work", "Distance ladder", "Meter, colour, automatics",
        "Flash duration",
    ):  # fmt: skip
        expect(tool(page, name)).to_contain_text(re.compile("."))
        assert findings(page, THEMES, "section[aria-label='With the unit in hand']") == [], name
    assert page.evaluate("document.documentElement.scrollWidth") <= 1280
    page.close()


def test_from_an_empty_shelf_by_one_reading_to_the_first_dial(page: Page) -> None:
    """A unit whose guide number nobody knows: full, 2 m, octa: f/8."""
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Add by a test").click()
    asked = page.get_by_role("dialog", name="A unit by one test")
    asked.get_by_label("Name").fill("Stint X")
    asked.get_by_label("Through").select_option(label="Octa 90")
    asked.get_by_label("Meter read").fill("f/8")
    asked.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("row", name=re.compile("Stint X"))).to_be_visible()
    page.get_by_role("link", name="Setup").click()
    page.get_by_role("button", name=re.compile("more units")).click()
    take(page, "Stint X")


def test_a_new_setup_begins_where_one_is(page: Page) -> None:
    page.get_by_role("button", name="New setup").click()
    begin = page.get_by_role("dialog")
    begin.get_by_role("button", name=re.compile("dark", re.IGNORECASE)).first.click()
    expect(page.get_by_role("textbox", name="Name of the setup")).not_to_have_value("Noon portrait")
    expect(verdict(page)).to_be_visible()
    expect(page.get_by_label("Camera body")).to_have_value(re.compile("."))
