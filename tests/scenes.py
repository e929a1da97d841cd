"""Setups, shelves and places that several tests of the core are about."""

import itertools
import random
from collections.abc import Sequence
from typing import Any

import numpy as np

from jumpstop.core.kit.table import UnitTable, table_of
from jumpstop.core.kit.unit import Claim, Hss, Unit
from jumpstop.core.plan.change.levers import levers
from jumpstop.core.plan.change.moves import Bag, done
from jumpstop.core.plan.change.ranking import Lever, Levers
from jumpstop.core.plan.job.board import Landings
from jumpstop.core.plan.light.levels import Level, levels
from jumpstop.core.plan.light.reach import Reach, Solved, solve
from jumpstop.core.plan.stage.set_warnings import stage_warnings
from jumpstop.core.scene.light import OwnModifier, OwnUnit
from jumpstop.core.scene.setup import Setup
from jumpstop.demo import kit, setups

STRONG = Unit(name="Strong", claims=(Claim(guide_number=120, unit="m", zoom_mm=35, sd=0.0),))


def scene(*lights: dict[str, Any], **more: Any) -> Solved:
    """A dark place; every light can be dialled to what it is wanted at."""
    doc = {"ambient": {"condition": "dark"}, "aim": {"f_number": 8}, "lights": list(lights)} | more
    return solve(Setup.model_validate(doc), table_of([STRONG]), "third")


def lit(found: Solved) -> dict[str, Level]:
    kind = found.kinds[0]
    return {one.receiver: one for one in levels(found, kind, (0,) * len(found.setup.lights))}


def at(bearing: float, **more: Any) -> dict[str, Any]:
    return {"position": {"bearing_deg": bearing, "height_m": 1.75 * 0.93} | more}


def told(solved: Solved) -> dict[str, Any]:
    kind, units = solved.kinds[0], (0,) * len(solved.setup.lights)
    return {one.code: one.facts for one in stage_warnings(solved, kind, units, levels(solved, kind, units))}


SHELF = [Unit.model_validate(doc) for doc in kit()["units"]]
HIRED = Unit(name="Hired", watt_seconds=500, weight_g=2000, price=300, holding="hire")
SHELF.append(HIRED)
TABLE = table_of(SHELF, ids=[f"u{i}" for i in range(len(SHELF))])
BAG = Bag(tuple(OwnModifier.model_validate(doc | {"id": f"m{i}"}) for i, doc in enumerate(kit()["modifiers"])))
OWN = {key: OwnUnit.model_construct(**dict(one), id=key) for key, one in zip(TABLE.ids, SHELF, strict=True)}
NAMES = [one.name for one in SHELF]


def found(setup: Setup, unit: str, kind: str = "nd", light: int = 0, **more: Any) -> Levers:
    return levers(setup, light, kind, TABLE, NAMES.index(unit), BAG, **more)  # type: ignore[arg-type]


def named(some: Sequence[Lever], *codes: str) -> list[Lever]:
    return [one for one in some if tuple(move.code for move in one.moves) == codes]


def comes_to(setup: Setup, light: int, one: Lever, unit: int, kind: str, table: UnitTable = TABLE) -> float:
    """Stops in hand of the setup with a change made, solved anew from nothing."""
    changed = done(setup, light, one.moves, OWN)
    swap = next((move.unit for move in one.moves if move.unit), None)
    method = next((move.method for move in one.moves if move.method), kind)
    at = unit if swap is None else table.ids.index(swap)
    reach = solve(changed, table).reach(method, light)  # type: ignore[arg-type]
    assert reach.able[at], one.moves  # what a unit cannot take is not offered
    return float(reach.spare[at])


NOON = setups()[0]


def unit(name: str, gn: float, zoom: float = 35, **more: Any) -> Unit:
    return Unit(name=name, claims=(Claim(guide_number=gn, unit="m", zoom_mm=zoom),), hss=Hss(), **more)


