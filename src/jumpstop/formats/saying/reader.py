"""The reading of a line: the longest understood words first, each as a part of the picture, a question, or unread."""

import re
from collections.abc import Callable, Mapping
from datetime import time
from typing import Any

from ...core.scene.light import OwnUnit
from ...core.scene.said import Part
from ...core.scene.setup import Setup
from ...words.saying import JOINS, NOUNS, OF_LIGHTS, PHRASES
from ..quantities import Asked, Sign, read
from ..quantities.text import plain
from .asked import NOT_UNDERSTOOD, Options, Parts, Piece, Question, SaidPicture, Sayable
from .forms import FORMS
from .speaker import Speaker
from .text import Word, words_of

MOST_WORDS = 8  # of one part
MOST_ASKED = 6  # readings that are asked about
NOON = time(12)
SUNNY = ("distinct_shadows", "sand_or_snow", "hazy_sun")
CLOCK = re.compile(
    r"\d{1,2}[:.]\d{2}( ?[ap]\.?m\.?)?|\d{1,2} ?[ap]\.?m\.?|noon|midday|midnight|half (past )?\w+"
    r"|quarter (past|to) \w+|at \w+ o'clock"
)

ONCE = frozenset({
    "aperture", "iso", "shutter", "nd", "focal", "subject_distance", "background_distance", "background", "ratio",
    "orientation", "method", "tall", "wide", "deep", "camera_height", "ceiling", "wind", "frames", "known_by", "clock",
    "distance", "height", "bearing", "dial", "level", "zoom", "gel",
})  # fmt: skip
"""Of what a picture, or a light, has one only: another is asked about, and never put in the place of the first."""
ONE_FIGURE = {"background_behind": "background_distance", "lux": "known_by", "reading": "known_by"}

Meaning = tuple[Options, bool]
"""What some words can be; and whether that wants a place."""


