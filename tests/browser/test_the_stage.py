"""The stage in the browser: lights dragged and moved by keys, switched one by one, a change applied and taken back; the
frame's tones as the levels have them; by touch on a phone."""

import json
import re
import time
import urllib.request
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from jumpstop.core.physics.tone import srgb
from pages import bench, findings, saved, tool, verdict


def spot(page: Page, number: int) -> Any:
    return page.get_by_role("button", name=re.compile(f"^Light {number}, .*Arrow keys"))


def answer(page: Page) -> Any:
    base, name = page.url.split("#")[0], page.url.split("/")[-1]
    with urllib.request.urlopen(f"{base}api/setups/{name}/answer") as reply:
        return json.load(reply)


def test_a_light_is_dragged_and_the_rest_follows(page: Page) -> None:
    bench(page, "At the bench")
    before, was = answer(page), verdict(page).text_content()
    box = spot(page, 1).bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.move(*middle)
    page.mouse.down()
    page.mouse.move(middle[0] + 30, middle[1] + 25, steps=6)
    held = spot(page, 1).bounding_box()
    assert held["x"] - box["x"] == pytest.approx(30, abs=4)  # what is under the pointer stays there
    page.mouse.up()
    saved(page)
    moved = answer(page)["setup"]["lights"][0]
    assert moved["distance_m"] > before["setup"]["lights"][0]["distance_m"] + 0.2
    assert moved["position"]["height_m"] == 2.1
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text(f"{moved['distance_m']:.3g} m")
    expect(page.get_by_role("list", name="Flash units").get_by_role("listitem").first).to_contain_text("in hand")
    assert answer(page)["answer"]["stage"]["lights"][0]["where"].startswith(f"{moved['distance_m']:.3g} m, ")
    page.get_by_role("button", name="Undo").click()  # the whole drag is one step
    expect(verdict(page)).to_have_text(was or "")
    assert answer(page)["setup"] == before["setup"]


def test_a_drag_is_undone_as_one_however_slow_the_way_to_the_server(page: Page) -> None:
    bench(page, "At the bench")
    before = answer(page)["setup"]

    def slow(route: Route) -> None:
        time.sleep(1.4)
        route.continue_()

    page.route("**/api/setups/*?*", slow)
    box = spot(page, 1).bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.move(*middle)
    page.mouse.down()
    for step in (10, 20, 30):
        with page.expect_response(lambda reply: reply.request.method == "PUT"):
            page.mouse.move(middle[0] + step, middle[1] + step)
    page.mouse.up()
    saved(page)
    page.unroute("**/api/setups/*?*", slow)
    assert answer(page)["setup"] != before
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Undone: Place")).to_be_visible()
    assert answer(page)["setup"] == before


def test_a_light_is_moved_by_keys(page: Page) -> None:
    """A light without a place takes one where it stands; bearing, distance and height by keys."""
    bench(page, "Lanterns at dusk")
    spot(page, 1).focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("spinbutton", name="Bearing")).to_have_text("5° to the right")
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("spinbutton", name="Bearing")).to_have_text("20° to the right")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("spinbutton", name="Distance", exact=True)).to_have_text("2.23 m")
    page.keyboard.press("PageUp")
    saved(page)
    light = answer(page)["setup"]["lights"][0]
    assert light["position"]["bearing_deg"] == 20
    assert light["position"]["height_m"] == pytest.approx(1.75 * 0.93 + 0.1, abs=0.01)
    page.get_by_role("button", name="from the side").click()
    expect(page.get_by_role("img", name=re.compile("from the side"))).to_be_visible()


def test_lights_are_switched_one_by_one_along_the_steps(page: Page) -> None:
    bench(page, "At the bench")
    tool(page, "Order of work")
    steps = page.get_by_role("list", name="Steps").get_by_role("button")
    expect(steps).to_have_count(4)
    expect(steps.nth(0)).to_contain_text("Flash off: set f/5.6")
    on = [page.get_by_role("checkbox", name=f"Light {number}, {role}, on") for number, role in
          ((1, "key"), (2, "rim"), (3, "fill"))]  # fmt: skip
    steps.nth(0).click()
    for box in on:
        expect(box).not_to_be_checked()
    frame = page.get_by_test_id("frame")
    dark = frame.locator("[data-tone=lit]").first.get_attribute("stop-color")
    steps.nth(1).click()
    expect(on[1]).to_be_checked()
    expect(on[0]).not_to_be_checked()
    expect(steps.nth(1)).to_have_attribute("aria-current", "step")
    expect(steps.nth(1)).to_contain_text("edge: f/5.6")
    steps.nth(3).click()
    for box in on:
        expect(box).to_be_checked()
    expect(frame.locator("[data-tone=lit]").first).not_to_have_attribute("stop-color", dark or "")
    page.get_by_test_id("tool").get_by_label("Order of work", exact=True).select_option("key")
    expect(steps.nth(1)).to_contain_text("light 1, key")
    on[2].click()
    expect(page.get_by_role("listitem").filter(has_text="3 fill")).to_contain_text("off")


