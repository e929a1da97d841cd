"""Small changes to the core, one at a time, each run against its tests: `make mutants`.

A seeded sample of all mutants that the package cosmic-ray can make of `src/jumpstop/core` (SAMPLE, 140 unless said):
places are drawn first, then one of the changes possible there, so that no kind of change outweighs the others. Left
out are type annotations, which nothing runs; decorators (frozen, caches) and the strictness of zip, which change no
figure; and what is nobody's mistake: comparisons turned into identity (is, is not), and a comparison with a word turned
into its order in the alphabet (`role >= "key"`). Which tests run which line is measured first, with the package
coverage, on the unchanged core. Each mutant is then tested by those that run its statement, the quickest first, in a
process of its own, forked from one that has the libraries loaded already; what runs as a module is imported is tested
by all. It ends after four times as long as these tests take unchanged (a minute at the least). What survives is tried
once more by those tests of generated cases that run it, with as many cases as MANY says, not the few of `make test`;
both counts are told. Survivors are printed with their line; docs/mutants.md says why each may live. What was found to
change nothing whatever, and why, is in `same.tsv` beside this: such a survivor is told, and counts neither way.
ONLY=plan/learning draws from the modules of whose path that is a part.
"""

import ast
import importlib.machinery
import os
import pickle
import random
import signal
import sys
import tempfile
import time
from collections import defaultdict
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any, NamedTuple

import coverage
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

from cases import LONG

LOADED = (hypothesis, numpy, pandas, pvlib, pydantic, scipy)  # once, for all the processes forked from this one
ROOT = Path(__file__).parent.parent
CORE = ROOT / "src" / "jumpstop" / "core"
TESTS = sorted(
    file
    for part in ("core", "words", "formats")
    for file in (ROOT / "tests" / part).glob("test_*.py")
    if file.stem != "test_house"
)
SEED, FLOOR, LEAST_S, TIMES = int(os.environ.get("SEED", "20261128")), 0.9, 60.0, 4
TOO_LONG = -1
ONLY = os.environ.get("ONLY", "")
SAMPLE = int(os.environ.get("SAMPLE", "140"))
SAME = Path(__file__).parent / "same.tsv"  # file, operator, line before, line after, why no answer can differ
NOT_MEANT = ("NoOp", "RemoveDecorator", "_Is", "_IsNot")
ORDER = ("_Lt", "_LtE", "_Gt", "_GtE")
MANY = {"SETUPS": "400", "FINDINGS": "100", "KITS": "100"}  # cases, of those that `make soak PART=verdicts` has
GENERATED = tuple(LONG[key][1] for key in MANY)  # files of tests
MANY_S = 900.0
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
    return [_span(node) for node in found if node is not None]


def _span(node: ast.expr) -> tuple[tuple[int, int], tuple[int, int]]:
    return (node.lineno, node.col_offset), (node.end_lineno or 0, node.end_col_offset or 0)


def words_compared(source: str) -> list[tuple[tuple[int, int], tuple[int, int]]]:
    """Where something is compared with a word written there: (start, end) as (line, column)."""
    return [
        _span(n)
        for n in ast.walk(ast.parse(source))
        if isinstance(n, ast.Compare) and len(n.ops) == 1 and isinstance(n.ops[0], ast.Eq | ast.NotEq)
        and isinstance(getattr(n.comparators[0], "value", None), str)
    ]  # fmt: skip


def all_mutants() -> list[Mutant]:
    """Every change that runs, in every module of the core."""
    out = []
    for path in sorted(path for path in CORE.rglob("*.py") if ONLY in str(path.relative_to(CORE))):
        source = path.read_text(encoding="utf-8")
        typed, words = left_out(source), words_compared(source)
        nodes = list(ast_nodes(get_ast(source)))
        for name in operator_names():
            operator_class = get_operator(name)
            if operator_class.arguments() or name.endswith(NOT_MEANT):
                continue
            operator, occurrence, alphabet = operator_class(), 0, name.endswith(ORDER)
            for node in nodes:
                for start, _ in operator.mutation_positions(node):
                    if not any(low <= start < high for low, high in (*typed, *(words if alphabet else ()))):
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


