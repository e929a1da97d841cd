"""Out and back in the browser: a phone's evening, cards with the network off, their answers against the core's over a
grid, paper, a shelf that learns, a test frame."""

import functools
import itertools
import random
import re
import struct
from dataclasses import replace
from datetime import datetime
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Browser, Page, expect

from acts import go
from chromium import Demo
from jumpstop import demo as week
from jumpstop import service
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.camera.methods import Method
from jumpstop.core.plan.light.chain import chain_of
from jumpstop.core.plan.light.one_unit import only, with_light
from jumpstop.core.plan.light.reach import landed, scene_of
from jumpstop.core.scene.job import Job, JobFile, JobSetup
from jumpstop.core.scene.log import LogEntry
from jumpstop.formats.cards_page import cards_page
from jumpstop.words.cards import Card, cards_of
from jumpstop.words.figures import DisplayUnits
from pages import findings

FRAMES = Path(week.__file__ or "").parent / "frames"


def phone(browser: Browser, demo: Demo) -> Page:
    page = browser.new_page(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
    page.goto(demo.url)
    page.get_by_test_id("headline").wait_for()
    return page


def test_a_phone_ticks_the_list_logs_two_readings_and_sees_the_shelf_learn(browser: Browser, demo: Demo) -> None:
    page = phone(browser, demo)
    go(page, "Kit")
    expect(page.get_by_test_id("packed")).to_have_text(re.compile(r"^0 of \d+ lines packed\.$"))
    page.get_by_role("checkbox", name=re.compile("Octa 90")).tap()
    expect(page.get_by_test_id("packed")).to_contain_text("1 of")
    with page.expect_popup() as popup:
        page.get_by_role("link", name="Open the cards").tap()
    card = popup.value
    expect(card.get_by_role("heading", name="44 headshots")).to_be_visible()
    assert card.evaluate("document.documentElement.scrollWidth") <= 390
    card.close()
    go(page, "Log")
    page.get_by_role("link", name="44 headshots").tap()
    dial = page.get_by_test_id("set-dial")
    expect(dial).to_have_text("1/2")
    page.get_by_role("button", name="It came out: 0.7 too bright").tap()
    page.get_by_role("button", name="Log it").tap()
    expect(page.get_by_test_id("next-dial")).to_contain_text("Next: 1/4 + ⅓")
    expect(dial).to_have_text("1/4 + ⅓")
    page.get_by_role("button", name="It came out: right").tap()
    page.get_by_text("Flashes, temperature, battery, note").tap()
    page.get_by_label("Flashes fired").fill("40")
    page.get_by_role("button", name="Log it").tap()
    expect(page.get_by_test_id("next-dial")).to_contain_text("Right as it is")
    page.get_by_role("link", name="Log", exact=True).last.tap()
    expect(page.get_by_test_id("entry")).to_have_count(2)
    expect(page.get_by_test_id("entry").first).to_contain_text("40 flashes")
    octa = page.get_by_test_id("thing").filter(has=page.get_by_text("Octa 90", exact=True))
    expect(octa).to_contain_text("+0.2")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    for name in ("Log", "Kit"):
        go(page, name)
        page.wait_for_timeout(500)
        assert findings(page) == []
    page.reload()
    go(page, "Kit")
    expect(page.get_by_test_id("packed")).to_contain_text("1 of")  # kept
    page.close()


def test_the_next_setup_has_its_own_dial(page: Page) -> None:
    go(page, "Log")
    page.get_by_role("link", name="44 headshots").click()
    expect(page.get_by_test_id("set-dial")).to_have_text("1/2")
    page.get_by_label("Dial as set").select_option(label="1/4")
    expect(page.get_by_test_id("set-dial")).to_have_text("1/4")
    page.get_by_role("link", name="Next", exact=True).click()
    expect(page.get_by_role("heading", name="Lanterns at dusk")).to_be_visible()
    expect(page.get_by_test_id("set-dial")).to_have_text("1/32")


def test_two_frames_without_flash_teach_a_filter(page: Page, tmp_path: Path) -> None:
    """A grey card at sRGB 80, and at 40 through the filter: 0.0802 and 0.0212 in linear light, 1.92 stops."""
    with Image.open(FRAMES / "ambient.jpg") as frame:
        exif = frame.getexif()
        exif.get_ifd(0x8769)
        Image.new("RGB", frame.size, (40, 40, 40)).save(tmp_path / "filter.jpg", quality=95, exif=exif)
    go(page, "Log")
    page.get_by_label("Test frame").last.set_input_files(FRAMES / "ambient.jpg")
    page.get_by_role("button", name="This is the ambient alone").click()
    page.get_by_label("Test frame").last.set_input_files(tmp_path / "filter.jpg")
    page.get_by_label("Setup of the frame").select_option(label="Noon portrait")
    page.get_by_label("Filter on the lens").select_option(label="ND 3 stops")
    page.get_by_role("button", name="It took 1.92 stops").click()
    expect(page.get_by_test_id("entry")).to_contain_text("takes 1.1 stops less than marked")
    expect(page.get_by_test_id("thing")).to_contain_text("ND 3 stops")


@pytest.mark.killed
def test_entries_wait_in_the_page_until_the_server_answers(browser: Browser, demo: Demo) -> None:
    page = phone(browser, demo)
    go(page, "Log")
    page.get_by_role("link", name="Noon portrait").tap()
    page.get_by_test_id("set-dial").wait_for()
    demo.kill()
    page.get_by_role("button", name="It came out: 0.3 too dark").tap()
    page.get_by_role("button", name="Log it").tap()
    expect(page.get_by_test_id("waiting")).to_contain_text("1 entry waits")
    demo.start(demo.port)
    expect(page.get_by_test_id("waiting")).to_have_count(0)
    expect(page.get_by_test_id("next-dial")).to_contain_text("Next")
    go(page, "Log")
    expect(page.get_by_test_id("entry")).to_have_count(1)
    page.close()


def test_an_odd_reading_is_pointed_out_and_set_aside(page: Page) -> None:
    go(page, "Log")
    page.get_by_role("link", name="44 headshots").click()
    for turn, how in enumerate(("right", "0.3 too bright", "right", "2.0 too dark")):
        page.get_by_label("Dial as set").select_option(label="1/2")
        page.get_by_role("button", name=f"It came out: {how}").click()
        page.get_by_role("button", name="Log it").click()
        expect(page.get_by_role("button", name="Log it")).to_be_disabled()
        page.wait_for_timeout(200 * (turn >= 0))
    go(page, "Log")
    odd = page.get_by_test_id("entry").filter(has_text="was something else set?")
    expect(odd).to_have_count(1)
    expect(odd).to_contain_text("2.0 stops too dark")
    odd.get_by_role("button", name="set aside").click()
    expect(page.get_by_text("was something else set?")).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_text("was something else set?")).to_have_count(1)


