"""Ways of saying a quantity, or how many there are of something: what each looks like, and what it then means."""

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from ...core.scene.said import Part
from ...words.saying import GROUPS, KINDS, OF_LIGHTS
from ..quantities.parts import WORDS
from .asked import NOT_UNDERSTOOD, Options
from .speaker import ROLES, Speaker

SOON = 40  # 1/x with a greater x is a shutter, as a quantity by itself is
WHOM = "(?:the )?(?:subject|face|them|him|her|model|group|couple|people)"
WALL = "(?:the )?(?:background|backdrop|wall)"
NAMED = "|".join(sorted((said for said, (code, _) in OF_LIGHTS.items() if code == "role"), key=len, reverse=True))
KIND = "|".join(sorted(map(re.escape, KINDS), key=len, reverse=True))
POWERS = (64, 128, 256)  # 1/x of these can be a power, and a time
CENTIMETRES = re.compile(r"\d ?(?:cm|in|inch|inches)$")
NUMBER = r"(\d[\d,.]*|an?|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)"


def _whole(said: str) -> int:
    """A count in digits or words."""
    value = WORDS.get(said)
    return int(value) if value is not None else int(re.sub(r"[.,]", "", said))


@dataclass(frozen=True)
class Form:
    """A way of saying something: what it looks like, and what it then means."""

    pattern: re.Pattern[str]
    of: Callable[[Speaker, re.Match[str]], Options]


def _form(pattern: str) -> Callable[[Callable[[Speaker, re.Match[str]], Options]], Any]:
    def keep(of: Callable[[Speaker, re.Match[str]], Options]) -> Any:
        FORMS.append(Form(re.compile(pattern), of))
        return of

    return keep


FORMS: list[Form] = []


def _alone(code: str, name: str, values: Sequence[float]) -> Options:
    return [(Part(code, {name: value}),) for value in values]


@_form(rf"(?:an? )?(?:{'|'.join(GROUPS)}) of {NUMBER}|{NUMBER} (?:people|persons|guests|kids|children|players|of them)")
def _people(reader: Speaker, match: re.Match[str]) -> Options:
    count = _whole(match.group(1) or match.group(2))
    one = (Part("subject", {"kind": "person"}),)
    if not 2 <= count <= 1000:
        return [one]
    group = (Part("group", {"people": count}),)
    return [group, one] if any(part.facts.get("singly") for piece in reader.pieces for part in piece.parts) else [group]


@_form(rf"(?:in )?{NUMBER} rows?")
def _rows(reader: Speaker, match: re.Match[str]) -> Options:
    rows = _whole(match.group(1))
    return [(Part("rows", {"rows": rows}),)] if 1 <= rows <= 20 and reader.of_group() else []


@_form(rf"{NUMBER} (?:headshots|portraits)")
def _one_by_one(reader: Speaker, match: re.Match[str]) -> Options:
    return [(Part("subject", {"kind": "person"}),)]


@_form(rf"{NUMBER} (?:frames|shots|pictures|exposures)(?: each)?")
def _frames(reader: Speaker, match: re.Match[str]) -> Options:
    count = _whole(match.group(1))
    return [(Part("frames", {"frames": count}),)] if 1 <= count <= 1_000_000 else []


