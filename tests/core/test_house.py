"""The house: imports run one way, the core has no English, and nothing has two homes."""

import ast
import re
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
import pytest

import jumpstop
from jumpstop import core
from jumpstop.store.file import FAULTS

ROOT = Path(jumpstop.__file__ or "").parent
FLOORS = [
    "core/physics",
    "core/kit",
    "core/scene",
    "core/plan",
    "service",
    "standins",
    "words",
    "api",
    "cli_base",
    "cli_solve",
    "cli_job",
    "cli_kit",
    "cli_log",
    "cli_practice",
    "cli",
]
"""Each may import itself and what stands before it."""
BESIDE = {
    "formats": {"core/physics", "core/kit", "core/scene", "core/plan", "words", "formats"},
    "store": {"core/kit", "core/scene", "store"},
    "templates": {"core/scene", "templates"},
    "typical": {"core/kit", "typical"},
    "demo": {"core/kit", "core/scene", "formats", "store", "demo"},
}
GUESTS = {
    "api": {"formats", "store", "templates", "typical"},
    "cli_base": {"formats", "demo"},
    "cli_solve": {"formats", "demo"},
    "cli_job": {"formats", "demo"},
    "cli_kit": {"formats", "typical"},
    "cli_log": {"formats"},
    "cli_practice": {"formats"},
    "cli": {"formats", "store", "demo"},
}
FOREIGN = {"core": {"fastapi", "sqlalchemy", "typer", "os", "pathlib", "time"}, "words": {"fastapi", "sqlalchemy"}}


def floor_of(parts: tuple[str, ...]) -> str:
    return "/".join(parts[:2]) if parts[0] == "core" else parts[0]


def modules() -> Iterator[tuple[Path, tuple[str, ...], ast.Module]]:
    for file in sorted(ROOT.rglob("*.py")):
        parts = file.relative_to(ROOT).with_suffix("").parts
        yield file, parts, ast.parse(file.read_text(encoding="utf-8"))


def test_imports_run_one_way() -> None:
    for file, parts, tree in modules():
        floor = floor_of(parts)
        if (parts[-1] == "__init__" and parts[0] in ("__init__", "core") and len(parts) < 3) or "migrations" in parts:
            continue  # the public face of the core names what stands deeper
        below = FLOORS[: FLOORS.index(floor) + 1] if floor in FLOORS else []
        allowed = set(below) | GUESTS.get(floor, set()) | BESIDE.get(floor, set())
        for node in ast.walk(tree):
            if isinstance(node, ast.ImportFrom) and node.level:
                target = (*parts[: len(parts) - node.level], *(node.module or "").split("."))
                names = [node.module] if node.module else [alias.name for alias in node.names]
                for name in names:
                    path = target if node.module else (*parts[: len(parts) - node.level], str(name))
                    assert floor_of(path) in allowed, f"{file.relative_to(ROOT)} imports {'.'.join(path)}"
            roots = [a.name for a in node.names] if isinstance(node, ast.Import) else []
            roots += [node.module or ""] if isinstance(node, ast.ImportFrom) and not node.level else []
            banned = FOREIGN.get(parts[0], set())
            assert not {root.split(".")[0] for root in roots} & banned, file


ROOMS = ["camera", "light", "stage", "learn", "change", "job", "choice", "need"]
"""Of the plan: each may import itself and those before it; but learning stands apart from stage and change."""
APART = [{"stage", "learn"}, {"learn", "change"}]
MOST_MODULES, MOST_FLOORS = 12, 5


def plan_imports() -> dict[tuple[str, str], set[tuple[str, str]]]:
    """(room, module) of the plan, with those of the plan that each imports."""
    out: dict[tuple[str, str], set[tuple[str, str]]] = {}
    for _, parts, tree in modules():
        if parts[:2] != ("core", "plan") or len(parts) != 4 or parts[-1] == "__init__":
            continue
        found = set()
        for node in ast.walk(tree):
            if isinstance(node, ast.ImportFrom) and node.level in (1, 2) and node.module:
                inside = node.module.split(".")
                found.add((parts[2], inside[0]) if node.level == 1 else (inside[0], inside[-1]))
            elif isinstance(node, ast.ImportFrom) and node.level == 1:
                found |= {(parts[2], alias.name) for alias in node.names}
        out[parts[2], parts[3]] = found
    return out