def test_a_test_frame_is_read_and_two_give_the_flash_alone(page: Page) -> None:
    go(page, "Log")
    page.get_by_label("Test frame").last.set_input_files(FRAMES / "ambient.jpg")
    says = page.get_by_test_id("frame-says")
    expect(says).to_contain_text("Grey card: 1.2 stops too dark.")
    page.get_by_role("button", name="This is the ambient alone").click()
    page.get_by_label("Test frame").last.set_input_files(FRAMES / "flash.jpg")
    expect(says).to_contain_text("The flash alone: +0.02.")
    page.get_by_label("Setup of the frame").select_option(label="Noon portrait")
    page.get_by_role("button", name="Log this patch").click()
    expect(page.get_by_test_id("entry")).to_have_count(1)
    expect(page.get_by_test_id("thing").filter(has_text="the tones of its frames")).to_have_count(1)
    frame = page.get_by_role("application")
    frame.focus()
    for _ in range(8):
        frame.press("Shift+ArrowUp")
    expect(says).not_to_contain_text("0.5 stop too bright")  # the sky
    page.get_by_label("Test frame").last.set_input_files({"name": "x.jpg", "mimeType": "image/jpeg", "buffer": b"no"})
    expect(page.get_by_role("alert").filter(has_text="not a JPEG")).to_be_visible()


# Cards


def file() -> JobFile:
    setups = tuple(JobSetup.model_construct(id=f"s{at}", setup=one) for at, one in enumerate(week.setups()))
    return JobFile.model_construct(job=Job(name="Week"), setups=setups, batteries=())


def shelf() -> Shelf:
    return Shelf([Unit.model_validate(doc) for doc in week.kit()["units"]])


@functools.cache
def cards() -> list[Card]:
    blank = LogEntry(at=datetime(2026, 6, 24, 9))
    return cards_of(service.cards(file(), shelf()), None, file().job, DisplayUnits(), blank)


