"""A file is there whole or not at all, whatever happens while it is written."""

import os
import stat
from contextlib import suppress
from pathlib import Path


def write_whole(path: Path, data: bytes) -> None:
    """Write a file beside its place, and give it its name once it is on the disk.

    What stood there before stays until then. A link keeps pointing where it points; a pipe or device is written to.

    Raises
    ------
    OSError : it cannot be written; what was there is there still
    """
    real = path.resolve() if path.is_symlink() else path
    if real.exists() and not real.is_file():
        _write_into(real, data)
        return
    beside = real.with_name(f".{real.name}.{os.getpid()}.new")
    try:
        with beside.open("xb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        with suppress(FileNotFoundError):
            beside.chmod(stat.S_IMODE(real.stat().st_mode))
        beside.replace(real)
    finally:
        with suppress(OSError):
            beside.unlink(missing_ok=True)


def _write_into(path: Path, data: bytes) -> None:
    if path.is_dir():
        raise IsADirectoryError(f"{path.name} is a folder")
    with path.open("wb") as file:
        file.write(data)
