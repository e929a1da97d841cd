"""Saying a picture: the words of the trade with what they mean, and each thing that was said as a short sentence."""

from collections.abc import Callable, Mapping
from typing import Any

from ..core.scene.light import USUAL_TARGETS, Light
from ..core.scene.said import Part
from ..core.scene.setup import Setup
from .figures import DisplayUnits, count, dial, f_number, grouped, iso, length, nd, plain, power, shutter, speed
from .kit import CONDITIONS, GELS, MOVERS, PLACEMENTS, ROLES, SKIES
from .methods import TITLES
from .quantities import level
from .verdict import ratio_words

Meaning = tuple[str, dict[str, Any]]
ALL_SHADE = "open shade all round"  # where the background lies in the shade as well
SUN: dict[str, Any] = {"condition": "distinct_shadows", "keeps_sun": True}


def _all(meaning: Meaning, *phrases: str) -> dict[str, Meaning]:
    return dict.fromkeys(phrases, meaning)


PHRASES: dict[str, Meaning] = (
    _all(("condition", SUN | {"subject": "back"}), "sun behind", "sun from behind", "back to the sun", "backlit",
         "back lit", "against the sun", "into the sun", "contre-jour", "sun behind the subject", "sun at the back",
         *(f"{lead} {whose} {back}" for lead in ("sun at", "sun on", "the sun at") for whose in ("his", "her", "their")
           for back in ("back", "backs")), *(f"sun behind {whom}" for whom in ("him", "her", "them")))
    | _all(("condition", SUN | {"subject": "sun"}), "in the sun", "in full sun", "full sun", "direct sun", "hard sun",
           "sun in front", "facing the sun", "sun on the face", "harsh sun")
    | _all(("condition", SUN | {"subject": "shade"}), "open shade", "in open shade", "in the shade", "in shade",
           "shade of a tree", "shaded", "in the open shade")
    | _all(("condition", SUN | {"subject": "panel"}), "under a panel", "panel overhead", "under a scrim",
           "in the panel's shade", "under the panel")
    | _all(("condition", {"condition": "distinct_shadows", "sky": "clear", "keeps_sun": True}), "sunny", "bright sun",
           "sunshine", "clear sky", "a clear sky", "sun, distinct shadows", "distinct shadows")
    | _all(("condition", {"condition": "hazy_sun", "sky": "partly"}), "hazy sun", "hazy", "soft shadows", "thin cloud",
           "hazy sun, soft shadows", "partly cloudy", "a partly cloudy sky")
    | _all(("condition", {"condition": "cloudy_bright", "sky": "overcast"}), "cloudy", "cloudy bright", "bright cloud",
           "cloudy bright, no shadows", "no shadows")
    | _all(("condition", {"condition": "heavy_overcast", "sky": "overcast"}), "overcast", "heavy overcast", "dull",
           "grey day", "an overcast sky")
    | _all(("condition", {"condition": "sand_or_snow", "keeps_sun": True}), "on snow", "in the snow", "snow",
           "on the beach", "on sand", "sun on sand or snow", "sun on snow")
    | _all(("condition", {"condition": "after_sunset"}), "after sunset", "just after sunset", "dusk", "at dusk",
           "blue hour", "twilight")
    | _all(("condition", {"condition": "open_shade"}), ALL_SHADE, "shade everywhere")
    | _all(("condition", {"condition": "gallery"}), "gallery", "in a gallery", "a gallery", "museum")
    | _all(("condition", {"condition": "office"}), "office", "in an office", "an office", "indoors", "inside",
           "interior")
    | _all(("condition", {"condition": "interior_night"}), "indoors at night", "room at night", "a room at night",
           "living room", "at night indoors", "restaurant")
    | _all(("condition", {"condition": "floodlit"}), "floodlit", "floodlit buildings", "street at night")
    | _all(("condition", {"condition": "dark"}), "dark", "in the dark", "studio", "in the studio", "blackout",
           "lamps off", "dark, all lamps off", "dark room")
    | _all(("orientation", {"orientation": "landscape"}), "landscape", "horizontal")
    | _all(("orientation", {"orientation": "grip_up"}), "upright", "vertical", "portrait format",
           "portrait orientation")
    | _all(("subject", {"kind": "person"}), "portrait", "a portrait", "headshot", "a headshot", "person", "a person",
           "model", "a model", "bride", "one person", "half length", "full length", "waist up", "dancer", "a dancer")
    | _all(("subject", {"kind": "person", "singly": True}), "headshots", "portraits")
    | _all(("group", {"people": 2}), "couple", "a couple", "the couple", "bride and groom", "pair of dancers",
           "two people")
    | _all(("subject", {"kind": "animal"}), "animal", "an animal", "hare", "bird", "dog", "wildlife", "horse", "cat")
    | _all(("subject", {"kind": "object"}), "object", "an object", "product", "a product", "still life", "table top",
           "food", "tabletop")
    | _all(("method", {"kind": "hss"}), "hss", "high-speed sync", "high speed sync", "by hss", "in hss", "with hss")
    | _all(("method", {"kind": "sync"}), "at sync", "at sync speed", "sync speed")
    | _all(("method", {"kind": "nd"}), "nd at sync", "with nd", "by nd")
    | _all(("method", {"kind": "slow"}), "slow sync", "drag the shutter", "dragging the shutter", "dragged shutter")
    | _all(("method", {"kind": "stop_down"}), "stop down", "stopped down")
    | _all(("method", {"kind": "leaf"}), "leaf shutter", "by leaf shutter", "global shutter")
    | _all(("method", {"kind": "past_sync"}), "past sync", "past sync, part dark")
    | _all(("silent", {"on": True}), "silent", "silent shutter")
    | _all(("trigger", {"trigger": "radio"}), "by radio", "radio", "radio trigger")
    | _all(("trigger", {"trigger": "optical"}), "optical", "optical trigger", "optical slaves", "by optical slave")
    | _all(("trigger", {"trigger": "shoe"}), "on the shoe", "on-camera flash", "flash on the camera", "by a cord")
    | _all(("motion", {"kind": "none"}), "nothing moves", "standing still")
    | {f"{lead}{name}": ("motion", {"kind": "freeze", "mover": mover})
       for mover, names in {
           "leap": ("leap", "a leap", "leaping", "somebody leaping", "jump", "a jump", "jumping"),
           "runner": ("runner", "a runner", "running", "somebody running"),
           "walker": ("walker", "a walker", "somebody walking"),
           "dancer": ("dancer", "a dancer", "dancing", "a dancer's hands"),
           "thrown": ("thrown powder", "powder", "thrown", "powder or water thrown", "thrown water"),
           "splash": ("splash", "a splash"),
           "small_bird": ("small bird", "a small bird", "wing tips", "a small bird's wing tips"),
           "ball": ("ball", "a ball", "a ball in play"),
           "fall": ("something falling", "a drop", "falling", "a pour")}.items()
       for name in names for lead in ("freeze ", "frozen ", "freezing ")}
    | _all(("nd", {"stops": 0.0}), "no nd", "no filter", "without a filter")
)  # fmt: skip
"""What is said of the picture, apart from lights; common practice."""

