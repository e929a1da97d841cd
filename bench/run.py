"""Timings as ratios within one run; prints them and keeps them in docs/benchmarks.md: `make bench [PART=...]`."""

import gzip
import http.client
import io
import itertools
import json
import os
import random
import re
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path
from typing import Any, TypeVar

import httpx
import numpy as np
from PIL import Image
from playwright.sync_api import sync_playwright

from jumpstop.api.workspace import MOST_KEPT
from jumpstop.core.kit.power import PowerSupply
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.table import POWER_STOPS, UnitTable, table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.plan.change.levers import levers
from jumpstop.core.plan.change.moves import Bag
from jumpstop.core.plan.choice.kit_choice import choose_kit
from jumpstop.core.plan.job.board import Landings, board_of, landings_of
from jumpstop.core.plan.job.endurance import spread_of
from jumpstop.core.plan.job.helps import day_plan
from jumpstop.core.plan.learn.learning import learn
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.aim import ExposureAim, Motion
from jumpstop.core.scene.job import Job, JobFile, JobSetup, Session
from jumpstop.core.scene.light import OwnModifier, OwnUnit
from jumpstop.core.scene.log import LogEntry
from jumpstop.core.scene.seen import Seen
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from jumpstop.formats.cards_page import cards_page
from jumpstop.service import cards
from jumpstop.store.documents import Store
from jumpstop.words.answer import answer_of
from jumpstop.words.board import board_text
from jumpstop.words.cards import cards_of
from jumpstop.words.figures import DisplayUnits

sys.path.insert(0, str(Path(__file__).parent))
from chromium import NUDGE, Demo, launch
from large import large_job, log_entries

ROOT = Path(__file__).parent.parent


DURATIONS = FlashDuration(
    table=(DurationEntry(power=1, seconds=1 / 400), DurationEntry(power=1 / 128, seconds=1 / 20000))
)


def shelf(count: int) -> list[Unit]:
    """So many invented units, no two alike."""
    return [
        Unit(
            name=f"Shore bird {i}", claims=(Claim(guide_number=20 + i % 90, unit="m", zoom_mm=35),), hss=Hss(),
            flash_duration=DURATIONS, weight_g=300 + i, price=50 + i,
            power_supplies=(PowerSupply(recycle_full_s=2 + i % 5, full_flashes=200 + i),),
        )
        for i in range(count)
    ]  # fmt: skip


def bare(table: UnitTable) -> None:
    """The same formula in bare NumPy, five methods: chain, spread, chance, dial, recycle, charge."""
    from scipy.special import ndtr

    t01 = table.t01_s[:, 0]
    for way in ("hss", "nd", "stop down", "past sync", "freeze"):
        own, own_sd = -(np.log2(3) + table.hss_extra[:, 60]), table.hss_sd
        if way == "freeze":
            ok = (table.t01_s <= 1 / 5000) & (table.dial_range[:, None] >= POWER_STOPS)
            first, ends = ok.argmax(axis=1), ~ok & (np.arange(len(POWER_STOPS)) > ok.argmax(axis=1)[:, None])
            np.where(ends.any(axis=1), ends.argmax(axis=1) - 1, len(POWER_STOPS) - 1)
            own, own_sd = -np.where(ok.any(axis=1), np.ceil(POWER_STOPS[first] / table.step) * table.step, 0.0), 0 * t01
        elif way != "hss":
            own = np.where(np.isnan(t01), 0.0, np.log2(-np.expm1(-2.303 * 0.0026 / t01)))
            own_sd = np.abs(own) / 4
        stops = (table.rated - 3) - 1.7 - 0.4 - 0.9 - 0.07 + own - 5 + 0.1
        sd = np.sqrt(table.rated_sd**2 + 0.05**2 + 0.3**2 + 0.25**2 + 0.05**2 + own_sd**2 + 0.1**2 + 0.2**2)
        ndtr(stops / sd)
        np.where(np.abs(stops) <= sd, 0, np.sign(stops))
        below = np.minimum(np.round(np.maximum(stops, 0) / table.step) * table.step, table.dial_range)
        power = np.exp2(-below)
        rows = np.arange(len(stops))
        full = table.recycle_full[rows, table.fitted]
        least = table.recycle_least[rows, table.fitted]
        np.where(table.fitted >= 0, least + power * (full - least), np.nan)
        np.ceil(240 / (table.full_flashes[rows, table.fitted] / np.maximum(power, 0.01)))


