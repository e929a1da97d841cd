"""A picture said in a line, a journey by what people type, findings that say what they move, helps of a day."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from acts import asked, go
from pages import bench, setting, state, take, tool, typed

LINE = "Say the picture in a line"


def say(page: Page, text: str) -> None:
    page.get_by_role("textbox", name=LINE).fill(text)


def stored(page: Page, name: str) -> dict[str, Any]:
    found: dict[str, Any] = next(one["doc"] for one in asked(page, "api/setups") if one["doc"]["name"] == name)
    return found


def test_a_noon_portrait_from_scratch_corrected_and_found_a_stop(page: Page) -> None:
    """Said in a line, one correction, one light moved, a dial typed, a finding applied: what was said comes out."""
    page.keyboard.press(".")
    expect(page.get_by_role("textbox", name=LINE)).to_be_focused()
    page.keyboard.type("85 mm f/2.8, sun behind, octa at 1.8 m, background 60 m, subject at 2.5 m")
    found = page.get_by_test_id("say")
    expect(found).to_contain_text("through Octa 90")
    found.get_by_label("Where it goes").select_option(label="a new setup")
    expect(found.get_by_role("button", name="Take it")).to_be_visible()
    page.get_by_role("textbox", name=LINE).press("Enter")
    expect(page.get_by_role("heading", level=1, name="New setup")).to_be_attached()
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("1.8 m")
    take(page, "Curlew 400")
    typed(page, "Background", "1 under")
    expect(page.get_by_role("spinbutton", name="Background", exact=True)).to_have_text("1 under")
    typed(page, "Bearing", "45 left")
    expect(page.get_by_role("spinbutton", name="Bearing", exact=True)).to_have_text("45° to the left")
    typed(page, "Dial", "1/32")
    expect(setting(page, "Dial")).to_have_text("5.0 of 10")
    expect(page.get_by_test_id("headline")).to_contain_text("too dark")
    expect(state(page)).to_have_text("Saved")
    doc = stored(page, "New setup")
    light = doc["lights"][0]
    assert (light["dial_stops"], light["position"]["bearing_deg"], light["distance_m"]) == (5, -45, 1.8)
    assert doc["aim"]["background_stops"] == -1
    assert doc["aim"]["lens"]["background_m"] == 60


def test_a_finding_says_what_else_it_moves_and_does_it(page: Page) -> None:
    bench(page, "Team of 22")
    take(page, "Gannet 600")
    listed = tool(page, "Find a stop")
    losing = listed.get_by_role("group", name="Loses something that the picture asks for")
    expect(losing).to_be_visible()
    nearest = losing.get_by_role("button", name=re.compile("closer, to")).first
    expect(nearest).to_contain_text("ends")
    expect(nearest).to_contain_text("the last row is")
    metres = re.search(r"closer, to ([\d.]+) m", nearest.inner_text())
    assert metres is not None
    nearest.click()
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text(re.compile(f"^{metres.group(1)}"))
    expect(page.get_by_test_id("also")).to_contain_text("The last row is")
    page.keyboard.press("Control+z")
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("5.5 m")


def test_what_is_asked_in_a_line_is_answered_by_a_button_and_enter_takes_it(page: Page) -> None:
    say(page, "umbrella at 2 m, blurb")
    found = page.get_by_test_id("say")
    expect(found).to_contain_text("not understood")
    expect(found.get_by_role("button", name="Take it")).to_have_count(0)
    say(page, "umbrella at 2 m")
    found.get_by_role("button", name=re.compile("Silver umbrella")).click()
    page.get_by_role("textbox", name=LINE).press("Enter")
    expect(page.get_by_role("textbox", name=LINE)).to_have_value("")
    expect(
        page.get_by_role("combobox", name="Modifier").or_(page.get_by_role("button", name="Modifier"))
    ).to_contain_text("Silver umbrella 100")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(
        page.get_by_role("combobox", name="Modifier").or_(page.get_by_role("button", name="Modifier"))
    ).to_contain_text("Octa 90")


def test_a_help_of_the_day_is_done_by_its_button_and_undone(page: Page) -> None:
    go(page, "Day")
    says = page.get_by_test_id("day-says")
    expect(says).to_contain_text("gives out")
    page.get_by_test_id("ways").get_by_role("button", name=re.compile("4 batteries more")).click()
    expect(says).to_contain_text("It lasts")
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(says).to_contain_text("gives out at 12:50")


def test_reminders_are_one_line_that_stays_folded(page: Page) -> None:
    reminders = page.get_by_test_id("reminders")
    expect(reminders).to_contain_text("auto ISO off")
    expect(page.get_by_role("list", name="Warnings")).not_to_contain_text("ISO")
    reminders.get_by_role("button", name="Before the first frame").click()
    expect(reminders).to_have_text("Before the first frame")
    page.reload()
    expect(page.get_by_test_id("headline")).to_be_visible()
    expect(page.get_by_test_id("reminders")).to_have_text("Before the first frame")