OF_LIGHTS: dict[str, Meaning] = (
    _all(("role", {"role": "key"}), "key", "key light", "main", "main light", "keylight", "the key", "mainlight")
    | _all(("role", {"role": "fill"}), "fill", "fill light", "fill-in", "filled")
    | _all(("role", {"role": "rim"}), "rim", "rim light", "edge", "edge light", "kicker", "hair light", "hairlight",
           "backlight", "rimlight", "separation light")
    | _all(("role", {"role": "background"}), "background light", "backdrop light", "light on the background")
    | _all(("light", {}), "flash", "strobe", "light", "a light", "speedlight", "flash head", "one light")
    | _all(("light", {"that": True}), "the flash", "the light", "the strobe")
    | _all(("modifier", {"modifier": None}), "bare", "bare head", "bare bulb", "no modifier", "direct", "direct flash")
    | _all(("bounce", {"surface": "ceiling"}), "bounce off the ceiling", "bounced off the ceiling",
           "off the ceiling", "ceiling bounce", "bounce", "bounced", "bounce flash", "bouncing off the ceiling",
           *(f"{how} off {which} ceiling"
             for how in ("bounce flash", "bounced flash", "flash bounced", "bouncing flash", "flash",
                         "bounce the flash", "bounce", "bounced")
             for which in ("the", "a", "a white", "the white")))
    | _all(("bounce", {"surface": "left"}), "off the left wall", "bounced off the left wall")
    | _all(("bounce", {"surface": "right"}), "off the right wall", "bounced off the right wall")
    | _all(("off", {"on": False}), "switched off", "off for now")
    | {f"{size}{colour}{tail}": ("gel", {"gel": f"{kind}_{colour}"})
       for size, kind in (("full ", "full"), ("half ", "half"), ("quarter ", "quarter"), ("eighth ", "eighth"))
       for colour in ("orange", "blue", "green") for tail in (" gel", "") if f"{kind}_{colour}" in GELS}
    | {f"{said}{name}": ("gel", {"gel": f"{kind}_{colour}"})
       for said, kind in (("", "full"), ("full ", "full"), ("half ", "half"), ("1/2 ", "half"), ("quarter ", "quarter"),
                          ("1/4 ", "quarter"), ("eighth ", "eighth"), ("1/8 ", "eighth"))
       for name, colour in (("cto", "orange"), ("ctb", "blue")) if f"{kind}_{colour}" in GELS}
    | _all(("gel", {"gel": "none"}), "no gel", "without a gel", "ungelled")
)  # fmt: skip
"""What is said of a light; common practice."""

