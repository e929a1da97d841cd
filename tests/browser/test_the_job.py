"""The job and its day in the browser: from nothing to a kit that lasts, by pointer and by keys; the demo's day plain to
see; on a phone; and nothing said to be stored before it is."""

import json
import re
import urllib.request
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from acts import go
from pages import THEMES, findings

CSV = "name,guide_number,weight_g,price,power_source,recycle_full_s,full_flashes,power_lowest\n" + "".join(
    f'{name},"GN {gn} (ISO 100, m, 35 mm)",{grams},{price},lithium,2,{flashes},0.0009765625\n'
    for name, gn, grams, price, flashes in (("Stint 30", 30, 300, 90, 300), ("Ruff 70", 70, 1500, 400, 300))
)


def stored_job(page: Page) -> Any:
    base = page.url.split("#")[0]
    with urllib.request.urlopen(f"{base}api/jobs") as reply:
        return json.load(reply)


@pytest.mark.parametrize(
    ("name", "address", "shown"),
    [("Job", "**/api/jobs", "Roster"), ("Day", "**/api/jobs", "Sessions"), ("Kit", "**/api/jobs", "Cards"),
     ("Log", "**/api/jobs", "On the set"), ("Log", "**/api/log/text*", "Entries")],
)  # fmt: skip
def test_a_view_that_cannot_open_says_why_and_asks_again(page: Page, name: str, address: str, shown: str) -> None:
    problem = {"problems": [{"where": "", "field": "Data", "sentence": "The disk cannot be read."}]}
    page.route(address, lambda route: route.fulfill(status=500, json=problem))
    page.goto(page.url.split("#")[0] + f"?{name}#/{name.lower()}")
    told = page.get_by_role("main").get_by_role("alert")
    expect(told).to_contain_text("The disk cannot be read.")
    expect(page.get_by_text("Opening")).to_have_count(0)
    expect(page.get_by_text("No job yet")).to_have_count(0)
    page.unroute(address)
    told.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("heading", name=shown, exact=True)).to_be_visible()


def test_a_newcomer_plans_a_job(page: Page, tmp_path: Path) -> None:
    """A job from nothing, two setups, a shelf imported, which units cover both, how many batteries, and export."""
    go(page, "Job")
    page.get_by_role("button", name="New job").click()
    name = page.get_by_role("textbox", name="Name of the job")
    expect(name).to_have_value("New job")
    name.fill("Ferry portraits")
    name.press("Enter")
    expect(page.get_by_text("No setup belongs to this job yet: add one first.")).to_be_visible()
    page.get_by_role("textbox", name=re.compile(r"^People\s*, open")).fill("20")
    page.get_by_role("textbox", name=re.compile(r"^Frames each\s*, open")).fill("30")
    page.keyboard.press("Tab")
    expect(page.get_by_test_id("brief-sums")).to_contain_text("20 people, 30 each: 600 frames")
    for where in ("Outdoors, in the shade", "Indoors, lamps and windows"):
        page.get_by_role("button", name="New setup", exact=True).click()
        page.get_by_role("button", name=where).click()
        page.get_by_test_id("headline").wait_for()
        go(page, "Job")
    expect(page.get_by_role("region", name="Coverage").get_by_role("columnheader")).to_have_count(4)
    go(page, "Shelf")
    (tmp_path / "shelf.csv").write_text(CSV)
    page.get_by_role("button", name="Import").click()
    page.get_by_label(re.compile("file", re.I)).first.set_input_files(tmp_path / "shelf.csv")
    page.get_by_role("button", name=re.compile(r"^Add .*2 units|^Import .*2|^Add 2")).click()
    expect(page.get_by_text("Ruff 70").first).to_be_visible()
    go(page, "Job")
    row = page.get_by_role("row", name=re.compile("Ruff 70"))
    expect(row).to_contain_text("all")
    page.get_by_role("checkbox", name="Take Ruff 70 along").check()
    expect(page.get_by_test_id("picked")).to_contain_text("Covers both setups")
    page.get_by_label("Add a session of").select_option(index=1)
    go(page, "Day")
    expect(page.get_by_test_id("day-says")).to_contain_text(re.compile("It lasts|gives out"))
    page.get_by_label("Ruff 70", exact=True).fill("3")
    page.get_by_label("Ruff 70", exact=True).press("Enter")
    expect(page.get_by_test_id("day-says")).to_contain_text("It lasts")
    go(page, "Job")
    with page.expect_download() as download:
        page.get_by_role("link", name="Export", exact=True).click()
    out = json.loads(Path(download.value.path()).read_text(encoding="utf-8"))
    assert out["format"] == "jumpstop-job"
    assert out["job"]["name"] == "Ferry portraits"
    assert len(out["setups"]) == 2
    assert out["job"]["picked"][0]["name"] == "Ruff 70"


