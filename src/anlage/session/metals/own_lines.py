"""The ferrite number of a weld by an engineer's own table of lines, read off a licensed diagram; one for the works."""

from collections.abc import Iterator
from pathlib import Path

from anlage.core.errors import AnlageError
from anlage.core.metal.ferrite import Lines, read_off
from anlage.core.metal.indices import summed
from anlage.data.metal_tables import indices
from anlage.session.keyed.ferrite import lines_of
from anlage.session.metals.together import Figure, Together

NAME = "Ferrite, own lines"
_read: tuple[str, float, Lines] | None = None  # path, when it was changed last, what it says


def own_figures(found: Together, path: str) -> Iterator[Figure]:
    """Yield the ferrite number of the mixture by a table of lines, or why there is none; nothing without a table.

    Parameters
    ----------
    found : the metals and their mixture
    path : of the CSV with fn, cr_eq, ni_eq; "" for none
    """
    if not path or found.mixture is None:
        return
    try:
        lines = _lines(path)
    except AnlageError as fault:
        yield Figure(NAME, "not read", f"{fault.what}; {fault.mend}", path)
        return
    wrc = [summed(found.mixture.composition, indices()[f"wrc_{which}"]).value for which in ("creq", "nieq")]
    number = None if None in wrc else read_off(lines, wrc[0] or 0.0, wrc[1] or 0.0)
    text = "beyond the lines" if number is None else f"{number:.1f} FN"
    yield Figure(NAME, text, f"{lines.name}, between its lines at the equivalents of WRC-1992", path)


def require_lines(path: str) -> None:
    """Refuse a file that is no table of lines.

    Raises
    ------
    InputError : the file cannot be read
    FormatError : it is no table of lines
    """
    _lines(path)


def _lines(path: str) -> Lines:
    global _read  # noqa: PLW0603 - a file is read again when it was changed
    try:
        changed = Path(path).stat().st_mtime
    except OSError:
        return lines_of(path)  # which says why it cannot be read
    if _read is None or _read[:2] != (path, changed):
        _read = (path, changed, lines_of(path))
    return _read[2]
