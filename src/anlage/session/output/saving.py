"""Writing a file that is made first, so that a refusal leaves nothing behind, and never over what must not be lost."""

from collections.abc import Callable, Iterable
from pathlib import Path

from anlage.core.errors import FormatError
from anlage.session.machine.whole import write_whole
from anlage.store import is_works_file

ENDINGS = (".svg", ".pdf", ".dxf", ".csv", ".xlsx")


def check_ending(path: Path, endings: Iterable[str]) -> None:
    """Refuse a file whose ending says that it is something else than what is written.

    Raises
    ------
    FormatError : nothing of this kind is written with that ending
    """
    known = tuple(endings)
    if path.suffix.lower() not in known:
        ending = path.suffix or "no ending"
        raise FormatError(f"nothing is written as {ending}", where=path.name, mend=f"take {', '.join(known)}")


def check_target(path: Path, *, sources: Iterable[Path] = (), over: bool = True) -> None:
    """Refuse a target that must not be written over.

    Parameters
    ----------
    path : where something is to be written
    sources : the files that it is made from
    over : whether a file that is there may be replaced

    Raises
    ------
    FormatError : it is a works file or one of the sources, or it exists and may not be replaced
    """
    try:
        exists = path.exists()
    except (OSError, ValueError) as fault:
        raise FormatError("it cannot be a name of a file", where=str(path)[:40], mend="choose another name") from fault
    if not exists:
        return
    if any(source.exists() and path.samefile(source) for source in sources):
        raise FormatError("it is what this is made from", where=path.name, mend="choose another name")
    if path.is_file() and is_works_file(path):
        raise FormatError(
            "it is a works file, which is never written over", where=path.name, mend="choose another name"
        )
    if path.is_file() and not over:
        raise FormatError("it exists already", where=path.name, mend="choose another name, or say --force")


def save(path: Path, make: Callable[[], bytes], *, sources: Iterable[Path] = (), over: bool = True) -> None:
    """Write a file that is made first: it is there whole, or what was there before.

    Parameters
    ----------
    path : where it goes
    make : gives its bytes; may refuse
    sources : the files that it is made from, which are never written over
    over : whether a file that is there may be replaced

    Raises
    ------
    FormatError : the target must not be written over, or cannot be written
    """
    check_target(path, sources=sources, over=over)
    data = make()
    try:
        write_whole(path, data)
    except OSError as fault:
        why = (fault.strerror or "").lower()
        what = f"it cannot be written{f' ({why})' if why else ''}"
        raise FormatError(what, where=path.name or str(path), mend="choose a folder you can write") from fault
