"""The methods: camera settings, what each costs, what blocks it, in the situations of the trade."""

import pytest
from pydantic import ValidationError

from jumpstop.core.kit.table import table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, Unit
from jumpstop.core.plan.camera.ambient import ambient_of
from jumpstop.core.plan.camera.fixed import methods_of
from jumpstop.core.plan.camera.freeze import settings_for
from jumpstop.core.plan.camera.look import blur_of, buys_no_blur, needed_s, tolerable_mm, trail_share
from jumpstop.core.plan.camera.methods import Method
from jumpstop.core.plan.camera.timing import shutter_exposure
from jumpstop.core.scene.setup import Setup

BODY = {"name": "A body", "dark_edge": "bottom"}
SUN = 15  # P: ANSI PH2.7, distinct shadows: f/8 at 1/500, ISO 100


def setup(**change: object) -> Setup:
    return Setup.model_validate(
        {"ambient": {"subject": "shade"}, "aim": {"f_number": 8, "background_stops": 0}, "body": BODY} | change
    )


def methods(of: Setup, step: str = "third") -> dict[str, Method]:
    return {method.kind: method for method in methods_of(of, ambient_of(of.ambient, of.meter_c), step)}  # type: ignore[arg-type]


def camera(of: Setup, kind: str) -> tuple[float, int, float, float]:
    """(f-number, 1 / time, ISO, ND) of a possible method."""
    method = methods(of)[kind]
    assert method.possible, method.blocker
    found = method.camera
    return found.f_number, round(1 / found.shutter_s), found.iso, found.nd_stops


def why(of: Setup, kind: str) -> str:
    blocker = methods(of)[kind].blocker
    assert blocker is not None
    return blocker.code


def costs(of: Setup, kind: str) -> list[str]:
    return [cost.code for cost in methods(of)[kind].costs]


def aim(f_number: float, under: float = 0, **more: object) -> dict[str, object]:
    return {"f_number": f_number, "background_stops": under} | more


def nd(*sizes: float) -> list[dict[str, object]]:
    return [{"name": f"ND {size}", "stops": size} for size in sizes]


# P: EV 15 with exact marks; the camera must be set for 15 - b + k (handbook section 1).
CAMERAS = [
    ({}, "hss", (8, 500, 100, 0)),
    ({"aim": aim(8, -2)}, "hss", (8, 2000, 100, 0)),
    ({"aim": aim(8, -2), "filters": nd(3)}, "nd", (8, 250, 100, 3)),
    ({"aim": aim(8, -2)}, "stop_down", (22, 250, 100, 0)),
    ({"aim": aim(8), "filters": nd(3)}, "nd", (8, 60, 100, 3)),  # what is more than needed slows the shutter
    ({"aim": aim(16)}, "sync", (16, 125, 100, 0)),
    ({"aim": aim(11)}, "past_sync", (11, 0, 100, 0)),
    ({"aim": aim(5.6)}, "past_sync", (5.6, 1000, 100, 0)),
    ({"aim": aim(2.8, -1), "filters": nd(2, 3)}, "nd", (2.8, 250, 100, 5)),
]


@pytest.mark.parametrize(("change", "kind", "expected"), CAMERAS[:6] + CAMERAS[8:])
def test_camera_settings(change: dict[str, object], kind: str, expected: tuple[float, ...]) -> None:
    assert camera(setup(**change), kind) == expected


def test_the_smallest_change_comes_before_hss() -> None:
    """CP: a third of a stop over sync is taken out of ISO, or of the aperture, and is said as what it is."""
    third = aim(8, 1 - 1 / 3, iso=800)  # EV 15 at f/8, ISO 800: 1/4000; a hair over sync needs a dimmer place
    hare = setup(ambient={"condition": "heavy_overcast"}, aim=aim(5.6, -1 / 3, iso=200))
    assert methods(hare)["hss"].possible
    assert camera(hare, "sync") == (5.6, 250, 160, 0)
    assert costs(hare, "sync") == ["iso_instead"]
    base = setup(ambient={"condition": "heavy_overcast"}, aim=aim(5.6, -1 / 3, iso=200), body=BODY | {"iso_min": 200})
    assert camera(base, "sync") == (6.3, 250, 200, 0)
    assert costs(base, "sync") == ["aperture_instead"]
    both = setup(ambient={"condition": "heavy_overcast"}, aim=aim(5.6, -4 / 3, iso=200), body=BODY | {"iso_min": 100})
    assert camera(both, "sync") == (6.3, 250, 100, 0)
    assert costs(both, "sync") == ["iso_instead", "aperture_instead"]
    far = setup(ambient={"condition": "heavy_overcast"}, aim=aim(5.6, -5 / 3, iso=200))
    assert why(far, "sync") == "too_bright_at"
    assert why(setup(aim=third), "sync") == "too_bright_at"
    closed = setup(aim=aim(22, -4 / 3, iso=100), ambient={"condition": "sand_or_snow"}, body=BODY | {"sync_s": 1 / 60})
    assert why(closed, "sync") == "too_bright_at"  # no lens closes further


