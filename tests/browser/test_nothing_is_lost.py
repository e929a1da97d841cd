"""Nothing that a person did is lost: whatever is answered, over a reload, with two tabs, and with storage refused."""

import re
from contextlib import suppress
from typing import Any

import pytest
from playwright.sync_api import Browser, Error, Page, Request, Route, expect

from acts import ACTS, PROBLEM, asked, go, home, troubled, wait_until
from pages import state


@pytest.mark.parametrize(
    ("kind", "fault"),
    [
        ("setup", "cut"), ("job", "a page to log in"), ("roster", "500"), ("own", "aborted"), ("unit", "503"),
        ("filter", "the answer lost"), ("preferences", "other JSON"), ("log", "401"), ("log", "429"),
    ],
)  # fmt: skip
def test_what_was_done_waits_over_a_reload_whatever_is_answered(page: Page, kind: str, fault: str) -> None:
    act = ACTS[kind]
    go(page, act.view)
    troubled(page, act.sent_to, fault)
    act.do(page, 7)
    expect(state(page)).to_contain_text(re.compile(r"^Waiting: \d since \d\d:\d\d$"))
    page.reload()
    if fault != "the answer lost":  # then it is seen to be there already, at the latest by now
        expect(state(page)).to_contain_text("Waiting")
        go(page, "Day")  # in every view
        state(page).get_by_role("button", name="Waiting").click()
        page.unroute_all(behavior="ignoreErrors")
        with suppress(Error):  # the page tries by itself too, and may have been quicker
            page.get_by_role("button", name="Try now").click(timeout=5000)
    page.unroute_all(behavior="ignoreErrors")
    expect(state(page)).to_have_text("Saved")
    wait_until(lambda: act.there(page, 7))


def test_what_is_being_typed_is_not_taken_from_under_the_fingers(page: Page) -> None:
    """Another client changes the same figure; it comes while this person types: what is typed stays, and is taken."""
    under_way: list[Request] = []
    page.on("request", lambda request: under_way.append(request) if request.url.endswith("/api/jobs") else None)
    page.on("requestfinished", lambda request: under_way.remove(request) if request in under_way else None)
    go(page, "Job")
    people = page.get_by_label("People", exact=True)
    expect(people).not_to_have_value("")
    go(page, "Kit")
    expect(people).to_have_count(0)
    wait_until(lambda: page.evaluate("0") == len(under_way))  # all is answered before the other client changes it
    (item,) = asked(page, "api/jobs")
    doc = item["doc"] | {"brief": item["doc"]["brief"] | {"people": 55}}
    etag = {"if-match": f'"{item["revision"]}"'}
    assert page.context.request.put(f"{home(page)}api/jobs/{item['id']}", data=doc, headers=etag).ok
    held: list[Route] = []
    page.route("**/api/jobs", lambda route: held.append(route))
    go(page, "Job")
    people.press_sequentially("7")
    typed = people.input_value()
    wait_until(lambda: bool(held))
    with page.expect_response("**/api/jobs"):
        held[0].continue_()
    page.unroute_all(behavior="ignoreErrors")
    expect(page.get_by_test_id("brief-sums")).to_contain_text("55 people")
    expect(people).to_have_value(typed)
    people.fill("77")
    people.press("Enter")
    page.get_by_role("button", name="Keep what is on this screen").click()  # both changed the same
    expect(page.get_by_test_id("brief-sums")).to_contain_text("77 people")
    wait_until(lambda: asked(page, "api/jobs")[0]["doc"]["brief"]["people"] == 77)