class Measured(NamedTuple):
    """What running the unchanged tests has shown: whether they pass; seconds of each by its name; and which tests run
    each line of a file, where "" stands for what runs as it is imported."""

    status: int
    seconds: dict[str, float]
    run_by: dict[str, dict[int, set[str]]]


class _Watched:
    """A pytest plug-in: the context of what is measured is the test that runs."""

    def __init__(self, found: coverage.Coverage) -> None:
        self.found, self.seconds = found, dict[str, float]()

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_protocol(self, item: pytest.Item) -> Any:
        """Around each test."""
        began = time.monotonic()
        self.found.switch_context(item.nodeid)
        done = yield
        self.found.switch_context("")
        self.seconds[item.nodeid] = time.monotonic() - began
        return done


class _Chosen:
    """A pytest plug-in: these tests and no others, in this order; or all cases of these."""

    def __init__(self, tests: list[str], all_cases: bool) -> None:
        self.all_cases = all_cases
        self.place = {self.name(test): at for at, test in reversed([*enumerate(tests)])}

    def name(self, test: str) -> str:
        """What a test is known by here."""
        return test.partition("[")[0] if self.all_cases else test

    def pytest_collection_modifyitems(self, items: list[pytest.Item]) -> None:
        """Leave them and sort them."""
        chosen = [one for one in items if self.name(one.nodeid) in self.place]
        items[:] = sorted(chosen, key=lambda one: self.place[self.name(one.nodeid)])


def _pytest(files: list[Path], plugin: object) -> int:
    words = ["-x", "-q", "-p", "no:cacheprovider", f"--rootdir={ROOT}", *map(str, files)]
    return int(pytest.main(words, plugins=[plugin]))


def measured() -> Measured:
    """Run the unchanged tests in a process of their own and see what they run."""
    with tempfile.TemporaryDirectory() as folder:
        into = Path(folder) / "measured"
        child = os.fork()
        if child:
            os.waitpid(child, 0)
            return Measured(*pickle.loads(into.read_bytes())) if into.exists() else Measured(1, {}, {})
        found = coverage.Coverage(data_file=None, include=[f"{CORE}/*"], config_file=False)
        watched = _Watched(found)
        _silent()
        found.start()
        status = _pytest(TESTS, watched)
        found.stop()
        data = found.get_data()
        run_by = {
            file: {line: set(tests) for line, tests in data.contexts_by_lineno(file).items()}
            for file in data.measured_files()
        }
        into.write_bytes(pickle.dumps((status, watched.seconds, run_by)))
        os._exit(0)


def _statement(source: str, line: int) -> range:
    """The lines of the smallest statement that a line is part of; of one with a body its head alone."""
    found = range(line, line + 1)
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.stmt):
            body = getattr(node, "body", None)
            lines = range(node.lineno, max(node.lineno, body[0].lineno - 1 if body else node.end_lineno or 0) + 1)
            if line in lines and (len(found) == 1 or len(lines) < len(found)):
                found = lines
    return found


def tests_of(mutant: Mutant, unchanged: Measured) -> list[str]:
    """The tests that run the statement of a mutant, the quickest first; all, where it runs as it is imported."""
    lines = unchanged.run_by.get(str(mutant.path), {})
    statement = _statement(mutant.path.read_text(encoding="utf-8"), mutant.place[0])
    runs = set[str]().union(*(lines.get(line, ()) for line in statement))
    wanted = set(unchanged.seconds) if "" in runs else runs
    return sorted(wanted, key=lambda test: (test not in runs, unchanged.seconds[test]))


def tested(path: Path, code: str, seconds: float, tests: list[str], many: bool) -> int:
    """Run tests with this code in place of the module's own, in a process of its own; its exit status, or TOO_LONG.
    many: all their cases, as many as MANY says."""
    child = os.fork()
    if child:
        return _waited(child, seconds)
    _silent()
    os.environ.update(MANY if many else {})
    get_code = importlib.machinery.SourceFileLoader.get_code

    def changed(loader: Any, name: str) -> Any:
        if Path(loader.path) == path:
            return compile(code, str(path), "exec")
        return get_code(loader, name)

    importlib.machinery.SourceFileLoader.get_code = changed  # type: ignore[method-assign, assignment]
    os._exit(_pytest(sorted({ROOT / test.partition("::")[0] for test in tests}), _Chosen(tests, many)))


