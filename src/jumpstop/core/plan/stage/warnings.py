"""Warnings: what goes wrong on the day, named before it does, and only where it can happen."""

from collections.abc import Iterator

from ...kit.table import SD_HSS_DEFAULT
from ...physics.colour import FLASH_K, mired_shift
from ...physics.light_values import LIGHT_VALUES
from ...physics.optics import coc_mm
from ...physics.scales import SHUTTERS
from ...scene.seen import MethodKind
from ..camera import look
from ..camera.remark import Remark, remark
from ..light.advice import stillness
from ..light.reach import REACHES, Solved

A_WORD = 2**-0.5  # of the circle of confusion: an Airy disc a stop before it, worth a word; common practice
NEAR_ENOUGH = 1.1  # times the slowest time by hand that still pass: a marked time is no finer
DARK_FINDER_STOPS = 5.0  # ND from which a finder is too dark to focus by, common practice


def warnings_of(solved: Solved, chosen: MethodKind, unit: int | None, light: int) -> list[Remark]:
    """The warnings of this setup in the method chosen, for the unit it is compared by; the gravest first."""
    setup, body, method = solved.setup, solved.setup.body, solved.method(chosen)
    found: list[Remark] = []
    if not method.possible:
        return found
    still = stillness(solved, method)
    if still is not None and still.by == "nothing":
        found.append(remark("ghost", level=solved.ambient.lit_ev - method.camera.ev))
    found += _colour(solved, chosen, light)
    if chosen == "hss":
        blur = look.blur_of(setup, method.camera.f_number)
        if blur is not None and blur.verdict == "none" and setup.motion.kind != "freeze":
            found.append(remark("no_blur", share=blur.share))
        found.append(remark("hss_by_itself") if _by_itself(solved, unit) else remark("hss_not_armed"))
    elif unit is not None:
        found += _hss_left_on(solved, chosen, unit, light)
    if setup.aim.background_stops < 0 and not setup.fixed.iso:
        found.append(remark("auto_iso"))
    if setup.trigger == "radio" and body.radio_sync_s and body.radio_sync_s > body.sync_s:
        found.append(remark("radio_sync", radio_s=body.radio_sync_s, sync_s=body.sync_s))
    if setup.silent and body.silent_sync_s:
        found.append(remark("silent_sync", sync_s=body.silent_sync_s))
    if not body.iso_min <= setup.aim.iso <= body.iso_max:
        found.append(remark("iso_out_of_range", asked=setup.aim.iso, used=method.camera.iso))
    found += [*_shaken(solved, chosen), *_diffracted(solved, chosen)]
    if method.kind == "nd" and look.no_filter(setup):
        found.append(remark("filter_on_long_lens"))
    if method.camera.nd_stops >= DARK_FINDER_STOPS:
        found.append(remark("dark_finder"))
    return found


def _shaken(solved: Solved, chosen: MethodKind) -> Iterator[Remark]:
    """A time that cannot be held by hand, where the ambient draws something of the picture."""
    setup, camera = solved.setup, solved.method(chosen).camera
    slowest, lens = look.by_hand_s(setup), setup.aim.lens
    open_s = float(SHUTTERS.exact(camera.shutter_s))
    seen = max(solved.ambient.background_ev, solved.ambient.lit_ev) - camera.ev > look.NOTHING_SEEN_STOPS
    if slowest is not None and lens is not None and seen and open_s > slowest * NEAR_ENOUGH:
        yield remark("shake", shutter_s=camera.shutter_s, slowest_s=slowest, focal_mm=lens.focal_mm,
                     steadied=setup.steadied_stops)  # fmt: skip


def _diffracted(solved: Solved, chosen: MethodKind) -> Iterator[Remark]:
    """An aperture within a stop of where the Airy disc is as large as the circle of confusion, or beyond."""
    setup, f_number = solved.setup, solved.method(chosen).camera.f_number
    times = look.spread(setup, f_number)
    if times >= A_WORD:
        coc = coc_mm(setup.body.diagonal_mm)
        yield remark("diffraction", f_number=f_number, airy_mm=times * coc, coc_mm=coc, everywhere=times >= 1)


def _by_itself(solved: Solved, unit: int | None) -> bool:
    """Whether a unit goes into HSS, and out of it, as the shutter passes sync."""
    hss = None if unit is None else solved.table.units[unit].hss
    return hss is not None and hss.by_itself


def _hss_left_on(solved: Solved, chosen: MethodKind, unit: int, light: int) -> list[Remark]:
    """HSS left armed at a synced time: it matters where the unit would no longer reach, or the pulse must be short."""
    body, table = solved.setup.body, solved.table
    if body.shutter != "focal_plane" or not body.hss or not table.has_hss[unit] or chosen == "past_sync":
        return []
    if _by_itself(solved, unit):
        return []
    time = solved.method(chosen).camera.shutter_s
    loss = float(table.hss_loss_at(time, body.curtain_s)[unit])
    reach = solved.reach(chosen, light)
    falls_short = reach.verdict[unit] == REACHES and reach.spare[unit] - loss < SD_HSS_DEFAULT
    if falls_short or chosen == "freeze":
        return [remark("hss_left_on", loss=loss, freezing=chosen == "freeze")]
    return []


def _colour(solved: Solved, chosen: MethodKind, light: int) -> list[Remark]:
    spec = solved.setup.ambient
    gelled = any(one.on and one.gel != "none" and one.gel_for == "match" for one in solved.setup.lights)
    lamp_lit = spec.by == "condition" and LIGHT_VALUES[spec.condition].lamps
    if gelled or not spec.lamps_on or chosen == "freeze" or not (spec.lamps_lux or lamp_lit):
        return []
    return [remark("mixed_colour", kelvin=spec.lamps_k, mired=float(mired_shift(FLASH_K, spec.lamps_k)))]
