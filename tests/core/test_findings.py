"""A finding says all that it changes: each is done, and the answer of the changed setup compared with what was said."""

import math
import os
from functools import partial
from typing import Any

import pytest

from jumpstop import service
from jumpstop.core.kit.shelf import Shelf
from jumpstop.core.kit.unit import Unit
from jumpstop.core.plan.change.findings import Finding, Findings
from jumpstop.core.plan.change.moves import Bag
from jumpstop.core.plan.change.ranking import curing
from jumpstop.core.plan.job.worked_out import solved_on
from jumpstop.core.plan.light.advice import chosen_method, unit_for, units_for
from jumpstop.core.scene.ambient import AmbientSpec
from jumpstop.core.scene.light import OwnModifier
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups
from jumpstop.words.answer import Answer, answer_of
from jumpstop.words.figures import DisplayUnits
from jumpstop.words.levers import levers_text
from scenes import setup_of

AS_SET = {"aperture": "f_number", "shutter": "shutter_s", "iso": "iso", "nd": "nd_stops"}  # how an answer names them
COUNT = int(os.environ.get("FINDINGS", "14"))  # `FINDINGS=300` tries them all
WORDS = DisplayUnits()
UNITS = [Unit.model_validate(doc) for doc in kit()["units"]]
SHELF = Shelf(UNITS, [f"u{at}" for at in range(len(UNITS))])
BAG = Bag(tuple(OwnModifier.model_validate(doc | {"id": f"m{at}"}) for at, doc in enumerate(kit()["modifiers"])))


def found(setup: Setup, light: int = 0, **more: Any) -> tuple[Findings, int, Answer]:
    """(what is found, the unit in hand, the answer as it stands)."""
    solved = solved_on(setup, SHELF)
    kind = chosen_method(solved, (), light)
    reach = solved.reach(kind, light)
    unit = unit_for(reach)
    assert unit is not None
    return service.find_a_stop(reach, unit, SHELF, setup, BAG, **more), unit, answer_of(solved, WORDS, light)


def answered(one: Finding, light: int) -> Answer:
    """The answer of the setup with a finding done, read back as it would be stored."""
    setup = Setup.model_validate(one.setup.model_dump(mode="json"))
    return answer_of(solved_on(setup, SHELF), WORDS, light)


def levels(answer: Answer) -> dict[str, float]:
    return {level.receiver: max(-4.0, level.total) for level in answer.levels}


def held(one: Finding, light: int, unit: int, before: Answer) -> None:
    """What was said of a finding is what its answer shows."""
    after = answered(one, light)
    assert after.lanes is not None
    swap = next((move.unit for move in one.moves if move.unit), None)
    at = unit if swap is None else SHELF.ids.index(swap)
    assert after.lanes.spare[at] == pytest.approx(one.lever.spare, abs=0.01)
    if after.unit != SHELF.ids[at]:
        return  # no unit is taken, and the answer now speaks of another
    told = {remark.code for remark in one.differs}
    by_itself = {move.code for move in one.moves}
    was, now = levels(before), levels(after)
    if abs(now["background"] - was["background"]) > 0.31:
        assert "background" in told | {code[:10] for code in by_itself}
    for remark in one.differs:
        old_level, new_level = (shown.get(remark.code, -4.0) for shown in (was, now))
        if min(old_level, new_level) > -4:  # else an answer shows none
            assert remark.facts["stops"] == pytest.approx(new_level - old_level, abs=0.02)
        if hasattr(before.settings, AS_SET.get(remark.code, "")):
            ends = [getattr(answer.settings, AS_SET[remark.code]) for answer in (before, after)]
            assert [remark.facts["before"], remark.facts["after"]] == ends
    if one.setup.stage.kind == "group":
        for code, places in (("ends", ("left", "right")), ("row", ("far",))):
            fall = [min(one[place] for place in places) - one["lit"] for one in (was, now)]
            lowest = min(one[place] for one in (was, now) for place in ("lit", *places))
            assert (code in told) >= (abs(fall[1] - fall[0]) > 0.31 and lowest > -4)  # below it an answer shows -4
            says = next((remark.facts for remark in one.differs if remark.code == code), None)
            if says is not None and lowest > -4:
                assert [says["before"], says["stops"]] == pytest.approx(fall, abs=0.02)
    elif min(one[place] for one in (was, now) for place in ("lit", "shadow")) > -4:
        apart = abs((now["lit"] - now["shadow"]) - (was["lit"] - was["shadow"]))
        assert abs(apart - 0.3) < 0.02 or ("ratio" in told) == (apart > 0.3)
    if min(one.get("edge", -4.0) for one in (was, now)) > -4:
        assert ("edge" in told) >= (abs(now["edge"] - was["edge"]) > 0.31)
    old, new = before.settings, after.settings
    stops = {
        "aperture": abs(2 * math.log2(new.f_number / old.f_number)),
        "shutter": abs(math.log2(new.shutter_s / old.shutter_s)),
        "iso": abs(math.log2(new.iso / old.iso)),
    }
    for code, by in stops.items():
        cures = {"aperture": {"wider", "stop_down"}, "iso": {"iso_up", "iso_down", "iso_and_shutter"},
                "shutter": {"iso_and_shutter"}}[code]  # fmt: skip
        assert (code in told or bool(cures & by_itself)) >= (by > 0.35), (code, by)
        assert (code in told) <= (by > 0.15)  # marked f-numbers are rounded
    assert ("method" in told or bool({"method", "nd_on"} & by_itself)) >= (before.chosen != after.chosen)
    fails = {kind_of(said) for said in after.fails} - {kind_of(said) for said in before.fails}
    assert len(one.lost) >= len(fails) - 1, (fails, one.lost)  # the light's own stops are told apart


