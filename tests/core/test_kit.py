"""What a person owns: ratings on one basis, dials, durations, HSS tables, filters; what documents refuse."""

import importlib
import json
import math
import pkgutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, ValidationError

from jumpstop import core
from jumpstop.core.kit.body import Body, LeafLimit
from jumpstop.core.kit.filter import Filter, nd_for
from jumpstop.core.kit.gel import GEL_FIGURES, gel_stops
from jumpstop.core.kit.modifier import Face, Layer, Modifier, layers_on
from jumpstop.core.kit.power import PowerScale, PowerSupply
from jumpstop.core.kit.rating import REFERENCE_DEG, rating_of
from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Claim, DurationEntry, FlashDuration, Hss, HssEntry, Unit
from jumpstop.core.kit.values import Value
from jumpstop.core.physics.beam import coverage_deg, moved_stops
from jumpstop.core.plan.light.reach import solve
from jumpstop.core.scene.light import Light
from jumpstop.core.scene.setup import Setup
from jumpstop.formats.documents import DOCUMENTS, schema_of

DOCS = Path(__file__).parents[2] / "docs" / "schema"


def unit(*claims: tuple[float, float | None], **more: object) -> Unit:
    """A unit from guide numbers [m, ISO 100] and their zoom positions [mm]."""
    return Unit(name="U", claims=tuple(Claim(guide_number=g, unit="m", zoom_mm=z) for g, z in claims), **more)


def total_sd(table: UnitTable, zoom: float | None) -> float:
    output = table.output_at(zoom)
    return float(np.hypot(output.rated_sd[0], output.gain_sd[0]))


def test_a_modifier_fits_kinds_single_units_and_mounts() -> None:
    """By kind; but not that very head; and by mounts where both say one, or by an adapter."""
    heads = [
        unit((60, 35), kind="monobloc", mount="large bayonet"),
        unit((60, 35), kind="monobloc", mount="small bayonet"),
        unit((60, 35), kind="monobloc"),
        unit((40, 35), kind="shoe"),
    ]
    table = table_of([one.model_copy(update={"name": f"H{at}"}) for at, one in enumerate(heads)])
    for more, fits in (
        ({}, [True, True, True, True]),
        ({"fits": ("monobloc",)}, [True, True, True, False]),
        ({"fits": ("monobloc",), "not_on": ("H0",)}, [False, True, True, False]),
        ({"mount": "Large bayonet"}, [True, False, True, True]),  # what is not said of a unit hinders nothing
        ({"mount": "Large bayonet", "adapters": ("small bayonet",)}, [True, True, True, True]),
    ):
        modifier = Modifier(name="M", **more)
        assert table.fitting(modifier).tolist() == fits, more
        setup = Setup.model_validate(
            {"ambient": {"condition": "dark"}, "lights": [{"modifier": modifier.model_dump()}]}
        )
        assert solve(setup, table).reach("sync").able.tolist() == fits
        anyway = setup.lights[0].model_copy(update={"fits_anyway": True})
        assert solve(setup.model_copy(update={"lights": (anyway,)}), table).reach("sync").able.all()


@pytest.mark.parametrize("name", DOCUMENTS)
def test_documents_keep_their_published_schema(name: str) -> None:
    """The schema in docs is what others rely on: a bound, a default or a title that moves must be published anew."""
    assert schema_of(name) == json.loads((DOCS / f"{name}.json").read_text(encoding="utf-8"))


HELD = ("minimum", "maximum", "exclusiveMinimum", "exclusiveMaximum", "minLength", "maxLength", "minItems", "maxItems",
        "pattern", "enum", "const", "anyOf", "items", "prefixItems", "type", "required")  # fmt: skip


def held(schema: Any) -> Any:
    """What a schema says of what may stand there, without its words and the names of its parts."""
    if isinstance(schema, list):
        return [held(one) for one in schema]
    if not isinstance(schema, dict):
        return schema
    usual = schema.get("default")  # of a document those of its fields
    own = usual if isinstance(usual, str | int | float) else None
    return {key: held(one) for key, one in schema.items() if key in HELD} | {"default": own}


