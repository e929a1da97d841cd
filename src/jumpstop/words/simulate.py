"""A day that played itself, in words: what the log gets, planned against found, what was learned of what is so."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from ..core.plan.learn.to_read import KEY
from ..core.scene.log import LogEntry
from ..standins.location import ComparedLight, Noted, PlayedDay
from .figures import DisplayUnits, count, share, speed, stops
from .kit import ROLES
from .things import names_of, thing_words

MOST_NAME = 60  # letters of a setup's name that an entry's keeps


@dataclass(slots=True)
class LearnedLine:
    """A thing: how far off it was found to be, its uncertainty, and how far off it is [stops]."""

    thing: str
    found: float
    sd: float
    truth: float
    says: str


@dataclass(slots=True)
class FoundLine:
    """A light: by the claims, as it was found, by what was learned, and as it is [stops from correct]."""

    setup: str
    light: int
    unit: str
    said: float
    found: float
    learned: float
    truth: float
    says: str


@dataclass(slots=True)
class LogLineText:
    """Something that went into the log."""

    at: str
    id: str
    says: str


@dataclass(slots=True)
class PlayedText:
    """The document."""

    seed: int
    log: list[LogLineText]
    planned_and_found: list[FoundLine]
    learned: list[LearnedLine]
    says: list[str]


def entry_of(one: Noted, names: dict[str, str], job: str | None = None) -> LogEntry:
    """An entry as it goes into the log, with its words. names: of the setups, by id."""
    setup = names.get(one.entry.setup or "", "")[:MOST_NAME]
    words = {
        "late": f"{setup}: they came {one.late_min:.0f} minutes late",
        "ambient": f"{setup}, ambient",
        "frames": f"{setup}, all frames",
        "swapped": f"{setup}, battery changed",
    }
    name = words.get(one.code) or f"{setup}, {_role(one)}"
    key = one.entry.setup if one.entry.setup and KEY.match(one.entry.setup) else None
    note = f"Wind {speed(one.wind_m_s, DisplayUnits())}." if one.wind_m_s else ""
    return one.entry.model_copy(update={"name": name[:80], "job": job, "setup": key, "note": note})


def _role(one: Noted) -> str:
    was = one.entry.was
    return ROLES[was.lights[one.light].role] if was is not None else ""


def played_text(played: PlayedDay, names: dict[str, str]) -> PlayedText:
    """The document of a day. names: of the setups, by id."""
    known = names_of((one.entry for one in played.noted), played.learning.table)
    learned = [
        LearnedLine(
            thing_words(key, known), round(found, 4), round(sd, 4), round(truth, 4),
            f"{thing_words(key, known)}: found {stops(found, 2)} ± {abs(sd):.2f}, is {stops(truth, 2)}",
        )
        for key, found, sd, truth in played.apart
    ]  # fmt: skip
    return PlayedText(
        seed=played.truth.seed,
        log=[LogLineText(f"{one.entry.at:%Y-%m-%d %H:%M}", one.id, entry_of(one, names).name) for one in played.noted],
        planned_and_found=[_found(one) for one in played.compared],
        learned=learned,
        says=list(_says(played.compared, learned)),
    )


def _found(one: ComparedLight) -> FoundLine:
    said, found, learned, truth = (round(figure, 4) for figure in (one.said, one.found, one.learned, one.truth))
    says = (
        f"{one.setup}, {one.unit}: planned {stops(one.said, 2)}, found {stops(one.found, 2)}; "
        f"now said {stops(one.learned, 2)}, is {stops(one.truth, 2)}"
    )
    return FoundLine(one.setup, one.light + 1, one.unit, said, found, learned, truth, says)


def _says(compared: Sequence[ComparedLight], learned: Sequence[LearnedLine]) -> list[str]:
    if not compared:
        return ["No light was read: nothing was learned."]
    before = median(abs(one.said - one.truth) for one in compared)
    after = median(abs(one.learned - one.truth) for one in compared)
    out = [
        f"{count(len(compared), 'light')} read. By the claims they were off by {before:.2f} stop in the median; by "
        f"what was learned, {after:.2f}."
    ]
    if learned:
        within = sum(abs(one.found - one.truth) <= one.sd for one in learned) / len(learned)
        out.append(f"{share(within)} of {count(len(learned), 'thing')} lie within their uncertainty.")
    return out