def others(one: Finding, light: int, setup: Setup) -> int:
    """The other lights whose verdict is another one after: they are told, with what they then have."""
    was, now = solved_on(setup, SHELF), solved_on(Setup.model_validate(one.setup.model_dump(mode="json")), SHELF)
    ends = []
    for solved in (was, now):
        kind = chosen_method(solved, (), light)
        units = [None if at == light else unit for at, unit in enumerate(units_for(solved, kind))]
        ends.append([unit if unit is None else (solved.reach(kind, at), unit) for at, unit in enumerate(units)])
    told = {remark.facts["light"]: remark.facts for remark in one.differs if remark.code == "other_light"}
    for at, (old, new) in enumerate(zip(*ends, strict=True)):
        words = [end[0].verdict[end[1]] for end in (old, new) if end is not None]
        differs = len(words) == 2 and words[0] != words[1] and "blocked" not in words and setup.lights[at].on
        assert (at in told) == differs
        if at in told and new is not None:
            figures = [told[at]["verdict"], told[at]["spare"], told[at]["too_bright"], told[at]["role"]]
            reach, unit = new
            assert figures == [words[1], reach.spare[unit], reach.too_bright[unit], setup.lights[at].role]
    return len(told)


def kind_of(sentence: str) -> str:
    return " ".join(sentence.split()[:3])


def all_of(findings: Findings) -> list[Finding]:
    lists = (findings.gains, findings.pairs, findings.better, findings.unfixing, findings.losing)
    return [one for some in lists for one in some]


