"""The picture and the set from above: tones, where things fall in the frame, rings, shadows, lenses alike."""

import math
from datetime import UTC, datetime
from typing import Any

import colour
import numpy as np
import pytest

from jumpstop.core.kit.modifier import Modifier
from jumpstop.core.kit.table import table_of
from jumpstop.core.physics.daylight import sun_position
from jumpstop.core.physics.tone import balanced_rgb, kelvin_rgb, srgb
from jumpstop.core.plan.camera.framing import on_frame
from jumpstop.core.plan.stage.above import RINGS, short_side, softness, stage_of, sun_of
from jumpstop.core.plan.stage.picture import dark_from_m, framing_of, same_size, tones_of
from jumpstop.core.plan.stage.steps import all_on, order_of, steps_of
from jumpstop.core.scene.setup import Setup
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.modifiers import modifiers_text
from scenes import at, lit, scene


def test_srgb_is_the_published_curve() -> None:
    """P: IEC 61966-2-1; grey of 0.18 renders at 118, and against the reference library."""
    assert round(255 * float(srgb(0.18))) == 118
    light = np.array([0.0, 0.001, 0.0031308, 0.01, 0.18, 0.5, 1.0])
    assert srgb(light) == pytest.approx(colour.models.eotf_inverse_sRGB(light), abs=1e-6)
    assert float(srgb(3.0)) == pytest.approx(1)


@pytest.mark.parametrize("kelvin", [1700, 2000, 2300, 3200, 4000, 5500, 7500, 12000])
def test_colour_of_a_black_body(kelvin: float) -> None:
    """P: Kang et al. 2002, by the reference library; linear sRGB by IEC 61966-2-1."""
    x, y = colour.temperature.CCT_to_xy_Kang2002(kelvin)
    matrix = colour.RGB_COLOURSPACES["sRGB"].matrix_XYZ_to_RGB
    rgb = matrix @ np.array([x / y, 1, (1 - x - y) / y])
    assert kelvin_rgb(kelvin) == pytest.approx(np.maximum(rgb, 1e-3) / rgb[1], abs=1e-9)
    assert balanced_rgb(kelvin, kelvin) == pytest.approx([1, 1, 1])


def test_a_picture_has_the_tones_of_its_levels() -> None:
    """D: reflectance x 2^level, as sRGB; light skin .36 clips 1.47 over."""
    found = scene({"distance_m": 2} | at(45))
    levels = lit(found)
    tones = {one.receiver: one for one in tones_of(found, tuple(levels.values()))}
    assert tones["lit"].total[1] == pytest.approx(float(srgb(0.36 * 2 ** levels["lit"].total)), abs=1e-6)
    assert tones["lit"].ambient[1] < 0.01
    assert not tones["lit"].clipped
    over = scene({"distance_m": 2, "target_stops": 1.7} | at(45))
    bright = {one.receiver: one for one in tones_of(over, tuple(lit(over).values()))}
    assert bright["lit"].clipped
    assert not bright["shadow"].clipped
    gelled = scene(
        {"distance_m": 2, "gel": "none"} | at(45), {"role": "rim", "gel": "full_orange", "target_stops": 0} | at(150)
    )
    warm = {one.receiver: one for one in tones_of(gelled, tuple(lit(gelled).values()))}
    assert warm["edge"].total[0] > warm["edge"].total[1] > warm["edge"].total[2]


def test_the_ambient_has_its_own_colour_in_the_picture() -> None:
    """D: open shade is bluer than the flash that the camera is set for; green, which carries the level, is its own."""
    shade = {"condition": "open_shade", "subject": "shade"}
    found = scene({"distance_m": 2} | at(45), ambient=shade, aim={"f_number": 8, "background_stops": -2})
    levels = lit(found)
    back = next(one for one in tones_of(found, tuple(levels.values())) if one.receiver == "background")
    assert back.ambient[0] < back.ambient[1] < back.ambient[2]
    assert back.ambient[1] == pytest.approx(float(srgb(0.18 * 2 ** levels["background"].ambient)), abs=1e-6)


def framed(**more: Any) -> Setup:
    lens = {"focal_mm": 50, "subject_m": 4, "background_m": 9}
    return Setup.model_validate(
        {"aim": {"lens": lens} | more.pop("aim", {}), "stage": {"camera_height_m": 0.9, "height_m": 1.8} | more}
    )