def models(root: type[BaseModel]) -> Iterator[type[BaseModel]]:
    for one in root.__subclasses__():
        yield from (one, *models(one))


def test_every_document_keeps_the_bounds_and_defaults_that_the_interface_publishes() -> None:
    """What is sent by others is taken or refused by these; a bound that moves must be published anew."""
    for module in pkgutil.walk_packages(core.__path__, "jumpstop.core."):
        importlib.import_module(module.name)
    published = json.loads((DOCS.parent / "openapi.json").read_text(encoding="utf-8"))["components"]["schemas"]
    known = {one.__name__: one.model_json_schema()["properties"] for one in models(Value)}
    found = {name: published.get(name) or published.get(f"{name}-Input") for name in known}
    assert sum(there is not None for there in found.values()) >= 55
    for name, there in found.items():
        if there is not None:
            fields = {field: held(one) for field, one in known[name].items()}
            assert fields == {field: held(one) for field, one in there["properties"].items()}, name


def test_claims_on_different_bases_are_brought_to_one() -> None:
    """D: 280 ft at ISO 200 is 60.3 m at ISO 100; between quoted zooms stops run straight against log(zoom)."""
    feet = Claim(guide_number=280, unit="ft", iso=200, zoom_mm=200)
    assert feet.guide_number_m == pytest.approx(280 * 0.3048 / math.sqrt(2), abs=0.01)
    assert Claim(guide_number=1, unit="m", coverage_deg=63.4).angle_deg == 63.4
    curve = rating_of(unit((36, 35), (42, 50), (58, 105)))
    assert curve.at(REFERENCE_DEG) == pytest.approx((2 * math.log2(36), 0.25))
    middle = math.sqrt(35 * 50)
    angle = math.degrees(2 * math.atan(math.hypot(36, 24) / 2 / middle))
    assert curve.at(angle)[0] == pytest.approx(math.log2(36) + math.log2(42), abs=0.003)
    twice = rating_of(unit((36, 35), (72, 35)))
    assert twice.at(REFERENCE_DEG)[0] == pytest.approx(2 * math.log2(36) + 1)  # the mean in stops


def test_a_coverage_that_was_quoted_is_not_doubted_for_being_moved() -> None:
    """M: a claim is good to 0.25 stop at its own coverage, to 0.5 moved to another, or where none is said."""
    far = table_of([unit((60, 200), zoom_max_mm=200)])
    assert total_sd(far, 200) == pytest.approx(0.25)
    assert total_sd(far, None) == pytest.approx(0.5)
    assert far.rated[0] < 2 * math.log2(60) - 1  # wider is weaker
    assert far.rated[0] + far.output_at(200).gain[0] == pytest.approx(2 * math.log2(60), abs=0.01)
    near = table_of([unit((40, 35), zoom_max_mm=200)])
    assert (total_sd(near, None), total_sd(near, 200)) == pytest.approx((0.25, 0.5))
    assert near.rated[0] == pytest.approx(2 * math.log2(40))
    at = table_of([unit((36, 35), (58, 105)).model_copy(update={"zoom_min_mm": 20.0, "zoom_max_mm": 200.0})]).output_at
    for zoom, sd in ((60, 0.25), (105, 0.25), (110, 0.25), (130, 0.5), (34, 0.25), (31, 0.5), (35, 0.25)):
        found = at(float(zoom))  # quoted positions and between them .25, beyond them .5, with no slope in the middle
        assert math.hypot(float(found.rated_sd[0]), float(found.gain_sd[0])) == pytest.approx(sd, abs=1e-6), zoom
    between = 2 * math.log2(58 / 36) * math.log(60 / 35) / math.log(105 / 35)
    assert float(at(60.0).gain[0]) == pytest.approx(between, abs=1e-6)
    unknown = rating_of(unit((36, None)))
    assert (unknown.at(REFERENCE_DEG)[1], unknown.basis) == (0.5, "no_coverage")
    mixed = rating_of(unit((60, 200), (36, None)))
    assert mixed.at(REFERENCE_DEG)[1] == pytest.approx(0.5)  # a second claim without coverage makes nothing certain
    assert mixed.at(12.35)[1] == pytest.approx(0.25, abs=0.01)
    assert mixed.basis == "no_coverage"