@_form(rf"{NUMBER} (?:equal |flash )?heads?")
def _heads(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.heads(_whole(match.group(1)))


@_form(r"(\d+) ?x|x ?(\d+)|([2-8]|two|three|four|five|six|seven|eight)")
def _so_many(reader: Speaker, match: re.Match[str]) -> Options:
    """2 x before a unit or what is put on it, x 2 after it: so many heads."""
    before, after, word = match.groups()
    return reader.times(_whole(before or after or word), reader.before if after else reader.after)


@_form(rf"{NUMBER} (?:lights|flashes|strobes|units)")
def _lights(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.several(_whole(match.group(1)))


@_form(r"iso ?/?[\d.,k]+|[\d.,]+k? ?(?:iso|asa)")
def _iso(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("iso", "iso", reader.values(match.group(), "iso", low=1, high=10_000_000))


@_form(rf"(?:the )?(flash|strobe|light|{NAMED})(?: light)?(?: is| switched| turned)? off")
def _off(reader: Speaker, match: re.Match[str]) -> Options:
    """Switched off, where nothing is said that it would be off: the ceiling, the camera."""
    if reader.after is not None:
        return []
    named = reader.said_of_light(*OF_LIGHTS[match.group(1)])
    return [(*light, Part("off", {"on": False}, reader.current)) for light in named]


@_form(rf"(?:the )?(flash|strobe|light|{NAMED})(?: light)? to {WHOM}(?: is| at)? (.+)")
def _light_to_subject(reader: Speaker, match: re.Match[str]) -> Options:
    metres = reader.far(match.group(2))
    named = reader.said_of_light(*OF_LIGHTS[match.group(1)]) if metres else []
    return [(*light, Part("distance", {"metres": one}, reader.current)) for light in named for one in metres]


@_form(rf"(?:from )?{WHOM} to {WALL}(?: is| at)? (.+)")
def _subject_to_background(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("background_behind", "metres", reader.far(match.group(1)))


@_form(r"f[/ :.]?\d.*|wide open|(?:aperture|at) f[/ :.]?\d.*")
def _aperture(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"^(aperture|at) ", "", match.group())
    widest = None if reader.setup.lens is None else reader.setup.apertures[0]
    found = reader.values(said, "aperture", low=0.7, high=90, widest=widest)
    camera = _alone("aperture", "f_number", found)
    if not reader.here or reader.current is None or reader.is_key(reader.current):
        return camera
    levels = [2 * math.log2(one / reader.f_number()) for one in found]  # fill at f/5.6, as a meter has it
    return [*((Part("level", {"stops": round(one * 3) / 3}, reader.current),) for one in levels), *camera]


@_form(
    r"(?:the )?(?:ambient|(?:light |ambient |spot |shade )?meter|metered|incident|i read)"
    r"(?: in the shade)?(?: reads| reading| says| at| of| is)* (f? ?/?[\d.]+)(?: at| and)? "
    r"(1/[\d.]+|\d+th|[\d.]+(?= s))(?: s)?(?:(?: at)? (iso ?[\d,]+))?"
)
def _metered(reader: Speaker, match: re.Match[str]) -> Options:
    """What a meter reads of the light that is there: it is no setting of the camera."""
    apertures = reader.values(match.group(1), "meter", low=0.7, high=90)
    times = reader.values(f"{match.group(2)} s", "shutter", low=1 / 100_000, high=3600)
    isos = reader.values(match.group(3), "iso", low=1, high=10_000_000) if match.group(3) else (None,)
    of = "subject" if "incident" in match.group() else "shade" if "shade" in match.group() else "background"
    return [(Part("reading", {"f_number": f, "shutter_s": s, "iso": iso, "of": of}),)
            for f in apertures for s in times for iso in isos]  # fmt: skip


@_form(r"ev ?(-?[\d.,]+)(?: at iso ?100)?|(-?[\d.,]+) ?ev at iso ?100")
def _ev(reader: Speaker, match: re.Match[str]) -> Options:
    found = reader.values(match.group(1) or match.group(2), "ev", low=-6, high=20)
    return [(Part("reading", {"ev": one, "of": "background"}),) for one in found]


@_form(r"nd ?/?\d.*|x ?\d+|\d+ ?x|.+ stops? (?:of )?nd|nd .+ stops?")
def _nd(reader: Speaker, match: re.Match[str]) -> Options:
    if re.fullmatch(r"x ?[12]|[12] ?x", match.group()):  # what lengthens a lens is sold as that too
        return NOT_UNDERSTOOD
    said = re.sub(r" (of )?nd$", "", match.group())
    return _alone("nd", "stops", reader.values(said, "nd", low=0, high=40))


@_form(r"(?:shutter |at )?(1/\d[\d.,]*(?: ?s| sec| seconds?)?|\d+th|[\d.,]+ ?(?:s|secs?|seconds?|ms|\")(?:\d)?)")
def _shutter(reader: Speaker, match: re.Match[str]) -> Options:
    said = match.group(1)
    over = re.fullmatch(r"1/(\d+)", said)
    found = _alone("shutter", "shutter_s", reader.values(said, "shutter", low=1 / 100_000, high=3600))
    if over is None or (int(over.group(1)) >= SOON and int(over.group(1)) not in POWERS):
        return found
    dials = reader.dials(said)
    return dials if dials and reader.here else [*found, *dials]


@_form(r"[\d.,]+ ?(?::|to) ?1(?: ratio)?|(?:ratio|lighting ratio) (?:of )?.+")
def _ratio(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"^(lighting )?ratio (of )?| ratio$", "", match.group())
    return _alone("ratio", "ratio", reader.values(said, "ratio", low=1.05, high=64))


@_form(r"trails?(?: of)? (.+)|(.+) trails?")
def _trails(reader: Speaker, match: re.Match[str]) -> Options:
    found = reader.values(match.group(1) or match.group(2), "shutter", low=1 / 250, high=60)
    return [(Part("motion", {"kind": "trails", "trail_s": one}),) for one in found]


@_form(r"zoom(?:ed)?(?: to| at)? (\d+) ?(?:mm)?")
def _zoom(reader: Speaker, match: re.Match[str]) -> Options:
    found = reader.values(f"{match.group(1)} mm", "focal", low=8, high=800)
    return [(Part("zoom", {"focal_mm": one}, reader.current),) for one in found] if reader.current is not None else []


@_form(r"[\d.,]+ ?mm(?: lens)?")
def _focal(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("focal", "focal_mm", reader.values(match.group().removesuffix(" lens"), "focal", low=4, high=2000))


@_form(r"[\d.,]+ ?(?:lx|lux|klx)")
def _lux(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("lux", "lux", reader.values(match.group(), "lux", low=0.001, high=200_000))


@_form(r"wind(?: of| at)? (.+)|(.+) (?:of )?wind")
def _wind(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("wind", "speed", reader.values(match.group(1) or match.group(2), "speed", low=0, high=60))


@_form(r"(?:the )?ceiling(?: at| of| is)? (.+)|(.+) ceiling")
def _ceiling(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("ceiling", "metres", [one for one in reader.far(match.group(1) or match.group(2)) if 1 <= one <= 30])


@_form(rf"{WALL}(?: is| at)? (.+?) behind(?: {WHOM})?")
def _behind(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("background_behind", "metres", reader.far(match.group(1)))


@_form(rf"{WALL} behind(?: {WHOM})?(?: is)?(?: at)? (.+)")
def _behind_at(reader: Speaker, match: re.Match[str]) -> Options:
    """From the subject, or from the camera as backgrounds are said elsewhere: it is asked."""
    found = reader.far(match.group(1))
    return [*_alone("background_behind", "metres", found), *_alone("background_distance", "metres", found)]


@_form(r"(?:the )?(?:background|backdrop)(?: at| is)? (.+)")
def _background(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"( away| off| from the camera)$", "", match.group(1))
    found = _alone("background_distance", "metres", reader.far(said))
    return found or _alone("background", "stops", reader.values(said, "background", low=-8, high=4, now=-1.0))


@_form(r"(?:the )?(?:subject|face)(?: at| is)? (.+)|(?:camera|lens) (?:at )?(.+) (?:away|off)")
def _subject(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("subject_distance", "metres", reader.far(match.group(1) or match.group(2)))


@_form(r"(?:the )?camera(?: at)? (.+?)(?: up| high)")
def _camera(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("camera_height", "metres", [one for one in reader.far(match.group(1)) if one <= 30])


@_form(r"(.+) (tall|wide|deep)")
def _size(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone(match.group(2), "metres", [one for one in reader.far(match.group(1)) if one <= 100])


@_form(r"(\S+(?: (?:cm|m|in|inch|inches|ft|feet|foot|x \d+(?: cm)?))?) (.+)")
def _sized(reader: Speaker, match: re.Match[str]) -> Options:
    """A modifier by its size; one that is not there is not understood, and its size is no distance."""
    size, own = _across(reader, match.group(1)), reader.modifiers(match.group(2))
    if not size or not own:
        return []
    return reader.sized(own, size) or NOT_UNDERSTOOD


@_form(rf"({KIND}) (.+)")
def _of_a_size(reader: Speaker, match: re.Match[str]) -> Options:
    """The other way round one side in centimetres or inches may as well be the distance."""
    said = match.group(2)
    size = _across(reader, said)
    if not size or (len(size) == 1 and not CENTIMETRES.search(said)):
        return []
    found = reader.sized(reader.modifiers(match.group(1)), size)
    if len(size) > 1:
        return found or NOT_UNDERSTOOD
    far = [(*parts[:-1], Part("modifier", parts[-1].facts, parts[-1].light),
            Part("distance", {"metres": size[0]}, parts[-1].light)) for parts in found[:1]]  # fmt: skip
    return [*found, *far]


def _across(reader: Speaker, said: str) -> tuple[float, ...]:
    """A size [m], the longer side last; empty where none is said."""
    sides = re.fullmatch(r"(\d+) ?(?:cm)? ?x ?(\d+)(?: ?cm)?", said)
    if sides:
        return tuple(sorted(int(side) / 100 for side in sides.groups()))
    return reader.far(said)


@_form(r"(.+) (?:high|up)")
def _height(reader: Speaker, match: re.Match[str]) -> Options:
    metres = [one for one in reader.far(match.group(1)) if one <= 20]
    if reader.current is None:
        return _alone("camera_height", "metres", metres) if reader.noun == "camera" else []
    ceiling = _alone("ceiling", "metres", [one for one in metres if one > 1]) if reader.bounced() else []
    return [*ceiling, *((Part("height", {"metres": one}, reader.current),) for one in metres)]


@_form(r".*\b(?:left|right|behind|o'clock)\b.*|on camera|on axis|from the camera's side|on the camera")
def _bearing(reader: Speaker, match: re.Match[str]) -> Options:
    if reader.current is None:
        return []
    found = reader.values(match.group(), "bearing", low=-180, high=180)
    return [(Part("bearing", {"deg": one}, reader.current),) for one in found]


@_form(r"(?:fec|flash (?:exposure )?comp(?:ensation)?)(?: at| of)? (.+)|(.+) on (?:the )?(flash|strobe|key|fill|rim)")
def _compensation(reader: Speaker, match: re.Match[str]) -> Options:
    """What is dialled to a flash, not to the ambient."""
    said, after, of = match.groups()
    found = reader.values(said or after, "level", low=-6, high=4, now=-1.0)
    if not found:
        return []
    named = reader.said_of_light(*(("role", {"role": of}) if of in ROLES else ("light", {"that": True})))
    return [(*light, Part("level", {"stops": one}, reader.current)) for light in named for one in found]


@_form(r"level (.+)")
def _level(reader: Speaker, match: re.Match[str]) -> Options:
    if reader.current is None:
        return []
    found = reader.values(match.group(1), "level", low=-6, high=4)
    return [(Part("level", {"stops": one}, reader.current),) for one in found]


@_form(rf"(.+?) (over|above|under|below)(?: the)? (ambient|{NAMED})(?: light)?")
def _against(reader: Speaker, match: re.Match[str]) -> Options:
    """A light against the ambient or another: what is as far over the ambient leaves the background under, what is
    under it is a fill; of two lights the one that is not the key has the level."""
    number = reader.current
    found = reader.values(match.group(1), "level", low=0, high=6)
    if number is None or not found:
        return []
    over, of = match.group(2) in ("over", "above"), match.group(3)
    if of == "ambient":
        if over:
            return _alone("background", "stops", [-one for one in found])
        return [(Part("background", {"stops": 0.0}), Part("level", {"stops": -one}, number)) for one in found]
    signed = [one if over else -one for one in found]
    if OF_LIGHTS[of][1]["role"] == "key":
        return [(Part("level", {"stops": one}, number),) for one in signed]
    if not reader.is_key(number):
        return NOT_UNDERSTOOD
    other = reader.said_of_light(*OF_LIGHTS[of])
    return [(*light, Part("level", {"stops": -one}, reader.current)) for light in other for one in signed]


@_form(
    r".*\b(?:stops?|ev|under|over|brighter|darker|underexposed|overexposed)\b.*"
    r"|[+-] ?\d.*|as metered|(?:at )?(?:minus|plus) .+"
)
def _stops(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub("^at (?=minus|plus)", "", match.group())
    return reader.levels(reader.values(said, "background", low=-8, high=4))


@_form(r"(?:on )?manual(?: at)? (1/\d+|full|half|quarter)")
def _manual(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.dials(f"{match.group(1)} power")


@_form(r".+ power|(?:at )?\d+/\d+.*|(?:at )?[\d.]+ of \d+|(?:at )?\d[\d.]* ?(?:ws|j)|(?:at )?(?:half|full|quarter)")
def _dial(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.dials(match.group())


@_form(r"at ([\d.]+)")
def _setting(reader: Speaker, match: re.Match[str]) -> Options:
    """A bare figure: what a light's own dial shows, or its level at 0."""
    if reader.current is None or not reader.here:
        return []
    if reader.lights[reader.current].unit is not None:
        return reader.dials(match.group(1))
    return [(Part("level", {"stops": 0.0}, reader.current),)] if match.group(1) == "0" else []


@_form(r".*\d.*")
def _distance(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.distances(reader.far(re.sub(r"^(at|from) | (away|off)$", "", match.group())))
