"""What is to outlive anything, tried for long: `make soak PART=…` with one of PARTS, all without.

pages: seeded runs of random edits and faults in real pages. kills: the server killed under writes of all kinds. starts:
first starts and migrations cut off. studio: fifty phones that log and ten pages that nudge, on one server. verdicts:
setups, findings, kits, jobs, the API's contract, sheets and drills over hundreds of generated cases. devices: scripts
that log while a page is nudged. days: jobs that play themselves. RUNS says how many, FROM the first; SEED another seed;
MINUTES how long the studio is open.
"""

import asyncio
import os
import random
import shutil
import signal
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from concurrent.futures import ProcessPoolExecutor
from contextlib import suppress
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import httpx
from playwright.sync_api import Error

from acts import ACTS, asked, chosen, go, home, troubled, wait_until
from cases import LONG
from chromium import NUDGE, Demo, launch
from cuts import STARTS, cut_off, prepared, sound, started, steps_of

SEED = int(os.environ.get("SEED", "20261129"))
FROM = int(os.environ.get("FROM", "0"))  # the first run of pages


def runs(usual: int) -> int:
    """How many were asked for."""
    return int(os.environ.get("RUNS", usual))


def pages(folder: Path) -> str:
    """Random edits and faults, reloads, two tabs, and another client's edits beside them: all are there in the end."""
    count = runs(300)
    with get_context("spawn").Pool(2) as pool:  # a browser and a server each
        halves = [(folder / str(half), range(FROM + half, FROM + count, 2)) for half in range(2)]
        found = pool.starmap(_pages, halves)
    lost, overwritten = (sum(one[at] for one in found) for at in range(2))
    assert not lost
    assert not overwritten
    return f"pages: {count} runs, 0 lost, 0 overwritten in silence"


def _pages(folder: Path, seeds: range) -> tuple[int, int]:
    """(what was lost, what was overwritten) in some of the runs."""
    from playwright.sync_api import sync_playwright

    lost, overwritten = 0, 0
    with Demo(folder / "data") as url, sync_playwright() as playwright:
        browser = launch(playwright)
        tabs: list[Any] = []
        for at, run in enumerate(seeds):
            dice = random.Random(SEED + run)
            if at % 20 == 0:
                for tab in tabs[:1]:
                    tab.context.close()
                context = browser.new_context(viewport={"width": 1280, "height": 800})
                tabs = [context.new_page() for _ in range(2)]
                for tab in tabs:
                    keep = tab.get_by_role("button", name="Keep what is on this screen")
                    tab.add_locator_handler(keep, lambda button: button.click())
                    tab.goto(url)
                    tab.get_by_test_id("headline").wait_for()
            done = [_edited(tabs, run * 10 + turn + 1, dice) for turn in range(dice.randrange(2, 5))]
            for tab in tabs:
                tab.unroute_all(behavior="ignoreErrors")
                tab.evaluate("dispatchEvent(new Event('online'))")  # as the browser says when there is a network again
            for tab in tabs:
                _settled(tab, run)
            for kind, number, note in done:
                alike = [other for one, other, _ in done if one == kind] if kind in FIGURES else [number]
                if not any(ACTS[kind].there(tabs[0], one) for one in alike):
                    lost += 1
                    print(f"run {run}: {kind} {number} is lost", flush=True)
                overwritten += bool(note) and not _noted(tabs[0], note)
            if at % 50 == 49:
                print(f"{at + 1} runs of {len(seeds)}, {lost} lost, {overwritten} overwritten", flush=True)
        browser.close()
    return lost, overwritten


FIGURES = {"setup", "job", "unit", "preferences"}  # where the same is changed again; the others add something


def _edited(tabs: list[Any], number: int, dice: random.Random) -> tuple[str, int, str]:
    """One edit in one of the tabs that meets a fault, perhaps another client's beside it, perhaps a reload.

    (what was edited, its number, what the other client wrote).
    """
    tab, (kind, fault), note = dice.choice(tabs), chosen(dice), ""
    troubled(tab, ACTS[kind].sent_to, fault, dice.choice((1, 2, 3, 1_000_000)))
    go(tab, ACTS[kind].view)
    ACTS[kind].do(tab, number)
    if dice.random() < 0.5:
        note = f"beside {number}"
        _beside(tab, dice.choice(("jobs", "setups")), note)
    if dice.random() < 0.4:
        tab.reload()
        tab.get_by_test_id("saving").wait_for()
    return kind, number, note


