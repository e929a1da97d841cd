"""What people type, as they type it: read as it is meant, asked about, or refused; and what is shown is read back."""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from acts import ACTS, asked, go, home, wait_until
from chromium import Demo
from pages import bench, setting, state, take, typed, verdict

UNSAID = re.compile(r"^(as usual here|as the sky has it|not said|by that|sharpness allows|no ND)$")


def figure(page: Page, name: str) -> Any:
    return page.get_by_role("spinbutton", name=name, exact=True)


def test_a_noon_portrait_as_a_photographer_types_it(page: Page) -> None:
    take(page, "Curlew 400")
    typed(page, "Background", "1/3 under")
    expect(figure(page, "Background")).to_have_text("⅓ under")
    typed(page, "Background", "2.5 under")  # edited from what stood there: it stays under
    expect(figure(page, "Background")).to_have_text("2½ under")
    typed(page, "Bearing", "45 left")
    expect(figure(page, "Bearing")).to_have_text("45° to the left")
    typed(page, "Distance", "6'6")
    expect(figure(page, "Distance")).to_have_text("1.98 m")
    typed(page, "Background", "1 under")
    typed(page, "Dial", "1/8")
    expect(setting(page, "Dial")).to_have_text("7.0 of 10")  # in the unit's own numbers
    typed(page, "Shutter", "125")
    expect(setting(page, "Shutter")).to_have_text("1/125 s")
    typed(page, "ISO", "6k4")
    expect(setting(page, "ISO")).to_have_text("ISO 6400")
    expect(state(page)).to_have_text("Saved")
    doc = next(one["doc"] for one in asked(page, "api/setups") if one["doc"]["name"] == "Noon portrait")
    light = doc["lights"][0]
    assert (doc["aim"]["background_stops"], light["position"]["bearing_deg"], light["dial_stops"]) == (-1, -45, 3)
    assert (doc["fixed"]["shutter_s"], doc["aim"]["iso"], doc["fixed"]["iso"]) == (1 / 125, 6400, True)
    assert light["distance_m"] == pytest.approx(1.981)


def test_what_can_be_two_things_is_asked_in_place(page: Page) -> None:
    typed(page, "Background", "2")  # over a figure that is under
    alert = page.get_by_role("alert")
    expect(alert).to_contain_text("“2” can be:")
    expect(alert.get_by_role("button")).to_have_text(["2 under", "2 over"])
    page.keyboard.press("Tab")
    expect(alert.get_by_role("button", name="2 under")).to_be_focused()
    page.keyboard.press("Enter")
    expect(figure(page, "Background")).to_have_text("2 under")
    typed(page, "Shutter", "15")
    expect(page.get_by_role("alert").get_by_role("button")).to_have_text(["1/15 s", "15 s"])
    page.keyboard.press("Escape")
    expect(setting(page, "Shutter")).not_to_have_attribute("aria-valuetext", re.compile("15 s"))
    typed(page, "Background", "-1 over")
    expect(page.get_by_role("alert")).to_contain_text("says two things at once")
    page.keyboard.press("Escape")
    expect(figure(page, "Background")).to_have_text("2 under")


def test_what_every_figure_shows_is_read_back_as_its_value(page: Page) -> None:
    """Of each demo setup: the text of every figure on the screen, read as its own kind, is the figure again."""
    names = [one["doc"]["name"] for one in asked(page, "api/setups")]
    looked = 0
    for name in names:
        bench(page, name)
        expect(figure(page, "Background")).to_be_visible()
        for fold in page.locator("details:not([open]) > summary").all():
            if fold.is_visible():
                fold.click()
        shown = page.evaluate(
            """() => [...document.querySelectorAll('[role=spinbutton][data-kind]')].map((one) =>
            [one.getAttribute('aria-label'), one.dataset.kind, one.innerText.trim(), Number(one.ariaValueNow)])"""
        )
        for label, kind, text, value in shown:
            if not text or kind == "dial" or UNSAID.match(text):  # folded away, or of a unit that is not told here
                continue
            body = {"text": text, "kind": kind, "now": value, "high": 100_000 if kind == "distance" else None}
            read = page.context.request.post(f"{home(page)}api/read", data=body).json()
            back = read["value"] * (100 if kind == "share" else 1) if read["outcome"] == "read" else None
            assert back == pytest.approx(value, rel=0.006, abs=0.006), (name, label, kind, text, read)
            looked += 1
    assert looked > 100


def test_a_job_takes_ranges_clocks_and_lengths_of_time(page: Page) -> None:
    go(page, "Job")
    frames = page.get_by_label("Frames each", exact=True)
    frames.fill("150 to 300")
    frames.press("Enter")
    expect(frames).to_have_value("150–300")
    begins = page.get_by_label("Begins, session 1")
    begins.fill("half nine")
    begins.press("Enter")
    expect(page.get_by_role("alert").get_by_role("button")).to_have_text(["09:30", "08:30"])
    page.get_by_role("alert").get_by_role("button", name="09:30").click()
    expect(begins).to_have_value("09:30")
    expect(state(page)).to_have_text("Saved")
    brief = asked(page, "api/jobs")[0]["doc"]["brief"]
    assert (brief["frames_each"], brief["frames_each_most"]) == (150, 300)


