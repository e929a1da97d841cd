"""The figures that the core rests on are those that docs/figures.md lists, and the list leaves none out."""

import ast
import importlib
import re
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[2]
CORE = ROOT / "src" / "jumpstop" / "core"


def shown(value: Any) -> str:
    """A figure as the list has it; "" for what is no figure, or no set of them."""
    if isinstance(value, int | float) and not isinstance(value, bool):
        return f"{value:.12g}"
    if isinstance(value, tuple):
        parts = [shown(one) for one in value]
        return "" if "" in parts else f"({', '.join(parts)})"
    if isinstance(value, dict):
        pairs = {str(key): shown(one) for key, one in value.items()}
        return "" if "" in pairs.values() else "; ".join(f"{key}: {one}" for key, one in pairs.items())
    return ""


def names_of(path: Path) -> list[str]:
    """The constants of a module."""
    targets: list[ast.expr] = []
    for node in ast.parse(path.read_text(encoding="utf-8")).body:
        targets += (
            node.targets if isinstance(node, ast.Assign) else [node.target] if isinstance(node, ast.AnnAssign) else []
        )
    names = [one for target in targets for one in (target.elts if isinstance(target, ast.Tuple) else [target])]
    return [one.id for one in names if isinstance(one, ast.Name) and one.id.isupper()]


def test_every_figure_is_listed_as_it_is() -> None:
    listed: dict[tuple[str, str], str] = {}
    module = ""
    for line in (ROOT / "docs" / "figures.md").read_text(encoding="utf-8").splitlines():
        if line.startswith("## "):
            module = line.removeprefix("## ").strip("`")
        elif found := re.match(r"\| `([A-Z0-9_]+)` \| (.+?) \|", line):
            listed[module, found[1]] = found[2]
    known: dict[tuple[str, str], str] = {}
    for path in sorted(CORE.rglob("*.py")):
        place = path.relative_to(CORE).with_suffix("")
        loaded = importlib.import_module(".".join(("jumpstop.core", *place.parts)))
        for name in names_of(path):
            if figure := shown(getattr(loaded, name)):
                known[place.as_posix(), name] = figure
    assert known == listed
    assert len(known) > 200
