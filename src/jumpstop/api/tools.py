"""What is opened beside a setup: a lane, the unit in hand, find a stop, steps, variants, ladder, day, shutter."""

from fastapi import APIRouter, Request, Response

from .. import service
from ..core.kit.errors import CannotSolve
from ..core.kit.unit import Unit
from ..core.plan.camera.day import day_of
from ..core.plan.change.ladder import ladder, span_of
from ..core.plan.change.moves import Bag
from ..core.plan.change.ranking import Keep
from ..core.plan.learn.first_reading import FirstReading, unit_of_reading
from ..core.plan.light.advice import chosen_method, unit_for, units_for
from ..core.plan.light.one_unit import only
from ..core.plan.light.reach import Reach
from ..core.plan.stage.steps import School, all_on
from ..core.scene.begin import Where, begun
from ..core.scene.seen import MethodKind
from ..core.scene.setup import Setup
from ..formats.table import csv_of
from ..store.errors import NotFound
from ..words import edits as words
from ..words.camera import settings_line
from ..words.day import DayText, day_text
from ..words.figures import dial
from ..words.in_hand import InHand, in_hand_of
from ..words.kit import printed
from ..words.ladder import LadderText, ladder_text, span_words
from ..words.lanes import steps_of, verdict_words
from ..words.levers import LeversText, levers_text
from ..words.methods import title
from ..words.steps import StepText, steps_text
from ..words.timing import TimingText, timing_text
from ..words.variants import VariantsText, variants_text
from .documents import ERRORS, EVERYWHERE, REFUSED, LightIndex, LikeId, Page, file_answer, stored, workspace_of
from .schemas import LaneDetail, Preferences, Stored

router = APIRouter(prefix="/api", tags=["Solving"], responses=EVERYWHERE)


@router.get("/setups/{item_id}/lanes/{unit_id}", responses=REFUSED)
def lane(
    request: Request, item_id: str, unit_id: str, light: LightIndex = 0, method: MethodKind | None = None
) -> LaneDetail:
    """One unit's chain, jump by jump, with relation and source."""
    reach, units = _reach(request, item_id, light, method)
    table = reach.solved.table
    if unit_id not in table.ids:
        raise NotFound("unit_gone")
    at = table.ids.index(unit_id)
    spare = float(reach.spare[at])
    return LaneDetail(
        name=table.units[at].name,
        method=title(reach.method, reach.solved.setup.body.shutter),
        verdict=verdict_words(str(reach.verdict[at]), spare, int(reach.blocker[at])),
        spare=round(spare, 3),
        sd=round(float(reach.sd[at]), 3),
        p_reach=round(float(reach.p[at]), 3),
        steps=steps_of(reach, at, units),
        printed=[printed(claim) for claim in table.units[at].claims],
    )


@router.get("/setups/{item_id}/in-hand", responses=REFUSED)
def in_hand(request: Request, item_id: str, light: LightIndex = 0) -> InHand:
    """What there is to say of the unit in hand: changes, what the meter must show, what was seen, durations."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)
    reach, preferences = _reach(request, item_id, light, None)
    unit = unit_for(reach)
    written, shelf = workspace.setup_of(item, meta), workspace.shelf(meta)
    step, avoid = preferences.step, preferences.avoid
    cures = [] if unit is None else service.cures_of(reach, unit, shelf, written, step, avoid)
    return in_hand_of(reach.solved, reach, preferences, cures)


@router.get("/setups/{item_id}/steps", responses=REFUSED)
def order_of_work(request: Request, item_id: str, first: School = "back") -> list[StepText]:
    """The steps of a setup, lights switched on one by one: what to do, and what meter and frame must show."""
    workspace = workspace_of(request)
    setup = all_on(workspace.setup_in_job(workspace.store.item("setups", item_id)))
    solved, preferences = workspace.solve(setup, 0)
    kind = chosen_method(solved, preferences.avoid)
    return steps_text(solved, kind, units_for(solved, kind), first, preferences)


@router.get("/setups/{item_id}/levers", responses=REFUSED)
def find_a_stop(
    request: Request, item_id: str, light: LightIndex = 0, keep: Keep = "look", whole: bool = False
) -> LeversText:
    """Every change for the unit in hand, or for the whole set, and pairs where none is enough: what each brings, what
    it costs."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)
    reach, preferences = _reach(request, item_id, light, None)
    unit = unit_for(reach)
    if unit is None:
        raise CannotSolve("no_usable_unit")
    bag, written = Bag(workspace.modifiers()), workspace.setup_of(item, meta)
    step, avoid = preferences.step, preferences.avoid
    found = service.find_a_stop(reach, unit, workspace.shelf(meta), written, bag, step, avoid, keep, whole)
    return levers_text(reach.solved, found, keep, preferences)


