"""What kit is called, and what there is to say of each piece in a line."""

from ..core.kit.body import Body
from ..core.kit.filter import Filter
from ..core.kit.gel import Gel
from ..core.kit.lens import LensKit
from ..core.kit.modifier import Modifier, UnitKind
from ..core.kit.power import SupplyKind
from ..core.kit.rating import Basis
from ..core.kit.stand import Stand
from ..core.kit.trigger import Battery, Trigger
from ..core.kit.unit import Claim, Unit
from ..core.physics.guide_number import guide_number_of_stops
from ..core.physics.tone import BLACK_CLOTH, CHROME, DARK_SKIN, GREY, LIGHT_SKIN, MEDIUM_SKIN, POLISHED, WHITE
from ..core.scene.aim import Mover
from ..core.scene.ambient import Condition, Placement, Sky
from ..core.scene.light import Role
from ..core.scene.stage import SubjectKind
from .figures import DisplayUnits, decimal, guide_number, kilograms, plain, share, shutter, stops

CONDITIONS: dict[Condition, str] = {
    "sand_or_snow": "sun on sand or snow",
    "distinct_shadows": "sun, distinct shadows",
    "hazy_sun": "hazy sun, soft shadows",
    "cloudy_bright": "cloudy bright, no shadows",
    "heavy_overcast": "heavy overcast",
    "open_shade": "open shade",
    "after_sunset": "just after sunset",
    "gallery": "a gallery",
    "office": "an office",
    "interior_night": "a room at night",
    "floodlit": "floodlit buildings",
    "dark": "dark, all lamps off",
}
SKIES: dict[Sky, str] = {
    "clear": "a clear sky",
    "partly": "a partly cloudy sky",
    "overcast": "an overcast sky",
}
MOVERS: dict[Mover, str] = {
    "fall": "something falling",
    "walker": "somebody walking",
    "leap": "somebody leaping",
    "runner": "somebody running",
    "dancer": "a dancer's hands",
    "thrown": "powder or water thrown",
    "splash": "a splash",
    "small_bird": "a small bird's wing tips",
    "ball": "a ball in play",
    "other": "something else",
}
GELS: dict[Gel, str] = {
    "none": "no gel",
    "full_orange": "full orange gel",
    "half_orange": "half orange gel",
    "quarter_orange": "quarter orange gel",
    "eighth_orange": "eighth orange gel",
    "full_blue": "full blue gel",
    "half_blue": "half blue gel",
    "quarter_blue": "quarter blue gel",
    "eighth_blue": "eighth blue gel",
    "full_green": "full green gel",
    "half_green": "half green gel",
    "quarter_green": "quarter green gel",
    "own": "a gel of your own",
}


SUPPLIES: dict[SupplyKind, str] = {
    "aa": "AA cells",
    "lithium": "lithium batteries",
    "external": "external packs",
    "mains": "the mains",
}
UNIT_KINDS: dict[UnitKind, str] = {
    "shoe": "shoe flash",
    "pocket": "pocket flash",
    "monobloc": "head with its supply inside",
    "pack": "pack and head",
    "built_in": "built-in flash",
    "ring": "ring flash",
}


def gel_words(name: str) -> str:
    """A gel by its key, or by the name of the person's own."""
    return next((words for gel, words in GELS.items() if gel == name), f"{name} gel")


ROLES: dict[Role, str] = {"key": "key", "fill": "fill", "rim": "rim", "background": "background light"}
SKINS: dict[str, float] = {"light skin": LIGHT_SKIN, "medium skin": MEDIUM_SKIN, "dark skin": DARK_SKIN}
TONES: dict[str, tuple[float, bool]] = {
    "white cloth": (WHITE, False), "grey cloth": (GREY, False), "black cloth": (BLACK_CLOTH, False),
    "polished leather": (POLISHED, True), "chrome": (CHROME, True),
}  # fmt: skip
"""Tones that subjects often have: how much they give back, and whether as a mirror does."""
FACES: dict[SubjectKind, str] = {
    "person": "the face",
    "group": "the face",
    "animal": "the subject",
    "object": "the subject",
}
"""What of a subject the key is for."""
RECEIVER_NAMES = {
    "lit": "lit side",
    "shadow": "shadow side",
    "background": "background",
    "edge": "edge",
    "left": "left end",
    "right": "right end",
    "far": "last row",
}
PLACEMENTS: dict[Placement, str] = {
    "sun": "in the sun",
    "back": "sun behind",
    "shade": "open shade",
    "panel": "panel",
}


def printed(claim: Claim) -> str:
    """A claim as makers print it."""
    place = f", {plain(claim.zoom_mm)} mm" if claim.zoom_mm else ""
    place = f", {plain(claim.coverage_deg)}°" if claim.coverage_deg and not place else place
    place += f", {claim.reflector}" if claim.reflector else ""
    return f"GN {plain(claim.guide_number)} (ISO {plain(claim.iso)}, {claim.unit}{place})"


