"""Jobs to begin with: usual ones, kept in a file that a person can read and edit. Common practice, no source."""

import json
from pathlib import Path
from typing import Any

from ..core.scene.begin import NO_KIT, OwnKit, on_kit
from ..core.scene.job import Job, JobFile, JobSetup, Session
from ..core.scene.setup import Setup

FILE = Path(__file__).parent / "jobs.json"
KEPT = ("body", "lens", "filters", "triggers", "power_supply", "meter_c")
"""What a setup takes over from the one used last."""


def _raw() -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = json.loads(FILE.read_text(encoding="utf-8"))
    return found


def templates() -> list[tuple[str, str]]:
    """What there is, in its order: each by its name, and what it is for."""
    return [(one["name"], one["for"]) for one in _raw()]


def template(name: str, like: Setup | None = None, kit: OwnKit = NO_KIT) -> JobFile | None:
    """A job of that name with its setups, on the camera and with the bag of a setup used last, else on the person's own
    kit; None: there is none."""
    raw = next((one for one in _raw() if one["name"] == name), None)
    if raw is None:
        return None
    setups = [Setup.model_validate(doc) for doc in raw["setups"]]
    if like is not None:
        own = {field: getattr(like, field) for field in KEPT}
        setups = [one.model_copy(update=own) for one in setups]
    else:
        setups = [on_kit(one, kit) for one in setups]
    keys = [f"s{at}" for at in range(len(setups))]
    sessions = tuple(Session(setup=key, **one) for key, one in zip(keys, raw["sessions"], strict=True))
    what: str = raw["for"]
    job = Job(name=name, note=f"{what[0].upper()}{what[1:]}.", brief=raw["brief"], sessions=sessions)
    return JobFile(job=job, setups=tuple(JobSetup(id=key, setup=one) for key, one in zip(keys, setups, strict=True)))
