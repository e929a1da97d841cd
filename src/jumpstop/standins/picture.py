"""A frame as the camera writes it: drawn from the levels in linear light, then a real JPEG with its Exif."""

import io
import math
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache

import numpy as np
from PIL import Image, ImageDraw, ImageFilter
from PIL.ExifTags import IFD, Base
from PIL.TiffImagePlugin import IFDRational

from ..core.physics import tone
from ..core.physics.arrays import Floats
from ..core.physics.optics import blur_disc_mm
from ..core.physics.scales import APERTURES, SHUTTERS
from ..core.physics.tone import GREY
from ..core.plan.camera.look import field_m
from ..core.plan.stage.picture import Framing, framing_of
from ..core.scene.setup import Setup
from .rig import ROWS, Exposed

LONG, SHORT = 540, 360  # pixels
QUALITY, FULL_COLOUR = 95, 0
NOISE = 0.004  # of full light, at ISO 100; grows with its root; from memory
MOST_NOISE = 0.03
BINS = 64

# What is drawn: places on the map of regions, the receiver whose light each has, its reflectance and tint (of green 1).
PARTS: dict[str, tuple[str, float, tuple[float, float, float]]] = {
    "wall": ("background", 0.18, (0.98, 1.0, 1.03)),
    "ground": ("background", 0.14, (1.04, 1.0, 0.9)),
    "coat_lit": ("lit", 0.08, (0.9, 1.0, 1.12)),
    "coat_shadow": ("shadow", 0.08, (0.9, 1.0, 1.12)),
    "face_lit": ("lit", 0.36, (1.16, 1.0, 0.88)),
    "face_shadow": ("shadow", 0.36, (1.16, 1.0, 0.88)),
    "hair": ("lit", 0.05, (1.05, 1.0, 0.95)),
    "rim": ("edge", 0.36, (1.1, 1.0, 0.92)),
    "card": ("lit", GREY, (1.0, 1.0, 1.0)),
    "card_shadow": ("shadow", GREY, (1.0, 1.0, 1.0)),
    "card_edge": ("edge", GREY, (1.0, 1.0, 1.0)),
    "left": ("left", 0.36, (1.16, 1.0, 0.88)),
    "right": ("right", 0.36, (1.16, 1.0, 0.88)),
    "far": ("far", 0.36, (1.16, 1.0, 0.88)),
    "card_left": ("left", GREY, (1.0, 1.0, 1.0)),
    "card_right": ("right", GREY, (1.0, 1.0, 1.0)),
}
TURN = 0.022  # of the frame's width: how soft the change from lit to shadow is drawn
PLACES = {name: at for at, name in enumerate(PARTS)}
ROUND = {
    "face": [PLACES[name] for name in ("face_lit", "face_shadow")],
    "coat": [PLACES[name] for name in ("coat_lit", "coat_shadow")],
}
DROPS = 90
DROP_REFLECTANCE = 0.8  # of chalk or milk, from memory


@dataclass(frozen=True)
class Box:
    """A patch of the frame: shares of its width and height."""

    x: float
    y: float
    w: float
    h: float


@dataclass(frozen=True)
class Shot:
    """A frame as it was written: the file, its histogram (counts of pixels by brightness, dark to bright), the share
    that clips, and where its grey cards are."""

    jpeg: bytes
    histogram: tuple[int, ...]
    clipped: float
    cards: dict[str, Box]


@dataclass(frozen=True, eq=False)
class Drawn:
    """What is in the frame: which part each pixel shows, of shape (height, width), and where the cards are.

    turned: how much of the shadow side's light a pixel of a rounded part has (0 to 1), likewise.
    """

    parts: np.ndarray
    cards: dict[str, Box]
    turned: Floats


@lru_cache(maxsize=32)
def drawn(kind: str, people: int, framing: Framing, lit_right: bool) -> Drawn:
    """The picture's parts."""
    width, height = (SHORT, LONG) if framing.upright else (LONG, SHORT)
    image = Image.new("L", (width, height), PLACES["wall"])
    pen = ImageDraw.Draw(image)
    horizon = min(max(framing.horizon, 0.45), 0.9)
    pen.rectangle((0, horizon * height, width, height), fill=PLACES["ground"])
    cards: dict[str, Box] = {}
    if kind == "group":
        _group(pen, width, height, people, framing, cards)
    elif kind == "object":
        _vessel(pen, width, height, lit_right, cards)
    else:
        _person(pen, width, height, framing, lit_right, cards)
    parts = np.asarray(image)
    return Drawn(parts, cards, _turned(parts))