def test_the_kit_is_chosen_by_keys_and_undone(page: Page) -> None:
    go(page, "Job")
    expect(page.get_by_test_id("picked")).to_contain_text("Covers 8 of 10 setups")
    choose = page.get_by_role("button", name="Choose the kit")
    choose.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("kit")).to_contain_text("The lightest: 3 units")
    expect(page.get_by_test_id("kit")).to_contain_text("(proven)")
    page.get_by_role("button", name="Take these along").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("picked")).to_contain_text("Covers all 10 setups; the chance that all goes right: ")
    page.keyboard.press("Control+z")
    expect(page.get_by_test_id("picked")).to_contain_text("Covers 8 of 10 setups")
    page.get_by_role("button", name="Weight against money").click()
    expect(page.get_by_test_id("front")).to_contain_text("10.3 kg")  # 405 + 2 x 3,050, and 4 x 950 of batteries
    page.get_by_label("Chance for every light").select_option("0.99")
    choose.click()
    expect(page.get_by_test_id("kit")).to_contain_text("What stands in the way")
    cell = page.get_by_role("row", name=re.compile("^Take Gannet 600 along")).get_by_role("button").first
    cell.click()
    expect(page.get_by_role("dialog")).to_contain_text("Gannet 600: Noon portrait")
    expect(page.get_by_role("dialog").get_by_role("table")).to_contain_text("in hand")


def test_the_demos_headshot_day_at_a_glance(page: Page) -> None:
    """Batteries, when they are changed, what gives out, and the hours when HSS holds no more but ND does."""
    go(page, "Day")
    expect(page.get_by_test_id("day-says")).to_have_text(
        "Godwit 76 pair gives out at 12:50: 3 batteries, and 4 more wanted."
    )
    line = page.get_by_test_id("timeline")
    for words in ("44 headshots", "10:43", "11:51", "gives out 12:50", "light outside"):
        expect(line).to_contain_text(words)
    expect(page.get_by_test_id("lost")).to_have_text("✕ High-speed sync holds no more from 10:00")
    expect(page.get_by_test_id("holds")).to_contain_text("ND at sync")
    page.get_by_role("button", name="cloud", exact=True).click()
    expect(page.get_by_test_id("lost")).to_have_count(0)
    charges = page.get_by_label("Godwit 76 pair", exact=True)
    charges.fill("7")
    charges.press("Enter")
    expect(page.get_by_test_id("day-says")).to_contain_text("It lasts: over at 22:10")
    page.get_by_label("Session to look at").select_option("1")
    expect(page.get_by_test_id("hands")).to_contain_text("f/2.8 to f/11")
    page.get_by_text("Bursts: which frames get flash").click()
    expect(page.get_by_role("table", name=re.compile("Frames of a burst"))).to_contain_text("lit")
    page.get_by_role("button", name="Session 1 later").click()
    expect(page.get_by_label("Session to look at").get_by_role("option").first).to_contain_text("1. Team of 22")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Session to look at").get_by_role("option").first).to_contain_text("1. 44 headshots")


def test_a_setup_of_a_job_is_on_the_jobs_day_and_says_so(page: Page) -> None:
    """In June the sun stands high at ten past three; on the shortest day it stands five degrees up."""
    page.get_by_label("Setup on the bench").select_option(label="The leap")
    how = page.get_by_text("a clear sky (IES RP-21)")
    expect(how).to_contain_text("Sun 5")
    expect(how).not_to_contain_text("On the job")
    go(page, "Day")
    page.get_by_label("Date", exact=True).fill("2026-12-21")
    page.get_by_label("Date", exact=True).press("Tab")
    go(page, "Setup")
    expect(page.get_by_text("a clear sky (IES RP-21)")).to_contain_text("On the job's day, 21 Dec 2026. Sun 5° up")