T = TypeVar("T")


class Pace:
    """How fast the machine is just now: other programs on it can halve that from one second to the next.

    paces: those at which was measured since they were last asked for [ms].
    """

    NEAR, AGAIN = 1.15, 4
    ALL_S = float(os.environ.get("WAIT_S", "200"))  # for a busy machine: more of it
    EACH_S = ALL_S / 10

    def __init__(self) -> None:
        self.paces: list[float] = []
        self.best, self.left_s = self.now(), self.ALL_S

    @staticmethod
    def now() -> float:
        """What a loop of plain Python takes [ms]."""
        start = time.perf_counter()
        sum(i * i for i in range(300_000))
        return (time.perf_counter() - start) * 1000

    def wait(self) -> None:
        """Until the machine is about as fast as it has been seen to be; no longer than EACH_S, nor ALL_S in all."""
        start = time.perf_counter()
        least = min(self.EACH_S, self.left_s)
        while (found := self.now()) > self.best * self.NEAR and time.perf_counter() - start < least:
            time.sleep(0.2)
        self.best = min(self.best, found)
        self.left_s -= time.perf_counter() - start
        self.paces.append(found)

    def timed(self, task: Callable[[], T]) -> T:
        """A task's own figure, taken again where the machine grew slow meanwhile, AGAIN times at most."""
        for left in reversed(range(self.AGAIN)):
            self.wait()
            found = task()
            time.sleep(0.3)  # until what follows out of sight is done too
            after = self.now()
            if after <= self.best * self.NEAR or self.left_s <= 0 or not left:
                break
            self.paces.pop()
        return found

    def said(self) -> str:
        """The slowest and the fastest since last asked for, and forget them."""
        low, high, self.paces = min(self.paces), max(self.paces), []
        return f"{low:.0f}" if high < low * self.NEAR else f"{low:.0f} to {high:.0f}"


PACE = Pace()


def median_ms(task: Callable[[], object], times: int) -> float:
    """Median time of a task [ms], once the machine is quiet."""
    PACE.wait()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        task()
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken)


def five_methods() -> Setup:
    """A setup in which just five methods can be had: ND, HSS, stop down, freeze, past sync."""
    noon = setups()[0]
    setup = noon.model_copy(
        update={
            "aim": ExposureAim(f_number=6.3, background_stops=0),
            "motion": Motion(kind="freeze", field_width_m=3),
            "lights": (noon.lights[0].model_copy(update={"distance_m": 2.0, "position": None}),),
        }
    )
    assert len(solve(setup, table_of(shelf(1))).kinds) == 5
    return setup


def core(lines: list[str]) -> None:
    """Solving against bare NumPy."""
    setup = five_methods()
    for count, times in ((200, 30), (5000, 10)):
        table = table_of(shelf(count))
        tasks = (lambda t=table: solve(setup, t), lambda t=table: bare(t))
        rounds = [[median_ms(task, times) for task in tasks] for _ in range(10)]
        ours, theirs = (min(one) for one in zip(*rounds, strict=True))
        lines.append(
            f"| solve, {count:,} units x 5 methods | {ours:.2f} ms | bare NumPy {theirs:.2f} ms "
            f"| {ours / theirs:.1f} | 2 |"
        )


def search(lines: list[str]) -> None:
    """Every change and every pair for one unit: on a shelf of one, and on one of 200."""
    setup = setups()[0]
    modifiers = [OwnModifier.model_validate(doc | {"id": f"m{i}"}) for i, doc in enumerate(kit()["modifiers"])]
    bag = Bag(tuple(modifiers))
    for count, aim in ((1, 100), (200, 500)):
        table = table_of(shelf(count))
        found = levers(setup, 0, "nd", table, 0, bag)
        took = min(median_ms(lambda t=table: levers(setup, 0, "nd", t, 0, bag), 3) for _ in range(5))
        tried = f"{count:,} unit{'s' if count > 1 else ''}: {len(found.singles)} changes and {len(found.pairs)} pairs"
        lines.append(f"| find a stop, {tried} | {took:.0f} ms | | | {aim} ms |")