def _turned(parts: np.ndarray) -> Floats:
    """From the lit half of what is round to its other: a soft change, as wide as a face is."""
    out = np.zeros(parts.shape)
    for name in ("face", "coat"):
        shadow, own = parts == PLACES[f"{name}_shadow"], np.isin(parts, ROUND[name])
        if shadow.any():
            soft = ImageFilter.GaussianBlur(TURN * parts.shape[1])
            blurred = [np.asarray(Image.fromarray(np.uint8(255 * one)).filter(soft), float) for one in (shadow, own)]
            out = np.where(own, blurred[0] / np.maximum(blurred[1], 1.0), out)
    return np.clip(out, 0.0, 1.0)


def _card(pen: ImageDraw.ImageDraw, size: tuple[int, int], name: str, box: Box, cards: dict[str, Box]) -> None:
    """A grey card; the patch that is read is its middle."""
    width, height = size
    left, top = round(box.x * width), round(box.y * height)
    right, bottom = round((box.x + box.w) * width), round((box.y + box.h) * height)
    pen.rectangle((left, top, right - 1, bottom - 1), fill=PLACES[name])
    across, up = (right - left) / 4, (bottom - top) / 4
    cards[name] = Box(
        (left + across) / width, (top + up) / height, 2 * across / width, 2 * up / height
    )  # well inside, so that no edge is in it


def _person(
    pen: ImageDraw.ImageDraw, width: int, height: int, framing: Framing, lit_right: bool, cards: dict[str, Box]
) -> None:
    """One person: head, coat, the lit half on one side, and three cards: one for each side, one for the edge."""
    top, middle = max(0.02, framing.head) * height, width / 2
    tall = max(0.3, min(framing.feet, 3.0) - framing.head) * height
    head = min(tall * 0.13, height * 0.34)
    half = head * 0.36
    shoulder = max(head * 0.95, framing.width * width / 2)
    halves = (0.0, middle), (middle, float(width))
    sides = {"lit": halves[lit_right], "shadow": halves[not lit_right]}
    rim = max(2.0, head * 0.05)
    edge_at = -1 if lit_right else 1
    pen.ellipse(
        (middle - half + edge_at * rim, top - rim, middle + half + edge_at * rim, top + head), fill=PLACES["rim"]
    )
    for side, (left, right) in sides.items():
        body = Image.new("1", (width, height))
        shape = ImageDraw.Draw(body)
        shape.rounded_rectangle(
            (middle - shoulder, top + head * 1.12, middle + shoulder, height * 2), radius=head * 0.5, fill=1
        )
        shape.rectangle((middle - half * 0.5, top + head * 0.8, middle + half * 0.5, top + head * 1.3), fill=1)
        _fill(pen, body, left, right, PLACES[f"coat_{side}"])
        face = Image.new("1", (width, height))
        ImageDraw.Draw(face).ellipse((middle - half, top, middle + half, top + head), fill=1)
        _fill(pen, face, left, right, PLACES[f"face_{side}"])
    pen.pieslice((middle - half, top, middle + half, top + head), 180, 360, fill=PLACES["hair"])
    size, low = (width, height), min(0.8, (top + head * 1.6) / height)
    across = 0.11
    lit, shadow = (0.52, 0.52 - 0.04 - across) if lit_right else (0.52 - 0.04 - across, 0.52)
    tall_card = across * width / height
    _card(pen, size, "card", Box(lit, low, across, tall_card), cards)
    _card(pen, size, "card_shadow", Box(shadow, low, across, tall_card), cards)
    _card(pen, size, "card_edge", Box(0.04 if lit_right else 0.85, low, across, tall_card), cards)


def _vessel(pen: ImageDraw.ImageDraw, width: int, height: int, lit_right: bool, cards: dict[str, Box]) -> None:
    """A glass on a table, lit from one side, with a card before each half."""
    middle, half, top, foot = width / 2, width * 0.085, height * 0.42, height * 0.94
    halves = (0.0, middle), (middle, float(width))
    for side, (left, right) in {"lit": halves[lit_right], "shadow": halves[not lit_right]}.items():
        glass = Image.new("1", (width, height))
        corners = [(middle - half, top), (middle + half, top), (middle + half * 0.8, foot), (middle - half * 0.8, foot)]
        ImageDraw.Draw(glass).polygon(corners, fill=1)
        _fill(pen, glass, left, right, PLACES[f"coat_{side}"])
        milk = Image.new("1", (width, height))
        low = top + (foot - top) * 0.35
        wide, narrow = half * 0.88, half * 0.76
        edge = [(middle - wide, low), (middle + wide, low), (middle + narrow, foot - 4), (middle - narrow, foot - 4)]
        ImageDraw.Draw(milk).polygon(edge, fill=1)
        _fill(pen, milk, left, right, PLACES[f"face_{side}"])
    across = 0.11
    tall = across * width / height
    for name, share in (("card", 0.7), ("card_shadow", 0.19)):
        at = share if lit_right else 1 - share - across
        _card(pen, (width, height), name, Box(at, 0.62, across, tall), cards)


