"""Where things are: distances, bearings by side, clock or compass."""

from .asked import Asked
from .parts import Node, Rule, Values, fail, only, sign_of, tokens, whole_and_part
from .units import FOOT_M, INCH_M, LENGTHS, POINTS


def _length(tree: Node, asked: Asked) -> Values:
    units = tokens(tree, "UNIT")
    size = LENGTHS.get(units[0]) if units else (FOOT_M if asked.feet else 1.0)
    return [one * size for one in only(tree, asked)] if size else fail("unknown")


def _length_and(tree: Node, asked: Asked) -> Values:
    size = LENGTHS.get(tokens(tree, "UNIT")[0])
    return [one * size for one in whole_and_part(tree, asked)] if size else fail("unknown")


def _feet_inches(tree: Node, asked: Asked) -> Values:
    ints = tokens(tree, "INT")
    inches = [float(ints[1])] if len(ints) > 1 else only(tree, asked)
    return [float(ints[0]) * FOOT_M + one * INCH_M for one in inches if one < 12] or fail("unknown")


def _metres_cm(tree: Node, asked: Asked) -> Values:
    whole, part = tokens(tree, "INT")
    return [float(whole) + float(part) / 100] if len(part) == 2 else fail("unknown")


def _bearing(tree: Node, asked: Asked) -> Values:
    sizes, sign = only(tree, asked), sign_of(tree)
    if sign:
        return [sign * one for one in sizes]
    if asked.now is not None and asked.now <= 0:
        return [either for one in sizes for either in ((one,) if one in (0, 180) else (-one, one))]
    return sizes


def _turned(tree: Node, asked: Asked) -> Values:
    left = tokens(tree, "SIDE")[0].startswith("l")
    if tokens(tree, "ITS"):
        left = not left  # the left hand of who looks at the camera is the right of the picture
    if asked.kind == "facing":
        left = not left  # a face is turned to its own right where it looks to the left of the picture
    return [-one if left else one for one in only(tree, asked)]


def _side_alone(tree: Node, asked: Asked) -> Values:
    side = -1 if tokens(tree, "SIDE")[0].startswith("l") else 1
    return [side * (-1 if asked.kind == "facing" else 1) * one for one in (45.0, 90.0)]


def _oclock(tree: Node, asked: Asked) -> Values:
    turned = -1 if asked.kind == "facing" else 1
    hours = [one for one in only(tree, asked) if 0 < one <= 12]
    return [180.0 if one == 12 else turned * (6 - one) * 30 for one in hours] or fail("unknown")


def _behind(tree: Node, asked: Asked) -> Values:
    return [180.0]


def _point(tree: Node, asked: Asked) -> Values:
    word = tokens(tree, "POINT")[0].replace(" ", "").replace("-", "")
    for name in ("north", "south", "east", "west"):
        word = word.replace(name, name[0])
    return [float(POINTS[word])] if word in POINTS else fail("unknown")


def _signed(tree: Node, asked: Asked) -> Values:
    return [(sign_of(tree) or 1) * one for one in only(tree, asked)]


RULES: dict[str, Rule] = {
    "length": _length,
    "length_and": _length_and,
    "feet_inches": _feet_inches,
    "metres_cm": _metres_cm,
    "bearing": _bearing,
    "turned": _turned,
    "turned_first": _turned,
    "side_alone": _side_alone,
    "oclock": _oclock,
    "behind": _behind,
    "point": _point,
    "number_of": _signed,
    "signed": _signed,
}
