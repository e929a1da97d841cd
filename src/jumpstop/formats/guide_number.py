"""Guide numbers as makers print them: `GN 60 (ISO 100, m, 200 mm)`, `197 ft ISO 200 @ 105mm`."""

from ..core.kit.unit import Claim
from ..core.plan.learn.sheet import guide_choices
from .errors import UnreadableFile
from .quantities.asked import Sign
from .spec.lines import fields_of, parts
from .spec.tokens import tokens

LONGEST = 200


def parse_guide_number(text: str, sign: Sign = "") -> Claim:
    """A claim from print. Raises Unreadable with a sentence where the number or its unit cannot be told.

    Without an ISO, ISO 100 is taken (that is how they are printed); without a unit it is refused, since a guess
    would be wrong by a factor of three. Where metres and feet stand side by side, the metres are read.
    """
    if len(text) > LONGEST:
        raise UnreadableFile("guide_number_long")
    line = tokens(f"guide number: {text}", sign)
    found = [value for part in parts(line) for topic, value in fields_of(part) if topic == "guide"]
    if not found:
        raise UnreadableFile("no_guide_number", text=text.strip())
    if len(found) > 1:
        raise UnreadableFile("guide_numbers", text=text.strip())
    if found[0]["unit"] is None:
        raise UnreadableFile("guide_number_of_what", text=text.strip())
    measured = any(one.kind == "other" and one.text == "measured" for one in line)
    return Claim.model_validate(guide_choices(found[0], None)[0] | {"measured": measured})
