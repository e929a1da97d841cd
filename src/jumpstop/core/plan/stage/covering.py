"""What has to be covered and lit evenly: the beam against the subject, the ends and the last row of a group."""

from collections.abc import Sequence
from dataclasses import dataclass

from ...physics import group
from ...physics.light_values import LIGHT_VALUES
from ...physics.sides import wrapped_deg
from ...scene.job import Crop
from ...scene.light import Light
from ...scene.setup import Setup
from ..camera.framing import frame_mm
from ..light.placing import beam_of

CROPS_M: dict[Crop, float] = {"tight": 0.6, "waist": 1.1, "full": 2.1}
"""How much of a standing person's height a crop shows [m], with air over the head; from memory."""
FRONTAL_DEG = 30.0  # a light this near to the camera's axis is to light all that the lens sees


def key_of(setup: Setup) -> Light | None:
    """The first key that is on."""
    return next((light for light in setup.lights if light.role == "key" and light.on), None)


def frontal(light: Light) -> bool:
    """Whether a light stands about where the camera does; one whose bearing is not said, too."""
    return abs(float(wrapped_deg(light.position.bearing_deg if light.position else 0.0))) <= FRONTAL_DEG


def uncovered(light: Light, wide_m: float) -> tuple[float, float] | None:
    """(degrees across that a light has to cover, its beam) where the beam is narrower by what is told: whole degrees;
    None where it covers, or sends all round."""
    across, beam = float(group.across_deg(wide_m, light.distance_m)), beam_of(light)
    return (across, beam) if 0 < beam < across and f"{beam:.0f}" != f"{across:.0f}" else None


@dataclass(frozen=True)
class Cropped:
    """What a crop asks of a setup: the field [m] from top to bottom, the camera's distance [m] with the lens as it is,
    and where the key's beam does not cover it: (degrees it has to, its beam)."""

    crop: Crop
    field_m: float
    camera_m: float
    short: tuple[float, float] | None


def cropped(setup: Setup, crops: Sequence[Crop]) -> list[Cropped]:
    """What each crop asks; nothing where no lens is said."""
    lens, key, out = setup.aim.lens, key_of(setup), list[Cropped]()
    if lens is None:
        return out
    for crop in crops:
        field = CROPS_M[crop]
        camera = field * lens.focal_mm / frame_mm(setup)[1]
        out.append(Cropped(crop, field, camera, None if key is None else uncovered(key, field)))
    return out


def ends_of(setup: Setup, totals: dict[str, float]) -> float | None:
    """How much brighter the darker end of a group's row, or the ends of what lies flat, are than the middle [stops];
    None where there is none."""
    key = key_of(setup)
    if key is None:
        return None
    if setup.stage.kind == "group":
        return min(totals["left"], totals["right"]) - totals["lit"]
    if setup.stage.kind == "object":
        return float(group.ends_fall(setup.stage.width_m, key.distance_m, group.FLAT))
    return None


def row_of(setup: Setup, totals: dict[str, float]) -> float | None:
    """The same of the last row of a group."""
    if setup.stage.kind != "group" or setup.stage.depth_m <= 0 or key_of(setup) is None:
        return None
    return totals["far"] - totals["lit"]


def outdoors(setup: Setup) -> bool:
    """Whether the light that is there says that this is under the open sky."""
    spec = setup.ambient
    return spec.by == "sun" or (spec.by == "condition" and LIGHT_VALUES[spec.condition].outdoors)