def _silent() -> None:
    silence = os.open(os.devnull, os.O_WRONLY)
    os.dup2(silence, 1)
    os.dup2(silence, 2)


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


def status_of(mutant: Mutant, unchanged: Measured) -> int:
    """0 where the tests pass with the change in place: it is not noticed. Else some fail, cannot run, or never end."""
    code = code_of(mutant)
    tests = tests_of(mutant, unchanged)
    seconds = max(LEAST_S, TIMES * sum(unchanged.seconds[test] for test in tests))
    return 1 if code is None else tested(mutant.path, code, seconds, tests, False) if tests else 0


def noticed_by_many(mutant: Mutant, unchanged: Measured) -> bool:
    """Whether it is noticed by the tests of generated cases, with many of them."""
    code = code_of(mutant)
    tests = [one for one in tests_of(mutant, unchanged) if one.partition("::")[0].endswith(GENERATED)]
    return code is not None and bool(tests) and tested(mutant.path, code, MANY_S, tests, True) == 1


class Shown(NamedTuple):
    """A survivor as it is read: its file, the line's number, the change, the line before and after."""

    file: str
    line: int
    operator: str
    before: str
    after: str

    def __str__(self) -> str:
        return f"{self.file}:{self.line}  {self.operator}\n    - {self.before}\n    + {self.after}"


def shown(mutant: Mutant) -> Shown:
    """A survivor: where it is, and the line before and after."""
    before = mutant.path.read_text(encoding="utf-8").splitlines()
    after = (code_of(mutant) or "").splitlines()
    first = next((i for i, (a, b) in enumerate(zip(before, after, strict=False)) if a != b), len(before) - 1)
    file, operator = str(mutant.path.relative_to(ROOT)), mutant.operator.removeprefix("core/")
    return Shown(file, first + 1, operator, before[first].strip(), after[first].strip())


def changing_nothing() -> dict[tuple[str, str, str, str], str]:
    """Why each survivor that changes nothing does not, by its file, change, and line before and after."""
    rows = (line.split("\t") for line in SAME.read_text(encoding="utf-8").splitlines()[1:])
    return {(file, operator, before, after): why for file, operator, before, after, why in rows}


def main() -> int:
    """Sample, test, report; 1 where fewer are noticed than the floor asks."""
    os.chdir(ROOT)
    sys.dont_write_bytecode = True
    start = time.monotonic()
    loaded = sorted(name for name in sys.modules if name.startswith("jumpstop"))
    assert not loaded, f"A change of what is loaded already would never be run: {loaded}"
    everything = all_mutants()
    chosen = sample(everything, SAMPLE)
    unchanged = measured()
    if unchanged.status != 0:
        print("The tests fail without any change: nothing can be said.")
        return 1

    generated = [one for one in unchanged.seconds if one.partition("::")[0].endswith(GENERATED)]
    if tested(Path(), "", MANY_S, generated, True) != 0:
        print("Of many generated cases some fail without any change.")
        return 1
    known, same, late = changing_nothing(), list[Shown](), list[Shown]()

    def status(mutant: Mutant) -> int:
        found = status_of(mutant, unchanged)
        if found == 0:
            one = shown(mutant)
            why = known.get((one.file, one.operator, one.before, one.after))
            if why:
                same.append(one)
                print(one, f"    changes nothing: {why}", sep="\n", flush=True)
            elif noticed_by_many(mutant, unchanged):
                late.append(one)
            else:
                print(one, flush=True)
        return found

    with ThreadPoolExecutor(os.cpu_count()) as pool:
        found = list(pool.map(status, chosen))
    noticed = len(found) - found.count(0)
    meant = len(found) - len(same)
    share = (noticed + len(late)) / meant
    print(
        f"{noticed} of {len(found)} noticed, {found.count(TOO_LONG)} of them by not ending, {len(late)} more by many "
        f"generated cases; {len(same)} change nothing: {noticed / meant:.1%} of the others, {share:.1%} by all; a "
        f"sample (seed {SEED}) of {len(everything):,} mutants, in {time.monotonic() - start:.0f} s"
    )
    return 0 if share >= FLOOR else 1


if __name__ == "__main__":
    sys.exit(main())
