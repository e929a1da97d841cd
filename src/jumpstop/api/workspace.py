"""The workspace between store and core: the shelf kept as a table while it does not change, setups with their kit."""

from collections.abc import Iterable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor, wait
from datetime import date
from threading import Lock
from typing import Any, NamedTuple, TypeVar

from pydantic import BaseModel, ValidationError

from .. import service
from ..core.kit.errors import CannotSolve
from ..core.kit.kinds import KIT_MODELS
from ..core.kit.learned import Learned
from ..core.kit.shelf import Shelf
from ..core.physics.scales import Step
from ..core.plan.job.schedule import AsShot, picked_of
from ..core.plan.job.worked_out import solved_on
from ..core.plan.learn.learning import Learning, ReadingRow, Rows, learn
from ..core.plan.light.reach import Solved
from ..core.scene.begin import OwnKit
from ..core.scene.job import MOST_SETUPS, Job, JobFile, JobSetup, in_job
from ..core.scene.light import OwnModifier, own_modifier
from ..core.scene.log import LogEntry
from ..core.scene.parts import Parts
from ..core.scene.seen import MethodKind
from ..core.scene.setup import OwnBody, OwnFilter, OwnLens, OwnTrigger, Setup
from ..store.documents import PREFERENCES, Item, Store
from ..store.errors import NotFound
from ..store.rows import KIT, LOG_ALTERED, Kind, changed, chunks
from ..typical import typical_shelf
from ..words.answer import answer_of
from ..words.need import NeedsText, needs_text
from ..words.problems import problems_of
from ..words.refusals import said
from .schemas import Preferences, SolvedSetup
from .undisturbed import undisturbed

Meta = dict[str, Any]
Own = TypeVar("Own", bound=BaseModel)
Planned = tuple[float | None, date | None]  # wind [m/s] and day
MOST_FILTERS = 8  # in the bag of a setup that is begun
MOST_KEPT = 4  # solved setups
MOST_READ = 100  # setups as they were read
USUAL_SHELF = 500  # units
MODELS: dict[Kind, type[BaseModel]] = {
    **{kind: KIT_MODELS[kind] for kind in KIT},
    "jobs": Job,
    "setups": Setup,
    "log": LogEntry,
}


class Logged(NamedTuple):
    """An entry of the log as it was read, and what it says of which things."""

    revision: int
    entry: LogEntry
    row: ReadingRow | None


class Edit(NamedTuple):
    """A setup as it is to be stored, from which revision, and what undo calls it (see `Store.put`)."""

    doc: dict[str, Any]
    revision: int
    label: str
    page: str
    goes_on: bool | None


class KeptSetup(NamedTuple):
    """A setup that was solved, and all that it was solved from: a page asks for one setup several times over."""

    setup: Setup
    shelf: Shelf
    step: Step
    avoid: tuple[MethodKind, ...]
    solved: Solved


class Read(NamedTuple):
    """A stored setup with the shelf's newest kit, and what it was read from."""

    revision: int  # never used twice for one document
    kit: tuple[int, ...]  # counts of changes
    setup: Setup


class UnreadableDocument(NamedTuple):
    """A stored document that this version cannot read, and why."""

    id: str
    name: str
    why: str


def readable(kind: Kind, items: Iterable[Item]) -> tuple[list[tuple[Item, Any]], list[UnreadableDocument]]:
    """The documents that can be read, each with its item; and those that cannot, which leave the list as it is."""
    good: list[tuple[Item, Any]] = []
    bad: list[UnreadableDocument] = []
    for item in items:
        try:
            good.append((item, MODELS[kind].model_validate(item.doc)))
        except ValidationError as error:
            why = problems_of(error, MODELS[kind])[0].sentence
            bad.append(UnreadableDocument(item.id, str(item.doc.get("name", "")), why))
    return good, bad