def test_own_readings_shift_the_makers_curve_and_make_it_sure() -> None:
    """M: one careful reading is good to 0.1 stop. D: two to 0.1 / sqrt 2; the curve moves by the mean difference."""
    claims = (Claim(guide_number=40, unit="m", zoom_mm=35), Claim(guide_number=60, unit="m", zoom_mm=105))
    own = Claim(guide_number=28.284, unit="m", zoom_mm=35, measured=True)
    rating = rating_of(Unit(name="U", claims=(*claims, own)))
    assert rating.at(REFERENCE_DEG) == pytest.approx((2 * math.log2(40) - 1, 0.1), abs=0.001)
    assert rating.at(23.3)[0] == pytest.approx(2 * math.log2(60) - 1, abs=0.01)
    assert rating.basis == "measured"
    twice = rating_of(Unit(name="U", claims=(*claims, own, own.model_copy(update={"sd": 0.3}))))
    assert twice.sd[0] == pytest.approx(0.3 / math.sqrt(2))
    alone = rating_of(Unit(name="U", claims=(own,)))
    assert alone.at(REFERENCE_DEG)[0] == pytest.approx(2 * math.log2(28.284))


def test_watt_seconds_alone_are_soft() -> None:
    """M: 35 lm/W into 65 degrees, 0.6 stop."""
    rating = rating_of(Unit(name="U", watt_seconds=400))
    assert rating.at(65) == pytest.approx((2 * math.log2(75.44), 0.6), abs=0.001)
    assert rating.basis == "watt_seconds"


def test_zoom_heads_stop_at_their_ends() -> None:
    table = table_of([unit((36, 35), (58, 105), zoom_min_mm=24, zoom_max_mm=105), unit((36, 35))])
    assert table.output_at(200).gain[0] == pytest.approx(2 * math.log2(58 / 36), abs=0.01)
    assert table.output_at(200).gain[1] == 0
    assert table.output_at(14).gain[0] == pytest.approx(table.output_at(24).gain[0])
    assert table.output_at(24).gain[0] < 0
    assert table.output_at(200).zoom_mm.tolist() == [105, 35]
    between = math.sqrt(35 * 50)  # half way in log(zoom), between two sampled positions
    assert table.output_at(between).gain[0] == pytest.approx(
        (table.output_at(35).gain[0] + table.output_at(50).gain[0]) / 2, abs=1e-6
    )
    assert total_sd(table, between) == pytest.approx(0.25)
    for zoom in (24, 28, 50, 70, 85, 105):  # D: straight against log(zoom) from 36 at 35 mm to 58 at 105 mm
        share = math.log(zoom / 35) / math.log(3)
        if share > 0:
            assert table.output_at(zoom).gain[0] == pytest.approx(2 * math.log2(58 / 36) * share, abs=0.01)
    silent = table_of([unit((36, 35)), unit((36, 35), (58, 105), zoom_max_mm=105)])
    assert silent.output_at(20).gain == pytest.approx([0, 0])  # nothing wider was ever quoted
    assert silent.output_at(105).gain == pytest.approx([0, 2 * math.log2(58 / 36)])
    wide = table_of([unit((36, 35), zoom_min_mm=14, zoom_max_mm=200)])
    for zoom in (
        14,
        20,
        24,
        28,
        35,
        50,
        70,
        85,
        105,
        135,
        200,
    ):  # M: the marked positions, where the beam's rule is exact
        moved = float(moved_stops(REFERENCE_DEG, float(coverage_deg(zoom))))
        assert wide.output_at(zoom).gain[0] == pytest.approx(moved)
    assert rating_of(unit((40, 34))).at(REFERENCE_DEG) == pytest.approx((2 * math.log2(40), 0.25))  # the same, nearly


