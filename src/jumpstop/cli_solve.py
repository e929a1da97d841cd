"""The command line, what a setup comes to: solve, levels, levers. A person's files in, JSON out."""

import sys
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from .cli_base import ShelfFile, dump, plainly, read_units
from .core.kit.errors import CannotSolve, JumpStopError

if TYPE_CHECKING:
    from .core.plan.change.ranking import Lever
    from .core.plan.light.reach import Solved
    from .words.answer import Answer

app = typer.Typer()


@app.command()
def solve(
    setup: Annotated[Path, typer.Argument(help="A setup document (JSON); - reads standard input.")],
    shelf: Annotated[Path | None, typer.Option(help="A shelf (CSV or JSON); without it, the demo's.")] = None,
    light: Annotated[int, typer.Option(min=0, max=7, help="Which light of the setup, from 0.")] = 0,
    table: Annotated[bool, typer.Option("--table", help="Print a table instead of JSON.")] = False,
) -> None:
    """Solve one setup for every unit of a shelf in every method."""
    from .words.answer import answer_of
    from .words.figures import DisplayUnits

    with plainly():
        solved = _solved(setup, shelf, light)
        answer = answer_of(solved, DisplayUnits(), light)
        (_print_table if table else _print_json)(solved, answer, light)


@app.command()
def say(
    text: Annotated[str, typer.Argument(help="The picture: “85 mm f/2.8, octa at 1.8 m 45 left, background 1 under”.")],
    unit: Annotated[str | None, typer.Option(help="The unit of the first light, by its name.")] = None,
    shelf: Annotated[Path | None, typer.Option(help="A shelf (CSV or JSON); without it, the demo's.")] = None,
) -> None:
    """Say a picture in a line; prints the setup as JSON. What cannot be read, or can be several things, is told."""
    with plainly():
        dump(_said(text, unit, shelf))


def _said(text: str, unit: str | None, shelf: Path | None) -> dict[str, Any]:
    from .core.scene.light import OwnModifier, own_unit
    from .core.scene.setup import OwnBody, OwnFilter, OwnLens
    from .demo import kit
    from .formats.saying import Sayable, read_picture
    from .service.saying import blank_like, said_setup
    from .words.figures import DisplayUnits
    from .words.saying import may_be, needs_place, part_words

    docs, units = kit(), [own_unit(one, None) for one in read_units(shelf)]
    known = Sayable(
        units,
        [OwnModifier.model_validate(doc) for doc in docs["modifiers"]],
        [OwnBody.model_validate(doc) for doc in docs["bodies"]],
        [OwnLens.model_validate(doc) for doc in docs["lenses"]],
        [OwnFilter.model_validate(doc) for doc in docs["filters"]],
    )
    said = read_picture(text, blank_like(None), known)
    if said.unread:
        raise JumpStopError("not_understood", texts=[text[start:end] for start, end in said.unread])
    for one in said.questions:
        words, display = text[one.start : one.end], DisplayUnits()
        means = " or ".join(", ".join(part_words(part, display) for part in option) for option in one.options)
        asks = needs_place(words, bool(one.options)) if one.place else f"{may_be(words)} {means}. Say which."
        raise JumpStopError("said", sentence=asks if not (one.place and one.options) else f"{asks} {means}.")
    setup = said_setup(blank_like(None), said.parts)
    if unit is not None:
        taken = next((one for one in units if one.name.lower() == unit.lower()), None)
        if taken is None:
            raise JumpStopError("unit_not_on_shelf", name=unit)
        first = setup.lights[0].model_copy(update={"unit": taken})
        setup = setup.model_copy(update={"lights": (first, *setup.lights[1:])})
    document: dict[str, Any] = setup.model_dump(mode="json")
    return document


SetupFile = Annotated[Path, typer.Argument(help="A setup document (JSON); - reads standard input.")]
WhichLight = Annotated[int, typer.Option("--light", min=0, max=7, help="Which light of the setup, from 0.")]