def test_where_a_subject_falls_in_the_frame() -> None:
    """D: 24 mm high behind 50 mm at 4 m: the field is 1.92 m high, less than 1.15 times 1.8 m; so the head is near the
    top. Twice as far off all of it shows, level, half its height each side of the middle."""
    setup = framed()
    method = scene({"distance_m": 2}).methods[0]
    near = framing_of(setup, method)
    assert near.head == pytest.approx(0.12, abs=0.01)
    assert near.feet > 1
    far = framed(aim={"lens": {"focal_mm": 50, "subject_m": 8, "background_m": 20}})
    shown = framing_of(far, method)
    assert shown.head == pytest.approx(0.5 - 0.9 / 3.84, abs=1e-3)
    assert shown.feet == pytest.approx(0.5 + 0.9 / 3.84, abs=1e-3)
    assert shown.horizon == pytest.approx(0.5, abs=1e-3)  # the camera at half its height, level
    assert shown.width == pytest.approx(0.5 / 5.76, abs=1e-3)
    upright = framed(aim={"lens": {"focal_mm": 50, "subject_m": 8, "background_m": 20}, "orientation": "grip_up"})
    assert framing_of(upright, method).width == pytest.approx(0.5 / 3.84, abs=1e-3)
    assert framing_of(upright, method).upright
    right = on_frame(far, 1, 0, 0.9)
    assert right is not None
    assert right == pytest.approx((0.5 + 1 / 5.76, 0.5), abs=1e-3)


def test_a_tilted_camera_moves_the_horizon() -> None:
    """D: tilted up by half the field's angle (atan(12 / 50)), the horizon falls on the lower edge of the frame."""
    half = math.degrees(math.atan(12 / 50))
    method = scene({"distance_m": 2}).methods[0]
    assert framing_of(framed(camera_tilt_deg=half), method).horizon == pytest.approx(1, abs=1e-3)
    assert framing_of(framed(camera_tilt_deg=-half), method).horizon == pytest.approx(0, abs=1e-3)
    assert framing_of(framed(camera_tilt_deg=0), method).horizon == pytest.approx(0.5, abs=1e-3)


def test_where_it_goes_dark_behind() -> None:
    """D, inverse square: a light at 2 m that is correct on the face is four stops under where it is 8 m away: 6 m
    behind; from beside the face (90 degrees) where sqrt(4 + x^2) is 8 m; never where the ambient is brighter."""
    front = scene({"distance_m": 2} | at(0))
    level = lit(front)["lit"].lights[0]
    away = 2 * 2 ** ((4 + level) / 2)
    assert dark_from_m(front, tuple(lit(front).values())) == pytest.approx(away - 2, rel=0.06)
    assert away == pytest.approx(8, rel=0.07)
    high = scene({"distance_m": 4.5, "position": {"bearing_deg": 0, "height_m": 4 + 1.75 * 0.93}})
    reach = 4.5 * 2 ** ((4 + lit(high)["lit"].lights[0]) / 2)  # along the slope, from 4 m up and 2.06 m before the face
    assert dark_from_m(high, tuple(lit(high).values())) == pytest.approx(math.sqrt(reach**2 - 16) - 2.06, rel=0.06)
    x = np.linspace(0, 50, 100_000)
    for bearing, metres in ((60.0, 2.0), (88.0, 6.0)):
        beside, angle = scene({"distance_m": metres} | at(bearing)), math.radians(bearing)
        far = np.sqrt((metres * math.sin(angle)) ** 2 + (x + metres * math.cos(angle)) ** 2)
        level = lit(beside)["lit"].lights[0]
        there = x[np.argmax(level + 2 * np.log2(metres / far) < -4)]
        assert dark_from_m(beside, tuple(lit(beside).values())) == pytest.approx(there, rel=0.06)
    behind = scene({"distance_m": 2} | at(100))  # from beside, a little behind: it shines the other way
    assert lit(behind)["lit"].lights[0] > -1
    assert dark_from_m(behind, tuple(lit(behind).values())) == pytest.approx(0.1)  # as near as is looked at
    sunny = scene({"distance_m": 2} | at(0), ambient={"condition": "hazy_sun"})
    assert dark_from_m(sunny, tuple(lit(sunny).values())) is None