def test_a_figure_out_of_bounds_is_refused_where_it_is_typed(page: Page) -> None:
    """The job stays as it was, so that what is changed next is kept."""
    go(page, "Job")
    for label, text, bound in (("Frames each, session 1", "0", "1"), ("People, session 1", "0", "1"),
                               ("Frames each, session 1", "20000", "10,000")):  # fmt: skip
        field = page.get_by_label(label)
        field.fill(text)
        field.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text(bound)
        field.press("Escape")
    begins = page.get_by_label("Begins, session 1")
    begins.fill("9:30")
    begins.press("Enter")
    expect(state(page)).to_have_text("Saved")
    wait_until(lambda: asked(page, "api/jobs")[0]["doc"]["sessions"][0]["start"] == "09:30")


def test_what_is_typed_while_the_server_is_away_is_read_when_it_comes(page: Page) -> None:
    """It stands as it was typed, over a reload too; what is then refused comes back into its field."""
    page.route("**/api/read", lambda route: route.abort())
    typed(page, "Background", "1/3 under")
    typed(page, "Distance", "quite far")
    expect(figure(page, "Background")).to_contain_text("1/3 under not read yet")
    expect(state(page)).to_contain_text("Waiting: 2")
    page.reload()
    expect(figure(page, "Background")).to_contain_text("not read yet")
    page.unroute_all(behavior="ignoreErrors")
    expect(figure(page, "Background")).to_have_text("⅓ under")
    expect(page.get_by_role("alert")).to_contain_text("“quite far” cannot be read")
    expect(page.get_by_role("textbox", name="Distance", exact=True)).to_have_value("quite far")
    page.keyboard.press("Escape")
    expect(state(page)).to_have_text("Saved")
    wait_until(
        lambda: asked(page, "api/setups")[0]["doc"]["aim"]["background_stops"] == pytest.approx(-1 / 3, abs=0.01)
    )


def test_a_verdict_counts_all_that_the_picture_asks(page: Page) -> None:
    """Dark from the edge over the face at 1/500 on a body that syncs at 1/250: never right, and never advised."""
    take(page, "Curlew 400")
    expect(verdict(page)).to_contain_text(": right, ")
    typed(page, "Shutter", "1/500")
    page.get_by_text(re.compile("others: ")).click()
    page.get_by_role("button", name=re.compile("^Past sync, part dark")).click()
    expect(verdict(page)).to_contain_text(re.compile(r"but (the|.*) .*dark"))
    expect(verdict(page)).not_to_contain_text("right")


def test_digits_alone_wait_for_nobody(page: Page) -> None:
    """An entry is kept the moment that it is logged, though nothing answers and the page is gone at once."""
    go(page, "Log")
    page.route("**/api/read", lambda route: route.abort())
    page.route("**/api/log/keep/*", lambda route: route.abort())
    ACTS["log"].do(page, 321)
    page.reload()
    page.unroute_all(behavior="ignoreErrors")
    wait_until(lambda: (page.evaluate("0"), any("321 flashes" in one["facts"] for one in _entries(page)))[1])


def _entries(page: Page) -> Any:
    return asked(page, "api/log/text")["entries"]


POINTED = re.compile(r".{0,20}\d\.\d.{0,12}")
OURS = re.compile(
    r"White ceiling, 2\.6 m|0\.0\.0\.0"
)  # what a person called something, and an address, stay as they are
SHELVES = ("units", "modifiers", "bodies", "lenses", "filters", "triggers", "batteries")
TOLD = "[aria-valuetext], [aria-label], [title]"


def pointed(page: Page) -> list[str]:
    """What is shown or told of figures with a point in them."""
    told = page.locator(TOLD).evaluate_all(
        "all => all.flatMap(one => ['aria-valuetext', 'aria-label', 'title'].map(name => one.getAttribute(name) ?? ''))"
    )
    return POINTED.findall(OURS.sub("", "\n".join([page.locator("body").inner_text(), *told])))


def test_a_decimal_comma_is_shown_everywhere_and_read(page: Page, demo: Demo) -> None:
    """Every view with all that folds opened, over a reload: no figure has a point; and what is typed is read so."""
    page.get_by_role("button", name="Settings").click()
    page.get_by_role("dialog", name="Settings").get_by_label("Decimal sign").select_option("comma")
    page.get_by_role("dialog", name="Settings").get_by_role("button", name="Close").click()
    expect(figure(page, "Distance")).to_have_text(re.compile(r"^\d,\d+ m$"))
    page.reload()
    job, own = asked(page, "api/jobs")[0]["id"], [one["id"] for one in asked(page, "api/setups")]
    views = [f"#/{view}" for view in ("job", "day", "kit", "log", f"log/{job}/set/{own[0]}")]
    for view in [*views, *(f"#/shelf/{one}" for one in SHELVES), *(f"#/setup/{one}" for one in own)]:
        page.goto(f"{demo.url}{view}")
        page.get_by_role("main").wait_for()
        page.wait_for_load_state("networkidle")
        page.locator("main details").evaluate_all("all => all.forEach(one => { one.open = true })")
        page.wait_for_load_state("networkidle")
        assert not pointed(page), view
    typed(page, "Distance", "1,299")
    expect(figure(page, "Distance")).to_have_text("1,3 m")  # not asked: thousands would have a point
    typed(page, "Background", "2,5 under")
    expect(figure(page, "Background")).to_have_text("2½ under")
    page.goto(f"{demo.url}api/jobs/{job}/cards.html")
    expect(page.get_by_text("Ambient now").first).to_be_visible()
    assert not pointed(page)