@router.get("/setups/{item_id}/variants", responses=REFUSED)
def variants(request: Request, item_id: str) -> VariantsText:
    """The setup's variants, each with what hands must change from how it stands."""
    workspace = workspace_of(request)
    setup, preferences = workspace.setup_in_job(workspace.store.item("setups", item_id)), workspace.preferences()
    return variants_text(service.stands_as(setup, workspace.shelf(), preferences.step, preferences.avoid), preferences)


@router.get("/setups/{item_id}/ladder", responses=REFUSED)
def distance_ladder(request: Request, item_id: str, light: LightIndex = 0) -> LadderText:
    """What to dial at each marked distance, for the unit in hand, with and without what comes off."""
    return _ladder(request, item_id, light)


@router.get("/setups/{item_id}/ladder.csv", responses=REFUSED, response_class=Response)
def distance_ladder_csv(request: Request, item_id: str, light: LightIndex = 0) -> Response:
    """The same as a file."""
    found = _ladder(request, item_id, light)
    rows = [["distance", *found.columns], *([rung.distance, *rung.dials] for rung in found.rungs)]
    return file_answer(csv_of(rows), "text/csv", "jumpstop-ladder.csv")


def _ladder(request: Request, item_id: str, light: int) -> LadderText:
    reach, preferences = _reach(request, item_id, light, None)
    unit = unit_for(reach)
    if unit is None:
        raise CannotSolve("no_usable_unit")
    solved, feet = reach.solved, preferences.length == "ft"
    table = only(solved, unit)
    columns, rungs = ladder(solved.setup, table, reach.method.kind, light, preferences.step, feet)
    one = table.units[0]
    dialled = dial(one.scale, float(reach.below_full[unit]), preferences, one.watt_seconds)
    span = span_words(span_of(reach, unit), dialled, preferences)
    return ladder_text(table, columns, rungs, settings_line(reach.method.camera), preferences, span)


@router.post("/units/from-reading", status_code=201, responses={422: ERRORS[422]})
def from_reading(request: Request, reading: FirstReading, page: Page = "") -> Stored[Unit]:
    """A unit that nobody knows the guide number of, put on the shelf from one reading of a flash meter."""
    unit = unit_of_reading(reading)
    store = workspace_of(request).store
    item = store.add("units", [unit.model_dump(mode="json")], words.added("unit", unit.name), page=page)[0]
    return stored("units", item, unit)


@router.post("/setups/begin", status_code=201, responses=REFUSED)
def begin(request: Request, where: Where = "sun", like: LikeId = None, page: Page = "") -> Stored[Setup]:
    """A new setup: a likely picture for where one is, with the body and the bag of the setup used last."""
    workspace = workspace_of(request)
    last = None if like is None else workspace.setup_of(workspace.store.item("setups", like))
    setup = begun(where, last, workspace.own_kit())
    job = None if like is None else workspace.store.item("setups", like).job_id
    item = workspace.store.add("setups", [setup.model_dump(mode="json")], words.added("setup", setup.name), job, page)[
        0
    ]
    return stored("setups", item, setup)


@router.get("/setups/{item_id}/day", responses=REFUSED)
def day(request: Request, item_id: str) -> DayText:
    """The day's light at the setup's place: its course, golden hours, and when the open shade is lost."""
    workspace = workspace_of(request)
    setup = workspace.setup_in_job(workspace.store.item("setups", item_id))
    return day_text(day_of(setup.ambient, setup.meter_c))


@router.get("/setups/{item_id}/timing", responses=REFUSED)
def timing(request: Request, item_id: str, light: LightIndex = 0, method: MethodKind | None = None) -> TimingText:
    """How curtains and flash come together, moment by moment, for the unit that methods are compared by."""
    reach, _ = _reach(request, item_id, light, method)
    unit = unit_for(reach)
    if unit is None:
        raise CannotSolve("no_usable_unit")
    return timing_text(reach, unit)


def _reach(request: Request, item_id: str, light: int, method: MethodKind | None) -> tuple[Reach, Preferences]:
    """What the units do in the method asked for, else in the setup's own, else in the advised one."""
    workspace = workspace_of(request)
    item, meta = workspace.store.item_and_meta("setups", item_id)
    solved, preferences = workspace.solve(workspace.setup_in_job(item, meta), light, meta)
    return solved.reach(method or chosen_method(solved, preferences.avoid, light), light), preferences