def test_what_is_wrong_is_said_and_nothing_pretends(page: Page) -> None:
    go(page, "Job")
    people = page.get_by_label("People", exact=True)
    expect(people).to_have_value("44")
    people.fill("0")
    people.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("People must be between 1 and 100,000.")
    expect(people).to_have_value("0")  # as it was typed, until it is mended or let go
    assert stored_job(page)[0]["doc"]["brief"]["people"] == 44
    people.press("Escape")
    expect(people).to_have_value("44")
    starts = page.get_by_label("Begins, session 1")
    starts.fill("early")
    starts.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("“early” cannot be read. Begins: write it as 9:30")
    page.get_by_label("Name of a person").fill("Lost Guest")
    page.get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("button", name="Remove Lost Guest").click()
    expect(page.get_by_text("Lost Guest")).to_have_count(0)
    expect(page.get_by_label("Name of a person")).to_have_value("")
    page.route(
        "**/api/jobs/*",
        lambda route: route.fulfill(status=500, body="{}") if route.request.method == "PUT" else route.continue_(),
    )
    page.get_by_label("Name of a person").fill("Dora Quill")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_test_id("saving")).to_contain_text("Waiting: 1 since")
    page.unroute_all()
    expect(page.get_by_test_id("saving")).to_have_text("Saved")
    assert "Dora Quill" in [one["name"] for one in stored_job(page)[0]["doc"]["roster"]]


def test_another_order_of_the_coverage_is_the_same_in_a_window_that_shows_a_part_of_it(page: Page) -> None:
    """What is out of sight, rows and columns, follows in a moment."""
    go(page, "Job")
    rows, told = page.get_by_role("region", name="Coverage").locator("tbody tr"), dict[Any, Any]()
    expect(rows).to_have_count(12)
    for size in ((2400, 1500), (700, 500)):
        page.set_viewport_size({"width": size[0], "height": size[1]})
        for order in ("name", "weight"):
            page.get_by_label("Sort the units by").select_option(order)
            expect(rows.first).to_contain_text({"name": "Avocet 200", "weight": "Wren 7"}[order])
            if order in told:
                expect(rows).to_have_text(told[order])
            else:
                page.wait_for_timeout(300)
                told[order] = rows.all_text_contents()
    assert told["name"] != told["weight"]


def test_axe_finds_nothing(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 1280, "height": 900})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    go(page, "Job")
    expect(page.get_by_test_id("picked")).to_contain_text("Covers")
    page.get_by_role("button", name="Choose the kit").click()
    page.get_by_test_id("kit").wait_for()
    assert findings(page, THEMES) == []
    go(page, "Day")
    page.get_by_test_id("timeline").wait_for()
    page.get_by_test_id("lost").wait_for()
    assert findings(page, THEMES) == []
    page.close()


def test_on_a_phone(browser: Browser, demo: Any) -> None:
    page = browser.new_page(viewport={"width": 390, "height": 844})
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    for name, mark in (("Job", "picked"), ("Day", "day-says")):
        go(page, name)
        expect(page.get_by_test_id(mark)).to_contain_text(re.compile("Covers|gives out"))
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, name
        assert page.get_by_test_id(mark).evaluate("it => it.getBoundingClientRect().y") < 500, name
    page.close()


def test_variants_and_units_side_by_side(page: Page) -> None:
    page.get_by_role("button", name="Variants", exact=True).click()
    page.get_by_label("Name of the variant").fill("tight")
    page.get_by_label("Name of the variant").press("Enter")
    tool = page.get_by_test_id("tool")
    expect(tool).to_contain_text("stands so")
    page.get_by_role("spinbutton", name="Distance", exact=True).focus()
    for _ in range(3):
        page.keyboard.press("ArrowUp")
    expect(tool).to_contain_text(re.compile("light 1 (closer|back)"))
    page.get_by_role("button", name="take tight").click()
    expect(tool).to_contain_text("stands so")
    go(page, "Shelf")
    for name in ("Plover 58", "Skua 1200 pack"):
        page.get_by_label(f"Compare {name}").check()
    side = page.get_by_role("region", name="Side by side", exact=True)
    expect(side).to_contain_text(
        "Skua 1200 pack against Plover 58: 7.3 times the price, 10 times the light (+3.33 stops), no HSS"
    )
    expect(side.get_by_role("row", name=re.compile("^beam"))).to_contain_text("3,240 cd s")
    expect(side.get_by_role("img")).to_have_count(4)
    assert findings(page) == []


