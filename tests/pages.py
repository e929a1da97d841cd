"""What a person sees and does in the page, by its name there."""

import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

AXE = (Path(__file__).parents[1] / "web/node_modules/axe-core/axe.min.js").read_text(encoding="utf-8")
THEMES = ("desk", "dim", "sun")


def findings(page: Page, themes: tuple[str, ...] = (), within: str = "body") -> list[Any]:
    """What axe finds of what is within, WCAG 2.2 AA; in themes what they change of it, contrast and sizes."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
        page.emulate_media(reduced_motion="reduce")  # colours change at once
    tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
    run = "([where, what]) => axe.run(where, {...what, resultTypes: ['violations']}).then((all) => all.violations)"
    rules = {"color-contrast": {"enabled": not themes}}
    found = [("", one) for one in page.evaluate(run, [within, {"runOnly": tags, "rules": rules}])]
    for theme in themes:
        page.evaluate(
            "theme => { document.documentElement.dataset.theme = theme; return new Promise(requestAnimationFrame) }",
            theme,
        )
        changed = {"runOnly": {"type": "rule", "values": ["color-contrast", "target-size"]}}
        found += [(theme, one) for one in page.evaluate(run, [within, changed])]
    return [(theme, v["id"], [n["html"][:120] for n in v["nodes"]]) for theme, v in found]


def lane(page: Page, name: str) -> Any:
    return page.get_by_role("listitem").filter(has=page.get_by_role("button", name=re.compile(f"^{name}")))


def settle_in(page: Page, label: str, value: str) -> None:
    """Choose in the settings dialog."""
    page.get_by_role("button", name="Settings").click()
    page.get_by_label(label).select_option(value)
    page.get_by_role("dialog", name="Settings").get_by_role("button", name="Close").click()


def saved(page: Page) -> None:
    expect(page.get_by_test_id("saving")).to_have_text("Saved")


def bench(page: Page, name: str) -> None:
    """Put a setup on the bench."""
    page.get_by_label("Setup on the bench").select_option(label=name)
    expect(page.get_by_role("textbox", name="Name of the setup")).to_have_value(name)


def method(page: Page, name: str) -> Any:
    return page.get_by_role("group", name="Methods").get_by_role("button", name=re.compile(f"^({name})"))


SETTINGS = "Settings"


def verdict(page: Page) -> Any:
    return page.get_by_test_id("headline")


def setting(page: Page, name: str) -> Any:
    return page.get_by_role("group", name=SETTINGS).get_by_role("spinbutton", name=name, exact=True)


def typed(page: Page, name: str, text: str) -> None:
    """Type a figure into its place."""
    page.get_by_role("spinbutton", name=name, exact=True).press("Enter")
    page.get_by_role("textbox", name=name, exact=True).fill(text)
    page.keyboard.press("Enter")


def take(page: Page, name: str) -> None:
    """Take a unit; what is shown then speaks of it, and has found its place."""
    lane(page, name).get_by_role("button", name=re.compile(f"^{name}")).click()
    expect(verdict(page)).to_contain_text(f"{name} at ")


def tool(page: Page, name: str) -> Any:
    page.get_by_role("button", name=name, exact=True).click()
    return page.get_by_test_id("tool")


def state(page: Page) -> Any:
    return page.get_by_test_id("saving")
