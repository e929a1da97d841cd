"""Generated requests of every operation on things that exist: odd texts, dates and numbers at bounds: `make fuzz`.

No answer may be 5xx, none may take over five seconds, and memory must not grow. CASES requests (100,000 unless said),
seeded.
"""

import json
import os
import random
import re
import sys
import tempfile
import time
from collections import Counter
from pathlib import Path
from typing import Any
from urllib.parse import quote

from fastapi.testclient import TestClient

from jumpstop.api.app import create_app
from jumpstop.demo import begin

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
DATES = [
    "9999-12-31", "0001-01-01", "1900-01-01", "2199-12-31", "2026-03-29", "2024-02-29", "2026-06-24T12:00:00",
    "9999-12-31T23:59:59", "0001-01-01T00:00:00", "2026-02-30",
]  # fmt: skip
BLOCK, MOST_S, MOST_GROWN_MB = 4000, 5.0, 100.0
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


Operation = tuple[str, str, dict[str, Any]]
PARAMETER = re.compile(r"\{(\w+)\}")
KINDS = (
    "setups",
    "units",
    "modifiers",
    "bodies",
    "lenses",
    "filters",
    "triggers",
    "batteries",
    "stands",
    "jobs",
    "log",
)
CLOCKS = ["00:00", "23:59", "23:59:59", "12:30", "12:30+05:00", "24:00"]
IDS = {"setup_id": "setups", "job_id": "jobs", "unit_id": "units", "like": "setups", "setup": "setups", "job": "jobs"}


def operations(described: dict[str, Any]) -> list[Operation]:
    """(method, path, its description) of every operation."""
    return [
        (method.upper(), path, operation)
        for path, methods in described["paths"].items()
        for method, operation in methods.items()
    ]


