"""What goes along on paper or on the phone: cards, the pack list, the channel sheet."""

from datetime import datetime

from fastapi import APIRouter, Request, Response

from .. import service
from ..core.scene.log import LogEntry
from ..store.rows import KIT
from ..words.cards import cards_of
from ..words.channels import SheetText, sheet_text
from ..words.figures import sign_of
from ..words.pack import PackText, pack_text
from .documents import EVERYWHERE, REFUSED, workspace_of
from .undisturbed import undisturbed

router = APIRouter(prefix="/api/jobs", tags=["Paper"], responses=EVERYWHERE)


@router.get("/{item_id}/pack", responses=REFUSED)
def pack(request: Request, item_id: str) -> PackText:
    """Everything that the plan uses, once; what is missing, what is hired, how lithium travels."""
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    shelf, step, avoid = workspace.shelf(), preferences.step, preferences.avoid
    meta = workspace.store.meta()
    known: dict[str, frozenset[str]] = {kind: frozenset(workspace.kit(kind, meta)) for kind in KIT if kind != "units"}
    found = service.pack(file, shelf, known, list(workspace.kit("stands", meta).values()), step, avoid)
    return pack_text(found, preferences.currency, preferences)


@router.get("/{item_id}/channels", responses=REFUSED)
def channels(request: Request, item_id: str) -> list[SheetText]:
    """Who listens to whom, setup by setup, and what is wrong with it."""
    workspace = workspace_of(request)
    file, preferences = workspace.job_file(item_id), workspace.preferences()
    shot = service.shot_setups(file, workspace.shelf(), preferences.step, preferences.avoid)
    return [sheet_text(one, preferences) for one in shot]


@router.get("/{item_id}/cards.html", responses=REFUSED, response_class=Response)
def cards_file(request: Request, item_id: str, save: bool = False) -> Response:
    """All cards as one page that works without a network; with `save` as a file to keep."""
    from ..formats.cards_page import cards_page, policy_of  # late: templates are seldom wanted, and slow to load

    workspace = workspace_of(request)
    file = workspace.job_file(item_id)
    now = datetime.now().replace(microsecond=0)
    preferences = workspace.preferences()
    blank = LogEntry(at=now)
    with undisturbed():
        feet = preferences.length == "ft"
        plans = service.cards(file, workspace.shelf(), preferences.step, preferences.avoid, feet)
        found = cards_of(plans, item_id, file.job, preferences, blank)
        page = cards_page(file.job.name, found, f"{now:%d %b %Y, %H:%M}", sign_of(preferences) or ".", item_id)
    headers = {"content-security-policy": f"{policy_of()}; frame-ancestors 'none'", "cache-control": "no-store"}
    if save:
        headers["content-disposition"] = 'attachment; filename="jumpstop-cards.html"'
    return Response(page, media_type="text/html; charset=utf-8", headers=headers)