def by_lights(lines: list[str]) -> None:
    """How the cost of a setup grows with its lights."""
    table, one = table_of(shelf(200)), setups()[-1].lights[0]
    roles = ("key", "fill", "rim", "background") * 2
    took = []
    for count in (1, 2, 4, 8):
        places = enumerate(roles[:count])
        lights = tuple(one.model_copy(update={"role": role, "distance_m": 2.0 + i}) for i, role in places)
        setup = setups()[-1].model_copy(update={"lights": lights})
        took.append(min(median_ms(lambda s=setup: answer_of(solve(s, table), DisplayUnits()), 10) for _ in range(5)))
    figures = ", ".join(f"{one:.1f}" for one in took)
    lines.append(
        f"| solve and answer, 200 units, with 1, 2, 4, 8 lights | {figures} ms | | {took[3] / took[0]:.1f} | 8 |"
    )


def varied(count: int, seed: int = 1) -> list[Unit]:
    """So many invented units as unlike as the demo's, the same for the same seed."""
    dice = np.random.default_rng(seed)
    out = []
    for i in range(count):
        guide = float(dice.uniform(20, 110))
        out.append(
            Unit(
                name=f"Wader {i}", kind=str(dice.choice(["shoe", "pocket", "monobloc"])),
                claims=(Claim(guide_number=round(guide, 1), unit="m", zoom_mm=35),),
                zoom_max_mm=float(dice.choice([105, 200])) if dice.random() < 0.5 else None,
                hss=Hss() if dice.random() < 0.6 else None, flash_duration=DURATIONS,
                weight_g=round(float(200 + guide**1.6 * dice.uniform(0.6, 1.4))),
                price=round(float(50 + guide**1.7 * dice.uniform(0.5, 1.5))),
                holding=str(dice.choice(["owned", "hire", "wanted"])),
                power_supplies=(PowerSupply(recycle_full_s=2, full_flashes=200),),
            )
        )  # fmt: skip
    return out


def job_of(count: int) -> JobFile:
    """So many setups of the demo, each of two lights at least."""
    every = (setups() * 3)[:count]
    out = []
    for at, setup in enumerate(every):
        rim = {"role": "rim", "target_stops": -0.5, "modifier": None, "layers": None, "heads": 1}
        lights = setup.lights if len(setup.lights) > 1 else (setup.lights[0], setup.lights[0].model_copy(update=rim))
        out.append(JobSetup(id=f"s{at}", setup=setup.model_copy(update={"lights": lights[:2]})))
    return JobFile(job=Job(name="A job"), setups=tuple(out))


def jobs(lines: list[str]) -> None:
    """Coverage, kit choice and the day, each with how it grows."""
    table = table_of(varied(200))

    def landings(count: int) -> list[Landings]:
        return [landings_of(solve(one.setup, table)) for one in job_of(count).setups]

    def coverage(count: int) -> None:
        file = job_of(count)
        board = board_of(landings(count), table)
        board_text(board, [one.id for one in file.setups], file.job, DisplayUnits())

    took = [min(median_ms(lambda c=count: coverage(c), 3) for _ in range(3)) for count in (6, 12)]
    lines.append(
        f"| coverage, 200 units x 6 and 12 setups of two lights | {took[0]:.0f}, {took[1]:.0f} ms | "
        f"| {took[1] / took[0]:.1f} | 100 ms |"
    )
    for least, spares in (("weight", 0), ("buy", 0), ("weight", 1)):
        took, proven = [], True
        for count in (6, 12):
            some = landings(count)
            PACE.wait()
            start = time.perf_counter()
            kit = choose_kit(some, table, least, 0.9, spares)  # type: ignore[arg-type]
            took.append(time.perf_counter() - start)
            proven = proven and kit.proven and kit.status == "found"
        sure = "proven" if proven else "not proven"
        lines.append(
            f"| kit choice, least {least}, {spares} may fail, 200 units, 12 and 24 lights, {sure} "
            f"| {took[0]:.2f}, {took[1]:.2f} s | | {took[1] / took[0]:.1f} | 5 s |"
        )
    took = []
    for people in (25, 50):
        file = job_of(10)
        day = [Session(setup=f"s{at}", people=people, frames_each=10) for at in range(10)]
        plan = day_plan(
            file.model_copy(update={"job": file.job.model_copy(update={"sessions": tuple(day)})}), Shelf(varied(200))
        )
        PACE.wait()
        start = time.perf_counter()
        spread_of(plan, 1000, 1)
        took.append(time.perf_counter() - start)
    lines.append(
        f"| a day of 2,750 and 5,500 flashes a light over ten sessions, 1,000 runs | {took[0]:.2f}, {took[1]:.2f} s | "
        f"| {took[1] / took[0]:.1f} | 2 s |"
    )


