"""Reach: the chain of jumps from what a unit gives to what the picture needs, and what to dial."""

from dataclasses import dataclass

import numpy as np

from . import exposure, modifiers, place, shutter, stamina
from .light import Ambient, ambient_of
from .setup import Light, Setup, WayKind
from .stops import Chain, Jump, Pick, p_reach, spare, spread, verdict
from .table import HSS_TV, SOURCE_KINDS, ZOOMS_MM, Table
from .values import Floats
from .ways import Way, ways_of

AMBIENT_MOST = 6.0  # stops: more help than this from the ambient says only that no flash is needed

CANNOT = (
    "",
    "it has no high-speed sync",
    "it takes no modifiers",
    "it has no zoom head, which this modifier needs",
    "it stands alone: built in or on the camera, no second head",
)


@dataclass(frozen=True, eq=False)
class Reach:
    """What every unit of a shelf does in one way; arrays of shape (units,)."""

    way: Way
    chain: Chain
    spare: Floats  # stops beyond what is needed at full power
    sd: Floats
    p: Floats  # probability that it reaches
    verdict: Floats  # 1 reaches, 0 on the line, -1 short
    below_full: Floats  # dial: stops below full, on the unit's own steps
    left: Floats  # light beyond what is needed at that dial [stops]
    too_bright: Floats  # stops too much even at the lowest setting, else 0
    ready_s: Floats
    flashes: Floats  # per charge at that dial
    packs: Floats
    cannot: np.ndarray  # index into CANNOT

    def best_first(self) -> np.ndarray:
        """Indices of units: those that can, most spare first; then those that cannot."""
        return np.lexsort((-self.spare, self.cannot > 0))


def solve(setup: Setup, table: Table, light: int = 0, only: WayKind | None = None) -> list[Reach]:
    """Every way of one setup (or only one of them) for every unit. Raises ValueError with a plain sentence."""
    if not len(table):
        raise ValueError("The shelf is empty: add a flash unit, or import a list of them.")
    if not 0 <= light < len(setup.lights):
        raise ValueError(f"There is no light number {light + 1} in this setup.")
    ambient = ambient_of(setup.there)
    return [
        reach(setup, table, way, ambient, setup.lights[light])
        for way in ways_of(setup, ambient)
        if only in (None, way.kind)
    ]


def reach(setup: Setup, table: Table, way: Way, ambient: Ambient, light: Light) -> Reach:
    """One way for every unit."""
    chain = chain_of(setup, table, way, ambient, light)
    total = np.broadcast_to(spare(chain), (len(table),)).astype(float)
    sd = np.broadcast_to(spread(chain), (len(table),)).astype(float)
    below, left, too_bright = dialled(total, table.depth, table.step)
    ready, flashes = _stamina(table, np.exp2(-below), setup.source)
    return Reach(
        way=way,
        chain=chain,
        spare=total,
        sd=sd,
        p=p_reach(total, sd),
        verdict=verdict(total, sd),
        below_full=below,
        left=left,
        too_bright=too_bright,
        ready_s=ready,
        flashes=flashes,
        packs=stamina.packs_for(setup.frames, flashes),
        cannot=_cannot(table, way, light),
    )


def chain_of(setup: Setup, table: Table, way: Way, ambient: Ambient, light: Light) -> Chain:
    """The chain of jumps: a new effect of the trade is one more line here."""
    camera = way.camera
    jumps: list[Jump] = [take_off(table, setup.look.f_number)]
    if camera.f_number != setup.look.f_number:
        jumps.append(_aperture(setup.look.f_number, camera.f_number))
    if light.zoom_mm is not None and (light.modifier is None or light.modifier.needs_zoom_head):
        jumps.append(_zoom(table, light.zoom_mm))
    if light.heads > 1:
        jumps.append(_heads(light.heads))
    jumps.append(place.distance_jump(light.distance_m))
    if light.modifier is not None:
        jumps.extend(modifiers.modifier_jumps(light.modifier, light.layers))
        if light.modifier.face is not None:
            jumps.append(place.face_jump(light.modifier.face, light.distance_m))
    if light.gel != "none":
        jumps.append(modifiers.gel_jump(light.gel))
    if camera.iso != 100:
        jumps.append(_iso(camera.iso))
    if way.kind == "hss":
        jumps.append(_hss(table, camera.shutter_s, setup.body.curtain_s))
    if camera.nd_stops:
        jumps.append(_nd(camera.nd_stops, camera.nd_names))
    if light.target_stops:
        jumps.append(_level(light.target_stops))
    if light.role in ("key", "fill"):
        jumps.append(_ambient(ambient, way, light.target_stops))
    return tuple(jumps)


