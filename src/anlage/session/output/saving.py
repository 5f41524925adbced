"""Writing a file that is made first, so that a refusal leaves nothing behind."""

from collections.abc import Callable
from pathlib import Path

from anlage.core.errors import FormatError

ENDINGS = (".svg", ".pdf", ".dxf", ".csv", ".xlsx")


def save(path: Path, make: Callable[[], bytes]) -> None:
    """Write a file that is made first, so that a refusal leaves nothing behind.

    Raises
    ------
    FormatError : the file cannot be written
    """
    data = make()
    try:
        path.write_bytes(data)
    except OSError as fault:
        raise FormatError("it cannot be written", where=path.name, mend="choose a folder you can write") from fault
