"""The phone: a code to scan that opens this server there, and the devices that were let in."""

import secrets
from collections.abc import Sequence
from typing import Annotated
from urllib.parse import quote

from fastapi import APIRouter, Depends, HTTPException, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from ..core.kit.values import LINE, example
from ..store.devices import Devices
from ..store.errors import NotFound
from ..words.refusals import sentence
from .admission import ENTER, hashed
from .documents import ERRORS, EVERYWHERE, workspace_of

router = APIRouter(prefix="/api/phone", tags=["Phone"], responses=EVERYWHERE)
CODE_SCALE = 5


class Door:
    """How the server is open to the network: the names it answers to, its port, and the links that work once."""

    def __init__(self, names: Sequence[str], tokens: set[str]) -> None:
        self.names, self.tokens = tuple(names), tokens
        self.shown: str | None = None

    def link(self) -> str:
        """A fresh token; the one that was shown before works no more."""
        if self.shown is not None:
            self.tokens.discard(self.shown)
        self.shown = secrets.token_urlsafe(24)
        self.tokens.add(self.shown)
        return self.shown


class Device(BaseModel):
    """A device that was let in for good."""

    id: str
    name: str
    kind: str
    at: str


class PhoneOut(BaseModel):
    """Whether the server can be reached from a phone, under which names, and who was let in."""

    open: bool
    names: list[str]
    devices: list[Device]


class LinkOut(BaseModel):
    """A link that works once, and its code to scan, as the address of a picture."""

    url: str
    code: str


class DeviceIn(BaseModel):
    """A script or device that gets a token of its own."""

    model_config = ConfigDict(extra="forbid") | example(name="Script on the old phone")

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=LINE)]


class TokenOut(BaseModel):
    """A lasting token; it is shown this once."""

    id: str
    token: str


def _by_hand(request: Request) -> None:
    """Raises 403 where a script's token asks: letting in and putting out is for a person."""
    if getattr(request.state, "device", "browser") == "script":
        raise HTTPException(403, sentence("script_lets_nobody_in"))


BY_HAND = [Depends(_by_hand)]


@router.get("")
def phone(request: Request) -> PhoneOut:
    """Whether a phone can come in, and which devices have."""
    door: Door | None = request.app.state.door
    devices = [Device(**one) for one in Devices(workspace_of(request).store).all()]
    return PhoneOut(open=door is not None, names=list(door.names) if door else [], devices=devices)


@router.post("/link", dependencies=BY_HAND, responses={404: ERRORS[404]})
def link(
    request: Request,
    name: Annotated[str, Query(max_length=255, description="One of the server's names.")],
    to: Annotated[str, Query(max_length=120, pattern=r"^[/\w]*$", description="The page that it opens.")] = "",
) -> LinkOut:
    """A fresh link for a phone. Raises NotFound where the server is open to this machine only."""
    import segno  # late: seldom wanted

    door: Door | None = request.app.state.door
    if door is None or name not in door.names:
        raise NotFound("server_of_this_machine")
    port = request.url.port
    host = f"[{name}]" if ":" in name else name
    url = f"http://{host}{f':{port}' if port else ''}{ENTER}?token={door.link()}&to={quote(to, safe='')}"
    return LinkOut(url=url, code=segno.make(url, error="m").svg_data_uri(scale=CODE_SCALE, light="white"))


@router.post("/devices", dependencies=BY_HAND, status_code=201)
def add_device(request: Request, device: DeviceIn) -> TokenOut:
    """A lasting token for a script, shown once: send it as “Authorization: Bearer …”."""
    token = secrets.token_urlsafe(32)
    kept = Devices(workspace_of(request).store).add(device.name, hashed(token), "script")
    return TokenOut(id=kept["id"], token=token)


@router.delete("/devices/{device_id}", dependencies=BY_HAND, status_code=204, responses={404: ERRORS[404]})
def remove_device(request: Request, device_id: str) -> Response:
    """Take a device's token back: it is out at once."""
    Devices(workspace_of(request).store).remove(device_id)
    return Response(status_code=204)
