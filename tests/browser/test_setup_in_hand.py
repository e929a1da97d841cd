"""The light that is there, the look, motion and the ways, as a person meets them."""

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, Route, expect

from acts import wait_until
from pages import THEMES, bench, findings, lane, method, saved, settle_in


def test_the_day_by_the_sun(page: Page) -> None:
    bench(page, "44 headshots")
    expect(page.get_by_role("img", name=re.compile(r"The day's light: Sunrise 04:4\d, sunset 21:1\d"))).to_be_visible()
    expect(page.get_by_test_id("placement")).to_contain_text("The sun reaches it at 15:1")
    page.keyboard.press("t")
    for _ in range(12):
        page.keyboard.press("Shift+ArrowUp")
    expect(page.get_by_role("spinbutton", name="Time of day")).to_have_text("15:30")
    expect(page.get_by_test_id("placement")).to_contain_text("The sun has reached it")
    page.get_by_role("button", name=re.compile("^panel")).click()
    expect(page.get_by_test_id("placement")).to_contain_text(re.compile("Shades (down to|the whole body)"))
    page.get_by_role("button", name="Place: Chalk Downs").click()
    page.get_by_label("Time zone").fill("Europe/Atlantis")
    page.get_by_role("button", name="Take it", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("no time zone")
    expect(page.get_by_test_id("headline")).to_be_visible()  # the rest of the screen stays


def test_a_meter_reading_shifts_the_day(page: Page) -> None:
    bench(page, "Team of 22")
    shown = page.get_by_test_id("ambient")
    before = shown.text_content()
    page.get_by_role("button", name="a meter reading").click()
    expect(shown).not_to_have_text(before or "")
    expect(page.get_by_text(re.compile("Your reading shifts the day by"))).to_be_visible()
    page.get_by_role("button", name="forget it").click()
    expect(shown).to_have_text(before or "")


def test_whether_the_blur_is_worth_it(page: Page) -> None:
    expect(page.get_by_test_id("blur")).to_contain_text("strongly blurred")
    bench(page, "Team of 22")
    expect(page.get_by_test_id("blur")).to_contain_text("Stop down and stay at sync")
    expect(method(page, "Stop down")).to_contain_text("advised")
    expect(page.get_by_test_id("costs")).to_contain_text("the wide aperture buys no blur here")
    backdrop = page.get_by_role("spinbutton", name="Backdrop at")
    backdrop.press("Enter")
    page.get_by_role("textbox", name="Backdrop at").fill("3")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("must lie behind the subject")
    expect(page.get_by_test_id("headline")).to_be_visible()


def test_freezing_powder_in_the_dark(page: Page) -> None:
    bench(page, "Chalk line")
    expect(page.get_by_test_id("motion")).to_contain_text("no longer than 1/5250 s (t.1)")
    expect(method(page, "Freeze by a short flash")).to_contain_text("advised")
    refused = page.get_by_text(re.compile(r"^\d+ cannot be used"))
    expect(refused).to_contain_text("no setting of it is short enough")
    refused.click()
    expect(page.get_by_text("Knot 280: its flash duration is not known")).to_be_visible()
    page.get_by_role("spinbutton", name="ISO", exact=True).press("Enter")
    page.get_by_role("textbox", name="ISO", exact=True).fill("3200")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="all lamps off").click()  # they are on again
    expect(page.get_by_role("list", name="Warnings")).to_contain_text("The ambient ghosts")