def _settled(tab: Any, run: int) -> None:
    """Wait until a tab says that all is saved. Raises AssertionError with what it says instead."""
    try:
        wait_until(lambda: _saved(tab), 40)
    except AssertionError:
        said = tab.get_by_test_id("saving")
        if said.get_by_role("button").count():
            said.get_by_role("button").click()
        why = tab.get_by_role("dialog").all_inner_texts()
        raise AssertionError(f"run {run}: {said.text_content()!r} after 40 s: {why}") from None


def _saved(tab: Any) -> bool:
    """Whether a tab says that all is saved; where two changed the same, what is on its screen is kept."""
    keep = tab.get_by_role("button", name="Keep what is on this screen")
    if keep.count():
        with suppress(Error):  # the page's handler may have been quicker
            keep.first.dispatch_event("click", timeout=1000)
    return bool(tab.get_by_test_id("saving").text_content() == "Saved")


def _beside(tab: Any, kind: str, note: str) -> None:
    """Another client's edit of a field that the pages leave alone."""
    for _ in range(20):
        item = asked(tab, f"api/{kind}")[0]
        before = item["doc"]["note"]
        doc = item["doc"] | {"note": f"{before[-1500:]}|{note}|"}
        etag = {"if-match": f'"{item["revision"]}"'}
        if tab.context.request.put(f"{home(tab)}api/{kind}/{item['id']}", data=doc, headers=etag).ok:
            return
    raise AssertionError("the other client never came through")


def _noted(tab: Any, note: str) -> bool:
    return any(f"|{note}|" in asked(tab, f"api/{kind}")[0]["doc"]["note"] for kind in ("jobs", "setups"))


class Server:
    """A server over a folder that can be killed and started again at once: all it is made of is loaded already."""

    def __init__(self, folder: Path) -> None:
        import alembic.command  # noqa: F401
        import uvicorn  # noqa: F401

        from jumpstop.api import app, jobs, log, tools  # noqa: F401
        from jumpstop.demo import begin
        from jumpstop.store.file import FILE

        self.folder = folder
        if not (folder / FILE).exists():
            begin(folder)
        self.socket = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        self.socket.bind(("127.0.0.1", 0))
        self.socket.listen(128)
        self.url = f"http://127.0.0.1:{self.socket.getsockname()[1]}"
        self.start()

    def start(self) -> None:
        """Start it."""
        self.child = os.fork()
        if self.child == 0:
            import uvicorn

            from jumpstop.api.app import create_app

            uvicorn.Server(uvicorn.Config(create_app(self.folder), log_level="critical")).run(sockets=[self.socket])
            os._exit(0)

    def kill(self) -> None:
        """Stop it as a power cut would stop the program."""
        os.kill(self.child, signal.SIGKILL)
        os.waitpid(self.child, 0)


class Writer:
    """Writes of all kinds, one after the other, on documents of its own; knows what was acknowledged."""

    def __init__(self, url: str, name: str) -> None:
        self.url, self.name, self.number = url, name, 0
        self.acknowledged: dict[tuple[str, str], int] = {}
        self.sent: dict[str, str] = {}  # kept once each, by their ids: what they are
        self.count = 0
        self.items: dict[str, str] = {}

    def begin(self) -> None:
        """Documents of its own of every kind that is changed in place."""
        with httpx.Client(base_url=self.url, timeout=10) as client:
            for kind in ("setups", "jobs", "units", "bodies"):
                doc = client.get(f"/api/{kind}").json()[0]["doc"] | {"name": self.name, "note": "0"}
                made = client.post(f"/api/{kind}", json=doc | ({"sessions": []} if kind == "jobs" else {}))
                made.raise_for_status()
                self.items[kind] = made.json()["id"]
                self.acknowledged[kind, self.items[kind]] = 0

    def write(self, stop: threading.Event) -> None:
        """Until told to stop, or the server is gone."""
        dice = random.Random(f"{self.name} {self.number}")
        with httpx.Client(base_url=self.url, timeout=5) as client:
            while not stop.is_set():
                try:
                    self._one(client, dice)
                except httpx.HTTPError:
                    return

    def _one(self, client: httpx.Client, dice: random.Random) -> None:
        self.number += 1
        what = dice.choice((*self.items, "filters", "log", "undo"))
        if what in self.items:
            path = f"/api/{what}/{self.items[what]}"
            item = client.get(path).json()
            etag = {"if-match": f'"{item["revision"]}"', "x-page": self.name}
            answer = client.put(path, json=item["doc"] | {"note": str(self.number)}, headers=etag)
            answer.raise_for_status()
            self.acknowledged[what, self.items[what]] = self.number
        elif what == "undo":
            client.post("/api/undo", headers={"x-page": "nobody"}).raise_for_status()
        else:
            key = f"{self.name}-{self.number}"
            self.sent[key] = what
            self._keep(client, what, key)
        self.count += 1

    def _keep(self, client: httpx.Client, what: str, key: str) -> None:
        if what == "filters":
            client.post(f"/api/filters/keep/{key}", json={"name": key, "stops": 1}).raise_for_status()
        else:
            entry = {"name": key, "at": "2026-06-24T12:00:00", "flashes": 1}
            client.post(f"/api/log/keep/{key}", json=entry).raise_for_status()

    def missing(self, client: httpx.Client) -> int:
        """How many acknowledged changes are not there."""
        lost = 0
        for (kind, item), number in self.acknowledged.items():
            lost += int(client.get(f"/api/{kind}/{item}").json()["doc"]["note"]) < number
        return lost

    def again(self, client: httpx.Client) -> None:
        """Send all that is kept once a second time, as a page does that heard no answer."""
        for key, what in self.sent.items():
            self._keep(client, what, key)