class Reader(Speaker):
    """One line, read once."""

    def __init__(
        self,
        text: str,
        setup: Setup,
        known: Sayable,
        chosen: Mapping[int, int],
        dial_kind: Callable[[OwnUnit], str],
        feet: bool,
        decimal: Sign,
    ) -> None:
        super().__init__(setup, known, chosen, dial_kind, feet, decimal)
        self.text = text
        self.words = list(words_of(text, known))

    def read(self) -> SaidPicture:
        """All of the line, the longest readings first."""
        at, part = 0, -1
        while at < len(self.words):
            word = self.words[at]
            if word.part != part:
                part, self.noun, self.here = word.part, "", False
            taken = self._longest(at)
            if not taken:
                if plain(word.text) not in JOINS:
                    self.unread.append((word.start, word.end))
                taken = 1
            at += taken
        return SaidPicture(tuple(self.pieces), tuple(self.questions), tuple(self.unread))

    def _longest(self, at: int) -> int:
        """How many words from here on were understood together; 0: none."""
        last = at
        while last < len(self.words) and self.words[last].part == self.words[at].part and last - at < MOST_WORDS:
            last += 1
        for end in range(last, at, -1):
            words = self.words[at:end]
            if len(words) > 1 and any(word.name is not None or word.phrase for word in words):
                continue
            start, stop = words[0].start, words[-1].end
            self.before, self.after = self._beside(at - 1, words[0].part), self._beside(end, words[0].part)
            found = self._meanings(words[0], plain(self.text[start:stop]))
            if found is not None and found[0] is NOT_UNDERSTOOD:
                self.unread.append((start, stop))
                return end - at
            if found is not None:
                self._take(start, stop, *found)
                return end - at
        return 0

    def _beside(self, at: int, part: int) -> Word | None:
        """The word at a place, if it stands in the same part of the line."""
        return self.words[at] if 0 <= at < len(self.words) and self.words[at].part == part else None

    def _take(self, start: int, stop: int, options: Options, place: bool = False) -> None:
        """Keep what was understood, or ask; what asks is taken by the answer that was given."""
        twice = self._said_twice(options[0]) if len(options) == 1 else []
        options = [*options, *twice][:MOST_ASKED]
        if len(options) == 1 and not place:
            choice: int | None = 0
        else:
            choice = self.chosen.get(start)
        if choice is None or not 0 <= choice < len(options):
            if place or (options and options[0]):
                self.questions.append(Question(start, stop, tuple(options), place, bool(twice)))
            return
        for part in options[choice]:
            if part.light is not None:
                light = self.lights[part.light]
                light.said.add(part.code)
                light.bounced = light.bounced or bool(part.facts.get("surface"))
                light.role = part.facts.get("role", light.role)
                light.unit = part.facts.get("unit", light.unit) if part.code == "unit" else light.unit
        if options[choice]:
            self.pieces.append(Piece(start, stop, options[choice]))

    def _said_twice(self, parts: Parts) -> Options:
        """What was said before, where it was something else of the same; of filters, both of them too."""
        for new in parts:
            of = ONE_FIGURE.get(new.code, new.code)
            for old in (part for piece in reversed(self.pieces) for part in piece.parts):
                if of not in ONCE or ONE_FIGURE.get(old.code, old.code) != of or old.light != new.light:
                    continue
                if old == new:
                    break
                both = Part("nd", {"stops": old.facts["stops"] + new.facts["stops"]}) if of == "nd" else None
                return [(old,)] if both is None else [(both,), (old,)]
        return []

    def _meanings(self, first: Word, said: str) -> Meaning | None:
        """What some words can mean, each as parts; None where nothing. An empty meaning only sets what is spoken of."""
        if first.name is not None:
            return self.named(first.name), False
        if first.phrase:
            return [self._of_picture(*PHRASES[first.phrase])], False
        found = self._clock(said)
        if found is not None:
            return found
        for form in FORMS:
            match = form.pattern.fullmatch(said)
            options = form.of(self, match) if match else None
            if options:
                return options, False
        if said in OF_LIGHTS:
            options = self.said_of_light(*OF_LIGHTS[said])
            return (options, False) if options else None
        if said in PHRASES:
            return [self._of_picture(*PHRASES[said])], False
        if said in NOUNS:
            self.noun = NOUNS[said]
            return [()], False
        options = self.called(said)
        return (options, False) if options else None

    def _of_picture(self, code: str, facts: Mapping[str, Any]) -> Parts:
        if code == "condition" and self.setup.ambient.by == "sun":
            if facts.get("keeps_sun") and not facts.get("sky"):
                return (Part("placement", {"subject": facts["subject"]}),) if facts.get("subject") else (
                    Part("sky", {"sky": "clear"}),)  # fmt: skip
            if facts.get("sky"):
                return (Part("sky", {"sky": facts["sky"]}),)
        if code == "condition" and facts.get("keeps_sun") and facts.get("subject") and self._sunny():
            return (Part("placement", {"subject": facts["subject"]}),)
        return (Part(code, facts),)

    def _sunny(self) -> bool:
        """Whether the light that is there, as said so far, is the sun anyway."""
        told = [part for piece in self.pieces for part in piece.parts if part.code in ("condition", "at_place")]
        if told:  # what was said of the light stands: only where the subject stands in it is said now
            return True
        return self.setup.ambient.by == "condition" and self.setup.ambient.condition in SUNNY

    def _clock(self, said: str) -> Meaning | None:
        bare = said.removeprefix("at ")
        if not CLOCK.fullmatch(bare):
            return None
        minutes = read(bare, Asked("clock")).values
        if not minutes:
            return None
        clocks = [time(int(one) // 60, int(one) % 60) for one in minutes]
        if self.setup.ambient.by == "sun":
            return [(Part("clock", {"clock": clock}),) for clock in clocks], False
        options = [
            (Part("at_place", {"place": place, "day": day, "clock": clock}),)
            for place, day in self.known.places
            for clock in clocks
        ]
        if clocks == [NOON]:
            options.append((Part("condition", {"condition": "distinct_shadows"}),))
        return options, True