@app.command()
def levels(setup: SetupFile, shelf: ShelfFile = None) -> None:
    """What each receiver gets: the ambient, each light at its dial, and all together, as JSON."""
    from .words.answer import answer_of
    from .words.figures import DisplayUnits

    with plainly():
        solved = _solved(setup, shelf, 0)
        answer = answer_of(solved, DisplayUnits())
        stage = answer.stage
        out = {
            "setup": solved.setup.name,
            "method": answer.chosen,
            "ratio": answer.ratio,
            "lights": [] if stage is None else [asdict(light) for light in stage.lights],
            "receivers": [asdict(level) for level in answer.levels],
            "warnings": [asdict(one) for one in answer.warnings],
        }
        dump(out)


@app.command()
def levers(
    setup: SetupFile,
    shelf: ShelfFile = None,
    light: WhichLight = 0,
    unit: Annotated[str, typer.Option(help="Id or name of a unit; without it, the one in hand.")] = "",
    pairs: Annotated[bool, typer.Option("--pairs", help="Pairs of changes too.")] = False,
    whole: Annotated[bool, typer.Option("--whole", help="Of the whole set, not of one light.")] = False,
) -> None:
    """Find a stop: each change with what it brings, what it costs and where it lands, as JSON."""
    from .core.plan.change.levers import levers as levers_of
    from .core.plan.change.moves import Bag
    from .core.plan.change.whole_set import set_levers
    from .core.plan.light import advice
    from .core.scene.light import OwnModifier
    from .demo import kit
    from .words.figures import DisplayUnits
    from .words.levers import said

    with plainly():
        solved = _solved(setup, shelf, light)
        kind = advice.chosen_method(solved, (), light)
        modifiers = [OwnModifier.model_validate(doc | {"id": f"m{i}"}) for i, doc in enumerate(kit()["modifiers"])]
        reach = solved.reach(kind, light)
        place = _unit_named(solved, unit) if unit else advice.unit_for(reach)
        if place is None:
            raise CannotSolve("no_usable_unit")
        bag = Bag(tuple(modifiers))
        if whole:
            units = advice.units_for(solved, kind)
            found = set_levers(solved.setup, kind, solved.table, units, bag, pairs=pairs)
            place = found.unit
        else:
            found = levers_of(solved.setup, light, kind, solved.table, place, bag, pairs=pairs)

        def told(some: "tuple[Lever, ...]") -> list[dict[str, Any]]:
            return [
                {
                    "codes": [move.code for move in one.moves],
                    "light": [found.light + 1 if move.at is None else move.at + 1 for move in one.moves],
                    "says": said(one.moves, DisplayUnits()),
                    "gain": round(one.gain, 4),
                    "spare": round(one.spare, 4),
                    "sd": round(one.sd, 4),
                    "too_bright": round(one.too_bright, 4),
                    "price": {keep: round(one.costs.price(keep), 3) for keep in ("look", "light", "quick")},
                    "costs": {
                        name: None if figure != figure else round(figure, 4)
                        for name, figure in asdict(one.costs).items()
                    },
                }
                for one in sorted(some, key=lambda one: -one.gain)
            ]

        singles, twos = told(found.singles), told(found.pairs)
        dump(
            {
                "setup": solved.setup.name,
                "unit": solved.table.units[place].name,
                "method": kind,
                "spare": round(found.spare, 4),
                "too_bright": round(found.too_bright, 4),
                "singles": singles,
                "unfixing": told(found.unfixing),
            }
            | ({"pairs": twos} if pairs else {})
        )


@app.command()
def burst(
    setup: SetupFile,
    shelf: ShelfFile = None,
    light: WhichLight = 0,
    unit: Annotated[str, typer.Option(help="Id or name of a unit; without it, the one in hand.")] = "",
    fps: Annotated[float, typer.Option(min=0.5, max=120, help="Frames a second.")] = 8.0,
    frames: Annotated[int, typer.Option(min=1, max=200, help="Frames of the burst.")] = 24,
) -> None:
    """Which frames of a burst get flash, at the dial in hand and at full stops below full, as JSON."""
    from .core.plan.light import advice
    from .words.burst import burst_text
    from .words.figures import DisplayUnits

    with plainly():
        solved = _solved(setup, shelf, light)
        reach = solved.reach(advice.chosen_method(solved, (), light), light)
        place = _unit_named(solved, unit) if unit else advice.unit_for(reach)
        if place is None:
            raise CannotSolve("no_usable_unit")
        dump(asdict(burst_text(reach, place, fps, frames, DisplayUnits())))