def test_the_frame_is_what_the_levels_say(page: Page) -> None:
    """Background, both sides: reflectance (0.18, 0.36) times 2^level as sRGB, the colour of light balanced away."""
    bench(page, "Chalk line")
    found = answer(page)["answer"]
    level = {one["receiver"]: one["total"] for one in found["levels"]}
    frame = page.get_by_test_id("frame")
    for name, reflectance, what in (("background", 0.18, "fill"), ("lit", 0.36, "stop-color")):
        shown = frame.locator(f"[data-tone={name}]").first.get_attribute(what) or ""
        green = int(shown[3:5], 16)
        assert green == pytest.approx(255 * float(srgb(reflectance * 2 ** level[name])), abs=2.5), name
    expect(frame).to_have_attribute("aria-label", re.compile("lit side"))
    page.get_by_role("button", name="without flash").click()
    ambient = next(one for one in found["stage"]["frame"]["tones"] if one["receiver"] == "lit")["ambient"]
    assert frame.locator("stop").first.get_attribute("stop-color") in (ambient, ambient.lower())


def test_a_change_is_applied_by_key_and_a_pair_by_touch_and_both_taken_back(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^Redshank 60")).click()
    expect(verdict(page)).to_contain_text("short by 0.6 stop")
    found = tool(page, "Find a stop")
    first = found.get_by_role("group", name="What brings light").get_by_role("button").first
    expect(first).to_contain_text("inner diffuser off")
    first.focus()
    page.keyboard.press("1")
    expect(verdict(page)).to_contain_text("on the line, +0.3")
    page.get_by_role("button", name="Undo").click()
    expect(verdict(page)).to_contain_text("short by 0.6 stop")
    distance = page.get_by_role("spinbutton", name="Distance", exact=True)
    distance.press("Enter")
    page.get_by_role("textbox", name="Distance", exact=True).fill("12 m")
    page.keyboard.press("Enter")
    expect(found).to_contain_text(re.compile(r"short by [56]\.\d stops"))  # the list is that of the new distance
    found.get_by_text("Two changes together").click()
    pairs = found.get_by_role("group", name="Two together").get_by_role("button")
    expect(pairs.first).to_contain_text(" and ")
    then = re.search(r"then (on the line, |short by )?[+−]?[\d.]+", pairs.first.inner_text().replace("\n", " "))
    was = verdict(page).text_content() or ""
    pairs.first.click()
    expect(verdict(page)).not_to_have_text(was)
    assert then
    expect(verdict(page)).to_contain_text(then.group().removeprefix("then "))
    page.get_by_role("button", name="Undo").click()
    expect(verdict(page)).to_have_text(was)


def test_the_stage_on_a_phone(browser: Browser, demo: Any) -> None:
    """Every light in a line, a light moved by a finger, nothing sideways, axe clean."""
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
    page = context.new_page()
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    bench(page, "At the bench")
    page.get_by_role("button", name="Stage", exact=True).tap()
    expect(page.get_by_test_id("frame")).to_be_visible()
    assert spot(page, 2).bounding_box()["width"] >= 44
    spot(page, 2).tap()
    expect(page.get_by_role("button", name=re.compile("^2 rim"))).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_role("listitem").filter(has_text="1 key")).to_contain_text("1.5 m, 45° to the right")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert findings(page) == []
    context.close()


def test_another_lens_keeps_the_size(page: Page) -> None:
    """D: 35 mm for 50 mm asks 1.82 m for 2.6; the background looks (35 / 4.22) / (50 / 5) = 0.83 times as large."""
    bench(page, "At the bench")
    page.get_by_text("another lens, the subject as large").click()
    page.get_by_role("button", name="35 mm from 1.82 m: background 0.83 times as large").click()
    saved(page)
    lens = answer(page)["setup"]["aim"]["lens"]
    assert (lens["focal_mm"], lens["subject_m"], lens["background_m"]) == (35, 1.82, 4.22)
