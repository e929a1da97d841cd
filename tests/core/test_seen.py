"""What was seen: the next dial, what the meter must show, a chain that counts from a reading, a unit from a reading."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jumpstop.core.kit.gel import GELS
from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.camera.automatics import automatics
from jumpstop.core.plan.camera.colour import balance
from jumpstop.core.plan.camera.targets import start_compensation
from jumpstop.core.plan.learn.first_reading import FirstReading, unit_of_reading
from jumpstop.core.plan.light.advice import advised_method
from jumpstop.core.plan.light.reach import Reach, solve
from jumpstop.core.plan.light.scene import standing
from jumpstop.core.plan.light.seen import flash_sd, flash_seen, level_seen, meter_wants, next_dial
from jumpstop.core.scene.ambient import AmbientSpec, Reading
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.seen import Seen
from jumpstop.core.scene.setup import WIDEST, Setup
from jumpstop.words.colour import balance_words
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.in_hand import in_hand_of

DURATION = FlashDuration(
    table=(DurationEntry(power=1, seconds=1 / 250), DurationEntry(power=1 / 128, seconds=1 / 20000))
)
GN36 = Unit(name="GN 36", claims=(Claim(guide_number=36, unit="m", zoom_mm=35),), hss=Hss(), flash_duration=DURATION)
UNIT = GN36.model_dump() | {"id": "mine"}
OTHER = Unit(name="Other", claims=(Claim(guide_number=50, unit="m", zoom_mm=35),), hss=Hss())
TABLE = table_of([OTHER, GN36], ids=["other", "mine"])


def seen(**figures: object) -> Seen:
    return Seen.model_validate({"was": {"unit": UNIT}} | figures)


FACE = {"kind": "face", "stops": 1, "dial_stops": 3, "camera": {"f_number": 5.6}}


@pytest.mark.parametrize(
    ("figures", "key", "change", "dial", "end"),
    [
        # D: f/4 read where f/5.6 is wanted is a stop too little: 1/8 becomes 1/4
        ({"f_number": 4, "dial_stops": 3, "camera": {"f_number": 5.6}, "holds_ambient": False}, False, 1.0, 2, ""),
        ({"f_number": 8, "iso": 200, "dial_stops": 3, "camera": {"f_number": 5.6}, "holds_ambient": False}, False, 0, 3,
        ""),
        # physics 6: the total a stop over, the ambient at -1, -2, none: 1.58, 1.22, 1 stop less flash
        (FACE | {"ambient_stops": -1}, True, -math.log2(3), 3 + 5 / 3, ""),
        (FACE | {"ambient_stops": -2}, True, -math.log2(7 / 3), 3 + 4 / 3, ""),
        (FACE | {"ambient_stops": -40}, True, -1, 4, ""),
        (FACE | {"dial_stops": 7, "holds_ambient": False}, False, -1, 7, "lowest"),  # the dial ends at 1/128
        (FACE | {"stops": -2, "dial_stops": 1, "holds_ambient": False}, False, 2, 0, "full"),
        (FACE | {"stops": -1.13, "dial_stops": 1, "holds_ambient": False}, False, 1.13, 0, ""),  # within half a step
        # a fill is flash alone: wanted at -2, seen a stop brighter
        (FACE | {"wanted_stops": -2, "holds_ambient": False}, False, -1, 4, ""),
    ],
)  # fmt: skip
def test_the_next_dial(figures: dict[str, object], key: bool, change: float, dial: float, end: str) -> None:
    found = next_dial(seen(**figures), key, 1 / 3, 7)
    assert found is not None
    assert found.change == pytest.approx(change, abs=0.01)
    assert found.dial_stops == pytest.approx(dial)
    assert found.end == end
    assert found.missing == pytest.approx(1 if end else 0, abs=0.01)


@pytest.mark.parametrize(
    ("now", "said"),
    [
        # D: f/5.6 to f/4 lets in a stop more, ISO 100 to 200 as well; 2 m to 2.83 m is a stop less; all at 1/8
        ({}, "Right as it is: leave it at 1/8."),
        ({"aim": {"f_number": 4}}, "Read at f/5.6 and 1/8; at f/4 that is 1.0 stop over: set 1/16."),
        ({"aim": {"f_number": 5.6, "iso": 200}}, "Read at f/5.6 and 1/8; at ISO 200 that is 1.0 stop over: set 1/16."),
        ({"distance_m": 2.828}, "Read at f/5.6 and 1/8; from 2.83 m that is 1.0 stop under: set 1/4."),
        ({"aim": {"f_number": 4}, "distance_m": 2.828},
         "Read at f/5.6 and 1/8; at f/4 and from 2.83 m that is right: leave it at 1/8."),
    ],
)  # fmt: skip
def test_a_reading_is_followed_to_what_is_set_now(now: dict[str, Any], said: str) -> None:
    light = {"distance_m": 2.0, "unit": UNIT}
    read = seen(kind="face", stops=0, dial_stops=3, camera={"f_number": 5.6}, was=light, ambient_stops=-20)
    document = {
        "ambient": {"condition": "dark"}, "aim": {"f_number": 5.6, "background_stops": -8} | now.get("aim", {}),
        "lights": [light | {"distance_m": now.get("distance_m", 2.0)}], "seen": [read.model_dump()], "method": "sync",
    }  # fmt: skip
    solved = solve(Setup.model_validate(document), TABLE)
    reach = solved.reach("sync", 0)
    told = in_hand_of(solved, reach, DisplayUnits()).next
    assert told is not None
    assert told.says == said


def test_a_reading_no_brighter_than_the_ambient_shows_no_flash() -> None:
    assert next_dial(seen(f_number=8, camera={"f_number": 8}, ambient_stops=0), True, 1 / 3, 7) is None
    enough = next_dial(seen(f_number=11, camera={"f_number": 8}, ambient_stops=0), True, 1 / 3, 7)
    assert enough is not None
    assert enough.change == -math.inf


def test_what_the_meter_reads_and_must_show() -> None:
    """D: f/8 behind three stops of ND wants f/22 at the face; a meter there reads the light before the filter."""
    assert meter_wants(8, 3, 0) == pytest.approx(22.6, abs=0.05)
    assert meter_wants(5.6, 0, -2) == pytest.approx(2.83, abs=0.01)
    behind = seen(f_number=22, camera={"f_number": 8, "nd_stops": 3})
    assert level_seen(behind) == pytest.approx(0, abs=0.01)
    assert flash_seen(seen(f_number=8, camera={"f_number": 8}, ambient_stops=-1)) == pytest.approx(-1)
    # the ambient is half of the light: 0.1 in the total is 0.2 in the flash
    assert flash_sd(seen(f_number=8, camera={"f_number": 8}, ambient_stops=-1)) == pytest.approx(0.2)
    assert flash_sd(seen(f_number=8, holds_ambient=False)) == pytest.approx(0.1)
    faint = seen(f_number=8, camera={"f_number": 8}, ambient_stops=-0.001)  # all but ambient: doubted to a twentieth
    assert flash_sd(faint) == pytest.approx(2.0)


def setup(**more: object) -> Setup:
    light = {"role": "fill", "target_stops": 0, "distance_m": 2, "unit": UNIT, "modifier": {"name": "Box", "stops": -1}}
    return Setup.model_validate({"ambient": {"condition": "dark"}, "aim": {"f_number": 5.6}, "lights": [light]} | more)


def read(of: Setup, off: float, **more: object) -> Setup:
    """The setup with a standing meter reading that lies so far from what its chain says."""
    reach = solve(of, TABLE).reach("sync")
    camera = {"f_number": 5.6, "shutter_s": reach.method.camera.shutter_s}
    said = float(reach.flash_at_dial[1])
    figures = {
        "kind": "face", "stops": said + off, "wanted_stops": 0, "holds_ambient": False, "stands": True,
        "dial_stops": float(reach.below_full[1]), "camera": camera, "was": of.lights[0].model_dump(), "sd": 0.1,
    }  # fmt: skip
    return Setup.model_validate(of.model_dump() | {"seen": [figures | more]})


def sync(of: Setup) -> Reach:
    return solve(of, TABLE).reach("sync")


def test_a_reading_stands_for_the_chain() -> None:
    """physics 15: used once, in full, where it was taken; the rest of the shelf does not move."""
    plain, told = sync(setup()), sync(read(setup(), 0.7))
    assert told.spare[1] - plain.spare[1] == pytest.approx(0.7)
    assert told.sd[1] == pytest.approx(0.1)
    assert plain.sd[1] > 0.3
    equal = sync(read(setup(), 0.0))  # as predicted: the meter's own doubt is what is left
    assert (equal.spare[1], equal.sd[1]) == pytest.approx((float(plain.spare[1]), 0.1))
    assert told.spare[0] == plain.spare[0]
    assert told.sd[0] == plain.sd[0]
    drowned = sync(read(setup(), 0.7, holds_ambient=True, ambient_stops=20))  # no flash is seen in it
    assert (drowned.spare[1], drowned.sd[1]) == (plain.spare[1], plain.sd[1])


def test_what_changed_since_is_added_from_the_chain_with_its_own_doubt() -> None:
    told = read(setup(), 0.7)
    moved = told.model_copy(update={"lights": (told.lights[0].model_copy(update={"distance_m": 4.0}),)})
    assert sync(moved).spare[1] == pytest.approx(sync(told).spare[1] - 2)
    assert sync(moved).sd[1] == pytest.approx(np.hypot(0.1, 0.05))
    bare = told.model_copy(update={"lights": (told.lights[0].model_copy(update={"modifier": None}),)})
    assert sync(bare).spare[1] == pytest.approx(sync(told).spare[1] + 1)
    wide = told.model_copy(update={"aim": told.aim.model_copy(update={"f_number": 4.0})})
    assert sync(wide).spare[1] == pytest.approx(sync(told).spare[1] + 1)
    assert sync(wide).sd[1] == pytest.approx(0.1)
    sunny = {"by": "reading", "readings": [{"f_number": 5.6, "shutter_s": 1 / 2000}], "subject": "sun"}
    fast = Setup.model_validate(told.model_dump() | {"ambient": sunny})
    assert solve(fast, TABLE).reach("hss").sd[1] == pytest.approx(np.hypot(0.1, 0.4))  # HSS stays doubtful


def test_the_newest_reading_of_this_unit_and_light_stands() -> None:
    told = read(setup(), 0.7)
    assert standing(told, 0) is told.seen[0]
    assert standing(read(setup(), 0.7, stands=False), 0) is None
    assert standing(read(setup(), 0.7, light=1), 0) is None
    twice = told.model_copy(update={"seen": (told.seen[0], told.seen[0].model_copy(update={"id": "two"}))})
    assert standing(twice, 0) is twice.seen[1]
    other = told.lights[0].model_copy(update={"unit": told.lights[0].unit.model_copy(update={"id": "other"})})  # type: ignore[union-attr]
    assert standing(told.model_copy(update={"lights": (other,)}), 0) is None


@settings(max_examples=40, deadline=None)
@given(
    f_number=st.sampled_from([2.8, 4.0, 5.6, 8.0]),
    condition=st.sampled_from(["dark", "office", "open_shade", "heavy_overcast"]),
    distance=st.floats(0.8, 5),
    loss=st.sampled_from([0.0, -1.0, -2.2]),
    frozen=st.booleans(),
)
def test_a_reading_equal_to_the_prediction_changes_nothing_but_the_doubt(
    f_number: float, condition: str, distance: float, loss: float, frozen: bool
) -> None:
    light = {"role": "key", "distance_m": round(distance, 2), "unit": UNIT}
    if loss:
        light["modifier"] = {"name": "Box", "stops": loss}
    motion = {"kind": "freeze", "field_width_m": 3} if frozen else {}
    asked = {"ambient": {"condition": condition}, "aim": {"f_number": f_number}, "lights": [light], "motion": motion}
    of = Setup.model_validate(asked)
    found = solve(of, TABLE)
    kind = advised_method(found)
    reach = found.reach(kind)
    camera = reach.method.camera
    dial = float(reach.below_full[1])
    told = seen(
        kind="face", stops=float(reach.flash_at_dial[1]), holds_ambient=False, stands=True, dial_stops=dial,
        method=kind,
        camera={"f_number": camera.f_number, "shutter_s": camera.shutter_s, "iso": camera.iso,
        "nd_stops": camera.nd_stops},
        was=of.lights[0].model_dump(),
    ) if abs(float(reach.flash_at_dial[1])) <= 12 and reach.able[1] else None  # fmt: skip
    if told is None:
        return
    again = solve(of.model_copy(update={"seen": (told,)}), TABLE).reach(kind)
    assert again.spare[1] == pytest.approx(reach.spare[1])
    assert again.below_full[1] == pytest.approx(reach.below_full[1])
    assert again.sd[1] <= reach.sd[1] + 1e-9


def test_one_reading_is_enough_to_add_a_unit() -> None:
    """D: "full, 2 m: f/8" at ISO 100 is GN 16; through a box that takes 1.4 stops GN 26; at 1/4 twice that."""

    def rated(**more: object) -> Claim:
        return unit_of_reading(
            FirstReading.model_validate({"name": "Nobody's", "light": {"distance_m": 2}} | more)
        ).claims[0]

    assert rated().guide_number == pytest.approx(16, rel=0.01)
    assert rated().measured
    box = {"name": "Box", "stops": -0.5, "sd": 0.3, "layers": [{"name": "in", "stops": -0.9, "sd": 0.25}]}
    boxed = rated(light={"distance_m": 2, "modifier": box})
    assert boxed.guide_number == pytest.approx(16 * 2**0.7, rel=0.01)
    assert boxed.sd == pytest.approx(math.sqrt(0.1**2 + 0.3**2 + 0.25**2 + 0.05**2), abs=0.01)
    assert rated(power=0.25).guide_number == pytest.approx(32, rel=0.01)
    assert rated(light={"distance_m": 2, "zoom_mm": 105}).zoom_mm == 105
    assert rated().zoom_mm == 35
    for power in (0, 2, -1):
        with pytest.raises(ValidationError):
            rated(power=power)
    like = {"name": "L", "claims": [{"guide_number": 20, "unit": "m"}]}
    assert rated(by="unit", like=like).guide_number == pytest.approx(20, rel=0.01)
    assert rated(like=like) == rated()  # it was read by a meter, whatever stood beside it
    beside = rated(by="unit", like=like, stops=1, power=0.25)
    assert beside.guide_number == pytest.approx(20 * 2**1.5, rel=0.01)  # a stop more, at a quarter: three more at full
    assert rated(iso=400).guide_number == pytest.approx(8, rel=0.01)
    back = solve(setup(lights=[{"role": "fill", "target_stops": 0, "distance_m": 2}]), table_of([
        unit_of_reading(FirstReading(name="N", f_number=5.6))
    ])).reach("sync")  # fmt: skip
    assert back.spare[0] == pytest.approx(0, abs=0.02)


def test_the_needle() -> None:
    """D: two stops under at 1/2000, f/8, ISO 100: EV 16.97 less two."""
    assert Reading(f_number=8, shutter_s=1 / 2000, needle_stops=-2).ev == pytest.approx(14.97, abs=0.04)
    assert ambient_of(AmbientSpec(subject="sun", shadow_stops=-2.5)).shadow_ev == pytest.approx(12.5)


DAY = {"by": "sun", "day": "2026-06-24", "place": {"latitude": 51, "longitude": -1, "zone": "Europe/London"}}


def lights(*docs: dict[str, Any]) -> tuple[Light, ...]:
    return tuple(Light.model_validate(one) for one in docs)


BARE = lights({})


def test_white_balance_and_the_gel_that_matches() -> None:
    """physics 23: mired 10^6 / K; oranges of +159, +109, +64, +26 (from memory); blues the other way."""
    for kelvin, gel in (
        (3000, "full_orange"),  # 333 - 182 = 151
        (3400, "half_orange"),  # 112
        (4000, "quarter_orange"),  # 68
        (4800, "eighth_orange"),  # 26
        (5500, "none"),
        (7000, "quarter_blue"),  # -39
        (10_000, "half_blue"),  # -82
    ):
        spec = AmbientSpec(condition="interior_night", lamps_lux=200, lamps_k=kelvin)
        found = balance(spec, ambient_of(spec), BARE)
        assert (found.gel, found.ambient_k, found.camera_k) == (gel, kelvin, 5500)
        assert balance(spec, ambient_of(spec), ()) == found  # no light, no gel on
    warm = AmbientSpec(condition="interior_night", lamps_lux=200, lamps_k=2900)
    gelled = balance(warm, ambient_of(warm), lights({"gel": "full_orange"}))
    assert gelled.camera_k == 2900  # 10^6 / (181.8 + 159) = 2934
    assert gelled.matched
    assert gelled.on == "full_orange"
    keyless = lights({"on": False}, {"role": "fill", "gel": "full_orange"}, {"role": "rim", "gel": "full_blue"})
    first = balance(warm, ambient_of(warm), keyless)  # where no key is on, the first that is
    assert (first.on, first.camera_k) == ("full_orange", 2900)
    tinted = balance(warm, ambient_of(warm), lights({"gel": "full_orange", "gel_for": "effect"}))
    assert (tinted.on, tinted.camera_k) == ("none", 5500)  # it is not balanced away
    for spec, kelvin in (  # shade is blue only under a blue sky; by the sun's own day as by the table
        (AmbientSpec.model_validate(DAY | {"subject": "shade"}), 7500),
        (AmbientSpec.model_validate(DAY | {"subject": "panel", "sky": "overcast"}), 6500),
        (AmbientSpec(condition="distinct_shadows", subject="panel"), 7500),
        (AmbientSpec(condition="heavy_overcast", subject="shade"), 6800),
        (
            AmbientSpec.model_validate(DAY | {"subject": "sun", "lamps_lux": 200, "lamps_k": 3200}),
            5500,
        ),  # by day they pale
        (
            AmbientSpec.model_validate(DAY | {"subject": "sun", "clock": "23:00", "lamps_lux": 200, "lamps_k": 3200}),
            3200,
        ),
    ):
        assert balance(spec, ambient_of(spec), BARE).ambient_k == kelvin
    assert set(GELS) >= {found.gel}


def said_of(spec: AmbientSpec, *docs: dict[str, Any]) -> str:
    setup = Setup(ambient=spec, lights=lights(*docs))
    return balance_words(balance(spec, ambient_of(spec), setup.lights), setup)


def test_a_flash_is_warmer_than_the_shade_by_what_lies_between_them() -> None:
    """physics 23: 5500 K under 7500 K is warmer by 48; a match is within 20 mired (common practice)."""
    shade = AmbientSpec(condition="distinct_shadows", subject="shade")
    found = balance(shade, ambient_of(shade), BARE)
    assert found.gel == "quarter_blue"
    assert found.left_mired == pytest.approx(1e6 / 7500 - 1e6 / 5500 + 35)
    assert "a quarter blue gel brings the flash to it (then set 7500 K)" in said_of(shade, {})
    assert "without" not in said_of(shade, {"gel": "quarter_blue"})
    near = AmbientSpec(condition="interior_night", lamps_lux=200, lamps_k=4600)  # 35.6 warmer; an eighth leaves 9.6
    assert "an eighth" not in said_of(near, {})
    deep = AmbientSpec(condition="interior_night", lamps_lux=200, lamps_k=2200)  # 272.7: 114 more than a full orange
    assert "which it is still 114 mired cooler than" in said_of(deep, {})
    orange = said_of(shade, {"gel": "full_orange"})
    assert "7500 K" in orange
    assert "would match" not in orange


def test_the_balance_is_the_keys_whatever_light_is_looked_at_and_a_gel_for_effect_stays_a_colour() -> None:
    day = AmbientSpec()
    key, blue = {"role": "key"}, {"role": "rim", "gel": "full_blue", "gel_for": "effect"}
    for order in ((key, blue), (blue, key)):
        found = balance(day, ambient_of(day), lights(*order))
        assert found.camera_k == 5500
        (off,) = found.off
        assert off.mired == pytest.approx(-137)
        assert order[off.light] is blue
    assert "the rim behind its full blue gel is 137 mired cooler than the balance" in said_of(day, key, blue)
    warm = said_of(day, {"gel": "quarter_orange", "gel_for": "effect"})
    assert warm.startswith("White balance 5500 K")
    assert "64 mired warmer than the balance" in warm
    matched = said_of(day, {"gel": "quarter_orange"})
    assert matched.startswith("White balance 4100 K")  # 10^6 / (181.8 + 64) = 4068
    own = {"gel": "own", "own_gel": {"name": "Deep red", "transmission": 0.1}, "gel_for": "effect"}
    assert "coloured by its Deep red gel" in said_of(day, key, {"role": "rim"} | own)
    assert Light.model_validate(own).filtered.transmission == 0.1
    with pytest.raises(ValidationError):
        Light.model_validate({"gel": "own"})


def test_only_fill_and_key_start_from_a_compensation_of_their_own() -> None:
    sun, dark = AmbientSpec(), AmbientSpec(condition="dark")
    for role, starts in (("key", 0.0), ("fill", -1.7), ("rim", 1.0), ("background", 1.0)):
        light = Light.model_validate({"role": role, "target_stops": 1.0, "distance_m": 1.0})
        assert start_compensation(light, sun) == starts
    assert start_compensation(Light(role="fill", distance_m=1.0), dark) == -1.0


def test_what_the_cameras_automatics_would_do() -> None:
    """D: sun, EV 15, f/2.8: 1/4000; at 1/250 f/11; auto ISO at sync ends at the body's lowest. None darkens the sky."""
    of = Setup.model_validate({"aim": {"f_number": 2.8, "background_stops": -1}, "ambient": {"subject": "back"}})
    found = {one.mode: one for one in automatics(of, ambient_of(of.ambient))}
    assert found["aperture_priority"].camera.shutter_s == 1 / 4000
    assert found["aperture_priority"].past_sync
    assert found["shutter_priority"].camera.f_number == 11
    assert not found["shutter_priority"].past_sync
    assert found["programme"].camera.shutter_s == 1 / 1000
    assert found["auto_iso"].camera.iso == 100
    assert found["auto_iso"].off_stops == pytest.approx(5)
    assert found["shutter_priority"].off_stops == pytest.approx(1, abs=0.1)
    dim = {one.mode: one.camera for one in automatics(of, replace(ambient_of(of.ambient), background_ev=9.0))}
    assert dim["auto_iso"].iso == 400  # APEX: f/2.8 is AV 3, 1/250 is TV 8: two stops over EV 9
    assert (dim["auto_iso"].shutter_s, dim["auto_iso"].f_number) == (1 / 250, 2.8)
    wide = of.model_copy(update={"aim": of.aim.model_copy(update={"f_number": 1.4})})
    bright = {one.mode: one for one in automatics(wide, ambient_of(wide.ambient))}
    assert bright["aperture_priority"].camera.shutter_s == 1 / 8000  # the body's top speed, where 1/16000 is wanted
    assert bright["aperture_priority"].off_stops == pytest.approx(2, abs=0.02)  # a stop for that, one asked for
    night = {one.mode: one for one in automatics(of, replace(ambient_of(of.ambient), background_ev=-6.0))}
    assert night["programme"].camera.shutter_s == 30
    assert night["programme"].camera.f_number == 5.6
    assert not night["programme"].past_sync
    assert night["shutter_priority"].camera.f_number == WIDEST
    assert night["auto_iso"].camera.iso == of.body.iso_max
