"""Practice in the browser: three drills, by mouse, keys and touch; the leap by its own clock; axe finds nothing."""

import json
import re
from typing import Any

import numpy as np
import pytest
from playwright.sync_api import Browser, Page, Route, expect

from pages import THEMES, findings

PATCH = re.compile(r": (?:right|([\d.]+) stops? too (bright|dark)(?: or more)?)")
LATE = re.compile(r"([\d.]+) ms (late|early)")
MOST_FRAMES = 4


def reading(page: Page, card: str) -> float:
    """How far a grey card of the frame is off [stops], as it is said on the page."""
    page.get_by_role("button", name=f"Read: {card}").click()
    expect(page.get_by_test_id("patch")).to_have_text(re.compile(f"^{card}"))
    found = PATCH.search(page.get_by_test_id("patch").text_content() or "")
    assert found is not None
    return float(found[1] or 0) * (1 if found[2] == "bright" else -1)


def frame(page: Page, number: int) -> None:
    page.get_by_role("button", name="Take a frame").click()
    expect(page.get_by_test_id("taken")).to_have_text(re.compile(f"^Frame {number}:"))


def done(page: Page) -> Any:
    page.get_by_role("button", name="Done", exact=True).click()
    return page.get_by_test_id("review")


def test_a_second_light_by_mouse(page: Page) -> None:
    """Opened from the menu; the rim turned by what its card says; the key left alone."""
    page.get_by_role("button", name="Settings").click()
    page.get_by_role("link", name="Practice with made-up kit").click()
    page.get_by_role("link", name="A second light, the first left alone: begin", exact=True).click()
    expect(page.get_by_test_id("task")).to_contain_text("Add the rim, 0.5 stop over")
    for number in range(1, MOST_FRAMES + 1):
        frame(page, number)
        steps = round((reading(page, "Grey card, edge") - 0.5) * 3)
        if abs(steps) <= 1:
            break
        name = f"Power, Rim, Sanderling 80: a step {'down' if steps > 0 else 'up'}"
        for _ in range(abs(steps)):
            page.get_by_role("button", name=name).click()
    review = done(page)
    expect(review).to_contain_text("It comes out, in")
    expect(review).to_contain_text("1 frame is the fewest")
    expect(review).not_to_contain_text("things were changed at once")
    page.reload()  # what was done is there again
    expect(page.get_by_test_id("review")).to_contain_text("It comes out, in")
    page.get_by_role("button", name="The same again").click()
    expect(page.get_by_test_id("review")).to_have_count(0)
    expect(page.get_by_role("button", name="Done", exact=True)).to_be_visible()


def test_steps_made_faster_than_the_server_answers_are_all_made(page: Page) -> None:
    page.goto(page.url.split("#")[0] + "#/practice/automatic/2")
    value = page.get_by_label("Compensation, Key, Sanderling 80", exact=True)
    expect(value.locator("option:checked")).to_have_text("0.0")
    held: list[Route] = []
    page.route("**/practice/play", lambda route: held.append(route))
    for _ in range(3):
        page.get_by_role("button", name="Compensation, Key, Sanderling 80: a step up").click()
    expect(value.locator("option:checked")).to_have_text("+1.0")
    with page.expect_response("**/practice/play"):
        held[0].continue_()
    page.unroute_all(behavior="ignoreErrors")
    page.get_by_role("button", name="Take a frame").click()
    expect(page.get_by_test_id("taken")).to_have_text(re.compile("^Frame 1:"))
    expect(value.locator("option:checked")).to_have_text("+1.0")


def test_automatic_power_by_keys(page: Page) -> None:
    page.goto(page.url.split("#")[0] + "#/practice/automatic/2")
    page.get_by_role("button", name="Take a frame").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("taken")).to_have_text(re.compile("^Frame 1:"))
    off = reading(page, "Grey card, lit side")
    page.get_by_label("Compensation, Key, Sanderling 80", exact=True).focus()
    for _ in range(abs(round(off * 3))):
        before = page.get_by_label("Compensation, Key, Sanderling 80", exact=True).input_value()
        page.keyboard.press("ArrowUp" if off > 0 else "ArrowDown")
        expect(page.get_by_label("Compensation, Key, Sanderling 80", exact=True)).not_to_have_value(before)
    page.get_by_role("button", name="Take a frame").focus()
    page.keyboard.press("Space")
    expect(page.get_by_test_id("taken")).to_have_text(re.compile("^Frame 2:"))
    page.get_by_role("button", name="Done", exact=True).focus()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("review")).to_contain_text("It comes out, in 2 frames")
    expect(page.get_by_role("img", name="Histogram, dark to bright")).to_be_visible()


def test_who_does_not_fire_by_touch_on_a_phone(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
    page.goto(demo.url + "#/practice/channels/3/hard")
    for left in (2, 1, 0):
        page.get_by_role("button", name=re.compile("^Look at its switches")).first.tap()
        expect(page.get_by_role("button", name=re.compile("^Look at its switches"))).to_have_count(left)
    right = {"Channel": "4", "It": "obeys", "Its sensor": "sees the camera"}
    for what, value in right.items():
        for one in page.get_by_label(re.compile(f"^{what}, (Key|Fill|Rim), [^:]+$")).all():
            if one.evaluate("one => one.selectedOptions[0].textContent") != value:
                one.select_option(label=value)
                expect(one.locator("option:checked")).to_have_text(value)
    page.get_by_role("button", name="Take a frame").tap()
    expect(page.get_by_test_id("taken")).to_have_text(re.compile("^Frame 1:"))
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    sizes = page.get_by_role("button").evaluate_all("all => all.map((one) => one.getBoundingClientRect().height)")
    assert min(one for one in sizes if one) >= 44
    page.get_by_role("button", name="Done", exact=True).tap()
    expect(page.get_by_test_id("review")).to_contain_text("It comes out, in 1 frame")
    assert findings(page, THEMES, "main") == []
    page.close()


def test_axe_finds_nothing_in_practice(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 900})
    for where, ready in (
        ("#/practice", "Practice"),
        ("#/practice/ambient/2", "Ambient first, then flash"),
        ("#/practice/leap/2", "The peak of a leap"),
    ):
        page.goto(demo.url + where)
        page.get_by_role("heading", name=ready).first.wait_for()
        assert findings(page, THEMES) == [], where
    page.goto(demo.url + "#/practice/ambient/2")
    frame(page, 1)
    frame(page, 2)
    page.get_by_role("button", name="Meter both").click()
    expect(page.get_by_role("list", name="Read so far")).to_contain_text("Meter, flash and ambient: f/")
    done(page).wait_for()
    assert findings(page, THEMES) == []
    page.close()