@given(
    st.floats(1 / 8192, 1), st.floats(0.05, 2), st.sampled_from(["fraction", "number", "ws"]),
)  # fmt: skip
def test_a_dial_goes_down_in_whole_steps(lowest: float, step: float, kind: str) -> None:
    scale = PowerScale(kind=kind, lowest=lowest, step_stops=step)
    steps = scale.dial_range_stops / step
    assert steps == pytest.approx(round(steps), abs=1e-6)
    assert scale.dial_range_stops <= -math.log2(lowest) + 0.05 * step + 1e-9
    assert scale.dial_range_stops > -math.log2(lowest) - step


@pytest.mark.parametrize(
    ("lowest", "step", "goes"), [(1 / 128, 1 / 3, 7), (0.0078, 1 / 3, 7), (1 / 256, 0.1, 8), (1 / 100, 1, 6)]
)
def test_a_dials_range(lowest: float, step: float, goes: float) -> None:
    """D: 1/128 is seven stops below full, and so is 0.0078, as it is printed."""
    assert PowerScale(lowest=lowest, step_stops=step).dial_range_stops == pytest.approx(goes)


def test_durations_by_power() -> None:
    """D: t.5 of an uncut tail is t.1 / 3.32 (M: 2.25 of a cut one); between entries straight in stops."""
    entries = (DurationEntry(power=1, seconds=1 / 600), DurationEntry(power=1 / 16, seconds=1 / 9600))
    cut = unit((36, 35), flash_duration=FlashDuration(table=entries))
    tail = unit((36, 35), flash_duration=FlashDuration(shape="tail", measure="t.5", table=entries[:1]))
    half = unit((36, 35), flash_duration=FlashDuration(measure="t.5", table=entries[:1]))
    table = table_of([cut, tail, half, unit((36, 35))])
    assert table.t01_at(np.array([2.0, 0, 0, 0]))[:3] == pytest.approx([1 / 2400, 3.3219 / 600, 2.25 / 600], rel=1e-3)
    assert table.t01_of(0, np.array([0.0, 2, 20])) == pytest.approx([1 / 600, 1 / 2400, 1 / 9600])
    assert table.t01_at(np.array([2 + 1 / 6, 0, 0, 0]))[0] == pytest.approx(1 / 2400 / 2 ** (1 / 6), rel=0.01)
    assert table.t01_at(np.array([20.0, 0, 0, 0]))[0] == pytest.approx(1 / 9600)  # held beyond the table
    assert np.isnan(table.t01_at(np.zeros(4))[3])
    assert table.tailed.tolist() == [False, True, False, False]


def test_an_hss_table_is_split_into_geometry_and_the_units_own_extra() -> None:
    """D: on the table's own body it gives just what it lists; the geometry of 1/250 at 1/1000 is log2 5 = 2.32."""
    listed = Hss(table=(HssEntry(shutter_s=1 / 500, loss_stops=1.9), HssEntry(shutter_s=1 / 1000, loss_stops=2.7)))
    table = table_of([unit((36, 35), hss=listed), unit((36, 35), hss=Hss(extra_stops=0.7)), unit((36, 35))])
    assert table.hss_extra_at(1 / 1000) == pytest.approx([2.7 - math.log2(5), 0.7, 0.5], abs=0.01)
    assert table.hss_extra_at(1 / 500)[0] == pytest.approx(1.9 - math.log2(3), abs=0.01)
    assert table.hss_extra_at(1 / 8000)[0] == pytest.approx(2.7 - math.log2(5), abs=0.01)  # held beyond its end
    assert table.has_hss.tolist() == [True, True, False]
    assert table.hss_tabled.tolist() == [True, False, False]
    assert table.hss_sd == pytest.approx([0.15, 0.4, 0.4])
    slow = Hss(table=listed.table, travel_s=1 / 125)
    assert table_of([unit((36, 35), hss=slow)]).hss_extra_at(1 / 1000)[0] == pytest.approx(2.7 - math.log2(9), abs=0.01)