def test_a_job_of_two_days_is_paged_by_date(page: Page) -> None:
    """A session on the next day has its own sun, its own line, and full batteries in the morning."""
    go(page, "Day")
    expect(page.get_by_role("group", name="Days of the job")).to_have_count(0)
    page.get_by_role("button", name="On several days").click()
    page.get_by_label("Date, session 4").fill("2026-06-25")
    page.get_by_label("Date, session 4").press("Tab")
    days = page.get_by_role("group", name="Days of the job")
    expect(days.get_by_role("button")).to_have_text([re.compile("^Wed 24 Jun: "), re.compile("^Thu 25 Jun: ")])
    line = page.get_by_test_id("timeline")
    expect(line).to_contain_text("44 headshots")
    days.get_by_role("button", name="Thu 25 Jun").click()
    expect(line).not_to_contain_text("44 headshots")
    expect(page.get_by_label("Session to look at").get_by_role("option")).to_have_text([re.compile("Lanterns at dusk")])
    night = page.get_by_label("Charged over night", exact=True)
    expect(night).to_have_attribute("placeholder", "all")
    night.fill("1")
    night.press("Enter")
    page.get_by_label("Day that runs late").select_option("2026-06-25")
    assert findings(page) == []
    doc = stored_job(page)[0]["doc"]
    assert (doc["night_charges"], doc["late_day"], doc["sessions"][3]["day"]) == (1, "2026-06-25", "2026-06-25")
    with urllib.request.urlopen(f"{page.url.split('#')[0]}api/jobs/{stored_job(page)[0]['id']}/day.ics") as reply:
        assert reply.read().decode().count("DTSTART:20260625") == 1


def test_a_job_is_done_again_and_its_brief_adds_up(page: Page) -> None:
    go(page, "Job")
    page.get_by_label("People", exact=True).fill("225")
    page.get_by_label("People", exact=True).press("Enter")
    frames = page.get_by_label("Frames each", exact=True)
    frames.fill("150 to 300")
    frames.press("Enter")
    sums = page.get_by_test_id("brief-sums")
    expect(sums).to_contain_text("33,750 to 67,500 frames")
    expect(sums).to_contain_text("1,012 to 2,025 GB at 30 MB a frame")
    expect(sums).to_contain_text("225 people in the brief, 59 in the sessions: 166 missing")
    page.get_by_label("full length").check()
    page.get_by_label("Copy this job").select_option("without")
    expect(page.get_by_label("Name of the job")).to_have_value("Kite week on the downs, again")
    expect(page.get_by_label("full length")).to_be_checked()
    expect(page.get_by_role("region", name="Roster").get_by_role("row")).to_have_count(4)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Kite week on the downs")


def test_a_view_that_is_come_back_to_is_there_at_once_until_something_is_changed(page: Page) -> None:
    """While the server is slow: the answer that stood there, and after a change none but the new one."""
    go(page, "Day")
    says = page.get_by_test_id("day-says")
    expect(says).to_contain_text("gives out at 12:50")
    go(page, "Job")
    expect(page.get_by_role("heading", name="Roster")).to_be_visible()
    held: list[Route] = []
    page.route("**/day", lambda route: held.append(route))
    with page.expect_request("**/day"):  # it is asked anew all the same
        go(page, "Day")
    expect(says).to_contain_text("gives out at 12:50")
    go(page, "Job")
    page.get_by_role("textbox", name=re.compile(r"^Wind")).fill("9")
    page.keyboard.press("Tab")
    expect(page.get_by_role("status").get_by_text("Saved")).to_be_visible()
    go(page, "Day")
    expect(page.get_by_role("heading", name="Roster")).to_have_count(0)
    expect(says).to_have_count(0)
    for route in held:
        route.continue_()
    expect(says).to_be_visible()