def test_past_sync_is_drawn_and_can_be_scrubbed(page: Page) -> None:
    page.get_by_role("spinbutton", name="Aperture", exact=True).press("Enter")
    page.get_by_role("textbox", name="Aperture", exact=True).fill("11")
    page.keyboard.press("Enter")
    past = method(page, "Past sync, part dark")
    expect(past).to_contain_text("1/500 s")
    past.click()
    expect(page.get_by_test_id("costs")).to_contain_text("50 % of the frame, at the bottom")
    page.get_by_label("Landscape or upright").select_option("grip_up")
    expect(page.get_by_test_id("costs")).to_contain_text("50 % of the frame, at the right")
    page.get_by_role("button", name="Shutter and flash in time").click()
    expect(page.get_by_test_id("timing")).to_contain_text(re.compile(r"(49|50|51) % of the frame lit"))
    slider = page.get_by_label("Moment of the exposure")
    slider.fill("30")
    expect(slider).to_have_attribute("aria-valuetext", re.compile(r"^3(\.\d+)? ms"))
    frame = page.get_by_role("img", name=re.compile("The frame at"))
    opacity = [float(r.get_attribute("fill-opacity") or 0) for r in frame.locator("rect.fill-flash").all()]
    assert len(opacity) == 24
    slider.fill("60")
    expect(slider).to_have_value("60")
    final = [float(r.get_attribute("fill-opacity") or 0) for r in frame.locator("rect.fill-flash").all()]
    assert sum(opacity) < sum(final)
    assert 11 <= sum(value > 0.02 for value in final) <= 13  # half of the 24 rows
    assert dark_side(frame, "x") > lit_side(frame, "x")  # grip up: what was the bottom lies at the right
    page.get_by_label("Landscape or upright").select_option("landscape")
    expect(page.get_by_test_id("costs")).to_contain_text("at the bottom")
    expect(frame).to_have_attribute("width", "152")
    assert dark_side(frame, "y") > lit_side(frame, "y")


def side(frame: Any, axis: str, lit: bool) -> float:
    """Where the lit (or the dark) rows lie on the average."""
    rows = frame.locator("rect.fill-flash").all()
    wanted = [row for row in rows if (float(row.get_attribute("fill-opacity") or 0) > 0.02) == lit]
    return sum(float(row.get_attribute(axis) or 0) for row in wanted) / len(wanted)


def dark_side(frame: Any, axis: str) -> float:
    return side(frame, axis, lit=False)


def lit_side(frame: Any, axis: str) -> float:
    return side(frame, axis, lit=True)


def test_on_paper_every_lane_is_drawn_and_nothing_overprints(page: Page) -> None:
    """A4 upright is 703 px wide inside its margins; arcs stay clear of the column beside them."""
    page.set_viewport_size({"width": 703, "height": 1000})
    page.emulate_media(media="print")
    page.evaluate("dispatchEvent(new Event('beforeprint'))")
    expect(page.get_by_label("Setup on the bench")).to_be_hidden()
    lanes = page.get_by_role("list", name="Flash units")
    expect(lanes.get_by_role("listitem")).to_have_count(10)
    assert lanes.locator("svg path").count() > 40
    for line in lanes.get_by_role("listitem").all()[:8]:
        verdict = line.locator(".verdict").bounding_box()
        arcs = [path.bounding_box() for path in line.locator("svg path, svg circle").all()]
        assert verdict
        assert all(arc is None or arc["x"] + arc["width"] <= verdict["x"] + 1 for arc in arcs)
    assert page.evaluate("document.documentElement.scrollWidth") <= 703


def test_a_hater_of_filters_is_remembered(page: Page) -> None:
    expect(method(page, "ND at sync")).to_contain_text("advised")
    page.get_by_role("button", name="do not advise ND at sync").click()
    expect(method(page, "ND at sync")).to_contain_text("not advised")
    expect(method(page, "High-speed sync|Stop down").filter(has_text="advised")).to_have_count(1)
    page.reload()
    expect(method(page, "ND at sync")).to_contain_text("not advised")


