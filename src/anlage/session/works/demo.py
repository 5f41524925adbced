"""The demo: the Ostrel works, an invented river and firm, as a works file that can be thrown away and made anew."""

import os
from contextlib import suppress
from pathlib import Path

from anlage.core.document import read_strict
from anlage.core.errors import FormatError, InputError
from anlage.data.files import FOLDER
from anlage.session.kinds import KINDS
from anlage.session.machine.settings import data_folder
from anlage.store import WorksFile, build_beside, create_works, exchange, open_works


def demo_file(now: str, *, reset: bool = False, folder: Path | None = None) -> Path:
    """Return the demo works file, made when it is not there yet; `reset` makes it anew and keeps the old one aside.

    Parameters
    ----------
    now : the time as ISO 8601 in UTC
    reset : throw away what was changed in it
    folder : where it lies; by default under XDG_DATA_HOME

    Raises
    ------
    FormatError, InputError : the folder cannot be written, or the old one is open elsewhere
    """
    path = (folder or data_folder()) / "ostrel-demo.anlage"
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as fault:
        raise FormatError(
            "it cannot be made", where=str(path.parent), mend="ask for the right to write there"
        ) from fault
    if not os.path.lexists(path):
        create_works(path, fill=lambda works: _fill(works, now)).close()
    elif reset:
        _make_anew(path, now)
    return path


def _fill(works: WorksFile, now: str) -> None:
    sources = sorted((FOLDER / "demo").glob("*.json"))
    of_kind = [(kind.core, each) for kind in KINDS for each in sources if each.stem.split("-")[1] == kind.letter]
    for kind, source in of_kind:  # OST-W-01
        text = source.read_text(encoding="utf-8")
        header = read_strict(text, kind, where=source.name).header
        works.add(kind.format, text, now=now, number=header.number, title=header.title)


def _make_anew(path: Path, now: str) -> None:
    """Put a new demo in the place of the old one, which is kept whole under a number beside it.

    Raises
    ------
    FormatError : the old one is open elsewhere, or the folder cannot be written
    """
    kept = next(
        each for number in range(1, 10_000) if not (each := path.with_name(f"ostrel-demo {number}.anlage")).exists()
    )
    beside = build_beside(path, lambda works: _fill(works, now))
    try:
        with suppress(FormatError), open_works(path, now=now) as old:  # one that is damaged is kept as it is
            if not old.can_write:
                raise InputError(f"it cannot be made anew, {old.why_read_only}", where=path.name, mend="close it first")
        with suppress(FileNotFoundError):  # of one that is damaged and was left half done
            path.with_name(f"{path.name}-journal").replace(kept.with_name(f"{kept.name}-journal"))
        exchange(beside, path, kept)
    except OSError as fault:
        raise FormatError("it cannot be made anew", where=path.name, mend="ask for the right to write there") from fault
    finally:
        with suppress(OSError):
            beside.unlink(missing_ok=True)