def all_printed(unit: Unit) -> str:
    """All that a unit is claimed to give, or its energy where nothing else is known."""
    return "; ".join(printed(claim) for claim in unit.claims) or f"{plain(unit.watt_seconds or 0)} Ws"


def rating_words(unit: Unit, rated_stops: float, sd: float, basis: Basis, units: DisplayUnits) -> str:
    """Where a unit's rated output comes from, in a sentence; `rated_stops` is 2 log2 GN at 35 mm."""
    guide = f"{guide_number(float(guide_number_of_stops(rated_stops)), units)} at ISO 100 and 35 mm coverage"
    if basis == "watt_seconds":
        return (
            f"Only {plain(unit.watt_seconds or 0)} Ws is known, which says nothing about the reflector. At 35 lm/W "
            f"into a 65° cone that would be {guide}: rough, ± {decimal(sd, '.1f')} stop."
        )
    if basis == "measured":
        own = next(claim for claim in unit.claims if claim.measured)
        return f"By your own reading ({printed(own)}): {guide}."
    claims = "; ".join(printed(claim) for claim in unit.claims[:3]) + ("; …" if len(unit.claims) > 3 else "")
    if basis == "typical":
        return f"Typical of its class ({claims}), until you know better: {guide}, ± {decimal(sd, '.1f')} stop."
    if basis == "no_coverage":
        return f"Printed as {claims}, not all with their coverage; taken as {guide}, ± {decimal(sd, '.1f')} stop."
    if sd > 0.4:
        return f"Printed as {claims}. Moved from that coverage by its beam: about {guide}, ± {decimal(sd, '.1f')} stop."
    return f"Printed as {claims}: {guide}."


def modifier_line(modifier: Modifier) -> str:
    """A modifier's own effect and its layers."""
    layers = [f"{layer.name} {stops(layer.stops)}" for layer in modifier.layers]
    typical = ["typical figures"] if modifier.typical else []
    return " · ".join([f"{stops(modifier.stops)} ± {plain(modifier.sd)}", *layers, *typical])


def trigger_line(link: Trigger) -> str:
    """What a trigger passes, and between which shoes."""
    shoes = " to ".join(one for one in (link.from_shoe, link.to_shoe) if one)
    passed = ", ".join("HSS" if one == "hss" else one for one in link.passes) or "nothing"
    return " · ".join(part for part in (link.kind, f"passes {passed}", f"shoe {shoes}" if shoes else "") if part)


def battery_line(one: Battery) -> str:
    """What a battery fits, and what it still holds."""
    return f"for {one.fits} · holds {share(one.holds)} of new"


def stand_line(one: Stand) -> str:
    """How high something holds a light, how far out, and how much it bears."""
    high = f"to {decimal(one.height_m, '.2g')} m" if one.height_m else ""
    out = f"arm {decimal(one.reach_m, '.2g')} m" if one.reach_m else ""
    weight = "" if one.weight_g is None else kilograms(one.weight_g)
    return " · ".join(part for part in (one.kind, high, out, f"bears {plain(one.load_kg)} kg", weight) if part)


def lens_line(lens: LensKit) -> str:
    """How far a lens opens and closes, and what steadies it."""
    focal = (
        f"{plain(lens.focal_mm)} to {plain(lens.focal_most_mm)} mm"
        if lens.focal_most_mm
        else f"{plain(lens.focal_mm)} mm"
    )
    opens = f"f/{plain(lens.widest)} to f/{plain(lens.widest_most)}" if lens.widest_most else f"f/{plain(lens.widest)}"
    steady = f"stabiliser {stops(lens.stabiliser_stops)}" if lens.stabiliser_stops else ""
    return " · ".join(
        part for part in (focal, f"opens to {opens}", f"closes to f/{plain(lens.smallest)}", steady) if part
    )


def filter_line(nd: Filter) -> str:
    """What a filter takes."""
    return f"{plain(nd.stops)} to {plain(nd.most_stops)} stops" if nd.most_stops else f"{plain(nd.stops)} stops"


def body_line(body: Body) -> str:
    """What flash needs to know of a body."""
    said = [
        f"{body.shutter.replace('_', ' ')}, syncs at {shutter(body.sync_s)}",
        f"by radio {shutter(body.radio_sync_s)}" if body.radio_sync_s else "",
        f"top speed {shutter(body.top_speed_s)}",
        "HSS" if body.hss else "no HSS",
    ]
    if body.shutter == "focal_plane":
        said.append("dark edge not tried" if body.dark_edge == "unknown" else f"dark at the {body.dark_edge} past sync")
    return " · ".join(part for part in said if part)