def dialled(spare_stops: Floats, depth: Floats, step: Floats) -> tuple[Floats, Floats, Floats]:
    """(stops below full on the unit's own steps, light left over, stops too bright at the lowest setting)."""
    wanted = np.maximum(spare_stops, 0.0)
    below = np.minimum(np.round(wanted / step) * step, depth)
    left = spare_stops - below
    return below, left, np.where(left > step / 2 + 1e-9, left, 0.0)


def take_off(table: Table, f_number: float) -> Jump:
    """What a unit gives at one metre, at full power, at ISO 100 and the aperture wanted."""
    return Jump(
        "take_off",
        "at 1 m, {aperture:f}",
        table.light - exposure.av(exposure.APERTURES.exact(f_number)),
        table.light_sd,
        "{basis} At one metre and {aperture:f}, at ISO 100 and full power, that is 2 log2(GN / N) stops over a correct "
        "exposure.",
        "P",
        "ISO 1230:2007",
        {"aperture": f_number, "basis": table.light_why},
    )


def _aperture(wanted: float, used: float) -> Jump:
    return Jump(
        "aperture",
        "{used:f}",
        exposure.av(exposure.APERTURES.exact(wanted)) - exposure.av(exposure.APERTURES.exact(used)),
        0.0,
        "This way sets {used:f} where {wanted:f} was asked for: flash and ambient both lose it.",
        "D",
        "APEX (Exif 2.32, Annex C)",
        {"wanted": wanted, "used": used},
    )


def _zoom(table: Table, zoom_mm: float) -> Jump:
    """Gain of a zoom head against 35 mm coverage; heads that do not go so far stop at their end."""
    here = np.clip(zoom_mm, np.where(table.can_zoom, table.zoom_min, 35), np.where(table.can_zoom, table.zoom_max, 35))
    here = np.where(np.isnan(here), np.minimum(zoom_mm, np.nan_to_num(table.zoom_max, nan=35)), here)
    place_ = np.interp(np.log(here), np.log(ZOOMS_MM), np.arange(len(ZOOMS_MM)))
    low = np.minimum(place_.astype(int), len(ZOOMS_MM) - 2)
    share = place_ - low
    rows = np.arange(len(table))
    gain = table.zoom_gain[rows, low] * (1 - share) + table.zoom_gain[rows, low + 1] * share
    sd = table.zoom_sd[rows, low] * (1 - share) + table.zoom_sd[rows, low + 1] * share
    return Jump(
        "zoom",
        "zoom {at:.0f} mm",
        np.where(table.can_zoom, gain, 0.0),
        np.where(table.can_zoom, np.maximum(sd, 0.0), 0.0),
        "Zoomed to {at:.0f} mm against the 35 mm coverage that all are compared at: from the positions quoted, "
        "straight against log(zoom); beyond them estimated from the beam. Without a zoom head: no change.",
        "M",
        "interpolated from the claims; estimate from memory",
        {"at": here},
    )


def _heads(count: int) -> Jump:
    return Jump(
        "heads",
        "{count:.0f} heads",
        float(np.log2(count)),
        0.1,
        "{count:.0f} equal heads on the same spot: + log2({count:.0f}).",
        "D",
        "light adds",
        {"count": count},
    )


def _iso(iso: float) -> Jump:
    return Jump(
        "iso",
        "ISO {iso:.0f}",
        float(np.log2(exposure.ISOS.exact(iso) / 100)),
        0.0,
        "ISO {iso:.0f} against ISO 100: log2(S / 100).",
        "D",
        "APEX (Exif 2.32, Annex C)",
        {"iso": iso},
    )


