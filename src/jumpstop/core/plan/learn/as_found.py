"""A setup as it was found on location: what was set is fixed, and each light counts from its newest reading."""

from collections.abc import Sequence

from ...scene.log import LogEntry
from ...scene.setup import Fixed, FixedNd, Setup

KEPT_NAME = 62  # letters kept of a setup's name before the day is added


def as_found(setup: Setup, entries: Sequence[LogEntry]) -> Setup:
    """The setup with its lights, dials and camera as they were at their newest readings, which then stand.

    entries: readings of this setup's lights, oldest first. The name has the day of the newest.
    """
    newest = {entry.seen.light: entry for entry in entries if entry.seen is not None}
    lights, seen = list(setup.lights), []
    for at, entry in sorted(newest.items()):
        one = entry.seen
        if one is None or at >= len(lights):
            continue
        lights[at] = one.was.model_copy(update={"dial_stops": one.dial_stops, "distance_free": False})
        was = one.was.model_copy(update={"dial_stops": None})
        seen.append(one.model_copy(update={"stands": True, "id": f"found-{at}", "was": was}))
    last = entries[-1]
    camera = seen[-1].camera if seen else None
    fixed, aim = setup.fixed, setup.aim
    if camera is not None:
        nd = FixedNd(stops=camera.nd_stops) if camera.nd_stops else None
        fixed = Fixed(aperture=True, iso=True, background=False, shutter_s=camera.shutter_s, nd=nd)
        aim = aim.model_copy(update={"by": "aperture", "f_number": camera.f_number, "iso": camera.iso})
    return setup.model_copy(
        update={
            "name": f"{setup.name[:KEPT_NAME]}, {last.day:%d %b %Y}",
            "lights": tuple(lights),
            "seen": (*setup.seen, *seen)[-60:],
            "method": seen[-1].method if seen else setup.method,
            "fixed": fixed,
            "aim": aim,
        }
    )
