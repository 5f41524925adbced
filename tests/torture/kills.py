"""Killed before every call that writes: what is there afterwards is what was there before, or what was to be there.

A small library in C, made here, ends a process before its n-th call that writes. One process with that library makes a
copy of itself for every n of every operation, and looks at what the copy left behind.
"""

import ctypes
import json
import os
import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Callable, Mapping
from contextlib import closing
from pathlib import Path
from typing import Any

from anlage.core.document import write
from anlage.core.procedure import Wps
from anlage.session.machine.settings import Settings, read_settings, write_settings
from anlage.session.output.all_documents import write_all
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.store import Draft, create_works, open_works
from tests.torture.works_files import NOW, sound_file

HERE = Path(__file__).parent
FIXTURE = HERE.parent / "fixtures" / "first-version.anlage"
WORKS = "ostrel-demo.anlage"

State = Any


def _works(folder: Path) -> OpenWorks:
    return OpenWorks(folder / WORKS, now=lambda: NOW, told=lambda _faults: None)


def _save(folder: Path) -> None:
    with open_works(folder / WORKS) as works:
        works.save_draft(works.entries()[0].id, Draft(write(Wps()), {"header/title": "x" * 20_000}), now=NOW)


def _type(folder: Path) -> None:
    with closing(_works(folder)) as works:  # with the copy that is kept before the first change
        own = works.entries()[0].id
        works.save(own, works.read(works.entries()[1].id)[0])
        works.flush()


def _add(folder: Path) -> None:
    with open_works(folder / WORKS) as works:
        works.add("anlage-wps", write(Wps()), now=NOW, number="NEW", title="x")


def _issue(folder: Path) -> None:
    with open_works(folder / WORKS) as works:
        works.issue(works.entries()[0].id, write(Wps()), author="A. Maker", now=NOW)


def _put_away(folder: Path) -> None:
    with open_works(folder / WORKS) as works:
        works.delete(works.entries()[0].id, now=NOW)


def _bring_back(folder: Path) -> None:
    with open_works(folder / WORKS) as works:
        works.restore(works.entries(deleted=True)[0].id)


def _copy(folder: Path) -> None:
    with closing(_works(folder)) as works:
        works.save_as(folder / "copy.anlage")


def _make(folder: Path) -> None:
    create_works(folder / "new.anlage", fill=lambda works: works.add("anlage-wps", write(Wps()), now=NOW)).close()


def _migrate(folder: Path) -> None:
    with open_works(folder / "old.anlage", now=NOW) as works:
        works.entries()


def _reset(folder: Path) -> None:
    demo_file(NOW, reset=True, folder=folder)


def _export(folder: Path) -> None:
    (folder / "all").mkdir(exist_ok=True)
    with closing(_works(folder)) as works:
        write_all(works, folder / "all")


def _settings(folder: Path) -> None:
    write_settings(folder / "settings.toml", Settings(author="New", recent=("a" * 5000,)))


OPERATIONS: Mapping[str, Callable[[Path], None]] = {
    each.__name__[1:]: each
    for each in (
        _save, _type, _add, _issue, _put_away, _bring_back, _copy, _make, _migrate, _reset, _export, _settings,
    )
}  # fmt: skip


def prepare(folder: Path) -> None:
    """Make what every operation starts from."""
    sound_file(folder)
    shutil.copy(FIXTURE, folder / "old.anlage")
    write_settings(folder / "settings.toml", Settings(author="Old"))


def state_of(folder: Path) -> State:
    """Return what a folder holds, as far as it can be told from before and after an operation.

    Raises
    ------
    AnlageError, AssertionError, ValueError : something in it is neither whole nor away
    """
    works = {path.name: _state_of_works(path) for path in sorted(folder.glob("*.anlage"))}
    exported = {path.name: json.loads(path.read_text(encoding="utf-8")) for path in sorted(folder.glob("all/*.json"))}
    settings = read_settings(folder / "settings.toml").author
    assert settings in ("Old", "New"), "the settings are whole"
    return works, exported, settings