def readings(count: int, units: list[Unit]) -> list[LogEntry]:
    """So many readings, of unit after unit, each from another distance."""
    out = []
    for at in range(count):
        own = OwnUnit.model_construct(**dict(units[at % len(units)]), id=None)
        light = setups()[0].lights[0].model_copy(update={"unit": own, "distance_m": 1 + at / 500, "position": None})
        was = Setup(lights=(light,))
        seen = Seen(kind="face", stops=0.1 * (at % 7 - 3), holds_ambient=False, was=light)
        out.append(LogEntry(at=datetime(2026, 6, 24), was=was, seen=seen))
    return out


def learning(lines: list[str]) -> None:
    """All readings at once; one answer for the whole shelf with and without what they taught; what to measure next; all
    cards."""
    units = shelf(200)
    table, some = table_of(units), readings(1000, units[:8])
    half, whole = (min(median_ms(lambda n=n: learn(some[:n], table), 1) for _ in range(3)) for n in (500, 1000))
    lines.append(f"| learning from 500 and 1,000 readings | {half:.0f}, {whole:.0f} ms | | {whole / half:.1f} | |")
    taught, noon = replace(table, learned=learn(some[:60], table).learned), setups()[0]
    plain, after = (
        min(median_ms(lambda t=t: answer_of(solve(noon, t), DisplayUnits(), 0), 9) for _ in range(5))
        for t in (table, taught)
    )
    lines.append(
        f"| solve and answer, 200 units, of which readings taught 8 | {after:.1f} ms | without {plain:.1f} ms "
        f"| {after / plain:.2f} | |"
    )
    job = JobFile.model_construct(
        job=Job(name="Week"),
        setups=tuple(JobSetup.model_construct(id=f"s{at}", setup=one) for at, one in enumerate(setups())),
        batteries=(),
    )
    demo_shelf = Shelf([Unit.model_validate(doc) for doc in kit()["units"]])
    blank = LogEntry(at=datetime(2026, 6, 24))

    def page() -> str:
        return cards_page("Week", cards_of(cards(job, demo_shelf), None, job.job, DisplayUnits(), blank), "")

    took = min(median_ms(page, 1) for _ in range(3))
    lines.append(f"| the cards of ten setups as one page | {took:.0f} ms | | | |")


def redrawn(lines: list[str]) -> None:
    """Milliseconds from another order of the units to the frame after the coverage is drawn anew."""
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder))
        store.add("units", [unit.model_dump(mode="json") for unit in varied(200)], "Shelf")
        file = job_of(12)
        store.add_job(
            file.job.model_dump(mode="json"), [(one.id, one.setup.model_dump(mode="json")) for one in file.setups]
        )
        store.close()
        with Demo(Path(folder)) as url, sync_playwright() as p:
            page = launch(p).new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"{url}#/job")
            page.get_by_label("Sort the units by").wait_for()
            page.wait_for_timeout(500)
            script = """order => new Promise(done => {
              const select = document.querySelector('[aria-label="Sort the units by"]')
              const start = performance.now()
              select.value = order
              select.dispatchEvent(new Event('change', { bubbles: true }))
              requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)))
            })"""
            took = []
            for order in ("weight", "price", "name", "covers") * 6:
                took.append(PACE.timed(lambda order=order: page.evaluate(script, order)))
    lines.append(
        f"| coverage put in another order and drawn, 200 units x 12 setups, p95 of {len(took)} "
        f"| {np.percentile(took, 95):.0f} ms | | | 60 ms |"
    )


