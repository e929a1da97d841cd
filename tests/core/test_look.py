"""The look, motion, and every way: worked examples of the trade, with their sources."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from jumpstop.core import optics
from jumpstop.core.camera import Body, Filter, LeafLimit
from jumpstop.core.counsel import advised_way, blur_of, judgement, traps
from jumpstop.core.flash import Claim, Hss, Pulse, PulseEntry, Unit
from jumpstop.core.light import There
from jumpstop.core.modifiers import Layer, Modifier
from jumpstop.core.motion import Motion, needed_t01_s, settings_for
from jumpstop.core.optics import Blur
from jumpstop.core.reach import Solved, solve
from jumpstop.core.setup import Light, Look, Setup
from jumpstop.core.table import Table, table_of
from jumpstop.core.wording import Manner, fill

BODY = Body(name="A body", dark_edge="bottom")
STRONG = Unit(name="Strong", claims=(Claim(guide_number=70, unit="m", zoom_mm=35),), hss=Hss())
FALLING = [PulseEntry(power=2**-k, seconds=2**-k / 130) for k in range(8)]  # first 1/3960 or less at 1/32
POUR = Unit(name="Pour", claims=(Claim(guide_number=60, unit="m", zoom_mm=35),), pulse=Pulse(table=tuple(FALLING)))


def solved(setup: Setup, *units: Unit) -> tuple[Solved, Table]:
    table = table_of(units or (STRONG,))
    return solve(setup, table), table


def sun(**change: object) -> Setup:
    return Setup.model_validate(
        {"there": {"subject": "shade"}, "look": {"f_number": 8, "background_stops": 0}, "body": BODY.model_dump()}
        | change
    )


def camera_of(setup: Setup, kind: str) -> tuple[float, float, float]:
    way = next(way for way in solved(setup)[0].ways if way.kind == kind)
    return way.camera.f_number, round(1 / way.camera.shutter_s), way.camera.nd_stops


def test_depth_of_field_and_blur() -> None:
    """P: Ray, Applied Photographic Optics, worked examples."""
    assert optics.hyperfocal_m(35, 4) == pytest.approx(10.24, abs=0.005)
    assert optics.depth_of_field_m(85, 2, 2.5) == pytest.approx((2.451, 2.551), abs=0.001)
    assert optics.blur_disc_mm(85, 2, 2.5, 10) == pytest.approx(1.12, abs=0.005)
    assert optics.blur_disc_mm(24, 2.8, 2, 3) == pytest.approx(0.035, abs=0.001)
    assert optics.depth_of_field_m(24, 16, 3)[1] == np.inf


@given(st.floats(1, 22), st.floats(1, 20), st.floats(1.1, 50))
def test_blur_grows_with_aperture_and_distance(n: float, subject: float, times: float) -> None:
    """D: monotone in all three."""
    disc = optics.blur_disc_mm(85, n, subject, subject * times)
    assert disc < optics.blur_disc_mm(85, n / 1.1, subject, subject * times)
    assert disc < optics.blur_disc_mm(85, n, subject, subject * times * 1.1)
    near, far = optics.depth_of_field_m(85, n, subject)
    assert near < subject < far


def test_whether_the_wide_aperture_buys_anything() -> None:
    """85 mm f/2 at 2.5 m, background at 10 m, is worth the trouble; 24 mm f/2.8 with a wall 1 m behind is not."""
    worth = sun(
        look={"f_number": 2, "background_stops": 0, "blur": {"focal_mm": 85, "subject_m": 2.5, "background_m": 10}}
    )
    wall = sun(look={"f_number": 2.8, "blur": {"focal_mm": 24, "subject_m": 2, "background_m": 3}})
    verdict = blur_of(worth, 2)
    assert verdict is not None
    assert verdict.worth
    assert verdict.words.startswith("worth the trouble")
    other = blur_of(wall, 2.8)
    assert other is not None
    assert not other.worth
    assert "Stop down and stay at sync" in other.words
    found, _ = solved(wall)
    assert advised_way(wall, found) == "stop_down"
    assert "buys no blur" in judgement(wall, found.reaches["stop_down"], 0)
    assert advised_way(worth, solved(worth)[0]) == "hss"


def test_blur_wanted_sets_the_aperture() -> None:
    """D: the disc is inverse to the f-number; 3.1 % of 36 mm at 85 mm, 2.5 m, 10 m is f/2."""
    blur = Blur(focal_mm=85, subject_m=2.5, background_m=10, wanted_share=1.12 / 36)
    assert Setup(look=Look(by="blur", blur=blur)).f_number == 2
    assert Setup(look=Look(by="blur", blur=blur.model_copy(update={"wanted_share": 0.003}))).f_number == 20


def test_two_stops_under_and_nd() -> None:
    """P: EV 15 (ANSI PH2.7): f/8 is right at 1/500, two under at 1/2000, and ND 3 brings that back to 1/250."""
    assert camera_of(sun(), "hss") == (8, 500, 0)
    dark = sun(look={"f_number": 8, "background_stops": -2}, filters=[{"name": "ND", "stops": 3}])
    assert camera_of(dark, "hss") == (8, 2000, 0)
    assert camera_of(dark, "nd") == (8, 250, 3)
    ways = {way.kind: way for way in solved(dark)[0].ways}
    assert ways["nd"].off_stops == pytest.approx(ways["hss"].off_stops, abs=0.05)


def test_a_stop_of_shutter_for_a_stop_of_iso_doubles_a_synced_flash() -> None:
    """CP: the trick of the weak flash; D: the background stays, a synced flash gains a stop, HSS next to none."""
    dusk = {"there": {"condition": "heavy_overcast", "subject": "shade"}}
    slow = sun(**dusk, look={"f_number": 8, "iso": 100, "background_stops": 0})
    fast = sun(**dusk, look={"f_number": 8, "iso": 200, "background_stops": 0})
    one, two = solved(slow)[0].reaches["sync"], solved(fast)[0].reaches["sync"]
    assert one.way.camera.shutter_s == pytest.approx(2 * two.way.camera.shutter_s, rel=0.05)
    assert two.sum_of("take_off", "iso") - one.sum_of("take_off", "iso") == pytest.approx(1)
    base, more = (
        solved(sun(look={"f_number": 8, "iso": iso, "background_stops": 0}))[0].reaches["hss"] for iso in (100, 200)
    )
    assert float(more.sum_of("iso", "hss")[0] - base.sum_of("iso", "hss")[0]) == pytest.approx(0.26, abs=0.005)


@pytest.mark.parametrize(("held", "edge"), [("landscape", "bottom"), ("grip_up", "right"), ("grip_down", "left")])
@pytest.mark.parametrize(("under", "time", "lit"), [(0, 500, 0.5), (-1 / 3, 640, 0.39), (0.34, 400, 0.625)])
def test_past_sync_names_the_edge_in_both_orientations(
    held: str, edge: str, under: float, time: int, lit: float
) -> None:
    """D: t / T of the frame; CP: half to two thirds of a stop at 1/400, a stop at 1/500."""
    setup = sun(look={"f_number": 8, "background_stops": under, "orientation": held})
    way = next(way for way in solved(setup)[0].ways if way.kind == "past_sync")
    assert round(1 / way.camera.shutter_s) == time
    assert way.lit == pytest.approx(lit, abs=0.005)
    assert way.dark_edge == edge
    assert "of the frame" in way.gives_up


def test_freezing_a_pour() -> None:
    """D: water fallen 0.2 m, field 0.6 m: 1/3,960 s (CP: 1/4000 at 1/32); then f/16 at ISO 250 through a softbox."""
    motion = Motion(kind="freeze", mover="fall", fall_m=0.2, field_width_m=0.6)
    assert 1 / needed_t01_s(motion, 36, 0.03) == pytest.approx(3960, abs=10)
    frozen = settings_for(table_of([POUR]), needed_t01_s(motion, 36, 0.03))
    assert frozen.least[0] == pytest.approx(5)  # 1/32
    softbox = Modifier(
        name="Softbox", stops=-0.4, layers=(Layer(name="inner", stops=-0.9), Layer(name="outer", stops=-0.9))
    )
    setup = Setup(
        there=There(condition="dark"), look=Look(f_number=16, iso=250), motion=motion,
        lights=(Light(distance_m=1.0, modifier=softbox),),
    )  # fmt: skip
    found, table = solved(setup, POUR)
    reach = found.reaches["freeze"]
    by_hand = 2 * np.log2(60 / 16) - 2.2 - 5 + np.log2(2.5)  # bare at 1 m, softbox, 1/32, ISO 250
    assert reach.spare[0] == pytest.approx(by_hand, abs=0.06)
    assert reach.verdict[0] == -1
    jump = next(jump for jump in reach.chain if jump.key == "freeze")
    assert "does so at 1/32 and below" in fill(jump.why, jump.facts, Manner())
    near = setup.model_copy(update={"lights": (Light(distance_m=0.4, modifier=softbox),)})
    close = solve(near, table).reaches["freeze"]
    assert close.below_full[0] >= 5  # never above 1/32, however much light is wanted
    assert advised_way(near, solved(near, POUR)[0]) == "freeze"


def test_slow_tails_grow_longer_as_power_drops() -> None:
    """CP: units of the old kind burn longest at low power, so full power is what freezes."""
    tail = Pulse(
        shape="tail",
        measure="t.1",
        table=(PulseEntry(power=1, seconds=1 / 900), PulseEntry(power=1 / 16, seconds=1 / 300)),
    )
    old = Unit(name="Old", watt_seconds=400, pulse=tail)
    frozen = settings_for(table_of([old, POUR, STRONG]), 1 / 700)
    assert (frozen.least[0], frozen.most[0]) == pytest.approx((0, 2 / 3), abs=0.35)
    assert list(frozen.can) == [True, True, False]
    assert list(frozen.known) == [True, True, False]


def test_ghosts_are_named() -> None:
    """CP: the ambient must lie five to six stops under, or it ghosts."""
    motion = Motion(kind="freeze", mover="thrown", field_width_m=3)
    bright = Setup(there=There(condition="office"), look=Look(f_number=4, iso=1600), motion=motion)
    found, _ = solved(bright, POUR)
    assert "ghost" in {trap.key for trap in traps(bright, found, "freeze")}
    dark = bright.model_copy(update={"there": There(condition="office", lamps_on=False)})
    assert "ghost" not in {trap.key for trap in traps(dark, solved(dark, POUR)[0], "freeze")}


def test_slow_sync_and_trails() -> None:
    dusk = Setup(
        there=There(condition="interior_night", subject="shade"), look=Look(f_number=4, iso=400, background_stops=-1)
    )
    ways = {way.kind: way for way in solved(dusk)[0].ways}
    assert ways["slow"].camera.shutter_s > 1 / 60
    assert abs(ways["slow"].off_stops) < 0.2
    assert "darker than asked" in ways["sync"].gives_up
    assert "tripod" in ways["slow"].gives_up
    trails = dusk.model_copy(update={"motion": Motion(kind="trails", trail_s=0.5)})
    way = next(way for way in solved(trails)[0].ways if way.kind == "slow")
    assert way.camera.shutter_s == 0.5
    assert "Rear curtain" in way.gives_up
    noon = sun(motion={"kind": "trails", "trail_s": 1})
    assert "ND would do it" in next(way for way in solved(noon)[0].ways if way.kind == "slow").reason


def test_iso_goes_to_its_floor_for_the_sun_and_to_its_ceiling_for_the_dark() -> None:
    low = sun(
        look={"f_number": 8, "iso": 400, "iso_floor": 50, "background_stops": 0}, body={"name": "B", "iso_min": 50}
    )
    assert next(way for way in solved(low)[0].ways if way.kind == "sync").camera.iso == 50
    night = Setup(
        there=There(condition="interior_night"), look=Look(f_number=4, iso=100, iso_ceiling=1600, background_stops=0)
    )
    assert next(way for way in solved(night)[0].ways if way.kind == "sync").camera.iso == 1600


def test_iso_stays_in_the_bodys_range() -> None:
    small = sun(look={"f_number": 8, "iso": 100, "background_stops": 0}, body={"name": "Small", "iso_min": 200})
    found, _ = solved(small)
    assert {way.camera.iso for way in found.ways} == {200}
    assert "iso_range" in {trap.key for trap in traps(small, found, "hss")}


def test_bodies_have_their_limits() -> None:
    """CP: leaf blades may not reach their top speed wide open; radio triggers and silent shutters sync slower."""
    leaf = Body(
        name="Leaf", shutter="leaf", sync_s=1 / 2000, top_speed_s=1 / 2000,
        leaf_limits=(LeafLimit(f_number=2.8, fastest_s=1 / 1000),),
    )  # fmt: skip
    assert (leaf.fastest_flash_s(2.8), leaf.fastest_flash_s(8)) == (1 / 1000, 1 / 2000)
    slow = Body(name="Slow", radio_sync_s=1 / 160, silent_sync_s=1 / 50)
    times = [slow.flash_sync_s(radio, silent) for radio, silent in ((False, False), (True, False), (True, True))]
    assert times == [1 / 250, 1 / 160, 1 / 50]
    deaf = sun(silent=True)
    assert all("takes no flash" in way.reason for way in solved(deaf)[0].ways)
    radio = sun(body=slow.model_dump())
    assert "radio" in {trap.key for trap in traps(radio, solved(radio)[0], "hss")}


def test_a_hater_of_filters_is_heard() -> None:
    setup = sun(look={"f_number": 2.8, "background_stops": -1}, filters=[{"name": "ND 6", "stops": 6}])
    found, _ = solved(setup)
    assert advised_way(setup, found) == "nd"
    assert advised_way(setup, found, ("nd",)) == "hss"
    assert advised_way(setup, found, tuple(found.reaches)) == "nd"  # all disliked: then as if none were


def test_nd_stacked_and_variable_leave_their_rest_to_the_shutter() -> None:
    """D: stops of stacked filters add; what is more than needed slows the shutter. CP: uneven at the far end."""
    ask = {"look": {"f_number": 2.8, "background_stops": -1}}  # 4.9 stops over at sync
    stacked = sun(**ask, filters=[{"name": "ND 2", "stops": 2}, {"name": "ND 3", "stops": 3}])
    assert camera_of(stacked, "nd") == (2.8, 250, 5)
    six = sun(**ask, filters=[{"name": "ND 6", "stops": 6}])
    way = next(way for way in solved(six)[0].ways if way.kind == "nd")
    assert way.camera.shutter_s > 1 / 250
    assert "more than needed" in way.gives_up
    variable = sun(**ask, filters=[Filter(name="Turns", stops=2, most_stops=5).model_dump()])
    assert "uneven on wide lenses" in next(way for way in solved(variable)[0].ways if way.kind == "nd").gives_up


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"look": {"blur": {"focal_mm": 85, "subject_m": 5, "background_m": 3}}}, "must lie behind the subject"),
        ({"look": {"blur": {"focal_mm": 200, "subject_m": 0.2, "background_m": 3}}}, "does not focus as near"),
        ({"look": {"by": "blur"}}, "Say the focal length"),
        ({"look": {"iso": 100, "iso_floor": 200}}, "lowest ISO wanted"),
        ({"look": {"iso": 400, "iso_ceiling": 200}}, "highest ISO wanted"),
        ({"motion": {"kind": "freeze", "mover": "other"}}, "how fast it moves"),
        ({"filters": [{"name": "ND", "stops": -3}]}, "greater than or equal to 0.1"),
        ({"body": {"name": "B", "sync_s": 1 / 8000, "top_speed_s": 1 / 4000}}, "faster than the top speed"),
    ],
)  # fmt: skip
def test_nonsense_about_the_look_gets_a_sentence(change: dict[str, object], words: str) -> None:
    with pytest.raises(ValidationError, match=words):
        Setup.model_validate(change)
