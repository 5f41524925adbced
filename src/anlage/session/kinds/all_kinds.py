"""Every kind of document, in the order that lists show them, and how one is found."""

from typing import Any

from anlage.core.errors import UnknownNameError
from anlage.session.kinds.kind import Kind
from anlage.session.kinds.machine import SOURCE
from anlage.session.kinds.pqr import RECORD
from anlage.session.kinds.wps import PROCEDURE

KINDS: tuple[Kind, ...] = (PROCEDURE, RECORD, SOURCE)


def kind_named(word: str, *, where: str = "kind") -> Kind:
    """Return the kind that a word names: `wps` or `pqr`.

    Raises
    ------
    UnknownNameError : there is no such kind

    Examples
    --------
    >>> kind_named("pqr").word
    'record'
    """
    found = {kind.id: kind for kind in KINDS}
    if word not in found:
        raise UnknownNameError(word, found, where=where)
    return found[word]


def kind_of_format(name: str) -> Kind:
    """Return the kind whose JSON says a format.

    Raises
    ------
    UnknownNameError : no kind has it
    """
    found = {kind.format: kind for kind in KINDS}
    if name not in found:
        raise UnknownNameError(name, found, where="format")
    return found[name]


def kind_of(value: Any) -> Kind:
    """Return the kind of an open document."""
    return kind_of_format(value.format)