def served(lines: list[str]) -> None:
    """API answer, key press to redrawn verdict and lanes, start-up, with 200 units."""
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder))
        store.add("units", [unit.model_dump(mode="json") for unit in shelf(200)], "Shelf")
        noon = setups()[0].model_dump(mode="json")
        items = store.add("setups", [noon | {"note": f"{at}"} for at in range(MOST_KEPT + 1)], "Setups")
        store.close()
        up, first = (min(one) for one in zip(*(started(Path(folder), items[0].id) for _ in range(5)), strict=True))
        with Demo(Path(folder)) as url:
            line = http.client.HTTPConnection(url.removeprefix("http://").rstrip("/"))  # kept alive, as a browser does

            def get(path: str) -> bytes:
                try:
                    line.request("GET", f"/{path}")
                    return line.getresponse().read()
                except (http.client.RemoteDisconnected, BrokenPipeError, ConnectionResetError):
                    line.close()  # let go of while the machine was waited for
                    return get(path)

            turns = itertools.cycle(items)  # more than are kept: each is solved anew
            asked: dict[str, Callable[[], str]] = {
                "as it follows a nudge, solved already": lambda: f"api/setups/{items[0].id}/answer",
                "solved anew": lambda: f"api/setups/{next(turns).id}/answer",
            }
            for name, path in asked.items():
                pairs = [
                    (median_ms(lambda: get("api/empty"), 20), median_ms(lambda path=path: get(path()), 20))
                    for _ in range(10)
                ]
                empty, answer = (min(one) for one in zip(*pairs, strict=True))
                lines.append(
                    f"| answer for 200 units over the empty endpoint, kept-alive, {name} | {answer - empty:.1f} ms "
                    f"| empty {empty:.1f} ms | {answer / empty:.1f} | 5 ms |"
                )
            for presses, how, aim in zip(keys(url), ("", ", one upon the other"), (33, 50), strict=True):
                p95, middle = float(np.percentile(presses, 95)), statistics.median(presses)
                lines.append(
                    f"| key press to redrawn verdict and visible lanes, 200 units{how}, p95 of {len(presses)} "
                    f"| {p95:.0f} ms | median {middle:.0f} ms | | {aim} ms |"
                )
            drags, work = zip(*dragged(url), strict=True)
            lines.append(
                f"| drag of a light to redrawn stage, 200 units, p95 of {len(drags)} "
                f"| {np.percentile(drags, 95):.0f} ms | page work {np.percentile(work, 95):.0f} ms | | 50 ms, 33 ms |"
            )
            lines.append(
                f"| start to first answer, and to a setup's, best of five | {up:.2f}, {first:.2f} s | | | 1.2 s |"
            )
    first, whole = scripts_kb()
    lines.append(
        f"| scripts of the first view (a setup), gzipped | {first:.0f} kB | of all {whole:.0f} kB | | 140 kB |"
    )


def scripts_kb() -> tuple[float, float]:
    """What the page loads before a setup can be shown, and all that it can load, gzipped [kB]."""
    site = ROOT / "src/jumpstop/web"
    size = {file.name: len(gzip.compress(file.read_bytes())) / 1000 for file in (site / "assets").glob("*.js")}
    wanted = re.findall(r"assets/(index[\w-]*\.js)", (site / "index.html").read_text())
    wanted += [name for name in size if name.startswith("SetupView")]
    seen = set[str]()
    while wanted:
        name = wanted.pop()
        if name not in seen:
            seen.add(name)
            wanted += re.findall(r'(?:from|import)\s*"\./([\w.-]+\.js)"', (site / "assets" / name).read_text())
    return sum(size[name] for name in seen), sum(size.values())


