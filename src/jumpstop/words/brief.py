"""The brief in words: the questions to ask, and what the answers come to."""

from collections import Counter
from dataclasses import dataclass

from ..core.plan.camera.framing import camera_m
from ..core.plan.stage.covering import cropped
from ..core.scene.job import FRAME_MB, RETOUCH_MIN, SORTING_S, Brief, Crop, Job, JobFile, sums_of
from .figures import DisplayUnits, count, decimal, grouped, length, plain

QUESTIONS: dict[str, str] = {
    "crops": "How tight: head and shoulders, to the waist, or full length? Several may be asked for.",
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


def brief_text(file: JobFile, words: DisplayUnits) -> BriefText:
    """The document."""
    job = file.job
    asked = [QUESTIONS[name] for name in job.brief.open]
    letter = "\n".join(f"{number}. {one}" for number, one in enumerate(asked, 1))
    return BriefText(asked, letter, [*_sums(job.brief), *_missing(job), *_crops(file, words)])


CROPS: dict[Crop, str] = {"tight": "Head and shoulders", "waist": "To the waist", "full": "Full length"}


def _crops(file: JobFile, words: DisplayUnits) -> list[str]:
    """From where each crop that is asked for is taken, in the setup of a person that comes nearest to it, and whether
    its key covers it."""
    people = [one.setup for one in file.setups if one.setup.stage.kind == "person" and one.setup.aim.lens]
    out = []
    for crop in file.job.brief.crops or ():
        told = [(setup, one) for setup in people for one in cropped(setup, [crop])]
        if not told:
            continue
        setup, one = min(told, key=lambda pair: abs(pair[1].camera_m - camera_m(pair[0])))
        focal = setup.aim.lens.focal_mm if setup.aim.lens else 0.0
        said = f"{CROPS[crop]}, {length(one.field_m, words)}: from {length(one.camera_m, words)} with {focal:.0f} mm"
        if one.short is not None:
            said += f"; the key has {one.short[1]:.0f}° where {one.short[0]:.0f}° are wanted"
        out.append(f"{said} ({setup.name})")
    return out


def _missing(job: Job) -> list[str]:
    """People of the brief who are in no session, or too many in one setup; and those of the roster. The same people may
    come to several setups, so that only what cannot be is told."""
    asked, roster, out = job.brief.people, len(job.roster), list[str]()
    by_setup = Counter[str]()
    for one in job.sessions:
        by_setup[one.setup] += one.people
    planned, most = by_setup.total(), max(by_setup.values(), default=0)
    if asked and by_setup and planned < asked:
        missing = grouped(asked - planned)
        out.append(
            f"{count(asked, 'person', 'people')} in the brief, {grouped(planned)} in the sessions: {missing} missing"
        )
    elif asked and most > asked:
        out.append(f"{count(asked, 'person', 'people')} in the brief, {grouped(most)} in the sessions of one setup")
    if asked and roster and asked != roster:
        out.append(f"{count(roster, 'person', 'people')} on the roster, {grouped(asked)} in the brief")
    return out


def _sums(brief: Brief) -> list[str]:
    out, sums = [], sums_of(brief)
    if sums.frames is not None and sums.gigabytes is not None and sums.sorting_h is not None:
        most = "" if brief.frames_each_most is None else f" to {brief.frames_each_most}"
        ranged = sums.fewest is not None and sums.fewest != sums.frames
        people = count(brief.people or 0, "person", "people")
        out.append(f"{people}, {brief.frames_each}{most} each: {_range(sums.fewest, sums.frames, ranged)} frames")
        mb = FRAME_MB if brief.frame_mb is None else brief.frame_mb
        out.append(f"{_range(sums.fewest_gb, sums.gigabytes, ranged)} GB at {plain(mb)} MB a frame")
        out.append(f"{decimal(sums.sorting_h, ',.1f')} h to sort, at {SORTING_S:.0f} s a frame")
    if sums.seconds_a_frame is not None and brief.hours is not None:
        out.append(f"{decimal(sums.seconds_a_frame, '.1f')} s a frame in {plain(brief.hours)} h")
    if sums.delivered is not None:
        share = "" if sums.of_frames is None else f", 1 in {sums.of_frames:.0f}"
        out.append(f"{grouped(sums.delivered)} delivered{share}")
    if sums.picks is not None:
        out.append(f"{grouped(sums.picks)} picks")
    if sums.retouching_h is not None and sums.retouched is not None:
        minutes = RETOUCH_MIN if brief.retouch_min is None else brief.retouch_min
        what = f"{grouped(sums.retouched)} to retouch"
        out.append(f"{what}: {decimal(sums.retouching_h, ',.1f')} h at {plain(minutes)} min a picture")
    return out


def _range(least: float | None, most: float, ranged: bool) -> str:
    return f"{grouped(least)} to {grouped(most)}" if ranged and least is not None else grouped(most)