def kills(folder: Path) -> str:
    """The server killed under writes of all kinds: what was acknowledged is there, once."""
    count, lost, written = runs(1000), 0, 0
    server, dice = Server(folder / "data"), random.Random(SEED)
    writers = [Writer(server.url, f"w{at}") for at in range(4)]
    for writer in writers:
        writer.begin()
    for turn in range(count):
        stop = threading.Event()
        threads = [threading.Thread(target=writer.write, args=(stop,)) for writer in writers]
        for thread in threads:
            thread.start()
        enough = sum(writer.count for writer in writers) + dice.randrange(1, 25)
        wait_until(lambda enough=enough: sum(writer.count for writer in writers) >= enough)  # type: ignore[misc]
        time.sleep(dice.uniform(0, 0.02))
        stop.set()  # what is under way is cut off
        server.kill()
        for thread in threads:
            thread.join()
        server.start()
        with httpx.Client(base_url=server.url, timeout=20) as client:
            lost += sum(writer.missing(client) for writer in writers)
        if turn % 100 == 99:
            print(f"{turn + 1} kills, {sum(one.count for one in writers):,} writes, {lost} lost", flush=True)
    written = sum(writer.count for writer in writers)
    with httpx.Client(base_url=server.url, timeout=20) as client:
        for writer in writers:
            writer.again(client)
        names = [one["doc"]["name"] for one in client.get("/api/filters").json()]
        entries, after = list[str](), 0
        while True:
            text = client.get("/api/log/text", params={"most": 500, "after": after}).json()
            entries += [one["name"] for one in text["entries"]]
            after += 500
            if not text["more"]:
                break
    doubled = 0
    for writer in writers:
        for key, what in writer.sent.items():
            found = (names if what == "filters" else entries).count(key)
            lost += found == 0
            doubled += found > 1
    server.kill()
    assert not lost, lost
    assert not doubled, doubled
    return f"kills: {count:,} kills under {written:,} acknowledged writes, 0 lost, 0 doubled"


def starts(folder: Path) -> str:
    """First starts and migrations cut off, and the next start as well: the one after that works and has all."""
    import alembic.command  # noqa: F401  # before the forks

    count, dice, bad = runs(200), random.Random(SEED), 0
    steps = {kind: steps_of(folder, kind) for kind in STARTS}
    for turn in range(count):
        kind = STARTS[turn % len(STARTS)]
        here = folder / f"start{turn}"
        prepared(here, kind)
        for _ in range(dice.choice((1, 1, 2, 3))):
            cut_off(lambda: started(here, kind), dice.randrange(steps[kind]))  # noqa: B023
        try:
            started(here, kind)
            bad += not sound(here, kind)
        except Exception as error:
            bad += 1
            print(f"{kind}: {error}", flush=True)
        copies = [one for one in here.iterdir() if one.name.startswith("before-")]
        bad += len(copies) > 1
        shutil.rmtree(here)
    assert not bad, bad
    return f"starts: {count} first starts and migrations cut off (of up to {max(steps.values())} steps), 0 unusable"


PHONES, PAGES = 50, 10


