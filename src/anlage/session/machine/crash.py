"""After a fault nobody foresaw: a log for whoever mends it, and a word about it at the next start."""

import traceback
from pathlib import Path
from types import TracebackType

TOLD = "told"


def write_crash(folder: Path, fault: BaseException, trace: TracebackType | None, *, now: str) -> Path:
    """Write what happened into the log folder and return the file.

    Raises
    ------
    OSError : the folder cannot be written
    """
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / f"crash-{now.replace(':', '')}.log"
    path.write_text("".join(traceback.format_exception(type(fault), fault, trace)), encoding="utf-8")
    return path


def untold_crash(folder: Path) -> Path | None:
    """Return the newest crash log that nobody was told of, and take it as told now."""
    logs = sorted(folder.glob("crash-*.log")) if folder.is_dir() else []
    for log in logs:
        log.rename(log.with_suffix(f".{TOLD}"))
    return logs[-1].with_suffix(f".{TOLD}") if logs else None
