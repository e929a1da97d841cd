"""Warnings: what goes wrong on the day, named before it does, and only where it can happen."""

from ...kit.table import SD_HSS_DEFAULT
from ...physics.colour import FLASH_K, mired_shift
from ...physics.light_values import LIGHT_VALUES
from ...scene.seen import MethodKind
from ..camera import look
from ..camera.remark import Remark, remark
from ..light.advice import stillness
from ..light.reach import REACHES, Solved

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
        found.append(remark("hss_not_armed"))
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
    if method.camera.nd_stops >= DARK_FINDER_STOPS:
        found.append(remark("dark_finder"))
    return found


def _hss_left_on(solved: Solved, chosen: MethodKind, unit: int, light: int) -> list[Remark]:
    """HSS left armed at a synced time: it matters where the unit would no longer reach, or the pulse must be short."""
    body, table = solved.setup.body, solved.table
    if body.shutter != "focal_plane" or not body.hss or not table.has_hss[unit] or chosen == "past_sync":
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