def test_power_supplies() -> None:
    """M: 9.6 Wh give 250 flashes of 76 Ws; mains never ends. A supply that a unit has not is not invented."""
    cells = PowerSupply(kind="aa", recycle_full_s=3, recycle_least_s=9, capacity_wh=9.6)
    mains = PowerSupply(kind="mains", recycle_full_s=1)
    table = table_of([unit((36, 35), watt_seconds=76, power_supplies=(cells, mains)), unit((36, 35))])
    usual, wall = table.fed_by(None), table.fed_by("mains")
    assert usual.full_flashes[0] == pytest.approx(250, abs=0.3)
    assert (usual.full_s[0], usual.least_s[0]) == (3, 3)  # never slower at low power than at full
    assert (wall.full_s[0], wall.full_flashes[0]) == (1, np.inf)
    assert table.fed_by("external").full_s[0] == 3
    assert np.isnan(usual.full_s[1])
    said = table_of([unit((36, 35), power_supplies=(PowerSupply(recycle_full_s=2, full_flashes=99),))])
    assert said.fed_by(None).full_flashes[0] == 99
    pack = PowerSupply(kind="external", recycle_full_s=2, full_flashes=99)
    assert table_of([unit((36, 35), power_supplies=(pack,))]).fed_by(None).full_flashes[0] == 99
    assert np.isnan(table_of([unit((36, 35), power_supplies=(cells,))]).fed_by(None).full_flashes[0])  # no Ws


def nd(*sizes: float | tuple[float, float]) -> tuple[Filter, ...]:
    pairs = [size if isinstance(size, tuple) else (size, None) for size in sizes]
    return tuple(Filter(name=f"ND {i}", stops=a, most_stops=b) for i, (a, b) in enumerate(pairs))


@pytest.mark.parametrize(
    ("needed", "owned", "stops", "count"),
    [
        (3, nd(3, 6), 3, 1), (5, nd(2, 3), 5, 2), (4.9, nd((2, 5)), 5, 1), (3.3, nd((2, 5)), 10 / 3, 1),
        (1, nd((2, 5)), 2, 1), (3.3, nd(3), 3, 1), (6, nd((2, 5), 3), 6, 2), (3, nd(1, 2, 3), 3, 1),
        (5.3, nd((2, 5)), 5, 1), (4.01, nd((2, 5)), 4, 1),
    ],
)  # fmt: skip
def test_the_nearest_nd(needed: float, owned: tuple[Filter, ...], stops: float, count: int) -> None:
    """D: stops of stacked filters add; a variable one is turned in thirds to what is needed."""
    found = nd_for(needed, owned)
    assert found is not None
    assert (found.stops, len(found.filters)) == (pytest.approx(stops), count)


def test_nd_that_is_too_weak_or_would_cross() -> None:
    pair = nd_for(3, nd(3.3, 2, 1.26))  # 0.26 too much is nearer than 0.3
    assert pair is not None
    assert pair.stops == pytest.approx(3.26)
    assert nd_for(3.5, nd(3)) is None  # more than a third short
    assert nd_for(8, nd((2, 5), (2, 5))) is None  # two variable filters are never stacked
    assert nd_for(8, nd((2, 5), 3)) is not None


def test_bodies_have_their_limits() -> None:
    """CP: leaf blades may not reach their top speed wide open; radio triggers and silent shutters sync slower."""
    leaf = Body(
        name="Leaf", shutter="leaf", sync_s=1 / 2000, top_speed_s=1 / 2000,
        leaf_limits=(LeafLimit(f_number=2.8, fastest_s=1 / 1000),),
    )  # fmt: skip
    assert (leaf.fastest_flash_s(2.8, False, False), leaf.fastest_flash_s(8, True, False), leaf.open_travel_s) == (
        1 / 1000,
        1 / 2000,
        0,
    )
    slow = Body(name="Slow", radio_sync_s=1 / 160, silent_sync_s=1 / 50)
    times = [slow.flash_sync_s(radio, silent) for radio, silent in ((False, False), (True, False), (True, True))]
    assert times == [1 / 250, 1 / 160, 1 / 50]
    assert (slow.curtain_s, slow.open_travel_s) == pytest.approx((1 / 250, 0.7 / 250))  # M: open for a while at sync
    known = Body(name="Known", travel_s=1 / 300)
    assert (known.curtain_s, known.open_travel_s) == (1 / 300, 1 / 300)
    assert Body(name="Full").diagonal_mm == pytest.approx(43.27, abs=0.01)