def _group(
    pen: ImageDraw.ImageDraw, width: int, height: int, people: int, framing: Framing, cards: dict[str, Box]
) -> None:
    """A row of people: the ends have the light of the ends, and a card at either end and in the middle."""
    count = min(max(people, 3), 9)
    span = min(framing.width, 0.9) * width
    top, step = max(0.05, framing.head) * height, span / (count - 1)
    head = min(step * 0.55, height * 0.2)
    for at in range(count):
        middle = width / 2 - span / 2 + at * step
        part = "left" if at < count / 3 else "right" if at >= count - count / 3 else "face_lit"
        body = (middle - head * 0.6, top + head * 1.1, middle + head * 0.6, height)
        pen.rounded_rectangle(body, radius=head * 0.3, fill=PLACES["coat_lit"])
        pen.ellipse((middle - head * 0.38, top, middle + head * 0.38, top + head), fill=PLACES[part])
        pen.pieslice((middle - head * 0.38, top, middle + head * 0.38, top + head), 180, 360, fill=PLACES["hair"])
    across, low = 0.06, min(0.8, (top + head * 1.7) / height)
    tall = across * width / height
    for name, share in (("card_left", 0.5 - span / width / 2), ("card", 0.5), ("card_right", 0.5 + span / width / 2)):
        _card(pen, (width, height), name, Box(min(max(share - across / 2, 0.0), 1 - across), low, across, tall), cards)


def _fill(pen: ImageDraw.ImageDraw, mask: Image.Image, left: float, right: float, part: int) -> None:
    """Fill a shape with a part, between two columns."""
    cut = Image.new("1", mask.size)
    cut.paste(mask.crop((round(left), 0, round(right), mask.height)), (round(left), 0))
    pen.bitmap((0, 0), cut, fill=part)


def _shares(frame: Exposed, width: int, height: int) -> Floats:
    """What each pixel got of each light, against what the levels say, of shape (lights, height, width) or broadcasting
    to it: the shutter's rows run from the edge that goes dark."""
    rows = frame.rows
    edge = frame.method.dark_edge or "bottom"
    long = height if edge in ("top", "bottom") else width
    places = np.linspace(0, ROWS - 1, long)
    along = np.array([np.interp(places, np.arange(ROWS), one) for one in rows])
    if edge in ("bottom", "right"):
        along = along[:, ::-1]
    return along[:, :, None] if edge in ("top", "bottom") else along[:, None, :]


def _light(frame: Exposed, view: Drawn) -> Floats:
    """Linear light of each pixel, without tint, of shape (height, width)."""
    parts = view.parts
    levels = {one.receiver: one for one in frame.levels}
    names = [receiver if receiver in levels else "lit" for receiver, _, _ in PARTS.values()]
    reflectance = np.array([one for _, one, _ in PARTS.values()])
    shares = _shares(frame, parts.shape[1], parts.shape[0])

    def got(receivers: list[str]) -> Floats:
        ambient = np.exp2(np.array([levels[name].ambient for name in receivers]))
        lights = np.exp2(np.array([levels[name].lights for name in receivers])).T  # (lights, parts)
        return np.asarray(ambient[parts] + np.sum(lights[:, parts] * shares, axis=0))

    own = got(names)
    if view.turned.any():
        rounded = np.isin(parts, [*ROUND["face"], *ROUND["coat"]])
        lit, shadow = (got([side] * len(names)) for side in ("lit", "shadow"))
        own = np.where(rounded, lit * (1 - view.turned) + shadow * view.turned, own)
    return np.asarray(reflectance[parts] * own)


