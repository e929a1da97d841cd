"""What an edit changed in a document, as single changes that name their place: what undo remembers, and takes back.

Rows of a list are named by what they are known by, so that an edit can be taken back beside another of other rows.
"""

from collections.abc import Mapping, Sequence
from typing import Any

KEYS = ("id", "key", "unit", "of", "name")  # what rows of documents are known by, the surest first
TEXT = ""  # rows that are texts are known by themselves
GONE = "gone"  # of a change: there is nothing in this place, before (was) or after it (now)

Step = str | list[str]
"""A field by its name, or a row as [the field it is known by, what it is]."""
Op = dict[str, Any]
"""path; was and now, or GONE naming which of them there is none of; follows: the row before a new one; or order, the
rows of a list before and after, as they are known."""


class Clash(Exception):  # noqa: N818
    """A change cannot be made: the place is not as it was left."""


def difference(was: Any, now: Any, path: Sequence[Step] = ()) -> list[Op]:
    """The changes that lead from one JSON value to another."""
    if was == now and type(was) is type(now):
        return []
    if isinstance(was, list) and isinstance(now, list):
        return _of_lists(was, now, path)
    if not isinstance(was, dict) or not isinstance(now, dict) or was.get("id") != now.get("id"):
        return [{"path": list(path), "was": was, "now": now}]
    out: list[Op] = []
    for name in dict.fromkeys([*was, *now]):
        there = [*path, name]
        if name not in now:
            out.append({"path": there, "was": was[name], GONE: "now"})
        elif name not in was:
            out.append({"path": there, "now": now[name], GONE: "was"})
        else:
            out += difference(was[name], now[name], there)
    return out


def applied(doc: Any, ops: Sequence[Op]) -> Any:
    """A document with changes made, copied along their paths only. Raises Clash."""
    for op in ops:
        doc = _made(doc, op["path"], op)
    return doc


def _known(row: Any, by: str) -> str | None:
    key = row if by == TEXT else row.get(by) if isinstance(row, dict) else None
    return key if isinstance(key, str) and key else None


def _key_of(*lists: list[Any]) -> str | None:
    """What the rows of lists are known by, each by another; None where they are not."""
    for by in (TEXT, *KEYS):
        known = [[_known(row, by) for row in rows] for rows in lists]
        if all(None not in keys and len(set(keys)) == len(keys) for keys in known):
            return by
    return None


def _of_lists(was: list[Any], now: list[Any], path: Sequence[Step]) -> list[Op]:
    by = _key_of(was, now)
    if by is None:
        return [{"path": list(path), "was": was, "now": now}]
    before = {_known(row, by) or "": row for row in was}
    after = {_known(row, by) or "": row for row in now}
    at = {key: [*path, [by, key]] for key in (*before, *after)}
    out = [{"path": at[key], "was": row, GONE: "now"} for key, row in before.items() if key not in after]
    stayed, stay = [key for key in before if key in after], [key for key in after if key in before]
    if stayed != stay:
        out.append({"path": list(path), "order": [by, stayed, stay]})
    last = None
    for key, row in after.items():
        if key in before:
            out += difference(before[key], row, at[key])
        else:
            out.append({"path": at[key], "now": row, GONE: "was", "follows": last})
        last = key
    return out


MISSING = object()


def _made(doc: Any, path: Sequence[Step], op: Mapping[str, Any]) -> Any:
    """`doc` with one change made; MISSING where it is taken away."""
    if not path:
        return _ordered(doc, *op["order"]) if "order" in op else _changed(doc, op)
    step, *rest = path
    if isinstance(step, str):
        if not isinstance(doc, dict):
            raise Clash
        made = _made(doc.get(step, MISSING), rest, op)
        return {name: one for name, one in doc.items() if name != step} if made is MISSING else doc | {step: made}
    by, own = step
    if not isinstance(doc, list):
        raise Clash
    keys = [_known(row, by) for row in doc]
    at = keys.index(own) if own in keys else None
    made = _made(MISSING if at is None else doc[at], rest, op)
    if at is not None:
        return [*doc[:at], *([] if made is MISSING else [made]), *doc[at + 1 :]]
    if made is MISSING:
        return doc
    follows = op.get("follows")
    to = 0 if follows is None else keys.index(follows) + 1 if follows in keys else len(doc)
    return [*doc[:to], made, *doc[to:]]


def _changed(here: Any, op: Mapping[str, Any]) -> Any:
    now = op.get("now", MISSING)
    if not _same(here, now) and not _same(here, op.get("was", MISSING)):
        raise Clash
    return now


def _same(here: Any, there: Any) -> bool:
    return here is there or (here is not MISSING and there is not MISSING and bool(here == there))


def _ordered(rows: Any, by: str, was: list[str], now: list[str]) -> Any:
    if not isinstance(rows, list):
        raise Clash
    keys = [_known(row, by) for row in rows]
    here = [key for key in keys if key in was]
    wanted = [key for key in now if key in here]
    if here not in (wanted, [key for key in was if key in here]):
        raise Clash
    places = {key: row for key, row in zip(keys, rows, strict=True) if key is not None}
    turn = iter(wanted)
    return [places[next(turn)] if key in here else row for key, row in zip(keys, rows, strict=True)]
