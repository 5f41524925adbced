"""The three verdicts and their order: outside beats unproven beats inside; nothing at all is unproven."""

from collections.abc import Iterable
from typing import Literal

from anlage.core.ranges import Range, loosened

Verdict = Literal["inside", "outside", "unproven"]
_WORST_FIRST: tuple[Verdict, ...] = ("outside", "unproven", "inside")


def verdict_of(stated: Range | None, sure: Range, possible: Range) -> Verdict:
    """Return the verdict on one stated set: inside what is sure, outside what is possible, else unproven."""
    return verdict_within(stated, loosened(sure), loosened(possible))


def verdict_within(stated: Range | None, sure: Range, possible: Range) -> Verdict:
    """Return the verdict of `verdict_of` for sets that are loosened already."""
    if stated is None:
        return "unproven"
    if sure.contains(stated):
        return "inside"
    return "unproven" if possible.contains(stated) else "outside"


def worst(verdicts: Iterable[Verdict]) -> Verdict:
    """Return the worst of some verdicts; of none, unproven.

    Examples
    --------
    >>> worst(["inside", "unproven"]), worst([])
    ('unproven', 'unproven')
    """
    return min(verdicts, key=_WORST_FIRST.index, default="unproven")
