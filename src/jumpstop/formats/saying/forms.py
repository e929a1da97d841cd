"""Ways of saying a quantity, or how many there are of something: what each looks like, and what it then means."""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from ...core.scene.said import Part
from ...words.saying import GROUPS
from ..quantities.parts import WORDS
from .asked import Options
from .speaker import Speaker

SOON = 40  # 1/x with a greater x is a shutter, as a quantity by itself is
POWERS = (64, 128, 256)  # 1/x of these can be a power, and a time
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
    return [(Part("group", {"people": count}),)] if 2 <= count <= 1000 else [(Part("subject", {"kind": "person"}),)]


@_form(rf"{NUMBER} (?:frames|shots|pictures|exposures)")
def _frames(reader: Speaker, match: re.Match[str]) -> Options:
    count = _whole(match.group(1))
    return [(Part("frames", {"frames": count}),)] if 1 <= count <= 1_000_000 else []


@_form(rf"{NUMBER} (?:equal |flash )?heads?")
def _heads(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.heads(_whole(match.group(1)))


@_form(rf"{NUMBER} (?:lights|flashes|strobes|units)")
def _lights(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.several(_whole(match.group(1)))


@_form(r"iso ?/?[\d.,k]+|[\d.,]+k? ?(?:iso|asa)")
def _iso(reader: Speaker, match: re.Match[str]) -> Options:
    return _alone("iso", "iso", reader.values(match.group(), "iso", low=1, high=10_000_000))


@_form(r"f[/ :.]?\d.*|wide open|(?:aperture|at) f[/ :.]?\d.*")
def _aperture(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"^(aperture|at) ", "", match.group())
    widest = None if reader.setup.lens is None else reader.setup.apertures[0]
    return _alone("aperture", "f_number", reader.values(said, "aperture", low=0.7, high=90, widest=widest))


@_form(r"nd ?/?\d.*|x ?\d+|\d+ ?x|.+ stops? (?:of )?nd|nd .+ stops?")
def _nd(reader: Speaker, match: re.Match[str]) -> Options:
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


@_form(r"[\d.,]+ ?(?::|to) ?1|(?:ratio|lighting ratio) (?:of )?.+")
def _ratio(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"^(lighting )?ratio (of )?", "", match.group())
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


@_form(r"(?:the )?(?:background|backdrop)(?: at| is)? (.+)")
def _background(reader: Speaker, match: re.Match[str]) -> Options:
    said = re.sub(r"( behind| away| off| from the camera)$", "", match.group(1))
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


@_form(r"(.+) (?:high|up)")
def _height(reader: Speaker, match: re.Match[str]) -> Options:
    metres = [one for one in reader.far(match.group(1)) if one <= 20]
    if reader.current is None:
        return _alone("camera_height", "metres", metres) if reader.noun == "camera" else []
    return [(Part("height", {"metres": one}, reader.current),) for one in metres]


@_form(r".*\b(?:left|right|behind|o'clock)\b.*|on camera|on axis|from the camera's side|on the camera")
def _bearing(reader: Speaker, match: re.Match[str]) -> Options:
    if reader.current is None:
        return []
    found = reader.values(match.group(), "bearing", low=-180, high=180)
    return [(Part("bearing", {"deg": one}, reader.current),) for one in found]


@_form(r"level (.+)")
def _level(reader: Speaker, match: re.Match[str]) -> Options:
    if reader.current is None:
        return []
    found = reader.values(match.group(1), "level", low=-6, high=4)
    return [(Part("level", {"stops": one}, reader.current),) for one in found]


@_form(r".*\b(?:stops?|ev|under|over|brighter|darker|underexposed|overexposed)\b.*|[+-] ?\d.*|as metered")
def _stops(reader: Speaker, match: re.Match[str]) -> Options:
    return reader.levels(reader.values(match.group(), "background", low=-8, high=4))


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
