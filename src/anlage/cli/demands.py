"""Demands stated beside a document: they stand for those in its header."""

from anlage.core.document import with_at
from anlage.core.procedure import Wps
from anlage.session.keyed.arguments import Arguments

KEYS = ("units", "weld", "impact")


def with_demands(wps: Wps, words: Arguments) -> Wps:
    """Return a procedure with the demands that are stated beside it.

    Raises
    ------
    InputError, UnknownNameError : a demand cannot be that
    """
    for key in KEYS:
        if key in words:
            value = words.answer(key) if key == "impact" else words.text(key).casefold()
            wps = with_at(wps, f"header/{key}", value)
    return wps
