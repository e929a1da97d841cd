"""Errors as sentences that name the field, from whatever a model refused."""

from collections.abc import Sequence
from typing import Any, NamedTuple, get_args

from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo


class Problem(NamedTuple):
    """One thing that is wrong: where (a path into the document), the field's name, and a sentence."""

    where: str
    field: str
    sentence: str


def problems_of(error: ValidationError | Sequence[Any], model: type[BaseModel] | None = None) -> list[Problem]:
    """Every problem of a validation error, in the document's order."""
    errors = error.errors(include_url=False) if isinstance(error, ValidationError) else error
    return [_problem(entry, model) for entry in errors]


def _problem(entry: Any, model: type[BaseModel] | None) -> Problem:
    path = [part for part in entry["loc"] if part not in ("body", "query", "path", "header")]
    title = _title(path, model)
    where = ".".join(str(part) for part in path)
    return Problem(where, title, _sentence(title, entry))


def _sentence(title: str, entry: Any) -> str:
    context = entry.get("ctx") or {}
    given = entry.get("input")
    got = f" (got {given!r})" if isinstance(given, str | int | float) and not isinstance(given, bool) else ""
    got = got if len(got) < 60 else ""
    kind = str(entry["type"])
    if kind == "value_error":
        return str(context.get("error") or entry["msg"]).removeprefix("Value error, ")
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
        "string_too_short": f"{title} must not be empty.",
        "string_too_long": f"{title} is longer than {context.get('max_length')} characters.",
        "too_long": f"{title}: at most {context.get('max_length')} are allowed.",
        "too_short": f"{title}: at least {context.get('min_length')} needed.",
        "literal_error": f"{title} must be {context.get('expected')}{got}.",
        "model_type": f"{title} must be a set of named fields.",
        "time_parsing": f"{title} must be a time such as 12:30{got}.",
        "date_from_datetime_parsing": f"{title} must be a date such as 2026-06-24{got}.",
        "json_invalid": f"This is not JSON that can be read: {context.get('error', entry['msg'])}.",
    }.get(kind)
    if said is not None:
        return said
    for name, words in (("ge", "at least"), ("gt", "more than"), ("le", "at most"), ("lt", "less than")):
        if name in context:
            return f"{title} must be {words} {_plain(context[name])}{got}."
    return f"{title}: {entry['msg']}{got}."


def _plain(number: Any) -> str:
    if isinstance(number, float) and 0 < number < 0.01:
        return f"1/{1 / number:.0f}"
    return f"{number:g}" if isinstance(number, int | float) else str(number)


def _title(path: Sequence[str | int], model: type[BaseModel] | None) -> str:
    """The field's own title, found by walking the model; with the row's number where there are several."""
    name, rows = "The document", []
    current: Any = model
    for part in path:
        if isinstance(part, int):
            rows.append(part + 1)
            continue
        info = current.model_fields.get(part) if isinstance(current, type) and issubclass(current, BaseModel) else None
        name = (info.title if info and info.title else None) or str(part).replace("_", " ").capitalize()
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
