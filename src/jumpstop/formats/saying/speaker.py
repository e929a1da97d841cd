"""What is spoken of: the light that was named last, the nouns, kit by its names; and what quantities then are."""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ...core.scene.light import OwnModifier, OwnUnit
from ...core.scene.said import Part
from ...core.scene.setup import OwnBody, OwnLens, Setup
from ...words.saying import JOINS, KINDS, NOT_LIGHTS
from ..quantities import Asked, Dial, Kind, Sign, read
from ..quantities.text import plain
from .asked import Options, Piece, Question, Sayable
from .text import Word

ROLES = ("fill", "rim", "background", "key")
SAME_SIZE = 0.06  # of a size: what is nearer is the same; makers round to inches and back
UNIT_OF_LENGTH = re.compile(r"\d ?(m|cm|ft|feet|foot|in|inch|inches|metres?|meters?|yards?)\b\.?$|['\"]")


@dataclass
class NamedLight:
    """A light as it has been named so far: which parts of it were said."""

    said: set[str] = field(default_factory=set)
    role: str | None = None
    bounced: bool = False
    unit: OwnUnit | None = None


def _kinds(said: str) -> tuple[str, ...] | None:
    """The kinds of modifier that are called so, one or several of them."""
    return KINDS.get(said.removesuffix("s") if said.removesuffix("s") in KINDS else said)


def _is_across(own: OwnModifier, across: Sequence[float]) -> bool:
    """Whether a modifier is as large as is said, by one side or two [m]: by its face, or as its name has it [cm]."""
    sides = [int(word) / 100 for word in plain(own.name).split() if word.isdigit()]
    if own.face is not None:
        sides += [own.face.width_m, own.face.rectangle_height_m or own.face.width_m]
    return all(any(abs(one - side) <= SAME_SIZE * side for side in sides) for one in across)


