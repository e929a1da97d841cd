"""Test frames: what a JPEG says of how it was taken, and what a patch of it came out at. Read, and never kept.

One at a time is decoded, and only to the size that a patch needs: no frame takes more than some 200 MB or two seconds.
"""

import io
import math
import re
import warnings
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from typing import Any, Literal

import numpy as np
from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError
from PIL.ExifTags import IFD, Base

from ..core.physics.tone import AS_WHITE, linear
from .errors import TooMany, UnreadableFile

MAX_BYTES = 40 * 2**20
MOST_PIXELS = 160_000_000  # larger than any camera's frame; what is beyond is refused by its header alone
MOST_BY_PARTS = 25_000_000  # pixels of one that comes in several scans, of which the decoder holds all in memory
MOST_SCANS = 16  # each goes through the whole frame; a progressive JPEG has about ten
MOST_SEGMENTS = 10_000  # each is looked at by itself, by the decoder too
FULL_PIXELS = 4_000_000  # larger frames are decoded at a half, a quarter or an eighth, which a patch does not mind
WAIT_S = 15.0  # for the frames before this one
LUMA = np.array([0.2126, 0.7152, 0.0722])  # of linear sRGB [IEC 61966-2-1]
LIGHT = linear(np.arange(256) / 255.0)  # of each of the 256 values
MARKER = re.compile(rb"\xff[^\x00\x01\xd0-\xd8\xff]", re.DOTALL)  # that a segment follows (ITU-T T.81, B.1.1.3)
START_OF_SCAN, END_OF_IMAGE = 0xDA, 0xD9
MOST_NAME = 60  # characters of a profile's name that are told
ONE_AT_A_TIME = Lock()


@dataclass(frozen=True)
class Patch:
    """A rectangle of a frame as it is held, in shares of its width and height."""

    x: float
    y: float
    w: float
    h: float


@dataclass(frozen=True)
class Frame:
    """A frame as it was read. rgb: mean linear light of the patch (0 to 1); clipped shares of patch and frame.

    lit, dark_edge: of a plain wall past sync speed, the share of rows that the flash lit, and where the others are.
    f_number, shutter_s, iso, focal_mm, flash, taken: from its Exif, None where that says nothing sensible. profile: the
    name of the colour profile inside it by which its patch was read, empty where there is none that can be read.
    """

    width: int
    height: int
    rgb: tuple[float, float, float]
    luminance: float
    patch_clipped: float
    frame_clipped: float
    f_number: float | None
    shutter_s: float | None
    iso: float | None
    focal_mm: float | None
    flash: bool | None
    taken: datetime | None
    lit: float
    dark_edge: Literal["bottom", "top", "unknown"]
    profile: str = ""


def size_of(data: bytes) -> tuple[int, int]:
    """Width and height of a frame [pixels]. Raises Unreadable."""
    try:
        with Image.open(io.BytesIO(data), formats=["JPEG"]) as file:
            return file.size
    except (OSError, Image.DecompressionBombError):
        raise UnreadableFile("not_jpeg") from None


def read_frame(data: bytes, patch: Patch) -> Frame:
    """A frame from a JPEG file's bytes. Raises Unreadable with a sentence."""
    if len(data) > MAX_BYTES:
        raise UnreadableFile("frame_large", most=MAX_BYTES)
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            scans = _scans(data)
            if not ONE_AT_A_TIME.acquire(timeout=WAIT_S):
                raise TooMany("frames_waiting")
            try:
                return _read(data, patch, scans)
            finally:
                ONE_AT_A_TIME.release()
    except (UnreadableFile, TooMany):
        raise
    except UnidentifiedImageError:
        raise UnreadableFile("not_jpeg") from None
    except Image.DecompressionBombError:
        raise UnreadableFile("frame_wide", most=MOST_PIXELS) from None
    except (OSError, SyntaxError, ValueError, TypeError, EOFError, KeyError, IndexError, OverflowError, MemoryError):
        raise UnreadableFile("jpeg_cut_off") from None


def _scans(data: bytes) -> int:
    """In how many scans a JPEG comes; those of a thumbnail inside it are not its own. Raises Unreadable."""
    at, count, segments = 2, 0, 0
    while count <= MOST_SCANS and (found := MARKER.search(data, at)) is not None:
        segments += 1
        if segments > MOST_SEGMENTS:
            raise UnreadableFile("jpeg_in_pieces")
        at, kind = found.end(), found.group()[-1]
        if kind == END_OF_IMAGE:
            break
        count += kind == START_OF_SCAN
        at += max(2, int.from_bytes(data[at : at + 2], "big"))
    return count