KINDS: dict[str, tuple[str, ...]] = {
    "octa": ("octa",), "octabox": ("octa",), "umbrella": ("umbrella", "shoot_through"), "brolly": ("umbrella",),
    "shoot-through": ("shoot_through",), "softbox": ("softbox",), "soft box": ("softbox",), "strip": ("strip",),
    "flag": ("flag",), "scrim": ("panel",),
    "stripbox": ("strip",), "beauty dish": ("dish",), "dish": ("dish",), "grid": ("grid",), "dome": ("dome",),
    "reflector": ("reflector",), "extender": ("extender",), "fresnel": ("extender",),
}  # fmt: skip
"""Modifiers by what they are called in general, as kinds of the shelf."""
NOT_LIGHTS = frozenset({"rain", "painting", "wind", "breeze", "cloud", "clouds", "snow", "meter", "stand", "stands"})
"""Words before which "light" is no flash."""
GROUPS = ("team", "group", "family", "party", "choir", "class", "crew", "band", "crowd", "pair", "couple", "guests")
NOUNS = {
    "background": "background", "backdrop": "background", "behind them": "background", "bg": "background",
    "sky": "background", "ambient": "background", "the ambient": "background", "skin": "subject",
    "subject": "subject", "face": "subject", "them": "subject", "camera": "camera", "lens": "camera",
}  # fmt: skip
"""Words after which a distance or a level is of something."""
JOINS = frozenset({
    "at", "with", "the", "a", "an", "on", "in", "of", "through", "from", "and", "to",
    "by", "is", "for", "into", "use", "using", "then", "plus", "it", "as", "set", "his",
    "her", "its", "our", "my", "away", "off", "held", "lit", "shot", "wants", "want", "please",
    "about", "me", "i", "up", "one", "lens", "shoot", "shooting",
    "·", "-", "|", "/", "&",
})  # fmt: skip
"""Words that say nothing by themselves."""

SHOW = 60  # characters of a text that are said back


def _which(part: Part) -> str:
    return "" if part.light is None else f"light {part.light + 1}: "


Saying = Callable[[Mapping[str, Any], DisplayUnits], str]


def _dial(f: Mapping[str, Any], u: DisplayUnits) -> str:
    unit = f.get("unit")
    return power(f["dial_stops"]) if unit is None else dial(unit.scale, f["dial_stops"], u, unit.watt_seconds)


def _bearing(f: Mapping[str, Any], u: DisplayUnits) -> str:
    deg = f["deg"]
    if deg == 0:
        return "from the camera’s side"
    return "from behind" if abs(deg) == 180 else f"{plain(abs(deg))}° to the {'left' if deg < 0 else 'right'}"


def _metered(f: Mapping[str, Any]) -> str:
    if "ev" in f:
        return f"EV {plain(f['ev'])} at ISO 100"
    return ", ".join([f_number(f["f_number"]), shutter(f["shutter_s"]), *([iso(f["iso"])] if f.get("iso") else [])])


def _motion(f: Mapping[str, Any], u: DisplayUnits) -> str:
    if f["kind"] == "none":
        return "nothing that matters moves"
    if f["kind"] == "trails":
        return f"trails of {shutter(f['trail_s'])}"
    return f"freeze {MOVERS[f['mover']]}"