def _with_drops(frame: Exposed, light: Floats, rng: np.random.Generator) -> Floats:
    """What falls: each drop drawn as long as it moved while it was lit, by the flash and by the ambient."""
    setup = frame.rig.setup
    height, width = light.shape
    a_metre = width / field_m(setup)
    lasting = [frame.t01_s(at) for at, unit in enumerate(frame.units) if unit is not None]
    flash_s = max((one for one in lasting if not math.isnan(one)), default=0.0)
    level = frame.level("lit")
    flash, ambient = float(np.sum(np.exp2(np.array(level.lights)))), 2.0**level.ambient
    out = light.copy()
    across, down = rng.uniform(0.15, 0.85, DROPS), rng.uniform(0.05, 0.95, DROPS)
    sizes = rng.uniform(1.5, 4.0, DROPS)
    open_s = float(SHUTTERS.exact(frame.rig.camera.shutter_s))
    for x, y, size in zip(across * width, down * height, sizes, strict=True):
        for seconds, given in ((flash_s, flash), (open_s, ambient)):
            long = max(1.0, setup.motion.speed * seconds * a_metre)
            seen = DROP_REFLECTANCE * given * min(1.0, 2 * size / (2 * size + long))
            top, left = int(y - long / 2), int(x - size / 2)
            box = np.s_[max(0, top) : max(0, int(top + long + size)), max(0, left) : max(0, int(left + size))]
            out[box] += seen
    return out


def blurred_mm(setup: Setup, f_number: float, focus_m: float | None) -> float:
    """How wide a point of the subject becomes on the sensor [mm], where the lens is focused elsewhere."""
    lens = setup.aim.lens
    if lens is None or focus_m is None or focus_m * 1000 <= lens.focal_mm:
        return 0.0
    return float(blur_disc_mm(lens.focal_mm, float(APERTURES.exact(f_number)), focus_m, lens.subject_m))


def shoot(frame: Exposed, seed: tuple[int, ...], taken: datetime, drops: bool = False) -> Shot:
    """The frame as the camera writes it. seed: of its noise. drops: whether something falls through it."""
    setup, camera = frame.rig.setup, frame.rig.camera
    view = drawn(setup.stage.kind, setup.stage.people, framing_of(setup, frame.method), frame.solved.placing.lit_right)
    rng = np.random.default_rng(seed)
    light = _light(frame, view)
    if drops:
        light = np.where(view.parts <= PLACES["face_shadow"], _with_drops(frame, light, rng), light)
    tints = np.array([one for _, _, one in PARTS.values()])
    noise = min(MOST_NOISE, NOISE * math.sqrt(camera.iso / 100))
    grain = rng.normal(0.0, 1.0, (*light.shape, 1)) * noise * np.sqrt(np.clip(light, 0, 1))[..., None]
    linear = light[..., None] * tints[view.parts] + grain
    pixels = np.round(255 * tone.srgb(linear)).astype(np.uint8)
    image = Image.fromarray(pixels)
    disc = blurred_mm(setup, camera.f_number, frame.rig.focus_m)
    blur = disc / setup.body.frame_width_mm * LONG
    if blur >= 1:
        image = image.filter(ImageFilter.GaussianBlur(blur / 2))
        pixels = np.asarray(image)
    out = io.BytesIO()
    image.save(out, "JPEG", quality=QUALITY, subsampling=FULL_COLOUR, exif=_exif(frame, taken))
    bright = pixels.max(axis=2)
    counts = np.bincount((bright.astype(int) * BINS // 256).ravel(), minlength=BINS)
    clipped = float(np.mean(bright >= tone.AS_WHITE))
    return Shot(out.getvalue(), tuple(int(one) for one in counts), clipped, view.cards)


def _exif(frame: Exposed, taken: datetime) -> Image.Exif:
    """What the camera says of how it was taken; the figures as they are marked."""
    camera, lens = frame.rig.camera, frame.rig.setup.aim.lens
    exif = Image.Exif()
    own = exif.get_ifd(IFD.Exif)
    long = camera.shutter_s >= 1
    own[Base.ExposureTime] = (
        IFDRational(round(camera.shutter_s), 1) if long else IFDRational(1, round(1 / camera.shutter_s))
    )
    own[Base.FNumber] = IFDRational(round(camera.f_number * 10), 10)
    own[Base.ISOSpeedRatings] = round(camera.iso)
    own[Base.Flash] = 1 if any(unit is not None for unit in frame.units) else 16
    own[Base.DateTimeOriginal] = f"{taken:%Y:%m:%d %H:%M:%S}"
    if lens is not None:
        own[Base.FocalLength] = IFDRational(round(lens.focal_mm), 1)
    return exif
