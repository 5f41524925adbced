"""Copies of a works file: under another name when somebody asks, and dated ones before it is changed."""

import re
from contextlib import suppress
from pathlib import Path
from typing import Final

from anlage.core.errors import FormatError
from anlage.store.opening import empty_beside, put_in_place
from anlage.store.works import WorksFile

KEPT: Final = 5
FOLDER: Final = " copies"  # behind the name of the works file


def copy_as(works: WorksFile, path: Path) -> None:
    """Copy a works file under another name; the copy is there whole or not at all.

    Raises
    ------
    FormatError : something of that name exists, the folder cannot be written, or the file cannot be read whole
    """
    beside = empty_beside(path)
    try:
        works.copy_to(beside)
        put_in_place(beside, path)
    finally:
        with suppress(OSError):
            beside.unlink(missing_ok=True)


def keep_copy(works: WorksFile, now: str) -> Path | None:
    """Keep a dated copy of a works file as it is now, beside it, and the four before; return where.

    `None` where the file is such a copy itself.

    Parameters
    ----------
    now : the time as ISO 8601 in UTC

    Raises
    ------
    FormatError : the copy cannot be made
    """
    real = works.path.resolve()
    if real.parent.name.endswith(FOLDER):
        return None
    folder = real.with_name(f"{real.stem}{FOLDER}")
    try:
        folder.mkdir(exist_ok=True)
    except OSError as fault:
        raise FormatError("it cannot be made", where=folder.name, mend="choose a folder you can write") from fault
    stem = f"{real.stem} {now[:10]} {now[11:19].replace(':', '')}"
    names = (f"{stem}{f' {number}' if number else ''}{real.suffix}" for number in range(1000))
    path = next(folder / name for name in names if not (folder / name).exists())
    copy_as(works, path)
    for old in copies_of(real)[:-KEPT]:
        with suppress(OSError):
            old.unlink()
    return path


def copies_of(path: Path) -> tuple[Path, ...]:
    """Return the dated copies of a works file, oldest first."""
    real = path.resolve()
    dated = re.compile(re.escape(real.stem) + r" \d{4}-\d\d-\d\d \d{6}( \d+)?" + re.escape(real.suffix))
    folder = real.with_name(f"{real.stem}{FOLDER}")
    found = [each for each in folder.glob("*") if dated.fullmatch(each.name)] if folder.is_dir() else []
    return tuple(sorted(found, key=lambda each: (each.stem.split()[-3:], each.name)))
