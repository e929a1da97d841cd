"""Small changes to the core, one at a time, each run against its tests: `make mutants`.

A seeded sample of all mutants that the package cosmic-ray can make of `src/jumpstop/core` (SAMPLE, 160 unless said):
places are drawn first, then one of the changes possible there, so that no kind of change outweighs the others. Left
out are type annotations, which nothing runs; decorators (frozen, caches) and the strictness of zip, which change no
figure; and comparisons turned into identity (is, is not), which on numbers is nobody's mistake. Each mutant is tested
in a process of its own, forked from one that has the libraries loaded already. It ends after four times as long as the
unchanged tests take. Survivors are printed with their line; docs/mutants.md says why each may live. ONLY=plan/learning
draws from the modules of whose path that is a part.
"""

import ast
import importlib.machinery
import os
import random
import signal
import sys
import time
from collections import defaultdict
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, NamedTuple

import hypothesis
import numpy
import pandas
import pvlib
import pydantic
import pytest
import scipy.integrate
import scipy.special
from cosmic_ray.ast import ast_nodes, get_ast
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator, operator_names

LOADED = (hypothesis, numpy, pandas, pvlib, pydantic, scipy)  # once, for all the processes forked from this one
ROOT = Path(__file__).parent.parent
CORE = ROOT / "src" / "jumpstop" / "core"
SLOW = ("test_learning", "test_next_reading", "test_levers")  # last, as most mutants are noticed by something quicker
TESTS = sorted(
    (file for part in ("core", "words") for file in (ROOT / "tests" / part).glob("test_*.py")),
    key=lambda file: (file.stem in SLOW, file),
)
SEED, FLOOR, LEAST_S, TIMES = int(os.environ.get("SEED", "20261126")), 0.9, 60.0, 4
TOO_LONG = -1
ONLY = os.environ.get("ONLY", "")
SAMPLE = int(os.environ.get("SAMPLE", "160"))
NOT_MEANT = ("NoOp", "RemoveDecorator", "_Is", "_IsNot")
ALIASES = ("Figure", "Floats", "Burn", "Line", "Facts")  # names of types


class Mutant(NamedTuple):
    """One change: the file, the place (line, column), the operator and its how-many-th application."""

    path: Path
    place: tuple[int, int]
    operator: str
    occurrence: int


def left_out(source: str) -> list[tuple[tuple[int, int], tuple[int, int]]]:
    """Where type annotations, decorators and the strictness of zip stand: (start, end) as (line, column)."""
    found: list[ast.expr | None] = []
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.arg | ast.AnnAssign):
            found.append(node.annotation)
        elif isinstance(node, ast.FunctionDef | ast.ClassDef):
            found += [*node.decorator_list, getattr(node, "returns", None)]
        elif isinstance(node, ast.keyword):
            found.append(node.value if node.arg == "strict" else None)
        elif isinstance(node, ast.Assign) and getattr(node.targets[0], "id", "") in ALIASES:
            found.append(node.value)
    return [((n.lineno, n.col_offset), (n.end_lineno or 0, n.end_col_offset or 0)) for n in found if n is not None]


def all_mutants() -> list[Mutant]:
    """Every change that runs, in every module of the core."""
    out = []
    for path in sorted(path for path in CORE.rglob("*.py") if ONLY in str(path.relative_to(CORE))):
        source = path.read_text(encoding="utf-8")
        typed = left_out(source)
        nodes = list(ast_nodes(get_ast(source)))
        for name in operator_names():
            operator_class = get_operator(name)
            if operator_class.arguments() or name.endswith(NOT_MEANT):
                continue
            operator, occurrence = operator_class(), 0
            for node in nodes:
                for start, _ in operator.mutation_positions(node):
                    if not any(low <= start < high for low, high in typed):
                        out.append(Mutant(path, start, name, occurrence))
                    occurrence += 1
    return out