def test_rings_of_equal_exposure() -> None:
    """D, inverse square: the ring of 0 lies where the light is correct, each stop a root of two farther or nearer."""
    found = scene({"distance_m": 2} | at(-40, turn_deg=10))
    stage = stage_of(found, found.kinds[0], (0,))
    light = stage.lights[0]
    level = float(found.reach(found.kinds[0]).flash_at_dial[0]) - (found.placing.off_stops[0, 0] + 0.0)
    own = float(found.reach(found.kinds[0]).flash_at_dial[0])
    assert level > own - 1e-9
    radii = dict(zip(RINGS, light.rings, strict=True))
    assert radii[0.0] == pytest.approx(2 * 2 ** (own / 2))
    assert radii[-2.0] / radii[0.0] == pytest.approx(2)
    assert radii[1.0] / radii[0.0] == pytest.approx(math.sqrt(0.5))
    assert light.at[0] == pytest.approx(-2 * math.sin(math.radians(40)))
    assert light.at[1] == pytest.approx(-2 * math.cos(math.radians(40)))
    assert light.points_deg == pytest.approx(40 + 10)
    assert light.beam_deg == pytest.approx(54.43, abs=0.01)
    face = {"name": "Disc", "stops": -1, "face": {"width_m": 1.5}}
    near = scene({"distance_m": 1.2, "modifier": face} | at(-40))
    for ring, radius in zip(RINGS, stage_of(near, near.kinds[0], (0,)).lights[0].rings, strict=True):
        if not math.isnan(radius):  # solved where the ring lies, the face loses there what it does
            there = scene({"distance_m": radius, "modifier": face} | at(-40)).reach(near.kinds[0])
            here = near.reach(near.kinds[0])
            more = there.spare[0] - here.spare[0]
            assert float(here.flash_at_dial[0] + more) == pytest.approx(ring, abs=1e-3)
    off = scene({"distance_m": 2, "on": False} | at(-40))
    assert stage_of(off, off.kinds[0], (0,)).lights[0].rings == ()


def test_another_lens_at_the_same_size() -> None:
    """D: at equal subject size a background 5 m behind looks (f' / b') / (f / b) as large."""
    found = {one.focal_mm: one for one in same_size(framed())}
    assert 50 not in found
    assert found[85].subject_m == pytest.approx(6.8)
    assert found[85].background_m == pytest.approx(11.8)
    assert found[85].grows == pytest.approx((85 / 11.8) / (50 / 9))
    assert found[24].grows < 1 < found[200].grows
    assert same_size(Setup()) == []


def test_softness_and_the_short_side() -> None:
    setup = scene({"distance_m": 2, "modifier": {"name": "Octa", "face": {"width_m": 0.9}}} | at(60)).setup
    assert softness(setup, setup.lights[0]) == pytest.approx(1.8)
    box = {"name": "Box", "face": {"shape": "rectangle", "width_m": 0.9, "height_m": 0.4}}
    wide = scene({"distance_m": 2, "modifier": box} | at(60)).setup
    assert softness(wide, wide.lights[0]) == pytest.approx(1.2)
    ceiling = scene({"distance_m": 2, "modifier": {"name": "Ceiling", "kind": "bounce"}}).setup
    assert softness(ceiling, ceiling.lights[0]) == pytest.approx(4)  # M: a patch 2 m across
    (row,) = modifiers_text([Modifier(name="Ceiling", kind="bounce")], 2, table_of([]), None, DisplayUnits()).rows
    assert (row.size, row.falls) == ("about 2 m across", "–")
    assert row.soft == pytest.approx(2 * math.degrees(math.atan(1 / 2)), abs=0.05)
    assert short_side(setup) is None
    rim: dict[str, Any] = {"role": "rim", "distance_m": 2} | at(-120)
    beside = scene(rim, {"role": "key", "distance_m": 2} | at(60), stage={"facing_deg": 30}).setup
    assert short_side(beside) is True  # by the key, whatever else stands before it
    for facing, expected in ((30, True), (45, True), (70, False), (-30, False)):
        assert short_side(scene({"distance_m": 2} | at(60), stage={"facing_deg": facing}).setup) is expected


def test_the_sun_on_the_stage() -> None:
    assert sun_of(scene({"distance_m": 2})) is None