def started(folder: Path, setup: str) -> tuple[float, float]:
    """Seconds from the command to its first answer, and to what a setup comes to."""
    PACE.wait()
    start = time.perf_counter()
    with Demo(folder) as url:
        urllib.request.urlopen(f"{url}api/empty").read()
        first = time.perf_counter() - start
        urllib.request.urlopen(f"{url}api/setups/{setup}/answer").read()
        return first, time.perf_counter() - start


def keys(url: str) -> tuple[list[float], list[float]]:
    """Milliseconds from key press to the frame after verdict and lanes in sight changed, both drawn at once: up or down
    as it comes, each a while after the one before; and each as soon as the one before is drawn, which none foresees."""
    with sync_playwright() as p:
        page = launch(p).new_page(viewport={"width": 1280, "height": 800})
        page.goto(url)
        page.get_by_test_id("headline").wait_for()
        page.get_by_role("spinbutton", name="Distance", exact=True).focus()
        page.wait_for_timeout(500)
        dice = random.Random(1)
        some = ["ArrowUp", "ArrowDown"] * 23
        dice.shuffle(some)
        single = [PACE.timed(lambda key=key: float(page.evaluate(NUDGE, key))) for key in some]
        held = [float(page.evaluate(NUDGE, key)) for key in some]
        return single[6:], held[6:]


def dragged(url: str) -> list[tuple[float, float]]:
    """(milliseconds from a pointer's move to the frame after the stage has followed, those spent in the page)."""
    with sync_playwright() as p:
        page = launch(p).new_page(viewport={"width": 1280, "height": 800})
        page.goto(url)
        page.get_by_test_id("headline").wait_for()
        page.wait_for_timeout(500)
        page.evaluate("""() => {
          const spot = document.querySelector('button.spot'), box = spot.getBoundingClientRect()
          window.at = [box.x + box.width / 2, box.y + box.height / 2]
          spot.setPointerCapture = () => {}
          spot.dispatchEvent(new PointerEvent('pointerdown', {bubbles: true, clientX: at[0], clientY: at[1]}))
        }""")
        script = """by => new Promise((done, missed) => {
          setTimeout(() => missed(new Error('the stage did not follow within 5 s')), 5000)
          performance.clearResourceTimings()
          const spot = document.querySelector('button.spot'), start = performance.now()
          const watch = new MutationObserver(() => { watch.disconnect(); requestAnimationFrame(() => setTimeout(() => {
            const end = performance.now()
            const all = performance.getEntriesByType('resource')
            const asked = all.filter(one => one.name.includes('/api/setups/')).at(-1)
            done([end - start, end - start - (asked ? asked.responseEnd - asked.startTime : 0)])
          })) })
          watch.observe(document.querySelector('.plan svg'), {subtree: true, childList: true, attributes: true})
          const to = {bubbles: true, clientX: at[0] + by, clientY: at[1] + by / 2}
          spot.dispatchEvent(new PointerEvent('pointermove', to))
        })"""
        taken, by = [], itertools.count()  # never twice to one place, where nothing would follow
        for _ in range(45):
            taken.append(PACE.timed(lambda: tuple(page.evaluate(script, 6 + 5 * (next(by) % 6)))))
        return taken[5:]