def test_a_body_learns_its_dark_edge_and_refuses_nonsense(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("link", name="Bodies").click()
    page.get_by_role("button", name="Edit Pebble (no curtain)").click()
    page.get_by_label(re.compile("a landscape test frame goes dark")).select_option("top")
    page.get_by_label("Sync speed").fill("1/16000")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("the sync speed cannot be faster than the top speed")
    page.get_by_label("Sync speed").fill("1/60")
    page.get_by_role("button", name="Save").click()
    line = page.get_by_role("listitem").filter(has=page.get_by_role("button", name="Edit Pebble (no curtain)"))
    expect(line).to_contain_text("syncs at 1/60")
    expect(line).to_contain_text("dark at the top past sync")
    page.get_by_role("button", name="Undo").click()
    expect(line).to_contain_text("syncs at 1/50")


def test_a_unit_gets_its_tables(page: Page) -> None:
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Edit Knot 280").click()
    for fold in ("High-speed sync and flash duration", "Recycling and power supply"):
        page.get_by_text(fold, exact=True).click()
    page.get_by_label("Flash duration").check()
    page.get_by_label("Lasts").fill("1/nonsense")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("“1/nonsense” cannot be read")
    page.get_by_label("Lasts").fill("1/9000")
    page.get_by_role("button", name="Add a power supply").click()
    page.get_by_role("button", name="Save").click()
    page.get_by_role("link", name="Setup").click()
    bench(page, "Chalk line")
    expect(lane(page, "Knot 280")).not_to_contain_text("not known")


def test_setups_are_begun_copied_dropped_and_brought_back(page: Page) -> None:
    page.get_by_role("button", name="Copy this setup").click()
    name = page.get_by_role("textbox", name="Name of the setup")
    expect(name).to_have_value("Noon portrait (2)")
    page.get_by_role("button", name="another light").click()
    expect(page.get_by_role("button", name="2: fill")).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_role("spinbutton", name="Level")).to_have_text("−2")
    expect(page.get_by_label("Modifier")).to_have_value("")  # bare, not as the key
    saved(page)
    page.get_by_role("button", name="Delete this setup").click()
    expect(name).to_have_value("Noon portrait")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Setup on the bench").get_by_role("option")).to_have_count(11)


def test_the_last_setup_is_deleted_and_brought_back(page: Page) -> None:
    name = page.get_by_role("textbox", name="Name of the setup")
    for left in range(9, -1, -1):
        page.get_by_role("button", name="Delete this setup").click()
        if left:
            expect(page.get_by_label("Setup on the bench").get_by_role("option")).to_have_count(left)
    expect(page.get_by_role("heading", name="Where is your picture?")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(name).to_have_value("At the bench")


def test_lanes_are_sorted_and_speak_feet(page: Page) -> None:
    lanes = page.get_by_role("list", name="Flash units").get_by_role("listitem")
    expect(lanes.first).to_contain_text("Curlew 400")  # compared by
    expect(lanes.nth(1)).to_contain_text("Skua 1200 pack")
    page.get_by_role("button", name="Columns and signs").click()
    page.get_by_label("Weight").check()
    page.get_by_label("Price").check()
    page.get_by_label("Sort by", exact=True).select_option("weight")
    page.get_by_role("button", name="Close", exact=True).click()
    expect(lanes.nth(1)).to_contain_text("Dunlin 36")
    expect(page.get_by_role("button", name="Sort by weight")).to_be_visible()  # what is sorted by is always shown
    page.get_by_role("button", name="Columns and signs").click()
    page.get_by_label("Sort by", exact=True).select_option("ready")
    page.get_by_role("button", name="Close", exact=True).click()
    expect(lanes.nth(1)).to_contain_text("Gannet 600")
    page.get_by_role("button", name="Columns and signs").click()
    page.get_by_label("Sort by", exact=True).select_option("price")
    page.get_by_role("button", name="Close", exact=True).click()
    expect(lanes.nth(1)).to_contain_text("£65")
    page.reload()
    expect(lanes.nth(1)).to_contain_text("£65")
    settle_in(page, "Length in", "ft")
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("5.91 ft")
    expect(lanes.first).to_contain_text(" ft at 35 mm")
    settle_in(page, "Power as", "ws")
    expect(lane(page, "Dunlin 36")).to_contain_text(re.compile(r"\d+ Ws"))


def test_ten_thousand_rows_are_imported_and_compared(page: Page, tmp_path: Path) -> None:
    rows = [f'Stint {i},"GN {20 + i % 60} (ISO 100, m, 35 mm)",{300 + i % 50}' for i in range(10_000)]
    file = tmp_path / "long.csv"
    file.write_text("\n".join(["name,guide_number,weight_g", *rows]), "utf-8")
    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Import").click()
    page.get_by_label("File to import").set_input_files(file)
    expect(page.get_by_test_id("import-count")).to_have_text("10,000 good, 0 bad", timeout=30_000)
    page.get_by_role("button", name="Add 10,000 units").click()
    expect(page.get_by_role("dialog")).to_have_count(0, timeout=30_000)
    page.get_by_role("link", name="Setup").click()
    expect(page.get_by_test_id("headline")).to_contain_text("of 10,012 units", timeout=30_000)
    lanes = page.get_by_role("list", name="Flash units").get_by_role("listitem")
    expect(lanes).to_have_count(7)
    page.get_by_role("button", name=re.compile("more units")).click()
    expect(lanes).not_to_have_count(7)


ASKED = ".ask-column, .stage-column, [data-of=answer]"  # all but the lanes


def test_axe_finds_nothing_in_the_new_views(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 900})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    for name, within in (("44 headshots", "body"), ("Chalk line", ASKED), ("Lanterns at dusk", ASKED)):
        bench(page, name)
        page.get_by_test_id("costs").wait_for()
        assert findings(page, THEMES, within) == [], name
    page.get_by_role("button", name="Shutter and flash in time").click()
    page.get_by_test_id("timing").wait_for()
    assert findings(page, THEMES) == []
    page.goto(demo.url + "#/shelf/bodies")
    page.get_by_role("button", name="Edit Cliff 36").click()
    assert findings(page, THEMES) == []
    page.close()