POINTED = {"background": "background", "subject": "lit side", "shade": "open shade"}
TRIGGERS = {"radio": "radio trigger", "optical": "optical trigger", "shoe": "shoe or cord"}
SAYS: dict[str, Saying] = {
    "condition": lambda f, u: ", ".join(
        [*([SKIES[f["sky"]] if f.get("told_sky") else CONDITIONS[f["condition"]]] if not f.get("only_subject") else []),
         *([f"subject: {PLACEMENTS[f['subject']]}"] if f.get("subject") else [])]
    ),
    "placement": lambda f, u: f"subject: {PLACEMENTS[f['subject']]}",
    "clock": lambda f, u: f"at {f['clock']:%H:%M}",
    "at_place": lambda f, u: f"{f['place'].name or 'the place'}, {f['day'].day} {f['day']:%B}, at {f['clock']:%H:%M}",
    "sky": lambda f, u: SKIES[f["sky"]],
    "lux": lambda f, u: f"{grouped(f['lux'])} lx",
    "reading": lambda f, u: f"the {POINTED[f['of']]} by the meter: {_metered(f)}",
    "aperture": lambda f, u: f_number(f["f_number"]),
    "iso": lambda f, u: iso(f["iso"]),
    "shutter": lambda f, u: f"{shutter(f['shutter_s'])}, fixed",
    "nd": lambda f, u: f"ND {nd(f['stops'])}, fixed" if f["stops"] else "no ND",
    "method": lambda f, u: TITLES[f["kind"]],
    "focal": lambda f, u: f"{plain(f['focal_mm'])} mm",
    "subject_distance": lambda f, u: f"subject at {length(f['metres'], u, True)}",
    "background_distance": lambda f, u: f"background at {length(f['metres'], u)} from the camera",
    "background_behind": lambda f, u: f"background {length(f['metres'], u)} behind the subject",
    "background": lambda f, u: f"background {level(f['stops']) if f['stops'] else 'as metered'}",
    "ratio": lambda f, u: f"lighting ratio {ratio_words(f['ratio'])}",
    "orientation": lambda f, u: "landscape" if f["orientation"] == "landscape" else "upright",
    "motion": _motion,
    "silent": lambda f, u: "silent shutter",
    "body": lambda f, u: f"on {f['body'].name}",
    "lens": lambda f, u: f"with {f['lens'].name}",
    "group": lambda f, u: f"a group of {count(f['people'], 'person', 'people')}",
    "rows": lambda f, u: f"in {count(f['rows'], 'row')}",
    "subject": lambda f, u: {"person": "a person", "animal": "an animal", "object": "an object"}[f["kind"]],
    "tall": lambda f, u: f"{length(f['metres'], u, True)} tall",
    "wide": lambda f, u: f"{length(f['metres'], u)} wide",
    "deep": lambda f, u: f"{length(f['metres'], u)} deep",
    "camera_height": lambda f, u: f"camera {length(f['metres'], u, True)} up",
    "ceiling": lambda f, u: f"ceiling at {length(f['metres'], u)}",
    "wind": lambda f, u: f"wind {speed(f['speed'], u)}",
    "frames": lambda f, u: f"{grouped(f['frames'])} frames",
    "trigger": lambda f, u: TRIGGERS[f["trigger"]],
    "light": lambda f, u: "a light",
    "role": lambda f, u: ROLES[f["role"]],
    "unit": lambda f, u: f["unit"].name,
    "modifier": lambda f, u: "bare" if f["modifier"] is None else f"through {f['modifier'].name}",
    "heads": lambda f, u: count(f["heads"], "head"),
    "distance": lambda f, u: f"at {length(f['metres'], u, True)}",
    "bearing": _bearing,
    "height": lambda f, u: f"{length(f['metres'], u, True)} up",
    "dial": _dial,
    "level": lambda f, u: f"level {level(f['stops']) if f['stops'] else 'correct'}",
    "gel": lambda f, u: GELS[f["gel"]],
    "zoom": lambda f, u: f"zoomed to {plain(f['focal_mm'])} mm",
    "off": lambda f, u: "switched off",
}  # fmt: skip
"""Each part as it was understood."""


def part_words(part: Part, units: DisplayUnits) -> str:
    """What was understood of one part."""
    return f"{_which(part)}{SAYS[part.code](part.facts, units)}"