def large(lines: list[str]) -> None:
    """What large data takes of a server: time, and memory over what it held before."""
    with tempfile.TemporaryDirectory() as folder:
        server = Demo(Path(folder) / "data")
        with httpx.Client(base_url=server.url, timeout=120) as client:
            job = large_job(client, 60)
            _asked(lines, server, client, "cards of 60 setups", f"/api/jobs/{job}/cards.html")
            week = client.get("/api/jobs").json()[0]
            for people, chargers, unit_flashes in ((10_000, 0, None), (1, 2, 4)):
                _crowded(client, week["id"], people, chargers, unit_flashes)
                what = (
                    "day of 10,000 people" if people > 1 else "day of 1,320 charges of four flashes each, two chargers"
                )
                _asked(lines, server, client, what, f"/api/jobs/{week['id']}/day")
            _asked(lines, server, client, "calendar of the same", f"/api/jobs/{week['id']}/day.ics")
            entries = log_entries(client, 10_000)
            for at in range(0, 10_000, 2_500):
                log = {"format": "jumpstop-readings", "version": 1, "entries": entries[at : at + 2_500]}
                client.post("/api/log/import", content=json.dumps(log)).raise_for_status()
        server.kill()
        server.start()
        time.sleep(4)  # what is loaded late is there
        with httpx.Client(base_url=server.url, timeout=120) as client:
            for what, path in (("text", "text"), ("export, JSON", "export.json"), ("export, CSV", "export.csv")):
                _asked(lines, server, client, f"log of 10,000 entries, {what}", f"/api/log/{path}")
            file = client.get("/api/log/export.json").content
        server.kill()
        fresh = Demo(Path(folder) / "fresh")
        time.sleep(4)
        with httpx.Client(base_url=fresh.url, timeout=120) as client:
            _asked(lines, fresh, client, "log of 10,000 entries, import", "/api/log/import", file)
            frame = io.BytesIO()
            Image.effect_noise((750, 625), 60).resize((6000, 4160)).convert("RGB").save(
                frame, "JPEG", progressive=True, subsampling=0
            )
            whole = "/api/frame?x=0&y=0&w=1&h=1"
            _asked(lines, fresh, client, "test frame, 25 million pixels, progressive", whole, frame.getvalue())
        fresh.kill()


def _crowded(client: httpx.Client, job: str, people: int, chargers: int, flashes: int | None) -> None:
    """The week's first session, with so many people; or one person whose frames empty so many small charges."""
    item = client.get(f"/api/jobs/{job}").json()
    session = item["doc"]["sessions"][0] | {"people": people, "start": None}
    if flashes is not None:
        session |= {"frames_each": 10_000, "minutes_each": 500.0, "tests": 0.0}
        for unit in client.get("/api/units").json():
            supplies = [one | {"full_flashes": flashes} for one in unit["doc"]["power_supplies"]]
            doc, etag = unit["doc"] | {"power_supplies": supplies}, {"if-match": f'"{unit["revision"]}"'}
            client.put(f"/api/units/{unit['id']}", json=doc, headers=etag).raise_for_status()
    doc = item["doc"] | {"sessions": [session], "chargers": chargers, "charge_h": 0.2}
    etag = {"if-match": f'"{item["revision"]}"'}
    client.put(f"/api/jobs/{job}", json=doc, headers=etag).raise_for_status()


def _asked(
    lines: list[str], server: Demo, client: httpx.Client, what: str, path: str, body: bytes | None = None
) -> httpx.Response:
    def held(name: str) -> int:
        text = Path(f"/proc/{server.process.pid}/status").read_text()
        return int(next(line for line in text.splitlines() if line.startswith(name)).split()[1]) // 1024

    PACE.wait()
    Path(f"/proc/{server.process.pid}/clear_refs").write_text("5")  # the highest memory counts from here
    before, start = held("VmRSS"), time.perf_counter()
    answer = client.get(path) if body is None else client.post(path, content=body)
    took = time.perf_counter() - start
    answer.raise_for_status()
    lines.append(f"| {what} | {took:.2f} s | {held('VmHWM') - before:+d} MB | | 2 s, 200 MB |")
    return answer


