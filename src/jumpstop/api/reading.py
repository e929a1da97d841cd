"""What a person wrote into a field, read as the quantity that the field asks for."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from ..core.kit.power import PowerScale
from ..core.kit.values import LINE, Number, example
from ..formats.quantities import Asked, Dial, Kind, read
from ..words.figures import DisplayUnits, dial_kind, sign_of
from ..words.quantities import nearest, refusal, said
from .documents import EVERYWHERE, workspace_of

router = APIRouter(prefix="/api", tags=["Reading"], responses=EVERYWHERE)


class DialAsked(BaseModel):
    """The dial that a power setting is meant for."""

    model_config = ConfigDict(extra="forbid")

    scale: PowerScale
    watt_seconds: Number | None = Field(None, gt=0, le=50_000)


class QuantityIn(BaseModel):
    """A text, and what it is asked for: the kind of quantity, the field's name and bounds, the figure there now."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False) | example(
        text="2 1/2 under", kind="background", name="Background", low=-8, high=4, now=-1.5
    )

    text: Annotated[str, Field(max_length=500)]
    kind: Kind
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=LINE)] = "This"
    low: Number | None = None
    high: Number | None = None
    now: Number | None = None
    widest: Number | None = Field(None, ge=0.5, le=128)
    dial: DialAsked | None = None


class Meaning(BaseModel):
    """One thing that a text can mean: the value, and how it is said."""

    value: float
    says: str


class QuantityOut(BaseModel):
    """What was read: a value (and the higher of a range); or what it may mean, to be asked; or why it was not taken.

    note: what should be said of the value, such as that the nearest step of a dial was taken.
    """

    outcome: Literal["read", "ask", "refused"]
    value: float | None = None
    most: float | None = None
    meanings: list[Meaning] = []
    sentence: str = ""
    note: str = ""


@router.post("/read")
def read_quantity(request: Request, asked: QuantityIn) -> QuantityOut:
    """Read what a person wrote. Nothing is changed by it, and nothing is guessed: what can be two things is asked."""
    units = workspace_of(request).preferences()
    return answered(asked, units)


def answered(asked: QuantityIn, units: DisplayUnits) -> QuantityOut:
    """The same, for a person's units."""
    scale, ws = (asked.dial.scale, asked.dial.watt_seconds) if asked.dial else (None, None)
    dial = None
    if scale is not None:
        dial = Dial(dial_kind(scale, units), scale, ws)
    outcome = read(
        asked.text,
        Asked(
            asked.kind,
            asked.low,
            asked.high,
            asked.now,
            feet=units.length == "ft",
            currency=units.currency,
            decimal=sign_of(units),
            widest=asked.widest,
            dial=dial,
        ),
    )
    values = [Meaning(value=value, says=said(value, asked.kind, units, scale, ws)) for value in outcome.values]
    if outcome.why is not None:
        reach = "" if scale is None else _reach(scale, units, ws)
        text = asked.text.strip()[:60]
        sentence = refusal(outcome.why, text, asked.name, asked.kind, units, (asked.low, asked.high), reach)
        return QuantityOut(outcome="refused", sentence=sentence)
    if outcome.value is None:
        return QuantityOut(outcome="ask", meanings=values, sentence=f"“{asked.text.strip()[:60]}” can be:")
    note = nearest(values[0].says) if outcome.moved else ""
    return QuantityOut(outcome="read", value=outcome.value, most=outcome.most, note=note)


def _reach(scale: PowerScale, units: DisplayUnits, ws: float | None) -> str:
    lowest = said(scale.dial_range_stops, "dial", units, scale, ws)
    return f"it goes from {said(0, 'dial', units, scale, ws)} down to {lowest}"
