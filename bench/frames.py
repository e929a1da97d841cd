"""Makes the demo's test frames: synthetic pictures with Exif, all invented."""

from pathlib import Path

import numpy as np
from PIL import Image

from jumpstop.core.physics.tone import srgb

FOLDER = Path(__file__).parent.parent / "src" / "jumpstop" / "demo" / "frames"
WIDE, HIGH = 600, 400


def save(name: str, light: np.ndarray, f_number: float, shutter_s: float, iso: int, fired: bool) -> None:
    """A frame of linear light (HIGH, WIDE, 3), with how it was taken."""
    image = Image.fromarray(np.round(srgb(light) * 255).astype(np.uint8))
    exif = image.getexif()
    part = exif.get_ifd(0x8769)
    part[33434], part[33437], part[34855] = shutter_s, f_number, iso
    part[37386], part[37385], part[36867] = 85.0, int(fired), "2026:06:24 12:20:00"
    image.save(FOLDER / name, quality=92, exif=exif)


def scene(grey: float, sky: float) -> np.ndarray:
    """A grey card held before a sky, in linear light."""
    rows = np.linspace(1.0, 0.6, HIGH)[:, None, None]
    light = sky * rows * np.array([0.8, 0.95, 1.15]) * np.ones((HIGH, WIDE, 1))
    light[120:360, 210:390] = grey * np.array([1.1, 1.0, 0.9])
    light[170:260, 255:345] = grey
    return light


def main() -> None:
    """All of them."""
    FOLDER.mkdir(exist_ok=True)
    linear_80, linear_140 = 0.0802, 0.2623  # of sRGB 80 and 140
    save("ambient.jpg", scene(linear_80, 0.25), 2.8, 1 / 200, 100, False)
    save("flash.jpg", scene(linear_140, 0.25), 2.8, 1 / 200, 100, True)
    wall = np.full((HIGH, WIDE, 3), 0.3)
    lit = np.clip((np.arange(HIGH) - HIGH * 0.36) / 12, 0, 1)[::-1]
    save("wall.jpg", wall * (0.02 + 0.98 * lit)[:, None, None], 5.6, 1 / 400, 100, True)


if __name__ == "__main__":
    main()
