"""What a person does in the page, of every kind, and what can go wrong on the way: for the tests and `make soak`."""

import random
import re
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from playwright.sync_api import Error, Page, Route


def wait_until(holds: Callable[[], Any], limit_s: float = 30.0) -> Any:
    """What `holds` says once it says something true. Raises AssertionError where it never does."""
    end = time.monotonic() + limit_s
    while True:
        found = holds()
        if found:
            return found
        if time.monotonic() > end:
            raise AssertionError(f"still {found!r} after {limit_s:.0f} s")
        time.sleep(0.05)


def home(page: Page) -> str:
    """The address of the server that a page came from."""
    return page.url.split("#")[0]


def asked(page: Page, path: str) -> Any:
    """What the server says, past all that stands in the page's way."""
    for _ in range(3):  # a connection that was kept may be closed just as it is used again
        with suppress(Error):
            return page.context.request.get(home(page) + path).json()
    return page.context.request.get(home(page) + path).json()


def go(page: Page, name: str) -> None:
    """To one of the views; it stands there then, and not the one before."""
    page.get_by_role("navigation", name="Views").get_by_role("link", name=name, exact=True).click()
    page.locator(f"main[data-view={name}]").wait_for()


@dataclass(frozen=True)
class Act:
    """Something done in a view: `do` does it, anew with each number; `there` is what the server then has of it."""

    view: str
    do: Callable[[Page, int], None]
    there: Callable[[Page, int], bool]
    sent_to: str


def _frames(page: Page, number: int) -> None:
    figure = page.get_by_role("spinbutton", name="Frames", exact=True)
    page.get_by_test_id("headline").wait_for()
    if not figure.is_visible():
        page.get_by_text("side, automatic power, group, frames, supply").press("Enter")
    figure.press("Enter")
    page.get_by_role("textbox", name="Frames").fill(str(300 + number))
    page.keyboard.press("Enter")


def _people(page: Page, number: int) -> None:
    field = page.get_by_label("People", exact=True)
    field.fill(str(50 + number))
    field.press("Enter")


def _job(page: Page) -> Any:
    return asked(page, "api/jobs")[0]["doc"]


def _roster(page: Page, number: int) -> None:
    page.get_by_label("Name of a person").fill(f"Guest {number}")
    page.get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("checkbox", name=f"Guest {number} is done", exact=True).check()


def _tick(page: Page, number: int) -> None:
    page.get_by_label("Own thing to pack").fill(f"Tape {number}")
    page.get_by_role("region", name="Pack list").get_by_role("button", name="Add", exact=True).click()


def _box(page: Page, number: int) -> None:
    page.get_by_test_id("pack-line").nth(number % 5).get_by_role("checkbox").set_checked(number % 10 < 5)


def _unit(page: Page, number: int) -> None:
    page.get_by_role("button", name="Edit Plover 58").click()
    if not page.get_by_label("Note").is_visible():
        page.get_by_text("Weight, price, how many, heat and the rest", exact=True).click()
    page.get_by_label("Note").fill(f"Note {number}")
    page.get_by_role("dialog").get_by_role("button", name="Save", exact=True).click()
    page.get_by_role("dialog").wait_for(state="detached")


def _modifier(page: Page, number: int) -> None:
    page.get_by_role("navigation", name="Shelves").get_by_role("link", name="Filters").click()
    page.get_by_role("button", name="Add a filter").click()
    page.get_by_role("dialog").get_by_label("Name").fill(f"ND {number}")
    page.get_by_role("dialog").get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("dialog").wait_for(state="detached")


def _currency(page: Page, number: int) -> None:
    page.get_by_role("button", name="Settings").click()
    page.get_by_label("Currency").fill(str(number % 10000))
    page.keyboard.press("Tab")
    page.get_by_role("dialog", name="Settings").get_by_role("button", name="Close").click()


def _log(page: Page, number: int) -> None:
    page.get_by_role("link", name="Noon portrait").first.click()
    light = page.get_by_role("region", name=re.compile("^key")).first
    more = light.locator("details.more")
    if more.get_attribute("open") is None:
        more.locator("summary").click()
    light.get_by_label("Note").fill(f"rain {number}")
    light.get_by_label("Flashes fired").fill(str(number))
    light.get_by_role("button", name="Log without a reading").click()


ACTS = {
    "setup": Act(
        "Setup", _frames, lambda p, n: asked(p, "api/setups")[0]["doc"]["frames"] == 300 + n, "**/api/setups/*"
    ),
    "job": Act("Job", _people, lambda p, n: _job(p)["brief"]["people"] == 50 + n, "**/api/jobs/*"),
    "roster": Act(
        "Job", _roster,
        lambda p, n: any(one["name"] == f"Guest {n}" and one["done"] for one in _job(p)["roster"]), "**/api/jobs/*",
    ),
    "own": Act(
        "Kit", _tick, lambda p, n: f"Tape {n}" in [one["name"] for one in _job(p)["own_items"]], "**/api/jobs/*"
    ),
    "unit": Act(
        "Shelf", _unit,
        lambda p, n: f"Note {n}" in [one["doc"]["note"] for one in asked(p, "api/units")], "**/api/units/*",
    ),
    "filter": Act(
        "Shelf", _modifier,
        lambda p, n: [one["doc"]["name"] for one in asked(p, "api/filters")].count(f"ND {n}") == 1,
        "**/api/filters/keep/*",
    ),
    "preferences": Act(
        "Setup", _currency, lambda p, n: asked(p, "api/preferences")["currency"] == str(n % 10000), "**/api/preferences"
    ),
    "log": Act(
        "Log", _log,
        lambda p, n: [one["note"] for one in asked(p, "api/log/text")["entries"]].count(f"rain {n}") == 1,
        "**/api/log/keep/*",
    ),
}  # fmt: skip

PROBLEM = {"problems": [{"where": "", "field": "Data", "sentence": "It was not taken."}]}


def _slow(route: Route) -> None:
    time.sleep(0.3)
    route.continue_()


def _lost_answer(route: Route) -> None:
    """The server gets it, and has it; the page hears half of the answer."""
    answer = route.fetch()
    route.fulfill(status=answer.status, headers={"content-type": "application/json"}, body=answer.text()[:20])


FAULTS: dict[str, Callable[[Route], None]] = {
    "delayed": _slow,
    "aborted": lambda route: route.abort(),
    "500": lambda route: route.fulfill(status=500, json=PROBLEM),
    "503": lambda route: route.fulfill(status=503, json=PROBLEM),
    "401": lambda route: route.fulfill(status=401, json=PROBLEM),
    "429": lambda route: route.fulfill(status=429, json=PROBLEM),
    "a page to log in": lambda route: route.fulfill(status=200, content_type="text/html", body="<h1>Hotel</h1>"),
    "other JSON": lambda route: route.fulfill(status=200, json={"welcome": True}),
    "cut": lambda route: route.fulfill(status=200, content_type="application/json", body='{"id": "a", "revi'),
    "the answer lost": _lost_answer,
}


def troubled(page: Page, pattern: str, fault: str, times: int = 1_000_000) -> None:
    """From now on, the next so many changes that a page sends to an address meet a fault."""
    left = times

    def meet(route: Route) -> None:
        nonlocal left
        if route.request.method == "GET" or left <= 0:
            return route.fallback()
        left -= 1
        try:
            FAULTS[fault](route)
        except Error:  # the page went away meanwhile
            return None
        return None

    page.route(pattern, meet)


def chosen(dice: random.Random) -> tuple[str, str]:
    """An act and a fault."""
    return dice.choice(list(ACTS)), dice.choice(list(FAULTS))
