"""Whether the tests notice: one small fault at a time is put into the core, and some test has to fail.

A stated set, the same at every run: every comparison, `min`, `max`, `any`, `all`, `and`, `or`, sum and difference of
`core/codes`, `core/heat` and `core/ranges`, every fifth of them, and those that survived once. A fault that no test
notices is listed; it is either a gap in the tests or a change that means nothing. Not part of `make check`: it takes
a quarter of an hour.
"""

import ast
import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
FOLDERS = {
    "codes": ("tests/core/codes", "tests/published", "tests/session"),
    "heat": ("tests/core/heat", "tests/published/test_heat_input.py", "tests/cli", "tests/session"),
    "ranges": ("tests/core/ranges", "tests/core/codes", "tests/cli"),
}
EVERY, LONGEST_S = 5, 240
SWAPPED = {
    ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">", ast.Eq: "!=", ast.NotEq: "==", ast.Add: "-", ast.Sub: "+",
    ast.And: "or", ast.Or: "and",
}  # fmt: skip
NAMES = {"min": "max", "max": "min", "any": "all", "all": "any"}
NOTED = (  # file, what stands there, the fault, the tests: they survived once
    ("core/codes/case.py", "len(stated_in_all) == len(parts)", "stated_in_all", "tests/core"),
    ("core/codes/derive.py", "return min(limits)", "return max(limits)", "tests/core tests/published tests/session"),
    (
        "core/codes/case.py",
        "variable in own and variable not in clashes",
        "variable in own",
        "tests/core tests/session",
    ),
    ("core/codes/supports.py", "rank < found[variable][0]", "rank > found[variable][0]", "tests/core"),
    (
        "core/codes/combine.py",
        "return least.low > most.high",
        "return least.low < most.high",
        "tests/core",
    ),
    (
        "core/codes/conditions.py",
        "tokens_of(value) <= self.tokens",
        "bool(tokens_of(value))",
        "tests/core tests/published",
    ),
    ("core/codes/box.py", "NONE if doubt else sure", "sure", "tests/core tests/session"),
    ("core/codes/kinds.py", "if surely and take", "if take", "tests/core tests/session"),
    ("session/judging/results.py", "if each.passed:", "if each.passed is not False:", "tests/session"),
    ("session/judging/evidence.py", "own.by and own.reason", "own.by", "tests/session"),
    ("session/judging/statements.py", "answer is None or name in clashes", "answer is None", "tests/session"),
    ("core/codes/box.py", "max((ruling.confidence", "min((ruling.confidence", "tests/core"),
    ("core/beads/fill.py", "max(1, round(width_mm / self.pitch_mm))", "1", "tests/core tests/published"),
    ("core/joint/detail.py", "max(span[0] - minus, 0.0)", "max(span[0] + minus, 0.0)", "tests/core tests/session"),
    ("session/judging/assessment.py", "tuple(reversed(records))", "tuple(records)", "tests/session"),
    ("session/output/wps_sheet.py", 'confidence != "H"', 'confidence == "H"', "tests/session"),
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
        yield Mutant(path, text.replace(old, new), f"{file}: {old} -> {new}", tuple(tests.split()))
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


def is_noticed(mutant: Mutant) -> bool:
    """Return whether a test fails with the fault in a copy of the project."""
    with tempfile.TemporaryDirectory() as scratch:
        for part in ("src", "tests", "docs"):
            shutil.copytree(ROOT / part, f"{scratch}/{part}", ignore=shutil.ignore_patterns("__pycache__"))
        for part in ("pyproject.toml", "README.md"):
            shutil.copy(ROOT / part, scratch)
        (Path(scratch) / mutant.file.relative_to(ROOT)).write_text(mutant.text, encoding="utf-8")
        words = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *mutant.tests]
        own = {"PYTHONPATH": f"{scratch}/src", "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": "1"}
        try:
            ran = subprocess.run(
                words, cwd=scratch, env=os.environ | own, capture_output=True, timeout=LONGEST_S, check=False
            )
        except subprocess.TimeoutExpired:
            return True  # it never ends: that is noticed
    return ran.returncode != 0


def main() -> None:
    """Tell every fault that no test notices, and the score."""
    wanted = list(mutants())
    with ThreadPoolExecutor(os.cpu_count()) as workers:
        noticed = list(workers.map(is_noticed, wanted))
    for mutant, seen in zip(wanted, noticed, strict=True):
        if not seen:
            print(f"survived  {mutant.what}")
    print(f"{sum(noticed)} of {len(wanted)} faults were noticed ({100 * sum(noticed) / len(wanted):.0f} %)")


if __name__ == "__main__":
    main()