def sample(mutants: list[Mutant], size: int) -> list[Mutant]:
    """So many of them: places first, then one change at each."""
    places: dict[tuple[Path, tuple[int, int]], list[Mutant]] = defaultdict(list)
    for mutant in mutants:
        places[mutant.path, mutant.place].append(mutant)
    dice = random.Random(SEED)
    drawn = sorted(places)
    dice.shuffle(drawn)  # so that a smaller sample is the beginning of a larger one
    return [dice.choice(places[place]) for place in drawn[:size]]


def code_of(mutant: Mutant) -> str | None:
    """The module with the change in it."""
    source = mutant.path.read_text(encoding="utf-8")
    return mutate_code(source, get_operator(mutant.operator)(), mutant.occurrence)


def tested(path: Path, code: str, seconds: float) -> int:
    """Run the tests with this code in place of the module's own, in a process of its own, its namesake first; its exit
    status, or TOO_LONG."""
    child = os.fork()
    if child:
        return _waited(child, seconds)
    silence = os.open(os.devnull, os.O_WRONLY)
    os.dup2(silence, 1)
    os.dup2(silence, 2)
    get_code = importlib.machinery.SourceFileLoader.get_code

    def changed(loader: Any, name: str) -> Any:
        if Path(loader.path) == path:
            return compile(code, str(path), "exec")
        return get_code(loader, name)

    importlib.machinery.SourceFileLoader.get_code = changed  # type: ignore[method-assign]
    files = sorted(
        (file for file in TESTS if file.stem != "test_house"), key=lambda file: file.stem != f"test_{path.stem}"
    )
    words = ["-x", "-q", "-p", "no:cacheprovider", f"--rootdir={ROOT}", *map(str, files)]
    os._exit(int(pytest.main(words)))


def _waited(child: int, seconds: float) -> int:
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        done, status = os.waitpid(child, os.WNOHANG)
        if done:
            return os.waitstatus_to_exitcode(status)
        time.sleep(0.05)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    return TOO_LONG


def status_of(mutant: Mutant, seconds: float) -> int:
    """0 where the tests pass with the change in place: it is not noticed. Else some fail, cannot run, or never end."""
    code = code_of(mutant)
    return 1 if code is None else tested(mutant.path, code, seconds)


def shown(mutant: Mutant) -> str:
    """A survivor: where it is, and the line before and after."""
    before = mutant.path.read_text(encoding="utf-8").splitlines()
    after = (code_of(mutant) or "").splitlines()
    first = next((i for i, (a, b) in enumerate(zip(before, after, strict=False)) if a != b), len(before) - 1)
    where = f"{mutant.path.relative_to(ROOT)}:{first + 1}"
    return (
        f"{where}  {mutant.operator.removeprefix('core/')}\n    - {before[first].strip()}\n    + {after[first].strip()}"
    )


def main() -> int:
    """Sample, test, report; 1 where fewer are noticed than the floor asks."""
    os.chdir(ROOT)
    sys.dont_write_bytecode = True
    start = time.monotonic()
    everything = all_mutants()
    chosen = sample(everything, SAMPLE)
    first, began = chosen[0].path, time.monotonic()
    if tested(first, first.read_text(encoding="utf-8"), 600) != 0:
        print("The tests fail without any change: nothing can be said.")
        return 1
    seconds = max(LEAST_S, TIMES * (time.monotonic() - began))

    def status(mutant: Mutant) -> int:
        found = status_of(mutant, seconds)
        if found == 0:
            print(shown(mutant), flush=True)
        return found

    with ThreadPoolExecutor(os.cpu_count()) as pool:
        found = list(pool.map(status, chosen))
    noticed = len(found) - found.count(0)
    share = noticed / len(found)
    print(
        f"{noticed} of {len(found)} noticed ({share:.1%}), {found.count(TOO_LONG)} of them by not ending within "
        f"{seconds:.0f} s; a sample (seed {SEED}) of {len(everything):,} mutants, in {time.monotonic() - start:.0f} s"
    )
    return 0 if share >= FLOOR else 1


if __name__ == "__main__":
    sys.exit(main())