def _hss(table: Table, shutter_s: float, travel_s: float) -> Jump:
    """HSS: the unit's own table where it has one, else geometry and the unit's extra."""
    geometry = float(shutter.hss_loss(shutter_s, travel_s))
    place_ = float(np.clip((-np.log2(shutter_s) - HSS_TV[0]) * 3, 0, len(HSS_TV) - 1.001))
    low = int(place_)
    listed = table.hss_table[:, low] * (1 - (place_ - low)) + table.hss_table[:, low + 1] * (place_ - low)
    loss = np.where(np.isnan(listed), geometry + table.hss_extra, listed)
    tabled = "By this unit's own HSS table, −{loss:.1f} at {time:shutter}."
    reckoned = (
        "At {time:shutter} the light is spread over the curtains' travel of {travel:shutter} and the opening: "
        "log2((travel + time) / time) = {geometry:.2f} stops, and {extra:.1f} more for the unit itself."
    )
    return Jump(
        "hss",
        "HSS {time:shutter}",
        -loss,
        table.hss_sd,
        "{which}",
        "M",
        "geometry of the slit; the unit's extra from memory until measured",
        {
            "time": shutter_s,
            "travel": travel_s,
            "geometry": geometry,
            "extra": np.nan_to_num(table.hss_extra),
            "loss": np.nan_to_num(loss),
            "which": Pick(np.isnan(listed).astype(int), (tabled, reckoned)),
        },
    )


def _nd(stops: float, names: tuple[str, ...]) -> Jump:
    return Jump(
        "nd",
        "ND {stops:.3g}",
        -stops,
        0.1,
        "{names}: {stops:.3g} stops of neutral density let {share:.1%} through, of flash and ambient alike.",
        "D",
        "ND: 2^−stops",
        {"stops": stops, "names": " + ".join(names) or "ND", "share": float(2**-stops)},
    )


def _level(target: float) -> Jump:
    return Jump(
        "level",
        "level {level:stops}",
        -target,
        0.0,
        "This light is wanted at {level:stops} against a full exposure.",
        "D",
        "the ask",
        {"level": target},
    )


def _ambient(ambient: Ambient, way: Way, target: float) -> Jump:
    """What the light that is there already gives the subject, which the flash need not."""
    level = ambient.subject_ev - way.camera.ev
    helped = float(np.minimum(target - exposure.flash_share(level, target), AMBIENT_MOST))
    enough = "The ambient alone lights the subject fully: flash only adds to it."
    adds = (
        "At these settings the ambient puts the subject at {level:stops}; light adds linearly, so the flash must give "
    )
    return Jump(
        "ambient",
        "ambient",
        helped,
        min(0.5, ambient.sd * 2 ** min(0.0, level - target)),
        enough if helped >= AMBIENT_MOST else adds + "{rest:stops} of the whole.",
        "D",
        "2^flash + 2^ambient = 2^target",
        {"level": level, "rest": target - helped},
    )


def _cannot(table: Table, way: Way, light: Light) -> np.ndarray:
    code = np.zeros(len(table), dtype=int)
    if way.kind == "hss":
        code = np.where(table.has_hss, code, 1)
    if light.modifier is not None:
        code = np.where(table.takes_modifiers, code, 2)
        if light.modifier.needs_zoom_head:
            code = np.where(table.can_zoom | (code > 0), code, 3)
    if light.heads > 1:
        code = np.where(table.takes_modifiers | (code > 0), code, 4)
    return code


def _stamina(table: Table, power: Floats, source: str | None) -> tuple[Floats, Floats]:
    """Seconds until ready again and flashes per charge; from the source asked for where a unit has it."""
    column = table.fitted
    rows = np.arange(len(table))
    if source is not None:
        asked = SOURCE_KINDS.index(source)
        column = np.where(np.isnan(table.recycle_full[:, asked]), column, asked)
    ready = stamina.recycle_s(power, table.recycle_full[rows, column], table.recycle_least[rows, column])
    flashes = stamina.flashes_per_charge(power, table.full_flashes[rows, column])
    known = column >= 0
    return np.where(known, ready, np.nan), np.where(known, flashes, np.nan)
