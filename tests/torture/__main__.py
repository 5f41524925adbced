"""`python -m tests.torture N`: everything done to break the application, N times the part that takes minutes."""

import os
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from pathlib import Path

from tests.torture import documents, kills, typing_kills, works_files

FOUND = Path(__file__).parent / "found"  # takes what had a fault; not kept
SEED = 20_000


def _documents(times: int) -> tuple[Counter[str], str]:
    return documents.fuzz(SEED + times, 5_000 * times, FOUND), ""


def _works_files(times: int) -> tuple[Counter[str], str]:
    with tempfile.TemporaryDirectory() as folder:
        return works_files.fuzz(SEED + times, 500 * times, Path(folder), FOUND), ""


def _calls(_times: int) -> tuple[Counter[str], str]:
    return kills.run_all(10_000), ""


def _typing(times: int) -> tuple[Counter[str], str]:
    with tempfile.TemporaryDirectory() as folder:
        found, longest = typing_kills.kill(SEED + times, 50 * times, Path(folder))
    if longest > typing_kills.LOST_AT_MOST_S:
        found[f"FAULT {longest:.2f} s of typing were lost"] += 1
    return found, f"at most {longest:.2f} s of typing lost"


def _monkey(times: int) -> tuple[Counter[str], str]:
    from tests.torture import monkey  # noqa: PLC0415 - a window

    return monkey.play(SEED + times, 2_500 * times), ""


def _sweep(times: int) -> tuple[Counter[str], str]:
    from tests.torture import sweep  # noqa: PLC0415 - a window

    with tempfile.TemporaryDirectory() as folder:
        found, worst, loops = sweep.run_all(Path(folder), part=(0, max(1, 20 // times)))
    told = f"{worst.field} = {worst.text} at {worst.view}, {loops:.1f} fixed loops" if worst else "nothing"
    return found, f"dearest: {told}"


PARTS: dict[str, Callable[[int], tuple[Counter[str], str]]] = {
    "documents": _documents, "works files": _works_files, "kills at calls": _calls, "kills while typing": _typing,
    "actions": _monkey, "sweep": _sweep,
}  # fmt: skip


def main(words: list[str]) -> int:
    """Run every part, or those that are named, and print what came of them; return 1 where there was a fault."""
    times = int(words[0]) if words else 1
    wanted = words[1:] or list(PARTS)
    faults = 0
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {f"XDG_{name}_HOME": folder for name in ("CONFIG", "STATE", "DATA")}
        for name in wanted:
            began = time.monotonic()
            found, told = PARTS[name](times)
            print(f"{name} ({time.monotonic() - began:.0f} s) {told}")
            for what, count in sorted(found.items(), key=lambda each: (not each[0].startswith("FAULT"), -each[1])):
                print(f"  {count:7d}  {what}")
                faults += what.startswith("FAULT")
            sys.stdout.flush()
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