def test_the_set_from_above_and_its_shadows() -> None:
    """D: bearing b, d metres: (d sin b, -d cos b); a shadow runs away from the sun, height / tan h long."""
    sun = {
        "by": "sun", "clock": "13:00", "day": "2026-06-24", "subject": "back",
        "place": {"name": "Downs", "latitude": 51.0, "longitude": 0.0, "zone": "Europe/London"},
    }  # fmt: skip
    wide = {"f_number": 8, "lens": {"focal_mm": 24, "subject_m": 4, "background_m": 20}}
    left = {"role": "rim", "distance_m": 3, "zoom_mm": 70} | at(-120, turn_deg=10)
    found = scene({"distance_m": 2} | at(60), left, ambient=sun, aim=wide, stage={"camera_looks_deg": 150})
    height, azimuth, _ = sun_position(51.0, 0.0, datetime(2026, 6, 24, 12, tzinfo=UTC))
    stage = stage_of(found, found.kinds[0], (0, None))
    assert stage.sun == pytest.approx(((150 + 180 - azimuth + 180) % 360 - 180, height), abs=0.1)
    assert (stage.camera_m, stage.background_m) == (4, 16)
    assert stage.view_deg == pytest.approx(math.degrees(math.atan(18 / 24)))
    for placed, bearing, metres, turn in zip(stage.lights, (60, -120), (2, 3), (0, 10), strict=True):
        flat = math.sqrt(metres**2 - (1.75 * 0.93 - found.setup.stage.face_m) ** 2)
        assert placed.at[:2] == pytest.approx(
            (flat * math.sin(math.radians(bearing)), -flat * math.cos(math.radians(bearing))), abs=0.01
        )
        assert placed.points_deg == pytest.approx(
            (math.degrees(math.atan2(-placed.at[0], -placed.at[1])) + turn + 180) % 360 - 180
        )
    assert [one.beam_deg for one in stage.lights] == pytest.approx([54.43, 28.84], abs=0.01)  # 2 atan(18 / zoom)
    level = float(found.reach(found.kinds[0], 0).flash_at_dial[0])
    assert stage.lights[0].rings == pytest.approx([2 * 2 ** ((level - ring) / 2) for ring in RINGS])
    assert stage.lights[1].rings == ()
    assert stage.sun is not None
    away = math.radians(stage.sun[0])
    for shadow, placed in zip(stage.shadows, stage.lights, strict=True):
        long = placed.at[2] / math.tan(math.radians(stage.sun[1]))
        assert shadow is not None
        assert shadow.foot == pytest.approx(placed.at[:2])
        assert shadow.tip == pytest.approx((placed.at[0] - long * math.sin(away), placed.at[1] + long * math.cos(away)))
    assert [shadow.in_frame for shadow in stage.shadows if shadow] == [True, True]
    close = {"f_number": 8, "lens": {"focal_mm": 85, "subject_m": 4, "background_m": 20}}  # from the hips up: no ground
    rim = scene({"role": "rim", "distance_m": 2} | at(175), ambient=sun, aim=close, stage={"camera_looks_deg": 150})
    assert [one.in_frame for one in stage_of(rim, rim.kinds[0], (0,)).shadows if one] == [False]
    night = sun | {"clock": "23:00"}
    dark = scene({"distance_m": 2}, ambient=night, stage={"camera_looks_deg": 150})
    assert sun_of(dark) is None
    assert stage_of(dark, dark.kinds[0], (0,)).shadows == (None,)


def test_the_order_of_work() -> None:
    """Back to front: background, edge, fill, key; or the key, then the kicker. Each step holds those before it."""
    setup = Setup.model_validate(
        {"lights": [{"role": "key", "on": False}, {"role": "rim"}, {"role": "fill"}, {"role": "background"}]}
    )
    assert order_of(setup, "back") == [3, 1, 2, 0]
    assert order_of(setup, "key") == [0, 1, 2, 3]
    assert all(light.on for light in all_on(setup).lights)
    found = scene({"distance_m": 2} | at(45), {"role": "rim", "target_stops": 0.5, "distance_m": 2} | at(150))
    steps = steps_of(found, found.kinds[0], (0, 0), "back")
    assert [step.on for step in steps] == [(False, False), (False, True), (True, True)]
    assert [step.light for step in steps] == [None, 1, 0]
    assert steps[0].meter is None
    assert steps[1].meter == pytest.approx(8 * 2**0.25, rel=0.06)  # f/8, half a stop over, to a third-stop dial
    total = {one.receiver: one.total for one in steps[-1].levels}
    assert total == pytest.approx({name: one.total for name, one in lit(found).items()})
    first = {one.receiver: one.total for one in steps[1].levels}
    assert first["edge"] == pytest.approx(total["edge"], abs=0.01)
    assert first["lit"] < -8
