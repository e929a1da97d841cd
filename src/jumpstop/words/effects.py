"""What each effect on the light is called on the chart, and why it is as large as it is.

One sentence an effect. Text that came from a person is put in as it is, once, and is never a template.
"""

from collections.abc import Callable
from typing import NamedTuple

from ..core.kit.memo import remembered
from ..core.kit.table import UnitTable
from ..core.physics.beam import REFERENCE_ZOOM_MM
from ..core.physics.sides import THING_TURN_DEG, TURN_DEG
from ..core.plan.light.jump import JumpAt
from ..core.scene.stage import SubjectKind
from .figures import DisplayUnits, amount, decimal, f_number, iso, length, nd, power, share, shutter, stops
from .kit import gel_words, rating_words


class JumpWords(NamedTuple):
    """The name of a jump on the chart, and its reason in a sentence."""

    cause: str
    why: str


class Context(NamedTuple):
    """What a sentence may look up beside the jump's own facts."""

    table: UnitTable
    unit: int
    units: DisplayUnits
    subject: SubjectKind = "person"


def say(jump: JumpAt, context: Context) -> JumpWords:
    """The words of one jump of one unit."""
    return SENTENCES[jump.effect](jump, context)


def _rated_output(facts: JumpAt, at: Context) -> JumpWords:
    aperture = f_number(facts["f_number"])
    return JumpWords(
        f"at {length(1, at.units)}, {aperture}",
        f"{_basis(at.table, at.unit, at.units)} At one metre and {aperture}, at ISO 100 and full power, that is "
        "2 log2(GN / N) stops over a "
        "correct exposure.",
    )


@remembered(64)
def _basis(table: UnitTable, unit: int, units: DisplayUnits) -> str:
    figures = float(table.rated[unit]), float(table.rated_sd[unit]), table.basis[unit]
    return rating_words(table.units[unit], *figures, units)


def _zoom(facts: JumpAt, at: Context) -> JumpWords:
    zoom = f"{facts['zoom_mm']:.0f} mm"
    return JumpWords(
        f"zoom {zoom}",
        f"Zoomed to {zoom} against the {REFERENCE_ZOOM_MM:.0f} mm coverage that all are compared at: from the "
        "positions quoted, straight against log(zoom); beyond them estimated from the beam. No zoom head: no change.",
    )


TICKS = {"wide_panel": "wide panel"}
"""What effects that are ticks are called where hands switch them."""


def _wide_panel(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        "wide panel",
        "The panel over the head, at its widest, spreads the light as wide as a lens of 14 mm sees: as much light on a "
        "larger frame. A head without zoom has none: no change.",
    )


def _heads(facts: JumpAt, at: Context) -> JumpWords:
    heads = f"{facts['count']:.0f}"
    return JumpWords(f"{heads} heads", f"{heads} equal heads on the same spot: + log2({heads}).")


def _pops(facts: JumpAt, at: Context) -> JumpWords:
    count = f"{facts['count']:.0f}"
    return JumpWords(
        f"{count} flashes", f"{count} flashes while the shutter is open: + log2({count}) where nothing moves."
    )


def _distance(facts: JumpAt, at: Context) -> JumpWords:
    metres = length(facts["metres"], at.units)
    return JumpWords(
        metres,
        f"Inverse square: −2 log2(distance in metres), from one metre out to {metres}. "
        "The ± stands for a distance paced out rather than taped.",
    )


def _modifier(facts: JumpAt, at: Context) -> JumpWords:
    name = facts["name"]
    return JumpWords(
        name,
        f"{name} against the unit's own reflector at 35 mm coverage. "
        + (
            "A typical figure of its class, until you put a better one in its place."
            if facts["typical"]
            else "Every figure here can be replaced by your own."
        ),
    )


def _layer(facts: JumpAt, at: Context) -> JumpWords:
    name = facts["layer"]
    if facts.mark == "U":
        return JumpWords(name, "Measured by you.")
    return JumpWords(name, f"{name}: it comes off. A layer of diffusion costs about a stop.")


def _adapter(facts: JumpAt, at: Context) -> JumpWords:
    mount = at.table.units[at.unit].mount
    return JumpWords(
        "adapter", f"An adapter for the {mount} mount holds the flash further back, and some of it is lost."
    )


SURFACES = {"ceiling": "ceiling", "left": "left wall", "right": "right wall"}


def _bounce(facts: JumpAt, at: Context) -> JumpWords:
    path = length(facts["path_m"], at.units)
    surface = SURFACES[facts["off"]]
    return JumpWords(
        f"over the {surface}, {path}",
        f"Off the {surface} the light goes {path}, as if from the flash's mirror image in it; what the {surface} "
        "itself takes is counted with it.",
    )


def _card(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        "bounce card",
        f"{share(facts['share'])} of the light goes straight to the subject, not over the ceiling: it fills the eyes, "
        "and matters most under a dark ceiling.",
    )


def _off_axis(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        "head turned off",
        "The head does not point here: a beam loses (2 × angle / beam)² stops off its axis, a bright face its cosine.",
    )