WATCH = """() => {
  window.seen = []; window.presses = []
  const svg = document.querySelector('svg[aria-label="The leap"]')
  const look = () => window.seen.push([performance.now(), Number(svg.querySelector('circle').getAttribute('cy'))])
  new MutationObserver(look).observe(svg, {subtree: true, attributes: true})
  addEventListener('keydown', (event) => window.presses.push(event.timeStamp), true)
  // work beside it, as a busy machine has
  setInterval(() => { const end = performance.now() + 12; while (performance.now() < end); }, 40)
}"""


def test_a_press_is_timed_by_the_pages_own_clock_within_a_frame(page: Page) -> None:
    """How late it is told to be is how long after the figure was drawn highest the press was taken, and the camera's
    lag, which a press at the very peak tells."""
    base = page.url.split("#")[0]
    leap = json.loads(page.request.get(f"{base}api/practice/leap?seed=4").text())
    at_peak = {"seed": 4, "pressed_s": leap["peak_s"][:1]}
    lag = json.loads(page.request.post(f"{base}api/practice/leap", data=at_peak).text())["tries"][0]["off_ms"]
    page.goto(f"{base}#/practice/leap/4")
    page.get_by_role("button", name="Begin").focus()
    page.evaluate(WATCH)
    page.keyboard.press("Space")
    for number, peak in enumerate(leap["peak_s"][:3]):
        page.wait_for_function(
            f"() => window.presses.length && performance.now() - window.presses[0] > {1000 * peak - 40}", timeout=60_000
        )
        page.keyboard.press("Space")
        expect(page.get_by_test_id("tries").get_by_role("listitem")).to_have_count(number + 1)
    page.wait_for_timeout(700)  # the last leap is seen to its end
    seen, presses = (np.array(page.evaluate(f"window.{one}")) for one in ("seen", "presses"))
    ground, tries = seen[:, 1].max(), page.get_by_test_id("tries").get_by_role("listitem")
    told, off = [], []
    for at, press in enumerate(presses[1:4]):
        found = LATE.search(tries.nth(at).text_content() or "")
        told.append(0.0 if found is None else float(found[1]) * (1 if found[2] == "late" else -1))
        air = seen[seen[:, 1] < ground - 12]
        leaps = np.split(air, np.flatnonzero(np.diff(air[:, 0]) > 400) + 1)
        up = min(leaps, key=lambda one: abs(one[:, 0].mean() - press - lag))  # the leap that it was told against
        if len(up) > 4:
            curve = np.polynomial.Polynomial.fit(up[:, 0] - press, up[:, 1], 2).convert()
            off.append(told[-1] - lag - curve.coef[1] / (2 * curve.coef[2]))
    # What a machine that is taken away for a while does to one leap it does not do to the middle one of three.
    assert off
    assert np.median(off) == pytest.approx(0, abs=16.7), (told, off)
    if all(told):  # near the peak no figure is told; between presses the clock is exact
        which = [int(text.split(":")[0].strip().removeprefix("Leap ")) - 1 for text in tries.all_text_contents()[:3]]
        apart = np.diff(presses[1:4]) - 1000 * np.diff([leap["peak_s"][one] for one in which])
        assert np.diff(told) == pytest.approx(apart, abs=1.1)


def test_the_leap_stands_still_where_motion_is_not_wanted(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844}, reduced_motion="reduce", has_touch=True)
    page.goto(demo.url + "#/practice/leap/6")
    expect(page.get_by_role("img", name="The leap")).to_have_count(0)
    expect(page.get_by_test_id("still")).to_have_text("Ready")
    page.get_by_role("button", name="Begin").tap()
    expect(page.get_by_test_id("still")).to_have_text(re.compile("Leap 1: peak in "))
    expect(page.get_by_test_id("still")).to_have_text(re.compile("Leap [1-7]: (up|down)"))
    page.get_by_role("button", name="Take it").tap()
    expect(page.get_by_test_id("newest")).to_have_text(
        re.compile(r"^Leap [1-8]: .*(late|early|at the peak), [\d.]+ m up\.")
    )
    expect(page.get_by_test_id("caught")).to_contain_text("of 1 press.")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.close()


def test_the_log_shows_by_itself_what_a_device_writes(page: Page) -> None:
    base = page.url.split("#")[0]
    job = json.loads(page.request.get(f"{base}api/jobs").text())[0]["id"]
    page.goto(f"{base}#/log/{job}")
    page.get_by_role("heading", name="Entries").wait_for()
    page.wait_for_timeout(2500)  # it has looked once
    entry = {"name": "From a script", "at": "2026-06-24T12:00:00", "job": job, "flashes": 12}
    assert page.request.post(f"{base}api/log/keep/script-1", data=entry).ok
    expect(page.get_by_test_id("entry").first).to_contain_text("From a script")
