"""Writes docs/figures.md: every constant of the core, its value, and what it is, as the code beside it says.

What it is stands in the code: behind the constant, as the comment block above it, or as the string below it.
"""

import ast
import importlib
import io
import re
import tokenize
from collections.abc import Iterator
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[1]
CORE = ROOT / "src" / "jumpstop" / "core"
HEAD = """# The figures it rests on

Every constant of the core: what is published, what is common practice, and what is from memory, in one place to be
doubted. Where a figure is your own to know, the shelf, the setup or a reading says it and wins. Written from the code
by `make figures`, and held to it by a test, so that no figure changes in silence. Relations and their sources are in
[physics.md](physics.md).
"""


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


def constants(path: Path) -> Iterator[tuple[str, str]]:
    """The constants of a module, each with what the code says of it."""
    text = path.read_text(encoding="utf-8")
    lines = text.splitlines()
    comments = {
        token.start[0]: token.string.lstrip("# ")
        for token in tokenize.generate_tokens(io.StringIO(text).readline)
        if token.type == tokenize.COMMENT
    }
    body = ast.parse(text).body
    for at, node in enumerate(body):
        if isinstance(node, ast.Assign):
            targets = list(node.targets)
        elif isinstance(node, ast.AnnAssign):
            targets = [node.target]
        else:
            continue
        names = [one for target in targets for one in (target.elts if isinstance(target, ast.Tuple) else [target])]
        after = body[at + 1] if at + 1 < len(body) else None
        said = comments.get(node.end_lineno or node.lineno, "")
        if isinstance(after, ast.Expr) and isinstance(after.value, ast.Constant) and isinstance(after.value.value, str):
            said = after.value.value
        elif not said:
            said = comments.get(node.lineno, "")
        above, block = node.lineno - 1, list[str]()
        while not said and above in comments and lines[above - 1].lstrip().startswith("#"):
            block.insert(0, comments[above])
            above -= 1
        said = re.sub(r"\s+", " ", said or " ".join(block)).replace("fmt: skip", "").strip()
        for one in names:
            if isinstance(one, ast.Name) and one.id.isupper():
                yield one.id, said


def text() -> str:
    """The whole list."""
    out = [HEAD]
    for path in sorted(CORE.rglob("*.py")):
        place = path.relative_to(CORE).with_suffix("")
        loaded = importlib.import_module(".".join(("jumpstop.core", *place.parts)))
        rows = [(name, shown(getattr(loaded, name)), said) for name, said in constants(path)]
        rows = [row for row in rows if row[1]]
        if rows:
            out.append(f"\n## `{place.as_posix()}`\n\n| figure | value | what it is |\n|---|---|---|\n")
            out += [f"| `{name}` | {value} | {said} |\n" for name, value, said in rows]
    return "".join(out)


if __name__ == "__main__":
    (ROOT / "docs" / "figures.md").write_text(text(), encoding="utf-8")