async def _studio(url: str, seconds: float) -> tuple[list[float], dict[str, int], list[float]]:
    """(answers [ms], entries sent by phones, starts of a page [s])."""
    answers: list[float] = []
    sent: dict[str, int] = {}
    end = time.monotonic() + seconds
    limits = httpx.Limits(max_connections=None)

    async def timed(client: httpx.AsyncClient, method: str, path: str, **more: Any) -> Any:
        start = time.perf_counter()
        answer = await client.request(method, path, **more)
        answers.append((time.perf_counter() - start) * 1000)
        answer.raise_for_status()
        return answer.json()

    async def phone(number: int, client: httpx.AsyncClient) -> None:
        dice = random.Random(number)
        await asyncio.sleep(dice.uniform(0, 10))  # people come in one after the other
        job = (await timed(client, "GET", "/api/jobs"))[0]["id"]
        setups = (await timed(client, "GET", "/api/setups"))[:10]
        setup = dice.choice(setups)["id"]
        seen = await timed(client, "GET", f"/api/log/set/{job}/{setup}")
        blank = next((one["blank"] for one in seen["lights"] if one["blank"]), seen["ambient"])
        count = 0
        while time.monotonic() < end:
            await asyncio.sleep(dice.uniform(5, 15))
            entry = blank | {"note": f"phone {number}", "flashes": count, "at": "2026-06-24T12:00:00"}
            await timed(client, "POST", f"/api/log/keep/p{number}-{count}", json=entry)
            count += 1
            sent[str(number)] = count

    async def nudger(number: int, client: httpx.AsyncClient) -> None:
        dice = random.Random(1000 + number)
        await asyncio.sleep(dice.uniform(0, 10))
        setups = await timed(client, "GET", "/api/setups")
        item = await timed(client, "POST", f"/api/setups/{setups[number % 10]['id']}/copy")
        doc, revision = item["doc"], item["revision"]
        while time.monotonic() < end:
            for _ in range(dice.randrange(3, 8)):  # a figure is nudged some times, and looked at
                doc = doc | {"frames": doc["frames"] + 1}
                etag = {"if-match": f'"{revision}"', "x-page": f"n{number}"}
                solved = await timed(client, "PUT", f"/api/setups/{item['id']}", json=doc, headers=etag)
                revision = solved["revision"]
                await asyncio.sleep(dice.uniform(0.15, 0.3))
            await asyncio.sleep(dice.uniform(1, 3))
        stored = await timed(client, "GET", f"/api/setups/{item['id']}")
        assert stored["doc"]["frames"] == doc["frames"]

    async with httpx.AsyncClient(base_url=url, timeout=30, limits=limits) as client:
        with ProcessPoolExecutor(
            1, get_context("spawn"), os.nice, (10,)
        ) as away:  # it shall not take the server's time
            opened = asyncio.get_running_loop().run_in_executor(away, _opened, url, seconds)
            await asyncio.gather(
                *(phone(at, client) for at in range(PHONES)), *(nudger(at, client) for at in range(PAGES))
            )
            return answers, sent, await opened


def _opened(url: str, seconds: float) -> list[float]:
    """How long a page took to stand [s], of each that was opened, one after the other over all the time."""
    from playwright.sync_api import sync_playwright

    out: list[float] = []
    begin = time.monotonic()
    with sync_playwright() as playwright:
        browser = launch(playwright)
        for at in range(PAGES):
            time.sleep(max(0.0, begin + (at + 0.5) * seconds / PAGES - time.monotonic()))
            page = browser.new_page()
            start = time.perf_counter()
            page.goto(url)
            page.get_by_test_id("headline").wait_for()
            out.append(time.perf_counter() - start)
            page.close()
        browser.close()
    return out


def studio(folder: Path) -> str:
    """Fifty phones and ten pages on one server: answers stay quick, and every entry is there."""
    with Demo(folder / "data") as url:
        minutes = float(os.environ.get("MINUTES", "5"))
        answers, sent, opened = asyncio.run(_studio(url, minutes * 60))
        with httpx.Client(base_url=url, timeout=30) as client:
            there, after = 0, 0
            while True:
                text = client.get("/api/log/text", params={"most": 500, "after": after}).json()
                there += sum(one["note"].startswith("phone ") for one in text["entries"])
                after += 500
                if not text["more"]:
                    break
    p95 = statistics.quantiles(answers, n=20)[-1]
    lost = sum(sent.values()) - there
    said = (
        f"studio: {len(answers):,} answers in {minutes:g} min, median {statistics.median(answers):.0f} ms, "
        f"p95 {p95:.0f} ms; a page stands after {max(opened):.1f} s at most (of {len(opened)}); {there:,} entries, "
        f"{lost} lost"
    )
    print(said, flush=True)
    assert not lost
    assert p95 < 100, said
    assert max(opened) < 2, said
    return said


