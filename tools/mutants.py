"""Whether the tests notice: one small fault at a time is put into the core, and some test has to fail.

A stated set, the same at every run: every comparison, `min`, `max`, `any`, `all`, `and`, `or`, sum and difference of
`core/codes`, `core/heat` and `core/ranges`, every twelfth of them, and those that survived once. A fault that no test
notices is listed; it is either a gap in the tests or a change that means nothing. Not part of `make check`: it takes
an hour.

The tests are run once without a fault first: they must pass, and how long they take says when one that goes on is taken
to have no end. So long as nobody had looked at that, tests that had grown slow passed for tests that notice.
"""

import ast
import os
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
FOLDERS = {
    "codes": ("tests/core/codes", "tests/session/judging", "tests/published"),
    "heat": ("tests/core/heat", "tests/published/test_heat_input.py", "tests/cli", "tests/session/judging"),
    "ranges": ("tests/core/ranges", "tests/core/codes", "tests/cli"),
}
EVERY = 12
ENDLESS, LEAST_S = 4.0, 60.0  # times as long as without a fault, and at least
SWAPPED = {
    ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">", ast.Eq: "!=", ast.NotEq: "==", ast.Add: "-", ast.Sub: "+",
    ast.And: "or", ast.Or: "and",
}  # fmt: skip
NAMES = {"min": "max", "max": "min", "any": "all", "all": "any"}
JUDGING = ("tests/core/codes", "tests/session/judging")
NOTED = (  # file, what stands there, the fault, the tests: they survived once
    ("core/codes/case.py", "len(stated_in_all) == len(parts)", "stated_in_all", JUDGING),
    ("core/codes/derive.py", "return min(limits)", "return max(limits)", (*JUDGING, "tests/published")),
    ("core/codes/case.py", "variable in own and variable not in clashes", "variable in own", JUDGING),
    ("core/codes/supports.py", "rank < found[variable][0]", "rank > found[variable][0]", JUDGING),
    ("core/codes/combine.py", "return least.low > most.high", "return least.low < most.high", JUDGING),
    ("core/codes/conditions.py", "tokens_of(value) <= self.tokens", "bool(tokens_of(value))", JUDGING),
    ("core/codes/box.py", "NONE if doubt else sure", "sure", JUDGING),
    ("core/codes/kinds.py", "if surely and take", "if take", JUDGING),
    ("session/judging/results.py", "if each.passed:", "if each.passed is not False:", JUDGING),
    ("session/judging/evidence.py", "own.by and own.reason", "own.by", JUDGING),
    ("session/judging/statements.py", "answer is None or name in clashes", "answer is None", JUDGING),
    ("core/codes/box.py", "max((ruling.confidence", "min((ruling.confidence", JUDGING),
    ("core/beads/fill.py", "max(1, round(width_mm / self.pitch_mm))", "1", ("tests/core/beads", "tests/published")),
    ("core/joint/detail.py", "max(span[0] - minus, 0.0)", "max(span[0] + minus, 0.0)", ("tests/core", "tests/session")),
    ("session/judging/assessment.py", "tuple(reversed(records))", "tuple(records)", JUDGING),
    ("session/output/wps_sheet.py", 'confidence != "H"', 'confidence == "H"', ("tests/session/output",)),
)


class Mutant(NamedTuple):
    """One fault: the file, its text with the fault in it, where and what it is, and the tests that may notice."""

    file: Path
    text: str
    what: str
    tests: tuple[str, ...]


def mutants() -> Iterator[Mutant]:
    """Yield every fault of the stated set."""
    for file, old, new, tests in NOTED:
        path = ROOT / "src/anlage" / file
        text = path.read_text(encoding="utf-8")
        assert text.count(old) == 1, f"{file}: {old} is there {text.count(old)} times"
        yield Mutant(path, text.replace(old, new), f"{file}: {old} -> {new}", tests)
    for folder, tests in FOLDERS.items():
        for path in sorted((ROOT / "src/anlage/core" / folder).glob("*.py")):
            text = path.read_text(encoding="utf-8")
            for line, start, end, new in list(_swaps(text))[::EVERY]:
                lines = text.splitlines(keepends=True)
                old = lines[line - 1]
                lines[line - 1] = old[:start] + new + old[end:]
                what = f"core/{folder}/{path.name} line {line}: {old[start:end]} -> {new}"
                yield Mutant(path, "".join(lines), what, tests)