def test_nothing_moves_from_under_a_button_that_is_pressed(page: Page) -> None:
    """The coverage comes while "Add" below it is held down: it waits for the release, and who was typed is added."""
    held: list[Route] = []
    page.route("**/board", lambda route: held.append(route))
    go(page, "Job")
    page.get_by_label("Name of a person").fill("Nell Rowan")
    wait_until(lambda: (page.evaluate("0"), held)[1])  # routes are told while the page is asked something
    expect(page.get_by_test_id("brief-sums")).to_be_visible()
    page.evaluate("document.fonts.ready.then(() => 0)")  # all but the coverage stands
    box = page.get_by_role("button", name="Add", exact=True).bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    with page.expect_response("**/board"):
        for route in held:
            route.continue_()
    page.wait_for_timeout(50)  # what would be drawn is drawn
    page.unroute_all(behavior="ignoreErrors")
    page.mouse.up()
    expect(page.get_by_role("checkbox", name="Nell Rowan is done", exact=True)).to_be_visible()
    expect(page.get_by_test_id("picked")).not_to_have_text("Coverage")


def test_what_the_person_is_to_do_is_said(page: Page) -> None:
    go(page, "Log")
    troubled(page, ACTS["log"].sent_to, "401")
    ACTS["log"].do(page, 3)
    expect(page.get_by_role("alert")).to_contain_text("Open its link again")
    expect(page.get_by_test_id("waiting")).to_contain_text("1 entry waits")


def test_a_refused_change_steps_aside_and_holds_up_nothing(page: Page) -> None:
    """In a page that does not know the bounds, as one that was opened before they were what they are now."""
    page.route("**/api/scales", lambda route: route.fulfill(json=route.fetch().json() | {"bounds": {}}))
    page.reload()
    go(page, "Job")
    people, name = page.get_by_label("People", exact=True), page.get_by_label("Name of a person")
    people.fill("0")
    people.press("Enter")
    name.fill("Dora Quill")
    page.get_by_role("button", name="Add", exact=True).click()
    wait_until(lambda: "Dora Quill" in [one["name"] for one in asked(page, "api/jobs")[0]["doc"]["roster"]])
    expect(state(page)).to_have_text("Cannot be saved: 1")
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("People must be at least 1")
    expect(people).to_have_value("0")
    people.fill("12")
    people.press("Enter")
    expect(state(page)).to_have_text("Saved")
    assert asked(page, "api/jobs")[0]["doc"]["brief"]["people"] == 12


def test_edits_within_one_round_trip_leave_another_pages_edit_alone(page: Page) -> None:
    go(page, "Job")
    page.get_by_role("checkbox", name=re.compile("is done")).first.wait_for()
    job = asked(page, "api/jobs")[0]
    theirs = job["doc"] | {"note": "from another page"}
    theirs["roster"] = theirs["roster"][1:]  # whoever came first was taken off
    names = [one["name"] for one in job["doc"]["roster"]]
    etag = {"if-match": f'"{job["revision"]}"'}
    assert page.context.request.put(f"{home(page)}api/jobs/{job['id']}", data=theirs, headers=etag).ok
    for name in names[1:3]:
        page.get_by_role("checkbox", name=f"{name} is done", exact=True).click()
    expect(state(page)).to_have_text("Saved")
    after = asked(page, "api/jobs")[0]["doc"]
    assert after["note"] == "from another page"
    assert [one["name"] for one in after["roster"]] == names[1:]
    assert [one["name"] for one in after["roster"] if one["done"]] == names[1:3]


def test_what_is_refused_of_a_reading_comes_back_into_its_form(page: Page) -> None:
    go(page, "Log")
    ACTS["log"].do(page, 2_000_000)
    light = page.get_by_role("region", name=re.compile("^key")).first
    expect(light.get_by_role("alert")).to_contain_text("Flashes fired must be at most 1,000,000")
    for _ in range(2):
        expect(light.get_by_label("Flashes fired")).to_have_value("2000000")
        expect(light.get_by_label("Note")).to_have_value("rain 2000000")
        page.reload()
    light.get_by_label("Flashes fired").fill("200")
    light.get_by_role("button", name="Log without a reading").click()
    expect(state(page)).to_have_text("Saved")
    notes = [(one["note"], one["facts"]) for one in asked(page, "api/log/text")["entries"]]
    assert [facts for note, facts in notes if note == "rain 2000000"] == [["200 flashes"]]