TESTS = Path(__file__).parent.parent / "tests"


def verdicts(folder: Path) -> str:
    """Verdicts, findings, kits, answers of jobs, the API's contract, sheets and drills, over many more generated cases
    than in `make test`."""
    many = {key: os.environ.get(key, usual) for key, (usual, _) in LONG.items()}
    said = _tested(folder, many, *(place for _, place in LONG.values()))
    return f"{', '.join(f'{key} {count}' for key, count in many.items())}: {'; '.join(said)}"


def _tested(folder: Path, many: dict[str, str], *places: str) -> list[str]:
    """What tests have said that are run with so many cases each."""
    command = [sys.executable, "-m", "pytest", "-q", "-s", "-p", "no:xdist", f"--basetemp={folder / 'tests'}"]
    command += [str(TESTS / place) for place in places]
    done = subprocess.run(command, env=os.environ | many, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout[-4000:]
    return [line for line in done.stdout.splitlines() if " right" in line]


QUICK_MS = 100  # a nudge, beside all that a device sends
EVERY_S = 0.05  # from one reading to the next: far quicker than any hand or meter


def devices(folder: Path) -> str:
    """Readings that scripts post while a person nudges in a page: none is lost or doubled, and the page stays quick."""
    from playwright.sync_api import sync_playwright

    many, failed, nudges, told = runs(10_000), list[str](), list[float](), list[float]()
    with Demo(folder / "data") as url:

        def device() -> None:
            with httpx.Client(base_url=url, timeout=60) as client:
                for at in range(many):
                    entry = {"name": f"Reading {at}", "at": "2026-06-24T12:00:00", "celsius": 20}
                    start = time.perf_counter()
                    answer = client.post(f"/api/log/keep/reading-{at}", json=entry)
                    told.append(1000 * (time.perf_counter() - start))
                    time.sleep(max(0.0, EVERY_S - (time.perf_counter() - start)))
                    if answer.status_code != 200:
                        failed.append(answer.text)

        with sync_playwright() as playwright:
            page = launch(playwright).new_page(viewport={"width": 1280, "height": 800})
            page.goto(url)
            page.get_by_test_id("headline").wait_for()
            page.get_by_role("spinbutton", name="Distance", exact=True).focus()
            script = threading.Thread(target=device)
            script.start()
            while script.is_alive():
                nudges.append(float(page.evaluate(NUDGE, "ArrowUp" if len(nudges) % 2 else "ArrowDown")))
                time.sleep(0.3)
        there, after = set[str](), 0
        with httpx.Client(base_url=url, timeout=60) as client:
            while True:
                text = client.get("/api/log/text", params={"most": 500, "after": after}).json()
                there |= {one["id"] for one in text["entries"]}
                after += len(text["entries"])
                if not text["more"]:
                    break
    p95 = statistics.quantiles(nudges, n=20)[-1]
    eighths = [nudges[at * len(nudges) // 8 : (at + 1) * len(nudges) // 8] for at in range(8)]
    by_eighths = ", ".join(f"{statistics.median(one):.0f}" for one in eighths)
    quick = sum(one < QUICK_MS for one in nudges) / len(nudges)
    said = (
        f"devices: {many:,} readings, {many - len(there):,} lost, {after - len(there)} doubled, median "
        f"{statistics.median(told):.0f} ms each; {len(nudges)} nudges beside, median "
        f"{statistics.median(nudges):.0f} ms (by eighths {by_eighths}), p95 {p95:.0f} ms, {quick:.0%} under {QUICK_MS}"
    )
    print(said, flush=True)
    assert not failed, failed[0]
    assert len(there) == after == many
    assert statistics.median(nudges) < QUICK_MS, said
    return said


def days(folder: Path) -> str:
    """Days that play themselves: what they teach is calibrated, over many more than in `make test`."""
    many = os.environ.get("DAYS", "500")
    _tested(folder, {"DAYS": many}, "standins/test_location.py")
    return f"days: {many} of them calibrated"


PARTS = {
    "pages": pages, "kills": kills, "starts": starts, "studio": studio, "verdicts": verdicts, "devices": devices,
    "days": days,
}  # fmt: skip


def main() -> int:
    """Run the parts that are asked for; the exit code is 1 where anything was lost."""
    told, start = [], time.monotonic()
    for name in sys.argv[1:] or PARTS:
        with tempfile.TemporaryDirectory() as folder:
            told.append(f"{PARTS[name](Path(folder))}  ({time.monotonic() - start:.0f} s)")
        print(told[-1], flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