class Speaker:
    """A line as far as it has been read. chosen: answers that were given, by where their questions begin. dial_kind:
    how the person reads a unit's dial."""

    def __init__(
        self,
        setup: Setup,
        known: Sayable,
        chosen: Mapping[int, int],
        dial_kind: Callable[[OwnUnit], str],
        feet: bool,
        decimal: Sign,
    ) -> None:
        self.setup, self.known, self.chosen = setup, known, chosen
        self.feet, self.decimal = feet, decimal
        self.dial_kind = dial_kind
        self.lights: list[NamedLight] = []
        self.current: int | None = None  # the light that is spoken of
        self.here = False  # whether it was named in this part of the line
        self.noun = ""
        self.before: Word | None = None  # the words about those that are read
        self.after: Word | None = None
        self.pieces: list[Piece] = []
        self.questions: list[Question] = []
        self.unread: list[tuple[int, int]] = []

    # ---- lights

    def of_light(self, code: str, facts: Mapping[str, Any]) -> Options:
        """Something said of a light: of the one spoken of, or of one that begins with it."""
        fresh = self.current is None or (
            code in self.lights[self.current].said and code in ("modifier", "unit", "light", "heads")
        )
        if fresh:
            return self._begun(Part(code, facts, len(self.lights)))
        assert self.current is not None
        self.here = True
        return [(Part(code, facts, self.current),)]

    def _begun(self, part: Part) -> Options:
        """A light that is named for the first time; whose role is asked where it is not the first."""
        number = len(self.lights)
        self.lights.append(NamedLight())
        self.current, self.here = number, True
        if number == 0 or part.code == "role":
            return [(part,)]
        taken = {light.role or ("key" if at == 0 else None) for at, light in enumerate(self.lights)}
        return [(Part("role", {"role": role}, number), part) for role in ROLES if role not in taken]

    def _role(self, role: str) -> Options:
        same = next((at for at, light in enumerate(self.lights) if light.role == role), None)
        if same is not None:
            self.current, self.here = same, True
            return [(Part("light", {}, same),)]
        open_ = self.current
        if open_ is not None and self.here and self.lights[open_].role is None:
            return [(Part("role", {"role": role}, open_),)]
        return self._begun(Part("role", {"role": role}, len(self.lights)))

    def said_of_light(self, code: str, facts: Mapping[str, Any]) -> Options:
        if code == "role":
            return self._role(facts["role"])
        if code == "light" and self.after is not None and plain(self.after.text) in NOT_LIGHTS:
            return []
        if facts.get("that") and self.current is not None:
            self.here = True
            return [()]
        if code == "bounce":
            off = [one for one in self.known.modifiers if one.kind == "bounce"]
            return self._each("modifier", [{"modifier": one, "surface": facts["surface"]} for one in off])
        return self.of_light(code, facts)

    def _each(self, code: str, all_facts: Sequence[Mapping[str, Any]]) -> Options:
        """Something of a light that can be several things."""
        if not all_facts:
            return []
        first = self.of_light(code, all_facts[0])
        if len(all_facts) == 1 or len(first) != 1:
            return first
        number = first[0][-1].light
        return [(*first[0][:-1], Part(code, facts, number)) for facts in all_facts]

    def heads(self, count: int) -> Options:
        """So many equal heads of one light."""
        return self.of_light("heads", {"heads": count}) if 1 <= count <= 16 else []

    def times(self, count: int, beside: Word | None) -> Options:
        """So many of what stands beside it: of a unit, or of what is put on one."""
        if beside is None or count < 2:
            return []
        unit = isinstance(beside.name, OwnUnit) or self._calls_unit(plain(beside.text))
        if not unit and not isinstance(beside.name, OwnModifier) and _kinds(plain(beside.text)) is None:
            return []
        if unit and beside is self.after and self.current is not None and "unit" in self.lights[self.current].said:
            return self._begun(Part("heads", {"heads": count}, len(self.lights))) if count <= 16 else []
        return self.heads(count)

    def _calls_unit(self, word: str) -> bool:
        return len(word) >= 3 and word.isalpha() and any(word in plain(one.name).split() for one in self.known.units)

    def modifiers(self, said: str) -> list[OwnModifier]:
        """Those that are called so, by their kind or by some of their name."""
        kinds, wanted = _kinds(said), said.split()
        if kinds is not None:
            return [one for one in self.known.modifiers if one.kind in kinds]
        if not any(len(word) >= 3 and word.isalpha() for word in wanted) or said in JOINS:
            return []
        return [one for one in self.known.modifiers if all(word in plain(one.name).split() for word in wanted)]

    def sized(self, own: Sequence[OwnModifier], across: Sequence[float]) -> Options:
        """Those of a size [m], by one side or two."""
        return self._each("modifier", [{"modifier": one} for one in own if _is_across(one, across)])

    def bounced(self) -> bool:
        """Whether the light that is spoken of goes by a ceiling or a wall."""
        return self.current is not None and self.lights[self.current].bounced

    def is_key(self, number: int) -> bool:
        """Whether a light is the key, as the first one is where nothing else is said."""
        role = self.lights[number].role
        return role == "key" or (role is None and number == 0)

    def f_number(self) -> float:
        """The camera's aperture, as said so far."""
        said = [part.facts["f_number"] for one in self.pieces for part in one.parts if part.code == "aperture"]
        return float(said[-1] if said else self.setup.aim.f_number)

    def of_group(self) -> bool:
        """Whether more than one person stands there."""
        return self.setup.stage.kind == "group" or any(
            part.code == "group" for one in self.pieces for part in one.parts
        )

    def several(self, count: int) -> Options:
        """So many lights, of which the roles of all but the first are asked."""
        if count == 1:
            return self.of_light("light", {})
        if self.lights:
            more = count == len(self.lights) + 1
            return self._begun(Part("light", {}, len(self.lights))) if more else []
        if count > 2:
            return []
        first = self.of_light("light", {})
        return [(*first[0], *one) for one in self._begun(Part("light", {}, 1))]

    # ---- kit

    def named(self, item: Any) -> Options:
        if isinstance(item, OwnUnit):
            return self.of_light("unit", {"unit": item})
        if isinstance(item, OwnModifier):
            return self.of_light("modifier", {"modifier": item})
        if isinstance(item, OwnBody):
            return [(Part("body", {"body": item}),)]
        if isinstance(item, OwnLens):
            return [(Part("lens", {"lens": item}),)]
        return [(Part("nd", {"stops": item.stops, "filters": (item.name,)}),)]

    def called(self, said: str) -> Options:
        """Kit that is called by its kind, or by some of its name."""
        if _kinds(said) is not None:
            return self._each("modifier", [{"modifier": one} for one in self.modifiers(said)])
        wanted = said.split()
        if not any(len(word) >= 3 and word.isalpha() for word in wanted) or said in JOINS:
            return []
        known = self.known
        every: list[Any] = [*known.units, *known.modifiers, *known.bodies, *known.lenses, *known.filters]
        found = [one for one in every if all(word in plain(one.name).split() for word in wanted)]
        if not found:
            return []
        if all(isinstance(one, OwnUnit) for one in found):
            return self._each("unit", [{"unit": one} for one in found])
        if all(isinstance(one, OwnModifier) for one in found):
            return self._each("modifier", [{"modifier": one} for one in found])
        return [self.named(one)[0] for one in found] if len(found) == 1 else []

    def values(self, said: str, kind: Kind, **more: Any) -> tuple[float, ...]:
        """A quantity by the one reader."""
        return read(said, Asked(kind, feet=self.feet, decimal=self.decimal, **more)).values

    def far(self, said: str) -> tuple[float, ...]:
        """A distance that is said with its unit."""
        return self.values(said, "distance", low=0.01, high=100_000) if UNIT_OF_LENGTH.search(said) else ()

    def distances(self, metres: Sequence[float]) -> Options:
        """A distance, of what is spoken of: the background, the subject, or a light."""
        code = {"background": "background_distance", "subject": "subject_distance", "camera": "subject_distance"}
        if self.noun:
            return [(Part(code[self.noun], {"metres": one}),) for one in metres]
        light = self.current
        if light is not None and (self.here or "distance" not in self.lights[light].said):
            return [(Part("distance", {"metres": one}, light),) for one in metres]
        return [(Part("subject_distance", {"metres": one}),) for one in metres]

    def levels(self, stops: Sequence[float]) -> Options:
        """A level: of the background, or of the light that is spoken of; asked where it can be of either."""
        background = [(Part("background", {"stops": one}),) for one in stops if -8 <= one <= 4]
        if self.noun == "background" or (self.current is None and self.noun != "subject"):
            return background
        if self.noun == "subject":  # what the key does
            key = next((at for at in range(len(self.lights)) if self.is_key(at)), None)
            if key is not None:
                return [(Part("level", {"stops": one}, key),) for one in stops if -6 <= one <= 4]
            begun = self._begun(Part("role", {"role": "key"}, len(self.lights)))[0] if stops else ()
            return [(*begun, Part("level", {"stops": one}, begun[0].light)) for one in stops if -6 <= one <= 4]
        of_light = [(Part("level", {"stops": one}, self.current),) for one in stops if -6 <= one <= 4]
        return of_light if self.here else [*background, *of_light]

    def dials(self, said: str) -> Options:
        """A power, on the dial of the unit that is spoken of."""
        if self.current is None:
            found = self.values(said.removesuffix(" power").removeprefix("at "), "dial", low=0, high=13)
            begins = said.endswith("power") and len(found) == 1
            return self._begun(Part("dial", {"dial_stops": found[0]}, len(self.lights))) if begins else []
        unit = self.lights[self.current].unit
        light = self.setup.lights[0] if unit is None and self.current == 0 else None
        unit = unit or (light.unit if light else None)
        dial = None if unit is None else Dial(self.dial_kind(unit), unit.scale, unit.watt_seconds)  # type: ignore[arg-type]
        found = self.values(said.removesuffix(" power").removeprefix("at "), "dial", low=0, high=13, dial=dial)
        return [(Part("dial", {"dial_stops": one, "unit": unit}, self.current),) for one in found]
