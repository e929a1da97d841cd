"""A test frame: dropped here, read, and forgotten."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from starlette.concurrency import run_in_threadpool

from ..words.frame import PatchText, frame_text
from .documents import ERRORS, EVERYWHERE

router = APIRouter(prefix="/api/frame", tags=["Test frame"], responses=EVERYWHERE)
Share = Annotated[float, Query(ge=0, le=1)]
AS_JPEG: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}, "example": "\u00ff\u00d8"}},
    }
}


@router.post("", responses={422: ERRORS[422]}, openapi_extra=AS_JPEG)
async def frame(
    request: Request,
    x: Share = 0.45,
    y: Share = 0.45,
    w: Share = 0.1,
    h: Share = 0.1,
    of: Literal["grey", "white", "skin", "dark_skin"] = "grey",
    ambient: Annotated[float | None, Query(ge=-20, le=10, description="The patch without flash [stops].")] = None,
) -> PatchText:
    """How far a patch of a frame lies from where it belongs; nothing of the frame is kept."""
    data = await request.body()
    return await run_in_threadpool(_frame, data, (x, y, w, h), of, ambient)


def _frame(data: bytes, box: tuple[float, float, float, float], of: str, ambient: float | None) -> PatchText:
    from ..formats.frame import Patch, read_frame  # late: reading pictures is seldom wanted, and slow to load

    found = read_frame(data, Patch(*box))
    clipped, settings = (found.patch_clipped, found.frame_clipped), (found.f_number, found.shutter_s, found.iso)
    wall = (found.lit, found.dark_edge)
    return frame_text(
        found.luminance, found.rgb, clipped, settings, found.flash, found.taken, of, ambient, wall, found.profile
    )