def in_their_lists(one: Findings) -> bool:
    """What stands in each list is what it is a list of, in its order; whether stops in hand could buy something."""
    bright, of = one.of.too_bright > 0, one.of
    assert all(len(got.moves) == 1 for got in one.better + one.unfixing)
    cured = curing(of)
    assert all(not got.too_bright and (got.spare >= 0 if bright else got.gain > 0.02) for got in cured)
    assert not any(move.unit for got in cured for move in got.moves)
    assert not cured or bright or of.spare < 0
    assert not any(got.loses for some in (one.gains, one.pairs, one.better, one.unfixing) for got in some)
    assert all(got.loses for got in one.losing)
    for got in one.gains + one.pairs:
        assert len(got.moves) == 1 + (got in one.pairs)
        assert not got.lever.too_bright
        assert got.lever.spare >= 0 if bright else got.lever.gain > 0.02
    alone = {(got.moves[0].code, str(got.moves[0].facts), got.moves[0].at): got.lever.gain for got in one.gains}
    for pair in () if bright else one.pairs:
        singly = [alone.get((move.code, str(move.facts), move.at), 0.0) for move in pair.moves]
        assert pair.lever.gain > max(singly) + 0.02
    for some in (one.gains, one.pairs):
        done = [got.lever.spare >= -0.05 for got in some]
        assert done == sorted(done, reverse=True)  # what is enough first
        prices = [got.lever.costs.price("look") for got in some if got.lever.spare >= -0.05]
        assert prices == sorted(prices)
    assert not one.better or (of.spare > 0.02 and not bright)
    for got in one.better:
        costs, first = got.lever.costs, got.moves[0].code
        assert got.lever.gain < -0.02
        assert got.lever.spare >= 0
        assert first != "unit"
        assert costs.method == 0
        assert first == "farther" or max(costs.softer, -costs.noise, costs.depth) > 0.1
    for got in all_of(one):
        assert got.lever.costs.work >= 0.1
        assert (got.lever.costs.work >= 4) >= any(not move.owned for move in got.moves if move.code == "unit")
        own = {(told.code, told.facts.get("light")) for told in (*got.won, *got.lost)}
        assert of.whole or not own & {("light_off", of.light), ("light_blocked", of.light)}
    return bool(one.better)


def has_unit(setup: Setup) -> bool:
    solved = solved_on(setup, SHELF)
    return bool(solved.kinds) and unit_for(solved.reach(chosen_method(solved), 0)) is not None


def test_every_finding_of_the_demo_comes_out_as_it_says() -> None:
    number = bought = 0
    for setup in setups():
        for light in range(len(setup.lights)):
            findings, unit, before = found(setup, light)
            bought += in_their_lists(findings)
            for one in all_of(findings):
                held(one, light, unit, before)
                number += 1
    assert number > 200
    assert bought >= 3


def test_every_finding_of_generated_setups_comes_out_as_it_says() -> None:
    elsewhere = 0
    for setup in filter(has_unit, map(setup_of, range(1000, 1000 + COUNT))):
        findings, unit, before = found(setup)
        in_their_lists(findings)
        for one in all_of(findings):
            held(one, 0, unit, before)
            elsewhere += others(one, 0, setup) if len(setup.lights) > 1 else 0
    assert elsewhere > 5


TEAM = next(one for one in setups() if one.stage.kind == "group")
CHALK = next(one for one in setups() if one.motion.kind == "freeze" and one.lights[0].distance_m < 2)


def test_what_a_nearer_light_takes_from_the_ends_of_a_group_is_told() -> None:
    """physics 9: of a row 6 m wide, the ends fall by 2 log2(sqrt(d² + 3²) / d) of what the light alone gives."""
    findings, _, before = found(TEAM)
    nearest = min(
        (one for one in all_of(findings) if [move.code for move in one.moves] == ["closer"]),
        key=lambda one: one.moves[0].facts["metres"],
    )
    ends = next(remark for remark in nearest.differs if remark.code == "ends")
    assert ends.facts["stops"] < ends.facts["before"] - 0.3
    assert ends.facts["before"] == pytest.approx(
        min(levels(before)["left"], levels(before)["right"]) - levels(before)["lit"], abs=0.01
    )
    assert nearest.loses  # the last row falls out of its third of a stop
    assert nearest in findings.losing
    assert nearest not in findings.gains


def test_what_a_nearer_light_takes_from_the_last_row_is_told() -> None:
    """physics 6: a row 3 m behind the first has 2 log2((d + 3) / d) less of a light at d in front of both; in the dark
    that is all."""
    front = [light.model_copy(update={"position": None}) for light in TEAM.lights[:1]]
    stage, dark = TEAM.stage.model_copy(update={"depth_m": 3.0}), AmbientSpec(condition="dark")
    deep = TEAM.model_copy(update={"lights": tuple(front), "stage": stage, "ambient": dark, "method": "sync"})
    findings, _, before = found(deep)
    closer = [one for one in all_of(findings) if [move.code for move in one.moves] == ["closer"]]
    assert closer
    nearest = min(closer, key=lambda one: one.moves[0].facts["metres"])
    row = next(remark for remark in nearest.differs if remark.code == "row")
    assert row.facts["before"] == pytest.approx(levels(before)["far"] - levels(before)["lit"], abs=0.01)
    falls = [
        -2 * math.log2((metres + 3) / metres) for metres in (front[0].distance_m, nearest.moves[0].facts["metres"])
    ]
    assert [row.facts["before"], row.facts["stops"]] == pytest.approx(falls, abs=0.05)