def _state_of_works(path: Path) -> State:
    with open_works(path, now=NOW) as works:
        assert works.can_write, works.why_read_only
        assert works.verify() == ()
        assert works.verify_drafts() == ()
        return [
            (entry.number, works.draft(entry.id), [each.body for each in works.revisions(entry.id)], entry.deleted)
            for entry in (*works.entries(), *works.entries(deleted=True))
        ]


def _between(found: State, old: State, new: State) -> bool:
    """Return whether each thing is as it was before or as it is after."""
    for name in range(2):
        for key, value in found[name].items():
            if value not in (old[name].get(key), new[name].get(key)):
                return False
        if any(key not in found[name] for key in old[name] if key in new[name]):
            return False
    return found[2] in (old[2], new[2])


def run_all(most: int, step: int = 1) -> Counter[str]:
    """Return how many kills of each operation left what was before or what was to be; more is told as a fault.

    Parameters
    ----------
    most : kills of one operation, spread over all its calls
    step : of every so many operations one
    """
    compiler = shutil.which("cc") or shutil.which("gcc")
    if compiler is None:
        return Counter({"kills at calls: no C compiler here, not run": 1})
    with tempfile.TemporaryDirectory() as folder:
        library = Path(folder) / "stop_at.so"
        subprocess.run(
            [compiler, "-shared", "-fPIC", "-O1", "-o", library, HERE / "stop_at.c", "-ldl"], check=True
        )  # fmt: skip
        done = subprocess.run(
            [sys.executable, "-m", __name__, str(library), folder, str(most), str(step)],
            env={**os.environ, "LD_PRELOAD": str(library)}, cwd=HERE.parent.parent, check=True, capture_output=True,
            text=True,
        )  # fmt: skip
    return Counter(json.loads(done.stdout))


def _forked(library: ctypes.CDLL, operation: Callable[[Path], None], folder: Path, at: int) -> int:
    """Do an operation in a copy of this process that ends before its n-th call; return how many a survivor made."""
    reads, writes = os.pipe()
    child = os.fork()
    if child == 0:
        library.stop_at(at)
        try:
            operation(folder)
        finally:
            made = library.calls_made()
            library.stop_at(-1)
            os.write(writes, str(made).encode())
            os._exit(0)
    os.close(writes)
    os.waitpid(child, 0)
    with os.fdopen(reads) as told:
        return int(told.read() or 0)


def _serve(library: ctypes.CDLL, folder: Path, most: int, step: int) -> Counter[str]:
    library.stop_at.argtypes, library.calls_made.restype = [ctypes.c_long], ctypes.c_long
    start, found = folder / "start", Counter[str]()
    start.mkdir()
    prepare(start)
    old = state_of_copy(start, folder / "look")
    for operation in list(OPERATIONS.values())[::step]:
        name = operation.__name__[1:]
        target = _anew(start, folder / "tried")
        calls = _forked(library, operation, target, 0)
        new = state_of_copy(target, folder / "look")
        for at in range(1, calls + 1, max(1, calls // most)):
            target = _anew(start, folder / "tried")
            _forked(library, operation, target, at)
            try:
                sound = _between(state_of(target), old, new)
            except Exception as fault:  # noqa: BLE001 - whatever comes is counted
                found[f"FAULT {name} killed before call {at} of {calls}: {type(fault).__name__}: {fault}"[:200]] += 1
                continue
            found[f"{name}: killed, old or new" if sound else f"FAULT {name} killed before call {at}: between"] += 1
    return found


def state_of_copy(folder: Path, beside: Path) -> State:
    """Return what a folder holds, looked at in a copy: looking migrates."""
    return state_of(_anew(folder, beside))


def _anew(start: Path, folder: Path) -> Path:
    shutil.rmtree(folder, ignore_errors=True)
    shutil.copytree(start, folder)
    return folder


if __name__ == "__main__":
    print(json.dumps(_serve(ctypes.CDLL(sys.argv[1]), Path(sys.argv[2]), int(sys.argv[3]), int(sys.argv[4]))))
