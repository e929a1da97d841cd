"""What the things are called that readings teach, and which reading is worth taking next."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from ..core.kit.learned import Key
from ..core.kit.modifier import layers_on
from ..core.kit.table import UnitTable
from ..core.plan.learn.next_reading import JobLanding, Proposal
from ..core.scene.log import LogEntry
from .effects import TICKS
from .figures import decimal, listed
from .kit import gel_words


@dataclass(slots=True)
class ReadingToTake:
    """A reading worth taking."""

    says: str
    why: str


def names_of(entries: Iterable[LogEntry], table: UnitTable) -> dict[str, str]:
    """What the things are called, by their ids: units of the shelf, and what the entries hold copies of."""
    names = dict(zip(table.ids, (unit.name for unit in table.units), strict=True))
    for entry in entries:
        was = entry.was
        if was is not None:
            for light in was.lights:
                if light.modifier is not None:
                    names.setdefault(light.modifier.id or light.modifier.name, light.modifier.name)
            for one in was.filters:
                names.setdefault(one.id or one.name, one.name)
            names.setdefault(was.body.id or was.body.name, was.body.name)
        if entry.filter is not None:
            seen = entry.filter.filter
            names.setdefault(seen.id or seen.name, seen.name)
        if entry.curtain is not None:
            body = entry.curtain.body
            names.setdefault(body.id or body.name, body.name)
    return names


PARTS = {
    ("unit", "rating"): "{}, its light",
    ("unit", "moved"): "{}, its light at a coverage it is not quoted at",
    ("unit", "hss"): "{} in high-speed sync",
    ("unit", "duration"): "{}, what its flash duration costs",
    ("body", "tone"): "{}, the tones of its frames",
    ("body", "travel"): "{}, curtain travel (log2 of the time)",
}


def thing_words(key: Key, names: Mapping[str, str]) -> str:
    """What a thing is called."""
    kind, which, part = key
    name = names.get(which, which)
    if kind == "gel":
        return gel_words(which)
    if kind == "modifier":
        return f"{name}, {part}" if part else name
    if kind == "room":
        return f"{name}, bounced off the {part}"
    if kind == "unit" and part.startswith("zoom"):
        return f"{name}, zoomed to {part.removeprefix('zoom ')} mm"
    if kind == "unit" and part in TICKS:
        return f"{name}, {TICKS[part]}"
    said = PARTS.get((kind, part))
    return name if said is None else name.join(said.split("{}"))


def next_text(
    proposals: Sequence[Proposal],
    landings: Sequence[JobLanding],
    setups: Sequence[str],
    table: UnitTable,
    names: Mapping[str, str],
) -> list[ReadingToTake]:
    """What to measure next: which unit behind what, and which verdicts it settles."""
    out = []
    for proposal in proposals:
        one = proposal.candidate
        modifier = one.light.modifier
        through = "bare" if modifier is None else f"through {modifier.name}"
        on = () if modifier is None else layers_on(modifier, one.light.layers)
        through += f" ({listed([layer.name for layer in on], 'and')} on)" if on else ""
        how = "with a test frame in high-speed sync" if one.method == "hss" else "with the flash meter"
        unit = table.units[one.unit].name
        settled = [
            f"{setups[landing.setup]} (uncertainty {decimal(before, '.2f')}, then {decimal(after, '.2f')})"
            for landing, (before, after) in zip(landings, proposal.sd, strict=True)
            if after < before * 0.9
        ]
        now, then = f"{decimal(proposal.wrong, '.1f')} of {len(landings)}", f"{decimal(proposal.wrong_after, '.1f')}"
        why = f"About {now} verdicts may be wrong now, {then} after it"
        more = f"; it says most of {listed(settled[:3], 'and')}" if settled else ""
        out.append(ReadingToTake(f"Read {unit} {through}, full power, from 2 m, {how}.", f"{why}{more}."))
    return out