class Workspace:
    """One store, with what was made of it in memory."""

    def __init__(self, store: Store) -> None:
        self.store = store
        self._beside = ThreadPoolExecutor()  # for what is worked out while the disk is written
        self._lock = Lock()
        self._log_lock = Lock()  # the log is read and learned from once, however many ask
        self._said: tuple[int, Shelf] | None = None
        self._kit: dict[str, tuple[int, dict[str, Any]]] = {}
        self._log: tuple[tuple[int, ...], dict[str, Logged]] | None = None
        self._log_end = 0.0  # the place of the last entry that was read
        self._parts = Parts()
        self._rows: Rows | None = None
        self._learning: tuple[dict[str, Logged], Learning] | None = None
        self._taught: tuple[Shelf, Learned, Shelf] | None = None
        self._solved: tuple[KeptSetup, ...] = ()  # the newest first
        self._planned: dict[str, tuple[Setup, Planned, Setup]] = {}
        self._jobs: dict[str, tuple[int, Job | None]] = {}
        self._read: dict[str, Read] = {}  # by id, the newest last
        self._chosen: tuple[dict[str, Any], Preferences] | None = None

    def close(self) -> None:
        """Let go of the store."""
        self._beside.shutdown()
        self.store.close()

    def shelf(self, meta: Meta | None = None) -> Shelf:
        """The whole shelf with what readings taught. `meta`: see `said_shelf`."""
        meta = self.store.meta() if meta is None else meta
        said, learned = self.said_shelf(meta), self.learning(meta).learned
        if not len(learned):
            return said
        with self._lock:
            kept = self._taught
            if kept is None or kept[0] is not said or kept[1] is not learned:
                kept = self._taught = (said, learned, said.taught(learned))
            return kept[2]

    def said_shelf(self, meta: Meta | None = None) -> Shelf:
        """The shelf as it is said to be. `meta` as just read, to spare a second reading."""
        count = (self.store.meta() if meta is None else meta).get(changed("units"), 0)
        with self._lock:
            kept = self._said
            if kept is None or kept[0] != count:
                good, _ = readable("units", self.store.items("units"))
                kept = self._said = (count, Shelf([unit for _, unit in good], [item.id for item, _ in good]))
            return kept[1]

    def at_hand(self, meta: Meta) -> bool:
        """Whether an answer is a matter of milliseconds: the shelf, of a usual size, and what readings taught are here
        as they stand now."""
        shelf, log = (meta.get(changed(kind), 0) for kind in ("units", "log"))
        if self._log is None or self._learning is None or self._learning[0] is not self._log[1]:
            return False
        fresh = self._said is not None and self._said[0] == shelf and len(self._said[1]) <= USUAL_SHELF
        return fresh and self._log[0][:2] == (log, shelf)

    def log(self, meta: Meta | None = None) -> dict[str, LogEntry]:
        """The log's entries by their ids, in the order in which they came."""
        meta = self.store.meta() if meta is None else meta
        return {key: one.entry for key, one in self.logged(meta).items()}

    def logged(self, meta: Meta) -> dict[str, Logged]:
        """The log, of which only what is new is read and worked out anew."""
        with self._log_lock:
            return self._logged(meta)

    def _logged(self, meta: Meta) -> dict[str, Logged]:
        state = tuple(meta.get(key, 0) for key in (changed("log"), changed("units"), LOG_ALTERED))
        kept = self._log
        if kept is not None and kept[0] == state:
            return kept[1]
        old = kept[1] if kept is not None and kept[0][1] == state[1] else {}
        goes_on = bool(old) and kept is not None and kept[0][2] == state[2]  # as where a device logs
        table = self.said_shelf(meta).table
        there = self.store.revisions("log", self._log_end if goes_on else None)
        same = {key: old[key] for key, revision, _ in there if key in old and old[key].revision == revision}
        fresh = [key for key, *_ in there if key not in same]
        rows = self._rows
        if rows is None or rows.table is not table:
            rows = self._rows = Rows(table)
        new = {}
        with undisturbed():
            for item, entry in self._entries(fresh):
                new[item.id] = Logged(item.revision, entry, rows.of(entry))
        read = {key: same.get(key) or new[key] for key, *_ in there if key in same or key in new}
        found = old | read if goes_on else read
        self._log = (state, found)
        if there:
            self._log_end = there[-1][2]
        return found

    def _entries(self, ids: Sequence[str]) -> Iterator[tuple[Item, LogEntry]]:
        """Entries of the log that can be read, some at a time; what many of them hold alike is one value in all."""
        for some in chunks(ids):
            items, parts = self.store.packed("log", some)
            whole = [Item(one.id, one.revision, self._parts.whole(one.doc, parts)) for one in items]
            good, _ = readable("log", whole)
            yield from good

    def learning(self, meta: Meta | None = None) -> Learning:
        """What all readings come to; kept until the log or the shelf changes."""
        meta = self.store.meta() if meta is None else meta
        with self._log_lock:
            logged, kept = self._logged(meta), self._learning
            if kept is None or kept[0] is not logged:
                entries, rows = [one.entry for one in logged.values()], [one.row for one in logged.values()]
                last = None if kept is None else kept[1]
                kept = self._learning = (logged, learn(entries, self.said_shelf(meta).table, rows, last))
            return kept[1]

    def kit(self, kind: Kind, meta: Meta) -> dict[str, Any]:
        """The kit of one kind by id, kept until its count of changes moves."""
        count = meta.get(changed(kind), 0)
        with self._lock:
            kept = self._kit.get(kind)
            if kept is None or kept[0] != count:
                good, _ = readable(kind, self.store.items(kind))
                kept = (count, {item.id: doc for item, doc in good})
                self._kit[kind] = kept
            return kept[1]

    def modifiers(self) -> tuple[OwnModifier, ...]:
        """The modifiers of the shelf, as a setup holds them."""
        kept = self.kit("modifiers", self.store.meta())
        return tuple(own_modifier(one, key) for key, one in kept.items())

    def own_kit(self) -> OwnKit:
        """The first of each kind on the shelf, as a setup holds it."""
        meta = self.store.meta()

        def first(kind: Kind, model: type[Own]) -> Own | None:
            kept = self.kit(kind, meta)
            return next((model.model_construct(**{**dict(doc), "id": key}) for key, doc in kept.items()), None)

        units = self.said_shelf(meta).units
        bag = self.kit("filters", meta).items()
        filters = tuple(OwnFilter.model_construct(**{**dict(doc), "id": key}) for key, doc in bag)
        links = [OwnTrigger.model_construct(**{**dict(doc), "id": key})
                 for key, doc in self.kit("triggers", meta).items()]  # fmt: skip
        firsts = (next((one for one in links if one.kind == kind), None) for kind in ("transmitter", "receiver"))
        return OwnKit(
            first("bodies", OwnBody), first("lenses", OwnLens), first("modifiers", OwnModifier),
            units[0] if units else None, filters[:MOST_FILTERS],
            tuple(one for one in firsts if one is not None),
        )  # fmt: skip

    def preferences(self, meta: Meta | None = None) -> Preferences:
        """What the person chose, or the usual."""
        chosen = (self.store.meta() if meta is None else meta).get(PREFERENCES, {})
        kept = self._chosen
        if kept is None or kept[0] != chosen:
            try:
                kept = (chosen, Preferences.model_validate(chosen))
            except ValidationError:
                kept = (chosen, Preferences())
            self._chosen = kept
        return kept[1]

    def setup_of(self, item: Item, meta: Meta | None = None) -> Setup:
        """A stored setup with the shelf's newest body, filters and modifiers, known by their ids.

        The setup keeps copies, so that it still stands when the shelf's own are gone. Raises CannotSolve.
        """
        meta = self.store.meta() if meta is None else meta
        kit = tuple(meta.get(changed(kind), 0) for kind in KIT)
        with self._lock:
            kept = self._read.get(item.id)
        if kept is not None and (kept.revision, kept.kit) == (item.revision, kit):
            return kept.setup
        setup = self._with_newest(_setup_read(item), meta)
        with self._lock:
            self._read.pop(item.id, None)
            if len(self._read) >= MOST_READ:
                del self._read[next(iter(self._read))]
            self._read[item.id] = Read(item.revision, kit, setup)
        return setup

    def _with_newest(self, setup: Setup, meta: Meta) -> Setup:
        bodies, filters, modifiers = (self.kit(kind, meta) for kind in ("bodies", "filters", "modifiers"))
        units: dict[str, Any] = self.kit("units", meta) if any(light.unit for light in setup.lights) else {}
        lights = []
        for light in setup.lights:
            mod = _newest(light.modifier, modifiers)
            if mod is not light.modifier:
                known = {layer.name for layer in mod.layers}
                layers = None if light.layers is None else tuple(name for name in light.layers if name in known)
                light = light.model_copy(update={"modifier": mod, "layers": layers})
            unit = _newest(light.unit, units)
            if unit is not light.unit:
                light = light.model_copy(update={"unit": unit})
            lights.append(light)
        newer = {
            "body": _newest(setup.body, bodies),
            "lens": _newest(setup.lens, self.kit("lenses", meta)) if setup.lens is not None else None,
            "filters": tuple(_newest(own, filters) for own in setup.filters),
            "triggers": tuple(_newest(own, self.kit("triggers", meta)) for own in setup.triggers),
            "lights": tuple(lights),
        }
        return setup.model_copy(update=newer)

    def shot(self, file: JobFile, setup_id: str, variant: str = "", on: date | None = None) -> AsShot:
        """One of a job's setups as it is shot, on its day or on another. Raises NotFound, CannotSolve."""
        if all(one.id != setup_id for one in file.setups):
            raise NotFound("setup_of_no_session")
        own = self.preferences()
        return service.shot_setup(file, self.shelf(), setup_id, own.step, own.avoid, variant, on)

    def _shot_in_kit(self, item: Item, setup: Setup, meta: Meta) -> AsShot | None:
        """A stored setup as its job shoots it; None where that has picked no kit, or has no method for it. setup: as it
        is, or might be."""
        job = self._job_of(item, meta)
        if job is None or not job.picked:
            return None
        shelf, own = self.shelf(meta), self.preferences(meta)
        if not picked_of(job, shelf):  # what was picked is gone
            return None
        file = JobFile.model_construct(job=job, setups=(JobSetup.model_construct(id=item.id, setup=setup),))
        try:
            return service.shot_setup(file, shelf, item.id, own.step, own.avoid)
        except CannotSolve:
            return None

    def job_file(self, job_id: str) -> JobFile:
        """A job with its setups; sessions of setups that are gone, or that no longer belong to it, are left out.

        Raises NotFound, or CannotSolve for a job that cannot be read.
        """
        item, meta = self.store.item_and_meta("jobs", job_id)
        try:
            job = Job.model_validate(item.doc)
        except ValidationError as error:
            raise CannotSolve("unreadable_setup", why=problems_of(error, Job)[0].sentence) from None
        own = [one for one in self.store.items("setups") if one.job_id == job_id]
        good, _ = readable("setups", own)
        setups = tuple(
            JobSetup.model_construct(id=one.id, setup=self.setup_of(one, meta)) for one, _ in good[:MOST_SETUPS]
        )
        known = {one.id for one in setups}
        sessions = tuple(session for session in job.sessions if session.setup in known)
        job = job.model_copy(update={"sessions": sessions})
        batteries = tuple(self.kit("batteries", meta).values())
        return JobFile.model_construct(job=job, setups=setups, batteries=batteries)

    def setup_in_job(self, item: Item, meta: Meta | None = None) -> Setup:
        """A stored setup (see `setup_of`) as its job has it: on its day, in its wind. Raises CannotSolve."""
        meta = self.store.meta() if meta is None else meta
        setup, planned = self.setup_of(item, meta), self._planned_for(item, meta)
        if planned is None:
            return setup
        with self._lock:
            kept = self._planned.get(item.id)
            if kept is None or kept[0] is not setup or kept[1] != planned:
                if len(self._planned) >= MOST_READ:
                    del self._planned[next(iter(self._planned))]
                kept = self._planned[item.id] = (setup, planned, in_job(setup, *planned))
            return kept[2]

    def _planned_for(self, item: Item, meta: Meta) -> Planned | None:
        """The wind and the day that a setup's job plans it for; None where it has none."""
        job = self._job_of(item, meta)
        return None if job is None else (job.brief.wind_m_s, job.day_of(item.id))

    def _job_of(self, item: Item, meta: Meta) -> Job | None:
        """The job that a setup belongs to; None where it has none, or that is gone."""
        return None if item.job_id is None else self._job(item.job_id, meta)

    def _job(self, job_id: str, meta: Meta) -> Job | None:
        """A job; kept until one changes. None where it is gone, or cannot be read."""
        count = meta.get(changed("jobs"), 0)
        kept = self._jobs.get(job_id)
        if kept is None or kept[0] != count:
            try:
                kept = (count, Job.model_validate(self.store.item("jobs", job_id).doc))
            except (NotFound, ValidationError):
                kept = (count, None)
            self._jobs = {key: one for key, one in self._jobs.items() if one[0] == count} | {job_id: kept}
        return kept[1]

    def shelf_for(self, setup: Setup, meta: Meta) -> Shelf:
        """The shelf that a setup is answered with: the typical classes of units where there is none to do it with."""
        own = self.shelf(meta)
        return own if len(own) or any(light.unit for light in setup.lights) else typical_shelf()

    def needs(self, setup: Setup, light: int, preferences: Preferences) -> NeedsText:
        """What a light asks of whatever unit stands there. Raises CannotSolve."""
        solved, chosen = service.need(setup, light, preferences.step, preferences.avoid)
        return needs_text(solved, light, chosen, typical_shelf().at(setup.meter_c), preferences)

    def solve(self, setup: Setup, light: int, meta: Meta | None = None) -> tuple[Solved, Preferences]:
        """A setup solved for the whole shelf, in the person's steps. Raises CannotSolve."""
        meta = self.store.meta() if meta is None else meta
        if light >= len(setup.lights):
            raise CannotSolve("no_such_light", number=light + 1)
        preferences = self.preferences(meta)
        step, avoid, shelf = preferences.step, preferences.avoid, self.shelf_for(setup, meta)
        for kept in self._solved:
            if kept.shelf is shelf and kept.setup is setup and (kept.step, kept.avoid) == (step, avoid):
                return kept.solved, preferences
        solved = solved_on(setup, shelf, step, avoid)
        self._solved = (KeptSetup(setup, shelf, step, avoid, solved), *self._solved[: MOST_KEPT - 1])
        return solved, preferences

    def put_setup(self, item_id: str, edit: Edit, light: int = 0, sight: Sequence[str] = ()) -> SolvedSetup:
        """Store an edit of a setup, and what it comes to then: worked out while the disk is written, said only once it
        is. Raises NotFound or Conflict."""
        ahead: list[Future[SolvedSetup]] = []

        def begin(item: Item, meta: Meta) -> None:
            ahead.append(self._beside.submit(self.solved, item, light, meta, sight))

        try:
            item = self.store.put("setups", item_id, *edit, meanwhile=begin)
        except BaseException:
            wait(ahead)
            with self._lock:  # another edit may come to the same revision
                self._read.pop(item_id, None)
            raise
        return ahead[0].result() if ahead else self.solved(item, light, sight=sight)

    def solved(self, item: Item, light: int = 0, meta: Meta | None = None, sight: Sequence[str] = ()) -> SolvedSetup:
        """A stored setup and its answer. `meta` as just read, to spare a second reading; `sight`: see `answer_of`."""
        meta = self.store.meta() if meta is None else meta
        return self._told(item, self.setup_of(item, meta), self.setup_in_job(item, meta), light, meta, sight)

    def foreseen(self, item_id: str, doc: Setup, light: int, sight: Sequence[str] = ()) -> SolvedSetup:
        """What a stored setup would come to if this stood in its place; nothing is stored. Raises NotFound."""
        item, meta = self.store.item_and_meta("setups", item_id)
        setup, planned = self._with_newest(doc, meta), self._planned_for(item, meta)
        return self._told(item, setup, in_job(setup, *planned) if planned else setup, light, meta, sight)

    def _told(
        self, item: Item, setup: Setup, in_its_job: Setup, light: int, meta: Meta, sight: Sequence[str]
    ) -> SolvedSetup:
        answer, trouble = None, ""
        try:
            found, preferences = self.solve(in_its_job, light, meta)
            typical = found.table.units is typical_shelf().units
            asks = self.needs(found.setup, light, preferences).says if typical else ""
            shot = self._shot_in_kit(item, in_its_job, meta)
            answer = answer_of(found, preferences, light, preferences.avoid, sight, setup, asks, shot)
        except CannotSolve as error:
            trouble = said(error)
        return SolvedSetup.model_construct(
            id=item.id, revision=item.revision, job_id=item.job_id, setup=setup, answer=answer, trouble=trouble
        )


def _setup_read(item: Item) -> Setup:
    """A setup as it is stored. Raises CannotSolve."""
    try:
        return Setup.model_validate(item.doc)
    except ValidationError as error:
        raise CannotSolve("unreadable_setup", why=problems_of(error, Setup)[0].sentence) from None


def _newest(own: Any, shelf: dict[str, Any]) -> Any:
    """The shelf's own of a piece of kit, as the kind of document that a setup holds; the copy where that is gone."""
    if own is None or own.id is None:
        return own
    found = shelf.get(own.id)
    return own if found is None else type(own).model_construct(**{**dict(found), "id": own.id})