@pytest.mark.parametrize(
    ("change", "kind", "code"),
    [
        ({"aim": aim(2.8)}, "sync", "too_bright_at"),
        ({"aim": aim(2.8)}, "nd", "nd_none_packed"),
        ({"aim": aim(2.8, -1), "filters": nd(3)}, "nd", "nd_too_weak"),
        ({"aim": aim(16)}, "nd", "nd_not_needed"),
        ({"aim": aim(16)}, "hss", "hss_not_needed"),
        ({"aim": aim(16)}, "stop_down", "stop_down_not_needed"),
        ({"aim": aim(16)}, "past_sync", "past_sync_not_needed"),
        ({"aim": aim(16)}, "slow", "slow_not_needed"),
        ({"aim": aim(16)}, "leaf", "focal_plane"),
        ({"aim": aim(16)}, "freeze", "nothing_to_freeze"),
        ({"body": BODY | {"hss": False}}, "hss", "no_hss"),
        ({"aim": aim(1.4, -1)}, "hss", "too_bright_at"),  # 1/32000 would be wanted
        ({"aim": aim(8, -3)}, "stop_down", "closes_no_further"),
        ({"aim": aim(8, -2.2)}, "stop_down", "closes_no_further"),  # f/24.3 is nearer to f/25 than to f/22
        ({"aim": aim(2.8)}, "past_sync", "little_lit"),
        ({"body": BODY | {"top_speed_s": 1 / 320}}, "past_sync", "little_lit"),  # 1/500 is not on this body
        ({"ambient": {"condition": "dark"}, "aim": aim(8)}, "slow", "too_long"),
        ({"motion": {"kind": "trails", "trail_s": 1}}, "slow", "too_bright_closed"),
        ({"silent": True}, "hss", "silent_takes_no_flash"),
        (
            {"body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 500, "top_speed_s": 1 / 500}},
            "sync",
            "syncs_at_any_speed",
        ),
        (
            {"body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 250, "top_speed_s": 1 / 250}},
            "leaf",
            "too_bright_at_aperture",
        ),
        (
            {"body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 250, "top_speed_s": 1 / 250}},
            "past_sync",
            "no_curtains",
        ),
        ({"body": {"name": "G", "shutter": "global", "sync_s": 1 / 250}}, "past_sync", "no_curtains"),
        ({"body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 250, "top_speed_s": 1 / 250}}, "hss", "no_hss"),
    ],
)
def test_what_blocks_a_method(change: dict[str, object], kind: str, code: str) -> None:
    assert why(setup(**change), kind) == code


def test_figures_in_what_blocks_a_method() -> None:
    """P: EV 15, f/2.8 wants 1/4000, four stops over 1/250; with ND 3 one is missing."""
    blocked = methods(setup(aim=aim(2.8), filters=nd(3)))
    assert blocked["sync"].blocker.facts["over"] == pytest.approx(4)  # type: ignore[union-attr]
    assert blocked["nd"].blocker.facts == {"over": pytest.approx(4), "most": 3}  # type: ignore[union-attr]
    fast = methods(setup(aim=aim(1.4, -1)))["hss"].blocker
    assert fast is not None
    assert fast.facts["over"] == pytest.approx(2)  # 1/32000 against 1/8000
    lit = methods(setup(aim=aim(2.8)))["past_sync"].blocker
    assert lit is not None
    assert lit.facts["share"] == pytest.approx(250 / 4000, rel=0.03)


@pytest.mark.parametrize(
    ("change", "kind", "expected"),
    [
        ({"aim": aim(2.8, -1), "filters": nd(5)}, "nd", ["nd_takes"]),
        ({"aim": aim(2.8, -1), "filters": nd(6)}, "nd", ["nd_takes", "nd_slower_shutter"]),
        ({"aim": aim(2.8), "filters": [{"name": "V", "stops": 2, "most_stops": 5}]}, "nd", ["nd_takes"]),
        (
            {"aim": aim(2.8, -1 / 3), "filters": [{"name": "V", "stops": 2, "most_stops": 5}]},
            "nd",
            ["nd_takes", "nd_uneven"],
        ),
        ({"aim": aim(2.8, -1), "filters": [{"name": "V", "stops": 1, "most_stops": 2}, *nd(3)]}, "nd", ["nd_takes"]),
        ({}, "hss", ["hss_costs"]),
        ({}, "stop_down", ["blur_given_up"]),
        ({"aim": aim(16)}, "sync", ["costs_nothing"]),
        ({"motion": {"kind": "freeze"}}, "freeze", ["ghosts"]),
        ({"motion": {"kind": "freeze"}, "ambient": {"condition": "dark"}}, "freeze", ["freeze_costs"]),
        ({"body": {"name": "L", "shutter": "leaf", "sync_s": 1 / 500, "top_speed_s": 1 / 500}}, "leaf", ["leaf_costs"]),
        (
            {"ambient": {"condition": "interior_night"}, "body": {"name": "L", "shutter": "leaf"}},
            "leaf",
            ["darker_when_held"],
        ),
    ],
)
def test_what_a_method_costs(change: dict[str, object], kind: str, expected: list[str]) -> None:
    assert costs(setup(**change), kind) == expected


def test_figures_in_what_a_method_costs() -> None:
    """D: by hand from EV 15 and the marks."""
    six = methods(setup(aim=aim(2.8, -1), filters=nd(6)))["nd"]
    assert six.costs[0].facts == {"names": ("ND 6",), "stops": 6}
    assert six.costs[1].facts["more"] == pytest.approx(1)
    assert round(1 / six.camera.shutter_s) == 125
    eased = methods(setup(ambient={"condition": "heavy_overcast"}, aim=aim(5.6, -1 / 3, iso=200)))["sync"]
    assert eased.costs[0].facts == {"iso": 160, "asked": 200}
    down = methods(setup())["stop_down"]
    assert down.costs[0].facts == {"f_number": 11, "asked": 8}
    ghost = methods(setup(motion={"kind": "freeze"}))["freeze"]  # shade EV 12 against f/8 at 1/256: EV 14
    assert ghost.costs[0].facts == {"level": pytest.approx(-2), "over": pytest.approx(3)}
    tripod = methods(setup(ambient={"condition": "interior_night"}, aim=aim(4, -1, iso=100)))["slow"]
    assert tripod.costs[1].facts["slower"] == pytest.approx(2.907, abs=0.001)  # 1/8 against 1/60
    long = methods(setup(ambient={"condition": "dark"}))["slow"].blocker
    assert long is not None
    assert long.facts["seconds"] == pytest.approx(2**9)
    for under, needed in (
        (-1.75, False),
        (-1.65, True),
    ):  # 1/54 and 1/50: a fifth more than can be held is another time
        near = setup(ambient={"condition": "interior_night"}, aim=aim(4, under, iso=400))
        assert methods(near)["slow"].possible == needed
    assert methods(setup(ambient={"condition": "dark"}))["slow"].camera.shutter_s == 30  # the longest that bodies mark
    assert camera(setup(aim=aim(8, -2.1)), "stop_down") == (22, 250, 100, 0)
    closed = methods(setup(motion={"kind": "trails", "trail_s": 1}))["slow"].blocker
    assert closed is not None
    assert closed.facts == {"over": pytest.approx(6), "limit_s": 1, "f_number": 22}  # f/181 against f/22.6
    stop = methods(setup(aim=aim(8, -3)))["stop_down"].blocker
    assert stop is not None
    assert stop.facts["f_number"] == pytest.approx(32)


def test_how_far_the_background_is_off() -> None:
    """D: EV wanted less EV set; ND that is a third too weak leaves it a third too bright."""
    found = methods(setup(aim=aim(2.8, -1 / 3), filters=nd(4)))["nd"]
    assert found.off_stops == pytest.approx(1 / 3)
    assert methods(setup())["hss"].off_stops == pytest.approx(0)


def test_slow_sync_and_trails() -> None:
    """P: a room at night, EV 6: f/4 at ISO 400, a stop under, is 1/32 s; held at 1/60 it lies a stop darker."""
    dusk = setup(ambient={"condition": "interior_night"}, aim=aim(4, -1, iso=400))
    assert camera(dusk, "slow") == (4, 30, 400, 0)
    assert methods(dusk)["slow"].off_stops == pytest.approx(0, abs=0.01)
    assert costs(dusk, "slow") == ["moving_draws", "tripod", "rear_curtain"]
    assert costs(dusk, "sync") == ["darker_when_held"]
    assert methods(dusk)["sync"].off_stops == pytest.approx(-1, abs=0.01)
    assert methods(dusk)["sync"].costs[0].facts["dark"] == pytest.approx(1, abs=0.01)
    lens = {"focal_mm": 30, "subject_m": 2, "background_m": 9}
    assert costs(setup(ambient={"condition": "interior_night"}, aim=aim(4, -1, iso=400, lens=lens)), "sync") == [
        "costs_nothing"
    ]
    trails = dusk.model_copy(update={"motion": setup(motion={"kind": "trails", "trail_s": 0.5}).motion})
    found = methods(trails)["slow"].camera
    assert (found.shutter_s, found.f_number) == (0.5, 16)  # four stops slower, four stops closed
    assert (
        methods(setup(ambient={"condition": "dark"}, aim=aim(8)))["slow"].camera.shutter_s == 30
    )  # the longest there is
    assert why(trails.model_copy(update={"fixed": setup(fixed={"aperture": True}).fixed}), "slow") == "aperture_fixed"
    assert camera(
        setup(ambient={"condition": "interior_night"}, aim=aim(4, -1, iso=400), fixed={"aperture": True}), "slow"
    ) == (4, 30, 400, 0)
    noon = setup(aim=aim(8), motion={"kind": "trails", "trail_s": 0.5}, filters=nd(6))
    assert camera(noon, "slow")[3] == 6
    assert methods(noon)["slow"].off_stops == pytest.approx(0, abs=0.2)


def test_iso_goes_to_its_floor_for_the_sun_and_to_its_ceiling_for_the_dark() -> None:
    low = setup(aim=aim(8, iso=400, iso_floor=50), body=BODY | {"iso_min": 50})
    assert camera(low, "sync") == (8, 250, 50, 0)
    assert camera(setup(aim=aim(16, iso=400, iso_floor=50), body=BODY | {"iso_min": 50}), "sync") == (16, 250, 200, 0)
    assert camera(setup(aim=aim(16, iso=100, iso_floor=50), body=BODY | {"iso_min": 50}), "sync")[2] == 100  # not over
    assert camera(setup(aim=aim(16, iso=100, iso_ceiling=1600)), "sync")[2] == 100  # not under
    night = setup(ambient={"condition": "interior_night"}, aim=aim(4, iso=100, iso_ceiling=1600))
    assert camera(night, "sync") == (4, 60, 1600, 0)
    assert camera(setup(ambient={"by": "lux", "lux": 640}, aim=aim(4, iso=100, iso_ceiling=6400)), "sync")[2] == 400
    small = setup(aim=aim(8, iso=100), body=BODY | {"iso_min": 200})
    assert {method.camera.iso for method in methods(small).values()} == {200}


@pytest.mark.parametrize(("held", "edge"), [("landscape", "bottom"), ("grip_up", "right"), ("grip_down", "left")])
@pytest.mark.parametrize(("under", "time", "lit"), [(0, 500, 0.5), (-1 / 3, 640, 0.39), (1 / 3, 400, 0.625)])
def test_past_sync_names_the_edge(held: str, edge: str, under: float, time: int, lit: float) -> None:
    """D: t / T of the frame; CP: half to two thirds of a stop at 1/400, a stop at 1/500."""
    method = methods(setup(aim=aim(8, under, orientation=held)))["past_sync"]
    assert round(1 / method.camera.shutter_s) == time
    assert method.lit == pytest.approx(lit, abs=0.005)
    assert method.dark_edge == edge
    facts = method.costs[0].facts
    assert (facts["dark"], facts["gain"]) == pytest.approx((1 - lit, 1 - under), abs=0.08)


def test_full_stops_are_kept_to_where_they_are_wanted() -> None:
    """The camera's marks in the person's steps; never faster than sync, never past the top speed."""
    under = aim(8, -1 / 3)
    in_hss = [methods(setup(aim=under), step)["hss"] for step in ("third", "half", "full")]
    assert [round(1 / one.camera.shutter_s) for one in in_hss] == [640, 750, 500]
    odd = setup(aim=aim(16, 1 / 3), body=BODY | {"sync_s": 1 / 200}, ambient={"condition": "sand_or_snow"})
    assert round(1 / methods(odd, "full")["sync"].camera.shutter_s) == 200
    assert methods(setup(aim=aim(8, -2)), "full")["stop_down"].camera.f_number == 22
    top = setup(aim=aim(2.8, -0.4), body=BODY | {"top_speed_s": 1 / 5000})
    assert round(1 / methods(top, "full")["hss"].camera.shutter_s) in (4000, 5000)


def test_triggers_and_shutters_slow_the_sync() -> None:
    slow = BODY | {"radio_sync_s": 1 / 125, "silent_sync_s": 1 / 60}
    for change, sync in (({}, 125), ({"trigger": "shoe"}, 250), ({"silent": True}, 60)):
        assert camera(setup(body=slow, filters=nd(6), **change), "nd")[1] <= sync
        assert round(1 / setup(body=slow, **change).fastest_flash_s(8)) == sync


def test_blur_and_what_it_is_worth() -> None:
    """85 mm f/2 at 2.5 m, background 10 m: 1.12 mm of 36 (P: Ray); 24 mm f/2.8 with a wall 1 m behind: nothing (CP)."""
    worth = setup(aim=aim(2, lens={"focal_mm": 85, "subject_m": 2.5, "background_m": 10}))
    wall = setup(aim=aim(2.8, lens={"focal_mm": 24, "subject_m": 2, "background_m": 3}))
    soft = setup(aim=aim(2.8, lens={"focal_mm": 50, "subject_m": 2.5, "background_m": 3.2}))
    for of, f_number, share, verdict in (
        (worth, 2, 1.12 / 36, "worth"),
        (wall, 2.8, 0.001, "none"),
        (soft, 2.8, 0.0022, "none"),
    ):
        found = blur_of(of, f_number)
        assert found is not None
        assert found.share == pytest.approx(share, abs=0.0004)
        assert found.verdict == verdict
    assert blur_of(worth, 11) is not None
    assert blur_of(worth, 11).verdict == "faint"  # type: ignore[union-attr]
    assert buys_no_blur(wall, 2.8)
    assert not buys_no_blur(worth, 2)
    assert not buys_no_blur(setup(), 2)


def test_blur_wanted_sets_the_aperture() -> None:
    """D: the disc is inverse to the f-number; 3.1 % of 36 mm at 85 mm, 2.5 m, 10 m is f/2; from f/1 to f/22."""
    lens = {"focal_mm": 85, "subject_m": 2.5, "background_m": 10}
    for wanted, f_number in ((1.123 / 36, 2), (0.003, 20), (0.0006, 22), (0.2, 1), (None, 5.6)):
        assert setup(aim={"by": "blur", "lens": lens | {"wanted_share": wanted}}).f_number == f_number
    assert setup(aim=aim(4, lens=lens)).f_number == 4


def test_motion_by_hand() -> None:
    """D: 3.5 m/s in a field of 4 m on 36 mm is 31.5 mm/s: 0.03 mm takes 1/1050 s. In 0.25 s it draws 22 % of it."""
    leap = setup(motion={"kind": "freeze", "mover": "leap", "field_width_m": 4})
    assert 1 / needed_s(leap) == pytest.approx(1050, rel=0.001)
    assert tolerable_mm(leap) == pytest.approx(0.03)
    own = setup(motion={"kind": "freeze", "mover": "other", "speed_m_s": 7, "field_width_m": 4, "blur_mm": 0.06})
    assert 1 / needed_s(own) == pytest.approx(1050, rel=0.001)
    assert trail_share(leap) == pytest.approx(3.5 * 0.25 / 4)
    speeds = {
        "fall": 1.98,
        "walker": 1.5,
        "runner": 6,
        "dancer": 6,
        "thrown": 7,
        "splash": 3,
        "small_bird": 10,
        "ball": 25,
    }
    found = {mover: setup(motion={"mover": mover}).motion.speed for mover in speeds}  # M: typical, but for the fall
    assert found == pytest.approx(speeds, abs=0.002)


def unit(shape: str, *entries: tuple[float, float], **more: object) -> Unit:
    table = tuple(DurationEntry(power=power, seconds=seconds) for power, seconds in entries)
    return Unit(name="U", watt_seconds=60, flash_duration=FlashDuration(shape=shape, table=table), **more)


def test_which_settings_are_short_enough() -> None:
    """CP: cut pulses shorten as power drops, the brightest short one counts; old tails lengthen: full power freezes."""
    cut = unit("cut", *((2**-k, 2**-k / 130) for k in range(8)))  # 1/3960 or less first at 1/32
    old = unit("tail", (1, 1 / 900), (1 / 16, 1 / 300))
    tenths = unit("cut", (1, 1 / 1000), (1 / 2, 1 / 2000), scale={"step_stops": 0.5})
    table = table_of([cut, old, Unit(name="?", watt_seconds=1), unit("cut", (1, 1 / 100)), tenths])
    found = settings_for(table, 1 / 3960)
    assert found.least[0] == pytest.approx(5)
    assert found.most[0] == pytest.approx(7)
    assert list(found.known) == [True, True, False, True, True]
    assert list(found.can) == [True, False, False, False, False]
    assert settings_for(table, 1 / 4040).least[0] == pytest.approx(5)  # within 2 %
    assert settings_for(table, 1 / 4300).least[0] == pytest.approx(16 / 3, abs=0.34)
    short_dial = unit("cut", (1, 1 / 500), (1 / 128, 1 / 30000), scale={"lowest": 1 / 8})
    assert list(settings_for(table_of([short_dial, cut]), 1 / 8000).can) == [False, True]
    assert settings_for(table_of([short_dial]), 1 / 1000).most[0] == pytest.approx(3)  # to the end of its dial
    slow = settings_for(table, 1 / 700)
    assert (slow.least[1], slow.most[1]) == pytest.approx((0, 2 / 3), abs=0.35)
    assert (slow.least[4], slow.can[4]) == (0, True)
    assert settings_for(table, 1 / 1500).least[4] == pytest.approx(1)  # on the unit's own half stops


def test_shutter_and_flash_in_time() -> None:
    body = setup().body
    found = methods(setup(aim=aim(8, 0), filters=nd(1)))
    hss = shutter_exposure(setup(), found["hss"], 1e-4, 1e-3, True)
    assert (hss.fired_s, hss.travel_s) == (0, 1 / 250)
    assert hss.burn.length_s == pytest.approx(1 / 250 + 1 / 500)
    synced = shutter_exposure(setup(), found["nd"], 1e-4, 1e-3, True)
    assert synced.travel_s == synced.fired_s == pytest.approx(0.7 / 250)
    assert synced.burn.length_s == pytest.approx(1e-4)
    past = shutter_exposure(setup(), found["past_sync"], 1e-4, 1e-3, False)
    assert past.travel_s == body.curtain_s
    unknown = shutter_exposure(setup(), found["nd"], float("nan"), float("nan"), True)
    assert unknown.burn.length_s == pytest.approx(7 / 2000 / 2.302585)  # M: a usual flash of 1/2000 s


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"aim": {"lens": {"focal_mm": 85, "subject_m": 5, "background_m": 3}}}, "background_in_front"),
        ({"aim": {"lens": {"focal_mm": 200, "subject_m": 0.3, "background_m": 3}}}, "too_near_to_focus"),
        ({"aim": {"by": "blur"}}, "lens_missing"),
        ({"aim": {"iso": 100, "iso_floor": 200}}, "iso_floor_above"),
        ({"aim": {"iso": 400, "iso_ceiling": 200}}, "iso_ceiling_below"),
        ({"motion": {"kind": "freeze", "mover": "other"}}, "speed_missing"),
        ({"filters": [{"name": "ND", "stops": -3}]}, "greater_than_equal"),
        ({"lights": []}, "too_short"),
        ({"frames": 0}, "greater_than_equal"),
        ({"frames": True}, "int_type"),
        ({"ways": 1}, "extra_forbidden"),
    ],
)
def test_nonsense_about_a_setup_is_refused_with_a_code(change: dict[str, object], code: str) -> None:
    with pytest.raises(ValidationError) as refused:
        Setup.model_validate(change)
    assert refused.value.errors()[0]["type"] == code


def test_the_edges_of_what_is_sense() -> None:
    near = {"focal_mm": 200, "subject_m": 0.301, "background_m": 0.302}
    assert setup(aim=aim(4, lens=near, iso=100, iso_floor=100, iso_ceiling=100)).aim.iso_floor == 100
    assert Unit(name="U", claims=(Claim(guide_number=1, unit="m"),), hss=Hss()).claims[0].iso == 100
