"""The forms of kit: all of each document is asked, once, in a way that its type can take."""

from collections.abc import Iterator
from typing import get_args

import pytest
from pydantic import BaseModel

from jumpstop.api.choices import FORMS, UNNAMED
from jumpstop.core.kit.kinds import KIT_MODELS
from jumpstop.formats.quantities import Asked, Kind, read
from jumpstop.words import forms
from jumpstop.words.forms import FieldText, Option, Reads, form_of


def flat(fields: list[FieldText]) -> Iterator[FieldText]:
    """Without the folds: what a document itself is asked."""
    for one in fields:
        yield from one.fields if one.asks == "fold" else (one,)


def documents(model: type[BaseModel]) -> Iterator[tuple[type[BaseModel], list[FieldText]]]:
    """A document's form, and those of its rows and parts by the documents that they make."""
    yield model, form_of(model)
    for one in flat(form_of(model)):
        if one.asks in ("rows", "part"):
            inner = type(FORMS[one.blank])
            assert form_of(inner) == one.fields
            yield from documents(inner)


ALL = {model.__name__: fields for kind in KIT_MODELS.values() for model, fields in documents(kind)}
MODELS = {model.__name__: model for kind in KIT_MODELS.values() for model, _ in documents(kind)}


@pytest.mark.parametrize("name", ALL)
def test_all_of_a_document_is_asked_once(name: str) -> None:
    asked = [one.key for one in flat(ALL[name])]
    assert sorted([*asked, *forms.NOT_ASKED.get(name, ())]) == sorted(MODELS[name].model_fields)
    assert all(one.label and "_" not in one.label for one in flat(ALL[name]))


def test_what_is_said_of_a_field_is_said_of_one_that_there_is() -> None:
    for table in (forms.SHORTER, forms.HINTS, forms.ONLY):
        assert {(name, key) for name, told in table.items() for key in told} <= {
            (name, key) for name, model in MODELS.items() for key in model.model_fields
        }
    every = {key for model in MODELS.values() for key in model.model_fields}
    every |= {f"{name}.{key}" for name, model in MODELS.items() for key in model.model_fields}
    assert {*forms.READS, *forms.MORE, *forms.OPTIONS} <= every
    assert set(get_args(Reads)) <= set(get_args(Kind))


def test_a_form_begins_with_a_document_that_it_can_show() -> None:
    for kind, model in KIT_MODELS.items():
        for one in flat(form_of(model)):
            value = UNNAMED[kind][one.key]
            if one.asks == "choice":
                assert value in [option.value for option in one.options], (kind, one.key)
            elif one.asks in ("rows", "set", "names"):
                assert isinstance(value, list), (kind, one.key)
            elif one.asks == "check":
                assert isinstance(value, bool), (kind, one.key)
            elif one.asks == "quantity":
                assert value is None or isinstance(value, int | float), (kind, one.key)


@pytest.mark.parametrize(
    ("document", "key", "text", "value"),
    [
        ("Body", "sync_s", "1/250", 1 / 250), ("Body", "frame_width_mm", "36 mm", 36),
        ("Body", "iso_max", "12800", 12800),
        ("Unit", "watt_seconds", "600 Ws", 600), ("Unit", "weight_g", "1.2 kg", 1200),
        ("Unit", "zoom_min_mm", "24", 24),
        ("PowerSupply", "recycle_full_s", "2.6 s", 2.6), ("PowerSupply", "capacity_wh", "72 Wh", 72),
        ("PowerScale", "lowest", "1/128", 1 / 128), ("PowerScale", "step_stops", "1/3", 1 / 3),
        ("DurationEntry", "seconds", "1/4000", 1 / 4000), ("Filter", "stops", "ND8", 3),
        ("Stand", "height_m", "260 cm", 2.6),
        ("LensKit", "widest", "f/2.8", 2.8), ("Modifier", "stops", "1 1/3 under", -4 / 3),
        ("Battery", "holds", "80 %", 0.8),
    ],
)  # fmt: skip
def test_a_quantity_is_read_as_what_it_is(document: str, key: str, text: str, value: float) -> None:
    (field,) = (one for one in flat(ALL[document]) if one.key == key)
    assert field.asks == "quantity"
    assert read(text, Asked(field.reads)).value == pytest.approx(value)


def test_what_is_asked_in_which_way() -> None:
    unit = {one.key: one for one in flat(ALL["Unit"])}
    assert unit["own_radio"].options == [Option(None, "not said"), Option(True, "yes"), Option(False, "no")]
    assert unit["zoom_min_mm"].only == ["shoe", "pocket"]
    assert (unit["claims"].asks, unit["claims"].blank, unit["claims"].add) == ("rows", "Claim", "Add a guide number")
    assert (unit["scale"].always, unit["hss"].always) == (True, False)
    assert [one.asks for one in ALL["Unit"]][:4] == ["text", "choice", "rows", "quantity"]
    assert {one.key: one.asks for one in flat(ALL["Modifier"])}["not_on"] == "names"
    assert {one.key: one.label for one in flat(ALL["Body"])}["sync_s"] == "Sync speed"  # the field says 1/250 s
