"""Errors as sentences that name the field, from whatever a document refused, and from whatever could not be solved."""

from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple, get_args

from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo

from .figures import decimal, grouped, plain
from .titles import title_of

LISTED = 40  # so many problems are listed, and how many more there are is said


class Problem(NamedTuple):
    """One thing that is wrong: where (a path into the document), the field's name, and a sentence."""

    where: str
    field: str
    sentence: str


def problems_of(error: ValidationError | Sequence[Any], model: type[BaseModel] | None = None) -> list[Problem]:
    """The problems of a validation error in the document's order: the first ones, and how many more there are."""
    errors = error.errors(include_url=False) if isinstance(error, ValidationError) else error
    found = [_problem(entry, model) for entry in errors[:LISTED]]
    if len(errors) > LISTED:
        found.append(Problem("", "The document", f"And {grouped(len(errors) - LISTED)} more."))
    return found


def _quoted(text: object) -> str:
    return f"“{text}”"


def _unknown_layer(f: Mapping[str, Any]) -> str:
    has = ", ".join(f["known"]) or "none"
    return f"{_quoted(f['modifier'])} has no layer {_quoted(f['layer'])}; it has {has}."


SENTENCES: dict[str, Callable[[Mapping[str, Any]], str]] = {
    "unit_without_light": lambda f: (
        f"{_quoted(f['name'])} needs a guide number or an energy in Ws: without one its light is unknown."
    ),
    "zoom_reversed": lambda f: (
        f"{_quoted(f['name'])}: the widest zoom ({plain(f['widest'])} mm) is longer than the longest."
    ),
    "sync_over_top_speed": lambda f: f"{_quoted(f['name'])}: the sync speed cannot be faster than the top speed.",
    "iso_range_reversed": lambda f: f"{_quoted(f['name'])}: the lowest ISO is above the highest.",
    "variable_nd_reversed": lambda f: (
        f"{_quoted(f['name'])}: the far end of a variable ND must not be weaker than its near end."
    ),
    "unknown_zone": lambda f: f"{_quoted(f['zone'])} is no time zone; say it as in Europe/London.",
    "place_missing": lambda f: "Say the place: latitude, longitude and time zone.",
    "date_missing": lambda f: "Say the date, so that the sun can be found.",
    "own_gel_missing": lambda f: "Say what your own gel is called, and what it passes.",
    "lens_range_reversed": lambda f: f"{f['name']}: its longest focal length is shorter than its shortest.",
    "lens_closes_wider": lambda f: f"{f['name']}: its smallest aperture must be smaller than its widest.",
    "lux_missing": lambda f: "Say how many lux there are.",
    "reading_missing": lambda f: "Say what the meter read: aperture, shutter time and ISO.",
    "background_in_front": lambda f: (
        f"The background ({plain(f['background_m'])} m) must lie behind the subject ({plain(f['subject_m'])} m)."
    ),
    "too_near_to_focus": lambda f: (
        f"A lens of {plain(f['focal_mm'])} mm does not focus as near as {plain(f['subject_m'])} m."
    ),
    "lens_missing": lambda f: "Say the focal length and the distances, so that the blur can be worked out.",
    "iso_floor_above": lambda f: (
        f"The lowest ISO wanted ({plain(f['limit'])}) is above the ISO set ({plain(f['iso'])})."
    ),
    "iso_ceiling_below": lambda f: (
        f"The highest ISO wanted ({plain(f['limit'])}) is below the ISO set ({plain(f['iso'])})."
    ),
    "speed_missing": lambda f: "Say how fast it moves (Speed, in m/s).",
    "layers_without_modifier": lambda f: "Layers were named, but there is no modifier.",
    "unknown_layer": _unknown_layer,
    "seen_without_setup": lambda f: "A reading of a light needs the setup as it stood.",
    "log_with_zone": lambda f: "Say the time as the clocks of the place show it, without a time zone.",
    "seen_without_unit": lambda f: "Take a unit for the light first: a reading belongs to a unit.",
    "like_nothing": lambda f: f"Say which unit {f['name']} is held against.",
    "day_reversed": lambda f: f"The day ends ({f['ends']:%H:%M}) before it begins ({f['begins']:%H:%M}).",
    "session_without_setup": lambda f: f"A session asks for a setup that is not in this job ({_quoted(f['setup'])}).",
    "setup_twice": lambda f: f"Two setups of this job have the same id ({_quoted(f['setup'])}).",
    "job_without_day": lambda f: "Say the day of the job first: a calendar wants a date.",
    "no_setups": lambda f: "No setup belongs to this job yet: add one first.",
    "day_without_sun": lambda f: "The day's course needs a place and a date: say the ambient by the sun.",
    "method_blocked": lambda f: "This method is not possible here: there is nothing to show.",
    "unreadable_setup": lambda f: f"This setup cannot be read: {f['why']}",
    "empty_shelf": lambda f: "The shelf is empty: add a flash unit, or import a list of them.",
    "no_such_light_output": lambda f: (
        f"That would be a guide number of {decimal(f['guide_number'], '.3g')}, which no flash has: check the reading."
    ),
    "no_such_light": lambda f: f"There is no light number {f['number']} in this setup.",
    "no_usable_unit": lambda f: "No unit can be used so: there is nothing to show.",
}