def test_a_longer_flash_is_offered_where_freezing_holds_the_unit_down() -> None:
    """It is among what loses something asked for, and the dial may then go up."""
    short = CHALK.model_copy(update={"lights": (CHALK.lights[0].model_copy(update={"distance_m": 1.6}),)})
    findings, _, before = found(short)
    assert before.chosen == "freeze"
    longer = [one for one in findings.losing if [move.code for move in one.moves] == ["longer_flash"]]
    assert longer
    for one in longer:
        assert one.lever.gain > 0
        wanted = one.setup.motion.wanted_t01_s
        assert wanted is not None
        shown = answered(one, 0)
        assert shown.lanes is not None
        place = SHELF.ids.index(before.unit)
        lasting = shown.lanes.t01_s[place]
        assert lasting is not None
        assert lasting <= wanted * 1.02
    assert all(move.code != "longer_flash" for one in findings.gains for move in one.moves)


def test_more_heads_than_are_owned_are_told() -> None:
    findings, unit, _ = found(setups()[0])
    four = next(one for one in all_of(findings) if [move.code for move in one.moves] == ["heads"])
    assert [one.code for one in four.wanted] == ["not_so_many"]
    assert four.wanted[0].facts["wanted"] == four.moves[0].facts["count"]
    assert four.wanted[0].facts["there"] == UNITS[unit].count


def test_a_method_that_the_change_brings_with_it_is_told_and_counted() -> None:
    """What opens the aperture may move the picture into another method: the figures are those of that one."""
    brought = [
        (one, answered(one, 0))
        for setup in setups()
        for one in all_of(found(setup)[0])
        if any(remark.code == "method" for remark in one.differs)
    ]
    assert brought
    for one, after in brought:
        change = next(remark for remark in one.differs if remark.code == "method")
        assert after.chosen == change.facts["after"] != change.facts["before"]


def test_cures_say_the_same_as_find_a_stop() -> None:
    setup = TEAM.model_copy(
        update={"lights": (TEAM.lights[0].model_copy(update={"distance_m": 14.0}), *TEAM.lights[1:])}
    )
    solved = solved_on(setup, SHELF)
    reach = solved.reach(chosen_method(solved), 0)
    unit = unit_for(reach)
    assert unit is not None
    assert reach.spare[unit] < 0
    cured = service.cures_of(reach, unit, SHELF, setup)
    listed = all_of(service.find_a_stop(reach, unit, SHELF, setup, BAG))
    assert cured
    assert not any(one.loses or one.lever.gain <= 0.02 for one in cured)
    words = partial(levers_text, solved, keep="look", units=WORDS)
    says = {one.says: one.gain for group in ("gains", "losing", "pairs") for one in
            getattr(words(service.find_a_stop(reach, unit, SHELF, setup, BAG)), group)}  # fmt: skip
    assert says
    for one in cured:
        same = [other for other in listed if other.moves[0].facts == one.moves[0].facts and len(other.moves) == 1]
        assert not same or same[0].lever.spare == pytest.approx(one.lever.spare, abs=1e-9)
        assert answered(one, 0).lanes.spare[unit] == pytest.approx(one.lever.spare, abs=0.01)  # type: ignore[union-attr]


def test_what_is_applied_leaves_the_setups_own_day() -> None:
    """The job's day is put in to solve; what is done is done to the setup as it was written."""
    solved = solved_on(TEAM, SHELF)
    reach = solved.reach(chosen_method(solved), 0)
    written = TEAM.model_copy(update={"name": "As it was written"})
    unit = unit_for(reach)
    assert unit is not None
    findings = service.find_a_stop(reach, unit, SHELF, written, BAG)
    assert {one.setup.name for one in all_of(findings)} == {"As it was written"}
