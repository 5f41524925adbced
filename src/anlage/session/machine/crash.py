"""After a fault nobody foresaw: a log for whoever mends it, and a word about it at the next start.

Each run keeps a file of its own in the log folder while it lasts. A process that dies by a signal writes into it where
it stood; one that was killed leaves it behind empty. What a run leaves behind, the next start finds.
"""

import faulthandler
import os
import traceback
from contextlib import suppress
from pathlib import Path
from types import TracebackType
from typing import TextIO

TOLD = "told"
STARTING = "starting"
RUNNING = "running-*.log"


def write_crash(folder: Path, fault: BaseException, trace: TracebackType | None, *, now: str) -> Path:
    """Write what happened into the log folder and return the file; two faults of one second have two files.

    Raises
    ------
    OSError : the folder cannot be written
    """
    folder.mkdir(parents=True, exist_ok=True)
    stem = f"crash-{now.replace(':', '')}"
    tries = (folder / f"{stem}{f'-{number}' if number else ''}.log" for number in range(1000))
    path = next(each for each in tries if not each.exists() and not each.with_suffix(f".{TOLD}").exists())
    path.write_text("".join(traceback.format_exception(type(fault), fault, trace)), encoding="utf-8")
    return path


def untold_crash(folder: Path) -> Path | None:
    """Return the newest crash log that nobody was told of, and take it as told now."""
    logs = sorted(folder.glob("crash-*.log")) if folder.is_dir() else []
    for log in logs:
        log.rename(log.with_suffix(f".{TOLD}"))
    return logs[-1].with_suffix(f".{TOLD}") if logs else None


class Run:
    """One run of the application, from its start to its end in order."""

    def __init__(self, folder: Path) -> None:
        self._file: TextIO | None = None
        with suppress(OSError):  # a log that cannot be written must not keep anybody from working
            folder.mkdir(parents=True, exist_ok=True)
            self._file = (folder / f"running-{os.getpid()}.log").open("w", encoding="utf-8")
            faulthandler.enable(self._file)
            self._mark.touch()

    @property
    def _mark(self) -> Path:
        assert self._file is not None, "there is a log"
        return Path(self._file.name).with_suffix(f".{STARTING}")

    def started(self) -> None:
        """Take note that everything is there and was seen."""
        if self._file is not None:
            with suppress(OSError):
                self._mark.unlink()

    def end(self) -> None:
        """Take note that the run ended in order."""
        if self._file is None:
            return
        faulthandler.disable()
        self.started()
        self._file.close()
        with suppress(OSError):
            Path(self._file.name).unlink()
        self._file = None


def start_unfinished(folder: Path) -> bool:
    """Return whether an earlier start came to no end: what it opened is then better left closed; told once."""
    found = False
    for mark in folder.glob(f"running-*.{STARTING}") if folder.is_dir() else ():
        number = mark.stem.partition("-")[2]
        if number.isdigit() and int(number) != os.getpid() and not Path(f"/proc/{number}").exists():
            with suppress(OSError):
                mark.unlink()
                found = True
    return found


def ended_badly(folder: Path) -> str:
    """Return how an earlier run ended that did not end in order, "" where none is left; told once.

    Of a process that is still there nothing is said.
    """
    found = ""
    for log in sorted(folder.glob(RUNNING)) if folder.is_dir() else []:
        number = log.stem.partition("-")[2]
        if not number.isdigit() or int(number) == os.getpid() or Path(f"/proc/{number}").exists():
            continue
        with suppress(OSError):
            if log.stat().st_size:
                kept = log.rename(log.with_suffix(f".{TOLD}"))
                found = f"The last run died; every saved draft is there. Where it stood is in {kept}."
            else:
                log.unlink()
                found = found or "The last run was ended from outside; every saved draft is there."
    return found