def _unit_named(solved: "Solved", wanted: str) -> int:
    """Where a unit stands on the shelf, by id or by name. Raises JumpStopError for one unknown or ambiguous."""
    table = solved.table
    places = [at for at, (key, one) in enumerate(zip(table.ids, table.units, strict=True)) if wanted in (key, one.name)]
    if not places:
        raise JumpStopError("no_unit_called", name=wanted)
    own = [at for at in places if at in solved.taken]  # the copy that the setup holds, of a unit on the shelf too
    if len(places) > 1 and own:
        return own[0]
    if len(places) > 1:
        raise JumpStopError("units_called", name=wanted, count=len(places))
    return places[0]


def _solved(setup: Path, shelf: Path | None, light: int) -> "Solved":
    """A setup from a file solved for a shelf from a file. Raises JumpStopError with a sentence."""
    from .core.kit.shelf import Shelf
    from .core.plan.job.worked_out import solved_on
    from .formats.documents import read_setup

    document = read_setup(sys.stdin.buffer.read() if str(setup) == "-" else setup.read_bytes())
    if light >= len(document.lights):
        raise CannotSolve("no_such_light", number=light + 1)
    return solved_on(document, Shelf(read_units(shelf)))


OLD_KEYS = {"rated_output": "take_off", "target": "level"}
"""What version 1 called some effects: `key` stays as it was, `effect` beside it is the code of today."""


def _lanes(solved: "Solved", kind: Any, light: int) -> list[dict[str, Any]]:
    """One method's units in the shelf's order: the columns of each lane as a record, with its chain."""
    from .words.figures import DisplayUnits
    from .words.lanes import lanes_of, steps_of

    units = DisplayUnits()
    reach = solved.reach(kind, light)
    columns = asdict(lanes_of(reach, units))
    out = []
    for at in range(len(solved.table)):
        record = {name: column[at] for name, column in columns.items() if name != "id"}
        steps = [asdict(step) for step in steps_of(reach, at, units)]
        chain = [{"key": OLD_KEYS.get(step["effect"], step["effect"])} | step for step in steps]
        out.append(record | {"p_reach": round(float(reach.p[at]), 3), "chain": chain})
    return out


def _print_json(solved: "Solved", answer: "Answer", light: int) -> None:
    ways = []
    for card, method in zip(answer.methods, solved.methods, strict=True):
        nd = f"ND {method.camera.nd_stops:.3g}" if method.camera.nd_stops else ""  # as version 1 printed it
        camera = asdict(card.camera) | {"nd": nd}
        units = _lanes(solved, card.kind, light) if card.possible else []
        ways.append(asdict(card) | {"camera": camera, "units": units})
    out = {
        "setup": solved.setup.name,
        "headline": answer.headline,
        "verdict": answer.verdict,
        "picture": answer.picture,
        "settings": asdict(answer.settings),
        "chosen": answer.chosen,
        "advised": answer.advised,
        "ambient": asdict(answer.ambient),
        "levels": [asdict(level) for level in answer.levels],
        "ways": ways,
    }
    dump(out)


def _print_table(solved: "Solved", answer: "Answer", light: int) -> None:
    typer.echo(answer.verdict)
    for card in answer.methods:
        camera = card.camera
        typer.echo(f"\n{card.title}: {camera.aperture}  {camera.shutter}  {camera.iso}  {camera.nd}".rstrip())
        if not card.possible:
            typer.echo(f"  not possible: {card.reason}")
            continue
        lanes = _lanes(solved, card.kind, light)
        for at in solved.reach(card.kind, light).best_first():
            lane = lanes[at]
            flashes = "mains" if lane["mains"] else "-" if lane["flashes"] is None else f"{lane['flashes']} a charge"
            typer.echo(
                f"  {lane['name']:24.24} {lane['verdict']:28} ±{lane['sd']:.1f}  {lane['dial']:14} "
                f"{lane['recycle']:10} {flashes}"
            )