def _read(data: bytes, patch: Patch, scans: int) -> Frame:
    with Image.open(io.BytesIO(data), formats=["JPEG"]) as file:
        width, height = file.size
        if width * height > MOST_PIXELS:
            raise UnreadableFile("frame_wide", most=MOST_PIXELS)
        if scans > 1 and width * height > MOST_BY_PARTS:
            raise UnreadableFile("progressive_wide", most=MOST_BY_PARTS)
        if scans > MOST_SCANS:
            raise UnreadableFile("jpeg_in_parts", most=MOST_SCANS)
        exif = _exif(file)
        part = next((n for n in (1, 2, 4) if width * height <= FULL_PIXELS * n * n), 8)
        if part > 1:
            file.draft("RGB", (width // part, height // part))
        icc = file.info.get("icc_profile")
        image = ImageOps.exif_transpose(file).convert("RGB")
    pixels = np.asarray(image)
    box = _box(patch, image.width, image.height)
    found = pixels[box[1] : box[3], box[0] : box[2]]
    seen, profile = _in_srgb(image.crop(box), icc)
    rgb = [float(np.bincount(seen[:, :, of].ravel(), minlength=256) @ LIGHT) / seen[:, :, of].size for of in range(3)]
    return Frame(
        image.width, image.height, (rgb[0], rgb[1], rgb[2]), float(np.dot(rgb, LUMA)), _clipped(found),
        _clipped(pixels), **exif, **_lit(pixels), profile=profile,
    )  # fmt: skip


def _in_srgb(patch: Image.Image, icc: Any) -> tuple[np.ndarray, str]:
    """(pixels of a patch in sRGB, the name of the profile that they came in); as they are where there is none."""
    if isinstance(icc, bytes) and icc:
        try:
            own = ImageCms.ImageCmsProfile(io.BytesIO(icc))
            name = "".join(one for one in ImageCms.getProfileDescription(own) if one.isprintable()).strip()[:MOST_NAME]
            intent = ImageCms.Intent.RELATIVE_COLORIMETRIC
            turned = ImageCms.profileToProfile(patch, own, ImageCms.createProfile("sRGB"), intent, "RGB")
            if turned is not None:
                return np.asarray(turned), name or "unnamed"
        except (ImageCms.PyCMSError, OSError, ValueError, TypeError):
            pass  # one for another kind of picture, or damaged: the figures are read as sRGB
    return np.asarray(patch), ""


def _clipped(pixels: np.ndarray) -> float:
    """The share of pixels of which a colour has no more to give."""
    return float(np.mean((pixels >= AS_WHITE).any(axis=2)))


def _lit(pixels: np.ndarray) -> dict[str, Any]:
    """The share of rows at least half as bright as the bright ones, and on which edge the dark ones lie."""
    rows = linear(np.mean(pixels[:, :, 1], axis=1) / 255.0)
    bright = rows >= np.quantile(rows, 0.95) / 2
    lit = float(np.mean(bright))
    top, bottom = bool(bright[0]), bool(bright[-1])
    edge = "unknown" if top == bottom else "bottom" if top else "top"
    return {"lit": lit, "dark_edge": edge}


def _box(patch: Patch, width: int, height: int) -> tuple[int, int, int, int]:
    left, top = int(patch.x * width), int(patch.y * height)
    right, bottom = math.ceil((patch.x + patch.w) * width), math.ceil((patch.y + patch.h) * height)
    left, top = min(max(left, 0), width - 1), min(max(top, 0), height - 1)
    return left, top, min(max(right, left + 1), width), min(max(bottom, top + 1), height)


def _exif(file: Image.Image) -> dict[str, Any]:
    """What the frame's Exif says, where it is sensible; whatever else stands there is passed over."""
    try:
        tags = dict(file.getexif().get_ifd(IFD.Exif))
    except (OSError, SyntaxError, ValueError, TypeError, KeyError, IndexError, OverflowError, AttributeError):
        tags = {}
    flash = tags.get(Base.Flash)
    return {
        "f_number": _figure(tags.get(Base.FNumber), 0.5, 128),
        "shutter_s": _figure(tags.get(Base.ExposureTime), 1 / 64000, 3600),
        "iso": _figure(tags.get(Base.ISOSpeedRatings), 3, 4_000_000),
        "focal_mm": _figure(tags.get(Base.FocalLength), 1, 3000),
        "flash": bool(flash & 1) if isinstance(flash, int) else None,
        "taken": _taken(tags.get(Base.DateTimeOriginal)),
    }


def _figure(value: Any, least: float, most: float) -> float | None:
    if isinstance(value, tuple):
        value = value[0] if value else None
    try:
        found = float(value)
    except (TypeError, ValueError, ZeroDivisionError, OverflowError):
        return None
    return found if math.isfinite(found) and least <= found <= most else None


def _taken(value: Any) -> datetime | None:
    try:
        return datetime.strptime(str(value).strip("\x00 "), "%Y:%m:%d %H:%M:%S")
    except ValueError:
        return None
