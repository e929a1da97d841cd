"""Generated documents on ids that exist, whose texts hold braces, markup and control characters: `make fuzz`.

Every answer must be one that the API describes, and none of them 5xx. CASES requests (20,000 unless said), seeded.
"""

import json
import os
import random
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from jumpstop.api.app import create_app
from jumpstop.demo import fill
from jumpstop.store.documents import Store

# What may be stored: it must come back letter for letter, and be run by nobody.
KEPT = [
    "{name}", "{0}", "{name:>99999999}", "{{}}", "{basis} {names}", "%s %(x)s", "<b onclick=x>&amp;", "é🙂", "a;=b",
    "“q” \"d\" 's' \\", "\u202ertl \u2066x", "=cmd|' /C calc'!A0", "inner {1 stop}",
]  # fmt: skip
REFUSED = ["a\x00b", "a\x1b[31m", "two\nlines", "\x85next", "\ud800", "x" * 3000, "", "  "]
FIGURES: list[Any] = [
    0, -1, 1, 0.5, 1e-300, 1e300, 5e-324, 2**53, float("inf"), float("nan"), True, False, None, "1", "1/250", [], {},
    [[]], -0.0, 0.004, 1 / 8000, 36, 250, 1e9,
]  # fmt: skip
ODD: list[Any] = [*KEPT, *REFUSED, *FIGURES]
PROSE = ("name", "note", "reflector")


def reworded(value: Any, dice: random.Random, key: str = "") -> Any:
    """A document with its names and notes set to odd texts: mostly such as may be stored."""
    if isinstance(value, dict):
        return {name: reworded(one, dice, name) for name, one in value.items()}
    if isinstance(value, list):
        return [reworded(one, dice, key) for one in value]
    if key in PROSE and isinstance(value, str) and dice.random() < 0.6:
        return dice.choice(KEPT if dice.random() < 0.97 else REFUSED)
    return value


def mutated(value: Any, dice: random.Random) -> Any:
    """A document with some of its values set to something odd."""
    if isinstance(value, dict):
        out = {key: mutated(one, dice) for key, one in value.items()}
        if dice.random() < 0.02:
            out[dice.choice(KEPT)] = dice.choice(ODD)
        if out and dice.random() < 0.03:
            out.pop(dice.choice(list(out)))
        return out
    if isinstance(value, list):
        out_list = [mutated(one, dice) for one in value]
        return out_list * dice.choice((0, 1, 1, 1, 2)) if dice.random() < 0.05 else out_list
    return dice.choice(ODD) if dice.random() < 0.03 else value


def asked(client: TestClient, dice: random.Random, known: dict[str, list[dict[str, Any]]]) -> tuple[str, int]:
    """One request on something that exists, and what came of it."""
    kind = dice.choice(list(known))
    stored = dice.choice(known[kind])
    body = json.dumps(reworded(stored["doc"], dice) if dice.random() < 0.6 else mutated(stored["doc"], dice))
    headers = {"content-type": "application/json", "x-page": dice.choice(("a", "b"))}
    label = dice.choice(("Frames", "{name}", "a\x00", "x" * 300))
    what = dice.random()
    if what < 0.75:
        headers["if-match"] = f'"{stored["revision"]}"'
        answer = client.put(f"/api/{kind}/{stored['id']}", content=body, headers=headers, params={"label": label})
        if answer.status_code == 200:
            found = answer.json()
            stored |= {"revision": found["revision"]} | (
                {"doc": found["doc"]} if dice.random() < 0.1 and "doc" in found else {}
            )
        return f"PUT {kind}", answer.status_code
    if what < 0.85 and kind == "setups":
        path = dice.choice(("answer", "day", "timing", f"lanes/{dice.choice(known['units'])['id']}"))
        params = {"light": dice.choice((0, 1, 7)), "method": dice.choice(("nd", "hss", "sync", "freeze"))}
        return f"GET {path[:5]}", client.get(f"/api/setups/{stored['id']}/{path}", params=params).status_code
    if what < 0.9:
        return "POST solve", client.post("/api/solve", content=f'{{"setup": {body}}}', headers=headers).status_code
    if what < 0.95:
        text = f"name,guide_number\n{dice.choice([*KEPT, *REFUSED])},{dice.choice(KEPT)}\n".encode(
            "utf-8", "surrogatepass"
        )
        return "POST import", client.post("/api/shelf/import", content=text).status_code
    path = dice.choice(("units", "shelf", "shelf/export.csv", "unreadable", "history", "modifiers", "setups"))
    return f"GET {path}", client.get(f"/api/{path}", headers={"x-page": "a"}).status_code


def main() -> int:
    """Ask, count, and say what was answered; the exit code is 1 where anything was 5xx."""
    cases = int(os.environ.get("CASES", "20000"))
    dice = random.Random(20261125)
    counts: Counter[tuple[str, int]] = Counter()
    start = time.perf_counter()
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder))
        fill(store)
        store.close()
        with TestClient(create_app(Path(folder)), base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
            known = {
                kind: client.get(f"/api/{kind}").json()
                for kind in ("setups", "units", "modifiers", "bodies", "filters", "jobs")
            }
            for _ in range(cases):
                counts[asked(client, dice, known)] += 1
    for (what, status), count in sorted(counts.items()):
        print(f"{what:24} {status}  {count:,}")
    bad = sum(count for (_, status), count in counts.items() if status >= 500)
    print(f"{cases:,} cases in {time.perf_counter() - start:.0f} s: {bad} answered 5xx")
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