def _swaps(text: str) -> Iterator[tuple[int, int, int, str]]:
    """Yield line, start, end and new text of every fault in a module."""
    lines = text.splitlines()
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.Name) and node.id in NAMES:
            yield node.lineno, node.col_offset, node.col_offset + len(node.id), NAMES[node.id]
        if isinstance(node, ast.Compare):
            yield from _between(lines, node.left, node.comparators[0], type(node.ops[0]))
        if isinstance(node, ast.BinOp):
            yield from _between(lines, node.left, node.right, type(node.op))
        if isinstance(node, ast.BoolOp):
            yield from _between(lines, node.values[0], node.values[1], type(node.op))


def _between(lines: list[str], left: ast.expr, right: ast.expr, kind: type) -> Iterator[tuple[int, int, int, str]]:
    if kind not in SWAPPED or left.end_lineno != right.lineno or not lines[right.lineno - 1].isascii():
        return
    start, end = left.end_col_offset or 0, right.col_offset
    words = lines[right.lineno - 1][start:end]
    operator = words.strip(" ()")
    at = words.index(operator) + start
    yield right.lineno, at, at + len(operator), SWAPPED[kind]


def ran(
    tests: tuple[str, ...], mutant: Mutant | None = None, longest_s: float | None = None
) -> subprocess.CompletedProcess[str] | None:
    """Return how tests ended in a copy of the project, with a fault or without; `None` where they come to no end."""
    with tempfile.TemporaryDirectory() as scratch:
        for part in ("src", "tests", "docs"):
            shutil.copytree(ROOT / part, f"{scratch}/{part}", ignore=shutil.ignore_patterns("__pycache__"))
        for part in ("pyproject.toml", "README.md"):
            shutil.copy(ROOT / part, scratch)
        if mutant is not None:
            (Path(scratch) / mutant.file.relative_to(ROOT)).write_text(mutant.text, encoding="utf-8")
        words = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *tests]
        own = {"PYTHONPATH": f"{scratch}/src", "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}
        try:
            return subprocess.run(
                words, cwd=scratch, env=os.environ | own, capture_output=True, text=True, timeout=longest_s, check=False
            )
        except subprocess.TimeoutExpired:
            return None


def green_s(tests: tuple[str, ...]) -> float:
    """Return how long tests take without a fault [s]; the end where they do not pass."""
    start = time.perf_counter()
    ended = ran(tests)
    if ended is None or ended.returncode:
        raise SystemExit(f"{' '.join(tests)} fail without a fault:\n{ended.stdout[-3000:] if ended else ''}")
    return time.perf_counter() - start


def main() -> None:
    """Tell every fault that no test notices, and the score."""
    wanted = list(mutants())
    with ThreadPoolExecutor(os.cpu_count()) as workers:  # the times are of tests that run beside others
        sets = list(dict.fromkeys(mutant.tests for mutant in wanted))
        longest = {
            tests: max(LEAST_S, ENDLESS * took) for tests, took in zip(sets, workers.map(green_s, sets), strict=True)
        }
        ends = workers.map(lambda each: ran(each.tests, each, longest[each.tests]), wanted)
        noticed = 0
        for mutant, ended in zip(wanted, ends, strict=True):  # told as it goes: the whole takes its time
            noticed += ended is None or bool(ended.returncode)
            if ended is None or not ended.returncode:
                print(f"{'no end  ' if ended is None else 'survived'}  {mutant.what}", flush=True)
    print(f"{noticed} of {len(wanted)} faults were noticed ({100 * noticed / len(wanted):.0f} %)")


if __name__ == "__main__":
    main()