def test_layers_and_gels() -> None:
    """M: orange correction passes .55, .71, .79, .85 (full to eighth)."""
    octa = Modifier(name="O", layers=(Layer(name="in", stops=-1), Layer(name="out", stops=-0.9, usually_on=False)))
    assert [layer.name for layer in layers_on(octa, None)] == ["in"]
    assert [layer.name for layer in layers_on(octa, ("out", "gone"))] == ["out"]
    assert layers_on(octa, ()) == ()
    passed = [
        2 ** gel_stops(GEL_FIGURES[gel])
        for gel in ("none", "full_orange", "half_orange", "quarter_orange", "eighth_orange")
    ]
    assert passed == pytest.approx([1, 0.55, 0.71, 0.79, 0.85])
    assert Face(width_m=1).rectangle_height_m is None
    assert Face(shape="rectangle", width_m=1).rectangle_height_m == 1
    assert Face(shape="rectangle", width_m=1, height_m=2).rectangle_height_m == 2


@pytest.mark.parametrize(
    ("model", "change", "code"),
    [
        (Unit, {"name": "U"}, "unit_without_light"),
        (Unit, {"name": "U", "watt_seconds": 1, "zoom_min_mm": 50, "zoom_max_mm": 24}, "zoom_reversed"),
        (Unit, {"name": "U", "watt_seconds": True}, "float_type"),
        (Unit, {"name": "U", "watt_seconds": "60"}, "float_type"),
        (Unit, {"name": "a\x00b", "watt_seconds": 1}, "string_pattern_mismatch"),
        (Unit, {"name": "a\nb", "watt_seconds": 1}, "string_pattern_mismatch"),
        (Unit, {"name": "U", "watt_seconds": 1, "note": "a\x1bb"}, "string_pattern_mismatch"),
        (Unit, {"name": "U", "watt_seconds": 1, "takes_modifiers": "yes"}, "bool_type"),
        (Unit, {"name": "U", "watt_seconds": float("inf")}, "finite_number"),
        (Unit, {"name": " ", "watt_seconds": 1}, "string_too_short"),
        (Body, {"name": "B", "sync_s": 1 / 8000, "top_speed_s": 1 / 4000}, "sync_over_top_speed"),
        (Body, {"name": "B", "iso_min": 800, "iso_max": 100}, "iso_range_reversed"),
        (Filter, {"name": "F", "stops": 5, "most_stops": 2}, "variable_nd_reversed"),
        (Light, {"layers": ["in"]}, "layers_without_modifier"),
        (Light, {"modifier": {"name": "M"}, "layers": ["in"]}, "unknown_layer"),
        (Light, {"heads": 1.5}, "int_type"),
    ],
)
def test_nonsense_is_refused_with_a_code(model: type[Unit], change: dict[str, object], code: str) -> None:
    with pytest.raises(ValidationError) as refused:
        model.model_validate(change)
    assert refused.value.errors()[0]["type"] == code


def test_what_only_looks_like_nonsense_is_taken() -> None:
    assert Unit(name="line {a} %s <b> “q” ‮", watt_seconds=1, note="two\nlines\tand a tab").note.startswith("two\n")
    assert Light.model_validate({"heads": 2.0}).heads == 2  # a whole number, as JSON may write it
    assert (
        Unit.model_validate({"name": "U", "watt_seconds": 60, "zoom_min_mm": 50, "zoom_max_mm": 50}).zoom_max_mm == 50
    )
    assert Body(name="B", sync_s=1 / 4000, top_speed_s=1 / 4000, iso_min=100, iso_max=100).iso_max == 100
    assert Filter(name="F", stops=2, most_stops=2).most_stops == 2


def test_lights_that_say_no_id_are_numbered_from_one_past_those_that_do() -> None:
    numbered = Setup.model_validate({"lights": [{}, {"id": "2"}, {}, {"id": "k"}, {}, {"id": "k"}]})
    assert [light.id for light in numbered.lights] == ["1", "2", "3", "k", "4", "5"]