def test_the_plans_rooms_stand_on_each_other() -> None:
    found = plan_imports()
    assert {room for room, _ in found} == set(ROOMS)
    floors: dict[tuple[str, str], int] = {}

    def floor(key: tuple[str, str]) -> int:
        if key not in floors:
            below = [floor(other) for other in found[key] if other[0] == key[0] and other != key]
            floors[key] = 1 + max(below, default=0)
        return floors[key]

    for key, others in found.items():
        floor(key)
        for room, name in others:
            assert ROOMS.index(room) <= ROOMS.index(key[0]), f"{key} imports {room}.{name}"
            assert {room, key[0]} not in APART, f"{key} imports {room}.{name}"
    for room in ROOMS:
        inside = [key for key in found if key[0] == room]
        assert len(inside) <= MOST_MODULES, f"{room}: {len(inside)} modules"
        assert max(floors[key] for key in inside) <= MOST_FLOORS, room


def test_the_core_has_no_english() -> None:
    """Sentences are made in `words`: in core, formats and store only sources, docstrings and what is read are prose."""
    prose = re.compile(r"[A-Za-z]{2,}[ ,]+[a-z]{2,}[ ,]+[a-z]{2,}")
    for file, parts, tree in modules():
        if parts[0] not in ("core", "formats", "store") or "migrations" in parts:
            continue
        if parts[1] == "saying":  # patterns of what a person types
            continue
        allowed: set[int] = set()
        for node in ast.walk(tree):
            if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
                allowed.add(id(node.value))
            if isinstance(node, ast.keyword) and node.arg in ("description", "json_schema_extra", "source"):
                allowed |= {id(inner) for inner in ast.walk(node.value)}
            titles = [one.arg for one in getattr(node, "keywords", []) if one.arg == "title"]
            assert parts[0] != "core" or not titles, f"{file.relative_to(ROOT)}: a field's title"
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") in ("Jump", "_jump"):
                allowed |= {id(argument) for argument in [*node.args[5:7]]}  # mark and source
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "outside":  # a programmer reads it
                allowed |= {id(argument) for argument in node.args}
            if isinstance(node, ast.Assign) and getattr(node.targets[0], "id", "") == "source":
                allowed.add(id(node.value))
        for node in ast.walk(tree):
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in allowed:
                plain = node.value in FAULTS or node.value.startswith("SELECT ")  # the database's words, and ours to it
                assert plain or not prose.search(node.value), f"{file.relative_to(ROOT)}: {node.value!r}"


def test_what_a_script_may_use_is_there_and_the_example_runs(capsys: pytest.CaptureFixture[str]) -> None:
    """The shelf's guide numbers rise by a tenth: from GN 10 to 109.9, all that lie over one bound reach."""
    assert sorted(name for names in core.HOMES.values() for name in names) == sorted(core.__all__)
    assert all(getattr(core, name) is not None for name in core.__all__)
    with pytest.raises(AttributeError):
        core.__getattr__("nothing")
    text = (ROOT.parents[1] / "docs" / "library.md").read_text(encoding="utf-8")
    found: dict[str, Any] = {}
    exec(text.split("```python\n")[1].split("```")[0], found)
    told = capsys.readouterr().out
    reaches = found["reach"].reaches
    assert f"1000 units, {reaches.sum()} reach" in told
    assert 0 < reaches.sum() < 1000
    assert (np.diff(reaches.astype(int)) >= 0).all()


@pytest.mark.parametrize(("what", "home"), [("3.2808", "core/physics/units.py"), ("43.267", "core/physics/beam.py")])
def test_a_constant_has_one_home(what: str, home: str) -> None:
    web = ROOT.parents[1] / "web" / "src"
    files = [*ROOT.rglob("*.py"), *web.rglob("*.ts"), *web.rglob("*.svelte")]
    found = [str(file) for file in files if what in file.read_text(encoding="utf-8")]
    assert [file[-len(home) :] for file in found] == [home]


def test_a_name_of_a_class_or_of_a_figure_of_the_core_stands_for_one_thing() -> None:
    classes, figures = list[str](), list[str]()
    for _, parts, tree in modules():
        classes += [node.name for node in tree.body if isinstance(node, ast.ClassDef)]
        if parts[0] == "core":
            names = [
                one for node in tree.body if isinstance(node, ast.Assign | ast.AnnAssign) for one in ast.walk(node)
            ]
            figures += [one.id for one in names if isinstance(one, ast.Name) and isinstance(one.ctx, ast.Store)]
    assert [name for name, count in Counter(classes).items() if count > 1] == []
    assert [name for name, count in Counter(figures).items() if count > 1 and name.isupper()] == []


def test_nothing_in_the_core_is_called_by_tests_only() -> None:
    """Every public function of the core is used in the product; two wait."""
    wait = {"spill", "shadow_m"}
    words = Counter(word for file, *_ in modules() for word in re.findall(r"\w+", file.read_text(encoding="utf-8")))
    for file, parts, tree in modules():
        if parts[0] != "core":
            continue
        for node in tree.body:
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_") and node.name not in wait:
                assert words[node.name] > 1, f"{file.relative_to(ROOT)}: {node.name}"
