"""The brief in words: the questions to ask, and what the answers come to."""

from dataclasses import dataclass

from ..core.scene.job import FRAME_MB, RETOUCH_MIN, SORTING_S, Brief, Job, sums_of
from .figures import count, decimal, grouped, plain

QUESTIONS: dict[str, str] = {
    "crop": "How tight: head and shoulders, to the waist, or full length?",
    "orientation": "Landscape, upright, or both?",
    "context": "How much of the place should show?",
    "posture": "Standing or sitting?",
    "people": "How many people?",
    "frames_each": "How many frames of each?",
    "delivered": "How many pictures are delivered?",
    "picks_each": "How many may each person pick?",
    "retouched": "How many are retouched?",
    "hours": "How many hours are there?",
    "place": "Where is it?",
    "power_on_site": "Is there mains on site?",
    "carriage": "How does the kit travel: by hand, by car, by air?",
    "wind_m_s": "How much wind is to be expected?",
    "quiet": "Must it be quiet?",
    "children": "Children or animals?",
}


@dataclass(slots=True)
class BriefText:
    """The questions that are open, and what the answers come to."""

    open: list[str]
    letter: str
    comes_to: list[str]


def brief_text(job: Job) -> BriefText:
    """The document."""
    asked = [QUESTIONS[name] for name in job.brief.open]
    return BriefText(asked, "\n".join(f"{number}. {one}" for number, one in enumerate(asked, 1)), _sums(job.brief))


def _sums(brief: Brief) -> list[str]:
    out, sums = [], sums_of(brief)
    if sums.frames is not None and sums.gigabytes is not None and sums.sorting_h is not None:
        most = "" if brief.frames_each_most is None else f" to {brief.frames_each_most}"
        upto = "up to " if most else ""
        people = count(brief.people or 0, "person", "people")
        out.append(f"{people}, {brief.frames_each}{most} each: {upto}{grouped(sums.frames)} frames")
        out.append(f"{grouped(sums.gigabytes)} GB at {FRAME_MB:.0f} MB a frame")
        out.append(f"{decimal(sums.sorting_h, ',.1f')} h to sort, at {SORTING_S:.0f} s a frame")
    if sums.seconds_a_frame is not None and brief.hours is not None:
        out.append(f"{decimal(sums.seconds_a_frame, '.1f')} s a frame in {plain(brief.hours)} h")
    if sums.delivered is not None:
        out.append(f"1 in {sums.delivered:.0f} delivered")
    if sums.retouching_h is not None:
        out.append(f"{decimal(sums.retouching_h, ',.1f')} h to retouch, at {RETOUCH_MIN:.0f} min a picture")
    if sums.picks is not None:
        out.append(f"{grouped(sums.picks)} picks")
    return out