def test_two_tabs_that_wait_keep_what_both_wrote(browser: Browser, demo: Any) -> None:
    context = browser.new_context()
    page, other = context.new_page(), context.new_page()
    page.goto(demo.url)
    other.goto(demo.url)
    for tab in (page, other):
        go(tab, "Log")
        troubled(tab, "**/api/log/keep/*", "aborted")
    ACTS["log"].do(page, 1)
    ACTS["log"].do(other, 2)
    for tab in (page, other):
        expect(state(tab)).to_contain_text("Waiting: 2 since")
    page.unroute_all(behavior="ignoreErrors")  # one tab has the server again, and sends for both
    expect(state(page)).to_have_text("Saved")
    expect(state(other)).to_have_text("Saved")
    assert sorted(one["note"] for one in asked(page, "api/log/text")["entries"])[-2:] == ["rain 1", "rain 2"]
    context.close()


def test_a_tab_that_was_closed_leaves_its_edits_to_the_next(browser: Browser, demo: Any) -> None:
    context = browser.new_context()
    page = context.new_page()
    page.goto(demo.url)
    troubled(page, "**/api/setups/*", "aborted")
    ACTS["setup"].do(page, 4)
    expect(state(page)).to_contain_text("Waiting: 1 since")
    next_tab = context.new_page()
    page.close()
    next_tab.goto(demo.url)
    wait_until(lambda: ACTS["setup"].there(next_tab, 4))
    expect(state(next_tab)).to_have_text("Saved")
    context.close()


def test_a_choice_of_another_page_stands_beside_ones_own(page: Page) -> None:
    assert page.context.request.put(f"{home(page)}api/preferences", data={"step": "full"}).ok
    ACTS["preferences"].do(page, 8)
    wait_until(lambda: ACTS["preferences"].there(page, 8))
    assert asked(page, "api/preferences")["step"] == "full"


def test_leaving_is_warned_of_while_something_is_not_saved(page: Page) -> None:
    troubled(page, "**/api/setups/*", "aborted")
    ACTS["setup"].do(page, 1)
    leaving = "() => !dispatchEvent(new Event('beforeunload', { cancelable: true }))"
    assert page.evaluate(leaving)
    page.unroute_all(behavior="ignoreErrors")
    expect(state(page)).to_have_text("Saved")
    assert not page.evaluate(leaving)


@pytest.mark.parametrize("refusing", ["throw new DOMException('full', 'QuotaExceededError')", "null.x"])
def test_a_browser_that_keeps_nothing_says_so_at_once(browser: Browser, demo: Any, refusing: str) -> None:
    page = browser.new_page()
    page.add_init_script(f"Storage.prototype.setItem = () => {{ {refusing} }}")
    page.goto(demo.url)
    expect(page.get_by_role("alert")).to_contain_text("Leave this page open until it says")
    troubled(page, "**/api/log/keep/*", "500", times=1)
    go(page, "Log")
    ACTS["log"].do(page, 9)
    wait_until(lambda: ACTS["log"].there(page, 9))
    page.close()


def test_what_waits_is_listed_with_its_reason_and_can_be_let_go(page: Page) -> None:
    def refuse(route: Route) -> None:
        route.fallback() if route.request.method == "GET" else route.fulfill(status=422, json=PROBLEM)

    page.route("**/api/setups/*", refuse)
    ACTS["setup"].do(page, 2)
    state(page).get_by_role("button", name="Cannot be saved: 1").click()
    line = page.get_by_test_id("unsaved")
    expect(line).to_contain_text("Noon portrait: Frames")
    expect(line).to_contain_text("It was not taken.")
    page.unroute_all(behavior="ignoreErrors")
    line.get_by_role("button", name="Send again").click()
    expect(state(page)).to_have_text("Saved")
    assert ACTS["setup"].there(page, 2)