def lit_through(modifier: dict[str, Any] | None, table: UnitTable, at: int, in_hand: float) -> Reach:
    """A key through a modifier, from so far that a unit has this in hand."""
    doc = {"lights": [{"modifier": modifier, "distance_m": 2.0}], "ambient": {"condition": "dark"}}
    setup = Setup.model_validate(doc | {"aim": {"f_number": 5.6}})
    off = float(solve(setup, table).reach("sync").spare[at]) - in_hand
    light = setup.lights[0].model_copy(update={"distance_m": float(np.clip(2 * 2 ** (off / 2), 0.6, 40))})
    return solve(setup.model_copy(update={"lights": (light,)}), table).reach("sync")


BODY = {"name": "Cliff 36", "sync_s": 1 / 250, "top_speed_s": 1 / 8000, "dark_edge": "top", "travel_s": 1 / 250}
STUDIO = [unit for unit in SHELF if unit.takes_modifiers and unit.hss]


def setup_of(seed: int) -> Setup:
    """A picture of some kind: a person or a group, one to three lights, figures fixed here and there, a level one."""
    dice = random.Random(seed)
    group = dice.random() < 0.25
    lights: list[dict[str, Any]] = []
    for role in ("key", "fill", "rim")[: dice.choice([1, 1, 2, 3])]:
        light: dict[str, Any] = {
            "role": role,
            "distance_m": dice.choice([1.2, 2.0, 3.0, 5.5] if not group else [5.5, 8.0]),
        }
        light["unit"] = dice.choice(STUDIO).model_dump(mode="json")
        light["target_stops"] = {"key": 0.0, "fill": -2.0, "rim": 0.5}[role]
        bearing = {"key": -40.0, "fill": 20.0, "rim": 140.0}[role]
        light["position"] = {"bearing_deg": dice.choice([bearing, bearing, 0.0]), "height_m": 2.2}
        if dice.random() < 0.15:
            light["dial_stops"] = dice.choice([1.0, 3.0, 5.0])
        lights.append(light)
    document: dict[str, Any] = {
        "ambient": {"condition": dice.choice(["distinct_shadows", "hazy_sun", "open_shade", "office", "dark"])},
        "aim": {"f_number": dice.choice([2.8, 5.6, 8.0]), "background_stops": dice.choice([-2.0, -1.0]),
                "lens": {"focal_mm": dice.choice([35, 85]), "subject_m": 3.0 if not group else 7.0,
                "background_m": 60}},
        "body": BODY, "lights": lights, "filters": [{"name": "ND 3", "stops": 3}] if dice.random() < 0.5 else [],
        "stage": {"kind": "group" if group else "person", "camera_tilt_deg": 0.0, "camera_height_m": 1.5,
                  **({"width_m": dice.choice([2.0, 6.0]), "depth_m": 1.0, "people": 12} if group else {})},
    }  # fmt: skip
    if dice.random() < 0.3:
        document["fixed"] = {"shutter_s": dice.choice([1 / 200, 1 / 320, 1 / 500, 1 / 1000])}
    if dice.random() < 0.2:
        document["motion"] = {"kind": "freeze", "mover": dice.choice(["leap", "thrown"]), "field_width_m": 2.0}
    if dice.random() < 0.2:
        document["method"] = dice.choice(["past_sync", "hss", "stop_down"])
    if dice.random() < 0.3:  # nothing hangs on the key being first
        lights.reverse()
    return Setup.model_validate(document)


def covered(one: Landings, kind: int, counts: list[int], chance: float = 0.9) -> bool:
    """Every light with units of its own, by trying all ways."""
    able = [
        [unit for unit in np.flatnonzero(one.chance[kind, light] >= chance) if taken in (None, unit)]
        for light, taken in enumerate(one.taken)
    ]
    for chosen in itertools.product(*able):
        left = list(counts)
        for light, unit in enumerate(chosen):
            left[unit] -= one.heads[light]
        if min(left) >= 0:
            return True
    return False