BOUNDS = (("ge", "at least"), ("gt", "more than"), ("le", "at most"), ("lt", "less than"))


def _problem(entry: Any, model: type[BaseModel] | None) -> Problem:
    path = [part for part in entry["loc"] if part not in ("body", "query", "path", "header")]
    title = _title(path, model)
    where = ".".join(str(part) for part in path)
    return Problem(where, title, _sentence(title, entry))


def _sentence(title: str, entry: Any) -> str:
    context = entry.get("ctx") or {}
    given, kind = entry.get("input"), str(entry["type"])
    if kind in SENTENCES:
        return SENTENCES[kind](context)
    got = f" (got {given!r})" if isinstance(given, str | int | float) and not isinstance(given, bool) else ""
    got = got if len(got) < 60 else ""
    said = {
        "missing": f"{title} is missing.",
        "extra_forbidden": f"There is no field “{entry['loc'][-1] if entry['loc'] else ''}” here.",
        "finite_number": f"{title} must be a finite number{got}.",
        "float_parsing": f"{title} must be a number{got}.",
        "float_type": f"{title} must be a number{got}.",
        "int_parsing": f"{title} must be a whole number{got}.",
        "int_type": f"{title} must be a whole number{got}.",
        "int_from_float": f"{title} must be a whole number{got}.",
        "bool_parsing": f"{title} must be yes or no{got}.",
        "bool_type": f"{title} must be yes or no{got}.",
        "string_type": f"{title} must be text{got}.",
        "string_too_short": f"{title} must not be empty.",
        "string_too_long": f"{title} is longer than {context.get('max_length')} characters.",
        "string_pattern_mismatch": f"{title} must not hold control characters.",
        "string_unicode": f"{title} holds characters that are no text.",
        "too_long": f"{title}: at most {context.get('max_length')} are allowed.",
        "too_short": f"{title}: at least {context.get('min_length')} needed.",
        "literal_error": f"{title} must be {context.get('expected')}{got}.",
        "model_type": f"{title} must be a set of named fields.",
        "tuple_type": f"{title} must be a list.",
        "time_parsing": f"{title} must be a time such as 12:30{got}.",
        "date_from_datetime_parsing": f"{title} must be a date such as 2026-06-24{got}.",
        "json_invalid": f"This is not JSON that can be read: {context.get('error', entry['msg'])}.",
    }.get(kind)
    if said is not None:
        return said
    for name, words in BOUNDS:
        if name in context:
            return f"{title} must be {words} {_plain(context[name])}{got}."
    return f"{title}: {entry['msg']}{got}."


def _plain(number: Any) -> str:
    if isinstance(number, float) and 0 < number < 0.01:
        return f"1/{1 / number:.0f}"
    if isinstance(number, int | float):
        return decimal(number, ",.6g" if isinstance(number, float) else ",")
    return str(number)


def _title(path: Sequence[str | int], model: type[BaseModel] | None) -> str:
    """The field's own title, found by walking the model; with the row's number where there are several."""
    name, rows = "The document", []
    current: Any = model
    for part in path:
        if isinstance(part, int):
            rows.append(part + 1)
            continue
        info = current.model_fields.get(part) if isinstance(current, type) and issubclass(current, BaseModel) else None
        found = title_of(current, part) if info else None
        name = found or (info.title if info else None) or str(part).replace("_", " ").capitalize()
        current = _inner(info) if info else None
    return f"{name} (number {rows[-1]})" if rows else name


def _inner(info: FieldInfo) -> type[BaseModel] | None:
    """The model inside a field's type, through tuples and optionals."""
    waiting: list[Any] = [info.annotation]
    while waiting:
        kind = waiting.pop()
        if isinstance(kind, type) and issubclass(kind, BaseModel):
            return kind
        waiting.extend(get_args(kind))
    return None