def test_cards_answer_as_the_core_does(browser: Browser, tmp_path: Path) -> None:
    """One in seven of a grid of apertures, ISOs, filters, shutter times, distances, ambients: the same dial."""
    made, dice = cards(), random.Random(1)
    (tmp_path / "cards.html").write_text(cards_page("Week", made, "now"), encoding="utf-8")
    page = browser.new_page()
    page.goto((tmp_path / "cards.html").as_uri())
    solved = {one.id: one.solved for one in service.shot_setups(file(), shelf())}
    compared = short = 0
    for number, card in enumerate(made):
        pocket, there = card.pocket, solved[card.setup]
        for place, light in enumerate(pocket.lights):
            whole = list(
                itertools.product(
                    _some(len(pocket.apertures), pocket.aperture), _some(len(pocket.isos), pocket.iso),
                    {pocket.nd, min(pocket.nd + 2, len(pocket.nds) - 1)}, _some(len(pocket.shutters), pocket.shutter),
                    _some(len(light.distances), light.distance), (-1.0, 0.0, 2 / 3),
                )
            )  # fmt: skip
            grid = dice.sample(whole, len(whole) // 7)
            found = page.evaluate(
                "([card, at, grid]) => { const c = jumpstop.data.cards[card].pocket;"
                " return grid.map(([aperture, iso, nd, shutter, distance, ambient]) => { const a = jumpstop.answer(c,"
                " c.lights[at], {aperture, iso, nd, shutter, distance, ambient, seen: null, set: 0});"
                " return [a.at, a.short, a.over] }) }",
                [number, place, [list(one) for one in grid]],
            )
            alone, method = only(there, light.unit), there.method(pocket.kind)
            places = sorted(zip(grid, found, strict=True), key=lambda one: one[0][4:])
            for (distance, ambient), same in itertools.groupby(places, key=lambda one: one[0][4:]):
                asked = list(same)
                cameras = [
                    replace(
                        method.camera, f_number=pocket.apertures[aperture].value, iso=pocket.isos[iso].value,
                        nd_stops=pocket.nds[nd].value, shutter_s=pocket.shutters[shutter].value,
                    )
                    for (aperture, iso, nd, shutter, *_), _ in asked
                ]  # fmt: skip
                light_there = replace(there.ambient, lit_ev=there.ambient.lit_ev + ambient)
                setup = with_light(there.setup, light.light, distance_m=light.distances[distance].value)
                scene = scene_of(setup, alone, light_there, [Method(method.kind, camera) for camera in cameras])
                core = landed(scene, chain_of(scene))
                for at, (where, (dial, lacks, _)) in enumerate(asked):
                    spare, below = float(core.spare[at, light.light, 0]), float(core.below_full[at, light.light, 0])
                    assert abs(dial * light.step - below) <= light.step + 1e-6, (card.name, light.light, where)
                    assert lacks == pytest.approx(max(0.0, -spare), abs=0.06)
                    compared += 1
                    short += spare < 0
    assert compared > 3000
    assert 0.05 < short / compared < 0.95
    page.close()


def _some(count: int, planned: int) -> list[int]:
    return sorted({0, planned, count - 1, max(0, planned - 2), min(count - 1, planned + 3)})


def test_cards_open_with_the_network_off_ask_for_nothing_and_give_readings_back(
    browser: Browser, demo: Demo, tmp_path: Path
) -> None:
    online = browser.new_page()
    online.goto(demo.url)
    job = online.request.get(f"{demo.url}api/jobs").json()[0]["id"]
    (tmp_path / "cards.html").write_bytes(online.request.get(f"{demo.url}api/jobs/{job}/cards.html?save=true").body())
    context = browser.new_context(offline=True, viewport={"width": 390, "height": 844})
    page, asked = context.new_page(), list[str]()
    page.on("request", lambda request: asked.append(request.url))
    page.on("console", lambda said: asked.append(said.text) if said.type == "error" else None)
    page.goto((tmp_path / "cards.html").as_uri())
    card = page.get_by_role("article", name="44 headshots")
    answer = card.get_by_role("status")
    expect(answer).to_have_text("key: 1/2")
    plan = card.get_by_text("What stands here and in the tables is the plan as it was")
    expect(plan).to_be_hidden()
    card.get_by_label("ISO", exact=True).select_option(label="ISO 200")
    # 1.1 in hand, a stop of ISO, and the ambient, 3.2 under, gives log2((1 - 2^-3.2) / (1 - 2^-2.2)) = .18 more of it.
    expect(answer).to_have_text("key: 1/8 + ⅔")
    expect(plan).to_be_visible()
    for kind, start in (("PNG", b"\x89PNG\r\n"), ("SVG", b"<svg xmlns=")):
        with page.expect_download() as drawing:
            card.get_by_role("button", name=f"Save as {kind}").first.click()
        assert drawing.value.suggested_filename == f"jumpstop-44-headshots-the-set-from-above.{kind.lower()}"
        saved = Path(drawing.value.path()).read_bytes()
        assert saved.startswith(start)
        assert kind == "SVG" or struct.unpack(">II", saved[16:24]) == (1020, 780)
    card.get_by_label("key, it came out").select_option(label="0.3 stop too bright")
    # Flash then .33 + log2(1 - 2^-2.56) = .07, wanted log2(1 - 2^-2.23) = -.35: .41 less than 1/2.
    expect(answer).to_have_text("key: 1/4 + ⅔")
    card.get_by_role("button", name="Log it").click()
    expect(page.locator("#held")).to_have_text("1 reading held here")
    page.reload()
    expect(page.locator("#held")).to_have_text("1 reading held here")
    assert page.evaluate("Object.keys(localStorage)") == [f"jumpstop-readings-{job}"]  # this job's, no other's
    with page.expect_download() as download:
        page.get_by_role("button", name="Save readings as a file").click()
    assert [url for url in asked if not url.startswith(("file:", "blob:"))] == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert findings(page) == []
    back = Path(download.value.path()).read_bytes()
    for expected in ({"added": 1, "known": 0}, {"added": 0, "known": 1}):
        assert online.request.post(f"{demo.url}api/log/import", data=back).json() == expected
    context.close()
    online.close()


@pytest.mark.parametrize(("width", "height"), [("105mm", "148mm"), ("210mm", "297mm")])
def test_cards_print_without_clipping_or_overlap(browser: Browser, tmp_path: Path, width: str, height: str) -> None:
    """On paper, every text of every card lies within the page's width and on no other."""
    made = cards()
    (tmp_path / "cards.html").write_text(cards_page("Week", made, "now"), encoding="utf-8")
    inches = 96 / 25.4
    page = browser.new_page(viewport={"width": round((int(width[:-2]) - 14) * inches), "height": 900})
    page.goto((tmp_path / "cards.html").as_uri())
    page.emulate_media(media="print")
    wrong = page.evaluate(
        """() => {
          const wide = document.documentElement.clientWidth, out = []
          for (const card of document.querySelectorAll('article')) {
            const boxes = []
            for (const one of card.querySelectorAll('h2, h3, p, li, th, td')) {
              const range = document.createRange()
              range.selectNodeContents(one)
              for (const box of range.getClientRects()) {
                if (box.width < 1 || box.height < 1) continue
                if (box.right > wide + 1 || box.left < -1) out.push('clipped: ' + one.textContent)
                boxes.push([box, one])
              }
            }
            for (let i = 0; i < boxes.length; i++) for (let j = i + 1; j < boxes.length; j++) {
              const [a, x] = boxes[i], [b, y] = boxes[j]
              if (x === y || x.contains(y) || y.contains(x)) continue
              const across = Math.min(a.right, b.right) - Math.max(a.left, b.left)
              const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
              if (across > 2 && down > 3) out.push('overlap: ' + x.textContent + ' | ' + y.textContent)
            }
          }
          return out
        }"""
    )
    assert wrong == []
    page.emulate_media(media="null")
    pdf = page.pdf(width=width, height=height)
    sheets = len(re.findall(rb"/Type\s*/Page\b", pdf))
    assert len(made) <= sheets <= 2 * len(made)
    page.close()


def test_the_pocket_marks_hold_what_is_planned() -> None:
    """A card's tables have the planned figures at 0, and every stop of aperture, ISO and ND is a stop."""
    for card in cards():
        pocket = card.pocket
        for marks, at in (
            (pocket.apertures, pocket.aperture),
            (pocket.isos, pocket.iso),
            (pocket.nds, pocket.nd),
            (pocket.shutters, pocket.shutter),
        ):
            assert marks[at].stops == pytest.approx(0, abs=1e-9)
            assert sorted(one.stops for one in marks) in (
                [one.stops for one in marks],
                [one.stops for one in marks][::-1],
            )
        if {2.8, 5.6} <= {one.value for one in pocket.apertures}:
            by = {one.value: one.stops for one in pocket.apertures}
            assert by[2.8] - by[5.6] == pytest.approx(2.0)
        assert np.all([light.most >= light.dial_stops >= light.least for light in pocket.lights])