def test_every_setup_fits_a_phone(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    names = page.get_by_label("Setup on the bench").get_by_role("option").all_text_contents()
    assert len(names) == 10
    for name in names:
        bench(page, name)
        page.get_by_test_id("headline").wait_for()
        page.mouse.wheel(0, 3000)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, name
    assert findings(page) == []
    page.close()


def test_what_a_nudge_comes_to_is_known_before_and_is_saved_when_the_server_has_it(page: Page) -> None:
    """The server's answer to the edit itself is held back: the verdict stands, and nothing is called saved."""
    held: list[Route] = []
    page.route(
        "**/api/setups/*", lambda route: held.append(route) if route.request.method == "PUT" else route.fallback()
    )
    shown, distance = page.get_by_test_id("headline"), page.get_by_role("spinbutton", name="Distance", exact=True)
    before = lane(page, "Gannet 600").text_content()
    foreseen: list[str] = []
    page.on("requestfinished", lambda request: foreseen.append(request.url) if "/foreseen" in request.url else None)
    page.keyboard.press("d")
    wait_until(lambda: page.evaluate("0") or len(foreseen) == 2)
    page.keyboard.press("Shift+ArrowUp")  # three steps, which nobody foresaw
    expect(page.get_by_test_id("saving")).to_have_text("Saving …")
    expect(lane(page, "Gannet 600")).to_have_text(before or "")
    wait_until(lambda: (page.evaluate("0"), held)[1])
    held.pop().continue_()
    saved(page)
    wait_until(lambda: page.evaluate("0") or len(foreseen) == 4)
    page.wait_for_timeout(300)  # what came is looked at by then
    far = shown.text_content(), lane(page, "Gannet 600").text_content()
    distance.press("ArrowDown")
    expect(lane(page, "Gannet 600")).not_to_have_text(far[1] or "")
    near = shown.text_content(), lane(page, "Gannet 600").text_content()
    expect(page.get_by_test_id("saving")).to_have_text("Saving …")
    wait_until(lambda: (page.evaluate("0"), held)[1])
    held.pop().continue_()
    saved(page)
    assert near == (shown.text_content(), lane(page, "Gannet 600").text_content())
    page.reload()
    expect(lane(page, "Gannet 600")).to_have_text(near[1] or "")
    page.unroute_all(behavior="ignoreErrors")