def _side(facts: JumpAt, at: Context) -> JumpWords:
    bearing, thing = f"{facts['bearing']:.0f}°", at.subject == "object"
    turn, what = (THING_TURN_DEG, "a thing") if thing else (TURN_DEG, "a face")
    return JumpWords(
        f"from {bearing}",
        f"From {bearing} beside the camera's axis this side has only a share of the light: the nearer side of {what} "
        f"all of it up to {turn:.0f}° off its own axis, then less and less; the farther one less from the middle on.",
    )


def _face(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        "big face, close",
        f"At {length(facts['metres'], at.units)} a face {length(facts['width_m'], at.units)} wide is not a point "
        "source: light from its edge comes from farther off and at a slant, so less arrives than inverse square says. "
        "Under 1 % from five times its diameter or diagonal on.",
    )


def _gel(facts: JumpAt, at: Context) -> JumpWords:
    gel = gel_words(facts["gel"])
    return JumpWords(gel, f"{gel.capitalize()} lets {share(facts['share'])} of the light through.")


def _aperture(facts: JumpAt, at: Context) -> JumpWords:
    used, asked = f_number(facts["used"]), f_number(facts["asked"])
    return JumpWords(used, f"This method sets {used} where {asked} was asked for: flash and ambient both change by it.")


def _iso(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(iso(facts["iso"]), f"{iso(facts['iso'])} against ISO 100: log2(S / 100).")


def _nd(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        f"ND {decimal(facts['stops'], '.3g')}",
        f"{facts['name'] or 'Neutral density'}, {nd(facts['stops'])}, lets {share(facts['share'], 1)} through, of "
        "flash and ambient alike.",
    )


def _hss(facts: JumpAt, at: Context) -> JumpWords:
    time = shutter(facts["shutter_s"])
    geometry = (
        f"At {time} the light is spread over the curtains' travel of {shutter(facts['travel_s'])} and the opening: "
        f"log2((travel + time) / time) = {decimal(facts['geometry'], '.2f')} stops"
    )
    extra = amount(facts["extra"], 2)
    if not facts["tabled"]:
        return JumpWords(f"HSS {time}", f"{geometry}, and {extra} more for the unit itself.")
    taken = at.table.units[at.unit].hss
    travel = shutter(taken.travel_s) if taken else ""
    return JumpWords(
        f"HSS {time}",
        f"{geometry}, and {extra} more by this unit's own HSS table, taken on a body with a travel of {travel}.",
    )


def _freeze(facts: JumpAt, at: Context) -> JumpWords:
    needed = f"The flash must last no longer than {shutter(facts['needed_s'])} (t.1)"
    if not facts["known"]:
        why = f"{needed}; this unit's flash durations are not known."
    elif not facts["can"]:
        why = f"{needed}, and no setting of this unit does."
    elif facts["least"] > 0:
        why = f"{needed}. By its own table this unit does so at {power(facts['least'])} and below, not above."
    else:
        why = f"{needed}, which this unit does even at full power."
    return JumpWords("short enough", why)


def _tail(facts: JumpAt, at: Context) -> JumpWords:
    time = shutter(facts["shutter_s"])
    if not facts["known"]:
        why = f"This unit's flash duration is not known; at {time} a slow one would lose some of its tail."
    else:
        why = (
            f"At full power this unit's flash lasts {shutter(facts['t01_s'])} (t.1); at {time} the middle of the frame "
            f"sees {shutter(facts['window_s'])} of it, and so {share(facts['share'])} of its light."
        )
    return JumpWords("tail clipped", why)


def _reading(facts: JumpAt, at: Context) -> JumpWords:
    return JumpWords(
        "your reading",
        f"Your reading puts the flash at {stops(facts['level'])} where it was taken; this is how far that lies from "
        "what the chain came to. What has not changed since has no uncertainty but the reading's.",
    )


def _target(facts: JumpAt, at: Context) -> JumpWords:
    wanted = stops(facts["target"])
    return JumpWords(f"wanted at {wanted}", f"This light is wanted at {wanted} against a correct exposure.")


def _ambient(facts: JumpAt, at: Context) -> JumpWords:
    if facts["enough"]:
        return JumpWords("ambient", "The ambient alone lights the subject fully: flash only adds to it.")
    return JumpWords(
        "ambient",
        f"At these settings the ambient puts the subject at {stops(facts['level'])}; light adds linearly, so the flash "
        f"must give {stops(facts['rest'])} of the whole.",
    )


SENTENCES: dict[str, Callable[[JumpAt, Context], JumpWords]] = {
    "rated_output": _rated_output,
    "zoom": _zoom,
    "wide_panel": _wide_panel,
    "heads": _heads,
    "pops": _pops,
    "distance": _distance,
    "modifier": _modifier,
    "layer": _layer,
    "adapter": _adapter,
    "bounce": _bounce,
    "card": _card,
    "face": _face,
    "off_axis": _off_axis,
    "side": _side,
    "gel": _gel,
    "aperture": _aperture,
    "iso": _iso,
    "nd": _nd,
    "hss": _hss,
    "freeze": _freeze,
    "tail": _tail,
    "reading": _reading,
    "target": _target,
    "ambient": _ambient,
}
