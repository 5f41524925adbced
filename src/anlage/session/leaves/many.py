"""Several leaves changed at once: what is typed into all, a value copied down, cells pasted from a spreadsheet."""

from collections.abc import Iterable, Sequence

from anlage.core.document import at, with_at
from anlage.core.errors import AnlageError
from anlage.core.quantities.units import System
from anlage.formats.tables import STARTS_FORMULA
from anlage.session.leaves.draft import Working, changed_to, typed

MOST_ADDED = 400  # passes that one paste may add; more is a whole sheet by mistake; own choice


def typed_in_all(working: Working, texts: Iterable[tuple[str, str]], system: System) -> Working:
    """Return the draft after texts were typed, each into its leaf: taken over, or kept where it cannot be."""
    for path, text in texts:
        working = typed(working, path, text, system)
    return working


def copied_down(working: Working, paths: Sequence[str]) -> Working:
    """Return the draft with the value of the first leaf in all others; a text that waits there is copied as it is."""
    first, *others = paths
    value = working.value
    for path in others:
        try:
            value = with_at(value, path, at(value, first))
        except AnlageError:
            continue  # a pass that is gone meanwhile
    after = changed_to(working, value)
    waiting = {path: text for path, text in after.pending.items() if path not in others}
    if first in working.pending:
        waiting |= dict.fromkeys(others, working.pending[first])
    return after if waiting == dict(after.pending) else Working(after.value, waiting)


def as_tsv(rows: Iterable[Iterable[str]]) -> str:
    r"""Return cells as text for the clipboard, a line a row; no cell starts a formula.

    Examples
    --------
    >>> as_tsv([["root", "95..115"], ["fill", "=1+1"]])
    "root\t95..115\nfill\t'=1+1\n"
    """
    return "".join("\t".join(map(_cell, row)) + "\n" for row in rows)


def _cell(text: str) -> str:
    text = " ".join(text.split())
    return f"'{text}" if text.lstrip("'").startswith(STARTS_FORMULA) else text


def from_tsv(text: str) -> list[list[str]]:
    r"""Return the cells of a text from the clipboard.

    Examples
    --------
    >>> from_tsv("95\t10\r\n110\t24\r\n"), from_tsv("95..115")
    ([['95', '10'], ['110', '24']], [['95..115']])
    >>> from_tsv(as_tsv([["'1G' only", "=1+1", "'=1+1"]]))
    [["'1G' only", '=1+1', "'=1+1"]]
    """
    lines = text.replace("\r\n", "\n").replace("\r", "\n").rstrip("\n").split("\n")
    return [[_as_meant(cell.strip()) for cell in line.split("\t")] for line in lines]


def _as_meant(text: str) -> str:
    """Return a cell without the mark that kept it from being a formula; any other apostrophe is its own."""
    return text[1:] if text.startswith("'") and text.lstrip("'").startswith(STARTS_FORMULA) else text