def shelves(lines: list[str]) -> None:
    """The shelf at a glance and its map, asked for and drawn; a page of a maker read."""
    for count, aim in ((200, "100 ms"), (5000, "400 ms")):
        with tempfile.TemporaryDirectory() as folder:
            store = Store(Path(folder))
            store.add("units", [unit.model_dump(mode="json") for unit in shelf(count)], "Shelf")
            store.close()
            with Demo(Path(folder)) as url, httpx.Client(base_url=url, timeout=120) as client:
                for name, path in (("at a glance", "api/shelf/glance"), ("map", "api/shelf/map")):
                    client.get(path).raise_for_status()
                    took = min(median_ms(lambda path=path: client.get(path), 3) for _ in range(5))
                    lines.append(f"| shelf of {count:,}, {name}, answered | {took:.0f} ms | | | {aim} |")
                sort, drawn = drawings(url)
                lines.append(f"| shelf of {count:,}, sorted by a heading and drawn | {sort:.0f} ms | | | {aim} |")
                lines.append(f"| shelf of {count:,}, map drawn, the answer apart | {drawn:.0f} ms | | | {aim} |")
                if count == 200:
                    said = ("Guide number: {} m (ISO 100, 105 mm)", "Peso: {},6 kg", "Box of {} papers, grey")
                    sheet = "\n".join(one.format(at) for at in range(10, 300) for one in said)
                    fresh = itertools.count(300)  # never twice the same, so that nothing of it is kept

                    def pasted(client: httpx.Client = client, sheet: str = sheet, fresh: Any = fresh) -> None:
                        text = sheet.replace("Box", f"Box {next(fresh)}").replace(" (ISO", f" {next(fresh)} Ws (ISO")
                        text = text.replace("Peso", f"{next(fresh)} flashes; peso")
                        client.post("api/shelf/spec", json={"text": text[:20_000]}).raise_for_status()

                    pasted()
                    took = min(median_ms(pasted, 3) for _ in range(5))
                    lines.append(f"| a maker's page of 20 kB to fields | {took:.0f} ms | | | 150 ms |")


def drawings(url: str) -> tuple[float, float]:
    """(a heading touched until its order is drawn, the map until it is), each the quickest of some [ms]."""
    with sync_playwright() as playwright:
        browser = launch(playwright)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{url}#/shelf")
        page.get_by_role("button", name="Sort by Weight").wait_for()
        sorts, maps = [], []
        script = (
            "async name => { const one = [...document.querySelectorAll('button')].find(b => b.ariaLabel === name || "
            "b.textContent.trim() === name); const start = performance.now(); one.click(); "
            "await new Promise(done => requestAnimationFrame(() => setTimeout(done))); "
            "return performance.now() - start }"
        )
        for name in ("Sort by Weight", "Sort by Light") * 4:
            sorts.append(page.evaluate(script, name))
        for _ in range(4):
            page.evaluate(script, "At a glance")
            maps.append(page.evaluate(script, "Map"))
            page.get_by_test_id("map-says").wait_for()
        browser.close()
        return min(sorts[2:]), min(maps)


PARTS: dict[str, Callable[[list[str]], None]] = {
    "solving": core,
    "search": search,
    "lights": by_lights,
    "jobs": jobs,
    "learning": learning,
    "coverage": redrawn,
    "server": served,
    "large": large,
    "shelves": shelves,
}
HEAD = """# Benchmarks

Written by `make bench`, one part by `make bench PART=server`, which waits longer for a busy machine with `WAIT_S=600`;
compare the ratios: machines differ. The quietest of ten rounds counts. Methods and ambient are kept while only lights
move, and are not asked for anew in `solve`. Pace: what `sum(i * i for i in range(300_000))` took in Python just before
each round [ms]; a round waits until that is about the fastest seen, a while. Each part says when it was measured, with
the newest commit of then.
"""
TABLE = "| what | took | against | ratio | aim | pace |\n|---|---|---|---|---|---|\n"


def parts_of(text: str) -> dict[str, str]:
    """The parts of an earlier run, by their names."""
    return {part.split(",")[0]: part for part in text.split("\n## ")[1:]}


def main(asked: list[str]) -> None:
    """All of it, or the parts asked for: the others stay as they were measured."""
    path = ROOT / "docs" / "benchmarks.md"
    parts = parts_of(path.read_text(encoding="utf-8").rstrip("\n"))
    commit = subprocess.run(["git", "rev-parse", "--short", "HEAD"], cwd=ROOT, capture_output=True, text=True)
    for name in asked or PARTS:
        rows: list[str] = []
        PARTS[name](rows)
        pace = PACE.said()
        lines = [f"{row} {pace} |" for row in rows]
        when = f"{datetime.now():%Y-%m-%d}, {commit.stdout.strip()}"
        parts[name] = f"{name}, {when}\n\n{TABLE}" + "\n".join(lines) + "\n"
    text = HEAD + "".join(f"\n## {parts[name].rstrip()}\n" for name in PARTS if name in parts)
    path.write_text(text, encoding="utf-8")
    print(text)


if __name__ == "__main__":
    main(sys.argv[1:])
