"""Data as large as it may get: a log of 10,000 entries, jobs of 60 setups and 10,000 people. For tests and timings."""

import random
from typing import Any

import httpx


def log_entries(client: httpx.Client, count: int, seed: int = 7) -> list[dict[str, Any]]:
    """So many readings as they come in from location, of every light of every setup of the demo: {id, entry}."""
    dice, blanks = random.Random(seed), list[dict[str, Any]]()
    job = client.get("/api/jobs").json()[0]["id"]
    for setup in client.get("/api/setups").json():
        answer = client.get(f"/api/log/set/{job}/{setup['id']}")
        if answer.status_code == 200:
            blanks += [light["blank"] for light in answer.json()["lights"] if light["blank"]]
    out = []
    for number in range(count):
        blank = dice.choice(blanks)
        planned = blank["seen"]["dial_stops"]
        dial = round(max(0.0, planned + dice.choice((-1, -1 / 3, 0, 1 / 3, 1))), 4)
        off = round(dice.gauss(0, 0.2) + planned - dial, 1)
        seen = blank["seen"] | {"kind": "face", "sd": 0.25, "stops": off, "dial_stops": dial}
        day, at = 1 + number * 28 // count, number % 86400
        entry = blank | {
            "at": f"2026-06-{day:02}T{at // 3600:02}:{at // 60 % 60:02}:{at % 60:02}",
            "seen": seen, "note": f"reading {number}", "flashes": dice.randrange(200),
        }  # fmt: skip
        out.append({"id": f"entry-{number}", "entry": entry})
    return out


def large_job(client: httpx.Client, setups: int) -> str:
    """A job with so many setups, the demo's over and over; its id."""
    files = client.get(f"/api/jobs/{client.get('/api/jobs').json()[0]['id']}/export.json").json()
    own = files["setups"]
    files["setups"] = [own[at % len(own)] | {"id": f"s{at}"} for at in range(setups)]
    files["job"] |= {"sessions": [], "name": f"A job of {setups}"}
    made: str = client.post("/api/jobs/import", json=files).json()["id"]
    return made