def needs_place(text: str, known: bool = True) -> str:
    """That a time of day wants a place, by which the sun is known. known: whether there is something to take."""
    end = "Take:" if known else "Say them under Light, by the sun."
    return f"“{text[:SHOW]}” needs a place and a day, by which the sun is known. {end}"


def may_be(text: str) -> str:
    """That a text can mean several things."""
    return f"“{text[:SHOW]}” can be:"


def said_again(text: str) -> str:
    """That another figure was said of the same before."""
    return f"“{text[:SHOW]}” is the second one that is said. Take:"


def said_of(setup: Setup, units: DisplayUnits) -> str:
    """A setup as a photographer would say it in a line; what is usual is left out. It can be said back."""
    aim, lens, stage, ambient = setup.aim, setup.aim.lens, setup.stage, setup.ambient
    said: list[str] = []
    if ambient.by == "condition":
        said.append(ALL_SHADE if ambient.condition == "open_shade" else CONDITIONS[ambient.condition])
    elif ambient.by == "sun":
        said += [f"at {ambient.clock:%H:%M}", SKIES[ambient.sky]]
    elif ambient.by == "reading" and len(ambient.readings) == 1 and not ambient.readings[0].needle_stops:
        read = ambient.readings[0]
        said.append(f"{METERED[read.of]} {f_number(read.f_number)} {shutter(read.shutter_s)} {iso(read.iso)}")
    elif ambient.by == "lux" and ambient.lux is not None:
        said.append(f"{ambient.lux:.0f} lx")
    said.append(PLACED[ambient.subject])
    if stage.kind == "group":
        said.append(f"team of {stage.people}, {length(stage.width_m, units, True)} wide"
                    + (f", {length(stage.depth_m, units, True)} deep" if stage.depth_m else ""))  # fmt: skip
    else:
        said.append({"person": "a person", "animal": "an animal", "object": "an object"}[stage.kind])
    said.append(f"{length(stage.height_m, units, True)} tall")
    if lens is not None:
        said.append(f"{plain(lens.focal_mm)} mm, subject at {length(lens.subject_m, units, True)}, "
                    f"background at {length(lens.background_m, units, True)}")  # fmt: skip
    said += [
        f_number(aim.f_number),
        iso(aim.iso),
        f"background {level(aim.background_stops) if aim.background_stops else 'as metered'}",
    ]
    if aim.orientation != "landscape":
        said.append("upright")
    if aim.ratio is not None:
        said.append(f"{plain(aim.ratio)}:1")
    if setup.fixed.shutter_s is not None:
        said.append(shutter(setup.fixed.shutter_s))
    if setup.motion.kind != "none":
        said.append(_motion(setup.motion.model_dump(), units))
    said.append(f"camera {length(stage.camera_height_m, units, True)} up")
    if stage.ceiling_m is not None:
        said.append(f"ceiling at {length(stage.ceiling_m, units, True)}")
    if stage.wind_m_s is not None:
        said.append(f"wind {speed(stage.wind_m_s, units)}")
    said.append(f"{setup.frames} frames")
    said += [_light_words(light, units) for light in setup.lights]
    return ", ".join(said)


METERED = {"background": "meter reads", "subject": "incident", "shade": "shade meter"}
PLACED = {"sun": "in the sun", "back": "sun behind", "shade": "in the shade", "panel": "under a panel"}


def _light_words(light: Light, units: DisplayUnits) -> str:
    said = [ROLES[light.role]]
    if light.unit is not None:
        said.append(light.unit.name)
    said.append("bare" if light.modifier is None else f"through {light.modifier.name}")
    if light.heads > 1:
        said.append(f"{light.heads} heads")
    said.append(f"at {length(light.distance_m, units, True)}")
    if light.position is not None:
        said += [
            _bearing({"deg": light.position.bearing_deg}, units),
            f"{length(light.position.height_m, units, True)} up",
        ]
    if light.target_stops != USUAL_TARGETS[light.role]:
        said.append(level(light.target_stops) if light.target_stops else "level correct")
    if light.gel not in ("none", "own"):
        said.append(GELS[light.gel])
    if light.zoom_mm is not None:
        said.append(f"zoomed to {plain(light.zoom_mm)} mm")
    if light.dial_stops is not None:
        said.append(f"{power(light.dial_stops)} power")
    return " ".join(said)