def figure_of(name: str, schema: dict[str, Any], known: dict[str, list[dict[str, Any]]], dice: random.Random) -> Any:
    """A value for a parameter: mostly one that may be, at its bounds; else anything."""
    if dice.random() < 0.08:
        return dice.choice([one for one in ODD if isinstance(one, str | int | float) and one != "\ud800"])
    options = schema.get("anyOf", [schema])
    chosen = dice.choice(options)
    if chosen.get("type") == "array":
        return [figure_of(name, chosen.get("items", {}), known, dice) for _ in range(dice.choice((1, 1, 2, 5)))]
    if "enum" in chosen:
        return dice.choice(chosen["enum"])
    if chosen.get("type") in ("number", "integer"):
        low = chosen.get("minimum", chosen.get("exclusiveMinimum", 0))
        high = chosen.get("maximum", chosen.get("exclusiveMaximum", 10**6))
        return dice.choice((low, high, (low + high) / 2 if chosen["type"] == "number" else (low + high) // 2))
    if chosen.get("type") == "boolean":
        return dice.choice(("true", "false"))
    if chosen.get("format") in ("time", "date", "date-time"):
        return dice.choice(DATES if chosen["format"] == "date" else CLOCKS)
    kind = IDS.get(name, dice.choice(KINDS))
    return (
        dice.choice(known[kind])["id"] if known[kind] and dice.random() < 0.8 else dice.choice(("", "a", "hss", "nd"))
    )


def body_of(path: str, operation: Any, stored: Any, known: Any, dice: random.Random) -> bytes | None:
    """What is sent: the stored document, changed; for other addresses what the description shows, changed."""
    content = operation.get("requestBody", {}).get("content", {})
    if not content:
        return None
    if path == "/api/solve":
        doc = {"setup": dice.choice(known["setups"])["doc"], "light": dice.choice((0, 1, 7))}
    elif path.startswith("/api/log/keep"):
        doc = dice.choice(known["log"])["doc"] if known["log"] else {"name": "One", "at": dice.choice(DATES)}
    elif stored is not None:
        doc = stored["doc"]
    else:
        one, *_ = content.values()
        doc = one.get("example", {})
        if isinstance(doc, str):
            return (doc + dice.choice([*KEPT, *REFUSED])).encode("utf-8", "surrogatepass")
    return json.dumps(reworded(doc, dice) if dice.random() < 0.4 else mutated(dated(doc, dice), dice)).encode()


def dated(value: Any, dice: random.Random, key: str = "") -> Any:
    """A document with some of its days set to one at a bound."""
    if isinstance(value, dict):
        return {name: dated(one, dice, name) for name, one in value.items()}
    if isinstance(value, list):
        return [dated(one, dice) for one in value]
    return dice.choice(DATES) if key in ("day", "at") and dice.random() < 0.5 else value


def asked(
    client: TestClient, dice: random.Random, known: dict[str, list[dict[str, Any]]], all_of_them: list[Operation]
) -> tuple[str, int]:
    """One request of one of the operations, on things that exist, and what came of it."""
    method, path, operation = dice.choice(all_of_them)
    kind = next((part for part in path.split("/") if part in KINDS), "setups")
    stored = dice.choice(known[kind]) if known[kind] else None
    parameters = operation.get("parameters", [])
    held = {"item_id": stored["id"] if stored else "none", "device_id": "none", "name": "setup", "kind": "csv"}

    def filled(match: re.Match[str]) -> str:
        name = match.group(1)
        if name in IDS and known[IDS[name]]:
            return str(dice.choice(known[IDS[name]])["id"])
        if "/keep/" in path and name == "item_id":
            return f"made-{dice.randrange(50)}"
        return quote(str(held.get(name, dice.choice(known["units"])["id"])), safe="")

    query = {
        one["name"]: figure_of(one["name"], one["schema"], known, dice)
        for one in parameters
        if one["in"] == "query" and (one.get("required") or dice.random() < 0.6)
    }
    headers = {"content-type": "application/json", "x-page": dice.choice(("a", "b"))}
    if stored and method == "PUT":
        headers["if-match"] = f'"{stored["revision"]}"'
    body = body_of(path, operation, stored if "{item_id}" in path or method == "POST" else None, known, dice)
    answer = client.request(method, PARAMETER.sub(filled, path), params=query, headers=headers, content=body)
    if (
        stored
        and method == "PUT"
        and answer.status_code == 200
        and answer.headers["content-type"] == "application/json"
    ):
        found = answer.json()
        if isinstance(found, dict) and found.get("id") == stored["id"] and "revision" in found:
            stored |= {"revision": found["revision"]}
    return f"{method} {path}", answer.status_code


def megabytes() -> float:
    """What the process holds in memory."""
    return int(Path("/proc/self/statm").read_text().split()[1]) * os.sysconf("SC_PAGE_SIZE") / 2**20


def main() -> int:
    """Ask, count, and say what was answered; the exit code is 1 where anything was 5xx, slow, or ate memory."""
    cases = int(os.environ.get("CASES", "100000"))
    dice = random.Random(int(os.environ.get("SEED", "20261129")))
    counts: Counter[tuple[str, int]] = Counter()
    slowest, early = (0.0, ""), 0.0
    held: list[str] = []  # memory after each block [MB]
    start = time.perf_counter()
    with tempfile.TemporaryDirectory() as folder:
        for block in range(0, cases, BLOCK):  # on fresh data each: what is added and deleted does not pile up
            data = Path(folder) / str(block)
            begin(data)
            app = create_app(data)
            with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
                all_of_them = operations(app.openapi())
                known = {kind: client.get(f"/api/{kind}").json() for kind in KINDS if kind != "log"}
                known["log"] = entries(client, known)
                for at in range(block, min(cases, block + BLOCK)):
                    before = time.perf_counter()
                    what, status = asked(client, dice, known, all_of_them)
                    slowest = max(slowest, (time.perf_counter() - before, what))
                    counts[what, status] += 1
                    if status >= 500 and status not in (503, 507):
                        print(f"case {at}: {what} answered {status}", flush=True)
                    if at == 1000:
                        early = megabytes()
            held.append(f"{megabytes():.0f}")
    for (what, status), count in sorted(counts.items()):
        print(f"{what:50} {status}  {count:,}")
    bad, grown = sum(count for (_, status), count in counts.items() if status >= 500), megabytes() - early
    print(
        f"{cases:,} cases in {time.perf_counter() - start:.0f} s: {bad} answered 5xx; slowest {slowest[0]:.2f} s "
        f"({slowest[1]}); memory {early:.0f} MB after 1,000, {grown:+.0f} MB at the end"
    )
    print(f"memory after each {BLOCK:,} [MB]: {', '.join(held)}")
    return 1 if bad or slowest[0] > MOST_S or (cases > 1000 and grown > MOST_GROWN_MB) else 0


def entries(client: TestClient, known: dict[str, list[dict[str, Any]]]) -> list[dict[str, Any]]:
    """Some readings, logged."""
    out = []
    for number, setup in enumerate(known["setups"][:4]):
        seen = client.get(f"/api/log/set/{known['jobs'][0]['id']}/{setup['id']}").json()
        blank = next((one["blank"] for one in seen.get("lights", []) if one["blank"]), None)
        if blank and client.post(f"/api/log/keep/first-{number}", json=blank).status_code == 200:
            out.append({"id": f"first-{number}", "revision": 1, "doc": blank})
    return out


if __name__ == "__main__":
    sys.exit(main())
